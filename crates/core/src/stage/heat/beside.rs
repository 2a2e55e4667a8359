//! What goes with a heating: what an infrared gun shows, whether a crack runs on, what gets too hot beside it.

use serde::{Deserialize, Serialize};

use super::run::SourceRun;
use super::{HeatPlan, Sources};
use crate::crack::said::CrackFate;
use crate::crack::said::EndKind;
use crate::field;
use crate::heat::{
    BarPower, DONT_STEER_UNDER, Heating, HotSpot, Infrared, RUNS_FROM, ReadOff, SimCache, stress_intensity,
    thermal_stress_mpa,
};
use crate::iron::{Iron, least_forgiving};
use crate::job::Round;
use crate::quantity::{Unit, UnitSystem, Watts, number};
use crate::render::upper;
use crate::stage::cracks::CrackPlan;
use crate::stage::part::{HeatShy, PartFacts};

/// What an infrared gun shows on this surface.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct InfraredPlan {
    pub emissivity_set: f64,
    pub emissivity_true: f64,
    pub reflected_c: f64,
    pub words: String,
    /// Nobody steers by it: what to do instead; empty where it can be read.
    pub dont: String,
}

/// A tip that may run on while the part is heated.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RunsOn {
    pub letter: String,
    pub end: String,
    /// Of what the iron stands at such a tip.
    pub share: f64,
    pub sentence: String,
    pub working: String,
}

/// Something that must stay cool, and how hot it gets.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StaysCool {
    pub what: String,
    pub hottest_c: f64,
    pub sentence: String,
    /// Over what it stands.
    pub over: bool,
}

/// A segment of an oven's program.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OvenSegment {
    /// "Up with the part in it"
    pub what: String,
    /// "To 350 °C at 300 °C an hour, held 12 min"
    pub words: String,
    pub to_c: f64,
    /// How fast it goes there; nothing for as it will.
    pub k_per_h: Option<f64>,
    /// How long it stays there.
    pub hold_min: f64,
}

/// The program of an oven: up with its ramp until the middle is there, then the soak. A fire has none.
pub(super) fn oven_segments(
    run: &SourceRun,
    heat: &HeatPlan,
    sources: &Sources,
    units: UnitSystem,
) -> Vec<OvenSegment> {
    let of = |ramp: f64| Some((ramp, sources.power_of(heat)?));
    let ramp = run.source.ramp_k_per_h(sources.closed).filter(|_| heat.reached && !run.source.is_fire());
    let Some((ramp, BarPower::Oven { set, .. })) = ramp.and_then(of) else { return Vec::new() };
    let (set_c, ambient_c) = (set.celsius(), sources.body.ambient.celsius());
    let ramp_min = (set_c - ambient_c).max(0.0) / ramp * 60.0;
    let segment = |what: &str, to_c: f64, k_per_h: Option<f64>, hold_min: f64| {
        let hold_min = hold_min.max(0.0).ceil();
        let rate = k_per_h
            .map_or(String::new(), |rate| format!(" at {}", units.say_most(rate, Unit::KelvinsPerHour)));
        let words = format!(
            "To {}{rate}{}",
            units.say(to_c, Unit::Celsius),
            if hold_min > 0.0 {
                format!(", held {}", units.say_exactly(hold_min, Unit::Minutes))
            } else {
                String::new()
            }
        );
        OvenSegment { what: what.to_owned(), words, to_c: to_c.round(), k_per_h, hold_min }
    };
    vec![
        segment(
            "Up with the part in it, until its middle is there",
            set_c,
            Some(ramp),
            heat.minutes - ramp_min,
        ),
        segment("Back to the target, and soak", heat.target_c, None, heat.soak_minutes),
    ]
}

/// House: a flame's own spread, in mm.
const SPREAD_MM: f64 = 75.0;

