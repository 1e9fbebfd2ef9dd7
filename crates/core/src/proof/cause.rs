//! The rule that every proof begins with, for a real trace, for the search and for the score alike: a single cause.
//!
//! A look showed the point lit and a later one showed it dark, and what was off differs by exactly one breaker, while every
//! other breaker that was off at both stayed off from the one look to the other. Whatever made the point dark, it is that one
//! breaker, or nothing that was switched.

/// What was off at a look.
pub(crate) trait Off {
    /// How a breaker is named.
    type Breaker: PartialEq + Copy;
    /// Whether it was off.
    fn has(&self, breaker: Self::Breaker) -> bool;
    /// Whether nothing was off.
    fn is_none(&self) -> bool;
    /// The only breaker that was off here and not there, where everything that was off there was off here, too.
    fn one_more_than(&self, there: &Self) -> Option<Self::Breaker>;
}

/// The breaker by which a lit look and a later dark one differ, if it is one alone. `moved`: every breaker that was switched
/// between the two, in any order.
pub(crate) fn single_cause<O: Off>(lit: &O, dark: &O, moved: impl IntoIterator<Item = O::Breaker>) -> Option<O::Breaker> {
    let only = dark.one_more_than(lit)?;
    // With nothing off at the lit look, nothing can have been on meanwhile.
    let stayed = lit.is_none() || moved.into_iter().all(|breaker| !lit.has(breaker));
    stayed.then_some(only)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::proof::OffSet;

    #[test]
    fn one_more_breaker_off_is_a_cause_unless_another_that_was_off_was_on_meanwhile() {
        let off = |breakers: &[usize]| breakers.iter().copied().collect::<OffSet>();
        for (lit, dark, moved, cause) in [
            (&[][..], &[3][..], &[3][..], Some(3)),
            (&[], &[3], &[1, 1, 3], Some(3)),
            (&[], &[3, 4], &[3, 4], None),
            (&[1], &[1, 3], &[3], Some(3)),
            // 1 was switched on and off again between the two: it may not have latched.
            (&[1], &[1, 3], &[1, 1, 3], None),
            (&[1], &[3], &[1, 3], None),
            (&[3], &[3], &[], None),
        ] {
            assert_eq!(single_cause(&off(lit), &off(dark), moved.iter().copied()), cause, "{lit:?} {dark:?} {moved:?}");
        }
    }
}
