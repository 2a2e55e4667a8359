//! `vanadin serve` and `vanadin openapi`.

use std::net::IpAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, bail};
use vanadin::{Clock, Config, openapi_document, serve};

const USAGE: &str = "\
vanadin serve [--data DIR] [--address 127.0.0.1] [--port 8420] [--demo]
              [--now 2026-03-09T07:40] [--most-mb MB]
    Serves the application. Port 0 takes a free one. --demo fills an empty data
    folder with a made-up sample shop. --now starts its clock at this moment, in
    UTC, and lets it run on: for a demo, a test or a picture. --most-mb keeps the
    data file under so many megabytes: what would need more is refused.
vanadin openapi
    Prints the API's OpenAPI document.";

fn main() -> ExitCode {
    match run() {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("vanadin: {error:#}");
            ExitCode::FAILURE
        }
    }
}

fn run() -> anyhow::Result<()> {
    let mut words = std::env::args().skip(1);
    match words.next().as_deref() {
        Some("serve") => {
            let config = serve_config(words)?;
            ::rocket::execute(serve(config))
        }
        Some("openapi") => {
            println!("{}", openapi_document());
            Ok(())
        }
        Some("--help" | "-h" | "help") => {
            println!("{USAGE}");
            Ok(())
        }
        Some(other) => bail!("\"{other}\" is no command\n{USAGE}"),
        None => bail!("a command is needed\n{USAGE}"),
    }
}

fn serve_config(mut words: impl Iterator<Item = String>) -> anyhow::Result<Config> {
    let mut config = Config {
        data: PathBuf::from("vanadin-data"),
        address: IpAddr::from([127, 0, 0, 1]),
        port: 8420,
        demo: false,
        clock: Clock::starting(None),
        most_mb: None,
    };
    while let Some(word) = words.next() {
        let mut value = || words.next().with_context(|| format!("{word} needs a value"));
        match word.as_str() {
            "--data" => config.data = PathBuf::from(value()?),
            "--address" => config.address = value()?.parse().context("--address is no IP address")?,
            "--port" => config.port = value()?.parse().context("--port is 0 to 65535")?,
            "--demo" => config.demo = true,
            "--now" => config.clock = Clock::starting(Some(moment(&value()?)?)),
            "--most-mb" => config.most_mb = Some(value()?.parse().context("--most-mb is a whole number")?),
            other => bail!("\"{other}\" is not known here\n{USAGE}"),
        }
    }
    Ok(config)
}

/// A moment as it is typed, in UTC: `2026-03-09T07:40`, with or without seconds and a Z.
fn moment(typed: &str) -> anyhow::Result<i64> {
    let plain = typed.strip_suffix('Z').unwrap_or(typed);
    let civil: jiff::civil::DateTime = plain.parse().context("--now is a moment like 2026-03-09T07:40")?;
    let at = civil.to_zoned(jiff::tz::TimeZone::UTC).context("--now is a moment like 2026-03-09T07:40")?;
    Ok(at.timestamp().as_millisecond())
}
