//! A case as the first words of a job.

use uuid::Uuid;

use super::made_up::Case;
use crate::field::{crack_key, face_key};
use crate::job::{Change, Fact, Parsed};
use crate::map::{Drawn, MarkKind, Shape};
use crate::quantity::UnitSystem;
use crate::secret::{Level, Practised};

/// The facts with which a practice begins. `new_id` makes their ids.
#[must_use]
pub fn told(case: &Case, level: Level, mut new_id: impl FnMut() -> Uuid, now_ms: i64) -> Vec<Fact> {
    let mut facts = Vec::new();
    let set = |key: String, typed: String| Change::Set { key, typed, shown_in: UnitSystem::Metric };
    let mut say = |change: Change| {
        let id = new_id();
        facts.push(said(id, facts.len() as u64 + 1, change, now_ms));
        id
    };
    say(Change::Practise { of: Box::new(case.practised(level)) });
    for (key, typed) in &case.part {
        say(set(format!("part.{key}"), typed.clone()));
    }
    let face = case.face_mm().map(|(across, down)| {
        let face = say(Change::AddFace);
        let mut of = |field: &str, typed: String| say(set(face_key(face, field), typed));
        of("name", "front".to_owned());
        of("outline", "rectangle".to_owned());
        of("across", format!("{across:.0}"));
        of("down", format!("{down:.0}"));
        if let Some(points) = case.window((across, down)) {
            let mark = say(Change::AddMark { what: MarkKind::Opening });
            let shape = Some(Shape::Outline { points });
            say(Change::Draw { drawn: vec![Drawn { mark, face, shape }] });
        }
        (face, (across, down))
    });
    for crack in &case.cracks {
        let id = say(Change::AddCrack);
        if let Some((face, size)) = face {
            let shape = Some(Shape::Line { points: crack.line(size, case.limb_mm) });
            say(Change::Draw { drawn: vec![Drawn { mark: id, face, shape }] });
        }
        let mut of = |field: &str, typed: String| say(set(crack_key(id, field), typed));
        of("length", format!("{:.0}", crack.length_mm));
        of("wall", format!("{:.0}", crack.wall_mm));
        of("found_by", "eye".to_owned());
        of("end_a", crack.ends[0].to_owned());
        of("end_b", crack.ends[1].to_owned());
        of("becomes", "repair".to_owned());
    }
    facts
}

fn said(id: Uuid, revision: u64, change: Change, now_ms: i64) -> Fact {
    Fact {
        id,
        revision,
        at_client_ms: now_ms,
        at_server_ms: now_ms,
        who: String::new(),
        sender: String::new(),
        understood: Parsed::of(&change, None),
        change,
    }
}

/// The first words of another job, those of its part and its cracks, as those of a practice.
#[must_use]
pub fn as_a_case(facts: Vec<Fact>, of: Practised, id: Uuid, now_ms: i64) -> Vec<Fact> {
    let first = said(id, 1, Change::Practise { of: Box::new(of) }, now_ms);
    let later = facts.into_iter().map(|fact| Fact { revision: fact.revision + 1, ..fact });
    std::iter::once(first).chain(later).collect()
}

/// What was said of a practice before anything was lit: to be gone on with otherwise, the same secret and the same luck.
/// Nothing where nothing was lit, or it is no practice.
#[must_use]
pub fn before_the_heat(facts: &[Fact], level: Level, now_ms: i64) -> Option<Vec<Fact>> {
    let lit = facts.iter().position(|fact| matches!(fact.change, Change::Light { .. }))?;
    let mut before: Vec<Fact> = facts[..lit].to_vec();
    for fact in &mut before {
        (fact.at_client_ms, fact.at_server_ms) = (now_ms, now_ms);
    }
    let Change::Practise { of } = &mut before.first_mut()?.change else { return None };
    of.level = level;
    Some(before)
}
