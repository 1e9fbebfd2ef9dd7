//! The home that the lines add up to, one part a family of facts. [`Home::apply`] is the only way it changes.

mod bounds;
mod breakers;
mod house;
mod jobs;
mod loads;
mod panels;
mod plan;
mod switching;
mod trace;
mod trips;
mod upkeep;
mod work;

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};
use std::ops::{Deref, DerefMut};
use std::sync::Arc;

pub use house::House;
pub use jobs::{JobStep, Jobs, KnownJob, StoppedJob};
pub use loads::{Loads, SeenHeat};
pub use panels::Panels;
pub use switching::{Switching, Switchings};
pub use trace::{Doubt, Look, Trace};
pub(crate) use trace::{Metered, Trip, Watched};
pub(crate) use trips::saw_in_words;
pub use trips::{KnownTrouble, SeenAtTrouble, Troubles};
pub use upkeep::Upkeep;
pub use work::{KeptSize, Planning, PriceList};

use super::{Draft, Fact};
use crate::model::{BreakerId, Drawn, Edition, Moment, Recipe, Refusal, RefusalCode, TraceSetup};

/// How a finding was set aside.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Aside {
    /// What it said then. When it says anything else now, it counts again.
    pub message: String,
    /// Why.
    pub reason: String,
    /// By whom.
    pub by: String,
}

/// Everything that is known of a home, folded from its logbook. It knows no answer: what follows from it is worked out by
/// the modules that answer.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Home {
    pub(super) name: Option<String>,
    pub(super) edition: Edition,
    pub(super) set_aside: BTreeMap<String, Aside>,
    pub(super) practice: Option<Recipe>,
    pub(super) setup: TraceSetup,
    pub(super) setup_is_said: bool,
    pub(super) panels: Part<Panels>,
    pub(super) house: Part<House>,
    pub(super) plan: Part<Drawn>,
    pub(super) loads: Part<Loads>,
    pub(super) jobs: Part<Jobs>,
    pub(super) planning: Part<Planning>,
    pub(super) upkeep: Part<Upkeep>,
    pub(super) troubles: Part<Troubles>,
    pub(super) switchings: Part<Switchings>,
    pub(super) trace: Part<Trace>,
}

/// A part of a home. A copy of the home shares it until one of the two changes it.
#[derive(Debug, Default, PartialEq)]
pub(super) struct Part<T>(Arc<T>);

impl<T> Clone for Part<T> {
    fn clone(&self) -> Self {
        Self(Arc::clone(&self.0))
    }
}

impl<T> Deref for Part<T> {
    type Target = T;
    fn deref(&self) -> &T {
        &self.0
    }
}

impl<T: Clone> DerefMut for Part<T> {
    fn deref_mut(&mut self) -> &mut T {
        Arc::make_mut(&mut self.0)
    }
}

impl Home {
    /// Its name; `None` before it is described.
    pub fn name(&self) -> Option<&str> {
        self.name.as_deref()
    }
    /// The edition of the rules that findings are worded by.
    pub fn edition(&self) -> Edition {
        self.edition
    }
    /// The finding as it was set aside, by its key.
    pub fn set_aside(&self, finding: &str) -> Option<&Aside> {
        self.set_aside.get(finding)
    }
    /// What this home is drawn from, where it is a made-up one.
    pub fn practice(&self) -> Option<Recipe> {
        self.practice
    }
    /// How it is traced, by whom and with what.
    pub fn setup(&self) -> TraceSetup {
        self.setup
    }
    /// Whether anybody has said how it is traced.
    pub(crate) fn setup_is_said(&self) -> bool {
        self.setup_is_said
    }
    /// Panels and breakers.
    pub fn panels(&self) -> &Panels {
        &self.panels
    }
    /// Rooms and points.
    pub fn house(&self) -> &House {
        &self.house
    }
    /// Loads, and what was read of them.
    pub fn loads(&self) -> &Loads {
        &self.loads
    }
    /// What is drawn of it: outlines, openings, where points are.
    pub fn plan(&self) -> &Drawn {
        &self.plan
    }
    /// Jobs: what was set out to be done, answered and ended.
    pub fn jobs(&self) -> &Jobs {
        &self.jobs
    }
    /// Circuits that were sized, and the owner's prices.
    pub fn planning(&self) -> &Planning {
        &self.planning
    }
    /// Tests by the button, and the lasting address.
    pub fn upkeep(&self) -> &Upkeep {
        &self.upkeep
    }
    /// What is wrong now and was wrong before, and whom to call.
    pub fn troubles(&self) -> &Troubles {
        &self.troubles
    }
    /// Handles moved, and what is off now.
    pub fn switchings(&self) -> &Switchings {
        &self.switchings
    }
    /// What tracing left: looks, readings, tones.
    pub fn trace(&self) -> &Trace {
        &self.trace
    }

