//! A year of 15-minute data, from bytes to what the page of usage data shows, as a table and as usage XML; beside it the csv crate
//! alone over the same table.
#![allow(missing_docs)]

use std::fmt::Write;
use std::hint::black_box;

use chrono::{NaiveDate, NaiveTime, TimeDelta};
use criterion::{Criterion, criterion_group, criterion_main};
use wayfinder_core::loads::demand_said;
use wayfinder_formats::{UsageChoices, read_usage};

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

criterion_group!(all, benches);
criterion_main!(all);
