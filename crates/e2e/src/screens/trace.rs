use std::time::{Duration, Instant};

use anyhow::{Result, bail};
use thirtyfour::By;

use crate::{Page, View};

/// The trace.
pub struct Trace<'a>(pub &'a Page);

impl Trace<'_> {
    /// What is to be done next: `switch_off`, `look` …
    pub async fn step(&self) -> Result<String> {
        let side = self.0.test_id("panel-side").await?;
        Ok(side.attr("data-step").await?.unwrap_or_default())
    }

    /// Waits for a step.
    pub async fn wait_step(&self, step: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-testid=panel-side][data-step={step}]"))).await.map(drop)
    }

    /// Says that the step at the panel is done: by Enter at a desk, with its button on a phone. The next step has the focus then.
    pub async fn done(&self, words: &str) -> Result<()> {
        self.0.named("button", words).await?;
        match self.0.view {
            View::Desk => self.0.keys("\u{e007}").await?,
            View::Phone => self.0.press(words).await?,
        }
        let next =
            By::XPath("//*[@data-weight='loud' and not(.//button[starts-with(., 'Done')])]//*[@data-testid='instruction']");
        self.0.find(next).await?;
        let focused =
            async || Ok(self.0.driver.active_element().await?.attr("data-testid").await?.as_deref() == Some("instruction"));
        self.0.wait_until("the new step has the focus", focused).await
    }

    /// The number on the blade to find at the panel.
    pub async fn blade(&self) -> Result<String> {
        Ok(self.0.find(By::Css("[data-testid=big-blade] span")).await?.text().await?)
    }

    /// The point that the next key or thumb answers for.
    pub async fn current(&self) -> Result<String> {
        let at = match self.0.view {
            View::Desk => self.0.find(By::Css("[data-point][aria-current=step]")).await?,
            View::Phone => self.0.find(By::Css("[data-testid=current-point] h2, [data-testid=current-point] p + p")).await?,
        };
        match self.0.view {
            View::Desk => Ok(at.attr("data-point").await?.unwrap_or_default()),
            View::Phone => Ok(at.text().await?),
        }
    }

    /// Answers for the current point: by key at a desk, by thumb on a phone. Waits until it is recorded.
    pub async fn answer(&self, point: &str, said: &str) -> Result<()> {
        if self.current().await? != point {
            bail!("asked for {}, not {point}", self.current().await?);
        }
        let before = self.seq().await?;
        self.say(said).await?;
        // A dark look that nothing else makes likely is asked for once more; whoever sees it dark says so again.
        if said == "dark" && self.moved_on(before).await? && self.asked_again(point).await? {
            self.say(said).await?;
        }
        Ok(())
    }

    async fn say(&self, said: &str) -> Result<()> {
        match (self.0.view, said) {
            (View::Desk, said) => self.0.keys(&said[..1]).await,
            (View::Phone, "skip") => self.0.press("Skip: not sure").await,
            (View::Phone, said) => self.0.press(&said.to_uppercase()).await,
        }
    }

    /// The logbook's last sequence that the screen shows.
    async fn seq(&self) -> Result<String> {
        Ok(self.0.test_id("panel-side").await?.attr("data-seq").await?.unwrap_or_default())
    }

    /// Whether the screen follows the logbook; it cannot without the program, and says then what waits to be sent.
    async fn moved_on(&self, before: String) -> Result<bool> {
        let until = Instant::now() + Duration::from_secs(60);
        while Instant::now() < until {
            if self.seq().await.is_ok_and(|now| now != before) {
                return Ok(true);
            }
            if self.0.count("[data-testid=outbox]").await? > 0 {
                return Ok(false);
            }
            tokio::time::sleep(Duration::from_millis(20)).await;
        }
        Ok(false)
    }

    async fn asked_again(&self, point: &str) -> Result<bool> {
        let text = self.0.find(By::Css("main")).await?.text().await?;
        Ok(text.contains("dark once: look once more") && self.current().await.is_ok_and(|current| current == point))
    }
}
