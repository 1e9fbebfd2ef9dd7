//! The next step in words: one card for whoever is at the panel, one for whoever walks. Owner and helpers read the same card;
//! a helper is only not offered what a helper may not write.

use super::NextStep;
use super::at_the_handle::{as_they_come_on, as_they_go_off};
use crate::logbook::{
    BreakerKept, BreakerSwitched, ChangeWatched, DeviceWorked, Fact, GfciProtects, LineStruck, PointSeen, PointSkipped, ToneHeard,
};
use crate::model::{BreakerId, Change, Kept, PointId, Seen, Side, State, Worked, place_in_words, so_many};
use crate::study::Study;

/// Where somebody is in a trace.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepSide {
    /// At the panel: switches.
    Panel,
    /// Walks and looks.
    Walk,
}

/// Who reads the card.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Reader {
    /// The owner, who may write everything.
    Owner,
    /// A helper, who writes looks and switchings only.
    Helper,
}

/// How much the card matters just now.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Weight {
    /// Nothing to do on this side, or nothing that others wait for.
    Quiet,
    /// The act that the trace waits for.
    Loud,
    /// A danger: it comes before everything else.
    Alarm,
}

/// A breaker as somebody finds it at the panel.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Handle {
    /// The breaker.
    pub breaker: BreakerId,
    /// `5-7`, `S3`.
    pub number: String,
    /// The column it sits in.
    pub side: Side,
    /// `left column, 6th down`.
    pub place: String,
    /// What the old card says of it.
    pub claim: Option<String>,
    /// Its rating in amperes.
    pub amps: f64,
}

/// Handles that go the same way.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Switch {
    /// `OFF`, `ON again`.
    pub words: String,
    /// Where they go.
    pub to: State,
    /// The handles.
    pub handles: Vec<Handle>,
}

/// A screen that a step leads to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Screen {
    /// The panel.
    Panel,
    /// Rooms and points.
    House,
    /// The door card.
    Directory,
    /// The logbook.
    Logbook,
}

/// What a button does.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
#[serde(tag = "does", rename_all = "snake_case")]
pub enum Does {
    /// Writes these facts.
    Record {
        /// Ready to be written.
        facts: Vec<Fact>,
        /// A reason may be typed; it takes the place of the one in the facts.
        reason: bool,
    },
    /// Goes to a screen.
    Open {
        /// Where.
        screen: Screen,
    },
}

/// A button of the card.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct StepAct {
    /// What stands on it.
    pub words: String,
    /// What it does.
    #[serde(flatten)]
    pub does: Does,
}

/// What is to be looked at on this side, beside the points themselves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct Looking {
    /// By ear, from the panel: a radio stands at the point.
    pub listen: bool,
    /// The rest of a room may be told lit at one go.
    pub rest_lit: bool,
    /// The rest of a room may be told dark at one go.
    pub rest_dark: bool,
    /// A point that nobody asked about may be told dark.
    pub noticed: bool,
}

/// One step for one side, in words.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct StepCard {
    /// Whose step it is.
    pub side: StepSide,
    /// `At the panel`, `Walking`.
    pub over: String,
    /// What to do, in a few words.
    pub title: String,
    /// What it is for; may be empty.
    pub why: String,
    /// How much it matters just now.
    pub weight: Weight,
    /// What goes off, then what goes on again.
    pub switches: Vec<Switch>,
    /// What to mind while doing it.
    pub cautions: Vec<String>,
    /// What was done: the act that the trace waits for.
    pub main: Option<StepAct>,
    /// What else may be done here.
    pub acts: Vec<StepAct>,
    /// One of these is the answer, under this question.
    pub choices: Vec<StepAct>,
    /// What to do when it cannot be done.
    pub instead: Vec<StepAct>,
    /// Points are to be looked at here.
    pub looking: Option<Looking>,
    /// The volts that a meter shows there now may be entered here.
    pub meter_at: Option<PointId>,
}

/// What the rest of a room may be told at one go.
#[derive(Clone, Copy)]
enum Rest {
    /// Nothing: each point by itself.
    Each,
    Lit,
    LitOrDark,
}

