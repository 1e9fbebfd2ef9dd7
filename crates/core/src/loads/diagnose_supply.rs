//! The supply by volts at outlets with everything on: a lost neutral, a lost or a low leg, a circuit that drops, or the next reading
//! that tells them apart.
//!
//! Source: common practice; 108 and 126 V are ANSI C84.1 range A, from memory, with the drop of the wires in the house, and more than
//! 130 V is what no service may have. An outlet counts on the leg of the breaker on which it is proven.

use serde::Serialize;

use crate::logbook::{Look, Metered};
use crate::model::{Breaker, BreakerId, Leg, PanelId, PointId, PointKind, Seen, Volts, legs_of, meter};
use crate::study::Study;
use crate::trace::{last_read_all_on, legs_apart, too_much_read, verdicts};

/// What the readings say.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SupplyState {
    /// A reading is missing that decides.
    Open,
    /// The neutral of the service, of a panel or of circuits that share one is open.
    LostNeutral,
    /// One leg gives nothing.
    LostLeg,
    /// One leg is low, the other right.
    LowLeg,
    /// Both legs are low.
    LowSupply,
    /// One circuit alone is low or dead.
    Circuit,
}

/// The supply by volts at outlets.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SupplyDiagnosis {
    /// What the readings say.
    pub state: SupplyState,
    /// The same in a sentence.
    pub words: String,
    /// What to do, or to read next.
    pub next: String,
    /// Nothing more is read or switched on: stop and call.
    pub stop: bool,
    /// The outlet to read next.
    pub read_next: Option<PointId>,
}

/// A reading with where it is fed from.
struct At<'a> {
    metered: &'a Metered,
    breaker: &'a Breaker,
    leg: Leg,
}

impl At<'_> {
    fn is_low(&self) -> bool {
        self.metered.volts < meter::LOW
    }

    fn is_high(&self) -> bool {
        self.metered.volts > meter::HIGH
    }

    /// Hardly anything stands there: what may stray over, and no supply.
    fn is_dead(&self) -> bool {
        self.metered.volts < DEAD
    }
}

/// Below this an outlet is not supplied; a lost leg has some volts through what runs on 240 V. Judgement.
const DEAD: f64 = 60.0;

/// The leg of the service on which a leg of this panel hangs.
fn leg_of_service(home: &Study, panel: &PanelId, leg: Leg, depth: usize) -> Leg {
    let feeder =
        home.panels().panel(panel).and_then(|panel| Some((panel, home.panels().breaker(panel.details.fed_by.as_ref()?)?)));
    let Some((panel, feeder)) = feeder.filter(|_| depth < 8) else { return leg };
    let Some(parent) = home.panels().panel(&feeder.panel) else { return leg };
    let nth = panel.service.legs().iter().position(|one| *one == leg).unwrap_or(0);
    match legs_of(parent, &feeder.at).get(nth) {
        Some(above) => leg_of_service(home, &parent.id, *above, depth + 1),
        None => leg,
    }
}

fn leg_of(home: &Study, breaker: &Breaker) -> Option<Leg> {
    let panel = home.panels().panel(&breaker.panel)?;
    let leg = *legs_of(panel, &breaker.at).first()?;
    (breaker.poles() == 1).then(|| leg_of_service(home, &panel.id, leg, 0))
}

const STOP: &str = "Stop here: read nothing more and switch nothing on. Switch the main off where that is safe, unplug what is plugged in, \
                    and call an electrician and the utility. Lamps that are bright here and dim there are an emergency.";

/// A reading at a point that is proven on a one-pole; a dead one, which no proof holds for now, counts where it went dark last with one
/// breaker alone.
fn placed<'a>(home: &'a Study, metered: &'a Metered) -> Option<At<'a>> {
    let (_, verdict) = verdicts(home).iter().find(|(known, _)| *known == metered.point)?;
    let went_dark = || {
        let dark = |look: &&Look| look.point == metered.point && look.seen == Seen::Dark && look.off.len() == 1;
        home.trace().looks().iter().rev().find(dark).and_then(|look| look.off.first())
    };
    let breaker = verdict.proven_on().or_else(|| if metered.volts < DEAD { went_dark() } else { None })?;
    let breaker = home.panels().breaker(breaker)?;
    Some(At { metered, breaker, leg: leg_of(home, breaker)? })
}

