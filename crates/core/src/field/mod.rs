//! What can be typed: one table of fields, each with its key, kind, bounds and choices, read by typed keys.

pub mod choices;
mod holds;
mod parse;
mod spec;
mod table;

pub use choices::{NONE, ROD_CHOICES, SETS};
pub use holds::{Chosen, Holds, Many, Number, One, OneOf, Several, Text, YesNo, get};
pub(crate) use parse::within;
pub use parse::{ParseContext, is_no_letter, parse_value};
pub use spec::{
    Choice, Field, FieldKind, FieldOf, FieldOfEach, FieldSpec, FieldState, FieldValue, Keyed, Lasts,
};
pub use table::{
    CRACK_FIELDS, FACE_FIELDS, JOB_FIELDS, MARK_FIELDS, NEIGHBOUR_FIELDS, PICTURE_FIELDS, SHOP_FIELDS,
    STORE_FIELDS, check, cooling, crack, crack_key, face, face_key, finish, hand_over, heat, id_in,
    job_field, mark, mark_key, method, neighbour, neighbour_key, part, picture, picture_key, prep, shop,
    shop_field, shop_taught, store, store_key, taught,
};
