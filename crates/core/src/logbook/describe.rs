//! A line of the logbook in words, for people.

use super::fold::state_word;
use super::{Fact, Home, Kept, Logbook, Seen, Worked};
use crate::{Bounds, BreakerId, Length, Line, PanelId, PointId, RoomId, State, Tie, Units, number_of};

/// Says what the line records, in the names of today: `Schoolroom, south wall, left: dark`.
pub fn describe(book: &Logbook, line: &Line) -> String {
    let home = book.home();
    match &line.entry.fact {
        Fact::HomeDescribed(f) => format!("The home is called {}", f.name),
        Fact::PanelDescribed(f) => format!("Panel: {}, {} spaces", f.name, f.spaces),
        Fact::RulesChosen(f) => format!("Findings are worded by {}", f.edition.name()),
        Fact::PanelRemoved(f) => format!("Panel removed: {}", panel(book, &f.panel)),
        Fact::LegRead(f) => {
            format!("{}: {} V read between spaces {} and {}", panel(book, &f.panel), f.volts.value(), f.space, f.against)
        }
        Fact::FillerSeen(f) => {
            format!("{}, space {}: {}", panel(book, &f.panel), f.at, if f.filler { "filler in" } else { "no filler" })
        }
        Fact::BreakerPlaced(f) => format!("Breaker {}{}: {}", tag(book, &f.panel), number_of(&f.at), f.amps),
        Fact::BreakerMoved(f) => format!("{} moved to {}", breaker_once(book, &f.breaker, line.seq), number_of(&f.at)),
        Fact::BreakersJoined(f) => format!(
            "{} and {} are one: {}",
            breaker_once(book, &f.breaker, line.seq),
            breaker_once(book, &f.with, line.seq).to_lowercase(),
            if f.tie == Tie::Handle { "handles tied" } else { "one mechanism" }
        ),
        Fact::NeutralShared(f) => {
            let numbers: Vec<_> = f.breakers.iter().map(|id| number(book, id)).collect();
            let names = numbers.join(" and ");
            match (f.shared, numbers.len()) {
                (true, 1) => format!("The poles of breaker {names} share a neutral"),
                (true, _) => format!("Breakers {names} share a neutral"),
                (false, _) => format!("Breaker {names}: no shared neutral"),
            }
        }
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
        Fact::UnitsChosen(f) => match f.units {
            Units::Metric => "Lengths are in meters".into(),
            Units::FeetInches => "Lengths are in feet and inches".into(),
        },
        Fact::FloorPlaced(f) => format!("Floor {} of the plan: {}", f.level, f.floor),
        Fact::RoomDrawn(f) if f.corners.is_empty() => format!("{}: no longer drawn", room(home, &f.room)),
        Fact::RoomDrawn(f) => match Bounds::around(f.corners.iter().copied()) {
            Some(b) => {
                let said = |mm| Length::mm(mm).said(home.drawn().units);
                format!("{}: drawn, {} × {}", room(home, &f.room), said(b.width), said(b.height))
            }
            None => format!("{}: drawn", room(home, &f.room)),
        },
        Fact::OpeningPlaced(f) => {
            format!("{}: {}, {} wide", room(home, &f.room), f.opening_kind.word(), f.width.said(home.drawn().units))
        }
        Fact::OpeningRemoved(_) => "A door, passage or window is gone from the plan".into(),
        Fact::StairsPlaced(f) => format!("Stairs from {} up to {}", room(home, &f.lower), room(home, &f.upper)),
        Fact::StairsRemoved(_) => "Stairs are gone from the plan".into(),
        Fact::PanelStands(f) => format!("{} hangs in {}", panel(book, &f.panel), room(home, &f.room)),
        Fact::BackdropLaid(f) => format!("A picture lies under the plan of {}", f.floor),
        Fact::BackdropRemoved(f) => format!("No picture under the plan of {}", f.floor),
        Fact::PointStands(f) if f.at.is_none() => format!("{}: no longer on the plan", point(home, &f.point)),
        Fact::PointStands(f) => format!("{}: placed on the plan", point(home, &f.point)),
        Fact::SwitchControls(f) => format!("{} switches {}", point(home, &f.switch), points(home, &f.points)),
        Fact::GfciProtects(f) => format!("{} protects {}", point(home, &f.device), points(home, &f.points)),
        Fact::PointPlaced(f) => format!("Point: {}, {} ({})", room(home, &f.room), f.name, f.point_kind.word()),
        Fact::PointRemoved(f) => format!("Point removed: {}", point(home, &f.point)),
        Fact::PointSeen(f) => format!("{}: {}", point(home, &f.point), if f.seen == Seen::Lit { "lit" } else { "dark" }),
        Fact::VoltsRead(f) => format!("{}: {} V", point(home, &f.point), f.volts),
        Fact::PointSkipped(f) if f.reason.is_empty() => format!("{}: skipped", point(home, &f.point)),
        Fact::PointSkipped(f) => format!("{}: skipped, {}", point(home, &f.point), f.reason),
        Fact::ToneHeard(f) => format!("{}: tone heard at {}", point(home, &f.point), breaker(book, &f.breaker).to_lowercase()),
        Fact::DeviceWorked(f) => {
            let worked = match f.worked {
                Worked::Tripped => "tripped with its test button",
                Worked::Reset => "reset",
                Worked::SwitchedOn => "switched on",
                Worked::NewLamp => "a new lamp put in",
            };
            format!("{}: {worked}", point(home, &f.device))
        }
        Fact::TraceSet(f) => format!("Traced {}", f.way.in_words()),
        Fact::PracticeHouse(f) => format!("A made-up house, drawn from number {}", f.recipe.seed),
        Fact::PhotoTaken(f) => format!("{}: photo of the {}", panel(book, &f.panel), f.of.word()),
        Fact::FindingSetAside(f) if f.aside => format!("Set aside: {} Reason: {}", f.message, f.reason),
        Fact::FindingSetAside(f) => format!("Counts again: {}", f.message),
        Fact::LineStruck(f) => about(book, "Struck out", &f.line),
        Fact::LineRestored(f) => about(book, "Restored", &f.line),
    }
}

