//! The next step of a trace, and what every method of tracing asks of the logbook.
//!
//! The step follows from the logbook alone, so a trace can be left and taken up, from any screen, and
//! a person who does another thing than told is simply met where they are.

use std::collections::{BTreeMap, BTreeSet};

use super::ask::plugged;
use super::at_home::{AtHome, at_home, likely_at};
use super::neutral::cautions;
use super::reset::not_reset;
use super::step_card::{Reader, step_cards};
use super::verdict::{Verdict, by_point, counted, looks_by_power, verdicts};
use super::walkers::share_out;
use super::weighed::{Weighed, weighed};
use super::{NextStep, PointToSee, Progress, RoomToWalk, TraceView};
use crate::logbook::{Fact, Instrument, Look, PointPlaced};
use crate::model::{Breaker, BreakerId, Interior, Method, Place, Point, PointId, PointKind, Room, Seen, TraceSetup};
use crate::study::Study;

/// What to do next, one breaker at a time.
pub fn next_step(home: &Study) -> NextStep {
    trace_view(home, Method::OneAtATime).next
}

/// What to do next, and how far the trace is.
pub fn trace_view(home: &Study, setup: impl Into<TraceSetup>) -> TraceView {
    let setup = setup.into();
    if setup == home.setup() { home.once(|| look_ahead(home, setup)).clone() } else { look_ahead(home, setup) }
}

fn look_ahead(home: &Study, setup: TraceSetup) -> TraceView {
    let other = (setup != home.setup()).then(|| AtHome::of(home, setup));
    let mut rounds = Rounds::of(home);
    rounds.at_home = other.as_ref().map_or_else(|| at_home(home), Option::as_ref);
    rounds.plugged = plugged(home, rounds.at_home);
    let pick =
        |want: fn(&Verdict) -> bool| rounds.known.iter().filter(|(_, v)| want(v)).map(|(p, _)| p.clone()).collect::<Vec<_>>();
    let walked: BTreeSet<&BreakerId> = home
        .trace()
        .looks()
        .iter()
        .flat_map(|look| look.off.iter())
        .filter(|b| home.panels().breaker(b).is_some_and(|b| !b.is_left_off()))
        .collect();
    let next = rounds
        .stop()
        .or_else(|| rounds.downstream())
        .or_else(|| rounds.see_reset())
        .or_else(|| rounds.once_more())
        .or_else(|| rounds.is_it_on(setup.method))
        .or_else(|| rounds.back_again(setup.method))
        .unwrap_or_else(|| match setup.method {
            Method::OneAtATime => rounds.next(),
            Method::SeveralOff => rounds.next_of_several(),
            Method::LampAndHelper | Method::ToneTracer => rounds.next_of_hunt(setup),
        });
    let to_switch: Vec<BreakerId> = rounds.worth_switching().into_iter().map(|(b, _)| b.id.clone()).collect();
    let (panel, walk) = step_cards(home, &next, &to_switch, Reader::Owner);
    TraceView {
        seq: home.seq(),
        off: home.switchings().off().iter().cloned().collect(),
        progress: Progress::of(rounds.known),
        rounds_done: walked.len(),
        to_switch,
        panel,
        walk,
        contradictory: pick(|v| matches!(v, Verdict::Contradictory { .. })),
        out: pick(|v| matches!(v, Verdict::Out { .. })),
        likely: likely_at(home, rounds.at_home),
        setup,
        asks_setup: !home.setup_is_said()
            && home.trace().looks().is_empty()
            && home.practice().is_none()
            && !matches!(next, NextStep::SetUp { .. } | NextStep::Stop { .. }),
        last_turn: home.switchings().last(),
        cautions: match next {
            // Nothing is switched before that is mended.
            NextStep::Stop { .. } => Vec::new(),
            _ => cautions(home, &off_with(home, &next)),
        },
        next,
    }
}

/// What to do next where others walk, too, by name: with who is in which room.
pub fn trace_together(home: &Study, setup: impl Into<TraceSetup>, walkers: &[String]) -> TraceView {
    let mut view = trace_view(home, setup);
    if let Some(rooms) = view.next.rooms_mut() {
        let taken = share_out(home, rooms, walkers);
        for room in rooms {
            room.who = taken.get(&room.room).cloned().unwrap_or_default();
        }
    }
    view
}

