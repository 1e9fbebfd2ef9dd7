//! The lines that speak for and against what is known of a point, so that a doubting user can follow.

use std::collections::BTreeSet;

use super::by_meter::between_in_words;
use super::neutral::{before_opening, suggested};
use super::verdict::{agrees, counted, verdict};
use super::weighed::weighed;
use crate::logbook::Metered;
use crate::logbook::{Fact, Instrument, LineStruck, Look, PointPlaced};
use crate::model::{BreakerId, EntryId, Moment, Outlets, PointDetails, PointId, PointKind, Seen, Volts};
use crate::study::Study;
use crate::trace::Verdict;

/// What part a look plays.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LineRole {
    /// One of the two looks that prove it.
    Proves,
    /// Fits what is known.
    Agrees,
    /// Disagrees with other looks.
    Disagrees,
    /// From before the point was found dark with everything on and mended; no longer counted.
    SetAside,
    /// A meter showed something between lit and dark: it speaks for nothing.
    Between,
    /// Not counted, for a reason that is told.
    Doubted,
}

/// One look.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct EvidenceLine {
    /// The line of the logbook.
    pub line: EntryId,
    /// When.
    pub at: Moment,
    /// By whom.
    pub by: String,
    /// With what.
    pub instrument: Option<Instrument>,
    /// What it showed; `None`: a meter showed something between lit and dark.
    pub seen: Option<Seen>,
    /// Volts, where a meter showed it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub volts: Option<f64>,
    /// What it did, where it was watched as a breaker was switched off and on: `went out, and came back`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub change: Option<&'static str>,
    /// The numbers of the breakers that were off.
    pub off: Vec<String>,
    /// Its part.
    pub role: LineRole,
    /// Why it does not count, where it does not: `the power had blinked`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub not_counted: Option<&'static str>,
}

/// Everything seen at a point, and what follows.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Evidence {
    /// What is known.
    pub verdict: Verdict,
    /// Why, in a sentence or two.
    pub because: String,
    /// What else could explain the lines, the likeliest first, each as a sentence with how likely it is.
    pub stories: Vec<String>,
    /// Every look, oldest first.
    pub lines: Vec<EvidenceLine>,
    /// What enters its other half as a point and has both traced anew, where two breakers seem to feed a receptacle: the tab
    /// between the halves of a duplex may have been broken off. Empty elsewhere.
    pub split: Vec<Fact>,
    /// What says that two breakers share a neutral, where the halves of a receptacle are proven on them. Empty elsewhere.
    pub neutral: Vec<Fact>,
}

