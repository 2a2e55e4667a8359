//! The part itself: what it weighs, how thick it is, what a groove in it takes, how hard an edge gets.

use super::{
    Answer, Blank, Calculation, Filled, Illustration,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::casting::shape::PartShape;
use crate::casting::weight::estimated_weight;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{HARD_EDGE_S, Pass, ThermalBody, softening_preheat_c, t8_5_s};
use crate::iron::{Iron, IronProperties, sound_speed_m_s};
use crate::prep::groove::{Groove, GrooveForm, usual_lip_mm, usual_root_radius_mm};
use crate::prep::groove_volume::seam_fill;
use crate::quantity::{Celsius, Kilograms, Kind, Millimetres, Unit, WallMillimetres, number};
use crate::shop::Shop;
use crate::stores::filler_of;

pub(super) const IRON: Blank = Blank::one_of(
    "iron",
    "Iron",
    &[("gray", "Gray iron"), ("ductile", "Ductile iron"), ("malleable", "Malleable iron")],
);
pub(super) const MASS: Blank =
    Blank::amount("mass", "Weight", Kind::Mass, (0.05, 5_000.0), ("12 kg", "26 lb"));
pub(super) const SHAPE: Blank = Blank::one_of("shape", "Shape", PartShape::CHOICES);
/// House: bounds of a side in mm.
const SIDE: (f64, f64) = (1.0, 10_000.0);
pub(super) const LENGTH: Blank = Blank::amount("length", "Length", Kind::Length, SIDE, ("300 mm", "12 in"));
pub(super) const WIDTH: Blank = Blank::amount("width", "Width", Kind::Length, SIDE, ("200 mm", "8 in"));
pub(super) const HEIGHT: Blank = Blank::amount("height", "Height", Kind::Length, SIDE, ("50 mm", "2 in"));
pub(super) const WALL: Blank = Blank::amount("wall", "Wall", Kind::Length, (1.0, 300.0), ("10 mm", "3/8 in"));

/// The iron that was chosen.
pub(super) fn iron(filled: &Filled) -> Iron {
    Iron::from_id(filled.choice(&IRON)).unwrap_or(Iron::Gray)
}

pub(super) fn properties(filled: &Filled) -> IronProperties {
    iron(filled).properties()
}

pub(super) fn shape(filled: &Filled) -> PartShape {
    PartShape::from_id(filled.choice(&SHAPE)).unwrap_or(PartShape::SolidBlock)
}

pub(super) fn wall(filled: &Filled) -> Result<WallMillimetres, FieldProblem> {
    WallMillimetres::new(filled.amount(&WALL)).map_err(|out| out.at(WALL.key))
}

fn side(filled: &Filled, blank: &Blank) -> Result<Millimetres, FieldProblem> {
    Millimetres::new(filled.amount(blank)).map_err(|out| out.at(blank.key))
}

/// The part as one body in this shop's air; heavier than its box is told at its weight.
pub(super) fn body(filled: &Filled, shop: &Shop) -> Result<ThermalBody, FieldProblem> {
    let (iron, mass_kg) = (properties(filled), filled.amount(&MASS));
    let sides = (side(filled, &LENGTH)?, side(filled, &WIDTH)?, side(filled, &HEIGHT)?);
    let box_kg = [sides.0, sides.1, sides.2].map(|it| it.millimetres() / 1000.0).iter().product::<f64>()
        * iron.density_kg_m3;
    if mass_kg > box_kg * 1.05 {
        let message = "so much iron does not fit into that size";
        let most = filled.units.say_most(box_kg, Unit::Kilograms);
        return Err(FieldProblem::new(MASS.key, message, format!("up to {most}, or a larger size")));
    }
    let mass = Kilograms::new(mass_kg).map_err(|out| out.at(MASS.key))?;
    let factor = shape(filled).surface_factor();
    let ambient = Celsius::new(shop.ambient_c).map_err(|out| out.at(MASS.key))?;
    ThermalBody::new(iron, mass, sides, factor, ambient).map_err(|out: OutOfRange| out.at(SHAPE.key))
}

pub(super) const WEIGHT: Calculation = Calculation {
    id: "weight",
    name: "What a casting weighs",
    found_by: "heavy kilos pounds mass scale lift",
    sentence: &[
        Ask(&SHAPE),
        Words("of"),
        Ask(&IRON),
        Words(","),
        Ask(&LENGTH),
        Words("by"),
        Ask(&WIDTH),
        Words("by"),
        Ask(&HEIGHT),
        Words("with a wall of"),
        Ask(&WALL),
        Words(", weighs"),
        Said("weight"),
        Words("."),
    ],
    work: weight,
    fact: Some(("weight", "part.mass")),
};

fn weight(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let sides = (filled.amount(&LENGTH), filled.amount(&WIDTH), filled.amount(&HEIGHT));
    let wall = filled.amount(&WALL);
    let least = sides.0.min(sides.1).min(sides.2);
    if wall > least {
        let say = filled.units.say_exactly(least, Unit::Millimetres);
        return Err(FieldProblem::new(WALL.key, "it is thicker than the part", format!("up to {say}")));
    }
    let density = properties(filled).density_kg_m3;
    let found = estimated_weight(shape(filled), sides, Some(wall), density)
        .ok_or_else(|| FieldProblem::new(WALL.key, "this shape wants a wall", "6 mm"))?;
    let figure = Figure::new("weight", "Weight", found.kg, Unit::Kilograms)
        .between(found.low_kg, found.high_kg)
        .because("From its size and shape alone: bosses, ribs and openings are not measured.")
        .source(Source::House, Certainty::Estimate);
    let figure = found.working.iter().fold(figure, |figure, line| figure.formula(line.clone()));
    Ok(Answer { figures: vec![figure], ..Answer::default() })
}

const SET_TO: Blank =
    Blank::amount("set", "Set to", Kind::SoundSpeed, (1_000.0, 8_000.0), ("5920 m/s", "5920 m/s"));
const SHOWS: Blank = Blank::amount("shows", "Gauge shows", Kind::Length, (1.0, 500.0), ("13 mm", "1/2 in"));
const CARRIES: Blank =
    Blank::amount("carries", "Sound in it", Kind::SoundSpeed, (1_000.0, 8_000.0), ("4600 m/s", "4600 m/s"));
const CALIPER: Blank =
    Blank::amount("caliper", "By the caliper", Kind::Length, (1.0, 300.0), ("20 mm", "3/4 in"));

pub(super) const WALL_BY_GAUGE: Calculation = Calculation {
    id: "wall-by-gauge",
    name: "Wall by a gauge that is set for steel",
    found_by: "ultrasonic thickness wall other side",
    sentence: &[
        Words("A gauge set to"),
        Ask(&SET_TO),
        Words("that shows"),
        Ask(&SHOWS),
        Words("on iron that carries sound at"),
        Ask(&CARRIES),
        Words("stands on a wall of"),
        Said("wall"),
        Words("."),
    ],
    work: wall_by_gauge,
    fact: Some(("wall", "part.wall")),
};

fn wall_by_gauge(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (set, shows, carries) = (filled.amount(&SET_TO), filled.amount(&SHOWS), filled.amount(&CARRIES));
    let figure = Figure::new("wall", "Wall", shows * carries / set, Unit::Millimetres)
        .because("The gauge takes the time there and back and reckons with the speed it is set to.")
        .formula(format!("{shows} × {carries} ÷ {set}"))
        .source(Source::Arithmetic, Certainty::Measured);
    let notes = vec!["Gray iron carries sound at 3500 to 4900 m/s, ductile at 5400 to 5800: measure it where a caliper reaches.".to_owned()];
    Ok(Answer { figures: vec![figure], notes, ..Answer::default() })
}

pub(super) const SOUND_SPEED: Calculation = Calculation {
    id: "sound-speed",
    name: "How fast it carries sound",
    found_by: "ultrasonic gauge gray or ductile nodular velocity which iron",
    sentence: &[
        Words("A place"),
        Ask(&CALIPER),
        Words("thick by the caliper that a gauge set to"),
        Ask(&SET_TO),
        Words("shows as"),
        Ask(&SHOWS),
        Words("carries sound at"),
        Said("speed"),
        Words("."),
    ],
    work: sound_speed,
    fact: None,
};

fn sound_speed(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let caliper = WallMillimetres::new(filled.amount(&CALIPER)).map_err(|out| out.at(CALIPER.key))?;
    let shown = WallMillimetres::new(filled.amount(&SHOWS)).map_err(|out| out.at(SHOWS.key))?;
    let (set, thick) = (filled.amount(&SET_TO), filled.amount(&CALIPER));
    let figure = Figure::new("speed", "Sound", sound_speed_m_s(set, caliper, shown), Unit::MetresPerSecond)
        .because("The gauge is right about the time: the thickness is known, so the speed follows.")
        .formula(format!("{set} × {thick} ÷ {}", filled.amount(&SHOWS)))
        .source(Source::Arithmetic, Certainty::Measured);
    let notes = vec![
        "Say it on a job under Iron: there it is weighed with everything else that was seen.".to_owned(),
    ];
    Ok(Answer { figures: vec![figure], notes, ..Answer::default() })
}

const FORM: Blank = Blank::one_of("form", "Form", &[("V", "V"), ("U", "U")]);
const ANGLE: Blank = Blank::amount("angle", "Angle", Kind::Angle, (0.0, 150.0), ("70°", "70°"));
const SEAM: Blank = Blank::amount("seam", "Length", Kind::Length, (1.0, 10_000.0), ("100 mm", "4 in"));
const CAP: Blank = Blank::amount("cap", "Crown", Kind::Length, (0.0, 20.0), ("1 mm", "1/32 in"));
const FILLER: Blank = Blank::one_of(
    "filler",
    "Filler",
    &[
        ("nickel", "nickel"),
        ("nickel_iron", "nickel-iron"),
        ("bronze", "bronze"),
        ("iron_rod", "cast iron rod"),
    ],
);

pub(super) const GROOVE: Calculation = Calculation {
    id: "groove",
    name: "What a groove takes",
    found_by: "filler rods how many electrodes sticks weld metal v u bevel volume",
    sentence: &[
        Ask(&FORM),
        Words("groove of"),
        Ask(&ANGLE),
        Words("in a wall of"),
        Ask(&WALL),
        Words(","),
        Ask(&SEAM),
        Words("long with a crown of"),
        Ask(&CAP),
        Words(", opens to"),
        Said("opens"),
        Words("and takes"),
        Said("volume"),
        Words(":"),
        Said("rods"),
        Words("rods of"),
        Ask(&FILLER),
        Words(","),
        Said("metal"),
        Words("to buy."),
    ],
    work: groove,
    fact: None,
};

fn groove(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (wall_mm, angle, cap, seam_mm) =
        (filled.amount(&WALL), filled.amount(&ANGLE), filled.amount(&CAP), filled.amount(&SEAM));
    let form = match filled.choice(&FORM) {
        "U" => GrooveForm::U { root_radius_mm: usual_root_radius_mm(wall_mm) },
        _ => GrooveForm::V,
    };
    let lip_mm = usual_lip_mm(wall_mm);
    let depth = WallMillimetres::new(wall_mm - lip_mm).map_err(|_| {
        let thinnest = filled.units.say_exactly(1.4, Unit::Millimetres);
        FieldProblem::new(WALL.key, "nothing is left to grind", format!("from {thinnest} on"))
    })?;
    let at = |field: &str| if field == "cap_mm" { CAP.key } else { ANGLE.key };
    let groove = Groove::new(form, depth, angle, 0.0, cap).map_err(|(field, out)| out.at(at(field)))?;
    let section = groove.section();
    let volume_mm3 = section.area_mm2 * seam_mm;
    let filler = filler_of(filled.choice(&FILLER))
        .ok_or_else(|| FieldProblem::new(FILLER.key, "its figures are not known", "nickel or bronze"))?;
    let fill = seam_fill(volume_mm3, &filler);
    let lines = [
        format!("depth {{{} mm}}: the wall less a lip of {{{lip_mm} mm}}", wall_mm - lip_mm),
        format!(
            "section with its crown {{{} mm2}}, opening {{{} mm}}",
            section.area_mm2, section.top_width_mm
        ),
        format!("× {{{seam_mm} mm}}"),
    ];
    let worked = |figure: Figure| {
        lines
            .iter()
            .fold(figure, |figure, line| figure.formula(line.clone()))
            .source(Source::Arithmetic, Certainty::Computed)
    };
    let bought = |figure: Figure| {
        figure
            .formula(format!(
                "{{{} cm3}} × {} kg/m³ ÷ {} laid of what is burnt",
                volume_mm3 / 1000.0,
                filler.density_kg_m3,
                filler.recovery
            ))
            .formula(format!(
                "a rod {} × {} mm, a stub of 50 left",
                filler.rod_diameter_mm, filler.rod_length_mm
            ))
            .source(Source::House, Certainty::Estimate)
    };
    let outline_mm = (0..=20).map(|step| depth.millimetres() * f64::from(step) / 20.0);
    let outline_mm: Vec<(f64, f64)> = outline_mm.map(|up| (groove.width_at(up) / 2.0, up + lip_mm)).collect();
    Ok(Answer {
        figures: vec![
            worked(Figure::new("opens", "Opening", section.top_width_mm, Unit::Millimetres)),
            worked(Figure::new("volume", "Filler in place", volume_mm3 / 1000.0, Unit::CubicCentimetres)),
            bought(
                Figure::new("rods", "Rods", fill.rods, Unit::Count)
                    .because("Rounded up, and one more for tacks."),
            ),
            bought(Figure::new("metal", "To buy", fill.metal_g, Unit::Grams)),
        ],
        illustration: Some(Illustration::Groove { outline_mm, wall_mm }),
        ..Answer::default()
    })
}

const VOLTS: Blank = Blank::amount("volts", "Volts", Kind::Plain, (5.0, 60.0), ("22", "22"));
const AMPS: Blank = Blank::amount("amps", "Amperes", Kind::Plain, (5.0, 600.0), ("90", "90"));
const BEAD: Blank = Blank::amount("bead", "Bead", Kind::Length, (2.0, 1_000.0), ("25 mm", "1 in"));
const SECONDS: Blank = Blank::amount("seconds", "Seconds", Kind::Plain, (1.0, 600.0), ("10", "10"));
const AT: Blank = Blank::amount("at", "Part at", Kind::Temperature, (-20.0, 490.0), ("20 °C", "70 °F"));

/// House: of a covered electrode's power so much goes into the part.
const INTO_THE_PART: f64 = 0.8;

pub(super) const EDGE: Calculation = Calculation {
    id: "edge",
    name: "How hard the edge of a bead gets",
    found_by: "hard zone haz grind drill file martensite carbide preheat soften amps",
    sentence: &[
        Words("A bead of"),
        Ask(&BEAD),
        Words("laid in"),
        Ask(&SECONDS),
        Words("seconds at"),
        Ask(&AMPS),
        Words("A and"),
        Ask(&VOLTS),
        Words("V on a wall of"),
        Ask(&WALL),
        Words(","),
        Ask(&IRON),
        Words("at"),
        Ask(&AT),
        Words(", cools from {800 to 500 degC} in"),
        Said("seconds-800-500"),
        Words("seconds:"),
        Said("hard"),
        Words(". From"),
        Said("soft-from"),
        Words("on it can be filed."),
    ],
    work: edge,
    fact: None,
};

fn edge(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let iron = properties(filled);
    let pass = Pass {
        volts: filled.amount(&VOLTS),
        amps: filled.amount(&AMPS),
        travel_mm_s: filled.amount(&BEAD) / filled.amount(&SECONDS),
        efficiency: INTO_THE_PART,
    };
    let part = Celsius::new(filled.amount(&AT)).map_err(|out| out.at(AT.key))?;
    let wall = wall(filled)?;
    let seconds = t8_5_s(&iron, pass, wall, part).ok_or_else(|| {
        FieldProblem::new(AT.key, "it is too warm to harden", filled.units.say_exactly(490.0, Unit::Celsius))
    })?;
    let soft_c = softening_preheat_c(&iron, pass, wall);
    let joules = INTO_THE_PART * pass.volts * pass.amps * filled.amount(&SECONDS);
    let worked = |figure: Figure| {
        figure
            .formula(format!(
                "0.8 × {} V × {} A × {} s = {} kJ",
                number(pass.volts, 1),
                number(pass.amps, 0),
                filled.amount(&SECONDS),
                number(joules / 1000.0, 1)
            ))
            .formula("the longer of the thick and the thin plate's time from 800 to 500 °C")
            .source(Source::Law("Rosenthal's moving source".to_owned()), Certainty::Estimate)
    };
    let hard = if seconds < HARD_EDGE_S { "hard, expect to grind" } else { "soft enough to file" };
    Ok(Answer {
        figures: vec![
            worked(
                Figure::new("seconds-800-500", "Seconds from red to black", seconds, Unit::Plain)
                    .because("How fast the edge of the bead loses its heat into the cold iron beside it."),
            ),
            worked(Figure::new("soft-from", "Soft from", soft_c, Unit::Celsius).because(format!(
                "The part's own temperature from which the edge takes {HARD_EDGE_S:.0} s."
            ))),
        ],
        words: vec![("hard", hard.to_owned())],
        ..Answer::default()
    })
}

#[cfg(test)]
mod tests {
    use super::super::Reckoned;
    use super::*;
    use crate::quantity::UnitSystem;

    fn reckoned(of: &Calculation, pairs: &[(&str, &str)]) -> Result<Reckoned, Vec<FieldProblem>> {
        super::super::reckoned(of, pairs, UnitSystem::Metric)
    }

    fn figure(found: &Reckoned, id: &str) -> f64 {
        found.figures.iter().find(|it| it.id == id).unwrap().value
    }

    #[test]
    fn a_gauge_set_for_steel_is_put_right() {
        // By hand: 13 x 4600 / 5920 = 10.10; 5920 x 20 / 25.7 = 4607.00
        assert!((figure(&reckoned(&WALL_BY_GAUGE, &[]).unwrap(), "wall") - 10.101).abs() < 0.001);
        let speed = reckoned(&SOUND_SPEED, &[("shows", "25.7")]).unwrap();
        assert!((figure(&speed, "speed") - 4607.00).abs() < 0.01);
    }

    #[test]
    fn a_groove_takes_its_section_times_its_length() {
        // By hand: V 90 in 11.5: 10 deep, 100 mm2 without a crown, 20 wide; x 60 = 6.0 cm3
        let found =
            reckoned(&GROOVE, &[("angle", "90"), ("wall", "11.5 mm"), ("cap", "0"), ("seam", "60 mm")])
                .unwrap();
        assert!((figure(&found, "opens") - 20.0).abs() < 1e-9);
        assert!((figure(&found, "volume") - 6.0).abs() < 1e-9);
        assert!(figure(&found, "rods") >= 2.0);
        let problems = reckoned(&GROOVE, &[("wall", "1.2 mm")]).unwrap_err();
        assert_eq!(problems[0].field, "wall");
    }

    #[test]
    fn more_iron_than_its_box_holds_is_told_at_its_weight() {
        // 30 x 20 x 5 cm of gray iron are 21.5 kg
        let problems = reckoned(&super::super::way_down::OUT_OF_HEAT, &[("mass", "40 kg")]).unwrap_err();
        assert_eq!(problems[0].field, "mass");
        assert!(problems[0].would_be_right.contains("kg"), "{problems:?}");
    }

    #[test]
    fn a_short_cold_bead_has_a_hard_edge_and_a_warm_part_a_soft_one() {
        let cold = reckoned(&EDGE, &[]).unwrap();
        assert_eq!(cold.words["hard"], "hard, expect to grind");
        let soft = figure(&cold, "soft-from");
        let warm = reckoned(&EDGE, &[("at", &format!("{soft} C"))]).unwrap();
        assert_eq!(warm.words["hard"], "soft enough to file");
    }
}