/// What is off, and what the step wants off, if only for a moment.
fn off_with(home: &Study, next: &NextStep) -> BTreeSet<BreakerId> {
    let mut off = (**home.switchings().off()).clone();
    match next {
        NextStep::SwitchOff { breaker, .. } | NextStep::Cycle { breaker, .. } | NextStep::Watch { breaker, .. } => {
            off.insert(breaker.clone());
        }
        NextStep::SwitchTo { off: more, on, .. } => {
            off.extend(more.iter().cloned());
            off.retain(|b| !on.contains(b));
        }
        _ => {}
    }
    off
}

/// What a trace knows when it decides.
pub(super) struct Rounds<'a> {
    pub(super) home: &'a Study,
    pub(super) known: &'a [(PointId, Verdict)],
    /// The looks at each point, by power.
    pub(super) looks: BTreeMap<&'a PointId, Vec<&'a Look>>,
    /// Its lines weighed.
    pub(super) weighed: Option<&'a Weighed>,
    /// The home as the search sees it, where it is asked.
    pub(super) at_home: Option<&'a AtHome>,
    /// Where a tester was left plugged in.
    plugged: BTreeSet<PointId>,
}

impl<'a> Rounds<'a> {
    pub(super) fn of(home: &'a Study) -> Self {
        let looks = by_point(looks_by_power(home));
        let known = verdicts(home);
        Self { home, known, looks, weighed: weighed(home), at_home: None, plugged: BTreeSet::new() }
    }

    pub(super) fn set_up(&self) -> Option<NextStep> {
        let home = self.home;
        let missing = if home.panels().all().next().is_none() {
            "panel"
        } else if home.panels().breakers().next().is_none() {
            "breakers"
        } else if home.house().points().next().is_none() {
            "points"
        } else {
            ""
        };
        (!missing.is_empty()).then(|| NextStep::SetUp { missing: missing.into() })
    }

    /// The open points that have to be seen lit with what is off now: without that nothing that follows can prove them.
    pub(super) fn see_all_lit(&self, unlit: &dyn Fn(&PointId) -> bool) -> Option<NextStep> {
        let home = self.home;
        let open = |v: &Verdict| matches!(v, Verdict::Open { possible, .. } if !possible.iter().all(|b| home.switchings().off().contains(b)));
        let unlit: Vec<PointId> = self.known.iter().filter(|(p, v)| open(v) && unlit(p)).map(|(p, _)| p.clone()).collect();
        let left = unlit.iter().filter(|p| self.seen_now(p).is_none() && !self.skipped_under(p, home.switchings().off())).count();
        if left == 0 {
            return None;
        }
        let shown: Vec<PointId> = home
            .house()
            .points()
            .map(|p| p.id.clone())
            .filter(|p| unlit.contains(p) || self.seen_now(p).is_some() || self.skipped_now(p))
            .collect();
        let left_off = home.switchings().off().iter().map(|b| home.panels().number(b)).collect();
        Some(NextStep::SeeAllLit { rooms: self.rooms(&shown, None), left, left_off })
    }

    /// Seen lit with just these off, none of which moved since, and no GFCI that was not reset may have darkened it meanwhile:
    /// what goes dark next was switched then.
    pub(super) fn was_lit_with(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> bool {
        let lit = self.lit_under(point, off);
        lit.is_some_and(|lit| not_reset(self.home, &self.counted(point), lit, None).is_none())
    }

    /// The looks at a point that count.
    pub(super) fn counted(&self, point: &PointId) -> Vec<&'a Look> {
        counted(self.home, self.looks.get(point).map_or(&[][..], Vec::as_slice))
    }

    pub(super) fn left_off(&self) -> BTreeSet<BreakerId> {
        self.home.panels().breakers().filter(|b| b.is_left_off()).map(|b| b.id.clone()).collect()
    }

    /// The last look that counts and showed it lit with just these off, none of which, nor what is behind them, moved since.
    pub(super) fn lit_under(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> Option<&'a Look> {
        let home = self.home;
        let off = home.panels().dead_behind(off);
        let counted = self.counted(point);
        let holds = |look: &&&Look| {
            look.seen == Seen::Lit
                && *look.off == off
                && !home.switchings().all()[look.moves..].iter().any(|moved| off.contains(&moved.breaker))
        };
        counted.iter().rev().find(holds).copied()
    }

