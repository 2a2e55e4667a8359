//! What can be said at the torch.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::base::choice::choice;
use crate::faults::causes::Symptom;
use crate::heat::Infrared;
use crate::quantity::UnitSystem;

/// Where a bead lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BeadAt {
    /// The crack its seam follows.
    pub crack: Uuid,
    /// From 1, the deepest.
    pub layer: u32,
    /// 1, or 2 on the other side of the wall.
    pub side: u32,
    /// Of the beads beside each other, from 1.
    pub beside: u32,
    /// From the first end of the crack, from 1.
    pub along: u32,
    /// It fills the stop-hole at this end of the crack, 1 or 2, and lies in no layer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hole: Option<u32>,
}

choice! {
    /// Something done while it burns that is neither bead nor heat: as it is said, and kept on the record.
    pub enum Deed {
        Tacked = "tacked", "Tacked";
        HoleFilled = "hole_filled", "Stop-hole filled";
        Refilled = "refilled", "Pinhole refilled";
        GroundOut = "ground_out", "Ground out hot";
        Turned = "turned", "Turned";
        /// The flame is held on the joint while it is filled.
        HeldAtJoint = "held_at_joint", "Flame held on the joint";
        /// It is kept warm over a break or a night, in an oven or a stove.
        HeldOver = "held_over", "Held warm over a break";
        /// It left the oven or the fire, or the flame is off: it falls from here.
        OutOfHeat = "out_of_heat", "Out of the heat";
        /// It is back in the oven, or the flame is on again.
        BackIn = "back_in", "Back in the heat";
        /// A seam that is filled in one flow is begun: the flame is on the joint until it is said to be filled.
        FlowBegun = "flow_begun", "Filling begun";
    }
}

impl Deed {
    /// It has a press of its own at the torch; the others are asked for in a sheet, in the order of the work.
    #[must_use]
    pub const fn has_its_press(self) -> bool {
        matches!(self, Self::OutOfHeat | Self::BackIn | Self::FlowBegun)
    }
}

/// An infrared gun and the surface it read.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Gun {
    pub emissivity_set: f64,
    pub emissivity_true: f64,
    /// What the surface mirrors, in °C.
    pub reflected_c: f64,
}

impl Gun {
    /// What the iron is when it shows this; nothing where no temperature would show it.
    #[must_use]
    pub fn true_c(&self, shown_c: f64) -> Option<f64> {
        let gun = Infrared::new(self.emissivity_set, self.emissivity_true, self.reflected_c).ok()?;
        gun.true_c(shown_c)
    }
}

/// Something said at the torch.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum TorchEntry {
    /// A temperature read by hand, as typed; of the part at its far side or coldest corner, or of the
    /// joint.
    Reading {
        typed: String,
        shown_in: UnitSystem,
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        joint: bool,
        /// Read by an infrared gun: what it shows is not what the iron is.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        gun: Option<Gun>,
    },
    /// A bead is laid, a pin set, a seam filled; of a bead where it lies, as the order has it or as it was
    /// corrected.
    Bead {
        #[serde(default, skip_serializing_if = "Option::is_none")]
        at: Option<BeadAt>,
    },
    /// Several beads at once, a layer or a side of a seam, in the order in which they were laid since the last piece.
    /// In the log each stands for itself.
    Beads {
        at: Vec<BeadAt>,
        /// Each was peened as it was laid.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        peened: bool,
        /// How long they take by the order as it stood, in min; added when it is kept. Nobody laid them slower than
        /// since the last piece.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        over_min: Option<f64>,
    },
    /// This pin of a row is set, counted from the first end of its crack, from 1.
    Pin {
        crack: Uuid,
        number: u32,
    },
    Peened,
    Reheated,
    /// Something else that is done while it burns.
    Did {
        what: Deed,
    },
    /// It does not go well: what is seen, and what was taken for its cause; empty while nobody says.
    Trouble {
        seen: Symptom,
        #[serde(default, skip_serializing_if = "String::is_empty")]
        cause: String,
    },
    /// A temperature stick was rubbed on, at the far side or the coldest corner: it melted, or it did not.
    Stick {
        typed: String,
        shown_in: UnitSystem,
        melted: bool,
    },
    /// The alignment was read: how far it is off, as typed.
    Aligned {
        typed: String,
        shown_in: UnitSystem,
    },
    /// The oven's program is started, or stopped.
    Oven {
        runs: bool,
    },
    Note {
        text: String,
    },
    /// The part is covered: it cools from here. With beads left undone it says why.
    Covered {
        #[serde(default, skip_serializing_if = "String::is_empty")]
        why: String,
    },
    /// The packing is off.
    Unwrapped,
}
