//! Plain rules that play a case to its end, word by word as a hand would: what following the plan is worth.

use uuid::Uuid;

use super::answers::{answered, answers_more, is_at_hand};
use super::ended::{Ended, ended};
use super::made_up::Case;
use super::told::told;
use crate::casting::said::Oil;
use crate::field::{self, crack_key};
use crate::heat::SimCache;
use crate::iron::Confidence;
use crate::job::{Change, Fact, Job, Lighting, Parsed, Recorded, TorchEntry, accept};
use crate::plan::{Plan, plan_with};
use crate::quantity::UnitSystem;
use crate::secret::Level;
use crate::shop::Shop;
use crate::simulated_thermocouple::Pad;
use crate::stage::Contender;

/// How a case is played.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rule {
    /// The tests it asks for, the ends by dye, its first choice at its heat, each bead peened, its packing.
    WithThePlan,
    /// No test, the ends by eye, no hole, the way that takes the fewest hours, lit and laid at once, left in the air.
    QuickestWay,
}

/// A case under a rule's hands.
struct Player<'a> {
    shop: &'a Shop,
    sims: &'a SimCache,
    facts: Vec<Fact>,
    job: Job,
    now_ms: i64,
    last_id: u128,
}

/// A minute in ms, by definition.
const MINUTE_MS: f64 = 60_000.0;
/// Ours: no rule waits any longer for a heat.
const WAITS_MIN: f64 = 240.0;
/// Ours: a bead, and what belongs to it.
const BEAD_MIN: f64 = 2.0;

/// Plays a case by a rule; nothing where the rule finds no way at all, and the part is left alone.
#[must_use]
pub fn play(case: &Case, rule: Rule, shop: &Shop, sims: &SimCache) -> Option<Ended> {
    // Who goes the quickest way hears no advice.
    let level = if rule == Rule::WithThePlan { Level::WithThePlan } else { Level::Alone };
    let mut player = Player::new(case, level, shop, sims);
    match rule {
        Rule::WithThePlan => player.with_the_plan(),
        Rule::QuickestWay => player.quickest_way(),
    }
    ended(&player.job, shop, sims)
}

impl<'a> Player<'a> {
    fn new(case: &Case, level: Level, shop: &'a Shop, sims: &'a SimCache) -> Self {
        let mut last_id = 0;
        let next = || {
            last_id += 1;
            Uuid::from_u128(last_id)
        };
        let facts = told(case, level, next, 0);
        let job = Job::fold(Uuid::from_u128(u128::MAX), &facts);
        let now_ms = 0;
        Self { shop, sims, last_id: facts.len() as u128, facts, job, now_ms }
    }

    fn plan(&self) -> Plan {
        plan_with(&self.job, self.shop, self.sims)
    }

    fn next_id(&mut self) -> Uuid {
        self.last_id += 1;
        Uuid::from_u128(self.last_id)
    }

    /// Says it, if it may be said; and what the part shows of it.
    fn say(&mut self, change: Change) -> bool {
        let Ok(change) = answered(&self.job, &self.plan(), change, None) else { return false };
        let allowed = || self.plan().allows(&self.job, 0);
        if accept(&self.job, allowed, &change, None, "", None).is_err() {
            return false;
        }
        let change = match change {
            Change::Light { speed, owned, what, .. } => {
                let frozen = Some(Box::new(self.plan().frozen()));
                Change::Light { speed, frozen, owned, what, without: Vec::new() }
            }
            other => other,
        };
        let id = self.next_id();
        self.push(id, change.clone());
        let mut later = self.last_id;
        let next = || {
            later += 1;
            Uuid::from_u128(later)
        };
        for (id, shown) in answers_more(&self.job, &self.plan(), &change, (self.shop, self.sims), next) {
            self.push(id, shown);
        }
        self.last_id = later;
        true
    }

    fn push(&mut self, id: Uuid, change: Change) {
        self.facts.push(Fact {
            id,
            revision: self.facts.len() as u64 + 1,
            at_client_ms: self.now_ms,
            at_server_ms: self.now_ms,
            who: String::new(),
            sender: String::new(),
            understood: Parsed::of(&change, None),
            change,
        });
        let before = std::mem::replace(&mut self.job, Job::fold(Uuid::from_u128(u128::MAX), &self.facts));
        self.job.record_of(before);
    }

    fn set(&mut self, key: &str, typed: &str) -> bool {
        let (key, typed) = (key.to_owned(), typed.to_owned());
        self.say(Change::Set { key, typed, shown_in: UnitSystem::Metric })
    }

    fn open_to(&self, it: &Contender) -> bool {
        let practice = self.job.practice.as_ref();
        it.recommended && !it.excluded && practice.is_some_and(|practice| is_at_hand(practice, it.way.method))
    }

    /// What is never done hot is said to be done.
    fn prepared(&mut self, done: &[&str]) {
        self.set(field::prep::DONE.key(), &done.join(","));
    }

