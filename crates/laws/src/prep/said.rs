//! What is said of metal that is missing, and of what has to be as it was.

use crate::base::choice::choice;

choice! {
    /// The form of a groove.
    pub enum SeamForm {
        #[serde(rename = "V")]
        V = "V", "V";
        #[serde(rename = "U")]
        U = "U", "U";
        /// From both sides, half the wall from each.
        #[serde(rename = "double_V")]
        DoubleV = "double_V", "Double V";
    }
}

impl SeamForm {
    /// "A double V"
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::V => "A V",
            Self::U => "A U",
            Self::DoubleV => "A double V",
        }
    }
}

choice! {
    /// What closes the place of a missing piece.
    pub enum ClosedBy {
        Metal = "metal", "Metal, built up";
        LikeIron = "like_iron", "A patch of like iron";
        OtherIron = "other_iron", "A patch of another iron";
        Steel = "steel", "A patch of steel";
    }
}

choice! {
    /// The skin of a patch.
    pub enum PatchSkin {
        Like = "like", "Cast, like the part's";
        Machined = "machined", "Machined";
        Other = "other", "Another skin";
    }
}

choice! {
    /// What has to be as it was.
    pub enum SizeKind {
        Bore = "bore", "Bore";
        Hole = "hole", "Hole";
        Thread = "thread", "Thread";
        Slot = "slot", "Slot";
        Pin = "pin", "Pin or shaft";
        Distance = "distance", "Between two holes or edges";
        Flat = "flat", "Flat";
        Step = "step", "Step between two faces";
        RunOut = "run_out", "Run-out";
    }
}

impl SizeKind {
    /// In a sentence.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::RunOut => "run-out",
            other => other.id(),
        }
    }

    /// Minutes to restore it, or to read it where nothing is restored.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn restored_min(self) -> f64 {
        match self {
            Self::Thread => 30.0,
            Self::Flat | Self::Bore | Self::Slot => 45.0,
            Self::Distance | Self::Step | Self::RunOut | Self::Pin => 5.0,
            Self::Hole => 20.0,
        }
    }
}

choice! {
    /// Who takes off what a size has too much of.
    pub enum TakenOffBy {
        Shop = "shop", "Us";
        Outside = "outside", "A machine shop";
        Owner = "owner", "The owner";
    }
}

choice! {
    /// What the alignment of a full break is read by.
    pub enum AlignBy {
        Pin = "pin", "A pin through the holes";
        StraightEdge = "straight_edge", "A straight edge";
        Light = "light", "Light through the bolt holes";
    }
}

choice! {
    /// What cannot be done once it is hot.
    pub enum PrepDone {
        Holes = "holes", "Stop-holes drilled";
        Groove = "groove", "Groove ground";
        Inside = "inside", "Inside cleaned too";
        Penetrant = "penetrant", "Dye, chalk and oil out again";
        Paint = "paint", "Paint off round the heat";
    }
}

choice! {
    /// Which pins the shop sets.
    pub enum PinKind {
        DrawIn = "draw_in", "Pins that draw the crack in";
        Plain = "plain", "Plain threaded pins";
    }
}
