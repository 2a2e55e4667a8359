//! Heat in the plane of a face: conduction, a flame, what its faces and its rim lose.

use super::element::{Straight, along_side, sum6};
use super::face::FlatBody;
use super::laid_out::NoMesh;
use super::mesh::{Mesh, Slits};
use super::sparse::{Factor, Order};
use super::symmetric::Symmetric;
use crate::iron::IronProperties;
use crate::map::At;
use crate::sim::{EMISSIVITY, loss_w_m2k};

/// A flame that burns from the beginning to the end.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Flame {
    /// Its middle; it may lie beside the face.
    pub at: At,
    /// Net, into the iron.
    pub power_w: f64,
    /// So much of it goes evenly over the face, the rest about its middle.
    pub even_share: f64,
    /// Standard deviation of what goes about its middle.
    pub spot_mm: f64,
}

/// How long steps are, how closely they are solved, and how often it is looked at.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pace {
    pub step_s: f64,
    pub looks_s: f64,
    /// At first it is done more closely: until when, in which steps, looked at how often.
    pub at_first: Option<(f64, f64, f64)>,
    /// A step is solved when what is left is so small a share.
    pub close: f64,
}

impl Pace {
    /// Half a minute a step: what is too much by the properties of the step before and too little by the step itself
    /// nearly cancel, and temperatures are off by a thousandth or two. Looked at each whole minute.
    pub const EVEN: Self = Self { step_s: 30.0, looks_s: 60.0, at_first: None, close: CLOSE };

    /// Step and look at a moment.
    fn at(&self, seconds: f64) -> (f64, f64) {
        match self.at_first {
            Some((until_s, step_s, looks_s)) if seconds < until_s - 1e-6 => (step_s, looks_s),
            _ => (self.step_s, self.looks_s),
        }
    }
}

/// What a face goes through.
#[derive(Debug, Clone, PartialEq)]
pub struct Heating {
    pub ambient_c: f64,
    pub start_c: f64,
    pub minutes: f64,
    pub flames: Vec<Flame>,
    pub pace: Pace,
    /// What the flames are held back to at the hottest place; nothing where nobody looks.
    pub most_c: Option<f64>,
    /// It goes no further once the joint is at this at its coldest; nothing where it goes on.
    pub enough_c: Option<f64>,
    /// What each face loses in W/m²K where it is covered, whatever it is at; nothing for still air.
    pub covered_w_m2k: Option<f64>,
    /// 1; else all is lost so many times as fast, or all walls are so many times as thick.
    pub loss_factor: f64,
    pub wall_factor: f64,
}

impl Heating {
    /// From the temperature of the shop, as the book has it.
    #[must_use]
    pub fn new(ambient_c: f64, minutes: f64, flames: Vec<Flame>) -> Self {
        Self {
            ambient_c,
            start_c: ambient_c,
            minutes,
            flames,
            pace: Pace::EVEN,
            most_c: None,
            enough_c: None,
            covered_w_m2k: None,
            loss_factor: 1.0,
            wall_factor: 1.0,
        }
    }
}

/// A face at the end of a heating.
#[derive(Debug, Clone, PartialEq)]
pub struct Heated {
    /// At each place that was asked for.
    pub at_c: Vec<f64>,
    pub least_c: f64,
    pub most_c: f64,
}

/// Loss of still air in W/m²K, as in the bar's heating. House.
const AIR_H: f64 = 10.0;
/// Both faces lose alike: geometry.
const FACES: f64 = 2.0;
/// mm² in a m², by definition.
const MM2: f64 = 1e6;
/// House: what is left of a step that is judged by.
const CLOSE: f64 = 1e-7;
/// House: a factor that took more rounds than these is taken anew, which takes about as long.
const ROUNDS_STAND: usize = 3;

/// What of a face's heat stands while its geometry stands.
#[derive(Debug, Clone)]
pub(super) struct HeatModel {
    iron: IronProperties,
    order: Order,
    pattern: Symmetric,
    triangles: Vec<Conducts>,
}

