//! Target, energy, minutes, unevenness, ceiling and soak, with their workings.

use super::run::SourceRun;
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
    let mut figures: Vec<Figure> = target.map(|target| window(target, heat, part)).into_iter().collect();
    let (Some(sources), false) = (sources, heat.cold) else { return figures };
    figures.extend(energy(heat, sources, part));
    let Some(run) = sources.runs_for(heat.target_c).find(|run| heat.is_of(run)) else {
        return figures;
    };
    let asked = Modelled { heat, sources, run, part };
    if heat.reached {
        figures.push(asked.minutes());
        figures.extend(asked.unevenness());
    }
    figures.push(asked.ceiling());
    figures.push(allowed(sources));
    if heat.soak_minutes > 0.0 {
        figures.push(
            Figure::new("heat.soak", "Soak", heat.soak_minutes, Unit::Minutes)
                .rounded(Rounding::Up)
                .because("As many minutes as the wall has millimetres, 2 at least, 20 where the whole part is gas-welded, so that the middle comes up too.")
                .source(Source::House, Certainty::Computed),
        );
    }
    figures
}

/// From where a bead is begun, and the most it may be at.
fn window(target: &Target, heat: &HeatPlan, part: &PartFacts) -> Figure {
    let (wall, how_sure) = match part.wall_mm {
        Some(mm) => (format!("{{{mm} mm}}"), Certainty::Computed),
        None => (format!("{{{GUESSED_WALL_MM} mm}}, a guess"), Certainty::Guess),
    };
    Figure::new("heat.target", "Preheat", target.target_c, Unit::Celsius)
        .window(target.target_c, target.most_c)
        .because(preheat_words(target))
        .formula(format!("least to begin a bead at: {{{:.0} degC}}", target.least_c))
        .fact("Wall", wall)
        .forced_by(target.forced_by.map_or(String::new(), |iron| iron.label().to_lowercase()))
        .source(Source::Standard("EN 1011-8, AWS D11.2; figures our own".to_owned()), how_sure)
        .note(format!("Read it at the {}.", heat.read_at))
}

/// What the iron takes up; nothing for a target that no iron can have.
fn energy(heat: &HeatPlan, sources: &Sources, part: &PartFacts) -> Option<Figure> {
    let body = &sources.body;
    let (to, mass) = (Celsius::new(heat.target_c).ok()?, body.mass);
    let joules = energy_joules(&body.iron, mass, body.ambient, to);
    let mut energy = Figure::new("heat.energy", "Energy", joules / 1e6, Unit::Megajoules);
    if let Some(Weight::Estimated(weight)) = &part.weight {
        let at = |kg: f64| joules / 1e6 * kg / weight.kg;
        energy = energy.between(at(weight.low_kg), at(weight.high_kg));
    }
    let energy = energy
        .fact("Part", part.size_words())
        .because(format!(
            "What {{{} kg}} of this iron takes up from {{{:.0} degC}} to {{{:.0} degC}}, without what is lost \
             on the way.",
            number(mass.kilograms(), 1),
            body.ambient.celsius(),
            heat.target_c
        ))
        .formula(format!(
            "mass × (c₁ T + ½ c₂ T²), T in °C from {:.0} to {:.0}",
            body.ambient.celsius(),
            heat.target_c
        ))
        .formula(format!("c₁ = {} J/kg °C, c₂ = {} J/kg °C²", body.iron.heat_a, body.iron.heat_b))
        .source(Source::Standard("EN 1561 / EN 1563".to_owned()), Certainty::Computed);
    Some(energy)
}

/// What half of the strength of the least forgiving iron allows.
fn allowed(sources: &Sources) -> Figure {
    let iron = sources.least_forgiving.iron.properties();
    Figure::new("heat.limit", "Unevenness allowed", sources.limit_k, Unit::Kelvins)
        .rounded(Rounding::Down)
        .because("Half of what would crack this iron if it could not give at all.")
        .formula(format!(
            "½ × {{{} MPa}} × (1 − {}) ÷ ({{{} MPa}} × {:.1} × 10⁻⁶ per °C)",
            iron.tensile_mpa,
            iron.poisson,
            iron.youngs_gpa * 1000.0,
            iron.expansion_1e6_per_k
        ))
        .source(Source::House, Certainty::Computed)
        .forced_by(sources.least_forgiving.forced_by())
}

