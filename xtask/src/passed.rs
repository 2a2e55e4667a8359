//! Tests that passed as they are, and need not be run again.
//!
//! Only those of [`PURE`] crates are spared: what has no clock, no disk and no net says the same of the same code. A
//! server, a browser and whatever waits is tried each time.

use std::fs;
use std::path::{Path, PathBuf};
use std::time::SystemTime;

use crate::steps::{Done, newest, root};

/// Crates, by their folder, whose tests read nothing but their own folders and the manifests.
pub const PURE: &[&str] = &["laws", "core"];

/// What a test binary of theirs told when it last passed.
pub struct Passed {
    note: PathBuf,
    /// What it is made of, and reads.
    read: Vec<PathBuf>,
    begun: SystemTime,
}

impl Passed {
    /// Of a binary of this crate; beside what is built: it goes with it.
    pub fn of(package: &str, binary: &Path) -> Self {
        let note = root().join("target/xtask/passed").join(binary.file_name().unwrap_or_default());
        let read = [binary.to_owned()].into_iter().chain(read_by_tests(&root(), package)).collect();
        Self { note, read, begun: SystemTime::now() }
    }

    /// The tests that passed when nothing was other than it is now; none where they have to be run.
    pub fn before(&self) -> Option<usize> {
        let since = fs::metadata(&self.note).and_then(|it| it.modified()).ok()?;
        let same = self.read.iter().filter_map(|it| newest(it)).all(|changed| changed < since);
        if same { fs::read_to_string(&self.note).ok()?.trim().parse().ok() } else { None }
    }

    /// So many passed. What was changed while they ran is run again.
    pub fn remember(&self, tests: usize) -> Done {
        let told = |error: std::io::Error| format!("{}: {error}", self.note.display());
        fs::create_dir_all(self.note.parent().unwrap_or(&self.note)).map_err(told)?;
        fs::write(&self.note, tests.to_string()).map_err(told)?;
        fs::File::options()
            .write(true)
            .open(&self.note)
            .and_then(|it| it.set_modified(self.begun))
            .map_err(told)
    }

    pub fn forget(&self) -> Done {
        match fs::remove_file(&self.note) {
            Err(error) if error.kind() != std::io::ErrorKind::NotFound => {
                Err(format!("{}: {error}", self.note.display()))
            }
            _ => Ok(()),
        }
    }
}

/// What the tests of a pure crate read when they run: cases that failed once, and, of the whole workspace, which crate
/// asks for which.
fn read_by_tests(root: &Path, package: &str) -> Vec<PathBuf> {
    let crates = root.join("crates");
    let manifests = fs::read_dir(&crates).into_iter().flatten().flatten().flat_map(|it| {
        ["Cargo.toml", "tests/Cargo.toml", "units/Cargo.toml"].map(|manifest| it.path().join(manifest))
    });
    let of_all = ["Cargo.toml", "Cargo.lock", ".cargo", "xtask/Cargo.toml"];
    manifests.chain(of_all.map(|it| root.join(it))).chain([crates.join(package)]).collect()
}

#[cfg(test)]
mod tests {
    use std::time::Duration;

    use super::*;

    /// A note of its own of a binary that was built this long before.
    fn built(before: Duration) -> (PathBuf, Passed) {
        let id = format!("{}-{:?}", std::process::id(), std::thread::current().id());
        let binary = std::env::temp_dir().join(format!("vanadin-built-{id}"));
        fs::write(&binary, "as it was").unwrap();
        let begun = SystemTime::now();
        touch(&binary, begun - before);
        (binary.clone(), Passed { note: binary.with_extension("passed"), read: vec![binary], begun })
    }

    fn touch(path: &Path, at: SystemTime) {
        fs::File::options().write(true).open(path).unwrap().set_modified(at).unwrap();
    }

    #[test]
    fn what_passed_and_was_not_built_anew_is_spared_and_all_else_is_run() {
        let hour = Duration::from_secs(3600);
        let (binary, passed) = built(hour);
        assert_eq!(passed.before(), None, "it never passed");
        passed.remember(412).unwrap();
        assert_eq!(passed.before(), Some(412));
        touch(&binary, passed.begun);
        assert_eq!(passed.before(), None, "built while it ran");
        touch(&binary, passed.begun - hour);
        assert_eq!(passed.before(), Some(412));
        passed.forget().unwrap();
        passed.forget().unwrap();
        assert_eq!(passed.before(), None);
        fs::remove_file(binary).unwrap();
    }

    #[test]
    fn what_is_read_of_the_tree_is_there() {
        let read = read_by_tests(&root(), "core");
        for part in ["Cargo.lock", "crates/core", "crates/server/Cargo.toml", "xtask/Cargo.toml", ".cargo"] {
            let path = root().join(part);
            assert!(read.contains(&path) && path.exists(), "{part}");
        }
        let other = root().join("crates/laws");
        assert!(!read.contains(&other), "what of it is compiled in is built anew");
    }

    /// Every file of Rust below a folder.
    fn sources(folder: &Path) -> Vec<PathBuf> {
        let entries = fs::read_dir(folder).unwrap().map(|it| it.unwrap().path());
        entries
            .flat_map(|it| if it.is_dir() { sources(&it) } else { vec![it] })
            .filter(|it| it.extension().is_some_and(|it| it == "rs"))
            .collect()
    }

    /// Otherwise something could change that nobody compares. The one that asks cargo reads manifests.
    #[test]
    fn no_test_of_theirs_reads_a_file_a_variable_or_a_program_when_it_runs() {
        let asks_cargo = root().join("crates/core/tests/it/pure.rs");
        let mut read = 0;
        for path in PURE.iter().flat_map(|it| sources(&root().join("crates").join(it))) {
            let text = fs::read_to_string(&path).unwrap();
            let foreign =
                ["std::fs", "fs::read", "File::open", "env::var", "Command::new", "std::net", "SystemTime"];
            let found: Vec<_> = foreign.into_iter().filter(|it| text.contains(it)).collect();
            let may: &[&str] = if path == asks_cargo { &["Command::new"] } else { &[] };
            assert_eq!(found, may, "{}", path.display());
            read += 1;
        }
        assert!(read > 100, "{read} files");
    }
}
