mod panels;

use super::*;
use crate::fixture::{Written, line, written};
use crate::model::*;
use crate::study::Study;
use crate::trace::{Verdict, verdict};

const HOUSE: &str = "panel 24
    1 20 kitchen
    3 15 rec
    5-7 50/2 range
    room Kitchen
    point Kitchen receptacle counter
    point Kitchen light ceiling";

fn refused(written: &mut Written, act: &str) -> Refusal {
    let before = written.book.lines().count();
    let home = written.home.home().clone();
    let refusal = written.act(act).expect_err(act);
    assert_eq!(written.book.lines().count(), before, "a refused act wrote a line");
    assert_eq!(*written.home, home, "a refused act changed the home");
    refusal
}

#[test]
fn a_breaker_that_is_off_is_not_taken_out_and_one_that_must_stay_on_is_not_off() {
    let mut w = written(HOUSE);
    w.act("off 1").unwrap();
    assert!(refused(&mut w, "take-out 1").to_string().contains("Record it as on first"));
    assert!(refused(&mut w, "must-stay-on 1").to_string().contains("Switch it on first"));
}

#[test]
fn striking_out_names_every_line_that_depends_and_takes_them_together() {
    let mut w = written(HOUSE);
    w.act("off 1").unwrap();
    w.act("dark counter").unwrap();
    let placed = w.book.lines().find(|l| matches!(&l.entry.fact, Fact::BreakerPlaced(f) if f.at.len() == 1)).unwrap().seq;
    let refusal = refused(&mut w, &format!("strike {placed}"));
    assert_eq!(refusal.code, RefusalCode::LinesDepend);
    assert_eq!(refusal.lines.len(), 2, "the claim and the switching: {refusal:?}");
    let mut all = vec![placed.to_string()];
    all.extend(refusal.lines.iter().map(|id| w.book.line(id).unwrap().seq.to_string()));
    w.act(&format!("strike {}", all.join(" "))).unwrap();
    assert_eq!(w.home.panels().breakers().count(), 2);
    assert!(w.home.switchings().off().is_empty());
    w.act(&format!("restore {}", all.join(" "))).unwrap();
    assert_eq!(w.home.panels().breakers().count(), 3);
    assert_eq!(w.home.switchings().off().len(), 1);
}

#[test]
fn answers_follow_a_line_struck_out_and_back_in() {
    let mut w = written(HOUSE);
    w.act("proof counter 1").unwrap();
    let before = w.home.home().clone();
    let counter = "counter".parse().unwrap();
    assert!(matches!(verdict(&w.home, &counter), Verdict::Proven { .. }));
    let dark = w.book.lines().filter(|l| matches!(&l.entry.fact, Fact::PointSeen(f) if f.seen == Seen::Dark));
    let dark = dark.map(|line| line.seq.to_string()).collect::<Vec<_>>().join(" ");
    w.act(&format!("strike {dark}")).unwrap();
    assert!(matches!(verdict(&w.home, &counter), Verdict::Open { .. }));
    w.act(&format!("restore {dark}")).unwrap();
    assert_eq!(*w.home, before);
    assert!(w.act(&format!("strike {}", w.book.seq())).is_err(), "a strike is not struck out");
}

#[test]
fn a_resend_is_harmless_and_a_reused_id_is_refused() {
    let mut w = written(HOUSE);
    let last = w.book.lines().last().unwrap().entry.clone();
    let again = w.book.admit(std::slice::from_ref(&last)).unwrap();
    assert!(again.new.is_empty());
    let mut other = last;
    other.by = "somebody else".into();
    assert_eq!(w.book.admit(&[other]).unwrap_err().code, RefusalCode::IdTaken);
    assert!(w.act("off 1").is_ok());
}

/// A look at the counter, seen at this second with the screen as far as that.
fn told_late(second: i64, seen: Seen, since: Option<Since>) -> Draft {
    Draft {
        id: line(900),
        at: crate::model::Moment::from_unix_ms(second * 1000),
        by: "walker".into(),
        instrument: None,
        version: Fact::VERSION,
        fact: Fact::PointSeen(PointSeen { point: "counter".parse().unwrap(), seen, since, anew: false }),
    }
}

