//! The wording of a directory.
//!
//! Source: NEC 408.4(A), from memory: every circuit's clear, evident and specific purpose or use, in enough
//! detail to tell it from all others; spares marked; nothing that depends on transient conditions of
//! occupancy. Which words are vague is common practice. The examples are ours.

use wayfinder_core::about_wording;

#[test]
fn vague_wordings_do_not_do() {
    for text in [
        "general",
        "Gen. lights",
        "misc",
        "Misc kitchen",
        "lights",
        "Lights and receptacles",
        "plugs",
        "outlets 2",
        "other",
        "power",
        "rec",
        "",
    ] {
        assert!(about_wording(text).is_some(), "{text}");
    }
}

#[test]
fn what_depends_on_who_lives_there_does_not_do() {
    for text in ["Emma's room", "Mom bedroom", "Dad’s workshop", "kids bath", "Kids' room", "Grandma suite", "tenant heater"] {
        let said = about_wording(text).unwrap_or_else(|| panic!("{text}"));
        assert!(said.contains("who lives there"), "{text}: {said}");
    }
}

#[test]
fn places_and_loads_do() {
    for text in [
        "Kitchen: 3 receptacles, light",
        "Water heater",
        "Loft bedroom: 3 receptacles, 2 lights; Loft study: light",
        "Dishwasher",
        "Porch lights",
        "Cellar: well pump",
        "Spare",
        "Garage door opener",
        "Generator transfer switch",
    ] {
        assert_eq!(about_wording(text), None, "{text}");
    }
}
