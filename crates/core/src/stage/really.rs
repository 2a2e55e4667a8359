//! What was really used, thing by thing beside what was planned: asked once it is done.

use serde::Serialize;

use super::method::Contender;
use super::prep::PrepPlan;
use crate::job::Round;
use crate::quantity::{SaidAmount, SaidIn, Unit, UnitSystem, typed_amount};
use crate::shelf::{Measure, Shelf, StoreKind};
use crate::shop::Shop;
use crate::stores::{Take, TakenWhen, UsedUpHere, amount_words, named, weighs_kg_m3};

/// One thing that is asked about.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct UsedLine {
    /// As the stores call it.
    pub what: String,
    /// Across, of rods, pins and drills.
    pub size_mm: Option<f64>,
    /// "Nickel-iron stick, 4 mm"
    pub words: String,
    /// In what its kind is counted in; nothing where nobody reckons it.
    pub planned: Option<f64>,
    /// "6 rods"; "none" where nobody reckons it.
    pub planned_words: String,
    /// What is typed for as much as was planned.
    pub as_planned: String,
    /// Nothing while nobody has said.
    pub used: Option<f64>,
    /// "8 rods"
    pub used_words: String,
    pub typed: String,
    /// Of the word that stands; 0 while none does.
    pub revision: u64,
    /// "2 rods more"; "as planned"; empty while nobody has said, or nothing was planned.
    pub against: String,
    /// What its cylinder holds, so that the gauge will do; nothing for what is no gas, or where nobody has said.
    pub holds_m3: Option<f64>,
    /// "6, or none"
    pub would_be_right: String,
}

/// Something else that is there and may have been used.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OtherThing {
    pub what: String,
    pub size_mm: Option<f64>,
    pub words: String,
    pub holds_m3: Option<f64>,
}

/// What was really used.
#[derive(Debug, Clone, Default, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ReallyPlan {
    /// Empty before it is lit, or begun.
    pub lines: Vec<UsedLine>,
    pub others: Vec<OtherThing>,
    /// "3 of 7 said"; what went over once all is.
    pub words: String,
    /// "Timed 3 h 20 min, reckoned 2 h 50 min for the same steps"; empty where nothing was timed.
    pub hours: String,
}

/// What is asked for.
pub(crate) struct ReallyInputs<'a> {
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub taken: Option<&'a Contender>,
    pub prep: Option<&'a PrepPlan>,
}

/// The steps of the work that wear a disc, a burr, a drill. **House**.
const WEARS: [&str; 3] = ["grinding_disc", "thin_disc", "burr"];

/// **House**: less than this share of what was planned is as it was planned.
const AS_PLANNED: f64 = 0.02;

pub(crate) fn really(inputs: &ReallyInputs<'_>) -> ReallyPlan {
    let ReallyInputs { round, shop, taken, .. } = inputs;
    let Some(taken) = taken.filter(|_| round.repaired()) else { return ReallyPlan::default() };
    let mut lines: Vec<UsedLine> = Vec::new();
    for take in &taken.takes {
        let planned = (take.when != TakenWhen::Kept).then_some(take.amount);
        lines.extend(inputs.line((&take.kind, take.size_mm), planned, spoiled(take)));
    }
    for what in inputs.worn() {
        if lines.iter().all(|line| line.what != what) {
            lines.extend(inputs.line((what, None), None, ""));
        }
    }
    let unplanned: Vec<&UsedUpHere> =
        round.used.iter().filter(|it| !lines.iter().any(|line| it.is_of(&line.what, line.size_mm))).collect();
    for it in unplanned {
        lines.extend(inputs.line((&it.what, it.size_mm), None, ""));
    }
    ReallyPlan {
        others: inputs.others(&lines),
        words: words(&lines),
        hours: hours(round, taken, shop.units),
        lines,
    }
}

/// Packing comes back: what is asked is how much of it was spoiled.
fn spoiled(take: &Take) -> &'static str {
    if take.when == TakenWhen::Kept { ", spoiled" } else { "" }
}

