//! What was read, seen, checked and found takes the place of what was planned.

use uuid::Uuid;

use super::super::MethodContext;
use super::FaultsSeen;
use crate::faults::acceptance::Checked;
use crate::faults::acceptance::{Found, Then};
use crate::field;
use crate::field::{Field, One};
use crate::job::{CheckPlace, CheckWhat, Lighting, TorchEntry};
use crate::method::{ARC_ONLY_KG, Moves, NotGood, School, Target, Way};
use crate::stage::looked;
use crate::stage::looked::Stands;

impl MethodContext<'_> {
    /// Once it was lit for this way, what was read and logged takes the place of what was planned.
    pub(super) fn as_logged(&self, way: Way, target: Option<&Target>, moves: &mut Moves) {
        let round = self.round;
        let lit_for = round
            .lit
            .as_ref()
            .filter(|lit| lit.what == Lighting::Main)
            .and_then(|lit| lit.frozen.as_ref())
            .and_then(|frozen| frozen.way);
        if lit_for != Some(way) {
            return;
        }
        self.as_seen(moves);
        self.as_checked(moves);
        let Some(target) = target else { return };
        let readings = round.read_in_round();
        let beads: Vec<f64> = round
            .said_at_torch()
            .filter(|(_, entry)| matches!(entry.entry, TorchEntry::Bead { .. }))
            .map(|(minutes, _)| minutes)
            .collect();
        let peened = round.said_at_torch().filter(|(_, entry)| entry.entry == TorchEntry::Peened).count();
        if beads.is_empty() {
            return;
        }
        let began: Vec<f64> = beads
            .iter()
            .filter_map(|at| readings.iter().rev().find(|reading| reading.minutes <= *at))
            .map(|reading| reading.celsius)
            .collect();
        let share = |count: usize, of: usize| if of == 0 { 0.0 } else { count as f64 / of as f64 };
        moves.share_beads_cold = share(began.iter().filter(|at| **at < target.least_c).count(), began.len());
        moves.share_beads_hot = share(began.iter().filter(|at| **at > target.most_c).count(), began.len());
        if let Some(lowest) = began.iter().copied().reduce(f64::min).filter(|_| way.school.preheats()) {
            moves.preheat_short_k = (target.least_c - lowest).max(0.0);
        }
        moves.share_not_peened = share(beads.len().saturating_sub(peened), beads.len());
        if let Some(lowest) = began.iter().copied().reduce(f64::min) {
            moves.arc_only_short_k = self.arc_only_short_k(way, lowest);
        }
    }

    /// Under the target of the whole part, for a bronze that the arc alone warms.
    pub(super) fn arc_only_short_k(&self, way: Way, at_c: f64) -> f64 {
        let heavy = self.part.weight.as_ref().is_some_and(|weight| weight.kg() > ARC_ONLY_KG);
        if way.school != School::ArcOnly || !heavy {
            return 0.0;
        }
        let whole = self.target_of(Way { school: School::WholePart, ..way });
        whole.map_or(0.0, |whole| (whole.target_c - at_c).max(0.0))
    }

    /// What did not go well at the torch, and what became of it.
    ///
    /// Each refill makes good the fault before it, and so does a bead in what was ground out. What is seen twice
    /// counts twice.
    fn as_seen(&self, moves: &mut Moves) {
        let mut seen = FaultsSeen::default();
        // What reached the shop late counts from when it was.
        let mut said: Vec<_> = self.round.said_at_torch().collect();
        said.sort_by(|(a, _), (b, _)| a.total_cmp(b));
        for (_, entry) in said {
            seen.hear(&entry.entry);
        }
        moves.faults_open = seen.open;
        moves.faults_made_good = seen.made_good;
        moves.toe_crack = seen.toe_crack;
        moves.moved = seen.moved;
        // Where it ran on its hole is behind it, and it is open until a new round mends it.
        moves.tips_without_hole += seen.ran_on;
        moves.crack_open |= seen.ran_on + seen.cracks > 0;
    }

    /// What the check found.
    fn as_checked(&self, moves: &mut Moves) {
        let verdict = |field: Field<One<Checked>>| self.round.get(field);
        let bad = |field: Field<One<Checked>>| verdict(field) == Some(Checked::NotOk);
        // By place it is known what was found; of the whole only that something was, until each place is looked at.
        let said_at =
            |field: &Field<One<Checked>>| self.round.values.get(field.key()).map_or(0, |held| held.revision);
        let whole = |what: CheckWhat, field: Field<One<Checked>>| {
            !self.each_place_since(what, said_at(&field)) && bad(field)
        };
        moves.crack_open |= whole(CheckWhat::CracksAgain, field::check::CRACKS_AGAIN)
            || whole(CheckWhat::NextDay, field::check::NEXT_DAY);
        // What moved is moved until somebody has found it straight.
        let straight =
            self.shows(CheckPlace { what: CheckWhat::Alignment, at: None, side: None }) == Stands::Good;
        moves.moved = whole(CheckWhat::Alignment, field::check::ALIGNMENT) || moves.moved && !straight;
        // A loose pin joins as little as a bead that is not fused.
        let found = [
            (CheckWhat::Toes, field::check::TOES, NotGood::ToeCrack),
            (CheckWhat::Pins, field::check::PINS, NotGood::NotFused),
            (CheckWhat::Leak, field::check::LEAK, NotGood::Leak),
        ];
        let said = found.into_iter().filter_map(|(what, field, found)| whole(what, field).then_some(found));
        moves.not_good.extend(said);
        self.as_found(moves);
        moves.checked_clean = !moves.crack_open && self.every_face_clean();
    }

    /// Each place where something is looked for was looked at by itself since then: both sides of a seam that has two.
    fn each_place_since(&self, what: CheckWhat, since: u64) -> bool {
        let looked = |at: Option<Uuid>, side: Option<u32>| {
            let place = CheckPlace { what, at, side };
            self.round.looked.iter().any(|it| it.place == place && it.revision > since)
        };
        let mut places =
            self.cracks.iter().filter(|crack| crack.worked()).map(|crack| Some(crack.id)).peekable();
        if matches!(what, CheckWhat::Leak | CheckWhat::Alignment) || places.peek().is_none() {
            return looked(None, None);
        }
        places.all(|at| looked(at, None) || (looked(at, Some(1)) && looked(at, Some(2))))
    }

    /// How a place stands by what was looked at.
    fn shows(&self, at: CheckPlace) -> Stands<'_> {
        looked::stands(self.round, at, &looked::place(self.round, self.part, self.cracks, at))
    }

    /// Dye or magnetic particle showed nothing at any place that was looked at.
    fn every_face_clean(&self) -> bool {
        let at = |crack: Option<Uuid>| CheckPlace { what: CheckWhat::CracksAgain, at: crack, side: None };
        let mut worked = self.cracks.iter().filter(|crack| crack.worked()).peekable();
        if worked.peek().is_none() {
            return self.shows(at(None)) == Stands::Good;
        }
        worked.all(|crack| self.shows(at(Some(crack.id))) == Stands::Good)
    }

    /// What is found at its place, and not made good there: each counts as what it is.
    fn as_found(&self, moves: &mut Moves) {
        let mut places: Vec<CheckPlace> = self.round.looked.iter().map(|it| it.place).collect();
        places.sort_unstable();
        places.dedup();
        let duty = looked::duty(self.round, self.part);
        for at in places {
            let (found, watched) = match self.shows(at) {
                Stands::NotGood(Some(it)) => (it.found, false),
                Stands::Left(it) => (it.found, it.then == Some(Then::Watch)),
                Stands::NotGood(None) | Stands::Good | Stands::Open | Stands::Measure(_) => continue,
            };
            let counts = match found {
                Found::Crack => {
                    moves.crack_open |= !watched;
                    None
                }
                Found::OutOfLine => {
                    moves.moved = true;
                    None
                }
                Found::NotWetted | Found::PinLoose => Some(NotGood::NotFused),
                Found::Leak => duty.tight.then_some(NotGood::Leak),
                Found::Pore => (duty.carries || duty.tight).then_some(NotGood::Pore),
                Found::Notch => duty.shock.then_some(NotGood::NotchUnderShock),
                Found::Good | Found::LowSpot | Found::HardEdge | Found::ResidueLeft => None,
            };
            moves.not_good.extend(counts);
        }
    }
}
