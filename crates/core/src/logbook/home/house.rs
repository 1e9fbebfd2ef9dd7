//! Rooms and points as the logbook has them, and how facts about them change what is known.

use indexmap::IndexMap;

use super::{Home, refuse, short, unknown};
use crate::logbook::{GfciProtects, PointPlaced, PointRemoved, RoomPlaced, RoomRemoved, SwitchControls};
use crate::model::{Point, PointDetails, PointId, PointKind, Refusal, RefusalCode, Room, RoomId, TestedDevice, Volts, so_many};

/// Every room and point, in the order of entry.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct House {
    rooms: IndexMap<RoomId, Room>,
    points: IndexMap<PointId, Point>,
    /// What the sticker says that was last printed for a point.
    pub(in crate::logbook) stickers: std::collections::BTreeMap<PointId, String>,
}

impl House {
    /// Every room, in the order of entry.
    pub fn rooms(&self) -> impl Iterator<Item = &Room> {
        self.rooms.values()
    }
    /// A room.
    pub fn room(&self, id: &RoomId) -> Option<&Room> {
        self.rooms.get(id)
    }
    /// Every point, in the order of entry.
    pub fn points(&self) -> impl Iterator<Item = &Point> {
        self.points.values()
    }
    /// A point.
    pub fn point(&self, id: &PointId) -> Option<&Point> {
        self.points.get(id)
    }
    /// What the sticker says that was last printed for it.
    pub fn sticker(&self, point: &PointId) -> Option<&str> {
        self.stickers.get(point).map(String::as_str)
    }
    /// `Kitchen, counter, left`: a point with its room; a removed one is said to be so.
    pub fn place(&self, id: &PointId) -> String {
        self.points
            .get(id)
            .map_or_else(|| "A removed point".into(), |point| format!("{}, {}", self.room_name(&point.room), point.name))
    }
    /// The name of a room; a removed one is said to be so.
    pub fn room_name(&self, id: &RoomId) -> &str {
        self.rooms.get(id).map_or("a removed room", |room| &room.name)
    }

    pub(in crate::logbook) fn known_room(&self, id: &RoomId) -> Result<&Room, Refusal> {
        self.rooms
            .get(id)
            .ok_or_else(|| unknown("room", "There is no such room.", "Name a room that is entered on the House screen."))
    }

    pub(in crate::logbook) fn known_point(&self, id: &PointId) -> Result<&Point, Refusal> {
        self.points
            .get(id)
            .ok_or_else(|| unknown("point", "There is no such point.", "Name a point that is entered on the House screen."))
    }
}

