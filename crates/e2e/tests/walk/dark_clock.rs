//! A freezer that may be without power only so long: its clock on every screen, and the way back.

use anyhow::{Result, ensure};
use thirtyfour::By;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

pub(crate) async fn what_may_be_dark_only_so_long_is_brought_back(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut other = Somebody::new(&site, "shed");
    other.act(60, "home Shed\npanel 6\n1 15\n3 15\nroom Cellar\npoint Cellar appliance freezer").await?;
    // Its time is entered where the point is.
    page.goto(&format!("{}/h/shed/house/list", site.address)).await?;
    page.find(By::XPath("//nav[@aria-label='Rooms']//button[starts-with(normalize-space(.), 'Cellar')]")).await?.click().await?;
    page.press("Edit").await?;
    page.fill("freezer: without power at most, min", "1").await?;
    page.press("Save").await?;
    page.wait_text(By::Css("[data-testid=form-error]"), "How long it may be without power is 2 to 1440 minutes.").await?;
    page.fill("freezer: without power at most, min", "30").await?;
    page.press("Save").await?;
    page.wait_gone(By::Css("[data-testid=clock]")).await?;
    // A breaker that may feed it is off: the clock runs on every screen, also on this one.
    other.act(10, "off 1").await?;
    page.wait_text(By::Css("[data-testid=clock]"), "Freezer may be without power: 19:").await?;
    page.wait_text(By::Css("[data-testid=clock]"), "left of 30 min").await?;
    other.act(0, "lit freezer").await?;
    page.wait_gone(By::Css("[data-testid=clock]")).await?;
    // Forgotten: off for half an hour, and it has not been seen lit with this one off.
    other.act(31, "on 1\noff 3").await?;
    page.goto(&format!("{}/h/shed/trace", site.address)).await?;
    let over = By::Css("[data-testid=clock-over]");
    page.wait_text(over.clone(), "Turn 3 ON again now").await?;
    page.wait_text(over.clone(), "Freezer: at most 30 min without power. Switch it on first.").await?;
    let refused = page.accessibility().await?;
    ensure!(refused.is_empty(), "{refused:?}");
    page.press("Done, it is on").await?;
    page.wait_gone(over).await?;
    page.wait_text(By::Css("[data-testid=off-now]"), "ALL ON").await
}
