//! Whether a GFCI that was tripped on purpose gives power again. Where its button did not go in, what is behind it stays
//! dark whatever is switched off, and would be proven on the breaker that happens to be off when it is looked at next.
//!
//! It is seen to give power by a lit look, after it was reset, at the device or at what was dark while it was tripped. For one
//! point it is enough that this point was seen lit since.

use crate::logbook::Look;
use crate::logbook::Trip;
use crate::model::{PointId, Seen};
use crate::study::Study;

/// The first GFCI that may be why a point is dark that was `lit` before: tripped between that look and `dark` (by now, where
/// there is none), and not seen to give power since. `own`: the looks at the point.
pub(super) fn not_reset<'a>(home: &'a Study, own: &[&Look], lit: &Look, dark: Option<&Look>) -> Option<&'a Trip> {
    let volts = |point: &PointId| home.house().point(point).map(|point| point.volts);
    let between = |trip: &Trip| lit.written < trip.written && dark.is_none_or(|dark| trip.written <= dark.written);
    let may_be_behind = |trip: &Trip| {
        let other_volts = volts(&trip.device).is_some_and(|of_device| volts(&lit.point) != Some(of_device));
        !other_volts && !trip.showed(&lit.point, Seen::Lit)
    };
    let gives_power = |trip: &Trip| {
        let Some((at, looks_before)) = trip.reset else { return false };
        let counts = |look: &Look| {
            look.seen == Seen::Lit
                && look.written >= looks_before
                && look.at >= at
                && dark.is_none_or(|dark| look.place < dark.place)
        };
        let tells = |look: &Look| look.point == trip.device || trip.showed(&look.point, Seen::Dark);
        own.iter().any(|look| counts(look)) || home.trace().looks().iter().any(|look| counts(look) && tells(look))
    };
    home.trace().trips().iter().find(|trip| between(trip) && may_be_behind(trip) && !gives_power(trip))
}
