//! A made-up house of 60 points traced on a phone by a script that plays the walker: it reads the instruments on the
//! screen and presses what they show. Its acts are those of the crew that traces the same house without a screen.

use anyhow::{Context, Result, bail, ensure};
use serde_json::{Value, json};
use thirtyfour::By;
use wayfinder_core::sim::trace_through;
use wayfinder_core::{Level, Recipe};
use wayfinder_core::{Method, TraceSetup};
use wayfinder_e2e::screens::{Loads, Practice, Trace};
use wayfinder_e2e::{Chrome, Page, Site, View};

/// Draws the house as the screen would; gives its address.
pub(crate) async fn made_up(site: &Site, recipe: Recipe) -> Result<String> {
    let made = reqwest::Client::new().post(format!("{}/api/practice", site.address)).json(&recipe).send().await?;
    let made: Value = made.error_for_status()?.json().await?;
    Ok(made["home"].as_str().context("a home")?.to_owned())
}

/// Plays the walker in the page itself for a while: presses what is asked, reads the instrument on the screen, presses what
/// it shows, and waits each time until the screen shows what was written. Gives `done`, `more`, or what went wrong.
const WALKER: &str = r#"
const finished = arguments[arguments.length - 1];
const side = () => document.querySelector('[data-testid=panel-side]');
const named = (name) => [...document.querySelectorAll('button')]
  .find((b) => (b.getAttribute('aria-label') ?? b.textContent).trim() === name);
const wait = async (what, holds) => {
  for (const end = performance.now() + 10000; ; ) {
    const found = holds();
    if (found) return found;
    if (performance.now() > end) throw new Error('waited for ' + what);
    await new Promise((next) => setTimeout(next, 4));
  }
};
const write = async (name) => {
  const before = side().dataset.seq;
  (await wait(name, () => named(name))).click();
  await wait('what ' + name + ' wrote', () => side() && side().dataset.seq !== before);
};
const look = async () => {
  const card = (await wait('a point', () => document.querySelector('[data-testid=current-point]'))).innerText;
  if (card.includes('Read its volts')) {
    named('Meter').click();
    const volts = parseFloat((await wait('a reading', () => document.querySelector('[data-testid=reading]'))).innerText);
    if (volts < 10 || volts >= 100) return write('Enter ' + volts + ' V');
  }
  const outlet = card.split('\n').some((line) => line.startsWith('receptacle') && !line.includes('240 V'));
  named(outlet ? 'Plug-in tester' : 'Look').click();
  const words = (await wait('a reading', () => document.querySelector('[data-testid=reading]'))).innerText;
  if (words.endsWith('lamps glow.') || words.endsWith(' is on.')) return write('LIT');
  if (words.startsWith('No lamp glows') || words.endsWith(' is off.')) return write('DARK');
  throw new Error('what does “' + words + '” mean?');
};
(async () => {
  for (const end = performance.now() + 15000; performance.now() < end; ) {
    const step = side().dataset.step;
    if (step === 'done') return 'done';
    if (step === 'see_all_lit' || step === 'look_under') await look();
    else if (step === 'watch') {
      named('Watch while it is switched off and on').click();
      await write((await wait('a reading', () => document.querySelector('[data-testid=reading]'))).innerText.slice(0, -1));
    }
    else if (['switch_to', 'switch_on', 'cycle'].includes(step)) await write([...side().querySelectorAll('button')].map((b) => b.textContent.trim()).find((words) => words.startsWith('Done, ')));
    else throw new Error('the trace asks to ' + step);
  }
  return 'more';
})().then(finished, (error) => finished(String(error)));
"#;

