//! What rooms, points and the plan may be, and how a fact about them changes the home.

use super::fold::{short, unknown};
use super::{
    BackdropLaid, BackdropRemoved, FloorPlaced, GfciProtects, Home, OpeningPlaced, OpeningRemoved, PanelStands, PointPlaced,
    PointRemoved, PointStands, Refusal, RefusalCode, RoomDrawn, RoomPlaced, RoomRemoved, StairsPlaced, StairsRemoved,
    SwitchControls,
};
use crate::{Backdrop, Length, Opening, Outline, Point, PointDetails, PointId, PointKind, Room, RoomId, Spot, Stairs, Volts};

fn refuse<T>(code: RefusalCode, field: &str, wrong: impl Into<String>, accepted: &str) -> Result<T, Refusal> {
    Err(Refusal::new(code, field, wrong, accepted))
}

/// A place within a room lies within 200 m of its corner.
fn near(field: &str, at: Spot) -> Result<(), Refusal> {
    if [at.x, at.y].iter().all(|v| v.abs() <= 200_000) {
        return Ok(());
    }
    refuse(RefusalCode::OutOfRange, field, "This place is more than 200 m away.", "Give a place on the plan.")
}

impl Home {
    pub(super) fn place_room(&mut self, f: &RoomPlaced) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        if let Some(floor) = &f.floor {
            short("floor", floor, 1, 40)?;
        }
        let name = f.name.trim().to_owned();
        if self.rooms.values().any(|r| r.id != f.room && r.name.eq_ignore_ascii_case(&name)) {
            return refuse(
                RefusalCode::Occupied,
                "name",
                format!("There is a room called “{name}” already."),
                "Give this one a name of its own, like “Bath, upstairs”.",
            );
        }
        let room = Room { id: f.room.clone(), name, floor: f.floor.as_deref().map(|t| t.trim().to_owned()) };
        self.rooms.insert(f.room.clone(), room);
        Ok(())
    }

    pub(super) fn remove_room(&mut self, f: &RoomRemoved) -> Result<(), Refusal> {
        let room = self.known_room(&f.room)?;
        let points = self.points.values().filter(|p| p.room == f.room).count();
        if points > 0 {
            return refuse(
                RefusalCode::StillNeeded,
                "room",
                format!("{} still has {points} {}.", room.name, if points == 1 { "point" } else { "points" }),
                "Move or remove its points first.",
            );
        }
        self.rooms.shift_remove(&f.room);
        self.plan.outlines.remove(&f.room);
        self.plan.openings.retain(|_, opening| opening.room != f.room);
        self.plan.stairs.retain(|_, stairs| stairs.lower.0 != f.room && stairs.upper.0 != f.room);
        self.plan.panels.retain(|_, (room, _)| *room != f.room);
        Ok(())
    }

    pub(super) fn place_floor(&mut self, f: &FloorPlaced) -> Result<(), Refusal> {
        short("floor", &f.floor, 1, 40)?;
        if !(-5..=20).contains(&f.level) {
            return refuse(
                RefusalCode::OutOfRange,
                "level",
                format!("A floor at level {} cannot be.", f.level),
                "Give -5 to 20; 0 is the ground floor.",
            );
        }
        self.plan.levels.insert(f.floor.trim().to_owned(), f.level);
        Ok(())
    }

    pub(super) fn draw_room(&mut self, f: &RoomDrawn) -> Result<(), Refusal> {
        self.known_room(&f.room)?;
        if f.corners.is_empty() {
            self.plan.outlines.remove(&f.room);
            return Ok(());
        }
        if f.corners.len() > 200 {
            return refuse(RefusalCode::OutOfRange, "corners", "A room has 3 to 40 corners.", "Draw it simpler.");
        }
        match Outline::new(f.corners.clone()) {
            Ok(outline) => {
                self.plan.outlines.insert(f.room.clone(), outline);
                Ok(())
            }
            Err(wrong) => refuse(RefusalCode::OutOfRange, "corners", wrong, "Draw it as it is, from corner to corner."),
        }
    }

    fn outline(&self, room: &RoomId, field: &str) -> Result<&Outline, Refusal> {
        let known = self.known_room(room)?;
        self.plan.outlines.get(room).ok_or_else(|| {
            Refusal::new(RefusalCode::Unknown, field, format!("{} is not drawn yet.", known.name), "Give its size first.")
        })
    }

    pub(super) fn place_opening(&mut self, f: &OpeningPlaced) -> Result<(), Refusal> {
        let outline = self.outline(&f.room, "room")?;
        let wall = usize::from(f.wall);
        if wall >= outline.corners().len() {
            return refuse(
                RefusalCode::OutOfRange,
                "wall",
                format!("The room has {} walls; there is no wall {}.", outline.corners().len(), f.wall),
                "Count its walls from 0.",
            );
        }
        let (a, b) = outline.wall(wall);
        let (from, width) = (f.from.millimeters(), f.width.millimeters());
        if !(200..=20_000).contains(&width) || from < 0 || f64::from(from + width) > a.to(b) + 10.0 {
            let length = Length::mm(a.to(b).round() as i32).said(self.plan.units);
            return refuse(
                RefusalCode::DoesNotFit,
                "width",
                format!("A {} of {} does not fit there.", f.opening_kind.word(), f.width.said(self.plan.units)),
                &format!("The wall is {length} long; an opening is at least 20 cm wide."),
            );
        }
        let opening =
            Opening { id: f.opening.clone(), kind: f.opening_kind, room: f.room.clone(), wall, from: f.from, width: f.width };
        self.plan.openings.insert(f.opening.clone(), opening);
        Ok(())
    }

    pub(super) fn remove_opening(&mut self, f: &OpeningRemoved) -> Result<(), Refusal> {
        let gone = self.plan.openings.shift_remove(&f.opening);
        gone.map(drop).ok_or_else(|| unknown("opening", "There is no such door, passage or window.", "Name one of the plan."))
    }

    pub(super) fn place_stairs(&mut self, f: &StairsPlaced) -> Result<(), Refusal> {
        near("lower_at", f.lower_at)?;
        near("upper_at", f.upper_at)?;
        let (lower, upper) = (self.known_room(&f.lower)?, self.known_room(&f.upper)?);
        if lower.id == upper.id {
            return refuse(
                RefusalCode::DoesNotFit,
                "upper",
                format!("Stairs from {} to itself cannot be.", lower.name),
                "Name the room below and the room above.",
            );
        }
        let stairs = Stairs { id: f.stairs.clone(), lower: (f.lower.clone(), f.lower_at), upper: (f.upper.clone(), f.upper_at) };
        self.plan.stairs.insert(f.stairs.clone(), stairs);
        Ok(())
    }

    pub(super) fn remove_stairs(&mut self, f: &StairsRemoved) -> Result<(), Refusal> {
        let gone = self.plan.stairs.shift_remove(&f.stairs);
        gone.map(drop).ok_or_else(|| unknown("stairs", "There are no such stairs.", "Name stairs of the plan."))
    }

    pub(super) fn stand_panel(&mut self, f: &PanelStands) -> Result<(), Refusal> {
        self.known_panel(&f.panel)?;
        self.known_room(&f.room)?;
        near("at", f.at)?;
        self.plan.panels.insert(f.panel.clone(), (f.room.clone(), f.at));
        Ok(())
    }

    pub(super) fn lay_backdrop(&mut self, f: &BackdropLaid) -> Result<(), Refusal> {
        short("floor", &f.floor, 1, 40)?;
        near("at", f.at)?;
        let apart = (f.a.x - f.b.x).hypot(f.a.y - f.b.y);
        let inside = |x: f64, most: u32| (0.0..=f64::from(most)).contains(&x);
        let all = [f.a, f.b].iter().all(|p| inside(p.x, f.width_px) && inside(p.y, f.height_px));
        if !all || !(1..=40_000).contains(&f.width_px) || !(1..=40_000).contains(&f.height_px) {
            return refuse(
                RefusalCode::OutOfRange,
                "a",
                "The two ends of the known length do not lie in the picture.",
                "Point at both ends of a wall whose length you know.",
            );
        }
        if apart < 10.0 || f.length.millimeters() < 100 {
            return refuse(
                RefusalCode::OutOfRange,
                "length",
                "The known length is too short to give a scale.",
                "Point at the two ends of a long wall, and say how long it is.",
            );
        }
        let mm_per_px = f64::from(f.length.millimeters()) / apart;
        if mm_per_px * f64::from(f.width_px.max(f.height_px)) > 400_000.0 {
            return refuse(
                RefusalCode::OutOfRange,
                "length",
                "By this length the picture would be more than 400 m wide.",
                "Look at the two ends and the length again.",
            );
        }
        let backdrop = Backdrop { photo: f.photo.clone(), size_px: (f.width_px, f.height_px), mm_per_px, at: f.at };
        self.plan.backdrops.insert(f.floor.trim().to_owned(), backdrop);
        Ok(())
    }

    pub(super) fn remove_backdrop(&mut self, f: &BackdropRemoved) -> Result<(), Refusal> {
        let gone = self.plan.backdrops.remove(f.floor.trim());
        gone.map(drop).ok_or_else(|| unknown("floor", "No picture lies under that floor.", "Name a floor that has one."))
    }

    pub(super) fn place_point(&mut self, f: &PointPlaced) -> Result<(), Refusal> {
        short("name", &f.name, 1, 60)?;
        self.known_room(&f.room)?;
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
        if self.points.values().find(twin).is_some() {
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
                    "A data plate with these amperes cannot be.",
                    "Give the minimum circuit ampacity and the maximum fuse or breaker, 1 to 400 A each.",
                );
            }
        }
        self.details_fit(f)?;
        let moved = self.points.get(&f.point).is_some_and(|before| before.room != f.room);
        if moved {
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
        self.points.insert(f.point.clone(), point);
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
        let other = self.known_point(first)?;
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

    pub(super) fn remove_point(&mut self, f: &PointRemoved) -> Result<(), Refusal> {
        self.known_point(&f.point)?;
        self.points.shift_remove(&f.point);
        for point in self.points.values_mut().filter(|p| p.details.half_of.as_ref() == Some(&f.point)) {
            point.details.half_of = None;
        }
        self.plan.points.remove(&f.point);
        for map in [&mut self.plan.controls, &mut self.plan.protects] {
            map.remove(&f.point);
            map.values_mut().for_each(|points| points.retain(|p| p != &f.point));
            map.retain(|_, points| !points.is_empty());
        }
        Ok(())
    }

    pub(super) fn stand_point(&mut self, f: &PointStands) -> Result<(), Refusal> {
        self.known_point(&f.point)?;
        match f.at {
            Some(at) => {
                near("at", at)?;
                self.plan.points.insert(f.point.clone(), at);
            }
            None => {
                self.plan.points.remove(&f.point);
            }
        }
        Ok(())
    }

    pub(super) fn control(&mut self, f: &SwitchControls) -> Result<(), Refusal> {
        let switch = self.known_point(&f.switch)?;
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

    pub(super) fn protect(&mut self, f: &GfciProtects) -> Result<(), Refusal> {
        let device = self.known_point(&f.device)?;
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
            self.known_point(point)?;
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
