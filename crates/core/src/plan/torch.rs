//! Stage 7: what to do next at the torch.

use serde::{Deserialize, Serialize};

use super::Amount;
use super::cooling::CoolingPlan;
use super::heat::HeatPlan;
use super::prep::PrepPlan;
use crate::figure::{Certainty, Figure, Source};
use crate::job::{Reading, Round, TorchEntry};
use crate::method::{School, Way};
use crate::quantity::{Shown, Unit, UnitSystem, both, number};

/// Beads or pins done and to do, and what comes next.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TorchPlan {
    /// "bead" or "pin".
    pub piece: String,
    pub done: u32,
    pub planned: u32,
    /// Between these, in degC; nothing for a way without heat.
    pub window: Option<(f64, f64)>,
    /// Peening belongs to this way.
    pub peen: bool,
    /// What lies ready before it is lit: after that one cannot stop.
    pub lay_out: Vec<String>,
}

/// Where a reading stands against the window.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Place {
    TooCold,
    InWindow,
    TooHot,
    /// Nothing to keep between: covered, or a way without heat.
    NoWindow,
}

impl Place {
    /// `window` from the least to the most between beads, in degC; both ends are inside.
    #[must_use]
    pub fn of(celsius: f64, window: Option<(f64, f64)>) -> Self {
        match window {
            None => Self::NoWindow,
            Some((low, _)) if celsius < low => Self::TooCold,
            Some((_, high)) if celsius > high => Self::TooHot,
            Some(_) => Self::InWindow,
        }
    }

    fn words(self) -> &'static str {
        match self {
            Self::TooCold => "Too cold",
            Self::InWindow => "In the window",
            Self::TooHot => "Too hot",
            Self::NoWindow => "",
        }
    }
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
}

/// What decides the next thing at the torch, but for the reading.
#[derive(Debug, Clone, PartialEq)]
pub struct AtTorch {
    pins: bool,
    done: u32,
    planned: u32,
    window: Option<(f64, f64)>,
    wants_peening: bool,
    units: UnitSystem,
}

impl AtTorch {
    pub(super) fn of(round: &Round, torch: &TorchPlan, units: UnitSystem) -> Self {
        Self {
            pins: torch.window.is_none(),
            done: torch.done,
            planned: torch.planned,
            window: torch.window,
            wants_peening: torch.peen && wants_peening(round),
            units,
        }
    }

    /// What to do at this temperature.
    #[must_use]
    pub fn verb(&self, celsius: Option<f64>) -> String {
        let number = self.done + 1;
        if self.pins {
            return format!("Set pin {number}");
        }
        if self.wants_peening {
            return format!("Peen bead {}", self.done);
        }
        if self.done >= self.planned {
            return "Cover it".to_owned();
        }
        let (Some(celsius), Some((low, high))) = (celsius, self.window) else {
            return "Take a reading".to_owned();
        };
        let say = |celsius| self.units.say(celsius, Unit::Celsius);
        match Place::of(celsius, self.window) {
            Place::TooCold if self.done == 0 => format!("Heat to {}", say(low)),
            Place::TooCold => "Reheat".to_owned(),
            Place::TooHot => format!("Wait until under {}", say(high)),
            Place::InWindow | Place::NoWindow => format!("Lay bead {number}"),
        }
    }
}

/// Ours: a trend is taken over this much of the job clock, so that the pad's noise does not show.
const TREND_MIN: f64 = 2.0;

/// A reading judged against the window of the work in hand, none while there is none; `before` are
/// the earlier ones, oldest first.
#[must_use]
pub fn live(reading: Reading, before: &[Reading], work: Option<&AtTorch>) -> Live {
    let window = work.and_then(|work| work.window);
    let (metric, imperial) = both(reading.celsius, Unit::Celsius);
    let earlier = before.iter().rev().find(|b| reading.minutes - b.minutes >= TREND_MIN);
    let k_per_min = earlier.map(|b| (reading.celsius - b.celsius) / (reading.minutes - b.minutes));
    let trend = |scale: f64| match k_per_min.map(|rate| rate * scale) {
        None => String::new(),
        Some(rate) if rate.abs() < 0.5 => "steady".to_owned(),
        Some(rate) if rate > 0.0 => format!("rising {} a minute", number(rate, 0)),
        Some(rate) => format!("falling {} a minute", number(-rate, 0)),
    };
    let place = Place::of(reading.celsius, window);
    Live {
        minutes: reading.minutes,
        celsius: reading.celsius,
        metric,
        imperial,
        place,
        place_words: place.words().to_owned(),
        trend_metric: trend(1.0),
        trend_imperial: trend(1.8),
        clock: both(reading.minutes, Unit::Minutes).0,
        next: work.map_or(String::new(), |work| work.verb(Some(reading.celsius))),
    }
}

