//! One simulated pad: it heats by the bar model with a wandering torch, cools by the cooling
//! model, and shows both with noise.

use crate::field;
use crate::heat::{Bar, BarPower, Cooling, Packing, TOUCH_C, ThermalBody, Wrapping, cool};
use crate::job::{Job, Lighting, Lit, Reading, TorchEntry};
use crate::method::School;
use crate::plan::{Plan, WarmFace};
use crate::quantity::{Celsius, Watts};
use crate::shop::Shop;
use uuid::Uuid;

/// House: a reading is stored each 10 s of job time.
const STORE_EVERY_MIN: f64 = 1.0 / 6.0;
/// House: a step of its model, in min.
const STEP_MIN: f64 = 2.0 / 60.0;
/// House: the most that is caught up after the server was away, in minutes of job time.
const CATCH_UP_MIN: f64 = 24.0 * 60.0;
/// House: the pad comes off a little under the temperature at which the part may be touched.
const OFF_UNDER_TOUCH_K: f64 = 1.0;
/// House: the torch wanders this far along the part, as a fraction of its length.
const WANDER: f64 = 0.12;
/// House: once in so many min.
const WANDER_MIN: f64 = 3.1;

/// A pad on a part.
#[derive(Clone)]
pub struct Pad {
    lit: Lit,
    bar: Bar,
    body: ThermalBody,
    power: BarPower,
    station: f64,
    /// How far the torch wanders, as a fraction of the part's length.
    wander: f64,
    target_c: f64,
    bead_joules: f64,
    /// Minutes at which beads were laid, first first; those before `struck` are in the bar.
    beads: Vec<f64>,
    struck: usize,
    /// Out of the heat at this minute; and out of its packing.
    out: Option<f64>,
    unwrapped: Option<f64>,
    covered: bool,
    /// Nobody heats it any more, whether that was said or not.
    over: bool,
    cooling: Option<Cools>,
    wrapping: Wrapping,
    minutes: f64,
    stored_to: f64,
    flame_on: bool,
    /// The drawn face under its flame, where that is what is read.
    face: Option<WarmFace>,
}

/// A cooling that began at a minute of the job clock.
#[derive(Clone)]
struct Cools {
    from: f64,
    wrapped: bool,
    cooling: Cooling,
}

/// Ours: the wall that a bead's amps are taken for.
const USUAL_WALL_MM: f64 = 10.0;

/// House: a drawn face is read as often as it is stored; of what was missed for longer, each half minute.
const CLOSELY_MIN: f64 = 10.0;
const LONG_STEP_MIN: f64 = 0.5;

/// A welder's hand: whether the flame is on.
fn tended(on: bool, over: bool, (celsius, target_c): (f64, f64)) -> bool {
    if over || celsius > target_c + 35.0 {
        return false;
    }
    on || celsius < target_c + 8.0
}

/// With noise that is the same each time it is asked for: a thermocouple's last degree.
fn shown(minutes: f64, true_c: f64) -> Reading {
    let wave = (minutes * 97.3).sin() + (minutes * 41.7 + 1.3).sin();
    let celsius = true_c + 0.6 * wave;
    // To a tenth of a degree and of a second: no pad shows more.
    Reading { minutes: (minutes * 600.0).round() / 600.0, celsius: (celsius * 10.0).round() / 10.0 }
}

fn no_flame(station: f64) -> Option<BarPower> {
    let none = Watts::new(0.0).ok()?;
    Some(BarPower::Flame { even: none, local: none, station, covered: 0.0 })
}

