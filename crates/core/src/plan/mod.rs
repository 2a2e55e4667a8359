//! The plan: a pure function of the facts. One module a stage, in the order of the work.

mod available;
mod check;
mod cooling;
mod cracks;
mod gate;
mod heat;
mod hot;
mod iron;
mod line;
mod make;
mod method;
mod part;
mod prep;
mod standing;
mod station;
mod torch;

pub use crate::method::Place;
pub use available::{Available, FETCHED_AT_HOUR, available};
pub use check::{CheckLine, HandOverPlan};
pub use cooling::{CoolingBetween, CoolingPlan};
pub use cracks::{CrackPlan, EndPlan};
pub use gate::{Gate, GateLine};
pub use heat::{HeatBetween, HeatPlan};
pub use hot::LastHeat;
pub use iron::{
    Answer, AskedView, Demand, FoundLine, FoundState, IronPlan, MeasuredView, NextTest, OutcomeView, Share,
    StepView, TestView, answers,
};
pub use line::PlanLine;
pub use make::{Plan, plan, plan_as_if, plan_with};
pub use method::{Contender, MethodPlan, SchoolChoice};
pub use part::{Caution, Forbidden, Lock, Missing, PartPlan};
pub use prep::{PrepItem, PrepPlan, SeamPlan};
pub use standing::{Hot, Next, Standing, Standings, standing};
pub use station::{Amount, Station, StationState};
pub use torch::{AtTorch, JointView, Live, TorchPlan, live};
