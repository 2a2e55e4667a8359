//! A patch of a donor casting, set into where a piece is missing: how it has to fit, and the pins round it.

use serde::Serialize;
use uuid::Uuid;

use super::PrepInputs;
use super::bench::BenchInputs;
use super::pinned::overlap_of;
use super::seam::PinsThat;
use super::seam::{SeamPlan, bare_seam_of};
use crate::field::mark;
use crate::job::Mark;
use crate::map::{At, ON_IT_MM, closed, length_mm, nearest_rim, place_along};
use crate::pins::rows::{
    ANCHORS, Pins, StitchOutline, StitchRow, crack_order, patch_order, pin_for_wall_mm, tap_drill_mm,
};
use crate::prep::said::{ClosedBy, PatchSkin};
use crate::quantity::{Unit, WallMillimetres};

/// A patch as it lies.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PatchPlan {
    pub face: Uuid,
    /// Where it meets the casting.
    pub runs: Vec<PatchRun>,
    /// What the pins hold in: the thinner of casting and patch, in mm; nothing while neither is known.
    pub wall_mm: Option<f64>,
    /// What it is cut from and how it has to fit, each a sentence.
    pub words: Vec<String>,
    /// What is wrong with it as it was measured.
    pub cautions: Vec<String>,
}

/// One stretch along which a patch meets the casting.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PatchRun {
    /// All round; otherwise from one edge of the casting to another.
    pub closed: bool,
    /// In order; of a closed one the first is the last again.
    pub points: Vec<At>,
}

/// The pins round a patch.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PatchSeam {
    pub face: Uuid,
    pub runs: Vec<PatchRun>,
    /// Where each pin goes, in the order of their numbers.
    pub pins_at: Vec<At>,
    /// So many go in before the gaps between them are filled.
    pub first: u32,
}

impl PatchRun {
    /// Where its pins go.
    fn places(&self, pins: Pins, pin_mm: f64) -> impl Iterator<Item = At> + '_ {
        // From an edge of the casting a row begins with the iron.
        let begins = if self.closed { 0.0 } else { pin_mm / 2.0 };
        (0..pins.pins)
            .filter_map(move |pin| place_along(&self.points, begins + f64::from(pin) * pins.pitch_mm))
    }
}

/// House: under a wider gap the thread has too little iron on either side of the joint.
const GAP_MOST_MM: f64 = 0.5;
/// House: a patch may differ from the wall by so much before it is said.
const THICKNESS_OFF_MM: f64 = 1.0;

/// The stretches of an outline that border on the casting: a side along a rim is free.
fn runs(outline: &[At], rims: &[Vec<At>]) -> Vec<PatchRun> {
    let on_a_rim = |at: At| nearest_rim(rims, at).is_some_and(|(mm, _)| mm <= ON_IT_MM);
    let free = |a: At, b: At| [a, a.between(b, 0.5), b].into_iter().all(on_a_rim);
    let around = closed(outline);
    let sides: Vec<(At, At)> = around.windows(2).map(|side| (side[0], side[1])).collect();
    let Some(first_free) = sides.iter().position(|(a, b)| free(*a, *b)) else {
        return vec![PatchRun { closed: true, points: around }];
    };
    let mut runs: Vec<PatchRun> = Vec::new();
    let mut going = false;
    for (a, b) in sides.iter().cycle().skip(first_free).take(sides.len()) {
        if free(*a, *b) {
            going = false;
            continue;
        }
        match runs.last_mut().filter(|_| going) {
            Some(run) => run.points.push(*b),
            None => runs.push(PatchRun { closed: false, points: vec![*a, *b] }),
        }
        going = true;
    }
    runs
}

