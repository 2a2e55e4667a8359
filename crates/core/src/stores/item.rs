//! One thing in the stores: what it is, how much of it lies there, what it costs.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use crate::field::{FieldOf, FieldState, Text, get, store};
use crate::method::MethodId;
use crate::pins::rows::tap_drill_mm;
use crate::prep::filler::Filler;
use crate::quantity::{SaidAmount, SaidIn, Unit, UnitSystem, parse_amount, parse_price};
use crate::shelf::{KINDS, Measure, Shelf, Signs, StoreKind};

/// A thing in the stores.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StoreItem {
    pub id: Uuid,
    /// As [`KINDS`] calls it.
    pub kind: String,
    /// As it is written on it; empty for nothing.
    pub name: String,
    /// A rod, a pin or a drill, across; nothing while not said.
    pub size_mm: Option<f64>,
    /// What is left, in what its kind is counted in; nothing while nobody has said.
    pub amount: Option<f64>,
    /// What a full cylinder holds, in m³.
    pub holds_m3: Option<f64>,
    /// Of one of what its kind is counted in.
    pub price: Option<f64>,
    pub lot: String,
    /// `YYYY-MM-DD`.
    pub opened: Option<String>,
    pub place: String,
    /// At what a temperature stick melts.
    pub melts_c: Option<f64>,
    /// When it was counted: uses before it are in it. The place in the shop's log, and UTC in ms since 1970; 0
    /// while nobody counted.
    pub counted_revision: u64,
    pub counted_ms: i64,
}

/// Full cylinders at 15 degC, in bar by the gauge; nothing for what is liquid in them: their gauge says nothing of what
/// is left.
///
/// # Source
/// House.
fn full_bar(kind: &str) -> Option<f64> {
    match kind {
        "oxygen" | "argon" => Some(200.0),
        "acetylene" => Some(18.0),
        _ => None,
    }
}

/// House: kg in a m³ of the gas, at 15 degC and 1 bar.
fn gas_kg_m3(kind: &str) -> Option<f64> {
    match kind {
        "acetylene" => Some(1.11),
        "propane" => Some(1.88),
        "oxygen" => Some(1.35),
        "argon" => Some(1.69),
        _ => None,
    }
}

/// Of a gas that is liquid in its bottle and weighed, kg in a m3 as it burns; nothing for one that is read by its gauge.
#[must_use]
pub fn weighs_kg_m3(kind: &str) -> Option<f64> {
    gas_kg_m3(kind).filter(|_| full_bar(kind).is_none())
}

/// So much of a gas as it is sold and weighed, in m³ as it burns: what is liquid in its bottle by weight.
#[must_use]
pub fn gas_words(kind: &str, m3: f64, units: UnitSystem) -> String {
    match weighs_kg_m3(kind) {
        Some(kg_m3) => units.say(m3 * kg_m3, Unit::Kilograms),
        None => units.say(m3, Unit::CubicMetres),
    }
}

/// House: kg in a litre of what is liquid in its bottle, at 15 degC.
fn liquid_kg_l(kind: &str) -> Option<f64> {
    (kind == "propane").then_some(0.51)
}

/// The filler that a kind of rod or wire is; nothing for what is not laid.
#[must_use]
pub fn filler_of(kind: &str) -> Option<Filler> {
    /// House: the wall a filler is asked for where none is said, in mm.
    const USUAL_WALL_MM: f64 = 10.0;
    let method = MethodId::ALL
        .into_iter()
        .find(|method| method.laid_with().any(|kinds| kinds.contains(&kind)))
        .filter(|method| *method != MethodId::ButterBuild)?;
    method.filler(USUAL_WALL_MM, kind == "iron_rod_b")
}

/// Mass in kg of one whole rod.
fn rod_kg(kind: &str, size_mm: Option<f64>) -> Option<f64> {
    let filler = filler_of(kind).filter(|filler| !filler.wire())?;
    let across = size_mm.unwrap_or(filler.rod_diameter_mm);
    let section_mm2 = std::f64::consts::PI / 4.0 * across * across;
    Some(section_mm2 * filler.rod_length_mm * filler.density_kg_m3 * 1e-9)
}

