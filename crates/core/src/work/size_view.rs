//! The size of a circuit of a home: how far it runs by the plan, what room it ends in, and the wish that finds room for it.

use super::size::{Sized, SizedWhere, size};
use crate::model::{Length, Place, SizeAsked, SizeId, SizedLoad, Wire};
use crate::study::Study;
use crate::walking::{cable_run, cable_run_into};

/// A circuit that was sized, for a list.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct KeptSizeLine {
    /// Its id.
    pub size: SizeId,
    /// What it is for.
    pub name: String,
    /// `40 A, 8 AWG copper, ground 10 AWG`, or why it cannot be sized any more.
    pub words: String,
    /// What was asked.
    pub asked: SizeAsked,
}

/// A circuit sized.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct SizeView {
    /// What it comes to.
    #[serde(flatten)]
    pub sized: Sized,
    /// `40 A, 8 AWG copper, ground 10 AWG`.
    pub words: String,
    /// How far it runs, one way; `null` where nobody knows.
    pub one_way: Option<Length>,
    /// Where that is from.
    pub run: String,
    /// The wish that finds room for it in a panel: `40 A two-pole for the kiln that takes 32 A`.
    pub wish: String,
    /// What nobody has read and the size rests on.
    pub unread: Vec<String>,
}

/// Sizes a circuit for a home. `name` is what it is for; it may be empty.
///
/// # Errors
/// A sentence: what is asked cannot be, is not in a table, or is for a code that is not known here.
pub fn size_view(home: &Study, name: &str, asked: &SizeAsked) -> Result<SizeView, String> {
    let point = asked.point.as_ref().and_then(|id| home.house().point(id));
    let room = asked.room.as_ref().or(point.map(|point| &point.room)).and_then(|id| home.house().room(id));
    let by_plan = || {
        let panel = asked.panel.as_ref()?;
        match (&asked.point, &asked.room) {
            (Some(point), _) => cable_run(home, panel, point),
            (None, Some(room)) => cable_run_into(home, panel, room),
            (None, None) => None,
        }
    };
    let units = home.plan().units;
    let (one_way, run) = match (asked.one_way, by_plan()) {
        (Some(measured), _) => (Some(measured), format!("{}, as measured.", measured.said(units))),
        (None, Some(run)) => (
            Some(run.length),
            format!(
                "{} by the plan{}: up, along the walls and down. The real run goes where it can.",
                run.length.said(units),
                if asked.point.is_none() { ", to the far corner of the room" } else { "" }
            ),
        ),
        (None, None) => (
            None,
            "The length is not known, so the voltage drop is not in it: give the length, or draw panel and room on the plan."
                .into(),
        ),
    };
    let place = match (point, room) {
        (Some(point), _) if point.details.outdoor => Some(Place::Outdoors),
        (_, Some(room)) => Place::of(&room.name, room.floor.as_deref()),
        _ => None,
    };
    let sized = size(asked, SizedWhere { one_way, place, edition: home.edition() })?;
    let takes = sized.takes.ceil();
    let what = name.trim();
    let what = if what.is_empty() { String::new() } else { format!(" for the {}", what.to_lowercase()) };
    let protection = match (sized.wants_gfci, sized.wants_afci) {
        (true, true) => " dual-function",
        (true, false) => " GFCI",
        (false, true) => " AFCI",
        (false, false) => "",
    };
    let poles = if asked.hots() == 2 { "two-pole" } else { "one-pole" };
    let wish = format!("{} A {poles}{protection}{what} that takes {takes} A", sized.breaker.value());
    Ok(SizeView { words: sized.words(asked), one_way, run, wish, unread: unread(asked), sized })
}

/// A circuit that was sized and kept: what was asked, and its size.
pub(super) struct KeptSize<'a> {
    pub(super) asked: &'a SizeAsked,
    pub(super) sized: Sized,
}

impl KeptSize<'_> {
    /// Its wire.
    pub(super) fn wire(&self) -> Wire {
        let SizeAsked { metal, cable, terminals, .. } = *self.asked;
        Wire { gauge: self.sized.wire, metal, terminals, cable }
    }
}

/// The one that was kept last under this name, for so many poles and amperes.
pub(super) fn kept_size<'a>(home: &'a Study, name: &str, poles: usize, amps: i64) -> Option<KeptSize<'a>> {
    let alike = |kept: &str| !name.trim().is_empty() && kept.trim().to_lowercase() == name.trim().to_lowercase();
    let named = home.planning().sizes().filter(|(_, kept)| alike(&kept.name) && usize::from(kept.asked.hots()) == poles);
    let sized = named.filter_map(|(_, kept)| {
        let view = size_view(home, &kept.name, &kept.asked).ok()?;
        Some(KeptSize { asked: &kept.asked, sized: view.sized })
    });
    sized.filter(|kept| kept.sized.breaker.value() == amps as f64).last()
}

/// What nobody has read and the size rests on.
fn unread(asked: &SizeAsked) -> Vec<String> {
    use crate::model::{Cable, Insulation, Terminals};
    let mut unread = Vec::new();
    if asked.cable == Cable::NotRead {
        unread.push("which cable it is to be: some are held to 60 °C".to_owned());
    }
    if asked.terminals == Terminals::Unread && !matches!(asked.cable, Cable::Nm | Cable::Uf) {
        unread.push("what the terminals at both ends are marked for; until then 60 °C holds up to 1 AWG".to_owned());
    }
    if asked.insulation == Insulation::C60 && (asked.carrying > 3 || asked.celsius > 30) {
        unread.push("what the insulation is marked for: with 90 °C heat and bundling cost less".to_owned());
    }
    if matches!(asked.load, SizedLoad::Motor { .. }) {
        unread.push("whether the motor has overload protection of its own, by its plate".to_owned());
    }
    unread
}

/// The circuits that were sized, the last one first.
pub fn kept_sizes(home: &Study) -> Vec<KeptSizeLine> {
    let mut lines: Vec<KeptSizeLine> = home
        .planning()
        .sizes()
        .map(|(id, kept)| KeptSizeLine {
            size: id.clone(),
            name: kept.name.clone(),
            words: size_view(home, &kept.name, &kept.asked).map_or_else(|why| why, |view| view.words),
            asked: kept.asked.clone(),
        })
        .collect();
    lines.reverse();
    lines
}
