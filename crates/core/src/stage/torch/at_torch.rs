//! What is to be done next, by a reading and at a time on the job clock.

use std::sync::Arc;

use serde::{Deserialize, Serialize};

use super::beads::{BeadsAhead, LiveBead};
use super::clocks::{Falls, GasClock, TorchClock, gas_clocks};
use super::{PadSeen, TorchPlan, Warming, wants_grinding, wants_peening};
use crate::job::{LogEntry, Reading, Round};
use crate::method::PieceOfWork;
use crate::method::WindowPosition;
use crate::quantity::{Shown, Unit, UnitSystem, exactly, number};

/// A reading of the pad, judged: ready to be shown at arm's length.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Live {
    /// Minutes on the job clock since it was lit.
    pub minutes: f64,
    pub celsius: f64,
    pub metric: Shown,
    pub imperial: Shown,
    pub place: WindowPosition,
    pub place_words: String,
    /// Where it was read: "coldest far corner".
    pub pad_at: String,
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
    /// A bake was held long enough: it may be ended.
    pub ends: bool,
    /// When it is at its target, by what was read of it; empty while too little was, and once it is there.
    pub warming: String,
    /// What the other pads show.
    pub pads: Vec<PadSeen>,
    /// "by now about 295 °C, not read": where the reading is older and the part has moved on; empty else.
    pub by_now: String,
}

/// What it was lit for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Doing {
    /// The repair itself, piece by piece.
    Work(PieceOfWork),
    Bake,
    Tack,
}

/// What decides the next thing at the torch, but for the reading.
#[derive(Debug, Clone, PartialEq)]
pub struct AtTorch {
    pub(super) doing: Doing,
    pub(super) done: u32,
    pub(super) planned: u32,
    pub(super) window: Option<(f64, f64)>,
    pub(super) aim_c: f64,
    pub(super) soak_min: f64,
    /// Minutes on the job clock since which the part is at what it is brought to.
    pub(super) warm_from_min: Option<f64>,
    pub(super) wants_peening: bool,
    /// A crack beside a bead lies open: no bead goes beside it.
    pub(super) wants_grinding: bool,
    /// Of a seam that is filled in one flow: whether that is begun.
    pub(super) flow: Option<bool>,
    pub(super) ahead: Option<Arc<BeadsAhead>>,
    pub(super) falls: Option<Falls>,
    /// Minutes on the job clock between which no soak counts: the last goes on.
    pub(super) not_soaking: Vec<(f64, f64)>,
    /// Since when it is out of the heat, on the job clock; nothing while it is in it.
    pub(super) out_from_min: Option<f64>,
    /// It left the heat, as somebody said.
    pub(super) out: bool,
    /// The gases that run down.
    pub(super) gas: Vec<GasClock>,
    /// A bead was laid since it was lit: it is not brought to its target and soaked any more.
    pub(super) begun: bool,
    /// Of a bake or a tacking: what to do once it is warm, or as it is.
    pub(super) says: String,
    pub(super) warming: Option<Warming>,
    pub(super) pads: Vec<PadSeen>,
    /// Where the first pad lies; empty for the coldest far corner.
    pub(super) pad_at: String,
    pub(super) units: UnitSystem,
}

impl AtTorch {
    /// Nothing of it known yet.
    pub(super) fn at(doing: Doing, units: UnitSystem) -> Self {
        Self {
            doing,
            done: 0,
            planned: 0,
            window: None,
            aim_c: 0.0,
            soak_min: 0.0,
            warm_from_min: None,
            wants_peening: false,
            wants_grinding: false,
            flow: None,
            ahead: None,
            falls: None,
            not_soaking: Vec::new(),
            out_from_min: None,
            out: false,
            gas: Vec::new(),
            begun: false,
            says: String::new(),
            warming: None,
            pads: Vec::new(),
            pad_at: String::new(),
            units,
        }
    }

    pub(crate) fn of(round: &Round, torch: &TorchPlan, units: UnitSystem) -> Self {
        let work = Self {
            done: torch.done,
            planned: torch.planned,
            flow: torch.flow.as_ref().map(|flow| flow.begun),
            window: torch.window,
            aim_c: torch.aim_c,
            soak_min: torch.soak_min,
            wants_peening: torch.peen && wants_peening(round),
            wants_grinding: wants_grinding(round),
            ahead: torch.ahead.clone(),
            falls: torch.falls.clone(),
            out: torch.out,
            gas: gas_clocks(round),
            begun: round.standing_log().any(LogEntry::is_piece),
            warming: torch.warming,
            pads: torch.pads.clone(),
            pad_at: torch.pad_at.clone(),
            ..Self::at(Doing::Work(torch.piece), units)
        };
        work.having_seen(round)
    }

