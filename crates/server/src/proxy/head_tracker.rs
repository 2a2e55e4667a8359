//! Request-head tracker: where a connection stands between one request's head and the next.

use std::time::Instant;

use super::Timeouts;

/// What a connection waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Stage {
    /// A head that has not come whole, since then.
    Head { since: Instant, line: Line },
    /// The answer, or the rest of a body; the last word of the question came then.
    Answer { since: Instant },
    /// The next request; the last word of an answer went then.
    Next { since: Instant },
}

/// How the head's last line begins.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Line {
    /// Nothing stands on it yet.
    Empty,
    /// Nothing but a carriage return.
    Return,
    /// Something.
    Begun,
}

/// An interim answer, after which the body comes.
const GO_ON: &[u8] = b"HTTP/1.1 1";

/// State of a connection, by the bytes that go either way.
#[derive(Debug)]
pub struct HeadTracker {
    stage: Stage,
}

impl HeadTracker {
    /// A new connection: its first head is waited for from now on.
    #[must_use]
    pub fn new(now: Instant) -> Self {
        // An empty line before a request is none that ends it.
        Self { stage: Stage::Head { since: now, line: Line::Begun } }
    }

    /// A head has begun, or is waited for at first, and is not whole.
    #[must_use]
    pub fn is_awaited(&self) -> bool {
        matches!(self.stage, Stage::Head { .. })
    }

    /// A question has begun, or is waited for at first, and is not answered.
    #[must_use]
    pub fn is_open(&self) -> bool {
        matches!(self.stage, Stage::Head { .. } | Stage::Answer { .. })
    }

    /// When it has taken too long. The pages have longest: they may be at work, but whoever sends a whole head and
    /// then stops is not heard by them at all.
    #[must_use]
    pub fn late_at(&self, timeouts: &Timeouts) -> Instant {
        match self.stage {
            Stage::Head { since, .. } => since + timeouts.head,
            Stage::Answer { since } => since + timeouts.answer,
            Stage::Next { since } => since + timeouts.idle,
        }
    }

    /// This came from the other side.
    pub fn asked(&mut self, bytes: &[u8], now: Instant) {
        if let Stage::Next { .. } = self.stage {
            self.stage = Stage::Head { since: now, line: Line::Begun };
        }
        if let Stage::Answer { since } = &mut self.stage {
            *since = now;
        }
        let Stage::Head { since, mut line } = self.stage else { return };
        for byte in bytes {
            line = match (byte, line) {
                (b'\n', Line::Empty | Line::Return) => {
                    self.stage = Stage::Answer { since: now };
                    return;
                }
                (b'\n', Line::Begun) => Line::Empty,
                (b'\r', Line::Empty) => Line::Return,
                _ => Line::Begun,
            };
        }
        self.stage = Stage::Head { since, line };
    }

    /// This goes to the other side.
    pub fn answered(&mut self, bytes: &[u8], now: Instant) {
        let over = match self.stage {
            Stage::Answer { .. } => !bytes.starts_with(GO_ON),
            Stage::Next { .. } => true,
            Stage::Head { .. } => false,
        };
        if over {
            self.stage = Stage::Next { since: now };
        }
    }
}

#[cfg(test)]
mod tests {
    use std::time::Duration;

    use rstest::rstest;

    use super::*;

    const PATIENCE: Timeouts = Timeouts {
        head: Duration::from_secs(15),
        answer: Duration::from_secs(60),
        taking: Duration::from_secs(60),
        idle: Duration::from_secs(120),
    };

    #[rstest]
    #[case::whole(&["GET / HTTP/1.1\r\nHost: a\r\n\r\n"], false)]
    #[case::in_pieces(&["GET / HTTP/1.1\r\nHo", "st: a\r", "\n\r", "\n"], false)]
    #[case::with_plain_line_ends(&["GET / HTTP/1.1\nHost: a\n\n"], false)]
    #[case::with_its_body(&["POST / HTTP/1.1\r\nContent-Length: 3\r\n\r\nabc"], false)]
    #[case::half(&["GET / HTTP/1.1\r\nHost: a\r\n"], true)]
    #[case::one_line(&["GET / HTTP/1.1\r\n"], true)]
    #[case::returns_within_a_line(&["GET / HTTP/1.1\r\nHost: a\r\r\n"], true)]
    #[case::nothing(&[], true)]
    fn a_head_ends_with_an_empty_line(#[case] pieces: &[&str], #[case] awaited: bool) {
        let now = Instant::now();
        let mut tracker = HeadTracker::new(now);
        for piece in pieces {
            tracker.asked(piece.as_bytes(), now);
        }
        assert_eq!(tracker.is_awaited(), awaited);
    }

    #[test]
    fn a_head_that_trickles_gains_no_time() {
        let begun = Instant::now();
        let mut tracker = HeadTracker::new(begun);
        tracker.asked(b"GET / ", begun + Duration::from_secs(10));
        tracker.asked(b"HTTP/1.1\r\n", begun + Duration::from_secs(14));
        assert_eq!(tracker.late_at(&PATIENCE), begun + PATIENCE.head);
    }

    #[test]
    fn the_pages_have_their_time_from_the_last_word_of_a_question() {
        let begun = Instant::now();
        let mut tracker = HeadTracker::new(begun);
        tracker.asked(b"POST / HTTP/1.1\r\nExpect: 100-continue\r\n\r\n", begun);
        assert_eq!(tracker.late_at(&PATIENCE), begun + PATIENCE.answer);
        tracker.answered(b"HTTP/1.1 100 Continue\r\n\r\n", begun);
        let body = begun + Duration::from_secs(40);
        tracker.asked(b"no head but a body", body);
        assert_eq!((tracker.late_at(&PATIENCE), tracker.is_open()), (body + PATIENCE.answer, true));
    }

    #[test]
    fn after_an_answer_the_next_head_has_its_own_time() {
        let begun = Instant::now();
        let mut tracker = HeadTracker::new(begun);
        tracker.asked(b"GET / HTTP/1.1\r\n\r\n", begun);
        let answered = begun + Duration::from_secs(40);
        tracker.answered(b"HTTP/1.1 200 OK\r\n", answered);
        // A stream goes on answering: that is not idle.
        let last = begun + Duration::from_secs(100);
        tracker.answered(b"data: 1\n\n", last);
        assert_eq!((tracker.late_at(&PATIENCE), tracker.is_open()), (last + PATIENCE.idle, false));
        let next = begun + Duration::from_secs(130);
        tracker.asked(b"GET", next);
        assert_eq!(tracker.late_at(&PATIENCE), next + PATIENCE.head);
    }
}
