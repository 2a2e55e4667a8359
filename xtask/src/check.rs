//! `cargo xtask test`, the whole check, and `cargo xtask quick`, what of it is run while one works.

use std::collections::BTreeMap;
use std::fs;
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use std::thread;
use std::time::{Instant, SystemTime};

use crate::passed::{PURE, Passed};
use crate::steps::{self, Done, newest, root, web};
use crate::times::Times;

/// Journeys that are walked in the browser by `quick`: one of each kind.
const SMOKE: &[&str] = &[
    "counted::on_a_laptop_in_a_hundred_and_twenty_keys_and_no_mouse",
    "counted::on_a_phone_in_twenty_taps",
    "journeys::a_killed_server_loses_nothing_it_acknowledged",
    "journeys::bad_input_is_told_at_its_field_and_kept",
    "kept::on_a_phone_by_address_over_plain_http_everything_can_be_said",
    "kept::what_was_not_taken_lies_in_the_tray_until_it_is_said_again_or_let_go",
    "map::a_crack_that_ran_on_opens_the_next_round_in_three_presses",
    "moving::a_mistyped_cold_reading_leaves_the_part_hot_until_it_is_said_again",
    "moving::an_enter_that_leads_to_a_question_answers_none",
    "offline::a_phone_goes_on_without_the_server_and_begins_a_job",
    "prep::a_depth_read_along_the_seam_says_when_to_stop",
    "torch::on_a_phone_a_cold_seam_is_read_at_arms_length",
];

/// Servers that are asked, and browsers that are driven, at the same time: what they wait for is mostly not this machine.
const AT_A_TIME: &str = "4";

#[derive(Clone, Copy, PartialEq)]
pub enum How {
    Whole,
    Quick,
}

/// Runs it, and what of it passed before as it is only if that is run `again`.
pub fn check(how: How, again: bool) -> Done {
    let began = Instant::now();
    let times = Times::default();
    let done = checked(how, again, &times);
    println!("\n{}\n{:>8.1} s  in all", times.told(), began.elapsed().as_secs_f64());
    done
}

fn checked(how: How, again: bool, times: &Times) -> Done {
    let mut binaries = BTreeMap::new();
    beside(
        // There is nothing to drive before all is built.
        || times.of("packages of Debian (beside all until it is built)", steps::debian),
        || {
            times.of("packages", steps::web_packages)?;
            // The pages before anything that carries them.
            times.of("pages", steps::web_pages)?;
            // Two hands: what reads, and what compiles.
            beside(
                || {
                    times.of("formats (beside the build)", formats)?;
                    times.of("web: types, linters, units (beside the build)", web_checks)
                },
                || {
                    times.of("build", || {
                        binaries = test_binaries(&build(how)?);
                        Ok(())
                    })
                },
            )
        },
    )?;
    let run = |package: &str, words: &[&str]| {
        let of_it = binaries.get(package).map_or(&[][..], Vec::as_slice);
        if of_it.is_empty() {
            return Err(format!("no tests of {package} were built"));
        }
        of_it.iter().try_for_each(|binary| {
            // Some of a binary are run each time.
            if words.contains(&"--exact") {
                run_tests(package, binary, words, times)
            } else {
                run_where_changed(package, binary, words, again, times)
            }
        })
    };
    beside(
        || times.of("types of the API (beside the core)", steps::stale_api),
        || times.of("core", || PURE.iter().try_for_each(|package| run(package, &[]))),
    )?;
    times.of("server", || run("server", &["--test-threads", AT_A_TIME]))?;
    times.of("xtask", || run("xtask", &[]))?;
    times.of("browser", || match how {
        How::Whole => run("e2e", &["--test-threads", AT_A_TIME]),
        How::Quick => {
            let before = times.heard();
            run("e2e", &[&["--test-threads", AT_A_TIME, "--exact"], SMOKE].concat())?;
            // A name that is no test's any more is no journey.
            let walked = times.heard() - before;
            if walked == SMOKE.len() { Ok(()) } else { Err(format!("{walked} journeys of {}", SMOKE.len())) }
        }
    })
}

