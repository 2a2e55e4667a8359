//! What moves the odds of a repair, in log-odds that are added.

use std::collections::BTreeSet;

use serde::Serialize;

use super::odds::{CRACK_OPEN, of_a_year};
use super::own_repair::OwnRepair;
use super::{Joins, MethodId, StitchKind};
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
    /// A bronze laid by the arc alone: K by which the part stays under the target of the whole part.
    pub arc_only_short_k: f64,
    /// Places with a fault at the torch that was not made good, and those that were.
    pub faults_open: u32,
    pub faults_made_good: u32,
    pub toe_crack: Option<ToeCrack>,
    /// The alignment is off by more than it may.
    pub moved: bool,
    /// What the check found and left.
    pub not_good: Vec<NotGood>,
    /// A crack was found and is open.
    pub crack_open: bool,
    /// At this place, the one before and those before it.
    pub rounds_failed_here: u32,
}

/// A crack beside a bead.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum ToeCrack {
    Open,
    /// Ground out and filled again.
    GroundOut,
}

impl ToeCrack {
    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        match id {
            "open" => Some(Self::Open),
            "ground_out" => Some(Self::GroundOut),
            _ => None,
        }
    }

    fn shift(self) -> f64 {
        match self {
            Self::Open => -0.8,
            Self::GroundOut => -0.3,
        }
    }
}

/// A line of the check that is not good.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub enum NotGood {
    ToeCrack,
    NotFused,
    /// Where it has to be tight.
    Leak,
    /// Over its limit where it carries or is tight.
    Pore,
    /// At the toe, under shock.
    NotchUnderShock,
}

impl NotGood {
    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        match id {
            "toe_crack" => Some(Self::ToeCrack),
            "not_fused" => Some(Self::NotFused),
            "leak" => Some(Self::Leak),
            "pore" => Some(Self::Pore),
            "notch_under_shock" => Some(Self::NotchUnderShock),
            _ => None,
        }
    }

    fn shift(self) -> f64 {
        match self {
            Self::ToeCrack | Self::NotFused | Self::Leak => -1.5,
            Self::Pore | Self::NotchUnderShock => -0.5,
        }
    }
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
/// House: so many repairs by a method, and it counts as practised; with fewer a piece of scrap is done first.
pub const PRACTISED: f64 = 5.0;
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
        for (name, shift) in self.of_the_heat(method) {
            add(name, shift);
        }
        let caught: f64 = self.run_past.iter().map(|chance| 1.0 - share(*chance)).product();
        add("tip_missed", if heated { caught - 1.0 } else { 0.0 });
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
        if stick || method == TigNickel {
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
        let open = (0.3 * f64::from(self.faults_open)).min(1.2);
        add("faults", -open - (0.1 * f64::from(self.faults_made_good)).min(0.4));
        // Seen at the torch and at the check it is one crack.
        let at_torch = self.toe_crack.map_or(0.0, ToeCrack::shift);
        let found: BTreeSet<NotGood> = self.not_good.iter().copied().collect();
        let at_check = if found.contains(&NotGood::ToeCrack) { NotGood::ToeCrack.shift() } else { 0.0 };
        if at_torch < at_check {
            add("toe_crack", at_torch);
        }
        let counts = |line: &&NotGood| **line != NotGood::ToeCrack || at_check <= at_torch;
        add("not_good", found.iter().filter(counts).map(|line| line.shift()).sum());
        add("moved", if self.moved { -0.3 } else { 0.0 });
        add("came_back", -0.4 * f64::from(self.rounds_failed_here));
        parts.sort_by(|a, b| b.shift.abs().total_cmp(&a.shift.abs()));
        if self.crack_open {
            parts.insert(0, OddsPart { name: CRACK_OPEN.to_owned(), shift: 0.0 });
        }
        parts
    }

    /// What was short of its heat, uneven, restrained or fell too fast.
    fn of_the_heat(&self, method: MethodId) -> Vec<(&'static str, f64)> {
        let heated = !method.without_heat();
        let share = |share: f64| share.clamp(0.0, 1.0);
        let mut moved = Vec::new();
        let short = if heated { -(0.2 * self.preheat_short_k.max(0.0) / 50.0).min(0.8) } else { 0.0 };
        let cold = if heated { -0.4 * share(self.share_beads_cold) } else { 0.0 };
        if cold < short {
            moved.push(("beads_cold", cold));
        } else {
            moved.push(("preheat_short", short));
        }
        let uneven = if heated { -(0.15 * self.uneven_over_k.max(0.0) / 25.0).min(0.6) } else { 0.0 };
        let restraint = if heated && self.closed_heated_locally { -0.4 } else { 0.0 };
        if restraint < uneven {
            moved.push(("restraint", restraint));
        } else {
            moved.push(("uneven", uneven));
        }
        if heated && self.fall_over_limit > 1.5 {
            moved.push(("fell_fast", -(0.25 * (self.fall_over_limit / 1.5).log2()).min(0.75)));
        }
        if matches!(method.entry().joins, Joins::ArcBronze) {
            moved.push(("arc_only_short", -(0.2 * self.arc_only_short_k.max(0.0) / 50.0).min(1.6)));
        }
        moved
    }
}

/// What the parts come to: those against it together never under -2.5.
#[must_use]
pub fn shift_of(parts: &[OddsPart]) -> f64 {
    let against: f64 = parts.iter().map(|part| part.shift.min(0.0)).sum();
    let favour: f64 = parts.iter().map(|part| part.shift.max(0.0)).sum();
    against.max(LEAST_SHIFT) + favour
}

