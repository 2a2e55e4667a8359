//! A job made by what is said of it, refused facts failing the test.

pub mod mapped;

use std::collections::BTreeMap;
use std::sync::LazyLock;

use uuid::Uuid;
use vanadin_core::field::{FieldState, FieldValue, crack_key};
use vanadin_core::figure::Figure;
use vanadin_core::heat::SimCache;
use vanadin_core::iron::Confidence;
use vanadin_core::job::{Change, Fact, Job, Lighting, Parsed, Refusal, TorchEntry, accept};
use vanadin_core::plan::{Plan, plan_with};
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

pub const LIT_AT: i64 = 1_000_000;

/// Runs of the models are kept from test to test, as a server keeps them: they change nothing but the time it takes.
static RUNS: LazyLock<SimCache> = LazyLock::new(SimCache::default);

/// The plan of a job.
pub fn plan(job: &Job, shop: &Shop) -> Plan {
    plan_with(job, shop, &RUNS)
}

/// A job made by what is said of it, refused facts failing the test.
#[derive(Clone)]
pub struct Bench {
    pub facts: Vec<Fact>,
    pub shop: Shop,
}

impl Bench {
    pub fn new() -> Self {
        let held = |value| FieldState {
            typed: String::new(),
            value: Some(value),
            revision: 1,
            not_understood: String::new(),
        };
        let many = |ids: &[&str]| held(FieldValue::Many(ids.iter().map(|&id| id.to_owned()).collect()));
        let values = BTreeMap::from([
            ("shop.sources".to_owned(), many(&["weed_burner", "kiln"])),
            ("shop.packings".to_owned(), many(&["blanket", "vermiculite"])),
            ("shop.rods".to_owned(), many(&["nickel", "nickel_iron", "bronze", "iron_rod"])),
            ("shop.stitch_kit".to_owned(), held(FieldValue::YesNo(true))),
            ("shop.pins".to_owned(), held(FieldValue::One("draw_in".to_owned()))),
        ]);
        Self { facts: Vec::new(), shop: Shop::of(&values) }
    }

    pub fn job(&self) -> Job {
        Job::fold(Uuid::nil(), &self.facts)
    }

    pub fn plan(&self) -> Plan {
        plan(&self.job(), &self.shop).said()
    }

    pub fn try_say(&mut self, change: Change, at_ms: i64, base: Option<u64>) -> Result<Uuid, Refusal> {
        self.try_say_as("", change, at_ms, base)
    }

    pub fn try_say_as(
        &mut self,
        sender: &str,
        change: Change,
        at_ms: i64,
        base: Option<u64>,
    ) -> Result<Uuid, Refusal> {
        let job = self.job();
        accept(&job, || self.plan().allows(&job, at_ms), &change, base, sender, None)?;
        Ok(self.fold_in(sender, change, at_ms))
    }

    /// Said once it is cold, whatever was read of it.
    pub fn set_cold(&mut self, key: &str, typed: &str) -> Uuid {
        self.fold_in("", set(key, typed), LIT_AT)
    }

    pub fn fold_in(&mut self, sender: &str, change: Change, at_ms: i64) -> Uuid {
        let revision = self.facts.len() as u64 + 1;
        let id = Uuid::from_u128(u128::from(revision));
        self.facts.push(Fact {
            id,
            revision,
            at_client_ms: at_ms,
            at_server_ms: at_ms,
            who: "bench".into(),
            sender: sender.to_owned(),
            understood: Parsed::of(&change, None),
            change,
        });
        id
    }

    pub fn say(&mut self, change: Change) -> Uuid {
        self.try_say(change, LIT_AT, None).unwrap()
    }

    pub fn set(&mut self, key: &str, typed: &str) -> Uuid {
        self.say(set(key, typed))
    }

    /// A lever of gray iron with one crack from an edge, everything known.
    pub fn lever(family: &str, mark: &str) -> Self {
        let mut bench = Self::new();
        for (key, typed) in [
            ("part.name", "Lever"),
            ("part.family", family),
            ("part.era", "1970_on"),
            ("part.mass", "12 kg"),
            ("part.length", "400"),
            ("part.width", "150"),
            ("part.height", "60"),
            ("part.shape", "solid_block"),
            ("part.wall", "14"),
            ("part.break_station", "40"),
            ("part.sides", "both"),
            ("part.service_temperature", "60 C"),
            ("part.fluid_tight", "no"),
            ("part.oil", "clean"),
            ("part.safety_class", "none"),
            ("part.life_wanted", "10 years"),
        ] {
            bench.set(key, typed);
        }
        for spot in ["rim", "hub"] {
            bench.say(Change::Observe {
                test: "mark".into(),
                outcome: mark.into(),
                confidence: Confidence::Sure,
                spot: spot.into(),
            });
        }
        let crack = bench.say(Change::AddCrack);
        for (field, typed) in
            [("length", "60"), ("wall", "14"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]
        {
            bench.set(&crack_key(crack, field), typed);
        }
        bench
    }

    /// The same, to be heated by a flame and welded hot.
    pub fn hot_lever() -> Self {
        let mut bench = Self::lever("machine_frame", "gray");
        bench.set("method.choice", "arc_nickel_iron");
        bench.set("method.school", "hot");
        bench.set("heat.source", "weed_burner");
        bench
    }

    /// Looked for an old repair, and all said to be done that cannot be done hot.
    pub fn ready(&mut self) {
        self.set("part.old_filler", "none");
        self.set("prep.done", "holes,groove,inside,penetrant,paint");
    }

    /// Somebody answers for a part that is referred out.
    pub fn referred(&mut self) {
        for (key, typed) in [
            ("part.authority", "I. Wray"),
            ("part.authority_is", "inspector"),
            ("part.authority_looked", "the drawing"),
            ("part.authority_reference", "ref 7"),
            ("part.authority_day", "2 March 2026"),
        ] {
            self.set(key, typed);
        }
    }

    pub fn light(&mut self) {
        self.ready();
        let frozen = Some(Box::new(self.plan().frozen()));
        self.say(Change::Light {
            speed: 60.0,
            frozen,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new(),
        });
    }

    pub fn torch(&mut self, entry: TorchEntry, after_ms: i64) -> Uuid {
        self.try_say(Change::Torch { entry }, LIT_AT + after_ms, None).unwrap()
    }

    /// The map's only crack.
    pub fn crack(&self) -> Uuid {
        self.job().round().cracks[0].id
    }
}

/// A figure of the plan; of a crack's by its letter.
pub fn figure<'a>(plan: &'a Plan, id: &str) -> Option<&'a Figure> {
    let mut id = id.to_owned();
    for crack in &plan.cracks {
        for prefix in ["cracks", "prep"] {
            let named = format!("{prefix}.{}.", crack.letter);
            id = id.replace(&named, &format!("{prefix}.{}.", crack.id));
        }
    }
    plan.figure(&id)
}

pub fn covered() -> TorchEntry {
    TorchEntry::Covered { why: String::new() }
}

pub fn reading(typed: &str) -> TorchEntry {
    TorchEntry::Reading { typed: typed.into(), shown_in: UnitSystem::Metric, joint: false, gun: None }
}

pub fn set(key: &str, typed: &str) -> Change {
    Change::Set { key: key.into(), typed: typed.into(), shown_in: UnitSystem::Metric }
}
