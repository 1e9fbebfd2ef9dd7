//! Circuits that share a neutral, in a trace: with one breaker off its white wire may still carry what runs on the other. To look
//! is safe; to open a box is not, before both are off.

use std::collections::BTreeSet;

use crate::logbook::{Fact, NeutralShared};
use crate::model::{BreakerId, PointId};
use crate::study::Study;
use crate::trace::{Verdict, verdict};

/// What to mind with these off: of the circuits that share a neutral some are, and others are not.
pub(super) fn cautions(home: &Study, off: &BTreeSet<BreakerId>) -> Vec<String> {
    let groups = home.panels().shared_neutrals().iter().filter_map(|group| {
        let (dead, live): (Vec<&BreakerId>, Vec<&BreakerId>) = group.iter().partition(|b| off.contains(b));
        (!dead.is_empty() && !live.is_empty()).then(|| {
            let (dead, live) = (numbers(home, &dead), numbers(home, &live));
            format!(
                "{dead} shares a neutral with {live}, which stays on: its white wire may carry that current, and becomes live when \
                 it is lifted. Looking is safe. Before a box on it is opened, switch off {live}, too, and prove it dead."
            )
        })
    });
    groups.collect()
}

/// What to mind before the box of a point on this breaker is opened.
pub(super) fn before_opening(home: &Study, breaker: &BreakerId) -> Option<String> {
    let others: Vec<&BreakerId> = home.panels().shared_neutral_of(breaker)?.iter().filter(|b| *b != breaker).collect();
    if others.is_empty() {
        return None;
    }
    let (own, others) = (home.panels().number(breaker), numbers(home, &others));
    Some(format!("{own} shares a neutral with {others}: before this box is opened, all of them go off and it is proven dead."))
}

/// That two breakers share a neutral, as the halves of one receptacle suggest that are proven on them: two hots and one neutral in
/// one cable is how such a box is mostly fed. Common practice, no source. Empty elsewhere.
pub(super) fn suggested(home: &Study, point: &PointId) -> Vec<Fact> {
    let half = |p: &&crate::model::Point| p.details.half_of.as_ref() == Some(point);
    let other = home
        .house()
        .point(point)
        .and_then(|p| p.details.half_of.as_ref())
        .or_else(|| home.house().points().find(half).map(|p| &p.id));
    let proven = |point: &PointId| match verdict(home, point) {
        Verdict::Proven { breaker, .. } => home.panels().breaker(&breaker),
        _ => None,
    };
    let (Some(one), Some(two)) = (proven(point), other.and_then(proven)) else { return Vec::new() };
    let single = one.poles() == 1 && two.poles() == 1 && one.panel == two.panel && one.id != two.id;
    if !single || home.panels().shared_neutral_of(&one.id).is_some() || home.panels().shared_neutral_of(&two.id).is_some() {
        return Vec::new();
    }
    vec![Fact::NeutralShared(NeutralShared { breakers: vec![one.id.clone(), two.id.clone()], shared: true })]
}

fn numbers(home: &Study, breakers: &[&BreakerId]) -> String {
    breakers.iter().map(|b| home.panels().number(b)).collect::<Vec<_>>().join(", ")
}

#[cfg(test)]
mod tests {
    use crate::fixture::{line, written};
    use crate::logbook::Draft;
    use crate::model::Method;
    use crate::study::Study;
    use crate::trace::{StepSide, evidence, helper_view, trace_view};

    const HOUSE: &str = "panel 12\n1 20 a\n3 20 b\n5 20 c\nroom Hall\npoint Hall receptacle wall\n";
    const HALF: &str = r#"fact {"kind": "point_placed", "point": "low", "room": "hall", "point_kind": "receptacle", "name": "low", "volts": 120, "details": {"half_of": "wall"}}"#;

    #[test]
    fn with_one_of_a_shared_neutral_off_everybody_is_told_what_stays_live() {
        let told = |acts: &str| {
            let home = written(&format!("{HOUSE}{acts}")).home;
            let said = trace_view(&home, Method::OneAtATime).cautions;
            assert_eq!(helper_view(&home, StepSide::Walk, &[], "").cautions, said);
            said
        };
        let said = told("share 1 3\nlit wall");
        assert!(said[0].starts_with("1 shares a neutral with 3, which stays on:"), "told with the switch that is asked for");
        assert_eq!(told("share 1 3\nlit wall\noff 1"), said);
        assert!(told("share 1 3\nlit wall\noff 1\noff 3").iter().all(|said| !said.contains("1 shares")));
        assert!(told("lit wall\noff 1").is_empty());
        assert!(told("share 1 3\nlit wall\noff 5").is_empty());
    }

    #[test]
    fn halves_on_two_breakers_suggest_that_these_share_a_neutral() {
        let proofs = "proof wall 1\nproof low 3";
        let mut w = written(&format!("{HOUSE}{HALF}\n{proofs}"));
        for point in ["wall", "low"] {
            let offered = evidence(&w.home, &point.parse().unwrap()).unwrap().neutral;
            assert_eq!(offered.len(), 1, "{point}");
        }
        let offered = evidence(&w.home, &"low".parse().unwrap()).unwrap().neutral;
        let like = w.book.lines().last().unwrap().entry.clone();
        let drafts: Vec<Draft> = offered.into_iter().map(|fact| Draft { id: line(800), fact, ..like.clone() }).collect();
        let outcome = w.book.admit(&drafts).unwrap();
        w.book.commit(outcome);
        let looked = evidence(&Study::from(&w.book), &"wall".parse().unwrap()).unwrap();
        assert!(
            looked.neutral.is_empty() && looked.because.contains("1 shares a neutral with 3: before this box"),
            "{}",
            looked.because
        );
        let half_done = written(&format!("{HOUSE}{HALF}\nproof wall 1"));
        assert!(evidence(&half_done.home, &"wall".parse().unwrap()).unwrap().neutral.is_empty());
    }
}
