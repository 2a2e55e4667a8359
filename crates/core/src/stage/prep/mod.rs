//! Stage 5: groove, filler and rods, or pins.

mod along;
mod beads;
mod bench;
mod figures;
mod groove;
mod patch;
mod pinned;
mod seam;
mod size;
mod work;

use serde::Serialize;
use uuid::Uuid;

use super::cracks::CrackPlan;
use super::{Amount, Caution, Missing, Stage, Station};
use crate::crack::said::CrackFate;
use crate::crack::stop_hole::FoundBy;
use crate::field::{self, Keyed, crack};
use crate::job::{Crack, Lighting, Round};
use crate::method::{Joins, Way, wire_lays};
use crate::prep::filler::Filler;
use crate::prep::said::PrepDone;
use crate::quantity::{Unit, UnitSystem};

pub(crate) use along::AlongKnown;
use along::{bead_lengths, changing};
pub(crate) use beads::{SeamOfBeads, bead_seams};
pub(crate) use bench::{BenchInputs, missing_cm3};
pub use bench::{BenchPlan, BreakPlan, MissingPlan, ReadLine, TackPlan};
pub(crate) use groove::ChosenGroove;
use groove::{detailed, groove_seam};
use patch::patch_seam;
pub use patch::{PatchPlan, PatchRun, PatchSeam};
use pinned::{lap_seam, pin_seam};
pub use seam::{GroundAt, GroundSays, PinsThat, SeamCut, SeamPlan, UsualSeam};
pub use size::{SizePlan, SizeReading, SizeStrip};
pub use work::WorkLine;
pub(crate) use work::{BAKE_C, BAKE_MIN, WorkInputs};
use work::{part_of, work_list};

/// The work before the heat.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PrepPlan {
    pub way: Way,
    pub seams: Vec<SeamPlan>,
    /// The filler by class and size; empty for pins.
    pub filler: String,
    #[serde(skip)]
    pub volume_cm3: f64,
    /// 0 for wire and for pins.
    pub rods: f64,
    /// Filler to have at hand, in g; 0 for pins.
    #[serde(skip)]
    pub metal_g: f64,
    /// Filler that is laid, in g; 0 for pins.
    #[serde(skip)]
    pub laid_g: f64,
    /// Of the volume what is of this filler: all of it, where nothing else is laid over it.
    #[serde(skip)]
    pub first_cm3: f64,
    /// Another metal that is laid over it.
    pub over_it: Option<OverIt>,
    /// Minutes that arc or rod lay metal, without the waits.
    #[serde(skip)]
    pub laying_min: f64,
    pub beads: u32,
    /// How long each is; 0 for a way without heat.
    #[serde(skip)]
    pub bead_mm: f64,
    pub pins: u32,
    /// Locks across the cracks.
    pub locks: u32,
    /// Of the volume what builds up missing metal.
    #[serde(skip)]
    pub missing_cm3: f64,
    /// What to do, in order; of the chosen way only.
    pub work: Vec<WorkLine>,
    /// What has to be said to be done before it is lit: ids of `prep.done`, with what is still open.
    pub to_do: Vec<PrepItem>,
}

/// What is laid over a first layer of another metal.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OverIt {
    /// By class and size.
    pub filler: String,
    /// To have at hand, in g.
    pub metal_g: f64,
}

/// Something that cannot be done once the part is hot.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PrepItem {
    pub id: PrepDone,
    pub label: String,
    pub done: bool,
}

/// What a prep is laid out from.
pub(crate) struct PrepInputs<'a> {
    pub round: &'a Round,
    pub groove: ChosenGroove,
    /// What was added up for another way that is ground the same.
    pub along: &'a AlongKnown,
    pub way: Way,
    pub cracks: &'a [CrackPlan],
    pub both_sides: bool,
    pub ductile: bool,
    pub fluid_tight: bool,
    /// Paint is on it that nobody knows the age of, lead for all one knows.
    pub paint_of_unknown_age: bool,
    /// Metal that is missing and has to be built up, or a patch set in.
    pub missing: &'a [MissingPlan],
    /// The shop's own set; the ordinary one where it is empty.
    pub drills_mm: &'a [f64],
    /// Length of a bead, as it is taught.
    pub bead_mm: f64,
    /// A few pins that seal, instead of a row that carries.
    pub anchors: bool,
    pub units: UnitSystem,
}

