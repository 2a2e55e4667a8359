//! The shop: its ways of showing things and the gear at hand, and the log that makes it.

use std::collections::{BTreeMap, BTreeSet};
use std::hash::{DefaultHasher, Hash, Hasher};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::base::log::{Fact, Taking, Word, own_words, undone};
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::crack::tip_offset::{APART_MOST_MM, OwnTip};
use crate::effort::durations::{TimedStep, WorkingWeek};
use crate::field::{FieldValue, Held, choices, get, parse_value, shop, shop_field, store};
use crate::heat::{HeatSource, OwnFactor, Packing};
use crate::method::{Coupon, MethodId, OwnRepair};
use crate::quantity::{UnitSystem, parse_drills};
use crate::shelf::{Shelf, StoreKind};
use crate::stores::{StoreItem, fits, id_of_a_list, items, kinds_there};

/// Something said of the shop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum ShopWord {
    /// A setting as typed.
    Set {
        key: String,
        typed: String,
        shown_in: UnitSystem,
    },
    /// A job took so much of a thing in the stores: said by the program when it is lit, or done.
    Used {
        item: Uuid,
        amount: f64,
        job: Uuid,
        name: String,
    },
    /// What became of a repair, as its job has it: said by the program, and again when that was corrected.
    Became(OwnRepair),
    /// How long a step took here, against what was reckoned: said by the program once it was timed.
    Timed(TimedStep),
    /// How a heating or a cooling here went against the book: said by the program once it was read to its end.
    Learned(OwnFactor),
    /// An end of a crack was found again, better: said by the program.
    FoundAgain(OwnTip),
    /// A coupon was broken on the bench; said again under its id it takes that one's place.
    Coupon(Box<Coupon>),
    /// One of the shop's own cases counts no more, and why: a repair, a heating or cooling, a timing, an end.
    LeaveOut {
        case: Uuid,
        reason: String,
    },
    /// It counts again.
    LetIn {
        case: Uuid,
    },
    /// It was not taken: puts back what a job took.
    PutBack {
        target: Uuid,
    },
    /// Takes an earlier word back, or puts it back.
    Undo {
        target: Uuid,
    },
    Redo {
        target: Uuid,
    },
    /// Something that this version cannot read, as it is stored. It is kept and shown, and cannot be said.
    Unreadable {
        text: String,
    },
}

impl Word for ShopWord {
    fn taking(&self) -> Taking {
        match self {
            Self::Set { .. } | Self::Coupon(_) | Self::LeaveOut { .. } | Self::LetIn { .. } => Taking::Open,
            // Nobody said it: it is put back, not taken back.
            Self::Used { .. }
            | Self::Became(_)
            | Self::Timed(_)
            | Self::Learned(_)
            | Self::FoundAgain(_)
            | Self::Unreadable { .. } => Taking::Aside,
            Self::PutBack { target } => Taking::Back(*target),
            Self::Undo { target } => Taking::Back(*target),
            Self::Redo { target } => Taking::Again(*target),
        }
    }
}

/// A word as it was stored: with the value that was understood, nothing for an emptied setting.
pub type ShopFact = Fact<ShopWord, Option<FieldValue>>;

/// The settings that the log makes, by key. A setting that this version does not know changes nothing.
#[must_use]
pub fn settings(facts: &[ShopFact]) -> BTreeMap<String, Held> {
    let undone = undone(facts);
    let mut values = BTreeMap::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        let ShopWord::Set { key, typed, shown_in } = &fact.change else { continue };
        let Some(spec) = shop_field(key) else { continue };
        let (value, not_understood) = match &fact.understood {
            Some(value) => (value.clone(), String::new()),
            None => match parse_value(key, spec, typed, *shown_in) {
                Ok(value) => (value, String::new()),
                Err(problem) => (None, problem.message),
            },
        };
        let typed = typed.trim().to_owned();
        values.insert(key.clone(), Held { typed, value, revision: fact.revision, not_understood });
    }
    values
}

/// Letters of a job's name as it is kept beside what it took.
const NAME_MOST: usize = 80;
/// Ours: more coupons are no bench but a laboratory.
const COUPONS_MOST: usize = 2_000;
/// Letters of why a case does not count.
const REASON_MOST: usize = 200;

/// The thing in the stores, and the field of it, that a key is of.
fn thing_of(key: &str) -> Option<(Uuid, &str)> {
    let (id, field) = key.strip_prefix("store.")?.split_once('.')?;
    Some((id.parse().ok()?, field))
}

