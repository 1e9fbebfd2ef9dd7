//! What is otherwise than it was: since a day, or since somebody's last visit. And which lines of the logbook tell of a room, a breaker, a
//! person, a topic or a word.
//!
//! Both read the lines alone: the home is folded once more as it stood then, and held against today's.

use std::collections::{BTreeMap, BTreeSet};

use serde_json::Value;

use crate::checks::{Finding, Severity, findings};
use crate::logbook::{InWords, KnownJob, KnownTrouble, Line, Logbook, Topic};
use crate::model::{BreakerId, Moment, PointId, Refusal, RoomId, State, listed, so_many};
use crate::study::Study;
use crate::trace::{off_now, verdicts};
use crate::trips::{trouble_ended, trouble_title};

/// Lines of one person that lie no further apart than this are one visit.
const ONE_VISIT_MS: i64 = 3 * 60 * 60 * 1000;

/// So many of a kind are named; more are only counted.
const NAMED: usize = 4;

/// From when on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum ChangedSince {
    /// A moment. A line that was told of late counts by its place in the logbook.
    Moment(Moment),
    /// The end of a person's last visit; of the one before, while they are still here.
    Visit {
        /// Whose.
        by: String,
        /// The reader's clock.
        now: Moment,
    },
}

impl ChangedSince {
    /// The last line of before then; 0 where there is none.
    pub fn last_before(&self, book: &Logbook) -> u64 {
        match self {
            Self::Moment(moment) => {
                book.lines().find(|line| line.entry.at >= *moment).map_or_else(|| book.seq(), |line| line.seq - 1)
            }
            Self::Visit { by, now } => {
                let mut later = now.unix_ms();
                let mut gone = false;
                for line in book.lines().rev().filter(|line| line.entry.by == *by) {
                    let at = line.entry.at.unix_ms();
                    gone |= later - at > ONE_VISIT_MS;
                    if gone {
                        return line.seq;
                    }
                    later = at;
                }
                0
            }
        }
    }
}

/// What is otherwise.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Changes {
    /// The last line of before.
    pub after: u64,
    /// Its time; none where the logbook has no line of before.
    pub since: Option<Moment>,
    /// Lines written since.
    pub lines: usize,
    /// Who wrote them, with how many each; the most first.
    pub people: Vec<Wrote>,
    /// What is otherwise, in sentences, the gravest first.
    pub said: Vec<ChangeSaid>,
}

/// How many lines somebody wrote.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Wrote {
    /// Who.
    pub by: String,
    /// How many.
    pub lines: usize,
}

/// A sentence about what is otherwise.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct ChangeSaid {
    /// What stands in the margin: `Proven`.
    pub margin: String,
    /// The sentence.
    pub words: String,
    /// It is a danger that was not known then.
    pub grave: bool,
}

/// What is otherwise than after that line.
///
/// # Errors
/// Where the lines of before do not fold, which stored lines always do.
pub fn changes(book: &Logbook, home: &Study, after: u64) -> Result<Changes, Refusal> {
    let then = Logbook::from_lines(book.lines().take_while(|line| line.seq <= after).cloned())?;
    let since = book.lines().take_while(|line| line.seq <= after).last().map(|line| line.entry.at);
    let new: Vec<&Line> = book.lines().filter(|line| line.seq > after).collect();
    let mut by: BTreeMap<&str, usize> = BTreeMap::new();
    for line in &new {
        *by.entry(&line.entry.by).or_default() += 1;
    }
    let mut people: Vec<Wrote> = by.into_iter().map(|(by, lines)| Wrote { by: by.to_owned(), lines }).collect();
    people.sort_by_key(|wrote| std::cmp::Reverse(wrote.lines));
    let said = if new.is_empty() { Vec::new() } else { otherwise(&Study::from(&then), home) };
    Ok(Changes { after, since, lines: new.len(), people, said })
}

fn said(margin: &str, words: String) -> ChangeSaid {
    ChangeSaid { margin: margin.into(), words, grave: false }
}

/// `Kitchen, counter (4); Hall, light (4); 3 more`.
fn some(mut names: Vec<String>) -> String {
    let more = names.len().saturating_sub(NAMED);
    if more > 0 {
        names.truncate(NAMED);
        names.push(format!("{more} more"));
    }
    names.join("; ")
}

fn otherwise(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let mut all = dangers(then, now);
    all.extend(handles(then, now));
    all.extend(troubles(then, now));
    all.extend(proofs(then, now));
    all.extend(panels(then, now));
    all.extend(points(then, now));
    all.extend(jobs(then, now));
    all.extend(other_findings(then, now));
    all
}

