//! A groove along a seam whose wall may change: what it takes to fill it.

use crate::base::problem::{FieldProblem, OutOfRange};
use crate::prep::filler::{Filler, countersink_volume_cm3, hole_volume_cm3};
use crate::prep::groove::{Groove, GrooveForm, usual_lip_mm};
use crate::quantity::WallMillimetres;

/// The wall at one place of a seam.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeamStation {
    /// From the beginning of the seam.
    pub at_mm: f64,
    pub wall_mm: f64,
}

/// A stop-hole at a seam.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeamHole {
    pub drill_mm: f64,
    pub wall_mm: f64,
    pub countersunk: bool,
}

/// How a seam is ground: the same form all along, as deep as the wall is there.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeamGroove {
    pub form: GrooveForm,
    /// Included angle.
    pub angle_deg: f64,
    pub root_gap_mm: f64,
    pub cap_mm: f64,
    /// Left at the bottom; nothing for the usual one. None is left of a double V.
    pub lip_mm: Option<f64>,
    /// From both sides, half the wall each.
    pub double: bool,
}

/// Longest seam, and stations and holes along it. Ours.
const SEAM_MOST_MM: f64 = 100_000.0;
const STATIONS_MOST: usize = 20_000;

impl SeamGroove {
    /// The groove of one side in this wall.
    ///
    /// # Errors
    /// At the name of what cannot be cut.
    pub fn at(&self, wall: WallMillimetres) -> Result<Groove, FieldProblem> {
        let wall_mm = wall.millimetres();
        let depth_mm = if self.double {
            wall_mm / 2.0
        } else {
            let lip_mm = self.lip_mm.unwrap_or_else(|| usual_lip_mm(wall_mm));
            OutOfRange::check("a lip", "mm", (0.0, 50.0), lip_mm).map_err(|out| out.at("lip_mm"))?;
            wall_mm - lip_mm
        };
        let depth = WallMillimetres::new(depth_mm).map_err(|_| {
            FieldProblem::new("lip_mm", "the lip leaves nothing to grind", "thinner than the thinnest wall")
        })?;
        Groove::new(self.form, depth, self.angle_deg, self.root_gap_mm, self.cap_mm)
            .map_err(|(field, out)| out.at(field))
    }

    /// Filler in place in mm³: the areas over the length by the trapezoid rule, both sides of a double V,
    /// and the stop-holes with their countersinks.
    ///
    /// # Errors
    /// At `stations` or `holes`, what is wrong with one of them; at the name of what cannot be cut.
    pub fn volume_mm3(&self, stations: &[SeamStation], holes: &[SeamHole]) -> Result<f64, FieldProblem> {
        if stations.len() < 2 || stations.len() > STATIONS_MOST {
            let right = "from 2 stations, where the seam begins and where it ends";
            return Err(FieldProblem::new("stations", "a seam has a beginning and an end", right));
        }
        if holes.len() > STATIONS_MOST {
            return Err(FieldProblem::new("holes", "the list is too long", "up to 20 000 holes"));
        }
        let mut areas = Vec::with_capacity(stations.len());
        for (at, station) in stations.iter().enumerate() {
            let field = |name: &str| format!("stations[{at}].{name}");
            OutOfRange::check("a place on the seam", "mm", (0.0, SEAM_MOST_MM), station.at_mm)
                .map_err(|out| out.at(&field("at_mm")))?;
            let before = at.checked_sub(1).map_or(f64::NEG_INFINITY, |before| stations[before].at_mm);
            if station.at_mm <= before {
                let message = "each station lies further on than the one before";
                return Err(FieldProblem::new(field("at_mm"), message, format!("over {before} mm")));
            }
            let wall = WallMillimetres::new(station.wall_mm).map_err(|out| out.at(&field("wall_mm")))?;
            areas.push((station.at_mm, self.sides() * self.at(wall)?.section().area_mm2));
        }
        let along = added_up(&areas);
        let mut in_holes = 0.0;
        for (at, hole) in holes.iter().enumerate() {
            let field = |name: &str| format!("holes[{at}].{name}");
            OutOfRange::check("a drill", "mm", (0.5, 50.0), hole.drill_mm)
                .map_err(|out| out.at(&field("drill_mm")))?;
            let wall = WallMillimetres::new(hole.wall_mm).map_err(|out| out.at(&field("wall_mm")))?;
            in_holes += 1000.0 * hole_volume_cm3(hole.drill_mm, hole.wall_mm);
            if hole.countersunk {
                let groove_mm = self.at(wall)?.depth_mm();
                let cone = countersink_volume_cm3(hole.drill_mm, groove_mm, self.angle_deg);
                in_holes += self.sides() * 1000.0 * cone;
            }
        }
        Ok(along + in_holes)
    }

