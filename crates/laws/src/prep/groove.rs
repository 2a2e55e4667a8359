//! The section of a groove: its area and how wide it opens.

use serde::Serialize;

use crate::base::problem::OutOfRange;
use crate::quantity::WallMillimetres;

/// A groove's shape. A flat-bottomed V has no root radius; a U has one.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GrooveForm {
    V,
    U { root_radius_mm: f64 },
}

/// Root radius in mm of a U where nothing is chosen, by the wall.
///
/// # Source
/// House.
#[must_use]
pub fn usual_root_radius_mm(wall_mm: f64) -> f64 {
    if wall_mm < 8.0 { 2.0 } else { 3.0 }
}

/// Lip in mm that is left at the bottom of a groove, by the wall: a quarter of a thin one.
///
/// # Source
/// House.
#[must_use]
pub fn usual_lip_mm(wall_mm: f64) -> f64 {
    if wall_mm < 6.0 { wall_mm / 4.0 } else { 1.5 }
}

/// One side of a groove, checked.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Groove {
    form: GrooveForm,
    depth_mm: f64,
    angle_deg: f64,
    root_gap_mm: f64,
    cap_mm: f64,
}

/// Area and width of a groove's section.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GrooveSection {
    /// Area to fill with the crown, in mm².
    pub area_mm2: f64,
    /// Width at the face, in mm.
    pub top_width_mm: f64,
}

impl Groove {
    /// # Errors
    /// [`OutOfRange`] for an angle outside 0 to 170 degrees, a radius, gap or crown outside
    /// 0 to 50 mm.
    pub fn new(
        form: GrooveForm,
        depth: WallMillimetres,
        angle_deg: f64,
        root_gap_mm: f64,
        cap_mm: f64,
    ) -> Result<Self, (&'static str, OutOfRange)> {
        let small =
            |field, what, value| OutOfRange::check(what, "mm", (0.0, 50.0), value).map_err(|e| (field, e));
        OutOfRange::check("a groove angle", "degrees", (0.0, 170.0), angle_deg)
            .map_err(|e| ("angle_deg", e))?;
        if let GrooveForm::U { root_radius_mm } = form {
            OutOfRange::check("a root radius", "mm", (0.1, 50.0), root_radius_mm)
                .map_err(|e| ("root_radius_mm", e))?;
        }
        small("root_gap_mm", "a root gap", root_gap_mm)?;
        small("cap_mm", "a crown", cap_mm)?;
        Ok(Self { form, depth_mm: depth.millimetres(), angle_deg, root_gap_mm, cap_mm })
    }

    #[must_use]
    pub fn depth_mm(&self) -> f64 {
        self.depth_mm
    }

    /// The same groove of another depth.
    #[must_use]
    pub fn as_deep(self, depth: WallMillimetres) -> Self {
        Self { depth_mm: depth.millimetres(), ..self }
    }

    /// The same groove with the angle at which it opens so wide at the face: one that was ground and
    /// measured. The nearest there is where no angle does.
    #[must_use]
    pub fn opening(self, top_width_mm: f64) -> Self {
        let (mut low, mut high) = (0.0, 170.0);
        for _ in 0..60 {
            let middle = (low + high) / 2.0;
            let tried = Self { angle_deg: middle, ..self };
            if tried.section().top_width_mm < top_width_mm { low = middle } else { high = middle }
        }
        Self { angle_deg: (low + high) / 2.0, ..self }
    }

    #[must_use]
    pub fn angle_deg(&self) -> f64 {
        self.angle_deg
    }

    /// Width in mm at a height above the root.
    #[must_use]
    pub fn width_at(&self, height_mm: f64) -> f64 {
        let a = (self.angle_deg / 2.0).to_radians();
        self.root_gap_mm
            + match self.form {
                GrooveForm::V => 2.0 * height_mm * a.tan(),
                GrooveForm::U { root_radius_mm: r } => {
                    let (yt, xt) = (r * (1.0 - a.sin()), r * a.cos());
                    if height_mm < yt {
                        2.0 * (2.0 * r * height_mm - height_mm * height_mm).max(0.0).sqrt()
                    } else {
                        2.0 * (xt + (height_mm - yt) * a.tan())
                    }
                }
            }
    }

    /// Area and top width.
    ///
    /// With h depth, a half the included angle, g root gap, r root radius:
    /// V: w = g + 2 h tan a; A = g h + h² tan a.
    /// U: yt = r (1 - sin a), xt = r cos a, segment = r² (pi/2 - a) - xt r sin a, H = h - yt:
    /// A = segment + 2 H xt + H² tan a + g h; shallower than yt it is the circle's segment alone.
    /// A crown of height cap adds 2/3 w cap.
    ///
    /// # Source
    /// Plane geometry; the crown is taken as a parabola.
    #[must_use]
    pub fn section(&self) -> GrooveSection {
        let (h, g) = (self.depth_mm, self.root_gap_mm);
        let a = (self.angle_deg / 2.0).to_radians();
        let body = match self.form {
            GrooveForm::V => h * h * a.tan(),
            GrooveForm::U { root_radius_mm: r } => {
                let (yt, xt) = (r * (1.0 - a.sin()), r * a.cos());
                if h < yt {
                    let half_angle = ((r - h) / r).acos();
                    r * r * half_angle - (r - h) * r * half_angle.sin()
                } else {
                    let segment = r * r * (std::f64::consts::FRAC_PI_2 - a) - xt * r * a.sin();
                    let above = h - yt;
                    segment + 2.0 * above * xt + above * above * a.tan()
                }
            }
        };
        let top_width_mm = self.width_at(h);
        GrooveSection { area_mm2: body + g * h + 2.0 / 3.0 * top_width_mm * self.cap_mm, top_width_mm }
    }

