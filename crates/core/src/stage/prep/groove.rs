//! The groove of a seam: its form, its depth, why, and what was read along it.

use super::PrepInputs;
use super::along::{along_known, beads_along, changing, cuts};
use super::seam::GroundSays;
use super::seam::{GroundAt, SeamPlan, UsualSeam, bare_seam, rounded};
use crate::field;
use crate::job::{Round, SeamReadingKind};
use crate::method::customs::GrooveDepth;
use crate::method::{Joins, Way};
use crate::prep::filler::{countersink_volume_cm3, hole_volume_cm3};
use crate::prep::groove::{Groove, GrooveForm, usual_lip_mm, usual_root_radius_mm};
use crate::prep::groove_volume::Ground;
use crate::prep::said::SeamForm;
use crate::quantity::{Rounding, Unit, WallMillimetres, number};
use crate::stage::cracks::{CrackPlan, by_rule, wall_at};

/// House: usual values where nothing is chosen.
const CROWN_MM: f64 = 1.0;

/// What is chosen of a groove. Read once: a seam asks for it at each of its places.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ChosenGroove {
    form: Option<SeamForm>,
    depth_mm: Option<f64>,
    angle_deg: Option<f64>,
    gap_mm: f64,
    cap_mm: f64,
    /// How deep it is taught to be.
    taught: GrooveDepth,
}

impl ChosenGroove {
    /// `taught` is how deep the job or the shop has it.
    pub fn of(round: &Round, taught: GrooveDepth) -> Self {
        Self {
            taught,
            form: round.get(field::prep::FORM),
            depth_mm: round.get(field::prep::DEPTH),
            angle_deg: round.get(field::prep::ANGLE),
            gap_mm: round.get(field::prep::GAP).unwrap_or(0.0),
            cap_mm: round.get(field::prep::CAP).unwrap_or(CROWN_MM),
        }
    }
}

/// A groove of a form, with the radius of its root.
#[derive(Clone, Copy)]
pub(super) struct Formed {
    pub form: SeamForm,
    pub groove: Groove,
    pub root_radius_mm: f64,
}

impl Formed {
    pub fn sides(&self) -> u32 {
        if self.form == SeamForm::DoubleV { 2 } else { 1 }
    }
}

/// The groove a method asks for in this wall, the welder's own choices first.
pub(super) fn groove_for(inputs: &PrepInputs<'_>, wall_mm: f64) -> Option<Formed> {
    let ChosenGroove { form, depth_mm, angle_deg, gap_mm, cap_mm, taught } = inputs.groove;
    let usual = inputs.way.method.entry().groove?;
    let (usual_form, usual_angle) = if inputs.both_sides { usual.both_sides } else { usual.one_side };
    let form = form.unwrap_or(usual_form);
    let to_a_lip = (wall_mm - usual_lip_mm(wall_mm)).max(wall_mm / 2.0);
    let usual_depth = match taught {
        // From both sides half is the whole wall.
        _ if form == SeamForm::DoubleV => wall_mm / 2.0,
        GrooveDepth::Through => wall_mm,
        GrooveDepth::Lip => to_a_lip,
        GrooveDepth::Half => wall_mm / 2.0,
        GrooveDepth::Usual if usual.through => wall_mm,
        GrooveDepth::Usual => to_a_lip,
    };
    let depth_mm = depth_mm.unwrap_or(usual_depth).min(wall_mm).max(1.0);
    let radius = usual_root_radius_mm(wall_mm);
    let (shape, root_radius_mm) = if form == SeamForm::U {
        (GrooveForm::U { root_radius_mm: radius }, radius)
    } else {
        (GrooveForm::V, 0.0)
    };
    let depth = WallMillimetres::new(depth_mm).ok()?;
    let groove = Groove::new(shape, depth, angle_deg.unwrap_or(usual_angle), gap_mm, cap_mm).ok()?;
    Some(Formed { form, groove, root_radius_mm })
}