    fn sides(&self) -> f64 {
        if self.double { 2.0 } else { 1.0 }
    }
}

/// Volume in mm³ of areas in mm² at places in mm, by the trapezoid rule.
#[must_use]
pub fn added_up(areas: &[(f64, f64)]) -> f64 {
    areas.windows(2).map(|pair| (pair[1].0 - pair[0].0) * (pair[0].1 + pair[1].1) / 2.0).sum()
}

/// What a depth read while grooving says.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Ground {
    /// So much more may come out before the lip, in mm.
    GoOn { more_mm: f64 },
    /// At the lip: stop.
    Stop,
    /// Into the lip; so much metal is left, in mm.
    IntoTheLip { left_mm: f64 },
    /// Through the wall.
    Through,
}

/// A depth gauge in a groove is read to this, in mm. House.
const READ_TO_MM: f64 = 0.25;

impl Ground {
    /// A groove so deep in this wall, where so much of it is to be left: 0 for a groove that goes through.
    #[must_use]
    pub fn at(depth_mm: f64, wall: WallMillimetres, lip_mm: f64) -> Self {
        let left_mm = wall.millimetres() - depth_mm;
        if lip_mm <= 0.0 {
            return if left_mm <= READ_TO_MM { Self::Stop } else { Self::GoOn { more_mm: left_mm } };
        }
        match left_mm {
            left if left <= 0.0 => Self::Through,
            left if left < lip_mm - READ_TO_MM => Self::IntoTheLip { left_mm },
            left if left <= lip_mm + READ_TO_MM => Self::Stop,
            left => Self::GoOn { more_mm: left - lip_mm },
        }
    }
}

/// What a volume takes of a filler.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct SeamFill {
    pub mass_g: f64,
    /// To buy.
    pub metal_g: f64,
    pub rods: f64,
}

