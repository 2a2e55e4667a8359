//! What a casting weighs, from its size, shape and wall, where no scale is at hand.

use serde::Serialize;

use crate::casting::shape::PartShape;
use crate::quantity::number;

/// An estimated weight and how far it may be off.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EstimatedWeight {
    pub kg: f64,
    pub low_kg: f64,
    pub high_kg: f64,
    /// The working, line by line.
    pub working: Vec<String>,
}

/// Share of the reckoned metal that is really there: usual, least, most. Ours: bosses, ribs,
/// openings and taper are not measured, and this is how far they usually go.
struct Share {
    usual: f64,
    least: f64,
    most: f64,
}

/// Estimated weight = metal reckoned from size, shape and wall x the share usually there x density.
///
/// | shape | metal reckoned |
/// |---|---|
/// | solid block | L W H |
/// | thin plate | the two longer sides x wall |
/// | ribbed or open frame | the three faces of the box once x wall |
/// | spoked wheel | rim pi D x wall x width |
/// | closed frame | girth of the two longer sides x wall x depth |
/// | hollow box | box less the hollow inside its walls |
///
/// Sizes in mm in any order, density in kg/m³. Nothing where a wall is needed and not known. Never
/// more than the whole box.
///
/// # Source
/// Geometry; the shares are ours, to be tried against weighed parts.
#[must_use]
pub fn estimated_weight(
    shape: PartShape,
    size_mm: (f64, f64, f64),
    wall_mm: Option<f64>,
    density_kg_m3: f64,
) -> Option<EstimatedWeight> {
    let mut sides = [size_mm.0, size_mm.1, size_mm.2];
    sides.sort_by(|a, b| b.total_cmp(a));
    let [a, b, c] = sides;
    let Metal { metal_mm3, formula, share } = metal_in(shape, sides, wall_mm)?;
    let whole_mm3 = a * b * c;
    let weighs = |share: f64| (metal_mm3 * share).min(whole_mm3) * 1e-9 * density_kg_m3;
    let (kg, low_kg, high_kg) = (weighs(share.usual), weighs(share.least), weighs(share.most));
    if !(kg.is_finite() && low_kg > 0.0) {
        return None;
    }
    Some(EstimatedWeight {
        kg,
        low_kg,
        high_kg,
        working: vec![
            format!("iron in it = {formula} = {{{} cm3}}", number(metal_mm3 / 1000.0, 0)),
            format!(
                "weight = {{{} cm3}} × {} × {{{density_kg_m3:.0} kg/m3}}, the middle one between {} and {}",
                number(metal_mm3 / 1000.0, 0),
                share.usual,
                share.least,
                share.most
            ),
        ],
    })
}

/// The iron in a part by its shape, before what stands on it and what is cut out.
struct Metal {
    metal_mm3: f64,
    formula: String,
    share: Share,
}

