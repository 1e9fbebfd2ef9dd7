//! How facts about the house plan change what is drawn.

use super::{Home, refuse, short, unknown};
use crate::logbook::{
    BackdropLaid, BackdropRemoved, FloorPlaced, OpeningPlaced, OpeningRemoved, PanelStands, PointStands, RoomDrawn, StairsPlaced,
    StairsRemoved,
};
use crate::model::{Backdrop, Length, Opening, Outline, Refusal, RefusalCode, RoomId, Spot, Stairs};

/// A place within a room lies within 200 m of its corner.
fn near(field: &str, at: Spot) -> Result<(), Refusal> {
    if [at.x, at.y].iter().all(|v| v.unsigned_abs() <= 200_000) {
        return Ok(());
    }
    refuse(RefusalCode::OutOfRange, field, "This place is more than 200 m away.", "Give a place on the plan.")
}

impl Home {
    pub(in crate::logbook) fn place_floor(&mut self, f: &FloorPlaced) -> Result<(), Refusal> {
        short("floor", &f.floor, 1, 40)?;
        if !(-5..=20).contains(&f.level) {
            return refuse(
                RefusalCode::OutOfRange,
                "level",
                format!("Level {} cannot be right for a floor.", f.level),
                "Give -5 to 20; 0 is the ground floor.",
            );
        }
        self.plan.levels.insert(f.floor.trim().to_owned(), f.level);
        Ok(())
    }

    pub(in crate::logbook) fn draw_room(&mut self, f: &RoomDrawn) -> Result<(), Refusal> {
        self.house.known_room(&f.room)?;
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
        let known = self.house.known_room(room)?;
        self.plan.outlines.get(room).ok_or_else(|| {
            Refusal::new(RefusalCode::Unknown, field, format!("{} is not drawn yet.", known.name), "Give its size first.")
        })
    }

    pub(in crate::logbook) fn place_opening(&mut self, f: &OpeningPlaced) -> Result<(), Refusal> {
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

    pub(in crate::logbook) fn remove_opening(&mut self, f: &OpeningRemoved) -> Result<(), Refusal> {
        let gone = self.plan.openings.shift_remove(&f.opening);
        gone.map(drop).ok_or_else(|| unknown("opening", "There is no such door, passage or window.", "Name one of the plan."))
    }

    pub(in crate::logbook) fn place_stairs(&mut self, f: &StairsPlaced) -> Result<(), Refusal> {
        near("lower_at", f.lower_at)?;
        near("upper_at", f.upper_at)?;
        let (lower, upper) = (self.house.known_room(&f.lower)?, self.house.known_room(&f.upper)?);
        if lower.id == upper.id {
            return refuse(
                RefusalCode::DoesNotFit,
                "upper",
                format!("Stairs do not lead from {} to itself.", lower.name),
                "Name the room below and the room above.",
            );
        }
        let stairs = Stairs { id: f.stairs.clone(), lower: (f.lower.clone(), f.lower_at), upper: (f.upper.clone(), f.upper_at) };
        self.plan.stairs.insert(f.stairs.clone(), stairs);
        Ok(())
    }

    pub(in crate::logbook) fn remove_stairs(&mut self, f: &StairsRemoved) -> Result<(), Refusal> {
        let gone = self.plan.stairs.shift_remove(&f.stairs);
        gone.map(drop).ok_or_else(|| unknown("stairs", "There are no such stairs.", "Name stairs of the plan."))
    }

    pub(in crate::logbook) fn stand_panel(&mut self, f: &PanelStands) -> Result<(), Refusal> {
        self.panels.known_panel(&f.panel)?;
        self.house.known_room(&f.room)?;
        near("at", f.at)?;
        self.plan.panels.insert(f.panel.clone(), (f.room.clone(), f.at));
        Ok(())
    }

    pub(in crate::logbook) fn lay_backdrop(&mut self, f: &BackdropLaid) -> Result<(), Refusal> {
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

    pub(in crate::logbook) fn remove_backdrop(&mut self, f: &BackdropRemoved) -> Result<(), Refusal> {
        let gone = self.plan.backdrops.remove(f.floor.trim());
        gone.map(drop).ok_or_else(|| unknown("floor", "No picture lies under that floor.", "Name a floor that has one."))
    }

    pub(in crate::logbook) fn stand_point(&mut self, f: &PointStands) -> Result<(), Refusal> {
        self.house.known_point(&f.point)?;
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
}
