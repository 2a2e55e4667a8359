//! `cargo xtask release`: one binary with its pages, licence and README, packed.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::Command;

use crate::steps::{self, Done, root, run};

/// Where the archive that is tried lies, for the test that tries it.
const ARCHIVE: &str = "VANADIN_ARCHIVE";

/// Builds and packs; prints where the archive lies. With `--check` the archive is tried as well.
pub fn release(how: Option<&str>) -> Done {
    let checked = match how {
        None => false,
        Some("--check") => true,
        Some(other) => return Err(format!("cargo xtask release knows no {other}: --check, or nothing")),
    };
    steps::web_packages()?;
    steps::web_pages()?;
    steps::cargo(&["build", "--locked", "--quiet", "--release", "--package", "vanadin"])?;
    let archive = packed(&root().join("target/release/vanadin"))?;
    if checked {
        let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
        let words = ["test", "--locked", "--quiet", "--workspace", "--test", "it", "release::"];
        steps::run_with(&root(), &cargo, &words, &[(ARCHIVE, &archive.to_string_lossy())])?;
    }
    println!("{}", archive.display());
    Ok(())
}

/// Packs a binary that is built already; prints where the archive lies.
pub fn pack(binary: &str) -> Done {
    println!("{}", packed(Path::new(binary))?.display());
    Ok(())
}

fn packed(binary: &Path) -> Result<PathBuf, String> {
    let name = format!("vanadin-{}-{}", env!("CARGO_PKG_VERSION"), machine()?);
    // What is built for others and what is only tried lie apart.
    let built = binary.parent().and_then(Path::file_name).map(|name| name.to_owned()).unwrap_or_default();
    let releases = root().join("target/releases").join(built);
    let folder = releases.join(&name);
    let told = |error: std::io::Error| format!("{}: {error}", folder.display());
    fs::create_dir_all(&folder).map_err(told)?;
    for (from, to) in [
        (binary.to_owned(), "vanadin"),
        (root().join("LICENSE"), "LICENSE"),
        (root().join("README.md"), "README.md"),
    ] {
        fs::copy(from, folder.join(to)).map_err(told)?;
    }
    let archive = format!("{name}.tar.gz");
    run(&releases, "tar", &["--create", "--gzip", "--file", &archive, &name])?;
    Ok(releases.join(archive))
}

/// What it is built for, as the compiler calls it.
fn machine() -> Result<String, String> {
    let said = Command::new("rustc").arg("-vV").output().map_err(|error| format!("rustc: {error}"))?;
    let said = String::from_utf8_lossy(&said.stdout).into_owned();
    let host = said.lines().find_map(|line| line.strip_prefix("host: "));
    host.map(str::to_owned).ok_or_else(|| "rustc does not say what it builds for".to_owned())
}
