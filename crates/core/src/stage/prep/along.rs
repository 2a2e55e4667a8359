//! A groove along a wall that changes: its sections, its volume, its layers.

use crate::prep::said::SeamForm;
use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use uuid::Uuid;

use super::PrepInputs;
use super::groove::{Formed, depth_words, groove_for, groove_of, layers};
use super::seam::{SeamCut, SeamPlan, rounded};
use crate::prep::groove::Groove;
use crate::prep::groove_volume::added_up;
use crate::quantity::Unit;
use crate::stage::cracks::{CrackPlan, by_rule, wall_at};

/// Sections kept of all seams together, so that a plan of hundreds of cracks stays small. Ours.
const CUTS_MOST: usize = 400;
/// Of one seam. Ours.
const CUTS_A_SEAM: usize = 24;

/// Walls along a crack that change; nothing for one wall all along, or for what was ground and measured.
pub(super) fn changing(crack: &CrackPlan) -> Option<Vec<(f64, f64)>> {
    /// House: a caliper reads no closer.
    const SAME_MM: f64 = 0.05;
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    let changes = walls.iter().any(|(_, wall)| (wall - walls[0].1).abs() > SAME_MM);
    (changes && crack.ground_mm.is_none()).then_some(walls)
}

/// How many beads lie one behind the other.
pub(super) fn bead_lengths(length_mm: f64, bead_mm: f64) -> f64 {
    // A seam of exactly so many lengths has not one more for a rounding.
    (length_mm / bead_mm - 1e-9).ceil().max(1.0)
}

/// Sides, and of each length of a bead along the crack the beads in each layer of one side; nothing where it is not
/// laid in beads.
pub(super) fn layers_by_length(
    inputs: &PrepInputs<'_>,
    crack: &CrackPlan,
    length_mm: f64,
) -> Option<(u32, Vec<Vec<u32>>)> {
    let formed = groove_of(inputs, crack, crack.wall_mm)?;
    let lengths = bead_lengths(length_mm, inputs.bead_mm);
    let walls = changing(crack);
    let by_length = (0..lengths as u32).map(|at| {
        let at_mm = length_mm * (f64::from(at) + 0.5) / lengths;
        match walls.as_ref().and_then(|walls| wall_at(walls, at_mm)) {
            Some(wall_mm) => layers(inputs.way, &groove_for(inputs, wall_mm)?.groove, wall_mm),
            None => layers(inputs.way, &formed.groove, crack.wall_mm),
        }
    });
    Some((formed.sides(), by_length.collect::<Option<_>>()?))
}

/// Beads of one side: for each length the layers of the groove in its middle.
pub(super) fn beads_along(
    inputs: &PrepInputs<'_>,
    crack: &CrackPlan,
    length_mm: f64,
    even: &Groove,
) -> Option<u32> {
    let way = inputs.way;
    let lengths = bead_lengths(length_mm, inputs.bead_mm);
    let Some(walls) = changing(crack) else {
        let layers = layers(way, even, crack.wall_mm)?;
        return Some(layers.iter().sum::<u32>() * lengths as u32);
    };
    let along = (0..lengths as u32).map(|at| length_mm * (f64::from(at) + 0.5) / lengths);
    let beads = along.filter_map(|at_mm| {
        let wall_mm = wall_at(&walls, at_mm)?;
        Some(layers(way, &groove_for(inputs, wall_mm)?.groove, wall_mm)?.iter().sum::<u32>())
    });
    Some(beads.sum())
}

