//! A drawn face whose heat is kept from moment to moment, and the tip that runs on under a flame.

use std::sync::Arc;

use super::course::{As, FlamePlacement, HELD_BACK_C, TRIED, Trial};
use super::part::FacePart;
use crate::body::{BodyHeating, FaceModel, Flame, Pace};

/// A tip that runs on under a flame.
#[derive(Debug, Clone, PartialEq)]
pub struct Opens {
    /// Minutes after the flame was lit.
    pub minutes: f64,
    /// "crack A at its upper tip"
    pub named: String,
    /// Of what the iron stands by the book, it is asked for.
    pub share: f64,
}

/// The first tip that is asked for more than `stands` times what the iron stands by the book, on the way to the joint's
/// least heat; nothing where each holds.
#[must_use]
pub fn opens(part: &FacePart, model: &FaceModel, asked: &FlamePlacement, stands: f64) -> Option<Opens> {
    let at = asked.at.unwrap_or_else(|| part.joint());
    let course =
        part.course(model, Trial { at, swept: asked.swept, path: &asked.path, by: As::Asked, pace: TRIED });
    course.looks.iter().find_map(|look| {
        let share = |tip: &usize| course.share(look, *tip);
        let worst = (0..look.tips.len()).max_by(|a, b| share(a).total_cmp(&share(b)))?;
        let share = share(&worst);
        (share > stands).then(|| Opens { minutes: look.minutes, named: part.named(model, worst), share })
    })
}

/// A drawn face whose heat is kept from moment to moment: the flame is held where it begins until the joint is warm
/// enough to be worked, and swept over all of it from then on.
#[derive(Debug, Clone)]
pub struct WarmFace {
    model: Arc<FaceModel>,
    ambient_c: f64,
    /// At the joint the flame is swept from this on.
    swept_from_c: f64,
    begins: Flame,
    swept: Flame,
    is_swept: bool,
    celsius: Vec<f64>,
    /// Its coldest place.
    pub coldest_c: f64,
}

impl WarmFace {
    /// All of it at one temperature.
    #[must_use]
    pub fn new(part: &FacePart, model: Arc<FaceModel>, asked: &FlamePlacement, start_c: f64) -> Self {
        let at = asked.at.unwrap_or_else(|| part.joint());
        Self {
            begins: part.flame_at(at, asked.swept, 1.0),
            swept: part.flame_at(at, true, 1.0),
            is_swept: asked.swept || start_c >= part.least_c,
            swept_from_c: part.least_c,
            ambient_c: part.ambient_c,
            celsius: model.evenly(start_c),
            model,
            coldest_c: start_c,
        }
    }

    /// Goes on from another's heat, where that is the same face.
    #[must_use]
    pub fn going_on_from(self, before: &Self) -> Self {
        // A hole was drilled meanwhile, or it was drawn anew: as warm as it was, all over.
        let celsius = if self.model.piece == before.model.piece {
            before.celsius.clone()
        } else {
            self.model.evenly(before.coldest_c)
        };
        let is_swept = self.is_swept || before.is_swept;
        Self { celsius, coldest_c: before.coldest_c, is_swept, ..self }
    }

    /// All of it is warmed by so much.
    pub fn warmed_by(&mut self, kelvins: f64) {
        self.celsius.iter_mut().for_each(|celsius| *celsius += kelvins);
        self.coldest_c += kelvins;
    }

    /// So many seconds go by, step by step; `burns` says before each, of the coldest place, whether the flame is on.
    /// Gives the coldest place after each step.
    pub fn goes_on(&mut self, seconds: f64, step_s: f64, mut burns: impl FnMut(f64) -> bool) -> Vec<f64> {
        let mut coldest: Vec<f64> = Vec::new();
        let left_s = |done: usize| seconds - done as f64 * step_s;
        while left_s(coldest.len()) > 1e-6 {
            let heating = BodyHeating {
                pace: Pace { step_s, looks_s: step_s, ..Pace::EVEN },
                most_c: Some(HELD_BACK_C),
                ..BodyHeating::new(
                    self.ambient_c,
                    left_s(coldest.len()) / 60.0,
                    vec![if self.is_swept { self.swept } else { self.begins }],
                )
            };
            let was_swept = self.is_swept;
            let (is_swept, from_c) = (&mut self.is_swept, self.swept_from_c);
            let more = self.model.goes_on(&mut self.celsius, &heating, |joint_c, coldest_c| {
                let turns = !*is_swept && joint_c >= from_c;
                *is_swept |= turns;
                (!turns).then(|| burns(coldest_c))
            });
            if more.is_empty() && self.is_swept == was_swept {
                break;
            }
            coldest.extend(more);
        }
        self.coldest_c = coldest.last().copied().unwrap_or(self.coldest_c);
        coldest
    }
}