/// The groove of a crack where it is this thick: as it was ground, else as it is asked for.
pub(super) fn groove_of(inputs: &PrepInputs<'_>, crack: &CrackPlan, wall_mm: f64) -> Option<Formed> {
    let mut formed = groove_for(inputs, wall_mm)?;
    if let Some((depth_mm, width_mm)) = crack.ground_mm {
        let depth = WallMillimetres::new(depth_mm.min(wall_mm)).ok()?;
        formed.groove = formed.groove.as_deep(depth).opening(width_mm);
    }
    Some(formed)
}

/// What is shown of a seam at its station, and nowhere else: its words, why it is so, its sections, what was read in
/// it.
/// `changing` is how many seams have a wall that changes.
pub(super) fn detailed(inputs: &PrepInputs<'_>, crack: &CrackPlan, seam: &mut SeamPlan, changing: usize) {
    let Some(formed) = groove_of(inputs, crack, seam.wall_mm).filter(|_| seam.section.is_some()) else {
        return;
    };
    let units = inputs.units;
    let say = |mm: f64| units.say(mm, Unit::Millimetres);
    let bare = |mm: f64| units.show(rounded(mm), Unit::Millimetres, Rounding::Nearest).number;
    let opens_mm = formed.groove.section().top_width_mm;
    seam.opens_words = say(rounded(opens_mm));
    seam.wall_words = say(seam.wall_mm);
    seam.depth_words = depth_words(inputs, &formed.groove, seam.wall_mm, formed.sides());
    seam.usual = Some(UsualSeam {
        depth: bare(seam.depth_mm),
        angle: number(seam.angle_deg, 0),
        gap: bare(seam.root_gap_mm),
        cap: bare(seam.cap_mm),
        width: bare(opens_mm),
    });
    seam.cuts = cuts(inputs, crack, seam, &formed, changing);
    seam.why = why(inputs, crack, &formed, seam.wall_mm - seam.depth_mm);
    seam.read = read(inputs, crack, formed.form, seam);
}

pub(super) fn groove_seam(
    inputs: &PrepInputs<'_>,
    crack: &CrackPlan,
    length_mm: f64,
    wall_mm: f64,
) -> Option<SeamPlan> {
    let formed = groove_of(inputs, crack, wall_mm)?;
    let Formed { form, groove, root_radius_mm } = formed;
    let (sides, angle_deg) = (formed.sides(), groove.angle_deg());
    let section = groove.section();
    let hole_cm3 = |at: usize| {
        let Some((end, hole)) = crack.ends.get(at).and_then(|end| Some((end, end.stop_hole?))) else {
            return 0.0;
        };
        let deep_mm = if end.blind { end.wall_mm - usual_lip_mm(end.wall_mm) } else { end.wall_mm };
        let groove_mm = groove.depth_mm().min(end.wall_mm);
        hole_volume_cm3(hole.drill_mm, deep_mm)
            + f64::from(sides) * countersink_volume_cm3(hole.drill_mm, groove_mm, angle_deg)
    };
    let holes_cm3 = [hole_cm3(0), hole_cm3(1)];
    let along_mm3 = match crack.ground_mm {
        // It was measured at one place, and is taken to be so all along.
        Some(_) => section.area_mm2 * length_mm,
        None => along_known(inputs, crack, length_mm, section.area_mm2),
    };
    let (root_gap_mm, cap_mm) = (inputs.groove.gap_mm, inputs.groove.cap_mm);
    let beads = sides * beads_along(inputs, crack, length_mm, &groove)?;
    Some(SeamPlan {
        ground: crack.ground_mm.is_some(),
        form: Some(form),
        depth_mm: groove.depth_mm(),
        angle_deg,
        root_radius_mm,
        root_gap_mm,
        cap_mm,
        section: Some(section),
        wall_words: String::new(),
        volume_cm3: f64::from(sides) * along_mm3 / 1000.0 + holes_cm3.iter().sum::<f64>(),
        holes_cm3,
        beads,
        ..bare_seam(crack, length_mm, wall_mm, inputs.units)
    })
}

