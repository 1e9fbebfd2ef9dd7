//! Tests that come round: every device with a button for its own test, when it was tested last, when that is due again, and what is
//! without power for that moment.
//!
//! How to test is common practice, as makers print it on the devices. A month counts as 30 days.

use std::collections::BTreeSet;

use crate::model::{
    Breaker, BreakerId, Moment, Point, PointId, PointKind, Protection, State, TestWent, TestedDevice, listed, place_in_words,
    state_word,
};
use crate::study::Study;
use crate::trace::{verdict, verdicts};
use crate::walking::floor_of;

/// A device with its last and next test.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct DeviceTest {
    /// The device.
    pub device: TestedDevice,
    /// `Bath, mirror`; `12, Main panel`.
    pub name: String,
    /// `GFCI receptacle`, `AFCI breaker`, `alarm`.
    pub what: String,
    /// Where it is: the floor, or the place in the panel.
    pub place: String,
    /// How it is tested, as a sentence.
    pub how: String,
    /// What is without power for that moment, as far as it is known: a sentence, or nothing.
    pub goes_dark: String,
    /// What to mind before it is pressed: a sentence, or nothing.
    pub mind: String,
    /// When it was tested last; `null`: never, as far as is recorded.
    pub last: Option<Moment>,
    /// How that went.
    pub went: Option<TestWent>,
    /// When it is due again; `null`: now.
    pub due: Option<Moment>,
    /// What the last test asks for: a sentence, or nothing.
    pub todo: String,
}

const DAY_MS: i64 = 24 * 3_600_000;
const MONTH_DAYS: i64 = 30;

/// Every device with a test button: at the panels first, then room by room.
pub fn tests_due(home: &Study) -> Vec<DeviceTest> {
    let breakers = home.panels().breakers().filter(|breaker| breaker.protection != Protection::Standard);
    let mut all: Vec<DeviceTest> = breakers.map(|breaker| of_breaker(home, breaker)).collect();
    for room in home.house().rooms() {
        let here = home.house().points().filter(|point| point.room == room.id);
        all.extend(here.filter(|p| p.kind == PointKind::Alarm || p.details.gfci).map(|point| of_point(home, point)));
    }
    all
}

fn of_breaker(home: &Study, breaker: &Breaker) -> DeviceTest {
    let number = home.panels().number(&breaker.id);
    let what = match breaker.protection {
        Protection::DualFunction => "GFCI and AFCI breaker".to_owned(),
        other => format!("{} breaker", other.words()),
    };
    let dead = home.panels().dead_behind(&BTreeSet::from([breaker.id.clone()]));
    let (panel, place) = home
        .panels()
        .panel(&breaker.panel)
        .map_or_else(Default::default, |panel| (panel.name.clone(), place_in_words(panel, breaker)));
    let dark = dark_with(home, &dead);
    let of = if breaker.protection == Protection::Afci { Tested::Arc } else { Tested::Ground };
    let mind = if breaker.must_stay_on() {
        format!("{number} must stay on: ask whoever depends on it first, and leave this test out until they agree.")
    } else if breaker.state != State::On {
        format!("{number} is recorded as {}: without power its button does nothing.", state_word(breaker.state))
    } else {
        to_mind(home, &dark)
    };
    let more = if verdicts(home).iter().all(|(_, verdict)| verdict.proven_on().is_some()) {
        ""
    } else if dark.is_empty() {
        "What is on this breaker is not proven yet."
    } else {
        "Perhaps more: not every point is proven."
    };
    DeviceTest {
        name: format!("{number}, {panel}"),
        what,
        place,
        how: format!(
            "Stand to the side, press the test button on breaker {number}: its handle trips. Push it fully off, then on. Wires and parts \
             behind the cover stay live."
        ),
        goes_dark: [goes_dark(home, &dark).as_str(), more].join(" ").trim().to_owned(),
        mind,
        ..told(home, TestedDevice::Breaker(breaker.id.clone()), of)
    }
}