#[test]
fn a_look_under_other_breakers_than_the_screen_showed_is_refused() {
    let mut w = written(HOUSE);
    w.act("off 1").unwrap();
    let off_at = w.book.lines().last().unwrap().entry.clone();
    let second = off_at.at.unix_ms() / 1000;
    // The screen did not know that 1 is off, and it was off by then, or may have been: clocks differ by seconds.
    for at in [second + 60, second, second - 9] {
        let refusal = w.book.admit(&[told_late(at, Seen::Dark, Some(Since::Start))]).unwrap_err();
        assert_eq!((refusal.code, refusal.field.as_str()), (RefusalCode::OffSetChanged, "since"), "{at}");
    }
    // It knew, or says nothing of it: as the logbook has it now.
    for since in [Some(Since::Move(off_at.id.clone())), None] {
        assert!(w.book.admit(&[told_late(second + 60, Seen::Dark, since)]).is_ok());
    }
    // A line that moved no handle, or was struck out since.
    let refusal = w.book.admit(&[told_late(second, Seen::Dark, Some(Since::Move(line(2))))]).unwrap_err();
    assert_eq!(refusal.code, RefusalCode::OffSetChanged);
}

#[test]
fn too_many_volts_are_taken_whatever_was_off_then_and_count_as_no_look() {
    let mut w = written(HOUSE);
    w.act("off 1").unwrap();
    let second = w.book.lines().last().unwrap().entry.at.unix_ms() / 1000;
    let read = |volts| {
        let fact =
            Fact::VoltsRead(crate::logbook::VoltsRead { point: "counter".parse().unwrap(), volts, since: Some(Since::Start) });
        Draft { fact, ..told_late(second, Seen::Lit, None) }
    };
    assert_eq!(w.book.admit(&[read(121.0)]).unwrap_err().code, RefusalCode::OffSetChanged);
    let outcome = w.book.admit(&[read(148.0)]).unwrap();
    w.book.commit(outcome);
    let home = &Study::from(&w.book);
    assert!(home.trace().looks().is_empty());
    assert!(matches!(crate::trace::trace_view(home, home.setup()).next, crate::trace::NextStep::Stop { .. }));
    let lines = crate::trace::evidence(home, &"counter".parse().unwrap()).unwrap().lines;
    assert_eq!((lines[0].volts, lines[0].role), (Some(148.0), crate::trace::LineRole::Doubted));
}

#[test]
fn a_look_told_of_late_is_filed_under_what_was_off_when_it_was_seen() {
    // Lines are a second apart, so time has to pass before the handle moves again.
    let wait = "room Wait0\n".to_owned() + &(1..14).map(|n| format!("room Wait{n}\n")).collect::<String>();
    let w = written(&format!("{HOUSE}\nlit counter\noff 1\n{wait}on 1\noff 3\nlit counter"));
    let moved = |n: usize| w.home.switchings().all()[n].breaker.clone();
    let switched: Vec<&Line> = w.book.lines().filter(|l| matches!(l.entry.fact, Fact::BreakerSwitched(_))).collect();
    let first = switched[0];
    let draft = told_late(first.entry.at.unix_ms() / 1000 + 2, Seen::Dark, Some(Since::Move(first.entry.id.clone())));
    let mut book = w.book.clone();
    let outcome = book.admit(std::slice::from_ref(&draft)).unwrap();
    book.commit(outcome);
    let looks: Vec<_> =
        book.home().trace().looks().iter().map(|l| (l.seen, l.off.iter().cloned().collect::<Vec<_>>(), l.moves)).collect();
    assert_eq!(looks, [(Seen::Lit, vec![], 0), (Seen::Dark, vec![moved(0)], 1), (Seen::Lit, vec![moved(2)], 3)]);
    assert!(book.home().trace().looks().windows(2).all(|pair| pair[0].place < pair[1].place));
    let counter = "counter".parse().unwrap();
    let Verdict::Open { unsure: Some(unsure), .. } = crate::trace::verdict(&Study::from(&book), &counter) else { panic!() };
    assert_eq!(unsure.breaker, moved(0), "and it tells what it tells");
    // Struck out with the switching it was seen under, or not at all.
    let strike = |id: &EntryId| Draft {
        id: line(950),
        fact: Fact::LineStruck(crate::logbook::LineStruck { line: id.clone() }),
        ..draft.clone()
    };
    let refusal = book.admit(&[strike(&first.entry.id)]).unwrap_err();
    assert_eq!((refusal.code, refusal.lines), (RefusalCode::LinesDepend, vec![draft.id.clone()]));
}

