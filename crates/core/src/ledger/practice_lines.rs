//! How much this shop has done by a method that it has not done often yet.

use uuid::Uuid;

use super::held::outcome;
use super::learned_lines::{LearnedCase, LearnedLine, values};
use super::said::{Said, times};
use crate::method::{MethodId, PRACTISED};
use crate::quantity::number;
use crate::render::all_of;
use crate::shop::SCRAP_COUNTS;

/// Methods by which something was done here and that are not practised yet. What nobody was asked about counts as
/// nothing, as in a plan.
pub(super) fn practice_lines(all: &Said<'_>, counts: &impl Fn(&Uuid) -> bool) -> Vec<LearnedLine> {
    let often = |method: &MethodId| all.done_often.iter().any(|id| id == method.id());
    MethodId::ALL
        .into_iter()
        .filter(|it| !often(it))
        .filter_map(|method| practice(all, counts, method))
        .collect()
}

fn practice(all: &Said<'_>, counts: &impl Fn(&Uuid) -> bool, method: MethodId) -> Option<LearnedLine> {
    let case = |case: Uuid, job: Option<Uuid>, name: &str, value: f64, words: &str| LearnedCase {
        case,
        job,
        name: name.to_owned(),
        value,
        words: words.to_owned(),
    };
    let repairs = all.repairs.iter().filter(|it| it.method == method && counts(&it.lit));
    let repairs = repairs.filter(|it| outcome(it).is_some());
    let repairs: Vec<LearnedCase> =
        repairs.map(|it| case(it.lit, Some(it.job), &it.name, 1.0, "a repair")).collect();
    let scraps = all.scraps.iter().filter(|it| it.method == method && !it.taken_back && counts(&it.piece));
    let scraps: Vec<LearnedCase> = scraps
        .map(|it| case(it.piece, Some(it.job), &it.name, SCRAP_COUNTS, "a piece of scrap done first"))
        .collect();
    let coupons = all.coupons.iter().filter(|it| it.joined == Some(method) && counts(&it.coupon));
    let coupons: Vec<LearnedCase> =
        coupons.map(|it| case(it.coupon, None, &it.name, SCRAP_COUNTS, "a coupon of the bench")).collect();
    let some = |of: &[LearnedCase], what: &str| {
        (!of.is_empty()).then(|| match of.len() {
            n if n > 1 && what == "piece of scrap" => format!("{n} pieces of scrap"),
            n => times(n, what),
        })
    };
    let from: Vec<String> =
        [some(&repairs, "repair"), some(&scraps, "piece of scrap"), some(&coupons, "coupon")]
            .into_iter()
            .flatten()
            .collect();
    let cases = [repairs, scraps, coupons].concat();
    let here: f64 = cases.iter().map(|it| it.value).sum();
    (here > 0.0 && here < PRACTISED).then(|| LearnedLine {
        name: format!("{}, practice", method.entry().label),
        book: PRACTISED,
        here,
        scale: (0.0, PRACTISED),
        words: format!(
            "{} of the {} repairs that make it practised: from {}",
            number(here, 1),
            number(PRACTISED, 0),
            all_of(&from)
        ),
        values: values(&cases),
        cases,
    })
}
