//! Any bytes at all: what every importer does with files that are damaged, hostile, or of another kind. None may end in a panic, or
//! run on without end.
//!
//! Each starts from the files of `corpus/` and from files that this program writes, and changes them: bytes, cuts, repeats, other
//! files' pieces, numbers at the ends of their types. In the normal tests some hundred files each; `WAYFINDER_FUZZ_SECONDS=600`
//! plays each for so many seconds. What proptest shrinks a failure to is put into the corpus by hand, under a name that says what it is.
//! (There is no nightly compiler here, which coverage-guided fuzzing asks for.)
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::io::{Read, Write};
use std::path::Path;
use std::time::{Duration, Instant};

use proptest::prelude::*;
use proptest::sample::Index;
use proptest::test_runner::{Config, RngSeed, TestError, TestRunner};
use wayfinder_core::loads::read_plate;
use wayfinder_core::work::{USUAL_STEPS, read_prices, read_wish, work_view};
use wayfinder_core::{
    Logbook, Study, Units, checks, directory_rows, letter, plan as plan_of, read_card, read_length, read_sheet, read_size,
    read_words, take_drawing,
};
use wayfinder_fixture::written;
use wayfinder_formats::{
    SheetKind, UsageChoices, directory_table, photo_media, read_home_file, read_plan_dxf, read_rows, read_usage, write_home_file,
    write_plan_dxf, write_table,
};

/// What a hostile hand puts where a number or a word was.
const WORDS: &[&str] = &[
    "-2147483648",
    "2147483647",
    "4294967296",
    "-9223372036854775808",
    "9223372036854775807",
    "18446744073709551616",
    "-1",
    "0",
    "1e308",
    "-1e308",
    "1e-320",
    "NaN",
    "inf",
    "0x7fffffff",
    "",
    "\0",
    "\u{feff}",
    "\u{202e}",
    "é",
    "½",
    "\u{1f4a1}",
    "\"",
    "'",
    "\n",
    "\r",
    ",",
    ";",
    "=1+1",
    "{",
    "}",
    "[",
    "]",
    "null",
    "true",
    "<![CDATA[",
    "&lol;",
    "<!DOCTYPE a [<!ENTITY b \"c\">]>",
    "]]>",
    "/",
    "\\",
    "0\nPOLYLINE\n",
    "0\nSEQEND\n",
    "0\nENDSEC\n",
    "999999999999999999999999999999",
];

#[derive(Debug, Clone)]
enum Change {
    Byte(Index, u8),
    Cut(Index, Index),
    Repeat(Index, Index, u8),
    Insert(Index, usize),
    /// In the place of the number there, if one is.
    Number(Index, usize),
    /// A piece of another file.
    Graft(Index, Index, Index, Index),
}

fn change() -> impl Strategy<Value = Change> {
    let at = any::<Index>;
    prop_oneof![
        1 => (at(), any::<u8>()).prop_map(|(at, byte)| Change::Byte(at, byte)),
        1 => (at(), at()).prop_map(|(from, to)| Change::Cut(from, to)),
        1 => (at(), at(), 1..20_u8).prop_map(|(from, to, times)| Change::Repeat(from, to, times)),
        1 => (at(), 0..WORDS.len()).prop_map(|(at, word)| Change::Insert(at, word)),
        4 => (at(), 0..WORDS.len()).prop_map(|(at, word)| Change::Number(at, word)),
        1 => (at(), at(), at(), at()).prop_map(|(at, of, from, to)| Change::Graft(at, of, from, to)),
    ]
}

/// The largest file that is played.
const LARGEST: usize = 200_000;

