//! What became of a repair, asked again later.

use crate::base::choice::choice;

choice! {
    /// What became of a repair.
    pub enum Became {
        Holds = "holds", "Holds";
        Fault = "fault", "Holds, with a fault";
        Failed = "failed", "Failed";
        /// Nobody knows: that counts nothing.
        Unknown = "unknown", "Not known";
    }
}

impl Became {
    /// There is something to say of where it went.
    #[must_use]
    pub fn went(self) -> bool {
        matches!(self, Self::Fault | Self::Failed)
    }
}