impl StepCard {
    fn new(side: StepSide, weight: Weight, title: impl Into<String>, why: impl Into<String>) -> Self {
        Self {
            side,
            over: if side == StepSide::Panel { "At the panel" } else { "Walking" }.into(),
            title: title.into(),
            why: why.into(),
            weight,
            switches: Vec::new(),
            cautions: Vec::new(),
            main: None,
            acts: Vec::new(),
            choices: Vec::new(),
            instead: Vec::new(),
            looking: None,
            meter_at: None,
        }
    }

    fn over(mut self, over: &str) -> Self {
        over.clone_into(&mut self.over);
        self
    }

    fn mind(mut self, caution: impl Into<String>) -> Self {
        self.cautions.push(caution.into());
        self
    }

    fn main(mut self, act: StepAct) -> Self {
        self.main = Some(act);
        self
    }

    fn act(mut self, act: StepAct) -> Self {
        self.acts.push(act);
        self
    }

    const fn look(mut self, listen: bool, rest: Rest, noticed: bool) -> Self {
        let (rest_lit, rest_dark) = (!matches!(rest, Rest::Each), matches!(rest, Rest::LitOrDark));
        self.looking = Some(Looking { listen, rest_lit, rest_dark, noticed });
        self
    }

    /// Without what a helper may not write, and without screens that a helper does not see.
    fn for_a_helper(mut self) -> Self {
        let allowed = |act: &StepAct| match &act.does {
            Does::Record { facts, .. } => facts.iter().all(|fact| fact.may_be_written_by_a_helper(|_| false)),
            Does::Open { .. } => false,
        };
        self.main = self.main.filter(allowed);
        for acts in [&mut self.acts, &mut self.choices, &mut self.instead] {
            acts.retain(allowed);
        }
        self
    }

    /// Without anything to do.
    pub(super) fn only_told(mut self) -> Self {
        (self.main, self.acts, self.choices, self.instead) = (None, Vec::new(), Vec::new(), Vec::new());
        self
    }
}

pub(super) fn record(words: impl Into<String>, facts: Vec<Fact>) -> StepAct {
    StepAct { words: words.into(), does: Does::Record { facts, reason: false } }
}

pub(super) fn open(words: &str, screen: Screen) -> StepAct {
    StepAct { words: words.into(), does: Does::Open { screen } }
}

/// The step for the panel and the step for those who walk. `to_switch`: what could be switched off as well.
pub(super) fn step_cards(home: &Study, next: &NextStep, to_switch: &[BreakerId], reader: Reader) -> (StepCard, StepCard) {
    let (panel, walk) = Words { home, reader }.of(next, to_switch);
    match reader {
        Reader::Owner => (panel, walk),
        Reader::Helper => (panel.for_a_helper(), walk.for_a_helper()),
    }
}

/// What is said when something may not be without power any longer.
pub(super) fn over_card(home: &Study, name: &str, minutes: u16, breakers: &[BreakerId]) -> StepCard {
    let words = Words { home, reader: Reader::Owner };
    let mut rest = name.chars();
    let name: String = rest.next().map(|c| c.to_uppercase().chain(rest).collect()).unwrap_or_default();
    let why = format!("{name}: at most {minutes} min without power. Switch it on first.");
    words
        .switching(Weight::Alarm, &format!("Turn {} ON again now", words.numbers(breakers)), &why, &[], breakers)
        .mind("See that it runs; the trace goes on after.")
}

/// The one who words the cards of one state.
struct Words<'a> {
    home: &'a Study,
    reader: Reader,
}

/// What to look with.
const LOOK_WITH: &str = "Plug-in tester for receptacles, lights and appliances by eye; never the tester on 240 V.";

