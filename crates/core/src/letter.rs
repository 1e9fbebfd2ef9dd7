//! The front page of a home as a letter: what matters most first, each as a sentence with its circuits and one thing to do. What has no news
//! is left out.
//!
//! The order is that of harm: a stop, what is dark now, danger, what carries too much, what is not proven, what comes next, the cards.

use std::collections::{BTreeMap, BTreeSet};

use crate::checks::{Finding, Severity, findings};
use crate::directory::{drifts, hanging};
use crate::loads::{Stands, circuits};
use crate::model::{BreakerId, Moment, State, listed, so_many};
use crate::study::Study;
use crate::trace::{NextStep, Progress, dark_clocks, off_now, trace_view, verdicts};
use crate::trips::open_troubles;

/// What a line of the letter is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LetterAbout {
    /// Nothing else goes on before this.
    Stop,
    /// Breakers are off or tripped.
    DarkNow,
    /// Findings that can do harm.
    Danger,
    /// A circuit may carry more than it may.
    Overloaded,
    /// Points of which nobody knows the breaker.
    NotProven,
    /// The next step of the trace.
    NextStep,
    /// The cards in the doors.
    Card,
    /// Of a home of which little is known: what to do first.
    First,
    /// What to do after that.
    Then,
}

/// A piece of a sentence.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "is", rename_all = "snake_case")]
pub enum LetterPiece {
    /// Words.
    Words {
        /// As they are read.
        words: String,
        /// They matter most here.
        strong: bool,
    },
    /// A circuit.
    Circuit {
        /// Its breaker.
        breaker: BreakerId,
        /// `11`, `G3`.
        number: String,
    },
    /// A moment, to be written as the reader's clock has it.
    At {
        /// The moment.
        at: Moment,
    },
}

/// A line of the letter.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct LetterLine {
    /// What it is about.
    pub about: LetterAbout,
    /// What stands in the margin: `Dark now`.
    pub margin: String,
    /// Its sentences.
    pub pieces: Vec<LetterPiece>,
    /// What to do about it, as on a button; empty where there is nothing to do.
    pub act: String,
    /// The screen that the button opens, within the home: `trace`, `panel?at=b:b12`.
    pub opens: String,
}

/// How a breaker stands out on the small post.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct LetterMark {
    /// The breaker.
    pub breaker: BreakerId,
    /// It is off or tripped.
    pub off: bool,
    /// A danger was found at it.
    pub danger: bool,
    /// It may carry more than it may.
    pub overloaded: bool,
    /// Nothing is proven on it, and it feeds no panel.
    pub not_proven: bool,
}

/// The letter.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Letter {
    /// The worst that is known, as a sentence.
    pub title: String,
    /// What there is to say, the worst first.
    pub lines: Vec<LetterLine>,
    /// What stands out on the small posts.
    pub marks: Vec<LetterMark>,
}

/// The letter of a home.
pub fn letter(home: &Study) -> Letter {
    home.once(|| written(home)).clone()
}

fn written(home: &Study) -> Letter {
    let found = [stop(home), trouble(home), dark_now(home), danger(home), overloaded(home), not_proven(home)];
    let mut lines: Vec<(String, LetterLine)> = found.into_iter().flatten().collect();
    lines.extend(first(home));
    lines.extend(next_step(home));
    lines.extend(card(home));
    let points = verdicts(home).len();
    let title = match lines.first() {
        Some((title, _)) if !title.is_empty() => title.clone(),
        _ => format!("{} proven", if points == 1 { "The one point is".into() } else { format!("All {points} points are") }),
    };
    Letter { title, lines: lines.into_iter().map(|(_, line)| line).collect(), marks: marks(home) }
}

fn words(words: impl Into<String>) -> LetterPiece {
    LetterPiece::Words { words: words.into(), strong: false }
}

fn strong(words: impl Into<String>) -> LetterPiece {
    LetterPiece::Words { words: words.into(), strong: true }
}

fn circuit(home: &Study, breaker: &BreakerId) -> LetterPiece {
    LetterPiece::Circuit { breaker: breaker.clone(), number: home.panels().number(breaker) }
}

fn line(about: LetterAbout, margin: &str, pieces: Vec<LetterPiece>, act: &str, opens: impl Into<String>) -> LetterLine {
    LetterLine { about, margin: margin.into(), pieces, act: act.into(), opens: opens.into() }
}

