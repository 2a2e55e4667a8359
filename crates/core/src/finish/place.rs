//! What a mended place has to be when it goes out.

/// What a place has to be.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FinishAs {
    /// The crown stays on, for strength and to be read.
    Leave,
    /// Level with the casting.
    Flush,
    /// Level, and like the skin beside it.
    Seen,
    /// Something lies flat on it.
    Fits,
    /// Something turns or slides in it.
    Runs,
    /// Something is sealed against it.
    Seals,
}

impl FinishAs {
    pub const ALL: [Self; 6] = [Self::Leave, Self::Flush, Self::Seen, Self::Fits, Self::Runs, Self::Seals];

    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Leave => "leave",
            Self::Flush => "flush",
            Self::Seen => "seen",
            Self::Fits => "fits",
            Self::Runs => "runs",
            Self::Seals => "seals",
        }
    }

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|it| it.id() == id)
    }
}