/// Does two things at the same time; what fails is said of both.
fn beside(one: impl FnOnce() -> Done + Send, other: impl FnOnce() -> Done) -> Done {
    let (one, other) = thread::scope(|scope| {
        let one = scope.spawn(one);
        let other = other();
        (one.join().unwrap_or_else(|_| Err("a step of the check panicked".to_owned())), other)
    });
    match (one, other) {
        (Ok(()), Ok(())) => Ok(()),
        (Err(why), Ok(())) | (Ok(()), Err(why)) => Err(why),
        (Err(one), Err(other)) => Err(format!("{one}\n{other}")),
    }
}

fn npx(words: &[&str]) -> Done {
    steps::run(&web(), "npx", words)
}

fn formats() -> Done {
    steps::cargo(&["fmt", "--all", "--check"])?;
    npx(&["prettier", "--check", "--cache", "--log-level", "warn", "src", "lint"])
}

/// Types, linters and units of the pages. Nothing is done again where nothing of it changed since it passed.
fn web_checks() -> Done {
    let passed = web().join("node_modules/.vanadin-checked");
    let made_of = [
        "src",
        "lint",
        "eslint.config.js",
        "tsconfig.json",
        "knip.json",
        "package-lock.json",
        "vite.config.ts",
    ]
    .map(|part| newest(&web().join(part)));
    let since = fs::metadata(&passed).and_then(|it| it.modified()).unwrap_or(SystemTime::UNIX_EPOCH);
    if made_of.into_iter().flatten().all(|changed| changed < since) {
        return Ok(());
    }
    let begun = SystemTime::now();
    npx(&["tsc"])?;
    npx(&[
        "eslint",
        "--max-warnings",
        "0",
        "--cache",
        "--cache-location",
        "node_modules/.cache/eslint/",
        "src",
        "lint",
    ])?;
    npx(&["knip", "--include", "exports,types,files,duplicates", "--no-config-hints"])?;
    npx(&["vitest", "run", "--reporter=dot"])?;
    // What was changed while it was looked at is looked at again.
    let told = |error: std::io::Error| format!("{}: {error}", passed.display());
    fs::File::create(&passed).and_then(|file| file.set_modified(begun)).map_err(told)
}

/// What is linted is what is tested: nothing is compiled once for the lints and once more for the tests. The whole
/// check holds the benchmarks too. Gives what is said of each binary.
fn build(how: How) -> Result<String, String> {
    let targets: &[&str] = match how {
        How::Whole => &["--all-targets"],
        How::Quick => &["--lib", "--bins", "--tests"],
    };
    let told = "--message-format=json-render-diagnostics";
    steps::cargo_linted_says(&[&["build", "--locked", "--quiet", "--workspace", told], targets].concat())
}

/// The test binaries of each crate, by its folder, in what a build said.
fn test_binaries(said: &str) -> BTreeMap<String, Vec<PathBuf>> {
    let mut binaries: BTreeMap<String, Vec<PathBuf>> = BTreeMap::new();
    for line in said.lines().filter(|line| is_test(line)) {
        let (Some(binary), Some(manifest)) = (text(line, "executable"), text(line, "manifest_path")) else {
            continue;
        };
        binaries.entry(crate_of(Path::new(manifest))).or_default().push(PathBuf::from(binary));
    }
    binaries
}

/// The folder of the crate that a manifest is of: its tests may have one of their own in it.
fn crate_of(manifest: &Path) -> String {
    let folder = manifest.parent().unwrap_or(manifest);
    let apart = ["tests", "units"].iter().any(|it| folder.ends_with(it));
    let of = if apart { folder.parent().unwrap_or(folder) } else { folder };
    of.file_name().map_or_else(String::new, |name| name.to_string_lossy().into_owned())
}

/// Whether a line of the build is of something that was built to test: no program, and no benchmark.
fn is_test(line: &str) -> bool {
    let profile = line.split_once("\"profile\":{").and_then(|(_, rest)| rest.split('}').next());
    profile.is_some_and(|profile| profile.contains("\"test\":true")) && !line.contains("\"kind\":[\"bench\"]")
}

