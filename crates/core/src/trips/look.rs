//! What can be looked at, what it takes, and what it shows: how likely each answer is, given the cause and how the point stands.
//!
//! Times and rates are judgement (`trips.md`), as for tracing.

use std::fmt;
use std::str::FromStr;

use super::case::{BreakerNo, PointNo, State, Takes, TripCase};
use super::cause::{Cause, Key};
use crate::model::{Seen, Volts, meter};

/// Something to look at or to do.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Look {
    /// Ask for smell, heat, a buzz, water, a shock, and whether lamps are brighter or dimmer than usual.
    Safety,
    /// Look at a point: a plug-in tester at an outlet, the lamp, what an appliance shows.
    Point(PointNo),
    /// Volts at an outlet.
    Meter(PointNo),
    /// The tester at the outlet behind an appliance.
    Outlet(PointNo),
    /// The handles of a panel.
    Handles(usize),
    /// Feel one handle.
    Feel(BreakerNo),
    /// The lamp on a breaker that says why it tripped.
    Indicator(BreakerNo),
    /// Press a GFCI and go back to see.
    Gfci(PointNo),
    /// Move a switch.
    Toggle(usize),
    /// Set a timer, cover a daylight switch, walk before a motion switch.
    Control(usize),
    /// Put in a lamp that is known to work.
    Lamp(PointNo),
    /// Plug the appliance into another outlet.
    Elsewhere(PointNo),
    /// Push in the appliance's own cut-out.
    Cutout(PointNo),
    /// Look at a load's cord and plug.
    Inspect(usize),
    /// Everything on it unplugged: reset it, once, and go back to see.
    Reset(BreakerNo),
    /// One load back on, after a reset that held.
    Add(usize),
    /// Whether the neighbors have light.
    Neighbors,
}

/// What a look shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "each is said in the table of words below")]
pub enum Saw {
    Shows(State),
    V120,
    V0,
    V0Hg120,
    High,
    Low,
    Wander,
    Ghost,
    None,
    Tripped(BreakerNo),
    Off(BreakerNo),
    Other,
    IsOn,
    IsOff,
    IsTripped,
    Over,
    Arc,
    Ground,
    OkLive,
    ResetWorks,
    ResetNoHelp,
    ClicksDead,
    WontLatch,
    Lit,
    StaysDark,
    Works,
    Dead,
    Clean,
    Marks,
    HoldsLive,
    HoldsDead,
    AtOnce,
    Later,
    Holds,
    Trips,
    CannotTell,
    Normal,
    Odd,
    /// Smell, heat, a buzz, water or a shock.
    Danger,
}

/// As they stand in a file.
const WORDS: [(Saw, &str); 43] = [
    (Saw::Shows(State::Live), "live"),
    (Saw::Shows(State::Dark), "dark"),
    (Saw::Shows(State::OpenNeutral), "open_neutral"),
    (Saw::Shows(State::Dim), "dim"),
    (Saw::Shows(State::Bright), "bright"),
    (Saw::Shows(State::Flicker), "flicker"),
    (Saw::Shows(State::Partial), "partial"),
    (Saw::Shows(State::Half), "half"),
    (Saw::V120, "120"),
    (Saw::V0, "0"),
    (Saw::V0Hg120, "0_hg120"),
    (Saw::High, "high"),
    (Saw::Low, "low"),
    (Saw::Wander, "wander"),
    (Saw::Ghost, "ghost"),
    (Saw::None, "none"),
    (Saw::Other, "other"),
    (Saw::IsOn, "on"),
    (Saw::IsOff, "off"),
    (Saw::IsTripped, "tripped"),
    (Saw::Over, "over"),
    (Saw::Arc, "arc"),
    (Saw::Ground, "ground"),
    (Saw::OkLive, "ok_live"),
    (Saw::ResetWorks, "reset_works"),
    (Saw::ResetNoHelp, "reset_no_help"),
    (Saw::ClicksDead, "clicks_dead"),
    (Saw::WontLatch, "wont_latch"),
    (Saw::Lit, "lit"),
    (Saw::StaysDark, "stays_dark"),
    (Saw::Works, "works"),
    (Saw::Dead, "dead"),
    (Saw::Clean, "clean"),
    (Saw::Marks, "marks"),
    (Saw::HoldsLive, "holds_live"),
    (Saw::HoldsDead, "holds_dead"),
    (Saw::AtOnce, "at_once"),
    (Saw::Later, "later"),
    (Saw::Holds, "holds"),
    (Saw::Trips, "trips"),
    (Saw::CannotTell, "cannot_tell"),
    (Saw::Normal, "normal"),
    (Saw::Odd, "odd"),
];