/// How many of a kind are named before the rest is counted.
const NAMED: usize = 3;

fn stop(home: &Study) -> Option<(String, LetterLine)> {
    if let NextStep::Stop { place, why, .. } = trace_view(home, home.setup()).next {
        let pieces = vec![strong(format!("{place}: ")), words(why)];
        return Some((
            "Stop: a meter showed what must not be".into(),
            line(LetterAbout::Stop, "Stop", pieces, "What to do now", "trace"),
        ));
    }
    if let Some((trouble, page)) = open_troubles(home).values().find_map(|t| Some((t, t.stop.as_ref()?))) {
        let why = page.why.first().cloned().unwrap_or_default();
        let pieces = vec![strong(format!("{}. ", page.title)), words(format!("{}: {why}", trouble.title))];
        let opens = format!("trips/{}", trouble.trouble);
        return Some((page.title.clone(), line(LetterAbout::Stop, "Stop", pieces, "What to do now", opens)));
    }
    let stopped = home.jobs().all().find_map(|job| Some((job, job.stopped.as_ref().filter(|_| job.is_open())?)))?;
    let (job, found) = stopped;
    let pieces = vec![strong(format!("{}: ", job.title)), words(format!("stopped, {}.", found.found.words()))];
    Some((
        "Stop: a job found something that an electrician has to see".into(),
        line(LetterAbout::Stop, "Stop", pieces, "To the job", format!("work/job/{}", job.id)),
    ))
}

/// What is wrong and not found out yet.
fn trouble(home: &Study) -> Option<(String, LetterLine)> {
    let open: Vec<_> = open_troubles(home).values().filter(|t| t.stop.is_none()).collect();
    let first = open.first()?;
    let mut pieces = vec![strong(format!("{}.", first.title))];
    match (&first.named, &first.next) {
        (Some(named), _) => {
            pieces.push(words(format!(" {}: {} ({} %).", named.how, named.words, named.percent)));
        }
        (None, Some(next)) => pieces.push(words(format!(" Next look: {}.", next.title.trim_end_matches('?')))),
        (None, None) => {}
    }
    if open.len() > 1 {
        pieces.push(words(format!(" {} more in Trips.", open.len() - 1)));
    }
    let act = if first.named.is_some() { "What to do about it" } else { "Go on looking" };
    let opens = if open.len() == 1 { format!("trips/{}", first.trouble) } else { "trips".into() };
    Some((first.title.clone(), line(LetterAbout::DarkNow, "Not working", pieces, act, opens)))
}

fn dark_now(home: &Study) -> Option<(String, LetterLine)> {
    // What is left off for good is no news.
    let off: Vec<_> = off_now(home).into_iter().filter(|one| one.state == State::Tripped || !one.left_off).collect();
    let first = off.first()?;
    let mut pieces = Vec::new();
    for (n, one) in off.iter().take(NAMED).enumerate() {
        if n > 0 {
            pieces.push(words(" "));
        }
        pieces.push(circuit(home, &one.breaker));
        let how = if one.state == State::Tripped { "has been tripped" } else { "has been off" };
        match home.switchings().off_since(&one.breaker) {
            Some(since) => pieces.extend([strong(format!(" {how} since ")), LetterPiece::At { at: since }, strong(".")]),
            None => pieces.push(strong(if one.state == State::Tripped { " is tripped." } else { " is off." })),
        }
    }
    if off.len() > NAMED {
        pieces.push(words(format!(" So are {} more.", off.len() - NAMED)));
    }
    let dead = home.panels().dead_behind(&off.iter().map(|one| one.breaker.clone()).collect());
    let dark: Vec<String> = verdicts(home)
        .iter()
        .filter(|(_, verdict)| verdict.proven_on().is_some_and(|breaker| dead.contains(breaker)))
        .map(|(point, _)| home.house().place(point))
        .collect();
    let it = if off.len() == 1 { "it" } else { "them" };
    pieces.push(words(match dark.len() {
        0 => format!(" Nothing is proven on {it}; anything that is not proven may be dark."),
        n if n <= NAMED => format!(" Dark with {it}: {}.", dark.join("; ")),
        n => format!(" Dark with {it}: {}; {} more.", dark[..NAMED].join("; "), n - NAMED),
    }));
    if let Some(clock) = dark_clocks(home).first() {
        let may = if clock.proven { "is" } else { "may be" };
        pieces.extend([
            strong(format!(" {} {may} dark and has to have power by ", clock.name)),
            LetterPiece::At { at: clock.until },
        ]);
        pieces.push(strong("."));
    }
    let tripped: Vec<String> = off.iter().filter(|one| one.state == State::Tripped).map(|one| one.number.clone()).collect();
    let title = match (tripped.len(), off.len()) {
        (0, 1) => format!("{} is off", first.number),
        (0, n) => format!("{n} breakers are off"),
        (1, _) => format!("{} has tripped", tripped[0]),
        _ => format!("{} have tripped", listed(&tripped)),
    };
    // A tripped one has a reason, which is looked for before it is reset.
    let (act, opens) = match off.iter().find(|one| one.state == State::Tripped) {
        Some(one) => (format!("Find why {} tripped", one.number), format!("trips?tripped={}", one.breaker)),
        None => ("To the panel".into(), format!("panel?at=b:{}", first.breaker)),
    };
    Some((title, line(LetterAbout::DarkNow, "Dark now", pieces, &act, opens)))
}

