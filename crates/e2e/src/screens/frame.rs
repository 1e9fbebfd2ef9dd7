use anyhow::{Result, ensure};
use thirtyfour::By;

use super::says;
use crate::Page;

/// What stands around every screen: the bar at the top, notices, dialogs, what waits to be sent.
impl Page {
    says! {
        /// Waits until the screen says these words.
        says: "main";
        /// Waits until its main heading does.
        heading_says: "main h1";
        /// Waits until what is off, in the bar at the top, reads so.
        off_now_says: "[data-testid=off-now]";
        /// Waits until the clock of something that may be without power only so long reads so.
        clock_says: "[data-testid=clock]";
        /// Waits until the alarm does, when that time is up.
        overdue_says: "[data-testid=clock-over]";
        /// Waits until the notice of what was recorded or refused does.
        notice_says: "[data-testid=notice]";
        /// Waits until the dialog does.
        dialog_says: "[role=dialog]";
        /// Waits until the form in front says so under its fields.
        form_says: "[role=dialog] [data-testid=form-error], body:not(:has([role=dialog])) [data-testid=form-error]";
        /// Waits until the field itself does.
        field_says: "[role=dialog] [role=alert]";
        /// Waits until the form says that what was typed earlier is kept.
        kept_says: "[data-testid=kept]";
        /// Waits until what waits to be sent reads so.
        outbox_says: "[data-testid=outbox]";
        /// Waits until it is said that what is shown may be old.
        stale_says: "[data-testid=stale]";
        /// Waits until it is said who is in.
        people_say: "[data-testid=people]";
        /// Waits until the evidence of a point says so.
        evidence_says: "[data-testid=because]";
        /// Waits until what else could explain the evidence says so.
        stories_say: "[data-testid=stories]";
        /// Waits until the way in for helpers says what is wrong.
        way_in_says: "[data-testid=come-in-problem]";
    }

    /// Waits until no dialog is open.
    pub async fn dialog_closed(&self) -> Result<()> {
        self.wait_gone(By::Css("[role=dialog]")).await
    }

    /// Waits until nothing waits to be sent and what is shown is not old.
    pub async fn all_is_sent(&self) -> Result<()> {
        self.wait_gone(By::Css("[data-testid=outbox]")).await?;
        self.wait_gone(By::Css("[data-testid=stale]")).await
    }

    /// Waits until no clock runs and none has run out.
    pub async fn no_clock(&self) -> Result<()> {
        self.wait_gone(By::Css("[data-testid=clock]")).await?;
        self.wait_gone(By::Css("[data-testid=clock-over]")).await
    }

    /// The breakers that the bar at the top says are off.
    pub async fn off_now(&self) -> Result<Vec<String>> {
        let numbers = self.test_id("off-now").await?.attr("data-off").await?.unwrap_or_default();
        Ok(numbers.split_whitespace().map(str::to_owned).collect())
    }

    /// Presses the first button whose words, or spoken name, begin or go on so.
    pub async fn press_with(&self, words: &str) -> Result<()> {
        self.button_with(words).await?.click().await.map_err(Into::into)
    }

    /// The first button whose words begin or go on so, once it is there.
    pub async fn button_with(&self, words: &str) -> Result<thirtyfour::WebElement> {
        self.find(By::XPath(format!("//button[contains(normalize-space(.), '{words}') or contains(@aria-label, '{words}')]")))
            .await
    }

    /// Chooses an item of a menu.
    pub async fn choose_in_menu(&self, menu: &str, item: &str) -> Result<()> {
        self.press(menu).await?;
        let item = format!("//*[@role='menuitem'][contains(normalize-space(.), '{item}')]");
        self.find(By::XPath(item)).await?.click().await?;
        self.wait_gone(By::Css("[role=menu]")).await
    }

    /// Opens the list of the field that shows these words now, and takes another of them.
    pub async fn choose_instead(&self, shown: &str, option: &str) -> Result<()> {
        self.find(By::XPath(format!("//*[@role='combobox'][contains(., '{shown}')]"))).await?.click().await?;
        self.press(option).await
    }

    /// Ticks the box of this label.
    pub async fn tick(&self, label: &str) -> Result<()> {
        Ok(self.find(By::XPath(format!("//label[contains(., '{label}')]"))).await?.click().await?)
    }

    /// Hands a file to the field of this name.
    pub async fn give(&self, field: &str, file: &std::path::Path) -> Result<()> {
        let input = self.find(By::Css(format!("input[type=file][aria-label='{field}']"))).await?;
        Ok(input.send_keys(file.to_string_lossy().as_ref()).await?)
    }

    /// What stands in the field of this label.
    pub async fn value(&self, label: &str) -> Result<String> {
        Ok(self.field(label).await?.prop("value").await?.unwrap_or_default())
    }

    /// Everything that the window says.
    pub async fn words(&self) -> Result<String> {
        Ok(self.find(By::Css("body")).await?.text().await?)
    }

    /// The colors that are chosen.
    pub async fn wait_scheme(&self, scheme: &str) -> Result<()> {
        self.find(By::Css(format!("html[data-scheme={scheme}]"))).await.map(drop)
    }

    /// Fails when axe-core finds something serious on the page as it stands.
    pub async fn can_be_used_by_everybody(&self) -> Result<()> {
        let found = self.accessibility().await?;
        ensure!(found.is_empty(), "{found:?}");
        Ok(())
    }

    /// Waits for the way in, as a phone without a session sees it.
    pub async fn shut_out(&self) -> Result<()> {
        self.find(By::XPath("//h2[contains(., 'Help with a trace')]")).await.map(drop)
    }
}
