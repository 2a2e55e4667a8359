//! A face laid out once, to be heated again and again: its mesh, its elastic body, its slits and tips.

use std::sync::Arc;

use super::element::{Straight, sum6};
use super::face::{FlatBody, iron_at};
use super::heat::{HeatModel, HeatRun, Heating};
use super::load::{Carried, across};
use super::mesh::{Mesh, Slits};
use super::slit::{Contact, opened_mm};
use super::sparse::SIDES;
use super::stress::Elastic;
use super::tips::{NotReckoned, Tip, tips};
use crate::map::At;

/// A face as it was laid out.
#[derive(Debug, Clone)]
pub struct FaceModel {
    pub piece: FlatBody,
    pub tips: Vec<Tip>,
    mesh: Arc<Mesh>,
    heat: HeatModel,
    body: Elastic,
    contact: Contact,
}

/// A look at a face that is being heated.
#[derive(Debug, Clone, PartialEq)]
pub struct Look {
    pub minutes: f64,
    celsius: Vec<f64>,
    /// Opening and sliding at each tip, in MPa √m.
    pub tips: Vec<(f64, f64)>,
    /// How far each crack has opened half way along it, in mm; nothing where it parts the face.
    pub opened_mm: Vec<Option<f64>>,
    /// The coldest place of the cracks; of the whole face where there is none.
    pub joint_c: f64,
    pub least_c: f64,
    pub most_c: f64,
    /// Share of the flames that is on.
    pub flame_share: f64,
}

/// Places of a picture of a face: rows of square cells, and where each lies in the mesh.
#[derive(Debug, Clone, PartialEq)]
pub struct Cells {
    pub columns: usize,
    pub rows: usize,
    /// Triangle and shares of each cell, row after row. A cell beside the iron is as the iron nearest to it.
    at: Vec<(usize, [f64; 6])>,
}

/// What each node is at, when, and with how much of the flames.
type HeatAt = (Vec<f64>, f64, f64);

fn warmer(celsius: &[f64], start_c: f64) -> Vec<f64> {
    celsius.iter().map(|celsius| celsius - start_c).collect()
}

fn least(celsius: &[f64]) -> f64 {
    celsius.iter().copied().fold(f64::INFINITY, f64::min)
}

impl FaceModel {
    /// # Errors
    /// [`NotReckoned`] where it cannot be laid out.
    pub fn of(piece: FlatBody) -> Result<Self, NotReckoned> {
        let tips = tips(&piece);
        let fine = tips.iter().map(Tip::fine).collect();
        let mesh = Arc::new(Mesh::of(&piece, &[], fine, &Slits::All)?);
        let body = Elastic::free(&mesh, &piece.iron)?;
        Ok(Self {
            heat: HeatModel::of(&mesh, piece.iron),
            contact: Contact::of(&mesh),
            body,
            mesh,
            tips,
            piece,
        })
    }

    /// It is heated: a look as often as is asked, and at the end.
    pub fn heated<'a>(&'a self, heating: &'a Heating) -> impl Iterator<Item = Look> + 'a {
        let mut run = HeatRun::new(&self.heat, &self.mesh, heating);
        let mut is_enough = false;
        std::iter::from_fn(move || {
            let mut heats = Vec::with_capacity(SIDES);
            while heats.len() < SIDES && !is_enough && run.step() {
                if run.is_looked_at() {
                    is_enough =
                        heating.enough_c.is_some_and(|enough_c| self.joint_c(&run.celsius) >= enough_c);
                    heats.push((run.celsius.clone(), run.minutes, run.flame_share));
                }
            }
            (!heats.is_empty()).then(|| self.looks(heats, heating.start_c))
        })
        .flatten()
    }

    /// The same without what its cracks are asked for, which takes most of the time.
    pub fn warmed<'a>(&'a self, heating: &'a Heating) -> impl Iterator<Item = Look> + 'a {
        let mut run = HeatRun::new(&self.heat, &self.mesh, heating);
        let mut is_enough = false;
        std::iter::from_fn(move || {
            while !is_enough && run.step() {
                if run.is_looked_at() {
                    let joint_c = self.joint_c(&run.celsius);
                    is_enough = heating.enough_c.is_some_and(|enough_c| joint_c >= enough_c);
                    return Some(self.unasked((run.celsius.clone(), run.minutes, run.flame_share)));
                }
            }
            None
        })
    }

    /// What a face is at, and nothing of its cracks.
    fn unasked(&self, (celsius, minutes, flame_share): HeatAt) -> Look {
        Look {
            minutes,
            tips: Vec::new(),
            opened_mm: Vec::new(),
            joint_c: self.joint_c(&celsius),
            least_c: least(&celsius),
            most_c: celsius.iter().copied().fold(f64::NEG_INFINITY, f64::max),
            flame_share,
            celsius,
        }
    }

