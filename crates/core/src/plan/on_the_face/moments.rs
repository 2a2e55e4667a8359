//! A face under one flame, moment by moment.

use std::sync::Arc;

use serde::Serialize;
use uuid::Uuid;

use super::course::{AT_ONCE, As, Course, FlamePlacement, HELD_BACK_C, SEEN, TRIED, Trial};
use super::part::FacePart;
use super::words::{Nearness, shares_words};
use crate::base::at_once::both;
use crate::body::{Cells, FaceModel, Look, WATCHED_FROM};
use crate::map::{At, FlamePlace};
use crate::quantity::number;

/// A face under a flame.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceHeat {
    pub face: Uuid,
    pub name: String,
    /// Left, top, right, bottom of the picture, in mm.
    pub frame: (f64, f64, f64, f64),
    /// The outline first, then what is cut out.
    pub rims: Vec<Vec<At>>,
    pub cracks: Vec<Vec<At>>,
    /// The flame, how far it reaches, and what it is.
    pub flame: At,
    pub spot_mm: f64,
    pub swept: bool,
    pub flame_label: String,
    /// It is swept along these places; empty where it is not.
    pub path: Vec<At>,
    /// Square cells in a row of a picture.
    pub columns: usize,
    /// It was said that the flame begins here.
    pub said: bool,
    /// As it was logged, not as it would be.
    pub logged: bool,
    /// So much is asked of a tip that it is watched, or it is likely to run.
    pub asks_much: bool,
    pub moments: Vec<FaceMoment>,
    pub sentence: String,
    /// What goes with it, in a second sentence.
    pub beneath: String,
    /// What the reckoning does not know.
    pub not_in_it: String,
}

/// A face at one moment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaceMoment {
    /// "After 8 min"
    pub words: String,
    /// °C, row after row; beside the iron as the iron nearest to it.
    pub celsius: Vec<i32>,
    /// Where the flame is; nothing while it is off.
    pub flame: Option<At>,
    /// "840 °C"; empty while it is off.
    pub flame_words: String,
    /// The coldest place, in °C: which moment it is when that is read.
    pub coldest_c: i32,
    pub tips: Vec<HeatedTip>,
    pub places: Vec<PlaceOnFace>,
    /// What is told of the whole, to somebody who does not see it.
    pub told: String,
}

/// What a place is at.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PlaceOnFace {
    pub at: At,
    pub words: String,
}

/// A tip at one moment.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeatedTip {
    pub at: At,
    pub letter: String,
    /// shut, open, watch or runs.
    pub state: String,
    /// "open, 0.9 of what it stands", "shut"
    pub words: String,
    /// The same where there is little room: "A open 0.9".
    pub short: String,
    pub gap_words: String,
}

/// House: cells of a row that travel.
const COLUMNS: usize = 48;
/// House: moments that travel.
const MOMENTS: usize = 12;
/// A face under a flame, from cold until the joint is warm enough.
///
/// `laid_out` lays a part out: this one, and where it matters the same with the holes that are planned.
///
/// # Errors
/// A sentence: it cannot be laid out.
pub fn face_heat(
    part: &FacePart,
    laid_out: impl Fn(&FacePart) -> Result<Arc<FaceModel>, String> + Sync,
    asked: &FlamePlacement,
    said: bool,
) -> Result<FaceHeat, String> {
    let model = &*laid_out(part)?;
    let trial = trial_of(part, asked);
    // A stronger flame in thinner walls of weaker iron: by that it is judged, not by the middle alone.
    let judged = || {
        let strong = part.course(model, Trial { by: As::Strong, pace: TRIED, ..trial });
        let asks = Nearness::of(strong.worst()) >= Nearness::Watch;
        let with_holes = asks.then(|| part.with_holes()).flatten().and_then(|drilled| {
            let model = laid_out(&drilled).ok()?;
            Some(drilled.course(&model, Trial { pace: TRIED, ..trial }).worst())
        });
        (strong, asks, with_holes)
    };
    let (course, (strong, asks, with_holes)) = both(|| part.course(model, trial), judged);
    let seen = CourseView { part, model, course: &course, places: part.places(), cools: false };
    let flame = match (asked.is_along(), asked.swept) {
        (true, _) => "swept along there",
        (false, true) => "swept over all",
        (false, false) => "held here",
    };
    let (sentence, beneath) = seen.said(&strong, with_holes, flame);
    Ok(FaceHeat { sentence, beneath, asks_much: asks, ..under_a_flame(&seen, trial, said) })
}

