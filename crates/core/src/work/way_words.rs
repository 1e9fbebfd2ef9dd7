//! What ways are called, why there is none, and what their marks of risk count.

use super::problem::*;

impl Way {
    pub(super) const fn name(self) -> &'static str {
        match self {
            Self::Nothing => "Nothing has to be done",
            Self::Open => "An open space",
            Self::Relocate => "Moving breakers",
            Self::Tandem => "A tandem",
            Self::Quad => "A quad",
            Self::Slim => "A slim two-pole",
            Self::Tap => "Two wires under a terminal listed for two",
            Self::Join => "Joining two circuits",
            Self::Sub => "A sub-panel",
            Self::Electrician => "An electrician",
        }
    }
}

impl NoWay {
    pub(super) const fn words(self) -> &'static str {
        match self {
            Self::WishNotMet => "the breaker is not what is wished for",
            Self::NoGap => "so many open spaces are not side by side",
            Self::NotCord => "a new circuit is wished for",
            Self::LoadNotAlone => "the load shares its circuit",
            Self::Main80 => "the legs would carry more than 80 % of the main",
            Self::Refer => "fuses, split buses and panels with a high leg are for an electrician",
            Self::Fixed => "that breaker is to be left as it is",
            Self::BreakerBelowLoad => "the breaker would be too small for the load",
            Self::BreakerAboveWire => "the breaker would be too large for its wire",
            Self::ProtectionLost => "protection would be lost",
            Self::NotSingleOutlet => "it feeds more than a single outlet, or is a circuit that has to stay",
            Self::TandemNotListed => "the label lists no tandem",
            Self::QuadNotListed => "the label lists no quad",
            Self::SlimNotMade => "the panel is not made for slim two-poles",
            Self::TerminalNotListed => "no terminal is listed for two wires",
            Self::NothingMayBeCombined => "no two circuits may be joined",
            Self::NoSubOffered => "a sub-panel of 60 A does not do what is wished for, or the main is too small for it",
            Self::ListedPoles => "the panel would have more circuits than it is listed for",
            Self::NoOpenSpace => "no space is open for it",
            Self::NoRoom => "there is no room for it this way",
            Self::NotProven => "the search found none in its time",
        }
    }
}

/// What the marks of risk count, named.
pub(super) fn risks(moves: &[Move]) -> String {
    let count = |which: fn(&Move) -> bool| moves.iter().filter(|one| which(one)).count();
    let mut said: Vec<String> = Vec::new();
    if moves.contains(&Move::Open) {
        said.push("cover off".into());
    }
    let landed = moves
        .iter()
        .filter(|one| matches!(one, Move::Land { circuit, .. } if circuit != "gap" && circuit != "new" && circuit != "feeder"))
        .count();
    if moves.iter().any(|one| matches!(one, Move::Land { circuit, .. } if circuit == "new" || circuit == "feeder")) {
        said.push("1 breaker in".into());
    }
    for (count, one, more) in [
        (landed, "circuit moved", "circuits moved"),
        (count(|one| matches!(one, Move::TakeOut { .. })), "breaker out", "breakers out"),
        (count(|one| matches!(one, Move::Join { .. })), "splice", "splices"),
        (count(|one| matches!(one, Move::Tap { .. })), "doubled terminal", "doubled terminals"),
        (count(|one| matches!(one, Move::Sub)), "panel more, with its feeder", "panels more, with their feeders"),
        (
            count(|one| matches!(one, Move::ToSub { circuit, .. } if circuit != "new")),
            "circuit taken over to it",
            "circuits taken over to it",
        ),
    ] {
        match count {
            0 => {}
            1 => said.push(format!("1 {one}")),
            count => said.push(format!("{count} {more}")),
        }
    }
    said.join(", ")
}
