//! The utility's interval data as utilities export them; what is no such file is said in a sentence. The figures are invented, the shapes
//! are common ones; the packed rules of the clock are those of ESPI for the United States, from memory.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::fmt::Write;

use wayfinder_formats::{UsageChoices, UsageError, UsageFile, UsageUnit, read_usage};

fn read(text: &str) -> Result<UsageFile, UsageError> {
    read_usage(text.as_bytes(), &UsageChoices::default())
}

/// A day of quarters, each line from its hour and minute and its figure: 0.075 kWh, and 2.46 kWh from 18:15.
fn day(line: impl Fn(u32, u32, &str) -> String) -> String {
    let quarter = |n: u32| line(n / 4, n % 4 * 15, if n == 73 { "2.46" } else { "0.075" });
    (0..96).map(quarter).collect()
}

#[test]
fn a_table_is_read_whatever_its_dates_look_like() {
    let twelve = |hour: u32| if hour.is_multiple_of(12) { 12 } else { hour % 12 };
    let half = |hour: u32| if hour < 12 { "AM" } else { "PM" };
    let tables = [
        format!("start,kWh\n{}", day(|h, m, kwh| format!("2026-01-14 {h:02}:{m:02},{kwh}\n"))),
        format!(
            "Interval start,Usage (kWh),Cost\n{}",
            day(|h, m, kwh| format!("2026-01-14T{h:02}:{m:02}:00-08:00,{kwh},$0.10\n"))
        ),
        format!(
            "Name,A. Keeper\nAddress,1 Juniper Lane\n\nTYPE,DATE,START TIME,END TIME,USAGE,UNITS,NOTES\n{}",
            day(|h, m, kwh| format!("Electric usage,01/14/2026,{h:02}:{m:02},{h:02}:{:02},{kwh},kWh,\n", m + 14))
        ),
        format!("Date;Import kWh\n{}", day(|h, m, kwh| format!("14/01/2026 {h:02}:{m:02};{}\n", kwh.replace('.', ",")))),
        format!(
            "Time\tDemand (kW)\n{}",
            day(|h, m, kwh| format!("1/14/2026 {}:{m:02} {}\t{}\n", twelve(h), half(h), kwh.parse::<f64>().unwrap() * 4.0))
        ),
        format!(
            "Meter,Time,Wh\n{}",
            day(|h, m, kwh| format!("7,2026/01/14 {h:02}:{m:02},{}\n", kwh.parse::<f64>().unwrap() * 1000.0))
        ),
    ];
    for table in tables {
        let file = read(&table).unwrap_or_else(|error| panic!("{error}: {table}"));
        let demand = &file.read.demand;
        assert_eq!((demand.minutes, demand.peak, demand.peak_at.as_str()), (15, 9840, "2026-01-14T18:15"), "{table}");
        assert_eq!((demand.base, demand.missing), (300, 0), "{table}");
        assert!((demand.kwh - 9.585).abs() < 0.006, "{}", demand.kwh);
        assert_eq!((file.first[0].at.as_str(), file.first[0].kw), ("2026-01-14 00:00", 0.3));
        assert!(file.columns.unwrap().unit_is_said);
    }
}

#[test]
fn what_is_guessed_can_be_corrected() {
    let table = format!("time,heat pump,house\n{}", day(|h, m, kwh| format!("2026-01-14 {h:02}:{m:02},0.5,{kwh}\n")));
    let guessed = read(&table).unwrap();
    let columns = guessed.columns.unwrap();
    assert_eq!((columns.value, columns.unit_is_said), (1, false));
    let choices = UsageChoices { value: Some(2), unit: Some(UsageUnit::Kw), meter: None };
    assert_eq!(read_usage(table.as_bytes(), &choices).unwrap().read.demand.peak, 2460);
    // Two meters in one file: said, and one can be chosen.
    let two = format!(
        "meter,time,kwh\n{}",
        day(|h, m, kwh| format!("A,2026-01-14 {h:02}:{m:02},{kwh}\nB,2026-01-14 {h:02}:{m:02},0.2\n"))
    );
    let refused = read(&two).unwrap_err().to_string();
    assert!(refused.contains("two different readings for 2026-01-14 00:00"), "{refused}");
    let choices = UsageChoices { meter: Some("B".into()), ..UsageChoices::default() };
    let one = read_usage(two.as_bytes(), &choices).unwrap();
    assert_eq!((one.read.demand.peak, one.columns.unwrap().meters), (800, vec!["A".to_owned(), "B".to_owned()]));
}

