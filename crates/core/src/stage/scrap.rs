//! The piece of scrap that is done first by a way that was not done often yet.

use crate::job::WorkStep;
use crate::method::MethodId;

/// The line that asks for it before it is lit.
pub(super) fn scrap_words(method: MethodId) -> String {
    format!("A piece of scrap done first, {}: fewer than five repairs by this way here", method.entry().label)
}

/// The same as it is ticked.
pub(crate) fn scrap_step(method: MethodId) -> WorkStep {
    WorkStep::laid_out(&scrap_words(method))
}
