//! Where each point's tag stands: beside its symbol, clear of symbols, walls and other tags.

use crate::model::{Spot, Stretch};

/// Height of a tag, in millimeters of the plan.
pub(crate) const TAG_HEIGHT: i32 = 250;

/// How wide a tag with this text is: a blade with room for its point.
pub(crate) fn tag_width(text: &str) -> i32 {
    let wide = text.chars().map(|c| if c.is_ascii_digit() { 100 } else { 95 }).sum::<i32>();
    wide + 190
}

/// What a tag must keep clear of.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Box2 {
    x: f64,
    y: f64,
    w: f64,
    h: f64,
}

impl Box2 {
    pub(crate) fn around(middle: Spot, width: i32, height: i32) -> Self {
        let (w, h) = (f64::from(width), f64::from(height));
        Self { x: f64::from(middle.x) - w / 2.0, y: f64::from(middle.y) - h / 2.0, w, h }
    }
    pub(crate) fn overlap(&self, other: &Self) -> f64 {
        let w = (self.x + self.w).min(other.x + other.w) - self.x.max(other.x);
        let h = (self.y + self.h).min(other.y + other.h) - self.y.max(other.y);
        if w > 0.0 && h > 0.0 { w * h } else { 0.0 }
    }
    fn crossed_by(&self, stretch: &Stretch) -> bool {
        let (x1, x2) = ordered(stretch.from.x, stretch.to.x);
        let (y1, y2) = ordered(stretch.from.y, stretch.to.y);
        x1 < self.x + self.w && x2 > self.x && y1 < self.y + self.h && y2 > self.y
    }
}

fn ordered(a: i32, b: i32) -> (f64, f64) {
    (f64::from(a.min(b)), f64::from(a.max(b)))
}

/// A place for each of these tags (middle and size of the symbol, width of the tag) of this height, in their order.
pub(crate) fn place(symbols: &[(Spot, i32, i32)], height: i32, names: &[Box2], walls: &[Stretch]) -> Vec<Spot> {
    const GAP: i32 = 40;
    let bodies: Vec<Box2> = symbols.iter().map(|(at, size, _)| Box2::around(*at, *size, *size)).collect();
    let mut taken: Vec<Box2> = Vec::new();
    let mut placed = Vec::new();
    for (n, (at, size, width)) in symbols.iter().enumerate() {
        let width = *width;
        let (dx, dy) = ((size + width) / 2 + GAP, (size + height) / 2 + GAP);
        let near = [(dx, 0), (-dx, 0), (0, dy), (0, -dy), (dx, dy), (-dx, dy), (dx, -dy), (-dx, -dy)];
        let far = near.iter().map(|(x, y)| (x + x.signum() * 160, y + y.signum() * 200));
        let candidates = near.iter().copied().chain(far);
        // Only what lies within reach of a candidate counts.
        let reach = Box2::around(*at, 2 * (dx + 160) + width, 2 * (dy + 200) + height);
        let within = |other: &&Box2| reach.overlap(other) > 0.0;
        let taken_near: Vec<&Box2> = taken.iter().filter(within).collect();
        let bodies_near: Vec<&Box2> =
            bodies.iter().enumerate().filter(|(m, _)| *m != n).map(|(_, body)| body).filter(within).collect();
        let names_near: Vec<&Box2> = names.iter().filter(within).collect();
        let walls_near: Vec<&Stretch> = walls.iter().filter(|wall| reach.crossed_by(wall)).collect();
        let cost = |(x, y): (i32, i32)| {
            let body = Box2::around(at.plus(Spot::at(x, y)), width, height);
            let on_tags: f64 = taken_near.iter().map(|other| body.overlap(other)).sum();
            let on_bodies: f64 = bodies_near.iter().map(|other| body.overlap(other)).sum();
            let on_names: f64 = names_near.iter().map(|other| body.overlap(other)).sum();
            let crossings = walls_near.iter().filter(|wall| body.crossed_by(wall)).count();
            on_tags * 4.0 + on_bodies * 3.0 + on_names + crossings as f64 * 60_000.0
        };
        let mut best: Option<(f64, (i32, i32))> = None;
        for (rank, candidate) in candidates.enumerate() {
            let cost = cost(candidate) + rank as f64 * 2_000.0;
            if best.is_none_or(|(least, _)| cost < least) {
                best = Some((cost, candidate));
            }
        }
        let (x, y) = best.map_or((0, 0), |(_, candidate)| candidate);
        let middle = at.plus(Spot::at(x, y));
        taken.push(Box2::around(middle, width, height));
        placed.push(middle);
    }
    placed
}
