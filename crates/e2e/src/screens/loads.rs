use anyhow::Result;
use thirtyfour::By;

use super::says;
use crate::Page;

/// Loads: circuits ranked, one circuit, what is where.
pub struct Loads<'a>(pub &'a Page);

impl Loads<'_> {
    says! {
        /// Waits until the page's title says so.
        title_says: "h1";
        /// Waits until the sentence over one circuit says so.
        circuit_says: "[data-testid=sentence]";
        /// Waits until what is said of the legs says so.
        legs_say: "[data-testid=legs]";
        /// Waits until what is ticked as running is said so.
        ticked_says: "[data-testid=ticked]";
        /// Waits until the list of what may not run together says so.
        not_together_says: "[aria-label='What may not run together']";
        /// Waits until where a load could go says so.
        could_go_says: "[aria-label='Where it could go']";
        /// Waits until the form in front says so.
        dialog_says: "[role=dialog]";
        /// Waits until the title of the service calculation says so.
        service_says: "[data-testid=service-title]";
        /// Waits until the sheet of the service calculation says so.
        sheet_says: "[data-testid=sheet]";
        /// Waits until how the survey stands is said so.
        survey_says: "[data-testid=survey-title]";
        /// Waits until the next reading of the survey says so.
        survey_asks: "[data-testid=survey-step]";
        /// Waits until the answer of the survey says so.
        survey_answers: "[data-testid=survey-answer]";
        /// Waits until what volts at the breaker say is said so.
        diagnosis_says: "[data-testid=diagnosis]";
        /// Waits until what a thermal picture shows is said so.
        heat_says: "[data-testid=heat]";
        /// Waits until what volts at outlets say of the supply is said so.
        supply_says: "[data-testid=supply]";
        /// Waits until what one of two does for the next reading is said so.
        side_says: "[data-testid=survey-side]";
        /// Waits until the title of the page of usage data says so.
        usage_says: "[data-testid=usage-title]";
        /// Waits until the file of usage that is not recorded yet says so.
        preview_says: "[data-testid=usage-preview]";
        /// Waits until what is wrong with a file of usage says so.
        usage_error_says: "[data-testid=usage-error]";
        /// Waits until the points of the room say so.
        room_says: "[aria-label='Points of the room']";
    }

    /// Waits until the circuit of this number stands so: `over`, `near`, `room`, `too_close`, `nothing`.
    pub async fn stands(&self, number: &str, how: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-number='{number}'][data-stands={how}]"))).await.map(drop)
    }

    /// Opens the circuit of this number.
    pub async fn open(&self, number: &str) -> Result<()> {
        let row = self.0.find(By::Css(format!("[data-testid=circuits] [data-number='{number}'] a"))).await?;
        row.scroll_into_view().await?;
        Ok(row.click().await?)
    }

    /// The numbers of the circuits, in their order.
    pub async fn order(&self) -> Result<Vec<String>> {
        let rows = self.0.driver.find_all(By::Css("[data-testid=circuits] > li")).await?;
        let mut numbers = Vec::new();
        for row in rows {
            numbers.push(row.attr("data-number").await?.unwrap_or_default());
        }
        Ok(numbers)
    }

    /// At this point, types a few letters and takes the appliance of the list.
    pub async fn add(&self, point: &str, letters: &str, appliance: &str) -> Result<()> {
        self.0.press(&format!("Add something at {point}")).await?;
        let field = self.0.field(&format!("At {point}: a few letters")).await?;
        field.send_keys(letters).await?;
        let option = format!("//li[@role='option'][.//*[normalize-space()='{appliance}'] or contains(., '{appliance}')]");
        self.0.find(By::XPath(option)).await?.click().await?;
        self.room_says(appliance.trim_matches(['“', '”'])).await
    }

    /// Ticks or unticks a load as running.
    pub async fn tick(&self, load: &str) -> Result<()> {
        let tick = self.0.find(By::Css(format!("input[aria-label='{load} runs']"))).await?;
        tick.scroll_into_view().await?;
        Ok(tick.click().await?)
    }
}