/// The prep of a way; nothing while a crack's length or wall is not known.
pub(crate) fn prep_plan(inputs: &PrepInputs<'_>) -> Option<PrepPlan> {
    let PrepInputs { way, cracks, ductile, units, .. } = *inputs;
    let repaired = cracks.iter().filter(|crack| crack.becomes == CrackFate::Repair);
    let mut seams = Vec::with_capacity(cracks.len());
    for crack in repaired {
        let (length_mm, wall_mm) = (crack.length_mm? + crack.run_out_mm, crack.wall_mm);
        seams.push(if way.method.pins() {
            pin_seam(inputs, crack, length_mm, wall_mm)?
        } else if way.method.entry().groove.is_none() {
            lap_seam(inputs, crack, length_mm, wall_mm)
        } else {
            groove_seam(inputs, crack, length_mm, wall_mm)?
        });
    }
    if way.method.entry().joins == Joins::Pins {
        // One of which nobody has said how thick it is takes no pins yet.
        let known = |patch: &&PatchPlan| patch.wall_mm.is_some();
        let patches = inputs.missing.iter().filter_map(|it| Some((it, it.patch.as_ref().filter(known)?)));
        for (missing, patch) in patches {
            seams.push(patch_seam(inputs, missing.mark, &missing.name, patch)?);
        }
    }
    if seams.is_empty() {
        return None;
    }
    let thickest = seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    let filler = way.method.filler(thickest, ductile);
    let missing_cm3 = if way.method.without_heat() { 0.0 } else { missing_cm3(inputs.missing) };
    let volume_cm3 = seams.iter().map(|seam| seam.volume_cm3).sum::<f64>() + missing_cm3;
    let over = way.method.entry().filling.and_then(|filling| filling.over_it).map(|over| over());
    let first_cm3 = match over {
        Some(_) => {
            let of_missing = inputs.missing.iter().filter_map(|it| it.butter_cm3).sum::<f64>();
            (seams.iter().map(SeamPlan::butter_cm3).sum::<f64>() + of_missing).min(volume_cm3)
        }
        None => volume_cm3,
    };
    let over_cm3 = volume_cm3 - first_cm3;
    let laid = |filler: &Filler, cm3: f64| cm3 * filler.density_kg_m3 / 1000.0;
    let named = |filler: &Filler| {
        let size = units.say(filler.rod_diameter_mm, Unit::Millimetres);
        format!("{} {}, {size}", filler.class, filler.name)
    };
    let minutes = |filler: &Filler, cm3: f64| {
        let lays =
            way.method.entry().filling.map_or(1.0, |filling| (filling.laid_g_a_min)(filler.rod_diameter_mm));
        laid(filler, cm3) / lays
    };
    let laying_min = filler.map_or(0.0, |filler| minutes(&filler, first_cm3))
        + over.map_or(0.0, |over| laid(&over, over_cm3) / wire_lays(over.rod_diameter_mm));
    if way.method.by_arc() {
        for seam in &mut seams {
            // The holes are beads of their own.
            let in_its_beads = seam.volume_cm3 - seam.holes_cm3.iter().sum::<f64>();
            seam.travel_mm_s =
                travel_mm_s(seam, inputs.bead_mm, laying_min * 60.0 * in_its_beads / volume_cm3);
        }
    }
    Some(PrepPlan {
        way,
        laid_g: filler.map_or(0.0, |filler| laid(&filler, first_cm3)),
        first_cm3,
        over_it: over.as_ref().map(|over| OverIt { filler: named(over), metal_g: over.metal_g(over_cm3) }),
        laying_min,
        to_do: to_do(inputs),
        filler: filler.as_ref().map_or(String::new(), named),
        rods: filler.map_or(0.0, |filler| filler.rods(first_cm3)),
        metal_g: filler.map_or(0.0, |filler| filler.metal_g(first_cm3)),
        volume_cm3,
        beads: seams.iter().map(|seam| seam.beads + seam.hole_beads()).sum::<u32>()
            + build_up_beads(way, missing_cm3, thickest, inputs.bead_mm),
        bead_mm: inputs.bead_mm,
        pins: seams.iter().map(|seam| seam.pins).sum(),
        locks: seams.iter().map(|seam| seam.locks).sum(),
        missing_cm3,
        work: Vec::new(),
        seams,
    })
}