    /// All of it at one temperature.
    #[must_use]
    pub fn evenly(&self, celsius: f64) -> Vec<f64> {
        vec![celsius; self.mesh.nodes.len()]
    }

    /// Its heat goes on from where it is, step by step to the end of `heating`; before each step `burns` says, of the
    /// coldest of the joint and of the whole face, whether the flames burn in it; nothing ends it. Gives the coldest of
    /// the whole face after each.
    pub fn goes_on(
        &self,
        celsius: &mut Vec<f64>,
        heating: &Heating,
        mut burns: impl FnMut(f64, f64) -> Option<bool>,
    ) -> Vec<f64> {
        let mut run = HeatRun::new(&self.heat, &self.mesh, heating);
        if celsius.len() == run.celsius.len() {
            run.celsius = std::mem::take(celsius);
        }
        let mut coldest = Vec::new();
        while let Some(on) = burns(self.joint_c(&run.celsius), least(&run.celsius)) {
            run.burns = on;
            if !run.step() {
                break;
            }
            coldest.push(least(&run.celsius));
        }
        *celsius = run.celsius;
        coldest
    }

    /// The coldest place of the cracks; of the whole face where there is none.
    fn joint_c(&self, celsius: &[f64]) -> f64 {
        let joint = self.mesh.faces.iter().flat_map(|faces| faces.left.into_iter().chain(faces.right));
        let joint_c = joint.map(|node| celsius[node]).fold(f64::INFINITY, f64::min);
        if joint_c.is_finite() { joint_c } else { least(celsius) }
    }

    /// A look at a face whose heat went on by itself, so many minutes after it was at `start_c` all over.
    #[must_use]
    pub fn look_at(&self, celsius: &[f64], minutes: f64, start_c: f64) -> Look {
        let warmer_k = warmer(celsius, start_c);
        let moved = self.body.moves(self.body.thermal_forces(&warmer_k));
        self.look((celsius.to_vec(), minutes, 1.0), &warmer_k, moved)
    }

    /// Several at once: the body answers all of them while each value of its factor is at hand.
    fn looks(&self, heats: Vec<HeatAt>, start_c: f64) -> Vec<Look> {
        let warmer_k: Vec<Vec<f64>> = heats.iter().map(|(celsius, ..)| warmer(celsius, start_c)).collect();
        let moved = self.body.moves_each(warmer_k.iter().map(|k| self.body.thermal_forces(k)).collect());
        let each = heats.into_iter().zip(&warmer_k).zip(moved);
        each.map(|((heat, warmer_k), moved)| self.look(heat, warmer_k, moved)).collect()
    }

    fn look(&self, heat: HeatAt, warmer_k: &[f64], moved: Vec<f64>) -> Look {
        let moved = self.contact.kept_apart(&self.body, moved);
        Look {
            tips: self
                .tips
                .iter()
                .map(|tip| tip.intensity(&self.body, &self.piece.iron, &moved, warmer_k))
                .collect(),
            opened_mm: (0..self.piece.cracks.len())
                .map(|crack| opened_mm(&self.mesh, crack, &moved))
                .collect(),
            ..self.unasked(heat)
        }
    }

    /// What another lay-out of the same face is at, at this one's nodes.
    #[must_use]
    pub fn as_warm_as(&self, other: &Self, celsius: &[f64]) -> Vec<f64> {
        let mean_c = celsius.iter().sum::<f64>() / celsius.len().max(1) as f64;
        let at = |at: &At| {
            let (triangle, shares) = other.mesh.find(*at)?;
            let n = Straight::of(&other.mesh, triangle).at(shares, 1.0).n;
            Some(sum6(&n, |local| celsius[other.mesh.triangles[triangle][local]]))
        };
        self.mesh.nodes.iter().map(|node| at(node).unwrap_or(mean_c)).collect()
    }

    /// What pulls across each of these lines of the face, in MPa, free of it when it was at `from_c`; nothing of one that
    /// lies in no iron.
    #[must_use]
    pub fn pulls_across(&self, look: &Look, from_c: &[f64], lines: &[Vec<At>]) -> Vec<Option<Carried>> {
        let warmer_k: Vec<f64> = look.celsius.iter().zip(from_c).map(|(now, then)| now - then).collect();
        let moved = self.contact.kept_apart(&self.body, self.body.moves(self.body.thermal_forces(&warmer_k)));
        let of = (&self.body, moved.as_slice(), Some(warmer_k.as_slice()));
        lines.iter().map(|line| across(&self.piece, of, line)).collect()
    }

