//! What can be chosen in the fields of a job: `(id, label)`, in the order shown.

use super::Choice;

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

pub const SETS: &[Choice] = &[
    ("stick", "Stick"),
    ("tig", "TIG, argon"),
    ("wire", "Wire-fed"),
    ("flame", "Gas torch"),
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
