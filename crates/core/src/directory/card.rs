//! The card in the panel's own layout.

use super::does::does_most;
use super::drift::{drifts, written_now};
use super::notes::notes;
use crate::logbook::CircuitWorded;
use crate::model::{BreakerId, LoadDoes, MainAt, Panel, PanelId, Point, ServiceDisconnect, Side, so_many};
use crate::panel::panel_view;
use crate::panel::{BreakerView, PanelView, Part};
use crate::study::Study;
use crate::trace::verdicts;
use crate::trace::{Progress, on_breaker};

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
    /// What stands below it, a line each: where to reset, with which circuits it shares a neutral.
    pub notes: Vec<String>,
    /// What its biggest load does.
    pub does: Option<LoadDoes>,
    /// What it stands for.
    pub kind: CellKind,
    /// The own words that stand there no longer match what is known.
    pub drifts: bool,
    /// What stands there without own words.
    pub worded: String,
    /// The fact that writes own words here as the circuit is known now; its text is that of the own words that are there. `null` at an
    /// open space and at the second part of a breaker.
    pub own: Option<CircuitWorded>,
}

/// The lines around the cells.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct CardText {
    /// `Juniper Lane Schoolhouse`.
    pub title: String,
    /// `Main panel, back hall - main 125 A`.
    pub subtitle: String,
    /// Where to switch all off, other sources, share proven, revision, caution.
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
    /// Where this home's page can be opened for good: it stands on the card as a code for cameras.
    pub address: Option<String>,
}

/// When and by whom a card is printed.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Printed<'a> {
    /// Today's date as it shall stand on the card.
    pub date: &'a str,
    /// Who prints it; empty where nobody says.
    pub by: &'a str,
}

/// What stands before own words that no longer match.
pub(super) const DRIFTS: &str = "≠ ";

/// Words the card. The logbook's last line is printed as the revision. `None` when there is no such panel.
pub fn card(home: &Study, panel: &PanelId, printed: Printed<'_>) -> Option<Card> {
    let view = panel_view(home, panel)?;
    let progress = Progress::of(verdicts(home));
    let cells = cells(home, panel);
    let text = CardText {
        title: home.name().unwrap_or_default().to_owned(),
        subtitle: subtitle(home, &view.panel),
        foot: foot(home, view, &cells, progress, printed),
    };
    Some(Card {
        rows: view.rows.len() as u8,
        text,
        panel: view.panel.clone(),
        cells,
        progress,
        address: home.upkeep().address().map(str::to_owned),
    })
}

/// Every cell of a panel's card, the left column from the top, then the right; none where there is no such panel.
pub(super) fn cells(home: &Study, panel: &PanelId) -> Vec<CardCell> {
    let Some(view) = panel_view(home, panel) else { return Vec::new() };
    let points = verdicts(home).len();
    let mut cells: Vec<CardCell> = view.breakers.iter().flat_map(|breaker| cells_of(home, breaker, points)).collect();
    cells.extend(view.open.iter().map(|space| CardCell {
        breaker: None,
        number: space.number.clone(),
        side: space.side,
        part: space.part,
        amps: String::new(),
        text: "Unused".into(),
        notes: Vec::new(),
        does: None,
        kind: CellKind::Open,
        drifts: false,
        worded: "Unused".into(),
        own: None,
    }));
    cells.sort_by_key(|cell| (cell.side, cell.part));
    cells
}

/// What the card says of a circuit without own words.
pub(super) fn worded(home: &Study, panel: &PanelId, breaker: &BreakerId) -> String {
    let view = panel_view(home, panel).and_then(|view| view.breakers.iter().find(|one| &one.breaker == breaker));
    view.map_or_else(String::new, |view| line(home, view, verdicts(home).len()).1)
}

/// What a line stands for and what it says.
fn line(home: &Study, breaker: &BreakerView, points: usize) -> (CellKind, String) {
    let claim = breaker.claim.as_deref().map(|claim| format!(" (old card: {claim})")).unwrap_or_default();
    if let Some(fed) = breaker.feeds.first() {
        (CellKind::Proven, format!("Feeds {}{}", fed.name, spaces_of(home, &fed.panel)))
    } else if breaker.details.back_fed_main {
        (CellKind::Proven, "Main".into())
    } else if breaker.proven > 0 {
        (CellKind::Proven, breaker.wording.clone())
    } else if breaker.possible > 0 {
        (CellKind::NotProven, format!("Not proven{claim}"))
    } else if points > 0 {
        (CellKind::NothingFound, format!("Spare: nothing known is on it{claim}"))
    } else {
        (CellKind::NotProven, format!("Unknown{claim}"))
    }
}

