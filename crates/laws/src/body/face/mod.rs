//! The face that is drawn: what it is of, and what keeps it from being reckoned with.

mod problems;

use crate::base::problem::{FieldProblem, OutOfRange, Problems};
use crate::iron::IronProperties;
use crate::map::{At, area_mm2, circle_of, closed, inside, nearest};

use problems::{outline_problems, place_problems};

/// A hole in the face.
#[derive(Debug, Clone, PartialEq)]
pub enum Hole {
    Round { middle: At, across_mm: f64 },
    Outlined(Vec<At>),
}

/// A part of the face with a wall of its own: a boss, a hub, a rib's root.
#[derive(Debug, Clone, PartialEq)]
pub struct ThickPlace {
    pub place: Hole,
    pub wall_mm: f64,
}

/// A stretch of an outline or of a hole's rim.
pub type Edge = (At, At);

/// A flat body.
#[derive(Debug, Clone, PartialEq)]
pub struct FlatBody {
    pub iron: IronProperties,
    pub outline: Vec<At>,
    pub holes: Vec<Hole>,
    /// Where no thick place says another.
    pub wall_mm: f64,
    /// A later one counts over an earlier.
    pub thick: Vec<ThickPlace>,
    /// A line each; an end on the outline or on a hole's rim is a mouth.
    pub cracks: Vec<Vec<At>>,
}

/// House: places nearer to each other than this are one.
pub(super) const ONE_PLACE_MM: f64 = 0.05;
/// House: sides a round hole is laid out with.
const ROUND_SIDES: u32 = 40;
/// House: longest side of a face that is reckoned with, 20 m.
const LONGEST_MM: f64 = 20_000.0;
/// House: iron narrower than this, or than a two-thousandth of the face, is no iron.
const NARROWEST_MM: f64 = 0.5;
const POINTS: usize = 600;
/// A rim with thick places beside it is walked in steps of this.
const RIM_STEP_MM: f64 = 5.0;

impl Hole {
    /// Its rim, a point after the other.
    #[must_use]
    pub(super) fn is_round(&self) -> bool {
        matches!(self, Self::Round { .. })
    }

    pub fn rim(&self) -> Vec<At> {
        match self {
            Self::Round { middle, across_mm } => {
                let sides = f64::from(ROUND_SIDES);
                let turn = 2.0 * std::f64::consts::PI / sides;
                let same_area = (turn / libm::sin(turn)).sqrt();
                circle_of(*middle, across_mm / 2.0 * same_area, ROUND_SIDES)
            }
            Self::Outlined(points) => points.clone(),
        }
    }
}

impl FlatBody {
    /// The rims: the outline first, then each hole's.
    #[must_use]
    pub fn rims(&self) -> Vec<Vec<At>> {
        std::iter::once(self.outline.clone()).chain(self.holes.iter().map(Hole::rim)).collect()
    }

    /// Area of its iron in mm².
    #[must_use]
    pub fn area_mm2(&self) -> f64 {
        area_mm2(&self.outline) - self.holes.iter().map(|hole| area_mm2(&hole.rim())).sum::<f64>()
    }

    /// Its iron in mm³; of thick places about, where they reach over a rim or over each other.
    #[must_use]
    pub fn volume_mm3(&self) -> f64 {
        let more =
            self.thick.iter().map(|place| area_mm2(&place.place.rim()) * (place.wall_mm - self.wall_mm));
        self.area_mm2() * self.wall_mm + more.sum::<f64>()
    }

    /// Its wall at a place, in mm.
    #[must_use]
    pub fn wall_at(&self, at: At) -> f64 {
        let own = self.thick.iter().rev().find(|place| inside(&place.place.rim(), at));
        own.map_or(self.wall_mm, |place| place.wall_mm)
    }

    /// What gives off heat, in mm²: both sides and the rims, each stretch of a rim as high as the wall is there.
    ///
    /// A = 2 S + Σ rim × wall
    ///
    /// # Source
    /// Geometry (law). A thick place counts by its rim only where that is a rim of the face.
    #[must_use]
    pub fn surface_mm2(&self) -> f64 {
        let along = |side: &[At]| {
            let long = side[0].distance_mm(side[1]);
            let pieces = if self.thick.is_empty() { 1 } else { (long / RIM_STEP_MM).ceil().max(1.0) as u32 };
            let middle = |at: u32| (f64::from(at) + 0.5) / f64::from(pieces);
            let walls = (0..pieces).map(|at| self.wall_at(side[0].between(side[1], middle(at))));
            walls.sum::<f64>() * long / f64::from(pieces)
        };
        let rims = self
            .rims()
            .iter()
            .flat_map(|rim| closed(rim).windows(2).map(along).collect::<Vec<f64>>())
            .sum::<f64>();
        2.0 * self.area_mm2() + rims
    }

