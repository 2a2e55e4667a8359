//! Tests that passed as they are, and need not be run again.
//!
//! Those of [`PURE`] crates are spared for as long as nothing they read is other: what has no clock, no disk and no net
//! says the same of the same code. What asks a server, a disk or a browser is spared for the day, and only where nothing
//! at all is other: no file of the tree, no program, no browser, no zone.

use std::collections::hash_map::DefaultHasher;
use std::fs;
use std::hash::{Hash, Hasher};
use std::path::{Path, PathBuf};
use std::time::{SystemTime, UNIX_EPOCH};

use crate::steps::{Done, OF_DEBIAN, root};

/// Crates, by their folder, whose tests read nothing but their own folders and the manifests.
pub const PURE: &[&str] = &["laws", "core"];

const DAY: u64 = 24 * 60 * 60;

/// What a test binary of theirs told when it last passed.
pub struct Passed {
    note: PathBuf,
    /// What it is made of, and reads.
    read: Vec<PathBuf>,
    /// A day, and the zone it was tried in, where either may make a difference.
    at: String,
    /// What all that was like before it ran.
    like: String,
}

impl Passed {
    /// Of a binary of this crate, now; beside what is built: it goes with it.
    pub fn of(package: &str, binary: &Path, now: SystemTime) -> Self {
        let note = root().join("target/xtask/passed").join(binary.file_name().unwrap_or_default());
        let made_of = [binary.to_owned()];
        if PURE.contains(&package) {
            return Self::like(
                note,
                made_of.into_iter().chain(read_by_pure(&root(), package)),
                String::new(),
            );
        }
        Self::like(note, made_of.into_iter().chain(read_by_all(&root())), day_and_zone(now))
    }

    fn like(note: PathBuf, read: impl IntoIterator<Item = PathBuf>, at: String) -> Self {
        let read: Vec<PathBuf> = read.into_iter().collect();
        let like = likeness(&read);
        Self { note, read, at, like }
    }

    fn mark(&self) -> String {
        format!("{} {}", self.like, self.at)
    }

    /// The tests that passed when nothing was other than it is now; none where they have to be run.
    pub fn before(&self) -> Option<usize> {
        let told = fs::read_to_string(&self.note).ok()?;
        let (tests, mark) = told.trim_end_matches('\n').split_once(' ')?;
        if mark == self.mark() { tests.parse().ok() } else { None }
    }

