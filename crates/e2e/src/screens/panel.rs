use anyhow::Result;
use thirtyfour::By;

use super::says;
use crate::Page;

/// The panel as a fingerpost.
pub struct Panel<'a>(pub &'a Page);

impl Panel<'_> {
    says! {
        /// Waits until what is known of the selected breaker says so.
        facts_say: "[data-testid=breaker-facts]";
        /// Waits until its heading does.
        title_says: "[data-testid=breaker-title]";
        /// Waits until where a breaker may be moved to reads so.
        move_says: "[data-testid=move-status]";
        /// Waits until the card, as it is understood so far, says so.
        preview_says: "[data-testid=card-preview]";
        /// Waits until the dialog of the card does.
        card_says: "[aria-labelledby=card-title]";
        /// Waits until the columns of a sheet read so.
        columns_say: "[data-testid=sheet-columns]";
    }

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

    /// Waits until a blade's or an open space's spoken name begins so.
    pub async fn shows(&self, spoken: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=fingerpost] [aria-label^='{spoken}']"))).await.map(drop)
    }

    /// Carries a breaker to a space with the mouse.
    pub async fn carry(&self, breaker: &str, space: &str) -> Result<()> {
        let place = async |spoken: &str| self.0.find(By::Css(format!("[aria-label^='{spoken},']"))).await;
        let (from, to) = (place(breaker).await?, place(space).await?);
        from.scroll_into_view().await?;
        self.0.driver.action_chain().click_and_hold_element(&from).move_by_offset(0, 12).perform().await?;
        self.0.test_id("move-status").await?;
        self.0.driver.action_chain().move_to_element_center(&to).release().perform().await?;
        Ok(())
    }

    /// Whether the place that the breaker would be moved to now reads so.
    pub async fn would_move_to(&self, words: &str) -> Result<bool> {
        Ok(self.0.test_id("move-status").await?.text().await?.starts_with(words))
    }

    /// Waits until nothing is being moved.
    pub async fn moved(&self) -> Result<()> {
        self.0.wait_gone(By::Css("[data-testid=move-status]")).await
    }

    /// Waits until so many lines of the card are understood or not.
    pub async fn wait_preview(&self, lines: usize) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=card-preview] li:nth-of-type({lines})"))).await.map(drop)
    }

    /// Waits until the drawing of the card has a breaker there.
    pub async fn preview_shows(&self, number: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=post-preview] [data-preview='{number}']"))).await.map(drop)
    }

    /// Pastes cells as a spreadsheet copies them.
    pub async fn paste(&self, cells: &str) -> Result<()> {
        let script = "const cells = new DataTransfer();
            cells.setData('text/plain', arguments[0]);
            document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: cells, bubbles: true, cancelable: true }));";
        self.0.driver.execute(script, vec![cells.into()]).await?;
        Ok(())
    }

    /// Waits for the photo of the label.
    pub async fn wait_photo(&self) -> Result<()> {
        self.0.find(By::Css("img[alt^='The label']")).await.map(drop)
    }

    /// Waits until a blade carries the mark of a danger.
    pub async fn wait_danger(&self) -> Result<()> {
        self.0.find(By::Css("[data-worry=danger]")).await.map(drop)
    }
}
