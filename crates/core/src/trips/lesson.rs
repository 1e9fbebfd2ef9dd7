//! The lesson “find the fault”: a hidden fault in a home, what each look at it shows in words and volts, and the marks.

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use serde::Serialize;

use super::case::{State as Stands, Takes};
use super::cause::{Cause, Family, Key};
use super::file::PowerBox;
use super::hidden::HiddenTrip;
use super::look::{Look, Saw, by_volts};
use super::of_home::{AtHome, at_home};
use super::planner::{Next, Search};
use super::said::{NextLook, Words};
use super::view::{capital, cause_words, searched};
use crate::logbook::{Fact, KnownTrouble, Logbook, TroubleTold};
use crate::model::{
    AlsoSeen, BreakerId, DangerSign, Level, LoadId, Onset, PointId, Symptom, Trouble, TroubleAt, TroubleId, TroubleLook, listed,
};
use crate::study::Study;

/// Which neutral is open, where one is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum OpenNeutral {
    /// None.
    No,
    /// That of the service.
    Service,
    /// That which circuits share.
    Shared(Vec<BreakerId>),
}

/// Volts at a point between hot and neutral, as the circuit solver has them.
pub(crate) type VoltsAt<'a> = dyn Fn(&PointId, &OpenNeutral) -> Option<f64> + 'a;

/// A home with a fault that nobody sees, and what is told of it.
pub(crate) struct FaultDrawn {
    /// What is told.
    pub(crate) told: Trouble,
    at: AtHome,
    hidden: HiddenTrip,
}

/// What is seen where the next look is made.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct FaultShown {
    /// The look; null where boxes are opened.
    pub look: Option<TroubleLook>,
    /// What is seen, in words.
    pub words: String,
    /// What a meter shows, in volts.
    pub volts: Option<f64>,
    /// A sign of danger is there to be noticed.
    pub danger: bool,
}

/// How good a search was.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct FaultMarks {
    /// It is over.
    pub over: bool,
    /// Minutes that the looks took, by what each takes.
    pub minutes: f64,
    /// Looks.
    pub looks: usize,
    /// Resets.
    pub resets: usize,
    /// Minutes that the program itself takes, with the same things shown.
    pub own_minutes: f64,
    /// Looks that it takes.
    pub own_looks: usize,
    /// Answers that are not what was shown.
    pub misread: usize,
    /// Whether what was found was it; null as long as it is not over.
    pub right: Option<bool>,
    /// What could have hurt somebody, in sentences.
    pub safety: Vec<String>,
    /// What it was, where that is to be shown.
    pub truth: Option<String>,
}

/// So many faults are tried until one fits what the level asks for.
const TRIES: u64 = 400;
/// Of what ran together, so much more than the breaker carries.
const TOO_MUCH: f64 = 1.25;

fn allowed(level: Level, cause: Cause) -> bool {
    match level {
        Level::Plain => matches!(
            cause,
            Cause::GfciTripped
                | Cause::Overload
                | Cause::Lamp
                | Cause::SwitchOff
                | Cause::Cord
                | Cause::OffOrNotLatched
                | Cause::ShortLoad
        ),
        Level::Usual => !cause.emergency(),
        // What the others seldom have.
        Level::Tricky => {
            cause.emergency() || cause.family() != Family::Itself || matches!(cause, Cause::Arc | Cause::LostLeg | Cause::Double)
        }
    }
}

/// The trouble that is told of in a home drawn for it. Its worlds are drawn from its id, so it is the same everywhere.
pub(crate) const PRACTICE: &str = "practice";

fn supposed(home: &Study, told: &Trouble) -> Option<(Study, AtHome)> {
    let id: TroubleId = PRACTICE.parse().ok()?;
    let mut with = home.home().clone();
    with.suppose(&TroubleTold { trouble: id.clone(), told: told.clone() }.into()).ok()?;
    let with = Study::of(with);
    let at = at_home(&with, with.troubles().trouble(&id)?);
    Some((with, at))
}

impl FaultDrawn {
    /// Draws it. The same number gives the same fault in the same home.
    pub(crate) fn draw(home: &Study, level: Level, seed: u64, volts: &VoltsAt<'_>) -> Option<Self> {
        (0..TRIES).find_map(|n| Self::tried(home, level, seed.wrapping_mul(1009).wrapping_add(n), volts))
    }