/// So fast the arc goes that the beads of a seam lay its metal in these seconds.
fn travel_mm_s(seam: &SeamPlan, bead_mm: f64, laying_s: f64) -> Option<f64> {
    let each_mm = seam.length_mm / bead_lengths(seam.length_mm, bead_mm);
    (seam.beads > 0 && laying_s > 0.0).then(|| each_mm * f64::from(seam.beads) / laying_s)
}

/// What cannot be done hot and is asked of this job. Pins are set cold: nothing.
fn to_do(inputs: &PrepInputs<'_>) -> Vec<PrepItem> {
    let PrepInputs { way, cracks, .. } = *inputs;
    if way.method.without_heat() {
        return Vec::new();
    }
    let holes = cracks.iter().flat_map(|c| &c.ends).any(|end| end.stop_hole.is_some());
    let drilled =
        cracks.iter().flat_map(|c| &c.ends).filter(|end| end.stop_hole.is_some()).all(|end| end.drilled);
    let ground =
        cracks.iter().filter(|c| c.becomes == CrackFate::Repair).all(|crack| crack.ground_mm.is_some());
    let penetrant = cracks.iter().any(|crack| crack.found_by.is_some_and(FoundBy::leaves_something));
    let asked_for = |what: PrepDone| match what {
        PrepDone::Holes => holes,
        PrepDone::Groove => way.method.entry().groove.is_some(),
        PrepDone::Inside => true,
        PrepDone::Penetrant => penetrant,
        PrepDone::Paint => inputs.paint_of_unknown_age,
    };
    // What was measured was done.
    let measured = |what: PrepDone| match what {
        PrepDone::Holes => drilled,
        PrepDone::Groove => ground,
        PrepDone::Inside | PrepDone::Penetrant | PrepDone::Paint => false,
    };
    PrepDone::all()
        .filter(|what| asked_for(*what))
        .map(|what| PrepItem {
            id: what,
            label: what.label().to_owned(),
            done: measured(what) || said_as_a_whole(inputs, what, None),
        })
        .collect()
}

/// Whether all of it was said to be done, at one crack or at every one. What was said holds for the cracks and the
/// ends that were known when it was said: one that was found since was not meant.
fn said_as_a_whole(inputs: &PrepInputs<'_>, what: PrepDone, at: Option<Uuid>) -> bool {
    let Some(held) = inputs.round.values.get(field::prep::DONE.key()) else { return false };
    let known_since = |of: &Crack| {
        let keys = [
            crack::END_A.of(of.id).as_key().into_owned(),
            crack::END_B.of(of.id).as_key().into_owned(),
            crack::BECOMES.of(of.id).as_key().into_owned(),
            crack::FOUND_BY.of(of.id).as_key().into_owned(),
        ];
        let asked_for = keys.iter().filter_map(|key| inputs.round.values.get(key));
        asked_for.map(|held| held.revision).fold(of.revision, u64::max)
    };
    let worked = |crack: &&Crack| inputs.cracks.iter().any(|c| c.id == crack.id && c.worked());
    let mut meant =
        inputs.round.cracks.iter().filter(|crack| at.is_none_or(|at| at == crack.id)).filter(worked);
    inputs.round.get(field::prep::DONE).is_some_and(|said| said.contains(&what))
        && meant.all(|crack| known_since(crack) < held.revision)
}

