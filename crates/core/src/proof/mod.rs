//! What is proven: one rule, for a real trace, for the search and for the score alike.
//!
//! In: a [`Case`] and the lines of a trace in the order of their times (handles moved, looks, what was found), by [`Weigh`].
//! Out: for each point the breaker that it is proven on, how likely each breaker is, and what else could explain the lines.
//!
//! A point is **proven** on a breaker when all of these hold:
//! 1. A *single cause* was seen ([`single_cause`]): a lit look and a later dark one that differ by that breaker alone.
//! 2. The breaker is likely at `SURE` or more, with every other story that fits the lines weighed ([`stories`]): another breaker
//!    with a slip of the eye, one that did not latch, one that tripped meanwhile, an outage, a point that goes on and off by
//!    itself, the wrong point, the wrong handle.
//! 3. The stories of other breakers that many points share (not latched, tripped, outage) come to `SHARED` at most: one of
//!    them would make many proofs wrong at once.
//! 4. No look from that lit one on disagrees: each was dark with the breaker off and lit with it on. After a look that disagrees
//!    the whole experiment is made anew.
//!
//! The numbers come from made-up houses (no source); they are a best case, as the rule knows the kinds of fault and their rates.

mod belief;
mod case;
mod cause;
pub(crate) mod rates;
mod stories;
mod weigh;

pub use belief::Belief;
pub use case::{Case, CasePoint, Costs, Crew, MOST_BREAKERS, OffSet, OldLabel, PointClass};
pub use stories::Found;
pub(crate) use weigh::{Cause, Way, Weigh};
