//! Out of the heat, and slowly cold.

use super::metal::{HEIGHT, IRON, LENGTH, MASS, SHAPE, WIDTH, body, shape};
use super::{
    Answer, Blank, Calculation, Filled, Illustration,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{
    FactorOf, OutOfHeat, Packing, TOUCH_C, UNWRAP_C, Wrapping, cool, own_factor, packing_words,
};
use crate::quantity::{Celsius, Kind, Unit};
use crate::shop::Shop;

const FROM: Blank = Blank::amount("from", "From", Kind::Temperature, (30.0, 1_000.0), ("260 °C", "500 °F"));
const DOWN_TO: Blank =
    Blank::amount("to", "Stays over", Kind::Temperature, (20.0, 1_000.0), ("180 °C", "350 °F"));
const AIR: Blank = Blank::one_of(
    "air",
    "Air",
    &[("still", "still air"), ("draught", "a draught"), ("wrapped", "a wrap but for the joint")],
);

/// House: what carries heat off bare iron in still air and in a draught, W/m²K; what a wrap leaves bare.
const STILL_W_M2K: f64 = 10.0;
const DRAUGHT_W_M2K: f64 = 25.0;
const LEFT_BARE: f64 = 0.25;

pub(super) const OUT_OF_HEAT: Calculation = Calculation {
    id: "out-of-heat",
    name: "From the oven to the bench",
    found_by: "out of the heat time left before too cold weld carry walk",
    sentence: &[
        Ask(&IRON),
        Words("of"),
        Ask(&MASS),
        Words(","),
        Ask(&SHAPE),
        Words("of"),
        Ask(&LENGTH),
        Words("by"),
        Ask(&WIDTH),
        Words("by"),
        Ask(&HEIGHT),
        Words(", taken out at"),
        Ask(&FROM),
        Words("into"),
        Ask(&AIR),
        Words("stays over"),
        Ask(&DOWN_TO),
        Words("for"),
        Said("stays"),
        Words("."),
    ],
    work: out_of_heat,
    fact: None,
};

fn out_of_heat(filled: &Filled, shop: &Shop) -> Result<Answer, FieldProblem> {
    let body = body(filled, shop)?;
    let (from_c, to_c) = (filled.amount(&FROM), filled.amount(&DOWN_TO));
    let (h_w_m2k, bare_share) = match filled.choice(&AIR) {
        "draught" => (DRAUGHT_W_M2K, 1.0),
        "wrapped" => (STILL_W_M2K, LEFT_BARE),
        _ => (STILL_W_M2K, 1.0),
    };
    let out = OutOfHeat { h_w_m2k, bare_share };
    if from_c <= to_c {
        return Err(FieldProblem::new(
            DOWN_TO.key,
            "it is no warmer than that to begin with",
            "less than it comes out at",
        ));
    }
    let Some(seconds) = out.seconds(&body, from_c, to_c) else {
        return Ok(Answer {
            words: vec![("stays", "good: it never falls so far here".to_owned())],
            ..Answer::default()
        });
    };
    let points = (0..=24).map(|step| to_c.max(from_c - (from_c - to_c) * f64::from(step) / 24.0));
    let points = points.filter_map(|celsius| Some((out.seconds(&body, from_c, celsius)? / 60.0, celsius)));
    let figure = Figure::new("stays", "Time there is", seconds / 60.0, Unit::Minutes)
        .because("As one lump that loses heat from all of its surface: thin limbs are sooner there.")
        .formula(format!(
            "surface {:.3} m², {h_w_m2k:.0} W/m²K and radiation at emissivity 0.8",
            body.surface_m2()
        ))
        .formula("m c dT/dt = − A [b (h ΔT + ε σ (T⁴ − Ta⁴)) + (1 − b) 2.4 ΔT], stepped".to_owned())
        .source(Source::House, Certainty::Estimate);
    Ok(Answer {
        figures: vec![figure],
        illustration: Some(Illustration::Curve { points: points.collect(), against_c: vec![to_c] }),
        ..Answer::default()
    })
}

const PACKED_AT: Blank =
    Blank::amount("from", "From", Kind::Temperature, (60.0, 1_000.0), ("290 °C", "550 °F"));
const PACKING: Blank = Blank::one_of("packing", "Packing", Packing::CHOICES).usually("vermiculite");
const THICK: Blank = Blank::amount("thick", "How thick", Kind::Length, (0.0, 500.0), ("100 mm", "4 in"));

pub(super) const COOLING: Calculation = Calculation {
    id: "cooling",
    name: "How long it lies packed",
    found_by: "cool down slow sand vermiculite ash lime blanket unwrap overnight touch",
    sentence: &[
        Ask(&IRON),
        Words("of"),
        Ask(&MASS),
        Words(","),
        Ask(&SHAPE),
        Words("of"),
        Ask(&LENGTH),
        Words("by"),
        Ask(&WIDTH),
        Words("by"),
        Ask(&HEIGHT),
        Words(", from"),
        Ask(&PACKED_AT),
        Words("in"),
        Ask(&THICK),
        Words("of"),
        Ask(&PACKING),
        Words("may be unwrapped after"),
        Said("unwrap"),
        Words("and touched after"),
        Said("touch"),
        Words("; it falls by"),
        Said("falls"),
        Words("at the fastest."),
    ],
    work: cooling,
    fact: None,
};

fn cooling(filled: &Filled, shop: &Shop) -> Result<Answer, FieldProblem> {
    let body = body(filled, shop)?;
    let start = Celsius::new(filled.amount(&PACKED_AT)).map_err(|out| out.at(PACKED_AT.key))?;
    let packing = Packing::from_id(filled.choice(&PACKING)).unwrap_or(Packing::Air);
    let thick_m = if packing == Packing::Air { 0.0 } else { filled.amount(&THICK) / 1000.0 };
    let wrapping = Wrapping::new(packing, thick_m).map_err(|out| {
        let (low, high) = (out.low * 1000.0, out.high * 1000.0);
        let say = |mm| filled.units.say_exactly(mm, Unit::Millimetres);
        FieldProblem::new(THICK.key, "it is not laid so thick", format!("{} to {}", say(low), say(high)))
    })?;
    let (factor, own) = own_factor(&shop.learned, &FactorOf::Packing { packing });
    let cooling = cool(&body, start, &wrapping.letting_through(factor));
    let mut answer = Answer::default();
    let mut after = |id: &'static str, name: &str, celsius: f64| match cooling.hours_to(celsius) {
        Some(hours) => answer.figures.push(
            Figure::new(id, name, hours * 60.0, Unit::Minutes)
                .because(format!("Until its middle is under {{{celsius} degC down}}."))
                .formula(format!(
                    "surface {:.3} m², a shell of packing round it, 60 layers, 20 s steps",
                    body.surface_m2()
                ))
                .source(Source::House, Certainty::Estimate),
        ),
        None => answer.words.push((id, "more than three days".to_owned())),
    };
    after("unwrap", "Unwrapped after", UNWRAP_C);
    after("touch", "Touched after", TOUCH_C);
    let falls = cooling.fastest_k_per_h();
    let limit = shape(filled).fall_limit_k_per_h();
    answer.figures.push(
        Figure::new("falls", "Fastest fall", falls, Unit::KelvinsPerHour)
            .because(
                "Over the quickest hundred degrees of the way down, or half of the way where that is less.",
            )
            .formula("100 K ÷ the shortest time it takes for them")
            .source(Source::House, Certainty::Estimate),
    );
    if falls > limit {
        answer.notes.push(format!("Too fast after a hot repair: a part of this shape may fall by {{{limit} K/h}}. Pack it thicker, or otherwise."));
    }
    if let Some(most_c) = packing.bears_c().filter(|most_c| *most_c < start.celsius()) {
        answer.notes.push(format!(
            "This packing stands {{{most_c} degC down}}: lay something else against the iron first."
        ));
    }
    if own > 0 {
        answer.notes.push(format!("{}.", packing_words(&shop.learned, packing)));
    }
    let points = cooling.curve(80, TOUCH_C).into_iter().map(|(hours, celsius)| (hours * 60.0, celsius));
    answer.illustration =
        Some(Illustration::Curve { points: points.collect(), against_c: vec![UNWRAP_C, TOUCH_C] });
    Ok(answer)
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeMap;

    use super::*;
    use crate::quantity::UnitSystem;

    fn typed(pairs: &[(&str, &str)]) -> BTreeMap<String, String> {
        pairs.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect()
    }

    const BLOCK: [(&str, &str); 6] = [
        ("iron", "gray"),
        ("mass", "12 kg"),
        ("shape", "solid_block"),
        ("length", "30 cm"),
        ("width", "20 cm"),
        ("height", "5 cm"),
    ];

    fn shop() -> Shop {
        Shop::of(&BTreeMap::new())
    }

    #[test]
    fn an_iron_from_the_oven_is_good_for_so_many_minutes() {
        let asked = |more: &[(&str, &str)]| {
            let found = OUT_OF_HEAT.reckon(&typed(&[&BLOCK[..], more].concat()), UnitSystem::Metric, &shop());
            found.unwrap().figures[0].value
        };
        // By hand at 218 degC, the middle of the way: 0.17 m² x (10 x 198 + 0.8 x 5.67e-8 x (491.2⁴ - 293.2⁴)) = 728 W;
        // 12 kg x 500.5 J/kgK x 80 K / 728 W = 660 s at that; slower towards the end
        let still = asked(&[("from", "500 F"), ("to", "350 F")]);
        assert!((still - 11.0).abs() < 0.8, "{still}");
        assert!(asked(&[("from", "500 F"), ("to", "350 F"), ("air", "draught")]) < 0.7 * still);
        assert!(asked(&[("from", "500 F"), ("to", "350 F"), ("air", "wrapped")]) > 1.5 * still);
    }

    #[test]
    fn what_is_no_warmer_to_begin_with_is_told_at_its_blank() {
        let asked = typed(&[&BLOCK[..], &[("from", "150 C"), ("to", "150 C")]].concat());
        let problems = OUT_OF_HEAT.reckon(&asked, UnitSystem::Metric, &shop()).unwrap_err();
        assert_eq!(problems[0].field, "to");
    }

    #[test]
    fn a_packing_that_lets_it_fall_too_fast_says_so() {
        let asked = |packing: &str, thick: &str| {
            let more = [("from", "400 C"), ("packing", packing), ("thick", thick), ("shape", "closed_frame")];
            let mut all = typed(&BLOCK);
            all.extend(typed(&more));
            COOLING.reckon(&all, UnitSystem::Metric, &shop()).unwrap()
        };
        assert!(asked("air", "0").notes.iter().any(|it| it.starts_with("Too fast")));
        let slow = asked("vermiculite", "15 cm");
        assert!(slow.notes.is_empty(), "{:?}", slow.notes);
        assert!(slow.figures[0].value < slow.figures[1].value, "unwrapped before it is touched");
    }
}
