//! What is wrong in a home: where its power may stop, the next look, what it is, or the stop.

use std::collections::BTreeMap;

use super::belief::Belief;
use super::cause::{Cause, Family, Key};
use super::file::PowerBox;
use super::look::{Look, Saw};
use super::named::{NamedCause, name};
use super::of_home::{AtHome, at_home};
use super::planner::{Next, Search};
use super::said::{LookMade, NextLook, Words, said};
use super::stop::{StopPage, stop_page};
use crate::logbook::{KnownTrouble, SeenAtTrouble, TroubleTold};
use crate::model::{BreakerId, FedFrom, Moment, PointId, Refusal, Trouble, TroubleAt, TroubleFound, TroubleId, TroubleLook};
use crate::study::Study;

/// A place on the road of the power, with how likely it stops there.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct RoadStop {
    /// What kind of place: `utility`, `panel`, `breaker`, `gfci`, `joint`, `switch`, `itself`.
    pub kind: RoadKind,
    /// `Panel, breaker 17`; `Bath, mirror`.
    pub place: String,
    /// What it would be there: `its GFCI has tripped`.
    pub what: String,
    /// In percent, 99 at most; 0: less than one.
    pub percent: u8,
    /// The breaker that stands there.
    pub breaker: Option<BreakerId>,
    /// The number on its tag.
    pub number: String,
}

/// What kind of place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RoadKind {
    /// Before the panel: the utility, the service, its main.
    Utility,
    /// What feeds this panel.
    Feeder,
    /// The breaker.
    Breaker,
    /// A GFCI on the way.
    Gfci,
    /// A box on the way.
    Joint,
    /// Its switch.
    Switch,
    /// The thing itself.
    Itself,
}

/// One cause with how likely it is.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct CauseLine {
    /// `Bath, mirror: a GFCI has tripped`.
    pub words: String,
    /// In percent, 99 at most.
    pub percent: u8,
}

/// What is wrong, as it stands.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TroubleView {
    /// Its id.
    pub trouble: TroubleId,
    /// `Porch, by the door: dark`.
    pub title: String,
    /// What was told, in words, with the rest of it.
    pub told: Vec<String>,
    /// Since when.
    pub at: Moment,
    /// It is over, with what it was, in words.
    pub over: Option<String>,
    /// What was found has to be mended, and is not.
    pub to_be_mended: bool,
    /// Stop: nothing else stands on the page.
    pub stop: Option<StopPage>,
    /// The way the power comes, from the utility to the point.
    pub road: Vec<RoadStop>,
    /// The next look.
    pub next: Option<NextLook>,
    /// What it is, once it can be said.
    pub named: Option<NamedCause>,
    /// Every cause that is likelier than half a percent.
    pub causes: Vec<CauseLine>,
    /// What was seen, the last first.
    pub seen: Vec<LookMade>,
}

/// A trouble as a line of a list.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TroubleLine {
    /// Its id.
    pub trouble: TroubleId,
    /// `Porch, by the door: dark`.
    pub title: String,
    /// Since when.
    pub at: Moment,
    /// By whom it was told.
    pub by: String,
    /// It is over.
    pub over: bool,
    /// What was found has to be mended, and is not.
    pub to_be_mended: bool,
    /// What it was, or how far it is.
    pub said: String,
}

/// How often a breaker was found tripped.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TripHistory {
    /// The breaker.
    pub breaker: BreakerId,
    /// `17`.
    pub number: String,
    /// When, the last first.
    pub times: Vec<Moment>,
}

/// From where a point gets its power, as it was told.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct FedPoint {
    /// The point.
    pub point: PointId,
    /// What comes before it.
    pub from: FedFrom,
}

/// What is and was wrong.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TripsView {
    /// Open ones first, the last first.
    pub troubles: Vec<TroubleLine>,
    /// Breakers that were found tripped.
    pub tripped: Vec<TripHistory>,
    /// From where points get their power, as far as it was told.
    pub fed: Vec<FedPoint>,
    /// The utility's number; empty: none.
    pub utility: String,
    /// The electrician's number; empty: none.
    pub electrician: String,
}

