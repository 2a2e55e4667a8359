//! The face that is drawn: what it is of, and what keeps it from being reckoned with.

use crate::base::problem::{FieldProblem, OutOfRange, Problems};
use crate::iron::IronProperties;
use crate::map::{At, area_mm2, circle_of, closed, crosses_itself, crossing, inside, nearest};

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
pub struct Piece {
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

/// Places nearer to each other than this are one.
pub(super) const ONE_PLACE_MM: f64 = 0.05;
/// Sides a round is laid out with. The ring of as many sides has the same area as the round.
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
    pub fn rim(&self) -> Vec<At> {
        match self {
            Self::Round { middle, across_mm } => {
                let sides = f64::from(ROUND_SIDES);
                let turn = 2.0 * std::f64::consts::PI / sides;
                let same_area = (turn / turn.sin()).sqrt();
                circle_of(*middle, across_mm / 2.0 * same_area, ROUND_SIDES)
            }
            Self::Outlined(points) => points.clone(),
        }
    }
}

impl Piece {
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

    fn hole_problems(&self, problems: &mut Problems) {
        let rims = self.rims();
        for (at, rim) in rims.iter().enumerate().skip(1) {
            let field = format!("holes_mm[{}]", at - 1);
            let mut say =
                |message: &str, right: &str| problems.add(FieldProblem::new(&field, message, right));
            if touch(rim, &rims[0]) || !inside(&rims[0], rim[0]) {
                say(
                    "this hole reaches over the outline",
                    "a hole within the outline; where it opens the outline, draw it with the outline",
                );
            } else if let Some(other) = (1..at).find(|other| {
                touch(rim, &rims[*other]) || inside(&rims[*other], rim[0]) || inside(rim, rims[*other][0])
            }) {
                say(
                    &format!("this hole touches hole {other}"),
                    "holes with iron between them, or one outline round both",
                );
            }
        }
    }

    fn thick_problems(&self, problems: &mut Problems) {
        for (at, place) in self.thick.iter().enumerate() {
            let rim = place.place.rim();
            let touches = rim.iter().any(|point| self.has_iron_at(*point))
                || self.rims().iter().any(|other| touch(&rim, other) || inside(&rim, other[0]));
            if !touches {
                problems.add(FieldProblem::new(
                    format!("thick_mm[{at}]"),
                    "there is no iron at this place",
                    "a place on the face",
                ));
            }
        }
    }

    /// Iron that is so narrow that no triangle fits into it.
    fn narrow_problems(&self, problems: &mut Problems) {
        let narrowest = NARROWEST_MM.max(self.area_mm2().max(0.0).sqrt() / 2000.0);
        if self.area_mm2() < 25.0 {
            problems.add(FieldProblem::new(
                "outline_mm",
                "less than 25 mm² of iron is left",
                "an outline with iron within",
            ));
        }
        let rims = self.rims();
        for (at, rim) in rims.iter().enumerate() {
            let field = if at == 0 { "outline_mm".to_owned() } else { format!("holes_mm[{}]", at - 1) };
            let narrow = rim.iter().enumerate().find(|(corner, point)| {
                rims.iter().enumerate().any(|(other, line)| {
                    far_sides(line, (other == at).then_some((*corner, 4.0 * narrowest))).any(|side| {
                        nearest(&[side.0, side.1], **point).is_some_and(|near| near.distance_mm < narrowest)
                    })
                })
            });
            if let Some((corner, point)) = narrow {
                problems.add(FieldProblem::new(
                    field,
                    format!(
                        "the iron is narrower than {narrowest:.1} mm at point {} ({:.0}, {:.0})",
                        corner + 1,
                        point.x_mm,
                        point.y_mm
                    ),
                    "iron of some width all along",
                ));
            }
        }
    }

