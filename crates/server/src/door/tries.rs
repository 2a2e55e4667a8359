//! Wrong words from an address: counted before they are looked at, so that none of many at the same time slips by.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Mutex, PoisonError};

use crate::api_error::ApiError;
use crate::proxy::network;

/// So many wrong ones from one address, and then a wait.
const TRIES: u32 = 5;
const WAIT_MS: i64 = 60_000;
/// So many may wait to be looked at, from one address and from all.
const WAITING: u32 = 3;
const WAITING_IN_ALL: u32 = 12;

#[derive(Default)]
pub struct Tries {
    of: Mutex<HashMap<IpAddr, Tried>>,
}

#[derive(Clone, Copy)]
struct Tried {
    /// Wrong, or not looked at yet.
    counted: u32,
    waiting: u32,
    since_ms: i64,
}

/// A try that is being looked at. Dropped before it is told that it was right, it was wrong.
pub struct Try<'a> {
    tries: &'a Tries,
    of: IpAddr,
}

impl Tries {
    /// Something is tried from an address.
    ///
    /// # Errors
    /// It was wrong too often, or too many wait already.
    pub fn begin(&self, from: IpAddr, now_ms: i64) -> Result<Try<'_>, ApiError> {
        let of = network(from);
        let mut all = self.of.lock().unwrap_or_else(PoisonError::into_inner);
        all.retain(|_, tried| tried.waiting > 0 || now_ms - tried.since_ms < WAIT_MS);
        let waiting: u32 = all.values().map(|tried| tried.waiting).sum();
        let known = all.get(&of).copied().filter(|tried| tried.waiting > 0 || tried.counted > 0);
        let own = known.unwrap_or(Tried { counted: 0, waiting: 0, since_ms: now_ms });
        if own.counted >= TRIES || own.waiting >= WAITING || waiting >= WAITING_IN_ALL {
            return Err(ApiError::TooManyTries);
        }
        let since_ms = now_ms;
        all.insert(of, Tried { counted: own.counted + 1, waiting: own.waiting + 1, since_ms });
        Ok(Try { tries: self, of })
    }
}

impl Try<'_> {
    /// It was right: nothing is held against the address any more.
    pub fn was_right(self) {
        let mut all = self.tries.of.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(tried) = all.get_mut(&self.of) {
            tried.counted = 0;
        }
    }
}

impl Drop for Try<'_> {
    fn drop(&mut self) {
        let mut all = self.tries.of.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(tried) = all.get_mut(&self.of) {
            tried.waiting = tried.waiting.saturating_sub(1);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn from(last: u8) -> IpAddr {
        IpAddr::from([10, 0, 0, last])
    }

    #[test]
    fn the_sixth_wrong_one_is_not_looked_at_until_a_minute_later() {
        let tries = Tries::default();
        for _ in 0..5 {
            drop(tries.begin(from(1), 0).unwrap());
        }
        assert!(tries.begin(from(1), 59_999).is_err());
        assert!(tries.begin(from(2), 0).is_ok(), "nobody else waits for it");
        assert!(tries.begin(from(1), 60_000).is_ok());
    }

    #[test]
    fn three_wait_at_the_most_from_one_address_and_twelve_from_all() {
        let tries = Tries::default();
        let held: Vec<_> = (0..3).map(|_| tries.begin(from(1), 0).unwrap()).collect();
        assert!(tries.begin(from(1), 0).is_err(), "a fourth at the same time");
        drop(held);
        let held: Vec<_> = (2..14).map(|last| tries.begin(from(last), 0).unwrap()).collect();
        assert!(tries.begin(from(20), 0).is_err(), "a thirteenth in all");
        drop(held);
        assert!(tries.begin(from(20), 0).is_ok());
    }

    #[test]
    fn one_that_is_right_clears_what_was_wrong() {
        let tries = Tries::default();
        for _ in 0..4 {
            drop(tries.begin(from(1), 0).unwrap());
        }
        tries.begin(from(1), 0).unwrap().was_right();
        for _ in 0..5 {
            drop(tries.begin(from(1), 0).unwrap());
        }
        assert!(tries.begin(from(1), 0).is_err());
    }

    #[test]
    fn what_is_still_looked_at_counts_however_long_it_takes() {
        let tries = Tries::default();
        let _held: Vec<_> = (0..3).map(|_| tries.begin(from(1), 0).unwrap()).collect();
        assert!(tries.begin(from(1), 120_000).is_err());
    }
}
