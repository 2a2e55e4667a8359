//! The server as it ships, on a data folder of its own.

use std::io::{BufRead, BufReader};
use std::net::{Ipv4Addr, TcpListener};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::{Mutex, PoisonError};
use std::time::Instant;

use anyhow::Context;
use tempfile::TempDir;

use crate::port::{self, Lent};

/// A running server. Dropping it kills it, as a power cut would.
pub struct Server {
    folder: TempDir,
    child: Child,
    port: u16,
    /// Nobody else's while this server is there, or a browser that was.
    _lent: Lent,
    /// When it was started, and what its clock then said.
    began: (Instant, String),
    /// What it asks everybody for; nothing where it asks nobody.
    pub passphrase: Option<String>,
    /// Where it hands out the shop's certificate; nothing without one.
    pub trust_port: Option<u16>,
}

/// A stand-in that runs. Dropping it ends it.
pub struct StandIn {
    child: Child,
}

impl Drop for StandIn {
    fn drop(&mut self) {
        // It may have ended by itself.
        if self.child.kill().is_ok() {
            self.child.wait().ok();
        }
    }
}

/// A program of the workspace, as it is built for the tests.
///
/// # Errors
/// It is not built.
pub fn binary(name: &str) -> anyhow::Result<PathBuf> {
    // A test lies in the folder `deps` beside it, a program right beside it.
    let me = std::env::current_exe()?;
    let binary = me.ancestors().skip(1).take(2).map(|folder| folder.join(name)).find(|b| b.exists());
    binary.with_context(|| format!("{name} is not built: cargo build --workspace"))
}

const CLOSED: &str = "--closed";

/// A Monday morning: nothing depends on the hour at which a test runs.
const MORNING: &str = "2026-03-09T07:40";

/// The data file of a sample shop that was filled this morning: filling one costs more than most tests do.
static FILLED: Mutex<Option<Vec<u8>>> = Mutex::new(None);

/// Puts the sample shop there. It is the same shop each time, with the jobs of the same names and keys.
fn fill(folder: &TempDir) -> anyhow::Result<()> {
    let mut filled = FILLED.lock().unwrap_or_else(PoisonError::into_inner);
    let bytes = match &mut *filled {
        Some(bytes) => bytes,
        none => {
            let mut server = Server::start_another()?;
            server.kill()?;
            let copy = server.folder().join("copy.sqlite");
            server.command(&["backup", "--to", &copy.to_string_lossy()])?;
            none.insert(std::fs::read(copy)?)
        }
    };
    Ok(std::fs::write(folder.path().join("vanadin.sqlite"), bytes)?)
}

fn start(
    folder: &TempDir,
    port: u16,
    now: &str,
    more: &[&str],
    // A passphrase is made, and said, at the first start alone.
    first: bool,
) -> anyhow::Result<(Child, u16, Option<String>)> {
    let mut child = Command::new(binary("vanadin")?)
        .args(["serve", "--now", now, "--port", &port.to_string(), "--data"])
        .arg(folder.path())
        .args(more)
        .stdout(Stdio::piped())
        .spawn()?;
    let mut line = String::new();
    let mut said = BufReader::new(child.stdout.take().context("no output")?);
    said.read_line(&mut line)?;
    let port = line.trim().rsplit(':').next().and_then(|port| port.parse().ok());
    let port = port.with_context(|| format!("the server said {line:?}"))?;
    let passphrase = if first && more.contains(&CLOSED) {
        line.clear();
        said.read_line(&mut line)?;
        let said = line.strip_prefix("The shop's passphrase is ").and_then(|rest| rest.split(':').next());
        Some(said.with_context(|| format!("the server said {line:?}"))?.to_owned())
    } else {
        None
    };
    Ok((child, port, passphrase))
}

impl Server {
    /// With the sample shop where it is for a demo.
    pub fn start(demo: bool) -> anyhow::Result<Self> {
        let folder = tempfile::tempdir()?;
        if demo {
            fill(&folder)?;
        }
        Self::start_in(folder, MORNING, &["--stand-ins"])
    }

    /// With a sample shop that is no other server's.
    pub fn start_another() -> anyhow::Result<Self> {
        Self::start_with(MORNING, &["--demo"])
    }

    /// With the sample shop of this moment, in UTC.
    pub fn start_at(now: &str) -> anyhow::Result<Self> {
        if now == MORNING { Self::start(true) } else { Self::start_with(now, &["--demo"]) }
    }

    /// Nothing is simulated: what is read is read by a logger, or by hand.
    pub fn start_bare() -> anyhow::Result<Self> {
        Self::start_with(MORNING, &[])
    }

    /// Its data file may not grow over this.
    pub fn start_within(most_mb: u32) -> anyhow::Result<Self> {
        Self::start_with(MORNING, &["--stand-ins", "--most-mb", &most_mb.to_string()])
    }

