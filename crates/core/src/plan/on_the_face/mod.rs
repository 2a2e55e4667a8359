//! The drawn face of a part as it is heated: where it is warm when, which tips open, where to begin.
//!
//! It takes a tenth of a second, not the milliseconds of a plan: it is asked for, and kept, on its own.

mod begin;
mod moments;
mod part;
mod pull;
mod words;

pub use begin::{Beginning, Beginnings, where_to_begin};
pub use moments::{FaceHeat, FaceMoment, FlameAsked, HeatedTip, PlaceOnFace, face_heat};
pub use part::{FacePart, face_part};
pub use pull::{SeamPull, SeamPulls, seam_pulls};