fn of_point(home: &Study, point: &Point) -> DeviceTest {
    let name = home.house().place(&point.id);
    let place = home.house().room(&point.room).map(floor_of).unwrap_or_default().to_owned();
    let device = TestedDevice::Point(point.id.clone());
    if point.kind == PointKind::Alarm {
        return DeviceTest {
            name,
            what: "alarm".into(),
            place,
            how:
                "Say in the house that it is a test. Hold its button until it sounds; alarms that are wired together all sound. \
                  Read the date on its back: makers print after how many years it is replaced, often ten."
                    .into(),
            goes_dark: String::new(),
            mind: "Where alarms call for help by themselves, tell that service first.".into(),
            ..told(home, device, Tested::Air)
        };
    }
    let dark: Vec<&Point> = std::iter::once(point)
        .chain(home.plan().protects.get(&point.id).into_iter().flatten().filter_map(|p| home.house().point(p)))
        .collect();
    let on = verdict(home, &point.id);
    let kept = on.proven_on().and_then(|id| home.panels().breaker(id)).filter(|breaker| breaker.must_stay_on());
    let kept = kept.map(|breaker| home.panels().number(&breaker.id));
    DeviceTest {
        name,
        what: format!("GFCI {}", point.kind.word()),
        place,
        how: "Plug a lamp in and switch it on; if it stays dark, find out why first. Press TEST: the lamp goes out. Press RESET: it is \
              lit again."
            .into(),
        goes_dark: goes_dark(home, &dark),
        mind: match kept {
            Some(number) => format!("It is on {number}, which must stay on: ask whoever depends on that first."),
            None => to_mind(home, &dark),
        },
        ..told(home, device, Tested::Ground)
    }
}

/// What a device watches for.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Tested {
    /// A current to ground, whatever else.
    Ground,
    /// Arcs alone.
    Arc,
    /// Smoke or gas.
    Air,
}

/// What the record says of its tests.
fn told(home: &Study, device: TestedDevice, of: Tested) -> DeviceTest {
    let months = home.upkeep().months();
    let days = i64::from(if of == Tested::Air { months.alarms } else { months.buttons }) * MONTH_DAYS;
    let last = home.upkeep().last_test(&device);
    let works = last.filter(|(_, went)| *went == TestWent::Works);
    DeviceTest {
        device,
        name: String::new(),
        what: String::new(),
        place: String::new(),
        how: String::new(),
        goes_dark: String::new(),
        mind: String::new(),
        last: last.map(|(at, _)| at),
        went: last.map(|(_, went)| went),
        due: works.map(|(at, _)| Moment::from_unix_ms(at.unix_ms() + days * DAY_MS)),
        todo: last.map(|(_, went)| failed(went, of)).unwrap_or_default().into(),
    }
}

/// What a test that failed asks for.
const fn failed(went: TestWent, of: Tested) -> &'static str {
    match (went, of) {
        (TestWent::Works, _) => "",
        (TestWent::NoTrip, Tested::Arc) => {
            "It does not watch for arcs in the wires any more: have it replaced, then press its button again and record that."
        }
        (TestWent::NoTrip, _) => {
            "It protects nobody any more. Unplug what is on it and do not use it near water until it is replaced; then press its \
             button again and record that."
        }
        (TestWent::NoReset, _) => {
            "Unplug everything behind it and press RESET once more. If it does not stay, leave it: either it is worn out, or there is a \
             fault behind it that an electrician finds."
        }
        (TestWent::Silent, _) => {
            "Put in a new battery and hold its button again. If it stays silent, replace it today; until then nothing wakes you here."
        }
    }
}

/// The points that are proven on one of these breakers.
fn dark_with<'a>(home: &'a Study, dead: &BTreeSet<BreakerId>) -> Vec<&'a Point> {
    let on = verdicts(home).iter().filter(|(_, verdict)| verdict.proven_on().is_some_and(|breaker| dead.contains(breaker)));
    on.filter_map(|(id, _)| home.house().point(id)).collect()
}

/// As many names as are read in one breath.
const NAMED: usize = 6;

