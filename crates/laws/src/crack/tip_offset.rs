//! How far beyond the found tip a crack really ends, by the book and by the ends that were found again here.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::crack::stop_hole::{Beyond, FoundBy};

/// An end that was found once, and then better.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnTip {
    pub crack: Uuid,
    /// Its second end, as one walks along it.
    pub second: bool,
    /// The job, as it was called then.
    pub name: String,
    /// How it was found at first: `eye` or `chalk_and_oil`.
    pub found_by: FoundBy,
    /// How much further on it was found then, in mm, with what lies beyond for that way of finding; under 0 where it
    /// was shorter.
    pub beyond_mm: f64,
}

/// A pair that lies further apart is another crack, or one drawn anew, in mm. Ours.
pub const APART_MOST_MM: f64 = 40.0;

impl OwnTip {
    /// Both are of the same end.
    #[must_use]
    pub fn is_of(&self, other: &Self) -> bool {
        self.crack == other.crack && self.second == other.second
    }

    /// Worked out again it is much the same. Ours.
    #[must_use]
    pub fn as_good_as(&self, other: &Self) -> bool {
        /// House: less is no other offset, in mm.
        const NEARLY_MM: f64 = 0.05;
        self.is_of(other)
            && self.found_by == other.found_by
            && (self.beyond_mm - other.beyond_mm).abs() < NEARLY_MM
    }
}

/// The eye found it, whatever made it show.
fn seen_as(found_by: FoundBy) -> FoundBy {
    match found_by {
        FoundBy::Eye | FoundBy::Heat | FoundBy::AfterCooling => FoundBy::Eye,
        FoundBy::ChalkAndOil | FoundBy::Dye | FoundBy::Magnetic => found_by,
    }
}

/// What tips that were found again say of this way of finding; the book counts for ten of them.
///
/// m' = (10 m + sum d) / (10 + n), u'² = (10 (u² + (m − m')²) + sum (d − m')²) / (10 + n)
///
/// # Source
/// House.
#[must_use]
pub fn learned(found_by: FoundBy, beyond_mm: &[f64]) -> Beyond {
    /// House: the book counts for so many tips of the shop's own. A tip that is found is one reading with much scatter.
    const BOOK: f64 = 10.0;
    let Beyond { mean_mm: m, deviation_mm: u } = Beyond::from(found_by);
    let all = BOOK + beyond_mm.len() as f64;
    let mean_mm = (BOOK * m + beyond_mm.iter().sum::<f64>()) / all;
    let scatter: f64 = beyond_mm.iter().map(|d| (d - mean_mm).powi(2)).sum();
    let variance = (BOOK * (u * u + (m - mean_mm).powi(2)) + scatter) / all;
    Beyond { mean_mm, deviation_mm: variance.sqrt() }
}

/// How far beyond a tip lies that was found so, by this shop's own ends and the book; and how many ends that are.
#[must_use]
pub fn beyond(own: &[OwnTip], found_by: FoundBy) -> (Beyond, usize) {
    let way = seen_as(found_by);
    let found: Vec<f64> = own.iter().filter(|tip| tip.found_by == way).map(|tip| tip.beyond_mm).collect();
    (learned(way, &found), found.len())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Published: the trade reference's examples.
    #[case::eye(FoundBy::Eye, &[2.0, 6.0, 5.0, 3.0, 1.0, 7.0, 4.0, 4.0, 5.0, 2.0, 3.0, 3.0], (3.8636, 2.3798))]
    #[case::dye(FoundBy::Dye, &[0.2, 0.9], (0.675, 0.7462))]
    #[case::none(FoundBy::ChalkAndOil, &[], (1.5, 1.5))]
    fn the_book_counts_for_ten(
        #[case] found_by: FoundBy,
        #[case] beyond: &[f64],
        #[case] expected: (f64, f64),
    ) {
        let found = learned(found_by, beyond);
        assert!((found.mean_mm - expected.0).abs() < 1e-4 && (found.deviation_mm - expected.1).abs() < 1e-4);
    }

    #[test]
    fn an_end_counts_for_the_way_it_was_found_at_first_and_what_the_heat_showed_for_the_eye() {
        let tip = |found_by, beyond_mm| OwnTip {
            crack: Uuid::nil(),
            second: false,
            name: String::new(),
            found_by,
            beyond_mm,
        };
        let own = [tip(FoundBy::Eye, 8.0), tip(FoundBy::ChalkAndOil, 1.0)];
        assert_eq!(beyond(&own, FoundBy::Eye).1, 1);
        assert_eq!(beyond(&own, FoundBy::Heat), beyond(&own, FoundBy::Eye));
        assert_eq!(beyond(&own, FoundBy::Dye), (Beyond::from(FoundBy::Dye), 0));
        // Hand-worked: (10 x 4 + 8) / 11
        assert!((beyond(&own, FoundBy::Eye).0.mean_mm - 48.0 / 11.0).abs() < 1e-12);
    }
}
