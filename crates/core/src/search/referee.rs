//! The referee: knows the wiring, counts the seconds, shows what a look would show, and sees whether anything happens
//! that must not.

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::choose::WATCH_S;
use super::wiring::NumberedWiring;
use super::world;
use super::{Again, Case, Costs, Crew, OffSet, Place, Search, Standing};
use crate::proof::rates::CHANGE_MISREAD;

/// What came of a round.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct Played {
    /// The name of the house; empty for a home.
    pub house: String,
    /// Which seed.
    pub seed: u64,
    /// Minutes until everything is on again.
    pub minutes: f64,
    /// Times the off-set was changed, or a room entered.
    pub acts: usize,
    /// Looks.
    pub looks: usize,
    /// Tones followed.
    pub tones: usize,
    /// Points proven.
    pub proven: usize,
    /// Points proven on another breaker than theirs.
    pub wrong_proofs: usize,
    /// Points known by exclusion.
    pub by_exclusion: usize,
    /// Of them wrong.
    pub wrong_exclusions: usize,
    /// Points neither.
    pub open: usize,
    /// Longest stretch that a clocked point was dark, in minutes.
    pub longest_dark_min: f64,
    /// By how much a clock was overrun at most, in minutes.
    pub clock_overrun_min: f64,
    /// How often a breaker that must stay on was off.
    pub must_stay_on_violations: usize,
    /// Milliseconds of every decision, where a clock was passed in.
    #[serde(skip)]
    pub decisions_ms: Vec<f64>,
}

/// A wiring with a crew that does not know it.
pub(crate) struct Table<'a> {
    wiring: &'a NumberedWiring,
    pub(crate) search: Search<'a>,
    costs: Costs,
    crew: Crew,
    rng: Pcg64Mcg,
    house: world::Standing,
    /// The point that is really looked at where another is meant, while the walker stays there.
    mistaken: Option<(usize, usize)>,
    at: Place,
    acts: usize,
    pub(crate) looks: usize,
    tones: usize,
    now_s: f64,
    dark_from: Vec<Option<f64>>,
    longest_s: f64,
    overrun_s: f64,
    violations: usize,
    pub(crate) decisions_ms: Vec<f64>,
}

impl<'a> Table<'a> {
    pub(crate) fn new(
        case: &'a Case,
        wiring: &'a NumberedWiring,
        crew: Crew,
        costs: Costs,
        (house, rng): (world::Standing, Pcg64Mcg),
    ) -> Self {
        let mut search = Search::new(case, crew, costs);
        for (p, _) in wiring.feeds.iter().filter(|(_, feed)| feed.burnt_out) {
            search.is_burnt_out(*p);
        }
        Self {
            wiring,
            search,
            costs,
            crew,
            rng,
            house,
            mistaken: None,
            at: Place::Panel,
            acts: 0,
            looks: 0,
            tones: 0,
            now_s: 0.0,
            dark_from: vec![None; case.points.len()],
            longest_s: 0.0,
            overrun_s: 0.0,
            violations: 0,
            decisions_ms: Vec::new(),
        }
    }

    /// The breaker that feeds a point.
    pub(crate) fn breaker(&self, point: usize) -> Option<usize> {
        self.wiring.breaker(&point).copied()
    }

    fn is_off(&self, off: OffSet, point: usize) -> bool {
        self.breaker(point).is_none_or(|b| self.house.is_without_power(off, b))
    }

    fn passes(&mut self, seconds: f64) {
        self.now_s += seconds;
        self.search.passed(seconds);
    }

    pub(crate) fn off(&self) -> OffSet {
        self.search.off()
    }

    /// Just these are off from now on.
    pub(crate) fn switch(&mut self, off: OffSet) {
        let changed = self.off().differs(off);
        if changed.is_empty() {
            return;
        }
        self.acts += 1;
        if self.crew.alone {
            self.go(Place::Panel);
        } else {
            self.passes(self.costs.exchange_s);
        }
        self.passes(self.costs.flip_s * changed.len() as f64);
        self.flip(changed, off);
        self.search.switched(off);
        self.violations += self.search.case.stay_on.iter().filter(|b| off.has(*b)).count();
        for (p, point) in self.search.case.points.iter().enumerate() {
            let Some(most_s) = point.max_dark_s else { continue };
            match (self.is_off(off, p), self.dark_from[p]) {
                (true, None) => self.dark_from[p] = Some(self.now_s),
                (false, Some(from)) => {
                    let dark = self.now_s - from;
                    self.longest_s = self.longest_s.max(dark);
                    self.overrun_s = self.overrun_s.max(dark - most_s);
                    self.dark_from[p] = None;
                }
                _ => {}
            }
        }
    }