fn goes_dark(home: &Study, dark: &[&Point]) -> String {
    let mut names: Vec<String> = dark.iter().take(NAMED).map(|point| home.house().place(&point.id)).collect();
    if names.is_empty() {
        return String::new();
    }
    if dark.len() > NAMED {
        names.push(format!("{} more", dark.len() - NAMED));
    }
    format!("Without power for that moment: {}.", names.join("; "))
}

/// What does not like to be without power.
fn to_mind(home: &Study, dark: &[&Point]) -> String {
    let minds = |point: &&&Point| point.details.dark_minutes.is_some() || crate::model::delicate::is_delicate(&point.name);
    let names: Vec<String> = dark.iter().filter(minds).map(|point| home.house().place(&point.id)).collect();
    if names.is_empty() { String::new() } else { format!("Shut down or save first: {}.", listed(&names)) }
}

/// The point or breaker of a device.
pub(crate) fn of_device(device: &TestedDevice) -> (Option<&BreakerId>, Option<&PointId>) {
    match device {
        TestedDevice::Breaker(id) => (Some(id), None),
        TestedDevice::Point(id) => (None, Some(id)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    const HOUSE: &str = "panel 12\n1 20 afci a\n2 20 gfci b\n3 20 c\n5 20 gfci d\nmust-stay-on 5\nroom Bath\nroom Hall\n\
        point Bath gfci mirror\npoint Bath light vanity\npoint Hall alarm smoke\npoint Hall receptacle computer\n\
        proof computer 1\nproof mirror 3\nprotects mirror: vanity";

    #[test]
    fn every_button_has_its_words_and_what_goes_dark() {
        let w = written(HOUSE);
        let said: Vec<String> =
            tests_due(&w.home).iter().map(|t| format!("{} | {} | {} | {}", t.name, t.what, t.goes_dark, t.mind)).collect();
        assert_eq!(
            said,
            [
                "1, Main panel | AFCI breaker | Without power for that moment: Hall, computer. Perhaps more: not every point is proven. \
                 | Shut down or save first: Hall, computer.",
                "2, Main panel | GFCI breaker | What is on this breaker is not proven yet. | ",
                "5, Main panel | GFCI breaker | What is on this breaker is not proven yet. | 5 must stay on: ask whoever depends \
                 on it first, and leave this test out until they agree.",
                "Bath, mirror | GFCI receptacle | Without power for that moment: Bath, mirror; Bath, vanity. | ",
                "Hall, smoke | alarm |  | Where alarms call for help by themselves, tell that service first.",
            ]
        );
    }

    #[test]
    fn a_test_is_due_again_after_its_months_and_at_once_where_it_failed() {
        let mut w = written(HOUSE);
        let of = |w: &crate::fixture::Written, name: &str| tests_due(&w.home).into_iter().find(|t| t.name == name).unwrap();
        assert_eq!((of(&w, "Bath, mirror").last, of(&w, "Bath, mirror").due), (None, None), "never tested");
        w.acts("tested mirror works\ntested smoke silent\ntested 1 no_trip");
        let days = |t: &DeviceTest| (t.due.unwrap().unix_ms() - t.last.unwrap().unix_ms()) / DAY_MS;
        assert_eq!(days(&of(&w, "Bath, mirror")), 30);
        assert!(of(&w, "Hall, smoke").due.is_none() && of(&w, "Hall, smoke").todo.contains("new battery"));
        assert!(of(&w, "1, Main panel").todo.contains("arcs in the wires") && !of(&w, "1, Main panel").todo.contains("water"));
        w.acts("tests 3 6\ntested smoke works");
        assert_eq!((days(&of(&w, "Bath, mirror")), days(&of(&w, "Hall, smoke"))), (90, 180));
        w.acts("must-stay-on 3");
        assert!(of(&w, "Bath, mirror").mind.starts_with("It is on 3, which must stay on"), "{}", of(&w, "Bath, mirror").mind);
        w.acts("off 2");
        assert_eq!(of(&w, "2, Main panel").mind, "2 is recorded as off: without power its button does nothing.");
        // Another kind of breaker in its place was never tested.
        w.acts("set 1 {\"protection\": \"gfci\"}");
        assert_eq!(of(&w, "1, Main panel").last, None);
    }
}
