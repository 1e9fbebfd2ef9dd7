//! What is worth a look in the home: one file per rule.
//!
//! A rule says why it is, by what source and how grave, and is a function over the home that adds its
//! findings; its file tests itself on text fixtures, firing and staying silent. To add one: a file whose
//! header begins with `//! Rule its-code:`, and its name in [`RULES`]; `docs/rules.md` is made from the
//! headers, and a rule that is missing from either is a failed build.
//!
//! A finding is about the user's house, never an error of ours; it is worded as today's rule of the chosen
//! edition, local codes and licensed practice come first, and every screen that shows findings says so.
//! The sum of branch breakers has no limit: nothing here warns about it.

mod back_fed_main;
mod breaker_by_volts;
mod breaker_over_wire;
mod breaker_rating;
mod breaker_type;
mod circuit_overloaded;
mod circuits_over_listed;
mod conductors_under_terminal;
mod continuous_load;
mod data_plate;
mod directory_doubled;
mod directory_missing;
mod directory_wording;
mod fed_by_two_breakers;
mod feeder_over_wire;
mod feeder_short_of_poles;
mod for_an_electrician;
mod found_not_mended;
mod found_on_a_job;
mod generator_interlock;
mod high_leg;
mod hot_spot;
mod hots_on_two_singles;
mod interrupting_rating;
mod leg_overloaded;
mod legs_at_odds;
mod load_alone;
mod main_above_bus;
mod neutral_ground;
mod neutrals_doubled;
mod old_wiring;
mod one_yoke_two_breakers;
mod open_space;
mod outlets_over_twelve;
mod plug_on_neutral;
mod protection_by_place;
mod protection_shared_neutral;
mod receptacle_against_breaker;
mod required_circuits;
mod service_conductors;
mod shared_circuit;
mod shared_neutral_disconnect;
mod shared_neutral_one_leg;
mod slash_rating;
mod slim_pair;
mod solar_on_bus;
mod tamper_resistant;
mod tandem_not_listed;
mod test_failed;
mod too_large_for_what_is_on_it;
mod trips_again;
mod two_hots_on_one_pole;
mod two_pole_one_leg;
mod voltage_drop;
mod volts_of_another_service;
mod volts_too_high;
mod volts_too_low;

use std::collections::BTreeMap;

use crate::logbook::{BreakerPlaced, Fact};
use crate::model::{Breaker, BreakerId, Edition, InCanada, Panel, PanelId, Point, PointId, Room, RoomId, Sections, Service};
use crate::study::Study;
use crate::trace::verdicts;

/// How much it matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// Can do harm: leave the circuit off or call an electrician.
    Danger,
    /// Against today's rule.
    Fault,
    /// Worth knowing.
    Note,
    /// Nothing is wrong: today's rule for the place, for work that is planned.
    Planned,
}

impl Severity {
    /// Every one, the gravest first.
    pub const ALL: [Self; 4] = [Self::Danger, Self::Fault, Self::Note, Self::Planned];

    /// What stands over findings of it.
    pub const fn heading(self) -> &'static str {
        match self {
            Self::Danger => "Danger",
            Self::Fault => "Against today's rule",
            Self::Note => "Worth knowing",
            Self::Planned => "Today's rule by place, for planned work",
        }
    }
}

/// Where it is.
#[derive(Debug, Clone, Default, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct FindingPlace {
    /// In which panel.
    pub panel: Option<PanelId>,
    /// At which breaker.
    pub breaker: Option<BreakerId>,
    /// At which open space.
    pub space: Option<String>,
    /// At which point.
    pub point: Option<PointId>,
    /// In which room.
    pub room: Option<RoomId>,
}

/// What to record once it is mended.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Mend {
    /// What is recorded, as on a button: `A 15 A breaker is in its place`.
    pub words: String,
    /// To be recorded.
    pub facts: Vec<Fact>,
}

