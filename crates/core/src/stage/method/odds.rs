//! What moves the odds of each way on this job, and what would raise them.

use super::{Judged, OddsLine};
use uuid::Uuid;

use crate::casting::old_filler::OldFiller;
use crate::crack::said::CrackFate;
use crate::crack::said::EndKind;
use crate::crack::stop_hole::{FoundBy, stop_hole};
use crate::crack::tip_offset::beyond;
use crate::faults::acceptance::{Found, Then};
use crate::faults::causes::Seen;
use crate::field::{self, Field, OneOf};
use crate::job::{CheckPlace, CheckWhat, Deed, Lighting, TorchEntry};
use crate::method::odds_words;
use crate::method::{
    ARC_ONLY_KG, CRACK_OPEN, MethodId, Moves, NotGood, Odds, OddsPart, School, Target, ToeCrack, Variant,
    Way, odds_with,
};
use crate::stage::cooling::{limit_k_per_h, wrapping};
use crate::stage::looked::{self, Stands};
use crate::stage::taught::{DRILL, OLD_WELD, PEENING};

/// Faults at the torch as the log tells them, one after the other.
#[derive(Debug, Default)]
struct FaultsSeen {
    open: u32,
    made_good: u32,
    toe_crack: Option<ToeCrack>,
    moved: bool,
    ran_on: u32,
    /// Seen in the iron, and not ground out and filled since.
    cracks: u32,
    /// Ground out, and not filled again yet.
    ground: bool,
}

impl FaultsSeen {
    fn hear(&mut self, entry: &TorchEntry) {
        match entry {
            TorchEntry::Trouble { seen, .. } => match seen {
                Seen::NoFlow | Seen::Pinholes | Seen::BlowThrough | Seen::SlagIn => self.open += 1,
                Seen::NewCrack => self.cracks += 1,
                Seen::ToeCrack => self.toe_crack = Some(ToeCrack::Open),
                Seen::RanOn => self.ran_on += 1,
                Seen::Moved => self.moved = true,
                Seen::Soot
                | Seen::WhiteSmoke
                | Seen::RunsAway
                | Seen::Undercut
                | Seen::HardSpot
                | Seen::Popping => {}
            },
            TorchEntry::Did { what: Deed::GroundOut } => self.ground = true,
            TorchEntry::Did { what: Deed::Refilled } => self.refill(),
            TorchEntry::Bead { .. } if self.ground => self.fill_what_was_ground(),
            _ => {}
        }
    }

    /// The crack beside the bead before what else there is.
    fn fill_what_was_ground(&mut self) {
        self.ground = false;
        if self.toe_crack == Some(ToeCrack::Open) {
            self.toe_crack = Some(ToeCrack::GroundOut);
        } else if self.cracks > 0 {
            self.cracks -= 1;
            self.made_good += 1;
        } else {
            self.refill();
        }
    }

    /// No crack is mended by a refill: it has to be ground out first.
    fn refill(&mut self) {
        if self.open > 0 {
            self.open -= 1;
            self.made_good += 1;
        }
    }
}

/// Ours: what moves the odds by less is not worth a word.
const LEAST_SHIFT: f64 = 0.005;

/// Ours: a change of the odds smaller than this is not worth saying.
const WORTH_SAYING: f64 = 0.015;