/// What became of a repair.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Became {
    /// It held when it was last asked.
    Held,
    /// It holds with a fault: half of each.
    Faulty,
    Failed,
}

/// A repair of ours as it counts for the next.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outcome {
    pub became: Became,
    /// Until it was asked, or failed.
    pub days: f64,
    /// Of the same iron: another one counts half.
    pub same_iron: bool,
    /// What burdened it at hand-over, in log-odds.
    pub shift: f64,
}

/// What became of the shop's own repairs by a method.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Outcomes {
    pub known: Vec<Outcome>,
}

/// Repairs that were burdened alike: how much they weigh as held, and as failed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Weighed {
    pub shift: f64,
    pub held: f64,
    pub failed: f64,
}

impl Weighed {
    /// Of what became of them, at these odds of an unburdened one.
    pub fn log_likelihood(&self, odds: f64) -> f64 {
        let burdened = odds * self.shift.exp();
        let log_failed = -burdened.ln_1p();
        self.held * (burdened.ln() + log_failed) + self.failed * log_failed
    }
}

impl Outcomes {
    /// Those that were burdened alike together.
    pub(super) fn weighed(&self) -> Vec<Weighed> {
        let mut weighed: Vec<Weighed> = Vec::new();
        for Outcome { became, days, same_iron, shift } in &self.known {
            let iron = if *same_iron { 1.0 } else { 0.5 };
            let held = iron * of_a_year(*days).min(1.0);
            let (held, failed) = match became {
                Became::Held => (held, 0.0),
                Became::Faulty => (held / 2.0, iron / 2.0),
                Became::Failed => (0.0, iron),
            };
            match weighed.iter_mut().find(|it| (it.shift - shift).abs() < 1e-9) {
                Some(alike) => {
                    alike.held += held;
                    alike.failed += failed;
                }
                None => weighed.push(Weighed { shift: *shift, held, failed }),
            }
        }
        weighed
    }
}

/// What became of our own repairs by this method.
#[must_use]
pub fn own_outcomes(
    repairs: &[OwnRepair],
    (method, variant): (MethodId, Variant),
    leading: Iron,
) -> Outcomes {
    let mut own = Outcomes::default();
    for it in repairs.iter().filter(|it| it.method == method) {
        // Locks had one prior whatever the wall.
        let kept = if it.method == MethodId::StitchLocks && it.variant == Variant::Usual.id() {
            Variant::Pins(StitchKind::DrawIn).id()
        } else {
            it.variant.as_str()
        };
        if kept != variant.id() {
            continue;
        }
        let same_iron = it.iron == leading;
        let became = match it.became.as_str() {
            "holds" => Became::Held,
            "fault" => Became::Faulty,
            "failed" => Became::Failed,
            _ => continue,
        };
        own.known.push(Outcome { became, days: it.days, same_iron, shift: it.shift });
    }
    own
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

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::method::MethodId::{
        ArcNickel, GasIron, MigBrazeSi, Stitch, Strap, TigBrazeSi, TigNickel, TorchBraze,
    };
    use crate::method::for_days;

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
    #[case::by_the_arc_alone(Moves { arc_only_short_k: 160.0, ..Moves::default() }, TigBrazeSi, -0.64)]
    #[case::by_the_arc_far_off(Moves { arc_only_short_k: 900.0, ..Moves::default() }, TigBrazeSi, -1.6)]
    #[case::a_stick_is_no_bronze(Moves { arc_only_short_k: 160.0, ..Moves::default() }, ArcNickel, 0.0)]
    #[case::faults(Moves { faults_open: 1, faults_made_good: 3, ..Moves::default() }, TorchBraze, -0.6)]
    #[case::faults_without_end(Moves { faults_open: 9, faults_made_good: 9, ..Moves::default() }, TorchBraze, -1.6)]
    #[case::a_toe_crack(Moves { toe_crack: Some(ToeCrack::Open), ..Moves::default() }, ArcNickel, -0.8)]
    #[case::ground_out(Moves { toe_crack: Some(ToeCrack::GroundOut), ..Moves::default() }, ArcNickel, -0.3)]
    #[case::seen_again_at_the_check(
        Moves { toe_crack: Some(ToeCrack::Open), not_good: vec![NotGood::ToeCrack], ..Moves::default() }, ArcNickel, -1.5
    )]
    #[case::a_leak_and_a_notch(
        Moves { not_good: vec![NotGood::NotchUnderShock, NotGood::Leak, NotGood::Leak], ..Moves::default() }, TorchBraze, -2.0
    )]
    #[case::moved(Moves { moved: true, ..Moves::default() }, ArcNickel, -0.3)]
    #[case::came_back(Moves { rounds_failed_here: 2, ..Moves::default() }, ArcNickel, -0.8)]
    #[case::a_pin_misses_no_tip(Moves { run_past: vec![0.5], ..Moves::default() }, Stitch, 0.0)]
    #[case::bronze_is_never_peened(Moves { share_not_peened: 1.0, ..Moves::default() }, TigBrazeSi, 0.0)]
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
        assert!((for_days(0.8, 365.0, &[]) - 0.8).abs() < 1e-12 && for_days(0.8, 3650.0, &[]) < 0.7);
        assert!((for_days(0.8, 0.0, &[]) - 0.97).abs() < 1e-12, "no repair is ever certain");
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