/// What volts at outlets say of the supply; `None` where every one that was read is right.
pub fn diagnose_supply(home: &Study) -> Option<SupplyDiagnosis> {
    let read: Vec<At<'_>> = last_read_all_on(home).into_iter().filter_map(|metered| placed(home, metered)).collect();
    let said = |state, words: String, next: String| SupplyDiagnosis { state, words, next, stop: true, read_next: None };
    if legs_apart(home).is_some() || !too_much_read(home).is_empty() {
        return Some(said(SupplyState::LostNeutral, lost_neutral(home, &read), STOP.into()));
    }
    let low: Vec<&At<'_>> = read.iter().filter(|at| at.is_low()).collect();
    let first = low.first()?;
    let place = |at: &At<'_>| format!("{} reads {} V", home.house().place(&at.metered.point), at.metered.volts);
    let same_leg: Vec<&At<'_>> = read.iter().filter(|at| at.leg == first.leg && at.breaker.id != first.breaker.id).collect();
    let other_leg: Vec<&At<'_>> = read.iter().filter(|at| at.leg != first.leg).collect();
    let number = home.panels().number(&first.breaker.id);
    let ask = |on_leg: Leg, same: bool, why: &str| {
        let point = next_outlet(home, &read, on_leg, same.then_some(&first.breaker.id));
        let words = format!("{}, below {} V with everything on.", place(first), meter::LOW);
        let next = match &point {
            Some(point) => format!("Read {} next, with the same loads on: {why}", home.house().place(point)),
            None => {
                format!("Read an outlet on the {} leg next, with the same loads on: {why}", if same { "same" } else { "other" })
            }
        };
        SupplyDiagnosis { state: SupplyState::Open, words, next, stop: false, read_next: point }
    };
    let other = if first.leg == Leg::A { Leg::B } else { Leg::A };
    // Something on that leg was seen lit since: it is no leg.
    let lit_since = home.trace().looks().iter().any(|look| {
        let on = verdicts(home).iter().find(|(point, _)| *point == look.point).and_then(|(_, verdict)| verdict.proven_on());
        let leg = on.and_then(|breaker| home.panels().breaker(breaker)).and_then(|breaker| leg_of(home, breaker));
        look.seen == Seen::Lit
            && look.written >= first.metered.written
            && on != Some(&first.breaker.id)
            && leg == Some(first.leg)
            && !low.iter().any(|at| at.metered.point == look.point)
    });
    if same_leg.is_empty() && !lit_since {
        return Some(ask(first.leg, true, "it is on another circuit of the same leg, and tells a circuit from a leg."));
    }
    let others: std::collections::BTreeSet<String> =
        same_leg.iter().filter(|at| at.is_low()).map(|at| home.panels().number(&at.breaker.id)).collect();
    if !others.is_empty() && (lit_since || same_leg.iter().any(|at| !at.is_low())) {
        let numbers: Vec<String> = others.into_iter().chain([number]).collect();
        let words = format!("Volts are low on {}; another circuit of that leg is right, so it is no leg.", numbers.join(" and "));
        let next = "Look for what these circuits share: a panel, a cable, a neutral. Switch them off until it is found: a joint may be hot.";
        return Some(SupplyDiagnosis { state: SupplyState::Circuit, words, next: next.into(), stop: false, read_next: None });
    }
    if lit_since || same_leg.iter().any(|at| !at.is_low()) {
        let dead = first.is_dead();
        let words = format!("{}; another circuit of its leg is right. It is circuit {number} alone.", place(first));
        let next = if dead {
            "Look for what is tripped or open on it: a GFCI, a switch, a joint. Nothing else needs to be read.".into()
        } else {
            format!(
                "Switch {number} off: a joint may be hot. Then read it from its first outlet to its last under load: the joint is where the volts fall."
            )
        };
        return Some(SupplyDiagnosis { state: SupplyState::Circuit, words, next, stop: false, read_next: None });
    }
    let has_another = home.panels().all().any(|panel| panel.details.fed_by.is_none() && panel.service.legs().len() > 1);
    if other_leg.is_empty() && has_another {
        return Some(ask(other, false, "it is on the other leg, and tells one leg from the whole supply."));
    }
    let leg = first.leg.letter();
    Some(if other_leg.iter().any(|at| !at.is_low()) {
        if first.is_dead() && same_leg.iter().all(|at| at.is_dead()) {
            let words = format!("Leg {leg} gives nothing, the other does: a leg is lost.");
            said(SupplyState::LostLeg, words, STOP.into())
        } else {
            let words = format!("Leg {leg} is low on every circuit that was read, the other is right.");
            said(SupplyState::LowLeg, words, STOP.into())
        }
    } else {
        let words = if has_another { "Both legs are low: it is the supply." } else { "Every circuit is low: it is the supply." };
        let words = words.to_owned();
        let next = "Switch off what takes much, motors and coolers first: they run hot at low volts. Call the utility.";
        SupplyDiagnosis { state: SupplyState::LowSupply, words, next: next.into(), stop: false, read_next: None }
    })
}