    /// Handles move, one after the other; what is found out of place at that is put right and told.
    fn flip(&mut self, changed: OffSet, off: OffSet) {
        for breaker in changed.iter() {
            let found = self.house.moved(self.search.case, breaker, off.has(breaker), &mut self.rng);
            for (other, what) in found {
                self.search.found(other, what);
            }
        }
    }

    /// A breaker is pushed fully off and on again.
    pub(crate) fn cycle(&mut self, breaker: usize) {
        self.acts += 1;
        if self.crew.alone {
            self.go(Place::Panel);
        } else {
            self.passes(self.costs.exchange_s);
        }
        self.passes(2.0 * self.costs.flip_s);
        let one = OffSet::one(breaker);
        self.flip(one, self.off().with(breaker));
        self.flip(one, self.off().without(breaker));
        self.search.cycled(breaker);
    }

    /// The walker watches a point while a breaker is switched off and on again, unless it is dark already.
    pub(crate) fn watch(&mut self, breaker: usize, point: usize) {
        self.acts += 1;
        self.go(Place::Room(self.search.case.points[point].room));
        self.passes(self.first_s(point));
        self.looks += 1;
        let dark = self.shows_dark(point);
        self.search.saw(point, dark);
        if dark || self.search.standing(point) != Standing::Open {
            return;
        }
        let off = self.off();
        // Whoever waits for a change hardly takes another one for it; that nothing changed is as easily misread as any look.
        let went_out = self.shows_changed(point, breaker, off.with(breaker), CHANGE_MISREAD);
        let still_out = self.shows_changed(point, breaker, off, self.costs.misread);
        self.search.watched(point, breaker, went_out, !still_out);
    }

    /// Whether the point is seen dark just after the breaker was moved. `slip`: how often it is taken to be dark and is not.
    fn shows_changed(&mut self, point: usize, breaker: usize, off: OffSet, slip: f64) -> bool {
        self.passes(self.costs.exchange_s + self.costs.flip_s);
        self.flip(OffSet::one(breaker), off);
        self.passes(WATCH_S / 2.0);
        self.looks += 1;
        let dark = self.is_dark(self.really(point), off);
        let slip = if dark { self.costs.misread } else { slip.min(self.costs.misread) };
        dark != (self.rng.random::<f64>() < slip)
    }

    /// The walker goes there.
    pub(crate) fn go(&mut self, to: Place) {
        if self.at != to {
            let seconds = self.search.walk_s(self.at, to);
            self.passes(seconds);
            self.at = to;
            self.mistaken = None;
            self.search.went(to);
        }
    }

    pub(crate) fn place(&self) -> Place {
        self.at
    }

    /// The walker looks at a point of the room, once more at once where a proof asks for it.
    pub(crate) fn look(&mut self, point: usize) -> bool {
        self.see(point, self.first_s(point), self.search.again_s(point))
    }

    fn see(&mut self, point: usize, first_s: f64, again_s: f64) -> bool {
        let (mut first, mut seconds) = (None, first_s);
        loop {
            self.passes(seconds);
            self.looks += 1;
            let dark = self.shows_dark(point);
            first.get_or_insert(dark);
            seconds = match self.search.saw(point, dark) {
                None => return first.unwrap_or(false),
                Some(Again::InPlace) => again_s,
                Some(Again::Anew) => {
                    self.search.steps_back(point);
                    self.mistaken = None;
                    self.costs.plug_s
                }
            };
        }
    }

    fn first_s(&self, point: usize) -> f64 {
        if self.search.is_in_place(point) { self.search.again_s(point) } else { self.search.look_s(point) }
    }

    /// What the walker sees.
    fn shows_dark(&mut self, point: usize) -> bool {
        let case = self.search.case;
        self.house.until(self.now_s, case.points.len(), &mut self.rng);
        if !self.search.is_in_place(point) {
            self.mistaken = self.house.mistaken(case, point, &mut self.rng).map(|other| (point, other));
        }
        self.is_dark(self.really(point), self.off()) != (self.rng.random::<f64>() < self.costs.misread)
    }

    /// The point that is looked at where this one is meant.
    fn really(&self, point: usize) -> usize {
        self.mistaken.filter(|(meant, _)| *meant == point).map_or(point, |(_, other)| other)
    }

