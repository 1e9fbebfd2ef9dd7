//! What cures a cause: what the owner may do, what an electrician does, and where in the program it goes on.

use super::cause::{Cause, Family};
use super::of_home::AtHome;
use super::planner::Named;
use super::said::{STILL_HOT, Words};
use super::stop::{ToCall, call};
use crate::loads::{circuits, load_moves, while_running};
use crate::logbook::KnownTrouble;
use crate::model::LoadId;
use crate::study::Study;

/// What to do about it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Cure {
    /// What to do, in order.
    pub steps: Vec<String>,
    /// What to mind.
    pub mind: Vec<String>,
    /// It is an electrician's.
    pub electrician: bool,
    /// Whom to call.
    pub call: Vec<ToCall>,
    /// Where it goes on.
    pub acts: Vec<CureAct>,
}

/// Where it goes on in the program.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct CureAct {
    /// As on the button.
    pub label: String,
    /// The screen, within the home: `work`, `loads`.
    pub screen: String,
    /// The wish that is asked of Work; empty: none.
    pub wish: String,
    /// The panel in which it is wished, by its id; empty: none.
    pub panel: String,
}

/// What cures what was named.
pub(super) fn cure(home: &Study, at: &AtHome, trouble: &KnownTrouble, named: &Named) -> Cure {
    let words = Words { home, at };
    let breaker = named.key.breaker.map_or_else(|| "the breaker".into(), |b| words.breaker(b));
    let number = named.key.breaker.and_then(|b| words.number(b));
    let place = named.key.place.map_or_else(|| words.reported(), |p| words.point(p));
    let id = named.key.breaker.and_then(|b| at.breakers.get(b).cloned().flatten());
    let panel = id.and_then(|id| home.panels().breaker(&id)).map_or_else(String::new, |b| b.panel.to_string());
    let work = |label: &str, wish: String| CureAct { label: label.into(), screen: "work".into(), wish, panel: panel.clone() };
    let (steps, electrician): (Vec<String>, bool) = match named.key.cause {
        Cause::Overload => (overload(home, at, trouble, named), false),
        Cause::ShortLoad | Cause::GroundLoad => (
            vec![
                "Leave everything on it unplugged, and reset it once.".into(),
                "It holds: plug in one thing at a time. The one that trips it is broken: leave it unplugged, throw it out or have it mended.".into(),
                "It trips with nothing plugged in: leave it off. Then it is the wiring, and an electrician's.".into(),
            ],
            false,
        ),
        Cause::Inrush => (
            vec![
                "Switch the motor off, reset once, start it alone.".into(),
                "It trips again: the motor may be stuck or worn, or needs a circuit of its own. Leave it unplugged.".into(),
            ],
            false,
        ),
        Cause::Arc => (
            vec![
                "Leave it off. Unplug everything, and look at cords and plugs for damage.".into(),
                "Whether it is a cord, an appliance or the wiring is found out with the breaker off.".into(),
            ],
            true,
        ),
        Cause::ShortWiring | Cause::GroundWiring => {
            (vec![format!("Leave {breaker} off. Nothing that you can unplug is the reason."), STILL_HOT.into()], true)
        }
        Cause::OffOrNotLatched => (
            vec![
                "Ask first whether somebody switched it off for work: a handle with a tag or a lock stays as it is.".into(),
                format!("Then push {breaker} fully off, and firmly on."),
            ],
            false,
        ),
        Cause::GfciTripped => (
            vec![
                format!("{place}: press RESET until it clicks in."),
                "It trips again: unplug what it feeds, press once more, plug in one thing at a time.".into(),
                "Test it with its own button once a month.".into(),
            ],
            false,
        ),
        Cause::Double => (
            vec![
                format!("Everything unplugged: reset {breaker} once, then press RESET on the GFCI: {place}."),
                "One of them trips again: leave it off.".into(),
            ],
            false,
        ),
        Cause::SwitchOff => (vec!["Leave it on, or write on it what it switches.".into()], false),
        Cause::Control => (vec!["Set the clock anew, or clean the eye; it may be worn.".into()], false),
        Cause::Lamp => (vec!["Put in a lamp of the kind and watts that the fixture allows.".into()], false),
        Cause::Cutout => (
            vec!["It tripped for a reason: too hot, blocked, worn. Out once more, and it is to be mended.".into()],
            false,
        ),
        Cause::Cord => (
            vec!["Leave it unplugged; have it mended, or throw it out.".into(), "The outlet itself is sound.".into()],
            false,
        ),
        Cause::OpenHot | Cause::OpenNeutral | Cause::LooseJoint | Cause::BreakerFailed | Cause::GfciDead => (
            vec![
                format!("Leave {breaker} off until it is mended: a joint that fails gets hot."),
                "The boxes above are opened with the breaker off and proven dead, the likeliest first. At fault is mostly a wire in a push-in hole, a loose screw or a burnt device.".into(),
                STILL_HOT.into(),
            ],
            true,
        ),
        Cause::LostLeg | Cause::FeederLeg => (
            vec![
                "Switch everything of 240 V off: through it the dead leg is fed backwards, and motors burn.".into(),
                "Call the utility; if it finds its side sound, an electrician.".into(),
            ],
            true,
        ),
        Cause::LostNeutral | Cause::SharedNeutral => (vec!["Stop: main off, and call.".into()], true),
        Cause::Outage => (
            vec![
                "Tell the utility. Switch off what should not start by itself; leave one lamp on to see the power come back.".into(),
                "Keep away from wires that hang down.".into(),
            ],
            false,
        ),
        Cause::MainOff | Cause::FeederOff => (
            vec![
                "Find out first who switched it off, and why: a tag or a lock stays as it is.".into(),
                "Switch off the breakers behind it, this one on, then one after the other.".into(),
            ],
            false,
        ),
    };
    let mut acts = Vec::new();
    if let Some(number) = number {
        match named.key.cause {
            Cause::Overload => {
                if let Some(load) = heaviest(home, at, trouble, named) {
                    acts.push(work("Give it a circuit of its own", format!("own circuit for the {load}")));
                }
                acts.push(CureAct {
                    label: format!("What {number} carries"),
                    screen: "loads".into(),
                    wish: String::new(),
                    panel: String::new(),
                });
            }
            Cause::BreakerFailed => acts.push(work("Ways to replace it", format!("replace {number}"))),
            _ => {}
        }
    }
    let mind = match named.key.cause.family() {
        Family::Itself if named.key.cause.trips() => {
            vec!["Reset once only, everything unplugged, standing aside. A breaker that trips again has a reason.".into()]
        }
        _ => Vec::new(),
    };
    let utility = matches!(named.key.cause, Cause::LostLeg | Cause::FeederLeg | Cause::Outage);
    let who = [(utility, "The utility"), (electrician, "An electrician")];
    let who: Vec<&str> = who.into_iter().filter(|(wanted, _)| *wanted).map(|(_, who)| who).collect();
    Cure { steps, mind, electrician, call: call(home, &who), acts }
}