/// Something worth a look.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct Finding {
    /// Rule and place, the same as long as it is the same finding: `breaker-over-wire:b12`.
    pub key: String,
    /// The rule, for programs: `breaker-over-wire`.
    pub code: String,
    /// How much it matters.
    pub severity: Severity,
    /// Where it is.
    pub place: FindingPlace,
    /// What it is about, in words: `12`, `Greenhouse panel`, `Room “Emma's room”`.
    pub about: String,
    /// What is the matter.
    pub message: String,
    /// Why that matters.
    pub why: String,
    /// What to do.
    pub remedy: String,
    /// The rule's source.
    pub source: String,
    /// What to record once it is mended, where that can be said.
    pub mend: Option<Mend>,
    /// What work it asks for, as a wish; `null` where it asks for none that a search helps with.
    pub wish: Option<FindingWish>,
    /// It was set aside, for this reason.
    pub aside: Option<String>,
}

/// A wish about a panel.
#[derive(Debug, Clone, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
pub struct FindingWish {
    /// The panel.
    pub panel: PanelId,
    /// As people say it: `replace 12 with 15 A`.
    pub wish: String,
}

/// Where a rule comes from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Source {
    /// Sections of the code, edition by edition.
    Code(Sections),
    /// Common practice, no published source.
    Practice,
}

impl Source {
    /// How it is cited by this edition; `None` where the rule is not judged by it.
    fn cite(&self, edition: Edition) -> Option<String> {
        match self {
            Self::Code(sections) => sections.cite(edition),
            Self::Practice => Some("common practice, no published source; local code comes first".into()),
        }
    }
}

impl Rule {
    /// How each edition is cited; `None` where the rule is not judged by it.
    pub fn cited(&self) -> Vec<(Edition, Option<String>)> {
        Edition::ALL.into_iter().map(|edition| (edition, self.source.cite(edition))).collect()
    }
}

/// What is not judged in this home because the chosen edition's rule is not known here: a sentence, or nothing.
pub(crate) fn not_judged(home: &Study) -> String {
    let edition = home.edition();
    let not_known = |rule: &Rule| match rule.source {
        Source::Code(sections) => sections.not_known(edition).map(str::to_owned),
        Source::Practice => None,
    };
    let matters: Vec<String> = RULES.iter().filter_map(not_known).collect();
    if matters.is_empty() {
        return String::new();
    }
    format!(
        "What {} says is not known here of these, so nothing is said about them: {}. Look them up, or ask an electrician.",
        edition.name(),
        matters.join("; ")
    )
}

/// One rule.
pub struct Rule {
    /// Its name, for programs and in the header of its file.
    pub code: &'static str,
    /// How grave what it finds is.
    pub severity: Severity,
    /// Why it is.
    pub why: &'static str,
    source: Source,
    check: fn(&Checked<'_>, &mut Found<'_>),
}

/// Every rule.
pub const RULES: &[Rule] = &[
    volts_of_another_service::RULE,
    volts_too_high::RULE,
    volts_too_low::RULE,
    breaker_by_volts::RULE,
    neutral_ground::RULE,
    test_failed::RULE,
    found_not_mended::RULE,
    trips_again::RULE,
    main_above_bus::RULE,
    service_conductors::RULE,
    feeder_over_wire::RULE,
    feeder_short_of_poles::RULE,
    breaker_over_wire::RULE,
    shared_neutral_one_leg::RULE,
    high_leg::RULE,
    slash_rating::RULE,
    old_wiring::RULE,
    for_an_electrician::RULE,
    found_on_a_job::RULE,
    fed_by_two_breakers::RULE,
    hot_spot::RULE,
    hots_on_two_singles::RULE,
    two_hots_on_one_pole::RULE,
    generator_interlock::RULE,
    solar_on_bus::RULE,
    shared_neutral_disconnect::RULE,
    one_yoke_two_breakers::RULE,
    protection_shared_neutral::RULE,
    two_pole_one_leg::RULE,
    slim_pair::RULE,
    tandem_not_listed::RULE,
    circuits_over_listed::RULE,
    conductors_under_terminal::RULE,
    neutrals_doubled::RULE,
    breaker_type::RULE,
    interrupting_rating::RULE,
    plug_on_neutral::RULE,
    back_fed_main::RULE,
    receptacle_against_breaker::RULE,
    outlets_over_twelve::RULE,
    too_large_for_what_is_on_it::RULE,
    data_plate::RULE,
    circuit_overloaded::RULE,
    leg_overloaded::RULE,
    continuous_load::RULE,
    shared_circuit::RULE,
    load_alone::RULE,
    voltage_drop::RULE,
    open_space::RULE,
    breaker_rating::RULE,
    legs_at_odds::RULE,
    directory_wording::RULE,
    directory_doubled::RULE,
    directory_missing::RULE,
    protection_by_place::RULE,
    required_circuits::RULE,
    tamper_resistant::RULE,
];

