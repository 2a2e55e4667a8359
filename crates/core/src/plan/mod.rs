//! The plan: a pure function of the facts. Ten stages folded, and what hangs on all of them.

mod answers;
mod asked_back;
mod asks;
mod available;
mod calendar;
mod folded;
mod gate;
mod hot;
mod hot_now;
mod learned;
mod lightings;
mod line;
mod make;
mod method_context;
mod next;
mod odds_moved;
mod offered;
mod on_the_face;
mod other_ways;
mod stages;
mod status;
mod tips;
mod warming;
mod way_plan;
mod whole;
mod would;

pub use crate::method::WindowPosition;
pub use crate::stage::{
    AfterwardsPlan, Amount, AnswerLine, AskLine, AskedView, AtTorch, BeadsPlan, BenchPlan, BreakPlan,
    Caution, CheckLine, CheckState, Contender, CoolingBetween, CoolingPlan, CrackPlan, Demand, EndPlan,
    FacePlan, FinishLine, FinishPlan, Forbidden, FoundLine, FoundState, GasPlan, GoOn, GroundSays,
    HandOverPlan, HeatBetween, HeatPlan, HoleOnFace, InfraredPlan, IronPlan, JointView, LayLine, LineOnFace,
    Live, Lock, MapPlan, MarkOnFace, MeasuredView, MethodPlan, Missing, Moment, MustStop, NextTest,
    OutcomeView, OvenSegment, PadSeen, PartPlan, PatchPlan, PatchRun, PatchSeam, PinsThat, PrepItem,
    PrepPlan, Price, PriceLine, Ready, RehearsalStep, SchoolChoice, SeamPlan, Share, Side, Sketch, Station,
    StationState, StepOpened, StepView, StopRule, TAUGHT, TackState, TackTurn, Taught, TestView, TorchPlan,
    UsedLine, WayOpened, WorkLine, live, measured_tests, tool_roll,
};
pub use answers::{Answer, answers};
pub use asked_back::{AskedBack, asked_back};
pub use asks::{Asks, Gone};
pub use available::{Available, FETCHED_AT_HOUR, available};
pub use calendar::{Event, HandsBooked, When, events, hands_booked};
pub use gate::{Gate, GateLine};
pub use hot::LastHeat;
pub use hot_now::Hot;
pub use lightings::LightingPlan;
pub use line::PlanLine;
pub use make::{plan, plan_as_if, plan_at, plan_with};
pub use next::Next;
pub use odds_moved::{OddsMoved, OddsThen, odds_moved_last, odds_then};
pub use offered::Offered;
pub use on_the_face::{
    Beginning, Beginnings, CoolingFace, FaceHeat, FaceLoad, FaceMoment, FacePart, FlamePlacement, HeatedTip,
    KeptDistance, Opens, OpensMost, OtherWay, PATH_MOST, PlaceOnFace, SeamPull, SeamPulls, WarmFace,
    cooling_face, face_cooling, face_heat, face_load, face_logged, face_part, face_warmth, opens, seam_pulls,
    where_to_begin,
};
pub use other_ways::other_ways;
pub use status::{JobStatus, StatusTimeline, status};
pub use whole::Plan;
pub use would::{Becomes, Would, would};
