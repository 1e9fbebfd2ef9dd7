//! What several loads come to at one time, when each runs by chance.
//!
//! In: what each takes, in hundredths of an ampere, and its chance of running in each hour of the day. Out: the exact distribution of
//! the sum, taken as independent. It plans, it never proves that something is safe: people cook at one time, so the true tail is
//! heavier.

/// The chance of running, hour by hour.
pub type Hours = [f64; 24];

/// What may run of a group in an hour, with its chance.
type Chances = Vec<(i64, f64)>;

/// Loads that depend on one another. Those of different groups are taken as independent.
#[derive(Debug, Clone, PartialEq)]
pub enum Group {
    /// One load, or several that always run together as their sum.
    One(i64, Hours),
    /// Loads of which at most one runs at a time.
    OneOf(Vec<(i64, Hours)>),
}

impl Group {
    /// What it takes at most, in hundredths of an ampere.
    pub fn most_x100(&self) -> i64 {
        match self {
            Self::One(amps, _) => *amps,
            Self::OneOf(each) => each.iter().map(|(amps, _)| *amps).max().unwrap_or(0),
        }
    }

    fn chances(&self, hour: usize) -> Chances {
        match self {
            Self::One(amps, hours) => vec![(*amps, hours[hour])],
            Self::OneOf(each) => each.iter().map(|(amps, hours)| (*amps, hours[hour])).collect(),
        }
    }
}

/// Sums that may come, in hundredths of an ampere, from the smallest, with the chance of each.
#[derive(Debug, Clone, PartialEq)]
pub struct Distribution(Vec<(i64, f64)>);

/// What may be exceeded one hour in a hundred.
const TAIL: f64 = 0.01;
/// What the machine's own rounding may add to a tail that is a hundredth to the last digit.
const SLACK: f64 = 1e-12;

impl Distribution {
    /// Nothing runs.
    fn nothing() -> Self {
        Self(vec![(0, 1.0)])
    }

    /// With one group more.
    fn and(&self, chances: &[(i64, f64)]) -> Self {
        let runs: f64 = chances.iter().map(|(_, chance)| chance).sum();
        // Should the chances of loads that exclude one another come to more than one, they share it.
        let (scale, rests) = if runs > 1.0 { (1.0 / runs, 0.0) } else { (1.0, 1.0 - runs) };
        let mut next = scaled(&self.0, 0, rests);
        for (amps, chance) in chances.iter().filter(|(_, chance)| *chance > 0.0) {
            next = merged(next, &scaled(&self.0, *amps, chance * scale));
        }
        Self(next)
    }

    /// The chance of more than this.
    pub fn above(&self, amps_x100: i64) -> f64 {
        self.0.iter().rev().take_while(|(amps, _)| *amps > amps_x100).map(|(_, chance)| chance).sum()
    }

    /// The least that is exceeded at most one hour in a hundred.
    pub fn expected_x100(&self) -> i64 {
        self.at_most(TAIL)
    }

    /// The least that is exceeded with this chance at most.
    pub fn at_most(&self, tail: f64) -> i64 {
        let mut above = 0.0;
        for (amps, chance) in self.0.iter().rev() {
            above += chance;
            if above > tail + SLACK {
                return *amps;
            }
        }
        0
    }
}

fn scaled(from: &[(i64, f64)], shift: i64, by: f64) -> Vec<(i64, f64)> {
    if by <= 0.0 { Vec::new() } else { from.iter().map(|(amps, chance)| (amps + shift, chance * by)).collect() }
}

/// Both in one, from the smallest; what is the same is added.
fn merged(a: Vec<(i64, f64)>, b: &[(i64, f64)]) -> Vec<(i64, f64)> {
    let mut all = Vec::with_capacity(a.len() + b.len());
    let (mut i, mut j) = (0, 0);
    while i < a.len() || j < b.len() {
        let next = match (a.get(i), b.get(j)) {
            (Some(one), Some(other)) if one.0 == other.0 => {
                (i, j) = (i + 1, j + 1);
                (one.0, one.1 + other.1)
            }
            (Some(one), Some(other)) if one.0 < other.0 => {
                i += 1;
                *one
            }
            (Some(one), None) => {
                i += 1;
                *one
            }
            (_, Some(other)) => {
                j += 1;
                *other
            }
            (None, None) => break,
        };
        all.push(next);
    }
    all
}

/// What these groups come to.
#[derive(Debug, Clone, PartialEq)]
pub struct Peak {
    /// Exceeded at most one hour in a hundred of all hours of a day, in hundredths of an ampere.
    pub expected_x100: i64,
    /// The same of the busiest hour.
    pub busiest_x100: i64,
    /// Which hour that is, 0 to 23.
    pub busiest_hour: usize,
    /// Everything at one time.
    pub connected_x100: i64,
    /// The mean of the day.
    pub day: Distribution,
}

/// What these groups come to, over a day.
pub fn peak(groups: &[Group]) -> Peak {
    let mut done: Vec<(Vec<Chances>, Distribution)> = Vec::new();
    let mut day: Vec<(i64, f64)> = Vec::new();
    let (mut busiest_x100, mut busiest_hour) = (0, 0);
    for hour in 0..24 {
        let chances: Vec<Chances> = groups.iter().map(|group| group.chances(hour)).collect();
        // Many hours are alike; each kind is worked out once.
        let known = done.iter().position(|(earlier, _)| *earlier == chances);
        let at = known.unwrap_or_else(|| {
            let sum = chances.iter().fold(Distribution::nothing(), |sum, chances| sum.and(chances));
            done.push((chances, sum));
            done.len() - 1
        });
        let sum = &done[at].1;
        day = merged(day, &scaled(&sum.0, 0, 1.0 / 24.0));
        let here = sum.expected_x100();
        if here > busiest_x100 {
            (busiest_x100, busiest_hour) = (here, hour);
        }
    }
    let day = Distribution(day);
    let connected_x100 = groups.iter().map(Group::most_x100).sum();
    Peak { expected_x100: day.expected_x100(), busiest_x100, busiest_hour, connected_x100, day }
}

