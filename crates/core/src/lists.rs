//! What a form offers to choose from, and what else the web files have to know of the core. They are generated into
//! TypeScript, so nothing stands there twice.

use serde_json::{Value, json};

use crate::book::BookPart;
use crate::checks::Severity;
use crate::logbook::{Fact, Instrument, Topic};
use crate::model::{
    Appliance, Bond, BreakerDetails, Cable, Configuration, DangerSign, DayPart, Edition, GoesBy, Housing, Interior, JobFound,
    MainAt, Metal, Method, NeutralLead, OpeningKind, OtherSource, Outlets, PanelDetails, PointDetails, PointKind, Protection,
    Service, ServiceDisconnect, Terminals, Tie, WireGauge, appliances,
};

/// A part of the home book.
#[derive(Debug, Clone, Copy, serde::Serialize)]
struct NamedPart {
    name: &'static str,
    title: &'static str,
}

/// A choice: its value in the JSON, and its words.
type Choice = (Value, String);

/// The choices of an enum, in this order. A variant that is left out does not compile.
macro_rules! choices {
    ($kind:ident { $($variant:ident => $words:expr),* $(,)? }) => {{
        let _all_are_named = |one: $kind| match one { $($kind::$variant => {})* };
        vec![$((json!($kind::$variant), String::from($words))),*]
    }};
}

/// What can be tapped onto the plan.
#[derive(Debug, serde::Serialize)]
struct Placeable {
    /// Its name in the program.
    key: &'static str,
    /// What stands on the button.
    words: &'static str,
    /// What it is.
    kind: PointKind,
    /// 120 or 240.
    volts: u16,
    /// What else is known of it with that.
    details: PointDetails,
}

/// An opening that can be tapped onto the plan.
#[derive(Debug, serde::Serialize)]
struct PlaceableOpening {
    /// What it is.
    kind: OpeningKind,
    /// What stands on the button.
    words: &'static str,
    /// Its usual width in millimeters.
    width: u32,
}

/// Everything that is generated into `web/src/api/generated/lists.ts`.
#[derive(Debug, serde::Serialize)]
#[serde(rename_all = "camelCase")]
pub struct Lists {
    /// The version of the facts that this program writes.
    fact_version: u16,
    /// Every kind of fact.
    fact_kinds: &'static [&'static str],
    /// Kinds that are filed under a switching, by their field `since`.
    under_a_switching: Vec<&'static str>,
    /// How grave a finding may be, the gravest first, with what stands over those findings.
    severities: Vec<Choice>,
    /// The editions of the rules.
    editions: Vec<Choice>,
    /// The faces of receptacles of 120 V.
    faces120: Vec<Configuration>,
    /// The faces of receptacles of 240 V.
    faces240: Vec<Configuration>,
    /// Sizes of wire with their metal: `12 copper`, and as it is read, `12 AWG copper`.
    wires: Vec<(String, String)>,
    /// What wires lie in.
    cables: Vec<Choice>,
    /// What is read of heat on wire and terminal.
    terminals: Vec<Choice>,
    /// Kinds of breakers.
    protections: Vec<Choice>,
    /// What handles share.
    housings: Vec<Choice>,
    /// How poles open together.
    ties: Vec<Choice>,
    /// How the neutral of a breaker with electronics is connected.
    neutral_leads: Vec<Choice>,
    /// How a panel is fed.
    services: Vec<Choice>,
    /// What is in it.
    interiors: Vec<Choice>,
    /// Where its main is.
    mains: Vec<Choice>,
    /// Where the service disconnect is.
    disconnects: Vec<Choice>,
    /// Whether neutral and ground are joined in it.
    bonds: Vec<Choice>,
    /// What else feeds it.
    sources: Vec<Choice>,
    /// Kinds of points.
    point_kinds: Vec<Choice>,
    /// What may make each kind of point go on and off by itself, or keep it alive without its breaker.
    goes_by: Vec<(PointKind, Vec<Choice>)>,
    /// What can be tapped onto the plan, the most frequent first.
    placeable: Vec<Placeable>,
    /// Openings that can be tapped onto the plan.
    openings: Vec<PlaceableOpening>,
    /// Methods of tracing.
    methods: Vec<Choice>,
    /// Instruments that lie in a made-up house.
    practice_kit: Vec<Choice>,
    /// The library of appliances.
    appliances: &'static [Appliance],
    /// Parts of the day.
    day_parts: Vec<Choice>,
    /// What a line of the logbook is about.
    topics: Vec<Choice>,
    /// Signs of danger.
    danger_signs: Vec<Choice>,
    /// What may be found on the way that ends a job.
    job_finds: Vec<Choice>,
    /// The parts of the home book.
    book_parts: Vec<NamedPart>,
    /// A panel of which nothing more was read.
    unread_panel: PanelDetails,
    /// A breaker of which nothing more was read.
    unread_breaker: BreakerDetails,
    /// A point of which nothing more is known.
    plain_point: PointDetails,
}

