//! What was really used of a thing, as it is said at the end.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::item::amount_in;
use crate::base::problem::FieldProblem;
use crate::quantity::parse_amount;
use crate::shelf::{Measure, StoreKind};

/// So much of a thing was used.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UsedUpHere {
    /// The fact that said it.
    pub fact: Uuid,
    /// As the stores call it.
    pub what: String,
    /// Across, of rods, pins and drills.
    pub size_mm: Option<f64>,
    /// In what its kind is counted in.
    pub amount: f64,
    pub typed: String,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub revision: u64,
}

/// What was used in one round, and the lightings that were planned to take it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct UsedInRound {
    pub lit: Vec<Uuid>,
    pub used: Vec<UsedUpHere>,
}

impl UsedUpHere {
    /// It is the same thing; sizes that are one on the shelf are one here.
    #[must_use]
    pub fn is_of(&self, what: &str, size_mm: Option<f64>) -> bool {
        /// Ours: a size that went through inches is still the same.
        const SAME_MM: f64 = 0.05;
        self.what == what
            && match (self.size_mm, size_mm) {
                (Some(own), Some(asked)) => (own - asked).abs() <= SAME_MM,
                (own, asked) => own == asked,
            }
    }
}

/// **House**: nobody uses more of anything on one repair, in what it is counted in.
const MOST: f64 = 100_000.0;
/// **House**: rods, pins and drills across, and what a cylinder holds in m3.
const ACROSS_MM: (f64, f64) = (0.1, 200.0);
const HOLDS_M3: (f64, f64) = (0.01, 1_000.0);

/// What was used, in what its kind is counted in; nothing where nothing is typed.
///
/// Of a gas its gauge will do where the cylinder is known: what it fell by ("45 bar"), or what it showed before and
/// after ("180 to 135 bar").
///
/// # Errors
/// The problem, at its field.
pub fn used_amount(
    (what, size_mm): (&str, Option<f64>),
    holds_m3: Option<f64>,
    typed: &str,
) -> Result<Option<f64>, FieldProblem> {
    let at = |field: &str, message: &str, right: &str| FieldProblem::new(field, message, right);
    let kind = StoreKind::from_id(what)
        .ok_or_else(|| at("what", "nothing of that kind is kept in stores", "nickel, oxygen, burr"))?;
    let within =
        |value: Option<f64>, (low, high): (f64, f64)| value.is_none_or(|it| (low..=high).contains(&it));
    if !within(size_mm, ACROSS_MM) {
        return Err(at("size_mm", "nothing of that size is used", "0.1 to 200 mm"));
    }
    if !within(holds_m3, HOLDS_M3) {
        return Err(at("holds_m3", "no cylinder holds that", "0.01 to 1000 m³"));
    }
    if typed.trim().is_empty() {
        return Ok(None);
    }
    let right = match kind.measure {
        Measure::Pieces => "6, or none",
        Measure::Kilograms => "0.4 kg, or none",
        Measure::Litres => "2 l, or none",
        Measure::CubicMetres => "1.2 m³, 0.8 kg, or what the gauge fell by: 180 to 135 bar",
    };
    let fallen = match fall(typed) {
        Some((fallen, _)) if fallen < 0.0 => return Err(at("typed", "nothing fills itself", right)),
        Some((fallen, unit)) => format!("{fallen} {unit}"),
        None => typed.to_owned(),
    };
    let said = parse_amount(&fallen).map_err(|error| at("typed", &error.to_string(), right))?;
    let amount = amount_in(kind, size_mm, holds_m3, said).map_err(|why| at("typed", why, right))?;
    if amount > MOST {
        return Err(at("typed", "no repair takes so much", right));
    }
    Ok(Some(amount))
}

/// Of "180 to 135 bar" 45 and its unit; nothing where no two readings are said.
fn fall(typed: &str) -> Option<(f64, String)> {
    let small = typed.trim().to_lowercase();
    let small = small.strip_prefix("from ").unwrap_or(&small);
    let (before, rest) =
        [" to ", "->", "→", "–", "-"].iter().find_map(|between| small.split_once(between))?;
    let rest = rest.trim();
    let (after, unit) = rest.split_at(rest.find(|c: char| c.is_alphabetic())?);
    let before = before.trim().trim_end_matches(unit.trim());
    let read = |text: &str| text.trim().replace(',', ".").parse::<f64>().ok().filter(|it| it.is_finite());
    Some((read(before)? - read(after)?, unit.to_owned()))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::counted("nickel_iron", "6", Some(6.0))]
    #[case::none("burr", "none", Some(0.0))]
    #[case::emptied("burr", "  ", None)]
    // 45 of 200 bar in a cylinder of 10 m3: 2.25 m3
    #[case::by_gauge("oxygen", "45 bar", Some(2.25))]
    #[case::before_and_after("oxygen", "180 to 135 bar", Some(2.25))]
    #[case::with_a_dash("oxygen", "180-135 bar", Some(2.25))]
    #[case::from("oxygen", "from 180 bar to 135 bar", Some(2.25))]
    #[case::not_moved("oxygen", "180 to 180 bar", Some(0.0))]
    // Weighed: 1.88 kg of propane are 1 m3
    #[case::weighed("propane", "1.88 kg", Some(1.0))]
    #[case::litres("vermiculite", "2 l", Some(2.0))]
    fn it_is_said_as_people_say_it(#[case] what: &str, #[case] typed: &str, #[case] expected: Option<f64>) {
        let read = used_amount((what, None), Some(10.0), typed).unwrap();
        assert_eq!(read.is_some(), expected.is_some());
        assert!((read.unwrap_or(0.0) - expected.unwrap_or(0.0)).abs() < 1e-9, "{read:?}");
    }

    #[rstest]
    #[case::unknown("gold", "6", "what")]
    #[case::no_number("burr", "a few", "typed")]
    #[case::wrong_unit("burr", "2 kg", "typed")]
    #[case::risen("oxygen", "135 to 180 bar", "typed")]
    #[case::liquid("propane", "4 bar", "typed")]
    #[case::too_much("burr", "1000000", "typed")]
    fn what_is_not_used_so_is_told_at_its_field(
        #[case] what: &str,
        #[case] typed: &str,
        #[case] field: &str,
    ) {
        assert_eq!(used_amount((what, None), Some(10.0), typed).unwrap_err().field, field);
    }

    #[test]
    fn a_gauge_says_nothing_of_a_cylinder_that_nobody_knows() {
        let refused = used_amount(("oxygen", None), None, "180 to 135 bar").unwrap_err();
        assert!(refused.message.contains("what a full one holds"), "{}", refused.message);
    }
}
