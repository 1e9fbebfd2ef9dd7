//! The home that the lines add up to. [`Home::apply`] is the only way it changes.

use std::collections::BTreeSet;
use std::sync::Arc;

use indexmap::IndexMap;

use super::{Draft, Fact, Instrument, Kept, Refusal, RefusalCode, Seen};
use crate::panel::place;
use crate::{Breaker, BreakerId, Columns, EntryId, Moment, Panel, PanelId, Point, PointId, Room, RoomId, State, Volts};

/// A look at a point, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    /// The line that records it.
    pub line: EntryId,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// With what.
    pub instrument: Option<Instrument>,
    /// The point.
    pub point: PointId,
    /// What it showed.
    pub seen: Seen,
    /// The breakers that were off or tripped.
    pub off: Arc<BTreeSet<BreakerId>>,
    /// How many times a handle had moved before this look: an index into [`Home::switched`].
    pub moves: usize,
}

/// A point that was passed over, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Skip {
    pub(crate) point: PointId,
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
    pub(crate) moves: usize,
}

/// Everything that is known of a home, folded from its logbook.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Home {
    name: Option<String>,
    panel: Option<Panel>,
    breakers: IndexMap<BreakerId, Breaker>,
    rooms: IndexMap<RoomId, Room>,
    points: IndexMap<PointId, Point>,
    looks: Vec<Look>,
    skips: Vec<Skip>,
    switched: Vec<BreakerId>,
    off: Arc<BTreeSet<BreakerId>>,
}

impl Home {
    /// Its name; `None` before it is described.
    pub fn name(&self) -> Option<&str> {
        self.name.as_deref()
    }
    /// Its panel; `None` before one is described.
    pub fn panel(&self) -> Option<&Panel> {
        self.panel.as_ref()
    }
    /// Every breaker, in the order of entry.
    pub fn breakers(&self) -> impl Iterator<Item = &Breaker> {
        self.breakers.values()
    }
    /// The breakers of a panel, in the order of entry.
    pub fn breakers_of<'a>(&'a self, panel: &'a PanelId) -> impl Iterator<Item = &'a Breaker> {
        self.breakers.values().filter(move |b| &b.panel == panel)
    }
    /// A breaker.
    pub fn breaker(&self, id: &BreakerId) -> Option<&Breaker> {
        self.breakers.get(id)
    }
    /// The number of a breaker as said at the panel; a removed one is said to be so.
    pub fn number(&self, id: &BreakerId) -> String {
        self.breakers.get(id).map_or_else(|| "a removed breaker".into(), Breaker::number)
    }
    /// Every room, in the order of entry.
    pub fn rooms(&self) -> impl Iterator<Item = &Room> {
        self.rooms.values()
    }
    /// A room.
    pub fn room(&self, id: &RoomId) -> Option<&Room> {
        self.rooms.get(id)
    }
    /// Every point, in the order of entry.
    pub fn points(&self) -> impl Iterator<Item = &Point> {
        self.points.values()
    }
    /// A point.
    pub fn point(&self, id: &PointId) -> Option<&Point> {
        self.points.get(id)
    }
    /// Every look, in the order of the logbook.
    pub fn looks(&self) -> &[Look] {
        &self.looks
    }
    pub(crate) fn skips(&self) -> &[Skip] {
        &self.skips
    }
    /// Every time a breaker went on or off, in order: which one.
    pub fn switched(&self) -> &[BreakerId] {
        &self.switched
    }
    /// The breakers that are off or tripped now.
    pub fn off(&self) -> &Arc<BTreeSet<BreakerId>> {
        &self.off
    }

    /// Takes one entry, or refuses it and changes nothing.
    ///
    /// Striking out and restoring are the logbook's affair ([`super::Logbook`]): here they change nothing.
    pub fn apply(&mut self, entry: &Draft) -> Result<(), Refusal> {
        self.admit(entry).map_err(|mut refusal| {
            refusal.entry = Some(entry.id.clone());
            refusal
        })
    }

