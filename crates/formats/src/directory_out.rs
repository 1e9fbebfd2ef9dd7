//! The directory as a file, in the formats that are asked for over the network and at the command line.

use wayfinder_core::{CardTooSmall, PanelId, Printed, Study, card, directory_rows};

use crate::door_card_pdf::{CardColors, PdfError, Sheet, door_card_pdf};
use crate::door_card_svg::door_card_svg;
use crate::sheet_out::{SheetKind, SheetWriteError, directory_table, write_table};

/// A format of the directory.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum DirectoryFormat {
    /// A panel's card at its true size.
    Pdf,
    /// The same as a drawing.
    Svg,
    /// The same as data.
    Json,
    /// Every line of every card.
    Sheet(SheetKind),
}

/// Why the directory was not written.
#[derive(Debug, thiserror::Error)]
pub enum DirectoryError {
    /// There is no such panel.
    #[error("the home has no such panel")]
    NoPanel,
    /// The letters would be too small to be read.
    #[error(transparent)]
    TooSmall(#[from] CardTooSmall),
    /// The PDF could not be made.
    #[error(transparent)]
    Pdf(#[from] PdfError),
    /// The sheet could not be written: a bug.
    #[error(transparent)]
    Sheet(#[from] SheetWriteError),
    /// The data could not be written: a bug.
    #[error(transparent)]
    Json(#[from] serde_json::Error),
}

impl DirectoryFormat {
    /// The formats by their names: `pdf`, `svg`, `json`, `csv`, `xlsx`, `ods`.
    pub fn named(name: &str) -> Option<Self> {
        Some(match name {
            "pdf" => Self::Pdf,
            "svg" => Self::Svg,
            "json" => Self::Json,
            sheet => Self::Sheet(SheetKind::named(sheet)?),
        })
    }

    /// Its media type.
    pub const fn media(self) -> &'static str {
        match self {
            Self::Pdf => "application/pdf",
            Self::Svg => "image/svg+xml",
            Self::Json => "application/json",
            Self::Sheet(kind) => kind.media(),
        }
    }
}

/// Writes the directory: the card of this panel, or every line of every card.
pub fn write_directory(
    home: &Study,
    format: DirectoryFormat,
    panel: &PanelId,
    printed: Printed<'_>,
    colors: CardColors,
) -> Result<Vec<u8>, DirectoryError> {
    let card = || card(home, panel, printed).ok_or(DirectoryError::NoPanel);
    Ok(match format {
        DirectoryFormat::Pdf => door_card_pdf(&card()?, Sheet::Card, colors)?,
        DirectoryFormat::Svg => door_card_svg(&card()?, colors)?.into_bytes(),
        DirectoryFormat::Json => serde_json::to_vec_pretty(&card()?)?,
        DirectoryFormat::Sheet(kind) => write_table(&directory_table(&directory_rows(home)), kind)?,
    })
}
