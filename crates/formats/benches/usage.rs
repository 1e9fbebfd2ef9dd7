//! The home book and the card of the largest panel, printed; beside them a page with a heading and the book of a home without anything. A
//! year of 15-minute data, from bytes to what the page of usage data shows, as a table and as usage XML; beside it the csv crate alone
//! over the same table.
#![allow(missing_docs)]

use std::fmt::Write;
use std::hint::black_box;

use chrono::{NaiveDate, NaiveTime, TimeDelta};
use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use wayfinder_core::loads::demand_said;
use wayfinder_core::{BookPart, Card, Checks, Edition, Logbook, Printed, Study, card};
use wayfinder_fixture::homes::large;
use wayfinder_fixture::written;
use wayfinder_formats::{
    BookAsked, CardColors, Sheet, UsageChoices, door_card_pdf, findings_pdf, fitted_card, home_book_pdf, read_usage,
};

fn year() -> (String, String) {
    let first = NaiveDate::from_ymd_opt(2025, 1, 1).unwrap_or_default().and_time(NaiveTime::MIN);
    let mut table = "from,kWh\n".to_owned();
    let mut feed = "<feed><entry><link rel=\"self\" href=\"/t/1\"/><ReadingType><powerOfTenMultiplier>-3</powerOfTenMultiplier>\
                    <uom>72</uom></ReadingType></entry><entry><IntervalBlock>"
        .to_owned();
    for n in 0..365 * 96 {
        let at = first + TimeDelta::minutes(15 * n);
        let wh = 75 + n * 7919 % 1000;
        let _ = writeln!(table, "{},{}", at.format("%Y-%m-%d %H:%M"), wh as f64 / 1000.0);
        let _ = write!(
            feed,
            "<IntervalReading><timePeriod><duration>900</duration><start>{}</start></timePeriod><value>{}</value></IntervalReading>",
            at.and_utc().timestamp(),
            wh * 1000
        );
    }
    feed.push_str("</IntervalBlock></entry></feed>");
    (table, feed)
}

fn benches(c: &mut Criterion) {
    let (table, feed) = year();
    let mut group = c.benchmark_group("usage/a year of 15 minutes");
    group.sample_size(20);
    group.bench_function("csv crate alone", |b| {
        b.iter(|| csv::Reader::from_reader(black_box(table.as_bytes())).records().filter_map(Result::ok).count());
    });
    for (name, text) in [("table", &table), ("usage XML", &feed)] {
        group.bench_function(name, |b| {
            b.iter(|| {
                let file =
                    read_usage(black_box(text.as_bytes()), &UsageChoices::default()).unwrap_or_else(|error| panic!("{error}"));
                serde_json::to_vec(&demand_said(&file.read.demand, false)).map_or(0, |json| json.len())
            });
        });
    }
    group.finish();
}

/// A panel of 84 spaces, every breaker with words that are long enough to be broken and shortened.
fn largest_card() -> Card {
    let words =
        ["kitchen counter receptacles and the refrigerator", "north bedroom: 3 receptacles, 2 lights; hall: light", "spare"];
    let lines = (1..=84).map(|space| format!("{space} 20 circuit {space}\nown {space} {}", words[space % 3]));
    let home = written(&format!("home Mill\npanel 84\n{}", lines.collect::<Vec<_>>().join("\n"))).home;
    let panel = home.panels().all().next().unwrap_or_else(|| panic!("a panel")).id.clone();
    let mut card = card(&home, &panel, Printed::default()).unwrap_or_else(|| panic!("a card"));
    card.panel.card.height_mm = 420.0;
    card
}

fn printed(c: &mut Criterion) {
    let card = largest_card();
    let nothing = Checks { edition: Edition::default(), not_judged: String::new(), findings: Vec::new() };
    let mut group = c.benchmark_group("printed/a card of 84 spaces");
    group.sample_size(20);
    group.bench_function("a page with a heading", |b| {
        b.iter(|| findings_pdf("Mill", "", black_box(&nothing), 210.0, 297.0).map(|pdf| pdf.len()))
    });
    group.bench_function("fitted", |b| {
        b.iter(|| fitted_card(black_box(&card), CardColors::Load).unwrap_or_else(|small| panic!("{small}")).cells.len())
    });
    group.bench_function("as a PDF", |b| {
        b.iter(|| door_card_pdf(black_box(&card), Sheet::Card, CardColors::Load).unwrap_or_else(|error| panic!("{error}")).len())
    });
    group.finish();
}

/// 250 circuits, 600 points, 1200 lines of a trace.
fn book(c: &mut Criterion) {
    let (lines, nothing) = (Logbook::from_lines(large(1200)), written("home Mill").home);
    let lines = lines.unwrap_or_else(|refusal| panic!("{refusal}"));
    let printed = Printed { date: "2026-12-01", by: "" };
    let asked = BookAsked { parts: &BookPart::ALL, paper: Sheet::Letter, colors: CardColors::Load, printed };
    let made = |home: &Study| home_book_pdf(home, &asked, &mut |_, _, _| {}).unwrap_or_else(|error| panic!("{error}")).len();
    let mut group = c.benchmark_group("printed/a home book of 250 circuits and 600 points");
    group.sample_size(10);
    group.bench_function("of a home without anything", |b| b.iter(|| made(black_box(&nothing))));
    let home = Study::from(&lines);
    group.bench_function("with what is known at hand", |b| b.iter(|| made(black_box(&home))));
    group.bench_function("with everything worked out anew", |b| {
        b.iter_batched(|| Study::from(&lines), |home| made(black_box(&home)), BatchSize::PerIteration)
    });
    group.finish();
}

criterion_group!(all, benches, printed, book);
criterion_main!(all);
