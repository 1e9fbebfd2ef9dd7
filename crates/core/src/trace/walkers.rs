//! Several who walk at the same time: who looks where. Each keeps the room they are in as long as something is to be seen there,
//! then takes the nearest one that nobody else is in; where rooms run out, two meet in the fullest from both ends.

use std::collections::BTreeMap;

use super::{PointToSee, RoomToWalk};
use crate::model::RoomId;
use crate::study::Study;
use crate::walking::walking;

/// Who is in which of these rooms. `names`: all who walk.
pub(super) fn share_out(home: &Study, rooms: &[RoomToWalk], names: &[String]) -> BTreeMap<RoomId, Vec<String>> {
    let mut names = names.to_vec();
    names.sort();
    names.dedup();
    let todo: Vec<&RoomToWalk> = rooms.iter().filter(|room| room.points.iter().any(is_open)).collect();
    let mut taken: BTreeMap<RoomId, Vec<String>> = BTreeMap::new();
    if todo.is_empty() || names.is_empty() {
        return taken;
    }
    let stands = |name: &String| {
        let last = home.trace().looks().iter().filter(|look| *look.by == **name).max_by_key(|look| look.written)?;
        home.house().point(&last.point).map(|point| point.room.clone())
    };
    let (staying, moving): (Vec<String>, Vec<String>) =
        names.into_iter().partition(|name| stands(name).is_some_and(|at| todo.iter().any(|room| room.room == at)));
    for name in staying {
        taken.entry(stands(&name).unwrap_or_else(|| todo[0].room.clone())).or_default().push(name);
    }
    if moving.is_empty() {
        return taken;
    }
    let walk = walking(home);
    let place_of = |room: &RoomId| walk.rooms.iter().position(|other| other == room);
    for name in moving {
        let from = stands(&name).and_then(|at| place_of(&at));
        let seconds = |room: &RoomToWalk| from.zip(place_of(&room.room)).map_or(0.0, |(a, b)| walk.between[a][b].seconds);
        let free = todo.iter().filter(|room| !taken.contains_key(&room.room));
        let nearest = free.min_by(|a, b| seconds(a).total_cmp(&seconds(b)));
        let left = |room: &&&RoomToWalk| {
            let open = room.points.iter().filter(|p| is_open(p)).count();
            open / (taken.get(&room.room).map_or(0, Vec::len) + 1)
        };
        let Some(room) = nearest.or_else(|| todo.iter().max_by_key(left)) else { break };
        taken.entry(room.room.clone()).or_default().push(name);
    }
    taken
}

/// The rooms of one who walks: the own one, in the own order; then those where nobody is, then the others', for somebody who is
/// cut off meanwhile.
pub(super) fn own_rooms(home: &Study, rooms: &[RoomToWalk], names: &[String], own: &str) -> Vec<RoomToWalk> {
    let taken = share_out(home, rooms, names);
    let is_own = |room: &&RoomToWalk| taken.get(&room.room).is_some_and(|names| names.iter().any(|name| name == own));
    let Some(room) = rooms.iter().find(is_own) else { return rooms.to_vec() };
    let mut room = room.clone();
    let there = &taken[&room.room];
    let place = there.iter().position(|name| name == own).unwrap_or(0);
    // Two who are in one room begin at its ends, more of them in between.
    match place {
        0 => {}
        1 => room.points.reverse(),
        n => {
            let from = n * room.points.len() / there.len();
            room.points.rotate_left(from);
        }
    }
    let mut others: Vec<RoomToWalk> = rooms.iter().filter(|other| other.room != room.room).cloned().collect();
    others.sort_by_key(|other| taken.contains_key(&other.room));
    std::iter::once(room).chain(others).collect()
}

/// Whether it is still to be looked at.
fn is_open(point: &PointToSee) -> bool {
    point.seen.is_none() && !point.skipped
}

#[cfg(test)]
mod tests {
    use crate::fixture::{Written, written};
    use crate::logbook::{Draft, Fact, PointSeen};
    use crate::model::{Seen, TraceSetup};
    use crate::study::Study;
    use crate::trace::{StepSide, helper_view, method_minutes, trace_together};

