//! The directory: own words over those worked out, where they no longer match, and the printed card.

use anyhow::{Result, ensure};
use thirtyfour::{By, Key};
use wayfinder_e2e::screens::{Book, Directory, Stickers, Tests};
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};

/// A panel of eight spaces with a little proven. Invented.
const HOUSE: &str = "home Mill House
panel 8
1 20 #12 kitchen
3 15 #14 gen. light
5 15 #14 spare
room Kitchen
room Hall
point Kitchen receptacle counter
point Kitchen appliance refrigerator
point Hall light lantern
point Hall receptacle door
proof counter 1
proof lantern 3";

pub(crate) async fn own_words_stand_until_more_is_proven(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "mill");
    somebody.act(0, HOUSE).await?;
    page.goto(&format!("{}/h/mill/directory", site.address)).await?;
    let directory = Directory(page);
    page.heading_says("The card for the door").await?;
    directory.line_says("1", "proven", "Kitchen: receptacle").await?;
    directory.fits("every line fits").await?;
    // Own words, over a proven line and over one that is not.
    directory.word("1", "Kitchen counter").await?;
    directory.line_says("1", "proven", "Kitchen counter").await?;
    directory.word("5", "Doorbell").await?;
    directory.line_says("5", "not_proven", "Doorbell (not proven)").await?;
    // More is proven elsewhere: the words are to be looked at, and they may stay.
    somebody.act(0, "proof refrigerator 1").await?;
    page.heading_says("One line no longer matches what is known").await?;
    directory.drift_says("1", "Proven on it since: Kitchen, refrigerator.").await?;
    directory.line_says("1", "proven", "≠ Kitchen counter").await?;
    for scheme in ["dark", "light"] {
        page.scheme(scheme).await?;
        page.wait_scheme(scheme).await?;
        page.can_be_used_by_everybody().await?;
    }
    page.press("Keep mine for 1").await?;
    page.heading_says("The card for the door").await?;
    directory.line_says("1", "proven", "Kitchen counter").await?;
    // Two at once, all taken with one act, and taken back with another.
    directory.word("3", "Hall lantern").await?;
    somebody.act(0, "point Kitchen receptacle sink\nproof sink 1\nproof door 3").await?;
    page.heading_says("2 lines no longer match what is known").await?;
    page.press("Take all 2").await?;
    page.heading_says("The card for the door").await?;
    directory.line_says("1", "proven", "Kitchen: refrigerator, 2 receptacles").await?;
    page.press("Strike it out").await?;
    page.heading_says("2 lines no longer match what is known").await?;
    // The printed card: by amps, and in the chosen colors it stays.
    page.choose("Colors", "by amps").await?;
    let link = directory.pdf().await?;
    ensure!(link.contains("colors=amps") && link.contains("by=Owner"), "{link}");
    let pdf = reqwest::get(format!("{}{link}", site.address)).await?.error_for_status()?.bytes().await?;
    ensure!(pdf.starts_with(b"%PDF"), "no PDF");
    page.can_be_used_by_everybody().await?;
    // It hangs; then a breaker is moved, and the card in the door says so, the dangerous line first.
    page.press("Take all 2").await?;
    page.heading_says("The card for the door").await?;
    directory.hang().await?;
    directory.hanging_says("Every line of it is right.").await?;
    ensure!(page.count("[data-testid=hanging] button[type=button]").await? > 0, "it can be taken down");
    ensure!(
        !page.test_id("hanging").await?.text().await?.contains("must stand at the foot"),
        "a card that is right is not hung again"
    );
    somebody.act(0, "move 1 7").await?;
    directory.wrong_line_says("1", "Kitchen, counter is proven on 7 now.").await?;
    directory.hanging_says("One line sends the hand to the wrong breaker.").await?;
    page.can_be_used_by_everybody().await?;
    page.goto(&format!("{}/h/mill/more", site.address)).await?;
    page.wait_text(By::Css("nav[aria-label='Other workspaces']"), "the card in the door misleads: 1 line").await
}