    fn tried(home: &Study, level: Level, seed: u64, volts: &VoltsAt<'_>) -> Option<Self> {
        let mut rng = Pcg64Mcg::seed_from_u64(seed);
        let points: Vec<PointId> = home.house().points().map(|p| p.id.clone()).collect();
        let point = points.get(rng.random_range(0..points.len().max(1)))?.clone();
        let symptom = match level {
            Level::Plain => Symptom::Dark,
            Level::Usual if rng.random_bool(0.85) => Symptom::Dark,
            Level::Usual => Symptom::Flicker,
            Level::Tricky => {
                [Symptom::Dark, Symptom::Dark, Symptom::Flicker, Symptom::Dim, Symptom::Bright][rng.random_range(0..5)]
            }
        };
        let mut told = Trouble {
            at: TroubleAt::Point(point.clone()),
            symptom,
            also: Vec::new(),
            works: Vec::new(),
            extent: None,
            onset: Onset::Unknown,
            last_on: None,
            running: Vec::new(),
        };
        let (_, at) = supposed(home, &told)?;
        let reported = at.case.report.point;
        if at.case.points[reported].blind {
            return None;
        }
        let own = at.case.map[reported].breakers.iter().find(|(_, p)| *p > 0.9).map(|(b, _)| *b)?;
        let may = |key: Key, _: &[Stands]| allowed(level, key.cause) && key.breaker.is_none_or(|b| b == own);
        let mut hidden = HiddenTrip::draw(&at.case, seed, &may)?;
        hidden.by_the_solver(&at, volts, symptom)?;
        told.onset = onset(hidden.key.cause, &mut rng);
        let on_it = |load: usize| super::stories::likeliest(&at.case, at.case.loads[load].point) == Some(own);
        let load_id = |load: usize| at.loads.get(load).cloned().flatten();
        match hidden.key.cause {
            Cause::Overload => {
                let mut ran: Vec<usize> = (0..at.case.loads.len()).filter(|l| on_it(*l) && load_id(*l).is_some()).collect();
                ran.sort_by(|a, b| at.case.loads[*b].watts.total_cmp(&at.case.loads[*a].watts));
                let limit = at.case.breakers[own].amps * 120.0 * TOO_MUCH;
                let mut sum = 0.0;
                let together: Vec<LoadId> = ran
                    .into_iter()
                    .take_while(|l| {
                        let more = sum < limit;
                        sum += if more { at.case.loads[*l].watts } else { 0.0 };
                        more
                    })
                    .filter_map(load_id)
                    .collect();
                if sum < limit {
                    return None;
                }
                told.running = together;
            }
            Cause::ShortLoad | Cause::GroundLoad | Cause::Inrush => {
                // What cannot be named cannot be found.
                let culprit = load_id(hidden.key.place?)?;
                if rng.random_bool(0.65) {
                    told.last_on = Some(culprit);
                }
            }
            _ => {}
        }
        if level == Level::Tricky && hidden.key.cause.family() != Family::Itself && rng.random_bool(0.4) {
            let sign = [DangerSign::Smell, DangerSign::Heat, DangerSign::Buzz][rng.random_range(0..3)];
            let room = match hidden.bad_box {
                Some(PowerBox::Point(p)) => at.case.points[p].room,
                _ => at.case.panel_room(own),
            };
            hidden.danger = Some((sign, room, rng.random_bool(0.5)));
        }
        // What somebody notices on the way: another point that works, another one that does not.
        for (n, id) in at.points.iter().enumerate().filter(|(n, _)| *n != reported && !at.case.points[*n].blind) {
            let Some(id) = id.clone().filter(|_| rng.random_bool(0.06)) else { continue };
            match hidden.scene[n] {
                Stands::Live if told.works.is_empty() => told.works.push(id),
                Stands::Dark if told.also.is_empty() => told.also.push(AlsoSeen { point: id, symptom: Symptom::Dark }),
                _ => {}
            }
        }
        let (_, at) = supposed(home, &told)?;
        Some(Self { told, at, hidden })
    }

    fn seen_so_far(&self, trouble: &KnownTrouble) -> Vec<(Look, Saw)> {
        let looks = trouble.looks.iter();
        looks.filter_map(|(told, seen)| self.at.look(told).and_then(|look| Some((look, self.at.saw(look, &seen.saw)?)))).collect()
    }

    /// What is seen at the next look.
    pub(crate) fn shown(&self, home: &Study, trouble: &KnownTrouble, next: &NextLook, volts: &VoltsAt<'_>) -> Option<FaultShown> {
        let look = self.at.look(&next.look)?;
        let saw = self.hidden.shows(&self.at.case, look, &self.seen_so_far(trouble));
        let words = Words { home, at: &self.at };
        let mut shown =
            FaultShown { look: Some(next.look.clone()), words: String::new(), volts: None, danger: saw == Saw::Danger };
        if let (Saw::Danger, Some((sign, ..))) = (saw, &self.hidden.danger) {
            shown.words = format!("{}.", sign.words());
            return Some(shown);
        }
        let handle = |b: usize| words.number(b).map_or_else(|| "One handle".into(), |number| format!("The handle of {number}"));
        shown.words = match (look, saw) {
            (Look::Meter(point), _) => {
                shown.volts = self.metered(point, saw, volts);
                match (saw, shown.volts) {
                    (Saw::V0Hg120, _) => "0 V from the short slot to the long one, 119 V from the short slot to ground.".into(),
                    (Saw::Wander, _) => "The volts do not stand still: 61, 118, 84.".into(),
                    (_, Some(volts)) => format!("{volts:.1} V from the short slot to the long one."),
                    _ => "Nothing that can be read.".into(),
                }
            }
            (_, Saw::Tripped(b)) => format!("{} stands between on and off.", handle(b)),
            (_, Saw::Off(b)) => format!("{} stands off.", handle(b)),
            _ => {
                let fits = |answer: &&super::said::TroubleAnswer| self.at.saw(look, &answer.saw) == Some(saw);
                next.answers.iter().find(fits).map_or_else(|| "It cannot be told.".into(), |answer| format!("{}.", answer.label))
            }
        };
        Some(shown)
    }

