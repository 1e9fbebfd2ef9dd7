//! The next step of a trace, one breaker at a time.
//!
//! The round: everything on and every point seen lit once; then a breaker off, the points that may be on
//! it looked at by room, the breaker on again, one of its points seen lit again; then the next.
//! The step follows from the logbook alone, so a trace can be left and taken up, from any screen, and
//! a person who does another thing than told is simply met where they are.

use std::collections::{BTreeMap, BTreeSet};

use super::latched::Latched;
use super::neutral;
use super::reset::not_reset;
use super::search::{AtHome, Likely, School, SchoolMinutes, Way, likely_at, plugged, schools};
use super::verdict::{Judge, Verdict, by_point, counted, verdicts};
use super::walkers::share_out;
use crate::{
    Breaker, BreakerId, Home, Interior, Look, PointId, PointKind, RoomId, Seen, Since, State, Volts, overview::Progress,
};

/// A point to look at.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PointToSee {
    /// Which.
    pub point: PointId,
    /// Where in its room.
    pub name: String,
    /// What it is.
    pub kind: PointKind,
    /// 120 or 240.
    pub volts: Volts,
    /// What was seen since the last handle moved.
    pub seen: Option<Seen>,
    /// The line that says so, to strike it out.
    pub line: Option<crate::EntryId>,
    /// Passed over since the last handle moved.
    pub skipped: bool,
    /// A tester was left plugged in here: a glance is enough.
    pub plugged: bool,
    /// Dark once, which is not sure enough: to be looked at once more.
    pub again: bool,
    /// Volts that a meter showed since, neither lit nor dark: to be looked at with something that loads it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub between: Option<f64>,
}

/// A room to walk, with its points.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct RoomToWalk {
    /// Which.
    pub room: RoomId,
    /// Its name.
    pub name: String,
    /// The old card's words for the breaker name this room.
    pub on_card: bool,
    /// Its points.
    pub points: Vec<PointToSee>,
    /// Helpers who look at them now, by name.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub who: Vec<String>,
}

/// What to do next.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "step", rename_all = "snake_case")]
pub enum NextStep {
    /// Something has to be entered first: a panel, breakers, points.
    SetUp {
        /// `panel`, `breakers` or `points`.
        missing: String,
    },
    /// With everything on: see that each point is lit.
    SeeAllLit {
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
        /// Breakers that are left off or tripped meanwhile, by number.
        left_off: Vec<String>,
    },
    /// Switch this breaker off, leave the rest on.
    SwitchOff {
        /// Which.
        breaker: BreakerId,
        /// Why this one.
        why: String,
        /// How many points may be on it.
        candidates: usize,
    },
    /// Have just these off, all others on.
    SwitchTo {
        /// To be switched off now.
        off: Vec<BreakerId>,
        /// To be switched on again.
        on: Vec<BreakerId>,
        /// Why.
        why: String,
    },
    /// With these off: look at these points.
    LookUnder {
        /// What is off.
        off: Vec<BreakerId>,
        /// Where to go.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
        /// Why.
        why: String,
        /// Nobody walks: a radio is there, and is listened to from the panel.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        listen: bool,
    },
    /// Plug the tone sender in at this point and sweep the panel with the receiver. What it says is a clue.
    FollowTone {
        /// Where to plug it in.
        point: PointId,
        /// The room.
        room: String,
        /// Its name.
        name: String,
        /// Why here.
        why: String,
    },
    /// A GFCI was tripped on purpose: see what is dark, then reset it.
    SeeDownstream {
        /// The device.
        device: PointId,
        /// Its name.
        name: String,
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// What it is known to protect then: what was known before and what was seen dark now.
        protects: Vec<PointId>,
    },
    /// With this breaker off: look at these points.
    Look {
        /// Which breaker is off.
        breaker: BreakerId,
        /// Where to walk.
        rooms: Vec<RoomToWalk>,
        /// Points left to look at.
        left: usize,
    },
    /// Switch these on again.
    SwitchOn {
        /// Which.
        breakers: Vec<BreakerId>,
        /// Why.
        why: String,
        /// What was looked at in this round, for another look.
        rooms: Vec<RoomToWalk>,
    },
    /// See one of these lit again: the breaker has latched.
    SeeOneLitAgain {
        /// The breaker that was switched on.
        breaker: BreakerId,
        /// The points that went dark with it.
        rooms: Vec<RoomToWalk>,
    },
    /// A meter showed more volts than a circuit may have: one leg goes high where the neutral is lost. The main goes off, and
    /// an electrician or the utility comes, before anything else.
    Stop {
        /// Where.
        point: PointId,
        /// `Kitchen, counter`.
        place: String,
        /// What the meter showed.
        volts: f64,
        /// The line that says so, to strike it out if it was mistyped.
        line: crate::EntryId,
    },
    /// Nothing more to switch.
    Done {
        /// What is left, as a sentence.
        summary: String,
        /// Points that were passed over, to look at after all.
        rooms: Vec<RoomToWalk>,
    },
}

