//! Loads and readings as the logbook has them, and how facts about them change what is known.

use std::collections::BTreeMap;

use indexmap::IndexMap;

use super::{Home, refuse, short, unknown};
use crate::logbook::{
    BreakerVoltsRead, Draft, HeatSeen, LoadPlaced, LoadRemoved, ReadingTaken, ServiceFigureTold, ServiceTold, SurveySet,
    UsageRead,
};
use crate::model::{
    Appliance, BreakerId, BreakerVolts, Draw, FigureTold, Heat, Load, LoadId, LoadPlate, Moment, PhotoId, PointId, ReadValue,
    Reading, ReadingOf, Refusal, RefusalCode, ServiceFigure, SurveyWish, Usage, Volts,
};

/// How warm a breaker was, when, and with what running.
#[derive(Debug, Clone, PartialEq)]
pub struct SeenHeat {
    /// How warm.
    pub heat: Heat,
    /// The loads that ran.
    pub running: Vec<LoadId>,
    /// The picture.
    pub photo: Option<PhotoId>,
    /// By whom.
    pub by: String,
    /// When.
    pub at: Moment,
}

/// Every load and reading, in the order of entry.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Loads {
    loads: IndexMap<LoadId, Load>,
    readings: Vec<Reading>,
    service: Option<ServiceTold>,
    usage: Option<UsageRead>,
    breaker_volts: IndexMap<BreakerId, BreakerVolts>,
    figures: BTreeMap<ServiceFigure, FigureTold>,
    heat: IndexMap<BreakerId, SeenHeat>,
    survey: Option<SurveySet>,
    /// How many words there were on loads.
    words: u32,
}

impl Loads {
    /// Every load, in the order of entry.
    pub fn all(&self) -> impl Iterator<Item = &Load> {
        self.loads.values()
    }
    /// A load.
    pub fn load(&self, id: &LoadId) -> Option<&Load> {
        self.loads.get(id)
    }
    /// The loads at a point, in the order of entry.
    pub fn at<'a>(&'a self, point: &'a PointId) -> impl Iterator<Item = &'a Load> {
        self.loads.values().filter(move |load| load.point == *point)
    }
    /// Every reading, in the order of entry; its breaker may have been taken out since.
    pub fn readings(&self) -> &[Reading] {
        &self.readings
    }

    /// Volts that were read at a breaker.
    pub fn breaker_volts(&self, breaker: &BreakerId) -> Option<BreakerVolts> {
        self.breaker_volts.get(breaker).copied()
    }

    /// The survey that everybody who is in takes part in.
    pub fn survey(&self) -> Option<&SurveySet> {
        self.survey.as_ref()
    }

    /// How warm a breaker was in a thermal picture.
    pub fn heat(&self, breaker: &BreakerId) -> Option<&SeenHeat> {
        self.heat.get(breaker)
    }

    /// A figure of the service calculation in place of what the facts say.
    pub fn figure(&self, figure: ServiceFigure) -> Option<&FigureTold> {
        self.figures.get(&figure)
    }

    /// Nothing is entered and nothing was read.
    pub fn is_empty(&self) -> bool {
        self.loads.is_empty() && self.readings.is_empty() && self.breaker_volts.is_empty() && self.heat.is_empty()
    }

    /// The demand that the utility's data show.
    pub fn usage(&self) -> Option<&UsageRead> {
        self.usage.as_ref()
    }

    /// What was told for the service calculation.
    pub fn service(&self) -> Option<&ServiceTold> {
        self.service.as_ref()
    }

    fn known(&self, id: &LoadId) -> Result<&Load, Refusal> {
        self.loads
            .get(id)
            .ok_or_else(|| unknown("load", "There is no such load.", "Name a load that is entered on the Loads screen."))
    }

    fn drop_load(&mut self, id: &LoadId) {
        self.loads.shift_remove(id);
        for load in self.loads.values_mut() {
            load.never_with.retain(|other| other != id);
            if load.with.as_ref() == Some(id) {
                load.with = None;
            }
        }
        self.readings.retain(|reading| reading.of != ReadingOf::Load { load: id.clone() });
    }
}

/// The most that a household load takes.
const MOST_WATTS: f64 = 50_000.0;

