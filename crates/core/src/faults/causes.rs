//! It does not go well: what is seen, what may be the cause, what to do.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

/// What is seen at the torch.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Symptom {
    NoFlow,
    Pinholes,
    ToeCrack,
    RanOn,
    NewCrack,
    BlowThrough,
    Soot,
    WhiteSmoke,
    RunsAway,
    Undercut,
    SlagIn,
    HardSpot,
    Popping,
    Moved,
}

/// What of this job makes a cause more or less likely.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum Circumstance {
    UnderWindow,
    OverWindow,
    NoJointReading,
    JointInRange,
    OilUnbaked,
    BakedClean,
    Coated,
    OilOrPaint,
    GroundNotSeared,
    Chipped,
    FirePart,
    HotService,
    RodUnnamed,
    Fusion,
    Braze,
    Arc,
    ArcShielded,
    ShieldedInDraught,
    StickNotDried,
    OldFillerLeft,
    LastBeadLong,
    LastNotPeened,
    ClosedShape,
    Clamped,
    ColdSchool,
    UnevenOver,
    RunPast,
    TipWithoutHole,
    Rocks,
    MostlyOld,
    Draught,
    ThinWall,
    HasStopHoles,
    ThinLip,
    HardEdge,
    CutOrWelded,
    GasShort,
    FewerTacks,
}

/// How a circumstance moves a weight.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Effect {
    Times(f64),
    /// Without it there is no such cause.
    Only,
    /// It adds so much.
    Add(f64),
    /// By the chance that a tip lies past its hole: 1 + 4 p.
    Past,
}

/// What may be behind it.
#[derive(Debug, PartialEq)]
pub struct Cause {
    /// As it is kept in the log.
    pub id: &'static str,
    pub words: &'static str,
    weight: f64,
    moved_by: &'static [(Circumstance, Effect)],
    /// What to do now; quantities in braces.
    pub act: &'static str,
}

/// A cause on this job.
#[derive(Debug, Clone, PartialEq)]
pub struct Diagnosis {
    pub cause: &'static Cause,
    /// Of all causes of what is seen.
    pub share: f64,
    /// The circumstances that raised it.
    pub because: Vec<Circumstance>,
}

/// The circumstances of a job: which hold, with the chance where one is asked for.
pub type Circumstances = BTreeMap<Circumstance, f64>;

/// House: at most so many causes are shown.
const SHOWN: usize = 4;

impl Circumstance {
    /// As it is said after "because"; quantities in braces.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::UnderWindow => "the part is under its window",
            Self::OverWindow => "the part is over its window",
            Self::NoJointReading => "nothing was read at the joint",
            Self::JointInRange => "the joint was read in its own range",
            Self::OilUnbaked => "it is oil-soaked and was not baked clean",
            Self::BakedClean => "it was baked clean",
            Self::Coated => "it was painted or plated",
            Self::OilOrPaint => "it was oily or painted",
            Self::GroundNotSeared => "it was ground and not seared or chipped",
            Self::Chipped => "it was chipped",
            Self::FirePart => "it is a hot exhaust or fire part",
            Self::HotService => "it works at over {500 degC}",
            Self::RodUnnamed => "the rod was not named in the stores",
            Self::Fusion => "the iron is melted",
            Self::Braze => "the iron is not melted",
            Self::Arc => "it is an arc",
            Self::ArcShielded => "gas shields the arc",
            Self::ShieldedInDraught => "the extraction is on",
            Self::StickNotDried => "the rods were not said to be dried",
            Self::OldFillerLeft => "old filler was left",
            Self::LastBeadLong => "the last bead was long, or begun over the window",
            Self::LastNotPeened => "the last bead was not peened",
            Self::ClosedShape => "what is round it holds it in",
            Self::Clamped => "it is clamped",
            Self::ColdSchool => "it is laid cold",
            Self::UnevenOver => "the unevenness is over the limit",
            Self::RunPast => "the tip may lie past its hole",
            Self::TipWithoutHole => "a tip has no hole",
            Self::Rocks => "it rocked when it was laid together",
            Self::MostlyOld => "most of the fracture is old",
            Self::Draught => "the extraction is on, or a door open",
            Self::ThinWall => "the wall is under {5 mm}",
            Self::HasStopHoles => "the seam has stop-holes",
            Self::ThinLip => "the lip is under {1 mm}",
            Self::HardEdge => "the edge cools from {800 degC} to {500 degC} in under 10 s",
            Self::CutOrWelded => "it was flame-cut or welded before",
            Self::GasShort => "the gas needed is more than what is left",
            Self::FewerTacks => "there are fewer tacks than planned",
        }
    }
}

