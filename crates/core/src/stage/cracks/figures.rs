//! Drill, offset, pilot, speed, chance and what the hole is worth, of each end.

use super::{CrackPlan, EndPlan, wall_words};
use crate::crack::stop_hole::{Beyond, FoundBy, StopHole, drill_under, left_with_hole, stressed_over_mm};
use crate::crack::tip_offset::beyond;
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Governing, Iron, least, least_forgiving};
use crate::prep::drill_speed::{DrillTool, cutting_speed_m_min, drill_speed_rpm};
use crate::quantity::{Millimetres, Unit};
use crate::shop::Shop;

/// Drill, offset, pilot, spindle speed and the chance that it runs past, for each tip.
pub(crate) fn figures(cracks: &[CrackPlan], plausible: &[Iron], shop: &Shop) -> Vec<Figure> {
    let slowest = least(plausible, |iron| cutting_speed_m_min(iron, DrillTool::Hss));
    let weakest = least_forgiving(plausible);
    let mut figures = Vec::new();
    for crack in cracks {
        let Some(found_by) = crack.found_by else { continue };
        for end in &crack.ends {
            let Some(hole) = end.stop_hole else { continue };
            let (beyond, own) = beyond(&shop.tips, found_by);
            let asked = HoleInputs { crack, end, hole, found_by, beyond, own };
            figures.extend([asked.drill(), asked.offset(), asked.run_past()]);
            figures.extend(asked.pilot(shop));
            figures.extend(asked.spindle(&slowest));
            figures.extend(asked.left(&weakest));
        }
    }
    figures
}

/// One hole, and what it goes by.
struct HoleInputs<'a> {
    crack: &'a CrackPlan,
    end: &'a EndPlan,
    hole: StopHole,
    found_by: FoundBy,
    /// How far an end that is found like this lies further on.
    beyond: Beyond,
    /// Ends of this shop that say so.
    own: usize,
}

