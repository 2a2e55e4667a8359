//! Whether a change may be added to a job as it stands.

mod at_work;
mod on_the_map;
mod said;
mod taken_back;
mod torch;

use serde::Serialize;
use uuid::Uuid;

use super::bounds::{FACES_MOST, LIST_MOST, PICTURES_MOST, within_bounds};
use super::{Change, Job, Round};
use crate::base::day::Day;
use crate::base::problem::FieldProblem;
use crate::map::FlamePlace;

/// Two people changed one fact.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Conflict {
    pub field: String,
    /// What was sent, and what stands.
    pub yours: String,
    pub theirs: String,
    /// The revision to base the next try on.
    pub revision: u64,
}

/// Why a change was refused.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Refusal {
    Problems(Vec<FieldProblem>),
    Conflict(Conflict),
}

impl From<FieldProblem> for Refusal {
    fn from(problem: FieldProblem) -> Self {
        Self::Problems(vec![problem])
    }
}

/// What the plan of a job says of what may be done to it: what a change is judged by, and no more.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Allowed {
    /// Why no method can be taken, and what would open the way; nothing while one can.
    pub no_method: Option<(String, String)>,
    /// Why it cannot be lit, each with what would open the way; empty where it can.
    pub not_lit: Vec<(String, String)>,
    /// The same for a bake, and for a tacking.
    pub not_baked: Vec<(String, String)>,
    pub not_tacked: Vec<(String, String)>,
    /// What somebody has to answer for who lights it; empty where nobody has to.
    pub to_own: String,
    /// Why no estimate can be given; nothing while one can.
    pub no_estimate: Option<(String, String)>,
    /// What is open before it is handed over and nobody answers for; empty where nothing is.
    pub open: Vec<String>,
    /// Why nothing can be done to it that wants it cold; nothing once it is.
    pub hot: Option<String>,
}

/// Whether `change` may be added by `sender`. `base` is the revision of what the change replaces as the
/// client last saw it; `allowed` gives what the plan says, as it stands: it is asked by few changes.
///
/// # Errors
/// [`Refusal::Conflict`] when the fact has changed since `base`; [`Refusal::Problems`] for what
/// cannot be, at its field.
pub fn accept(
    job: &Job,
    allowed: impl Fn() -> Allowed,
    change: &Change,
    base: Option<u64>,
    sender: &str,
    today: Option<Day>,
) -> Result<(), Refusal> {
    within_bounds(change)?;
    let over = job.practice.as_ref().is_some_and(|it| it.ended);
    if over && !matches!(change, Change::PutAway | Change::BringBack) {
        return refused("practice", "this practice is over", "play it again");
    }
    ChangeContext { job, round: job.round(), change, base, today, allowed: &allowed }.accepted(sender)
}

/// One change, and what it is judged by.
struct ChangeContext<'a> {
    job: &'a Job,
    /// The round in hand.
    round: &'a Round,
    change: &'a Change,
    base: Option<u64>,
    today: Option<Day>,
    allowed: &'a dyn Fn() -> Allowed,
}

