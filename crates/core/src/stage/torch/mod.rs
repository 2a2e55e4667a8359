//! Stage 7: what to do next at the torch.

mod beads;
mod clocks;
mod lay_out;
mod lighting;
mod pins;
mod stop_rule;
mod stopping;
mod trouble;

use std::sync::Arc;

use serde::{Deserialize, Serialize};

pub(crate) use beads::BeadsAsked;
pub use beads::{BeadsAhead, BeadsPlan, LayerStrip, LiveBead, NextBead, SeamStrip, StripBead};
use clocks::GasClock;
pub use clocks::TorchClock;
use lay_out::LayOut;
pub use lay_out::{LayLine, not_laid_out};
pub(crate) use lay_out::{hot_work as laid_out_hot, lines as laid_out};
pub(crate) use lighting::Bake;
pub use lighting::{TackState, TackTurn};
pub use pins::NextPin;
use pins::in_turn;
pub(crate) use stop_rule::StopAsked;
pub use stop_rule::{StopRule, StopWay};
pub(crate) use stopping::in_one_heat;
pub use stopping::{GoOn, MustStop};
pub(crate) use trouble::TroubleAsked;
pub use trouble::{CauseView, TroubleView};

use super::cooling::CoolingPlan;
use super::cracks::MapPlan;
use super::heat::HeatPlan;
use super::part::PartFacts;
use super::prep::PrepPlan;
use super::taught::PEENING;
use super::{Amount, Caution, Stage, Station};
use crate::figure::{Certainty, Figure, Source};
use crate::heat::Body;
use crate::job::{Job, Reading, Round, TorchEntry};
use crate::method::{Place, Way};
use crate::quantity::{Rounding, Shown, Unit, UnitSystem, exactly, number};
use crate::shop::Shop;
use crate::stores::Take;

/// Beads or pins done and to do, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TorchPlan {
    /// "bead", "pin", "strap" or "fill".
    pub piece: String,
    pub done: u32,
    pub planned: u32,
    /// The pin to set next; nothing for beads, and once all are in.
    pub next_pin: Option<NextPin>,
    /// The beads in their order; nothing for a flame and for what is cold.
    pub beads: Option<BeadsPlan>,
    /// What a later reading is judged by.
    #[serde(skip)]
    pub(crate) ahead: Option<Arc<BeadsAhead>>,
    /// What cools when it is out of the heat; nothing for a way that is not heated.
    #[serde(skip)]
    pub(crate) falls: Option<Body>,
    /// It left the heat, and did not come back.
    pub out: bool,
    /// What may be behind each thing that goes wrong; empty while it is not lit.
    pub trouble: Vec<TroubleView>,
    /// Whether to go on; nothing while it is not lit, or once it is covered.
    pub stop_rule: Option<StopRule>,
    /// Between these, in degC, a bead may begin; nothing for a way without heat.
    pub window: Option<(f64, f64)>,
    /// What the part is brought to before the first bead, in degC.
    pub aim_c: f64,
    /// How long it then soaks, in min; 0 for none.
    pub soak_min: f64,
    /// What must stay cool and did not: said aloud, and on the record.
    pub passed: Vec<String>,
    /// The last temperature read at the joint; nothing while none was.
    pub joint: Option<JointView>,
    /// Peening belongs to this way.
    pub peen: bool,
    /// What lies ready before it is lit: after that one cannot stop.
    pub lay_out: Vec<LayLine>,
    /// What a helper holds, does and looks out for.
    pub helper: Vec<String>,
    /// What is done at once when it must stop.
    pub must_stop: MustStop,
    /// What going on needs, of what was stopped before all was done; nothing where it was not.
    pub go_on: Option<GoOn>,
}

/// The joint's own temperature, judged by the method.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JointView {
    pub metric: Shown,
    pub imperial: Shown,
    /// When it was read: "1 h 05".
    pub at: String,
    /// What it means: "too cold to braze ...".
    pub words: String,
}

/// A reading of the pad, judged: ready to be shown at arm's length.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Live {
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    pub celsius: f64,
    pub metric: Shown,
    pub imperial: Shown,
    pub place: Place,
    pub place_words: String,
    /// "rising 6 a minute", in each system of units.
    pub trend_metric: String,
    pub trend_imperial: String,
    /// The job clock: "1 h 05".
    pub clock: Shown,
    /// What to do now; empty where the reading does not decide it.
    pub next: String,
    /// Where the next bead goes: how hot it is there, and when it may start; nothing where none is to come.
    pub bead: Option<LiveBead>,
    /// What runs down.
    pub clocks: Vec<TorchClock>,
}