/// How deep, how wide open, and what is left.
pub(super) fn depth_words(inputs: &PrepInputs<'_>, groove: &Groove, wall_mm: f64, sides: u32) -> String {
    let say = |mm: f64| inputs.units.say(rounded(mm), Unit::Millimetres);
    let (deep, angle) = (say(groove.depth_mm()), number(groove.angle_deg(), 0));
    let lip_mm = wall_mm - groove.depth_mm();
    if sides == 2 {
        format!("each side {deep} deep, {angle}°")
    } else if lip_mm > 0.05 {
        format!("{deep} deep, {angle}°, lip {}", say(lip_mm))
    } else {
        format!("{deep} deep, {angle}°, through")
    }
}

/// Beads in each layer of a groove, from the root up; a layer that is filled without beads counts as one.
pub(super) fn layers(way: Way, groove: &Groove, wall_mm: f64) -> Option<Vec<u32>> {
    let filling = way.method.entry().filling?;
    let (layer_mm, bead_width) = (filling.layer)(wall_mm);
    let layers = groove.beads_per_layer(layer_mm, bead_width.unwrap_or(f64::MAX));
    if !way.method.by_arc() || bead_width.is_none() {
        return Some(layers);
    }
    let filler = (filling.filler)(wall_mm, false);
    let lays_mm3_s = (filling.laid_g_a_min)(filler.rod_diameter_mm) / 60.0 / filler.density_kg_m3 * 1e6;
    Some(kept_to_travel(layers, groove.section().area_mm2 / lays_mm3_s))
}

/// So fast an arc goes along, in mm/s: slower the bead is a lump, faster it is a thread. House.
const TRAVELS_MM_S: (f64, f64) = (1.5, 4.0);

/// As many beads as lay a section between the slowest and the fastest an arc goes along; `laid_s` is how long it takes to
/// lay a mm of the seam.
fn kept_to_travel(mut layers: Vec<u32>, laid_s: f64) -> Vec<u32> {
    let travels = |layers: &[u32]| f64::from(layers.iter().sum::<u32>()) / laid_s;
    let (slowest, fastest) = TRAVELS_MM_S;
    while travels(&layers) > fastest {
        let Some(most) = layers.iter_mut().filter(|beads| **beads > 1).max() else { break };
        *most -= 1;
    }
    while travels(&layers) < slowest {
        let Some(top) = layers.last_mut() else { break };
        *top += 1;
    }
    layers
}

/// Why the groove is so.
fn why(inputs: &PrepInputs<'_>, crack: &CrackPlan, formed: &Formed, lip_mm: f64) -> Vec<String> {
    let PrepInputs { way, both_sides, units, groove: chosen, .. } = *inputs;
    let form = formed.form;
    let mut why = Vec::new();
    if crack.ground_mm.is_some() {
        why.push("It is as it was ground: what was measured counts, not what was planned.".to_owned());
        return why;
    }
    if chosen.form.is_some() {
        why.push("The form is the one chosen for this job.".to_owned());
    } else if form == SeamForm::DoubleV {
        why.push(
            "Both sides can be reached: half the wall from each holds clearly more than one side alone."
                .to_owned(),
        );
    } else if form == SeamForm::U {
        let reaches = if way.method.by_arc() { "the arc reaches" } else { "the flame and the filler reach" };
        why.push(format!("Round at its root and wide, so that {reaches} both walls."));
    } else if !both_sides {
        why.push("It can be reached from one side only.".to_owned());
    }
    if chosen.depth_mm.is_some() {
        why.push("The depth is the one typed for this job.".to_owned());
    } else if form != SeamForm::DoubleV {
        if chosen.taught == GrooveDepth::Half {
            why.push(
                "Half the wall, as it is taught here: the crack stays under it, and it carries less."
                    .to_owned(),
            );
        }
        match way.method.entry().joins {
            _ if chosen.taught == GrooveDepth::Half => {}
            _ if lip_mm > 0.05 => why.push(format!(
                "The lip of {} holds the filler up and keeps the pieces in line.",
                units.say(rounded(lip_mm), Unit::Millimetres)
            )),
            Joins::Flame => why
                .push("Through to a feather edge: rod and casting run together down to the root.".to_owned()),
            Joins::Arc => {
                why.push("Through the wall, so that the root is joined and not bridged.".to_owned())
            }
            _ => {}
        }
    }
    if changing(crack).is_some() {
        why.push("The wall changes along it: the groove is as deep as the wall is there.".to_owned());
    }
    why
}

