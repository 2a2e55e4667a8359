//! What moves the odds of a repair, in log-odds that are added.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{Joins, MethodId, Odds, StitchKind, starting_odds};
use crate::iron::Iron;

/// What is worse or better than ordinary careful work. Left out does not count.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Moves {
    /// K by which the coldest place stays under the school's target.
    pub preheat_short_k: f64,
    /// Share of the beads begun under the window, and over it.
    pub share_beads_cold: f64,
    pub share_beads_hot: f64,
    /// K over the limit of unevenness.
    pub uneven_over_k: f64,
    /// A closed section, spoked wheel or frame heated at the joint alone.
    pub closed_heated_locally: bool,
    /// Fastest fall as a multiple of its limit.
    pub fall_over_limit: f64,
    /// Of each tip with a hole: the chance that the true tip lies past it.
    pub run_past: Vec<f64>,
    pub tips_without_hole: u32,
    /// Where the groove was followed to sound metal instead of a hole.
    pub tips_followed_to_sound: u32,
    pub oil_soaked_unbaked: bool,
    pub old_filler_left: bool,
    pub one_side_of_two: bool,
    /// Chance of the iron that leads; nothing where it is not in question.
    pub leading_iron: Option<f64>,
    pub share_not_peened: f64,
    /// Cooling time of the edge in s.
    pub t85_s: Option<f64>,
    /// Repairs done by this method.
    pub own_count: Option<f64>,
    pub locked_in_stress: bool,
    pub cause_stays: bool,
    pub strapped: bool,
    pub checked_clean: bool,
}

/// One part that moves the odds.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OddsPart {
    pub name: String,
    /// In log-odds.
    pub shift: f64,
}

/// House: an edge that cools slower than this, in s, is not hard.
const SOFT_EDGE_S: f64 = 10.0;
/// House: so many repairs by a method, and it counts as practised.
const PRACTISED: f64 = 5.0;
/// House: what speaks against a repair moves it no further than this.
const LEAST_SHIFT: f64 = -2.5;

impl Moves {
    /// The parts that are not zero for this method, the largest first.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn parts(&self, method: MethodId) -> Vec<OddsPart> {
        use MethodId::{ArcNickel, ArcNickelIron, ButterBuild, LastResort, TigNickel};
        let joins = method.entry().joins;
        let heated = !method.without_heat();
        let stick = matches!(method, ArcNickel | ArcNickelIron | ButterBuild | LastResort);
        let share = |share: f64| share.clamp(0.0, 1.0);
        let mut parts = Vec::new();
        let mut add = |name: &str, shift: f64| {
            if shift != 0.0 {
                parts.push(OddsPart { name: name.to_owned(), shift });
            }
        };
        let short = if heated { -(0.2 * self.preheat_short_k.max(0.0) / 50.0).min(0.8) } else { 0.0 };
        let cold = if heated { -0.4 * share(self.share_beads_cold) } else { 0.0 };
        if cold < short {
            add("beads_cold", cold)
        } else {
            add("preheat_short", short)
        }
        let uneven = if heated { -(0.15 * self.uneven_over_k.max(0.0) / 25.0).min(0.6) } else { 0.0 };
        let restraint = if heated && self.closed_heated_locally { -0.4 } else { 0.0 };
        if restraint < uneven {
            add("restraint", restraint)
        } else {
            add("uneven", uneven)
        }
        if heated && self.fall_over_limit > 1.5 {
            add("fell_fast", -(0.25 * (self.fall_over_limit / 1.5).log2()).min(0.75));
        }
        let caught: f64 = self.run_past.iter().map(|chance| 1.0 - share(*chance)).product();
        add("tip_missed", caught - 1.0);
        if !method.pins() {
            let missing =
                0.5 * f64::from(self.tips_without_hole) + 0.1 * f64::from(self.tips_followed_to_sound);
            add("no_hole", -missing.min(1.0));
        }
        if self.oil_soaked_unbaked {
            add(
                "oil",
                match joins {
                    Joins::Flame | Joins::Bronze | Joins::Silver => -0.4,
                    Joins::Arc if stick => -0.7,
                    Joins::Arc | Joins::ArcBronze => -1.4,
                    Joins::Pins | Joins::PinsAndLocks | Joins::Strap | Joins::Epoxy => 0.0,
                },
            );
        }
        add("old_filler", if self.old_filler_left { -0.7 } else { 0.0 });
        add("one_side", if self.one_side_of_two { -0.2 } else { 0.0 });
        if let Some(p) = self.leading_iron {
            add("iron_unsure", if method.fusion() { -1.0 } else { -0.3 } * (1.0 - share(p)));
        }
        if method.arc() {
            add("not_peened", -0.15 * share(self.share_not_peened));
        }
        if stick || method == TigNickel {
            add("beads_hot", -0.2 * share(self.share_beads_hot));
        }
        if let Some(t85_s) = self.t85_s.filter(|t85_s| method.fusion() && *t85_s < SOFT_EDGE_S) {
            add("hard_edge", -0.4 * (1.0 - t85_s.max(0.0) / SOFT_EDGE_S));
        }
        if let Some(count) = self.own_count.filter(|count| *count < PRACTISED) {
            add("skill", -0.25 * (1.0 - count.max(0.0) / PRACTISED));
        }
        add("locked_in", if self.locked_in_stress { -0.3 } else { 0.0 });
        add("cause_stays", if self.cause_stays { -0.3 } else { 0.0 });
        add("strapped", if self.strapped { 0.3 } else { 0.0 });
        add("checked_clean", if self.checked_clean { 0.3 } else { 0.0 });
        parts.sort_by(|a, b| b.shift.abs().total_cmp(&a.shift.abs()));
        parts
    }
}

