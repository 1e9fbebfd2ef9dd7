//! How each circuit that was worked on is switched on and read.

use super::gates::{goes_with, or_runs, outlet_120, outlet_240, switch_on, test_button, test_circuit};
use super::panel_fit::new_at;
use super::panel_job::Work;
use super::steps::{Effect, Stage, Want, reading};
use crate::model::{Breaker, BreakerId, JobFound, JobMove, Protection};

impl Work<'_> {
    pub(super) fn test(&mut self, one: &JobMove) {
        let between = self.panel.service.volts_between_legs().value();
        match one {
            JobMove::TakeOut { .. } | JobMove::Fill { .. } => {}
            JobMove::Move { breaker, at } => {
                let number = self.at(at);
                let (poles, guard) = self.breaker(breaker).map_or((1, Protection::Standard), |b| (b.poles(), b.protection));
                self.read(&number, breaker, poles, guard);
                if poles == 1 && self.home.panels().shared_neutral_of(breaker).is_some_and(|all| all.len() > 1) {
                    let legs = vec![reading(
                        "hot-hot",
                        "hot to hot of the pair",
                        "One probe in the narrow slot of an outlet of each; an extension lead brings them together.",
                        Want::Double(between),
                    )];
                    self.steps
                        .readings(
                            Stage::Test,
                            &format!("legs-{number}"),
                            format!("{number} and the circuit that shares its neutral are on different legs."),
                            legs,
                        )
                        .at_the_point();
                }
            }
            JobMove::Replace { breaker, protection, .. } => {
                let number = self.number(breaker);
                let poles = self.breaker(breaker).map_or(1, Breaker::poles);
                self.read(&number, breaker, poles, *protection);
            }
            JobMove::Tighten { breaker } => {
                let number = self.number(breaker);
                let (poles, guard) = self.breaker(breaker).map_or((1, Protection::Standard), |b| (b.poles(), b.protection));
                self.read(&number, breaker, poles, guard);
            }
            JobMove::TwoPole { breaker, at, .. } => {
                let (number, circuit) = (self.at(at), self.number(breaker));
                let at = self.where_read(breaker);
                test_circuit(&mut self.steps, &number, &circuit, &at, outlet_240(between, false));
                goes_with(&mut self.steps, &number, "the outlet", "");
            }
            JobMove::OnePole { breaker, at, .. } => {
                let (number, circuit) = (self.at(&[*at]), self.number(breaker));
                let at = self.where_read(breaker);
                test_circuit(&mut self.steps, &number, &circuit, &at, outlet_120());
                goes_with(&mut self.steps, &number, "the outlet", "");
            }
            JobMove::Join { breaker, to } | JobMove::Tap { breaker, to } => {
                let (number, other) = (self.number(breaker), self.number(to));
                let at = self.where_read(breaker);
                or_runs(test_circuit(&mut self.steps, &other, &other, &at, outlet_120()));
                let points = self.on(breaker);
                let named: Vec<String> = points.iter().take(4).map(|point| self.point(point)).collect();
                let named = if named.is_empty() {
                    "Walk to what it fed.".to_owned()
                } else {
                    format!("Look at {}{}.", named.join("; "), if points.len() > 4 { " and the rest" } else { "" })
                };
                let what = format!("everything that {number} fed");
                goes_with(&mut self.steps, &other, &what, &named).does(Effect::Tested(number));
            }
            JobMove::New { at, neutral, protection, feeds, .. } => {
                let number = self.at(at);
                if feeds.is_empty() {
                    let readings = if at.len() == 2 { outlet_240(between, *neutral) } else { outlet_120() };
                    test_circuit(&mut self.steps, &number, &new_at(&number), "at its outlet", readings);
                    goes_with(&mut self.steps, &number, "the outlet", "");
                } else {
                    // Nobody reads at the open lugs of a panel that is live.
                    switch_on(&mut self.steps, &number, &new_at(&number));
                    self.steps
                        .choice(
                            Stage::Test,
                            &format!("test-{number}"),
                            format!("Put “{feeds}” to use by its own sheet: there each circuit is read at its outlet."),
                            &[
                                ("closed", "its cover is on, every breaker in it off", None),
                                ("open", "it is open", Some(JobFound::NotAsSaid)),
                            ],
                        )
                        .at_the_point()
                        .does(Effect::Tested(new_at(&number)));
                }
                if *protection != Protection::Standard {
                    test_button(&mut self.steps, &number);
                }
            }
        }
    }

    pub(super) fn read(&mut self, number: &str, breaker: &BreakerId, poles: usize, guard: Protection) {
        let between = self.panel.service.volts_between_legs().value();
        let shared = self.home.panels().shared_neutral_of(breaker).is_some();
        let readings = match (poles, shared) {
            (2, true) => outlet_240(between, true),
            (2, false) => outlet_240(between, false),
            _ => outlet_120(),
        };
        let place = self.where_read(breaker);
        or_runs(test_circuit(&mut self.steps, number, &self.home.panels().number(breaker), &place, readings));
        if guard != Protection::Standard {
            test_button(&mut self.steps, number);
        }
    }
}
