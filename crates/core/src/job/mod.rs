//! A job is a log of facts; the present job is its fold.

mod accept;
mod at_seam;
mod bounds;
mod change;
mod doubt;
mod duplicate;
mod fold;
mod heat;
mod heat_state;
mod import;
mod looked;
mod observed;
mod pads;
mod round;
mod told;
mod torch_entry;
mod understood;
mod work;

pub use accept::{Allowed, Conflict, Refusal, accept};
pub use at_seam::{SeamReading, SeamReadingKind};
pub use bounds::{FACTS_MOST, possible_name, possible_time};
pub use change::{Change, Fact};
pub use duplicate::duplicate;
pub use fold::{Damaged, Job};
pub use heat::{Heat, HeatRef, Lighting, Lit, LogEntry, Reading, job_ms, job_ms_to_clock};
pub use heat_state::HeatState;
pub use import::{Importing, could_be_said};
pub use looked::{CheckPlace, CheckWhat, Looked};
pub use observed::Observed;
pub use pads::{CHANNELS, PadOn, PadsOn, Recorded, every_channel, pad_on};
pub use round::{Crack, Face, FacePicture, HardSpot, Mark, Neighbour, Picture, Round, Timed};
pub use told::Telling;
pub use torch_entry::{BeadAt, Deed, Gun, TorchEntry};
pub use understood::Understood;
pub use work::{Work, WorkStep};
