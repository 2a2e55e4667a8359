//! What it stands in service: M05, M06, M10 to M12.

use super::super::MethodId;
use super::{Asked, Effect, Ruling, STICK};
use crate::quantity::Unit;

/// House: pins that heat and cool over this loosen, in degC; and a wall under this holds few threads, in mm.
const PINS_LOOSEN_C: f64 = 300.0;
const FEW_THREADS_MM: f64 = 8.0;
/// Ours: a short time in service.
const SHORT_MIN: f64 = 60.0;

pub(super) fn service_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude, Favour};
    use MethodId::{GasIron, Stitch, TorchBraze};
    let say = |celsius| asked.units.say(celsius, Unit::Celsius);
    match asked.service_c {
        None => ruling.unknown("M05", "the service temperature"),
        Some(service_c) => {
            for method in MethodId::ALL {
                let (mut limit, mut with_caution) = method.service_limit_c();
                if let Some(cycling_c) = method.cycling_limit_c()
                    && asked.heat_cycling == Some(true)
                {
                    (limit, with_caution) = (cycling_c, cycling_c);
                }
                if let Some(short_c) = method.short_service_c()
                    && asked.service_min.is_some_and(|minutes| minutes <= SHORT_MIN)
                {
                    with_caution = short_c;
                }
                let patch = method == TorchBraze
                    && asked.life_days.is_some_and(|days| days <= 90.0)
                    && service_c - limit <= 150.0;
                if service_c > with_caution && !patch {
                    ruling.say(
                        "M05",
                        Exclude,
                        &[method],
                        format!("Service at {}, the joint stands {}.", say(service_c), say(with_caution)),
                    );
                } else if service_c > limit {
                    let why = if patch && service_c > with_caution {
                        "a patch for a short life"
                    } else if method.short_service_c().is_some() {
                        "it stands that for a short time only"
                    } else {
                        "over its usual limit"
                    };
                    ruling.say(
                        "M05",
                        Caution,
                        &[method],
                        format!("Service at {} against {}: {why}.", say(service_c), say(limit)),
                    );
                }
            }
            match asked.heat_cycling {
                None if service_c > PINS_LOOSEN_C => {
                    ruling.unknown("M05", "whether it heats and cools in service");
                }
                Some(true) if service_c > PINS_LOOSEN_C => {
                    let why = format!("Heats and cools above {}: pins work loose.", say(PINS_LOOSEN_C));
                    ruling.say("M05", Caution, &[Stitch], why);
                }
                Some(_) | None => {}
            }
        }
    }
    match asked.oil {
        None => ruling.unknown("M06", "whether it is oil-soaked"),
        Some("soaked") => {
            ruling.say(
                "M06",
                Caution,
                &[MethodId::ArcNickel, MethodId::ArcNickelIron, GasIron, TorchBraze],
                "Oil-soaked: bake it until it stops weeping, or the filler will not take.",
            );
            ruling.say("M06", Favour, &[Stitch], "Oil-soaked: pins do not mind.");
        }
        Some(_) => {}
    }
    match asked.fluid_tight {
        None => ruling.unknown("M10", "whether it must hold fluid"),
        Some(true) => {
            ruling.say("M10", Favour, &[TorchBraze, GasIron], "Flows tight.");
            ruling.say("M10", Favour, &[Stitch], "Tight with sealant on the threads.");
            ruling.say("M10", Caution, STICK, "Must hold fluid: stick beads are apt to be porous.");
        }
        Some(false) => {}
    }
    match asked.wall_mm {
        None => ruling.unknown("M12", "the wall"),
        Some(wall) if wall >= 20.0 => {
            let from = asked.units.say(20.0, Unit::Millimetres);
            ruling.say(
                "M11",
                Favour,
                &[MethodId::ArcNickelIron],
                format!("Wall of {from} or more: nickel-iron rather than nickel."),
            );
            let heatable = asked.reach.iter().any(|(way, r)| way.method == TorchBraze && r.is_ok());
            if heatable {
                ruling.say("M11", Favour, &[TorchBraze], "Thick, and the whole part can be heated.");
            }
        }
        Some(wall) if wall < 5.0 => {
            let mm = |mm| asked.units.say(mm, Unit::Millimetres);
            ruling.say("M12", Exclude, &[Stitch], format!("Under {} no thread holds.", mm(5.0)));
            ruling.say("M12", Caution, STICK, format!("Thin wall: {} rod at most.", mm(2.5)));
            ruling.say("M12", Favour, &[TorchBraze], "Suits a thin wall.");
        }
        Some(_) => {}
    }
    if asked.wall_mm.is_some_and(|wall| wall < FEW_THREADS_MM) {
        let carries = asked.loads.map(|loads| !loads.is_empty());
        let under = asked.units.say(FEW_THREADS_MM, Unit::Millimetres);
        match (carries, asked.fluid_tight) {
            (Some(true), _) | (_, Some(true)) => {
                let why = format!("Under {under}, and it carries or is tight: few threads hold.");
                ruling.say("M05", Caution, &[Stitch], why);
            }
            (Some(false), Some(false)) => {}
            (None, _) | (_, None) => ruling.unknown("M05", "whether a thin wall carries or is tight"),
        }
    }
}
