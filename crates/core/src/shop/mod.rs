//! The shop: its ways of showing things and the gear at hand, and the log that makes it.

mod accept;
mod set_right;
mod values;
mod word;

use std::collections::{BTreeMap, BTreeSet};
use std::hash::{DefaultHasher, Hash, Hasher};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

pub use self::accept::may_be_said;
pub use self::set_right::set_right;
use self::values::{drills_mm, gone, still_there, taught, week};
pub use self::word::{
    ShopFact, ShopWord, coupons, faults, learned, left_out, moves, repairs, scraps, settings, taken, timed,
    tips, unreadable, uses,
};
use crate::crack::tip_offset::OwnTip;
use crate::effort::durations::{TimedStep, WorkingWeek};
use crate::field::{FieldState, choices, get, shop};
use crate::heat::{HeatSource, OwnFactor, Packing};
use crate::method::{Coupon, MethodId, OwnMove, OwnRepair, OwnScrap, PRACTISED};
use crate::prep::said::PinKind;
use crate::quantity::UnitSystem;
use crate::shelf::Shelf;
use crate::stores::{StoreItem, items, kinds_there};

/// House: hours under the hood in one day.
const HOOD_MIN: f64 = 300.0;

/// The shop as its settings make it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Shop {
    pub name: String,
    pub units: UnitSystem,
    pub theme: String,
    /// IANA name.
    pub time_zone: String,
    /// Its clock says 2:30 pm: as it was said, else as in a shop that works in inches.
    pub twelve_hours: bool,
    /// What was said of the clock.
    #[serde(skip)]
    pub clock: Option<bool>,
    pub ambient_c: f64,
    /// Its sign or letters; empty while nobody has said.
    pub currency: String,
    /// Ids of the heat sources, packings and rods at hand; `None` while nobody has said.
    pub sources: Option<Vec<String>>,
    pub packings: Option<Vec<String>>,
    pub rods: Option<Vec<String>>,
    /// Ids of the welding sets at hand; `None` while nobody has said.
    pub sets: Option<Vec<String>>,
    pub stitch_kit: Option<bool>,
    /// draw_in or plain; nothing while nobody has said.
    pub pins: Option<PinKind>,
    /// What an hour of hands costs, and one of oven or waiting; nothing while nobody has said.
    pub rate: Option<f64>,
    pub low_rate: Option<f64>,
    /// What is added for small things, a share of all else; 0 while nobody has said.
    pub small_things: f64,
    /// In mm, the smallest first; empty while nobody has said.
    pub drills_mm: Vec<f64>,
    /// Its days and hours, and minutes under the hood a day at most.
    pub week: WorkingWeek,
    pub hood_min: f64,
    /// What lies in the stores.
    pub stores: Vec<StoreItem>,
    /// What jobs took of them and has not been put back, the first first.
    #[serde(skip)]
    pub used: Vec<UsedOn>,
    /// What became of its own repairs, as last said of each.
    pub repairs: Vec<OwnRepair>,
    /// Steps that were timed here.
    pub timed: Vec<TimedStep>,
    /// How its heatings and coolings went against the book.
    pub learned: Vec<OwnFactor>,
    /// Ends of cracks that were found again here.
    pub tips: Vec<OwnTip>,
    /// What the torch moved here, against what was foreseen.
    pub moves: Vec<OwnMove>,
    /// Coupons that were broken on its bench.
    #[serde(default)]
    pub coupons: Vec<Coupon>,
    /// Pieces of scrap that were done first here.
    #[serde(default)]
    pub scraps: Vec<OwnScrap>,
    /// Where practice differs, what it prefers: by the key of its setting.
    pub taught: BTreeMap<String, String>,
    /// Methods it has done five times and more; nothing while nobody has said.
    pub done_often: Option<Vec<String>>,
}

/// What a job took of a thing in the stores.
#[derive(Debug, Clone, PartialEq)]
pub struct UsedOn {
    pub job: Uuid,
    pub item: Uuid,
    /// In what its kind is counted in.
    pub amount: f64,
}

/// A number that is another one where what is written is.
fn digest(of: &impl Serialize) -> u64 {
    let mut hasher = DefaultHasher::new();
    serde_json::to_vec(of).expect("words, numbers and lists can be written").hash(&mut hasher);
    hasher.finish()
}

/// House: a piece of scrap, or a coupon of the bench, is half a repair as practice.
pub const SCRAP_COUNTS: f64 = 0.5;

