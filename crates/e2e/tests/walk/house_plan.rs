//! The house plan: drawn with one thumb, kept in the drawing, found again, out and in as files.

use anyhow::{Context, Result, ensure};
use wayfinder_e2e::screens::{Find, Homes, Panel, PlanScreen};
use wayfinder_e2e::{Chrome, Page, Site, View};

/// A receptacle of the demo home.
const COUNTER: &str = "kitchen-counter-north-left";

const ENTER: &str = "\u{e007}";
const ESCAPE: &str = "\u{e00c}";
const RIGHT: &str = "\u{e014}";
const SHIFT_RIGHT: &str = "\u{e008}\u{e014}";
const SHIFT_UP: &str = "\u{e008}\u{e013}";

async fn undo(page: &Page) -> Result<()> {
    page.press("Strike it out").await
}

/// Counts every tap on the page from here on.
async fn count_taps(page: &Page) -> Result<()> {
    let script =
        "window.taps = 0; document.addEventListener('click', e => { if (e.isTrusted || e.clientX) window.taps += 1; }, true);";
    page.driver.execute(script, vec![]).await?;
    Ok(())
}

async fn taps(page: &Page) -> Result<usize> {
    page.driver.execute("return window.taps", vec![]).await?.convert().context("no count")
}

pub(crate) async fn a_ten_room_house_is_drawn_in_few_taps(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let home = Homes(page).start(&site.address, "Ferry House").await?;
    Panel(page).describe(12).await?;
    page.goto(&format!("{home}/house")).await?;
    page.says("Nothing is drawn here yet").await?;
    count_taps(page).await?;
    let plan = PlanScreen(page);
    // What is no size says so where it is typed, and draws nothing.
    page.fill("Room and size", "Kitchen 4,2x-1").await?;
    PlanScreen(page).room_read("“-1” is below zero").await?;
    let rooms = [
        ("Kitchen 4.2 x 3.6", "Draw it"),
        ("Pantry 2 x 3.6", "Right of it"),
        ("Hall 6.2 x 1.6 below Kitchen", "Below it"),
        ("Bath 2.2 x 2.4", "Below it"),
        ("Bedroom 4 x 3.4 less 1 x 0.9 top left", "Right of it"),
        ("Study 3 x 3.4", "Right of it"),
        ("Living room 5.4 x 4.6", "Above it"),
        ("Porch 2.4 x 1.4", "Right of it"),
        ("Laundry 2 x 2", "Below it"),
        ("Workshop 13'9\" x 11'10\"", "Below it"),
    ];
    let mut keys = 0;
    for (room, side) in rooms {
        keys += room.len();
        plan.room(room, side).await?;
    }
    let for_rooms = taps(page).await?;
    ensure!(for_rooms <= 2 * rooms.len(), "{for_rooms} taps for {} rooms", rooms.len());
    ensure!(keys <= 25 * rooms.len(), "{keys} keys for {} rooms", rooms.len());
    PlanScreen(page).floor_says("10 rooms").await?;
    ensure!(plan.notes().await? == 0, "no two of them overlap");
    // Twelve receptacles along the kitchen's and the hall's walls: one tap each.
    page.press("Receptacle").await?;
    let mut points = 0;
    for (x, y) in
        [(600, 50), (1800, 50), (3000, 50), (100, 900), (100, 2400), (4100, 1200), (600, 3700), (2000, 3700), (4000, 5150)]
    {
        // One tap after the other, without waiting for what the one before brings.
        plan.tap(x, y).await?;
        points += 1;
    }
    plan.wait_points(points).await?;
    page.press("Light").await?;
    plan.tap(2100, 2400).await?;
    plan.point("Kitchen, ceiling, light").await?;
    page.press("Done placing").await?;
    let all = taps(page).await?;
    println!("ten rooms and ten points: {for_rooms} and {} taps, {keys} keys", all - for_rooms);
    ensure!(all <= for_rooms + 14, "{all} taps");
    plan.point("Kitchen, north wall 2, receptacle").await?;
    PlanScreen(page).floor_says("10 points · 10 without a circuit").await?;
    // Nothing of it is lost.
    page.goto(&format!("{home}/house")).await?;
    plan.point("Hall, north wall, receptacle").await.map(drop)
}