impl Pad {
    /// The pad of a part that was heated and is not cold yet; nothing for others.
    pub fn on(job: &Job, plan: &Plan, shop: &Shop) -> Option<Self> {
        let last = plan.last_heat.as_ref()?;
        let heat = job.heats().find(|heat| heat.lit.fact == last.lit)?;
        let frozen = heat.lit.frozen.as_ref().and_then(|frozen| frozen.way);
        let baked = heat.lit.what == Lighting::Bake;
        let way = frozen.or(plan.methods.chosen).filter(|_| !baked);
        if !baked && way?.method.without_heat() {
            return None;
        }
        let in_hand = !last.over && heat.cancelled_min.is_none();
        let body = if baked { plan.casting(job, shop)? } else { plan.warmed(job, shop)? };
        let station = job.round().get(field::part::BREAK_STATION).map_or(0.5, |percent| percent / 100.0);
        let planned = match heat.lit.what {
            Lighting::Main => plan.heat.as_ref(),
            Lighting::Bake => plan.bake_heat(),
            Lighting::Tack => None,
        }
        .filter(|_| in_hand);
        let closed = plan.closed(job, shop);
        let power = planned.and_then(|heat| heat.bar(&body, station, closed)).map(|(_, power)| power);
        let power = power.or_else(|| no_flame(station))?;
        let here = heat.readings.last().copied();
        let before = || job.heats().skip(1).find_map(|heat| heat.latest_reading());
        let start_c = here.or_else(before).map_or(body.ambient.celsius(), |reading| reading.celsius);
        let minutes = here.map_or(0.0, |reading| reading.minutes);
        let standing = || heat.log.iter().filter(|entry| entry.stands());
        let beads: Vec<f64> = standing()
            .filter(|entry| matches!(entry.entry, TorchEntry::Bead { .. }))
            .map(|entry| entry.minutes)
            .collect();
        let mut pad = Self {
            lit: heat.lit.clone(),
            bar: Bar::new(&body, power, Celsius::new(start_c).ok()?),
            power,
            station,
            wander: WANDER * job.practice.as_ref().map_or(1.0, |practice| practice.truth.sweep),
            target_c: planned.map_or(body.ambient.celsius(), |heat| heat.target_c),
            bead_joules: way.map_or(0.0, |way| {
                let arc = way.method.entry().arc;
                arc.map_or(0.0, |arc| {
                    arc.joules_a_mm(USUAL_WALL_MM, School::Warm, None) * way.school.bead_mm()
                })
            }),
            struck: beads.iter().filter(|at| **at <= minutes).count(),
            beads,
            out: heat.out_of_heat_min(),
            unwrapped: standing()
                .rfind(|entry| entry.entry == TorchEntry::Unwrapped)
                .filter(|_| last.unwrapped)
                .map(|entry| entry.minutes),
            covered: last.covered,
            over: last.over,
            cooling: None,
            wrapping: last.wrapping(),
            minutes,
            stored_to: minutes,
            flame_on: planned.is_some_and(|heat| !heat.cold),
            face: None,
            body,
        };
        if let (Some(out), Some(here)) = (pad.out, here) {
            pad.cool_on(out, heat.reading_at(out).map(|reading| reading.celsius), here);
        }
        (!pad.finished()).then_some(pad)
    }

    /// Goes on with a cooling that began before the server was started: the packing is warm by now.
    fn cool_on(&mut self, out: f64, out_c: Option<f64>, here: Reading) {
        let stays = self.covered && self.unwrapped.is_none_or(|at| at > here.minutes);
        let Some(out_c) = out_c.filter(|_| stays && here.minutes > out) else { return };
        let Ok(start) = Celsius::new(out_c) else { return };
        let cooling = cool(&self.body, start, &self.wrapping);
        if let Some(hours) = cooling.hours_to(here.celsius) {
            self.cooling = Some(Cools { from: here.minutes - hours * 60.0, wrapped: true, cooling });
        }
    }

    /// On a drawn face: the flame begins where it was put.
    #[must_use]
    pub fn on_the_face(self, face: impl FnOnce(f64) -> WarmFace) -> Self {
        let face = Some(face(self.true_c()));
        Self { face, ..self }
    }

    /// The same pad after something was said of the job: the temperatures go on.
    pub fn going_on_from(mut self, before: Self) -> Self {
        if before.lit.fact != self.lit.fact {
            // Lit anew: it starts as warm as it is, on a job clock of its own.
            if let Ok(now) = Celsius::new(before.true_c()) {
                self.bar = Bar::new(&self.body, self.power, now);
            }
            return self;
        }
        if before.minutes < self.minutes {
            return self;
        }
        let same_cover = before.out == self.out && before.covered == self.covered;
        if !same_cover
            && before.cooling.is_some()
            && let Ok(now) = Celsius::new(before.true_c())
        {
            // Uncovered after all: it goes on from what it cooled to.
            self.bar = Bar::new(&self.body, self.power, now);
        } else {
            self.bar = before.bar;
        }
        self.face = match (self.face, &before.face) {
            (Some(face), Some(before)) => Some(face.going_on_from(before)),
            (face, _) => face,
        };
        self.minutes = before.minutes;
        self.stored_to = before.stored_to;
        self.struck = before.struck.min(self.beads.len());
        self.flame_on = before.flame_on && self.flame_on;
        self.cooling = before.cooling.filter(|_| same_cover);
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
        let out = self.out.or_else(|| self.over.then_some(0.0));
        out.is_some_and(|at| self.minutes > at + 10.0) && cold
    }

    /// The part's temperature under the pad, without its noise, in degC.
    #[must_use]
    pub fn true_c(&self) -> f64 {
        match &self.cooling {
            Some(cools) => cools
                .cooling
                .after_hours((self.minutes - cools.from).max(0.0) / 60.0)
                .unwrap_or(self.body.ambient.celsius()),
            None => self.face.as_ref().map_or_else(|| self.bar.coldest_c(), |face| face.coldest_c),
        }
    }

    /// What it shows as soon as it is laid on a part that was just lit; nothing later.
    #[must_use]
    pub fn first(&self) -> Option<Reading> {
        (self.minutes <= 0.0).then(|| self.reading(0.0))
    }

    fn reading(&self, minutes: f64) -> Reading {
        shown(minutes, self.true_c())
    }

