//! The last look at a point, as somebody who stands before it wants to know.

use crate::model::{Moment, PointId, Seen};
use crate::study::Study;

/// The last look.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct LastSeen {
    /// What it showed.
    pub seen: Seen,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// The numbers of the breakers that were off then.
    pub off: Vec<String>,
}

/// The last look at a point; `None` when nobody has looked.
pub fn last_seen(home: &Study, point: &PointId) -> Option<LastSeen> {
    let look = home.trace().looks().iter().rev().find(|look| &look.point == point)?;
    let off = look.off.iter().map(|breaker| home.panels().number(breaker)).collect();
    Some(LastSeen { seen: look.seen, at: look.at, by: look.by.to_string(), off })
}
