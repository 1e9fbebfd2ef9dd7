//! A look in words: what to do, what to mind, what it may show. One wording for every screen and the command line.

use super::case::{State, Takes};
use super::look::{Look, Saw};
use super::of_home::AtHome;
use crate::model::{BreakerId, DangerSign, Moment, TroubleLook, TroubleSaw};
use crate::study::Study;

/// An answer to a look, as on a button.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct TroubleAnswer {
    /// As on the button.
    pub label: String,
    /// What it writes.
    pub saw: TroubleSaw,
    /// It is one of the usual answers; the others stand below, smaller.
    pub usual: bool,
    /// It is a sign of danger.
    pub danger: bool,
}

/// The next look.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct NextLook {
    /// The look, as the logbook takes it.
    pub look: TroubleLook,
    /// What to do: `Look at the bath outlet by the mirror`.
    pub title: String,
    /// How.
    pub how: Vec<String>,
    /// What the likeliest answers would leave.
    pub decides: Vec<String>,
    /// What to mind, where somebody may be hurt.
    pub mind: Vec<String>,
    /// Seconds with the way there.
    pub seconds: u32,
    /// Who may do it; empty: anybody.
    pub who: String,
    /// The answers, the usual first.
    pub answers: Vec<TroubleAnswer>,
    /// A number is answered, in volts.
    pub volts: bool,
    /// Any handle of the panel may be named.
    pub handles: Vec<HandleToName>,
}

/// A handle that may be named as tripped or off.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct HandleToName {
    /// The breaker.
    pub breaker: BreakerId,
    /// `17`.
    pub number: String,
}

/// A look that was made.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct LookMade {
    /// In words.
    pub words: String,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// The line, to be struck out.
    pub line: crate::model::EntryId,
}

/// Touching handles.
const HANDLES: &str = "Dry hands, dry floor, one hand. Touch the handles and nothing else; the cover stays on.";
/// Volts at an outlet.
const METER: &str = "Only who has done it before: a meter and probes rated for the mains, fingers behind the guards, the meter tried before and after.";
/// A dark point may still be hot.
pub(super) const STILL_HOT: &str = "Dark is not dead: with an open neutral it is still hot.";

/// The look in words.
pub(super) fn said(home: &Study, at: &AtHome, look: Look, told: TroubleLook, seconds: f64, decides: Vec<String>) -> NextLook {
    let words = Words { home, at };
    let handles = match look {
        Look::Handles(panel) => words.handles(panel),
        _ => Vec::new(),
    };
    NextLook {
        title: words.title(look),
        how: words.how(look),
        decides,
        mind: words.mind(look),
        seconds: seconds.round() as u32,
        who: if matches!(look, Look::Meter(_)) { "Who is used to a meter".into() } else { String::new() },
        answers: words.answers(look),
        volts: matches!(look, Look::Meter(_)),
        handles,
        look: told,
    }
}

/// Names of the home's things.
pub(super) struct Words<'a> {
    pub(super) home: &'a Study,
    pub(super) at: &'a AtHome,
}

