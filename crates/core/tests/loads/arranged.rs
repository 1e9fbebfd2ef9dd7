//! Whether an arrangement of a panel may be, by code that knows nothing of the leveller.

use std::collections::BTreeMap;

use serde_json::Value;

/// Checks an arrangement from the input alone: who may sit where, and how many wires it took. The legs that it gives.
pub(crate) fn legal(input: &Value, witness: &Value, moves: u64) -> Result<BTreeMap<String, Vec<i64>>, String> {
    let panels = input["panels"].as_array().unwrap();
    let mut wires = 0;
    let mut all: BTreeMap<usize, Vec<i64>> = BTreeMap::new();
    let mut after = BTreeMap::new();
    // Fed panels stand after the panel that feeds them.
    for (number, panel) in panels.iter().enumerate().rev() {
        let spaces = panel["spaces"].as_array().unwrap();
        let mut taken: BTreeMap<u64, &str> = BTreeMap::new();
        let mut legs = vec![0_i64; usize::try_from(panel["legs"].as_u64().unwrap()).unwrap()];
        for unit in panel["units"].as_array().unwrap() {
            let (id, kind) = (unit["id"].as_str().unwrap(), unit["kind"].as_str().unwrap());
            let was: Vec<u64> = unit["spaces"].as_array().unwrap().iter().map(|at| at.as_u64().unwrap()).collect();
            let is: Vec<u64> = match &witness[id] {
                Value::Null => was.clone(),
                moved => moved.as_array().unwrap().iter().map(|at| at.as_u64().unwrap()).collect(),
            };
            let moved: u64 = was.iter().zip(&is).map(|(was, is)| u64::from(was != is)).sum();
            wires += if kind == "tandem" { 2 * moved } else { moved };
            let sorted = |spaces: &[u64]| {
                let mut spaces = spaces.to_vec();
                spaces.sort_unstable();
                spaces
            };
            match kind {
                "single" if is.len() == 1 => {}
                "tandem" if is.len() == 1 && (moved == 0 || spaces[usize::try_from(is[0]).unwrap()]["tandem"] == true) => {}
                "group" | "feeder" if moved == 0 || unit["turn"] == true && sorted(&was) == sorted(&is) => {}
                "fixed" if moved == 0 => {}
                _ => return Err(format!("{id} may not go to {is:?}")),
            }
            let amps: Vec<i64> = match kind {
                "feeder" => all[&usize::try_from(unit["feeds"].as_u64().unwrap()).unwrap()].clone(),
                _ => unit["amps_x10"].as_array().unwrap().iter().map(|amps| amps.as_i64().unwrap()).collect(),
            };
            for (hot, at) in is.iter().enumerate() {
                let space = &spaces[usize::try_from(*at).unwrap()];
                if space["blocked"] == true || taken.insert(*at, id).is_some() {
                    return Err(format!("{id} sits where it cannot, in {at}"));
                }
                let carries = if is.len() == 1 { amps.iter().sum() } else { amps[hot] };
                legs[usize::try_from(space["leg"].as_u64().unwrap()).unwrap()] += carries;
            }
        }
        all.insert(number, legs.clone());
        after.insert(panel["name"].as_str().unwrap().to_owned(), legs);
    }
    if wires > moves { Err(format!("{wires} wires for {moves} moves")) } else { Ok(after) }
}