pub(crate) async fn rooms_doors_and_points_are_kept_in_the_drawing(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    page.goto(&format!("{home}/house?at=p:kitchen-counter-north-left")).await?;
    let plan = PlanScreen(page);
    PlanScreen(page).point_says("Fed by breaker 1 of Main panel: proven").await?;
    PlanScreen(page).point_says("Goes dark with it: Kitchen, counter, north middle").await?;
    // Dragged with the mouse along its wall; taken back.
    let before = plan.points().await?;
    let (x, y) = plan.pixel(7050, 150).await?;
    let (to_x, to_y) = plan.pixel(8300, 60).await?;
    page.driver.action_chain().move_to(x, y).click_and_hold().move_by_offset(to_x - x, to_y - y).release().perform().await?;
    page.notice_says("counter, north left placed").await?;
    plan.wait_stands(COUNTER, "8").await?;
    undo(page).await?;
    plan.wait_stands_not(COUNTER, "8").await?;
    // By keyboard: Shift and an arrow move the selected one.
    plan.focus(&format!("p:{COUNTER}")).await?;
    for hundreds in ["71", "72", "73"] {
        page.keys(SHIFT_RIGHT).await?;
        plan.wait_stands(COUNTER, hundreds).await?;
    }
    page.keys(RIGHT).await?;
    plan.wait_selected_other_than(COUNTER).await?;
    // Halves that differ are two points in one device.
    page.goto(&format!("{home}/house?at=p:kitchen-counter-north-right")).await?;
    page.press("Edit").await?;
    page.press("Its halves differ: split it").await?;
    plan.point("Kitchen, counter, north right, other half").await?;
    ensure!(plan.points().await? == before + 1);
    // A switch and what it switches.
    page.goto(&format!("{home}/house?at=p:schoolroom-switch-by-the-entry")).await?;
    page.press("What it switches").await?;
    page.tick("map light").await?;
    page.press("Save").await?;
    page.dialog_closed().await?;
    page.goto(&format!("{home}/house?at=p:schoolroom-map-light")).await?;
    PlanScreen(page).point_says("Switched by Schoolroom, by the entry").await?;
    // Rooms: a door by one tap, a wall to hold against the tape, an overlap that is kept and explained.
    page.goto(&format!("{home}/house?at=r:pantry")).await?;
    page.press("Door to Darkroom").await?;
    page.says("Door to Darkroom, 0.8 m").await?;
    page.press("Its walls").await?;
    plan.walls_say("Pantry", "north wall, 2.4 m").await?;
    plan.focus("r:pantry").await?;
    for _ in 0..4 {
        page.keys(SHIFT_UP).await?;
        page.notice_says("Pantry moved").await?;
    }
    // A door that is tapped, and a panel that hangs elsewhere.
    page.press("More to place").await?;
    plan.take("Window", "Tap the wall where it is.").await?;
    let windows = plan.windows().await?;
    plan.tap(10_000, 0).await?;
    page.notice_says("Window in Kitchen").await?;
    ensure!(plan.windows().await? == windows + 1);
    plan.take("Hang Main panel", "Tap the wall where the panel hangs.").await?;
    plan.tap(9_300, 5_000).await?;
    page.notice_says("The panel hangs in Back hall").await?;
    // Measured again so large that it overlaps: kept, shown, explained.
    page.fill("Room and size", "Entry 3.6 x 1.8").await?;
    page.keys(ENTER).await?;
    PlanScreen(page).note_says("overlap by").await?;
    page.press("Draw it larger").await?;
    // Feet and inches throughout.
    page.press("More for this floor").await?;
    page.press("Lengths in feet and inches").await?;
    plan.shows("Schoolroom, 21'8").await?;
    // What has no number yet, one after the other, on every floor.
    page.press("Step through them").await?;
    let first = page.driver.current_url().await?.to_string();
    page.keys("n").await?;
    ensure!(page.driver.current_url().await?.to_string() != first);
    page.test_id("point-facts").await.map(drop)
}

pub(crate) async fn lengths_are_in_feet_where_they_are_said_so(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    page.speaks("en-US").await?;
    let home = Homes(page).start(&site.address, "Fern House").await?;
    page.goto(&format!("{home}/house")).await?;
    page.fill("Room and size", "Kitchen 13 x 12").await?;
    page.keys(ENTER).await?;
    PlanScreen(page).shows("Kitchen, 13'").await?;
    // It can be said otherwise from the start.
    page.goto(&site.address).await?;
    page.fill("Name of the home", "Larch House").await?;
    page.choose("Lengths", "meters").await?;
    page.press("Start its logbook").await?;
    page.named("button", "Describe the panel").await?;
    let home = page.driver.current_url().await?.as_str().replace("/panel", "/house");
    page.goto(&home).await?;
    page.fill("Room and size", "Kitchen 4 x 3").await?;
    page.keys(ENTER).await?;
    PlanScreen(page).shows("Kitchen, 4.0 × 3.0 m").await
}

pub(crate) async fn anything_is_found_with_what_goes_dark(chrome: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::demo().await?;
    let home = format!("{}/h/juniper-lane", site.address);
    page.goto(&format!("{home}/logbook")).await?;
    page.test_id("logbook").await?;
    let find = Find(page);
    page.keys("/").await?;
    find.letters("mirror").await?;
    find.found_says("Bath, by the mirror").await?;
    find.letters("18").await?;
    find.found_says("Feeds Greenhouse panel").await?;
    find.letters("porch").await?;
    find.found_says("Also goes dark when the GFCI trips at Bath, by the mirror").await?;
    find.letters("cellar work bench").await?;
    find.first_says("Cellar, work bench").await?;
    page.keys(ENTER).await?;
    page.heading_says("Cellar").await?;
    PlanScreen(page).point_says("Cellar, receptacle").await?;
    page.keys("/").await?;
    find.letters("no such thing").await?;
    find.found_says("Nothing here has such a name").await?;
    page.keys(ESCAPE).await?;
    // Walking on a phone: from room to room, a forgotten point added on the way.
    let phone = chrome.open(View::Phone).await?;
    let walked = async {
        phone.goto(&format!("{home}/house/walk/pantry")).await?;
        PlanScreen(&phone).walk_says("back wall").await?;
        PlanScreen(&phone).walk_says("Last seen").await?;
        phone.press("A point is missing").await?;
        phone.fill("Where in the room", "by the window").await?;
        phone.keys(ENTER).await?;
        PlanScreen(&phone).walk_says("by the window").await?;
        PlanScreen(&phone).walk_on_to("Kitchen").await?;
        phone.says("Kitchen: 12 points").await
    }
    .await;
    phone.close().await?;
    walked
}