fn changed(seeds: &[Vec<u8>], seed: &Index, changes: &[Change]) -> Vec<u8> {
    let mut bytes = seed.get(seeds).clone();
    let between = |bytes: &[u8], a: &Index, b: &Index| {
        let (a, b) = (a.index(bytes.len() + 1), b.index(bytes.len() + 1));
        a.min(b)..a.max(b)
    };
    for change in changes {
        match change {
            Change::Byte(at, byte) if !bytes.is_empty() => *at.get_mut(&mut bytes) = *byte,
            Change::Byte(..) => {}
            Change::Cut(from, to) => drop(bytes.drain(between(&bytes, from, to))),
            Change::Repeat(from, to, times) => {
                let range = between(&bytes, from, to);
                let piece = bytes[range.clone()].repeat(usize::from(*times));
                bytes.splice(range, piece);
            }
            Change::Insert(at, word) => {
                let at = at.index(bytes.len() + 1);
                bytes.splice(at..at, WORDS[*word].bytes());
            }
            Change::Number(at, word) => {
                let digits: Vec<usize> = (0..bytes.len()).filter(|n| bytes[*n].is_ascii_digit()).collect();
                if digits.is_empty() {
                    continue;
                }
                let from = *at.get(&digits);
                let is_number = |byte: &u8| byte.is_ascii_digit() || *byte == b'.';
                let begin = bytes[..from].iter().rposition(|byte| !is_number(byte)).map_or(0, |n| n + 1);
                let end = from + bytes[from..].iter().take_while(|byte| is_number(byte)).count();
                bytes.splice(begin..end, WORDS[*word].bytes());
            }
            Change::Graft(at, of, from, to) => {
                let other = of.get(seeds);
                let piece = other[between(other, from, to)].to_vec();
                let at = at.index(bytes.len() + 1);
                bytes.splice(at..at, piece);
            }
        }
        bytes.truncate(LARGEST);
    }
    bytes
}

/// Plays changed files. `made` are seeds besides those of the corpus.
fn play(corpus: &str, made: Vec<Vec<u8>>, cases: u32, import: impl Fn(&[u8])) {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/corpus").join(corpus);
    let mut files: Vec<_> = std::fs::read_dir(folder).into_iter().flatten().map(|file| file.unwrap().path()).collect();
    files.sort();
    let mut seeds: Vec<Vec<u8>> = files.iter().map(|file| std::fs::read(file).unwrap()).collect();
    seeds.extend(made);
    seeds.iter().for_each(|seed| import(seed));
    let until = std::env::var("WAYFINDER_FUZZ_SECONDS")
        .ok()
        .map(|seconds| Instant::now() + Duration::from_secs(seconds.parse().unwrap()));
    // The same files each time in the normal tests; others each time at length.
    let rng_seed = if until.is_some() { RngSeed::Random } else { RngSeed::Fixed(18) };
    let mut played = 0_u64;
    loop {
        let config = Config { cases, failure_persistence: None, max_shrink_iters: 20_000, rng_seed, ..Config::default() };
        let strategy = (any::<Index>(), prop::collection::vec(change(), 1..12));
        let result = TestRunner::new(config).run(&strategy, |(seed, changes)| {
            import(&changed(&seeds, &seed, &changes));
            Ok(())
        });
        if let Err(TestError::Fail(why, (seed, changes))) = &result {
            let bytes = changed(&seeds, seed, changes);
            panic!("{why}, at {}", String::from_utf8_lossy(&bytes[..bytes.len().min(4000)]).escape_debug());
        }
        result.unwrap();
        played += u64::from(cases);
        match until {
            Some(until) if Instant::now() < until => {}
            Some(_) => return println!("{corpus}: {played} files"),
            None => return,
        }
    }
}

const CARD: &str =
    "panel 24\n1 20 gfci kitchen\n3a 15 bell\n3b 15 porch\n2-4 30/2 dryer\nroom Kitchen\npoint Kitchen receptacle sink";

fn home() -> Study {
    written(CARD).home
}

fn book() -> Logbook {
    written(CARD).book
}

#[test]
fn any_home_file() {
    let id = "hut".parse().unwrap();
    // Every kind of line that there is.
    let every_kind = include_bytes!("fixtures/home-of-versions-3-to-21.json").to_vec();
    play("home", vec![write_home_file(&id, &book(), Vec::new()), every_kind], 200, |bytes| {
        if let Ok((_, book)) = read_home_file(bytes) {
            // What was taken in is shown, too.
            let study = Study::from(&book);
            let _ = (letter(&study), checks(&study), plan_of(&study));
        }
    });
}

