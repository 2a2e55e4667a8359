//! What it can be lit for beside the repair itself: the oil baked out, the pieces tacked.

use crate::casting::said::Oil;
use serde::Serialize;

use super::gate::{GateInputs, GateLine, hollow, hot_work, lock_and_class, readable};
use super::{HeatPlan, Station};
use crate::field;
use crate::heat::SimCache;
use crate::job::{Lighting, Round, Work};
use crate::method::Target;
use crate::quantity::Unit;
use crate::stage::BenchPlan;
use crate::stage::heat::{HeatStep, Sources, StepBurn, burnt_words, heated};
use crate::stage::part::PartFacts;
use crate::stage::prep::{BAKE_C, BAKE_MIN, BreakPlan};
use crate::stage::torch::{Bake, LayLine, TackTurn, laid_out, laid_out_hot};

/// Something it can be lit for beside the repair.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LightingPlan {
    pub what: Lighting,
    /// "Bake the oil out"
    pub label: String,
    /// How it is done.
    pub sentence: String,
    /// How long it takes, in words; empty where that is not known.
    pub timing: String,
    /// Between these, in degC, it is held; nothing for a tacking.
    pub window: Option<(f64, f64)>,
    /// Its ends as they are shown everywhere: "400", "450".
    pub window_ends: Option<(String, String)>,
    /// Whose turn it is at a tacking; nothing for a bake.
    pub tack: Option<TackTurn>,
    /// It is refused while anything stands here.
    pub refused: Vec<GateLine>,
    /// What lies ready first.
    pub lay_out: Vec<LayLine>,
    /// How a bake is run and what heats it; nothing for a tacking.
    #[serde(skip)]
    pub(crate) bake: Option<(Bake, Option<HeatPlan>)>,
}

/// House: a neighbour that forces it lets it be baked at this at least; then it is not baked clean.
const BAKE_LEAST_C: f64 = 250.0;
/// House: badly soaked it is baked at this, and no hotter.
const BAKE_MOST_C: f64 = 480.0;
/// House: the hold counts on until it has fallen so far under the bake, in K.
const MAY_SINK_K: f64 = 20.0;
/// House: a bake holds so much longer where it still smokes, in min.
const LONGER_MIN: f64 = 30.0;

/// The bake of a part; `limit_c` is what the most delicate thing on it stands.
fn bake_of(part: &PartFacts) -> Bake {
    let limit_c = part.heat_shy.iter().filter_map(|shy| shy.limit_c).fold(f64::INFINITY, f64::min);
    let target_c = if limit_c < BAKE_C { BAKE_LEAST_C } else { BAKE_C };
    Bake {
        target_c,
        least_c: target_c - MAY_SINK_K,
        most_c: BAKE_MOST_C.min(limit_c),
        hold_min: BAKE_MIN.0 + BAKE_MIN.1 * part.wall_mm.unwrap_or(0.0),
    }
}

/// What an oily part is brought to before it is repaired; nothing for a clean one.
pub(super) fn bake_target_c(round: &Round, part: &PartFacts) -> Option<f64> {
    (round.get(field::part::OIL) == Some(Oil::Soaked) && !round.repaired()).then(|| bake_of(part).target_c)
}

pub(super) struct LightingsInputs<'a> {
    pub gate: &'a GateInputs<'a>,
    pub sources: Option<&'a Sources>,
    pub bench: &'a BenchPlan,
    pub sims: &'a SimCache,
}