/// Puts the lists together.
pub fn lists() -> Lists {
    let faces = |volts| Configuration::ALL.into_iter().filter(|face| face.volts().value() == volts).collect();
    let wire = |metal: Metal| {
        let made = WireGauge::all().filter(move |(_, aluminum)| metal == Metal::Copper || *aluminum);
        let name = if metal == Metal::Copper { "copper" } else { "aluminum" };
        made.map(move |(gauge, _)| (format!("{} {name}", gauge.number()), format!("{} {name}", gauge.words())))
    };
    Lists {
        fact_version: Fact::VERSION,
        fact_kinds: Fact::KINDS,
        under_a_switching: Fact::under_a_switching(),
        severities: Severity::ALL.into_iter().map(|severity| (json!(severity), severity.heading().to_owned())).collect(),
        editions: Edition::ALL.into_iter().map(|edition| (serde_json::json!(edition), edition.words())).collect(),
        faces120: faces(120),
        faces240: faces(240),
        wires: wire(Metal::Copper).chain(wire(Metal::Aluminum)).collect(),
        cables: choices!(Cable {
            NotRead => "not looked at",
            Nm => "NM cable: the 60 °C column",
            Armored => "armored or metal-clad",
            Conduit => "in conduit",
            Se => "service-entrance cable (SE)",
            Uf => "underground feeder (UF): the 60 °C column",
            Cloth => "rubber and cloth",
            KnobAndTube => "knob-and-tube",
        }),
        terminals: choices!(Terminals {
            Unread => "not read",
            Read75C => "75 °C on wire and terminal, both read",
        }),
        protections: choices!(Protection {
            Standard => "Standard",
            Gfci => "GFCI",
            Afci => "AFCI",
            DualFunction => "Dual function",
        }),
        housings: choices!(Housing {
            Full => "full size",
            Tandem => "tandem",
            Quad => "quad",
            Slim => "slim",
        }),
        ties: choices!(Tie {
            CommonTrip => "one mechanism, common trip",
            Handle => "handle tie",
        }),
        neutral_leads: choices!(NeutralLead {
            Pigtail => "pigtail to the bar",
            PlugOn => "plugs onto the rail",
        }),
        services: choices!(Service {
            SplitPhase => "Split-phase 120/240 V",
            TwoLegs208 => "Two legs of 208Y/120 V",
            ThreePhase => "Three-phase 208Y/120 V",
            HighLeg => "Three-phase with a high leg: for an electrician",
            OneLeg120 => "120 V only",
        }),
        interiors: choices!(Interior {
            Breakers => "Breakers",
            SplitBus => "Split bus, no single main: for an electrician",
            Fuses => "Fuses: for an electrician",
        }),
        mains: choices!(MainAt {
            NotRead => "not looked at",
            Inside => "in this panel",
            Beside => "in a cabinet beside it",
            Outside => "outdoors",
            Lugs => "none: main-lug",
        }),
        disconnects: choices!(ServiceDisconnect {
            Here => "in this panel",
            Ahead => "ahead of this panel",
        }),
        bonds: choices!(Bond {
            Joined => "joined",
            Apart => "apart",
        }),
        sources: choices!(OtherSource {
            StandbyGenerator => "Standby generator",
            PortableGenerator => "Portable generator",
            Battery => "Battery",
            Solar => "Solar",
            TransferSwitch => "Transfer switch",
            SecondService => "Second service",
        }),
        point_kinds: choices!(PointKind {
            Receptacle => "Receptacle",
            Light => "Light",
            Switch => "Switch",
            Appliance => "Appliance",
            Alarm => "Alarm",
            Fan => "Fan",
            JunctionBox => "Junction box",
            CappedCable => "Capped cable",
        }),
        placeable: placeable(),
        openings: vec![
            PlaceableOpening { kind: OpeningKind::Door, words: "Door", width: 800 },
            PlaceableOpening { kind: OpeningKind::Passage, words: "Passage", width: 1000 },
            PlaceableOpening { kind: OpeningKind::Window, words: "Window", width: 1000 },
        ],
        methods: choices!(Method {
            OneAtATime => "One breaker at a time",
            LampAndHelper => "A lamp at one point, breaker after breaker",
            ToneTracer => "Tone tracer first, then the breaker",
            SeveralOff => "Several off at once, the shortest",
        }),
        practice_kit: [
            (Instrument::PlugInTester, "Plug-in tester"),
            (Instrument::Eye, "Look"),
            (Instrument::Lamp, "Lamp"),
            (Instrument::Radio, "Radio"),
            (Instrument::Meter, "Meter"),
            (Instrument::NonContact, "Non-contact tester"),
            (Instrument::ToneTracer, "Tone tracer"),
        ]
        .map(|(instrument, words)| (json!(instrument), words.to_owned()))
        .to_vec(),
        goes_by: goes_by(),
        book_parts: BookPart::ALL.map(|part| NamedPart { name: part.name(), title: part.title() }).to_vec(),
        appliances: appliances(),
        day_parts: choices!(DayPart {
            Morning => "morning, 6 to 9",
            Day => "day, 9 to 17",
            Meal => "meal times",
            Evening => "evening, 17 to 23",
            Night => "night, 23 to 6",
            Any => "any time",
        }),
        topics: Topic::ALL.into_iter().map(|topic| (json!(topic), topic.words().to_owned())).collect(),
        danger_signs: DangerSign::ALL.into_iter().map(|sign| (json!(sign), sign.words().to_owned())).collect(),
        job_finds: JobFound::ALL.into_iter().map(|found| (json!(found), found.words().to_owned())).collect(),
        unread_panel: PanelDetails::default(),
        unread_breaker: BreakerDetails::default(),
        plain_point: PointDetails::default(),
    }
}

