//! M01: white iron cannot be mended.

use super::{ALL, Rule, RuleFacts, RuleOutput};
use crate::iron::{Iron, WhiteStanding};

pub(super) const RULE: Rule = Rule { id: "M01", iron: Some(Iron::White), judge };

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if facts.belief.white == WhiteStanding::Believed {
        output.exclude(ALL, "White iron: welding cracks it and no drill bites. Replace it.");
    }
}