/// What the parts come to: those against it together never under -2.5.
#[must_use]
pub fn shift_of(parts: &[OddsPart]) -> f64 {
    let against: f64 = parts.iter().map(|part| part.shift.min(0.0)).sum();
    let favour: f64 = parts.iter().map(|part| part.shift.max(0.0)).sum();
    against.max(LEAST_SHIFT) + favour
}

/// House: most failures come early.
const EARLY: f64 = 0.3;
const YEAR_DAYS: f64 = 365.0;

/// The chance of a year as that of another time in days: p^((days / 365)^0.3).
///
/// # Source
/// House.
#[must_use]
pub fn for_days(p: f64, days: f64) -> f64 {
    p.powf((days.max(0.0) / YEAR_DAYS).powf(EARLY))
}

/// A repair of ours that held when it was last asked.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HeldFor {
    pub days: f64,
    /// Of the same iron: another one counts half.
    pub same_iron: bool,
}

/// What became of the shop's own repairs by a method.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Outcomes {
    pub held: Vec<HeldFor>,
    /// Those that hold with a fault: half and half.
    pub faulty: Vec<HeldFor>,
    pub failed_same: u32,
    pub failed_other: u32,
}

impl Outcomes {
    /// What they add to the prior: to *holds*, and to *fails*.
    #[must_use]
    fn added(&self) -> (f64, f64) {
        let weight = |same: bool| if same { 1.0 } else { 0.5 };
        let holds = |it: &HeldFor| weight(it.same_iron) * (it.days.max(0.0) / YEAR_DAYS).powf(EARLY).min(1.0);
        let held: f64 = self.held.iter().map(holds).sum();
        let half_held: f64 = self.faulty.iter().map(holds).sum();
        let half_failed: f64 = self.faulty.iter().map(|it| weight(it.same_iron)).sum();
        let failed = f64::from(self.failed_same) + 0.5 * f64::from(self.failed_other);
        (held + half_held / 2.0, failed + half_failed / 2.0)
    }

