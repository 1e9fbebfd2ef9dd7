//! The panel as the fingerpost shows it: rows from the top, breakers left and right of them.
//! The web draws it; what goes where is worked out here.

use crate::model::{
    Amps, Breaker, BreakerDetails, BreakerId, Half, Housing, Kept, Leg, OtherSource, Panel, PanelId, Photo, PostRow, Protection,
    Side, Slot, State, Volts, Wire, downward, fits, largest_breaker, legs_of, number_of, place_in_words, position, volts_between,
};
use crate::study::Study;
use crate::trace::on_breaker;
use crate::wording::wording;

/// A stretch of a column, in half rows from the top of the panel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, utoipa::ToSchema)]
pub struct Part {
    /// Where it begins, in half rows: row 3 (from 0) begins at 6.
    pub top: u8,
    /// How many half rows it covers.
    pub height: u8,
}

impl Part {
    fn of(row: u8, half: Option<Half>) -> Self {
        match half {
            None => Self { top: 2 * row, height: 2 },
            Some(Half::Upper) => Self { top: 2 * row, height: 1 },
            Some(Half::Lower) => Self { top: 2 * row + 1, height: 1 },
        }
    }
}

/// A panel that a breaker feeds.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct FeedsPanel {
    /// The panel.
    pub panel: PanelId,
    /// Its name.
    pub name: String,
}

/// A breaker as it hangs there, with what is known of it.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct BreakerView {
    /// The breaker.
    pub breaker: BreakerId,
    /// `5-7`, `14a`: as it is said at this panel.
    pub number: String,
    /// `5-7`, `G3`: as it is said anywhere in the home.
    pub tag: String,
    /// The column it sits in.
    pub side: Side,
    /// Its poles, from the top.
    pub poles: Vec<Part>,
    /// The stretches it covers: one, or two for the outer handles of a quad.
    pub parts: Vec<Part>,
    /// What its handles share.
    pub housing: Housing,
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
    /// What else is known of it.
    pub details: BreakerDetails,
    /// The panels it feeds.
    pub feeds: Vec<FeedsPanel>,
    /// Breakers whose circuits share a neutral with its own; itself alone: its own poles share one.
    pub shares_neutral_with: Vec<BreakerId>,
    /// Where its handle stands.
    pub state: State,
    /// What the old card claims.
    pub claim: Option<String>,
    /// Must stay on, or is left off.
    pub kept: Option<Kept>,
    /// Why it is kept so.
    pub kept_reason: Option<String>,
    /// Breakers behind it that must stay on, with why: it is never to be switched off.
    pub kept_behind: Vec<String>,
    /// `left column, 6th down`.
    pub place: String,
    /// What it feeds as far as proven, worded for the card; empty when nothing is.
    pub wording: String,
    /// Points proven on it.
    pub proven: usize,
    /// Unproven points that nothing seen so far rules out for it.
    pub possible: usize,
}

/// A space, or half of one, without a breaker.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct OpenSpace {
    /// `9`, or `4b` where the other half holds a handle.
    pub number: String,
    /// Its column.
    pub side: Side,
    /// Where it is.
    pub part: Part,
    /// Whether a filler closes it; `null`: nobody has looked.
    pub filler: Option<bool>,
    /// Where a breaker of one, two or three poles would sit whose top pole is here: `9`, `9-11`. Those that fit.
    pub fits: Vec<String>,
}

/// Where a space is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct SpaceSpot {
    /// Its number.
    pub space: u8,
    /// Its column.
    pub side: Side,
    /// Its row, from 0.
    pub row: u8,
}

/// A whole panel.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PanelView {
    /// The panel.
    pub panel: Panel,
    /// Its rows, top to bottom.
    pub rows: Vec<PostRow>,
    /// Its breakers, left column first, each column from the top.
    pub breakers: Vec<BreakerView>,
    /// Its open spaces, in the same order.
    pub open: Vec<OpenSpace>,
    /// Every space, in the same order.
    pub spaces: Vec<SpaceSpot>,
    /// Its photos, in the order of entry.
    pub photos: Vec<Photo>,
    /// What else feeds it, or that nobody has asked; `null` when nothing else does.
    pub also_fed: Option<AlsoFed>,
}

/// What else than the service or a feeder may put power on a panel.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct AlsoFed {
    /// As a sentence.
    pub words: String,
    /// There is such a source: with the main off it can still be live.
    pub live: bool,
}

fn also_fed(sources: Option<&[OtherSource]>) -> Option<AlsoFed> {
    let Some(sources) = sources else {
        let ask = "Nobody has asked yet what else feeds this panel: a generator, a battery, solar? Describe the panel.";
        return Some(AlsoFed { words: ask.into(), live: false });
    };
    let said = |source: &OtherSource| match source {
        OtherSource::StandbyGenerator => "a standby generator, which starts by itself when the main opens".to_owned(),
        OtherSource::Solar => "solar".to_owned(),
        other => format!("a {}", other.word()),
    };
    let named = sources.iter().map(said).collect::<Vec<_>>().join("; ");
    let words = format!("Also fed by {named}. With the main off it can still be live.");
    (!sources.is_empty()).then_some(AlsoFed { words, live: true })
}

