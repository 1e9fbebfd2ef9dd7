//! The demand of ranges, ovens, tops and dryers.
//!
//! Source: NEC Tables 220.54 and 220.55 with note 1, from memory.

use super::Va;

/// Column A, in percent by number: units under 3500 W.
const A: [i64; 25] = [80, 75, 70, 66, 62, 59, 56, 53, 51, 49, 47, 45, 43, 41, 40, 39, 38, 37, 36, 35, 34, 33, 32, 31, 30];
/// Column B, in percent by number: 3500 to 8750 W.
const B: [i64; 25] = [80, 65, 55, 50, 45, 43, 40, 36, 35, 34, 32, 32, 32, 32, 32, 28, 28, 28, 28, 28, 26, 26, 26, 26, 26];
/// Column C, in kilowatts by number: up to 12 kW each.
const C: [i64; 25] = [8, 11, 14, 17, 20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30, 31, 32, 33, 34, 35, 36, 37, 38, 39, 40];

fn percent_a(count: usize) -> i64 {
    A.get(count - 1).copied().unwrap_or(30)
}

fn percent_b(count: usize) -> i64 {
    B.get(count - 1).copied().unwrap_or(match count {
        ..=30 => 24,
        31..=40 => 22,
        41..=50 => 20,
        51..=60 => 18,
        _ => 16,
    })
}

fn column_c(count: usize) -> Va {
    let number = i64::try_from(count).unwrap_or(i64::MAX / 10_000_000);
    match count {
        0 => Va::ZERO,
        1..=25 => Va::new(C[count - 1] * 1000),
        26..=40 => Va::new(15_000 + 1000 * number),
        _ => Va::new(25_000 + 750 * number),
    }
}

/// The demand of large units by column C: the average plate, those under 12 kW taken as 12, and 5 % more for each kilowatt
/// above 12, a part of half a kilowatt or more being one. A plate above 27 kW is not in the table and counts in full.
fn by_c(plates: &[i64]) -> Va {
    let (inside, above): (Vec<i64>, Vec<i64>) = plates.iter().partition(|w| **w <= 27_000);
    let beyond: Va = above.into_iter().map(Va::new).sum();
    if inside.is_empty() {
        return beyond;
    }
    let number = i64::try_from(inside.len()).unwrap_or(i64::MAX);
    let sum: i64 = inside.iter().map(|w| (*w).max(12_000)).sum();
    // Whole kilowatts above 12, halves up, of an average that is a fraction.
    let above_12 = (2 * (sum - 12_000 * number) + 1000 * number).div_euclid(2 * 1000 * number);
    column_c(inside.len()).percent(100 + 5 * above_12) + beyond
}

/// The demand of these cooking units, each above 1750 W, and the columns that gave it.
pub(super) fn cooking_demand(plates: &[i64]) -> (Va, &'static str) {
    if plates.is_empty() {
        return (Va::ZERO, "nothing to cook on");
    }
    let all = by_c(plates);
    let of = |range: std::ops::Range<i64>| plates.iter().copied().filter(|w| range.contains(w)).collect::<Vec<_>>();
    let (small, middle, large) = (of(0..3500), of(3500..8751), of(8751..i64::MAX));
    let share = |plates: &[i64], percent: fn(usize) -> i64| match plates.len() {
        0 => Va::ZERO,
        count => Va::new(plates.iter().sum()).percent(percent(count)),
    };
    let each = share(&small, percent_a) + share(&middle, percent_b) + by_c(&large);
    if each < all { (each, "columns A and B, larger ones C") } else { (all, "column C") }
}

/// The demand of dryers: 5000 VA or the plate each, by their number.
pub(super) fn dryer_demand(plates: impl Iterator<Item = i64>) -> Va {
    let each: Vec<Va> = plates.map(|w| Va::new(w.max(5000))).collect();
    let percent = match each.len() {
        0..=4 => 100,
        5 => 85,
        6 => 75,
        7 => 65,
        8 => 60,
        9 => 55,
        10 => 50,
        count @ 11..=23 => 47 - (i64::try_from(count).unwrap_or(0) - 11),
        count @ 24..=42 => 35 - (i64::try_from(count).unwrap_or(0) - 23) / 2,
        _ => 25,
    };
    each.into_iter().sum::<Va>().percent(percent)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ranges_by_the_published_examples() {
        // NEC Annex D6, D2(b) and note 1 of Table 220.55, from memory.
        let one = |w: i64| cooking_demand(&[w]).0.value();
        assert_eq!([14_000, 16_600, 12_400, 12_500].map(one), [8800.0, 10_000.0, 8000.0, 8400.0]);
        assert_eq!(cooking_demand(&[16_000; 24]).0.value(), 46_800.0);
        let mixed: Vec<i64> = [(5, 11_000), (2, 12_000), (20, 13_500), (3, 18_000)]
            .into_iter()
            .flat_map(|(count, w)| std::iter::repeat_n(w, count))
            .collect();
        assert_eq!(cooking_demand(&mixed).0.value(), 49_500.0);
    }

    #[test]
    fn where_the_columns_meet() {
        let of = |plates: &[i64]| cooking_demand(plates).0.value();
        assert_eq!([8750, 8751, 12_499, 12_500, 27_000].map(|w| of(&[w])), [7000.0, 8000.0, 8000.0, 8400.0, 14_000.0]);
        assert_eq!(of(&[8750, 8750]), 11_000.0, "column B would give 11 375");
        assert_eq!(of(&[28_000]), 28_000.0, "above the table, the plate");
        assert_eq!(dryer_demand([4000].into_iter()).value(), 5000.0);
        assert_eq!(dryer_demand([5000; 5].into_iter()).value(), 21_250.0);
    }
}
