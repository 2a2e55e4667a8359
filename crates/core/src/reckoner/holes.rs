//! Holes and pins: where to drill, how fast, how many.

use super::metal::{IRON, WALL, iron, wall};
use super::{
    Answer, Blank, Calculation, Filled, Illustration,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::crack::stop_hole::{FoundBy, drill_under, stop_hole as hole_for};
use crate::crack::tip_offset::beyond;
use crate::figure::{Certainty, Figure, Source};
use crate::pins::rows::{StitchOutline, StitchRow, pin_for_wall_mm, tap_drill_mm};
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min, drill_speed_rpm};
use crate::quantity::{Kind, Millimetres, Unit, UnitSystem, drill_mark, number};
use crate::shop::Shop;

const FOUND: Blank = Blank::one_of(
    "found",
    "Found with",
    &[
        ("dye", "dye"),
        ("magnetic", "magnetic particles"),
        ("chalk_and_oil", "chalk and oil"),
        ("eye", "the eye alone"),
    ],
);

pub(super) const STOP_HOLE: Calculation = Calculation {
    id: "stop-hole",
    name: "The hole that ends a crack",
    found_by: "stop drill end of crack tip how far past drill size",
    sentence: &[
        Words("The end of a crack, found with"),
        Ask(&FOUND),
        Words("in a wall of"),
        Ask(&WALL),
        Words(": drill"),
        Said("drill"),
        Words(", its middle"),
        Said("past"),
        Words("past the end that is seen; it runs on past"),
        Said("run-past"),
        Words("of such holes."),
    ],
    work: stop_hole,
    fact: None,
};

fn stop_hole(filled: &Filled, shop: &Shop) -> Result<Answer, FieldProblem> {
    let found_by = FoundBy::from_id(filled.choice(&FOUND)).unwrap_or(FoundBy::Eye);
    let (beyond, own) = beyond(&shop.tips, found_by);
    let hole = hole_for(wall(filled)?, beyond, &shop.drills_mm);
    let (m, u) = (beyond.mean_mm, beyond.deviation_mm);
    let worked = |figure: Figure| {
        let figure = figure
            .formula(format!("the true end lies {{{m:.2} mm}} beyond, give or take {{{u:.2} mm}}"))
            .formula("drill: the first of the set from half the wall on".to_owned())
            .formula(format!(
                "past: the more of 0.3 of the drill and {m:.2} + 2.054 × {u:.2} less half of it"
            ))
            .source(Source::House, Certainty::Estimate);
        if own > 0 { figure.fact("Ends found again here", own.to_string()) } else { figure }
    };
    let mut answer = Answer {
        figures: vec![
            worked(Figure::new("drill", "Stop-hole", hole.drill_mm, Unit::Drill)),
            worked(Figure::new("past", "Past the end", hole.offset_mm, Unit::Millimetres)),
            worked(
                Figure::new("run-past", "Runs on past", hole.run_past_chance * 100.0, Unit::Percent)
                    .because("The chance that the true end lies beyond the far side of the hole."),
            ),
        ],
        illustration: Some(Illustration::Tip {
            drill_mm: hole.drill_mm,
            offset_mm: hole.offset_mm,
            beyond_mm: ((m - 1.2816 * u).max(0.0), m + 1.2816 * u),
        }),
        ..Answer::default()
    };
    if let Some(pilot) = hole.pilot_mm.map(|mm| drill_under(mm, &shop.drills_mm)) {
        answer.notes.push(format!("Drill {{{pilot} drill}} first: it keeps the drill from wandering."));
    }
    if hole.find_tip_better {
        answer.notes.push("No drill here catches that end well enough: find it better first.".to_owned());
    }
    Ok(answer)
}

const DRILL: Blank = Blank::amount("drill", "Drill", Kind::Length, (0.5, 60.0), ("4.8 mm", "3/16 in"));
const TOOL: Blank = Blank::one_of("tool", "Tool", &[("hss", "high-speed steel"), ("carbide", "carbide")]);

pub(super) const DRILL_SPEED: Calculation = Calculation {
    id: "drill-speed",
    name: "How fast to turn a drill",
    found_by: "rpm revolutions speed drill press hand drill",
    sentence: &[
        Words("A drill of"),
        Ask(&DRILL),
        Words(","),
        Ask(&TOOL),
        Words(", in"),
        Ask(&IRON),
        Words("turns at"),
        Said("rpm"),
        Words("."),
    ],
    work: drill_speed,
    fact: None,
};

