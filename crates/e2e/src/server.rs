//! The server as it ships, on a data folder of its own.

use std::io::{BufRead, BufReader};
use std::path::PathBuf;
use std::process::{Child, Command, Stdio};

use anyhow::Context;
use tempfile::TempDir;

/// A running server. Dropping it kills it, as a power cut would.
pub struct Server {
    folder: TempDir,
    child: Child,
    port: u16,
}

fn binary() -> anyhow::Result<PathBuf> {
    // A test lies in the folder `deps` beside it, a program right beside it.
    let me = std::env::current_exe()?;
    let binary = me.ancestors().skip(1).take(2).map(|folder| folder.join("vanadin")).find(|b| b.exists());
    binary.context("the server is not built: cargo build --workspace")
}

fn start(folder: &TempDir, port: u16, demo: bool) -> anyhow::Result<(Child, u16)> {
    let mut child = Command::new(binary()?)
        .args(["serve", "--port", &port.to_string(), "--data"])
        .arg(folder.path())
        .args(demo.then_some("--demo"))
        .stdout(Stdio::piped())
        .spawn()?;
    let mut line = String::new();
    BufReader::new(child.stdout.take().context("no output")?).read_line(&mut line)?;
    let port = line.trim().rsplit(':').next().and_then(|port| port.parse().ok());
    Ok((child, port.with_context(|| format!("the server said {line:?}"))?))
}

impl Server {
    pub fn start(demo: bool) -> anyhow::Result<Self> {
        let folder = tempfile::tempdir()?;
        let (child, port) = start(&folder, 0, demo)?;
        Ok(Self { folder, child, port })
    }

    #[must_use]
    pub fn url(&self, path: &str) -> String {
        format!("http://127.0.0.1:{}{path}", self.port)
    }

    /// `kill -9`: nothing is tidied up.
    pub fn kill(&mut self) -> anyhow::Result<()> {
        self.child.kill()?;
        self.child.wait()?;
        Ok(())
    }

    /// Starts again on the same folder and the same port.
    pub fn start_again(&mut self) -> anyhow::Result<()> {
        let (child, _) = start(&self.folder, self.port, false)?;
        self.child = child;
        Ok(())
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
