//! What a shop's own flame and packing do against the book.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{HeatSource, Packing};

/// What a factor is of.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "of", rename_all = "snake_case")]
pub enum FactorOf {
    /// The net power of a source, by its id.
    Source { id: String },
    /// What a packing lets through.
    Packing { packing: Packing },
}

/// One heating or cooling that was read, against the book.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnFactor {
    /// The fact that lit it: read anew it replaces what was kept of it.
    pub lit: Uuid,
    /// The job, as it was called then.
    pub name: String,
    #[serde(flatten)]
    pub what: FactorOf,
    /// So many times what the book has.
    pub factor: f64,
}

impl FactorOf {
    /// The book has it.
    pub fn is_known(&self) -> bool {
        match self {
            Self::Source { id } => HeatSource::from_id(id).is_some(),
            Self::Packing { packing } => *packing != Packing::Air,
        }
    }
}

impl OwnFactor {
    /// Both are of the same heating, or cooling.
    #[must_use]
    pub fn is_of(&self, other: &Self) -> bool {
        let kind = |it: &Self| matches!(it.what, FactorOf::Source { .. });
        self.lit == other.lit && kind(self) == kind(other)
    }

    /// Worked out again it is much the same. Ours.
    #[must_use]
    pub fn as_good_as(&self, other: &Self) -> bool {
        /// House: less is no other factor.
        const NEARLY: f64 = 0.01;
        self.is_of(other) && self.what == other.what && (self.factor - other.factor).abs() < NEARLY
    }
}

/// House: the book counts for so many of the shop's own.
const BOOK: f64 = 4.0;

/// What the shop's own are taken for: (4 + sum) / (4 + n), and how many they are.
///
/// # Source
/// House.
#[must_use]
pub fn own_factor(own: &[OwnFactor], what: &FactorOf) -> (f64, usize) {
    let of = || own.iter().filter(|it| it.what == *what);
    let count = of().count();
    ((BOOK + of().map(|it| it.factor).sum::<f64>()) / (BOOK + count as f64), count)
}

/// A factor of what is usual, as it is said: "as much as usual", "20 % less than usual".
#[must_use]
pub fn against_usual(factor: f64) -> String {
    /// House: nobody tells a smaller difference at the bench, in percent.
    const AS_MUCH: f64 = 3.0;
    let percent = ((factor - 1.0) * 100.0).round();
    if percent.abs() < AS_MUCH {
        "as much as usual".to_owned()
    } else if percent > 0.0 {
        format!("{percent} % more than usual")
    } else {
        format!("{} % less than usual", -percent)
    }
}

/// What was learned of a packing, in words; empty for nothing.
#[must_use]
pub fn packing_words(own: &[OwnFactor], packing: Packing) -> String {
    match own_factor(own, &FactorOf::Packing { packing }) {
        (_, 0) => String::new(),
        (factor, count) => format!(
            "{} lets through {}, by {count} cooling{} here",
            packing.label(),
            against_usual(factor),
            if count == 1 { "" } else { "s" }
        ),
    }
}

/// House: the book is good to this share of a source's power; it is known better the more of its own a shop has read.
const GOOD_TO: f64 = 0.3;
/// Ours: no reading knows a torch better, since nobody holds it twice the same.
const NEVER_BETTER: f64 = 0.1;

