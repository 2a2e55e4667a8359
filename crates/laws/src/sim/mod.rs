//! The one place where heat moves: a part as a bar, as a lump, and inside the shells of its packing. The plan,
//! the simulated pad and whatever else has to know a temperature step these.

mod bar;
mod body;
mod cooling;

pub(crate) use bar::EMISSIVITY;
pub use bar::{Bar, BarPower};
pub(crate) use body::{STEFAN_BOLTZMANN, ZERO_C, loss_w_m2k};
pub use body::{ThermalBody, energy_joules};
pub(crate) use cooling::{Cools, Lump, Outside, Shell, Shells};