    /// Runs on to a time on the job clock; gives the readings that are due to be stored.
    pub fn advance_to(&mut self, minutes: f64) -> Vec<Reading> {
        let mut due = Vec::new();
        if minutes - self.minutes > CATCH_UP_MIN {
            if self.out.is_some() {
                // Long cold: nobody was there to log it, so nothing is made up.
                self.cool_from_here();
                self.minutes = minutes;
                return due;
            }
            self.minutes = minutes - CATCH_UP_MIN;
            self.stored_to = self.minutes;
        }
        while self.minutes + STEP_MIN <= minutes && !self.finished() {
            if self.face_goes_on(minutes, &mut due) {
                continue;
            }
            if self.face.is_some() && !self.is_out() {
                break;
            }
            self.minutes += STEP_MIN;
            self.step();
            if self.minutes - self.stored_to >= STORE_EVERY_MIN - 1e-9 {
                self.stored_to = self.minutes;
                due.push(self.reading(self.minutes));
            }
        }
        due
    }

    fn is_out(&self) -> bool {
        self.out.is_some_and(|out| self.minutes >= out)
    }

    /// The drawn face on to a time, or to where it comes out of the heat, a reading a step; false where it is none, out
    /// of the heat, or no whole step is left.
    fn face_goes_on(&mut self, minutes: f64, due: &mut Vec<Reading>) -> bool {
        if self.is_out() {
            return false;
        }
        let Some(mut face) = self.face.take() else { return false };
        // To the next bead, which warms it.
        let bead = self.beads.get(self.struck).copied().filter(|bead| *bead > self.minutes);
        let to = [Some(minutes), self.out, bead].into_iter().flatten().fold(f64::INFINITY, f64::min);
        let step_min = if to - self.minutes > CLOSELY_MIN { LONG_STEP_MIN } else { STORE_EVERY_MIN };
        let steps = ((to - self.minutes) / step_min + 1e-9).floor();
        while self.struck < self.beads.len() && self.beads[self.struck] <= self.minutes {
            face.warmed_by(
                self.bead_joules
                    / (self.body.mass.kilograms() * self.body.iron.specific_heat(face.coldest_c)),
            );
            self.struck += 1;
        }
        let (over, target_c, mut on) = (self.over, self.target_c, self.flame_on);
        let coldest = face.goes_on(steps * step_min * 60.0, step_min * 60.0, |coldest_c| {
            on = tended(on, over, (coldest_c, target_c));
            on
        });
        self.flame_on = on;
        for coldest_c in &coldest {
            self.minutes += step_min;
            self.stored_to = self.minutes;
            due.push(shown(self.minutes, *coldest_c));
        }
        // What is left before a bead or before it comes out is less than a step.
        let passes = coldest.is_empty() && to < minutes;
        if passes {
            self.minutes = to;
        }
        self.face = Some(face);
        passes || !coldest.is_empty()
    }

    fn step(&mut self) {
        if self.is_out() {
            self.cool_from_here();
            return;
        }
        self.tend_the_flame();
        while self.struck < self.beads.len() && self.beads[self.struck] <= self.minutes {
            self.bar.strike(self.station, self.bead_joules);
            self.struck += 1;
        }
        self.bar.step(STEP_MIN * 60.0);
    }

    /// In its packing while it is covered, in still air else.
    fn cool_from_here(&mut self) {
        let wrapped = self.covered && self.unwrapped.is_none_or(|at| self.minutes < at);
        if self.cooling.as_ref().is_some_and(|cools| cools.wrapped == wrapped) {
            return;
        }
        let wrapping = if wrapped { self.wrapping } else { Wrapping::usual(Packing::Air) };
        if let Ok(start) = Celsius::new(self.true_c()) {
            let cooling = cool(&self.body, start, &wrapping);
            self.cooling = Some(Cools { from: self.minutes, wrapped, cooling });
        }
    }

    /// A welder's hand: on until well over the target, on again when it falls to it. Off for good when
    /// nobody works at it any more.
    fn tend_the_flame(&mut self) {
        let coldest = self.bar.coldest_c();
        // An oven holds what it is set for.
        if matches!(self.power, BarPower::Oven { .. }) && !self.over {
            self.bar.heat_with(self.power);
            return;
        }
        self.flame_on = tended(self.flame_on, self.over, (coldest, self.target_c));
        let off = no_flame(self.station).unwrap_or(self.power);
        let power = match self.power {
            _ if !self.flame_on => off,
            BarPower::Flame { even, local, covered, .. } => BarPower::Flame {
                even,
                local,
                covered,
                station: (self.station
                    + self.wander * (self.minutes * std::f64::consts::TAU / WANDER_MIN).sin())
                .clamp(0.0, 1.0),
            },
            BarPower::Surroundings(_) | BarPower::Oven { .. } => self.power,
        };
        self.bar.heat_with(power);
    }
}
