use super::*;
use crate::logbook::{BreakerVoltsRead, ReadingTaken, VoltsRead};
use crate::model::{Level, PointKind, ReadValue};
use crate::sim::written_down;
use crate::trace::verdicts;

fn recipe(seed: u32, level: Level) -> Recipe {
    Recipe { lesson: Lesson::Measure, ..Recipe::to_trace(seed, 24, level) }
}

fn begun(recipe: Recipe) -> (Logbook, MeasureHouse) {
    let house = MeasureHouse::draw(recipe).unwrap().with_fault();
    let mut book = Logbook::default();
    written_down(&mut book, house.facts.clone()).unwrap();
    (book, house)
}

/// The breaker with the most loads, and those.
fn fullest(home: &Study, house: &MeasureHouse) -> (BreakerId, Vec<LoadId>) {
    let of = |load: &crate::model::Load| house.made.wiring.feeds[&load.point].breaker.clone().unwrap();
    let breakers = home.panels().breakers().filter(|breaker| breaker.poles() == 1 && breaker.kept.is_none());
    let with_loads = breakers.map(|breaker| {
        let loads = home.loads().all().filter(|load| of(load) == breaker.id).map(|load| load.id.clone());
        (breaker.id.clone(), loads.collect::<Vec<_>>())
    });
    with_loads.max_by_key(|(_, loads)| loads.len()).unwrap()
}

#[test]
fn a_house_to_measure_is_traced_and_its_loads_are_entered() {
    for level in [Level::Plain, Level::Usual, Level::Tricky] {
        let (book, house) = begun(recipe(3, level));
        let home = Study::from(&book);
        assert!(home.loads().all().count() > 10);
        assert!(verdicts(&home).iter().all(|(_, verdict)| verdict.proven_on().is_some()), "{level:?}");
        assert_eq!(house.hidden.fault.is_some(), level != Level::Plain);
        let again = begun(recipe(3, level)).1;
        assert_eq!((again.hidden, again.facts), (house.hidden, house.facts), "the same recipe, the same house");
    }
    let (traced, _) = begun(Recipe::to_trace(3, 24, Level::Plain));
    assert!(measure_marks(&traced, &Study::from(&traced), true).is_none(), "a house to be traced has no such marks");
}

/// Kirchhoff's laws and Ohm's, by hand: what the instruments show fits together, within their errors.
#[test]
fn instruments_of_one_circuit_agree() {
    for seed in 0..6 {
        let (book, house) = begun(recipe(seed, Level::Plain));
        let home = Study::from(&book);
        let (breaker, loads) = fullest(&home, &house);
        let clamp = |running: &[LoadId]| {
            let of = ReadingOf::Circuit { breaker: breaker.clone(), pole: 1 };
            meter_shows(&home, &MeasuredAt::Of(of, ReadWith::Clamp), running).unwrap().amps.unwrap()
        };
        let (mut sum, mut watts) = (clamp(&[]), 0.0);
        let utility = |running: &[LoadId]| utility_meter(&home, running, &[]).unwrap().watts;
        for load in &loads {
            let at = MeasuredAt::Of(ReadingOf::Load { load: load.clone() }, ReadWith::PlugInMeter);
            let shown = meter_shows(&home, &at, &[]).unwrap();
            let hidden = house.taken_by(&home, load);
            // Of one volt-ampere: what was drawn, at about its own voltage.
            assert!((shown.amps.unwrap() / hidden.amps - 1.0).abs() < 0.06, "{load}: {shown:?} of {hidden:?}");
            assert!((112.0..123.0).contains(&shown.volts.unwrap()), "{shown:?}");
            let factor = shown.watts.unwrap() / (shown.volts.unwrap() * shown.amps.unwrap());
            // What takes little is shown in few digits.
            assert!(hidden.amps < 1.0 || (factor - hidden.factor).abs() < 0.03, "{factor} of {hidden:?}");
            sum += shown.amps.unwrap();
            watts += hidden.amps * hidden.volts * hidden.factor;
        }
        let all = clamp(&loads);
        // Phasors add up to no more than their sizes, and to no less than the part in phase.
        assert!(all <= sum * 1.04 + 0.1 && all >= 0.9 * watts / 121.0 / 1.04, "{all} of {sum}");
        let told = utility(&loads) - utility(&[]);
        let by_itself: f64 = loads.iter().map(|load| beside_watts(&home, &house, load)).sum();
        assert!((told + by_itself - watts).abs() < 0.06 * watts + 5.0, "{told} and {by_itself} of {watts}");
    }
}

/// Watts of a load that runs whatever is read.
fn beside_watts(home: &Study, house: &MeasureHouse, load: &LoadId) -> f64 {
    let (recipe, hidden) = (home.practice().unwrap(), house.taken_by(home, load));
    if chance(recipe, "on now", load.as_str(), 0) < 0.15 { hidden.amps * hidden.volts * hidden.factor } else { 0.0 }
}

