//! Triangles over a face: a constrained Delaunay triangulation, finer where it has to be, with a node at each
//! corner and in the middle of each side. Cracks are slits: their two faces have nodes of their own.

use std::collections::{BTreeMap, BTreeSet};

use spade::handles::FixedVertexHandle;
use spade::{
    ConstrainedDelaunayTriangulation, InsertionError, Point2, PositionInTriangulation, Triangulation,
};

use super::face::Piece;
use super::lines::{Fine, Line, Pieces, Sizes};
use crate::map::{At, inside, nearest};

/// A triangle: its corners 0 to 2, then the middles of its sides 01, 12, 20.
pub(super) type Nodes = [usize; 6];
/// A side of a triangle: its first corner, its last, its middle.
pub(super) type Side = [usize; 3];

/// A stretch of a slit between two triangles: the nodes of its left face and of its right one, as it is walked
/// from the crack's first point; at a tip they are the same.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Faces {
    pub crack: usize,
    pub left: Side,
    pub right: Side,
    /// The triangle at the left.
    pub left_triangle: usize,
}

/// The mesh of a face.
#[derive(Debug, Clone)]
pub(super) struct Mesh {
    pub nodes: Vec<At>,
    pub triangles: Vec<Nodes>,
    /// One for each triangle, in mm.
    pub walls_mm: Vec<f64>,
    /// Sides on the outline or a hole, with their triangle.
    pub rim: Vec<(Side, usize)>,
    pub faces: Vec<Faces>,
}

/// Why there is no mesh.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoMesh {
    #[error("this face cannot be laid out in triangles")]
    Lines,
    #[error("this face needs more than {MOST_TRIANGLES} triangles")]
    TooFine,
}

const MOST_TRIANGLES: usize = 30_000;
/// A triangle whose circle's radius is over so much of the side that is wanted is parted.
const TOO_LARGE: f64 = 0.68;
/// A new corner lies no nearer to another one than so much of the side that is wanted.
const TOO_NEAR: f64 = 0.6;
/// Rounds of parting.
const ROUNDS: usize = 40;

type Delaunay = ConstrainedDelaunayTriangulation<Point2<f64>>;

impl From<InsertionError> for NoMesh {
    fn from(_: InsertionError) -> Self {
        Self::Lines
    }
}

/// Which cracks are slits: others are iron.
pub(super) enum Slits {
    All,
    None,
    /// All but this one, whose faces are told all the same.
    AllBut(usize),
}

impl Slits {
    fn is_slit(&self, line: Line) -> bool {
        match (self, line) {
            (_, Line::Rim | Line::Followed) | (Self::None, _) => false,
            (Self::All, Line::Crack(_)) => true,
            (Self::AllBut(filled), Line::Crack(crack)) => *filled != crack,
        }
    }
}

