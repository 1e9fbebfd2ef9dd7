//! Every kind of breaker at every space of small and large panels, in every numbering and service, against a
//! reference written here as it is seen at the panel: the numbers in a grid, the legs said down the rows, the
//! volts of the service.
//!
//! Source: common practice, no published source: a row is a leg and legs alternate down the rows; a two-pole
//! spans two rows of a column; two slim poles in one space are on one leg; a quad's ties 1–4 and 2–3 give 240 V;
//! a high leg has 208 V to neutral and is the middle one (NEC 110.15 and 408.3(E), from memory).

use wayfinder_core::*;

/// The numbers as they stand on the metal, row by row: left, right; 0 where there is none.
fn grid(spaces: u8, numbering: &str) -> Vec<[u8; 2]> {
    let rows = spaces / 2;
    match numbering {
        "odd and even" => (0..rows).map(|row| [2 * row + 1, 2 * row + 2]).collect(),
        "straight down" => (0..rows).map(|row| [row + 1, rows + row + 1]).collect(),
        "one column" => (0..spaces).map(|row| [row + 1, 0]).collect(),
        // Engraved from the bottom up on the left, and down again on the right.
        "up and down" => (0..rows).map(|row| [rows - row, rows + row + 1]).collect(),
        // A gap on the left where a main sits.
        "with a gap" => (0..rows).map(|row| [if row < 1 { 0 } else { row }, rows + row]).collect(),
        other => panic!("{other}"),
    }
}

fn panel(spaces: u8, numbering: &str, service: Service) -> PanelDescribed {
    let grid = grid(spaces, numbering);
    let column = |side: usize| grid.iter().map(|row| row[side]).collect::<Vec<u8>>();
    let (columns, as_said) = match numbering {
        "odd and even" => (Columns::Two, Numbering::OddEven),
        "straight down" => (Columns::Two, Numbering::StraightDown),
        "one column" => (Columns::One, Numbering::StraightDown),
        _ => (Columns::Two, Numbering::AsEngraved { left: column(0), right: column(1) }),
    };
    PanelDescribed {
        panel: "p".parse().unwrap(),
        name: "Panel".into(),
        place: String::new(),
        spaces: grid.iter().flatten().filter(|n| **n > 0).count() as u8,
        columns,
        numbering: as_said,
        service,
        main: None,
        card: CardSize { width_mm: 100.0, height_mm: 100.0 },
        details: PanelDetails::default(),
    }
}

