//! Random homes: whatever way the program proposes and makes a sheet of, done to its end it makes no finding that was not there, keeps
//! what it promised, and takes nothing from what is proven. The homes are drawn at random; nothing in them is a real one.

use std::collections::{BTreeMap, BTreeSet};

use proptest::prelude::*;
use wayfinder_core::work::{HomeWish, JobStands, WayStands, no_sheet, read_wish, work_view};
use wayfinder_core::{BreakerId, JobBegun, PointId, Severity, Study, Verdict, findings, verdicts};
use wayfinder_fixture::{Written, written};

use super::walked::{goes_on, id, sheet, take};

/// What somebody has in a space.
#[derive(Debug, Clone, Copy)]
enum Held {
    Open,
    OnePole { amps: usize, awg: usize },
    TwoPole { amps: usize, awg: usize },
    Tandem,
}

const AMPS: [u16; 5] = [15, 20, 30, 40, 50];
const AWG: [u16; 5] = [14, 12, 10, 8, 6];
const LOADS: [&str; 4] = ["led_60", "kettle", "toaster", "freezer"];

fn held() -> impl Strategy<Value = Held> {
    prop_oneof![
        3 => Just(Held::Open),
        // Mostly the wire that goes with it; at times one that does not.
        6 => (0..2_usize, 0..5_usize).prop_map(|(amps, odd)| Held::OnePole { amps, awg: if odd == 0 { 1 - amps } else { amps } }),
        2 => (1..5_usize, 0..6_usize).prop_map(|(amps, odd)| Held::TwoPole { amps, awg: if odd == 0 { amps - 1 } else { amps } }),
        1 => Just(Held::Tandem),
    ]
}

#[derive(Debug, Clone)]
struct Drawn {
    acts: String,
    wish: String,
}

/// A panel of 8 to 16 spaces, circuits with a point and a load here and there, and a wish.
fn drawn() -> impl Strategy<Value = Drawn> {
    let spaces = (4..=8_usize).prop_map(|half| 2 * half);
    let panel = (spaces, 0..4_usize, any::<bool>(), any::<bool>(), any::<bool>(), any::<bool>(), 0..4_u8);
    let circuits = prop::collection::vec((held(), 0..6_usize, 0..LOADS.len(), 0..3_usize), 16);
    (panel, circuits, 0..9_usize, 0..16_usize, any::<bool>()).prop_map(
        |((spaces, main, listed, tandems, share, read, slack), circuits, wish, on, known)| {
            let main = [100, 125, 150, 200][main];
            let mut acts = format!("panel {spaces}\nroom Hall\nroom Kitchen\n");
            acts += &format!("main is main {main} A, bus {main} A");
            if listed {
                acts += &format!(", listed for {}", spaces + 4);
            }
            if tandems {
                acts += ", tandems everywhere";
            }
            acts += "\n";
            if slack > 1 {
                acts += &format!("with main {{\"details\": {{\"splice_room\": {slack}}}}}\n");
            }
            let mut taken = BTreeSet::new();
            let mut numbers = Vec::new();
            for (n, (held, point, load, off)) in circuits.iter().take(spaces).enumerate() {
                let at = n + 1;
                if taken.contains(&at) {
                    continue;
                }
                let number = match held {
                    Held::Open => continue,
                    Held::OnePole { amps, awg } => {
                        acts += &format!("{at} {} #{} circuit {at}\n", AMPS[*amps], AWG[*awg]);
                        at.to_string()
                    }
                    Held::TwoPole { .. } if at + 2 > spaces || taken.contains(&(at + 2)) => continue,
                    Held::TwoPole { amps, awg } => {
                        acts += &format!("{at}-{} {}/2 #{} circuit {at}\n", at + 2, AMPS[*amps], AWG[*awg]);
                        taken.insert(at + 2);
                        format!("{at}-{}", at + 2)
                    }
                    Held::Tandem => {
                        acts += &format!("{at}a 15 #14 half a of {at}\n{at}b 15 #14 half b of {at}\n");
                        format!("{at}a")
                    }
                };
                taken.insert(at);
                if *point < 4 && !number.contains('-') {
                    let (kind, room) = if *point % 2 == 0 { ("receptacle", "Kitchen") } else { ("light", "Hall") };
                    acts += &format!("point {room} {kind} spot {at}\nproof spot-{at} {number}\n");
                    if *point < 3 {
                        acts += &format!("load spot-{at} {}\n", LOADS[*load]);
                    }
                }
                if *off == 0 && *point == 5 && !number.contains('-') {
                    acts += &format!("must-stay-on {number}\n");
                }
                // Somebody has looked behind the cover.
                if slack > 1 {
                    let details = format!("{{\"slack\": {}, \"terminal\": {{\"under\": 1}}}}", 6 * slack);
                    acts += &format!("set {number} {{\"details\": {details}}}\n");
                }
                if read {
                    acts += &format!("clamp {number} {}\n", 1 + n % 5);
                }
                numbers.push(number);
            }
            let single: Vec<&String> = numbers.iter().filter(|number| !number.contains(['-', 'a'])).collect();
            if share && single.len() > 3 {
                acts += &format!("share {} {}\n", single[0], single[1]);
            }
            let of = |n: usize| numbers.get(n % numbers.len().max(1)).cloned().unwrap_or_else(|| "1".into());
            let takes = if known { " that takes 6 A" } else { "" };
            let wish = match wish {
                0 => format!("20 A circuit for the freezer{takes}"),
                1 => format!("40 A two-pole for the kiln{takes}"),
                2 => "two free spaces side by side".into(),
                3 => format!("replace {} with 15 A", of(on)),
                4 => format!("replace {}", of(on)),
                5 => format!("GFCI for {}", of(on)),
                6 => format!("make {} 240 V", of(on)),
                7 => "combine two light circuits".into(),
                _ => "level the legs".into(),
            };
            Drawn { acts, wish }
        },
    )
}

