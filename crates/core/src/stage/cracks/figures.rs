//! Drill, offset, pilot, speed, chance and pull of each end.

use super::{CrackPlan, wall_words};
use crate::drill_speed::{DrillTool, cutting_speed_m_min, drill_speed_rpm};
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Iron, least};
use crate::quantity::{Millimetres, Unit};
use crate::stop_hole::{BARE_TIP_RADIUS_MM, drill_under, tip_stress_factor};

/// Drill, offset, pilot, spindle speed and the chance that it runs past, for each tip.
pub(crate) fn figures(cracks: &[CrackPlan], plausible: &[Iron]) -> Vec<Figure> {
    let mut figures = Vec::new();
    let slowest = least(plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss));
    for crack in cracks {
        let wall = crack.wall_mm;
        let Some(found_by) = crack.found_by else { continue };
        for end in &crack.ends {
            let Some(hole) = end.stop_hole else { continue };
            let at = format!("cracks.{}.{}", crack.id, end.side);
            let name = |what: &str| format!("{what}, {} {}", crack.letter, end.side);
            let (m, u) = found_by.beyond_mm();
            let house = |figure: Figure| {
                let (guess, how_sure) = wall_words(crack.wall_guessed);
                figure
                    .fact("Wall", format!("{wall} mm{guess}"))
                    .fact("End", found_by.words())
                    .source(Source::House, how_sure)
            };
            figures.push(
                house(Figure::new(format!("{at}.drill"), name("Stop-hole"), hole.drill_mm, Unit::Drill))
                    .formula(if end.drilled {
                        "as it was drilled".to_owned()
                    } else {
                        format!("wanted: half of {wall} mm, between 3.2 and 9.5")
                    })
                    .formula(match (end.drilled, hole.well_past_mm) {
                        (true, _) => "the hole that is there".to_owned(),
                        (false, None) => {
                            format!("next drill whose hole catches the tip: {} mm", hole.drill_mm)
                        }
                        (false, Some(_)) => {
                            format!("no drill of the set catches it: {} mm, well past", hole.drill_mm)
                        }
                    }),
            );
            figures.push(
                house(Figure::new(
                    format!("{at}.offset"),
                    name("Past the tip"),
                    hole.offset_mm,
                    Unit::Millimetres,
                ))
                .formula(match (end.drilled, hole.find_tip_better, hole.well_past_mm) {
                    (true, _, _) => format!("as it was drilled: {:.1} mm", hole.offset_mm),
                    (false, true, _) => format!("held at {} / 2 mm", hole.drill_mm),
                    (false, false, Some(past)) => {
                        format!("{m} + 2.054 x {u} - {} / 2 = {past:.2} mm", hole.drill_mm)
                    }
                    (false, false, None) => format!(
                        "max(0.3 x {d}, {m} + 2.054 x {u} - {d} / 2) = {o:.2} mm",
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
                .formula(format!(
                    "1 - Phi(({o:.2} + {d} / 2 - {m}) / {u})",
                    o = hole.offset_mm,
                    d = hole.drill_mm
                )),
            );
            if let Some(pilot) = hole.pilot_mm {
                figures.push(
                    house(Figure::new(format!("{at}.pilot"), name("Pilot"), drill_under(pilot), Unit::Drill))
                        .formula(format!("0.75 x {} mm = {pilot:.1} mm", hole.drill_mm))
                        .formula(format!("the drill at or under it: {} mm", drill_under(pilot))),
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
                    .formula(format!("1000 x {v} / (pi x {})", hole.drill_mm))
                    .note("High-speed steel, dry.")
                    .forced_by(slowest.forced_by()),
                );
            }
            if let Some(length) = crack.length_mm {
                let from_edge = crack.ends.iter().any(|e| e.kind == "edge");
                let bare = tip_stress_factor(length, from_edge, BARE_TIP_RADIUS_MM);
                let holed = tip_stress_factor(length, from_edge, hole.drill_mm / 2.0);
                figures.push(
                    Figure::new(format!("{at}.pull"), name("Pull at the hole"), holed, Unit::Points)
                        .formula(format!("bare tip, radius 0.05 mm: {bare:.0} times"))
                        .formula(format!("hole, radius {:.1} mm: {holed:.1} times", hole.drill_mm / 2.0))
                        .fact("Crack", format!("{length} mm"))
                        .source(
                            Source::Law("Inglis' ellipse; bare tip house".to_owned()),
                            Certainty::Estimate,
                        ),
                );
            }
        }
    }
    figures
}
