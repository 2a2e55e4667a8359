//! `/api/reckon`: each calculation on its own. Stateless, numbers only, in the units of their names.

pub mod at_the_heat;
pub mod beads;
pub mod bench_work;
pub mod choice;
pub mod course;
pub mod drawn_body;
pub mod heat;
pub mod infrared;
pub mod iron;
pub mod learned;
pub mod map;
pub mod section;

use rocket::{Route, routes};
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::iron::{Iron, IronProperties};

pub fn routes() -> Vec<Route> {
    routes![
        iron::iron,
        bench_work::stop_hole,
        bench_work::drill_speed,
        bench_work::groove,
        bench_work::stitch,
        bench_work::tip_learned,
        choice::odds,
        choice::decide,
        heat::energy,
        heat::heating,
        heat::heating_band_of,
        heat::cooling,
        at_the_heat::gas,
        at_the_heat::acetylene,
        at_the_heat::sticks,
        infrared::infrared,
        infrared::infrared_aim,
        at_the_heat::edge,
        at_the_heat::oven,
        at_the_heat::out_of_heat,
        at_the_heat::pull,
        beads::bead_rise,
        beads::bead_order_of,
        course::cooling_chain_of,
        course::cooling_refit,
        course::heating_refit,
        learned::calibration,
        learned::break_ratio,
        map::seam,
        map::straighten,
        drawn_body::body_heat,
        drawn_body::body_tips,
        drawn_body::body_pull,
        drawn_body::body_load,
        section::strength_of,
    ]
}

/// The value of a choice field, or a problem with what would do.
fn chosen<T>(problems: &mut Problems, field: &str, id: &str, found: Option<T>, right: &str) -> Option<T> {
    if found.is_none() {
        let message = format!("\"{id}\" is not known here");
        problems.add(FieldProblem::new(field, message, right));
    }
    found
}

/// An iron that has properties of its own.
fn heated_iron(problems: &mut Problems, id: &str) -> Option<IronProperties> {
    let iron = Iron::from_id(id).filter(|iron| iron.has_own_properties());
    chosen(problems, "iron", id, iron, "gray, ductile or malleable").map(Iron::properties)
}
