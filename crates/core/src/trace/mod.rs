//! Tracing: which breaker feeds which point, from looks alone.
//!
//! In: the folded home. Out: what is known of each point ([`verdict`]), the lines behind it
//! ([`evidence`]), and what to do next ([`next_step`]).
//!
//! **Proven** is a single-cause experiment, nothing less: a look that showed the point lit and a later one
//! that showed it dark, whose breakers that were off differ by exactly one breaker, while every other
//! breaker that was off at both stayed off from the one look to the other. With nothing else off that
//! reads: seen lit with everything on, and then dark with exactly that one breaker off. And no look may
//! speak against it; and no breaker that was switched on again in between may have failed to latch, as far as the point
//! can tell ([`latched`]). Dark first and lit later proves nothing: the lamp may have been switched on meanwhile.
//! An old label, a rating, a neighbor prove nothing. And a single dark look, which may be a slip, proves only where all
//! else makes its breaker likely at 0.998 or more; elsewhere a second one is asked for, and the point stays open until then.

mod ask;
mod at_home;
mod by_meter;
mod dark_clock;
mod evidence;
mod helper;
mod hunt;
mod last_seen;
mod latched;
mod methods;
mod neutral;
mod next_step;
mod off_now;
mod one_at_a_time;
mod pace;
mod progress;
mod reset;
mod several;
mod step;
mod step_card;
#[cfg(test)]
mod tests;
mod verdict;
mod walkers;

pub use at_home::{Likely, likely};
pub(crate) use by_meter::too_much_read;
pub use dark_clock::{DarkClock, dark_clocks};
pub use evidence::{Evidence, EvidenceLine, LineRole, evidence};
pub use helper::{HelperView, helper_view};
pub use last_seen::{LastSeen, last_seen};
pub(crate) use methods::minutes_by;
pub use methods::{MethodMinutes, method_minutes};
pub use next_step::{next_step, trace_together, trace_view};
pub use off_now::{OffNow, off_now};
pub(crate) use pace::pace;
pub use progress::Progress;
pub use step::{NextStep, PointToSee, RoomToWalk, TraceView};
pub use step_card::{Does, Handle, Looking, Screen, StepAct, StepCard, StepSide, Switch, Weight};
pub(crate) use verdict::on_breaker;
pub use verdict::{Verdict, verdict, verdicts};
