//! Stage 7: what to do next at the torch.

mod at_torch;
mod beads;
mod clocks;
mod heated_by;
mod lay_out;
mod lighting;
mod on_map;
mod pads;
mod pins;
mod rehearsal;
mod stop_rule;
mod stopping;
mod trouble;
mod warming;

use std::sync::Arc;

use serde::Serialize;

pub use at_torch::{AtTorch, Live, live};
pub(crate) use beads::BeadsInputs;
pub use beads::{BeadsAhead, BeadsPlan, LayerStrip, LiveBead, NextBead, SeamStrip, StripBead};
pub(crate) use clocks::Falls;
pub use clocks::TorchClock;
pub(crate) use heated_by::HeatedBy;
use lay_out::LayOut;
pub use lay_out::{LayLine, not_laid_out};
pub(crate) use lay_out::{hot_work as laid_out_hot, lines as laid_out};
pub(crate) use lighting::Bake;
pub use lighting::{TackState, TackTurn};
pub use on_map::BeadOnFace;
pub use pads::PadSeen;
pub use pins::NextPin;
use pins::in_turn;
pub use rehearsal::RehearsalStep;
use rehearsal::rehearsal;
pub(crate) use stop_rule::StopInputs;
pub use stop_rule::{StopRule, StopWay};
pub(crate) use stopping::in_one_heat;
pub use stopping::{GoOn, MustStop};
pub(crate) use trouble::TroubleInputs;
pub use trouble::{CauseView, TroubleView};
pub(crate) use warming::Warming;

use super::cooling::CoolingPlan;
use super::heat::HeatPlan;
use super::map::MapPlan;
use super::part::PartFacts;
use super::prep::PrepPlan;
use super::taught::PEENING;
use super::{Amount, Caution, Stage, Station};
use crate::faults::causes::Symptom;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{Burning, ThermalBody};
use crate::job::{Deed, Job, Reading, Round, TorchEntry};
use crate::method::PieceOfWork;
use crate::method::Way;
use crate::method::customs::Peening;
use crate::quantity::{Rounding, Shown, Unit, UnitSystem, exactly};
use crate::shop::Shop;
use crate::stores::Take;

/// Beads or pins done and to do, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TorchPlan {
    /// "bead", "pin", "strap" or "fill".
    pub piece: PieceOfWork,
    pub done: u32,
    pub planned: u32,
    /// The pin to set next; nothing for beads, and once all are in.
    pub next_pin: Option<NextPin>,
    /// How a seam is filled by a flame; nothing for what is laid bead by bead, and for what is cold.
    pub flow: Option<Flow>,
    /// The beads in their order; nothing for a flame and for what is cold.
    pub beads: Option<BeadsPlan>,
    /// Where the first pad lies.
    #[serde(skip)]
    pub(crate) pad_at: String,
    /// What a later reading is judged by.
    #[serde(skip)]
    pub(crate) ahead: Option<Arc<BeadsAhead>>,
    /// What cools when it is out of the heat; nothing for a way that is not heated.
    #[serde(skip)]
    pub(crate) falls: Option<Falls>,
    /// It left the heat, and did not come back.
    pub out: bool,
    /// What may be behind each thing that goes wrong; empty while it is not lit.
    pub trouble: Vec<TroubleView>,
    /// Whether to go on; nothing while it is not lit, or once it is covered.
    pub stop_rule: Option<StopRule>,
    /// Between these, in degC, a bead may begin; nothing for a way without heat.
    pub window: Option<(f64, f64)>,
    /// Its ends as they are shown everywhere: "500", "750".
    pub window_ends: Option<(String, String)>,
    /// What the part is brought to before the first bead, in degC.
    #[serde(skip)]
    pub aim_c: f64,
    /// How long it then soaks, in min; 0 for none.
    #[serde(skip)]
    pub soak_min: f64,
    /// What must stay cool and did not: said aloud, and on the record.
    pub passed: Vec<String>,
    /// The last temperature read at the joint; nothing while none was.
    pub joint: Option<JointView>,
    /// What the other pads show.
    pub pads: Vec<PadSeen>,
    /// When the oven's program was started, in minutes on the job clock; nothing while it does not run.
    pub oven_from_min: Option<f64>,
    /// How the heating goes.
    #[serde(skip)]
    pub(crate) warming: Option<Warming>,
    /// Peening belongs to this way.
    pub peen: bool,
    /// What lies ready before it is lit: after that one cannot stop.
    pub lay_out: Vec<LayLine>,
    /// What will happen, step by step; empty once it is begun. It is asked for.
    #[serde(skip)]
    pub rehearsal: Vec<RehearsalStep>,
    /// So many steps that has.
    pub rehearsal_steps: usize,
    /// What a helper holds, does and looks out for.
    pub helper: Vec<String>,
    /// What is done at once when it must stop.
    pub must_stop: MustStop,
    /// What going on needs, of what was stopped before all was done; nothing where it was not.
    pub go_on: Option<GoOn>,
}

