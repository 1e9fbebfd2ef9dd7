//! Facts about a panel: how it is built, its legs, its open spaces, photos of it.

use super::super::home::short;
use super::{Kind, facts, is_default};
use crate::logbook::{Draft, Home, Names};
use crate::model::{
    Amps, BreakerId, CardSize, Columns, HungCard, HungLine, Numbering, Panel, PanelDetails, PanelId, Photo, PhotoId, PhotoOf,
    Refusal, RefusalCode, Service, Slot, Volts,
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
    /// A card was printed and hangs in the panel's door. Without lines: none hangs any more.
    CardHung {
        /// The panel.
        panel: PanelId,
        /// The revision that stands on it: the last line of the logbook it was made from.
        revision: u64,
        /// Height of a row of it, in mm: what a strip over one of its lines has to have.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        row_mm: Option<f64>,
        /// Its lines as printed.
        lines: Vec<HungLine>,
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

impl Kind for CardHung {
    fn fold(&self, home: &mut Home, entry: &Draft) -> Result<(), Refusal> {
        // A card of 84 spaces, each of two halves.
        if self.lines.len() > 168 {
            let wrong = format!("A card of {} lines is longer than any panel.", self.lines.len());
            return Err(Refusal::new(RefusalCode::OutOfRange, "lines", wrong, "Up to 168 are taken."));
        }
        for line in &self.lines {
            short("number", &line.number, 1, 20)?;
            short("text", &line.text, 1, 1000)?;
            line.notes.iter().try_for_each(|note| short("notes", note, 1, 1000))?;
            if line.notes.len() > 20 || line.proven.len() > 1000 {
                let wrong = format!("Line {} has more notes or points than a circuit can have.", line.number);
                return Err(Refusal::new(RefusalCode::OutOfRange, "lines", wrong, "Up to 20 notes and 1000 points are taken."));
            }
        }
        if let Some(row) = self.row_mm.filter(|row| !(1.0..=300.0).contains(row)) {
            let wrong = format!("A row of {row} mm cannot be right for a card.");
            return Err(Refusal::new(RefusalCode::OutOfRange, "row_mm", wrong, "1 to 300 mm is taken."));
        }
        let Self { revision, row_mm, lines, .. } = self.clone();
        let card = HungCard { revision, at: entry.at, by: entry.by.clone(), row_mm, lines };
        home.panels.hang(&self.panel, (!self.lines.is_empty()).then_some(card))
    }
    fn words(&self, names: &Names<'_>) -> String {
        match self.lines.len() {
            0 => format!("{}: no card hangs in the door any more", names.panel(&self.panel)),
            _ => format!("{}: the card of revision {} hangs in the door", names.panel(&self.panel), self.revision),
        }
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