    /// Cells over a frame: so many columns of it, and as many rows as are square.
    #[must_use]
    pub fn cells(&self, (left, top, right, bottom): (f64, f64, f64, f64), columns: usize) -> Cells {
        let cell_mm = (right - left) / columns as f64;
        let rows = ((bottom - top) / cell_mm).ceil().max(1.0) as usize;
        let middles: Vec<At> = (0..rows)
            .flat_map(|row| {
                (0..columns).map(move |column| {
                    At::new(left + (column as f64 + 0.5) * cell_mm, top + (row as f64 + 0.5) * cell_mm)
                })
            })
            .collect();
        let rims = self.piece.rims();
        let within: Vec<Option<(usize, [f64; 3])>> =
            middles.iter().map(|at| iron_at(&rims, *at).then(|| self.mesh.find(*at)).flatten()).collect();
        // What is nearest to a cell beside the iron has itself one beside the iron next to it.
        let is_edge = |cell: usize| {
            let (row, column) = (cell / columns, cell % columns);
            let rows = row.saturating_sub(1)..=(row + 1).min(rows - 1);
            let beside = |row: usize| {
                row * columns + column.saturating_sub(1)..=row * columns + (column + 1).min(columns - 1)
            };
            rows.flat_map(beside).any(|cell| within[cell].is_none())
        };
        let known: Vec<usize> =
            (0..middles.len()).filter(|cell| within[*cell].is_some() && is_edge(*cell)).collect();
        let nearest = |cell: usize| {
            let away = |other: &usize| middles[cell].distance_mm(middles[*other]);
            known.iter().copied().min_by(|a, b| away(a).total_cmp(&away(b)))
        };
        let at = (0..middles.len())
            .filter_map(|cell| {
                let (triangle, shares) = within[cell].or_else(|| within[nearest(cell)?])?;
                Some((triangle, Straight::of(&self.mesh, triangle).at(shares, 1.0).n))
            })
            .collect();
        Cells { columns, rows, at }
    }

