//! The ways to a wish in a home, in words.

use std::collections::BTreeMap;

use indexmap::IndexSet;
use serde::Serialize;

use super::as_job;
use super::costs::{home_costs, off_minutes};
use super::leanest::Asked;
use super::make_room;
use super::of_home::{Hopes, SUB_FEEDER_AMPS};
use super::one_way;
use super::problem::*;
use super::sheet::{PartLine, brings_finding, no_sheet, parts};
use super::to_read::ToRead;
use super::way_words::risks;
use super::wish::HomeWish;
use crate::loads::{NewLoad, NewLoadKind, service_view, usual_method};
use crate::model::{BreakerId, Job, JobMove, Panel, PanelId, Side};
use crate::panel::{PanelView, panel_view};
use crate::study::Study;

/// How many pairs of circuits are tried in turn, where joining one brings a finding.
const MOST_PAIRS: usize = 4;

/// How many steps the search for another pair takes at most.
const FEW_STEPS: u64 = 20_000;

/// How sure a way is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WayStands {
    /// It rests on nothing that is not read.
    Sure,
    /// It could be one, once something is read.
    Read,
    /// There is none.
    No,
}

/// A kind of way in words.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct WayLine {
    /// `Moving breakers`.
    pub name: &'static str,
    /// How sure it is.
    pub stands: WayStands,
    /// Which way is to be preferred: the fewer the better, in hundredths of a point; `null` where there is none.
    pub cost: Option<i64>,
    /// By how many percent it may be beaten by another plan of its kind; `null` where it is proven to be the cheapest.
    pub within_percent: Option<f64>,
    /// Minutes, by the crew's own pace or by the usual figures.
    pub minutes: Option<i64>,
    /// Of these minutes those with the main off, about.
    pub off_minutes: Option<i64>,
    /// Money, by the owner's price list; `null` where there is none or it is not whole.
    pub money: Option<i64>,
    /// Whether the panel is opened, with the main off.
    pub opens_panel: bool,
    /// Its steps, in order.
    pub steps: Vec<String>,
    /// What has to be read first, one by one.
    pub unread: Vec<ToRead>,
    /// Why there is none; empty where there is one.
    pub why_not: String,
    /// Marks of risk, each for a thing named beside them.
    pub risk: i64,
    /// What they count.
    pub risks: String,
    /// The breakers that it touches, by number: each can be ruled out.
    pub touches: Vec<Touched>,
    /// Its job, where a sheet can be made of it.
    pub job: Option<Job>,
    /// Why no sheet can be made of it; empty where one can.
    pub no_sheet: String,
    /// The panel as it would be.
    pub after: Option<PanelView>,
    /// What each leg would carry by what is known of loads; empty where nothing is.
    pub legs: String,
    /// What to take along.
    pub parts: Vec<PartLine>,
}

/// A breaker that a way touches.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Touched {
    /// The breaker.
    pub breaker: BreakerId,
    /// Its number.
    pub number: String,
}

/// Another panel that has an open space for what is wished for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct Elsewhere {
    /// Its id.
    pub panel: PanelId,
    /// In a sentence.
    pub words: String,
}

/// The ways to a wish.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct WorkView {
    /// What it comes to, as a sentence.
    pub title: String,
    /// The panel.
    pub panel: String,
    /// Its id.
    pub panel_id: PanelId,
    /// The wish, in words.
    pub wish: String,
    /// The panel as it is.
    pub now: PanelView,
    /// What each leg carries by what is known of loads; empty where nothing is.
    pub legs: String,
    /// What the service comes to with the new load; empty where none is said.
    pub service: String,
    /// Other panels that have an open space for it.
    pub elsewhere: Vec<Elsewhere>,
    /// Breakers that are ruled out, and may be let in again.
    pub ruled_out: Vec<Touched>,
    /// What to mind, whichever way is taken.
    pub cautions: Vec<String>,
    /// How money is written; empty where none is shown.
    pub currency: String,
    /// Every kind of way, those that are sure first, the best on top.
    pub ways: Vec<WayLine>,
}