impl Shop {
    /// It has done enough by this method without what was done for this job: as it says itself, or by what is known
    /// here.
    #[must_use]
    pub fn practised(&self, method: MethodId, for_job: Uuid) -> bool {
        self.says_often(method) || self.practice(method, for_job) >= PRACTISED
    }

    /// It says itself that it has done this method often.
    #[must_use]
    pub fn says_often(&self, method: MethodId) -> bool {
        self.done_often.iter().flatten().any(|id| id == method.id())
    }

    /// What it has done by this method without what was done for this job, in repairs.
    #[must_use]
    pub fn practice(&self, method: MethodId, for_job: Uuid) -> f64 {
        let repairs = self.repairs.iter().filter(|it| it.method == method).count();
        let scraps = self.scraps.iter().filter(|it| it.method == method && it.job != for_job).count();
        let coupons = self.coupons.iter().filter(|it| it.joined == Some(method)).count();
        repairs as f64 + SCRAP_COUNTS * (scraps + coupons) as f64
    }

    /// A piece of scrap was done first for this job by this method.
    #[must_use]
    pub fn scrap_done(&self, method: MethodId, for_job: Uuid) -> bool {
        self.scraps.iter().any(|it| (it.method, it.job) == (method, for_job))
    }

    #[must_use]
    pub fn of(values: &BTreeMap<String, FieldState>) -> Self {
        let many = |field| get(values, field).map(<[String]>::to_vec);
        let kit = get(values, shop::STITCH_KIT) == Some(true);
        let listed: Vec<String> = [many(shop::RODS), many(shop::PACKINGS)]
            .into_iter()
            .flatten()
            .flatten()
            // A kit has its taps with it.
            .chain(["pins", "taps"].map(str::to_owned).into_iter().filter(|_| kit))
            .collect();
        let stores = items(values, &listed);
        // A shelf is spoken of once a list, or anything on it, has been.
        let spoken_of = |shelf: Shelf| stores.iter().any(|item| item.kind().shelf == shelf);
        let beside = |said: Option<Vec<String>>, there: Vec<String>, shelf: Shelf| match said {
            Some(list) => Some(still_there(list, &there)),
            None => spoken_of(shelf).then_some(there),
        };
        // Of what stands beside the pins only what a method is laid or fitted with.
        let rods = || {
            let mut there = kinds_there(&stores, &[Shelf::Rods, Shelf::Stitching]);
            there.retain(|kind| choices::ROD_CHOICES.iter().any(|(id, _)| id == kind));
            there
        };
        let units = match get(values, shop::UNITS) {
            Some("imperial") => UnitSystem::Imperial,
            _ => UnitSystem::Metric,
        };
        let clock = get(values, shop::CLOCK).map(|said| said == "12");
        let pins: Vec<&StoreItem> = stores.iter().filter(|item| item.kind == "pins").collect();
        Self {
            name: get(values, shop::NAME).unwrap_or("This shop").to_owned(),
            units,
            theme: get(values, shop::THEME).unwrap_or("shop").to_owned(),
            time_zone: get(values, shop::TIME_ZONE).unwrap_or("UTC").to_owned(),
            twelve_hours: clock.unwrap_or(units == UnitSystem::Imperial),
            clock,
            ambient_c: get(values, shop::AMBIENT).unwrap_or(20.0),
            currency: get(values, shop::CURRENCY).unwrap_or_default().to_owned(),
            sources: many(shop::SOURCES),
            packings: beside(many(shop::PACKINGS), kinds_there(&stores, &[Shelf::Packing]), Shelf::Packing),
            rods: beside(many(shop::RODS), rods(), Shelf::Rods),
            sets: many(shop::SETS),
            stitch_kit: match pins.as_slice() {
                [] => get(values, shop::STITCH_KIT).map(|kit| kit && !gone(values, "pins")),
                pins => Some(pins.iter().any(|item| item.there())),
            },
            pins: get(values, shop::PINS),
            rate: get(values, shop::RATE),
            low_rate: get(values, shop::LOW_RATE),
            small_things: get(values, shop::SMALL_THINGS).unwrap_or(0.0) / 100.0,
            drills_mm: drills_mm(values),
            week: week(values),
            hood_min: get(values, shop::HOOD).unwrap_or(HOOD_MIN),
            stores,
            used: Vec::new(),
            repairs: Vec::new(),
            timed: Vec::new(),
            learned: Vec::new(),
            tips: Vec::new(),
            moves: Vec::new(),
            coupons: Vec::new(),
            scraps: Vec::new(),
            taught: taught(values),
            done_often: get(values, shop::DONE_OFTEN).map(<[String]>::to_vec),
        }
    }

