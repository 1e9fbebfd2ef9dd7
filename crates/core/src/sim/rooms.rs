//! The rooms that made-up houses are put together from, and how they are laid out: along a hall on each floor.

use crate::logbook::{Fact, FloorPlaced, OpeningPlaced, PanelStands, RoomDrawn, RoomPlaced, StairsPlaced};
use crate::model::{Length, OpeningId, OpeningKind, RoomId, Spot};

/// What a point is, for the wiring.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Kind {
    Receptacle,
    /// A receptacle with test and reset buttons.
    Gfci,
    Light,
    Alarm,
    Appliance,
    /// At 240 V.
    High,
    /// May be without power only so long.
    Cold,
    /// Never off.
    MustStay,
}

impl Kind {
    /// What it draws when it runs, in amperes; typical values from memory.
    pub(super) const fn draws(self) -> f64 {
        match self {
            Self::Receptacle | Self::Gfci => 1.2,
            Self::Light => 0.4,
            Self::Alarm => 0.05,
            Self::Appliance => 6.5,
            Self::High => 18.0,
            Self::Cold => 1.6,
            Self::MustStay => 4.8,
        }
    }
}

/// Where a room is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Ground {
    Floor,
    Upstairs,
    Cellar,
    Outside,
}

/// A room as it may be.
pub(super) struct Template {
    pub(super) name: &'static str,
    pub(super) ground: Ground,
    pub(super) points: &'static [(&'static str, Kind)],
}

use Ground::{Cellar, Floor, Outside, Upstairs};
use Kind::{Alarm, Appliance, Cold, Gfci, High, Light, MustStay, Receptacle};

pub(super) const ROOMS: &[Template] = &[
    Template {
        name: "Kitchen",
        ground: Floor,
        points: &[
            ("counter, left", Receptacle),
            ("ceiling", Light),
            ("by the sink", Gfci),
            ("range", High),
            ("counter, right", Receptacle),
            ("refrigerator", Cold),
            ("table", Receptacle),
            ("over the sink", Light),
            ("dishwasher", Appliance),
            ("window", Receptacle),
        ],
    },
    Template {
        name: "Hall",
        ground: Floor,
        points: &[("ceiling", Light), ("by the door", Receptacle), ("stairs", Light), ("smoke alarm", Alarm)],
    },
    Template {
        name: "Bath",
        ground: Floor,
        points: &[("basin", Gfci), ("mirror", Light), ("heater", Appliance), ("ceiling", Light)],
    },
    Template {
        name: "Parlor",
        ground: Floor,
        points: &[
            ("north wall", Receptacle),
            ("ceiling", Light),
            ("south wall, left", Receptacle),
            ("south wall, right", Receptacle),
            ("bay", Receptacle),
            ("sconces", Light),
        ],
    },
    Template {
        name: "Front bedroom",
        ground: Upstairs,
        points: &[
            ("bed, left", Receptacle),
            ("ceiling", Light),
            ("bed, right", Receptacle),
            ("desk", Receptacle),
            ("alarm", Alarm),
        ],
    },
    Template {
        name: "Back bedroom",
        ground: Upstairs,
        points: &[("bed", Receptacle), ("ceiling", Light), ("dresser", Receptacle), ("window", Receptacle), ("closet", Light)],
    },
    Template {
        name: "Cellar",
        ground: Cellar,
        points: &[
            ("stairs", Light),
            ("bench", Receptacle),
            ("sump pump", MustStay),
            ("water heater", High),
            ("freezer", Cold),
            ("far corner", Light),
        ],
    },
    Template {
        name: "Laundry",
        ground: Cellar,
        points: &[("washer", Appliance), ("ceiling", Light), ("dryer", High), ("ironing", Receptacle)],
    },
    Template {
        name: "Study",
        ground: Floor,
        points: &[
            ("desk, left", Receptacle),
            ("ceiling", Light),
            ("desk, right", Receptacle),
            ("shelf", Receptacle),
            ("reading", Light),
        ],
    },
    Template { name: "Porch", ground: Outside, points: &[("lantern", Light), ("wall", Receptacle), ("steps", Light)] },
    Template {
        name: "Workshop",
        ground: Floor,
        points: &[
            ("bench, left", Receptacle),
            ("ceiling", Light),
            ("bench, right", Receptacle),
            ("saw", High),
            ("compressor", Appliance),
            ("door", Light),
            ("back wall", Receptacle),
        ],
    },
    Template {
        name: "Loft",
        ground: Upstairs,
        points: &[("ridge", Light), ("knee wall, east", Receptacle), ("knee wall, west", Receptacle), ("hatch", Light)],
    },
    Template {
        name: "Sewing room",
        ground: Upstairs,
        points: &[("machine", Receptacle), ("ceiling", Light), ("press", Receptacle), ("window", Receptacle)],
    },
    Template {
        name: "Dining room",
        ground: Floor,
        points: &[
            ("sideboard", Receptacle),
            ("table", Light),
            ("window", Receptacle),
            ("corner", Receptacle),
            ("picture", Light),
        ],
    },
    Template { name: "Pantry", ground: Floor, points: &[("shelf", Receptacle), ("ceiling", Light), ("ice box", Cold)] },
    Template {
        name: "Upper bath",
        ground: Upstairs,
        points: &[("basin, upper", Gfci), ("mirror", Light), ("ceiling", Light), ("fan heater", Appliance)],
    },
    Template {
        name: "Garage",
        ground: Floor,
        points: &[
            ("door opener", Appliance),
            ("ceiling, front", Light),
            ("left wall", Receptacle),
            ("right wall", Receptacle),
            ("ceiling, back", Light),
            ("bench", Receptacle),
        ],
    },
    Template {
        name: "Nursery",
        ground: Upstairs,
        points: &[("crib", Receptacle), ("ceiling", Light), ("corner", Receptacle), ("night light", Receptacle)],
    },
    Template {
        name: "Guest room",
        ground: Upstairs,
        points: &[("bed", Receptacle), ("ceiling", Light), ("window", Receptacle), ("closet", Light), ("alarm", Alarm)],
    },
    Template {
        name: "Boiler room",
        ground: Cellar,
        points: &[("boiler", Appliance), ("ceiling", Light), ("by the boiler", Receptacle)],
    },
    Template { name: "Root cellar", ground: Cellar, points: &[("ceiling", Light), ("shelf", Receptacle)] },
    Template {
        name: "Sunroom",
        ground: Floor,
        points: &[
            ("fan", Appliance),
            ("east wall", Receptacle),
            ("west wall", Receptacle),
            ("ceiling", Light),
            ("plants", Receptacle),
        ],
    },
    Template {
        name: "Library",
        ground: Floor,
        points: &[
            ("lamp table", Receptacle),
            ("ceiling", Light),
            ("alcove", Receptacle),
            ("globe", Receptacle),
            ("shelves", Light),
        ],
    },
    Template {
        name: "Terrace",
        ground: Outside,
        points: &[("wall light", Light), ("post", Receptacle), ("pond pump", Appliance)],
    },
];