impl ReallyInputs<'_> {
    /// What wears on this job.
    fn worn(&self) -> Vec<&'static str> {
        let grooved = self.prep.is_some_and(|prep| prep.seams.iter().any(|seam| seam.section.is_some()));
        let drilled = self.prep.is_some();
        let mut worn: Vec<&str> = if grooved { WEARS.to_vec() } else { Vec::new() };
        worn.extend(drilled.then_some("drill"));
        worn
    }

    fn holds(&self, kind: &StoreKind) -> Option<f64> {
        let of = |it: &&crate::stores::StoreItem| it.kind == kind.id && it.holds_m3.is_some();
        let mut there: Vec<_> = self.shop.stores.iter().filter(of).collect();
        // The one that was opened first is the one that is open.
        there.sort_by_key(|it| (it.opened.is_none(), it.opened.clone()));
        there.first().and_then(|it| it.holds_m3)
    }

    fn line(
        &self,
        (what, size_mm): (&str, Option<f64>),
        planned: Option<f64>,
        after: &str,
    ) -> Option<UsedLine> {
        let (kind, units) = (StoreKind::from_id(what)?, self.shop.units);
        let used = self.round.used_of(what, size_mm);
        let of = |amount: f64| if amount == 0.0 { "none".to_owned() } else { exactly(kind, amount, units) };
        Some(UsedLine {
            what: what.to_owned(),
            size_mm,
            words: format!("{}{after}", named(kind, size_mm, units)),
            planned,
            planned_words: of(planned.unwrap_or(0.0)),
            as_planned: planned.map_or("none".to_owned(), |amount| typed(kind, amount, units)),
            used: used.map(|it| it.amount),
            used_words: used.map_or_else(String::new, |it| of(it.amount)),
            typed: used.map_or_else(String::new, |it| it.typed.clone()),
            revision: used.map_or(0, |it| it.revision),
            against: used
                .zip(planned)
                .map_or_else(String::new, |(it, planned)| against(kind, it.amount, planned, units)),
            holds_m3: self.holds(kind),
            would_be_right: would_be_right(kind, self.holds(kind).is_some()).to_owned(),
        })
    }

    /// Rods, gas and what wears that lies on the shelves and is not asked about.
    fn others(&self, lines: &[UsedLine]) -> Vec<OtherThing> {
        let mut others: Vec<OtherThing> = Vec::new();
        for item in &self.shop.stores {
            let kind = item.kind();
            let asked = |(what, size_mm): (&str, Option<f64>)| what == kind.id && size_mm == item.size_mm;
            let known = lines.iter().any(|it| it.what == kind.id && item.serves(&it.what, it.size_mm))
                || others.iter().any(|it| asked((&it.what, it.size_mm)));
            if known || !matches!(kind.shelf, Shelf::Rods | Shelf::Gas | Shelf::Bench | Shelf::Stitching) {
                continue;
            }
            others.push(OtherThing {
                what: kind.id.to_owned(),
                size_mm: item.size_mm,
                words: named(kind, item.size_mm, self.shop.units),
                holds_m3: item.holds_m3,
            });
        }
        others
    }
}

/// "6 rods", "0.309 kg": a little gas is not none.
fn exactly(kind: &StoreKind, amount: f64, units: UnitSystem) -> String {
    match kind.measure {
        Measure::Pieces => kind.count_words(amount),
        Measure::Kilograms | Measure::CubicMetres | Measure::Litres => typed(kind, amount, units),
    }
}

/// So much of it, as it is typed.
fn typed(kind: &StoreKind, amount: f64, units: UnitSystem) -> String {
    let (value, said_in) = match (kind.measure, weighs_kg_m3(kind.id)) {
        (Measure::Pieces, _) => (amount, SaidIn::Pieces),
        (Measure::Kilograms, _) => (amount, SaidIn::Kilograms),
        (Measure::Litres, _) => (amount, SaidIn::Litres),
        // What is liquid in its bottle is weighed.
        (Measure::CubicMetres, Some(kg_m3)) => (amount * kg_m3, SaidIn::Kilograms),
        (Measure::CubicMetres, None) => (amount, SaidIn::CubicMetres),
    };
    typed_amount(SaidAmount { value, said_in }, units)
}

fn would_be_right(kind: &StoreKind, gauge: bool) -> &'static str {
    match kind.measure {
        Measure::Pieces => "6, or none",
        Measure::Kilograms => "0.4 kg, or none",
        Measure::Litres => "2 l, or none",
        Measure::CubicMetres if kind.id == "propane" => "0.8 kg, or none",
        Measure::CubicMetres if gauge => "180 to 135 bar, or 1.2 m³",
        Measure::CubicMetres => "1.2 m³, or none",
    }
}

/// "2 rods more"
fn against(kind: &StoreKind, used: f64, planned: f64, units: UnitSystem) -> String {
    let same = amount_words(kind, used, units) == amount_words(kind, planned, units);
    if same || (used - planned).abs() <= AS_PLANNED * planned {
        return "as planned".to_owned();
    }
    let more = if used > planned { "more" } else { "less" };
    format!("{} {more}", exactly(kind, (used - planned).abs(), units))
}

fn words(lines: &[UsedLine]) -> String {
    let said = lines.iter().filter(|line| line.used.is_some()).count();
    if said < lines.len() {
        return format!("{said} of {} said", lines.len());
    }
    let beside: Vec<String> = lines
        .iter()
        .filter(|line| !line.against.is_empty() && line.against != "as planned")
        .map(|line| format!("{}: {}", line.words, line.against))
        .collect();
    if beside.is_empty() { "As it was planned".to_owned() } else { beside.join("; ") }
}

/// What was timed, against the same steps as they are reckoned.
fn hours(round: &Round, taken: &Contender, units: UnitSystem) -> String {
    let took = |it: &crate::job::Timed| it.to_ms.map(|to_ms| (to_ms - it.from_ms) as f64 / 60_000.0);
    let timed: f64 = round.timed.iter().filter_map(took).sum();
    if timed <= 0.0 {
        return String::new();
    }
    let ended = |id: &str| round.timed.iter().any(|it| it.to_ms.is_some() && it.step == id);
    let steps = taken.steps.iter().filter(|step| ended(&step.id));
    let reckoned: f64 = steps.map(|step| step.attended_min).sum();
    let say = |minutes: f64| units.say(minutes, Unit::Minutes);
    format!("Timed {}, reckoned {} for the same steps", say(timed), say(reckoned))
}
