//! Any sequence of entries either applies or is refused, and never panics; the fold is deterministic; struck
//! out and back in restores; "proven" is what a naive reading of its definition says.
#![allow(clippy::unwrap_used)] // a test that finds nothing to unwrap has failed

use std::collections::{BTreeMap, BTreeSet};

use proptest::prelude::*;
use wayfinder_core::*;

fn id<T: std::str::FromStr>(kind: &str, n: u8) -> T
where
    T::Err: std::fmt::Debug,
{
    format!("{kind}{n}").parse().unwrap()
}

/// An ordinary panel of so many spaces.
fn panel_of(n: u8, spaces: u8) -> PanelDescribed {
    PanelDescribed {
        panel: id("panel", n),
        name: format!("Panel {n}"),
        place: String::new(),
        spaces,
        columns: Columns::Two,
        numbering: Numbering::OddEven,
        service: Service::SplitPhase,
        main: None,
        card: CardSize { width_mm: 100.0, height_mm: 150.0 },
        details: PanelDetails::default(),
    }
}

/// The nth breaker of 15 A, in the nth space.
fn breaker_of(n: u8, panel: u8) -> BreakerPlaced {
    BreakerPlaced {
        breaker: id("b", n),
        panel: id("panel", panel),
        at: vec![Slot::whole(n + 1)],
        amps: Amps::new(15.0),
        protection: Protection::Standard,
        wire: None,
        details: BreakerDetails::default(),
    }
}

/// The nth light.
fn point_of(n: u8, room: u8) -> PointPlaced {
    PointPlaced {
        point: id("p", n),
        room: id("r", room),
        point_kind: PointKind::Light,
        name: format!("light {n}"),
        volts: Volts::new(120),
        configuration: None,
        only_one: false,
        plate: None,
        details: PointDetails::default(),
    }
}

