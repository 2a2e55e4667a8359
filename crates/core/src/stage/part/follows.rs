//! What follows at once from what is known of the part.

use crate::casting::said::BrokeBy;
use crate::casting::said::TestMarks;
use serde::Serialize;

use super::cautions::cautions;
use super::facts::{PartFacts, Weight};
use super::locks::answered_for;
use crate::field;
use crate::figure::{Certainty, Figure, Source};
use crate::iron::LookTest;
use crate::job::Round;
use crate::quantity::Unit;
use crate::stage::Caution;

/// A test that the owner's wishes forbid.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Forbidden {
    pub test: LookTest,
    pub why: String,
}

/// A side of the part's bounding box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Side {
    Length,
    Width,
    Height,
}

/// The part's bounding box, with the break where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Sketch {
    /// Length, width, height; nothing while one of them is not known.
    pub size_mm: Option<(f64, f64, f64)>,
    /// The side the break is told along.
    pub longest: Side,
    /// Where along it, 0 to 1; the middle while nobody has said.
    pub break_at: f64,
}

impl Sketch {
    fn of(facts: &PartFacts) -> Self {
        let longest = match facts.size_mm {
            Some((length, width, height)) if width > length && width > height => Side::Width,
            Some((length, _, height)) if height > length => Side::Height,
            Some(_) | None => Side::Length,
        };
        Self { size_mm: facts.size_mm, longest, break_at: facts.station }
    }
}

/// What is known of the part, beyond its fields.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PartPlan {
    /// What the plan goes on although it is not known, and what that costs.
    pub guesses: Vec<String>,
    pub forbidden: Vec<Forbidden>,
    /// What was done to it and may come again, in words; empty while nobody knows.
    pub cause: String,
    /// "22 kg", "about 18 kg"; empty while not known.
    pub weight_words: String,
    /// "12 kg to 26 kg" of an estimated weight; empty otherwise.
    pub weight_between: String,
    pub sketch: Sketch,
    /// Who answers for a part that was referred out, and what they looked at; empty where nobody has to.
    pub answered_for: String,
    /// The cautions the part earns, at whatever station they matter.
    pub cautions: Vec<Caution>,
}

/// The owner wants no marks: every test that leaves one is forbidden. A hole drilled to stop a crack
/// is none.
fn forbidden(round: &Round) -> Vec<Forbidden> {
    if round.get(field::part::MARKS) != Some(TestMarks::None) {
        return Vec::new();
    }
    LookTest::ALL
        .into_iter()
        .filter_map(|test| {
            let mark = test.mark()?;
            let but = if test == LookTest::Drill { ", unless it is a stop-hole" } else { "" };
            Some(Forbidden {
                test,
                why: format!("leaves {}: the owner wants no marks{but}", mark.split(" (").next()?),
            })
        })
        .collect()
}

/// What the cause says of the repair: it mends the break, not the cause.
fn cause(round: &Round) -> &'static str {
    match round.get(field::part::CAUSE) {
        Some(BrokeBy::Impact) => "A blow: whole again it carries what it carried.",
        Some(BrokeBy::Overload) => {
            "Overloaded: it breaks again unless the load is spread, or it is strapped."
        }
        Some(BrokeBy::Freeze) => "Frozen: look for more cracks where water stood, and drain it after.",
        Some(BrokeBy::HeatCycling) => "Heat cycling: expect more cracks nearby, and let it move when hot.",
        Some(BrokeBy::LockedIn) => {
            "Stress locked in from casting: it may run on with the first heat. Join it in its free shape."
        }
        Some(BrokeBy::Wear) => "Worn through: the wall around is thin as well. Measure it.",
        Some(BrokeBy::Unknown) | None => "",
    }
}

pub fn part_plan(round: &Round, facts: &PartFacts, guesses: Vec<String>) -> PartPlan {
    PartPlan {
        guesses,
        forbidden: forbidden(round),
        cause: cause(round).to_owned(),
        weight_words: facts.weight_words(),
        weight_between: match &facts.weight {
            Some(Weight::Estimated(estimate)) => {
                let say = |kg| facts.units.say(kg, Unit::Kilograms);
                format!("{} to {}", say(estimate.low_kg), say(estimate.high_kg))
            }
            Some(Weight::Weighed(_)) | None => String::new(),
        },
        sketch: Sketch::of(facts),
        answered_for: answered_for(round, facts).unwrap_or_default(),
        cautions: cautions(round, facts),
    }
}

/// The weight with its working, and what it costs to replace the part.
pub fn figures(round: &Round, facts: &PartFacts) -> Vec<Figure> {
    let mut figures = Vec::new();
    match &facts.weight {
        Some(Weight::Weighed(kg)) => figures.push(
            Figure::new("part.weight", "Weight", *kg, Unit::Kilograms)
                .because("It was weighed.")
                .source(Source::Shop, Certainty::Measured),
        ),
        Some(Weight::Estimated(estimate)) => {
            let mut figure = Figure::new("part.weight", "Weight", estimate.kg, Unit::Kilograms)
                .between(estimate.low_kg, estimate.high_kg)
                .because("Reckoned from size, shape and wall: so much of its box is usually iron.")
                .source(Source::House, Certainty::Guess)
                .note("Weigh it, and every time that follows gets closer.");
            for line in &estimate.working {
                figure = figure.formula(line.clone());
            }
            figures.push(figure);
        }
        None => {}
    }
    let (price, wait) = (round.get(field::part::REPLACEMENT_PRICE), round.get(field::part::REPLACEMENT_WAIT));
    let downtime = round.get(field::part::DOWNTIME);
    if let Some(price) = price {
        let standing = wait.zip(downtime).map_or(0.0, |(days, a_day)| days * a_day);
        let mut figure = Figure::new("part.replace", "To replace it", price + standing, Unit::Money)
            .because(match wait.zip(downtime) {
                Some(_) => "What a new one costs, and what it costs to stand still until it comes.",
                None => "What a new one costs. Waiting and standing still are not counted: not known.",
            })
            .source(Source::Arithmetic, Certainty::Computed);
        figure = match wait.zip(downtime) {
            Some((days, a_day)) => figure
                .formula(format!("{price:.0} + {days:.0} days × {a_day:.0} a day = {:.0}", price + standing)),
            None => figure,
        };
        figures.push(figure);
    }
    figures
}
