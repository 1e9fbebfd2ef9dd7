//! Instruments in a made-up house: what each would show now, with the errors that such things have.
//!
//! A reading follows from the recipe and the logbook alone: the same lines give the same readings, so a trace can be
//! played again act by act. Shares of errors are invented, but for a look's 1 in 200 and a tracer's 93 %, which the score
//! has, too.

use std::collections::BTreeSet;

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::draw::MadeHouse;
use super::electric::{Electric, Runs};
use super::mishaps::{Mishaps, mixed};
use crate::logbook::{Home, Instrument, PointPlaced};
use crate::model::{BreakerId, Change, Level, Point, PointId, PointKind, Recipe, State, Volts, Worked};
use crate::search::Feed;

/// How often a look is misread.
const MISREAD: f64 = 0.005;
/// How often a tone is loudest at the right breaker.
const TONE_RIGHT: f64 = 0.93;

/// How loud a tone is at a breaker.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct ToneAt {
    /// Which breaker.
    pub breaker: BreakerId,
    /// `5-7`, `S3`.
    pub number: String,
    /// 1 to 10.
    pub strength: u8,
}

/// What an instrument shows.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Reading {
    /// Which instrument.
    pub instrument: Instrument,
    /// What is seen, as a sentence.
    pub words: String,
    /// The three lamps of a plug-in tester; the second and third glow where it is live and wired right.
    pub lamps: Option<[bool; 3]>,
    /// Whether the lamp or the appliance runs.
    pub runs: Option<bool>,
    /// Volts on a meter.
    pub volts: Option<f64>,
    /// Whether a non-contact tester glows.
    pub glows: Option<bool>,
    /// Amperes on a clamp meter.
    pub amps: Option<f64>,
    /// Where a tone is heard, the loudest first.
    pub tone: Vec<ToneAt>,
    /// What a careful person says before it is used so.
    pub caution: Option<String>,
    /// Points in sight that the list has not got.
    pub noticed: Vec<PointPlaced>,
}

impl Reading {
    pub(super) fn new(instrument: Instrument, words: impl Into<String>) -> Self {
        Self {
            instrument,
            words: words.into(),
            lamps: None,
            runs: None,
            volts: None,
            glows: None,
            amps: None,
            tone: Vec::new(),
            caution: None,
            noticed: Vec::new(),
        }
    }
}

/// The house with everything as it stands by the lines so far.
pub(crate) struct Live<'a> {
    pub(crate) home: &'a Home,
    pub(crate) made: &'a MadeHouse,
    pub(super) mishaps: Mishaps,
    dead: BTreeSet<BreakerId>,
}

impl<'a> Live<'a> {
    pub(crate) fn new(home: &'a Home, made: &'a MadeHouse) -> Self {
        Self::with(home, made, Mishaps::after(home), home.switchings().off())
    }

    fn with(home: &'a Home, made: &'a MadeHouse, mishaps: Mishaps, said_off: &BTreeSet<BreakerId>) -> Self {
        Self { home, made, dead: home.panels().dead_behind(&mishaps.off(said_off)), mishaps }
    }

    fn feed(&self, point: &PointId) -> Feed {
        self.made.wiring.feeds.get(point).cloned().unwrap_or_default()
    }

    fn last_worked(&self, device: &PointId, among: [Worked; 2]) -> Option<Worked> {
        self.home.trace().worked().iter().rev().find(|(d, w)| d == device && among.contains(w)).map(|(_, w)| *w)
    }

    fn is_tripped(&self, device: &PointId) -> bool {
        match self.last_worked(device, [Worked::Tripped, Worked::Reset]) {
            Some(worked) => worked == Worked::Tripped,
            None => self.made.wiring.tripped.contains(device),
        }
    }

    fn is_live(&self, breaker: &BreakerId) -> bool {
        !self.dead.contains(breaker) && !self.mishaps.is_outage() && self.home.panels().breaker(breaker).is_some()
    }

