//! What happens to a data folder outside the program: lines that go or change, pages that are overwritten, a file cut short; and
//! copies that are written, put back and compared.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::fs;
use std::os::unix::fs::PermissionsExt;
use std::path::Path;
use std::sync::atomic::{AtomicBool, Ordering};

use rusqlite::Connection;
use sha2::{Digest, Sha256};
use wayfinder_core::{Draft, Fact, HomeDescribed, HomeId, Line, Moment};
use wayfinder_store::{DamageKind, ReadOnly, Store, StoreError, StoredPhoto, backup, restore};

fn home(name: &str) -> HomeId {
    name.parse().unwrap()
}

fn line(seq: u64) -> Line {
    let fact = Fact::HomeDescribed(HomeDescribed { name: format!("Hut, as it was called {seq} times before, and once more") });
    let (id, at) = (format!("e{seq}").parse().unwrap(), Moment::from_unix_ms(0));
    Line { seq, entry: Draft { id, at, by: "o".into(), instrument: None, version: Fact::VERSION, fact } }
}

fn lines(count: u64) -> Vec<Line> {
    (1..=count).map(line).collect()
}

/// A folder with two homes of so many lines each.
fn folder_of(count: u64) -> tempfile::TempDir {
    let folder = tempfile::tempdir().unwrap();
    let store = Store::open(folder.path()).unwrap();
    for name in ["hut", "mill"] {
        store.append(&home(name), lines(count)).unwrap();
    }
    let photo = StoredPhoto { id: "p1".parse().unwrap(), media: "image/png".into(), bytes: vec![7; 3000] };
    store.put_photo(&home("mill"), photo).unwrap();
    store.set_setting("passphrase", "a hash").unwrap();
    folder
}

fn by_hand(folder: &Path, sql: &str) {
    let connection = Connection::open(folder.join("wayfinder.sqlite")).unwrap();
    connection.pragma_update(None, "foreign_keys", "OFF").unwrap();
    connection.execute_batch(sql).unwrap();
}

#[test]
fn a_line_that_is_missing_altered_added_or_no_entry_is_found_and_the_other_home_is_whole() {
    for (by, damaged_at, kind) in [
        ("DELETE FROM lines WHERE home = 'hut' AND seq = 4", 4, DamageKind::Missing(4)),
        ("DELETE FROM lines WHERE home = 'hut' AND seq = 1", 1, DamageKind::Missing(1)),
        ("DELETE FROM lines WHERE home = 'hut' AND seq > 7", 8, DamageKind::CutShort { written: 9, there: 7 }),
        ("DELETE FROM lines WHERE home = 'hut'", 1, DamageKind::CutShort { written: 9, there: 0 }),
        ("UPDATE lines SET body = replace(body, 'Hut', 'Hat') WHERE home = 'hut' AND seq = 5", 5, DamageKind::Altered(5)),
        ("UPDATE lines SET link = zeroblob(32) WHERE home = 'hut' AND seq = 9", 9, DamageKind::Altered(9)),
        ("UPDATE homes SET link = zeroblob(32) WHERE id = 'hut'", 9, DamageKind::Altered(9)),
        ("UPDATE homes SET link = NULL WHERE id = 'hut'", 10, DamageKind::Unchained),
        // A line taken out and the numbers closed up behind it.
        (
            "DELETE FROM lines WHERE home = 'hut' AND seq = 3; UPDATE lines SET seq = seq - 1 WHERE home = 'hut' AND seq > 3",
            3,
            DamageKind::Altered(3),
        ),
        (
            "INSERT INTO lines (home, seq, entry, body) SELECT home, 10, 'e10', body FROM lines WHERE home = 'hut' AND seq = 9",
            10,
            DamageKind::Altered(10),
        ),
    ] {
        let folder = folder_of(9);
        by_hand(folder.path(), by);
        let store = Store::open(folder.path()).unwrap();
        let (read, damage) = store.lines_up_to_damage(&home("hut")).unwrap();
        let damage = damage.unwrap_or_else(|| panic!("{by} was not found"));
        assert_eq!((damage.line, &damage.kind), (damaged_at, &kind), "{by}");
        assert_eq!(read, lines(damaged_at - 1), "every line before it is given: {by}");
        assert_eq!(store.damage(&home("hut")).unwrap().as_ref(), Some(&damage), "by the chain alone: {by}");
        assert!(matches!(store.lines(&home("hut")), Err(StoreError::Damaged(found)) if found == damage), "{by}");
        assert_eq!(store.lines(&home("mill")).unwrap(), lines(9));
        store.append(&home("mill"), vec![line(10)]).unwrap();
        drop(store);
        let checked = ReadOnly::open(folder.path()).unwrap().check().unwrap();
        assert_eq!(checked.iter().map(|kept| kept.damage.clone()).collect::<Vec<_>>(), [Some(damage), None], "{by}");
    }
}