impl BenchInputs<'_> {
    /// The patch that closes this; nothing where metal does, or nobody has said.
    pub(super) fn patch(
        &self,
        of: &Mark,
        face: Uuid,
        (outline, rims): (&[At], &[Vec<At>]),
    ) -> Option<PatchPlan> {
        let from = self.round.get(mark::CLOSED_BY.of(of.id)).filter(|by| *by != ClosedBy::Metal)?;
        let wall = self.round.get(mark::THICKNESS.of(of.id));
        let patch = self.round.get(mark::PATCH_THICKNESS.of(of.id));
        let gap = self.round.get(mark::PATCH_GAP.of(of.id));
        let (mut words, mut cautions) = (Vec::new(), Vec::new());
        words.push(format!(
            "Cut it to the outline and file it until no gap is over {}; hold it flush, seen face outwards.",
            self.exactly(GAP_MOST_MM)
        ));
        match from {
            ClosedBy::Steel => cautions.push(
                "Steel grows otherwise than iron and is of another colour: for what stays cold and is painted."
                    .to_owned(),
            ),
            ClosedBy::OtherIron => {
                cautions.push("Another iron: settle what it is, as for the casting, before it is cut.".to_owned());
            }
            ClosedBy::LikeIron | ClosedBy::Metal => {
                words.push("Like iron: it grows, cuts and rusts as the casting does.".to_owned());
            }
        }
        if let (Some(wall), Some(patch)) = (wall, patch) {
            let off = patch - wall;
            if off < -THICKNESS_OFF_MM {
                cautions.push(format!(
                    "It is {} thinner than the casting: the pins hold in {} only.",
                    self.exactly(-off),
                    self.exactly(patch)
                ));
            } else if off > THICKNESS_OFF_MM {
                words.push(format!("It stands {} proud: ground flush once it is pinned.", self.exactly(off)));
            }
        }
        if let Some(gap) = gap.filter(|gap| *gap > GAP_MOST_MM) {
            cautions.push(format!(
                "A gap of {}, {} is the most: the thread has too little iron there. Make another, or build it up.",
                self.exactly(gap),
                self.exactly(GAP_MOST_MM)
            ));
        }
        match self.round.get(mark::PATCH_SKIN.of(of.id)) {
            Some(PatchSkin::Machined) => {
                words.push("A machined face shows: roughen it like the skin round it.".to_owned())
            }
            Some(PatchSkin::Other) => {
                words.push("Its skin is another: it shows unless it is painted.".to_owned())
            }
            Some(PatchSkin::Like) | None => {}
        }
        if wall.is_none() && patch.is_none() {
            words.push("How thick casting and patch are gives the pins.".to_owned());
        }
        words.push("For a way with pins; the other ways build it up.".to_owned());
        let wall_mm = wall.into_iter().chain(patch).reduce(f64::min);
        Some(PatchPlan { face, runs: runs(outline, rims), wall_mm, words, cautions })
    }
}