/// The ways to a wish on a panel; `not`: breakers that are not to be touched.
///
/// # Errors
/// A sentence: what has to be read before anything can be said, or what cannot be wished for.
pub fn work_view(home: &Study, panel: &Panel, wish: &HomeWish, not: &[BreakerId], most_steps: u64) -> Result<WorkView, String> {
    let asked = Asked { home, panel, wish, not };
    let (as_read, as_hoped) = (asked.problem(&Hopes::default())?, asked.problem(&Hopes::all())?);
    let ways = |problem: &Problem| {
        make_room(problem, most_steps).map_err(|why| format!("“{}” is not looked at here: {why}.", panel.name))
    };
    let (sure, hoped) = (ways(&as_read)?, ways(&as_hoped)?);
    let costs = home_costs(home);
    let said = Said { home, panel, wish, currency: &costs.currency, asked: &asked };
    let mut ways: Vec<WayLine> = Way::ALL.into_iter().map(|way| said.way(way, &sure.ways, &hoped.ways, &as_hoped)).collect();
    // Two circuits are made one by joining them, and by nothing else.
    if *wish == HomeWish::Combine {
        let of_it = [Way::Join, Way::Tap, Way::Electrician].map(|way| said.name(way));
        ways.retain(|line| of_it.contains(&line.name));
    }
    let by_hand = |line: &&WayLine| line.name != said.name(Way::Electrician);
    let rank = |line: &WayLine| match line.stands {
        WayStands::Sure if by_hand(&line) => 0,
        WayStands::Read => 1,
        WayStands::Sure => 2,
        WayStands::No => 3,
    };
    ways.sort_by_key(|line| (rank(line), line.cost));
    let wished = wish.words(home);
    let things = |line: &WayLine| if line.unread.len() == 1 { "one thing is" } else { "a few things are" };
    let makes_room = matches!(wish, HomeWish::Circuit { .. } | HomeWish::Spaces { .. });
    let title = match ways.first().filter(by_hand) {
        Some(line) if line.stands == WayStands::Sure && line.opens_panel && makes_room => {
            format!("{} makes room for {wished}.", line.name)
        }
        Some(line) if line.stands == WayStands::Sure => format!("{}: {wished}.", line.name),
        Some(line) if line.stands == WayStands::Read && !line.opens_panel => {
            format!("Whether anything has to be done about {wished} is not known yet: read what the circuits carry.")
        }
        Some(line) if line.stands == WayStands::Read && makes_room => {
            format!("{} may make room for {wished}, once {} read.", line.name, things(line))
        }
        Some(line) if line.stands == WayStands::Read => format!("{}, once {} read: {wished}.", line.name, things(line)),
        _ => format!("Ask an electrician about {wished}: nothing else is left."),
    };
    let mut cautions: Vec<String> = vec![
        "Work in a panel is for qualified people, with a permit where the local code wants one. The line-side lugs stay live with the \
         main off; prove dead with a meter that was tried on a live source before and after."
            .into(),
        "A space of which nothing is recorded counts as open, and what protection a place asks for is not looked at here: look at the \
         panel, and read its label for the types that it names."
            .into(),
    ];
    if matches!(said.wish, HomeWish::Circuit { .. }) {
        cautions.push("Whether the service takes the new load is said by the service calculation.".into());
    }
    if matches!(said.wish, HomeWish::Replace { two_pole: true, .. }) {
        cautions.push(
            "From 120 V to 240 V: open every box on the way first; nothing but that one outlet may be on it. The white wire becomes a \
             hot and is re-marked at both ends; the receptacle is changed for one of 240 V."
                .into(),
        );
    }
    cautions.push(costs.words);
    let touched = |id: &BreakerId| Touched { breaker: id.clone(), number: home.panels().number(id) };
    Ok(WorkView {
        title,
        panel: panel.name.clone(),
        panel_id: panel.id.clone(),
        wish: wished,
        now: panel_view(home, &panel.id).cloned().ok_or("That panel is not there any more.")?,
        legs: as_job::legs(home, panel, |_| 0.0),
        service: with_new_load(home, wish),
        elsewhere: elsewhere(home, panel, wish, most_steps),
        ruled_out: not.iter().filter(|id| home.panels().breaker(id).is_some()).map(touched).collect(),
        cautions,
        currency: costs.currency,
        ways,
    })
}

