use anyhow::{Context, Result, ensure};
use thirtyfour::By;

use super::says;
use crate::Page;

/// The directory: the card for the panel's door.
pub struct Directory<'a>(pub &'a Page);

impl Directory<'_> {
    says! {
        /// Waits until the card says so.
        card_says: "[data-testid=card]";
        /// Waits until the line about its size says so.
        fits: "[data-testid=fits]";
        /// Waits until the part about the card in the door says so.
        hanging_says: "[data-testid=hanging]";
    }

    /// Waits until the line of this number is `proven` or `not_proven`, and says so.
    pub async fn line_says(&self, number: &str, kind: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-number='{number}'][data-kind={kind}]")), words).await
    }

    /// Waits until there is a line of this number.
    pub async fn has_line(&self, number: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-number='{number}']"))).await.map(drop)
    }

    /// Writes own words for the line of this number.
    pub async fn word(&self, number: &str, words: &str) -> Result<()> {
        let line = self.0.find(By::Css(format!("[data-number='{number}'] button"))).await?;
        line.scroll_into_view().await?;
        line.click().await?;
        self.0.fill("What the card says", words).await?;
        self.0.press("Save").await?;
        self.0.dialog_closed().await
    }

    /// Waits until the own words of this circuit are said to be looked at, for this reason.
    pub async fn drift_says(&self, tag: &str, why: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-testid=drifts] [data-tag='{tag}']")), why).await
    }

    /// Waits until the line of this number on the hanging card is said to be wrong, for this reason.
    pub async fn wrong_line_says(&self, number: &str, why: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-testid=wrong-lines] [data-number='{number}']")), why).await
    }

    /// Says that the card of this revision hangs.
    pub async fn hang(&self) -> Result<()> {
        let button = self.0.find(By::XPath("//*[@data-testid='hanging']//button[contains(., 'hangs')]")).await?;
        let name = button.text().await?;
        self.0.press(&name).await
    }

    /// The address of the printed card, from the site's root.
    pub async fn pdf(&self) -> Result<String> {
        let link = self.0.named("button", "Print the card, true size").await?;
        link.attr("href").await?.context("no link")
    }
}

/// The sheets of stickers.
pub struct Stickers<'a>(pub &'a Page);

impl Stickers<'_> {
    says! {
        /// Waits until it says how many there are.
        count_says: "[data-testid=sticker-count]";
    }

    /// Begins at this label of the first sheet.
    pub async fn begin_at(&self, label: usize) -> Result<()> {
        let label = self.0.find(By::Css(format!("[data-cell='{label}']"))).await?;
        label.scroll_into_view().await?;
        label.click().await.map_err(Into::into)
    }
}

/// Tests that come round.
pub struct Tests<'a>(pub &'a Page);

impl Tests<'_> {
    says! {
        /// Waits until it says how many are due.
        due_says: "[data-testid=due]";
    }

    /// Waits until this device says so.
    pub async fn device_says(&self, name: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-testid=tests] [data-name='{name}']")), words).await
    }
}

/// The home book.
pub struct Book<'a>(pub &'a Page);

impl Book<'_> {
    says! {
        /// Waits until it says how far the book is.
        progress_says: "[data-testid=book-progress]";
    }

    /// How many kilobytes the book has that is offered.
    pub async fn offered(&self) -> Result<u32> {
        let link = self.0.named("button", "Save the PDF").await?;
        let (address, name) = (link.attr("href").await?.context("no link")?, link.attr("download").await?.context("no name")?);
        ensure!(address.starts_with("blob:") && name.ends_with(".pdf"), "{address} {name}");
        let said = self.0.test_id("book-progress").await?.text().await?;
        Ok(said.split(" kB").next().and_then(|said| said.rsplit(' ').next()).context("no size")?.parse()?)
    }
}