struct PanelViews(Vec<PanelView>);

/// Lays out every panel, in the order of entry.
pub fn panel_views(home: &Study) -> &[PanelView] {
    &home.once(|| PanelViews(home.panels().all().map(|panel| lay_out(home, panel)).collect())).0
}

/// A panel laid out; `None` when there is no such panel.
pub fn panel_view<'a>(home: &'a Study, panel: &PanelId) -> Option<&'a PanelView> {
    panel_views(home).iter().find(|view| &view.panel.id == panel)
}

fn lay_out(home: &Study, panel: &Panel) -> PanelView {
    let mut breakers: Vec<BreakerView> = home.panels().breakers_of(&panel.id).map(|b| view_of(home, panel, b)).collect();
    breakers.sort_by_key(|b| (b.side, b.poles[0]));
    let taken: Vec<Slot> = home.panels().breakers_of(&panel.id).flat_map(|b| b.at.iter().copied()).collect();
    let mut open = Vec::new();
    for side in [Side::Left, Side::Right] {
        for row in 0..panel.rows() {
            let Some(space) = panel.space_at(side, row) else { continue };
            let here: Vec<Option<Half>> = taken.iter().filter(|slot| slot.space == space).map(|slot| slot.half).collect();
            let half = match here.as_slice() {
                [] => None,
                [Some(Half::Upper)] => Some(Half::Lower),
                [Some(Half::Lower)] => Some(Half::Upper),
                _ => continue,
            };
            let slot = Slot { space, half };
            let filler = home.panels().filler(&panel.id, slot);
            let fits = places_from(home, panel, slot);
            open.push(OpenSpace { number: slot.to_string(), side, part: Part::of(row, half), filler, fits });
        }
    }
    let rows = (0..panel.rows()).map(|row| PostRow { row, leg: panel.leg_of_row(row) }).collect();
    let spot = |space| position(panel, space).map(|(side, row)| SpaceSpot { space, side, row });
    let spaces = panel.every_space().into_iter().filter_map(spot).collect();
    let photos = home.panels().photos().iter().filter(|photo| photo.panel == panel.id).cloned().collect();
    PanelView { also_fed: also_fed(panel.details.sources.as_deref()), panel: panel.clone(), rows, breakers, open, spaces, photos }
}

fn view_of(home: &Study, panel: &Panel, breaker: &Breaker) -> BreakerView {
    let spots: Vec<(Side, Part)> = breaker
        .at
        .iter()
        .filter_map(|slot| position(panel, slot.space).map(|(side, row)| (side, Part::of(row, slot.half))))
        .collect();
    let Some((side, _)) = spots.first().copied() else { panic!("breaker {} sits outside its panel; this is a bug", breaker.id) };
    let poles: Vec<Part> = spots.into_iter().map(|(_, part)| part).collect();
    let mut parts: Vec<Part> = Vec::new();
    for pole in &poles {
        match parts.last_mut() {
            Some(part) if part.top + part.height == pole.top => part.height += pole.height,
            _ => parts.push(*pole),
        }
    }
    let legs = legs_of(panel, &breaker.at);
    let known = on_breaker(home, &breaker.id);
    BreakerView {
        breaker: breaker.id.clone(),
        number: breaker.number(),
        tag: home.panels().number(&breaker.id),
        side,
        poles,
        parts,
        housing: breaker.housing(),
        volts: volts_between(panel.service, &legs),
        legs,
        amps: breaker.amps,
        protection: breaker.protection,
        wire: breaker.wire,
        wire_allows: breaker.wire.map(|wire| largest_breaker(wire, home.edition())),
        details: breaker.details.clone(),
        feeds: home.panels().panels_on(&breaker.id).map(|p| FeedsPanel { panel: p.id.clone(), name: p.name.clone() }).collect(),
        shares_neutral_with: home.panels().shared_neutral_of(&breaker.id).cloned().unwrap_or_default(),
        state: breaker.state,
        claim: breaker.claim.clone(),
        kept: breaker.kept.as_ref().map(|(kept, _)| *kept),
        kept_reason: breaker.kept.as_ref().map(|(_, reason)| reason.clone()),
        kept_behind: kept_behind(home, breaker),
        place: place_in_words(panel, breaker),
        wording: wording(home, &breaker.id),
        proven: known.proven.len(),
        possible: known.possible,
    }
}

/// `G3 (pump)`.
fn kept_behind(home: &Study, breaker: &Breaker) -> Vec<String> {
    if home.panels().panels_on(&breaker.id).next().is_none() {
        return Vec::new();
    }
    let dead = home.panels().dead_behind(&[breaker.id.clone()].into());
    let behind = dead.iter().filter(|id| **id != breaker.id).filter_map(|id| home.panels().breaker(id));
    behind
        .filter_map(|b| match &b.kept {
            Some((Kept::On, why)) => Some(format!("{} ({why})", home.panels().number(&b.id))),
            _ => None,
        })
        .collect()
}

