//! The drawn face of a part as it is heated: where it is warm when, which tips open, where to begin.
//!
//! It takes a tenth of a second, not the milliseconds of a plan: it is asked for, and kept, on its own.

mod begin;
mod course;
mod load;
mod logged;
mod moments;
mod part;
mod pull;
mod warm;
mod way_down;
mod words;

pub use begin::{Beginning, Beginnings, OpensMost, begins_words, where_to_begin};
pub use course::{FlamePlacement, PATH_MOST};
pub use load::{FaceLoad, face_load};
pub use logged::face_logged;
pub use moments::{FaceHeat, FaceMoment, HeatedTip, PlaceOnFace, face_heat, face_warmth};
pub use part::{CoolingFace, FacePart, cooling_face, face_part};
pub use pull::{KeptDistance, OtherWay, SeamPull, SeamPulls, seam_pulls};
pub use warm::{Opens, WarmFace, opens};
pub use way_down::face_cooling;
