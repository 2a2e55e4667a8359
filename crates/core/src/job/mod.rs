//! A job is a log of facts; the present job is its fold.

mod accept;
mod change;
mod fields;
mod fold;

pub use accept::{Conflict, Refusal, accept, duplicate, importable};
pub use change::{Change, Fact, TorchEntry};
pub use fields::{
    CRACK_FIELDS, Choice, END_KINDS, FieldKind, FieldSpec, FieldValue, JOB_FIELDS, SAFETY_CLASSES,
    SHOP_FIELDS, crack_key, job_field, parse_value, shop_field,
};
pub use fold::{Crack, Held, Job, Lit, LogEntry, Observed, Reading, Round};
