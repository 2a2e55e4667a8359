//! Stage 5: groove, filler and rods, or pins.

mod figures;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::cracks::{CrackPlan, margin_mm, wall_at};
use super::{Amount, Caution, Missing, Stage, Station};
use crate::field;
use crate::field::PREP_DONE;
use crate::filler::{countersink_volume_cm3, hole_volume_cm3};
use crate::groove::{Groove, GrooveForm, GrooveSection, usual_lip_mm, usual_root_radius_mm};
use crate::job::Round;
use crate::method::{School, Way};
use crate::quantity::{Rounding, Unit, UnitSystem, WallMillimetres, number};
use crate::seam::added_up;
use crate::stitch::{StitchOutline, StitchRow, crack_order, pin_for_wall_mm, tap_drill_mm};
use crate::stop_hole::{FoundBy, drill_under};

/// One seam: a crack's groove, or its row of pins.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
    pub pitch_mm: f64,
    pub tap_drill_mm: f64,
    /// Pin numbers from the left end, in the order they go in.
    pub pin_order: Vec<u32>,
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
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UsualSeam {
    pub depth: String,
    pub angle: String,
    pub gap: String,
    pub cap: String,
    pub width: String,
}

/// The work before the heat.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PrepPlan {
    pub way: Way,
    pub seams: Vec<SeamPlan>,
    /// The filler by class and size; empty for pins.
    pub filler: String,
    pub volume_cm3: f64,
    pub rods: f64,
    /// Filler that is laid, in g; 0 for pins.
    pub laid_g: f64,
    pub beads: u32,
    pub pins: u32,
    /// What to do, in order.
    pub steps: Vec<String>,
    /// What has to be said to be done before it is lit: ids of `prep.done`, with what is still open.
    pub to_do: Vec<PrepItem>,
}

/// Something that cannot be done once the part is hot.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PrepItem {
    pub id: String,
    pub label: String,
    pub done: bool,
}

/// House: usual values where nothing is chosen.
const CROWN_MM: f64 = 1.0;

/// The groove a method asks for in this wall, the welder's own choices first.
fn groove_for(round: &Round, way: Way, wall_mm: f64, both_sides: bool) -> Option<(String, Groove, f64, f64)> {
    let usual = way.method.entry().groove?;
    let (form, angle) = if both_sides { usual.both_sides } else { usual.one_side };
    let form = round.get(field::prep::FORM).unwrap_or(form);
    let usual_depth = if form == "double_V" {
        wall_mm / 2.0
    } else if usual.through {
        wall_mm
    } else {
        (wall_mm - usual_lip_mm(wall_mm)).max(wall_mm / 2.0)
    };
    let depth_mm = round.get(field::prep::DEPTH).unwrap_or(usual_depth).min(wall_mm).max(1.0);
    let angle_deg = round.get(field::prep::ANGLE).unwrap_or(angle);
    let radius = usual_root_radius_mm(wall_mm);
    let shape = if form == "U" { GrooveForm::U { root_radius_mm: radius } } else { GrooveForm::V };
    let groove = Groove::new(
        shape,
        WallMillimetres::new(depth_mm).ok()?,
        angle_deg,
        round.get(field::prep::GAP).unwrap_or(0.0),
        round.get(field::prep::CAP).unwrap_or(CROWN_MM),
    )
    .ok()?;
    Some((form.to_owned(), groove, angle_deg, if form == "U" { radius } else { 0.0 }))
}

/// What a prep is laid out from.
pub(crate) struct PrepAsked<'a> {
    pub round: &'a Round,
    pub way: Way,
    pub cracks: &'a [CrackPlan],
    pub both_sides: bool,
    pub ductile: bool,
    pub fluid_tight: bool,
    /// Paint is on it that nobody knows the age of, lead for all one knows.
    pub paint_of_unknown_age: bool,
    /// The shop's own set; the ordinary one where it is empty.
    pub drills_mm: &'a [f64],
    pub units: UnitSystem,
}

/// The prep of a way; nothing while a crack's length or wall is not known.
pub(crate) fn prep_plan(asked: &PrepAsked<'_>) -> Option<PrepPlan> {
    let PrepAsked { way, cracks, ductile, units, .. } = *asked;
    if cracks.is_empty() {
        return None;
    }
    let repaired = cracks.iter().filter(|crack| crack.becomes == "repair");
    let mut seams = Vec::with_capacity(cracks.len());
    for crack in repaired {
        let (length_mm, wall_mm) = (crack.length_mm? + crack.run_out_mm, crack.wall_mm);
        seams.push(if way.method.pins() {
            pin_seam(asked, crack, length_mm, wall_mm)?
        } else {
            groove_seam(asked, crack, length_mm, wall_mm)?
        });
    }
    if seams.is_empty() {
        return None;
    }
    let thickest = seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    let filler = way.method.filler(thickest, ductile);
    let volume_cm3 = seams.iter().map(|seam| seam.volume_cm3).sum();
    Some(PrepPlan {
        way,
        laid_g: filler.map_or(0.0, |filler| volume_cm3 * filler.density_kg_m3 / 1000.0),
        to_do: to_do(asked),
        filler: filler.map_or(String::new(), |filler| {
            let size = units.say(filler.rod_diameter_mm, Unit::Millimetres);
            format!("{} {}, {size}", filler.class, filler.name)
        }),
        rods: filler.map_or(0.0, |filler| filler.rods(volume_cm3)),
        volume_cm3,
        beads: seams.iter().map(|seam| seam.beads).sum(),
        pins: seams.iter().map(|seam| seam.pins).sum(),
        steps: steps(asked, &seams),
        seams,
    })
}

