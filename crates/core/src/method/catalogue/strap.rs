//! A steel strap or sleeve, bolted or pinned over the break.

use super::{AS_THE_CASTING_C, Joins, Method, Most, NOTHING_SET, Practice, Stands, Start};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};

pub(super) const METHOD: Method = Method {
    method: MethodId::Strap,
    id: "strap",
    label: "Steel strap",
    doing: "Put a steel strap over it",
    leaves: "the strap stays in sight",
    joins: Joins::Strap,
    practices: &[Practice {
        school: School::NoHeat,
        target_c: None,
        least_c: None,
        most: Most::Over(0.0),
        start: Start::Of(8.0, 2.0),
        fall: 1.0,
    }],
    leaves_in: OldFiller::None,
    stands: Stands {
        for_good_c: AS_THE_CASTING_C,
        with_caution_c: AS_THE_CASTING_C,
        cycling_c: None,
        short_c: None,
    },
    efficiency: 0.6,
    recommended: false,
    groove: None,
    filling: None,
    arc: None,
    setup: NOTHING_SET,
    prep: &["Bolt holes in sound iron, three diameters or more from the crack and from any edge."],
    at_torch: &["Drill grabs at the far side: hold the part, ease the feed."],
    joint_words: |_, _, _| String::new(),
};
