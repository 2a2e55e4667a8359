//! Checked quantities, what people type, and how a quantity is shown.

mod checked;
mod shown;
mod typed;

pub use checked::{Celsius, Kelvins, Kilograms, Millimetres, Seconds, WallMillimetres, Watts};
pub use shown::{Shown, Unit, UnitSystem, both, number};
pub use typed::{Kind, NotUnderstood, Typed, parse};