fn cells_of(home: &Study, breaker: &BreakerView, points: usize) -> Vec<CardCell> {
    let (kind, worded) = line(home, breaker, points);
    let known = home.panels().breaker(&breaker.breaker);
    let own = known.and_then(|known| known.own.as_ref());
    let drifts = own.is_some() && drifts(home).iter().any(|drift| drift.breaker == breaker.breaker && drift.keep.is_some());
    let text = match (own, kind) {
        (None, _) => worded.clone(),
        (Some(own), CellKind::NotProven) => format!("{} (not proven)", own.text),
        (Some(own), CellKind::NothingFound) => format!("{} (nothing known is on it)", own.text),
        (Some(own), _) => own.text.clone(),
    };
    let text = if drifts { format!("{DRIFTS}{text}") } else { text };
    let proven: Vec<&Point> =
        on_breaker(home, &breaker.breaker).proven.iter().filter_map(|point| home.house().point(point)).collect();
    let fact = written_now(home, &breaker.breaker, own.map_or("", |own| own.text.as_str()));
    let feeder = !breaker.feeds.is_empty() || breaker.details.back_fed_main;
    // The outer handles of a quad are apart: the second says with which it goes.
    let cell = |(n, part): (usize, &Part)| CardCell {
        breaker: Some(breaker.breaker.clone()),
        number: breaker.number.clone(),
        side: breaker.side,
        part: *part,
        amps: breaker.amps.value().to_string(),
        text: if n == 0 { text.clone() } else { format!("with {}", breaker.number) },
        notes: if n == 0 { notes(home, breaker, &proven) } else { Vec::new() },
        does: if feeder { None } else { does_most(home, &proven) },
        kind,
        drifts: drifts && n == 0,
        worded: worded.clone(),
        own: (n == 0).then(|| fact.clone()),
    };
    breaker.parts.iter().enumerate().map(cell).collect()
}

fn subtitle(home: &Study, panel: &Panel) -> String {
    let place = if panel.place.is_empty() { String::new() } else { format!(", {}", panel.place) };
    let main = panel.main.map(|amps| format!(" - main {amps}")).unwrap_or_default();
    let fed = panel.details.fed_by.as_ref().map(|b| format!(" - fed from {}", home.panels().number(b))).unwrap_or_default();
    format!("{}{place}{main}{fed}", panel.name)
}

fn foot(home: &Study, view: &PanelView, cells: &[CardCell], progress: Progress, printed: Printed<'_>) -> Vec<String> {
    let panel = &view.panel;
    let mut foot = Vec::new();
    let main = match panel.details.main_at {
        MainAt::Inside => "Main: in this panel.",
        MainAt::Beside => "Main: in the cabinet beside this panel.",
        MainAt::Outside => "Main: outdoors.",
        MainAt::Lugs | MainAt::NotRead => "",
    };
    let service = match panel.details.service_disconnect {
        Some(ServiceDisconnect::Here) => "Service disconnect: in this panel.",
        Some(ServiceDisconnect::Ahead) => "Service disconnect: ahead of this panel.",
        None => "",
    };
    let feeder = panel.details.fed_by.as_ref().and_then(|id| home.panels().breaker(id)).map_or_else(String::new, |feeder| {
        let kind = match feeder.protection.words() {
            "" => String::new(),
            words => format!(", {words}"),
        };
        let from = home.panels().panel(&feeder.panel).map_or("", |panel| panel.name.as_str());
        format!("Switched off by {} in {from}{kind}.", home.panels().number(&feeder.id))
    });
    let sources = match panel.details.sources.as_deref() {
        None => "Other sources: not recorded.".to_owned(),
        Some([]) => "No other source.".into(),
        Some(all) => {
            let named: Vec<&str> = all.iter().map(|source| source.word()).collect();
            format!("Also fed by: {}. With the main off it can still be live.", named.join(", "))
        }
    };
    foot.push([main, service, &feeder, &sources].into_iter().filter(|text| !text.is_empty()).collect::<Vec<_>>().join(" "));
    let open = cells.iter().filter(|cell| cell.kind == CellKind::NotProven && cell.own.is_some()).count();
    let open = match open {
        0 => String::new(),
        1 => " One line is not proven.".into(),
        open => format!(" {open} lines are not proven."),
    };
    let by = if printed.by.trim().is_empty() { String::new() } else { format!(", {}", printed.by.trim()) };
    let done = format!("{} of {} points proven.{open}", progress.proven, progress.points);
    foot.push(format!("{done} Revision {}, {}{by}.", home.seq(), printed.date));
    if cells.iter().any(|cell| cell.drifts) {
        foot.push(format!("{}no longer matches what is proven.", DRIFTS));
    }
    if home.upkeep().address().is_some() {
        foot.push("The code opens this home's page, which shows nothing to strangers.".into());
    }
    foot.push("Prove dead with a meter before touching. Line-side lugs stay live with the main off.".into());
    foot
}