/// Facts about few things, so that they meet.
fn fact() -> impl Strategy<Value = Fact> {
    let b = 0..5_u8;
    let p = 0..4_u8;
    let text = "[ -~]{0,8}|.{0,3}|Kitchen|lights";
    let slot = (0..14_u8, prop_oneof![Just(""), Just("a"), Just("b")])
        .prop_filter_map("no such slot", |(n, half)| format!("{n}{half}").parse::<Slot>().ok());
    prop_oneof![
        1 => text.prop_map(|name| Fact::HomeDescribed(HomeDescribed { name })),
        2 => (0..3_u8, 0..90_u8, any::<bool>(), any::<bool>(), 0..5_u8, prop::option::of(0..5_u8)).prop_map(|(panel, spaces, one, odd, service, fed_by)| {
            let service = [Service::SplitPhase, Service::TwoLegs208, Service::ThreePhase, Service::HighLeg, Service::OneLeg120][usize::from(service)];
            let columns = if one { Columns::One } else { Columns::Two };
            let numbering = if odd { Numbering::OddEven } else { Numbering::StraightDown };
            let details = PanelDetails { fed_by: fed_by.map(|b| id("b", b)), bus: Some(Amps::new(60.0)), circuits: Some(3), ..PanelDetails::default() };
            Fact::PanelDescribed(PanelDescribed { columns, numbering, service, details, ..panel_of(panel, spaces) })
        }),
        1 => (1..14_u8, 1..14_u8).prop_map(|(a, b)| Fact::PanelDescribed(PanelDescribed { numbering: Numbering::AsEngraved { left: (1..=a).rev().collect(), right: (a + 1..=a + b).collect() }, ..panel_of(0, a + b) })),
        1 => (0..3_u8).prop_map(|p| Fact::PanelRemoved(PanelRemoved { panel: id("panel", p) })),
        6 => (b.clone(), 0..3_u8, prop::collection::vec(slot.clone(), 0..4), -5.0..500.0_f64).prop_map(|(b, panel, at, amps)| Fact::BreakerPlaced(BreakerPlaced { amps: Amps::new(amps), at, ..breaker_of(b, panel) })),
        2 => (b.clone(), prop::collection::vec(slot.clone(), 1..3)).prop_map(|(b, at)| Fact::BreakerMoved(BreakerMoved { breaker: id("b", b), at })),
        2 => (b.clone(), b.clone()).prop_map(|(b, with)| Fact::BreakersJoined(BreakersJoined { breaker: id("b", b), with: id("b", with), tie: Tie::Handle })),
        2 => (prop::collection::vec(b.clone(), 0..4), any::<bool>()).prop_map(|(bs, shared)| Fact::NeutralShared(NeutralShared { breakers: bs.into_iter().map(|b| id("b", b)).collect(), shared })),
        1 => (0..3_u8, 0..14_u8, 0..14_u8, prop_oneof![Just(0_u16), Just(208), Just(240), 0..300_u16]).prop_map(|(p, space, against, volts)| Fact::LegRead(LegRead { panel: id("panel", p), space, against, volts: Volts::new(volts) })),
        1 => (0..3_u8, slot, any::<bool>()).prop_map(|(p, at, filler)| Fact::FillerSeen(FillerSeen { panel: id("panel", p), at, filler })),
        1 => (0..3_u8, 0..3_u8).prop_map(|(photo, panel)| Fact::PhotoTaken(PhotoTaken { photo: id("ph", photo), panel: id("panel", panel), of: PhotoOf::Label })),
        1 => (text, any::<bool>()).prop_map(|(text, aside)| Fact::FindingSetAside(FindingSetAside { finding: "x".into(), message: text, reason: "because".into(), aside })),
        1 => b.clone().prop_map(|b| Fact::BreakerRemoved(BreakerRemoved { breaker: id("b", b) })),
        1 => (b.clone(), 0..3_u8).prop_map(|(b, k)| Fact::BreakerKept(BreakerKept { breaker: id("b", b), kept: [None, Some(Kept::On), Some(Kept::Off)][usize::from(k)], reason: String::new() })),
        8 => (b.clone(), 0..3_u8).prop_map(|(b, s)| Fact::BreakerSwitched(BreakerSwitched { breaker: id("b", b), to: [State::On, State::Off, State::Tripped][usize::from(s)] })),
        1 => (b, text).prop_map(|(b, text)| Fact::LabelClaimed(LabelClaimed { breaker: id("b", b), text })),
        3 => (0..3_u8, text).prop_map(|(r, name)| Fact::RoomPlaced(RoomPlaced { room: id("r", r), name, floor: None })),
        1 => (0..3_u8).prop_map(|r| Fact::RoomRemoved(RoomRemoved { room: id("r", r) })),
        4 => (p.clone(), 0..3_u8, text).prop_map(|(p, r, name)| Fact::PointPlaced(PointPlaced { name, ..point_of(p, r) })),
        1 => p.clone().prop_map(|p| Fact::PointRemoved(PointRemoved { point: id("p", p) })),
        12 => (p.clone(), any::<bool>()).prop_map(|(p, lit)| Fact::PointSeen(PointSeen { point: id("p", p), seen: if lit { Seen::Lit } else { Seen::Dark }, since: None })),
        2 => (p.clone(), prop_oneof![Just(0.3), Just(47.5), Just(121.0), -5.0..1100.0_f64]).prop_map(|(p, volts)| Fact::VoltsRead(VoltsRead { point: id("p", p), volts, since: None })),
        1 => (p.clone(), any::<bool>()).prop_map(|(p, gfci)| {
            let placed = point_of(p, p % 2);
            Fact::PointPlaced(PointPlaced { details: PointDetails { gfci, ..placed.details }, ..placed })
        }),
        1 => (p.clone(), any::<bool>()).prop_map(|(p, reset)| Fact::DeviceWorked(DeviceWorked { device: id("p", p), worked: if reset { Worked::Reset } else { Worked::Tripped } })),
        1 => p.clone().prop_map(|p| Fact::PointSkipped(PointSkipped { point: id("p", p), reason: String::new(), since: None })),
        3 => (0..3_u8, prop::collection::vec((-9..9_i32, -9..9_i32), 0..7)).prop_map(|(r, corners)| Fact::RoomDrawn(RoomDrawn { room: id("r", r), corners: corners.into_iter().map(|(x, y)| Spot::at(x * 500, y * 500)).collect() })),
        3 => (0..3_u8, (0..8_i32, 0..8_i32), (1..9_i32, 1..9_i32)).prop_map(|(r, (x, y), (w, h))| {
            let corners = [(x, y), (x + w, y), (x + w, y + h), (x, y + h)].map(|(x, y)| Spot::at(x * 500, y * 500)).to_vec();
            Fact::RoomDrawn(RoomDrawn { room: id("r", r), corners })
        }),
        2 => (0..3_u8, 0..3_u8, 0..6_u8, -100..4000_i32, 0..2000_i32).prop_map(|(o, r, wall, from, width)| Fact::OpeningPlaced(OpeningPlaced { opening: id("o", o), opening_kind: [OpeningKind::Door, OpeningKind::Passage, OpeningKind::Window][usize::from(o)], room: id("r", r), wall, from: Length::mm(from), width: Length::mm(width) })),
        1 => (0..3_u8, 0..3_u8, 0..3_u8).prop_map(|(s, a, b)| Fact::StairsPlaced(StairsPlaced { stairs: id("s", s), lower: id("r", a), lower_at: Spot::at(500, 500), upper: id("r", b), upper_at: Spot::at(900, 300) })),
        2 => (p.clone(), prop::option::of((-500..4000_i32, -500..4000_i32))).prop_map(|(p, at)| Fact::PointStands(PointStands { point: id("p", p), at: at.map(|(x, y)| Spot::at(x, y)) })),
        1 => (0..3_u8, 0..3_u8).prop_map(|(panel, r)| Fact::PanelStands(PanelStands { panel: id("panel", panel), room: id("r", r), at: Spot::at(100, 100) })),
        1 => (p.clone(), prop::collection::vec(p.clone(), 0..3)).prop_map(|(s, points)| Fact::SwitchControls(SwitchControls { switch: id("p", s), points: points.into_iter().map(|n| id("p", n)).collect() })),
        2 => (0..60_u8).prop_map(|n| Fact::LineStruck(LineStruck { line: id("e", n) })),
        1 => (0..60_u8).prop_map(|n| Fact::LineRestored(LineRestored { line: id("e", n) })),
    ]
}

