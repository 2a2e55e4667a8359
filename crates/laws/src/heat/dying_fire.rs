//! A fire that a part is left in as it goes out.

use crate::base::choice::choice;

choice! {
    /// What fire it is.
    pub enum DyingFire {
        Stove = "stove", "A small stove";
        Charcoal = "charcoal", "A charcoal bed";
    }
}

impl DyingFire {
    /// In which what is left of its heat falls to a share of 1/e.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn time_constant_h(self) -> f64 {
        match self {
            Self::Stove => 1.5,
            Self::Charcoal => 4.0,
        }
    }

    /// It lies in it for so long: two time constants.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn lasts_h(self) -> f64 {
        2.0 * self.time_constant_h()
    }
}