/// What the gun shows when the iron is right.
pub(super) fn infrared(
    round: &Round,
    heat: &HeatPlan,
    part: &PartFacts,
    ambient_c: f64,
) -> Option<InfraredPlan> {
    let units = part.units;
    let surface = round.get(field::heat::SURFACE).unwrap_or(ReadOff::Skin);
    let emissivity_true = surface.emissivity();
    let emissivity_set = round.get(field::heat::GUN_SET).unwrap_or(0.95);
    let gun = Infrared::new(emissivity_set, emissivity_true, ambient_c).ok()?;
    let label = surface.label().to_lowercase();
    let say = |celsius: f64| units.say(celsius, Unit::Celsius);
    let (least, most) = (gun.shown_c(heat.target_c)?, gun.shown_c(heat.most_c)?);
    // A window that is a point is said once.
    let at_most = if heat.most_c > heat.target_c {
        format!(", and {} at {}", say(most), say(heat.most_c))
    } else {
        String::new()
    };
    let words = format!(
        "A gun set to {} on {label} shows {} when the iron is at {}{at_most}.",
        number(emissivity_set, 2),
        say(least),
        say(heat.target_c),
    );
    let dont = if emissivity_true < DONT_STEER_UNDER {
        "Don't steer by this: it mirrors the shop. Dab heat paint or soot where it is read."
    } else {
        ""
    };
    Some(InfraredPlan {
        emissivity_set,
        emissivity_true,
        reflected_c: ambient_c,
        words,
        dont: dont.to_owned(),
    })
}

/// The tips that are likely to run on while a flame heats the part, by the bar, the worst first. Those that lie on the
/// drawn face that is the part are left to it: it is asked beside the plan.
pub(super) fn runs_on(
    (cracks, part): (&[CrackPlan], &PartFacts),
    heating: &Heating,
    (until_min, station): (f64, f64),
    (plausible, units): (&[Iron], UnitSystem),
) -> Vec<RunsOn> {
    let weakest = least_forgiving(plausible).iron;
    // Whether it holds its seams in is known of a face that can be laid out.
    let by_face = part.drawn.as_ref().filter(|_| part.held_in.is_some()).map(|drawn| drawn.face);
    let difference_k = heating
        .along(until_min, usize::MAX)
        .iter()
        .map(|(_, cells)| {
            let mean = cells.iter().sum::<f64>() / cells.len().max(1) as f64;
            let joint = cells[((station * cells.len() as f64) as usize).min(cells.len() - 1)];
            joint - mean
        })
        .fold(0.0, f64::max);
    let mut found: Vec<RunsOn> = cracks
        .iter()
        .filter(|crack| crack.becomes == CrackFate::Repair && !crack.full_break)
        .flat_map(|crack| crack.ends.iter().map(move |end| (crack, end)))
        .filter(|(_, end)| by_face.is_none() || end.at.as_ref().map(|at| at.face) != by_face)
        // A hole that is drilled has blunted its tip.
        .filter(|(_, end)| end.kind == Some(EndKind::Tip) && !end.drilled)
        .filter_map(|(crack, end)| {
            let length_mm = crack.length_mm?;
            let from_edge = crack.ends.iter().any(|other| other.kind == Some(EndKind::Edge));
            let spot = HotSpot {
                spread_mm: SPREAD_MM,
                // The flame goes over the middle of the crack.
                tip_distance_mm: length_mm / 2.0,
                difference_k,
                points_at_flame: true,
                free_edge_beyond: end.run_out.is_some(),
            };
            let pull = thermal_stress_mpa(&weakest.properties(), &spot);
            let k = stress_intensity(pull, length_mm, from_edge);
            let share = k / weakest.toughness_mpa_sqrt_m();
            let working = format!(
                "Joint {} over the rest, tip {} from the flame: pull {} MPa, {} of {} MPa√m.",
                units.say(difference_k, Unit::Kelvins),
                units.say(spot.tip_distance_mm, Unit::Millimetres),
                number(pull, 0),
                number(k, 1),
                number(weakest.toughness_mpa_sqrt_m(), 0),
            );
            (share >= RUNS_FROM).then(|| RunsOn {
                letter: crack.letter.clone(),
                end: end.name.clone(),
                share,
                sentence: format!(
                    "Crack {}: its {} tip is likely to run on while it is heated. Heat round the tip and the thick rim \
                     first, bring the flame to the crack last and spread it over both tips; or run the groove out to \
                     the edge now.",
                    crack.letter, end.name
                ),
                working,
            })
        })
        .collect();
    found.sort_by(|a, b| b.share.total_cmp(&a.share));
    found
}

