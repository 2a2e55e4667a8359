//! Confirming the iron: priors, tests, how evidence combines, what each iron is like.

mod evidence;
mod governing;
mod kind;
mod mark;
mod measured;
mod posterior;
mod tests_table;

pub use evidence::{Confidence, Density, Evidence, Finding, SoundSpeed};
pub use governing::{Governing, least, least_forgiving, slowest_to_heat, strongest};
pub use kind::{ANNEAL_LOST_C, Era, Family, Iron, IronProperties};
pub use mark::{Grade, grade_of};
pub use measured::{
    Measured, MeasuredInput, MeasuredTest, TypedValues, density_kg_m3, in_system, mark_words,
    sound_speed_m_s, water_density_kg_m3,
};
pub use posterior::{Belief, Counts, Notice, Step, WhiteStanding, confirm};
pub use tests_table::{LookTest, Outcome};
