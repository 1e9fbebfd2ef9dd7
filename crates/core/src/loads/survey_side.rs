//! A survey by two who are in: what each does for the next reading.
//!
//! The survey itself is a line of the logbook, so every phone goes on with the same one. Whoever holds the instrument writes the reading
//! down; the other switches, or waits.

use serde::Serialize;

use super::survey::{SurveyAsked, SurveyStep, SurveyView, survey};
use crate::model::ReadWith;
use crate::study::Study;
use crate::trace::StepSide;

/// What one side does for the next reading.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct SurveySide {
    /// How the survey stands.
    pub title: String,
    /// What to do, in a sentence or two.
    pub words: String,
    /// What is switched on, where this side does so.
    pub switch_on: Vec<String>,
    /// What to mind.
    pub cautions: Vec<String>,
    /// This side holds the instrument and writes the reading down.
    pub reads: bool,
    /// The reading; `null` where nothing more can be settled.
    pub step: Option<SurveyStep>,
}

/// The survey that everybody takes part in; `None` where there is none.
pub fn survey_together(home: &Study) -> Option<SurveyView> {
    let set = home.loads().survey()?;
    let wish = set.wish.clone()?;
    Some(survey(home, &SurveyAsked { clamp: set.clamp, ..SurveyAsked::plain(wish) }))
}

/// What this side does for the next reading; `None` where there is no survey.
pub fn survey_side(home: &Study, side: StepSide) -> Option<SurveySide> {
    let view = survey_together(home)?;
    let Some(step) = view.step else {
        let words = view.answer.unwrap_or_else(|| "Nothing more has to be read.".into());
        return Some(SurveySide {
            title: view.title,
            words,
            switch_on: Vec::new(),
            cautions: Vec::new(),
            reads: false,
            step: None,
        });
    };
    let at_panel = side == StepSide::Panel;
    // `the kettle at Kitchen, left`.
    let what = match (step.names.as_slice(), step.load.is_some()) {
        ([one], true) => one.split_once(", ").map_or_else(|| one.clone(), |(name, place)| format!("the {name} at {place}")),
        _ => format!("all of {}", step.number),
    };
    let (words, switches) = match (step.with, at_panel) {
        (ReadWith::PlugInMeter | ReadWith::LineSplitter, true) => {
            (format!("Wait. The other reads {what} at its outlet. Switch nothing meanwhile."), false)
        }
        (ReadWith::PlugInMeter | ReadWith::LineSplitter, false) => (step.words.clone(), false),
        (ReadWith::UtilityMeter, true) => (
            match step.load {
                Some(_) => format!(
                    "Stand at the utility's meter. Read its display and say so; when the other says that {what} runs, wait half a minute \
                     and read it again."
                ),
                None => format!(
                    "Switch {} off, go to the utility's meter and read its display. Switch {} on again; when the other says that all of it \
                     runs, wait half a minute and read it again.",
                    step.number, step.number
                ),
            },
            false,
        ),
        (ReadWith::UtilityMeter, false) => (
            "Go to what is listed and wait. When the other has read the meter, switch it on, say that it runs, and leave it on until the \
             other has read again. Switch nothing else."
                .into(),
            true,
        ),
        (ReadWith::Clamp, true) => (step.words.clone(), false),
        (ReadWith::Clamp, false) => {
            ("Switch on what is listed, say that it runs, and leave it on until the other has read the clamp.".into(), true)
        }
    };
    let reads = at_panel != matches!(step.with, ReadWith::PlugInMeter | ReadWith::LineSplitter);
    Some(SurveySide {
        title: view.title,
        words,
        switch_on: if switches { step.names.clone() } else { Vec::new() },
        cautions: step.cautions.clone(),
        reads,
        step: Some(step),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    const HOUSE: &str = "panel 12\n1 15 a\n3-5 30/2 b\nroom Hall\npoint Hall receptacle left\npoint Hall appliance dryer\n\
                         dryer is 240 V\nproof left 1\nproof dryer 3-5\n";

    #[test]
    fn one_reads_and_the_other_switches_or_waits() {
        let home = |acts: &str| written(&format!("{HOUSE}{acts}")).home;
        assert_eq!(survey_side(&home("load left space_heater"), StepSide::Walk), None, "nobody began one");
        let plug = home("load left space_heater\nsurvey every");
        let [panel, walk] = [StepSide::Panel, StepSide::Walk].map(|side| survey_side(&plug, side).unwrap());
        assert!(!panel.reads && panel.words.starts_with("Wait."), "{panel:?}");
        assert!(walk.reads && walk.words.starts_with("Read the portable heater"), "{walk:?}");
        let meter = home("load dryer unknown kiln\nsurvey every");
        let [panel, walk] = [StepSide::Panel, StepSide::Walk].map(|side| survey_side(&meter, side).unwrap());
        assert_eq!(panel.step.as_ref().map(|step| step.with), Some(ReadWith::UtilityMeter), "{panel:?}");
        assert!(panel.reads && panel.words.starts_with("Stand at the utility's meter."), "{panel:?}");
        assert!(!walk.reads && walk.switch_on.len() == 1, "{walk:?}");
        for side in [StepSide::Panel, StepSide::Walk] {
            let over = home("load left space_heater\nsurvey every\nsurvey over");
            assert_eq!(survey_side(&over, side), None);
        }
        let settled = survey_side(&home("load left led_60\nsurvey every"), StepSide::Walk).unwrap();
        assert!(settled.step.is_none() && !settled.reads, "{settled:?}");
    }
}
