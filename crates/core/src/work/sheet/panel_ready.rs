//! What has to be known of each breaker before anything is switched off.

use super::panel_job::Work;
use super::steps::Stage;
use crate::model::{Breaker, BreakerId, JobFound, JobMove, Protection, Slot};
use crate::trace::on_breaker;

impl Work<'_> {
    /// What has to be known before anything is switched off.
    pub(super) fn ready(&mut self, one: &JobMove) {
        match one {
            JobMove::TakeOut { .. } | JobMove::Fill { .. } | JobMove::Tighten { .. } => {}
            JobMove::Move { breaker, at } => {
                let number = self.number(breaker);
                if at.iter().any(|slot| slot.half.is_some()) {
                    self.tandem(&number, at);
                }
                self.shared(breaker, &number);
            }
            JobMove::Replace { breaker, amps, protection } => {
                let number = self.number(breaker);
                let poles = self.breaker(breaker).map_or(1, Breaker::poles);
                self.steps
                    .choice(
                        Stage::Ready,
                        &format!("why-{number}"),
                        format!("Why is {number} replaced?"),
                        &[
                            ("wished", "another kind or rating is wanted", None),
                            ("worn", "it is hot, buzzes, does not latch, or does not trip", None),
                            ("trips", "it trips at once", Some(JobFound::TripsAgain)),
                        ],
                    )
                    .words("One that trips at once does what it should: unplug what is on it, and have the circuit measured before any breaker is bought.");
                self.named(&number, "", &Self::kind(amps.value(), poles, *protection));
                let was = self.breaker(breaker).map_or(Protection::Standard, |b| b.protection);
                if *protection != Protection::Standard && was != *protection {
                    self.own_neutral(&number);
                }
                self.shared(breaker, &number);
            }
            JobMove::TwoPole { breaker, amps, .. } => {
                let number = self.number(breaker);
                self.named(&number, "", &Self::kind(amps.value(), 2, Protection::Standard));
                self.only_one(breaker, &number);
                self.protection_by_place(&number, "240 V");
            }
            JobMove::OnePole { breaker, amps, .. } => {
                let number = self.number(breaker);
                self.named(&number, "", &Self::kind(amps.value(), 1, Protection::Standard));
                self.only_one(breaker, &number);
                self.steps
                    .choice(
                        Stage::Ready,
                        &format!("white-{number}"),
                        format!("Which wire of {number} can be the neutral?"),
                        &[
                            ("white", "one that was made white, marked as a hot later", None),
                            ("none", "there is none: black, red, or bare", Some(JobFound::NotAsSaid)),
                        ],
                    )
                    .words("Only a wire that was made white goes back to the neutral bar. A black or red one is never marked as a neutral, a bare one is ground alone: then a new cable is needed.");
                self.protection_by_place(&number, "120 V");
            }
            JobMove::Join { breaker, to } => {
                let (number, other) = (self.number(breaker), self.number(to));
                self.may_be_joined(&number, &other);
            }
            JobMove::Tap { breaker, to } => {
                let (number, other) = (self.number(breaker), self.number(to));
                self.may_be_joined(&number, &other);
                self.steps
                    .choice(
                        Stage::Ready,
                        &format!("marked-{other}"),
                        format!("Is the terminal of {other} marked for two wires?"),
                        &[
                            ("yes", "yes, and for two of this size and metal", None),
                            ("no", "no, or it cannot be read", Some(JobFound::Label)),
                        ],
                    )
                    .words(
                        "The marking stands on the breaker itself or on its own leaflet. Without it a terminal takes one wire.",
                    );
            }
            JobMove::New { at, amps, protection, what, feeds, wire, .. } => {
                let number = self.at(at);
                let what = if feeds.is_empty() { what.as_str() } else { feeds.as_str() };
                let what = if what.is_empty() { String::new() } else { format!(" for {what}") };
                self.named(&number, &what, &Self::kind(amps.value(), at.len(), *protection));
                if at.iter().any(|slot| slot.half.is_some()) {
                    self.tandem(&number, at);
                }
                self.steps
                    .tick(
                        Stage::Ready,
                        &format!("cable-{number}"),
                        format!("The cable for {number} is in place up to the panel, its far end made up and closed."),
                    )
                    .words(match wire {
                        Some(wire) => format!(
                            "{} by the size that was kept; ground, box and outlet as it says. Nothing is live in it yet.",
                            wire.words()
                        ),
                        None => {
                            "As the size of the circuit says: wire, ground, box, outlet. Nothing is live in it yet.".to_owned()
                        }
                    })
                    .at_the_point();
                if !feeds.is_empty() {
                    self.steps
                        .choice(
                            Stage::Ready,
                            &format!("sub-panel-{number}"),
                            format!(
                                "Is “{feeds}” made up: four wires, its neutral bar apart from ground, every breaker in it off?"
                            ),
                            &[("yes", "yes", None), ("no", "no, or the bond is still in", Some(JobFound::NotAsSaid))],
                        )
                        .words("In another building it has a disconnect and a ground electrode of its own.")
                        .at_the_point();
                }
            }
        }
    }

    pub(super) fn named(&mut self, number: &str, what: &str, kind: &str) {
        let types = &self.panel.details.types;
        let known = if types.is_empty() {
            "The types stand on the label inside the door.".to_owned()
        } else {
            format!("Recorded from the label: {}.", types.join(", "))
        };
        self.steps
            .choice(
                Stage::Ready,
                &format!("label-{number}"),
                format!("For {number}{what}: a {kind}. Does the panel’s label name its type?"),
                &[
                    ("named", "it does, or its own label says it is classified for this panel", None),
                    ("not", "it does not, or cannot be read", Some(JobFound::Label)),
                ],
            )
            .words(format!("{known} That it fits the clip is no reason. Its interrupting rating is not below the panel’s."));
    }

    pub(super) fn tandem(&mut self, number: &str, at: &[Slot]) {
        let space = at.first().map_or(0, |slot| slot.space);
        self.steps
            .choice(
                Stage::Ready,
                &format!("tandem-{number}"),
                format!("Does the label allow a tandem in space {space}, and does the hook fit its notch?"),
                &[("yes", "yes, both", None), ("no", "no, or it cannot be read", Some(JobFound::Label))],
            )
            .words("Never cut a hook off. The poles in the panel stay within the number of circuits that it is listed for.");
    }

    pub(super) fn shared(&mut self, breaker: &BreakerId, number: &str) {
        if self.home.panels().shared_neutral_of(breaker).is_some() {
            self.steps
                .choice(
                    Stage::Ready,
                    &format!("neutral-{number}"),
                    format!("{number} shares its neutral. Do all of its hots stay on different legs, and open together?"),
                    &[
                        ("yes", "yes: different legs, handles tied or one breaker", None),
                        ("no", "no, or not sure", Some(JobFound::NotAsSaid)),
                    ],
                )
                .words("On one leg the neutral carries the sum of both: it burns without any breaker tripping.");
        }
    }

    pub(super) fn own_neutral(&mut self, number: &str) {
        self.steps
            .choice(
                Stage::Ready,
                &format!("alone-{number}"),
                format!("Does {number} have a neutral of its own?"),
                &[
                    ("own", "yes, or it will be proven with the wires off", None),
                    ("shared", "it shares its neutral", Some(JobFound::NotAsSaid)),
                ],
            )
            .words("What protects people compares the hot with its own neutral: with a shared one it trips at once.");
    }

    pub(super) fn only_one(&mut self, breaker: &BreakerId, number: &str) {
        let on = on_breaker(self.home, breaker);
        let known = match (on.proven.len(), on.possible) {
            (1, 0) => format!("By the trace it is {} alone.", self.point(&on.proven[0])),
            (0, _) => "The trace does not say yet what is on it.".into(),
            (count, possible) => {
                format!("By the trace {count} are on it{}.", if possible > 0 { ", and more may be" } else { "" })
            }
        };
        self.steps
            .choice(
                Stage::Ready,
                &format!("only-{number}"),
                format!("Is one single outlet on {number}, and nothing else?"),
                &[("one", "yes: every box on the way was opened", None), ("more", "no, or not sure", Some(JobFound::NotAsSaid))],
            )
            .words(format!("{known} No light, no switch, no hidden box, no shared neutral, no circuit that a kitchen, bath, laundry or garage has to have."))
            .at_the_point();
    }

    pub(super) fn protection_by_place(&mut self, number: &str, volts: &str) {
        self.steps
            .tick(Stage::Ready, &format!("place-{number}"), format!("Look up whether that place asks for a GFCI at {volts}."))
            .words("Kitchens, baths, laundries, garages, cellars and outdoors often do. A GFCI is then part of this job.");
    }

    pub(super) fn may_be_joined(&mut self, number: &str, other: &str) {
        self.steps
            .choice(
                Stage::Ready,
                &format!("joined-{number}"),
                format!("May {number} and {other} be one circuit?"),
                &[
                    ("yes", "yes: none of these", None),
                    ("no", "one of these holds", Some(JobFound::NotAsSaid)),
                ],
            )
            .words("Neither shares its neutral, is a circuit that the code wants on its own, feeds a furnace, a sump pump or an alarm alone, or has a GFCI or AFCI that the other lacks. The breaker that stays is not larger than the thinner of the two wires allows. What both carry at one time, over a whole week, stays under 80 % of the breaker.");
    }
}