impl fmt::Display for Saw {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Tripped(b) => write!(f, "tripped:{b}"),
            Self::Off(b) => write!(f, "off:{b}"),
            Self::Danger => f.write_str("danger"),
            other => f.write_str(WORDS.iter().find(|(saw, _)| saw == other).map_or("cannot_tell", |(_, word)| word)),
        }
    }
}

impl Saw {
    /// What a word in a file says of a look. The same word means another thing for another look: a lamp that stays dark is
    /// `dark`, as a point is.
    pub fn read(look: Look, word: &str) -> Option<Self> {
        if let Some((what, number)) = word.split_once(':') {
            let breaker = number.parse().ok()?;
            return match what {
                "tripped" => Some(Self::Tripped(breaker)),
                "off" => Some(Self::Off(breaker)),
                _ => None,
            };
        }
        let after_an_act = matches!(look, Look::Toggle(_) | Look::Control(_) | Look::Lamp(_) | Look::Neighbors);
        if after_an_act && word == "dark" {
            return Some(Self::StaysDark);
        }
        WORDS.iter().find(|(_, w)| *w == word).map(|(saw, _)| *saw)
    }
}

impl fmt::Display for Look {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let (kind, number) = self.kind();
        match number {
            Some(number) => write!(f, "{kind}:{number}"),
            None => f.write_str(kind),
        }
    }
}

/// No look is written like that.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct NoLook;

impl FromStr for Look {
    type Err = NoLook;
    fn from_str(text: &str) -> Result<Self, NoLook> {
        let (kind, number) = match text.split_once(':') {
            Some((kind, number)) => (kind, Some(number.parse::<usize>().map_err(|_| NoLook)?)),
            None => (text, None),
        };
        Ok(match (kind, number) {
            ("safety", None) => Self::Safety,
            ("neighbours", None) => Self::Neighbors,
            ("look", Some(n)) => Self::Point(n),
            ("meter", Some(n)) => Self::Meter(n),
            ("outlet", Some(n)) => Self::Outlet(n),
            ("handles", Some(n)) => Self::Handles(n),
            ("feel", Some(n)) => Self::Feel(n),
            ("indicator", Some(n)) => Self::Indicator(n),
            ("gfci", Some(n)) => Self::Gfci(n),
            ("toggle", Some(n)) => Self::Toggle(n),
            ("control", Some(n)) => Self::Control(n),
            ("lamp", Some(n)) => Self::Lamp(n),
            ("elsewhere", Some(n)) => Self::Elsewhere(n),
            ("cutout", Some(n)) => Self::Cutout(n),
            ("inspect", Some(n)) => Self::Inspect(n),
            ("reset", Some(n)) => Self::Reset(n),
            ("add", Some(n)) => Self::Add(n),
            _ => return Err(NoLook),
        })
    }
}

impl Look {
    /// Its kind as in a file, and its number.
    pub const fn kind(self) -> (&'static str, Option<usize>) {
        match self {
            Self::Safety => ("safety", None),
            Self::Neighbors => ("neighbours", None),
            Self::Point(n) => ("look", Some(n)),
            Self::Meter(n) => ("meter", Some(n)),
            Self::Outlet(n) => ("outlet", Some(n)),
            Self::Handles(n) => ("handles", Some(n)),
            Self::Feel(n) => ("feel", Some(n)),
            Self::Indicator(n) => ("indicator", Some(n)),
            Self::Gfci(n) => ("gfci", Some(n)),
            Self::Toggle(n) => ("toggle", Some(n)),
            Self::Control(n) => ("control", Some(n)),
            Self::Lamp(n) => ("lamp", Some(n)),
            Self::Elsewhere(n) => ("elsewhere", Some(n)),
            Self::Cutout(n) => ("cutout", Some(n)),
            Self::Inspect(n) => ("inspect", Some(n)),
            Self::Reset(n) => ("reset", Some(n)),
            Self::Add(n) => ("add", Some(n)),
        }
    }

