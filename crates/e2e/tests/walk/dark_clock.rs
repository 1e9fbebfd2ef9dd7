//! A freezer that may be without power only so long: its clock on every screen, and the way back.

use anyhow::Result;
use wayfinder_e2e::screens::House;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

pub(crate) async fn what_may_be_dark_only_so_long_is_brought_back(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut other = Somebody::new(&site, "shed");
    other.act(60, "home Shed\npanel 6\n1 15\n3 15\nroom Cellar\npoint Cellar appliance freezer").await?;
    // Its time is entered where the point is.
    page.goto(&format!("{}/h/shed/house/list", site.address)).await?;
    House(page).open_room("Cellar").await?;
    page.press("Edit").await?;
    page.fill("freezer: without power at most, min", "1").await?;
    page.press("Save").await?;
    page.form_says("How long it may be without power is 2 to 1440 minutes.").await?;
    page.fill("freezer: without power at most, min", "30").await?;
    page.press("Save").await?;
    page.no_clock().await?;
    // A breaker that may feed it is off: the clock runs on every screen, also on this one.
    other.act(10, "off 1").await?;
    page.clock_says("Freezer may be without power: 19:").await?;
    page.clock_says("left of 30 min").await?;
    other.act(0, "lit freezer").await?;
    page.no_clock().await?;
    // Forgotten: off for half an hour, and it has not been seen lit with this one off.
    other.act(31, "on 1\noff 3").await?;
    page.goto(&format!("{}/h/shed/trace", site.address)).await?;
    page.overdue_says("Turn 3 ON again now").await?;
    page.overdue_says("Freezer: at most 30 min without power. Switch it on first.").await?;
    page.can_be_used_by_everybody().await?;
    page.press("Done, it is on").await?;
    page.no_clock().await?;
    page.off_now_says("ALL ON").await
}

pub(crate) async fn a_device_whose_clock_is_an_hour_ahead_counts_by_the_program(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let mut site = Site::empty().await?;
    let mut other = Somebody::new(&site, "shed");
    other.act(60, "home Shed\npanel 6\n1 15\n3 15\nroom Cellar\npoint Cellar appliance freezer").await?;
    page.on_every_page("const real = Date.now; Date.now = () => real() + 3600000;").await?;
    page.goto(&format!("{}/h/shed/house/list", site.address)).await?;
    House(page).open_room("Cellar").await?;
    page.press("Edit").await?;
    page.fill("freezer: without power at most, min", "30").await?;
    page.press("Save").await?;
    page.no_clock().await?;
    other.act(10, "off 1").await?;
    page.clock_says("Freezer may be without power: 19:").await?;
    let kept = "const [done] = arguments;
        caches.match('/api/homes/shed').then((kept) => kept?.json()).then((home) => done((home?.clocks ?? []).length > 0));";
    page.wait_until("the device keeps the clock", async || {
        Ok(page.driver.execute_async(kept, vec![]).await?.convert::<bool>()?)
    })
    .await?;
    // Loaded again while the program does not answer: nothing tells the page the time, and it has kept how far apart they are.
    site.stop().await?;
    page.driver.refresh().await?;
    page.stale_says("It is from").await?;
    page.clock_says("Freezer may be without power: 19:").await
}