    /// It asks everybody for the shop's passphrase, those on this machine too.
    pub fn start_closed() -> anyhow::Result<Self> {
        let folder = tempfile::tempdir()?;
        fill(&folder)?;
        Self::start_in(folder, MORNING, &["--stand-ins", CLOSED])
    }

    /// On a folder that is there already.
    pub fn start_on(folder: TempDir) -> anyhow::Result<Self> {
        Self::start_in(folder, MORNING, &["--stand-ins"])
    }

    /// It asks everybody, over TLS.
    pub fn start_with_tls() -> anyhow::Result<Self> {
        let free = TcpListener::bind((Ipv4Addr::LOCALHOST, 0))?.local_addr()?.port();
        let more = ["--stand-ins", CLOSED, "--tls", "--trust-port", &free.to_string()];
        let folder = tempfile::tempdir()?;
        fill(&folder)?;
        let mut server = Self::start_in(folder, MORNING, &more)?;
        server.trust_port = Some(free);
        Ok(server)
    }

    fn start_with(now: &str, more: &[&str]) -> anyhow::Result<Self> {
        Self::start_in(tempfile::tempdir()?, now, more)
    }

    fn start_in(folder: TempDir, now: &str, more: &[&str]) -> anyhow::Result<Self> {
        let began = (Instant::now(), now.to_owned());
        let (child, port, passphrase) = start(&folder, port::again().unwrap_or(0), now, more, true)?;
        Ok(Self { folder, child, port, _lent: port::lend(port), began, passphrase, trust_port: None })
    }

    /// What a command says of this server's data.
    pub fn command(&self, words: &[&str]) -> anyhow::Result<String> {
        let told = Command::new(binary("vanadin")?).args(words).arg("--data").arg(self.folder()).output()?;
        let said = String::from_utf8_lossy(&told.stdout).into_owned();
        anyhow::ensure!(told.status.success(), "{said}{}", String::from_utf8_lossy(&told.stderr));
        Ok(said)
    }

    /// An instrument that is not there, started beside this server: `thermocouple`, with what it needs. It is ended
    /// when this is dropped.
    pub fn stand_in(&self, words: &[&str]) -> anyhow::Result<StandIn> {
        let at = self.url("");
        let child = Command::new(binary("vanadin")?)
            .arg("stand-in")
            .args(words)
            .args(["--at", at.trim_end_matches('/')])
            .stdout(Stdio::null())
            .spawn()?;
        Ok(StandIn { child })
    }

    #[must_use]
    pub fn port(&self) -> u16 {
        self.port
    }

    #[must_use]
    pub fn folder(&self) -> &Path {
        self.folder.path()
    }

    /// `SIGTERM`: it tidies up and ends.
    pub fn stop(&mut self) -> anyhow::Result<()> {
        self.signal("-TERM")?;
        self.child.wait()?;
        Ok(())
    }

    /// It takes connections and says nothing, as a computer that sleeps.
    pub fn fall_silent(&self) -> anyhow::Result<()> {
        self.signal("-STOP")
    }

    /// It goes on where it stopped.
    pub fn speak_again(&self) -> anyhow::Result<()> {
        self.signal("-CONT")
    }

    fn signal(&self, signal: &str) -> anyhow::Result<()> {
        let told = Command::new("kill").args([signal, &self.child.id().to_string()]).status()?;
        anyhow::ensure!(told.success(), "it could not be sent {signal}");
        Ok(())
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

    /// Another data folder answers at the same address. Gives the one that did until now.
    pub fn change_folder(&mut self, folder: TempDir) -> anyhow::Result<TempDir> {
        self.kill()?;
        let before = std::mem::replace(&mut self.folder, folder);
        self.start_again()?;
        Ok(before)
    }

    /// It is killed, and so many hours later it is started again.
    pub fn hours_later(&mut self, hours: i64) -> anyhow::Result<()> {
        self.kill()?;
        let morning: jiff::civil::DateTime = self.began.1.parse()?;
        self.began.1 = morning.checked_add(jiff::Span::new().hours(hours))?.to_string();
        self.start_again()
    }

    /// With the sample shop, and nothing that reads by itself.
    pub fn start_with_a_shop_and_no_pads() -> anyhow::Result<Self> {
        let folder = tempfile::tempdir()?;
        fill(&folder)?;
        Self::start_in(folder, MORNING, &[])
    }

    /// Starts again, with no stand-in, on the same folder and the same port; one that asked everybody asks them again.
    /// Its clock goes on as if it had never stopped.
    pub fn start_again(&mut self) -> anyhow::Result<()> {
        let (since, morning) = &self.began;
        let morning: jiff::civil::DateTime = morning.parse()?;
        let now = morning
            .checked_add(jiff::Span::new().milliseconds(i64::try_from(since.elapsed().as_millis())?))?;
        let closed: &[&str] = if self.passphrase.is_some() { &[CLOSED] } else { &[] };
        let (child, ..) = start(&self.folder, self.port, &now.to_string(), closed, false)?;
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
