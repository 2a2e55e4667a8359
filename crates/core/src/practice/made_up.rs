//! A made-up part, before anything of it is said.

use crate::crack::stop_hole::FoundBy;
use crate::map::{At, Vertex};
use crate::secret::{Draws, Gear, Level, Practised, TrueCrack, Truth, seal};

/// A crack as the eye sees it when the part comes in.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CrackTold {
    pub length_mm: f64,
    pub wall_mm: f64,
    /// Ids of its ends: tip, edge, hole.
    pub ends: [&'static str; 2],
}

impl CrackTold {
    /// Where it is drawn on a face: in from an edge, of a frame from its window into the lower limb, or along the middle,
    /// first end first.
    pub(super) fn line(&self, (across, down): (f64, f64), limb_mm: Option<f64>) -> Vec<Vertex> {
        let at = |x_mm: f64, y_mm: f64| Vertex { x_mm, y_mm, wall_mm: None };
        let (middle, long) = (across / 2.0, self.length_mm);
        if let Some(limb) = limb_mm {
            return vec![at(middle, down - limb), at(middle, down - limb + long)];
        }
        match self.ends {
            ["tip", "tip"] => vec![at(middle - long / 2.0, down / 2.0), at(middle + long / 2.0, down / 2.0)],
            ["tip", _] => vec![at(middle, down - long), at(middle, down)],
            _ => vec![at(middle, down), at(middle, down - long)],
        }
    }

    /// The crack as it really is, with its ends so far beyond where they are seen.
    pub(super) fn truly(&self, beyond: [f64; 2]) -> TrueCrack {
        let (mean, deviation) = FoundBy::Eye.beyond_mm();
        let tips = self.ends.iter().zip(beyond).filter(|(end, _)| **end == "tip");
        let further: f64 = tips.map(|(_, z)| (mean + deviation * z).max(0.0)).sum();
        TrueCrack { length_mm: self.length_mm + further, beyond }
    }
}

/// A made-up part as it comes in, with what it hides.
#[derive(Debug, Clone, PartialEq)]
pub struct Case {
    pub title: String,
    /// What whoever brings it says.
    pub words: String,
    /// Id of its lesson; empty for a free one.
    pub lesson: &'static str,
    pub seed: u32,
    /// Fields of the part as they are known, by the end of their key, as typed in metric.
    pub part: Vec<(&'static str, String)>,
    pub cracks: Vec<CrackTold>,
    pub truth: Truth,
    pub gear: Gear,
    /// Of a frame: how wide its limbs are, in mm.
    pub limb_mm: Option<f64>,
}

impl Case {
    /// What is cut out of the face; nothing for a whole one.
    pub(super) fn window(&self, (across, down): (f64, f64)) -> Option<Vec<At>> {
        let limb = self.limb_mm?;
        let (right, bottom) = (across - limb, down - limb);
        let corners = [(limb, limb), (right, limb), (right, bottom), (limb, bottom)];
        Some(corners.into_iter().map(|(x, y)| At::new(x, y)).collect())
    }

    /// Across and down of the face it is drawn on, in mm; nothing for what is not flat.
    pub(super) fn face_mm(&self) -> Option<(f64, f64)> {
        let typed =
            |key: &str| self.part.iter().find(|(known, _)| *known == key).map(|(_, typed)| typed.as_str());
        let flat = matches!(typed("shape"), Some("solid_block" | "thin_plate" | "ribbed_or_open_frame"))
            || self.limb_mm.is_some();
        let mm = |key: &str| typed(key)?.parse::<f64>().ok();
        let (across, down) = (mm("length")?, mm("width")?);
        // A crack that leaves no iron at its tip is on no such face.
        let fits = |crack: &CrackTold| match crack.ends {
            ["tip", "tip"] => crack.length_mm < 0.8 * across,
            _ => crack.length_mm < 0.8 * self.limb_mm.unwrap_or(down),
        };
        (flat && self.cracks.iter().all(fits)).then_some((across, down))
    }

    /// As it goes into the log of a job.
    #[must_use]
    pub fn practised(&self, level: Level) -> Practised {
        Practised {
            title: self.title.clone(),
            words: self.words.clone(),
            lesson: self.lesson.to_owned(),
            seed: self.seed,
            level,
            made_by: String::new(),
            sealed: seal(&self.truth),
            gear: self.gear.clone(),
        }
    }
}

/// What every case draws: its ends, its flame, its packing, its sweep.
pub(super) fn with_chance(truth: Truth, cracks: &[CrackTold], draws: Draws) -> Truth {
    let about = |name: &str| 1.0 + Truth::WITHIN * (2.0 * draws.even(name, "") - 1.0);
    let beyond = |at: usize| ["a", "b"].map(|end| draws.normal("tip", &format!("{at}{end}")));
    Truth {
        cracks: cracks.iter().enumerate().map(|(at, crack)| crack.truly(beyond(at))).collect(),
        power: about("power"),
        packing: about("packing"),
        sweep: about("sweep"),
        ..truth
    }
}

/// Gear that a small shop has.
pub(super) fn usual_gear() -> Gear {
    gear(
        &["weed_burner", "oxy_acetylene_medium", "hand_torch_propane"],
        &["vermiculite", "dry_sand", "blanket"],
        &["bronze", "nickel", "nickel_iron", "iron_rod", "silver", "strap", "epoxy"],
        &["stick", "flame"],
    )
}

pub(super) fn gear(sources: &[&str], packings: &[&str], rods: &[&str], sets: &[&str]) -> Gear {
    let list = |ids: &[&str]| ids.iter().map(|id| (*id).to_owned()).collect();
    Gear {
        sources: list(sources),
        packings: list(packings),
        rods: list(rods),
        sets: list(sets),
        stitch_kit: false,
    }
}