    /// In which rooms it is done, in their order; none where it can be answered from anywhere.
    pub(super) fn rooms(self, case: &TripCase) -> [Option<usize>; 2] {
        let of = |point: PointNo| Some(case.points[point].room);
        let back = of(case.report.point);
        match self {
            Self::Safety | Self::Neighbors => [None, None],
            Self::Point(p) | Self::Meter(p) | Self::Outlet(p) | Self::Lamp(p) | Self::Elsewhere(p) | Self::Cutout(p) => {
                [of(p), None]
            }
            Self::Handles(panel) => [Some(case.panels[panel].room), None],
            Self::Feel(b) | Self::Indicator(b) => [Some(case.panel_room(b)), None],
            Self::Gfci(p) => [of(p), back],
            Self::Toggle(s) | Self::Control(s) => [Some(case.switches[s].room), back],
            Self::Inspect(load) | Self::Add(load) => [of(case.loads[load].point), None],
            Self::Reset(b) => [Some(case.panel_room(b)), back],
        }
    }

    /// Seconds of doing, without the walk and without reading and answering.
    pub(super) fn seconds(self, case: &TripCase, done: &Done) -> f64 {
        match self {
            Self::Safety => 30.0,
            Self::Point(p) => match case.points[p].takes {
                Takes::Light => 3.0,
                Takes::Appliance | Takes::Appliance240 => 2.0,
                Takes::Receptacle if done.tester_in == Some(case.points[p].room) => 2.0,
                Takes::Receptacle => 8.0,
            },
            Self::Meter(_) if done.metered => 15.0,
            Self::Meter(_) => 40.0,
            Self::Outlet(_) => 25.0,
            Self::Handles(_) | Self::Add(_) => 12.0,
            Self::Feel(_) => 5.0,
            Self::Indicator(_) => 8.0,
            Self::Gfci(_) => 7.0,
            Self::Toggle(_) => 4.0,
            Self::Control(_) => 20.0,
            Self::Lamp(_) => 45.0,
            Self::Elsewhere(_) => 30.0,
            Self::Cutout(_) | Self::Neighbors => 15.0,
            Self::Inspect(_) => 10.0,
            Self::Reset(b) => {
                let loads = case.loads.iter().filter(|l| l.cord && super::stories::likeliest(case, l.point) == Some(b));
                6.0f64.mul_add(loads.count() as f64, 8.0)
            }
        }
    }

    /// All that it can show. `breakers`: those whose handles may be found out of place.
    pub fn can_show(self, breakers: &[BreakerNo]) -> Vec<Saw> {
        use Saw::{
            Arc, AtOnce, CannotTell, Clean, ClicksDead, Dead, Ghost, Ground, High, Holds, HoldsDead, HoldsLive, IsOff, IsOn,
            IsTripped, Later, Lit, Low, Marks, None, Normal, Odd, OkLive, Other, Over, ResetNoHelp, ResetWorks, StaysDark, Trips,
            V0, V0Hg120, V120, Wander, WontLatch, Works,
        };
        match self {
            Self::Safety => vec![Normal, Odd],
            Self::Point(_) | Self::Outlet(_) => State::ALL.into_iter().map(Saw::Shows).collect(),
            Self::Meter(_) => vec![V120, V0, V0Hg120, High, Low, Wander, Ghost],
            Self::Handles(_) => {
                let each = breakers.iter().flat_map(|b| [Saw::Tripped(*b), Saw::Off(*b)]);
                [None, Other].into_iter().chain(each).collect()
            }
            Self::Feel(_) => vec![IsOn, IsOff, IsTripped],
            Self::Indicator(_) => vec![None, Over, Arc, Ground],
            Self::Gfci(_) => vec![OkLive, ResetWorks, ResetNoHelp, ClicksDead, WontLatch],
            Self::Toggle(_) | Self::Control(_) | Self::Lamp(_) => vec![Lit, StaysDark],
            Self::Elsewhere(_) | Self::Cutout(_) => vec![Works, Dead],
            Self::Inspect(_) => vec![Clean, Marks],
            Self::Reset(_) => vec![HoldsLive, HoldsDead, AtOnce, Later, WontLatch],
            Self::Add(_) => vec![Holds, Trips],
            Self::Neighbors => vec![Lit, StaysDark, CannotTell],
        }
    }

