use anyhow::Result;
use thirtyfour::By;

use super::says;
use crate::Page;

/// What the checks have found, on their own screen and on a breaker's page.
pub struct Checks<'a>(pub &'a Page);

impl Checks<'_> {
    says! {
        /// Waits until the findings say so.
        say: "[data-testid=findings]";
    }

    /// Waits until this rule has found something.
    pub async fn find(&self, rule: &str) -> Result<()> {
        self.0.find(By::Css(finding(rule))).await.map(drop)
    }

    /// Waits until it has not.
    pub async fn find_nothing(&self, rule: &str) -> Result<()> {
        self.0.wait_gone(By::Css(finding(rule))).await
    }

    /// Waits until its finding says so.
    pub async fn finding_says(&self, rule: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(finding(rule)), words).await
    }

    /// Presses a button of its finding.
    pub async fn press(&self, rule: &str, button: &str) -> Result<()> {
        let button = format!("//*[@data-finding='{rule}']//button[normalize-space(.)='{button}']");
        let button = self.0.find(By::XPath(button)).await?;
        button.scroll_into_view().await?;
        Ok(button.click().await?)
    }
}

fn finding(rule: &str) -> String {
    format!("[data-finding='{rule}']")
}
