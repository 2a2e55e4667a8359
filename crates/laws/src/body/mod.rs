//! The part as a flat body: a drawn face with its holes, walls and cracks, heated, cooled, welded and loaded.
//!
//! Linear elasticity in plane stress and heat conduction in the plane of the face, by quadratic triangles.
//! All lengths are in mm, forces in N, stresses in MPa, heat in W, times in s.

mod corners;
mod element;
mod face;
mod heat;
mod laid_out;
#[cfg(test)]
mod laws;
mod lines;
mod load;
mod lookup;
mod margin;
mod mesh;
mod model;
mod numbering;
mod opening;
mod pull;
mod section;
mod slit;
mod sparse;
mod stress;
mod symmetric;
mod tips;

pub use corners::InnerCorner;
pub use face::{Edge, FlatBody, Hole, ThickPlace};
pub use heat::{Flame, Heated, Heating as BodyHeating, Pace, heat};
pub use laid_out::NoMesh;
pub use load::{Boundary, Carried, Force, Loading, Towards, carried};
pub use margin::{GRAVITY, margin_notes};
pub use model::{Cells, FaceModel, Look};
pub use opening::{RUNS_LIKELY_FROM, TipLook, WATCHED_FROM, tips_while_heated};
pub use pull::{Pulled, Shrinks, flame_shrink_mm, held_in, pulled, shrink_mm};
pub use section::{Corner, Load, Panel, Section, Shock, Stands, Strength, dropped, strength};
pub use sparse::NotHeld;
pub use tips::{NotReckoned, Tip};
