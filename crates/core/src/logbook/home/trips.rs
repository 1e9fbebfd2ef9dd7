//! What is wrong now and was wrong before, as the logbook has it.

use std::collections::BTreeMap;

use indexmap::IndexMap;

use super::{Home, refuse, short, unknown};
use crate::logbook::{Draft, NumbersKept, PointFed, TroubleEnded, TroubleLooked, TroubleMended, TroubleTold};
use crate::model::{
    BreakerId, EntryId, FedFrom, Moment, PointId, Refusal, RefusalCode, State, Trouble, TroubleAt, TroubleFound, TroubleId,
    TroubleLook, TroubleSaw, Volts, meter,
};

/// A look on the way.
#[derive(Debug, Clone, PartialEq)]
pub struct SeenAtTrouble {
    /// What it showed.
    pub saw: TroubleSaw,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// The line that says so.
    pub line: EntryId,
}

/// Something that is or was wrong.
#[derive(Debug, Clone, PartialEq)]
pub struct KnownTrouble {
    /// Its id.
    pub id: TroubleId,
    /// What is told of it.
    pub told: Trouble,
    /// When it was told first.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// The looks, in the order in which they were made.
    pub looks: IndexMap<TroubleLook, SeenAtTrouble>,
    /// Signs of danger, with the looks at which they were seen. No later look takes the place of one: it stands until its line is
    /// struck out.
    pub signs: Vec<(TroubleLook, SeenAtTrouble)>,
    /// When it was over, with what it was.
    pub ended: Option<(Moment, Option<TroubleFound>, String)>,
    /// When what was found was mended.
    pub mended: Option<Moment>,
}

impl KnownTrouble {
    /// It is not over.
    pub const fn is_open(&self) -> bool {
        self.ended.is_none()
    }

    /// What was found and has to be mended, as long as it is not.
    pub fn to_be_mended(&self) -> Option<&TroubleFound> {
        let (_, found, _) = self.ended.as_ref()?;
        found.as_ref().filter(|found| found.cause.needs_mending() && self.mended.is_none())
    }

    /// The breakers that were found tripped on the way, with the time of the first word of each.
    pub fn tripped(&self) -> BTreeMap<BreakerId, Moment> {
        let mut tripped = BTreeMap::new();
        if let TroubleAt::Breaker(breaker) = &self.told.at {
            tripped.insert(breaker.clone(), self.at);
        }
        for (look, seen) in &self.looks {
            let breaker = match (&seen.saw, look) {
                (TroubleSaw::Tripped(breaker), _) => breaker,
                (TroubleSaw::Word(word), TroubleLook::Feel { breaker }) if word == "tripped" => breaker,
                _ => continue,
            };
            tripped.entry(breaker.clone()).or_insert(seen.at);
        }
        tripped
    }
}

/// Everything that is or was wrong, whom to call, and from where points are fed.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Troubles {
    troubles: IndexMap<TroubleId, KnownTrouble>,
    utility: String,
    electrician: String,
    fed: BTreeMap<PointId, FedFrom>,
}

impl Troubles {
    /// All, in the order of entry.
    pub fn all(&self) -> impl DoubleEndedIterator<Item = &KnownTrouble> {
        self.troubles.values()
    }
    /// One.
    pub fn trouble(&self, id: &TroubleId) -> Option<&KnownTrouble> {
        self.troubles.get(id)
    }
    /// The utility's number; empty: none.
    pub fn utility(&self) -> &str {
        &self.utility
    }
    /// The electrician's number; empty: none.
    pub fn electrician(&self) -> &str {
        &self.electrician
    }
    /// From where points get their power, as far as it was told.
    pub fn fed(&self) -> impl Iterator<Item = (&PointId, &FedFrom)> {
        self.fed.iter()
    }
    /// From where a point gets its power.
    pub fn fed_from(&self, point: &PointId) -> Option<&FedFrom> {
        self.fed.get(point)
    }
    fn open(&mut self, id: &TroubleId) -> Result<&mut KnownTrouble, Refusal> {
        let trouble = self
            .troubles
            .get_mut(id)
            .ok_or_else(|| unknown("trouble", "Nothing of that id is wrong.", "Say first what is wrong."))?;
        if trouble.is_open() {
            return Ok(trouble);
        }
        refuse(RefusalCode::StillNeeded, "trouble", "This is over.", "Say anew what is wrong; what was recorded stays.")
    }
}