/// The section at places along the seam.
pub(super) fn cuts(
    inputs: &PrepInputs<'_>,
    crack: &CrackPlan,
    seam: &SeamPlan,
    even: &Formed,
    seams: usize,
) -> Vec<SeamCut> {
    let PrepInputs { way, units, .. } = *inputs;
    let length_mm = seam.length_mm;
    let say = |mm: f64| units.say(rounded(mm), Unit::Millimetres);
    let cut = |at_mm: f64, wall_mm: f64, formed: &Formed| {
        let Formed { ref groove, root_radius_mm, .. } = *formed;
        let (section, sides) = (groove.section(), formed.sides());
        let layers = layers(way, groove, wall_mm)?;
        let beads = way.method.entry().filling.is_some_and(|filling| (filling.layer)(wall_mm).1.is_some());
        let across: Vec<String> = layers.iter().map(u32::to_string).collect();
        let (count, s) = (layers.len(), if layers.len() == 1 { "" } else { "s" });
        Some(SeamCut {
            at_mm,
            at_words: format!("{} along", by_rule(at_mm, units)),
            wall_mm,
            depth_mm: groove.depth_mm(),
            root_radius_mm,
            section,
            top_width_mm: section.top_width_mm,
            opens_words: say(section.top_width_mm),
            wall_words: say(wall_mm),
            depth_words: depth_words(inputs, groove, wall_mm, sides),
            layers_words: match (beads, sides) {
                (true, 2) => format!("each side {count} layer{s}: {} beads across", across.join(", ")),
                (true, _) => format!("{count} layer{s}: {} beads across", across.join(", ")),
                (false, _) => format!("{count} pass{}", if count == 1 { "" } else { "es" }),
            },
        })
    };
    let Some(walls) = changing(crack) else {
        return cut(0.0, seam.wall_mm, even).into_iter().collect();
    };
    let parts = (CUTS_MOST / seams.max(1)).min(CUTS_A_SEAM) as u32;
    let mut places: Vec<f64> = walls.iter().map(|(at_mm, _)| at_mm.min(length_mm)).collect();
    places.extend((0..=parts).map(|part| length_mm * f64::from(part) / f64::from(parts.max(1))));
    places.sort_by(f64::total_cmp);
    places.dedup_by(|a, b| (*a - *b).abs() < 0.5);
    let cuts = places.into_iter().filter_map(|at_mm| {
        let wall_mm = wall_at(&walls, at_mm)?;
        cut(at_mm, wall_mm, &groove_for(inputs, wall_mm)?)
    });
    cuts.collect()
}

/// A crack, and how it is ground: form, bits of the angle, through or not.
type CrackGround = (Uuid, SeamForm, u64, bool);

/// Volumes along cracks that were added up for one way and hold for every other that is ground the same.
#[derive(Default)]
pub(crate) struct AlongKnown(Mutex<HashMap<CrackGround, f64>>);

impl AlongKnown {
    fn get(&self, ground: &CrackGround) -> Option<f64> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(ground).copied()
    }

    fn keep(&self, ground: CrackGround, mm3: f64) {
        self.0.lock().unwrap_or_else(PoisonError::into_inner).insert(ground, mm3);
    }
}

/// The same, added up once for all ways with the same groove.
pub(super) fn along_known(inputs: &PrepInputs<'_>, crack: &CrackPlan, length_mm: f64, even_mm2: f64) -> f64 {
    let Some(usual) = inputs.way.method.entry().groove else { return even_mm2 * length_mm };
    let (form, angle_deg) = if inputs.both_sides { usual.both_sides } else { usual.one_side };
    let key = (crack.id, form, angle_deg.to_bits(), usual.through);
    if let Some(known) = inputs.along.get(&key) {
        return known;
    }
    let mm3 = along(inputs, crack, length_mm, even_mm2);
    inputs.along.keep(key, mm3);
    mm3
}

/// Volume in mm³ of one side of a groove along a crack whose wall may change.
pub(super) fn along(inputs: &PrepInputs<'_>, crack: &CrackPlan, length_mm: f64, even_mm2: f64) -> f64 {
    /// The wall is looked at this often along a seam. Ours.
    const EVERY_MM: f64 = 2.0;
    const LOOKS_MOST: f64 = 2_000.0;
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    if walls.len() < 2 {
        return even_mm2 * length_mm;
    }
    let looks = (length_mm / EVERY_MM).ceil().clamp(1.0, LOOKS_MOST);
    let areas: Vec<(f64, f64)> = (0..=looks as u32)
        .filter_map(|look| {
            let at_mm = length_mm * f64::from(look) / looks;
            Some((at_mm, groove_for(inputs, wall_at(&walls, at_mm)?)?.groove.section().area_mm2))
        })
        .collect();
    added_up(&areas)
}