impl Home {
    pub(in crate::logbook) fn place_room(&mut self, f: &RoomPlaced) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        if let Some(floor) = &f.floor {
            short("floor", floor, 1, 40)?;
        }
        let name = f.name.trim().to_owned();
        if self.house.rooms.values().any(|r| r.id != f.room && r.name.eq_ignore_ascii_case(&name)) {
            return refuse(
                RefusalCode::Occupied,
                "name",
                format!("There is a room called “{name}” already."),
                "Give this one a name of its own, like “Bath, upstairs”.",
            );
        }
        let room = Room { id: f.room.clone(), name, floor: f.floor.as_deref().map(|t| t.trim().to_owned()) };
        self.house.rooms.insert(f.room.clone(), room);
        Ok(())
    }

    pub(in crate::logbook) fn remove_room(&mut self, f: &RoomRemoved) -> Result<(), Refusal> {
        let room = self.house.known_room(&f.room)?;
        let points = self.house.points.values().filter(|p| p.room == f.room).count();
        if points > 0 {
            return refuse(
                RefusalCode::StillNeeded,
                "room",
                format!("{} still has {}.", room.name, so_many(points, "point")),
                "Move or remove its points first.",
            );
        }
        self.house.rooms.shift_remove(&f.room);
        self.plan.outlines.remove(&f.room);
        self.plan.openings.retain(|_, opening| opening.room != f.room);
        self.plan.stairs.retain(|_, stairs| stairs.lower.0 != f.room && stairs.upper.0 != f.room);
        self.plan.panels.retain(|_, (room, _)| *room != f.room);
        Ok(())
    }

    pub(in crate::logbook) fn place_point(&mut self, f: &PointPlaced) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        self.house.known_room(&f.room)?;
        if ![Volts::new(120), Volts::new(240)].contains(&f.volts) {
            return refuse(
                RefusalCode::OutOfRange,
                "volts",
                format!("A point has 120 or 240 volts, not {}.", f.volts.value()),
                "Use 240 for any point on two hot legs, 208 V ones too.",
            );
        }
        let name = f.name.trim().to_owned();
        let twin =
            |p: &&Point| p.id != f.point && p.room == f.room && p.kind == f.point_kind && p.name.eq_ignore_ascii_case(&name);
        if self.house.points.values().find(twin).is_some() {
            return refuse(
                RefusalCode::Occupied,
                "name",
                format!("This room has a {} called “{name}” already.", f.point_kind.word()),
                "Say where it is, like “south wall, left”, so that the two can be told apart.",
            );
        }
        if let Some(configuration) = f.configuration.filter(|c| c.volts() != f.volts) {
            return refuse(
                RefusalCode::OutOfRange,
                "configuration",
                format!(
                    "A {} receptacle has {} volts, not {}.",
                    configuration.name(),
                    configuration.volts().value(),
                    f.volts.value()
                ),
                "Read the face again, or correct the volts. TT-30 is 120 V and dangerous when wired as 240.",
            );
        }
        if let Some(plate) = &f.plate {
            let range = 1.0..=400.0;
            if !range.contains(&plate.minimum_ampacity.value()) || !range.contains(&plate.maximum_breaker.value()) {
                return refuse(
                    RefusalCode::OutOfRange,
                    "plate",
                    "These amperes cannot be right for a data plate.",
                    "Give the minimum circuit ampacity and the maximum fuse or breaker, 1 to 400 A each.",
                );
            }
        }
        self.details_fit(f)?;
        let moved = self.house.points.get(&f.point).is_some_and(|before| before.room != f.room);
        if moved {
            self.forget_feed(&f.point);
            self.plan.points.remove(&f.point);
        }
        let point = Point {
            id: f.point.clone(),
            room: f.room.clone(),
            kind: f.point_kind,
            name,
            volts: f.volts,
            configuration: f.configuration,
            only_one: f.only_one,
            plate: f.plate,
            details: f.details.clone(),
        };
        self.house.points.insert(f.point.clone(), point);
        Ok(())
    }

    fn details_fit(&self, f: &PointPlaced) -> Result<(), Refusal> {
        let receptacle = f.point_kind == PointKind::Receptacle;
        let PointDetails { half_of, dark_minutes, .. } = &f.details;
        if dark_minutes.is_some_and(|minutes| !(2..=1440).contains(&minutes)) {
            return refuse(
                RefusalCode::OutOfRange,
                "details",
                "How long it may be without power is 2 to 1440 minutes.",
                "Give minutes, or nothing; what may never be off hangs on a breaker that must stay on.",
            );
        }
        let Some(first) = half_of else { return Ok(()) };
        let other = self.house.known_point(first)?;
        let fits = receptacle
            && other.id != f.point
            && other.kind == PointKind::Receptacle
            && other.room == f.room
            && other.details.half_of.is_none();
        if fits {
            return Ok(());
        }
        refuse(
            RefusalCode::DoesNotFit,
            "details",
            "Only two receptacles of one room are halves of one device.",
            "Name the first half: a receptacle here that is no half of another.",
        )
    }

    pub(in crate::logbook) fn remove_point(&mut self, f: &PointRemoved) -> Result<(), Refusal> {
        self.house.known_point(&f.point)?;
        self.house.points.shift_remove(&f.point);
        if self.trace.tripped().any(|device| device == &f.point) {
            self.trace.device_gone(&f.point);
        }
        for point in self.house.points.values_mut().filter(|p| p.details.half_of.as_ref() == Some(&f.point)) {
            point.details.half_of = None;
        }
        self.drop_loads_at(&f.point);
        self.upkeep.tests.remove(&TestedDevice::Point(f.point.clone()));
        self.plan.points.remove(&f.point);
        let plan = &mut *self.plan;
        for map in [&mut plan.controls, &mut plan.protects] {
            map.remove(&f.point);
            map.values_mut().for_each(|points| points.retain(|p| p != &f.point));
            map.retain(|_, points| !points.is_empty());
        }
        Ok(())
    }

    pub(in crate::logbook) fn control(&mut self, f: &SwitchControls) -> Result<(), Refusal> {
        let switch = self.house.known_point(&f.switch)?;
        if switch.kind != PointKind::Switch {
            return refuse(
                RefusalCode::DoesNotFit,
                "switch",
                format!("{} is no switch.", switch.name),
                "Name a switch and the points that it switches.",
            );
        }
        self.downstream("switch", &f.switch, &f.points)?;
        set_or_clear(&mut self.plan.controls, &f.switch, &f.points);
        Ok(())
    }

    pub(in crate::logbook) fn protect(&mut self, f: &GfciProtects) -> Result<(), Refusal> {
        let device = self.house.known_point(&f.device)?;
        if !device.details.gfci && !f.points.is_empty() {
            return refuse(
                RefusalCode::DoesNotFit,
                "device",
                format!("{} is not recorded as a GFCI device.", device.name),
                "Say first that it has a GFCI with its own buttons.",
            );
        }
        self.downstream("device", &f.device, &f.points)?;
        set_or_clear(&mut self.plan.protects, &f.device, &f.points);
        Ok(())
    }

    fn downstream(&self, field: &str, from: &PointId, points: &[PointId]) -> Result<(), Refusal> {
        for point in points {
            self.house.known_point(point)?;
        }
        if points.contains(from) {
            return refuse(RefusalCode::DoesNotFit, field, "It cannot be downstream of itself.", "Leave it out of its own list.");
        }
        Ok(())
    }
}

fn set_or_clear(map: &mut std::collections::BTreeMap<PointId, Vec<PointId>>, from: &PointId, points: &[PointId]) {
    if points.is_empty() {
        map.remove(from);
    } else {
        map.insert(from.clone(), points.to_vec());
    }
}
