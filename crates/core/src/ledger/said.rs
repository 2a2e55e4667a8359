//! What a ledger is made of: everything that was said, and what does not count.

use std::collections::BTreeMap;

use uuid::Uuid;

use crate::crack::tip_offset::OwnTip;
use crate::effort::durations::TimedStep;
use crate::faults::own::OwnFault;
use crate::heat::OwnFactor;
use crate::method::{Coupon, OwnMove, OwnRepair, OwnScrap};
use crate::stores::OwnUse;

/// What a ledger is made of: everything that was said, and what does not count.
#[derive(Debug, Clone, Copy)]
pub struct Said<'a> {
    /// Those that nobody was asked about among them.
    pub repairs: &'a [OwnRepair],
    pub timed: &'a [TimedStep],
    pub learned: &'a [OwnFactor],
    pub tips: &'a [OwnTip],
    pub moves: &'a [OwnMove],
    pub faults: &'a [OwnFault],
    pub uses: &'a [OwnUse],
    pub scraps: &'a [OwnScrap],
    /// Ids of the methods that the shop says it has done often.
    pub done_often: &'a [String],
    pub coupons: &'a [Coupon],
    pub left_out: &'a BTreeMap<Uuid, String>,
}

impl<'a> Said<'a> {
    /// Nothing was said yet.
    #[must_use]
    pub fn nothing(left_out: &'a BTreeMap<Uuid, String>) -> Self {
        Self {
            repairs: &[],
            timed: &[],
            learned: &[],
            tips: &[],
            moves: &[],
            faults: &[],
            uses: &[],
            scraps: &[],
            done_often: &[],
            coupons: &[],
            left_out,
        }
    }
}

/// "1 size", "3 sizes"
pub(super) fn times(n: usize, what: &str) -> String {
    if n == 1 { format!("1 {what}") } else { format!("{n} {what}s") }
}