    fn jobs(&self) -> u32 {
        (self.held.len() + self.faulty.len()) as u32 + self.failed_same + self.failed_other
    }
}

/// One repair of ours, and what became of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnRepair {
    pub job: Uuid,
    /// Its lighting: what was asked again of it replaces what was said before.
    pub lit: Uuid,
    /// Of the job.
    pub name: String,
    pub method: MethodId,
    /// As [`Variant::id`] has it.
    pub variant: String,
    pub iron: Iron,
    /// Until it was asked, or failed.
    pub days: f64,
    /// holds, fault, failed or unknown.
    pub became: String,
}

/// What became of our own repairs by this method, and how many there are of it, known or not.
#[must_use]
pub fn own_outcomes(
    repairs: &[OwnRepair],
    (method, variant): (MethodId, Variant),
    leading: Iron,
) -> (Outcomes, u32) {
    let mut own = Outcomes::default();
    let mut count = 0;
    for it in repairs.iter().filter(|it| it.method == method) {
        count += 1;
        if it.variant != variant.id() {
            continue;
        }
        let same_iron = it.iron == leading;
        let held = HeldFor { days: it.days, same_iron };
        match it.became.as_str() {
            "holds" => own.held.push(held),
            "fault" => own.faulty.push(held),
            "failed" if same_iron => own.failed_same += 1,
            "failed" => own.failed_other += 1,
            _ => {}
        }
    }
    (own, count)
}

/// Which of several priors of a method counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Variant {
    Usual,
    /// Gas fusion with a modest heat.
    Modest,
    Pins(StitchKind),
}

impl Variant {
    /// As it is kept beside a repair.
    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Usual => "usual",
            Self::Modest => "modest",
            Self::Pins(StitchKind::DrawIn) => "draw_in",
            Self::Pins(StitchKind::Between) => "between",
            Self::Pins(StitchKind::Plain) => "plain",
            Self::Pins(StitchKind::ThinLoadedOrHot) => "thin_loaded_or_hot",
        }
    }
}

