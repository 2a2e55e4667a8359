//! One simulated pad: it heats by the bar model with a wandering torch, cools by the cooling
//! model, and shows both with noise.

use std::collections::VecDeque;

use uuid::Uuid;
use vanadin_core::heat::{Bar, BarPower, Body, Cooling, TOUCH_C, Wrapping, cool};
use vanadin_core::job::{Job, Lit, Reading, TorchEntry};
use vanadin_core::plan::{AtTorch, HeatPlan, Live, Plan, live};
use vanadin_core::quantity::{Celsius, Watts};
use vanadin_core::shop::Shop;

/// A reading is stored each 10 s of job time.
const STORE_EVERY_MIN: f64 = 1.0 / 6.0;
const STEP_MIN: f64 = 2.0 / 60.0;
/// The most that is caught up after the server was away, in minutes of job time.
const CATCH_UP_MIN: f64 = 24.0 * 60.0;
/// The pad comes off a little under the temperature at which the part may be touched.
const OFF_UNDER_TOUCH_K: f64 = 1.0;
/// The torch wanders this far along the part, as a fraction of its length, once in this many min.
const WANDER: f64 = 0.12;
const WANDER_MIN: f64 = 3.1;

/// A pad on a part.
pub struct Pad {
    lit: Lit,
    bar: Bar,
    body: Body,
    power: BarPower,
    station: f64,
    target_c: f64,
    bead_joules: f64,
    /// Minutes at which beads were laid, first first; those before `struck` are in the bar.
    beads: Vec<f64>,
    struck: usize,
    covered: Option<f64>,
    cooling: Option<(f64, Cooling)>,
    wrapping: Wrapping,
    minutes: f64,
    stored_to: f64,
    flame_on: bool,
    /// The work in hand, by which a reading is judged; nothing once covered.
    work: Option<AtTorch>,
    /// The last stored readings, oldest first: the trend is taken from them.
    recent: VecDeque<Reading>,
}

/// Ours: enough for a trend over some minutes.
const RECENT: usize = 30;

impl Pad {
    /// The pad of a job that is lit and heated; nothing for others.
    pub fn on(job: &Job, plan: &Plan, shop: &Shop) -> Option<Self> {
        let round = job.round();
        let lit = round.lit.clone()?;
        let heat: &HeatPlan = plan.heat.as_ref()?;
        let way = plan.methods.chosen?;
        if way.method == vanadin_core::method::MethodId::Stitch {
            return None;
        }
        let body = plan.casting(job, shop)?;
        let station = round.number("part.break_station").map_or(0.5, |percent| percent / 100.0);
        let no_flame = BarPower::Flame { even: Watts::new(0.0).ok()?, local: Watts::new(0.0).ok()?, station };
        let (bar, power) =
            heat.bar(&body, station).unwrap_or_else(|| (Bar::new(&body, no_flame, body.ambient), no_flame));
        let last = round.readings.last().copied();
        let start = last.map_or(body.ambient.celsius(), |reading| reading.celsius);
        let bar = if last.is_some() { Bar::new(&body, power, Celsius::new(start).ok()?) } else { bar };
        let minutes = last.map_or(0.0, |reading| reading.minutes);
        let beads: Vec<f64> = round
            .standing_log()
            .filter(|entry| entry.entry == TorchEntry::Bead)
            .map(|entry| entry.minutes)
            .collect();
        let pad = Self {
            lit,
            bar,
            power,
            station,
            target_c: heat.target_c,
            // Arc energy of a bead at 0.75 x 22 V x 90 A and 2.5 mm/s.
            bead_joules: if way.method.arc() { 0.75 * 22.0 * 90.0 * way.school.bead_mm() / 2.5 } else { 0.0 },
            struck: beads.iter().filter(|at| **at <= minutes).count(),
            beads,
            covered: round.covered_minutes(),
            cooling: None,
            wrapping: plan.wrapping(job, shop),
            minutes,
            stored_to: minutes,
            flame_on: !heat.cold,
            work: plan.at_torch(job),
            recent: round.readings.iter().rev().take(RECENT).rev().copied().collect(),
            body,
        };
        (!pad.finished()).then_some(pad)
    }

    /// The same pad after something was said of the job: the temperatures go on.
    pub fn going_on_from(mut self, before: Self) -> Self {
        if before.lit.fact == self.lit.fact && before.minutes >= self.minutes {
            let same_cover = before.covered == self.covered;
            if !same_cover
                && before.cooling.is_some()
                && let Ok(now) = Celsius::new(before.true_c())
            {
                // Uncovered after all: it goes on from what it cooled to.
                self.bar = Bar::new(&self.body, self.power, now);
            } else {
                self.bar = before.bar;
            }
            self.minutes = before.minutes;
            self.stored_to = before.stored_to;
            self.struck = before.struck.min(self.beads.len());
            self.flame_on = before.flame_on;
            self.recent = before.recent;
            self.cooling = before.cooling.filter(|_| same_cover);
        }
        self
    }

