//! Groove, pins, beads, filler and rods, with their workings.

use super::PrepPlan;
use crate::figure::{Certainty, Figure, Source};
use crate::filler::Filler;
use crate::quantity::{Unit, number};
use crate::stage::cracks::wall_words;

pub(crate) fn figures(prep: &PrepPlan, ductile: bool) -> Vec<Figure> {
    let mut figures = Vec::new();
    for seam in &prep.seams {
        let at = |what: &str| format!("prep.{}.{what}", seam.id);
        let name = |what: &str| format!("{what}, {}", seam.letter);
        let (guess, how_sure) = wall_words(seam.wall_guessed);
        let facts = |figure: Figure| {
            figure
                .fact("Crack", format!("{} mm long", seam.length_mm))
                .fact("Wall", format!("{} mm{guess}", seam.wall_mm))
                .source(Source::Arithmetic, how_sure)
        };
        match (&seam.form, seam.section) {
            (Some(form), Some(section)) => {
                figures.push(
                    facts(Figure::new(at("depth"), name("Depth"), seam.depth_mm, Unit::Millimetres))
                        .formula(if seam.ground {
                            "as it was ground".to_owned()
                        } else {
                            format!("{form} in a wall of {} mm", seam.wall_mm)
                        })
                        .source(Source::House, how_sure),
                );
                figures.push(
                    facts(Figure::new(at("width"), name("Opens"), section.top_width_mm, Unit::Millimetres))
                        .formula(format!("{form}, {:.1} mm deep, {}° in all", seam.depth_mm, seam.angle_deg)),
                );
                figures.push(
                    facts(Figure::new(
                        at("area"),
                        name("Section"),
                        section.area_mm2,
                        Unit::SquareMillimetres,
                    ))
                    .formula(format!(
                        "{form}, {:.1} mm deep, {}°, gap {}, crown {}",
                        seam.depth_mm, seam.angle_deg, seam.root_gap_mm, seam.cap_mm
                    )),
                );
            }
            _ => {
                figures.push(
                    facts(Figure::new(at("pins"), name("Pins"), f64::from(seam.pins), Unit::Count))
                        .formula(format!("to fill: {} + 2 x {} mm", seam.length_mm, seam.pin_mm))
                        .formula(format!("pitch {:.2} mm", seam.pitch_mm))
                        .source(Source::House, how_sure),
                );
                figures.push(
                    facts(Figure::new(at("pin"), name("Pin"), seam.pin_mm, Unit::Drill))
                        .formula(format!("wall {} mm", seam.wall_mm))
                        .source(Source::House, how_sure),
                );
                figures.push(
                    facts(Figure::new(at("pitch"), name("Pitch"), seam.pitch_mm, Unit::Millimetres))
                        .formula("evened out over the row"),
                );
                figures.push(
                    facts(Figure::new(at("tap_drill"), name("Tap drill"), seam.tap_drill_mm, Unit::Drill))
                        .formula(format!("ISO coarse, M{}", seam.pin_mm)),
                );
            }
        }
    }
    let thickest = prep.seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    if let Some(filler) = prep.way.method.filler(thickest, ductile) {
        figures.extend(filler_figures(prep, &filler));
    }
    if prep.beads > 0 {
        figures.push(
            Figure::new("prep.beads", "Beads", f64::from(prep.beads), Unit::Count)
                .formula("layers x beads across x lengths, each seam, each side")
                .formula(format!(
                    "{} mm a bead, {} school",
                    prep.way.school.bead_mm(),
                    prep.way.school.word()
                ))
                .source(Source::House, Certainty::Estimate),
        );
    }
    if prep.pins > 0 {
        figures.push(
            Figure::new("prep.pins", "Pins", f64::from(prep.pins), Unit::Count)
                .formula("all seams together")
                .source(Source::House, Certainty::Computed),
        );
    }
    figures
}

fn filler_figures(prep: &PrepPlan, filler: &Filler) -> Vec<Figure> {
    let metal = filler.metal_g(prep.volume_cm3);
    let usable = filler.usable_rod_g();
    let mut volume = Figure::new("prep.volume", "Filler in place", prep.volume_cm3, Unit::CubicCentimetres);
    for seam in &prep.seams {
        if let Some(section) = seam.section {
            let sides = if seam.form.as_deref() == Some("double_V") { "2 sides x " } else { "" };
            volume = volume.formula(format!(
                "{}: {sides}{:.0} mm² x {} mm, and its holes, countersunk = {:.1} cm³",
                seam.letter, section.area_mm2, seam.length_mm, seam.volume_cm3
            ));
        }
    }
    let density = filler.density_kg_m3 / 1000.0;
    vec![
        volume,
        Figure::new("prep.metal", "Metal to buy", metal, Unit::Grams)
            .formula(format!("{:.1} x {density:.2} / {:.2} = {metal:.0} g", prep.volume_cm3, filler.recovery))
            .fact("Filler", filler.class)
            .source(Source::Standard("AWS A5.15; recovery house".to_owned()), Certainty::Estimate),
        Figure::new("prep.rods", "Rods", prep.rods, Unit::Count)
            .formula(format!(
                "one {} x {} mm rod, stub off: {usable:.1} g",
                number(filler.rod_diameter_mm, 1),
                filler.rod_length_mm
            ))
            .formula(format!("{metal:.0} / {usable:.1} = {:.1}, up, + 1 for tacks", metal / usable))
            .fact("Filler", format!("{} {}", filler.class, filler.name))
            .source(Source::Standard("AWS A5.15; recovery house".to_owned()), Certainty::Estimate),
    ]
}
