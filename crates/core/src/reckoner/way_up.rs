//! Getting it warm: will this flame do it, what it takes, where it may run.

use super::metal::{HEIGHT, IRON, LENGTH, MASS, SHAPE, WIDTH, body, iron, properties};
use super::{
    Answer, Blank, Calculation, Filled, Illustration,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{
    BarPower, FactorOf, HeatSource, HeatingKnown, HotSpot, OvenRun, RUNS_FROM, SourceKind, ThermalBody,
    against_usual, burnt_together, ceiling_c, energy_joules, gas_need_m3, heat_until, heating_band,
    in_the_oven_c, own_factor, stress_intensity, thermal_stress_mpa,
};
use crate::quantity::{Celsius, Kilograms, Kind, Seconds, Unit, Watts, number};
use crate::shop::Shop;
use crate::stores::gas_words;

const TO: Blank = Blank::amount("to", "To", Kind::Temperature, (30.0, 1_000.0), ("260 °C", "500 °F"));
const FROM: Blank = Blank::amount("from", "From", Kind::Temperature, (-30.0, 1_000.0), ("20 °C", "70 °F"));
const FLAME: Blank = Blank::one_of(
    "flame",
    "Flame",
    &[
        ("oxy_acetylene_medium", "Oxy-acetylene tip, medium"),
        ("hand_torch_propane", "Hand torch, propane"),
        ("hand_torch_map", "Hand torch, MAP-type gas"),
        ("weed_burner", "Roofing burner, propane"),
        ("oxy_acetylene_small", "Oxy-acetylene tip, small"),
        ("oxy_acetylene_large", "Oxy-acetylene tip, large"),
        ("oxy_propane", "Oxy-propane heating tip"),
        ("ceramic_pads", "Ceramic heating pads, a pair"),
    ],
)
.usually("weed_burner");

/// House: nobody heats longer at one go.
const MOST_S: f64 = 72.0 * 3600.0;

pub(super) const WILL_IT_DO: Calculation = Calculation {
    id: "will-it-do",
    name: "Will this torch do it",
    found_by: "preheat how long heat up torch burner big enough rosebud time",
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
        Words(", swept all over with"),
        Ask(&FLAME),
        Words(", is at"),
        Ask(&TO),
        Words("after"),
        Said("time"),
        Words("; for ever it would come to"),
        Said("ceiling"),
        Words("."),
    ],
    work: will_it_do,
    fact: None,
};

fn will_it_do(filled: &Filled, shop: &Shop) -> Result<Answer, FieldProblem> {
    let body = body(filled, shop)?;
    let to = Celsius::new(filled.amount(&TO)).map_err(|out| out.at(TO.key))?;
    let none = || FieldProblem::new(FLAME.key, "its figures are not known", "one of those named");
    let source = HeatSource::from_id(filled.choice(&FLAME)).ok_or_else(none)?;
    let SourceKind::Flame { gross_w, net_share, .. } = source.kind else { return Err(none()) };
    let (factor, own) = own_factor(&shop.learned, &FactorOf::Source { id: source.id.to_owned() });
    let net_w = gross_w * net_share * factor;
    let watts = |value| Watts::new(value).map_err(|out| out.at(FLAME.key));
    let power = BarPower::Flame { even: watts(net_w)?, local: watts(0.0)?, station: 0.5, covered: 0.0 };
    let longest = Seconds::new(MOST_S).map_err(|out| out.at(TO.key))?;
    let to_c = to.celsius();
    let minutes = |body: &ThermalBody, power: BarPower| {
        if ceiling_c(body, power) <= to_c {
            None
        } else {
            heat_until(body, power, to, longest).minutes_to(to_c)
        }
    };
    let lines = |figure: Figure| {
        let figure = figure
            .formula(format!(
                "{} W × {} of it into the iron = {} W",
                number(gross_w, 0),
                number(net_share * factor, 2),
                number(net_w, 0)
            ))
            .formula(format!(
                "{} kg, {:.3} m² that lose heat",
                number(body.mass.kilograms(), 1),
                body.surface_m2()
            ))
            .source(Source::House, Certainty::Estimate);
        if own > 0 {
            figure.note(format!("This shop's own gives {}, by {own} heatings here.", against_usual(factor)))
        } else {
            figure
        }
    };
    let ceiling =
        Figure::new("ceiling", "For ever it comes to", ceiling_c(&body, power).min(1_150.0), Unit::Celsius)
            .because("Where the flame gives no more than the iron loses; over {1150 degC} it would melt.");
    let mut answer = Answer { figures: vec![lines(ceiling)], ..Answer::default() };
    let known = HeatingKnown { mass_weighed: true, own_heatings: own };
    let Some(band) = heating_band(&body, power, to_c, known, minutes) else {
        answer.words.push(("time", "no time at all: it never gets there".to_owned()));
        return Ok(answer);
    };
    let time = Figure::new("time", "Time to heat", band.minutes, Unit::Minutes)
        .because("Swept evenly, its coldest place; nobody sweeps so well at first.");
    let time = match band.high {
        Some(high) => time.between(band.low, high),
        None => time.note("It may not get there: of ten such heatings some stop short."),
    };
    answer.figures.insert(0, lines(time));
    let gas: Vec<String> = burnt_together(&[source])
        .into_iter()
        .map(|(gas, flow)| {
            format!("{} of {}", gas_words(gas.id(), gas_need_m3(flow, band.minutes), filled.units), gas.id())
        })
        .collect();
    if !gas.is_empty() {
        answer.notes.push(format!("It burns {}, a reserve in it.", gas.join(" and ")));
    }
    let heating = heat_until(&body, power, to, longest);
    let points =
        heating.curve_until(band.minutes).into_iter().map(|(minutes, coldest, _)| (minutes, coldest));
    let points: Vec<(f64, f64)> = points.collect();
    let every = points.len().div_ceil(60).max(1);
    let points = points.iter().copied().step_by(every).chain(points.last().copied()).collect();
    answer.illustration = Some(Illustration::Curve { points, against_c: vec![to_c] });
    Ok(answer)
}