/// What one of what it was said in is, in what the kind is counted in.
fn one_of(
    kind: &StoreKind,
    size_mm: Option<f64>,
    holds_m3: Option<f64>,
    said_in: SaidIn,
) -> Result<f64, &'static str> {
    const HOLDS: &str = "first say what a full one holds";
    let full = || holds_m3.ok_or(HOLDS);
    match (kind.measure, said_in) {
        (_, SaidIn::Bare)
        | (Measure::Pieces, SaidIn::Pieces)
        | (Measure::Kilograms, SaidIn::Kilograms)
        | (Measure::CubicMetres, SaidIn::CubicMetres)
        | (Measure::Litres, SaidIn::Litres) => Ok(1.0),
        (Measure::Pieces, SaidIn::Kilograms) => {
            rod_kg(kind.id, size_mm).map(|kg| 1.0 / kg).ok_or("it is counted, not weighed")
        }
        (Measure::CubicMetres, SaidIn::Full) => full(),
        (Measure::CubicMetres, SaidIn::Bar) => {
            let bar =
                full_bar(kind.id).ok_or("it is liquid in there and the gauge says nothing: weigh it")?;
            Ok(full()? / bar)
        }
        (Measure::CubicMetres, SaidIn::Kilograms) => {
            gas_kg_m3(kind.id).map(|kg| 1.0 / kg).ok_or("it is measured, not weighed")
        }
        (Measure::CubicMetres, SaidIn::Litres) => {
            let weighed = liquid_kg_l(kind.id).zip(gas_kg_m3(kind.id));
            weighed.map(|(kg_l, kg_m3)| kg_l / kg_m3).ok_or("say it in bar, kg, m³ or full ones")
        }
        (Measure::Pieces, _) => Err("it is counted"),
        (Measure::Kilograms, _) => Err("it is weighed"),
        (Measure::Litres, _) => Err("say how many litres"),
        (Measure::CubicMetres, _) => Err("say it in bar, kg, m³ or full ones"),
    }
}

pub(super) fn amount_in(
    kind: &StoreKind,
    size_mm: Option<f64>,
    holds_m3: Option<f64>,
    said: SaidAmount,
) -> Result<f64, &'static str> {
    one_of(kind, size_mm, holds_m3, said.said_in).map(|one| said.value * one)
}

/// Why an amount or a price of this thing cannot be what was typed; nothing where it can.
///
/// # Errors
/// The reason, in a few words.
pub fn fits(
    values: &BTreeMap<String, FieldState>,
    id: Uuid,
    field: &str,
    typed: &str,
) -> Result<(), &'static str> {
    let Some(kind) = get(values, store::WHAT.of(id)).and_then(StoreKind::from_id).or_else(|| of_a_list(id))
    else {
        return Ok(());
    };
    let said = match field {
        "amount" => parse_amount(typed).ok(),
        "price" => parse_price(typed).ok(),
        _ => None,
    };
    let (size, holds) = (get(values, store::SIZE.of(id)), get(values, store::HOLDS.of(id)));
    said.map_or(Ok(()), |said| amount_in(kind, size, holds, said).map(|_| ()))
}

/// The id of the thing that an old list of what is at hand named: its kind's own, so that nothing is asked twice.
#[must_use]
pub fn id_of_a_list(kind: &str) -> Uuid {
    let mut bytes = [0; 16];
    for (to, from) in bytes.iter_mut().zip(kind.bytes()) {
        *to = from;
    }
    Uuid::from_bytes(bytes)
}

fn of_a_list(id: Uuid) -> Option<&'static StoreKind> {
    KINDS.iter().find(|kind| id_of_a_list(kind.id) == id)
}

/// The things that lie there: those that were put there, and those that the lists of before named.
pub(crate) fn items(values: &BTreeMap<String, FieldState>, listed: &[String]) -> Vec<StoreItem> {
    let mut ids: Vec<Uuid> = values
        .keys()
        .filter_map(|key| key.strip_prefix("store.")?.strip_suffix(".what")?.parse().ok())
        .collect();
    for kind in listed.iter().filter_map(|id| StoreKind::from_id(id)) {
        let id = id_of_a_list(kind.id);
        if !ids.contains(&id) {
            ids.push(id);
        }
    }
    ids.into_iter().filter_map(|id| item(values, id)).collect()
}

