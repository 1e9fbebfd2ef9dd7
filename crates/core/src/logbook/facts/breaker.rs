//! Facts about breakers: where they sit, what they are, what the old card says of them.

use super::super::home::short;
use super::{Kind, facts, is_default, yes};
use crate::logbook::{Draft, Home, Names};
use crate::model::{
    Amps, Breaker, BreakerDetails, BreakerId, Kept, OwnWords, PanelId, PointId, Protection, Refusal, RefusalCode, Slot, State,
    TestedDevice, Tie, Wire, number_of, state_word,
};

/// More points than this are not taken for one circuit.
const MOST_PROVEN: usize = 1000;

facts! {
    /// A breaker sits here. A later one for the same breaker replaces the earlier (moved, corrected).
    BreakerPlaced {
        /// The breaker.
        breaker: BreakerId,
        /// The panel.
        panel: PanelId,
        /// Its poles from the top.
        at: Vec<Slot>,
        /// Its rating, 1 to 400 A.
        amps: Amps,
        /// Its kind.
        #[serde(default)]
        protection: Protection,
        /// The wire on it, if it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        wire: Option<Wire>,
        /// What else is known of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: BreakerDetails,
    }
    /// The breaker sits elsewhere in its panel; all else stays.
    BreakerMoved {
        /// The breaker.
        breaker: BreakerId,
        /// Its poles from the top.
        at: Vec<Slot>,
    }
    /// Two one-pole breakers are one from now on: tied, or replaced by one of two poles.
    BreakersJoined {
        /// The one that stays and takes both places.
        breaker: BreakerId,
        /// The one that is no longer on its own.
        with: BreakerId,
        /// How they open together.
        #[serde(default)]
        tie: Tie,
    }
    /// These circuits share one neutral; a single breaker of several poles: its poles do.
    NeutralShared {
        /// One to three.
        breakers: Vec<BreakerId>,
        /// `false`: no longer.
        #[serde(default = "yes")]
        shared: bool,
    }
    /// The breaker is no longer in the panel.
    BreakerRemoved {
        /// The breaker.
        breaker: BreakerId,
    }
    /// The breaker must stay on, or is left off; without `kept`, neither any more.
    BreakerKept {
        /// The breaker.
        breaker: BreakerId,
        /// How.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        kept: Option<Kept>,
        /// Why.
        #[serde(default)]
        reason: String,
    }
    /// The old card says this of the breaker. Empty: it says nothing.
    LabelClaimed {
        /// The breaker.
        breaker: BreakerId,
        /// As it reads.
        text: String,
    }
    /// The new card says these words of the circuit in place of those worked out. Empty: those worked out.
    CircuitWorded {
        /// The breaker.
        breaker: BreakerId,
        /// The words, up to 120 characters.
        text: String,
        /// The points that were proven on it when they were written. Once others are, the words are to be looked at.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        proven: Vec<PointId>,
        /// The panels that it fed then.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        feeds: Vec<PanelId>,
    }
}

/// The fact that describes the breaker as it is known.
impl From<&Breaker> for BreakerPlaced {
    fn from(breaker: &Breaker) -> Self {
        Self {
            breaker: breaker.id.clone(),
            panel: breaker.panel.clone(),
            at: breaker.at.clone(),
            amps: breaker.amps,
            protection: breaker.protection,
            wire: breaker.wire,
            details: breaker.details.clone(),
        }
    }
}

impl Kind for BreakerPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        let device = TestedDevice::Breaker(self.breaker.clone());
        let before = home.panels.breaker(&self.breaker).map(|breaker| breaker.protection);
        home.panels.place_breaker(self)?;
        // What was tested is another device now.
        if before != Some(self.protection) && home.upkeep.last_test(&device).is_some() {
            home.upkeep.tests.remove(&device);
        }
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Breaker {}{}: {}", names.tag(&self.panel), number_of(&self.at), self.amps)
    }
}

impl Kind for BreakerMoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.move_breaker(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{} moved to {}", names.breaker_before(&self.breaker), number_of(&self.at))
    }
}

impl Kind for BreakersJoined {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.join_breakers(self)?;
        home.trace.breakers_joined(&self.breaker, &self.with);
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!(
            "{} and {} are one: {}",
            names.breaker_before(&self.breaker),
            names.breaker_before(&self.with).to_lowercase(),
            if self.tie == Tie::Handle { "handles tied" } else { "one mechanism" }
        )
    }
}

impl Kind for NeutralShared {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.share_neutral(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let numbers: Vec<_> = self.breakers.iter().map(|id| names.number(id)).collect();
        let said = numbers.join(" and ");
        match (self.shared, numbers.len()) {
            (true, 1) => format!("The poles of breaker {said} share a neutral"),
            (true, _) => format!("Breakers {said} share a neutral"),
            (false, _) => format!("Breaker {said}: no shared neutral"),
        }
    }
}

impl Kind for BreakerRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.remove_breaker(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{} taken out", names.breaker(&self.breaker))
    }
}

impl Kind for BreakerKept {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        short("reason", &self.reason, 0, 120)?;
        let breaker = home.panels.breaker_mut(&self.breaker)?;
        if self.kept == Some(Kept::On) && breaker.state != State::On {
            return Err(Refusal::new(
                RefusalCode::StillNeeded,
                "breaker",
                format!("Breaker {} is {} now, so it cannot be said to stay on.", breaker.number(), state_word(breaker.state)),
                "Switch it on first.",
            ));
        }
        breaker.kept = self.kept.map(|kept| (kept, self.reason.trim().to_owned()));
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        let reason = if self.reason.is_empty() { String::new() } else { format!(": {}", self.reason) };
        let breaker = names.breaker(&self.breaker);
        match self.kept {
            Some(Kept::On) => format!("{breaker} must stay on{reason}"),
            Some(Kept::Off) => format!("{breaker} is left off{reason}"),
            None => format!("{breaker} may be switched again"),
        }
    }
}

impl Kind for CircuitWorded {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        short("text", &self.text, 0, 120)?;
        if self.proven.len() > MOST_PROVEN || self.feeds.len() > MOST_PROVEN {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "proven",
                format!("{} points are too many for one circuit.", self.proven.len().max(self.feeds.len())),
                format!("Up to {MOST_PROVEN} are taken."),
            ));
        }
        let text = self.text.trim();
        let own = OwnWords { text: text.to_owned(), proven: self.proven.clone(), feeds: self.feeds.clone() };
        // The points need not be there: a point that is taken out is one more reason to look at the words.
        home.panels.breaker_mut(&self.breaker)?.own = (!text.is_empty()).then_some(own);
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        match self.text.trim() {
            "" => format!("{}: the card says what is worked out", names.breaker(&self.breaker)),
            text => format!("{}: the card says “{text}”, in own words", names.breaker(&self.breaker)),
        }
    }
}

impl Kind for LabelClaimed {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        short("text", &self.text, 0, 120)?;
        let text = self.text.trim();
        home.panels.breaker_mut(&self.breaker)?.claim = (!text.is_empty()).then(|| text.to_owned());
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        match self.text.as_str() {
            "" => format!("{}: the old card says nothing", names.breaker(&self.breaker)),
            text => format!("{}: the old card says “{text}”", names.breaker(&self.breaker)),
        }
    }
}
