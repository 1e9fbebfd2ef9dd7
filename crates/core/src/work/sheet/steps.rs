//! What a job sheet is made of: steps in order, what each asks for, and what it does to the panel.

use crate::model::meter::{LOW, is_too_much};
use crate::model::{JobFound, Volts};

/// Where a step is done.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobSide {
    /// At the panel.
    Panel,
    /// At the outlet, switch, light or appliance.
    Point,
}

/// A part of a job.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum Stage {
    Ready,
    Dead,
    Fit,
    Close,
    Test,
}

impl Stage {
    pub(crate) const fn words(self) -> &'static str {
        match self {
            Self::Ready => "Make ready",
            Self::Dead => "Switch off and prove dead",
            Self::Fit => "Fit",
            Self::Close => "Close up",
            Self::Test => "Switch on and test",
        }
    }
}

/// What a step does, once it is done. A name is what it is done to: the number of a breaker, or where a new one goes.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Effect {
    /// Every other source is off.
    SourcesOff,
    /// The main, or whatever switches the panel off, is off and locked.
    MainOff,
    CoverOff,
    /// Looked for heat, water, aluminum and old wire.
    LookedAt,
    /// Every pair of conductors was read dead, between two readings of a live source.
    ProvenDead,
    /// The wires of a circuit themselves were read dead: another panel, or a neutral that is shared, may feed them.
    WireDead(String),
    /// The wire is off its breaker, or is one that was never on any.
    Lifted(String),
    Out(String),
    In(String),
    /// The wire is on its terminal.
    Landed(String),
    /// Under a connector with another.
    Spliced(String),
    /// To the torque of the label.
    Tightened(String),
    /// Pulled at, and it held.
    Pulled(String),
    /// A filler goes into an open space.
    Filler(String),
    /// No open space is without a filler.
    Filled,
    CoverOn,
    MainOn,
    /// One breaker, or one circuit, is switched on.
    On(String),
    /// It does what it should, by readings.
    Tested(String),
    /// The card says what is so.
    Card,
    /// A circuit is off and locked, for work at a point.
    CircuitOff,
    BoxOpen,
    BoxClosed,
}

/// What a reading has to be.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Want {
    /// The meter shows a source that is known to be live.
    Live,
    /// About 0 V.
    Dead,
    /// From hot to neutral or ground, with power on.
    Single,
    /// From hot to hot, with power on, on a service of so many volts between its legs.
    Double(u16),
    /// From neutral to ground, under load.
    NeutralGround,
    /// In pound-inches, by a label.
    Torque,
}

/// About 0 V is less than this. Between it and a live reading nothing is touched. A judgement of our own; common practice says
/// “about 0”.
pub(crate) const ABOUT_0: f64 = 2.0;

/// The lowest that 208 V between legs come down to at an outlet, and the highest: 208 V within 10 and 6 percent, as
/// [`LOW`] is of 120 V. From memory, ANSI C84.1.
const LOW_208: f64 = 187.0;
const HIGH_208: f64 = 220.0;

/// What was read.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Shows {
    /// As it should be.
    Good,
    /// The job stops here.
    Stop(&'static str, JobFound),
}