/// The other panels in which an open space would do.
fn elsewhere(home: &Study, panel: &Panel, wish: &HomeWish, most_steps: u64) -> Vec<Elsewhere> {
    if !matches!(wish, HomeWish::Circuit { .. } | HomeWish::Spaces { .. }) {
        return Vec::new();
    }
    let has_room = |other: &&Panel| {
        let asked = Asked { home, panel: other, wish, not: &[] };
        let found = asked.problem(&Hopes::all()).and_then(|problem| one_way(&problem, Way::Open, most_steps));
        matches!(found, Ok(Found::Plan { .. }))
    };
    let others = home.panels().all().filter(|other| other.id != panel.id).filter(has_room);
    others
        .map(|other| Elsewhere { panel: other.id.clone(), words: format!("“{}” has an open space for it.", other.name) })
        .collect()
}

/// What the service comes to with the new load, in a sentence.
fn with_new_load(home: &Study, wish: &HomeWish) -> String {
    let HomeWish::Circuit { poles, takes: Some(takes), .. } = wish else { return String::new() };
    let volts = if *poles == 2 { 240 } else { 120 };
    let new = NewLoad { kind: NewLoadKind::Fixed, va: takes * volts, volts };
    let view = service_view(home, usual_method(home), Some(new));
    match view.with_new_amps {
        Some(amps) if view.unread.is_empty() => {
            format!("By the service calculation it comes to {amps} A, today {} A.", view.today_amps)
        }
        Some(amps) => format!(
            "By the service calculation it comes to {amps} A, today {} A; not read yet: {}.",
            view.today_amps,
            view.unread.join(", ")
        ),
        None => String::new(),
    }
}

pub(super) struct Said<'a> {
    pub(super) home: &'a Study,
    pub(super) panel: &'a Panel,
    pub(super) wish: &'a HomeWish,
    /// How money is written; empty where none is shown.
    pub(super) currency: &'a str,
    pub(super) asked: &'a Asked<'a>,
}