    fn crack_problems(&self, problems: &mut Problems, field: &str, which: usize, crack: &[At]) {
        let mut say = |message: String, right: &str| problems.add(FieldProblem::new(field, message, right));
        if crack.len() < 2 || crack.len() > POINTS || !crack.iter().all(is_finite) {
            say("a crack is a line of at least two points".to_owned(), "[[150, 0], [150, 50]]");
            return;
        }
        if crack.windows(2).any(|pair| pair[0].distance_mm(pair[1]) < 1.0) {
            say("two points of this crack are nearer than 1 mm".to_owned(), "points at least 1 mm apart");
            return;
        }
        let outside = crack.windows(2).find_map(|pair| {
            (1..40)
                .map(|step| pair[0].between(pair[1], f64::from(step) / 40.0))
                .find(|at| !self.has_iron_at(*at))
        });
        let outside = outside.or_else(|| crack.iter().copied().find(|at| !self.has_iron_at(*at)));
        if let Some(at) = outside {
            say(
                format!("at ({:.0}, {:.0}) this crack lies outside the iron", at.x_mm, at.y_mm),
                "a crack within the face",
            );
        }
        let sides: Vec<Edge> = crack.windows(2).map(|pair| (pair[0], pair[1])).collect();
        let crosses = |(at, side): (usize, &Edge)| {
            sides.iter().skip(at + 2).any(|other| crossing(*side, *other).is_some())
        };
        if sides.iter().enumerate().any(crosses) {
            say("this crack crosses itself".to_owned(), "a line that does not");
        }
        let along = |line: &[At]| {
            crack.iter().skip(1).zip(crack).all(|(to, from)| {
                [from.between(*to, 0.3), from.between(*to, 0.7)]
                    .iter()
                    .all(|at| nearest(line, *at).is_some_and(|near| near.distance_mm <= ONE_PLACE_MM))
            })
        };
        if self.rims().iter().any(|rim| along(&crate::map::closed(rim)))
            || self.cracks[..which].iter().any(|other| along(other))
        {
            say("this crack runs along a rim or another crack".to_owned(), "a crack with iron on both sides");
        }
    }
}

/// Whether there is iron at a place within an outline, its first rim, and beside holes, the others.
pub(super) fn iron_at(rims: &[Vec<At>], at: At) -> bool {
    let within = inside(&rims[0], at) && !rims[1..].iter().any(|rim| inside(rim, at));
    within || rims.iter().any(|rim| nearest_closed(rim, at) <= ONE_PLACE_MM)
}

fn is_finite(at: &At) -> bool {
    at.x_mm.is_finite() && at.y_mm.is_finite()
}

fn outline_problems(problems: &mut Problems, field: &str, outline: &[At]) {
    let mut say = |message: String, right: &str| problems.add(FieldProblem::new(field, message, right));
    if outline.len() < 3 || outline.len() > POINTS {
        say(
            format!("an outline has 3 to {POINTS} points, got {}", outline.len()),
            "[[0, 0], [300, 0], [300, 160], [0, 160]]",
        );
    } else if !outline
        .iter()
        .all(|at| is_finite(at) && at.x_mm.abs() <= LONGEST_MM && at.y_mm.abs() <= LONGEST_MM)
    {
        say("a point lies further than 20 m away".to_owned(), "points within 20 m, in mm");
    } else if let Some((first, second)) = crosses_itself(outline) {
        say(
            format!("side {} crosses side {}", first + 1, second + 1),
            "an outline that does not cross itself",
        );
    } else if area_mm2(outline) < 1.0 {
        say("this outline encloses nothing".to_owned(), "an outline with iron within");
    } else if closed(outline).windows(2).any(|side| side[0].distance_mm(side[1]) < ONE_PLACE_MM) {
        say(
            format!("two points that follow each other are nearer than {ONE_PLACE_MM} mm"),
            "each point once",
        );
    }
}

fn place_problems(problems: &mut Problems, field: &str, place: &Hole) {
    match place {
        Hole::Outlined(points) => outline_problems(problems, field, points),
        Hole::Round { middle, across_mm } => {
            let across = OutOfRange::check("a diameter", "mm", (0.5, LONGEST_MM), *across_mm);
            problems.take(&format!("{field}.d"), across);
            if !is_finite(middle) || middle.x_mm.abs() > LONGEST_MM || middle.y_mm.abs() > LONGEST_MM {
                problems.add(FieldProblem::new(
                    field,
                    "its middle lies further than 20 m away",
                    "a place on the face, in mm",
                ));
            }
        }
    }
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

/// Whether two closed outlines touch or cross.
fn touch(one: &[At], other: &[At]) -> bool {
    far_sides(one, None).any(|side| {
        far_sides(other, None).any(|across| {
            crossing(side, across).is_some()
                || [across.0, across.1].iter().any(|at| {
                    nearest(&[side.0, side.1], *at).is_some_and(|near| near.distance_mm < ONE_PLACE_MM)
                })
        })
    })
}
