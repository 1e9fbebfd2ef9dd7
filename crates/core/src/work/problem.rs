//! A panel, its circuits and a wish as numbers: what the search for ways to make room reads, and what it answers.
//!
//! This is also the file format of `practice make-room`: a line of JSON each. Loads are in tenths of an ampere, costs in hundredths
//! of a point, columns and rows counted from 0.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use serde_json::Value;

/// A panel, what is on it, and what somebody wants of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Problem {
    /// Its name in a file.
    pub id: String,
    /// The panel.
    pub panel: PanelOf,
    /// What is on it.
    pub circuits: Vec<CircuitOf>,
    /// The tandems and quads that are in it; each slim breaker is one of its own and stands in no list.
    #[serde(default)]
    pub bodies: Vec<BodyOf>,
    /// The sub-panel that could be put in.
    pub sub: Option<SubOf>,
    /// What is wanted.
    pub wish: WishOf,
    /// What each move takes.
    pub costs: Costs,
    /// What a minute, a unit of money and a risk count.
    pub weights: Weights,
    /// At most so many existing circuits change.
    pub max_touched: usize,
}

/// The panel of a [`Problem`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PanelOf {
    /// The names of the spaces, from the top, column by column.
    pub columns: Vec<Vec<Value>>,
    /// The leg of each row.
    pub legs: Vec<String>,
    /// As the label has it.
    #[serde(default)]
    pub voltage: String,
    /// The main, in amperes.
    pub main_amps: i64,
    /// The bus, in amperes.
    pub bus_amps: i64,
    /// The most poles that the label allows.
    pub listed_poles: i64,
    /// The spaces that take tandems.
    pub tandem_spaces: Vec<Value>,
    /// Whether its breakers of half a width are slim ones, each on its own, a slim two-pole among them.
    pub slim: bool,
    /// The protections that the label names, form by form.
    pub label: BTreeMap<String, Vec<Guard>>,
    /// The largest tandem, quad and slim breaker, in amperes.
    pub max_amps: BTreeMap<String, i64>,
    /// How many splices the gutter takes.
    pub splice_room: i64,
    /// How many spaces of wire a change of column takes.
    pub cross: i64,
    /// What is left to an electrician.
    #[serde(default)]
    pub refer: Vec<Value>,
}

/// What a breaker guards against beside overcurrent.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Guard {
    Standard,
    Gfci,
    Afci,
    Dual,
}

impl Guard {
    /// Whether it guards against all that the other guards against.
    pub fn covers(self, other: Self) -> bool {
        self == other || other == Self::Standard || self == Self::Dual
    }

    pub(super) fn key(self) -> &'static str {
        match self {
            Self::Standard => "standard",
            Self::Gfci => "gfci",
            Self::Afci => "afci",
            Self::Dual => "dual",
        }
    }
}

/// Which halves of its spaces a breaker takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Shape {
    /// Its spaces whole.
    Full,
    /// The upper half of a space.
    Upper,
    /// The lower half of a space.
    Lower,
    /// The lower half of a space and the upper half of the next.
    Inner,
    /// The upper half of a space and the lower half of the next.
    Outer,
}

/// Where a breaker is: its topmost space and its halves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
pub struct Spot {
    /// The column, from 0.
    pub column: usize,
    /// The row of its topmost space, from 0.
    pub row: usize,
    /// Its halves.
    pub shape: Shape,
}

/// A circuit on the panel of a [`Problem`].
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct CircuitOf {
    /// Its name.
    pub id: String,
    /// One or two.
    pub poles: usize,
    /// Of its breaker.
    pub amps: i64,
    /// Of its copper wire; 0 is 1/0.
    pub awg: i64,
    /// Of its breaker.
    pub protection: Guard,
    /// What it feeds: `lighting`, `general`, `alarm`, `small_appliance`, …, or `spare`, `main`.
    pub class: String,
    /// Pole by pole, in tenths of an ampere.
    pub load: Vec<i64>,
    /// Runs for three hours or more.
    #[serde(default)]
    pub continuous: bool,
    /// Two hots with one neutral.
    #[serde(default)]
    pub shared_neutral: bool,
    /// Not to be touched.
    #[serde(default)]
    pub fixed: bool,
    /// How many conductors are on its terminal.
    #[serde(default = "one")]
    pub conductors: i64,
    /// How many its terminal is listed for.
    #[serde(default = "one")]
    pub terminal: i64,
    /// By how many spaces its wire reaches further.
    #[serde(default)]
    pub slack: i64,
    /// How many outlets are on it.
    #[serde(default)]
    pub outlets: i64,
    /// Where it is.
    pub at: Spot,
}

