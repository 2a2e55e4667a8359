//! What keeps a face from being reckoned with.

use super::{Edge, FlatBody, Hole, LONGEST_MM, NARROWEST_MM, ONE_PLACE_MM, POINTS, far_sides};
use crate::base::problem::{FieldProblem, OutOfRange, Problems};
use crate::map::{At, area_mm2, closed, crosses_itself, crossing, inside, nearest};

impl FlatBody {
    pub(super) fn hole_problems(&self, problems: &mut Problems) {
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

    pub(super) fn thick_problems(&self, problems: &mut Problems) {
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
    pub(super) fn narrow_problems(&self, problems: &mut Problems) {
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

    pub(super) fn crack_problems(&self, problems: &mut Problems, field: &str, which: usize, crack: &[At]) {
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

fn is_finite(at: &At) -> bool {
    at.x_mm.is_finite() && at.y_mm.is_finite()
}

pub(super) fn outline_problems(problems: &mut Problems, field: &str, outline: &[At]) {
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

pub(super) fn place_problems(problems: &mut Problems, field: &str, place: &Hole) {
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

/// Whether two closed outlines touch or cross.
pub(super) fn touch(one: &[At], other: &[At]) -> bool {
    far_sides(one, None).any(|side| {
        far_sides(other, None).any(|across| {
            crossing(side, across).is_some()
                || [across.0, across.1].iter().any(|at| {
                    nearest(&[side.0, side.1], *at).is_some_and(|near| near.distance_mm < ONE_PLACE_MM)
                })
        })
    })
}
