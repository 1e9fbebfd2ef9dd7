use anyhow::{Result, bail, ensure};
use serde_json::Value;
use thirtyfour::By;

use super::says;
use crate::Page;

/// Work: a wish and its ways, jobs, one job sheet.
pub struct Work<'a>(pub &'a Page);

/// Where a job sheet stands: how, its step, what that asks for, the reading that is next and what it should be.
#[derive(Debug, Clone, PartialEq, Eq, serde::Deserialize)]
pub struct JobAt {
    /// `open`, `stopped`, `ready`, `done`, `left`.
    pub stands: String,
    /// The step's name in the logbook.
    pub step: String,
    /// `tick`, `choice`, `readings`.
    pub ask: String,
    /// `A to neutral`.
    pub reading: String,
    /// `about 0`.
    pub expect: String,
}

const AT: &str = "const job = document.querySelector('[data-testid=job]'); if (!job) return null;
    const step = job.querySelector('[data-job-step]'), pad = job.querySelector('form[data-expect]');
    return { stands: job.dataset.stands, step: step ? step.dataset.jobStep : '', ask: step ? step.dataset.ask : '',
        reading: pad ? pad.getAttribute('aria-label') : '', expect: pad ? pad.dataset.expect : '' };";

impl JobAt {
    /// What the meter shows there if all is well.
    fn as_expected(&self) -> &'static str {
        match self.expect.as_str() {
            "about 0" | "under 2" => "0.3",
            "about 240" => "241",
            "as its label says" => "25",
            _ => "121",
        }
    }
}