#[test]
fn a_line_as_it_was_written_that_is_no_entry_is_told_from_one_that_was_altered() {
    let folder = folder_of(3);
    // As a program of another kind would write it, with the chain made by the words of its description.
    let connection = Connection::open(folder.path().join("wayfinder.sqlite")).unwrap();
    let last: Vec<u8> = connection.query_row("SELECT link FROM homes WHERE id = 'hut'", [], |row| row.get(0)).unwrap();
    let body = "{\"a kind\":\"of another world\"}";
    let link = Sha256::new().chain_update(last).chain_update(4_u64.to_be_bytes()).chain_update(body).finalize().to_vec();
    connection
        .execute("INSERT INTO lines (home, seq, entry, body, link) VALUES ('hut', 4, 'e4', ?1, ?2)", (body, &link))
        .unwrap();
    connection.execute("UPDATE homes SET lines = 4, link = ?1 WHERE id = 'hut'", [&link]).unwrap();
    drop(connection);
    let store = Store::open(folder.path()).unwrap();
    let (read, damage) = store.lines_up_to_damage(&home("hut")).unwrap();
    assert_eq!(read, lines(3));
    assert!(matches!(damage.unwrap().kind, DamageKind::Unreadable(4, _)));
}

#[test]
fn nothing_is_added_to_a_home_whose_end_is_not_as_it_was_written() {
    for by in [
        "DELETE FROM lines WHERE home = 'hut' AND seq > 7",
        "DELETE FROM lines WHERE home = 'hut'",
        "UPDATE homes SET lines = 7 WHERE id = 'hut'",
        "UPDATE lines SET link = zeroblob(32) WHERE home = 'hut' AND seq = 9",
    ] {
        let folder = folder_of(9);
        by_hand(folder.path(), by);
        let store = Store::open(folder.path()).unwrap();
        for seq in [8, 10, 1] {
            assert!(matches!(store.append(&home("hut"), vec![line(seq)]), Err(StoreError::Damaged(_))), "{by}, line {seq}");
        }
    }
}

#[test]
fn what_an_older_program_wrote_gets_its_chain_when_it_is_opened() {
    let folder = folder_of(9);
    by_hand(
        folder.path(),
        "DELETE FROM lines WHERE home = 'hut' AND seq = 4;
         CREATE TABLE old AS SELECT home, seq, entry, body FROM lines;
         DROP TABLE lines;
         ALTER TABLE homes DROP COLUMN lines;
         ALTER TABLE homes DROP COLUMN link;
         CREATE TABLE lines (home TEXT NOT NULL REFERENCES homes (id) ON DELETE CASCADE, seq INTEGER NOT NULL CHECK (seq > 0),
             entry TEXT NOT NULL, body TEXT NOT NULL, PRIMARY KEY (home, seq), UNIQUE (home, entry)) STRICT, WITHOUT ROWID;
         INSERT INTO lines SELECT * FROM old;
         DROP TABLE old;
         DROP TABLE summaries;
         ALTER TABLE homes DROP COLUMN moved;
         PRAGMA user_version = 4;",
    );
    // It is looked into as it is,
    let before = ReadOnly::open(folder.path()).unwrap().check().unwrap();
    assert!(matches!(before[0].damage.as_ref().unwrap().kind, DamageKind::Missing(4)), "the gap was there before");
    assert_eq!((before[1].lines, &before[1].damage), (9, &None));
    // and gets the chain when it is opened to be written.
    let store = Store::open(folder.path()).unwrap();
    assert_eq!(store.lines(&home("mill")).unwrap(), lines(9));
    store.append(&home("mill"), vec![line(10)]).unwrap();
    drop(store);
    by_hand(folder.path(), "UPDATE lines SET body = replace(body, 'Hut', 'Hat') WHERE home = 'mill' AND seq = 2");
    let store = Store::open(folder.path()).unwrap();
    assert!(matches!(store.lines(&home("mill")), Err(StoreError::Damaged(found)) if found.kind == DamageKind::Altered(2)));
}

