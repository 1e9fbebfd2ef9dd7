//! Text fixtures for tests, one act a line, that read like what a person does:
//!
//! ```text
//! panel 24
//! 1 20 kitchen
//! room Kitchen
//! point Kitchen receptacle counter
//! lit counter
//! off 1
//! dark counter
//! on 1
//! strike 7
//! ```

use super::{Draft, Fact, Home, Kept, Logbook, Refusal, Seen};
use crate::{
    BreakerKept, BreakerRemoved, BreakerSwitched, CardSize, Columns, EntryId, HomeDescribed, LabelOutcome, LineRestored,
    LineStruck, Moment, Numbering, PanelDescribed, PointKind, PointPlaced, PointRemoved, PointSeen, PointSkipped, RoomPlaced,
    RoomRemoved, Service, State, Volts, read_card,
};

pub(crate) struct Written {
    pub(crate) home: Home,
    pub(crate) book: Logbook,
}

impl Written {
    /// Takes one more act, as the logbook would.
    pub(crate) fn act(&mut self, text: &str) -> Result<(), Refusal> {
        let drafts = drafts(&self.book, text);
        let outcome = self.book.admit(&drafts, None)?;
        self.book.commit(outcome);
        self.home = self.book.home().clone();
        Ok(())
    }
}

/// A logbook written by these acts. The home's name is line 1.
pub(crate) fn written(text: &str) -> Written {
    let mut written = Written { home: Home::default(), book: Logbook::default() };
    written.act("home Test").unwrap();
    for line in text.lines().map(str::trim).filter(|line| !line.is_empty()) {
        written.act(line).unwrap_or_else(|refusal| panic!("{line}: {refusal}"));
    }
    written
}

/// The entry id of line `seq`.
pub(crate) fn line(seq: u64) -> EntryId {
    format!("e{seq}").parse().unwrap()
}

fn drafts(book: &Logbook, text: &str) -> Vec<Draft> {
    let seq = book.seq() + 1;
    facts(book, text)
        .into_iter()
        .zip(seq..)
        .map(|(fact, n)| Draft {
            id: line(n),
            at: Moment::from_unix_ms(n as i64 * 1000),
            by: "tester".into(),
            instrument: None,
            version: Fact::VERSION,
            fact,
        })
        .collect()
}

fn facts(book: &Logbook, text: &str) -> Vec<Fact> {
    let (act, rest) = text.split_once(' ').unwrap_or((text, ""));
    let slug = |t: &str| t.to_lowercase().replace(|c: char| !c.is_ascii_alphanumeric(), "-");
    let breaker = |n: &str| {
        book.home().breakers().find(|b| b.number() == n).map_or_else(|| format!("missing-{n}").parse().unwrap(), |b| b.id.clone())
    };
    let switched = |to| vec![Fact::BreakerSwitched(BreakerSwitched { breaker: breaker(rest), to })];
    let point = slug(rest).parse();
    let seen = |seen| vec![Fact::PointSeen(PointSeen { point: slug(rest).parse().unwrap(), seen })];
    match act {
        "home" => vec![Fact::HomeDescribed(HomeDescribed { name: rest.into() })],
        "panel" => {
            let words: Vec<&str> = rest.split(' ').collect();
            vec![Fact::PanelDescribed(PanelDescribed {
                panel: "main".parse().unwrap(),
                name: "Main panel".into(),
                place: "back hall".into(),
                spaces: words[0].parse().unwrap(),
                columns: if words.contains(&"one-column") { Columns::One } else { Columns::Two },
                numbering: if words.contains(&"straight") { Numbering::StraightDown } else { Numbering::OddEven },
                service: if words.contains(&"three-phase") { Service::ThreePhase } else { Service::SplitPhase },
                main: None,
                card: CardSize { width_mm: 120.0, height_mm: 200.0 },
            })]
        }
        "off" => switched(State::Off),
        "on" => switched(State::On),
        "tripped" => switched(State::Tripped),
        "must-stay-on" => {
            vec![Fact::BreakerKept(BreakerKept { breaker: breaker(rest), kept: Some(Kept::On), reason: "pump".into() })]
        }
        "left-off" => {
            vec![Fact::BreakerKept(BreakerKept { breaker: breaker(rest), kept: Some(Kept::Off), reason: "spare".into() })]
        }
        "take-out" => vec![Fact::BreakerRemoved(BreakerRemoved { breaker: breaker(rest) })],
        "room" => vec![Fact::RoomPlaced(RoomPlaced { room: slug(rest).parse().unwrap(), name: rest.into(), floor: None })],
        "no-room" => vec![Fact::RoomRemoved(RoomRemoved { room: slug(rest).parse().unwrap() })],
        "point" => {
            let words: Vec<&str> = rest.splitn(3, ' ').collect();
            let kind = match words[1] {
                "receptacle" => PointKind::Receptacle,
                "light" => PointKind::Light,
                "switch" => PointKind::Switch,
                "alarm" => PointKind::Alarm,
                _ => PointKind::Appliance,
            };
            vec![Fact::PointPlaced(PointPlaced {
                point: slug(words[2]).parse().unwrap(),
                room: slug(words[0]).parse().unwrap(),
                point_kind: kind,
                name: words[2].into(),
                volts: Volts::new(120),
            })]
        }
        "no-point" => vec![Fact::PointRemoved(PointRemoved { point: point.unwrap() })],
        "lit" => seen(Seen::Lit),
        "dark" => seen(Seen::Dark),
        "skip" => vec![Fact::PointSkipped(PointSkipped { point: point.unwrap(), reason: String::new() })],
        "strike" => rest.split(' ').map(|n| Fact::LineStruck(LineStruck { line: line(n.parse().unwrap()) })).collect(),
        "restore" => rest.split(' ').map(|n| Fact::LineRestored(LineRestored { line: line(n.parse().unwrap()) })).collect(),
        _ => {
            let panel = book.home().panel().unwrap().clone();
            let mut lines = read_card(book.home(), &panel, text, || format!("b{}", slug(act)).parse().unwrap());
            match lines.pop().unwrap().outcome {
                LabelOutcome::Breaker { facts, .. } => facts,
                other => panic!("{text}: {other:?}"),
            }
        }
    }
}
