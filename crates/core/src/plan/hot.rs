//! A hot part is hot, whatever round or station the job is in.

use crate::casting::shape::Restraint;
use serde::Serialize;
use uuid::Uuid;

use crate::field;
use crate::heat::{Cooling, Packing, SimCache, TOUCH_C, UNWRAP_C, Wrapping};
use crate::iron::{Iron, slowest_to_heat};
use crate::job::{HeatRef, Job, Lighting, TorchEntry};
use crate::method::{School, Way, target};
use crate::quantity::Celsius;
use crate::shop::Shop;
use crate::stage::cooling::wrapping;
use crate::stage::part::PartFacts;

/// The last lighting of a part, as far as its heat is concerned. Minutes are on its own job clock.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LastHeat {
    /// The fact that lit it.
    pub lit: Uuid,
    /// The round it belongs to, from 1.
    pub round: usize,
    pub lit_for: Lighting,
    /// The way it was lit for heats the part.
    pub heated: bool,
    /// The flame was off for good; nothing while it is not.
    pub out_min: Option<f64>,
    pub covered: bool,
    pub unwrapped: bool,
    /// Not the round in hand, or put away, or handed over: nobody heats it any more.
    pub over: bool,
    /// What it lies in once it is covered.
    pub packing: Packing,
    pub thickness_mm: f64,
    /// By the model, from when the flame was off; nothing while it is not, or not within 72 h.
    pub unwrap_min: Option<f64>,
    pub touch_min: Option<f64>,
    /// The same for a heavier part in a tighter packing: until then it may be hot.
    pub touch_at_the_latest_min: Option<f64>,
}

/// House: the slow end of a cooling, by which nobody is burnt: so much more mass, so much less loss.
const HEAVIER: f64 = 1.3;
const TIGHTER: f64 = 0.7;
/// Ours: where nobody read it and nothing was planned, a part is taken as hot as it may be planned.
const HOTTEST_C: f64 = 700.0;

impl LastHeat {
    /// The packing, as the cooling model takes it.
    #[must_use]
    pub fn wrapping(&self) -> Wrapping {
        Wrapping::new(self.packing, self.thickness_mm / 1000.0).unwrap_or(Wrapping::usual(self.packing))
    }

    /// It was heated, and no reading says that it is cold.
    pub(super) fn still_hot(&self, job: &Job) -> bool {
        let heat = job.heats().find(|heat| heat.lit.fact == self.lit);
        self.heated && !heat.is_some_and(|heat| heat.read_cold(self.over))
    }

