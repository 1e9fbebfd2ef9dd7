//! The home that the lines add up to. [`Home::apply`] is the only way it changes.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use indexmap::IndexMap;

use super::seen::{Look, Metered, Skip, Trip, Turn};
use super::{Draft, Fact, Kept, Refusal, RefusalCode, Worked};
use crate::{
    Breaker, BreakerId, Drawn, Edition, Moment, Panel, PanelId, Photo, Point, PointId, Room, RoomId, Slot, State, Verdict, Way,
    memo::Memo, sim::Recipe,
};

/// How a finding was set aside.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Aside {
    /// What it said then. When it says anything else now, it counts again.
    pub message: String,
    /// Why.
    pub reason: String,
    /// By whom.
    pub by: String,
}

/// Everything that is known of a home, folded from its logbook.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Home {
    name: Option<String>,
    pub(super) edition: Edition,
    pub(super) panels: IndexMap<PanelId, Panel>,
    pub(super) breakers: IndexMap<BreakerId, Breaker>,
    pub(super) shared_neutrals: Vec<Vec<BreakerId>>,
    pub(super) photos: Vec<Photo>,
    pub(super) fillers: BTreeMap<(PanelId, Slot), bool>,
    set_aside: BTreeMap<String, Aside>,
    pub(super) rooms: IndexMap<RoomId, Room>,
    pub(super) points: IndexMap<PointId, Point>,
    pub(super) plan: Drawn,
    pub(super) looks: Vec<Look>,
    pub(super) metered: Vec<Metered>,
    pub(super) skips: Vec<Skip>,
    pub(super) switched: Vec<BreakerId>,
    pub(super) turns: Vec<Turn>,
    pub(super) off_since: BTreeMap<BreakerId, Moment>,
    pub(super) off: Arc<BTreeSet<BreakerId>>,
    pub(super) doubted: Vec<Look>,
    pub(super) tones: Vec<(PointId, BreakerId)>,
    pub(super) worked: Vec<(PointId, Worked)>,
    pub(super) trips: Vec<Trip>,
    way: Way,
    pub(super) practice: Option<Recipe>,
    pub(crate) verdicts: Memo<Vec<(PointId, Verdict)>>,
}

