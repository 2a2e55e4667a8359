//! One seam: its groove all along, as it is ground and filled, or its row of pins.

use crate::base::drawn::serialize_tenth;
use crate::prep::said::SeamForm;
use serde::Serialize;
use uuid::Uuid;

use super::patch::PatchSeam;
use crate::prep::groove::{Groove, GrooveForm, GrooveSection};
use crate::prep::missing_metal::BUTTER_MM;
use crate::quantity::{Unit, UnitSystem, WallMillimetres};
use crate::stage::cracks::CrackPlan;

/// One seam: a crack's groove, or its row of pins.
#[derive(Debug, Clone, PartialEq, Serialize)]
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
    pub form: Option<SeamForm>,
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
    #[serde(skip)]
    pub volume_cm3: f64,
    pub beads: u32,
    /// What the stop-hole at its first end takes, and at its last, countersunk, in cm³; 0 where there is none.
    #[serde(skip)]
    pub(crate) holes_cm3: [f64; 2],
    /// So fast the arc goes along it that its beads lay what was ground out, in mm/s; nothing without beads of an arc.
    #[serde(skip)]
    pub travel_mm_s: Option<f64>,
    pub pins: u32,
    pub pin_mm: f64,
    /// Locks across the crack, and how long each is; 0 where none are set.
    pub locks: u32,
    #[serde(skip)]
    pub lock_mm: f64,
    pub pitch_mm: f64,
    /// Where along the crack the first pin stands: under 0 beyond an end that goes on, else within the edge.
    pub first_pin_mm: f64,
    #[serde(skip)]
    pub tap_drill_mm: f64,
    /// Pin numbers from the left end, in the order they go in.
    pub pin_order: Vec<u32>,
    /// Which pins; nothing where none are set.
    pub pins_that: Option<PinsThat>,
    /// Where it is no crack but runs round a patch.
    pub patch: Option<PatchSeam>,
    /// Why the groove is so, each reason a sentence.
    pub why: Vec<String>,
    /// The section at places along the seam, from its first end on: one where it is the same all along.
    pub cuts: Vec<SeamCut>,
    /// Depths read while grooving, from the first end on.
    pub read: Vec<GroundAt>,
}

/// The groove across the seam at one place.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamCut {
    /// From the first end.
    #[serde(serialize_with = "serialize_tenth")]
    pub at_mm: f64,
    /// "40 mm along"
    pub at_words: String,
    #[serde(serialize_with = "serialize_tenth")]
    pub wall_mm: f64,
    #[serde(serialize_with = "serialize_tenth")]
    pub depth_mm: f64,
    pub root_radius_mm: f64,
    #[serde(skip)]
    pub section: GrooveSection,
    /// Width at the face.
    #[serde(serialize_with = "serialize_tenth")]
    pub top_width_mm: f64,
    pub opens_words: String,
    pub wall_words: String,
    pub depth_words: String,
    /// "3 layers: 1, 2 and 2 beads across"; empty for a groove filled without beads.
    pub layers_words: String,
}

/// A depth read in the groove.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GroundAt {
    pub id: Uuid,
    pub at_mm: f64,
    pub depth_mm: f64,
    /// "40 mm along, 9.5 mm deep"
    pub words: String,
    /// What it says: how much more, or to stop.
    pub sentence: String,
    pub says: GroundSays,
}

/// What the pins of a seam do to its sides.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PinsThat {
    /// They pull them together.
    Draw,
    /// Plain ones, which press outwards.
    Push,
}

/// What a depth that was read in a groove asks for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GroundSays {
    GoOn,
    Stop,
    /// Deeper than the lip, and not yet through.
    IntoTheLip,
    Through,
}

impl SeamPlan {
    /// Stop-holes that are filled with an arc, each a bead of its own.
    #[must_use]
    pub(crate) fn hole_beads(&self) -> u32 {
        if self.travel_mm_s.is_none() {
            return 0;
        }
        self.holes_cm3.iter().filter(|cm3| **cm3 > 0.0).count() as u32
    }

    /// Half of what the groove opens at the face where the wall is so thick.
    #[must_use]
    pub fn half_width_mm(&self, wall_mm: f64) -> f64 {
        let Some(section) = self.section else { return 0.0 };
        if self.depth_mm <= 0.0 || (wall_mm - self.wall_mm).abs() < 0.01 {
            return section.top_width_mm / 2.0;
        }
        // The same lip, or the same share of the wall, is left wherever it is.
        let double = self.is_double();
        let deep = if double { wall_mm / 2.0 } else { wall_mm - (self.wall_mm - self.depth_mm) };
        let form = match self.form {
            Some(SeamForm::U) => GrooveForm::U { root_radius_mm: self.root_radius_mm },
            _ => GrooveForm::V,
        };
        WallMillimetres::new(deep.max(1.0))
            .ok()
            .and_then(|deep| Groove::new(form, deep, self.angle_deg, self.root_gap_mm, self.cap_mm).ok())
            .map_or(section.top_width_mm / 2.0, |groove| groove.section().top_width_mm / 2.0)
    }
}

/// A groove as it would be typed into its fields: bare numbers, in the units of the shop.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UsualSeam {
    pub depth: String,
    pub angle: String,
    pub gap: String,
    pub cap: String,
    pub width: String,
}

impl SeamPlan {
    /// Half of the wall from each side.
    #[must_use]
    pub fn is_double(&self) -> bool {
        self.form == Some(SeamForm::DoubleV)
    }

    /// What one layer over its two faces takes, in cm³.
    pub(super) fn butter_cm3(&self) -> f64 {
        let face_mm = self.depth_mm / (self.angle_deg / 2.0).to_radians().cos().max(0.1);
        let sides = if self.is_double() { 2.0 } else { 1.0 };
        (2.0 * sides * face_mm * self.length_mm * BUTTER_MM / 1000.0).min(self.volume_cm3)
    }
}

pub(super) fn bare_seam(crack: &CrackPlan, length_mm: f64, wall_mm: f64, units: UnitSystem) -> SeamPlan {
    SeamPlan {
        wall_guessed: crack.wall_guessed,
        wall_words: units.say(wall_mm, Unit::Millimetres),
        ..bare_seam_of(crack.id, &crack.letter, length_mm, wall_mm)
    }
}

pub(super) fn bare_seam_of(id: Uuid, name: &str, length_mm: f64, wall_mm: f64) -> SeamPlan {
    SeamPlan {
        id,
        letter: name.to_owned(),
        ground: false,
        length_mm,
        wall_mm,
        wall_guessed: false,
        form: None,
        depth_mm: wall_mm,
        angle_deg: 0.0,
        root_radius_mm: 0.0,
        root_gap_mm: 0.0,
        cap_mm: 0.0,
        section: None,
        opens_words: String::new(),
        wall_words: String::new(),
        depth_words: String::new(),
        usual: None,
        volume_cm3: 0.0,
        holes_cm3: [0.0; 2],
        travel_mm_s: None,
        beads: 0,
        pins: 0,
        pin_mm: 0.0,
        locks: 0,
        lock_mm: 0.0,
        pitch_mm: 0.0,
        first_pin_mm: 0.0,
        tap_drill_mm: 0.0,
        pin_order: Vec::new(),
        pins_that: None,
        patch: None,
        why: Vec::new(),
        cuts: Vec::new(),
        read: Vec::new(),
    }
}

/// To a tenth of a millimetre: nobody grinds closer.
pub(super) fn rounded(mm: f64) -> f64 {
    (mm * 10.0).round() / 10.0
}
