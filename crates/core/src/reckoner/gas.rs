//! Gas: what a flame burns, how fast it may be drawn, what is left of it.

use super::{
    Answer, Blank, Calculation, Filled,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{Gas, HeatSource, burnt_together, gas_need_m3, runs_out_min, withdrawal};
use crate::quantity::{Kind, Unit, number};
use crate::shop::Shop;
use crate::stores::gas_words;

pub(super) const FLAME: Blank = Blank::one_of(
    "flame",
    "Flame",
    &[
        ("oxy_acetylene_medium", "Oxy-acetylene tip, medium"),
        ("oxy_acetylene_small", "Oxy-acetylene tip, small"),
        ("oxy_acetylene_large", "Oxy-acetylene tip, large"),
        ("oxy_propane", "Oxy-propane heating tip"),
        ("weed_burner", "Roofing burner, propane"),
        ("hand_torch_propane", "Hand torch, propane"),
    ],
);
const MINUTES: Blank =
    Blank::amount("minutes", "Burns for", Kind::Duration, (1.0, 1_440.0), ("25 min", "25 min"));

fn flows(filled: &Filled) -> Vec<(Gas, f64)> {
    HeatSource::from_id(filled.choice(&FLAME)).map_or_else(Vec::new, |source| burnt_together(&[source]))
}

pub(super) const BURNS: Calculation = Calculation {
    id: "gas",
    name: "Gas for a heating",
    found_by: "acetylene oxygen propane how much burn consumption enough",
    sentence: &[
        Ask(&FLAME),
        Words(", lit for"),
        Ask(&MINUTES),
        Words(", burns"),
        Said("burns"),
        Words(", a reserve in it."),
    ],
    work: burns,
    fact: None,
};

fn burns(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let minutes = filled.amount(&MINUTES);
    let all = flows(filled);
    let words: Vec<String> = all
        .iter()
        .map(|(gas, flow)| {
            format!("{} of {}", gas_words(gas.id(), gas_need_m3(*flow, minutes), filled.units), gas.id())
        })
        .collect();
    let figures = all.iter().map(|(gas, flow)| {
        Figure::new(gas.id(), format!("{} an hour", crate::render::upper(gas.id())), *flow, Unit::CubicMetres)
            .formula(format!("{} m³/h × {} min ÷ 60 × 1.15", number(*flow, 2), number(minutes, 0)))
            .source(Source::House, Certainty::Estimate)
    });
    Ok(Answer {
        figures: figures.collect(),
        words: vec![("burns", words.join(" and "))],
        ..Answer::default()
    })
}

const CYLINDER: Blank =
    Blank::amount("cylinder", "Cylinder holds", Kind::GasVolume, (0.1, 50.0), ("5 m³", "175 ft³"));
const ACETYLENE_FLAME: Blank = Blank::one_of(
    "flame",
    "Flame",
    &[
        ("oxy_acetylene_medium", "a medium tip"),
        ("oxy_acetylene_small", "a small tip"),
        ("oxy_acetylene_large", "a large tip"),
    ],
);

pub(super) const WITHDRAWAL: Calculation = Calculation {
    id: "acetylene",
    name: "How fast acetylene may be drawn",
    found_by: "withdrawal manifold cylinders how many one seventh one tenth one fifteenth acetone rosebud",
    sentence: &[
        Words("A cylinder that holds"),
        Ask(&CYLINDER),
        Words("gives"),
        Said("continuous"),
        Words("an hour for hours on end,"),
        Said("intermittent"),
        Words("now and then;"),
        Ask(&ACETYLENE_FLAME),
        Words("draws"),
        Said("draws"),
        Words(":"),
        Said("cylinders"),
        Words("."),
    ],
    work: draw,
    fact: None,
};

fn draw(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let capacity = filled.amount(&CYLINDER);
    let source = HeatSource::from_id(filled.choice(&ACETYLENE_FLAME));
    let flow = source
        .and_then(|source| burnt_together(&[source]).into_iter().find(|(gas, _)| *gas == Gas::Acetylene))
        .map_or(0.0, |(_, flow)| flow);
    let drawn = withdrawal(capacity, flow).map_err(|out| out.at(CYLINDER.key))?;
    let limit = |id: &str, name: &str, value: f64, by: u32| {
        Figure::new(id, name, value, Unit::CubicMetres)
            .because("Illustration faster, the acetone it is dissolved in comes with it.")
            .formula(format!("{} m³ ÷ {by}", number(capacity, 2)))
            .source(Source::Standard("CGA G-1".to_owned()), Certainty::Computed)
    };
    let count = |cylinders: u32, when: &str| match cylinders {
        0 | 1 => format!("one is enough {when}"),
        more => format!("{more} on a manifold {when}"),
    };
    let words = format!(
        "{}, {}",
        count(drawn.cylinders_continuous, "for hours on end"),
        count(drawn.cylinders_intermittent, "now and then")
    );
    Ok(Answer {
        figures: vec![
            limit("continuous", "For hours on end", drawn.continuous_m3_h, 15),
            limit("intermittent", "Now and then", drawn.intermittent_m3_h, 10),
            Figure::new("draws", "Draws an hour", flow, Unit::CubicMetres)
                .formula("gross power × 3600 ÷ 55.6 MJ/m³")
                .source(Source::House, Certainty::Estimate),
        ],
        words: vec![("cylinders", words)],
        ..Answer::default()
    })
}

const FULL: Blank =
    Blank::amount("full", "Full at", Kind::GaugePressure, (1.0, 400.0), ("200 bar", "2900 psi"));
const GAUGE: Blank =
    Blank::amount("gauge", "Gauge shows", Kind::GaugePressure, (0.0, 400.0), ("80 bar", "1160 psi"));

pub(super) const LEFT: Calculation = Calculation {
    id: "gas-left",
    name: "What is left in a cylinder",
    found_by: "oxygen argon gauge pressure left empty how long last",
    sentence: &[
        Words("An oxygen cylinder that holds"),
        Ask(&CYLINDER),
        Words("when full at"),
        Ask(&FULL),
        Words("and shows"),
        Ask(&GAUGE),
        Words("has"),
        Said("left"),
        Words("left:"),
        Said("lasts"),
        Words("of"),
        Ask(&FLAME),
        Words("."),
    ],
    work: left,
    fact: None,
};

fn left(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (capacity, full, gauge) = (filled.amount(&CYLINDER), filled.amount(&FULL), filled.amount(&GAUGE));
    if gauge > full {
        let most = filled.units.say_exactly(full, Unit::Bar);
        return Err(FieldProblem::new(
            GAUGE.key,
            "it shows more than when it was full",
            format!("up to {most}"),
        ));
    }
    let left_m3 = capacity * gauge / full;
    let line = format!("{} m³ × {} ÷ {} bar", number(capacity, 2), number(gauge, 0), number(full, 0));
    let mut answer = Answer {
        figures: vec![
            Figure::new("left", "Left", left_m3, Unit::CubicMetres)
                .formula(line.clone())
                .source(Source::Law("Boyle's law".to_owned()), Certainty::Computed),
        ],
        notes: vec![
            "Propane is liquid in its bottle and acetylene is dissolved: those are weighed.".to_owned(),
        ],
        ..Answer::default()
    };
    let oxygen = flows(filled).into_iter().find(|(gas, _)| *gas == Gas::Oxygen).map(|(_, flow)| flow);
    match oxygen.and_then(|flow| Some((flow, runs_out_min(flow, left_m3)?))) {
        Some((flow, minutes)) => answer.figures.push(
            Figure::new("lasts", "Lasts", minutes, Unit::Minutes)
                .because("Until it is empty, nothing kept in reserve.")
                .formula(line)
                .formula(format!("÷ {} m³ of oxygen an hour", number(flow, 2)))
                .source(Source::House, Certainty::Estimate),
        ),
        None => answer.words.push(("lasts", "it takes none".to_owned())),
    }
    Ok(answer)
}

#[cfg(test)]
mod tests {
    use super::super::Reckoned;
    use super::*;
    use crate::quantity::UnitSystem;

    fn reckoned(of: &Calculation, pairs: &[(&str, &str)]) -> Result<Reckoned, Vec<FieldProblem>> {
        super::super::reckoned(of, pairs, UnitSystem::Metric)
    }

    #[test]
    fn a_cylinder_on_its_gauge_lasts_so_long() {
        // By hand: 10 x 80 / 200 = 4 m³; a medium tip 23 kW x 3600 / 55.6e6 x 1.1 = 1.638 m³/h of oxygen: 146 min
        let found = reckoned(&LEFT, &[("cylinder", "10 m3")]).unwrap();
        assert!((found.figures[0].value - 4.0).abs() < 1e-9);
        assert!((found.figures[1].value - 146.5).abs() < 0.2, "{}", found.figures[1].value);
        assert_eq!(reckoned(&LEFT, &[("flame", "weed_burner")]).unwrap().words["lasts"], "it takes none");
        assert_eq!(reckoned(&LEFT, &[("gauge", "210 bar")]).unwrap_err()[0].field, "gauge");
    }

    #[test]
    fn a_large_tip_asks_for_a_manifold() {
        let found = reckoned(&WITHDRAWAL, &[("flame", "oxy_acetylene_large")]).unwrap();
        // By hand: 43 kW x 3600 / 55.6e6 = 2.784 m³/h; 5 / 15 = 0.333: 9; 5 / 10: 6
        assert_eq!(
            found.words["cylinders"],
            "9 on a manifold for hours on end, 6 on a manifold now and then"
        );
    }
}
