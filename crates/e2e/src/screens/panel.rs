use anyhow::Result;
use thirtyfour::By;

use crate::Page;

/// The panel as a fingerpost.
pub struct Panel<'a>(pub &'a Page);

impl Panel<'_> {
    /// Describes a panel of so many spaces, the rest as proposed.
    pub async fn describe(&self, spaces: u8) -> Result<()> {
        self.0.press("Describe the panel").await?;
        self.0.fill("Spaces", &spaces.to_string()).await?;
        self.0.fill("Where it hangs", "back hall").await?;
        self.0.press("Save").await?;
        self.0.wait_gone(By::Css("[role=dialog]")).await?;
        self.0.test_id("fingerpost").await?;
        Ok(())
    }

    /// Types the card and keeps what is understood.
    pub async fn type_card(&self, text: &str, keep: &str) -> Result<()> {
        self.0.press("Type the card").await?;
        self.0.fill("The card", text).await?;
        self.0.press(keep).await
    }

    /// Selects a blade or an open space by the beginning of its spoken name.
    pub async fn select(&self, spoken: &str) -> Result<()> {
        let blade = self.0.find(By::Css(format!("[data-testid=fingerpost] [aria-label^='{spoken},']"))).await?;
        blade.scroll_into_view().await?;
        Ok(blade.click().await?)
    }

    /// The spoken name of every blade and open space.
    pub async fn spoken(&self) -> Result<Vec<String>> {
        let mut all = Vec::new();
        for blade in self.0.driver.find_all(By::Css("[data-testid=fingerpost] [data-place]")).await? {
            all.push(blade.attr("aria-label").await?.unwrap_or_default());
        }
        Ok(all)
    }
}
