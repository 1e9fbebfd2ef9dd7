//! What can be said of a wish without a search: doing nothing, and why a kind of way is out of the question.

use super::problem::*;
use super::setup::*;

impl Setup<'_> {
    /// Doing nothing: the circuit that is used as it is, if any, with how far the legs are then apart; or why not.
    pub(super) fn nothing(&self) -> Result<(Option<usize>, i64), NoWay> {
        match &self.problem.wish {
            WishOf::Circuit { cord, poles, .. } => {
                if !*cord || *poles != 1 {
                    return Err(NoWay::NotCord);
                }
                let new = &self.units[self.units.len() - 1 - usize::from(self.feeder.is_some())];
                let has_room = |host: &usize| {
                    let unit = &self.units[*host];
                    unit.general
                        && unit.poles == 1
                        && !unit.fixed
                        && unit.amps >= new.amps
                        && unit.guard.covers(new.guard)
                        && unit.demand() + new.demand() <= unit.amps * 1000
                        // What has a cord takes at most 80 % of its circuit (NEC 210.23(A)(1)).
                        && new.load[0] <= unit.amps * 8
                        && unit.home.is_some_and(|home| {
                            let mut legs = self.before;
                            legs[self.leg[home.space]] += new.load[0];
                            legs[..self.legs].iter().all(|sum| *sum <= self.limit)
                        })
                };
                let spread = |host: &usize| {
                    let mut legs = self.before;
                    if let Some(home) = self.units[*host].home {
                        legs[self.leg[home.space]] += new.load[0];
                    }
                    self.spread(&legs)
                };
                let host = (0..self.existing).filter(has_room).min_by_key(spread).ok_or(NoWay::NotCord)?;
                Ok((Some(host), spread(&host)))
            }
            WishOf::Spaces { .. } => {
                let taken =
                    self.units[..self.existing].iter().filter_map(|unit| unit.home).fold(0, |all, home| all | home.halves);
                let open = |(column, row): &(usize, usize)| {
                    let gap = self.gap.map_or(1, |gap| self.units[gap].poles);
                    self.at(*column, *row, Shape::Full, gap).is_some_and(|at| at.halves & taken == 0)
                };
                if self.spots.iter().any(open) { Ok((None, self.spread(&self.before))) } else { Err(NoWay::NoGap) }
            }
            WishOf::Replace { poles, amps, protection, .. } => {
                let holds = |unit: &Unit| unit.replaced && unit.home_breaker == (*poles, *amps, *protection);
                if self.units.iter().any(holds) { Ok((None, self.spread(&self.before))) } else { Err(NoWay::WishNotMet) }
            }
            WishOf::Own { .. } => Err(NoWay::LoadNotAlone),
            WishOf::Level { .. } => {
                if self.before.iter().all(|sum| *sum <= self.limit) {
                    Ok((None, self.spread(&self.before)))
                } else {
                    Err(NoWay::Main80)
                }
            }
        }
    }

    /// Why nothing can be done in the panel at all.
    pub(super) fn refused(&self) -> Option<NoWay> {
        if !self.problem.panel.refer.is_empty() {
            return Some(NoWay::Refer);
        }
        let wished = self.units.iter().find(|unit| unit.role == Role::New || unit.replaced);
        let named = match &self.problem.wish {
            WishOf::Replace { circuit, .. } | WishOf::Own { circuit, .. } => {
                self.problem.circuits.iter().find(|known| known.id == *circuit)
            }
            _ => None,
        };
        if named.is_some_and(|circuit| circuit.fixed) {
            return Some(NoWay::Fixed);
        }
        if let Some(unit) = wished {
            if unit.demand() > unit.amps * 1000 {
                return Some(NoWay::BreakerBelowLoad);
            }
            if unit.amps > unit.wire_amps {
                return Some(NoWay::BreakerAboveWire);
            }
            if unit.replaced {
                let (poles, _, guard) = unit.home_breaker;
                if !unit.guard.covers(guard) {
                    return Some(NoWay::ProtectionLost);
                }
                let alone = named.is_some_and(|c| c.outlets == 1 && !c.shared_neutral && !is_required(&c.class));
                if poles == 1 && unit.poles == 2 && !alone {
                    return Some(NoWay::NotSingleOutlet);
                }
            }
        }
        let total: i64 = self.units.iter().map(|unit| unit.load[0] + if unit.poles == 2 { unit.load[1] } else { 0 }).sum();
        (total > self.most_on_a_leg() * self.legs as i64).then_some(NoWay::Main80)
    }

    /// Why there is no plan of a kind, whatever the panel holds.
    pub(super) fn out_of_the_question(&self, way: Way) -> Option<NoWay> {
        let panel = &self.problem.panel;
        let pairs = |also: &dyn Fn(&Unit, &Unit) -> bool| {
            let existing = &self.units[..self.existing];
            existing.iter().enumerate().any(|(g, guest)| {
                existing.iter().enumerate().any(|(h, host)| g != h && self.may_host(guest, host) && also(guest, host))
            })
        };
        match way {
            Way::Tandem if self.listed == 0 || panel.label.get("tandem").is_none_or(Vec::is_empty) => {
                Some(NoWay::TandemNotListed)
            }
            Way::Quad if panel.slim || self.listed == 0 || panel.label.get("quad").is_none_or(Vec::is_empty) => {
                Some(NoWay::QuadNotListed)
            }
            Way::Slim if !panel.slim || panel.label.get("slim").is_none_or(Vec::is_empty) => Some(NoWay::SlimNotMade),
            Way::Tap if self.units[..self.existing].iter().all(|unit| unit.terminal < 2) => Some(NoWay::TerminalNotListed),
            Way::Tap if !pairs(&|guest, host| self.may_tap(guest, host)) => Some(NoWay::NothingMayBeCombined),
            Way::Join if !pairs(&|_, _| true) => Some(NoWay::NothingMayBeCombined),
            Way::Sub if self.feeder.is_none() => Some(NoWay::NoSubOffered),
            _ => None,
        }
    }
}