/// Ours: a bead gives the part no more than the most between beads; so long after covering it has evened out. House.
const EVENS_OUT_MIN: f64 = 30.0;

/// How hot what must stay cool gets: over the heating, its soak and the half hour after covering.
pub(super) fn stays_cool(
    run: &SourceRun,
    heat: &HeatPlan,
    sources: &Sources,
    (part, sims): (&PartFacts, &SimCache),
) -> Vec<StaysCool> {
    if part.heat_shy.is_empty() || !heat.reached {
        return Vec::new();
    }
    let Some(hottest) = hottest_cells(run, heat, sources, sims) else { return Vec::new() };
    let units = part.units;
    let one = |shy: &HeatShy| {
        // Where nobody has said, it lies at the far end.
        let far = if sources.station() < 0.5 { 1.0 } else { 0.0 };
        let at = shy.along.unwrap_or(far);
        let cell = ((at * hottest.len() as f64) as usize).min(hottest.len() - 1);
        let hottest_c = hottest[cell];
        let over = shy.limit_c.is_some_and(|limit| hottest_c > limit);
        let gets = units.say_least(hottest_c, Unit::Celsius);
        let what = upper(&shy.what);
        let sentence = match shy.limit_c {
            Some(limit) if over => format!(
                "{what} gets to {gets}, it stands {}: take it off, or heat paste or a copper block on it, or a cold way. No \
                 water and no wet rag.",
                units.say_most(limit, Unit::Celsius)
            ),
            Some(limit) => {
                format!("{what} gets to {gets}, it stands {}.", units.say_most(limit, Unit::Celsius))
            }
            None => format!("{what} gets to {gets}; nobody has said what it stands."),
        };
        StaysCool { what: shy.what.clone(), hottest_c, sentence, over }
    };
    part.heat_shy.iter().map(one).collect()
}

/// The hottest that each place along the part gets.
fn hottest_cells(run: &SourceRun, heat: &HeatPlan, sources: &Sources, sims: &SimCache) -> Option<Vec<f64>> {
    /// House: a step of the way on after it is warm, in s.
    const STEP_S: f64 = 10.0;
    let power = sources.power_of(heat)?;
    let heated = heat.run_to_target(&sources.body, power, sims)?;
    let mut bar = heated.bar.clone();
    let mut hottest: Vec<f64> = bar.cells_c().to_vec();
    let mut see = |cells: &[f64]| {
        for (most, now) in hottest.iter_mut().zip(cells) {
            *most = most.max(*now);
        }
    };
    // Held at its target: the flame on while the coldest place is under it.
    let none = Watts::new(0.0).ok()?;
    let off = BarPower::Flame { even: none, local: none, station: 0.5, covered: 0.0 };
    let wrapped = BarPower::Flame { even: none, local: none, station: 0.5, covered: 1.0 };
    let mut left_s = heat.soak_minutes * 60.0;
    while left_s > 0.0 {
        bar.heat_with(if bar.coldest_c() < heat.target_c && !run.source.is_fire() { power } else { off });
        bar.step(STEP_S);
        see(bar.cells_c());
        left_s -= STEP_S;
    }
    bar.heat_with(wrapped);
    let mut left_s = EVENS_OUT_MIN * 60.0;
    while left_s > 0.0 {
        bar.step(STEP_S);
        see(bar.cells_c());
        left_s -= STEP_S;
    }
    Some(hottest)
}
