//! A line of the work list, as it is ticked.

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// What is done before the heat and after it, in the order of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Work {
    Clean,
    BakeOut,
    FindEnds,
    OldFiller,
    BurntEdge,
    FitUp,
    TackGroove,
    Witness,
    Punch,
    Pilot,
    Drill,
    Turn,
    Open,
    Shape,
    Countersink,
    Backing,
    Pins,
    Margins,
    Inside,
    PenetrantOut,
    Demagnetise,
    PaintOff,
    /// What the method alone asks for.
    OfMethod,
    Dry,
    /// Something that lies ready before it is lit.
    LayOut,
    // Of the proof with water: each begins when it is ticked.
    Filled,
    Held,
    Drained,
    // Of the finish, once it is cold and good.
    SlagOff,
    CrownDown,
    Even,
    Flat,
    Round,
    Skin,
    EdgesBroken,
    StrapOn,
    Putty,
    Primer,
    Paint,
}

impl Work {
    pub const ALL: [Self; 39] = [
        Self::Clean,
        Self::BakeOut,
        Self::FindEnds,
        Self::OldFiller,
        Self::BurntEdge,
        Self::FitUp,
        Self::TackGroove,
        Self::Witness,
        Self::Punch,
        Self::Pilot,
        Self::Drill,
        Self::Turn,
        Self::Open,
        Self::Shape,
        Self::Countersink,
        Self::Backing,
        Self::Pins,
        Self::Margins,
        Self::Inside,
        Self::PenetrantOut,
        Self::Demagnetise,
        Self::PaintOff,
        Self::OfMethod,
        Self::Dry,
        Self::LayOut,
        Self::Filled,
        Self::Held,
        Self::Drained,
        Self::SlagOff,
        Self::CrownDown,
        Self::Even,
        Self::Flat,
        Self::Round,
        Self::Skin,
        Self::EdgesBroken,
        Self::StrapOn,
        Self::Putty,
        Self::Primer,
        Self::Paint,
    ];

    /// Water on it, or what comes after that: nothing of it is done to hot iron.
    #[must_use]
    pub fn wants_it_cold(self) -> bool {
        self >= Self::Filled
    }

    /// It is done to a part that is cold and good.
    #[must_use]
    pub fn finishes(self) -> bool {
        self >= Self::SlagOff
    }

    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Clean => "Clean",
            Self::BakeOut => "Bake out",
            Self::FindEnds => "Find the ends",
            Self::OldFiller => "Old filler out",
            Self::BurntEdge => "Bad metal back",
            Self::FitUp => "Fit together",
            Self::TackGroove => "Grooves for tacks",
            Self::Witness => "Witness line",
            Self::Punch => "Punch",
            Self::Pilot => "Pilot",
            Self::Drill => "Drill",
            Self::Turn => "Lay it",
            Self::Open => "Open the groove",
            Self::Shape => "Shape it",
            Self::Countersink => "Countersink",
            Self::Backing => "Backing",
            Self::Pins => "Pins",
            Self::Margins => "Margins",
            Self::Inside => "Inside",
            Self::PenetrantOut => "Dye and oil out",
            Self::Demagnetise => "Demagnetise",
            Self::PaintOff => "Paint off",
            Self::OfMethod => "For this method",
            Self::Dry => "Dry",
            Self::LayOut => "Laid out",
            Self::Filled => "Filled and vented",
            Self::Held => "Held",
            Self::Drained => "Let down and drained",
            Self::SlagOff => "Flux glass and slag off",
            Self::CrownDown => "Crown down",
            Self::Even => "Even it",
            Self::Flat => "Flat",
            Self::Round => "Round and free",
            Self::Skin => "Skin",
            Self::EdgesBroken => "Edges broken",
            Self::StrapOn => "Strap on",
            Self::Putty => "Putty",
            Self::Primer => "Primer",
            Self::Paint => "Paint",
        }
    }
}

/// Which line it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WorkStep {
    pub what: Work,
    /// The crack, face or mark it is done at; left out for what is done once.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<Uuid>,
    /// Which of several there: an end from 1. Of what is done at several cracks or holes at once, what tells these
    /// from any others.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub number: Option<u32>,
}

impl WorkStep {
    /// Something that lies ready, by what it says: where that changes, it is laid out anew.
    #[must_use]
    pub fn laid_out(words: &str) -> Self {
        /// Prime of the FNV-1a hash of 32 bits.
        const PRIME: u32 = 16_777_619;
        let number = words
            .bytes()
            .fold(2_166_136_261_u32, |so_far, byte| (so_far ^ u32::from(byte)).wrapping_mul(PRIME));
        Self { what: Work::LayOut, at: None, number: Some(number) }
    }
}