impl HoleInputs<'_> {
    fn id(&self, what: &str) -> String {
        format!("cracks.{}.{}.{what}", self.crack.id, self.end.side)
    }

    fn name(&self, what: &str) -> String {
        format!("{what}, {} {}", self.crack.letter, self.end.name)
    }

    /// Mean and deviation as they are shown, in mm.
    fn shown_beyond(&self) -> [f64; 2] {
        [self.beyond.mean_mm, self.beyond.deviation_mm].map(|mm| (mm * 100.0).round() / 100.0)
    }

    fn house(&self, figure: Figure) -> Figure {
        let (guess, how_sure) = wall_words(self.crack.wall_guessed);
        figure
            .fact("Wall", format!("{{{} mm}}{guess}", self.end.wall_mm))
            .fact("End", self.found_by.words())
            .source(if self.own == 0 { Source::House } else { Source::Shop }, how_sure)
    }

    fn drill(&self) -> Figure {
        let (hole, wall) = (self.hole, self.end.wall_mm);
        let because = match (self.end.drilled, hole.well_past_mm) {
            (true, _) => "The hole that is there.".to_owned(),
            (false, None) => format!(
                "Half of the wall of {{{wall} mm}}, and from there the next drill whose hole catches the tip."
            ),
            (false, Some(_)) => format!(
                "Half of the wall of {{{wall} mm}}. No drill of the set is sure to catch the tip: it goes well \
                 past, and the groove into it."
            ),
        };
        self.house(Figure::new(self.id("drill"), self.name("Stop-hole"), hole.drill_mm, Unit::Drill))
            .because(because)
            .formula(format!(
                "wanted = ½ × {{{wall} mm}}, no less than {{3.2 drill}}, no more than {{9.5 drill}}"
            ))
    }

    fn offset(&self) -> Figure {
        let (hole, [m, u]) = (self.hole, self.shown_beyond());
        let because = if self.end.drilled {
            "As it was drilled.".to_owned()
        } else {
            let here = match self.own {
                0 => String::new(),
                1 => ", by what is usual and one end that was found again here".to_owned(),
                own => format!(", by what is usual and {own} ends that were found again here"),
            };
            format!(
                "An end {} may lie {{{m} mm}} further on, give or take {{{u} mm}}{here}: so far out the hole \
                 still catches it 98 times in 100.",
                self.found_by.words()
            )
        };
        let formula = match (self.end.drilled, hole.find_tip_better, hole.well_past_mm) {
            (true, _, _) => format!("as it was drilled: {{{:.1} mm}}", hole.offset_mm),
            (false, true, _) => format!("½ × {{{} drill}}", hole.drill_mm),
            (false, false, Some(past)) => {
                format!("{{{m} mm}} + 2.05 × {{{u} mm}} − ½ × {{{} drill}} = {{{past:.1} mm}}", hole.drill_mm)
            }
            (false, false, None) => format!(
                "the larger of 0.3 × {{{d} drill}} and {{{m} mm}} + 2.05 × {{{u} mm}} − ½ × {{{d} drill}} \
                 = {{{o:.1} mm}}",
                d = hole.drill_mm,
                o = hole.offset_mm
            ),
        };
        let held = "Held at half the drill so that the crack still runs into the hole.";
        let offset =
            Figure::new(self.id("offset"), self.name("Past the tip"), hole.offset_mm, Unit::Millimetres);
        self.house(offset).because(because).formula(formula).note(if hole.find_tip_better {
            held
        } else {
            ""
        })
    }

    fn run_past(&self) -> Figure {
        let (hole, [m, u]) = (self.hole, self.shown_beyond());
        let chance = hole.run_past_chance * 100.0;
        self.house(Figure::new(self.id("run_past"), self.name("Runs past"), chance, Unit::Percent))
            .because(format!(
                "How likely the true end of the crack lies beyond the far side of the hole, {{{:.1} mm}} past \
                 where it was seen.",
                hole.offset_mm + hole.drill_mm / 2.0
            ))
            .formula(format!(
                "share of a bell curve about {{{m} mm}}, spread {{{u} mm}}, over {{{o:.1} mm}} + ½ × {{{d} drill}}",
                o = hole.offset_mm,
                d = hole.drill_mm
            ))
    }

    fn pilot(&self, shop: &Shop) -> Option<Figure> {
        let pilot = self.hole.pilot_mm?;
        let drill = drill_under(pilot, &shop.drills_mm);
        let figure = self
            .house(Figure::new(self.id("pilot"), self.name("Pilot"), drill, Unit::Drill))
            .because("Three quarters of the drill, or the next under it: it keeps the drill from wandering.")
            .formula(format!("¾ × {{{} drill}} = {{{pilot:.1} mm}}", self.hole.drill_mm));
        Some(figure)
    }

    fn spindle(&self, slowest: &Governing) -> Option<Figure> {
        let drill = Millimetres::new(self.hole.drill_mm).ok()?;
        let v = cutting_speed_m_min(slowest.iron, DrillTool::Hss);
        let rpm = drill_speed_rpm(slowest.iron, drill, DrillTool::Hss);
        let figure = self
            .house(Figure::new(self.id("rpm"), self.name("Spindle"), rpm, Unit::Rpm))
            .because(format!(
                "The edge of the drill takes {{{v} m/min}} in this iron; the thinner the drill, the faster it turns."
            ))
            .formula(format!("{{{v} m/min}} ÷ (π × {{{} drill}})", self.hole.drill_mm))
            .note("High-speed steel, dry.")
            .forced_by(slowest.forced_by());
        Some(figure)
    }

    /// What the hole is worth.
    fn left(&self, governing: &Governing) -> Option<Figure> {
        let length = self.crack.length_mm?;
        let (drill, iron) = (self.hole.drill_mm, governing.iron);
        let percent = 100.0 * left_with_hole(length, drill, iron);
        let figure = Figure::new(self.id("left"), self.name("Left of the tip's pull"), percent, Unit::Percent)
            .because(
                "Of what a bare tip is asked for, with its hole: a round end pulls less, and the crack is longer by half \
                 of the hole.",
            )
            .formula(format!(
                "√(({{{length} mm}} + ½ × {{{drill} drill}}) ÷ {{{length} mm}}) ÷ √(1 + {{{drill} drill}} ÷ (8 × {{{:.1} mm}}))",
                stressed_over_mm(iron)
            ))
            .fact("Crack", format!("{{{length} mm}}"))
            .forced_by(governing.forced_by())
            .source(
                Source::Law("Blunt notch after Creager and Paris; what iron stands at a tip is our own".to_owned()),
                Certainty::Estimate,
            );
        Some(figure)
    }
}
