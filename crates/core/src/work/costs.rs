//! What ways cost: minutes by the crew's own pace, money by the owner's price list, and the usual guesses where there is neither.

use std::collections::BTreeMap;

use super::problem::{Costs, Effort, Move, Prices, Weights};
use crate::logbook::KnownJob;
use crate::model::{Job, JobMove, PriceOf};
use crate::study::Study;

/// The usual figures of the search: guesses, open to everybody's own.
pub(super) fn usual_costs() -> (Costs, Weights) {
    let single: BTreeMap<String, i64> =
        [("standard", 8), ("gfci", 50), ("afci", 45), ("dual", 55)].map(|(k, v)| (k.into(), v)).into();
    let double: BTreeMap<String, i64> =
        [("standard", 18), ("gfci", 110), ("afci", 110), ("dual", 120)].map(|(k, v)| (k.into(), v)).into();
    let costs = Costs {
        open: [30, 0, 2],
        new: [20, 0, 1],
        gap: [0, 0, 0],
        moved: [0, 0, 1],
        move_pole: [6, 0, 0],
        splice: [6, 3, 1],
        reland_pole: [4, 0, 0],
        join: [12, 3, 3],
        join_neutral: [6, 1, 0],
        tap: [6, 0, 2],
        take_out: [3, 0, 0],
        sub: [240, 180, 6],
        to_sub: [20, 0, 1],
        to_sub_pole: [5, 6, 0],
        manage: [10, 0, 1],
        electrician: [120, 450, 1],
        price: Prices { single, double, tandem: 25, quad: 45, slim: 25, thin: 10 },
    };
    (costs, Weights { minute: 50, money: 100, risk: 800, imbalance: 2 })
}

/// So many jobs done, their pace counts.
const ENOUGH: usize = 3;
/// A pause, not a pace: longer than this between two answers is not counted.
const PAUSE_MS: i64 = 20 * 60_000;

/// The costs of this home, and where they are from.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct HomeCosts {
    pub(super) costs: Costs,
    pub(super) weights: Weights,
    /// How money is written; empty where none is shown.
    pub(super) currency: String,
    /// Where minutes and money are from, in a sentence.
    pub(super) words: String,
}

/// What ways cost in this home.
pub(super) fn home_costs(home: &Study) -> HomeCosts {
    let (mut costs, weights) = usual_costs();
    let pace = pace(home, &costs);
    if let Some((pace, _)) = pace {
        for effort in efforts(&mut costs) {
            effort[0] = (effort[0] as f64 * pace).round() as i64;
        }
    }
    let list = home.planning().prices();
    for (of, price) in &list.prices {
        *money(&mut costs, *of) = price.round() as i64;
    }
    let missing: Vec<&str> = PriceOf::ALL.into_iter().filter(|of| !list.prices.contains_key(of)).map(PriceOf::words).collect();
    let complete = missing.is_empty();
    let minutes = match pace {
        Some((pace, jobs)) => format!("minutes by your own pace ({pace:.1} times the usual, over {jobs} jobs)"),
        None => "minutes, which are guesses".to_owned(),
    };
    let money = match (list.prices.is_empty(), complete) {
        (true, _) => "usual prices, which are guesses; with no price list no money is shown".to_owned(),
        (_, true) => "your price list".to_owned(),
        (false, false) => {
            format!("your price list and guesses for what it leaves out ({}), so no money is shown", missing.join(", "))
        }
    };
    let currency = match (complete, list.currency.is_empty()) {
        (false, _) => String::new(),
        (true, true) => "money".to_owned(),
        (true, false) => list.currency.clone(),
    };
    HomeCosts { costs, weights, currency, words: format!("Ranked by {minutes}, by risks, and by {money}.") }
}

/// Of the minutes of a plan those with the main off, about: a third of what opening takes goes before it, at the closed panel, and a new
/// sub-panel is hung with the power on. A guess, as the minutes are.
pub(super) fn off_minutes(minutes: i64, moves: &[Move], costs: &Costs) -> i64 {
    let hung = if moves.contains(&Move::Sub) { costs.sub[0] } else { 0 };
    (minutes - costs.open[0] / 3 - hung).max(0)
}