/// What decides the next thing at the torch, but for the reading.
#[derive(Debug, Clone, PartialEq)]
pub struct AtTorch {
    piece: &'static str,
    done: u32,
    planned: u32,
    window: Option<(f64, f64)>,
    aim_c: f64,
    soak_min: f64,
    /// Minutes on the job clock since which the part is at what it is brought to.
    warm_from_min: Option<f64>,
    wants_peening: bool,
    ahead: Option<Arc<BeadsAhead>>,
    falls: Option<Body>,
    /// It left the heat.
    out: bool,
    /// The gases that run down.
    gas: Vec<GasClock>,
    /// A bead was laid since it was lit: it is not brought to its target and soaked any more.
    begun: bool,
    /// Of a bake or a tacking: what to do once it is warm, or as it is.
    says: String,
    units: UnitSystem,
}

impl AtTorch {
    pub(crate) fn of(round: &Round, torch: &TorchPlan, units: UnitSystem) -> Self {
        let work = Self {
            piece: match torch.piece.as_str() {
                "pin" => "pin",
                "strap" => "strap",
                "fill" => "fill",
                _ => "bead",
            },
            done: torch.done,
            planned: torch.planned,
            window: torch.window,
            aim_c: torch.aim_c,
            soak_min: torch.soak_min,
            warm_from_min: None,
            wants_peening: torch.peen && wants_peening(round),
            ahead: torch.ahead.clone(),
            falls: torch.falls,
            out: torch.out,
            gas: clocks::gas_clocks(round),
            begun: round.standing_log().any(|it| matches!(it.entry, TorchEntry::Bead { .. })),
            says: String::new(),
            units,
        };
        work.having_seen(round)
    }

    /// A further reading of the part: the soak counts from when it is warm, anew when it fell out of the
    /// window.
    pub fn saw(&mut self, reading: Reading) {
        let least_c = self.window.map_or(f64::NEG_INFINITY, |(least, _)| least);
        if reading.celsius < least_c {
            self.warm_from_min = None;
        } else if reading.celsius >= self.aim_c && self.warm_from_min.is_none() {
            self.warm_from_min = Some(reading.minutes);
        }
    }

    /// Minutes of soak still to come at this time on the job clock.
    fn soak_left_min(&self, now_min: f64) -> f64 {
        self.warm_from_min.map_or(self.soak_min, |from| (from + self.soak_min - now_min).max(0.0))
    }

    /// Where the next bead goes by now, from the last reading of the part on; nothing while it is not begun with.
    pub(crate) fn bead(&self, reading: Reading, now_min: f64) -> Option<LiveBead> {
        let warming = !self.begun && self.soak_left_min(now_min) > 0.0;
        self.ahead.as_ref().filter(|_| !warming)?.live(reading, now_min)
    }

    /// The moments on the job clock, in min, from which something else is to be done although nothing more is said
    /// or read: the last bead, the end of the soak, of the wait, of what a reading is worth.
    pub(crate) fn turns(&self, reading: Reading) -> Vec<f64> {
        let mut turns = vec![reading.minutes];
        turns.extend(self.ahead.as_ref().and_then(|ahead| ahead.last_laid_min()));
        if !self.begun {
            let soaked_min = reading.minutes + self.soak_left_min(reading.minutes);
            turns.push(soaked_min);
        }
        let from_min = turns.iter().copied().fold(0.0, f64::max);
        turns.extend(self.bead(reading, from_min).map(|bead| bead.start_min));
        turns.extend(self.falls.is_some().then_some(reading.minutes + STALE_MIN + JUST_AFTER_MIN));
        turns
    }

    /// The last of these moments that has come.
    pub(crate) fn turned(&self, reading: Reading, now_min: f64) -> f64 {
        let come = self.turns(reading).into_iter().filter(|at| *at <= now_min);
        come.fold(reading.minutes, f64::max)
    }

