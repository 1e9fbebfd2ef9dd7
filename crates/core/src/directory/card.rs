//! The card in the panel's own layout.

use crate::model::{BreakerId, Panel, PanelId, Side, State, so_many};
use crate::panel::panel_view;
use crate::panel::{PanelView, Part};
use crate::study::Study;
use crate::trace::Progress;
use crate::trace::verdicts;

/// What a cell stands for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CellKind {
    /// Worded from proven points.
    Proven,
    /// No point is proven on it yet.
    NotProven,
    /// Every point known has been ruled out for it.
    NothingFound,
    /// A space without a breaker.
    Open,
}

/// One cell of the card.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct CardCell {
    /// The breaker, unless the space is open.
    pub breaker: Option<BreakerId>,
    /// `5-7`.
    pub number: String,
    /// The column.
    pub side: Side,
    /// Where it is.
    pub part: Part,
    /// `20`, or empty.
    pub amps: String,
    /// What stands there.
    pub text: String,
    /// What it stands for.
    pub kind: CellKind,
}

/// The lines around the cells.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct CardText {
    /// `Juniper Lane Schoolhouse`.
    pub title: String,
    /// `Main panel, back hall · main 125 A`.
    pub subtitle: String,
    /// Share proven, revision, caution.
    pub foot: Vec<String>,
}

/// The door card.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Card {
    /// The panel.
    pub panel: Panel,
    /// Rows of the panel.
    pub rows: u8,
    /// The lines around the cells.
    pub text: CardText,
    /// Left column from the top, then the right.
    pub cells: Vec<CardCell>,
    /// How far the trace is.
    pub progress: Progress,
}

/// Words the card. The logbook's last line is printed as the revision; `printed` is today's date as
/// it shall stand on the card. `None` when there is no such panel.
pub fn card(home: &Study, panel: &PanelId, printed: &str) -> Option<Card> {
    let PanelView { panel, rows, breakers, open, .. } = panel_view(home, panel)?;
    let progress = Progress::of(verdicts(home));
    let mut cells: Vec<CardCell> = breakers
        .iter()
        .flat_map(|breaker| {
            let claim = breaker.claim.as_deref().map(|claim| format!(" (old card: {claim})")).unwrap_or_default();
            let state = if breaker.state == State::Tripped { ", tripped" } else { "" };
            let nothing = breaker.possible == 0 && progress.points > 0;
            let (kind, text) = if let Some(fed) = breaker.feeds.first() {
                (CellKind::Proven, format!("Feeds {}{}{state}", fed.name, spaces_of(home, &fed.panel)))
            } else if breaker.details.back_fed_main {
                (CellKind::Proven, format!("Main{state}"))
            } else if breaker.proven > 0 {
                (CellKind::Proven, breaker.wording.clone())
            } else if nothing {
                (CellKind::NothingFound, format!("Spare: nothing known is on it{state}{claim}"))
            } else if breaker.possible == 0 {
                (CellKind::NotProven, format!("Unknown{state}{claim}"))
            } else {
                (CellKind::NotProven, format!("Not proven{state}{claim}"))
            };
            // The outer handles of a quad are apart: the second says with which it goes.
            breaker.parts.iter().enumerate().map(move |(n, part)| CardCell {
                breaker: Some(breaker.breaker.clone()),
                number: breaker.number.clone(),
                side: breaker.side,
                part: *part,
                amps: breaker.amps.value().to_string(),
                text: if n == 0 { text.clone() } else { format!("with {}", breaker.number) },
                kind,
            })
        })
        .collect();
    cells.extend(open.iter().map(|space| CardCell {
        breaker: None,
        number: space.number.clone(),
        side: space.side,
        part: space.part,
        amps: String::new(),
        text: "Unused".into(),
        kind: CellKind::Open,
    }));
    cells.sort_by_key(|cell| (cell.side, cell.part));
    let place = if panel.place.is_empty() { String::new() } else { format!(", {}", panel.place) };
    let main = panel.main.map(|amps| format!(" - main {amps}")).unwrap_or_default();
    let fed = panel.details.fed_by.as_ref().map(|b| format!(" - fed from {}", home.panels().number(b))).unwrap_or_default();
    let sources = panel.details.sources.iter().flatten().map(|source| source.word()).collect::<Vec<_>>();
    let sources = if sources.is_empty() { String::new() } else { format!(" Also fed by: {}.", sources.join(", ")) };
    Some(Card {
        rows: rows.len() as u8,
        text: CardText {
            title: home.name().unwrap_or_default().to_owned(),
            subtitle: format!("{}{place}{main}{fed}", panel.name),
            foot: vec![
                format!("{} of {} points proven. Revision {}, {printed}.", progress.proven, progress.points, home.seq()),
                format!("Prove dead with a meter before touching. Line-side lugs stay live with the main off.{sources}"),
            ],
        },
        panel: panel.clone(),
        cells,
        progress,
    })
}

/// `, 8 spaces`: of the panel that is fed.
fn spaces_of(home: &Study, panel: &PanelId) -> String {
    home.panels().panel(panel).map_or_else(String::new, |panel| format!(", {}", so_many(usize::from(panel.spaces), "space")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn each_cell_says_what_is_known_and_no_more() {
        let home = written(
            "panel 6\n1 20 kitchen\n3 15 gen. light\n2 15 spare\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door
             proof lamp 1\nlit door\noff 1\nlit door\non 1\noff 2\nlit door\non 2\ntripped 3",
        )
        .home;
        let card = card(&home, &"main".parse().unwrap(), "2026-11-24").unwrap();
        let said: Vec<_> = card.cells.iter().map(|c| (c.number.as_str(), c.kind, c.text.as_str())).collect();
        assert_eq!(
            said,
            [
                ("1", CellKind::Proven, "Hall: light"),
                ("3", CellKind::NotProven, "Not proven, tripped (old card: gen. light)"),
                ("5", CellKind::Open, "Unused"),
                ("2", CellKind::NothingFound, "Spare: nothing known is on it (old card: spare)"),
                ("4", CellKind::Open, "Unused"),
                ("6", CellKind::Open, "Unused"),
            ]
        );
        assert_eq!(card.text.foot[0], "1 of 2 points proven. Revision 35, 2026-11-24.", "the revision is the last line");
        assert!(card.text.foot[1].contains("Prove dead with a meter"));
    }

    #[test]
    fn with_looks_that_disagree_no_circuit_is_said_to_feed_nothing() {
        let home = written(
            "panel 6\n1 20 a\n3 15 b\n5 15 c\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp\non 1\noff 3\ndark lamp\non 3",
        )
        .home;
        let card = card(&home, &"main".parse().unwrap(), "2026-11-24").unwrap();
        assert!(card.cells.iter().all(|cell| cell.kind != CellKind::NothingFound && cell.kind != CellKind::Proven), "{card:?}");
    }
}
