//! The figures of the chosen way: score, odds, hours.

use super::MethodPlan;
use crate::figure::{Certainty, Figure, Source};
use crate::quantity::{Unit, number};
use crate::stage::{CoolingPlan, HeatPlan};

pub fn figures(methods: &MethodPlan, heat: Option<&HeatPlan>, cooling: Option<&CoolingPlan>) -> Vec<Figure> {
    let Some(chosen) = methods.chosen else { return Vec::new() };
    let Some(contender) = methods.contenders.iter().find(|c| c.way == chosen) else { return Vec::new() };
    let mut score = Figure::new("method.score", "Score", contender.score, Unit::Points)
        .because("What speaks for it and what against it, added up: the higher, the sooner.")
        .fact("Method", contender.label.clone())
        .source(Source::House, Certainty::Estimate);
    for part in &contender.parts {
        score =
            score.formula(format!("{} {:+.1}: {}", part.name, part.points, part.working).replace('-', "−"));
    }
    let odds = contender.odds;
    let mut figures = vec![
        score,
        Figure::new("method.odds", "Odds", odds.mean * 100.0, Unit::Percent)
            .between(odds.low * 100.0, odds.high * 100.0)
            .because(format!(
                "Before any repair of ours counts, it is taken as if {} of {} such repairs had held.",
                number(odds.prior.0, 1),
                number(odds.prior.0 + odds.prior.1, 1)
            ))
            .formula(format!(
                "{held} ÷ ({held} + {failed}) = {:.0} %; four times in five the true share lies between {:.0} and {:.0} %",
                odds.mean * 100.0,
                odds.low * 100.0,
                odds.high * 100.0,
                held = number(odds.prior.0, 1),
                failed = number(odds.prior.1, 1)
            ))
            .fact("Method", contender.label.clone())
            .fact("For", contender.odds_for.clone())
            .source(Source::Law("Bayes' theorem; where it starts our own".to_owned()), Certainty::Guess)
            .note(format!("{:.0} to {:.0} %, no repairs of ours yet.", odds.low * 100.0, odds.high * 100.0)),
    ];
    if let Some(hours) = contender.hours {
        let mut elapsed =
            Figure::new("method.hours", "From lighting up to unwrapped", hours * 60.0, Unit::Minutes)
                .because("Heating, the soak, the beads with their waits or the laying, and cooling until it may be unwrapped.")
                .formula("heating + soak + beads or pins with their waits, or laying + cooling to {65 degC down}")
                .fact("Not counted", methods.not_counted[0].clone())
                .source(Source::House, Certainty::Estimate);
        let heating = heat.and_then(|heat| Some((heat.minutes, heat.between?.minutes)));
        let unwrap = cooling.and_then(|cooling| Some((cooling.unwrap_hours?, cooling.between?.unwrap_hours)));
        if let (Some((minutes, heating)), Some((unwrap, cooling))) = (heating, unwrap) {
            let at =
                |heating: f64, cooling: f64| hours * 60.0 + heating - minutes + (cooling - unwrap) * 60.0;
            elapsed = elapsed
                .between(at(heating.0, cooling.0), at(heating.1, cooling.1))
                .formula("worked out again for the least and the most it may weigh");
        }
        figures.push(elapsed);
    }
    figures
}
