//! One seam: its groove all along, as it is ground and filled, or its row of pins.

use std::cell::RefCell;
use std::collections::HashMap;

use serde::Serialize;
use uuid::Uuid;

use super::PrepAsked;
use super::patch::PatchSeam;
use crate::field;
use crate::job::{Round, SeamReadingKind};
use crate::method::{Joins, Way};
use crate::pins::rows::{
    StitchOutline, StitchRow, crack_order, lock_length_mm, locks_across, pin_for_wall_mm, tap_drill_mm,
};
use crate::prep::filler::{countersink_volume_cm3, hole_volume_cm3};
use crate::prep::groove::{Groove, GrooveForm, GrooveSection, usual_lip_mm, usual_root_radius_mm};
use crate::prep::groove_volume::{Ground, added_up};
use crate::prep::missing_metal::BUTTER_MM;
use crate::quantity::{Rounding, Unit, UnitSystem, WallMillimetres, number};
use crate::stage::cracks::{CrackPlan, by_rule, wall_at};

/// One seam: a crack's groove, or its row of pins.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamPlan {
    /// The crack it follows.
    pub id: Uuid,
    pub letter: String,
    /// It was ground: depth and width are measured.
    pub ground: bool,
    pub length_mm: f64,
    pub wall_mm: f64,
    pub wall_guessed: bool,
    /// V, U or double_V; nothing where pins are set.
    pub form: Option<String>,
    pub depth_mm: f64,
    pub angle_deg: f64,
    pub root_radius_mm: f64,
    pub root_gap_mm: f64,
    pub cap_mm: f64,
    pub section: Option<GrooveSection>,
    /// For the drawing: "9.8 mm", "14 mm", "10.5 mm deep, 70°, lip 1.5 mm".
    pub opens_words: String,
    pub wall_words: String,
    pub depth_words: String,
    /// What its fields would say; nothing where pins are set.
    pub usual: Option<UsualSeam>,
    pub volume_cm3: f64,
    pub beads: u32,
    pub pins: u32,
    pub pin_mm: f64,
    /// Locks across the crack, and how long each is; 0 where none are set.
    pub locks: u32,
    pub lock_mm: f64,
    pub pitch_mm: f64,
    /// Where along the crack the first pin stands: under 0 beyond an end that goes on, else within the edge.
    pub first_pin_mm: f64,
    pub tap_drill_mm: f64,
    /// Pin numbers from the left end, in the order they go in.
    pub pin_order: Vec<u32>,
    /// Which pins: those that "draw" the sides together or those that "push" outwards; empty where none are set.
    pub pins_that: String,
    /// Where it is no crack but runs round a patch.
    pub patch: Option<PatchSeam>,
    /// Why the groove is so, each reason a sentence.
    pub why: Vec<String>,
    /// The section at places along the seam, from its first end on: one where it is the same all along.
    pub cuts: Vec<SeamCut>,
    /// Depths read while grooving, from the first end on.
    pub read: Vec<GroundAt>,
}

/// The groove across the seam at one place.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamCut {
    /// From the first end.
    pub at_mm: f64,
    /// "40 mm along"
    pub at_words: String,
    pub wall_mm: f64,
    pub depth_mm: f64,
    pub root_radius_mm: f64,
    pub section: GrooveSection,
    pub opens_words: String,
    pub wall_words: String,
    pub depth_words: String,
    /// "3 layers: 1, 2 and 2 beads across"; empty for a groove filled without beads.
    pub layers_words: String,
}

/// A depth read in the groove.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GroundAt {
    pub id: Uuid,
    pub at_mm: f64,
    pub depth_mm: f64,
    /// "40 mm along, 9.5 mm deep"
    pub words: String,
    /// What it says: how much more, or to stop.
    pub sentence: String,
    /// go_on, stop, into_the_lip or through.
    pub says: String,
}

