//! Target, energy, minutes, unevenness, ceiling and soak, with their workings.

use super::{HeatPlan, Sources};
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{SourceKind, energy_joules};
use crate::method::Target;
use crate::quantity::{Celsius, Rounding, Unit, number};
use crate::stage::part::{GUESSED_WALL_MM, PartFacts, Weight};

pub(crate) fn figures(
    heat: &HeatPlan,
    target: Option<&Target>,
    sources: Option<&Sources>,
    part: &PartFacts,
) -> Vec<Figure> {
    let mut figures = Vec::new();
    if let Some(target) = target {
        let (wall, how_sure) = match part.wall_mm {
            Some(mm) => (format!("{mm} mm"), Certainty::Computed),
            None => (format!("{GUESSED_WALL_MM} mm, a guess"), Certainty::Guess),
        };
        let mut window = Figure::new("heat.target", "Preheat", target.target_c, Unit::Celsius)
            .window(target.target_c, target.most_c)
            .formula(format!("least to begin a bead at: {:.0} °C", target.least_c))
            .fact("Wall", wall)
            .forced_by(target.forced_by.map_or(String::new(), |iron| iron.label().to_lowercase()))
            .source(Source::Standard("EN 1011-8, AWS D11.2; figures house".to_owned()), how_sure)
            .note(format!("Read it at the {}.", heat.read_at));
        for line in &target.working {
            window = window.formula(line.clone());
        }
        figures.push(window);
    }
    let (Some(sources), false) = (sources, heat.cold) else { return figures };
    let body = &sources.body;
    let sized = |figure: Figure| figure.fact("Part", part.size_words());
    if let (Ok(to), mass) = (Celsius::new(heat.target_c), body.mass) {
        let joules = energy_joules(&body.iron, mass, body.ambient, to);
        let mut energy = Figure::new("heat.energy", "Energy", joules / 1e6, Unit::Megajoules);
        if let Some(Weight::Estimated(weight)) = &part.weight {
            let at = |kg: f64| joules / 1e6 * kg / weight.kg;
            energy = energy.between(at(weight.low_kg), at(weight.high_kg));
        }
        figures.push(
            sized(energy)
                .formula(format!(
                    "{} kg x [{} T + {} T² / 2] from {:.0} to {:.0} °C",
                    number(mass.kilograms(), 1),
                    body.iron.heat_a,
                    body.iron.heat_b,
                    body.ambient.celsius(),
                    heat.target_c
                ))
                .source(Source::Standard("EN 1561 / EN 1563".to_owned()), Certainty::Computed),
        );
    }
    let Some(run) = sources
        .runs_for(heat.target_c)
        .find(|run| run.source.id == heat.source && run.even_share == heat.even_share)
    else {
        return figures;
    };
    let modelled = |figure: Figure| {
        sized(figure)
            .fact("Heat", run.source.label)
            .fact(
                "Joint",
                format!(
                    "{:.0} % along the longest side{}",
                    part.station * 100.0,
                    if part.station_known { "" } else { ", a guess" }
                ),
            )
            .source(Source::Law("conduction and radiation, bar of 40 cells".to_owned()), Certainty::Estimate)
    };
    if heat.reached {
        // House: the model is good to 30 %; what an estimated weight adds to that is independent of it.
        let (lightest, heaviest) = heat.between.map_or((heat.minutes, heat.minutes), |it| it.minutes);
        let off = |by: f64| (heat.minutes * 0.3).hypot(by);
        let mut minutes =
            modelled(Figure::new("heat.minutes", "To heat through", heat.minutes, Unit::Minutes))
                .between(
                    (heat.minutes - off(heat.minutes - lightest)).max(0.0),
                    heat.minutes + off(heaviest - heat.minutes),
                )
                .formula(format!("coldest cell from {:.0} to {:.0} °C", part.ambient_c, heat.target_c))
                .formula("good to 30 %".to_owned())
                .forced_by(sources.slowest.forced_by());
        if heat.between.is_some() {
            minutes = minutes
                .formula(format!("{lightest:.0} min at the least it may weigh, {heaviest:.0} at the most"));
        }
        figures.push(minutes);
        let worst_k = sources.worst_k(&run.heating, heat.minutes);
        let mut unevenness = Figure::new("heat.unevenness", "Unevenness on the way", worst_k, Unit::Kelvins);
        if let Some(between) = heat.between {
            // Neither end need be the heavier part's: the usual weight may heat the least evenly.
            let (low, high) = between.worst_k;
            unevenness = unevenness.between(low.min(worst_k), high.max(worst_k));
        }
        // Round a part in an oven the model sees no difference along it: it says nothing of thick and thin.
        let along = matches!(run.source.kind, SourceKind::Flame { .. });
        figures.extend(along.then(|| {
            modelled(unevenness)
                .formula(if sources.closed {
                    "closed shape: hottest less coldest"
                } else {
                    "range of the departures from the straight line along the part"
                })
                .note("Counted under {500 degC}; above, the iron gives.")
                .forced_by(sources.slowest.forced_by())
        }));
    }
    let mut ceiling = Figure::new("heat.ceiling", "This heat stops at", run.ceiling_c, Unit::Celsius);
    if let Some(between) = heat.between {
        let (low, high) = between.ceiling_c;
        ceiling = ceiling.between(low.min(run.ceiling_c), high.max(run.ceiling_c));
    }
    figures.push(modelled(ceiling).formula("coldest cell when it stays on for ever"));
    let iron = sources.least_forgiving.iron.properties();
    figures.push(
        Figure::new("heat.limit", "Unevenness allowed", sources.limit_k, Unit::Kelvins)
            .rounded(Rounding::Down)
            .formula(format!(
                "{} x (1 - {}) / ({} x {}) / 2",
                iron.tensile_mpa,
                iron.poisson,
                iron.youngs_gpa * 1000.0,
                format_args!("{}e-6", iron.expansion_1e6_per_k)
            ))
            .source(Source::House, Certainty::Computed)
            .forced_by(sources.least_forgiving.forced_by()),
    );
    if heat.soak_minutes > 0.0 {
        figures.push(
            Figure::new("heat.soak", "Soak", heat.soak_minutes, Unit::Minutes)
                .rounded(Rounding::Up)
                .formula("1 min for each mm of wall, 20 at least")
                .source(Source::House, Certainty::Computed),
        );
    }
    figures
}
