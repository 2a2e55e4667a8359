//! It does not go well: what may be behind it on this job.

use crate::casting::said::Coating;
use crate::casting::said::{Contents, Oil};
use serde::Serialize;

use super::TorchPlan;
use crate::casting::old_filler::OldFiller;
use crate::crack::said::Edges;
use crate::faults::causes::{Circumstance, Circumstances, Symptom};
use crate::field;
use crate::job::{Round, TorchEntry};
use crate::method::{Joins, MethodId, Moves, School, Way, WindowPosition};
use crate::quantity::of_100;
use crate::render::said;
use crate::shop::Shop;
use crate::stage::cracks::CrackPlan;
use crate::stage::part::PartFacts;
use crate::stage::prep::PrepPlan;
use crate::stores::Take;

/// Something that is seen, with its likely causes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TroubleView {
    pub seen: Symptom,
    pub words: String,
    /// The likeliest first, four at most.
    pub causes: Vec<CauseView>,
}

/// What may be behind it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CauseView {
    pub id: String,
    pub words: String,
    /// Of a hundred times that this is seen, so many times it is this.
    pub of_100: u32,
    /// "because the part is under its window"; empty where nothing on this job raised it.
    pub because: String,
    /// What to do now.
    pub act: String,
}

/// What the causes are weighed by.
pub(crate) struct TroubleInputs<'a> {
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub part: &'a PartFacts,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub way: Way,
    pub moves: Moves,
    /// Its pieces rocked when they were laid together.
    pub rocks: bool,
    pub takes: &'a [Take],
}