#[test]
fn an_open_neutral_and_a_worn_breaker_show_at_the_meters() {
    let mut found = 0;
    for seed in 0..12 {
        for level in [Level::Usual, Level::Tricky] {
            let (mut book, house) = begun(recipe(seed, level));
            let home = Study::from(&book);
            let fault = house.hidden.fault.clone().unwrap();
            assert_eq!(measure_marks(&book, &home, false).unwrap().fault_found, Some(false));
            let facts = match &fault {
                HiddenFault::WornBreaker(breaker) => {
                    let loads: Vec<LoadId> = home
                        .loads()
                        .all()
                        .filter(|load| house.made.wiring.feeds[&load.point].breaker.as_ref() == Some(breaker))
                        .map(|load| load.id.clone())
                        .collect();
                    let shown = meter_shows(&home, &MeasuredAt::Breaker(breaker.clone()), &loads).unwrap();
                    let volts = shown.at_breaker.unwrap();
                    // Ohm's law.
                    assert!((volts.across.unwrap() - 0.055 * volts.amps.unwrap()).abs() < 0.01, "{volts:?}");
                    vec![Fact::BreakerVoltsRead(BreakerVoltsRead { breaker: breaker.clone(), volts })]
                }
                _ => {
                    let outlets = home.house().points().filter(|point| {
                        point.kind == PointKind::Receptacle
                            && point.volts == Volts::new(120)
                            && match &fault {
                                HiddenFault::SharedNeutralOpen(pair) => {
                                    pair.contains(house.made.wiring.feeds[&point.id].breaker.as_ref().unwrap())
                                }
                                _ => true,
                            }
                    });
                    let read = outlets.map(|point| {
                        let volts = meter_shows(&home, &MeasuredAt::Point(point.id.clone()), &[]).unwrap().volts.unwrap();
                        Fact::VoltsRead(VoltsRead { point: point.id.clone(), volts, since: None })
                    });
                    read.collect()
                }
            };
            written_down(&mut book, facts).unwrap();
            let marks = measure_marks(&book, &Study::from(&book), true).unwrap();
            assert!(marks.fault.is_some());
            found += usize::from(marks.fault_found == Some(true));
        }
    }
    // A light load on a worn breaker, and legs that happen to be even, hide it.
    assert!(found >= 12, "{found} of 24 found");
}

#[test]
fn a_survey_is_marked_against_one_who_knows() {
    let (mut book, house) = begun(recipe(5, Level::Plain));
    let asked = SurveyAsked::plain(SurveyWish::Every);
    let mut study = Study::from(&book);
    while let Some(step) = survey(&study, &asked).step {
        let value = if step.with == ReadWith::UtilityMeter {
            let off: Vec<BreakerId> = step.load.is_none().then(|| step.breaker.clone()).into_iter().collect();
            let shown = |meter: Option<UtilityMeter>| meter.unwrap().shows(7, 5).kw;
            let (before, after) = (utility_meter(&study, &[], &off), utility_meter(&study, &step.running, &[]));
            ReadValue::MeterKw { before: shown(before), after: shown(after).max(shown(before)) }
        } else {
            let shown = meter_shows(&study, &MeasuredAt::Of(step.of.clone(), step.with), &step.running).unwrap();
            ReadValue::Amps { amps: shown.amps.unwrap() }
        };
        let running = if step.load.is_some() { Vec::new() } else { step.running };
        let taken = ReadingTaken { target: step.of, with: step.with, value, arranged: !running.is_empty(), running, sure: true };
        written_down(&mut book, vec![Fact::ReadingTaken(taken)]).unwrap();
        study = Study::after(&study, &book);
    }
    let marks = measure_marks(&book, &study, true).unwrap();
    assert_eq!((marks.wrong, marks.safety.as_slice()), (0, &[][..]), "{marks:?}");
    assert!(marks.minutes <= 1.5 * marks.expert_minutes && marks.minutes < marks.all_minutes, "{marks:?}");
    assert_eq!(marks.truth.len(), marks.circuits);
    assert!(marks.fault.is_none() && marks.fault_found.is_none(), "nothing is wrong in a plain house");
    assert!(house.hidden.fault.is_none());

    // What nobody should do.
    let (breaker, loads) = fullest(&study, &house);
    let of = ReadingOf::Circuit { breaker, pole: 1 };
    let taken = ReadingTaken {
        target: of,
        with: ReadWith::Clamp,
        value: ReadValue::Amps { amps: 3.0 },
        arranged: true,
        running: loads,
        sure: true,
    };
    written_down(&mut book, vec![Fact::ReadingTaken(taken)]).unwrap();
    let marks = measure_marks(&book, &Study::from(&book), false).unwrap();
    assert!(marks.safety.iter().any(|words| words.contains("only for qualified hands")), "{:?}", marks.safety);
    assert!(marks.truth.is_empty(), "the truth is shown when it is asked for");
}

#[test]
fn the_utilitys_meter_counts_what_its_display_shows() {
    let (book, _) = begun(recipe(1, Level::Plain));
    let meter = utility_meter(&Study::from(&book), &[], &[]).unwrap();
    let hour: f64 = (0..3600).map(|second| meter.shows(second, 0).kw).sum();
    // Mean kilowatts of an hour are its kilowatt-hours; a flash is one watt-hour.
    let flashes = f64::from(meter.shows(0, 3600).flashes);
    assert!((hour / 3600.0 * 1000.0 - flashes).abs() < 5.0, "{hour} and {flashes}");
    assert!(
        (1..3600).any(|second| (meter.watts_at(second) - meter.watts_at(second - 1)).abs() > 100.0),
        "something comes and goes"
    );
}
