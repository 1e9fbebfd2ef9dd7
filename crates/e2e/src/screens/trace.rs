use std::time::{Duration, Instant};

use anyhow::{Context, Result};
use thirtyfour::By;

use super::says;
use crate::{Page, View};

/// The trace.
pub struct Trace<'a>(pub &'a Page);

impl Trace<'_> {
    says! {
        /// Waits until the step says so in its first sentence.
        instruction_says: "[data-testid=instruction]";
        /// Waits until the panel's side does.
        panel_says: "[data-testid=panel-side]";
        /// Waits until the side of whoever walks does.
        walk_says: "[data-step-card=walk]";
        /// Waits until this breaker is the one to find at the panel.
        blade_says: "[data-testid=big-blade]";
        /// Waits until a caution says so.
        caution_says: "[data-testid=caution]";
        /// Waits until the count of proven points does.
        progress_says: "[data-testid=progress]";
        /// Waits until looks that contradict one another are said so.
        contradiction_says: "[data-testid=contradiction]";
        /// Waits until the list of what is still open says so.
        left_open_says: "[data-testid=left-open]";
        /// Waits until the choice of methods says so.
        methods_say: "[role=radiogroup]";
    }

    /// Says who traces and with what, as it is offered: two people with one tester; one breaker at a time.
    pub async fn begin(&self) -> Result<()> {
        self.method("One breaker at a time").await?.click().await?;
        self.0.press("Begin").await
    }

    /// The same by the quickest method, which is chosen once the minutes are worked out.
    pub async fn begin_quickest(&self) -> Result<()> {
        self.method(": about ").await?;
        self.0.press("Begin").await
    }

    async fn method(&self, words: &str) -> Result<thirtyfour::WebElement> {
        let label = format!("//*[@role='radiogroup']//label[contains(., '{words}')]");
        let label = self.0.find(By::XPath(label)).await?;
        label.scroll_into_view().await?;
        Ok(label)
    }

    /// What is to be done next: `switch_off`, `look` …
    pub async fn step(&self) -> Result<String> {
        let side = self.0.test_id("panel-side").await?;
        Ok(side.attr("data-step").await?.unwrap_or_default())
    }

    /// How far it is: `3 of 5 proven`.
    pub async fn progress(&self) -> Result<String> {
        Ok(self.0.test_id("progress").await?.text().await?)
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
    ///
    /// As the screen is now: a wait would hold up a walk whose screen has moved on.
    pub async fn current(&self) -> Result<String> {
        let css = match self.0.view {
            View::Desk => "[data-point][aria-current=step]",
            View::Phone => "[data-testid=current-point] h2, [data-testid=current-point] p + p",
        };
        let at = self.0.driver.find_all(By::Css(css)).await?;
        let at = at.first().context("no point is asked for now")?;
        match self.0.view {
            View::Desk => Ok(at.attr("data-point").await?.unwrap_or_default()),
            View::Phone => Ok(at.text().await?),
        }
    }

    /// The same, once a point is asked for.
    pub async fn next_point(&self) -> Result<String> {
        let mut point = String::new();
        let asked = async || {
            point = self.current().await?;
            Ok(true)
        };
        self.0.wait_until("a point is asked for", asked).await?;
        Ok(point)
    }

    /// Answers for the current point: by key at a desk, by thumb on a phone. Waits until it is recorded.
    pub async fn answer(&self, point: &str, said: &str) -> Result<()> {
        self.wait_current(point).await?;
        let before = self.followed().await?;
        self.say(said).await?;
        // A dark look that nothing else makes likely is asked for once more; whoever sees it dark says so again.
        if said == "dark" && self.moved_on(before).await? && self.asked_again(point).await? {
            // Whoever looks once more takes a moment: the same tap within a second is one look.
            tokio::time::sleep(Duration::from_millis(1050)).await;
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

    /// Whether the screen follows the logbook; it cannot without the program, and says then what waits to be sent.
    async fn moved_on(&self, before: String) -> Result<bool> {
        let until = Instant::now() + Duration::from_secs(60);
        while Instant::now() < until {
            if self.followed().await.is_ok_and(|now| now != before) {
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
        Ok(text.contains("look once more") && self.current().await.is_ok_and(|current| current == point))
    }

    /// Waits until the next key or thumb answers for this point.
    pub async fn wait_current(&self, point: &str) -> Result<()> {
        self.0.wait_until(&format!("{point} is asked for"), async || Ok(self.current().await? == point)).await
    }

    /// Waits until this point is among those to look at.
    pub async fn wait_point(&self, point: &str) -> Result<()> {
        self.0.find(By::Css(format!("[data-point='{point}']"))).await.map(drop)
    }

    /// Waits until a point to look at says so.
    pub async fn point_says(&self, point: &str, words: &str) -> Result<()> {
        self.0.wait_text(By::Css(format!("[data-point='{point}']")), words).await
    }

    /// Answers for any point of the list, by the name that it is spoken with, or in a list without places by its id.
    pub async fn answer_for(&self, spoken: &str, said: &str) -> Result<()> {
        let answer = format!("//*[@aria-label='{spoken}' or @data-point='{spoken}']//button[normalize-space(.)='{said}']");
        Ok(self.0.find(By::XPath(answer)).await?.click().await?)
    }

    /// Waits until an answer is given.
    pub async fn wait_answered(&self) -> Result<()> {
        self.0.find(By::Css("[data-point] [aria-pressed=true]")).await.map(drop)
    }

    /// Waits until the last answer can be struck out.
    pub async fn wait_last(&self, point: &str, said: &str) -> Result<()> {
        let strike = format!(
            "//button[starts-with(normalize-space(.), 'Strike out: ') and contains(., '{point}') and contains(., ', {said}')]"
        );
        self.0.find(By::XPath(strike)).await.map(drop)
    }

    /// Says that what the panel's side asks is done, whatever it is.
    pub async fn press_done(&self) -> Result<()> {
        Ok(self.0.find(By::XPath("//*[@data-testid='panel-side']//button[starts-with(., 'Done, ')]")).await?.click().await?)
    }

    /// Presses a button of the panel's side.
    pub async fn press_at_panel(&self, words: &str) -> Result<()> {
        let button = format!("//*[@data-step-card='panel']//button[normalize-space(.)='{words}']");
        Ok(self.0.find(By::XPath(button)).await?.click().await?)
    }

    /// Waits until this method is the chosen one.
    pub async fn wait_method(&self, words: &str) -> Result<()> {
        let chosen = format!("//label[contains(., '{words}')]//input[@checked or ../../span[contains(@class, 'Mui-checked')]]");
        self.0.find(By::XPath(chosen)).await.map(drop)
    }

    /// The logbook's last sequence that the owner's screen shows, or a helper's.
    pub async fn followed(&self) -> Result<String> {
        let side = self.0.find(By::Css("[data-testid=panel-side], [data-testid=helper-step]")).await?;
        Ok(side.attr("data-seq").await?.unwrap_or_default())
    }

    /// Waits until the screen shows the logbook up to this line.
    pub async fn wait_followed(&self, seq: u64) -> Result<()> {
        let shown = async || Ok(self.followed().await?.parse::<u64>()? >= seq);
        self.0.wait_until(&format!("line {seq} is shown"), shown).await
    }

    /// What a helper is to do now: `look`, `quiet` …
    pub async fn helper_does(&self) -> Result<String> {
        Ok(self.0.test_id("helper-step").await?.attr("data-do").await?.unwrap_or_default())
    }

    /// How many lines of the evidence disagree with the others.
    pub async fn disagreeing(&self) -> Result<usize> {
        self.0.test_id("because").await?;
        self.0.count("li[data-role=disagrees]").await
    }

    /// Strikes out the first of them.
    pub async fn strike_disagreeing(&self) -> Result<()> {
        self.0.find(By::XPath("(//li[@data-role='disagrees'])[1]//button")).await?.click().await?;
        self.0.wait_gone(By::Css("li[data-role=disagrees]")).await
    }

    /// Waits until nothing contradicts anything.
    pub async fn no_contradiction(&self) -> Result<()> {
        self.0.wait_gone(By::Css("[data-testid=contradiction]")).await
    }
}
