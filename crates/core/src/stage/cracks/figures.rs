//! Drill, offset, pilot, speed, chance and pull of each end.

use super::{CrackPlan, wall_words};
use crate::crack::stop_hole::{BARE_TIP_RADIUS_MM, Beyond, drill_under, tip_stress_factor};
use crate::crack::tip_offset::beyond;
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Iron, least};
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min, drill_speed_rpm};
use crate::quantity::{Millimetres, Unit};
use crate::shop::Shop;

/// Drill, offset, pilot, spindle speed and the chance that it runs past, for each tip.
pub(crate) fn figures(cracks: &[CrackPlan], plausible: &[Iron], shop: &Shop) -> Vec<Figure> {
    let mut figures = Vec::new();
    let slowest = least(plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss));
    for crack in cracks {
        let Some(found_by) = crack.found_by else { continue };
        for end in &crack.ends {
            let Some(hole) = end.stop_hole else { continue };
            let wall = end.wall_mm;
            let at = format!("cracks.{}.{}", crack.id, end.side);
            let name = |what: &str| format!("{what}, {} {}", crack.letter, end.name);
            let (Beyond { mean_mm, deviation_mm }, own) = beyond(&shop.tips, found_by);
            let [m, u] = [mean_mm, deviation_mm].map(|mm| (mm * 100.0).round() / 100.0);
            let house = |figure: Figure| {
                let (guess, how_sure) = wall_words(crack.wall_guessed);
                figure
                    .fact("Wall", format!("{{{wall} mm}}{guess}"))
                    .fact("End", found_by.words())
                    .source(if own == 0 { Source::House } else { Source::Shop }, how_sure)
            };
            figures.push(
                house(Figure::new(format!("{at}.drill"), name("Stop-hole"), hole.drill_mm, Unit::Drill))
                    .because(match (end.drilled, hole.well_past_mm) {
                        (true, _) => "The hole that is there.".to_owned(),
                        (false, None) => format!(
                            "Half of the wall of {{{wall} mm}}, and from there the next drill whose hole catches \
                             the tip."
                        ),
                        (false, Some(_)) => format!(
                            "Half of the wall of {{{wall} mm}}. No drill of the set is sure to catch the tip: it \
                             goes well past, and the groove into it."
                        ),
                    })
                    .formula(format!(
                        "wanted = ½ × {{{wall} mm}}, no less than {{3.2 drill}}, no more than {{9.5 drill}}"
                    )),
            );
            figures.push(
                house(Figure::new(
                    format!("{at}.offset"),
                    name("Past the tip"),
                    hole.offset_mm,
                    Unit::Millimetres,
                ))
                .because(if end.drilled {
                    "As it was drilled.".to_owned()
                } else {
                    let here = match own {
                        0 => String::new(),
                        1 => ", by what is usual and one end that was found again here".to_owned(),
                        own => format!(", by what is usual and {own} ends that were found again here"),
                    };
                    format!(
                        "An end {} may lie {{{m} mm}} further on, give or take {{{u} mm}}{here}: so far out the \
                         hole still catches it 98 times in 100.",
                        found_by.words()
                    )
                })
                .formula(match (end.drilled, hole.find_tip_better, hole.well_past_mm) {
                    (true, _, _) => format!("as it was drilled: {{{:.1} mm}}", hole.offset_mm),
                    (false, true, _) => format!("½ × {{{} drill}}", hole.drill_mm),
                    (false, false, Some(past)) => format!(
                        "{{{m} mm}} + 2.05 × {{{u} mm}} − ½ × {{{} drill}} = {{{past:.1} mm}}",
                        hole.drill_mm
                    ),
                    (false, false, None) => format!(
                        "the larger of 0.3 × {{{d} drill}} and {{{m} mm}} + 2.05 × {{{u} mm}} − ½ × {{{d} drill}} \
                         = {{{o:.1} mm}}",
                        d = hole.drill_mm,
                        o = hole.offset_mm
                    ),
                })
                .note(if hole.find_tip_better {
                    "Held at half the drill so that the crack still runs into the hole."
                } else {
                    ""
                }),
            );
            figures.push(
                house(Figure::new(
                    format!("{at}.run_past"),
                    name("Runs past"),
                    hole.run_past_chance * 100.0,
                    Unit::Percent,
                ))
                .because(format!(
                    "How likely the true end of the crack lies beyond the far side of the hole, \
                     {{{:.1} mm}} past where it was seen.",
                    hole.offset_mm + hole.drill_mm / 2.0
                ))
                .formula(format!(
                    "share of a bell curve about {{{m} mm}}, spread {{{u} mm}}, over {{{o:.1} mm}} + ½ × {{{d} drill}}",
                    o = hole.offset_mm,
                    d = hole.drill_mm
                )),
            );
            if let Some(pilot) = hole.pilot_mm {
                figures.push(
                    house(Figure::new(format!("{at}.pilot"), name("Pilot"), drill_under(pilot, &shop.drills_mm), Unit::Drill))
                        .because("Three quarters of the drill, or the next under it: it keeps the drill from wandering.")
                        .formula(format!("¾ × {{{} drill}} = {{{pilot:.1} mm}}", hole.drill_mm)),
                );
            }
            if let Ok(drill) = Millimetres::new(hole.drill_mm) {
                let v = cutting_speed_m_min(slowest.iron, DrillTool::Hss);
                figures.push(
                    house(Figure::new(
                        format!("{at}.rpm"),
                        name("Spindle"),
                        drill_speed_rpm(slowest.iron, drill, DrillTool::Hss),
                        Unit::Rpm,
                    ))
                    .because(format!(
                        "The edge of the drill takes {{{v} m/min}} in this iron; the thinner the drill, the faster \
                         it turns."
                    ))
                    .formula(format!("{{{v} m/min}} ÷ (π × {{{} drill}})", hole.drill_mm))
                    .note("High-speed steel, dry.")
                    .forced_by(slowest.forced_by()),
                );
            }
            if let Some(length) = crack.length_mm {
                let from_edge = crack.ends.iter().any(|e| e.kind == "edge");
                let bare = tip_stress_factor(length, from_edge, BARE_TIP_RADIUS_MM);
                let holed = tip_stress_factor(length, from_edge, hole.drill_mm / 2.0);
                figures.push(
                    Figure::new(format!("{at}.pull"), name("Load at the hole, against the part's"), holed, Unit::Times)
                        .because(format!(
                            "The load that goes round the crack crowds at its end: {bare:.0} times what the part \
                             carries there at the bare tip, {holed:.0} times at a round hole."
                        ))
                        .formula(format!(
                            "1 + 2 × √({} ÷ r): r = {{{BARE_TIP_RADIUS_MM} mm}} at the tip, {{{:.1} mm}} at the hole",
                            if from_edge {
                                format!("1.25 × {{{length} mm}}")
                            } else {
                                format!("½ × {{{length} mm}}")
                            },
                            hole.drill_mm / 2.0
                        ))
                        .fact("Crack", format!("{{{length} mm}}"))
                        .source(
                            Source::Law("Inglis' ellipse; radius of a bare tip our own".to_owned()),
                            Certainty::Estimate,
                        ),
                );
            }
        }
    }
    figures
}
