//! Drives Wayfinder in headless Chromium as a person would: by roles, names and keys.
//!
//! [`Chrome`] starts ChromeDriver on a free port and ends it; [`Site`] serves a fresh data folder in this
//! process; [`Somebody`] writes into it by acts; [`Page`] is one browser window on it. One struct a screen lives in `screens`.

mod chrome;
mod page;
pub mod screens;
mod site;
mod somebody;

pub use chrome::{Chrome, View};
pub use page::Page;
pub use site::Site;
pub use somebody::Somebody;