impl Words<'_> {
    fn of(&self, next: &NextStep, to_switch: &[BreakerId]) -> (StepCard, StepCard) {
        match next {
            NextStep::SetUp { missing } => self.set_up(missing),
            NextStep::SeeAllLit { left_off, .. } => self.see_all_lit(left_off),
            NextStep::SwitchOff { breaker, why, .. } => {
                let mut panel =
                    self.switching(Weight::Loud, "Turn OFF, leave the rest ON", why, std::slice::from_ref(breaker), &[]);
                panel.instead.extend(to_switch.iter().filter(|b| *b != breaker).map(|b| self.is_now(b, State::Off)));
                (panel, self.wait_for(std::slice::from_ref(breaker), "off"))
            }
            NextStep::SwitchTo { off, on, why } => {
                let title = match (off.len(), on.len()) {
                    (1, 0) => "Turn OFF, leave the rest ON",
                    (_, 0) => "Turn these OFF",
                    (0, 1) => "Turn ON again",
                    (0, _) => "Turn these ON again",
                    _ => "Switch these",
                };
                let (moved, to) = if off.is_empty() { (on, "on again") } else { (off, "off") };
                (self.switching(Weight::Loud, title, why, off, on), self.wait_for(moved, to))
            }
            NextStep::SwitchOn { breakers, why, rooms } => {
                let title = if breakers.len() == 1 { "Turn ON again" } else { "Turn these ON again" };
                let walk = match self.reader {
                    Reader::Owner if !rooms.is_empty() => {
                        let go = if breakers.len() == 1 { "goes" } else { "go" };
                        let why = format!("{} {go} on again now.", self.numbers(breakers));
                        self.walk(Weight::Quiet, "Seen in this round", why).look(false, Rest::Each, true)
                    }
                    _ => self.wait_for(breakers, "on again"),
                };
                (self.switching(Weight::Loud, title, why, &[], breakers), walk)
            }
            NextStep::Look { breaker, left, .. } => {
                let left = so_many(*left, "point");
                let why = format!("{left} to look at. Done looking? Switch it on; points not looked at stay open.");
                let number = self.number(breaker);
                let panel = self
                    .panel(Weight::Quiet, format!("Leave {number} OFF"), why)
                    .act(self.on_again(std::slice::from_ref(breaker)));
                (panel, self.walk(Weight::Loud, "Lit or dark?", format!("{number} is off.")).look(false, Rest::LitOrDark, true))
            }
            NextStep::LookUnder { off, why, listen, .. } => {
                let mut panel = self.panel(Weight::Quiet, self.leave(off), why);
                if !off.is_empty() {
                    panel = panel.act(self.on_again(off));
                }
                let walk = if *listen {
                    let how = "From the panel, by ear: it plays, the point is lit; no sound, it is dark.";
                    StepCard::new(StepSide::Walk, Weight::Loud, "Does the radio play?", how).over("Listening")
                } else {
                    self.walk(Weight::Loud, "Lit or dark?", why)
                };
                let rest = match (*listen, off.is_empty()) {
                    (true, _) => Rest::Each,
                    (false, true) => Rest::Lit,
                    (false, false) => Rest::LitOrDark,
                };
                (panel, walk.look(*listen, rest, true))
            }
            NextStep::Cycle { breaker, why } => {
                let number = self.number(breaker);
                let both = vec![switched(breaker, State::Off), switched(breaker, State::On)];
                let one = std::slice::from_ref(breaker);
                let mut card = self.switching(Weight::Loud, "Turn fully OFF, then ON", why, one, one);
                card = card
                    .mind("Had it tripped by itself? Unplug what is on it before it goes on. If it trips again, leave it off.");
                card.main = Some(record("Done, it is on", both));
                let tripped = record(
                    format!("{number} had tripped"),
                    vec![switched(breaker, State::Tripped), switched(breaker, State::On)],
                );
                (card.act(tripped), self.wait_for(one, "off and on again"))
            }
            NextStep::Watch { breaker, point, place, why } => self.watch(breaker, point, place, why),
            NextStep::SeeOneLitAgain { breaker, .. } => {
                let number = self.number(breaker);
                let why = "An old breaker may look on and not have latched. See one of its points lit again before going on.";
                let walk = format!("{number} is on again. One is enough.");
                (
                    self.panel(Weight::Quiet, format!("Is {number} really on?"), why),
                    self.walk(Weight::Loud, "See one of these lit again", walk).look(false, Rest::Each, false),
                )
            }
            NextStep::FollowTone { point, room, name, why } => self.follow_tone(point, &format!("{room}, {name}"), why),
            NextStep::SeeDownstream { device, name, protects, .. } => self.see_downstream(device, name, protects),
            NextStep::Stop { point, place, why, line, .. } => self.stop(point, place, why, line),
            NextStep::Done { summary, rooms, .. } => {
                let panel = self.panel(Weight::Quiet, "Nothing more to switch", summary).over("The trace");
                let walk = if rooms.is_empty() || self.reader == Reader::Helper {
                    self.walk(Weight::Quiet, "Nothing more to look at", summary)
                } else {
                    self.walk(Weight::Quiet, "Passed over; look after all?", "").look(false, Rest::Each, false)
                };
                (panel.main(open("See the card", Screen::Directory)), walk)
            }
        }
    }

    fn watch(&self, breaker: &BreakerId, point: &PointId, place: &str, why: &str) -> (StepCard, StepCard) {
        let (number, one) = (self.number(breaker), std::slice::from_ref(breaker));
        let mut panel = self.switching(Weight::Loud, &format!("Turn {number} OFF and ON while it is watched"), why, one, one);
        panel = panel.mind(format!("Call it out: “{number} off”, then “{number} on”. Whoever watches says what it did."));
        panel.main = None;
        let walk = StepCard::new(StepSide::Walk, Weight::Loud, format!("Watch it: {place}"), why);
        let mut walk =
            walk.over("Walking").mind("Say when you stand there and see it lit; then keep your eyes on it.").mind(LOOK_WITH);
        let saw = |saw: Change| {
            let fact = ChangeWatched { point: point.clone(), breaker: breaker.clone(), saw, since: None };
            record(format!("It {}", saw.words()), vec![fact.into()])
        };
        walk.choices = [Change::CameBack, Change::StayedLit, Change::StayedOut].map(saw).to_vec();
        let dark = PointSeen { point: point.clone(), seen: Seen::Dark, since: None, anew: false };
        let skip = PointSkipped { point: point.clone(), reason: "could not be watched".into(), since: None };
        walk.acts = vec![record("It is dark already", vec![dark.into()]), record("Cannot be watched", vec![skip.into()])];
        (panel, walk)
    }

    fn panel(&self, weight: Weight, title: impl Into<String>, why: impl Into<String>) -> StepCard {
        StepCard::new(StepSide::Panel, weight, title, why)
    }

    fn walk(&self, weight: Weight, title: impl Into<String>, why: impl Into<String>) -> StepCard {
        let card = StepCard::new(StepSide::Walk, weight, title, why);
        if weight == Weight::Loud { card.mind(LOOK_WITH) } else { card }
    }

    fn wait_for(&self, moved: &[BreakerId], to: &str) -> StepCard {
        let are = if moved.len() == 1 { "is" } else { "are" };
        let why = format!("{} {are} being switched {to}. Then the points to look at are listed here.", self.numbers(moved));
        StepCard::new(StepSide::Walk, Weight::Quiet, "Wait", why)
    }

    /// Handles to be moved, with what is asked of whoever does it.
    fn switching(&self, weight: Weight, title: &str, why: &str, off: &[BreakerId], on: &[BreakerId]) -> StepCard {
        let mut card = self.panel(weight, title, why);
        for (words, to, breakers) in [("OFF", State::Off, off), ("ON again", State::On, on)] {
            let handles: Vec<Handle> = breakers.iter().filter_map(|b| self.handle(b)).collect();
            if !handles.is_empty() {
                card.switches.push(Switch { words: words.into(), to, handles });
            }
        }
        if !off.is_empty() {
            for caution in as_they_go_off(self.home, off) {
                card = card.mind(caution);
            }
            if self.reader == Reader::Helper {
                card = card.mind("If one does, leave it on and tell the owner.");
            }
            card.instead = off.iter().map(|b| self.keep_on(b)).collect();
        }
        if !on.is_empty() {
            let (it, one) = if on.len() > 1 { ("each", "one") } else { ("it", "it") };
            let then = match self.reader {
                Reader::Owner => "call an electrician",
                Reader::Helper => "tell the owner: an electrician has to look at it",
            };
            card = card.mind(format!("Push {it} fully off first, then on. If {one} does not stay on, leave it off and {then}."));
        }
        if let Some(caution) = as_they_come_on(self.home, on) {
            card = card.mind(caution);
        }
        let facts = on.iter().map(|b| switched(b, State::On)).chain(off.iter().map(|b| switched(b, State::Off))).collect();
        let done = match (off.len(), on.len()) {
            (1, 0) => "Done, it is off",
            (_, 0) => "Done, all are off",
            (0, 1) => "Done, it is on",
            (0, _) => "Done, all are on",
            _ => "Done, all are switched",
        };
        card.main(record(done, facts))
    }

    fn set_up(&self, missing: &str) -> (StepCard, StepCard) {
        let (title, screen) = match missing {
            "panel" => ("Describe the panel first", Screen::Panel),
            "breakers" => ("Enter the breakers first", Screen::Panel),
            _ => ("Enter rooms and points first", Screen::House),
        };
        let panel = self.panel(Weight::Loud, title, "A trace needs the panel, its breakers, and the points to look at.");
        let walk = self.walk(Weight::Quiet, "Wait", "The panel and the points are still being entered.");
        (panel.over("Before the trace").main(open("Go there", screen)), walk)
    }

    fn see_all_lit(&self, left_off: &[String]) -> (StepCard, StepCard) {
        let title =
            if left_off.is_empty() { "Leave everything ON".into() } else { format!("Everything ON but {}", left_off.join(", ")) };
        let why = "A point can be proven only if it was seen lit before. Switches on, lamps in, GFCIs reset; then look at each \
                   point once.";
        let walk = "With everything on: switches on, lamps in, GFCIs reset.";
        (
            self.panel(Weight::Quiet, title, why),
            self.walk(Weight::Loud, "See that each one is lit", walk).look(false, Rest::Lit, false),
        )
    }

    fn follow_tone(&self, point: &PointId, place: &str, why: &str) -> (StepCard, StepCard) {
        const ONLY: &str = "At 120 V only, never at 240 V.";
        let heard = |b: &crate::model::Breaker| {
            let fact = Fact::ToneHeard(ToneHeard { point: point.clone(), breaker: b.id.clone() });
            record(self.number(&b.id), vec![fact])
        };
        let none = PointSkipped { point: point.clone(), reason: "no tone to be heard".into(), since: None };
        let mut panel = self.panel(Weight::Loud, "Where is the tone loudest?", format!("The sender is in {place}. {why}"));
        panel = panel.over("With the tone tracer").mind(ONLY).mind("Sweep every breaker twice, then tap the loudest.");
        panel.choices = self.home.panels().breakers().map(heard).collect();
        panel = panel.act(record("No tone", vec![Fact::PointSkipped(none)]));
        let walk = StepCard::new(StepSide::Walk, Weight::Loud, format!("Plug the sender in: {place}"), "");
        (panel, walk.over("With the tone tracer").mind(ONLY).mind("Leave it there until it was heard at the panel."))
    }

    fn see_downstream(&self, device: &PointId, name: &str, protects: &[PointId]) -> (StepCard, StepCard) {
        let mut facts = vec![Fact::DeviceWorked(DeviceWorked { device: device.clone(), worked: Worked::Reset })];
        // Entered as something else since, it only has to be reset.
        if self.home.house().point(device).is_some_and(|point| point.details.gfci) {
            facts.push(Fact::GfciProtects(GfciProtects { device: device.clone(), points: protects.to_vec() }));
        }
        let title = format!("{name} is tripped on purpose");
        match self.reader {
            Reader::Owner => {
                let why = "See what went dark with it; mark it dark in the list. Then press its reset button. Dark looks now say \
                           nothing of a breaker.";
                (
                    self.panel(Weight::Loud, title, why).over("At the GFCI").main(record("Done, it is reset", facts)),
                    self.walk(Weight::Loud, "What went dark with it?", "").look(false, Rest::Each, false),
                )
            }
            Reader::Helper => {
                let wait = "The owner sees what it darkens, and resets it.";
                (self.panel(Weight::Quiet, title.clone(), wait), self.walk(Weight::Quiet, title, wait))
            }
        }
    }

    fn stop(&self, point: &PointId, place: &str, read: &str, line: &crate::model::EntryId) -> (StepCard, StepCard) {
        let why = format!(
            "{read} Where the neutral is lost, one leg goes high and the other low: things \
             burn out and wires burn. Unplug what is plugged in. Lamps bright in one part of the house and dim in another? Call \
             the utility, too. The line-side lugs stay live with the main off."
        );
        let title = "Stop. Turn the main OFF and call an electrician";
        let mistyped = record("It was mistyped", vec![Fact::LineStruck(LineStruck { line: line.clone() })]);
        let both = |side| {
            let card = StepCard::new(side, Weight::Alarm, title, why.as_str());
            if self.reader == Reader::Helper { card.mind("Tell the owner at once.") } else { card }
        };
        let mut panel = both(StepSide::Panel);
        if self.reader == Reader::Owner {
            let mended = format!(
                "The trace goes on when {place} reads right. A 240 V outlet that is entered with 120 V? Say so at the point, under House."
            );
            panel = panel.mind(mended).act(mistyped);
            panel.meter_at = Some(point.clone());
        }
        (panel, both(StepSide::Walk))
    }

    fn leave(&self, off: &[BreakerId]) -> String {
        if off.is_empty() { "Leave everything ON".into() } else { format!("Leave {} OFF", self.numbers(off)) }
    }

    fn on_again(&self, breakers: &[BreakerId]) -> StepAct {
        let words = if breakers.len() == 1 { "It is on again" } else { "They are on again" };
        record(words, breakers.iter().map(|b| switched(b, State::On)).collect())
    }

    fn is_now(&self, breaker: &BreakerId, to: State) -> StepAct {
        record(format!("{} is {}", self.number(breaker), if to == State::On { "on" } else { "off" }), vec![switched(breaker, to)])
    }

    fn keep_on(&self, breaker: &BreakerId) -> StepAct {
        let kept = BreakerKept { breaker: breaker.clone(), kept: Some(Kept::On), reason: "as said".into() };
        let words = format!("{} must stay on", self.number(breaker));
        StepAct { words, does: Does::Record { facts: vec![Fact::BreakerKept(kept)], reason: true } }
    }

    fn handle(&self, breaker: &BreakerId) -> Option<Handle> {
        let panels = self.home.panels();
        let b = panels.breaker(breaker)?;
        let panel = panels.panel(&b.panel)?;
        let (side, _) = crate::model::position(panel, b.at[0].space)?;
        Some(Handle {
            breaker: b.id.clone(),
            number: panels.number(&b.id),
            side,
            place: place_in_words(panel, b),
            claim: b.claim.clone(),
            amps: b.amps.value(),
        })
    }

    fn number(&self, breaker: &BreakerId) -> String {
        self.home.panels().number(breaker)
    }

    fn numbers(&self, breakers: &[BreakerId]) -> String {
        breakers.iter().map(|b| self.number(b)).collect::<Vec<_>>().join(", ")
    }
}

