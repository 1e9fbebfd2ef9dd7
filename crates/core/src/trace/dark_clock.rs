//! What may be without power only so long: a freezer, an aquarium. Its clock runs from the moment a breaker that may feed
//! it went off, known or not which that is, and says what to switch on again when it has run out.

use std::collections::{BTreeMap, BTreeSet};

use super::by_meter::too_much_read;
use super::step_card::{StepCard, over_card};
use crate::model::{BreakerId, Moment, PointId};
use crate::study::Study;
use crate::trace::{Verdict, verdicts};

/// A clock that runs.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct DarkClock {
    /// What may be dark.
    pub point: PointId,
    /// Its name.
    pub name: String,
    /// How long it may be, in minutes.
    pub minutes: u16,
    /// Since when it may be dark.
    pub since: Moment,
    /// When it has to have power again.
    pub until: Moment,
    /// What is off and may feed it: to be switched on by then.
    pub breakers: Vec<BreakerId>,
    /// It is proven on what is off; else it only may be.
    pub proven: bool,
    /// What is said at the panel when it has run out.
    pub card: StepCard,
    /// Why its time cannot be trusted, as a sentence, where the times of the lines since then do not follow one another.
    pub doubt: Option<String>,
}

/// The clocks that run, the first to run out first. A breaker that is left off for a reason of its own starts none.
/// None asks for power while a meter has shown more volts than there may be: the main goes off then.
pub fn dark_clocks(home: &Study) -> Vec<DarkClock> {
    if !too_much_read(home).is_empty() {
        return Vec::new();
    }
    let off: Vec<&BreakerId> =
        home.switchings().off().iter().filter(|b| home.panels().breaker(b).is_some_and(|b| !b.is_left_off())).collect();
    let mut clocks: Vec<DarkClock> = verdicts(home)
        .iter()
        .filter_map(|(id, verdict)| {
            let point = home.house().point(id)?;
            let minutes = point.details.dark_minutes?;
            let may_feed = |breaker: &BreakerId| match verdict {
                Verdict::Proven { breaker: on, .. } => on == breaker,
                Verdict::ByExclusion { breakers } => breakers.contains(breaker),
                Verdict::Open { possible, .. } => possible.contains(breaker),
                // Nothing is sure of it, so anything may be what darkens it.
                Verdict::Contradictory { .. } | Verdict::Out { .. } => true,
            };
            let darkens = |b: &BreakerId| home.panels().dead_behind(&BTreeSet::from([b.clone()])).iter().any(may_feed);
            let breakers: Vec<BreakerId> = off.iter().filter(|b| darkens(b)).map(|b| (*b).clone()).collect();
            let since = breakers.iter().filter_map(|b| home.switchings().off_since(b)).min()?;
            let (back, doubt) = doubted(home, &breakers);
            Some(DarkClock {
                point: id.clone(),
                name: point.name.clone(),
                minutes,
                card: over_card(home, &point.name, minutes, &breakers),
                since,
                until: Moment::from_unix_ms(since.unix_ms() + i64::from(minutes) * 60_000 - back),
                doubt,
                breakers,
                proven: verdict.proven_on().is_some(),
            })
        })
        .collect();
    clocks.sort_by_key(|clock| clock.until);
    clocks
}

/// Clocks of several phones may stand so far apart.
const APART_MS: i64 = 120_000;
/// Nobody leaves a trace alone for so long with something off that may be dark only so long.
const LONG_MS: i64 = 12 * 60 * 60_000;