    /// Beads in each layer, root first: ceil(width at the layer's top / bead width).
    #[must_use]
    pub fn beads_per_layer(&self, layer_mm: f64, bead_width_mm: f64) -> Vec<u32> {
        let layers = (self.depth_mm / layer_mm - 1e-9).ceil().max(1.0) as u32;
        (1..=layers)
            .map(|layer| {
                let top = (f64::from(layer) * layer_mm).min(self.depth_mm);
                (self.width_at(top) / bead_width_mm - 1e-9).ceil().max(1.0) as u32
            })
            .collect()
    }
}

/// Bright metal on each side of the groove, in mm: 1.5 times the wall, 12 mm at least. House.
#[must_use]
pub fn bright_margin_mm(wall_mm: f64) -> f64 {
    (1.5 * wall_mm).max(12.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_lip_of_a_thin_wall_is_a_quarter_of_it() {
        for (wall, lip) in [(4.0, 1.0), (5.99, 1.4975), (6.0, 1.5), (14.0, 1.5)] {
            assert!((usual_lip_mm(wall) - lip).abs() < 1e-12, "{wall}");
        }
        assert_eq!((usual_root_radius_mm(7.99), usual_root_radius_mm(8.0)), (2.0, 3.0));
    }

    #[test]
    fn a_ground_groove_has_the_angle_its_width_says() {
        let depth = WallMillimetres::new(7.0).unwrap();
        for form in [GrooveForm::V, GrooveForm::U { root_radius_mm: 2.0 }] {
            let planned = Groove::new(form, depth, 70.0, 0.0, 1.0).unwrap();
            let width = planned.section().top_width_mm;
            let ground = Groove::new(form, depth, 90.0, 0.0, 1.0).unwrap().opening(width);
            assert!((ground.angle_deg() - 70.0).abs() < 1e-6, "{form:?}");
            assert!((ground.section().area_mm2 - planned.section().area_mm2).abs() < 1e-6);
        }
    }
    use rstest::rstest;

    fn groove(form: GrooveForm, depth: f64, angle: f64) -> Groove {
        Groove::new(form, WallMillimetres::new(depth).unwrap(), angle, 0.0, 0.0).unwrap()
    }

    #[rstest]
    // Hand-worked: h = r with vertical walls is the half circle, pi/2 r² = 56.549, width 2 r
    #[case::half_circle(GrooveForm::U { root_radius_mm: 6.0 }, 6.0, 0.0, 56.549, 12.0)]
    // Hand-worked: r = 10, h = 1: acos(0.9) = 0.45103; 45.103 - 9 x 4.35890 = 5.873; w = 2 sqrt(19)
    #[case::shallow_u_is_a_segment(GrooveForm::U { root_radius_mm: 10.0 }, 1.0, 60.0, 5.873, 8.718)]
    // Hand-worked: 90 degrees: area h², width 2 h
    #[case::right_angled_v(GrooveForm::V, 5.0, 90.0, 25.0, 10.0)]
    fn sections_match_hand_geometry(
        #[case] form: GrooveForm,
        #[case] depth: f64,
        #[case] angle: f64,
        #[case] area: f64,
        #[case] width: f64,
    ) {
        let section = groove(form, depth, angle).section();
        assert!((section.area_mm2 - area).abs() < 0.001, "{section:?}");
        assert!((section.top_width_mm - width).abs() < 0.001, "{section:?}");
    }

    #[test]
    fn layers_widen_towards_the_face() {
        // Hand-worked: V 90, depth 6, layers of 2.5: tops at 2.5, 5, 6: widths 5, 10, 12 over 7
        assert_eq!(groove(GrooveForm::V, 6.0, 90.0).beads_per_layer(2.5, 7.0), vec![1, 2, 2]);
    }

    #[rstest]
    #[case::angle(171.0, 0.0, 0.0, "angle_deg")]
    #[case::negative_gap(60.0, -0.1, 0.0, "root_gap_mm")]
    #[case::crown_not_a_number(60.0, 0.0, f64::NAN, "cap_mm")]
    fn a_groove_that_cannot_be_cut_is_refused_at_its_field(
        #[case] angle: f64,
        #[case] gap: f64,
        #[case] cap: f64,
        #[case] field: &str,
    ) {
        let depth = WallMillimetres::new(8.0).unwrap();
        let (at, _) = Groove::new(GrooveForm::V, depth, angle, gap, cap).unwrap_err();
        assert_eq!(at, field);
    }
}