/// What the model says of the heat that is taken.
struct Modelled<'a> {
    heat: &'a HeatPlan,
    sources: &'a Sources,
    run: &'a SourceRun,
    part: &'a PartFacts,
}

impl Modelled<'_> {
    fn figure(&self, figure: Figure) -> Figure {
        let guess = if self.part.station_known { "" } else { ", a guess" };
        figure
            .fact("Part", self.part.size_words())
            .fact("Gives off heat by", self.surface())
            .fact("Heat", self.run.label())
            .fact("Joint", format!("{:.0} % along the longest side{guess}", self.part.station * 100.0))
            .source(
                Source::Law("conduction and radiation, stepped along the part".to_owned()),
                Certainty::Estimate,
            )
    }

    /// What counted as its surface: of a zone only that.
    fn surface(&self) -> String {
        let body = &self.sources.body;
        if self.sources.zone.is_some() {
            return self.part.units.say(body.surface_m2(), Unit::SquareMetres);
        }
        self.part.surface_words(body)
    }

    fn minutes(&self) -> Figure {
        let heat = self.heat;
        // House: the model is good to so much; what an estimated weight adds to that is independent of it.
        let (lightest, heaviest) = heat.between.map_or((heat.minutes, heat.minutes), |it| it.minutes);
        let off = |by: f64| (heat.minutes * heat.good_to).hypot(by);
        let minutes = self
            .figure(Figure::new("heat.minutes", "To heat through", heat.minutes, Unit::Minutes))
            .between(
                (heat.minutes - off(heat.minutes - lightest)).max(0.0),
                heat.minutes + off(heaviest - heat.minutes),
            )
            .because(format!(
                "Until the coldest place, too, has come from {{{:.0} degC}} to {{{:.0} degC}}. Good to {:.0} %.",
                self.part.ambient_c,
                heat.target_c,
                heat.good_to * 100.0
            ))
            .formula("each moment: what the heat gives, less what the skin loses, and what the iron carries on")
            .forced_by(self.sources.slowest.forced_by());
        if heat.between.is_none() {
            return minutes;
        }
        minutes.formula(format!(
            "{{{lightest:.0} min}} at the least it may weigh, {{{heaviest:.0} min}} at the most"
        ))
    }

    /// Round a part in an oven the model sees no difference along it: it says nothing of thick and thin.
    fn unevenness(&self) -> Option<Figure> {
        let Self { heat, sources, run, .. } = self;
        if !matches!(run.source.kind, SourceKind::Flame { .. }) {
            return None;
        }
        let worst_k = sources.worst_k(&run.heating, heat.minutes);
        let mut unevenness = Figure::new("heat.unevenness", "How unevenly it heats", worst_k, Unit::Kelvins);
        if let Some(between) = heat.between {
            // Neither end need be the heavier part's: the usual weight may heat the least evenly.
            let (low, high) = between.worst_k;
            unevenness = unevenness.between(low.min(worst_k), high.max(worst_k));
        }
        let because = if sources.closed {
            "A closed shape cannot give: the hottest place less the coldest, at its worst on the way."
        } else {
            "How far the heat along the part strays from a straight line, at its worst on the way: what is \
             straight bends nothing."
        };
        let figure = self.figure(unevenness).because(because);
        Some(
            figure
                .note("Counted under {500 degC}; above, the iron gives.")
                .forced_by(sources.slowest.forced_by()),
        )
    }

    fn ceiling(&self) -> Figure {
        let ceiling_c = self.run.ceiling_c;
        let mut ceiling = Figure::new("heat.ceiling", "This heat stops at", ceiling_c, Unit::Celsius);
        if let Some(between) = self.heat.between {
            let (low, high) = between.ceiling_c;
            ceiling = ceiling.between(low.min(ceiling_c), high.max(ceiling_c));
        }
        self.figure(ceiling).because(
            "Where this heat, left on, no longer gets the coldest place any hotter: it loses as much as it takes.",
        )
    }
}

/// How the target came about, in one sentence.
fn preheat_words(target: &Target) -> String {
    let (first, more) =
        target.working.split_first().map_or(("", &[][..]), |(first, more)| (first.as_str(), more));
    let mut sentence = first.to_owned();
    for line in more {
        sentence.push_str(", ");
        sentence.push_str(line);
    }
    sentence.push('.');
    sentence
}
