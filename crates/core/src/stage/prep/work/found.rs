//! What is found out and taken out first.

use crate::casting::said::Oil;
use uuid::Uuid;

use super::super::PrepInputs;
use super::{BACK_MM, BAKE_C, BAKE_MIN, List};
use crate::casting::old_filler::OldFiller;
use crate::crack::said::{CrackFate, Edges, EndKind};
use crate::field;
use crate::field::crack;
use crate::job::Work;
use crate::map::MarkKind;
use crate::quantity::{Unit, UnitSystem};

impl<'a> List<'a> {
    /// From the dirty part to the marked crack.
    pub(super) fn found(&mut self) {
        let PrepInputs { round, cracks, units, way, .. } = *self.prep();
        self.once(Work::Clean, "To bright metal along every crack, and well beyond its ends.");
        if round.get(field::part::OIL) == Some(Oil::Soaked) {
            let at = units.say(BAKE_C, Unit::Celsius);
            let thickest = cracks.iter().map(|plan| plan.wall_mm).fold(0.0, f64::max);
            let long = units.say(BAKE_MIN.0 + BAKE_MIN.1 * thickest, Unit::Minutes);
            self.line(
                Work::BakeOut,
                (None, Some(self.of_all)),
                "Solvent without chlorine, let it flash off, then bake until it neither smokes nor weeps."
                    .to_owned(),
                vec![at, format!("{long} at least")],
            );
        }
        for plan in cracks.iter().filter(|plan| plan.worked()).filter(|plan| {
            plan.ends.iter().any(|end| end.kind.is_none_or(|kind| kind == EndKind::Hidden))
                || plan.ends.iter().any(|end| end.stop_hole.is_some_and(|hole| hole.find_tip_better))
        }) {
            let sentence =
                format!("Of crack {}, with chalk and oil, dye or magnetic particles; cold.", plan.letter);
            self.line(Work::FindEnds, (Some(plan.id), None), sentence, Vec::new());
        }
        self.old_filler();
        for plan in cracks.iter().filter(|plan| plan.repaired()) {
            let Some(edge) = round.get(crack::EDGE.of(plan.id)).filter(|edge| *edge != Edges::Clean) else {
                continue;
            };
            let letter = &plan.letter;
            let sentence = match edge {
                Edges::Burnt => {
                    format!(
                        "Crack {letter} is burnt: back to gray metal, or no filler wets it. A file must bite."
                    )
                }
                Edges::Clean | Edges::FlameCut | Edges::Melted => {
                    format!("Crack {letter} was cut or melted: take its edges back until a file bites.")
                }
            };
            let least = format!("{} at least", self.say(BACK_MM));
            self.line(Work::BurntEdge, (Some(plan.id), None), sentence, vec![least]);
        }
        for plan in cracks.iter().filter(|plan| plan.full_break && plan.becomes == CrackFate::Repair) {
            let letter = &plan.letter;
            let sentence = format!(
                "The pieces of {letter}, dry, before any groove: they key together one way only. Write down gap, step \
                 and rock; force nothing closed."
            );
            self.line(Work::FitUp, (Some(plan.id), None), sentence, Vec::new());
            if way.method.entry().groove.is_some() {
                let sentence = format!(
                    "At the tacks of {letter} only, small: the rest keeps its keyed fit until it is tacked."
                );
                self.line(Work::TackGroove, (Some(plan.id), None), sentence, Vec::new());
            }
        }
        let beside = match units {
            UnitSystem::Metric => "3 mm",
            UnitSystem::Imperial => "1/8 in",
        };
        self.line(
            Work::Witness,
            (None, Some(self.of_all)),
            "Beside each crack, scribed or in paint that survives grinding: grinding smears the crack out of sight."
                .to_owned(),
            vec![format!("{beside} off")],
        );
    }

    pub(super) fn old_filler(&mut self) {
        let PrepInputs { round, way, .. } = *self.prep();
        let fusion = way.method.fusion();
        let told = |filler: OldFiller| match filler {
            OldFiller::Bronze if fusion => {
                Some("Bronze: all of it out before any fusion weld. It makes the weld crack.")
            }
            OldFiller::Bronze => {
                Some("Bronze: it may stay where it is sound. What lifts or is porous comes out.")
            }
            OldFiller::Nickel => Some("The old nickel weld cracked: out to clean casting."),
            OldFiller::Steel => {
                Some("The old steel weld cracked: out to clean casting, its hard edge with it.")
            }
            OldFiller::Other => {
                Some("Find out what it is, by colour, magnet and file; out where it will be melted.")
            }
            OldFiller::None => None,
        };
        let marks = round.marks.iter().filter(|mark| mark.what == MarkKind::OldFiller);
        let marked: Vec<(Uuid, String)> = marks
            .filter_map(|mark| {
                let told = told(round.get(field::mark::FILLER.of(mark.id))?)?;
                Some((mark.id, format!("At {}: {told}", mark.name)))
            })
            .collect();
        let of_the_part = round.old_filler().and_then(told).filter(|_| marked.is_empty());
        for (mark, sentence) in marked {
            self.line(Work::OldFiller, (Some(mark), None), sentence, Vec::new());
        }
        if let Some(sentence) = of_the_part {
            self.once(Work::OldFiller, sentence);
        }
    }
}
