//! What would have to change for a method to be the first choice: worked out by trying it.

use crate::casting::said::SeenAs;
use crate::casting::said::{Oil, Reached};
use crate::crack::said::Edges;
use crate::crack::stop_hole::FoundBy;
use serde::Serialize;

use super::{MethodPlan, Moment};
use crate::field::{self, FieldValue};
use crate::heat::{HeatSource, SimCache};
use crate::job::{Job, Round};
use crate::method::MethodId;
use crate::plan::make::methods_at;
use crate::quantity::of_100;
use crate::shop::Shop;

/// What a method would become.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Becomes {
    /// One of those that are left.
    Left,
    /// Ahead of all others.
    First,
}

/// The least change that would bring a method forward.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Would {
    pub method: MethodId,
    /// "Bake the oil out, and borrow a large tip"; empty where nothing that was tried does it.
    pub change: String,
    pub then: Option<Becomes>,
    /// Of a hundred so many hold then.
    pub of_100: Option<u32>,
    /// All it wants is what is not at hand, as what speaks against it says already.
    pub only_not_here: bool,
}

/// A job in a shop at a moment, as it would be.
#[derive(Clone)]
struct Tried {
    job: Job,
    shop: Shop,
    moment: Option<Moment>,
}

impl Tried {
    fn set(&mut self, key: &str, value: FieldValue) {
        self.job.assume(key, value);
    }

    fn unset(&mut self, key: &str) {
        if let Some(round) = self.job.rounds.last_mut() {
            round.values.remove(key);
        }
    }
}

/// One thing that could be done.
struct Change {
    words: String,
    make: Box<dyn Fn(&mut Tried)>,
}

fn one(id: &str) -> FieldValue {
    FieldValue::One(id.to_owned())
}

/// Ours: a week more is worth asking the owner for.
const MORE_TIME_MIN: i64 = 7 * 24 * 60;

/// What is not at hand for a method, as what speaks against it says it.
fn lacks(plan: &MethodPlan, method: MethodId) -> Option<&str> {
    let contender = plan.contenders.iter().find(|contender| contender.way.method == method)?;
    let lacks = contender.cautions.iter().find_map(|why| why.strip_prefix("Not at hand: "))?;
    Some(lacks.trim_end_matches('.'))
}

/// What can be changed about this job and this shop at all.
fn changes(now: &Tried, plan: &MethodPlan, method: MethodId) -> Vec<Change> {
    let mut list = at_the_part(now.job.round());
    list.extend(in_the_shop(now, plan, method));
    list
}

impl Change {
    fn new(words: &str, make: impl Fn(&mut Tried) + 'static) -> Self {
        Self { words: words.to_owned(), make: Box::new(make) }
    }
}

/// What could be done at the part.
fn at_the_part(round: &Round) -> Vec<Change> {
    let mut list: Vec<Change> = Vec::new();
    let mut change = |words: &str, make: Box<dyn Fn(&mut Tried)>| list.push(Change::new(words, make));
    if round.get(field::part::OIL) == Some(Oil::Soaked) {
        change("bake the oil out", Box::new(|it| it.set(field::part::OIL.key(), one(Oil::BakedClean.id()))));
    }
    if round.get(field::part::SEEN) == Some(SeenAs::Bare) {
        change(
            "paint it afterwards",
            Box::new(|it| it.set(field::part::SEEN.key(), one(SeenAs::Painted.id()))),
        );
    }
    if round.get(field::part::OLD_FILLER_OUT) == Some(false) {
        change(
            "get all of the old filler out",
            Box::new(|it| it.set(field::part::OLD_FILLER_OUT.key(), FieldValue::YesNo(true))),
        );
    }
    let edges: Vec<String> = round
        .cracks
        .iter()
        .filter(|crack| {
            let edge = round.get(field::crack::EDGE.of(crack.id));
            matches!(edge, Some(Edges::FlameCut | Edges::Melted))
        })
        .map(|crack| field::crack::EDGE.of(crack.id).key())
        .collect();
    if !edges.is_empty() {
        change(
            "cut the hard edge back",
            Box::new(move |it| edges.iter().for_each(|key| it.set(key, one(Edges::Clean.id())))),
        );
    }
    if !round.neighbours.is_empty() || round.get(field::part::HEAT_SHY).is_some() {
        change(
            "take what must stay cool out of it",
            Box::new(|it| {
                it.unset(field::part::HEAT_SHY.key());
                it.unset(field::part::HEAT_SHY_LIMIT.key());
                if let Some(round) = it.job.rounds.last_mut() {
                    round.neighbours.clear();
                }
            }),
        );
    }
    if round.get(field::part::SIDES) == Some(Reached::One) {
        change(
            "get at it from both sides",
            Box::new(|it| it.set(field::part::SIDES.key(), one(Reached::Both.id()))),
        );
    }
    let by_eye: Vec<String> = round
        .cracks
        .iter()
        .filter(|crack| {
            let found = round.get(field::crack::FOUND_BY.of(crack.id));
            matches!(found, Some(FoundBy::Eye | FoundBy::ChalkAndOil))
        })
        .map(|crack| field::crack::FOUND_BY.of(crack.id).key())
        .collect();
    if !by_eye.is_empty() {
        change(
            "find the tips with dye",
            Box::new(move |it| by_eye.iter().for_each(|key| it.set(key, one(FoundBy::Dye.id())))),
        );
    }
    list
}

