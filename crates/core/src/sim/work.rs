//! The lesson “work”: a made-up panel with a wish. What a meter shows and an eye sees on its job sheet, and how good the way and the
//! steps are.
//!
//! In: a home that was drawn for it, and its job. Out: the reading of the step that is next; the marks. What is wrong in the panel, and how
//! often, is invented for practice, no source.

use serde::Serialize;

use super::measure::MeasureHouse;
use super::mishaps::chance;
use crate::logbook::{BreakerPlaced, Fact, Home, JobBegun, KnownJob, Logbook, PanelDescribed};
use crate::model::{
    Amps, Cable, Job, JobAnswer, JobId, Lesson, Level, Metal, Moment, Panel, Recipe, Refusal, RefusalCode, Tandems, Terminal,
    Terminals, Wire, WireGauge,
};
use crate::study::Study;
use crate::work::{JobAsk, JobReading, JobSheet, JobStands, WayLine, WorkView, job_sheet, read_wish, work_view};

/// Steps of the search for each kind of way: a fifth of a second.
const STEPS: u64 = 60_000;

/// What is wished for, in turn until one of them has a sheet.
const WISHES: [&str; 5] = [
    "20 A circuit for the freezer that takes 6 A",
    "two free spaces side by side",
    "30 A two-pole for the kiln that takes 18 A",
    "15 A circuit for the hall lights that takes 2 A",
    "combine two light circuits",
];

/// A made-up panel, traced and read, with a wish.
#[derive(Debug)]
pub struct WorkHouse {
    /// What is recorded of it.
    pub facts: Vec<Fact>,
    /// What is wished for.
    pub wish: String,
    /// The home of these facts.
    home: Study,
    /// The ways to the wish.
    ways: WorkView,
}

impl WorkHouse {
    /// Draws it.
    ///
    /// # Errors
    /// No job sheet can be made in it: another house number is to be taken.
    pub fn draw(recipe: Recipe) -> Result<Self, Refusal> {
        let mut facts = MeasureHouse::draw(recipe)?.facts;
        let mut home = Home::default();
        facts.iter().try_for_each(|fact| home.suppose(fact))?;
        for fact in read_labels(recipe, &home) {
            home.suppose(&fact)?;
            facts.push(fact);
        }
        let home = Study::of(home);
        let first = (chance(recipe, "wish", "", 0) * WISHES.len() as f64) as usize;
        let in_turn = (0..WISHES.len()).map(|n| WISHES[(first + n) % WISHES.len()].to_owned());
        // A breaker can always be replaced by one of its kind.
        let free = home.panels().breakers().find(|breaker| breaker.kept.is_none());
        let replaced = free.map(|breaker| format!("replace {}", breaker.number()));
        let has_sheet = |wish: String| {
            let ways = view_of(&home, &wish)?;
            ways.ways.iter().any(|way| way.job.is_some()).then_some((wish, ways))
        };
        let none = || Refusal::new(RefusalCode::NotYet, "seed", "No work is found in this panel.", "Take another house number.");
        let (wish, ways) = in_turn.chain(replaced).find_map(has_sheet).ok_or_else(none)?;
        Ok(Self { facts, wish, home, ways })
    }
}

/// What the label of the first panel says, and the wires on its breakers.
fn read_labels(recipe: Recipe, home: &Home) -> Vec<Fact> {
    let Some(panel) = home.panels().all().next() else { return Vec::new() };
    let mut described = PanelDescribed::from(panel);
    let main = if panel.main.is_some_and(|main| main.value() >= 60.0) { panel.main } else { Some(Amps::new(150.0)) };
    described.main = main;
    described.details.bus = main;
    let poles: usize = home.panels().breakers_of(&panel.id).map(crate::model::Breaker::poles).sum();
    let listed = panel.every_space().len().max(poles) + 4;
    described.details.circuits = u8::try_from(listed).ok();
    described.details.tandems = if chance(recipe, "tandems", "", 0) < 0.5 { Tandems::All } else { Tandems::None };
    let gauge = |amps: f64| match amps {
        ..=15.0 => WireGauge::Awg14,
        ..=20.0 => WireGauge::Awg12,
        ..=30.0 => WireGauge::Awg10,
        ..=40.0 => WireGauge::Awg8,
        ..=55.0 => WireGauge::Awg6,
        _ => WireGauge::Awg4,
    };
    let wired = home.panels().breakers_of(&panel.id).map(|breaker| {
        let mut placed = BreakerPlaced::from(breaker);
        let gauge = gauge(breaker.amps.value());
        placed.wire = Some(Wire { gauge, metal: Metal::Copper, terminals: Terminals::Unread, cable: Cable::Nm });
        placed.details.terminal = Terminal { under: Some(1), listed: Some(1), alike: None, torque_inlb: None };
        placed.into()
    });
    std::iter::once(described.into()).chain(wired).collect()
}

