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

use crate::logbook::{Draft, Fact, Home, Kept, Logbook, Refusal, Seen};
use crate::{
    BreakerKept, BreakerMoved, BreakerPlaced, BreakerRemoved, BreakerSwitched, BreakersJoined, CardSize, Columns, DeviceWorked,
    EntryId, HomeDescribed, LabelOutcome, LegRead, Length, LineRestored, LineStruck, Moment, NeutralShared, Numbering,
    PanelDescribed, PanelDetails, PointDetails, PointKind, PointPlaced, PointRemoved, PointSeen, PointSkipped, PointStands,
    RoomPlaced, RoomRemoved, Service, Spot, State, Tie, Volts, VoltsRead, Wish, Worked, propose, read_card,
};

pub(crate) struct Written {
    pub(crate) home: Home,
    pub(crate) book: Logbook,
}

impl Written {
    /// Takes one more act, as the logbook would.
    pub(crate) fn act(&mut self, text: &str) -> Result<(), Refusal> {
        let drafts = drafts(&self.book, text);
        let outcome = self.book.admit(&drafts)?;
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

fn wish(book: &Logbook, wish: Wish) -> Vec<Fact> {
    let proposal = propose(book.home(), &wish).unwrap_or_else(|refusal| panic!("{wish:?}: {refusal}"));
    assert!(proposal.lines.iter().all(|line| line.misread.is_none()), "{:?}", proposal.lines);
    proposal.facts
}

fn facts(book: &Logbook, text: &str) -> Vec<Fact> {
    let (act, rest) = text.split_once(' ').unwrap_or((text, ""));
    let slug = |t: &str| t.to_lowercase().replace(|c: char| !c.is_ascii_alphanumeric(), "-");
    let breaker = |n: &str| {
        book.home()
            .breakers()
            .find(|b| book.home().number(&b.id) == n)
            .map_or_else(|| format!("missing-{n}").parse().unwrap(), |b| b.id.clone())
    };
    let switched = |to| vec![Fact::BreakerSwitched(BreakerSwitched { breaker: breaker(rest), to })];
    let point = slug(rest).parse();
    let seen = |seen| vec![Fact::PointSeen(PointSeen { point: slug(rest).parse().unwrap(), seen, since: None })];
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
                details: PanelDetails::default(),
            })]
        }
        "sub" => {
            let words: Vec<&str> = rest.split(' ').collect();
            vec![Fact::PanelDescribed(PanelDescribed {
                panel: slug(words[0]).parse().unwrap(),
                name: words[0].into(),
                place: String::new(),
                spaces: words[1].parse().unwrap(),
                columns: Columns::Two,
                numbering: Numbering::OddEven,
                service: Service::SplitPhase,
                main: None,
                card: CardSize { width_mm: 120.0, height_mm: 200.0 },
                details: PanelDetails { fed_by: words.get(2).map(|n| breaker(n)), ..PanelDetails::default() },
            })]
        }
        // `with main {"bus": 100}`: more details of a panel, as the JSON of the fact has them.
        "with" => {
            let (panel, json) = rest.split_once(' ').unwrap();
            let panel = book.home().panel(&panel.parse().unwrap()).unwrap();
            let mut described = serde_json::to_value(panel.described()).unwrap();
            merge(&mut described, serde_json::from_str(json).unwrap_or_else(|e| panic!("{json}: {e}")));
            vec![Fact::PanelDescribed(serde_json::from_value(described).unwrap_or_else(|e| panic!("{text}: {e}")))]
        }
        // `set 5-7 {"wire": …}`: more of a breaker.
        "set" => {
            let (number, json) = rest.split_once(' ').unwrap();
            let b = book.home().breaker(&breaker(number)).unwrap();
            let placed = BreakerPlaced {
                breaker: b.id.clone(),
                panel: b.panel.clone(),
                at: b.at.clone(),
                amps: b.amps,
                protection: b.protection,
                wire: b.wire,
                details: b.details.clone(),
            };
            let mut placed = serde_json::to_value(placed).unwrap();
            merge(&mut placed, serde_json::from_str(json).unwrap_or_else(|e| panic!("{json}: {e}")));
            vec![Fact::BreakerPlaced(serde_json::from_value(placed).unwrap_or_else(|e| panic!("{text}: {e}")))]
        }
        // `fact {"kind": …}`: any other.
        "fact" => vec![serde_json::from_str(rest).unwrap_or_else(|e| panic!("{rest}: {e}"))],
        "move" => {
            let (number, at) = rest.split_once(' ').unwrap();
            vec![Fact::BreakerMoved(BreakerMoved {
                breaker: breaker(number),
                at: at.split('-').map(|slot| slot.parse().unwrap()).collect(),
            })]
        }
        "join" => {
            let (one, other) = rest.split_once(' ').unwrap();
            vec![Fact::BreakersJoined(BreakersJoined { breaker: breaker(one), with: breaker(other), tie: Tie::Handle })]
        }
        "share" | "part" => {
            let breakers = rest.split(' ').map(breaker).collect();
            vec![Fact::NeutralShared(NeutralShared { breakers, shared: act == "share" })]
        }
        "read" => {
            let words: Vec<u16> = rest.split(' ').map(|w| w.parse().unwrap()).collect();
            let (space, against) = (words[0] as u8, words[1] as u8);
            vec![Fact::LegRead(LegRead { panel: "main".parse().unwrap(), space, against, volts: Volts::new(words[2]) })]
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
                "fan" => PointKind::Fan,
                "gfci" => PointKind::Receptacle,
                _ => PointKind::Appliance,
            };
            vec![Fact::PointPlaced(PointPlaced {
                point: slug(words[2]).parse().unwrap(),
                room: slug(words[0]).parse().unwrap(),
                point_kind: kind,
                name: words[2].into(),
                volts: Volts::new(120),
                configuration: None,
                only_one: false,
                plate: None,
                details: PointDetails { gfci: words[1] == "gfci", ..PointDetails::default() },
            })]
        }
        // `dark-at-most freezer 30`: minutes.
        "dark-at-most" => {
            let (name, minutes) = rest.rsplit_once(' ').unwrap();
            let p = book.home().point(&slug(name).parse().unwrap()).unwrap();
            vec![Fact::PointPlaced(PointPlaced {
                point: p.id.clone(),
                room: p.room.clone(),
                point_kind: p.kind,
                name: p.name.clone(),
                volts: p.volts,
                configuration: p.configuration,
                only_one: p.only_one,
                plate: p.plate,
                details: PointDetails { dark_minutes: Some(minutes.parse().unwrap()), ..p.details.clone() },
            })]
        }
        // `draw Kitchen 4.2 x 3.6 right of Hall`, `draw loft: Study 3 x 3`: as it is typed on the House screen.
        "draw" => {
            let (floor, text) = rest.split_once(": ").unwrap_or(("house", rest));
            let name: String = text.chars().take_while(|c| !c.is_ascii_digit()).collect();
            let ids = vec![slug(name.trim()).parse().unwrap()];
            wish(book, Wish::TypeRooms { text: text.into(), floor: floor.into(), beside: None, side: None, ids })
        }
        "door" | "stairs" => {
            let (one, other) = rest.split_once(' ').unwrap();
            let (room, to) = (slug(one).parse().unwrap(), slug(other).parse().unwrap());
            let id = format!("{act}-{}", slug(rest));
            wish(
                book,
                match act {
                    "door" => Wish::Door { opening: id.parse().unwrap(), room, to, width: Length::mm(800) },
                    _ => Wish::Stairs { stairs: id.parse().unwrap(), lower: room, upper: to },
                },
            )
        }
        "stand" => {
            let words: Vec<&str> = rest.rsplitn(3, ' ').collect();
            let at = Spot::at(words[1].parse().unwrap(), words[0].parse().unwrap());
            vec![Fact::PointStands(PointStands { point: slug(words[2]).parse().unwrap(), at: Some(at) })]
        }
        "no-point" => vec![Fact::PointRemoved(PointRemoved { point: point.unwrap() })],
        "lit" => seen(Seen::Lit),
        "dark" => seen(Seen::Dark),
        "skip" => vec![Fact::PointSkipped(PointSkipped { point: point.unwrap(), reason: String::new(), since: None })],
        // `volts counter 47.5`.
        "volts" => {
            let (name, volts) = rest.rsplit_once(' ').unwrap();
            let point = slug(name).parse().unwrap();
            vec![Fact::VoltsRead(VoltsRead { point, volts: volts.parse().unwrap(), since: None })]
        }
        "press-test" | "press-reset" => {
            let worked = if act == "press-test" { Worked::Tripped } else { Worked::Reset };
            vec![Fact::DeviceWorked(DeviceWorked { device: point.unwrap(), worked })]
        }
        "strike" => rest.split(' ').map(|n| Fact::LineStruck(LineStruck { line: line(n.parse().unwrap()) })).collect(),
        "restore" => rest.split(' ').map(|n| Fact::LineRestored(LineRestored { line: line(n.parse().unwrap()) })).collect(),
        _ => {
            // `5 20 attic` goes into the first panel, `greenhouse: 5 20 fan` into that one.
            let (panel, text) = match text.split_once(": ") {
                Some((panel, text)) => (book.home().panel(&slug(panel).parse().unwrap()).unwrap().clone(), text),
                None => (book.home().panels().next().unwrap().clone(), text),
            };
            let id = format!("b{}{}", panel.tag, slug(text.split(' ').next().unwrap()));
            let mut lines = read_card(book.home(), &panel, text, || id.parse().unwrap());
            match lines.pop().unwrap().outcome {
                LabelOutcome::Breaker { facts, .. } => facts,
                LabelOutcome::Nothing => Vec::new(),
                other => panic!("{text}: {other:?}"),
            }
        }
    }
}

/// Takes the fields of `more` into `value`, deep.
fn merge(value: &mut serde_json::Value, more: serde_json::Value) {
    match (value, more) {
        (serde_json::Value::Object(value), serde_json::Value::Object(more)) => {
            for (key, more) in more {
                merge(value.entry(key).or_insert(serde_json::Value::Null), more);
            }
        }
        (value, more) => *value = more,
    }
}
