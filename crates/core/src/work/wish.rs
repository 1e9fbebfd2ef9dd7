//! Wishes as people say them.

use indexmap::IndexSet;

use super::of_home::{Hope, Hopes, awg_for, left_alone, load_of};
use super::problem::{Guard, WishOf};
use crate::loads::circuits;
use crate::model::{Amps, BreakerId, Panel, is_standard};
use crate::study::Study;
use crate::trace::verdict;

/// What somebody wants of a panel.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum HomeWish {
    /// A new circuit.
    Circuit {
        /// What for; may be empty.
        what: String,
        /// One or two.
        poles: usize,
        /// Of its breaker.
        amps: i64,
        /// Of its breaker.
        protection: Guard,
        /// What it takes, in amperes, where that is said.
        takes: Option<i64>,
    },
    /// Open spaces side by side.
    Spaces {
        /// How many.
        count: usize,
    },
    /// Another breaker on a circuit.
    Replace {
        /// Which.
        breaker: BreakerId,
        /// Its rating; as now where it is left out.
        amps: Option<i64>,
        /// Its kind; as now where it is left out.
        protection: Option<Guard>,
        /// Two poles where there was one: 120 V become 240 V.
        two_pole: bool,
    },
    /// The load spread over the legs.
    Level,
    /// Two circuits made one.
    Combine,
}

/// What can be said, for whoever said something else.
pub const WISHES: &str = "Say for example “40 A two-pole for the kiln that takes 32 A”, “20 A circuit for the microwave”, “two free spaces side by side”, \
                          “own circuit for the microwave”, “replace 17 with 20 A”, “GFCI for the porch”, “make the bench outlet 240 V”, \
                          “combine two light circuits” or “level the legs”.";

fn number(word: &str) -> Option<i64> {
    const WORDS: [&str; 9] = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight"];
    word.parse().ok().or_else(|| WORDS.iter().position(|known| *known == word).map(|n| n as i64))
}

/// Reads a wish about a panel.
///
/// # Errors
/// A sentence: what was not understood and what can be said, or which breaker is not there.
pub fn read_wish(home: &Study, panel: &Panel, text: &str) -> Result<HomeWish, String> {
    let low =
        text.to_lowercase().replace(['“', '”', '"', ',', '.'], " ").replace("two-pole", "twopole").replace("two pole", "twopole");
    let low = low.replace("one-pole", "onepole").replace("single-pole", "onepole").replace("one pole", "onepole");
    let words: Vec<&str> = low.split_whitespace().collect();
    let has = |word: &str| words.contains(&word);
    // `40 A`, `40a`, `240 V`; but in “replace 14a” it is the number of a breaker.
    let is_number = |n: usize| n > 0 && matches!(words[n - 1], "replace" | "make" | "for");
    let with_unit = |unit: &str| {
        words.iter().enumerate().filter(|(n, _)| !is_number(*n)).find_map(|(n, word)| {
            let joined = word.strip_suffix(unit).and_then(|figure| figure.parse::<i64>().ok());
            joined.or_else(|| if words.get(n + 1) == Some(&unit) { word.parse().ok() } else { None })
        })
    };
    let amps = with_unit("a").or_else(|| with_unit("amp")).or_else(|| with_unit("amps"));
    let volts = with_unit("v").or_else(|| with_unit("volts"));
    let guard = match () {
        () if has("dual") || has("dual-function") => Some(Guard::Dual),
        () if has("gfci") && has("afci") => Some(Guard::Dual),
        () if has("gfci") => Some(Guard::Gfci),
        () if has("afci") => Some(Guard::Afci),
        () => None,
    };
    if let Some(amps) = amps.filter(|amps| !is_standard(Amps::new(*amps as f64), home.edition())) {
        return Err(format!("There is no breaker of {amps} A: give a standard rating, 15, 20, 25, 30 A and so on."));
    }
    let breaker = |at: &str| {
        let number = at.to_uppercase();
        let known = home.panels().breakers_of(&panel.id).find(|breaker| {
            let own = breaker.number().to_uppercase();
            own == number || own.split('-').any(|part| part == number)
        });
        known.map(|breaker| breaker.id.clone()).ok_or_else(|| format!("“{}” has no breaker {at}.", panel.name))
    };
    let after = |word: &str| words.iter().position(|known| *known == word).and_then(|n| words.get(n + 1)).copied();
    if has("level") || has("balance") {
        return Ok(HomeWish::Level);
    }
    if has("combine") || has("join") {
        return Ok(HomeWish::Combine);
    }
    if let Some(what) = low.split_once("own circuit for ").map(|(_, what)| what)
        && amps.is_none()
    {
        return Ok(own_circuit(home, what.trim().trim_start_matches("the "), guard));
    }
    if let Some(at) = after("replace") {
        return Ok(HomeWish::Replace { breaker: breaker(at)?, amps, protection: guard, two_pole: false });
    }
    if let Some(at) = after("make").filter(|_| volts == Some(240)) {
        let number = at.starts_with(|c: char| c.is_ascii_digit());
        let named = low.split_once("make ").map_or("", |(_, what)| what).split(" 240").next().unwrap_or_default();
        let breaker = if number { breaker(at)? } else { of_name(home, panel, named)? };
        return Ok(HomeWish::Replace { breaker, amps, protection: None, two_pole: true });
    }
    if let (Some(guard), None, Some(at)) = (guard, amps, after("for"))
        && at.starts_with(|c: char| c.is_ascii_digit())
    {
        return Ok(HomeWish::Replace { breaker: breaker(at)?, amps: None, protection: Some(guard), two_pole: false });
    }
    if let (Some(guard), None, Some((_, named))) = (guard, amps, low.split_once(" for ")) {
        let breaker = of_name(home, panel, named)?;
        return Ok(HomeWish::Replace { breaker, amps: None, protection: Some(guard), two_pole: false });
    }
    // A space heater is no space of the panel.
    if amps.is_none() && (has("space") || has("spaces")) {
        let count = words.iter().find_map(|word| number(word)).unwrap_or(1);
        return match usize::try_from(count) {
            Ok(count @ 1..=8) => Ok(HomeWish::Spaces { count }),
            _ => Err(format!("{count} open spaces side by side are more than can be looked for: one to eight.")),
        };
    }
    if let Some(amps) = amps {
        let what = low.split_once(" for ").map_or("", |(_, what)| what);
        let what = what.split(" that takes").next().unwrap_or_default().split(" takes").next().unwrap_or_default();
        let what = what.trim().trim_start_matches("the ").to_owned();
        let poles = if has("twopole") || volts.is_some_and(|volts| volts > 150) { 2 } else { 1 };
        if !(10..=100).contains(&amps) {
            return Err(format!("A breaker of {amps} A is not for a circuit that is put in here: 10 to 100 A."));
        }
        let takes = after("takes").and_then(|figure| figure.trim_end_matches('a').parse().ok());
        if takes.is_some_and(|takes| !(1..=amps).contains(&takes)) {
            return Err(format!("What it takes has to be between 1 A and the {amps} A of its breaker."));
        }
        let protection = guard.unwrap_or(Guard::Standard);
        return Ok(HomeWish::Circuit { what, poles, amps, protection, takes });
    }
    Err(format!("“{}” was not understood. {WISHES}", text.trim()))
}