impl Work<'_> {
    says! {
        /// Waits until what the ways come to is said so.
        title_says: "[data-testid=work-title]";
        /// Waits until the size of a circuit is said so.
        size_says: "[data-testid=size-title]";
        /// Waits until the lines of a size say so.
        size_lines_say: "[data-testid=size-lines]";
        /// Waits until what was read of a price list says so.
        prices_say: "[data-testid=prices-read]";
        /// Waits until the red band says so.
        live_says: "[data-testid=live-band]";
        /// Waits until the stop says so.
        stop_says: "[data-testid=job-stop]";
        /// Waits until the step says so.
        step_says: "[data-job-step]";
        /// Waits until how far it is says so.
        progress_says: "[data-testid=job-progress]";
        /// Waits until what state the panel is in says so.
        left_as_says: "[data-testid=left-as]";
        /// Waits until the list of all steps says so.
        all_steps_say: "[data-testid=all-steps]";
        /// Waits until what to take along says so.
        parts_say: "[data-testid=parts]";
    }

    /// Where the sheet stands.
    pub async fn at(&self) -> Result<JobAt> {
        self.0.find(By::Css("[data-testid=job]")).await?;
        let at: Value = self.0.driver.execute(AT, vec![]).await?.convert()?;
        Ok(serde_json::from_value(at)?)
    }

    /// Waits until the sheet stands so.
    pub async fn stands(&self, how: &str) -> Result<()> {
        self.0.wait_until(&format!("the job stands {how}"), async || Ok(self.at().await?.stands == how)).await
    }

    /// Waits until this step is next.
    pub async fn step(&self, step: &str) -> Result<()> {
        self.0.wait_until(&format!("{step} is next"), async || Ok(self.at().await?.step == step)).await
    }

    /// Waits until this reading is next.
    pub async fn reading(&self, name: &str) -> Result<()> {
        self.0
            .wait_until(&format!("{name} is read next"), async || Ok(self.at().await?.reading == format!("Reading: {name}")))
            .await
    }

    /// Takes this choice.
    pub async fn choose(&self, choice: &str) -> Result<()> {
        let button = self.0.find(By::Css(format!("[data-choice='{choice}']"))).await?;
        button.scroll_into_view().await?;
        Ok(button.click().await?)
    }

    /// Types what the meter shows on the keys of the screen, and records it.
    pub async fn read(&self, value: &str) -> Result<()> {
        for key in value.chars() {
            self.0.press(&key.to_string()).await?;
        }
        let unit = if self.at().await?.expect == "as its label says" { "in-lb" } else { "V" };
        self.0.press(&format!("Record {value} {unit}")).await
    }

    /// Passes what is next as if all were well, and waits for what comes then.
    pub async fn pass(&self) -> Result<JobAt> {
        let before = self.at().await?;
        ensure!(before.stands == "open", "{before:?}");
        match before.ask.as_str() {
            "tick" => self.0.press("Done").await?,
            "choice" => self.0.find(By::Css("[data-choice]")).await?.click().await?,
            "readings" => {
                self.0.find(By::Css("form[data-expect] input")).await?.send_keys(before.as_expected()).await?;
                self.0.keys("\u{e007}").await?;
            }
            other => bail!("a step asks for {other}"),
        }
        self.comes_after(&before).await
    }

    /// The same by the keys alone: from the heading of the step to what passes it, and Enter.
    pub async fn pass_by_keys(&self) -> Result<JobAt> {
        const HAS_FOCUS: &str = "const job = document.querySelector('[data-job-step]');
            return job !== null && job.querySelector('h2') === document.activeElement;";
        let before = self.at().await?;
        ensure!(before.stands == "open", "{before:?}");
        let at_heading = async || Ok(self.0.driver.execute(HAS_FOCUS, vec![]).await?.json().as_bool() == Some(true));
        self.0.wait_until(&format!("the heading of {before:?} has the focus"), at_heading).await?;
        self.0.keys("\u{e004}").await?;
        if before.ask == "readings" {
            self.0.keys(before.as_expected()).await?;
        }
        self.0.keys("\u{e007}").await?;
        self.comes_after(&before).await
    }

    /// Passes what is next by what the instrument of a made-up panel shows.
    pub async fn pass_by_the_instrument(&self) -> Result<JobAt> {
        let before = self.at().await?;
        ensure!(before.stands == "open", "{before:?}");
        match before.ask.as_str() {
            "tick" => self.0.press("Done").await?,
            "choice" => {
                self.0.press("Look").await?;
                let seen = self.0.test_id("seen-at-job").await?.text().await?;
                let wrong = [("burnt", "burnt"), ("cloth", "old")].into_iter().find(|(says, _)| seen.contains(says));
                let choice = wrong.map_or("[data-choice]".to_owned(), |(_, choice)| format!("[data-choice='{choice}']"));
                // By the key: the band on top may cover what was scrolled away by looking.
                self.0.find(By::Css(choice)).await?.send_keys("\u{e007}").await?;
            }
            _ => {
                self.0.press("Read it").await?;
                let shown = self.0.test_id("display").await?.text().await?;
                let value = shown.split(' ').next().unwrap_or_default();
                self.0.find(By::Css("form[data-expect] input")).await?.send_keys(value).await?;
                self.0.keys("\u{e007}").await?;
            }
        }
        self.comes_after(&before).await
    }

    async fn comes_after(&self, before: &JobAt) -> Result<JobAt> {
        self.0.wait_until(&format!("something comes after {before:?}"), async || Ok(self.at().await? != *before)).await?;
        self.at().await
    }

    /// Goes on until this step is next.
    pub async fn until(&self, step: &str) -> Result<()> {
        while self.at().await?.step != step {
            self.pass().await?;
        }
        Ok(())
    }

    /// Goes on to the end, and finishes it.
    pub async fn to_the_end(&self) -> Result<()> {
        while self.at().await?.stands == "open" {
            self.pass().await?;
        }
        self.0.press("Finish: the record follows").await?;
        self.stands("done").await
    }

    /// Answers what is to be read first with the first thing that it can be, and waits until it is asked for no more. What it was.
    pub async fn answer_the_first_to_read(&self) -> Result<String> {
        let list = self.0.find(By::Css("[data-read] [role=combobox]")).await?;
        let line = list.find(By::XPath("./ancestor::*[@data-read]")).await?;
        let words = line.attr("data-read").await?.unwrap_or_default();
        list.scroll_into_view().await?;
        list.click().await?;
        self.0.find(By::Css("[role=listbox] [role=option]:nth-of-type(2)")).await?.click().await?;
        self.0.wait_gone(By::Css(format!("[data-read='{words}']"))).await?;
        Ok(words)
    }

    /// The names of the ways, in their order.
    pub async fn ways(&self) -> Result<Vec<String>> {
        let mut names = Vec::new();
        for way in self.0.driver.find_all(By::Css("[data-way]")).await? {
            names.push(way.attr("data-way").await?.unwrap_or_default());
        }
        Ok(names)
    }
}
