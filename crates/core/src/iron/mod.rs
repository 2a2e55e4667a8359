//! Confirming the iron: priors, tests, how evidence combines, what each iron is like.

mod evidence;
mod kind;
mod posterior;
mod tests_table;

pub use evidence::{Confidence, Density, Evidence, Finding, SoundSpeed};
pub use kind::{Era, Family, Iron, IronProperties};
pub use posterior::{Belief, Notice, WhiteStanding, confirm};
pub use tests_table::{LookTest, Outcome};