/// What a rule looks at.
struct Checked<'a> {
    home: &'a Study,
    /// The points proven on each breaker.
    points: BTreeMap<&'a BreakerId, Vec<&'a Point>>,
    /// The breaker that each point is proven on.
    proven: BTreeMap<&'a PointId, &'a Breaker>,
}

impl<'a> Checked<'a> {
    fn panel_of(&self, breaker: &Breaker) -> &'a Panel {
        self.home.panels().panel(&breaker.panel).unwrap_or_else(|| panic!("breaker {} has no panel; this is a bug", breaker.id))
    }

    /// Every breaker with its panel.
    fn breakers(&self) -> impl Iterator<Item = (&'a Panel, &'a Breaker)> + use<'_, 'a> {
        self.home.panels().breakers().map(|breaker| (self.panel_of(breaker), breaker))
    }

    fn of(home: &'a Study) -> Self {
        let mut points: BTreeMap<&BreakerId, Vec<&Point>> = BTreeMap::new();
        let mut proven = BTreeMap::new();
        for (id, verdict) in verdicts(home) {
            let Some(breaker) = verdict.proven_on().and_then(|id| home.panels().breaker(id)) else { continue };
            if let Some(point) = home.house().point(id) {
                points.entry(&breaker.id).or_default().push(point);
                proven.insert(id, breaker);
            }
        }
        Self { home, points, proven }
    }

    /// The points proven on a breaker.
    fn points_on(&self, breaker: &BreakerId) -> impl Iterator<Item = &'a Point> + use<'a> {
        self.points.get(breaker).cloned().unwrap_or_default().into_iter()
    }

    /// The breaker that a point is proven on.
    fn breaker_of(&self, point: &Point) -> Option<&'a Breaker> {
        self.proven.get(&point.id).copied()
    }

    /// Groups of circuits that share a neutral, as breakers.
    fn shared_neutrals(&self) -> impl Iterator<Item = Vec<&'a Breaker>> + use<'_, 'a> {
        self.home
            .panels()
            .shared_neutrals()
            .iter()
            .map(|group| group.iter().filter_map(|id| self.home.panels().breaker(id)).collect())
    }

    /// Whether it feeds another panel, as described or as said.
    fn is_feeder(&self, breaker: &Breaker) -> bool {
        !breaker.details.feeds.is_empty() || self.home.panels().panels_on(&breaker.id).next().is_some()
    }
}

/// Takes the findings of one rule.
struct Found<'a> {
    home: &'a Study,
    rule: &'static Rule,
    source: String,
    all: &'a mut Vec<Finding>,
}

