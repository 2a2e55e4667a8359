//! No module leans on one that leans on it, in the server as in the core; and what a room may not ask for.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::{Path, PathBuf};

use rstest::rstest;

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|kind| kind == "rs") {
            found.push(path);
        }
    }
}

/// Folders in which each file and each folder is a room of its own, whatever the folder hands out: the stations.
const BY_THEIR_FILES: &[&str] = &["stage"];

/// Rooms by their path: a folder that hands out what lies in it is one room, otherwise each file is.
struct House {
    /// Of each room its modules with what stands in them.
    rooms: BTreeMap<String, Vec<(String, String)>>,
    /// What a folder hands out of its rooms: module and name, and the module it comes from.
    handed_out: BTreeMap<(String, String), String>,
}

/// The paths that a text names from here: `a::{b, c::d}` as `a::b` and `a::c::d`. Gives what stands behind them.
fn named<'t>(text: &'t str, so_far: &str, found: &mut BTreeSet<String>) -> &'t str {
    let text = text.trim_start();
    if let Some(mut rest) = text.strip_prefix('{') {
        while !rest.trim_start().is_empty() && !rest.trim_start().starts_with('}') {
            let behind = named(rest, so_far, found).trim_start();
            // What is no path: an end is found all the same.
            rest = behind.strip_prefix(',').unwrap_or(if behind.len() < rest.len() { behind } else { "" });
        }
        return rest.trim_start().strip_prefix('}').unwrap_or_default();
    }
    let end = text.find(|c: char| !(c.is_alphanumeric() || c == '_')).unwrap_or(text.len());
    let path = if so_far.is_empty() { text[..end].to_owned() } else { format!("{so_far}::{}", &text[..end]) };
    if let Some(rest) = text[end..].strip_prefix("::") {
        return named(rest, &path, found);
    }
    found.insert(path);
    let rest = text[end..].trim_start();
    match rest.strip_prefix("as ") {
        Some(name) => name.trim_start().trim_start_matches(|c: char| c.is_alphanumeric() || c == '_'),
        None => rest,
    }
}

impl House {
    fn read(root: &Path) -> Self {
        let mut files = Vec::new();
        sources(root, &mut files);
        let mut texts = BTreeMap::new();
        for file in files {
            let name = file.strip_prefix(root).unwrap().with_extension("").display().to_string();
            let name = name.strip_suffix("/mod").unwrap_or(&name).to_owned();
            let text = fs::read_to_string(&file).unwrap();
            // A test may lean on anything, and words lean on nothing.
            let text = text.split("#[cfg(test)]").next().unwrap_or_default();
            let text: Vec<&str> = text.lines().filter(|line| !line.trim_start().starts_with("//")).collect();
            if name != "lib" && name != "main" {
                texts.insert(name, text.join("\n"));
            }
        }
        let hands_out = |name: &str, text: &String| {
            text.lines().any(|line| line.starts_with("pub use "))
                && texts.keys().any(|other| other.starts_with(&format!("{name}/")))
        };
        let whole: Vec<String> = texts
            .iter()
            .filter(|(name, text)| hands_out(name, text) && !BY_THEIR_FILES.contains(&name.as_str()))
            .map(|(name, _)| name.clone())
            .collect();
        let mut house = Self { rooms: BTreeMap::new(), handed_out: BTreeMap::new() };
        for name in BY_THEIR_FILES.iter().filter(|name| texts.contains_key(**name)) {
            for line in texts[*name].split("use ").skip(1) {
                let mut found = BTreeSet::new();
                named(line, "", &mut found);
                for path in found {
                    if let Some((module, what)) = path.split_once("::") {
                        let from = format!("{name}/{module}");
                        house.handed_out.insert(((*name).to_owned(), what.to_owned()), from);
                    }
                }
            }
        }
        for (name, text) in texts {
            let room = whole.iter().find(|room| name == **room || name.starts_with(&format!("{room}/")));
            house.rooms.entry(room.unwrap_or(&name).clone()).or_default().push((name.clone(), text));
        }
        house
    }