/// A seam that is filled in one flow.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Flow {
    /// One is being filled: its end comes next.
    pub begun: bool,
    /// "In one flow, about 9 min: begun at 1 h 05."
    pub words: String,
}

impl Flow {
    fn of(way: Way, round: &Round, prep: Option<&PrepPlan>, units: UnitSystem) -> Option<Self> {
        let prep = prep.filter(|prep| way.method.in_one_flow() && !prep.seams.is_empty())?;
        let minutes = prep.laying_min / prep.seams.len() as f64;
        let takes = units.say(minutes.max(1.0), Unit::Minutes);
        let since = round.flows_since();
        let words = match since {
            Some(since) => {
                format!("In one flow, about {takes}: begun at {}.", exactly(since, Unit::Minutes).0.text())
            }
            None => format!("In one flow, about {takes}: say when it begins, and when it is filled."),
        };
        Some(Self { begun: since.is_some(), words })
    }
}

/// The joint's own temperature, judged by the method.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JointView {
    pub metric: Shown,
    pub imperial: Shown,
    /// When it was read: "1 h 05".
    pub at: String,
    /// What it means: "too cold to braze ...".
    pub words: String,
}

/// What the work at the torch is planned from.
pub(crate) struct TorchInputs<'a> {
    pub shop: &'a Shop,
    pub job: &'a Job,
    pub part: &'a PartFacts,
    pub way: Option<Way>,
    pub heat: Option<&'a HeatPlan>,
    pub laid: Option<(&'a PrepPlan, &'a MapPlan)>,
    pub cooling: Option<&'a CoolingPlan>,
    pub beads: Option<BeadsInputs<'a>>,
    /// The casting as the heat model sees it.
    pub body: Option<ThermalBody>,
    /// What heats it, each step by its own source; nothing where that is not known or nothing does.
    pub heated: Option<HeatedBy>,
    pub trouble: Option<(TroubleInputs<'a>, StopInputs<'a>)>,
    /// What it takes from the stores.
    pub takes: &'a [Take],
    pub warming: Option<Warming>,
}

pub(crate) fn stage(inputs: TorchInputs<'_>) -> Stage<Option<TorchPlan>> {
    let TorchInputs {
        shop,
        job,
        part,
        way,
        heat,
        laid,
        cooling,
        beads,
        body,
        heated,
        trouble,
        takes,
        warming,
    } = inputs;
    let prep = laid.map(|(prep, _)| prep);
    let mut plan = way.zip(heat).map(|(way, heat)| TorchPlan {
        peen: way.method.arc() && PEENING.for_method(way.method, job.round(), shop) != Peening::None,
        lay_out: laid_out(
            job.round(),
            LayOut { round: job.round(), shop, job: job.id, part, way, heat, prep, cooling, takes }.words(),
        ),
        ..torch_plan(job, part, way, heat, prep, cooling)
    });
    if let (Some(plan), Some((prep, map))) = (&mut plan, laid) {
        in_turn(plan, job.round(), (prep, map), part.units);
    }
    if let (Some(plan), Some(heat)) = (&mut plan, heat) {
        let burning = heated.map_or(Burning::Off, |heated| heated.last_in(job.round()));
        plan.falls = body.filter(|_| !heat.cold).map(|body| Falls { body, burning });
        plan.warming = warming;
    }
    if let (Some(plan), Some((mut beads, ahead))) = (&mut plan, beads.map(BeadsInputs::plan)) {
        if let Some((_, map)) = laid {
            on_map::lay_on_map(&mut beads, map);
        }
        (plan.beads, plan.ahead) = (Some(beads), Some(Arc::new(ahead)));
    }
    if let (Some(plan), Some(heat)) = (&mut plan, heat.filter(|_| !job.round().repaired())) {
        plan.rehearsal = rehearsal(plan, heat, cooling, part.units);
        plan.rehearsal_steps = plan.rehearsal.len();
    }
    let burning = job.round().repaired() && job.round().covered_minutes().is_none();
    if let (Some(plan), Some((trouble, stop))) = (&mut plan, &trouble) {
        plan.go_on = stop.go_on(trouble, plan);
    }
    if let (Some(plan), Some((trouble, stop)), true) = (&mut plan, trouble, burning) {
        plan.trouble = trouble.views(plan);
        plan.stop_rule = Some(stop.rule(&trouble, plan));
    }
    let cautions = way.map_or(&[][..], |way| way.method.entry().at_torch);
    Stage {
        amount: amount(job.round(), plan.as_ref()),
        missing: Vec::new(),
        cautions: cautions.iter().map(|&caution| Caution::new(Station::Torch, caution)).collect(),
        figures: hottest(job.round()).into_iter().collect(),
        plan,
    }
}

