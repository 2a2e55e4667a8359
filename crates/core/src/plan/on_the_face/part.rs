//! The face that is reckoned with, or why none is.

use crate::stage::cracks::slits;
use uuid::Uuid;

use crate::body::{FaceModel, FlatBody};
use crate::crack::said::CrackFate;
use crate::crack::stop_hole::blunted;
use crate::heat::{HeatSource, SourceKind};
use crate::iron::{Iron, least_forgiving};
use crate::job::Job;
use crate::map::{At, length_mm};
use crate::plan::{CrackPlan, EndPlan, FacePlan, LineOnFace, Plan};
use crate::quantity::{Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::heat::net_flame;
use crate::stage::part::{PartFacts, Weight, not_flat, piece, weighs};

/// A drawn face with the flame at hand.
#[derive(Debug, Clone, PartialEq)]
pub struct FacePart {
    pub face: Uuid,
    pub name: String,
    /// What is shown: left, top, right, bottom in mm.
    pub frame: (f64, f64, f64, f64),
    pub piece: FlatBody,
    /// One for each crack of the piece.
    pub letters: Vec<String>,
    /// Ends of its cracks: where, their names, and the hole that is drilled there.
    pub(super) ends: Vec<EndOnFace>,
    pub(super) stands_mpa_sqrt_m: f64,
    pub(super) iron: Iron,
    pub(super) ambient_c: f64,
    /// Least at the joint before a bead may begin.
    pub(super) least_c: f64,
    pub(super) flame: FlameAtHand,
    pub(super) units: UnitSystem,
}

/// The flame that heats it.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct FlameAtHand {
    pub label: String,
    pub net_w: f64,
    pub spot_mm: f64,
    /// Share of its power that is not known.
    pub not_known: f64,
}

#[derive(Debug, Clone, PartialEq)]
pub(super) struct EndOnFace {
    pub letter: String,
    pub name: String,
    pub tip: At,
    pub hole: Option<EndHole>,
}

/// The stop-hole of an end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct EndHole {
    pub drill_mm: f64,
    pub drilled: bool,
}

/// House: so near to a drawn tip lies the tip that is reckoned with, in mm, with the hole that is drilled there.
const AT_THE_TIP_MM: f64 = 5.0;

/// House: what a flame's middle spreads over; a small tip less.
const SPOT_MM: f64 = 75.0;
const SMALL_SPOT_MM: f64 = 40.0;

/// A drawn face that is the part, with its cracks as slits.
pub(super) struct FlatFace<'a> {
    pub of: &'a FacePlan,
    pub piece: FlatBody,
    pub letters: Vec<String>,
    pub ends: Vec<EndOnFace>,
    pub iron: Iron,
    pub part: PartFacts,
}

/// The face to be reckoned with. Else a sentence that says why there is none; empty where no face is drawn.
pub(super) fn flat_face<'a>(job: &Job, plan: &'a Plan, shop: &Shop) -> Result<FlatFace<'a>, String> {
    let round = job.round();
    let Some((of, lines)) = drawn_face(job, plan) else { return Err(String::new()) };
    let part = PartFacts::read(job, round, shop);
    if let Some(why) = not_flat(round, of.id, part.shape) {
        return not_reckoned(why);
    }
    let Some(wall_mm) = part.wall_mm else { return not_reckoned("its usual wall is not known (Part)") };
    let iron = least_forgiving(&plan.iron.plausible).iron;
    let drawn = job.faces.iter().find(|face| face.id == of.id);
    let bare = drawn.and_then(|face| piece(round, face, iron.properties(), wall_mm));
    let Some(mut piece) = bare else { return Err(String::new()) };
    let (letters, mut cracks) =
        slits(&piece.rims(), lines.iter().map(|line| (line.letter.as_str(), line.points.as_slice())));
    let ends = ends(plan, of.id);
    for end in &ends {
        if let Some(hole) = end.hole.filter(|hole| hole.drilled) {
            lengthen(&mut cracks, end.tip, hole.drill_mm / 2.0);
        }
    }
    piece.cracks = cracks;
    if let Err(problems) = piece.check() {
        return not_reckoned(problems.first().map_or("", |problem| &problem.message));
    }
    let (kg, is_the_part) = weighs(&piece, &part);
    if !is_the_part {
        let say = |kg| plan.units.say(kg, Unit::Kilograms);
        return not_reckoned(&format!(
            "with a wall of {} it would weigh {}, and the part weighs {}",
            plan.units.say(wall_mm, Unit::Millimetres),
            say(kg),
            say(part.weight.as_ref().map_or(kg, Weight::kg))
        ));
    }
    Ok(FlatFace { of, piece, letters, ends, iron, part })
}

