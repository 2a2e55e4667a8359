//! M01: white iron cannot be mended.

use super::{ALL, Asked, Rule, Saying};
use crate::iron::{Iron, WhiteStanding};

pub(super) const RULE: Rule = Rule { id: "M01", iron: Some(Iron::White), judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if asked.belief.white == WhiteStanding::Believed {
        rule.exclude(ALL, "White iron: welding cracks it and no drill bites. Replace it.");
    }
}
