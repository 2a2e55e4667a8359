//! Cases and results as files: open, described in docs/practice-files.md.

use crate::map::OutlineKind;
use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::Ended;
use crate::base::problem::FieldProblem;
use crate::field::{self, crack_key, face_key, job_field, parse_value};
use crate::job::{Change, Fact, Job, Parsed};
use crate::map::{Drawn, Shape, Vertex};
use crate::quantity::UnitSystem;
use crate::secret::{Level, Practised, Truth, digest, open, seal};

pub const CASE_FORMAT: &str = "vanadin-practice-case-1";
pub const RESULT_FORMAT: &str = "vanadin-practice-result-1";

/// A crack as it is handed out.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseCrack {
    /// Where it lies on the face, x and y in mm from its upper left corner, first end first; empty where it lies on none.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub line_mm: Vec<[f64; 2]>,
    /// Fields of a crack by the end of their key, as typed in metric: `length`, `wall`, `end_a`.
    pub fields: BTreeMap<String, String>,
}

/// A case made by hand, its truth under a seal.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseFile {
    /// `vanadin-practice-case-1`
    pub format: String,
    pub of: Practised,
    /// Fields of the part by their whole key, as typed in metric.
    pub part: BTreeMap<String, String>,
    /// Across and down of the rectangle that it is drawn on, in mm; nothing for what is not drawn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub face_mm: Option<[f64; 2]>,
    /// Those that are in sight, in the order of the truth.
    pub cracks: Vec<CaseCrack>,
}

/// What a learner hands back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ResultFile {
    /// `vanadin-practice-result-1`
    pub format: String,
    /// Which practice it was, so that a result read twice is kept once.
    pub practice: Uuid,
    pub who: String,
    pub title: String,
    pub seed: u32,
    pub level: Level,
    /// Of the seal, so that a teacher knows that it was this case.
    pub case: String,
    pub way: String,
    pub holds: bool,
    /// Of a hundred such repairs so many hold: 0 to 1.
    pub odds: f64,
    pub headline: String,
    pub minutes: f64,
    /// What moved the odds, by name, in log-odds.
    pub parts: BTreeMap<String, f64>,
}

/// A short name of a seal: FNV-1a over it, 16 hexadecimal digits.
#[must_use]
pub fn digest_of(sealed: &str) -> String {
    format!("{:016x}", digest(sealed.trim()))
}

impl CaseFile {
    /// The case of a job as its part and its cracks stand now, with this truth.
    #[must_use]
    pub fn of(job: &Job, of: Practised, truth: &Truth) -> Self {
        let round = job.round();
        let typed = |prefix: &str| -> BTreeMap<String, String> {
            let of =
                round.values.iter().filter(|(key, held)| key.starts_with(prefix) && held.value.is_some());
            of.filter_map(|(key, held)| Some((key.strip_prefix(prefix)?.to_owned(), held.typed.clone())))
                .collect()
        };
        // Nothing of it says whose it is.
        let whose = |key: &str| key == "owner" || key.starts_with("authority");
        let part = typed("part.").into_iter().filter(|(key, _)| !whose(key));
        let part = part.map(|(key, typed)| (format!("part.{key}"), typed)).collect();
        let face = job.faces.iter().find_map(|face| {
            let rectangle = round.get(field::face::OUTLINE.of(face.id)) == Some(OutlineKind::Rectangle);
            let size =
                (round.get(field::face::ACROSS.of(face.id))?, round.get(field::face::DOWN.of(face.id))?);
            rectangle.then_some((face.id, [size.0, size.1]))
        });
        let line_mm = |crack: Uuid| -> Vec<[f64; 2]> {
            let placed = face.and_then(|(face, _)| round.placed(crack, face));
            let points = placed.map_or_else(Vec::new, |placed| placed.shape.points());
            points.into_iter().map(|at| [at.x_mm, at.y_mm]).collect()
        };
        let crack = |id: Uuid| CaseCrack { line_mm: line_mm(id), fields: typed(&crack_key(id, "")) };
        let cracks = round.cracks.iter().map(|it| crack(it.id)).collect();
        Self {
            format: CASE_FORMAT.to_owned(),
            of: Practised { sealed: seal(truth), ..of },
            part,
            face_mm: face.map(|(_, size)| size),
            cracks,
        }
    }