fn groove_seam(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, wall_mm: f64) -> Option<SeamPlan> {
    let PrepAsked { round, way, both_sides, units, .. } = *asked;
    let say = |mm: f64| units.say(mm, Unit::Millimetres);
    let (form, mut groove, mut angle_deg, root_radius_mm) = groove_for(round, way, wall_mm, both_sides)?;
    if let Some((depth_mm, width_mm)) = crack.ground_mm {
        let depth = WallMillimetres::new(depth_mm.min(wall_mm)).ok()?;
        groove = groove.as_deep(depth).opening(width_mm);
        angle_deg = groove.angle_deg();
    }
    let sides = if form == "double_V" { 2 } else { 1 };
    let section = groove.section();
    let holes_cm3: f64 = crack
        .ends
        .iter()
        .filter_map(|end| Some((end.stop_hole?, end.blind, end.wall_mm)))
        .map(|(hole, blind, wall_mm)| {
            let deep_mm = if blind { wall_mm - usual_lip_mm(wall_mm) } else { wall_mm };
            let groove_mm = groove.depth_mm().min(wall_mm);
            hole_volume_cm3(hole.drill_mm, deep_mm)
                + f64::from(sides) * countersink_volume_cm3(groove_mm, angle_deg)
        })
        .sum();
    let along_mm3 = match crack.ground_mm {
        // It was measured at one place, and is taken to be so all along.
        Some(_) => section.area_mm2 * length_mm,
        None => along(asked, crack, length_mm, section.area_mm2),
    };
    let (layer_mm, bead_width) = way.method.entry().filling.map(|filling| (filling.layer)(wall_mm))?;
    let beads_a_side: u32 = match bead_width {
        Some(width) => groove.beads_per_layer(layer_mm, width).iter().sum(),
        None => groove.beads_per_layer(layer_mm, f64::MAX).len() as u32,
    };
    let deep = say(rounded(groove.depth_mm()));
    let angle = number(angle_deg, 0);
    let lip_mm = wall_mm - groove.depth_mm();
    let depth_words = if sides == 2 {
        format!("each side {deep} deep, {angle}°")
    } else if lip_mm > 0.05 {
        format!("{deep} deep, {angle}°, lip {}", say(rounded(lip_mm)))
    } else {
        format!("{deep} deep, {angle}°, through")
    };
    let (root_gap_mm, cap_mm) =
        (round.get(field::prep::GAP).unwrap_or(0.0), round.get(field::prep::CAP).unwrap_or(CROWN_MM));
    let bare = |mm: f64| units.show(rounded(mm), Unit::Millimetres, Rounding::Nearest).number;
    let usual = UsualSeam {
        depth: bare(groove.depth_mm()),
        angle,
        gap: bare(root_gap_mm),
        cap: bare(cap_mm),
        width: bare(section.top_width_mm),
    };
    let lengths = (length_mm / way.school.bead_mm() - 1e-9).ceil().max(1.0) as u32;
    Some(SeamPlan {
        id: crack.id,
        letter: crack.letter.clone(),
        ground: crack.ground_mm.is_some(),
        length_mm,
        wall_mm,
        wall_guessed: crack.wall_guessed,
        form: Some(form),
        depth_mm: groove.depth_mm(),
        angle_deg,
        root_radius_mm,
        root_gap_mm,
        cap_mm,
        section: Some(section),
        opens_words: say(rounded(section.top_width_mm)),
        wall_words: say(wall_mm),
        depth_words,
        usual: Some(usual),
        volume_cm3: f64::from(sides) * along_mm3 / 1000.0 + holes_cm3,
        beads: sides * beads_a_side * lengths,
        pins: 0,
        pin_mm: 0.0,
        pitch_mm: 0.0,
        tap_drill_mm: 0.0,
        pin_order: Vec::new(),
    })
}

