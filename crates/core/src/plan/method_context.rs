//! Context of the method stage: the heat at hand, tried on the part, and all else the ways are judged with.

use super::lightings::bake_target_c;
use super::stages::failed_here;
use crate::field;
use crate::heat::SimCache;
use crate::iron::Belief;
use crate::job::{Job, Round};
use crate::shop::Shop;
use crate::stage::cracks::{CrackPlan, FaceGeometry};
use crate::stage::heat::{NoZone, Sources, StepSources, Zone};
use crate::stage::method::{FillsKnown, MethodContext, Moment, targets_c};
use crate::stage::part::PartFacts;
use crate::stage::prep::{AlongKnown, BenchPlan};

/// What heats the part, each tried on it.
pub(super) struct Heats {
    pub sources: Option<Sources>,
    /// The seam and what lies round it alone.
    at_the_seam: Result<Option<Sources>, NoZone>,
    /// Steps with a source of their own.
    pub steps: StepSources,
    /// What the oil is baked out with, where that is another.
    bakes: Option<Sources>,
}

impl Heats {
    pub fn at_hand(
        (round, shop): (&Round, &Shop),
        facts: &PartFacts,
        cracks: &[CrackPlan],
        belief: &Belief,
        sims: &SimCache,
    ) -> Self {
        let irons = &belief.plausible;
        let mut targets_c = targets_c(facts, belief);
        targets_c.extend(bake_target_c(round, facts));
        let of_one = |own| Sources::of_one(own, shop, facts, irons, &targets_c, sims);
        Self {
            sources: Sources::try_all(round, shop, facts, irons, &targets_c, sims),
            at_the_seam: Zone::of(cracks, facts)
                .map(|zone| Sources::of_the_zone(zone, (round, shop), facts, irons, &targets_c, sims)),
            steps: StepSources::read((round, shop), facts, irons, &targets_c, sims),
            bakes: round.get(field::heat::BAKE).and_then(of_one),
        }
    }

    pub fn for_a_bake(&self) -> Option<&Sources> {
        self.bakes.as_ref().or(self.sources.as_ref())
    }

    /// What the ways of a job are judged with.
    pub fn context<'a>(
        &'a self,
        (job, shop): (&'a Job, &'a Shop),
        (part, belief): (&'a PartFacts, &'a Belief),
        (laid, cracks): (&'a FaceGeometry<'a>, &'a [CrackPlan]),
        bench: &'a BenchPlan,
        (sims, moment): (&'a SimCache, Option<Moment>),
    ) -> MethodContext<'a> {
        MethodContext {
            job: job.id,
            round: job.round(),
            missing: &bench.missing,
            laid,
            locked_in: bench.locked_in(),
            tacks: bench.breaks.iter().map(|it| it.tacks.len()).collect(),
            moment,
            along: AlongKnown::default(),
            fills: FillsKnown::default(),
            shop,
            part,
            belief,
            cracks,
            sources: self.sources.as_ref(),
            at_the_seam: self.at_the_seam.as_ref().map(Option::as_ref).map_err(|why| *why),
            steps: &self.steps,
            sims,
            failed_here: failed_here(job, cracks),
        }
    }
}