    /// The first words of a job.
    ///
    /// # Errors
    /// What in it cannot be, at its place.
    pub fn told(
        &self,
        level: Level,
        mut new_id: impl FnMut() -> Uuid,
        now_ms: i64,
    ) -> Result<Vec<Fact>, FieldProblem> {
        if self.format != CASE_FORMAT {
            return Err(FieldProblem::new("format", "that is no practice case", CASE_FORMAT));
        }
        let truth = open(&self.of.sealed).map_err(|broken| {
            FieldProblem::new("of.sealed", broken.words(), "the file as it was handed out")
        })?;
        if truth.cracks.len() != self.cracks.len() {
            return Err(FieldProblem::new(
                "cracks",
                "the truth is of other cracks",
                "the file as it was handed out",
            ));
        }
        let mut changes =
            vec![(new_id(), Change::Practise { of: Box::new(Practised { level, ..self.of.clone() }) })];
        for (key, typed) in &self.part {
            if !key.starts_with("part.") {
                return Err(FieldProblem::new(key.clone(), "that is no field of a part", "part.mass"));
            }
            changes.push((new_id(), set(key.clone(), key, typed)?));
        }
        let face = match self.face_mm {
            None => None,
            Some([across, down]) => {
                let face = new_id();
                changes.push((face, Change::AddFace));
                let fields = [
                    ("name", "front".to_owned()),
                    ("outline", "rectangle".to_owned()),
                    ("across", across.to_string()),
                    ("down", down.to_string()),
                ];
                for (field, typed) in fields {
                    changes.push((new_id(), set(face_key(face, field), "face_mm", &typed)?));
                }
                Some(face)
            }
        };
        for crack in &self.cracks {
            let id = new_id();
            changes.push((id, Change::AddCrack));
            if let Some(face) = face.filter(|_| crack.line_mm.len() > 1) {
                let vertex = |at: &[f64; 2]| Vertex { x_mm: at[0], y_mm: at[1], wall_mm: None };
                let shape = Shape::Line { points: crack.line_mm.iter().map(vertex).collect() };
                shape
                    .possible()
                    .map_err(|problem| FieldProblem { field: "cracks.line_mm".to_owned(), ..problem })?;
                changes.push((
                    new_id(),
                    Change::Draw { drawn: vec![Drawn { mark: id, face, shape: Some(shape) }] },
                ));
            }
            for (field, typed) in &crack.fields {
                let named = format!("cracks.{field}");
                changes.push((new_id(), set(crack_key(id, field), &named, typed)?));
            }
        }
        let fact = |(at, (id, change)): (usize, (Uuid, Change))| Fact {
            id,
            revision: at as u64 + 1,
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: String::new(),
            sender: String::new(),
            understood: Parsed::of(&change, None),
            change,
        };
        Ok(changes.into_iter().enumerate().map(fact).collect())
    }
}

/// A field as it is typed in metric; what is wrong with it is told at the name it has in the file.
fn set(key: String, named: &str, typed: &str) -> Result<Change, FieldProblem> {
    let known = job_field(&key).ok_or_else(|| FieldProblem::new(named, "there is no such field", ""))?;
    parse_value(named, known, typed, UnitSystem::Metric)?;
    Ok(Change::Set { key, typed: typed.to_owned(), shown_in: UnitSystem::Metric })
}

impl ResultFile {
    /// What a learner hands back of a practice that is over.
    #[must_use]
    pub fn of(job: &Job, ended: &Ended, who: &str) -> Option<Self> {
        let practice = job.practice.as_ref().filter(|it| it.ended)?;
        Some(Self {
            format: RESULT_FORMAT.to_owned(),
            practice: job.id,
            who: who.to_owned(),
            title: practice.of.title.clone(),
            seed: practice.of.seed,
            level: practice.of.level,
            case: digest_of(&practice.of.sealed),
            way: ended.way.clone(),
            holds: ended.holds,
            odds: ended.odds,
            headline: ended.headline.clone(),
            minutes: ended.minutes,
            parts: ended.parts.iter().map(|part| (part.name.clone(), part.shift)).collect(),
        })
    }

    /// Whether all of it can be.
    ///
    /// # Errors
    /// What cannot, at its place.
    pub fn possible(&self) -> Result<(), FieldProblem> {
        /// House: letters of a text in a result.
        const LETTERS_MOST: usize = 600;
        if self.format != RESULT_FORMAT {
            return Err(FieldProblem::new("format", "that is no result of a practice", RESULT_FORMAT));
        }
        if !(0.0..=1.0).contains(&self.odds) {
            return Err(FieldProblem::new("odds", "odds are from 0 to 1", "0.74"));
        }
        let words = [&self.who, &self.title, &self.case, &self.way, &self.headline];
        if words.iter().any(|words| words.len() > LETTERS_MOST) || self.parts.len() > 60 {
            return Err(FieldProblem::new(
                "headline",
                "that is longer than a result is",
                "the file as it was handed back",
            ));
        }
        Ok(())
    }
}
