//! The heat of a way: cold, or brought to its target and held there.

use super::HeatPlan;
use super::sources::Sources;
use super::words::{heating_words, pad_at, read_at};
use crate::heat::SimCache;
use crate::method::{MethodId, School, Target, Way};
use crate::quantity::Unit;
use crate::stage::part::{GUESSED_WALL_MM, PartFacts};

/// House: a minute of soak for each mm of wall, 2 at least, 20 where the whole part is gas-welded; none of what is
/// warmed at the seam alone.
pub(crate) fn soak_minutes(way: Way, wall_mm: Option<f64>) -> f64 {
    let least = match (way.method, way.school) {
        (MethodId::GasIron, School::WholePart) => 20.0,
        (_, School::Local) => return 0.0,
        (_, school) if school.preheats() => 2.0,
        _ => return 0.0,
    };
    wall_mm.unwrap_or(GUESSED_WALL_MM).max(least)
}

pub(crate) fn heat_plan(
    way: Way,
    target: Option<&Target>,
    sources: Option<&Sources>,
    part: &PartFacts,
    sims: &SimCache,
) -> Option<HeatPlan> {
    let (wall_mm, units) = (part.wall_mm, part.units);
    let say = |celsius| units.say(celsius, Unit::Celsius);
    let cold = |sentence: String, target_c: f64, most_c: f64| HeatPlan {
        cold: true,
        zone: None,
        sentence,
        target_c,
        least_c: target_c,
        most_c,
        source: String::new(),
        source_label: String::new(),
        even_share: 0.0,
        help: String::new(),
        throttle: 1.0,
        hold_share: 0.0,
        reached: true,
        within_the_estimate: true,
        short_k: 0.0,
        minutes: 0.0,
        between: None,
        soak_minutes: 0.0,
        timing: String::new(),
        least_words: format!("at least {}", units.window(target_c, most_c, Unit::Celsius).0.text()),
        most_words: format!("at most {}", units.window(target_c, most_c, Unit::Celsius).1.text()),
        read_at: read_at(part, None),
        pad_at: pad_at(None),
        curve: Vec::new(),
        tried: Vec::new(),
        along: Vec::new(),
        station: 0.0,
        sticks: String::new(),
        learned: String::new(),
        good_to: 0.0,
        good_to_words: String::new(),
        oven: Vec::new(),
        gas: Vec::new(),
        steps: Vec::new(),
        begins: String::new(),
        by_eye: String::new(),
        edge: String::new(),
        infrared: None,
        runs_on: Vec::new(),
        stays_cool: Vec::new(),
    };
    match (way.school, target) {
        (School::NoHeat, _) => {
            Some(cold(format!("No heat needed. Iron at {} or more.", say(15.0)), 15.0, 65.0))
        }
        (School::ArcOnly, Some(t)) => Some(HeatPlan {
            least_c: t.least_c,
            ..cold(
                format!("No preheat: the arc itself warms it. Never over {}.", say(t.most_c)),
                t.target_c,
                t.most_c,
            )
        }),
        (School::Cold, Some(t)) => Some(cold(
            format!(
                "No preheat. Take the chill and damp off, keep between {} and {}.",
                say(t.target_c),
                say(t.most_c)
            ),
            t.target_c,
            t.most_c,
        )),
        (_, None) => None,
        (School::Warm | School::Hot | School::WholePart | School::Modest | School::Local, Some(target)) => {
            heated(target, soak_minutes(way, wall_mm), sources?, part, sims)
        }
    }
}

/// Brought to a target with the heat at hand, and held there.
pub(crate) fn heated(
    target: &Target,
    soak: f64,
    sources: &Sources,
    part: &PartFacts,
    sims: &SimCache,
) -> Option<HeatPlan> {
    let units = part.units;
    let reached = sources.reach(target);
    let run = reached.map(|r| r.run).or_else(|| sources.hottest_run(target.target_c))?;
    let until = reached.map_or(f64::INFINITY, |r| r.minutes);
    let curve = run.heating.curve_until(until);
    let (low, high) = units.window(target.least_c, target.most_c, Unit::Celsius);
    let good_to = sources.strengths.not_known(run.source);
    Some(HeatPlan {
        cold: false,
        sentence: heating_words(reached, sources, target, units),
        target_c: target.target_c,
        least_c: target.least_c,
        most_c: target.most_c,
        source: run.source.id.to_owned(),
        source_label: run.label(),
        even_share: run.even_share,
        help: run.help.id().to_owned(),
        throttle: run.throttle,
        hold_share: sources.hold_share(run, target.target_c),
        reached: reached.is_some(),
        within_the_estimate: reached.is_some() || sources.within_the_estimate(target),
        short_k: match reached {
            Some(reached) if !reached.least_only => 0.0,
            Some(_) | None => sources.short_k(target).unwrap_or(0.0),
        },
        minutes: reached.map_or(0.0, |r| r.minutes),
        between: reached.and_then(|r| sources.spread(part, r, target, sims)),
        soak_minutes: soak,
        timing: reached.map_or(String::new(), |reached| {
            let minutes = units.say(reached.minutes, Unit::Minutes);
            if soak == 0.0 {
                return minutes;
            }
            format!("{}, soak {}", minutes, units.say_least(soak, Unit::Minutes))
        }),
        least_words: format!("at least {}", low.text()),
        most_words: format!("at most {}", high.text()),
        read_at: read_at(part, sources.zone),
        pad_at: pad_at(sources.zone),
        curve,
        tried: Vec::new(),
        along: Vec::new(),
        station: sources.station(),
        zone: sources.zone,
        sticks: String::new(),
        learned: sources.strengths.words(run.source),
        good_to,
        good_to_words: units.say(good_to * 100.0, Unit::Percent),
        oven: Vec::new(),
        gas: Vec::new(),
        steps: Vec::new(),
        begins: String::new(),
        by_eye: String::new(),
        edge: String::new(),
        infrared: None,
        runs_on: Vec::new(),
        stays_cool: Vec::new(),
    })
}
