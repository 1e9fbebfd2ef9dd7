//! How far the trace is.

use super::Verdict;
use crate::model::PointId;

/// How far the trace is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
pub struct Progress {
    /// All points.
    pub points: usize,
    /// Proven.
    pub proven: usize,
    /// Looks disagree.
    pub contradictory: usize,
    /// Dark with everything on.
    pub out: usize,
    /// Not known yet.
    pub open: usize,
}

impl Progress {
    pub(crate) fn of(known: &[(PointId, Verdict)]) -> Self {
        let count = |want: fn(&Verdict) -> bool| known.iter().filter(|(_, v)| want(v)).count();
        Self {
            points: known.len(),
            proven: count(|v| matches!(v, Verdict::Proven { .. })),
            contradictory: count(|v| matches!(v, Verdict::Contradictory { .. })),
            out: count(|v| matches!(v, Verdict::Out { .. })),
            open: count(|v| matches!(v, Verdict::Open { .. } | Verdict::ByExclusion { .. })),
        }
    }
}
