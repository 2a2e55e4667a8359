//! From the groove's section to rods in the hand.

use std::f64::consts::PI;

/// A filler as it is bought.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Filler {
    /// AWS classification.
    pub class: &'static str,
    pub name: &'static str,
    pub density_kg_m3: f64,
    /// Share of the usable rod that ends up in the joint. House.
    pub recovery: f64,
    pub rod_diameter_mm: f64,
    /// 0 for wire.
    pub rod_length_mm: f64,
    /// Ultimate tensile strength of the deposit in MPa, lower and higher figure.
    pub tensile_mpa: (f64, f64),
    /// Where the deposit gives, in MPa, while it shrinks; nothing for what gives at half of the casting's own strength.
    /// House.
    pub yield_mpa: Option<f64>,
}

/// House: what is left in the hand or the holder.
const STUB_MM: f64 = 50.0;

impl Filler {
    /// Mass in g of the usable part of one rod.
    #[must_use]
    pub fn usable_rod_g(&self) -> f64 {
        let section_mm2 = PI / 4.0 * self.rod_diameter_mm * self.rod_diameter_mm;
        section_mm2 * (self.rod_length_mm - STUB_MM) * self.density_kg_m3 * 1e-6
    }

    /// Mass in g to buy for a volume in cm³ of finished joint.
    #[must_use]
    pub fn metal_g(&self, volume_cm3: f64) -> f64 {
        volume_cm3 * self.density_kg_m3 / 1000.0 / self.recovery
    }

    /// It comes off a spool: there are no rods to count.
    #[must_use]
    pub fn wire(&self) -> bool {
        self.rod_length_mm <= 0.0
    }

    /// Rods for a volume in cm³: rounded up, and one more for tacks; 0 for wire.
    #[must_use]
    pub fn rods(&self, volume_cm3: f64) -> f64 {
        if self.wire() {
            return 0.0;
        }
        (self.metal_g(volume_cm3) / self.usable_rod_g() - 1e-9).ceil() + 1.0
    }
}

/// Volume in cm³ of a stop-hole through a wall: pi/4 D² t.
#[must_use]
pub fn hole_volume_cm3(drill_mm: f64, wall_mm: f64) -> f64 {
    PI / 4.0 * drill_mm * drill_mm * wall_mm / 1000.0
}

/// Volume in cm³ of one countersink of a stop-hole: a cone of the groove's included angle down to its root depth, at
/// most one diameter of the drill, pi/3 (h tan a)² h, a half of the angle. It is added to the hole as a whole.
#[must_use]
pub fn countersink_volume_cm3(drill_mm: f64, groove_mm: f64, angle_deg: f64) -> f64 {
    let depth_mm = groove_mm.min(drill_mm);
    let radius_mm = depth_mm * (angle_deg / 2.0).to_radians().tan();
    PI / 3.0 * radius_mm * radius_mm * depth_mm / 1000.0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_countersink_is_a_cone_down_to_the_root() {
        // Hand-worked: 7 deep, 90 degrees: radius 7; pi/3 x 49 x 7 = 359.2 mm³
        assert!((countersink_volume_cm3(8.0, 7.0, 90.0) - 0.3592).abs() < 0.00005);
        // pi/3 x 3.2³ = 34.3: no deeper than its drill is wide
        assert!((countersink_volume_cm3(3.2, 7.0, 90.0) - 0.03431).abs() < 0.00005);
        assert_eq!(countersink_volume_cm3(8.0, 7.0, 0.0), 0.0);
    }

    #[test]
    fn rods_are_rounded_up_with_one_for_tacks() {
        let nickel = Filler {
            class: "ENi-CI",
            name: "nickel stick",
            density_kg_m3: 8300.0,
            recovery: 0.90,
            rod_diameter_mm: 4.0,
            rod_length_mm: 350.0,
            tensile_mpa: (280.0, 450.0),
            yield_mpa: Some(250.0),
        };
        // Hand-worked: 12.566 mm² x 300 mm x 8.3 mg/mm³ = 31.29 g; 44.0 x 8.3 / 0.9 = 405.8 g;
        // 405.8 / 31.29 = 12.97, up to 13, and 1
        assert!((nickel.usable_rod_g() - 31.29).abs() < 0.005);
        assert_eq!(nickel.rods(44.0), 14.0);
    }
}