    /// The first bead was laid before the part was soaked through: what that means. Nothing where it was not.
    pub(super) fn begun_early(
        round: &Round,
        aim: (f64, f64),
        soak_min: f64,
        units: UnitSystem,
    ) -> Option<String> {
        /// House: nobody lays a bead to the minute.
        const TO_THE_MINUTE: f64 = 2.0;
        let first = round.standing_log().find(|entry| entry.is_piece())?.minutes;
        let (aim_c, least_c) = aim;
        let mut seen = Self {
            window: Some((least_c, f64::INFINITY)),
            aim_c,
            soak_min,
            ..Self::at(Doing::Work(PieceOfWork::Bead), units)
        };
        let mut read: Vec<Reading> = round.part_readings().filter(|read| read.minutes <= first).collect();
        read.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        read.into_iter().for_each(|read| seen.saw(read));
        let left = seen.soak_left_min(first);
        (left >= TO_THE_MINUTE).then(|| {
            format!(
                "The first bead was laid with {} of the soak to come: inside, the part is colder than it is read. Let it \
                 soak before the next, or cross the bead out where it was a wrong press.",
                units.say(left, Unit::Minutes)
            )
        })
    }

    /// A further reading of the part: the soak counts from when it is warm, anew when it fell out of the
    /// window.
    pub(super) fn saw(&mut self, reading: Reading) {
        let least_c = self.window.map_or(f64::NEG_INFINITY, |(least, _)| least);
        if reading.celsius < least_c {
            self.warm_from_min = None;
        } else if reading.celsius >= self.aim_c && self.warm_from_min.is_none() {
            self.warm_from_min = Some(reading.minutes);
        }
    }

    /// Minutes of soak still to come at this time on the job clock: it soaks while it is in the heat.
    pub(super) fn soak_left_min(&self, now_min: f64) -> f64 {
        let Some(from) = self.warm_from_min else { return self.soak_min };
        let out = self.not_soaking.iter().map(|(left, back)| (back.min(now_min) - left.max(from)).max(0.0));
        let soaked_min = (now_min - from).max(0.0) - out.sum::<f64>();
        (self.soak_min - soaked_min).max(0.0)
    }

    /// When the soak is over; nothing while it does not soak.
    pub(super) fn soaked_min(&self, now_min: f64) -> Option<f64> {
        let waits = self.not_soaking.last().is_some_and(|(_, back)| back.is_infinite());
        let again = self.not_soaking.iter().map(|(_, back)| *back).filter(|back| back.is_finite());
        let last_min = again.fold(now_min, f64::max);
        (!waits).then(|| last_min + self.soak_left_min(last_min))
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
            turns.extend(self.soaked_min(reading.minutes));
        }
        // It left the heat, or came back: so much of the soak is behind it.
        let moved = self.not_soaking.iter().flat_map(|(left, back)| [*left, *back]);
        turns.extend(moved.filter(|at| at.is_finite() && *at > reading.minutes));
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

    /// What it may be by now, where that was not read: in words.
    fn by_now(&self, reading: Reading, now_min: f64) -> String {
        /// House: so soon after a reading, and so near to it, it is what was read.
        const SOON_MIN: f64 = 2.0;
        const NEAR_K: f64 = 5.0;
        let Some(ahead) = self.ahead.as_ref().filter(|_| now_min - reading.minutes > SOON_MIN) else {
            return String::new();
        };
        let celsius = ahead.coldest_c(reading, now_min);
        if (celsius - reading.celsius).abs() < NEAR_K {
            return String::new();
        }
        format!("by now about {}, not read", self.units.say(celsius, Unit::Celsius))
    }

    /// What it was lit for is done, and it is put out.
    fn may_end(&self, reading: Reading, now_min: f64) -> bool {
        let held = self.warm_from_min.is_some() && self.soak_left_min(now_min) <= 0.0;
        self.doing == Doing::Bake
            && held
            && WindowPosition::of(reading.celsius, self.window) == WindowPosition::InWindow
    }