/// What the pad showed at most, for the record.
#[must_use]
pub fn hottest(round: &Round) -> Option<Figure> {
    let hottest = round.readings.iter().max_by(|a, b| a.celsius.total_cmp(&b.celsius));
    hottest.map(|hottest| {
        Figure::new("torch.hottest", "Hottest at the pad", hottest.celsius, Unit::Celsius)
            .rounded(Rounding::Exact)
            .because(format!(
                "The highest of {} readings, {} after lighting up.",
                round.readings.len(),
                exactly(hottest.minutes, Unit::Minutes).0.text()
            ))
            .fact("Pad", "at the coldest far corner")
            .source(Source::Shop, Certainty::Measured)
    })
}

fn torch_plan(
    job: &Job,
    part: &PartFacts,
    way: Way,
    heat: &HeatPlan,
    prep: Option<&PrepPlan>,
    cooling: Option<&CoolingPlan>,
) -> TorchPlan {
    let (round, units) = (job.round(), part.units);
    let pins = way.method.without_heat();
    let window = (!pins).then_some((heat.least_c, heat.most_c));
    let aim_c = heat.aim_c();
    let mut passed = passed(job, part);
    if !pins && !heat.cold && heat.soak_minutes > 0.0 && round.repaired() {
        passed.extend(AtTorch::begun_early(round, (aim_c, heat.least_c), heat.soak_minutes, units));
    }
    TorchPlan {
        aim_c,
        pad_at: heat.pad_at.clone(),
        soak_min: heat.soak_minutes,
        passed,
        joint: round.latest_joint().map(|joint| {
            let (metric, imperial) = exactly(joint.celsius, Unit::Celsius);
            let at = exactly(joint.minutes, Unit::Minutes).0.text();
            JointView {
                metric,
                imperial,
                at,
                words: (way.method.entry().joint_words)(joint.celsius, window, units),
            }
        }),
        pads: pads::pads(round, window, (&part.heat_shy, units)),
        oven_from_min: round.oven_runs(),
        warming: None,
        piece: way.method.piece(),
        done: round.beads() as u32,
        planned: prep.map_or(0, |prep| match way.method.piece() {
            // A flame fills a seam from its beginning to its end, however many layers that takes.
            PieceOfWork::Bead if way.method.in_one_flow() => {
                let seams = prep.seams.iter().filter(|seam| seam.beads > 0).count() as u32;
                // What was counted bead by bead, before seams were, is no more than all of it.
                if round.lit.is_some() { seams.max(round.beads() as u32) } else { seams }
            }
            PieceOfWork::Pin => prep.pins,
            PieceOfWork::Bead => prep.beads,
            PieceOfWork::Strap | PieceOfWork::Fill => prep.seams.len() as u32,
        }),
        next_pin: None,
        flow: Flow::of(way, round, prep, units),
        beads: None,
        ahead: None,
        falls: None,
        out: clocks::is_out(round),
        trouble: Vec::new(),
        stop_rule: None,
        window,
        window_ends: window.map(|ends| units.window_ends(ends)),
        peen: way.method.arc(),
        lay_out: Vec::new(),
        rehearsal: Vec::new(),
        rehearsal_steps: 0,
        helper: lay_out::helper_words(way, heat, part),
        must_stop: MustStop::of(way, heat, cooling),
        go_on: None,
    }
}