/// Beads that build up missing metal, laid as in a groove of this wall; none where it is filled without beads.
fn build_up_beads(way: Way, missing_cm3: f64, wall_mm: f64, bead_mm: f64) -> u32 {
    let Some((layer_mm, width_mm)) =
        way.method.entry().filling.and_then(|filling| match (filling.layer)(wall_mm) {
            (layer_mm, Some(width_mm)) => Some((layer_mm, width_mm)),
            (_, None) => None,
        })
    else {
        return 0;
    };
    (missing_cm3 * 1000.0 / (layer_mm * width_mm * bead_mm) - 1e-9).ceil().max(0.0) as u32
}

/// The stage of the chosen way, with its work list.
pub(crate) fn stage(
    asked: Option<&WorkInputs<'_>>,
    plan: Option<PrepPlan>,
    cracks: &Stage<Vec<CrackPlan>>,
    bench: &BenchPlan,
) -> Stage<Option<PrepPlan>> {
    let way = asked.map(|asked| asked.prep.way);
    let ductile = asked.is_some_and(|asked| asked.prep.ductile);
    let plan = asked.zip(plan).map(|(asked, mut plan)| {
        let cracks = asked.prep.cracks;
        let many = cracks.iter().filter(|crack| changing(crack).is_some()).count();
        for seam in &mut plan.seams {
            if let Some(crack) = cracks.iter().find(|crack| crack.id == seam.id) {
                detailed(asked.prep, crack, seam, many);
            }
        }
        plan.work = work_list(asked, &plan);
        // What is ticked line by line is done.
        for item in plan.to_do.iter_mut().filter(|item| !item.done) {
            let mut of = plan.work.iter().filter(|line| part_of(line.step.what) == Some(item.id)).peekable();
            item.done = of.peek().is_some() && of.all(|line| line.done);
        }
        plan
    });
    let grinding = "Guard on, disc rated for the speed, face shield, eyes and ears.";
    Stage {
        amount: amount(asked.map(|asked| asked.prep.round), plan.as_ref(), cracks.amount),
        missing: missing(way, plan.as_ref(), &cracks.plan),
        cautions: way
            .map(|_| Caution::new(Station::Prep, grinding))
            .into_iter()
            .chain(bench::cautions(bench))
            .collect(),
        figures: plan.as_ref().map_or_else(Vec::new, |plan| figures::figures(plan, ductile)),
        plan,
    }
}

fn missing(way: Option<Way>, prep: Option<&PrepPlan>, cracks: &[CrackPlan]) -> Vec<Missing> {
    match (way, prep) {
        (Some(way), None)
            if cracks.iter().all(|c| c.length_mm.is_some())
                && cracks.iter().any(|c| c.becomes == CrackFate::Repair) =>
        {
            vec![Missing {
                key: field::prep::DEPTH.key().to_owned(),
                station: Station::Prep,
                verb: "Lay out the groove".to_owned(),
                what: format!("{} cannot be laid out in this wall", way.label()),
                why: "the wall or the groove is outside what it can be used for".to_owned(),
            }]
        }
        _ => Vec::new(),
    }
}

/// What is laid out is begun; it is done when each line is, or when it was lit on it.
fn amount(round: Option<&Round>, prep: Option<&PrepPlan>, cracks: Amount) -> Amount {
    let lit = round.is_some_and(|round| round.lit_for() == Some(Lighting::Main));
    match (prep, cracks) {
        (Some(prep), Amount::Enough) if lit || prep.work.iter().all(|line| line.done) => Amount::Enough,
        (Some(_), _) => Amount::Something,
        (None, _) => Amount::Nothing,
    }
}