impl NextStep {
    /// Where to walk, while something is to be looked at.
    const fn rooms_mut(&mut self) -> Option<&mut Vec<RoomToWalk>> {
        match self {
            Self::SeeAllLit { rooms, .. }
            | Self::Look { rooms, .. }
            | Self::LookUnder { rooms, .. }
            | Self::SeeOneLitAgain { rooms, .. } => Some(rooms),
            _ => None,
        }
    }
}

/// The trace as every screen shows it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TraceView {
    /// The last line this follows from.
    pub seq: u64,
    /// What to do next.
    pub next: NextStep,
    /// The breakers that are off or tripped, as this step has them: what a look is recorded under.
    pub off: Vec<BreakerId>,
    /// How far it is.
    pub progress: Progress,
    /// Breakers with which off something was looked at, by now.
    pub rounds_done: usize,
    /// Breakers that could still be switched off and would tell something, in the order proposed.
    pub to_switch: Vec<BreakerId>,
    /// Points whose looks disagree.
    pub contradictory: Vec<PointId>,
    /// Points that were dark with everything on.
    pub out: Vec<PointId>,
    /// How it is traced, by whom and with what.
    pub way: Way,
    /// The last line that moved a handle: what a look is recorded under.
    pub last_turn: Since,
    /// What to mind with what is off or is to go off now.
    pub cautions: Vec<String>,
    /// The likeliest breaker of points that are open: a clue, no proof.
    pub likely: BTreeMap<PointId, Likely>,
}

/// What to do next.
pub fn next_step(home: &Home) -> NextStep {
    Rounds::of(home, &home.looks_by_power()).next()
}

/// What to do next, and how far the trace is. `seq` is the logbook's last line.
pub fn trace_view(home: &Home, seq: u64, way: impl Into<Way>) -> TraceView {
    let way = way.into();
    let all = home.looks_by_power();
    let mut rounds = Rounds::of(home, &all);
    rounds.at_home = AtHome::of(home, rounds.known, way);
    rounds.plugged = plugged(home, rounds.at_home.as_ref());
    let pick =
        |want: fn(&Verdict) -> bool| rounds.known.iter().filter(|(_, v)| want(v)).map(|(p, _)| p.clone()).collect::<Vec<_>>();
    let walked: BTreeSet<&BreakerId> = home
        .looks()
        .iter()
        .flat_map(|look| look.off.iter())
        .filter(|b| home.breaker(b).is_some_and(|b| !b.is_left_off()))
        .collect();
    let next = rounds
        .stop()
        .or_else(|| rounds.downstream())
        .or_else(|| rounds.see_reset())
        .or_else(|| rounds.once_more())
        .unwrap_or_else(|| match way.school {
            School::OneAtATime => rounds.next(),
            School::SeveralOff => rounds.next_of_several(),
            School::LampAndHelper | School::ToneTracer => rounds.next_of_hunt(way),
        });
    TraceView {
        seq,
        off: home.off().iter().cloned().collect(),
        progress: Progress::of(rounds.known),
        rounds_done: walked.len(),
        to_switch: rounds.worth_switching().into_iter().map(|(b, _)| b.id.clone()).collect(),
        contradictory: pick(|v| matches!(v, Verdict::Contradictory { .. })),
        out: pick(|v| matches!(v, Verdict::Out { .. })),
        likely: likely_at(home, rounds.at_home.as_ref()),
        way,
        last_turn: home.last_turn(),
        cautions: match next {
            // Nothing is switched before that is mended.
            NextStep::Stop { .. } => Vec::new(),
            _ => neutral::cautions(home, &off_with(home, &next)),
        },
        next,
    }
}

