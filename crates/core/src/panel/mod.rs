//! Answers about one panel: laid out as it hangs there ([`panel_view`]), where a breaker may go ([`places`]), a typed card or
//! a sheet read ([`read_card`], [`read_sheet`]) and written ([`write_card`]).

mod places;
mod read_card;
mod read_sheet;
mod view;
mod write_card;

pub(crate) use places::open_slots;
pub use places::{Moves, Place, moves, places};
pub use read_card::{CardLine, LabelOutcome, preview_card, read_card};
pub use read_sheet::{ColumnRole, PassedOver, SheetRead, read_sheet};
pub use view::{AlsoFed, BreakerView, FeedsPanel, OpenSpace, PanelView, Part, SpaceSpot, panel_view, panel_views};
pub use write_card::write_card;
