//! Stage 8: how it comes down, when it may be unwrapped and touched.

mod chain;
mod figures;

pub use chain::ChainLine;
pub(crate) use figures::fall_words;

use serde::Serialize;

use super::part::{PartFacts, Weight};
use super::{Amount, Caution, HeatPlan, Stage, Station};
use crate::base::drawn::serialize_thinned;
use crate::field;
use crate::heat::{
    Cooling, CoolingFit, FactorOf, Packing, SimCache, TOUCH_C, ThermalBody, UNWRAP_C, Wrapping,
    against_usual, cool, own_factor, thinned,
};
use crate::job::Round;
use crate::method::{School, Way};
use crate::quantity::{Celsius, Unit, UnitSystem};
use crate::shop::Shop;
use chain::{before_the_packing, chain_lines, descended};
use figures::figures;

/// The cooling of the chosen way.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CoolingPlan {
    /// Nothing hot to cool: the station is full at once.
    pub cold: bool,
    pub sentence: String,
    pub packing: String,
    pub start_c: f64,
    /// "unwrap under 65 °C", "touch under 45 °C".
    pub unwrap_words: String,
    pub touch_words: String,
    /// Hours from covering; nothing when not within 72 h.
    pub unwrap_hours: Option<f64>,
    pub touch_hours: Option<f64>,
    /// At the least and the most an estimated part may weigh; nothing where it was weighed.
    pub between: Option<CoolingBetween>,
    #[serde(skip)]
    pub fastest_k_per_h: f64,
    /// Nothing where the method sets none.
    #[serde(skip)]
    pub limit_k_per_h: Option<f64>,
    /// (hours from covering, degC): as it is going, where that is known, else as planned.
    #[serde(serialize_with = "serialize_thinned")]
    pub curve: Vec<(f64, f64)>,
    /// As it is going, by what was read of it; nothing while that says too little.
    pub going: Option<Going>,
    /// The packing came off while it was hot: what that does, and what to do; empty else.
    pub too_early: String,
    /// "lets through 20 % more than usual, by 20 coolings here"; empty where nothing was learned of it.
    pub learned: String,
    /// The way down, step by step; one step where nothing comes before the packing.
    pub chain: Vec<ChainLine>,
}

/// A cooling as it is going.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Going {
    /// Of what the book's packing lets through.
    pub scale: f64,
    pub readings: usize,
    /// "lets through 10 % less than usual, by 5 readings"
    pub words: String,
    /// Hours from covering, of 8 in 10 such coolings; nothing under 3 readings.
    pub unwrap_between: Option<(f64, f64)>,
    pub touch_between: Option<(f64, f64)>,
    /// The curves at both ends of that; empty under 3 readings.
    #[serde(serialize_with = "serialize_thinned")]
    pub early: Vec<(f64, f64)>,
    #[serde(serialize_with = "serialize_thinned")]
    pub late: Vec<(f64, f64)>,
    /// As it was planned, beside it.
    #[serde(serialize_with = "serialize_thinned")]
    pub planned: Vec<(f64, f64)>,
    pub planned_unwrap_hours: Option<f64>,
}

/// Cooling at the least and the most an estimated part may weigh.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CoolingBetween {
    /// Hours from covering; 72 when not within them.
    pub unwrap_hours: (f64, f64),
    pub touch_hours: (f64, f64),
    /// The lighter part falls faster.
    pub fastest_k_per_h: (f64, f64),
}

impl CoolingBetween {
    fn of(
        part: &PartFacts,
        body: &ThermalBody,
        start_c: f64,
        wrapping: &Wrapping,
        sims: &SimCache,
    ) -> Option<Self> {
        /// House: the model looks no further.
        const MOST_HOURS: f64 = 72.0;
        let Weight::Estimated(weight) = part.weight.as_ref()? else { return None };
        let start = Celsius::new(start_c).ok()?;
        let of = |kg: f64| Some(sims.cool(&part.body_weighing(body.iron, kg)?, start, wrapping));
        let (light, heavy) = (of(weight.low_kg)?, of(weight.high_kg)?);
        let hours = |cooling: &Cooling, to: f64| cooling.hours_to(to).unwrap_or(MOST_HOURS);
        Some(Self {
            unwrap_hours: (hours(&light, UNWRAP_C), hours(&heavy, UNWRAP_C)),
            touch_hours: (hours(&light, TOUCH_C), hours(&heavy, TOUCH_C)),
            fastest_k_per_h: (heavy.fastest_k_per_h(), light.fastest_k_per_h()),
        })
    }
}

