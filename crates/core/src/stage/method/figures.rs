//! The figures of the chosen way: score, odds, hours.

use super::{Contender, MethodPlan};
use crate::figure::{Certainty, Figure, Source};
use crate::quantity::{Unit, number};
use crate::stage::{CoolingPlan, HeatPlan};

pub fn figures(methods: &MethodPlan, heat: Option<&HeatPlan>, cooling: Option<&CoolingPlan>) -> Vec<Figure> {
    let Some(contender) = methods.taken() else { return Vec::new() };
    let figures =
        [Some(score(contender)), Some(odds(contender)), price(contender), hours(contender, heat, cooling)];
    figures.into_iter().flatten().collect()
}

fn score(contender: &Contender) -> Figure {
    let mut score = Figure::new("method.score", "Score", contender.score, Unit::Points)
        .because("What speaks for it and what against it, added up: the higher, the sooner.")
        .fact("Method", contender.label.clone())
        .source(Source::House, Certainty::Estimate);
    for part in &contender.parts {
        score =
            score.formula(format!("{} {:+.1}: {}", part.name, part.points, part.working).replace('-', "−"));
    }
    score
}

fn odds(contender: &Contender) -> Figure {
    let odds = contender.odds;
    let mut odds_figure = Figure::new("method.odds", "Odds", odds.mean * 100.0, Unit::Percent)
        .between(odds.low * 100.0, odds.high * 100.0)
        .because(format!(
            "Before any repair of ours counts, it is taken as if {} of {} such repairs had held{}.",
            number(odds.prior.0, 1),
            number(odds.prior.0 + odds.prior.1, 1),
            contender.odds_parts.first().map_or(String::new(), |most| {
                format!("; what moves it most on this job: {}", most.words)
            })
        ))
        .formula(format!(
            "{held} ÷ ({held} + {failed}) = {:.0} %",
            contender.odds_start.mean * 100.0,
            held = number(odds.prior.0, 1),
            failed = number(odds.prior.1, 1)
        ))
        .fact("Method", contender.label.clone())
        .fact("For", contender.odds_for.clone())
        .source(Source::Law("Bayes' theorem; where it starts our own".to_owned()), Certainty::Guess)
        .note(format!("{:.0} to {:.0} %, {}.", odds.low * 100.0, odds.high * 100.0, by_our_own(odds.jobs)));
    for part in &contender.odds_parts {
        odds_figure = odds_figure.formula(format!("{:+.2} {}", part.shift, part.words).replace('-', "−"));
    }
    odds_figure.formula(format!(
        "added in log-odds: {:.0} %; four times in five the true share lies between {:.0} and {:.0} %",
        odds.mean * 100.0,
        odds.low * 100.0,
        odds.high * 100.0
    ))
}

fn price(contender: &Contender) -> Option<Figure> {
    let total = contender.price.total?;
    let mut price = Figure::new("method.price", "Price", total, Unit::Money)
        .because("What the hours cost at the shop's rates.")
        .source(Source::Shop, Certainty::Estimate);
    for line in &contender.price.lines {
        price = price.formula(format!("{}: {} = {:.0}", line.what, line.working, line.amount));
    }
    if !contender.price.without.is_empty() {
        price = price.note(format!("Not in it: {}.", contender.price.without.join("; ")));
    }
    Some(price)
}

fn hours(contender: &Contender, heat: Option<&HeatPlan>, cooling: Option<&CoolingPlan>) -> Option<Figure> {
    let hours = contender.hours?;
    let hands = contender.hands_hours.unwrap_or_default() * 60.0;
    let mut elapsed = Figure::new("method.hours", "Start to finish", hours * 60.0, Unit::Minutes)
        .because(format!(
            "{{{hands:.0} min}} of hands; the rest is oven, cooling and drying, one after the other."
        ))
        .source(Source::House, Certainty::Estimate);
    for step in &contender.steps {
        let (by, minutes) = match (step.attended_min > 0.0, step.unattended_min > 0.0) {
            (true, true) => ("hands and clock", step.attended_min + step.unattended_min),
            (false, _) => ("clock", step.unattended_min),
            (true, false) => ("hands", step.attended_min),
        };
        elapsed = elapsed.formula(format!("{}: {{{minutes:.0} min}} {by} ({})", step.label, step.working));
    }
    let heating = heat.and_then(|heat| Some((heat.minutes, heat.between?.minutes)));
    let unwrap = cooling.and_then(|cooling| Some((cooling.unwrap_hours?, cooling.between?.unwrap_hours)));
    if let (Some((minutes, heating)), Some((unwrap, cooling))) = (heating, unwrap) {
        let at = |heating: f64, cooling: f64| hours * 60.0 + heating - minutes + (cooling - unwrap) * 60.0;
        elapsed = elapsed
            .between(at(heating.0, cooling.0), at(heating.1, cooling.1))
            .formula("worked out again for the least and the most it may weigh");
    }
    Some(elapsed)
}

/// How many of the shop's own repairs the odds know.
fn by_our_own(jobs: u32) -> String {
    match jobs {
        0 => "no repairs of ours yet".to_owned(),
        1 => "with 1 repair of ours".to_owned(),
        jobs => format!("with {jobs} repairs of ours"),
    }
}