fn draft(n: usize, fact: Fact) -> Draft {
    Draft {
        id: format!("e{n}").parse().unwrap(),
        at: Moment::from_unix_ms(n as i64),
        by: "x".into(),
        instrument: None,
        version: Fact::VERSION,
        fact,
    }
}

/// A small home to begin with, then whatever comes; what is refused is left out.
fn written(facts: Vec<Fact>) -> Logbook {
    let room = |n| Fact::RoomPlaced(RoomPlaced { room: id("r", n), name: format!("Room {n}"), floor: None });
    let point = |n: u8| Fact::PointPlaced(point_of(n, n % 2));
    let breaker = |n: u8| Fact::BreakerPlaced(breaker_of(n, 0));
    let panel = Fact::PanelDescribed(panel_of(0, 12));
    let start = [
        Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }),
        panel,
        breaker(0),
        breaker(1),
        breaker(2),
        room(0),
        room(1),
        point(0),
        point(1),
        point(2),
    ];
    let mut book = Logbook::default();
    for (n, fact) in start.into_iter().chain(facts).enumerate() {
        let before = (book.seq(), book.home().clone());
        match book.admit(&[draft(n, fact)]) {
            Ok(outcome) => book.commit(outcome),
            Err(refusal) => {
                assert!(refusal.wrong.ends_with('.') && !refusal.accepted.is_empty(), "{refusal:?}");
                assert_eq!(before, (book.seq(), book.home().clone()), "a refusal changed something");
            }
        }
    }
    book
}

/// Knows only the definition: two looks at one point, lit and later dark, whose breakers that were off
/// differ by exactly one, the others off from the one look to the other; and no look since the point was
/// last mended speaks against that breaker; and every breaker that was switched on again in between has shown that it
/// latched: a point proven on it (or behind it) was lit while it stood so, or this point was, or was lit with it off; and
/// every GFCI that was tripped in between, this point not seen lit meanwhile, has shown that it was reset: it, or what was
/// dark meanwhile, or this point was lit since. What was dark while one was tripped counts not at all.
fn naively_proven(book: &Logbook) -> BTreeMap<PointId, BTreeSet<BreakerId>> {
    let mut proven: BTreeMap<PointId, BTreeSet<BreakerId>> = BTreeMap::new();
    let mut lit: Vec<(BreakerId, Lit)> = Vec::new();
    // A single dark look proves only what all else makes likely, too. How likely it is, is tested beside the enumeration of
    // small houses; here the product's word is taken for it, but for a single dark look alone.
    let once = |point: &PointId| matches!(verdict(book.home(), point), Verdict::Open { once: Some(_), .. });
    let at = |point: &PointId, lit: &[(BreakerId, Lit)]| {
        let (mut on, seen_lit, dark) = naively_proven_at(book, point, lit);
        if dark == 1 && once(point) {
            on.clear();
        }
        (on, seen_lit)
    };
    loop {
        let each: Vec<_> = book.home().points().map(|p| (p.id.clone(), at(&p.id, &lit))).collect();
        let next = each.iter().map(|(p, (on, _))| (p.clone(), on.clone())).collect();
        lit = each.iter().flat_map(|(_, (on, at))| on.iter().flat_map(|b| at.iter().map(|m| (b.clone(), *m)))).collect();
        if next == proven {
            return proven;
        }
        proven = next;
    }
}

/// Which point was seen, and whether it was lit.
fn seen_lit(fact: &Fact) -> Option<(&PointId, bool)> {
    match fact {
        Fact::PointSeen(f) => Some((&f.point, f.seen == Seen::Lit)),
        Fact::VoltsRead(f) if f.volts < 10.0 => Some((&f.point, false)),
        Fact::VoltsRead(f) if f.volts >= 100.0 => Some((&f.point, true)),
        _ => None,
    }
}

/// A lit look: after so many moves, on that line.
type Lit = (usize, usize);

