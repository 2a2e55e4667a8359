//! What a way takes from the stores on this job.

use super::MethodContext;
use crate::heat::{Packing, gas_need_m3};
use crate::iron::Iron;
use crate::method::Way;
use crate::method::customs::NickelUnder;
use crate::pins::rows::tap_drill_mm;
use crate::stage::cooling::wrapping;
use crate::stage::heat::gases_of;
use crate::stage::prep::PrepPlan;
use crate::stage::taught::NICKEL;
use crate::stores::{Take, TakenWhen};

/// Seconds that the shielding gas flows on after each bead. House.
const FLOWS_ON_S: f64 = 10.0;
/// Holes that a tap is good for. House.
const HOLES_A_TAP: f64 = 40.0;
const HOLES_A_TAP_DUCTILE: f64 = 15.0;

/// Flux on a hot rod, a share of the metal it floats. House.
const FLUX_SHARE: f64 = 0.1;

/// Ours: a drill outlasts so many taps, ground now and then.
const TAPS_A_DRILL: f64 = 3.0;

/// What is taken before it is looked for in the stores.
type Wanted = (&'static str, Option<f64>, f64, TakenWhen);

impl MethodContext<'_> {
    /// What this way takes: filler, pins, gas to heat it and to shield it, packing. What nobody can reckon is left out.
    pub(super) fn takes(&self, way: Way, prep: &PrepPlan) -> Vec<Take> {
        let mut wanted: Vec<Wanted> = Vec::new();
        self.filler_taken(way, prep, &mut wanted);
        self.pins_taken(way, prep, &mut wanted);
        self.gas_taken(way, prep, &mut wanted);
        self.packing_taken(way, &mut wanted);
        let straps = self.straps(way, prep).into_iter().filter(|it| it.chosen).count();
        wanted.push(("strap", None, straps as f64, TakenWhen::Done));
        let shop = (self.shop.stores.as_slice(), self.shop.units);
        let takes = wanted.into_iter();
        takes.filter_map(|(kind, size, amount, when)| Take::of((kind, size), amount, when, shop)).collect()
    }

    fn filler_taken(&self, way: Way, prep: &PrepPlan, wanted: &mut Vec<Wanted>) {
        let thickest = prep.seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
        let Some(filler) = way.method.filler(thickest, self.ductile()) else { return };
        // Of the rods that will do, the one that is there; of several things it is laid with the first carries.
        let Some(kinds) = way.method.laid_with().next() else { return };
        let b_rod = self.ductile().then(|| kinds.iter().find(|kind| kind.ends_with("_b"))).flatten();
        let there = kinds.iter().find(|kind| self.shop.stores.iter().any(|item| item.kind == **kind));
        let Some(kind) = b_rod.or(there).or(kinds.first()) else { return };
        let (size, amount) = if filler.wire() {
            (None, prep.metal_g / 1000.0)
        } else {
            (Some(filler.rod_diameter_mm), prep.rods)
        };
        // Nickel on the iron, nickel-iron over it: the first layer of each seam in nickel.
        let under = match self.taught(&NICKEL, way) {
            NickelUnder::Root if prep.beads > 0 => {
                let first: f64 = prep
                    .seams
                    .iter()
                    .map(|seam| {
                        let sides = if seam.is_double() { 2.0 } else { 1.0 };
                        sides * (seam.length_mm / prep.bead_mm.max(1.0)).ceil()
                    })
                    .sum();
                (amount * (first / f64::from(prep.beads)).min(1.0)).ceil()
            }
            NickelUnder::Root | NickelUnder::One => 0.0,
        };
        let on_the_shelf = self.shop.stores.iter().any(|item| item.kind == "flux");
        if way.method.entry().setup.fluxed && on_the_shelf {
            wanted.push(("flux", None, prep.metal_g / 1000.0 * FLUX_SHARE, TakenWhen::Done));
        }
        let over = prep.over_it.as_ref().zip(way.method.laid_with().nth(1).and_then(|kinds| kinds.first()));
        if let Some((over, kind)) = over {
            wanted.push((kind, None, over.metal_g / 1000.0, TakenWhen::Done));
        }
        wanted.push(("nickel", size, under, TakenWhen::Done));
        wanted.push((kind, size, (amount - under).max(0.0), TakenWhen::Done));
    }

    fn pins_taken(&self, way: Way, prep: &PrepPlan, wanted: &mut Vec<Wanted>) {
        if !way.method.pins() {
            return;
        }
        let mut sizes: Vec<(f64, f64)> = Vec::new();
        for seam in &prep.seams {
            match sizes.iter_mut().find(|(size, _)| *size == seam.pin_mm) {
                Some((_, pins)) => *pins += f64::from(seam.pins),
                None => sizes.push((seam.pin_mm, f64::from(seam.pins))),
            }
        }
        let a_tap = if self.belief.leading == Iron::Ductile { HOLES_A_TAP_DUCTILE } else { HOLES_A_TAP };
        for (size, pins) in sizes {
            wanted.push(("pins", Some(size), pins, TakenWhen::Done));
            // What is worn is a share of a tap: the next job goes on with it.
            wanted.push(("taps", Some(size), pins / a_tap, TakenWhen::Done));
            let drill = tap_drill_mm(size).filter(|mm| {
                self.shop.stores.iter().any(|item| item.kind == "drill" && item.serves("drill", Some(*mm)))
            });
            // Of a drill that nobody keeps on a shelf nothing is said: it is one of the set.
            if let Some(mm) = drill {
                wanted.push(("drill", Some(mm), pins / (a_tap * TAPS_A_DRILL), TakenWhen::Done));
            }
        }
        wanted.push(("locks", None, f64::from(prep.locks), TakenWhen::Done));
    }

    fn gas_taken(&self, way: Way, prep: &PrepPlan, wanted: &mut Vec<Wanted>) {
        if let (Some(burns), Some(steps)) = (self.burns(way, prep), self.step_burns(way, prep)) {
            for gas in gases_of(&steps) {
                let m3: f64 = steps.iter().map(|step| step.need_m3(gas)).sum();
                wanted.push((gas.id(), None, burns.lightings * m3, TakenWhen::Lit));
            }
        }
        if let Some(litres_a_min) = way.method.entry().arc.and_then(|arc| arc.shield_l_min) {
            let minutes = self.fill(way, prep).laying_min + f64::from(prep.beads) * FLOWS_ON_S / 60.0;
            let m3 = gas_need_m3(litres_a_min * 60.0 / 1000.0, minutes);
            wanted.push(("argon", None, m3, TakenWhen::Done));
        }
    }

    /// Loose packing all round it, as thick as it is packed. A blanket is there or not.
    fn packing_taken(&self, way: Way, wanted: &mut Vec<Wanted>) {
        let Some((l, w, h)) = self.part.size_mm.filter(|_| way.school.preheats()) else { return };
        let wrap = wrapping(self.round, self.shop, way);
        let kind = match wrap.packing() {
            Packing::Air | Packing::Blanket | Packing::GlassWool | Packing::Leather => return,
            Packing::Vermiculite => "vermiculite",
            Packing::DrySand => "dry_sand",
            Packing::WoodAsh => "wood_ash",
            Packing::Lime => "lime",
            Packing::Litter => "litter",
        };
        let around = 2.0 * wrap.thickness_mm();
        let mm3 = (l + around) * (w + around) * (h + around) - l * w * h;
        // It is dug out and used again.
        wanted.push((kind, None, mm3 / 1e6, TakenWhen::Kept));
    }
}
