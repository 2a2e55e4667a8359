//! The rules that choose among the methods.

use serde::{Deserialize, Serialize};

use super::{MethodId, School, Way};
use crate::iron::{Belief, Iron, WhiteStanding};
use crate::quantity::{Unit, UnitSystem};

/// What a rule does to a method.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Effect {
    Exclude,
    Caution,
    Favour,
}

/// One rule that fired.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fired {
    pub rule: String,
    pub effect: Effect,
    pub method: MethodId,
    /// Only this school; nothing for the whole method.
    pub school: Option<School>,
    pub sentence: String,
}

/// What the rules are asked with. `None` is not known: the rule then does not fire.
#[derive(Debug, Clone)]
pub struct Asked<'a> {
    pub belief: &'a Belief,
    pub service_c: Option<f64>,
    pub heat_cycling: Option<bool>,
    pub life_days: Option<f64>,
    pub oil: Option<&'a str>,
    pub fluid_tight: Option<bool>,
    pub wall_mm: Option<f64>,
    /// Of each way that preheats: can it be reached, or why not; not in it while not known.
    pub reach: &'a [(Way, Result<(), String>)],
    /// The warm school's 150 degC can be reached; nothing while not known.
    pub warm_reached: Option<bool>,
    pub rods: Option<&'a [String]>,
    pub stitch_kit: Option<bool>,
    /// The system the sentences speak in.
    pub units: UnitSystem,
}

/// The rules' answer.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Ruling {
    pub fired: Vec<Fired>,
    /// "(rule): not considered, because ... is not known".
    pub not_considered: Vec<String>,
}

impl Ruling {
    fn say(&mut self, rule: &str, effect: Effect, methods: &[MethodId], sentence: impl Into<String>) {
        let sentence = sentence.into();
        for &method in methods {
            // However many irons set it off, a rule counts once for a method.
            let told = self
                .fired
                .iter()
                .any(|f| f.rule == rule && f.method == method && f.effect == effect && f.school.is_none());
            if !told {
                self.fired.push(Fired {
                    rule: rule.to_owned(),
                    effect,
                    method,
                    school: None,
                    sentence: sentence.clone(),
                });
            }
        }
    }

    fn unknown(&mut self, rule: &str, what: &str) {
        self.not_considered.push(format!("{what} ({rule})"));
    }
}

const ALL: &[MethodId] = &MethodId::ALL;
const STICK: &[MethodId] = &[MethodId::ArcNickel, MethodId::ArcNickelIron];

/// Applies rules M01 to M07, M10, M12, M19 and M23. Locks (M01 on little evidence, M20) are the
/// plan's.
///
/// # Source
/// House.
#[must_use]
pub fn apply_rules(asked: &Asked<'_>) -> Ruling {
    let mut ruling = Ruling::default();
    iron_rules(asked, &mut ruling);
    service_rules(asked, &mut ruling);
    reach_rule(asked, &mut ruling);
    gear_rule(asked, &mut ruling);
    ruling
}