    /// Whether there is power at the point.
    pub(crate) fn has_power(&self, point: &PointId) -> bool {
        let feed = self.feed(point);
        feed.breaker.is_some_and(|b| self.is_live(&b)) && feed.behind.is_none_or(|device| !self.is_tripped(&device))
    }

    /// Whether a lamp or an appliance there can be seen to run.
    fn runs(&self, point: &PointId) -> bool {
        let feed = self.feed(point);
        let done = |what: Worked| self.home.trace().worked().iter().any(|(d, w)| d == point && *w == what);
        self.has_power(point) && (!feed.burnt_out || done(Worked::NewLamp)) && (!feed.switched_off || done(Worked::SwitchedOn))
    }

    /// Chance at this point: another one for every look, the same when it is played again.
    fn chance(&self, instrument: Instrument, place: &str, times: usize) -> Pcg64Mcg {
        let recipe = self.home.practice().map_or(0, |recipe| recipe.seed);
        let mix = mixed(u64::from(recipe), place.bytes().chain([instrument as u8]).chain(times.to_le_bytes()));
        Pcg64Mcg::new(u128::from(mix) << 1 | 1)
    }

    /// What the instrument shows at a point.
    pub(crate) fn at(&self, instrument: Instrument, point: &Point) -> Reading {
        let times = self.home.trace().looks().iter().filter(|look| look.point == point.id).count()
            + self.home.trace().tones().iter().filter(|(p, _)| *p == point.id).count();
        let mut chance = self.chance(instrument, point.id.as_str(), times);
        // Now and then it is held at another one that looks the same.
        let point = self.mishaps.instead_of(self.home, point, times).unwrap_or(point);
        let outlet = point.kind == PointKind::Receptacle;
        let high = point.volts == Volts::new(240);
        let slip = chance.random::<f64>() < MISREAD;
        let power = self.has_power(&point.id);
        // What only lights up where it is let; a meter and a non-contact tester see the voltage behind that.
        let lights_up = power && !self.mishaps.is_dark_by_itself(point);
        let mut reading = match instrument {
            Instrument::PlugInTester | Instrument::Lamp | Instrument::ToneTracer | Instrument::Radio if high => {
                let mut reading = Reading::new(instrument, "Not used: this point has 240 V.");
                reading.caution = Some(
                    "A plug-in tester, a lamp or a tone sender never goes on 240 V. Watch the appliance, or leave it to a meter in \
                     hands that know it."
                        .into(),
                );
                reading
            }
            Instrument::PlugInTester | Instrument::Lamp | Instrument::ToneTracer | Instrument::Radio if !outlet => {
                Reading::new(instrument, "There is nothing here to plug it into.")
            }
            Instrument::PlugInTester => {
                let shown = lights_up != slip;
                let mut reading =
                    Reading::new(instrument, if shown { "Two lamps glow." } else { "No lamp glows. Pushed in all the way?" });
                reading.lamps = Some([false, shown, shown]);
                reading
            }
            Instrument::Lamp => {
                let mut reading =
                    Reading::new(instrument, if lights_up != slip { "The lamp is lit." } else { "The lamp is dark." });
                reading.runs = Some(lights_up != slip);
                reading
            }
            Instrument::Radio => {
                let plays = lights_up != slip;
                let mut reading = Reading::new(instrument, if plays { "The radio plays." } else { "No sound." });
                reading.runs = Some(plays);
                reading
            }
            Instrument::Eye if outlet => {
                Reading::new(instrument, "An outlet shows nothing by itself. Plug a tester or a lamp in.")
            }
            Instrument::Eye => {
                let runs = (self.runs(&point.id) && lights_up) != slip;
                let what = if point.kind == PointKind::Light { "light" } else { point.kind.word() };
                let mut reading =
                    Reading::new(instrument, if runs { format!("The {what} is on.") } else { format!("The {what} is off.") });
                reading.runs = Some(runs);
                reading
            }
            Instrument::Meter => self.volts(point, power, &mut chance),
            Instrument::NonContact => {
                let beside = self.feed(&point.id).beside.is_some_and(|b| self.is_live(&b));
                let glows = if power { chance.random::<f64>() > 0.02 } else { beside };
                let mut reading = Reading::new(
                    instrument,
                    if glows { "It glows: something near is live." } else { "It does not glow. That proves nothing." },
                );
                reading.glows = Some(glows);
                reading.caution = Some("A non-contact tester only warns. Dead is shown by a meter that was tried on something live before and after.".into());
                reading
            }
            Instrument::ToneTracer => self.tone(point, &mut chance),
            Instrument::ClampMeter => {
                Reading::new(instrument, "A clamp goes around one conductor at the panel, by qualified people.")
            }
        };
        let seen = |unlisted: &&PointPlaced| unlisted.room == point.room && self.home.house().point(&unlisted.point).is_none();
        reading.noticed = self.made.unlisted.iter().filter(seen).cloned().collect();
        reading
    }

