//! What kind of place a room is, by its name, for rules that go by place.
//!
//! The places are those of NEC 210.8, 210.11, 210.12 and 210.52, from memory; which words mean them is common practice. A name that says
//! none of them is none: nothing is said about such a room.

use super::Edition;

/// A kind of place that the rules name.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Place {
    /// With a basin and a toilet, a tub or a shower.
    Bath,
    /// For cars, or a shed or workshop at ground level.
    Garage,
    /// Under the open sky or a porch roof.
    Outdoors,
    /// Below the floor, where nobody stands.
    CrawlSpace,
    /// Below the ground.
    Basement,
    /// Where meals are made.
    Kitchen,
    /// With the washer.
    Laundry,
    /// Where people live, eat, sleep or pass: living and dining rooms, dens, bedrooms, closets, halls.
    Lived,
}

/// The words of each place. The first place that a word of the name belongs to is it, so that a bath beside a bedroom is a bath.
const WORDS: [(Place, &[&str]); 8] = [
    (Place::Bath, &["bath", "bathroom", "powder", "washroom", "restroom", "toilet", "shower", "wc"]),
    (Place::Laundry, &["laundry"]),
    (Place::Kitchen, &["kitchen", "kitchenette"]),
    (Place::CrawlSpace, &["crawl", "crawlspace"]),
    (Place::Garage, &["garage"]),
    (Place::Outdoors, &["outdoors", "outdoor", "outside", "porch", "deck", "patio", "balcony", "terrace", "yard", "garden"]),
    (Place::Basement, &["basement", "cellar"]),
    (
        Place::Lived,
        &[
            "living",
            "family",
            "dining",
            "recreation",
            "den",
            "library",
            "parlor",
            "parlour",
            "sunroom",
            "bedroom",
            "closet",
            "hall",
            "hallway",
        ],
    ),
];

/// Something that is fed, as far as GFCI and AFCI protection go by it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Outlet {
    /// A receptacle, not something that is wired in.
    pub(crate) receptacle: bool,
    /// Of 120 V.
    pub(crate) at_120: bool,
    /// Under the open sky, whatever the room is called.
    pub(crate) outdoor: bool,
}

impl Place {
    /// `a garage`.
    pub(crate) const fn words(self) -> &'static str {
        match self {
            Self::Bath => "a bath",
            Self::Garage => "a garage",
            Self::Outdoors => "the open",
            Self::CrawlSpace => "a crawl space",
            Self::Basement => "a basement",
            Self::Kitchen => "a kitchen",
            Self::Laundry => "a laundry",
            Self::Lived => "a room that people live or sleep in",
        }
    }

    /// Whether today's rule wants a GFCI: 210.8(A), of 240 V from 2020 on.
    pub(crate) fn wants_gfci(self, outlet: Outlet, edition: Edition) -> bool {
        let wet = !matches!(self, Self::Lived);
        outlet.receptacle && (wet || outlet.outdoor) && (outlet.at_120 || edition != Edition::Nec2017)
    }

    /// Whether today's rule wants an AFCI: 210.12.
    pub(crate) fn wants_afci(self, outlet: Outlet) -> bool {
        matches!(self, Self::Kitchen | Self::Laundry | Self::Lived) && outlet.at_120 && !outlet.outdoor
    }

    /// The place that a room's name says, or else that of its floor.
    pub(crate) fn of(room: &str, floor: Option<&str>) -> Option<Self> {
        let said_by = |name: &str| {
            let name = name.to_lowercase();
            let words: Vec<&str> = name.split(|c: char| !c.is_alphabetic()).collect();
            WORDS.iter().find(|(_, of)| words.iter().any(|word| of.contains(word))).map(|(place, _)| *place)
        };
        said_by(room).or_else(|| said_by(floor?).filter(|place| *place == Self::Basement))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn by_the_words_of_its_name() {
        for (room, floor, place) in [
            ("Kitchen", None, Some(Place::Kitchen)),
            ("Primary bath", None, Some(Place::Bath)),
            ("Bedroom 1", None, Some(Place::Lived)),
            ("Bedroom bath", None, Some(Place::Bath)),
            ("Basement laundry", None, Some(Place::Laundry)),
            ("Back porch", None, Some(Place::Outdoors)),
            ("Workroom", Some("cellar"), Some(Place::Basement)),
            ("Hallway", Some("upper floor"), Some(Place::Lived)),
            ("Workroom", Some("hall"), None),
            ("Gardener's room", None, None),
            ("Classroom", None, None),
        ] {
            assert_eq!(Place::of(room, floor), place, "{room} {floor:?}");
        }
    }
}
