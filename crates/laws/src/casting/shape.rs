//! What shape a casting has, and what it gives its heat off by.

use serde::{Deserialize, Serialize};

use crate::iron::IronProperties;
use crate::quantity::{Kilograms, Millimetres};

/// The surface that gives off heat, over the envelope's, lies between these. House.
pub const SURFACE_FACTORS: (f64, f64) = (0.1, 3.0);

/// What shape a part has: how much more surface than its envelope, and whether it can move freely.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartShape {
    SolidBlock,
    ThinPlate,
    RibbedOrOpenFrame,
    SpokedWheel,
    ClosedFrame,
    HollowBox,
}

impl PartShape {
    pub const CHOICES: &'static [(&'static str, &'static str)] = &[
        ("solid_block", "Solid block"),
        ("thin_plate", "Thin plate"),
        ("ribbed_or_open_frame", "Ribbed or open frame"),
        ("spoked_wheel", "Spoked wheel"),
        ("closed_frame", "Closed frame"),
        ("hollow_box", "Hollow box"),
    ];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        serde_json::from_value(serde_json::Value::String(id.to_owned())).ok()
    }

    /// Surface over the envelope's. House.
    #[must_use]
    pub fn surface_factor(self) -> f64 {
        match self {
            Self::SolidBlock | Self::ThinPlate | Self::HollowBox => 1.0,
            Self::RibbedOrOpenFrame | Self::SpokedWheel | Self::ClosedFrame => 1.3,
        }
    }

    /// What gives off heat: the iron there is, not the box it fits in.
    ///
    /// The envelope's surface times the shape's factor, but no more than, by shape and wall: frames and wheels
    /// 4 m / (ρ wall), their limb taken as square; a thin plate 2 m / (ρ wall) + 2 (L + W) wall; a hollow box
    /// m / (ρ wall), its outside. A solid block has no bound.
    ///
    /// # Source
    /// Geometry (law); the factors are house.
    #[must_use]
    pub fn surface(
        self,
        iron: &IronProperties,
        mass: Kilograms,
        size: (Millimetres, Millimetres, Millimetres),
        wall: Option<Millimetres>,
    ) -> Surface {
        let envelope_m2 = envelope_m2(size);
        let by_envelope = self.surface_factor();
        let bound_m2 = wall.and_then(|wall| {
            let wall = wall.millimetres() / 1000.0;
            let outside = mass.kilograms() / (iron.density_kg_m3 * wall);
            match self {
                Self::SolidBlock => None,
                Self::RibbedOrOpenFrame | Self::SpokedWheel | Self::ClosedFrame => Some(4.0 * outside),
                Self::ThinPlate => {
                    let mut sides = [size.0, size.1, size.2].map(|side| side.millimetres() / 1000.0);
                    sides.sort_by(f64::total_cmp);
                    Some(2.0 * outside + 2.0 * (sides[1] + sides[2]) * wall)
                }
                Self::HollowBox => Some(outside),
            }
        });
        let (low, high) = SURFACE_FACTORS;
        let bound = bound_m2.map(|m2| (m2 / envelope_m2).clamp(low, high));
        match bound.filter(|bound| *bound < by_envelope) {
            Some(factor) => Surface { factor, by: SurfaceBy::Iron },
            None => Surface { factor: by_envelope, by: SurfaceBy::Envelope },
        }
    }

    /// How fast it may fall after a hot repair, in K/h. House.
    #[must_use]
    pub fn fall_limit_k_per_h(self) -> f64 {
        match self {
            Self::SpokedWheel | Self::ClosedFrame | Self::HollowBox => 100.0,
            Self::RibbedOrOpenFrame => 300.0,
            Self::SolidBlock | Self::ThinPlate => 400.0,
        }
    }

    /// A closed section restrains itself: it cannot bend out of an uneven heat.
    #[must_use]
    pub fn closed(self) -> bool {
        match self {
            Self::SpokedWheel | Self::ClosedFrame | Self::HollowBox => true,
            Self::SolidBlock | Self::ThinPlate | Self::RibbedOrOpenFrame => false,
        }
    }
}

/// What keeps a seam, and the iron that is warmed at it, from expanding and shrinking.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Restraint {
    Free,
    /// A shape that is closed.
    Closed,
    /// The iron round the seam, by the face as it is drawn.
    HeldIn,
}