/// Volume in mm³ of one side of a groove along a crack whose wall may change.
fn along(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, even_mm2: f64) -> f64 {
    /// The wall is looked at this often along a seam. Ours.
    const EVERY_MM: f64 = 2.0;
    const LOOKS_MOST: f64 = 2_000.0;
    let PrepAsked { round, way, both_sides, .. } = *asked;
    let walls: Vec<(f64, f64)> = crack.walls.iter().map(|at| (at.at_mm, at.wall_mm)).collect();
    if walls.len() < 2 {
        return even_mm2 * length_mm;
    }
    let looks = (length_mm / EVERY_MM).ceil().clamp(1.0, LOOKS_MOST);
    let areas: Vec<(f64, f64)> = (0..=looks as u32)
        .filter_map(|look| {
            let at_mm = length_mm * f64::from(look) / looks;
            let (_, groove, ..) = groove_for(round, way, wall_at(&walls, at_mm)?, both_sides)?;
            Some((at_mm, groove.section().area_mm2))
        })
        .collect();
    added_up(&areas)
}

fn pin_seam(asked: &PrepAsked<'_>, crack: &CrackPlan, length_mm: f64, wall_mm: f64) -> Option<SeamPlan> {
    let PrepAsked { fluid_tight, units, .. } = *asked;
    let pin_mm = pin_for_wall_mm(WallMillimetres::new(wall_mm).ok()?)?;
    // House: tight joints overlap by half, others by a third.
    let overlap = if fluid_tight { 0.5 } else { 1.0 / 3.0 };
    let row = StitchRow::new(StitchOutline::Straight, length_mm + 2.0 * pin_mm, pin_mm, overlap).ok()?;
    let pins = row.pins();
    Some(SeamPlan {
        id: crack.id,
        letter: crack.letter.clone(),
        ground: false,
        length_mm,
        wall_mm,
        wall_guessed: crack.wall_guessed,
        form: None,
        depth_mm: wall_mm,
        angle_deg: 0.0,
        root_radius_mm: 0.0,
        root_gap_mm: 0.0,
        cap_mm: 0.0,
        section: None,
        opens_words: String::new(),
        wall_words: units.say(wall_mm, Unit::Millimetres),
        depth_words: String::new(),
        usual: None,
        volume_cm3: 0.0,
        beads: 0,
        pins: pins.pins,
        pin_mm,
        pitch_mm: pins.pitch_mm,
        tap_drill_mm: tap_drill_mm(pin_mm)?,
        pin_order: crack_order(pins.pins),
    })
}

/// To a tenth of a millimetre: nobody grinds closer.
fn rounded(mm: f64) -> f64 {
    (mm * 10.0).round() / 10.0
}

fn steps(asked: &PrepAsked<'_>, seams: &[SeamPlan]) -> Vec<String> {
    let PrepAsked { way, cracks, units, .. } = *asked;
    let mut steps = Vec::new();
    let say = |mm| units.say(mm, Unit::Millimetres);
    let ends = || cracks.iter().flat_map(|c| &c.ends).filter(|end| end.stop_hole.is_some() && !end.drilled);
    let holes = ends().count();
    let blind = ends().filter(|end| end.blind).count();
    let s = if holes == 1 { "" } else { "s" };
    if holes > 0 && blind == 0 {
        steps.push(format!("Drill {holes} stop-hole{s}, through, dry."));
    } else if holes > 0 {
        steps.push(format!(
            "Drill {holes} stop-hole{s}, dry; {blind} of them blind: a face behind is not to be touched."
        ));
    }
    steps.extend(holes_on_the_map(asked, seams));
    steps.push(format!(
        "Scribe a witness line {} beside each crack: grinding smears it out of sight.",
        match units {
            UnitSystem::Metric => "3 mm",
            UnitSystem::Imperial => "1/8 in",
        }
    ));
    if way.method.pins() {
        steps.push("Drill and tap pin by pin; each one cuts into its neighbour.".to_owned());
        steps.push(format!("Keep {} off any hard spot; if the drill skates, stop and cut it out.", say(6.0)));
        return steps;
    }
    let thickest = seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    let margin = margin_mm(thickest);
    steps.push("Open the groove with a burr or a thin disc, then shape it.".to_owned());
    steps.push(format!("Clean {} to bright metal each side, inside too.", say(margin.ceil())));
    if cracks.iter().any(|crack| crack.found_by.is_some_and(FoundBy::leaves_something)) {
        steps.push(format!(
            "Get the dye, chalk and oil out again: solvent without chlorine, let it flash off, then dry at {}.",
            units.say(200.0, Unit::Celsius)
        ));
    }
    steps.extend(way.method.entry().prep.iter().map(|&step| step.to_owned()));
    steps
}

