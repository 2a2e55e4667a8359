//! A face laid out in triangles: a constrained Delaunay triangulation, finer where it has to be.

use spade::handles::FixedVertexHandle;
use spade::{
    ConstrainedDelaunayTriangulation, InsertionError, Point2, PositionInTriangulation, Triangulation,
};

use super::face::{FlatBody, ONE_PLACE_MM};
use super::lines::{Fine, Line, Pieces, Sizes};
use super::mesh::{Mesh, Slits, twice_area};
use super::numbering::Numbering;
use crate::map::{At, inside, nearest};

/// Why there is no mesh.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoMesh {
    #[error("this face cannot be laid out in triangles")]
    Lines,
    #[error("this face needs more than {MOST_TRIANGLES} triangles")]
    TooFine,
}

/// House: a finer face takes too long.
const MOST_TRIANGLES: usize = 12_000;
/// House: a triangle whose circle's radius is over so much of the side that is wanted is parted.
const TOO_LARGE: f64 = 0.68;
/// House: a new corner lies no nearer to another one than so much of the side that is wanted.
const TOO_NEAR: f64 = 0.6;
/// House: rounds of parting.
const ROUNDS: usize = 40;

type Delaunay = ConstrainedDelaunayTriangulation<Point2<f64>>;

impl From<InsertionError> for NoMesh {
    fn from(_: InsertionError) -> Self {
        Self::Lines
    }
}

impl Mesh {
    /// The mesh of a face, as fine as is asked and as narrow iron needs.
    ///
    /// # Errors
    /// Lines that cannot be laid out.
    pub fn of(
        piece: &FlatBody,
        followed: &[Vec<At>],
        fine: Vec<Fine>,
        slits: &Slits,
    ) -> Result<Self, NoMesh> {
        let mut pieces = Pieces::of(piece, followed);
        let mut sizes = Sizes { largest_mm: (piece.area_mm2() / TRIANGLES_OF_A_FACE).sqrt(), fine };
        sizes.fine.extend(narrow_places(&pieces, sizes.largest_mm));
        pieces.split(&sizes);
        let rims = piece.rims();
        let has_iron = |at: At| inside(&rims[0], at) && !rims[1..].iter().any(|rim| inside(rim, at));
        let mut delaunay = laid_out(&pieces)?;
        refine(&mut delaunay, &sizes, &has_iron)?;
        Ok(Self::from_delaunay(&delaunay, &pieces, piece, slits, &has_iron))
    }

    fn from_delaunay(
        delaunay: &Delaunay,
        pieces: &Pieces,
        piece: &FlatBody,
        slits: &Slits,
        has_iron: &dyn Fn(At) -> bool,
    ) -> Self {
        let places: Vec<At> = delaunay.vertices().map(|vertex| place(vertex.position())).collect();
        let corners: Vec<[usize; 3]> = delaunay
            .inner_faces()
            .map(|face| face.vertices().map(|vertex| vertex.index()))
            .filter(|corners| is_iron(corners.map(|corner| places[corner]), has_iron))
            .collect();
        let thick: Vec<(Vec<At>, f64)> =
            piece.thick.iter().map(|place| (place.place.rim(), place.wall_mm)).collect();
        let walls_mm = corners
            .iter()
            .map(|corners| {
                let at = middle(corners.map(|corner| places[corner]));
                let own = thick.iter().rev().find(|(rim, _)| inside(rim, at));
                own.map_or(piece.wall_mm, |(_, wall)| *wall)
            })
            .collect();
        Numbering::new(&corners, &places, pieces, slits).mesh(&piece.cracks, walls_mm)
    }
}

/// House: so many triangles of the largest size cover a face.
const TRIANGLES_OF_A_FACE: f64 = 220.0;
/// A triangle of less area than this share of its longest side's square is none.
const FLATTEST: f64 = 1e-7;
/// Triangles across narrow iron.
const ACROSS: f64 = 2.2;

fn place(at: Point2<f64>) -> At {
    At::new(at.x, at.y)
}

fn middle([a, b, c]: [At; 3]) -> At {
    At::new((a.x_mm + b.x_mm + c.x_mm) / 3.0, (a.y_mm + b.y_mm + c.y_mm) / 3.0)
}

/// Whether a triangle is of the face. Where a slanting rim was cut, the pieces lie off the straight line by the last
/// bit of a number: what lies between is no iron.
fn is_iron(corners: [At; 3], has_iron: &dyn Fn(At) -> bool) -> bool {
    let [a, b, c] = corners;
    let long = a.distance_mm(b).max(b.distance_mm(c)).max(c.distance_mm(a));
    twice_area(a, b, c).abs() > FLATTEST * long * long && has_iron(middle(corners))
}

