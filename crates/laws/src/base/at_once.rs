//! Work that somebody waits for, done with two hands.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::thread;

/// Runs both at once, the other on a thread of its own; what panics there panics here.
pub fn both<A, B: Send>(one: impl FnOnce() -> A, other: impl FnOnce() -> B + Send) -> (A, B) {
    thread::scope(|scope| {
        let other = scope.spawn(other);
        (one(), other.join().unwrap_or_else(|panic| std::panic::resume_unwind(panic)))
    })
}

/// Maps every item, two at a time: whichever hand is free takes the next. In their order, whoever did them.
pub fn each<T: Sync, R: Send>(items: &[T], work: impl Fn(&T) -> R + Sync) -> Vec<R> {
    let taken = AtomicUsize::new(0);
    let hand = || {
        let mut done = Vec::new();
        loop {
            let at = taken.fetch_add(1, Ordering::Relaxed);
            let Some(item) = items.get(at) else { return done };
            done.push((at, work(item)));
        }
    };
    let (mut done, others) = both(hand, hand);
    done.extend(others);
    done.sort_unstable_by_key(|(at, _)| *at);
    done.into_iter().map(|(_, result)| result).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_two_hands_did_stands_in_its_order() {
        let items: Vec<u32> = (0..97).collect();
        assert_eq!(each(&items, |it| it * it), items.iter().map(|it| it * it).collect::<Vec<_>>());
        assert_eq!(each(&[], |it: &u32| *it), Vec::<u32>::new());
    }

    #[test]
    #[should_panic(expected = "the third")]
    fn what_panics_in_one_of_them_panics_here() {
        each(&[1, 2, 3], |it| assert!(*it != 3, "the third"));
    }
}
