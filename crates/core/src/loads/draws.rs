//! What one load takes, and how sure that is.

use serde::Serialize;

use super::peak::{Group, Hours};
use crate::logbook::{Home, LoadPlaced};
use crate::model::{Draw, Load, LoadId, LoadPlate, Moment, PointId, PointKind, Reading, ReadingOf, Season, Volts};

/// Where a figure comes from.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
#[serde(tag = "from", rename_all = "snake_case")]
pub enum TakenFrom {
    /// A reading.
    Reading {
        /// When.
        at: Moment,
        /// By whom.
        by: String,
    },
    /// The data plate.
    Plate,
    /// The library of appliances.
    Library,
    /// Nobody knows.
    NotKnown,
}

/// What a load takes.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LoadLine {
    /// The load.
    pub load: LoadId,
    /// The point that it is at.
    pub point: PointId,
    /// `Kitchen, counter, left`.
    pub place: String,
    /// `microwave`.
    pub name: String,
    /// How many alike.
    pub count: u16,
    /// 120 or 240.
    pub volts: u16,
    /// What it takes while it runs, in amperes, all of them together.
    pub amps: f64,
    /// It takes at least this.
    pub low: f64,
    /// It takes at most this.
    pub high: f64,
    /// In watts.
    pub watts: f64,
    /// Where that comes from.
    pub taken_from: TakenFrom,
    /// The same in words: `common practice`, `data plate`.
    pub source: String,
    /// It runs for three hours or more.
    pub continuous: bool,
    /// It is fastened in place.
    pub fastened: bool,
    /// A motor, as the library has it.
    pub motor: bool,
    /// Hours a day that it runs, in its season; `null` where nobody knows.
    pub hours_a_day: Option<f64>,
    /// In which season.
    pub season: Season,
    /// The fact that tells of it, to be recorded again with something changed.
    pub stated: LoadPlaced,
}

/// A load with its chances of running.
#[derive(Clone)]
pub(crate) struct Drawn<'a> {
    pub(super) load: &'a Load,
    pub(crate) line: LoadLine,
    pub(super) hours: Hours,
    /// Its power factor at least and at most.
    pub(super) factor: [f64; 2],
    /// What a sheet counts, in volt-amperes: by the plate, else by the library. A reading of the moment counts only where it is more.
    pub(super) plate_va: f64,
}

impl Drawn<'_> {
    /// What it takes, in hundredths of an ampere.
    pub(super) fn amps_x100(&self, which: End) -> i64 {
        let amps = match which {
            End::Likely => self.line.amps,
            End::Low => self.line.low,
            End::High => self.line.high,
        };
        (amps * 100.0).round() as i64
    }

    pub(super) fn runs_in(&self, season: Season) -> bool {
        self.line.season == Season::All || self.line.season == season
    }
}

/// Which end of what a load may take.
#[derive(Clone, Copy)]
pub(super) enum End {
    Low,
    Likely,
    High,
}

/// Nobody knows what it takes, and it is like nothing of the library: at most this at 120 V, what a plug of 15 A
/// carries, and at 240 V an estimate; where the outlet's face was read, what such a plug carries, where that is more.
const UNKNOWN_AT_MOST: [f64; 2] = [15.0, 24.0];
/// No plug bounds what is wired in: at most what the usual larger breaker of 120 V carries (our estimate).
const WIRED_AT_MOST: f64 = 20.0;
/// What a figure of the library may be off beside its own span (our estimate).
const LIBRARY_LOW: f64 = 0.8;
const LIBRARY_HIGH: f64 = 1.2;
/// How low a power factor may be where nothing is known of the load, and how far the library's may be off (our estimate).
const LOWEST_FACTOR: f64 = 0.6;
const FACTOR_OFF: f64 = 0.1;
/// The power factor of what only heats (arithmetic; the rest is its blower and its lamp).
const HEATS: [f64; 2] = [0.98, 1.0];

/// What stands on its own and has a cord, also where its outlet is entered as an appliance (common practice).
const STANDS: [&str; 9] =
    ["fridge", "fridge_old", "freezer", "wine_cooler", "ice_maker", "washer", "dryer_gas", "ac_window_s", "ac_window_l"];