    /// The point whose state decides what it shows.
    pub(super) const fn site(self) -> Option<PointNo> {
        match self {
            Self::Point(p) | Self::Meter(p) | Self::Outlet(p) | Self::Gfci(p) => Some(p),
            _ => None,
        }
    }

    /// How likely it shows this, with that cause and the point in that state.
    pub(super) fn chance(self, case: &TripCase, saw: Saw, key: Key, state: State) -> f64 {
        match self {
            Self::Safety => {
                let odd = match key.cause {
                    Cause::LostNeutral => 0.88,
                    Cause::SharedNeutral => 0.75,
                    Cause::LooseJoint => 0.15,
                    Cause::LostLeg | Cause::FeederLeg => 0.12,
                    _ => 0.03,
                };
                pick(saw, &[(Saw::Odd, odd), (Saw::Normal, 1.0 - odd)])
            }
            Self::Point(p) => shown(case.points[p].takes, seen_at(case, p, key, state), saw),
            Self::Outlet(_) => shown(Takes::Receptacle, state, saw),
            Self::Meter(_) => volts(key, state, saw),
            Self::Handles(panel) => handles(case, panel, key, saw),
            Self::Feel(b) => {
                let wrong = 0.01;
                let right = if key.breaker == Some(b) && key.cause.trips() {
                    Saw::IsTripped
                } else if key.breaker == Some(b) && matches!(key.cause, Cause::OffOrNotLatched | Cause::FeederOff) {
                    Saw::IsOff
                } else {
                    Saw::IsOn
                };
                if saw == right { 1.0 - 2.0 * wrong } else { wrong }
            }
            Self::Indicator(b) => indicator(key, b, saw),
            Self::Gfci(p) => gfci(key, p, state, saw),
            Self::Toggle(s) => works_if(key == Key::place(Cause::SwitchOff, s), 0.97, saw, Saw::Lit),
            Self::Control(s) => works_if(key == Key::place(Cause::Control, s), 0.9, saw, Saw::Lit),
            Self::Lamp(p) => works_if(key == Key::place(Cause::Lamp, p), 0.98, saw, Saw::Lit),
            Self::Cutout(p) => works_if(key == Key::place(Cause::Cutout, p), 0.9, saw, Saw::Works),
            Self::Elsewhere(p) => {
                let own = key == Key::place(Cause::Cutout, p) || key == Key::place(Cause::Cord, p);
                works_if(own, 0.97, saw, Saw::Dead)
            }
            Self::Inspect(load) => {
                let marks = if key == Key::place(Cause::Cord, case.loads[load].point) { 0.35 } else { 0.02 };
                pick(saw, &[(Saw::Marks, marks), (Saw::Clean, 1.0 - marks)])
            }
            Self::Reset(b) => reset(key, b, saw),
            Self::Add(load) => {
                let culprit = key.place == Some(load) && matches!(key.cause, Cause::ShortLoad | Cause::GroundLoad);
                let surge = key.place == Some(load) && key.cause == Cause::Inrush;
                let trips = if culprit {
                    0.9
                } else if surge {
                    0.25
                } else if key.cause == Cause::Overload {
                    0.1
                } else {
                    0.02
                };
                pick(saw, &[(Saw::Trips, trips), (Saw::Holds, 1.0 - trips)])
            }
            Self::Neighbors => {
                let dark = match key.cause {
                    Cause::Outage => 0.93,
                    Cause::LostLeg => 0.1,
                    _ => 0.02,
                };
                pick(saw, &[(Saw::CannotTell, 0.1), (Saw::StaysDark, 0.9 * dark), (Saw::Lit, 0.9 * (1.0 - dark))])
            }
        }
    }
}

/// What a look at a point shows: a lamp or an appliance that is itself the fault is dark though power reaches it.
pub(super) fn seen_at(case: &TripCase, point: PointNo, key: Key, state: State) -> State {
    let itself = matches!(key.cause, Cause::Lamp | Cause::Cord | Cause::Cutout) && key.place == Some(point);
    if itself && case.points[point].takes != Takes::Receptacle { State::Dark } else { state }
}

fn pick(saw: Saw, of: &[(Saw, f64)]) -> f64 {
    of.iter().find(|(s, _)| *s == saw).map_or(1e-4, |(_, p)| *p)
}

