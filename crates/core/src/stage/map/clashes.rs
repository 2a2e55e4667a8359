//! What on a face is in the way of what.

use super::faces::{Clash, HoleOnFace, LineOnFace, MapInputs, MarkOnFace};
use crate::crack::said::EndKind;
use crate::map::{At, MarkKind, ON_IT_MM, OnFace, Shape, closed, inside, nearest};
use crate::quantity::Unit;
use crate::stage::cracks::OFF_HARD_SPOT_MM;

impl MapInputs<'_> {
    pub(super) fn clashes(
        &self,
        at: usize,
        lines: &[LineOnFace],
        holes: &[HoleOnFace],
        marks: &[MarkOnFace],
    ) -> Vec<Clash> {
        let laid = &self.laid.faces[at];
        let mut clashes = Vec::new();
        let mut clash = |at: At, sentence: String| clashes.push(Clash { at, sentence });
        for (first, hole) in holes.iter().enumerate() {
            let letter = self.letter(hole.crack);
            let radius = hole.drill_mm / 2.0;
            for other in &laid.holes {
                if other.middle.distance_mm(hole.at) < other.radius_mm + radius {
                    clash(hole.at, format!("The stop-hole of crack {letter} runs into {}.", other.name));
                }
            }
            for other in &holes[first + 1..] {
                if other.at.distance_mm(hole.at) < radius + other.drill_mm / 2.0 {
                    let with = self.letter(other.crack);
                    clash(hole.at, format!("The stop-holes of cracks {letter} and {with} meet."));
                }
            }
            for mark in marks {
                let off = match (&mark.shape, mark.what) {
                    (Shape::Circle { x_mm, y_mm, radius_mm }, OnFace::HARD_SPOT) => {
                        At::new(*x_mm, *y_mm).distance_mm(hole.at) - radius_mm - radius - OFF_HARD_SPOT_MM
                    }
                    (shape @ Shape::Line { .. }, OnFace::Mark(MarkKind::MachinedEdge)) => {
                        nearest(&shape.points(), hole.at).map_or(1.0, |near| near.distance_mm - radius)
                    }
                    _ => continue,
                };
                if off < 0.0 && mark.what == OnFace::HARD_SPOT {
                    let keep = self.units.say_least(OFF_HARD_SPOT_MM, Unit::Millimetres);
                    let name = &mark.name;
                    clash(
                        hole.at,
                        format!(
                            "The stop-hole of crack {letter} lies closer than {keep} to {name}: cut the spot out first."
                        ),
                    );
                } else if off < 0.0 {
                    clash(hole.at, format!("The stop-hole of crack {letter} cuts into {}.", mark.name));
                }
            }
        }
        for line in lines.iter().filter(|line| !line.from_behind) {
            for mark in marks.iter().filter(|mark| mark.what == OnFace::NEIGHBOUR) {
                let Shape::Place { x_mm, y_mm } = mark.shape else { continue };
                let place = At::new(x_mm, y_mm);
                if !line.margin.is_empty() && inside(&line.margin, place) {
                    let (letter, name) = (&line.letter, &mark.name);
                    clash(place, format!("The bright margin of crack {letter} runs over {name}."));
                }
            }
            let off = |point: &&At| {
                laid.rims.first().is_some_and(|rim| {
                    !inside(rim, **point)
                        && nearest(&closed(rim), **point).is_some_and(|near| near.distance_mm > ON_IT_MM)
                })
            };
            if let Some(point) = line.points.iter().find(off) {
                let count = line.points.iter().filter(off).count();
                let points = if count == 1 { "point lies" } else { "points lie" };
                clash(*point, format!("Crack {}: {count} {points} off the face.", line.letter));
            }
        }
        self.walls_that_differ(at, &mut clash);
        clashes
    }

    /// Where one crack joins another both say how thick the wall is there.
    fn walls_that_differ(&self, at: usize, clash: &mut impl FnMut(At, String)) {
        /// House: a caliper and a gauge differ by less.
        const DIFFERS: f64 = 0.2;
        for plan in self.cracks.iter().filter(|plan| !plan.walls.is_empty()) {
            let Some(laid) = self.laid.cracks.get(&plan.id) else { continue };
            for (end, along) in laid.ends.iter().zip([0.0, laid.length_mm]) {
                if end.face != at || end.kind != Some(EndKind::Branch) {
                    continue;
                }
                for other in self.cracks.iter().filter(|other| other.id != plan.id && !other.walls.is_empty())
                {
                    let Some(joined) = self.laid.cracks.get(&other.id) else { continue };
                    let Some(line) = joined.lines.iter().find(|line| line.face == at) else { continue };
                    let Some(near) =
                        nearest(&line.points, end.at).filter(|near| near.distance_mm <= ON_IT_MM)
                    else {
                        continue;
                    };
                    let walls = laid.wall_at(along).zip(joined.wall_at(near.along_mm));
                    if let Some((mine, theirs)) = walls
                        && (mine - theirs).abs() > DIFFERS * mine.max(theirs)
                    {
                        let sentence = format!(
                            "Where {} joins {} the wall is {} by one and {} by the other: measure it again.",
                            plan.letter,
                            other.letter,
                            self.say(mine),
                            self.say(theirs)
                        );
                        clash(end.at, sentence);
                    }
                }
            }
        }
    }
}
