//! An estimate that was given, against what it would cost today.

use serde::Serialize;

use crate::base::day::Day;
use crate::quantity::money;
use crate::record::Estimate;

/// An estimate that was given, as it stands now.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Offered {
    pub estimate: Estimate,
    /// The amounts of its lines as they are shown, and what they come to: "£293", "£420".
    pub amounts: Vec<String>,
    pub total: String,
    /// Its day is past.
    pub over: bool,
    /// "Offered £420 on 9 Mar, stands until 8 Apr. Today it would be £460."
    pub words: String,
}

impl Offered {
    /// `today` is the shop's own day; nothing where the time is not known.
    pub(super) fn of(estimate: &Estimate, today: Option<Day>, now: Option<f64>) -> Self {
        let until = Day::parse(&estimate.until, None).ok();
        let over = today.zip(until).is_some_and(|(today, until)| today.number() > until.number());
        let whole = |amount: f64| money(&estimate.currency, &[amount.round()]).concat();
        let stands = if over { "stood" } else { "stands" };
        let mut words = format!(
            "Offered {} on {}, {stands} until {}.",
            whole(estimate.total),
            Day::say(&estimate.on),
            Day::say(&estimate.until)
        );
        // What is less than a unit of money apart is the same.
        if let Some(now) = now.filter(|now| (now - estimate.total).abs() >= 1.0) {
            words += &format!(" Today it would be {}.", whole(now));
        }
        let all: Vec<f64> = estimate.lines.iter().map(|line| line.amount).chain([estimate.total]).collect();
        let mut amounts = money(&estimate.currency, &all);
        let total = amounts.pop().unwrap_or_default();
        Self { estimate: estimate.clone(), amounts, total, over, words }
    }
}
