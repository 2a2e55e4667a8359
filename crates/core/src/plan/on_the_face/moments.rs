//! A face under one flame, moment by moment.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::part::FacePart;
use super::words::{Nearness, shares_words};
use crate::body::{BodyHeating, Cells, FaceModel, Flame, Look, Pace, WATCHED_FROM};
use crate::map::At;
use crate::quantity::number;

/// Where a flame is put.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FlameAsked {
    /// The middle of the flame; nothing for over the crack.
    #[serde(default)]
    pub at: Option<At>,
    /// It is swept over the whole part, not held there.
    #[serde(default)]
    pub swept: bool,
}

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
    /// Square cells in a row of a picture.
    pub columns: usize,
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
    /// "840 °C"
    pub flame_words: String,
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

/// House: a flame that stays in one place goes so much evenly over the part; one that is swept so much.
const HELD: f64 = 0.2;
const SWEPT: f64 = 0.8;
/// The iron's structure changes above: the flame is held back.
const HELD_BACK_C: f64 = 700.0;
/// House: nobody stands longer at it.
pub(super) const MOST_MIN: f64 = 90.0;
/// Ours: where the joint comes up by less in so long, it comes up no further.
const COMES_UP_K: f64 = 2.0;
const COMES_UP_MIN: f64 = 5.0;
/// Ours: and that is not said before so long.
const LOOKED_AT_MIN: f64 = 20.0;
/// Ours: a flame that is held somewhere does most there in its first minutes. To be seen, and to be tried.
const SEEN: Pace = Pace { step_s: 30.0, looks_s: 60.0, at_first: Some((120.0, 5.0, 10.0)) };
pub(super) const TRIED: Pace = Pace { step_s: 30.0, looks_s: 60.0, at_first: Some((120.0, 10.0, 20.0)) };
/// Cells of a row, and moments, that travel.
const COLUMNS: usize = 48;
const MOMENTS: usize = 12;
/// House: what walls and toughness are not known by.
const WALLS: f64 = 0.1;
const STANDS: f64 = 0.3;

/// A flame at the stronger and weaker end of what is not known.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) enum As {
    Asked,
    Strong,
    Weak,
}

/// What is tried of a flame.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Trial {
    pub at: At,
    pub swept: bool,
    pub by: As,
    pub pace: Pace,
}

/// One heating of the face, to the least at the joint or as long as it comes up.
#[derive(Debug, Clone)]
pub(super) struct Course {
    pub looks: Vec<Look>,
    /// When the joint is at its least; nothing where it does not get there.
    pub there_min: Option<f64>,
    /// What its iron stands then, in MPa √m.
    stands: f64,
    /// Of each tip, how much less is asked of it than of a sharp one.
    blunted: Vec<f64>,
}

impl Course {
    /// Of what the iron stands, what a tip is asked for at a look.
    pub fn share(&self, look: &Look, tip: usize) -> f64 {
        let (opens, slides) = look.tips[tip];
        if opens <= 0.0 { 0.0 } else { self.blunted[tip] * opens.hypot(slides) / self.stands }
    }

    /// The greatest of all tips on the way, and when a tip first is likely to run.
    pub fn worst(&self) -> f64 {
        let of = |look: &Look| (0..look.tips.len()).map(|tip| self.share(look, tip)).fold(0.0, f64::max);
        self.looks.iter().map(of).fold(0.0, f64::max)
    }

    /// Which tip that is.
    fn worst_tip(&self) -> usize {
        let tips = self.looks.first().map_or(0, |look| look.tips.len());
        let most = |tip: usize| self.looks.iter().map(|look| self.share(look, tip)).fold(0.0, f64::max);
        (0..tips).max_by(|a, b| most(*a).total_cmp(&most(*b))).unwrap_or(0)
    }

    fn runs_at(&self) -> Option<(f64, usize)> {
        self.looks.iter().find_map(|look| {
            let tip =
                (0..look.tips.len()).find(|tip| Nearness::of(self.share(look, *tip)) == Nearness::Runs)?;
            Some((look.minutes, tip))
        })
    }
}