fn efforts(costs: &mut Costs) -> [&mut Effort; 16] {
    [
        &mut costs.open,
        &mut costs.new,
        &mut costs.gap,
        &mut costs.moved,
        &mut costs.move_pole,
        &mut costs.splice,
        &mut costs.reland_pole,
        &mut costs.join,
        &mut costs.join_neutral,
        &mut costs.tap,
        &mut costs.take_out,
        &mut costs.sub,
        &mut costs.to_sub,
        &mut costs.to_sub_pole,
        &mut costs.manage,
        &mut costs.electrician,
    ]
}

/// Where a price stands among the costs.
fn money(costs: &mut Costs, of: PriceOf) -> &mut i64 {
    fn of_kind<'a>(prices: &'a mut BTreeMap<String, i64>, kind: &str) -> &'a mut i64 {
        prices.entry(kind.into()).or_default()
    }
    match of {
        PriceOf::OnePole => of_kind(&mut costs.price.single, "standard"),
        PriceOf::OnePoleGfci => of_kind(&mut costs.price.single, "gfci"),
        PriceOf::OnePoleAfci => of_kind(&mut costs.price.single, "afci"),
        PriceOf::OnePoleDual => of_kind(&mut costs.price.single, "dual"),
        PriceOf::TwoPole => of_kind(&mut costs.price.double, "standard"),
        PriceOf::TwoPoleGfci => of_kind(&mut costs.price.double, "gfci"),
        PriceOf::TwoPoleAfci => of_kind(&mut costs.price.double, "afci"),
        PriceOf::TwoPoleDual => of_kind(&mut costs.price.double, "dual"),
        PriceOf::Tandem => &mut costs.price.tandem,
        PriceOf::Extension => &mut costs.splice[1],
        PriceOf::Pigtail => &mut costs.join[1],
        PriceOf::NeutralPigtail => &mut costs.join_neutral[1],
        PriceOf::SubPanel => &mut costs.sub[1],
        PriceOf::SubPanelWire => &mut costs.to_sub_pole[1],
        PriceOf::Electrician => &mut costs.electrician[1],
    }
}

/// How long this crew takes, in parts of the usual: the middle one of its jobs, and over how many. A made-up house is worked on in no
/// time, so its crew keeps the usual.
fn pace(home: &Study, usual: &Costs) -> Option<(f64, usize)> {
    if home.practice().is_some() {
        return None;
    }
    let ratio = |job: &KnownJob| Some(took_minutes(job)? / usual_minutes(job, usual)?);
    let mut ratios: Vec<f64> = home.jobs().all().filter_map(ratio).collect();
    ratios.sort_by(f64::total_cmp);
    (ratios.len() >= ENOUGH).then(|| (ratios[ratios.len() / 2].clamp(0.5, 4.0), ratios.len()))
}

/// The minutes between the answers of a job that is done, pauses left out. `None` where it was not answered step by step.
fn took_minutes(job: &KnownJob) -> Option<f64> {
    let ended = job.ended?;
    let mut moments: Vec<i64> = job.steps.values().filter_map(|step| step.at).map(|at| at.unix_ms()).collect();
    moments.extend([job.at.unix_ms(), ended.unix_ms()]);
    moments.sort_unstable();
    let gaps = moments.windows(2).map(|pair| pair[1] - pair[0]).filter(|gap| *gap <= PAUSE_MS);
    let minutes = gaps.sum::<i64>() as f64 / 60_000.0;
    // A sheet that is ticked off afterwards, all at once, tells nothing.
    (job.steps.len() >= 4 && minutes >= 5.0).then_some(minutes)
}

/// The minutes of its moves by the usual figures.
fn usual_minutes(job: &KnownJob, usual: &Costs) -> Option<f64> {
    let Job::Panel { moves, .. } = &job.work else { return None };
    let of = |one: &JobMove| match one {
        JobMove::New { .. } => usual.new[0],
        JobMove::Move { at, .. } => usual.move_pole[0] * at.len() as i64,
        JobMove::Replace { .. } | JobMove::OnePole { .. } | JobMove::TwoPole { .. } => usual.move_pole[0],
        JobMove::Join { .. } => usual.join[0],
        JobMove::Tap { .. } => usual.tap[0],
        JobMove::TakeOut { .. } | JobMove::Fill { .. } => usual.take_out[0],
        JobMove::Tighten { .. } => usual.reland_pole[0],
    };
    Some((usual.open[0] + moves.iter().map(of).sum::<i64>()) as f64)
}