impl SeamPlan {
    /// Half of what the groove opens at the face where the wall is so thick.
    #[must_use]
    pub fn half_width_mm(&self, wall_mm: f64) -> f64 {
        let Some(section) = self.section else { return 0.0 };
        if self.depth_mm <= 0.0 || (wall_mm - self.wall_mm).abs() < 0.01 {
            return section.top_width_mm / 2.0;
        }
        // The same lip, or the same share of the wall, is left wherever it is.
        let double = self.form.as_deref() == Some("double_V");
        let deep = if double { wall_mm / 2.0 } else { wall_mm - (self.wall_mm - self.depth_mm) };
        let form = match self.form.as_deref() {
            Some("U") => GrooveForm::U { root_radius_mm: self.root_radius_mm },
            _ => GrooveForm::V,
        };
        WallMillimetres::new(deep.max(1.0))
            .ok()
            .and_then(|deep| Groove::new(form, deep, self.angle_deg, self.root_gap_mm, self.cap_mm).ok())
            .map_or(section.top_width_mm / 2.0, |groove| groove.section().top_width_mm / 2.0)
    }
}

/// A groove as it would be typed into its fields: bare numbers, in the units of the shop.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UsualSeam {
    pub depth: String,
    pub angle: String,
    pub gap: String,
    pub cap: String,
    pub width: String,
}

/// House: usual values where nothing is chosen.
const CROWN_MM: f64 = 1.0;

/// Sections kept of all seams together, so that a plan of hundreds of cracks stays small. Ours.
const CUTS_MOST: usize = 400;
/// Of one seam. Ours.
const CUTS_A_SEAM: usize = 24;

/// What is chosen of a groove. Read once: a seam asks for it at each of its places.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ChosenGroove<'a> {
    form: Option<&'a str>,
    depth_mm: Option<f64>,
    angle_deg: Option<f64>,
    gap_mm: f64,
    cap_mm: f64,
    /// How deep it is taught to be.
    school: &'a str,
}

impl<'a> ChosenGroove<'a> {
    /// `school` is how deep it is taught to be, as the job or the shop follows it.
    pub fn of(round: &'a Round, school: &'a str) -> Self {
        Self {
            school,
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
struct Formed<'a> {
    form: &'a str,
    groove: Groove,
    root_radius_mm: f64,
}

impl Formed<'_> {
    fn sides(&self) -> u32 {
        if self.form == "double_V" { 2 } else { 1 }
    }
}

/// The groove a method asks for in this wall, the welder's own choices first.
fn groove_for<'a>(asked: &PrepAsked<'a>, wall_mm: f64) -> Option<Formed<'a>> {
    let ChosenGroove { form, depth_mm, angle_deg, gap_mm, cap_mm, school } = asked.groove;
    let usual = asked.way.method.entry().groove?;
    let (usual_form, usual_angle) = if asked.both_sides { usual.both_sides } else { usual.one_side };
    let form = form.unwrap_or(usual_form);
    let to_a_lip = (wall_mm - usual_lip_mm(wall_mm)).max(wall_mm / 2.0);
    let usual_depth = match school {
        // From both sides half is the whole wall.
        _ if form == "double_V" => wall_mm / 2.0,
        "through" => wall_mm,
        "lip" => to_a_lip,
        "half" => wall_mm / 2.0,
        _ if usual.through => wall_mm,
        _ => to_a_lip,
    };
    let depth_mm = depth_mm.unwrap_or(usual_depth).min(wall_mm).max(1.0);
    let radius = usual_root_radius_mm(wall_mm);
    let (shape, root_radius_mm) =
        if form == "U" { (GrooveForm::U { root_radius_mm: radius }, radius) } else { (GrooveForm::V, 0.0) };
    let depth = WallMillimetres::new(depth_mm).ok()?;
    let groove = Groove::new(shape, depth, angle_deg.unwrap_or(usual_angle), gap_mm, cap_mm).ok()?;
    Some(Formed { form, groove, root_radius_mm })
}

/// The groove of a crack where it is this thick: as it was ground, else as it is asked for.
fn groove_of<'a>(asked: &PrepAsked<'a>, crack: &CrackPlan, wall_mm: f64) -> Option<Formed<'a>> {
    let mut formed = groove_for(asked, wall_mm)?;
    if let Some((depth_mm, width_mm)) = crack.ground_mm {
        let depth = WallMillimetres::new(depth_mm.min(wall_mm)).ok()?;
        formed.groove = formed.groove.as_deep(depth).opening(width_mm);
    }
    Some(formed)
}

