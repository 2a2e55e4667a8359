//! Sizes and start-up figures. Machines are noisy: read them as ratios.

use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

use crate::steps::{self, Done, root, run};

/// Aims: first load, and start to first answer.
const FIRST_LOAD_KB: f64 = 200.0;
const FIRST_ANSWER_MS: u128 = 300;

pub fn measure() -> Done {
    steps::web_packages()?;
    steps::web_pages()?;
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    run(&root(), &cargo, &["build", "--locked", "--release", "--workspace"])?;
    first_load()?;
    let binary = root().join("target/release/vanadin");
    let size = fs::metadata(&binary).map_err(|error| error.to_string())?.len();
    println!("binary, release: {:.1} MB", size as f64 / 1e6);
    for demo in [false, true] {
        let times: Result<Vec<u128>, String> = (0..5).map(|_| first_answer(demo)).collect();
        let mut times = times?;
        times.sort_unstable();
        let what = if demo { "filled with the sample shop" } else { "empty folder" };
        println!("start to first answer, {what}: {} ms (median of 5, aim {FIRST_ANSWER_MS})", times[2]);
    }
    Ok(())
}

fn first_load() -> Done {
    let assets = root().join("web/dist/assets");
    let entries = fs::read_dir(&assets).map_err(|error| format!("{}: {error}", assets.display()))?;
    let mut total = 0.0;
    for entry in entries.flatten() {
        let path = entry.path();
        if path.extension().is_some_and(|kind| kind == "js" || kind == "css") {
            let packed =
                Command::new("gzip").args(["-9", "-c"]).arg(&path).output().map_err(|e| e.to_string())?;
            let kb = packed.stdout.len() as f64 / 1000.0;
            println!("{}: {kb:.1} KB compressed", path.file_name().unwrap_or_default().to_string_lossy());
            total += kb;
        }
    }
    println!("first load, script and style: {total:.1} KB (aim under {FIRST_LOAD_KB:.0})");
    Ok(())
}

fn first_answer(demo: bool) -> Result<u128, String> {
    let data = std::env::temp_dir().join(format!("vanadin-measure-{}", std::process::id()));
    let _ = fs::remove_dir_all(&data);
    let started = Instant::now();
    let mut server = Command::new(root().join("target/release/vanadin"))
        .args(["serve", "--port", "0", "--data"])
        .arg(&data)
        .args(demo.then_some("--demo"))
        .stdout(Stdio::piped())
        .spawn()
        .map_err(|error| error.to_string())?;
    let answered = answer(&mut server).map(|()| started.elapsed().as_millis());
    let _ = server.kill();
    let _ = server.wait();
    let _ = fs::remove_dir_all(&data);
    answered
}

fn answer(server: &mut std::process::Child) -> Result<(), String> {
    let out = server.stdout.take().ok_or("the server has no output")?;
    let mut line = String::new();
    BufReader::new(out).read_line(&mut line).map_err(|error| error.to_string())?;
    let address = line.trim().rsplit("http://").next().unwrap_or_default().to_owned();
    let mut stream = TcpStream::connect(&address).map_err(|error| format!("{address}: {error}"))?;
    stream.set_read_timeout(Some(Duration::from_secs(5))).map_err(|error| error.to_string())?;
    let request = format!("GET /api/health HTTP/1.1\r\nHost: {address}\r\nConnection: close\r\n\r\n");
    stream.write_all(request.as_bytes()).map_err(|error| error.to_string())?;
    let mut head = [0; 15];
    stream.read_exact(&mut head).map_err(|error| error.to_string())?;
    if head.starts_with(b"HTTP/1.1 200") { Ok(()) } else { Err("the server did not answer 200".to_owned()) }
}