impl Home {
    /// Its name; `None` before it is described.
    pub fn name(&self) -> Option<&str> {
        self.name.as_deref()
    }
    /// The edition of the rules that findings are worded by.
    pub fn edition(&self) -> Edition {
        self.edition
    }
    /// Every panel, in the order of entry.
    pub fn panels(&self) -> impl Iterator<Item = &Panel> {
        self.panels.values()
    }
    /// A panel.
    pub fn panel(&self, id: &PanelId) -> Option<&Panel> {
        self.panels.get(id)
    }
    /// The panels that a breaker feeds.
    pub fn panels_on<'a>(&'a self, breaker: &'a BreakerId) -> impl Iterator<Item = &'a Panel> {
        self.panels.values().filter(move |panel| panel.details.fed_by.as_ref() == Some(breaker))
    }
    /// The breakers whose circuits share a neutral with this one's, itself among them.
    pub fn shared_neutral_of(&self, breaker: &BreakerId) -> Option<&Vec<BreakerId>> {
        self.shared_neutrals.iter().find(|group| group.contains(breaker))
    }
    /// Every group of circuits that share a neutral.
    pub fn shared_neutrals(&self) -> &[Vec<BreakerId>] {
        &self.shared_neutrals
    }
    /// Whether a filler closes an open space; `None`: nobody has looked.
    pub fn filler(&self, panel: &PanelId, at: Slot) -> Option<bool> {
        self.fillers.get(&(panel.clone(), at)).copied()
    }
    /// Every photo, in the order of entry.
    pub fn photos(&self) -> &[Photo] {
        &self.photos
    }
    /// The finding as it was set aside, by its key.
    pub fn set_aside(&self, finding: &str) -> Option<&Aside> {
        self.set_aside.get(finding)
    }
    /// These breakers and every one behind them: what is without power when they are off.
    pub fn dead_behind(&self, off: &BTreeSet<BreakerId>) -> BTreeSet<BreakerId> {
        let mut dead = off.clone();
        let mut fresh: Vec<&BreakerId> = off.iter().collect();
        while let Some(breaker) = fresh.pop() {
            // Behind a feeder is its panel; behind a back-fed main everything else in its own.
            let own = self.breakers.get(breaker).filter(|b| b.details.back_fed_main).map(|b| &b.panel);
            let panels = self.panels_on(breaker).map(|panel| &panel.id).chain(own);
            for behind in panels.flat_map(|panel| self.breakers_of(panel)) {
                if dead.insert(behind.id.clone()) {
                    fresh.push(&behind.id);
                }
            }
        }
        dead
    }
    /// The looks with everything that was without power as off: what is behind a feeder that was off, too.
    /// By the panels as they are known now.
    pub(crate) fn looks_by_power(&self) -> Cow<'_, [Look]> {
        let alone = self.panels.values().all(|panel| panel.details.fed_by.is_none())
            && self.breakers.values().all(|breaker| !breaker.details.back_fed_main);
        if alone {
            return Cow::Borrowed(&self.looks);
        }
        type Off = Arc<BTreeSet<BreakerId>>;
        let mut last: Option<(Off, Off)> = None;
        let closed = self.looks.iter().map(|look| {
            let dead = match &last {
                Some((raw, dead)) if Arc::ptr_eq(raw, &look.off) => Arc::clone(dead),
                _ => Arc::new(self.dead_behind(&look.off)),
            };
            last = Some((Arc::clone(&look.off), Arc::clone(&dead)));
            Look { off: dead, ..look.clone() }
        });
        Cow::Owned(closed.collect())
    }
    /// Every breaker, in the order of entry.
    pub fn breakers(&self) -> impl Iterator<Item = &Breaker> {
        self.breakers.values()
    }
    /// The breakers of a panel, in the order of entry.
    pub fn breakers_of<'a>(&'a self, panel: &PanelId) -> impl Iterator<Item = &'a Breaker> + use<'a> {
        let panel = panel.clone();
        self.breakers.values().filter(move |b| b.panel == panel)
    }
    /// A breaker.
    pub fn breaker(&self, id: &BreakerId) -> Option<&Breaker> {
        self.breakers.get(id)
    }
    /// The number of a breaker as said anywhere in the home, `5-7` or `G3`; a removed one is said to be so.
    pub fn number(&self, id: &BreakerId) -> String {
        self.breakers.get(id).map_or_else(
            || "a removed breaker".into(),
            |breaker| format!("{}{}", self.panels.get(&breaker.panel).map_or("", |p| p.tag.as_str()), breaker.number()),
        )
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
    /// What is drawn of it: outlines, openings, where points are.
    pub fn drawn(&self) -> &Drawn {
        &self.plan
    }
    /// Every look, in the order of the logbook.
    pub fn looks(&self) -> &[Look] {
        &self.looks
    }
    /// What a meter showed, in the order of the logbook.
    pub(crate) fn metered(&self) -> &[Metered] {
        &self.metered
    }
    pub(crate) fn skips(&self) -> &[Skip] {
        &self.skips
    }
    /// Every time a breaker went on or off, in order: which one.
    pub fn switched(&self) -> &[BreakerId] {
        &self.switched
    }
    /// Looks that were filed under a switching which, as was told only later, had changed before: they count no more.
    pub fn doubted(&self) -> &[Look] {
        &self.doubted
    }
    /// Tones heard, in order: where the sender was plugged in and at which breaker it was loudest.
    pub fn tones(&self) -> &[(PointId, BreakerId)] {
        &self.tones
    }
    /// What was worked at devices, in order.
    pub fn worked(&self) -> &[(PointId, Worked)] {
        &self.worked
    }
    /// Every time a GFCI was tripped on purpose, in order.
    pub(crate) fn trips(&self) -> &[Trip] {
        &self.trips
    }
    /// GFCI devices that were tripped on purpose and not reset yet.
    pub fn tripped(&self) -> impl Iterator<Item = &PointId> {
        self.trips.iter().filter(|trip| trip.reset.is_none()).map(|trip| &trip.device)
    }
    /// How it is traced.
    pub fn way(&self) -> Way {
        self.way
    }
    /// What this home is drawn from, where it is a made-up one.
    pub fn practice(&self) -> Option<Recipe> {
        self.practice
    }
    /// When a breaker that is off went off.
    pub fn off_since(&self, breaker: &BreakerId) -> Option<Moment> {
        self.off_since.get(breaker).copied()
    }
    /// The breakers that are off or tripped now.
    pub fn off(&self) -> &Arc<BTreeSet<BreakerId>> {
        &self.off
    }

    /// Takes one entry, or refuses it and changes nothing.
    ///
    /// Striking out and restoring are the logbook's affair ([`super::Logbook`]): here they change nothing.
    pub fn apply(&mut self, entry: &Draft) -> Result<(), Refusal> {
        self.verdicts = Memo::default();
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
            Fact::RulesChosen(f) => self.edition = f.edition,
            Fact::PanelDescribed(f) => self.describe_panel(f)?,
            Fact::PanelRemoved(f) => self.remove_panel(f)?,
            Fact::LegRead(f) => self.read_leg(f)?,
            Fact::FillerSeen(f) => self.see_filler(f)?,
            Fact::BreakerPlaced(f) => self.place_breaker(f)?,
            Fact::BreakerMoved(f) => self.move_breaker(f)?,
            Fact::BreakersJoined(f) => self.join_breakers(f)?,
            Fact::BreakerRemoved(f) => self.remove_breaker(f)?,
            Fact::NeutralShared(f) => self.share_neutral(f)?,
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
            Fact::BreakerSwitched(f) => self.switch_breaker(f, entry)?,
            Fact::LabelClaimed(f) => {
                short("text", &f.text, 0, 120)?;
                let text = f.text.trim();
                self.breaker_mut(&f.breaker)?.claim = (!text.is_empty()).then(|| text.to_owned());
            }
            Fact::RoomPlaced(f) => self.place_room(f)?,
            Fact::RoomRemoved(f) => self.remove_room(f)?,
            Fact::UnitsChosen(f) => self.plan.units = f.units,
            Fact::FloorPlaced(f) => self.place_floor(f)?,
            Fact::RoomDrawn(f) => self.draw_room(f)?,
            Fact::OpeningPlaced(f) => self.place_opening(f)?,
            Fact::OpeningRemoved(f) => self.remove_opening(f)?,
            Fact::StairsPlaced(f) => self.place_stairs(f)?,
            Fact::StairsRemoved(f) => self.remove_stairs(f)?,
            Fact::PanelStands(f) => self.stand_panel(f)?,
            Fact::BackdropLaid(f) => self.lay_backdrop(f)?,
            Fact::BackdropRemoved(f) => self.remove_backdrop(f)?,
            Fact::PointPlaced(f) => self.place_point(f)?,
            Fact::PointRemoved(f) => self.remove_point(f)?,
            Fact::PointStands(f) => self.stand_point(f)?,
            Fact::SwitchControls(f) => self.control(f)?,
            Fact::GfciProtects(f) => self.protect(f)?,
            Fact::PointSeen(f) => self.see_point(f, entry)?,
            Fact::VoltsRead(f) => self.read_volts(f, entry)?,
            Fact::PointSkipped(f) => self.skip_point(f, entry)?,
            Fact::ToneHeard(f) => self.hear_tone(f)?,
            Fact::DeviceWorked(f) => self.work_device(f, entry)?,
            Fact::TraceSet(f) => {
                f.way.admit()?;
                self.way = f.way;
            }
            Fact::PracticeHouse(f) => self.is_made_up(f)?,
            Fact::PhotoTaken(f) => {
                self.known_panel(&f.panel)?;
                let photo = Photo { id: f.photo.clone(), panel: f.panel.clone(), of: f.of, line: entry.id.clone(), at: entry.at };
                self.photos.retain(|other| other.id != photo.id);
                self.photos.push(photo);
            }
            Fact::FindingSetAside(f) => {
                short("finding", &f.finding, 1, 200)?;
                short("message", &f.message, 1, 400)?;
                if f.aside {
                    short("reason", &f.reason, 3, 200)?;
                    let aside = Aside { message: f.message.clone(), reason: f.reason.trim().to_owned(), by: entry.by.clone() };
                    self.set_aside.insert(f.finding.clone(), aside);
                } else {
                    self.set_aside.remove(&f.finding);
                }
            }
            Fact::LineStruck(_) | Fact::LineRestored(_) => {}
        }
        Ok(())
    }

    pub(super) fn known_breaker(&self, id: &BreakerId) -> Result<&Breaker, Refusal> {
        self.breakers.get(id).ok_or_else(|| {
            unknown("breaker", "There is no such breaker in the panel.", "Name a breaker that is entered on the Panel screen.")
        })
    }
    pub(super) fn breaker_mut(&mut self, id: &BreakerId) -> Result<&mut Breaker, Refusal> {
        self.known_breaker(id)?;
        self.breakers.get_mut(id).ok_or_else(|| unknown("breaker", "There is no such breaker in the panel.", ""))
    }
    pub(super) fn known_room(&self, id: &RoomId) -> Result<&Room, Refusal> {
        self.rooms
            .get(id)
            .ok_or_else(|| unknown("room", "There is no such room.", "Name a room that is entered on the House screen."))
    }
    pub(super) fn known_point(&self, id: &PointId) -> Result<&Point, Refusal> {
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

pub(super) fn unknown(field: &str, wrong: &str, accepted: &str) -> Refusal {
    Refusal::new(RefusalCode::Unknown, field, wrong, accepted)
}

/// A text of `least` to `most` characters on one line.
pub(super) fn short(field: &str, text: &str, least: usize, most: usize) -> Result<(), Refusal> {
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