/// `, 8 spaces`: of the panel that is fed.
fn spaces_of(home: &Study, panel: &PanelId) -> String {
    home.panels().panel(panel).map_or_else(String::new, |panel| format!(", {}", so_many(usize::from(panel.spaces), "space")))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn card_of(acts: &str) -> Card {
        card(&written(acts).home, &"main".parse().unwrap(), Printed { date: "2026-11-24", by: "Owner" }).unwrap()
    }

    #[test]
    fn each_cell_says_what_is_known_and_no_more() {
        let card = card_of(
            "panel 6\n1 20 kitchen\n3 15 gen. light\n2 15 spare\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door
             proof lamp 1\nlit door\noff 1\nlit door\non 1\noff 2\nlit door\non 2\ntripped 3",
        );
        let said: Vec<_> = card.cells.iter().map(|c| (c.number.as_str(), c.kind, c.text.as_str())).collect();
        assert_eq!(
            said,
            [
                ("1", CellKind::Proven, "Hall: light"),
                ("3", CellKind::NotProven, "Not proven (old card: gen. light)"),
                ("5", CellKind::Open, "Unused"),
                ("2", CellKind::NothingFound, "Spare: nothing known is on it (old card: spare)"),
                ("4", CellKind::Open, "Unused"),
                ("6", CellKind::Open, "Unused"),
            ]
        );
        let foot = &card.text.foot;
        assert_eq!(foot[0], "Other sources: not recorded.");
        let revision = "1 of 2 points proven. One line is not proven. Revision 35, 2026-11-24, Owner.";
        assert_eq!(foot[1], revision, "the revision is the last line");
        assert!(foot[2].contains("Prove dead with a meter"));
        assert_eq!(card.cells[0].does, Some(LoadDoes::Light));
    }

    #[test]
    fn with_looks_that_disagree_no_circuit_is_said_to_feed_nothing() {
        let card = card_of(
            "panel 6\n1 20 a\n3 15 b\n5 15 c\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp\non 1\noff 3\ndark lamp\non 3",
        );
        assert!(card.cells.iter().all(|cell| cell.kind != CellKind::NothingFound && cell.kind != CellKind::Proven), "{card:?}");
    }

    #[test]
    fn own_words_stand_on_the_card_and_what_is_not_proven_still_says_so() {
        let acts = "panel 6\n1 20 a\n3 15 b\n5 15 c\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door\nproof lamp 1";
        let card = card_of(&format!("{acts}\nown 1 Hall lantern = lamp\nown 3 Doorbell"));
        let said: Vec<_> = card.cells[..2].iter().map(|cell| (cell.text.as_str(), cell.worded.as_str(), cell.drifts)).collect();
        assert_eq!(said, [("Hall lantern", "Hall: light", false), ("Doorbell (not proven)", "Not proven (old card: b)", false)]);
        assert_eq!(card.cells[0].own.as_ref().unwrap().text, "Hall lantern");
    }

    #[test]
    fn resets_and_shared_neutrals_stand_below_their_circuits() {
        let acts = "panel 8\n1 20 a\n3 20 b\n2 20 c\nshare 1 3\nset 2 {\"protection\": \"afci\"}\nroom Bath\nroom Porch
             point Bath gfci mirror\npoint Porch receptacle door\nproof mirror 1\nproof door 1
             fact {\"kind\":\"gfci_protects\",\"device\":\"mirror\",\"points\":[\"door\"]}";
        let card = card_of(acts);
        let notes = |number: &str| card.cells.iter().find(|cell| cell.number == number).unwrap().notes.clone();
        assert_eq!(notes("1"), ["GFCI: reset at Bath, mirror", "Neutral shared with 3"]);
        assert_eq!(notes("3"), ["Neutral shared with 1"]);
        assert_eq!(notes("2"), ["AFCI: reset here"]);
    }

    #[test]
    fn the_foot_says_what_switches_the_panel_off_and_what_else_feeds_it() {
        let main =
            r#"with main {"details": {"main_at": "beside", "service_disconnect": "ahead", "sources": ["solar", "battery"]}}"#;
        let foot = card_of(&format!("panel 8\n{main}")).text.foot;
        assert_eq!(
            foot[0],
            "Main: in the cabinet beside this panel. Service disconnect: ahead of this panel. Also fed by: solar, battery. With the main off it can still be live."
        );
        let acts = "panel 8\n5-7 40/2 shed\nset 5-7 {\"protection\": \"gfci\"}\nsub Shed 8 5-7";
        let shed = card(&written(acts).home, &"shed".parse().unwrap(), Printed::default()).unwrap();
        assert!(shed.text.foot[0].starts_with("Switched off by 5-7 in Main panel, GFCI."), "{:?}", shed.text.foot);
    }
}
