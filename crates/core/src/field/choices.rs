//! What can be chosen in the fields of a job: `(id, label)`, in the order shown.

use super::Choice;

/// Classes of parts that are referred out unless a named authority is entered.
pub const SAFETY_CLASSES: &[Choice] = &[
    ("none", "None of these"),
    ("boiler_or_pressure_vessel", "Boiler, pressure vessel, receiver, compressor head"),
    ("hydraulic_or_cylinder", "Hydraulic body or gas cylinder"),
    ("pressure_piping", "Pressure piping of gas, steam or drinking water"),
    ("burner_or_flue", "Gas burner or flue"),
    ("lifting", "Lifting gear, hook, chain, jack"),
    ("towing", "Towing gear"),
    ("steering_brakes_suspension", "Vehicle steering, brakes, suspension"),
    ("aircraft", "Aircraft"),
    ("press_frame_or_guard", "Press frame, or a guard that protects a person"),
    ("rotating", "Rotating part, or rollers without a guard"),
    ("structure", "Structural column, axle, or what drops a load or a person"),
    ("medical_or_ride", "Medical, fairground ride"),
];

/// Who may answer for a part that is referred out.
pub const AUTHORITIES: &[Choice] = &[
    ("owners_engineer", "The owner's engineer"),
    ("inspector", "Inspector"),
    ("code", "Code or classification body"),
];

/// Stitching, packing and groove choices follow the tables of their own modules.
pub const LOADS: &[Choice] =
    &[("static", "Steady"), ("bending", "Bending"), ("shock", "Shock"), (NONE, "Nothing: it only shows")];

/// What gets to a seam.
pub const REACHES: &[Choice] = &[
    ("eye", "The eye"),
    ("disc", "A disc"),
    ("burr", "A burr"),
    ("chisel", "A chisel"),
    ("torch", "The torch"),
];

/// What the alignment of a full break is read by.
pub const ALIGN_BY: &[Choice] = &[
    ("pin", "A pin through the holes"),
    ("straight_edge", "A straight edge"),
    ("light", "Light through the bolt holes"),
];

/// What cannot be done once it is hot.
pub const PREP_DONE: &[Choice] = &[
    ("holes", "Stop-holes drilled"),
    ("groove", "Groove ground"),
    ("inside", "Inside cleaned too"),
    ("penetrant", "Dye, chalk and oil out again"),
    ("paint", "Paint off round the heat"),
];

pub const PINS: &[Choice] = &[("draw_in", "Pins that draw the crack in"), ("plain", "Plain threaded pins")];

/// Nothing of a list is at hand: an answer, other than no answer.
pub const NONE: &str = "none";

pub const COATINGS: &[Choice] = &[
    ("bare", "Bare"),
    ("paint", "Paint"),
    ("galvanised", "Galvanised"),
    ("plated", "Plated"),
    ("enamel", "Enamel"),
];

pub const HAZARDS: &[Choice] = &[
    ("none", "None of these"),
    ("seals", "Seals of fluoroelastomer or PTFE"),
    ("chlorinated", "Cleaner with chlorine, not flashed off"),
    ("cadmium", "Cadmium, or plating that may be"),
];

/// What a pad beside the first one lies on.
pub const PADS: &[Choice] = &[
    ("corner", "Another corner of the part"),
    ("joint", "The joint"),
    ("neighbour", "What must stay cool"),
    ("air", "The oven's air, or something else"),
];

pub const SURFACES: &[Choice] = &[
    ("ground", "Ground bright"),
    ("machined", "Machined"),
    ("skin", "Cast skin"),
    ("rusty", "Rusty or scaled"),
    ("soot", "Soot or heat paint"),
];

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

/// What a mended place has to be when it goes out.
pub const FINISHED_AS: &[Choice] = &[
    ("leave", "Is left as it is"),
    ("flush", "Is level"),
    ("seen", "Looks like the rest"),
    ("fits", "Fits what lies on it"),
    ("runs", "Lets a pin or a shaft run"),
    ("seals", "Seals"),
];
pub const COATS: &[Choice] =
    &[("bare", "Nothing"), ("primer", "Primer"), ("paint", "Primer and paint"), ("stove", "Stove paint")];

/// What became of a repair, asked again later.
pub const BECAME: &[Choice] =
    &[("holds", "Holds"), ("fault", "Holds, with a fault"), ("failed", "Failed"), ("unknown", "Not known")];

pub const CHECKED: &[Choice] = &[("ok", "Good"), ("not_ok", "Not good")];

/// Where practice differs: each with the usual among them.
pub const POLARITIES: &[Choice] =
    &[("plus", "Holder in plus"), ("minus", "Holder in minus"), ("ac", "Alternating")];
pub const PEENINGS: &[Choice] =
    &[("each", "Each bead, while it glows"), ("light", "Lightly"), ("none", "Not at all: heat instead")];
pub const FIXTURES: &[Choice] = &[
    ("free", "Free on bricks"),
    ("tacks", "Lightly, for the tacks"),
    ("clamped", "Clamped to a heavy plate"),
];
pub const TAUGHT_SIDES: &[Choice] = &[("both", "Both"), ("one", "One: a face stays untouched")];
pub const DIRTS: &[Choice] = &[("clean", "Clean until the rag is white"), ("flux", "The flux will lift it")];
pub const BEAD_LENGTHS: &[Choice] =
    &[("short", "Up to {10 mm}"), ("usual", "As its heat asks"), ("long", "Half as long again")];
pub const AFTERS: &[Choice] = &[
    ("wrap", "Wrap it at once"),
    ("post_heat", "Heat it all once more, then wrap"),
    ("taper", "Take the flame off by degrees"),
    ("oven", "Hold it in the oven, then wrap"),
    ("still", "Heat it shortly, still air"),
];
/// A fire that goes out with the part in it.
pub const PORES: &[Choice] =
    &[("leave", "Leave what neither weeps nor carries"), ("all", "Refill every one")];
pub const OLD_WELDS: &[Choice] = &[("out", "All of it out"), ("over", "Over sound parts of it")];
pub const STOP_HOLES: &[Choice] = &[
    ("past", "Past the tip, by how it was found"),
    ("on_tip", "On the tip"),
    ("none", "None: ground out to sound metal"),
];
pub const DENSITIES: &[Choice] = &[
    ("all", "Every pin overlaps"),
    ("bridged", "Every second, bridging pins after"),
    ("anchors", "A few anchors and epoxy"),
];
pub const FINISHES: &[Choice] =
    &[("seen", "Blend the seen face"), ("all", "Blend all of it"), ("leave", "Leave it to be read")];
pub const GROOVE_DEPTHS: &[Choice] = &[
    ("usual", "As the way asks for"),
    ("through", "Through the wall"),
    ("lip", "To a lip"),
    ("half", "Half the wall"),
];
pub const NICKELS: &[Choice] =
    &[("one", "Nickel-iron throughout"), ("root", "Nickel first, nickel-iron over it")];

pub const PREHEATS: &[Choice] = &[
    ("at_hand", "By the heat at hand"),
    ("cold", "Cold, bead by bead"),
    ("warm", "Warm, about {150 degC}"),
    ("hot", "Hot, about {300 degC}"),
];
pub const BRAZE_HEATS: &[Choice] =
    &[("weight", "By its weight"), ("arc_only", "Arc only"), ("whole_part", "The whole part warmed")];
pub const GAS_HEATS: &[Choice] =
    &[("whole_part", "The whole part, dull red"), ("modest", "Modest, {250 degC}")];

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
