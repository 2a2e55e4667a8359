//! How long each part of the check took, and the slowest tests.

use std::sync::Mutex;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::{Duration, Instant};

use crate::steps::Done;

/// Tests that are named at the end.
const SLOWEST: usize = 10;

#[derive(Default)]
pub struct Times {
    parts: Mutex<Vec<(String, Duration)>>,
    tests: Mutex<Vec<(String, f64)>>,
    spared: AtomicUsize,
}

impl Times {
    /// Does a part, and remembers how long it took, also where it failed.
    pub fn of(&self, part: &str, step: impl FnOnce() -> Done) -> Done {
        let began = Instant::now();
        let done = step();
        self.parts.lock().expect("nobody panics with it").push((part.to_owned(), began.elapsed()));
        done
    }

    /// A line of a test binary; one that tells how long a test took is remembered.
    pub fn hear(&self, line: &str) {
        if let Some((name, seconds)) = test_and_seconds(line) {
            self.tests.lock().expect("nobody panics with it").push((name.to_owned(), seconds));
        }
    }

    /// Tests that were heard of.
    pub fn heard(&self) -> usize {
        self.tests.lock().expect("nobody panics with it").len()
    }

    /// So many tests are not run: they passed, and nothing of them changed.
    pub fn spare(&self, tests: usize) {
        self.spared.fetch_add(tests, Ordering::Relaxed);
    }

    /// What took how long, a line each.
    pub fn told(&self) -> String {
        let parts = self.parts.lock().expect("nobody panics with it");
        let mut lines: Vec<String> =
            parts.iter().map(|(part, took)| format!("{:>8.1} s  {part}", took.as_secs_f64())).collect();
        let mut tests = self.tests.lock().expect("nobody panics with it").clone();
        tests.sort_by(|a, b| b.1.total_cmp(&a.1));
        match (tests.len(), self.spared.load(Ordering::Relaxed)) {
            (0, 0) => {}
            (0, spared) => lines.push(format!("No test was run: {spared} passed before as they are.")),
            (run, 0) => lines.push(format!("The slowest of {run} tests:")),
            (run, spared) => lines.push(format!(
                "The slowest of {run} tests ({spared} more passed before as they are, and were not run):"
            )),
        }
        lines.extend(tests.iter().take(SLOWEST).map(|(name, took)| format!("{took:>8.1} s  {name}")));
        lines.join("\n")
    }
}

/// Of "test hot::it_is ... ok <1.234s>" the name and the seconds.
fn test_and_seconds(line: &str) -> Option<(&str, f64)> {
    let (name, rest) = line.strip_prefix("test ")?.split_once(" ... ")?;
    let seconds = rest.rsplit_once('<')?.1.strip_suffix("s>")?;
    Some((name, seconds.parse().ok()?))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_line_tells_which_test_took_how_long() {
        assert_eq!(test_and_seconds("test hot::it_is ... ok <1.234s>"), Some(("hot::it_is", 1.234)));
        assert_eq!(test_and_seconds("test a ... FAILED <0.001s>"), Some(("a", 0.001)));
        assert_eq!(test_and_seconds("test a ... ok"), None);
        assert_eq!(test_and_seconds("running 3 tests"), None);
    }

    #[test]
    fn parts_stand_in_their_order_and_the_slowest_tests_first() {
        let times = Times::default();
        times.of("formats", || Ok(())).unwrap();
        assert!(times.of("build", || Err("no".to_owned())).is_err());
        for line in ["test it::quick ... ok <0.100s>", "test it::slow ... ok <2.000s>"] {
            times.hear(line);
        }
        let told = times.told();
        let at = |word: &str| told.find(word).unwrap();
        let in_order = ["formats", "build", "it::slow", "it::quick"].map(at);
        assert!(in_order.is_sorted(), "{told}");
        assert!(told.contains("The slowest of 2 tests:"), "{told}");
        times.spare(700);
        times.spare(30);
        assert!(times.told().contains("of 2 tests (730 more passed before"), "{}", times.told());
    }

    #[test]
    fn where_no_test_was_run_that_is_said() {
        let times = Times::default();
        assert_eq!(times.told(), "");
        times.spare(3072);
        assert_eq!(times.told(), "No test was run: 3072 passed before as they are.");
    }
}