#[test]
fn a_home_that_is_written_to_while_it_is_checked_is_not_called_damaged() {
    let folder = folder_of(3);
    let store = Store::open(folder.path()).unwrap();
    std::thread::scope(|scope| {
        let writing = scope.spawn(|| {
            for seq in 4..400 {
                store.append(&home("hut"), vec![line(seq)]).unwrap();
            }
        });
        let from_outside = ReadOnly::open(folder.path()).unwrap();
        while !writing.is_finished() {
            assert_eq!(store.damage(&home("hut")).unwrap(), None);
            assert_eq!(store.lines_up_to_damage(&home("hut")).unwrap().1, None);
            assert_eq!(from_outside.lines_up_to_damage(&home("hut")).unwrap().1, None);
        }
    });
    assert_eq!(store.lines(&home("hut")).unwrap(), lines(399));
}

#[test]
fn an_overwritten_page_takes_no_line_before_it_and_no_other_home_along() {
    let folder = folder_of(2000);
    let file = folder.path().join("wayfinder.sqlite");
    let bytes = fs::read(&file).unwrap();
    let (page, count) = (4096, bytes.len() / 4096);
    // The pages of the lines of one home, found by what stands in them.
    let holds = |n: usize, seq: u64| {
        let text = format!("\"id\":\"e{seq}\"");
        bytes[n * page..(n + 1) * page].windows(text.len()).any(|window| window == text.as_bytes())
    };
    let hurt = (1..count).filter(|n| holds(*n, 1000)).max().unwrap();
    let mut damaged = bytes.clone();
    damaged[hurt * page..(hurt + 1) * page].fill(0xa5);
    fs::write(&file, damaged).unwrap();
    let read = ReadOnly::open(folder.path()).unwrap();
    assert!(!read.wrong_with_the_file().is_empty());
    let checked = read.check().unwrap();
    let (hurt, whole): (Vec<_>, Vec<_>) = checked.iter().partition(|kept| kept.damage.is_some());
    assert_eq!((hurt.len(), whole.len(), whole[0].lines), (1, 1, 2000), "{checked:?}");
    assert!((1..1000).contains(&hurt[0].lines), "{}", hurt[0].lines);
    let damage = hurt[0].damage.clone().unwrap();
    assert_eq!(damage.line, hurt[0].lines + 1);
    assert!(matches!(damage.kind, DamageKind::Pages(..)), "{damage}");
    // The program opens the folder all the same.
    let store = Store::open(folder.path()).unwrap();
    assert_eq!(store.lines(&whole[0].home.id).unwrap().len(), 2000);
}

#[test]
fn a_file_cut_short_or_of_another_kind_is_said_to_be() {
    let folder = folder_of(2000);
    let file = folder.path().join("wayfinder.sqlite");
    let bytes = fs::read(&file).unwrap();
    fs::write(&file, &bytes[..bytes.len() / 2]).unwrap();
    match ReadOnly::open(folder.path()) {
        Ok(read) => {
            assert!(!read.wrong_with_the_file().is_empty());
            assert!(read.check().map_or(true, |kept| kept.iter().any(|kept| kept.damage.is_some())));
        }
        Err(error) => assert!(matches!(error, StoreError::FileDamaged(_)), "{error}"),
    }
    fs::write(&file, "a letter to my aunt, which is no database at all, though it is long enough to be one".repeat(60)).unwrap();
    for error in [ReadOnly::open(folder.path()).err(), Store::open(folder.path()).err()] {
        let error = error.unwrap();
        assert!(matches!(error, StoreError::FileDamaged(_)), "{error}");
        assert!(error.to_string().contains("wayfinder restore"));
    }
    let empty = tempfile::tempdir().unwrap();
    assert!(matches!(ReadOnly::open(empty.path()), Err(StoreError::NotOurs(_))));
}

#[test]
fn a_folder_that_nobody_may_write_to_is_looked_into() {
    let folder = folder_of(3);
    // The last lines are still in the log beside the file.
    let store = Store::open(folder.path()).unwrap();
    store.append(&home("hut"), vec![line(4)]).unwrap();
    let copy = tempfile::tempdir().unwrap();
    for name in ["wayfinder.sqlite", "wayfinder.sqlite-wal"] {
        fs::copy(folder.path().join(name), copy.path().join(name)).unwrap();
        fs::set_permissions(copy.path().join(name), fs::Permissions::from_mode(0o400)).unwrap();
    }
    drop(store);
    fs::set_permissions(copy.path(), fs::Permissions::from_mode(0o500)).unwrap();
    let kept = ReadOnly::open(copy.path()).unwrap().check().unwrap();
    assert_eq!(kept.iter().map(|kept| (kept.lines, kept.damage.clone())).collect::<Vec<_>>(), [(4, None), (3, None)]);
    fs::set_permissions(copy.path(), fs::Permissions::from_mode(0o700)).unwrap();
}