fn iron_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude, Favour};
    use MethodId::{ArcNickelIron, GasIron, Stitch, TorchBraze};
    let belief = asked.belief;
    if belief.white == WhiteStanding::Believed {
        ruling.say("M01", Exclude, ALL, "White iron: welding cracks it and no drill bites. Replace it.");
    }
    if belief.leading == Iron::Steel {
        ruling.say("M02", Exclude, ALL, "It is steel: low-hydrogen steel practice applies, not these plans.");
    } else if belief.is_plausible(Iron::Steel) {
        ruling.say("M02", Exclude, &[GasIron], "Steel is still possible: an iron rod does not suit it.");
        ruling.say(
            "M02",
            Caution,
            &[MethodId::ArcNickel, ArcNickelIron, TorchBraze, Stitch],
            "Steel is still possible: do one more test before any heat.",
        );
    }
    if belief.is_plausible(Iron::Malleable) {
        ruling.say("M03", Exclude, &[GasIron], "Malleable is possible: melting it undoes the anneal.");
        ruling.say("M03", Caution, STICK, "Malleable is possible: nickel-iron, short and cool.");
        ruling.say(
            "M03",
            Favour,
            &[TorchBraze],
            format!(
                "Malleable is possible: braze quickly, under {} at the joint.",
                asked.units.say(900.0, Unit::Celsius)
            ),
        );
    }
    if belief.is_plausible(Iron::Ductile) {
        let rci_b = asked.rods.is_some_and(|rods| rods.iter().any(|rod| rod == "iron_rod_b"));
        if !rci_b {
            ruling.say(
                "M04",
                Exclude,
                &[GasIron],
                "Ductile is possible: only RCI-B rod would do, and it is not at hand.",
            );
        }
        ruling.say("M04", Favour, &[ArcNickelIron, TorchBraze], "Suits ductile iron.");
    }
    if belief.is_plausible(Iron::NiResist) {
        ruling.say("M23", Exclude, &[GasIron], "Ni-resist is possible: an iron rod does not suit it.");
        ruling.say("M23", Caution, &[TorchBraze], "Ni-resist is possible: bronze takes badly on it.");
        for &method in STICK {
            ruling.fired.push(Fired {
                rule: "M23".to_owned(),
                effect: Exclude,
                method,
                school: Some(School::Cold),
                sentence: "Ni-resist is possible: no cold beads.".to_owned(),
            });
        }
    }
}

fn service_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude, Favour};
    use MethodId::{GasIron, Stitch, TorchBraze};
    let say = |celsius| asked.units.say(celsius, Unit::Celsius);
    match asked.service_c {
        None => ruling.unknown("M05", "the service temperature"),
        Some(service_c) => {
            for method in MethodId::ALL {
                let (limit, with_caution) = method.service_limit_c();
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
                    let why = if patch { "a patch for a short life" } else { "over its usual limit" };
                    ruling.say(
                        "M05",
                        Caution,
                        &[method],
                        format!("Service at {} against {}: {why}.", say(service_c), say(limit)),
                    );
                }
            }
            match asked.heat_cycling {
                None if service_c > 300.0 => ruling.unknown("M05", "whether it heats and cools in service"),
                Some(true) if service_c > 300.0 => {
                    let why = format!("Heats and cools above {}: pins work loose.", say(300.0));
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
        Some(wall) if wall < 5.0 => {
            let mm = |mm| asked.units.say(mm, Unit::Millimetres);
            ruling.say("M12", Exclude, &[Stitch], format!("Under {} no thread holds.", mm(5.0)));
            ruling.say("M12", Caution, STICK, format!("Thin wall: {} rod at most.", mm(2.5)));
            ruling.say("M12", Favour, &[TorchBraze], "Suits a thin wall.");
        }
        Some(_) => {}
    }
}

fn reach_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    if asked.reach.is_empty() {
        ruling.unknown("M07", "weight, size, shape or the heat at hand");
        return;
    }
    for (way, reached) in asked.reach {
        if let Err(why) = reached {
            ruling.fired.push(Fired {
                rule: "M07".to_owned(),
                effect: Effect::Exclude,
                method: way.method,
                school: Some(way.school),
                sentence: why.clone(),
            });
        }
    }
    if asked.warm_reached == Some(false) {
        let why = "The part cannot even be warmed: a cold way suits it.";
        ruling.say("M07", Effect::Favour, &[MethodId::Stitch], why);
        for &method in STICK {
            ruling.fired.push(Fired {
                rule: "M07".to_owned(),
                effect: Effect::Favour,
                method,
                school: Some(School::Cold),
                sentence: why.to_owned(),
            });
        }
    }
}

