//! A face as it is asked, read.

use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::body::{BodyHeating, Boundary, Flame, FlatBody, Hole, NotReckoned, ThickPlace};
use vanadin_core::iron::{Iron, IronProperties};
use vanadin_core::map::{At, inside};

use super::super::at_the_heat::within;
use super::super::{chosen, heated_iron};
use super::{BodyHeatRequest, FaceRequest, HeldRequest, PlaceRequest};
use crate::api_error::ApiError;

pub(super) fn at(place: &[f64; 2]) -> At {
    At::new(place[0], place[1])
}

/// The face of a request, and what its iron stands at a crack's tip in MPa √m.
pub(super) fn piece(problems: &mut Problems, request: &FaceRequest) -> (Option<FlatBody>, f64) {
    let iron: Option<IronProperties> = heated_iron(problems, &request.iron);
    let stands = Iron::from_id(&request.iron).map_or(0.0, Iron::toughness_mpa_sqrt_m);
    let holes: Vec<Hole> = request
        .holes_mm
        .iter()
        .enumerate()
        .filter_map(|(at, hole)| place(problems, &format!("holes_mm[{at}]"), hole))
        .collect();
    let thick: Vec<ThickPlace> = request
        .thick_mm
        .iter()
        .enumerate()
        .filter_map(|(at, thick)| {
            let field = format!("thick_mm[{at}]");
            let wall_mm =
                chosen(problems, &format!("{field}.wall_mm"), "nothing", thick.wall_mm, "a wall in mm");
            Some(ThickPlace { place: place(problems, &field, thick)?, wall_mm: wall_mm? })
        })
        .collect();
    within(problems, "cracks_mm", (0.0, 24.0), request.cracks_mm.len() as f64);
    within(problems, "holes_mm", (0.0, 120.0), request.holes_mm.len() as f64);
    within(problems, "thick_mm", (0.0, 60.0), request.thick_mm.len() as f64);
    let complete = holes.len() == request.holes_mm.len() && thick.len() == request.thick_mm.len();
    let piece = iron.filter(|_| complete).map(|iron| FlatBody {
        iron,
        outline: request.outline_mm.iter().map(at).collect(),
        holes,
        wall_mm: request.wall_mm,
        thick,
        cracks: request.cracks_mm.iter().map(|crack| crack.iter().map(at).collect()).collect(),
    });
    (piece, stands)
}

pub(super) fn place(problems: &mut Problems, field: &str, request: &PlaceRequest) -> Option<Hole> {
    let found = match (&request.points, request.x, request.y, request.d) {
        (Some(points), ..) => Some(Hole::Outlined(points.iter().map(at).collect())),
        (None, Some(x), Some(y), Some(d)) => Some(Hole::Round { middle: At::new(x, y), across_mm: d }),
        _ => None,
    };
    if let (Some(Hole::Outlined(points)), Some(within)) = (&found, &request.inside)
        && !inside(points, at(within))
    {
        problems.add(FieldProblem::new(
            format!("{field}.inside"),
            "this place is not within its outline",
            "a place within, or none",
        ));
    }
    if found.is_none() {
        problems.add(FieldProblem::new(
            field,
            "a place is a round or an outline",
            "{\"x\": 45, \"y\": 180, \"d\": 24}",
        ));
    }
    found
}

pub(super) fn heating(problems: &mut Problems, request: &BodyHeatRequest) -> BodyHeating {
    within(problems, "ambient_c", (-40.0, 60.0), request.ambient_c);
    if let Some(start) = request.start_c {
        within(problems, "start_c", (-40.0, 1000.0), start);
    }
    within(problems, "minutes", (0.0, 240.0), request.minutes);
    within(problems, "flames", (0.0, 40.0), request.flames.len() as f64);
    for (at, flame) in request.flames.iter().enumerate() {
        let mut bounded =
            |name: &str, bounds, value| within(problems, &format!("flames[{at}].{name}"), bounds, value);
        bounded("x", (-20_000.0, 20_000.0), flame.x);
        bounded("y", (-20_000.0, 20_000.0), flame.y);
        bounded("power_w", (0.0, 200_000.0), flame.power_w);
        bounded("even_share", (0.0, 1.0), flame.even_share);
        bounded("spot_mm", (5.0, 2000.0), flame.spot_mm);
    }
    let flames = request
        .flames
        .iter()
        .map(|flame| Flame {
            at: At::new(flame.x, flame.y),
            power_w: flame.power_w,
            even_share: flame.even_share,
            spot_mm: flame.spot_mm,
        })
        .collect();
    let heating = BodyHeating::new(request.ambient_c, request.minutes, flames);
    BodyHeating { start_c: request.start_c.unwrap_or(request.ambient_c), ..heating }
}

/// Places that are asked for: they lie on the iron.
pub(super) fn places(piece: &FlatBody, field: &str, asked: &[[f64; 2]]) -> Result<Vec<At>, ApiError> {
    let mut problems = Problems::default();
    within(&mut problems, field, (0.0, 2000.0), asked.len() as f64);
    for (number, place) in asked.iter().enumerate() {
        if !piece.has_iron_at(at(place)) {
            // Pairs are told by the pair.
            let number = if field == "between_mm" { number / 2 } else { number };
            problems.add(FieldProblem::new(
                format!("{field}[{number}]"),
                "there is no iron at this place",
                "a place on the face",
            ));
        }
    }
    problems.finish()?;
    Ok(asked.iter().map(at).collect())
}

pub(super) fn held_at(
    problems: &mut Problems,
    piece: Option<&FlatBody>,
    field: &str,
    request: &HeldRequest,
) -> Option<Boundary> {
    let piece = piece?;
    let (found, right) = match (request.hole, request.edge_mm) {
        (Some(hole), None) => (
            (hole < piece.holes.len()).then_some(Boundary::Hole(hole)),
            "the number of a hole, counted from 0",
        ),
        (None, Some([from, to])) => {
            let edge = (at(&from), at(&to));
            (piece.is_edge(edge).then_some(Boundary::Along(edge)), "a stretch along the outline or a hole")
        }
        _ => (None, "{\"hole\": 0} or {\"edge_mm\": [[0, 0], [0, 70]]}"),
    };
    if found.is_none() {
        problems.add(FieldProblem::new(field, "this is no hole and no edge of the face", right));
    }
    found
}

pub(super) fn problem(field: &str, message: impl Into<String>, right: &str) -> ApiError {
    ApiError::NotAcceptable(vec![FieldProblem::new(field, message, right)])
}

pub(super) fn not_laid_out(why: &dyn std::error::Error) -> ApiError {
    problem("outline_mm", why.to_string(), "a plainer face")
}

pub(super) fn not_reckoned(why: &NotReckoned) -> ApiError {
    match why {
        NotReckoned::Mesh(why) => not_laid_out(why),
        NotReckoned::NotHeld(why) => {
            problem("held", why.to_string(), "an edge or a hole where it does not move")
        }
    }
}
