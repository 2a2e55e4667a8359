//! A piece of scrap that was done first by a method, before its repair was lit.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::MethodId;

/// A piece of scrap done here by a method, for a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnScrap {
    /// The tick that said it.
    pub piece: Uuid,
    pub job: Uuid,
    /// The part it was done for, as it was called then.
    pub name: String,
    pub method: MethodId,
    /// It is ticked no more.
    #[serde(default)]
    pub taken_back: bool,
}

impl OwnScrap {
    /// Whether it is the same piece: one is done for a job by a method.
    #[must_use]
    pub fn is_of(&self, other: &Self) -> bool {
        (self.job, self.method) == (other.job, other.method)
    }
}
