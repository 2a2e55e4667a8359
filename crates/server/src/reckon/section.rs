//! `POST /api/reckon/strength`: what a section carries, whole and mended.

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::body::{Corner, Load, Panel, Section, Shock, Stands, strength};
use vanadin_core::iron::Iron;

use super::at_the_heat::{none, within};
use super::chosen;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum SectionRequest {
    /// Its depth lies along the bending.
    Rectangle {
        width_mm: f64,
        depth_mm: f64,
    },
    Round {
        d_mm: f64,
    },
    Tube {
        d_mm: f64,
        wall_mm: f64,
    },
    Box {
        width_mm: f64,
        depth_mm: f64,
        wall_mm: f64,
    },
    /// A plate built in all round.
    Panel {
        a_mm: f64,
        b_mm: f64,
        wall_mm: f64,
    },
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct StrengthRequest {
    /// gray, ductile or malleable.
    pub iron: String,
    pub section: SectionRequest,
    /// Strength of the joint against whole iron.
    pub ratio: f64,
    #[serde(default)]
    pub bend_n: f64,
    #[serde(default)]
    pub arm_mm: f64,
    /// A push is negative.
    #[serde(default)]
    pub pull_n: f64,
    #[serde(default)]
    pub twist_nm: f64,
    /// On the inside of a tube or on a panel.
    #[serde(default)]
    pub pressure_bar: f64,
    /// along or across a tube; across where it is left out.
    #[serde(default)]
    pub seam: Option<String>,
    /// steady, moved or knocked; steady where it is left out.
    #[serde(default)]
    pub shock: Option<String>,
    /// generous, small or sharp; none where it is left out.
    #[serde(default)]
    pub corner: Option<String>,
    #[serde(default)]
    pub corner_at_joint: bool,
    /// Moved over 10,000 times.
    #[serde(default)]
    pub often: bool,
    /// Share of the depth that is filled.
    #[serde(default = "through")]
    pub joined_share: f64,
}

fn through() -> f64 {
    1.0
}

#[derive(Debug, Serialize, ToSchema)]
pub struct StrengthAnswer {
    /// In the whole part, with shock and corner.
    pub stress_mpa: f64,
    /// Of what the whole part stands.
    pub whole_share: f64,
    /// Of what the joint stands.
    pub joint_share: f64,
    /// Bending or pull in N, or twist in Nm, whichever stresses most, that would break it while the others stay; 0
    /// where they break it alone, nothing without one of the three.
    pub whole_n: Option<f64>,
    /// The joint's.
    pub mended_n: Option<f64>,
}

/// What a section carries, whole and mended.
#[utoipa::path(post, path = "/api/reckon/strength", request_body = StrengthRequest, responses(
    (status = 200, description = "Stress, and what of it is used up", body = StrengthAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/strength", data = "<body>")]
pub fn strength_of(body: Body<StrengthRequest>) -> Result<Json<StrengthAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let iron = Iron::from_id(&request.iron).filter(|iron| iron.has_own_properties());
    let iron = chosen(&mut problems, "iron", &request.iron, iron, "gray, ductile or malleable");
    let section = section(&mut problems, &request.section);
    let load = load(&mut problems, &request);
    within(&mut problems, "ratio", (0.01, 2.0), request.ratio);
    problems.finish()?;
    let (Some(iron), Some(load)) = (iron, load) else { return none() };
    let found = strength(section, &load, Stands::of(iron, request.ratio));
    Ok(Json(StrengthAnswer {
        stress_mpa: found.stress_mpa,
        whole_share: found.whole_share,
        joint_share: found.joint_share,
        whole_n: found.whole_breaks_at,
        mended_n: found.mended_breaks_at,
    }))
}

fn section(problems: &mut Problems, request: &SectionRequest) -> Section {
    let mut size = |name: &str, mm: f64| within(problems, &format!("section.{name}"), (0.5, 5000.0), mm);
    let section = match *request {
        SectionRequest::Rectangle { width_mm, depth_mm } => {
            size("width_mm", width_mm);
            size("depth_mm", depth_mm);
            Section::Rectangle { width_mm, depth_mm }
        }
        SectionRequest::Round { d_mm } => {
            size("d_mm", d_mm);
            Section::Round { across_mm: d_mm }
        }
        SectionRequest::Tube { d_mm, wall_mm } => {
            size("d_mm", d_mm);
            size("wall_mm", wall_mm);
            Section::Tube { across_mm: d_mm, wall_mm }
        }
        SectionRequest::Box { width_mm, depth_mm, wall_mm } => {
            size("width_mm", width_mm);
            size("depth_mm", depth_mm);
            size("wall_mm", wall_mm);
            Section::Box { width_mm, depth_mm, wall_mm }
        }
        SectionRequest::Panel { a_mm, b_mm, wall_mm } => {
            size("a_mm", a_mm);
            size("b_mm", b_mm);
            size("wall_mm", wall_mm);
            Section::Panel(Panel { a_mm, b_mm, wall_mm })
        }
    };
    if section.wall_fills_it() {
        problems.add(FieldProblem::new(
            "section.wall_mm",
            "so thick a wall leaves nothing hollow",
            "less than half of what it is across",
        ));
    }
    section
}

fn load(problems: &mut Problems, request: &StrengthRequest) -> Option<Load> {
    within(problems, "bend_n", (-1e7, 1e7), request.bend_n);
    within(problems, "arm_mm", (0.0, 20_000.0), request.arm_mm);
    within(problems, "pull_n", (-1e7, 1e7), request.pull_n);
    within(problems, "twist_nm", (-1e6, 1e6), request.twist_nm);
    within(problems, "pressure_bar", (0.0, 1000.0), request.pressure_bar);
    within(problems, "joined_share", (0.05, 1.0), request.joined_share);
    let said = |asked: &Option<String>, usual: &str| asked.clone().unwrap_or_else(|| usual.to_owned());
    let (shock, corner, seam) =
        (said(&request.shock, "steady"), said(&request.corner, "none"), said(&request.seam, "across"));
    let along = match seam.as_str() {
        "along" => Some(true),
        "across" => Some(false),
        _ => None,
    };
    let along = chosen(problems, "seam", &seam, along, "along or across");
    let found = Shock::from_id(&shock);
    let shock = chosen(problems, "shock", &shock, found, "steady, moved or knocked");
    let found = Corner::from_id(&corner);
    let corner = chosen(problems, "corner", &corner, found, "none, generous, small or sharp");
    Some(Load {
        bend_n: request.bend_n,
        arm_mm: request.arm_mm,
        pull_n: request.pull_n,
        twist_nm: request.twist_nm,
        pressure_bar: request.pressure_bar,
        seam_along: along?,
        shock: shock?,
        corner: corner?,
        corner_at_joint: request.corner_at_joint,
        often: request.often,
        joined_share: request.joined_share,
    })
}
