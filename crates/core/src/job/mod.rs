//! A job is a log of facts; the present job is its fold.

mod accept;
mod change;
mod fold;
mod heat;
mod observed;
mod round;
mod told;
mod understood;

pub use accept::{
    Allowed, Conflict, FACTS_MOST, Importing, Refusal, accept, could_be_said, duplicate, possible_name,
    possible_time,
};
pub use change::{Change, Fact, TorchEntry};
pub use fold::{Damaged, Job};
pub use heat::{Heat, HeatRef, Lit, LogEntry, Reading, job_ms};
pub use observed::Observed;
pub use round::{Crack, Face, FacePicture, HardSpot, Mark, Neighbour, Picture, Round};
pub use told::Telling;
pub use understood::Understood;
