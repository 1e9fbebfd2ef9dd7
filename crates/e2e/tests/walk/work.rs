//! Work: a wish and its ways, and every kind of job from its first step to the record that follows.

use anyhow::{Context, Result, ensure};
use thirtyfour::By;
use wayfinder_e2e::screens::{Directory, Panel, Work};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

/// A panel of twelve spaces with what jobs are about, and a sub-panel. Invented.
const HOUSE: &str = "home Weir House
panel 12
main is main 100 A, bus 100 A, listed for 24
1 20 #12 hall
3 15 #14 porch
2-4 30/2 #10 dryer
5 15 #14 lights
7 15 #14 loft
9 20 #12 bench
6 20 #12 spare
room Hall
room Shop
room Loft
point Hall receptacle wall
point Hall light ceiling
point Hall switch door
point Loft light lamp
point Shop receptacle bench
proof wall 1
proof ceiling 5
proof door 5
proof lamp 7
proof bench 9";

/// A new panel of two breakers. Invented.
const NEW_PANEL: &str = "home Weir Barn
panel 4
main is main 60 A, bus 60 A, listed for 4
1 20 #12 bench
2 15 #14 lamps";

/// Every kind of job, several in one opening of the panel, with the numbers that are on the card afterwards.
const JOBS: [(View, &str, &[&str]); 12] = [
    (View::Desk, "main: replace 1 20; replace 3 15 gfci; join 5 7; fill 12", &["1", "3", "7"]),
    (View::Phone, "main: tap 5 7; move 3 10; tighten 1; take-out 6", &["1", "7", "10"]),
    (View::Phone, "main: move 5 8a; move 7 8b; two-pole 9 10-12 20", &["8a", "8b", "10-12"]),
    (View::Desk, "main: new 8 20 freezer in shop; one-pole 2-4 2 20", &["2", "8"]),
    (View::Phone, "main: new 10-12 40 kiln in shop", &["10-12"]),
    (View::Desk, "main: feeder 10-12 60 Studio", &["10-12"]),
    (View::Phone, "point wall receptacle", &["1"]),
    (View::Desk, "point ceiling light", &["5"]),
    (View::Desk, "make-up main", &["1"]),
    (View::Phone, "put-to-use main", &["1", "2"]),
    (View::Desk, "main by An electrician: move 3 10", &["10"]),
    (View::Phone, "reset 3", &["3"]),
];

pub(crate) async fn every_kind_of_job_goes_to_its_end(_: &Chrome, page: &Page, view: View) -> Result<()> {
    let site = Site::empty().await?;
    for (n, (_, job, numbers)) in JOBS.iter().enumerate().filter(|(_, (seen, ..))| *seen == view) {
        let name = format!("weir{n}");
        let house = if job.starts_with("put-to-use") { NEW_PANEL } else { HOUSE };
        let acts = house.replace("home Weir", &format!("home {n} Weir"));
        Somebody::new(&site, &name).act(0, &format!("{acts}\njob j1 {job}")).await?;
        let home = format!("{}/h/{name}", site.address);
        page.goto(&format!("{home}/work/job/j1")).await?;
        let work = Work(page);
        work.live_says("Live all the time:").await.context(*job)?;
        work.to_the_end().await.context(*job)?;
        page.goto(&format!("{home}/directory")).await?;
        for number in *numbers {
            Directory(page).has_line(number).await.context(*job)?;
        }
    }
    Ok(())
}

