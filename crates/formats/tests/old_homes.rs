//! Homes written by every released version of the facts open and say the same.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use wayfinder_core::{Study, Verdict, verdicts};
use wayfinder_formats::{read_home_file, write_home_file};

#[test]
fn a_home_of_version_1_opens_and_is_written_back_the_same() {
    let bytes = include_bytes!("fixtures/home-of-version-1.json");
    let (file, book) = read_home_file(bytes).unwrap();
    assert!(file.lines.iter().all(|line| line.entry.version == 1));
    assert_eq!(book.home().panels().all().count(), 1);
    assert_eq!(book.home().panels().breakers().count(), 19);
    // Looked at once each: what nothing else makes likely enough is no longer called proven.
    assert_eq!(verdicts(&Study::from(&book)).iter().filter(|(_, v)| matches!(v, Verdict::Proven { .. })).count(), 13);
    let (_, again) = read_home_file(&write_home_file(&file.home, &book, Vec::new())).unwrap();
    assert!(again.lines().eq(book.lines()));
}

#[test]
fn a_home_of_version_2_opens_and_is_written_back_the_same() {
    let (file, book) = read_home_file(include_bytes!("fixtures/home-of-version-2.json")).unwrap();
    assert!(file.lines.iter().all(|line| line.entry.version <= 2));
    assert_eq!(book.home().panels().all().count(), 2);
    assert_eq!(book.home().house().points().count(), 73);
    assert_eq!(verdicts(&Study::from(&book)).iter().filter(|(_, v)| matches!(v, Verdict::Proven { .. })).count(), 13);
    let (_, again) = read_home_file(&write_home_file(&file.home, &book, Vec::new())).unwrap();
    assert!(again.lines().eq(book.lines()));
}
