//! What is minded as a breaker is switched: big loads, compressors, computers, alarms; known by the words of cards and names.
//! Common practice; no source.

/// Loads that are switched off at themselves before their breaker is.
pub(crate) const BIG: [&str; 13] = [
    "range",
    "oven",
    "cooktop",
    "dryer",
    "water heater",
    "heater",
    "kiln",
    "welder",
    "car charger",
    "air conditioner",
    "heat pump",
    "furnace",
    "sauna",
];
/// What a compressor runs in.
pub(crate) const COMPRESSORS: [&str; 10] = [
    "refrigerator",
    "fridge",
    "freezer",
    "ice box",
    "icebox",
    "air conditioner",
    "dehumidifier",
    "compressor",
    "heat pump",
    "ice maker",
];
/// Where work is lost when it goes dark.
pub(crate) const COMPUTERS: [&str; 6] = ["computer", "computers", "office", "server", "network", "router"];
/// What calls for help when it loses power.
pub(crate) const MONITORED: [&str; 3] = ["alarm", "alarms", "security"];
/// What is let run down, or is not trusted to start again.
const PUMPS: [&str; 5] = ["pump", "sump", "well", "medical", "oxygen"];

/// Whether one of these stands there as words of their own.
pub(crate) fn names(said: &str, any: &[&str]) -> bool {
    let said =
        format!(" {} ", said.split(|c: char| !c.is_alphanumeric()).filter(|w| !w.is_empty()).collect::<Vec<_>>().join(" "));
    any.iter().any(|words| said.contains(&format!(" {words} ")))
}

/// What is said, as these lists are held against it: a hood carries no more than a lamp.
pub(crate) fn plainly(said: &str) -> String {
    said.to_lowercase().replace("range hood", "hood")
}

/// Whether it names what should not go off and come on again within a few seconds.
pub(crate) fn is_delicate(said: &str) -> bool {
    let said = plainly(said);
    [&BIG[..], &COMPRESSORS, &COMPUTERS, &MONITORED, &PUMPS].iter().any(|any| names(&said, any))
}