/// The greatest that a tip was opened by.
fn opening(looks: &[Look]) -> f64 {
    let tips = looks.iter().flat_map(|look| &look.tips).filter(|(opens, _)| *opens > 0.0);
    tips.map(|(opens, slides)| opens.hypot(*slides)).fold(0.0, f64::max)
}

impl FacePart {
    /// Heated from cold by the flame at hand.
    pub(super) fn course(&self, model: &FaceModel, tried: Trial) -> Course {
        let Trial { at, swept, by, pace } = tried;
        let even_share = if swept { SWEPT } else { HELD };
        let off = self.flame.not_known;
        let (power, wall_factor, stands) = match by {
            As::Asked => (1.0, 1.0, 1.0),
            As::Strong => (1.0 + off, 1.0 - WALLS, 1.0 - STANDS),
            As::Weak => (1.0 - off, 1.0 + WALLS, 1.0 + STANDS),
        };
        let flame = Flame { at, power_w: self.flame.net_w * power, even_share, spot_mm: self.flame.spot_mm };
        let heating = BodyHeating {
            wall_factor,
            pace,
            most_c: Some(HELD_BACK_C),
            ..BodyHeating::new(self.ambient_c, MOST_MIN, vec![flame])
        };
        let mut looks: Vec<Look> = Vec::new();
        let mut there_min = None;
        for look in model.heated(&heating) {
            let (minutes, joint_c) = (look.minutes, look.joint_c);
            looks.push(look);
            if joint_c >= self.least_c {
                there_min = Some(minutes);
                break;
            }
            // Heat from far away is long on its way: it goes on while a tip is asked for ever more.
            let then = looks.partition_point(|look| look.minutes <= minutes - COMES_UP_MIN);
            let (before, since) = looks.split_at(then);
            let comes_up = before.last().is_none_or(|look| joint_c - look.joint_c >= COMES_UP_K);
            if minutes >= LOOKED_AT_MIN && !comes_up && opening(since) <= opening(before) {
                break;
            }
        }
        let blunted = model.tips.iter().map(|tip| self.blunted(tip.at)).collect();
        Course { looks, there_min, stands: self.stands_mpa_sqrt_m * stands, blunted }
    }
}

/// A face under a flame, from cold until the joint is warm enough.
#[must_use]
pub fn face_heat(part: &FacePart, model: &FaceModel, asked: FlameAsked) -> FaceHeat {
    let at = asked.at.unwrap_or_else(|| part.joint());
    let trial = Trial { at, swept: asked.swept, by: As::Asked, pace: SEEN };
    let course = part.course(model, trial);
    let cells = model.cells(part.frame, COLUMNS);
    // Where it matters: it is laid out once more.
    // A stronger flame in thinner walls of weaker iron: by that it is judged, not by the middle alone.
    let strong = part.course(model, Trial { by: As::Strong, pace: TRIED, ..trial });
    let asks = Nearness::of(strong.worst()) >= Nearness::Watch;
    let with_holes = asks.then(|| part.with_holes()).flatten().and_then(|drilled| {
        let model = drilled.model().ok()?;
        Some(drilled.course(&model, Trial { pace: TRIED, ..trial }).worst())
    });
    let places = part.places();
    let seen =
        Seen { part, model, cells: &cells, course: &course, strong: &strong, flame: at, places, with_holes };
    let last = course.looks.len().saturating_sub(1);
    let mut shown: Vec<usize> = (0..MOMENTS).map(|moment| moment * last / (MOMENTS - 1)).collect();
    shown.dedup();
    let (sentence, beneath) = seen.said(asked.swept);
    FaceHeat {
        face: part.face,
        name: part.name.clone(),
        frame: part.frame,
        rims: part.piece.rims(),
        cracks: part.piece.cracks.clone(),
        flame: at,
        spot_mm: part.flame.spot_mm,
        swept: asked.swept,
        flame_label: part.flame.label.clone(),
        columns: cells.columns,
        moments: shown.into_iter().map(|at| seen.moment(&course.looks[at])).collect(),
        sentence,
        beneath,
        not_in_it: part.not_in_it(),
    }
}

