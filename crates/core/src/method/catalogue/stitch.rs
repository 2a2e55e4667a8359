//! Stitching with pins, cold.

use super::{AS_THE_CASTING_C, Joins, Method, Most, NOTHING_SET, Practice, Setup, Stands, Start};
use crate::casting::old_filler::OldFiller;
use crate::method::{MethodId, School};

pub(super) const METHOD: Method =
    method(MethodId::Stitch, "stitch", "Stitching", "Set pins along it, cold", Joins::Pins, 0.6, BY_PINS);

const BY_PINS: &[Practice] = &[practice(Start::ByPins)];

pub(super) const fn practice(start: Start) -> Practice {
    Practice {
        school: School::NoHeat,
        target_c: None,
        least_c: None,
        most: Most::Over(0.0),
        start,
        fall: 1.0,
    }
}

/// Pins as a method, with locks or without.
pub(super) const fn method(
    method: MethodId,
    id: &'static str,
    label: &'static str,
    doing: &'static str,
    joins: Joins,
    efficiency: f64,
    practices: &'static [Practice],
) -> Method {
    Method {
        method,
        id,
        label,
        doing,
        leaves: "a row of pins, filed flush",
        joins,
        practices,
        // Pins loosen where it heats and cools.
        leaves_in: OldFiller::None,
        stands: Stands {
            for_good_c: AS_THE_CASTING_C,
            with_caution_c: AS_THE_CASTING_C,
            cycling_c: Some(400.0),
            short_c: None,
        },
        efficiency,
        recommended: true,
        groove: None,
        filling: None,
        arc: None,
        setup: Setup {
            note: "Drill and tap by hand speed, dry or with wax. A squeal or a skate is a hard spot: stop.",
            flux: "thread locker, or sealant where it has to be tight",
            fluxed: false,
            ..NOTHING_SET
        },
        prep: &[],
        at_torch: &["Drill grabs, broken taps: hold the part, eyes. Never a warm part."],
        joint_words: |_, _, _| String::new(),
    }
}
