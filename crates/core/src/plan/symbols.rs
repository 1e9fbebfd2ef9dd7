//! Wiring symbols as strokes, in millimeters of the plan around 0, 0. Wall symbols stand on a wall that runs along
//! x, with the room towards y.
//!
//! The set follows the published symbols for architectural wiring plans (ANSI Y32.9, NECA 100), from memory.

use crate::model::{Outlets, Point, PointKind, Spot, Volts};

/// One stroke.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "stroke", rename_all = "snake_case")]
pub enum Stroke {
    /// A straight line.
    Line {
        /// One end.
        from: Spot,
        /// The other.
        to: Spot,
    },
    /// A circle.
    Circle {
        /// Its middle.
        at: Spot,
        /// Its radius.
        radius: i32,
        /// Filled with ink.
        filled: bool,
    },
    /// Letters, their middle at `at`; they stay upright however the symbol is turned.
    Letters {
        /// Their middle.
        at: Spot,
        /// What they say.
        text: String,
        /// The height of a capital.
        height: i32,
    },
}

/// Which symbol.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Symbol {
    SingleReceptacle,
    DuplexReceptacle,
    SplitReceptacle,
    QuadReceptacle,
    GfciReceptacle,
    OutdoorReceptacle,
    HighVoltageReceptacle,
    Light,
    WallLight,
    Fan,
    Switch,
    ThreeWaySwitch,
    Appliance,
    Alarm,
    JunctionBox,
    CappedCable,
}

impl Symbol {
    /// Every symbol.
    pub const ALL: [Self; 16] = [
        Self::SingleReceptacle,
        Self::DuplexReceptacle,
        Self::SplitReceptacle,
        Self::QuadReceptacle,
        Self::GfciReceptacle,
        Self::OutdoorReceptacle,
        Self::HighVoltageReceptacle,
        Self::Light,
        Self::WallLight,
        Self::Fan,
        Self::Switch,
        Self::ThreeWaySwitch,
        Self::Appliance,
        Self::Alarm,
        Self::JunctionBox,
        Self::CappedCable,
    ];