impl ChangeContext<'_> {
    fn accepted(&self, sender: &str) -> Result<(), Refusal> {
        let Self { job, round, .. } = self;
        match self.change {
            Change::Set { key, typed, shown_in } => self.set(key, typed, *shown_in),
            Change::Observe { test, outcome, spot, .. } => self.observed(test, outcome, spot),
            Change::Measure { test, typed, shown_in, spot, .. } => {
                self.measured(test, typed, *shown_in, spot)
            }
            Change::AddHardSpot { spot, observed } => self.hard_spot(spot, *observed),
            Change::AddNeighbour => room_for(
                round.neighbours.len(),
                LIST_MOST,
                "neighbour",
                "500 of them are more than a repair",
                "",
            ),
            Change::AddFace => {
                let full = "40 faces are more than a part has";
                room_for(job.faces.len(), FACES_MOST, "face", full, "cross some out first")
            }
            Change::AddMark { .. } => {
                let full = "500 marks are more than a map shows";
                room_for(round.marks.len(), LIST_MOST, "mark", full, "cross some out first")
            }
            Change::AddPicture { .. } => {
                let full = "60 pictures of one job are enough";
                room_for(job.pictures.len(), PICTURES_MOST, "picture", full, "cross some out first")
            }
            Change::AddCrack => {
                let full = "500 cracks are more than a repair";
                room_for(round.cracks.len(), LIST_MOST, "crack", full, "recast it")
            }
            Change::Straighten { face, picture, .. } => self.straightened(*face, *picture),
            Change::Draw { drawn } => self.drawn(drawn),
            Change::PutFlame { flame } => self.flame_put(flame.as_ref()),
            Change::SetPoint { mark, face, point, typed, shown_in } => {
                self.point_set((*mark, *face), *point, typed, *shown_in)
            }
            Change::MeasureSeam { crack, .. } => self.seam_measured(*crack),
            Change::Look { place, found, .. } => self.looked(place.at, *found),
            Change::Use { what, size_mm, typed, .. } => self.used(what, *size_mm, typed),
            Change::FollowUp { .. } => self.followed_up(),
            Change::Time { step, running } => self.timed(step, *running),
            Change::Estimate { until, .. } => self.estimated(until),
            Change::FinishStep { step, .. } => self.finish_step(*step),
            Change::Tick { step, done } => self.ticked(*step, *done),
            Change::Strike { target, reason } => self.struck(*target, reason),
            Change::Undo { target } => {
                let gone = "that is no longer the last thing said from here";
                holds(job.own_word(sender).0 == Some(*target), "target", gone, "")
            }
            Change::Redo { target } => {
                holds(job.own_word(sender).1 == Some(*target), "target", "there is nothing to put back", "")
            }
            Change::Light { owned, what, .. } => self.lit(owned, *what),
            Change::CancelLight => self.light_cancelled(),
            Change::PutOut => self.put_out(),
            Change::Torch { entry } => self.at_torch(entry),
            Change::Unreadable { .. } => refused("change", "that cannot be said", ""),
            Change::NewRound { .. } => self.new_round(),
            Change::PutAway | Change::BringBack => Ok(()),
            Change::Practise { .. } => refused("change", "a job is a practice from its first word on", ""),
            Change::Pass { minutes } => self.passed(*minutes),
            Change::EndPractice => {
                let right = "say how it holds once it is handed over";
                holds(job.practice.is_some(), "practice", "a real job is followed up", right)
            }
        }
    }

    /// On a face that is on the map. A made-up part opens under the flame it was lit with: that is put nowhere else
    /// afterwards.
    fn flame_put(&self, flame: Option<&FlamePlace>) -> Result<(), Refusal> {
        let lit = self.job.round().lit.is_some() || !self.job.round().cancelled.is_empty();
        let right = "play it again from before it was lit";
        holds(self.job.practice.is_none() || !lit, "flame", "the flame burns already", right)?;
        let known = |flame: &FlamePlace| self.job.faces.iter().any(|face| face.id == flame.face);
        holds(flame.is_none_or(known), "flame.face", "this face is not on the map", "a face of the part")
    }

    /// Nothing else has been said of it since this was seen.
    fn unless_changed(&self, field: &str, yours: &str, theirs: &str) -> Result<(), Refusal> {
        let revision = self.job.revision_of(self.change);
        match self.base {
            Some(base) if revision > base => Err(Refusal::Conflict(Conflict {
                field: field.to_owned(),
                yours: yours.to_owned(),
                theirs: theirs.to_owned(),
                revision,
            })),
            Some(_) | None => Ok(()),
        }
    }

    fn on_a_face(&self, face: Uuid) -> Result<(), Refusal> {
        let known = self.job.faces.iter().any(|known| known.id == face);
        holds(known, "face", "that face is no longer there", "a face of the part")
    }
}

fn refused(field: &str, message: &str, right: &str) -> Result<(), Refusal> {
    Err(Refusal::from(FieldProblem::new(field, message, right)))
}

fn holds(it: bool, field: &str, otherwise: &str, right: &str) -> Result<(), Refusal> {
    if it { Ok(()) } else { refused(field, otherwise, right) }
}

/// One more may be added to as many as there are.
fn room_for(there: usize, most: usize, field: &str, full: &str, right: &str) -> Result<(), Refusal> {
    holds(there < most, field, full, right)
}
