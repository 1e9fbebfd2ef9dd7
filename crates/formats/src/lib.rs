//! Open formats in and out: the home file (JSON), the door card and the report of findings (PDF), a panel's
//! circuits as a sheet (CSV, XLSX, ODS), the house plan (PDF and SVG at a stated scale, DXF out and in).
//!
//! Bytes in, bytes out: no files are opened here. What the card says and where it stands is worked out
//! by the core; this crate draws it.

mod directory_out;
mod door_card_pdf;
mod door_card_svg;
mod findings_pdf;
mod flow;
mod fonts;
mod home_book;
mod home_file;
mod paged;
mod pen;
mod plan_dxf_in;
mod plan_dxf_out;
mod plan_pdf;
mod plan_sheet;
mod plan_svg;
mod service_pdf;
mod sheet_in;
mod sheet_out;
mod stickers_pdf;
mod usage_in;

pub use directory_out::{DirectoryError, DirectoryFormat, write_directory};
pub use door_card_pdf::{CardColors, PdfError, Sheet, door_card_pdf, fitted_card, strips_pdf};
pub use door_card_svg::door_card_svg;
pub use findings_pdf::findings_pdf;
pub use home_book::{BookAsked, home_book_pdf};
pub use home_file::{HomeFile, HomeFileError, PhotoInFile, photo_media, read_home_file, without_helpers_names, write_home_file};
pub use plan_dxf_in::{DxfError, DxfPoint, DxfRead, DxfRoom, read_plan_dxf};
pub use plan_dxf_out::{DxfWriteError, write_plan_dxf};
pub use plan_pdf::plan_pdf;
pub use plan_sheet::{Paper, PlanRequest, PlanSheet, PlanSheetError, WALL_WEIGHT, plan_sheet};
pub use plan_svg::plan_svg;
pub use service_pdf::service_pdf;
pub use sheet_in::{MOST_ROWS, SheetError, read_rows};
pub use sheet_out::{SheetKind, SheetWriteError, Table, directory_table, write_csv, write_sheet, write_table};
pub use stickers_pdf::{StickerSheet, stickers_pdf};
pub use usage_in::{
    FirstRow, MOST_READINGS, MOST_USAGE_BYTES, UsageChoices, UsageColumn, UsageColumns, UsageError, UsageFile, UsageUnit,
    read_usage,
};
