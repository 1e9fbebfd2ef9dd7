//! Facts about a panel: how it is built, its legs, its open spaces, photos of it.

use super::{Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{
    Amps, BreakerId, CardSize, Columns, Numbering, Panel, PanelDetails, PanelId, Photo, PhotoId, PhotoOf, Refusal, Service, Slot,
    Volts,
};

facts! {
    /// The panel is built so. A later one replaces an earlier one.
    PanelDescribed {
        /// The panel.
        panel: PanelId,
        /// `Main panel`.
        name: String,
        /// `back hall`; may be empty.
        place: String,
        /// 2 to 84.
        spaces: u8,
        /// One or two columns.
        columns: Columns,
        /// As on the metal.
        numbering: Numbering,
        /// What comes in.
        service: Service,
        /// Rating of the main breaker, if there is one and it was read.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        main: Option<Amps>,
        /// The door card.
        card: CardSize,
        /// What else is known of it.
        #[serde(default, skip_serializing_if = "is_default")]
        details: PanelDetails,
    }
    /// There is no such panel. Its breakers must be gone first.
    PanelRemoved {
        /// The panel.
        panel: PanelId,
    }
    /// A voltage was read between the hot terminals of two spaces: 0 V is one leg, 240 (208) V is two.
    LegRead {
        /// The panel.
        panel: PanelId,
        /// The space whose row is to be known.
        space: u8,
        /// The space it was read against.
        against: u8,
        /// What the meter showed.
        volts: Volts,
    }
    /// An open space, or half of one, was looked at: is there a filler?
    FillerSeen {
        /// The panel.
        panel: PanelId,
        /// Where.
        #[schema(value_type = String)]
        at: Slot,
        /// Whether a filler closes it.
        filler: bool,
    }
    /// A photo was taken; its bytes are kept beside the logbook.
    PhotoTaken {
        /// The photo.
        photo: PhotoId,
        /// The panel.
        panel: PanelId,
        /// What it shows.
        of: PhotoOf,
        /// The breaker that it shows.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        breaker: Option<BreakerId>,
    }
}

/// The fact that describes the panel as it is known.
impl From<&Panel> for PanelDescribed {
    fn from(panel: &Panel) -> Self {
        Self {
            panel: panel.id.clone(),
            name: panel.name.clone(),
            place: panel.place.clone(),
            spaces: panel.spaces,
            columns: panel.columns,
            numbering: panel.numbering.clone(),
            service: panel.service,
            main: panel.main,
            card: panel.card,
            details: panel.details.clone(),
        }
    }
}

impl Kind for PanelDescribed {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.describe(self)
    }
    fn words(&self, _: &Names<'_>) -> String {
        format!("Panel: {}, {} spaces", self.name, self.spaces)
    }
}

impl Kind for PanelRemoved {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.remove(&self.panel)?;
        home.plan.panels.remove(&self.panel);
        Ok(())
    }
    fn words(&self, names: &Names<'_>) -> String {
        format!("Panel removed: {}", names.panel(&self.panel))
    }
}

impl Kind for LegRead {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.read_leg(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let (panel, volts) = (names.panel(&self.panel), self.volts.value());
        format!("{panel}: {volts} V read between spaces {} and {}", self.space, self.against)
    }
}

impl Kind for FillerSeen {
    fn fold(&self, home: &mut Home, _: &Draft) -> Result<(), Refusal> {
        home.panels.see_filler(self)
    }
    fn words(&self, names: &Names<'_>) -> String {
        let filler = if self.filler { "filler in" } else { "no filler" };
        format!("{}, space {}: {filler}", names.panel(&self.panel), self.at)
    }
}

impl Kind for PhotoTaken {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        home.panels.keep_photo(Photo {
            id: self.photo.clone(),
            panel: self.panel.clone(),
            of: self.of,
            breaker: self.breaker.clone(),
            line: entry.id.clone(),
            at: entry.at,
        })
    }
    fn words(&self, names: &Names<'_>) -> String {
        let of = self.breaker.as_ref().map_or_else(|| format!("the {}", self.of.word()), |id| names.breaker(id).to_lowercase());
        format!("{}: photo of {of}", names.panel(&self.panel))
    }
}