    /// The fact that lit the part.
    pub fn lit(&self) -> Uuid {
        self.lit.fact
    }

    pub fn minutes_at(&self, now_ms: i64) -> f64 {
        self.lit.minutes(now_ms)
    }

    /// Out of the heat and cold enough to be touched.
    pub fn finished(&self) -> bool {
        let cold = self.true_c() < TOUCH_C - OFF_UNDER_TOUCH_K;
        self.covered.is_some_and(|at| self.minutes > at + 10.0) && cold
    }

    fn true_c(&self) -> f64 {
        match &self.cooling {
            Some((from, cooling)) => cooling
                .after_hours((self.minutes - from).max(0.0) / 60.0)
                .unwrap_or(self.body.ambient.celsius()),
            None => self.bar.coldest_c(),
        }
    }

    /// What the pad shows now, judged.
    pub fn shows(&self) -> Live {
        let before: Vec<Reading> = self.recent.iter().copied().collect();
        live(self.reading(self.minutes), &before, self.work.as_ref())
    }

    fn reading(&self, minutes: f64) -> Reading {
        // Noise that is the same each time it is asked for: a thermocouple's last degree.
        let wave = (minutes * 97.3).sin() + (minutes * 41.7 + 1.3).sin();
        let celsius = self.true_c() + 0.6 * wave;
        // To a tenth of a degree and of a second: no pad shows more.
        Reading { minutes: (minutes * 600.0).round() / 600.0, celsius: (celsius * 10.0).round() / 10.0 }
    }

    /// Runs on to a time on the job clock; gives the readings that are due to be stored.
    pub fn advance_to(&mut self, minutes: f64) -> Vec<Reading> {
        let mut due = Vec::new();
        if minutes - self.minutes > CATCH_UP_MIN {
            if self.covered.is_some() {
                // Long cold: nobody was there to log it, so nothing is made up.
                self.start_cooling();
                self.minutes = minutes;
                return due;
            }
            self.minutes = minutes - CATCH_UP_MIN;
            self.stored_to = self.minutes;
        }
        while self.minutes + STEP_MIN <= minutes && !self.finished() {
            self.minutes += STEP_MIN;
            self.step();
            if self.minutes - self.stored_to >= STORE_EVERY_MIN - 1e-9 {
                self.stored_to = self.minutes;
                let reading = self.reading(self.minutes);
                due.push(reading);
                if self.recent.len() == RECENT {
                    self.recent.pop_front();
                }
                self.recent.push_back(reading);
            }
        }
        due
    }

    fn step(&mut self) {
        if let Some(covered) = self.covered
            && self.minutes >= covered
        {
            self.start_cooling();
            return;
        }
        self.tend_the_flame();
        while self.struck < self.beads.len() && self.beads[self.struck] <= self.minutes {
            self.bar.strike(self.station, self.bead_joules);
            self.struck += 1;
        }
        self.bar.step(STEP_MIN * 60.0);
    }

    fn start_cooling(&mut self) {
        if self.cooling.is_none()
            && let Ok(start) = Celsius::new(self.bar.coldest_c())
        {
            self.cooling = Some((self.minutes, cool(&self.body, start, &self.wrapping)));
        }
    }

    /// A welder's hand: on until well over the target, on again when it falls to it.
    fn tend_the_flame(&mut self) {
        let coldest = self.bar.coldest_c();
        if coldest > self.target_c + 35.0 {
            self.flame_on = false;
        } else if coldest < self.target_c + 8.0 {
            self.flame_on = true;
        }
        let power = match self.power {
            BarPower::Flame { even, local, .. } if self.flame_on => BarPower::Flame {
                even,
                local,
                station: (self.station + WANDER * (self.minutes * std::f64::consts::TAU / WANDER_MIN).sin())
                    .clamp(0.0, 1.0),
            },
            BarPower::Surroundings(surroundings) if self.flame_on => BarPower::Surroundings(surroundings),
            BarPower::Flame { .. } | BarPower::Surroundings(_) => match Watts::new(0.0) {
                Ok(none) => BarPower::Flame { even: none, local: none, station: self.station },
                Err(_) => self.power,
            },
        };
        self.bar.heat_with(power);
    }
}

#[cfg(test)]
mod tests {
    use vanadin_core::job::{FieldValue, Held};
    use vanadin_core::plan::plan;

    use super::*;
    use crate::sample::sample_jobs;

    const NOW_MS: i64 = 1_800_000_000_000;