/// Where iron lies narrow between rims: looked across from each stretch of a rim, both ways.
fn narrow_places(pieces: &Pieces, largest_mm: f64) -> Vec<Fine> {
    let rims: Vec<(At, At)> = pieces
        .pieces
        .iter()
        .filter(|(_, line)| **line == Line::Rim)
        .map(|((from, to), _)| (pieces.places[*from], pieces.places[*to]))
        .collect();
    let mut narrow = Vec::new();
    for (own, (a, b)) in rims.iter().enumerate() {
        let Some((dx, dy)) = a.toward(*b) else { continue };
        let steps = (a.distance_mm(*b) / largest_mm).ceil().max(1.0);
        for step in 0..steps as usize {
            let at = a.between(*b, (step as f64 + 0.5) / steps);
            for side in [(dy, -dx), (-dy, dx)] {
                let far = (at, at.along(side, ACROSS * largest_mm));
                let across_mm = rims
                    .iter()
                    .enumerate()
                    .filter(|(other, _)| *other != own)
                    .filter_map(|(_, rim)| crate::map::crossing(far, *rim))
                    .map(|meets| meets.distance_mm(at))
                    .filter(|across| *across > ONE_PLACE_MM)
                    .fold(f64::INFINITY, f64::min);
                if across_mm.is_finite() {
                    narrow.push(Fine { at, size_mm: across_mm / ACROSS });
                }
            }
        }
    }
    narrow
}

fn laid_out(pieces: &Pieces) -> Result<Delaunay, NoMesh> {
    let mut delaunay = Delaunay::new();
    let mut handles: Vec<FixedVertexHandle> = Vec::with_capacity(pieces.places.len());
    for at in &pieces.places {
        handles.push(delaunay.insert(Point2::new(at.x_mm, at.y_mm))?);
    }
    for (from, to) in pieces.pieces.keys() {
        let (from, to) = (handles[*from], handles[*to]);
        if from == to || !delaunay.can_add_constraint(from, to) {
            return Err(NoMesh::Lines);
        }
        delaunay.add_constraint(from, to);
    }
    Ok(delaunay)
}

/// Corners added in the middle of what is too large, or too flat, until there is none.
fn refine(delaunay: &mut Delaunay, sizes: &Sizes, has_iron: &dyn Fn(At) -> bool) -> Result<(), NoMesh> {
    for _ in 0..ROUNDS {
        let mut wanted: Vec<(f64, At, f64)> = Vec::new();
        for face in delaunay.inner_faces() {
            let corners = face.positions().map(place);
            let (centre, radius2) = face.circumcircle();
            let (centre, radius) = (place(centre), radius2.sqrt());
            let size = sizes.at(middle(corners));
            let shortest = (0..3)
                .map(|side| corners[side].distance_mm(corners[(side + 1) % 3]))
                .fold(f64::INFINITY, f64::min);
            let too_large = radius / (TOO_LARGE * size);
            let too_flat = radius / (1.25 * shortest);
            if (too_large > 1.0 || too_flat > 1.0) && has_iron(middle(corners)) {
                let apart = if too_large > 1.0 { TOO_NEAR * size } else { 0.8 * shortest };
                wanted.push((too_large.max(too_flat), centre, apart));
            }
        }
        // The worst first.
        wanted.sort_by(|one, other| other.0.total_cmp(&one.0));
        let mut added = 0;
        for (_, at, apart) in wanted {
            if has_iron(at) && is_free(delaunay, at, apart) {
                delaunay.insert(Point2::new(at.x_mm, at.y_mm))?;
                added += 1;
            }
        }
        if delaunay.num_inner_faces() > 2 * MOST_TRIANGLES {
            return Err(NoMesh::TooFine);
        }
        if added == 0 {
            break;
        }
    }
    Ok(())
}

/// Whether a corner may be put here: away from others, and not in front of a line.
fn is_free(delaunay: &Delaunay, at: At, apart_mm: f64) -> bool {
    let PositionInTriangulation::OnFace(face) = delaunay.locate(Point2::new(at.x_mm, at.y_mm)) else {
        return false;
    };
    let face = delaunay.face(face);
    let near_line = face.adjacent_edges().iter().any(|edge| {
        let [a, b] = edge.positions().map(place);
        edge.is_constraint_edge()
            && nearest(&[a, b], at).is_some_and(|near| near.distance_mm < 0.35 * a.distance_mm(b))
    });
    // Its own corners, and those across its sides: nobody else is nearer in a Delaunay triangulation but seldom.
    let near_corner = face.adjacent_edges().iter().any(|edge| {
        let across = edge.rev().next().to();
        [edge.from(), across].iter().any(|corner| place(corner.position()).distance_mm(at) < apart_mm)
    });
    !near_line && !near_corner
}