fn plate_fits(plate: &LoadPlate) -> Result<(), Refusal> {
    let outside = |wrong: String, accepted: &str| refuse(RefusalCode::OutOfRange, "draw", wrong, accepted);
    if let Some(volts) = plate.volts.filter(|volts| !(100.0..=260.0).contains(volts)) {
        return outside(
            format!("{volts} V cannot be right for a data plate here."),
            "Give 100 to 260 V, or leave the volts out.",
        );
    }
    let ampacity = [plate.amps, plate.minimum_ampacity, plate.largest_breaker];
    if let Some(amps) = ampacity.into_iter().flatten().find(|amps| !(0.01..=400.0).contains(amps)) {
        return outside(format!("{amps} A cannot be right for a data plate."), "Give 0.01 to 400 A.");
    }
    if let Some(watts) = plate.watts.filter(|watts| !(0.5..=MOST_WATTS).contains(watts)) {
        return outside(format!("{watts} W cannot be right for a data plate."), "Give 0.5 to 50 000 W.");
    }
    if plate.amps.is_none() && plate.watts.is_none() && plate.minimum_ampacity.is_none() {
        return outside("The plate says neither amperes nor watts.".into(), "Give one of the two, or say that it is not known.");
    }
    Ok(())
}

fn usage_fits(usage: &Usage) -> Result<(), Refusal> {
    let fits = (0.0..=1440.0).contains(&usage.minutes)
        && (0.0..=1440.0).contains(&usage.uses_per_day)
        && (1..=6).contains(&usage.when.len())
        && usage.minutes * usage.uses_per_day <= 1440.0 + 1e-9;
    if fits {
        return Ok(());
    }
    refuse(
        RefusalCode::OutOfRange,
        "usage",
        "A day has 1440 minutes.",
        "Give minutes each time and times a day that fit into a day, and at least one part of the day.",
    )
}

