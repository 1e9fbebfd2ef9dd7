//! Tracing: which breaker feeds which point, from looks alone.
//!
//! In: the folded home. Out: what is known of each point ([`verdict`]), the lines behind it
//! ([`evidence`]), and what to do next ([`next_step`]).
//!
//! **Proven** is by the rule of [`crate::proof`], which the home's lines are weighed by ([`at_home`]): a single cause was seen, and
//! nothing else that could explain the lines is likely. What speaks for the other stories is shown with the evidence, and what
//! would settle them is asked for ([`finish`]). Dark first and lit later proves nothing: the lamp may have been switched on meanwhile.
//! An old label, a rating, a neighbor prove nothing by themselves.

mod ask;
mod at_home;
mod at_the_handle;
mod by_meter;
mod dark_clock;
mod ends_open;
mod evidence;
mod finish;
mod helper;
mod hunt;
mod last_seen;
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
mod weighed;

pub(crate) use at_home::believed;
pub use at_home::{Likely, likely};
pub(crate) use by_meter::{last_read_all_on, legs_apart, too_little_read, too_much_read};
pub use dark_clock::{DarkClock, dark_clocks};
pub use ends_open::{EndsOpen, ends_open};
pub use evidence::{Evidence, EvidenceLine, LineRole, evidence};
pub use helper::{HelperView, helper_view};
pub use last_seen::{LastSeen, last_seen};
pub use methods::{MethodMinutes, method_minutes, method_minutes_while};
pub(crate) use methods::{game_at, minutes_by};
pub use next_step::{next_step, trace_together, trace_view};
pub use off_now::{OffNow, off_now};
pub(crate) use pace::pace;
pub use progress::Progress;
pub use step::{NextStep, PointToSee, RoomToWalk, TraceView};
pub use step_card::{Does, Handle, Looking, Screen, StepAct, StepCard, StepSide, Switch, Weight};
pub use verdict::{Unsure, Verdict, verdict, verdicts};
pub(crate) use verdict::{on_breaker, sureness};
