use std::time::{SystemTime, UNIX_EPOCH};

use anyhow::Result;
use serde_json::json;
use wayfinder_core::Moment;
use wayfinder_fixture::written;

use crate::Site;

/// Somebody who writes a home by acts (`off 3`, `dark counter`), straight to the program, as another phone would.
pub struct Somebody<'a> {
    site: &'a Site,
    home: &'a str,
    acts: String,
    sent: u64,
}

impl<'a> Somebody<'a> {
    /// Writes nothing yet.
    pub fn new(site: &'a Site, home: &'a str) -> Self {
        Self { site, home, acts: String::new(), sent: 0 }
    }

    /// Does these acts, so many minutes ago.
    pub async fn act(&mut self, minutes_ago: u64, acts: &str) -> Result<()> {
        self.acts.push_str(acts);
        self.acts.push('\n');
        let now = SystemTime::now().duration_since(UNIX_EPOCH)?.as_millis() as i64;
        let at = Moment::from_unix_ms(now - minutes_ago as i64 * 60_000);
        let book = written(&self.acts).book;
        let new = book.lines().filter(|line| line.seq > self.sent);
        let entries: Vec<_> = new.map(|line| wayfinder_core::Draft { at, ..line.entry.clone() }).collect();
        self.sent += entries.len() as u64;
        let address = format!("{}/api/homes/{}/entries", self.site.address, self.home);
        let sent = reqwest::Client::new().post(address).json(&json!({ "entries": entries })).send().await?;
        sent.error_for_status()?;
        Ok(())
    }
}