/// What jobs took and what has not been put back, the first first.
pub fn taken(facts: &[ShopFact]) -> impl Iterator<Item = &ShopFact> {
    let undone = undone(facts);
    facts
        .iter()
        .filter(move |fact| matches!(fact.change, ShopWord::Used { .. }) && !undone.contains(&fact.id))
}

/// What the program said of this shop, each as it was last said.
fn last_said<T: Clone>(
    facts: &[ShopFact],
    said: fn(&ShopWord) -> Option<&T>,
    same: impl Fn(&T, &T) -> bool,
) -> Vec<T> {
    let mut last: Vec<T> = Vec::new();
    for own in facts.iter().filter_map(|fact| said(&fact.change)) {
        match last.iter_mut().find(|known| same(known, own)) {
            Some(known) => known.clone_from(own),
            None => last.push(own.clone()),
        }
    }
    last
}

/// What became of each repair, as it was last said.
#[must_use]
pub fn repairs(facts: &[ShopFact]) -> Vec<OwnRepair> {
    fn said(word: &ShopWord) -> Option<&OwnRepair> {
        if let ShopWord::Became(repair) = word { Some(repair) } else { None }
    }
    last_said(facts, said, |known, own| known.lit == own.lit)
}

/// What was timed here, each timing as it was last said.
#[must_use]
pub fn timed(facts: &[ShopFact]) -> Vec<TimedStep> {
    fn said(word: &ShopWord) -> Option<&TimedStep> {
        if let ShopWord::Timed(timed) = word { Some(timed) } else { None }
    }
    last_said(facts, said, |known, own| known.fact == own.fact)
}

/// How each heating and cooling went here, as it was last said.
#[must_use]
pub fn learned(facts: &[ShopFact]) -> Vec<OwnFactor> {
    fn said(word: &ShopWord) -> Option<&OwnFactor> {
        if let ShopWord::Learned(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, OwnFactor::is_of)
}

/// Ends that were found again here, each as it was last said.
#[must_use]
pub fn tips(facts: &[ShopFact]) -> Vec<OwnTip> {
    fn said(word: &ShopWord) -> Option<&OwnTip> {
        if let ShopWord::FoundAgain(own) = word { Some(own) } else { None }
    }
    last_said(facts, said, OwnTip::is_of)
}

/// Coupons that were broken here, each as it was last said, in the order of their breaking.
#[must_use]
pub fn coupons(facts: &[ShopFact]) -> Vec<Coupon> {
    let undone = undone(facts);
    let mut last: Vec<Coupon> = Vec::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        let ShopWord::Coupon(own) = &fact.change else { continue };
        match last.iter_mut().find(|known| known.coupon == own.coupon) {
            Some(known) => known.clone_from(own),
            None => last.push(Coupon::clone(own)),
        }
    }
    last
}

/// Cases that count no more, with the reason, as last said of each.
#[must_use]
pub fn left_out(facts: &[ShopFact]) -> BTreeMap<Uuid, String> {
    let undone = undone(facts);
    let mut out = BTreeMap::new();
    for fact in facts.iter().filter(|fact| !undone.contains(&fact.id)) {
        match &fact.change {
            ShopWord::LeaveOut { case, reason } => drop(out.insert(*case, reason.clone())),
            ShopWord::LetIn { case } => drop(out.remove(case)),
            _ => {}
        }
    }
    out
}

/// Every case there is: of what one may be left out.
fn is_a_case(facts: &[ShopFact], case: Uuid) -> bool {
    facts.iter().any(|fact| match &fact.change {
        ShopWord::Became(repair) => repair.lit == case,
        ShopWord::Timed(timed) => timed.fact == case,
        ShopWord::Learned(own) => own.lit == case,
        ShopWord::FoundAgain(own) => own.crack == case,
        ShopWord::Coupon(own) => own.coupon == case,
        _ => false,
    })
}

