use anyhow::Result;
use thirtyfour::By;

use super::says;
use crate::Page;

/// The list of homes.
pub struct Homes<'a>(pub &'a Page);

impl Homes<'_> {
    says! {
        /// Waits until the screen says what is wrong with the file.
        problem_says: "[data-testid=import-problem]";
    }

    /// Starts a home's logbook; gives its address.
    pub async fn start(&self, site: &str, name: &str) -> Result<String> {
        self.0.goto(site).await?;
        self.0.fill("Name of the home", name).await?;
        self.0.press("Start its logbook").await?;
        self.0.named("button", "Describe the panel").await?;
        let url = self.0.driver.current_url().await?;
        Ok(url.as_str().trim_end_matches("/panel").to_owned())
    }

    /// Hands over a home file.
    pub async fn give(&self, path: &std::path::Path) -> Result<()> {
        let field = self.0.find(By::Css("input[type=file]")).await?;
        Ok(field.send_keys(path.display().to_string()).await?)
    }
}
