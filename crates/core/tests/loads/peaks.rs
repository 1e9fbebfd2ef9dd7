//! Expected peaks against 200 000 simulated hours.

use rand::{Rng, SeedableRng};
use rand_pcg::Pcg64Mcg;
use wayfinder_core::loads::peak::{Group, peak};
use wayfinder_core::{Appliance, appliances};

const HOURS: usize = 200_000;
/// Five standard deviations of a share of 1 % among so many hours.
const WITHIN: f64 = 0.0012;

#[test]
fn expected_peaks_of_drawn_circuits() {
    let mut rng = Pcg64Mcg::seed_from_u64(200);
    let everything: Vec<&Appliance> = appliances().iter().filter(|it| it.volts == 120).collect();
    for round in 0..6 {
        let count = rng.random_range(2..9);
        let loads: Vec<&Appliance> = (0..count).map(|_| everything[rng.random_range(0..everything.len())]).collect();
        let one = |it: &&Appliance| (it.amps_x100(it.watts), it.usage.hours());
        let mut groups: Vec<Group> = loads.iter().skip(2).map(one).map(|(amps, hours)| Group::One(amps, hours)).collect();
        // The first two exclude one another.
        groups.push(Group::OneOf(loads.iter().take(2).map(one).collect()));
        let worked_out = peak(&groups);
        let (mut above, mut at_or_above, mut busiest) = (0, 0, 0);
        for at in 0..HOURS {
            let hour = at % 24;
            let runs = |group: &Group, rng: &mut Pcg64Mcg| match group {
                Group::One(amps, hours) => i64::from(rng.random_bool(hours[hour])) * amps,
                Group::OneOf(each) => {
                    let (mut left, scale) =
                        (rng.random::<f64>(), each.iter().map(|(_, hours)| hours[hour]).sum::<f64>().max(1.0));
                    let running = each.iter().find(|(_, hours)| {
                        left -= hours[hour] / scale;
                        left < 0.0
                    });
                    running.map_or(0, |(amps, _)| *amps)
                }
            };
            let sum: i64 = groups.iter().map(|group| runs(group, &mut rng)).sum();
            above += usize::from(sum > worked_out.expected_x100);
            at_or_above += usize::from(sum >= worked_out.expected_x100);
            busiest += usize::from(hour == worked_out.busiest_hour && sum > worked_out.busiest_x100);
        }
        let share = |count: usize| count as f64 / HOURS as f64;
        assert!(share(above) <= 0.01 + WITHIN, "round {round}: {} above {}", share(above), worked_out.expected_x100);
        assert!(worked_out.expected_x100 == 0 || share(at_or_above) >= 0.01 - WITHIN, "round {round}: {}", share(at_or_above));
        assert!(24.0 * share(busiest) <= 0.01 + 5.0 * WITHIN, "round {round}: {}", share(busiest));
        assert!((share(above) - worked_out.day.above(worked_out.expected_x100)).abs() < WITHIN, "round {round}");
        assert!(worked_out.busiest_x100 >= worked_out.expected_x100 && worked_out.connected_x100 >= worked_out.busiest_x100);
    }
}