/// Amperes by a plate: its amperes, else its watts by its volts, else the wire that it asks for less the 25 % in it.
pub(super) fn plate_amps(plate: &LoadPlate, volts: f64, power_factor: f64) -> f64 {
    let volts = plate.volts.unwrap_or(volts);
    let by_watts = plate.watts.map(|watts| watts / (volts * power_factor));
    plate.amps.or(by_watts).or(plate.minimum_ampacity.map(|amps| amps / 1.25)).unwrap_or(0.0)
}

/// The last reading of a load, as it is now: what was read before it was described anew was of something else.
fn last_reading<'a>(home: &'a Home, load: &Load) -> Option<&'a Reading> {
    let of_it = |reading: &&Reading| {
        reading.nth >= load.described && matches!(&reading.of, ReadingOf::Load { load: of } if *of == load.id)
    };
    home.loads().readings().iter().rev().find(of_it)
}

/// What this load takes, as far as anybody knows.
pub(crate) fn drawn<'a>(home: &Home, load: &'a Load) -> Drawn<'a> {
    let like = load.like();
    let point = home.house().point(&load.point);
    let on_two_hots = point.is_some_and(|point| point.volts == Volts::new(240));
    let volts = if on_two_hots { 240.0 } else { 120.0 };
    // Without a power factor watts give the least amperes; with the library's they give the likely ones.
    let power_factor = like.map_or(1.0, |like| like.power_factor);
    let of_library = |watts: f64| watts / (volts * power_factor);
    let factor = like.map_or([LOWEST_FACTOR, 1.0], |like| {
        if like.power_factor >= 0.99 {
            return HEATS;
        }
        [(like.power_factor - FACTOR_OFF).max(LOWEST_FACTOR.min(like.power_factor)), (like.power_factor + FACTOR_OFF).min(1.0)]
    });
    let span = like.map(|like| (LIBRARY_LOW * of_library(like.watts_low), LIBRARY_HIGH * of_library(like.watts_high)));
    let point = home.house().point(&load.point);
    let by_face = point.and_then(|point| point.configuration).map_or(0.0, |face| f64::from(face.amps()));
    let by_wire = if point.is_some_and(|point| point.kind == PointKind::Appliance) { WIRED_AT_MOST } else { 0.0 };
    let unknown = UNKNOWN_AT_MOST[usize::from(on_two_hots)].max(by_face).max(by_wire);
    let (amps, low, high, taken_from) = match (last_reading(home, load), load.draw) {
        (Some(reading), _) => {
            let (read_amps, watts) = reading.value.amps_or_watts();
            let at = |off: f64, power_factor: f64| (watts.unwrap_or(0.0) + off).max(0.0) / (volts * power_factor);
            let off = reading.value.watts_off();
            let [least, likely, most] = match read_amps {
                Some(amps) => [amps; 3],
                // Watts are amperes only by the power factor, which nobody has read.
                None => [at(-off, factor[1]), at(0.0, power_factor), at(off, factor[0])],
            };
            let each = |amps: f64| amps / f64::from(load.count);
            let from = TakenFrom::Reading { at: reading.at, by: reading.by.clone() };
            let off = reading.with.share_off();
            (each(likely), each(least) * (1.0 - off), each(most) * (1.0 + off), from)
        }
        (None, Draw::Plate(plate)) => {
            let amps = plate_amps(&plate, volts, power_factor);
            // A motor's plate covers its full load, which it seldom has.
            let low = if like.is_some_and(|like| like.motor) { 0.5 * amps } else { 0.9 * amps };
            (amps, low, amps, TakenFrom::Plate)
        }
        (None, Draw::Library) => {
            let amps = like.map_or(unknown / 2.0, |like| of_library(like.watts));
            let (low, high) = span.unwrap_or((0.0, unknown));
            (amps, low, high, TakenFrom::Library)
        }
        (None, Draw::NotKnown) => {
            let (low, high) = span.unwrap_or((0.0, unknown));
            let amps = like.map_or(unknown / 2.0, |like| of_library(like.watts));
            (amps, low, high, TakenFrom::NotKnown)
        }
    };
    let source = match &taken_from {
        TakenFrom::Reading { .. } => "read".into(),
        TakenFrom::Plate => "data plate".into(),
        TakenFrom::Library => like.map_or_else(String::new, |like| format!("library: {}", like.watts_from.words())),
        TakenFrom::NotKnown => "not known".into(),
    };
    let usage = load.usage.as_ref().or(like.map(|like| &like.usage));
    // Nobody knows when it runs: an hour a day, at any time, is an estimate of ours.
    let hours = usage.map_or([1.0 / 24.0; 24], crate::model::Usage::hours);
    let count = f64::from(load.count);
    let hundredths = |amps: f64| (amps * count * 100.0).round() / 100.0;
    let stands_on_its_own = like.is_some_and(|like| STANDS.contains(&like.id));
    let cord = point.is_none_or(|point| point.kind == PointKind::Receptacle);
    let line = LoadLine {
        load: load.id.clone(),
        point: load.point.clone(),
        place: home.house().place(&load.point),
        name: load.name.clone(),
        count: load.count,
        volts: volts as u16,
        amps: hundredths(amps),
        low: hundredths(low),
        high: hundredths(high),
        watts: (amps * count * volts * power_factor).round(),
        taken_from,
        source,
        continuous: load.continuous.unwrap_or_else(|| like.is_some_and(|like| like.continuous)),
        fastened: load.fastened.unwrap_or(!cord && !stands_on_its_own),
        motor: like.is_some_and(|like| like.motor),
        hours_a_day: usage.map(|usage| usage.minutes * usage.uses_per_day / 60.0),
        season: usage.map_or(Season::All, |usage| usage.season),
        stated: LoadPlaced::from(load),
    };
    let by_plate = match load.draw {
        Draw::Plate(plate) => plate.watts.unwrap_or_else(|| plate_amps(&plate, volts, power_factor) * volts),
        Draw::NotKnown => span.map_or(unknown, |(_, high)| high) * volts,
        // What is cooked on at a time is not what a range's plate says, so the most that is usual counts.
        Draw::Library => like.map_or(unknown * volts, |like| {
            let watts = if like.class == "range" { like.watts_high } else { like.watts };
            watts / like.power_factor
        }),
    };
    let plate_va =
        (by_plate * count).max(if matches!(line.taken_from, TakenFrom::Reading { .. }) { amps * count * volts } else { 0.0 });
    Drawn { load, line, hours, factor, plate_va }
}

