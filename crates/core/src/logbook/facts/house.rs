//! Facts about rooms and points: what is there, what a switch switches, what a GFCI protects.

use super::super::home::short;
use super::{Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{Configuration, Plate, Point, PointDetails, PointId, PointKind, Refusal, RefusalCode, RoomId, Volts, so_many};

/// A sticker as it was printed.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StickerPrinted {
    /// The point that it is for.
    pub point: PointId,
    /// All that stands on it.
    pub says: String,
}

facts! {
    /// Stickers were printed for the cover plates of these points.
    StickersPrinted {
        /// Each of them.
        stickers: Vec<StickerPrinted>,
    }
    /// There is a room, called so.
    RoomPlaced {
        /// The room.
        room: RoomId,
        /// `Kitchen`.
        name: String,
        /// `ground floor`.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        floor: Option<String>,
    }
    /// There is no such room. Its points must be gone first.
    RoomRemoved {
        /// The room.
        room: RoomId,
    }
    /// There is a point. A later one for the same point replaces the earlier.
    PointPlaced {
        /// The point.
        point: PointId,
        /// The room.
        room: RoomId,
        /// What it is.
        point_kind: PointKind,
        /// Where in the room, or which appliance.
        name: String,
        /// 120 or 240.
        volts: Volts,
        /// The face of a receptacle, where it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        configuration: Option<Configuration>,
        /// A single receptacle, the only one on its circuit.
        #[serde(default, skip_serializing_if = "is_default")]
        only_one: bool,
        /// The data plate of a motor or cooling unit.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        plate: Option<Plate>,
        /// What else can be seen of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: PointDetails,
    }
    /// There is no such point.
    PointRemoved {
        /// The point.
        point: PointId,
    }
    /// The switch switches these points, and no others. Two switches of one light: three-way.
    SwitchControls {
        /// The switch.
        switch: PointId,
        /// What it switches.
        points: Vec<PointId>,
    }
    /// The GFCI device protects these points downstream, and no others.
    GfciProtects {
        /// The GFCI device.
        device: PointId,
        /// What loses power when it trips.
        points: Vec<PointId>,
    }
}

/// The fact that describes the point as it is known.
impl From<&Point> for PointPlaced {
    fn from(point: &Point) -> Self {
        Self {
            point: point.id.clone(),
            room: point.room.clone(),
            point_kind: point.kind,
            name: point.name.clone(),
            volts: point.volts,
            configuration: point.configuration,
            only_one: point.only_one,
            plate: point.plate,
            details: point.details.clone(),
        }
    }
}

impl Kind for StickersPrinted {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        if self.stickers.is_empty() || self.stickers.len() > 2000 {
            let wrong = format!("{} cannot be printed at once.", so_many(self.stickers.len(), "sticker"));
            return Err(Refusal::new(RefusalCode::OutOfRange, "stickers", wrong, "1 to 2000 are taken."));
        }
        self.stickers.iter().try_for_each(|sticker| short("says", &sticker.says, 1, 200))?;
        // The points need not be there any more: what was printed was printed.
        for sticker in &self.stickers {
            home.house.stickers.insert(sticker.point.clone(), sticker.says.clone());
        }
        Ok(())
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Printed: {} for cover plates", so_many(self.stickers.len(), "sticker"))
    }
}

impl Kind for RoomPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_room(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Room: {}", self.name)
    }
}

impl Kind for RoomRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_room(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Room removed: {}", names.room(&self.room))
    }
}

impl Kind for PointPlaced {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.place_point(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Point: {}, {} ({})", names.room(&self.room), self.name, self.point_kind.word())
    }
}

impl Kind for PointRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.remove_point(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Point removed: {}", names.point(&self.point))
    }
}

impl Kind for SwitchControls {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.control(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{} switches {}", names.point(&self.switch), names.points(&self.points))
    }
}

impl Kind for GfciProtects {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.protect(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("{} protects {}", names.point(&self.device), names.points(&self.points))
    }
}