fn danger(home: &Study) -> Option<(String, LetterLine)> {
    let all: Vec<&Finding> =
        findings(home).iter().filter(|one| one.severity == Severity::Danger && one.aside.is_none()).collect();
    if all.is_empty() {
        return None;
    }
    let mut pieces = Vec::new();
    for (n, finding) in all.iter().take(2).enumerate() {
        if n > 0 {
            pieces.push(words(" "));
        }
        match &finding.place.breaker {
            Some(breaker) => pieces.extend([circuit(home, breaker), words(format!(" {}", finding.message))]),
            None => pieces.extend([strong(format!("{}: ", finding.about)), words(finding.message.clone())]),
        }
    }
    if all.len() > 2 {
        pieces.push(words(format!(" And {} more.", all.len() - 2)));
    }
    let title = if all.len() == 1 { "One danger is on record".into() } else { format!("{} dangers are on record", all.len()) };
    Some((title, line(LetterAbout::Danger, "Danger", pieces, "What to do about it", "checks")))
}

fn overloaded(home: &Study) -> Option<(String, LetterLine)> {
    let over: Vec<_> = circuits(home).iter().filter(|one| matches!(one.stands, Stands::Over | Stands::TooClose)).collect();
    let first = over.first()?;
    let mut pieces = Vec::new();
    for (n, one) in over.iter().take(NAMED).enumerate() {
        if n > 0 {
            pieces.push(words(" "));
        }
        // As the page of loads says it, without what happens with all on.
        let said = one.sentence.split(" All on at once").next().unwrap_or_default();
        pieces.extend([circuit(home, &one.breaker), words(format!(" {said}"))]);
    }
    if over.len() > NAMED {
        pieces.push(words(format!(" And {} more.", over.len() - NAMED)));
    }
    let title = format!("{} carries more than it may", first.number);
    let title = if over.len() == 1 { title } else { format!("{} circuits carry more than they may", over.len()) };
    Some((title, line(LetterAbout::Overloaded, "Overloaded", pieces, "Look at the loads", "loads")))
}

fn not_proven(home: &Study) -> Option<(String, LetterLine)> {
    let progress = Progress::of(verdicts(home));
    let open = progress.points - progress.proven;
    if open == 0 {
        return None;
    }
    let mut said = format!(
        "{} of {} points are proven; {open} {} not.",
        progress.proven,
        progress.points,
        if open == 1 { "is" } else { "are" }
    );
    if progress.contradictory > 0 {
        said += &format!(" At {} the looks disagree.", so_many(progress.contradictory, "point"));
    }
    if progress.out > 0 {
        said += &format!(
            " {} dark with everything on.",
            if progress.out == 1 { "One is".into() } else { format!("{} are", progress.out) }
        );
    }
    let title = format!("{} {} not proven yet", so_many(open, "point"), if open == 1 { "is" } else { "are" });
    Some((title, line(LetterAbout::NotProven, "Not proven", vec![words(said)], "See which", "house/list")))
}

