//! What a plan rests on that nobody has read, each with what can be answered on the spot.

use std::collections::BTreeSet;

use serde::Serialize;

use super::of_home::{Hope, Hopes, load_of};
use super::problem::*;
use super::said::Said;
use super::wish::HomeWish;
use crate::logbook::{BreakerPlaced, Fact, PanelDescribed};
use crate::model::{
    ACROSS, Breaker, BreakerDetails, Cable, Metal, PanelDetails, Tandems, Terminals, Wire, WireGauge, listed, position, so_many,
};
use crate::trace::on_breaker;

/// Something that has to be read first.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct ToRead {
    /// `the wire on 16`.
    pub words: String,
    /// The job sheet asks for it with a stop of its own, before anything is switched off.
    pub on_the_sheet: bool,
    /// It is seen with the cover off.
    pub cover_off: bool,
    /// What it can be, each as the line to record; empty where it is read elsewhere.
    pub choices: Vec<ReadChoice>,
    /// Where it is entered, where not here.
    pub page: Option<ReadPage>,
    /// Where it is said in the wish: the wish as far as to the figure, `20 A one-pole for the saw that takes `.
    pub wish: String,
}

/// One of the things that can be read.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct ReadChoice {
    /// `two`.
    pub words: String,
    /// What is recorded then.
    pub fact: Fact,
}

/// Where something is entered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ReadPage {
    /// By tracing.
    Trace,
    /// As loads.
    Loads,
    /// On the sheet of the service.
    Service,
}

fn first(words: impl Into<String>) -> ToRead {
    ToRead { words: words.into(), on_the_sheet: false, cover_off: false, choices: Vec::new(), page: None, wish: String::new() }
}

fn on_the_sheet(words: impl Into<String>) -> ToRead {
    ToRead { on_the_sheet: true, ..first(words) }
}

fn entered(page: ReadPage, words: impl Into<String>) -> ToRead {
    ToRead { page: Some(page), ..first(words) }
}

/// A line about a breaker in which one of its details is read.
fn detail(breaker: &Breaker, words: impl Into<String>, read: impl Fn(&mut BreakerDetails)) -> ReadChoice {
    let mut details = breaker.details.clone();
    read(&mut details);
    ReadChoice { words: words.into(), fact: BreakerPlaced { details, ..BreakerPlaced::from(breaker) }.into() }
}

/// How many wires are under its terminal.
fn under(breaker: &Breaker, number: &str) -> ToRead {
    let choices = [("one", 1), ("two", 2), ("three or more", 3)]
        .map(|(words, under)| detail(breaker, words, |details| details.terminal.under = Some(under)));
    let words = format!("how many wires are under the terminal of {number}");
    ToRead { cover_off: true, choices: choices.into(), ..first(words) }
}

/// The wire on it.
fn wire(breaker: &Breaker, number: &str) -> ToRead {
    let copper = ["14", "12", "10", "8", "6", "4", "3", "2", "1"].map(|gauge| (gauge, Metal::Copper, "copper"));
    let aluminum = ["12", "10", "8", "6", "4", "2", "1"].map(|gauge| (gauge, Metal::Aluminum, "aluminum"));
    let choice = |(gauge, metal, name): (&str, Metal, &str)| {
        let wire = Wire { gauge: WireGauge::named(gauge)?, metal, terminals: Terminals::Unread, cable: Cable::NotRead };
        let fact = BreakerPlaced { wire: Some(wire), ..BreakerPlaced::from(breaker) }.into();
        Some(ReadChoice { words: format!("{gauge} {name}"), fact })
    };
    let choices = copper.into_iter().chain(aluminum).filter_map(choice).collect();
    ToRead { cover_off: true, choices, ..first(format!("the wire on {number}")) }
}

