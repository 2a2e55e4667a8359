//! What can be said of a job.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

use super::{Became, CheckPlace, Lighting, Parsed, SeamReadingKind, TorchEntry, WentAt, WorkStep};
use crate::base::log::{self, Taking, Word};
use crate::faults::acceptance::{Found, Then};
use crate::iron::{Confidence, TypedValues};
use crate::map::{Drawn, FlamePlace, MarkKind};
use crate::quantity::UnitSystem;
use crate::record::{Estimate, FrozenPlan};
use crate::secret::Practised;

/// One change to a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Change {
    /// A field was typed; empty makes it unknown again. Without a unit it means `shown_in`.
    Set {
        key: String,
        typed: String,
        shown_in: UnitSystem,
    },
    /// A bench test was done. `outcome` is the test's outcome id; of `mark`, the iron's id.
    Observe {
        test: String,
        outcome: String,
        confidence: Confidence,
        spot: String,
    },
    /// A test that is measured or read was done: `sound`, `density` or `mark`, as typed.
    Measure {
        test: String,
        typed: TypedValues,
        shown_in: UnitSystem,
        confidence: Confidence,
        spot: String,
    },
    /// A place is hard and the iron is not: it goes on the map. An observation it explains no longer
    /// speaks for the iron.
    AddHardSpot {
        spot: String,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        observed: Option<Uuid>,
    },
    /// Something beside the joint must stay cool; its fields are set by
    /// `neighbour.<id of this fact>.<field>`.
    AddNeighbour,
    /// A picture was taken; its fields are set by `picture.<id of this fact>.<field>`. Said by the
    /// server, once the picture itself is stored.
    AddPicture {
        /// What it proves: what was said at the torch, a look, an answer how it holds, a mark, a crack, by its id.
        /// It may come before what it proves.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        of: Option<Uuid>,
    },
    /// A crack was found; its fields are set by `crack.<id of this fact>.<field>`.
    AddCrack,
    /// A face of the part; its fields are set by `face.<id of this fact>.<field>`.
    AddFace,
    /// A picture lies on a face: by two points on a known distance, or by the four corners of a rectangle,
    /// from its upper left one clockwise, in points of the picture. `typed` holds `across`, and `down` of
    /// a rectangle.
    Straighten {
        face: Uuid,
        picture: Uuid,
        points_px: Vec<[f64; 2]>,
        /// Of the picture: width, height.
        size_px: [f64; 2],
        typed: TypedValues,
        shown_in: UnitSystem,
    },
    /// A thing of the trade that lies on a face; its fields are set by `mark.<id of this fact>.<field>`.
    AddMark {
        what: MarkKind,
    },
    /// Where things lie: each with its whole shape on that face. What is moved together is said together.
    Draw {
        drawn: Vec<Drawn>,
    },
    /// One point of what is drawn, typed: `x` and `y` from the left and upper edge of the face, `from_before`
    /// the length from the point before it, `wall` the wall there, `across` of a circle.
    SetPoint {
        mark: Uuid,
        face: Uuid,
        point: usize,
        typed: TypedValues,
        shown_in: UnitSystem,
    },
    /// Where the flame begins on a drawn face, held there or swept over all of it; nothing takes it back.
    PutFlame {
        #[serde(default, skip_serializing_if = "Option::is_none")]
        flame: Option<FlamePlace>,
    },
    /// Something was measured at the seam of a crack while it was prepared. `number` says which tack.
    MeasureSeam {
        crack: Uuid,
        what: SeamReadingKind,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        number: Option<u32>,
        typed: TypedValues,
        shown_in: UnitSystem,
    },
    /// A line of the work list is done, or is not after all.
    Tick {
        step: WorkStep,
        done: bool,
    },
    /// A step of the finish is taken, or is not: whatever usually makes the place what it has to be.
    FinishStep {
        step: WorkStep,
        taken: bool,
    },
    /// A place was looked at after the repair. `typed` holds `size` where what was found is measured, and `count`, of
    /// pores, how many lie within 25 mm.
    Look {
        place: CheckPlace,
        found: Found,
        #[serde(default, skip_serializing_if = "TypedValues::is_empty")]
        typed: TypedValues,
        shown_in: UnitSystem,
        /// The same as it was counted by a version before.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        count: Option<u32>,
        /// What is done about it, where it is not good enough.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        then: Option<Then>,
        #[serde(default, skip_serializing_if = "String::is_empty")]
        note: String,
    },
    /// So much of a thing was really used. `typed` as people say it ("6", "0.4 kg", of a gas also what its gauge fell by,
    /// "180 to 135 bar"); empty takes it back.
    Use {
        /// As the stores call it: `nickel_iron`.
        what: String,
        /// Across, of rods, pins and drills.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        size_mm: Option<f64>,
        typed: String,
        /// What the cylinder holds when it is full, in m3: its gauge says nothing without.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        holds_m3: Option<f64>,
    },
    /// It was asked how the repair holds. `went` and `note` where it does not, or shows a fault.
    FollowUp {
        became: Became,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        went: Option<WentAt>,
        /// How long it had been at work: "400 hours".
        #[serde(default, skip_serializing_if = "String::is_empty")]
        after: String,
        /// How hot, which load, how often.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        did: String,
        #[serde(default, skip_serializing_if = "String::is_empty")]
        note: String,
        /// The odds of a year as they stood then, 0 to 1. The server adds them.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        odds: Option<f64>,
    },
    /// Something that this version cannot read, as it is stored. It is kept and shown, and cannot be said.
    Unreadable {
        text: String,
    },
    /// An observation, a crack, a hard spot, a neighbour, a picture or a torch entry was wrong: it stays in the log, struck.
    Strike {
        target: Uuid,
        reason: String,
    },
    /// Takes back an earlier change, or puts it back.
    Undo {
        target: Uuid,
    },
    Redo {
        target: Uuid,
    },
    /// The torch is lit. The server adds the plan as it then stood.
    Light {
        /// Speed of the job clock, 1 to 60.
        speed: f64,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        frozen: Option<Box<FrozenPlan>>,
        /// Who lights it although the heat at hand may not do, and why; empty where nobody has to.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        owned: String,
        #[serde(default, skip_serializing_if = "Lighting::is_main")]
        what: Lighting,
        /// What was to be laid out first and was not ticked. The server adds it as it then stood.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        without: Vec<String>,
    },
    /// The flame is off for good: a bake or a tacking is over.
    PutOut,
    /// A step of the work is being timed from now on, or no longer.
    Time {
        step: String,
        running: bool,
    },
    /// An estimate is given, until the day as typed. The server adds its lines as they then stood.
    Estimate {
        until: String,
        #[serde(default, skip_serializing_if = "Option::is_none")]
        frozen: Option<Box<Estimate>>,
    },
    /// The lighting is cancelled: possible until the first bead.
    CancelLight,
    Torch {
        entry: TorchEntry,
    },
    /// A crack showed up or ran on: the map is copied and stages 3 to 9 run again.
    NewRound {
        reason: String,
    },
    PutAway,
    BringBack,
    /// This is no repair but a practice on a made-up part. Said by the server, first of all.
    Practise {
        of: Box<Practised>,
    },
    /// So many minutes go by on the job clock at once: of a practice.
    Pass {
        minutes: f64,
    },
    /// What became of it: a practice is over, and nothing can be done any more.
    EndPractice,
}

