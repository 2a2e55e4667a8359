//! Laws of preparing a joint: groove, filler, fit, missing metal.

pub mod drill_speed;
pub mod filler;
pub mod fit_up;
pub mod groove;
pub mod groove_volume;
pub mod missing_metal;
pub mod said;
pub mod strap;
