//! Five thousand jobs: the rack, finding, saying, and twenty people at once.

use std::fs;
use std::path::Path;
use std::thread;
use std::time::{Duration, Instant};

use super::server::{Caller, Serving};
use crate::steps::{root, run};

const JOBS: usize = 5_000;
const READINGS: usize = 17_000;
const CLIENTS: usize = 20;
const FOR: Duration = Duration::from_secs(5);

/// An id that was not given before, of a kind.
fn id(kind: u32, number: usize) -> String {
    format!("{kind:08x}-0000-4000-8000-{number:012x}")
}

/// The jobs' ids in an answer of the rack, in order.
fn ids(rack: &str) -> Vec<String> {
    let lines = rack.split("\"id\":\"").skip(1).filter_map(|rest| rest.split('"').next());
    lines.map(str::to_owned).collect()
}

fn said(number: usize, key: &str, typed: &str) -> String {
    let id = id(2, number);
    format!(
        "{{\"id\":\"{id}\",\"at_client_ms\":1773042000000,\"change\":{{\"kind\":\"set\",\"key\":\"{key}\",\
         \"typed\":\"{typed}\",\"shown_in\":\"metric\"}}}}"
    )
}

/// A job's file with so many readings of its first lighting.
fn with_readings(file: &str) -> Result<String, String> {
    const LIST: &str = "\"readings\":[{\"readings\":[";
    let from = file.find(LIST).ok_or("the file has no readings")? + LIST.len();
    let to = from + file[from..].find(']').ok_or("the readings do not end")?;
    let read = |at: usize| {
        let minutes = at as f64 / 6.0;
        format!("{{\"minutes\":{minutes},\"celsius\":{}}}", 18 + at % 300)
    };
    let readings: Vec<String> = (1..=READINGS).map(read).collect();
    Ok(format!("{}{}{}", &file[..from], readings.join(","), &file[to..]))
}

/// Milliseconds of each call, sorted.
fn timed(times: usize, mut call: impl FnMut(usize) -> Result<(), String>) -> Result<Vec<f64>, String> {
    let mut took = Vec::with_capacity(times);
    for at in 0..times {
        let began = Instant::now();
        call(at)?;
        took.push(began.elapsed().as_secs_f64() * 1000.0);
    }
    took.sort_by(f64::total_cmp);
    Ok(took)
}

fn say(what: &str, took: &[f64], aim: &str) {
    let (middle, last) = (took[took.len() / 2], took[took.len() - 1]);
    println!("{what}: {middle:.1} ms, at most {last:.1} (aim {aim})");
}

/// Twenty clients say something for some seconds, each of one of the jobs.
fn load(address: &str, jobs: &[String], first: usize) -> Result<(f64, f64), String> {
    let began = Instant::now();
    let clients: Vec<_> = (0..CLIENTS)
        .map(|client| {
            let (address, job) = (address.to_owned(), jobs[client % jobs.len()].clone());
            thread::spawn(move || -> Result<Vec<f64>, String> {
                let mut caller = Caller::new(&address)?;
                let mut took = Vec::new();
                while began.elapsed() < FOR {
                    let number = first + client * 100_000 + took.len();
                    let body = said(number, "part.owner", &format!("client {client} word {number}"));
                    let sent = Instant::now();
                    caller.post(&format!("/api/jobs/{job}/facts"), &body)?;
                    took.push(sent.elapsed().as_secs_f64() * 1000.0);
                }
                Ok(took)
            })
        })
        .collect();
    let mut all = Vec::new();
    for client in clients {
        all.extend(client.join().map_err(|_| "a client broke")??);
    }
    all.sort_by(f64::total_cmp);
    let late = all[all.len() * 95 / 100];
    Ok((all.len() as f64 / FOR.as_secs_f64(), late))
}

pub fn many(binary: &Path) -> Result<(), String> {
    let data = std::env::temp_dir().join(format!("vanadin-measure-many-{}", std::process::id()));
    let _ = fs::remove_dir_all(&data);
    let measured = measured(binary, &data);
    let _ = fs::remove_dir_all(&data);
    measured
}