/// What to do next where others walk, too, by name: with who is in which room.
pub fn trace_together(home: &Home, seq: u64, way: impl Into<Way>, walkers: &[String]) -> TraceView {
    let mut view = trace_view(home, seq, way);
    if let Some(rooms) = view.next.rooms_mut() {
        let taken = share_out(home, rooms, walkers);
        for room in rooms {
            room.who = taken.get(&room.room).cloned().unwrap_or_default();
        }
    }
    view
}

/// What is off, and what the step wants off.
fn off_with(home: &Home, next: &NextStep) -> BTreeSet<BreakerId> {
    let mut off = (**home.off()).clone();
    match next {
        NextStep::SwitchOff { breaker, .. } => drop(off.insert(breaker.clone())),
        NextStep::SwitchTo { off: more, on, .. } => {
            off.extend(more.iter().cloned());
            off.retain(|b| !on.contains(b));
        }
        _ => {}
    }
    off
}

/// What each school would take for what is left.
pub fn school_minutes(home: &Home, way: Way) -> Vec<SchoolMinutes> {
    schools(home, verdicts(home), way)
}

/// What a trace knows when it decides.
pub(super) struct Rounds<'a> {
    pub(super) home: &'a Home,
    pub(super) known: &'a [(PointId, Verdict)],
    /// The looks at each point, by power.
    pub(super) looks: BTreeMap<&'a PointId, Vec<&'a Look>>,
    pub(super) latched: Latched<'a>,
    /// The home as the search sees it, where it is asked.
    pub(super) at_home: Option<AtHome>,
    /// Where a tester was left plugged in.
    plugged: BTreeSet<PointId>,
}

impl<'a> Rounds<'a> {
    /// `all`: the looks by power.
    fn of(home: &'a Home, all: &'a [Look]) -> Self {
        let looks = by_point(all);
        let known = verdicts(home);
        let latched = Judge::new(home, &looks).latched(known);
        Self { home, known, looks, latched, at_home: None, plugged: BTreeSet::new() }
    }

    pub(super) fn set_up(&self) -> Option<NextStep> {
        let home = self.home;
        let missing = if home.panels().next().is_none() {
            "panel"
        } else if home.breakers().next().is_none() {
            "breakers"
        } else if home.points().next().is_none() {
            "points"
        } else {
            ""
        };
        (!missing.is_empty()).then(|| NextStep::SetUp { missing: missing.into() })
    }

    fn next(&self) -> NextStep {
        if let Some(first) = self.set_up() {
            return first;
        }
        let home = self.home;
        let off: Vec<&Breaker> = home.breakers().filter(|b| b.state != State::On && !b.is_left_off()).collect();
        match off.as_slice() {
            [] => self.with_all_on(),
            [one] => self.with_one_off(one),
            several => {
                let last = home.switched().last();
                let breakers: Vec<&Breaker> = several.iter().filter(|b| Some(&b.id) != last).copied().collect();
                let numbers: Vec<_> = several.iter().map(|b| home.number(&b.id)).collect();
                NextStep::SwitchOn {
                    breakers: breakers.iter().map(|b| b.id.clone()).collect(),
                    why: format!(
                        "{} are off together. A point is proven with one breaker off, so switch {} on again first.",
                        numbers.join(" and "),
                        breakers.iter().map(|b| home.number(&b.id)).collect::<Vec<_>>().join(" and ")
                    ),
                    rooms: Vec::new(),
                }
            }
        }
    }

