//! The ten stages of a job, in the order of the work: what is planned at each, and what is to be said of it.

pub(crate) mod afterwards;
pub(crate) mod check;
pub(crate) mod cooling;
pub(crate) mod cracks;
pub(crate) mod finish;
pub(crate) mod hand_over;
pub(crate) mod heat;
pub(crate) mod iron;
pub(crate) mod looked;
pub(crate) mod map;
pub(crate) mod method;
pub(crate) mod part;
pub(crate) mod pictured;
pub(crate) mod prep;
pub(crate) mod proof;
pub(crate) mod really;
pub(crate) mod rounds_told;
pub(crate) mod scrap;
#[expect(clippy::module_inception, reason = "what all the stages have in common has no other name")]
mod stage;
mod station;
pub(crate) mod strap;
pub(crate) mod taught;
pub(crate) mod torch;

pub use afterwards::{AfterwardsPlan, AnswerLine, AskLine};
pub use check::{CheckLine, CheckState, FoundChoice, LookLine, PlaceLine, PlaceOnMap, ThenChoice};
pub use cooling::{ChainLine, CoolingBetween, CoolingPlan, Going};
pub use cracks::{CrackPlan, EndAt, EndPlan, Grown, RunOut, WallAlong};
pub use finish::{FinishChoice, FinishLine, FinishPlace, FinishPlan};
pub use hand_over::{CameBack, HandOverPlan, LabelPlan};
pub use heat::{
    GasPlan, HeatBetween, HeatPlan, HeatStep, HeatStepPlan, InfraredPlan, OvenSegment, RunsOn, StaysCool,
    TriedHeat,
};
pub use iron::{
    AskedView, Demand, FoundLine, FoundState, IronPlan, MeasuredView, NextTest, OutcomeView, Share, StepView,
    TestView, measured_tests, tool_roll,
};
pub use map::{
    Clash, FacePlan, FaceSeen, Frame, HoleOnFace, LineOnFace, LockOnFace, MapPlan, MarkOnFace, PinOnFace,
    TackOnFace, Unplaced,
};
pub use method::{
    Contender, MethodPlan, Moment, OddsLine, Price, PriceLine, Ready, SchoolChoice, SessionPlan, SettingLine,
    StepOpened, WayOpened,
};
pub use part::{Forbidden, PartPlan, Side, Sketch};
pub use pictured::{PictureLine, PictureOf};
pub use prep::{
    BenchPlan, BreakPlan, GroundAt, GroundSays, MissingPlan, OverIt, PatchPlan, PatchRun, PatchSeam,
    PinsThat, PrepItem, PrepPlan, ReadLine, SeamCut, SeamPlan, SizePlan, SizeReading, SizeStrip, TackPlan,
    UsualSeam, WorkLine,
};
pub use proof::{ProofPlan, ProofStep};
pub use really::{OtherThing, ReallyPlan, UsedLine};
pub use rounds_told::RoundTold;
pub(crate) use stage::Stage;
pub use stage::{Caution, Lock, Missing};
pub use station::{Amount, Station, StationState};
pub use strap::{StrapDrawn, StrapPlan};
pub use taught::{TAUGHT, Taught};
pub use torch::{
    AtTorch, BeadOnFace, BeadsAhead, BeadsPlan, CauseView, GoOn, JointView, LayLine, LayerStrip, Live,
    LiveBead, MustStop, NextBead, NextPin, PadSeen, RehearsalStep, SeamStrip, StopRule, StopWay, StripBead,
    TackState, TackTurn, TorchClock, TorchPlan, TroubleView, hottest, live,
};