impl Judged<'_> {
    pub(super) fn variant(&self, way: Way) -> Variant {
        match (way.method, way.school) {
            (MethodId::Stitch | MethodId::StitchLocks, _) => Variant::Pins(self.stitch_kind(way.method)),
            (_, School::Modest) => Variant::Modest,
            _ => Variant::Usual,
        }
    }

    /// Of a way that was taken: as it was planned, and as it goes by what was read and logged.
    pub fn moves_of(&self, way: Way) -> (Moves, Moves) {
        let (target, edges) = (self.target_of(way), self.edges());
        let mut planned = self.planned_moves(way, target.as_ref(), &edges);
        planned.own_count = self.practised(way.method);
        let mut goes = planned.clone();
        self.as_logged(way, target.as_ref(), &mut goes);
        (planned, goes)
    }

    /// What is known of this job that is worse or better than ordinary: before the heat as it is planned, afterwards
    /// as it was read and logged.
    pub(super) fn moves(&self, way: Way, target: Option<&Target>, edges: &[(Way, f64, f64)]) -> Moves {
        let mut moves = self.planned_moves(way, target, edges);
        self.as_logged(way, target, &mut moves);
        moves
    }

    /// A strap goes over each seam.
    fn every_seam_strapped(&self) -> bool {
        let mut seams = self.cracks.iter().filter(|crack| crack.becomes == CrackFate::Repair).peekable();
        let strapped = |id| self.round.get(field::crack::STRAP.of(id)) == Some(true);
        seams.peek().is_some() && seams.all(|crack| strapped(crack.id))
    }

    fn planned_moves(&self, way: Way, target: Option<&Target>, edges: &[(Way, f64, f64)]) -> Moves {
        let round = self.round;
        let mut moves = Moves {
            oil_soaked_unbaked: round.get(field::part::OIL) == Some("soaked"),
            old_filler_left: self.old_filler_left(way),
            one_side_of_two: !way.method.without_heat()
                && (self.part.both_sides == Some(false)
                    || self.part.both_sides == Some(true) && !self.both_sides()),
            leading_iron: Some(self.belief.of(self.belief.leading)),
            t85_s: edges.iter().find(|(of, _, _)| *of == way).map(|(_, t85_s, _)| *t85_s),
            locked_in_stress: self.locked_in,
            strapped: self.every_seam_strapped(),
            cause_stays: round.get(field::part::CAUSE_CURED) == Some(false),
            rounds_failed_here: self.failed_here,
            arc_only_short_k: self.arc_only_short_k(way, self.part.ambient_c),
            ..Moves::default()
        };
        if !way.method.pins() {
            for end in self
                .cracks
                .iter()
                .filter(|crack| crack.becomes == CrackFate::Repair)
                .flat_map(|crack| &crack.ends)
            {
                match end.stop_hole {
                    Some(hole) => moves.run_past.push(hole.run_past_chance),
                    None if end.kind != Some(EndKind::Tip) || end.run_out.is_some() => {}
                    None if DRILL.on(round, self.shop) == "none" => moves.tips_followed_to_sound += 1,
                    None => moves.tips_without_hole += 1,
                }
            }
        }
        if self.taught(&PEENING, way) == "none" && way.method.arc() {
            moves.share_not_peened = 1.0;
        }
        if let (true, Some(sources), Some(target)) = (way.school.preheats(), self.sources_of(way), target) {
            let reached = sources.reach(target);
            moves.preheat_short_k = match reached {
                Some(reached) if !reached.least_only => 0.0,
                _ => sources.short_k(target).unwrap_or(0.0),
            };
            let whole = sources.zone.is_none();
            if let Some(reached) = reached.filter(|reached| whole && !reached.even_enough) {
                moves.uneven_over_k = (reached.worst_k - sources.limit_k).max(0.0);
            }
            moves.closed_heated_locally =
                matches!(way.school, School::Modest | School::Local) && self.part.restraint().holds();
            let wrap = wrapping(round, self.shop, way);
            let fastest =
                self.cooling(&sources.body, target.most_c, &wrap).map(|cooling| cooling.fastest_k_per_h());
            if let (Some(fastest), Some(limit)) = (fastest, limit_k_per_h(way, self.part)) {
                moves.fall_over_limit = fastest / limit;
            }
        }
        moves
    }

    /// Once it was lit for this way, what was read and logged takes the place of what was planned.
    fn as_logged(&self, way: Way, target: Option<&Target>, moves: &mut Moves) {
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
    fn arc_only_short_k(&self, way: Way, at_c: f64) -> f64 {
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
        let verdict = |field: Field<OneOf>| self.round.get(field);
        let bad = |field: Field<OneOf>| verdict(field) == Some("not_ok");
        // By place it is known what was found; of the whole only that something was, until each place is looked at.
        let said_at =
            |field: &Field<OneOf>| self.round.values.get(field.key()).map_or(0, |held| held.revision);
        let whole = |what: CheckWhat, field: Field<OneOf>| {
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

    /// Old or unknown filler stays where it should be out: bronze may stay under bronze where it is sound.
    fn old_filler_left(&self, way: Way) -> bool {
        let over = self.taught(&OLD_WELD, way) == "over"
            && matches!(self.round.old_filler(), Some(OldFiller::Nickel | OldFiller::Steel));
        let stays = over || self.round.get(field::part::OLD_FILLER_OUT) == Some(false);
        let bronze_on_bronze = !way.method.fusion();
        stays
            && !way.method.without_heat()
            && match self.round.old_filler() {
                Some(OldFiller::Bronze) => !bronze_on_bronze,
                Some(OldFiller::Nickel | OldFiller::Steel | OldFiller::Other) => true,
                Some(OldFiller::None) | None => false,
            }
    }

    /// What would raise the odds, each tried: the tips found better, the oil baked out, the iron settled.
    pub(super) fn raised_by(&self, way: Way, start: Odds, moves: &Moves) -> Vec<String> {
        let odds = |moves: &Moves| odds_with(start, &moves.parts(way.method)).mean;
        let now = odds(moves);
        let mut tried: Vec<(f64, String)> = Vec::new();
        let mut with = |what: &str, better: &Moves| {
            let then = odds(better);
            if then - now >= WORTH_SAYING {
                let said = format!("{what}: {:.0} to {:.0} of 100", now * 100.0, then * 100.0);
                tried.push((then, said));
            }
        };
        if !moves.run_past.is_empty() {
            with("Find the tips with dye", &Moves { run_past: self.with_dye(), ..moves.clone() });
        }
        if moves.tips_without_hole > 0 {
            with("A hole at each tip", &Moves { tips_without_hole: 0, ..moves.clone() });
        }
        if moves.oil_soaked_unbaked {
            with("Bake the oil out", &Moves { oil_soaked_unbaked: false, ..moves.clone() });
        }
        with("Be sure of the iron", &Moves { leading_iron: Some(1.0), ..moves.clone() });
        if moves.old_filler_left {
            with("Get the old filler out", &Moves { old_filler_left: false, ..moves.clone() });
        }
        if moves.one_side_of_two {
            with("Weld it from both sides", &Moves { one_side_of_two: false, ..moves.clone() });
        }
        if moves.cause_stays {
            with("Put right what broke it", &Moves { cause_stays: false, ..moves.clone() });
        }
        tried.sort_by(|a, b| b.0.total_cmp(&a.0));
        tried.into_iter().map(|(_, said)| said).collect()
    }

    /// The chance at each tip that its hole misses it, were they found with dye.
    fn with_dye(&self) -> Vec<f64> {
        let ends = self
            .cracks
            .iter()
            .filter(|crack| crack.becomes == CrackFate::Repair)
            .flat_map(|crack| crack.ends.iter().map(move |end| (crack, end)));
        ends.filter_map(|(crack, end)| {
            let planned = end.stop_hole?;
            let better = matches!(crack.found_by, Some(FoundBy::Dye | FoundBy::Magnetic)) || end.drilled;
            let wall = crate::quantity::WallMillimetres::new(end.wall_mm).ok()?;
            Some(if better {
                planned.run_past_chance
            } else {
                stop_hole(wall, beyond(&self.shop.tips, FoundBy::Dye).0, &self.shop.drills_mm)
                    .run_past_chance
                    .min(planned.run_past_chance)
            })
        })
        .collect()
    }
}

/// What a change of odds makes of a hundred: "6 fewer of 100".
pub(crate) fn of_a_hundred(change: f64) -> String {
    let of_100 = change * 100.0;
    match of_100.abs() {
        least if least < 0.5 => "hardly".to_owned(),
        many if of_100 < 0.0 => format!("{many:.0} fewer of 100"),
        many => format!("{many:.0} more of 100"),
    }
}

/// The parts worth a word, each with what it makes of a hundred.
pub(super) fn odds_lines(start: Odds, odds: Odds, parts: &[OddsPart]) -> Vec<OddsLine> {
    let stands_alone = |part: &OddsPart| part.name == CRACK_OPEN;
    let worth =
        parts.iter().enumerate().filter(|(_, part)| part.shift.abs() >= LEAST_SHIFT || stands_alone(part));
    let line = |(at, part): (usize, &OddsPart)| {
        let mut others = parts.to_vec();
        others.remove(at);
        let without = odds_with(start, &others).mean;
        let moves = of_a_hundred(odds.mean - without);
        OddsLine {
            name: part.name.clone(),
            shift: part.shift,
            words: odds_words(&part.name).to_owned(),
            moves,
        }
    };
    worth.map(line).collect()
}
