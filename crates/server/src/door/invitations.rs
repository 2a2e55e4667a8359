//! Codes by which helpers' phones come in: each for one job, once, and not for long.

use std::collections::BTreeMap;
use std::sync::{Mutex, PoisonError};

use uuid::Uuid;

/// So long a code lets somebody in, once.
const INVITED_MS: i64 = 15 * 60_000;
/// Codes that wait for their phones at a time; the oldest makes room.
const WAITING: usize = 20;

/// Codes that were shown and not used, with the job each is for.
#[derive(Debug, Default)]
pub struct Invitations(Mutex<BTreeMap<String, Invitation>>);

#[derive(Debug, Clone, Copy)]
struct Invitation {
    job: Uuid,
    until_ms: i64,
}

impl Invitations {
    /// Gives until when it holds.
    pub fn add(&self, code: String, job: Uuid, now_ms: i64) -> i64 {
        let until_ms = now_ms + INVITED_MS;
        let mut waiting = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.retain(|_, invitation| invitation.until_ms > now_ms);
        while waiting.len() >= WAITING {
            let Some(oldest) = waiting.iter().min_by_key(|(_, it)| it.until_ms).map(|(code, _)| code.clone())
            else {
                break;
            };
            waiting.remove(&oldest);
        }
        waiting.insert(code, Invitation { job, until_ms });
        until_ms
    }

    /// The job a code is for: it lets nobody else in.
    pub fn take(&self, code: &str, now_ms: i64) -> Option<Uuid> {
        let mut waiting = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        waiting.remove(code).filter(|it| it.until_ms > now_ms).map(|it| it.job)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_code_lets_one_in_once_and_not_for_long() {
        let (codes, job) = (Invitations::default(), Uuid::new_v4());
        let until_ms = codes.add("A".to_owned(), job, 1_000);
        assert_eq!(until_ms, 1_000 + INVITED_MS);
        codes.add("B".to_owned(), job, 2_000);
        assert_eq!(codes.take("A", until_ms - 1), Some(job));
        assert_eq!(codes.take("A", until_ms - 1), None);
        assert_eq!(codes.take("B", 2_000 + INVITED_MS), None);
        assert_eq!(codes.take("C", 3_000), None);
    }

    #[test]
    fn no_more_wait_than_are_needed() {
        let (codes, job) = (Invitations::default(), Uuid::new_v4());
        for at in 0..30 {
            codes.add(at.to_string(), job, at);
        }
        assert_eq!(codes.take("9", 40), None);
        assert_eq!(codes.take("10", 40), Some(job));
    }
}
