//! Groove, pins, beads, filler and rods, with their workings.

use super::{PrepPlan, SeamPlan};
use crate::figure::{Certainty, Figure, Source};
use crate::prep::filler::Filler;
use crate::prep::groove::GrooveSection;
use crate::prep::missing_metal::ALLOWANCE_MM;
use crate::prep::said::SeamForm;
use crate::quantity::{Unit, number};
use crate::stage::cracks::wall_words;

/// The pins round a patch.
fn round_a_patch(seam: &SeamPlan) -> [Figure; 4] {
    let at = |what: &str| format!("prep.{}.{what}", seam.id);
    let name = |what: &str| format!("{what}, {}", seam.letter);
    let facts = |figure: Figure| {
        figure
            .fact("Where it meets the casting", format!("{{{:.1} mm}} long", seam.length_mm))
            .fact("Wall", format!("{{{} mm}}, the thinner of the two", seam.wall_mm))
            .source(Source::House, wall_words(false).1)
    };
    [
        facts(Figure::new(at("pins"), name("Pins"), f64::from(seam.pins), Unit::Count))
            .because("All along where patch and casting meet, each biting into the last.")
            .formula(format!(
                "{{{:.1} mm}} along the joint, one each {{{:.1} mm}}",
                seam.length_mm, seam.pitch_mm
            )),
        facts(Figure::new(at("pin"), name("Pin"), seam.pin_mm, Unit::Thread))
            .because(format!("The pin for a wall of {{{} mm}}.", seam.wall_mm)),
        facts(Figure::new(at("pitch"), name("Pitch"), seam.pitch_mm, Unit::Millimetres)).because(
            "A third of each pin bites into the last, half where it is tight; what is left over is spread.",
        ),
        facts(Figure::new(at("tap_drill"), name("Tap drill"), seam.tap_drill_mm, Unit::TapDrill))
            .because(format!("The tap drill of M{}, coarse thread.", seam.pin_mm)),
    ]
}

pub(crate) fn figures(prep: &PrepPlan, ductile: bool) -> Vec<Figure> {
    let mut figures: Vec<Figure> = prep.seams.iter().flat_map(of_seam).collect();
    let thickest = prep.seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    if let Some(filler) = prep.way.method.filler(thickest, ductile) {
        figures.extend(filler_figures(prep, &filler));
    }
    if prep.beads > 0 {
        figures.push(
            Figure::new("prep.beads", "Beads", f64::from(prep.beads), Unit::Count)
                .because(format!(
                    "Layers, beads beside each other and lengths of {{{} mm}} each, over all seams and sides.",
                    prep.bead_mm
                ))
                .formula("layers × beads across × lengths, each seam, each side")
                .source(Source::House, Certainty::Estimate),
        );
    }
    if prep.locks > 0 {
        figures.push(
            Figure::new("prep.locks", "Locks", f64::from(prep.locks), Unit::Count)
                .because(
                    "Across the cracks, one each {40 to 60 mm}: they hold what pins alone would let open.",
                )
                .source(Source::House, Certainty::Computed),
        );
    }
    if prep.pins > 0 {
        figures.push(
            Figure::new("prep.pins", "Pins", f64::from(prep.pins), Unit::Count)
                .because("All cracks together.")
                .source(Source::House, Certainty::Computed),
        );
    }
    figures
}

/// Of one seam: its groove, or its row of pins.
fn of_seam(seam: &SeamPlan) -> Vec<Figure> {
    match (seam.form, seam.section) {
        (Some(form), Some(section)) => groove(seam, form, section).into(),
        _ if seam.pins == 0 => Vec::new(),
        _ if seam.patch.is_some() => round_a_patch(seam).into(),
        _ => row_of_pins(seam).into(),
    }
}

/// A figure of a seam, with what it was worked out from.
fn at_seam(seam: &SeamPlan, what: &str, name: &str, value: f64, unit: Unit) -> Figure {
    let (guess, how_sure) = wall_words(seam.wall_guessed);
    Figure::new(format!("prep.{}.{what}", seam.id), format!("{name}, {}", seam.letter), value, unit)
        .fact("Crack", format!("{{{} mm}} long", seam.length_mm))
        .fact("Wall", format!("{{{} mm}}{guess}", seam.wall_mm))
        .source(Source::Arithmetic, how_sure)
}

fn groove(seam: &SeamPlan, form: SeamForm, section: GrooveSection) -> [Figure; 3] {
    let how_sure = wall_words(seam.wall_guessed).1;
    let half_deg = number(seam.angle_deg / 2.0, 1);
    let deep = match form {
        _ if seam.ground => "As it was ground.".to_owned(),
        SeamForm::DoubleV => {
            format!("A double V: half of the wall of {{{} mm}} from each side.", seam.wall_mm)
        }
        _ => format!("{} in a wall of {{{} mm}}.", form.words(), seam.wall_mm),
    };
    let width = if form == SeamForm::U {
        "2 × (r cos ½α + (depth − r + r sin ½α) × tan ½α) + gap".to_owned()
    } else {
        format!("2 × {{{:.1} mm}} × tan {half_deg}° + gap {{{} mm}}", seam.depth_mm, seam.root_gap_mm)
    };
    let area = if form == SeamForm::U {
        "the round bottom + what stands over it + gap × depth + ⅔ × width × crown".to_owned()
    } else {
        format!(
            "({{{d:.1} mm}})² × tan {half_deg}° + {{{} mm}} × {{{d:.1} mm}} + ⅔ × {{{:.1} mm}} × {{{} mm}}",
            seam.root_gap_mm,
            section.top_width_mm,
            seam.cap_mm,
            d = seam.depth_mm
        )
    };
    [
        at_seam(seam, "depth", "Depth", seam.depth_mm, Unit::Millimetres)
            .because(deep)
            .source(Source::House, how_sure),
        at_seam(seam, "width", "Opens", section.top_width_mm, Unit::Millimetres)
            .because(format!(
                "{}, {{{:.1} mm}} deep, opened to {}° in all.",
                form.words(),
                seam.depth_mm,
                seam.angle_deg
            ))
            .formula(width),
        at_seam(seam, "area", "Section", section.area_mm2, Unit::SquareMillimetres)
            .because(format!(
                "What the groove takes, {{{:.1} mm}} deep and {}° open, with a crown of {{{} mm}}.",
                seam.depth_mm, seam.angle_deg, seam.cap_mm
            ))
            .formula(area),
    ]
}

