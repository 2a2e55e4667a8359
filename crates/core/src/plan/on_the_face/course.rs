//! One heating of a face by the flame at hand, and what its tips are asked for on the way.

use serde::Deserialize;
use uuid::Uuid;

use super::part::FacePart;
use super::words::Nearness;
use crate::body::{BodyHeating, FaceModel, Flame, Look, Pace};
use crate::job::Job;
use crate::map::At;

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

impl FlameAsked {
    /// Where it was said that the flame begins on this face, where nothing else is asked.
    #[must_use]
    pub fn or_as_said(self, job: &Job, face: Uuid) -> Self {
        let said = job.round().flame.filter(|put| put.face == face && self.at.is_none() && !self.swept);
        said.map_or(self, |put| Self { at: Some(put.at), swept: put.swept })
    }
}

/// House: a flame that stays in one place goes so much evenly over the part; one that is swept so much.
const HELD: f64 = 0.2;
const SWEPT: f64 = 0.8;
/// The iron's structure changes above: the flame is held back.
pub(super) const HELD_BACK_C: f64 = 700.0;
/// House: nobody stands longer at it.
pub(super) const MOST_MIN: f64 = 90.0;
/// Ours: where the joint comes up by less in so long, it comes up no further.
const COMES_UP_K: f64 = 2.0;
const COMES_UP_MIN: f64 = 5.0;
/// Ours: and that is not said before so long.
const LOOKED_AT_MIN: f64 = 20.0;
/// Ours: a flame that is held somewhere does most there in its first minutes. To be seen, and to be tried.
pub(super) const SEEN: Pace = Pace { step_s: 30.0, looks_s: 60.0, at_first: Some((120.0, 5.0, 10.0)) };
pub(super) const TRIED: Pace = Pace { step_s: 30.0, looks_s: 60.0, at_first: Some((120.0, 10.0, 20.0)) };
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
    pub fn worst_tip(&self) -> usize {
        let tips = self.looks.first().map_or(0, |look| look.tips.len());
        let most = |tip: usize| self.looks.iter().map(|look| self.share(look, tip)).fold(0.0, f64::max);
        (0..tips).max_by(|a, b| most(*a).total_cmp(&most(*b))).unwrap_or(0)
    }

    pub fn runs_at(&self) -> Option<(f64, usize)> {
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
    /// The flame at hand, so many times as strong as it is taken for.
    pub(super) fn flame_at(&self, at: At, swept: bool, strength: f64) -> Flame {
        let even_share = if swept { SWEPT } else { HELD };
        Flame { at, power_w: self.flame.net_w * strength, even_share, spot_mm: self.flame.spot_mm }
    }

    /// "crack A at its upper tip"
    pub(super) fn named(&self, model: &FaceModel, tip: usize) -> String {
        let of = &model.tips[tip];
        match self.end_at(of.at) {
            Some(end) => format!("crack {} at its {} tip", end.letter, end.name),
            None => format!("crack {}", self.letters[of.crack]),
        }
    }

    /// Heated from cold by the flame at hand.
    pub(super) fn course(&self, model: &FaceModel, tried: Trial) -> Course {
        let Trial { at, swept, by, pace } = tried;
        let off = self.flame.not_known;
        let (power, wall_factor, stands) = match by {
            As::Asked => (1.0, 1.0, 1.0),
            As::Strong => (1.0 + off, 1.0 - WALLS, 1.0 - STANDS),
            As::Weak => (1.0 - off, 1.0 + WALLS, 1.0 + STANDS),
        };
        let flame = self.flame_at(at, swept, power);
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
