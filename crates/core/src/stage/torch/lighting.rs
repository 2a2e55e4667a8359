//! Lit for something else than the repair: to bake the oil out, to tack the pieces.

use serde::Serialize;
use uuid::Uuid;

use super::at_torch::Doing;
use super::{AtTorch, Falls};
use crate::heat::{Burning, ThermalBody};
use crate::job::{Reading, Round};
use crate::quantity::UnitSystem;
use crate::stage::prep::BreakPlan;

/// A bake, as it is run.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Bake {
    pub target_c: f64,
    pub least_c: f64,
    pub most_c: f64,
    pub hold_min: f64,
}

/// House: nothing is tacked hotter than this, or colder, in degC.
const TACKED_C: (f64, f64) = (15.0, 65.0);

impl AtTorch {
    /// What is done next at a bake.
    pub(crate) fn baking(round: &Round, bake: &Bake, body: Option<ThermalBody>, units: UnitSystem) -> Self {
        let work = Self {
            window: Some((bake.least_c, bake.most_c)),
            aim_c: bake.target_c,
            soak_min: bake.hold_min,
            falls: body.map(|body| Falls { body, burning: Burning::Kept }),
            says: "Flame off once it neither smokes nor weeps".to_owned(),
            ..Self::at(Doing::Bake, units)
        };
        work.having_seen(round)
    }

    /// What is done next while it is tacked.
    pub(crate) fn tacking(round: &Round, breaks: &[BreakPlan], units: UnitSystem) -> Self {
        let in_place = round.tacks();
        let work = Self {
            done: in_place as u32,
            planned: breaks.iter().map(|it| it.tacks.len() as u32).sum(),
            window: Some(TACKED_C),
            says: TackTurn::of(breaks, in_place).words,
            ..Self::at(Doing::Tack, units)
        };
        work.having_seen(round)
    }

    pub(super) fn having_seen(mut self, round: &Round) -> Self {
        self.out_from_min =
            round.out_of_the_heat().last().filter(|(_, back)| back.is_infinite()).map(|it| it.0);
        self.not_soaking = round.not_soaking();
        let mut readings: Vec<Reading> = round.part_readings().collect();
        readings.sort_by(|a, b| a.minutes.total_cmp(&b.minutes));
        for reading in readings {
            self.saw(reading);
        }
        self
    }
}

/// Whose turn it is while it is tacked.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TackTurn {
    pub state: TackState,
    /// The break and the tack, from 1; nothing once all are in.
    pub crack: Option<Uuid>,
    pub number: u32,
    /// The last check after it; nothing while there is none.
    pub check: Option<Uuid>,
    /// "Tack 2 of A: 37 mm along"
    pub words: String,
}

/// What is done next at a tack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TackState {
    ToTack,
    /// It is in, and nobody has read the alignment since.
    ToCheck,
    /// The alignment moved: it comes out again.
    Moved,
    AllIn,
}

impl TackTurn {
    /// The first tack that is not in, or the first that is in and was not checked.
    pub(crate) fn of(breaks: &[BreakPlan], in_place: usize) -> Self {
        let all = breaks.iter().flat_map(|it| it.tacks.iter().map(move |tack| (it, tack)));
        for (at, (of, tack)) in all.enumerate() {
            let (number, letter) = (tack.number, &of.letter);
            let check = tack.checked.as_ref().map(|line| line.id);
            let turn = |state, words: String| Self { state, crack: Some(of.crack), number, check, words };
            if at >= in_place {
                return turn(TackState::ToTack, format!("Tack {number} of {letter}: {}", tack.words));
            }
            if tack.moved {
                let words = format!("It moved at tack {number} of {letter}: break it, line up again");
                return turn(TackState::Moved, words);
            }
            if tack.checked.is_none() {
                let words = format!("Check the alignment after tack {number} of {letter}");
                return turn(TackState::ToCheck, words);
            }
        }
        let words = "All tacks are in: put it out".to_owned();
        Self { state: TackState::AllIn, crack: None, number: 0, check: None, words }
    }
}
