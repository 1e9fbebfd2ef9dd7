//! Outlines of rooms: polygons in whole millimeters, x to the right, y down the sheet.

use geo::{Area, BooleanOps, Coord, LineString, Polygon, Validation};

use crate::model::Length;
use crate::model::units::millimeters;

/// A place on a floor, in millimeters: x to the right, y down the sheet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spot {
    /// To the right.
    #[serde(deserialize_with = "millimeters")]
    #[schema(minimum = -100_000_000, maximum = 100_000_000)]
    pub x: i32,
    /// Down the sheet.
    #[serde(deserialize_with = "millimeters")]
    #[schema(minimum = -100_000_000, maximum = 100_000_000)]
    pub y: i32,
}

impl Spot {
    /// A place.
    pub const fn at(x: i32, y: i32) -> Self {
        Self { x, y }
    }
    pub(crate) const fn plus(self, by: Self) -> Self {
        Self { x: self.x + by.x, y: self.y + by.y }
    }
    pub(crate) const fn minus(self, by: Self) -> Self {
        Self { x: self.x - by.x, y: self.y - by.y }
    }
    /// How far apart two places are, in millimeters.
    pub(crate) fn to(self, other: Self) -> f64 {
        f64::from(self.x - other.x).hypot(f64::from(self.y - other.y))
    }
}

/// The inside of a room, corner by corner, clockwise on the sheet; the last corner joins the first.
///
/// Rooms are drawn by their inside measures and walls have no thickness on the plan.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(transparent)]
pub struct Outline(Vec<Spot>);

/// The box around something.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Bounds {
    /// Left edge.
    pub x: i32,
    /// Upper edge.
    pub y: i32,
    /// Width.
    pub width: i32,
    /// Height on the sheet.
    pub height: i32,
}

impl Bounds {
    /// Around these places; `None` for none.
    pub fn around(spots: impl IntoIterator<Item = Spot>) -> Option<Self> {
        let mut spots = spots.into_iter();
        let first = spots.next()?;
        let (mut least, mut most) = (first, first);
        for spot in spots {
            least = Spot::at(least.x.min(spot.x), least.y.min(spot.y));
            most = Spot::at(most.x.max(spot.x), most.y.max(spot.y));
        }
        Some(Self { x: least.x, y: least.y, width: most.x - least.x, height: most.y - least.y })
    }
    pub(crate) const fn corner(&self) -> Spot {
        Spot::at(self.x, self.y)
    }
}

/// The largest coordinate and side of a room: 200 m.
const FAR: u32 = 200_000;

impl Outline {
    /// A rectangle whose upper left corner is at 0, 0.
    pub fn rectangle(width: Length, depth: Length) -> Self {
        let (w, d) = (width.millimeters(), depth.millimeters());
        Self(vec![Spot::at(0, 0), Spot::at(w, 0), Spot::at(w, d), Spot::at(0, d)])
    }

    /// From corners in either sense. Gives why it is no room: corners missing, too far away, sides that cross.
    pub fn new(corners: Vec<Spot>) -> Result<Self, String> {
        let mut corners = corners;
        corners.dedup();
        if corners.len() > 1 && corners.first() == corners.last() {
            corners.pop();
        }
        // A corner on a straight wall is none.
        let n = corners.len();
        let bends = |i: usize| {
            let (a, b, c) = (corners[(i + n - 1) % n], corners[i], corners[(i + 1) % n]);
            cross(a, b, c) != 0
        };
        let corners: Vec<Spot> = (0..n).filter(|i| bends(*i)).map(|i| corners[i]).collect();
        if !(3..=40).contains(&corners.len()) {
            return Err(format!("A room has 3 to 40 corners; this one has {}.", corners.len()));
        }
        if corners.iter().any(|c| c.x.unsigned_abs() > FAR || c.y.unsigned_abs() > FAR) {
            return Err("A room lies within 200 m of the plan's origin.".into());
        }
        let mut outline = Self(corners);
        if !outline.polygon().is_valid() {
            return Err("The walls of the room cross each other.".into());
        }
        if outline.twice_area() < 0 {
            outline.0.reverse();
        }
        if outline.area_m2() < 0.2 {
            return Err("The room would be smaller than 0.2 m².".into());
        }
        Ok(outline)
    }