fn one() -> i64 {
    1
}

/// A tandem or a quad.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct BodyOf {
    /// `tandem` or `quad`.
    pub form: String,
    /// The column, from 0.
    pub column: usize,
    /// The row of its topmost space, from 0.
    pub row: usize,
    /// Its handles from the top, in amperes.
    pub amps: Vec<i64>,
    /// Which pairs of its handles are tied: `inner`, `outer`.
    #[serde(default)]
    pub ties: Vec<Shape>,
}

/// A sub-panel that could be put in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct SubOf {
    /// Its spaces.
    pub spaces: i64,
    /// Its feeder's breaker.
    pub feeder_amps: i64,
}

/// What is wanted.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum WishOf {
    /// A new circuit.
    Circuit {
        /// One or two.
        poles: usize,
        /// Of its breaker.
        amps: i64,
        /// Of its wire.
        awg: i64,
        /// Of its breaker.
        protection: Guard,
        /// Pole by pole, in tenths of an ampere.
        load: Vec<i64>,
        /// Runs for three hours or more.
        #[serde(default)]
        continuous: bool,
        /// What it feeds.
        class: String,
        /// What it feeds has a cord and a plug.
        #[serde(default)]
        cord: bool,
    },
    /// Open spaces side by side.
    Spaces {
        /// How many.
        count: usize,
    },
    /// Another breaker on a circuit.
    Replace {
        /// The circuit.
        circuit: String,
        /// One or two.
        poles: usize,
        /// Of the new breaker.
        amps: i64,
        /// Of the new breaker.
        protection: Guard,
        /// Pole by pole, in tenths of an ampere.
        #[serde(default)]
        load: Vec<i64>,
    },
    /// The load spread over the legs.
    Level {
        /// The most between the heaviest and the lightest leg, in tenths of an ampere.
        #[serde(default)]
        max_diff: Option<i64>,
    },
    /// A circuit of its own for a part of what is on another.
    Own {
        /// The circuit that loses it.
        circuit: String,
        /// The part, pole by pole, in tenths of an ampere.
        load: Vec<i64>,
        /// The part runs for three hours or more.
        #[serde(default)]
        continuous: bool,
        /// Of the new breaker.
        amps: i64,
        /// Of the new wire.
        awg: i64,
        /// Of the new breaker.
        protection: Guard,
        /// What it feeds.
        class: String,
        /// One or two.
        poles: usize,
    },
}

/// Minutes, money and risk of a move.
pub type Effort = [i64; 3];

/// What each move takes. The figures are guesses, open to everybody's own.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[allow(missing_docs)]
pub struct Costs {
    /// The panel is opened, once.
    pub open: Effort,
    /// A new circuit is landed.
    pub new: Effort,
    /// An open space is left.
    #[serde(default)]
    pub gap: Effort,
    /// A circuit is moved.
    #[serde(rename = "move")]
    pub moved: Effort,
    /// … for each of its poles.
    pub move_pole: Effort,
    /// A conductor is extended.
    pub splice: Effort,
    /// A pole is landed again in its place.
    pub reland_pole: Effort,
    pub join: Effort,
    /// … where the host's breaker needs the neutral, too.
    pub join_neutral: Effort,
    pub tap: Effort,
    /// A spare breaker is taken out.
    pub take_out: Effort,
    pub sub: Effort,
    /// An existing circuit goes to the sub-panel.
    pub to_sub: Effort,
    /// … for each of its poles.
    pub to_sub_pole: Effort,
    /// The load is managed on an existing circuit.
    pub manage: Effort,
    pub electrician: Effort,
    pub price: Prices,
}