#[test]
fn looks_that_a_handle_told_of_late_came_before_count_no_more() {
    let mut w = written(&format!("{HOUSE}\nlit counter\noff 1\nlit counter"));
    let late = Draft {
        id: line(901),
        at: crate::model::Moment::from_unix_ms(w.book.lines().last().unwrap().entry.at.unix_ms() - 500),
        fact: Fact::BreakerSwitched(crate::logbook::BreakerSwitched {
            breaker: w.home.switchings().all()[0].breaker.clone(),
            to: crate::model::State::On,
        }),
        ..told_late(0, Seen::Lit, None)
    };
    let outcome = w.book.admit(&[late]).unwrap();
    w.book.commit(outcome);
    let home = &Study::from(&w.book);
    assert_eq!((home.trace().looks().len(), home.trace().doubted().len()), (1, 1));
    let looked = crate::trace::evidence(home, &"counter".parse().unwrap()).unwrap();
    assert_eq!(looked.lines.last().unwrap().role, crate::trace::LineRole::Doubted);
    assert_eq!(looked.lines.len(), 2);
}

#[test]
fn dark_behind_a_gfci_that_was_tripped_on_purpose_is_no_look_at_a_breaker() {
    let mut w = written(&format!("{HOUSE}\nlit counter\nlit ceiling"));
    let work = |id: u64, device: &str, worked| Draft {
        id: line(id),
        fact: Fact::DeviceWorked(crate::logbook::DeviceWorked { device: device.parse().unwrap(), worked }),
        ..told_late(500, Seen::Lit, None)
    };
    let take = |w: &mut Written, draft: Draft| {
        let outcome = w.book.admit(&[draft]).unwrap();
        w.book.commit(outcome);
    };
    assert_eq!(
        w.book.admit(&[work(902, "counter", crate::model::Worked::Tripped)]).unwrap_err().field,
        "device",
        "it is no GFCI"
    );
    let mut gfci = w.book.lines().find_map(|l| match &l.entry.fact {
        Fact::PointPlaced(f) if f.point.as_str() == "counter" => Some(f.clone()),
        _ => None,
    });
    let placed = gfci.as_mut().unwrap();
    placed.details.gfci = true;
    let again = Draft { id: line(903), fact: Fact::PointPlaced(placed.clone()), ..told_late(500, Seen::Lit, None) };
    take(&mut w, again);
    take(&mut w, work(904, "counter", crate::model::Worked::Tripped));
    let shown = |w: &Written| match crate::trace::trace_view(&Study::from(&w.book), w.book.home().setup()).next {
        crate::trace::NextStep::SeeDownstream { rooms, .. } => {
            rooms[0].points.iter().map(|p| (p.seen, p.skipped)).collect::<Vec<_>>()
        }
        other => panic!("{other:?}"),
    };
    let ceiling = |id: u64, fact: &dyn Fn(crate::model::PointId) -> Fact| Draft {
        id: line(id),
        fact: fact("ceiling".parse().unwrap()),
        ..told_late(501, Seen::Lit, None)
    };
    let see = |point, seen| Fact::PointSeen(PointSeen { point, seen, since: None, anew: false });
    assert_eq!(shown(&w), [(None, false)], "lit before it was tripped says nothing of what is behind it");
    take(&mut w, ceiling(906, &|point| see(point, Seen::Dark)));
    assert_eq!(shown(&w), [(Some(Seen::Dark), false)]);
    let home = w.book.home();
    let behind = |w: &Written| w.book.home().trace().trips()[0].showed(&"ceiling".parse().unwrap(), Seen::Dark);
    assert_eq!((home.trace().looks().len(), behind(&w), home.trace().tripped().count()), (1, true, 1));
    assert_eq!(home.trace().doubted().len(), 1, "lit before is no beginning of a proof: it may not have been reset");
    take(&mut w, ceiling(907, &|point| see(point, Seen::Lit)));
    assert_eq!((shown(&w), behind(&w)), (vec![(Some(Seen::Lit), false)], false), "the last word counts");
    take(
        &mut w,
        ceiling(908, &|point| Fact::PointSkipped(crate::logbook::PointSkipped { point, reason: String::new(), since: None })),
    );
    assert_eq!(shown(&w), [(None, true)]);
    take(&mut w, work(905, "counter", crate::model::Worked::Reset));
    assert!(w.book.home().trace().tripped().next().is_none());
}

#[test]
fn a_newer_entry_is_refused_not_guessed_at() {
    let w = written(HOUSE);
    let mut draft = w.book.lines().last().unwrap().entry.clone();
    draft.id = line(901);
    draft.version = Fact::VERSION + 1;
    assert_eq!(w.book.admit(&[draft]).unwrap_err().code, RefusalCode::NewerVersion);
}

#[test]
fn the_first_line_names_the_home() {
    let mut w = Written { home: Study::of(Home::default()), book: Logbook::default() };
    let refusal = w.act("panel 24").unwrap_err();
    assert!(refusal.to_string().contains("no such home"));
}

