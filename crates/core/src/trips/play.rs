//! A fault is looked for in a made-up house, and marked.

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;

use super::case::TripCase;
use super::cause::{Cause, Family, Key};
use super::checklist::checklist;
use super::file::{Answered, FaultCase, FaultGame, PowerBox};
use super::look::{Look, Saw};
use super::planner::{Named, Next, Search};

/// How it is looked for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum FaultStrategy {
    /// The look that tells most for its time.
    Planner,
    /// What an experienced person goes through, always in the same order.
    Checklist,
    /// Any look that is worth it.
    Random,
    /// The look that tells most for its time, knowing what each will show.
    Oracle,
}

/// One step.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct FaultStep {
    /// What was done, as in the files.
    #[serde(rename = "do")]
    pub look: String,
    /// What it showed.
    pub saw: String,
    /// When it was seen: seconds from the start.
    pub at_s: f64,
}

/// What became of it.
#[derive(Debug, Clone, PartialEq, serde::Serialize)]
pub struct FaultPlayed {
    /// The fault.
    pub id: String,
    /// `named` or `stop`.
    pub verdict: &'static str,
    /// The cause that was named.
    pub cause: Option<Cause>,
    /// Its breaker.
    pub breaker: Option<usize>,
    /// Its place.
    pub place: Option<usize>,
    /// The boxes to open, the likeliest first; `-1` is the panel.
    pub boxes: Vec<i64>,
    /// How likely it was held to be.
    pub p: f64,
    /// What it took.
    pub minutes: f64,
    /// How many looks.
    pub acts: usize,
    /// How many resets.
    pub resets: usize,
    /// How many presses of GFCIs and acts at switches.
    pub presses: usize,
    /// Every step.
    pub steps: Vec<FaultStep>,
    /// It was that.
    pub right: bool,
    /// An emergency was not found.
    pub missed: bool,
}

/// All of them together.
#[derive(Debug, Clone, PartialEq, Default, serde::Serialize)]
pub struct FaultSummary {
    /// How many.
    pub cases: usize,
    /// Mean minutes.
    pub minutes_mean: f64,
    /// Minutes that nine in ten stay below.
    pub minutes_p90: f64,
    /// Mean looks.
    pub looks_mean: f64,
    /// How many were right.
    pub right: usize,
    /// How many were wrong and held to be sure: 0.8 or more.
    pub wrong_and_sure: usize,
    /// Emergencies that were not found.
    pub missed_emergencies: usize,
    /// Mean resets.
    pub resets_mean: f64,
    /// A decision in milliseconds that 99 of 100 stay below.
    pub decision_ms_p99: f64,
}

/// Plays one. `clock_ms` gives milliseconds from any start; it measures decisions and changes nothing.
pub fn play_fault(
    game: &FaultGame,
    strategy: FaultStrategy,
    clock_ms: &mut dyn FnMut() -> f64,
    decisions: &mut Vec<f64>,
) -> FaultPlayed {
    let case = &game.case;
    let mut table = Table { case, fault: &game.fault, seconds: 0.0, steps: Vec::new(), changed: Vec::new() };
    if strategy == FaultStrategy::Checklist {
        let (verdict, named) = checklist(case, &mut |look, seconds| table.ask(look, seconds));
        return table.marked(verdict, named);
    }
    let begun = clock_ms();
    let mut search = Search::new(case);
    let mut rng = Pcg64Mcg::seed_from_u64(case.seed ^ 7);
    let mut thought = clock_ms() - begun;
    loop {
        let begun = clock_ms();
        let next = match strategy {
            FaultStrategy::Random => {
                search.next_by(&mut |looks| (!looks.is_empty()).then(|| looks[rng.random_range(0..looks.len())].0))
            }
            FaultStrategy::Oracle => search.next_by(&mut |looks| {
                let mut best: Option<(Look, f64)> = None;
                for (look, _, seconds) in looks {
                    let mut after = search.clone();
                    after.see(*look, table.answer(*look));
                    let gain = (truth(&after, &game.fault).ln() - truth(&search, &game.fault).ln()) / seconds;
                    if gain > 0.0 && best.is_none_or(|(_, g)| gain > g) {
                        best = Some((*look, gain));
                    }
                }
                best.map(|(look, _)| look)
            }),
            _ => search.next(),
        };
        thought += clock_ms() - begun;
        decisions.push(thought);
        match next {
            Next::Look(look) => {
                let saw = table.ask(look, search.seconds(look));
                let begun = clock_ms();
                search.see(look, saw);
                thought = clock_ms() - begun;
            }
            Next::Name(named) => return table.marked("named", Some(named)),
            Next::Stop => return table.marked("stop", None),
        }
    }
}

/// How likely the truth is held to be.
fn truth(search: &Search<'_>, fault: &FaultCase) -> f64 {
    let hidden = &fault.hidden;
    search.belief.sum(|k| k.cause == hidden.cause && (k.place.is_none() || k.place == hidden.place())).max(1e-6)
}

struct Table<'a> {
    case: &'a TripCase,
    fault: &'a FaultCase,
    seconds: f64,
    steps: Vec<FaultStep>,
    changed: Vec<(String, String)>,
}