/// What must stay cool and was passed at the coldest place of the part: so it was passed everywhere.
fn passed(job: &Job, part: &PartFacts) -> Vec<String> {
    // As it was read: rounded, what was passed by a degree would read as kept.
    let say = |celsius| part.units.say_exactly(celsius, Unit::Celsius);
    let hottest = job
        .heats()
        .flat_map(|heat| {
            let by_hand = heat.log.iter().filter(|entry| entry.stands() && !entry.at_joint);
            let by_hand =
                by_hand.filter_map(|entry| Some(Reading { minutes: entry.minutes, celsius: entry.celsius? }));
            by_hand.chain(heat.readings.iter().copied()).chain(heat.melted()).collect::<Vec<_>>()
        })
        .max_by(|a, b| a.celsius.total_cmp(&b.celsius));
    let Some(hottest) = hottest else { return Vec::new() };
    part.heat_shy
        .iter()
        .filter_map(|shy| Some((&shy.what, shy.limit_c?)))
        .filter(|(_, limit_c)| hottest.celsius > *limit_c)
        .map(|(what, limit_c)| {
            format!(
                "{what}: passed its {} ({} at the coldest place, {} after lighting up). Look at it.",
                say(limit_c),
                say(hottest.celsius),
                exactly(hottest.minutes, Unit::Minutes).0.text()
            )
        })
        .collect()
}

fn amount(round: &Round, torch: Option<&TorchPlan>) -> Amount {
    let covered = round.repaired() && round.covered_minutes().is_some();
    let all_done = round.repaired() && torch.is_some_and(|t| t.planned > 0 && t.done >= t.planned);
    if covered || (all_done && torch.is_some_and(|t| t.window.is_none())) {
        Amount::Enough
    } else if round.lit.is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}

/// The last bead has not been peened yet.
pub(crate) fn wants_peening(round: &Round) -> bool {
    round
        .standing_log()
        .rev()
        .find(|e| matches!(e.entry, TorchEntry::Bead { .. } | TorchEntry::Peened))
        .is_some_and(|e| matches!(e.entry, TorchEntry::Bead { .. }))
}

/// A crack was seen beside a bead and is not ground out yet.
fn wants_grinding(round: &Round) -> bool {
    let crack = |entry: &TorchEntry| matches!(entry, TorchEntry::Trouble { seen: Symptom::ToeCrack, .. });
    let ground = |entry: &TorchEntry| *entry == TorchEntry::Did { what: Deed::GroundOut };
    let last = round.standing_log().rev().find(|it| crack(&it.entry) || ground(&it.entry));
    last.is_some_and(|it| crack(&it.entry))
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use crate::method::MethodId;
    use crate::quantity::UnitSystem;

    #[rstest]
    #[case::far_too_cold(MethodId::TorchBraze, 600.0, "too cold to braze")]
    #[case::just_too_cold(MethodId::TorchBraze, 699.0, "too cold to braze")]
    #[case::try_the_rod(MethodId::TorchBraze, 700.0, "touch the rod")]
    #[case::sims(MethodId::TorchBraze, 880.0, "bronze runs")]
    #[case::still_runs(MethodId::TorchBraze, 950.0, "bronze runs")]
    #[case::boils(MethodId::TorchBraze, 951.0, "too hot")]
    #[case::nickel_waits(MethodId::ArcNickel, 401.0, "wait until under 400 °C")]
    #[case::nickel_goes_on(MethodId::ArcNickel, 400.0, "ready")]
    #[case::gas(MethodId::GasIron, 900.0, "flow")]
    fn a_joint_is_judged_by_its_method(#[case] method: MethodId, #[case] celsius: f64, #[case] words: &str) {
        let said = (method.entry().joint_words)(celsius, Some((260.0, 400.0)), UnitSystem::Metric);
        assert!(said.contains(words), "{said}");
    }
}