/// The share of a source's power that is not known, after so many of the shop's own.
///
/// # Source
/// House.
#[must_use]
pub fn not_known(count: usize) -> f64 {
    (GOOD_TO * (BOOK / (BOOK + count as f64)).sqrt()).max(NEVER_BETTER)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::the_same(1.0, "as much as usual")]
    #[case::nobody_tells(0.98, "as much as usual")]
    #[case::just_less(0.97, "3 % less than usual")]
    #[case::more(1.21, "21 % more than usual")]
    fn a_factor_is_said_against_what_is_usual(#[case] factor: f64, #[case] words: &str) {
        assert_eq!(against_usual(factor), words);
    }

    #[test]
    fn worked_out_again_it_is_as_good_only_where_it_is_of_the_same_and_much_the_same() {
        let source = |id: &str, factor: f64| OwnFactor {
            lit: Uuid::nil(),
            name: String::new(),
            what: FactorOf::Source { id: id.to_owned() },
            factor,
        };
        let packing = |packing: Packing| OwnFactor { what: FactorOf::Packing { packing }, ..source("", 0.9) };
        let burner = source("weed_burner", 0.9);
        assert!(burner.as_good_as(&source("weed_burner", 0.905)));
        assert!(!burner.as_good_as(&source("weed_burner", 0.92)));
        assert!(!burner.as_good_as(&source("weed_burner", 0.88)));
        // Another source at the same heating takes its place, and is not it.
        assert!(burner.is_of(&source("oxy_medium", 0.9)) && !burner.as_good_as(&source("oxy_medium", 0.9)));
        // A cooling is no heating, another lighting is another.
        assert!(!burner.is_of(&packing(Packing::Blanket)));
        assert!(packing(Packing::Blanket).is_of(&packing(Packing::Vermiculite)));
        assert!(!burner.is_of(&OwnFactor { lit: Uuid::from_u128(1), ..burner.clone() }));
    }

    fn of(factors: &[f64]) -> Vec<OwnFactor> {
        let what = FactorOf::Source { id: "weed_burner".to_owned() };
        let one = |factor: &f64| OwnFactor {
            lit: Uuid::nil(),
            name: String::new(),
            what: what.clone(),
            factor: *factor,
        };
        factors.iter().map(one).collect()
    }

    #[rstest]
    // Hand-worked: (4 + sum) / (4 + n)
    #[case::none(&[], 1.0)]
    #[case::one(&[0.5], 0.9)]
    #[case::two(&[0.7, 0.9], 0.933_333)]
    #[case::twenty(&[0.75; 20], 0.791_667)]
    fn the_book_counts_for_four(#[case] factors: &[f64], #[case] expected: f64) {
        let (factor, count) = own_factor(&of(factors), &FactorOf::Source { id: "weed_burner".to_owned() });
        assert!((factor - expected).abs() < 1e-6, "{factor}");
        assert_eq!(count, factors.len());
        let other = FactorOf::Packing { packing: Packing::Blanket };
        assert_eq!(own_factor(&of(factors), &other), (1.0, 0), "a source is no packing");
    }

    #[test]
    fn what_was_learned_of_a_packing_is_said_with_how_often() {
        let cooling = |packing: Packing, factor: f64| OwnFactor {
            lit: Uuid::nil(),
            name: String::new(),
            what: FactorOf::Packing { packing },
            factor,
        };
        let own = [
            cooling(Packing::Vermiculite, 1.5),
            cooling(Packing::Blanket, 0.5),
            cooling(Packing::Vermiculite, 1.7),
        ];
        // By hand: (4 + 3.2) / 6 and (4 + 0.5) / 5
        let said = packing_words(&own, Packing::Vermiculite);
        assert_eq!(said, "Vermiculite lets through 20 % more than usual, by 2 coolings here");
        let said = packing_words(&own, Packing::Blanket);
        assert_eq!(said, "Ceramic blanket lets through 10 % less than usual, by 1 cooling here");
        assert_eq!(packing_words(&own, Packing::DrySand), "");
    }

    #[rstest]
    // Hand-worked: 0.3 sqrt(4 / (4 + n)), at least 0.1
    #[case(0, 0.3)]
    #[case(12, 0.15)]
    #[case(32, 0.1)]
    #[case(1000, 0.1)]
    fn the_more_it_read_the_better_it_is_known(#[case] count: usize, #[case] expected: f64) {
        assert!((not_known(count) - expected).abs() < 1e-9);
    }
}