fn switched(breaker: &BreakerId, to: State) -> Fact {
    Fact::BreakerSwitched(BreakerSwitched { breaker: breaker.clone(), to })
}

#[cfg(test)]
mod tests {
    use std::fmt::Write as _;

    use super::*;
    use crate::fixture::written;
    use crate::trace::trace_view;

    /// A card as it is read from top to bottom, with what its buttons write.
    fn read(card: &StepCard) -> String {
        let mut text = format!("{:?} | {} | {}\n", card.weight, card.over, card.title);
        for switch in &card.switches {
            let handles = switch.handles.iter().map(|h| {
                let claim = h.claim.as_ref().map_or(String::new(), |claim| format!(" “{claim}”"));
                format!("{}: {}, {} A{claim}", h.number, h.place, h.amps)
            });
            writeln!(text, "  {} {}", switch.words, handles.collect::<Vec<_>>().join("; ")).unwrap();
        }
        if !card.why.is_empty() {
            writeln!(text, "  {}", card.why).unwrap();
        }
        for caution in &card.cautions {
            writeln!(text, "  ! {caution}").unwrap();
        }
        let own = [("=", card.main.as_slice()), ("-", &card.acts), ("?", &card.choices), ("or", &card.instead)];
        for (mark, act) in own.into_iter().flat_map(|(mark, acts)| acts.iter().map(move |act| (mark, act))) {
            let does = match &act.does {
                Does::Record { facts, reason } => {
                    let facts: Vec<String> = facts.iter().map(|f| serde_json::to_string(f).unwrap()).collect();
                    format!("{}{}", facts.join(" "), if *reason { " with a reason" } else { "" })
                }
                Does::Open { screen } => format!("{screen:?}"),
            };
            writeln!(text, "  {mark} [{}] {does}", act.words).unwrap();
        }
        if let Some(Looking { listen, rest_lit, rest_dark, noticed }) = card.looking {
            writeln!(text, "  looking: by ear {listen}, rest lit {rest_lit}, rest dark {rest_dark}, noticed {noticed}").unwrap();
        }
        text
    }