impl Words<'_> {
    /// `Bath, mirror`.
    pub(super) fn point(&self, point: usize) -> String {
        match self.at.points.get(point).cloned().flatten() {
            Some(id) => self.home.house().place(&id),
            None if self.at.case.report.tripped_handle.is_some() => "what it feeds".into(),
            None => "the place itself".into(),
        }
    }

    /// `17`.
    pub(super) fn number(&self, breaker: usize) -> Option<String> {
        self.at.breakers.get(breaker).cloned().flatten().map(|id| self.home.panels().number(&id))
    }

    /// `breaker 17`.
    pub(super) fn breaker(&self, breaker: usize) -> String {
        self.number(breaker).map_or_else(|| "its breaker".into(), |number| format!("breaker {number}"))
    }

    /// `the panel`, `the shed panel`.
    pub(super) fn panel(&self, panel: usize) -> String {
        let known = self.at.panels.get(panel).cloned().flatten().and_then(|id| self.home.panels().panel(&id).cloned());
        match known {
            Some(panel) if self.at.panels.len() > 1 => format!("the panel “{}”", panel.name),
            _ => "the panel".into(),
        }
    }

    /// `the microwave`.
    pub(super) fn load(&self, load: usize) -> String {
        let known = self.at.loads.get(load).cloned().flatten().and_then(|id| self.home.loads().load(&id).cloned());
        known.map_or_else(|| "what is plugged in".into(), |load| format!("the {}", load.name))
    }

    /// The reported point.
    pub(super) fn reported(&self) -> String {
        self.point(self.at.case.report.point)
    }

    fn handles(&self, panel: usize) -> Vec<HandleToName> {
        let here = (0..self.at.breakers.len()).filter(|b| self.at.case.breakers[*b].panel == panel);
        here.filter_map(|b| {
            let id = self.at.breakers[b].clone()?;
            Some(HandleToName { number: self.home.panels().number(&id), breaker: id })
        })
        .collect()
    }

    pub(super) fn title(&self, look: Look) -> String {
        let reported = self.reported();
        match look {
            Look::Safety => "First: is there any sign of danger?".into(),
            Look::Point(p) if self.at.case.points[p].takes == Takes::Receptacle => {
                format!("Plug a tester in: {}", self.point(p))
            }
            Look::Point(p) => format!("Look at {}", self.point(p)),
            Look::Meter(p) => format!("Measure volts: {}", self.point(p)),
            Look::Outlet(p) => format!("Plug a tester in behind {}", self.point(p)),
            Look::Handles(panel) => format!("Look along the handles of {}", self.panel(panel)),
            Look::Feel(b) => format!("Feel the handle of {}", self.breaker(b)),
            Look::Indicator(b) => format!("Look at the lamp on {}", self.breaker(b)),
            Look::Gfci(p) if self.at.case.report.point == p => format!("Press RESET: {reported}"),
            Look::Gfci(p) => format!("Press RESET: {}. Then look at {reported}", self.point(p)),
            Look::Toggle(s) => match self.at.switches.get(s).cloned().flatten() {
                Some(id) => format!("Move the switch: {}", self.home.house().place(&id)),
                None => format!("Move the switch of {reported}"),
            },
            Look::Control(_) => format!("Make what switches {reported} switch on"),
            Look::Lamp(p) => format!("Put a good lamp in: {}", self.point(p)),
            Look::Elsewhere(p) => format!("Try what was plugged in at {} somewhere else", self.point(p)),
            Look::Cutout(p) => format!("Push in its own cut-out: {}", self.point(p)),
            Look::Inspect(load) => format!("Look at the cord and plug of {}", self.load(load)),
            Look::Reset(b) => format!("Reset {}, once", self.breaker(b)),
            Look::Add(load) => format!("Put {} back on", self.load(load)),
            Look::Neighbors => "Do the neighbors have light?".into(),
        }
    }

    fn how(&self, look: Look) -> Vec<String> {
        let said: &[&str] = match look {
            Look::Safety => &["Smell, listen and look around; touch nothing for it."],
            Look::Point(p) => match self.at.case.points[p].takes {
                Takes::Receptacle => &["Both halves of the outlet. A lamp that works will do where there is no tester."],
                Takes::Light => &["Its switch on."],
                Takes::Appliance => &["A lamp, a clock or its hum shows whether it has power."],
                Takes::Appliance240 => &["With one leg missing it shows some life and heats little or not at all."],
            },
            Look::Meter(_) => &[
                "Alternating volts, the short slot to the long one.",
                "Where that is 0, measure the short slot to the round hole, too: the ground.",
            ],
            Look::Outlet(_) => &["Pull the appliance's plug and put the tester in its place."],
            Look::Handles(_) => &["A tripped one stands between on and off, or loose; on some only a color shows."],
            Look::Feel(_) => {
                &["Touch it, and do not push it over: firm is on; loose or springy, between on and off, is tripped."]
            }
            Look::Indicator(_) => &["Some show a lamp or a code after a trip; its leaflet or its label says which."],
            Look::Gfci(_) => &["It clicks and stays in if it was tripped and has power."],
            Look::Toggle(_) => &["To the other side and back; a dimmer up. Where two switches work it, try both."],
            Look::Control(_) => &["Set a timer to on, cover a daylight eye, walk before a motion eye and wait a minute."],
            Look::Lamp(_) => &["One that works elsewhere, of the kind that belongs there."],
            Look::Elsewhere(_) => &["At an outlet that works and that another breaker feeds."],
            Look::Cutout(_) => &["A small button on it, its plug or its motor; a heater may have to cool first."],
            Look::Inspect(_) => &["Pulled out: brown, melted, bent or bare anywhere."],
            Look::Reset(_) => &[
                "Unplug or switch off everything on it first. Then fully off, then firmly on.",
                "If it trips again or does not stay in, leave it off.",
            ],
            Look::Add(_) => &["One thing at a time, with a minute in between. The first that trips it ends this."],
            Look::Neighbors => &["A window, a street lamp, a call."],
        };
        said.iter().map(|s| (*s).to_owned()).collect()
    }

    fn mind(&self, look: Look) -> Vec<String> {
        match look {
            Look::Handles(_) | Look::Feel(_) | Look::Indicator(_) => vec![HANDLES.into()],
            Look::Reset(_) => vec![
                HANDLES.into(),
                "A tag, a lock or somebody at work on it: it stays as it is. Ask first.".into(),
                "Stand to its side and look away as you switch. Once only: a breaker that trips again has a reason.".into(),
            ],
            Look::Gfci(_) => vec![
                "Dry hands. Not if it is wet, hot or smells. What is plugged in behind it starts again: switch that off first."
                    .into(),
            ],
            Look::Add(_) => vec!["Nothing that smells, smokes or has a damaged cord goes back on.".into()],
            Look::Meter(_) => vec![METER.into(), STILL_HOT.into()],
            Look::Lamp(_) => vec!["Switch off, let the old lamp cool, do not touch the threads.".into()],
            Look::Elsewhere(_) => {
                vec!["Not if it smelled, smoked, hummed or tripped something: then leave it unplugged.".into()]
            }
            Look::Inspect(_) | Look::Outlet(_) => vec!["Hold the plug, not the cord. Not if it is hot, wet or brown.".into()],
            _ => Vec::new(),
        }
    }

    fn answers(&self, look: Look) -> Vec<TroubleAnswer> {
        let reported = self.reported();
        let word = |saw: Saw, label: &str, usual: bool| {
            let word = match saw {
                Saw::StaysDark => "stays_dark".into(),
                other => other.to_string(),
            };
            TroubleAnswer { label: label.into(), saw: TroubleSaw::Word(word), usual, danger: false }
        };
        let shows = |state: State, label: &str, usual: bool| word(Saw::Shows(state), label, usual);
        match look {
            Look::Safety => {
                let danger = |sign: DangerSign| TroubleAnswer {
                    label: sign.words().into(),
                    saw: TroubleSaw::Danger(sign),
                    usual: false,
                    danger: true,
                };
                [word(Saw::Normal, "None of these", true)]
                    .into_iter()
                    .chain([word(Saw::Odd, "Lamps are brighter or dimmer than usual", false)])
                    .chain(DangerSign::ALL.into_iter().map(danger))
                    .collect()
            }
            Look::Point(p) => match self.at.case.points[p].takes {
                Takes::Receptacle => vec![
                    shows(State::Live, "It has power", true),
                    shows(State::Dark, "It is dark", true),
                    shows(State::OpenNeutral, "The tester shows an open neutral", false),
                    shows(State::Half, "One half is dead", false),
                    shows(State::Flicker, "It comes and goes", false),
                ],
                Takes::Light => vec![
                    shows(State::Live, "It is lit", true),
                    shows(State::Dark, "It is dark", true),
                    shows(State::Dim, "Dimmer than usual", false),
                    shows(State::Bright, "Brighter than usual", false),
                    shows(State::Flicker, "It flickers", false),
                ],
                Takes::Appliance => vec![
                    shows(State::Live, "It has power", true),
                    shows(State::Dark, "It is dark", true),
                    shows(State::Dim, "It runs weakly", false),
                    shows(State::Flicker, "It comes and goes", false),
                ],
                Takes::Appliance240 => vec![
                    shows(State::Live, "It works", true),
                    shows(State::Dark, "It is dark", true),
                    shows(State::Partial, "Some life, little heat", false),
                ],
            },
            Look::Outlet(_) => vec![
                shows(State::Live, "The outlet has power", true),
                shows(State::Dark, "The outlet is dark", true),
                shows(State::OpenNeutral, "The tester shows an open neutral", false),
            ],
            Look::Meter(_) => vec![
                word(Saw::V0Hg120, "0 V, and about 120 V from the short slot to ground", false),
                word(Saw::Wander, "The volts do not stand still", false),
            ],
            Look::Handles(_) => vec![word(Saw::None, "All stand on", true), word(Saw::Other, "The main is out of place", false)],
            Look::Feel(_) => vec![
                word(Saw::IsOn, "Firmly on", true),
                word(Saw::IsTripped, "Springy: tripped", true),
                word(Saw::IsOff, "It is off", false),
            ],
            Look::Indicator(_) => vec![
                word(Saw::None, "Nothing", true),
                word(Saw::Arc, "An arc", false),
                word(Saw::Ground, "A ground fault", false),
                word(Saw::Over, "Too much current", false),
            ],
            Look::Gfci(p) => {
                let it = if self.at.case.report.point == p { "it".into() } else { reported };
                vec![
                    word(Saw::ResetWorks, &format!("It clicked in, and {it} works"), true),
                    word(Saw::OkLive, "It was not tripped, and has power", true),
                    word(Saw::ResetNoHelp, &format!("It clicked in; {it} stays dark"), false),
                    word(Saw::ClicksDead, "It clicks and gives no power", false),
                    word(Saw::WontLatch, "It does not stay in", false),
                ]
            }
            Look::Toggle(_) | Look::Control(_) | Look::Lamp(_) => {
                vec![word(Saw::Lit, "Now there is light", true), word(Saw::StaysDark, "It stays dark", true)]
            }
            Look::Neighbors => vec![word(Saw::Lit, "They have", true), word(Saw::StaysDark, "They are dark, too", true)],
            Look::Elsewhere(_) => vec![word(Saw::Works, "It works there", true), word(Saw::Dead, "It does not", true)],
            Look::Cutout(_) => vec![word(Saw::Works, "Now it works", true), word(Saw::Dead, "It does not", true)],
            Look::Inspect(_) => vec![word(Saw::Clean, "All sound", true), word(Saw::Marks, "Burnt or damaged", true)],
            Look::Reset(_) => vec![
                word(Saw::HoldsLive, &format!("It holds, and {reported} has power"), true),
                word(Saw::HoldsDead, &format!("It holds; {reported} stays dark"), false),
                word(Saw::AtOnce, "It tripped again at once", true),
                word(Saw::Later, "It tripped again after a while", false),
                word(Saw::WontLatch, "It does not stay in", false),
            ],
            Look::Add(_) => vec![word(Saw::Holds, "It holds", true), word(Saw::Trips, "It trips", true)],
        }
    }
}