fn view_of(home: &Study, wish: &str) -> Option<WorkView> {
    let panel: &Panel = home.panels().all().next()?;
    let wish = read_wish(home, panel, wish).ok()?;
    work_view(home, panel, &wish, &[], STEPS).ok()
}

/// What is wrong in the panel and nobody knows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Wrong {
    /// A wire that is fed from elsewhere: its breaker is off, and it is live.
    Live,
    /// A wire that shows something between dead and live.
    Wanders,
    /// Burn marks at a breaker.
    Burnt,
    /// Old wire on a breaker.
    Old,
}

impl Wrong {
    fn of(recipe: Recipe) -> Option<Self> {
        let drawn = chance(recipe, "wrong in the panel", "", 0);
        match (recipe.level, (drawn * 10.0) as u8) {
            (Level::Plain, _) | (Level::Usual, 0..=4) => None,
            (Level::Usual, 5 | 6) | (Level::Tricky, 0..=3) => Some(Self::Live),
            (Level::Usual, 7 | 8) | (Level::Tricky, 4..=7) => Some(Self::Wanders),
            (Level::Usual, _) => Some(Self::Old),
            (Level::Tricky, _) => Some(Self::Burnt),
        }
    }

    const fn words(self) -> &'static str {
        match self {
            Self::Live => "A wire was fed from elsewhere and stayed live with its breaker off.",
            Self::Wanders => "A wire was neither dead nor live.",
            Self::Burnt => "There were burn marks at a breaker.",
            Self::Old => "There was brittle wire on a breaker.",
        }
    }
}

/// What is read or seen at the step that is next.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct JobShows {
    /// In words: `121.4 V`, `Copper, clean and dry.`
    pub words: String,
    /// The reading.
    pub value: Option<f64>,
}

/// What the step that is next shows in a made-up panel; `None` where there is nothing to be read or seen, or no such job.
pub fn job_shows(home: &Study, job: &JobId, now: Moment) -> Option<JobShows> {
    let recipe = home.practice().filter(|recipe| recipe.lesson == Lesson::Work)?;
    let sheet = job_sheet(home, job, now)?;
    let step = sheet.steps.get(sheet.next?)?;
    match &step.ask {
        JobAsk::Tick { .. } => None,
        JobAsk::Choice { .. } => Some(JobShows { words: seen(recipe, &step.step), value: None }),
        JobAsk::Readings { readings, .. } => {
            let next = readings.iter().find(|one| one.value.is_none())?;
            let value = read(recipe, &sheet, &step.step, next);
            Some(JobShows { words: format!("{value} {}", next.unit), value: Some(value) })
        }
    }
}

/// What an eye sees.
fn seen(recipe: Recipe, step: &str) -> String {
    if step != "look" {
        return "Nothing is wrong with it.".into();
    }
    match Wrong::of(recipe) {
        Some(Wrong::Burnt) => "The plastic of one breaker is brown at its clip, and it smells burnt.".into(),
        Some(Wrong::Old) => "On one breaker the wire is in cloth; it crumbles where it is bent.".into(),
        _ => "Copper, clean and dry.".into(),
    }
}

/// Where what is wrong with a wire shows: the first step that reads wires themselves, or the bus where there is none.
fn shows_at(sheet: &JobSheet) -> Option<&str> {
    let wires = sheet.steps.iter().find(|step| step.step.starts_with("wire-"));
    wires.or_else(|| sheet.steps.iter().find(|step| step.step == "dead")).map(|step| step.step.as_str())
}