pub(crate) async fn the_plan_goes_out_and_comes_in(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let from = Site::demo().await?;
    let files = format!("{}/api/homes/juniper-lane/plan/file", from.address);
    let folder = tempfile::tempdir()?;
    let dxf = reqwest::get(format!("{files}/dxf?floor=loft")).await?.error_for_status()?.bytes().await?;
    let pdf = reqwest::get(format!("{files}/pdf?paper=a3")).await?.error_for_status()?.bytes().await?;
    ensure!(pdf.starts_with(b"%PDF"));
    let svg = reqwest::get(format!("{files}/svg?floor=cellar&scale=50")).await?.error_for_status()?.text().await?;
    ensure!(svg.contains("1:50") && svg.contains("Cellar"));
    let too_large = reqwest::get(format!("{files}/svg?floor=ground%20floor&scale=20")).await?;
    ensure!(too_large.status() == 422 && too_large.text().await?.contains("does not fit on this paper"));
    let (good, binary, large, picture, wrong) = (
        folder.path().join("loft.dxf"),
        folder.path().join("binary.dxf"),
        folder.path().join("large.png"),
        folder.path().join("plan.png"),
        folder.path().join("plan.pdf"),
    );
    std::fs::write(&good, &dxf)?;
    std::fs::write(&binary, [b"ABC\0".repeat(100), vec![0; 100]].concat())?;
    std::fs::write(&large, vec![0; 50 << 20])?;
    std::fs::write(&wrong, &pdf)?;
    let site = Site::empty().await?;
    let home = Homes(page).start(&site.address, "Lock Cottage").await?;
    Panel(page).describe(12).await?;
    page.picture(&picture).await?;
    page.goto(&format!("{home}/house")).await?;
    // A drawing: refused with a sentence, then shown before anything is kept.
    page.press("More for this floor").await?;
    page.press("Take rooms from a drawing (DXF)").await?;
    page.give("Drawing", &binary).await?;
    PlanScreen(page).drawing_error("Save it as DXF in text form").await?;
    page.give("Drawing", &good).await?;
    PlanScreen(page).drawing_read("2 rooms and 11 points, in millimeters").await?;
    page.press("Draw these rooms").await?;
    page.dialog_closed().await?;
    PlanScreen(page).floor_says("2 rooms · 11 points · 11 without a circuit").await?;
    PlanScreen(page).point("Loft study, ceiling").await?;
    // A picture underneath: what is too large or none says so; two taps and a length give the scale.
    page.press("More for this floor").await?;
    page.press("A photo or scan underneath").await?;
    for (path, says) in [(&large, "the limit is 8 MB"), (&wrong, "cannot be shown as a picture")] {
        page.give("Picture of the plan", path).await?;
        PlanScreen(page).backdrop_error(says).await?;
    }
    page.give("Picture of the plan", &picture).await?;
    let plan = PlanScreen(page);
    plan.tap_picture(-150).await?;
    page.dialog_says("Tap the other end").await?;
    let shown_px = plan.tap_picture(150).await?;
    page.fill("Its length", "eight").await?;
    page.press("Put it underneath").await?;
    PlanScreen(page).backdrop_error("“eight” is no length").await?;
    page.fill("Its length", "8.2").await?;
    page.press("Put it underneath").await?;
    page.dialog_closed().await?;
    let width = plan.picture_width().await?;
    // The two taps were 300 px of the shown picture apart, and are 8.2 m.
    ensure!((width - 8_200.0 / 300.0 * shown_px).abs() < 0.02 * width, "{width} mm for {shown_px} px");
    // Rooms as a list: what is not understood stays in the field.
    page.press("Rooms as a list").await?;
    page.fill("The rooms", "cellar:\nWorkshop 5 x 4\nStore 5 x 4 below Workshop\nNook 2 x 2 left of Nowhere").await?;
    PlanScreen(page).rooms_read("There is no room called “Nowhere”").await?;
    page.press("Draw 2 rooms").await?;
    PlanScreen(page).rooms_read("Nowhere").await?;
    // The sentence stood there before: what is left in the field says that the rooms are drawn.
    page.wait_until(
        "what is not understood is left",
        async || Ok(page.value("The rooms").await? == "Nook 2 x 2 left of Nowhere"),
    )
    .await?;
    page.press("Cancel").await?;
    page.press("Cellar").await?;
    PlanScreen(page).floor_says("2 rooms").await
}