/// What is found at `home` and was not at `other`.
fn only_at<'a>(home: &'a Study, other: &Study, wanted: impl Fn(Severity) -> bool) -> Vec<&'a Finding> {
    let known: BTreeSet<&str> = findings(other).iter().map(|one| one.key.as_str()).collect();
    findings(home).iter().filter(|one| wanted(one.severity) && !known.contains(one.key.as_str())).collect()
}

/// Where it is and what, with the place said once.
fn in_words(one: &Finding) -> String {
    if one.message.starts_with(&one.about) { one.message.clone() } else { format!("{}: {}", one.about, one.message) }
}

fn dangers(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let danger = |severity| severity == Severity::Danger;
    let new = only_at(now, then, danger).into_iter().map(|one| ChangeSaid {
        margin: "Danger, new".into(),
        words: in_words(one),
        grave: true,
    });
    let gone = only_at(then, now, danger)
        .into_iter()
        .map(|one| said("Not found any more", format!("{} Make sure that it was mended.", in_words(one))));
    new.chain(gone).collect()
}

fn other_findings(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let small = |severity| matches!(severity, Severity::Fault | Severity::Note);
    let named = |all: Vec<&Finding>| {
        format!("{}.", some(all.into_iter().map(|one| in_words(one).trim_end_matches('.').to_owned()).collect()))
    };
    let (new, gone) = (only_at(now, then, small), only_at(then, now, small));
    let mut all = Vec::new();
    if !new.is_empty() {
        all.push(said("Worth a look, new", named(new)));
    }
    if !gone.is_empty() {
        all.push(said("Not found any more", named(gone)));
    }
    all
}

fn handles(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let off = |home: &Study| -> BTreeMap<BreakerId, State> { off_now(home).into_iter().map(|o| (o.breaker, o.state)).collect() };
    let (before, today) = (off(then), off(now));
    let number = |id: &BreakerId| now.panels().number(id);
    let of = |state: State| -> Vec<String> {
        today.iter().filter(|(id, s)| **s == state && before.get(id) != Some(&state)).map(|(id, _)| number(id)).collect()
    };
    let (tripped, switched) = (of(State::Tripped), of(State::Off));
    let on: Vec<String> =
        before.keys().filter(|id| !today.contains_key(*id) && now.panels().breaker(id).is_some()).map(number).collect();
    let mut words = Vec::new();
    let mut tell = |numbers: Vec<String>, what: &str| {
        if !numbers.is_empty() {
            words.push(format!("{what}: {}.", listed(&numbers)));
        }
    };
    tell(tripped, "Tripped now, and not then");
    tell(switched, "Off now, and on then");
    tell(on, "On again");
    if words.is_empty() { Vec::new() } else { vec![said("Handles", words.join(" "))] }
}

fn troubles(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let mut all = Vec::new();
    for trouble in now.troubles().all() {
        let before = then.troubles().trouble(&trouble.id);
        let title = trouble_title(now, trouble);
        let words = match (before, &trouble.ended) {
            (None, None) => format!("{title}. It is not found out yet."),
            (_, Some((_, found, note))) if before.is_none_or(KnownTrouble::is_open) => {
                format!("{title}. {}.", trouble_ended(now, found.as_ref(), note))
            }
            (Some(b), Some(_)) if b.mended.is_none() && trouble.mended.is_some() => format!("{title}: mended."),
            _ => continue,
        };
        all.push(said("Trips", words));
    }
    all
}

fn proofs(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let proven = |home: &Study| -> BTreeMap<PointId, BreakerId> {
        verdicts(home).iter().filter_map(|(p, v)| Some((p.clone(), v.proven_on()?.clone()))).collect()
    };
    let (before, today) = (proven(then), proven(now));
    let place = |id: &PointId| now.house().place(id);
    let newly: Vec<String> = today
        .iter()
        .filter(|(point, _)| !before.contains_key(*point))
        .map(|(point, breaker)| format!("{} ({})", place(point), now.panels().number(breaker)))
        .collect();
    let other: Vec<String> = today
        .iter()
        .filter_map(|(point, breaker)| {
            let was = before.get(point).filter(|was| *was != breaker)?;
            Some(format!("{} (was {}, is {})", place(point), then.panels().number(was), now.panels().number(breaker)))
        })
        .collect();
    let open: Vec<String> =
        before.keys().filter(|point| !today.contains_key(*point) && now.house().point(point).is_some()).map(place).collect();
    let mut all = Vec::new();
    if !open.is_empty() {
        let are = if open.len() == 1 { "point is" } else { "points are" };
        all.push(said("Open again", format!("{} {are} not proven any more: {}.", open.len(), some(open))));
    }
    if !other.is_empty() {
        all.push(said("Another breaker", format!("{}.", some(other))));
    }
    if !newly.is_empty() {
        all.push(said("Proven", format!("{} newly proven: {}.", so_many(newly.len(), "point"), some(newly))));
    }
    all
}