/// A face as it is heated, from step to step.
#[derive(Debug, Clone)]
pub(super) struct HeatRun<'a> {
    model: &'a HeatModel,
    mesh: &'a Mesh,
    heating: &'a Heating,
    matrix: Symmetric,
    factor: Option<Factor>,
    /// That the factor took in the last step.
    rounds: usize,
    step_s: f64,
    /// W at each node.
    given_w: Vec<f64>,
    pub celsius: Vec<f64>,
    /// A step ago; nothing before the first.
    before_c: Vec<f64>,
    pub minutes: f64,
    /// The flames are not taken away.
    pub burns: bool,
    /// Share of the flames that was on in the last step: less than 1 where they are held back.
    pub flame_share: f64,
}

/// Of a triangle, for each pair of its nodes: where it stands in the matrix, what it leads in W/K, and over how
/// much of it both have their share, at each point it is summed up at.
#[derive(Debug, Clone)]
struct Conducts {
    slots: [usize; PAIRS],
    leads: [f64; PAIRS],
    area_mm2: [f64; 6],
    wall_mm: f64,
}

/// Pairs of six nodes, each once: arithmetic.
const PAIRS: usize = 21;

fn pairs() -> impl Iterator<Item = (usize, usize)> {
    (0..6).flat_map(|one| (0..=one).map(move |other| (one, other)))
}

impl HeatModel {
    pub fn of(mesh: &Mesh, iron: IronProperties) -> Self {
        let neighbours = mesh.neighbours();
        let pattern = Symmetric::of(&neighbours, 1);
        let leads_w_mmk = iron.conductivity_w_mk / 1e3;
        Self {
            iron,
            order: Order::of(&mesh.nodes, &neighbours, 1),
            triangles: (0..mesh.triangles.len())
                .map(|triangle| Conducts::of(mesh, triangle, &pattern, leads_w_mmk))
                .collect(),
            pattern,
        }
    }
}

impl<'a> HeatRun<'a> {
    pub fn new(model: &'a HeatModel, mesh: &'a Mesh, heating: &'a Heating) -> Self {
        Self {
            matrix: model.pattern.clone(),
            factor: None,
            rounds: 0,
            step_s: 0.0,
            given_w: given_w(mesh, &heating.flames),
            celsius: vec![heating.start_c; mesh.nodes.len()],
            before_c: Vec::new(),
            minutes: 0.0,
            burns: true,
            flame_share: 1.0,
            model,
            mesh,
            heating,
        }
    }

    /// A step; nothing left to do is `false`.
    pub fn step(&mut self) -> bool {
        let left_s = (self.heating.minutes - self.minutes) * 60.0;
        if left_s <= 1e-6 {
            return false;
        }
        let step_s = self.heating.pace.at(self.minutes * 60.0).0.min(left_s);
        let unheated = self.assemble(step_s);
        let burns = if self.burns { 1.0 } else { 0.0 };
        let rest: Vec<f64> =
            unheated.iter().zip(&self.given_w).map(|(rest, given)| rest + burns * given).collect();
        // A step of another length has another matrix.
        if self.rounds > ROUNDS_STAND || step_s != self.step_s {
            self.factor = None;
        }
        self.rounds = 0;
        self.step_s = step_s;
        let Some(heated) = self.solved(&rest, self.guess_c()) else { return false };
        self.flame_share = 1.0;
        let now_c = match self.heating.most_c.filter(|most_c| heated.iter().any(|celsius| celsius > most_c)) {
            None => heated,
            Some(most_c) => {
                let Some(unheated) = self.solved(&unheated, self.celsius.clone()) else { return false };
                self.held_back(most_c, &unheated, heated)
            }
        };
        self.before_c = std::mem::replace(&mut self.celsius, now_c);
        self.minutes += step_s / 60.0;
        true
    }

