//! Finds anything by a few letters: a room, a point, a breaker, what the old card says. Each with what feeds it or what
//! it feeds, and with the other things that go dark.

use std::collections::{BTreeMap, BTreeSet};

use crate::model::{Breaker, BreakerId, PanelId, PointId, RoomId, so_many};
use crate::plan::TagKind;
use crate::plan::tag_of;
use crate::study::Study;
use crate::trace::{Verdict, verdicts};

/// What was found.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "found", rename_all = "snake_case")]
pub enum FoundKind {
    /// A room.
    Room {
        /// Which.
        room: RoomId,
    },
    /// A point.
    Point {
        /// Which.
        point: PointId,
        /// In which room.
        room: RoomId,
    },
    /// A breaker, by its number, or by what the old card says of it.
    Breaker {
        /// Which.
        breaker: BreakerId,
        /// In which panel.
        panel: PanelId,
    },
}

/// A point that goes dark with it.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct DarkPoint {
    /// Which.
    pub point: PointId,
    /// `Kitchen, ceiling`.
    pub name: String,
}

/// One thing found.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Found {
    /// What it is.
    #[serde(flatten)]
    pub kind: FoundKind,
    /// `Kitchen, ceiling`, `Breaker 11`.
    pub name: String,
    /// What feeds it or what it feeds, as a sentence.
    pub feed: String,
    /// Its tag, for a point or breaker.
    pub tag: Option<String>,
    /// How sure the tag is.
    pub tag_kind: Option<TagKind>,
    /// Proven to lose power with it: the other points on its breaker, or all points on this one and behind it.
    pub dark_with: Vec<DarkPoint>,
    /// Points that are not proven yet and may go dark with it, too.
    pub may_be_dark: usize,
}

/// The most that is found at once.
const MOST: usize = 40;

/// Finds by the words of `text`, every one of which must occur; a number finds the breaker of that number first.
pub fn find(home: &Study, text: &str) -> Vec<Found> {
    let words: Vec<String> = text.split_whitespace().map(str::to_lowercase).collect();
    if words.is_empty() {
        return Vec::new();
    }
    let book = Known::of(home);
    let rank = |name: &str, rest: &str| -> Option<usize> {
        let (name, all) = (name.to_lowercase(), format!("{name} {rest}").to_lowercase());
        let whole = words.join(" ");
        match () {
            () if name == whole => Some(0),
            () if name.starts_with(&whole) => Some(1),
            () if words
                .iter()
                .all(|word| all.split(|c: char| !c.is_alphanumeric()).any(|part| part.starts_with(word.as_str()))) =>
            {
                Some(2)
            }
            () if words.iter().all(|word| all.contains(word.as_str())) => Some(3),
            () => None,
        }
    };
    let mut found: Vec<(usize, Found)> = Vec::new();
    for breaker in home.panels().breakers() {
        let number = home.panels().number(&breaker.id);
        let claim = breaker.claim.as_deref().unwrap_or_default();
        let own = breaker.own.as_ref().map_or("", |own| own.text.as_str());
        let spaces: Vec<String> = breaker.at.iter().map(ToString::to_string).collect();
        if let Some(rank) = rank(&number, &format!("breaker {} {claim} {own}", spaces.join(" "))) {
            found.push((rank, book.breaker(breaker)));
        }
    }
    for room in home.house().rooms() {
        if let Some(rank) = rank(&room.name, room.floor.as_deref().unwrap_or_default()) {
            found.push((rank, book.room(&room.id, &room.name)));
        }
    }
    for point in home.house().points() {
        let room = home.house().room(&point.room).map_or("", |room| room.name.as_str());
        let volts = if point.volts.value() == 240 { "240 V" } else { "" };
        if let Some(rank) = rank(&point.name, &format!("{room} {} {volts}", point.kind.word())) {
            found.push((rank + 1, book.point(&point.id)));
        }
    }
    found.sort_by_key(|(rank, _)| *rank);
    found.into_iter().map(|(_, found)| found).take(MOST).collect()
}

struct Known<'a> {
    home: &'a Study,
    verdicts: BTreeMap<PointId, Verdict>,
}

impl<'a> Known<'a> {
    fn of(home: &'a Study) -> Self {
        Self { home, verdicts: verdicts(home).iter().cloned().collect() }
    }