/// The breaker that feeds what is named: a room, a point, an appliance.
fn of_name(home: &Study, panel: &Panel, named: &str) -> Result<BreakerId, String> {
    let named = named.trim().trim_start_matches("the ").trim();
    let named = [" outlet", " receptacle", " circuit", " light"]
        .iter()
        .fold(named, |named, end| named.strip_suffix(end).unwrap_or(named));
    let alike = |name: &str| {
        let name = name.to_lowercase();
        !named.is_empty()
            && (name == named
                || name.split(|c: char| !c.is_alphanumeric()).any(|word| word == named)
                || name.contains(&format!("{named} ")))
    };
    let house = home.house();
    let at_loads: Vec<_> = home.loads().all().filter(|load| alike(&load.name)).map(|load| load.point.clone()).collect();
    let points: Vec<_> = house
        .points()
        .filter(|point| alike(&point.name) || alike(house.room_name(&point.room)) || at_loads.contains(&point.id))
        .collect();
    if points.is_empty() {
        return Err(format!("There is nothing called “{named}” here. {WISHES}"));
    }
    let breakers: IndexSet<BreakerId> = points.iter().filter_map(|point| verdict(home, &point.id).proven_on().cloned()).collect();
    let here: Vec<&BreakerId> =
        breakers.iter().filter(|id| home.panels().breaker(id).is_some_and(|breaker| breaker.panel == panel.id)).collect();
    match here.as_slice() {
        [one] => Ok((*one).clone()),
        [] if breakers.is_empty() => {
            Err(format!("On which breaker “{named}” is has not been proven yet: trace it first, or say the breaker’s number."))
        }
        [] => Err(format!("“{named}” is not on “{}”.", panel.name)),
        many => {
            let numbers: Vec<String> = many.iter().map(|id| home.panels().number(id)).collect();
            Err(format!("“{named}” is on {}: say which.", numbers.join(" and ")))
        }
    }
}

/// A circuit for one appliance: by what is known of it, or as is usual for a plug of 120 V.
fn own_circuit(home: &Study, what: &str, guard: Option<Guard>) -> HomeWish {
    let line = circuits(home).iter().flat_map(|circuit| &circuit.loads).find(|line| line.name.to_lowercase() == what);
    let poles = if line.is_some_and(|line| line.volts > 120) { 2 } else { 1 };
    // What runs for hours is counted at 125 %.
    let needs = line.map_or(0.0, |line| line.high.max(line.amps) * if line.continuous { 1.25 } else { 1.0 });
    let amps = [20, 30, 40, 50, 60].into_iter().find(|amps| f64::from(*amps) >= needs).map_or(60, i64::from);
    let takes = line.map(|line| (line.high.max(line.amps).ceil() as i64).clamp(1, amps));
    HomeWish::Circuit { what: what.to_owned(), poles, amps, protection: guard.unwrap_or(Guard::Standard), takes }
}

