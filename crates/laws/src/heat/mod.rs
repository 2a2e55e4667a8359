//! Getting a casting warm, evenly, and down again slowly.

mod band;
mod bead_order;
mod bead_rise;
mod chain;
mod cooling;
mod dying_fire;
mod edge;
mod gas;
mod heating;
mod hot_work;
mod learned;
mod lump;
mod reading;
mod refit;
mod running;
mod sim_cache;
mod source;
mod thermal_stress;

pub use crate::sim::{Bar, BarPower, ThermalBody, energy_joules};
pub use band::{HeatingBand, HeatingKnown, heating_band};
pub use bead_order::{
    BeadCourse, BeadPlace, BeadSchedule, BeadSeam, BeadWork, EDGE_FELT_WITHIN_MM, HoleOf, LeftOut, MayBegin,
    Pass as BeadPass, PastBead, PlannedBead, along_a_seam, bead_order,
};
pub use bead_rise::{FreeEdges, LaidBead, WallEnds, bead_rise_k};
pub use chain::{ChainStep, Descent, cooling_chain};
pub use cooling::{Cooling, Packing, TOUCH_C, UNWRAP_C, Wrapping, cool, cool_scaled};
pub use dying_fire::DyingFire;
pub use edge::{HARD_EDGE_S, Pass, softening_preheat_c, t8_5_s};
pub use gas::{Gas, Withdrawal, burnt_together, gas_need_m3, runs_out_min, withdrawal};
pub use heating::{Heating, ceiling_c, heat_for, heat_until};
pub use hot_work::hot_work_clearance;
pub use learned::{FactorOf, OwnFactor, against_usual, not_known, own_factor, packing_words};
pub use lump::{Fall, OutOfHeat, OvenRun, in_the_oven_c};
pub use reading::{DONT_STEER_UNDER, Infrared, PadOn, ReadOff, Sticks, sticks};
pub use refit::FACTORS;
pub use refit::{CoolingFit, ReadAt, cooling_fit, heating_fit, one_each, says_enough, thinned};
pub use running::SMALLEST_FLAME;
pub use running::{Burning, Burnt, Running};
pub use sim_cache::SimCache;
pub use source::{Fuel, HeatSource, SourceKind};
pub use thermal_stress::{HotSpot, RUNS_FROM, stress_intensity, thermal_stress_mpa};
