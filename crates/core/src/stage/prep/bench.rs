//! The bench beside the groove, whatever the method: how the pieces of a break fit, what their faces tell, the metal
//! that is missing, what has to be as it was.

use crate::casting::said::BrokeBy;
use crate::prep::said::AlignBy;
use serde::Serialize;
use uuid::Uuid;

use super::patch::PatchPlan;
use super::seam::rounded;
use super::size::SizePlan;
use crate::crack::said::CrackFate;
use crate::field::{self, crack, face, mark};
use crate::job::{Mark, Round, SeamReading, SeamReadingKind};
use crate::map::{MarkKind, Shape, area_mm2, place_along, tacks_mm};
use crate::prep::fit_up::{BrokenFace, ROCK_MOST_MM, rock_over_300_mm};
use crate::prep::missing_metal::{ALLOWANCE_MM, MissingMetal};
use crate::quantity::{MM_PER_IN, Unit, UnitSystem, both, number};
use crate::stage::cracks::{CrackPlan, FaceGeometry, by_rule};
use crate::stage::{Caution, Station};

/// What the bench shows beside the groove.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BenchPlan {
    /// Full breaks that are joined again.
    pub breaks: Vec<BreakPlan>,
    pub missing: Vec<MissingPlan>,
    /// Sizes to keep or to restore.
    pub features: Vec<SizePlan>,
    /// What mends the cause, where a break was caused by what a weld does not change; empty for nothing.
    pub cause: Vec<String>,
}

/// A full break as its pieces lie on the bench.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BreakPlan {
    pub crack: Uuid,
    pub letter: String,
    /// Gap, step, rock and run-out as they were read, in the order said.
    pub read: Vec<ReadLine>,
    /// What they mean, each a sentence.
    pub means: Vec<String>,
    /// It rocks: the casting holds locked-in stress.
    pub locked_in: bool,
    /// What its alignment is read by: "a pin through the holes, a straight edge"; empty while nobody has said.
    pub align_words: String,
    /// Where the tacks go, in their order.
    pub tacks: Vec<TackPlan>,
    /// What its broken faces tell.
    pub tells: Vec<String>,
}

/// Something read at the bench.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ReadLine {
    /// The fact that said it.
    pub id: Uuid,
    pub words: String,
}

/// A tack and what the alignment was after it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TackPlan {
    pub number: u32,
    /// "37 mm along, 41 mm from the left edge"
    pub words: String,
    /// The last check of the alignment after it.
    pub checked: Option<ReadLine>,
    pub moved: bool,
}

/// Metal that is missing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MissingPlan {
    pub mark: Uuid,
    pub name: String,
    /// With what is left to be machined off; nothing while it is not known how thick it is.
    #[serde(skip)]
    pub volume_cm3: Option<f64>,
    /// Of it the first layer, over all of the bond face.
    #[serde(skip)]
    pub butter_cm3: Option<f64>,
    pub sentence: String,
    /// A patch is set in there; nothing where metal closes it.
    pub patch: Option<PatchPlan>,
}

impl BenchPlan {
    /// A patch is to be set in somewhere.
    #[must_use]
    pub fn patched(&self) -> bool {
        self.missing.iter().any(|it| it.patch.is_some())
    }

    /// A break was found to rock, and so holds stress.
    #[must_use]
    pub fn locked_in(&self) -> bool {
        self.breaks.iter().any(|it| it.locked_in)
    }
}

pub(crate) struct BenchInputs<'a> {
    pub round: &'a Round,
    pub laid: &'a FaceGeometry<'a>,
    pub cracks: &'a [CrackPlan],
    pub units: UnitSystem,
}

