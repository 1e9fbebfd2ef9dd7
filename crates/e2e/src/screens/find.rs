use anyhow::Result;
use thirtyfour::By;

use super::says;
use crate::Page;

/// Find a room, a point, a number.
pub struct Find<'a>(pub &'a Page);

impl Find<'_> {
    says! {
        /// Waits until what was found says so.
        found_says: "[data-testid=found]";
        /// Waits until the first that was found does.
        first_says: "[data-testid=found] li:first-child";
    }

    /// Types a few letters.
    pub async fn letters(&self, letters: &str) -> Result<()> {
        self.0.fill("A few letters or a number", letters).await
    }

    /// Waits until something is found.
    pub async fn something(&self) -> Result<()> {
        self.0.find(By::Css("[data-testid=found] li")).await.map(drop)
    }
}