    fn said(&self, reading: Option<Reading>, bead: Option<&LiveBead>, now_min: f64) -> String {
        let number = self.done + 1;
        match self.doing {
            Doing::Work(PieceOfWork::Pin) => return format!("Set pin {number}"),
            Doing::Work(PieceOfWork::Strap) => return format!("Fit strap {number}"),
            Doing::Work(PieceOfWork::Fill) => return format!("Fill seam {number}"),
            Doing::Tack => {
                return match (reading, self.window) {
                    (Some(reading), Some((_, most_c))) if reading.celsius > most_c => {
                        format!("Wait until under {}", self.units.say_most(most_c, Unit::Celsius))
                    }
                    _ => self.says.clone(),
                };
            }
            Doing::Work(PieceOfWork::Bead) | Doing::Bake => {}
        }
        if self.wants_peening {
            return format!("Peen bead {}", self.done);
        }
        if self.wants_grinding {
            return "Grind the crack out, hot".to_owned();
        }
        if self.doing != Doing::Bake && self.done >= self.planned {
            return "Cover it".to_owned();
        }
        // Whoever fills does not stop for a pad at the far end.
        if self.flow == Some(true) {
            return format!("Fill seam {number} to its end");
        }
        let (Some(reading), Some((_, high))) = (reading, self.window) else {
            return "Take a reading".to_owned();
        };
        // Before the first bead it is brought to its target and soaks: least and most are for between.
        if !self.begun && reading.celsius <= high {
            if self.warm_from_min.is_none() && reading.celsius < self.aim_c {
                return format!("Heat to {}", self.units.window(self.aim_c, high, Unit::Celsius).0.text());
            }
            let left = self.soak_left_min(now_min).ceil();
            if left > 0.0 && self.soaked_min(now_min).is_none() {
                let back = if self.out { "Back into the heat" } else { "The whole part in the heat again" };
                let left = self.units.say_exactly(left, Unit::Minutes);
                return format!("{back}: {left} of the soak to come");
            }
            if left > 0.0 {
                let held = if self.doing == Doing::Bake { "Hold it" } else { "Soak" };
                return format!("{held} {} more", self.units.say_exactly(left, Unit::Minutes));
            }
        }
        // What was read so long ago says nothing of a part that falls.
        if self.falls.is_some() && now_min - reading.minutes > STALE_MIN {
            return "Take a reading".to_owned();
        }
        match WindowPosition::of(reading.celsius, self.window) {
            WindowPosition::InWindow if self.doing == Doing::Bake => self.says.clone(),
            WindowPosition::TooCold => "Reheat".to_owned(),
            WindowPosition::TooHot => {
                let most = self.units.window(self.aim_c.min(high), high, Unit::Celsius).1;
                format!("Wait until under {}", most.text())
            }
            // The part is in its window, and where the bead goes it is still too hot.
            WindowPosition::InWindow | WindowPosition::NoWindow => {
                match bead.filter(|bead| bead.wait_s >= 1.0) {
                    Some(bead) => {
                        let wait = match bead.wait_s {
                            ..60.0 => "under a minute".to_owned(),
                            seconds => self.units.say(seconds / 60.0, Unit::Minutes),
                        };
                        format!("Wait {wait}, then bead {number}")
                    }
                    None if self.flow.is_some() => format!("Fill seam {number} in one flow"),
                    None => format!("Lay bead {number}"),
                }
            }
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
    let place = WindowPosition::of(reading.celsius, window);
    let bead = work.and_then(|work| work.bead(reading, now_min));
    Live {
        minutes: reading.minutes,
        celsius: reading.celsius,
        metric,
        imperial,
        place,
        place_words: place.words().to_owned(),
        pad_at: work
            .map(|work| work.pad_at.clone())
            .filter(|at| !at.is_empty())
            .unwrap_or_else(|| "coldest far corner".to_owned()),
        trend_metric: trend(1.0, "°C"),
        trend_imperial: trend(1.8, "°F"),
        clock: exactly(reading.minutes, Unit::Minutes).0,
        next: work.map_or(String::new(), |work| work.said(Some(reading), bead.as_ref(), now_min)),
        clocks: work.map_or_else(Vec::new, |work| work.clocks(reading, bead.as_ref(), now_min)),
        ends: work.is_some_and(|work| work.may_end(reading, now_min)),
        warming: work
            .and_then(|work| Some(work.warming?.words(reading, now_min, work.units)))
            .unwrap_or_default(),
        pads: work.map_or_else(Vec::new, |work| work.pads.clone()),
        by_now: work.map_or_else(String::new, |work| work.by_now(reading, now_min)),
        bead,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::just_below(299.9, WindowPosition::TooCold)]
    #[case::at_the_least(300.0, WindowPosition::InWindow)]
    #[case::at_the_most(400.0, WindowPosition::InWindow)]
    #[case::just_above(400.1, WindowPosition::TooHot)]
    fn a_reading_stands_in_or_out_of_the_window(#[case] celsius: f64, #[case] place: WindowPosition) {
        assert_eq!(WindowPosition::of(celsius, Some((300.0, 400.0))), place);
        assert_eq!(WindowPosition::of(celsius, None), WindowPosition::NoWindow);
    }

    /// Hot nickel: 300, at least 260, at most 400, a soak of 20 min.
    fn soaking(done: u32) -> AtTorch {
        AtTorch {
            done,
            planned: 4,
            window: Some((260.0, 400.0)),
            aim_c: 300.0,
            soak_min: 20.0,
            begun: done > 0,
            ..AtTorch::at(Doing::Work(PieceOfWork::Bead), UnitSystem::Metric)
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

    #[test]
    fn the_trend_is_taken_over_two_minutes_in_both_systems() {
        let at = |minutes, celsius| Reading { minutes, celsius };
        let before = [at(0.0, 200.0), at(1.0, 290.0), at(2.5, 310.0)];
        // Hand-worked: from minute 1.0 to 3.5: (300 - 290) / 2.5 = 4 K, 7.2 F deg a minute
        let now = live(at(3.5, 300.0), &before, Some(&soaking(0)), 3.5);
        assert_eq!((now.place, now.next.as_str()), (WindowPosition::InWindow, "Soak 20 min more"));
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