impl Symptom {
    pub const ALL: [Self; 14] = [
        Self::NoFlow,
        Self::Pinholes,
        Self::ToeCrack,
        Self::RanOn,
        Self::NewCrack,
        Self::BlowThrough,
        Self::Soot,
        Self::WhiteSmoke,
        Self::RunsAway,
        Self::Undercut,
        Self::SlagIn,
        Self::HardSpot,
        Self::Popping,
        Self::Moved,
    ];

    /// As it is stored.
    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::NoFlow => "no_flow",
            Self::Pinholes => "pinholes",
            Self::ToeCrack => "toe_crack",
            Self::RanOn => "ran_on",
            Self::NewCrack => "new_crack",
            Self::BlowThrough => "blow_through",
            Self::Soot => "soot",
            Self::WhiteSmoke => "white_smoke",
            Self::RunsAway => "runs_away",
            Self::Undercut => "undercut",
            Self::SlagIn => "slag_in",
            Self::HardSpot => "hard_spot",
            Self::Popping => "popping",
            Self::Moved => "moved",
        }
    }

    /// As a welder says it.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::NoFlow => "It balls up and does not wet",
            Self::Pinholes => "Pinholes",
            Self::ToeCrack => "A crack beside the bead",
            Self::RanOn => "The crack got longer",
            Self::NewCrack => "A crack somewhere else",
            Self::BlowThrough => "It blew through",
            Self::Soot => "A black film on a bronze bead",
            Self::WhiteSmoke => "White smoke",
            Self::RunsAway => "Filler drops through",
            Self::Undercut => "Undercut at the edge",
            Self::SlagIn => "Slag in the bead",
            Self::HardSpot => "File or drill skates",
            Self::Popping => "The torch pops",
            Self::Moved => "It moved out of line",
        }
    }

    /// Its cause of this id.
    #[must_use]
    pub fn cause(self, id: &str) -> Option<&'static Cause> {
        self.causes().iter().find(|cause| cause.id == id)
    }

    /// The likely causes, the likeliest first, four at most. Their shares are of all there are.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn diagnoses(self, circumstances: &Circumstances) -> Vec<Diagnosis> {
        let weighed: Vec<(f64, &'static Cause)> =
            self.causes().iter().map(|cause| (cause.weighs(circumstances), cause)).collect();
        let all: f64 = weighed.iter().map(|(weight, _)| weight).sum();
        let mut found: Vec<Diagnosis> = weighed
            .into_iter()
            .filter(|(weight, _)| *weight > 0.0)
            .map(|(weight, cause)| Diagnosis {
                cause,
                share: weight / all,
                because: cause.raised_by(circumstances),
            })
            .collect();
        found.sort_by(|a, b| b.share.total_cmp(&a.share));
        found.truncate(SHOWN);
        found
    }

    #[rustfmt::skip]
    fn causes(self) -> &'static [Cause] {
        match self {
            Self::NoFlow => &[
                Cause { id: "too_cold", words: "The iron is too cold", weight: 4.0, moved_by: &[(Circumstance::UnderWindow, Effect::Times(3.0)), (Circumstance::NoJointReading, Effect::Times(2.0)), (Circumstance::JointInRange, Effect::Times(0.3))], act: "More heat into the iron, not the rod: reheat the part. More amps do not help." },
                Cause { id: "dirty", words: "The surface is dirty", weight: 2.0, moved_by: &[(Circumstance::OilUnbaked, Effect::Times(3.0)), (Circumstance::Coated, Effect::Times(1.5))], act: "Grind back, sear, solvent, bake." },
                Cause { id: "smeared", words: "Graphite is smeared over it", weight: 1.5, moved_by: &[(Circumstance::GroundNotSeared, Effect::Times(2.0)), (Circumstance::Chipped, Effect::Times(0.3))], act: "Sear it with an oxidising flame, or take a chisel pass." },
                Cause { id: "flux_or_flame", words: "Flux or flame is wrong", weight: 1.5, moved_by: &[], act: "Flux on the hot rod; the flame neutral to slightly oxidising." },
                Cause { id: "burnt", words: "The iron is burnt", weight: 1.0, moved_by: &[(Circumstance::FirePart, Effect::Times(4.0)), (Circumstance::HotService, Effect::Times(2.0))], act: "Cut back to gray metal." },
                Cause { id: "wrong_rod", words: "It is the wrong rod", weight: 0.7, moved_by: &[(Circumstance::RodUnnamed, Effect::Times(4.0))], act: "Try the rod on scrap." },
            ],
            Self::Pinholes => &[
                Cause { id: "oil", words: "Oil in the iron", weight: 3.0, moved_by: &[(Circumstance::OilUnbaked, Effect::Times(3.0)), (Circumstance::BakedClean, Effect::Times(0.3))], act: "Stop, burn it out, grind out, refill." },
                Cause { id: "iron_gas", words: "The iron gives off gas", weight: 2.0, moved_by: &[(Circumstance::Fusion, Effect::Times(2.0)), (Circumstance::Braze, Effect::Times(0.5))], act: "Lower current, slower, refill." },
                Cause { id: "shield", words: "The gas is blown away", weight: 1.5, moved_by: &[(Circumstance::ArcShielded, Effect::Only), (Circumstance::ShieldedInDraught, Effect::Times(2.0))], act: "Screen the draught, gas on longer." },
                Cause { id: "damp", words: "The rods are damp", weight: 1.0, moved_by: &[(Circumstance::StickNotDried, Effect::Times(2.0))], act: "Dry the rods an hour at {120 degC} (nickel); the maker's figure first." },
                Cause { id: "old_filler", words: "Old filler is in it", weight: 1.0, moved_by: &[(Circumstance::OldFillerLeft, Effect::Times(4.0))], act: "All of it out." },
                Cause { id: "long_arc", words: "The arc is too long", weight: 1.0, moved_by: &[(Circumstance::Arc, Effect::Only)], act: "Shorter." },
            ],
            Self::ToeCrack => &[
                Cause { id: "too_cold", words: "The iron is too cold", weight: 3.0, moved_by: &[(Circumstance::UnderWindow, Effect::Times(3.0))], act: "Reheat, then grind out and refill." },
                Cause { id: "bead_too_long", words: "The bead was too long or too hot", weight: 2.0, moved_by: &[(Circumstance::LastBeadLong, Effect::Times(3.0))], act: "Shorter beads, and wait." },
                Cause { id: "not_peened", words: "It was not peened", weight: 1.5, moved_by: &[(Circumstance::LastNotPeened, Effect::Times(2.0))], act: "Peen while it glows." },
                Cause { id: "restraint", words: "It cannot move", weight: 1.5, moved_by: &[(Circumstance::ClosedShape, Effect::Times(2.0)), (Circumstance::Clamped, Effect::Times(2.0))], act: "Loosen it; heat the opposite member." },
                Cause { id: "white_edge", words: "The edge is white", weight: 1.0, moved_by: &[(Circumstance::ColdSchool, Effect::Times(2.0))], act: "Butter with nickel, warmer." },
            ],
            Self::RanOn => &[
                Cause { id: "uneven", words: "The part is unevenly warm", weight: 3.0, moved_by: &[(Circumstance::UnevenOver, Effect::Times(2.0))], act: "Heat the whole part, the rim first." },
                Cause { id: "tip_missed", words: "The hole missed the tip", weight: 3.0, moved_by: &[(Circumstance::RunPast, Effect::Past)], act: "Find the new tip, a new hole, a new round." },
                Cause { id: "no_hole", words: "A tip has no hole", weight: 0.0, moved_by: &[(Circumstance::TipWithoutHole, Effect::Add(4.0))], act: "The hole first." },
                Cause { id: "locked_in", words: "Stress is locked in", weight: 1.5, moved_by: &[(Circumstance::Rocks, Effect::Times(3.0))], act: "Let it open, tack it where it rests." },
            ],
            Self::NewCrack => &[
                Cause { id: "was_there", words: "It was there before", weight: 3.0, moved_by: &[(Circumstance::MostlyOld, Effect::Times(2.0))], act: "Map it, a new round." },
                Cause { id: "locked_in", words: "Stress is locked in", weight: 2.0, moved_by: &[(Circumstance::Rocks, Effect::Times(3.0))], act: "Map it, a new round." },
                Cause { id: "uneven", words: "The part is unevenly warm", weight: 2.0, moved_by: &[(Circumstance::UnevenOver, Effect::Times(2.0))], act: "Map it, a new round." },
                Cause { id: "draught", words: "A draught chills it", weight: 1.0, moved_by: &[(Circumstance::Draught, Effect::Times(2.0))], act: "Cover it." },
            ],
            Self::BlowThrough => &[
                Cause { id: "thin", words: "The wall is thin", weight: 3.0, moved_by: &[(Circumstance::ThinWall, Effect::Times(2.0))], act: "Backing of copper, carbon or clay; lower; from the rim inwards." },
                Cause { id: "too_hot", words: "It is too hot", weight: 2.0, moved_by: &[(Circumstance::OverWindow, Effect::Times(2.0))], act: "Wait." },
                Cause { id: "at_a_hole", words: "It is at a stop-hole", weight: 2.0, moved_by: &[(Circumstance::HasStopHoles, Effect::Times(2.0))], act: "Fill a hole from its rim, small tip." },
                Cause { id: "cut_too_deep", words: "The groove is cut too deep", weight: 2.0, moved_by: &[(Circumstance::ThinLip, Effect::Times(2.0))], act: "Back it, and map what is left." },
            ],
            Self::Soot => &[
                Cause { id: "oil_paint", words: "Oil or paint", weight: 3.0, moved_by: &[(Circumstance::OilOrPaint, Effect::Times(2.0))], act: "Clean back." },
                Cause { id: "shield", words: "The gas does not cover it", weight: 2.0, moved_by: &[(Circumstance::ArcShielded, Effect::Only)], act: "Gas on longer; a slot is flushed with argon first." },
                Cause { id: "long_arc", words: "The arc is too long", weight: 1.0, moved_by: &[(Circumstance::Arc, Effect::Only)], act: "Shorter arc." },
            ],
            Self::WhiteSmoke => &[
                Cause { id: "too_hot", words: "It is too hot", weight: 4.0, moved_by: &[], act: "The zinc boils: back off, mask on." },
            ],
            Self::RunsAway => &[
                Cause { id: "at_a_hole", words: "It is at a stop-hole", weight: 3.0, moved_by: &[(Circumstance::HasStopHoles, Effect::Times(2.0))], act: "From the rim, a smaller tip, backing." },
                Cause { id: "gap", words: "The gap is too wide", weight: 2.0, moved_by: &[], act: "From the rim, a smaller tip, backing." },
                Cause { id: "too_hot", words: "It is too hot", weight: 2.0, moved_by: &[], act: "From the rim, a smaller tip, backing." },
            ],
            Self::Undercut => &[
                Cause { id: "too_hot", words: "Too hot", weight: 2.0, moved_by: &[], act: "Lower, slower; fill it." },
                Cause { id: "too_fast", words: "Too fast", weight: 2.0, moved_by: &[], act: "Lower, slower; fill it." },
                Cause { id: "long_arc", words: "The arc is too long", weight: 1.0, moved_by: &[(Circumstance::Arc, Effect::Only)], act: "Shorter; fill it." },
            ],
            Self::SlagIn => &[
                Cause { id: "not_brushed", words: "It was not brushed", weight: 3.0, moved_by: &[], act: "Grind out, brush each bead." },
                Cause { id: "too_cold", words: "The iron is too cold", weight: 1.0, moved_by: &[], act: "Grind out, brush each bead." },
            ],
            Self::HardSpot => &[
                Cause { id: "cold_edge", words: "The edge cooled too fast", weight: 3.0, moved_by: &[(Circumstance::HardEdge, Effect::Times(3.0))], act: "The thin carbide seam stays whatever is done: grind, carbide. Martensite of a cold edge softens at {600 degC} to {650 degC} held 30 min, cooled slowly." },
                Cause { id: "flame_cut", words: "It was flame-cut or welded before", weight: 2.0, moved_by: &[(Circumstance::CutOrWelded, Effect::Times(3.0))], act: "Cut back {6 mm}." },
                Cause { id: "skin", words: "It is the casting's skin", weight: 1.0, moved_by: &[], act: "Go under the skin." },
            ],
            Self::Popping => &[
                Cause { id: "touched", words: "The tip touched the work", weight: 3.0, moved_by: &[], act: "Oxygen off, then fuel; cool, clean, look. Twice: stop." },
                Cause { id: "tip_dirty", words: "The tip is dirty", weight: 2.0, moved_by: &[], act: "Oxygen off, then fuel; cool, clean, look. Twice: stop." },
                Cause { id: "low_pressure", words: "The pressure is low", weight: 2.0, moved_by: &[(Circumstance::GasShort, Effect::Times(3.0))], act: "Oxygen off, then fuel; cool, clean, look. Twice: stop." },
                Cause { id: "tip_hot", words: "The tip is hot", weight: 1.0, moved_by: &[], act: "Oxygen off, then fuel; cool, clean, look. Twice: stop." },
            ],
            Self::Moved => &[
                Cause { id: "tack_broke", words: "A tack broke", weight: 3.0, moved_by: &[(Circumstance::FewerTacks, Effect::Times(2.0))], act: "Stop, let it go hand-warm, measure." },
                Cause { id: "pulled", words: "The bead pulled it", weight: 2.0, moved_by: &[], act: "Stop, let it go hand-warm, measure." },
                Cause { id: "slipped", words: "It slipped", weight: 1.0, moved_by: &[], act: "Stop, let it go hand-warm, measure." },
            ],
        }
    }
}