/// The evidence on a point; `None` when there is no such point.
pub fn evidence(home: &Study, point: &PointId) -> Option<Evidence> {
    home.house().point(point)?;
    let all = home.looks_by_power();
    let looks: Vec<&Look> = all.iter().filter(|look| &look.point == point).collect();
    let known = verdict(home, point);
    let counted = counted(home, &looks);
    let metered: Vec<&Metered> = home.trace().metered().iter().filter(|metered| &metered.point == point).collect();
    let numbers = |off: &BTreeSet<BreakerId>| {
        let mut off: Vec<&BreakerId> = off.iter().collect();
        off.sort_by_key(|b| home.panels().breaker(b).map(|b| (b.panel.clone(), b.at[0].space)));
        off.into_iter().map(|b| home.panels().number(b)).collect()
    };
    let line = |look: &Look, role| EvidenceLine {
        line: look.line.clone(),
        at: look.at,
        by: look.by.to_string(),
        instrument: look.instrument,
        seen: Some(look.seen),
        volts: metered.iter().find(|metered| metered.line == look.line).map(|metered| metered.volts),
        change: look.watched.map(|watched| watched.saw.words()),
        off: numbers(&look.off),
        role,
        not_counted: None,
    };
    // As they were switched, without what is behind a feeder; judged by what was without power.
    let switched = home.trace().looks().iter().filter(|look| &look.point == point);
    let counts = |look: &Look| counted.iter().any(|counted| counted.line == look.line);
    let mut lines: Vec<EvidenceLine> =
        switched.zip(&looks).map(|(look, by_power)| line(look, role(by_power, &known, counts(look)))).collect();
    let doubted = home.trace().doubted().iter().filter(|(look, _)| &look.point == point);
    lines.extend(doubted.map(|(look, why)| EvidenceLine { not_counted: Some(why.words()), ..line(look, LineRole::Doubted) }));
    // What was watched is three looks by one line; the one with the breaker off stands for all.
    let is_out = |look: &&Look| look.watched.is_some_and(|watched| !watched.is_back);
    let every = home.trace().looks().iter().chain(home.trace().doubted().iter().map(|(look, _)| look));
    let out: Vec<(&EntryId, Vec<String>)> =
        every.filter(|look| &look.point == point).filter(is_out).map(|look| (&look.line, numbers(&look.off))).collect();
    lines.retain(|line| out.iter().all(|(watched, off)| **watched != line.line || line.change.is_some() && *off == line.off));
    // What a meter showed that is no look: neither lit nor dark, or not counted from the beginning.
    let no_look = metered.iter().filter(|metered| !lines.iter().any(|line| line.line == metered.line));
    let no_look: Vec<EvidenceLine> = no_look
        .map(|metered| EvidenceLine {
            line: metered.line.clone(),
            at: metered.at,
            by: metered.by.clone(),
            instrument: Some(Instrument::Meter),
            seen: metered.seen,
            volts: Some(metered.volts),
            change: None,
            off: numbers(&metered.off),
            role: if metered.doubted || metered.seen.is_some() { LineRole::Doubted } else { LineRole::Between },
            not_counted: (metered.doubted || metered.seen.is_some()).then_some("the breakers changed about then"),
        })
        .collect();
    lines.extend(no_look);
    lines.sort_by_key(|line| line.at);
    let between = between_in_words(home, point).map(|words| format!(" {words}")).unwrap_or_default();
    let opening = known.proven_on().and_then(|breaker| before_opening(home, breaker)).map(|words| format!(" {words}"));
    let because = because(home, &known) + &between + &opening.unwrap_or_default();
    let neutral = suggested(home, point);
    let stories = stories(home, point, &known);
    Some(Evidence { because, stories, neutral, split: split(home, point, &known, &lines), verdict: known, lines })
}

/// The other half as a point, and all looks struck out: of none is it known at which half it was.
fn split(home: &Study, point: &PointId, known: &Verdict, lines: &[EvidenceLine]) -> Vec<Fact> {
    let Some(first) = home.house().point(point).filter(|_| matches!(known, Verdict::Contradictory { .. })) else {
        return Vec::new();
    };
    let is_whole = first.details.half_of.is_none() && !home.house().points().any(|p| p.details.half_of.as_ref() == Some(point));
    let is_duplex =
        first.kind == PointKind::Receptacle && first.volts == Volts::new(120) && first.details.outlets == Outlets::Duplex;
    // Dark with one thing off, and dark with quite another, what was off while it was lit left out.
    let lit_with: Vec<&String> = lines.iter().filter(|l| l.seen == Some(Seen::Lit)).flat_map(|l| &l.off).collect();
    let dark = lines.iter().filter(|l| l.seen == Some(Seen::Dark));
    let blamed: Vec<Vec<&String>> = dark.map(|l| l.off.iter().filter(|b| !lit_with.contains(b)).collect()).collect();
    let named = |blamed: &&Vec<&String>| !blamed.is_empty();
    let apart = blamed.iter().filter(named).any(|a| blamed.iter().filter(named).any(|b| a.iter().all(|n| !b.contains(n))));
    let (Ok(other), true) = (format!("{point}-half").parse::<PointId>(), is_whole && is_duplex && apart) else {
        return Vec::new();
    };
    let half = PointPlaced {
        point: other,
        room: first.room.clone(),
        point_kind: first.kind,
        name: format!("{}, other half", first.name),
        volts: first.volts,
        configuration: first.configuration,
        only_one: false,
        plate: None,
        details: PointDetails { half_of: Some(point.clone()), ..first.details.clone() },
    };
    let strikes = lines.iter().map(|l| Fact::LineStruck(LineStruck { line: l.line.clone() }));
    std::iter::once(Fact::PointPlaced(half)).chain(strikes).collect()
}

