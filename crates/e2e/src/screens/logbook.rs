use anyhow::Result;
use thirtyfour::By;

use crate::Page;

/// The logbook.
pub struct LogbookScreen<'a>(pub &'a Page);

impl LogbookScreen<'_> {
    /// The sequence of the newest line that holds these words.
    pub async fn line(&self, words: &str) -> Result<u64> {
        let xpath = format!("//*[@data-testid='logbook']/li[contains(normalize-space(.), '{words}')]");
        let line = self.0.find(By::XPath(xpath)).await?;
        Ok(line.attr("data-seq").await?.unwrap_or_default().parse()?)
    }

    /// Waits until the line is struck out, or not.
    pub async fn wait_struck(&self, seq: u64, struck: bool) -> Result<()> {
        self.0.find(By::Css(format!("li[data-seq='{seq}'][data-struck={struck}]"))).await.map(drop)
    }
}