/// What breakers cost.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[allow(missing_docs)]
pub struct Prices {
    pub single: BTreeMap<String, i64>,
    pub double: BTreeMap<String, i64>,
    pub tandem: i64,
    pub quad: i64,
    pub slim: i64,
    pub thin: i64,
}

/// Hundredths of a point.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct Weights {
    /// For a minute.
    pub minute: i64,
    /// For a unit of money.
    pub money: i64,
    /// For a risk.
    pub risk: i64,
    /// For a tenth of an ampere between the heaviest and the lightest leg after.
    pub imbalance: i64,
}

impl Weights {
    /// What a move counts.
    pub fn of(&self, effort: Effort) -> i64 {
        effort[0] * self.minute + effort[1] * self.money + effort[2] * self.risk
    }
}

/// A kind of way, in the order in which one is preferred over the next.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Way {
    Nothing,
    Open,
    Relocate,
    Tandem,
    Quad,
    Slim,
    Tap,
    Join,
    Sub,
    Electrician,
}

impl Way {
    /// All, in order.
    pub const ALL: [Self; 10] = [
        Self::Nothing,
        Self::Open,
        Self::Relocate,
        Self::Tandem,
        Self::Quad,
        Self::Slim,
        Self::Tap,
        Self::Join,
        Self::Sub,
        Self::Electrician,
    ];
}

/// Why there is no plan of a kind.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum NoWay {
    WishNotMet,
    NoGap,
    NotCord,
    LoadNotAlone,
    #[serde(rename = "main_80")]
    Main80,
    Refer,
    Fixed,
    BreakerBelowLoad,
    BreakerAboveWire,
    ProtectionLost,
    NotSingleOutlet,
    TandemNotListed,
    QuadNotListed,
    SlimNotMade,
    TerminalNotListed,
    NothingMayBeCombined,
    NoSubOffered,
    ListedPoles,
    NoOpenSpace,
    NoRoom,
    /// The search was not brought to its end.
    NotProven,
}

/// One move of a plan.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "op", rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Move {
    Open,
    TakeOut {
        circuit: String,
    },
    /// Off its breaker, tagged and capped.
    Lift {
        circuit: String,
    },
    Land {
        circuit: String,
        column: usize,
        row: usize,
        shape: Shape,
        /// Its two hots change places.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        flip: bool,
    },
    /// Landed again in its place, on the new breaker there.
    Reland {
        circuit: String,
    },
    Join {
        circuit: String,
        to: String,
    },
    Tap {
        circuit: String,
        to: String,
    },
    Sub,
    ToSub {
        circuit: String,
        pole: usize,
    },
    Close,
    Use {
        circuit: String,
    },
    Call,
}

/// The cheapest plan of a kind, or why there is none.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Found {
    /// A plan.
    Plan {
        /// In hundredths of a point.
        cost: i64,
        /// In order, with the panel dead.
        moves: Vec<Move>,
        /// Minutes, money and risks, as the costs have them.
        #[serde(skip)]
        effort: Effort,
        /// What any plan of the kind costs at least, where the search stopped before this one was proven to be the cheapest.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        at_least: Option<i64>,
    },
    /// None.
    None {
        /// Why.
        reason: NoWay,
    },
}

/// The best of all.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
pub struct Best {
    /// Its kind.
    pub kind: Way,
    /// In hundredths of a point.
    pub cost: i64,
    /// What any plan costs at least, where a search stopped before this one was proven to be the best.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at_least: Option<i64>,
}

impl Best {
    /// By how many percent the true best may cost less at most; 0 where this is proven to be the best.
    pub fn within_percent(&self) -> f64 {
        let least = self.at_least.unwrap_or(self.cost);
        100.0 * (self.cost - least) as f64 / self.cost.max(1) as f64
    }
}

/// What was found: the best, and kind by kind the cheapest plan.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Ways {
    /// The problem's.
    pub id: String,
    /// The best of all.
    pub best: Best,
    /// Kind by kind.
    pub ways: BTreeMap<Way, Found>,
}