/// Odds before anything moves them: the method's prior and the shop's own outcomes.
///
/// # Source
/// Bayes' theorem; the priors are house.
#[must_use]
pub fn odds_of(method: MethodId, variant: Variant, own: &Outcomes) -> Odds {
    let (holds, fails) = own.added();
    starting_odds(method, variant, (holds, fails), own.jobs())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::method::MethodId::{ArcNickel, GasIron, MigBrazeSi, Stitch, Strap, TigNickel, TorchBraze};

    fn shift(moves: &Moves, method: MethodId) -> f64 {
        shift_of(&moves.parts(method))
    }

    #[rstest]
    // Hand-worked from the trade reference's table
    #[case::fifty_short(Moves { preheat_short_k: 50.0, ..Moves::default() }, TorchBraze, -0.2)]
    #[case::at_the_most(Moves { preheat_short_k: 900.0, ..Moves::default() }, TorchBraze, -0.8)]
    #[case::pins_need_none(Moves { preheat_short_k: 50.0, ..Moves::default() }, Stitch, 0.0)]
    #[case::cold_beads_in_its_place(
        Moves { preheat_short_k: 50.0, share_beads_cold: 1.0, ..Moves::default() }, ArcNickel, -0.4
    )]
    #[case::the_shortage_is_larger(
        Moves { preheat_short_k: 100.0, share_beads_cold: 0.5, ..Moves::default() }, ArcNickel, -0.4
    )]
    #[case::uneven(Moves { uneven_over_k: 25.0, ..Moves::default() }, ArcNickel, -0.15)]
    #[case::restraint_is_the_larger(
        Moves { uneven_over_k: 25.0, closed_heated_locally: true, ..Moves::default() }, GasIron, -0.4
    )]
    #[case::fell_just_so(Moves { fall_over_limit: 1.5, ..Moves::default() }, GasIron, 0.0)]
    #[case::fell_twice_that(Moves { fall_over_limit: 3.0, ..Moves::default() }, GasIron, -0.25)]
    #[case::fell_far_too_fast(Moves { fall_over_limit: 99.0, ..Moves::default() }, GasIron, -0.75)]
    #[case::holes(Moves { tips_without_hole: 1, tips_followed_to_sound: 1, ..Moves::default() }, ArcNickel, -0.6)]
    #[case::no_more_than_that(Moves { tips_without_hole: 5, ..Moves::default() }, ArcNickel, -1.0)]
    #[case::the_end_pin_stops_it(Moves { tips_without_hole: 2, ..Moves::default() }, Stitch, 0.0)]
    #[case::oil_and_flame(Moves { oil_soaked_unbaked: true, ..Moves::default() }, TorchBraze, -0.4)]
    #[case::oil_and_stick(Moves { oil_soaked_unbaked: true, ..Moves::default() }, ArcNickel, -0.7)]
    #[case::oil_and_tig(Moves { oil_soaked_unbaked: true, ..Moves::default() }, TigNickel, -1.4)]
    #[case::oil_and_wire(Moves { oil_soaked_unbaked: true, ..Moves::default() }, MigBrazeSi, -1.4)]
    #[case::oil_and_strap(Moves { oil_soaked_unbaked: true, ..Moves::default() }, Strap, 0.0)]
    #[case::an_iron_to_melt(Moves { leading_iron: Some(0.6), ..Moves::default() }, ArcNickel, -0.4)]
    #[case::an_iron_to_braze(Moves { leading_iron: Some(0.6), ..Moves::default() }, TorchBraze, -0.12)]
    #[case::never_done(Moves { own_count: Some(0.0), ..Moves::default() }, ArcNickel, -0.25)]
    #[case::practised(Moves { own_count: Some(5.0), ..Moves::default() }, ArcNickel, 0.0)]
    #[case::soft_enough(Moves { t85_s: Some(10.0), ..Moves::default() }, ArcNickel, 0.0)]
    fn each_part_counts_for_the_ways_it_belongs_to(
        #[case] moves: Moves,
        #[case] method: MethodId,
        #[case] expected: f64,
    ) {
        assert!((shift(&moves, method) - expected).abs() < 1e-9, "{}", shift(&moves, method));
    }

    #[test]
    fn what_is_against_it_stops_at_two_and_a_half_and_what_is_for_it_is_added() {
        let moves = Moves {
            preheat_short_k: 500.0,
            uneven_over_k: 500.0,
            oil_soaked_unbaked: true,
            tips_without_hole: 3,
            checked_clean: true,
            ..Moves::default()
        };
        assert!((shift(&moves, ArcNickel) + 2.2).abs() < 1e-9);
    }

    #[test]
    fn a_longer_time_is_less_likely_and_a_year_is_a_year() {
        assert!((for_days(0.8, 365.0) - 0.8).abs() < 1e-12 && for_days(0.8, 3650.0) < 0.7);
        assert!((for_days(0.8, 0.0) - 1.0).abs() < 1e-12);
    }

    proptest::proptest! {
        #[test]
        fn what_can_only_help_never_lowers(
            tip in 0.0..1.0f64, better in 0.0..1.0f64, short in 0.0..400.0f64, iron in 0.2..1.0f64,
            at in 0..15usize
        ) {
            let method = MethodId::ALL[at];
            let worse = Moves {
                run_past: vec![tip], preheat_short_k: short, oil_soaked_unbaked: true, leading_iron: Some(iron),
                ..Moves::default()
            };
            let helped = Moves {
                run_past: vec![tip * better], preheat_short_k: short * better, oil_soaked_unbaked: false,
                leading_iron: Some(iron + (1.0 - iron) * better), checked_clean: true, ..worse.clone()
            };
            proptest::prop_assert!(shift(&helped, method) >= shift(&worse, method));
        }
    }
}
