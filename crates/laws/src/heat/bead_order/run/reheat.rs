//! When it has got too cold: back to what a bead may begin at.

use super::{MOST_WAIT_S, REHEAT_SHARE, Run, STEP_S, UNDER_WHAT_IT_HOLDS_K};
use crate::heat::OutOfHeat;

impl<'a> Run<'a> {
    /// Under the least it is reheated, where there is something to do it with: for so long.
    pub(super) fn reheat(&mut self) -> Option<f64> {
        let Some(watts) = self.work.reheat_w.filter(|_| self.bulk_c < self.work.least_c) else {
            return Some(0.0);
        };
        let wanted_c = self.wanted_c();
        let to_c = if self.holds(watts, wanted_c + UNDER_WHAT_IT_HOLDS_K) {
            wanted_c
        } else {
            self.warmest_held_c(watts, wanted_c)?
        };
        let began_s = self.time_s;
        while self.bulk_c < to_c {
            let was_c = self.bulk_c;
            self.step(STEP_S, watts);
            if self.bulk_c - was_c < 1e-6 || self.time_s - began_s > MOST_WAIT_S {
                return None;
            }
        }
        Some(self.time_s - began_s)
    }

    pub(super) fn still(&self) -> OutOfHeat {
        OutOfHeat { h_w_m2k: 10.0, bare_share: self.work.bare_share }
    }

    /// A reheat goes so far.
    pub(super) fn wanted_c(&self) -> f64 {
        self.work.least_c + REHEAT_SHARE * (self.work.most_c - self.work.least_c)
    }

    /// A source gives more than the part loses at a temperature.
    pub(super) fn holds(&self, watts: f64, celsius: f64) -> bool {
        watts > self.still().loss_w(&self.work.body, celsius)
    }

    /// Where a source does not get it as far as it should: a little under what it holds, the least at least. Nothing
    /// where it does not hold that.
    fn warmest_held_c(&self, watts: f64, wanted_c: f64) -> Option<f64> {
        /// House: to this it is searched, in K.
        const FINE_K: f64 = 0.1;
        let least_c = self.work.least_c;
        if !self.holds(watts, least_c) {
            return None;
        }
        let (mut holds_c, mut loses_c) = (least_c, wanted_c + UNDER_WHAT_IT_HOLDS_K);
        while loses_c - holds_c > FINE_K {
            let middle_c = f64::midpoint(holds_c, loses_c);
            if self.holds(watts, middle_c) {
                holds_c = middle_c;
            } else {
                loses_c = middle_c;
            }
        }
        Some((holds_c - UNDER_WHAT_IT_HOLDS_K).max(least_c))
    }
}
