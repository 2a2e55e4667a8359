//! An oven controller: follows a program segment by segment and says where it is.

use anyhow::{Context, bail};

use vanadin_core::plan::OvenSegment;

use super::StandInConfig;
use super::follow::Follow;

/// A segment as its file has it.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Segment {
    to_c: f64,
    /// Nothing for as fast as it goes.
    k_per_h: Option<f64>,
    hold_min: f64,
}

/// House: what an empty kiln falls and rises when nobody holds it, in K/h.
const AS_IT_GOES_K_PER_H: f64 = 600.0;
const COLD_C: f64 = 20.0;

fn program(text: &str) -> anyhow::Result<Vec<Segment>> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    let mut segments = Vec::new();
    for row in reader.records() {
        let row = row?;
        let cell = |at: usize, what: &str| row.get(at).with_context(|| format!("a segment has no {what}"));
        let to_c = cell(1, "temperature")?.trim().parse().context("a temperature is a number")?;
        let k_per_h = match cell(2, "rate")?.trim() {
            "" => None,
            rate => Some(rate.parse().context("a rate is a number")?),
        };
        let hold_min = cell(3, "time")?.trim().parse().context("a time is a number")?;
        segments.push(Segment { to_c, k_per_h, hold_min });
    }
    if segments.is_empty() {
        bail!("there is no segment in it");
    }
    Ok(segments)
}

/// Where the program is after so many minutes: which segment from 1, and its set point; nothing once it is over.
fn stands_at(segments: &[Segment], minutes: f64) -> Option<(usize, f64)> {
    let (mut from_c, mut begins) = (COLD_C, 0.0);
    for (at, segment) in segments.iter().enumerate() {
        let rate = segment.k_per_h.unwrap_or(AS_IT_GOES_K_PER_H).max(1.0);
        let ramp_min = (segment.to_c - from_c).abs() / rate * 60.0;
        let into = minutes - begins;
        if into < ramp_min {
            return Some((at + 1, from_c + (segment.to_c - from_c) * into / ramp_min));
        }
        if into < ramp_min + segment.hold_min {
            return Some((at + 1, segment.to_c));
        }
        begins += ramp_min + segment.hold_min;
        from_c = segment.to_c;
    }
    None
}

impl From<&OvenSegment> for Segment {
    fn from(segment: &OvenSegment) -> Self {
        Self { to_c: segment.to_c, k_per_h: segment.k_per_h, hold_min: segment.hold_min }
    }
}

/// Follows the program of a job as it is started and stopped on Heat, to its end.
pub async fn follow(part: Follow, config: &StandInConfig) -> anyhow::Result<()> {
    let mut ticks = tokio::time::interval(config.every);
    let mut ran = false;
    println!("minutes,segment,set_celsius");
    loop {
        ticks.tick().await;
        let seen = match part.oven().await {
            Ok(seen) => seen,
            // A controller holds what it holds.
            Err(error) => {
                eprintln!("stand-in: the job is not seen now: {error:#}");
                continue;
            }
        };
        let into = seen.runs_from_min.zip(seen.job_min).map(|(from, now)| now - from);
        let Some(into) = into else {
            if std::mem::take(&mut ran) {
                println!("stopped");
            }
            continue;
        };
        ran = true;
        let segments: Vec<Segment> = seen.segments.iter().map(Segment::from).collect();
        match stands_at(&segments, into) {
            Some((segment, set_c)) => println!("{into:.1},{segment},{set_c:.0}"),
            None => {
                println!("over");
                return Ok(());
            }
        }
    }
}

/// Follows the program to its end.
pub async fn run(text: &str, config: &StandInConfig) -> anyhow::Result<()> {
    let segments = program(text)?;
    let mut ticks = tokio::time::interval(config.every);
    let step_min = config.every.as_secs_f64() / 60.0 * f64::from(config.speed);
    let mut minutes = 0.0;
    println!("minutes,segment,set_celsius");
    while let Some((segment, set_c)) = stands_at(&segments, minutes) {
        ticks.tick().await;
        println!("{minutes:.1},{segment},{set_c:.0}");
        minutes += step_min;
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    const TEXT: &str = "segment,to_celsius,kelvins_per_hour,hold_minutes,what\n1,350,300,20,up\n2,300,,30,\"soak, then out\"\n";

    #[rstest]
    // Hand-worked: 330 K at 300 K/h are 66 min, 20 held; 50 K at 600 K/h are 5 min, 30 held
    #[case::cold(0.0, Some((1, 20.0)))]
    #[case::half_way_up(33.0, Some((1, 185.0)))]
    #[case::held(70.0, Some((1, 350.0)))]
    #[case::on_the_way_back(88.5, Some((2, 325.0)))]
    #[case::soaking(120.0, Some((2, 300.0)))]
    #[case::over(121.1, None)]
    fn the_program_is_followed(#[case] minutes: f64, #[case] expected: Option<(usize, f64)>) {
        assert_eq!(stands_at(&program(TEXT).unwrap(), minutes), expected);
    }

    #[rstest]
    #[case::no_segment("segment,to_celsius,kelvins_per_hour,hold_minutes,what\n")]
    #[case::words("segment,to_celsius,kelvins_per_hour,hold_minutes,what\n1,hot,300,20,up\n")]
    #[case::too_short("segment,to_celsius\n1,300\n")]
    fn what_is_no_program_is_told(#[case] text: &str) {
        assert!(program(text).is_err());
    }
}