fn gear_rule(asked: &Asked<'_>, ruling: &mut Ruling) {
    let Some(rods) = asked.rods else {
        ruling.unknown("M19", "which rods are at hand");
        return;
    };
    let has = |id: &str| rods.iter().any(|rod| rod == id);
    for (method, rod, what) in [
        (MethodId::ArcNickel, "nickel", "nickel stick"),
        (MethodId::ArcNickelIron, "nickel_iron", "nickel-iron stick"),
        (MethodId::TorchBraze, "bronze", "low-fuming bronze and flux"),
    ] {
        if !has(rod) {
            ruling.say("M19", Effect::Caution, &[method], format!("Not at hand: buy or borrow {what}."));
        }
    }
    if !has("iron_rod") && !has("iron_rod_b") {
        ruling.say(
            "M19",
            Effect::Caution,
            &[MethodId::GasIron],
            "Not at hand: buy or borrow cast-iron gas rod and flux.",
        );
    }
    if asked.stitch_kit != Some(true) {
        ruling.say(
            "M19",
            Effect::Caution,
            &[MethodId::Stitch],
            "Not at hand: buy or borrow pins, taps and drills.",
        );
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::{Confidence, Era, Evidence, Family, Finding, confirm};

    fn belief(family: Family, mark: Iron) -> Belief {
        let evidence = |spot: &str| Evidence {
            finding: Finding::Mark(mark),
            confidence: Confidence::Sure,
            spot: spot.into(),
        };
        confirm(family, Era::Unknown, true, &[evidence("a"), evidence("b")])
    }

    fn asked(belief: &Belief) -> Asked<'_> {
        Asked {
            belief,
            service_c: Some(60.0),
            heat_cycling: Some(false),
            life_days: Some(3650.0),
            oil: Some("clean"),
            fluid_tight: Some(false),
            wall_mm: Some(12.0),
            reach: &[],
            warm_reached: None,
            rods: None,
            stitch_kit: Some(true),
            units: UnitSystem::Metric,
        }
    }

    fn excluded(asked: &Asked<'_>) -> Vec<(MethodId, String)> {
        apply_rules(asked)
            .fired
            .into_iter()
            .filter(|f| f.effect == Effect::Exclude && f.school.is_none())
            .map(|f| (f.method, f.rule))
            .collect()
    }

    #[test]
    fn a_plain_gray_part_excludes_nothing() {
        let gray = belief(Family::MachineFrame, Iron::Gray);
        assert_eq!(excluded(&asked(&gray)), vec![]);
    }

    #[test]
    fn steel_excludes_everything() {
        let steel = belief(Family::LoadedMoving, Iron::Steel);
        assert_eq!(excluded(&asked(&steel)).len(), MethodId::ALL.len());
    }

    #[test]
    fn malleable_excludes_gas_fusion_only() {
        let malleable = belief(Family::PipeFitting, Iron::Malleable);
        assert_eq!(excluded(&asked(&malleable)), vec![(MethodId::GasIron, "M03".to_owned())]);
    }

    #[test]
    fn hot_service_excludes_a_braze_unless_it_is_a_patch() {
        let gray = belief(Family::MachineFrame, Iron::Gray);
        let at = |service_c, life_days| {
            excluded(&Asked { service_c: Some(service_c), life_days: Some(life_days), ..asked(&gray) })
        };
        assert_eq!(at(200.0, 3650.0), vec![]);
        assert_eq!(at(201.0, 3650.0), vec![(MethodId::TorchBraze, "M05".to_owned())]);
        assert_eq!(at(350.0, 90.0), vec![]);
        assert_eq!(at(351.0, 90.0), vec![(MethodId::TorchBraze, "M05".to_owned())]);
    }

    #[test]
    fn what_is_not_known_fires_no_rule_and_is_listed() {
        let gray = belief(Family::MachineFrame, Iron::Gray);
        let ruling = apply_rules(&Asked { service_c: None, wall_mm: None, ..asked(&gray) });
        let listed = ruling.not_considered.join("; ");
        assert!(listed.contains("M05") && listed.contains("M12") && listed.contains("M07"), "{listed}");
    }
}