    fn with_the_plan(&mut self) {
        /// Ours: nobody tests a part more often.
        const TESTS_MOST: usize = 5;
        let cracks: Vec<Uuid> = self.job.round().cracks.iter().map(|crack| crack.id).collect();
        for crack in cracks {
            self.set(&crack_key(crack, "found_by"), "dye");
        }
        for test in 0..TESTS_MOST {
            let plan = self.plan();
            let Some(next) = plan.iron.next_tests.first().filter(|_| !plan.iron.enough) else { break };
            let observe = Change::Observe {
                test: next.test.id().to_owned(),
                outcome: String::new(),
                confidence: Confidence::Sure,
                spot: format!("spot {test}"),
            };
            self.say(observe);
        }
        if self.job.round().get(field::part::OIL) == Some(Oil::Soaked) {
            self.bake();
        }
        let plan = self.plan();
        if plan.methods.chosen.is_none() {
            let first = plan.methods.contenders.iter().find(|it| self.open_to(it));
            let Some(first) = first.map(|it| it.way.method.id()) else { return };
            self.set(field::method::CHOICE.key(), first);
        }
        self.drill();
        self.prepared(&["holes", "groove", "inside", "penetrant", "paint"]);
        self.repair(true);
    }

    fn quickest_way(&mut self) {
        let plan = self.plan();
        let open = plan.methods.contenders.iter().filter(|it| self.open_to(it));
        let quick = |it: &&Contender| (it.hours.unwrap_or(f64::INFINITY) * 60.0) as i64;
        let Some(quickest) = open.min_by_key(quick).map(|it| it.way.method.id()) else { return };
        self.set(field::method::CHOICE.key(), quickest);
        self.set(field::cooling::PACKING.key(), "air");
        // He says so, and has not looked.
        self.set(field::part::OLD_FILLER.key(), "none");
        self.prepared(&["groove", "inside", "penetrant", "paint"]);
        self.repair(false);
    }

    /// As planned, where a hole is planned.
    fn drill(&mut self) {
        for crack in self.plan().cracks {
            for end in &crack.ends {
                let Some(hole) = end.stop_hole else { continue };
                let (across, past) = match end.side.as_str() {
                    "left" => ("drilled_a", "past_a"),
                    _ => ("drilled_b", "past_b"),
                };
                self.set(&crack_key(crack.id, across), &format!("{}", hole.drill_mm));
                self.set(&crack_key(crack.id, past), &format!("{:.2}", hole.offset_mm));
            }
        }
    }

    fn bake(&mut self) {
        if self.light(Lighting::Bake) {
            self.now_ms += (WAITS_MIN * MINUTE_MS) as i64;
            self.say(Change::PutOut);
            self.set(field::part::OIL.key(), "baked_clean");
            self.now_ms += (24.0 * 60.0 * MINUTE_MS) as i64;
        }
    }

    fn light(&mut self, what: Lighting) -> bool {
        self.say(Change::Light {
            speed: 1.0,
            frozen: None,
            owned: "a rule lights it".to_owned(),
            what,
            without: Vec::new(),
        })
    }

    /// Lit, filled and covered; `waits` for the heat of the plan.
    fn repair(&mut self, waits: bool) {
        if !self.light(Lighting::Main) {
            return;
        }
        let Some(torch) = self.plan().torch else { return };
        let pieces = torch.planned;
        let truly = plan_with(&self.job.as_it_is(), self.shop, self.sims);
        let bench = self.job.practice.as_ref().map(|practice| crate::secret::bench(practice, self.shop));
        let mut pad = bench.and_then(|bench| Pad::on(&self.job.as_it_is(), &truly, &bench));
        let least_c = torch.window.filter(|_| waits).map_or(f64::NEG_INFINITY, |(least, _)| least);
        let lit_ms = self.now_ms;
        let mut minutes = 0.0;
        for _ in 0..pieces {
            if let Some(pad) = &mut pad {
                while pad.true_c() < least_c && minutes < WAITS_MIN {
                    minutes += 1.0;
                    self.read(pad, minutes);
                }
            }
            self.now_ms = lit_ms + (minutes * MINUTE_MS) as i64;
            let pin = self.plan().torch.and_then(|torch| torch.next_pin);
            let entry = pin.map_or(TorchEntry::Bead { at: None }, |pin| TorchEntry::Pin {
                crack: pin.crack,
                number: pin.number,
            });
            self.say(Change::Torch { entry });
            if waits && torch.peen {
                self.say(Change::Torch { entry: TorchEntry::Peened });
            }
            minutes += BEAD_MIN;
            if let Some(pad) = &mut pad {
                self.read(pad, minutes);
            }
        }
        self.now_ms = lit_ms + (minutes * MINUTE_MS) as i64;
        self.say(Change::Torch { entry: TorchEntry::Covered { why: String::new() } });
    }

    fn read(&mut self, pad: &mut Pad, minutes: f64) {
        let lit = pad.lit();
        let read: Vec<Recorded> = pad.advance_to(minutes).into_iter().map(Recorded::from).collect();
        self.job.read(lit, &read);
    }
}
