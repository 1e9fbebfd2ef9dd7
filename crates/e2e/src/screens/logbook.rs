use anyhow::Result;
use thirtyfour::{By, WebElement};

use super::says;
use crate::Page;

/// The logbook.
pub struct LogbookScreen<'a>(pub &'a Page);

impl LogbookScreen<'_> {
    says! {
        /// Waits until its lines say so.
        says: "[data-testid=logbook]";
        /// Waits until what changed says so.
        changes_say: "[data-testid=changes]";
        /// Waits until the dialog about lines that depend on another does.
        dependents_say: "[aria-labelledby=depend-title]";
    }

    /// How many lines of the page hold these words.
    pub async fn count(&self, words: &str) -> Result<usize> {
        self.0.find(By::Css("[data-testid=logbook] li")).await?;
        let lines = By::XPath(format!("//*[@data-testid='logbook']/li[contains(normalize-space(.), '{words}')]"));
        Ok(self.0.driver.find_all(lines).await?.len())
    }

    /// The words of the lines that are struck out, once there is one.
    pub async fn struck(&self) -> Result<Vec<String>> {
        self.0.find(By::Css("li[data-struck=true]")).await?;
        let mut words = Vec::new();
        for line in self.0.driver.find_all(By::Css("li[data-struck=true]")).await? {
            words.push(line.text().await?);
        }
        Ok(words)
    }

    /// The sequence of the newest line that holds these words; turns pages until it is there.
    pub async fn line(&self, words: &str) -> Result<u64> {
        let line = self.reach(&format!("contains(normalize-space(.), '{words}')")).await?;
        Ok(line.attr("data-seq").await?.unwrap_or_default().parse()?)
    }

    /// Turns pages until the line is there.
    pub async fn show(&self, seq: u64) -> Result<()> {
        self.reach(&format!("@data-seq='{seq}'")).await.map(drop)
    }

    async fn reach(&self, which: &str) -> Result<WebElement> {
        let page = self.0;
        loop {
            // Until the page that was turned to is there.
            page.find(By::Css("[data-testid=logbook] li")).await?;
            let line = By::XPath(format!("//*[@data-testid='logbook']/li[{which}]"));
            if let Ok(line) = page.driver.find(line).await {
                return Ok(line);
            }
            let first = page.find(By::Css("[data-testid=logbook] li")).await?.attr("data-seq").await?.unwrap_or_default();
            page.press("Older lines").await?;
            page.wait_gone(By::Css(format!("[data-testid=logbook] li:first-child[data-seq='{first}']"))).await?;
        }
    }

    /// Waits until the line is struck out, or not.
    pub async fn wait_struck(&self, seq: u64, struck: bool) -> Result<()> {
        self.0.find(By::Css(format!("li[data-seq='{seq}'][data-struck={struck}]"))).await.map(drop)
    }
}