/// The sides in mm, the longest first. Nothing where its wall counts and is not known.
fn metal_in(shape: PartShape, [a, b, c]: [f64; 3], wall_mm: Option<f64>) -> Option<Metal> {
    let n = |mm: f64| format!("{{{} mm}}", number(mm, 1));
    let (metal_mm3, formula, share) = match shape {
        PartShape::SolidBlock => (
            a * b * c,
            format!("{} × {} × {}", n(a), n(b), n(c)),
            Share { usual: 0.75, least: 0.5, most: 1.0 },
        ),
        PartShape::ThinPlate => {
            let t = wall_mm.unwrap_or(c).min(c);
            (
                a * b * t,
                format!("{} × {} × {}", n(a), n(b), n(t)),
                Share { usual: 0.95, least: 0.75, most: 1.15 },
            )
        }
        PartShape::RibbedOrOpenFrame => {
            let t = wall_mm?.min(c);
            (
                (a * b + b * c + c * a) * t,
                format!("({a} × {b} + {b} × {c} + {c} × {a}) × {t}", a = n(a), b = n(b), c = n(c), t = n(t)),
                Share { usual: 0.75, least: 0.45, most: 1.1 },
            )
        }
        PartShape::SpokedWheel => {
            let t = wall_mm?.min(a / 2.0);
            (
                std::f64::consts::PI * a * t * c,
                format!("π × {} × {} × {}", n(a), n(t), n(c)),
                Share { usual: 1.6, least: 1.15, most: 2.2 },
            )
        }
        PartShape::ClosedFrame => {
            let t = wall_mm?.min(b / 2.0);
            (
                2.0 * (a + b - 2.0 * t) * t * c,
                format!("2 × ({} + {} − 2 × {t}) × {t} × {}", n(a), n(b), n(c), t = n(t)),
                Share { usual: 1.05, least: 0.7, most: 1.4 },
            )
        }
        PartShape::HollowBox => {
            let t = wall_mm?.min(c / 2.0);
            let inside = (a - 2.0 * t) * (b - 2.0 * t) * (c - 2.0 * t);
            (
                a * b * c - inside,
                format!(
                    "{a} × {b} × {c} less {} × {} × {}",
                    n(a - 2.0 * t),
                    n(b - 2.0 * t),
                    n(c - 2.0 * t),
                    a = n(a),
                    b = n(b),
                    c = n(c)
                ),
                Share { usual: 0.9, least: 0.65, most: 1.2 },
            )
        }
    };
    Some(Metal { metal_mm3, formula, share })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    // Hand-worked: 0.4 x 0.15 x 0.06 m x 0.75 x 7150
    #[case::block(PartShape::SolidBlock, (400.0, 150.0, 60.0), None, 19.305)]
    // Hand-worked: 0.6 x 0.4 x 0.012 x 0.95 x 7150
    #[case::plate(PartShape::ThinPlate, (12.0, 400.0, 600.0), Some(12.0), 19.562)]
    // Hand-worked: (0.3 x 0.2 x 0.15 - 0.28 x 0.18 x 0.13) x 0.9 x 7150
    #[case::box_of_ten(PartShape::HollowBox, (300.0, 200.0, 150.0), Some(10.0), 15.752)]
    // Hand-worked: pi x 0.5 x 0.015 x 0.08 x 1.6 x 7150
    #[case::wheel(PartShape::SpokedWheel, (500.0, 500.0, 80.0), Some(15.0), 21.564)]
    // Hand-worked: 2 x (0.5 + 0.4 - 0.04) x 0.02 x 0.06 x 1.05 x 7150
    #[case::frame(PartShape::ClosedFrame, (500.0, 400.0, 60.0), Some(20.0), 15.495)]
    // Hand-worked: (0.5 x 0.3 + 0.3 x 0.1 + 0.1 x 0.5) x 0.01 x 0.75 x 7150
    #[case::ribbed(PartShape::RibbedOrOpenFrame, (500.0, 300.0, 100.0), Some(10.0), 12.334)]
    fn the_weight_follows_from_size_shape_and_wall(
        #[case] shape: PartShape,
        #[case] size_mm: (f64, f64, f64),
        #[case] wall_mm: Option<f64>,
        #[case] kg: f64,
    ) {
        let found = estimated_weight(shape, size_mm, wall_mm, 7150.0).unwrap();
        assert!((found.kg - kg).abs() < 0.001, "{}", found.kg);
        assert!(found.low_kg < found.kg && found.kg < found.high_kg);
    }

    #[test]
    fn a_hollow_needs_its_wall() {
        assert_eq!(estimated_weight(PartShape::HollowBox, (300.0, 200.0, 150.0), None, 7150.0), None);
    }

    #[test]
    fn nothing_weighs_more_than_its_box() {
        let found =
            estimated_weight(PartShape::ClosedFrame, (100.0, 100.0, 100.0), Some(50.0), 7150.0).unwrap();
        assert!(found.high_kg <= 7.15 + 1e-9);
    }
}
