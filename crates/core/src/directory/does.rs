//! What a circuit does most: the letter and the color of its line.

use std::collections::BTreeMap;

use crate::model::{LoadDoes, Point, PointKind};
use crate::study::Study;
use crate::wording::called;

/// Where nobody entered what is plugged in or lit: a receptacle counts as 180 W, as 220.14(I) of the NEC counts it (from memory); a
/// light as 40 W, the lights of one room in our library.
const RECEPTACLE: f64 = 180.0;
const LIGHT: f64 = 40.0;

/// What the biggest thing that stays on the circuit does; where it has none, what its receptacles and lights come to.
pub(super) fn does_most(home: &Study, points: &[&Point]) -> Option<LoadDoes> {
    let all: Vec<_> = points.iter().map(|point| (point.kind, called(home, point))).collect();
    let stays = all.iter().filter(|(_, known)| known.always && known.name.is_some() && known.does.is_some());
    if let Some((_, biggest)) = stays.max_by(|a, b| a.1.watts.total_cmp(&b.1.watts)) {
        return biggest.does;
    }
    let mut sums: BTreeMap<LoadDoes, f64> = BTreeMap::new();
    for (kind, known) in &all {
        let (does, least) = match kind {
            PointKind::Receptacle => (LoadDoes::Other, RECEPTACLE),
            PointKind::Light => (LoadDoes::Light, LIGHT),
            PointKind::Fan => (LoadDoes::Motor, 0.0),
            PointKind::Appliance | PointKind::Alarm => (LoadDoes::Other, 0.0),
            PointKind::Switch | PointKind::JunctionBox | PointKind::CappedCable => continue,
        };
        *sums.entry(does).or_default() += known.watts.max(least);
    }
    sums.into_iter().max_by(|a, b| a.1.total_cmp(&b.1)).map(|(does, _)| does)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    fn of(acts: &str) -> Option<LoadDoes> {
        let home = written(&format!("panel 8\n1 20\nroom Hall\n{acts}")).home;
        let points: Vec<&Point> = home.house().points().collect();
        does_most(&home, &points)
    }

    #[test]
    fn what_stays_goes_before_what_is_plugged_in() {
        assert_eq!(of("point Hall receptacle wall"), Some(LoadDoes::Other));
        assert_eq!(of("point Hall receptacle wall\npoint Hall receptacle freezer"), Some(LoadDoes::Cool));
        assert_eq!(of("point Hall receptacle wall\nload wall toaster"), Some(LoadDoes::Other), "a toaster is carried away");
        assert_eq!(of("point Hall appliance kiln\npoint Hall appliance refrigerator"), Some(LoadDoes::Heat), "the bigger");
        assert_eq!(of("point Hall appliance well-pump"), Some(LoadDoes::Motor));
    }

    #[test]
    fn lights_and_receptacles_are_weighed_and_nothing_is_nothing() {
        let lights = "point Hall light a\npoint Hall light b\npoint Hall light c\npoint Hall light d\npoint Hall light e";
        assert_eq!(of(lights), Some(LoadDoes::Light));
        assert_eq!(of(&format!("{lights}\npoint Hall receptacle wall")), Some(LoadDoes::Light), "200 W against 180 W");
        assert_eq!(of("point Hall light a\npoint Hall receptacle wall"), Some(LoadDoes::Other));
        assert_eq!(of("point Hall switch a"), None);
    }
}