/// By how many milliseconds the clock was set back since the first of these breakers went off, and what is said of it. The lines
/// themselves show it: each person's are written one after the other, whatever times they bear. Those of two people are not
/// held against each other: what was recorded without the network comes late.
fn doubted(home: &Study, breakers: &[BreakerId]) -> (i64, Option<String>) {
    let all = home.switchings().all();
    let went_off = |breaker: &BreakerId| all.iter().rposition(|s| s.breaker == *breaker && s.off.contains(breaker));
    let Some(first) = breakers.iter().filter_map(went_off).min() else { return (0, None) };
    let mut by_hand: BTreeMap<Option<&str>, Vec<i64>> = BTreeMap::new();
    by_hand.insert(None, all[first..].iter().map(|switching| switching.at.unix_ms()).collect());
    for look in home.trace().looks().iter().filter(|look| look.moves > first) {
        by_hand.entry(Some(&*look.by)).or_default().push(look.at.unix_ms());
    }
    let off_at = all[first].at.unix_ms();
    let back = by_hand.values().map(|times| set_back(off_at, times)).max().unwrap_or(0);
    let mut times: Vec<i64> = by_hand.into_values().flatten().collect();
    times.sort_unstable();
    let ahead = times.windows(2).map(|pair| pair[1] - pair[0]).max().unwrap_or(0);
    let minutes = |ms: i64| (ms + 59_999) / 60_000;
    let doubt = if back > 0 {
        let by = minutes(back);
        Some(format!("The clock was set back by about {by} minutes since then, so this ends {by} minutes sooner. Go by a watch."))
    } else if ahead > LONG_MS {
        let hours = ahead / 3_600_000;
        Some(format!("Between two lines {hours} hours went by. If that is not so, the clock was set ahead. Go by a watch."))
    } else {
        None
    };
    (back, doubt)
}