    /// With as much of the flames as keeps every place at `most_c`: within a step all goes in a straight line with them.
    fn held_back(&mut self, most_c: f64, unheated: &[f64], heated: Vec<f64>) -> Vec<f64> {
        let share = unheated
            .iter()
            .zip(&heated)
            .filter(|(_, heated)| **heated > most_c)
            .map(|(unheated, heated)| (most_c - unheated) / (heated - unheated))
            .fold(1.0, f64::min)
            .max(0.0);
        self.flame_share = share;
        unheated.iter().zip(heated).map(|(unheated, heated)| unheated + share * (heated - unheated)).collect()
    }

    /// What solves the step, by the factor of a step before where there is one.
    fn solved(&mut self, rest: &[f64], guess_c: Vec<f64>) -> Option<Vec<f64>> {
        let order = &self.model.order;
        let (near, close) = (self.factor.as_ref(), self.heating.pace.close);
        let solved = near.and_then(|factor| self.matrix.solve_from(rest, guess_c, (factor, order), close));
        if let Some((solved, rounds)) = solved {
            self.rounds = self.rounds.max(rounds);
            return Some(solved);
        }
        // Conduction and loss are positive, so is their matrix.
        let factor = Factor::of(&self.matrix, order).ok()?;
        let solved = factor.solve(order, rest);
        self.factor = Some(factor);
        Some(solved)
    }

    /// As it went on in the step before: near to what the next one gives.
    fn guess_c(&self) -> Vec<f64> {
        if self.before_c.len() != self.celsius.len() {
            return self.celsius.clone();
        }
        self.celsius.iter().zip(&self.before_c).map(|(now, before)| 2.0 * now - before).collect()
    }

    /// Whether it is time to look at it, or it is the end.
    pub fn is_looked_at(&self) -> bool {
        let seconds = self.minutes * 60.0;
        let looks = seconds / self.heating.pace.at(seconds - 1.0).1;
        (looks - looks.round()).abs() < 1e-6 || self.minutes >= self.heating.minutes - 1e-6
    }

    /// The matrix of a step, and what stands at the right of it.
    fn assemble(&mut self, step_s: f64) -> Vec<f64> {
        let iron = &self.model.iron;
        let (ambient, wall_factor) = (self.heating.ambient_c, self.heating.wall_factor);
        let shares = Straight::of(self.mesh, 0).six_points().map(|point| point.n);
        let shares_of_both = shares.map(|n| {
            let mut both = [0.0; PAIRS];
            both.iter_mut().zip(pairs()).for_each(|(both, (one, other))| *both = n[one] * n[other]);
            both
        });
        self.matrix.clear();
        let mut rest = vec![0.0; self.mesh.nodes.len()];
        for (nodes, conducts) in self.mesh.triangles.iter().zip(&self.model.triangles) {
            let celsius = nodes.map(|node| self.celsius[node]);
            let wall_mm = conducts.wall_mm * wall_factor;
            let mut sums = conducts.leads.map(|leads| leads * wall_factor);
            for ((n, of_both), area_mm2) in shares.iter().zip(&shares_of_both).zip(conducts.area_mm2) {
                let here = sum6(n, |local| celsius[local]);
                let holds = iron.density_kg_m3 * iron.specific_heat(here) * wall_mm / 1e9 / step_s;
                let loses = FACES * self.loss_w_m2k(here) / MM2;
                let (both, taken) = (area_mm2 * (holds + loses), area_mm2 * (holds * here + loses * ambient));
                for (local, node) in nodes.iter().enumerate() {
                    rest[*node] += taken * n[local];
                }
                for (sum, share) in sums.iter_mut().zip(of_both) {
                    *sum += both * share;
                }
            }
            for (slot, sum) in conducts.slots.iter().zip(sums) {
                self.matrix.values[*slot] += sum;
            }
        }
        self.rim_loses(&mut rest);
        rest
    }

    /// The rim loses over its wall, shared out to its nodes.
    fn rim_loses(&mut self, rest: &mut [f64]) {
        for (side, triangle) in &self.mesh.rim {
            let wall = self.mesh.walls_mm[*triangle] * self.heating.wall_factor;
            for (node, share_mm) in along_side(self.mesh, *side, 1.0) {
                let loses = self.loss_w_m2k(self.celsius[node]) / MM2 * wall * share_mm;
                self.matrix.add(node, node, loses);
                rest[node] += loses * self.heating.ambient_c;
            }
        }
    }

