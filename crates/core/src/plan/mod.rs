//! The plan: a pure function of the facts. One module a stage, in the order of the work.

mod check;
mod cooling;
mod cracks;
mod frozen;
mod heat;
mod iron;
mod line;
mod make;
mod method;
mod part;
mod prep;
mod standing;
mod station;
mod torch;

pub use check::CheckLine;
pub use cooling::CoolingPlan;
pub use cracks::{CrackPlan, EndPlan};
pub use frozen::{FROZEN_FORMAT, FrozenPlan};
pub use heat::HeatPlan;
pub use iron::{IronPlan, NextTest, OutcomeView, Share, TestView};
pub use line::PlanLine;
pub use make::{Plan, plan};
pub use method::{Contender, MethodPlan};
pub use part::{Caution, Lock, Missing};
pub use prep::{PrepPlan, SeamPlan};
pub use standing::{Hot, Next, Standing, standing};
pub use station::{Amount, Station, StationState};
pub use torch::{AtTorch, Live, Place, TorchPlan, live};