/// The most points that are named beside the first.
const MOST_NAMED: usize = 60;
/// A number to call is at most so long.
const LONGEST_NUMBER: usize = 30;

/// What a look showed, in words.
pub(crate) fn saw_in_words(look: &TroubleLook, word: &str) -> &'static str {
    match (look, word) {
        (TroubleLook::Safety, "normal") => "none",
        (TroubleLook::Safety, _) => "lamps brighter or dimmer than usual",
        (TroubleLook::Handles { .. }, "none") => "all stand on",
        (TroubleLook::Handles { .. }, _) => "the main or another handle is out of place",
        (TroubleLook::Indicator { .. }, "none") => "shows nothing",
        (_, "live") => "has power",
        (_, "dark") => "dark",
        (_, "open_neutral") => "the tester shows an open neutral",
        (_, "dim") => "dim or weak",
        (_, "bright") => "too bright",
        (_, "flicker") => "comes and goes",
        (_, "partial") => "runs at part of its power",
        (_, "half") => "one half is dead",
        (_, "on") => "firmly on",
        (_, "off") => "off",
        (_, "tripped") => "tripped",
        (_, "over") => "says too much current",
        (_, "arc") => "says an arc",
        (_, "ground") => "says a ground fault",
        (_, "ok_live") => "was not tripped, has power",
        (_, "reset_works") => "was tripped; now it works",
        (_, "reset_no_help") => "was tripped; the point is still dark",
        (_, "clicks_dead") => "clicks and gives no power",
        (_, "wont_latch") => "does not stay in",
        (_, "lit") => "there is light",
        (_, "stays_dark") => "it stays dark",
        (_, "works") => "works",
        (_, "dead") => "does not work",
        (_, "clean") => "sound",
        (_, "marks") => "burnt or damaged",
        (_, "holds_live") => "holds, and the point has power",
        (_, "holds_dead") => "holds, and the point stays dark",
        (_, "at_once") => "tripped again at once",
        (_, "later") => "tripped again after a while",
        (_, "holds") => "holds",
        (_, "trips") => "trips the breaker",
        (_, "0_hg120") => "0 V to the neutral and about 120 V to ground",
        (_, "wander") => "volts that do not stand still",
        _ => "something else",
    }
}

/// A sign of danger: what somebody notices, and more volts than a service may have.
fn is_sign(saw: &TroubleSaw) -> bool {
    match saw {
        TroubleSaw::Danger(_) => true,
        TroubleSaw::Volts(volts) => meter::is_too_much(*volts, Volts::new(120)),
        _ => false,
    }
}

/// What is told of one trip twice, by a screen of the panel and on the way to its cause, is told within so many milliseconds.
const ONE_TRIP_MS: i64 = 10 * 60 * 1000;

impl Home {
    /// When a breaker was found tripped, in the order of the times.
    pub fn trips_of(&self, breaker: &BreakerId) -> Vec<Moment> {
        let moved = self.switchings.all().iter().filter(|s| s.breaker == *breaker && s.to == State::Tripped).map(|s| s.at);
        let mut times: Vec<Moment> = self.troubles.all().filter_map(|t| t.tripped().get(breaker).copied()).collect();
        for at in moved {
            if times.iter().all(|known| (known.unix_ms() - at.unix_ms()).abs() > ONE_TRIP_MS) {
                times.push(at);
            }
        }
        times.sort_unstable();
        times
    }

    /// When a GFCI was found tripped: in a trace, or as something was looked for.
    pub fn trips_of_gfci(&self, device: &PointId) -> Vec<Moment> {
        let was_tripped =
            |saw: &TroubleSaw| matches!(saw, TroubleSaw::Word(word) if word == "reset_works" || word == "reset_no_help");
        let in_troubles = self.troubles.all().flat_map(|t| &t.looks).filter_map(|(look, seen)| match look {
            TroubleLook::Gfci { point } if point == device && was_tripped(&seen.saw) => Some(seen.at),
            _ => None,
        });
        let in_traces = self.trace.found_tripped().iter().filter(|(point, _)| point == device).map(|(_, at)| *at);
        let mut times: Vec<Moment> = in_troubles.collect();
        for at in in_traces {
            if times.iter().all(|known| (known.unix_ms() - at.unix_ms()).abs() > ONE_TRIP_MS) {
                times.push(at);
            }
        }
        times.sort_unstable();
        times
    }