fn not_reckoned<T>(why: &str) -> Result<T, String> {
    Err(format!("The face is not reckoned as a body: {why}."))
}

/// The face to be heated. Else a sentence that says why there is none; empty where there is nothing to say, since no
/// face is drawn or nothing is heated.
///
/// # Errors
/// The sentence.
pub fn face_part(job: &Job, plan: &Plan, shop: &Shop) -> Result<FacePart, String> {
    let Some(heat) = plan.heat.as_ref().filter(|heat| !heat.cold) else { return Err(String::new()) };
    let bar = |why: String| if why.is_empty() { why } else { format!("{why} The bar below stays.") };
    let flat = flat_face(job, plan, shop).map_err(bar)?;
    let Some(source) = HeatSource::from_id(&heat.source) else { return Err(String::new()) };
    let (SourceKind::Flame { .. }, Some((net_w, not_known))) = (source.kind, net_flame(heat, shop)) else {
        return not_reckoned("an oven warms it all round, and there is no place to begin with").map_err(bar);
    };
    let flame = FlameAtHand {
        label: heat.source_label.clone(),
        net_w,
        spot_mm: if source.is_small() { SMALL_SPOT_MM } else { SPOT_MM },
        not_known,
    };
    Ok(FacePart::of(flat, flame, heat.least_c, plan.units))
}

/// A face that cools with its seams filled, and those seams.
#[derive(Debug, Clone, PartialEq)]
pub struct CoolingFace {
    /// What stays open of its cracks is still one.
    pub part: FacePart,
    pub(super) seams: Vec<(String, Vec<At>)>,
    /// Of the iron's own strength, the joint's.
    pub(super) joint_ratio: f64,
}

/// The face that cools. Else a sentence that says why there is none; empty where there is nothing to say, since no face is
/// drawn or nothing is heated.
///
/// # Errors
/// The sentence.
pub fn cooling_face(job: &Job, plan: &Plan, shop: &Shop) -> Result<CoolingFace, String> {
    let heated = plan.heat.as_ref().filter(|heat| !heat.cold);
    if heated.is_none() || plan.cooling.as_ref().is_none_or(|cooling| cooling.cold) {
        return Err(String::new());
    }
    let mut flat = flat_face(job, plan, shop)?;
    let filled = |letter: &String| {
        plan.cracks.iter().any(|crack| crack.letter == *letter && crack.becomes == CrackFate::Repair)
    };
    let cracks = std::mem::take(&mut flat.letters).into_iter().zip(std::mem::take(&mut flat.piece.cracks));
    let (seams, open): (Vec<_>, Vec<_>) = cracks.partition(|(letter, _)| filled(letter));
    (flat.letters, flat.piece.cracks) = open.into_iter().unzip();
    let least_c = heated.map_or(flat.part.ambient_c, |heat| heat.least_c);
    let off = FlameAtHand { label: String::new(), net_w: 0.0, spot_mm: SPOT_MM, not_known: 0.0 };
    let part = FacePart::of(flat, off, least_c, plan.units);
    let joint_ratio = plan.methods.taken().map_or(1.0, |taken| taken.strength);
    Ok(CoolingFace { part, seams, joint_ratio })
}

impl FacePart {
    fn of(flat: FlatFace<'_>, flame: FlameAtHand, least_c: f64, units: UnitSystem) -> Self {
        let FlatFace { of, piece, letters, ends, iron, part } = flat;
        let frame = &of.frame;
        Self {
            face: of.id,
            name: of.name.clone(),
            frame: (frame.left_mm, frame.top_mm, frame.right_mm, frame.bottom_mm),
            piece,
            letters,
            ends,
            stands_mpa_sqrt_m: iron.toughness_mpa_sqrt_m(),
            iron,
            ambient_c: part.ambient_c,
            least_c,
            flame,
            units,
        }
    }

    /// # Errors
    /// A sentence: it cannot be laid out.
    pub fn model(&self) -> Result<FaceModel, String> {
        FaceModel::of(self.piece.clone())
            .map_err(|why| format!("The face is not reckoned as a body: {why}. The bar below stays."))
    }

