//! A server that is measured, and whoever calls it.

use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::Duration;

/// A running server; dropping it kills it.
pub struct Serving {
    child: Child,
    pub address: String,
}

impl Serving {
    pub fn start(binary: &Path, data: &Path, more: &[&str]) -> Result<Self, String> {
        let mut child = Command::new(binary)
            .args(["serve", "--now", "2026-03-09T07:40", "--port", "0", "--data"])
            .arg(data)
            .args(more)
            .stdout(Stdio::piped())
            .spawn()
            .map_err(|error| format!("{}: {error}", binary.display()))?;
        let out = child.stdout.take().ok_or("the server has no output")?;
        let mut line = String::new();
        BufReader::new(out).read_line(&mut line).map_err(|error| error.to_string())?;
        let address = line.trim().rsplit("http://").next().unwrap_or_default().to_owned();
        Ok(Self { child, address })
    }

    pub fn caller(&self) -> Result<Caller, String> {
        Caller::new(&self.address)
    }

    /// What of it lies in memory, the most so far.
    pub fn memory_mb(&self) -> Result<u64, String> {
        let status = fs::read_to_string(format!("/proc/{}/status", self.child.id()))
            .map_err(|error| format!("its memory is not known: {error}"))?;
        let most = status.lines().find_map(|line| line.strip_prefix("VmHWM:"));
        let kb = most.and_then(|most| most.split_whitespace().next()?.parse::<u64>().ok());
        kb.map(|kb| kb / 1000).ok_or_else(|| "its memory is not said".to_owned())
    }

    /// As `SIGTERM` does it, and waits until it is gone.
    pub fn stop(mut self) -> Result<(), String> {
        let told = Command::new("kill").args(["-TERM", &self.child.id().to_string()]).status();
        told.map_err(|error| error.to_string())?;
        self.child.wait().map(|_| ()).map_err(|error| error.to_string())
    }
}

impl Drop for Serving {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

/// Events as they come.
pub struct Watching(BufReader<TcpStream>);

impl Watching {
    /// Waits for a line.
    pub fn hears(&mut self, wanted: &str) -> Result<(), String> {
        let mut line = String::new();
        loop {
            line.clear();
            let read = self.0.read_line(&mut line).map_err(|error| format!("{wanted}: {error}"))?;
            if read == 0 {
                return Err(format!("the stream ended before {wanted}"));
            }
            if line.replace(' ', "").starts_with(wanted) {
                return Ok(());
            }
        }
    }
}

/// One connection, kept open.
pub struct Caller {
    stream: BufReader<TcpStream>,
    address: String,
}

impl Caller {
    pub fn new(address: &str) -> Result<Self, String> {
        let stream = TcpStream::connect(address).map_err(|error| format!("{address}: {error}"))?;
        let patience = Some(Duration::from_secs(60));
        stream
            .set_read_timeout(patience)
            .and_then(|()| stream.set_nodelay(true))
            .map_err(|e| e.to_string())?;
        Ok(Self { stream: BufReader::new(stream), address: address.to_owned() })
    }

    pub fn get(&mut self, path: &str) -> Result<String, String> {
        self.call("GET", path, "")
    }

    pub fn post(&mut self, path: &str, body: &str) -> Result<String, String> {
        self.call("POST", path, body)
    }

    /// Opens a stream of events.
    pub fn watch(mut self, path: &str) -> Result<Watching, String> {
        let address = &self.address;
        let request = format!("GET {path} HTTP/1.1\r\nHost: {address}\r\nAccept: text/event-stream\r\n\r\n");
        self.stream.get_mut().write_all(request.as_bytes()).map_err(|error| error.to_string())?;
        let mut watching = Watching(self.stream);
        watching.hears("event:hello")?;
        Ok(watching)
    }

    fn call(&mut self, method: &str, path: &str, body: &str) -> Result<String, String> {
        let address = &self.address;
        let request = format!(
            "{method} {path} HTTP/1.1\r\nHost: {address}\r\nContent-Type: application/json\r\n\
             Content-Length: {}\r\n\r\n{body}",
            body.len()
        );
        let answered = self.answer(&request);
        let (status, answer) = answered.map_err(|error| format!("{method} {path}: {error}"))?;
        if status == 200 { Ok(answer) } else { Err(format!("{method} {path}: {status} {answer:.300}")) }
    }

    fn answer(&mut self, request: &str) -> std::io::Result<(u16, String)> {
        self.stream.get_mut().write_all(request.as_bytes())?;
        let mut line = String::new();
        self.stream.read_line(&mut line)?;
        let status = line.split(' ').nth(1).and_then(|status| status.parse().ok()).unwrap_or(0);
        let mut length = 0;
        loop {
            line.clear();
            self.stream.read_line(&mut line)?;
            if line.trim().is_empty() {
                break;
            }
            if let Some(said) = line.to_ascii_lowercase().strip_prefix("content-length:") {
                length = said.trim().parse().unwrap_or(0);
            }
        }
        let mut body = vec![0; length];
        self.stream.read_exact(&mut body)?;
        Ok((status, String::from_utf8_lossy(&body).into_owned()))
    }
}
