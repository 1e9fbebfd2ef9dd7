//! Loads: what is where, entered on a phone with every tap counted; circuits ranked, a reading, what may not run together.

use anyhow::{Result, ensure};
use thirtyfour::By;
use wayfinder_e2e::screens::Loads;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

use crate::first_use::Counter;

/// A kitchen and a schoolroom, each proven on a breaker of its own; a shed behind a feeder. Invented.
const HOUSE: &str = "home Weir House
panel 12
with main {\"main\": 100}
1 20 kitchen
3 15 #14 schoolroom
2 15 spare
5-7 30/2 #10 shed
sub Shed 6 5-7
shed: 1 20 bench
room Kitchen
room Schoolroom
room Shed
point Kitchen receptacle left
point Kitchen receptacle right
point Kitchen appliance dishwasher
point Schoolroom receptacle window
point Schoolroom receptacle stage
point Shed receptacle bench
proof left 1
proof right 1
proof dishwasher 1
proof window 3
proof stage 3
proof bench S1";

pub(crate) async fn loads_of_a_home(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, HOUSE).await?;
    let home = format!("{}/h/weir", site.address);
    let loads = Loads(page);
    page.goto(&format!("{home}/loads")).await?;
    loads.title_says("What each circuit carries").await?;
    page.press("Enter what is where").await?;
    // By its name a dishwasher is there; one tap takes what the library says.
    loads.room_says("dishwasher").await?;
    page.press("Enter all 2").await?;
    loads.room_says("dishwasher heating").await?;
    loads.add("left", "kett", "kettle").await?;
    loads.add("right", "toas", "toaster").await?;
    page.press("Next room: Schoolroom").await?;
    loads.add("window", "portable h", "portable heater").await?;
    loads.add("stage", "portable h", "portable heater").await?;
    loads.add("stage", "lantern slides", "“lantern slides”").await?;
    page.press("All circuits").await?;
    loads.title_says("One circuit comes to more than may be carried").await?;
    loads.stands("3", "over").await?;
    loads.stands("2", "nothing").await?;
    ensure!(loads.order().await?[0] == "3", "{:?}", loads.order().await?);
    loads.not_together_says("portable heater").await?;
    loads.legs_say("Leg ").await?;

    // One circuit: ticking what runs, and the reading that makes it fit.
    loads.open("3").await?;
    loads.circuit_says("25.0 A expected, which is more than its breaker, 15.0 A.").await?;
    loads.ticked_says("as ticked").await?;
    loads.tick("portable heater").await?;
    loads.ticked_says("20.0 A as ticked. The breaker may trip, and it may hold for ever.").await?;
    page.press("Read what portable heater takes").await?;
    page.choose("Read with", "the utility's meter, its kW before and after").await?;
    page.fill("Before it is switched on, kW", "1.0").await?;
    page.fill("After, kW", "0.4").await?;
    page.press("Save").await?;
    loads.dialog_says("After it is switched on the meter shows more than before").await?;
    page.fill("After, kW", "1.3").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.circuit_says("15.0 A expected").await?;
    // A plate as it is typed; what is no plate is said, and nothing is lost.
    page.press("Change lantern slides").await?;
    page.press("More: how often, fastened, together with").await?;
    page.fill("Minutes each time", "20").await?;
    page.press("Save").await?;
    loads.dialog_says("How often wants both").await?;
    page.fill("Times a day", "2").await?;
    page.choose("What it takes is known by", "its data plate").await?;
    page.fill("The plate says", "120 V").await?;
    page.press("Save").await?;
    loads.dialog_says("There are neither amperes nor watts.").await?;
    page.fill("The plate says", "120 V 60 W").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.circuit_says("All on at once, 15.5 A").await?;
    // A clamp that shows far more than the breaker carries is asked about.
    page.press("A clamp reading").await?;
    page.fill("The clamp shows, A", "150").await?;
    page.press("Save").await?;
    loads.dialog_says("150 A on a breaker of 15 A is hardly right").await?;
    page.fill("The clamp shows, A", "13.1").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    page.press("Move portable heater to another circuit").await?;
    loads.could_go_says("Kitchen").await?;
    page.can_be_used_by_everybody().await?;

    // The service calculation: nothing is promised before what limits it is read, and a new load stands beside today.
    page.goto(&format!("{home}/loads/service")).await?;
    loads.service_says("has still to be read").await?;
    page.press("Meter base, seasons").await?;
    page.fill("The meter base, by its label, A", "100").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    // A line is corrected with its reason, and goes back to what the facts say.
    page.press("Correct Lighting and outlets").await?;
    page.fill("Lighting and outlets, ft²", "12").await?;
    page.fill("How it is known", "measured with a tape").await?;
    page.press("Save").await?;
    loads.dialog_says("12 ft² cannot be the area of a dwelling.").await?;
    page.fill("Lighting and outlets, ft²", "1000").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.sheet_says("1000 ft²: measured with a tape; in place of 0 ft² by the plan").await?;
    page.press("Correct Cooking").await?;
    page.fill("The plates in all, W", "12000").await?;
    page.fill("How it is known", "by the seller").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.sheet_says("12000 W: by the seller").await?;
    page.press("Correct Cooking").await?;
    page.press("Back to what the facts say").await?;
    page.dialog_closed().await?;
    page.wait_gone(By::XPath("//*[@data-testid='sheet']//*[contains(., '12000 W: by the seller')]")).await?;
    page.fill("Its plate, W or VA", "9600").await?;
    loads.service_says("With the new load the service comes to").await?;
    page.choose("Method", "standard").await?;
    loads.sheet_says("220.55").await
}

