//! The beads as they are shown: the strip of each seam, what is next, what can be said at once.

use crate::base::drawn::serialize_tenth;
use serde::Serialize;

use super::super::BeadOnFace;
use crate::job::BeadAt;

/// The beads of the seams, laid and to be laid.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BeadsPlan {
    pub seams: Vec<SeamStrip>,
    /// Those to be laid, in their order: the first is the next. Where it never comes to its end there is none.
    pub ahead: Vec<NextBead>,
    /// "In this order 9 min of waiting, from end to end 12." Empty where nothing is waited for.
    pub waits_words: String,
    /// Why there is no order: the heat does not reach, or it never falls under the most. Empty else.
    pub never: String,
    /// Of all that is to be laid, in min.
    #[serde(skip)]
    pub arc_min: f64,
    #[serde(skip)]
    pub waiting_min: f64,
    #[serde(skip)]
    pub elapsed_min: f64,
    pub reheats: usize,
    /// What can be said at once of them, the least first: a layer, a side, a seam. Empty where one bead is left of it.
    pub at_once: Vec<AtOnce>,
}

/// Beads that are said at once.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AtOnce {
    /// "Layer 2 of A: the 7 that are left"
    pub words: String,
    /// In the order in which they are laid.
    #[serde(skip)]
    pub at: Vec<BeadAt>,
    /// The same by their places among those ahead, from 0.
    pub of_ahead: Vec<usize>,
}

/// One seam, from its first end to its last.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SeamStrip {
    pub crack: uuid::Uuid,
    pub letter: String,
    pub length_mm: f64,
    /// What lies at its ends: "stop-hole", "edge", "branch" ...
    pub ends: [String; 2],
    /// No front: an open edge.
    pub open: [bool; 2],
    pub layers: Vec<LayerStrip>,
    /// Its stop-holes that are filled, each a bead.
    pub holes: Vec<StripBead>,
}

/// The beads of one layer on one side.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LayerStrip {
    pub layer: u32,
    pub side: u32,
    /// "layer 1", "layer 2, far side"
    pub words: String,
    pub beads: Vec<StripBead>,
}

/// One bead on the strip.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StripBead {
    /// Of the beads beside each other in its layer, from 1.
    pub beside: u32,
    /// From the first end of the crack, from 1.
    pub along: u32,
    /// Along the seam, the lesser first.
    #[serde(serialize_with = "serialize_tenth")]
    pub from_mm: f64,
    #[serde(serialize_with = "serialize_tenth")]
    pub to_mm: f64,
    /// In the order in which it was or is to be laid, from 1; 0 where that is not known.
    pub number: u32,
    pub laid: bool,
    /// It is laid towards the first end.
    pub leftward: bool,
}

/// A bead to be laid.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NextBead {
    pub at: BeadAt,
    pub number: u32,
    /// "Bead 5 of 12, A: from 75 to 50 mm, layer 1."
    pub words: String,
    /// What comes before it: "Turn it first." Empty for most.
    pub before: String,
    /// Along its seam, where it begins and ends.
    #[serde(serialize_with = "serialize_tenth")]
    pub from_mm: f64,
    #[serde(serialize_with = "serialize_tenth")]
    pub to_mm: f64,
    /// Of the first of them, where it lies on the map; empty where its crack is not drawn.
    pub on_map: Vec<BeadOnFace>,
    /// Minutes on the job clock when it may start, and end; from the beginning of the beads while it is not lit.
    #[serde(skip)]
    pub start_min: f64,
    #[serde(skip)]
    pub ends_min: f64,
    #[serde(skip)]
    pub wait_s: f64,
    /// It is reheated first, for so long.
    #[serde(skip)]
    pub reheat_s: f64,
    /// The hottest place on its span as it begins, in degC.
    #[serde(skip)]
    pub before_c: f64,
}