/// Loads that together are more than a breaker carries, while any of them less is not.
#[derive(Debug, Clone, PartialEq)]
pub struct MayNotRunTogether {
    /// Which loads, by their number.
    pub loads: Vec<usize>,
    /// Their sum, in hundredths of an ampere.
    pub sum_x100: i64,
    /// The chance that they meet in an hour, the mean of a day.
    pub meet: f64,
}

/// More sets than anybody reads; beyond this many it is said that there are more.
const MOST_SETS: usize = 1000;

/// Every smallest set of loads whose sum is above the limit, the likeliest first; `true` where there are more than are told.
/// `never` tells pairs that cannot run together.
pub fn may_not_run_together(
    loads: &[(i64, Hours)],
    limit_x100: i64,
    never: &dyn Fn(usize, usize) -> bool,
) -> (Vec<MayNotRunTogether>, bool) {
    let mut order: Vec<usize> = (0..loads.len()).filter(|at| loads[*at].0 > 0).collect();
    order.sort_by_key(|at| (std::cmp::Reverse(loads[*at].0), *at));
    let mut found = Vec::new();
    let mut chosen = Vec::new();
    let more = !extend(loads, &order, limit_x100, never, (&mut chosen, 0), &mut found);
    found.sort_by(|a, b| b.meet.total_cmp(&a.meet).then_with(|| b.sum_x100.cmp(&a.sum_x100)).then_with(|| a.loads.cmp(&b.loads)));
    (found, more)
}

/// Adds downwards in size: the first load that crosses the limit ends a set, so each smallest set comes once. `false`: there are more.
fn extend(
    loads: &[(i64, Hours)],
    order: &[usize],
    limit_x100: i64,
    never: &dyn Fn(usize, usize) -> bool,
    (chosen, sum): (&mut Vec<usize>, i64),
    found: &mut Vec<MayNotRunTogether>,
) -> bool {
    for (at, load) in order.iter().enumerate() {
        let rest: i64 = order[at..].iter().map(|load| loads[*load].0).sum();
        if sum + rest <= limit_x100 {
            return true;
        }
        if chosen.iter().any(|other| never(*other, *load)) {
            continue;
        }
        chosen.push(*load);
        let with = sum + loads[*load].0;
        let go_on = if with > limit_x100 {
            let meets = |hour: usize| chosen.iter().map(|load| loads[*load].1[hour]).product::<f64>();
            let meet = (0..24).map(meets).sum::<f64>() / 24.0;
            found.push(MayNotRunTogether { loads: chosen.clone(), sum_x100: with, meet });
            found.len() < MOST_SETS
        } else {
            extend(loads, &order[at + 1..], limit_x100, never, (chosen, with), found)
        };
        chosen.pop();
        if !go_on {
            return false;
        }
    }
    true
}

#[cfg(test)]
mod tests {
    use super::*;

    fn steady(amps_x100: i64, chance: f64) -> Group {
        Group::One(amps_x100, [chance; 24])
    }

    #[test]
    fn what_one_hour_in_a_hundred_exceeds() {
        // Arithmetic by hand, from the specification of the loads.
        let expected = |groups: &[Group]| peak(groups).expected_x100;
        assert_eq!(expected(&[steady(1200, 0.02)]), 1200);
        assert_eq!(expected(&[steady(1200, 0.005)]), 0);
        assert_eq!(expected(&[steady(1000, 0.10), steady(500, 0.10)]), 1000);
        assert_eq!(expected(&[steady(1000, 0.11), steady(500, 0.11)]), 1500);
        assert_eq!(expected(&vec![steady(100, 0.2); 10]), 500);
        assert_eq!(expected(&vec![steady(100, 0.1); 20]), 600);
    }

    #[test]
    fn what_excludes_one_another_never_adds_up() {
        let heat_or_cool = Group::OneOf(vec![(1000, [0.5; 24]), (1500, [0.5; 24])]);
        let peak = peak(&[heat_or_cool, steady(100, 1.0)]);
        assert_eq!((peak.expected_x100, peak.connected_x100), (1600, 1600));
        assert!((peak.day.above(1100) - 0.5).abs() < 1e-12);
    }

    #[test]
    fn every_smallest_set_once() {
        let loads: Vec<(i64, Hours)> = [900, 700, 600, 500, 300, 100].map(|amps| (amps, [0.1; 24])).into();
        let (found, more) = may_not_run_together(&loads, 1500, &|_, _| false);
        let sum = |set: u32| (0..6).filter(|at| set & (1 << at) != 0).map(|at| loads[at].0).sum::<i64>();
        let smallest = |set: &u32| sum(*set) > 1500 && (0..6).all(|at| set & (1 << at) == 0 || sum(set & !(1 << at)) <= 1500);
        let mut wanted: Vec<u32> = (0..64).filter(smallest).collect();
        let mut got: Vec<u32> = found.iter().map(|set| set.loads.iter().map(|at| 1 << at).sum()).collect();
        wanted.sort_unstable();
        got.sort_unstable();
        assert_eq!((got, more), (wanted, false));
        assert!(found.windows(2).all(|pair| pair[0].meet >= pair[1].meet));
        let (apart, _) = may_not_run_together(&loads, 1500, &|a, b| a + b == 1);
        assert!(apart.iter().all(|set| !(set.loads.contains(&0) && set.loads.contains(&1))) && !apart.is_empty());
    }
}