    fn with_all_on(&self) -> NextStep {
        let home = self.home;
        if let Some(breaker) = home.switched().last().filter(|b| home.breaker(b).is_some_and(|b| b.state == State::On)) {
            let dark = self.dark_in_last_round(breaker);
            if !dark.is_empty() && !dark.iter().any(|p| self.seen_now(p).is_some() || self.skipped_now(p)) {
                return NextStep::SeeOneLitAgain { breaker: breaker.clone(), rooms: self.rooms(&dark, None) };
            }
        }
        if let Some(first) = self.see_all_lit(&|p| !self.has_lit_look(p)) {
            return first;
        }
        let worth = self.worth_switching();
        if let Some((breaker, candidates)) = worth.first() {
            return NextStep::SwitchOff {
                breaker: breaker.id.clone(),
                why: self.why(breaker, *candidates),
                candidates: *candidates,
            };
        }
        self.done()
    }

    /// The open points that have to be seen lit with what is off now: without that nothing that follows can prove them.
    pub(super) fn see_all_lit(&self, unlit: &dyn Fn(&PointId) -> bool) -> Option<NextStep> {
        let home = self.home;
        let open = |v: &Verdict| matches!(v, Verdict::Open { possible, .. } if !possible.iter().all(|b| home.off().contains(b)));
        let unlit: Vec<PointId> = self.known.iter().filter(|(p, v)| open(v) && unlit(p)).map(|(p, _)| p.clone()).collect();
        let left = unlit.iter().filter(|p| self.seen_now(p).is_none() && !self.skipped_under(p, home.off())).count();
        if left == 0 {
            return None;
        }
        let shown: Vec<PointId> = home
            .points()
            .map(|p| p.id.clone())
            .filter(|p| unlit.contains(p) || self.seen_now(p).is_some() || self.skipped_now(p))
            .collect();
        let left_off = home.off().iter().map(|b| home.number(b)).collect();
        Some(NextStep::SeeAllLit { rooms: self.rooms(&shown, None), left, left_off })
    }

    fn with_one_off(&self, breaker: &Breaker) -> NextStep {
        let looked: Vec<PointId> =
            self.home.points().map(|p| p.id.clone()).filter(|p| self.seen_now(p).is_some() || self.skipped_now(p)).collect();
        let asked: Vec<PointId> =
            self.known.iter().filter(|(p, v)| !looked.contains(p) && may_be_on(v, &breaker.id)).map(|(p, _)| p.clone()).collect();
        let shown: Vec<PointId> =
            self.home.points().map(|p| p.id.clone()).filter(|p| looked.contains(p) || asked.contains(p)).collect();
        let rooms = self.rooms(&shown, breaker.claim.as_deref());
        if !asked.is_empty() {
            return NextStep::Look { breaker: breaker.id.clone(), left: asked.len(), rooms };
        }
        let dark = looked.iter().filter(|p| self.seen_now(p).is_some_and(|l| l.seen == Seen::Dark)).count();
        NextStep::SwitchOn {
            breakers: vec![breaker.id.clone()],
            why: match dark {
                0 => {
                    format!("Every point that could be on {} has been looked at; none went dark.", self.home.number(&breaker.id))
                }
                1 => format!("Every point that could be on {} has been looked at; one went dark.", self.home.number(&breaker.id)),
                n => format!("Every point that could be on {} has been looked at; {n} went dark.", self.home.number(&breaker.id)),
            },
            rooms,
        }
    }