/// The pins round a patch; nothing while its wall is not known, or no thread holds in it.
pub(super) fn patch_seam(
    inputs: &PrepInputs<'_>,
    id: Uuid,
    name: &str,
    patch: &PatchPlan,
) -> Option<SeamPlan> {
    /// Anchors that only seal stand so far apart round a patch, four at least. House.
    const ANCHORS_MM: f64 = 50.0;
    const ANCHORS_LEAST: f64 = 4.0;
    let wall_mm = patch.wall_mm?;
    let pin_mm = pin_for_wall_mm(WallMillimetres::new(wall_mm).ok()?)?;
    let mut pins_at = Vec::new();
    let mut order = Vec::new();
    let (mut first, mut pitch_mm) = (None, None);
    for run in &patch.runs {
        let long = length_mm(&run.points);
        let outline = if run.closed { StitchOutline::Closed } else { StitchOutline::Straight };
        let row = StitchRow::new(outline, long.max(pin_mm), pin_mm, overlap_of(inputs)).ok()?;
        let mut pins = row.pins();
        if inputs.anchors {
            let gaps = (long / ANCHORS_MM).ceil();
            (pins.pins, pins.pitch_mm) = if run.closed {
                let gaps = gaps.max(ANCHORS_LEAST);
                (gaps as u32, long / gaps)
            } else {
                let gaps = gaps.max(1.0);
                (gaps as u32 + 1, (long - pin_mm).max(0.0) / gaps)
            };
        }
        let before = order.len() as u32;
        let (in_turn, ahead) = match run.closed {
            true => (patch_order(pins.pins), pins.pins.min(ANCHORS)),
            false => (crack_order(pins.pins), pins.pins.div_ceil(2)),
        };
        order.extend(in_turn.into_iter().map(|pin| pin + before));
        pins_at.extend(run.places(pins, pin_mm));
        first.get_or_insert(ahead);
        pitch_mm.get_or_insert(pins.pitch_mm);
    }
    let length = patch.runs.iter().map(|run| length_mm(&run.points)).sum();
    Some(SeamPlan {
        pins: order.len() as u32,
        pin_mm,
        pitch_mm: pitch_mm?,
        tap_drill_mm: tap_drill_mm(pin_mm)?,
        pin_order: order,
        // A closed run is held from within: the plain thread pushes outwards.
        pins_that: Some(if patch.runs.iter().all(|run| run.closed) {
            PinsThat::Push
        } else {
            PinsThat::Draw
        }),
        patch: Some(PatchSeam { face: patch.face, runs: patch.runs.clone(), pins_at, first: first? }),
        wall_words: inputs.units.say(wall_mm, Unit::Millimetres),
        ..bare_seam_of(id, name, length, wall_mm)
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn square(left: f64, top: f64, wide: f64, high: f64) -> Vec<At> {
        let right_bottom = (left + wide, top + high);
        vec![
            At::new(left, top),
            At::new(right_bottom.0, top),
            At::new(right_bottom.0, right_bottom.1),
            At::new(left, right_bottom.1),
        ]
    }

    #[test]
    fn a_hole_inside_is_one_closed_run_and_a_corner_one_from_edge_to_edge() {
        let rims = [square(0.0, 0.0, 200.0, 140.0)];
        let hole = runs(&square(50.0, 50.0, 20.0, 30.0), &rims);
        assert!(hole.len() == 1 && hole[0].closed);
        assert!((length_mm(&hole[0].points) - 100.0).abs() < 1e-9);
        // Out of the lower left corner: bonded above and at the right, whichever point was drawn first.
        for turned in 0..4 {
            let mut corner = square(0.0, 110.0, 40.0, 30.0);
            corner.rotate_left(turned);
            let open = runs(&corner, &rims);
            assert!(open.len() == 1 && !open[0].closed, "{open:?}");
            assert_eq!(open[0].points, [At::new(0.0, 110.0), At::new(40.0, 110.0), At::new(40.0, 140.0)]);
        }
        // Across the whole plate: one run at each side.
        let across = runs(&square(80.0, 0.0, 30.0, 140.0), &rims);
        assert!(across.len() == 2 && across.iter().all(|run| run.points.len() == 2));
    }

    #[test]
    fn pins_stand_evenly_all_round_and_between_the_edges() {
        let run = PatchRun { closed: true, points: closed(&square(0.0, 0.0, 20.0, 20.0)) };
        let places: Vec<At> = run.places(Pins { pins: 16, pitch_mm: 5.0 }, 8.0).collect();
        assert_eq!(
            (places[0], places[4], places[15]),
            (At::new(0.0, 0.0), At::new(20.0, 0.0), At::new(0.0, 5.0))
        );
        let run = PatchRun { closed: false, points: vec![At::new(0.0, 0.0), At::new(48.0, 0.0)] };
        let places: Vec<At> = run.places(Pins { pins: 9, pitch_mm: 5.0 }, 8.0).collect();
        assert_eq!((places[0], places[8]), (At::new(4.0, 0.0), At::new(44.0, 0.0)));
    }
}
