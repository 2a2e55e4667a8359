//! What fields hold, as types: a field can only be read as what it is.

use std::collections::BTreeMap;
use std::marker::PhantomData;

use super::{Choice, FieldState, FieldValue, Keyed};
use crate::body::{Shock, Towards};
use crate::casting::old_filler::OldFiller;
use crate::casting::said::{
    Authority, BrokeBy, Cavity, Coating, Contents, Hazard, Lifetime, Load, Machined, MendedAt, Oil, Reached,
    SafetyClass, SeenAs, Shows, TestMarks,
};
use crate::casting::shape::PartShape;
use crate::crack::said::{Behind, CrackFate, Edges, EndKind, PieceState, SeamReach, TipWay, WitnessSide};
use crate::crack::stop_hole::FoundBy;
use crate::faults::acceptance::Checked;
use crate::finish::{CoatedWith, FinishAs};
use crate::heat::{DyingFire, HeatSource, Packing, PadOn, ReadOff};
use crate::iron::{Era, Family};
use crate::map::OutlineKind;
use crate::method::became::Became;
use crate::method::customs::{
    After, BeadLength, Blend, BrazePreheat, Dirt, Fixture, GasHeat, GrooveDepth, NickelPreheat, NickelUnder,
    OldWeld, Peening, PinDensity, Polarity, Pores, Sides, StopHoleAt,
};
use crate::method::{MethodId, School};
use crate::prep::said::{AlignBy, ClosedBy, PatchSkin, PinKind, PrepDone, SeamForm, SizeKind, TakenOffBy};

/// What a field may hold.
pub trait Holds {
    type Got<'a>;
    fn got(value: &FieldValue) -> Option<Self::Got<'_>>;
}

/// Words; a calendar day among them.
#[derive(Debug)]
pub enum Text {}
/// In the unit the core works in.
#[derive(Debug)]
pub enum Number {}
#[derive(Debug)]
pub enum YesNo {}
/// The id of one choice.
#[derive(Debug)]
pub enum OneOf {}
/// The ids of any number of choices.
#[derive(Debug)]
pub enum Many {}
/// One choice, as what it stands for.
#[derive(Debug)]
pub struct One<T>(PhantomData<fn() -> T>);

/// Any number of choices, as what they stand for.
#[derive(Debug)]
pub struct Several<T>(PhantomData<fn() -> T>);

/// What can be chosen, and is more than an id.
pub trait Chosen: Sized {
    const CHOICES: &'static [Choice];
    fn chosen(id: &str) -> Option<Self>;
}

macro_rules! chosen {
    ($($what:ty),* $(,)?) => {$(
        impl Chosen for $what {
            const CHOICES: &'static [Choice] = Self::CHOICES;
            fn chosen(id: &str) -> Option<Self> {
                Self::from_id(id)
            }
        }
    )*};
}
chosen!(
    PartShape,
    Packing,
    Era,
    Family,
    MethodId,
    School,
    FoundBy,
    EndKind,
    CrackFate,
    DyingFire,
    Edges,
    OldFiller,
    Shock,
    Towards,
    PieceState,
    WitnessSide,
    ClosedBy,
    PatchSkin,
    SizeKind,
    TakenOffBy,
    Oil,
    Cavity,
    Machined,
    Reached,
    BrokeBy,
    Contents,
    OutlineKind,
    SeamForm,
    Behind,
    TipWay,
    MendedAt,
    SeenAs,
    TestMarks,
    Polarity,
    Peening,
    Fixture,
    Sides,
    Dirt,
    BeadLength,
    After,
    Pores,
    OldWeld,
    StopHoleAt,
    PinDensity,
    Blend,
    GrooveDepth,
    NickelUnder,
    NickelPreheat,
    BrazePreheat,
    GasHeat,
    Authority,
    Coating,
    Hazard,
    Lifetime,
    Load,
    SafetyClass,
    Shows,
    SeamReach,
    AlignBy,
    PrepDone,
    PinKind,
    Checked,
    CoatedWith,
    FinishAs,
    PadOn,
    ReadOff,
    Became
);

impl Chosen for &'static HeatSource {
    const CHOICES: &'static [Choice] = HeatSource::CHOICES;
    fn chosen(id: &str) -> Option<Self> {
        HeatSource::from_id(id)
    }
}

macro_rules! holds {
    ($($what:ty: $got:ty = $pattern:pat => $as:expr;)*) => {$(
        impl Holds for $what {
            type Got<'a> = $got;
            fn got(value: &FieldValue) -> Option<Self::Got<'_>> {
                match value {
                    $pattern => Some($as),
                    _ => None,
                }
            }
        }
    )*};
}
holds! {
    Text: &'a str = FieldValue::Text(text) => text;
    Number: f64 = FieldValue::Number(number) => *number;
    YesNo: bool = FieldValue::YesNo(yes) => *yes;
    OneOf: &'a str = FieldValue::One(id) => id;
    Many: &'a [String] = FieldValue::Many(ids) => ids;
}

impl<T: Chosen> Holds for One<T> {
    type Got<'a> = T;
    fn got(value: &FieldValue) -> Option<T> {
        OneOf::got(value).and_then(T::chosen)
    }
}

impl<T: Chosen> Holds for Several<T> {
    type Got<'a> = Vec<T>;
    fn got(value: &FieldValue) -> Option<Vec<T>> {
        // One that is not known is not "none of them": then nothing is known.
        Many::got(value)?.iter().map(|id| T::chosen(id)).collect()
    }
}

/// What a field holds among these; nothing while nothing is known.
pub fn get<T: Holds>(values: &BTreeMap<String, FieldState>, field: impl Keyed<T>) -> Option<T::Got<'_>> {
    T::got(values.get(field.as_key().as_ref())?.value.as_ref()?)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::casting::said::Load;

    #[test]
    fn several_are_known_only_where_each_is() {
        let got = |ids: &[&str]| {
            Several::<Load>::got(&FieldValue::Many(ids.iter().map(|id| (*id).to_owned()).collect()))
        };
        assert_eq!(got(&["static", "shock"]), Some(vec![Load::Static, Load::Shock]));
        assert_eq!(got(&[]), Some(Vec::new()), "nothing is carried");
        assert_eq!(got(&["static", "swung"]), None, "and that is not nothing");
        assert_eq!(Several::<Load>::got(&FieldValue::YesNo(true)), None);
    }
}