/// What is and was wrong.
pub fn trips_view(home: &Study) -> TripsView {
    let mut troubles: Vec<TroubleLine> = home
        .troubles()
        .all()
        .rev()
        .map(|trouble| TroubleLine {
            trouble: trouble.id.clone(),
            title: trouble_title(home, trouble),
            at: trouble.at,
            by: trouble.by.clone(),
            over: !trouble.is_open(),
            to_be_mended: trouble.to_be_mended().is_some(),
            said: match &trouble.ended {
                Some((_, found, note)) => trouble_ended(home, found.as_ref(), note),
                None => crate::model::so_many(trouble.looks.len() + trouble.signs.len(), "look"),
            },
        })
        .collect();
    troubles.sort_by_key(|t| (t.over, !t.to_be_mended));
    let tripped = home.panels().breakers().filter_map(|breaker| {
        let mut times = home.trips_of(&breaker.id);
        times.reverse();
        let number = home.panels().number(&breaker.id);
        (!times.is_empty()).then(|| TripHistory { breaker: breaker.id.clone(), number, times })
    });
    TripsView {
        troubles,
        tripped: tripped.collect(),
        fed: home.troubles().fed().map(|(point, from)| FedPoint { point: point.clone(), from: from.clone() }).collect(),
        utility: home.troubles().utility().into(),
        electrician: home.troubles().electrician().into(),
    }
}

/// `Porch, by the door: dark`.
pub(crate) fn trouble_title(home: &Study, trouble: &KnownTrouble) -> String {
    match &trouble.told.at {
        TroubleAt::Point(point) => format!("{}: {}", home.house().place(point), trouble.told.symptom.words()),
        TroubleAt::Breaker(breaker) => format!("Breaker {} tripped", home.panels().number(breaker)),
        TroubleAt::Home => format!("Somewhere in the house: {}", trouble.told.symptom.words()),
    }
}

/// What it turned out to be, with what was noted.
pub(crate) fn trouble_ended(home: &Study, found: Option<&TroubleFound>, note: &str) -> String {
    let words = match found {
        None => "It works again; why it did not is not known".into(),
        Some(found) => {
            let breaker = found.breaker.iter().map(|b| format!("breaker {}", home.panels().number(b)));
            let at: Vec<String> = breaker.chain(found.points.iter().map(|p| home.house().place(p))).collect();
            let what = capital(found.cause.words());
            if at.is_empty() { what } else { format!("{what}: {}", at.join("; ")) }
        }
    };
    if note.is_empty() { words } else { format!("{words}. {note}") }
}

