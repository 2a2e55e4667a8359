//! What this job's own heating and cooling say of the flame and the packing.

use super::HeatPlan;
use crate::heat::{
    BarPower, FactorOf, HeatSource, OwnFactor, Packing, ReadAt, SimCache, ThermalBody, UNWRAP_C,
};
use crate::iron::{Iron, slowest_to_heat};
use crate::job::{HeatRef, Job, TorchEntry};
use crate::method::School;
use crate::quantity::Celsius;
use crate::shop::Shop;
use crate::stage::cooling::wrapping;
use crate::stage::heat::book_power;
use crate::stage::part::PartFacts;

/// House: a heating that rose by less says nothing of its flame, in K.
pub(super) const RISEN_K: f64 = 50.0;
/// Ours: so much over the shop and it was warm when it was lit.
const WARM_K: f64 = 15.0;

/// The part and what brings it up from cold, by the book; nothing for a fire, and for a part that was warm when it was
/// lit.
pub(super) fn from_cold(
    job: &Job,
    lit: &HeatRef<'_>,
    (part, plausible): (&PartFacts, &[Iron]),
    heat: &HeatPlan,
) -> Option<(ThermalBody, BarPower)> {
    let body = heat.warms(part, slowest_to_heat(plausible).iron.properties())?;
    let with = lit.lit.frozen.as_ref()?.heated_with.as_ref()?;
    let power = book_power(with, heat.target_c, (heat.station, part.closed()))?;
    let before = job.heats().nth(1).and_then(|before| before.latest_reading());
    let warm = before.is_some_and(|before| before.celsius > body.ambient.celsius() + WARM_K);
    let fire = HeatSource::from_id(&with.source).is_some_and(HeatSource::is_fire);
    (!fire && !warm).then_some((body, power))
}
/// House: fewer readings of a cooling say little of its packing.
const LEAST_READINGS: usize = 3;

/// Of the round in hand, once it is covered: a heating, and a cooling once it is done.
pub(super) fn learned(
    job: &Job,
    shop: &Shop,
    (part, plausible): (&PartFacts, &[Iron]),
    heat: Option<&HeatPlan>,
    sims: &SimCache,
) -> Vec<OwnFactor> {
    let Some(lit) = job.heat().filter(|it| it.covered() && it.round + 1 == job.rounds.len()) else {
        return Vec::new();
    };
    let asked = LearnedInputs { job, shop, part, plausible, sims, lit };
    [heat.and_then(|heat| asked.heating(heat)), asked.cooling()].into_iter().flatten().collect()
}

struct LearnedInputs<'a> {
    job: &'a Job,
    shop: &'a Shop,
    part: &'a PartFacts,
    plausible: &'a [Iron],
    sims: &'a SimCache,
    lit: HeatRef<'a>,
}

impl LearnedInputs<'_> {
    fn own(&self, what: FactorOf, factor: f64) -> OwnFactor {
        OwnFactor { lit: self.lit.lit.fact, name: self.job.name().to_owned(), what, factor }
    }

    /// The flame or the oven, by how the coldest place came up from cold to its target.
    fn heating(&self, heat: &HeatPlan) -> Option<OwnFactor> {
        let with = self.lit.lit.frozen.as_ref()?.heated_with.as_ref()?;
        // Of two flames nobody knows which was the weaker.
        if HeatSource::from_id(&with.help).is_some() {
            return None;
        }
        let (body, power) = from_cold(self.job, &self.lit, (self.part, self.plausible), heat)?;
        let ambient_c = body.ambient.celsius();
        let bead =
            |entry: &&crate::job::LogEntry| entry.stands() && matches!(entry.entry, TorchEntry::Bead { .. });
        let first = self.lit.log.iter().find(bead).map(|entry| entry.minutes);
        let until = first.or(self.lit.covered_last_min())?;
        let mut read: Vec<ReadAt> = self.lit.read_between(0.0, until);
        // From there on it is held, not heated.
        let there = read.iter().position(|read| read.celsius >= heat.target_c);
        read.truncate(there.map_or(read.len(), |there| there + 1));
        let risen = read.last().is_some_and(|last| last.celsius - ambient_c >= RISEN_K);
        let factor = self.sims.heating_fit(&body, power, &read).filter(|_| risen && read.len() > 1)?;
        Some(self.own(FactorOf::Source { id: with.source.clone() }, factor))
    }

    /// The packing, by how it came down in it.
    fn cooling(&self) -> Option<OwnFactor> {
        // What is warmed at its seam cools into its own cold iron, whatever it is packed in.
        let way = self.lit.lit.frozen.as_ref()?.way.filter(|way| way.school != School::Local)?;
        let packed = wrapping(self.job.round(), self.shop, way);
        let last = self.lit.latest_reading()?;
        let done = self.lit.unwrapped() || last.celsius <= UNWRAP_C;
        if packed.packing() == Packing::Air || !done {
            return None;
        }
        let body = self.part.body(slowest_to_heat(self.plausible).iron.properties())?;
        let covered = self.lit.covered_last_min()?;
        let start = Celsius::new(self.lit.measured_at(covered)?.celsius).ok()?;
        let off = self.lit.log.iter().rev().find(|it| it.stands() && it.entry == TorchEntry::Unwrapped);
        let until = off.map_or(f64::INFINITY, |off| off.minutes);
        let read = self.lit.read_between(covered, until);
        if read.len() < LEAST_READINGS {
            return None;
        }
        let fit = self.sims.fit(&body, start, &packed, &read);
        let scale = fit.as_ref().as_ref().filter(|fit| fit.fits)?.scale;
        Some(self.own(FactorOf::Packing { packing: packed.packing() }, scale))
    }
}
