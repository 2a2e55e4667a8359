//! The lines of a logger: `minutes_or_time,channel,celsius`.

use jiff::Timestamp;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::job::CHANNELS;

/// When a line was read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum ReadWhen {
    /// Minutes on the job clock.
    Minutes(f64),
    /// UTC in ms since 1970.
    At(i64),
}

/// One line of a logger.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LoggerLine {
    pub when: ReadWhen,
    pub channel: u8,
    pub celsius: f64,
}

/// More lines at once are no logger's. Ours: a reading each second for more than an hour and a half.
const LINES_MOST: usize = 6_000;
const CELSIUS: std::ops::RangeInclusive<f64> = -60.0..=1_400.0;
const MINUTES: std::ops::RangeInclusive<f64> = 0.0..=525_600.0;

/// The lines of what a logger sent; a first line of words is its head.
///
/// # Errors
/// What is wrong with each line that cannot be read, at `line[n]`, from 1.
pub fn lines(text: &str) -> Result<Vec<LoggerLine>, Vec<FieldProblem>> {
    let rows: Vec<(usize, &str)> = (text.lines().enumerate())
        .map(|(at, row)| (at + 1, row.trim()))
        .filter(|(_, row)| !row.is_empty())
        .collect();
    if rows.len() > LINES_MOST {
        let message = format!("{} lines are too many at once", rows.len());
        return Err(vec![FieldProblem::new("lines", message, format!("{LINES_MOST} at most"))]);
    }
    let mut read = Vec::new();
    let mut problems = Vec::new();
    for (at, row) in rows {
        match line(row) {
            Ok(line) => read.push(line),
            // Only the first may be words.
            Err(_) if at == 1 && !row.starts_with(|first: char| first.is_ascii_digit()) => {}
            Err((message, right)) => problems.push(FieldProblem::new(format!("line[{at}]"), message, right)),
        }
    }
    if problems.is_empty() { Ok(read) } else { Err(problems) }
}

fn line(row: &str) -> Result<LoggerLine, (String, &'static str)> {
    let parts: Vec<&str> = row.split(',').map(str::trim).collect();
    let [when, channel, celsius] = parts.as_slice() else {
        return Err((format!("\"{row}\" has not three parts"), "minutes or a time, the channel, °C"));
    };
    let channel = channel.parse().ok().filter(|channel| CHANNELS.contains(channel));
    let channel = channel.ok_or((format!("\"{}\" is no channel", parts[1]), "1 to 4"))?;
    let celsius: Option<f64> = celsius.parse().ok().filter(|celsius| CELSIUS.contains(celsius));
    let celsius = celsius.ok_or((format!("\"{}\" is no temperature", parts[2]), "°C, -60 to 1400"))?;
    let minutes: Option<f64> = when.parse().ok().filter(|minutes| MINUTES.contains(minutes));
    let at = || when.parse::<Timestamp>().ok().map(|at| ReadWhen::At(at.as_millisecond()));
    let when = minutes.map(ReadWhen::Minutes).or_else(at).ok_or((
        format!("\"{when}\" is no time"),
        "minutes on the job clock, or a time like 2026-03-09T07:40:00Z",
    ))?;
    Ok(LoggerLine { when, channel, celsius })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[test]
    fn minutes_times_and_a_head_are_read() {
        let read = lines("time,channel,celsius\n12.5,1,301.2\n2026-03-09T07:40:00Z, 1 ,299\n\n").unwrap();
        assert_eq!(read.len(), 2);
        assert_eq!(read[0], LoggerLine { when: ReadWhen::Minutes(12.5), channel: 1, celsius: 301.2 });
        // 2026-03-09T07:40:00Z, by hand: 20521 days and 27,600 s
        assert_eq!(read[1].when, ReadWhen::At((20_521 * 86_400 + 27_600) * 1000));
    }

    #[rstest]
    #[case::no_channel_5("1,5,300", "no channel")]
    #[case::too_hot("1,1,1400.1", "no temperature")]
    #[case::not_a_number("1,1,NaN", "no temperature")]
    #[case::before_it_was_lit("-1,1,300", "no time")]
    #[case::two_parts("1,300", "not three parts")]
    #[case::words("1,1,hot", "no temperature")]
    fn a_line_that_cannot_be_is_told_at_its_place(#[case] row: &str, #[case] said: &str) {
        let problems = lines(&format!("0,1,20\n{row}")).unwrap_err();
        assert_eq!(problems.len(), 1);
        assert_eq!(problems[0].field, "line[2]");
        assert!(problems[0].message.contains(said), "{}", problems[0].message);
    }
}