/// A kind of breaker: its poles as rows below the first and halves, and its housing.
type Kind = (&'static str, &'static [(usize, &'static str)], Option<Housing>);
const KINDS: [Kind; 9] = [
    ("one-pole", &[(0, "")], None),
    ("two-pole", &[(0, ""), (1, "")], None),
    ("three-pole", &[(0, ""), (1, ""), (2, "")], None),
    ("tandem, upper", &[(0, "a")], Some(Housing::Tandem)),
    ("tandem, lower", &[(0, "b")], Some(Housing::Tandem)),
    ("quad, middle", &[(0, "b"), (1, "a")], Some(Housing::Quad)),
    ("quad, outside", &[(0, "a"), (1, "b")], Some(Housing::Quad)),
    ("slim across two", &[(0, "b"), (1, "a")], Some(Housing::Slim)),
    ("slim in one", &[(0, "a"), (0, "b")], Some(Housing::Slim)),
];

/// What a meter shows between the first two poles, or to neutral.
fn meter(service: Service, legs: &[char]) -> u16 {
    match (service, legs) {
        (Service::HighLeg, ['B']) => 208,
        (_, [_]) => 120,
        (_, [a, b, ..]) if a == b => 0,
        (Service::SplitPhase | Service::HighLeg, _) => 240,
        (Service::TwoLegs208 | Service::ThreePhase, _) => 208,
        (Service::OneLeg120, _) => unreachable!("one leg only"),
    }
}

#[test]
fn legs_and_volts_of_every_kind_at_every_space() {
    let services = [
        (Service::SplitPhase, "AB"),
        (Service::TwoLegs208, "AB"),
        (Service::ThreePhase, "ABC"),
        (Service::HighLeg, "ABC"),
        (Service::OneLeg120, "A"),
    ];
    let mut placed = 0;
    for spaces in [2, 12, 24, 42, 84] {
        for numbering in ["odd and even", "straight down", "one column", "up and down", "with a gap"] {
            if (numbering == "one column" && spaces == 84) || (numbering == "with a gap" && spaces == 2) {
                continue; // no such panel is made, and the logbook refuses it
            }
            for (service, cycle) in services {
                let described = panel(spaces, numbering, service);
                let grid = grid(spaces, numbering);
                let mut book = Logbook::default();
                record(
                    &mut book,
                    vec![Fact::HomeDescribed(HomeDescribed { name: "Hut".into() }), Fact::PanelDescribed(described)],
                )
                .unwrap();
                for (kind, poles, housing) in KINDS {
                    for side in 0..2 {
                        for row in 0..grid.len() {
                            let what = || format!("{kind} in row {row}, side {side} of {spaces} {numbering}, {service:?}");
                            // The reference: walk down the grid from here.
                            let spots: Vec<Option<u8>> =
                                poles.iter().map(|(down, _)| grid.get(row + down).map(|r| r[side]).filter(|n| *n > 0)).collect();
                            let Some(numbers) = spots.into_iter().collect::<Option<Vec<u8>>>() else { continue };
                            let legs: Vec<char> =
                                poles.iter().map(|(down, _)| cycle.chars().cycle().nth(row + down).unwrap()).collect();
                            let at: Vec<Slot> =
                                numbers.iter().zip(poles).map(|(n, (_, half))| format!("{n}{half}").parse().unwrap()).collect();
                            let fact = Fact::BreakerPlaced(BreakerPlaced {
                                breaker: "b".parse().unwrap(),
                                panel: "p".parse().unwrap(),
                                at,
                                amps: Amps::new(20.0),
                                protection: Protection::Standard,
                                wire: None,
                                details: BreakerDetails { housing, ..BreakerDetails::default() },
                            });
                            let mut with = book.clone();
                            let taken = record(&mut with, vec![fact]);
                            if kind == "three-pole" && cycle.len() < 3 {
                                assert!(taken.is_err(), "{}", what());
                                continue;
                            }
                            taken.unwrap_or_else(|refusal| panic!("{}: {refusal}", what()));
                            let home = Study::from(&with);
                            let blade = &panel_views(&home)[0].breakers[0];
                            let shown: Vec<char> = blade.legs.iter().map(|leg| format!("{leg:?}").remove(0)).collect();
                            assert_eq!(shown, legs, "{}", what());
                            let volts = if service == Service::OneLeg120 && poles.len() > 1 { 0 } else { meter(service, &legs) };
                            assert_eq!(blade.volts.value(), volts, "{}", what());
                            assert_eq!(blade.side == Side::Left, side == 0, "{}", what());
                            let halves: u8 = blade.parts.iter().map(|part| part.height).sum();
                            let height: usize = poles.iter().map(|(_, half)| if half.is_empty() { 2 } else { 1 }).sum();
                            assert_eq!(usize::from(halves), height, "{}", what());
                            placed += 1;
                        }
                    }
                }
            }
        }
    }
    assert!(placed > 20_000, "only {placed} were placed");
}

fn record(book: &mut Logbook, facts: Vec<Fact>) -> Result<(), Refusal> {
    let from = book.seq();
    let drafts: Vec<Draft> = facts
        .into_iter()
        .zip(from..)
        .map(|(fact, n)| Draft {
            id: format!("e{n}").parse().unwrap(),
            at: Moment::from_unix_ms(0),
            by: "x".into(),
            instrument: None,
            version: Fact::VERSION,
            fact,
        })
        .collect();
    let outcome = book.admit(&drafts)?;
    book.commit(outcome);
    Ok(())
}
