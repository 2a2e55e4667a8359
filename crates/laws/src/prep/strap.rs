//! A steel strap over a seam: how much steel, which flat, how many bolts, and what part of the load it takes.

/// Young's modulus of mild steel, GPa (law: of the material).
const STEEL_GPA: f64 = 210.0;
/// **House**: what the strap and its bolts are worked at, MPa; of the iron a quarter of what it stands.
const STRAP_MPA: f64 = 100.0;
const BOLT_MPA: f64 = 60.0;
const IRON_SHARE: f64 = 0.25;
/// **House**: so many walls past the seam on each side.
const WALLS_PAST: f64 = 6.0;
/// **House**: bolt holes are so many diameters off the seam and off each other.
pub const DIAMETERS_OFF: f64 = 3.0;
/// **House**: from the last hole to the end of the strap, and from a hole to its side, in diameters.
const TO_THE_END: f64 = 1.5;
/// **House**: what a bolt hole is larger by, mm.
const CLEARANCE_MM: f64 = 1.0;
/// **House**: a flat that is thinner against its bolts tears at the hole.
const BOLT_TO_THICK: f64 = 4.0;
/// **House**: fewer do not hold it straight, more do not share.
const BOLTS: (u32, u32) = (2, 6);

/// Flat bar and bolts as they are sold.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Stock {
    Metric,
    Inch,
}

/// A bolt: as it is asked for, its diameter in mm, the section that stands in mm2.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Bolt {
    name: &'static str,
    mm: f64,
    mm2: f64,
}

/// mm in an inch, by definition.
const INCH_MM: f64 = 25.4;

impl Stock {
    const fn thick_mm(self) -> &'static [f64] {
        match self {
            Self::Metric => &[3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 20.0],
            // 1/8 to 3/4 in.
            Self::Inch => &[3.175, 4.7625, 6.35, 7.9375, 9.525, 12.7, 15.875, 19.05],
        }
    }

    const fn wide_mm(self) -> &'static [f64] {
        match self {
            Self::Metric => &[20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 80.0, 100.0, 120.0, 150.0],
            // 3/4 to 6 in.
            Self::Inch => &[19.05, 25.4, 31.75, 38.1, 50.8, 63.5, 76.2, 101.6, 127.0, 152.4],
        }
    }

    /// Coarse threads.
    ///
    /// # Source
    /// ISO 898-1; of inch threads pi / 4 (d - 0.9743 / threads an inch)^2, arithmetic.
    fn bolts(self) -> [Bolt; 6] {
        let inch = |name, sixteenths: f64, threads: f64| {
            let inches = sixteenths / 16.0;
            let stands = std::f64::consts::FRAC_PI_4 * (inches - 0.9743 / threads).powi(2);
            Bolt { name, mm: inches * INCH_MM, mm2: stands * INCH_MM * INCH_MM }
        };
        let metric = |name, mm, mm2| Bolt { name, mm, mm2 };
        match self {
            Self::Metric => [
                metric("M6", 6.0, 20.1),
                metric("M8", 8.0, 36.6),
                metric("M10", 10.0, 58.0),
                metric("M12", 12.0, 84.3),
                metric("M16", 16.0, 157.0),
                metric("M20", 20.0, 245.0),
            ],
            Self::Inch => [
                inch("1/4 in coarse", 4.0, 20.0),
                inch("5/16 in coarse", 5.0, 18.0),
                inch("3/8 in coarse", 6.0, 16.0),
                inch("1/2 in coarse", 8.0, 13.0),
                inch("5/8 in coarse", 10.0, 11.0),
                inch("3/4 in coarse", 12.0, 10.0),
            ],
        }
    }
}

/// A seam that a strap lies over.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strapped {
    /// Strength of the joint against whole iron.
    pub ratio: f64,
    pub seam_mm: f64,
    pub wall_mm: f64,
    pub tensile_mpa: f64,
    pub youngs_gpa: f64,
    /// What it lies on: it is no longer than that, mm.
    pub room_mm: f64,
    pub stock: Stock,
}

/// A strap.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strap {
    /// Steel that makes up for the strength that is missing, and for the stiffness, mm2.
    pub by_strength_mm2: f64,
    pub by_stiffness_mm2: f64,
    /// What it carries, N.
    pub force_n: f64,
    /// The flat; nothing where none that is sold will do within the seam and on the part.
    pub flat: Option<Flat>,
}

