//! The front page of a home: what matters most first, each with one thing to do.

use anyhow::Result;
use wayfinder_e2e::screens::Overview;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

pub(crate) async fn the_front_page_says_what_matters_most(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "weir");
    somebody.act(0, "home Weir House").await?;
    let home = format!("{}/h/weir", site.address);
    let overview = Overview(page);
    // Opened without more, a home shows its front page; of an empty one what to do first.
    page.goto(&home).await?;
    page.heading_says("Nothing is known of this home yet").await?;
    overview.line_says("first", "Type the card on the panel's door").await?;
    page.can_be_used_by_everybody().await?;
    somebody.act(0, "panel 8\n1 20 #12 gfci kitchen\n3 15 #14 hall").await?;
    page.heading_says("The panel is known, the house is not").await?;
    somebody.act(0, "room Hall\npoint Hall light lamp\npoint Hall receptacle door").await?;
    page.heading_says("2 points are not proven yet").await?;
    somebody.act(0, "proof lamp 1\nproof door 3").await?;
    page.heading_says("All 2 points are proven").await?;
    overview.says_nothing_of("not_proven").await?;
    overview.line_says("tests", "1 is due").await?;
    // A breaker trips; what hangs in the door is wrong; a button fails.
    somebody.act(0, "own 3 Hall lamp = lamp\nhung main\ntripped 3\ntested 1 no_trip").await?;
    page.heading_says("3 has tripped").await?;
    overview.line_says("dark_now", "Dark with it: Hall, door.").await?;
    overview.line_says("danger", "did not trip when its button was pressed").await?;
    page.can_be_used_by_everybody().await?;
    page.press("Find why 3 tripped").await?;
    page.heading_says("What is wrong?").await?;
    page.goto(&home).await?;
    page.press("What to do about it").await?;
    page.test_id("findings").await.map(drop)
}
