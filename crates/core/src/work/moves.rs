//! The order of the moves of a plan, with the panel dead: what has room is landed; a circuit in the way is lifted, tagged and capped.

use super::problem::*;
use super::search::Cheapest;
use super::setup::*;

impl Setup<'_> {
    /// The moves that lead from the panel as it is to the plan.
    pub(super) fn moves(&self, plan: &Cheapest) -> Vec<Move> {
        let mut moves = vec![Move::Open];
        // What a circuit takes now; nothing once it is lifted.
        let mut taken: Vec<Halves> = self.units.iter().map(|unit| unit.home.map_or(0, |home| home.halves)).collect();
        let mut left: Vec<usize> = Vec::new();
        for (index, seat) in plan.seats.iter().enumerate() {
            match seat {
                Seat::Out if self.units[index].role == Role::Existing => {
                    taken[index] = 0;
                    moves.push(Move::TakeOut { circuit: self.id(index) });
                }
                // The open spaces of a wish are landed like a circuit, so that the plan says where they are.
                Seat::At(_) | Seat::Join(_) | Seat::Tap(_) | Seat::Sub(_) => left.push(index),
                _ => {}
            }
        }
        let mut lifted = vec![false; self.units.len()];
        while !left.is_empty() {
            let landed = |host: usize| !left.contains(&host);
            let ready = left.iter().position(|&index| match plan.seats[index] {
                Seat::At(at) => taken.iter().enumerate().all(|(other, halves)| other == index || halves & at.halves == 0),
                Seat::Join(host) | Seat::Tap(host) => landed(host),
                Seat::Sub(_) => self.feeder.is_some_and(landed),
                _ => true,
            });
            let Some(position) = ready else {
                // Somebody who has to move is in the way of somebody else.
                let blocks = |other: usize| {
                    left.iter().any(|&index| {
                        index != other && matches!(plan.seats[index], Seat::At(at) if at.halves & taken[other] != 0)
                    })
                };
                let Some(blocker) = left.iter().copied().find(|&other| taken[other] != 0 && blocks(other)) else { break };
                taken[blocker] = 0;
                lifted[blocker] = true;
                moves.push(Move::Lift { circuit: self.id(blocker) });
                continue;
            };
            let index = left.remove(position);
            let circuit = self.id(index);
            match plan.seats[index] {
                Seat::At(at) => {
                    taken[index] = at.halves;
                    let Spot { column, row, shape } = at.spot;
                    moves.push(Move::Land { circuit, column, row, shape, flip: at.flip });
                    if self.units[index].role == Role::Feeder {
                        moves.push(Move::Sub);
                    }
                }
                Seat::Join(host) => {
                    taken[index] = 0;
                    moves.push(Move::Join { circuit, to: self.id(host) });
                }
                Seat::Tap(host) => {
                    taken[index] = 0;
                    moves.push(Move::Tap { circuit, to: self.id(host) });
                }
                Seat::Sub(pole) => {
                    taken[index] = 0;
                    moves.push(Move::ToSub { circuit, pole });
                }
                _ => {}
            }
        }
        moves.extend(plan.valued.relanded.iter().map(|&index| Move::Reland { circuit: self.id(index) }));
        moves.push(Move::Close);
        moves
    }
}
