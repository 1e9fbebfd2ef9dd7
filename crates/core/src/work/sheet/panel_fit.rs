//! What is done to each breaker in the open panel.

use super::changes::face;
use super::gates::tighten;
use super::panel_job::Work;
use super::steps::{Effect, Stage, dead};
use crate::model::{Amps, Breaker, BreakerId, Half, JobFound, JobMove, Protection, Slot};

impl Work<'_> {
    /// The wires of a circuit themselves, before they are touched: the bus may be dead and a wire not. The meter is tried before and after,
    /// as it is for the bus.
    pub(super) fn wire_dead(&mut self, breaker: &BreakerId) {
        let what = self.number(breaker);
        let hots: &[&str] = match self.breaker(breaker).map_or(1, Breaker::poles) {
            1 => &["hot"],
            _ => &["first hot", "second hot"],
        };
        let place = |name: &str| match name {
            "neutral" => "the neutral bar".to_owned(),
            "ground" => "the ground bar or the bare metal of the box".to_owned(),
            "hot" => format!("the screw of {what}"),
            "first hot" => format!("the upper screw of {what}"),
            _ => format!("the lower screw of {what}"),
        };
        let readings = dead(hots, true, |one, other| format!("One probe on {}, the other on {}.", place(one), place(other)));
        self.steps
            .readings(Stage::Fit, &format!("wire-{what}"), format!("Prove the wires of {what} dead."), readings)
            .words("Another panel, a battery supply or a neutral that is shared may feed a wire while the bus is dead.")
            .does(Effect::WireDead(what));
    }

    pub(super) fn lift(&mut self, breaker: &BreakerId) {
        self.wire_dead(breaker);
        let what = self.number(breaker);
        let guards = self.breaker(breaker).is_some_and(|b| b.protection != Protection::Standard);
        let title = if guards {
            format!("Take the hot and the neutral of {what} off its breaker, and its pigtail off the bar.")
        } else {
            format!("Take the hot of {what} off its terminal.")
        };
        let step = self
            .steps
            .tick(Stage::Fit, &format!("lift-{what}"), title)
            .words("A neutral stays on the bar until it is clear that no other circuit uses it.")
            .does(Effect::Lifted(what.clone()));
        if guards {
            step.does(Effect::Lifted(neutral_of(&what))).words("Tag them together.");
        }
    }

    pub(super) fn out(&mut self, what: &str) {
        self.steps
            .choice(
                Stage::Fit,
                &format!("out-{what}"),
                format!("Take {what} out. How does the metal under it look?"),
                &[("clean", "clean", None), ("burnt", "pitted or burnt", Some(JobFound::Burnt))],
            )
            .words("Outer edge first. A stab that is burnt condemns its space for any breaker.")
            .does(Effect::Out(what.to_owned()));
    }

    /// `circuit`: by its number before the job.
    pub(super) fn put_in(&mut self, at: &str, circuit: &str, kind: &str) {
        self.steps
            .tick(Stage::Fit, &format!("in-{at}"), format!("Put the {kind} in at {at}, its handle off."))
            .words("Hook first, then press until it sits flush.")
            .does(Effect::In(circuit.to_owned()));
    }

    pub(super) fn land(&mut self, at: &str, circuit: &str, words: impl Into<String>) {
        self.steps
            .tick(Stage::Fit, &format!("land-{at}"), format!("Land the wires of {at}."))
            .words(words)
            .does(Effect::Landed(circuit.to_owned()));
    }

    pub(super) fn tighten(&mut self, at: &str, circuits: &[&str], known: Option<&BreakerId>) {
        // The neutral that lies on the same breaker is tightened with it.
        let neutrals: Vec<String> = circuits.iter().map(|circuit| neutral_of(circuit)).collect();
        let landed = |one: &String| self.steps.list.iter().any(|step| step.effects.contains(&Effect::Landed(one.clone())));
        let neutrals = neutrals.iter().filter(|one| landed(one)).map(String::as_str);
        let circuits: Vec<&str> = circuits.iter().copied().chain(neutrals).collect();
        let label = known.and_then(|id| self.breaker(id)).and_then(|b| b.details.terminal.torque_inlb);
        tighten(&mut self.steps, at, &circuits, label);
    }

    pub(super) fn fit(&mut self, group: &[&JobMove]) {
        // What leaves its place first.
        for one in group {
            match one {
                JobMove::TakeOut { breaker } => {
                    let number = self.number(breaker);
                    self.steps
                        .choice(
                            Stage::Fit,
                            &format!("spare-{number}"),
                            format!("Is there no wire on {number}?"),
                            &[("none", "none", None), ("wire", "there is one", Some(JobFound::NotAsSaid))],
                        )
                        .words("Look at its terminal.");
                    self.out(&number);
                }
                JobMove::Move { breaker, .. }
                | JobMove::Replace { breaker, .. }
                | JobMove::TwoPole { breaker, .. }
                | JobMove::OnePole { breaker, .. } => {
                    let number = self.number(breaker);
                    self.lift(breaker);
                    self.out(&number);
                }
                JobMove::Join { breaker, to } => {
                    let number = self.number(breaker);
                    self.lift(breaker);
                    self.lift(to);
                    self.out(&number);
                }
                JobMove::Tap { breaker, to } => {
                    let number = self.number(breaker);
                    self.wire_dead(to);
                    self.lift(breaker);
                    self.out(&number);
                }
                JobMove::New { .. } | JobMove::Fill { .. } | JobMove::Tighten { .. } => {}
            }
        }
        let mut bodies: Vec<u8> = Vec::new();
        for one in group {
            self.fit_one(one, &mut bodies);
        }
    }

    pub(super) fn fit_one(&mut self, one: &JobMove, bodies: &mut Vec<u8>) {
        match one {
            JobMove::TakeOut { .. } => {}
            JobMove::Move { breaker, at } => {
                let (number, to) = (self.number(breaker), self.at(at));
                let (amps, poles, guard) =
                    self.breaker(breaker).map_or((0.0, 1, Protection::Standard), |b| (b.amps.value(), b.poles(), b.protection));
                let half = at.iter().any(|slot| slot.half.is_some());
                let kind =
                    if half { format!("tandem with {amps} A for {}", self.halves(at)) } else { Self::kind(amps, poles, guard) };
                self.put_in_once(&to, &number, at, &kind, bodies);
                self.guards(&to, &number, guard, guard);
                self.land(&to, &number, "By their tags. A wire that does not reach is spliced in the gutter, with a connector listed for number and size; no joint is pulled tight.");
                self.tighten(&to, &[&number], (!half).then_some(breaker));
            }
            JobMove::Replace { breaker, amps, protection } => {
                let number = self.number(breaker);
                let (poles, was) = self.breaker(breaker).map_or((1, Protection::Standard), |b| (b.poles(), b.protection));
                self.put_in(&number, &number, &Self::kind(amps.value(), poles, *protection));
                self.guards(&number, &number, was, *protection);
                self.land(&number, &number, "By their tags, as they were.");
                self.tighten(&number, &[&number], None);
            }
            JobMove::TwoPole { breaker, at, amps } => {
                let (number, to) = (self.number(breaker), self.at(at));
                self.steps
                    .tick(
                        Stage::Fit,
                        &format!("mark-{to}"),
                        format!("Mark the white wire of {number} at both ends: it becomes a hot."),
                    )
                    .words("Any color but white, gray or green, wherever it can be seen. It comes off the neutral bar.")
                    .does(Effect::Lifted(number.clone()));
                self.put_in(&to, &number, &Self::kind(amps.value(), 2, Protection::Standard));
                self.land(&to, &number, "The black wire on one pole, the marked one on the other. Ground stays on its bar.");
                self.tighten(&to, &[&number], None);
                self.steps
                    .tick(
                        Stage::Fit,
                        &format!("outlet-{to}"),
                        format!("Change the outlet: {}, both hots on brass, ground on green.", face_words(*amps, 240)),
                    )
                    .words("No neutral. Nobody can plug 120 V into it any more.")
                    .at_the_point()
                    .does(Effect::BoxOpen)
                    .does(Effect::BoxClosed);
            }
            JobMove::OnePole { breaker, at, amps } => {
                let (number, to) = (self.number(breaker), self.at(&[*at]));
                self.put_in(&to, &number, &Self::kind(amps.value(), 1, Protection::Standard));
                self.steps
                    .tick(
                        Stage::Fit,
                        &format!("unmark-{to}"),
                        format!("Take the mark off the white wire of {number} at both ends, and land it on the neutral bar."),
                    )
                    .words("Only the wire that was made white. One wire to a screw of the bar. A third wire that is left over is capped at both ends.");
                self.land(&to, &number, "The black wire on the breaker.");
                self.tighten(&to, &[&number], None);
                self.steps
                    .tick(
                        Stage::Fit,
                        &format!("outlet-{to}"),
                        format!(
                            "Change the outlet: {}, hot on brass, neutral on silver, ground on green.",
                            face_words(*amps, 120)
                        ),
                    )
                    .at_the_point()
                    .does(Effect::BoxOpen)
                    .does(Effect::BoxClosed);
            }
            JobMove::Join { breaker, to } => {
                let (number, other) = (self.number(breaker), self.number(to));
                self.steps
                    .tick(Stage::Fit, &format!("splice-{number}"), format!("Splice the hots of {number} and {other} with one pigtail."))
                    .words("A connector listed for three wires of these sizes, in the gutter, where it can be reached. Pull at each. Neutrals and grounds stay with their hots in this panel.")
                    .does(Effect::Spliced(number.clone()));
                self.land(&other, &other, "The pigtail alone, of the thicker of the two wires.");
                self.tighten(&other, &[&other], Some(to));
            }
            JobMove::Tap { breaker, to } => {
                let (number, other) = (self.number(breaker), self.number(to));
                self.steps
                    .tick(
                        Stage::Fit,
                        &format!("land-{other}"),
                        format!("Put the hot of {number} under the terminal of {other}, each wire on its own side."),
                    )
                    .words("Both of one size and metal, as it is marked.")
                    .does(Effect::Lifted(other.clone()))
                    .does(Effect::Landed(number.clone()))
                    .does(Effect::Landed(other.clone()));
                self.tighten(&other, &[&other, &number], Some(to));
            }
            JobMove::New { at, amps, protection, neutral, feeds, .. } => {
                let to = self.at(at);
                let circuit = new_at(&to);
                self.steps
                    .tick(Stage::Fit, &format!("cable-in-{to}"), "Bring the cable in by a knock-out, and clamp it.")
                    .words("Sheath a little past the clamp; length for a later move of the breaker.")
                    .does(Effect::Lifted(circuit.clone()));
                let ground = if feeds.is_empty() {
                    "Ground first, on a screw of its own."
                } else {
                    "Ground first, on a screw of its own; the neutral on its bar, apart from ground in the panel that it feeds."
                };
                self.steps.tick(Stage::Fit, &format!("ground-{to}"), ground);
                let neutral_words = match (at.len(), neutral, protection) {
                    (_, false, protection) if at.len() == 2 && *protection != Protection::Standard => {
                        "No neutral goes out: the white wire of a two-wire cable is marked as a hot at both ends. The breaker’s own pigtail, or its clip, goes to the neutral bar all the same."
                    }
                    (.., protection) if *protection != Protection::Standard => {
                        "Its own neutral on the breaker; the breaker’s pigtail, or its clip, on the neutral bar."
                    }
                    (1, ..) => "The white wire on the neutral bar, one to a screw.",
                    (_, true, _) => "The white wire on the neutral bar, one to a screw; both other wires are hots.",
                    (_, false, _) => {
                        "No neutral: the white wire of a two-wire cable is marked as a hot at both ends, any color but white, gray or green."
                    }
                };
                self.steps.tick(Stage::Fit, &format!("white-{to}"), neutral_words);
                let half = at.iter().any(|slot| slot.half.is_some());
                let kind = if half {
                    format!("tandem with {amps} for {}", self.halves(at))
                } else {
                    Self::kind(amps.value(), at.len(), *protection)
                };
                self.put_in_once(&to, &circuit, at, &kind, bodies);
                self.land(&to, &circuit, if at.len() == 2 { "One hot on each pole." } else { "The hot on the breaker." });
                self.tighten(&to, &[&circuit], None);
            }
            JobMove::Fill { at } => {
                let at = self.at(&[*at]);
                self.filler(&at);
            }
            JobMove::Tighten { breaker } => {
                let number = self.number(breaker);
                self.wire_dead(breaker);
                self.tighten(&number, &[&number], Some(breaker));
            }
        }
    }

    pub(super) fn filler(&mut self, at: &str) {
        self.steps
            .tick(Stage::Fit, &format!("filler-{at}"), format!("A filler goes into {at}."))
            .words("One that is made for this panel.")
            .does(Effect::Filler(at.to_owned()));
    }

    pub(super) fn halves(&self, at: &[Slot]) -> &'static str {
        match at.first().and_then(|slot| slot.half) {
            Some(Half::Upper) => "its upper half",
            _ => "its lower half",
        }
    }

    /// Both halves of a tandem go in together.
    pub(super) fn put_in_once(&mut self, to: &str, circuit: &str, at: &[Slot], kind: &str, bodies: &mut Vec<u8>) {
        let halves: Vec<u8> = at.iter().filter(|slot| slot.half.is_some()).map(|slot| slot.space).collect();
        if !halves.is_empty() && halves.iter().all(|space| bodies.contains(space)) {
            self.steps
                .tick(Stage::Fit, &format!("in-{to}"), format!("Check the tandem’s rating at {to}: {kind}."))
                .does(Effect::In(circuit.to_owned()));
            return;
        }
        bodies.extend(halves);
        self.put_in(to, circuit, kind);
    }

    /// The neutral of a breaker that protects people.
    pub(super) fn guards(&mut self, number: &str, circuit: &str, was: Protection, is: Protection) {
        if is == Protection::Standard {
            return;
        }
        let rail = match self.panel.details.plug_on_neutral {
            Some(true) => "The breaker clips onto the neutral rail.",
            _ => "The breaker’s white pigtail goes to the neutral bar, on a screw of its own.",
        };
        if was != is {
            self.steps
                .choice(
                    Stage::Fit,
                    &format!("which-neutral-{number}"),
                    format!("Find the neutral of {number}: by continuity, its hot and its neutral off both bars."),
                    &[
                        ("one", "one neutral, and nothing else is on it", None),
                        ("more", "more than one, or none is sure", Some(JobFound::NotAsSaid)),
                    ],
                )
                .words("A jumper at one of its outlets, the meter on continuity in the panel. Take the jumper out again.")
                .does(Effect::Lifted(neutral_of(circuit)));
        }
        self.steps
            .tick(
                Stage::Fit,
                &format!("neutral-on-{number}"),
                format!("Land the circuit’s own neutral on the breaker of {number}."),
            )
            .words(rail)
            .does(Effect::Landed(neutral_of(circuit)));
    }
}

/// A new circuit: another one may have had its number before.
pub(super) fn new_at(at: &str) -> String {
    format!("new {at}")
}

/// The neutral of a circuit that goes to its breaker.
fn neutral_of(circuit: &str) -> String {
    format!("{circuit} neutral")
}

fn face_words(amps: Amps, volts: u16) -> String {
    face(amps, volts).map_or_else(|| format!("one for {amps} and {volts} V"), |face| format!("a {} receptacle", face.name()))
}
