//! `cargo xtask release`: one binary with its pages, licence and README, packed.

use std::fs;
use std::process::Command;

use crate::steps::{self, Done, root, run};

/// Builds and packs; prints where the archive lies.
pub fn release() -> Done {
    steps::web_packages()?;
    steps::web_pages()?;
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    run(&root(), &cargo, &["build", "--locked", "--quiet", "--release", "--package", "vanadin"])?;
    let name = format!("vanadin-{}-{}", env!("CARGO_PKG_VERSION"), machine()?);
    let releases = root().join("target/releases");
    let folder = releases.join(&name);
    let told = |error: std::io::Error| format!("{}: {error}", folder.display());
    fs::create_dir_all(&folder).map_err(told)?;
    for (from, to) in
        [("target/release/vanadin", "vanadin"), ("LICENSE", "LICENSE"), ("README.md", "README.md")]
    {
        fs::copy(root().join(from), folder.join(to)).map_err(told)?;
    }
    let archive = format!("{name}.tar.gz");
    run(&releases, "tar", &["--create", "--gzip", "--file", &archive, &name])?;
    println!("{}", releases.join(archive).display());
    Ok(())
}

/// What it is built for, as the compiler calls it.
fn machine() -> Result<String, String> {
    let said = Command::new("rustc").arg("-vV").output().map_err(|error| format!("rustc: {error}"))?;
    let said = String::from_utf8_lossy(&said.stdout).into_owned();
    let host = said.lines().find_map(|line| line.strip_prefix("host: "));
    host.map(str::to_owned).ok_or_else(|| "rustc does not say what it builds for".to_owned())
}
