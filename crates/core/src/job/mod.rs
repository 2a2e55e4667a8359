//! A job is a log of facts; the present job is its fold.

mod accept;
mod change;
mod choices;
mod fields;
mod fold;
mod observed;
mod understood;

pub use accept::{
    Allowed, Conflict, FACTS_MOST, Importing, Refusal, accept, could_be_said, duplicate, possible_name,
    possible_time,
};
pub use change::{Change, Fact, TorchEntry};
pub use choices::{END_KINDS, NONE, PREP_DONE, SAFETY_CLASSES};
pub use fields::{
    CRACK_FIELDS, Choice, FieldKind, FieldSpec, FieldValue, JOB_FIELDS, NEIGHBOUR_FIELDS, PICTURE_FIELDS,
    SHOP_FIELDS, crack_key, job_field, neighbour_key, parse_value, picture_key, shop_field,
};
pub use fold::{
    Crack, Damaged, HardSpot, Heat, HeatRef, Held, Job, Lit, LogEntry, Neighbour, Picture, Reading, Round,
    job_ms,
};
pub use observed::Observed;
pub use understood::Understood;