    /// The looks with everything that was without power as off: what is behind a feeder that was off, too.
    /// By the panels as they are known now.
    pub(crate) fn looks_by_power(&self) -> Cow<'_, [Look]> {
        let looks = self.trace.looks();
        if self.panels.none_leads_on() {
            return Cow::Borrowed(looks);
        }
        type Off = Arc<BTreeSet<BreakerId>>;
        let mut last: Option<(Off, Off)> = None;
        let closed = looks.iter().map(|look| {
            let dead = match &last {
                Some((raw, dead)) if Arc::ptr_eq(raw, &look.off) => Arc::clone(dead),
                _ => Arc::new(self.panels.dead_behind(&look.off)),
            };
            last = Some((Arc::clone(&look.off), Arc::clone(&dead)));
            Look { off: dead, ..look.clone() }
        });
        Cow::Owned(closed.collect())
    }

    /// Takes one entry, or refuses it and changes nothing.
    ///
    /// Striking out and restoring are the logbook's affair ([`super::Logbook`]): here they change nothing.
    pub fn apply(&mut self, entry: &Draft) -> Result<(), Refusal> {
        self.admit(entry).map_err(|mut refusal| {
            refusal.entry = Some(entry.id.clone());
            refusal
        })
    }

    /// Takes a fact that nobody has recorded: for a home that only shows what would come of it.
    pub(crate) fn suppose(&mut self, fact: &Fact) -> Result<(), Refusal> {
        self.suppose_at(fact, Moment::from_unix_ms(0))
    }

    /// The same at a time, where looks are among it: they count in the order of their times.
    pub(crate) fn suppose_at(&mut self, fact: &Fact, at: Moment) -> Result<(), Refusal> {
        let id = "supposed".parse().unwrap_or_else(|_| unreachable!("it is an id"));
        self.admit(&Draft { id, at, by: "nobody".into(), instrument: None, version: Fact::VERSION, fact: fact.clone() })
    }

    fn admit(&mut self, entry: &Draft) -> Result<(), Refusal> {
        if entry.version > Fact::VERSION {
            return Err(Refusal::new(
                RefusalCode::NewerVersion,
                "version",
                format!("This entry has version {}; this program knows versions up to {}.", entry.version, Fact::VERSION),
                "Use a newer Wayfinder.",
            ));
        }
        short("by", &entry.by, 1, 60)?;
        if self.name.is_none() && !matches!(entry.fact, Fact::HomeDescribed(_)) {
            return Err(Refusal::new(
                RefusalCode::Unknown,
                "home",
                "There is no such home.",
                "A logbook begins with the line that names the home.",
            ));
        }
        entry.fact.fold(self, entry)
    }
}

fn unknown(field: &str, wrong: &str, accepted: &str) -> Refusal {
    Refusal::new(RefusalCode::Unknown, field, wrong, accepted)
}

fn refuse<T>(code: RefusalCode, field: &str, wrong: impl Into<String>, accepted: &str) -> Result<T, Refusal> {
    Err(Refusal::new(code, field, wrong, accepted))
}

/// A text of `least` to `most` characters on one line.
pub(super) fn short(field: &str, text: &str, least: usize, most: usize) -> Result<(), Refusal> {
    let count = text.trim().chars().count();
    let bad = |wrong: String| {
        Err(Refusal::new(RefusalCode::BadText, field, wrong, format!("Write {least} to {most} characters on one line.")))
    };
    if count < least {
        return bad(format!("The {field} is missing."));
    }
    if count > most {
        return bad(format!("The {field} has {count} characters, which is too long."));
    }
    if text.chars().any(char::is_control) {
        return bad(format!("The {field} has a line break or a character that cannot be shown."));
    }
    Ok(())
}