/// Mass in place, metal to buy and rods for a volume.
#[must_use]
pub fn seam_fill(volume_mm3: f64, filler: &Filler) -> SeamFill {
    let cm3 = volume_mm3 / 1000.0;
    SeamFill {
        mass_g: cm3 * filler.density_kg_m3 / 1000.0,
        metal_g: filler.metal_g(cm3),
        rods: filler.rods(cm3),
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    const V70: SeamGroove = SeamGroove {
        form: GrooveForm::V,
        angle_deg: 70.0,
        root_gap_mm: 0.0,
        cap_mm: 1.0,
        lip_mm: None,
        double: false,
    };

    fn stations(walls: &[(f64, f64)]) -> Vec<SeamStation> {
        walls.iter().map(|&(at_mm, wall_mm)| SeamStation { at_mm, wall_mm }).collect()
    }

    #[test]
    fn the_areas_along_a_seam_are_added_up() {
        // Hand-worked: V 90 of 5 and 10 deep without crown: 25 and 100 mm2, over 40 mm: 40 x 62.5 = 2500
        let v90 = SeamGroove { angle_deg: 90.0, cap_mm: 0.0, lip_mm: Some(1.0), ..V70 };
        let volume = v90.volume_mm3(&stations(&[(0.0, 6.0), (40.0, 11.0)]), &[]).unwrap();
        assert!((volume - 2500.0).abs() < 1e-9, "{volume}");
        // A double V of 10 mm: 2 x 25 mm2, no lip; the hole 78.54 mm3 and two cones no deeper than the drill: pi/3 x 31.6 = 33.1
        let both = SeamGroove { double: true, ..v90 };
        let hole = SeamHole { drill_mm: 10f64.sqrt(), wall_mm: 10.0, countersunk: true };
        let volume = both.volume_mm3(&stations(&[(0.0, 10.0), (40.0, 10.0)]), &[hole]).unwrap();
        assert!((volume - (2000.0 + 78.54 + 66.23)).abs() < 0.01, "{volume}");
    }

    #[rstest]
    #[case::on_the_way(6.0, 1.5, Ground::GoOn { more_mm: 2.5 })]
    #[case::nearly(8.2, 1.5, Ground::GoOn { more_mm: 0.3000000000000007 })]
    #[case::at_the_lip(8.5, 1.5, Ground::Stop)]
    #[case::within_the_gauge(8.7, 1.5, Ground::Stop)]
    #[case::into_it(9.0, 1.5, Ground::IntoTheLip { left_mm: 1.0 })]
    #[case::through(10.0, 1.5, Ground::Through)]
    #[case::far_through(14.0, 1.5, Ground::Through)]
    #[case::meant_to_go_through(10.0, 0.0, Ground::Stop)]
    #[case::not_yet_through(6.0, 0.0, Ground::GoOn { more_mm: 4.0 })]
    fn a_depth_says_when_to_stop(#[case] depth_mm: f64, #[case] lip_mm: f64, #[case] expected: Ground) {
        assert_eq!(Ground::at(depth_mm, WallMillimetres::new(10.0).unwrap(), lip_mm), expected);
    }

    #[rstest]
    #[case::no_length(&[(0.0, 10.0)], None, "stations")]
    #[case::backwards(&[(0.0, 10.0), (0.0, 10.0)], None, "stations[1].at_mm")]
    #[case::no_wall(&[(0.0, 10.0), (9.0, 0.0)], None, "stations[1].wall_mm")]
    #[case::not_a_number(&[(f64::NAN, 10.0), (9.0, 8.0)], None, "stations[0].at_mm")]
    #[case::all_lip(&[(0.0, 10.0), (9.0, 8.0)], Some(8.0), "lip_mm")]
    fn a_seam_that_cannot_be_is_refused_at_its_place(
        #[case] walls: &[(f64, f64)],
        #[case] lip_mm: Option<f64>,
        #[case] field: &str,
    ) {
        let groove = SeamGroove { lip_mm, ..V70 };
        assert_eq!(groove.volume_mm3(&stations(walls), &[]).unwrap_err().field, field);
    }

    proptest! {
        #[test]
        fn halving_a_seam_of_even_wall_changes_no_volume(long in 2.0..900.0_f64, share in 0.01..0.99_f64, wall in 4.0..60.0_f64) {
            let whole = V70.volume_mm3(&stations(&[(0.0, wall), (long, wall)]), &[]).unwrap();
            let cut = long * share;
            let first = V70.volume_mm3(&stations(&[(0.0, wall), (cut, wall)]), &[]).unwrap();
            let second = V70.volume_mm3(&stations(&[(cut, wall), (long, wall)]), &[]).unwrap();
            prop_assert!((first + second - whole).abs() < 1e-6 * whole);
        }

        #[test]
        fn more_stations_come_closer(from in 6.0..40.0_f64, to in 6.0..40.0_f64) {
            let along = |count: u32| {
                let even: Vec<(f64, f64)> = (0..=count)
                    .map(|at| f64::from(at) / f64::from(count))
                    .map(|share| (100.0 * share, from + (to - from) * share))
                    .collect();
                V70.volume_mm3(&stations(&even), &[]).unwrap()
            };
            let (coarse, fine, finest) = (along(4), along(8), along(256));
            prop_assert!((fine - finest).abs() <= (coarse - finest).abs() + 1e-9);
        }
    }
}
