//! What was understood of a change when it was said.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use super::{Change, TorchEntry};
use crate::base::day::Day;
use crate::base::problem::{FieldProblem, OutOfRange};
use crate::field::{FieldValue, ParseContext, job_field, parse_value};
use crate::iron::{MeasuredTest, TypedValues};
use crate::map::FACE_MOST_MM;
use crate::quantity::{Kind, NotUnderstood, UnitSystem, parse};
use crate::stores::used_amount;

/// What was understood of something typed: kept beside it, so that a bound or a word that changes later
/// does not rewrite what was said.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", content = "value", rename_all = "snake_case")]
pub enum Parsed {
    /// The field's value; nothing for one that was emptied.
    Field(Option<FieldValue>),
    /// The outcome of a measured test.
    Outcome(String),
    /// A temperature, in degC.
    Celsius(f64),
    /// Lengths on the map in mm, by what they are; nothing for one that was emptied.
    Lengths(BTreeMap<String, Option<f64>>),
    /// So much of a thing, in what its kind is counted in; nothing for one that was emptied.
    Amount(Option<f64>),
}

impl Parsed {
    /// What is understood of a change by the rules as they are, said on this day; nothing where there is
    /// nothing to understand in it, or nothing can be.
    #[must_use]
    pub fn of(change: &Change, today: Option<Day>) -> Option<Self> {
        match change {
            Change::Set { key, typed, shown_in } => {
                let saying = ParseContext { shown_in: *shown_in, today };
                parse_value(key, job_field(key)?, typed, saying).ok().map(Self::Field)
            }
            Change::Measure { test, typed, shown_in, .. } => {
                let measured = MeasuredTest::from_id(test)?.measure(typed, *shown_in).ok()?;
                Some(Self::Outcome(measured.outcome))
            }
            Change::Torch { entry: TorchEntry::Reading { typed, shown_in, gun, .. } } => {
                let shown = parse(typed, Kind::Temperature, *shown_in).ok()?.value;
                gun.as_ref().map_or(Some(shown), |gun| gun.true_c(shown)).map(Self::Celsius)
            }
            Change::Torch { entry: TorchEntry::Stick { typed, shown_in, .. } } => {
                parse(typed, Kind::Temperature, *shown_in).ok().map(|read| Self::Celsius(read.value))
            }
            Change::Torch { entry: TorchEntry::Aligned { typed, shown_in } } => {
                let off = BTreeMap::from([("off".to_owned(), typed.clone())]);
                lengths(&off, *shown_in).ok().map(Self::Lengths)
            }
            Change::Straighten { typed, shown_in, .. }
            | Change::SetPoint { typed, shown_in, .. }
            | Change::Look { typed, shown_in, .. }
            | Change::MeasureSeam { typed, shown_in, .. } => {
                lengths(typed, *shown_in).ok().map(Self::Lengths)
            }
            Change::Use { what, size_mm, typed, holds_m3 } => {
                used_amount((what, *size_mm), *holds_m3, typed).ok().map(Self::Amount)
            }
            Change::Torch { .. }
            | Change::Observe { .. }
            | Change::AddHardSpot { .. }
            | Change::AddNeighbour
            | Change::AddPicture { .. }
            | Change::AddCrack
            | Change::AddFace
            | Change::AddMark { .. }
            | Change::Draw { .. }
            | Change::PutFlame { .. }
            | Change::Tick { .. }
            | Change::FinishStep { .. }
            | Change::FollowUp { .. }
            | Change::Unreadable { .. }
            | Change::Strike { .. }
            | Change::Undo { .. }
            | Change::Redo { .. }
            | Change::Light { .. }
            | Change::Estimate { .. }
            | Change::Time { .. }
            | Change::CancelLight
            | Change::PutOut
            | Change::NewRound { .. }
            | Change::PutAway
            | Change::BringBack
            | Change::Practise { .. }
            | Change::Pass { .. }
            | Change::EndPractice => None,
        }
    }
}

/// How many of something lie close together.
fn counted(text: &str) -> Result<u32, FieldProblem> {
    let none = || FieldProblem::new("count", format!("\"{text}\" is no number of pores"), "2");
    let count: u32 = text.trim().parse().map_err(|_| none())?;
    OutOfRange::check("how many", "", (1.0, 99.0), f64::from(count)).map_err(|out| out.at("count"))?;
    Ok(count)
}

/// Lengths typed on the map, in mm; how many of something as they are counted.
///
/// # Errors
/// The problem, at the name of what was typed.
pub(super) fn lengths(
    typed: &TypedValues,
    shown_in: UnitSystem,
) -> Result<BTreeMap<String, Option<f64>>, FieldProblem> {
    let read = |(name, text): (&String, &String)| {
        if text.trim().is_empty() {
            return Ok((name.clone(), None));
        }
        if name == "count" {
            return counted(text).map(|count| (name.clone(), Some(f64::from(count))));
        }
        let right = NotUnderstood::would_be_right(Kind::Length);
        let read = parse(text, Kind::Length, shown_in)
            .map_err(|error| FieldProblem::new(name, error.to_string(), right))?;
        // What has a size has at least a little of it; a place may lie a little off the face.
        // A reading may well be none.
        let least = match name.as_str() {
            "x" | "y" => -FACE_MOST_MM,
            "at" | "depth" | "gap" | "step" | "rock" | "run_out" | "moved" | "off" | "size" => 0.0,
            _ => 0.1,
        };
        OutOfRange::check("a length", "mm", (least, FACE_MOST_MM), read.value)
            .map_err(|out| out.at(name))
            .map(|mm| (name.clone(), Some(mm)))
    };
    typed.iter().map(read).collect()
}
