//! The rules of repairing cast iron, pure: facts in, plan out. No I/O, no clock.

/// The laws that all of it stands on: they know no job.
pub use vanadin_laws::{base, body, casting, crack, heat, iron, map, pins, prep, quantity, render, sim};

pub mod effort;
pub mod faults;
pub mod field;
pub mod figure;
pub mod finish;
pub mod job;
pub mod ledger;
pub mod method;
pub mod plan;
pub mod practice;
pub mod reckoner;
pub mod record;
pub mod secret;
pub mod shelf;
pub mod shop;
pub mod simulated_thermocouple;
pub mod stage;
pub mod stores;