/// One change of a job as it was stored.
pub type Fact = log::Fact<Change, Parsed>;

impl Word for Change {
    fn taking(&self) -> Taking {
        match self {
            Self::Undo { target } => Taking::Back(*target),
            Self::Redo { target } => Taking::Again(*target),
            Self::Set { .. }
            | Self::Observe { .. }
            | Self::Measure { .. }
            | Self::AddHardSpot { .. }
            | Self::AddNeighbour
            | Self::AddPicture { .. }
            | Self::AddCrack
            | Self::AddFace
            | Self::Straighten { .. }
            | Self::AddMark { .. }
            | Self::Draw { .. }
            | Self::SetPoint { .. }
            | Self::PutFlame { .. }
            | Self::MeasureSeam { .. }
            | Self::Tick { .. }
            | Self::FinishStep { .. }
            | Self::Look { .. }
            | Self::Use { .. }
            | Self::FollowUp { .. }
            | Self::Estimate { .. }
            | Self::Time { .. }
            | Self::Strike { .. } => Taking::Open,
            // What happened at the torch has happened: a wrong entry is struck instead.
            Self::Light { .. }
            | Self::CancelLight
            | Self::PutOut
            | Self::Torch { .. }
            | Self::NewRound { .. }
            | Self::Unreadable { .. }
            | Self::PutAway
            | Self::BringBack
            | Self::Practise { .. }
            | Self::Pass { .. }
            | Self::EndPractice => Taking::Closed,
        }
    }
}