/// It shows `yes` at that rate where it is the cause, and the other thing otherwise.
fn works_if(is: bool, rate: f64, saw: Saw, yes: Saw) -> f64 {
    let says_yes = if is { rate } else { 0.012 };
    if saw == yes { says_yes } else { 1.0 - says_yes }
}

/// How likely a look at a thing in this state shows that.
fn shown(takes: Takes, is: State, saw: Saw) -> f64 {
    use State::{Bright, Dark, Dim, Flicker, Half, Live, OpenNeutral, Partial};
    let Saw::Shows(seen) = saw else { return 1e-4 };
    let table: &[(State, f64)] = match (takes, is) {
        (Takes::Receptacle, Live) => &[(Live, 0.98), (Dark, 0.012)],
        (Takes::Light, Live) => &[(Live, 0.97), (Dark, 0.025)],
        (_, Live) => &[(Live, 0.97), (Dark, 0.02)],
        (_, Dark) => &[(Dark, 0.98), (Live, 0.012)],
        (Takes::Receptacle, OpenNeutral) => &[(OpenNeutral, 0.82), (Dark, 0.17)],
        (_, OpenNeutral) => &[(Dark, 0.98), (Live, 0.012)],
        (Takes::Receptacle, Dim) => &[(Live, 0.69), (Dim, 0.28), (Dark, 0.02)],
        (Takes::Receptacle, Bright) => &[(Live, 0.69), (Bright, 0.28), (Dark, 0.02)],
        (Takes::Light, Dim) => &[(Dim, 0.75), (Live, 0.22), (Dark, 0.02)],
        (Takes::Light, Bright) => &[(Bright, 0.75), (Live, 0.18), (Dark, 0.06)],
        (_, Dim) => &[(Live, 0.65), (Dim, 0.22), (Dark, 0.12)],
        (_, Bright) => &[(Live, 0.65), (Bright, 0.22), (Dark, 0.12)],
        (Takes::Receptacle, Flicker) => &[(Live, 0.55), (Flicker, 0.35), (Dark, 0.09)],
        (_, Flicker) => &[(Flicker, 0.55), (Live, 0.35), (Dark, 0.09)],
        (_, Partial) => &[(Partial, 0.8), (Dark, 0.15), (Live, 0.04)],
        (_, Half) => &[(Half, 0.9), (Dark, 0.06), (Live, 0.03)],
    };
    table.iter().find(|(s, _)| *s == seen).map_or(0.002, |(_, p)| *p)
}

fn volts(key: Key, is: State, saw: Saw) -> f64 {
    let ghost = if key.cause == Cause::OpenHot { 0.34 } else { 0.09 };
    let table: &[(Saw, f64)] = match is {
        State::Live | State::Half | State::Partial => &[(Saw::V120, 0.97)],
        State::Dark => &[(Saw::Ghost, ghost), (Saw::V0, 0.97 - ghost), (Saw::V120, 0.01)],
        State::OpenNeutral => &[(Saw::V0Hg120, 0.9), (Saw::Ghost, 0.05), (Saw::V0, 0.04)],
        State::Dim => &[(Saw::Low, 0.93), (Saw::Ghost, 0.04), (Saw::V120, 0.02)],
        State::Bright => &[(Saw::High, 0.97), (Saw::V120, 0.02)],
        State::Flicker => &[(Saw::Wander, 0.5), (Saw::V120, 0.35), (Saw::Low, 0.1)],
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.005, |(_, p)| *p)
}

/// What a meter at an outlet of 120 V says. More than a service may have is a danger by itself: a lost neutral lets one leg go high
/// and the other low. The limits are those of tracing (`model/meter.rs`).
pub fn by_volts(volts: f64) -> Saw {
    let nominal = Volts::new(120);
    if meter::is_too_much(volts, nominal) {
        Saw::Danger
    } else if volts > meter::RARELY {
        Saw::High
    } else if meter::shows(volts, nominal) == Some(Seen::Lit) {
        // Down to 100 V: a long way and a heavy load come to that, and no neutral is lost for it.
        Saw::V120
    } else if volts >= GHOST_BELOW {
        Saw::Low
    } else if meter::shows(volts, nominal) == Some(Seen::Dark) {
        Saw::V0
    } else {
        Saw::Ghost
    }
}