impl Want {
    pub(crate) fn shows(self, value: f64) -> Shows {
        use JobFound::{NotAsSaid, SecondFeed, Wanders};
        let (low, high) = (Volts::new(120), Volts::new(240));
        let single = |value: f64| value >= LOW && !is_too_much(value, low);
        match self {
            Self::Live if single(value) || (value >= LOW_208 && !is_too_much(value, high)) => Shows::Good,
            Self::Live => Shows::Stop(
                "The meter does not show a live source as one: it proves nothing. Take another meter, or another live source.",
                Wanders,
            ),
            Self::Dead if value < ABOUT_0 => Shows::Good,
            Self::Dead if value >= 90.0 => Shows::Stop("It is live. Touch nothing: something still feeds it.", SecondFeed),
            Self::Dead => Shows::Stop(
                "It is neither dead nor live: a stray voltage, a shared neutral or a second feed. Touch nothing.",
                Wanders,
            ),
            Self::Single if single(value) => Shows::Good,
            Self::Single if value < ABOUT_0 => {
                Shows::Stop("There is no power. Switch off again, and find out why before anything else.", NotAsSaid)
            }
            Self::Single if is_too_much(value, low) => Shows::Stop(
                "That is too much. Switch the main off: a neutral may be lost, or a hot is where a neutral belongs.",
                Wanders,
            ),
            Self::Single => {
                Shows::Stop("That is too little. Switch it off again: a bad joint, a wrong wire or a lost neutral.", Wanders)
            }
            Self::Double(volts) => {
                let least = if volts == 208 { LOW_208 } else { 2.0 * LOW };
                let too_much = if volts == 208 { value > HIGH_208 } else { is_too_much(value, high) };
                match value {
                    value if value >= least && !too_much => Shows::Good,
                    value if value < ABOUT_0 => {
                        Shows::Stop("Both hots are on one leg, or there is no power. Switch it off again.", NotAsSaid)
                    }
                    _ if too_much => Shows::Stop("That is too much. Switch the main off.", Wanders),
                    _ => Shows::Stop("That is too little: one leg may be missing. Switch it off again.", Wanders),
                }
            }
            Self::NeutralGround if value < ABOUT_0 => Shows::Good,
            Self::NeutralGround => Shows::Stop(
                "The neutral is not at ground: a bad joint, or it belongs to another circuit. Switch it off again.",
                Wanders,
            ),
            Self::Torque if (1.0..=500.0).contains(&value) => Shows::Good,
            Self::Torque => Shows::Stop("No label asks for such a torque. Read it once more, in in-lb.", JobFound::Label),
        }
    }

    /// What to expect, beside the keys.
    pub(crate) fn words(self) -> String {
        match self {
            Self::Live => "about 120 or 240".into(),
            Self::Dead => "about 0".into(),
            Self::Single => "about 120".into(),
            Self::Double(volts) => format!("about {volts}"),
            Self::NeutralGround => "under 2".into(),
            Self::Torque => "as its label says".into(),
        }
    }
}

/// A reading that is asked for.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Reading {
    pub(crate) key: String,
    /// `A to neutral`.
    pub(crate) name: String,
    /// Where the probes go.
    pub(crate) how: String,
    pub(crate) unit: &'static str,
    pub(crate) want: Want,
}

/// A choice that is offered.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Choice {
    pub(crate) key: &'static str,
    pub(crate) words: String,
    /// What it ends the job with; `None`: the job goes on.
    pub(crate) ends: Option<JobFound>,
}

#[derive(Debug, Clone, PartialEq)]
pub(crate) enum Ask {
    /// It is done.
    Tick,
    /// One of these.
    Choice(Vec<Choice>),
    /// All of these, in order; or, where it is offered, this choice instead.
    Readings { readings: Vec<Reading>, instead: Option<Choice> },
}

/// A step.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Step {
    /// Its name in the logbook.
    pub(crate) key: String,
    pub(crate) stage: Stage,
    pub(crate) side: JobSide,
    pub(crate) title: String,
    /// How, and what to mind.
    pub(crate) words: String,
    /// What hurts here.
    pub(crate) caution: &'static str,
    pub(crate) ask: Ask,
    pub(crate) effects: Vec<Effect>,
}

impl Step {
    pub(crate) const fn is_stop(&self) -> bool {
        !matches!(self.ask, Ask::Tick)
    }
}

/// Steps as they are put together.
#[derive(Debug, Default)]
pub(crate) struct Steps {
    pub(crate) list: Vec<Step>,
}

