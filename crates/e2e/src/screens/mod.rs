//! One struct a screen: what a person does there.

mod homes;
mod house;
mod logbook;
mod panel;
mod plan;
mod trace;

pub use homes::Homes;
pub use house::House;
pub use logbook::LogbookScreen;
pub use panel::Panel;
pub use plan::PlanScreen;
pub use trace::Trace;