    /// What to do now, in minutes on the job clock, after the last reading of the part.
    #[must_use]
    pub fn verb(&self, reading: Option<Reading>, now_min: f64) -> String {
        let now_min = reading.map_or(now_min, |reading| reading.minutes.max(now_min));
        let bead = reading.and_then(|reading| self.bead(reading, now_min));
        self.said(reading, bead.as_ref(), now_min)
    }

    fn said(&self, reading: Option<Reading>, bead: Option<&LiveBead>, now_min: f64) -> String {
        let number = self.done + 1;
        match self.piece {
            "pin" => return format!("Set pin {number}"),
            "strap" => return format!("Fit strap {number}"),
            "fill" => return format!("Fill seam {number}"),
            "tack" => {
                return match (reading, self.window) {
                    (Some(reading), Some((_, most_c))) if reading.celsius > most_c => {
                        format!("Wait until under {}", self.units.say_most(most_c, Unit::Celsius))
                    }
                    _ => self.says.clone(),
                };
            }
            _ => {}
        }
        if self.wants_peening {
            return format!("Peen bead {}", self.done);
        }
        if self.piece != "bake" && self.done >= self.planned {
            return "Cover it".to_owned();
        }
        let (Some(reading), Some((_, high))) = (reading, self.window) else {
            return "Take a reading".to_owned();
        };
        // Before the first bead it is brought to its target and soaks: least and most are for between.
        if !self.begun && reading.celsius <= high {
            if self.warm_from_min.is_none() && reading.celsius < self.aim_c {
                return format!("Heat to {}", self.units.say_least(self.aim_c, Unit::Celsius));
            }
            let left = self.soak_left_min(now_min).ceil();
            if left > 0.0 {
                let held = if self.piece == "bake" { "Hold it" } else { "Soak" };
                return format!("{held} {} more", self.units.say_exactly(left, Unit::Minutes));
            }
        }
        // What was read so long ago says nothing of a part that falls.
        if self.falls.is_some() && now_min - reading.minutes > STALE_MIN {
            return "Take a reading".to_owned();
        }
        match Place::of(reading.celsius, self.window) {
            Place::InWindow if self.piece == "bake" => self.says.clone(),
            Place::TooCold => "Reheat".to_owned(),
            Place::TooHot => format!("Wait until under {}", self.units.say_most(high, Unit::Celsius)),
            // The part is in its window, and where the bead goes it is still too hot.
            Place::InWindow | Place::NoWindow => match bead.filter(|bead| bead.wait_s >= 1.0) {
                Some(bead) => {
                    format!("Wait {}, then bead {number}", self.units.say(bead.wait_s / 60.0, Unit::Minutes))
                }
                None => format!("Lay bead {number}"),
            },
        }
    }
}

/// House: after so long a reading of a hot part is none any more, in min.
const STALE_MIN: f64 = 10.0;
const JUST_AFTER_MIN: f64 = 1e-6;
/// Ours: slower than this nobody can tell it from the pad's noise.
const STEADY_K_PER_MIN: f64 = 0.5;
/// Ours: a trend is taken over this much of the job clock, so that the pad's noise does not show.
const TREND_MIN: f64 = 2.0;

/// A reading judged against the window of the work in hand, none while there is none; `before` are
/// the earlier ones, oldest first. `now_min` is the time on the job clock: what was read by hand may be older.
#[must_use]
pub fn live(reading: Reading, before: &[Reading], work: Option<&AtTorch>, now_min: f64) -> Live {
    let now_min = reading.minutes.max(now_min);
    let window = work.and_then(|work| work.window);
    let (metric, imperial) = exactly(reading.celsius, Unit::Celsius);
    let earlier = before.iter().rev().find(|b| reading.minutes - b.minutes >= TREND_MIN);
    let k_per_min = earlier.map(|b| (reading.celsius - b.celsius) / (reading.minutes - b.minutes));
    // What is steady is so in both systems.
    let trend = |scale: f64, unit: &str| match k_per_min {
        None => String::new(),
        Some(rate) if rate.abs() < STEADY_K_PER_MIN => "steady".to_owned(),
        Some(rate) if rate > 0.0 => format!("rising {} {unit} a minute", number(rate * scale, 0)),
        Some(rate) => format!("falling {} {unit} a minute", number(-rate * scale, 0)),
    };
    let place = Place::of(reading.celsius, window);
    let bead = work.and_then(|work| work.bead(reading, now_min));
    Live {
        minutes: reading.minutes,
        celsius: reading.celsius,
        metric,
        imperial,
        place,
        place_words: place.words().to_owned(),
        trend_metric: trend(1.0, "°C"),
        trend_imperial: trend(1.8, "°F"),
        clock: exactly(reading.minutes, Unit::Minutes).0,
        next: work.map_or(String::new(), |work| work.said(Some(reading), bead.as_ref(), now_min)),
        clocks: work.map_or_else(Vec::new, |work| work.clocks(reading, bead.as_ref(), now_min)),
        bead,
    }
}

