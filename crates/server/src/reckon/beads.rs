//! `POST /api/reckon/{bead-rise,bead-order}`: what a bead leaves beside it, and in which order beads go down.

use std::collections::BTreeSet;

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::heat::{
    BeadPass, BeadSchedule, BeadSeam, BeadWork, FreeEdges, LaidBead, PlannedBead, WallEnds, along_a_seam,
    bead_order, bead_rise_k,
};
use vanadin_core::quantity::{Celsius, WallMillimetres};

use super::at_the_heat::{none, within};
use super::heat::casting_of;
use super::heated_iron;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

#[derive(Debug, Deserialize, ToSchema)]
pub struct BeadRiseRequest {
    pub iron: String,
    pub wall_mm: f64,
    pub energy_j: f64,
    pub length_mm: f64,
    /// Along it from its start, and beside it.
    pub x_mm: f64,
    pub y_mm: f64,
    /// Since its end.
    pub after_s: f64,
    /// Free edges of the wall, from the start of the bead: behind it, ahead of it, to its left (+y) and to its right.
    #[serde(default)]
    pub edge_behind_mm: Option<f64>,
    #[serde(default)]
    pub edge_ahead_mm: Option<f64>,
    #[serde(default)]
    pub edge_left_mm: Option<f64>,
    #[serde(default)]
    pub edge_right_mm: Option<f64>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BeadRiseAnswer {
    pub rise_k: f64,
}

/// A free edge no nearer than what lies before it.
fn free_edge(problems: &mut Problems, field: &str, least_mm: f64, mm: Option<f64>) -> Option<f64> {
    within(problems, field, (least_mm, 20_000.0), mm?)
}

/// How warm a bead leaves the wall at a place beside it.
#[utoipa::path(post, path = "/api/reckon/bead-rise", request_body = BeadRiseRequest, responses(
    (status = 200, description = "The rise", body = BeadRiseAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/bead-rise", data = "<body>")]
pub fn bead_rise(body: Body<BeadRiseRequest>) -> Result<Json<BeadRiseAnswer>, ApiError> {
    let request = body.0?;
    let mut problems = Problems::default();
    let iron = heated_iron(&mut problems, &request.iron);
    let wall = problems.take("wall_mm", WallMillimetres::new(request.wall_mm));
    let joules = within(&mut problems, "energy_j", (0.0, 1e8), request.energy_j);
    let length = within(&mut problems, "length_mm", (0.1, 20_000.0), request.length_mm);
    let x = within(&mut problems, "x_mm", (-20_000.0, 20_000.0), request.x_mm);
    let y = within(&mut problems, "y_mm", (-20_000.0, 20_000.0), request.y_mm);
    let after = within(&mut problems, "after_s", (0.0, 1e6), request.after_s);
    let ends = WallEnds {
        along: FreeEdges {
            less: free_edge(&mut problems, "edge_behind_mm", 0.0, request.edge_behind_mm),
            more: free_edge(&mut problems, "edge_ahead_mm", request.length_mm, request.edge_ahead_mm),
        },
        across: FreeEdges {
            less: free_edge(&mut problems, "edge_right_mm", 0.0, request.edge_right_mm),
            more: free_edge(&mut problems, "edge_left_mm", 0.0, request.edge_left_mm),
        },
    };
    problems.finish()?;
    let (Some(iron), Some(wall), Some(joules), Some(length_mm), Some(x), Some(y), Some(after)) =
        (iron, wall, joules, length, x, y, after)
    else {
        return none();
    };
    let bead = LaidBead { joules, length_mm, wall_mm: wall.millimetres() };
    Ok(Json(BeadRiseAnswer { rise_k: bead_rise_k(&iron, &bead, &ends, (x, y), after) }))
}

#[derive(Debug, Deserialize, ToSchema)]
pub struct BeadOrderRequest {
    pub iron: String,
    pub mass_kg: f64,
    pub length_m: f64,
    pub width_m: f64,
    pub height_m: f64,
    pub shape_factor: f64,
    pub ambient_c: f64,
    pub wall_mm: f64,
    pub start_c: f64,
    /// Interpass: a bead begins between these.
    pub min_c: f64,
    pub max_c: f64,
    pub seam_mm: f64,
    /// The longest a bead is.
    pub bead_mm: f64,
    pub layers: u32,
    /// Efficiency x volts x amps.
    pub power_w: f64,
    pub travel_mm_s: f64,
    /// Left and right: tip, hole, branch, hidden, or an open edge.
    pub ends: [String; 2],
    /// Net power of the source for a reheat; nothing where nothing is reheated.
    #[serde(default)]
    pub reheat_w: Option<f64>,
    /// Free edges beside the seam, from its middle, looking along it.
    #[serde(default)]
    pub edge_left_mm: Option<f64>,
    #[serde(default)]
    pub edge_right_mm: Option<f64>,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct OrderedBead {
    /// From 1, in the order in which they are laid.
    pub number: usize,
    pub layer: u32,
    pub from_mm: f64,
    pub to_mm: f64,
    /// From the beginning of the first bead.
    pub start_s: f64,
    pub wait_s: f64,
    pub reheat_s: f64,
    /// The hottest place on its span as it begins.
    pub before_c: f64,
}

#[derive(Debug, Serialize, ToSchema)]
pub struct BeadOrderAnswer {
    /// Nothing where it never comes to its end: the source does not reach, or it never falls under the most.
    pub waiting_s: Option<f64>,
    pub end_to_end_waiting_s: Option<f64>,
    pub arc_s: Option<f64>,
    pub elapsed_s: Option<f64>,
    pub reheats: Option<usize>,
    /// No other order waits less than from one end to the other.
    pub end_to_end: bool,
    pub beads: Vec<OrderedBead>,
}

/// The order of the beads of a seam, and when each may start.
#[utoipa::path(post, path = "/api/reckon/bead-order", request_body = BeadOrderRequest, responses(
    (status = 200, description = "The order, with its waits", body = BeadOrderAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/bead-order", data = "<body>")]
pub fn bead_order_of(body: Body<BeadOrderRequest>) -> Result<Json<BeadOrderAnswer>, ApiError> {
    /// More beads are no seam of a repair.
    const MOST_BEADS: f64 = 2_000.0;
    let request = body.0?;
    let mut problems = Problems::default();
    let casting = casting_of!(request, &mut problems);
    let start = problems.take("start_c", Celsius::new(request.start_c));
    let least = problems.take("min_c", Celsius::new(request.min_c));
    let most = within(&mut problems, "max_c", (request.min_c.max(-60.0), 1_500.0), request.max_c);
    within(&mut problems, "wall_mm", (0.5, 300.0), request.wall_mm);
    within(&mut problems, "seam_mm", (1.0, 100_000.0), request.seam_mm);
    within(&mut problems, "bead_mm", (1.0, 1_000.0), request.bead_mm);
    within(&mut problems, "layers", (1.0, 100.0), f64::from(request.layers));
    within(&mut problems, "power_w", (1.0, 50_000.0), request.power_w);
    within(&mut problems, "travel_mm_s", (0.05, 100.0), request.travel_mm_s);
    let reheat_w = request.reheat_w.map(|watts| within(&mut problems, "reheat_w", (0.0, 1e6), watts));
    let mut closed = [true; 2];
    for (at, end) in request.ends.iter().enumerate() {
        match end.as_str() {
            "tip" | "hole" | "branch" | "hidden" => {}
            "edge" => closed[at] = false,
            other => problems.add(FieldProblem::new(
                format!("ends[{at}]"),
                format!("\"{other}\" is not known here"),
                "tip, hole, branch, hidden or edge",
            )),
        }
    }
    let across = FreeEdges {
        less: free_edge(&mut problems, "edge_right_mm", 0.0, request.edge_right_mm),
        more: free_edge(&mut problems, "edge_left_mm", 0.0, request.edge_left_mm),
    };
    problems.finish()?;
    let (Some(body), Some(start), Some(least), Some(most_c)) = (casting, start, least, most) else {
        return none();
    };
    let passes = (1..=request.layers).map(|layer| BeadPass { layer, side: 1, offsets_mm: vec![0.0] });
    let seam = BeadSeam {
        length_mm: request.seam_mm,
        bead_mm: request.bead_mm,
        wall_mm: request.wall_mm,
        closed,
        ends: WallEnds { along: along_a_seam(request.seam_mm, closed, [None, None]), across },
        passes: passes.collect(),
        left_out: BTreeSet::new(),
        power_w: request.power_w,
        travel_mm_s: request.travel_mm_s,
        hole_of: None,
    };
    let mut many = Problems::default();
    within(&mut many, "bead_mm", (0.0, MOST_BEADS), seam.beads() as f64);
    many.finish()?;
    let work = BeadWork {
        body,
        least_c: least.celsius(),
        most_c,
        reheat_w: reheat_w.flatten(),
        bare_share: 1.0,
        held: false,
        one_after_another: false,
        seams: vec![seam],
    };
    let found = bead_order(&work, start.celsius(), &[]);
    Ok(Json(BeadOrderAnswer::of(found.as_ref(), &work.seams[0])))
}

impl BeadOrderAnswer {
    fn of(found: Option<&BeadSchedule>, seam: &BeadSeam) -> Self {
        let beads = found.into_iter().flat_map(|found| &found.beads).enumerate();
        let ordered = |(at, bead): (usize, &PlannedBead)| OrderedBead {
            number: at + 1,
            layer: seam.passes[bead.place.pass].layer,
            from_mm: bead.from_mm,
            to_mm: bead.to_mm,
            start_s: bead.start_s,
            wait_s: bead.wait_s,
            reheat_s: bead.reheat_s,
            before_c: bead.before_c,
        };
        Self {
            waiting_s: found.map(|found| found.waiting_s),
            end_to_end_waiting_s: found.and_then(|found| found.end_to_end_waiting_s),
            arc_s: found.map(|found| found.arc_s),
            elapsed_s: found.map(|found| found.elapsed_s),
            reheats: found.map(|found| found.reheats),
            end_to_end: found.is_some_and(|found| found.end_to_end),
            beads: beads.map(ordered).collect(),
        }
    }
}
