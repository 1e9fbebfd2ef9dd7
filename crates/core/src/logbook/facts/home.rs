//! Facts about the home as a whole: its name, its settings, findings that were set aside.

use super::super::home::short;
use super::{Kind, facts, yes};
use crate::logbook::{Aside, Draft, Home, Names};
use crate::model::{Edition, Recipe, Refusal, TraceSetup, Units};

facts! {
    /// The home is called so. A later one replaces an earlier one.
    HomeDescribed {
        /// `Juniper Lane Schoolhouse`.
        name: String,
    }
    /// Findings are worded by this edition of the rules.
    RulesChosen {
        /// The edition.
        edition: Edition,
    }
    /// Lengths are typed and said so.
    UnitsChosen {
        /// How.
        units: Units,
    }
    /// It is traced so from now on, on every screen.
    TraceSet {
        /// How, by whom and with what.
        #[serde(rename = "way")]
        setup: TraceSetup,
    }
    /// This home is a made-up house: its wiring is drawn from the recipe and known to nobody who traces it.
    PracticeHouse {
        /// What it is drawn from.
        recipe: Recipe,
    }
    /// A finding was looked at and is set aside; it comes back by itself when what it says changes.
    FindingSetAside {
        /// Its key.
        finding: String,
        /// What it said.
        message: String,
        /// Why it is set aside.
        #[serde(default)]
        reason: String,
        /// `false`: it counts again.
        #[serde(default = "yes")]
        aside: bool,
    }
}

impl Kind for HomeDescribed {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        short("name", &self.name, 1, 80)?;
        home.name = Some(self.name.trim().to_owned());
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("The home is called {}", self.name)
    }
}

impl Kind for RulesChosen {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.edition = self.edition;
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Findings are worded by {}", self.edition.name())
    }
}

impl Kind for UnitsChosen {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.plan.units = self.units;
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        match self.units {
            Units::Metric => "Lengths are in meters".into(),
            Units::FeetInches => "Lengths are in feet and inches".into(),
        }
    }
}

impl Kind for TraceSet {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        self.setup.admit()?;
        home.setup = self.setup;
        home.setup_is_said = true;
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Traced {}", self.setup.in_words())
    }
}

impl Kind for PracticeHouse {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        self.recipe.admit()?;
        home.practice = Some(self.recipe);
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("A made-up house, drawn from number {}", self.recipe.seed)
    }
}

impl Kind for FindingSetAside {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        short("finding", &self.finding, 1, 200)?;
        short("message", &self.message, 1, 400)?;
        if self.aside {
            short("reason", &self.reason, 3, 200)?;
            let aside = Aside { message: self.message.clone(), reason: self.reason.trim().to_owned(), by: entry.by.clone() };
            home.set_aside.insert(self.finding.clone(), aside);
        } else {
            home.set_aside.remove(&self.finding);
        }
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        if self.aside {
            format!("Set aside: {} Reason: {}", self.message, self.reason)
        } else {
            format!("Counts again: {}", self.message)
        }
    }
}