fn about(book: &Logbook, act: &str, id: &crate::EntryId) -> String {
    book.line(id).map_or_else(|| act.to_owned(), |target| format!("{act} line {}: {}", target.seq, describe(book, target)))
}

/// The breaker by its number, also when it has been struck out or taken out since.
fn breaker(book: &Logbook, id: &BreakerId) -> String {
    format!("Breaker {}", number(book, id))
}

fn number(book: &Logbook, id: &BreakerId) -> String {
    match book.home().breaker(id) {
        Some(_) => book.home().number(id),
        None => number_before(book, id, u64::MAX).unwrap_or_else(|| "unknown".into()),
    }
}

/// The breaker by the number it had before the line `seq`.
fn breaker_once(book: &Logbook, id: &BreakerId, seq: u64) -> String {
    number_before(book, id, seq).map_or_else(|| breaker(book, id), |number| format!("Breaker {number}"))
}

fn number_before(book: &Logbook, id: &BreakerId, seq: u64) -> Option<String> {
    let mut panel_tag = String::new();
    if let Some(placed) = book.lines().rev().find_map(|line| match &line.entry.fact {
        Fact::BreakerPlaced(f) if &f.breaker == id => Some(&f.panel),
        _ => None,
    }) {
        panel_tag = tag(book, placed);
    }
    book.lines().rev().filter(|line| line.seq < seq && !book.is_struck(&line.entry.id)).find_map(|line| match &line.entry.fact {
        Fact::BreakerPlaced(f) if &f.breaker == id => Some(format!("{panel_tag}{}", number_of(&f.at))),
        Fact::BreakerMoved(f) if &f.breaker == id => Some(format!("{panel_tag}{}", number_of(&f.at))),
        _ => None,
    })
}

fn tag(book: &Logbook, id: &PanelId) -> String {
    book.home().panel(id).map_or_else(String::new, |panel| panel.tag.clone())
}

fn panel(book: &Logbook, id: &PanelId) -> String {
    book.home().panel(id).map_or_else(|| "A removed panel".into(), |panel| panel.name.clone())
}

fn room(home: &Home, id: &RoomId) -> String {
    home.room(id).map_or_else(|| "a removed room".into(), |room| room.name.clone())
}

fn points(home: &Home, ids: &[PointId]) -> String {
    match ids {
        [] => "nothing".into(),
        ids => ids.iter().map(|id| point(home, id)).collect::<Vec<_>>().join("; "),
    }
}

fn point(home: &Home, id: &PointId) -> String {
    home.point(id).map_or_else(|| "A removed point".into(), |p| format!("{}, {}", room(home, &p.room), p.name))
}