    /// What each cell is at.
    pub fn picture<'a>(&'a self, cells: &'a Cells, look: &'a Look) -> impl Iterator<Item = f64> + 'a {
        cells.at.iter().map(|(triangle, n)| {
            let nodes = &self.mesh.triangles[*triangle];
            sum6(n, |local| look.celsius[nodes[local]])
        })
    }

    /// What the iron is at a place; nothing beside it.
    #[must_use]
    pub fn at(&self, look: &Look, at: At) -> Option<f64> {
        let (triangle, shares) = self.piece.has_iron_at(at).then(|| self.mesh.find(at)).flatten()?;
        let n = Straight::of(&self.mesh, triangle).at(shares, 1.0).n;
        Some(sum6(&n, |local| look.celsius[self.mesh.triangles[triangle][local]]))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::body::Hole;
    use crate::body::mesh::twice_area;
    use crate::iron::Iron;

    const LONG_MM: f64 = 600.0;
    const DEEP_MM: f64 = 60.0;

    /// A strip of even wall.
    fn strip() -> FaceModel {
        let corners = [(0.0, 0.0), (LONG_MM, 0.0), (LONG_MM, DEEP_MM), (0.0, DEEP_MM)];
        FaceModel::of(FlatBody {
            iron: Iron::Gray.properties(),
            outline: corners.map(|(x, y)| At::new(x, y)).to_vec(),
            holes: Vec::new(),
            wall_mm: 12.0,
            thick: Vec::new(),
            cracks: Vec::new(),
        })
        .unwrap()
    }

    #[test]
    fn what_cools_in_a_curve_pulls_as_a_long_strip_does() {
        let model = strip();
        // Colder to both edges by 40 K, with the square of how far off the middle.
        let (colder_k, half) = (40.0, DEEP_MM / 2.0);
        let cold = |y: f64| 200.0 - colder_k * ((y - half) / half).powi(2);
        let from_c = model.evenly(200.0);
        let celsius: Vec<f64> = model.mesh.nodes.iter().map(|at| cold(at.y_mm)).collect();
        let look = model.look_at(&celsius, 0.0, 20.0);
        let line = |from: f64, to: f64| vec![At::new(LONG_MM / 2.0, from), At::new(LONG_MM / 2.0, to)];
        let middle = line(half - 7.5, half + 7.5);
        let pulled = model.pulls_across(&look, &from_c, &[middle, line(0.0, DEEP_MM), line(-20.0, -5.0)]);
        // E alpha K (mean of the square over the line - a third): pressed in the middle, where it is warmer than the rest.
        let iron = Iron::Gray.properties();
        let e_alpha = iron.youngs_gpa * 1e3 * iron.expansion_1e6_per_k * 1e-6;
        let expected = e_alpha * colder_k * ((7.5 / half).powi(2) / 3.0 - 1.0 / 3.0);
        let found = pulled[0].unwrap().mean_mpa;
        assert!((found - expected).abs() < 0.05 * expected.abs(), "{found} for {expected}");
        // Across all of it forces and moments are in balance.
        let whole = pulled[1].unwrap();
        assert!(whole.mean_mpa.abs() + whole.bend_mpa < 0.05 * expected.abs(), "{whole:?}");
        assert_eq!(pulled[2], None, "no iron there");
    }

    #[test]
    fn a_cell_beside_the_iron_is_as_the_iron_nearest_to_it() {
        let model = strip();
        let celsius: Vec<f64> = model.mesh.nodes.iter().map(|at| 100.0 + at.x_mm + at.y_mm).collect();
        let look = model.look_at(&celsius, 0.0, 20.0);
        // Cells of 20 mm, their middles at 10, 30 and so on: two rows of them above the strip, three in it.
        let cells = model.cells((-40.0, -40.0, 600.0, 60.0), 32);
        let shown: Vec<f64> = model.picture(&cells, &look).collect();
        assert_eq!((cells.columns, cells.rows, shown.len()), (32, 5, 160));
        for (cell, shown) in shown.into_iter().enumerate() {
            let middle = |at: usize| -30.0 + 20.0 * at as f64;
            let (x, y) = (middle(cell % 32).max(10.0), middle(cell / 32).max(10.0));
            assert!((shown - (100.0 + x + y)).abs() < 0.01, "cell {cell}: {shown} for {x}, {y}");
        }
    }

    #[test]
    fn another_lay_out_of_the_same_face_is_as_warm_at_the_same_places() {
        let model = strip();
        let cracked = FaceModel::of(FlatBody {
            cracks: vec![vec![At::new(300.0, 0.0), At::new(300.0, 30.0)]],
            ..model.piece.clone()
        })
        .unwrap();
        let along = |model: &FaceModel| -> Vec<f64> {
            model.mesh.nodes.iter().map(|at| 100.0 + at.x_mm / 3.0 - at.y_mm / 2.0).collect()
        };
        let carried = model.as_warm_as(&cracked, &along(&cracked));
        let furthest =
            carried.iter().zip(along(&model)).map(|(one, other)| (one - other).abs()).fold(0.0, f64::max);
        assert!(furthest < 0.01, "{furthest}");
    }

    /// A skewed plate with a round hole and a crack.
    fn plate() -> FlatBody {
        let at = |(x, y): (f64, f64)| At::new(x, y);
        FlatBody {
            iron: Iron::Gray.properties(),
            outline: [(-40.0, 10.0), (230.0, 0.0), (200.0, 140.0), (0.0, 160.0)].map(at).to_vec(),
            holes: vec![Hole::Round { middle: at((120.0, 60.0)), across_mm: 40.0 }],
            wall_mm: 12.0,
            thick: Vec::new(),
            cracks: vec![[(40.0, 60.0), (75.0, 100.0)].map(at).to_vec()],
        }
    }

    #[test]
    fn a_place_is_found_as_all_triangles_together_find_it() {
        let piece = plate();
        let mesh = Mesh::of(&piece, &[], Vec::new(), &Slits::All).unwrap();
        let least = |triangle: usize, at: At| {
            let [a, b, c] = [0, 1, 2].map(|local| mesh.nodes[mesh.triangles[triangle][local]]);
            let shares = [twice_area(at, b, c), twice_area(a, at, c), twice_area(a, b, at)];
            shares.into_iter().fold(f64::INFINITY, f64::min) / twice_area(a, b, c)
        };
        let places = (0..60).flat_map(|row| (0..60).map(move |column| (column, row)));
        let mut beside = 0;
        for (column, row) in places {
            let at = At::new(-60.0 + 5.1 * f64::from(column), -12.0 + 3.1 * f64::from(row));
            let best = (0..mesh.triangles.len()).map(|triangle| least(triangle, at)).fold(f64::MIN, f64::max);
            match mesh.find(at) {
                Some((triangle, shares)) => {
                    assert!((least(triangle, at) - best).abs() < 1e-9, "at {at:?}");
                    let there = Straight::of(&mesh, triangle).at(shares, 1.0).at;
                    assert!(there.distance_mm(at) < 1e-6, "{there:?} for {at:?}");
                }
                None => {
                    beside += 1;
                    assert!(best <= -0.5, "at {at:?}");
                }
            }
        }
        assert!((200..2000).contains(&beside), "{beside} places lie beside it");
    }
}