impl Table<'_> {
    /// What a look shows.
    fn answer(&self, look: Look) -> Saw {
        if let Some(danger) = &self.fault.hidden.danger {
            let asked = look == Look::Safety && danger.told;
            let there = look.rooms(self.case).contains(&Some(danger.room)) && danger.seen;
            if asked || there {
                return Saw::Danger;
            }
        }
        let (kind, number) = look.kind();
        if look == Look::Safety {
            return match self.fault.answers.get("brightness") {
                Some(Answered::One(word)) => Saw::read(look, word).unwrap_or(Saw::CannotTell),
                _ => Saw::CannotTell,
            };
        }
        let name = look.to_string();
        if let Some((_, word)) = self.changed.iter().rev().find(|(what, _)| *what == name) {
            return Saw::read(look, word).unwrap_or(Saw::CannotTell);
        }
        let word = match (self.fault.answers.get(kind), number) {
            (Some(Answered::Each(each)), Some(number)) => each.get(&number.to_string()),
            (Some(Answered::One(word)), None) => Some(word),
            _ => None,
        };
        word.and_then(|word| Saw::read(look, word)).unwrap_or(Saw::CannotTell)
    }

    fn ask(&mut self, look: Look, seconds: f64) -> Saw {
        let saw = self.answer(look);
        // A sign of danger is told at once, before anything else is asked.
        self.seconds += if saw == Saw::Danger && look == Look::Safety { 20.0 } else { seconds };
        self.steps.push(FaultStep { look: look.to_string(), saw: saw.to_string(), at_s: self.seconds });
        if let Some(after) = self.fault.after.get(&look.to_string()) {
            self.changed.extend(after.iter().map(|(what, word)| (what.clone(), word.clone())));
        }
        saw
    }

    fn marked(self, verdict: &'static str, named: Option<Named>) -> FaultPlayed {
        let hidden = &self.fault.hidden;
        let right = match &named {
            None => hidden.emergency,
            Some(named) => !hidden.emergency && is_it(named, self.fault),
        };
        let count = |is: fn(&str) -> bool| self.steps.iter().filter(|s| is(&s.look)).count();
        let number = |place: &PowerBox| match place {
            PowerBox::Panel => -1,
            PowerBox::Point(point) => i64::try_from(*point).unwrap_or(i64::MAX),
        };
        FaultPlayed {
            id: self.fault.id.clone(),
            verdict,
            cause: named.as_ref().map(|n| n.key.cause),
            breaker: named.as_ref().and_then(|n| n.key.breaker),
            place: named.as_ref().and_then(|n| n.key.place),
            boxes: named.iter().flat_map(|n| &n.boxes).map(number).collect(),
            p: named.as_ref().map_or(1.0, |n| n.p),
            minutes: self.seconds / 60.0,
            acts: self.steps.len(),
            resets: count(|s| s.starts_with("reset:")),
            presses: count(|s| s.starts_with("gfci:")),
            missed: hidden.emergency && named.is_some(),
            right,
            steps: self.steps,
        }
    }
}

/// What was named is what is the matter.
fn is_it(named: &Named, fault: &FaultCase) -> bool {
    let hidden = &fault.hidden;
    let Key { cause, breaker, place } = named.key;
    let gfci = |c: Cause| matches!(c, Cause::GfciTripped | Cause::GfciDead);
    if gfci(cause) && gfci(hidden.cause) && place == hidden.place() {
        return true;
    }
    if cause.family() != Family::Itself && cause.family() == hidden.cause.family() {
        return hidden.bad_box().is_some_and(|b| named.boxes.contains(&b));
    }
    let same_breaker = breaker.is_some() && breaker == hidden.breaker();
    let same_place = place.is_some() && place == hidden.place();
    let everywhere = breaker.is_none() && place.is_none();
    cause == hidden.cause && (same_breaker || same_place || everywhere)
}

/// Adds them up.
pub fn summary(played: &[FaultPlayed], decisions: &mut [f64]) -> FaultSummary {
    let n = played.len().max(1) as f64;
    let mut minutes: Vec<f64> = played.iter().map(|p| p.minutes).collect();
    let below = |of: &mut [f64], share: f64| {
        of.sort_by(f64::total_cmp);
        let at = ((of.len() as f64 * share).ceil() as usize).clamp(1, of.len().max(1)) - 1;
        of.get(at).copied().unwrap_or(0.0)
    };
    FaultSummary {
        cases: played.len(),
        minutes_mean: minutes.iter().sum::<f64>() / n,
        minutes_p90: below(&mut minutes, 0.9),
        looks_mean: played.iter().map(|p| p.acts as f64).sum::<f64>() / n,
        right: played.iter().filter(|p| p.right).count(),
        wrong_and_sure: played.iter().filter(|p| !p.right && p.p >= 0.8).count(),
        missed_emergencies: played.iter().filter(|p| p.missed).count(),
        resets_mean: played.iter().map(|p| p.resets as f64).sum::<f64>() / n,
        decision_ms_p99: below(decisions, 0.99),
    }
}
