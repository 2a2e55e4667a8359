//! What is asked of the plan, and by which of the irons in question.

use serde::Serialize;

use crate::iron::{Belief, Iron, least, least_forgiving, slowest_to_heat, strongest};
use crate::method::{Effect, MethodId, School, Target, Way, target};
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min};
use crate::quantity::Unit;
use crate::render::all_of;
use crate::stage::HeatPlan;

use crate::stage::method::Ruled;
use crate::stage::part::PartFacts;

/// One requirement, and the iron that forced it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Demand {
    /// "Preheat".
    pub what: String,
    /// "350 to 450 °C".
    pub asks: String,
    /// "ductile"; several where they agree.
    pub forced_by: String,
}

/// What each of several irons in question asks the most; nothing where only one is left.
pub fn demands(
    belief: &Belief,
    part: &PartFacts,
    chosen: Option<Way>,
    target: Option<&Target>,
    heat: Option<&HeatPlan>,
    ruled: &[Ruled],
) -> Vec<Demand> {
    let plausible = &belief.plausible;
    if plausible.len() < 2 {
        return Vec::new();
    }
    let units = part.units;
    let mut found = Vec::new();
    let mut say = |what: &str, asks: String, forced_by: String| {
        if !forced_by.is_empty() {
            found.push(Demand { what: what.to_owned(), asks, forced_by });
        }
    };
    let heated = heat.is_some_and(|heat| !heat.cold);
    // A chosen way that is not heated asks for no preheat.
    let preheat = match chosen {
        Some(_) => target.cloned().map(|target| ("Preheat", target)),
        None => warm_target(plausible, part).map(|target| ("Warm preheat", target)),
    };
    if let Some((what, target)) = preheat {
        let by = target.forced_by.map_or(String::new(), |iron| iron.label().to_lowercase());
        say(what, units.say(target.target_c, Unit::Celsius), by);
    }
    for method in MethodId::ALL {
        let by: Vec<String> = ruled
            .iter()
            .filter(|ruled| ruled.method == method && ruled.effect == Effect::Exclude)
            .filter_map(|ruled| ruled.iron.filter(|iron| plausible.contains(iron)))
            .map(|iron| iron.label().to_lowercase())
            .collect();
        say("Out", method.label().to_lowercase(), all_of(&by));
    }
    let slowest = slowest_to_heat(plausible);
    if heated {
        say("Heating time", "as it comes up slowest".to_owned(), slowest.forced_by());
    }
    let limit = least_forgiving(plausible);
    if heated {
        let allowed = limit.iron.properties().unevenness_limit_k();
        say("Unevenness", format!("under {}", units.say(allowed, Unit::Kelvins)), limit.forced_by());
    }
    let strong = strongest(&belief.setting_the_strength());
    let mpa = strong.iron.properties().tensile_mpa;
    say("Strength to match", units.say(mpa, Unit::Megapascals), strong.forced_by());
    let drill = least(plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss));
    let speed = cutting_speed_m_min(drill.iron, DrillTool::Hss);
    say("Drill no faster than", units.say(speed, Unit::MetresPerMinute), drill.forced_by());
    found
}

/// While nothing is chosen: what the warm school of the nickel arc would ask.
fn warm_target(plausible: &[Iron], part: &PartFacts) -> Option<Target> {
    let warm = Way { method: MethodId::ArcNickelIron, school: School::Warm };
    target(warm, plausible, part.wall_mm, part.restraint())
}
