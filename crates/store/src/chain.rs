//! The chain over the lines of a home, and what is wrong where it does not hold.
//!
//! Each line carries a link: SHA-256 of the link before it (32 bytes), its number (8 bytes, big-endian) and its text as it is stored.
//! Before the first line stands SHA-256 of the home's id. The home itself carries how many lines it has, and the last link. It is
//! against faults of disk and hand, not against somebody who means to deceive: they could work out the chain anew.

use std::cmp::Ordering;

use rusqlite::{Connection, OptionalExtension, params};
use sha2::{Digest, Sha256};
use wayfinder_core::{Draft, HomeId, Line};

use crate::StoreError;

/// A link of the chain.
pub(crate) type Link = [u8; 32];

/// What is wrong with the lines of a home, and at which.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("{kind}")]
pub struct Damage {
    /// Which home.
    pub home: HomeId,
    /// The first line that is not as it was written. Every line before it is.
    pub line: u64,
    /// What is wrong with it.
    pub kind: DamageKind,
}

/// What is wrong with a line.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum DamageKind {
    /// It is not there.
    #[error("line {0} is missing")]
    Missing(u64),
    /// It is not what was written.
    #[error("line {0} is not as it was written")]
    Altered(u64),
    /// The last lines are gone.
    #[error("the last lines are gone: {written} were written, {there} are there")]
    CutShort {
        /// How many were written.
        written: u64,
        /// How many are there.
        there: u64,
    },
    /// More lines are there than were written.
    #[error("from line {0} on there are lines that Wayfinder did not write")]
    Added(u64),
    /// It is as it was written, and is no entry that this program knows.
    #[error("line {0} cannot be read: {1}")]
    Unreadable(u64, String),
    /// The file is damaged there.
    #[error("the file is damaged at line {0}: {1}")]
    Pages(u64, String),
    /// All lines can be read, and carry no chain.
    #[error("its lines carry no chain, so nobody can say whether all of them are there")]
    Unchained,
    /// It does not follow from the lines before it.
    #[error("line {0} does not follow from those before it: {1}")]
    DoesNotFollow(u64, String),
}

/// What stands before the first line.
pub(crate) fn first(home: &HomeId) -> Link {
    Sha256::digest(home.as_str()).into()
}

/// The link of a line.
pub(crate) fn link(before: &Link, seq: u64, body: &str) -> Link {
    Sha256::new().chain_update(before).chain_update(seq.to_be_bytes()).chain_update(body).finalize().into()
}

/// How far a home was written: how many lines, and the last link.
pub(crate) fn written(connection: &Connection, home: &HomeId) -> Result<(u64, Option<Link>), StoreError> {
    let mut statement = connection.prepare_cached("SELECT lines, link FROM homes WHERE id = ?1")?;
    let row = statement.query_row([home.as_str()], |row| Ok((row.get(0)?, row.get(1)?))).optional()?;
    Ok(row.unwrap_or_default())
}

/// Reads the lines of a home in order, up to the first that is not as it was written.
pub(crate) fn read(connection: &Connection, home: &HomeId, chained: bool) -> Result<(Vec<Line>, Option<Damage>), StoreError> {
    let mut lines: Vec<Line> = Vec::new();
    let damage = follow(connection, home, chained, |seq, body| {
        let entry = serde_json::from_str(body).map_err(|error| DamageKind::Unreadable(seq, error.to_string()))?;
        lines.push(Line { seq, entry });
        Ok(())
    })?;
    if let Some(damage) = &damage {
        lines.truncate(damage.line as usize - 1);
    }
    Ok((lines, damage))
}

/// What is wrong with the lines of a home, whatever they say.
pub(crate) fn check(connection: &Connection, home: &HomeId) -> Result<Option<Damage>, StoreError> {
    follow(connection, home, true, |_, _| Ok(()))
}