    /// The sample's hot job as it was when it was lit, with the first `keep` of its torch entries.
    fn lit_job(keep: usize) -> (Shop, Job) {
        let (shop, jobs) = sample_jobs(NOW_MS).unwrap();
        let mut job = jobs.into_iter().find(|job| job.name().contains("Letterpress")).unwrap();
        let round = job.rounds.last_mut().unwrap();
        round.log.truncate(keep);
        round.readings.clear();
        (shop, job)
    }

    fn pad(shop: &Shop, job: &Job) -> Pad {
        Pad::on(job, &plan(job, shop), shop).expect("a hot part has a pad")
    }

    #[test]
    fn a_reading_is_stored_each_ten_seconds_of_job_time() {
        let (shop, job) = lit_job(0);
        let readings = pad(&shop, &job).advance_to(3.0);
        let minutes: Vec<f64> = readings.iter().map(|reading| (reading.minutes * 60.0).round()).collect();
        assert_eq!(minutes, (1..=18).map(|n| f64::from(n) * 10.0).collect::<Vec<_>>());
    }

    #[test]
    fn it_heats_into_the_window_and_stays_there() {
        let (shop, job) = lit_job(0);
        let mut pad = pad(&shop, &job);
        let readings = pad.advance_to(120.0);
        let (low, high) =
            plan(&job, &shop).torch.and_then(|torch| torch.window).expect("a hot way has a window");
        let reached = readings.iter().position(|r| r.celsius >= low).expect("it gets there");
        let after = &readings[reached + 30..];
        assert!(after.iter().all(|r| r.celsius > low - 5.0 && r.celsius < high), "{after:?}");
    }

    #[test]
    fn after_a_restart_it_goes_on_from_the_last_stored_reading() {
        let (shop, mut job) = lit_job(0);
        let before = pad(&shop, &job).advance_to(10.0);
        let last = *before.last().unwrap();
        job.rounds.last_mut().unwrap().readings = before;
        let after = pad(&shop, &job).advance_to(11.0);
        assert!(after[0].minutes > last.minutes);
        assert!((after[0].celsius - last.celsius).abs() < 15.0, "{last:?} then {:?}", after[0]);
    }

    #[test]
    fn covered_it_cools_until_it_may_be_touched_and_the_pad_comes_off() {
        let (shop, job) = lit_job(usize::MAX);
        let covered = job.round().covered_minutes().expect("the sample is covered");
        let mut pad = pad(&shop, &job);
        let readings = pad.advance_to(covered + 20.0 * 60.0);
        let cooling: Vec<&Reading> = readings.iter().filter(|r| r.minutes > covered + 30.0).collect();
        assert!(cooling.windows(180).all(|half_hour| half_hour[179].celsius < half_hour[0].celsius));
        assert!(pad.finished() && cooling.last().unwrap().celsius < TOUCH_C + 1.0);
        let plan = plan(&job, &shop);
        assert!(Pad::on(&job, &plan, &shop).is_some(), "a fresh pad finds it hot until it has run");
    }

    #[test]
    fn uncovered_after_all_it_goes_on_from_what_it_cooled_to() {
        let (shop, job) = lit_job(usize::MAX);
        let covered = job.round().covered_minutes().expect("the sample is covered");
        let mut cooling = pad(&shop, &job);
        cooling.advance_to(covered + 120.0);
        let cooled = cooling.true_c();
        let mut struck = job.clone();
        for entry in &mut struck.rounds.last_mut().unwrap().log {
            if entry.entry == TorchEntry::Covered {
                entry.struck = Some("not yet".to_owned());
            }
        }
        let mut again = pad(&shop, &struck).going_on_from(cooling);
        assert!((again.true_c() - cooled).abs() < 1.0, "{} after {cooled}", again.true_c());
        again.advance_to(covered + 150.0);
        assert!(again.true_c() > cooled, "the flame is on it again");
    }

    #[test]
    fn nothing_is_made_up_for_a_part_that_was_away_for_days() {
        let (shop, job) = lit_job(usize::MAX);
        let mut pad = pad(&shop, &job);
        assert!(pad.advance_to(5.0 * 24.0 * 60.0).is_empty());
    }

    #[test]
    fn a_stitched_part_has_no_pad() {
        let (shop, mut job) = lit_job(0);
        let lit = job.round().lit.clone();
        let held = |text: &str| Held {
            typed: text.to_owned(),
            value: Some(FieldValue::One(text.to_owned())),
            revision: 1,
        };
        job.rounds.last_mut().unwrap().values.insert("method.choice".to_owned(), held("stitch"));
        assert!(lit.is_some() && Pad::on(&job, &plan(&job, &shop), &shop).is_none());
    }
}