/// What a home of which little is known asks for first.
fn first(home: &Study) -> Vec<(String, LetterLine)> {
    let say = |about, margin: &str, said: &str, act: &str, opens: &str| line(about, margin, vec![words(said)], act, opens);
    let house = "Walk the house once and name what is in each room: outlets, lights, appliances. A drawn plan can wait.";
    let trace = "Trace: one breaker off, a look round, and so on. This page will say what is dark, what is dangerous and what comes next.";
    let then = |said: &str| (String::new(), say(LetterAbout::Then, "Then", said, "", ""));
    if home.panels().breakers().next().is_none() {
        let card = "Type the card on the panel's door as it reads, top to bottom. It is kept as a claim until it is proven.";
        let title = "Nothing is known of this home yet".to_owned();
        return vec![(title, say(LetterAbout::First, "First", card, "To the panel", "panel")), then(house), then(trace)];
    }
    if home.house().points().next().is_none() {
        let title = "The panel is known, the house is not".to_owned();
        return vec![(title, say(LetterAbout::First, "First", house, "To the house", "house/list")), then(trace)];
    }
    Vec::new()
}

fn next_step(home: &Study) -> Option<(String, LetterLine)> {
    let view = trace_view(home, home.setup());
    if matches!(view.next, NextStep::SetUp { .. } | NextStep::Stop { .. } | NextStep::Done { .. })
        || home.house().points().next().is_none()
    {
        return None;
    }
    let step = if view.panel.title.is_empty() { &view.walk } else { &view.panel };
    let act = if home.trace().looks().is_empty() { "Begin the trace" } else { "Go on tracing" };
    let why = if step.why.is_empty() { String::new() } else { format!(" {}", step.why) };
    let mut pieces = vec![strong(format!("{}:", step.title.trim_end_matches(':')))];
    for handle in step.switches.iter().flat_map(|switch| &switch.handles).take(NAMED) {
        pieces.extend([words(" "), circuit(home, &handle.breaker)]);
    }
    if step.switches.is_empty() {
        pieces = vec![strong(format!("{}.", step.title))];
    }
    pieces.push(words(why));
    Some((String::new(), line(LetterAbout::NextStep, "Next step", pieces, act, "trace")))
}

fn card(home: &Study) -> Option<(String, LetterLine)> {
    let card = |pieces: Vec<LetterPiece>, act: &str, opens: String| {
        Some((String::new(), line(LetterAbout::Card, "The card", pieces, act, opens)))
    };
    let wrong = hanging(home)
        .iter()
        .filter(|card| !card.wrong.is_empty())
        .max_by_key(|card| (card.wrong.iter().filter(|line| line.misleads).count(), card.wrong.len()));
    if let Some(hangs) = wrong {
        let [worst, ..] = &hangs.wrong[..] else { return None };
        let count = if hangs.wrong.len() == 1 { "One line".into() } else { format!("{} lines", hangs.wrong.len()) };
        let is = if hangs.wrong.len() == 1 { "is" } else { "are" };
        let misleads = hangs.wrong.iter().filter(|line| line.misleads).count();
        let mut pieces =
            vec![words(format!("{count} of revision {} in the door of {} {is} wrong now: ", hangs.revision, hangs.name))];
        pieces.push(strong(format!("{}, “{}”", worst.number, if worst.hangs.is_empty() { "no line" } else { &worst.hangs })));
        pieces.push(words(match misleads {
            0 => ".".to_owned(),
            1 => ". One sends the hand to the wrong breaker.".to_owned(),
            n => format!(". {n} send the hand to the wrong breaker."),
        }));
        return card(pieces, "See the card", format!("directory/{}", hangs.panel));
    }
    let drifted = drifts(home);
    if let Some(drift) = drifted.first() {
        let said = format!("Own words no longer match what is known: {} of them.", drifted.len());
        return card(vec![words(said)], "Answer them", format!("directory/{}", drift.panel));
    }
    let proven = verdicts(home).iter().any(|(_, verdict)| verdict.proven_on().is_some());
    let is_hung = !hanging(home).is_empty();
    if is_hung || !proven {
        return None;
    }
    card(vec![words("No card is recorded as hanging in a door.")], "Print the card", "directory".into())
}

