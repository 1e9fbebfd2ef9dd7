//! How long a moved breaker, and a point added to or moved on a plan of 40 rooms and 400 points, take to the screen:
//! from the key or tap to the drawing as it is then, measured in the page, beside a plain request in the same page.

use anyhow::{Context, Result};
use thirtyfour::By;
use wayfinder_e2e::screens::Panel;
use wayfinder_e2e::{Chrome, Page, Site, Somebody, View};
use wayfinder_fixture::homes::forty_rooms;

const ROUNDS: usize = 20;

#[tokio::main]
async fn main() -> Result<()> {
    let site = Site::demo().await?;
    let chrome = Chrome::start()?;
    let page = chrome.open(View::Desk).await?;
    page.goto(&format!("{}/h/juniper-lane/panel", site.address)).await?;
    let mut moved = Vec::new();
    for round in 0..ROUNDS {
        let (from, to, key) = if round % 2 == 0 { ("22", "21", "ArrowLeft") } else { ("21", "22", "ArrowRight") };
        moved.push(one_move(&page, from, to, key).await?);
    }
    let reference: f64 = page
        .driver
        .execute_async(
            "const done = arguments[0]; const begun = performance.now();
             fetch('/api/homes/juniper-lane').then(r => r.json()).then(() => done(performance.now() - begun));",
            vec![],
        )
        .await?
        .convert()?;
    moved.sort_by(f64::total_cmp);
    println!(
        "a breaker moved: median {:.0} ms, most {:.0} ms of {ROUNDS} (bar: 100 ms); reference, the home asked for and read once: {reference:.0} ms",
        moved[ROUNDS / 2],
        moved[ROUNDS - 1]
    );
    let measured = on_the_plan(&page).await;
    if measured.is_err()
        && let Some(picture) = page.leave_behind("pace").await
    {
        eprintln!("how it looked then: {}", picture.display());
    }
    page.close().await?;
    measured
}

async fn one_move(page: &Page, from: &str, to: &str, key: &str) -> Result<f64> {
    Panel(page).select(&format!("Breaker {from}")).await?;
    page.keys("m").await?;
    page.test_id("move-status").await?;
    let script = format!(
        "const done = arguments[0];
         const post = document.querySelector('[data-testid=fingerpost]');
         const press = key => post.dispatchEvent(new KeyboardEvent('keydown', {{ key, bubbles: true }}));
         press('{key}');
         setTimeout(() => {{
           let begun = 0;
           const there = () => document.querySelector('[data-testid=fingerpost] [aria-label^=\"Breaker {to},\"]');
           const watch = new MutationObserver(() => {{
             if (!there()) return;
             watch.disconnect();
             requestAnimationFrame(() => done(performance.now() - begun));
           }});
           watch.observe(document.body, {{ subtree: true, childList: true, attributes: true }});
           begun = performance.now();
           press('Enter');
         }}, 60);"
    );
    page.driver.execute_async(script, vec![]).await?.convert().context("no time came back")
}

/// Points tapped onto a plan of 40 rooms and 400 points, and moved there by a key.
async fn on_the_plan(page: &Page) -> Result<()> {
    let site = Site::empty().await?;
    Somebody::new(&site, "wide").act(0, &format!("home Wide house\n{}", forty_rooms(10, false))).await?;
    page.goto(&format!("{}/h/wide/house", site.address)).await?;
    page.find(By::Css("[data-testid=plan] [data-point=outlet-39-9]")).await?;
    page.press("Receptacle").await?;
    let mut added = Vec::new();
    let mut moved = Vec::new();
    for round in 0..ROUNDS {
        let (x, y) = (round as i32 % 8 * 4000 + 2000, round as i32 / 8 * 3000 + 100);
        let tap = format!(
            "const at = new DOMPoint({x}, {y}).matrixTransform(svg.getScreenCTM());
             svg.dispatchEvent(new MouseEvent('click', {{ bubbles: true, clientX: at.x, clientY: at.y }}));"
        );
        added.push(until(page, &tap, &format!("svg.querySelectorAll('[data-point]').length === {}", 401 + round)).await?);
    }
    page.press("Done placing").await?;
    page.driver.execute("document.querySelector('[data-place=\"p:outlet-0-0\"]').focus()", vec![]).await?;
    page.find(By::Css("[data-place='p:outlet-0-0'][aria-pressed=true]")).await?;
    for round in 0..ROUNDS {
        let key = if round % 2 == 0 { "ArrowRight" } else { "ArrowLeft" };
        let press =
            format!("svg.dispatchEvent(new KeyboardEvent('keydown', {{ key: '{key}', shiftKey: true, bubbles: true }}));");
        let x = if round % 2 == 0 { 400 } else { 300 };
        let there =
            format!("svg.querySelector('[data-point=outlet-0-0] > g').getAttribute('transform').startsWith('translate({x} ')");
        moved.push(until(page, &press, &there).await?);
    }
    let reference: f64 = page
        .driver
        .execute_async(
            "const done = arguments[0]; const begun = performance.now();
             fetch('/api/homes/wide/plan').then(r => r.json()).then(() => done(performance.now() - begun));",
            vec![],
        )
        .await?
        .convert()?;
    for (what, times) in [("added", &mut added), ("moved", &mut moved)] {
        times.sort_by(f64::total_cmp);
        println!(
            "a point {what} on a plan of 40 rooms, 400 points: median {:.0} ms, most {:.0} ms of {ROUNDS} (bar: 100 ms); reference, the plan asked for and read once: {reference:.0} ms",
            times[ROUNDS / 2],
            times[ROUNDS - 1]
        );
    }
    Ok(())
}

/// Milliseconds from an act to the first frame in which `there` holds.
async fn until(page: &Page, act: &str, there: &str) -> Result<f64> {
    let script = format!(
        "const done = arguments[0];
         const svg = document.querySelector('[data-testid=plan]');
         const begun = performance.now();
         const look = () => ({there}) ? done(performance.now() - begun) : requestAnimationFrame(look);
         {act}
         requestAnimationFrame(look);"
    );
    page.driver.execute_async(script, vec![]).await?.convert().context("no time came back")
}