    /// The same shop, told in these units.
    #[must_use]
    pub fn told_in(&self, units: UnitSystem) -> Self {
        let twelve_hours = self.clock.unwrap_or(units == UnitSystem::Imperial);
        Self { units, twelve_hours, ..self.clone() }
    }

    /// The shop as its log makes it: with what jobs took since each thing was counted.
    #[must_use]
    pub fn of_log(values: &BTreeMap<String, FieldState>, facts: &[ShopFact]) -> Self {
        let mut counted = Self::of(values);
        counted.used = taken(facts)
            .filter_map(|fact| match &fact.change {
                ShopWord::Used { item, amount, job, .. } => {
                    Some(UsedOn { job: *job, item: *item, amount: *amount })
                }
                _ => None,
            })
            .collect();
        let out = left_out(facts);
        let counts = |case: &Uuid| !out.contains_key(case);
        counted.repairs = repairs(facts).into_iter().filter(|it| counts(&it.lit)).collect();
        counted.timed = timed(facts).into_iter().filter(|it| counts(&it.fact)).collect();
        counted.learned = learned(facts).into_iter().filter(|it| counts(&it.lit)).collect();
        counted.coupons = coupons(facts).into_iter().filter(|it| counts(&it.coupon)).collect();
        counted.scraps = scraps(facts).into_iter().filter(|it| counts(&it.piece) && !it.taken_back).collect();
        counted.tips = tips(facts).into_iter().filter(|it| counts(&it.crack)).collect();
        counted.moves = moves(facts).into_iter().filter(|it| counts(&it.size)).collect();
        for thing in counted.stores.iter_mut().filter(|thing| thing.counted_revision > 0) {
            let said = facts.iter().find(|fact| fact.revision == thing.counted_revision);
            thing.counted_ms = said.map_or(0, ShopFact::at_ms);
        }
        for fact in taken(facts) {
            let ShopWord::Used { item, amount, .. } = &fact.change else { continue };
            let of = |thing: &&mut StoreItem| thing.id == *item && thing.counted_revision < fact.revision;
            if let Some(left) = counted.stores.iter_mut().find(of).and_then(|thing| thing.amount.as_mut()) {
                *left = (*left - amount).max(0.0);
            }
        }
        counted
    }

    /// One number of all that the plans of all jobs read of the shop: while it stays, so does every line of the rack.
    /// Of what is counted in pieces it is only whether some are there; see [`counts`](Self::counts).
    #[must_use]
    pub fn planned_by(&self) -> u64 {
        // What seams moved is asked beside the plan.
        let mut read = Self { used: Vec::new(), moves: Vec::new(), ..self.clone() };
        (read.name, read.theme) = (String::new(), String::new());
        for item in &mut read.stores {
            if item.kind().shelf != Shelf::Gas {
                item.amount = item.amount.map(|amount| f64::from(u8::from(amount > 0.0)));
            }
            (item.counted_revision, item.counted_ms, item.opened) = (0, 0, None);
            item.place.clear();
        }
        digest(&read)
    }

    /// One number of what a plan reads of the counts in the stores: how much is there of the kinds that it takes, and
    /// what its job took.
    #[must_use]
    pub fn counts(&self, job: Uuid, kinds: &BTreeSet<&str>) -> u64 {
        let counted = self.stores.iter().filter(|item| kinds.contains(item.kind.as_str()));
        let counted: Vec<(Uuid, Option<f64>)> = counted.map(|item| (item.id, item.amount)).collect();
        let used = self.used.iter().filter(|used| used.job == job);
        let used: Vec<(Uuid, f64)> = used.map(|used| (used.item, used.amount)).collect();
        digest(&(counted, used))
    }

    /// The heat sources at hand, as listed.
    pub fn heat_sources(&self) -> impl Iterator<Item = &'static HeatSource> + '_ {
        self.sources.iter().flatten().filter_map(|id| HeatSource::from_id(id))
    }

    /// The packings at hand. Without a word a ceramic blanket is taken for granted.
    #[must_use]
    pub fn packings_at_hand(&self) -> Vec<Packing> {
        match &self.packings {
            None => vec![Packing::Blanket],
            Some(ids) => ids.iter().filter_map(|id| Packing::from_id(id)).collect(),
        }
    }
}

#[cfg(test)]
mod tests;