/// By how much times that follow one another go back, from the first moment on.
fn set_back(from: i64, times: &[i64]) -> i64 {
    let (mut latest, mut back) = (from, 0);
    for at in times {
        if latest - at > APART_MS {
            back += latest - at;
            latest = *at;
        } else {
            latest = latest.max(*at);
        }
    }
    back
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{Written, written};

    const HOUSE: &str = "panel 6\n1 20 kitchen\n3 15 rec\n5 15 cellar\nroom Cellar\npoint Cellar appliance freezer\n\
                         point Cellar light lamp\ndark-at-most freezer 30\nlit freezer\nlit lamp\n";

    fn running(w: &Written) -> Vec<(String, Vec<String>, i64, bool)> {
        let clocks = dark_clocks(&w.home);
        let numbers = |of: &[BreakerId]| of.iter().map(|b| w.home.panels().number(b)).collect();
        clocks.iter().map(|c| (c.name.clone(), numbers(&c.breakers), c.until.unix_ms() - c.since.unix_ms(), c.proven)).collect()
    }

    #[test]
    fn a_clock_runs_while_what_may_feed_the_point_is_off() {
        let minutes = 30 * 60_000;
        for (acts, on) in [
            ("", None),
            // Unknown which: any breaker that is off may be its own.
            ("off 1", Some((vec!["1"], false))),
            ("off 1\noff 3", Some((vec!["1", "3"], false))),
            // Seen lit with it off, it is on another.
            ("off 1\nlit freezer", None),
            ("off 1\nlit freezer\noff 3", Some((vec!["3"], false))),
            ("off 1\ndark freezer", Some((vec!["1"], false))),
            ("proof freezer 1\noff 1", Some((vec!["1"], true))),
            ("off 1\ndark freezer\non 1\nlit freezer", None),
            ("off 1\ndark freezer\non 1\nlit freezer\noff 3", None),
        ] {
            let expected: Vec<_> = on
                .map(|(breakers, proven)| ("freezer".into(), breakers.into_iter().map(str::to_owned).collect(), minutes, proven))
                .into_iter()
                .collect();
            assert_eq!(running(&written(&format!("{HOUSE}{acts}"))), expected, "{acts}");
        }
    }

    #[test]
    fn nothing_is_switched_on_again_while_the_supply_is_dangerous() {
        let off = written(&format!("{HOUSE}point Cellar receptacle plug\noff 1"));
        assert_eq!(dark_clocks(&off.home).len(), 1);
        let stop = written(&format!("{HOUSE}point Cellar receptacle plug\noff 1\nvolts plug 176"));
        assert_eq!(dark_clocks(&stop.home), []);
    }

    #[test]
    fn it_counts_from_the_first_that_went_off_and_anew_after_all_were_on() {
        let since = |acts: &str| {
            let w = written(&format!("{HOUSE}{acts}"));
            dark_clocks(&w.home)[0].since
        };
        // Lines are a second apart in this fixture.
        let first = since("off 1").unix_ms();
        assert_eq!(since("off 1\noff 3").unix_ms(), first);
        assert_eq!(since("off 1\non 1\noff 3").unix_ms(), first + 2000);
    }

    #[test]
    fn a_clock_that_was_set_meanwhile_is_not_trusted_and_no_line_is_lost_for_it() {
        let minutes = |minutes: i64| minutes * 60_000;
        // The times of the looks after the switching, in minutes from it; then what the clock ends sooner by, and what is said.
        for (times, sooner, says) in [
            (&[1, 2, 3][..], 0, None),
            // Two phones, a minute apart.
            (&[2, 1, 3], 0, None),
            (&[5, -55, -54], 60, Some("set back by about 60 minutes")),
            (&[5, -55, 6, -20], 86, Some("set back by about 86 minutes")),
            (&[1, 525_601], 0, Some("8760 hours went by")),
        ] {
            let mut w = written(&format!("{HOUSE}off 1"));
            let before = w.book.seq();
            let off_at = dark_clocks(&w.home)[0].since.unix_ms();
            for (n, time) in times.iter().enumerate() {
                let mut next = Written::on(w.book.clone());
                next.acts(if n % 2 == 0 { "dark lamp" } else { "lit lamp" });
                let mut look = next.since(w.book.seq()).remove(0);
                look.at = Moment::from_unix_ms(off_at + minutes(*time));
                let outcome = w.book.admit(&[look]).unwrap();
                w.book.commit(outcome);
            }
            w.home = Study::from(&w.book);
            assert_eq!(w.book.seq(), before + times.len() as u64, "each line is kept, in its place");
            let clock = &dark_clocks(&w.home)[0];
            assert_eq!(clock.until.unix_ms() - clock.since.unix_ms(), minutes(30 - sooner), "{times:?}");
            match (says, &clock.doubt) {
                (None, None) => {}
                (Some(says), Some(doubt)) => assert!(doubt.contains(says), "{doubt}"),
                (_, doubt) => panic!("{times:?}: {doubt:?}"),
            }
        }
    }

    #[test]
    fn looks_of_a_phone_that_was_without_the_network_come_late_and_are_no_clock_that_was_set() {
        let mut w = written(&format!("{HOUSE}off 1"));
        let off_at = dark_clocks(&w.home)[0].since.unix_ms();
        for (by, minute) in [("Ada", 20), ("Ben", 4), ("Ben", 9), ("Ada", 21)] {
            let mut next = Written::on(w.book.clone());
            next.acts("lit lamp");
            let mut look = next.since(w.book.seq()).remove(0);
            (look.by, look.at) = (by.into(), Moment::from_unix_ms(off_at + minute * 60_000));
            let outcome = w.book.admit(&[look]).unwrap();
            w.book.commit(outcome);
        }
        w.home = Study::from(&w.book);
        let clock = &dark_clocks(&w.home)[0];
        assert_eq!((clock.until.unix_ms() - off_at, &clock.doubt), (30 * 60_000, &None));
    }

    #[test]
    fn behind_a_feeder_the_feeder_is_what_to_switch_on_and_a_tripped_one_starts_no_clock() {
        let house = "panel 24\n1 20 hall\n18-20 60/2 shed\nsub Shed 8 18-20\nshed: 1 15 light\nroom Shed
                     point Shed appliance freezer\ndark-at-most freezer 20\nlit freezer\n";
        let w = written(&format!("{house}off 18-20"));
        assert_eq!(running(&w), [("freezer".into(), vec!["18-20".into()], 20 * 60_000, false)]);
        assert_eq!(running(&written(&format!("{HOUSE}tripped 3"))), []);
    }
}
