//! What is still open when nothing more can be switched: for each point why, and what to do about it next.

use super::Verdict;
use super::next_step::Rounds;
use super::step_card::{Screen, StepAct, open, record};
use crate::logbook::{BreakerKept, Fact, PointSeen};
use crate::model::{BreakerId, Interior, Kept, Point, PointId, PointKind, Seen};
use crate::study::Study;

/// A point that ends open.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct EndsOpen {
    /// The point.
    pub point: PointId,
    /// `Kitchen, ceiling`.
    pub name: String,
    /// Why it is open, as a sentence.
    pub reason: String,
    /// What to do next, as a sentence.
    pub advice: String,
    /// Buttons for what was done.
    pub acts: Vec<StepAct>,
}

/// Every point that is not proven as things are now, with its reason and what to do about it, in the order of entry.
pub fn ends_open(home: &Study) -> Vec<EndsOpen> {
    Rounds::of(home).ends_open()
}

impl Rounds<'_> {
    /// Every point that is not proven, with its reason, in the order of entry.
    pub(super) fn ends_open(&self) -> Vec<EndsOpen> {
        let open = self.known.iter().filter(|(_, known)| known.proven_on().is_none());
        let open = open.filter_map(|(id, known)| Some((self.home.house().point(id)?, known)));
        open.map(|(point, known)| self.end_of(point, known)).collect()
    }

    fn end_of(&self, point: &Point, known: &Verdict) -> EndsOpen {
        let number = |breaker: &BreakerId| self.home.panels().number(breaker);
        let lit = || record("It is lit now", vec![look(point, Seen::Lit)]);
        let is_skipped = self.home.trace().skips().iter().any(|skip| skip.point == point.id);
        let is_looked_at = self.looks.get(&point.id).is_some_and(|looks| !looks.is_empty());
        let (reason, advice, acts): (String, String, Vec<StepAct>) = match known {
            Verdict::Proven { .. } => (String::new(), String::new(), Vec::new()),
            Verdict::Out { .. } => ("Dark with everything on.".into(), bring_to_light(point).into(), vec![lit()]),
            Verdict::Contradictory { because, .. } => (
                because.clone(),
                "One of its looks was a slip. Strike that one out in the logbook, or look again with everything on, then with its \
                 likeliest breaker off."
                    .into(),
                vec![open("To the logbook", Screen::Logbook)],
            ),
            Verdict::ByExclusion { breakers } => {
                let (may, free) = self.must_stay_on(breakers.iter());
                (format!("Only {may}, which must stay on, is likely any more."), WHEN_IT_MAY.into(), free)
            }
            Verdict::Open { unsure: Some(unsure), .. } => (
                format!("It went dark with {} alone off, and other stories still fit.", number(&unsure.breaker)),
                match point.how_to_look() {
                    Some(how) => format!("{how} A meter at the point tells most."),
                    None => "Look once more with that breaker off and once with it on; a meter at the point tells most.".into(),
                },
                Vec::new(),
            ),
            Verdict::Open { .. } if !is_looked_at && is_skipped => {
                ("It was passed over.".into(), behind(point).into(), vec![lit()])
            }
            Verdict::Open { .. } if !is_looked_at => ("Nobody has looked at it yet.".into(), behind(point).into(), vec![lit()]),
            Verdict::Open { possible, .. } => {
                let kept = possible.iter().filter(|b| self.home.panels().breaker(b).is_some_and(|b| b.must_stay_on()));
                let (may, free) = self.must_stay_on(kept);
                let fuses: Vec<String> = possible.iter().filter(|breaker| self.is_a_fuse(breaker)).map(number).collect();
                if free.is_empty() && !fuses.is_empty() {
                    (
                        format!("It may be on {}: a fuse is no switch.", any_of(&fuses)),
                        "Follow it with a tone sender, or have it traced by an electrician.".into(),
                        Vec::new(),
                    )
                } else if free.is_empty() {
                    (
                        "It stayed lit with every breaker off that may feed it.".into(),
                        "It may be fed from a panel that is not described, by two breakers, or by a source of its own. Describe \
                         that panel, or have the point read by an electrician; until then treat it as live."
                            .into(),
                        vec![open("To the panel", Screen::Panel)],
                    )
                } else {
                    (format!("It may be on {may}, which must stay on."), WHEN_IT_MAY.into(), free)
                }
            }
        };
        EndsOpen { point: point.id.clone(), name: self.home.house().place(&point.id), reason, advice, acts }
    }

    fn is_a_fuse(&self, breaker: &BreakerId) -> bool {
        let panels = self.home.panels();
        let panel = panels.breaker(breaker).and_then(|breaker| panels.panel(&breaker.panel));
        panel.is_some_and(|panel| panel.details.interior == Interior::Fuses)
    }

    /// Those breakers by number, and a button for each that frees it.
    fn must_stay_on<'b>(&self, breakers: impl Iterator<Item = &'b BreakerId>) -> (String, Vec<StepAct>) {
        let breakers: Vec<&BreakerId> = breakers.collect();
        let number = |breaker: &BreakerId| self.home.panels().number(breaker);
        let numbers: Vec<String> = breakers.iter().map(|b| number(b)).collect();
        let may_be_off = |breaker: &&BreakerId| {
            let kept: Option<Kept> = None;
            let free = BreakerKept { breaker: (*breaker).clone(), kept, reason: String::new() };
            record(format!("{} may be off now", number(breaker)), vec![free.into()])
        };
        (numbers.join(" or "), breakers.iter().map(may_be_off).collect())
    }
}

