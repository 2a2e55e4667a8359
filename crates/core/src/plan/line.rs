//! The plan as temperature against time: the heat line.

use serde::{Deserialize, Serialize};

use super::{CoolingPlan, HeatPlan};
use crate::base::drawn::serialize_thinned;
use crate::quantity::Unit;
use crate::stage::part::PartFacts;

/// One planned line, from lighting up to cold.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PlanLine {
    pub name: String,
    /// No heat in it: it stays on the shelf.
    pub cold: bool,
    /// (min from lighting up, degC)
    #[serde(serialize_with = "serialize_thinned")]
    pub curve: Vec<(f64, f64)>,
    /// Minutes at which the beads begin and end, it may be unwrapped, it may be touched.
    pub beads_from: f64,
    pub beads_to: f64,
    pub unwrap_at: Option<f64>,
    pub touch_at: Option<f64>,
    pub target_c: f64,
    pub most_c: f64,
    /// "300 to 400 °C"
    pub window_words: String,
    /// "may be unwrapped after 10 h 30", from lighting up; "1 h 45 at the seam" for what is done cold. Empty while not
    /// known.
    pub span_words: String,
}

pub(super) fn plan_line(
    name: &str,
    part: &PartFacts,
    heat: &HeatPlan,
    work_minutes: f64,
    covered_minutes: Option<f64>,
    cooling: &CoolingPlan,
) -> PlanLine {
    // Once it is covered the plan starts from there.
    let planned_from = heat.minutes + heat.soak_minutes;
    let beads_to = covered_minutes.unwrap_or(planned_from + work_minutes);
    let beads_from = planned_from.min(beads_to);
    let mut curve: Vec<(f64, f64)> = Vec::new();
    if !heat.cold {
        curve.extend(heat.curve.iter().map(|(at, coldest, _)| (*at, *coldest)));
        if curve.is_empty() {
            curve.push((0.0, part.ambient_c));
        }
        curve.retain(|(at, _)| *at < heat.minutes.min(beads_from));
        curve.push((heat.minutes.min(beads_from), heat.target_c));
        curve.push((beads_from, heat.target_c));
        curve.push((beads_to, cooling.start_c));
        curve.extend(cooling.curve.iter().map(|(hours, celsius)| (beads_to + hours * 60.0, *celsius)));
    }
    let after = |hours: Option<f64>| hours.map(|hours| beads_to + hours * 60.0);
    let unwrap_at = after(cooling.unwrap_hours);
    let (low, high) = part.units.window(heat.least_c, heat.most_c, Unit::Celsius);
    let window_words = format!("{} to {}", low.number, high.text());
    PlanLine {
        name: name.to_owned(),
        cold: heat.cold,
        curve,
        beads_from,
        beads_to,
        unwrap_at,
        touch_at: after(cooling.touch_hours),
        target_c: heat.target_c,
        most_c: heat.most_c,
        window_words,
        span_words: unwrap_at.map_or(String::new(), |minutes| {
            let span = part.units.say(minutes, Unit::Minutes);
            if heat.cold && cooling.cold {
                format!("{span} at the seam")
            } else {
                format!("may be unwrapped after {span}")
            }
        }),
    }
}
