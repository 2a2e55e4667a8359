//! A job as the browser gets it: everything worked out, nothing left to compute.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::figure::Moved;
use vanadin_core::job::{
    CRACK_FIELDS, FieldKind, FieldSpec, FieldValue, Held, JOB_FIELDS, Job, NEIGHBOUR_FIELDS, PICTURE_FIELDS,
    Reading, crack_key, neighbour_key, picture_key,
};
use vanadin_core::plan::{Available, Plan, Standing};
use vanadin_core::quantity::{Kind, Shown, Unit, UnitSystem, both};
use vanadin_core::said::said;

/// One choice of a field.
#[derive(Debug, Serialize, ToSchema)]
pub struct ChoiceView {
    pub id: &'static str,
    pub label: String,
}

/// What a field asks for.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AsksFor {
    Text,
    /// Words in several lines.
    Prose,
    Length,
    Mass,
    Temperature,
    Duration,
    Days,
    Pressure,
    Number,
    One,
    Many,
    YesNo,
    Date,
}

/// A field with what was typed and how it was understood.
#[derive(Debug, Serialize, ToSchema)]
pub struct FieldView {
    pub key: String,
    pub label: &'static str,
    pub asks_for: AsksFor,
    /// The unit a bare number is taken in: metric, imperial.
    pub unit_metric: &'static str,
    pub unit_imperial: &'static str,
    pub choices: Vec<ChoiceView>,
    /// What might stand in it, in the units of the shop; empty for nothing.
    pub example: String,
    pub typed: String,
    /// How it was understood; nothing for words and choices.
    pub metric: Option<Shown>,
    pub imperial: Option<Shown>,
    /// Why what was typed is not understood any more; empty where it is.
    pub not_understood: String,
    /// Base a change on this.
    pub revision: u64,
}

/// Everything about a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobView {
    pub id: Uuid,
    pub name: String,
    pub revision: u64,
    /// The data folder it lies in.
    pub folder: Uuid,
    pub job: Job,
    pub plan: Plan,
    pub standing: Standing,
    /// By key.
    pub fields: BTreeMap<String, FieldView>,
    /// The time until it is wanted; nothing while no day is said.
    pub available: Option<Available>,
    /// The picture that stands for it on the rack.
    pub face: Option<Uuid>,
    /// Largest picture that is taken, in MB.
    pub picture_mb: u64,
    /// What the last change moved.
    pub moved: Vec<Moved>,
    /// The server's clock, UTC in ms since 1970.
    pub now_ms: i64,
}

/// Words up to this many letters are asked for in one line.
const ONE_LINE: usize = 200;

/// Points of a record that are drawn; the record itself keeps them all.
const DRAWN: usize = 400;

impl JobView {
    pub fn new(
        mut job: Job,
        plan: Plan,
        standing: Standing,
        available: Option<Available>,
        moved: Vec<Moved>,
        (now_ms, folder): (i64, Uuid),
    ) -> Self {
        let fields = fields_of(&job, plan.units);
        let face = job.face();
        for round in &mut job.rounds {
            round.readings = thinned(&round.readings, DRAWN);
            for heat in &mut round.cancelled {
                heat.readings = thinned(&heat.readings, DRAWN);
            }
        }
        Self {
            id: job.id,
            name: job.name().to_owned(),
            revision: job.revision,
            folder,
            job,
            plan,
            standing,
            fields,
            available,
            face,
            picture_mb: crate::picture::MOST_MIB,
            moved,
            now_ms,
        }
    }
}

/// At most `most` readings and the last one, evenly picked.
pub fn thinned(readings: &[Reading], most: usize) -> Vec<Reading> {
    let every = readings.len().div_ceil(most).max(1);
    let mut kept: Vec<Reading> = readings.iter().copied().step_by(every).collect();
    if let (Some(last), Some(kept_last)) = (readings.last(), kept.last())
        && last != kept_last
    {
        kept.push(*last);
    }
    kept
}

fn fields_of(job: &Job, units: UnitSystem) -> BTreeMap<String, FieldView> {
    let values = &job.round().values;
    let plain = JOB_FIELDS.iter().map(|spec| (spec.key.to_owned(), spec));
    let of_cracks = job
        .round()
        .cracks
        .iter()
        .flat_map(|crack| CRACK_FIELDS.iter().map(|spec| (crack_key(crack.id, spec.key), spec)));
    let of_neighbours = job.round().neighbours.iter().flat_map(|neighbour| {
        NEIGHBOUR_FIELDS.iter().map(|spec| (neighbour_key(neighbour.id, spec.key), spec))
    });
    let of_pictures = job
        .pictures
        .iter()
        .flat_map(|picture| PICTURE_FIELDS.iter().map(|spec| (picture_key(picture.id, spec.key), spec)));
    plain
        .chain(of_cracks)
        .chain(of_neighbours)
        .chain(of_pictures)
        .map(|(key, spec)| {
            let view = field_view(key.clone(), spec, values.get(&key), units);
            (key, view)
        })
        .collect()
}

pub fn field_view(key: String, spec: &FieldSpec, held: Option<&Held>, shop_units: UnitSystem) -> FieldView {
    let (asks_for, unit, choices, units) = match spec.kind {
        FieldKind::Text { most } if most > ONE_LINE => (AsksFor::Prose, None, &[][..], ("", "")),
        FieldKind::Text { .. } => (AsksFor::Text, None, &[][..], ("", "")),
        FieldKind::Quantity { kind, unit, .. } => match kind {
            Kind::Length => (AsksFor::Length, Some(Unit::Millimetres), &[][..], ("mm", "in")),
            Kind::Mass => (AsksFor::Mass, Some(Unit::Kilograms), &[][..], ("kg", "lb")),
            Kind::Temperature => (AsksFor::Temperature, Some(Unit::Celsius), &[][..], ("°C", "°F")),
            Kind::Duration => (AsksFor::Duration, Some(Unit::Minutes), &[][..], ("min", "min")),
            Kind::Days => (AsksFor::Days, Some(Unit::Days), &[][..], ("days", "days")),
            Kind::GaugePressure => (AsksFor::Pressure, Some(Unit::Bar), &[][..], ("bar", "psi")),
            Kind::SoundSpeed => (AsksFor::Number, Some(Unit::MetresPerSecond), &[][..], ("m/s", "m/s")),
            Kind::Plain => (AsksFor::Number, None, &[][..], (unit, unit)),
        },
        FieldKind::One(choices) => (AsksFor::One, None, choices, ("", "")),
        FieldKind::Many(choices) => (AsksFor::Many, None, choices, ("", "")),
        FieldKind::YesNo => (AsksFor::YesNo, None, &[("yes", "Yes"), ("no", "No")][..], ("", "")),
        FieldKind::Date => (AsksFor::Date, None, &[][..], ("", "")),
    };
    let shown = match (unit, held.and_then(|held| held.value.as_ref())) {
        (Some(unit), Some(FieldValue::Number(value))) => Some(both(*value, unit)),
        _ => None,
    };
    let (metric, imperial) = shown.unzip();
    FieldView {
        key,
        label: spec.label,
        asks_for,
        unit_metric: units.0,
        unit_imperial: units.1,
        choices: choices
            .iter()
            .map(|&(id, label)| ChoiceView { id, label: said(label, shop_units) })
            .collect(),
        example: said(spec.example, shop_units),
        typed: held.map_or(String::new(), |held| held.typed.clone()),
        metric,
        imperial,
        not_understood: held.map_or(String::new(), |held| held.not_understood.clone()),
        revision: held.map_or(0, |held| held.revision),
    }
}