impl BenchInputs<'_> {
    fn say(&self, mm: f64) -> String {
        self.units.say(rounded(mm), Unit::Millimetres)
    }

    /// As a feeler gauge or a micrometer reads it: hundredths of a millimetre, thousandths of an inch and never
    /// fractions of one.
    pub(super) fn exactly(&self, mm: f64) -> String {
        match self.units {
            UnitSystem::Metric => format!("{} mm", number(mm, 2)),
            UnitSystem::Imperial => format!("{} in", number(mm / MM_PER_IN, 3)),
        }
    }

    pub fn plan(&self) -> BenchPlan {
        let joined = self.cracks.iter().filter(|plan| plan.full_break && plan.becomes == CrackFate::Repair);
        BenchPlan {
            breaks: joined.map(|plan| self.of_break(plan)).collect(),
            missing: self.marks(MarkKind::MissingPiece).filter_map(|mark| self.missing(mark)).collect(),
            features: self.marks(MarkKind::Feature).map(|mark| self.size(mark)).collect(),
            cause: self.cause(),
        }
    }

    fn marks(&self, what: MarkKind) -> impl Iterator<Item = &Mark> {
        self.round.marks.iter().filter(move |mark| mark.what == what)
    }

    fn of_break(&self, plan: &CrackPlan) -> BreakPlan {
        let of = || self.round.at_seams.iter().filter(|reading| reading.crack == plan.id);
        let read = of().filter(|it| !matches!(it.what, SeamReadingKind::Depth | SeamReadingKind::Tack));
        let worst = |what: &str| of().filter_map(|it| it.mm(what)).reduce(f64::max);
        let rocks = of().filter(|it| it.what == SeamReadingKind::Rock);
        let rock = rocks.filter_map(|it| rock_over_300_mm(it.mm("rock")?, it.mm("over")?).ok());
        let rock = rock.reduce(f64::max);
        let locked_in = rock.is_some_and(|mm| mm > ROCK_MOST_MM);
        let mut means = Vec::new();
        if let Some(rock) = rock {
            means.push(if locked_in {
                format!(
                    "It rocks {} over {}: the casting holds locked-in stress. Join it in its free shape; do not pull it \
                     flat.",
                    self.exactly(rock),
                    self.say(300.0)
                )
            } else {
                format!(
                    "It rocks {} over {}: not over the {} that say locked-in stress.",
                    self.exactly(rock),
                    self.say(300.0),
                    self.exactly(ROCK_MOST_MM)
                )
            });
        }
        if let Some(gap) = worst("gap").filter(|gap| *gap > 0.0) {
            means.push(format!(
                "The widest gap is {}: do not force it closed. Fill it, and write it down.",
                self.exactly(gap)
            ));
        }
        if let Some(step) = worst("step").filter(|step| *step > 0.0) {
            means.push(format!(
                "The largest step is {}: look for a chip or dirt between the faces before the first tack.",
                self.exactly(step)
            ));
        }
        if let Some(out) = worst("run_out").filter(|out| *out > 0.0) {
            means.push(format!("A pin through the holes runs out {}.", self.exactly(out)));
        }
        let tacks = self.tacks(plan, of().filter(|it| it.what == SeamReadingKind::Tack));
        if tacks.iter().any(|tack| tack.moved) {
            means.push(
                "It moved at a tack: stop, let it go hand-warm, measure, cut that tack out before the next one."
                    .to_owned(),
            );
        }
        BreakPlan {
            crack: plan.id,
            letter: plan.letter.clone(),
            read: read.map(|it| ReadLine { id: it.id, words: self.words(it) }).collect(),
            means,
            locked_in,
            align_words: self.align_words(plan),
            tacks,
            tells: self.tells(plan),
        }
    }

    fn align_words(&self, plan: &CrackPlan) -> String {
        let said = self.round.get(crack::ALIGN_BY.of(plan.id)).unwrap_or_default();
        let chosen = AlignBy::all().filter(|by| said.contains(by));
        chosen.map(|by| by.label().to_lowercase()).collect::<Vec<_>>().join(", ")
    }

    fn words(&self, reading: &SeamReading) -> String {
        let mm = |name: &str| reading.mm(name).map(|mm| self.exactly(mm));
        match reading.what {
            SeamReadingKind::Rock => {
                format!("rocks {} over {}", mm("rock").unwrap_or_default(), mm("over").unwrap_or_default())
            }
            SeamReadingKind::Pin => format!("pin runs out {}", mm("run_out").unwrap_or_default()),
            SeamReadingKind::Depth | SeamReadingKind::FitUp | SeamReadingKind::Tack => {
                let at = mm("at").map(|at| format!("{at} along"));
                let said = ["gap", "step", "depth"]
                    .into_iter()
                    .filter_map(|name| Some(format!("{name} {}", mm(name)?)));
                at.into_iter().chain(said).collect::<Vec<_>>().join(", ")
            }
        }
    }

    fn tacks<'r>(&self, plan: &CrackPlan, checks: impl Iterator<Item = &'r SeamReading>) -> Vec<TackPlan> {
        let checks: Vec<&SeamReading> = checks.collect();
        let mut begun_mm = 0.0;
        let mut tacks = Vec::new();
        let lines = self.laid.cracks.get(&plan.id).map(|laid| laid.lines.as_slice()).unwrap_or_default();
        for line in lines {
            for along_mm in tacks_mm(&line.points) {
                let place = place_along(&line.points, along_mm);
                let measured = place.map(|at| self.laid.measured(self.round, line.face, at, self.units));
                let along = format!("{} along", by_rule(begun_mm + along_mm, self.units));
                tacks.push([vec![along], measured.unwrap_or_default()].concat().join(", "));
            }
            begun_mm += crate::map::length_mm(&line.points);
        }
        // Not on the map: as a straight break of that length.
        if lines.is_empty()
            && let Some(long) = plan.length_mm
        {
            let straight = [crate::map::At::new(0.0, 0.0), crate::map::At::new(long, 0.0)];
            tacks = tacks_mm(&straight)
                .into_iter()
                .map(|at| format!("{} along", by_rule(at, self.units)))
                .collect();
        }
        let planned = tacks.len() as u32;
        let more = checks.iter().filter_map(|it| it.number).max().unwrap_or(0);
        tacks.extend((planned..more).map(|_| "one more than planned".to_owned()));
        let numbered = tacks.into_iter().zip(1..);
        numbered
            .map(|(words, number)| {
                let check = checks.iter().rev().find(|it| it.number == Some(number));
                let moved_mm = check.and_then(|it| it.mm("moved"));
                let moved = moved_mm.is_some_and(|mm| mm > 0.0);
                let checked = check.map(|it| ReadLine {
                    id: it.id,
                    words: match moved_mm.filter(|mm| *mm > 0.0) {
                        Some(mm) => format!("moved {}", self.exactly(mm)),
                        None => "in line".to_owned(),
                    },
                });
                TackPlan { number, words, checked, moved }
            })
            .collect()
    }

    /// Old and dark, as a share of the broken face: as it is drawn on that face, else as it was typed.
    fn old_share(&self, plan: &CrackPlan) -> Option<f64> {
        let drawn = self.laid.faces.iter().find_map(|laid| {
            let of = laid.face.id;
            let broken_of = self.round.get(face::BROKEN_OF.of(of))?.parse::<Uuid>().ok()?;
            let whole = laid.rims.first().map(|rim| area_mm2(rim)).filter(|mm2| *mm2 > 0.0)?;
            let cut_out: f64 = laid.rims[1..].iter().map(|rim| area_mm2(rim)).sum();
            let old: Vec<f64> = self
                .marks(MarkKind::OldFracture)
                .filter_map(|mark| match &self.round.placed(mark.id, of)?.shape {
                    Shape::Outline { points } => Some(area_mm2(points)),
                    _ => None,
                })
                .collect();
            (broken_of == plan.id && !old.is_empty())
                .then(|| (old.iter().sum::<f64>() / (whole - cut_out)).clamp(0.0, 1.0))
        });
        drawn.or_else(|| Some(self.round.get(crack::OLD_SHARE.of(plan.id))? / 100.0))
    }

    fn tells(&self, plan: &CrackPlan) -> Vec<String> {
        let Some(share) = self.old_share(plan) else { return Vec::new() };
        let Ok(face) = BrokenFace::of(share) else { return Vec::new() };
        let mut tells = Vec::new();
        if let Some(long) = plan.length_mm {
            let carried = both((1.0 - share) * long * plan.wall_mm, Unit::SquareMillimetres);
            let whole = both(long * plan.wall_mm, Unit::SquareMillimetres);
            let (carried, whole) = match self.units {
                UnitSystem::Metric => (carried.0.text(), whole.0.text()),
                UnitSystem::Imperial => (carried.1.text(), whole.1.text()),
            };
            tells.push(format!("At the end {carried} of {whole} still carried."));
        }
        tells.push(
            match face {
                BrokenFace::AllFresh => "All bright: one blow broke it.",
                BrokenFace::PartlyOld => "Partly dark: it had been cracked before it broke.",
                BrokenFace::MostlyOld => {
                    "Over half is dark: it had been cracked for long. The cause is fatigue or a standing stress: expect \
                     more cracks, look for them."
                }
            }
            .to_owned(),
        );
        tells
    }

    fn missing(&self, mark: &Mark) -> Option<MissingPlan> {
        let name = self.name(mark);
        let placed = self.round.drawn.iter().find(|placed| placed.mark == mark.id)?;
        let laid = self.laid.faces.iter().find(|laid| laid.face.id == placed.face)?;
        let Shape::Outline { points } = &placed.shape else { return None };
        let thick = self.round.get(mark::THICKNESS.of(mark.id));
        let metal = thick.and_then(|mm| MissingMetal::of(points, &laid.rims, mm).ok());
        let say_cm3 = |mm3: f64| self.units.say(mm3 / 1000.0, Unit::CubicCentimetres);
        let sentence = match metal {
            None => "How thick it was gives the metal that builds it up.".to_owned(),
            Some(metal) => format!(
                "{} with {} on each free side to machine off again; of it {} are the first layer, over the whole bond \
                 face, {} long.",
                say_cm3(metal.volume_mm3),
                self.say(ALLOWANCE_MM),
                say_cm3(metal.butter_mm3),
                by_rule(metal.bond_mm, self.units)
            ),
        };
        let volume_cm3 = metal.map(|metal| metal.volume_mm3 / 1000.0);
        let butter_cm3 = metal.map(|metal| metal.butter_mm3 / 1000.0);
        let patch = self.patch(mark, placed.face, (points, &laid.rims));
        Some(MissingPlan { mark: mark.id, name, volume_cm3, butter_cm3, sentence, patch })
    }

    pub(super) fn name(&self, mark: &Mark) -> String {
        self.round.get(mark::NAME.of(mark.id)).unwrap_or(&mark.name).to_owned()
    }

    /// This mends the break, not the cause.
    fn cause(&self) -> Vec<String> {
        if self.cracks.is_empty() {
            return Vec::new();
        }
        let mends = match self.round.get(field::part::CAUSE) {
            Some(BrokeBy::Overload) => "spread the load, strap it, or tell the owner what it stands",
            Some(BrokeBy::Freeze) => "drain it, or antifreeze, before the next frost",
            Some(BrokeBy::HeatCycling) => "let it move: slots, loose bolts, slower heating",
            Some(BrokeBy::LockedIn) => "stress-relieve it whole, or let it open and join it as it rests",
            Some(BrokeBy::Wear) => "more metal there, or take away what wears it",
            Some(BrokeBy::Impact) => "guard it from the next blow, and radius the sharp corner it began at",
            Some(BrokeBy::Unknown) | None => return Vec::new(),
        };
        vec![format!("The cause stays. What would mend it: {mends}.")]
    }
}

/// What is said aloud of a break that holds stress.
pub(crate) fn cautions(bench: &BenchPlan) -> impl Iterator<Item = Caution> + '_ {
    bench.breaks.iter().filter(|it| it.locked_in).map(|it| {
        Caution::new(
            Station::Prep,
            format!(
                "Break {} rocks on the plate: locked-in stress. Join it in its free shape, don't pull it flat; stand out \
                 of its line while a tack lets go.",
                it.letter
            ),
        )
    })
}

/// Metal that builds up what is missing, in cm³.
pub(crate) fn missing_cm3(missing: &[MissingPlan]) -> f64 {
    missing.iter().filter_map(|it| it.volume_cm3).sum()
}