/// Follows the lines of a home in order, up to the first that is not as it was written. All is read as it is at one moment, whoever
/// writes meanwhile.
fn follow(
    connection: &Connection,
    home: &HomeId,
    chained: bool,
    mut each: impl FnMut(u64, &str) -> Result<(), DamageKind>,
) -> Result<Option<Damage>, StoreError> {
    let _one_moment = connection.unchecked_transaction()?;
    let damage = |line, kind| Ok(Some(Damage { home: home.clone(), line, kind }));
    let (written, last) = if chained { written(connection, home)? } else { (0, None) };
    let has_chain = last.is_some();
    let mut there: u64 = 0;
    let mut before = first(home);
    let what = if chained { "seq, body, link" } else { "seq, body, NULL" };
    let mut statement = connection.prepare_cached(&format!("SELECT {what} FROM lines WHERE home = ?1 ORDER BY seq"))?;
    let mut rows = statement.query([home.as_str()])?;
    loop {
        let next = there + 1;
        let row = match rows.next() {
            Ok(Some(row)) => (row.get::<_, u64>(0), row.get::<_, String>(1), row.get::<_, Option<Link>>(2)),
            Ok(None) => break,
            Err(error) => return damage(next, DamageKind::Pages(next, error.to_string())),
        };
        let (seq, body, own) = match row {
            (Ok(seq), Ok(body), Ok(own)) => (seq, body, own),
            (Err(error), ..) | (_, Err(error), _) | (.., Err(error)) => {
                return damage(next, DamageKind::Pages(next, error.to_string()));
            }
        };
        if seq != next {
            return damage(next, DamageKind::Missing(next));
        }
        let link = link(&before, seq, &body);
        if has_chain && own != Some(link) {
            return damage(seq, DamageKind::Altered(seq));
        }
        if let Err(kind) = each(seq, &body) {
            return damage(seq, kind);
        }
        there = seq;
        before = link;
    }
    match there.cmp(&written) {
        _ if !chained || there == 0 && written == 0 => Ok(None),
        _ if !has_chain => damage(there + 1, DamageKind::Unchained),
        Ordering::Less => damage(there + 1, DamageKind::CutShort { written, there }),
        Ordering::Greater => damage(written + 1, DamageKind::Added(written + 1)),
        Ordering::Equal if last != Some(before) => damage(there, DamageKind::Altered(there)),
        Ordering::Equal => Ok(None),
    }
}

/// Adds lines to a home that is there, all of which have to follow. Nothing is added to a home whose end is not as it was written.
pub(crate) fn extend(connection: &Connection, home: &HomeId, lines: &[Line]) -> Result<(), StoreError> {
    let (count, last) = written(connection, home)?;
    let mut end = connection.prepare_cached("SELECT seq, link FROM lines WHERE home = ?1 ORDER BY seq DESC LIMIT 1")?;
    let there: Option<(u64, Option<Link>)> = end.query_row([home.as_str()], |row| Ok((row.get(0)?, row.get(1)?))).optional()?;
    let mut before = match there {
        None if count == 0 => first(home),
        Some((seq, Some(link))) if seq == count && last == Some(link) => link,
        there => {
            let there = there.map_or(0, |(seq, _)| seq);
            let kind = if there < count {
                DamageKind::CutShort { written: count, there }
            } else if there > count {
                DamageKind::Added(count + 1)
            } else {
                DamageKind::Altered(there)
            };
            return Err(Damage { home: home.clone(), line: there.min(count) + 1, kind }.into());
        }
    };
    let mut insert = connection.prepare_cached("INSERT INTO lines (home, seq, entry, body, link) VALUES (?1, ?2, ?3, ?4, ?5)")?;
    let mut seq = count;
    for line in lines {
        seq += 1;
        if line.seq != seq {
            return Err(StoreError::Conflict { home: home.clone(), seq: line.seq });
        }
        let body = text(&line.entry);
        before = link(&before, seq, &body);
        insert.execute(params![home.as_str(), seq, line.entry.id.as_str(), body, before])?;
    }
    connection.prepare_cached("UPDATE homes SET lines = ?2, link = ?3 WHERE id = ?1")?.execute(params![
        home.as_str(),
        seq,
        before
    ])?;
    Ok(())
}

fn text(entry: &Draft) -> String {
    serde_json::to_string(entry).expect("an entry is JSON; anything else is a bug")
}

/// Makes the chain of what was written before there was one, home by home, of the lines as they are. A home whose lines the file
/// does not give out keeps no chain; its damage is found as soon as it is read.
pub(crate) fn make(connection: &Connection) -> rusqlite::Result<()> {
    let mut statement = connection.prepare("SELECT id FROM homes")?;
    let homes = statement.query_map([], |row| row.get::<_, String>(0))?.collect::<Result<Vec<_>, _>>()?;
    for home in homes {
        let Ok(id) = home.parse::<HomeId>() else { continue };
        let Ok(links) = links(connection, &id) else { continue };
        let mut update = connection.prepare_cached("UPDATE lines SET link = ?3 WHERE home = ?1 AND seq = ?2")?;
        for (seq, link) in &links {
            update.execute(params![home, seq, link])?;
        }
        let last = links.last().map(|(_, link)| *link);
        connection.execute("UPDATE homes SET lines = ?2, link = ?3 WHERE id = ?1", params![home, links.len(), last])?;
    }
    Ok(())
}

fn links(connection: &Connection, home: &HomeId) -> rusqlite::Result<Vec<(u64, Link)>> {
    let mut before = first(home);
    let mut statement = connection.prepare_cached("SELECT seq, body FROM lines WHERE home = ?1 ORDER BY seq")?;
    let rows = statement.query_map([home.as_str()], |row| Ok((row.get::<_, u64>(0)?, row.get::<_, String>(1)?)))?;
    rows.map(|row| {
        let (seq, body) = row?;
        before = link(&before, seq, &body);
        Ok((seq, before))
    })
    .collect()
}
