//! What the bronzes that an arc lays have in common.

use super::{ArcUse, Filling, Joins, Method, Most, Practice, Setup, Stands, Start, UsualGroove, stick};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};
use crate::prep::said::SeamForm;

/// What tells one of them from the others.
pub(super) struct ArcBronze {
    pub method: MethodId,
    pub id: &'static str,
    pub label: &'static str,
    pub doing: &'static str,
    pub practices: &'static [Practice],
    /// What the joint stands for good, in degC.
    pub stands_c: f64,
    pub filling: Filling,
    pub arc: ArcUse,
    pub setup: Setup,
    pub prep: &'static [&'static str],
    pub at_torch: &'static [&'static str],
}

/// The whole part warmed to this, in degC, and the odds it starts from.
pub(super) const fn warmed(target_c: f64, start: Start) -> Practice {
    Practice {
        school: School::WholePart,
        target_c: Some(target_c),
        least_c: None,
        most: Most::Over(100.0),
        start,
        fall: 1.0,
    }
}

/// The arc alone warms a small part: no preheat, and the odds it starts from. House: not frozen, though nothing more
/// is asked.
pub(super) const fn arc_only(start: Start) -> Practice {
    Practice {
        school: School::ArcOnly,
        target_c: Some(0.0),
        least_c: None,
        most: Most::At(280.0),
        start,
        fall: 1.0,
    }
}

/// The electrode is as thick as the rod. House.
pub(super) fn tungsten(wall_mm: f64) -> &'static str {
    super::by_wall(wall_mm, ["tungsten {1.6 mm}", "tungsten {2.4 mm}", "tungsten {3.2 mm}"])
}

pub(super) const FUME: &str =
    "Copper fume: extraction without a draught on the argon, half mask. Arc shade 9 to 13.";
pub(super) const CLEAN: &str = "Chip or sear the ground faces: nothing but clean iron wets without flux.";

pub(super) const fn method(of: ArcBronze) -> Method {
    Method {
        method: of.method,
        id: of.id,
        label: of.label,
        doing: of.doing,
        leaves: "bronze shows unless it is painted",
        joins: Joins::ArcBronze,
        practices: of.practices,
        leaves_in: OldFiller::Bronze,
        stands: Stands {
            for_good_c: of.stands_c,
            with_caution_c: of.stands_c,
            cycling_c: None,
            short_c: None,
        },
        efficiency: 0.8,
        recommended: true,
        groove: Some(UsualGroove {
            one_side: (SeamForm::U, 80.0),
            both_sides: (SeamForm::DoubleV, 70.0),
            through: false,
        }),
        filling: Some(of.filling),
        arc: Some(of.arc),
        setup: of.setup,
        prep: of.prep,
        at_torch: of.at_torch,
        joint_words: stick::joint_words,
    }
}
