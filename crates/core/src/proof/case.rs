//! What a crew sees of a house before it begins: rooms and the ways between them, points, breakers, the old card.

use super::cause::Off;
use crate::model::TraceSetup;

/// The most breakers that are weighed together.
pub const MOST_BREAKERS: usize = WORDS * 64;
const WORDS: usize = 8;

/// A set of breakers, by their place in the case.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct OffSet([u64; WORDS]);

impl OffSet {
    /// Nothing is off.
    pub const NONE: Self = Self([0; WORDS]);
    /// One breaker.
    pub const fn one(breaker: usize) -> Self {
        Self::NONE.with(breaker)
    }
    /// With one more.
    #[must_use]
    pub const fn with(mut self, breaker: usize) -> Self {
        self.0[breaker / 64] |= 1 << (breaker % 64);
        self
    }
    /// Without one.
    #[must_use]
    pub const fn without(mut self, breaker: usize) -> Self {
        self.0[breaker / 64] &= !(1 << (breaker % 64));
        self
    }
    /// What is in both.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(std::array::from_fn(|n| self.0[n] & other.0[n]))
    }
    /// What is in one of them or in both.
    #[must_use]
    pub fn or(self, other: Self) -> Self {
        Self(std::array::from_fn(|n| self.0[n] | other.0[n]))
    }
    /// What is in the first and not in the second.
    #[must_use]
    pub fn but(self, other: Self) -> Self {
        Self(std::array::from_fn(|n| self.0[n] & !other.0[n]))
    }
    /// What is in one of them and not in the other.
    #[must_use]
    pub fn differs(self, other: Self) -> Self {
        Self(std::array::from_fn(|n| self.0[n] ^ other.0[n]))
    }
    /// Whether it is in it.
    pub const fn has(self, breaker: usize) -> bool {
        self.0[breaker / 64] >> (breaker % 64) & 1 == 1
    }
    /// How many.
    pub fn len(self) -> usize {
        self.0.iter().map(|word| word.count_ones() as usize).sum()
    }
    /// Whether nothing is off.
    pub fn is_empty(self) -> bool {
        self.0 == [0; WORDS]
    }
    /// The only one, if there is only one.
    pub fn single(self) -> Option<usize> {
        let mut each = self.iter();
        each.next().filter(|_| each.next().is_none())
    }
    /// Each of them.
    pub fn iter(self) -> impl Iterator<Item = usize> {
        self.0.into_iter().enumerate().flat_map(|(n, word)| {
            let mut left = word;
            std::iter::from_fn(move || {
                let next = (left != 0).then(|| left.trailing_zeros() as usize)?;
                left &= left - 1;
                Some(n * 64 + next)
            })
        })
    }
}

impl Off for OffSet {
    type Breaker = usize;
    fn has(&self, breaker: usize) -> bool {
        Self::has(*self, breaker)
    }
    fn is_none(&self) -> bool {
        self.is_empty()
    }
    fn one_more_than(&self, there: &Self) -> Option<usize> {
        self.differs(*there).single().filter(|only| Self::has(*self, *only))
    }
}

impl FromIterator<usize> for OffSet {
    fn from_iter<I: IntoIterator<Item = usize>>(breakers: I) -> Self {
        breakers.into_iter().fold(Self::NONE, Self::with)
    }
}

/// How a point is looked at, and what it goes together with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum PointClass {
    /// A tester or a lamp must be plugged in.
    Receptacle,
    /// A glance tells.
    Light,
    /// A glance tells; goes together with nothing.
    Appliance,
}

/// A point as the crew sees it.
#[derive(Debug, Clone, PartialEq)]
pub struct CasePoint {
    /// Its room, by its place in the case.
    pub room: usize,
    /// What it is.
    pub class: PointClass,
    /// Which appliance.
    pub name: String,
    /// On two legs: never a plug-in tester or tone sender.
    pub high: bool,
    /// How many seconds it may be dark at a stretch.
    pub max_dark_s: Option<f64>,
    /// It is known to go on and off by itself with nothing on it that shows its power all the time: a meter is sure, a glance not.
    pub by_itself: bool,
    /// It should not go off and come on again within a few seconds.
    pub delicate: bool,
}

/// What the old card says of a breaker.
#[derive(Debug, Clone, PartialEq)]
pub enum OldLabel {
    /// Nothing.
    Blank,
    /// That it feeds nothing.
    Spare,
    /// A kind in a room.
    Room {
        /// Which room.
        room: usize,
        /// Which kind.
        class: PointClass,
        /// Which appliance.
        name: String,
    },
    /// A room and no kind.
    Place {
        /// Which room.
        room: usize,
    },
    /// A kind and no room.
    Kind {
        /// Which kind.
        class: PointClass,
    },
}

