//! The last stages of a plan: what each is asked from.

use super::warming;
use super::way_plan::beads_inputs;
use super::{
    BenchPlan, CheckLine, CoolingPlan, CrackPlan, FinishPlan, HandOverPlan, HeatPlan, Lock, MapPlan,
    MethodPlan, PrepPlan, TorchPlan,
};
use crate::crack::said::CrackFate;
use crate::iron::{Belief, LookTest};
use crate::job::{Became, Job, Round};
use crate::method::Way;
use crate::shop::Shop;

use crate::stage::method::MethodContext;
use crate::stage::part::PartFacts;
use crate::stage::torch::{HeatedBy, StopInputs, TorchInputs, TroubleInputs};
use crate::stage::{Stage, check, finish, hand_over, iron, part, torch};

/// What stops the job, or its heat, whatever way is gone.
pub(super) fn locks(round: &Round, facts: &PartFacts, belief: &Belief) -> Vec<Lock> {
    let each = [
        part::safety_lock(round, facts),
        part::hazard_lock(round),
        part::cavity_lock(round, facts),
        iron::white_lock(belief),
    ];
    each.into_iter().flatten().collect()
}

/// Tests by look that were not done while the iron is not told.
pub(super) fn untold(job: &Job, belief: &Belief) -> Vec<LookTest> {
    let done = |test: &LookTest| job.evidence.iter().any(|seen| seen.stands() && seen.test == test.id());
    let mut untold = LookTest::ALL.to_vec();
    untold.retain(|test| !belief.enough() && !done(test));
    untold
}

/// How many rounds before this one failed at a crack that is repaired again.
pub(super) fn failed_here(job: &Job, cracks: &[CrackPlan]) -> u32 {
    let again = cracks.iter().filter(|crack| crack.becomes == CrackFate::Repair);
    let Some(first) = again.map(|crack| crack.found_in_round).min() else { return 0 };
    let before = job.rounds.iter().enumerate().take(job.rounds.len().saturating_sub(1));
    let failed =
        |(number, round): &(usize, &Round)| number + 1 >= first && round.became() == Some(Became::Failed);
    before.filter(failed).count() as u32
}

/// What the last stages are worked out from: what was planned before them.
pub(super) struct Later<'a> {
    pub job: &'a Job,
    pub shop: &'a Shop,
    pub context: &'a MethodContext<'a>,
    pub methods: &'a MethodPlan,
    pub prep: Option<&'a PrepPlan>,
    pub heat: Option<&'a HeatPlan>,
    pub cooling: Option<&'a CoolingPlan>,
    pub map: &'a MapPlan,
    pub bench: &'a BenchPlan,
}

impl<'a> Later<'a> {
    fn round(&self) -> &'a Round {
        self.context.round
    }

    /// What may go wrong at the torch, and what would stop the work there.
    fn trouble(&self) -> Option<(TroubleInputs<'a>, StopInputs<'a>)> {
        let Self { context, shop, prep, .. } = *self;
        let (taken, heat) = (self.methods.taken()?, self.heat?);
        if !self.round().repaired() {
            return None;
        }
        let (planned, moves) = context.moves_of(taken.way);
        let steps = context.steps.powers(heat.target_c);
        let heats = context.sources_of(taken.way).and_then(|sources| {
            let power = sources.power_of(heat)?;
            Some((sources.body, steps.reheat.unwrap_or(power)))
        });
        let asked = TroubleInputs {
            round: self.round(),
            shop,
            part: context.part,
            cracks: context.cracks,
            prep,
            way: taken.way,
            moves,
            rocks: context.locked_in,
            takes: &taken.takes,
        };
        let heats = heats.filter(|_| !heat.cold);
        Some((asked, StopInputs { heat, heats, start: taken.odds_start, planned }))
    }

    /// What heats it at the torch; nothing for a cold way.
    fn heated(&self, way: Way) -> Option<HeatedBy> {
        let heat = self.heat.filter(|heat| !heat.cold)?;
        let steps = self.context.steps.powers(heat.target_c);
        let main = self.context.sources_of(way).and_then(|sources| sources.power_of(heat));
        Some(HeatedBy { main, steps, aim_c: heat.aim_c(), whole_c: heat.target_c })
    }

    pub fn torch(&self) -> Stage<Option<TorchPlan>> {
        let Self { job, shop, context, heat, prep, .. } = *self;
        let chosen = self.methods.chosen;
        let known = (context.part, context.belief.plausible.as_slice());
        torch::stage(TorchInputs {
            shop,
            job,
            part: context.part,
            way: chosen,
            heat,
            laid: prep.map(|prep| (prep, self.map)),
            cooling: self.cooling,
            beads: chosen.and_then(|way| beads_inputs(context, way, heat?, prep?)),
            body: chosen.map_or_else(|| context.body(), |way| context.body_of(way)),
            heated: chosen.and_then(|way| self.heated(way)),
            trouble: self.trouble(),
            takes: self.methods.taken().map_or(&[], |taken| taken.takes.as_slice()),
            warming: heat.and_then(|heat| warming::warming(job, known, heat, context.sims)),
        })
    }

    pub fn check(&self, torch: Option<&TorchPlan>) -> Stage<Vec<CheckLine>> {
        check::stage(&check::CheckInputs {
            shop: self.shop,
            round: self.round(),
            part: self.context.part,
            cracks: self.context.cracks,
            prep: self.prep,
            map: self.map,
            way: self.methods.chosen,
            torch,
        })
    }

    pub fn finish(&self) -> FinishPlan {
        match (self.prep, self.methods.chosen) {
            (Some(prep), Some(way)) => finish::finish_plan(finish::FinishInputs {
                round: self.round(),
                shop: self.shop,
                part: self.context.part,
                prep,
                straps: &self.context.straps(way, prep),
            }),
            _ => FinishPlan::default(),
        }
    }

    pub fn hand_over(
        &self,
        check: &[CheckLine],
        torch: Option<&TorchPlan>,
        hot: bool,
    ) -> Stage<HandOverPlan> {
        let chosen = self.methods.chosen;
        hand_over::stage(&hand_over::HandOverInputs {
            job: self.job,
            shop: self.shop,
            part: self.context.part,
            cracks: self.context.cracks,
            way: chosen,
            prep: self.prep,
            iron: self.context.belief.leading,
            ductile: chosen.is_some_and(|way| self.context.prep_inputs(way).ductile),
            check,
            torch,
            heat: self.heat,
            sizes: &self.bench.features,
            hot,
            taken: self.methods.taken(),
        })
    }
}