    fn named(&self, point: &PointId) -> String {
        let Some(known) = self.home.house().point(point) else { return "a removed point".into() };
        let room = self.home.house().room(&known.room).map_or("", |room| room.name.as_str());
        format!("{room}, {}", known.name)
    }

    /// The points proven to be without power when this breaker is off.
    fn dark_with(&self, breaker: &BreakerId) -> Vec<PointId> {
        let dead = self.home.panels().dead_behind(&BTreeSet::from([breaker.clone()]));
        let on = |v: &Verdict| v.proven_on().is_some_and(|b| dead.contains(b));
        self.home.house().points().map(|p| &p.id).filter(|p| self.verdicts.get(*p).is_some_and(on)).cloned().collect()
    }

    /// How many points are not proven and may be on it.
    fn may_be_on(&self, breaker: &BreakerId) -> usize {
        let dead = self.home.panels().dead_behind(&BTreeSet::from([breaker.clone()]));
        let may = |v: &&Verdict| match v {
            Verdict::Open { possible, .. } => possible.iter().any(|b| dead.contains(b)),
            Verdict::ByExclusion { breakers } => breakers.iter().any(|b| dead.contains(b)),
            Verdict::Contradictory { .. } | Verdict::Out { .. } => true,
            Verdict::Proven { .. } => false,
        };
        self.verdicts.values().filter(may).count()
    }

    /// `breaker 11 of Main panel`, and what that is behind.
    fn chain(&self, breaker: &BreakerId) -> String {
        let home = self.home;
        let Some(known) = home.panels().breaker(breaker) else { return "a removed breaker".into() };
        let Some(panel) = home.panels().panel(&known.panel) else { return format!("breaker {}", home.panels().number(breaker)) };
        let here = format!("breaker {} of {}", home.panels().number(breaker), panel.name);
        match &panel.details.fed_by {
            Some(feeder) if home.panels().breaker(feeder).is_some() => format!("{here}, behind {}", self.chain(feeder)),
            _ => here,
        }
    }

    fn dark_points(&self, points: Vec<PointId>) -> Vec<DarkPoint> {
        points.into_iter().map(|point| DarkPoint { name: self.named(&point), point }).collect()
    }

    fn point(&self, point: &PointId) -> Found {
        let home = self.home;
        let known = home.house().point(point).unwrap_or_else(|| panic!("no point {point:?}; this is a bug"));
        let open = Verdict::unknown();
        let verdict = self.verdicts.get(point).unwrap_or(&open);
        let (tag, tag_kind) = tag_of(home, verdict);
        let mut feed = match verdict {
            Verdict::Proven { breaker, .. } => format!("Fed by {}: proven.", self.chain(breaker)),
            Verdict::Contradictory { .. } => "Its looks disagree: treat it as live.".into(),
            Verdict::Out { .. } => "Dark with everything on: a switch, a lamp or a GFCI first.".into(),
            Verdict::ByExclusion { breakers } => {
                let chains: Vec<String> = breakers.iter().map(|b| self.chain(b)).collect();
                format!("By exclusion on {}: not proven, treat it as live.", chains.join(" or "))
            }
            Verdict::Open { .. } => "Not proven yet: treat it as live.".into(),
        };
        let listed = |ids: &mut dyn Iterator<Item = &PointId>| ids.map(|id| self.named(id)).collect::<Vec<_>>().join("; ");
        let upstream = listed(&mut home.plan().gfcis_of(point));
        if !upstream.is_empty() {
            feed.push_str(&format!(" Also goes dark when the GFCI trips at {upstream}."));
        }
        let switches = listed(&mut home.plan().switches_of(point));
        if !switches.is_empty() {
            feed.push_str(&format!(" Switched by {switches}."));
        }
        let with = verdict.proven_on().map(|b| self.dark_with(b)).unwrap_or_default();
        Found {
            kind: FoundKind::Point { point: point.clone(), room: known.room.clone() },
            name: self.named(point),
            feed,
            tag: Some(tag),
            tag_kind: Some(tag_kind),
            dark_with: self.dark_points(with.into_iter().filter(|p| p != point).collect()),
            may_be_dark: verdict.proven_on().map_or(0, |b| self.may_be_on(b)),
        }
    }