fn item(values: &BTreeMap<String, FieldState>, id: Uuid) -> Option<StoreItem> {
    // One that was taken away again is gone, whatever an old list says.
    let kind = match values.get(&store::WHAT.of(id).key()) {
        Some(_) => get(values, store::WHAT.of(id)).and_then(StoreKind::from_id)?,
        None => of_a_list(id)?,
    };
    let words = |field: FieldOf<Text>| get(values, field).unwrap_or_default().to_owned();
    let (size_mm, holds_m3) = (get(values, store::SIZE.of(id)), get(values, store::HOLDS.of(id)));
    let counted = values.get(&store::AMOUNT.of(id).key());
    Some(StoreItem {
        id,
        kind: kind.id.to_owned(),
        name: words(store::NAME.of(id)),
        size_mm,
        amount: get(values, store::AMOUNT.of(id))
            .and_then(|typed| parse_amount(typed).ok())
            .and_then(|said| amount_in(kind, size_mm, holds_m3, said).ok()),
        holds_m3,
        price: get(values, store::PRICE.of(id))
            .and_then(|typed| parse_price(typed).ok())
            .and_then(|said| Some(said.value / one_of(kind, size_mm, holds_m3, said.said_in).ok()?)),
        lot: words(store::LOT.of(id)),
        opened: get(values, store::OPENED.of(id)).map(str::to_owned),
        place: words(store::PLACE.of(id)),
        melts_c: get(values, store::MELTS.of(id)),
        counted_revision: counted.map_or(0, |held| held.revision),
        counted_ms: 0,
    })
}

/// What was seen of a bundle without a name.
pub(crate) fn signs(values: &BTreeMap<String, FieldState>, id: Uuid) -> Signs<'_> {
    Signs {
        look: get(values, store::LOOK.of(id)),
        magnet: get(values, store::MAGNET.of(id)),
        filed: get(values, store::FILED.of(id)),
        spark: get(values, store::SPARK.of(id)),
        bead: get(values, store::BEAD.of(id)),
    }
}

impl StoreItem {
    /// What kind of thing it is.
    ///
    /// # Panics
    /// Never: only kinds that are known make one.
    #[must_use]
    pub fn kind(&self) -> &'static StoreKind {
        StoreKind::from_id(&self.kind).expect("a thing is of a known kind")
    }

    /// Something of it is there, as far as anybody has said.
    #[must_use]
    pub fn there(&self) -> bool {
        self.amount.is_none_or(|amount| amount > 0.0)
    }

    /// It will do where this kind in this size is asked for; a size that nobody has said will do for any.
    #[must_use]
    pub fn serves(&self, kind: &str, size_mm: Option<f64>) -> bool {
        /// House: sizes in inches and in mm that stand for the same rod.
        const SAME_MM: f64 = 0.3;
        self.kind == kind
            && match (self.size_mm, size_mm) {
                (Some(own), Some(asked)) => (own - asked).abs() <= SAME_MM,
                _ => true,
            }
    }

    /// "12 rods", "2.5 kg", "3.4 m³"; empty while nobody has said.
    #[must_use]
    pub fn amount_words(&self, units: UnitSystem) -> String {
        self.amount.map_or(String::new(), |amount| amount_words(self.kind(), amount, units))
    }

    /// "Nickel-iron stick, 4 mm".
    #[must_use]
    pub fn words(&self, units: UnitSystem) -> String {
        named(self.kind(), self.size_mm, units)
    }
}

pub(crate) fn named(kind: &StoreKind, size_mm: Option<f64>, units: UnitSystem) -> String {
    match size_mm {
        Some(mm) => {
            // Threads and drills go by their marks.
            let unit = match kind.id {
                "pins" | "taps" if tap_drill_mm(mm).is_some() => Unit::Thread,
                "drill" => Unit::Drill,
                _ => Unit::Millimetres,
            };
            format!("{}, {}", kind.label, units.say(mm, unit))
        }
        None => kind.label.to_owned(),
    }
}

/// "6 rods", "0.4 kg", "1.2 m³", "60 l".
#[must_use]
pub fn amount_words(kind: &StoreKind, amount: f64, units: UnitSystem) -> String {
    match kind.measure {
        Measure::Pieces => kind.count_words(amount),
        Measure::Kilograms if amount < 1.0 => units.say(amount * 1000.0, Unit::Grams),
        Measure::Kilograms => units.say(amount, Unit::Kilograms),
        Measure::CubicMetres => gas_words(kind.id, amount, units),
        Measure::Litres => units.say(amount, Unit::Litres),
    }
}

/// Ids of the kinds that lie on a shelf, each once.
pub(crate) fn kinds_there(items: &[StoreItem], shelves: &[Shelf]) -> Vec<String> {
    let mut kinds: Vec<String> = Vec::new();
    for item in items.iter().filter(|item| shelves.contains(&item.kind().shelf) && item.there()) {
        if !kinds.contains(&item.kind) {
            kinds.push(item.kind.clone());
        }
    }
    kinds
}