pub(super) fn capital(words: &str) -> String {
    let mut letters = words.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// In percent: never sure, for nothing is proven here.
pub(super) fn percent(p: f64) -> u8 {
    (p * 100.0).round().clamp(0.0, 99.0) as u8
}

struct OpenViews(BTreeMap<TroubleId, TroubleView>);

/// The troubles that are open, as they stand; worked out once.
pub fn open_troubles(home: &Study) -> &BTreeMap<TroubleId, TroubleView> {
    let open = || home.troubles().all().filter(|t| t.is_open());
    &home.once(|| OpenViews(open().filter_map(|t| Some((t.id.clone(), work_out(home, &t.id)?))).collect())).0
}

/// What would be asked and said if this were told.
pub fn trouble_asked(home: &Study, told: Trouble) -> Result<TroubleView, Refusal> {
    let id: TroubleId = "asked".parse().unwrap_or_else(|_| unreachable!("it is an id"));
    let mut supposed = home.home().clone();
    supposed.suppose(&TroubleTold { trouble: id.clone(), told }.into())?;
    let supposed = Study::of(supposed);
    Ok(work_out(&supposed, &id).unwrap_or_else(|| unreachable!("it was told just now")))
}

/// One trouble as it stands; `None` where there is none of that id.
pub fn trouble_view(home: &Study, id: &TroubleId) -> Option<TroubleView> {
    open_troubles(home).get(id).cloned().or_else(|| work_out(home, id))
}

fn work_out(home: &Study, id: &TroubleId) -> Option<TroubleView> {
    let trouble = home.troubles().trouble(id)?;
    let mut view = TroubleView {
        trouble: id.clone(),
        title: trouble_title(home, trouble),
        told: told(home, trouble),
        at: trouble.at,
        over: trouble.ended.as_ref().map(|(_, found, note)| trouble_ended(home, found.as_ref(), note)),
        to_be_mended: trouble.to_be_mended().is_some(),
        stop: None,
        road: Vec::new(),
        next: None,
        named: None,
        causes: Vec::new(),
        seen: Vec::new(),
    };
    let at = at_home(home, trouble);
    let search = searched(&at, trouble);
    view.seen = seen_so_far(home, &at, trouble);
    let next = search.next();
    view.road = road(home, &at, &search.belief);
    view.causes = causes(home, &at, &search.belief);
    if view.over.is_some() {
        return Some(view);
    }
    match next {
        Next::Stop => view.stop = Some(stop_page(home, &at, &search, trouble)),
        Next::Look(look) => {
            view.next = next_look(home, &at, &search, look);
            if view.next.is_none() {
                view.named = Some(name(home, &at, trouble, &search.belief, &search.named()));
            }
        }
        Next::Name(named) => view.named = Some(name(home, &at, trouble, &search.belief, &named)),
    }
    Some(view)
}

/// The search with everything that was seen.
pub(super) fn searched<'a>(at: &'a AtHome, trouble: &KnownTrouble) -> Search<'a> {
    let mut search = Search::new(&at.case);
    // Whatever it was seen at, and whether that is still there or not.
    if !trouble.signs.is_empty() {
        search.see(Look::Safety, Saw::Danger);
    }
    for (told, seen) in &trouble.looks {
        if let Some(look) = at.look(told)
            && let Some(saw) = at.saw(look, &seen.saw)
        {
            search.see(look, saw);
        }
    }
    search
}

fn next_look(home: &Study, at: &AtHome, search: &Search<'_>, look: Look) -> Option<NextLook> {
    let told = at.as_told(look)?;
    Some(said(home, at, look, told, search.seconds(look), decides(home, at, search, look)))
}

/// What each of the two likeliest answers would leave, as sentences.
fn decides(home: &Study, at: &AtHome, search: &Search<'_>, look: Look) -> Vec<String> {
    if look == Look::Safety {
        return Vec::new();
    }
    let words = Words { home, at };
    search
        .after(look)
        .into_iter()
        .take(2)
        .map(|(saw, key, p)| {
            let seen = words.would_show(look, saw);
            format!("After “{seen}” the likeliest is: {} ({} %).", cause_words(&words, key), percent(p))
        })
        .collect()
}

fn told(home: &Study, trouble: &KnownTrouble) -> Vec<String> {
    let told = &trouble.told;
    let mut lines = Vec::new();
    let name = |point: &PointId| home.house().place(point);
    lines.extend(told.also.iter().map(|a| format!("{}: {}", name(&a.point), a.symptom.words())));
    if !told.works.is_empty() {
        let works: Vec<String> = told.works.iter().map(name).collect();
        lines.push(format!("Works: {}", works.join("; ")));
    }
    let load = |id| home.loads().load(id).map(|l| l.name.clone());
    let running: Vec<String> = told.running.iter().filter_map(load).collect();
    if !running.is_empty() {
        lines.push(format!("Ran: {}", crate::model::listed(&running)));
    }
    if let Some(last) = told.last_on.as_ref().and_then(load) {
        lines.push(format!("Switched on last: {last}"));
    }
    lines
}

fn seen_so_far(home: &Study, at: &AtHome, trouble: &KnownTrouble) -> Vec<LookMade> {
    let words = Words { home, at };
    let line = |(told, seen): (&TroubleLook, &SeenAtTrouble)| LookMade {
        words: seen_words(&words, told, seen),
        at: seen.at,
        by: seen.by.clone(),
        line: seen.line.clone(),
    };
    let signs = trouble.signs.iter().rev().map(|(told, seen)| (told, seen));
    signs.chain(trouble.looks.iter().rev()).map(line).collect()
}

