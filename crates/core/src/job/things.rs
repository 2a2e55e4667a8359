//! What a job holds beside its fields: pictures, faces, cracks, marks, hard spots, neighbours, timed steps.

use serde::Serialize;
use uuid::Uuid;

use crate::map::{FACE_MOST_MM, MarkKind, Straightened};

/// A place that is hard although the iron is not.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HardSpot {
    /// The fact that added it.
    pub id: Uuid,
    /// Where, in words.
    pub spot: String,
    pub found_in_round: usize,
}

/// A step of the work, timed on the bench.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Timed {
    /// The fact that began it.
    pub fact: Uuid,
    /// As the hours call it: `clean`.
    pub step: String,
    /// UTC, ms since 1970; `to_ms` nothing while it runs.
    pub from_ms: i64,
    pub to_ms: Option<i64>,
}

/// Something beside the joint that must stay cool.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Neighbour {
    /// The fact that added it.
    pub id: Uuid,
}

/// A face of the part, flat as it is mapped.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Face {
    /// The fact that added it.
    pub id: Uuid,
    /// "face 1"
    pub name: String,
    pub added_in_round: usize,
    pub picture: Option<FacePicture>,
}

/// The picture that lies on a face, and how.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FacePicture {
    pub picture: Uuid,
    /// Two points on a known distance, or four corners.
    pub points_px: Vec<[f64; 2]>,
    /// Of the picture: width, height.
    pub size_px: [f64; 2],
    pub across_mm: f64,
    /// Of a rectangle.
    pub down_mm: Option<f64>,
    /// The fact that laid it there.
    pub revision: u64,
}

impl FacePicture {
    /// How it lies; nothing where its points make no scale.
    #[must_use]
    pub fn straightened(&self) -> Option<Straightened> {
        match (self.points_px.as_slice(), self.down_mm) {
            (&[a, b], _) => Straightened::by_distance(a, b, self.across_mm).ok(),
            (&[a, b, c, d], Some(down)) => Straightened::by_corners([a, b, c, d], self.across_mm, down).ok(),
            _ => None,
        }
    }

    /// What it shows of the face, in mm: (left, top, right, bottom). A slanted picture shows far more than
    /// the rectangle that was measured; what lies further out than three times its size is left out.
    #[must_use]
    pub fn frame(&self) -> Option<(f64, f64, f64, f64)> {
        let [width, height] = self.size_px;
        let most_mm = match self.down_mm {
            Some(down) => 1.5 * self.across_mm.max(down),
            None => FACE_MOST_MM,
        };
        self.straightened()?.shown(width, height, most_mm)
    }
}

/// A thing of the trade that lies on a face.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Mark {
    /// The fact that added it.
    pub id: Uuid,
    pub what: MarkKind,
    /// "bolt hole 2"
    pub name: String,
    pub found_in_round: usize,
}

/// A picture of the part.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Picture {
    /// The fact that added it; the picture itself is kept under it.
    pub id: Uuid,
    /// UTC, ms since 1970.
    pub at_ms: i64,
    pub taken_in_round: usize,
    /// What it proves, by its id; nothing where it shows the part.
    #[serde(default)]
    pub of: Option<Uuid>,
}

/// A crack on the map.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Crack {
    /// The fact that added it.
    pub id: Uuid,
    /// A, B, ... in the order found.
    pub letter: String,
    /// The round in which it was found, from 1.
    pub found_in_round: usize,
    /// The place in the log of the fact that added it.
    pub revision: u64,
}