impl HomeWish {
    /// The wish of the search.
    pub(super) fn of_problem(&self, home: &Study, hopes: &Hopes) -> Result<WishOf, String> {
        Ok(match self {
            Self::Circuit { poles, amps, protection, takes, .. } => {
                let awg = awg_for(*amps).ok_or_else(|| format!("No branch circuit of {amps} A is put in here."))?;
                // Where nobody has said what it takes, it may be all that its breaker lets through.
                let load = takes.map_or(if hopes.has(Hope::Takes) { 0 } else { amps * 10 }, |takes| takes * 10);
                WishOf::Circuit {
                    poles: *poles,
                    amps: *amps,
                    awg,
                    protection: *protection,
                    load: vec![load; *poles],
                    continuous: false,
                    class: "single".into(),
                    cord: false,
                }
            }
            Self::Spaces { count } => WishOf::Spaces { count: *count },
            Self::Combine => WishOf::Spaces { count: 1 },
            Self::Level => WishOf::Level { max_diff: None },
            Self::Replace { breaker, amps, protection, two_pole } => {
                let is = home.panels().breaker(breaker).ok_or("That breaker is not there any more.")?;
                let poles = if *two_pole { 2 } else { is.poles() };
                if poles > 2 {
                    return Err("A breaker of three poles is work for an electrician.".into());
                }
                if *two_pole && is.poles() == 2 {
                    return Err(format!("{} is a two-pole already.", home.panels().number(breaker)));
                }
                if let Some(why) = left_alone(home, is) {
                    let number = home.panels().number(breaker);
                    return Err(format!("{number} is left as it is here: {why}. Ask an electrician."));
                }
                if amps.is_some_and(|amps| amps as f64 > is.amps.value()) {
                    return Err(
                        "A breaker is not made larger here: wire, splices and every receptacle of the circuit would have to \
                                allow it. Ask an electrician."
                            .into(),
                    );
                }
                let load = load_of(home, is, hopes.loads_of(breaker));
                WishOf::Replace {
                    circuit: breaker.to_string(),
                    poles,
                    amps: amps.unwrap_or(is.amps.value().round() as i64),
                    protection: protection.unwrap_or_else(|| is.protection.into()),
                    load: vec![load; poles],
                }
            }
        })
    }

    /// A new circuit of which nobody has said what it takes, as a wish as far as to that figure: `20 A one-pole for the saw that takes `.
    pub(super) fn up_to_what_it_takes(&self) -> Option<String> {
        let Self::Circuit { what, poles, amps, protection, takes: None } = self else { return None };
        let pole = if *poles == 2 { "two-pole" } else { "one-pole" };
        let guard = match protection {
            Guard::Standard => "",
            Guard::Gfci => " GFCI",
            Guard::Afci => " AFCI",
            Guard::Dual => " dual-function",
        };
        let what = if what.is_empty() { String::new() } else { format!(" for the {what}") };
        Some(format!("{amps} A {pole}{guard}{what} that takes "))
    }

    /// In words.
    pub fn words(&self, home: &Study) -> String {
        let guard = |guard: &Guard| match guard {
            Guard::Standard => "",
            Guard::Gfci => " GFCI",
            Guard::Afci => " AFCI",
            Guard::Dual => " GFCI and AFCI",
        };
        match self {
            Self::Circuit { what, poles, amps, protection, .. } => {
                let pole = if *poles == 2 { "two-pole" } else { "one-pole" };
                let what = if what.is_empty() { String::new() } else { format!(" for the {what}") };
                format!("a new circuit: {amps} A, {pole}{}{what}", guard(protection))
            }
            Self::Spaces { count: 1 } => "one open space".into(),
            Self::Spaces { count } => format!("{count} open spaces side by side"),
            Self::Level => "leveling the legs".into(),
            Self::Combine => "two circuits on one breaker".into(),
            Self::Replace { breaker, amps, protection, two_pole } => {
                let number = home.panels().number(breaker);
                let parts = [
                    amps.map(|amps| format!("{amps} A")),
                    protection.as_ref().map(|kind| guard(kind).trim().to_owned()).filter(|kind| !kind.is_empty()),
                    two_pole.then(|| "240 V in place of 120 V".to_owned()),
                ];
                let parts: Vec<String> = parts.into_iter().flatten().collect();
                let parts = if parts.is_empty() { "of the same kind".to_owned() } else { parts.join(", ") };
                format!("another breaker on {number}, {parts}")
            }
        }
    }
}
