//! What is said in whole numbers: a share of a hundred, money.

/// A share of 0 to 1 as it is said: so many of a hundred.
#[must_use]
pub fn of_100(share: f64) -> u32 {
    (share.clamp(0.0, 1.0) * 100.0).round() as u32
}

/// Amounts of one list in the shop's money, as they are said below each other: with cents where one of them has any.
#[must_use]
pub fn money(currency: &str, amounts: &[f64]) -> Vec<String> {
    let decimals = if amounts.iter().all(|amount| amount.fract() == 0.0) { 0 } else { 2 };
    let said = |amount: &f64| {
        let sign = if *amount < 0.0 { "\u{2212}" } else { "" };
        format!("{sign}{currency}{:.decimals$}", amount.abs())
    };
    amounts.iter().map(said).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::half_goes_up(0.725, 73)]
    #[case::nothing_of_it(0.0, 0)]
    #[case::all_of_it(1.0, 100)]
    #[case::more_than_all(1.2, 100)]
    #[case::less_than_nothing(-0.1, 0)]
    fn a_share_is_so_many_of_a_hundred(#[case] share: f64, #[case] said: u32) {
        assert_eq!(of_100(share), said);
    }

    #[rstest]
    #[case::whole(&[293.0, 14.0], &["£293", "£14"])]
    #[case::one_has_cents(&[4.5, 12.0], &["£4.50", "£12.00"])]
    #[case::over_a_million(&[1_234_567.0], &["£1234567"])]
    #[case::less_than_nothing(&[-12.0], &["−£12"])]
    #[case::none(&[], &[])]
    fn money_is_said_alike_down_a_list(#[case] amounts: &[f64], #[case] said: &[&str]) {
        assert_eq!(money("£", amounts), said);
    }
}