/// Where a breaker fits whose top pole is in this open space, by its number of poles.
fn places_from(home: &Study, panel: &Panel, slot: Slot) -> Vec<String> {
    let whole = |poles| downward(panel, slot.space, poles);
    let tries = if slot.half.is_some() { vec![Some(vec![slot])] } else { (1..=3).map(whole).collect() };
    let free = |at: &Vec<Slot>| fits(panel, at, home.panels().breakers_of(&panel.id)).is_ok();
    tries.into_iter().flatten().filter(free).map(|at| number_of(&at)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn blades_and_open_spaces_cover_the_panel_once() {
        let home = written("panel 12\n1 20 a\n5-7 50 b\n2a 15 c\n2b 15 d\n4a 15 e\n8-10 30 f").home;
        let post = panel_views(&home)[0].clone();
        assert_eq!(post.rows.iter().map(|row| row.leg).collect::<Vec<_>>(), [Leg::A, Leg::B, Leg::A, Leg::B, Leg::A, Leg::B]);
        let blades: Vec<_> = post
            .breakers
            .iter()
            .map(|b| (b.number.as_str(), b.side, b.parts[0].top, b.parts[0].height, b.volts.value()))
            .collect();
        assert_eq!(
            blades,
            [
                ("1", Side::Left, 0, 2, 120),
                ("5-7", Side::Left, 4, 4, 240),
                ("2a", Side::Right, 0, 1, 120),
                ("2b", Side::Right, 1, 1, 120),
                ("4a", Side::Right, 2, 1, 120),
                ("8-10", Side::Right, 6, 4, 240),
            ]
        );
        let open: Vec<_> = post.open.iter().map(|o| o.number.as_str()).collect();
        assert_eq!(open, ["3", "9", "11", "4b", "6", "12"]);
        let fits: Vec<_> = post.open.iter().map(|o| o.fits.join(" ")).collect();
        assert_eq!(fits, ["3", "9 9-11", "11", "4b", "6", "12"]);
    }

    #[test]
    fn a_quad_is_two_outer_halves_around_a_middle() {
        let home = written("panel 12\n2a-4b 30/2 quad dryer\n2b-4a 20/2 quad heater\n6b-8a 20/2 slim pump").home;
        let post = panel_views(&home)[0].clone();
        let parts: Vec<_> =
            post.breakers.iter().map(|b| (b.number.as_str(), b.parts.len(), b.parts[0], b.volts.value())).collect();
        let part = |top, height| Part { top, height };
        assert_eq!(parts, [("2a-4b", 2, part(0, 1), 240), ("2b-4a", 1, part(1, 2), 240), ("6b-8a", 1, part(5, 2), 240)]);
        let covered: u8 = post.breakers.iter().flat_map(|b| &b.parts).map(|p| p.height).sum();
        let open: u8 = post.open.iter().map(|o| o.part.height).sum();
        assert_eq!(covered + open, 24, "every half row once");
        assert_eq!(post.breakers[0].housing, Housing::Quad);
    }

    #[test]
    fn a_feeder_says_what_must_stay_on_behind_it_however_deep() {
        let acts = "panel 12\n1-3 60/2 shed\nsub Shed 8 1-3\nshed: 1 15 fan\nshed: 2-4 30/2 hut\nsub Hut 4 S2-4\nhut: 1 15 pump
                    must-stay-on H1";
        let home = written(acts).home;
        let posts = panel_views(&home);
        let said =
            |panel: usize, number: &str| posts[panel].breakers.iter().find(|b| b.number == number).unwrap().kept_behind.clone();
        assert_eq!(said(0, "1-3"), ["H1 (pump)"]);
        assert_eq!(said(1, "2-4"), ["H1 (pump)"]);
        assert!(said(1, "1").is_empty() && said(2, "1").is_empty());
        assert_eq!(posts[0].breakers[0].feeds[0].name, "Shed");
    }

    #[test]
    fn a_blade_says_what_is_proven_and_what_may_be() {
        let home = written(
            "panel 12\n1 20 a\n3 15 b\nroom Hall\npoint Hall light lamp\npoint Hall receptacle door\nlit door\nproof lamp 1",
        )
        .home;
        let post = panel_views(&home)[0].clone();
        let said: Vec<_> = post.breakers.iter().map(|b| (b.wording.as_str(), b.proven, b.possible)).collect();
        assert_eq!(said, [("Hall: light", 1, 1), ("", 0, 1)]);
    }

    #[test]
    fn what_else_feeds_a_panel_is_said_or_asked_for() {
        let said = |details: &str| {
            let home = written(&format!("panel 6\nwith main {{\"details\":{{{details}}}}}")).home;
            panel_views(&home)[0].also_fed.clone().map(|fed| (fed.words, fed.live))
        };
        assert!(said("").is_some_and(|(words, live)| words.starts_with("Nobody has asked yet") && !live));
        assert_eq!(said("\"sources\":[]"), None);
        let (words, live) = said("\"sources\":[\"standby_generator\",\"battery\",\"solar\"]").unwrap();
        assert!(live);
        assert_eq!(
            words,
            "Also fed by a standby generator, which starts by itself when the main opens; a battery; solar. With the main off it \
             can still be live."
        );
    }
}