impl TroubleInputs<'_> {
    pub(super) fn views(&self, torch: &TorchPlan) -> Vec<TroubleView> {
        let circumstances = self.circumstances(torch);
        let units = self.part.units;
        let view = |seen: Symptom| TroubleView {
            seen,
            words: seen.words().to_owned(),
            causes: seen
                .diagnoses(&circumstances)
                .into_iter()
                .map(|found| {
                    let because: Vec<&str> = found.because.iter().map(|it| it.words()).collect();
                    CauseView {
                        id: found.cause.id.to_owned(),
                        words: found.cause.words.to_owned(),
                        of_100: of_100(found.share),
                        because: match because.as_slice() {
                            [] => String::new(),
                            _ => said(&format!("because {}", because.join(", and ")), units),
                        },
                        act: said(found.cause.act, units),
                    }
                })
                .collect(),
        };
        Symptom::ALL.into_iter().filter(|seen| self.can_be_seen(*seen)).map(view).collect()
    }

    /// Not everything is seen with every method.
    fn can_be_seen(&self, seen: Symptom) -> bool {
        let entry = self.way.method.entry();
        match seen {
            Symptom::Soot => entry.joins == Joins::ArcBronze,
            Symptom::WhiteSmoke => matches!(entry.joins, Joins::Bronze | Joins::ArcBronze),
            Symptom::SlagIn => self.stick(),
            Symptom::Undercut => entry.arc.is_some(),
            Symptom::Popping => matches!(entry.joins, Joins::Bronze | Joins::Flame | Joins::Silver),
            Symptom::NoFlow
            | Symptom::Pinholes
            | Symptom::ToeCrack
            | Symptom::RanOn
            | Symptom::NewCrack
            | Symptom::BlowThrough
            | Symptom::RunsAway
            | Symptom::HardSpot
            | Symptom::Moved => {
                !self.way.method.without_heat()
                    || matches!(seen, Symptom::HardSpot | Symptom::RanOn | Symptom::NewCrack)
            }
        }
    }

    fn stick(&self) -> bool {
        use MethodId::{ArcNickel, ArcNickelIron, ButterBuild, LastResort};
        matches!(self.way.method, ArcNickel | ArcNickelIron | ButterBuild | LastResort)
    }

    /// What holds on this job. What nobody answered holds for nothing.
    fn circumstances(&self, torch: &TorchPlan) -> Circumstances {
        use Circumstance as C;
        let (round, entry) = (self.round, self.way.method.entry());
        let mut known = Circumstances::new();
        let mut holds = |which: Circumstance, it: bool| {
            if it {
                known.insert(which, 1.0);
            }
        };
        let reading = round.latest_reading().map(|reading| WindowPosition::of(reading.celsius, torch.window));
        holds(C::UnderWindow, reading == Some(WindowPosition::TooCold));
        holds(C::OverWindow, reading == Some(WindowPosition::TooHot));
        let joint = round.latest_joint();
        holds(C::NoJointReading, joint.is_none());
        holds(C::JointInRange, joint.is_some_and(|joint| self.joint_in_range(joint.celsius, torch)));
        holds(C::OilUnbaked, self.moves.oil_soaked_unbaked);
        holds(C::BakedClean, round.get(field::part::OIL) == Some(Oil::BakedClean));
        let coated =
            round.get(field::part::COATING).is_some_and(|on_it| on_it.iter().any(|it| *it != Coating::Bare));
        holds(C::Coated, coated);
        holds(C::OilOrPaint, self.moves.oil_soaked_unbaked || coated);
        holds(C::FirePart, round.get(field::part::HOLDS) == Some(Contents::Duct));
        holds(
            C::HotService,
            round.get(field::part::SERVICE_TEMPERATURE).is_some_and(|celsius| celsius > 500.0),
        );
        holds(
            C::RodUnnamed,
            self.takes.iter().any(|take| take.short)
                && self.shop.stores.iter().any(|item| item.kind == crate::shelf::UNNAMED && item.there()),
        );
        holds(C::Fusion, self.way.method.fusion());
        holds(C::Braze, !self.way.method.fusion());
        holds(C::Arc, entry.arc.is_some());
        holds(C::ArcShielded, entry.arc.is_some_and(|arc| arc.shield_l_min.is_some()));
        holds(C::OldFillerLeft, self.moves.old_filler_left);
        holds(C::LastBeadLong, self.last_bead_hot(torch));
        holds(C::LastNotPeened, torch.peen && super::wants_peening(round));
        holds(C::ClosedShape, self.part.restraint().holds());
        holds(C::ColdSchool, self.way.school == School::Cold);
        holds(C::UnevenOver, self.moves.uneven_over_k > 0.0);
        holds(C::TipWithoutHole, self.moves.tips_without_hole > 0);
        holds(C::Rocks, self.rocks);
        let mostly_old = |crack: &CrackPlan| {
            round.get(field::crack::OLD_SHARE.of(crack.id)).is_some_and(|percent| percent > 50.0)
        };
        holds(C::MostlyOld, self.cracks.iter().any(mostly_old));
        let thin = self.cracks.iter().any(|crack| !crack.wall_guessed && crack.wall_mm < 5.0);
        holds(C::ThinWall, thin);
        let holes = self.cracks.iter().flat_map(|crack| &crack.ends).any(|end| end.stop_hole.is_some());
        holds(C::HasStopHoles, holes);
        let lip = |prep: &PrepPlan| {
            prep.seams
                .iter()
                .any(|seam| seam.section.is_some() && !seam.is_double() && seam.wall_mm - seam.depth_mm < 1.0)
        };
        holds(C::ThinLip, self.prep.is_some_and(lip));
        holds(C::HardEdge, self.moves.t85_s.is_some_and(|t85_s| t85_s < 10.0));
        let edge = |crack: &CrackPlan| {
            matches!(round.get(field::crack::EDGE.of(crack.id)), Some(Edges::FlameCut | Edges::Melted))
        };
        holds(
            C::CutOrWelded,
            self.cracks.iter().any(edge) || round.old_filler().is_some_and(|it| it != OldFiller::None),
        );
        holds(C::GasShort, self.takes.iter().any(|take| take.short && take.is_gas()));
        if let Some(chance) = self.moves.run_past.iter().copied().reduce(f64::max) {
            known.insert(C::RunPast, chance);
        }
        known
    }

    /// House: bronze is filled between dull and bright cherry, silver under it; an arc by the window of the part.
    fn joint_in_range(&self, celsius: f64, torch: &TorchPlan) -> bool {
        let (low, high) = match self.way.method.entry().joins {
            Joins::Bronze => (700.0, 900.0),
            Joins::Silver => (620.0, 760.0),
            Joins::Flame => return false,
            _ => match torch.window {
                Some(window) => window,
                None => return false,
            },
        };
        (low..=high).contains(&celsius)
    }

    /// The last bead was begun over the window.
    fn last_bead_hot(&self, torch: &TorchPlan) -> bool {
        let mut beads =
            self.round.standing_log().filter(|entry| matches!(entry.entry, TorchEntry::Bead { .. }));
        let Some(last) = beads.next_back() else { return false };
        let before = self.round.part_readings().filter(|reading| reading.minutes <= last.minutes);
        let reading = before.max_by(|a, b| a.minutes.total_cmp(&b.minutes));
        reading.is_some_and(|reading| {
            WindowPosition::of(reading.celsius, torch.window) == WindowPosition::TooHot
        })
    }
}
