//! Facts about the house plan: floors, outlines, openings, stairs, where panels and points are, pictures underneath.

use super::{Kind, facts};
use crate::logbook::{Draft, Home, Names};
use crate::model::{Bounds, Length, OpeningId, OpeningKind, PanelId, PhotoId, Pixel, PointId, Refusal, RoomId, Spot, StairsId};

facts! {
    /// Where a floor is in the order of floors; rooms name it.
    FloorPlaced {
        /// Its name, as the rooms have it.
        floor: String,
        /// 0 is the ground floor, below it -1, above it 1.
        level: i8,
    }
    /// The room is drawn so; without corners it is no longer drawn.
    RoomDrawn {
        /// The room.
        room: RoomId,
        /// The corners of its inside, in either sense, in millimeters on its floor.
        corners: Vec<Spot>,
    }
    /// There is a door, passage or window in a wall of a drawn room.
    OpeningPlaced {
        /// The opening.
        opening: OpeningId,
        /// What it is.
        opening_kind: OpeningKind,
        /// The room whose wall it is in; another room on the wall's other side needs no entry.
        room: RoomId,
        /// The wall, from 0, in the order of the drawn corners.
        wall: u8,
        /// From the wall's first corner to the opening.
        from: Length,
        /// Its width.
        width: Length,
    }
    /// There is no such opening.
    OpeningRemoved {
        /// The opening.
        opening: OpeningId,
    }
    /// Stairs lead from one room to another.
    StairsPlaced {
        /// The stairs.
        stairs: StairsId,
        /// The lower room.
        lower: RoomId,
        /// Where they begin, from the corner of the box around the lower room.
        lower_at: Spot,
        /// The upper room.
        upper: RoomId,
        /// Where they end, from the corner of the box around the upper room.
        upper_at: Spot,
    }
    /// There are no such stairs.
    StairsRemoved {
        /// The stairs.
        stairs: StairsId,
    }
    /// The panel hangs here.
    PanelStands {
        /// The panel.
        panel: PanelId,
        /// The room.
        room: RoomId,
        /// From the corner of the box around the room; the nearest wall takes it.
        at: Spot,
    }
    /// A photo or scan lies under the plan of a floor. A later one for the same floor replaces it.
    BackdropLaid {
        /// The floor, by its name.
        floor: String,
        /// The photo, kept beside the logbook.
        photo: PhotoId,
        /// Its width in pixels.
        width_px: u32,
        /// Its height in pixels.
        height_px: u32,
        /// One end of a length that is known.
        a: Pixel,
        /// Its other end.
        b: Pixel,
        /// The length.
        length: Length,
        /// Where its upper left corner lies on the floor.
        at: Spot,
    }
    /// Nothing lies under the plan of the floor.
    BackdropRemoved {
        /// The floor, by its name.
        floor: String,
    }
    /// Where the point is on the plan; without `at` it is no longer placed there.
    PointStands {
        /// The point.
        point: PointId,
        /// From the corner of the box around its room. Where a wall is near, the wall takes it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        at: Option<Spot>,
    }
}

impl Kind for FloorPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_floor(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Floor {} of the plan: {}", self.level, self.floor)
    }
}

impl Kind for RoomDrawn {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.draw_room(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let room = names.room(&self.room);
        match Bounds::around(self.corners.iter().copied()) {
            Some(b) => {
                let said = |mm| Length::mm(mm).said(names.units());
                format!("{room}: drawn, {} × {}", said(b.width), said(b.height))
            }
            None => format!("{room}: no longer drawn"),
        }
    }
}

impl Kind for OpeningPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_opening(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{}: {}, {} wide", names.room(&self.room), self.opening_kind.word(), self.width.said(names.units()))
    }
}

impl Kind for OpeningRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_opening(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        "A door, passage or window is gone from the plan".into()
    }
}

impl Kind for StairsPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_stairs(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Stairs from {} up to {}", names.room(&self.lower), names.room(&self.upper))
    }
}

impl Kind for StairsRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_stairs(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        "Stairs are gone from the plan".into()
    }
}

impl Kind for PanelStands {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.stand_panel(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{} hangs in {}", names.panel(&self.panel), names.room(&self.room))
    }
}

impl Kind for BackdropLaid {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.lay_backdrop(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("A picture lies under the plan of {}", self.floor)
    }
}

impl Kind for BackdropRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_backdrop(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("No picture under the plan of {}", self.floor)
    }
}

impl Kind for PointStands {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.stand_point(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let point = names.point(&self.point);
        match self.at {
            Some(_) => format!("{point}: placed on the plan"),
            None => format!("{point}: no longer on the plan"),
        }
    }
}
