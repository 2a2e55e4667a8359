//! What a shop welds with.

use crate::base::choice::choice;

choice! {
    /// A welding set.
    pub enum WeldingSet {
        Stick = "stick", "Stick";
        Tig = "tig", "TIG, argon";
        Wire = "wire", "Wire-fed";
        Flame = "flame", "Gas torch";
    }
}
