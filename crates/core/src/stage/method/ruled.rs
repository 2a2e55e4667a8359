//! What the rules are asked about a job.

use super::{MethodContext, ways};
use crate::crack::said::CrackFate;
use crate::crack::said::Edges;
use crate::crack::said::PieceState;
use crate::field;
use crate::heat::{softening_preheat_c, t8_5_s};
use crate::iron::{Iron, least};
use crate::method::{MethodId, PieceFit, RuleFacts, Ruling, School, StitchKind, Way, apply_rules, pass_of};
use crate::prep::said::PinKind;
use crate::quantity::{Celsius, Unit, WallMillimetres};
use crate::stage::cracks::CrackPlan;
use crate::stage::prep::missing_cm3;

impl MethodContext<'_> {
    /// What became of what broke off, the worst of several breaks.
    fn piece(&self) -> PieceFit {
        let of = |crack: &CrackPlan| match (crack.full_break, crack.piece) {
            (false, _) | (true, Some(PieceState::There)) => PieceFit::There,
            (true, Some(PieceState::Lost)) => PieceFit::Lost,
            (true, Some(PieceState::Donor)) => PieceFit::Donor,
            (true, None) => PieceFit::NotSaid,
        };
        self.repaired().map(of).max().unwrap_or(PieceFit::There)
    }

    /// Whether every seam is a close lap: a crack never is, of a break somebody has to say.
    fn lap(&self) -> Option<bool> {
        let of = |crack: &CrackPlan| match crack.full_break {
            true => self.round.get(field::crack::LAP.of(crack.id)),
            false => Some(false),
        };
        self.repaired().map(of).reduce(|all, one| match (all, one) {
            (Some(false), _) | (_, Some(false)) => Some(false),
            (None, _) | (_, None) => None,
            (Some(true), Some(true)) => Some(true),
        })?
    }

    /// Whether any edge is one of these; nothing while nobody has said it of one.
    fn edges_are(&self, bad: &[Edges]) -> Option<bool> {
        let edges: Vec<Option<Edges>> =
            self.repaired().map(|crack| self.round.get(field::crack::EDGE.of(crack.id))).collect();
        if edges.iter().flatten().any(|edge| bad.contains(edge)) {
            Some(true)
        } else {
            edges.iter().all(Option::is_some).then_some(false)
        }
    }

    /// Whether burnt iron stays in a joint; nothing while it is burnt and nobody has said.
    fn burnt_stays(&self) -> Option<bool> {
        let burnt = self.cracks.iter().filter(|crack| {
            self.round.get(field::crack::EDGE.of(crack.id)) == Some(Edges::Burnt)
                && crack.becomes == CrackFate::Repair
        });
        let stays = burnt.map(|crack| self.round.get(field::crack::BURNT_OUT.of(crack.id)).map(|out| !out));
        let stays: Vec<Option<bool>> = stays.collect();
        if stays.contains(&Some(true)) { Some(true) } else { (!stays.contains(&None)).then_some(false) }
    }

    pub(super) fn stitch_kind(&self, method: MethodId) -> StitchKind {
        let loaded = self.round.get(field::part::LOADS).is_none_or(|loads| !loads.is_empty())
            || self.part.fluid_tight != Some(false);
        let draw_in = self.shop.pins == Some(PinKind::DrawIn);
        let service_c = self.round.get(field::part::SERVICE_TEMPERATURE);
        if method == MethodId::StitchLocks {
            return StitchKind::for_locks(self.part.wall_mm, service_c);
        }
        StitchKind::of(self.part.wall_mm, loaded, service_c, draw_in)
    }

    /// Of each way of the arc: how fast its edge cools, in s, and the preheat that would soften it;
    /// the hardest of the irons in question. Empty while the wall is not known.
    pub(super) fn edges(&self) -> Vec<(Way, f64, f64)> {
        let Some(wall) = self.part.wall_mm.and_then(|mm| WallMillimetres::new(mm).ok()) else {
            return Vec::new();
        };
        ways()
            .filter(|way| way.method.fusion())
            .filter_map(|way| {
                let at = match way.school {
                    School::Cold => self.part.ambient_c,
                    _ => self.target_of(way)?.target_c,
                };
                let pass = pass_of(way, wall, at)?;
                let part = Celsius::new(at).ok()?;
                let cools =
                    |iron: Iron| t8_5_s(&iron.properties(), pass, wall, part).unwrap_or(f64::INFINITY);
                let hardest = least(&self.belief.plausible, cools).iron;
                let softened = softening_preheat_c(&hardest.properties(), pass, wall);
                Some((way, cools(hardest), softened))
            })
            .collect()
    }

    pub(super) fn say(&self, value: f64, unit: Unit) -> String {
        self.shop.units.say(value, unit)
    }

    pub(super) fn ruling(&self, edges: &[(Way, f64, f64)]) -> Ruling {
        let reach: Vec<(Way, Result<(), String>)> =
            ways().filter_map(|way| Some((way, self.reach(way)?))).collect();
        let warm = Way { method: MethodId::ArcNickel, school: School::Warm };
        let late = self.late(ways());
        apply_rules(&RuleFacts {
            belief: self.belief,
            service_c: self.round.get(field::part::SERVICE_TEMPERATURE),
            heat_cycling: self.round.get(field::part::HEAT_CYCLING),
            service_min: self.round.get(field::part::SERVICE_TIME),
            life_days: self.part.life_days,
            oil: self.round.get(field::part::OIL),
            fluid_tight: self.part.fluid_tight,
            loads: self.round.get(field::part::LOADS),
            old_filler: self.round.old_filler(),
            old_filler_out: self.round.get(field::part::OLD_FILLER_OUT),
            seen: self.round.get(field::part::SEEN),
            machined: self.round.get(field::part::MACHINED),
            edges,
            wall_mm: self.part.wall_mm,
            restraint: self.part.shape.map(|_| self.part.restraint()),
            piece: self.piece(),
            warm_reached: reach.iter().find(|(way, _)| *way == warm).map(|(_, r)| r.is_ok()),
            reach: &reach,
            lap: self.lap(),
            hard_edges: self.edges_are(&[Edges::FlameCut, Edges::Melted]),
            burnt_stays: self.burnt_stays(),
            missing_cm3: missing_cm3(self.missing),
            patch: self.missing.iter().any(|it| it.patch.is_some()),
            under_pressure: self.round.get(field::part::PRESSURE).map(|bar| bar > 0.0),
            locked_in: self.locked_in,
            late: late.as_deref(),
            units: self.shop.units,
            rods: self.shop.rods.as_deref(),
            sets: self.shop.sets.as_deref(),
            stitch_kit: self.shop.stitch_kit,
        })
    }
}