    /// As a legend has it: `duplex receptacle`.
    pub const fn words(self) -> &'static str {
        match self {
            Self::SingleReceptacle => "single receptacle",
            Self::DuplexReceptacle => "duplex receptacle",
            Self::SplitReceptacle => "duplex, halves apart",
            Self::QuadReceptacle => "quad receptacle",
            Self::GfciReceptacle => "receptacle with GFCI",
            Self::OutdoorReceptacle => "outdoor receptacle",
            Self::HighVoltageReceptacle => "240 V receptacle",
            Self::Light => "ceiling light",
            Self::WallLight => "wall light",
            Self::Fan => "fan",
            Self::Switch => "switch",
            Self::ThreeWaySwitch => "three-way switch",
            Self::Appliance => "fixed appliance",
            Self::Alarm => "alarm",
            Self::JunctionBox => "junction box",
            Self::CappedCable => "capped cable",
        }
    }

    /// The name of its block in a drawing file.
    pub const fn block(self) -> &'static str {
        match self {
            Self::SingleReceptacle => "RECEPTACLE_SINGLE",
            Self::DuplexReceptacle => "RECEPTACLE_DUPLEX",
            Self::SplitReceptacle => "RECEPTACLE_SPLIT",
            Self::QuadReceptacle => "RECEPTACLE_QUAD",
            Self::GfciReceptacle => "RECEPTACLE_GFCI",
            Self::OutdoorReceptacle => "RECEPTACLE_OUTDOOR",
            Self::HighVoltageReceptacle => "RECEPTACLE_240V",
            Self::Light => "LIGHT_CEILING",
            Self::WallLight => "LIGHT_WALL",
            Self::Fan => "FAN",
            Self::Switch => "SWITCH",
            Self::ThreeWaySwitch => "SWITCH_3WAY",
            Self::Appliance => "APPLIANCE",
            Self::Alarm => "ALARM",
            Self::JunctionBox => "JUNCTION_BOX",
            Self::CappedCable => "CAPPED_CABLE",
        }
    }

    /// The kind of point a block of this name means, and whether it has 240 V; names are taken whole, in any case.
    pub fn of_block(name: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|symbol| symbol.block().eq_ignore_ascii_case(name))
    }

    /// What a symbol says of its point.
    pub const fn kind(self) -> PointKind {
        match self {
            Self::SingleReceptacle
            | Self::DuplexReceptacle
            | Self::SplitReceptacle
            | Self::QuadReceptacle
            | Self::GfciReceptacle
            | Self::OutdoorReceptacle
            | Self::HighVoltageReceptacle => PointKind::Receptacle,
            Self::Light | Self::WallLight => PointKind::Light,
            Self::Fan => PointKind::Fan,
            Self::Switch | Self::ThreeWaySwitch => PointKind::Switch,
            Self::Appliance => PointKind::Appliance,
            Self::Alarm => PointKind::Alarm,
            Self::JunctionBox => PointKind::JunctionBox,
            Self::CappedCable => PointKind::CappedCable,
        }
    }

    /// The symbol of a point. `on_wall`: it stands on one; `switches`: how many switches share its lamps; `split`: the
    /// other half of the device is a point of its own.
    pub(crate) fn of(point: &Point, on_wall: bool, three_way: bool, split: bool) -> Self {
        match point.kind {
            PointKind::Receptacle if point.volts == Volts::new(240) => Self::HighVoltageReceptacle,
            PointKind::Receptacle if split || point.details.half_of.is_some() => Self::SplitReceptacle,
            PointKind::Receptacle if point.details.gfci => Self::GfciReceptacle,
            PointKind::Receptacle if point.details.outdoor => Self::OutdoorReceptacle,
            PointKind::Receptacle => match point.details.outlets {
                Outlets::Single => Self::SingleReceptacle,
                Outlets::Duplex => Self::DuplexReceptacle,
                Outlets::Quad => Self::QuadReceptacle,
            },
            PointKind::Light if on_wall => Self::WallLight,
            PointKind::Light => Self::Light,
            PointKind::Fan => Self::Fan,
            PointKind::Switch if three_way => Self::ThreeWaySwitch,
            PointKind::Switch => Self::Switch,
            PointKind::Appliance => Self::Appliance,
            PointKind::Alarm => Self::Alarm,
            PointKind::JunctionBox => Self::JunctionBox,
            PointKind::CappedCable => Self::CappedCable,
        }
    }

    /// How it is drawn. On a wall the wall is at y = 0 and the room below it.
    pub fn strokes(self) -> Vec<Stroke> {
        let line = |x1, y1, x2, y2| Stroke::Line { from: Spot::at(x1, y1), to: Spot::at(x2, y2) };
        let circle = |y, radius| Stroke::Circle { at: Spot::at(0, y), radius, filled: false };
        let letters = |text: &str, x, y, height| Stroke::Letters { at: Spot::at(x, y), text: text.into(), height };
        // A receptacle: a circle at the wall, one line across for each plug, out to the wall.
        let mut strokes = vec![circle(MIDDLE, RADIUS)];
        match self {
            Self::SingleReceptacle => strokes.push(line(0, 0, 0, MIDDLE + RADIUS)),
            Self::DuplexReceptacle => strokes.extend(plugs(&[-40, 40])),
            Self::SplitReceptacle => {
                strokes.extend(plugs(&[-40, 40]));
                strokes.push(Stroke::Circle { at: Spot::at(0, MIDDLE), radius: 22, filled: true });
            }
            Self::QuadReceptacle => strokes.extend(plugs(&[-72, -24, 24, 72])),
            Self::GfciReceptacle => {
                strokes.extend(plugs(&[-40, 40]));
                strokes.push(letters("GFCI", 0, MIDDLE + RADIUS + 95, LETTERS));
            }
            Self::OutdoorReceptacle => {
                strokes.extend(plugs(&[-40, 40]));
                strokes.push(letters("WP", 0, MIDDLE + RADIUS + 95, LETTERS));
            }
            Self::HighVoltageReceptacle => strokes.extend(plugs(&[-55, 0, 55])),
            Self::Light => {
                let (r, out) = (RADIUS, RADIUS + 45);
                strokes = vec![Stroke::Circle { at: Spot::at(0, 0), radius: r, filled: false }];
                strokes.extend([line(0, -out, 0, out), line(-out, 0, out, 0)]);
            }
            Self::WallLight => {
                strokes.extend([line(0, 0, 0, MIDDLE + RADIUS + 45), line(-RADIUS - 45, MIDDLE, RADIUS + 45, MIDDLE)])
            }
            Self::Fan => {
                strokes = vec![Stroke::Circle { at: Spot::at(0, 0), radius: RADIUS, filled: false }, letters("F", 0, 0, LETTERS)];
            }
            Self::Switch => strokes = vec![line(0, 0, 0, 70), letters("S", 0, 140, 150)],
            Self::ThreeWaySwitch => strokes = vec![line(0, 0, 0, 70), letters("S3", 0, 140, 150)],
            Self::Appliance => {
                let s = 110;
                strokes =
                    vec![line(-s, -s, s, -s), line(s, -s, s, s), line(s, s, -s, s), line(-s, s, -s, -s), line(-s, s, s, -s)];
            }
            Self::Alarm => {
                strokes =
                    vec![Stroke::Circle { at: Spot::at(0, 0), radius: RADIUS + 50, filled: false }, letters("AL", 0, 0, LETTERS)];
            }
            Self::JunctionBox => {
                strokes = vec![Stroke::Circle { at: Spot::at(0, 0), radius: RADIUS, filled: false }, letters("J", 0, 0, LETTERS)];
            }
            Self::CappedCable => {
                strokes = vec![Stroke::Circle { at: Spot::at(0, 0), radius: RADIUS, filled: false }];
                strokes.extend([line(-78, -78, 78, 78), line(-78, 78, 78, -78)]);
            }
        }
        strokes
    }

    /// Whether it is drawn against a wall that is near.
    pub(crate) const fn leans(self) -> bool {
        !matches!(self, Self::Light | Self::Fan | Self::Appliance | Self::Alarm | Self::JunctionBox | Self::CappedCable)
    }

    /// The middle of what is drawn, for a symbol that is not turned.
    pub(crate) const fn middle(self) -> Spot {
        if self.leans() { Spot::at(0, MIDDLE) } else { Spot::at(0, 0) }
    }
}

/// How far from the wall the middle of a wall symbol is.
const MIDDLE: i32 = 150;
/// The height of the capitals in a symbol: as large on the screen as the letters of a tag.
const LETTERS: i32 = 137;

/// The radius of a symbol's circle.
pub(crate) const RADIUS: i32 = 110;

/// A line from the wall through the circle for each plug.
fn plugs(at: &[i32]) -> Vec<Stroke> {
    let end = |x: i32| MIDDLE + (f64::from(RADIUS * RADIUS - x * x)).sqrt() as i32;
    at.iter().map(|x| Stroke::Line { from: Spot::at(*x, 0), to: Spot::at(*x, end(*x)) }).collect()
}

/// A place of a symbol on the floor: turned by `turn` degrees clockwise on the sheet, then moved to `at`.
pub fn turned(spot: Spot, turn: i32, at: Spot) -> Spot {
    let (sin, cos) = f64::from(turn).to_radians().sin_cos();
    let (x, y) = (f64::from(spot.x), f64::from(spot.y));
    Spot::at(at.x + (x * cos - y * sin).round() as i32, at.y + (x * sin + y * cos).round() as i32)
}