impl Said<'_> {
    /// The name of a way; a breaker that is replaced needs no open space.
    const fn name(&self, way: Way) -> &'static str {
        match (way, self.wish) {
            (Way::Open, HomeWish::Replace { .. }) => "In its own place",
            (way, _) => way.name(),
        }
    }

    /// A way by what is read, or else by what is hoped.
    fn way(&self, way: Way, sure: &BTreeMap<Way, Found>, hoped: &BTreeMap<Way, Found>, as_hoped: &Problem) -> WayLine {
        let passive = matches!(way, Way::Nothing | Way::Electrician);
        // The upper ends of the loads say that a leg is light enough, but not which of them is heavier. Whether a tandem fits is seen by
        // its notch, and what a panel that feeds this one carries is not counted here.
        let may_be_sure = passive || *self.wish != HomeWish::Level && way != Way::Tandem && !self.adds_to_a_feeder();
        let (plan, stands) = match (&sure[&way], &hoped[&way]) {
            (plan @ Found::Plan { .. }, _) if may_be_sure => (plan, WayStands::Sure),
            (_, plan @ Found::Plan { .. }) => (plan, WayStands::Read),
            (_, Found::None { reason: NoWay::QuadNotListed }) => {
                return self.none(way, "quads go where tandems go, and the label lists no space for those");
            }
            // Nothing is read of slim ones but those that are there.
            (_, Found::None { .. }) if way == Way::Slim => {
                return self.none(way, "slim two-poles are not looked at: the label of the panel says whether it takes any");
            }
            (_, Found::None { reason }) => return self.none(way, reason.words()),
        };
        let Found::Plan { moves, .. } = plan else { return self.none(way, "") };
        if way == Way::Nothing && self.is_like_for_like() {
            return self.none(way, "a new breaker of the same kind is wished for");
        }
        let among = [sure, hoped].into_iter().flatten();
        if !passive && among.filter(|(other, _)| **other != way).any(|(other, found)| self.is_part(*other, found, moves)) {
            return self.none(way, "another way does the same with a part of its moves");
        }
        let (plan, hopes) = match stands {
            WayStands::Read if !passive => self.asked.leanest(way, plan, &|plan, hopes| self.asks(way, plan, hopes)),
            WayStands::Read => (plan.clone(), Hopes::all()),
            _ => (plan.clone(), Hopes::default()),
        };
        let plan = match self.held_against_the_checks(way, plan, &hopes) {
            Ok(plan) => plan,
            Err(why) => return self.none(way, &why),
        };
        let Found::Plan { cost, moves, effort, at_least } = &plan else { return self.none(way, "") };
        let within = |least: i64| (100.0 * (cost - least) as f64 / (*cost).max(1) as f64).ceil();
        let unread = if stands == WayStands::Read { self.to_read(way, moves, &hopes) } else { Vec::new() };
        // A sheet asks for what it can; what decides whether this is a way at all comes before there is one.
        let may_begin = stands == WayStands::Sure || !unread.is_empty() && unread.iter().all(|one| one.on_the_sheet);
        let as_job = self.as_job(way, moves, may_begin, as_hoped.sub);
        WayLine {
            name: self.name(way),
            stands,
            cost: Some(*cost),
            within_percent: at_least.map(within),
            minutes: Some(effort[0]),
            off_minutes: moves.contains(&Move::Open).then(|| off_minutes(effort[0], moves, &as_hoped.costs)),
            money: (!self.currency.is_empty()).then_some(effort[1]),
            opens_panel: moves.contains(&Move::Open),
            steps: moves.iter().filter_map(|change| self.step(change)).collect(),
            unread,
            why_not: String::new(),
            risk: effort[2],
            risks: risks(moves),
            ..as_job
        }
    }

    /// The plan, or the next best that brings no finding; why there is none, where each brings one.
    fn held_against_the_checks(&self, way: Way, mut plan: Found, hopes: &Hopes) -> Result<Found, String> {
        let mut not = self.asked.not.to_vec();
        loop {
            let Found::Plan { moves, .. } = &plan else { return Ok(plan) };
            let brings = self.job_moves(moves).and_then(|moves| brings_finding(self.home, &self.panel.id, &moves));
            let Some(brings) = brings else { return Ok(plan) };
            let why = format!("afterwards this would be so: {}", brings.trim_end_matches('.'));
            // Another pair of circuits may do; whatever else is moved is there on account of the wish.
            let guest = moves.iter().find_map(|change| match change {
                Move::Join { circuit, .. } | Move::Tap { circuit, .. } => self.breaker(circuit),
                _ => None,
            });
            let Some((guest, _)) = guest.filter(|_| not.len() < self.asked.not.len() + MOST_PAIRS) else { return Err(why) };
            not.push(guest);
            let problem = Asked { not: &not, ..*self.asked }.problem(hopes);
            match problem.and_then(|problem| one_way(&problem, way, FEW_STEPS)) {
                Ok(next @ Found::Plan { .. }) => plan = next,
                _ => return Err(why),
            }
        }
    }

    fn job_moves(&self, plan: &[Move]) -> Option<Vec<JobMove>> {
        as_job::job_moves(self.home, self.panel, self.wish, plan, SUB_FEEDER_AMPS)
    }

    /// The plan as a job, with the panel after it.
    fn as_job(&self, way: Way, plan: &[Move], may_begin: bool, sub: Option<SubOf>) -> WayLine {
        let mut line = self.none(Way::Nothing, "");
        let mut touches: IndexSet<BreakerId> = IndexSet::new();
        for change in plan {
            let circuits: &[&String] = match change {
                Move::TakeOut { circuit } | Move::Lift { circuit } | Move::Land { circuit, .. } | Move::Reland { circuit } => {
                    &[circuit]
                }
                Move::Join { circuit, to } | Move::Tap { circuit, to } => &[circuit, to],
                _ => &[],
            };
            touches.extend(circuits.iter().filter_map(|circuit| self.breaker(circuit)).map(|(id, _)| id));
        }
        // What is wished for is about the one breaker: it cannot be ruled out.
        if let HomeWish::Replace { breaker, .. } = self.wish {
            touches.shift_remove(breaker);
        }
        line.touches =
            touches.into_iter().map(|breaker| Touched { number: self.home.panels().number(&breaker), breaker }).collect();
        let Some(moves) = self.job_moves(plan) else { return line };
        let takes = if let HomeWish::Circuit { takes, .. } = self.wish { *takes } else { None };
        line.parts = parts(self.home, self.panel, &moves);
        if let Some(after) = as_job::after(self.home, self.panel, &moves, takes) {
            line.legs = after.legs;
            line.after = Some(after.panel);
        }
        // What goes over is on the feeder then; the sheet is of the feeder alone.
        if let Some(sub) = sub.filter(|_| plan.contains(&Move::Sub)) {
            line.legs.clear();
            line.parts
                .insert(0, PartLine { what: format!("Sub-panel of {} spaces, with a bar for grounds", sub.spaces), count: 1 });
            line.no_sheet =
                "Its feeder has a job sheet of its own, in the list below. For what goes over to the sub-panel there is none: \
                 call an electrician for that."
                    .into();
            return line;
        }
        // Its handles are one body over two spaces: the record has no job that puts one in.
        if way == Way::Quad {
            let quads: IndexSet<(usize, usize)> = plan
                .iter()
                .filter_map(|change| match change {
                    Move::Land { column, row, shape: Shape::Inner | Shape::Outer, .. } => Some((*column, *row)),
                    _ => None,
                })
                .collect();
            line.parts.retain(|part| !part.what.starts_with("Tandem"));
            let what = "Quad breaker with the handles of these steps, of a type that the label names".to_owned();
            line.parts.insert(0, PartLine { what, count: quads.len().max(1) });
            line.no_sheet = "For a quad there is no job sheet: call an electrician for it.".into();
            return line;
        }
        let job = as_job::job(self.panel, moves);
        if !may_begin {
            line.no_sheet = "No job sheet yet: read what stands above, enter it where it belongs, and search again.".into();
            return line;
        }
        match no_sheet(self.home, &job) {
            Some(why) => line.no_sheet = why,
            None => line.job = Some(job),
        }
        line
    }

    /// Whether this other plan is made of a part of these moves.
    fn is_part(&self, other: Way, found: &Found, moves: &[Move]) -> bool {
        let Found::Plan { moves: part, .. } = found else { return false };
        // An open space is not what is wished for where two circuits are to be one.
        if *self.wish == HomeWish::Combine && !matches!(other, Way::Join | Way::Tap) {
            return false;
        }
        let counts = other != Way::Electrician && !(other == Way::Nothing && self.is_like_for_like());
        counts && part.len() < moves.len() && part.iter().all(|change| moves.contains(change))
    }

    fn none(&self, way: Way, why_not: &str) -> WayLine {
        WayLine {
            name: self.name(way),
            stands: WayStands::No,
            cost: None,
            within_percent: None,
            minutes: None,
            off_minutes: None,
            money: None,
            opens_panel: false,
            steps: Vec::new(),
            unread: Vec::new(),
            why_not: why_not.into(),
            risk: 0,
            risks: String::new(),
            touches: Vec::new(),
            job: None,
            no_sheet: String::new(),
            after: None,
            legs: String::new(),
            parts: Vec::new(),
        }
    }

    /// The wish brings load to a panel that another one feeds.
    pub(super) fn adds_to_a_feeder(&self) -> bool {
        matches!(self.wish, HomeWish::Circuit { .. }) && self.panel.details.fed_by.is_some()
    }

    /// A breaker is to be replaced by one of the same kind.
    fn is_like_for_like(&self) -> bool {
        let HomeWish::Replace { breaker, amps, protection, two_pole } = self.wish else { return false };
        self.home.panels().breaker(breaker).is_some_and(|is| {
            !two_pole
                && amps.is_none_or(|amps| amps == is.amps.value().round() as i64)
                && protection.is_none_or(|guard| guard == Guard::from(is.protection))
        })
    }

    pub(super) fn side(&self, column: usize) -> Side {
        let has = |side: Side| (0..self.panel.rows()).any(|row| self.panel.space_at(side, row).is_some());
        [Side::Left, Side::Right].into_iter().filter(|side| has(*side)).nth(column).unwrap_or(Side::Left)
    }

    /// The number of a place: `12a`, `5-7`.
    pub(super) fn place(&self, column: usize, row: usize, shape: Shape, poles: usize) -> String {
        let space = |row: usize| {
            let space = self.panel.space_at(self.side(column), u8::try_from(row).unwrap_or(u8::MAX));
            space.map_or_else(String::new, |space| space.to_string())
        };
        match shape {
            Shape::Upper => format!("{}a", space(row)),
            Shape::Lower => format!("{}b", space(row)),
            Shape::Full => (0..poles).map(|n| space(row + n)).collect::<Vec<_>>().join("-"),
            Shape::Inner => format!("{}b-{}a", space(row), space(row + 1)),
            Shape::Outer => format!("{}a-{}b", space(row), space(row + 1)),
        }
    }

    pub(super) fn breaker(&self, id: &str) -> Option<(BreakerId, String)> {
        let breaker = self.home.panels().breakers_of(&self.panel.id).find(|breaker| breaker.id.to_string() == id)?;
        Some((breaker.id.clone(), self.home.panels().number(&breaker.id)))
    }

    pub(super) fn poles(&self, circuit: &str) -> usize {
        match (circuit, self.wish) {
            ("new", HomeWish::Circuit { poles, .. }) => *poles,
            ("feeder", _) => 2,
            ("gap", HomeWish::Spaces { count }) => *count,
            (id, HomeWish::Replace { breaker, two_pole: true, .. }) if breaker.to_string() == id => 2,
            (id, _) => {
                let known = self.home.panels().breakers_of(&self.panel.id).find(|breaker| breaker.id.to_string() == id);
                known.map_or(1, crate::model::Breaker::poles)
            }
        }
    }

    fn called(&self, circuit: &str) -> String {
        match circuit {
            "new" => "the new circuit".into(),
            id => self.breaker(id).map_or_else(|| id.to_owned(), |(_, number)| number),
        }
    }

    fn step(&self, change: &Move) -> Option<String> {
        Some(match change {
            Move::Open => "Main off, cover off, dead proven at what is touched.".into(),
            Move::Close => "Cover on, power up breaker by breaker, the card made new.".into(),
            Move::TakeOut { circuit } => format!("Take the spare breaker {} out.", self.called(circuit)),
            Move::Lift { circuit } => format!("Take the wire off {}, tag it, cap it.", self.called(circuit)),
            Move::Land { circuit, column, row, shape, .. } if circuit == "gap" => {
                format!("{} is open then.", self.place(*column, *row, *shape, self.poles(circuit)))
            }
            Move::Land { circuit, column, row, shape, flip } => {
                let to = self.place(*column, *row, *shape, self.poles(circuit));
                let flip = if *flip { ", its two hots exchanged" } else { "" };
                match circuit.as_str() {
                    "feeder" => format!("Land the feeder of the sub-panel at {to}."),
                    "new" => format!("Land the new circuit at {to}."),
                    id if matches!(self.wish, HomeWish::Replace { breaker, .. } if breaker.to_string() == id) => {
                        let number = self.called(id);
                        if number == to {
                            format!("Put the new breaker in at {to}.")
                        } else {
                            format!("Take breaker {number} out, and land its wires on the new one at {to}.")
                        }
                    }
                    id => format!("Move {} to {to}{flip}.", self.called(id)),
                }
            }
            Move::Reland { circuit } => format!("Land {} again in its place, on the new breaker.", self.called(circuit)),
            Move::Join { circuit, to } => {
                format!("Join {} to {}: splice both with one pigtail to its breaker.", self.called(circuit), self.called(to))
            }
            Move::Tap { circuit, to } => {
                format!(
                    "Put the wire of {} under the terminal of {}, to the torque of its label.",
                    self.called(circuit),
                    self.called(to)
                )
            }
            Move::Use { circuit } => format!("Use {} as it is.", self.called(circuit)),
            Move::Call => "Call an electrician.".into(),
            Move::Sub => "Hang the sub-panel and bring its feeder to it: four wires, neutral and ground apart in it.".into(),
            Move::ToSub { circuit, .. } if circuit == "new" => "Land the new circuit in the sub-panel.".into(),
            Move::ToSub { circuit, .. } => {
                format!("Take {} over to the sub-panel: its cable, or a splice for each of its wires.", self.called(circuit))
            }
        })
    }
}