/// Below this many volts they may be no more than what strays over from a wire alongside. Common practice, no source.
const GHOST_BELOW: f64 = 50.0;

fn handles(case: &TripCase, panel: usize, key: Key, saw: Saw) -> f64 {
    let here = |b: BreakerNo| case.breakers[b].panel == panel;
    let (right, rate) = match (key.cause, key.breaker) {
        (cause, Some(b)) if cause.trips() && here(b) => (Saw::Tripped(b), 0.9),
        (Cause::OffOrNotLatched, Some(b)) if here(b) => (Saw::Off(b), 0.8),
        (Cause::FeederOff, Some(b)) if here(b) => (Saw::Off(b), 0.93),
        (Cause::MainOff, _) if case.panels[panel].feeder.is_none() => (Saw::Other, 0.97),
        _ => (Saw::None, 0.985),
    };
    if saw == right {
        rate
    } else {
        match saw {
            Saw::None => 1.0 - rate,
            Saw::Other => 0.01,
            _ => 0.0005,
        }
    }
}

fn indicator(key: Key, breaker: BreakerNo, saw: Saw) -> f64 {
    let (says, rate) = match key.cause {
        _ if key.breaker != Some(breaker) => (Saw::None, 0.98),
        Cause::Arc => (Saw::Arc, 0.65),
        Cause::GroundLoad | Cause::GroundWiring => (Saw::Ground, 0.65),
        Cause::Overload | Cause::ShortLoad | Cause::ShortWiring | Cause::Inrush => (Saw::Over, 0.52),
        _ => (Saw::None, 0.98),
    };
    if saw == says {
        rate
    } else if saw == Saw::None {
        1.0 - rate - 0.015
    } else {
        0.0075
    }
}

fn gfci(key: Key, point: PointNo, is: State, saw: Saw) -> f64 {
    let table: &[(Saw, f64)] = if key == Key::place(Cause::GfciTripped, point) {
        &[(Saw::ResetWorks, 0.87), (Saw::WontLatch, 0.08), (Saw::ResetNoHelp, 0.02), (Saw::ClicksDead, 0.02)]
    } else if key == Key::place(Cause::GfciDead, point) {
        &[(Saw::WontLatch, 0.83), (Saw::ClicksDead, 0.14), (Saw::ResetNoHelp, 0.02)]
    } else {
        match is {
            State::Dark | State::OpenNeutral => &[(Saw::WontLatch, 0.44), (Saw::ClicksDead, 0.54), (Saw::ResetNoHelp, 0.01)],
            _ => &[(Saw::OkLive, 0.96), (Saw::ResetNoHelp, 0.03)],
        }
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.004, |(_, p)| *p)
}

fn reset(key: Key, breaker: BreakerNo, saw: Saw) -> f64 {
    let table: &[(Saw, f64)] = match key.cause {
        _ if key.breaker != Some(breaker) => &[(Saw::HoldsDead, 0.975)],
        Cause::Overload | Cause::ShortLoad | Cause::GroundLoad => &[(Saw::HoldsLive, 0.95), (Saw::AtOnce, 0.02)],
        Cause::Inrush | Cause::OffOrNotLatched => &[(Saw::HoldsLive, 0.97)],
        Cause::Arc => &[(Saw::HoldsLive, 0.75), (Saw::AtOnce, 0.1), (Saw::Later, 0.13)],
        Cause::ShortWiring => &[(Saw::AtOnce, 0.93), (Saw::WontLatch, 0.03), (Saw::Later, 0.02)],
        Cause::GroundWiring => &[(Saw::AtOnce, 0.85), (Saw::Later, 0.1), (Saw::HoldsLive, 0.03)],
        Cause::BreakerFailed => &[(Saw::HoldsDead, 0.5), (Saw::WontLatch, 0.45)],
        Cause::Double => &[(Saw::HoldsDead, 0.97)],
        _ => &[(Saw::HoldsDead, 0.975)],
    };
    table.iter().find(|(s, _)| *s == saw).map_or(0.006, |(_, p)| *p)
}

/// What was done that makes the next look shorter.
#[derive(Debug, Clone, Default)]
pub(super) struct Done {
    /// The room in which a tester was plugged in last.
    pub(super) tester_in: Option<usize>,
    /// The meter is at hand.
    pub(super) metered: bool,
}