/// Whether a word may be said of the shop: gives what is understood of it.
///
/// # Errors
/// The problem, at its field: not understood, no such setting, or not the sender's own last word.
pub fn may_be_said(
    facts: &[ShopFact],
    word: &ShopWord,
    sender: &str,
) -> Result<Option<Option<FieldValue>>, FieldProblem> {
    let own = || own_words(facts).into_iter().find(|own| own.sender == sender);
    let not_own = |what: &str| FieldProblem::new("shop", format!("that is not your last word {what}"), "");
    match word {
        ShopWord::Set { key, typed, shown_in } => {
            let spec =
                shop_field(key).ok_or_else(|| FieldProblem::new(key, "there is no such setting", ""))?;
            let value = parse_value(key, spec, typed, *shown_in)?;
            if let Some((item, field)) = thing_of(key)
                && let Err(why) = fits(&settings(facts), item, field, typed)
            {
                return Err(FieldProblem::new(key, format!("\"{typed}\" cannot be: {why}"), ""));
            }
            Ok(Some(value))
        }
        ShopWord::Timed(timed) => {
            OutOfRange::check("a pace", "times", (0.01, 100.0), timed.ratio)
                .map_err(|out| FieldProblem::new("ratio", out.to_string(), "0.2 to 5"))?;
            (timed.step.chars().count() <= NAME_MOST)
                .then_some(None)
                .ok_or_else(|| FieldProblem::new("step", "the name is too long", "80 letters at most"))
        }
        ShopWord::Learned(own) => {
            OutOfRange::check("a factor", "times", (0.3, 2.5), own.factor)
                .map_err(|out| FieldProblem::new("factor", out.to_string(), "0.3 to 2.5"))?;
            (own.name.chars().count() <= NAME_MOST && own.what.is_known())
                .then_some(None)
                .ok_or_else(|| FieldProblem::new("of", "that is no source and no packing", ""))
        }
        ShopWord::FoundAgain(own) => {
            OutOfRange::check("how far beyond", "mm", (-APART_MOST_MM, APART_MOST_MM + 1.0), own.beyond_mm)
                .map_err(|out| FieldProblem::new("beyond_mm", out.to_string(), "a few mm"))?;
            (own.name.chars().count() <= NAME_MOST)
                .then_some(None)
                .ok_or_else(|| FieldProblem::new("name", "the name is too long", "80 letters at most"))
        }
        ShopWord::Became(repair) => {
            OutOfRange::check("a time in days", "days", (0.0, 1e5), repair.days)
                .map_err(|out| FieldProblem::new("days", out.to_string(), "0 to 100000"))?;
            OutOfRange::check("odds", "", (0.0, 1.0), repair.given.unwrap_or(0.0))
                .map_err(|out| FieldProblem::new("given", out.to_string(), "0 to 1"))?;
            let known = ["holds", "fault", "failed", "unknown"];
            (known.contains(&repair.became.as_str()) && repair.name.chars().count() <= NAME_MOST)
                .then_some(None)
                .ok_or_else(|| FieldProblem::new("became", "that is no outcome", known.join(", ")))
        }
        ShopWord::Used { amount, name, .. } => {
            // Of the program itself; the figure is checked like any other.
            OutOfRange::check("an amount", "", (0.0, 1e6), *amount)
                .map_err(|out| FieldProblem::new("amount", out.to_string(), "0 to 1000000"))?;
            (name.chars().count() <= NAME_MOST)
                .then_some(None)
                .ok_or_else(|| FieldProblem::new("name", "the name is too long", "80 letters at most"))
        }
        ShopWord::Coupon(coupon) => {
            let read = coupon
                .read
                .is_some_and(|read| Coupon::clone(coupon).understood().map(|it| it.read) == Ok(Some(read)));
            if coupons(facts).len() >= COUPONS_MOST {
                Err(FieldProblem::new("coupon", "that is more than a bench breaks", "leave some out"))
            } else if read {
                Ok(None)
            } else {
                Err(FieldProblem::new("coupon", "it was not understood", ""))
            }
        }
        ShopWord::LeaveOut { case, reason } => {
            let reason = reason.trim().chars().count();
            if !is_a_case(facts, *case) {
                Err(FieldProblem::new("case", "there is no such case here", ""))
            } else if reason == 0 {
                Err(FieldProblem::new("reason", "say why it does not count", "the thermocouple had come off"))
            } else if reason > REASON_MOST {
                Err(FieldProblem::new("reason", "that is too long", format!("{REASON_MOST} letters at most")))
            } else {
                Ok(None)
            }
        }
        ShopWord::LetIn { case } if left_out(facts).contains_key(case) => Ok(None),
        ShopWord::LetIn { .. } => Err(FieldProblem::new("case", "it counts already", "")),
        ShopWord::PutBack { target } => {
            let taken = |fact: &ShopFact| fact.id == *target && matches!(fact.change, ShopWord::Used { .. });
            if facts.iter().any(taken) && !undone(facts).contains(target) {
                Ok(None)
            } else {
                Err(FieldProblem::new("shop", "that was not taken, or is back already", ""))
            }
        }
        ShopWord::Undo { target } if own().is_some_and(|own| own.undo == Some(*target)) => Ok(None),
        ShopWord::Undo { .. } => Err(not_own("to be taken back")),
        ShopWord::Redo { target } if own().is_some_and(|own| own.redo == Some(*target)) => Ok(None),
        ShopWord::Redo { .. } => Err(not_own("to be put back")),
        ShopWord::Unreadable { .. } => Err(FieldProblem::new("shop", "that cannot be said", "")),
    }
}

