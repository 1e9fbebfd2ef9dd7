//! The fingerpost: the panel laid out as rows of a post with blades left and right.
//! The web draws it; what goes where is worked out here.

use super::{Breaker, Half, Leg, Panel, Protection, Side, State, legs_of, place_in_words, position, volts_between};
use crate::{Amps, BreakerId, Home, Kept, PointId, Verdict, Volts, Wire, largest_breaker, verdicts, wording};

/// One row of the post.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PostRow {
    /// From 0, top to bottom.
    pub row: u8,
    /// The leg that feeds it.
    pub leg: Leg,
}

/// A breaker as a blade of the post.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Blade {
    /// Which breaker.
    pub breaker: BreakerId,
    /// `5-7`, `14a`.
    pub number: String,
    /// The column it sits in.
    pub side: Side,
    /// Its first row, from 0.
    pub row: u8,
    /// How many rows it spans.
    pub rows: u8,
    /// Upper or lower half of its row, for a tandem handle.
    pub half: Option<Half>,
    /// The leg of each pole.
    pub legs: Vec<Leg>,
    /// Volts between its poles, or to neutral for one pole.
    pub volts: Volts,
    /// Its rating.
    pub amps: Amps,
    /// Its kind.
    pub protection: Protection,
    /// The wire on it, where read.
    pub wire: Option<Wire>,
    /// The largest breaker for that wire.
    pub wire_allows: Option<Amps>,
    /// Where its handle stands.
    pub state: State,
    /// What the old card claims.
    pub claim: Option<String>,
    /// Must stay on, or is left off.
    pub kept: Option<Kept>,
    /// Why it is kept so.
    pub kept_reason: Option<String>,
    /// `left column, 6th down`.
    pub place: String,
    /// What it feeds as far as proven, worded for the card; empty when nothing is.
    pub wording: String,
    /// Points proven on it.
    pub proven: usize,
    /// Unproven points that nothing seen so far rules out for it.
    pub possible: usize,
}

/// A space without a breaker.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct OpenSpace {
    /// Its number.
    pub space: u8,
    /// Its column.
    pub side: Side,
    /// Its row, from 0.
    pub row: u8,
    /// Only this half is open: the other holds a tandem handle.
    pub half: Option<Half>,
}

/// The whole post.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Post {
    /// The panel.
    pub panel: Panel,
    /// Its rows, top to bottom.
    pub rows: Vec<PostRow>,
    /// Its breakers, left column first, each column from the top.
    pub blades: Vec<Blade>,
    /// Its open spaces, in the same order.
    pub open: Vec<OpenSpace>,
}

/// Lays out the home's panel; `None` before one is described.
pub fn post(home: &Home) -> Option<Post> {
    post_from(home, &verdicts(home))
}

/// The same, from verdicts that are at hand.
pub(crate) fn post_from(home: &Home, known: &[(PointId, Verdict)]) -> Option<Post> {
    let panel = home.panel()?;
    let mut blades: Vec<Blade> = home.breakers_of(&panel.id).map(|b| blade(home, panel, b, known)).collect();
    blades.sort_by_key(|b| (b.side, b.row, b.half));
    let mut open = Vec::new();
    for side in [Side::Left, Side::Right] {
        for row in 0..panel.rows() {
            let Some(space) = panel.space_at(side, row) else { continue };
            let here: Vec<Option<Half>> = home
                .breakers_of(&panel.id)
                .flat_map(|b| b.at.iter())
                .filter(|slot| slot.space == space)
                .map(|slot| slot.half)
                .collect();
            match here.as_slice() {
                [] => open.push(OpenSpace { space, side, row, half: None }),
                [Some(Half::Upper)] => open.push(OpenSpace { space, side, row, half: Some(Half::Lower) }),
                [Some(Half::Lower)] => open.push(OpenSpace { space, side, row, half: Some(Half::Upper) }),
                _ => {}
            }
        }
    }
    let rows = (0..panel.rows()).map(|row| PostRow { row, leg: panel.leg_of_row(row) }).collect();
    Some(Post { panel: panel.clone(), rows, blades, open })
}

fn blade(home: &Home, panel: &Panel, breaker: &Breaker, known: &[(PointId, Verdict)]) -> Blade {
    let (side, row) = breaker
        .at
        .first()
        .and_then(|slot| position(panel, slot.space))
        .unwrap_or_else(|| panic!("breaker {} sits outside its panel; this is a bug", breaker.id));
    let legs = legs_of(panel, &breaker.at);
    let proven = known.iter().filter(|(_, v)| v.proven_on() == Some(&breaker.id)).count();
    let possible = known.iter().filter(|(_, v)| matches!(v, Verdict::Open { possible, .. } if possible.contains(&breaker.id)));
    Blade {
        breaker: breaker.id.clone(),
        number: breaker.number(),
        side,
        row,
        rows: breaker.at.len() as u8,
        half: breaker.at[0].half,
        volts: volts_between(panel.service, &legs),
        legs,
        amps: breaker.amps,
        protection: breaker.protection,
        wire: breaker.wire,
        wire_allows: breaker.wire.map(largest_breaker),
        state: breaker.state,
        claim: breaker.claim.clone(),
        kept: breaker.kept.as_ref().map(|(kept, _)| *kept),
        kept_reason: breaker.kept.as_ref().map(|(_, reason)| reason.clone()),
        place: place_in_words(panel, breaker),
        wording: wording(home, &breaker.id, known),
        proven,
        possible: possible.count(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::logbook::fixture::written;

    #[test]
    fn blades_and_open_spaces_cover_the_panel_once() {
        let home = written("panel 12\n1 20 a\n5-7 50 b\n2a 15 c\n2b 15 d\n4a 15 e\n8-10 30 f").home;
        let post = post(&home).unwrap();
        assert_eq!(post.rows.iter().map(|row| row.leg).collect::<Vec<_>>(), [Leg::A, Leg::B, Leg::A, Leg::B, Leg::A, Leg::B]);
        let blades: Vec<_> = post.blades.iter().map(|b| (b.number.as_str(), b.side, b.row, b.rows, b.volts.value())).collect();
        assert_eq!(
            blades,
            [
                ("1", Side::Left, 0, 1, 120),
                ("5-7", Side::Left, 2, 2, 240),
                ("2a", Side::Right, 0, 1, 120),
                ("2b", Side::Right, 0, 1, 120),
                ("4a", Side::Right, 1, 1, 120),
                ("8-10", Side::Right, 3, 2, 240),
            ]
        );
        let open: Vec<_> = post.open.iter().map(|o| (o.space, o.half)).collect();
        assert_eq!(open, [(3, None), (9, None), (11, None), (4, Some(Half::Lower)), (6, None), (12, None)]);
    }

    #[test]
    fn a_blade_says_what_is_proven_and_what_may_be() {
        let home = written(
            "panel 12\n1 20 a\n3 15 b\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door\nlit lamp\nlit door\noff 1\ndark lamp\non 1",
        )
        .home;
        let post = post(&home).unwrap();
        let said: Vec<_> = post.blades.iter().map(|b| (b.wording.as_str(), b.proven, b.possible)).collect();
        assert_eq!(said, [("Hall: light", 1, 1), ("", 0, 1)]);
    }
}
