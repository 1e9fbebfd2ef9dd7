//! What an experienced person goes through, always in the same order, to compare with.

use super::case::{Extent, Onset, PointNo, State, Takes, TripCase};
use super::cause::{Cause, Key};
use super::file::PowerBox;
use super::look::{Done, Look, Saw};
use super::planner::{Named, READ_S};
use super::stories::likeliest;

/// Goes through the list: danger, the point itself, its switch and lamp or its appliance, the neighbours if all is out, the handles,
/// the GFCIs, the breaker by hand, then the nearest boxes.
pub(super) fn checklist(case: &TripCase, ask: &mut dyn FnMut(Look, f64) -> Saw) -> (&'static str, Option<Named>) {
    let mut room = case.start_room;
    let mut done = Done::default();
    let mut danger = false;
    let mut go = |look: Look| {
        let mut seconds = look.seconds(case, &done) + READ_S;
        for next in look.rooms(case).into_iter().flatten() {
            seconds += case.walk_s[room][next];
            room = next;
        }
        if let Look::Point(p) = look
            && case.points[p].takes == Takes::Receptacle
        {
            done.tester_in = Some(case.points[p].room);
        }
        let saw = ask(look, seconds);
        danger |= saw == Saw::Danger;
        (saw, danger)
    };
    let name = |key: Key, boxes: Vec<PowerBox>, p: f64| ("named", Some(Named { key, p, boxes }));
    let point = case.report.point;
    let walk = |p: &PointNo| case.walk_s[case.points[point].room][case.points[*p].room];
    macro_rules! look {
        ($look:expr) => {{
            let (saw, danger) = go($look);
            if danger {
                return ("stop", None);
            }
            saw
        }};
    }
    let odd = look!(Look::Safety) == Saw::Odd;
    if case.report.extent == Some(Extent::All) && look!(Look::Neighbors) == Saw::StaysDark {
        return name(Key::house(Cause::Outage), vec![], 0.9);
    }
    if odd || case.report.extent == Some(Extent::All) {
        // Brighter or dimmer than usual: a few lamps decide.
        let mut lights: Vec<PointNo> = (0..case.points.len()).filter(|p| case.points[*p].takes == Takes::Light).collect();
        lights.sort_by(|a, b| walk(a).total_cmp(&walk(b)));
        for light in lights.into_iter().take(4) {
            if matches!(look!(Look::Point(light)), Saw::Shows(State::Dim | State::Bright)) {
                return ("stop", None);
            }
        }
    }
    let here = look!(Look::Point(point));
    let breaker = likeliest(case, point);
    let mut near: Vec<PointNo> = (0..case.points.len()).filter(|p| *p != point && likeliest(case, *p) == breaker).collect();
    near.sort_by(|x, y| case.cable(point, *x).total_cmp(&case.cable(point, *y)));
    let boxes_here = || [point].into_iter().chain(near.iter().copied()).take(3).map(PowerBox::Point).collect::<Vec<PowerBox>>();
    if let (Saw::Shows(State::OpenNeutral), Some(b)) = (here, breaker) {
        return name(Key::at(Cause::OpenNeutral, b, point), boxes_here(), 0.9);
    }
    match case.points[point].takes {
        Takes::Light => {
            for (n, switch) in case.switches.iter().enumerate().filter(|(_, s)| s.points.contains(&point)) {
                let (look, cause) = if switch.kind.by_itself() {
                    (Look::Control(n), Cause::Control)
                } else {
                    (Look::Toggle(n), Cause::SwitchOff)
                };
                if look!(look) == Saw::Lit {
                    return name(Key::place(cause, n), vec![], 0.9);
                }
            }
            if case.report.extent == Some(Extent::One) && look!(Look::Lamp(point)) == Saw::Lit {
                return name(Key::place(Cause::Lamp, point), vec![], 0.9);
            }
        }
        Takes::Receptacle if here == Saw::Shows(State::Live) => {
            let cutout = case.loads.iter().any(|l| l.point == point && l.cutout);
            if cutout && look!(Look::Cutout(point)) == Saw::Works {
                return name(Key::place(Cause::Cutout, point), vec![], 0.9);
            }
            return name(Key::place(Cause::Cord, point), vec![], 0.9);
        }
        _ => {
            let cutout = case.loads.iter().any(|l| l.point == point && l.cutout);
            if cutout && look!(Look::Cutout(point)) == Saw::Works {
                return name(Key::place(Cause::Cutout, point), vec![], 0.9);
            }
            if case.points[point].has_outlet && look!(Look::Outlet(point)) == Saw::Shows(State::Live) {
                return name(Key::place(Cause::Cord, point), vec![], 0.9);
            }
        }
    }
    let panel = breaker.map_or(0, |b| case.breakers[b].panel);
    match look!(Look::Handles(panel)) {
        Saw::Tripped(b) => {
            let has = case.breakers[b].has;
            if has.indicator() {
                match look!(Look::Indicator(b)) {
                    Saw::Arc => return name(Key::breaker(Cause::Arc, b), vec![], 0.9),
                    Saw::Ground => return name(Key::breaker(Cause::GroundLoad, b), vec![], 0.9),
                    _ => {}
                }
            }
            let last = case.report.just_switched.filter(|l| likeliest(case, case.loads[*l].point) == Some(b));
            let cause = match (look!(Look::Reset(b)), case.report.onset, last) {
                (Saw::HoldsLive, Onset::AtOnce, Some(l)) if case.loads[l].motor => Cause::Inrush,
                (Saw::HoldsLive, Onset::AtOnce, _) => Cause::ShortLoad,
                (Saw::HoldsLive, _, _) => Cause::Overload,
                (Saw::AtOnce | Saw::Later, _, _) if has.arc() => Cause::Arc,
                (Saw::AtOnce | Saw::Later, _, _) => Cause::ShortWiring,
                (Saw::HoldsDead, _, _) => Cause::Double,
                _ => Cause::BreakerFailed,
            };
            return name(Key::breaker(cause, b), vec![PowerBox::Panel], 0.9);
        }
        Saw::Off(b) => return name(Key::breaker(Cause::OffOrNotLatched, b), vec![], 0.9),
        Saw::Other => return name(Key::house(Cause::MainOff), vec![], 0.9),
        _ => {}
    }
    let mut gfcis: Vec<PointNo> = (0..case.points.len()).filter(|p| case.points[*p].gfci).collect();
    gfcis.sort_by(|a, b| walk(a).total_cmp(&walk(b)));
    for gfci in gfcis {
        match look!(Look::Gfci(gfci)) {
            Saw::ResetWorks => return name(Key::place(Cause::GfciTripped, gfci), vec![], 0.9),
            Saw::WontLatch => {
                return name(Key::place(Cause::GfciDead, gfci), vec![PowerBox::Point(gfci)], 0.9);
            }
            _ => {}
        }
    }
    let Some(b) = breaker else { return name(Key::house(Cause::MainOff), vec![], 0.5) };
    match look!(Look::Feel(b)) {
        Saw::IsTripped => return name(Key::breaker(Cause::Overload, b), vec![], 0.9),
        Saw::IsOff => return name(Key::breaker(Cause::OffOrNotLatched, b), vec![], 0.9),
        _ => {}
    }
    let mut boxes = vec![PowerBox::Point(point)];
    for p in near.into_iter().take(3) {
        if look!(Look::Point(p)) == Saw::Shows(State::Live) {
            boxes.push(PowerBox::Point(p));
            boxes.truncate(3);
            return name(Key::at(Cause::OpenHot, b, point), boxes, 0.9);
        }
        boxes.push(PowerBox::Point(p));
        boxes.truncate(3);
    }
    name(Key::breaker(Cause::BreakerFailed, b), vec![PowerBox::Panel], 0.9)
}