    fn knows_point(&self, point: &PointId) -> Result<(), Refusal> {
        self.house.known_point(point).map(drop)
    }

    pub(in crate::logbook) fn tell_trouble(&mut self, f: &TroubleTold, entry: &Draft) -> Result<(), Refusal> {
        match &f.told.at {
            TroubleAt::Point(point) => self.knows_point(point)?,
            TroubleAt::Breaker(breaker) => drop(self.panels.known_breaker(breaker)?),
            TroubleAt::Home => {}
        }
        let named = f.told.also.iter().map(|a| &a.point).chain(&f.told.works);
        if f.told.also.len() > MOST_NAMED || f.told.works.len() > MOST_NAMED || f.told.running.len() > MOST_NAMED {
            return refuse(RefusalCode::OutOfRange, "told", "So many are not named one by one.", "Name at most 60 of each.");
        }
        for point in named {
            self.knows_point(point)?;
        }
        for load in f.told.running.iter().chain(&f.told.last_on) {
            if self.loads.load(load).is_none() {
                return Err(unknown("running", "There is no such load.", "Name a load of this home."));
            }
        }
        if let Some(known) = self.troubles.troubles.get(&f.trouble) {
            if !known.is_open() {
                return refuse(RefusalCode::StillNeeded, "trouble", "This is over.", "Say it under a new id.");
            }
            self.troubles.open(&f.trouble)?.told = f.told.clone();
            return Ok(());
        }
        let known = KnownTrouble {
            id: f.trouble.clone(),
            told: f.told.clone(),
            at: entry.at,
            by: entry.by.clone(),
            looks: IndexMap::new(),
            signs: Vec::new(),
            ended: None,
            mended: None,
        };
        self.troubles.troubles.insert(f.trouble.clone(), known);
        Ok(())
    }

    pub(in crate::logbook) fn look_at_trouble(&mut self, f: &TroubleLooked, entry: &Draft) -> Result<(), Refusal> {
        match &f.at {
            TroubleLook::Safety | TroubleLook::Neighbors => {}
            TroubleLook::Handles { panel } => drop(self.panels.known_panel(panel)?),
            TroubleLook::Feel { breaker } | TroubleLook::Indicator { breaker } | TroubleLook::Reset { breaker } => {
                self.panels.known_breaker(breaker)?;
            }
            TroubleLook::Cord { load } | TroubleLook::Add { load } => {
                if self.loads.load(load).is_none() {
                    return Err(unknown("at", "There is no such load.", "Name a load of this home."));
                }
            }
            TroubleLook::Switch { switch, point } => {
                self.knows_point(point)?;
                switch.as_ref().map_or(Ok(()), |switch| self.knows_point(switch))?;
            }
            TroubleLook::Volts { point } => {
                if self.house.known_point(point)?.volts != Volts::new(120) {
                    return refuse(
                        RefusalCode::DoesNotFit,
                        "at",
                        "Volts are read here at outlets of 120 V alone.",
                        "Look whether the appliance works, or read its volts in a trace.",
                    );
                }
            }
            TroubleLook::Point { point }
            | TroubleLook::Outlet { point }
            | TroubleLook::Gfci { point }
            | TroubleLook::Control { point }
            | TroubleLook::Lamp { point }
            | TroubleLook::Elsewhere { point }
            | TroubleLook::Cutout { point } => self.knows_point(point)?,
        }
        match (&f.saw, &f.at) {
            (TroubleSaw::Word(word), look) if look.may_show().contains(&word.as_str()) => {}
            (TroubleSaw::Tripped(breaker) | TroubleSaw::Off(breaker), TroubleLook::Handles { panel }) => {
                if self.panels.known_breaker(breaker)?.panel != *panel {
                    return refuse(
                        RefusalCode::DoesNotFit,
                        "saw",
                        "That breaker is in another panel.",
                        "Name one of the panel that was looked at.",
                    );
                }
            }
            (TroubleSaw::Volts(volts), TroubleLook::Volts { .. }) => {
                if !(0.0..=1000.0).contains(volts) {
                    return refuse(
                        RefusalCode::OutOfRange,
                        "saw",
                        format!("{volts} V cannot be read at an outlet."),
                        "Give 0 to 1000 V.",
                    );
                }
            }
            (TroubleSaw::Danger(_) | TroubleSaw::CannotTell, _) => {}
            _ => {
                return refuse(
                    RefusalCode::DoesNotFit,
                    "saw",
                    "This look cannot show that.",
                    "Give one of the answers to this look.",
                );
            }
        }
        let trouble = self.troubles.open(&f.trouble)?;
        let seen = SeenAtTrouble { saw: f.saw.clone(), at: entry.at, by: entry.by.clone(), line: entry.id.clone() };
        if is_sign(&f.saw) {
            trouble.signs.push((f.at.clone(), seen));
            return Ok(());
        }
        // What is looked at again is the last thing that was seen.
        trouble.looks.shift_remove(&f.at);
        trouble.looks.insert(f.at.clone(), seen);
        Ok(())
    }

