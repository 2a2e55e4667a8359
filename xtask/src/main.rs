//! `cargo xtask demo`, `cargo xtask test`, `cargo xtask quick`, `cargo xtask measure`, `cargo xtask release`, `cargo xtask api`,
//! `cargo xtask screenshots`.
//! Only the standard library, so that it builds in a moment on a fresh machine.

mod check;
mod measure;
mod passed;
mod release;
mod steps;
mod times;

use std::process::ExitCode;

use check::How;

const USAGE: &str = "\
cargo xtask demo     installs, builds, starts with demo data, prints the address
cargo xtask test     installs what the tests need and runs all of them; what passed as it is is not run again, but with
                     --again: the laws and the core at any time, all else on the same day, where nothing at all changed
cargo xtask quick    what of that is run while one works: all but most of the browser
cargo xtask pages    builds the pages
cargo xtask measure  sizes and start-up figures of a release build
cargo xtask release  one binary with its pages, licence and README, packed; with --check it is tried as well
cargo xtask api      writes the browser's types anew from the OpenAPI document
cargo xtask screenshots  takes the pictures in docs/screenshots anew";

fn main() -> ExitCode {
    let task = std::env::args().nth(1);
    let done = match task.as_deref() {
        Some("demo") => steps::demo(),
        Some("test") => again().and_then(|again| check::check(How::Whole, again)),
        Some("quick") => again().and_then(|again| check::check(How::Quick, again)),
        Some("screenshots") => steps::screenshots(),
        Some("pages") => steps::web_packages().and_then(|()| steps::web_pages()),
        Some("measure") => measure::measure(),
        Some("release") => release::release(std::env::args().nth(2).as_deref()),
        // What the check packs is built already.
        Some("pack") => release::pack(std::env::args().nth(2).as_deref().unwrap_or_default()),
        Some("api") => {
            steps::web_packages().and_then(|()| steps::build_as_tested()).and_then(|()| steps::write_api())
        }
        _ => Err(USAGE.to_owned()),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("{why}");
            ExitCode::FAILURE
        }
    }
}

/// Whether what passed is run again.
fn again() -> Result<bool, String> {
    match std::env::args().nth(2).as_deref() {
        None => Ok(false),
        Some("--again") => Ok(true),
        Some(_) => Err(USAGE.to_owned()),
    }
}