/// What is found now; words for a new card and advice on planned work apart.
fn found(home: &Study) -> BTreeMap<String, String> {
    let counts = |code: &str, severity: Severity| !code.starts_with("directory") && severity != Severity::Planned;
    let all = findings(home).iter().filter(|one| counts(&one.code, one.severity));
    all.map(|one| (one.key.clone(), format!("{}: {}", one.about, one.message))).collect()
}

fn proven(home: &Study) -> BTreeMap<PointId, BreakerId> {
    let all = verdicts(home).iter();
    all.filter_map(|(point, verdict)| match verdict {
        Verdict::Proven { breaker, .. } => Some((point.clone(), breaker.clone())),
        _ => None,
    })
    .collect()
}

/// The breakers by number, with amperes and kind.
fn breakers(home: &Study, panel: &wayfinder_core::PanelId) -> BTreeSet<String> {
    home.panels().breakers_of(panel).map(|b| format!("{} {} {:?}", b.number(), b.amps, b.protection)).collect()
}

/// How many ways were walked to their end.
fn held_to_its_promises(drawn: &Drawn) -> Result<usize, TestCaseError> {
    let home = written(&drawn.acts);
    let panel = home.home.panels().all().next().unwrap().clone();
    let Ok(wish) = read_wish(&home.home, &panel, &drawn.wish) else { return Ok(0) };
    let Ok(view) = work_view(&home.home, &panel, &wish, &[], 20_000) else { return Ok(0) };
    let (before, knew) = (found(&home.home), proven(&home.home));
    let mut walked = 0;
    // Whatever is answered to what has to be read, the logbook takes.
    let mut told = Written::on(home.book.clone());
    for choice in view.ways.iter().flat_map(|way| &way.unread).flat_map(|line| &line.choices) {
        let refused = told.fact(choice.fact.clone()).err();
        prop_assert!(refused.is_none(), "{}: {:?}", choice.words, refused);
    }
    for way in &view.ways {
        let Some(job) = &way.job else { continue };
        prop_assert_ne!(way.stands, WayStands::No, "{}: {:?}", drawn.wish, way);
        prop_assert_eq!(no_sheet(&home.home, job), None, "{}: {}", &drawn.wish, way.name);
        let mut after = Written::on(home.book.clone());
        take(&mut after, JobBegun { job: id(), work: job.clone() }.into());
        while goes_on(&mut after) {}
        let done = sheet(&after);
        prop_assert_eq!(done.stands, JobStands::Ready, "{}: {} {:?} {:?}", &drawn.wish, way.name, done.stop, done.refused);
        take(&mut after, done.ends.unwrap());
        walked += 1;
        let said = format!("“{}” by {} ({:?}) in\n{}", drawn.wish, way.name, way.steps, drawn.acts);
        for (key, message) in found(&after.home) {
            prop_assert!(before.contains_key(&key), "{message} is new after {said}");
        }
        // The panel is as it was drawn beside the way.
        let promised: BTreeSet<String> =
            way.after.as_ref().unwrap().breakers.iter().map(|b| format!("{} {} {:?}", b.number, b.amps, b.protection)).collect();
        prop_assert_eq!(breakers(&after.home, &panel.id), promised, "{}", said);
        // What was proven stays so, on the breaker that feeds it now.
        let knows = proven(&after.home);
        for point in knew.keys() {
            prop_assert!(knows.contains_key(point), "{point} lost its proof after {said}");
        }
        let has = |amps: f64, poles: usize| {
            after.home.panels().breakers_of(&panel.id).any(|b| b.amps.value() == amps && b.at.len() == poles)
        };
        match &wish {
            HomeWish::Circuit { poles, amps, .. } => prop_assert!(has(*amps as f64, *poles), "no circuit after {said}"),
            HomeWish::Spaces { count } => {
                let view = wayfinder_core::panel_view(&after.home, &panel.id).unwrap();
                let room = view.open.iter().flat_map(|open| &open.fits).any(|fit| fit.split('-').count() == *count);
                prop_assert!(room, "no open spaces after {said}");
            }
            HomeWish::Replace { breaker, amps, .. } => {
                let now = after.home.panels().breaker(breaker).unwrap();
                prop_assert!(amps.is_none_or(|amps| now.amps.value() == amps as f64), "not replaced after {said}");
            }
            HomeWish::Level | HomeWish::Combine => {}
        }
    }
    Ok(walked)
}

#[test]
fn what_is_proposed_makes_no_finding_and_keeps_its_promises() {
    use std::sync::atomic::{AtomicUsize, Ordering};
    let walked = AtomicUsize::new(0);
    let config = ProptestConfig { cases: 150, failure_persistence: None, ..ProptestConfig::default() };
    proptest::test_runner::TestRunner::new(config)
        .run(&drawn(), |drawn| {
            walked.fetch_add(held_to_its_promises(&drawn)?, Ordering::Relaxed);
            Ok(())
        })
        .unwrap_or_else(|failed| panic!("{failed}"));
    let walked = walked.into_inner();
    assert!(walked > 15, "only {walked} sheets were walked to their end");
}
