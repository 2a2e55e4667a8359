//! Full plan of one way: its prep, its heat, its beads, its cooling.

use super::line::{self, PlanLine};
use super::{CoolingPlan, HeatPlan, PrepPlan};
use crate::heat::packing_words;
use crate::iron::slowest_to_heat;
use crate::method::{School, Target, Way};
use crate::stage::cooling::wrapping;
use crate::stage::method::MethodContext;
use crate::stage::part::PartFacts;
use crate::stage::torch::BeadsInputs;
use crate::stage::{cooling, heat, prep};

/// Full plan of one way.
#[derive(Default)]
pub(super) struct WayPlan {
    pub way: Option<Way>,
    pub target: Option<Target>,
    pub prep: Option<PrepPlan>,
    pub heat: Option<HeatPlan>,
    pub cooling: Option<CoolingPlan>,
    pub covered_minutes: Option<f64>,
    /// At the seams.
    pub fill_min: f64,
}

impl WayPlan {
    pub fn of(context: &MethodContext<'_>, way: Way) -> Self {
        let target = context.target_of(way);
        let prep = prep::prep_plan(&context.prep_inputs(way));
        let heat = heat::heat_plan(way, target.as_ref(), context.sources_of(way), context.part, context.sims);
        let wrap = wrapping(context.round, context.shop, way);
        // Cooling starts at the last reading once covered, or at the most between beads in a plan.
        let covered_c = context
            .round
            .covered_minutes()
            .and_then(|covered| context.round.measured_at(covered).map(|reading| reading.celsius));
        // A stick that melted says how hot it was at least.
        let at_most_c = || {
            let most_c = heat.as_ref()?.most_c;
            Some(context.round.melted().map(|it| it.celsius).fold(most_c, f64::max))
        };
        let start_c = covered_c.or_else(at_most_c);
        let slowest = slowest_to_heat(&context.belief.plausible).iron;
        let body = match way.school {
            School::Local => context.body_of(way),
            _ => context.part.body(slowest.properties()),
        };
        let cooling = start_c.and_then(|start_c| {
            cooling::cooling_plan(
                way,
                start_c,
                &wrap,
                body.as_ref(),
                (context.round, context.part),
                context.sims,
            )
        });
        let learned = packing_words(&context.shop.learned, wrap.packing());
        let whole = context.part.body(slowest.properties()).filter(|_| way.school == School::Local);
        let cooling = match (cooling, body, whole) {
            (Some(zone), Some(body), Some(whole)) => {
                Some(zone.no_sooner_than((&body, &whole), &wrap, context.sims))
            }
            (cooling, _, _) => cooling,
        };
        let cooling =
            cooling.map(|it| CoolingPlan { learned: if it.cold { String::new() } else { learned }, ..it });
        Self {
            way: Some(way),
            target,
            fill_min: prep.as_ref().map_or(0.0, |prep| context.fill(way, prep).minutes),
            prep,
            heat,
            cooling,
            covered_minutes: context.round.covered_minutes(),
        }
    }

    pub fn line(&self, facts: &PartFacts) -> Option<PlanLine> {
        let (way, heat, cooling) = (self.way?, self.heat.as_ref()?, self.cooling.as_ref()?);
        let covered = self.covered_minutes;
        heat.reached.then(|| line::plan_line(&way.label(), facts, heat, self.fill_min, covered, cooling))
    }
}

/// What the beads of the chosen way are put in order from; nothing while the casting is not known.
pub(super) fn beads_inputs<'a>(
    context: &MethodContext<'a>,
    way: Way,
    heat: &'a HeatPlan,
    prep: &PrepPlan,
) -> Option<BeadsInputs<'a>> {
    Some(BeadsInputs {
        round: context.round,
        heat,
        to_fill: context.to_fill(way, prep)?,
        planned: prep.beads,
        sims: context.sims,
        units: context.shop.units,
    })
}