    const HOUSE: &str = "panel 8\n1 20 kitchen\n3 15 rec\nroom Hall\npoint Hall light lamp\npoint Hall receptacle plug\n";
    const LIT: &str = "lit lamp\nlit plug\n";

    #[test]
    fn every_step_is_worded_once_for_owner_and_helpers() {
        let mut all = String::new();
        for (what, acts) in [
            ("nothing is entered", String::new()),
            ("everything on", HOUSE.to_owned()),
            ("a breaker tripped", format!("{HOUSE}tripped 3\n")),
            ("a breaker goes off", format!("{HOUSE}{LIT}")),
            ("it is off", format!("{HOUSE}{LIT}off 1\n")),
            ("on again", format!("{HOUSE}{LIT}off 1\ndark lamp\nlit plug\n")),
            ("has it latched?", format!("{HOUSE}{LIT}off 1\ndark lamp\nlit plug\non 1\n")),
            ("too many volts", format!("{HOUSE}{LIT}volts plug 176\n")),
            ("not sure yet", format!("{HOUSE}{LIT}off 1\ndark lamp\n")),
            ("not sure yet, on again", format!("{HOUSE}{LIT}off 1\ndark lamp\ndark lamp\nlit plug\non 1\n")),
            ("done", format!("{HOUSE}proof lamp 1\nproof plug 3\n")),
        ] {
            let home = written(&acts).home;
            let view = trace_view(&home, home.setup());
            writeln!(all, "# {what}\n{}{}", read(&view.panel), read(&view.walk)).unwrap();
            let (panel, walk) = step_cards(&home, &view.next, &view.to_switch, Reader::Helper);
            if panel != view.panel {
                writeln!(all, "helper {}", read(&panel)).unwrap();
            }
            if walk != view.walk {
                writeln!(all, "helper {}", read(&walk)).unwrap();
            }
        }
        insta::assert_snapshot!(all);
    }