#[test]
fn a_copy_written_while_the_program_writes_is_of_one_moment_and_comes_back_the_same() {
    let folder = folder_of(3);
    let store = Store::open(folder.path()).unwrap();
    let copies = tempfile::tempdir().unwrap();
    let done = AtomicBool::new(false);
    std::thread::scope(|scope| {
        scope.spawn(|| {
            // Three lines at a time, in both homes.
            for seq in (4..).step_by(3).take_while(|_| !done.load(Ordering::SeqCst)) {
                for name in ["hut", "mill"] {
                    store.append(&home(name), vec![line(seq), line(seq + 1), line(seq + 2)]).unwrap();
                }
            }
        });
        for n in 0..10 {
            let file = copies.path().join(format!("copy-{n}"));
            let kept = backup(folder.path(), &file).unwrap();
            assert!(kept.iter().all(|kept| kept.damage.is_none() && kept.lines % 3 == 0), "no half batch: {kept:?}");
            assert!((0..=3).contains(&(kept[0].lines - kept[1].lines)), "of one moment: {kept:?}");
            assert_eq!(fs::metadata(&file).unwrap().permissions().mode() & 0o777, 0o600);
            let back = copies.path().join(format!("back-{n}"));
            assert_eq!(restore(&file, &back).unwrap(), kept);
            let restored = Store::open(&back).unwrap();
            for kept in &kept {
                assert_eq!(restored.lines(&kept.home.id).unwrap(), lines(kept.lines));
            }
            assert_eq!(restored.photos(&home("mill")).unwrap().len(), 1);
            assert_eq!(restored.setting("passphrase").unwrap().as_deref(), Some("a hash"));
        }
        done.store(true, Ordering::SeqCst);
    });
    assert_eq!(fs::read_dir(copies.path()).unwrap().count(), 20, "nothing unfinished is left");
}

#[test]
fn a_copy_is_written_over_nothing_and_a_damaged_one_is_not_put_back() {
    let folder = folder_of(9);
    let copies = tempfile::tempdir().unwrap();
    let file = copies.path().join("copy");
    backup(folder.path(), &file).unwrap();
    assert!(matches!(backup(folder.path(), &file), Err(StoreError::IsThere(_))));
    assert!(matches!(restore(&file, folder.path()), Err(StoreError::IsThere(_))));
    let connection = Connection::open(&file).unwrap();
    connection.execute("UPDATE lines SET body = replace(body, 'Hut', 'Hat') WHERE home = 'hut' AND seq = 5", []).unwrap();
    drop(connection);
    let back = copies.path().join("back");
    let refused = restore(&file, &back).unwrap_err().to_string();
    assert!(refused.contains("home hut, line 5 is not as it was written"), "{refused}");
    assert!(!back.exists());
    // A copy of a damaged folder is still written, and says what is wrong.
    by_hand(folder.path(), "DELETE FROM lines WHERE home = 'hut' AND seq = 4");
    let kept = backup(folder.path(), &copies.path().join("another")).unwrap();
    assert_eq!(kept[0].damage.clone().unwrap().kind, DamageKind::Missing(4));
}

#[test]
fn a_new_folder_and_its_files_are_this_users_alone_and_an_existing_folder_keeps_its_rights() {
    let outer = tempfile::tempdir().unwrap();
    let rights = |path: &Path| fs::metadata(path).unwrap().permissions().mode() & 0o777;
    for (name, before, after) in [("new", None, 0o700), ("shared", Some(0o750), 0o750)] {
        let folder = outer.path().join(name);
        if let Some(mode) = before {
            fs::create_dir(&folder).unwrap();
            fs::set_permissions(&folder, fs::Permissions::from_mode(mode)).unwrap();
            fs::write(folder.join("wayfinder.sqlite"), "").unwrap();
            fs::set_permissions(folder.join("wayfinder.sqlite"), fs::Permissions::from_mode(0o644)).unwrap();
        }
        let store = Store::open(&folder).unwrap();
        store.append(&home("hut"), lines(1)).unwrap();
        assert_eq!(rights(&folder), after, "{name}");
        for file in fs::read_dir(&folder).unwrap() {
            let file = file.unwrap().path();
            assert_eq!(rights(&file), 0o600, "{}", file.display());
        }
    }
}
