//! The gas of a heating: what it burns, whether it is here, and how fast it may be drawn.

use serde::Serialize;

use super::HeatPlan;
use super::steps::{HeatStep, StepBurn, gases_of};
use crate::heat::{Gas, runs_out_min, withdrawal};
use crate::quantity::{Unit, UnitSystem, number};
use crate::record::FrozenGas;
use crate::stores::{StoreItem, gas_words};

/// One of the gases that a heating burns.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GasPlan {
    /// As the stores call it: `propane`.
    pub kind: String,
    #[serde(skip)]
    pub flow_m3_h: f64,
    /// With its reserve, in m³.
    #[serde(skip)]
    pub need_m3: f64,
    /// In the cylinders that are here; nothing while nobody has counted one of them.
    #[serde(skip)]
    pub have_m3: Option<f64>,
    /// "Propane: 1.2 m³ with its reserve, 4.1 m³ here: lasts 3 h 30 of burning."
    pub words: String,
    /// It runs out before all is done: warm, soaked, reheated, and what comes after the last bead.
    pub short: bool,
}

impl GasPlan {
    /// As it is kept when it is lit; nothing where nobody has counted.
    #[must_use]
    pub fn frozen(&self) -> Option<FrozenGas> {
        Some(FrozenGas {
            kind: self.kind.clone(),
            flow_m3_h: self.flow_m3_h,
            need_m3: self.need_m3,
            have_m3: self.have_m3?,
        })
    }
}

/// The gases of what heats it, for all that it burns in one lighting. `with_less` gives the minutes to the target with
/// so much less flame, nothing where it does not get there.
pub(super) fn gas_plans(
    heat: &HeatPlan,
    burns: &[StepBurn],
    (stores, units): (&[StoreItem], UnitSystem),
    with_less: &dyn Fn(f64) -> Option<f64>,
) -> Vec<GasPlan> {
    gases_of(burns).into_iter().map(|gas| gas_plan(gas, (heat, burns), (stores, units), with_less)).collect()
}

fn gas_plan(
    gas: Gas,
    (heat, steps): (&HeatPlan, &[StepBurn]),
    (stores, units): (&[StoreItem], UnitSystem),
    with_less: &dyn Fn(f64) -> Option<f64>,
) -> GasPlan {
    let warm_min = heat.minutes + heat.soak_minutes;
    let minutes_of = |step: HeatStep| {
        let here = steps.iter().filter(|it| it.step == step && it.flow(gas) > 0.0);
        here.map(|it| it.minutes).sum::<f64>()
    };
    // In m3/h as it is turned down while it heats and reheats, or held.
    let burns: Vec<(f64, f64)> = steps
        .iter()
        .map(|it| (it.minutes, it.flow(gas) * it.share))
        .filter(|(_, flow)| *flow > 0.0)
        .collect();
    let need_m3 = steps.iter().map(|it| it.need_m3(gas)).sum();
    let of = || stores.iter().filter(|item| item.serves(gas.id(), None));
    let have_m3: Option<f64> = of().next().and_then(|_| of().map(|item| item.amount).sum());
    let burns_min: f64 = burns.iter().map(|(minutes, _)| minutes).sum();
    let out_min = have_m3.and_then(|have| out_after_min(&burns, have));
    let short = out_min.is_some_and(|out| out < burns_min);
    let volume = |m3: f64| gas_words(gas.id(), m3, units);
    let mut words = format!("{}: {} with its reserve", name(gas), volume(need_m3));
    let more = [
        (minutes_of(HeatStep::Hold), "while it is filled"),
        (minutes_of(HeatStep::Reheat), "of reheats"),
        (minutes_of(HeatStep::After), "after the last bead"),
    ]
    .into_iter()
    .filter(|(minutes, _)| *minutes > 0.0)
    .map(|(minutes, what)| format!("{} {what}", units.say(minutes, Unit::Minutes)))
    .collect::<Vec<_>>()
    .join(" and ");
    if !more.is_empty() {
        words += &format!(" ({more} in it)");
    }
    match (have_m3, out_min) {
        (Some(have), Some(out)) => {
            words += &format!(", {} here", volume(have));
            let after = units.say(out, Unit::Minutes);
            words += &match at_minute(&heat.curve, out).filter(|_| out < warm_min) {
                Some(celsius) => {
                    format!(": runs out after {after}, at about {}", units.say(celsius, Unit::Celsius))
                }
                None if short => format!(": runs out after {after}, warm and soaked and not done"),
                None => format!(": lasts {after} of burning"),
            };
        }
        _ => words += ", not counted in the stores",
    }
    // As much as is drawn at once.
    let flow_m3_h = burns.iter().map(|(_, flow)| *flow).fold(0.0, f64::max);
    if gas == Gas::Acetylene {
        let holds = of().filter_map(|item| item.holds_m3).reduce(f64::min);
        words += &drawn(flow_m3_h, holds, units, with_less);
    }
    GasPlan { kind: gas.id().to_owned(), flow_m3_h, need_m3, have_m3, words: words + ".", short }
}