    /// The last look at the point since a handle moved. Lit before a GFCI was tripped, behind which it may be, it has to be
    /// looked at again.
    pub(super) fn seen_now(&self, point: &PointId) -> Option<&'a Look> {
        let now = self.home.switchings().count();
        let look = self.home.trace().looks().iter().rev().take_while(|l| l.moves == now).find(|l| &l.point == point)?;
        (look.seen == Seen::Dark || not_reset(self.home, &[], look, None).is_none()).then_some(look)
    }

    pub(super) fn skipped_now(&self, point: &PointId) -> bool {
        self.home.trace().skips().iter().any(|skip| &skip.point == point && skip.moves == self.home.switchings().count())
    }

    pub(super) fn skipped_under(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> bool {
        self.home.trace().skips().iter().any(|skip| &skip.point == point && *skip.off == *off)
    }

    /// Whether what it showed makes it likely that it goes on and off by itself, and nobody has told so.
    fn fits_one_that_goes_by_itself(&self, point: &Point) -> bool {
        let told = point.details.goes_by.is_some();
        let number = |weighed: &Weighed| weighed.points.iter().position(|p| p == &point.id);
        let behind = || self.weighed.and_then(|weighed| Some(weighed.weigh.behind(&weighed.case, number(weighed)?)));
        let is_open = || self.known.iter().any(|(p, known)| p == &point.id && known.proven_on().is_none());
        // Nothing that was never seen dark does so.
        let looks = self.looks.get(&point.id).map_or(&[][..], Vec::as_slice);
        !told && looks.iter().any(|look| look.seen == Seen::Dark) && is_open() && behind().is_some_and(|b| b.is_to_be_measured())
    }

    /// What says that a receptacle has a test button, where that is asked.
    fn test_button(&self, room: &Room, point: &Point) -> Vec<Fact> {
        let is_usual = Place::of(&room.name, room.floor.as_deref()).is_some_and(|place| place != Place::Lived);
        let plain = is_plugged(point) && !point.details.gfci;
        let is_behind = || self.home.plan().protects.values().any(|points| points.contains(&point.id));
        if !is_usual || !plain || self.looks.get(&point.id).is_some_and(|looks| !looks.is_empty()) || is_behind() {
            return Vec::new();
        }
        let mut placed = PointPlaced::from(point);
        placed.details.gfci = true;
        vec![placed.into()]
    }

    pub(super) fn rooms(&self, points: &[PointId], claim: Option<&str>) -> Vec<RoomToWalk> {
        let mut rooms: Vec<RoomToWalk> = self
            .home
            .house()
            .rooms()
            .map(|room| RoomToWalk {
                room: room.id.clone(),
                name: room.name.clone(),
                on_card: claim.is_some_and(|claim| names(claim, &room.name)),
                points: self
                    .home
                    .house()
                    .points()
                    .filter(|p| p.room == room.id && points.contains(&p.id))
                    .map(|p| {
                        let look = self.seen_now(&p.id);
                        let by_itself = self.fits_one_that_goes_by_itself(p);
                        PointToSee {
                            point: p.id.clone(),
                            name: p.name.clone(),
                            kind: p.kind,
                            volts: p.volts,
                            instrument: looked_at_with(p),
                            seen: look.map(|l| l.seen),
                            line: look.map(|l| l.line.clone()),
                            skipped: look.is_none() && self.skipped_now(&p.id),
                            plugged: self.plugged.contains(&p.id),
                            again: false,
                            anew: false,
                            test_button: self.test_button(room, p),
                            how: how_to_look(p, by_itself).map(str::to_owned),
                            measure: by_itself && is_plugged(p),
                            between: self.between_now(&p.id),
                        }
                    })
                    .collect(),
                who: Vec::new(),
            })
            .filter(|room| !room.points.is_empty())
            .collect();
        rooms.sort_by_key(|room| !room.on_card);
        rooms
    }

    /// The numbers of breakers that were off while something was looked at, that nothing is proven on, and that no point in the
    /// list may hang on any more.
    fn nothing_found_on(&self) -> Vec<String> {
        let home = self.home;
        let tried: BTreeSet<&BreakerId> = home.trace().looks().iter().flat_map(|look| look.off.iter()).collect();
        let may_feed = |b: &BreakerId| {
            self.known.iter().any(|(_, known)| match known {
                Verdict::Proven { breaker, .. } => breaker == b,
                Verdict::ByExclusion { breakers } => breakers.contains(b),
                Verdict::Open { possible, .. } => possible.contains(b),
                Verdict::Contradictory { .. } | Verdict::Out { .. } => true,
            })
        };
        let bare = home.panels().breakers().filter(|b| tried.contains(&b.id) && may_be_switched(home, b) && !may_feed(&b.id));
        bare.map(|b| home.panels().number(&b.id)).collect()
    }

    pub(super) fn done(&self) -> NextStep {
        let count = |want: fn(&Verdict) -> bool| self.known.iter().filter(|(_, v)| want(v)).count();
        let open = count(|v| matches!(v, Verdict::Open { .. } | Verdict::ByExclusion { .. }));
        let odd = count(|v| matches!(v, Verdict::Contradictory { .. }));
        let out = count(|v| matches!(v, Verdict::Out { .. }));
        let mut left = Vec::new();
        if open > 0 {
            left.push(format!("{open} not proven on any breaker that could be switched"));
        }
        if odd > 0 {
            left.push(format!("{odd} with looks that disagree"));
        }
        if out > 0 {
            left.push(format!("{out} dark with everything on"));
        }
        let mut summary =
            if left.is_empty() { "Every point is proven.".to_owned() } else { format!("What is left: {}.", left.join("; ")) };
        let fuses = |panel: &&crate::model::Panel| panel.details.interior == Interior::Fuses;
        for panel in self.home.panels().all().filter(fuses) {
            summary.push_str(&format!(
                " {} has fuses: a fuse is no switch, so none is taken out for a trace. Follow its circuits with a tone sender, or have \
                 them traced by an electrician.",
                panel.name
            ));
        }
        let bare = self.nothing_found_on();
        if !bare.is_empty() {
            summary.push_str(&format!(
                " Nothing was found on {}. Look outdoors, in the attic, the crawl space, the garage and closets, behind \
                 furniture; for smoke alarms, a door bell, a furnace, a disposal, a pump, a gate. Until then treat it as in use.",
                bare.join(", ")
            ));
        }
        let skipped: Vec<PointId> = self
            .known
            .iter()
            .filter(|(p, v)| matches!(v, Verdict::Open { .. }) && self.home.trace().skips().iter().any(|s| &s.point == p))
            .map(|(p, _)| p.clone())
            .collect();
        NextStep::Done { summary, rooms: self.rooms(&skipped, None), open: self.ends_open() }
    }
}

