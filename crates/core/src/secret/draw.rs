//! Chance that is the same each time: every draw has its name and its spot, and shifts no other.

use statrs::distribution::{ContinuousCDF, Normal};

/// What a practice draws from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Draws {
    seed: u64,
}

/// FNV-1a, 64 bits.
pub(super) fn hash(bytes: impl IntoIterator<Item = u8>) -> u64 {
    /// Offset of the FNV-1a hash of 64 bits.
    const START: u64 = 0xcbf2_9ce4_8422_2325;
    /// Prime of the FNV-1a hash of 64 bits.
    const PRIME: u64 = 0x0000_0100_0000_01b3;
    bytes.into_iter().fold(START, |hash, byte| (hash ^ u64::from(byte)).wrapping_mul(PRIME))
}

/// The finish of `splitmix64`: near numbers come out far apart.
pub(super) fn mixed(mut number: u64) -> u64 {
    number = number.wrapping_add(0x9e37_79b9_7f4a_7c15);
    number = (number ^ (number >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    number = (number ^ (number >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
    number ^ (number >> 31)
}

impl Draws {
    #[must_use]
    pub fn of(seed: u64) -> Self {
        Self { seed }
    }

    /// Even between 0 and 1, both left out.
    #[must_use]
    pub fn even(&self, name: &str, spot: &str) -> f64 {
        let bytes = name.bytes().chain([0]).chain(spot.bytes());
        let drawn = mixed(mixed(self.seed) ^ hash(bytes));
        // 52 bits, each in the middle of its step: never 0, never 1.
        ((drawn >> 12) as f64 + 0.5) / (1_u64 << 52) as f64
    }

    /// Normal, mean 0 and deviation 1, held within three deviations.
    #[must_use]
    pub fn normal(&self, name: &str, spot: &str) -> f64 {
        /// House: nothing is drawn further out, in deviations.
        const MOST: f64 = 3.0;
        let bell = Normal::new(0.0, 1.0).expect("a deviation of 1 is one");
        bell.inverse_cdf(self.even(name, spot)).clamp(-MOST, MOST)
    }

    /// One of several, by their weights; nothing where none has any.
    #[must_use]
    pub fn one(&self, name: &str, spot: &str, weights: &[f64]) -> Option<usize> {
        let sum: f64 = weights.iter().map(|weight| weight.max(0.0)).sum();
        if sum <= 0.0 {
            return None;
        }
        let mut left = self.even(name, spot) * sum;
        let found = weights.iter().position(|weight| {
            left -= weight.max(0.0);
            left < 0.0
        });
        found.or_else(|| weights.iter().rposition(|weight| *weight > 0.0))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_draw_is_the_same_each_time_and_on_every_machine() {
        let draws = Draws::of(7);
        assert_eq!(draws.even("holds", ""), draws.even("holds", ""));
        // Worked once by hand in whole numbers: FNV-1a of nothing is its start.
        assert_eq!(hash([]), 0xcbf2_9ce4_8422_2325);
        assert_eq!(hash(*b"a"), 0xaf63_dc4c_8601_ec8c);
        // The first number of splitmix64 from 0.
        assert_eq!(mixed(0), 0xe220_a839_7b1d_cdaf);
    }

    #[test]
    fn name_and_spot_are_told_apart() {
        let draws = Draws::of(7);
        assert_ne!(draws.even("tip", "A"), draws.even("tip", "B"));
        assert_ne!(draws.even("tip", "A"), draws.even("tipA", ""));
        assert_ne!(draws.even("tip", "A"), Draws::of(8).even("tip", "A"));
    }

    #[test]
    fn over_many_seeds_it_is_even_and_the_bell_is_a_bell() {
        let all = || (0..4_000).map(Draws::of);
        let mean = all().map(|draws| draws.even("any", "where")).sum::<f64>() / 4_000.0;
        assert!((mean - 0.5).abs() < 0.02, "{mean}");
        let (sum, squares) = all().fold((0.0, 0.0), |(sum, squares), draws| {
            let z = draws.normal("any", "where");
            (sum + z, squares + z * z)
        });
        let (mean, variance) = (sum / 4_000.0, squares / 4_000.0);
        assert!(mean.abs() < 0.05 && (variance - 1.0).abs() < 0.08, "{mean} {variance}");
        let first = all().filter(|draws| draws.one("which", "", &[3.0, 0.0, 1.0]) == Some(0)).count();
        assert!((2_900..3_100).contains(&first), "{first}");
    }

    #[test]
    fn of_nothing_nothing_is_drawn() {
        assert_eq!(Draws::of(1).one("which", "", &[]), None);
        assert_eq!(Draws::of(1).one("which", "", &[0.0, -1.0]), None);
        assert_eq!(Draws::of(1).one("which", "", &[0.0, 2.0]), Some(1));
    }
}