impl Mesh {
    /// The mesh of a face, as fine as is asked and as narrow iron needs.
    ///
    /// # Errors
    /// Lines that cannot be laid out.
    pub fn of(piece: &Piece, followed: &[Vec<At>], fine: Vec<Fine>, slits: &Slits) -> Result<Self, NoMesh> {
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
        piece: &Piece,
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

    /// The triangle a place lies in, and where in it: its three area coordinates. The nearest one where it lies
    /// outside by no more than a rim is laid out less round than it is.
    pub fn find(&self, at: At) -> Option<(usize, [f64; 3])> {
        let shares = |triangle: &Nodes| {
            let [a, b, c] = [triangle[0], triangle[1], triangle[2]].map(|node| self.nodes[node]);
            let whole = twice_area(a, b, c);
            [twice_area(at, b, c) / whole, twice_area(a, at, c) / whole, twice_area(a, b, at) / whole]
        };
        let least = |shares: &[f64; 3]| shares.iter().copied().fold(f64::INFINITY, f64::min);
        self.triangles
            .iter()
            .map(shares)
            .enumerate()
            .max_by(|(_, one), (_, other)| least(one).total_cmp(&least(other)))
            .filter(|(_, shares)| least(shares) > -0.5)
    }

    /// Nodes that hang together: a number for each, one for each body the slits leave.
    pub fn bodies(&self) -> Vec<usize> {
        let mut of = Groups::new(self.nodes.len());
        for triangle in &self.triangles {
            for node in &triangle[1..] {
                of.unite(triangle[0], *node);
            }
        }
        (0..self.nodes.len()).map(|node| of.root(node)).collect()
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

/// Twice the area of a triangle, in mm²; less than nothing where it is walked clockwise.
fn twice_area(a: At, b: At, c: At) -> f64 {
    (b.x_mm - a.x_mm) * (c.y_mm - a.y_mm) - (c.x_mm - a.x_mm) * (b.y_mm - a.y_mm)
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
                    .filter(|across| *across > super::face::ONE_PLACE_MM)
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

/// Numbers that are one once they are united.
struct Groups(Vec<usize>);

impl Groups {
    fn new(count: usize) -> Self {
        Self((0..count).collect())
    }

    fn root(&mut self, mut of: usize) -> usize {
        while self.0[of] != of {
            self.0[of] = self.0[self.0[of]];
            of = self.0[of];
        }
        of
    }

    fn unite(&mut self, one: usize, other: usize) {
        let (one, other) = (self.root(one), self.root(other));
        // The lower number stands for both.
        self.0[one.max(other)] = one.min(other);
    }
}

/// Triangles by their corners' places, and which sides they share.
struct Numbering<'a> {
    corners: &'a [[usize; 3]],
    places: &'a [At],
    /// The triangles at each side, from the lower corner to the higher.
    sides: BTreeMap<(usize, usize), Vec<(usize, usize)>>,
    lines: BTreeMap<(usize, usize), Line>,
    slits: &'a Slits,
}

fn key(one: usize, other: usize) -> (usize, usize) {
    (one.min(other), one.max(other))
}

impl<'a> Numbering<'a> {
    fn new(corners: &'a [[usize; 3]], places: &'a [At], pieces: &Pieces, slits: &'a Slits) -> Self {
        let mut sides: BTreeMap<(usize, usize), Vec<(usize, usize)>> = BTreeMap::new();
        for (triangle, of) in corners.iter().enumerate() {
            for side in 0..3 {
                sides.entry(key(of[side], of[(side + 1) % 3])).or_default().push((triangle, side));
            }
        }
        // A place keeps its number in the triangulation: it was put there first.
        let lines = pieces.pieces.iter().map(|((from, to), line)| (key(*from, *to), *line)).collect();
        Self { corners, places, sides, lines, slits }
    }

    fn is_slit(&self, side: (usize, usize)) -> bool {
        self.lines.get(&side).is_some_and(|line| self.slits.is_slit(*line))
    }

    /// A node for each corner as far as it is not parted by a slit, and one in the middle of each side.
    fn mesh(&self, cracks: &[Vec<At>], walls_mm: Vec<f64>) -> Mesh {
        // Six local numbers a triangle: three corners, three middles.
        let mut same = Groups::new(6 * self.corners.len());
        for (side, at) in &self.sides {
            let [(one, first), (other, second)] = at[..] else { continue };
            if self.is_slit(*side) {
                continue;
            }
            same.unite(6 * one + 3 + first, 6 * other + 3 + second);
            let (next, last) = ((first + 1) % 3, (second + 1) % 3);
            same.unite(6 * one + first, 6 * other + last);
            same.unite(6 * one + next, 6 * other + second);
        }
        let mut numbers: BTreeMap<usize, usize> = BTreeMap::new();
        let mut nodes = Vec::new();
        let mut triangles = Vec::with_capacity(self.corners.len());
        for (triangle, corners) in self.corners.iter().enumerate() {
            let at = corners.map(|corner| self.places[corner]);
            let mut of = [0; 6];
            for (local, node) in of.iter_mut().enumerate() {
                *node = *numbers.entry(same.root(6 * triangle + local)).or_insert_with(|| {
                    let side = local.saturating_sub(3);
                    nodes.push(if local < 3 { at[local] } else { at[side].between(at[(side + 1) % 3], 0.5) });
                    nodes.len() - 1
                });
            }
            triangles.push(of);
        }
        let rim = self
            .sides
            .values()
            .filter_map(|at| match at[..] {
                [(triangle, side)] => Some((side_of(&triangles[triangle], side), triangle)),
                _ => None,
            })
            .collect();
        let faces = self.faces(cracks, &triangles, &nodes);
        Mesh { nodes, triangles, walls_mm, rim, faces }
    }

    /// The two faces of each crack, also of one that is filled.
    fn faces(&self, cracks: &[Vec<At>], triangles: &[Nodes], nodes: &[At]) -> Vec<Faces> {
        let mut faces: Vec<(usize, f64, Faces)> = Vec::new();
        for (side, at) in &self.sides {
            let (Some(Line::Crack(crack)), [(one, first), (other, second)]) = (self.lines.get(side), &at[..])
            else {
                continue;
            };
            let line = &cracks[*crack];
            let along = |node: usize| nearest(line, nodes[node]).map_or(0.0, |near| near.along_mm);
            let mine = side_of(&triangles[*one], *first);
            // A triangle is walked with its iron at the left.
            let forward = along(mine[0]) < along(mine[1]);
            let theirs = side_of(&triangles[*other], *second);
            let turned = |[from, to, middle]: Side| [to, from, middle];
            let found = if forward {
                Faces { crack: *crack, left: mine, right: turned(theirs), left_triangle: *one }
            } else {
                Faces { crack: *crack, left: theirs, right: turned(mine), left_triangle: *other }
            };
            faces.push((*crack, along(found.left[2]), found));
        }
        faces.sort_by(|one, other| one.0.cmp(&other.0).then(one.1.total_cmp(&other.1)));
        faces.into_iter().map(|(_, _, faces)| faces).collect()
    }
}

fn side_of(triangle: &Nodes, side: usize) -> Side {
    [triangle[side], triangle[(side + 1) % 3], triangle[3 + side]]
}

impl Mesh {
    /// Nodes beside each node, itself not among them.
    pub fn neighbours(&self) -> Vec<BTreeSet<usize>> {
        let mut beside = vec![BTreeSet::new(); self.nodes.len()];
        for triangle in &self.triangles {
            for one in triangle {
                beside[*one].extend(triangle.iter().copied().filter(|other| other != one));
            }
        }
        beside
    }
}