pub(crate) async fn stickers_begin_at_the_seventh_label(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "mill");
    somebody.act(0, HOUSE).await?;
    page.goto(&format!("{}/h/mill/directory", site.address)).await?;
    page.press("Stickers").await?;
    let stickers = Stickers(page);
    stickers.count_says("1 sticker on 1 sheet, beginning at label 1 of 30.").await?;
    somebody.act(0, "proof refrigerator 1\nproof door 3").await?;
    stickers.begin_at(7).await?;
    stickers.count_says("3 stickers on 1 sheet, beginning at label 7 of 30.").await?;
    page.can_be_used_by_everybody().await?;
    let link = page.named("button", "Print, true size").await?.attr("href").await?.unwrap_or_default();
    ensure!(link.contains("begin=7"), "{link}");
    let pdf = reqwest::get(format!("{}{link}", site.address)).await?.error_for_status()?.bytes().await?;
    ensure!(pdf.starts_with(b"%PDF"), "no PDF");
    // Every sheet that is offered prints; one that cannot be is said here, not in the PDF's place.
    for preset in ["Letter, 4 by 15, 48 by 16 mm", "A4, 3 by 8, 64 by 33 mm", "A4, 5 by 13, 38 by 21 mm"] {
        page.choose("Labels", preset).await?;
        let link = page.named("button", "Print, true size").await?.attr("href").await?.unwrap_or_default();
        reqwest::get(format!("{}{link}", site.address)).await?.error_for_status()?;
    }
    page.press("More: sizes of the sheet").await?;
    page.fill("Label, width, mm", "90").await?;
    page.keys(&format!("{}", Key::Tab + "")).await?;
    page.wait_text(By::Css("[data-testid=sheet-problem]"), "outside the paper").await?;
    page.choose("Labels", "A4, 3 by 8, 64 by 33 mm").await?;
    page.wait_gone(By::Css("[data-testid=sheet-problem]")).await?;
    // Once printed, only what has changed since is printed again.
    page.press("They are printed and stuck on").await?;
    somebody.act(0, "move 3 6").await?;
    page.choose("Stickers", "only those that changed").await?;
    stickers.count_says("1 sticker on 1 sheet").await?;
    page.press("Back to the card").await?;
    page.heading_says("The card for the door").await
}

pub(crate) async fn own_words_go_out_and_come_back_in_a_sheet(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "mill").act(0, HOUSE).await?;
    let sheet = reqwest::get(format!("{}/api/homes/mill/directory/as/csv", site.address)).await?.error_for_status()?;
    let name = sheet.headers()["content-disposition"].to_str()?.to_owned();
    ensure!(name.contains("Mill House, directory, revision ") && name.contains(".csv"), "{name}");
    let text = sheet.text().await?;
    let changed = text.replace("Kitchen: receptacle,,", "Kitchen: receptacle,Kitchen counter,").replace("\n", "\r\n");
    let folder = tempfile::tempdir()?;
    let (good, bad) = (folder.path().join("words.csv"), folder.path().join("other.csv"));
    std::fs::write(&good, format!("{changed}Main panel,9,,,Attic\r\n"))?;
    std::fs::write(&bad, "a,b\n1,2\n")?;
    page.goto(&format!("{}/h/mill/directory", site.address)).await?;
    page.press("More: files").await?;
    page.give("Sheet with own words", &bad).await?;
    page.notice_says("headings Number and Own words").await?;
    page.give("Sheet with own words", &good).await?;
    page.find(By::XPath("//*[@role='dialog'][contains(., 'Main panel has no “9”.')]")).await?;
    page.can_be_used_by_everybody().await?;
    page.press("Write this line").await?;
    page.dialog_closed().await?;
    Directory(page).line_says("1", "proven", "Kitchen counter").await
}

