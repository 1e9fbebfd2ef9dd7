//! The lesson “find the fault”, played as somebody does who reads what the screen shows and answers that.

use wayfinder_core::sim::{FaultHouse, fault_marks, fault_shows, fault_told};
use wayfinder_core::trips::{FaultMarks, FoundChoice, NextLook, TroubleView, trouble_view};
use wayfinder_core::{
    DangerSign, Draft, Fact, Lesson, Level, Logbook, Moment, Recipe, Study, TroubleEnded, TroubleLooked, TroubleSaw,
};

struct Lessons {
    book: Logbook,
    home: Study,
}

impl Lessons {
    fn begin(seed: u32, level: Level) -> Self {
        let house = FaultHouse::draw(Recipe { seed, points: 16, level, lesson: Lesson::Fault }).unwrap();
        let mut lesson = Self { book: Logbook::default(), home: Study::from(&Logbook::default()) };
        lesson.write(house.facts);
        lesson
    }

    fn write(&mut self, facts: Vec<Fact>) {
        let drafts: Vec<Draft> = facts
            .into_iter()
            .zip(self.book.seq() + 1..)
            .map(|(fact, n)| Draft {
                id: format!("line-{n}").parse().unwrap(),
                at: Moment::from_unix_ms(n as i64 * 1000),
                by: "pupil".into(),
                instrument: None,
                version: Fact::VERSION,
                fact,
            })
            .collect();
        let outcome = self.book.admit(&drafts).unwrap();
        self.book.commit(outcome);
        self.home = Study::from(&self.book);
    }

    fn view(&self) -> TroubleView {
        trouble_view(&self.home, &fault_told()).unwrap()
    }

    /// What somebody answers who believes what is shown; with `blind` they notice no sign of danger.
    fn answer(&self, next: &NextLook, blind: bool) -> TroubleSaw {
        let shown = fault_shows(&self.home).unwrap();
        assert_eq!(shown.look.as_ref(), Some(&next.look));
        if shown.danger {
            let sign = DangerSign::ALL.into_iter().find(|sign| shown.words == format!("{}.", sign.words())).unwrap();
            return if blind { TroubleSaw::CannotTell } else { TroubleSaw::Danger(sign) };
        }
        if let Some(volts) = shown.volts {
            return TroubleSaw::Volts(volts);
        }
        let by_label = next.answers.iter().find(|answer| format!("{}.", answer.label) == shown.words);
        let by_handle = next.handles.iter().find(|handle| shown.words.starts_with(&format!("The handle of {} ", handle.number)));
        if shown.words == "It cannot be told." {
            return TroubleSaw::CannotTell;
        }
        match (by_label, by_handle) {
            (Some(answer), _) => answer.saw.clone(),
            (None, Some(handle)) if shown.words.ends_with("between on and off.") => TroubleSaw::Tripped(handle.breaker.clone()),
            (None, Some(handle)) => TroubleSaw::Off(handle.breaker.clone()),
            // 0 V with 119 V to ground, volts that do not stand still: by the words of the meter.
            (None, None) => {
                let word =
                    if shown.words.starts_with("0 V from the short slot to the long one, 119") { "0_hg120" } else { "wander" };
                let saws = next.answers.iter().map(|answer| answer.saw.clone());
                saws.into_iter()
                    .find(|saw| *saw == TroubleSaw::Word(word.into()))
                    .unwrap_or_else(|| panic!("{shown:?}: {next:?}"))
            }
        }
    }

    fn look(&mut self, next: &NextLook, saw: TroubleSaw) {
        self.write(vec![TroubleLooked { trouble: fault_told(), at: next.look.clone(), saw }.into()]);
    }

    /// To its end, as the program leads.
    fn play(&mut self, blind: bool) -> FaultMarks {
        for _ in 0..50 {
            let view = self.view();
            if let Some(named) = view.named {
                // Of boxes, the one that was found bad as they were opened.
                let opened = fault_shows(&self.home).map(|shown| shown.words).unwrap_or_default();
                let place = opened.rsplit(": ").next().unwrap_or_default().trim_end_matches('.').to_lowercase();
                let bad = |choice: &&FoundChoice| !place.is_empty() && choice.label.to_lowercase().ends_with(&place);
                let found = Some(named.found.iter().find(bad).unwrap_or(&named.found[0]).found.clone());
                self.write(vec![TroubleEnded { trouble: fault_told(), found, note: String::new() }.into()]);
                break;
            }
            let Some(next) = view.next else { break };
            let saw = self.answer(&next, blind);
            self.look(&next, saw);
        }
        fault_marks(&self.book, &self.home, false).unwrap()
    }
}

#[test]
fn who_answers_what_is_shown_finds_it_and_hurts_nobody() {
    let (mut right, mut all, mut stops) = (0, 0, 0);
    for level in [Level::Plain, Level::Usual, Level::Tricky] {
        for seed in 1..=8 {
            let mut lesson = Lessons::begin(seed, level);
            let marks = lesson.play(false);
            assert_eq!((marks.misread, &marks.safety), (0, &Vec::<String>::new()), "{level:?} {seed}: {marks:?}");
            // Looks as the program itself does, and takes as long.
            let told = lesson.view().seen.iter().all(|look| !look.words.contains("could not be told"));
            assert!(!told || marks.looks == marks.own_looks, "{level:?} {seed}: {marks:?}");
            assert!(!told || (marks.minutes - marks.own_minutes).abs() < 1e-9, "{level:?} {seed}: {marks:?}");
            assert!(marks.resets <= 1);
            stops += usize::from(lesson.view().stop.is_some());
            right += usize::from(marks.right == Some(true));
            all += 1;
        }
    }
    assert!(right * 10 >= all * 7, "{right} of {all}");
    assert!(stops > 0, "a tricky house has signs of danger");
}

#[test]
fn who_goes_on_past_a_sign_of_danger_is_told() {
    let lesson = (1..40).map(|seed| Lessons::begin(seed, Level::Tricky)).find(|lesson| fault_shows(&lesson.home).unwrap().danger);
    let mut lesson = lesson.unwrap();
    let marks = lesson.play(true);
    assert!(marks.safety.iter().any(|said| said.starts_with("A sign of danger was there to be noticed")), "{marks:?}");
    assert!(marks.right != Some(true), "{marks:?}");
}

#[test]
fn a_second_reset_is_told_and_the_truth_is_shown_at_the_end() {
    let mut lesson = Lessons::begin(1, Level::Plain);
    assert_eq!(fault_marks(&lesson.book, &lesson.home, false).unwrap().truth, None);
    assert!(fault_marks(&lesson.book, &lesson.home, true).unwrap().truth.is_some());
    let breaker = lesson.home.panels().breakers().next().unwrap().id.clone();
    let reset = wayfinder_core::TroubleLook::Reset { breaker };
    for _ in 0..2 {
        let saw = TroubleSaw::Word("at_once".into());
        lesson.write(vec![TroubleLooked { trouble: fault_told(), at: reset.clone(), saw }.into()]);
    }
    lesson.write(vec![TroubleEnded { trouble: fault_told(), found: None, note: String::new() }.into()]);
    let marks = fault_marks(&lesson.book, &lesson.home, false).unwrap();
    assert_eq!((marks.resets, marks.over, marks.right), (2, true, Some(false)));
    assert!(marks.safety.iter().any(|said| said.contains("reset a second time")), "{marks:?}");
    assert!(marks.truth.is_some());
    assert_eq!(fault_shows(&lesson.home), None, "it is over");
}