/// What one point is proven on, when it was seen lit, and how many dark looks single a breaker out; `lit`: when points proven on a breaker were.
fn naively_proven_at(book: &Logbook, point: &PointId, lit: &[(BreakerId, Lit)]) -> (BTreeSet<BreakerId>, Vec<Lit>, usize) {
    struct Look {
        nth: usize,
        lit: bool,
        off: BTreeSet<BreakerId>,
        moment: usize,
    }
    // A breaker is without power when it is off, or when the breaker that feeds its panel is.
    fn dead(home: &Home, off: &BTreeSet<BreakerId>) -> BTreeSet<BreakerId> {
        let without = |breaker: &Breaker| {
            let mut at = Some(breaker);
            while let Some(b) = at {
                if off.contains(&b.id) {
                    return true;
                }
                at = home.panel(&b.panel).and_then(|p| p.details.fed_by.as_ref()).and_then(|f| home.breaker(f));
            }
            false
        };
        off.iter().cloned().chain(home.breakers().filter(|b| without(b)).map(|b| b.id.clone())).collect()
    }
    struct Trip {
        device: PointId,
        nth: usize,
        reset: Option<usize>,
        seen: BTreeMap<PointId, bool>,
        /// When something showed that it was reset.
        power: Vec<usize>,
    }
    let mut trips: Vec<Trip> = Vec::new();
    let (mut off, mut history, mut looks) = (BTreeSet::new(), Vec::new(), Vec::<Look>::new());
    let mut moved: Vec<BreakerId> = Vec::new();
    let mut restart = 0;
    let mut out = false;
    for line in book.lines().filter(|line| !book.is_struck(&line.entry.id)) {
        let nth = line.seq as usize;
        if let Some((at, lit)) = seen_lit(&line.entry.fact) {
            let mut is_tripped = false;
            for trip in &mut trips {
                if trip.reset.is_none() {
                    is_tripped = true;
                    trip.seen.insert(at.clone(), lit);
                } else if lit && (at == point || at == &trip.device || trip.seen.get(at) == Some(&false)) {
                    trip.power.push(nth);
                }
            }
            if at == point && (lit || !is_tripped) {
                if off.is_empty() {
                    if lit && out {
                        restart = looks.len();
                    }
                    out = !lit;
                }
                looks.push(Look { nth, lit, off: off.clone(), moment: history.len() });
            }
        }
        match &line.entry.fact {
            Fact::DeviceWorked(f)
                if f.worked == Worked::Tripped && !trips.iter().any(|trip| trip.reset.is_none() && trip.device == f.device) =>
            {
                let (device, seen) = (f.device.clone(), BTreeMap::new());
                trips.push(Trip { device, nth, reset: None, seen, power: Vec::new() });
            }
            Fact::DeviceWorked(f) if f.worked == Worked::Reset => {
                for trip in trips.iter_mut().rev().filter(|trip| trip.device == f.device).take(1) {
                    trip.reset = Some(nth);
                }
            }
            Fact::PointSkipped(f) => {
                for trip in trips.iter_mut().filter(|trip| trip.reset.is_none()) {
                    trip.seen.remove(&f.point);
                }
            }
            Fact::BreakerSwitched(f) => {
                let changed = if f.to == State::On { off.remove(&f.breaker) } else { off.insert(f.breaker.clone()) };
                if changed {
                    history.push(dead(book.home(), &off));
                    moved.push(f.breaker.clone());
                }
            }
            // Of two that become one, a look with one of them off says nothing about the other.
            Fact::BreakersJoined(f) if !looks.iter().any(|look| !look.lit && look.off.contains(&f.breaker)) => {
                for look in looks.iter_mut().filter(|look| look.lit && !look.off.contains(&f.with)) {
                    look.off.remove(&f.breaker);
                }
            }
            _ => {}
        }
    }
    for look in &mut looks {
        look.off = dead(book.home(), &look.off);
    }
    let mut looks = &looks[restart..];
    // Where only breakers that are gone fit what was seen, the count begins anew after them.
    let gone = |b: &&BreakerId| book.home().breaker(b).is_none();
    for last in (0..looks.len()).rev() {
        if looks[last].off.iter().any(|b| gone(&b)) {
            let then = &looks[..=last];
            let heard_of: BTreeSet<&BreakerId> = then.iter().flat_map(|look| look.off.iter()).collect();
            let fit: Vec<_> =
                heard_of.into_iter().filter(|b| then.iter().all(|look| look.off.contains(*b) != look.lit)).collect();
            if then.iter().any(|look| !look.lit) && !fit.is_empty() && fit.iter().all(gone) {
                looks = &looks[last + 1..];
            }
            break;
        }
    }
    let latched = |c: &BreakerId, dark: &Look| {
        let switched_on = (0..dark.moment).rev().find(|n| &moved[*n] == c).unwrap();
        let powers = |b: &BreakerId| dead(book.home(), &BTreeSet::from([c.clone()])).contains(b);
        lit.iter().any(|(b, (moment, nth))| powers(b) && *moment > switched_on && *nth < dark.nth)
            || looks
                .iter()
                .filter(|look| look.lit)
                .any(|look| look.off.contains(c) || (look.moment > switched_on && look.nth < dark.nth))
    };
    let (mut proven, mut singled_out) = (BTreeSet::new(), BTreeSet::new());
    for (n, lit) in looks.iter().enumerate().filter(|(_, look)| look.lit) {
        for dark in looks[n..].iter().filter(|look| !look.lit) {
            let more: Vec<_> = dark.off.difference(&lit.off).collect();
            let [breaker] = more.as_slice() else { continue };
            let stayed = history[lit.moment..dark.moment].iter().all(|then| lit.off.is_subset(then));
            if stayed && lit.off.is_subset(&dark.off) {
                singled_out.insert(dark.nth);
            }
            let spoken_against = looks.iter().any(|look| look.off.contains(*breaker) == look.lit);
            let moved_between = moved[lit.moment..dark.moment].iter().filter(|c| !dark.off.contains(*c));
            let sure = moved_between.into_iter().all(|c| latched(c, dark));
            let reset = |trip: &Trip| {
                let told = |n: &usize| trip.reset.is_some_and(|reset| reset < *n) && *n < dark.nth;
                trip.seen.get(point) == Some(&true) || trip.power.iter().any(told)
            };
            let sure = sure && trips.iter().filter(|trip| (lit.nth..dark.nth).contains(&trip.nth)).all(reset);
            if sure && lit.off.is_subset(&dark.off) && stayed && !spoken_against && book.home().breaker(breaker).is_some() {
                proven.insert((*breaker).clone());
            }
        }
    }
    let seen_lit = looks.iter().filter(|look| look.lit).map(|look| (look.moment, look.nth)).collect();
    (proven, seen_lit, singled_out.len())
}

