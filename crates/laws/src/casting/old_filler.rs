//! What a casting was repaired with before.

use crate::base::choice::choice;

choice! {
    /// What it was repaired with before.
    pub enum OldFiller {
        None = "none", "Never repaired";
        Bronze = "bronze", "Bronze";
        Nickel = "nickel", "Nickel";
        Steel = "steel", "Steel weld";
        Other = "other", "Nobody knows what";
    }
}
