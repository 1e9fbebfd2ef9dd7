//! Every home on the machine, and what changed in one since somebody was there last.

use std::time::{SystemTime, UNIX_EPOCH};

use anyhow::Result;
use serde_json::json;
use thirtyfour::By;
use wayfinder_core::Fact;
use wayfinder_e2e::screens::{Homes, LogbookScreen, Overview};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

use crate::kept::keeps_any;

pub(crate) async fn homes_are_renamed_copied_deleted_and_taken_back(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "mill").act(0, "home Mill House\npanel 8\n1 20 kitchen").await?;
    let mut weir = Somebody::new(&site, "weir");
    weir.act(0, "home Weir House\npanel 8\n1 20 kitchen\ntripped 1").await?;
    let homes = Homes(page);
    page.goto(&site.address).await?;
    // What is dark now goes before what is only not known yet.
    homes.order_is(&["weir", "mill"]).await?;
    homes.says("weir", "Dark now: 1 has tripped").await?;
    page.can_be_used_by_everybody().await?;
    page.choose_in_menu("More for Weir House", "Rename").await?;
    page.fill("New name", "Weir House, lower floor").await?;
    page.press("Save").await?;
    homes.says("weir", "Weir House, lower floor").await?;
    page.choose_in_menu("More for Weir House, lower floor", "Copy").await?;
    page.fill("Name of the copy", "Weir House, as planned").await?;
    page.press("Copy").await?;
    page.heading_says("1 has tripped").await?;
    page.goto(&site.address).await?;
    page.choose_in_menu("More for Weir House, as planned", "Put into the archive").await?;
    page.press("More: the archive (1)").await?;
    page.choose_in_menu("More for Weir House, as planned", "Take out of the archive").await?;
    // Its file is saved before it is deleted, and it can be taken back.
    page.choose_in_menu("More for Mill House", "Delete").await?;
    page.named("a", "Save its file").await?;
    page.can_be_used_by_everybody().await?;
    anyhow::ensure!(!page.named("button", "Delete it").await?.is_enabled().await?, "it can be deleted with its file not saved");
    page.press("Save its file").await?;
    page.press("Delete it").await?;
    homes.has_no("mill").await?;
    page.press("More: deleted homes (1)").await?;
    page.can_be_used_by_everybody().await?;
    page.press("Take back Mill House").await?;
    homes.says("mill", "Mill House").await
}

pub(crate) async fn a_damaged_home_hides_no_other_and_what_can_be_read_is_saved(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    Somebody::new(&site, "mill").act(0, "home Mill House\npanel 8\n1 20 kitchen\nroom Kitchen\nroom Hall").await?;
    Somebody::new(&site, "weir").act(0, "home Weir House\npanel 8\n1 20 kitchen\ntripped 1").await?;
    site.damage("mill", 4).await?;
    let homes = Homes(page);
    page.goto(&site.address).await?;
    homes.order_is(&["weir"]).await?;
    homes.damaged_says("Mill House: line 4 is not as it was written").await?;
    page.can_be_used_by_everybody().await?;
    page.goto(&format!("{}/h/mill", site.address)).await?;
    page.says("This home is damaged").await?;
    page.goto(&site.address).await?;
    page.press("Save what can be read of Mill House").await?;
    page.can_be_used_by_everybody().await?;
    page.fill("Name of what is saved", "Mill House, saved").await?;
    page.press("Save").await?;
    page.says("Mill House, saved").await?;
    page.goto(&site.address).await?;
    page.press("Delete Mill House").await?;
    page.press("Delete it").await?;
    homes.has_no_damaged().await?;
    page.press("More: deleted homes (1)").await?;
    page.says("Mill House, deleted").await
}

pub(crate) async fn what_changed_since_a_visit_is_told_and_looked_through(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "weir");
    somebody.act(0, "home Weir House").await?;
    let house =
        "panel 8\n1 20 kitchen\n3 15 hall\nroom Kitchen\nroom Hall\npoint Kitchen receptacle counter\npoint Hall light ceiling";
    somebody.act(0, house).await?;
    let home = format!("{}/h/weir", site.address);
    // The owner was here a day ago; the others came after.
    let fact = json!({ "kind": "units_chosen", "units": "metric" });
    let day_ago = SystemTime::now().duration_since(UNIX_EPOCH)?.as_millis() as u64 - 86_400_000;
    let entry = json!({ "id": "visit", "at": day_ago, "by": "Owner", "version": Fact::VERSION, "fact": fact });
    let entries = json!({ "entries": [entry] });
    let sent = reqwest::Client::new().post(format!("{}/api/homes/weir/entries", site.address)).json(&entries).send().await?;
    sent.error_for_status()?;
    somebody.act(0, "proof counter 1\ntripped 3").await?;
    page.goto(&home).await?;
    Overview(page).line_says("changed", "Since you were here last").await?;
    page.press("What changed").await?;
    page.can_be_used_by_everybody().await?;
    let logbook = LogbookScreen(page);
    logbook.changes_say("Tripped now, and not then: 3.").await?;
    logbook.changes_say("1 point newly proven: Kitchen, counter (1).").await?;
    // Looked through by words, room and kind.
    page.press("Show every line").await?;
    page.fill("Words", "counter dark").await?;
    page.wait_until("only looks at the counter", async || Ok(logbook.count("Hall").await? == 0)).await?;
    logbook.says("Kitchen, counter: dark").await?;
    page.press("Show every line").await?;
    page.choose("Room", "Hall").await?;
    logbook.says("Hall, ceiling").await?;
    page.choose("About", "jobs and sizes").await?;
    page.says("No line is like that.").await
}

pub(crate) async fn a_home_that_has_moved_sends_on_whoever_has_it_open(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let (from, to) = (Site::demo().await?, Site::empty().await?);
    page.goto(&format!("{}/h/tanyard-flat/overview", from.address)).await?;
    page.says("points are proven").await?;
    // What `wayfinder move` does.
    let http = reqwest::Client::new();
    let file = http.get(format!("{}/api/homes/tanyard-flat/export", from.address)).send().await?.bytes().await?;
    let lines = serde_json::from_slice::<serde_json::Value>(&file)?["lines"].as_array().map_or(0, Vec::len);
    let taken = http.post(format!("{}/api/import", to.address)).header("content-type", "application/json").body(file);
    taken.send().await?.error_for_status()?;
    let body = serde_json::json!({ "to": to.address, "seq": lines, "photos": 0 });
    http.post(format!("{}/api/homes/tanyard-flat/moved", from.address)).json(&body).send().await?.error_for_status()?;
    page.says(&format!("This home has moved to {}. Go on there.", to.address)).await?;
    page.wait_gone(By::Css("[data-testid=off-now]")).await?;
    page.wait_until("the device keeps nothing of it", async || Ok(!keeps_any(page, "/api/homes/tanyard-flat").await?)).await?;
    page.can_be_used_by_everybody().await?;
    page.press("Go on there").await?;
    page.says("points are proven").await?;
    let now = page.driver.current_url().await?;
    anyhow::ensure!(now.as_str() == format!("{}/h/tanyard-flat/overview", to.address), "{now}");
    page.goto(&format!("{}/", from.address)).await?;
    page.press("More: homes that have moved (1)").await?;
    page.says(&format!("has moved to {}. What is kept here is how it was when it went.", to.address)).await?;
    page.can_be_used_by_everybody().await?;
    page.press_with("Delete it here").await?;
    page.notice_says("for 30 days it can be taken back").await?;
    page.press("More: deleted homes (1)").await
}