    /// Breakers that may be switched off and would tell something, with how many points may be on each,
    /// in the order of the panel. A point that was passed over with that breaker off does not count.
    fn worth_switching(&self) -> Vec<(&'a Breaker, usize)> {
        let home = self.home;
        let powerless = home.dead_behind(home.off());
        let may = |b: &&Breaker| b.state == State::On && !powerless.contains(&b.id) && may_be_switched(home, b);
        let breakers = home.panels().flat_map(|panel| {
            let mut here: Vec<&Breaker> = home.breakers_of(&panel.id).filter(may).collect();
            here.sort_by_key(|b| crate::position(panel, b.at[0].space).map(|(side, row)| (side, row, b.at[0].half)));
            here
        });
        breakers
            .map(|b| {
                let mut under = (**home.off()).clone();
                under.insert(b.id.clone());
                let count = self
                    .known
                    .iter()
                    .filter(|(p, v)| may_be_on(v, &b.id) && !self.skipped_under(p, &under))
                    .filter(|(p, _)| !self.skipped_under(p, home.off()) || self.has_lit_look(p))
                    .count();
                (b, count)
            })
            .filter(|(_, count)| *count > 0)
            .collect()
    }

    fn has_lit_look(&self, point: &PointId) -> bool {
        self.surely_lit(point, self.home.off())
    }

    /// Seen lit with just these off, and no breaker switched on since then may have failed to latch, as far as this
    /// point can tell: with these off, whatever darkens it next is what was switched.
    pub(super) fn surely_lit(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> bool {
        let Some(lit) = self.lit_under(point, off) else { return false };
        let own = self.counted(point);
        not_reset(self.home, &own, lit, None).is_none()
            && self.latched.in_doubt(&own, (lit.moves, self.home.switched().len()), usize::MAX, self.home.off()).is_empty()
    }

    /// The looks at a point that count.
    pub(super) fn counted(&self, point: &PointId) -> Vec<&'a Look> {
        counted(self.home, self.looks.get(point).map_or(&[][..], Vec::as_slice))
    }

    pub(super) fn left_off(&self) -> BTreeSet<BreakerId> {
        self.home.breakers().filter(|b| b.is_left_off()).map(|b| b.id.clone()).collect()
    }

    /// The last look that counts and showed it lit with just these off, none of which, nor what is behind them, moved since.
    pub(super) fn lit_under(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> Option<&'a Look> {
        let home = self.home;
        let off = home.dead_behind(off);
        let counted = self.counted(point);
        let holds = |look: &&&Look| {
            look.seen == Seen::Lit && *look.off == off && !home.switched()[look.moves..].iter().any(|moved| off.contains(moved))
        };
        counted.iter().rev().find(holds).copied()
    }

