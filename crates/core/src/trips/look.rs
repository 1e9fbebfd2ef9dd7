//! What can be looked at, what it takes, and what it shows: how likely each answer is, given the cause and how the point stands.
//!
//! Times and rates are judgement (`trips.md`), as for tracing.

use std::fmt;
use std::str::FromStr;

use super::case::{BreakerNo, PointNo, State, Takes, TripCase};
use super::cause::{Cause, Key};
use super::chances::{gfci, handles, indicator, pick, reset, shown, volts, works_if};
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

/// What was done that makes the next look shorter.
#[derive(Debug, Clone, Default)]
pub(super) struct Done {
    /// The room in which a tester was plugged in last.
    pub(super) tester_in: Option<usize>,
    /// The meter is at hand.
    pub(super) metered: bool,
}