/// Whether a trace may ask for this breaker to be off. A main, and a feeder whose panel is entered, are left alone: they
/// prove nothing and darken much; so is what is kept, and what has no power anyway. A fuse is no switch.
pub(crate) fn may_be_switched(home: &Study, breaker: &Breaker) -> bool {
    let leads_on = home.panels().panels_on(&breaker.id).any(|panel| home.panels().breakers_of(&panel.id).next().is_some());
    let interior = home.panels().panel(&breaker.panel).map(|panel| panel.details.interior);
    let split = breaker.poles() > 1 && interior == Some(Interior::SplitBus);
    let fuse = interior == Some(Interior::Fuses);
    !fuse
        && breaker.kept.is_none()
        && !breaker.details.back_fed_main
        && !split
        && !leads_on
        && !dead_anyway(home).contains(&breaker.id)
}

struct DeadAnyway(BTreeSet<BreakerId>);

/// What has no power because of what is left off.
fn dead_anyway(home: &Study) -> &BTreeSet<BreakerId> {
    let dead = || {
        let left_off: BTreeSet<BreakerId> = home.panels().breakers().filter(|b| b.is_left_off()).map(|b| b.id.clone()).collect();
        if left_off.is_empty() { left_off } else { home.panels().dead_behind(&left_off) }
    };
    &home.once(|| DeadAnyway(dead())).0
}

/// A plug-in tester for what it fits; never at 240 V.
fn looked_at_with(point: &Point) -> Instrument {
    if is_plugged(point) { Instrument::PlugInTester } else { Instrument::Eye }
}

/// How a point is looked at, where that is not plain. `by_itself`: what it showed fits one that goes on and off by itself.
fn how_to_look(point: &Point, by_itself: bool) -> Option<&'static str> {
    const MEASURE: &str = "What it showed so far fits a point that goes on and off by itself: a switch, a timer, an app. Read its \
                           volts; that is sure.";
    const STOP_IT: &str = "What it showed so far fits a point that goes on and off by itself: a timer, a sensor, a second switch, an \
                           app. Stop that first, and say so at the point.";
    match (by_itself, is_plugged(point)) {
        (true, true) => Some(MEASURE),
        (true, false) => Some(STOP_IT),
        (false, _) => point.how_to_look(),
    }
}

/// A plug-in tester goes in there; never at 240 V.
fn is_plugged(point: &Point) -> bool {
    point.kind == PointKind::Receptacle && point.volts.value() == 120
}

/// Whether the card's words name the room: `kitchen rec` names `Kitchen`.
fn names(claim: &str, room: &str) -> bool {
    let words = |text: &str| -> Vec<String> {
        text.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| w.len() > 2).map(str::to_owned).collect()
    };
    let room = words(room);
    words(claim).iter().any(|word| room.iter().any(|r| r == word))
}