impl OldLabel {
    /// It does not say both where and what.
    pub(crate) const fn is_vague(&self) -> bool {
        matches!(self, Self::Kind { .. } | Self::Place { .. } | Self::Blank)
    }
}

/// What a crew sees.
#[derive(Debug, Clone, PartialEq)]
pub struct Case {
    /// How many rooms.
    pub rooms: usize,
    /// Seconds from the middle of a room to that of another.
    pub walk_s: Vec<Vec<f64>>,
    /// Seconds from the panel to the middle of each room.
    pub panel_s: Vec<f64>,
    /// Rooms next door.
    pub next_to: Vec<Vec<usize>>,
    /// For each breaker those beside it in the panel: a tone sender's bleed.
    pub beside: Vec<Vec<usize>>,
    /// For each breaker what the old card says.
    pub labels: Vec<OldLabel>,
    /// For each breaker whether it has two poles.
    pub two_pole: Vec<bool>,
    /// Breakers that may never be off.
    pub stay_on: OffSet,
    /// Breakers that may feed others: what goes dark with them need not be on them.
    pub leads_on: OffSet,
    /// Breakers that are gone: what was on them is on another now.
    pub gone: OffSet,
    /// Breakers whose card names what should not go off and come on again within a few seconds.
    pub delicate: OffSet,
    /// The points.
    pub points: Vec<CasePoint>,
}

impl Case {
    /// How many breakers.
    pub fn breakers(&self) -> usize {
        self.labels.len()
    }
    /// Every breaker that may be off.
    pub fn may_be_off(&self) -> OffSet {
        (0..self.breakers()).filter(|b| !self.stay_on.has(*b)).collect()
    }
    /// The group of each point: points of one class in one room go together, an appliance with nothing.
    pub(crate) fn groups(&self) -> (Vec<usize>, usize) {
        let mut keys: Vec<(usize, PointClass, bool, usize)> = Vec::new();
        let groups = self
            .points
            .iter()
            .enumerate()
            .map(|(n, p)| {
                let own = if p.class == PointClass::Appliance || p.high { n + 1 } else { 0 };
                let key = (p.room, p.class, p.high, own);
                keys.iter().position(|k| *k == key).unwrap_or_else(|| {
                    keys.push(key);
                    keys.len() - 1
                })
            })
            .collect();
        (groups, keys.len())
    }
}

/// Who traces, and with what.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Crew {
    /// One person, who walks to the panel for every switching.
    pub alone: bool,
    /// Plug-in testers and lamps together, one at least: all but one can be left plugged in.
    pub plugs: usize,
    /// A tone tracer is there.
    pub tone: bool,
    /// A radio or buzzer that is heard at the panel from any room is there.
    pub radio: bool,
}

impl From<TraceSetup> for Crew {
    fn from(setup: TraceSetup) -> Self {
        Self { alone: setup.alone, plugs: usize::from(setup.testers), tone: setup.tone, radio: setup.radio }
    }
}

/// Seconds of every act. A setting each, learnt from the crew's own pace.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Costs {
    /// A handle moved.
    pub flip_s: f64,
    /// A look with a plug-in tester.
    pub plug_s: f64,
    /// A glance at a lamp or an appliance, or again at a tester that is still plugged in.
    pub glance_s: f64,
    /// A word to the other at the panel and back.
    pub exchange_s: f64,
    /// Another way of looking where a lamp is burnt out.
    pub burnt_s: f64,
    /// A tone sender placed.
    pub tone_place_s: f64,
    /// A sweep of the receiver over one breaker.
    pub tone_sweep_s: f64,
    /// A sweep beyond that.
    pub tone_extra_s: f64,
    /// How often a look is read wrong.
    pub misread: f64,
    /// How often a tone tracer is right.
    pub tone_right: f64,
}

impl Default for Costs {
    fn default() -> Self {
        Self {
            flip_s: 3.0,
            plug_s: 8.0,
            glance_s: 2.0,
            exchange_s: 4.0,
            burnt_s: 20.0,
            tone_place_s: 10.0,
            tone_sweep_s: 0.8,
            tone_extra_s: 5.0,
            misread: 0.005,
            tone_right: 0.93,
        }
    }
}

impl Costs {
    /// Two sweeps over every breaker.
    pub fn tone_s(&self, breakers: usize) -> f64 {
        2.0 * (self.tone_sweep_s * breakers as f64 + self.tone_extra_s)
    }
}