/// Ten appliances of a kitchen: the point at which each is, the letters typed, what is taken.
const TEN: [(&str, &str, &str); 10] = [
    ("left of sink", "kett", "kettle"),
    ("left of sink", "toast", "toaster"),
    ("right of sink", "coff", "drip coffee maker"),
    ("right of sink", "air", "air fryer"),
    ("island", "blend", "blender"),
    ("island", "stand m", "stand mixer"),
    ("table", "lap", "laptop charger"),
    ("table", "tele", "television"),
    ("shelf", "microwave c", "microwave countertop"),
    ("shelf", "slow", "slow cooker"),
];

/// Two minutes at a second a tap and a third of a second a key, the cost of a thumb (our estimate), would be 120.
const SECONDS: [f64; 2] = [1.0, 0.33];

pub(crate) async fn a_room_of_ten_appliances_is_counted(_: &Chrome, page: &Page, view: View) -> Result<()> {
    let site = Site::empty().await?;
    let points: String = ["left of sink", "right of sink", "island", "table", "shelf"]
        .map(|name| format!("point Kitchen receptacle {name}\n"))
        .concat();
    Somebody::new(&site, "weir").act(0, &format!("home Weir House\npanel 12\n1 20\nroom Kitchen\n{points}")).await?;
    let mut counter = Counter::on(page).await?;
    page.goto(&format!("{}/h/weir/loads/enter", site.address)).await?;
    for (point, letters, appliance) in TEN {
        Loads(page).add(point, letters, appliance).await?;
    }
    let (taps, keys) = counter.since().await?;
    println!("ten appliances on a {view:?}: {taps} taps, {keys} keys");
    ensure!(taps <= 20, "{taps} taps for ten appliances: one opens the list, one takes the appliance");
    ensure!(taps as f64 * SECONDS[0] + keys as f64 * SECONDS[1] < 120.0, "{taps} taps and {keys} keys");
    let known: serde_json::Value = reqwest::get(format!("{}/api/homes/weir/loads", site.address)).await?.json().await?;
    ensure!(known["elsewhere"].as_array().map(Vec::len) == Some(10), "{known}");
    Ok(())
}

/// A day of quarters of an hour at 300 W, with one of 9.84 kW at 18:15; `more` stands behind each line's figure. Invented.
fn a_day(header: &str, figure: impl Fn(&str) -> String) -> String {
    let quarter =
        |n: u32| format!("2026-01-14 {:02}:{:02},{}\n", n / 4, n % 4 * 15, figure(if n == 73 { "2.46" } else { "0.075" }));
    format!("{header}\n{}", (0..96).map(quarter).collect::<String>())
}