    #[test]
    fn several_handles_a_tone_a_gfci_and_a_clock_are_worded() {
        let home = written(&format!("{HOUSE}7 20 shop\n")).home;
        let [one, three, seven] = ["1", "3", "7"].map(|b| format!("b{b}").parse::<BreakerId>().unwrap());
        let lamp: PointId = "lamp".parse().unwrap();
        let mut all = String::new();
        for next in [
            NextStep::SwitchTo { off: vec![one.clone(), three.clone()], on: vec![], why: "Half of what is open.".into() },
            NextStep::SwitchTo { off: vec![one.clone()], on: vec![three.clone(), seven.clone()], why: "The next group.".into() },
            NextStep::SwitchTo { off: vec![], on: vec![seven.clone()], why: "Nothing more behind it.".into() },
            NextStep::Cycle { breaker: one.clone(), why: "A point is dark that should be lit.".into() },
            NextStep::SwitchOn { breakers: vec![one.clone(), seven.clone()], why: "All looked at.".into(), rooms: vec![] },
            NextStep::LookUnder {
                off: vec![one.clone(), three],
                rooms: vec![],
                left: 1,
                why: "1 and 3 are off.".into(),
                listen: false,
            },
            NextStep::LookUnder { off: vec![one], rooms: vec![], left: 1, why: "1 is off.".into(), listen: true },
            NextStep::Watch {
                breaker: seven.clone(),
                point: lamp.clone(),
                place: "Hall, lamp".into(),
                why: "It may be on 7.".into(),
            },
            NextStep::FollowTone {
                point: lamp.clone(),
                room: "Hall".into(),
                name: "lamp".into(),
                why: "Six may feed it.".into(),
            },
            NextStep::SeeDownstream { device: lamp.clone(), name: "lamp".into(), rooms: vec![], protects: vec![] },
        ] {
            for reader in [Reader::Owner, Reader::Helper] {
                let (panel, walk) = step_cards(&home, &next, &[], reader);
                writeln!(all, "# {reader:?}\n{}{}", read(&panel), read(&walk)).unwrap();
            }
        }
        writeln!(all, "# clock\n{}", read(&over_card(&home, "fish tank", 30, &[seven]))).unwrap();
        insta::assert_snapshot!(all);
    }
}