/// What of the shop's log this version cannot read, the first first: its place in the log, and as it is stored.
pub fn unreadable(facts: &[ShopFact]) -> impl Iterator<Item = (u64, &str)> {
    facts.iter().filter_map(|fact| match &fact.change {
        ShopWord::Unreadable { text } => Some((fact.revision, text.as_str())),
        _ => None,
    })
}

/// The set as it was understood when it was typed: inches mean the units it was typed in then.
fn drills_mm(values: &BTreeMap<String, Held>) -> Vec<f64> {
    let units = match get(values, shop::UNITS) {
        Some("imperial") => UnitSystem::Imperial,
        _ => UnitSystem::Metric,
    };
    let typed = get(values, shop::DRILLS).unwrap_or_default();
    parse_drills(shop::DRILLS.key(), typed, units).unwrap_or_default()
}

/// House: hours under the hood in one day.
const HOOD_MIN: f64 = 300.0;

fn week(values: &BTreeMap<String, Held>) -> WorkingWeek {
    let usual = WorkingWeek::default();
    let mut days = usual.days;
    if let Some(said) = get(values, shop::WORK_DAYS) {
        for (day, (id, _)) in days.iter_mut().zip(choices::DAYS) {
            *day = said.iter().any(|known| known == id);
        }
    }
    let minute = |said: Option<f64>, usual: i64| said.map_or(usual, |minutes| minutes as i64);
    WorkingWeek {
        days,
        from_min: minute(get(values, shop::DAY_FROM), usual.from_min),
        to_min: minute(get(values, shop::DAY_TO), usual.to_min),
    }
    .or_ordinary()
}

/// What is preferred where practice differs.
fn taught(values: &BTreeMap<String, Held>) -> BTreeMap<String, String> {
    let of = |(key, held): (&String, &Held)| match &held.value {
        Some(FieldValue::One(id)) if key.starts_with("shop_taught.") => Some((key.clone(), id.clone())),
        _ => None,
    };
    values.iter().filter_map(of).collect()
}

/// A thing of a list of before was taken off its shelf.
fn gone(values: &BTreeMap<String, Held>, kind: &str) -> bool {
    let key = store::WHAT.of(id_of_a_list(kind)).key();
    values.get(&key).is_some_and(|held| held.value.is_none())
}

/// What a list named and is not known to be gone, with what lies there beside it.
fn still_there(list: Vec<String>, there: &[String]) -> Vec<String> {
    let a_thing = |id: &String| StoreKind::from_id(id).is_some();
    let mut left: Vec<String> = list.into_iter().filter(|id| !a_thing(id) || there.contains(id)).collect();
    left.extend(there.iter().filter(|id| !left.contains(id)).cloned().collect::<Vec<_>>());
    left
}

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
    pub pins: Option<String>,
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
    /// Coupons that were broken on its bench.
    #[serde(default)]
    pub coupons: Vec<Coupon>,
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

/// House: with fewer repairs of its own by a method a piece of scrap is done first.
const PRACTISED: usize = 5;

impl Shop {
    /// It has repairs enough of its own by this method: as it says itself, or by those that are known here.
    #[must_use]
    pub fn practised(&self, method: MethodId) -> bool {
        let said = self.done_often.iter().flatten().any(|id| id == method.id());
        said || self.repairs.iter().filter(|repair| repair.method == method).count() >= PRACTISED
    }

