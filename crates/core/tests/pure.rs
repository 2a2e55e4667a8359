//! The wall between the rules and everything else.

use std::process::Command;

#[test]
fn the_core_depends_on_no_server_database_runtime_or_clock() {
    let tree = Command::new(env!("CARGO"))
        .args(["tree", "--locked", "--offline", "-p", "vanadin-core", "-e", "normal", "--prefix", "none"])
        .output()
        .expect("cargo runs");
    assert!(tree.status.success(), "{}", String::from_utf8_lossy(&tree.stderr));
    let tree = String::from_utf8(tree.stdout).expect("names are text");
    assert!(tree.contains("vanadin-core") && tree.contains("serde"), "{tree}");
    for foreign in ["rocket", "sqlx", "tokio", "jiff", "chrono", "reqwest", "hyper", "libsqlite3-sys"] {
        assert!(!tree.lines().any(|line| line.starts_with(&format!("{foreign} v"))), "{foreign}:\n{tree}");
    }
}