fn panels(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let ids = |home: &Study| -> BTreeSet<BreakerId> { home.panels().breakers().map(|b| b.id.clone()).collect() };
    let (before, today) = (ids(then), ids(now));
    let mut words = Vec::new();
    let mut tell = |what: &str, all: Vec<String>| {
        if !all.is_empty() {
            words.push(format!("{what}: {}.", some(all)));
        }
    };
    tell("New in the panel", today.difference(&before).map(|id| now.panels().number(id)).collect());
    tell("Taken out", before.difference(&today).map(|id| then.panels().number(id)).collect());
    let both = || before.intersection(&today);
    let moved = |id: &BreakerId| {
        let (was, is) = (then.panels().number(id), now.panels().number(id));
        (was != is).then(|| format!("{was} is {is} now"))
    };
    tell("Moved", both().filter_map(moved).collect());
    let amps = |home: &Study, id: &BreakerId| home.panels().breaker(id).map(|b| b.amps);
    let rated = |id: &BreakerId| {
        let (was, is) = (amps(then, id), amps(now, id));
        let (was, is) = (was?, is?);
        (was != is).then(|| format!("{} from {was} to {is}", now.panels().number(id)))
    };
    tell("Amps otherwise", both().filter_map(rated).collect());
    if words.is_empty() { Vec::new() } else { vec![said("Panel", words.join(" "))] }
}

fn points(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let only = |home: &Study, other: &Study| -> Vec<String> {
        home.house().points().filter(|p| other.house().point(&p.id).is_none()).map(|p| home.house().place(&p.id)).collect()
    };
    let (new, gone) = (only(now, then), only(then, now));
    let mut words = Vec::new();
    if !new.is_empty() {
        words.push(format!("{} more: {}.", so_many(new.len(), "point"), some(new)));
    }
    if !gone.is_empty() {
        words.push(format!("{} fewer: {}.", so_many(gone.len(), "point"), some(gone)));
    }
    if words.is_empty() { Vec::new() } else { vec![said("House", words.join(" "))] }
}

fn jobs(then: &Study, now: &Study) -> Vec<ChangeSaid> {
    let mut all = Vec::new();
    for job in now.jobs().all() {
        let before = then.jobs().job(&job.id);
        let stopped = |job: &KnownJob| job.stopped.is_some();
        let words = if job.ended.is_some() && before.is_none_or(|b| b.ended.is_none()) {
            format!("{}: done.", job.title)
        } else if stopped(job) && !before.is_some_and(stopped) {
            format!("{}: stopped on the way.", job.title)
        } else if before.is_none() && job.is_open() {
            format!("{}: begun.", job.title)
        } else {
            continue;
        };
        all.push(said("Work", words));
    }
    all
}

/// Which lines are wanted; what is left out counts for all.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct LinesWanted {
    /// Only lines after this one.
    pub after: u64,
    /// Only these words, in any order, whatever is capital or small.
    pub text: String,
    /// Only lines by this person.
    pub by: Option<String>,
    /// Only lines about this room or a point in it.
    pub room: Option<RoomId>,
    /// Only lines about this breaker or a point that is proven on it.
    pub breaker: Option<BreakerId>,
    /// Only lines about this.
    pub topic: Option<Topic>,
}

/// Tells the lines that are wanted from the others. Made once for as many lines as are asked for.
pub struct LineFilter<'a> {
    book: &'a Logbook,
    words: &'a InWords<'a>,
    wanted: &'a LinesWanted,
    text: Vec<String>,
    /// What the wanted room is called by: itself, its points. None where any room will do.
    of_room: Option<BTreeSet<String>>,
    of_breaker: Option<BTreeSet<String>>,
}

