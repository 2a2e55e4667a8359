//! How a job that is a practice is marked.

use serde::{Deserialize, Serialize};

use super::{Draws, Gear, Truth, open};

/// Whether the program's advice is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Level {
    #[default]
    WithThePlan,
    Alone,
}

impl Level {
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::WithThePlan => "with the plan",
            Self::Alone => "alone",
        }
    }
}

/// A practice as its log has it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Practised {
    pub title: String,
    /// What whoever brings it says.
    pub words: String,
    /// Which lesson, by id; empty for a free case.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub lesson: String,
    /// Everything that is drawn is drawn from this.
    pub seed: u32,
    pub level: Level,
    /// Who made it, where a teacher did.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub made_by: String,
    /// The truth under its seal.
    pub sealed: String,
    pub gear: Gear,
}

/// A practice that is in hand.
#[derive(Debug, Clone, PartialEq)]
pub struct Practice {
    pub of: Practised,
    pub truth: Truth,
    /// It was asked what became of it: nothing can be done any more.
    pub ended: bool,
    /// Planned with what flame and packing really do: for the made-up part itself, never for who works on it.
    pub as_it_is: bool,
}

impl Practice {
    /// Nothing where the seal is not whole.
    #[must_use]
    pub fn begun(of: &Practised) -> Option<Self> {
        let truth = open(&of.sealed).ok()?;
        Some(Self { of: of.clone(), truth, ended: false, as_it_is: false })
    }

    /// Of a practice whose seal is not whole: it hides nothing, and everything is as it is said.
    #[must_use]
    pub fn without_truth(of: &Practised) -> Self {
        Self { of: of.clone(), truth: Truth::plain(), ended: false, as_it_is: false }
    }

    /// Nobody is told what to do, or kept from anything.
    #[must_use]
    pub fn alone(&self) -> bool {
        self.of.level == Level::Alone
    }

    #[must_use]
    pub fn draws(&self) -> Draws {
        Draws::of(u64::from(self.of.seed))
    }
}
