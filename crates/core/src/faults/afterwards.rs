//! When it is asked how a repair holds: most failures come early.

/// A date on which it is asked: so many days after the hand-over.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct AskAfter {
    pub days: i64,
    /// "after a month"
    pub words: &'static str,
}

const WEEK: AskAfter = AskAfter { days: 7, words: "after a week, because of the shocks" };
const USUAL: [AskAfter; 3] = [
    AskAfter { days: 30, words: "after a month" },
    AskAfter { days: 182, words: "after half a year" },
    AskAfter { days: 730, words: "after two years" },
];

/// The days after a hand-over on which it is asked: a week only where it is knocked about.
///
/// # Source
/// House.
pub fn asked_after(shock: bool) -> impl Iterator<Item = AskAfter> {
    shock.then_some(WEEK).into_iter().chain(USUAL)
}

/// An answer counts for a day that is not more than this ahead of it, in days: nobody calls twice in a week.
///
/// # Source
/// House.
#[must_use]
pub fn counts_ahead_days(ask: AskAfter) -> i64 {
    (ask.days / 4).min(7)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::knocked_about(true, &[7, 30, 182, 730])]
    #[case::else_wise(false, &[30, 182, 730])]
    fn it_is_asked_early_and_then_seldom(#[case] shock: bool, #[case] days: &[i64]) {
        assert_eq!(asked_after(shock).map(|ask| ask.days).collect::<Vec<_>>(), days);
    }

    #[rstest]
    #[case(WEEK, 1)]
    #[case(USUAL[0], 7)]
    #[case(USUAL[2], 7)]
    fn a_call_a_little_early_counts(#[case] ask: AskAfter, #[case] days: i64) {
        assert_eq!(counts_ahead_days(ask), days);
    }
}
