use anyhow::Result;
use thirtyfour::By;

use crate::Page;

/// The front page of a home.
pub struct Overview<'a>(pub &'a Page);

impl Overview<'_> {
    /// Waits until the line about this says so: `dark_now`, `danger`, `card`.
    pub async fn line_says(&self, about: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-testid=letter] [data-about={about}]")), words).await
    }

    /// Waits until there is no line about this.
    pub async fn says_nothing_of(&self, about: &str) -> Result<()> {
        self.0.find(By::Css("[data-testid=letter] li")).await?;
        self.0.wait_gone(By::Css(format!("[data-testid=letter] [data-about={about}]"))).await
    }
}
