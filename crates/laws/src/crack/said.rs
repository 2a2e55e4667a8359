//! What is said of a crack: how it ends, how its edges are, what becomes of it.

use crate::base::choice::choice;

choice! {
    /// How a crack ends, as it was said or as it lies on the map.
    pub enum EndKind {
        /// A hole ends it.
        Tip = "tip", "Stops in the metal";
        Edge = "edge", "Runs out at an edge";
        Hole = "hole", "Runs into a bore";
        Branch = "branch", "Joins another crack";
        Hidden = "hidden", "Goes out of sight";
    }
}

impl EndKind {
    /// On a strip of the seam.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Hidden => "out of sight",
            Self::Tip | Self::Edge | Self::Hole | Self::Branch => self.id(),
        }
    }
}

choice! {
    /// What becomes of a crack.
    pub enum CrackFate {
        Repair = "repair", "Repaired";
        StopOnly = "stop_only", "Stopped only: holes, no filler";
        Leave = "leave", "Left, and watched";
        Sound = "sound", "Sound: mended before, left as it is";
    }
}

choice! {
    /// How the edges of a crack are.
    pub enum Edges {
        Clean = "clean", "Clean iron";
        FlameCut = "flame_cut", "Flame-cut";
        Melted = "melted", "Melted once";
        Burnt = "burnt", "Burnt, scaled by long heat";
    }
}

choice! {
    /// Where the piece is that broke off.
    pub enum PieceState {
        There = "there", "There, it fits";
        Lost = "lost", "Lost";
        Donor = "donor", "Lost; a patch of like iron is at hand";
    }
}

choice! {
    /// On which side of a crack, as one walks from its first end to its last, the witness line runs.
    pub enum WitnessSide {
        Left = "left", "Left side";
        Right = "right", "Right side";
    }
}

choice! {
    /// What gets to a seam.
    pub enum SeamReach {
        Eye = "eye", "The eye";
        Disc = "disc", "A disc";
        Burr = "burr", "A burr";
        Chisel = "chisel", "A chisel";
        Torch = "torch", "The torch";
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_choice_is_read_back_as_what_it_is_kept_as() {
        for (id, _) in EndKind::CHOICES {
            assert_eq!(EndKind::from_id(id).map(EndKind::id), Some(*id));
        }
        for (id, _) in CrackFate::CHOICES {
            let becomes = CrackFate::from_id(id).unwrap();
            assert_eq!(serde_json::to_value(becomes).unwrap(), *id, "the same on the wire");
        }
        assert_eq!(Edges::from_id("flame_cut"), Some(Edges::FlameCut));
        assert_eq!(Edges::from_id("FlameCut"), None);
    }
}

choice! {
    /// What lies behind a crack, where a hole would come out.
    pub enum Behind {
        Free = "free", "Nothing that matters";
        Kept = "kept", "A face not to be touched";
    }
}

choice! {
    /// What is done with a tip that no drill of the set catches.
    pub enum TipWay {
        WellPast = "well_past", "Well past it, groove into the hole";
        FindBetter = "find_better", "Find the tip better first";
    }
}