fn measured(binary: &Path, data: &Path) -> Result<(), String> {
    let serving = Serving::start(binary, data, &["--demo"])?;
    println!("memory with seven jobs: {} MB (aim 60 empty)", serving.memory_mb()?);
    let mut caller = serving.caller()?;
    let rack = caller.get("/api/rack")?;
    println!("rack of seven: {:.1} KB", rack.len() as f64 / 1000.0);
    let sample = ids(&rack);
    println!("copying {JOBS} jobs ...");
    for number in 0..JOBS {
        let from = &sample[number % sample.len()];
        let body = format!("{{\"id\":\"{}\"}}", id(1, number));
        caller.post(&format!("/api/jobs/{from}/copy"), &body)?;
    }
    drop(caller);
    serving.stop()?;

    let began = Instant::now();
    let serving = Serving::start(binary, data, &[])?;
    let mut caller = serving.caller()?;
    caller.get("/api/health")?;
    println!("start with {JOBS} jobs to first answer: {} ms (aim 500)", began.elapsed().as_millis());
    let rack = caller.get("/api/rack")?;
    println!("rack, first screen: {:.1} KB (aim 60)", rack.len() as f64 / 1000.0);
    say("rack, first screen", &timed(40, |_| caller.get("/api/rack").map(drop))?, "50");
    let middle = |at: usize| format!("/api/rack?from={}", at * 120);
    say("rack, somewhere in it", &timed(40, |at| caller.get(&middle(at)).map(drop))?, "50");
    say("finding", &timed(40, |_| caller.get("/api/rack?find=bell").map(drop))?, "50");
    say("rack of what is put away", &timed(40, |_| caller.get("/api/rack?away=true").map(drop))?, "50");

    let mut file = None;
    for job in &sample {
        let exported = caller.get(&format!("/api/jobs/{job}/export"))?;
        if exported.contains("\"readings\":[{\"readings\":[{") && exported.contains("\"pictures\":[]") {
            file = Some(with_readings(&exported)?);
        }
    }
    let file = file.ok_or("no job of the sample shop was read")?;
    let imported = caller.post("/api/import", &file)?;
    let long = ids(&imported).first().cloned().ok_or("nothing was imported")?;
    let facts = format!("/api/jobs/{long}/facts");
    caller.get(&format!("/api/jobs/{long}"))?;
    let walls = timed(40, |at| {
        caller.post(&facts, &said(9_000_000 + at, "part.wall", &(8 + at % 20).to_string())).map(drop)
    })?;
    say(&format!("a number said of a job with {READINGS} readings"), &walls, "15");

    // Whoever watches the job: from when the word is sent until the watcher has it.
    let mut watching = serving.caller()?.watch(&format!("/api/jobs/{long}/stream"))?;
    let told = timed(40, |at| {
        caller.post(&facts, &said(9_500_000 + at, "part.owner", &format!("watched {at}")))?;
        watching.hears("event:changed")
    })?;
    say("until a page that watches is told", &told, "100");

    let jobs = ids(&caller.get("/api/rack?from=100&most=20")?);
    drop(caller);
    let (a_second, late) = load(&serving.address, &jobs, 10_000_000)?;
    println!(
        "{CLIENTS} clients on {CLIENTS} jobs: {a_second:.0} words a second, p95 {late:.0} ms (aim 300, 60)"
    );
    let (a_second, late) = load(&serving.address, &jobs[..1], 20_000_000)?;
    println!("{CLIENTS} clients on one job: {a_second:.0} words a second, p95 {late:.0} ms (aim 100)");
    println!("memory with {JOBS} jobs: {} MB (aim 150)", serving.memory_mb()?);
    let scrolling = binary.with_file_name("scrolling");
    run(&root(), &scrolling.to_string_lossy(), &[&format!("http://{}/", serving.address)])?;
    let panning = binary.with_file_name("panning");
    run(&root(), &panning.to_string_lossy(), &[&format!("http://{}/", serving.address)])?;
    serving.stop()
}
