//! Instruments that are not there, each a small program of its own: it asks the server what a real one would see, and
//! speaks to it as a real one does.

mod follow;
mod infrared;
mod oven;
mod thermocouple;

use std::path::PathBuf;
use std::time::Duration;

use anyhow::{Context, bail};
use uuid::Uuid;

use follow::Follow;

/// What a stand-in is started with.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct StandInConfig {
    pub what: Instrument,
    /// Where the server is: `http://127.0.0.1:8420`.
    pub at: String,
    /// The part it lies on, or looks at; of an oven the job whose program it follows.
    pub job: Option<Uuid>,
    /// The key of the shop's logger; a thermocouple needs one.
    pub key: String,
    /// The program of an oven that follows no job.
    pub program: Option<PathBuf>,
    /// How often it looks, and how many times as fast an oven's clock goes.
    pub every: Duration,
    pub speed: u32,
    /// It ends when what it is fed by is closed: whoever started it is gone then.
    pub while_open: bool,
}

/// Where the key may stand instead of among the words.
pub const KEY: &str = "VANADIN_KEY";

#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Instrument {
    Thermocouple,
    Infrared,
    Oven,
}

impl StandInConfig {
    /// Understands what stands behind `vanadin stand-in`.
    ///
    /// # Errors
    /// A word that is not known, or one that is missing.
    pub fn of(mut words: impl Iterator<Item = String>) -> anyhow::Result<Self> {
        let what = match words.next().as_deref() {
            Some("thermocouple") => Instrument::Thermocouple,
            Some("infrared") => Instrument::Infrared,
            Some("oven") => Instrument::Oven,
            _ => bail!("a stand-in is a thermocouple, an infrared or an oven"),
        };
        let mut config = Self {
            what,
            at: "http://127.0.0.1:8420".to_owned(),
            job: None,
            key: std::env::var(KEY).unwrap_or_default(),
            program: None,
            every: Duration::from_secs(2),
            speed: 1,
            while_open: false,
        };
        while let Some(word) = words.next() {
            if word == "--while-open" {
                config.while_open = true;
                continue;
            }
            let value = words.next().with_context(|| format!("{word} needs a value"))?;
            match word.as_str() {
                "--at" => config.at = value.trim_end_matches('/').to_owned(),
                "--job" => config.job = Some(value.parse().context("--job is the id in the job's address")?),
                "--key" => config.key = value,
                "--program" => config.program = Some(PathBuf::from(value)),
                "--every-ms" => {
                    config.every =
                        Duration::from_millis(value.parse().context("--every-ms is a whole number")?);
                }
                "--speed" => config.speed = value.parse().context("--speed is a whole number")?,
                other => bail!("\"{other}\" is not known here"),
            }
        }
        anyhow::ensure!(config.every >= Duration::from_millis(20), "--every-ms is 20 or more");
        anyhow::ensure!((1..=3_600).contains(&config.speed), "--speed is 1 to 3600");
        match config.what {
            Instrument::Oven => {
                anyhow::ensure!(
                    config.program.is_some() != config.job.is_some(),
                    "--job or --program is needed: a job, or the oven's file"
                );
            }
            Instrument::Thermocouple => {
                anyhow::ensure!(config.job.is_some() && !config.key.is_empty(), "--job and --key are needed");
            }
            Instrument::Infrared => anyhow::ensure!(config.job.is_some(), "--job is needed"),
        }
        Ok(config)
    }
}

/// Runs until it is ended, or an oven's program is over.
///
/// # Errors
/// The server refuses it, or its program cannot be read.
pub async fn run(config: &StandInConfig) -> anyhow::Result<()> {
    if config.while_open {
        end_when_closed();
    }
    let follow = |job| Follow::new(config.at.clone(), job, config.key.clone());
    let part = config.job.map(follow).transpose()?;
    match (config.what, part) {
        (Instrument::Oven, Some(part)) => oven::follow(part, config).await,
        (Instrument::Oven, None) => {
            let path = config.program.as_ref().context("--program is needed")?;
            let text = std::fs::read_to_string(path).with_context(|| path.display().to_string())?;
            oven::run(&text, config).await
        }
        (Instrument::Thermocouple, Some(part)) => thermocouple::run(part, config).await,
        (Instrument::Infrared, Some(part)) => infrared::run(part, config).await,
        (_, None) => bail!("--job is needed"),
    }
}

/// Nothing is read from there: it is closed when the one who started this is gone, however it went.
fn end_when_closed() {
    std::thread::spawn(|| {
        let closed = std::io::copy(&mut std::io::stdin(), &mut std::io::sink());
        std::process::exit(i32::from(closed.is_err()));
    });
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn of(words: &str) -> anyhow::Result<StandInConfig> {
        StandInConfig::of(words.split_whitespace().map(str::to_owned))
    }

    #[test]
    fn a_thermocouple_knows_its_job_and_its_key() {
        let job = Uuid::from_u128(7);
        let config =
            of(&format!("thermocouple --at http://127.0.0.1:9/ --job {job} --key abc --every-ms 50"))
                .unwrap();
        assert_eq!(
            (config.at.as_str(), config.job, config.key.as_str()),
            ("http://127.0.0.1:9", Some(job), "abc")
        );
    }

    #[test]
    fn one_that_was_started_by_another_ends_with_it() {
        let words = "infrared --while-open --job 00000000-0000-0000-0000-000000000007";
        assert!(of(words).unwrap().while_open);
        assert!(!of(&words.replace("--while-open ", "")).unwrap().while_open);
    }

    #[rstest]
    #[case::nothing("")]
    #[case::another("scales --job 1")]
    #[case::no_key("thermocouple --job 00000000-0000-0000-0000-000000000007")]
    #[case::no_job("infrared")]
    #[case::no_program("oven")]
    #[case::two_programs("oven --program a.csv --job 00000000-0000-0000-0000-000000000007")]
    #[case::no_value("oven --program")]
    #[case::no_id("infrared --job seven")]
    #[case::too_often("infrared --job 00000000-0000-0000-0000-000000000007 --every-ms 1")]
    fn what_is_missing_is_told(#[case] words: &str) {
        assert!(of(words).is_err());
    }
}
