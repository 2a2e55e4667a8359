//! What was asked for repairs against the hours of hands they took.

use serde::Serialize;
use uuid::Uuid;

use crate::method::OwnRepair;
use crate::quantity::{Unit, UnitSystem};

/// Prices against hours.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Prices {
    /// "38.20 an hour on average, 22.00 to 61.50, by 6 repairs"
    pub words: String,
    /// What all of them brought for all their hours.
    pub an_hour: f64,
    pub most_hours: f64,
    pub most_price: f64,
    pub marks: Vec<PriceMark>,
}

/// One repair.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PriceMark {
    pub case: Uuid,
    pub job: Uuid,
    pub name: String,
    pub hours: f64,
    pub price: f64,
    pub words: String,
}

/// Ours: more dots lie on one another.
const MARKS_MOST: usize = 120;

/// In the currency that was asked in most often; nothing while no price was given.
pub(super) fn prices(repairs: &[&OwnRepair], units: UnitSystem) -> Option<Prices> {
    let priced = |it: &&OwnRepair| {
        let how = it.how.as_ref()?;
        let (price, hours) = (how.price?, how.hands_hours.filter(|hours| *hours > 0.0)?);
        Some((how.currency.clone(), it.lit, it.job, it.name.clone(), hours, price))
    };
    let all: Vec<_> = repairs.iter().filter_map(priced).collect();
    let asked_in = |currency: &str| all.iter().filter(|(of, ..)| of == currency).count();
    let currency = all.iter().map(|(of, ..)| of.clone()).max_by_key(|of| asked_in(of))?;
    let money = |amount: f64| format!("{currency}{amount:.2}");
    let of_it: Vec<PriceMark> = all
        .into_iter()
        .filter(|(of, ..)| *of == currency)
        .map(|(_, case, job, name, hours, price)| PriceMark {
            words: format!(
                "{} for {} of hands: {} an hour",
                money(price),
                units.say(hours * 60.0, Unit::Minutes),
                money(price / hours)
            ),
            case,
            job,
            name,
            hours,
            price,
        })
        .collect();
    let (hours, price) = of_it.iter().fold((0.0, 0.0), |(h, p), it| (h + it.hours, p + it.price));
    let rates = || of_it.iter().map(|it| it.price / it.hours);
    let (least, most) = (rates().fold(f64::INFINITY, f64::min), rates().fold(0.0, f64::max));
    let n = of_it.len();
    let by = if n == 1 { "1 repair".to_owned() } else { format!("{n} repairs") };
    let words = if n == 1 {
        format!("{} an hour of hands, by {by}", money(price / hours))
    } else {
        format!(
            "{} an hour of hands on average, {} to {}, by {by}",
            money(price / hours),
            money(least),
            money(most)
        )
    };
    let each = n.div_ceil(MARKS_MOST).max(1);
    Some(Prices {
        words,
        an_hour: price / hours,
        most_hours: of_it.iter().map(|it| it.hours).fold(0.0, f64::max),
        most_price: of_it.iter().map(|it| it.price).fold(0.0, f64::max),
        marks: of_it.into_iter().step_by(each).collect(),
    })
}