fn marks(home: &Study) -> Vec<LetterMark> {
    let mut all: BTreeMap<&BreakerId, LetterMark> = home
        .panels()
        .breakers()
        .map(|one| {
            let mark = LetterMark {
                breaker: one.id.clone(),
                off: one.state != State::On,
                danger: false,
                overloaded: false,
                not_proven: home.panels().panels_on(&one.id).next().is_none(),
            };
            (&one.id, mark)
        })
        .collect();
    let proven: BTreeSet<&BreakerId> = verdicts(home).iter().filter_map(|(_, verdict)| verdict.proven_on()).collect();
    for (breaker, mark) in &mut all {
        mark.not_proven &= !proven.contains(*breaker);
    }
    for finding in findings(home).iter().filter(|one| one.severity == Severity::Danger && one.aside.is_none()) {
        if let Some(mark) = finding.place.breaker.as_ref().and_then(|breaker| all.get_mut(breaker)) {
            mark.danger = true;
        }
    }
    for one in circuits(home).iter().filter(|one| matches!(one.stands, Stands::Over | Stands::TooClose)) {
        if let Some(mark) = all.get_mut(&one.breaker) {
            mark.overloaded = true;
        }
    }
    all.into_values().filter(|mark| mark.off || mark.danger || mark.overloaded || mark.not_proven).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{Written, written};

    /// `Dark now: [3] tripped since … > To the panel`: each line as it is read.
    fn said(w: &Written) -> Vec<String> {
        let piece = |piece: &LetterPiece| match piece {
            LetterPiece::Words { words, .. } => words.clone(),
            LetterPiece::Circuit { number, .. } => format!("[{number}]"),
            LetterPiece::At { .. } => "…".into(),
        };
        let line = |line: &LetterLine| {
            let words: String = line.pieces.iter().map(piece).collect();
            format!("{}: {words} > {}", line.margin, line.act)
        };
        letter(&w.home).lines.iter().map(line).collect()
    }

    fn title(w: &Written) -> String {
        letter(&w.home).title
    }

    #[test]
    fn a_home_of_which_little_is_known_says_what_to_do_first() {
        let mut w = written("home Weir Cottage");
        assert_eq!(title(&w), "Nothing is known of this home yet");
        assert!(said(&w)[0].starts_with("First: Type the card") && said(&w).len() == 3, "{:?}", said(&w));
        w.acts("panel 8\n1 20 kitchen\n3 15 hall");
        assert_eq!(title(&w), "The panel is known, the house is not");
        w.acts("room Hall\npoint Hall light lamp");
        assert_eq!(title(&w), "1 point is not proven yet");
        assert!(said(&w)[1].starts_with("Next step: ") && said(&w)[1].ends_with(" > Begin the trace"), "{:?}", said(&w));
    }

    #[test]
    fn what_harms_stands_first_and_what_has_no_news_is_left_out() {
        let mut w = written(
            "panel 12\n1 20 #12 a\n3 15 #14 b\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door\nproof lamp 1\nproof door 3",
        );
        assert_eq!(title(&w), "All 2 points are proven");
        assert_eq!(said(&w), ["The card: No card is recorded as hanging in a door. > Print the card"]);
        w.acts("hung main");
        let [card] = &said(&w)[..] else { panic!("{:?}", said(&w)) };
        assert!(card.starts_with("The card: 2 lines of revision 1 in the door of Main panel are wrong now: "), "{card}");
        w.acts("tripped 3");
        assert_eq!(title(&w), "3 has tripped");
        assert_eq!(said(&w)[0], "Dark now: [3] has been tripped since …. Dark with it: Hall, door. > Find why 3 tripped");
        let mut high = written("panel 12\n1 20 #12 a\nroom Hall\npoint Hall receptacle door\nvolts door 150");
        assert_eq!(title(&high), "Stop: a meter showed what must not be");
        high.acts("off 1");
        assert!(
            said(&high)[0].starts_with("Stop: Hall, door: ") && said(&high)[1].starts_with("Dark now: "),
            "{:?}",
            said(&high)
        );
        w.acts("set 1 {\"amps\": 30}");
        assert!(said(&w)[1].starts_with("Danger: [1] ") && said(&w)[1].ends_with(" > What to do about it"), "{:?}", said(&w));
        let mark = |number: &str| {
            let id = w.home.panels().breakers().find(|one| one.number() == number).unwrap().id.clone();
            letter(&w.home).marks.into_iter().find(|mark| mark.breaker == id).unwrap()
        };
        assert!(mark("1").danger && !mark("1").off && !mark("1").not_proven);
        assert!(mark("3").off && !mark("3").danger);
        w.acts("on 3\nload door space_heater\nload door tank_120");
        assert!(
            said(&w).iter().any(|line| line.starts_with("Overloaded: [3] ") && line.ends_with(" > Look at the loads")),
            "{:?}",
            said(&w)
        );
    }
}