impl<'a> LineFilter<'a> {
    /// Of this logbook and the home that follows from it.
    pub fn of(book: &'a Logbook, home: &Study, words: &'a InWords<'a>, wanted: &'a LinesWanted) -> Self {
        let of_room = wanted.room.as_ref().map(|room| {
            let points = words.points_ever_in(room).map(|point| point.as_str().to_owned());
            points.chain([room.as_str().to_owned()]).collect()
        });
        let of_breaker = wanted.breaker.as_ref().map(|breaker| {
            let on_it = verdicts(home).iter().filter(|(_, verdict)| verdict.proven_on() == Some(breaker));
            on_it.map(|(point, _)| point.as_str().to_owned()).chain([breaker.as_str().to_owned()]).collect()
        });
        let text = wanted.text.to_lowercase().split_whitespace().map(str::to_owned).collect();
        Self { book, words, wanted, text, of_room, of_breaker }
    }

    /// Whether the line is wanted.
    pub fn wants(&self, line: &Line) -> bool {
        let wanted = self.wanted;
        if line.seq <= wanted.after
            || wanted.by.as_ref().is_some_and(|by| *by != line.entry.by)
            || wanted.topic.is_some_and(|topic| topic != line.entry.fact.topic())
        {
            return false;
        }
        if !self.text.is_empty() {
            let said = format!("{} {}", self.words.line(line), line.entry.by).to_lowercase();
            if !self.text.iter().all(|word| said.contains(word)) {
                return false;
            }
        }
        if self.of_room.is_none() && self.of_breaker.is_none() {
            return true;
        }
        // Of a line that strikes out, what the other one is about.
        let about = line.entry.fact.strikes().and_then(|(other, _)| self.book.line(other)).unwrap_or(line);
        let mut named = BTreeSet::new();
        if let Ok(value) = serde_json::to_value(&about.entry.fact) {
            texts(&value, &mut named);
        }
        [&self.of_room, &self.of_breaker].into_iter().flatten().all(|ids| ids.iter().any(|id| named.contains(id)))
    }
}

/// Under these names somebody's own words stand, which may read like an id.
const FREE_TEXT: [&str; 6] = ["name", "text", "note", "reason", "words", "by"];

