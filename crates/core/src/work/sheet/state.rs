//! What state a job leaves the panel in, from what has been done of it.

use indexmap::IndexSet;

use super::steps::{Effect, Step};

/// The state after these steps.
#[derive(Debug, Default)]
pub(crate) struct Left {
    off: bool,
    circuit_off: bool,
    cover_off: bool,
    box_open: bool,
    dead: bool,
    /// Wires that are on no terminal.
    loose: IndexSet<String>,
    /// Landed, and not yet tightened and pulled.
    untight: IndexSet<String>,
    /// Tightened, and not yet pulled.
    unpulled: IndexSet<String>,
    out: IndexSet<String>,
    /// Closed up, and not yet read.
    untested: IndexSet<String>,
}

pub(crate) fn left_after<'a>(steps: impl Iterator<Item = &'a Step>) -> Left {
    let mut left = Left::default();
    for effect in steps.flat_map(|step| &step.effects) {
        match effect {
            Effect::MainOff => left.off = true,
            Effect::CircuitOff => left.circuit_off = true,
            Effect::CoverOff => left.cover_off = true,
            Effect::BoxOpen => left.box_open = true,
            Effect::BoxClosed => left.box_open = false,
            Effect::ProvenDead => left.dead = true,
            Effect::Lifted(what) => {
                left.loose.insert(what.clone());
                left.is_to_be_read(what);
            }
            Effect::Out(what) => drop(left.out.insert(what.clone())),
            Effect::In(what) => {
                left.out.shift_remove(what);
                left.is_to_be_read(what);
            }
            Effect::Landed(what) => {
                left.loose.shift_remove(what);
                left.untight.insert(what.clone());
                left.is_to_be_read(what);
            }
            Effect::Spliced(what) => drop(left.loose.shift_remove(what)),
            Effect::Tightened(what) => {
                left.untight.shift_remove(what);
                left.unpulled.insert(what.clone());
            }
            Effect::Pulled(what) => drop(left.unpulled.shift_remove(what)),
            Effect::CoverOn => left.cover_off = false,
            Effect::MainOn => (left.off, left.dead) = (false, false),
            Effect::On(what) => {
                left.circuit_off = false;
                if what == "the others" {
                    continue;
                }
            }
            Effect::Tested(what) => drop(left.untested.shift_remove(what)),
            Effect::SourcesOff | Effect::LookedAt | Effect::WireDead(_) | Effect::Filler(_) | Effect::Filled | Effect::Card => {}
        }
    }
    left
}

impl Left {
    /// A neutral is read with its circuit.
    fn is_to_be_read(&mut self, what: &str) {
        self.untested.insert(what.trim_end_matches(" neutral").to_owned());
    }

    /// The panel, or the circuit, is switched off for the job.
    pub(crate) const fn is_off(&self) -> bool {
        self.off || self.circuit_off
    }

    /// As sentences: what stands how, and what may be switched on; nothing may, where something grave was found. Nothing where nothing
    /// was begun.
    pub(crate) fn words(&self, by: &str, grave: bool) -> Vec<String> {
        let mut said = Vec::new();
        let list = |these: &IndexSet<String>| these.iter().cloned().collect::<Vec<_>>().join(", ");
        let not_closed: IndexSet<String> =
            self.loose.iter().chain(&self.untight).chain(&self.unpulled).chain(&self.out).cloned().collect();
        if self.off {
            said.push(format!("Off and locked: {by}."));
        }
        if self.circuit_off {
            said.push("The circuit is off and locked.".into());
        }
        if self.cover_off {
            said.push("The cover is off: nobody leaves it so. Put it on before you go, even for an hour.".into());
        }
        if self.box_open {
            said.push("A box is open: the device is screwed back, or its wires are capped, before anybody leaves.".into());
        }
        if !self.loose.is_empty() {
            said.push(format!("Wires on no terminal: {}. Cap each with a connector.", list(&self.loose)));
        }
        if !self.untight.is_empty() || !self.unpulled.is_empty() {
            let these: IndexSet<String> = self.untight.union(&self.unpulled).cloned().collect();
            said.push(format!("Not tightened and pulled at yet: {}.", list(&these)));
        }
        if grave && self.is_off() {
            said.push("It stays off until an electrician has looked at it.".into());
        } else if self.off && not_closed.is_empty() {
            said.push(format!("With the cover on, {by} may be switched on again, branch breakers off first."));
        } else if self.off {
            said.push(format!(
                "With every loose wire capped and the cover on, {by} may be switched on again. {} stay{} off.",
                list(&not_closed),
                if not_closed.len() == 1 { "s" } else { "" }
            ));
        } else if self.circuit_off {
            said.push(
                "With the box closed and its wires capped, or the device back in, the circuit may be switched on again.".into(),
            );
        }
        let untested: Vec<String> = self.untested.iter().filter(|what| !not_closed.contains(*what)).cloned().collect();
        if !untested.is_empty() && !self.is_off() {
            said.push(format!("Not read yet: {}. Off until then.", untested.join(", ")));
        }
        said
    }
}
