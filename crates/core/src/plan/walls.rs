//! Walls as they are drawn: every stretch once, where rooms meet, with gaps for doors and passages.

use crate::model::{OpeningKind, Outline, Spot, Stretch, TOUCHING, along, off_line, spot_on};

/// The stretches of wall of these rooms; `openings` are cut out but for windows.
pub(crate) fn walls<'a>(outlines: impl Iterator<Item = &'a Outline>, openings: &[(OpeningKind, Stretch)]) -> Vec<Stretch> {
    let mut drawn: Vec<Stretch> = Vec::new();
    for (a, b) in outlines.flat_map(|outline| outline.walls().collect::<Vec<_>>()) {
        let length = a.to(b);
        let cut_by = |cut: &Stretch| on_line(a, b, *cut).then(|| sorted(along(a, b, cut.from), along(a, b, cut.to)));
        let gaps = openings.iter().filter(|(kind, _)| kind.is_way()).filter_map(|(_, stretch)| cut_by(stretch));
        let done = drawn.iter().filter_map(cut_by);
        let mut cuts: Vec<(f64, f64)> = gaps.chain(done).filter(|(from, to)| *to > 0.0 && *from < length).collect();
        cuts.sort_by(|x, y| x.0.total_cmp(&y.0));
        let mut at = 0.0;
        let mut pieces = Vec::new();
        for (from, to) in cuts {
            if from > at + 1.0 {
                pieces.push((at, from));
            }
            at = f64::max(at, to);
        }
        if length > at + 1.0 {
            pieces.push((at, length));
        }
        drawn.extend(pieces.into_iter().map(|(from, to)| Stretch { from: spot_on(a, b, from), to: spot_on(a, b, to) }));
    }
    drawn
}

pub(crate) fn on_line(a: Spot, b: Spot, stretch: Stretch) -> bool {
    off_line(a, b, stretch.from) <= TOUCHING && off_line(a, b, stretch.to) <= TOUCHING
}

fn sorted(a: f64, b: f64) -> (f64, f64) {
    if a <= b { (a, b) } else { (b, a) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::Length;

    fn total(stretches: &[Stretch]) -> f64 {
        stretches.iter().map(|s| s.from.to(s.to)).sum()
    }

    #[test]
    fn a_wall_between_two_rooms_is_drawn_once_and_gapes_at_its_door() {
        let a = Outline::rectangle(Length::mm(4000), Length::mm(3000));
        let b = a.moved(Spot::at(4000, 500));
        let without = walls([&a, &b].into_iter(), &[]);
        // Two rectangles of 14 m each, less the 2.5 m they share.
        assert!((total(&without) - 25_500.0).abs() < 1.0);
        let door = Stretch { from: Spot::at(4000, 1000), to: Spot::at(4000, 1800) };
        let with = walls([&a, &b].into_iter(), &[(OpeningKind::Door, door)]);
        assert!((total(&with) - 24_700.0).abs() < 1.0);
        let window = walls([&a, &b].into_iter(), &[(OpeningKind::Window, door)]);
        assert!((total(&window) - 25_500.0).abs() < 1.0, "a window leaves its wall");
    }
}
