//! What went wrong at the torch here, and what was found to be the cause.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::causes::Symptom;
use crate::method::Way;

/// Something that went wrong at a torch of this shop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnFault {
    /// The entry at the torch that said it.
    pub entry: Uuid,
    pub job: Uuid,
    /// The part, as it was called then.
    pub name: String,
    pub seen: Symptom,
    /// Of those that are shown for it; empty while nobody has found it.
    pub cause: String,
    pub way: Way,
    /// It is said no more: taken back, or struck.
    #[serde(default)]
    pub taken_back: bool,
}