/// Loads as groups that are independent of one another: what runs together is one, what excludes one another is one of several.
pub(super) fn groups<'a, 'b: 'a>(all: impl IntoIterator<Item = &'a Drawn<'b>>, season: Season, end: End) -> Vec<Group> {
    let here: Vec<&Drawn<'_>> = all.into_iter().filter(|drawn| drawn.runs_in(season)).collect();
    let at = |id: &LoadId| here.iter().position(|drawn| drawn.load.id == *id);
    // Whoever runs with another is counted with that one, or the one that that one runs with.
    let leader = |mut number: usize| {
        for _ in 0..here.len() {
            match here[number].load.with.as_ref().and_then(at) {
                Some(next) => number = next,
                None => break,
            }
        }
        number
    };
    let mut sums: Vec<Option<i64>> = vec![None; here.len()];
    for (number, drawn) in here.iter().enumerate() {
        *sums[leader(number)].get_or_insert(0) += drawn.amps_x100(end);
    }
    let never = |a: usize, b: usize| {
        let tells = |a: usize, b: usize| here[a].load.never_with.contains(&here[b].load.id);
        tells(a, b) || tells(b, a)
    };
    let mut groups: Vec<Vec<usize>> = Vec::new();
    for number in (0..here.len()).filter(|number| sums[*number].is_some()) {
        match groups.iter_mut().find(|group| group.iter().all(|other| never(*other, number))) {
            Some(group) => group.push(number),
            None => groups.push(vec![number]),
        }
    }
    let one = |number: usize| (sums[number].unwrap_or(0), here[number].hours);
    groups
        .into_iter()
        .map(|group| match group.as_slice() {
            [number] => Group::One(one(*number).0, one(*number).1),
            several => Group::OneOf(several.iter().map(|number| one(*number)).collect()),
        })
        .collect()
}
