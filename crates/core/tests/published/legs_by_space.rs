//! Legs by space number.
//!
//! Source: common practice, no published source: in a two-column panel a row is a leg and legs alternate
//! down the rows. Written here the other way round from the product: as the list an electrician knows by
//! heart, and as the arithmetic said at the panel.

use wayfinder_core::{CardSize, Columns, Leg, Numbering, Panel, Service, Slot, legs_of, volts_between};

fn panel(spaces: u8, columns: Columns, numbering: Numbering, service: Service) -> Panel {
    Panel {
        id: "p".parse().unwrap(),
        name: "Main".into(),
        place: String::new(),
        spaces,
        columns,
        numbering,
        service,
        main: None,
        card: CardSize { width_mm: 100.0, height_mm: 100.0 },
        details: Default::default(),
        tag: String::new(),
        legs_read: Vec::new(),
    }
}

fn leg(panel: &Panel, space: u8) -> Leg {
    legs_of(panel, &[Slot::whole(space)])[0]
}

#[test]
fn split_phase_odd_even_goes_in_pairs() {
    // 1,2 = A; 3,4 = B; 5,6 = A …
    let on_a = [1, 2, 5, 6, 9, 10, 13, 14, 17, 18, 21, 22, 25, 26, 29, 30, 33, 34, 37, 38, 41, 42];
    for spaces in [2, 12, 24, 42] {
        let panel = panel(spaces, Columns::Two, Numbering::OddEven, Service::SplitPhase);
        for space in 1..=spaces {
            assert_eq!(leg(&panel, space) == Leg::A, on_a.contains(&space), "space {space} of {spaces}");
        }
    }
}

#[test]
fn three_phase_odd_even_a_number_divisible_by_six_or_one_less_is_on_c() {
    for spaces in [12, 24, 30, 42, 84] {
        let panel = panel(spaces, Columns::Two, Numbering::OddEven, Service::ThreePhase);
        for space in 1..=spaces {
            let on_c = space % 6 == 0 || (space + 1) % 6 == 0;
            assert_eq!(leg(&panel, space) == Leg::C, on_c, "space {space}");
            let on_a = space % 6 == 1 || space % 6 == 2;
            assert_eq!(leg(&panel, space) == Leg::A, on_a, "space {space}");
        }
    }
}

#[test]
fn straight_down_follows_the_rows_of_each_column() {
    for (service, names) in [(Service::SplitPhase, &[Leg::A, Leg::B][..]), (Service::ThreePhase, &[Leg::A, Leg::B, Leg::C][..])] {
        for (spaces, columns) in [
            (2, Columns::Two),
            (12, Columns::Two),
            (24, Columns::Two),
            (42, Columns::Two),
            (84, Columns::Two),
            (12, Columns::One),
            (42, Columns::One),
        ] {
            let panel = panel(spaces, columns, Numbering::StraightDown, service);
            let down = if columns == Columns::One { spaces } else { spaces / 2 };
            // Written out as it is seen: walk down a column and say the legs in turn.
            let column: Vec<Leg> = names.iter().cycle().take(usize::from(down)).copied().collect();
            for space in 1..=spaces {
                let row = (space - 1) % down;
                assert_eq!(leg(&panel, space), column[usize::from(row)], "space {space} of {spaces}");
            }
        }
    }
}

#[test]
fn a_two_pole_in_neighbouring_rows_has_240_or_208_volts_everywhere() {
    for (service, volts) in [(Service::SplitPhase, 240), (Service::TwoLegs208, 208), (Service::ThreePhase, 208)] {
        let panel = panel(42, Columns::Two, Numbering::OddEven, service);
        for space in 1..=40 {
            let legs = legs_of(&panel, &[Slot::whole(space), Slot::whole(space + 2)]);
            assert_eq!(volts_between(service, &legs).value(), volts, "{space}-{}", space + 2);
            assert_eq!(volts_between(service, &legs[..1]).value(), 120);
        }
        let same = legs_of(&panel, &[Slot::whole(1), Slot::whole(2)]);
        assert_eq!(volts_between(service, &same).value(), 0, "1 and 2 face each other on one leg");
    }
}