/// `1 or 3`; more than three are not told one by one.
fn any_of(numbers: &[String]) -> String {
    if numbers.len() <= 3 { numbers.join(" or ") } else { format!("any of {} fuses", numbers.len()) }
}

const WHEN_IT_MAY: &str = "When what hangs on it may be without power for two minutes, say so: then it is asked for.";

fn look(point: &Point, seen: Seen) -> Fact {
    PointSeen { point: point.id.clone(), seen, since: None, anew: true }.into()
}

/// What makes a point that is dark with everything on show its power, by kind.
const fn bring_to_light(point: &Point) -> &'static str {
    match point.kind {
        PointKind::Light => {
            "Put in a lamp that is known to be good, and turn on every switch that may be its own; then look again."
        }
        PointKind::Receptacle => {
            "Press the reset of every GFCI nearby, turn on the switches of the room, and try a lamp that is known to be good. Still \
             dark? Have it read with a meter: it may be dead."
        }
        PointKind::Switch => "Look at what it switches instead: a switch alone shows no power.",
        _ => "Is it switched on, plugged in, and is its own breaker or fuse in? A meter where it takes its power tells for sure.",
    }
}

/// How to come to a point that nobody has looked at.
const fn behind(point: &Point) -> &'static str {
    match point.kind {
        PointKind::Receptacle => {
            "Look behind the cabinet, bed or refrigerator, or plug an extension cord in there and the tester into that; then it is \
             asked for."
        }
        PointKind::Light | PointKind::Alarm | PointKind::Fan => {
            "Bring a ladder, or ask whoever has the key; then it is asked for."
        }
        _ => "Find where it takes its power, or ask whoever knows; then it is asked for.",
    }
}

#[cfg(test)]
mod tests {
    use crate::fixture::{Written, written};
    use crate::model::Method;
    use crate::trace::{Does, NextStep, trace_view};

    fn ends(w: &Written) -> Vec<(String, String, Vec<String>)> {
        let NextStep::Done { open, .. } = trace_view(&w.home, Method::OneAtATime).next else { panic!("the trace is not done") };
        let said = |act: &crate::trace::StepAct| act.words.clone();
        open.iter().map(|end| (end.name.clone(), end.reason.clone(), end.acts.iter().map(said).collect())).collect()
    }

    const HOUSE: &str = "panel 12\n1 20 a\n3 20 b\nroom Hall\npoint Hall receptacle wall\npoint Hall light lamp\n";

    #[test]
    fn a_lamp_that_is_dark_with_everything_on_is_to_be_replaced_and_then_goes_on() {
        let mut w = written(&format!("{HOUSE}dark lamp\nproof wall 1\noff 3\nlit wall\non 3"));
        let [(name, reason, acts)] = &ends(&w)[..] else { panic!("{:?}", ends(&w)) };
        assert_eq!(
            (name.as_str(), reason.as_str(), &acts[..]),
            ("Hall, lamp", "Dark with everything on.", &["It is lit now".to_owned()][..])
        );
        w.acts("lit lamp");
        assert!(
            !matches!(trace_view(&w.home, Method::OneAtATime).next, NextStep::Done { .. }),
            "it is asked for with a breaker off"
        );
    }

    #[test]
    fn one_that_may_be_on_a_breaker_that_must_stay_on_frees_it_by_a_button() {
        let w = written(&format!("{HOUSE}must-stay-on 3\nlit lamp\nproof wall 1\noff 1\nlit lamp\nlit lamp\non 1\nlit lamp"));
        let NextStep::Done { open, .. } = trace_view(&w.home, Method::OneAtATime).next else { panic!("the trace is not done") };
        let lamp = open.iter().find(|end| end.name == "Hall, lamp").unwrap();
        assert!(lamp.reason.contains("3, which must stay on"), "{}", lamp.reason);
        let Does::Record { facts, .. } = &lamp.acts[0].does else { panic!() };
        let mut freed = w;
        freed.acts(&format!("fact {}", serde_json::to_string(&facts[0]).unwrap()));
        assert!(!matches!(trace_view(&freed.home, Method::OneAtATime).next, NextStep::Done { .. }));
    }

    #[test]
    fn one_that_was_passed_over_says_where_to_look() {
        let w = written(&format!("{HOUSE}skip lamp\nproof wall 1\noff 3\nlit wall\non 3"));
        let NextStep::Done { open, .. } = trace_view(&w.home, Method::OneAtATime).next else { panic!("the trace is not done") };
        assert_eq!((open[0].reason.as_str(), open.len()), ("It was passed over.", 1));
        assert!(open[0].advice.contains("ladder"), "{}", open[0].advice);
    }

    #[test]
    fn a_fuse_is_never_asked_to_be_switched_off() {
        let w = written(&format!("{HOUSE}main is fuses\nlit wall\nlit lamp"));
        let NextStep::Done { open, summary, .. } = trace_view(&w.home, Method::OneAtATime).next else {
            panic!("it asks for a fuse")
        };
        assert!(summary.contains("Main panel has fuses: a fuse is no switch"), "{summary}");
        assert_eq!(open[0].reason, "It may be on 1 or 3: a fuse is no switch.");
        for method in [Method::SeveralOff, Method::LampAndHelper] {
            let next = trace_view(&w.home, method).next;
            assert!(matches!(next, NextStep::Done { .. }), "{method:?}: {next:?}");
        }
    }

    #[test]
    fn nothing_is_left_where_all_is_proven() {
        let w = written(&format!("{HOUSE}no-point lamp\nproof wall 1"));
        assert_eq!(ends(&w), []);
    }
}