/// How fast a repair may fall, in K/h, by the part's shape; nothing for cold ways, and for an open part
/// that is too small to be held back.
///
/// # Source
/// House.
pub(crate) fn limit_k_per_h(way: Way, part: &PartFacts) -> Option<f64> {
    /// House: an open part under this in kg has no limit but to be kept from draught and cold metal.
    const SMALL_KG: f64 = 5.0;
    // What is warmed at its seam falls into its own cold iron, and is kept from it by nothing.
    if !way.school.preheats() || way.school == School::Local {
        return None;
    }
    let shape = part.shape?;
    let light = part.weight.as_ref().is_some_and(|weight| weight.range_kg().1 < SMALL_KG);
    if light && !shape.closed() {
        return None;
    }
    Some(shape.fall_limit_k_per_h() * way.practice().map_or(1.0, |practice| practice.fall))
}

/// What the part will be packed in: as chosen, or the slowest at hand.
pub(crate) fn wrapping(round: &Round, shop: &Shop, way: Way) -> Wrapping {
    let chosen = round.get(field::cooling::PACKING);
    let packing = chosen.unwrap_or_else(|| {
        if !way.school.preheats() {
            return Packing::Air;
        }
        // Slowest first, as the packings' own figures have it.
        const BEST: [Packing; 7] = [
            Packing::Vermiculite,
            Packing::WoodAsh,
            Packing::Lime,
            Packing::Litter,
            Packing::Blanket,
            Packing::DrySand,
            Packing::Air,
        ];
        let at_hand = shop.packings_at_hand();
        BEST.into_iter().find(|packing| at_hand.contains(packing)).unwrap_or(Packing::Air)
    });
    let thickness_mm = round.get(field::cooling::THICKNESS).unwrap_or(packing.usual_mm());
    let wrapped = Wrapping::new(packing, thickness_mm / 1000.0).unwrap_or(Wrapping::usual(packing));
    let foil = round.get(field::cooling::FOIL) == Some(true);
    let wrapped = if foil { wrapped.under_foil() } else { wrapped };
    // As leaky as this shop's own have been.
    wrapped.letting_through(own_factor(&shop.learned, &FactorOf::Packing { packing }).0)
}