    fn breaker(&self, breaker: &Breaker) -> Found {
        let home = self.home;
        let number = home.panels().number(&breaker.id);
        let points = self.dark_with(&breaker.id);
        let fed: Vec<&str> = home.panels().panels_on(&breaker.id).map(|panel| panel.name.as_str()).collect();
        let mut feed = match (points.len(), fed.as_slice()) {
            (0, []) => "Nothing is proven on it.".to_owned(),
            (n, []) => format!("Feeds {}.", so_many(n, "point")),
            (n, panels) => format!("Feeds {}, with {} behind it.", panels.join(" and "), so_many(n, "proven point")),
        };
        if let Some(own) = &breaker.own {
            feed.push_str(&format!(" The card says “{}”.", own.text));
        }
        if let Some(claim) = &breaker.claim {
            feed.push_str(&format!(" The old card says “{claim}”."));
        }
        Found {
            kind: FoundKind::Breaker { breaker: breaker.id.clone(), panel: breaker.panel.clone() },
            name: format!("Breaker {number}"),
            feed,
            tag: Some(number),
            tag_kind: None,
            dark_with: self.dark_points(points),
            may_be_dark: self.may_be_on(&breaker.id),
        }
    }

    fn room(&self, room: &RoomId, name: &str) -> Found {
        let home = self.home;
        let mut on: Vec<String> = Vec::new();
        let mut open = 0;
        for point in home.house().points().filter(|p| p.room == *room) {
            match self.verdicts.get(&point.id).and_then(Verdict::proven_on) {
                Some(breaker) => on.push(home.panels().number(breaker)),
                None => open += 1,
            }
        }
        on.sort_by_key(|number| (number.len(), number.clone()));
        on.dedup();
        let mut feed = match on.as_slice() {
            [] => "Nothing in it is proven yet.".to_owned(),
            [one] => format!("Fed by {one}."),
            several => format!("Fed by {}: all of them must be off before it is dark.", several.join(", ")),
        };
        if open > 0 {
            feed.push_str(&format!(" {open} of its points {} not proven.", if open == 1 { "is" } else { "are" }));
        }
        Found {
            kind: FoundKind::Room { room: room.clone() },
            name: name.to_owned(),
            feed,
            tag: None,
            tag_kind: None,
            dark_with: Vec::new(),
            may_be_dark: 0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn home() -> crate::fixture::Written {
        written(
            "panel 24\n1 20 kitchen\n3 15 rec\n5-7 60/2 shed\nsub Shed 8 5-7\nshed: 2 15 bench
             room Kitchen\nroom Shed\npoint Kitchen receptacle counter\npoint Kitchen light ceiling\npoint Shed light lamp
             proof counter 1\nproof ceiling 1\nproof lamp S2",
        )
    }

    #[test]
    fn a_point_says_what_feeds_it_and_what_goes_dark_with_it() {
        let w = home();
        let hits = find(&w.home, "ceiling");
        assert_eq!(hits[0].name, "Kitchen, ceiling");
        assert_eq!(hits[0].feed, "Fed by breaker 1 of Main panel: proven.");
        assert_eq!(hits[0].dark_with.iter().map(|d| d.name.as_str()).collect::<Vec<_>>(), ["Kitchen, counter"]);
        let lamp = &find(&w.home, "lamp")[0];
        assert_eq!(lamp.feed, "Fed by breaker S2 of Shed, behind breaker 5-7 of Main panel: proven.");
    }

    #[test]
    fn a_breaker_is_found_by_number_space_and_old_label_with_all_that_is_behind_it() {
        let w = home();
        for text in ["5-7", "7", "shed"] {
            let feeder = find(&w.home, text).into_iter().find(|f| f.name == "Breaker 5-7").unwrap_or_else(|| panic!("{text}"));
            assert_eq!(feeder.feed, "Feeds Shed, with 1 proven point behind it. The old card says “shed”.");
            assert_eq!(feeder.dark_with[0].name, "Shed, lamp");
        }
        assert_eq!(find(&w.home, "1")[0].name, "Breaker 1", "the number itself comes first");
    }

    #[test]
    fn a_room_names_every_breaker_that_must_be_off() {
        let w = home();
        assert_eq!(find(&w.home, "kitch")[0].feed, "Fed by 1.");
        assert!(find(&w.home, "  ").is_empty() && find(&w.home, "zzz").is_empty());
    }
}