/// What is shown of a seam at its station, and nowhere else: its words, why it is so, its sections, what was read in
/// it.
/// `changing` is how many seams have a wall that changes.
pub(super) fn detailed(asked: &PrepAsked<'_>, crack: &CrackPlan, seam: &mut SeamPlan, changing: usize) {
    let Some(formed) = groove_of(asked, crack, seam.wall_mm).filter(|_| seam.section.is_some()) else {
        return;
    };
    let units = asked.units;
    let say = |mm: f64| units.say(mm, Unit::Millimetres);
    let bare = |mm: f64| units.show(rounded(mm), Unit::Millimetres, Rounding::Nearest).number;
    let opens_mm = formed.groove.section().top_width_mm;
    seam.opens_words = say(rounded(opens_mm));
    seam.wall_words = say(seam.wall_mm);
    seam.depth_words = depth_words(asked, &formed.groove, seam.wall_mm, formed.sides());
    seam.usual = Some(UsualSeam {
        depth: bare(seam.depth_mm),
        angle: number(seam.angle_deg, 0),
        gap: bare(seam.root_gap_mm),
        cap: bare(seam.cap_mm),
        width: bare(opens_mm),
    });
    seam.cuts = cuts(asked, crack, seam, &formed, changing);
    seam.why = why(asked, crack, &formed, seam.wall_mm - seam.depth_mm);
    seam.read = read(asked, crack, formed.form, seam);
}

pub(super) fn groove_seam(
    asked: &PrepAsked<'_>,
    crack: &CrackPlan,
    length_mm: f64,
    wall_mm: f64,
) -> Option<SeamPlan> {
    let formed = groove_of(asked, crack, wall_mm)?;
    let Formed { form, groove, root_radius_mm } = formed;
    let (sides, angle_deg) = (formed.sides(), groove.angle_deg());
    let section = groove.section();
    let holes_cm3: f64 = crack
        .ends
        .iter()
        .filter_map(|end| Some((end.stop_hole?, end.blind, end.wall_mm)))
        .map(|(hole, blind, wall_mm)| {
            let deep_mm = if blind { wall_mm - usual_lip_mm(wall_mm) } else { wall_mm };
            let groove_mm = groove.depth_mm().min(wall_mm);
            hole_volume_cm3(hole.drill_mm, deep_mm)
                + f64::from(sides) * countersink_volume_cm3(hole.drill_mm, groove_mm, angle_deg)
        })
        .sum();
    let along_mm3 = match crack.ground_mm {
        // It was measured at one place, and is taken to be so all along.
        Some(_) => section.area_mm2 * length_mm,
        None => along_known(asked, crack, length_mm, section.area_mm2),
    };
    let (root_gap_mm, cap_mm) = (asked.groove.gap_mm, asked.groove.cap_mm);
    let beads = sides * beads_along(asked, crack, length_mm, &groove)?;
    Some(SeamPlan {
        ground: crack.ground_mm.is_some(),
        form: Some(form.to_owned()),
        depth_mm: groove.depth_mm(),
        angle_deg,
        root_radius_mm,
        root_gap_mm,
        cap_mm,
        section: Some(section),
        wall_words: String::new(),
        volume_cm3: f64::from(sides) * along_mm3 / 1000.0 + holes_cm3,
        beads,
        ..bare_seam(crack, length_mm, wall_mm, asked.units)
    })
}