/// What could be bought, borrowed or waited for.
fn in_the_shop(now: &Tried, plan: &MethodPlan, method: MethodId) -> Vec<Change> {
    let mut list: Vec<Change> = Vec::new();
    let mut change = |words: &str, make: Box<dyn Fn(&mut Tried)>| list.push(Change::new(words, make));
    if let Some(lacks) = lacks(plan, method) {
        change(
            lacks,
            Box::new(|it| {
                let every = |choices: &[field::Choice]| {
                    Some(choices.iter().map(|(id, _)| (*id).to_owned()).collect())
                };
                it.shop.rods = every(field::ROD_CHOICES);
                it.shop.sets = every(field::SETS);
                it.shop.stitch_kit = Some(true);
            }),
        );
    }
    if !method.without_heat() {
        let here: Vec<&str> = now.shop.heat_sources().map(|source| source.id).collect();
        for id in ["weed_burner", "oxy_acetylene_large", "oxy_propane", "kiln"] {
            let Some(source) = HeatSource::from_id(id).filter(|source| !here.contains(&source.id)) else {
                continue;
            };
            let words = format!("borrow heat ({})", source.label.to_lowercase());
            change(&words, Box::new(move |it| it.shop.sources.get_or_insert_default().push(id.to_owned())));
        }
    }
    if now.moment.is_some_and(|moment| moment.wanted_min.is_some()) {
        change(
            "a week more",
            Box::new(|it| {
                if let Some(wanted) = it.moment.as_mut().and_then(|moment| moment.wanted_min.as_mut()) {
                    *wanted += MORE_TIME_MIN;
                }
            }),
        );
    }
    list
}

/// The least change, of one thing or of two, that would make a method the first; or else that would leave it in at
/// all. Each is tried on the whole plan.
#[must_use]
pub fn would(job: &Job, shop: &Shop, sims: &SimCache, moment: Option<Moment>, method: MethodId) -> Would {
    let mut now = Tried { job: job.clone(), shop: shop.clone(), moment };
    // What the welder chose is not what the plan would choose.
    now.unset(field::method::CHOICE.key());
    now.unset(field::method::SCHOOL.key());
    let becomes = |it: &Tried| -> Option<(Becomes, f64)> {
        let plan = methods_at(&it.job, &it.shop, sims, it.moment);
        let at = plan.contenders.iter().position(|contender| contender.way.method == method)?;
        let contender = &plan.contenders[at];
        let then = match contender.excluded {
            true => return None,
            false if at == 0 && contender.recommended => Becomes::First,
            false => Becomes::Left,
        };
        Some((then, contender.odds.mean))
    };
    let plan = methods_at(&now.job, &now.shop, sims, now.moment);
    let was_left = plan.contenders.iter().any(|it| it.way.method == method && !it.excluded);
    let list = changes(&now, &plan, method);
    let singles = list.iter().map(|change| vec![change]);
    let pairs = list
        .iter()
        .enumerate()
        .flat_map(|(at, first)| list[at + 1..].iter().map(move |second| vec![first, second]));
    let mut left: Option<Would> = None;
    for tried in singles.chain(pairs) {
        let mut it = now.clone();
        for change in &tried {
            (change.make)(&mut it);
        }
        let Some((then, odds)) = becomes(&it) else { continue };
        let words: Vec<&str> = tried.iter().map(|change| change.words.as_str()).collect();
        let found = Would {
            method,
            change: crate::render::upper(&words.join(", and ")),
            then: Some(then),
            of_100: Some(of_100(odds)),
            only_not_here: words.iter().all(|change| Some(*change) == lacks(&plan, method)),
        };
        if then == Becomes::First {
            return found;
        }
        if !was_left {
            left.get_or_insert(found);
        }
    }
    left.unwrap_or(Would { method, change: String::new(), then: None, of_100: None, only_not_here: false })
}
