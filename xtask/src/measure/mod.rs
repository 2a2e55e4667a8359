//! Sizes, start-up figures, and what five thousand jobs cost. Machines are noisy: read them as ratios.

mod many;
mod server;

use std::fs;
use std::time::Instant;

use crate::steps::{self, Done, root, run};
use server::Serving;

/// Aims: first load, and start to first answer.
const FIRST_LOAD_KB: f64 = 130.0;
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
    many::many(&binary)
}

/// What the rack needs to be drawn the first time: the page's own script and style, the rack's, and what
/// they ask for; packed as it is sent.
fn first_load() -> Done {
    let assets = root().join("web/dist/assets");
    let read = |name: &str| {
        let path = assets.join(name);
        fs::read_to_string(&path).map_err(|error| format!("{}: {error}", path.display()))
    };
    let page = fs::read_to_string(root().join("web/dist/index.html")).map_err(|error| error.to_string())?;
    let mut wanted: Vec<String> = named(&page);
    let rack = fs::read_dir(&assets).map_err(|error| error.to_string())?.flatten().find_map(|entry| {
        let name = entry.file_name().into_string().ok()?;
        (name.starts_with("RackPage") && name.ends_with(".js")).then_some(name)
    });
    wanted.push(rack.ok_or("the rack has no script of its own")?);
    let mut at = 1;
    // The page's script names every part of the application; the rack's names what it cannot do without.
    while at < wanted.len() {
        let more =
            if wanted[at].ends_with(".js") && at > 0 { imported(&read(&wanted[at])?) } else { Vec::new() };
        wanted.extend(more.into_iter().filter(|name| !wanted.contains(name)).collect::<Vec<_>>());
        at += 1;
    }
    wanted.sort();
    wanted.dedup();
    let mut total = 0.0;
    for name in &wanted {
        let size = fs::metadata(assets.join(format!("{name}.gz"))).map_err(|error| error.to_string())?.len();
        println!("  {name}: {:.1} KB packed", size as f64 / 1000.0);
        total += size as f64 / 1000.0;
    }
    println!("first load, script and style: {total:.1} KB (aim under {FIRST_LOAD_KB:.0})");
    Ok(())
}

/// Scripts and styles that the page names.
fn named(page: &str) -> Vec<String> {
    let parts = page.split('"').filter_map(|part| part.strip_prefix("/assets/"));
    parts.filter(|name| name.ends_with(".js") || name.ends_with(".css")).map(str::to_owned).collect()
}

/// Scripts that a script begins by asking for.
fn imported(script: &str) -> Vec<String> {
    let parts = script.split("from\"./").skip(1).filter_map(|rest| rest.split('"').next());
    parts.filter(|name| name.ends_with(".js")).map(str::to_owned).collect()
}

fn first_answer(demo: bool) -> Result<u128, String> {
    let data = std::env::temp_dir().join(format!("vanadin-measure-{}", std::process::id()));
    let _ = fs::remove_dir_all(&data);
    let started = Instant::now();
    let serving =
        Serving::start(&root().join("target/release/vanadin"), &data, if demo { &["--demo"] } else { &[] })?;
    serving.caller()?.get("/api/health")?;
    let took = started.elapsed().as_millis();
    drop(serving);
    let _ = fs::remove_dir_all(&data);
    Ok(took)
}