pub(super) const ENERGY: Calculation = Calculation {
    id: "energy",
    name: "The heat that goes into it",
    found_by: "energy megajoule kilowatt hour heat content",
    sentence: &[
        Ask(&MASS),
        Words("of"),
        Ask(&IRON),
        Words("from"),
        Ask(&FROM),
        Words("to"),
        Ask(&TO),
        Words("take up"),
        Said("energy"),
        Words("."),
    ],
    work: energy,
    fact: None,
};

fn energy(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let mass = Kilograms::new(filled.amount(&MASS)).map_err(|out| out.at(MASS.key))?;
    let from = Celsius::new(filled.amount(&FROM)).map_err(|out| out.at(FROM.key))?;
    let to = Celsius::new(filled.amount(&TO)).map_err(|out| out.at(TO.key))?;
    if to <= from {
        let least = filled.units.say_exactly(from.celsius(), Unit::Celsius);
        return Err(FieldProblem::new(TO.key, "it is that warm already", format!("over {least}")));
    }
    let iron = properties(filled);
    let figure = Figure::new("energy", "Heat", energy_joules(&iron, mass, from, to) / 1e6, Unit::Megajoules)
        .because("What stays in the iron; what a flame wastes beside it is two to five times as much.")
        .formula(format!("m [a (T2 − T1) + b (T2² − T1²) / 2], a {} b {} J/kgK", iron.heat_a, iron.heat_b))
        .source(Source::House, Certainty::Computed);
    Ok(Answer { figures: vec![figure], ..Answer::default() })
}

const OVEN_SET: Blank =
    Blank::amount("oven", "Oven set to", Kind::Temperature, (40.0, 1_100.0), ("320 °C", "600 °F"));
const RAMP: Blank = Blank::one_of(
    "ramp",
    "Brought up by",
    &[
        ("300", "{300 K/h}, as an open part"),
        ("100", "{100 K/h}, as a closed one"),
        ("100000", "nothing: it is hot already"),
    ],
);
const IN_FOR: Blank = Blank::amount("for", "In it for", Kind::Duration, (1.0, 2_880.0), ("90 min", "90 min"));

pub(super) const OVEN: Calculation = Calculation {
    id: "oven",
    name: "What a part in the oven is at",
    found_by: "kiln furnace oven soak how warm inside ramp",
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
        Words(", in an oven set to"),
        Ask(&OVEN_SET),
        Words("and brought up by"),
        Ask(&RAMP),
        Words(", is at"),
        Said("part"),
        Words("after"),
        Ask(&IN_FOR),
        Words("."),
    ],
    work: oven,
    fact: None,
};

fn oven(filled: &Filled, shop: &Shop) -> Result<Answer, FieldProblem> {
    let body = body(filled, shop)?;
    let (set_c, minutes) = (filled.amount(&OVEN_SET), filled.amount(&IN_FOR));
    let run = OvenRun { set_c, ramp_k_per_h: filled.choice(&RAMP).parse().unwrap_or(300.0), most_w: None };
    let figure = Figure::new("part", "Part at", in_the_oven_c(&body, &run, minutes * 60.0), Unit::Celsius)
        .because("The oven says what its air is at; the iron comes after it.")
        .formula(format!("one lump, {:.3} m², 20 W/m²K and radiation", body.surface_m2()))
        .source(Source::House, Certainty::Estimate);
    let points = (0..=40).map(|step| {
        let at = minutes * f64::from(step) / 40.0;
        (at, in_the_oven_c(&body, &run, at * 60.0))
    });
    Ok(Answer {
        figures: vec![figure],
        illustration: Some(Illustration::Curve { points: points.collect(), against_c: vec![set_c] }),
        ..Answer::default()
    })
}

const SPREAD: Blank =
    Blank::amount("spread", "Flame reaches", Kind::Length, (5.0, 1_000.0), ("75 mm", "3 in"));