pub(crate) async fn a_bad_reading_stops_a_job_a_restart_does_not_and_one_stroke_takes_it_back(
    _: &Chrome,
    page: &Page,
    _: View,
) -> Result<()> {
    let mut site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, HOUSE).await?;
    let home = format!("{}/h/weir", site.address);
    // From the breaker's page, with one tap.
    page.goto(&format!("{home}/panel")).await?;
    Panel(page).select("Breaker 3").await?;
    page.press("Work on it").await?;
    page.find(By::XPath("//*[@role='menuitem'][contains(., 'one of the same kind')]")).await?.click().await?;
    let work = Work(page);
    work.progress_says("Step 1 of").await?;
    work.all_steps_say("Prove it dead").await?;
    work.parts_say("One-pole breaker, 15 A").await?;
    work.until("dead").await?;
    work.live_says("the lugs at the top").await?;
    let mut found = page.accessibility().await?;
    found.extend(page.too_small().await?);
    work.read("121").await?;
    work.reading("A to neutral").await?;
    work.read("47").await?;
    work.stop_says("neither dead nor live").await?;
    work.stop_says("It stays off until an electrician has looked").await?;
    for scheme in ["dark", "light"] {
        page.scheme(scheme).await?;
        found.extend(page.accessibility().await?);
    }
    found.extend(page.too_small().await?);
    ensure!(found.is_empty(), "found:\n{}", found.join("\n"));
    page.press("Read all of it again").await?;
    work.reading("live source").await?;
    work.read("121").await?;
    // Nothing is lost when the program is restarted.
    site.stop().await?;
    site.start_again().await?;
    let address = page.driver.current_url().await?;
    page.goto(&format!("{}{}", site.address, address.path())).await?;
    work.step("dead").await?;
    work.reading("A to neutral").await?;
    work.until("in-3").await?;
    work.left_as_says("3 stays off").await?;
    work.to_the_end().await?;
    page.press("Strike it out").await?;
    work.stands("ready").await?;
    // What is found on the way ends it, and is a finding.
    page.press("All work").await?;
    page.goto(&format!("{}/h/weir/panel", site.address)).await?;
    Panel(page).select("Breaker 1").await?;
    page.press("Work on it").await?;
    page.find(By::XPath("//*[@role='menuitem'][contains(., 'Tighten')]")).await?.click().await?;
    work.until("look").await?;
    work.choose("burnt").await?;
    work.stop_says("Found: heat, burn marks or a smell.").await?;
    page.goto(&format!("{}/h/weir/checks", site.address)).await?;
    page.find(By::Css("[data-finding=found-on-a-job]")).await?;
    Ok(())
}

pub(crate) async fn a_wish_has_its_ways_side_by_side(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, HOUSE).await?;
    let home = format!("{}/h/weir", site.address);
    page.goto(&format!("{home}/work")).await?;
    page.fill("What do you want of the panel?", "20 A circuit for the freezer that takes 8 A").await?;
    // By the keyboard alone.
    page.keys("\u{e007}").await?;
    let work = Work(page);
    work.title_says("a new circuit: 20 A, one-pole for the freezer").await?;
    let ways = work.ways().await?;
    ensure!(ways.first().is_some_and(|way| way == "An open space"), "{ways:?}");
    // Joined, without one of the two.
    page.goto(&format!("{home}/work?wish=combine+two+light+circuits")).await?;
    work.title_says("two circuits on one breaker").await?;
    let joined = work.ways().await?;
    ensure!(joined.iter().any(|way| way == "Joining two circuits"), "{joined:?}");
    // What is read is answered where it stands, and asked for no more.
    let answered = work.answer_the_first_to_read().await?;
    ensure!(answered.contains("terminal") || answered.contains("wire") || answered.contains("splices"), "{answered}");
    page.find(By::XPath("//button[starts-with(normalize-space(.), 'Not ')]")).await?.click().await?;
    page.find(By::XPath("//button[contains(., ' again')]")).await?;
    page.goto(&format!("{home}/work?wish=make+the+bench+outlet+240+V")).await?;
    work.title_says("240 V in place of 120 V").await?;
    page.goto(&format!("{home}/work?wish=GFCI+for+the+bench")).await?;
    work.title_says("GFCI").await?;
    page.press("Make the job sheet").await?;
    work.progress_says("Step 1 of").await?;
    // By touch.
    page.goto(&format!("{home}/work")).await?;
    page.press("More: put it together by touch").await?;
    page.choose("Wanted", "the legs leveled").await?;
    page.press("Find ways to this").await?;
    work.title_says("leveling the legs").await?;
    page.goto(&format!("{home}/work?wish=a+pony")).await?;
    page.wait_text(By::Css("main"), "was not understood").await?;
    Ok(())
}