impl Words<'_> {
    /// What a look showed, in a few words.
    pub(super) fn saw(&self, look: &TroubleLook, saw: &TroubleSaw) -> String {
        let breaker = |id: &BreakerId| format!("breaker {}", self.home.panels().number(id));
        match saw {
            TroubleSaw::Word(word) => crate::logbook::saw_in_words(look, word).to_owned(),
            TroubleSaw::Tripped(b) => format!("{} stands tripped", breaker(b)),
            TroubleSaw::Off(b) => format!("{} stands off", breaker(b)),
            TroubleSaw::Volts(volts) => format!("{volts} V"),
            TroubleSaw::Danger(sign) => sign.words().to_owned(),
            TroubleSaw::CannotTell => "could not be told".to_owned(),
        }
    }

    /// As on the button.
    fn label(&self, look: Look, saw: Saw) -> Option<String> {
        let word = TroubleSaw::Word(saw.to_string());
        self.answers(look).into_iter().find(|answer| answer.saw == word).map(|answer| answer.label)
    }

    /// The same for what it may show.
    pub(super) fn would_show(&self, look: Look, saw: Saw) -> String {
        match saw {
            Saw::Tripped(b) => format!("{} stands tripped", self.breaker(b)),
            Saw::Off(b) => format!("{} stands off", self.breaker(b)),
            Saw::V120 => "about 120 V".into(),
            Saw::V0 | Saw::V0Hg120 => "0 V".into(),
            Saw::High | Saw::Danger => "too many volts".into(),
            Saw::Low | Saw::Wander | Saw::Ghost => "too few volts".into(),
            _ if self.label(look, saw).is_some() => self.label(look, saw).unwrap_or_default(),
            _ => self
                .at
                .as_told(look)
                .map_or_else(String::new, |told| crate::logbook::saw_in_words(&told, &saw.to_string()).to_owned()),
        }
    }
}