    /// The nearest place on a wall within reach, and the turn of what leans there, in degrees.
    pub(crate) fn against(&self, spot: Spot, reach: f64) -> Option<(Spot, i32)> {
        let (wall, along, away) = self.nearest_wall(spot);
        if away > reach {
            return None;
        }
        let (a, b) = self.wall(wall);
        let turn = (f64::from(b.y - a.y).atan2(f64::from(b.x - a.x))).to_degrees().round() as i32;
        Some((spot_on(a, b, along), turn.rem_euclid(360)))
    }

    /// The corners.
    pub fn corners(&self) -> &[Spot] {
        &self.0
    }
    /// Every wall, from corner to corner, clockwise.
    pub fn walls(&self) -> impl Iterator<Item = (Spot, Spot)> + '_ {
        (0..self.0.len()).map(|n| self.wall(n))
    }
    pub(crate) fn wall(&self, n: usize) -> (Spot, Spot) {
        (self.0[n], self.0[(n + 1) % self.0.len()])
    }
    pub(crate) fn bounds(&self) -> Bounds {
        Bounds::around(self.0.iter().copied()).unwrap_or_else(|| unreachable!("an outline has corners"))
    }
    pub(crate) fn moved(&self, by: Spot) -> Self {
        Self(self.0.iter().map(|corner| corner.plus(by)).collect())
    }
    fn twice_area(&self) -> i64 {
        self.walls().map(|(a, b)| i64::from(a.x) * i64::from(b.y) - i64::from(b.x) * i64::from(a.y)).sum()
    }
    /// In square meters.
    pub fn area_m2(&self) -> f64 {
        self.twice_area().abs() as f64 / 2e6
    }
    pub(crate) fn polygon(&self) -> Polygon<f64> {
        let ring: Vec<Coord<f64>> = self.0.iter().map(|c| Coord { x: f64::from(c.x), y: f64::from(c.y) }).collect();
        Polygon::new(LineString::from(ring), Vec::new())
    }
    /// The area two rooms share, in square meters.
    pub(crate) fn overlap_m2(&self, other: &Self) -> f64 {
        let (a, b) = (self.bounds(), other.bounds());
        let apart = a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
        if apart { 0.0 } else { self.polygon().intersection(&other.polygon()).unsigned_area() / 1e6 }
    }
    /// Whether the place is inside or on a wall.
    pub(crate) fn holds(&self, spot: Spot) -> bool {
        if self.walls().any(|(a, b)| on_segment(a, b, spot)) {
            return true;
        }
        let mut inside = false;
        for (a, b) in self.walls() {
            if (a.y > spot.y) != (b.y > spot.y) {
                // The crossing is right of the spot: compared without dividing.
                let side = cross(a, b, spot);
                inside ^= if b.y > a.y { side > 0 } else { side < 0 };
            }
        }
        inside
    }
    /// Whether the straight way between two places stays inside.
    pub(crate) fn sees(&self, from: Spot, to: Spot) -> bool {
        if !self.holds(from) || !self.holds(to) {
            return false;
        }
        // Split where the way touches a wall or a corner; every piece must be inside at its middle.
        let mut cuts = vec![0.0, 1.0];
        let (dx, dy) = (f64::from(to.x - from.x), f64::from(to.y - from.y));
        for (a, b) in self.walls() {
            let (wx, wy) = (f64::from(b.x - a.x), f64::from(b.y - a.y));
            let det = dx * wy - dy * wx;
            let (ax, ay) = (f64::from(a.x - from.x), f64::from(a.y - from.y));
            if det != 0.0 {
                let (t, u) = ((ax * wy - ay * wx) / det, (ax * dy - ay * dx) / det);
                if (-1e-9..=1.0 + 1e-9).contains(&u) && (0.0..=1.0).contains(&t) {
                    cuts.push(t);
                }
            } else if ax * dy - ay * dx == 0.0 {
                let long = dx * dx + dy * dy;
                for corner in [a, b] {
                    let t = (f64::from(corner.x - from.x) * dx + f64::from(corner.y - from.y) * dy) / long;
                    if (0.0..=1.0).contains(&t) {
                        cuts.push(t);
                    }
                }
            }
        }
        cuts.sort_by(f64::total_cmp);
        cuts.windows(2).filter(|pair| pair[1] - pair[0] > 1e-9).all(|pair| {
            let t = f64::midpoint(pair[0], pair[1]);
            self.nearly_holds(f64::from(from.x) + dx * t, f64::from(from.y) + dy * t)
        })
    }
    /// Inside, or within a millimeter of a wall.
    fn nearly_holds(&self, x: f64, y: f64) -> bool {
        let mut inside = false;
        for (a, b) in self.walls() {
            let (ax, ay, bx, by) = (f64::from(a.x), f64::from(a.y), f64::from(b.x), f64::from(b.y));
            if distance_to_segment(ax, ay, bx, by, x, y) < 1.0 {
                return true;
            }
            if (ay > y) != (by > y) && x < ax + (y - ay) / (by - ay) * (bx - ax) {
                inside = !inside;
            }
        }
        inside
    }
    /// The nearest place on a wall: which wall, how far along it, how far away; all in millimeters.
    pub(crate) fn nearest_wall(&self, spot: Spot) -> (usize, f64, f64) {
        let mut best = (0, 0.0, f64::INFINITY);
        for (n, (a, b)) in self.walls().enumerate() {
            let along = along(a, b, spot).clamp(0.0, a.to(b));
            let (x, y) = point_on(a, b, along);
            let away = (f64::from(spot.x) - x).hypot(f64::from(spot.y) - y);
            if away < best.2 - 1e-9 {
                best = (n, along, away);
            }
        }
        best
    }
    /// A place well inside, for a name or a ceiling light: the middle, or the roomiest of a grid.
    pub fn middle(&self) -> Spot {
        let bounds = self.bounds();
        let center = Spot::at(bounds.x + bounds.width / 2, bounds.y + bounds.height / 2);
        let room = |spot: Spot| if self.holds(spot) { self.nearest_wall(spot).2 } else { -1.0 };
        if self.0.len() == 4 && self.holds(center) {
            return center;
        }
        let step = |n: i32, k: i32, of: i32| (f64::from(of) * f64::from(k) / f64::from(n)) as i32;
        (1..12)
            .flat_map(|i| (1..12).map(move |j| (i, j)))
            .map(|(i, j)| Spot::at(bounds.x + step(12, i, bounds.width), bounds.y + step(12, j, bounds.height)))
            .max_by(|a, b| room(*a).total_cmp(&room(*b)).then(center.to(*b).total_cmp(&center.to(*a))))
            .unwrap_or(center)
    }
    /// Corners that stick into the room, around which a way may lead.
    pub(crate) fn inward_corners(&self) -> impl Iterator<Item = Spot> + '_ {
        let n = self.0.len();
        (0..n).filter(move |i| cross(self.0[(i + n - 1) % n], self.0[*i], self.0[(i + 1) % n]) < 0).map(|i| self.0[i])
    }
    /// The stretches of wall that two rooms have in common, in this room's sense.
    pub(crate) fn shared(&self, other: &Self) -> Vec<(usize, Spot, Spot)> {
        let mut shared = Vec::new();
        for (n, (a, b)) in self.walls().enumerate() {
            for (c, d) in other.walls() {
                let length = a.to(b);
                if off_line(a, b, c) > TOUCHING || off_line(a, b, d) > TOUCHING {
                    continue;
                }
                let (mut from, mut to) = (along(a, b, c), along(a, b, d));
                if from > to {
                    (from, to) = (to, from);
                }
                let (from, to) = (from.max(0.0), to.min(length));
                if to - from >= 100.0 {
                    shared.push((n, spot_on(a, b, from), spot_on(a, b, to)));
                }
            }
        }
        shared
    }
}

