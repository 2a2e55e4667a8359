//! What was said of a field, seen or measured of the iron, and answered afterwards.

use super::super::{Became, Change, CheckWhat, Fact, Followed, Looked, Observed, Parsed};
use super::{Damaged, Job};
use crate::field::{self, FieldState, FieldValue, job_field, parse_value};
use crate::iron::TypedValues;
use crate::quantity::UnitSystem;

impl Job {
    pub(super) fn set(
        &mut self,
        fact: &Fact,
        (key, typed, shown_in): (&str, &str, UnitSystem),
        understood: Option<&Parsed>,
    ) {
        let Some(spec) = job_field(key) else {
            self.damaged.push(Damaged { revision: fact.revision, text: format!("{key}: {typed}") });
            return;
        };
        let (value, not_understood) = match understood {
            Some(Parsed::Field(value)) => (value.clone(), String::new()),
            _ => match parse_value(key, spec, typed, shown_in) {
                Ok(value) => (value, String::new()),
                Err(problem) => (None, problem.message),
            },
        };
        let typed = typed.trim().to_owned();
        if key == field::check::CRACKS_AGAIN.key() && !typed.is_empty() {
            self.round_mut().cracks_looked_for_ms.get_or_insert(fact.at_ms());
        }
        if key == field::hand_over::DONE.key() {
            let out = value == Some(FieldValue::YesNo(true));
            self.round_mut().handed_over_ms = out.then(|| fact.at_ms());
        }
        if key == field::hand_over::BECAME.key() {
            self.followed_in_its_field(fact, value.as_ref());
        }
        let held = FieldState { typed, value, revision: fact.revision, not_understood };
        self.round_mut().values.insert(key.to_owned(), held);
    }

    /// One answer stands in its field: a later one takes its place there, an empty one takes it out.
    fn followed_in_its_field(&mut self, fact: &Fact, value: Option<&FieldValue>) {
        let round = self.round_mut();
        round.followed.retain(|it| !it.in_its_field);
        if let Some(became) = value.and_then(one_chosen).and_then(Became::from_id) {
            round.followed.push(Followed { in_its_field: true, ..answered(fact, became) });
        }
    }

    pub(super) fn look(&mut self, fact: &Fact, understood: Option<&Parsed>) {
        let Change::Look { place, found, count, then, note, .. } = &fact.change else { return };
        let typed = |name: &str| match understood {
            Some(Parsed::Lengths(typed)) => typed.get(name).copied().flatten(),
            _ => None,
        };
        let size_mm = typed("size");
        let count = count.or_else(|| typed("count").map(|count| count as u32));
        let round = self.round_mut();
        if place.what == CheckWhat::CracksAgain {
            round.cracks_looked_for_ms.get_or_insert(fact.at_ms());
        }
        round.looked.push(Looked {
            fact: fact.id,
            revision: fact.revision,
            at_ms: fact.at_ms(),
            who: fact.who.clone(),
            place: *place,
            found: *found,
            size_mm,
            count,
            then: *then,
            note: note.trim().to_owned(),
        });
    }
}

/// What a fact adds to what is known of the iron.
pub(super) fn observed(fact: &Fact, understood: Option<&Parsed>) -> Option<Observed> {
    let (test, outcome, confidence, spot, typed, shown_in) = match &fact.change {
        Change::Observe { test, outcome, confidence, spot } => {
            (test, outcome.clone(), confidence, spot, TypedValues::new(), UnitSystem::Metric)
        }
        Change::Measure { test, typed, shown_in, confidence, spot } => {
            let outcome = match understood {
                Some(Parsed::Outcome(outcome)) => outcome.clone(),
                _ => String::new(),
            };
            (test, outcome, confidence, spot, typed.clone(), *shown_in)
        }
        _ => return None,
    };
    Some(Observed {
        fact: fact.id,
        revision: fact.revision,
        test: test.clone(),
        outcome,
        confidence: *confidence,
        spot: spot.clone(),
        typed,
        shown_in,
        hard_spot: None,
        struck: None,
    })
}

/// What a fact answers of a part that was handed over.
pub(super) fn followed(fact: &Fact) -> Option<Followed> {
    let Change::FollowUp { became, went, after, did, note, odds } = &fact.change else { return None };
    let [after, did, note] = [after, did, note].map(|words| words.trim().to_owned());
    Some(Followed { went: *went, after, did, note, odds: *odds, ..answered(fact, *became) })
}

fn one_chosen(value: &FieldValue) -> Option<&str> {
    match value {
        FieldValue::One(id) => Some(id),
        FieldValue::Text(_) | FieldValue::Number(_) | FieldValue::Many(_) | FieldValue::YesNo(_) => None,
    }
}

/// An answer, and nothing beside it.
fn answered(fact: &Fact, became: Became) -> Followed {
    Followed {
        fact: fact.id,
        revision: fact.revision,
        at_ms: fact.at_ms(),
        who: fact.who.clone(),
        became,
        went: None,
        after: String::new(),
        did: String::new(),
        note: String::new(),
        odds: None,
        in_its_field: false,
    }
}
