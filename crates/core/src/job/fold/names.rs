//! What is called by a letter or a number.

use std::collections::HashMap;

use uuid::Uuid;

use super::super::{Change, Fact};

/// What each thing on the map is called: a name that is given once, also when the thing is taken back.
/// Cracks have letters, faces and marks numbers, each kind its own.
pub(in crate::job) fn names(facts: &[Fact]) -> HashMap<Uuid, String> {
    let mut named = HashMap::new();
    let (mut cracks, mut faces) = (0, 0);
    let mut marks: HashMap<&str, usize> = HashMap::new();
    for fact in facts {
        let name = match &fact.change {
            Change::AddCrack => {
                cracks += 1;
                letter(cracks - 1)
            }
            Change::AddFace => {
                faces += 1;
                format!("face {faces}")
            }
            Change::AddMark { what } => {
                let number = marks.entry(what.label()).or_default();
                *number += 1;
                format!("{} {number}", what.label())
            }
            _ => continue,
        };
        named.insert(fact.id, name);
    }
    named
}

/// A to Z, then AA, AB, ...
fn letter(index: usize) -> String {
    let last = char::from(b'A' + (index % 26) as u8);
    match index / 26 {
        0 => last.to_string(),
        before => format!("{}{last}", letter(before - 1)),
    }
}