pub(crate) async fn a_circuit_is_sized_and_a_price_list_ranks_the_ways(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, HOUSE).await?;
    let home = format!("{}/h/weir", site.address);
    page.goto(&format!("{home}/work/size")).await?;
    let work = Work(page);
    page.fill("What the circuit is for", "kiln").await?;
    page.fill("It takes, A", "32").await?;
    work.size_says("35 A, 8 AWG copper, ground 10 AWG").await?;
    work.size_lines_say("two hots and a ground").await?;
    // In place of the rule, with who says so; kept, and there again.
    page.press("Ground: The inspector says").await?;
    page.fill("What it is to be", "8").await?;
    page.fill("Who says so, when and why", "the inspector, at the rough-in").await?;
    page.press("Save").await?;
    work.size_says("ground 8 AWG").await?;
    let mut found = page.accessibility().await?;
    found.extend(page.too_small().await?);
    ensure!(found.is_empty(), "found:\n{}", found.join("\n"));
    page.press("Keep it").await?;
    page.find(By::Css("[data-kept=kiln]")).await?;
    page.goto(page.driver.current_url().await?.as_ref()).await?;
    work.size_lines_say("8 AWG copper, as the inspector says").await?;
    page.press("Find room for it").await?;
    work.title_says("35 A, two-pole for the kiln").await?;
    // What cannot be sized says why, and nothing typed is lost.
    page.goto(&format!("{home}/work/size")).await?;
    page.fill("It takes, A", "390").await?;
    page.wait_text(By::Css("[data-testid=size-refused]"), "No ").await?;
    // A list of prices: read, looked at, taken; then money stands beside the minutes.
    page.goto(&format!("{home}/work")).await?;
    let folder = tempfile::tempdir()?;
    let list = folder.path().join("prices.csv");
    let rows = [
        "one-pole breaker,9",
        "one-pole GFCI breaker,52",
        "one-pole AFCI breaker,47",
        "one-pole dual-function breaker,58",
        "two-pole breaker,19",
        "two-pole GFCI breaker,112",
        "two-pole AFCI breaker,115",
        "two-pole dual-function breaker,125",
        "tandem,26",
        "wire and connector to lengthen one wire,4",
        "pigtail and connector to join two circuits,3",
        "pigtail and connector to join their neutrals,1",
        "sub-panel with its feeder,210",
        "wire of one pole to a sub-panel,7",
        "visit of an electrician,380",
        "doorbell,12",
    ];
    std::fs::write(&list, format!("what,price in $\n{}\n", rows.join("\n")))?;
    page.give("A price list, CSV, XLSX or ODS", &list).await?;
    work.prices_say("15 prices were read, in $").await?;
    work.prices_say("doorbell").await?;
    page.press("Take this list").await?;
    page.goto(&format!("{home}/work?wish=20+A+circuit+for+the+freezer+that+takes+8+A")).await?;
    page.wait_text(By::Css("[data-way='An open space']"), "$ 9 by your price list").await?;
    Ok(())
}

pub(crate) async fn a_job_goes_to_its_end_by_the_keys_alone(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "weir").act(0, &format!("{HOUSE}\njob j1 main: replace 3 15 gfci")).await?;
    page.goto(&format!("{}/h/weir/work/job/j1", site.address)).await?;
    let work = Work(page);
    work.progress_says("Step 1 of").await?;
    while work.at().await?.stands == "open" {
        work.pass_by_keys().await?;
    }
    work.stands("ready").await
}

pub(crate) async fn a_made_up_panel_is_worked_on_and_stops_where_something_is_wrong(
    _: &Chrome,
    page: &Page,
    _: View,
) -> Result<()> {
    let site = Site::empty().await?;
    page.goto(&site.address).await?;
    page.choose("To practice", "work: a wish, its best way, and the job sheet").await?;
    page.choose("How hard", "Tricky").await?;
    page.fill("Points", "16").await?;
    page.fill("House number", "1").await?;
    page.press("Make this house").await?;
    page.wait_text(By::Css("[data-testid=practice-wish]"), "The wish:").await?;
    page.press("Find ways").await?;
    page.press("Make the job sheet").await?;
    let work = Work(page);
    work.progress_says("Step 1 of").await?;
    // Answered by what the meter shows, until the sheet stops.
    while work.at().await?.stands == "open" {
        work.pass_by_the_instrument().await?;
    }
    work.stands("stopped").await?;
    let mut found = page.accessibility().await?;
    found.extend(page.too_small().await?);
    ensure!(found.is_empty(), "found:\n{}", found.join("\n"));
    page.press("The job ends here").await?;
    let address = page.driver.current_url().await?;
    let home = address.path().split('/').nth(2).context("no home in the address")?;
    page.goto(&format!("{}/h/{home}/practice", site.address)).await?;
    page.wait_text(By::Css("[data-testid=marks]"), "the job stopped there").await?;
    page.press("I am done: show what was wrong").await?;
    page.wait_text(By::Css("[data-testid=marks]"), "The panel").await?;
    Ok(())
}