pub(crate) fn cooling_plan(
    way: Way,
    start_c: f64,
    wrapping: &Wrapping,
    body: Option<&ThermalBody>,
    (round, part): (&Round, &PartFacts),
    sims: &SimCache,
) -> Option<CoolingPlan> {
    let units = part.units;
    let (unwrap_words, touch_words) = (unwrap_words(units), touch_words(units));
    if matches!(way.school, School::Cold | School::NoHeat) {
        return Some(CoolingPlan::cold(start_c, part.units));
    }
    let start = Celsius::new(start_c).ok()?;
    let body = body?;
    let (before, from_c) = before_the_packing(round, body, start_c, units);
    let cooling = sims.cool(body, Celsius::new(from_c).ok()?, wrapping);
    let fit = sims.fit(body, start, wrapping, &round.read_in_the_packing());
    let going = fit
        .as_ref()
        .as_ref()
        .map(|fit| Going::of(fit, &cooling, thinned(&round.read_in_the_packing()).len()));
    let goes: &Cooling = fit.as_ref().as_ref().map_or(&cooling, |fit| &fit.cooling);
    let (fastest, limit) = (cooling.fastest_k_per_h(), limit_k_per_h(way, part));
    let before_h: f64 = before.iter().map(|(_, it)| it.lasts_s).sum::<f64>() / 3600.0;
    let later =
        |curve: Vec<(f64, f64)>| curve.into_iter().map(move |(hours, celsius)| (hours + before_h, celsius));
    let descent = descended(&before);
    let label = wrapping.packing().label();
    let mut sentence = match limit {
        Some(limit) if fastest > limit => format!(
            "{label} lets it fall {} at first, {} is the limit: as slow as this packing gives. Put hot bricks \
             or scrap in with it, warm the packing, or use the oven.",
            fall_words(fastest, units),
            units.say_most(limit, Unit::KelvinsPerHour),
        ),
        None if way.school == School::Local => format!(
            "The cold iron round it draws it down within minutes. Bring the flame back and take it off by degrees; \
             then {}, and no draught.",
            label.to_lowercase()
        ),
        None => format!("{label}, no draught, no cold metal, nothing damp."),
        Some(_) => format!("{label}, and leave it alone."),
    };
    if let Some(bears_c) = wrapping.packing().bears_c().filter(|bears_c| start_c > *bears_c) {
        sentence += &format!(
            " {label} burns or melts over {}: something else under it.",
            units.say_most(bears_c, Unit::Celsius)
        );
    }
    if wrapping.packing() == Packing::DrySand {
        sentence += &format!(" Cold sand chills first: warm it to {}.", units.say(100.0, Unit::Celsius));
    }
    Some(CoolingPlan {
        cold: false,
        sentence,
        packing: if wrapping.packing() == Packing::Air {
            label.to_owned()
        } else {
            format!("{label}, {}", units.say(wrapping.thickness_mm(), Unit::Packing))
        },
        start_c,
        unwrap_words,
        touch_words,
        unwrap_hours: goes.hours_to(UNWRAP_C).map(|hours| hours + before_h),
        touch_hours: goes.hours_to(TOUCH_C).map(|hours| hours + before_h),
        between: CoolingBetween::of(part, body, start_c, wrapping, sims)
            .filter(|_| going.is_none() && body.drain_w_k() == 0.0),
        fastest_k_per_h: fastest,
        limit_k_per_h: limit,
        curve: descent.into_iter().chain(later(goes.curve(160, TOUCH_C))).collect(),
        too_early: too_early(round, body, part, limit),
        learned: String::new(),
        chain: chain_lines(before, (body, start_c), wrapping, units, sims),
        going,
    })
}

impl Going {
    fn of(fit: &CoolingFit, planned: &Cooling, readings: usize) -> Self {
        let curve = |cooling: &Cooling| cooling.curve(80, TOUCH_C);
        let [early, late] = fit.curves_between(80, TOUCH_C).unwrap_or_default();
        Self {
            scale: fit.scale,
            readings,
            words: if fit.fits {
                format!(
                    "lets through {}, by {readings} reading{}",
                    against_usual(fit.scale),
                    if readings == 1 { "" } else { "s" }
                )
            } else {
                "this does not cool as such a packing does: look at it".to_owned()
            },
            unwrap_between: fit.between_hours(UNWRAP_C),
            touch_between: fit.between_hours(TOUCH_C),
            early,
            late,
            planned: curve(planned),
            planned_unwrap_hours: planned.hours_to(UNWRAP_C),
        }
    }
}

fn unwrap_words(units: UnitSystem) -> String {
    format!("unwrap under {}", units.say_most(UNWRAP_C, Unit::Celsius))
}

fn touch_words(units: UnitSystem) -> String {
    format!("touch under {}", units.say_most(TOUCH_C, Unit::Celsius))
}

