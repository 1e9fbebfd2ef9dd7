//! The loads of a whole home: its circuits ranked on one scale, what may not run together, what could be entered next.

use serde::Serialize;

use super::circuits::{CircuitLoads, NotTogether, OnCircuits, Stands, circuits};
use super::diagnose_supply::{SupplyDiagnosis, diagnose_supply};
use super::draws::LoadLine;
use super::panels::{LegsView, legs_view};
use super::propose_loads::{ProposedLoad, propose_loads};
use super::survey::may_be_joined;
use crate::model::{BreakerId, so_many};
use crate::study::Study;

/// The page of loads.
#[derive(Debug, Clone, PartialEq, Serialize, utoipa::ToSchema)]
pub struct LoadsView {
    /// The worst that is known, as a sentence.
    pub title: String,
    /// What volts at outlets say of the supply, where one that was read is not right.
    pub supply: Option<SupplyDiagnosis>,
    /// Every circuit of which something is known, nearest its limit first; those of which nothing is known last.
    pub circuits: Vec<CircuitLoads>,
    /// The lightest circuits first: for whoever wants to combine two. One-poles that feed no panel and share no neutral.
    pub lightest: Vec<BreakerId>,
    /// What the legs of its panels carry.
    pub legs: LegsView,
    /// What may not run together, the likeliest first, over all circuits.
    pub not_together: Vec<NotTogether>,
    /// Loads at points of which nobody knows the breaker yet.
    pub elsewhere: Vec<LoadLine>,
    /// What the points' kinds and names say may be there, and nobody has entered.
    pub proposed: Vec<ProposedLoad>,
}

/// More than anybody reads beside the list.
const MOST_SETS: usize = 12;

/// The page of loads.
pub fn loads_view(home: &Study) -> LoadsView {
    let mut ranked: Vec<CircuitLoads> = circuits(home).to_vec();
    // What is too close to call counts as the higher, so it stands right behind what is over.
    let order = |stands: Stands| match stands {
        Stands::Over => 0,
        Stands::TooClose => 1,
        Stands::Near | Stands::Room => 2,
        Stands::Nothing => 3,
    };
    // A sort that keeps the order of the panel among equals.
    ranked.sort_by(|a, b| order(a.stands).cmp(&order(b.stands)).then(b.percent.total_cmp(&a.percent)));
    let mut not_together: Vec<NotTogether> = ranked.iter().flat_map(|circuit| circuit.not_together.iter().cloned()).collect();
    not_together.sort_by(|a, b| b.hours_a_year.total_cmp(&a.hours_a_year));
    not_together.truncate(MOST_SETS);
    let on = OnCircuits::of(home);
    let may_be_joined =
        |circuit: &&CircuitLoads| circuit.stands == Stands::Room && may_be_joined(home, circuit, on.on(&circuit.breaker));
    let lightest = ranked.iter().rev().filter(may_be_joined).map(|circuit| circuit.breaker.clone()).collect();
    let elsewhere = on.elsewhere.into_iter().map(|drawn| drawn.line).collect();
    LoadsView {
        title: title(&ranked),
        supply: diagnose_supply(home),
        legs: legs_view(home),
        lightest,
        not_together,
        elsewhere,
        proposed: propose_loads(home),
        circuits: ranked,
    }
}

fn title(ranked: &[CircuitLoads]) -> String {
    let count = |stands: Stands| ranked.iter().filter(|circuit| circuit.stands == stands).count();
    let comes = |count: usize| if count == 1 { "comes" } else { "come" };
    let number = |count: usize| match count {
        1 => "One circuit".to_owned(),
        2 => "Two circuits".to_owned(),
        3 => "Three circuits".to_owned(),
        _ => so_many(count, "circuit"),
    };
    let (over, close, near) = (count(Stands::Over), count(Stands::TooClose), count(Stands::Near));
    let entered = ranked.len() - count(Stands::Nothing);
    if over > 0 {
        format!("{} {} to more than may be carried", number(over), comes(over))
    } else if close > 0 {
        format!("{} too close to call", number(close) + if close == 1 { " is" } else { " are" })
    } else if near > 0 {
        format!("{} {} to 80 % or more", number(near), comes(near))
    } else if entered > 0 {
        format!("{} entered, none near its limit", number(entered))
    } else {
        "What each circuit carries".into()
    }
}
