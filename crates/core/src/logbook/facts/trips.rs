//! Facts about what is wrong now: what is told of it, every look, what was found; whom to call; from where a point is fed.

use super::{Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{FedFrom, PointId, Refusal, Trouble, TroubleAt, TroubleFound, TroubleId, TroubleLook, TroubleSaw};

facts! {
    /// Something is wrong. Told again under the same id it replaces what was told before; the looks stay.
    TroubleTold {
        /// Its id.
        trouble: TroubleId,
        /// What is told.
        told: Trouble,
    }
    /// A look on the way to its cause. A later one at the same thing replaces the earlier.
    TroubleLooked {
        /// Which trouble.
        trouble: TroubleId,
        /// What was looked at or done.
        at: TroubleLook,
        /// What it showed.
        saw: TroubleSaw,
    }
    /// It is over: what it was, or that nobody knows.
    TroubleEnded {
        /// Which trouble.
        trouble: TroubleId,
        /// What it was; left out: it works again, and nobody knows why.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        found: Option<TroubleFound>,
        /// What else is to be said.
        #[serde(default, skip_serializing_if = "is_default")]
        note: String,
    }
    /// What was found is mended.
    TroubleMended {
        /// Which trouble.
        trouble: TroubleId,
    }
    /// Whom to call: the numbers of the utility and of an electrician. An empty one is none.
    NumbersKept {
        /// The utility's.
        #[serde(default, skip_serializing_if = "is_default")]
        utility: String,
        /// The electrician's.
        #[serde(default, skip_serializing_if = "is_default")]
        electrician: String,
    }
    /// From where a point gets its power, as somebody found out who opened the box; left out: nobody knows any more.
    PointFed {
        /// The point.
        point: PointId,
        /// What comes before it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        from: Option<FedFrom>,
    }
}

impl Kind for TroubleTold {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.tell_trouble(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let mut words = match &self.told.at {
            TroubleAt::Point(point) => format!("{}: {}", names.point(point), self.told.symptom.words()),
            TroubleAt::Breaker(breaker) => format!("{} found tripped", names.breaker(breaker)),
            TroubleAt::Home => format!("Somewhere in the house: {}", self.told.symptom.words()),
        };
        for also in &self.told.also {
            words.push_str(&format!("; {}: {}", names.point(&also.point), also.symptom.words()));
        }
        words
    }
}

impl Kind for TroubleLooked {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.look_at_trouble(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let what = match &self.at {
            TroubleLook::Safety => "Signs of danger".into(),
            TroubleLook::Point { point } => names.point(point),
            TroubleLook::Volts { point } => format!("{}, volts", names.point(point)),
            TroubleLook::Outlet { point } => format!("The outlet of {}", names.point(point)),
            TroubleLook::Handles { panel } => format!("Handles of {}", names.panel(panel)),
            TroubleLook::Feel { breaker } => format!("{}, felt", names.breaker(breaker)),
            TroubleLook::Indicator { breaker } => format!("{}, its lamp", names.breaker(breaker)),
            TroubleLook::Gfci { point } => format!("{}, RESET pressed", names.point(point)),
            TroubleLook::Switch { point, .. } => format!("The switch of {}", names.point(point)),
            TroubleLook::Control { point } => format!("What switches {}", names.point(point)),
            TroubleLook::Lamp { point } => format!("{}, a good lamp put in", names.point(point)),
            TroubleLook::Elsewhere { point } => format!("What was plugged in at {}, elsewhere", names.point(point)),
            TroubleLook::Cutout { point } => format!("{}, its own cut-out", names.point(point)),
            TroubleLook::Cord { load } => format!("{}, its cord", names.load(load)),
            TroubleLook::Reset { breaker } => format!("{}, reset once", names.breaker(breaker)),
            TroubleLook::Add { load } => format!("{} back on", names.load(load)),
            TroubleLook::Neighbors => "The neighbors".into(),
        };
        let saw = match &self.saw {
            TroubleSaw::Word(word) => crate::logbook::home::saw_in_words(&self.at, word).into(),
            TroubleSaw::Tripped(breaker) => format!("{} tripped", names.breaker(breaker)),
            TroubleSaw::Off(breaker) => format!("{} off", names.breaker(breaker)),
            TroubleSaw::Volts(volts) => format!("{volts} V"),
            TroubleSaw::Danger(sign) => sign.within(),
            TroubleSaw::CannotTell => "could not be told".into(),
        };
        format!("{what}: {saw}")
    }
}

impl Kind for TroubleEnded {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.end_trouble(self, entry)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let what = match &self.found {
            None => "It works again; why it did not is not known".into(),
            Some(found) => {
                let cause = found.cause.words();
                let at: Vec<String> = found
                    .breaker
                    .iter()
                    .map(|breaker| names.breaker(breaker))
                    .chain(found.points.iter().map(|point| names.point(point)))
                    .collect();
                if at.is_empty() { format!("Found: {cause}") } else { format!("Found: {cause} ({})", at.join("; ")) }
            }
        };
        let note = self.note.trim();
        if note.is_empty() { what } else { format!("{what}; {note}") }
    }
}

impl Kind for TroubleMended {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.mend_trouble(self, entry)
    }
    fn words(&self, _: &Names<'_>) -> String {
        "What was found is mended".into()
    }
}

impl Kind for NumbersKept {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.keep_numbers(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let or_none = |number: &str| if number.trim().is_empty() { "none".into() } else { number.trim().to_owned() };
        format!("To call: utility {}, electrician {}", or_none(&self.utility), or_none(&self.electrician))
    }
}

impl Kind for PointFed {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.feed_point(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let point = names.point(&self.point);
        match &self.from {
            None => format!("{point}: from where it is fed is not known"),
            Some(FedFrom::Panel) => format!("{point}: fed straight from the panel"),
            Some(FedFrom::Point(before)) => format!("{point}: fed from {}", names.point(before)),
        }
    }
}
