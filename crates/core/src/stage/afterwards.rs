//! How a repair holds: on which days that is asked, and what was answered.

use serde::Serialize;
use uuid::Uuid;

use super::looked::duty;
use super::part::PartFacts;
use crate::base::day::{DAY_MS, Day};
use crate::faults::afterwards::{AskAfter, asked_after, counts_ahead_days};
use crate::field;
use crate::job::{Became, Followed, Round};

/// A day on which it is asked how the repair holds.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AskLine {
    /// "Mon 12 Apr 2027"
    pub day: String,
    /// "after a month", "as was said"
    pub words: String,
    /// From then on, UTC in ms since 1970.
    pub due_ms: i64,
    pub answered: bool,
}

/// An answer, as it is shown.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AnswerLine {
    /// The fact that said it.
    pub fact: Uuid,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub who: String,
    /// holds, fault, failed or unknown.
    pub became: Became,
    /// "Failed, along the toe, after 400 hours"
    pub words: String,
    /// What it did in that time; what happened.
    pub did: String,
    pub note: String,
}

/// What becomes of a repair once it is out of the house.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AfterwardsPlan {
    /// The first first; none while it is not handed over and no day was said.
    pub asks: Vec<AskLine>,
    /// The first first.
    pub answers: Vec<AnswerLine>,
    /// What was said last; nothing while nobody was asked.
    pub became: Option<Became>,
}

impl AfterwardsPlan {
    /// What is asked next; nothing once it failed: then it is a new round.
    #[must_use]
    pub fn next(&self) -> Option<&AskLine> {
        self.asks.iter().find(|ask| !ask.answered).filter(|_| self.became != Some(Became::Failed))
    }
}

/// Noon, UTC, of a day is that day in all but the last of the zones.
fn noon_ms(day: Day) -> i64 {
    day.number() * DAY_MS + DAY_MS / 2
}

pub(super) fn words(it: &Followed) -> String {
    let went = it.went.map_or(String::new(), |went| format!(", {}", went.words().to_lowercase()));
    let after = if it.after.is_empty() { String::new() } else { format!(", after {}", it.after) };
    format!("{}{went}{after}", it.became.label())
}

/// The days on which it is asked, by what it has to stand and by what was said, and what was answered.
pub(crate) fn afterwards(round: &Round, part: &PartFacts) -> AfterwardsPlan {
    let mut asks: Vec<AskLine> = Vec::new();
    let said = round.get(field::hand_over::FOLLOW_UP).and_then(|day| Day::parse(day, None).ok());
    if let Some(day) = said {
        let asked = round.values.get(field::hand_over::FOLLOW_UP.key()).map_or(0, |held| held.revision);
        asks.push(AskLine {
            day: day.said(),
            words: "as was said".to_owned(),
            due_ms: noon_ms(day),
            // A day that was said anew asks anew.
            answered: round.followed.iter().any(|it| it.revision > asked),
        });
    }
    let new_part = round.get(field::hand_over::NEW_PART).and_then(|day| Day::parse(day, None).ok());
    let by_use = |handed_over_ms: i64| {
        let line = move |ask: AskAfter| {
            let day = Day::of_number(handed_over_ms / DAY_MS + ask.days)?;
            let from_ms = noon_ms(day) - DAY_MS / 2 - counts_ahead_days(ask) * DAY_MS;
            Some(AskLine {
                day: day.said(),
                words: ask.words.to_owned(),
                due_ms: noon_ms(day),
                answered: round.followed.iter().any(|it| it.at_ms >= from_ms),
            })
        };
        asked_after(duty(round, part).shock).filter_map(line)
    };
    // What was never mended is asked about on no day but one that was said.
    let mended_and_out = round.handed_over_ms.filter(|_| round.repaired());
    // A day that was said is the first: what lies before it was not wanted.
    let first = said.map_or(i64::MIN, noon_ms);
    asks.extend(mended_and_out.into_iter().flat_map(by_use).filter(|ask| ask.due_ms > first));
    if let Some(day) = new_part {
        asks.push(AskLine {
            day: day.said(),
            words: "when the new part comes: is this one out?".to_owned(),
            due_ms: noon_ms(day),
            answered: round.followed.iter().any(|it| it.at_ms >= noon_ms(day) - DAY_MS),
        });
        asks.sort_by_key(|ask| ask.due_ms);
    }
    let answer = |it: &Followed| AnswerLine {
        fact: it.fact,
        at_ms: it.at_ms,
        who: it.who.clone(),
        became: it.became,
        words: words(it),
        did: it.did.clone(),
        note: it.note.clone(),
    };
    AfterwardsPlan { asks, answers: round.followed.iter().map(answer).collect(), became: round.became() }
}
