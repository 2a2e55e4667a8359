//! Stitching with pins, cold.

use super::{AS_THE_CASTING_C, Joins, Method, Most, Practice, Stands, Start};
use crate::method::{MethodId, School};

pub(super) const METHOD: Method = Method {
    method: MethodId::Stitch,
    id: "stitch",
    label: "Stitching",
    joins: Joins::Pins,
    practices: &[Practice {
        school: School::NoHeat,
        target_c: None,
        least_c: None,
        most: Most::Over(0.0),
        start: Start::ByPins,
        fall: 1.0,
    }],
    // Pins loosen where it heats and cools.
    stands: Stands {
        for_good_c: AS_THE_CASTING_C,
        with_caution_c: AS_THE_CASTING_C,
        cycling_c: Some(400.0),
        short_c: None,
    },
    efficiency: 0.6,
    groove: None,
    filling: None,
    prep: &[],
    at_torch: &[],
    joint_words: |_, _, _| String::new(),
};