    /// The end that lies at a tip.
    pub(super) fn end_at(&self, tip: At) -> Option<&EndOnFace> {
        let reach = |end: &EndOnFace| end.hole.map_or(0.0, |hole| hole.drill_mm / 2.0) + AT_THE_TIP_MM;
        let away = |end: &&EndOnFace| end.tip.distance_mm(tip);
        self.ends.iter().filter(|end| away(end) <= reach(end)).min_by(|a, b| away(a).total_cmp(&away(b)))
    }

    /// How much less is asked of a tip with a hole that is drilled: 1 of a sharp one.
    pub(super) fn blunted(&self, tip: At) -> f64 {
        let Some(hole) = self.end_at(tip).and_then(|end| end.hole).filter(|hole| hole.drilled) else {
            return 1.0;
        };
        blunted(hole.drill_mm, self.iron)
    }

    /// The same with every stop-hole drilled that is planned; nothing where none is left to drill.
    pub(super) fn with_holes(&self) -> Option<Self> {
        let planned = |end: &EndOnFace| end.hole.is_some_and(|hole| !hole.drilled);
        if !self.ends.iter().any(planned) {
            return None;
        }
        let mut drilled = self.clone();
        for end in &mut drilled.ends {
            let Some(hole) = end.hole.as_mut().filter(|hole| !hole.drilled) else { continue };
            hole.drilled = true;
            lengthen(&mut drilled.piece.cracks, end.tip, hole.drill_mm / 2.0);
        }
        drilled.piece.check().is_ok().then_some(drilled)
    }

    /// The middle of the longest crack; of the face where there is none.
    #[must_use]
    pub fn joint(&self) -> At {
        let longest = self.piece.cracks.iter().max_by(|a, b| length_mm(a).total_cmp(&length_mm(b)));
        let middle = longest.and_then(|crack| crate::map::place_along(crack, length_mm(crack) / 2.0));
        let (left, top, right, bottom) = self.frame;
        middle.unwrap_or(At::new(f64::midpoint(left, right), f64::midpoint(top, bottom)))
    }
}

/// The face whose outline is known and on which the most is to be mended, with its cracks.
fn drawn_face<'a>(job: &Job, plan: &'a Plan) -> Option<(&'a FacePlan, Vec<&'a LineOnFace>)> {
    let on = |face: &'a FacePlan| -> Vec<&'a LineOnFace> {
        face.lines.iter().filter(|line| !line.from_behind && line.becomes != CrackFate::Sound).collect()
    };
    let long = |lines: &[&LineOnFace]| lines.iter().map(|line| length_mm(&line.points)).sum::<f64>();
    plan.map
        .faces
        .iter()
        .filter(|face| !face.rims.is_empty() && job.faces.iter().any(|own| own.id == face.id))
        .map(|face| (face, on(face)))
        .filter(|(_, lines)| !lines.is_empty())
        .max_by(|(_, a), (_, b)| long(a).total_cmp(&long(b)))
}

/// A crack that ends at this tip goes on by so much: to the far rim of its hole.
fn lengthen(cracks: &mut [Vec<At>], tip: At, by_mm: f64) {
    for crack in cracks {
        for turned in [false, true] {
            if turned {
                crack.reverse();
            }
            let ahead = crack.len().checked_sub(2).and_then(|before| crack[before].toward(crack[before + 1]));
            if let (Some(ahead), Some(last)) = (ahead, crack.last_mut())
                && last.distance_mm(tip) < AT_THE_TIP_MM
            {
                *last = last.along(ahead, by_mm);
            }
            if turned {
                crack.reverse();
            }
        }
    }
}

fn ends(plan: &Plan, face: Uuid) -> Vec<EndOnFace> {
    let on_face = |crack: &CrackPlan, end: &EndPlan| {
        let at = end.at.as_ref().filter(|at| at.face == face)?;
        Some(EndOnFace {
            letter: crack.letter.clone(),
            name: end.name.clone(),
            tip: at.tip,
            hole: end
                .stop_hole
                .as_ref()
                .map(|hole| EndHole { drill_mm: hole.drill_mm, drilled: end.drilled }),
        })
    };
    plan.cracks
        .iter()
        .flat_map(|crack| crack.ends.iter().filter_map(move |end| on_face(crack, end)))
        .collect()
}
