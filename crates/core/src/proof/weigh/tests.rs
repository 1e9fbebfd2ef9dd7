//! The rule against a checker written from its words alone: every number of every point is taken through every line, one after
//! the other. Only what is believed of a point without its own lines, and how many others are believed dark, is taken over.

use proptest::prelude::*;

use super::*;
use crate::proof::{CasePoint, OldLabel};

const POINTS: usize = 5;
const BREAKERS: usize = 4;

/// Two rooms; two receptacles and a light in the first, a receptacle and an appliance in the second; the breakers in a column.
fn case() -> Case {
    let point = |room, class, by_itself| CasePoint {
        room,
        class,
        name: String::new(),
        high: false,
        max_dark_s: None,
        by_itself,
        delicate: false,
    };
    let beside = |b: usize| (0..BREAKERS).filter(|other| other.abs_diff(b) == 1).collect();
    Case {
        rooms: 2,
        walk_s: vec![vec![0.0, 4.0], vec![4.0, 0.0]],
        panel_s: vec![5.0, 7.0],
        next_to: vec![vec![1], vec![0]],
        beside: (0..BREAKERS).map(beside).collect(),
        labels: vec![OldLabel::Place { room: 0 }, OldLabel::Blank, OldLabel::Blank, OldLabel::Kind { class: PointClass::Light }],
        two_pole: vec![false; BREAKERS],
        stay_on: OffSet::NONE,
        leads_on: OffSet::NONE,
        gone: OffSet::NONE,
        delicate: OffSet::NONE,
        points: vec![
            point(0, PointClass::Receptacle, false),
            point(0, PointClass::Receptacle, false),
            point(0, PointClass::Light, false),
            point(1, PointClass::Receptacle, false),
            point(1, PointClass::Appliance, true),
        ],
    }
}

/// Fine, dead, tripped, outage, by itself lit, by itself dark, elsewhere, still on.
type Eight = [f64; 8];

/// A row of eight numbers for each breaker: of each point, and of one that is never looked at beside it; last of all of one that never
/// goes by itself.
struct Naive {
    rows: Vec<Vec<Eight>>,
    nobody: Vec<Vec<Eight>>,
}

impl Naive {
    fn new(case: &Case) -> Self {
        let u = |p: &CasePoint| match (p.by_itself, p.class) {
            (true, _) => 0.3,
            (_, PointClass::Receptacle) => 0.3 * 0.012,
            _ => 0.3 * 0.06,
        };
        let row = |p: &CasePoint| vec![[1.0 - u(p), 0.0, 0.0, 0.0, u(p), 0.0, 0.0, 0.0]; BREAKERS];
        let rows: Vec<Vec<Eight>> = case.points.iter().map(row).collect();
        let mut nobody = rows.clone();
        nobody.push(vec![[1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0]; BREAKERS]);
        Self { nobody, rows }
    }

    fn each(&mut self, mut change: impl FnMut(usize, &mut Eight)) {
        for row in self.rows.iter_mut().chain(&mut self.nobody) {
            row.iter_mut().enumerate().for_each(|(c, eight)| change(c, eight));
        }
    }

    /// In slices so short that what begins and ends within one does not matter. A trace of few points is taken as one of 24.
    fn time(&mut self, seconds: f64) {
        const SLICES: usize = 400;
        let dt = seconds / SLICES as f64;
        let (begins, ends) = (0.03 * dt / (27.0 * 24.0), 1.0 - (-dt / 330.0).exp());
        let changes = 0.5 * (1.0 - (-dt / 100.0).exp());
        for _ in 0..SLICES {
            self.each(|_, x| {
                (x[0], x[3]) = (x[0] * (1.0 - begins) + x[3] * ends, x[3] * (1.0 - ends) + x[0] * begins);
                (x[4], x[5]) = (x[4] * (1.0 - changes) + x[5] * changes, x[5] * (1.0 - changes) + x[4] * changes);
            });
        }
    }

    fn switched(&mut self, which: usize, off: bool) {
        self.each(|c, x| {
            x[2] *= 0.5;
            x[7] *= 0.5;
            if c != which {
                let trips = 0.005 / BREAKERS as f64 + if off && c.abs_diff(which) == 1 { 0.0015 } else { 0.0 };
                x[2] += x[0] * trips;
                x[0] *= 1.0 - trips;
            } else if off {
                let all = x[0] + x[1] + x[2];
                (x[0], x[1], x[2]) = (0.997 * all, 0.0, 0.0);
                x[7] += 0.003 * all;
            } else {
                let all = x[0] + x[7];
                x[1] += 0.01 * all;
                x[2] += 0.003 * all;
                (x[0], x[7]) = (0.987 * all, 0.0);
            }
        });
    }