/// How deep, how wide open, and what is left.
fn depth_words(asked: &PrepAsked<'_>, groove: &Groove, wall_mm: f64, sides: u32) -> String {
    let say = |mm: f64| asked.units.say(rounded(mm), Unit::Millimetres);
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
fn layers(way: Way, groove: &Groove, wall_mm: f64) -> Option<Vec<u32>> {
    let (layer_mm, bead_width) = way.method.entry().filling.map(|filling| (filling.layer)(wall_mm))?;
    Some(groove.beads_per_layer(layer_mm, bead_width.unwrap_or(f64::MAX)))
}

/// Walls along a crack that change; nothing for one wall all along, or for what was ground and measured.
pub(super) fn changing(crack: &CrackPlan) -> Option<Vec<(f64, f64)>> {
    /// A caliper reads no closer.
    const SAME_MM: f64 = 0.05;
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    let changes = walls.iter().any(|(_, wall)| (wall - walls[0].1).abs() > SAME_MM);
    (changes && crack.ground_mm.is_none()).then_some(walls)
}

/// Sides, and of each length of a bead along the crack the beads in each layer of one side; nothing where it is not
/// laid in beads.
pub(super) fn layers_by_length(
    asked: &PrepAsked<'_>,
    crack: &CrackPlan,
    length_mm: f64,
) -> Option<(u32, Vec<Vec<u32>>)> {
    let formed = groove_of(asked, crack, crack.wall_mm)?;
    let lengths = (length_mm / asked.bead_mm - 1e-9).ceil().max(1.0);
    let walls = changing(crack);
    let by_length = (0..lengths as u32).map(|at| {
        let at_mm = length_mm * (f64::from(at) + 0.5) / lengths;
        match walls.as_ref().and_then(|walls| wall_at(walls, at_mm)) {
            Some(wall_mm) => layers(asked.way, &groove_for(asked, wall_mm)?.groove, wall_mm),
            None => layers(asked.way, &formed.groove, crack.wall_mm),
        }
    });
    Some((formed.sides(), by_length.collect::<Option<_>>()?))
}

/// Beads of one side: for each length the layers of the groove in its middle.
fn beads_along(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, even: &Groove) -> Option<u32> {
    let way = asked.way;
    let lengths = (length_mm / asked.bead_mm - 1e-9).ceil().max(1.0);
    let Some(walls) = changing(crack) else {
        let layers = layers(way, even, crack.wall_mm)?;
        return Some(layers.iter().sum::<u32>() * lengths as u32);
    };
    let along = (0..lengths as u32).map(|at| length_mm * (f64::from(at) + 0.5) / lengths);
    let beads = along.filter_map(|at_mm| {
        let wall_mm = wall_at(&walls, at_mm)?;
        Some(layers(way, &groove_for(asked, wall_mm)?.groove, wall_mm)?.iter().sum::<u32>())
    });
    Some(beads.sum())
}

/// The section at places along the seam.
fn cuts(
    asked: &PrepAsked<'_>,
    crack: &CrackPlan,
    seam: &SeamPlan,
    even: &Formed<'_>,
    seams: usize,
) -> Vec<SeamCut> {
    let PrepAsked { way, units, .. } = *asked;
    let length_mm = seam.length_mm;
    let say = |mm: f64| units.say(rounded(mm), Unit::Millimetres);
    let cut = |at_mm: f64, wall_mm: f64, formed: &Formed<'_>| {
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
            opens_words: say(section.top_width_mm),
            wall_words: say(wall_mm),
            depth_words: depth_words(asked, groove, wall_mm, sides),
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
        cut(at_mm, wall_mm, &groove_for(asked, wall_mm)?)
    });
    cuts.collect()
}