pub(crate) async fn usage_data_are_read_looked_at_and_recorded(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, HOUSE).await?;
    let loads = Loads(page);
    let folder = tempfile::tempdir()?;
    let file = |name: &str, bytes: &[u8]| -> Result<std::path::PathBuf> {
        let path = folder.path().join(name);
        std::fs::write(&path, bytes)?;
        Ok(path)
    };
    page.goto(&format!("{}/h/weir/loads/usage", site.address)).await?;
    loads.usage_says("A year by the utility's meter").await?;
    page.give("A file of usage", &file("photo.csv", b"\x89PNG\r\n\x1a\n\0\0")?).await?;
    loads.usage_error_says("This is neither a CSV file nor usage XML").await?;
    let entity = b"<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/hostname\">]><feed>&e;</feed>";
    page.give("A file of usage", &file("entity.xml", entity)?).await?;
    loads.usage_error_says("declares a document type").await?;
    // Two columns of figures and no unit: what is guessed can be corrected before anything is recorded.
    let table = a_day("from,heat pump,house", |kwh| format!("0.01,{kwh}"));
    page.give("A file of usage", &file("quarters.csv", table.as_bytes())?).await?;
    loads.usage_error_says("less than any house takes").await?;
    let table = a_day("from,house,heat pump", |kwh| format!("{kwh},0.2"));
    page.give("A file of usage", &file("quarters.csv", table.as_bytes())?).await?;
    loads.preview_says("was 9.84 kW on 14 January 2026 at 18:15").await?;
    loads.preview_says("a guess: the file does not say").await?;
    page.choose("Their unit", "kW, its mean").await?;
    loads.preview_says("was 2.46 kW").await?;
    page.choose("Their unit", "kWh of the interval").await?;
    loads.preview_says("was 9.84 kW").await?;
    page.press("Record it").await?;
    loads.usage_says("The highest demand of this one day was 9.84 kW").await?;
    page.can_be_used_by_everybody().await?;
    // What is no year gives no verdict.
    page.press("May a load be added?").await?;
    loads.sheet_says("9.84 kW on 14 January 2026 at 18:15").await?;
    loads.service_says("has still to be read").await
}

/// A heater and a toaster that decide by a reading, a circuit of lamps, a feeder.
const SURVEYED: &str = "load left toaster
load right kettle
load window space_heater
load stage led_60
load bench kettle";

pub(crate) async fn the_survey_asks_until_it_is_settled(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, &format!("{HOUSE}\n{SURVEYED}")).await?;
    let loads = Loads(page);
    page.goto(&format!("{}/h/weir/loads/survey", site.address)).await?;
    loads.survey_says("of 3 circuits settled").await?;
    // As it asks, until it has nothing more to ask; what cannot be read is passed over.
    loads.survey_asks("Read the portable heater at Schoolroom, window").await?;
    page.press("Write the reading down").await?;
    page.fill("It shows while it runs, A", "400").await?;
    page.press("Save").await?;
    loads.dialog_says("400 A is hardly what one load takes.").await?;
    page.fill("It shows while it runs, A", "8.1").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.survey_says("of 3 circuits settled").await?;
    page.goto(&format!("{}/h/weir/loads/survey?for=feeder&breaker=b5-7", site.address)).await?;
    loads.survey_answers("Its heavier leg comes to").await?;
    page.goto(&format!("{}/h/weir/loads/survey?for=add&breaker=b1&amps=2", site.address)).await?;
    loads.survey_says("2.0 A").await?;
    page.goto(&format!("{}/h/weir/loads/survey?clamp=yes", site.address)).await?;
    page.find(By::XPath("//*[@role='alert' and contains(., 'arc-flash')]")).await?;
    page.can_be_used_by_everybody().await?;
    // Volts at a breaker say which of the two is bad.
    page.goto(&format!("{}/h/weir/loads/circuit/b1", site.address)).await?;
    page.press("Volts at the breaker").await?;
    page.press("Save").await?;
    loads.dialog_says("No volts are given.").await?;
    page.fill("On the bus side, V", "121").await?;
    page.fill("On the breaker's own terminal, V", "62").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.diagnosis_says("the breaker loses the rest").await?;
    // A thermal picture, beside a like breaker.
    page.press("A thermal picture").await?;
    page.choose("The camera shows", "degrees Celsius").await?;
    page.fill("Its hottest place, °C", "30").await?;
    page.fill("A like breaker beside it, °C", "34").await?;
    page.press("Save").await?;
    loads.dialog_says("colder than the like one").await?;
    page.fill("Its hottest place, °C", "61").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.heat_says("27 °C (49 °F) warmer than a like breaker").await?;
    // Volts at outlets: the next reading that tells a circuit from the whole house; an open neutral stops everything.
    page.goto(&format!("{}/h/weir/loads", site.address)).await?;
    page.press("Volts at an outlet").await?;
    page.choose("At", "Kitchen, left").await?;
    page.fill("The meter shows, V", "104").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.supply_says("below 108 V with everything on").await?;
    page.press("Write volts down").await?;
    page.choose("At", "Schoolroom, window").await?;
    page.fill("The meter shows, V", "138").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    loads.supply_says("call an electrician and the utility").await?;
    page.can_be_used_by_everybody().await?;
    page.goto(&format!("{}/h/weir/loads/survey", site.address)).await?;
    loads.survey_says("neutral").await?;
    ensure!(page.count("[data-testid=survey-step]").await? == 0, "nothing more is asked for");
    Ok(())
}
