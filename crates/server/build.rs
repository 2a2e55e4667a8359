//! A release carries the pages in itself: without them there is none. A development build reads them from
//! their folder when it is asked for them.

use std::path::Path;

fn main() {
    println!("cargo::rerun-if-changed=../../web/dist");
    let release = std::env::var("PROFILE").is_ok_and(|profile| profile == "release");
    if release && !Path::new("../../web/dist/index.html").exists() {
        println!(
            "cargo::error=the pages are not built yet: run cargo xtask pages first, or cargo xtask measure"
        );
    }
}
