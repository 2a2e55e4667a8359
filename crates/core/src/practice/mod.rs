//! Practice: a made-up part with a secret, on the same core and the same stations as the work.
//!
//! A practice is a job that is marked as one. What its part answers is drawn from its truth; what became of it is worked
//! out with the truth in place of what was believed.

mod answers;
mod drawn;
mod ended;
mod faults;
mod file;
mod lessons;
mod made_up;
mod opened;
mod otherwise;
mod own;
mod past;
mod rule;
mod told;
mod truth_words;

pub use answers::{Answered, answered, answers_more, is_at_hand};
pub use drawn::free;
pub use ended::{Ended, EndedPart, TipOnMap, TrueTip, ended};
pub use file::{CASE_FORMAT, CaseFile, RESULT_FORMAT, ResultFile, digest_of};
pub use lessons::{LESSONS, Lesson, lesson};
pub use made_up::{Case, CrackTold};
pub use otherwise::Otherwise;
pub use own::own;
pub use past::{Curve, Past, curve};
pub use rule::{Rule, play};
pub use told::{as_a_case, before_the_heat, told};