fn role(look: &Look, known: &Verdict, is_counted: bool) -> LineRole {
    if !is_counted {
        return LineRole::SetAside;
    }
    match known {
        Verdict::Proven { lit, dark, .. } if [lit, dark].contains(&&look.line) => LineRole::Proves,
        Verdict::Proven { breaker, .. } if !agrees(look, breaker) => LineRole::Disagrees,
        Verdict::Contradictory { lines, .. } if lines.contains(&look.line) => LineRole::Disagrees,
        _ => LineRole::Agrees,
    }
}

/// What else could explain that the point went dark with its breaker.
fn stories(home: &Study, point: &PointId, known: &Verdict) -> Vec<String> {
    /// Less than this is not worth a sentence.
    const LEAST: f64 = 1e-6;
    let on = match known {
        Verdict::Proven { breaker, .. } => breaker,
        Verdict::Open { unsure: Some(unsure), .. } => &unsure.breaker,
        _ => return Vec::new(),
    };
    let Some(weighed) = weighed(home) else { return Vec::new() };
    let Some((p, b)) = weighed.numbers(point, on) else { return Vec::new() };
    let other = weighed.weigh.other_stories(&weighed.case, p, b);
    let number = home.panels().number(on);
    let mut each = vec![
        (other.misread, "A look was misread, and another breaker feeds it".to_owned()),
        (other.not_latched, "Another breaker feeds it, which had not latched when it was switched on".to_owned()),
        (other.tripped, "Another breaker feeds it, which tripped meanwhile".to_owned()),
        (other.outage, format!("The house had no power while {number} was off")),
        (other.by_itself, "It goes on and off by itself: a timer, a sensor, a thermostat".to_owned()),
        (other.wrong_point, "The look was at another point than this one".to_owned()),
        (other.wrong_handle, format!("Another handle was moved than {number}")),
    ];
    each.retain(|(chance, _)| *chance >= LEAST);
    each.sort_by(|a, b| b.0.total_cmp(&a.0));
    each.into_iter().map(|(chance, words)| format!("{words}: {}.", odds(chance))).collect()
}

/// `1 in 3000`, in two digits at most; `likely` from one half.
fn odds(chance: f64) -> String {
    if chance >= 0.5 {
        return "likely".into();
    }
    let one_in = 1.0 / chance;
    let step = 10_f64.powf((one_in.log10().floor() - 1.0).max(0.0));
    format!("1 in {:.0}", (one_in / step).round() * step)
}

