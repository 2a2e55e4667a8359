//! Newtypes that hold only what can be on a bench. Checked once, in `new`.

use crate::base::problem::OutOfRange;

macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $read:ident, $what:literal, $unit:literal, $low:expr, $high:expr) => {
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, PartialOrd)]
        pub struct $name(f64);

        impl $name {
            /// # Errors
            /// [`OutOfRange`] when it is not finite or outside the bounds of this quantity.
            pub fn new(value: f64) -> Result<Self, OutOfRange> {
                OutOfRange::check($what, $unit, ($low, $high), value).map(Self)
            }

            #[must_use]
            pub fn $read(self) -> f64 {
                self.0
            }
        }
    };
}

quantity!(
    /// A length on a part, in mm.
    Millimetres, millimetres, "a length", "mm", 0.01, 20_000.0
);
quantity!(
    /// A wall thickness, in mm.
    WallMillimetres, millimetres, "a wall", "mm", 1.0, 300.0
);
quantity!(
    /// A mass, in kg.
    Kilograms, kilograms, "a mass", "kg", 0.01, 20_000.0
);
quantity!(
    /// A temperature, in degC. Not a difference: see [`Kelvins`].
    Celsius, celsius, "a temperature", "degC", -40.0, 1400.0
);
quantity!(
    /// A temperature difference, in K.
    Kelvins, kelvins, "a temperature difference", "K", -1440.0, 1440.0
);
quantity!(
    /// A time, in s, up to 72 h.
    Seconds, seconds, "a time", "s", 0.0, 259_200.0
);
quantity!(
    /// A power, in W.
    Watts, watts, "a power", "W", 0.0, 1_000_000.0
);

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::just_below(0.999, false)]
    #[case::at_the_least(1.0, true)]
    #[case::at_the_most(300.0, true)]
    #[case::just_above(300.001, false)]
    #[case::zero(0.0, false)]
    #[case::negative(-8.0, false)]
    #[case::not_a_number(f64::NAN, false)]
    #[case::infinite(f64::INFINITY, false)]
    fn a_wall_is_one_to_three_hundred_millimetres(#[case] mm: f64, #[case] accepted: bool) {
        assert_eq!(WallMillimetres::new(mm).is_ok(), accepted);
    }

    #[test]
    fn a_refused_wall_says_what_would_do() {
        let refused = WallMillimetres::new(900.0).unwrap_err();
        assert_eq!(refused.to_string(), "a wall must be 1 to 300 mm, got 900");
    }
}
