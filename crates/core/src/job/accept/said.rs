//! What is said of a field, and what was seen or measured of the iron.

use uuid::Uuid;

use super::super::Observed;
use super::super::bounds::LIST_MOST;
use super::super::round::letters;
use super::{Allowed, ChangeContext, Refusal, holds, refused, room_for};
use crate::base::problem::FieldProblem;
use crate::field::{self, FieldValue, ParseContext, id_in, job_field, parse_value};
use crate::iron::{Iron, LookTest, MeasuredTest, TypedValues};
use crate::quantity::UnitSystem;

impl ChangeContext<'_> {
    pub(super) fn set(&self, key: &str, typed: &str, shown_in: UnitSystem) -> Result<(), Refusal> {
        let Some(spec) = job_field(key) else {
            return refused(key, "there is no such field", "");
        };
        if !id_in(key).is_none_or(|id| self.has_fields(id)) {
            return refused(key, "that is no longer there", "");
        }
        let value = parse_value(key, spec, typed, ParseContext { shown_in, today: self.today })?;
        if key == field::method::CHOICE.key()
            && value.is_some()
            && let Some((why, unlock)) = (self.allowed)().no_method
        {
            return refused(key, &why, &unlock);
        }
        if key == field::prep::ORDER.key() {
            self.in_order(typed)?;
        }
        if key.starts_with("check.") && typed.trim() == "ok" {
            self.cold(key)?;
        }
        if key == field::hand_over::DONE.key() && value == Some(FieldValue::YesNo(true)) {
            handed_over(&(self.allowed)())?;
        }
        let stands = self.round.values.get(key);
        if stands.is_some_and(|held| held.typed == typed.trim()) {
            return Ok(());
        }
        self.unless_changed(key, typed, stands.map_or("", |held| &held.typed))
    }

    /// Letters of cracks, each of them once.
    fn in_order(&self, typed: &str) -> Result<(), FieldProblem> {
        let key = field::prep::ORDER.key();
        let said: Vec<&str> = letters(typed).collect();
        let known: Vec<&str> = self.round.cracks.iter().map(|crack| crack.letter.as_str()).collect();
        for (at, letter) in said.iter().enumerate() {
            let right = format!("the letters of the cracks: {}", known.join(", "));
            if self.round.crack_called(letter).is_none() {
                return Err(FieldProblem::new(key, format!("there is no crack {letter}"), right));
            }
            if said[..at].iter().any(|before| before.eq_ignore_ascii_case(letter)) {
                return Err(FieldProblem::new(key, format!("{letter} stands there twice"), right));
            }
        }
        Ok(())
    }

    /// Whether a thing is there that has fields of its own.
    fn has_fields(&self, id: Uuid) -> bool {
        let Self { job, round, .. } = self;
        round.cracks.iter().any(|crack| crack.id == id)
            || round.neighbours.iter().any(|neighbour| neighbour.id == id)
            || job.pictures.iter().any(|picture| picture.id == id)
            || job.faces.iter().any(|face| face.id == id)
            || round.marks.iter().any(|mark| mark.id == id)
    }

    pub(super) fn observed(&self, test: &str, outcome: &str, spot: &str) -> Result<(), Refusal> {
        self.one_more(spot)?;
        let known = match (test, LookTest::from_id(test)) {
            ("mark", _) => Iron::from_id(outcome).is_some(),
            (_, Some(look)) => look.outcome(outcome).is_some(),
            (_, None) => return refused("test", "there is no such test", "spark, punch, drill or another"),
        };
        holds(known, "outcome", "the test has no such outcome", "one of the pictures")?;
        let theirs = self.stands_at(test, spot).map_or("", |seen| &seen.outcome);
        self.unless_changed(&format!("evidence.{test}"), outcome, theirs)
    }

    pub(super) fn measured(
        &self,
        test: &str,
        typed: &TypedValues,
        shown_in: UnitSystem,
        spot: &str,
    ) -> Result<(), Refusal> {
        self.one_more(spot)?;
        let Some(measured) = MeasuredTest::from_id(test) else {
            return refused("test", "there is no such test", "sound, density or mark");
        };
        measured.measure(typed, shown_in).map_err(Refusal::Problems)?;
        let said = |typed: &TypedValues| typed.values().cloned().collect::<Vec<_>>().join(", ");
        let theirs = self.stands_at(test, spot).map_or(String::new(), |seen| said(&seen.typed));
        self.unless_changed(&format!("evidence.{test}"), &said(typed), &theirs)
    }

    pub(super) fn hard_spot(&self, spot: &str, observed: Option<Uuid>) -> Result<(), Refusal> {
        holds(!spot.trim().is_empty(), "spot", "say where it is", "rim, beside the hub")?;
        let full = "500 hard spots are more than a repair";
        room_for(self.round.hard_spots.len(), LIST_MOST, "spot", full, "")?;
        let known = observed.is_none_or(|id| self.job.evidence.iter().any(|s| s.fact == id && s.stands()));
        holds(known, "observed", "that observation no longer stands", "")
    }

    /// One more observation may be added, and says where.
    fn one_more(&self, spot: &str) -> Result<(), Refusal> {
        holds(!spot.trim().is_empty(), "spot", "say where it was tried", "first spot, rim, hub")?;
        let full = "500 observations are enough";
        room_for(self.job.evidence.len(), LIST_MOST, "test", full, "cross some out first")
    }

    fn stands_at(&self, test: &str, spot: &str) -> Option<&Observed> {
        let evidence = self.job.evidence.iter().rev();
        evidence.into_iter().find(|seen| seen.test == test && seen.spot == spot && seen.stands())
    }
}

/// Handing over says what is open, and somebody answers for it.
fn handed_over(allowed: &Allowed) -> Result<(), FieldProblem> {
    if allowed.open.is_empty() {
        return Ok(());
    }
    let right = "say why it goes out as it is, and who says so";
    Err(FieldProblem::new(field::hand_over::DONE.key(), allowed.open.join(" "), right))
}
