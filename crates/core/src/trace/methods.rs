//! What each method would take from here.

use std::collections::BTreeMap;

use rand::Rng;
use rand_pcg::Pcg64Mcg;

use super::at_home::AtHome;
use super::pace::pace;
use crate::model::{BreakerId, Method, PointId, TraceSetup};
use crate::search::{Case, CasePoint, Feed, Game, NumberedWiring, Strategy, Wiring, World, play_as};
use crate::study::Study;
use crate::trace::verdicts;

/// What a method of tracing is expected to take from here.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct MethodMinutes {
    /// The method.
    pub method: Method,
    /// Minutes for what is left, with the looks that the rule of proof asks for.
    pub minutes: f64,
}

/// What each method would take for what is left, by playing it on wirings drawn from what is believed. The same
/// logbook gives the same answer.
pub fn method_minutes(home: &Study, setup: TraceSetup) -> Vec<MethodMinutes> {
    method_minutes_while(home, setup, &mut |_, _| true).unwrap_or_default()
}

/// The same, as long as `go_on` wants it: before each play it is told how many of how many are done. In a large home they take
/// seconds each.
pub fn method_minutes_while(
    home: &Study,
    setup: TraceSetup,
    go_on: &mut dyn FnMut(usize, usize) -> bool,
) -> Option<Vec<MethodMinutes>> {
    const SAMPLES: u64 = 3;
    let Some(at_home) = AtHome::of(home, setup) else { return Some(Vec::new()) };
    let belief = at_home.weigh(home).belief();
    let known = verdicts(home);
    let costs = pace(home, setup);
    let open: Vec<usize> = (0..at_home.points.len()).filter(|p| at_home.is_sought(home, *p, &known[*p].1)).collect();
    if open.is_empty() {
        return Some(Vec::new());
    }
    let may = at_home.case.may_be_off();
    let case = Case { points: open.iter().map(|p| at_home.case.points[*p].clone()).collect(), ..at_home.case.clone() };
    let mut rng = Pcg64Mcg::new(7);
    let taught: Vec<Method> = Method::ALL.into_iter().filter(|s| *s != Method::ToneTracer || setup.tone).collect();
    let mut minutes = vec![0.0; taught.len()];
    for sample in 0..SAMPLES {
        let wiring = NumberedWiring::plain(open.iter().enumerate().map(|(n, p)| {
            // Only what can be proven takes time: drawn among the breakers that may be off.
            let row = belief.of(*p);
            let total: f64 = may.iter().map(|b| row[b]).sum();
            let mut left = rng.random::<f64>() * total;
            let drawn = may.iter().find(|b| {
                left -= row[*b];
                left <= 0.0
            });
            (n, drawn.or_else(|| may.iter().next()).unwrap_or(0))
        }));
        for (n, method) in taught.iter().enumerate() {
            if !go_on(sample as usize * taught.len() + n, SAMPLES as usize * taught.len()) {
                return None;
            }
            minutes[n] +=
                play_as(&case, &wiring, setup.into(), costs, ((*method).into(), World::CALM), sample, &mut || 0.0).minutes;
        }
    }
    let mean = |(method, total): (Method, f64)| MethodMinutes { method, minutes: (total / SAMPLES as f64 * 10.0).round() / 10.0 };
    Some(taught.into_iter().zip(minutes).map(mean).collect())
}

/// Minutes that a method of tracing takes in the score, were the home wired so. `None` where there is nothing to prove.
/// `fed`: the breaker of each point, as far as one feeds it.
pub(crate) fn minutes_by(home: &Study, setup: TraceSetup, fed: &BTreeMap<PointId, BreakerId>, strategy: Strategy) -> Option<f64> {
    let at_home = AtHome::of(home, setup)?;
    let number = |id: &PointId| fed.get(id).and_then(|b| at_home.breakers.iter().position(|other| other == b));
    let known: Vec<(usize, usize)> = at_home.points.iter().enumerate().filter_map(|(p, id)| Some((p, number(id)?))).collect();
    let points = known.iter().map(|(p, _)| CasePoint { max_dark_s: None, ..at_home.case.points[*p].clone() }).collect();
    let case = Case { points, ..at_home.case.clone() };
    let wiring = NumberedWiring::plain(known.iter().map(|(_, breaker)| *breaker).enumerate());
    Some(play_as(&case, &wiring, setup.into(), pace(home, setup), (strategy, World::CALM), 0, &mut || 0.0).minutes)
}

/// The home as the search plays it, were it wired so.
pub(crate) fn game_at(home: &Study, name: String, wiring: &Wiring) -> Option<Game> {
    let at_home = AtHome::of(home, home.setup())?;
    let number = |id: &BreakerId| at_home.breakers.iter().position(|other| other == id);
    let feeds = at_home.points.iter().enumerate().filter_map(|(p, id)| {
        let feed = wiring.feeds.get(id)?;
        let breaker = feed.breaker.as_ref().and_then(number)?;
        Some((p, Feed { breaker: Some(breaker), burnt_out: feed.burnt_out, ..Feed::default() }))
    });
    let feeds: BTreeMap<usize, Feed<usize, usize>> = feeds.collect();
    if feeds.len() < at_home.points.len() {
        return None;
    }
    Some(Game::new(name, at_home.case, NumberedWiring { feeds, ..NumberedWiring::default() }))
}
