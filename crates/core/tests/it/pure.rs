//! The wall between the rules and everything else, and what a build asks for.

use std::collections::{BTreeMap, BTreeSet};
use std::process::Command;

/// What `cargo tree` prints, one crate a line.
fn tree(words: &[&str]) -> String {
    let tree = Command::new(env!("CARGO"))
        .args(["tree", "--locked", "--offline", "--prefix", "none"])
        .args(words)
        .output()
        .expect("cargo runs");
    assert!(tree.status.success(), "{}", String::from_utf8_lossy(&tree.stderr));
    String::from_utf8(tree.stdout).expect("names are text")
}

#[test]
fn the_core_depends_on_no_server_database_runtime_or_clock() {
    let tree = tree(&["-p", "vanadin-core", "-e", "normal"]);
    assert!(tree.contains("vanadin-core") && tree.contains("serde"), "{tree}");
    for foreign in ["rocket", "sqlx", "tokio", "jiff", "chrono", "reqwest", "hyper", "libsqlite3-sys"] {
        assert!(!tree.lines().any(|line| line.starts_with(&format!("{foreign} v"))), "{foreign}:\n{tree}");
    }
}

/// Every crate with the sets of features it is compiled with.
fn features(edges: &str) -> BTreeMap<String, BTreeSet<String>> {
    let mut asked: BTreeMap<String, BTreeSet<String>> = BTreeMap::new();
    for line in tree(&["--workspace", "-e", edges, "-f", "{p}|{f}"]).lines() {
        let Some((package, features)) = line.trim_end_matches(" (*)").split_once('|') else { continue };
        asked.entry(package.to_owned()).or_default().insert(features.to_owned());
    }
    asked
}

/// Otherwise a test compiles half of what others wrote a second time.
#[test]
fn the_tests_ask_for_the_same_features_of_every_crate_as_a_build_does() {
    let (build, tests) = (features("normal,build"), features("normal,build,dev"));
    assert!(build.len() > 100, "{} crates", build.len());
    let twice: Vec<&String> =
        build.iter().filter(|(name, asked)| tests.get(*name) != Some(asked)).map(|(name, _)| name).collect();
    assert!(twice.is_empty(), "compiled twice: {twice:?}");
}