/// Walls closer than this are one wall.
pub(crate) const TOUCHING: f64 = 30.0;

fn cross(a: Spot, b: Spot, c: Spot) -> i64 {
    (i64::from(b.x) - i64::from(a.x)) * (i64::from(c.y) - i64::from(a.y))
        - (i64::from(b.y) - i64::from(a.y)) * (i64::from(c.x) - i64::from(a.x))
}

fn on_segment(a: Spot, b: Spot, spot: Spot) -> bool {
    cross(a, b, spot) == 0 && (a.x.min(b.x)..=a.x.max(b.x)).contains(&spot.x) && (a.y.min(b.y)..=a.y.max(b.y)).contains(&spot.y)
}

/// How far along the line from `a` to `b` the foot of `spot` is.
pub(crate) fn along(a: Spot, b: Spot, spot: Spot) -> f64 {
    let length = a.to(b).max(1.0);
    (f64::from(spot.x - a.x) * f64::from(b.x - a.x) + f64::from(spot.y - a.y) * f64::from(b.y - a.y)) / length
}

/// How far off the line through `a` and `b` a place is.
pub(crate) fn off_line(a: Spot, b: Spot, spot: Spot) -> f64 {
    cross(a, b, spot).abs() as f64 / a.to(b).max(1.0)
}

