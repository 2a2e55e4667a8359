//! No module leans on one that leans on it: not in the server, not in the core.

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

/// Rooms by their path: a folder that hands out what lies in it is one room, otherwise each file is.
struct House {
    rooms: BTreeMap<String, String>,
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
            // A test may lean on anything.
            let text = text.split("#[cfg(test)]").next().unwrap_or_default().to_owned();
            if name != "lib" && name != "main" {
                texts.insert(name, text);
            }
        }
        let hands_out = |name: &str, text: &String| {
            text.lines().any(|line| line.starts_with("pub use "))
                && texts.keys().any(|other| other.starts_with(&format!("{name}/")))
        };
        let whole: Vec<String> =
            texts.iter().filter(|(name, text)| hands_out(name, text)).map(|(name, _)| name.clone()).collect();
        let mut rooms: BTreeMap<String, String> = BTreeMap::new();
        for (name, text) in &texts {
            let room = whole.iter().find(|room| name == *room || name.starts_with(&format!("{room}/")));
            rooms.entry(room.unwrap_or(name).clone()).or_default().push_str(text);
        }
        Self { rooms }
    }

    /// The room that a path leads to.
    fn room(&self, path: &str) -> Option<&String> {
        let parts: Vec<&str> = path.split("::").collect();
        let names = (1..=parts.len()).rev().map(|length| parts[..length].join("/"));
        names.filter_map(|name| self.rooms.get_key_value(&name)).map(|(name, _)| name).next()
    }

    fn leans_on(&self, room: &str) -> BTreeSet<&String> {
        let parent = room.rsplit_once('/').map_or("", |(parent, _)| parent).replace('/', "::");
        let text = self.rooms[room].replace("use super::", &format!("use crate::{parent}::"));
        text.split("crate::")
            .skip(1)
            .filter_map(|rest| {
                let end = rest.find(|c: char| !(c.is_ascii_lowercase() || c == '_' || c == ':'));
                self.room(rest[..end.unwrap_or(rest.len())].trim_matches(':'))
            })
            .filter(|other| *other != room && !room.starts_with(&format!("{other}/")))
            .collect()
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
#[case::the_server("src", "desk", "database")]
#[case::the_core("../core/src", "plan", "job")]
fn nothing_leans_on_what_leans_on_it(#[case] root: &str, #[case] upper: &str, #[case] lower: &str) {
    let house = House::read(&Path::new(env!("CARGO_MANIFEST_DIR")).join(root));
    let upper_room = house.room(upper).expect("the room is found").clone();
    assert!(
        house.leans_on(&upper_room).iter().any(|room| room.starts_with(lower)),
        "what leans is seen: {:?}",
        house.leans_on(&upper_room)
    );
    let circles: Vec<Vec<String>> = house.rooms.keys().filter_map(|room| house.way_back(room)).collect();
    assert!(circles.is_empty(), "{circles:#?}");
}