    /// What a point that is lit does while this breaker is switched off and on again.
    pub(crate) fn watched(&self, point: &Point, breaker: &BreakerId) -> Change {
        let times = self.home.trace().looks().iter().filter(|look| look.point == point.id).count();
        let point = self.mishaps.instead_of(self.home, point, times).unwrap_or(point);
        let mut said_off: BTreeSet<BreakerId> = (**self.home.switchings().off()).clone();
        let lit = |live: &Self| live.runs(&point.id) || point.kind == PointKind::Receptacle && live.has_power(&point.id);
        let (off, on) = {
            let off = self.mishaps.then(self.home, breaker, State::Off);
            let on = off.then(self.home, breaker, State::On);
            said_off.insert(breaker.clone());
            (Self::with(self.home, self.made, off, &said_off), Self::with(self.home, self.made, on, self.home.switchings().off()))
        };
        match (lit(&off), lit(&on)) {
            (true, _) => Change::StayedLit,
            (false, true) => Change::CameBack,
            (false, false) => Change::StayedOut,
        }
    }

    /// How the handles stand, seen from before the panel.
    pub(crate) fn handles(&self) -> Reading {
        let numbers = |breakers: &mut dyn Iterator<Item = &BreakerId>| -> Vec<String> {
            breakers.map(|b| self.home.panels().number(b)).collect()
        };
        let stand = |numbers: &[String]| if numbers.len() == 1 { "stands" } else { "stand" };
        let mut words: Vec<String> = Vec::new();
        for (numbers, how) in [
            (numbers(&mut self.mishaps.tripped.iter()), "between ON and OFF: tripped"),
            (numbers(&mut self.mishaps.still_on.keys()), "at ON"),
            (numbers(&mut self.mishaps.still_on.values().flatten()), "at OFF"),
        ] {
            if !numbers.is_empty() {
                words.push(format!("{} {} {how}.", numbers.join(", "), stand(&numbers)));
            }
        }
        let words = if words.is_empty() {
            "Every handle stands as the logbook says.".to_owned()
        } else {
            words.push("All others stand as the logbook says.".into());
            words.join(" ")
        };
        let mut reading = Reading::new(Instrument::Eye, words);
        if !self.mishaps.tripped.is_empty() {
            reading.caution =
                Some("Say at the breaker, on the screen Panel, that it has tripped; then push it fully off, and on.".into());
        }
        if !self.mishaps.still_on.is_empty() {
            reading.caution =
                Some("Another handle was moved than was said: tell that with “Wrong handle” at its line in the logbook.".into());
        }
        reading
    }

    fn volts(&self, point: &Point, power: bool, chance: &mut Pcg64Mcg) -> Reading {
        if point.kind != PointKind::Receptacle {
            return Reading::new(Instrument::Meter, "No place for the probes without opening it. Look by eye.");
        }
        let ghost = self.feed(&point.id).beside.is_some_and(|b| self.is_live(&b));
        let volts: f64 = match (power, ghost) {
            (true, _) => self.by_network(point).unwrap_or(120.0) * chance.random_range(0.995..1.005),
            (false, true) => chance.random_range(18.0..74.0),
            (false, false) => chance.random_range(0.0..0.6),
        };
        let volts = (volts * 10.0).round() / 10.0;
        let mut reading = Reading::new(Instrument::Meter, format!("{volts:.1} V."));
        reading.volts = Some(volts);
        if (10.0..100.0).contains(&volts) {
            reading.caution = Some(
                "Between 10 and 100 V it is neither lit nor dark: a voltage from a conductor beside it. Load it with a lamp and look again."
                    .into(),
            );
        }
        reading
    }