/// `Press RESET: Bath, mirror: was tripped; now it works`.
pub(super) fn seen_words(words: &Words<'_>, told: &TroubleLook, seen: &SeenAtTrouble) -> String {
    let what = words.at.look(told).map_or_else(|| "Something that is there no more".into(), |look| words.title(look));
    format!("{}: {}", what.trim_end_matches('?'), words.saw(told, &seen.saw))
}

/// `Bath, mirror: a GFCI has tripped`.
pub(super) fn cause_words(words: &Words<'_>, key: Key) -> String {
    let what = key.cause.words();
    let at = match (key.cause, key.breaker, key.place) {
        (Cause::ShortLoad | Cause::GroundLoad | Cause::Inrush, Some(b), _) => words.breaker(b),
        (Cause::SwitchOff | Cause::Control, ..) => words.reported(),
        (cause, Some(_), Some(p)) if cause.joint() => format!("the joint before {}", words.point(p)),
        (Cause::Double, Some(b), Some(p)) => format!("{}, {}", words.breaker(b), words.point(p)),
        (_, None, Some(p)) => words.point(p),
        (_, Some(b), _) => words.breaker(b),
        (_, None, None) => return what.into(),
    };
    format!("{at}: {what}")
}

/// Causes as they are told apart to a reader: loads of a circuit together.
fn causes(home: &Study, at: &AtHome, belief: &Belief<'_>) -> Vec<CauseLine> {
    let words = Words { home, at };
    let mut by_words: BTreeMap<String, f64> = BTreeMap::new();
    for (key, p) in belief.causes() {
        *by_words.entry(capital(&cause_words(&words, key))).or_default() += p;
    }
    let mut lines: Vec<(String, f64)> = by_words.into_iter().filter(|(_, p)| *p >= 0.005).collect();
    lines.sort_by(|a, b| b.1.total_cmp(&a.1));
    lines.into_iter().map(|(words, p)| CauseLine { words, percent: percent(p) }).collect()
}

