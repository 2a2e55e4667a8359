//! The tables of the ledger: figures in SI, nobody's name.

use std::collections::BTreeMap;

use uuid::Uuid;
use vanadin_core::ledger::Wall;
use vanadin_core::method::{MethodId, OwnRepair, PlaceKind, School};
use vanadin_core::shop::{ShopFact, coupons as broken_here, faults as faults_here, left_out, moves, uses};

use crate::api_error::ApiError;

/// Rows under their heads.
pub(super) struct Table {
    head: Vec<&'static str>,
    rows: Vec<Vec<String>>,
}

impl Table {
    pub fn written(&self) -> Result<String, ApiError> {
        let broken = |error: csv::Error| ApiError::Broken(error.into());
        let mut table = csv::Writer::from_writer(Vec::new());
        table.write_record(&self.head).map_err(broken)?;
        for row in &self.rows {
            table.write_record(row).map_err(broken)?;
        }
        let bytes = table.into_inner().map_err(|error| ApiError::Broken(anyhow::anyhow!("{error}")))?;
        String::from_utf8(bytes).map_err(|error| ApiError::Broken(error.into()))
    }
}

fn counts(out: &BTreeMap<Uuid, String>, case: Uuid) -> String {
    if out.contains_key(&case) { "no" } else { "yes" }.to_owned()
}

fn or_empty(value: Option<f64>) -> String {
    value.map_or_else(String::new, |value| value.to_string())
}

pub(super) fn repairs(all: Vec<OwnRepair>, facts: &[ShopFact]) -> Table {
    let out = left_out(facts);
    let row = |it: OwnRepair| {
        let how = it.how.map_or_else(Default::default, |how| *how);
        let amps = |of: fn((f64, f64)) -> f64| or_empty(how.amps.map(of));
        vec![
            it.method.id().to_owned(),
            it.variant,
            it.iron.id().to_owned(),
            format!("{:.1}", it.days),
            it.became,
            or_empty(it.given),
            or_empty(it.handed),
            it.shift.to_string(),
            how.burdens.unwrap_or_default().join(" "),
            how.school.map_or("", School::word).to_owned(),
            how.place.map_or("", PlaceKind::id).to_owned(),
            or_empty(how.wall_mm),
            or_empty(how.preheat_c),
            how.rod,
            or_empty(how.rod_mm),
            amps(|(low, _)| low),
            amps(|(_, high)| high),
            or_empty(how.price),
            how.currency,
            or_empty(how.hands_hours),
            counts(&out, it.lit),
        ]
    };
    Table {
        head: vec![
            "method",
            "variant",
            "iron",
            "days",
            "became",
            "given",
            "given_handed_over",
            "burdened",
            "burdens",
            "school",
            "place",
            "wall_mm",
            "preheat_c",
            "rod",
            "rod_mm",
            "least_a",
            "most_a",
            "asked",
            "currency",
            "hands_h",
            "counts",
        ],
        rows: all.into_iter().map(row).collect(),
    }
}

pub(super) fn learned(wall: &Wall) -> Table {
    let rows = wall.learned.iter().flat_map(|line| {
        let figures = |value: f64| [line.book, line.here, value].map(|it| it.to_string());
        line.cases.iter().map(move |case| {
            std::iter::once(line.name.clone()).chain(figures(case.value)).collect::<Vec<String>>()
        })
    });
    Table { head: vec!["what", "book", "here", "case"], rows: rows.collect() }
}

pub(super) fn faults(facts: &[ShopFact]) -> Table {
    let out = left_out(facts);
    let rows = faults_here(facts).into_iter().filter(|it| !it.taken_back).map(|it| {
        vec![
            it.seen.words().to_owned(),
            it.seen.cause(&it.cause).map_or(String::new(), |cause| cause.words.to_owned()),
            it.way.label(),
            counts(&out, it.entry),
        ]
    });
    Table { head: vec!["seen", "cause", "way", "counts"], rows: rows.collect() }
}

pub(super) fn moved(facts: &[ShopFact]) -> Table {
    let out = left_out(facts);
    let rows = moves(facts).into_iter().filter_map(|it| {
        let moved_mm = it.moved_mm?;
        Some(vec![it.what, it.way.label(), format!("{moved_mm:.3}"), counts(&out, it.size)])
    });
    Table { head: vec!["size", "way", "moved_mm", "counts"], rows: rows.collect() }
}

/// In what each kind is counted in: pieces, kg, m3 of gas or litres.
pub(super) fn used(facts: &[ShopFact]) -> Table {
    let out = left_out(facts);
    let rows = uses(facts).into_iter().filter_map(|it| {
        let (planned, used) = (format!("{:.3}", it.planned), format!("{:.3}", it.used?));
        Some(vec![it.what, or_empty(it.size_mm), planned, used, counts(&out, it.lit)])
    });
    Table { head: vec!["what", "size_mm", "planned", "used", "counts"], rows: rows.collect() }
}

pub(super) fn coupons(facts: &[ShopFact]) -> Table {
    let out = left_out(facts);
    let rows = broken_here(facts).into_iter().map(|it| {
        vec![
            it.iron.id().to_owned(),
            it.joined.map_or("whole", MethodId::id).to_owned(),
            it.school.map_or("", School::word).to_owned(),
            it.stood_mpa().map_or(String::new(), |mpa| format!("{mpa:.1}")),
            it.broke.words().to_owned(),
            or_empty(it.read.and_then(|read| read.stood_kg)),
            or_empty(it.read.map(|read| read.load_kg)),
            or_empty(it.read.and_then(|read| read.guess_kg)),
            counts(&out, it.coupon),
        ]
    });
    Table {
        head: vec![
            "iron",
            "joined",
            "school",
            "stood_mpa",
            "broke",
            "stood_kg",
            "load_kg",
            "guess_kg",
            "counts",
        ],
        rows: rows.collect(),
    }
}

pub(super) fn honest(wall: &Wall) -> Table {
    let rows = wall.honest.iter().flat_map(|honest| &honest.tenths).map(|tenth| {
        let figures = [tenth.mean_p, tenth.share, tenth.low, tenth.high].map(|it| it.to_string());
        std::iter::once(tenth.n.to_string()).chain(figures).collect()
    });
    Table { head: vec!["n", "mean_given", "share_held", "low", "high"], rows: rows.collect() }
}