/// A house whose wiring nobody knows, and a crew whose looks are always right.
struct Crew {
    book: Logbook,
    /// The breaker that feeds each point; `None`: fed from elsewhere.
    wiring: Vec<Option<u8>>,
    /// Breakers 4 and 5 are in a panel that breaker 3 feeds.
    sub: bool,
    /// Breakers whose handle says on and which are not.
    stuck: BTreeSet<BreakerId>,
    /// Which of the next acts of switching on do not latch, and which of resetting.
    fails: Vec<bool>,
    /// The points from 1 to here are behind a GFCI at point 0, on its breaker.
    behind: u8,
    /// It is tripped, whatever was said.
    out: bool,
    school: School,
    written: usize,
    acts: usize,
}

impl Crew {
    fn before(wiring: Vec<Option<u8>>, sub: bool, must_stay_on: Option<u8>) -> Self {
        let mut crew = Self {
            book: Logbook::default(),
            wiring,
            sub,
            stuck: BTreeSet::new(),
            fails: Vec::new(),
            behind: 0,
            out: false,
            school: School::OneAtATime,
            written: 0,
            acts: 0,
        };
        crew.write(Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }));
        crew.write(Fact::PanelDescribed(panel_of(0, 24)));
        for n in 0..6 {
            if sub && n == 4 {
                let details = PanelDetails { fed_by: Some(id("b", 3)), ..PanelDetails::default() };
                crew.write(Fact::PanelDescribed(PanelDescribed { details, ..panel_of(1, 8) }));
            }
            crew.write(Fact::BreakerPlaced(breaker_of(n, u8::from(sub && n > 3))));
        }
        if let Some(n) = must_stay_on {
            crew.write(Fact::BreakerKept(BreakerKept { breaker: id("b", n), kept: Some(Kept::On), reason: "pump".into() }));
        }
        crew.write(Fact::RoomPlaced(RoomPlaced { room: id("r", 0), name: "Hall".into(), floor: None }));
        for n in 0..crew.wiring.len() as u8 {
            crew.write(Fact::PointPlaced(point_of(n, 0)));
        }
        crew
    }

    fn write(&mut self, fact: Fact) {
        let outcome = self.book.admit(&[draft(self.written, fact)]).unwrap();
        self.book.commit(outcome);
        self.written += 1;
    }

    fn feeds(&self, point: &PointId) -> Option<BreakerId> {
        let n: u8 = point.as_str()[1..].parse().unwrap();
        self.wiring[if n <= self.behind { 0 } else { usize::from(n) }].map(|b| id("b", b))
    }

    fn has_gfci(&mut self, behind: u8) {
        self.behind = behind;
        let placed = point_of(0, 0);
        let details = PointDetails { gfci: true, ..placed.details };
        self.write(Fact::PointPlaced(PointPlaced { details, ..placed }));
    }

    fn press(&mut self, worked: Worked) {
        self.out = worked == Worked::Tripped || self.out && self.fails.pop().unwrap_or(false);
        self.write(Fact::DeviceWorked(DeviceWorked { device: id("p", 0), worked }));
    }

    fn look(&mut self, point: &PointId) {
        let off: BTreeSet<BreakerId> = self.book.home().off().union(&self.stuck).cloned().collect();
        let behind = |b: &BreakerId| self.sub && [id("b", 4), id("b", 5)].contains(b) && off.contains(&id("b", 3));
        let out = self.out && (0..=self.behind).any(|n| point == &id("p", n));
        let dark = out || self.feeds(point).is_some_and(|b| off.contains(&b) || behind(&b));
        self.write(Fact::PointSeen(PointSeen {
            point: point.clone(),
            seen: if dark { Seen::Dark } else { Seen::Lit },
            since: None,
        }));
    }

    fn switch(&mut self, breaker: BreakerId, to: State) {
        // Said to be on already, it is pushed home if it was not.
        let moves = to == State::On && self.book.home().off().contains(&breaker);
        if moves && self.fails.pop().unwrap_or(false) {
            self.stuck.insert(breaker.clone());
        } else {
            self.stuck.remove(&breaker);
        }
        self.write(Fact::BreakerSwitched(BreakerSwitched { breaker, to }));
    }

    /// Does what the screen says. False when there is nothing more to do.
    fn obey(&mut self) -> bool {
        self.acts += 1;
        let first = |rooms: &[RoomToWalk]| {
            rooms.iter().flat_map(|room| &room.points).find(|p| p.seen.is_none() && !p.skipped).map(|p| p.point.clone())
        };
        match trace_view(self.book.home(), self.book.seq(), self.school).next {
            NextStep::SetUp { missing } => panic!("{missing} is there"),
            NextStep::SeeAllLit { rooms, .. }
            | NextStep::Look { rooms, .. }
            | NextStep::LookUnder { rooms, .. }
            | NextStep::SeeOneLitAgain { rooms, .. } => {
                let point = first(&rooms).expect("a step to look at something names it");
                self.look(&point);
            }
            NextStep::SwitchOff { breaker, .. } => {
                assert!(!self.book.home().breaker(&breaker).unwrap().must_stay_on(), "asked to switch off what must stay on");
                self.switch(breaker, State::Off);
            }
            NextStep::SwitchTo { off, on, .. } => {
                assert!(!off.is_empty() || !on.is_empty());
                for breaker in on {
                    self.switch(breaker, State::On);
                }
                for breaker in off {
                    assert!(!self.book.home().breaker(&breaker).unwrap().must_stay_on(), "asked to switch off what must stay on");
                    self.switch(breaker, State::Off);
                }
            }
            NextStep::SwitchOn { breakers, .. } => {
                assert!(!breakers.is_empty());
                for breaker in breakers {
                    self.switch(breaker, State::On);
                }
            }
            NextStep::SeeDownstream { .. } => self.press(Worked::Reset),
            NextStep::Done { .. } | NextStep::FollowTone { .. } | NextStep::Stop { .. } => return false,
        }
        true
    }

    /// Whatever is said to be proven is so, and looks that are right never disagree.
    fn says_nothing_wrong(&self) {
        for point in self.book.home().points() {
            match verdict(self.book.home(), &point.id) {
                Verdict::Proven { breaker, .. } => assert_eq!(Some(breaker), self.feeds(&point.id)),
                Verdict::Open { possible, .. } => {
                    let fed = self.feeds(&point.id);
                    assert!(fed.is_none_or(|b| possible.contains(&b)), "the true breaker was ruled out");
                }
                Verdict::ByExclusion { breaker } => {
                    let fed = self.feeds(&point.id);
                    assert!(fed.is_none_or(|b| b == breaker), "excluded wrongly");
                }
                other => panic!("{other:?}"),
            }
        }
    }
}

