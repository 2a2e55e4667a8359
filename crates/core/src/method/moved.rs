//! What a repair moved: sizes of a part before the torch and cold again.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::Way;

/// A size that was read before the torch and again when it was cold.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnMove {
    /// The size, as its job knows it.
    pub size: Uuid,
    pub job: Uuid,
    /// The part, as it was called then.
    pub name: String,
    /// "bore 1"
    pub what: String,
    pub way: Way,
    /// Cold less before, in mm; nothing once it is said no more.
    pub moved_mm: Option<f64>,
    /// What its seams were foreseen to do to it, without what was learned here; nothing where that was not reckoned.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub foreseen_mm: Option<f64>,
}

/// More is no distortion but another size, in mm. **House**.
pub const MOVED_MOST_MM: f64 = 50.0;

/// What moves here against what is foreseen: (4 + sum of own) / (4 + n), and how many they are.
///
/// # Source
/// House.
#[must_use]
pub fn moved_factor<'a>(own: impl IntoIterator<Item = &'a OwnMove>) -> (f64, usize) {
    /// House: what is foreseen counts for so many of the shop's own.
    const FORESEEN: f64 = 4.0;
    let ratios: Vec<f64> = own.into_iter().filter_map(OwnMove::of_the_foreseen).collect();
    ((FORESEEN + ratios.iter().sum::<f64>()) / (FORESEEN + ratios.len() as f64), ratios.len())
}

impl OwnMove {
    /// So many times as far as was foreseen; nothing where so little was foreseen that no calliper tells it. What went the
    /// other way did not move as foreseen, and one reading that is far off does not lead. **House**.
    #[must_use]
    pub fn of_the_foreseen(&self) -> Option<f64> {
        /// House: what a calliper tells, in mm.
        const READ_MM: f64 = 0.03;
        /// House: one reading that is far off does not lead.
        const MOST: f64 = 4.0;
        let foreseen_mm = self.foreseen_mm.filter(|mm| mm.abs() >= READ_MM)?;
        Some((self.moved_mm? / foreseen_mm).clamp(0.0, MOST))
    }

    /// Worked out again it is much the same. **House**.
    #[must_use]
    pub fn as_good_as(&self, other: &Self) -> bool {
        /// House: less is no other reading, in mm.
        const NEARLY_MM: f64 = 0.005;
        self.size == other.size
            && self.way == other.way
            && match (self.moved_mm, other.moved_mm) {
                (Some(a), Some(b)) => (a - b).abs() < NEARLY_MM,
                (a, b) => a == b,
            }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::method::{MethodId, School};

    fn moved(moved_mm: Option<f64>, foreseen_mm: Option<f64>) -> OwnMove {
        OwnMove {
            size: Uuid::nil(),
            job: Uuid::nil(),
            name: String::new(),
            what: String::new(),
            way: Way { method: MethodId::ArcNickel, school: School::Hot },
            moved_mm,
            foreseen_mm,
        }
    }

    #[rstest]
    #[case::nothing(&[], 1.0, 0)]
    // By hand: -0.24 of -0.16 is 1.5; (4 + 1.5) / 5
    #[case::one(&[(Some(-0.24), Some(-0.16))], 1.1, 1)]
    // (4 + 0.5 + 1.5) / 6
    #[case::two(&[(Some(-0.08), Some(-0.16)), (Some(0.3), Some(0.2))], 1.0, 2)]
    // The other way is none of it: (4 + 0) / 5
    #[case::the_other_way(&[(Some(0.1), Some(-0.16))], 0.8, 1)]
    // Ten times as far leads no further than four: (4 + 4) / 5
    #[case::far_off(&[(Some(1.6), Some(0.16))], 1.6, 1)]
    #[case::not_to_be_read(&[(Some(0.1), Some(0.02))], 1.0, 0)]
    #[case::not_foreseen(&[(Some(0.1), None)], 1.0, 0)]
    #[case::said_no_more(&[(None, Some(0.16))], 1.0, 0)]
    fn own_moves_wander_from_what_is_foreseen(
        #[case] own: &[(Option<f64>, Option<f64>)],
        #[case] expected: f64,
        #[case] count: usize,
    ) {
        let own: Vec<OwnMove> = own.iter().map(|(mm, foreseen)| moved(*mm, *foreseen)).collect();
        let (factor, n) = moved_factor(&own);
        assert!((factor - expected).abs() < 1e-9, "{factor}");
        assert_eq!(n, count);
    }
}