    /// The room that a path leads to.
    fn room(&self, path: &str) -> Option<&String> {
        let parts: Vec<&str> = path.split("::").collect();
        let names = (1..=parts.len()).rev().map(|length| (parts[..length].join("/"), parts.get(length)));
        names
            .filter_map(|(name, next)| {
                let handed = next.and_then(|next| self.handed_out.get(&(name.clone(), (*next).to_owned())));
                self.rooms.get_key_value(handed.unwrap_or(&name))
            })
            .map(|(name, _)| name)
            .next()
    }

    fn leans_on(&self, room: &str) -> BTreeSet<&String> {
        let mut leant_on = BTreeSet::new();
        for (module, text) in &self.rooms[room] {
            let above = module.rsplit_once('/').map_or("", |(above, _)| above).replace('/', "::");
            let mut found = BTreeSet::new();
            for rest in text.split("crate::").skip(1) {
                named(rest, "", &mut found);
            }
            for rest in text.split("super::").skip(1).filter(|rest| !rest.starts_with("super::")) {
                named(rest, &above, &mut found);
            }
            leant_on.extend(found.iter().filter_map(|path| self.room(path)));
        }
        leant_on.retain(|other| *other != room && !room.starts_with(&format!("{other}/")));
        leant_on
    }

    /// A way from a room back to itself; nothing where there is none.
    fn way_back(&self, from: &str) -> Option<Vec<String>> {
        let mut ways = vec![vec![from.to_owned()]];
        let mut seen = BTreeSet::new();
        while let Some(way) = ways.pop() {
            for next in self.leans_on(&way[way.len() - 1]) {
                if next == from {
                    return Some(way);
                }
                if seen.insert(next.clone()) {
                    ways.push([&way[..], std::slice::from_ref(next)].concat());
                }
            }
        }
        None
    }
}

#[rstest]
#[case::the_server("src", "job_service", "database")]
#[case::the_core("../core/src", "plan", "job")]
#[case::the_laws("../laws/src", "heat", "sim")]
fn nothing_leans_on_what_leans_on_it(#[case] root: &str, #[case] upper: &str, #[case] lower: &str) {
    let house = House::read(&Path::new(env!("CARGO_MANIFEST_DIR")).join(root));
    let upper_room = house.room(upper).expect("the room is found").clone();
    assert!(
        house.leans_on(&upper_room).iter().any(|room| room.starts_with(lower)),
        "what leans is seen: {:?}",
        house.leans_on(&upper_room)
    );
    if root == "../core/src" {
        let heat = house.room("stage::HeatPlan").expect("what the stations hand out is traced");
        assert_eq!(heat, "stage/heat");
        assert!(house.leans_on("stage/torch").contains(heat), "{:?}", house.leans_on("stage/torch"));
    }
    let circles: Vec<Vec<String>> = house.rooms.keys().filter_map(|room| house.way_back(room)).collect();
    assert!(circles.is_empty(), "{circles:#?}");
}

/// What these give differs in its last digit from machine to machine, and with it which of two triangles is made.
const OF_THE_MACHINE: &[&str] = &[
    "acos", "asin", "atan", "atan2", "cbrt", "cos", "cosh", "exp", "exp_m1", "hypot", "ln", "ln_1p", "log10",
    "powf", "sin", "sin_cos", "sinh", "tan", "tanh",
];

#[test]
fn a_drawn_face_is_reckoned_alike_on_every_machine() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let laws = crates.join("laws/src");
    let mut files = vec![laws.join("map/plane.rs"), laws.join("map/face.rs"), laws.join("iron/kind.rs")];
    for room in [laws.join("body"), crates.join("core/src/plan/on_the_face")] {
        sources(&room, &mut files);
    }
    // What only tests walk, and what rounds a load that is told.
    let not_asked = |path: &Path| ["body/laws.rs", "on_the_face/load.rs"].iter().any(|of| path.ends_with(of));
    let mut found = Vec::new();
    for path in files.iter().filter(|path| !not_asked(path)) {
        let text = fs::read_to_string(path).unwrap();
        let code = text.split("#[cfg(test)]").next().unwrap_or_default();
        found.extend(
            OF_THE_MACHINE
                .iter()
                .filter(|function| code.contains(&format!(".{function}(")))
                .map(|function| format!("{} {function}", path.display())),
        );
    }
    assert!(files.len() > 25, "the rooms are found: {}", files.len());
    assert!(found.is_empty(), "{found:#?}");
}
