//! What a log from elsewhere may hold.

use super::bounds::{FACES_MOST, LIST_MOST, PICTURES_MOST, SEAM_READINGS_MOST, TORCH_MOST, within_bounds};
use super::{Change, Fact, TorchEntry, possible_name, possible_time};
use crate::base::day::Day;
use crate::base::problem::FieldProblem;
use crate::field::{ParseContext, job_field, parse_value};
use crate::iron::{Iron, LookTest, MeasuredTest};

/// What a log from elsewhere holds so far: a file keeps the limits of the door.
#[derive(Debug, Default)]
pub struct Importing {
    cracks: usize,
    hard_spots: usize,
    neighbours: usize,
    pictures: usize,
    faces: usize,
    marks: usize,
    at_seams: usize,
    evidence: usize,
    torch: usize,
    rounds: usize,
    /// A fact came already.
    begun: bool,
}

impl Importing {
    /// Whether a fact could ever have been said, after those before it.
    ///
    /// # Errors
    /// The problem, at its field.
    pub fn fact(&mut self, fact: &Fact) -> Result<(), FieldProblem> {
        possible_time("at_client_ms", fact.at_client_ms)?;
        possible_time("at_server_ms", fact.at_server_ms)?;
        possible_name("who", &fact.who)?;
        possible_name("sender", &fact.sender)?;
        importable(&fact.change)?;
        if matches!(fact.change, Change::Practise { .. }) && self.begun {
            // Else a file could take a hot part off the rack.
            return Err(FieldProblem::new(
                "change",
                "a job is a practice from its first word on, or never",
                "",
            ));
        }
        self.begun = true;
        let (counted, most, what) = match &fact.change {
            Change::AddCrack => (&mut self.cracks, LIST_MOST, "cracks"),
            Change::AddHardSpot { .. } => (&mut self.hard_spots, LIST_MOST, "hard spots"),
            Change::AddNeighbour => (&mut self.neighbours, LIST_MOST, "things that must stay cool"),
            Change::AddFace => (&mut self.faces, FACES_MOST, "faces"),
            Change::AddMark { .. } => (&mut self.marks, LIST_MOST, "marks"),
            Change::MeasureSeam { .. } => (&mut self.at_seams, SEAM_READINGS_MOST, "readings at the seams"),
            Change::AddPicture { .. } => (&mut self.pictures, PICTURES_MOST, "pictures"),
            Change::Observe { .. } | Change::Measure { .. } => {
                (&mut self.evidence, LIST_MOST, "observations")
            }
            Change::Torch { .. } => (&mut self.torch, TORCH_MOST, "entries at the torch"),
            Change::NewRound { .. } => (&mut self.rounds, LIST_MOST, "rounds"),
            _ => return Ok(()),
        };
        *counted += match &fact.change {
            Change::Torch { entry: TorchEntry::Beads { at, .. } } => at.len(),
            _ => 1,
        };
        if *counted <= most {
            return Ok(());
        }
        Err(FieldProblem::new("change", format!("there are too many {what}"), format!("up to {most}")))
    }
}

/// Whether a change could ever have been said: what a file from elsewhere is checked by. What was kept as
/// unreadable is taken along as it is.
fn importable(change: &Change) -> Result<(), FieldProblem> {
    within_bounds(change)?;
    match change {
        Change::Set { key, typed, shown_in } => {
            let spec = job_field(key).ok_or_else(|| FieldProblem::new(key, "there is no such field", ""))?;
            // Any day will do: what was understood on its own day stands beside it.
            let saying = ParseContext { shown_in: *shown_in, today: Day::new(2000, 1, 1) };
            parse_value(key, spec, typed, saying).map(|_| ())
        }
        Change::Observe { test, outcome, .. } => {
            let known = match LookTest::from_id(test) {
                Some(look) => look.outcome(outcome).is_some(),
                None => test == "mark" && Iron::from_id(outcome).is_some(),
            };
            if known {
                Ok(())
            } else {
                Err(FieldProblem::new("test", "there is no such test or outcome", ""))
            }
        }
        Change::Measure { test, typed, shown_in, .. } => match MeasuredTest::from_id(test) {
            Some(measured) => match measured.measure(typed, *shown_in) {
                Ok(_) => Ok(()),
                Err(problems) => Err(problems
                    .into_iter()
                    .next()
                    .unwrap_or_else(|| FieldProblem::new("typed", "this cannot be read", ""))),
            },
            None => Err(FieldProblem::new("test", "there is no such test", "sound, density or mark")),
        },
        Change::Light { .. }
        | Change::Torch { .. }
        | Change::AddCrack
        | Change::AddFace
        | Change::AddMark { .. }
        | Change::Straighten { .. }
        | Change::Draw { .. }
        | Change::PutFlame { .. }
        | Change::SetPoint { .. }
        | Change::MeasureSeam { .. }
        | Change::Tick { .. }
        | Change::FinishStep { .. }
        | Change::Look { .. }
        | Change::Use { .. }
        | Change::FollowUp { .. }
        | Change::Estimate { .. }
        | Change::Time { .. }
        | Change::AddHardSpot { .. }
        | Change::AddNeighbour
        | Change::AddPicture { .. }
        | Change::Unreadable { .. }
        | Change::Strike { .. }
        | Change::Undo { .. }
        | Change::Redo { .. }
        | Change::CancelLight
        | Change::PutOut
        | Change::NewRound { .. }
        | Change::PutAway
        | Change::BringBack
        | Change::Practise { .. }
        | Change::Pass { .. }
        | Change::EndPractice => Ok(()),
    }
}

/// Whether a change may be taken in on its own: a picture that says what it shows.
///
/// # Errors
/// The problem, at its field.
pub fn could_be_said(change: &Change) -> Result<(), FieldProblem> {
    importable(change)
}
