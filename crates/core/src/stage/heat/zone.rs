//! What a local preheat warms: the seam and what lies round it, a plate in the cold rest of the part.

use crate::iron::IronProperties;
use crate::quantity::{Celsius, Kilograms, Millimetres};
use crate::sim::ThermalBody;
use crate::stage::cracks::CrackPlan;
use crate::stage::part::PartFacts;

/// The zone of the longest seam; each is warmed by itself.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Zone {
    /// From the seam to its edge.
    pub reach_mm: f64,
    length_mm: f64,
    width_mm: f64,
    wall_mm: f64,
    ambient_c: f64,
}

/// Why there is none.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum NoZone {
    /// How long the crack is, or how large the part, nobody has said.
    NotKnown,
    /// It is nearly all of the part.
    AllOfIt,
}

/// House: it reaches so far from the seam, in mm, or so many walls where that is further.
const REACH_MM: f64 = 75.0;
const REACH_WALLS: f64 = 4.0;
/// House: what a wall gives off to the air at both faces as it draws heat out of the zone, in W/m²K.
const ROUND_IT_W_M2K: f64 = 20.0;
/// House: of so much of a part it is no zone any more.
const ALL_OF_IT: f64 = 0.6;

impl Zone {
    pub fn of(cracks: &[CrackPlan], part: &PartFacts) -> Result<Self, NoZone> {
        let seams = cracks.iter().filter(|crack| crack.worked());
        let longest = seams.filter_map(|crack| Some((crack.length_mm?, crack.wall_mm)));
        let (seam_mm, wall_mm) = longest.max_by(|a, b| a.0.total_cmp(&b.0)).ok_or(NoZone::NotKnown)?;
        let (l, w, h) = part.size_mm.ok_or(NoZone::NotKnown)?;
        let mut sides = [l, w, h];
        sides.sort_by(f64::total_cmp);
        let reach_mm = REACH_MM.max(REACH_WALLS * wall_mm);
        let zone = Self {
            reach_mm,
            length_mm: (seam_mm + 2.0 * reach_mm).min(sides[2]),
            width_mm: (2.0 * reach_mm).min(sides[1]),
            wall_mm: wall_mm.min(sides[0]),
            ambient_c: part.ambient_c,
        };
        let part_kg = part.weight.as_ref().ok_or(NoZone::NotKnown)?.kg();
        // The irons differ by 2 % in density: gray's will do.
        let kg = zone.kg(crate::iron::Iron::Gray.properties().density_kg_m3);
        if kg > ALL_OF_IT * part_kg { Err(NoZone::AllOfIt) } else { Ok(zone) }
    }

    fn kg(&self, density_kg_m3: f64) -> f64 {
        self.length_mm * self.width_mm * self.wall_mm * 1e-9 * density_kg_m3
    }

    /// What the iron round it draws off, in W/K: all round its edge a wall that is long as heat goes, and gives it off
    /// at both faces, √(2 h k t) for each m.
    ///
    /// # Source
    /// The long fin (law); what it gives off is house.
    fn drain_w_k(&self, conductivity_w_mk: f64) -> f64 {
        let around_m = 2.0 * (self.length_mm + self.width_mm) / 1000.0;
        around_m * (2.0 * ROUND_IT_W_M2K * conductivity_w_mk * self.wall_mm / 1000.0).sqrt()
    }

    /// As the heat model sees it: both faces of the plate, and what is drawn off at its edges.
    pub fn body(&self, iron: IronProperties) -> Option<ThermalBody> {
        let [l, w, t] = [self.length_mm, self.width_mm, self.wall_mm];
        let faces_of_all = l * w / (l * w + w * t + t * l);
        let mm = |value| Millimetres::new(value).ok();
        let (mass, size) = (Kilograms::new(self.kg(iron.density_kg_m3)).ok()?, (mm(l)?, mm(w)?, mm(t)?));
        let ambient = Celsius::new(self.ambient_c).ok()?;
        let body = ThermalBody::new(iron, mass, size, faces_of_all, ambient).ok()?;
        Some(body.drained(self.drain_w_k(iron.conductivity_w_mk)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::heat::{BarPower, OutOfHeat, Packing, Wrapping, ceiling_c, cool, heat_for};
    use crate::iron::Iron;
    use crate::quantity::{Seconds, Watts};

    fn zone() -> Zone {
        Zone { reach_mm: 80.0, length_mm: 260.0, width_mm: 160.0, wall_mm: 20.0, ambient_c: 20.0 }
    }

    fn body() -> ThermalBody {
        zone().body(Iron::Gray.properties()).unwrap()
    }

    #[test]
    fn it_is_a_plate_that_the_cold_iron_round_it_draws_heat_from() {
        // By hand: 2 x (0.26 + 0.16) m x sqrt(2 x 20 x 48 x 0.02) = 0.84 x 6.197 = 5.205 W/K
        assert!((body().drain_w_k() - 5.205).abs() < 0.002, "{}", body().drain_w_k());
        // 0.26 x 0.16 x 0.02 x 7150 = 5.949 kg, both faces 0.0832 m2
        assert!((body().mass.kilograms() - 5.949).abs() < 0.001);
        assert!((body().surface_m2() - 0.0832).abs() < 1e-6);
    }

    #[test]
    fn out_of_the_heat_it_falls_by_what_it_gives_off_and_what_is_drawn_from_it() {
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
        // By hand, at 200 degC: 0.0832 x (10 x 180 + 0.8 x 5.670e-8 x (473.15^4 - 293.15^4)) = 0.0832 x (1800 + 1938)
        // = 311 W, and 5.205 x 180 = 937 W: 1248 W from 5.949 kg at 500 + 0.375 x ... J/kgK
        let loses_w = still.loss_w(&body(), 200.0);
        assert!((loses_w - 1_248.0).abs() < 3.0, "{loses_w}");
        let whole = ThermalBody::drained(body(), 0.0);
        let (drawn, alone) = (still.seconds(&body(), 200.0, 150.0), still.seconds(&whole, 200.0, 150.0));
        assert!(drawn.unwrap() < 0.35 * alone.unwrap());
    }

    #[test]
    fn what_a_flame_gives_is_at_last_what_it_loses() {
        let power = |w| Watts::new(w).unwrap();
        let flame = BarPower::Flame { even: power(2_000.0), local: power(0.0), station: 0.5, covered: 0.0 };
        let at_c = ceiling_c(&body(), flame);
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: 1.0 };
        assert!((still.loss_w(&body(), at_c) - 2_000.0).abs() < 2.0, "{at_c}");
        let long = heat_for(&body(), flame, Seconds::new(50_000.0).unwrap());
        assert!((long.bar.coldest_c() - at_c).abs() < 0.1);
    }

    #[test]
    fn no_packing_keeps_the_cold_iron_from_drawing_on_it() {
        let start = Celsius::new(250.0).unwrap();
        let blanket = Wrapping::usual(Packing::Blanket);
        let fastest = |body: &ThermalBody| cool(body, start, &blanket).fastest_k_per_h();
        assert!(fastest(&body()) > 4.0 * fastest(&ThermalBody::drained(body(), 0.0)));
    }
}