impl Home {
    pub(in crate::logbook) fn place_load(&mut self, f: &LoadPlaced) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        let point = self.house.known_point(&f.point)?;
        let like = match f.appliance.as_deref() {
            None => None,
            Some(id) => Some(Appliance::named(id).ok_or_else(|| {
                unknown(
                    "appliance",
                    "The library has no such appliance.",
                    "Choose one from the list, or give the plate's figures.",
                )
            })?),
        };
        if !(1..=50).contains(&f.count) {
            return refuse(RefusalCode::OutOfRange, "count", format!("There cannot be {} alike.", f.count), "Give 1 to 50.");
        }
        if f.draw == Draw::Library && like.is_none() {
            return refuse(
                RefusalCode::DoesNotFit,
                "draw",
                "The library's figure is not known: no appliance of the library was chosen.",
                "Choose one, give the plate's figures, or say that it is not known.",
            );
        }
        let plate = if let Draw::Plate(plate) = &f.draw { Some(plate) } else { None };
        plate.map_or(Ok(()), plate_fits)?;
        f.usage.as_ref().map_or(Ok(()), usage_fits)?;
        let on_two_hots = plate.and_then(|plate| plate.volts).map(|volts| volts > 150.0);
        let on_two_hots = on_two_hots.or_else(|| like.map(|like| like.volts == 240));
        if on_two_hots.is_some_and(|two| two != (point.volts == Volts::new(240))) {
            return refuse(
                RefusalCode::DoesNotFit,
                "point",
                format!("{} does not run at a point of {} V.", f.name.trim(), point.volts.value()),
                "Read the plate again, or correct the volts of the point.",
            );
        }
        for other in f.with.iter().chain(&f.never_with) {
            self.loads.known(other)?;
            if *other == f.load {
                return refuse(RefusalCode::DoesNotFit, "with", "A load is not told about itself.", "Name another load.");
            }
        }
        let is_the_same = |before: &&Load| {
            (&before.point, &before.appliance, before.count, before.draw) == (&f.point, &f.appliance, f.count, f.draw)
        };
        let described = self.loads.loads.get(&f.load).filter(is_the_same).map_or(self.loads.words, |before| before.described);
        self.loads.words += 1;
        let load = Load {
            described,
            id: f.load.clone(),
            point: f.point.clone(),
            name: f.name.trim().to_owned(),
            appliance: f.appliance.clone(),
            count: f.count,
            draw: f.draw,
            continuous: f.continuous,
            fastened: f.fastened,
            usage: f.usage.clone(),
            with: f.with.clone(),
            never_with: f.never_with.clone(),
        };
        self.loads.loads.insert(f.load.clone(), load);
        Ok(())
    }

    pub(in crate::logbook) fn remove_load(&mut self, f: &LoadRemoved) -> Result<(), Refusal> {
        self.loads.known(&f.load)?;
        self.loads.drop_load(&f.load);
        Ok(())
    }

    pub(in crate::logbook) fn take_reading(&mut self, f: &ReadingTaken, entry: &Draft) -> Result<(), Refusal> {
        for load in &f.running {
            self.loads.known(load)?;
        }
        let rating = match &f.target {
            ReadingOf::Load { load } => {
                let point = &self.loads.known(load)?.point;
                let on_two_hots = self.house.point(point).is_some_and(|point| point.volts == Volts::new(240));
                let (amps, most) = (f.value.amps_or_watts().0.unwrap_or(0.0), if on_two_hots { 200.0 } else { 60.0 });
                if amps > most && !f.sure {
                    return refuse(
                        RefusalCode::OutOfRange,
                        "value",
                        format!("{amps} A is hardly what one load takes."),
                        "Read it again: the range of the meter, and that it is amperes and not watts.",
                    );
                }
                None
            }
            ReadingOf::Circuit { breaker, pole } => {
                let breaker = self.panels.known_breaker(breaker)?;
                if !(1..=breaker.poles()).contains(&usize::from(*pole)) {
                    return refuse(
                        RefusalCode::DoesNotFit,
                        "target",
                        format!("Breaker {} has no pole {pole}.", breaker.number()),
                        "Count its poles from the top, from 1.",
                    );
                }
                Some(breaker.amps.value())
            }
        };
        value_fits(&f.value)?;
        let (amps, _) = f.value.amps_or_watts();
        if let (Some(amps), Some(rating)) = (amps, rating)
            && amps > 2.0 * rating
            && !f.sure
        {
            return refuse(
                RefusalCode::OutOfRange,
                "value",
                format!("{amps} A on a breaker of {rating} A is hardly right: it would trip within minutes."),
                "Read it again. If it is so, say that you are sure, and switch loads off.",
            );
        }
        let nth = self.loads.words;
        self.loads.words += 1;
        let reading = Reading {
            nth,
            line: entry.id.clone(),
            of: f.target.clone(),
            with: f.with,
            value: f.value,
            running: f.running.clone(),
            arranged: f.arranged,
            by: entry.by.clone(),
            at: entry.at,
        };
        self.loads.readings.push(reading);
        Ok(())
    }

    pub(in crate::logbook) fn tell_service(&mut self, f: &ServiceTold) -> Result<(), Refusal> {
        short("reason", &f.reason, 0, 200)?;
        let outside = |field: &str, wrong: String, accepted: &str| refuse(RefusalCode::OutOfRange, field, wrong, accepted);
        if let Some(area) = f.area_ft2.filter(|area| !(100..=100_000).contains(area)) {
            return outside("area_ft2", format!("{area} ft² is no dwelling."), "Give 100 to 100 000 square feet.");
        }
        if let Some(count) = f.kitchen_circuits.into_iter().chain(f.laundry_circuits).find(|count| *count > 20) {
            return outside("kitchen_circuits", format!("{count} such circuits are not in a dwelling."), "Give 0 to 20.");
        }
        if let Some(amps) = f.meter_amps.filter(|amps| !(30..=1200).contains(amps)) {
            return outside(
                "meter_amps",
                format!("{amps} A cannot be right for a meter base."),
                "Give 30 to 1200 A, as its label says.",
            );
        }
        let replaces = f.area_ft2.is_some() || f.kitchen_circuits.is_some() || f.laundry_circuits.is_some();
        if replaces && f.reason.trim().is_empty() {
            return refuse(
                RefusalCode::BadText,
                "reason",
                "A figure in place of the plan's or the panel's needs a reason.",
                "Write how it is known, like “measured outside with a tape”.",
            );
        }
        self.loads.service = Some(f.clone());
        Ok(())
    }

    pub(in crate::logbook) fn set_survey(&mut self, f: &SurveySet) -> Result<(), Refusal> {
        if let Some(SurveyWish::Feeder { breaker } | SurveyWish::Add { breaker, .. }) = &f.wish {
            self.panels.known_breaker(breaker)?;
        }
        if let Some(SurveyWish::Add { amps, .. }) = &f.wish
            && !(0.1..=400.0).contains(amps)
        {
            return refuse(RefusalCode::OutOfRange, "wish", "That is nothing to be added.", "Give 0.1 to 400 A.");
        }
        self.loads.survey = f.wish.is_some().then(|| f.clone());
        Ok(())
    }

    pub(in crate::logbook) fn tell_service_figure(&mut self, f: &ServiceFigureTold) -> Result<(), Refusal> {
        let Some(value) = f.value else {
            self.loads.figures.remove(&f.figure);
            if let Some(told) = self.loads.service.as_mut() {
                match f.figure {
                    ServiceFigure::Area => told.area_ft2 = None,
                    ServiceFigure::KitchenCircuits => told.kitchen_circuits = None,
                    ServiceFigure::LaundryCircuits => told.laundry_circuits = None,
                    _ => {}
                }
            }
            return Ok(());
        };
        short("reason", &f.reason, 0, 200)?;
        if f.reason.trim().is_empty() {
            return refuse(
                RefusalCode::BadText,
                "reason",
                "A figure in place of what the facts say needs a reason.",
                "Write how it is known, like “measured outside with a tape”.",
            );
        }
        let (least, most) = f.figure.bounds();
        if !(least..=most).contains(&value) {
            let (words, unit) = (f.figure.words(), f.figure.unit());
            let said = |amount: u32| format!("{amount} {unit}").trim().to_owned();
            let wrong = format!("{} cannot be the {words} of a dwelling.", said(value));
            return Err(Refusal::new(RefusalCode::OutOfRange, "value", wrong, format!("Give {least} to {}.", said(most))));
        }
        self.loads.figures.insert(f.figure, FigureTold { value, reason: f.reason.trim().to_owned() });
        Ok(())
    }

    pub(in crate::logbook) fn see_heat(&mut self, f: &HeatSeen, entry: &Draft) -> Result<(), Refusal> {
        self.panels.known_breaker(&f.breaker)?;
        let Heat { hottest_c, like_c, amps } = f.heat;
        if let Some(degrees) = [hottest_c, like_c].into_iter().find(|degrees| !(-40.0..=600.0).contains(degrees)) {
            return refuse(
                RefusalCode::OutOfRange,
                "heat",
                format!("{degrees} °C cannot be the heat of a breaker."),
                "Give -40 to 600 °C.",
            );
        }
        if hottest_c < like_c {
            return refuse(
                RefusalCode::DoesNotFit,
                "heat",
                "The hottest place is colder than the like one beside it.",
                "Give the hottest place of this breaker, and a like one beside it that carries about as much.",
            );
        }
        if let Some(amps) = amps.filter(|amps| !(0.0..=400.0).contains(amps)) {
            return refuse(
                RefusalCode::OutOfRange,
                "heat",
                format!("{amps} A cannot flow through a household breaker."),
                "Give 0 to 400 A.",
            );
        }
        for load in &f.running {
            self.loads.known(load)?;
        }
        let (running, photo) = (f.running.clone(), f.photo.clone());
        let seen = SeenHeat { heat: f.heat, running, photo, by: entry.by.clone(), at: entry.at };
        self.loads.heat.insert(f.breaker.clone(), seen);
        Ok(())
    }

    pub(in crate::logbook) fn read_breaker_volts(&mut self, f: &BreakerVoltsRead) -> Result<(), Refusal> {
        self.panels.known_breaker(&f.breaker)?;
        let BreakerVolts { bus, output, across, amps } = f.volts;
        if bus.or(output).or(across).is_none() {
            return refuse(RefusalCode::OutOfRange, "volts", "No volts are given.", "Give at least one of the readings.");
        }
        if let Some(volts) = [bus, output, across].into_iter().flatten().find(|volts| !(0.0..=300.0).contains(volts)) {
            return refuse(
                RefusalCode::OutOfRange,
                "volts",
                format!("{volts} V cannot be read at a household breaker."),
                "Give 0 to 300 V.",
            );
        }
        if let Some(amps) = amps.filter(|amps| !(0.0..=400.0).contains(amps)) {
            return refuse(
                RefusalCode::OutOfRange,
                "volts",
                format!("{amps} A cannot flow through a household breaker."),
                "Give 0 to 400 A.",
            );
        }
        self.loads.breaker_volts.insert(f.breaker.clone(), f.volts);
        Ok(())
    }

    pub(in crate::logbook) fn read_usage(&mut self, f: &UsageRead) -> Result<(), Refusal> {
        short("file", &f.file, 0, 200)?;
        let d = &f.demand;
        let no_demand = |field: &str, wrong: String| {
            refuse(RefusalCode::OutOfRange, field, wrong, "Read the utility's file again on the page of usage data.")
        };
        let Some((first, peak_at)) = d.first().zip(d.peak_moment()) else {
            return no_demand("demand.first_day", format!("“{}” or “{}” is no date.", d.first_day, d.peak_at));
        };
        if !(1..=60).contains(&d.minutes) {
            return no_demand("demand.minutes", format!("Intervals of {} minutes show no demand.", d.minutes));
        }
        if !(1..=366).contains(&d.daily.len()) || d.days() == 0 || d.hours.len() != 24 {
            return no_demand("demand.daily", "A demand is of 1 to 366 days with 24 hours.".into());
        }
        let day = usize::try_from((peak_at.date() - first).num_days()).ok().and_then(|day| d.daily.get(day).copied().flatten());
        if d.peak > 288_000 || day != Some(d.peak) || d.daily.iter().flatten().any(|watts| *watts > d.peak) {
            return no_demand("demand.peak", format!("{} W cannot be the highest demand of these days.", d.peak));
        }
        if !(0.0..=10_000_000.0).contains(&d.kwh) {
            return no_demand("demand.kwh", format!("{} kWh cannot be the energy of a year.", d.kwh));
        }
        self.loads.usage = Some(f.clone());
        Ok(())
    }

    /// What was at a point is gone with it.
    pub(super) fn drop_loads_at(&mut self, point: &PointId) {
        let gone: Vec<LoadId> = self.loads.at(point).map(|load| load.id.clone()).collect();
        for load in gone {
            self.loads.drop_load(&load);
        }
    }
}