/// The way the power comes: each place with how likely it stops there.
fn road(home: &Study, at: &AtHome, belief: &Belief<'_>) -> Vec<RoadStop> {
    let words = Words { home, at };
    let mut stops: Vec<(RoadStop, f64)> = Vec::new();
    // The words are those of the likeliest cause there.
    let mut put = |kind: RoadKind, place: String, breaker: Option<usize>, holds: &dyn Fn(Key) -> bool| {
        let p = belief.sum(holds);
        let what = likeliest_of(belief, holds).map_or("", Cause::words);
        let id = breaker.and_then(|b| at.breakers.get(b).cloned().flatten());
        let number = breaker.and_then(|b| words.number(b)).unwrap_or_default();
        stops.push((RoadStop { kind, place, what: what.into(), percent: percent(p), breaker: id, number }, p));
    };
    let house = |k: Key| k.breaker.is_none() && k.place.is_none();
    put(RoadKind::Utility, "Utility, service and main".into(), None, &house);
    let causes = belief.causes();
    let mut feeders: Vec<usize> = causes
        .iter()
        .filter(|(k, _)| matches!(k.cause, Cause::FeederOff | Cause::FeederLeg))
        .filter_map(|(k, _)| k.breaker)
        .collect();
    feeders.sort_unstable();
    feeders.dedup();
    for feeder in feeders {
        put(RoadKind::Feeder, format!("Feeder, {}", words.breaker(feeder)), Some(feeder), &|k| {
            k.breaker == Some(feeder) && matches!(k.cause, Cause::FeederOff | Cause::FeederLeg)
        });
    }
    let at_breaker = |k: Key| !k.cause.joint() && !matches!(k.cause, Cause::FeederOff | Cause::FeederLeg);
    let mut breakers: BTreeMap<usize, f64> = BTreeMap::new();
    for (key, p) in causes.iter().filter(|(k, _)| at_breaker(*k)) {
        if let Some(b) = key.breaker {
            *breakers.entry(b).or_default() += p;
        }
    }
    let mut breakers: Vec<(usize, f64)> = breakers.into_iter().collect();
    breakers.sort_by(|a, b| b.1.total_cmp(&a.1));
    // The likeliest always stands there: without it there is no road. Others only where they matter.
    for (breaker, _) in breakers.iter().enumerate().filter(|(n, (_, p))| *n == 0 || *p >= 0.02).map(|(_, b)| b).take(3) {
        let place = capital(&words.breaker(*breaker));
        put(RoadKind::Breaker, place, Some(*breaker), &|k| k.breaker == Some(*breaker) && at_breaker(k));
    }
    let mut gfcis: Vec<usize> = causes
        .iter()
        .filter(|(k, p)| matches!(k.cause, Cause::GfciTripped | Cause::GfciDead) && *p >= 0.005)
        .filter_map(|(k, _)| k.place)
        .collect();
    gfcis.sort_unstable();
    gfcis.dedup();
    for gfci in gfcis {
        put(RoadKind::Gfci, words.point(gfci), None, &|k| {
            k.place == Some(gfci) && matches!(k.cause, Cause::GfciTripped | Cause::GfciDead)
        });
    }
    let joints = belief.sum(|k| k.cause.joint());
    if joints >= 0.005 {
        let mut boxes: BTreeMap<PowerBox, f64> = BTreeMap::new();
        for family in [Family::NoPowerPast, Family::BadJoint] {
            for (place, p) in belief.boxes_of_joints(family) {
                *boxes.entry(place).or_default() += p;
            }
        }
        let mut likely: Vec<(PowerBox, f64)> = boxes.into_iter().collect();
        likely.sort_by(|a, b| b.1.total_cmp(&a.1));
        let names: Vec<String> = likely.iter().take(3).map(|(place, _)| box_words(&words, *place)).collect();
        put(RoadKind::Joint, "A joint on the way".into(), None, &|k| k.cause.joint());
        if let Some((stop, _)) = stops.last_mut() {
            stop.what = format!("{}; first: {}", stop.what, names.join("; "));
        }
    }
    let mut put = |kind: RoadKind, place: String, holds: &dyn Fn(Key) -> bool, always: bool| {
        let p = belief.sum(holds);
        let what = likeliest_of(belief, holds).map_or("", Cause::words);
        if p >= 0.005 || always {
            let stop = RoadStop { kind, place, what: what.into(), percent: percent(p), breaker: None, number: String::new() };
            stops.push((stop, p));
        }
    };
    put(RoadKind::Switch, "Its switch".into(), &|k| matches!(k.cause, Cause::SwitchOff | Cause::Control), false);
    let itself = |k: Key| matches!(k.cause, Cause::Lamp | Cause::Cord | Cause::Cutout);
    let stands_for = at.points[at.case.report.point].is_none();
    put(RoadKind::Itself, words.reported(), &itself, !stands_for);
    let ends = [RoadKind::Breaker, RoadKind::Itself];
    stops.into_iter().filter(|(stop, p)| *p >= 0.005 || ends.contains(&stop.kind)).map(|(stop, _)| stop).collect()
}

/// The likeliest cause of those for which this holds, its places taken together.
fn likeliest_of(belief: &Belief<'_>, holds: &dyn Fn(Key) -> bool) -> Option<Cause> {
    let mut sums: BTreeMap<Cause, f64> = BTreeMap::new();
    for (key, p) in belief.causes().into_iter().filter(|(k, _)| holds(*k)) {
        *sums.entry(key.cause).or_default() += p;
    }
    sums.into_iter().max_by(|a, b| a.1.total_cmp(&b.1)).map(|(cause, _)| cause)
}

pub(super) fn box_words(words: &Words<'_>, place: PowerBox) -> String {
    match place {
        PowerBox::Panel => "the panel".into(),
        PowerBox::Point(point) => words.point(point),
    }
}