/// Where a neutral is open, as far as the readings say.
fn lost_neutral(home: &Study, read: &[At<'_>]) -> String {
    let wrong: Vec<&At<'_>> = read.iter().filter(|at| at.is_low() || at.is_high()).collect();
    let right = |beside: &dyn Fn(&At<'_>) -> bool| read.iter().any(|at| !at.is_low() && !at.is_high() && beside(at));
    let group = wrong.first().and_then(|at| home.panels().shared_neutral_of(&at.breaker.id));
    if let Some(group) = group.filter(|group| wrong.iter().all(|at| group.contains(&at.breaker.id))) {
        let numbers: Vec<String> = group.iter().map(|breaker| home.panels().number(breaker)).collect();
        let numbers = numbers.join(" and ");
        return if right(&|at| !group.contains(&at.breaker.id)) {
            format!("The neutral that {numbers} share is open or loose: their outlets are high and low, others are right.")
        } else {
            format!("A neutral is open or loose: that which {numbers} share, or the whole house's.")
        };
    }
    let panel = wrong.first().map(|at| &at.breaker.panel).filter(|panel| wrong.iter().all(|at| at.breaker.panel == **panel));
    let fed = panel.and_then(|panel| home.panels().panel(panel)).filter(|panel| panel.details.fed_by.is_some());
    match fed {
        Some(panel) if right(&|at| at.breaker.panel != panel.id) => {
            format!(
                "The neutral of the feeder to {} is open or loose: its outlets are high and low, others are right.",
                panel.name
            )
        }
        _ => "The neutral of the service is open or loose: some outlets are high, others low.".into(),
    }
}

/// An outlet of 120 V on this leg that was not read, on another circuit than that.
fn next_outlet(home: &Study, read: &[At<'_>], leg: Leg, not_on: Option<&BreakerId>) -> Option<PointId> {
    let circuits_read: Vec<&BreakerId> = read.iter().map(|at| &at.breaker.id).collect();
    verdicts(home)
        .iter()
        .filter_map(|(point, verdict)| Some((home.house().point(point)?, home.panels().breaker(verdict.proven_on()?)?)))
        .filter(|(point, _)| point.kind == PointKind::Receptacle && point.volts == Volts::new(120))
        .find(|(_, breaker)| {
            Some(&breaker.id) != not_on && !circuits_read.contains(&&breaker.id) && leg_of(home, breaker) == Some(leg)
        })
        .map(|(point, _)| point.id.clone())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    /// Circuits 1 and 5 on leg A, 3 and 7 on leg B, 9 and 11 with a shared neutral.
    fn read(acts: &str) -> Option<SupplyDiagnosis> {
        let house = "panel 12\n1 20 a\n5 20 b\n3 20 c\n7 20 d\n9 20 e\n11 20 f\nshare 9 11\nroom Hall\n";
        let points = ["one 1", "five 5", "three 3", "seven 7", "nine 9", "eleven 11"];
        let placed: String = points.iter().map(|p| format!("point Hall receptacle {}\n", p.split(' ').next().unwrap())).collect();
        let proofs: String = points.iter().map(|p| format!("proof {p}\n")).collect();
        diagnose_supply(&written(&format!("{house}{placed}{proofs}{acts}")).home)
    }

    #[test]
    fn the_next_reading_tells_a_circuit_from_a_leg_and_a_leg_from_the_supply() {
        assert_eq!(read("volts one 119\nvolts three 118"), None);
        let low = read("volts one 104").unwrap();
        assert_eq!((low.state, low.read_next.as_ref().map(|p| p.as_str())), (SupplyState::Open, Some("five")), "{low:?}");
        let circuit = read("volts one 104\nvolts five 119").unwrap();
        assert_eq!((circuit.state, circuit.stop), (SupplyState::Circuit, false), "{circuit:?}");
        assert!(circuit.next.starts_with("Switch 1 off"), "{circuit:?}");
        let leg = read("volts one 104\nvolts five 103").unwrap();
        assert_eq!((leg.state, leg.read_next.as_ref().map(|p| p.as_str())), (SupplyState::Open, Some("three")), "{leg:?}");
        let one_leg = read("volts one 104\nvolts five 103\nvolts three 119").unwrap();
        assert_eq!((one_leg.state, one_leg.stop), (SupplyState::LowLeg, true), "{one_leg:?}");
        let both = read("volts one 104\nvolts five 103\nvolts three 105").unwrap();
        assert_eq!((both.state, both.stop), (SupplyState::LowSupply, false), "{both:?}");
        let lost = read("volts one 4\nvolts five 2\nvolts three 119").unwrap();
        assert_eq!((lost.state, lost.stop), (SupplyState::LostLeg, true), "{lost:?}");
        let dead = read("volts one 4\nvolts five 120").unwrap();
        assert_eq!(dead.state, SupplyState::Circuit, "{dead:?}");
    }

    #[test]
    fn what_is_right_on_the_same_leg_since_makes_it_no_leg() {
        let seen = read("volts one 104\nlit five").unwrap();
        assert_eq!((seen.state, seen.stop), (SupplyState::Circuit, false), "{seen:?}");
        let two = "panel 12\n1 20 a\n5 20 b\n9 20 c\n3 20 d\nroom Hall\npoint Hall receptacle one\npoint Hall receptacle five\n\
                   point Hall receptacle nine\nproof one 1\nproof five 5\nproof nine 9\n";
        let two = diagnose_supply(&written(&format!("{two}volts one 104\nvolts five 103\nvolts nine 119")).home).unwrap();
        assert_eq!((two.state, two.stop), (SupplyState::Circuit, false), "{two:?}");
        assert_eq!(two.words, "Volts are low on 1 and 5; another circuit of that leg is right, so it is no leg.");
    }

    #[test]
    fn where_there_is_one_leg_no_other_is_asked_for() {
        let house = "panel 4\nwith main {\"service\": \"one_leg_120\"}\n1 20 a\n3 20 b\nroom Hall\npoint Hall receptacle one\npoint Hall receptacle two\n\
                     proof one 1\nproof two 3\nvolts one 104\nvolts two 103";
        let found = diagnose_supply(&written(house).home).unwrap();
        assert_eq!((found.state, found.stop), (SupplyState::LowSupply, false), "{found:?}");
    }

    #[test]
    fn an_open_neutral_stops_and_is_placed_as_far_as_the_readings_say() {
        for (acts, where_it_is) in [
            ("volts one 104\nvolts three 134", "The neutral of the service"),
            ("volts nine 98\nvolts eleven 141", "A neutral is open or loose: that which 9 and 11 share, or the whole house's."),
            ("volts nine 98\nvolts eleven 141\nvolts one 119", "The neutral that 9 and 11 share is open or loose"),
        ] {
            let found = read(acts).unwrap();
            assert_eq!((found.state, found.stop), (SupplyState::LostNeutral, true), "{acts}");
            assert!(found.words.starts_with(where_it_is), "{acts}: {found:?}");
            assert!(found.next.contains("call an electrician and the utility"), "{found:?}");
        }
    }
}
