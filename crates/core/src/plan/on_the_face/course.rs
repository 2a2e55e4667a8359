//! One heating of a face by the flame at hand, and what its tips are asked for on the way.

use serde::Deserialize;
use uuid::Uuid;

use super::part::FacePart;
use super::words::Nearness;
use crate::body::{BodyHeating, FaceModel, Flame, Look, Pace};
use crate::job::Job;
use crate::map::{At, length_mm, place_along};

/// Where a flame is put.
#[derive(Debug, Clone, PartialEq, Default, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FlamePlacement {
    /// The middle of the flame; nothing for over the crack.
    #[serde(default)]
    pub at: Option<At>,
    /// It is swept over the whole part, not held there.
    #[serde(default)]
    pub swept: bool,
    /// It is swept along these places, to and fro; under two of them it is not.
    #[serde(default)]
    pub path: Vec<At>,
}

/// Ours: more places than these nobody draws.
pub const PATH_MOST: usize = 24;

impl FlamePlacement {
    /// Where it was said that the flame begins on this face, where nothing else is asked.
    #[must_use]
    pub fn or_as_said(self, job: &Job, face: Uuid) -> Self {
        let asked = self.at.is_some() || self.swept || self.is_along();
        let said = job.round().flame.filter(|put| put.face == face && !asked);
        match said {
            Some(put) => Self { at: Some(put.at), swept: put.swept, path: Vec::new() },
            None => self,
        }
    }

    /// It is swept along a path.
    pub(super) fn is_along(&self) -> bool {
        self.path.len() > 1
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
pub(super) const SEEN: Pace = Pace { at_first: Some((120.0, 5.0, 10.0)), ..Pace::EVEN };
pub(super) const TRIED: Pace = Pace { at_first: Some((120.0, 10.0, 20.0)), ..Pace::EVEN };
/// Ours: to be seen before it is judged; off by some K, which no eye tells apart.
pub(super) const AT_ONCE: Pace =
    Pace { step_s: 60.0, at_first: Some((120.0, 10.0, 10.0)), close: 1e-4, ..Pace::EVEN };
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

impl As {
    /// What walls are by it, of what they are taken for.
    pub(super) fn wall(self) -> f64 {
        match self {
            Self::Asked => 1.0,
            Self::Strong => 1.0 - WALLS,
            Self::Weak => 1.0 + WALLS,
        }
    }

    /// Of the flame's power, the walls, and what the iron stands.
    fn factors(self, part: &FacePart) -> (f64, f64, f64) {
        let off = part.flame.not_known;
        match self {
            Self::Asked => (1.0, self.wall(), 1.0),
            Self::Strong => (1.0 + off, self.wall(), 1.0 - STANDS),
            Self::Weak => (1.0 - off, self.wall(), 1.0 + STANDS),
        }
    }
}

/// What is tried of a flame.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Trial<'a> {
    pub at: At,
    pub swept: bool,
    /// Swept along it, where it has more than one place.
    pub path: &'a [At],
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
    /// What was looked at of a face; that it was there is not asked.
    pub fn of(part: &FacePart, model: &FaceModel, looks: Vec<Look>, by: As) -> Self {
        let blunted = model.tips.iter().map(|tip| part.blunted(tip.at)).collect();
        Self { looks, there_min: None, stands: part.stands_mpa_sqrt_m * by.factors(part).2, blunted }
    }

    /// Of what the iron stands, what a tip is asked for at a look.
    pub fn share(&self, look: &Look, tip: usize) -> f64 {
        let (opens, slides) = look.tips[tip];
        if opens <= 0.0 { 0.0 } else { self.blunted[tip] * together(opens, slides) / self.stands }
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
    tips.map(|(opens, slides)| together(*opens, *slides)).fold(0.0, f64::max)
}

/// What opening and sliding ask together.
fn together(opens: f64, slides: f64) -> f64 {
    (opens * opens + slides * slides).sqrt()
}

impl FacePart {
    /// The flame at hand, so many times as strong as it is taken for.
    pub(super) fn flame_at(&self, at: At, swept: bool, strength: f64) -> Flame {
        let even_share = if swept { SWEPT } else { HELD };
        Flame { at, power_w: self.flame.net_w * strength, even_share, spot_mm: self.flame.spot_mm }
    }

    /// The flame of a trial; swept along a path it is as long at each place of it.
    fn flames(&self, tried: Trial<'_>, strength: f64) -> Vec<Flame> {
        let along = length_mm(tried.path);
        if tried.path.len() < 2 || along <= 0.0 {
            return vec![self.flame_at(tried.at, tried.swept, strength)];
        }
        /// Ours: closer than half of what a flame spreads over its places are not told apart.
        const A_SPOT: f64 = 2.0;
        let places = (A_SPOT * along / self.flame.spot_mm).ceil().clamp(2.0, 16.0) as u32;
        let at = |place: u32| place_along(tried.path, along * (f64::from(place) + 0.5) / f64::from(places));
        let each = strength / f64::from(places);
        (0..places).filter_map(at).map(|at| self.flame_at(at, false, each)).collect()
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
    pub(super) fn course(&self, model: &FaceModel, tried: Trial<'_>) -> Course {
        let heating = self.heating(tried);
        self.followed(model, tried.by, model.heated(&heating))
    }

    /// The same without what its tips are asked for.
    pub(super) fn warmth(&self, model: &FaceModel, tried: Trial<'_>) -> Course {
        let heating = self.heating(tried);
        self.followed(model, tried.by, model.warmed(&heating))
    }

    fn heating(&self, tried: Trial<'_>) -> BodyHeating {
        let (power, wall_factor, _) = tried.by.factors(self);
        BodyHeating {
            wall_factor,
            pace: tried.pace,
            most_c: Some(HELD_BACK_C),
            enough_c: Some(self.least_c),
            ..BodyHeating::new(self.ambient_c, MOST_MIN, self.flames(tried, power))
        }
    }

    /// Until the joint is warm enough, or comes up no further.
    fn followed(&self, model: &FaceModel, by: As, seen: impl Iterator<Item = Look>) -> Course {
        let mut looks: Vec<Look> = Vec::new();
        let mut there_min = None;
        for look in seen {
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
        Course { there_min, ..Course::of(self, model, looks, by) }
    }
}