fn point_on(a: Spot, b: Spot, along: f64) -> (f64, f64) {
    let t = along / a.to(b).max(1.0);
    (f64::from(a.x) + f64::from(b.x - a.x) * t, f64::from(a.y) + f64::from(b.y - a.y) * t)
}

/// The place so far along from `a` to `b`.
pub(crate) fn spot_on(a: Spot, b: Spot, along: f64) -> Spot {
    let (x, y) = point_on(a, b, along);
    Spot::at(x.round() as i32, y.round() as i32)
}

fn distance_to_segment(ax: f64, ay: f64, bx: f64, by: f64, x: f64, y: f64) -> f64 {
    let (dx, dy) = (bx - ax, by - ay);
    let t = (((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy).max(1.0)).clamp(0.0, 1.0);
    (x - ax - dx * t).hypot(y - ay - dy * t)
}

#[cfg(test)]
mod tests {
    use super::*;

    pub(crate) fn outline(corners: &[(i32, i32)]) -> Result<Outline, String> {
        Outline::new(corners.iter().map(|(x, y)| Spot::at(*x, *y)).collect())
    }

    #[test]
    fn an_l_shape_knows_its_area_its_inside_and_what_is_in_sight() {
        let l = outline(&[(0, 0), (4000, 0), (4000, 2000), (2000, 2000), (2000, 3000), (0, 3000)]).unwrap();
        assert!((l.area_m2() - 10.0).abs() < 1e-9);
        assert!(l.holds(Spot::at(1000, 2500)) && l.holds(Spot::at(2000, 2500)) && !l.holds(Spot::at(3000, 2500)));
        assert!(l.sees(Spot::at(500, 500), Spot::at(3500, 1900)));
        assert!(!l.sees(Spot::at(500, 2900), Spot::at(3900, 1900)), "around the corner");
        assert!(l.sees(Spot::at(2000, 3000), Spot::at(2000, 0)), "along a wall and past its corner");
        assert_eq!(l.inward_corners().collect::<Vec<_>>(), [Spot::at(2000, 2000)]);
        assert!(l.holds(l.middle()));
    }

    #[test]
    fn corners_come_in_either_sense_and_nonsense_is_told() {
        let left = outline(&[(0, 0), (0, 3000), (4000, 3000), (4000, 0), (2000, 0), (0, 0)]).unwrap();
        assert_eq!(left.corners().len(), 4, "a corner on a straight wall is none");
        let right = outline(&[(0, 0), (4000, 0), (4000, 3000), (0, 3000)]).unwrap();
        assert!(left.walls().all(|wall| right.walls().any(|other| wall == other)), "clockwise whichever way it came");
        for (corners, says) in [
            (&[(0, 0), (1000, 0)][..], "3 to 40 corners"),
            (&[(0, 0), (4000, 3000), (4000, 0), (0, 3000)], "cross"),
            (&[(0, 0), (300_000, 0), (0, 300_000)], "200 m"),
            (&[(0, 0), (300, 0), (300, 300), (0, 300)], "0.2 m²"),
        ] {
            assert!(outline(corners).unwrap_err().contains(says), "{corners:?}");
        }
    }

    #[test]
    fn overlaps_and_shared_walls_are_measured() {
        let a = outline(&[(0, 0), (4000, 0), (4000, 3000), (0, 3000)]).unwrap();
        let b = outline(&[(4000, 1000), (6000, 1000), (6000, 5000), (4000, 5000)]).unwrap();
        assert_eq!(a.overlap_m2(&b), 0.0);
        let [(wall, from, to)] = a.shared(&b)[..] else { panic!("one stretch") };
        assert_eq!((wall, from, to), (1, Spot::at(4000, 1000), Spot::at(4000, 3000)));
        assert!((a.overlap_m2(&b.moved(Spot::at(-500, 0))) - 1.0).abs() < 1e-6);
    }
}
