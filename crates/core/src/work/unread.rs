//! What a plan rests on that nobody has read.

use indexmap::IndexSet;

use super::problem::*;
use super::said::Said;
use super::wish::HomeWish;
use crate::model::{BreakerId, Tandems, position, so_many};
use crate::trace::on_breaker;

/// Something that nobody has read.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) struct Unread {
    /// `the wire on 16`.
    pub(super) words: String,
    /// The job sheet asks for it with a stop of its own, before anything is switched off.
    pub(super) on_the_sheet: bool,
}

/// To be read and entered before there is a sheet.
fn first(words: impl Into<String>) -> Unread {
    Unread { words: words.into(), on_the_sheet: false }
}

fn on_the_sheet(words: impl Into<String>) -> Unread {
    Unread { words: words.into(), on_the_sheet: true }
}

impl Said<'_> {
    /// What a plan rests on that nobody has read.
    pub(super) fn unread(&self, moves: &[Move], hoped: &Problem) -> Vec<Unread> {
        let details = &self.panel.details;
        let mut unread: Vec<Unread> = Vec::new();
        let mut loads = *self.wish == HomeWish::Level;
        for change in moves {
            match change {
                Move::Land { circuit, column, row, shape, .. } => {
                    let to = self.place(*column, *row, *shape, self.poles(circuit));
                    if *shape != Shape::Full {
                        unread.push(on_the_sheet(
                            "whether such a tandem fits: the notch of the space, its type and its interrupting rating",
                        ));
                    }
                    if *shape != Shape::Full && details.tandems == Tandems::NotRead {
                        unread.push(on_the_sheet(format!(
                            "whether the label lists {} for a tandem",
                            to.trim_end_matches(['a', 'b'])
                        )));
                    }
                    if *shape != Shape::Full && details.circuits.is_none() {
                        unread.push(first("for how many circuits the panel is listed"));
                    }
                    loads |= circuit != "gap";
                    let Some((id, number)) = self.breaker(circuit) else { continue };
                    let Some(breaker) = self.home.panels().breaker(&id) else { continue };
                    let home = breaker.at.first().and_then(|slot| position(self.panel, slot.space));
                    if home != Some((self.side(*column), u8::try_from(*row).unwrap_or(u8::MAX))) {
                        unread.push(first(format!(
                            "how far the wire of {number} reaches: it has to come to {to}, or be spliced in the gutter"
                        )));
                    }
                    if *shape != Shape::Full && breaker.details.terminal.under.is_none() {
                        unread.push(first(format!("how many wires are under the terminal of {number}")));
                    }
                    if matches!(self.wish, HomeWish::Replace { breaker, .. } if *breaker == id) {
                        self.of_replaced(&id, &number, &mut unread);
                    }
                }
                Move::Join { circuit, to } | Move::Tap { circuit, to } => {
                    loads = true;
                    for (id, number) in [circuit, to].into_iter().filter_map(|id| self.breaker(id)) {
                        let Some(breaker) = self.home.panels().breaker(&id) else { continue };
                        if breaker.wire.is_none() {
                            unread.push(first(format!("the wire on {number}")));
                        }
                        if breaker.details.terminal.under.is_none() {
                            unread.push(first(format!("how many wires are under the terminal of {number}")));
                        }
                        let on = on_breaker(self.home, &id);
                        if on.proven.is_empty() && on.possible == 0 {
                            unread.push(first(format!("what {number} feeds")));
                        }
                        if on.possible > 0 {
                            unread.push(first(format!("what else is on {number}: {} may be", so_many(on.possible, "point"))));
                        }
                    }
                    if matches!(change, Move::Join { .. }) {
                        unread.push(first("whether the gutter has room for the splice"));
                    }
                    if let (Move::Tap { .. }, Some((id, number))) = (change, self.breaker(to))
                        && self.home.panels().breaker(&id).is_some_and(|host| host.details.terminal.listed.is_none())
                    {
                        unread.push(on_the_sheet(format!("for how many wires the terminal of {number} is listed")));
                    }
                }
                Move::Sub => {
                    loads = true;
                    unread.push(first("where the sub-panel can hang, with clear space before it, and how far its feeder runs"));
                    unread.push(first("that the service takes it: the service calculation, and an electrician"));
                }
                _ => {}
            }
        }
        if let HomeWish::Circuit { protection, amps, poles, .. } = self.wish
            && *protection != Guard::Standard
        {
            let pole = if *poles == 2 { "two-pole" } else { "one-pole" };
            unread.push(on_the_sheet(format!(
                "whether the label names a {pole} breaker of {amps} A with the protection wished for"
            )));
        }
        if details.circuits.is_none()
            && hoped.panel.listed_poles > 0
            && !unread.iter().any(|line| line.words.starts_with("for how many c"))
        {
            let poles: usize = self.home.panels().breakers_of(&self.panel.id).map(crate::model::Breaker::poles).sum();
            if poles >= self.panel.every_space().len() {
                unread.push(first("for how many circuits the panel is listed"));
            }
        }
        if loads && matches!(self.wish, HomeWish::Circuit { takes: None, .. }) {
            unread.push(first("what the new circuit takes, by its plate"));
        }
        if self.adds_to_a_feeder() {
            unread.push(first("what the panel that feeds this one carries"));
        }
        match self.wish {
            HomeWish::Replace { breaker, amps, two_pole, .. } => {
                // Of the same rating it carries what it carried.
                let rated = self.home.panels().breaker(breaker).map_or(0.0, |known| known.amps.value());
                if *two_pole || amps.is_some_and(|amps| (amps as f64) < rated) {
                    unread.push(first(format!("what {} carries", self.home.panels().number(breaker))));
                }
            }
            _ if loads => unread.push(first("what the circuits carry: the loads, or a reading of the legs")),
            _ => {}
        }
        // Each thing is read once.
        unread.into_iter().collect::<IndexSet<_>>().into_iter().collect()
    }

    fn of_replaced(&self, id: &BreakerId, number: &str, unread: &mut Vec<Unread>) {
        let Some(breaker) = self.home.panels().breaker(id) else { return };
        if breaker.wire.is_none() {
            unread.push(first(format!("the wire on {number}")));
        }
        let on = on_breaker(self.home, id);
        if on.possible > 0 && matches!(self.wish, HomeWish::Replace { two_pole: true, .. }) {
            unread.push(first(format!("what else is on {number}: {} may be", so_many(on.possible, "point"))));
        }
        unread.push(on_the_sheet("whether the label names such a breaker"));
    }
}