fn school() -> impl Strategy<Value = School> {
    prop::sample::select(vec![School::OneAtATime, School::SeveralOff, School::LampAndHelper])
}

fn wiring() -> impl Strategy<Value = Vec<Option<u8>>> {
    prop::collection::vec(prop::option::weighted(0.9, 0..6_u8), 1..12)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 150, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_crew_that_does_as_told_proves_every_point(wiring in wiring(), sub in any::<bool>(), must_stay_on in prop::option::of(0..6_u8), school in school(), gfci in prop::option::of((0..4_u8, 0..40_usize))) {
        let mut crew = Crew::before(wiring.clone(), sub, must_stay_on);
        crew.school = school;
        // Now and then somebody presses a test button; it is reset as told.
        let (behind, at) = gfci.unwrap_or((0, usize::MAX));
        crew.behind = behind.min(wiring.len() as u8 - 1);
        if gfci.is_some() {
            crew.has_gfci(crew.behind);
        }
        while crew.obey() {
            crew.says_nothing_wrong();
            if crew.acts == at {
                crew.press(Worked::Tripped);
            }
            prop_assert!(crew.acts < 400, "the trace does not end");
        }
        for n in 0..wiring.len() {
            let fed = if n <= usize::from(crew.behind) { wiring[0] } else { wiring[n] };
            let known = verdict(crew.book.home(), &id("p", n as u8));
            // What hangs on a feeder itself cannot be told from what is behind it.
            let provable = fed.filter(|b| Some(*b) != must_stay_on && !(sub && *b == 3));
            prop_assert_eq!(known.proven_on().cloned(), provable.map(|b| id("b", b)), "point {}: {:?}", n, known);
        }
        prop_assert!(crew.book.home().off().is_empty(), "something was left off");
        // One look with everything on, at most one for each breaker, one to see each breaker on again.
        let looks = crew.book.home().looks().len();
        prop_assert!(school != School::OneAtATime || gfci.is_some() || looks <= wiring.len() * 7 + 6, "{} looks", looks);
    }

    /// A breaker that was switched on and did not latch goes on darkening its points, whatever is off otherwise, until
    /// somebody pushes it home; so does a GFCI that was not really reset.
    #[test]
    fn with_breakers_and_a_gfci_that_do_not_latch_nothing_is_proven_wrongly(
        wiring in wiring(),
        sub in any::<bool>(),
        school in school(),
        fails in prop::collection::vec(prop::bool::weighted(0.3), 0..20),
        gfci in prop::option::of(0..4_u8),
        whims in prop::collection::vec((0..11_u8, 0..12_u8, 0..6_u8), 0..60),
    ) {
        let points = wiring.len() as u8;
        let mut crew = Crew::before(wiring, sub, None);
        crew.school = school;
        crew.fails = fails;
        if let Some(behind) = gfci {
            crew.has_gfci(behind.min(points - 1));
        }
        for (whim, point, breaker) in whims {
            match whim {
                0..6 => drop(crew.obey()),
                6 => crew.look(&id("p", point % points)),
                7 => crew.switch(id("b", breaker), State::Off),
                9 if gfci.is_some() => crew.press(Worked::Tripped),
                10 if gfci.is_some() => crew.press(Worked::Reset),
                _ => crew.switch(id("b", breaker), State::On),
            }
            for point in crew.book.home().points() {
                if let Verdict::Proven { breaker, .. } = verdict(crew.book.home(), &point.id) {
                    prop_assert_eq!(Some(breaker), crew.feeds(&point.id), "{}", point.id);
                }
            }
        }
        while crew.obey() {
            prop_assert!(crew.acts < 900, "the trace does not end");
        }
        for point in crew.book.home().points() {
            if let Verdict::Proven { breaker, .. } = verdict(crew.book.home(), &point.id) {
                prop_assert_eq!(Some(breaker), crew.feeds(&point.id), "{}", point.id);
            }
        }
    }

    #[test]
    fn a_crew_that_does_as_it_likes_is_never_told_a_wrong_proof(
        wiring in wiring(),
        sub in any::<bool>(),
        school in school(),
        whims in prop::collection::vec((0..5_u8, 0..12_u8, 0..6_u8, any::<bool>()), 0..60),
    ) {
        let points = wiring.len() as u8;
        let mut crew = Crew::before(wiring, sub, None);
        crew.school = school;
        for (whim, point, breaker, on) in whims {
            let point: PointId = id("p", point % points);
            match whim {
                0 | 1 => drop(crew.obey()),
                2 => crew.look(&point),
                3 => crew.switch(id("b", breaker), if on { State::On } else { State::Tripped }),
                _ => crew.write(Fact::PointSkipped(PointSkipped { point, reason: String::new(), since: None })),
            }
            crew.says_nothing_wrong();
        }
        // Whatever it did, doing as told from here on comes to an end.
        while crew.obey() {
            crew.says_nothing_wrong();
            prop_assert!(crew.acts < 600, "the trace does not end");
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 600, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn entries_apply_or_are_refused_and_every_answer_stands(facts in prop::collection::vec(fact(), 0..60)) {
        let book = written(facts);
        let home = book.home();
        let drawn = plan(home);
        prop_assert_eq!(drawn.not_drawn.len() + drawn.floors.iter().map(|f| f.rooms.len()).sum::<usize>(), home.rooms().count());
        prop_assert_eq!(drawn.not_placed.len() + drawn.floors.iter().map(|f| f.points.len()).sum::<usize>(), home.points().count());
        let ways = walking(home);
        prop_assert!(ways.between.iter().flatten().chain(ways.from_panel.values().flatten()).all(|w| w.seconds.is_finite() && w.seconds >= 0.0));
        for room in home.rooms() {
            prop_assert_eq!(room_walk(home, &room.id).unwrap().points.len(), home.points().filter(|p| p.room == room.id).count());
        }
        let view = overview(&"hut".parse().unwrap(), book.seq(), home);
        prop_assert_eq!(view.progress.points, home.points().count());
        let progress = view.progress;
        prop_assert_eq!(progress.points, progress.proven + progress.contradictory + progress.out + progress.open);
        let _ = (next_step(home), trace_view(home, book.seq(), School::default()), findings(home));
        for panel in home.panels() {
            let _ = (card(home, &panel.id, book.seq(), "2026-11-24"), post(home, &panel.id), write_card(home, panel));
        }
        for breaker in home.breakers() {
            for place in places(home, &breaker.id).unwrap_or_default() {
                let moved = Fact::BreakerMoved(BreakerMoved { breaker: breaker.id.clone(), at: place.at });
                let taken = book.admit(&[Draft { id: "move".parse().unwrap(), ..draft(0, moved) }]);
                assert_eq!(taken.is_ok(), place.why_not.is_none(), "{} to {}: {taken:?}", breaker.number(), place.number);
            }
        }
        for finding in findings(home) {
            let Some(mend) = finding.mend else { continue };
            let drafts: Vec<Draft> = mend.facts.into_iter().enumerate().map(|(n, fact)| Draft { id: format!("mend{n}").parse().unwrap(), ..draft(0, fact) }).collect();
            prop_assert!(book.admit(&drafts).is_ok(), "{} offers what the logbook refuses: {:?}", finding.key, book.admit(&drafts).err());
        }
        for point in home.points() {
            prop_assert!(evidence(home, &point.id).is_some());
        }
        for line in book.lines() {
            prop_assert!(!describe(&book, line).is_empty());
        }
    }

    #[test]
    fn the_fold_is_deterministic_and_a_logbook_opens_as_it_was(facts in prop::collection::vec(fact(), 0..60)) {
        let book = written(facts);
        let lines: Vec<Line> = book.lines().cloned().collect();
        let text = serde_json::to_string(&lines).unwrap();
        let again: Vec<Line> = serde_json::from_str(&text).unwrap();
        prop_assert_eq!(&again, &lines);
        let opened = Logbook::from_lines(again).unwrap();
        prop_assert_eq!(opened.home(), book.home());
        prop_assert_eq!(serde_json::to_string(&opened.lines().collect::<Vec<_>>()).unwrap(), text);
    }

    #[test]
    fn struck_out_and_back_in_restores(facts in prop::collection::vec(fact(), 0..40), which in any::<prop::sample::Index>()) {
        let mut book = written(facts);
        let candidates: Vec<EntryId> = book.lines().filter(|l| l.entry.fact.is_strikable() && !book.is_struck(&l.entry.id)).map(|l| l.entry.id.clone()).collect();
        let line = candidates[which.index(candidates.len())].clone();
        let before = book.home().clone();
        let strike = |line: &EntryId, n| draft(n, Fact::LineStruck(LineStruck { line: line.clone() }));
        let lines: Vec<EntryId> = match book.admit(&[strike(&line, 9000)]) {
            Ok(_) => vec![line],
            Err(refusal) => std::iter::once(line).chain(refusal.lines).collect(),
        };
        let batch: Vec<Draft> = lines.iter().zip(9000..).map(|(line, n)| strike(line, n)).collect();
        // A line may be one that no other line can be without: the home's name.
        if let Ok(outcome) = book.admit(&batch) {
            book.commit(outcome);
            let back: Vec<Draft> = lines.iter().zip(9900..).map(|(line, n)| draft(n, Fact::LineRestored(LineRestored { line: line.clone() }))).collect();
            let outcome = book.admit(&back).unwrap();
            book.commit(outcome);
            prop_assert_eq!(book.home(), &before);
        }
    }

    #[test]
    fn proven_is_what_the_definition_says(facts in prop::collection::vec(fact(), 0..80)) {
        let book = written(facts);
        let all = naively_proven(&book);
        for point in book.home().points() {
            let naive = all[&point.id].clone();
            let known = verdict(book.home(), &point.id);
            let proven: BTreeSet<BreakerId> = known.proven_on().cloned().into_iter().collect();
            if let Verdict::Open { once: Some(line), .. } = &known {
                let dark = |l: &&Line| seen_lit(&l.entry.fact) == Some((&point.id, false));
                prop_assert!(book.lines().filter(dark).any(|l| &l.entry.id == line), "the look is one of its own");
            }
            if !matches!(known, Verdict::Contradictory { .. } | Verdict::Out { .. }) {
                prop_assert!(proven.is_subset(&naive), "{}: {:?}", point.id, known);
                // Behind a feeder that is off the product asks that no handle moves at all, so it may prove less there.
                // So it does behind a GFCI that was tripped: what was lit before counts no more once it was dark with it.
                let worked = book.lines().any(|line| matches!(line.entry.fact, Fact::DeviceWorked(_)));
                if !worked && book.home().panels().all(|panel| panel.details.fed_by.is_none()) {
                    prop_assert_eq!(&proven, &naive, "{}: {:?}", point.id, known);
                }
            } else {
                prop_assert!(proven.is_empty());
            }
        }
    }

    #[test]
    fn any_text_is_a_card_or_is_told_why_not(text in "(?s).{0,80}|([0-9]{1,2}(-[0-9]{1,2})?[ab]? [0-9]{1,3}(/[0-4])? [a-z]{0,5}\n){0,8}") {
        let book = written(Vec::new());
        let panel = book.home().panels().next().unwrap().clone();
        let mut n = 0;
        let lines = read_card(book.home(), &panel, &text, || { n += 1; format!("new{n}").parse().unwrap() });
        prop_assert_eq!(lines.len(), text.lines().count());
        // What is proposed is also accepted, unless a text in it is too long.
        let facts: Vec<Fact> = lines.into_iter().filter_map(|l| match l.outcome { wayfinder_core::LabelOutcome::Breaker { facts, .. } => Some(facts), _ => None }).flatten().collect();
        if facts.iter().all(|f| !matches!(f, Fact::LabelClaimed(f) if f.text.chars().count() > 120 || f.text.chars().any(char::is_control))) {
            let batch: Vec<Draft> = facts.into_iter().zip(500..).map(|(f, n)| draft(n, f)).collect();
            prop_assert!(batch.is_empty() || book.admit(&batch).is_ok());
        }
    }
}

/// Passed over with its likeliest breaker alone off, a point is looked at with the next one off, not switched to and fro for.
#[test]
fn a_point_passed_over_has_its_turn_with_the_next_breaker() {
    let mut crew = Crew::before(vec![Some(1), None, Some(0)], false, None);
    crew.school = School::LampAndHelper;
    for _ in 0..4 {
        assert!(crew.obey());
    }
    crew.write(Fact::PointSkipped(PointSkipped { point: id("p", 1), reason: String::new(), since: None }));
    while crew.obey() {
        assert!(crew.acts < 40, "the trace does not end");
    }
    assert_eq!(verdict(crew.book.home(), &id("p", 0)).proven_on(), Some(&id("b", 1)));
    assert_eq!(verdict(crew.book.home(), &id("p", 2)).proven_on(), Some(&id("b", 0)));
}