    #[must_use]
    pub fn of(values: &BTreeMap<String, Held>) -> Self {
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
            pins: get(values, shop::PINS).map(str::to_owned),
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
            coupons: Vec::new(),
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
    pub fn of_log(values: &BTreeMap<String, Held>, facts: &[ShopFact]) -> Self {
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
        counted.tips = tips(facts).into_iter().filter(|it| counts(&it.crack)).collect();
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
        let mut read = Self { used: Vec::new(), ..self.clone() };
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
mod tests {
    use proptest::prelude::*;
    use rstest::rstest;

    use super::*;

    struct Told(Vec<ShopFact>);

    impl Told {
        fn say(&mut self, sender: &str, word: ShopWord) -> Result<Uuid, FieldProblem> {
            let understood = may_be_said(&self.0, &word, sender)?;
            let revision = self.0.len() as u64 + 1;
            let id = Uuid::from_u128(u128::from(revision));
            self.0.push(Fact {
                id,
                revision,
                at_client_ms: 0,
                at_server_ms: 0,
                who: String::new(),
                sender: sender.to_owned(),
                change: word,
                understood,
            });
            Ok(id)
        }

        fn set(&mut self, sender: &str, key: &str, typed: &str) -> Result<Uuid, FieldProblem> {
            let (key, typed) = (key.to_owned(), typed.to_owned());
            self.say(sender, ShopWord::Set { key, typed, shown_in: UnitSystem::Metric })
        }

        fn typed(&self, key: &str) -> String {
            settings(&self.0).get(key).map_or(String::new(), |held| held.typed.clone())
        }
    }

    #[test]
    fn a_setting_is_taken_back_and_put_back() {
        let mut told = Told(Vec::new());
        told.set("laptop", "shop.ambient", "18 C").unwrap();
        let second = told.set("laptop", "shop.ambient", "5 C").unwrap();
        told.say("laptop", ShopWord::Undo { target: second }).unwrap();
        assert_eq!(told.typed("shop.ambient"), "18 C");
        assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 18.0);
        told.say("laptop", ShopWord::Redo { target: second }).unwrap();
        assert_eq!(told.typed("shop.ambient"), "5 C");
    }

    #[test]
    fn everybody_takes_back_their_own_word() {
        let mut told = Told(Vec::new());
        let theirs = told.set("phone", "shop.name", "Lockside").unwrap();
        told.set("laptop", "shop.ambient", "5 C").unwrap();
        assert!(told.say("laptop", ShopWord::Undo { target: theirs }).is_err());
        told.say("phone", ShopWord::Undo { target: theirs }).unwrap();
        assert_eq!((told.typed("shop.name"), told.typed("shop.ambient")), (String::new(), "5 C".to_owned()));
    }

    #[rstest]
    #[case::not_understood("shop.ambient", "warm", "shop.ambient")]
    #[case::out_of_bounds("shop.ambient", "90 C", "shop.ambient")]
    #[case::no_such_setting("shop.colour", "red", "shop.colour")]
    #[case::a_field_of_a_job("part.wall", "12", "part.wall")]
    fn what_cannot_be_is_refused_at_its_field(#[case] key: &str, #[case] typed: &str, #[case] field: &str) {
        let problem = Told(Vec::new()).set("laptop", key, typed).unwrap_err();
        assert_eq!(problem.field, field);
    }

    #[test]
    fn what_was_understood_when_it_was_said_stays_so() {
        let mut told = Told(Vec::new());
        told.set("laptop", "shop.ambient", "18 C").unwrap();
        told.0[0].understood = Some(Some(FieldValue::Number(99.0)));
        assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 99.0, "past the bounds of today");
        told.0[0].understood = None;
        assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 18.0, "from before it was kept");
    }

    #[rstest]
    #[case::nobody_said("", UnitSystem::Metric, false)]
    #[case::nobody_said_in_inches("", UnitSystem::Imperial, true)]
    #[case::twelve_hours("12", UnitSystem::Metric, true)]
    #[case::all_of_them("24", UnitSystem::Imperial, false)]
    fn the_clock_is_as_it_was_said_else_as_the_units_are(
        #[case] said: &str,
        #[case] units: UnitSystem,
        #[case] twelve_hours: bool,
    ) {
        let mut told = Told(Vec::new());
        if !said.is_empty() {
            told.set("laptop", "shop.clock", said).unwrap();
        }
        assert_eq!(Shop::of(&settings(&told.0)).told_in(units).twelve_hours, twelve_hours);
    }

    proptest! {
        #[test]
        fn taking_all_of_ones_words_back_leaves_what_the_others_said(
            said in prop::collection::vec((any::<bool>(), 0..3_usize), 0..12),
        ) {
            let keys = ["shop.name", "shop.time_zone", "shop.units"];
            let typed = ["Lockside", "Europe/London", "imperial"];
            let mut told = Told(Vec::new());
            let mut others = Told(Vec::new());
            for (mine, at) in said {
                let sender = if mine { "laptop" } else { "phone" };
                told.set(sender, keys[at], typed[at]).unwrap();
                if !mine {
                    others.set(sender, keys[at], typed[at]).unwrap();
                }
            }
            while let Some(target) =
                own_words(&told.0).into_iter().find(|own| own.sender == "laptop").and_then(|own| own.undo)
            {
                told.say("laptop", ShopWord::Undo { target }).unwrap();
            }
            let words = |told: &Told| {
                let values = settings(&told.0);
                values.into_iter().map(|(key, held)| (key, held.typed)).collect::<Vec<_>>()
            };
            prop_assert_eq!(words(&told), words(&others));
        }
    }
}
