//! M05: the heat the joint stands in service, and what loosens pins.

use super::{BRONZE, PINS, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{self, SilverBraze, Stitch};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M05", iron: None, judge };

/// House: pins that heat and cool over this loosen, in degC; and a wall under this holds few threads, in mm.
const PINS_LOOSEN_C: f64 = 300.0;
const FEW_THREADS_MM: f64 = 8.0;
/// Ours: a short time in service.
const SHORT_MIN: f64 = 60.0;
/// House: bronze as a patch, for so many days and so many K over what it stands.
const PATCH_DAYS: f64 = 90.0;
const PATCH_K: f64 = 150.0;

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    match facts.service_c {
        None => output.unknown("the service temperature"),
        Some(service_c) => {
            for method in MethodId::ALL {
                stands(facts, method, service_c, output);
            }
            cycling(facts, service_c, output);
        }
    }
    few_threads(facts, output);
}

fn stands(facts: &RuleFacts<'_>, method: MethodId, service_c: f64, output: &mut RuleOutput<'_>) {
    // Service as it was typed, the limit to its cautious side: over it never reads as at it.
    let service = facts.units.say_exactly(service_c, Unit::Celsius);
    let say = |celsius| facts.units.say_most(celsius, Unit::Celsius);
    let stands = method.entry().stands;
    let (mut limit, mut with_caution) = (stands.for_good_c, stands.with_caution_c);
    if let Some(cycling_c) = stands.cycling_c
        && facts.heat_cycling == Some(true)
    {
        (limit, with_caution) = (cycling_c, cycling_c);
    }
    if let Some(short_c) = stands.short_c
        && facts.service_min.is_some_and(|minutes| minutes <= SHORT_MIN)
    {
        with_caution = short_c;
    }
    let patch = (BRONZE.contains(&method) || method == SilverBraze)
        && facts.life_days.is_some_and(|days| days <= PATCH_DAYS)
        && service_c - limit <= PATCH_K;
    if service_c > with_caution && !patch {
        output.exclude(&[method], format!("Service at {}, the joint stands {}.", service, say(with_caution)));
    } else if service_c > limit {
        let why = if patch && service_c > with_caution {
            "a patch for a short life"
        } else if stands.short_c.is_some() {
            "it stands that for a short time only"
        } else {
            "over its usual limit"
        };
        output.caution(&[method], format!("Service at {} against {}: {why}.", service, say(limit)));
    }
}

fn cycling(facts: &RuleFacts<'_>, service_c: f64, output: &mut RuleOutput<'_>) {
    if service_c <= PINS_LOOSEN_C {
        return;
    }
    match facts.heat_cycling {
        None => output.unknown("whether it heats and cools in service"),
        Some(true) => {
            let over = facts.units.say(PINS_LOOSEN_C, Unit::Celsius);
            output.caution(PINS, format!("Heats and cools above {over}: pins work loose."));
        }
        Some(false) => {}
    }
}

fn few_threads(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if facts.wall_mm.is_none_or(|wall| wall >= FEW_THREADS_MM) {
        return;
    }
    let carries = facts.loads.as_ref().map(|loads| !loads.is_empty());
    match (carries, facts.fluid_tight) {
        (Some(true), _) | (_, Some(true)) => {
            let under = facts.units.say(FEW_THREADS_MM, Unit::Millimetres);
            output
                .caution(&[Stitch], format!("Under {under}, and it carries or is tight: few threads hold."));
        }
        (Some(false), Some(false)) => {}
        (None, _) | (_, None) => output.unknown("whether a thin wall carries or is tight"),
    }
}
