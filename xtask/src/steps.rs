//! The steps of building, checking and running. Each does nothing when there is nothing to do.

use std::fs;
use std::net::TcpListener;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};
use std::time::SystemTime;

pub type Done = Result<(), String>;

pub fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).parent().expect("xtask lies in the workspace").to_owned()
}

pub fn web() -> PathBuf {
    root().join("web")
}

/// Runs a command in a folder; a failure names the command.
pub fn run(folder: &Path, program: &str, words: &[&str]) -> Done {
    run_with(folder, program, words, &[])
}

pub fn run_with(folder: &Path, program: &str, words: &[&str], environment: &[(&str, &str)]) -> Done {
    let shown = format!("{program} {}", words.join(" "));
    println!("> {shown}");
    let status = Command::new(program)
        .args(words)
        .current_dir(folder)
        .envs(environment.iter().copied())
        .status()
        .map_err(|error| format!("{shown} cannot be started: {error}"))?;
    if status.success() { Ok(()) } else { Err(format!("{shown} failed ({status})")) }
}

pub fn cargo(words: &[&str]) -> Done {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    run(&root(), &cargo, words)
}

/// Clippy in the compiler's place, for our own crates: what it lints is what is tested, so that nothing is
/// compiled once for the lints and once more for the tests. Any warning fails.
const LINTED: &[(&str, &str)] = &[
    ("RUSTC_WORKSPACE_WRAPPER", "clippy-driver"),
    ("CLIPPY_ARGS", "--deny__CLIPPY_HACKERY__warnings__CLIPPY_HACKERY__"),
];

pub fn cargo_linted(words: &[&str]) -> Done {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    run_with(&root(), &cargo, words, LINTED)
}

/// The same, and what it says.
pub fn cargo_linted_says(words: &[&str]) -> Result<String, String> {
    let cargo = std::env::var("CARGO").unwrap_or_else(|_| "cargo".to_owned());
    let mut command = Command::new(cargo);
    command.args(words).current_dir(root()).envs(LINTED.iter().copied()).stderr(Stdio::inherit());
    let shown = words.join(" ");
    println!("> cargo {shown}");
    let said = command.output().map_err(|error| format!("cargo {shown} cannot be started: {error}"))?;
    if !said.status.success() {
        return Err(format!("cargo {shown} failed ({})", said.status));
    }
    String::from_utf8(said.stdout).map_err(|error| error.to_string())
}

pub fn demo() -> Done {
    web_packages()?;
    web_pages()?;
    build_all()?;
    let data = std::env::temp_dir().join(format!("vanadin-demo-{}", std::process::id()));
    // The usual port, or any free one when somebody has it.
    let port = if TcpListener::bind(("127.0.0.1", 8420)).is_ok() { "8420" } else { "0" };
    println!("The demo's data lie in {} and are thrown away.", data.display());
    let binary = root().join("target/debug/vanadin");
    let served = run(
        &root(),
        &binary.to_string_lossy(),
        &["serve", "--demo", "--port", port, "--data", &data.to_string_lossy()],
    );
    let _ = fs::remove_dir_all(&data);
    served
}

pub fn screenshots() -> Done {
    debian()?;
    web_packages()?;
    web_pages()?;
    build_as_tested()?;
    run(&root(), &root().join("target/debug/screenshots").to_string_lossy(), &[])
}

const SHELL: &str = "chromium-headless-shell";

/// What the tests need of Debian, and where it then lies: the browser, itself without its windows, its driver, and a
/// reader of drawings that is not ours.
pub const OF_DEBIAN: [(&str, &str); 4] = [
    ("chromium", "/usr/bin/chromium"),
    (SHELL, "/usr/bin/chromium-headless-shell"),
    ("chromium-driver", "/usr/bin/chromedriver"),
    ("python3-ezdxf", "/usr/lib/python3/dist-packages/ezdxf"),
];