/// What a meter or a torque driver shows.
fn read(recipe: Recipe, sheet: &JobSheet, step: &str, reading: &JobReading) -> f64 {
    let drawn = chance(recipe, step, &reading.reading, 0);
    let between = |low: f64, high: f64| ((low + drawn * (high - low)) * 10.0).round() / 10.0;
    let is_dead = matches!(reading.expect.as_str(), "about 0" | "under 2");
    // Neutral to ground shows nothing.
    let of_a_hot = reading.reading != "neutral-ground";
    if is_dead && of_a_hot && shows_at(sheet) == Some(step) {
        match Wrong::of(recipe) {
            Some(Wrong::Live) => return between(118.0, 123.0),
            Some(Wrong::Wanders) => return between(24.0, 61.0),
            _ => {}
        }
    }
    match reading.expect.as_str() {
        _ if is_dead => between(0.0, 0.6),
        "about 240" => between(236.0, 244.0),
        "about 208" => between(205.0, 210.0),
        "as its label says" => [20.0, 25.0, 36.0][(drawn * 3.0) as usize % 3],
        _ => between(118.0, 123.0),
    }
}

/// A way, as it is marked.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct MarkedWay {
    /// `Moving breakers`.
    pub name: String,
    /// What it counts, in hundredths of a point.
    pub cost: i64,
    /// Minutes, by the usual figures.
    pub minutes: i64,
}

impl MarkedWay {
    fn of(line: &WayLine) -> Option<Self> {
        Some(Self { name: line.name.into(), cost: line.cost?, minutes: line.minutes? })
    }
}

/// How good the way and the steps were.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct WorkMarks {
    /// What is wished for.
    pub wish: String,
    /// The panel.
    pub panel: crate::model::PanelId,
    /// The best of all ways.
    pub best: Option<MarkedWay>,
    /// The way that was taken; `null` before there is a job, or where it is none of those that were found.
    pub taken: Option<MarkedWay>,
    /// Whether there is a job of another kind, or of moves of its own.
    pub own_way: bool,
    /// The job, once there is one.
    pub job: Option<JobId>,
    /// `open`, `stopped`, …
    pub stands: Option<JobStands>,
    /// Steps answered.
    pub answered: usize,
    /// How many steps its sheet has.
    pub steps: usize,
    /// What must not happen and did.
    pub safety: Vec<String>,
    /// Something was wrong in the panel: whether the job ended there. `null` where nothing was, or it is not over.
    pub stopped_rightly: Option<bool>,
    /// What was wrong, where it was asked for.
    pub wrong: Option<String>,
}

/// The marks; `None` where the home was not drawn for this lesson. `reveal` shows what is wrong in the panel.
pub fn work_marks(book: &Logbook, home: &Study, now: Moment, reveal: bool) -> Option<WorkMarks> {
    let recipe = home.practice().filter(|recipe| recipe.lesson == Lesson::Work)?;
    let house = WorkHouse::draw(recipe).ok()?;
    let panel = house.home.panels().all().next()?.id.clone();
    let open_to_all = house.ways.ways.iter().filter(|way| way.job.is_some() || !way.opens_panel && way.cost.is_some());
    let best = open_to_all.min_by_key(|way| way.cost).and_then(MarkedWay::of);
    let mut marks = WorkMarks {
        wish: house.wish.clone(),
        panel,
        best,
        taken: None,
        own_way: false,
        job: None,
        stands: None,
        answered: 0,
        steps: 0,
        safety: Vec::new(),
        stopped_rightly: None,
        wrong: None,
    };
    let wrong = Wrong::of(recipe);
    if reveal {
        marks.wrong = Some(wrong.map_or("Nothing was wrong in this panel.", Wrong::words).into());
    }
    let Some(known) = home.jobs().all().rfind(|job| matches!(job.work, Job::Panel { .. })) else { return Some(marks) };
    let same_as_taken = |way: &&WayLine| way.job.as_ref().is_some_and(|job| same(job, &known.work));
    marks.taken = house.ways.ways.iter().find(same_as_taken).and_then(MarkedWay::of);
    marks.own_way = marks.taken.is_none();
    marks.job = Some(known.id.clone());
    let stands = job_sheet(home, &known.id, now)?.stands;
    marks.stands = Some(stands);
    marks.answered = known.steps.len();
    let (stopped, ended) = (stands == JobStands::Stopped || known.stopped.is_some(), known.ended.is_some());
    if wrong.is_some() && (stopped || ended) {
        marks.stopped_rightly = Some(stopped);
    }
    if let Some(wrong) = wrong.filter(|_| ended) {
        marks.safety.push(format!("The job went on to its end. {} That is where somebody is hurt.", wrong.words()));
    }
    // Once a job is done the record is another: its steps are those of the panel as it was drawn.
    if let Some(sheet) = as_begun(&house.home, known) {
        marks.steps = sheet.steps.len();
        marks.safety.extend(wrongly_written(book, recipe, known, &sheet));
    }
    Some(marks)
}

