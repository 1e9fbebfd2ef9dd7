//! What circuits, legs, feeders and the service carry: the arithmetic on numbers alone, and the answers about a home.

pub mod drop;
pub mod legs;
pub mod network;
pub mod peak;
pub mod service;
pub mod trip_window;
