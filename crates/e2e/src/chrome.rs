use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use anyhow::{Context, Result};
use serde_json::json;
use tempfile::TempDir;
use thirtyfour::{ChromiumLikeCapabilities, DesiredCapabilities, WebDriver};

use crate::Page;

/// The window as a person has it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum View {
    /// 1280x800.
    Desk,
    /// 390x844, by thumb.
    Phone,
}

/// ChromeDriver, started on a port of its own choice and ended with this value.
pub struct Chrome {
    driver: Child,
    port: u16,
    profiles: TempDir,
}

impl Chrome {
    /// Starts ChromeDriver.
    pub fn start() -> Result<Self> {
        let mut driver = Command::new("chromedriver")
            .arg("--port=0")
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .context("chromedriver does not start; `cargo xtask test` installs it")?;
        let stdout = driver.stdout.take().context("chromedriver has no output")?;
        let mut lines = BufReader::new(stdout).lines();
        let port = loop {
            let line = lines.next().context("chromedriver ended without naming its port")??;
            let port = line.split_once("on port ").and_then(|(_, port)| port.trim_end_matches('.').parse::<u16>().ok());
            if let Some(port) = port.filter(|port| *port != 0) {
                break port;
            }
        };
        // Its output goes on being read, so that it never waits for us.
        std::thread::spawn(move || lines.for_each(drop));
        Ok(Self { driver, port, profiles: tempfile::tempdir()? })
    }

    /// Opens a window of its own profile.
    pub async fn open(&self, view: View) -> Result<Page> {
        let mut capabilities = DesiredCapabilities::chrome();
        capabilities.set_binary("/usr/bin/chromium").ok();
        let profile = tempfile::tempdir_in(self.profiles.path())?.keep();
        for flag in [
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--disable-dev-shm-usage",
            "--force-prefers-reduced-motion",
            // Where lengths are in meters; `Page::speaks` says otherwise.
            "--accept-lang=en-GB",
            "--remote-debugging-pipe",
            &format!("--user-data-dir={}", profile.display()),
        ] {
            capabilities.add_arg(flag)?;
        }
        let driver = WebDriver::new(&format!("http://127.0.0.1:{}", self.port), capabilities).await?;
        let (width, height, phone) = match view {
            View::Desk => (1280, 800, false),
            View::Phone => (390, 844, true),
        };
        let tools = driver.cdp();
        let metrics = json!({ "width": width, "height": height, "deviceScaleFactor": 1, "mobile": phone });
        tools.send_raw("Emulation.setDeviceMetricsOverride", metrics).await?;
        Ok(Page::new(driver, view))
    }
}

impl Drop for Chrome {
    fn drop(&mut self) {
        let _ = self.driver.kill();
        let _ = self.driver.wait();
    }
}