/// A flat bar and its bolts.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flat {
    pub wide_mm: f64,
    pub thick_mm: f64,
    /// From the seam to its end, on each side.
    pub reach_mm: f64,
    pub bolt_mm: f64,
    /// "M20", "3/4 in coarse"
    pub bolt: &'static str,
    /// On each side, in a row.
    pub bolts: u32,
    /// What it takes of a pull by its stiffness.
    pub share: f64,
}

/// Mild steel over a seam whose joint stands less than whole iron; nothing where it stands as much.
///
/// By strength (1 - r) x section of casting x (UTS / 4) / 100 MPa, by stiffness s = (1 - r) / (n r) of the section, n the
/// steel's modulus against the iron's: the larger counts, without the hole. 3 mm thick at least, 6 walls past the seam;
/// bolts for the same force at 60 MPa, 3 diameters off seam and each other. It takes n s / (1 + n s).
///
/// # Source
/// House; the bolts' sections ISO 898-1, of inch threads arithmetic.
#[must_use]
pub fn strap(of: Strapped) -> Option<Strap> {
    let Strapped { ratio, seam_mm, wall_mm, tensile_mpa, youngs_gpa, room_mm, stock } = of;
    if !(ratio > 0.0 && ratio < 1.0) {
        return None;
    }
    let casting_mm2 = seam_mm * wall_mm;
    let n = STEEL_GPA / youngs_gpa;
    let by_strength_mm2 = (1.0 - ratio) * casting_mm2 * tensile_mpa * IRON_SHARE / STRAP_MPA;
    let by_stiffness_mm2 = (1.0 - ratio) / (n * ratio) * casting_mm2;
    let needed_mm2 = by_strength_mm2.max(by_stiffness_mm2);
    let force_n = needed_mm2 * STRAP_MPA;
    let kinds = stock.bolts();
    let flats = stock.wide_mm().iter().flat_map(|wide| kinds.iter().map(move |bolt| (*wide, *bolt)));
    let flat = flats
        .filter(|(wide, _)| *wide <= seam_mm)
        .filter_map(|(wide_mm, Bolt { name, mm: bolt_mm, mm2: bolt_mm2 })| {
            let hole_mm = bolt_mm + CLEARANCE_MM;
            let bolts = ((force_n / (BOLT_MPA * bolt_mm2)).ceil() as u32).max(BOLTS.0);
            if bolts > BOLTS.1 || wide_mm < 2.0 * TO_THE_END * bolt_mm {
                return None;
            }
            let stands =
                |thick: &f64| (wide_mm - hole_mm) * thick >= needed_mm2 && *thick >= bolt_mm / BOLT_TO_THICK;
            let thick_mm = stock.thick_mm().iter().copied().find(stands)?;
            let row_mm = (DIAMETERS_OFF * f64::from(bolts) + TO_THE_END) * bolt_mm;
            let reach_mm = row_mm.max(WALLS_PAST * wall_mm);
            if 2.0 * reach_mm > room_mm {
                return None;
            }
            let s = wide_mm * thick_mm / casting_mm2;
            Some(Flat {
                wide_mm,
                thick_mm,
                reach_mm,
                bolt_mm,
                bolt: name,
                bolts,
                share: n * s / (1.0 + n * s),
            })
        })
        // Each hole is a new crack waiting: the fewest, then the lightest.
        .min_by(|a, b| {
            let steel = |it: &Flat| it.wide_mm * it.thick_mm * it.reach_mm;
            a.bolts.cmp(&b.bolts).then(steel(a).total_cmp(&steel(b)))
        });
    Some(Strap { by_strength_mm2, by_stiffness_mm2, force_n, flat })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    const SEAM: Strapped = Strapped {
        ratio: 0.8,
        seam_mm: 120.0,
        wall_mm: 14.0,
        tensile_mpa: 200.0,
        youngs_gpa: 110.0,
        room_mm: 900.0,
        stock: Stock::Metric,
    };

    #[test]
    fn it_is_worked_out_by_hand() {
        let found = strap(SEAM).unwrap();
        // 120 x 14 = 1680 mm2; 0.2 x 1680 x 50 / 100 = 168; n = 1.909, 0.2 / (1.909 x 0.8) x 1680 = 220
        assert!((found.by_strength_mm2 - 168.0).abs() < 1e-9);
        assert!((found.by_stiffness_mm2 - 220.0).abs() < 1e-9);
        assert!((found.force_n - 22_000.0).abs() < 1e-6);
        let flat = found.flat.unwrap();
        // 22 kN / 60 MPa = 367 mm2: two of M20 stand 490; (60 - 21) x 6 = 234
        assert_eq!((flat.wide_mm, flat.thick_mm, flat.bolt_mm, flat.bolts), (60.0, 6.0, 20.0, 2));
        // (3 x 2 + 1.5) x 20 = 150, more than 6 x 14 = 84
        assert!((flat.reach_mm - 150.0).abs() < 1e-9);
        // 360 / 1680 = 0.214; 1.909 x 0.214 = 0.409; 0.409 / 1.409
        assert!((flat.share - 0.2903).abs() < 1e-4, "{}", flat.share);
    }

    #[test]
    fn a_shop_in_inches_has_its_own_flats_and_bolts() {
        let flat = strap(Strapped { stock: Stock::Inch, ..SEAM }).unwrap().flat.unwrap();
        // Hand-worked: 3/4 - 10 stands 0.7854 (0.75 - 0.0974)^2 = 0.3345 in2 = 215.8 mm2; 22 kN / 60 MPa = 367 mm2: two.
        assert_eq!((flat.bolt, flat.bolts), ("3/4 in coarse", 2));
        let bolt = Stock::Inch.bolts()[5];
        assert!((bolt.mm2 - 215.8).abs() < 0.1, "{}", bolt.mm2);
        // 3 x 3/16 in: (76.2 - 20.05) x 4.7625 = 267 mm2, over 220, and lighter than 2-1/2 x 1/4 in.
        assert_eq!((flat.wide_mm, flat.thick_mm), (76.2, 4.7625));
    }

    #[rstest]
    #[case::as_strong(1.0)]
    #[case::stronger(1.2)]
    #[case::no_joint(0.0)]
    #[case::none(f64::NAN)]
    fn where_nothing_is_missing_there_is_no_strap(#[case] ratio: f64) {
        assert_eq!(strap(Strapped { ratio, ..SEAM }), None);
    }

    #[test]
    fn no_strap_is_longer_than_what_it_lies_on() {
        assert!(strap(Strapped { room_mm: 300.0, ..SEAM }).unwrap().flat.is_some());
        let flat = strap(Strapped { room_mm: 299.0, ..SEAM }).unwrap().flat;
        assert!(flat.is_none_or(|it| 2.0 * it.reach_mm <= 299.0), "{flat:?}");
    }

    #[test]
    fn a_seam_too_short_for_any_flat_has_none_and_still_says_what_is_missing() {
        let found = strap(Strapped { seam_mm: 15.0, ratio: 0.3, wall_mm: 40.0, ..SEAM }).unwrap();
        assert!(found.flat.is_none() && found.by_strength_mm2 > 0.0);
    }

    #[rstest]
    fn a_weaker_joint_wants_no_less(
        #[values(0.95, 0.9, 0.7, 0.5, 0.3)] ratio: f64,
        #[values(40.0, 120.0, 300.0)] seam_mm: f64,
        #[values(6.0, 14.0, 30.0)] wall_mm: f64,
        #[values(Stock::Metric, Stock::Inch)] stock: Stock,
    ) {
        let of = Strapped { ratio, seam_mm, wall_mm, stock, ..SEAM };
        let found = strap(of).unwrap();
        let weaker = strap(Strapped { ratio: ratio - 0.05, ..of }).unwrap();
        assert!(weaker.force_n > found.force_n);
        if let Some(flat) = found.flat {
            // What it holds is what is missing, without its hole; its bolts hold it, off the seam.
            let net = (flat.wide_mm - flat.bolt_mm - 1.0) * flat.thick_mm;
            assert!(net >= found.by_strength_mm2.max(found.by_stiffness_mm2));
            let bolt = stock.bolts().into_iter().find(|bolt| bolt.name == flat.bolt).unwrap();
            assert!(f64::from(flat.bolts) * bolt.mm2 * 60.0 >= found.force_n);
            assert!(flat.wide_mm <= seam_mm && flat.thick_mm >= 3.0 && flat.reach_mm >= 6.0 * wall_mm);
            assert!(flat.share > 0.0 && flat.share < 1.0);
        }
    }
}