/// Whether two jobs do the same; the ids of new breakers apart.
fn same(one: &Job, other: &Job) -> bool {
    let plain = |job: &Job| {
        let mut value = serde_json::to_value(job).unwrap_or_default();
        if let Some(moves) = value.get_mut("moves").and_then(serde_json::Value::as_array_mut) {
            for one in moves.iter_mut().filter(|one| one["does"] == "new") {
                one["breaker"] = "new".into();
            }
        }
        value
    };
    plain(one) == plain(other)
}

/// The sheet of a job in the panel as it was drawn, with nothing answered.
fn as_begun(drawn: &Study, known: &KnownJob) -> Option<JobSheet> {
    let mut then = drawn.home().clone();
    then.suppose(&JobBegun { job: known.id.clone(), work: known.work.clone() }.into()).ok()?;
    job_sheet(&Study::of(then), &known.id, Moment::from_unix_ms(0))
}

/// Readings that were written down otherwise than the meter shows.
fn wrongly_written(book: &Logbook, recipe: Recipe, known: &KnownJob, sheet: &JobSheet) -> Vec<String> {
    let answers = book.lines().filter(|line| !book.is_struck(&line.entry.id));
    let odd = answers.filter_map(|line| {
        let Fact::JobAnswered(f) = &line.entry.fact else { return None };
        let step = sheet.steps.iter().find(|step| f.job == known.id && step.step == f.step)?;
        match (&step.ask, &f.answer) {
            (JobAsk::Readings { readings, .. }, JobAnswer::Read { reading, value }) => {
                let of = readings.iter().find(|one| one.reading == *reading)?;
                let shown = read(recipe, sheet, &step.step, of);
                let differs = (shown - value).abs() > (0.05 * shown).max(1.0);
                differs.then(|| format!("{}, {}: {value} was written down, {shown} was shown.", step.title, of.name))
            }
            (JobAsk::Choice { .. }, JobAnswer::Chose { choice }) if step.step == "look" => {
                let is = match Wrong::of(recipe) {
                    Some(Wrong::Burnt) => "burnt",
                    Some(Wrong::Old) => "old",
                    _ => "nothing",
                };
                (choice != is).then(|| format!("{} What was there to be seen is not what was chosen.", step.title))
            }
            _ => None,
        }
    });
    odd.collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::Written;
    use crate::logbook::JobAnswered;

    fn written(level: Level, seed: u32) -> (Written, WorkHouse) {
        let recipe = Recipe { lesson: Lesson::Work, ..Recipe::to_trace(seed, 16, level) };
        let house = WorkHouse::draw(recipe).unwrap();
        let mut book = Logbook::default();
        super::super::written_down(&mut book, house.facts.clone()).unwrap();
        (Written::on(book), house)
    }

    fn now(home: &Written) -> Moment {
        home.book.lines().next_back().unwrap().entry.at
    }

    /// Answers each step by what the instrument shows; `look_away` writes what the sheet hopes for.
    fn worked(home: &mut Written, job: &JobId, look_away: bool) {
        while let Some(sheet) = job_sheet(&home.home, job, now(home)).filter(|sheet| sheet.stands == JobStands::Open) {
            let step = &sheet.steps[sheet.next.unwrap()];
            let answer = match &step.ask {
                JobAsk::Tick { .. } => JobAnswer::Done,
                JobAsk::Choice { choices } => {
                    let shows = job_shows(&home.home, job, now(home)).unwrap().words;
                    let is = if shows.contains("burnt") {
                        "burnt"
                    } else if shows.contains("cloth") {
                        "old"
                    } else {
                        choices[0].choice.as_str()
                    };
                    JobAnswer::Chose { choice: if look_away { choices[0].choice.clone() } else { is.into() } }
                }
                JobAsk::Readings { readings, .. } => {
                    let next = readings.iter().find(|one| one.value.is_none()).unwrap();
                    let shown = job_shows(&home.home, job, now(home)).unwrap().value.unwrap();
                    let is_dead = matches!(next.expect.as_str(), "about 0" | "under 2");
                    let value = if look_away && is_dead { 0.2 } else { shown };
                    JobAnswer::Read { reading: next.reading.clone(), value }
                }
            };
            home.fact(JobAnswered { job: job.clone(), step: step.step.clone(), answer }.into()).unwrap();
        }
    }

    fn begun(level: Level, seed: u32) -> (Written, WorkHouse, JobId) {
        let (mut home, house) = written(level, seed);
        let job: JobId = "j1".parse().unwrap();
        let best = house.ways.ways.iter().filter(|way| way.job.is_some()).min_by_key(|way| way.cost).unwrap();
        home.fact(JobBegun { job: job.clone(), work: best.job.clone().unwrap() }.into()).unwrap();
        (home, house, job)
    }

    #[test]
    fn a_sound_panel_is_worked_on_to_its_end_and_marked_beside_the_best_way() {
        let (mut home, house, job) = begun(Level::Plain, 3);
        worked(&mut home, &job, false);
        let sheet = job_sheet(&home.home, &job, now(&home)).unwrap();
        assert_eq!(sheet.stands, JobStands::Ready, "{:?}", sheet.stop);
        home.fact(sheet.ends.unwrap()).unwrap();
        let marks = work_marks(&home.book, &home.home, now(&home), true).unwrap();
        assert_eq!((marks.wish, marks.safety.len(), marks.stopped_rightly), (house.wish, 0, None));
        assert!(marks.steps > 20 && marks.answered == marks.steps, "{} of {}", marks.answered, marks.steps);
        let (best, taken) = (marks.best.unwrap(), marks.taken.unwrap());
        assert!(best.cost <= taken.cost && taken.minutes > 0, "{best:?} {taken:?}");
        assert_eq!(marks.wrong.as_deref(), Some("Nothing was wrong in this panel."));
    }

    #[test]
    fn what_is_wrong_stops_whoever_looks_and_is_marked_against_whoever_looks_away() {
        let mut kinds = std::collections::BTreeSet::new();
        for seed in 1..5 {
            let (mut home, _, job) = begun(Level::Tricky, seed);
            let recipe = home.home.practice().unwrap();
            let wrong = Wrong::of(recipe).unwrap();
            worked(&mut home, &job, false);
            let stopped = job_sheet(&home.home, &job, now(&home)).unwrap();
            assert_eq!(stopped.stands, JobStands::Stopped, "{wrong:?} went by unseen");
            let marks = work_marks(&home.book, &home.home, now(&home), false).unwrap();
            assert_eq!((marks.stopped_rightly, marks.safety.len(), marks.wrong), (Some(true), 0, None), "{wrong:?}");
            let (mut home, _, job) = begun(Level::Tricky, seed);
            worked(&mut home, &job, true);
            let sheet = job_sheet(&home.home, &job, now(&home)).unwrap();
            home.fact(sheet.ends.unwrap()).unwrap();
            let marks = work_marks(&home.book, &home.home, now(&home), true).unwrap();
            assert_eq!(marks.stopped_rightly, Some(false));
            assert!(marks.safety.len() >= 2 && marks.safety[0].contains("somebody is hurt"), "{:?}", marks.safety);
            kinds.insert(format!("{wrong:?}"));
        }
        assert!(kinds.len() > 1, "{kinds:?}");
    }

    #[test]
    fn every_recipe_has_a_wish_with_a_sheet_and_other_homes_have_no_marks() {
        for (level, seed) in [(Level::Plain, 1), (Level::Usual, 2), (Level::Usual, 5), (Level::Tricky, 9)] {
            let (home, house) = written(level, seed);
            assert!(house.ways.ways.iter().any(|way| way.job.is_some()), "{}", house.wish);
            let marks = work_marks(&home.book, &home.home, now(&home), false).unwrap();
            assert!(marks.job.is_none() && marks.best.is_some());
        }
        let plain = crate::fixture::written("panel 8\nmade-up 7");
        assert!(work_marks(&plain.book, &plain.home, Moment::from_unix_ms(0), true).is_none());
        assert!(job_shows(&plain.home, &"j1".parse().unwrap(), Moment::from_unix_ms(0)).is_none());
    }
}
