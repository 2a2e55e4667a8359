//! A copy of a job for another piece.

use uuid::Uuid;

use super::bounds::COPIED_NAME_MOST;
use super::{Change, Fact, Parsed};
use crate::base::log::{Taking, Word, undone};
use crate::field::{self, Lasts, job_field};

/// What a copy of a job starts with: the part, the iron and the map, none of the heat.
///
/// `new_id` makes the ids of the copy's facts.
#[must_use]
pub fn duplicate(facts: &[Fact], mut new_id: impl FnMut() -> Uuid, now_ms: i64) -> Vec<Fact> {
    let undone = undone(facts);
    let mut renamed: Vec<(String, String)> = Vec::new();
    let mut copied = Vec::new();
    for fact in facts {
        // The copy of a practice is one.
        let practice = matches!(fact.change, Change::Practise { .. });
        if undone.contains(&fact.id) || (fact.change.taking() != Taking::Open && !practice) {
            continue;
        }
        let id = new_id();
        renamed.push((fact.id.to_string(), id.to_string()));
        let mut change = fact.change.clone();
        match &mut change {
            Change::Set { key, typed, .. } => {
                if job_field(key).is_some_and(|spec| spec.lasts != Lasts::Copies) {
                    continue;
                }
                if key == field::part::NAME.key() {
                    *typed = another(typed);
                }
                for (was, now) in &renamed {
                    *key = key.replace(was, now);
                    // Which face it is the back of, and from where holes are measured.
                    if key.starts_with("face.") {
                        *typed = typed.replace(was, now);
                    }
                }
            }
            Change::Draw { drawn } => {
                for it in drawn {
                    (it.mark, it.face) = (renewed(&renamed, it.mark), renewed(&renamed, it.face));
                }
            }
            Change::PutFlame { flame: Some(flame) } => flame.face = renewed(&renamed, flame.face),
            Change::SetPoint { mark, face, .. } => {
                (*mark, *face) = (renewed(&renamed, *mark), renewed(&renamed, *face));
            }
            // Of that one part, as it lay on the bench.
            Change::Straighten { .. } => continue,
            // So is a picture.
            Change::MeasureSeam { .. }
            | Change::Tick { .. }
            | Change::FinishStep { .. }
            | Change::Look { .. }
            | Change::Use { .. }
            | Change::Estimate { .. }
            | Change::Time { .. }
            | Change::AddPicture { .. } => {
                renamed.pop();
                continue;
            }
            Change::AddHardSpot { observed: Some(observed), .. } => {
                let now = renamed.iter().find(|(was, _)| *was == observed.to_string());
                if let Some(now) = now.and_then(|(_, now)| now.parse().ok()) {
                    *observed = now;
                }
            }
            Change::Strike { target, .. } => {
                let now = renamed.iter().find(|(was, _)| *was == target.to_string());
                match now.and_then(|(_, now)| now.parse().ok()) {
                    Some(now) => *target = now,
                    None => continue,
                }
            }
            _ => {}
        }
        copied.push(Fact {
            id,
            revision: copied.len() as u64 + 1,
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: fact.who.clone(),
            sender: fact.sender.clone(),
            understood: understood(fact, &change),
            change,
        });
    }
    copied
}

/// The id that a thing has in the copy.
fn renewed(renamed: &[(String, String)], id: Uuid) -> Uuid {
    let now = renamed.iter().find(|(was, _)| *was == id.to_string());
    now.and_then(|(_, now)| now.parse().ok()).unwrap_or(id)
}

/// A copy's name is its own: what was understood of it is too.
fn understood(fact: &Fact, change: &Change) -> Option<Parsed> {
    if fact.change == *change {
        fact.understood.clone()
    } else {
        Parsed::of(change, None).or(fact.understood.clone())
    }
}

/// The name of another one: "Lever" leads to "Lever (2)", that to "Lever (3)".
fn another(name: &str) -> String {
    let name = name.trim();
    if name.is_empty() {
        return String::new();
    }
    let numbered = name.strip_suffix(')').and_then(|rest| rest.rsplit_once(" ("));
    let numbered = numbered.and_then(|(first, number)| Some((first, number.parse::<u32>().ok()?)));
    let (first, number) = numbered.map_or((name, 2), |(first, number)| (first, number.saturating_add(1)));
    let end = format!(" ({number})");
    let most = COPIED_NAME_MOST - end.chars().count();
    first.chars().take(most).chain(end.chars()).collect()
}
