use anyhow::{Context, Result};
use thirtyfour::By;

use super::says;
use crate::Page;

/// The directory: the card for the panel's door.
pub struct Directory<'a>(pub &'a Page);

impl Directory<'_> {
    says! {
        /// Waits until the card says so.
        card_says: "[data-testid=card]";
    }

    /// Waits until the line of this number is `proven` or `not_proven`, and says so.
    pub async fn line_says(&self, number: &str, kind: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-number='{number}'][data-kind={kind}]")), words).await
    }

    /// Waits until there is a line of this number.
    pub async fn has_line(&self, number: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-number='{number}']"))).await.map(drop)
    }

    /// The address of the printed card, from the site's root.
    pub async fn pdf(&self) -> Result<String> {
        let link = self.0.named("button", "PDF, true size of the card").await?;
        link.attr("href").await?.context("no link")
    }
}