    /// What is wrong with it, each at its field as the calculations name it.
    ///
    /// # Errors
    /// A face that crosses itself, holes or cracks outside it, holes that touch, slivers, sizes out of bounds.
    pub fn check(&self) -> Result<(), Vec<FieldProblem>> {
        let mut problems = Problems::default();
        problems.take("wall_mm", OutOfRange::check("a wall", "mm", (0.5, 500.0), self.wall_mm));
        outline_problems(&mut problems, "outline_mm", &self.outline);
        for (at, hole) in self.holes.iter().enumerate() {
            let field = format!("holes_mm[{at}]");
            place_problems(&mut problems, &field, hole);
        }
        for (at, place) in self.thick.iter().enumerate() {
            let field = format!("thick_mm[{at}]");
            place_problems(&mut problems, &field, &place.place);
            let wall = OutOfRange::check("a wall", "mm", (0.5, 500.0), place.wall_mm);
            problems.take(&format!("{field}.wall_mm"), wall);
        }
        let points = self.rims().iter().chain(&self.cracks).map(Vec::len).sum::<usize>()
            + self.thick.iter().map(|place| place.place.rim().len()).sum::<usize>();
        if points > 4 * POINTS {
            problems.add(FieldProblem::new(
                "outline_mm",
                format!("{points} points are more than is reckoned with"),
                format!("at most {}", 4 * POINTS),
            ));
        }
        problems.finish()?;
        let mut problems = Problems::default();
        self.hole_problems(&mut problems);
        self.thick_problems(&mut problems);
        self.narrow_problems(&mut problems);
        for (at, crack) in self.cracks.iter().enumerate() {
            self.crack_problems(&mut problems, &format!("cracks_mm[{at}]"), at, crack);
        }
        problems.finish()
    }

    /// Every number that it is made of, so that two that are alike are known by it.
    #[must_use]
    pub fn decides(&self) -> Vec<f64> {
        let iron = [self.iron.youngs_gpa, self.iron.poisson, self.wall_mm];
        let rims = self.rims();
        let thick: Vec<Vec<At>> = self.thick.iter().map(|place| place.place.rim()).collect();
        let lines = rims.iter().chain(&thick).chain(&self.cracks);
        // The length before each: where one ends and the next begins counts too.
        let lines = lines.flat_map(|line| {
            let points = line.iter().flat_map(|at| [at.x_mm, at.y_mm]);
            std::iter::once(line.len() as f64).chain(points)
        });
        let counts = [rims.len(), thick.len()].map(|count| count as f64);
        iron.into_iter()
            .chain(counts)
            .chain(self.thick.iter().map(|place| place.wall_mm))
            .chain(lines)
            .collect()
    }

    /// Whether there is iron at a place, its rims with it.
    #[must_use]
    pub fn has_iron_at(&self, at: At) -> bool {
        iron_at(&self.rims(), at)
    }

    /// How deep a place lies in the iron between these rims of it, in mm; 0 beside it.
    #[must_use]
    pub fn depth_mm(&self, rims: &[Vec<At>], at: At) -> f64 {
        if !iron_at(rims, at) {
            return 0.0;
        }
        rims.iter().map(|rim| nearest_closed(rim, at)).fold(f64::INFINITY, f64::min)
    }

    /// Whether a stretch lies along the outline or a hole's rim.
    #[must_use]
    pub fn is_edge(&self, (from, to): Edge) -> bool {
        let on_one_rim = |rim: &Vec<At>| {
            [0.0, 0.25, 0.5, 0.75, 1.0]
                .iter()
                .all(|share| nearest_closed(rim, from.between(to, *share)) <= ONE_PLACE_MM)
        };
        from.distance_mm(to) >= 1.0 && self.rims().iter().any(on_one_rim)
    }

    /// How far a place is from the nearest rim, in mm.
    pub(super) fn off_the_rims_mm(&self, at: At) -> f64 {
        self.rims().iter().map(|rim| nearest_closed(rim, at)).fold(f64::INFINITY, f64::min)
    }

    /// Whether a crack's end is a mouth or runs into another crack: there it has no tip.
    pub(super) fn is_open_end(&self, crack: usize, at: At) -> bool {
        self.off_the_rims_mm(at) <= ONE_PLACE_MM
            || self.cracks.iter().enumerate().any(|(other, line)| {
                other != crack && nearest(line, at).is_some_and(|near| near.distance_mm <= ONE_PLACE_MM)
            })
    }
}

/// Whether there is iron at a place within an outline, its first rim, and beside holes, the others.
pub(super) fn iron_at(rims: &[Vec<At>], at: At) -> bool {
    let within = inside(&rims[0], at) && !rims[1..].iter().any(|rim| inside(rim, at));
    within || rims.iter().any(|rim| nearest_closed(rim, at) <= ONE_PLACE_MM)
}

/// The sides of an outline; of a corner of its own, those that begin further away along it than so much.
fn far_sides(outline: &[At], from: Option<(usize, f64)>) -> impl Iterator<Item = Edge> {
    let around = outline.len();
    let side = move |at: usize| (outline[at % around], outline[(at + 1) % around]);
    let long = move |(a, b): Edge| a.distance_mm(b);
    let (ahead, behind) = from.map_or((0, 0), |(corner, room_mm)| {
        let reached = |sides: &mut dyn Iterator<Item = usize>| {
            let mut gone = 0.0;
            sides
                .take_while(|at| {
                    let near = gone <= room_mm;
                    gone += long(side(*at));
                    near
                })
                .count()
        };
        let ahead = reached(&mut (corner..corner + around));
        (ahead, reached(&mut (1..=around).map(|back| corner + around - back)))
    });
    let first = from.map_or(0, |(corner, _)| corner) + ahead;
    (0..around.saturating_sub(ahead + behind)).map(move |at| side(first + at))
}

fn nearest_closed(rim: &[At], at: At) -> f64 {
    far_sides(rim, None)
        .filter_map(|side| nearest(&[side.0, side.1], at))
        .map(|near| near.distance_mm)
        .fold(f64::INFINITY, f64::min)
}