    /// The last look at the point since a handle moved. Lit before a GFCI was tripped, behind which it may be, it has to be
    /// looked at again.
    pub(super) fn seen_now(&self, point: &PointId) -> Option<&'a Look> {
        let now = self.home.switched().len();
        let look = self.home.looks().iter().rev().take_while(|l| l.moves == now).find(|l| &l.point == point)?;
        (look.seen == Seen::Dark || not_reset(self.home, &[], look, None).is_none()).then_some(look)
    }

    pub(super) fn skipped_now(&self, point: &PointId) -> bool {
        self.home.skips().iter().any(|skip| &skip.point == point && skip.moves == self.home.switched().len())
    }

    pub(super) fn skipped_under(&self, point: &PointId, off: &BTreeSet<BreakerId>) -> bool {
        self.home.skips().iter().any(|skip| &skip.point == point && *skip.off == *off)
    }

    /// The points that were dark with `breaker` off, in the round that ended when it was switched on.
    fn dark_in_last_round(&self, breaker: &BreakerId) -> Vec<PointId> {
        let before = self.home.switched().len() - 1;
        let mut dark = Vec::new();
        for look in self.home.looks().iter().rev().skip_while(|l| l.moves > before).take_while(|l| l.moves == before) {
            if look.seen == Seen::Dark
                && look.off.contains(breaker)
                && self.home.point(&look.point).is_some()
                && !dark.contains(&look.point)
            {
                dark.push(look.point.clone());
            }
        }
        dark.reverse();
        dark
    }

    pub(super) fn rooms(&self, points: &[PointId], claim: Option<&str>) -> Vec<RoomToWalk> {
        let mut rooms: Vec<RoomToWalk> = self
            .home
            .rooms()
            .map(|room| RoomToWalk {
                room: room.id.clone(),
                name: room.name.clone(),
                on_card: claim.is_some_and(|claim| names(claim, &room.name)),
                points: self
                    .home
                    .points()
                    .filter(|p| p.room == room.id && points.contains(&p.id))
                    .map(|p| {
                        let look = self.seen_now(&p.id);
                        PointToSee {
                            point: p.id.clone(),
                            name: p.name.clone(),
                            kind: p.kind,
                            volts: p.volts,
                            seen: look.map(|l| l.seen),
                            line: look.map(|l| l.line.clone()),
                            skipped: look.is_none() && self.skipped_now(&p.id),
                            plugged: self.plugged.contains(&p.id),
                            again: false,
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

    fn why(&self, breaker: &Breaker, candidates: usize) -> String {
        let points = if candidates == 1 { "1 point".to_owned() } else { format!("{candidates} points") };
        match &breaker.claim {
            Some(claim) => {
                format!("It is the next one down the panel that may feed {points} not yet proven. The old card says “{claim}”.")
            }
            None => {
                format!("It is the next one down the panel that may feed {points} not yet proven. The old card says nothing.")
            }
        }
    }

    /// The numbers of breakers that were off while something was looked at, that nothing is proven on, and that no point in the
    /// list may hang on any more.
    fn nothing_found_on(&self) -> Vec<String> {
        let home = self.home;
        let tried: BTreeSet<&BreakerId> = home.looks().iter().flat_map(|look| look.off.iter()).collect();
        let may_feed = |b: &BreakerId| {
            self.known.iter().any(|(_, known)| match known {
                Verdict::Proven { breaker, .. } | Verdict::ByExclusion { breaker } => breaker == b,
                Verdict::Open { possible, .. } => possible.contains(b),
                Verdict::Contradictory { .. } | Verdict::Out { .. } => true,
            })
        };
        let bare = home.breakers().filter(|b| tried.contains(&b.id) && may_be_switched(home, b) && !may_feed(&b.id));
        bare.map(|b| home.number(&b.id)).collect()
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
            .filter(|(p, v)| matches!(v, Verdict::Open { .. }) && self.home.skips().iter().any(|s| &s.point == p))
            .map(|(p, _)| p.clone())
            .collect();
        NextStep::Done { summary, rooms: self.rooms(&skipped, None) }
    }
}

/// Whether a trace may ask for this breaker to be off. A main, and a feeder whose panel is entered, are left alone: they
/// prove nothing and darken much; so is what is kept, and what has no power anyway.
pub(crate) fn may_be_switched(home: &Home, breaker: &Breaker) -> bool {
    let leads_on = home.panels_on(&breaker.id).any(|panel| home.breakers_of(&panel.id).next().is_some());
    let split =
        breaker.poles() > 1 && home.panel(&breaker.panel).is_some_and(|panel| panel.details.interior == Interior::SplitBus);
    let left_off: BTreeSet<BreakerId> = home.breakers().filter(|b| b.is_left_off()).map(|b| b.id.clone()).collect();
    breaker.kept.is_none()
        && !breaker.details.back_fed_main
        && !split
        && !leads_on
        && (left_off.is_empty() || !home.dead_behind(&left_off).contains(&breaker.id))
}

/// Whether a look at the point with the breaker off would tell something.
pub(super) fn may_be_on(known: &Verdict, breaker: &BreakerId) -> bool {
    matches!(known, Verdict::Open { possible, .. } if possible.contains(breaker))
}

/// Whether the card's words name the room: `kitchen rec` names `Kitchen`.
fn names(claim: &str, room: &str) -> bool {
    let words = |text: &str| -> Vec<String> {
        text.to_lowercase().split(|c: char| !c.is_alphanumeric()).filter(|w| w.len() > 2).map(str::to_owned).collect()
    };
    let room = words(room);
    words(claim).iter().any(|word| room.iter().any(|r| r == word))
}