/// Each hole that lies on the map, with where it goes and what it is drilled with.
fn holes_on_the_map(asked: &PrepAsked<'_>, seams: &[SeamPlan]) -> Vec<String> {
    let PrepAsked { cracks, drills_mm, units, .. } = *asked;
    let mut lines = Vec::new();
    for crack in cracks {
        let open = crack.ends.iter().filter(|end| !end.drilled);
        for (end, hole, at) in open.filter_map(|end| Some((end, end.stop_hole?, end.at.as_ref()?))) {
            if at.measured.is_empty() {
                continue;
            }
            let drill = units.say(hole.drill_mm, Unit::Drill);
            let pilot = hole.pilot_mm.map(|pilot| units.say(drill_under(pilot, drills_mm), Unit::Drill));
            let drill = pilot.map_or_else(|| drill.clone(), |pilot| format!("{pilot}, then {drill}"));
            let groove = seams.iter().find(|seam| seam.id == crack.id && seam.section.is_some());
            let sink = groove.map_or_else(String::new, |seam| {
                let wide = units.say(rounded(2.0 * seam.half_width_mm(end.wall_mm)), Unit::Millimetres);
                format!(", countersunk to {wide}")
            });
            let (letter, name, at) = (&crack.letter, &end.name, at.measured.join(", "));
            lines.push(format!("{letter}, {name} end: punch {at}; drill {drill}{sink}."));
        }
    }
    lines
}

/// What cannot be done hot and is asked of this job. Pins are set cold: nothing.
fn to_do(asked: &PrepAsked<'_>) -> Vec<PrepItem> {
    let PrepAsked { round, way, cracks, .. } = *asked;
    if way.method.pins() {
        return Vec::new();
    }
    let holes = cracks.iter().flat_map(|c| &c.ends).any(|end| end.stop_hole.is_some());
    let drilled =
        cracks.iter().flat_map(|c| &c.ends).filter(|end| end.stop_hole.is_some()).all(|end| end.drilled);
    let ground = cracks.iter().all(|crack| crack.ground_mm.is_some());
    let penetrant = cracks.iter().any(|crack| crack.found_by.is_some_and(FoundBy::leaves_something));
    let said = round.get(field::prep::DONE).unwrap_or_default();
    let asked_for = |id: &str| match id {
        "holes" => holes,
        "penetrant" => penetrant,
        "paint" => asked.paint_of_unknown_age,
        _ => true,
    };
    // What was measured was done.
    let measured = |id: &str| match id {
        "holes" => drilled,
        "groove" => ground,
        _ => false,
    };
    PREP_DONE
        .iter()
        .filter(|(id, _)| asked_for(id))
        .map(|&(id, label)| PrepItem {
            id: id.to_owned(),
            label: label.to_owned(),
            done: measured(id) || said.iter().any(|known| known == id),
        })
        .collect()
}

pub(crate) fn stage(
    way: Option<Way>,
    plan: Option<PrepPlan>,
    cracks: &Stage<Vec<CrackPlan>>,
    ductile: bool,
) -> Stage<Option<PrepPlan>> {
    let grinding = "Guard on, disc rated for the speed, face shield, eyes and ears.";
    Stage {
        amount: amount(plan.as_ref(), cracks.amount),
        missing: missing(way, plan.as_ref(), &cracks.plan),
        cautions: way.map(|_| Caution::new(Station::Prep, grinding)).into_iter().collect(),
        figures: plan.as_ref().map_or_else(Vec::new, |plan| figures::figures(plan, ductile)),
        plan,
    }
}

fn missing(way: Option<Way>, prep: Option<&PrepPlan>, cracks: &[CrackPlan]) -> Vec<Missing> {
    match (way, prep) {
        (Some(way), None)
            if cracks.iter().all(|c| c.length_mm.is_some())
                && cracks.iter().any(|c| c.becomes == "repair") =>
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

fn amount(prep: Option<&PrepPlan>, cracks: Amount) -> Amount {
    match (prep, cracks) {
        (Some(_), Amount::Enough) => Amount::Enough,
        (Some(_), _) => Amount::Something,
        (None, _) => Amount::Nothing,
    }
}

/// Minutes at the pins, the arc or the rod, the waits of the school among them.
///
/// Pins: 4 min each. Beads: their length at 2.5 mm/s and the school's wait for each. A braze or a gas
/// weld is laid in one go: its metal at what is laid in a minute.
///
/// # Source
/// House.
pub(crate) fn work_minutes(prep: &PrepPlan) -> f64 {
    const PIN_MIN: f64 = 4.0;
    const TRAVEL_MM_S: f64 = 2.5;
    let beads = f64::from(prep.beads);
    let school = prep.way.school;
    match prep.way.method.entry().filling.and_then(|filling| filling.laid_g_a_min) {
        _ if school == School::NoHeat => f64::from(prep.pins) * PIN_MIN,
        Some(g_a_min) => prep.laid_g / g_a_min,
        None => beads * (school.bead_mm() / TRAVEL_MM_S / 60.0 + school.wait_min_a_bead()),
    }
}
