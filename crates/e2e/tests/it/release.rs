//! The archive of a release, started where there is neither Rust nor Node nor this project.

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Child, Command, Stdio};

use anyhow::Context;
use vanadin_e2e::binary;

struct Running(Child);

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}

fn asked(address: &str, path: &str) -> anyhow::Result<String> {
    let mut stream = TcpStream::connect(address)?;
    write!(stream, "GET {path} HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\n\r\n")?;
    let mut answer = Vec::new();
    stream.read_to_end(&mut answer)?;
    Ok(String::from_utf8_lossy(&answer).into_owned())
}

fn packed() -> anyhow::Result<String> {
    let packed = Command::new(binary("xtask")?).arg("pack").arg(binary("vanadin")?).output()?;
    anyhow::ensure!(packed.status.success(), "{}", String::from_utf8_lossy(&packed.stderr));
    let said = String::from_utf8_lossy(&packed.stdout).into_owned();
    Ok(said.lines().last().context("it says where the archive lies")?.to_owned())
}

#[test]
fn a_release_starts_by_itself_with_its_pages() -> anyhow::Result<()> {
    let archive = match std::env::var("VANADIN_ARCHIVE") {
        Ok(archive) => archive,
        // The one that is tested, packed as the one for others is.
        Err(_) => packed()?,
    };
    let elsewhere = tempfile::tempdir()?;
    let unpacked = Command::new("tar")
        .args(["--extract", "--gzip", "--file", &archive, "--strip-components", "1"])
        .current_dir(elsewhere.path())
        .status()?;
    assert!(unpacked.success());
    let mut files: Vec<String> = std::fs::read_dir(elsewhere.path())?
        .map(|entry| Ok(entry?.file_name().to_string_lossy().into_owned()))
        .collect::<std::io::Result<_>>()?;
    files.sort();
    assert_eq!(files, ["LICENSE", "README.md", "vanadin"]);

    let binary = elsewhere.path().join("vanadin");
    let alone = |words: &[&str]| {
        let mut command = Command::new(&binary);
        command.args(words).current_dir(elsewhere.path()).env_clear().env("PATH", "/nowhere");
        command
    };
    let version = alone(&["--version"]).output()?;
    assert!(String::from_utf8_lossy(&version.stdout).starts_with("vanadin "), "{version:?}");
    let mut running =
        Running(alone(&["serve", "--demo", "--port", "0", "--data", "data"]).stdout(Stdio::piped()).spawn()?);
    let mut line = String::new();
    BufReader::new(running.0.stdout.take().context("no output")?).read_line(&mut line)?;
    let address = line.trim().rsplit("http://").next().context("no address")?.to_owned();
    let page = asked(&address, "/")?;
    let script = page.split('"').find(|part| part.starts_with("/assets/") && part.ends_with(".js"));
    let script = asked(&address, script.context("the page has no script")?)?;
    assert!(script.starts_with("HTTP/1.1 200"), "{:.200}", script);
    assert!(asked(&address, "/sw.js")?.starts_with("HTTP/1.1 200"));
    assert!(asked(&address, "/api/rack")?.contains("Letterpress side frame"));
    Ok(())
}
