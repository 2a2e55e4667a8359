//! What a mended place has to be when it goes out.

use crate::base::choice::choice;

choice! {
    /// What a mended place has to be when it goes out.
    pub enum FinishAs {
        /// The crown stays on, for strength and to be read.
        Leave = "leave", "Is left as it is";
        /// Level with the casting.
        Flush = "flush", "Is level";
        /// Level, and like the skin beside it.
        Seen = "seen", "Looks like the rest";
        /// Something lies flat on it.
        Fits = "fits", "Fits what lies on it";
        /// Something turns or slides in it.
        Runs = "runs", "Lets a pin or a shaft run";
        /// Something is sealed against it.
        Seals = "seals", "Seals";
    }
}

choice! {
    /// What lies over a mended place at the end.
    pub enum CoatedWith {
        Bare = "bare", "Nothing";
        Primer = "primer", "Primer";
        Paint = "paint", "Primer and paint";
        Stove = "stove", "Stove paint";
    }
}