/// A text of a line of JSON that holds no other of this name, and no quote in it.
fn text<'a>(line: &'a str, name: &str) -> Option<&'a str> {
    let (_, rest) = line.split_once(&format!("\"{name}\":\""))?;
    rest.split('"').next()
}

/// Runs a test binary, all of it, where it did not pass as it is.
fn run_where_changed(package: &str, binary: &Path, words: &[&str], again: bool, times: &Times) -> Done {
    let passed = Passed::of(package, binary, SystemTime::now());
    if let Some(tests) = passed.before().filter(|_| !again) {
        println!("> {package}: {tests} tests passed as they are and are not run again (--again does)");
        times.spare(tests);
        return Ok(());
    }
    passed.forget()?;
    let before = times.heard();
    run_tests(package, binary, words, times)?;
    passed.remember(times.heard() - before)
}

/// Runs one test binary as cargo does, and hears how long each test takes.
fn run_tests(package: &str, binary: &Path, words: &[&str], times: &Times) -> Done {
    let folder = if package == "xtask" { root().join(package) } else { root().join("crates").join(package) };
    let shown = binary.file_name().map_or_else(String::new, |name| name.to_string_lossy().into_owned());
    println!("> {shown} {}", words.join(" "));
    let mut running = Command::new(binary)
        .args(words)
        // The times of tests are not stable yet, and nothing else of it is asked for.
        .args(["-Zunstable-options", "--report-time"])
        .env("RUSTC_BOOTSTRAP", "1")
        .env("CARGO_MANIFEST_DIR", &folder)
        .current_dir(&folder)
        .stdout(Stdio::piped())
        .spawn()
        .map_err(|error| format!("{shown} cannot be started: {error}"))?;
    if let Some(said) = running.stdout.take() {
        for line in BufReader::new(said).lines() {
            let line = line.map_err(|error| format!("{shown}: {error}"))?;
            times.hear(&line);
            // What went well is a line too many.
            if !(line.starts_with("test ") && line.contains(" ... ok")) {
                println!("{line}");
            }
        }
    }
    let status = running.wait().map_err(|error| format!("{shown}: {error}"))?;
    if status.success() { Ok(()) } else { Err(format!("{shown} failed ({status})")) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_done_beside_something_else_fails_with_it() {
        let fails = |why: &'static str| move || Err(why.to_owned());
        assert_eq!(beside(|| Ok(()), || Ok(())), Ok(()));
        assert_eq!(beside(fails("one"), || Ok(())), Err("one".to_owned()));
        assert_eq!(beside(|| Ok(()), fails("other")), Err("other".to_owned()));
        assert_eq!(beside(fails("one"), fails("other")), Err("one\nother".to_owned()));
    }

    #[test]
    fn a_line_of_the_build_tells_which_binary_it_made() {
        let line = r#"{"manifest_path":"/x/core/Cargo.toml","executable":"/x/target/it","fresh":true}"#;
        assert_eq!(text(line, "executable"), Some("/x/target/it"));
        assert_eq!(text(line, "filenames"), None);
    }

    #[test]
    fn tests_that_are_a_crate_of_their_own_are_those_of_what_they_test() {
        assert_eq!(crate_of(Path::new("/x/crates/core/tests/Cargo.toml")), "core");
        assert_eq!(crate_of(Path::new("/x/crates/core/units/Cargo.toml")), "core");
        assert_eq!(crate_of(Path::new("/x/crates/laws/units/Cargo.toml")), "laws");
        assert_eq!(crate_of(Path::new("/x/crates/server/Cargo.toml")), "server");
        assert_eq!(crate_of(Path::new("/x/xtask/Cargo.toml")), "xtask");
    }

    #[test]
    fn programs_and_benchmarks_are_no_tests() {
        let line = |kind: &str, test: bool| {
            format!(
                r#"{{"target":{{"kind":["{kind}"],"test":true}},"profile":{{"opt_level":"0","test":{test}}}}}"#
            )
        };
        assert!(is_test(&line("test", true)) && is_test(&line("lib", true)));
        assert!(!is_test(&line("bin", false)) && !is_test(&line("bench", true)));
        assert!(!is_test(r#"{"reason":"build-finished","success":true}"#));
    }
}
