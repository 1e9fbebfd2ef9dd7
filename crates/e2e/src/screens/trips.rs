use anyhow::Result;
use thirtyfour::{By, Key};

use super::says;
use crate::Page;

/// What is wrong now: said in three taps, looked for look by look.
pub struct Trips<'a>(pub &'a Page);

impl Trips<'_> {
    /// Chooses where by a few letters: the first that fits.
    pub async fn choose(&self, letters: &str) -> Result<()> {
        let field = self.0.find(By::Css("form[aria-label='What is wrong'] input[role=combobox]")).await?;
        field.send_keys(letters).await?;
        self.0.find(By::Css("[role=listbox] [role=option]")).await?;
        field.send_keys(Key::Enter + "").await?;
        Ok(())
    }

    /// Names the first loads of the list as those that ran.
    pub async fn ran(&self, count: usize) -> Result<()> {
        let field = || By::XPath("//label[contains(., 'What ran')]/following::input[@role='combobox'][1]");
        for n in 1..=count {
            self.0.find(field()).await?.send_keys(Key::Down + "").await?;
            self.0.find(By::Css("[role=listbox] [role=option]")).await?;
            self.0.find(field()).await?.send_keys(Key::Enter + "").await?;
            self.0.find(By::Css(format!(".MuiChip-root:nth-of-type({n})"))).await?;
        }
        self.0.find(field()).await?.send_keys(Key::Tab + "").await?;
        Ok(())
    }

    /// The next look, once so many were made; empty where the cause is named.
    pub async fn after(&self, looks: usize) -> Result<String> {
        self.0.find(By::Css(format!("[data-testid=seen] li:nth-child({looks})"))).await?;
        let next = self.0.find(By::Css("[data-testid=instruction], [data-testid=named]")).await?;
        let named = next.attr("data-testid").await?.as_deref() == Some("named");
        Ok(if named { String::new() } else { next.text().await? })
    }

    says! {
        /// The next look.
        next_is: "[data-testid=instruction]";
        /// What it is.
        named: "[data-testid=named]";
        /// What covers everything.
        stop_says: "[data-testid=stop]";
        /// What was seen.
        seen: "[data-testid=seen]";
        /// How each chance came about.
        why_says: "[data-testid=why]";
        /// That it is over.
        over: "[data-testid=over]";
    }

    /// Waits until this kind of place on the road is likelier than that many percent.
    pub async fn road_has(&self, kind: &str, percent: u8) -> Result<()> {
        let stop = self.0.find(By::Css(format!("[data-testid=road] [data-kind={kind}]"))).await?;
        let now: u8 = stop.attr("data-percent").await?.unwrap_or_default().parse()?;
        anyhow::ensure!(now >= percent, "{kind} has {now} %");
        Ok(())
    }
}
