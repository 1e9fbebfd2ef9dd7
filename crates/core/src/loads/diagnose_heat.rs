//! A breaker in a thermal picture, beside a like one that carries about as much.
//!
//! Source: common practice, from memory as tables of electrical maintenance testing have it: up to 3 °C between like parts is worth a
//! look, 4 to 15 °C is probably a fault, more than 15 °C is to be mended at once. What carries less than half of its rating would be
//! much warmer at full load: heat goes with the square of the current.

use serde::Serialize;

use crate::model::{Breaker, Moment, PhotoId};
use crate::study::Study;

/// How grave it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum HeatDegree {
    /// As warm as the like one.
    Even,
    /// Worth a look.
    Look,
    /// Probably a fault.
    Fault,
    /// To be mended at once.
    AtOnce,
}

/// A breaker in a thermal picture.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct HeatDiagnosis {
    /// How grave it is.
    pub degree: HeatDegree,
    /// What was seen, in a sentence.
    pub words: String,
    /// What to do.
    pub next: &'static str,
    /// The loads that ran.
    pub running: Vec<String>,
    /// The picture.
    pub photo: Option<PhotoId>,
    /// By whom.
    pub by: String,
    /// When.
    pub at: Moment,
}

/// Degrees Celsius above a like part from which it is worth a look, probably a fault, and to be mended at once.
const LOOK: f64 = 1.0;
const FAULT: f64 = 4.0;
const AT_ONCE: f64 = 15.0;

/// What the last thermal picture of a breaker says; `None` where there is none.
pub fn diagnose_heat(home: &Study, breaker: &Breaker) -> Option<HeatDiagnosis> {
    let seen = home.loads().heat(&breaker.id)?;
    let number = home.panels().number(&breaker.id);
    let above = seen.heat.above();
    let degree = match above {
        above if above > AT_ONCE => HeatDegree::AtOnce,
        above if above >= FAULT => HeatDegree::Fault,
        above if above >= LOOK => HeatDegree::Look,
        _ => HeatDegree::Even,
    };
    let lightly = degree > HeatDegree::Even && seen.heat.amps.is_some_and(|amps| amps < breaker.amps.value() / 2.0);
    let at_full = if lightly { " It carried less than half of its rating: at full load it is much warmer." } else { "" };
    let words = match degree {
        HeatDegree::Even => format!("In a thermal picture {number} is as warm as a like breaker beside it."),
        _ => format!(
            "In a thermal picture {number} is {above:.0} °C ({:.0} °F) warmer than a like breaker beside it.{at_full}",
            above * 1.8
        ),
    };
    let next = match degree {
        HeatDegree::AtOnce => {
            "Switch it off where that is safe and leave it off. Call an electrician: the screw, the wire's end, the contact with the bus, \
             then the breaker."
        }
        HeatDegree::Fault => {
            "Have its screw, its wire's end and its contact with the bus looked at by qualified hands, with the main off, soon."
        }
        HeatDegree::Look => "Take the picture again under full load, and once more in half a year.",
        HeatDegree::Even => "A picture with little flowing shows little: take it under full load.",
    };
    let running = seen.running.iter().filter_map(|load| Some(home.loads().load(load)?.name.clone())).collect();
    Some(HeatDiagnosis { degree, words, next, running, photo: seen.photo.clone(), by: seen.by.clone(), at: seen.at })
}
