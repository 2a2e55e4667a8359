//! `vanadin serve`, what keeps the data, and `vanadin openapi`.

use std::net::IpAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, bail};
use vanadin::{Asks, Clock, Config, StandInConfig, keep, openapi_document, serve, stand_in};

const USAGE: &str = "\
vanadin serve [--data DIR] [--address 127.0.0.1] [--port 8420] [--demo]
              [--stand-ins] [--now 2026-03-09T07:40] [--most-mb MB]
              [--open | --closed]
              [--tls [--trust-port 8421]]
    Serves the application, and keeps a copy a day for a week in DIR/copies.
    Port 0 takes a free one. --demo fills an empty data folder with a made-up
    sample shop, and starts a stand-in's thermocouple on each part that is hot;
    --stand-ins does that alone. Without it readings come from a logger or by hand. --now starts its clock at this moment, in UTC, and lets it run
    on: for a demo, a test or a picture; no copies are made then. --most-mb keeps
    the data file under so many megabytes: what would need more is refused.
    Served on an address that others reach, it asks them for the shop's
    passphrase, which is made and printed at the first start. --open asks nobody;
    --closed asks on this machine too, where something passes requests on to it.
    --tls makes a certificate authority of the shop's own and serves with a
    certificate of it. A device that is new here begins on the trust port, where it
    loads that authority over plain http.
vanadin backup --data DIR --to FILE
    Copies everything stored so far into one file, also while it is being served.
vanadin check --data DIR
    Looks whether the data file is whole, and lists what in it cannot be read.
vanadin restore --data DIR --from FILE
    Puts a copy back. What lay there is moved aside, not lost.
vanadin stand-in thermocouple --job ID --key KEY [--at http://127.0.0.1:8420]
vanadin stand-in infrared --job ID [--at http://127.0.0.1:8420]
vanadin stand-in oven --program oven.csv [--speed 60]
    Instruments that are not there: a logger that posts what a pad on the part of
    that job would read, with the key made in Shop; a gun that says what it would
    show on the surface chosen; an oven that follows a job's program. Each speaks
    as a real one does. --every-ms says how often it looks. The key may stand in
    VANADIN_KEY instead; --while-open ends it when its input is closed.
vanadin openapi
    Prints the API's OpenAPI document.
vanadin --version
vanadin --help";

/// Where the data lies when nobody says so.
const USUAL_FOLDER: &str = "vanadin-data";

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
    // Asked of any command it is the same.
    if std::env::args().skip(2).any(|word| ["--help", "-h"].contains(&word.as_str())) {
        println!("{USAGE}");
        return Ok(());
    }
    let mut words = std::env::args().skip(1);
    match words.next().as_deref() {
        Some("serve") => {
            let config = serve_config(words)?;
            ::rocket::execute(serve(config))
        }
        Some("stand-in") => {
            let config = StandInConfig::of(words)?;
            ::rocket::execute(stand_in(&config))
        }
        Some("openapi") => {
            println!("{}", openapi_document());
            Ok(())
        }
        Some("backup") => {
            let [data, to] = paths(words, ["--data", "--to"])?;
            ::rocket::execute(keep::backup(&data, &to))?;
            println!("Copied to {}", to.display());
            Ok(())
        }
        Some("check") => {
            let [data] = paths(words, ["--data"])?;
            let found = ::rocket::execute(keep::check(&data))?;
            println!("{found}");
            anyhow::ensure!(found.whole(), "not everything can be read");
            Ok(())
        }
        Some("restore") => {
            let [data, from] = paths(words, ["--data", "--from"])?;
            match ::rocket::execute(keep::restore(&data, &from))? {
                Some(aside) => println!("Put back. What lay there is now {}", aside.display()),
                None => println!("Put back."),
            }
            Ok(())
        }
        Some("--version" | "-V") => {
            println!("vanadin {}", env!("CARGO_PKG_VERSION"));
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
        data: PathBuf::from(USUAL_FOLDER),
        address: IpAddr::from([127, 0, 0, 1]),
        port: 8420,
        demo: false,
        stand_ins: false,
        clock: Clock::starting(None),
        most_mb: None,
        copies: true,
        asks: Asks::Others,
        tls: None,
    };
    let mut asks = None;
    let (mut tls, mut trust_port) = (false, None);
    while let Some(word) = words.next() {
        let mut value = || words.next().with_context(|| format!("{word} needs a value"));
        match word.as_str() {
            "--data" => config.data = PathBuf::from(value()?),
            "--address" => config.address = value()?.parse().context("--address is no IP address")?,
            "--port" => config.port = value()?.parse().context("--port is 0 to 65535")?,
            "--demo" => (config.demo, config.stand_ins, config.copies) = (true, true, false),
            "--stand-ins" => config.stand_ins = true,
            "--now" => (config.clock, config.copies) = (Clock::starting(Some(moment(&value()?)?)), false),
            "--tls" => tls = true,
            "--trust-port" => {
                trust_port = Some(value()?.parse().context("--trust-port is 1 to 65535")?);
            }
            "--open" => asks = Some(Asks::Nobody),
            "--closed" => asks = Some(Asks::Everybody),
            "--most-mb" => config.most_mb = Some(value()?.parse().context("--most-mb is a whole number")?),
            other => bail!("\"{other}\" is not known here\n{USAGE}"),
        }
    }
    anyhow::ensure!(tls || trust_port.is_none(), "--trust-port goes with --tls");
    config.tls = tls.then(|| trust_port.unwrap_or(config.port.saturating_add(1)));
    anyhow::ensure!(
        config.tls.is_none_or(|trust| trust != config.port),
        "--trust-port has to be another than --port"
    );
    let usual = if config.address.is_loopback() { Asks::Nobody } else { Asks::Others };
    config.asks = asks.unwrap_or(usual);
    if config.asks == Asks::Nobody && !config.address.is_loopback() {
        eprintln!("vanadin: OPEN: whoever reaches {} reads and writes everything.", config.address);
    }
    Ok(config)
}

/// What stands after each of these words, all of them needed but the folder.
fn paths<const N: usize>(
    mut words: impl Iterator<Item = String>,
    names: [&str; N],
) -> anyhow::Result<[PathBuf; N]> {
    let mut said: [Option<PathBuf>; N] = std::array::from_fn(|_| None);
    while let Some(word) = words.next() {
        let at = names.iter().position(|name| *name == word);
        let at = at.with_context(|| format!("\"{word}\" is not known here\n{USAGE}"))?;
        said[at] = Some(words.next().with_context(|| format!("{word} needs a value"))?.into());
    }
    let mut paths = std::array::from_fn(|_| PathBuf::new());
    for ((path, said), name) in paths.iter_mut().zip(said).zip(names) {
        let usual = (name == "--data").then(|| PathBuf::from(USUAL_FOLDER));
        *path = said.or(usual).with_context(|| format!("{name} is needed\n{USAGE}"))?;
    }
    Ok(paths)
}

/// A moment as it is typed, in UTC: `2026-03-09T07:40`, with or without seconds and a Z.
fn moment(typed: &str) -> anyhow::Result<i64> {
    let plain = typed.strip_suffix('Z').unwrap_or(typed);
    let civil: jiff::civil::DateTime = plain.parse().context("--now is a moment like 2026-03-09T07:40")?;
    let at = civil.to_zoned(jiff::tz::TimeZone::UTC).context("--now is a moment like 2026-03-09T07:40")?;
    Ok(at.timestamp().as_millisecond())
}