#[test]
fn any_table() {
    let rows = directory_rows(&home());
    let csv = write_table(&directory_table(&rows), SheetKind::Csv).unwrap();
    play("rows", vec![csv], 600, |bytes| {
        if let Ok(rows) = read_rows(bytes) {
            let home = home();
            let panel = home.panels().all().next().unwrap();
            let _ = (read_sheet(panel, &rows, None), read_words(&home, &rows), read_prices(&rows));
        }
    });
}

/// Workbooks are archives: what is changed is what is packed in them, and then the archive itself.
#[test]
fn any_workbook() {
    let rows = directory_rows(&home());
    for kind in [SheetKind::Xlsx, SheetKind::Ods] {
        let bytes = write_table(&directory_table(&rows), kind).unwrap();
        let parts = unpacked(&bytes);
        for (name, part) in &parts {
            play("rows", vec![part.clone()], 20, |changed| {
                let _ = read_rows(&packed(&parts, name, changed));
            });
        }
        play("rows", vec![bytes], 200, |bytes| drop(read_rows(bytes)));
    }
}

type Parts = Vec<(String, Vec<u8>)>;

fn unpacked(bytes: &[u8]) -> Parts {
    let mut archive = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    let count = archive.len();
    let one = |n| {
        let mut file = archive.by_index(n).unwrap();
        let mut part = Vec::new();
        file.read_to_end(&mut part).unwrap();
        (file.name().unwrap().into_owned(), part)
    };
    (0..count).map(one).collect()
}

fn packed(parts: &Parts, other: &str, changed: &[u8]) -> Vec<u8> {
    let mut archive = zip::ZipWriter::new(std::io::Cursor::new(Vec::new()));
    for (name, part) in parts {
        archive.start_file(name.as_str(), zip::write::SimpleFileOptions::default()).unwrap();
        archive.write_all(if name == other { changed } else { part }).unwrap();
    }
    archive.finish().unwrap().into_inner()
}

#[test]
fn any_drawing() {
    let (_, demo) = read_home_file(include_bytes!("../../server/demo/tanyard-flat.json")).unwrap();
    let study = Study::from(&demo);
    let plan = plan_of(&study);
    let drawn = write_plan_dxf(plan, &plan.floors[0]).unwrap();
    let empty = home();
    play("dxf", vec![drawn], 150, |bytes| {
        for unit in [None, Some(25.4)] {
            let Ok(read) = read_plan_dxf(bytes, unit) else { continue };
            let rooms: Vec<_> = read.rooms.iter().map(|room| (room.name.clone(), room.outline.clone())).collect();
            let points: Vec<_> = read.points.iter().map(|point| (point.room, point.symbol, point.at)).collect();
            let mut n = 0;
            let (_, taken) = take_drawing(&empty, "ground", &rooms, &points, || {
                n += 1;
                format!("n{n}")
            });
            let _ = plan_of(&Study::of(taken));
        }
    });
}

#[test]
fn any_file_of_usage() {
    play("usage", Vec::new(), 600, |bytes| {
        let _ = read_usage(bytes, &UsageChoices::default());
        let _ = read_usage(bytes, &UsageChoices { value: Some(1), unit: None, meter: None });
    });
}

#[test]
fn any_text() {
    let home = home();
    let panel = home.panels().all().next().unwrap();
    play("text", Vec::new(), 800, |bytes| {
        let text = String::from_utf8_lossy(bytes);
        for units in [Units::Metric, Units::FeetInches] {
            let _ = (read_length(&text, units), read_size(&text, units));
        }
        let mut n = 0;
        let _ = read_card(&home, panel, &text, || {
            n += 1;
            format!("b{n}").parse().unwrap()
        });
        let _ = (read_plate(&text), photo_media(bytes), wayfinder_core::find(&home, &text));
        let short: String = text.chars().take(200).collect();
        if let Ok(wish) = read_wish(&home, panel, &short) {
            let _ = work_view(&home, panel, &wish, &[], USUAL_STEPS.min(2000));
        }
    });
}