/// Depths read while grooving, each with what it says.
fn read(inputs: &PrepInputs<'_>, crack: &CrackPlan, form: SeamForm, seam: &SeamPlan) -> Vec<GroundAt> {
    let PrepInputs { round, units, .. } = *inputs;
    let (length_mm, thickest_mm) = (seam.length_mm, seam.wall_mm);
    let say = |mm: f64| units.say(rounded(mm), Unit::Millimetres);
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    let readings =
        round.at_seams.iter().filter(|it| it.crack == crack.id && it.what == SeamReadingKind::Depth);
    let mut read: Vec<GroundAt> = readings
        .filter_map(|reading| {
            let (at_mm, depth_mm) = (reading.mm("at")?, reading.mm("depth")?);
            let wall_mm = wall_at(&walls, at_mm).unwrap_or(thickest_mm);
            let groove = groove_for(inputs, wall_mm)?.groove;
            let wall = WallMillimetres::new(wall_mm).ok()?;
            let planned_mm = groove.depth_mm();
            let left = say((wall_mm - depth_mm).max(0.0));
            let (says, sentence) = match (form, Ground::at(depth_mm, wall, wall_mm - planned_mm)) {
                _ if at_mm > length_mm + 0.5 => {
                    (GroundSays::GoOn, format!("That lies past the end of the seam: it is {} long.", say(length_mm)))
                }
                (_, Ground::GoOn { more_mm }) => {
                    (GroundSays::GoOn, format!("{} more. Metal left: {left}.", say(more_mm)))
                }
                (SeamForm::DoubleV, Ground::Stop) => (GroundSays::Stop, format!("Stop: half-way. Metal left: {left}.")),
                (_, Ground::Stop) if wall_mm - planned_mm > 0.05 => {
                    (GroundSays::Stop, format!("Stop: at the lip. Metal left: {left}."))
                }
                (_, Ground::Stop) => (GroundSays::Stop, "Stop: it is through, as planned.".to_owned()),
                (SeamForm::DoubleV, Ground::IntoTheLip { .. }) => {
                    (GroundSays::IntoTheLip, format!("Past half: stop, and take less from the other side. {left} left."))
                }
                (_, Ground::IntoTheLip { left_mm }) => (
                    GroundSays::IntoTheLip,
                    format!("Stop: into the lip, only {} left. Back it before it is filled.", say(left_mm)),
                ),
                (_, Ground::Through) => (
                    GroundSays::Through,
                    "Cut through: a backing of copper, carbon or clay before the fill, or fill the hole from its rim."
                        .to_owned(),
                ),
            };
            Some(GroundAt {
                id: reading.id,
                at_mm,
                depth_mm,
                words: format!("{} along, {} deep", by_rule(at_mm, units), say(depth_mm)),
                sentence,
                says,
            })
        })
        .collect();
    read.sort_by(|a, b| a.at_mm.total_cmp(&b.at_mm));
    read
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Hand-worked: so many beads in each layer, and so many seconds for a mm of the seam
    #[case::as_they_are(&[1, 2, 2], 2.0, &[1, 2, 2])]
    #[case::at_the_fastest(&[1, 1], 0.5, &[1, 1])]
    #[case::a_thread(&[1, 2], 0.6, &[1, 1])]
    #[case::a_thread_that_has_no_fewer(&[1], 0.1, &[1])]
    #[case::at_the_slowest(&[1, 2], 2.0, &[1, 2])]
    #[case::a_lump(&[1, 2], 3.0, &[1, 4])]
    #[case::nothing_ground(&[1], 0.0, &[1])]
    fn there_are_as_many_beads_as_an_arc_can_lay(
        #[case] layers: &[u32],
        #[case] laid_s: f64,
        #[case] expected: &[u32],
    ) {
        assert_eq!(kept_to_travel(layers.to_vec(), laid_s), expected);
    }
}