/// A course as it is looked at.
struct Seen<'a> {
    part: &'a FacePart,
    model: &'a FaceModel,
    cells: &'a Cells,
    course: &'a Course,
    /// The same at the stronger end of what is not known.
    strong: &'a Course,
    flame: At,
    places: Vec<At>,
    /// The most that is asked of a tip once the holes that are planned are drilled.
    with_holes: Option<f64>,
}

impl Seen<'_> {
    fn moment(&self, look: &Look) -> FaceMoment {
        let part = self.part;
        let flame_words = part.celsius_words(self.model.at(look, self.flame).unwrap_or(look.most_c));
        let tips: Vec<HeatedTip> = (0..look.tips.len()).map(|tip| self.tip(look, tip)).collect();
        let words = format!("After {}", part.minutes_words(look.minutes));
        let each = tips
            .iter()
            .map(|tip| format!("Crack {} {}, {}", tip.letter, tip.words, tip.gap_words))
            .collect::<Vec<_>>();
        FaceMoment {
            told: format!(
                "{flame_words} at the flame, {} at the joint, {} at the coldest place. {}",
                part.celsius_words(look.joint_c),
                part.celsius_words(look.least_c),
                each.join("; ")
            ),
            words,
            celsius: self.model.picture(self.cells, look).map(|celsius| celsius.round() as i32).collect(),
            flame_words,
            places: self
                .places
                .iter()
                .filter(|at| at.distance_mm(self.flame) > self.part.flame.spot_mm)
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
    fn said(&self, swept: bool) -> (String, String) {
        let (part, course) = (self.part, self.course);
        let flame = if swept { "swept over all" } else { "held here" };
        let least = part.celsius_words(part.least_c);
        let joint = course.looks.last().map_or(part.ambient_c, |look| look.joint_c);
        let there = match course.there_min {
            Some(minutes) => format!("The joint is at {least} after about {}.", part.minutes_words(minutes)),
            None => {
                format!("The joint does not get to {least}: it stops at about {}.", part.celsius_words(joint))
            }
        };
        let held_back = if course.looks.iter().any(|look| look.flame_share < 1.0) {
            format!(" The flame is held back: under it the iron is at {}.", part.celsius_words(HELD_BACK_C))
        } else {
            String::new()
        };
        let (worst, at_most) = (course.worst(), self.strong.worst());
        let asked_for = || shares_words(worst, at_most);
        let sentence = match (Nearness::of(worst), Nearness::of(at_most), course.runs_at()) {
            (Nearness::Runs, _, Some((minutes, tip))) => format!(
                "Not here: with the flame {flame} {} opens, and is likely to run on after about {}.",
                self.named(tip),
                part.minutes_words(minutes)
            ),
            (_, Nearness::Runs, _) => format!(
                "Better not here: with the flame {flame} {} may run on, asked for {}.",
                self.named(self.strong.worst_tip()),
                asked_for()
            ),
            (Nearness::Watch, ..) | (_, Nearness::Watch, _) => format!(
                "Watch {}: with the flame {flame} it is asked for {}.",
                self.named(self.strong.worst_tip()),
                asked_for()
            ),
            _ if course.there_min.is_none() => format!("Not from here alone: the joint stays under {least}."),
            _ => format!(
                "Here it can begin: with the flame {flame} each tip stays under {} of what it stands.",
                number(WATCHED_FROM, 1)
            ),
        };
        let holes = self.with_holes.map_or_else(String::new, |worst| {
            format!(" With the stop-holes drilled it is {} of what it stands.", number(worst, 1))
        });
        let beneath = format!("{}.{held_back} {there}{holes}", part.flame.label);
        (sentence, beneath)
    }

    /// "crack A at its upper tip"
    fn named(&self, tip: usize) -> String {
        let of = &self.model.tips[tip];
        match self.part.end_at(of.at) {
            Some(end) => format!("crack {} at its {} tip", end.letter, end.name),
            None => format!("crack {}", self.part.letters[of.crack]),
        }
    }
}
