//! When it can be ready.

use super::MethodContext;
use super::hours::{Case, NIGHT, WORST_HANDS};
use crate::base::day::Day;
use crate::effort::durations::{Step, ready_min, totals};
use crate::method::Way;
use crate::quantity::Unit;
use crate::stage::prep::prep_plan;
use serde::Serialize;

/// Wall-clock minutes since 1970 in the shop's own zone: now, and when the part is fetched.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Moment {
    pub now_min: i64,
    /// Nothing while no day is said.
    pub wanted_min: Option<i64>,
}

/// When a way can be ready.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Ready {
    /// By the clock, in min from now.
    pub after_min: f64,
    /// "Fri 27 Nov, 14:30"; once it is lit, how long all of it takes.
    pub words: String,
    /// After it is wanted.
    pub late: bool,
    /// It is lit already: not reckoned from now.
    pub begun: bool,
}

/// The first minute of the day after.
pub(super) fn next_day(min: i64) -> i64 {
    /// Minutes in a day, by definition.
    const DAY_MIN: i64 = 24 * 60;
    (min.div_euclid(DAY_MIN) + 1) * DAY_MIN
}

pub(crate) fn of_minutes(at_min: i64, twelve_hours: bool) -> String {
    let (day, minute) = (at_min.div_euclid(1440), at_min.rem_euclid(1440));
    let day = Day::of_number(day).map(Day::said).unwrap_or_default();
    // "Fri 27 Nov": the year goes without saying.
    let day = day.rsplit_once(' ').map_or(day.as_str(), |(day, _)| day);
    let (hour, minute) = (minute / 60, minute % 60);
    if !twelve_hours {
        return format!("{day}, {hour}:{minute:02}");
    }
    let half = if hour < 12 { "am" } else { "pm" };
    format!("{day}, {}:{minute:02} {half}", (hour + 11) % 12 + 1)
}

impl MethodContext<'_> {
    /// When it can be ready; nothing where the time of day is not known.
    pub(super) fn ready(&self, steps: &[Step], sessions: u32) -> Option<Ready> {
        let Moment { now_min, wanted_min } = self.moment?;
        if self.round.repaired() {
            // Begun long ago: how long it takes, and not from now.
            let (hands, clock) = totals(steps);
            let words = self.shop.units.say(hands + clock, Unit::Minutes);
            return Some(Ready { after_min: hands + clock, words, late: false, begun: true });
        }
        let at =
            ready_min(now_min, steps, &self.shop.week).max(self.after_sessions(now_min, steps, sessions));
        Some(Ready {
            after_min: (at - now_min) as f64,
            words: to_five(at, self.shop.twelve_hours),
            late: wanted_min.is_some_and(|wanted| at > wanted),
            begun: false,
        })
    }

    /// Over several sessions, one a day, it is never ready before the last one, its cooling and what comes after; at
    /// once where there is one.
    fn after_sessions(&self, now_min: i64, steps: &[Step], sessions: u32) -> i64 {
        if sessions < 2 {
            return now_min;
        }
        let week = &self.shop.week;
        let count = f64::from(sessions);
        let first = steps.iter().position(|step| step.id == "lay_out").unwrap_or(0);
        let cool = steps.iter().position(|step| step.id == "cool").unwrap_or(steps.len());
        let (before, block) = steps[..cool.max(first)].split_at(first);
        // What is held over night cools once; its nights lie between the blocks.
        let held = steps.iter().any(|step| step.id == NIGHT);
        let block = block.iter().filter(|step| step.id != NIGHT);
        let block_min = block.map(|step| step.attended_min + step.unattended_min).sum::<f64>() / count;
        let mut begins = week.unbroken(ready_min(now_min, before, week), block_min);
        for _ in 1..sessions {
            begins = week.unbroken(next_day(begins), block_min);
        }
        let after = &steps[cool.min(steps.len())..];
        let after: Vec<Step> = after
            .iter()
            .map(|step| match step.id.as_str() {
                "cool" if !held => Step { unattended_min: step.unattended_min / count, ..step.clone() },
                _ => step.clone(),
            })
            .collect();
        ready_min(begins + block_min.ceil() as i64, &after, week)
    }

    /// The ways that cannot be ready in time at their worst, each with the day it could be; nothing while no day is
    /// said. What is lit already is not asked again.
    pub(super) fn late(&self, ways: impl Iterator<Item = Way>) -> Option<Vec<(Way, String)>> {
        let Some(Moment { now_min, wanted_min }) = self.moment else { return Some(Vec::new()) };
        let wanted = wanted_min?;
        // A day that is past rules nothing out: it is late whatever is done.
        if self.round.repaired() || wanted <= now_min {
            return Some(Vec::new());
        }
        let late = ways.filter_map(|way| {
            let (mut steps, parts) = self.steps_in(Case::Worst, way, &prep_plan(&self.prep_inputs(way))?)?;
            for step in &mut steps {
                step.attended_min *= WORST_HANDS;
            }
            let after = self.after_sessions(now_min, &steps, parts.len() as u32);
            let at = ready_min(now_min, &steps, &self.shop.week).max(after);
            let most = steps.iter().max_by(|a, b| {
                (a.attended_min + a.unattended_min).total_cmp(&(b.attended_min + b.unattended_min))
            })?;
            (at > wanted).then(|| {
                let why = format!(
                    "Ready {} at the worst, wanted {}. What takes longest: {}.",
                    to_five(at, self.shop.twelve_hours),
                    of_minutes(wanted, self.shop.twelve_hours),
                    most.label.to_lowercase()
                );
                (way, why)
            })
        });
        Some(late.collect())
    }
}

/// A moment that is only reckoned, to the next five minutes.
fn to_five(minutes: i64, twelve_hours: bool) -> String {
    of_minutes((minutes + 4).div_euclid(5) * 5, twelve_hours)
}
