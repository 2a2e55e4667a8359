//! Checked quantities, what people type, and how a quantity is shown.

mod amount;
mod checked;
mod drills;
mod shown;
mod spoken;
mod typed;

pub use amount::{AMOUNTS, PRICES, SaidAmount, SaidIn, parse_amount, parse_price, typed_amount};
pub use checked::{Celsius, Kelvins, Kilograms, Millimetres, Seconds, WallMillimetres, Watts};
pub use drills::for_a_thread as drill_mark;
pub use drills::{marked as marked_drills, parse_drills};
pub use shown::MM_PER_IN;
pub use shown::{
    Rounding, Shown, Unit, UnitSystem, both, exactly, minutes_shown, money, number, of_100, rounded,
};
pub use spoken::CURRENCY_SIGNS;
pub use typed::{Kind, NotUnderstood, Typed, parse};
