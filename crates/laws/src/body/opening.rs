//! Whether a crack opens while a face is heated.

use super::face::FlatBody;
use super::heat::Heating;
use super::model::FaceModel;
use super::tips::{NotReckoned, Tip};

/// The greatest that a tip is asked to stand on the way.
#[derive(Debug, Clone, PartialEq)]
pub struct TipLook {
    pub crack: usize,
    /// Whether it is the crack's last point; else its first.
    pub at_last_point: bool,
    /// 0 where it stays shut.
    pub k_mpa_sqrt_m: f64,
    /// When it was greatest; nothing where it stays shut.
    pub at_min: Option<f64>,
    /// The greatest that slid while it was shut.
    pub sliding_mpa_sqrt_m: f64,
}

/// The greatest at each tip of a face while it is heated, looked at each whole minute and at the end.
///
/// # Errors
/// [`NotReckoned`] where it cannot be laid out.
pub fn tips_while_heated(piece: &FlatBody, heating: &Heating) -> Result<Vec<TipLook>, NotReckoned> {
    let model = FaceModel::of(piece.clone())?;
    let mut looks: Vec<TipLook> = model.tips.iter().map(TipLook::of).collect();
    for look in model.heated(heating) {
        for (tip, intensity) in looks.iter_mut().zip(&look.tips) {
            tip.takes(*intensity, look.minutes);
        }
    }
    Ok(looks)
}

/// House: of what the iron stands, what is nothing, and from where it is likely to run.
pub const WATCHED_FROM: f64 = 0.4;
pub const RUNS_LIKELY_FROM: f64 = 0.7;

impl TipLook {
    /// Whether it stays shut, but its faces slide by more than is nothing.
    #[must_use]
    pub fn slides_over(&self, stands_mpa_sqrt_m: f64) -> bool {
        self.at_min.is_none() && self.sliding_mpa_sqrt_m > WATCHED_FROM * stands_mpa_sqrt_m
    }

    fn of(tip: &Tip) -> Self {
        Self {
            crack: tip.crack,
            at_last_point: tip.at_last_point,
            k_mpa_sqrt_m: 0.0,
            at_min: None,
            sliding_mpa_sqrt_m: 0.0,
        }
    }

    fn takes(&mut self, (opens, slides): (f64, f64), minutes: f64) {
        if opens <= 0.0 {
            self.sliding_mpa_sqrt_m = self.sliding_mpa_sqrt_m.max(slides.abs());
            return;
        }
        let both = (opens * opens + slides * slides).sqrt();
        if both > self.k_mpa_sqrt_m {
            self.k_mpa_sqrt_m = both;
            self.at_min = Some(minutes);
        }
    }
}
