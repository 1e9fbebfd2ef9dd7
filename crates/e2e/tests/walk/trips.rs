//! Something is dark, and what now.

use anyhow::Result;
use thirtyfour::By;
use wayfinder_e2e::screens::{Overview, Trips};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

/// A bath whose GFCI protects the porch; a panel with two circuits.
const HOUSE: &str = "panel 8\nmain is main 100 A\n1 20 bath\n2 15 den\nroom Bath\nroom Porch\nroom Den\npoint Bath gfci mirror\n\
                     point Porch receptacle door\npoint Den receptacle wall\nprotects mirror: door\n\
                     proof mirror 1\nproof door 1\nproof wall 2\nload wall space_heater\ncall 555-0100 555-0101";

/// A home of these acts: whoever writes in it, and its address.
async fn weir_house<'a>(site: &'a Site, acts: &str) -> Result<(Somebody<'a>, String)> {
    let mut somebody = Somebody::new(site, "weir");
    somebody.act(0, "home Weir House").await?;
    somebody.act(0, acts).await?;
    Ok((somebody, format!("{}/h/weir", site.address)))
}

pub(crate) async fn a_dark_outlet_behind_a_gfci_in_another_room(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let (mut somebody, home) = weir_house(&site, HOUSE).await?;
    let trips = Trips(page);
    page.goto(&format!("{home}/trips")).await?;
    page.can_be_used_by_everybody().await?;
    trips.choose("porch").await?;
    page.press("Find out why").await?;
    page.heading_says("Porch, door: dark").await?;
    trips.next_is("is there any sign of danger?").await?;
    page.can_be_used_by_everybody().await?;
    page.press("None of these").await?;
    trips.next_is("Press RESET: Bath, mirror").await?;
    trips.road_has("gfci", 50).await?;
    // Another phone in step: what one writes down stands on both.
    somebody.act(0, "call 555-0102 555-0101").await?;
    page.press("It clicked in, and Porch, door works").await?;
    trips.named("Bath, mirror: a GFCI has tripped").await?;
    trips.seen("was tripped; now it works").await?;
    // A doubting reader follows the chances line by line.
    page.press("More: how each chance came about").await?;
    trips.why_says("As it was told, with how often each cause happens").await?;
    trips.why_says("%: Bath, mirror: a GFCI has tripped").await?;
    page.can_be_used_by_everybody().await?;
    // A slip is taken back, and the look is asked for again.
    page.press("Take back: Press RESET: Bath, mirror. Then look at Porch, door: was tripped; now it works").await?;
    trips.next_is("Press RESET: Bath, mirror").await?;
    page.press("It clicked in, and Porch, door works").await?;
    page.press("That was it").await?;
    trips.over("A GFCI has tripped: Bath, mirror").await
}

pub(crate) async fn a_sign_of_danger_covers_everything(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let (mut somebody, home) = weir_house(&site, HOUSE).await?;
    let trips = Trips(page);
    page.goto(&format!("{home}/trips?point=wall")).await?;
    page.press("It smells of burning, or there is smoke").await?;
    trips.stop_says("Switch breaker 2 off, if you reach it safely").await?;
    trips.stop_says("Call an electrician: 555-0101").await?;
    page.can_be_used_by_everybody().await?;
    // The front page says it first, too.
    page.goto(&home).await?;
    page.heading_says("Switch breaker 2 off, if you reach it safely").await?;
    page.press("What to do now").await?;
    page.press("It was something else").await?;
    trips.next_is("is there any sign of danger?").await?;
    // Lamps brighter and dimmer, and volts that must not be: the main.
    page.press("Lamps are brighter or dimmer than usual").await?;
    somebody.act(0, "trouble t9 wall\nlooked t9 safety odd\nlooked t9 volts wall 138").await?;
    page.goto(&format!("{home}/trips/t9")).await?;
    trips.stop_says("Switch the main off now").await?;
    trips.stop_says("138 V at Den, wall").await?;
    page.press("I have done this").await?;
    page.press("It is mended").await?;
    trips.over("It works again").await
}