/// A price list as it was read.
#[derive(Debug, Clone, PartialEq, serde::Serialize, utoipa::ToSchema)]
pub struct PricesRead {
    /// How money is written; empty where the list does not say.
    pub currency: String,
    /// The prices.
    pub prices: BTreeMap<PriceOf, f64>,
    /// What was not understood, a sentence each.
    pub odd: Vec<String>,
    /// What the list leaves out.
    pub missing: Vec<String>,
}

/// The rows of a price list: what, price. The first row names the columns.
pub fn price_rows(home: &Study) -> Vec<[String; 2]> {
    let list = home.planning().prices();
    let head = if list.currency.is_empty() { "price".to_owned() } else { format!("price in {}", list.currency) };
    let rows = PriceOf::ALL.into_iter().map(|of| {
        let price = list.prices.get(&of).map_or_else(String::new, |price| format!("{price}"));
        [of.words().to_owned(), price]
    });
    std::iter::once(["what".to_owned(), head]).chain(rows).collect()
}

/// Reads a price list: a column with what it is, as [`price_rows`] names it, and one with its price.
///
/// # Errors
/// A sentence where no row has a price.
pub fn read_prices(rows: &[Vec<String>]) -> Result<PricesRead, String> {
    let mut read = PricesRead { currency: String::new(), prices: BTreeMap::new(), odd: Vec::new(), missing: Vec::new() };
    for (n, row) in rows.iter().enumerate() {
        let cell = |nth: usize| row.get(nth).map_or("", |cell| cell.trim());
        let (what, price) = (cell(0).to_lowercase(), cell(1));
        if what.is_empty() {
            continue;
        }
        let Some(of) = PriceOf::ALL.into_iter().find(|of| of.words().to_lowercase() == what) else {
            if let Some((_, currency)) = price.split_once(" in ").filter(|_| n == 0) {
                read.currency = currency.trim().chars().take(6).collect();
            } else if n > 0 || price.chars().any(|c| c.is_ascii_digit()) {
                read.odd.push(format!("Line {}: \u{201c}{}\u{201d} is nothing that has a price here.", n + 1, cell(0)));
            }
            continue;
        };
        if price.is_empty() {
            continue;
        }
        match amount(price) {
            Some((amount, currency)) => {
                if read.currency.is_empty() {
                    read.currency = currency;
                }
                if read.prices.insert(of, amount).is_some() {
                    read.odd.push(format!("Line {}: {} stands twice; the later price counts.", n + 1, of.words()));
                }
            }
            None => read.odd.push(format!("Line {}: \u{201c}{price}\u{201d} is no price.", n + 1)),
        }
    }
    if read.prices.is_empty() {
        return Err(
            "No price was found. Take the empty list as a pattern: what it is in the first column, its price in the second."
                .into(),
        );
    }
    let missing = PriceOf::ALL.into_iter().filter(|of| !read.prices.contains_key(of));
    read.missing = missing.map(|of| of.words().to_owned()).collect();
    Ok(read)
}