/// Depth of a room, width of the hall, in millimeters.
const DEPTH: i32 = 3_800;
const HALL: i32 = 1_500;
const WIDTHS: [i32; 4] = [3_600, 4_200, 3_000, 4_800];

fn room_id(name: &str) -> RoomId {
    let slug = name.to_lowercase().replace(' ', "-");
    slug.parse().unwrap_or_else(|_| panic!("“{slug}” is no id; this is a bug"))
}

fn rectangle(x: i32, y: i32, width: i32, height: i32) -> Vec<Spot> {
    vec![Spot::at(x, y), Spot::at(x + width, y), Spot::at(x + width, y + height), Spot::at(x, y + height)]
}

/// Rooms, floors, outlines, doors, stairs, and where the panels hang.
pub(super) fn drawn(rooms: &[&'static Template]) -> Vec<Fact> {
    let mut facts = Vec::new();
    for (name, level) in [("cellar", -1), ("ground floor", 0), ("upper floor", 1)] {
        facts.push(Fact::FloorPlaced(FloorPlaced { floor: name.into(), level }));
    }
    let floor_of = |ground: Ground| match ground {
        Floor | Outside => "ground floor",
        Upstairs => "upper floor",
        Cellar => "cellar",
    };
    for room in rooms {
        let floor = Some(floor_of(room.ground).to_owned());
        facts.push(Fact::RoomPlaced(RoomPlaced { room: room_id(room.name), name: room.name.into(), floor }));
    }
    let mut halls = Vec::new();
    for (floor, ground) in [("cellar", Cellar), ("ground floor", Floor), ("upper floor", Upstairs)] {
        let here: Vec<&&Template> = rooms
            .iter()
            .filter(|r| (r.ground == ground || (ground == Floor && r.ground == Outside)) && r.name != "Hall")
            .collect();
        if here.is_empty() && ground != Floor {
            continue;
        }
        let hall = match ground {
            Cellar => "Cellar passage",
            Upstairs => "Landing",
            Floor | Outside => "Hall",
        };
        if ground != Floor {
            let floor = Some(floor.to_owned());
            facts.push(Fact::RoomPlaced(RoomPlaced { room: room_id(hall), name: hall.into(), floor }));
        }
        // Above and below the hall in turn.
        let mut x = [0, 0];
        let mut doors = Vec::new();
        for (n, room) in here.iter().enumerate() {
            let (side, width) = (n % 2, WIDTHS[n % WIDTHS.len()]);
            let y = if side == 0 { -DEPTH } else { HALL };
            facts.push(Fact::RoomDrawn(RoomDrawn { room: room_id(room.name), corners: rectangle(x[side], y, width, DEPTH) }));
            // The wall on the hall: the lower one of a room above it, the upper one of a room below.
            doors.push((room.name, if side == 0 { 2 } else { 0 }));
            x[side] += width;
        }
        let width = x[0].max(x[1]).max(3_000);
        facts.push(Fact::RoomDrawn(RoomDrawn { room: room_id(hall), corners: rectangle(0, 0, width, HALL) }));
        for (name, wall) in doors {
            let opening: OpeningId = format!("door-{}", room_id(name)).parse().unwrap_or_else(|_| panic!("no id; this is a bug"));
            facts.push(Fact::OpeningPlaced(OpeningPlaced {
                opening,
                opening_kind: OpeningKind::Door,
                room: room_id(name),
                wall,
                from: Length::mm(1_000),
                width: Length::mm(900),
            }));
        }
        halls.push(hall);
    }
    for pair in halls.windows(2) {
        let stairs = format!("stairs-{}", room_id(pair[1])).parse().unwrap_or_else(|_| panic!("no id; this is a bug"));
        facts.push(Fact::StairsPlaced(StairsPlaced {
            stairs,
            lower: room_id(pair[0]),
            lower_at: Spot::at(600, HALL / 2),
            upper: room_id(pair[1]),
            upper_at: Spot::at(1_200, HALL / 2),
        }));
    }
    let hangs = |panel: &str, room: RoomId| {
        let panel = panel.parse().unwrap_or_else(|_| panic!("no id; this is a bug"));
        Fact::PanelStands(PanelStands { panel, room, at: Spot::at(200, 0) })
    };
    facts.push(hangs("main-panel", room_id("Hall")));
    facts
}