impl Steps {
    fn push(&mut self, stage: Stage, key: &str, title: impl Into<String>, ask: Ask) -> &mut Step {
        // One answer never passes two steps.
        let key = key.to_lowercase();
        let alike = self.list.iter().filter(|step| step.key == key || step.key.starts_with(&format!("{key}#"))).count();
        self.list.push(Step {
            key: if alike == 0 { key } else { format!("{key}#{}", alike + 1) },
            stage,
            side: JobSide::Panel,
            title: title.into(),
            words: String::new(),
            caution: "",
            ask,
            effects: Vec::new(),
        });
        let at = self.list.len() - 1;
        &mut self.list[at]
    }

    pub(crate) fn tick(&mut self, stage: Stage, key: &str, title: impl Into<String>) -> &mut Step {
        self.push(stage, key, title, Ask::Tick)
    }

    pub(crate) fn choice(
        &mut self,
        stage: Stage,
        key: &str,
        title: impl Into<String>,
        choices: &[(&'static str, &str, Option<JobFound>)],
    ) -> &mut Step {
        let choices = choices.iter().map(|(key, words, ends)| Choice { key, words: (*words).to_owned(), ends: *ends }).collect();
        self.push(stage, key, title, Ask::Choice(choices))
    }

    pub(crate) fn readings(&mut self, stage: Stage, key: &str, title: impl Into<String>, readings: Vec<Reading>) -> &mut Step {
        self.push(stage, key, title, Ask::Readings { readings, instead: None })
    }
}

impl Step {
    pub(crate) fn words(&mut self, words: impl Into<String>) -> &mut Self {
        self.words = words.into();
        self
    }

    pub(crate) const fn caution(&mut self, caution: &'static str) -> &mut Self {
        self.caution = caution;
        self
    }

    pub(crate) const fn at_the_point(&mut self) -> &mut Self {
        self.side = JobSide::Point;
        self
    }

    pub(crate) fn does(&mut self, effect: Effect) -> &mut Self {
        self.effects.push(effect);
        self
    }

    pub(crate) fn or_else(&mut self, key: &'static str, words: &str) -> &mut Self {
        if let Ask::Readings { instead, .. } = &mut self.ask {
            *instead = Some(Choice { key, words: words.to_owned(), ends: None });
        }
        self
    }
}

pub(crate) fn reading(key: &str, name: &str, how: &str, want: Want) -> Reading {
    Reading { key: key.to_owned(), name: name.to_owned(), how: how.to_owned(), unit: "V", want }
}

/// A torque driver, at a label's word.
pub(crate) fn torque(whose: &str) -> Reading {
    Reading {
        key: "torque".into(),
        name: "torque".into(),
        how: format!("With a torque driver, to what {whose} says."),
        unit: "in-lb",
        want: Want::Torque,
    }
}

/// Dead, by every pair of conductors that is there, between two readings of the live source: eight readings with two hots and a
/// neutral, five with one hot, five with two hots alone.
pub(crate) fn dead(hots: &[&str], neutral: bool, probes: impl Fn(&str, &str) -> String) -> Vec<Reading> {
    let live = |key: &str, name: &str| {
        let how =
            "Volts AC. At a proving unit, or at an outlet that is fed from elsewhere and known to be live; never at the lugs.";
        reading(key, name, how, Want::Live)
    };
    let mut all = vec![live("live", "live source")];
    let mut pair = |one: &str, other: &str| {
        let key = format!("{one}-{other}").to_lowercase().replace(' ', "-");
        all.push(reading(&key, &format!("{one} to {other}"), &probes(one, other), Want::Dead));
    };
    if neutral {
        hots.iter().for_each(|hot| pair(hot, "neutral"));
    }
    for (n, one) in hots.iter().enumerate() {
        hots[n + 1..].iter().for_each(|other| pair(one, other));
    }
    hots.iter().for_each(|hot| pair(hot, "ground"));
    if neutral {
        pair("neutral", "ground");
    }
    all.push(live("live-again", "live source again"));
    all
}