/// `8`, `8.50`, `8,50`, `$8.50`, `1,250.00`, with the sign of the currency, where there is one.
fn amount(text: &str) -> Option<(f64, String)> {
    let is_figure = |c: char| c.is_ascii_digit() || c == '.' || c == ',';
    let figure: String = text.chars().filter(|c| is_figure(*c)).collect();
    let rest: String = text.chars().filter(|c| !is_figure(*c) && !c.is_whitespace()).collect();
    if rest.contains('-') || rest.chars().count() > 4 {
        return None;
    }
    // The last sign with one or two digits after it is the decimal one; the others part thousands.
    let decimals = figure.rfind(['.', ',']).filter(|at| (1..=2).contains(&(figure.len() - at - 1)));
    let plain: String = match decimals {
        Some(at) => format!("{}.{}", figure[..at].replace(['.', ','], ""), &figure[at + 1..]),
        None => figure.replace(['.', ','], ""),
    };
    let amount: f64 = plain.parse().ok()?;
    (0.0..=100_000.0).contains(&amount).then_some((amount, rest))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fixture::written;
    use crate::logbook::{JobAnswered, JobBegun, JobEnded};
    use crate::model::{JobAnswer, JobId, Moment};

    #[test]
    fn a_price_list_is_read_back_as_it_was_written_and_odd_lines_are_told() {
        let full: Vec<String> =
            PriceOf::ALL.iter().enumerate().map(|(n, of)| format!("{}:{}", serde_json::json!(of), n + 5)).collect();
        let home = written(&format!("panel 8\nprices $ {{{}}}", full.join(",")));
        let rows: Vec<Vec<String>> = price_rows(&home.home).into_iter().map(Into::into).collect();
        let read = read_prices(&rows).unwrap();
        assert_eq!((&read.prices, read.currency.as_str()), (&home.home.planning().prices().prices, "$"));
        assert!(read.odd.is_empty() && read.missing.is_empty());
        let rows = |text: &str| -> Vec<Vec<String>> { text.lines().map(|l| l.split(';').map(Into::into).collect()).collect() };
        let read = read_prices(&rows("What;Price\nTandem;$ 1,250.50\nbulb;3\none-pole breaker;dear\ntandem;12,5")).unwrap();
        assert_eq!((read.prices[&PriceOf::Tandem], read.currency.as_str()), (12.5, "$"));
        assert_eq!(read.odd.len(), 3, "{:?}", read.odd);
        assert_eq!(read.missing.len(), 14);
        assert!(read_prices(&rows("a;b\nc;d")).unwrap_err().contains("pattern"));
        for (text, is) in
            [("8", Some(8.0)), ("1,250", Some(1250.0)), ("1.250,5", Some(1250.5)), ("-3", None), ("", None), ("x", None)]
        {
            assert_eq!(amount(text).map(|(amount, _)| amount), is, "{text}");
        }
    }

    #[test]
    fn money_is_shown_by_a_whole_list_alone_and_ranks_in_any_case() {
        let home = written("panel 8\nprices $ {\"electrician\": 90}");
        let costs = home_costs(&home.home);
        assert_eq!((costs.costs.electrician[1], costs.currency.as_str()), (90, ""));
        assert!(costs.words.contains("leaves out (one-pole breaker,"), "{}", costs.words);
        assert_eq!(home_costs(&written("panel 8").home).costs, usual_costs().0);
    }

    /// A job of one tightened breaker is 34 minutes by the usual figures; three that took 50, a pause left out, make it 1.5 times as long.
    #[test]
    fn the_crews_own_pace_counts_after_three_jobs() {
        const MINUTE: i64 = 60_000;
        let mut home = written("panel 8\n1 20 #12 hall");
        let mut at = 1_800_000_000_000;
        let mut wait = |minutes: i64| {
            at += minutes * MINUTE;
            Moment::from_unix_ms(at)
        };
        for n in 1..=3 {
            let job: JobId = format!("j{n}").parse().unwrap();
            let breaker = home.home.panels().breakers().next().unwrap().id.clone();
            let work = Job::Panel { panel: "main".parse().unwrap(), moves: vec![JobMove::Tighten { breaker }] };
            home.fact_at(wait(0), JobBegun { job: job.clone(), work }.into()).unwrap();
            for (step, minutes) in [("a", 10), ("b", 10), ("c", 200), ("d", 10), ("e", 10)] {
                let answered = JobAnswered { job: job.clone(), step: step.into(), answer: JobAnswer::Done };
                home.fact_at(wait(minutes), answered.into()).unwrap();
            }
            assert_eq!(home_costs(&home.home).costs.open[0], 30, "not yet: {n}");
            home.fact_at(wait(10), JobEnded { job, changes: Vec::new() }.into()).unwrap();
        }
        let costs = home_costs(&home.home);
        assert_eq!(
            (costs.costs.open[0], costs.costs.new[0], costs.costs.open[2]),
            (44, 29, 2),
            "50 / 34 times, risks as they were"
        );
        assert!(costs.words.contains("1.5 times the usual, over 3 jobs"), "{}", costs.words);
    }
}
