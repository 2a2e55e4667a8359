//! `vanadin serve` and `vanadin openapi`.

use std::net::IpAddr;
use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::{Context, bail};
use vanadin::{Config, openapi_document, rocket};

const USAGE: &str = "\
vanadin serve [--data DIR] [--address 127.0.0.1] [--port 8420] [--demo]
    Serves the application. Port 0 takes a free one. --demo fills an empty data
    folder with a made-up sample shop.
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
            ::rocket::execute(
                async move { rocket(config).await?.launch().await.map_err(anyhow::Error::from) },
            )?;
            Ok(())
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
    };
    while let Some(word) = words.next() {
        let mut value = || words.next().with_context(|| format!("{word} needs a value"));
        match word.as_str() {
            "--data" => config.data = PathBuf::from(value()?),
            "--address" => config.address = value()?.parse().context("--address is no IP address")?,
            "--port" => config.port = value()?.parse().context("--port is 0 to 65535")?,
            "--demo" => config.demo = true,
            other => bail!("\"{other}\" is not known here\n{USAGE}"),
        }
    }
    Ok(config)
}