fn row_of_pins(seam: &SeamPlan) -> [Figure; 4] {
    let how_sure = wall_words(seam.wall_guessed).1;
    [
        at_seam(seam, "pins", "Pins", f64::from(seam.pins), Unit::Count)
            .because("Enough to fill the crack and one pin beyond each tip, each biting into the last.")
            .formula(format!(
                "({{{:.1} mm}} − {{{} mm}}) ÷ {{{:.1} mm}} + 1, the crack and a pin beyond each tip",
                f64::from(seam.pins - 1) * seam.pitch_mm + seam.pin_mm,
                seam.pin_mm,
                seam.pitch_mm
            ))
            .source(Source::House, how_sure),
        at_seam(seam, "pin", "Pin", seam.pin_mm, Unit::Thread)
            .because(format!("The pin for a wall of {{{} mm}}.", seam.wall_mm))
            .source(Source::House, how_sure),
        at_seam(seam, "pitch", "Pitch", seam.pitch_mm, Unit::Millimetres)
            .because("A third of each pin bites into the last; what is left over is spread along the row."),
        at_seam(seam, "tap_drill", "Tap drill", seam.tap_drill_mm, Unit::TapDrill)
            .because(format!("The tap drill of M{}, coarse thread.", seam.pin_mm)),
    ]
}

fn filler_figures(prep: &PrepPlan, filler: &Filler) -> Vec<Figure> {
    let metal = filler.metal_g(prep.first_cm3);
    let usable = filler.usable_rod_g();
    let mut volume = Figure::new("prep.volume", "Filler in place", prep.volume_cm3, Unit::CubicCentimetres)
        .because("What all grooves take, and the stop-holes with them.");
    for seam in &prep.seams {
        if let Some(section) = seam.section {
            let sides = if seam.is_double() { "2 sides × " } else { "" };
            if seam.cuts.len() > 1 {
                volume = volume.formula(format!(
                    "{}: {sides}the sections along {{{} mm}} of changing wall, added up + its holes, countersunk = \
                     {{{:.1} cm3}}",
                    seam.letter, seam.length_mm, seam.volume_cm3
                ));
                continue;
            }
            volume = volume.formula(format!(
                "{}: {sides}{{{:.0} mm2}} × {{{} mm}} + its holes, countersunk = {{{:.1} cm3}}",
                seam.letter, section.area_mm2, seam.length_mm, seam.volume_cm3
            ));
        }
    }
    if prep.missing_cm3 > 0.0 {
        volume = volume.formula(format!(
            "missing metal with {{{ALLOWANCE_MM} mm}} on each free side = {{{:.1} cm3}}",
            prep.missing_cm3
        ));
    }
    let rods = if filler.wire() {
        Figure::new("prep.rods", "Wire", metal, Unit::Grams)
            .because("It comes off a spool: there are no rods to count.")
            .fact("Filler", format!("{} {}", filler.class, filler.name))
            .source(Source::Standard("AWS A5.7; what stays our own".to_owned()), Certainty::Estimate)
    } else {
        Figure::new("prep.rods", "Rods", prep.rods, Unit::Count)
            .because(format!(
                "One rod of {{{} drill}} gives {{{usable:.0} g}} without its stub; one more is for tacks.",
                number(filler.rod_diameter_mm, 1)
            ))
            .formula(format!(
                "{{{metal:.0} g}} ÷ {{{usable:.1} g}} = {:.1}, the next whole one, + 1",
                metal / usable
            ))
            .fact("Filler", format!("{} {}", filler.class, filler.name))
            .source(Source::Standard("AWS A5.15; what stays our own".to_owned()), Certainty::Estimate)
    };
    let over = prep.over_it.as_ref().map(|over| {
        Figure::new("prep.over", "Laid over it", over.metal_g, Unit::Grams)
            .because("The first layer is on the iron; the rest is laid on that alone.")
            .formula(format!(
                "{{{:.1} cm3}} − {{{:.1} cm3}} of the first layer",
                prep.volume_cm3, prep.first_cm3
            ))
            .fact("Filler", over.filler.clone())
            .source(Source::House, Certainty::Estimate)
    });
    let metal = vec![
        volume,
        Figure::new("prep.metal", "Metal to buy", metal, Unit::Grams)
            .because(format!(
                "{} % of this filler stays in the groove: so much of it has to be at hand.",
                number(filler.recovery * 100.0, 0)
            ))
            .formula(format!(
                "{{{:.1} cm3}} × {{{:.0} kg/m3}} ÷ {:.2} = {{{metal:.0} g}}",
                prep.first_cm3, filler.density_kg_m3, filler.recovery
            ))
            .fact("Filler", filler.class)
            .source(Source::Standard("AWS A5.15; what stays our own".to_owned()), Certainty::Estimate),
        rods,
    ];
    metal.into_iter().chain(over).collect()
}