    fn found_tripped(&mut self, which: usize) {
        self.each(|c, x| {
            if c == which {
                let kept = x[2] + 0.001 * x[0];
                *x = [kept * 0.99, kept * 0.01, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
            }
        });
    }

    /// `known`: the breaker it is proven on, or how likely it is on what is off. `watched`: as this breaker was switched off.
    fn look(
        &mut self,
        point: usize,
        off: OffSet,
        dark: bool,
        anew: bool,
        others_off: f64,
        by: (Result<usize, f64>, Option<usize>),
    ) {
        let (known, watched) = by;
        let proven = known.ok();
        // What is held of a breaker by somebody who looked at nothing and thinks of a point that does not go by itself.
        let held = proven.map_or(0.0, |b| {
            let x = &self.nobody[POINTS][b];
            (x[1] + x[2]) / x.iter().sum::<f64>()
        });
        for (n, row) in self.rows.iter_mut().chain(&mut self.nobody).enumerate() {
            for (c, x) in row.iter_mut().enumerate() {
                if n == point {
                    if anew {
                        let here = x[0] + x[6];
                        (x[0], x[6]) = (here * 0.997, here * 0.003);
                    }
                    let is_off = f64::from(u8::from(off.has(c)));
                    let expected = [is_off, 1.0, 1.0, 1.0, is_off, 1.0, others_off, 0.0];
                    let slip = if dark && watched.is_some() { 0.0002 } else { 0.005 };
                    let beside = dark && watched.is_some_and(|b| c.abs_diff(b) == 1);
                    for (n, (x, p)) in x.iter_mut().zip(expected).enumerate() {
                        let right = if dark { p } else { 1.0 - p };
                        let instead = if beside && (n == 0 || n == 4) { 0.0015 } else { 0.0 };
                        *x *= (right * (1.0 - slip) + (1.0 - right) * slip).max(instead);
                    }
                    continue;
                }
                if !dark {
                    x[3] *= 0.005;
                }
                let Some(b) = proven else {
                    // Dark though it is hardly on what is off: the house may be without power.
                    if dark {
                        x[3] *= (0.995 / (known.unwrap_err() + 0.005 + 0.003)).clamp(1.0, 5.0);
                    }
                    continue;
                };
                let speaks = (0.995 / (0.005 + 0.008 + held)).min(20.0);
                match (dark, off.has(b)) {
                    (true, false) => {
                        x[3] *= speaks;
                        if c == b {
                            x[1] *= speaks;
                            x[2] *= speaks;
                        }
                    }
                    (false, false) if c == b => {
                        x[1] *= 0.005;
                        x[2] *= 0.005;
                    }
                    (true, true) if c == b => x[7] *= 0.005,
                    _ => {}
                }
            }
        }
    }

    /// How likely each breaker is, and how likely by what many points share.
    fn reading(&self, point: usize, prior: &[f64]) -> (Vec<f64>, Vec<f64>) {
        let by = |of: &dyn Fn(&Eight) -> f64| -> Vec<f64> {
            let cells = self.rows[point].iter().zip(&self.nobody[point]).zip(prior);
            cells.map(|((x, nobody), prior)| prior * of(x) / nobody.iter().sum::<f64>()).collect()
        };
        let (all, shared) = (by(&|x| x.iter().sum()), by(&|x| x[1] + x[2] + x[3]));
        let total: f64 = all.iter().sum();
        (all.iter().map(|x| x / total).collect(), shared.iter().map(|x| x / total).collect())
    }
}

/// A line: what kind, which point or breaker, dark or anew.
fn lines() -> impl Strategy<Value = Vec<Line>> {
    prop::collection::vec((0..10_u8, 0..POINTS, any::<bool>(), any::<bool>(), 0..60_u8), 0..50)
}

/// The breaker that a point is proven on, or how likely it is on what is off.
fn known(weigh: &Weigh, case: &Case, point: usize) -> Result<usize, f64> {
    weigh.belief().proven(point).ok_or_else(|| weigh.off().iter().map(|b| weigh.chance_of(case, point, b)).sum())
}

/// For each point the breakers that a dark look with these off would single out.
fn single_causes_of_a_dark_look(weigh: &Weigh, case: &Case, off: OffSet) -> Vec<OffSet> {
    let of = |point| (0..BREAKERS).filter(|b| weigh.would_single_out(case, point, *b, off)).collect();
    (0..POINTS).map(of).collect()
}

type Line = (u8, usize, bool, bool, u8);

/// Takes lines one after the other, and holds every number and every proof against the checker.
fn is_what_the_rule_says(wiring: &[usize], lines: Vec<Line>) -> Result<(), TestCaseError> {
    let case = case();
    let (mut weigh, mut naive) = (Weigh::new(&case, false), Naive::new(&case));
    let mut history: Vec<(usize, OffSet, bool)> = Vec::new();
    for (n, (kind, which, slip, anew, seconds)) in lines.into_iter().enumerate() {
        let breaker = which % BREAKERS;
        weigh.passed(f64::from(seconds));
        // What passes before a line is one with it.
        if seconds > 0 {
            naive.time(f64::from(seconds));
        }
        match kind {
            0..3 => {
                let off = !weigh.off().has(breaker);
                let then = if off { weigh.off().with(breaker) } else { weigh.off().without(breaker) };
                let foreseen = single_causes_of_a_dark_look(&weigh, &case, then);
                weigh.switched(then);
                prop_assert_eq!(foreseen, single_causes_of_a_dark_look(&weigh, &case, then));
                naive.switched(breaker, off);
            }
            3 if slip && !weigh.off().has(breaker) => {
                weigh.tripped(&case, breaker, weigh.off().with(breaker));
                naive.found_tripped(breaker);
            }
            // Watched as a breaker that is on goes off and comes on again.
            9 if !weigh.off().has(seconds as usize % BREAKERS) => {
                let (off, watched) = (weigh.off(), seconds as usize % BREAKERS);
                let changes = (wiring[which] == watched) != (slip && seconds % 7 == 0);
                let lit = !off.has(wiring[which]);
                for (step, (off, dark)) in
                    [(off, !lit), (off.with(watched), !lit || changes), (off, !lit)].into_iter().enumerate()
                {
                    if step > 0 {
                        weigh.switched(off);
                        naive.switched(watched, step == 1);
                    }
                    let way = [if anew { Way::Anew } else { Way::InPlace }, Way::Watched(watched), Way::InPlace][step];
                    let (others, known) = (weigh.others_off(&case, which, off), known(&weigh, &case, which));
                    weigh.saw(&case, which, dark, way, false, n);
                    let by = (known, (step == 1).then_some(watched));
                    naive.look(which, off, dark, step == 0 && anew, others, by);
                    history.push((which, off, dark));
                }
            }
            _ => {
                // Mostly what is so; a few looks are wrong.
                let dark = weigh.off().has(wiring[which]) != (slip && seconds % 7 == 0);
                let off = weigh.off();
                let (others, known) = (weigh.others_off(&case, which, off), known(&weigh, &case, which));
                let foreseen = single_causes_of_a_dark_look(&weigh, &case, off)[which];
                weigh.saw(&case, which, dark, if anew { Way::Anew } else { Way::InPlace }, false, n);
                let fresh: OffSet =
                    weigh.causes(which).iter().filter(|cause| cause.dark == n).map(|cause| cause.breaker).collect();
                prop_assert!(fresh.and(foreseen) == fresh && (fresh.is_empty() == (foreseen.is_empty() || !dark)));
                naive.look(which, off, dark, anew, others, (known, None));
                history.push((which, off, dark));
            }
        }
        let fresh = weigh.infer(&case);
        for point in 0..POINTS {
            let (reading, (chance, shared)) = (weigh.reading(&case, point), naive.reading(point, &weigh.prior(&case, point)));
            for b in 0..BREAKERS {
                for (ours, theirs) in [(reading.chance[b], chance[b]), (reading.shared[b], shared[b])] {
                    prop_assert!(
                        (ours - theirs).abs() < 1e-9 + 2e-3 * theirs.min(1.0 - theirs),
                        "{point} on {b}: {ours} {theirs}"
                    );
                }
            }
        }
        for point in fresh {
            let on = weigh.belief().proven(point).unwrap();
            let (darks, lits): (Vec<_>, Vec<_>) = history.iter().filter(|(p, _, _)| *p == point).partition(|(_, _, dark)| *dark);
            let single = |dark: &OffSet, lit: &OffSet| dark.differs(*lit) == OffSet::one(on) && dark.has(on);
            let seen = darks.iter().any(|(_, dark, _)| lits.iter().any(|(_, lit, _)| single(dark, lit)));
            prop_assert!(seen, "{point} was proven on {on} with no single cause");
        }
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn every_number_and_every_proof_is_what_the_rule_says(wiring in prop::collection::vec(0..BREAKERS, POINTS), lines in lines()) {
        is_what_the_rule_says(&wiring, lines)?;
    }
}

/// Two points that are proven on one breaker are dark with it on, one after the other: the second says less of the breaker, which the
/// first has made suspect.
#[test]
fn what_is_suspect_already_is_made_no_more_so_by_as_much_again() {
    let off_and_on = [(0, 0, false, false, 0), (0, 4, false, false, 0), (0, 1, false, false, 0)];
    let watched = [(9, 1, false, false, 12), (4, 0, false, false, 0), (9, 0, false, false, 52)];
    let dark = [(3, 1, true, false, 0), (4, 0, true, false, 7)];
    is_what_the_rule_says(&[0; POINTS], [&off_and_on[..], &watched[..], &dark[..]].concat()).unwrap();
}

#[test]
fn of_a_point_that_is_known_to_go_by_itself_glances_take_longer_than_a_meter() {
    let rounds = |by_volts: bool| {
        // The appliance.
        let point = 4;
        let case = case();
        let mut weigh = Weigh::new(&case, false);
        let look = |weigh: &mut Weigh, dark: bool, mark: usize| {
            weigh.passed(120.0);
            weigh.saw(&case, point, dark, Way::Anew, by_volts, mark);
            weigh.infer(&case);
            weigh.belief().proven(point).is_some()
        };
        look(&mut weigh, false, 0);
        for round in 1..20 {
            weigh.switched(OffSet::one(1));
            let proven = look(&mut weigh, true, 2 * round);
            weigh.switched(OffSet::NONE);
            if look(&mut weigh, false, 2 * round + 1) || proven {
                return round;
            }
        }
        20
    };
    assert!(rounds(true) < rounds(false), "{} by a meter, {} by glances", rounds(true), rounds(false));
}
