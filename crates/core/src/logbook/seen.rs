//! What a trace leaves in the home: looks, readings, trips, what was passed over, handles moved.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use super::{Instrument, Seen};
use crate::{BreakerId, EntryId, Moment, PointId};

/// A look at a point, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    /// The line that records it.
    pub line: EntryId,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// With what.
    pub instrument: Option<Instrument>,
    /// The point.
    pub point: PointId,
    /// What it showed.
    pub seen: Seen,
    /// The breakers that were off or tripped.
    pub off: Arc<BTreeSet<BreakerId>>,
    /// How many times a handle had moved before this look: an index into [`Home::switched`].
    pub moves: usize,
    /// Looks are in the order of these.
    pub nth: usize,
    /// How many looks had been told of before this one.
    pub(crate) told: usize,
}

/// What a meter showed at a point, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Metered {
    pub(crate) line: EntryId,
    pub(crate) at: Moment,
    pub(crate) by: String,
    pub(crate) point: PointId,
    pub(crate) volts: f64,
    /// What that says; `None`: neither lit nor dark.
    pub(crate) seen: Option<Seen>,
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
    pub(crate) moves: usize,
    /// How many looks had been told of before.
    pub(crate) told: usize,
    /// A handle had moved before it, as was told only later: not counted.
    pub(crate) doubted: bool,
}

/// A GFCI that was tripped on purpose.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Trip {
    pub(crate) device: PointId,
    /// How many looks had been told of before.
    pub(crate) told: usize,
    /// When it was reset, and how many looks had been told of by then.
    pub(crate) reset: Option<(Moment, usize)>,
    /// What points showed meanwhile; `None` where one was passed over.
    pub(crate) seen: BTreeMap<PointId, Option<(Seen, EntryId)>>,
}

impl Trip {
    /// Whether a point was seen so while it was tripped.
    pub(crate) fn showed(&self, point: &PointId, seen: Seen) -> bool {
        matches!(self.seen.get(point), Some(Some((showed, _))) if *showed == seen)
    }
}

/// A point that was passed over, with the breakers as they stood.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Skip {
    pub(crate) point: PointId,
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
    pub(crate) moves: usize,
}

/// A handle moved.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Turn {
    /// The line that records it.
    pub(crate) line: EntryId,
    /// When.
    pub(crate) at: Moment,
    /// What was off after it.
    pub(crate) off: Arc<BTreeSet<BreakerId>>,
}