impl Cause {
    fn weighs(&self, circumstances: &Circumstances) -> f64 {
        let only = self.moved_by.iter().filter(|(_, effect)| *effect == Effect::Only);
        if only.clone().count() > 0 && !only.clone().all(|(which, _)| circumstances.contains_key(which)) {
            return 0.0;
        }
        let mut weight = self.weight;
        for (which, effect) in self.moved_by {
            let Some(chance) = circumstances.get(which) else { continue };
            match effect {
                Effect::Times(by) => weight *= by,
                Effect::Add(by) => weight += by,
                Effect::Past => weight *= 1.0 + 4.0 * chance,
                Effect::Only => {}
            }
        }
        weight
    }

    /// What made it likelier.
    fn raised_by(&self, circumstances: &Circumstances) -> Vec<Circumstance> {
        let raises = |effect: &Effect, chance: f64| match effect {
            Effect::Times(by) => *by > 1.0,
            Effect::Add(by) => *by > 0.0,
            Effect::Past => chance > 0.0,
            Effect::Only => false,
        };
        let holds = self
            .moved_by
            .iter()
            .filter(|(which, effect)| circumstances.get(which).is_some_and(|chance| raises(effect, *chance)));
        holds.map(|(which, _)| *which).collect()
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn of(circumstances: &[(Circumstance, f64)]) -> Circumstances {
        circumstances.iter().copied().collect()
    }

    fn share(seen: Symptom, id: &str, circumstances: &Circumstances) -> f64 {
        seen.diagnoses(circumstances).iter().find(|it| it.cause.id == id).map_or(0.0, |it| it.share)
    }

    #[rstest]
    // Hand-worked: weights 4, 2, 1.5, 1.5, 1, 0.7 = 10.7
    #[case::nothing_known(&[], "too_cold", 4.0 / 10.7)]
    // 12, 2, 1.5, 1.5, 1, 0.7 = 18.7
    #[case::under_the_window(&[(Circumstance::UnderWindow, 1.0)], "too_cold", 12.0 / 18.7)]
    // 1.2, 6, 1.5, 1.5, 1, 0.7 = 11.9
    #[case::oily_and_read_at_the_joint(
        &[(Circumstance::JointInRange, 1.0), (Circumstance::OilUnbaked, 1.0)], "dirty", 6.0 / 11.9
    )]
    fn the_causes_of_what_does_not_flow(
        #[case] circumstances: &[(Circumstance, f64)],
        #[case] first: &str,
        #[case] expected: f64,
    ) {
        let found = Symptom::NoFlow.diagnoses(&of(circumstances));
        assert_eq!((found[0].cause.id, found.len()), (first, 4));
        assert!((found[0].share - expected).abs() < 1e-9, "{}", found[0].share);
    }

    #[test]
    fn what_raised_a_cause_is_said_and_what_lowered_it_is_not() {
        let found =
            Symptom::Pinholes.diagnoses(&of(&[(Circumstance::BakedClean, 1.0), (Circumstance::Fusion, 1.0)]));
        assert_eq!(
            (found[0].cause.id, found[0].because.as_slice()),
            ("iron_gas", &[Circumstance::Fusion][..])
        );
        let oil = found.iter().find(|it| it.cause.id == "oil").unwrap();
        assert!(oil.because.is_empty());
    }

    #[test]
    fn a_flame_has_no_arc_and_no_gas_that_is_blown_away() {
        let flame = of(&[]);
        assert_eq!(share(Symptom::Soot, "shield", &flame) + share(Symptom::Soot, "long_arc", &flame), 0.0);
        let wire = of(&[(Circumstance::Arc, 1.0), (Circumstance::ArcShielded, 1.0)]);
        // Hand-worked: 3, 2, 1
        assert!((share(Symptom::Soot, "shield", &wire) - 2.0 / 6.0).abs() < 1e-9);
    }

    #[rstest]
    // Hand-worked: 3, 3 (1 + 4 p), 0 or 4, 1.5
    #[case::found_by_eye(&[(Circumstance::RunPast, 0.5)], "tip_missed", 9.0 / 13.5)]
    #[case::no_hole(&[(Circumstance::TipWithoutHole, 1.0)], "no_hole", 4.0 / 11.5)]
    #[case::every_tip_has_one(&[], "no_hole", 0.0)]
    fn a_crack_that_ran_on(
        #[case] circumstances: &[(Circumstance, f64)],
        #[case] id: &str,
        #[case] expected: f64,
    ) {
        assert!((share(Symptom::RanOn, id, &of(circumstances)) - expected).abs() < 1e-9);
    }

    #[test]
    fn every_fault_has_its_causes_under_names_of_their_own_and_something_to_do() {
        for seen in Symptom::ALL {
            let mut ids: Vec<&str> = seen.causes().iter().map(|cause| cause.id).collect();
            assert!(
                !ids.is_empty() && seen.causes().iter().all(|cause| !cause.act.is_empty()),
                "{}",
                seen.id()
            );
            assert_eq!(serde_json::to_value(seen).unwrap(), seen.id(), "as it is stored");
            ids.sort_unstable();
            ids.dedup();
            assert_eq!(ids.len(), seen.causes().len(), "{}", seen.id());
        }
    }
}