    pub(super) fn of(
        job: &Job,
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        chosen: Option<Way>,
        sims: &SimCache,
    ) -> Option<Self> {
        // A further lighting that heats nothing and of which nothing was read says nothing of the one before.
        let way_of = |heat: &HeatRef<'_>| heat.lit.frozen.as_ref().and_then(|frozen| frozen.way).or(chosen);
        let heats_it = |heat: &HeatRef<'_>| match heat.lit.what {
            Lighting::Bake => true,
            Lighting::Tack => false,
            Lighting::Main => way_of(heat).is_none_or(|way| way.school.heats()),
        };
        let telling = |heat: &HeatRef<'_>| heats_it(heat) || heat.latest_reading().is_some();
        let heat = job.heats().find(telling).or_else(|| job.heat())?;
        let in_hand = heat.round + 1 == job.rounds.len() && heat.cancelled_min.is_none();
        let way = way_of(&heat);
        let out_min = heat.out_of_heat_min();
        let handed_over = job.round().get(field::hand_over::DONE) == Some(true);
        let packed = match way {
            Some(way) if heat.cancelled_min.is_none() && heat.lit.what == Lighting::Main => {
                wrapping(&job.rounds[heat.round], shop, way)
            }
            _ => Wrapping::usual(Packing::Air),
        };
        let mut last = Self {
            lit: heat.lit.fact,
            round: heat.round + 1,
            lit_for: heat.lit.what,
            heated: heats_it(&heat),
            out_min,
            covered: heat.covered(),
            unwrapped: heat.unwrapped(),
            over: !in_hand || job.put_away || handed_over,
            packing: packed.packing(),
            thickness_mm: packed.thickness_mm(),
            unwrap_min: None,
            touch_min: None,
            touch_at_the_latest_min: None,
        };
        let from_min = heat.covered_last_min().or(out_min);
        if let (Some(out_min), true) = (from_min, last.heated) {
            last.cool_from(out_min, &heat, &packed, (part, plausible), sims);
        }
        Some(last)
    }

    fn cool_from(
        &mut self,
        out_min: f64,
        heat: &HeatRef<'_>,
        packed: &Wrapping,
        (part, plausible): (&PartFacts, &[Iron]),
        sims: &SimCache,
    ) {
        let planned =
            heat.lit.frozen.as_ref().map(|frozen| {
                frozen.curve.iter().map(|(_, celsius)| *celsius).fold(f64::NEG_INFINITY, f64::max)
            });
        let planned = planned.filter(|celsius| celsius.is_finite() && heat.lit.what == Lighting::Main);
        // The arc alone makes no more of it than its window.
        let way = heat.lit.frozen.as_ref().and_then(|frozen| frozen.way);
        let by_the_arc = way
            .filter(|way| way.school == School::ArcOnly)
            .and_then(|way| target(way, plausible, None, Restraint::Free));
        let by_the_arc = by_the_arc.map(|target| target.most_c);
        // A stick says only how hot it is at least: nobody is burnt by the rest.
        let read = heat.measured_at(out_min).map(|reading| reading.celsius);
        let at_least = heat.melted().filter(|it| it.minutes <= out_min).map(|it| it.celsius);
        let start_c = match read {
            Some(read) => read,
            None => at_least.fold(planned.or(by_the_arc).unwrap_or(HOTTEST_C), f64::max),
        };
        let iron = slowest_to_heat(plausible).iron.properties();
        let Some(body) = part.body(iron) else { return };
        let heaviest = part.weight.as_ref().map_or(0.0, |weight| weight.range_kg().1) * HEAVIER;
        let Ok(start) = Celsius::new(start_c) else { return };
        let at =
            |cooling: &Cooling, celsius: f64| cooling.hours_to(celsius).map(|hours| out_min + hours * 60.0);
        let cooling = sims.cool(&body, start, packed);
        (self.unwrap_min, self.touch_min) = (at(&cooling, UNWRAP_C), at(&cooling, TOUCH_C));
        let slow = part.slow_body_weighing(iron, heaviest).and_then(|heavy| {
            at(&sims.cool_scaled(&heavy, start, &packed.no_leakier_than_the_book(), TIGHTER), TOUCH_C)
        });
        self.touch_at_the_latest_min = slow;
        // As it is going: by what was read of it, where that says something.
        let fit = sims.fit(&body, start, packed, &heat.read_between(out_min, self.unwrapped_min(heat)));
        if let (Some(fit), true) = (fit.as_ref(), self.covered) {
            (self.unwrap_min, self.touch_min) = (at(&fit.cooling, UNWRAP_C), at(&fit.cooling, TOUCH_C));
            let late_h = match fit.between_hours(TOUCH_C) {
                Some((_, late_h)) => Some(late_h),
                None => fit.cooling.hours_to(TOUCH_C),
            };
            let late = late_h.map(|hours| out_min + hours * 60.0);
            // Whichever is the later: what is hot is called hot.
            self.touch_at_the_latest_min = slow.zip(late).map(|(slow, late)| slow.max(late));
        }
    }

    fn unwrapped_min(&self, heat: &HeatRef<'_>) -> f64 {
        let off = heat.log.iter().rev().find(|it| it.stands() && it.entry == TorchEntry::Unwrapped);
        off.filter(|_| self.unwrapped).map_or(f64::INFINITY, |off| off.minutes)
    }
}