fn goes_by() -> Vec<(PointKind, Vec<Choice>)> {
    let kinds =
        [PointKind::Receptacle, PointKind::Light, PointKind::Switch, PointKind::Appliance, PointKind::Alarm, PointKind::Fan];
    let choice = |by: &GoesBy| (json!(by), by.words().to_owned());
    kinds.into_iter().map(|kind| (kind, GoesBy::usual_at(kind).iter().map(choice).collect())).collect()
}

fn placeable() -> Vec<Placeable> {
    let thing = |key, words, kind, volts, details| Placeable { key, words, kind, volts, details };
    let plain = PointDetails::default;
    let outlets = |outlets| PointDetails { outlets, ..plain() };
    vec![
        thing("receptacle", "Receptacle", PointKind::Receptacle, 120, plain()),
        thing("light", "Light", PointKind::Light, 120, plain()),
        thing("switch", "Switch", PointKind::Switch, 120, plain()),
        thing("appliance", "Appliance", PointKind::Appliance, 120, plain()),
        thing("alarm", "Alarm", PointKind::Alarm, 120, plain()),
        thing("gfci", "GFCI receptacle", PointKind::Receptacle, 120, PointDetails { gfci: true, ..plain() }),
        thing("quad", "Quad receptacle", PointKind::Receptacle, 120, outlets(Outlets::Quad)),
        thing("single", "Single receptacle", PointKind::Receptacle, 120, outlets(Outlets::Single)),
        thing("outdoor", "Outdoor receptacle", PointKind::Receptacle, 120, PointDetails { outdoor: true, ..plain() }),
        thing("high", "240 V receptacle", PointKind::Receptacle, 240, plain()),
        thing("high-appliance", "240 V appliance", PointKind::Appliance, 240, plain()),
        thing("fan", "Fan", PointKind::Fan, 120, plain()),
        thing("junction", "Junction box", PointKind::JunctionBox, 120, plain()),
        thing("capped", "Capped cable", PointKind::CappedCable, 120, plain()),
    ]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_face_has_its_volts_and_no_aluminum_is_thinner_than_12_awg() {
        let lists = lists();
        assert_eq!(lists.faces120.len() + lists.faces240.len(), Configuration::ALL.len());
        let thin = |name: &str| lists.wires.iter().any(|(value, _)| value == name);
        assert!(thin("14 copper") && thin("12 aluminum") && !thin("14 aluminum"));
        assert_eq!(lists.under_a_switching, ["point_seen", "volts_read", "change_watched", "point_skipped"]);
        assert!(lists.wires.contains(&("250 copper".into(), "250 kcmil copper".into())));
    }
}