    fn admit(&mut self, entry: &Draft) -> Result<(), Refusal> {
        if entry.version > Fact::VERSION {
            return Err(Refusal::new(
                RefusalCode::NewerVersion,
                "version",
                format!("This entry has version {}; this program knows versions up to {}.", entry.version, Fact::VERSION),
                "Use a newer Wayfinder.",
            ));
        }
        short("by", &entry.by, 1, 60)?;
        if self.name.is_none() && !matches!(entry.fact, Fact::HomeDescribed(_)) {
            return Err(Refusal::new(
                RefusalCode::Unknown,
                "home",
                "There is no such home.",
                "A logbook begins with the line that names the home.",
            ));
        }
        match &entry.fact {
            Fact::HomeDescribed(f) => {
                short("name", &f.name, 1, 80)?;
                self.name = Some(f.name.trim().to_owned());
            }
            Fact::PanelDescribed(f) => self.describe_panel(f)?,
            Fact::BreakerPlaced(f) => self.place_breaker(f)?,
            Fact::BreakerRemoved(f) => {
                let breaker = self.known_breaker(&f.breaker)?;
                if breaker.state != State::On {
                    return Err(Refusal::new(
                        RefusalCode::StillNeeded,
                        "breaker",
                        format!("Breaker {} is recorded as {}.", breaker.number(), state_word(breaker.state)),
                        "Record it as on first; then it can be taken out of the record.",
                    ));
                }
                self.breakers.shift_remove(&f.breaker);
            }
            Fact::BreakerKept(f) => {
                short("reason", &f.reason, 0, 120)?;
                let breaker = self.known_breaker(&f.breaker)?;
                if f.kept == Some(Kept::On) && breaker.state != State::On {
                    return Err(Refusal::new(
                        RefusalCode::StillNeeded,
                        "breaker",
                        format!(
                            "Breaker {} is {} now, so it cannot be said to stay on.",
                            breaker.number(),
                            state_word(breaker.state)
                        ),
                        "Switch it on first.",
                    ));
                }
                let kept = f.kept.map(|kept| (kept, f.reason.trim().to_owned()));
                self.breaker_mut(&f.breaker)?.kept = kept;
            }
            Fact::BreakerSwitched(f) => {
                let breaker = self.breaker_mut(&f.breaker)?;
                let was_on = breaker.state == State::On;
                breaker.state = f.to;
                // A breaker that is off and then trips, or is switched off twice, feeds nothing either way.
                if was_on != (f.to == State::On) {
                    self.switched.push(f.breaker.clone());
                    let mut off = (*self.off).clone();
                    if was_on {
                        off.insert(f.breaker.clone())
                    } else {
                        off.remove(&f.breaker)
                    };
                    self.off = Arc::new(off);
                }
            }
            Fact::LabelClaimed(f) => {
                short("text", &f.text, 0, 120)?;
                let text = f.text.trim();
                self.breaker_mut(&f.breaker)?.claim = (!text.is_empty()).then(|| text.to_owned());
            }
            Fact::RoomPlaced(f) => {
                short("name", &f.name, 1, 60)?;
                if let Some(floor) = &f.floor {
                    short("floor", floor, 1, 40)?;
                }
                let name = f.name.trim().to_owned();
                if self.rooms.values().any(|r| r.id != f.room && r.name.eq_ignore_ascii_case(&name)) {
                    return Err(Refusal::new(
                        RefusalCode::Occupied,
                        "name",
                        format!("There is a room called “{name}” already."),
                        "Give this one a name of its own, like “Bath, upstairs”.",
                    ));
                }
                let room = Room { id: f.room.clone(), name, floor: f.floor.as_deref().map(|t| t.trim().to_owned()) };
                self.rooms.insert(f.room.clone(), room);
            }
            Fact::RoomRemoved(f) => {
                let room = self.known_room(&f.room)?;
                let points = self.points.values().filter(|p| p.room == f.room).count();
                if points > 0 {
                    return Err(Refusal::new(
                        RefusalCode::StillNeeded,
                        "room",
                        format!("{} still has {points} {}.", room.name, if points == 1 { "point" } else { "points" }),
                        "Move or remove its points first.",
                    ));
                }
                self.rooms.shift_remove(&f.room);
            }
            Fact::PointPlaced(f) => {
                short("name", &f.name, 1, 60)?;
                self.known_room(&f.room)?;
                if ![Volts::new(120), Volts::new(240)].contains(&f.volts) {
                    return Err(Refusal::new(
                        RefusalCode::OutOfRange,
                        "volts",
                        format!("A point has 120 or 240 volts, not {}.", f.volts.value()),
                        "Use 240 for any point on two hot legs, 208 V ones too.",
                    ));
                }
                let name = f.name.trim().to_owned();
                if self
                    .points
                    .values()
                    .any(|p| p.id != f.point && p.room == f.room && p.kind == f.point_kind && p.name.eq_ignore_ascii_case(&name))
                {
                    return Err(Refusal::new(
                        RefusalCode::Occupied,
                        "name",
                        format!("This room has a {} called “{name}” already.", f.point_kind.word()),
                        "Say where it is, like “south wall, left”, so that the two can be told apart.",
                    ));
                }
                let point = Point { id: f.point.clone(), room: f.room.clone(), kind: f.point_kind, name, volts: f.volts };
                self.points.insert(f.point.clone(), point);
            }
            Fact::PointRemoved(f) => {
                self.known_point(&f.point)?;
                self.points.shift_remove(&f.point);
            }
            Fact::PointSeen(f) => {
                self.known_point(&f.point)?;
                self.looks.push(Look {
                    line: entry.id.clone(),
                    at: entry.at,
                    by: entry.by.clone(),
                    instrument: entry.instrument,
                    point: f.point.clone(),
                    seen: f.seen,
                    off: Arc::clone(&self.off),
                    moves: self.switched.len(),
                });
            }
            Fact::PointSkipped(f) => {
                short("reason", &f.reason, 0, 120)?;
                self.known_point(&f.point)?;
                self.skips.push(Skip { point: f.point.clone(), off: Arc::clone(&self.off), moves: self.switched.len() });
            }
            Fact::LineStruck(_) | Fact::LineRestored(_) => {}
        }
        Ok(())
    }