    const HOUSE: &str = "panel 12\n1 20 a\n3 20 b\ndraw Kitchen 4 x 4\ndraw Hall 4 x 4 right of Kitchen\ndraw Attic 4 x 4 right of Hall
        door Kitchen Hall\ndoor Hall Attic\npoint Kitchen receptacle counter\npoint Kitchen receptacle range\npoint Hall receptacle bench
        point Attic receptacle desk\npoint Attic receptacle shelf";

    fn looks(w: &mut Written, by: &str, point: &str) {
        let n = w.book.seq() + 1;
        let like = w.book.lines().last().unwrap().entry.clone();
        let fact = Fact::PointSeen(PointSeen { point: point.parse().unwrap(), seen: Seen::Lit, since: None, anew: false });
        let id = format!("e{n}").parse().unwrap();
        let outcome = w.book.admit(&[Draft { id, by: by.into(), fact, ..like }]).unwrap();
        w.book.commit(outcome);
        w.home = Study::from(&w.book);
    }

    /// The room that each is sent to, and the first point there.
    fn sent(w: &Written, names: &[&str]) -> Vec<(String, String)> {
        let all: Vec<String> = names.iter().map(|name| (*name).to_owned()).collect();
        names
            .iter()
            .map(|name| {
                let rooms = helper_view(&w.home, StepSide::Walk, &all, name).rooms;
                let point = rooms[0].points.iter().find(|p| p.seen.is_none()).unwrap();
                (rooms[0].name.clone(), point.name.clone())
            })
            .collect()
    }

    fn pair(room: &str, point: &str) -> (String, String) {
        (room.into(), point.into())
    }

    #[test]
    fn each_who_walks_has_a_room_and_goes_on_to_the_nearest_that_is_free() {
        let mut w = written(HOUSE);
        assert_eq!(sent(&w, &["Ada", "Ben"]), [pair("Kitchen", "counter"), pair("Hall", "bench")]);
        looks(&mut w, "Ada", "counter");
        looks(&mut w, "Ben", "desk");
        // Both stay where they are, whoever comes first in the alphabet.
        assert_eq!(sent(&w, &["Ada", "Ben"]), [pair("Kitchen", "range"), pair("Attic", "shelf")]);
        looks(&mut w, "Ada", "range");
        assert_eq!(sent(&w, &["Ada", "Ben"]), [pair("Hall", "bench"), pair("Attic", "shelf")]);
        // Somebody comes in: the room that is left, then the fullest.
        assert_eq!(sent(&w, &["Ada", "Ben", "Cy"])[2].0, "Attic");
        looks(&mut w, "Ada", "bench");
        assert_eq!(sent(&w, &["Ada", "Ben"]), [pair("Attic", "shelf"), pair("Attic", "shelf")], "one point is left");
    }

    #[test]
    fn more_who_walk_take_less_but_not_less_than_their_part() {
        let w = written(&format!("{HOUSE}\nlit counter\nlit range\nlit bench\nlit desk\nlit shelf"));
        let minutes = |walkers| method_minutes(&w.home, TraceSetup { walkers, ..TraceSetup::default() });
        let (one, three) = (minutes(1), minutes(3));
        assert!(!one.is_empty());
        for (one, three) in one.iter().zip(&three) {
            assert!(three.minutes < one.minutes && three.minutes > one.minutes / 3.0, "{one:?} {three:?}");
        }
        let alone = |walkers| method_minutes(&w.home, TraceSetup { walkers, alone: true, ..TraceSetup::default() });
        assert_eq!(alone(1), alone(3), "one person alone is one");
    }

    #[test]
    fn two_in_one_room_begin_at_its_ends_and_the_owner_sees_who_is_where() {
        let w = written(
            "panel 12\n1 20 a\nroom Hall\npoint Hall receptacle one\npoint Hall receptacle two\npoint Hall receptacle three",
        );
        assert_eq!(sent(&w, &["Ada", "Ben"]), [pair("Hall", "one"), pair("Hall", "three")]);
        let names = ["Ben".to_owned(), "Ada".to_owned()];
        let view = trace_together(&w.home, w.home.setup(), &names);
        let crate::trace::NextStep::SeeAllLit { rooms, .. } = view.next else { panic!() };
        assert_eq!(rooms[0].who, ["Ada", "Ben"]);
        assert_eq!(rooms[0].points.len(), 3);
    }
}