fn drill_speed(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let tool = if filled.choice(&TOOL) == "carbide" { DrillTool::Carbide } else { DrillTool::Hss };
    let drill = Millimetres::new(filled.amount(&DRILL)).map_err(|out| out.at(DRILL.key))?;
    let speed = cutting_speed_m_min(iron(filled), tool);
    let figure = Figure::new("rpm", "Turns", drill_speed_rpm(iron(filled), drill, tool), Unit::Rpm)
        .because(format!("So that its edge runs through the iron at {{{speed} m/min}}."))
        .formula(format!("1000 × {speed} ÷ (π × {} mm)", number(drill.millimetres(), 2)))
        .source(Source::House, Certainty::Computed);
    Ok(Answer { figures: vec![figure], ..Answer::default() })
}

pub(super) const PIN_FOR_A_WALL: Calculation = Calculation {
    id: "pin-for-a-wall",
    name: "Pin and tap drill for a wall",
    found_by: "stitch thread tap drill screw metal stitching cold",
    sentence: &[
        Words("A wall of"),
        Ask(&WALL),
        Words("is stitched with"),
        Said("pin"),
        Words(": drill"),
        Said("tap"),
        Words("for the thread."),
    ],
    work: pin_for_a_wall,
    fact: None,
};

/// The pin for a wall and the drill for its thread, or why there is none.
fn pin(filled: &Filled) -> Result<(f64, f64), FieldProblem> {
    pin_for_wall_mm(wall(filled)?).and_then(|pin| Some((pin, tap_drill_mm(pin)?))).ok_or_else(|| {
        let least = filled.units.say_exactly(5.0, Unit::Millimetres);
        FieldProblem::new(WALL.key, "no thread holds in so thin a wall", format!("from {least} on"))
    })
}

fn pin_figure(pin_mm: f64) -> Figure {
    Figure::new("pin", "Pin", pin_mm, Unit::Thread)
        .because("By the wall: the thicker it is, the coarser the thread that holds in it.")
        .formula("under 8 mm M6, under 13 mm M8, under 20 mm M10, M12 above; none under 5 mm")
        .source(Source::House, Certainty::Computed)
}

fn pin_for_a_wall(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (pin_mm, tap_mm) = pin(filled)?;
    let tap = Figure::new("tap", "Tap drill", tap_mm, Unit::TapDrill)
        .formula(format!("ISO coarse thread M{pin_mm:.0}"))
        .source(Source::Standard("ISO 261".to_owned()), Certainty::Computed);
    Ok(Answer { figures: vec![pin_figure(pin_mm), tap], ..Answer::default() })
}

const CRACK: Blank = Blank::amount("crack", "Crack", Kind::Length, (5.0, 10_000.0), ("120 mm", "5 in"));
const ROUND: Blank = Blank::amount("round", "Across", Kind::Length, (5.0, 3_000.0), ("80 mm", "3 in"));
const OVERLAP: Blank =
    Blank::one_of("overlap", "Overlap", &[("half", "half"), ("third", "a third"), ("quarter", "a quarter")]);

pub(super) const PINS_ALONG: Calculation = Calculation {
    id: "pins-along",
    name: "Pins along a crack",
    found_by: "stitch how many pins row crack spacing overlap",
    sentence: &[
        Words("A crack"),
        Ask(&CRACK),
        Words("long in a wall of"),
        Ask(&WALL),
        Words("takes"),
        Said("count"),
        Said("pin"),
        Words("pins, one into the other by"),
        Ask(&OVERLAP),
        Words(":"),
        Said("pitch"),
        Words("from middle to middle."),
    ],
    work: |filled, _| pins(filled, StitchOutline::Straight, filled.amount(&CRACK), CRACK.key),
    fact: None,
};

pub(super) const PINS_ROUND: Calculation = Calculation {
    id: "pins-round",
    name: "Pins round a hole or a patch",
    found_by: "stitch patch round hole plug how many pins perimeter",
    sentence: &[
        Words("A round patch"),
        Ask(&ROUND),
        Words("across in a wall of"),
        Ask(&WALL),
        Words("takes"),
        Said("count"),
        Said("pin"),
        Words("pins all round, one into the other by"),
        Ask(&OVERLAP),
        Words(":"),
        Said("pitch"),
        Words("from middle to middle."),
    ],
    work: |filled, _| {
        pins(filled, StitchOutline::Closed, std::f64::consts::PI * filled.amount(&ROUND), ROUND.key)
    },
    fact: None,
};

