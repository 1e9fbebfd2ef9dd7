//! Circuits that were sized, and the owner's prices, as the logbook has them.

use std::collections::BTreeMap;

use indexmap::IndexMap;

use super::{Home, refuse, short, unknown};
use crate::logbook::{PricesSet, SizeDropped, SizeKept};
use crate::model::{PriceOf, Refusal, RefusalCode, SizeAsked, SizeId};

/// A circuit that was sized.
#[derive(Debug, Clone, PartialEq)]
pub struct KeptSize {
    /// What it is for.
    pub name: String,
    /// What was asked.
    pub asked: SizeAsked,
}

/// What the owner pays.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct PriceList {
    /// How money is written.
    pub currency: String,
    /// The prices; empty where there is no list.
    pub prices: BTreeMap<PriceOf, f64>,
}

/// What is kept for planned work: sizes and prices.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Planning {
    sizes: IndexMap<SizeId, KeptSize>,
    prices: PriceList,
}

impl Planning {
    /// Circuits that were sized, in the order of entry.
    pub fn sizes(&self) -> impl Iterator<Item = (&SizeId, &KeptSize)> {
        self.sizes.iter()
    }
    /// One of them.
    pub fn size(&self, id: &SizeId) -> Option<&KeptSize> {
        self.sizes.get(id)
    }
    /// What the owner pays.
    pub fn prices(&self) -> &PriceList {
        &self.prices
    }
}

/// As many circuits as are kept at one time.
const MOST_SIZES: usize = 200;

impl Home {
    pub(in crate::logbook) fn keep_size(&mut self, f: &SizeKept) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        f.asked.in_bounds()?;
        for said in &f.asked.said {
            short("value", &said.value, 1, 60)?;
            short("why", &said.why, 1, 200)?;
        }
        if self.planning.sizes.len() >= MOST_SIZES && !self.planning.sizes.contains_key(&f.size) {
            return refuse(RefusalCode::OutOfRange, "size", "200 circuits are kept already.", "Drop one that is done.");
        }
        let kept = KeptSize { name: f.name.trim().to_owned(), asked: f.asked.clone() };
        self.planning.sizes.insert(f.size.clone(), kept);
        Ok(())
    }

    pub(in crate::logbook) fn drop_size(&mut self, f: &SizeDropped) -> Result<(), Refusal> {
        match self.planning.sizes.shift_remove(&f.size) {
            Some(_) => Ok(()),
            None => Err(unknown("size", "No circuit of that id is kept.", "Name one that is.")),
        }
    }

    pub(in crate::logbook) fn set_prices(&mut self, f: &PricesSet) -> Result<(), Refusal> {
        short("currency", &f.currency, 0, 6)?;
        if let Some((of, price)) = f.prices.iter().find(|(_, price)| !(0.0..=100_000.0).contains(*price)) {
            return refuse(
                RefusalCode::OutOfRange,
                "prices",
                format!("{price} is no price of a {}.", of.words()),
                "Give 0 to 100 000.",
            );
        }
        self.planning.prices = PriceList { currency: f.currency.trim().to_owned(), prices: f.prices.clone() };
        Ok(())
    }
}