const TIP: Blank = Blank::amount("tip", "To the tip", Kind::Length, (1.0, 5_000.0), ("180 mm", "7 in"));
const JOINT: Blank =
    Blank::amount("joint", "Hot spot at", Kind::Temperature, (20.0, 1_000.0), ("200 °C", "400 °F"));
const REST: Blank =
    Blank::amount("rest", "The rest at", Kind::Temperature, (-30.0, 1_000.0), ("40 °C", "105 °F"));
const CRACK: Blank = Blank::amount("crack", "Crack", Kind::Length, (1.0, 5_000.0), ("60 mm", "2 3/8 in"));
const RUNS_IN: Blank =
    Blank::one_of("from", "Runs in", &[("edge", "from an edge"), ("inside", "in the middle of the metal")]);
const BEYOND: Blank = Blank::one_of("beyond", "Beyond it", &[("iron", "more iron"), ("edge", "a free edge")]);

pub(super) const PULL: Calculation = Calculation {
    id: "pull",
    name: "Does the crack run while it is heated",
    found_by: "crack runs tip stress local heat pull opens stop hole first",
    sentence: &[
        Words("A crack"),
        Ask(&CRACK),
        Words("long"),
        Ask(&RUNS_IN),
        Words(", that points at a flame reaching"),
        Ask(&SPREAD),
        Words(", its tip"),
        Ask(&TIP),
        Words("from it with"),
        Ask(&BEYOND),
        Words("beyond, in"),
        Ask(&IRON),
        Words("at"),
        Ask(&JOINT),
        Words("there and"),
        Ask(&REST),
        Words("elsewhere, takes"),
        Said("share"),
        Words("of what it stands:"),
        Said("runs"),
        Words("."),
    ],
    work: pull,
    fact: None,
};

fn pull(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let iron = iron(filled);
    let spot = HotSpot {
        spread_mm: filled.amount(&SPREAD),
        tip_distance_mm: filled.amount(&TIP),
        difference_k: filled.amount(&JOINT) - filled.amount(&REST),
        points_at_flame: true,
        free_edge_beyond: filled.choice(&BEYOND) == "edge",
    };
    let mpa = thermal_stress_mpa(&iron.properties(), &spot);
    let k = stress_intensity(mpa, filled.amount(&CRACK), filled.choice(&RUNS_IN) == "edge");
    let share = k / iron.toughness_mpa_sqrt_m();
    let words = if mpa <= 0.0 {
        "it is pressed shut"
    } else if share >= RUNS_FROM {
        "expect it to run; drill it first, or heat all of it"
    } else {
        "it is not expected to run"
    };
    let figure = Figure::new("share", "Of what it stands", share * 100.0, Unit::Percent)
        .because(format!(
            "The pull at its tip is {{{mpa:.1} MPa}}, against what the iron stands with a crack in it."
        ))
        .formula(format!("K = {} MPa√m of {}", number(k, 1), number(iron.toughness_mpa_sqrt_m(), 0)))
        .source(
            Source::Law("thermal stress and linear elastic fracture mechanics".to_owned()),
            Certainty::Estimate,
        );
    Ok(Answer { figures: vec![figure], words: vec![("runs", words.to_owned())], ..Answer::default() })
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
    fn a_hand_torch_never_gets_a_large_part_there_and_a_large_tip_does() {
        let part = [("mass", "60 kg"), ("length", "80 cm"), ("width", "40 cm"), ("height", "20 cm")];
        let with =
            |flame: &'static str| reckoned(&WILL_IT_DO, &[&part[..], &[("flame", flame)]].concat()).unwrap();
        assert_eq!(with("hand_torch_propane").words["time"], "no time at all: it never gets there");
        let burner = with("oxy_propane");
        // By hand: 60 kg x 494 J/kgK x 242 K = 7.2 MJ; 13.5 kW less 2.5 kW lost on the way: 650 s
        let minutes = burner.figures[0].value;
        assert!(burner.figures[0].id == "time" && (9.0..14.0).contains(&minutes), "{minutes}");
        assert!(burner.notes.iter().any(|it| it.contains("propane")), "{:?}", burner.notes);
    }

    #[test]
    fn heat_goes_in_by_its_mass_and_what_is_warm_already_is_told() {
        // By hand: 12 x (418.75 x 240 + 0.375 x (260² - 20²) / 2) = 1.357 MJ
        let found = reckoned(&ENERGY, &[]).unwrap();
        assert!((found.figures[0].value - 1.3572).abs() < 0.0005, "{}", found.figures[0].value);
        assert_eq!(reckoned(&ENERGY, &[("to", "20 C"), ("from", "30 C")]).unwrap_err()[0].field, "to");
    }

    #[test]
    fn a_crack_near_the_flame_is_pressed_shut_and_one_far_off_is_pulled() {
        assert_eq!(reckoned(&PULL, &[("tip", "60 mm")]).unwrap().words["runs"], "it is pressed shut");
        let pulled = reckoned(&PULL, &[("beyond", "edge"), ("joint", "500 C"), ("crack", "200 mm")]).unwrap();
        assert!(pulled.words["runs"].starts_with("expect it to run"), "{:?}", pulled.words);
    }
}