#[test]
fn names_are_told_apart_and_things_that_are_needed_stay() {
    let mut w = written(HOUSE);
    for (act, says) in [
        ("room KITCHEN ", "There is a room called “KITCHEN” already"),
        ("room aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa", "too long"),
        ("no-room Hall", "There is no such room"),
        ("no-point lantern", "There is no such point"),
        ("take-out 9", "There is no such breaker"),
        ("panel 44 one-column", "single column"),
    ] {
        let refusal = refused(&mut w, act);
        assert!(refusal.to_string().contains(says), "{act}: {refusal}");
    }
    w.act("no-point counter").unwrap();
    w.act("no-point ceiling").unwrap();
    w.act("no-room Kitchen").unwrap();
    assert_eq!(w.home.house().rooms().count(), 0);
}

#[test]
fn a_breaker_described_anew_keeps_its_label_its_handle_and_its_proofs() {
    let mut w = written(HOUSE);
    for act in ["proof counter 1", "off 1"] {
        w.act(act).unwrap();
    }
    let old = w.home.panels().breakers().next().unwrap().clone();
    let moved = Draft {
        id: line(800),
        at: crate::model::Moment::from_unix_ms(0),
        by: "o".into(),
        instrument: None,
        version: 1,
        fact: Fact::BreakerPlaced(BreakerPlaced {
            breaker: old.id.clone(),
            panel: old.panel.clone(),
            at: vec!["11".parse().unwrap()],
            amps: crate::model::Amps::new(15.0),
            protection: crate::model::Protection::Gfci,
            wire: None,
            details: Default::default(),
        }),
    };
    let outcome = w.book.admit(&[moved]).unwrap();
    w.book.commit(outcome);
    let now = w.book.home().panels().breaker(&old.id).unwrap();
    assert_eq!((now.number().as_str(), now.claim.as_deref(), now.state), ("11", Some("kitchen"), crate::model::State::Off));
    assert_eq!(verdict(&Study::from(&w.book), &"counter".parse().unwrap()).proven_on(), Some(&old.id));
}

fn said_by(w: &crate::fixture::Written) -> Vec<String> {
    let words = InWords::of(&w.book);
    w.book.lines().map(|line| words.line(line)).collect()
}

#[test]
fn an_old_line_says_what_a_thing_was_called_then() {
    let mut w =
        written("panel 12\n1 20 bench\n3 20 counter\n5 20 wall\nroom Hall\npoint Hall light lamp\noff 1\ndark lamp\non 1");
    for act in ["move 1 9", "off 9", "on 9", "join 3 5", "off 3-5", "on 3-5", "take-out 3-5", "no-point lamp", "no-room Hall"] {
        w.act(act).unwrap();
    }
    let said = said_by(&w);
    assert_eq!(
        said[said.iter().position(|words| words == "Breaker 1 switched off").unwrap()..],
        [
            "Breaker 1 switched off",
            "Hall, lamp: dark",
            "Breaker 1 switched on",
            "Breaker 1 moved to 9",
            "Breaker 9 switched off",
            "Breaker 9 switched on",
            "Breaker 3 and breaker 5 are one: handles tied",
            "Breaker 3-5 switched off",
            "Breaker 3-5 switched on",
            "Breaker 3-5 taken out",
            "Point removed: Hall, lamp",
            "Room removed: Hall",
        ],
        "{said:#?}"
    );
}

#[test]
fn every_line_is_said_in_words() {
    let mut w = written(HOUSE);
    for act in ["lit counter", "off 1", "dark counter", "tripped 1", "on 1", "skip ceiling", "must-stay-on 3", "strike 12"] {
        w.act(act).unwrap();
    }
    let said = said_by(&w);
    assert_eq!(
        said,
        [
            "The home is called Test",
            "Panel: Main panel, 24 spaces",
            "Breaker 1: 20 A",
            "Breaker 1: the old card says “kitchen”",
            "Breaker 3: 15 A",
            "Breaker 3: the old card says “rec”",
            "Breaker 5-7: 50 A",
            "Breaker 5-7: the old card says “range”",
            "Room: Kitchen",
            "Point: Kitchen, counter (receptacle)",
            "Point: Kitchen, ceiling (light)",
            "Kitchen, counter: lit",
            "Breaker 1 switched off",
            "Kitchen, counter: dark",
            "Breaker 1 tripped",
            "Breaker 1 switched on",
            "Kitchen, ceiling: skipped",
            "Breaker 3 must stay on: pump",
            "Struck out line 12: Kitchen, counter: lit",
        ][..],
        "{said:#?}"
    );
}
