//! What circuits, legs, feeders and the service carry: the arithmetic on numbers alone, and the answers about a home.

mod circuits;
mod demand_view;
mod diagnose;
mod diagnose_heat;
mod diagnose_supply;
mod draws;
pub mod drop;
pub mod interval;
pub mod legs;
pub mod network;
mod notes;
mod panels;
pub mod peak;
mod propose_loads;
mod read_plate;
pub mod service;
mod service_of_home;
mod solar_bus;
mod survey;
mod survey_side;
pub mod trip_window;
mod view;

pub use circuits::{
    AtAmps, CircuitLoads, CircuitReading, LoadCouldGo, LoadMoves, NotTogether, RunDrop, Stands, TripSteps, circuits, load_moves,
    while_running,
};
pub use demand_view::{DemandSaid, DemandView, MonthBegins, demand_said, demand_view, has_solar};
pub use diagnose::{BreakerDiagnosis, BreakerState, diagnose_breaker};
pub use diagnose_heat::{HeatDegree, HeatDiagnosis, diagnose_heat};
pub use diagnose_supply::{SupplyDiagnosis, SupplyState, diagnose_supply};
pub(crate) use draws::drawn;
pub use draws::{LoadLine, TakenFrom};
pub(crate) use notes::beside_own;
pub use notes::{LoadNote, LoadNoteKind};
pub use panels::{LegLoad, LegsView, LevelAdvice, LevelMark, PanelLegs, legs_of_panels, legs_view};
pub use propose_loads::{ProposedLoad, propose_loads};
pub use read_plate::read_plate;
pub use service_of_home::{
    MethodChoice, NewLoad, NewLoadKind, ServiceLimit, ServiceLine, ServiceMethod, ServiceView, service_view, usual_method,
};
pub use solar_bus::{SolarOnPanel, solar_on_panel};
pub use survey::{ReadingMinutes, SurveyAsked, SurveyDecision, SurveyStep, SurveyView, survey, survey_is_wrong, survey_truth};
pub use survey_side::{SurveySide, survey_side, survey_together};
pub use view::{LoadsView, loads_view};

#[cfg(test)]
mod tests;
