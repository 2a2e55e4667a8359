//! Of several irons in question, the one that asks the most.

use super::Iron;

/// The iron a requirement follows from, and whether it is the only reason for it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Governing {
    pub iron: Iron,
    /// Another iron in question would ask for less.
    pub forced: bool,
}

impl Governing {
    /// The iron's name where it forced the requirement, in small letters; empty otherwise. One without
    /// figures of its own says whose it is planned with.
    #[must_use]
    pub fn forced_by(self) -> String {
        let name = self.iron.label().to_lowercase();
        match (self.forced, self.iron.has_own_properties()) {
            (false, _) => String::new(),
            (true, true) => name,
            (true, false) => format!("{name}, by gray's figures"),
        }
    }
}

/// The iron with the least of `value`, the likelier one of two alike. Gray for an empty list.
#[must_use]
pub fn least(plausible: &[Iron], value: impl Fn(Iron) -> f64) -> Governing {
    let iron = plausible
        .iter()
        .copied()
        .reduce(|best, next| if value(next) < value(best) { next } else { best })
        .unwrap_or(Iron::Gray);
    Governing { iron, forced: plausible.iter().any(|other| value(*other) > value(iron)) }
}

/// The iron that comes up the slowest and the least evenly: that with the lowest conductivity.
///
/// Ours: the heat the irons hold differs by 1 % at the same temperature, their conductivity by a
/// third, so that this one alone governs time, evenness and ceiling.
#[must_use]
pub fn slowest_to_heat(plausible: &[Iron]) -> Governing {
    least(plausible, |iron| iron.properties().conductivity_w_mk)
}

/// The iron that stands the least unevenness.
#[must_use]
pub fn least_forgiving(plausible: &[Iron]) -> Governing {
    least(plausible, |iron| iron.properties().unevenness_limit_k())
}

/// The strongest: what the joint is measured against.
#[must_use]
pub fn strongest(plausible: &[Iron]) -> Governing {
    least(plausible, |iron| -iron.properties().tensile_mpa)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ductile_governs_the_heating_and_gray_the_evenness() {
        let both = [Iron::Gray, Iron::Ductile];
        assert_eq!(slowest_to_heat(&both), Governing { iron: Iron::Ductile, forced: true });
        assert_eq!(least_forgiving(&both), Governing { iron: Iron::Gray, forced: true });
        assert_eq!(strongest(&both).forced_by(), "ductile");
    }

    #[test]
    fn one_iron_alone_forces_nothing() {
        assert_eq!(slowest_to_heat(&[Iron::Malleable]), Governing { iron: Iron::Malleable, forced: false });
        // White has no row of its own: both are planned with gray's figures.
        assert!(!least_forgiving(&[Iron::Gray, Iron::White]).forced);
    }
}