fn pins(filled: &Filled, outline: StitchOutline, length_mm: f64, at: &str) -> Result<Answer, FieldProblem> {
    let (pin_mm, _) = pin(filled)?;
    let overlap = match filled.choice(&OVERLAP) {
        "half" => 0.5,
        "third" => 1.0 / 3.0,
        _ => 0.25,
    };
    let row = StitchRow::new(outline, length_mm, pin_mm, overlap).map_err(|(_, out)| out.at(at))?;
    let found = row.pins();
    let closed = outline == StitchOutline::Closed;
    let worked = |figure: Figure| {
        figure
            .formula(format!(
                "{} mm of pins, each reaching {} mm",
                number(length_mm, 0),
                number(pin_mm * (1.0 - overlap), 2)
            ))
            .source(Source::Arithmetic, Certainty::Computed)
    };
    Ok(Answer {
        figures: vec![
            worked(Figure::new("count", "Pins", f64::from(found.pins), Unit::Count)),
            pin_figure(pin_mm),
            worked(Figure::new("pitch", "Pitch", found.pitch_mm, Unit::Millimetres)),
        ],
        illustration: Some(Illustration::Row { count: found.pins, pin_mm, pitch_mm: found.pitch_mm, closed }),
        ..Answer::default()
    })
}

pub(super) const NAMED_DRILL: Calculation = Calculation {
    id: "named-drill",
    name: "A drill by its mark",
    found_by: "inch fraction millimetre convert letter number drill size",
    sentence: &[
        Words("A drill of"),
        Ask(&DRILL),
        Words("is"),
        Said("metric"),
        Words("or"),
        Said("inches"),
        Words("; the nearest that is sold by a mark is"),
        Said("mark"),
        Words("."),
    ],
    work: |filled, _| {
        let mm = filled.amount(&DRILL);
        let exact = |units: UnitSystem| units.say_exactly(mm, Unit::Millimetres);
        let mark = match drill_mark(mm) {
            Some((mark, inches)) => format!("{mark} ({} in)", number(inches, 4)),
            None => "none that comes near".to_owned(),
        };
        Ok(Answer {
            words: vec![
                ("metric", exact(UnitSystem::Metric)),
                ("inches", exact(UnitSystem::Imperial)),
                ("mark", mark),
            ],
            ..Answer::default()
        })
    },
    fact: None,
};

#[cfg(test)]
mod tests {
    use super::super::Reckoned;
    use super::*;

    fn reckoned(of: &Calculation, pairs: &[(&str, &str)]) -> Result<Reckoned, Vec<FieldProblem>> {
        super::super::reckoned(of, pairs, UnitSystem::Metric)
    }

    #[test]
    fn pins_along_and_round_are_counted_from_edge_to_edge() {
        let count = |found: &Reckoned| found.figures[0].value;
        // By hand: M8 reaching 4: (120 - 8) / 4 = 28 gaps, 29 pins
        let along = reckoned(&PINS_ALONG, &[("crack", "120 mm"), ("wall", "10 mm")]).unwrap();
        assert_eq!(count(&along), 29.0);
        // pi x 80 = 251.3 / 4 = 62.8: 63
        let round = reckoned(&PINS_ROUND, &[("round", "80 mm"), ("wall", "10 mm")]).unwrap();
        assert_eq!(count(&round), 63.0);
    }

    #[test]
    fn a_wall_that_holds_no_thread_is_told_at_the_wall() {
        let problems = reckoned(&PIN_FOR_A_WALL, &[("wall", "4 mm")]).unwrap_err();
        assert_eq!(problems[0].field, "wall");
        assert_eq!(reckoned(&PIN_FOR_A_WALL, &[("wall", "5 mm")]).unwrap().figures[0].value, 6.0);
    }

    #[test]
    fn an_end_seen_by_eye_wants_to_be_found_better() {
        let eye = reckoned(&STOP_HOLE, &[("found", "eye"), ("wall", "9 mm")]).unwrap();
        assert!(eye.notes.iter().any(|it| it.contains("find it better")), "{:?}", eye.notes);
        let dye = reckoned(&STOP_HOLE, &[("wall", "9 mm")]).unwrap();
        // By hand: 4.8; the more of 1.44 and 0.7 + 2.054 x 0.8 - 2.4 = -0.06
        assert!((dye.figures[0].value - 4.8).abs() < 1e-9 && (dye.figures[1].value - 1.44).abs() < 1e-9);
    }
}
