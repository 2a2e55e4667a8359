//! Metal-filled epoxy: it seals and fills, and carries nothing.

use super::{Joins, Method, Most, NOTHING_SET, Practice, Setup, Stands, Start};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};

pub(super) const METHOD: Method = Method {
    method: MethodId::ColdFill,
    id: "cold_fill",
    label: "Metal-filled epoxy",
    doing: "Fill it with metal-filled epoxy",
    leaves: "gray, duller than iron",
    joins: Joins::Epoxy,
    practices: &[Practice {
        school: School::NoHeat,
        target_c: None,
        least_c: None,
        most: Most::Over(0.0),
        start: Start::Of(6.0, 4.0),
        fall: 1.0,
    }],
    leaves_in: OldFiller::None,
    stands: Stands { for_good_c: 120.0, with_caution_c: 120.0, cycling_c: None, short_c: None },
    efficiency: 0.0,
    recommended: false,
    groove: None,
    filling: None,
    arc: None,
    setup: Setup { note: "Mixed by the maker's sheet, and left for as long as that says.", ..NOTHING_SET },
    prep: &["Degrease, roughen, wipe again; mix it as the maker's sheet says."],
    at_torch: &["Never to be heated again with it in. Gloves: uncured epoxy sensitises the skin."],
    joint_words: |_, _, _| String::new(),
};