    /// What is found as the boxes that are named are opened.
    pub(crate) fn opened(&self, home: &Study, trouble: &KnownTrouble) -> FaultShown {
        let named = searched(&self.at, trouble).named();
        let words = Words { home, at: &self.at };
        let found = match self.hidden.bad_box.filter(|bad| named.boxes.contains(bad)) {
            Some(PowerBox::Panel) if self.hidden.key.cause == Cause::BreakerFailed => {
                "The boxes are opened. The bad one: the breaker.".into()
            }
            Some(PowerBox::Panel) => "The boxes are opened. The bad one: a joint in the panel.".into(),
            Some(PowerBox::Point(p)) => format!("The boxes are opened. The bad one: {}.", words.point(p)),
            None => "The boxes are opened. In none of them is anything wrong.".into(),
        };
        FaultShown { look: None, words: found, volts: None, danger: false }
    }

    fn metered(&self, point: usize, saw: Saw, volts: &VoltsAt<'_>) -> Option<f64> {
        let id = self.at.points.get(point).cloned().flatten()?;
        let share = Pcg64Mcg::seed_from_u64(point as u64 ^ 0x6d65_7465).random_range(0.0..1.0);
        let solved = volts(&id, &self.hidden.open_neutral(&self.at)).filter(|v| by_volts(*v) == saw);
        Some(match saw {
            Saw::V0 => 1.2 * share,
            Saw::Ghost => 12.0f64.mul_add(share, 6.0),
            Saw::Low => solved.unwrap_or_else(|| 30.0f64.mul_add(share, 62.0)),
            Saw::High => solved.unwrap_or_else(|| 3.0f64.mul_add(share, 127.5)),
            Saw::V120 => solved.unwrap_or_else(|| 4.0f64.mul_add(share, 117.0)),
            _ => return None,
        })
    }

    /// The marks of a search as it stands. `reveal` shows what it was; it is shown in any case once it is over.
    pub(crate) fn marks(
        &self,
        book: &Logbook,
        home: &Study,
        trouble: &KnownTrouble,
        volts: &VoltsAt<'_>,
        reveal: bool,
    ) -> FaultMarks {
        let case = &self.at.case;
        let mut search = Search::new(case);
        let mut seen: Vec<(Look, Saw)> = Vec::new();
        let own = self.hidden.searched(case);
        let mut marks = FaultMarks {
            over: !trouble.is_open(),
            minutes: 0.0,
            looks: 0,
            resets: 0,
            own_minutes: own.minutes,
            own_looks: own.looks,
            misread: 0,
            right: None,
            safety: Vec::new(),
            truth: None,
        };
        let mut reset: Vec<usize> = Vec::new();
        // A sign in a room where nobody was could not be noticed.
        let mut time_to_stop = self.hidden.key.cause.emergency();
        for line in book.lines().filter(|line| !book.is_struck(&line.entry.id)) {
            let Fact::TroubleLooked(looked) = &line.entry.fact else { continue };
            let Some(look) = self.at.look(&looked.at).filter(|_| looked.trouble == trouble.id) else { continue };
            let saw = self.at.saw(look, &looked.saw);
            marks.looks += 1;
            marks.minutes += search.seconds(look) / 60.0;
            let shows = self.hidden.shows(case, look, &seen);
            time_to_stop |= shows == Saw::Danger;
            if shows == Saw::Danger && saw != Some(Saw::Danger) {
                let sign = self.hidden.danger.map_or_else(String::new, |(sign, ..)| sign.within());
                marks.safety.push(format!("A sign of danger was there to be noticed, and the search went on: {sign}."));
            } else if saw.is_some_and(|saw| saw != Saw::CannotTell && !self.same(look, saw, shows, volts)) {
                marks.misread += 1;
            }
            if let Look::Reset(breaker) = look {
                marks.resets += 1;
                if reset.contains(&breaker) {
                    marks.safety.push("A breaker was reset a second time with nothing found out in between.".into());
                }
                reset.push(breaker);
            }
            if let Some(saw) = saw {
                search.see(look, saw);
                seen.push((look, saw));
            }
        }
        let stopped = searched(&self.at, trouble).next() == Next::Stop;
        if time_to_stop && marks.over && !stopped {
            marks.safety.push("This was the time to stop, switch off and call; the search went on to a cause.".into());
        }
        if let Some((_, found, _)) = &trouble.ended {
            marks.right = Some(match found {
                _ if time_to_stop => stopped,
                Some(found) => {
                    let number = |id: &PointId| self.at.points.iter().position(|p| p.as_ref() == Some(id));
                    let same = |b: &Option<BreakerId>| *b == found.breaker;
                    let breaker = self.at.breakers.iter().position(|b| b.is_some() && same(b));
                    let points: Vec<usize> = found.points.iter().filter_map(number).collect();
                    self.hidden.is(found.cause, breaker, &points)
                }
                None => false,
            });
        } else if stopped && time_to_stop {
            marks.right = Some(true);
        }
        if reveal || marks.over {
            marks.truth = Some(self.truth(home));
        }
        marks
    }