impl CoolingPlan {
    /// Of what was warmed at its seam: what it gave to the rest of the part keeps that warm, and it is touched and
    /// unwrapped no sooner than that allows.
    pub(crate) fn no_sooner_than(
        self,
        (zone, whole): (&ThermalBody, &ThermalBody),
        wrapping: &Wrapping,
        sims: &SimCache,
    ) -> Self {
        let ambient_c = whole.ambient.celsius();
        let share = (zone.mass.kilograms() / whole.mass.kilograms()).min(1.0);
        let Ok(start) = Celsius::new(ambient_c + (self.start_c - ambient_c) * share) else { return self };
        let all_of_it = sims.cool(whole, start, wrapping);
        // Nothing where the model does not see its end.
        let later = |own: Option<f64>, to_c: f64| Some(own?.max(all_of_it.hours_to(to_c)?));
        Self {
            unwrap_hours: later(self.unwrap_hours, UNWRAP_C),
            touch_hours: later(self.touch_hours, TOUCH_C),
            ..self
        }
    }

    /// Nothing was heated that could be wrapped.
    fn cold(start_c: f64, units: UnitSystem) -> Self {
        Self {
            cold: true,
            sentence: format!("Never over {}: nothing to wrap.", units.say_most(UNWRAP_C, Unit::Celsius)),
            packing: String::new(),
            start_c,
            unwrap_words: unwrap_words(units),
            touch_words: touch_words(units),
            unwrap_hours: Some(0.0),
            touch_hours: Some(0.0),
            between: None,
            fastest_k_per_h: 0.0,
            limit_k_per_h: None,
            curve: Vec::new(),
            going: None,
            too_early: String::new(),
            learned: String::new(),
            chain: Vec::new(),
        }
    }
}

/// The packing came off while it was hot: how fast it falls now, and what to do.
fn too_early(round: &Round, body: &ThermalBody, part: &PartFacts, limit_k_per_h: Option<f64>) -> String {
    let Some(off) = round.unwrapped_minutes() else { return String::new() };
    let last = round.part_readings().max_by(|a, b| a.minutes.total_cmp(&b.minutes));
    let Some(reading) = last.filter(|last| last.celsius > UNWRAP_C) else { return String::new() };
    let units = part.units;
    let Ok(start) = Celsius::new(reading.celsius) else { return String::new() };
    let falls = cool(body, start, &Wrapping::usual(Packing::Air)).fastest_k_per_h();
    let at = units.say_exactly(reading.celsius, Unit::Celsius);
    let when = if reading.minutes >= off { "It is" } else { "It was last read at" };
    let rate = fall_words(falls, units);
    match limit_k_per_h {
        Some(limit) if falls > limit => format!(
            "Unwrapped too early. {when} {at}, and in still air it falls {rate}, {} is the limit: cover it again now.",
            units.say_most(limit, Unit::KelvinsPerHour)
        ),
        Some(_) | None => {
            format!("Unwrapped early. {when} {at}, and in still air it falls {rate}: no draught on it.")
        }
    }
}

pub(crate) fn stage(
    round: &Round,
    plan: Option<CoolingPlan>,
    heat: Option<&HeatPlan>,
    part: &PartFacts,
) -> Stage<Option<CoolingPlan>> {
    Stage {
        amount: amount(round, plan.as_ref()),
        missing: Vec::new(),
        cautions: if heat.is_some_and(|heat| !heat.cold) { cautions(part) } else { Vec::new() },
        figures: plan.as_ref().map_or_else(Vec::new, |plan| figures(plan, &part.size_words())),
        plan,
    }
}

fn cautions(part: &PartFacts) -> Vec<Caution> {
    let cold = part.units.say_most(UNWRAP_C, Unit::Celsius);
    vec![
        Caution::new(Station::Cooling, format!("Hot iron looks cold. Fire watch until it is under {cold}.")),
        Caution::new(Station::Cooling, "Don't lift the packing to look: it chills the edge."),
    ]
}

fn amount(round: &Round, cooling: Option<&CoolingPlan>) -> Amount {
    let cold_now = round.latest_reading().is_some_and(|reading| reading.celsius <= UNWRAP_C);
    match cooling {
        None => Amount::Nothing,
        Some(cooling) if cooling.cold => Amount::Enough,
        Some(_) if round.covered_minutes().is_some() && cold_now => Amount::Enough,
        Some(_) if round.covered_minutes().is_some() => Amount::Something,
        Some(_) => Amount::Nothing,
    }
}