/// What its places are at under a flame: there before it is known what that asks of its tips, and nothing is said of it.
///
/// # Errors
/// A sentence: it cannot be laid out.
pub fn face_warmth(
    part: &FacePart,
    laid_out: impl Fn(&FacePart) -> Result<Arc<FaceModel>, String>,
    asked: &FlamePlacement,
    said: bool,
) -> Result<FaceHeat, String> {
    let model = &*laid_out(part)?;
    let trial = trial_of(part, asked);
    let course = part.warmth(model, Trial { pace: AT_ONCE, ..trial });
    let seen = CourseView { part, model, course: &course, places: part.places(), cools: false };
    Ok(under_a_flame(&seen, trial, said))
}

/// As it is asked for: in one place, or along a line.
fn trial_of<'a>(part: &FacePart, asked: &'a FlamePlacement) -> Trial<'a> {
    let path: &[At] = if asked.is_along() { &asked.path } else { &[] };
    let at = path.first().copied().or(asked.at).unwrap_or_else(|| part.joint());
    Trial { at, swept: asked.swept, path, by: As::Asked, pace: SEEN }
}

fn under_a_flame(seen: &CourseView<'_>, trial: Trial<'_>, said: bool) -> FaceHeat {
    let flames = vec![Some(trial.at); seen.course.looks.len()];
    let put = FlamePlace { face: seen.part.face, at: trial.at, swept: trial.swept };
    FaceHeat { said, path: trial.path.to_vec(), ..shown_of(seen, &flames, put) }
}

/// A course as it travels, without what is said of it; `flames` are where the flame is at each look.
pub(super) fn shown_of(seen: &CourseView<'_>, flames: &[Option<At>], put: FlamePlace) -> FaceHeat {
    let CourseView { part, model, course, .. } = *seen;
    let cells = model.cells(part.frame, COLUMNS);
    let last = course.looks.len().saturating_sub(1);
    let mut shown: Vec<usize> = (0..MOMENTS).map(|moment| moment * last / (MOMENTS - 1)).collect();
    shown.dedup();
    FaceHeat {
        face: part.face,
        name: part.name.clone(),
        frame: part.frame,
        rims: part.piece.rims(),
        cracks: part.piece.cracks.clone(),
        flame: put.at,
        spot_mm: part.flame.spot_mm,
        swept: put.swept,
        flame_label: part.flame.label.clone(),
        path: Vec::new(),
        columns: cells.columns,
        said: false,
        logged: false,
        asks_much: false,
        moments: shown.into_iter().map(|at| seen.moment(&course.looks[at], flames[at], &cells)).collect(),
        sentence: String::new(),
        beneath: String::new(),
        not_in_it: part.not_in_it(),
    }
}

/// A course as it is looked at.
pub(super) struct CourseView<'a> {
    pub part: &'a FacePart,
    pub model: &'a FaceModel,
    pub course: &'a Course,
    pub places: Vec<At>,
    /// On its way down, not under a flame.
    pub cools: bool,
}