/// What the pad showed at most, for the record.
pub(super) fn figures(round: &Round) -> Vec<Figure> {
    let hottest = round.readings.iter().max_by(|a, b| a.celsius.total_cmp(&b.celsius));
    hottest
        .map(|hottest| {
            Figure::new("torch.hottest", "Hottest at the pad", hottest.celsius, Unit::Celsius)
                .formula(format!(
                    "the highest of {} readings, {} after lighting up",
                    round.readings.len(),
                    both(hottest.minutes, Unit::Minutes).0.text()
                ))
                .fact("Pad", "at the coldest far corner")
                .source(Source::Shop, Certainty::Measured)
        })
        .into_iter()
        .collect()
}

pub(super) fn torch_plan(
    round: &Round,
    way: Way,
    heat: &HeatPlan,
    prep: Option<&PrepPlan>,
    cooling: Option<&CoolingPlan>,
    units: UnitSystem,
) -> TorchPlan {
    let pins = way.school == School::NoHeat;
    TorchPlan {
        piece: if pins { "pin" } else { "bead" }.to_owned(),
        done: round.beads() as u32,
        planned: prep.map_or(0, |prep| if pins { prep.pins } else { prep.beads }),
        window: (!pins).then_some((heat.target_c, heat.most_c)),
        peen: way.method.arc(),
        lay_out: lay_out(way, heat, prep, cooling, units),
    }
}

fn lay_out(
    way: Way,
    heat: &HeatPlan,
    prep: Option<&PrepPlan>,
    cooling: Option<&CoolingPlan>,
    units: UnitSystem,
) -> Vec<String> {
    let mut list = Vec::new();
    if let Some(prep) = prep {
        if prep.pins > 0 {
            list.push(format!("{} pins, drill, taps, sealant", prep.pins));
        } else {
            list.push(format!("{} rods {}", number(prep.rods, 0), prep.filler));
        }
    }
    if !heat.cold {
        list.push(heat.source_label.clone());
    }
    if let Some(cooling) = cooling.filter(|cooling| !cooling.cold) {
        list.push(cooling.packing.clone());
    }
    if way.school != School::NoHeat {
        let tools = if way.method.arc() { "Chipping hammer, brush, peening hammer" } else { "Flux, brush" };
        list.push(format!("{tools}, gloves, shade"));
        list.push(format!("Extinguisher, {} clear, somebody for the fire watch", hot_work_clearance(units)));
    }
    list
}

/// How far round the work must be clear.
///
/// # Source
/// NFPA 51B.
pub(super) fn hot_work_clearance(units: UnitSystem) -> &'static str {
    match units {
        UnitSystem::Metric => "11 m",
        UnitSystem::Imperial => "35 ft",
    }
}

pub(super) fn amount(round: &Round, torch: Option<&TorchPlan>) -> Amount {
    let covered = round.covered_minutes().is_some();
    let all_done = torch.is_some_and(|t| t.planned > 0 && t.done >= t.planned);
    if covered || (all_done && torch.is_some_and(|t| t.window.is_none())) {
        Amount::Enough
    } else if round.lit.is_some() {
        Amount::Something
    } else {
        Amount::Nothing
    }
}

/// The last bead has not been peened yet.
pub(super) fn wants_peening(round: &Round) -> bool {
    round
        .standing_log()
        .rev()
        .find(|e| matches!(e.entry, TorchEntry::Bead | TorchEntry::Peened))
        .is_some_and(|e| e.entry == TorchEntry::Bead)
}

#[cfg(test)]
mod tests {
    use super::*;
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

    #[test]
    fn the_trend_is_taken_over_two_minutes_in_both_systems() {
        let at = |minutes, celsius| Reading { minutes, celsius };
        let before = [at(0.0, 200.0), at(1.0, 290.0), at(2.5, 310.0)];
        // Hand-worked: from minute 1.0 to 3.5: (300 - 290) / 2.5 = 4 K, 7.2 F deg a minute
        let work = AtTorch {
            pins: false,
            done: 0,
            planned: 4,
            window: Some((300.0, 400.0)),
            wants_peening: false,
            units: UnitSystem::Metric,
        };
        let now = live(at(3.5, 300.0), &before, Some(&work));
        assert_eq!((now.place, now.next.as_str()), (Place::InWindow, "Lay bead 1"));
        assert_eq!(
            (now.trend_metric.as_str(), now.trend_imperial.as_str()),
            ("rising 4 a minute", "rising 7 a minute")
        );
        assert_eq!((now.metric.text(), now.imperial.text()), ("300 °C".into(), "572 °F".into()));
        assert_eq!(live(at(1.5, 300.0), &before[..1], None).trend_metric, "");
        assert_eq!(live(at(9.0, 310.2), &before, None).trend_metric, "steady");
    }
}