impl Restraint {
    /// By the shape alone.
    #[must_use]
    pub fn of(closed: bool) -> Self {
        if closed { Self::Closed } else { Self::Free }
    }

    #[must_use]
    pub fn holds(self) -> bool {
        self != Self::Free
    }
}

/// What a part gives its heat off by.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Surface {
    /// Over the envelope's.
    pub factor: f64,
    pub by: SurfaceBy,
}

/// What it was taken from.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SurfaceBy {
    /// A drawn face that is the part.
    Drawn,
    /// Mass and wall bound it.
    Iron,
    /// The envelope and the shape.
    Envelope,
}

impl Surface {
    /// Of a part that is drawn, within what any part has of its envelope's.
    #[must_use]
    pub fn drawn(m2: f64, size: (Millimetres, Millimetres, Millimetres)) -> Self {
        let (low, high) = SURFACE_FACTORS;
        Self { factor: (m2 / envelope_m2(size)).clamp(low, high), by: SurfaceBy::Drawn }
    }
}

fn envelope_m2((length, width, height): (Millimetres, Millimetres, Millimetres)) -> f64 {
    let [l, w, h] = [length, width, height].map(|side| side.millimetres() / 1000.0);
    2.0 * (l * w + w * h + h * l)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::iron::Iron;

    fn m2(shape: PartShape, kg: f64, size: [f64; 3], wall: Option<f64>) -> (f64, bool) {
        let mm = |value| Millimetres::new(value).unwrap();
        let gray = Iron::Gray.properties();
        let mass = Kilograms::new(kg).unwrap();
        let sides = (mm(size[0]), mm(size[1]), mm(size[2]));
        let found = shape.surface(&gray, mass, sides, wall.map(mm));
        let [l, w, h] = size.map(|side| side / 1000.0);
        (found.factor * 2.0 * (l * w + w * h + h * l), found.by == SurfaceBy::Iron)
    }

    #[rstest]
    // Published: a ring 500 / 420 x 40 mm of 16.5 kg gives off its heat by 0.231 m2; by its box it was 0.754
    #[case::a_ring(PartShape::ClosedFrame, 16.5, [500.0, 500.0, 40.0], Some(40.0), 0.231, true)]
    #[case::a_ring_of_no_known_wall(PartShape::ClosedFrame, 16.5, [500.0, 500.0, 40.0], None, 0.754, false)]
    // Hand-worked: 2 x 7.15 / (7150 x 0.01) + 2 x 0.5 x 0.01 = 0.21; its box has 0.213
    #[case::a_plate(PartShape::ThinPlate, 7.15, [300.0, 200.0, 60.0], Some(10.0), 0.18, false)]
    #[case::a_light_plate(PartShape::ThinPlate, 4.0, [300.0, 200.0, 60.0], Some(10.0), 0.1219, true)]
    // Hand-worked: 20 / (7150 x 0.01) = 0.28; its box has 0.52
    #[case::a_box(PartShape::HollowBox, 20.0, [400.0, 300.0, 200.0], Some(10.0), 0.2797, true)]
    #[case::a_block_has_no_bound(PartShape::SolidBlock, 2.0, [400.0, 300.0, 200.0], Some(10.0), 0.52, false)]
    fn what_gives_off_heat_is_the_iron_there_is(
        #[case] shape: PartShape,
        #[case] kg: f64,
        #[case] size: [f64; 3],
        #[case] wall: Option<f64>,
        #[case] expected_m2: f64,
        #[case] by_the_iron: bool,
    ) {
        let (got, bounded) = m2(shape, kg, size, wall);
        assert!((got / expected_m2 - 1.0).abs() < 0.005, "{got}");
        assert_eq!(bounded, by_the_iron);
    }

    #[test]
    fn no_shape_gives_off_more_than_its_envelope_by_its_factor() {
        for shape in PartShape::CHOICES.iter().filter_map(|(id, _)| PartShape::from_id(id)) {
            let (open, _) = m2(shape, 1e3, [400.0, 300.0, 200.0], Some(3.0));
            assert!((open / (0.52 * shape.surface_factor()) - 1.0).abs() < 1e-9);
        }
    }
}
