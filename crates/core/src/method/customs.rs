//! Where practice differs: what can be chosen, the usual among it.

use super::School;
use crate::base::choice::choice;

choice! {
    /// Which lead goes where.
    pub enum Polarity {
        Plus = "plus", "Holder in plus";
        Minus = "minus", "Holder in minus";
        Ac = "ac", "Alternating";
    }
}

choice! {
    /// How beads are peened.
    pub enum Peening {
        Each = "each", "Each bead, while it glows";
        Light = "light", "Lightly";
        None = "none", "Not at all: heat instead";
    }
}

choice! {
    /// How the part is held while it is joined.
    pub enum Fixture {
        Free = "free", "Free on bricks";
        Tacks = "tacks", "Lightly, for the tacks";
        Clamped = "clamped", "Clamped to a heavy plate";
    }
}

choice! {
    /// From how many sides a groove is filled.
    pub enum Sides {
        Both = "both", "Both";
        One = "one", "One: a face stays untouched";
    }
}

choice! {
    /// What becomes of dirt in the joint.
    pub enum Dirt {
        Clean = "clean", "Clean until the rag is white";
        Flux = "flux", "The flux will lift it";
    }
}

choice! {
    /// How long a bead is.
    pub enum BeadLength {
        Short = "short", "Up to {10 mm}";
        Usual = "usual", "As its heat asks";
        Long = "long", "Half as long again";
    }
}

choice! {
    /// What is done with the heat after the last bead.
    pub enum After {
        Wrap = "wrap", "Wrap it at once";
        PostHeat = "post_heat", "Heat it all once more, then wrap";
        Taper = "taper", "Take the flame off by degrees";
        Oven = "oven", "Hold it in the oven, then wrap";
        Still = "still", "Heat it shortly, still air";
    }
}

choice! {
    /// What becomes of pores that are found.
    pub enum Pores {
        Leave = "leave", "Leave what neither weeps nor carries";
        All = "all", "Refill every one";
    }
}

choice! {
    /// What becomes of an old weld in the joint.
    pub enum OldWeld {
        Out = "out", "All of it out";
        Over = "over", "Over sound parts of it";
    }
}

choice! {
    /// Where a stop-hole goes.
    pub enum StopHoleAt {
        Past = "past", "Past the tip, by how it was found";
        OnTip = "on_tip", "On the tip";
        None = "none", "None: ground out to sound metal";
    }
}

choice! {
    /// How close stitching pins stand.
    pub enum PinDensity {
        All = "all", "Every pin overlaps";
        Bridged = "bridged", "Every second, bridging pins after";
        Anchors = "anchors", "A few anchors and epoxy";
    }
}

choice! {
    /// Which faces of a seam are blended.
    pub enum Blend {
        Seen = "seen", "Blend the seen face";
        All = "all", "Blend all of it";
        Leave = "leave", "Leave it to be read";
    }
}

choice! {
    /// How deep a groove is ground.
    pub enum GrooveDepth {
        Usual = "usual", "As the way asks for";
        Through = "through", "Through the wall";
        Lip = "lip", "To a lip";
        Half = "half", "Half the wall";
    }
}

choice! {
    /// Which nickel lies under nickel-iron.
    pub enum NickelUnder {
        One = "one", "Nickel-iron throughout";
        Root = "root", "Nickel first, nickel-iron over it";
    }
}

choice! {
    /// How warm the nickel arc is done.
    pub enum NickelPreheat {
        AtHand = "at_hand", "By the heat at hand";
        Cold = "cold", "Cold, bead by bead";
        Warm = "warm", "Warm, about {150 degC}";
        Hot = "hot", "Hot, about {300 degC}";
    }
}

choice! {
    /// What warms an arc braze.
    pub enum BrazePreheat {
        Weight = "weight", "By its weight";
        ArcOnly = "arc_only", "Arc only";
        WholePart = "whole_part", "The whole part warmed";
    }
}

choice! {
    /// How warm gas fusion is done.
    pub enum GasHeat {
        WholePart = "whole_part", "The whole part, dull red";
        Modest = "modest", "Modest, {250 degC}";
    }
}

impl NickelPreheat {
    /// The school that it asks for; nothing for the usual one.
    #[must_use]
    pub fn school(self) -> Option<School> {
        match self {
            Self::AtHand => None,
            Self::Cold => Some(School::Cold),
            Self::Warm => Some(School::Warm),
            Self::Hot => Some(School::Hot),
        }
    }
}

impl BrazePreheat {
    /// The school that it asks for; nothing for the usual one.
    #[must_use]
    pub fn school(self) -> Option<School> {
        match self {
            Self::Weight => None,
            Self::ArcOnly => Some(School::ArcOnly),
            Self::WholePart => Some(School::WholePart),
        }
    }
}

impl GasHeat {
    /// The school that it asks for; nothing for the usual one.
    #[must_use]
    pub fn school(self) -> Option<School> {
        match self {
            Self::WholePart => None,
            Self::Modest => Some(School::Modest),
        }
    }
}
