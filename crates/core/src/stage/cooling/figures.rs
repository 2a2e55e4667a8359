//! How long it is covered, how fast it falls.

use super::CoolingPlan;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{TOUCH_C, UNWRAP_C};
use crate::quantity::{Rounding, Unit, UnitSystem};

/// House: what falls faster than this an hour is said by the minutes it takes.
const WITHIN_MINUTES_K_PER_H: f64 = 1_000.0;

fn minutes_to_fall(k_per_h: f64) -> f64 {
    100.0 / k_per_h * 60.0
}

/// How fast it falls, as it is said: "180 °C an hour", "100 °C within 5 min".
pub(crate) fn fall_words(k_per_h: f64, units: UnitSystem) -> String {
    if k_per_h <= WITHIN_MINUTES_K_PER_H {
        return units.say_least(k_per_h, Unit::KelvinsPerHour);
    }
    let minutes = minutes_to_fall(k_per_h).ceil();
    format!("by {} within {minutes:.0} min", units.say(100.0, Unit::Kelvins))
}

pub(super) fn figures(cooling: &CoolingPlan, size_words: &str) -> Vec<Figure> {
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
            "Covered for",
            cooling.unwrap_hours,
            between.map(|between| between.unwrap_hours),
            UNWRAP_C,
        ),
        (
            "cooling.touch",
            "Until it may be touched",
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
    let limit = cooling.limit_k_per_h.map_or("No limit for this shape and weight.".to_owned(), |l| {
        format!("{{{l:.0} K/h}} is the limit.")
    });
    let by_the_hour = cooling.fastest_k_per_h <= WITHIN_MINUTES_K_PER_H;
    let figure = |k_per_h: f64| if by_the_hour { k_per_h } else { minutes_to_fall(k_per_h) };
    let mut fastest = if by_the_hour {
        Figure::new("cooling.fastest", "Falls at most", cooling.fastest_k_per_h, Unit::KelvinsPerHour)
    } else {
        let minutes = figure(cooling.fastest_k_per_h);
        Figure::new("cooling.falls_in", "Falls a hundred degrees within", minutes, Unit::Minutes)
    };
    if let Some(between) = between {
        let (one, other) = (figure(between.fastest_k_per_h.0), figure(between.fastest_k_per_h.1));
        fastest = fastest.between(one.min(other), one.max(other));
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
