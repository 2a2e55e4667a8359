//! What can be chosen in the fields of a job: `(id, label)`, in the order shown.

use super::Choice;
use crate::method::WeldingSet;

/// Nothing of a list is at hand: an answer, other than no answer.
pub const NONE: &str = "none";

pub const ROD_CHOICES: &[Choice] = &[
    ("nickel", "Nickel stick"),
    ("nickel_iron", "Nickel-iron stick"),
    ("bronze", "Low-fuming bronze and flux"),
    ("iron_rod", "Cast-iron gas rod and flux"),
    ("iron_rod_b", "Cast-iron gas rod for ductile (RCI-B)"),
    ("tig_nickel", "Nickel TIG rod"),
    ("silicon_rod", "Silicon bronze rod"),
    ("aluminium_rod", "Aluminium bronze rod"),
    ("silicon_wire", "Silicon bronze wire"),
    ("silver", "Silver braze and flux"),
    ("steel_wire", "Steel wire"),
    ("steel_stick", "Low-hydrogen steel stick"),
    ("rutile_stick", "Thin rutile steel stick (E6013)"),
    ("stainless_rod", "Stainless TIG rod"),
    ("nickel_core_wire", "Nickel-iron flux-cored wire"),
    ("bare_nickel", "Bare nickel rod"),
    ("own_rod", "Cast-iron rods cast here"),
    ("soft_screws", "Soft steel screws, to set as pins"),
    ("locks", "Locks for stitching"),
    ("strap", "Strap steel and bolts"),
    ("epoxy", "Metal-filled epoxy"),
    (NONE, "None"),
];

/// What a shop welds with, and the answer that it has none of them.
pub const SETS: &[Choice] = &[
    WeldingSet::CHOICES[0],
    WeldingSet::CHOICES[1],
    WeldingSet::CHOICES[2],
    WeldingSet::CHOICES[3],
    (NONE, "None"),
];

/// Days of the week, Monday first.
pub const DAYS: &[Choice] = &[
    ("mon", "Mon"),
    ("tue", "Tue"),
    ("wed", "Wed"),
    ("thu", "Thu"),
    ("fri", "Fri"),
    ("sat", "Sat"),
    ("sun", "Sun"),
];