/// Minutes until what is there has run out, burnt at these flows (min, m3/h) and then on as in the last of them.
fn out_after_min(burns: &[(f64, f64)], have_m3: f64) -> Option<f64> {
    let (mut left_m3, mut out_min) = (have_m3, 0.0);
    let burnt: Vec<&(f64, f64)> =
        burns.iter().filter(|(minutes, flow)| *minutes > 0.0 && *flow > 0.0).collect();
    for (minutes, flow) in &burnt {
        let out = runs_out_min(*flow, left_m3)?;
        if out < *minutes {
            return Some(out_min + out);
        }
        left_m3 -= flow * minutes / 60.0;
        out_min += minutes;
    }
    let (_, flow) = burnt.last()?;
    Some(out_min + runs_out_min(*flow, left_m3)?)
}

fn name(gas: Gas) -> &'static str {
    match gas {
        Gas::Oxygen => "Oxygen",
        Gas::Acetylene => "Acetylene",
        Gas::Propane => "Propane",
        Gas::Argon => "Argon",
    }
}

/// Over this, by the gauge, acetylene may burst by itself: the usual caution of the trade. House.
const ACETYLENE_BAR: f64 = 1.03;

/// How many cylinders a flow asks for on a made manifold, and what the largest tip makes of it that one of them feeds.
fn drawn(
    flow: f64,
    holds_m3: Option<f64>,
    units: UnitSystem,
    with_less: &dyn Fn(f64) -> Option<f64>,
) -> String {
    let Some(found) = holds_m3.and_then(|holds| withdrawal(holds, flow).ok()) else {
        return "; no more than a tenth of a cylinder an hour".to_owned();
    };
    match (found.cylinders_continuous, found.cylinders_intermittent) {
        (..=1, _) => String::new(),
        (continuous, intermittent) => {
            let share = found.continuous_m3_h / flow;
            let tip = format!("the largest tip that one feeds gives {} of this flame", of_the_flame(share));
            let smaller = match with_less(share) {
                Some(minutes) => format!("{tip}: {} to the target", units.say(minutes, Unit::Minutes)),
                None => format!("{tip}, and does not get there"),
            };
            format!(
                "; {continuous} cylinders on a made manifold, {intermittent} where it burns on and off, never over \
                 {}. Or {smaller}",
                units.say_most(ACETYLENE_BAR, Unit::Bar)
            )
        }
    }
}

/// "a half", "0.4"
fn of_the_flame(share: f64) -> String {
    const SAID: [(f64, &str); 4] =
        [(0.5, "half"), (1.0 / 3.0, "a third"), (0.25, "a quarter"), (0.2, "a fifth")];
    /// Ours: nobody reads a flame closer.
    const NEAR: f64 = 0.025;
    let said = SAID.iter().find(|(known, _)| (known - share).abs() <= NEAR);
    said.map_or_else(|| number(share, if share < 0.1 { 2 } else { 1 }), |(_, words)| (*words).to_owned())
}

/// The coldest place at a minute of a curve.
fn at_minute(curve: &[(f64, f64, f64)], minutes: f64) -> Option<f64> {
    curve.iter().take_while(|(at, _, _)| *at <= minutes).last().map(|(_, cold, _)| *cold)
}