#[test]
fn gaps_bad_rows_and_what_flows_out_are_told() {
    let mut table = format!(
        "time,kWh,Generation (kWh)\n{}",
        day(|h, m, kwh| match (h, m) {
            (3, _) => String::new(),
            (5, 0) => "2026-01-14 05:00,n/a,0\n".into(),
            _ => format!("2026-01-14 {h:02}:{m:02},{kwh},0.1\n"),
        })
    );
    table.push_str("Total,14,2\n");
    let file = read(&table).unwrap();
    assert_eq!((file.read.demand.missing, file.unread_rows, file.read.demand.netted), (5, 2, true));
    assert_eq!(file.read.remarks.len(), 2, "{:?}", file.read.remarks);
}

#[test]
fn what_is_no_interval_data_is_said_in_a_sentence() {
    let said = |bytes: &[u8]| read_usage(bytes, &UsageChoices::default()).unwrap_err().to_string();
    let neither = "This is neither a CSV file nor usage XML";
    for (bytes, starts) in [
        (&b""[..], neither),
        (b"PK\x03\x04\x00\x00", neither),
        (b"\x89PNG\r\n\x1a\n\x00\x00", neither),
        (b"<html><body>Sign in</body></html>", neither),
        (b"hello", "No column can be read as a date and time"),
        (b"a,b\nc,d\n", "No column can be read as a date and time"),
        (b"date,kWh\n2026-01-01,12\n2026-01-02,13\n", "There is a date and no time of day"),
        (b"time,what\n2026-01-01 00:00,x\n2026-01-01 00:15,y\n", "No column can be read as a date and time"),
        (b"<feed><entry>", "This XML cannot be read"),
        (b"<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]><feed>&e;</feed>", "This XML declares a document type"),
    ] {
        let sentence = said(bytes);
        assert!(sentence.starts_with(starts), "{sentence}");
    }
    let wrong_unit = format!("time,kWh\n{}", day(|h, m, _| format!("2026-01-14 {h:02}:{m:02},460\n")));
    assert!(said(wrong_unit.as_bytes()).contains("more than any house takes"));
    let mut long = "time,kWh\n".to_owned();
    for n in 0..1_000_100 {
        writeln!(long, "2026-01-14 00:00,0.{n}").unwrap();
    }
    assert!(said(long.as_bytes()).contains("Export one year"));
}

/// Ten years of quarters of an hour are 350 000 rows; the last year counts.
#[test]
fn ten_years_are_read() {
    let first = chrono::NaiveDate::from_ymd_opt(2016, 1, 1).unwrap().and_time(chrono::NaiveTime::MIN);
    let mut table = "time,kWh\n".to_owned();
    for n in 0..10 * 365 * 96 {
        let at = first + chrono::TimeDelta::minutes(15 * n);
        writeln!(table, "{},0.25", at.format("%Y-%m-%d %H:%M")).unwrap();
    }
    let file = read(&table).unwrap();
    assert_eq!((file.read.demand.days(), file.read.demand.peak), (365, 1000));
}