fn because(home: &Study, known: &Verdict) -> String {
    match known {
        Verdict::Proven { breaker, .. } => {
            let number = home.panels().number(breaker);
            format!(
                "Seen lit, and dark with breaker {number} off and nothing else changed; everything else that could explain it \
                 came to less than 1 in 1000 when that was so. Proven for this point, not for its box: another circuit may be in it, and its \
                 neutral may be live."
            )
        }
        Verdict::Contradictory { because, .. } => format!("{because} Look again, or strike out the line that is wrong."),
        Verdict::Out { .. } => "Dark with everything on. Try its switch, another lamp, and every GFCI reset button; \
                                then look again. Until it is seen lit, switching breakers tells nothing about it."
            .into(),
        Verdict::ByExclusion { breakers } => {
            let numbers = breakers.iter().map(|b| home.panels().number(b)).collect::<Vec<_>>().join(" or ");
            format!(
                "No other breaker is likely any more, and {numbers} may never be off: so it is on {numbers}, by exclusion. That is \
                 no proof; treat it as live."
            )
        }
        Verdict::Open { possible, .. } if possible.is_empty() => {
            "Every breaker has been ruled out: it stayed lit with each of them off. It may be fed from elsewhere; treat it as live.".into()
        }
        Verdict::Open { unsure: Some(unsure), unreset: None, .. } => {
            let number = home.panels().number(&unsure.breaker);
            format!(
                "Seen lit, and dark with {number} off and nothing else changed. That is not sure enough yet: what else could \
                 explain it is listed below. Not proven until then."
            )
        }
        Verdict::Open { possible, unreset: Some(device), .. } => {
            let numbers = possible.iter().map(|b| home.panels().number(b)).collect::<Vec<_>>().join(", ");
            let device = home.house().point(device).map_or("", |p| &p.name);
            format!(
                "Seen lit, and dark with {numbers} off; but the GFCI {device} had been tripped in between and nothing has shown that \
                 it was reset. With {numbers} on, see this point lit, and then dark once more with it off."
            )
        }
        Verdict::Open { possible, seen_lit, .. } => {
            let numbers: Vec<_> = possible.iter().map(|b| home.panels().number(b)).collect();
            let seen = if *seen_lit { "Seen lit with everything on." } else { "Not yet seen lit with everything on." };
            match numbers.as_slice() {
                [one] => format!("{seen} Only breaker {one} is left, but it has not been seen dark with {one} off: not proven."),
                few if few.len() <= 6 => format!("{seen} It may be on {}.", few.join(", ")),
                many => format!("{seen} {} breakers are possible.", many.len()),
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::{line, written};

    #[test]
    fn why_is_said_for_each_state_of_knowledge() {
        let house = "panel 6\n1 20 a\n3 15 b\nroom Hall\npoint Hall light lamp\n";
        for (acts, says) in [
            ("", "Not yet seen lit with everything on. It may be on 1, 3."),
            ("lit lamp\noff 1\nlit lamp", "Only breaker 3 is left, but it has not been seen dark with 3 off: not proven"),
            ("lit lamp\noff 1\nlit lamp\non 1\noff 3\nlit lamp", "Every breaker has been ruled out"),
            ("lit lamp\noff 1\nlit lamp\non 1\noff 3\nlit lamp", "treat it as live"),
            ("dark lamp", "Dark with everything on"),
            ("lit lamp\noff 1\ndark lamp", "dark with 1 off and nothing else changed. That is not sure enough yet"),
            ("proof lamp 1", "dark with breaker 1 off and nothing else changed"),
            ("proof lamp 1", "not for its box"),
            ("lit lamp\noff 1\ndark lamp\nlit lamp", "strike out the line that is wrong"),
        ] {
            let home = written(&format!("{house}{acts}")).home;
            let looked = evidence(&home, &"lamp".parse().unwrap()).unwrap();
            assert!(looked.because.contains(says), "{acts}: {}", looked.because);
        }
    }

    #[test]
    fn looks_from_before_a_mend_are_shown_as_set_aside() {
        let home =
            written("panel 6\n1 20 a\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp\non 1\ndark lamp\nlit lamp")
                .home;
        let looked = evidence(&home, &"lamp".parse().unwrap()).unwrap();
        let roles: Vec<_> = looked.lines.iter().map(|l| l.role).collect();
        use LineRole::{Agrees, SetAside};
        assert_eq!(roles, [SetAside, SetAside, SetAside, Agrees]);
        assert!(evidence(&home, &"nowhere".parse().unwrap()).is_none());
    }

    #[test]
    fn a_receptacle_on_two_breakers_is_offered_to_be_entered_as_two_halves() {
        let house = "panel 6\n1 20\n3 15\n5 15\nroom Hall\npoint Hall receptacle plug\npoint Hall light lamp\n";
        let dark_twice = |p: &str| format!("{house}tripped 5\nlit {p}\noff 1\ndark {p}\non 1\noff 3\ndark {p}\non 3");
        let offered = |text: &str, p: &str| evidence(&written(text).home, &p.parse().unwrap()).unwrap().split;
        assert!(offered(&dark_twice("lamp"), "lamp").is_empty(), "a light has no halves");
        assert!(offered(&format!("{house}lit plug\noff 1\ndark plug\nlit plug"), "plug").is_empty(), "one breaker, and a slip");
        let mut w = written(&dark_twice("plug"));
        let facts = offered(&dark_twice("plug"), "plug");
        let like = w.book.lines().last().unwrap().entry.clone();
        let draft = |(n, fact): (usize, Fact)| crate::logbook::Draft { id: line(700 + n as u64), fact, ..like.clone() };
        let outcome = w.book.admit(&facts.into_iter().enumerate().map(draft).collect::<Vec<_>>()).unwrap();
        w.book.commit(outcome);
        let home = &Study::from(&w.book);
        let half = home.house().points().find(|p| p.name == "plug, other half").unwrap();
        assert_eq!(half.details.half_of.as_ref().map(ToString::to_string).as_deref(), Some("plug"));
        let plug = "plug".parse().unwrap();
        for point in [&plug, &half.id] {
            let looked = evidence(home, point).unwrap();
            assert!(matches!(looked.verdict, Verdict::Open { .. }) && looked.lines.is_empty() && looked.split.is_empty());
        }
    }
}
