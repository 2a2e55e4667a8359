//! How a mended place stands by what was looked at there: what it has to do, what was found last, what that is worth.

use super::cracks::CrackPlan;
use super::part::{GUESSED_WALL_MM, PartFacts};
use crate::casting::said::Machined;
use crate::faults::acceptance::Checked;
use crate::faults::acceptance::{Duty, MendedPlace, Then, Verdict, out_of_line_most_mm};
use crate::field::{self, Field, One};
use crate::job::{CheckPlace, CheckWhat, Looked, Round};
use serde::Serialize;

/// What is looked for, the field of the whole, how that is called.
pub(crate) const LINES: [(CheckWhat, Field<One<Checked>>, &str); 9] = [
    (CheckWhat::Pins, field::check::PINS, "Every pin tight and filed flush"),
    (CheckWhat::Clean, field::check::CLEAN, "Slag, flux glass and fibre off"),
    (CheckWhat::Toes, field::check::TOES, "Toes whole"),
    (CheckWhat::CracksAgain, field::check::CRACKS_AGAIN, "No new crack, none ran on"),
    (CheckWhat::FileEdge, field::check::FILE_EDGE, "Edge files"),
    (CheckWhat::Leak, field::check::LEAK, "Tight"),
    (CheckWhat::Alignment, field::check::ALIGNMENT, "Straight"),
    (CheckWhat::NextDay, field::check::NEXT_DAY, "Again next day: no new crack"),
    (CheckWhat::Faults, field::check::FAULTS, "What went wrong at the torch"),
];

/// How a line or a place of the check stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CheckState {
    /// Nobody has looked.
    Open,
    Ok,
    NotOk,
    /// Something is left, with its reason.
    Left,
}

/// What was last said of a place: by itself, or with all others of its kind.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Stands<'a> {
    Open,
    Good,
    NotGood(Option<&'a Looked>),
    /// Not good, and left with its reason, or watched.
    Left(&'a Looked),
    /// A size is wanted before it can be judged.
    Measure(&'a Looked),
}

impl Stands<'_> {
    pub fn state(self) -> CheckState {
        match self {
            Self::Open | Self::Measure(_) => CheckState::Open,
            Self::Good => CheckState::Ok,
            Self::NotGood(_) => CheckState::NotOk,
            Self::Left(_) => CheckState::Left,
        }
    }
}

/// What a mended place has to do: what nobody has said it carries is taken to carry.
pub(crate) fn duty(round: &Round, part: &PartFacts) -> Duty {
    let loads = round.get(field::part::LOADS);
    let shock = loads.iter().flatten().any(|load| load.bends());
    Duty {
        carries: loads.is_none_or(|loads| !loads.is_empty()),
        shock,
        tight: part.fluid_tight == Some(true),
        machined: round.get(field::part::MACHINED) == Some(Machined::Across),
    }
}

/// The place as it is judged. Where a leak test says that it is tight, a pore is judged by what else the place has to do.
pub(crate) fn place(round: &Round, part: &PartFacts, cracks: &[CrackPlan], at: CheckPlace) -> MendedPlace {
    let crack = at.at.and_then(|id| cracks.iter().find(|crack| crack.id == id));
    let longest = part.size_mm.map(|(l, w, h)| l.max(w).max(h));
    let by_its_use = MendedPlace {
        duty: duty(round, part),
        wall_mm: crack.map(|crack| crack.wall_mm).or(part.wall_mm).unwrap_or(GUESSED_WALL_MM),
        tolerance_mm: round.get(field::check::OUT_OF_LINE).or_else(|| longest.map(out_of_line_most_mm)),
    };
    let whole = CheckPlace { what: CheckWhat::Leak, at: None, side: None };
    let proved = stands(round, whole, &by_its_use) == Stands::Good;
    MendedPlace { duty: Duty { tight: by_its_use.duty.tight && !proved, ..by_its_use.duty }, ..by_its_use }
}

/// How a place stands.
pub(crate) fn stands<'a>(round: &'a Round, at: CheckPlace, place: &MendedPlace) -> Stands<'a> {
    let whole = LINES
        .into_iter()
        .find(|(what, ..)| *what == at.what)
        .and_then(|(_, field, _)| Some((round.values.get(field.key())?.revision, round.get(field)?)));
    let looked = round.looked.iter().rev().find(|looked| looked.place == at);
    match (whole, looked) {
        (Some((revision, verdict)), looked) if looked.is_none_or(|it| it.revision < revision) => {
            match verdict {
                Checked::NotOk => Stands::NotGood(None),
                Checked::Ok => Stands::Good,
            }
        }
        (_, Some(looked)) => match place.judge(looked.found, looked.extent()) {
            Verdict::Good => Stands::Good,
            Verdict::Measure => Stands::Measure(looked),
            Verdict::NotGood => {
                let may = place.ways_on(looked.found, looked.extent());
                let settled = looked.then.is_some_and(|then: Then| then.settles() && may.contains(&then));
                if settled { Stands::Left(looked) } else { Stands::NotGood(Some(looked)) }
            }
        },
        (_, None) => Stands::Open,
    }
}