/// A feed with what is taken and what flows out, on the clock of the west coast: 1767225600 is 2026-01-01 00:00 UTC.
fn feed(readings: &str, out: &str) -> String {
    let reading_type = |n: u8, direction: u8| {
        format!(
            "<entry><link rel=\"self\" href=\"/ReadingType/{n}\"/><content><ReadingType><flowDirection>{direction}</flowDirection>\
             <intervalLength>900</intervalLength><powerOfTenMultiplier>-3</powerOfTenMultiplier><uom>72</uom></ReadingType></content></entry>"
        )
    };
    let meter = |n: u8, readings: &str| {
        format!(
            "<entry><link rel=\"self\" href=\"/MeterReading/{n}\"/><link rel=\"related\" href=\"/ReadingType/{n}\"/>\
             <content><MeterReading/></content></entry>\
             <entry><link rel=\"self\" href=\"/x/{n}\"/><link rel=\"up\" href=\"/MeterReading/{n}/IntervalBlock\"/>\
             <content><IntervalBlock>{readings}</IntervalBlock></content></entry>"
        )
    };
    format!(
        "<?xml version=\"1.0\"?><feed xmlns=\"http://www.w3.org/2005/Atom\" xmlns:espi=\"http://naesb.org/espi\">\
         <entry><link rel=\"self\" href=\"/Time/1\"/><content><LocalTimeParameters><dstEndRule>B40E2000</dstEndRule>\
         <dstOffset>3600</dstOffset><dstStartRule>360E2000</dstStartRule><tzOffset>-28800</tzOffset></LocalTimeParameters></content></entry>\
         {}{}{}{}</feed>",
        reading_type(1, 1),
        reading_type(10, 19),
        meter(1, readings),
        meter(10, out)
    )
}

fn reading(start: i64, value: i64) -> String {
    format!(
        "<espi:IntervalReading><espi:timePeriod><espi:duration>900</espi:duration><espi:start>{start}</espi:start></espi:timePeriod><espi:value>{value}</espi:value></espi:IntervalReading>"
    )
}

#[test]
fn usage_xml_is_read_on_the_clock_of_the_house() {
    // 13 to 15 January, from midnight in the west: 8 h of UTC.
    let from = 1_767_225_600 + 12 * 86_400 + 8 * 3600;
    let readings: String = (0..192).map(|n| reading(from + n * 900, if n == 73 { 2_460_000 } else { 75_000 })).collect();
    let file = read(&feed(&readings, "")).unwrap();
    let demand = &file.read.demand;
    assert_eq!((demand.minutes, demand.peak, demand.peak_at.as_str()), (15, 9840, "2026-01-13T18:15"));
    assert_eq!((demand.missing, demand.netted, file.columns), (0, false, None));
    // What flows out at noon is taken off, and said.
    let out: String = (44..52).map(|n| reading(from + n * 900, 500_000)).collect();
    assert!(read(&feed(&readings, &out)).unwrap().read.demand.netted);
    // In July the clock is an hour on: 2026-07-01 00:00 there is 07:00 UTC.
    let from = 1_767_225_600 + 181 * 86_400 + 7 * 3600;
    let summer: String = (0..96).map(|n| reading(from + n * 900, if n == 40 { 900_000 } else { 75_000 })).collect();
    assert_eq!(read(&feed(&summer, "")).unwrap().read.demand.peak_at, "2026-07-01T10:00");
    // Over both settings of the clock nothing is missing: 7 to 9 March and 31 October to 2 November, each from midnight to midnight.
    for (day, offset) in [(65, 8), (303, 7)] {
        let from = 1_767_225_600 + day * 86_400 + offset * 3600;
        let all: String = (0..192).map(|n| reading(from + n * 900, 75_000)).collect();
        let read = read(&feed(&all, "")).unwrap().read;
        assert_eq!((read.demand.missing, read.demand.kwh), (0, 14.4), "{day}: {:?}", read.remarks);
        assert_eq!(read.remarks.len(), 1, "{:?}", read.remarks);
    }
}

#[test]
fn a_million_readings_and_another_unit_are_refused_in_words() {
    let many: String = (0..1_000_001)
        .map(|n| format!("<IntervalReading><timePeriod><start>{n}</start></timePeriod></IntervalReading>"))
        .collect();
    let said = read(&format!("<feed><entry><IntervalBlock>{many}</IntervalBlock></entry></feed>")).unwrap_err().to_string();
    assert!(said.contains("Export one year"), "{said}");
    let gas = feed(&reading(1_767_225_600, 5), "").replace("<uom>72</uom>", "<uom>119</uom>");
    assert!(read(&gas).unwrap_err().to_string().contains("neither watt-hours nor watts"));
}