    fn tone(&self, point: &Point, chance: &mut Pcg64Mcg) -> Reading {
        let mut reading = Reading::new(Instrument::ToneTracer, "No tone anywhere.");
        let Some(own) = self.feed(&point.id).breaker.and_then(|b| self.home.panels().breaker(&b)) else { return reading };
        let beside: Vec<&crate::model::Breaker> = self.home.panels().breakers().filter(|b| own.is_beside(b)).collect();
        let loudest = if chance.random::<f64>() < TONE_RIGHT || beside.is_empty() {
            own
        } else {
            beside[chance.random_range(0..beside.len())]
        };
        let at = |b: &crate::model::Breaker, strength: u8| ToneAt {
            breaker: b.id.clone(),
            number: self.home.panels().number(&b.id),
            strength,
        };
        let mut tone = vec![at(loudest, 10)];
        for b in beside.into_iter().chain([own]).filter(|b| b.id != loudest.id) {
            tone.push(at(b, chance.random_range(5..9)));
        }
        for b in self.home.panels().breakers().filter(|b| b.panel == own.panel) {
            if !tone.iter().any(|t| t.breaker == b.id) {
                tone.push(at(b, chance.random_range(1..4)));
            }
        }
        tone.sort_by_key(|at| std::cmp::Reverse(at.strength));
        reading.words = format!("Loudest at {}.", tone[0].number);
        reading.tone = tone;
        reading
    }

    /// What runs on a breaker now.
    fn running_on(&self, breaker: &BreakerId) -> Vec<Runs> {
        let points = self.home.house().points().filter(|p| self.feed(&p.id).breaker.as_ref() == Some(breaker));
        let running = points.filter(|p| self.runs(&p.id)).map(|point| {
            let volts = f64::from(point.volts.value());
            let watts = self.feed(&point.id).draws * volts;
            Runs {
                name: point.id.to_string(),
                breaker: breaker.clone(),
                point: Some(point.id.clone()),
                watts,
                factor: 1.0,
                volts,
            }
        });
        running.filter(|run| run.watts > 0.0).collect()
    }

    fn electric(&self) -> Electric<'_> {
        let recipe = self.home.practice().unwrap_or(Recipe::to_trace(0, 8, Level::Plain));
        Electric {
            home: self.home,
            wiring: &self.made.wiring,
            recipe,
            shared: &self.made.shared,
            dead: self.dead.clone(),
            fault: None,
        }
    }

    /// Volts at a point that has power, with what runs on its circuit.
    fn by_network(&self, point: &Point) -> Option<f64> {
        let breaker = self.feed(&point.id).breaker?;
        let electric = self.electric();
        let solved = electric.solved(&self.running_on(&breaker), Some(&breaker), &[&point.id])?;
        Some(electric.volts_at(&solved, &point.id))
    }

    /// What a clamp meter shows around the conductor of a breaker, with everything that is connected running.
    pub(crate) fn clamp(&self, breaker: &BreakerId) -> Reading {
        let mut chance = self.chance(Instrument::ClampMeter, breaker.as_str(), self.home.trace().looks().len());
        let solved = self.electric().solved(&self.running_on(breaker), Some(breaker), &[]);
        let carried = solved.map_or(0.0, |solved| solved.amps_of_breaker(breaker, 0));
        let strayed: f64 = chance.random_range(0.0..0.15);
        let amps = ((carried * chance.random_range(0.98..1.02) + strayed) * 100.0).round() / 100.0;
        let mut reading = Reading::new(Instrument::ClampMeter, format!("{amps:.2} A."));
        reading.amps = Some(amps);
        reading.caution =
            Some("Clamping inside a panel is for qualified people: the cover is off and the line-side lugs stay live with the main off.".into());
        reading
    }
}