impl Found<'_> {
    fn breaker(&mut self, breaker: &Breaker, message: String, remedy: impl Into<String>) -> &mut Finding {
        let place =
            FindingPlace { panel: Some(breaker.panel.clone()), breaker: Some(breaker.id.clone()), ..FindingPlace::default() };
        self.add(breaker.id.as_str(), self.home.panels().number(&breaker.id), place, message, remedy.into())
    }

    /// About the own words of a circuit: beside what the same rule may say of its old label.
    fn own_words(&mut self, breaker: &Breaker, message: String, remedy: impl Into<String>) -> &mut Finding {
        let place =
            FindingPlace { panel: Some(breaker.panel.clone()), breaker: Some(breaker.id.clone()), ..FindingPlace::default() };
        let number = self.home.panels().number(&breaker.id);
        self.add(&format!("own words:{}", breaker.id), number, place, message, remedy.into())
    }

    fn panel(&mut self, panel: &Panel, message: String, remedy: impl Into<String>) -> &mut Finding {
        let place = FindingPlace { panel: Some(panel.id.clone()), ..FindingPlace::default() };
        self.add(panel.id.as_str(), panel.name.clone(), place, message, remedy.into())
    }

    fn room(&mut self, room: &Room, message: String, remedy: impl Into<String>) -> &mut Finding {
        let place = FindingPlace { room: Some(room.id.clone()), ..FindingPlace::default() };
        self.add(room.id.as_str(), room.name.clone(), place, message, remedy.into())
    }

    fn add(&mut self, subject: &str, about: String, place: FindingPlace, message: String, remedy: String) -> &mut Finding {
        self.all.push(Finding {
            key: format!("{}:{subject}", self.rule.code),
            code: self.rule.code.into(),
            severity: self.rule.severity,
            place,
            about,
            message,
            why: self.rule.why.into(),
            remedy,
            source: self.source.clone(),
            mend: None,
            wish: None,
            aside: None,
        });
        self.all.last_mut().unwrap_or_else(|| unreachable!("one was pushed"))
    }
}

impl Finding {
    fn mended_by(&mut self, words: impl Into<String>, facts: Vec<Fact>) {
        self.mend = Some(Mend { words: words.into(), facts });
    }
}

/// What to say where an electrician has to do it.
const FOR_QUALIFIED: &str = "Opening the panel is work for qualified people.";

struct Findings(Vec<Finding>);

/// Everything worth a look, the gravest first; what was set aside at the end.
pub fn findings(home: &Study) -> &[Finding] {
    &home.once(|| Findings(all_findings(home))).0
}

fn all_findings(home: &Study) -> Vec<Finding> {
    let mut all = Vec::new();
    let checked = Checked::of(home);
    for rule in RULES {
        if let Some(source) = rule.source.cite(home.edition()) {
            (rule.check)(&checked, &mut Found { home, rule, source, all: &mut all });
        }
    }
    for finding in &mut all {
        finding.wish = wish_of(home, finding);
        // On a high-leg service no move is proposed: what it would bring is an electrician's to judge.
        let panel = finding.place.panel.as_ref().and_then(|id| home.panels().panel(id));
        let moves = |fact: &Fact| matches!(fact, Fact::BreakerMoved(_) | Fact::BreakersJoined(_));
        if panel.is_some_and(|panel| panel.service == Service::HighLeg) {
            finding.mend.take_if(|mend| mend.facts.iter().any(moves));
        }
        // Set aside only as long as it says the same: a graver state of the same thing is a new finding.
        if let Some(aside) = home.set_aside(&finding.key).filter(|aside| aside.message == finding.message) {
            finding.aside = Some(format!("{} ({})", aside.reason, aside.by));
        }
    }
    all.sort_by_key(|finding| (finding.aside.is_some(), finding.severity));
    all
}

/// The wish that ends a finding.
fn wish_of(home: &Study, finding: &Finding) -> Option<FindingWish> {
    let panel = finding.place.panel.clone()?;
    let breaker = finding.place.breaker.as_ref().and_then(|id| home.panels().breaker(id));
    let smaller = finding.mend.iter().flat_map(|mend| &mend.facts).find_map(|fact| match fact {
        Fact::BreakerPlaced(placed) => Some(placed.amps),
        _ => None,
    });
    let wish = match (finding.code.as_str(), breaker) {
        ("breaker-over-wire" | "too-large-for-what-is-on-it", Some(breaker)) => {
            format!("replace {} with {}", breaker.number(), smaller?)
        }
        ("hot-spot" | "test-failed" | "breaker-by-volts" | "breaker-type" | "interrupting-rating", Some(breaker)) => {
            format!("replace {}", breaker.number())
        }
        ("protection-by-place", Some(breaker)) => format!("GFCI for {}", breaker.number()),
        ("leg-overloaded", None) => "level the legs".into(),
        _ => return None,
    };
    Some(FindingWish { panel, wish })
}

