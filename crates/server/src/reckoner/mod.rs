//! `/api/reckoner`: each calculation as a sentence with blanks, filled in as people speak.

use std::collections::BTreeMap;

use rocket::serde::json::Json;
use rocket::{Route, State, get, post, routes};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::reckoner::{ALL, Asks, Blank, Calculation, Reckoned, SentencePart, calculation};
use vanadin_core::render::said;

use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;
use crate::job_service::JobService;
use crate::shop::device_units::DeviceUnits;
use crate::wire::field::ChoiceView;

pub fn routes() -> Vec<Route> {
    routes![calculations, reckon]
}

/// A piece of a sentence: words, the key of a blank, or the name of an answer.
#[derive(Debug, Serialize, ToSchema)]
#[serde(tag = "kind", content = "of", rename_all = "snake_case")]
pub enum PieceView {
    Words(String),
    Blank(&'static str),
    Answer(&'static str),
}

/// A blank: what it is called and what may stand in it.
#[derive(Debug, Serialize, ToSchema)]
pub struct BlankView {
    pub key: &'static str,
    pub label: &'static str,
    /// What stands there until something else is typed.
    pub usual: &'static str,
    /// The unit a bare number is taken in; empty for none.
    pub unit: &'static str,
    /// What is pressed beside the number keys of a phone; nothing where words are typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<String>>)]
    pub keys: Option<&'static [&'static str]>,
    /// Empty where an amount is asked for.
    pub choices: Vec<ChoiceView>,
}

/// A calculation as it is found and filled in.
#[derive(Debug, Serialize, ToSchema)]
pub struct CalculationView {
    pub id: &'static str,
    pub name: &'static str,
    /// What else it is called by, in small letters.
    pub found_by: &'static str,
    pub sentence: Vec<PieceView>,
    pub blanks: Vec<BlankView>,
    /// The answer that a job keeps as a fact: which, and of what field.
    pub fact: Option<FactView>,
}

/// All of them, in the order of a repair.
#[derive(Debug, Serialize, ToSchema)]
pub struct Calculations {
    pub calculations: Vec<CalculationView>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct FactView {
    pub answer: &'static str,
    pub field: &'static str,
}

impl CalculationView {
    fn of(it: &'static Calculation, units: UnitSystem) -> Self {
        let piece = |piece: &SentencePart| match piece {
            SentencePart::Words(words) => PieceView::Words(said(words, units)),
            SentencePart::Ask(blank) => PieceView::Blank(blank.key),
            SentencePart::Answer(id) => PieceView::Answer(id),
        };
        Self {
            id: it.id,
            name: it.name,
            found_by: it.found_by,
            sentence: it.sentence.iter().map(piece).collect(),
            blanks: it.blanks().map(|blank| BlankView::of(blank, units)).collect(),
            fact: it.fact.map(|(answer, field)| FactView { answer, field }),
        }
    }
}

impl BlankView {
    fn of(blank: &'static Blank, units: UnitSystem) -> Self {
        let (unit, keys, choices) = match blank.asks {
            Asks::Amount { kind, .. } => {
                let unit = kind.asked_in().map_or("", |(metric, imperial)| match units {
                    UnitSystem::Metric => metric,
                    UnitSystem::Imperial => imperial,
                });
                (unit, Some(kind.keys(units)), Vec::new())
            }
            Asks::OneOf(choices) => ("", None, ChoiceView::all(choices, units)),
        };
        Self { key: blank.key, label: blank.label, usual: blank.usual_in(units), unit, keys, choices }
    }
}

/// Every calculation there is, in one system of units, in the order of a repair.
#[utoipa::path(get, path = "/api/reckoner/{units}", operation_id = "show_calculations", params(
    ("units" = UnitSystem, Path, description = "metric or imperial")), responses(
    (status = 200, description = "The calculations", body = Calculations),
    (status = 404, description = "No such units", body = ProblemsBody)))]
#[get("/<units>")]
pub fn calculations(units: &str) -> Result<Json<Calculations>, ApiError> {
    let units = match units {
        "metric" => UnitSystem::Metric,
        "imperial" => UnitSystem::Imperial,
        _ => return Err(ApiError::Unknown("such units")),
    };
    let calculations = ALL.iter().map(|it| CalculationView::of(it, units)).collect();
    Ok(Json(Calculations { calculations }))
}

/// What was put into the blanks of a sentence.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SentenceInputs {
    /// By the key of each blank; what is left out is as usual.
    #[serde(default)]
    pub blanks: BTreeMap<String, String>,
}

/// Longest text of a blank. Ours.
const TEXT_MOST: usize = 200;

/// Works one out in this device's units, with what this shop has learned.
#[utoipa::path(post, path = "/api/reckoner/{id}", operation_id = "reckon", params(
    ("id" = String, Path, description = "A calculation")), request_body = SentenceInputs, responses(
    (status = 200, description = "The answer", body = Reckoned),
    (status = 404, description = "No such calculation", body = ProblemsBody),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/<id>", data = "<body>")]
pub async fn reckon(
    jobs: &State<JobService>,
    units: DeviceUnits,
    id: &str,
    body: Body<SentenceInputs>,
) -> Result<Json<Reckoned>, ApiError> {
    let asked = body.0?;
    let found = calculation(id).ok_or(ApiError::Unknown("such calculation"))?;
    let mut problems = Vec::new();
    for (key, text) in &asked.blanks {
        let known = found.blanks().any(|blank| blank.key == key);
        if !known {
            let keys: Vec<&str> = found.blanks().map(|blank| blank.key).collect();
            problems.push(FieldProblem::new(key.as_str(), "there is no such blank", keys.join(", ")));
        } else if text.chars().count() > TEXT_MOST {
            problems.push(FieldProblem::new(
                key.as_str(),
                "that is too long",
                format!("{TEXT_MOST} letters"),
            ));
        }
    }
    if !problems.is_empty() {
        return Err(ApiError::NotAcceptable(problems));
    }
    let now = jobs.shop_in(units).await?;
    Ok(Json(found.reckon(&asked.blanks, now.shop.units, &now.shop)?))
}