    fn describe_panel(&mut self, f: &super::PanelDescribed) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        short("place", &f.place, 0, 60)?;
        if let Some(other) = self.panel.as_ref().filter(|p| p.id != f.panel) {
            return Err(Refusal::new(
                RefusalCode::NotYet,
                "panel",
                format!("This home has a panel already: {}.", other.name),
                "This version keeps one panel for a home; enter a sub-panel's feeder as a breaker.",
            ));
        }
        if !(2..=84).contains(&f.spaces) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "spaces",
                format!("A panel with {} spaces cannot be.", f.spaces),
                "Give 2 to 84 spaces.",
            ));
        }
        if f.columns == Columns::One && f.spaces > 42 {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "spaces",
                format!("A single column of {} spaces cannot be.", f.spaces),
                "Give up to 42 spaces for one column, or two columns.",
            ));
        }
        if let Some(main) = f.main.filter(|a| !(10.0..=1200.0).contains(&a.value())) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "main",
                format!("A main breaker of {main} cannot be."),
                "Give 10 to 1200 A, or leave it out.",
            ));
        }
        if !(50.0..=400.0).contains(&f.card.width_mm) || !(50.0..=600.0).contains(&f.card.height_mm) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "card",
                format!("A door card of {} by {} mm cannot be printed.", f.card.width_mm, f.card.height_mm),
                "Give a width of 50 to 400 mm and a height of 50 to 600 mm.",
            ));
        }
        let panel = Panel {
            id: f.panel.clone(),
            name: f.name.trim().to_owned(),
            place: f.place.trim().to_owned(),
            spaces: f.spaces,
            columns: f.columns,
            numbering: f.numbering,
            service: f.service,
            main: f.main,
            card: f.card,
        };
        for breaker in self.breakers.values() {
            let others = self.breakers.values().filter(|b| b.id != breaker.id);
            place::fits(&panel, &breaker.at, others).map_err(|inner| {
                Refusal::new(
                    RefusalCode::DoesNotFit,
                    "panel",
                    format!("Breaker {} would not fit the panel described so: {}", breaker.number(), inner.wrong),
                    format!("Move or take out breaker {} first.", breaker.number()),
                )
            })?;
        }
        self.panel = Some(panel);
        Ok(())
    }

    fn place_breaker(&mut self, f: &super::BreakerPlaced) -> Result<(), Refusal> {
        let Some(panel) = self.panel.as_ref().filter(|p| p.id == f.panel) else {
            return Err(unknown("panel", "There is no such panel.", "Describe the panel first."));
        };
        if !(1.0..=400.0).contains(&f.amps.value()) {
            return Err(Refusal::new(
                RefusalCode::OutOfRange,
                "amps",
                format!("A breaker of {} cannot be.", f.amps),
                "Give the rating on its handle, 1 to 400 A.",
            ));
        }
        place::fits(panel, &f.at, self.breakers.values().filter(|b| b.id != f.breaker))?;
        let before = self.breakers.get(&f.breaker);
        let breaker = Breaker {
            id: f.breaker.clone(),
            panel: f.panel.clone(),
            at: f.at.clone(),
            amps: f.amps,
            protection: f.protection,
            wire: f.wire,
            claim: before.and_then(|b| b.claim.clone()),
            state: before.map_or(State::On, |b| b.state),
            kept: before.and_then(|b| b.kept.clone()),
        };
        self.breakers.insert(f.breaker.clone(), breaker);
        Ok(())
    }

    fn known_breaker(&self, id: &BreakerId) -> Result<&Breaker, Refusal> {
        self.breakers.get(id).ok_or_else(|| {
            unknown("breaker", "There is no such breaker in the panel.", "Name a breaker that is entered on the Panel screen.")
        })
    }
    fn breaker_mut(&mut self, id: &BreakerId) -> Result<&mut Breaker, Refusal> {
        self.known_breaker(id)?;
        self.breakers.get_mut(id).ok_or_else(|| unknown("breaker", "There is no such breaker in the panel.", ""))
    }
    fn known_room(&self, id: &RoomId) -> Result<&Room, Refusal> {
        self.rooms
            .get(id)
            .ok_or_else(|| unknown("room", "There is no such room.", "Name a room that is entered on the House screen."))
    }
    fn known_point(&self, id: &PointId) -> Result<&Point, Refusal> {
        self.points
            .get(id)
            .ok_or_else(|| unknown("point", "There is no such point.", "Name a point that is entered on the House screen."))
    }
}

/// `on`, `off`, `tripped`.
pub(crate) const fn state_word(state: State) -> &'static str {
    match state {
        State::On => "on",
        State::Off => "off",
        State::Tripped => "tripped",
    }
}

fn unknown(field: &str, wrong: &str, accepted: &str) -> Refusal {
    Refusal::new(RefusalCode::Unknown, field, wrong, accepted)
}

/// A text of `least` to `most` characters on one line.
fn short(field: &str, text: &str, least: usize, most: usize) -> Result<(), Refusal> {
    let count = text.trim().chars().count();
    let bad = |wrong: String| {
        Err(Refusal::new(RefusalCode::BadText, field, wrong, format!("Write {least} to {most} characters on one line.")))
    };
    if count < least {
        return bad(format!("The {field} is missing."));
    }
    if count > most {
        return bad(format!("The {field} has {count} characters, which is too long."));
    }
    if text.chars().any(char::is_control) {
        return bad(format!("The {field} has a line break or a character that cannot be shown."));
    }
    Ok(())
}