    /// So many passed. What was changed while they ran is run again.
    pub fn remember(&self, tests: usize) -> Done {
        if likeness(&self.read) != self.like {
            return Ok(());
        }
        let told = |error: std::io::Error| format!("{}: {error}", self.note.display());
        fs::create_dir_all(self.note.parent().unwrap_or(&self.note)).map_err(told)?;
        fs::write(&self.note, format!("{tests} {}\n", self.mark())).map_err(told)
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

/// The day in UTC, and the zone of whoever runs it.
fn day_and_zone(now: SystemTime) -> String {
    let day = now.duration_since(UNIX_EPOCH).map_or(0, |it| it.as_secs() / DAY);
    let zone = |it: Result<String, std::env::VarError>| it.unwrap_or_default();
    let linked = fs::read_link("/etc/localtime").unwrap_or_default();
    format!("{day} {:?} {}", zone(std::env::var("TZ")), linked.display())
}

/// Of these files, and of all in these folders: names, lengths, and when each was written.
fn likeness(of: &[PathBuf]) -> String {
    let mut hasher = DefaultHasher::new();
    of.iter().for_each(|it| add(it, &mut hasher));
    format!("{:016x}", hasher.finish())
}

/// Made, and never read by a test as it lies there but for the programs, which are named.
const MADE: [&str; 4] = ["target", "node_modules", ".git", "dist"];

fn add(path: &Path, hasher: &mut DefaultHasher) {
    path.hash(hasher);
    let Ok(meta) = fs::metadata(path) else { return };
    if meta.is_dir() {
        let mut inside: Vec<PathBuf> =
            fs::read_dir(path).into_iter().flatten().flatten().map(|it| it.path()).collect();
        inside.retain(|it| it.file_name().is_none_or(|name| MADE.iter().all(|made| name != *made)));
        inside.sort();
        inside.iter().for_each(|it| add(it, hasher));
    } else {
        (meta.len(), meta.modified().ok()).hash(hasher);
    }
}

/// What a test that asks servers and browsers may read or start.
fn read_by_all(root: &Path) -> Vec<PathBuf> {
    let built = root.join("target/debug");
    let programs = fs::read_dir(&built).into_iter().flatten().flatten().map(|it| it.path());
    let mut programs: Vec<PathBuf> = programs.filter(|it| it.is_file() && it.extension().is_none()).collect();
    programs.sort();
    let of_debian = OF_DEBIAN.iter().map(|(_, lies)| PathBuf::from(lies));
    // The command that is started is a script: the browser lies elsewhere.
    let of_browser = ["chromium", "chromium-headless-shell", "chromedriver"];
    let browser = of_browser.map(|it| Path::new("/usr/lib/chromium").join(it));
    programs.into_iter().chain(of_debian).chain(browser).chain([root.to_owned()]).collect()
}

/// What the tests of a pure crate read when they run: cases that failed once, and, of the whole workspace, which crate
/// asks for which.
fn read_by_pure(root: &Path, package: &str) -> Vec<PathBuf> {
    let crates = root.join("crates");
    let manifests = fs::read_dir(&crates).into_iter().flatten().flatten().flat_map(|it| {
        ["Cargo.toml", "tests/Cargo.toml", "units/Cargo.toml"].map(|manifest| it.path().join(manifest))
    });
    let of_all = ["Cargo.toml", "Cargo.lock", ".cargo", "xtask/Cargo.toml"];
    manifests.chain(of_all.map(|it| root.join(it))).chain([crates.join(package)]).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A folder of its own with a binary, and a test file that is read.
    fn tree() -> (PathBuf, [PathBuf; 2]) {
        let id = format!("{}-{:?}", std::process::id(), std::thread::current().id());
        let folder = std::env::temp_dir().join(format!("vanadin-passed-{id}"));
        fs::create_dir_all(folder.join("read")).unwrap();
        let read = [folder.join("binary"), folder.join("read")];
        fs::write(&read[0], "as it was").unwrap();
        fs::write(read[1].join("a"), "as it was").unwrap();
        (folder, read)
    }

    fn passed(folder: &Path, read: &[PathBuf], at: &str) -> Passed {
        Passed::like(folder.join("note"), read.to_vec(), at.to_owned())
    }

    #[test]
    fn what_passed_and_is_as_it_was_is_spared_and_all_else_is_run() {
        let (folder, read) = tree();
        let now = || passed(&folder, &read, "20789 UTC");
        assert_eq!(now().before(), None, "it never passed");
        now().remember(412).unwrap();
        assert_eq!(now().before(), Some(412));
        assert_eq!(passed(&folder, &read, "20790 UTC").before(), None, "another day");
        assert_eq!(passed(&folder, &read, "20789 Asia/Kathmandu").before(), None, "another zone");
        fs::write(read[1].join("b"), "new").unwrap();
        assert_eq!(now().before(), None, "one file more");
        fs::remove_file(read[1].join("b")).unwrap();
        assert_eq!(now().before(), Some(412), "as it was");
        fs::write(read[1].join("a"), "as it never was").unwrap();
        assert_eq!(now().before(), None, "another length");
        now().remember(413).unwrap();
        assert_eq!(now().before(), Some(413));
        // Older than what passed, and other all the same: a package is as old as it was made.
        let old = UNIX_EPOCH + std::time::Duration::from_secs(DAY);
        fs::File::options().write(true).open(&read[0]).unwrap().set_modified(old).unwrap();
        assert_eq!(now().before(), None, "another binary");
        now().remember(414).unwrap();
        now().forget().unwrap();
        now().forget().unwrap();
        assert_eq!(now().before(), None);
        fs::remove_dir_all(folder).unwrap();
    }

    #[test]
    fn what_was_changed_while_it_ran_is_run_again() {
        let (folder, read) = tree();
        let running = passed(&folder, &read, "");
        fs::write(read[1].join("a"), "changed in the editor").unwrap();
        running.remember(412).unwrap();
        assert_eq!(passed(&folder, &read, "").before(), None);
        fs::remove_dir_all(folder).unwrap();
    }

    #[test]
    fn a_day_is_over_at_midnight_in_utc() {
        let at = |seconds| day_and_zone(UNIX_EPOCH + std::time::Duration::from_secs(seconds));
        assert_eq!(at(DAY), at(2 * DAY - 1));
        assert_ne!(at(2 * DAY - 1), at(2 * DAY));
    }

    #[test]
    fn all_that_lies_in_the_tree_is_compared_where_servers_and_browsers_are_asked() {
        let read = read_by_all(&root());
        assert!(read.contains(&root()) && read.contains(&root().join("target/debug/vanadin")));
        for made in MADE {
            assert!(
                made == ".git" || fs::read_to_string(root().join(".gitignore")).unwrap().contains(made),
                "{made}"
            );
        }
    }

    #[test]
    fn what_is_read_of_the_tree_is_there() {
        let read = read_by_pure(&root(), "core");
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