/// The same breaker, described anew with something changed.
fn placed_anew(breaker: &Breaker, change: impl FnOnce(&mut BreakerPlaced)) -> Fact {
    let mut placed = BreakerPlaced::from(breaker);
    change(&mut placed);
    Fact::BreakerPlaced(placed)
}

/// `14a and 16b`, `1, 3 and 5`.
fn and(words: &[String]) -> String {
    match words {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

/// What a rule says about the home that these acts make: `about: message`.
#[cfg(test)]
fn said(code: &str, acts: &str) -> Vec<String> {
    assert!(RULES.iter().any(|rule| rule.code == code), "{code} is not registered");
    let home = crate::fixture::written(acts).home;
    findings(&home).iter().filter(|f| f.code == code).map(|f| format!("{}: {}", f.about, f.message)).collect()
}

/// The home after the rule's first finding was mended as it proposes.
#[cfg(test)]
fn said_when_mended(code: &str, acts: &str) -> Vec<String> {
    let mut written = crate::fixture::written(acts);
    let finding = findings(&written.home).iter().find(|f| f.code == code).cloned().unwrap();
    for fact in finding.mend.unwrap().facts {
        written.act(&format!("fact {}", serde_json::to_string(&fact).unwrap())).unwrap();
    }
    findings(&written.home).iter().filter(|f| f.code == code).map(|f| format!("{}: {}", f.about, f.message)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;

    #[test]
    fn what_is_set_aside_goes_to_the_end_and_comes_back_when_it_changes() {
        let mut w = written("panel 24\n12 20 #14 darkroom\n3 15 gen. light");
        let first = findings(&w.home)[0].clone();
        assert_eq!((first.code.as_str(), first.aside.as_deref()), ("breaker-over-wire", None));
        let aside = |w: &mut crate::fixture::Written, reason: &str, aside: bool| {
            let fact = serde_json::json!({"kind": "finding_set_aside", "finding": first.key, "message": first.message,
                "reason": reason, "aside": aside});
            w.act(&format!("fact {fact}"))
        };
        assert!(aside(&mut w, "", true).is_err(), "a reason is asked for");
        aside(&mut w, "the electrician comes on Friday", true).unwrap();
        let last = findings(&w.home).last().unwrap();
        assert_eq!(last.aside.as_deref(), Some("the electrician comes on Friday (tester)"));
        w.act("set 12 {\"amps\": 30}").unwrap();
        assert_eq!(findings(&w.home)[0].aside, None, "30 A on 14 AWG is another finding");
        w.act("set 12 {\"amps\": 20}").unwrap();
        assert!(findings(&w.home).last().unwrap().aside.is_some());
        aside(&mut w, "", false).unwrap();
        assert_eq!(findings(&w.home)[0].aside, None);
    }

    #[test]
    fn the_sum_of_branch_breakers_is_never_warned_about() {
        let card: String = (1..=40).step_by(4).map(|n| format!("{n}-{} 100/2 load in room {n}\n", n + 2)).collect();
        let home = written(&format!("panel 42\nwith main {{\"main\": 100, \"details\": {{\"bus\": 100}}}}\n{card}")).home;
        assert_eq!(home.panels().breakers().count(), 10);
        assert_eq!(findings(&home), []);
    }

    #[test]
    fn every_source_names_the_edition_and_the_local_code() {
        let mut w = written("panel 24\n12 20 #14 darkroom");
        let source = |w: &crate::fixture::Written| findings(&w.home)[0].source.clone();
        for (edition, cited) in [
            ("nec2017", "NEC 2017 240.4(D) and Table 310.15(B)(16), from memory"),
            ("nec2020", "NEC 2020 240.4(D) and Table 310.16, from memory"),
            ("cec2024", "CEC 2024 14-104 and Tables 2, 4 and 13, from memory"),
        ] {
            w.acts(&format!("rules {edition}"));
            assert_eq!(source(&w), format!("{cited}; local code comes first"));
        }
    }
}