pub(crate) async fn a_breaker_that_tripped_is_found_from_the_front_page(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let (mut somebody, _) = weir_house(&site, HOUSE).await?;
    somebody.act(0, "point Den receptacle desk\nproof desk 2\nload desk space_heater\ntripped 2").await?;
    let home = format!("{}/h/weir", site.address);
    let trips = Trips(page);
    page.goto(&home).await?;
    Overview(page).line_says("dark_now", "Find why 2 tripped").await?;
    page.press("Find why 2 tripped").await?;
    page.press("Find out why").await?;
    page.heading_says("Breaker 2 tripped").await?;
    // By the keys alone: the first answer is 1.
    trips.next_is("is there any sign of danger?").await?;
    page.keys("1").await?;
    trips.seen("is there any sign of danger: none").await?;
    page.goto(&home).await?;
    Overview(page).line_says("dark_now", "Breaker 2 tripped").await
}

/// Nothing is known but a room and what is in it.
pub(crate) async fn a_home_of_which_nothing_is_known_is_helped(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "weir");
    somebody.act(0, "home Weir House").await?;
    somebody.act(0, "panel 4\nroom Den\npoint Den light ceiling").await?;
    let trips = Trips(page);
    page.goto(&format!("{}/h/weir/trips", site.address)).await?;
    trips.choose("ceiling").await?;
    page.press("Find out why").await?;
    page.press("None of these").await?;
    trips.next_is("Move the switch of Den, ceiling").await?;
    page.press("Now there is light").await?;
    trips.named("a switch is off").await
}

/// At supper two heaters run on 15 A: what ran is told, and the cure goes on in Work.
pub(crate) async fn an_overload_goes_on_in_work(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let (mut somebody, home) = weir_house(&site, HOUSE).await?;
    somebody.act(0, "point Den receptacle desk\nproof desk 2\nload desk space_heater").await?;
    let trips = Trips(page);
    page.goto(&format!("{home}/trips")).await?;
    page.press("A breaker tripped").await?;
    trips.choose("2:").await?;
    page.press("More: what you know").await?;
    trips.ran(2).await?;
    page.press("Find out why").await?;
    page.press("None of these").await?;
    trips.named("more current than the breaker carries").await?;
    page.find(By::XPath("//li[contains(., 'What ran takes 25.0 A; breaker 2 carries 15 A.')]")).await?;
    page.can_be_used_by_everybody().await?;
    page.press("Give it a circuit of its own").await?;
    page.test_id("work-title").await.map(drop)
}

/// Half of the house is dark and nothing of it is entered: the leg is looked for at what has 240 V.
pub(crate) async fn half_the_house_is_dark(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "weir");
    somebody.act(0, "home Weir House").await?;
    somebody
        .act(
            0,
            "panel 8\n1 20 a\n3 20 b\n2 20 c\n4 20 d\n5-7 30/2 dryer\nroom Den\npoint Den receptacle one\npoint Den receptacle two\n\
             point Den receptacle three\npoint Den receptacle four\npoint Den appliance dryer\ndryer is 240 V\nproof one 1\n\
             proof two 3\nproof three 2\nproof four 4\nproof dryer 5-7\n\
             trouble t1 one {\"also\": [{\"point\": \"three\", \"symptom\": \"dark\"}], \"works\": [\"two\", \"four\"], \"extent\": \"half\"}",
        )
        .await?;
    let trips = Trips(page);
    page.goto(&format!("{}/h/weir/trips/t1", site.address)).await?;
    page.press("None of these").await?;
    trips.road_has("utility", 50).await?;
    for looks in 1..8 {
        match trips.after(looks).await?.as_str() {
            "Look at Den, dryer" => page.press("Some life, little heat").await?,
            "Do the neighbors have light?" => page.press("They have").await?,
            "" => break,
            _ => page.press("Cannot tell: another look").await?,
        }
    }
    trips.named("One leg of the service is lost").await
}