/// All of that, where something of it is not here: the browser's packages have to be of one version.
pub fn debian() -> Done {
    if OF_DEBIAN.iter().all(|(_, lies)| Path::new(lies).exists()) {
        return Ok(());
    }
    let packages = OF_DEBIAN.map(|(package, _)| package);
    let install = [["install", "--yes", "--no-install-recommends"].as_slice(), &packages].concat();
    let installed = run(&root(), "apt-get", &["update"]).and_then(|()| run(&root(), "apt-get", &install));
    // The browser without its windows is the quicker one; the whole one does the same.
    let enough = || OF_DEBIAN.iter().filter(|it| it.0 != SHELL).all(|(_, lies)| Path::new(lies).exists());
    match installed {
        Err(why) if enough() => {
            println!("{SHELL} is not installed ({why}): the whole browser is taken.");
            Ok(())
        }
        Err(why) => Err(format!("{why}\nAs root: apt-get update && apt-get {}", install.join(" "))),
        Ok(()) => Ok(()),
    }
}

/// `npm ci`, when the lock has changed since the last one.
pub fn web_packages() -> Done {
    let (lock, installed) = (web().join("package-lock.json"), web().join("node_modules/.vanadin-lock"));
    let wanted = fs::read(&lock).map_err(|error| format!("{}: {error}", lock.display()))?;
    if fs::read(&installed).is_ok_and(|present| present == wanted) {
        return Ok(());
    }
    run(&web(), "npm", &["ci"])?;
    fs::write(&installed, wanted).map_err(|error| format!("{}: {error}", installed.display()))
}

/// The front end, when anything it is made of is newer than it.
pub fn web_pages() -> Done {
    let built = newest(&web().join("dist"));
    let made_of = ["src", "public", "index.html", "vite.config.ts", "package-lock.json"]
        .map(|part| newest(&web().join(part)));
    if built.is_some_and(|built| made_of.into_iter().flatten().all(|source| source <= built)) {
        return Ok(());
    }
    run(&web(), "npx", &["vite", "build", "--logLevel", "warn"])
}

pub fn newest(path: &Path) -> Option<SystemTime> {
    if path.is_dir() {
        let entries = fs::read_dir(path).ok()?;
        return entries.flatten().filter_map(|entry| newest(&entry.path())).max();
    }
    fs::metadata(path).and_then(|meta| meta.modified()).ok()
}

/// Everything but the tests. A build and the tests ask for the same features of every crate: a test of the
/// core holds it.
pub fn build_all() -> Done {
    cargo(&["build", "--locked", "--quiet", "--workspace"])
}

/// The same as the check builds it: nothing is compiled once more for whoever runs that too.
pub fn build_as_tested() -> Done {
    cargo_linted(&["build", "--locked", "--quiet", "--workspace"])
}

fn openapi() -> Result<String, String> {
    let binary = root().join("target/debug/vanadin");
    let answer = Command::new(&binary)
        .arg("openapi")
        .output()
        .map_err(|error| format!("{}: {error}", binary.display()))?;
    String::from_utf8(answer.stdout).map_err(|error| error.to_string())
}

fn generate_types(document: &Path, types: &Path) -> Done {
    run(&web(), "npx", &["openapi-typescript", &document.to_string_lossy(), "-o", &types.to_string_lossy()])
}

/// The document and the types made from it, written into the front end.
pub fn write_api() -> Done {
    let folder = web().join("src/api/generated");
    let document = folder.join("openapi.json");
    fs::write(&document, openapi()?).map_err(|error| error.to_string())?;
    generate_types(&document, &folder.join("schema.ts"))
}

/// Fails when the committed types are not those of this server.
pub fn stale_api() -> Done {
    let folder = web().join("src/api/generated");
    let read = |path: &Path| fs::read_to_string(path).map_err(|error| format!("{}: {error}", path.display()));
    let fresh = root().join("target/xtask");
    fs::create_dir_all(&fresh).map_err(|error| error.to_string())?;
    let (document, types) = (fresh.join("openapi.json"), fresh.join("schema.ts"));
    fs::write(&document, openapi()?).map_err(|error| error.to_string())?;
    generate_types(&document, &types)?;
    for (fresh, name) in [(document, "openapi.json"), (types, "schema.ts")] {
        if read(&fresh)? != read(&folder.join(name))? {
            return Err(format!("web/src/api/generated/{name} is stale. Run: cargo xtask api"));
        }
    }
    Ok(())
}
