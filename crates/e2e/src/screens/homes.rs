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
        /// Waits until the damaged homes are listed so.
        damaged_says: "[data-testid=damaged]";
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

    /// Waits until the homes stand in this order, by their ids.
    pub async fn order_is(&self, ids: &[&str]) -> Result<()> {
        let page = self.0;
        page.wait_until(&format!("the order {ids:?}"), async || {
            let mut there = Vec::new();
            for row in page.driver.find_all(By::Css("li[data-home]")).await? {
                there.push(row.attr("data-home").await?.unwrap_or_default());
            }
            Ok(there == ids)
        })
        .await
    }

    /// Waits until the line of the home says so.
    pub async fn says(&self, home: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("li[data-home='{home}']")), words).await
    }

    /// Waits until the home stands there no more.
    pub async fn has_no(&self, home: &str) -> Result<()> {
        self.0.wait_gone(By::Css(format!("li[data-home='{home}']"))).await
    }

    /// Waits until no home is listed as damaged.
    pub async fn has_no_damaged(&self) -> Result<()> {
        self.0.wait_gone(By::Css("[data-testid=damaged]")).await
    }

    /// Hands over a home file.
    pub async fn give(&self, path: &std::path::Path) -> Result<()> {
        let field = self.0.find(By::Css("input[type=file]")).await?;
        Ok(field.send_keys(path.display().to_string()).await?)
    }
}
