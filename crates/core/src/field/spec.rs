//! A field: its name, its kind, its bounds, its choices, and what it holds in its type.

use std::borrow::Cow;
use std::marker::PhantomData;

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::holds::{Chosen, Many, Number, One, OneOf, Several, Text, YesNo};
use crate::quantity::Kind;

/// `(id, label)`: the label is a template, said in the units of the shop.
pub type Choice = (&'static str, &'static str);

/// What a field holds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum FieldKind {
    Text {
        most: usize,
    },
    /// A quantity within bounds, both in the unit the core works in.
    Quantity {
        kind: Kind,
        low: f64,
        high: f64,
        unit: &'static str,
    },
    One(&'static [Choice]),
    /// Any number of choices, their ids separated by commas.
    Many(&'static [Choice]),
    YesNo,
    /// A calendar day, held as `YYYY-MM-DD`.
    Date,
}

/// How far what stands in a field goes along.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Lasts {
    /// Into the next round, and into a copy of the job for another piece.
    Copies,
    /// Into the next round: it is of this one piece.
    Job,
    /// It has to be done anew in each round.
    Round,
}

/// One field, as forms and parser see it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FieldSpec {
    pub key: &'static str,
    pub label: &'static str,
    pub kind: FieldKind,
    /// What might stand in it, as a template; empty for nothing.
    pub example: &'static str,
    pub lasts: Lasts,
}

/// What a field holds once typed and understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", content = "value", rename_all = "snake_case")]
pub enum FieldValue {
    Text(String),
    Number(f64),
    One(String),
    Many(Vec<String>),
    YesNo(bool),
}

/// A field as it was last typed.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FieldState {
    pub typed: String,
    pub value: Option<FieldValue>,
    /// The revision that set it.
    pub revision: u64,
    /// Why it is not understood any more; empty where it is.
    #[serde(default)]
    pub not_understood: String,
}

/// What a key leads to, as a `T`.
pub trait Keyed<T> {
    fn as_key(&self) -> Cow<'_, str>;
}

/// A field of a job or of the shop that holds a `T`.
#[derive(Debug)]
pub struct Field<T> {
    pub spec: FieldSpec,
    holds: PhantomData<fn() -> T>,
}

impl<T> Field<T> {
    const fn new(key: &'static str, label: &'static str, kind: FieldKind) -> Self {
        Self { spec: FieldSpec { key, label, kind, example: "", lasts: Lasts::Copies }, holds: PhantomData }
    }

    /// With what might stand in it.
    pub(super) const fn like(self, example: &'static str) -> Self {
        Self { spec: FieldSpec { example, ..self.spec }, holds: PhantomData }
    }

    /// Of this one piece.
    pub(super) const fn of_the_piece(self) -> Self {
        Self { spec: FieldSpec { lasts: Lasts::Job, ..self.spec }, holds: PhantomData }
    }

    /// Of this one round.
    pub(super) const fn of_the_round(self) -> Self {
        Self { spec: FieldSpec { lasts: Lasts::Round, ..self.spec }, holds: PhantomData }
    }

    #[must_use]
    pub const fn key(&self) -> &'static str {
        self.spec.key
    }
}

impl<T> Keyed<T> for Field<T> {
    fn as_key(&self) -> Cow<'_, str> {
        Cow::Borrowed(self.spec.key)
    }
}

/// A field that each of several things has: of every crack, every neighbour, every picture.
#[derive(Debug)]
pub struct FieldOfEach<T> {
    room: &'static str,
    pub field: Field<T>,
}

impl<T> FieldOfEach<T> {
    pub(super) const fn new(room: &'static str, field: Field<T>) -> Self {
        Self { room, field }
    }

    /// That of one of them.
    #[must_use]
    pub fn of(&self, id: Uuid) -> FieldOf<T> {
        FieldOf { key: key_of_one(self.room, id, self.field.spec.key), holds: PhantomData }
    }
}

/// The field of one thing of several that holds a `T`.
#[derive(Debug)]
pub struct FieldOf<T> {
    key: String,
    holds: PhantomData<fn() -> T>,
}

impl<T> FieldOf<T> {
    #[must_use]
    pub fn key(self) -> String {
        self.key
    }
}

impl<T> Keyed<T> for FieldOf<T> {
    fn as_key(&self) -> Cow<'_, str> {
        Cow::Borrowed(&self.key)
    }
}

pub(super) fn key_of_one(room: &str, id: Uuid, field: &str) -> String {
    // Asked for thousands of times in a plan of many cracks: put together without a formatter.
    let mut id_text = Uuid::encode_buffer();
    [room, id.hyphenated().encode_lower(&mut id_text), field].join(".")
}

pub(super) const fn text(key: &'static str, label: &'static str, most: usize) -> Field<Text> {
    Field::new(key, label, FieldKind::Text { most })
}
pub(super) const fn date(key: &'static str, label: &'static str) -> Field<Text> {
    Field::new(key, label, FieldKind::Date)
}
pub(super) const fn one<T: Chosen>(key: &'static str, label: &'static str) -> Field<One<T>> {
    Field::new(key, label, FieldKind::One(T::CHOICES))
}
pub(super) const fn one_of(
    key: &'static str,
    label: &'static str,
    choices: &'static [Choice],
) -> Field<OneOf> {
    Field::new(key, label, FieldKind::One(choices))
}
pub(super) const fn several<T: Chosen>(key: &'static str, label: &'static str) -> Field<Several<T>> {
    Field::new(key, label, FieldKind::Many(T::CHOICES))
}

pub(super) const fn many(key: &'static str, label: &'static str, choices: &'static [Choice]) -> Field<Many> {
    Field::new(key, label, FieldKind::Many(choices))
}
pub(super) const fn yes_no(key: &'static str, label: &'static str) -> Field<YesNo> {
    Field::new(key, label, FieldKind::YesNo)
}
pub(super) const fn quantity(
    key: &'static str,
    label: &'static str,
    kind: Kind,
    (low, high): (f64, f64),
    unit: &'static str,
) -> Field<Number> {
    Field::new(key, label, FieldKind::Quantity { kind, low, high, unit })
}
pub(super) const fn length(key: &'static str, label: &'static str, low: f64, high: f64) -> Field<Number> {
    quantity(key, label, Kind::Length, (low, high), "mm")
}
