//! What the checks propose as done, in any home: taken by the logbook, it makes the finding go and brings no other.

use std::collections::BTreeSet;

use super::{draft, written};
use proptest::prelude::*;
use proptest::strategy::ValueTree;
use wayfinder_core::*;
use wayfinder_fixture::any::{any_fact, breaker_of, id, panel_of};

/// A panel and breakers with all that a first description may say of them, so that many rules have something to find.
fn described() -> impl Strategy<Value = Vec<Fact>> {
    let panel = (4..24_u8, prop::option::of(1..3_u8), prop::option::of(1..12_u8), any::<bool>(), any::<bool>()).prop_map(
        |(spaces, bus, circuits, tandems, types)| {
            let details = PanelDetails {
                bus: bus.map(|n| Amps::new(f64::from(n) * 50.0)),
                circuits,
                tandems: if tandems { Tandems::None } else { Tandems::NotRead },
                types: if types { vec!["A".into()] } else { Vec::new() },
                ..PanelDetails::default()
            };
            Fact::from(PanelDescribed { details, main: Some(Amps::new(100.0)), ..panel_of(0, spaces) })
        },
    );
    let gauges = [WireGauge::Awg14, WireGauge::Awg12, WireGauge::Awg10, WireGauge::Awg8, WireGauge::Awg6];
    let amps = [10.0, 15.0, 20.0, 25.0, 30.0, 33.0, 40.0, 50.0, 60.0];
    let protections = [Protection::Standard, Protection::Gfci, Protection::Afci];
    let sources = [OtherSource::Solar, OtherSource::PortableGenerator];
    let slots = prop_oneof![
        4 => (1..12_u8).prop_map(|n| vec![Slot::whole(n)]),
        3 => (1..10_u8).prop_map(|n| vec![Slot::whole(n), Slot::whole(n + 2)]),
        2 => (1..12_u8, any::<bool>()).prop_map(|(n, a)| vec![format!("{n}{}", if a { "a" } else { "b" }).parse().unwrap()]),
    ];
    let breaker = (
        0..5_u8,
        slots,
        prop::sample::select(amps.to_vec()),
        prop::option::of((prop::sample::select(gauges.to_vec()), any::<bool>())),
        prop::sample::select(protections.to_vec()),
        prop::sample::select(vec!["", "A", "B"]),
        prop::option::of(1..4_u8),
        (
            prop::option::of(prop::sample::select(sources.to_vec())),
            prop::option::of(any::<bool>()),
            prop::option::of(any::<bool>()),
        ),
    )
        .prop_map(|(n, at, amps, wire, protection, type_name, under, (brings_in, interlocked, fastened))| {
            let wire = wire.map(|(gauge, aluminum)| Wire {
                gauge,
                metal: if aluminum { Metal::Aluminum } else { Metal::Copper },
                terminals: Terminals::Unread,
                cable: Cable::NotRead,
            });
            let terminal = Terminal { under, ..Terminal::default() };
            let more = BreakerDetails { brings_in, interlocked, fastened, ..BreakerDetails::default() };
            let details = BreakerDetails { type_name: type_name.into(), terminal, ..more };
            Fact::from(BreakerPlaced { at, amps: Amps::new(amps), wire, protection, details, ..breaker_of(n, 0) })
        });
    let label = (0..5_u8, "lights|Kitchen|Emma's room|hall|spare|")
        .prop_map(|(n, text)| Fact::from(LabelClaimed { breaker: id("b", n), text }));
    let neutral = (0..5_u8, 0..5_u8).prop_map(|(a, b)| {
        let breakers = if a == b { vec![id("b", a)] } else { vec![id("b", a), id("b", b)] };
        Fact::from(NeutralShared { breakers, shared: true })
    });
    let filler = (1..12_u8).prop_map(|n| Fact::from(FillerSeen { panel: id("panel", 0), at: Slot::whole(n), filler: false }));
    let any = prop_oneof![2 => panel, 8 => breaker, 3 => label, 3 => neutral, 2 => filler];
    prop::collection::vec(any, 1..24)
}

fn keys(home: &Study) -> BTreeSet<String> {
    findings(home).iter().map(|finding| finding.key.clone()).collect()
}

/// Which rules have proposed something in a whole run: a property that holds for nothing proves nothing.
static SEEN: std::sync::Mutex<BTreeSet<String>> = std::sync::Mutex::new(BTreeSet::new());

fn mends_are_right(book: &Logbook) {
    let home = Study::from(book);
    let before = keys(&home);
    for finding in findings(&home) {
        let Some(mend) = &finding.mend else { continue };
        let drafts: Vec<Draft> = mend
            .facts
            .iter()
            .enumerate()
            .map(|(n, fact)| Draft { id: format!("mend{n}").parse().unwrap(), ..draft(5_000, fact.clone()) })
            .collect();
        let outcome = book.admit(&drafts).unwrap_or_else(|refusal| panic!("{} “{}”: {refusal}", finding.key, mend.words));
        let mut mended = book.clone();
        mended.commit(outcome);
        let then = Study::from(&mended);
        let after = keys(&then);
        assert!(!after.contains(&finding.key), "{} stays after “{}”", finding.key, mend.words);
        // Handles that are one now can prove what they did not prove apart, and what is proven can be found. What may be
        // on a breaker always changes with them: only the kind of the verdict counts here.
        let kinds = |of: &Study| verdicts(of).iter().map(|(_, known)| std::mem::discriminant(known)).collect::<Vec<_>>();
        if kinds(&then) != kinds(&home) {
            continue;
        }
        // Of two that are one now, what was said of the one is said of both: no rule may say more than before.
        let rule = |key: &String| key.split(':').next().unwrap_or_default().to_owned();
        let said = |keys: &BTreeSet<String>, of: &str| keys.iter().filter(|key| rule(key) == of).count();
        let fresh: Vec<&String> =
            after.difference(&before).filter(|key| said(&after, &rule(key)) > said(&before, &rule(key))).collect();
        assert!(fresh.is_empty(), "{} “{}” brings {fresh:?}\n{:?}", finding.key, mend.words, mend.facts);
        SEEN.lock().unwrap().insert(finding.code.clone());
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 1500, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_mend_brings_no_other_finding(told in described(), facts in prop::collection::vec(any_fact(), 0..20)) {
        // Without looks: of two breakers that are one now, a look says something else, and rules about what is proven follow it.
        let unseen = |fact: &Fact| !matches!(fact, Fact::PointSeen(_) | Fact::VoltsRead(_));
        mends_are_right(&written(told.into_iter().chain(facts).filter(unseen).collect()));
    }
}

#[test]
fn every_rule_that_proposes_something_is_met() {
    let mut runner = proptest::test_runner::TestRunner::deterministic();
    for _ in 0..800 {
        let told = described().new_tree(&mut runner).unwrap().current();
        mends_are_right(&written(told));
    }
    let seen = SEEN.lock().unwrap().clone();
    for rule in ["breaker-over-wire", "shared-neutral-disconnect", "open-space", "generator-interlock", "back-fed-main"] {
        assert!(seen.contains(rule), "{rule} proposed nothing in 800 homes; met were {seen:?}");
    }
}
