//! The crack map: faces of the part in mm, what lies on them, and what follows from where it lies.

mod drawing;
mod ends;
mod face;
mod mark;
mod pages;
mod plane;
mod straighten;
mod trace;

pub use drawing::{Drawing, Layer, Stroke};
pub use ends::{ON_IT_MM, breaks_out, goes_on_to, nearest_rim, tacks_mm};
pub use face::{Outline, OutlineKind, bounds, circle, circle_of};
pub use mark::DrawnAs;
pub use mark::{
    Drawn, FaceEdge, FlamePlace, LINE_LEAST_MM, MarkKind, OnFace, OwnThing, POINTS_MOST, Placed, Shape,
    Vertex,
};
pub use pages::{OVERLAP_MM, PAGE_MM, Page, Pages};
pub use plane::{
    At, Nearest, area_mm2, beside, closed, crosses_itself, crossing, end_direction, inside, length_mm,
    nearest, part_of, place_along, serialize_drawn, serialize_drawn_at, simplified,
};
pub use straighten::{CORNERS_APART_PX, FACE_MOST_MM, Straightened};
pub use trace::{GrayPicture, Line, traced};
