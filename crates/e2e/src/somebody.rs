use std::time::{SystemTime, UNIX_EPOCH};

use anyhow::Result;
use serde_json::json;
use wayfinder_core::{Logbook, Moment};
use wayfinder_fixture::Written;

use crate::Site;

/// So many entries are sent at once at most.
const BATCH: usize = 900;

/// Somebody who writes a home by acts (`off 3`, `dark counter`), straight to the program, as another phone would.
pub struct Somebody<'a> {
    site: &'a Site,
    home: &'a str,
    written: Written,
}

impl<'a> Somebody<'a> {
    /// Writes nothing yet.
    pub fn new(site: &'a Site, home: &'a str) -> Self {
        Self { site, home, written: Written::on(Logbook::default()) }
    }

    /// Does these acts, so many minutes ago.
    pub async fn act(&mut self, minutes_ago: u64, acts: &str) -> Result<()> {
        let sent = self.written.book.seq();
        self.written.acts(acts);
        let now = SystemTime::now().duration_since(UNIX_EPOCH)?.as_millis() as i64;
        let at = Moment::from_unix_ms(now - minutes_ago as i64 * 60_000);
        let entries: Vec<_> = self.written.since(sent).into_iter().map(|entry| wayfinder_core::Draft { at, ..entry }).collect();
        let address = format!("{}/api/homes/{}/entries", self.site.address, self.home);
        for batch in entries.chunks(BATCH) {
            let sent = reqwest::Client::new().post(&address).json(&json!({ "entries": batch })).send().await?;
            sent.error_for_status()?;
        }
        Ok(())
    }
}