/// Why the groove is so.
fn why(asked: &PrepAsked<'_>, crack: &CrackPlan, formed: &Formed<'_>, lip_mm: f64) -> Vec<String> {
    let PrepAsked { way, both_sides, units, groove: chosen, .. } = *asked;
    let form = formed.form;
    let mut why = Vec::new();
    if crack.ground_mm.is_some() {
        why.push("It is as it was ground: what was measured counts, not what was planned.".to_owned());
        return why;
    }
    if chosen.form.is_some() {
        why.push("The form is the one chosen for this job.".to_owned());
    } else if form == "double_V" {
        why.push(
            "Both sides can be reached: half the wall from each holds clearly more than one side alone."
                .to_owned(),
        );
    } else if form == "U" {
        let reaches = if way.method.by_arc() { "the arc reaches" } else { "the flame and the filler reach" };
        why.push(format!("Round at its root and wide, so that {reaches} both walls."));
    } else if !both_sides {
        why.push("It can be reached from one side only.".to_owned());
    }
    if chosen.depth_mm.is_some() {
        why.push("The depth is the one typed for this job.".to_owned());
    } else if form != "double_V" {
        if chosen.school == "half" {
            why.push(
                "Half the wall, as it is taught here: the crack stays under it, and it carries less."
                    .to_owned(),
            );
        }
        match way.method.entry().joins {
            _ if chosen.school == "half" => {}
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
fn read(asked: &PrepAsked<'_>, crack: &CrackPlan, form: &str, seam: &SeamPlan) -> Vec<GroundAt> {
    let PrepAsked { round, units, .. } = *asked;
    let (length_mm, thickest_mm) = (seam.length_mm, seam.wall_mm);
    let say = |mm: f64| units.say(rounded(mm), Unit::Millimetres);
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    let readings =
        round.at_seams.iter().filter(|it| it.crack == crack.id && it.what == SeamReadingKind::Depth);
    let mut read: Vec<GroundAt> = readings
        .filter_map(|reading| {
            let (at_mm, depth_mm) = (reading.mm("at")?, reading.mm("depth")?);
            let wall_mm = wall_at(&walls, at_mm).unwrap_or(thickest_mm);
            let groove = groove_for(asked, wall_mm)?.groove;
            let wall = WallMillimetres::new(wall_mm).ok()?;
            let planned_mm = groove.depth_mm();
            let left = say((wall_mm - depth_mm).max(0.0));
            let (says, sentence) = match (form, Ground::at(depth_mm, wall, wall_mm - planned_mm)) {
                _ if at_mm > length_mm + 0.5 => {
                    ("go_on", format!("That lies past the end of the seam: it is {} long.", say(length_mm)))
                }
                (_, Ground::GoOn { more_mm }) => {
                    ("go_on", format!("{} more. Metal left: {left}.", say(more_mm)))
                }
                ("double_V", Ground::Stop) => ("stop", format!("Stop: half-way. Metal left: {left}.")),
                (_, Ground::Stop) if wall_mm - planned_mm > 0.05 => {
                    ("stop", format!("Stop: at the lip. Metal left: {left}."))
                }
                (_, Ground::Stop) => ("stop", "Stop: it is through, as planned.".to_owned()),
                ("double_V", Ground::IntoTheLip { .. }) => {
                    ("into_the_lip", format!("Past half: stop, and take less from the other side. {left} left."))
                }
                (_, Ground::IntoTheLip { left_mm }) => (
                    "into_the_lip",
                    format!("Stop: into the lip, only {} left. Back it before it is filled.", say(left_mm)),
                ),
                (_, Ground::Through) => (
                    "through",
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
                says: says.to_owned(),
            })
        })
        .collect();
    read.sort_by(|a, b| a.at_mm.total_cmp(&b.at_mm));
    read
}

/// A crack, and how it is ground: form, bits of the angle, through or not.
type CrackGround = (Uuid, &'static str, u64, bool);

/// Volumes along cracks that were added up for one way and hold for every other that is ground the same.
#[derive(Default)]
pub(crate) struct AlongKnown(RefCell<HashMap<CrackGround, f64>>);

/// The same, added up once for all ways with the same groove.
fn along_known(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, even_mm2: f64) -> f64 {
    let Some(usual) = asked.way.method.entry().groove else { return even_mm2 * length_mm };
    let (form, angle_deg) = if asked.both_sides { usual.both_sides } else { usual.one_side };
    let key = (crack.id, form, angle_deg.to_bits(), usual.through);
    if let Some(known) = asked.along.0.borrow().get(&key) {
        return *known;
    }
    let mm3 = along(asked, crack, length_mm, even_mm2);
    asked.along.0.borrow_mut().insert(key, mm3);
    mm3
}

/// Volume in mm³ of one side of a groove along a crack whose wall may change.
fn along(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, even_mm2: f64) -> f64 {
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
            Some((at_mm, groove_for(asked, wall_at(&walls, at_mm)?)?.groove.section().area_mm2))
        })
        .collect();
    added_up(&areas)
}

/// House: tight joints overlap by half, others by a third.
pub(super) fn overlap_of(asked: &PrepAsked<'_>) -> f64 {
    if asked.fluid_tight { 0.5 } else { 1.0 / 3.0 }
}

pub(super) fn pin_seam(
    asked: &PrepAsked<'_>,
    crack: &CrackPlan,
    length_mm: f64,
    wall_mm: f64,
) -> Option<SeamPlan> {
    let pin_mm = pin_for_wall_mm(WallMillimetres::new(wall_mm).ok()?)?;
    // One pin beyond each end that stops in the metal; none in the air past an edge.
    let row_mm =
        length_mm + pin_mm * f64::from(crack.ends.iter().filter(|end| goes_beyond(&end.kind)).count() as u32);
    let row = StitchRow::new(StitchOutline::Straight, row_mm.max(pin_mm), pin_mm, overlap_of(asked)).ok()?;
    /// Anchors that only seal stand so far apart. House.
    const ANCHORS_MM: f64 = 50.0;
    let mut pins = row.pins();
    if asked.anchors {
        let gaps = (row_mm / ANCHORS_MM).ceil().max(1.0);
        pins.pins = gaps as u32 + 1;
        pins.pitch_mm = (row_mm - pin_mm).max(0.0) / gaps;
    }
    let locked = asked.way.method.entry().joins == Joins::PinsAndLocks;
    Some(SeamPlan {
        pins: pins.pins,
        pin_mm,
        locks: if locked { locks_across(length_mm) } else { 0 },
        lock_mm: if locked { lock_length_mm(pin_mm) } else { 0.0 },
        pitch_mm: pins.pitch_mm,
        // A row begins a pin before a tip, and at an edge with the edge.
        first_pin_mm: match crack.ends.first().is_none_or(|end| goes_beyond(&end.kind)) {
            true => -pin_mm / 2.0,
            false => pin_mm / 2.0,
        },
        tap_drill_mm: tap_drill_mm(pin_mm)?,
        pin_order: crack_order(pins.pins),
        pins_that: "draw".to_owned(),
        ..bare_seam(crack, length_mm, wall_mm, asked.units)
    })
}

/// An end that stops in the metal, or that nobody has seen: the row of pins goes on past it.
fn goes_beyond(kind: &str) -> bool {
    !matches!(kind, "edge" | "hole" | "branch" | "over_edge")
}

/// A seam that is neither ground nor pinned: lapped, strapped over or filled cold.
pub(super) fn lap_seam(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, wall_mm: f64) -> SeamPlan {
    let lapped = asked.way.method.entry().joins == Joins::Silver;
    SeamPlan {
        // Drawn in with one run of the torch.
        beads: u32::from(lapped),
        volume_cm3: if lapped { length_mm * LAP_WALLS * wall_mm * LAP_GAP_MM / 1000.0 } else { 0.0 },
        ..bare_seam(crack, length_mm, wall_mm, asked.units)
    }
}

/// House: a lap is so many walls wide, and the gap that silver fills is so wide in mm.
const LAP_WALLS: f64 = 3.0;
const LAP_GAP_MM: f64 = 0.1;

impl SeamPlan {
    /// What one layer over its two faces takes, in cm³.
    pub(super) fn butter_cm3(&self) -> f64 {
        let face_mm = self.depth_mm / (self.angle_deg / 2.0).to_radians().cos().max(0.1);
        let sides = if self.form.as_deref() == Some("double_V") { 2.0 } else { 1.0 };
        (2.0 * sides * face_mm * self.length_mm * BUTTER_MM / 1000.0).min(self.volume_cm3)
    }
}

fn bare_seam(crack: &CrackPlan, length_mm: f64, wall_mm: f64, units: UnitSystem) -> SeamPlan {
    SeamPlan {
        wall_guessed: crack.wall_guessed,
        wall_words: units.say(wall_mm, Unit::Millimetres),
        ..bare_seam_of(crack.id, &crack.letter, length_mm, wall_mm)
    }
}

pub(super) fn bare_seam_of(id: Uuid, name: &str, length_mm: f64, wall_mm: f64) -> SeamPlan {
    SeamPlan {
        id,
        letter: name.to_owned(),
        ground: false,
        length_mm,
        wall_mm,
        wall_guessed: false,
        form: None,
        depth_mm: wall_mm,
        angle_deg: 0.0,
        root_radius_mm: 0.0,
        root_gap_mm: 0.0,
        cap_mm: 0.0,
        section: None,
        opens_words: String::new(),
        wall_words: String::new(),
        depth_words: String::new(),
        usual: None,
        volume_cm3: 0.0,
        beads: 0,
        pins: 0,
        pin_mm: 0.0,
        locks: 0,
        lock_mm: 0.0,
        pitch_mm: 0.0,
        first_pin_mm: 0.0,
        tap_drill_mm: 0.0,
        pin_order: Vec::new(),
        pins_that: String::new(),
        patch: None,
        why: Vec::new(),
        cuts: Vec::new(),
        read: Vec::new(),
    }
}

/// To a tenth of a millimetre: nobody grinds closer.
pub(super) fn rounded(mm: f64) -> f64 {
    (mm * 10.0).round() / 10.0
}
