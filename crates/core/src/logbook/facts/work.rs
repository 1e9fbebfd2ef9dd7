//! Facts for planned work: circuits that were sized, and the owner's prices.

use std::collections::BTreeMap;

use super::{Kind, facts};
use crate::logbook::{Draft, Home, Names};
use crate::model::{PriceOf, Refusal, SizeAsked, SizeId};

facts! {
    /// What was asked of the size of a circuit is kept, with what an inspector said. A later line of the same id replaces it.
    SizeKept {
        /// Which.
        size: SizeId,
        /// What the circuit is for.
        name: String,
        /// What was asked.
        asked: SizeAsked,
    }
    /// A circuit that was sized is not wanted any more.
    SizeDropped {
        /// Which.
        size: SizeId,
    }
    /// What the owner pays, in place of every price told before. Nothing in it: there is no list.
    PricesSet {
        /// How money is written: `$`, `CA$`.
        currency: String,
        /// The prices.
        prices: BTreeMap<PriceOf, f64>,
    }
}

impl Kind for SizeKept {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.keep_size(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        let said: Vec<String> = self
            .asked
            .said
            .iter()
            .map(|said| format!("; {} as the inspector says: {} ({})", said.of.title(), said.value.trim(), said.why.trim()))
            .collect();
        format!("Circuit sized: {}{}", self.name.trim(), said.concat())
    }
}

impl Kind for SizeDropped {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.drop_size(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Size of a circuit no longer kept: {}", names.size(&self.size))
    }
}

impl Kind for PricesSet {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.set_prices(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        match self.prices.len() {
            0 => "Price list taken away".into(),
            n => format!("Price list of {}", crate::model::so_many(n, "price")),
        }
    }
}
