//! The one clock of a server.

use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};
use std::time::Duration;

use jiff::Timestamp;

/// The time of a server: the moment at which it began, and from there what has gone by. It does not
/// follow when somebody sets the computer's clock: a part that cools knows nothing of that.
#[derive(Debug, Clone)]
pub struct Clock(Arc<Began>);

#[derive(Debug)]
struct Began {
    at_ms: i64,
    since: Duration,
    /// The moment was handed in: the computer's own clock says nothing then.
    handed_in: bool,
    /// By how much the computer's clock was seen to be off, in ms.
    off_ms: AtomicI64,
}

/// Ours: a computer's clock that drifts or is nudged by less is not worth a word.
const WORTH_SAYING_MS: i64 = 20_000;

/// What has gone by since the machine was started, the time it slept included.
fn gone_by() -> Duration {
    let now = rustix::time::clock_gettime(rustix::time::ClockId::Boottime);
    Duration::new(now.tv_sec.unsigned_abs(), u32::try_from(now.tv_nsec).unwrap_or(0))
}

fn computer_ms() -> i64 {
    Timestamp::now().as_millisecond()
}

impl Clock {
    /// Runs on from this moment, UTC in ms since 1970; from the computer's own when none is handed in.
    #[must_use]
    pub fn starting(at_ms: Option<i64>) -> Self {
        Self(Arc::new(Began {
            at_ms: at_ms.unwrap_or_else(computer_ms),
            since: gone_by(),
            handed_in: at_ms.is_some(),
            off_ms: AtomicI64::new(0),
        }))
    }

    /// UTC in ms since 1970.
    #[must_use]
    pub fn now_ms(&self) -> i64 {
        let gone = gone_by().saturating_sub(self.0.since);
        self.0.at_ms.saturating_add(i64::try_from(gone.as_millis()).unwrap_or(i64::MAX))
    }

    /// Looks at the computer's clock; true when what there is to say of it has changed.
    pub fn compare(&self) -> bool {
        if self.0.handed_in {
            return false;
        }
        self.seen_off(computer_ms() - self.now_ms())
    }

    fn seen_off(&self, off_ms: i64) -> bool {
        let worth = if off_ms.abs() < WORTH_SAYING_MS { 0 } else { off_ms };
        let before = self.0.off_ms.swap(worth, Ordering::Relaxed);
        (before == 0) != (worth == 0)
    }

    /// What has to be said of the computer's clock; nothing while it goes as it should.
    #[must_use]
    pub fn notice(&self) -> Option<String> {
        let off_ms = self.0.off_ms.load(Ordering::Relaxed);
        let minutes = (off_ms.abs() + 30_000) / 60_000;
        let by = match minutes {
            0..60 => format!("{} min", minutes.max(1)),
            60..2880 => format!("{} h {:02}", minutes / 60, minutes % 60),
            _ => format!("{} days", minutes / 1440),
        };
        let way = if off_ms > 0 { "ahead" } else { "back" };
        (off_ms != 0).then(|| {
            format!(
                "The computer's clock was set {by} {way}. Times here go on by what has really gone by; if the \
                 new time is right, start Vanadin again."
            )
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[test]
    fn a_clock_that_is_handed_in_begins_there_and_runs_on() {
        let clock = Clock::starting(Some(1_800_000_000_000));
        let first = clock.now_ms();
        assert!((1_800_000_000_000..1_800_000_060_000).contains(&first), "{first}");
        let mut later = clock.now_ms();
        while later == first {
            later = clock.now_ms();
        }
        assert!(later > first && !clock.compare() && clock.notice().is_none());
    }

    #[rstest]
    #[case::just_under(19_999, None)]
    #[case::just_over(-20_000, Some("1 min back"))]
    #[case::half_an_hour(30 * 60_000, Some("30 min ahead"))]
    #[case::an_hour(-3_600_000, Some("1 h 00 back"))]
    #[case::thirty_days(30 * 86_400_000, Some("30 days ahead"))]
    fn a_step_of_the_computers_clock_is_said(#[case] off_ms: i64, #[case] words: Option<&str>) {
        let clock = Clock::starting(None);
        let before = clock.now_ms();
        assert_eq!(clock.seen_off(off_ms), words.is_some());
        assert!(!clock.seen_off(off_ms), "said once");
        let notice = clock.notice();
        match words {
            None => assert_eq!(notice, None),
            Some(words) => assert!(notice.clone().is_some_and(|it| it.contains(words)), "{notice:?}"),
        }
        assert!(clock.now_ms() - before < 60_000, "its own time goes on");
    }
}