pub(crate) async fn sixty_points_on_a_phone_as_without_a_screen(_: &Chrome, page: &Page, _: View) -> Result<()> {
    // In this house nobody comes upon a handle that stands wrong: that is told on other screens than the trace.
    let recipe = Recipe::to_trace(20, 60, Level::Usual);
    let way = TraceSetup { method: Method::SeveralOff, ..TraceSetup::default() };
    let expected = trace_through(recipe, way)?.acts;
    let site = Site::empty().await?;
    let home = made_up(&site, recipe).await?;
    page.goto(&format!("{}/h/{home}/trace", site.address)).await?;
    page.press("Several off at once, the shortest").await?;
    let trace = Trace(page);
    trace.wait_step("see_all_lit").await?;
    trace.wait_method("Several off at once").await?;
    for acts in 0.. {
        ensure!(acts < 2000, "the trace does not end");
        let told: String = page.driver.execute_async(WALKER, vec![]).await?.convert()?;
        match told.as_str() {
            "done" => break,
            "more" => {}
            wrong => bail!("{wrong}"),
        }
    }
    let page_of = |before: Option<u64>| {
        let before = before.map_or_else(String::new, |before| format!("&before={before}"));
        format!("{}/api/homes/{home}/logbook?limit=500{before}", site.address)
    };
    let (mut words, mut before) = (Vec::new(), None);
    loop {
        let lines: Value = reqwest::get(page_of(before)).await?.json().await?;
        let told = lines["lines"].as_array().context("lines")?;
        words.extend(told.iter().map(|line| line["words"].as_str().unwrap_or_default().to_owned()));
        before = lines["before"].as_u64();
        if before.is_none() {
            break;
        }
    }
    words.reverse();
    let set = words.iter().position(|w| w.starts_with("Traced ")).context("the way was set")?;
    let acts = &words[set + 1..];
    let differ = acts.iter().zip(&expected).position(|(a, b)| a != b);
    ensure!(
        acts == expected.as_slice(),
        "{} acts on the screen, {} without; they part at {differ:?}: {:?} and {:?}",
        acts.len(),
        expected.len(),
        differ.map(|n| &acts[n]),
        differ.map(|n| &expected[n])
    );
    // The marks, with the wiring shown.
    page.goto(&format!("{}/h/{home}/practice", site.address)).await?;
    Practice(page).marks_say("No breaker that must stay on was off").await?;
    page.press("I am done: show the wiring").await?;
    Practice(page).marks_say("proven rightly, 0 wrongly").await?;
    page.can_be_used_by_everybody().await?;
    Ok(())
}

pub(crate) async fn instruments_warn_and_another_try_is_another_home(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    page.goto(&site.address).await?;
    page.fill("Points", "400").await?;
    page.press("Make this house").await?;
    page.notice_says("Give 8 to 150.").await?;
    page.fill("Points", "12").await?;
    page.press("Make this house").await?;
    // Any point of the list can be chosen; the range is on 240 V.
    let (trace, practice) = (Trace(page), Practice(page));
    trace.wait_point("range").await?;
    let view: Value = reqwest::get(format!("{}/api/homes/made-usual-12-1/points", site.address)).await?.json().await?;
    let range = view["points"].as_array().context("points")?.iter().find(|p| p["name"] == "range").context("a range")?;
    let at = |instrument: &str| {
        format!(
            "{}/api/homes/made-usual-12-1/practice/reading?instrument={instrument}&point={}",
            site.address,
            range["id"].as_str().unwrap_or_default()
        )
    };
    let told: Value = reqwest::get(at("tone_tracer")).await?.json().await?;
    ensure!(told["caution"].as_str().is_some_and(|c| c.contains("never goes on 240 V")), "{told}");
    // Keys answer for what was read; the first point by its instrument.
    practice.read("Meter").await?;
    practice.read("Non-contact tester").await?;
    page.says("A non-contact tester only warns").await?;
    page.can_be_used_by_everybody().await?;
    // What the meter shows at a receptacle is entered with one tap; elsewhere there is no place for its probes.
    let mut words = practice.read("Meter").await?;
    for _ in 0..12 {
        if words.ends_with(" V.") {
            break;
        }
        page.keys("s").await?;
        practice.wait_no_reading().await?;
        words = practice.read("Meter").await?;
    }
    let volts = words.strip_suffix(" V.").with_context(|| format!("“{words}” is no voltage"))?;
    page.press_with("Enter ").await?;
    let shown = volts.trim_end_matches('0').trim_end_matches('.');
    trace.wait_last("", &format!("{shown} V")).await?;
    let again: Value = reqwest::Client::new()
        .post(format!("{}/api/practice", site.address))
        .json(&json!({ "seed": 1, "points": 12, "level": "usual" }))
        .send()
        .await?
        .json()
        .await?;
    ensure!(again["home"] == "made-usual-12-1-2", "{again}");
    Ok(())
}