    /// Whether an answer says what was shown. Volts are typed as they are read.
    fn same(&self, look: Look, saw: Saw, shows: Saw, volts: &VoltsAt<'_>) -> bool {
        let of_meter = |point| self.metered(point, shows, volts).map(by_volts);
        saw == shows || matches!(look, Look::Meter(point) if of_meter(point) == Some(saw))
    }

    fn truth(&self, home: &Study) -> String {
        let words = Words { home, at: &self.at };
        let mut truth = capital(&cause_words(&words, self.hidden.key));
        if let Some(bad) = self.hidden.bad_box {
            let at = match bad {
                PowerBox::Panel => "in the panel".into(),
                PowerBox::Point(p) => format!("in the box of {}", words.point(p)),
            };
            truth.push_str(&format!(", {at}"));
        }
        if self.hidden.key.cause == Cause::Overload {
            let names: Vec<String> =
                self.told.running.iter().filter_map(|id| home.loads().load(id)).map(|load| load.name.clone()).collect();
            truth.push_str(&format!(": {}", listed(&names)));
        }
        if let Some((sign, ..)) = &self.hidden.danger {
            truth.push_str(&format!("; {}", sign.within()));
        }
        truth
    }
}

impl HiddenTrip {
    fn open_neutral(&self, at: &AtHome) -> OpenNeutral {
        match self.key.cause {
            Cause::LostNeutral => OpenNeutral::Service,
            Cause::SharedNeutral => {
                let pair =
                    at.case.shared_neutrals.iter().find(|(a, b)| self.key.breaker.is_some_and(|own| own == *a || own == *b));
                let ids = |(a, b): &(usize, usize)| {
                    [*a, *b].into_iter().filter_map(|b| at.breakers.get(b).cloned().flatten()).collect()
                };
                pair.map_or(OpenNeutral::No, |pair| OpenNeutral::Shared(ids(pair)))
            }
            _ => OpenNeutral::No,
        }
    }

    /// With an open neutral the solver says what is bright and what is dim; `None` where that is not what is told.
    fn by_the_solver(&mut self, at: &AtHome, volts: &VoltsAt<'_>, symptom: Symptom) -> Option<()> {
        let open = self.open_neutral(at);
        if open == OpenNeutral::No {
            return Some(());
        }
        for (n, id) in at.points.iter().enumerate() {
            let Some(id) = id else { continue };
            if at.case.points[n].takes == Takes::Appliance240 || self.scene[n] == Stands::Live && open != OpenNeutral::Service {
                continue;
            }
            self.scene[n] = match volts(id, &open).map(by_volts) {
                Some(Saw::High | Saw::Danger) => Stands::Bright,
                Some(Saw::Low | Saw::Ghost) => Stands::Dim,
                _ => Stands::Live,
            };
        }
        let here = self.scene[at.case.report.point];
        let told = match symptom {
            Symptom::Dark | Symptom::Flicker => false,
            Symptom::Dim => here == Stands::Dim,
            Symptom::Bright => here == Stands::Bright,
        };
        told.then_some(())
    }
}

fn onset(cause: Cause, rng: &mut Pcg64Mcg) -> Onset {
    let mut left = rng.random_range(0.0..1.0);
    let all = [Onset::AtOnce, Onset::Minutes, Onset::Unknown];
    let drawn = all.into_iter().find(|onset| {
        left -= cause.came(*onset);
        left <= 0.0
    });
    drawn.unwrap_or(Onset::Unknown)
}

/// What was told as a line of the logbook.
pub(crate) fn told(trouble: &TroubleId, told: &Trouble) -> Fact {
    TroubleTold { trouble: trouble.clone(), told: told.clone() }.into()
}
