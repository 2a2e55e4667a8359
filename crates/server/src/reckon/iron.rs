//! `POST /api/reckon/iron`

use std::collections::BTreeMap;

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::iron::{
    Belief, Confidence, Density, Era, Evidence, Family, Finding, Iron, LookTest, Notice, SoundSpeed,
    WhiteStanding, confirm,
};
use vanadin_core::quantity::WallMillimetres;

use super::chosen;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

/// One observation. Tests by look and `mark` have an `outcome`; `sound` has a `value` in m/s and
/// `wall_mm`; `density` a `value` in kg/m3.
#[derive(Debug, Deserialize, ToSchema)]
pub struct EvidenceRequest {
    pub test: String,
    #[serde(default)]
    pub outcome: Option<String>,
    #[serde(default)]
    pub value: Option<f64>,
    #[serde(default)]
    pub wall_mm: Option<f64>,
    pub confidence: String,
    #[serde(default)]
    pub spot: Option<String>,
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct IronRequest {
    pub family: String,
    pub era: String,
    pub open_crack: bool,
    /// In the order observed.
    pub evidence: Vec<EvidenceRequest>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct IronAnswer {
    /// Probability of each iron; sums to 1.
    pub posterior: BTreeMap<&'static str, f64>,
    /// Expected fall of entropy of each look test not done yet, in bits.
    pub gain_bits: BTreeMap<&'static str, f64>,
    pub leading: Iron,
    /// The fewest irons that together hold 95 %.
    pub plausible: Vec<Iron>,
    pub enough: bool,
    /// Best bits a minute; nothing when all are done.
    pub next_test: Option<LookTest>,
    pub white: WhiteStanding,
    pub notices: Vec<String>,
}

impl From<Belief> for IronAnswer {
    fn from(belief: Belief) -> Self {
        Self {
            posterior: Iron::ALL.into_iter().map(|iron| (iron.id(), belief.of(iron))).collect(),
            gain_bits: belief.gain_bits.iter().map(|(test, bits)| (test.id(), *bits)).collect(),
            leading: belief.leading,
            enough: belief.enough(),
            next_test: belief.gain_bits.first().map(|(test, _)| *test),
            white: belief.white,
            notices: belief.notices.iter().map(Notice::sentence).collect(),
            plausible: belief.plausible,
        }
    }
}

/// Lists hold at most this many entries.
const LIST_MOST: usize = 500;

fn evidence(problems: &mut Problems, at: usize, request: &EvidenceRequest) -> Option<Evidence> {
    let field = |name: &str| format!("evidence[{at}].{name}");
    let confidence = chosen(
        problems,
        &field("confidence"),
        &request.confidence,
        Confidence::from_id(&request.confidence),
        "sure, fair or unsure",
    );
    let need = |problems: &mut Problems, name: &str, value: Option<f64>| {
        if value.is_none() {
            problems.add(FieldProblem::new(field(name), "this test needs it", "a number"));
        }
        value
    };
    let finding = match request.test.as_str() {
        "sound" => {
            let (speed, wall) =
                (need(problems, "value", request.value), need(problems, "wall_mm", request.wall_mm));
            let wall = problems.take(&field("wall_mm"), WallMillimetres::new(wall?))?;
            problems.take(&field("value"), SoundSpeed::new(speed?, wall)).map(Finding::Sound)
        }
        "density" => {
            let density = need(problems, "value", request.value)?;
            problems.take(&field("value"), Density::new(density)).map(Finding::Density)
        }
        test => {
            let outcome = request.outcome.as_deref().unwrap_or_default();
            if test == "mark" {
                let iron = Iron::from_id(outcome);
                chosen(problems, &field("outcome"), outcome, iron, "one of the six irons").map(Finding::Mark)
            } else {
                let known = "spark, punch, drill, ring, fracture, file, magnet, sound, density or mark";
                let look = chosen(problems, &field("test"), test, LookTest::from_id(test), known)?;
                let outcomes: Vec<&str> = look.outcomes().iter().map(|o| o.id).collect();
                chosen(problems, &field("outcome"), outcome, look.outcome(outcome), &outcomes.join(", "))
                    .map(|outcome| Finding::Look { test: look, outcome })
            }
        }
    };
    Some(Evidence {
        finding: finding?,
        confidence: confidence?,
        spot: request.spot.clone().unwrap_or_else(|| Evidence::FIRST_SPOT.to_owned()),
    })
}

/// What the evidence makes of the iron.
#[utoipa::path(post, path = "/api/reckon/iron", request_body = IronRequest, responses(
    (status = 200, description = "The belief", body = IronAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/iron", data = "<body>")]
pub fn iron(body: Body<IronRequest>) -> Result<Json<IronAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let family =
        chosen(&mut problems, "family", &request.family, Family::from_id(&request.family), "a part family");
    let era = chosen(
        &mut problems,
        "era",
        &request.era,
        Era::from_id(&request.era),
        "before_1949, 1949_1969, 1970_on or unknown",
    );
    if request.evidence.len() > LIST_MOST {
        problems.add(FieldProblem::new(
            "evidence",
            "the list is too long",
            format!("up to {LIST_MOST} entries"),
        ));
    }
    let found: Vec<Evidence> = request
        .evidence
        .iter()
        .take(LIST_MOST)
        .enumerate()
        .filter_map(|(at, item)| evidence(&mut problems, at, item))
        .collect();
    problems.finish()?;
    let (Some(family), Some(era)) = (family, era) else {
        return Err(ApiError::NotAcceptable(Vec::new()));
    };
    Ok(Json(confirm(family, era, request.open_crack, &found).into()))
}
