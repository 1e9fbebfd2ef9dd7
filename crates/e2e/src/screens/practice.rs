use anyhow::{Result, bail};
use thirtyfour::By;

use super::says;
use crate::Page;

/// A made-up house: its instruments, and the marks.
pub struct Practice<'a>(pub &'a Page);

impl Practice<'_> {
    says! {
        /// Waits until the marks say so.
        marks_say: "[data-testid=marks]";
        /// Waits until the lessons say so.
        lessons_say: "[data-testid=lessons]";
        /// Waits until the screen shows that at a look for a fault.
        shows: "[data-testid=display]";
        /// Waits until that is asked about the panel.
        asks: "[data-testid=panel-question]";
        /// Waits until the way of the power says so.
        way_says: "[data-testid=power-way]";
    }

    /// What the instrument of this button shows, in its words.
    pub async fn read(&self, instrument: &str) -> Result<String> {
        self.0.press(instrument).await?;
        Ok(self.0.test_id("reading").await?.text().await?)
    }

    /// Waits until no instrument shows anything.
    pub async fn wait_no_reading(&self) -> Result<()> {
        self.0.wait_gone(By::Css("[data-testid=reading]")).await
    }

    /// Which instrument a walker takes for the point on the phone.
    pub async fn instrument_for_current(&self) -> Result<&'static str> {
        let card = self.0.test_id("current-point").await?.text().await?;
        let outlet = card.lines().any(|line| line.starts_with("receptacle") && !line.contains("240 V"));
        Ok(if outlet { "Plug-in tester" } else { "Look" })
    }
}

/// The button that a walker presses after a look at these words.
pub fn said(words: &str) -> Result<&'static str> {
    match words {
        w if w.ends_with("lamps glow.") || w.ends_with(" is on.") => Ok("LIT"),
        w if w.starts_with("No lamp glows") || w.ends_with(" is off.") => Ok("DARK"),
        other => bail!("what does “{other}” mean?"),
    }
}
