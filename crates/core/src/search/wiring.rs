//! What is behind the walls of a made-up house: one type for the instruments of Practice, which know points and breakers by id,
//! and for the referee of the search, which counts them.

use std::collections::{BTreeMap, BTreeSet};

use crate::model::{BreakerId, PointId};

/// What is behind the wall at a point.
#[derive(Debug, Clone, PartialEq)]
pub struct Feed<P = PointId, B = BreakerId> {
    /// The breaker; `None` where nothing feeds it.
    pub breaker: Option<B>,
    /// The GFCI device upstream of it, itself where it is one.
    pub behind: Option<P>,
    /// Its lamp is burnt out.
    pub burnt_out: bool,
    /// Its switch is off.
    pub switched_off: bool,
    /// A live conductor runs beside it: this breaker makes a meter show a voltage that is not there.
    pub beside: Option<B>,
    /// What it draws when it runs, in amperes.
    pub draws: f64,
}

impl<P, B> Default for Feed<P, B> {
    fn default() -> Self {
        Self { breaker: None, behind: None, burnt_out: false, switched_off: false, beside: None, draws: 0.0 }
    }
}

/// The wiring that nobody sees.
#[derive(Debug, Clone, PartialEq)]
pub struct Wiring<P = PointId, B = BreakerId> {
    /// Every point, listed or not.
    pub feeds: BTreeMap<P, Feed<P, B>>,
    /// GFCI devices that are tripped before anybody comes.
    pub tripped: BTreeSet<P>,
}

impl<P, B> Default for Wiring<P, B> {
    fn default() -> Self {
        Self { feeds: BTreeMap::new(), tripped: BTreeSet::new() }
    }
}

/// Points and breakers by their places in a [`super::Case`].
pub(crate) type NumberedWiring = Wiring<usize, usize>;

impl<P: Ord, B> Wiring<P, B> {
    /// Just these breakers feed just these points, and nothing else is odd.
    pub fn plain(fed: impl IntoIterator<Item = (P, B)>) -> Self {
        let feed = |(point, breaker)| (point, Feed { breaker: Some(breaker), ..Feed::default() });
        Self { feeds: fed.into_iter().map(feed).collect(), ..Self::default() }
    }

    /// The breaker of a point.
    pub fn breaker(&self, point: &P) -> Option<&B> {
        self.feeds.get(point)?.breaker.as_ref()
    }
}
