//! What moves the odds of each way on this job, and what would raise them.

mod as_it_went;

use super::{MethodContext, OddsLine};
use crate::casting::old_filler::OldFiller;
use crate::casting::said::Oil;
use crate::crack::said::{CrackFate, EndKind};
use crate::crack::stop_hole::{FoundBy, stop_hole};
use crate::crack::tip_offset::beyond;
use crate::faults::causes::Symptom;
use crate::field;
use crate::job::{Deed, TorchEntry};
use crate::method::customs::{OldWeld, Peening, StopHoleAt};
use crate::method::{
    CRACK_OPEN, MethodId, Moves, Odds, OddsPart, School, Target, ToeCrack, Variant, Way, odds_with,
    odds_words,
};
use crate::stage::cooling::{limit_k_per_h, wrapping};
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
                Symptom::NoFlow | Symptom::Pinholes | Symptom::BlowThrough | Symptom::SlagIn => {
                    self.open += 1
                }
                Symptom::NewCrack => self.cracks += 1,
                Symptom::ToeCrack => self.toe_crack = Some(ToeCrack::Open),
                Symptom::RanOn => self.ran_on += 1,
                Symptom::Moved => self.moved = true,
                Symptom::Soot
                | Symptom::WhiteSmoke
                | Symptom::RunsAway
                | Symptom::Undercut
                | Symptom::HardSpot
                | Symptom::Popping => {}
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

impl MethodContext<'_> {
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
            oil_soaked_unbaked: round.get(field::part::OIL) == Some(Oil::Soaked),
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
                    None if DRILL.on(round, self.shop) == StopHoleAt::None => {
                        moves.tips_followed_to_sound += 1
                    }
                    None => moves.tips_without_hole += 1,
                }
            }
        }
        if self.taught(&PEENING, way) == Peening::None && way.method.arc() {
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

    /// Old or unknown filler stays where it should be out: bronze may stay under bronze where it is sound.
    pub(super) fn old_filler_left(&self, way: Way) -> bool {
        let over = self.taught(&OLD_WELD, way) == OldWeld::Over
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