/// Reads the utility's meter on the screen before and after.
async fn at_the_utilitys_meter(page: &Page) -> Result<()> {
    page.wait_text(By::Css("[data-testid=utility][data-on=false] [data-testid=display]"), " kW").await?;
    page.press("Enter as before").await?;
    page.press("Switch it on").await?;
    page.wait_text(By::Css("[data-testid=utility][data-on=true] [data-testid=display]"), " kW").await?;
    page.press("Enter as after").await
}

/// A made-up house whose loads are hidden is surveyed with the meters on the screen, and marked.
pub(crate) async fn a_made_up_house_is_measured(_: &Chrome, page: &Page, _: View) -> Result<()> {
    let site = Site::empty().await?;
    page.goto(&site.address).await?;
    page.choose("To practice", "measuring: what each circuit carries").await?;
    page.fill("Points", "24").await?;
    page.fill("House number", "3").await?;
    page.press("Make this house").await?;
    let loads = Loads(page);
    loads.survey_says("circuits settled").await?;
    let readings = async || -> Result<usize> {
        let marks: Value =
            reqwest::get(format!("{}/api/homes/measure-usual-24-3/practice/survey", site.address)).await?.json().await?;
        Ok(marks["readings"].as_u64().unwrap_or_default() as usize)
    };
    let (mut by_utility, mut by_plug) = (0, 0);
    for taken in 0.. {
        ensure!(taken < 30, "the survey does not end");
        if page.count("[data-testid=survey-step]").await? == 0 {
            break;
        }
        page.press("Write the reading down").await?;
        page.find(By::Css("[role=dialog]")).await?;
        if page.count("[data-testid=utility]").await? > 0 {
            by_utility += 1;
            at_the_utilitys_meter(page).await?;
        } else {
            by_plug += 1;
            page.press("Look at the meter").await?;
            page.press("Enter it").await?;
        }
        if taken == 0 {
            page.can_be_used_by_everybody().await?;
        }
        page.press("Save").await?;
        // Where something went off by itself between the two looks, it shows less after than before: both are read again.
        let again = "//*[@role='dialog'][contains(., 'shows more than before')]";
        let mut tries = 0;
        page.wait_until("the reading is written or refused", async || {
            let refused = !page.driver.find_all(By::XPath(again)).await?.is_empty();
            Ok(refused || readings().await? > taken)
        })
        .await?;
        while readings().await? <= taken {
            tries += 1;
            ensure!(tries < 4, "refused again and again");
            page.press("Switch it off again").await?;
            at_the_utilitys_meter(page).await?;
            page.press("Save").await?;
            for _ in 0..50 {
                if readings().await? > taken {
                    break;
                }
                tokio::time::sleep(std::time::Duration::from_millis(100)).await;
            }
        }
        page.dialog_closed().await?;
        page.wait_until("the reading is written", async || Ok(readings().await? > taken)).await?;
        // The next reading is asked for, or none, before it is looked for.
        page.wait_until("the survey goes on", async || {
            let view: Value = reqwest::get(format!("{}/api/homes/measure-usual-24-3/survey", site.address)).await?.json().await?;
            let asked = view["step"]["words"].as_str().unwrap_or_default().to_owned();
            // As the screen is now: at the end there is none, and nothing to wait for.
            let shown = match page.driver.find(By::Css("[data-testid=survey-step]")).await {
                Ok(step) => step.text().await?,
                Err(_) => String::new(),
            };
            Ok(shown == asked)
        })
        .await?;
    }
    ensure!(by_plug > 0 && by_utility > 0, "{by_plug} by what plugs in, {by_utility} by the utility's meter");
    page.goto(&format!("{}/h/measure-usual-24-3/practice", site.address)).await?;
    Practice(page).marks_say("Nothing that must not happen.").await?;
    page.press("I am done: show what they take").await?;
    Practice(page).marks_say("0 of them wrongly").await?;
    // Nobody read volts at the breakers: that one is worn is told at the end.
    Practice(page).marks_say("is worn: it loses volts under load").await?;
    page.can_be_used_by_everybody().await
}