fn value_fits(value: &ReadValue) -> Result<(), Refusal> {
    let outside = |wrong: String, accepted: &str| refuse(RefusalCode::OutOfRange, "value", wrong, accepted);
    match value {
        ReadValue::Amps { amps } if !(0.0..=1200.0).contains(amps) => {
            outside(format!("{amps} A cannot be read on a household circuit."), "Give 0 to 1200 A.")
        }
        ReadValue::MeterTurns { wh_each, before, after } => {
            let turns = |turns: &crate::model::Turns| {
                (0.0..=100_000.0).contains(&turns.count) && (1.0..=36_000.0).contains(&turns.seconds)
            };
            if !(0.01..=1000.0).contains(wh_each) || !turns(before) || !turns(after) {
                return outside(
                    "This is no count of turns or flashes.".into(),
                    "Give what one is in watt-hours, from the meter's face, and how many came in how many seconds, before and after.",
                );
            }
            watts_fit(value)
        }
        ReadValue::Watts { .. } | ReadValue::MeterKw { .. } => watts_fit(value),
        ReadValue::Amps { .. } => Ok(()),
    }
}

fn watts_fit(value: &ReadValue) -> Result<(), Refusal> {
    let watts = value.amps_or_watts().1.unwrap_or(0.0);
    if (0.0..=MOST_WATTS).contains(&watts) {
        return Ok(());
    }
    let wrong = format!("{} W cannot be what it takes.", watts.round());
    refuse(RefusalCode::OutOfRange, "value", wrong, "After it is switched on the meter shows more than before, by at most 50 kW.")
}