/// What the work at the torch is planned from.
pub(crate) struct TorchAsked<'a> {
    pub shop: &'a Shop,
    pub job: &'a Job,
    pub part: &'a PartFacts,
    pub way: Option<Way>,
    pub heat: Option<&'a HeatPlan>,
    pub laid: Option<(&'a PrepPlan, &'a MapPlan)>,
    pub cooling: Option<&'a CoolingPlan>,
    pub beads: Option<BeadsAsked<'a>>,
    /// The casting as the heat model sees it.
    pub body: Option<Body>,
    pub trouble: Option<(TroubleAsked<'a>, StopAsked<'a>)>,
    /// What it takes from the stores.
    pub takes: &'a [Take],
}

pub(crate) fn stage(asked: TorchAsked<'_>) -> Stage<Option<TorchPlan>> {
    let TorchAsked { shop, job, part, way, heat, laid, cooling, beads, body, trouble, takes } = asked;
    let prep = laid.map(|(prep, _)| prep);
    let mut plan = way.zip(heat).map(|(way, heat)| TorchPlan {
        peen: way.method.arc() && PEENING.for_method(way.method, job.round(), shop) != "none",
        lay_out: laid_out(
            job.round(),
            LayOut { round: job.round(), shop, part, way, heat, prep, cooling, takes }.words(),
        ),
        ..torch_plan(job, part, way, heat, prep, cooling)
    });
    if let (Some(plan), Some((prep, map))) = (&mut plan, laid) {
        in_turn(plan, job.round(), prep, map);
    }
    if let (Some(plan), Some(heat)) = (&mut plan, heat) {
        plan.falls = clocks::falls(heat.cold, body.as_ref());
    }
    if let (Some(plan), Some((beads, ahead))) = (&mut plan, beads.and_then(BeadsAsked::plan)) {
        (plan.beads, plan.ahead) = (Some(beads), Some(Arc::new(ahead)));
    }
    let burning = job.round().repaired() && job.round().covered_minutes().is_none();
    if let (Some(plan), Some((trouble, stop))) = (&mut plan, &trouble) {
        plan.go_on = stop.go_on(trouble, plan);
    }
    if let (Some(plan), Some((trouble, stop)), true) = (&mut plan, trouble, burning) {
        plan.trouble = trouble.views(plan);
        plan.stop_rule = Some(stop.rule(&trouble, plan));
    }
    let cautions = way.map_or(&[][..], |way| way.method.entry().at_torch);
    Stage {
        amount: amount(job.round(), plan.as_ref()),
        missing: Vec::new(),
        cautions: cautions.iter().map(|&caution| Caution::new(Station::Torch, caution)).collect(),
        figures: hottest(job.round()).into_iter().collect(),
        plan,
    }
}

/// What the pad showed at most, for the record.
#[must_use]
pub fn hottest(round: &Round) -> Option<Figure> {
    let hottest = round.readings.iter().max_by(|a, b| a.celsius.total_cmp(&b.celsius));
    hottest.map(|hottest| {
        Figure::new("torch.hottest", "Hottest at the pad", hottest.celsius, Unit::Celsius)
            .rounded(Rounding::Exact)
            .because(format!(
                "The highest of {} readings, {} after lighting up.",
                round.readings.len(),
                exactly(hottest.minutes, Unit::Minutes).0.text()
            ))
            .fact("Pad", "at the coldest far corner")
            .source(Source::Shop, Certainty::Measured)
    })
}