    /// Whether a point is dark with these said to be off.
    fn is_dark(&mut self, point: usize, off: OffSet) -> bool {
        self.house.until(self.now_s, self.search.case.points.len(), &mut self.rng);
        let own = self.house.own(point, self.now_s, &mut self.rng);
        self.is_off(off, point) || own == Some(false) && !self.search.by_volts(point)
    }

    /// The tone sender is plugged in at the point, the panel swept twice.
    pub(crate) fn tone(&mut self, point: usize) {
        self.acts += 1;
        self.tones += 1;
        if let Some(room) = self.search.sender {
            self.go(Place::Room(room));
        }
        let room = self.search.case.points[point].room;
        self.go(Place::Room(room));
        self.passes(self.costs.tone_place_s);
        self.go(Place::Panel);
        self.passes(self.costs.tone_s(self.search.case.breakers()));
        let Some(truth) = self.breaker(point) else { return };
        let beside = &self.search.case.beside[truth];
        let heard = if self.rng.random::<f64>() < self.costs.tone_right || beside.is_empty() {
            truth
        } else {
            beside[self.rng.random_range(0..beside.len())]
        };
        self.search.heard(point, heard);
    }

    /// A tone sender may be plugged in there: never at 240 V.
    pub(crate) fn takes_tone(&self, point: usize) -> bool {
        let p = &self.search.case.points[point];
        p.class == super::PointClass::Receptacle && !p.high
    }

    /// A room is entered with just these off.
    pub(crate) fn enter(&mut self, off: OffSet, room: usize, points: usize) {
        self.set(off, points as f64 * 30.0 + self.search.walk_s(self.at, Place::Room(room)) + 120.0);
        self.acts += usize::from(self.at != Place::Room(room));
        self.go(Place::Room(room));
    }

    /// A radio is plugged in at the point, to be heard at the panel.
    pub(crate) fn place_radio(&mut self, point: usize) {
        self.acts += 1;
        self.go(Place::Room(self.search.case.points[point].room));
        self.passes(self.costs.plug_s);
    }

    /// From the panel: whether the radio at the point is silent with just this breaker off.
    pub(crate) fn hear(&mut self, off: OffSet, point: usize) -> bool {
        self.set(off, 150.0);
        self.go(Place::Panel);
        self.see(point, self.costs.glance_s, self.costs.glance_s)
    }

    /// Just these are off for so many seconds; a breaker whose clock would run out is switched on for a moment first.
    fn set(&mut self, off: OffSet, needs: f64) {
        let running: OffSet = self.off().iter().filter(|b| off.has(*b) && !self.search.clock_allows(*b, needs)).collect();
        if !running.is_empty() {
            self.switch(self.off().iter().filter(|b| !running.has(*b)).collect());
        }
        self.switch(off);
    }

    pub(crate) fn by_ear(&self) -> bool {
        self.crew.alone && self.crew.radio
    }

    pub(crate) fn crew_is_alone(&self) -> bool {
        self.crew.alone
    }

    /// A look that only proves what is known already.
    pub(crate) fn look_once(&mut self, point: usize, breaker: usize) {
        let seconds = self.search.look_s(point);
        self.passes(seconds);
        self.looks += 1;
        self.search.prove(point, breaker);
    }

    /// Everything is switched on again; what came of it.
    pub(crate) fn end(mut self, seed: u64) -> Played {
        self.switch(OffSet::NONE);
        let (mut proven, mut wrong, mut excluded, mut wrong_exclusions, mut open) = (0, 0, 0, 0, 0);
        for p in 0..self.search.case.points.len() {
            match self.search.standing(p) {
                Standing::Proven(b) => {
                    proven += 1;
                    wrong += usize::from(Some(b) != self.breaker(p));
                }
                Standing::ByExclusion => {
                    excluded += 1;
                    wrong_exclusions += usize::from(!self.breaker(p).is_some_and(|b| self.search.case.stay_on.has(b)));
                }
                Standing::Open => open += 1,
            }
        }
        Played {
            house: String::new(),
            seed,
            minutes: self.now_s / 60.0,
            acts: self.acts,
            looks: self.looks,
            tones: self.tones,
            proven,
            wrong_proofs: wrong,
            by_exclusion: excluded,
            wrong_exclusions,
            open,
            longest_dark_min: self.longest_s / 60.0,
            clock_overrun_min: self.overrun_s.max(0.0) / 60.0,
            must_stay_on_violations: self.violations,
            decisions_ms: self.decisions_ms,
        }
    }
}