/// What ran on it, against its rating, and what could move.
fn overload(home: &Study, at: &AtHome, trouble: &KnownTrouble, named: &Named) -> Vec<String> {
    let mut steps = Vec::new();
    let id = named.key.breaker.and_then(|b| at.breakers.get(b).cloned().flatten());
    if let Some(id) = &id {
        let running: Vec<LoadId> = ran(trouble);
        if let Some(at_amps) = while_running(home, id, &running).filter(|a| a.amps > 0.0) {
            let amps = home.panels().breaker(id).map_or(0.0, |b| b.amps.value());
            steps.push(format!(
                "What ran takes {:.1} A; breaker {} carries {amps} A. {}",
                at_amps.amps,
                home.panels().number(id),
                at_amps.words
            ));
        }
        // Only a move that leaves both circuits within their limits is one.
        let fits = running.iter().filter_map(|load| {
            let rest: Vec<LoadId> = running.iter().filter(|other| *other != load).cloned().collect();
            let breaker = home.panels().breaker(id)?;
            let rest_fits = while_running(home, id, &rest).is_some_and(|left| left.amps <= breaker.amps.value());
            let moves = load_moves(home, load)?;
            // Rather where it may run together with all that is there.
            let room = moves.to.iter().filter(|to| rest_fits && to.percent_then <= 100.0);
            let to = room.min_by_key(|to| !to.not_with.is_empty())?.clone();
            Some((moves, to))
        });
        if let Some((moves, to)) = fits.min_by(|(_, a), (_, b)| {
            let with_conflict = a.not_with.is_empty().cmp(&b.not_with.is_empty()).reverse();
            with_conflict.then(a.percent_then.total_cmp(&b.percent_then))
        }) {
            let unless = match to.not_with.as_slice() {
                [] => String::new(),
                sets => format!(", as long as it does not run there together with: {}", sets.join("; or ")),
            };
            steps.push(format!(
                "Plug the {} in on circuit {} ({}): that is then at {:.0} % of its limit{unless}.",
                moves.name, to.number, to.about, to.percent_then
            ));
        }
        // What may not run together on it, those first of which something ran.
        if let Some(circuit) = circuits(home).iter().find(|c| c.breaker == *id) {
            let (ran, rest): (Vec<_>, Vec<_>) =
                circuit.not_together.iter().partition(|set| set.loads.iter().any(|load| running.contains(load)));
            let sets: Vec<&str> = ran.into_iter().chain(rest).take(SETS_TOLD).map(|set| set.words.as_str()).collect();
            if !sets.is_empty() {
                steps.push(format!("Never together on {}: {}.", circuit.number, sets.join("; or ")));
            }
        }
    }
    steps.push("Switch off what ran, reset once, and do not run these together again.".into());
    steps
}

/// So many sets that may not run together are named.
const SETS_TOLD: usize = 3;

fn ran(trouble: &KnownTrouble) -> Vec<LoadId> {
    trouble.told.running.iter().chain(&trouble.told.last_on).cloned().collect()
}

/// The heaviest load that ran on it.
fn heaviest(home: &Study, at: &AtHome, trouble: &KnownTrouble, named: &Named) -> Option<String> {
    let id = at.breakers.get(named.key.breaker?).cloned().flatten()?;
    let running = ran(trouble);
    let circuit = circuits(home).iter().find(|c| c.breaker == id)?;
    let lines = circuit.loads.iter().filter(|line| running.is_empty() || running.contains(&line.load));
    lines.max_by(|a, b| a.amps.total_cmp(&b.amps)).map(|line| line.name.clone())
}