fn torch_plan(
    job: &Job,
    part: &PartFacts,
    way: Way,
    heat: &HeatPlan,
    prep: Option<&PrepPlan>,
    cooling: Option<&CoolingPlan>,
) -> TorchPlan {
    let (round, units) = (job.round(), part.units);
    let pins = way.method.without_heat();
    let window = (!pins).then_some((heat.least_c, heat.most_c));
    TorchPlan {
        aim_c: if heat.short_k > 0.0 { heat.least_c } else { heat.target_c },
        soak_min: heat.soak_minutes,
        passed: passed(job, part),
        joint: round.latest_joint().map(|joint| {
            let (metric, imperial) = exactly(joint.celsius, Unit::Celsius);
            let at = exactly(joint.minutes, Unit::Minutes).0.text();
            JointView {
                metric,
                imperial,
                at,
                words: (way.method.entry().joint_words)(joint.celsius, window, units),
            }
        }),
        piece: way.method.piece().to_owned(),
        done: round.beads() as u32,
        planned: prep.map_or(0, |prep| match way.method.piece() {
            "pin" => prep.pins,
            "bead" => prep.beads,
            _ => prep.seams.len() as u32,
        }),
        next_pin: None,
        beads: None,
        ahead: None,
        falls: None,
        out: clocks::is_out(round),
        trouble: Vec::new(),
        stop_rule: None,
        window,
        peen: way.method.arc(),
        lay_out: Vec::new(),
        helper: lay_out::helper_words(way, heat, part),
        must_stop: MustStop::of(way, heat, cooling),
        go_on: None,
    }
}

/// What must stay cool and was passed at the coldest place of the part: so it was passed everywhere.
fn passed(job: &Job, part: &PartFacts) -> Vec<String> {
    // As it was read: rounded, what was passed by a degree would read as kept.
    let say = |celsius| part.units.say_exactly(celsius, Unit::Celsius);
    let hottest = job
        .heats()
        .flat_map(|heat| {
            let by_hand = heat.log.iter().filter(|entry| entry.stands() && !entry.at_joint);
            let by_hand =
                by_hand.filter_map(|entry| Some(Reading { minutes: entry.minutes, celsius: entry.celsius? }));
            by_hand.chain(heat.readings.iter().copied()).collect::<Vec<_>>()
        })
        .max_by(|a, b| a.celsius.total_cmp(&b.celsius));
    let Some(hottest) = hottest else { return Vec::new() };
    part.heat_shy
        .iter()
        .filter_map(|shy| Some((&shy.what, shy.limit_c?)))
        .filter(|(_, limit_c)| hottest.celsius > *limit_c)
        .map(|(what, limit_c)| {
            format!(
                "{what}: passed its {} ({} at the coldest place, {} after lighting up). Look at it.",
                say(limit_c),
                say(hottest.celsius),
                exactly(hottest.minutes, Unit::Minutes).0.text()
            )
        })
        .collect()
}

/// How far round the work must be clear.
///
/// # Source
/// NFPA 51B.
pub(crate) fn hot_work_clearance(units: UnitSystem) -> &'static str {
    match units {
        UnitSystem::Metric => "11 m",
        UnitSystem::Imperial => "35 ft",
    }
}

fn amount(round: &Round, torch: Option<&TorchPlan>) -> Amount {
    let covered = round.repaired() && round.covered_minutes().is_some();
    let all_done = round.repaired() && torch.is_some_and(|t| t.planned > 0 && t.done >= t.planned);
    if covered || (all_done && torch.is_some_and(|t| t.window.is_none())) {
        Amount::Enough
    } else if round.lit.is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}