pub(crate) async fn tests_come_round_and_the_book_is_made(_: &Chrome, page: &Page, view: View) -> Result<()> {
    let site = Site::empty().await?;
    let mut somebody = Somebody::new(&site, "mill");
    somebody.act(0, HOUSE).await?;
    somebody.act(0, "5 20 gfci porch\npoint Kitchen gfci sink\npoint Hall alarm smoke").await?;
    let home = format!("{}/h/mill", site.address);
    // One tested long ago, one that fails, one that works.
    somebody.act(50 * 24 * 60, "tested 5 works").await?;
    page.goto(&format!("{home}/more")).await?;
    page.press("3 are due").await?;
    let tests = Tests(page);
    tests.due_says("3 are due").await?;
    tests.device_says("5, Main panel", "worked on").await?;
    page.press("Kitchen, sink: It did not trip").await?;
    tests.device_says("Kitchen, sink", "It protects nobody any more.").await?;
    page.press("Hall, smoke: It sounded").await?;
    tests.due_says("2 are due").await?;
    page.press("5, Main panel: It tripped and was reset").await?;
    tests.due_says("1 is due").await?;
    page.can_be_used_by_everybody().await?;
    // Taken back: it is due again.
    page.press("Strike it out").await?;
    tests.due_says("2 are due").await?;
    page.press("More: how often").await?;
    page.choose("GFCI and AFCI buttons", "every 2 months").await?;
    page.goto(&format!("{home}/tests")).await?;
    tests.due_says("1 is due").await?;
    page.goto(&format!("{home}/checks")).await?;
    page.says("This GFCI receptacle did not trip when its button was pressed.").await?;
    // The lasting address: its code stands on the card.
    page.goto(&format!("{home}/directory")).await?;
    page.press("More: code for cameras").await?;
    page.fill("Lasting address of this page", "home on the hill").await?;
    page.press("Print its code").await?;
    page.notice_says("That is not the address of a page.").await?;
    page.fill("Lasting address of this page", "https://home.example/h/mill").await?;
    page.press("Print its code").await?;
    page.find(By::Css("[data-testid=card] svg[aria-label='Code of https://home.example/h/mill']")).await?;
    // The book: all of it, then one part alone.
    page.press("Home book").await?;
    let book = Book(page);
    page.press("Make the PDF").await?;
    book.progress_says("Made from revision").await?;
    let all = book.offered().await?;
    ensure!(all > 20, "{all} kB");
    for part in wayfinder_core::BookPart::ALL.into_iter().filter(|part| part.name() != "rooms") {
        page.tick(part.title()).await?;
    }
    page.press("Make the PDF").await?;
    let alone = book.offered().await?;
    ensure!(alone < all, "{alone} of {all}");
    page.can_be_used_by_everybody().await?;
    // The drawing is read by this browser, and its code by a reader that is not ours.
    if view == View::Desk {
        let card = format!("{}/api/homes/mill/directory/as/svg", site.address);
        ensure!(decoded(page, &card).await? == "https://home.example/h/mill");
    }
    Ok(())
}

/// What a reader of codes finds in a drawing, as this browser draws it.
async fn decoded(page: &Page, drawing: &str) -> Result<String> {
    let svg = reqwest::get(drawing).await?.error_for_status()?.text().await?;
    ensure!(svg.starts_with("<?xml") || svg.starts_with("<svg"), "no drawing");
    let folder = tempfile::tempdir()?;
    let (shown, picture) = (folder.path().join("card.svg"), folder.path().join("card.png"));
    std::fs::write(&shown, svg)?;
    // As fine as a printer of 300 dots to the inch.
    let metrics = serde_json::json!({ "width": 1280, "height": 800, "deviceScaleFactor": 3, "mobile": false });
    page.driver.cdp().send_raw("Emulation.setDeviceMetricsOverride", metrics).await?;
    page.goto(&format!("file://{}", shown.display())).await?;
    page.picture(&picture).await?;
    let mut reader = png::Decoder::new(std::io::BufReader::new(std::fs::File::open(&picture)?)).read_info()?;
    let mut bytes = vec![0; reader.output_buffer_size().unwrap_or_default()];
    let frame = reader.next_frame(&mut bytes)?;
    let (width, each) = (frame.width as usize, frame.color_type.samples());
    let gray = |x: usize, y: usize| bytes[(y * width + x) * each];
    let mut seen = rqrr::PreparedImage::prepare_from_greyscale(width, frame.height as usize, gray);
    let grids = seen.detect_grids();
    Ok(grids.first().ok_or_else(|| anyhow::anyhow!("no code is seen"))?.decode()?.1)
}