impl LightingsInputs<'_> {
    pub fn plans(&self) -> Vec<LightingPlan> {
        [self.bake(), self.tack()].into_iter().flatten().collect()
    }

    fn bake(&self) -> Option<LightingPlan> {
        let GateInputs { round, part, .. } = *self.gate;
        bake_target_c(round, part)?;
        let (bake, units) = (bake_of(part), part.units);
        let target = Target {
            target_c: bake.target_c,
            least_c: bake.least_c,
            most_c: bake.most_c,
            working: Vec::new(),
            disagree: None,
            forced_by: None,
            with_grays_figures: Vec::new(),
        };
        let heat = self.sources.and_then(|sources| heated(&target, bake.hold_min, sources, part, self.sims));
        let mut refused = Vec::new();
        let mut refuse = refuser(&mut refused);
        lock_and_class(self.gate, self.gate.hot_lock, &mut refuse);
        hollow(self.gate, &mut refuse);
        readable(self.gate, &mut refuse);
        for shy in part.heat_shy.iter().filter(|shy| shy.limit_c.is_none_or(|limit| limit < bake.target_c)) {
            let why = match shy.limit_c {
                Some(limit) => {
                    format!("{} must not pass {}.", shy.what, units.say_most(limit, Unit::Celsius))
                }
                None => format!("Nobody has said what {} stands.", shy.what),
            };
            refuse(Station::Part, "", "Take it off", why, "Take it off, or say what it stands.");
        }
        if let Some(heat) = heat.as_ref().filter(|heat| !heat.reached && !heat.within_the_estimate) {
            let key = field::heat::SOURCE.key();
            refuse(Station::Heat, key, "Find more heat", heat.sentence.clone(), "More heat, or a cover.");
        }
        drop(refuse);
        let held = |more: f64| units.say_exactly(bake.hold_min + more, Unit::Minutes);
        let clean = if bake.target_c < BAKE_C {
            " Something on it stands no more: afterwards it does not count as baked clean."
        } else {
            ""
        };
        let sentence = format!(
            "At {}, {} to {}, until it neither smokes nor weeps; to {} where it is badly soaked. The oil burns: outside \
             or under a lid. Wipe it white only when it has cooled to the hand.{clean}",
            units.say(bake.target_c, Unit::Celsius),
            held(0.0),
            held(LONGER_MIN),
            units.say_most(bake.most_c, Unit::Celsius),
        );
        let mut words: Vec<String> = heat.iter().map(|heat| heat.source_label.clone()).collect();
        words.extend(
            [
                "Solvent flashed off, nothing of it left on the part or near it",
                "Outside or under a lid; never in a gas oven",
                "Seals, bearings, electronics and all that stands no heat off",
            ]
            .map(str::to_owned),
        );
        words.extend(laid_out_hot(round, units));
        Some(LightingPlan {
            what: Lighting::Bake,
            label: "Bake the oil out".to_owned(),
            sentence,
            timing: match heat.as_ref().filter(|heat| heat.reached) {
                Some(heat) => format!(
                    "{} to get there{}",
                    units.say(heat.minutes, Unit::Minutes),
                    self.bake_burns(&target, bake.hold_min)
                ),
                None => String::new(),
            },
            refused,
            lay_out: laid_out(round, words),
            window: Some((bake.least_c, bake.most_c)),
            window_ends: Some(units.window_ends((bake.least_c, bake.most_c))),
            tack: None,
            bake: Some((bake, heat)),
        })
    }

    /// "; 0.4 m³ of propane with its reserve"; empty for what burns nothing.
    fn bake_burns(&self, target: &Target, hold_min: f64) -> String {
        let Some((sources, reached)) = self.sources.and_then(|it| Some((it, it.reach(target)?))) else {
            return String::new();
        };
        let run = reached.run;
        let burns = [
            StepBurn::of_run(HeatStep::Heat, run, (reached.minutes, run.throttle)),
            StepBurn::of_run(HeatStep::Hold, run, (hold_min, sources.hold_share(run, target.target_c))),
        ];
        burnt_words(&burns, self.gate.part.units)
    }

    fn tack(&self) -> Option<LightingPlan> {
        let GateInputs { round, part, methods, prep, .. } = *self.gate;
        let tacks: usize = self.bench.breaks.iter().map(|it| it.tacks.len()).sum();
        let way = methods.chosen?;
        if tacks == 0 || round.repaired() || way.method.without_heat() {
            return None;
        }
        let mut refused = Vec::new();
        let mut refuse = refuser(&mut refused);
        lock_and_class(self.gate, self.gate.hot_lock, &mut refuse);
        hot_work(self.gate, way, &mut refuse);
        readable(self.gate, &mut refuse);
        let before = [Work::FitUp, Work::Inside, Work::TackGroove];
        let lines = prep.iter().flat_map(|prep| &prep.work);
        let open: Vec<&str> = lines
            .filter(|line| before.contains(&line.step.what) && !line.done)
            .map(|line| line.word.as_str())
            .collect();
        if !open.is_empty() {
            let why = format!("Before a tack, and nobody has said that it is done: {}.", open.join("; "));
            refuse(Station::Prep, field::prep::DONE.key(), "Fit it up", why, "Tick it on Prep.");
        }
        drop(refuse);
        // A braze is tacked with a drop of its bronze, by torch or arc: only the place gets hot.
        let how = if way.method.fusion() {
            "no preheat, short"
        } else {
            "a drop of the filler each, only that place hot"
        };
        let sentence = format!(
            "{tacks} tacks in their order, {how}; the part stays under {}. The alignment is read after each, before the \
             next.",
            part.units.say_most(65.0, Unit::Celsius)
        );
        let mut words = vec![
            "Clamps that let it move, nothing forced closed".to_owned(),
            self.aligned_by(&self.bench.breaks),
        ];
        words.extend(laid_out_hot(round, part.units));
        Some(LightingPlan {
            what: Lighting::Tack,
            label: "Tack the pieces".to_owned(),
            sentence,
            timing: String::new(),
            refused,
            lay_out: laid_out(round, words),
            window: None,
            window_ends: None,
            tack: Some(TackTurn::of(&self.bench.breaks, round.tacks())),
            bake: None,
        })
    }

    fn aligned_by(&self, breaks: &[BreakPlan]) -> String {
        let said = breaks.iter().map(|it| it.align_words.as_str()).find(|words| !words.is_empty());
        format!(
            "What the alignment is read by: {}",
            said.unwrap_or("a straight edge, a pin, light through the holes")
        )
    }
}

/// Adds a reason to a list of them.
fn refuser(refused: &mut Vec<GateLine>) -> impl FnMut(Station, &str, &str, String, &str) + '_ {
    |station, key, verb, sentence, unlock| {
        refused.push(GateLine {
            sentence,
            unlock: unlock.to_owned(),
            verb: verb.to_owned(),
            station,
            key: key.to_owned(),
        });
    }
}