/// The last bead has not been peened yet.
pub(crate) fn wants_peening(round: &Round) -> bool {
    round
        .standing_log()
        .rev()
        .find(|e| matches!(e.entry, TorchEntry::Bead { .. } | TorchEntry::Peened))
        .is_some_and(|e| matches!(e.entry, TorchEntry::Bead { .. }))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::MethodId;
    use rstest::rstest;

    #[rstest]
    #[case::just_below(299.9, Place::TooCold)]
    #[case::at_the_least(300.0, Place::InWindow)]
    #[case::at_the_most(400.0, Place::InWindow)]
    #[case::just_above(400.1, Place::TooHot)]
    fn a_reading_stands_in_or_out_of_the_window(#[case] celsius: f64, #[case] place: Place) {
        assert_eq!(Place::of(celsius, Some((300.0, 400.0))), place);
        assert_eq!(Place::of(celsius, None), Place::NoWindow);
    }

    /// Hot nickel: 300, at least 260, at most 400, a soak of 20 min.
    fn soaking(done: u32) -> AtTorch {
        AtTorch {
            piece: "bead",
            done,
            planned: 4,
            window: Some((260.0, 400.0)),
            aim_c: 300.0,
            soak_min: 20.0,
            warm_from_min: None,
            wants_peening: false,
            ahead: None,
            falls: None,
            out: false,
            gas: Vec::new(),
            begun: done > 0,
            says: String::new(),
            units: UnitSystem::Metric,
        }
    }

    #[test]
    fn the_first_bead_waits_for_target_and_soak_and_later_ones_for_the_window() {
        let at = |minutes, celsius| Reading { minutes, celsius };
        let mut work = soaking(0);
        let mut next = |reading: Reading| {
            work.saw(reading);
            work.verb(Some(reading), reading.minutes)
        };
        assert_eq!(next(at(10.0, 270.0)), "Heat to 300 °C", "inside the window, not warm yet");
        assert_eq!(next(at(12.0, 300.0)), "Soak 20 min more");
        assert_eq!(next(at(20.0, 290.0)), "Soak 12 min more", "it may sink a little");
        assert_eq!(next(at(31.5, 305.0)), "Soak 1 min more");
        assert_eq!(next(at(32.0, 305.0)), "Lay bead 1");
        assert_eq!(next(at(33.0, 259.0)), "Heat to 300 °C", "fallen out: anew");
        assert_eq!(next(at(40.0, 301.0)), "Soak 20 min more");
        assert_eq!(next(at(61.0, 401.0)), "Wait until under 400 °C");
        let later = soaking(1);
        assert_eq!(later.verb(Some(at(40.0, 265.0)), 40.0), "Lay bead 2");
        assert_eq!(later.verb(Some(at(40.0, 259.0)), 40.0), "Reheat");
        assert_eq!(soaking(4).verb(None, 0.0), "Cover it");
    }

    #[rstest]
    #[case::far_too_cold(MethodId::TorchBraze, 600.0, "too cold to braze")]
    #[case::just_too_cold(MethodId::TorchBraze, 699.0, "too cold to braze")]
    #[case::try_the_rod(MethodId::TorchBraze, 700.0, "touch the rod")]
    #[case::runs(MethodId::TorchBraze, 880.0, "bronze runs")]
    #[case::still_runs(MethodId::TorchBraze, 950.0, "bronze runs")]
    #[case::boils(MethodId::TorchBraze, 951.0, "too hot")]
    #[case::nickel_waits(MethodId::ArcNickel, 401.0, "wait until under 400 °C")]
    #[case::nickel_goes_on(MethodId::ArcNickel, 400.0, "ready")]
    #[case::gas(MethodId::GasIron, 900.0, "flow")]
    fn a_joint_is_judged_by_its_method(#[case] method: MethodId, #[case] celsius: f64, #[case] words: &str) {
        let said = (method.entry().joint_words)(celsius, Some((260.0, 400.0)), UnitSystem::Metric);
        assert!(said.contains(words), "{said}");
    }

    #[test]
    fn the_trend_is_taken_over_two_minutes_in_both_systems() {
        let at = |minutes, celsius| Reading { minutes, celsius };
        let before = [at(0.0, 200.0), at(1.0, 290.0), at(2.5, 310.0)];
        // Hand-worked: from minute 1.0 to 3.5: (300 - 290) / 2.5 = 4 K, 7.2 F deg a minute
        let now = live(at(3.5, 300.0), &before, Some(&soaking(0)), 3.5);
        assert_eq!((now.place, now.next.as_str()), (Place::InWindow, "Soak 20 min more"));
        assert_eq!(
            (now.trend_metric.as_str(), now.trend_imperial.as_str()),
            ("rising 4 °C a minute", "rising 7 °F a minute")
        );
        assert_eq!((now.metric.text(), now.imperial.text()), ("300 °C".into(), "572 °F".into()));
        assert_eq!(live(at(1.5, 300.0), &before[..1], None, 1.5).trend_metric, "");
        // Hand-worked: (312.4 - 310) / 6.5 = 0.37 K, 0.66 F deg a minute
        let slow = live(at(9.0, 312.4), &before, None, 9.0);
        assert_eq!((slow.trend_metric.as_str(), slow.trend_imperial.as_str()), ("steady", "steady"));
    }
}