impl Said<'_> {
    /// What a plan rests on that nobody has read; `hopes`: what it cannot do without.
    pub(super) fn to_read(&self, way: Way, moves: &[Move], hopes: &Hopes) -> Vec<ToRead> {
        self.lines(way, moves, hopes).lines
    }

    /// Of what it is hoped that it is read and good.
    pub(super) fn asks(&self, way: Way, plan: &Found, hopes: &Hopes) -> BTreeSet<Hope> {
        match plan {
            Found::Plan { moves, .. } => self.lines(way, moves, hopes).asked,
            Found::None { .. } => BTreeSet::new(),
        }
    }

    fn lines<'h>(&self, way: Way, moves: &[Move], hopes: &'h Hopes) -> Lines<'h> {
        let mut all = Lines { way, hopes, lines: Vec::new(), asked: BTreeSet::new() };
        let mut loads = *self.wish == HomeWish::Level;
        for change in moves {
            match change {
                Move::Land { circuit, column, row, shape, .. } => {
                    loads |= circuit != "gap";
                    self.of_landed(circuit, (*column, *row, *shape), &mut all);
                }
                Move::Join { circuit, to } | Move::Tap { circuit, to } => {
                    loads = true;
                    self.of_combined(change, circuit, to, &mut all);
                }
                Move::Sub => {
                    loads = true;
                    let place = "where the sub-panel can hang, with clear space before it, and how far its feeder runs";
                    all.always(first(place));
                    let takes_it = "that the service takes it: the service calculation, and an electrician";
                    all.always(entered(ReadPage::Service, takes_it));
                }
                _ => {}
            }
        }
        if let HomeWish::Circuit { protection, amps, poles, .. } = self.wish
            && *protection != Guard::Standard
        {
            let pole = if *poles == 2 { "two-pole" } else { "one-pole" };
            let words = format!("whether the label names a {pole} breaker of {amps} A with the protection wished for");
            all.hoped(Hope::Label, on_the_sheet(words));
        }
        if self.panel.details.circuits.is_none() {
            all.hoped(Hope::Listed, self.listed_for());
        }
        if let Some(wish) = self.wish.up_to_what_it_takes().filter(|_| loads) {
            all.hoped(Hope::Takes, ToRead { wish, ..first("what the new circuit takes, by its plate") });
        }
        if self.adds_to_a_feeder() {
            all.always(entered(ReadPage::Loads, "what the panel that feeds this one carries"));
        }
        match self.wish {
            HomeWish::Replace { breaker, amps, two_pole, .. } => {
                // Of the same rating it carries what it carried.
                let rated = self.home.panels().breaker(breaker).map_or(0.0, |known| known.amps.value());
                if *two_pole || amps.is_some_and(|amps| (amps as f64) < rated) {
                    let words = format!("what {} carries", self.home.panels().number(breaker));
                    all.hoped(Hope::Loads, entered(ReadPage::Loads, words));
                }
            }
            _ if loads => all.hoped(Hope::Loads, entered(ReadPage::Loads, self.which_loads(hopes))),
            _ => {}
        }
        all
    }

    /// What is to be known of a circuit that is landed somewhere.
    fn of_landed(&self, circuit: &str, (column, row, shape): (usize, usize, Shape), all: &mut Lines<'_>) {
        let details = &self.panel.details;
        let to = self.place(column, row, shape, self.poles(circuit));
        if all.way == Way::Quad && shape != Shape::Full {
            let words = "whether the label names such a quad for these spaces, its type and its interrupting rating";
            all.always(first(words));
        } else if shape != Shape::Full {
            all.always(on_the_sheet("whether such a tandem fits: the notch of the space, its type and its interrupting rating"));
            if details.tandems == Tandems::NotRead {
                let space = to.trim_end_matches(['a', 'b']);
                all.hoped(Hope::Tandems, on_the_sheet(format!("whether the label lists {space} for a tandem")));
            }
        }
        let Some((id, number)) = self.breaker(circuit) else { return };
        let Some(breaker) = self.home.panels().breaker(&id) else { return };
        let home = breaker.at.first().and_then(|slot| position(self.panel, slot.space));
        let (side, row) = (self.side(column), u8::try_from(row).unwrap_or(u8::MAX));
        if home != Some((side, row)) && breaker.details.slack.is_none() {
            let rows = home.map_or(0, |(from, was)| was.abs_diff(row) + if from == side { 0 } else { ACROSS as u8 });
            self.slack(breaker, &number, &to, rows, all);
        }
        if home != Some((side, row)) {
            self.splices(all);
        }
        if shape != Shape::Full && breaker.details.terminal.under.is_none() {
            // A tandem's terminals take one wire.
            all.always(under(breaker, &number));
        }
        if matches!(self.wish, HomeWish::Replace { breaker, .. } if *breaker == id) {
            self.of_replaced(breaker, &number, all);
        }
    }

    /// How far a wire reaches: to where it has to come, or less.
    fn slack(&self, breaker: &Breaker, number: &str, to: &str, rows: u8, all: &mut Lines<'_>) {
        let mut spaces = vec![0, 1, 2, 3, 4, 6, 8, 12, 20, rows];
        spaces.sort_unstable();
        spaces.dedup();
        let words = |spaces: u8| match spaces {
            0 => "no further than now".into(),
            _ if spaces == rows => format!("{} further: to {to}", so_many(usize::from(spaces), "space")),
            _ => format!("{} further", so_many(usize::from(spaces), "space")),
        };
        let choices: Vec<ReadChoice> = spaces
            .into_iter()
            .map(|spaces| detail(breaker, words(spaces), |details| details.slack = Some(spaces)))
            .chain([detail(breaker, "to every space", |details| details.slack = Some(40))])
            .collect();
        let words = format!("how far the wire of {number} reaches: it has to come to {to}, or be spliced in the gutter");
        all.hoped(Hope::Slack, ToRead { cover_off: true, choices, ..first(words) });
    }

    /// What is to be known of two circuits that are made one.
    fn of_combined(&self, change: &Move, circuit: &str, to: &str, all: &mut Lines<'_>) {
        for (id, number) in [circuit, to].into_iter().filter_map(|id| self.breaker(id)) {
            let Some(breaker) = self.home.panels().breaker(&id) else { continue };
            if breaker.wire.is_none() {
                all.hoped(Hope::Wires, wire(breaker, &number));
            }
            if breaker.details.terminal.under.is_none() {
                all.hoped(Hope::Under, under(breaker, &number));
            }
            let on = on_breaker(self.home, &id);
            if on.proven.is_empty() && on.possible == 0 {
                all.hoped(Hope::Points, entered(ReadPage::Trace, format!("what {number} feeds")));
            }
            if on.possible > 0 {
                let words = format!("what else is on {number}: {} may be", so_many(on.possible, "point"));
                all.hoped(Hope::Points, entered(ReadPage::Trace, words));
            }
        }
        if matches!(change, Move::Join { .. }) {
            self.splices(all);
        }
        if let (Move::Tap { .. }, Some((id, number))) = (change, self.breaker(to))
            && self.home.panels().breaker(&id).is_some_and(|host| host.details.terminal.listed.is_none())
        {
            let words = format!("for how many wires the terminal of {number} is listed");
            all.hoped(Hope::Marking, on_the_sheet(words));
        }
    }

    /// Room beside the breakers, where somebody has looked.
    fn splices(&self, all: &mut Lines<'_>) {
        if self.panel.details.splice_room.is_some() {
            return;
        }
        let choice = |splices: u8| {
            let words = if splices == 0 { "for none".into() } else { format!("for {}", so_many(usize::from(splices), "splice")) };
            self.detail(words, |details| details.splice_room = Some(splices))
        };
        let choices = [0, 1, 2, 3, 4, 6, 8].map(choice).into();
        let words = "for how many splices the gutter, the room beside the breakers, has place";
        all.hoped(Hope::Splices, ToRead { cover_off: true, choices, ..first(words) });
    }

    /// A line about the panel in which one of its details is read.
    fn detail(&self, words: String, read: impl Fn(&mut PanelDetails)) -> ReadChoice {
        let mut details = self.panel.details.clone();
        read(&mut details);
        ReadChoice { words, fact: PanelDescribed { details, ..PanelDescribed::from(self.panel) }.into() }
    }

    /// For how many circuits the panel is listed: as many as it has spaces, up to twice as many.
    fn listed_for(&self) -> ToRead {
        let spaces = self.panel.every_space().len() as u8;
        let choices = (spaces..=spaces.saturating_mul(2)).filter(|count| *count == spaces || count % 2 == 0);
        let choice = |count: u8| self.detail(format!("for {count}"), |details| details.circuits = Some(count));
        ToRead { choices: choices.map(choice).collect(), ..first("for how many circuits the panel is listed") }
    }

    /// Whose loads decide: by number where they are few.
    fn which_loads(&self, hopes: &Hopes) -> String {
        let open = |breaker: &&Breaker| {
            hopes.loads_of(&breaker.id) && load_of(self.home, breaker, false) > load_of(self.home, breaker, true)
        };
        let numbers: Vec<String> = self
            .home
            .panels()
            .breakers_of(&self.panel.id)
            .filter(open)
            .map(|breaker| self.home.panels().number(&breaker.id))
            .collect();
        match numbers.as_slice() {
            [] => "what the circuits carry: their loads".into(),
            [one] => format!("what {one} carries: its loads"),
            some if some.len() <= 6 => format!("what {} carry: their loads", listed(some)),
            many => format!("what {} circuits carry, the largest first: their loads", many.len()),
        }
    }

    fn of_replaced(&self, breaker: &Breaker, number: &str, all: &mut Lines<'_>) {
        if breaker.wire.is_none() {
            all.hoped(Hope::Wires, wire(breaker, number));
        }
        let on = on_breaker(self.home, &breaker.id);
        if on.possible > 0 && matches!(self.wish, HomeWish::Replace { two_pole: true, .. }) {
            let words = format!("what else is on {number}: {} may be", so_many(on.possible, "point"));
            all.hoped(Hope::Points, entered(ReadPage::Trace, words));
        }
        all.always(on_the_sheet("whether the label names such a breaker"));
    }
}

/// The lines, each once.
struct Lines<'a> {
    way: Way,
    hopes: &'a Hopes,
    lines: Vec<ToRead>,
    asked: BTreeSet<Hope>,
}

impl Lines<'_> {
    fn always(&mut self, line: ToRead) {
        if !self.lines.iter().any(|known| known.words == line.words) {
            self.lines.push(line);
        }
    }

    /// Where the plan cannot do without it.
    fn hoped(&mut self, hope: Hope, line: ToRead) {
        if self.hopes.has(hope) {
            self.asked.insert(hope);
            self.always(line);
        }
    }
}