impl CourseView<'_> {
    fn moment(&self, look: &Look, flame: Option<At>, cells: &Cells) -> FaceMoment {
        let part = self.part;
        let flame_words = flame.map_or_else(String::new, |at| {
            part.celsius_words(self.model.at(look, at).unwrap_or(look.most_c))
        });
        let at_the_flame =
            if flame.is_some() { format!("Flame {flame_words}") } else { "Flame off".to_owned() };
        let tips: Vec<HeatedTip> = (0..look.tips.len()).map(|tip| self.tip(look, tip)).collect();
        let words = match self.cools && look.minutes <= 0.0 {
            true => "When it is covered".to_owned(),
            false => format!("After {}", part.minutes_words(look.minutes)),
        };
        let each = tips
            .iter()
            .map(|tip| format!("{} {}, {}", tip.letter, tip.words, tip.gap_words))
            .collect::<Vec<_>>();
        let coldest = part.celsius_words(look.least_c);
        let whole = if self.cools {
            format!("{} at the hottest place, {coldest} at the coldest.", part.celsius_words(look.most_c))
        } else {
            let joint = part.celsius_words(look.joint_c);
            format!("{at_the_flame}, joint {joint}, coldest place {coldest}.")
        };
        FaceMoment {
            told: format!("{whole} {}", each.join("; ")).trim_end().to_owned(),
            words,
            celsius: self.model.picture(cells, look).map(|celsius| celsius.round() as i32).collect(),
            flame,
            flame_words,
            coldest_c: look.least_c.round() as i32,
            places: self
                .places
                .iter()
                .filter(|at| flame.is_none_or(|flame| at.distance_mm(flame) > part.flame.spot_mm))
                .filter_map(|at| {
                    let words = part.celsius_words(self.model.at(look, *at)?);
                    Some(PlaceOnFace { at: *at, words })
                })
                .collect(),
            tips,
        }
    }

    fn tip(&self, look: &Look, tip: usize) -> HeatedTip {
        let (of, share) = (&self.model.tips[tip], self.course.share(look, tip));
        let state = Nearness::of(share);
        let words = match state {
            Nearness::Shut if look.tips[tip].1.abs() > WATCHED_FROM * self.part.stands_mpa_sqrt_m => {
                "shut, but sliding".to_owned()
            }
            Nearness::Shut => "shut".to_owned(),
            Nearness::Open | Nearness::Watch | Nearness::Runs => {
                format!("open, {} of what it stands", number(share, 1))
            }
        };
        let letter = &self.part.letters[of.crack];
        let short = match state {
            Nearness::Shut => format!("{letter} shut"),
            Nearness::Open | Nearness::Watch | Nearness::Runs => {
                format!("{letter} open {}", number(share, 1))
            }
        };
        HeatedTip {
            short,
            at: of.at,
            letter: letter.clone(),
            state: state.id().to_owned(),
            words,
            gap_words: self.part.gap_words(look.opened_mm[of.crack]),
        }
    }

    /// What to do, and what goes with it.
    /// `strong` is the same at the stronger end of what is not known; `with_holes` the most that is asked of a tip once the
    /// holes that are planned are drilled.
    fn said(&self, strong: &Course, with_holes: Option<f64>, flame: &str) -> (String, String) {
        let (part, course) = (self.part, self.course);
        let least = part.celsius_words(part.least_c);
        let joint = course.looks.last().map_or(part.ambient_c, |look| look.joint_c);
        let there = match course.there_min {
            Some(minutes) => format!("Joint at {least} after about {}.", part.minutes_words(minutes)),
            None => {
                format!("The joint does not get to {least}: it stops at about {}.", part.celsius_words(joint))
            }
        };
        let held_back = if course.looks.iter().any(|look| look.flame_share < 1.0) {
            format!(" The flame is held back: under it the iron is at {}.", part.celsius_words(HELD_BACK_C))
        } else {
            String::new()
        };
        let (worst, at_most) = (course.worst(), strong.worst());
        let asked_for = || shares_words(worst, at_most);
        let sentence = match (Nearness::of(worst), Nearness::of(at_most), course.runs_at()) {
            (Nearness::Runs, _, Some((minutes, tip))) => format!(
                "Not here: with the flame {flame} {} opens, and is likely to run on after about {}.",
                self.named(tip),
                part.minutes_words(minutes)
            ),
            (_, Nearness::Runs, _) => format!(
                "Better not here: with the flame {flame} {} may run on, asked for {}.",
                self.named(strong.worst_tip()),
                asked_for()
            ),
            (Nearness::Watch, ..) | (_, Nearness::Watch, _) => format!(
                "Watch {}: with the flame {flame} it is asked for {}.",
                self.named(strong.worst_tip()),
                asked_for()
            ),
            _ if course.there_min.is_none() => format!("Not from here alone: the joint stays under {least}."),
            _ => format!("Here it can begin: each tip under {} of what it stands.", number(WATCHED_FROM, 1)),
        };
        let holes = with_holes.map_or_else(String::new, |worst| {
            format!(" With the stop-holes drilled it is {} of what it stands.", number(worst, 1))
        });
        let beneath = format!("{}, {flame}.{held_back} {there}{holes}", part.flame.label);
        (sentence, beneath)
    }

    fn named(&self, tip: usize) -> String {
        self.part.named(self.model, tip)
    }
}