/// Every text in it that may be an id.
fn texts(value: &Value, into: &mut BTreeSet<String>) {
    match value {
        Value::String(text) => drop(into.insert(text.clone())),
        Value::Array(all) => all.iter().for_each(|one| texts(one, into)),
        Value::Object(all) => all.iter().filter(|(key, _)| !FREE_TEXT.contains(&key.as_str())).for_each(|(key, one)| {
            into.insert(key.clone());
            texts(one, into);
        }),
        _ => {}
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{Written, line, written};
    use crate::logbook::{Draft, Fact, PointSeen, RoomPlaced};
    use crate::model::Seen;

    fn said(written: &Written, after: u64) -> Vec<String> {
        let changes = changes(&written.book, &written.home, after).unwrap();
        changes.said.iter().map(|said| format!("{}: {}", said.margin, said.words)).collect()
    }

    fn traced() -> Written {
        written(
            "panel 8\n1 20 kitchen\n3 15 hall\nroom Kitchen\nroom Hall\npoint Kitchen receptacle counter\npoint Hall light ceiling
             lit counter\nlit ceiling\noff 1\ndark counter\nlit ceiling\non 1\nlit counter\noff 1\ndark counter\non 1\nlit counter",
        )
    }

    #[test]
    fn what_is_proven_tripped_and_taken_out_is_told_and_nothing_else() {
        let mut home = traced();
        let before = home.book.seq();
        assert_eq!(said(&home, before), [""; 0]);
        home.acts("lit counter\noff 3\ndark ceiling\nlit counter\non 3\ntripped 1");
        let all = said(&home, before);
        assert_eq!(all[0], "Handles: Tripped now, and not then: 1.");
        assert!(all.contains(&"Proven: 1 point newly proven: Hall, ceiling (3).".to_owned()), "{all:#?}");
        // Looks that only repeat what is known change nothing.
        let before = home.book.seq();
        home.acts("lit ceiling");
        assert_eq!(said(&home, before), [""; 0]);
    }

    #[test]
    fn a_line_struck_out_opens_what_rested_on_it() {
        let mut home = traced();
        let before = home.book.seq();
        let dark = home.book.lines().find(|l| matches!(&l.entry.fact, Fact::PointSeen(f) if f.seen == Seen::Dark)).unwrap().seq;
        home.acts(&format!("strike {dark}"));
        assert_eq!(said(&home, before), ["Open again: 1 point is not proven any more: Kitchen, counter."]);
    }

    #[test]
    fn a_danger_is_told_first_and_a_breaker_by_its_number_of_then() {
        let mut home = traced();
        let before = home.book.seq();
        home.acts("5 30 #14 heater\n7 20 spare");
        let all = said(&home, before);
        assert!(all[0].starts_with("Danger, new: 5: "), "{all:#?}");
        assert!(all.iter().any(|one| one == "Panel: New in the panel: 5; 7."), "{all:#?}");
    }

    fn by(home: &mut Written, by: &str, minutes: i64, fact: impl Into<Fact>) {
        let n = home.book.seq() + 1;
        let at = Moment::from_unix_ms(minutes * 60_000);
        let draft = Draft { id: line(n), at, by: by.into(), instrument: None, version: Fact::VERSION, fact: fact.into() };
        let outcome = home.book.admit(&[draft]).unwrap();
        home.book.commit(outcome);
    }

    fn room(n: u64) -> RoomPlaced {
        RoomPlaced { room: format!("r{n}").parse().unwrap(), name: format!("Room {n}"), floor: None }
    }

    #[test]
    fn a_visit_is_over_after_three_hours_and_one_that_goes_on_is_not_the_last() {
        let mut home = traced();
        let first = home.book.seq();
        for (n, (who, minutes)) in
            [("Ann", 1_000), ("Ann", 1_170), ("Ben", 1_400), ("Ann", 3_000), ("Ben", 3_001)].into_iter().enumerate()
        {
            by(&mut home, who, minutes, room(n as u64));
        }
        let after = |by: &str, minutes: i64| {
            ChangedSince::Visit { by: by.into(), now: Moment::from_unix_ms(minutes * 60_000) }.last_before(&home.book)
        };
        assert_eq!(after("Ann", 9_000), first + 4, "long gone: since her last line");
        assert_eq!(after("Ann", 3_100), first + 2, "still here: since the visit before");
        assert_eq!(after("Ben", 3_100), first + 3);
        assert_eq!(after("Cleo", 9_000), 0, "never here");
        let moment = |minutes: i64| ChangedSince::Moment(Moment::from_unix_ms(minutes * 60_000)).last_before(&home.book);
        assert_eq!((moment(1_000), moment(1_001), moment(9_000)), (first, first + 1, first + 5));
    }

    #[test]
    fn lines_are_found_by_room_breaker_person_topic_and_words() {
        let mut home = traced();
        by(&mut home, "Ann", 1_000, room(9));
        let found = |wanted: LinesWanted| -> Vec<u64> {
            let words = InWords::of(&home.book);
            let filter = LineFilter::of(&home.book, &home.home, &words, &wanted);
            home.book.lines().filter(|line| filter.wants(line)).map(|line| line.seq).collect()
        };
        let all: Vec<u64> = (1..=home.book.seq()).collect();
        assert_eq!(found(LinesWanted::default()), all);
        let hall = found(LinesWanted { room: Some("hall".parse().unwrap()), ..LinesWanted::default() });
        let about_hall = |line: &&Line| match &line.entry.fact {
            Fact::RoomPlaced(f) => f.name == "Hall",
            Fact::PointPlaced(f) => f.name == "ceiling",
            Fact::PointSeen(PointSeen { point, .. }) => point.as_str() == "ceiling",
            _ => false,
        };
        assert_eq!(hall, home.book.lines().filter(about_hall).map(|line| line.seq).collect::<Vec<_>>());
        let ann = LinesWanted { by: Some("Ann".into()), ..LinesWanted::default() };
        assert_eq!(found(ann), [home.book.seq()]);
        let text = LinesWanted { text: "COUNTER dark".into(), ..LinesWanted::default() };
        assert_eq!(found(text).len(), 2, "both dark looks");
        let trace = found(LinesWanted { topic: Some(Topic::Trace), ..LinesWanted::default() });
        assert!(trace.len() > 6, "{trace:?}");
        let late = LinesWanted { topic: Some(Topic::Trace), after: trace[2], ..LinesWanted::default() };
        assert_eq!(found(late), trace[3..]);
        // Its own lines, and those of what is proven on it.
        let breaker = home.home.panels().breakers().find(|b| home.home.panels().number(&b.id) == "1").unwrap().id.clone();
        let words = |seq: u64| InWords::of(&home.book).line(home.book.lines().nth(seq as usize - 1).unwrap());
        let lines = found(LinesWanted { breaker: Some(breaker), ..LinesWanted::default() });
        assert!(lines.iter().any(|seq| words(*seq).contains("counter: dark")), "{lines:?}");
        assert!(!lines.iter().any(|seq| words(*seq).contains("ceiling")), "{lines:?}");
    }
}
