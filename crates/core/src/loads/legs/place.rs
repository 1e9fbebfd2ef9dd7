//! Puts a choice into spaces: which unit ends where.

use std::collections::BTreeMap;

use super::ready::{Choice, PanelChoice, Ready, ReadyPanel};
use super::{LegPanel, LegPanels};

/// How many more wires a leg needs so that its tandems sit in listed spaces: singles that stay on the leg make room. `None` where
/// it cannot be.
pub(super) fn room_on_leg(panel: &ReadyPanel, goes: &[(usize, usize)], leg: usize) -> Option<u32> {
    let count = |wanted: &dyn Fn(usize, usize) -> bool| {
        i32::try_from(goes.iter().filter(|(mover, to)| wanted(*mover, *to)).count()).unwrap_or(i32::MAX)
    };
    let tandem = |mover: usize| panel.movers[mover].tandem;
    let from = |mover: usize| panel.movers[mover].leg == leg;
    let open = |kind: usize| i32::try_from(panel.open[leg][kind]).unwrap_or(i32::MAX);
    let (into, out) = (count(&|_, to| to == leg), count(&|mover, _| from(mover)));
    if into > open(0) + open(1) + out {
        return None;
    }
    let listed_out = count(&|mover, _| from(mover) && panel.movers[mover].listed);
    let tandems_in = count(&|mover, to| to == leg && tandem(mover));
    let short = (tandems_in - open(1) - listed_out).max(0);
    let can_make_room = panel.movers.iter().enumerate().filter(|(number, mover)| {
        mover.leg == leg && mover.listed && !mover.tandem && goes.iter().all(|(moved, _)| moved != number)
    });
    (short <= i32::try_from(can_make_room.count()).unwrap_or(0)).then_some(u32::try_from(short).unwrap_or(0))
}

/// Where everything that moved ends.
pub(super) fn placed(input: &LegPanels, ready: &Ready, choice: &Choice) -> BTreeMap<String, Vec<usize>> {
    let mut witness = BTreeMap::new();
    for ((panel, ready), chosen) in input.panels.iter().zip(&ready.panels).zip(choice) {
        singles(panel, ready, chosen, &mut witness);
        let turned =
            chosen.turned.iter().map(|(turner, order)| (ready.turners[*turner].unit, &ready.turners[*turner].orders[*order]));
        let fed = chosen.fed.iter().map(|(feeder, order)| (ready.feeders[*feeder].unit, &ready.feeders[*feeder].orders[*order]));
        for (unit, order) in turned.chain(fed).filter(|(_, order)| order.cost > 0) {
            let unit = &panel.units[unit];
            witness.insert(unit.id.clone(), order.order.iter().map(|stands| unit.spaces[*stands]).collect());
        }
    }
    witness
}

fn singles(panel: &LegPanel, ready: &ReadyPanel, chosen: &PanelChoice, witness: &mut BTreeMap<String, Vec<usize>>) {
    for leg in 0..panel.legs {
        let space_of = |mover: usize| panel.units[ready.movers[mover].unit].spaces[0];
        let mut free: Vec<usize> = (0..panel.spaces.len())
            .filter(|at| panel.spaces[*at].leg == leg && panel.spaces[*at].unit.is_none() && !panel.spaces[*at].blocked)
            .chain(chosen.goes.iter().map(|(mover, _)| space_of(*mover)).filter(|at| panel.spaces[*at].leg == leg))
            .collect();
        let coming: Vec<usize> = chosen.goes.iter().filter(|(_, to)| *to == leg).map(|(mover, _)| *mover).collect();
        let tandems = coming.iter().filter(|mover| ready.movers[**mover].tandem).count();
        let listed = |at: &usize| panel.spaces[*at].tandem;
        let short = tandems.saturating_sub(free.iter().filter(|at| listed(at)).count());
        let makes_room = (0..ready.movers.len()).filter(|number| {
            let mover = &ready.movers[*number];
            mover.leg == leg && mover.listed && !mover.tandem && chosen.goes.iter().all(|(moved, _)| moved != number)
        });
        let makes_room: Vec<usize> = makes_room.take(short).collect();
        let own: Vec<usize> = makes_room.iter().map(|mover| space_of(*mover)).collect();
        free.extend(&own);
        // Tandems take listed spaces first; the singles that made room must not go back to where they were.
        free.sort_by_key(|at| (!listed(at), !own.contains(at), *at));
        for mover in coming.iter().filter(|mover| ready.movers[**mover].tandem) {
            witness.insert(panel.units[ready.movers[*mover].unit].id.clone(), vec![free.remove(0)]);
        }
        let singles = makes_room.into_iter().chain(coming.into_iter().filter(|mover| !ready.movers[*mover].tandem));
        for mover in singles {
            witness.insert(panel.units[ready.movers[mover].unit].id.clone(), free.pop().into_iter().collect());
        }
    }
}
