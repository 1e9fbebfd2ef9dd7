//! A line of the logbook in words, for people.

use super::fold::state_word;
use super::{Fact, Home, Kept, Logbook, Seen};
use crate::{BreakerId, Line, PointId, RoomId, State, number_of};

/// Says what the line records, in the names of today: `Schoolroom, south wall, left: dark`.
pub fn describe(book: &Logbook, line: &Line) -> String {
    let home = book.home();
    match &line.entry.fact {
        Fact::HomeDescribed(f) => format!("The home is called {}", f.name),
        Fact::PanelDescribed(f) => format!("Panel: {}, {} spaces", f.name, f.spaces),
        Fact::BreakerPlaced(f) => format!("Breaker {}: {}", number_of(&f.at), f.amps),
        Fact::BreakerRemoved(f) => format!("{} taken out", breaker(book, &f.breaker)),
        Fact::BreakerKept(f) => {
            let reason = if f.reason.is_empty() { String::new() } else { format!(": {}", f.reason) };
            match f.kept {
                Some(Kept::On) => format!("{} must stay on{reason}", breaker(book, &f.breaker)),
                Some(Kept::Off) => format!("{} is left off{reason}", breaker(book, &f.breaker)),
                None => format!("{} may be switched again", breaker(book, &f.breaker)),
            }
        }
        Fact::BreakerSwitched(f) => match f.to {
            State::Tripped => format!("{} tripped", breaker(book, &f.breaker)),
            to => format!("{} switched {}", breaker(book, &f.breaker), state_word(to)),
        },
        Fact::LabelClaimed(f) if f.text.is_empty() => format!("{}: the old card says nothing", breaker(book, &f.breaker)),
        Fact::LabelClaimed(f) => format!("{}: the old card says “{}”", breaker(book, &f.breaker), f.text),
        Fact::RoomPlaced(f) => format!("Room: {}", f.name),
        Fact::RoomRemoved(f) => format!("Room removed: {}", room(home, &f.room)),
        Fact::PointPlaced(f) => format!("Point: {}, {} ({})", room(home, &f.room), f.name, f.point_kind.word()),
        Fact::PointRemoved(f) => format!("Point removed: {}", point(home, &f.point)),
        Fact::PointSeen(f) => format!("{}: {}", point(home, &f.point), if f.seen == Seen::Lit { "lit" } else { "dark" }),
        Fact::PointSkipped(f) if f.reason.is_empty() => format!("{}: skipped", point(home, &f.point)),
        Fact::PointSkipped(f) => format!("{}: skipped, {}", point(home, &f.point), f.reason),
        Fact::LineStruck(f) => about(book, "Struck out", &f.line),
        Fact::LineRestored(f) => about(book, "Restored", &f.line),
    }
}

fn about(book: &Logbook, act: &str, id: &crate::EntryId) -> String {
    book.line(id).map_or_else(|| act.to_owned(), |target| format!("{act} line {}: {}", target.seq, describe(book, target)))
}

/// The breaker by its number, also when it has been struck out or taken out since.
fn breaker(book: &Logbook, id: &BreakerId) -> String {
    let number = match book.home().breaker(id) {
        Some(breaker) => Some(breaker.number()),
        None => book.lines().rev().find_map(|line| match &line.entry.fact {
            Fact::BreakerPlaced(f) if &f.breaker == id => Some(number_of(&f.at)),
            _ => None,
        }),
    };
    number.map_or_else(|| "An unknown breaker".into(), |n| format!("Breaker {n}"))
}

fn room(home: &Home, id: &RoomId) -> String {
    home.room(id).map_or_else(|| "a removed room".into(), |room| room.name.clone())
}

fn point(home: &Home, id: &PointId) -> String {
    home.point(id).map_or_else(|| "A removed point".into(), |p| format!("{}, {}", room(home, &p.room), p.name))
}