    fn loss_w_m2k(&self, celsius: f64) -> f64 {
        let still_air = || loss_w_m2k(AIR_H, EMISSIVITY, celsius, self.heating.ambient_c);
        self.heating.loss_factor * self.heating.covered_w_m2k.unwrap_or_else(still_air)
    }
}

impl Conducts {
    fn of(mesh: &Mesh, triangle: usize, matrix: &Symmetric, leads_w_mmk: f64) -> Self {
        let (nodes, wall_mm) = (mesh.triangles[triangle], mesh.walls_mm[triangle]);
        let straight = Straight::of(mesh, triangle);
        let (mut slots, mut leads, mut area_mm2) = ([0; PAIRS], [0.0; PAIRS], [0.0; 6]);
        for (at, (one, other)) in pairs().enumerate() {
            slots[at] = matrix.slot(nodes[one], nodes[other]);
            for point in straight.three_points() {
                let [a, b] = [point.dn[one], point.dn[other]];
                leads[at] += point.area_mm2 * leads_w_mmk * wall_mm * (a[0] * b[0] + a[1] * b[1]);
            }
        }
        for (area, point) in area_mm2.iter_mut().zip(straight.six_points()) {
            *area = point.area_mm2;
        }
        Self { slots, leads, area_mm2, wall_mm }
    }
}

/// What the flames give at each node: no power is lost beside the face.
fn given_w(mesh: &Mesh, flames: &[Flame]) -> Vec<f64> {
    let mut given = vec![0.0; mesh.nodes.len()];
    let points: Vec<(usize, super::element::Point)> = (0..mesh.triangles.len())
        .flat_map(|triangle| Straight::of(mesh, triangle).six_points().map(move |point| (triangle, point)))
        .collect();
    for flame in flames {
        let away2 = |at: At| (at.x_mm - flame.at.x_mm).powi(2) + (at.y_mm - flame.at.y_mm).powi(2);
        // Measured from the nearest iron, so that a flame far beside the face still gives all it has.
        let nearest2 = points.iter().map(|(_, point)| away2(point.at)).fold(f64::INFINITY, f64::min);
        let spot = |at: At| libm::exp(-(away2(at) - nearest2) / (2.0 * flame.spot_mm * flame.spot_mm));
        let (area, all) = points.iter().fold((0.0, 0.0), |(area, all), (_, point)| {
            (area + point.area_mm2, all + point.area_mm2 * spot(point.at))
        });
        for (triangle, point) in &points {
            let each =
                flame.power_w * (flame.even_share / area + (1.0 - flame.even_share) * spot(point.at) / all);
            for (local, node) in mesh.triangles[*triangle].iter().enumerate() {
                given[*node] += point.n[local] * point.area_mm2 * each;
            }
        }
    }
    given
}

/// What the face is at the end of a heating.
///
/// # Errors
/// [`NoMesh`] where it cannot be laid out.
pub fn heat(piece: &FlatBody, heating: &Heating, at: &[At]) -> Result<Heated, NoMesh> {
    let mesh = Mesh::of(piece, &[], Vec::new(), &Slits::All)?;
    let model = HeatModel::of(&mesh, piece.iron);
    let mut run = HeatRun::new(&model, &mesh, heating);
    while run.step() {}
    let at_c = at
        .iter()
        .filter_map(|at| mesh.find(*at))
        .map(|(triangle, shares)| {
            let n = Straight::of(&mesh, triangle).at(shares, 1.0).n;
            sum6(&n, |local| run.celsius[mesh.triangles[triangle][local]])
        })
        .collect();
    let fold = |start: f64, of: fn(f64, f64) -> f64| run.celsius.iter().copied().fold(start, of);
    Ok(Heated { at_c, least_c: fold(f64::INFINITY, f64::min), most_c: fold(f64::NEG_INFINITY, f64::max) })
}