    pub(in crate::logbook) fn end_trouble(&mut self, f: &TroubleEnded, entry: &Draft) -> Result<(), Refusal> {
        short("note", &f.note, 0, 200)?;
        if let Some(found) = &f.found {
            if let Some(breaker) = &found.breaker {
                self.panels.known_breaker(breaker)?;
            }
            for point in &found.points {
                self.knows_point(point)?;
            }
        }
        let ended = Some((entry.at, f.found.clone(), f.note.trim().to_owned()));
        self.troubles.open(&f.trouble)?.ended = ended;
        Ok(())
    }

    pub(in crate::logbook) fn mend_trouble(&mut self, f: &TroubleMended, entry: &Draft) -> Result<(), Refusal> {
        let known = self.troubles.troubles.get_mut(&f.trouble);
        let known = known.ok_or_else(|| unknown("trouble", "Nothing of that id is wrong.", "Say first what is wrong."))?;
        if known.to_be_mended().is_none() {
            return refuse(
                RefusalCode::DoesNotFit,
                "trouble",
                "There is nothing to mend.",
                "Say first what was found; what works again by itself is over as it is.",
            );
        }
        known.mended = Some(entry.at);
        Ok(())
    }

    pub(in crate::logbook) fn keep_numbers(&mut self, f: &NumbersKept) -> Result<(), Refusal> {
        for (field, number) in [("utility", &f.utility), ("electrician", &f.electrician)] {
            let number = number.trim();
            let digits = number.chars().filter(char::is_ascii_digit).count();
            let is_one = number.is_empty()
                || (digits >= 2
                    && number.len() <= LONGEST_NUMBER
                    && number.chars().all(|c| c.is_ascii_digit() || " +-()./".contains(c)));
            if !is_one {
                return refuse(
                    RefusalCode::OutOfRange,
                    field,
                    "That is not a number to call.",
                    "Give digits, with + - ( ) . / or blanks between them; at most 30 in all.",
                );
            }
        }
        self.troubles.utility = f.utility.trim().to_owned();
        self.troubles.electrician = f.electrician.trim().to_owned();
        Ok(())
    }

    pub(in crate::logbook) fn feed_point(&mut self, f: &PointFed) -> Result<(), Refusal> {
        self.knows_point(&f.point)?;
        let Some(from) = &f.from else {
            self.troubles.fed.remove(&f.point);
            return Ok(());
        };
        if let FedFrom::Point(before) = from {
            self.knows_point(before)?;
            // No circle: on the way from there to the panel this point does not come.
            let mut at = Some(before);
            while let Some(now) = at {
                if *now == f.point {
                    return refuse(
                        RefusalCode::DoesNotFit,
                        "from",
                        "A point cannot be fed from what is fed from it.",
                        "Name the point that comes before it on the way from the panel.",
                    );
                }
                at = match self.troubles.fed.get(now) {
                    Some(FedFrom::Point(next)) => Some(next),
                    _ => None,
                };
            }
        }
        self.troubles.fed.insert(f.point.clone(), from.clone());
        Ok(())
    }

    /// What is removed feeds nothing any more.
    pub(in crate::logbook) fn forget_feed(&mut self, point: &PointId) {
        let gone = FedFrom::Point(point.clone());
        self.troubles.fed.retain(|of, from| of != point && *from != gone);
    }
}
