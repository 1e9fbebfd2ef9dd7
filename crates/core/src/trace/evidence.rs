//! The lines that speak for and against what is known of a point, so that a doubting user can follow.

use super::verdict::{agrees, counted, verdict};
use crate::{BreakerId, EntryId, Home, Instrument, Look, Moment, PointId, Seen, Verdict};

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
    /// A handle had moved before it, as was told only later, or a GFCI made the point dark since: not counted.
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
    /// What it showed.
    pub seen: Seen,
    /// The numbers of the breakers that were off.
    pub off: Vec<String>,
    /// Its part.
    pub role: LineRole,
}

/// Everything seen at a point, and what follows.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Evidence {
    /// What is known.
    pub verdict: Verdict,
    /// Why, in a sentence or two.
    pub because: String,
    /// Every look, oldest first.
    pub lines: Vec<EvidenceLine>,
}

/// The evidence on a point; `None` when there is no such point.
pub fn evidence(home: &Home, point: &PointId) -> Option<Evidence> {
    home.point(point)?;
    let all = home.looks_by_power();
    let looks: Vec<&Look> = all.iter().filter(|look| &look.point == point).collect();
    let known = verdict(home, point);
    let counted = counted(home, &looks);
    let doubted = home.doubted().iter().filter(|look| &look.point == point).map(|look| EvidenceLine {
        line: look.line.clone(),
        at: look.at,
        by: look.by.clone(),
        instrument: look.instrument,
        seen: look.seen,
        off: look.off.iter().map(|b| home.number(b)).collect(),
        role: LineRole::Doubted,
    });
    let mut lines: Vec<EvidenceLine> = looks
        .iter()
        .map(|look| EvidenceLine {
            line: look.line.clone(),
            at: look.at,
            by: look.by.clone(),
            instrument: look.instrument,
            seen: look.seen,
            off: switched_off(home, &look.line).iter().map(|b| home.number(b)).collect(),
            role: role(look, &known, counted.iter().any(|l| l.line == look.line)),
        })
        .collect();
    lines.extend(doubted);
    Some(Evidence { because: because(home, &known), verdict: known, lines })
}

/// The breakers that were off themselves, without those behind a feeder.
fn switched_off(home: &Home, line: &EntryId) -> Vec<BreakerId> {
    home.looks().iter().find(|look| &look.line == line).map(|look| look.off.iter().cloned().collect()).unwrap_or_default()
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

fn because(home: &Home, known: &Verdict) -> String {
    match known {
        Verdict::Proven { breaker, .. } => {
            let number = home.number(breaker);
            format!("Seen lit, and dark with breaker {number} off and nothing else changed. No look speaks against it.")
        }
        Verdict::Contradictory { because, .. } => format!("{because} Look again, or strike out the line that is wrong."),
        Verdict::Out { .. } => "Dark with everything on. Try its switch, another lamp, and every GFCI reset button; \
                                then look again. Until it is seen lit, switching breakers tells nothing about it."
            .into(),
        Verdict::ByExclusion { breaker } => format!(
            "It stayed lit with every other breaker off, and {} may never be off: so it is fed by that one, by exclusion. \
             That is no proof; treat it as live.",
            home.number(breaker)
        ),
        Verdict::Open { possible, .. } if possible.is_empty() => {
            "Every breaker has been ruled out: it stayed lit with each of them off. It may be fed from elsewhere; treat it as live.".into()
        }
        Verdict::Open { possible, once: Some(_), .. } => {
            let number = possible.first().map_or_else(String::new, |b| home.number(b));
            format!(
                "Seen lit, and dark once with {number} off and nothing else changed. One look may be a slip, and nothing else \
                 makes {number} likely enough: see it dark once more with {number} off. Not proven until then."
            )
        }
        Verdict::Open { possible, unlatched, .. } if !unlatched.is_empty() => {
            let number = |breakers: &[BreakerId]| breakers.iter().map(|b| home.number(b)).collect::<Vec<_>>().join(", ");
            format!(
                "Seen lit, and dark with {} off; but {} had been switched on again in between and nothing has shown that it \
                 latched. With {} on, see this point lit, and then dark once more with it off.",
                number(possible),
                number(unlatched),
                number(possible)
            )
        }
        Verdict::Open { possible, seen_lit, .. } => {
            let numbers: Vec<_> = possible.iter().map(|b| home.number(b)).collect();
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
    use crate::logbook::fixture::written;

    #[test]
    fn why_is_said_for_each_state_of_knowledge() {
        let house = "panel 6\n1 20 a\n3 15 b\nroom Hall\npoint Hall light lamp\n";
        for (acts, says) in [
            ("", "Not yet seen lit with everything on. It may be on 1, 3."),
            ("lit lamp\noff 1\nlit lamp", "Only breaker 3 is left, but it has not been seen dark with 3 off: not proven"),
            ("lit lamp\noff 1\nlit lamp\non 1\noff 3\nlit lamp", "Every breaker has been ruled out"),
            ("lit lamp\noff 1\nlit lamp\non 1\noff 3\nlit lamp", "treat it as live"),
            ("dark lamp", "Dark with everything on"),
            ("lit lamp\noff 1\ndark lamp", "dark once with 1 off and nothing else changed"),
            ("lit lamp\noff 1\ndark lamp\ndark lamp", "dark with breaker 1 off and nothing else changed"),
            ("lit lamp\noff 1\ndark lamp\nlit lamp", "strike out the line that is wrong"),
        ] {
            let home = written(&format!("{house}{acts}")).home;
            let told = evidence(&home, &"lamp".parse().unwrap()).unwrap();
            assert!(told.because.contains(says), "{acts}: {}", told.because);
        }
    }

    #[test]
    fn looks_from_before_a_mend_are_shown_as_set_aside() {
        let home =
            written("panel 6\n1 20 a\nroom Hall\npoint Hall light lamp\nlit lamp\noff 1\ndark lamp\non 1\ndark lamp\nlit lamp")
                .home;
        let told = evidence(&home, &"lamp".parse().unwrap()).unwrap();
        let roles: Vec<_> = told.lines.iter().map(|l| l.role).collect();
        use LineRole::{Agrees, SetAside};
        assert_eq!(roles, [SetAside, SetAside, SetAside, Agrees]);
        assert!(evidence(&home, &"nowhere".parse().unwrap()).is_none());
    }
}
