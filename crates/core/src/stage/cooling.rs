//! Stage 8: how it comes down, when it may be unwrapped and touched.

use serde::{Deserialize, Serialize};

use super::part::{PartFacts, Weight};
use super::{Amount, Caution, HeatPlan, Stage, Station};
use crate::field;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{Body, Cooling, Packing, PartShape, Runs, TOUCH_C, UNWRAP_C, Wrapping};
use crate::job::Round;
use crate::method::{School, Way};
use crate::quantity::{Celsius, Rounding, Unit};
use crate::shop::Shop;

/// The cooling of the chosen way.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
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
    pub fastest_k_per_h: f64,
    /// Nothing where the method sets none.
    pub limit_k_per_h: Option<f64>,
    /// (hours from covering, degC)
    pub curve: Vec<(f64, f64)>,
}

/// Cooling at the least and the most an estimated part may weigh.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CoolingBetween {
    /// Hours from covering; 72 when not within them.
    pub unwrap_hours: (f64, f64),
    pub touch_hours: (f64, f64),
    /// The lighter part falls faster.
    pub fastest_k_per_h: (f64, f64),
}

impl CoolingBetween {
    fn of(part: &PartFacts, body: &Body, start_c: f64, wrapping: &Wrapping, runs: &Runs) -> Option<Self> {
        /// The model looks no further.
        const MOST_HOURS: f64 = 72.0;
        let Weight::Estimated(weight) = part.weight.as_ref()? else { return None };
        let start = Celsius::new(start_c).ok()?;
        let of = |kg: f64| Some(runs.cool(&part.body_weighing(body.iron, kg)?, start, wrapping));
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
    /// An open part under this in kg has no limit but to be kept from draught and cold metal.
    const SMALL_KG: f64 = 5.0;
    if !way.school.preheats() {
        return None;
    }
    let shape = part.shape?;
    let light = part.weight.as_ref().is_some_and(|weight| weight.range_kg().1 < SMALL_KG);
    if light && !shape.closed() {
        return None;
    }
    let usual = match shape {
        PartShape::SpokedWheel | PartShape::ClosedFrame | PartShape::HollowBox => 100.0,
        PartShape::RibbedOrOpenFrame => 300.0,
        PartShape::SolidBlock | PartShape::ThinPlate => 400.0,
    };
    Some(usual * way.practice().map_or(1.0, |practice| practice.fall))
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
    Wrapping::new(packing, thickness_mm / 1000.0).unwrap_or(Wrapping::usual(packing))
}

pub(crate) fn cooling_plan(
    way: Way,
    start_c: f64,
    wrapping: &Wrapping,
    body: Option<&Body>,
    part: &PartFacts,
    runs: &Runs,
) -> Option<CoolingPlan> {
    let units = part.units;
    let unwrap_words = format!("unwrap under {}", units.say_most(UNWRAP_C, Unit::Celsius));
    let touch_words = format!("touch under {}", units.say_most(TOUCH_C, Unit::Celsius));
    if matches!(way.school, School::Cold | School::NoHeat) {
        return Some(CoolingPlan {
            cold: true,
            sentence: format!("Never over {}: nothing to wrap.", units.say_most(UNWRAP_C, Unit::Celsius)),
            packing: String::new(),
            start_c,
            unwrap_words,
            touch_words,
            unwrap_hours: Some(0.0),
            touch_hours: Some(0.0),
            between: None,
            fastest_k_per_h: 0.0,
            limit_k_per_h: None,
            curve: Vec::new(),
        });
    }
    let cooling = runs.cool(body?, Celsius::new(start_c).ok()?, wrapping);
    let (fastest, limit) = (cooling.fastest_k_per_h(), limit_k_per_h(way, part));
    let label = wrapping.packing().label();
    let mut sentence = match limit {
        Some(limit) if fastest > limit => format!(
            "{label} lets it fall {} at first, {} is the limit: as slow as this packing gives. Put hot bricks \
             or scrap in with it, warm the packing, or use the oven.",
            units.say_least(fastest, Unit::KelvinsPerHour),
            units.say_most(limit, Unit::KelvinsPerHour),
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
            format!("{label}, {}", units.say(wrapping.thickness_mm(), Unit::Millimetres))
        },
        start_c,
        unwrap_words,
        touch_words,
        unwrap_hours: cooling.hours_to(UNWRAP_C),
        touch_hours: cooling.hours_to(TOUCH_C),
        between: CoolingBetween::of(part, body?, start_c, wrapping, runs),
        fastest_k_per_h: fastest,
        limit_k_per_h: limit,
        curve: cooling.curve(160, TOUCH_C),
    })
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

fn figures(cooling: &CoolingPlan, size_words: &str) -> Vec<Figure> {
    if cooling.cold {
        return Vec::new();
    }
    let modelled = |figure: Figure| {
        figure.fact("Packing", cooling.packing.clone()).fact("Part", size_words).source(
            Source::Law("Carslaw and Jaeger, Stefan-Boltzmann; packings our own".to_owned()),
            Certainty::Estimate,
        )
    };
    let mut figures = Vec::new();
    let between = cooling.between;
    for (id, name, hours, between, under) in [
        (
            "cooling.unwrap",
            "Unwrap after",
            cooling.unwrap_hours,
            between.map(|between| between.unwrap_hours),
            UNWRAP_C,
        ),
        (
            "cooling.touch",
            "Touch after",
            cooling.touch_hours,
            between.map(|between| between.touch_hours),
            TOUCH_C,
        ),
    ] {
        if let Some(hours) = hours {
            let mut figure = modelled(
                Figure::new(id, name, hours * 60.0, Unit::Minutes).rounded(Rounding::Up),
            )
            .because(format!(
                "From {{{:.0} degC}} until its middle, too, is under {{{under:.0} degC down}}.",
                cooling.start_c
            ));
            if let Some((lightest, heaviest)) = between {
                figure = figure
                    .between(lightest * 60.0, heaviest * 60.0)
                    .formula("worked out again for the least and the most it may weigh");
            }
            figures.push(figure);
        }
    }
    let limit = cooling
        .limit_k_per_h
        .map_or("No limit for this iron.".to_owned(), |l| format!("{{{l:.0} K/h}} is the limit."));
    let mut fastest =
        Figure::new("cooling.fastest", "Falls at most", cooling.fastest_k_per_h, Unit::KelvinsPerHour);
    if let Some(between) = between {
        fastest = fastest.between(between.fastest_k_per_h.0, between.fastest_k_per_h.1);
    }
    figures.push(
        modelled(fastest)
            .because(
                "The shortest time in which it falls by {100 K}, or by half of what it stands over the shop.",
            )
            .note(limit),
    );
    figures
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
