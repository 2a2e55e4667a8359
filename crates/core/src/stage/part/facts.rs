//! The part's facts, read once.

use super::drawn::{DrawnPart, drawn_part};
use crate::casting::said::Lifetime;
use crate::casting::said::{Contents, Reached};
use crate::casting::shape::{PartShape, Restraint, Surface, SurfaceBy};
use crate::casting::weight::{EstimatedWeight, estimated_weight};
use crate::field;
use crate::heat::ThermalBody;
use crate::iron::{Era, Family, IronProperties};
use crate::job::{Job, Round};
use crate::map::MarkKind;
use crate::quantity::{Celsius, Kilograms, Millimetres, Unit, UnitSystem, both};
use crate::shop::Shop;

/// What the part weighs.
#[derive(Debug, Clone, PartialEq)]
pub enum Weight {
    Weighed(f64),
    Estimated(EstimatedWeight),
}

impl Weight {
    pub fn kg(&self) -> f64 {
        match self {
            Self::Weighed(kg) => *kg,
            Self::Estimated(estimate) => estimate.kg,
        }
    }

    /// Least and most; the same when it was weighed.
    pub fn range_kg(&self) -> (f64, f64) {
        match self {
            Self::Weighed(kg) => (*kg, *kg),
            Self::Estimated(estimate) => (estimate.low_kg, estimate.high_kg),
        }
    }
}

/// What lies beside the joint and must stay cool.
#[derive(Debug, Clone, PartialEq)]
pub struct HeatShy {
    pub what: String,
    pub limit_c: Option<f64>,
    /// Where along the longest side, 0 to 1; nothing while nobody has said.
    pub along: Option<f64>,
}

/// The part's facts. `None` is not known.
#[derive(Debug, Clone)]
pub struct PartFacts {
    pub family: Family,
    pub era: Era,
    pub weight: Option<Weight>,
    pub size_mm: Option<(f64, f64, f64)>,
    pub shape: Option<PartShape>,
    pub wall_mm: Option<f64>,
    /// Where along the longest side the break lies, 0 to 1; the middle while nobody has said.
    pub station: f64,
    pub station_known: bool,
    pub both_sides: Option<bool>,
    pub holds: Option<Contents>,
    /// Where the temperature is read, by the names on the map.
    pub reading_places: Vec<String>,
    pub fluid_tight: Option<bool>,
    pub life_days: Option<f64>,
    pub heat_shy: Vec<HeatShy>,
    pub ambient_c: f64,
    /// The drawn face that is the part; nothing while none is.
    pub drawn: Option<DrawnPart>,
    /// Whether the iron round a seam on that face holds it in; nothing while no crack of it lies there.
    pub held_in: Option<bool>,
    /// The system sentences speak in.
    pub units: UnitSystem,
}

/// House: what is taken where nobody has measured the wall.
pub const GUESSED_WALL_MM: f64 = 10.0;
/// Ours: a season.
const SEASON_DAYS: f64 = 180.0;
/// Ours: for good, as a maker of machines would have it.
const FOR_GOOD_DAYS: f64 = 3_650.0;

impl PartFacts {
    /// Of a round of the job.
    pub fn read(job: &Job, round: &Round, shop: &Shop) -> Self {
        let mut facts = Self::said(round, shop);
        facts.drawn = drawn_part(job, round, &facts);
        facts
    }

    fn said(round: &Round, shop: &Shop) -> Self {
        let size = [field::part::LENGTH, field::part::WIDTH, field::part::HEIGHT].map(|side| round.get(side));
        let along = round.get(field::part::BREAK_STATION).map(|percent| percent / 100.0);
        let size_mm = match size {
            [Some(l), Some(w), Some(h)] => Some((l, w, h)),
            _ => None,
        };
        let shape = round.get(field::part::SHAPE);
        let wall_mm = round.get(field::part::WALL);
        let holds = round.get(field::part::HOLDS);
        let estimated = || {
            // Ours: the irons differ by 2 % in density, far less than the estimate is good to.
            let density = crate::iron::Iron::Gray.properties().density_kg_m3;
            estimated_weight(shape?, size_mm?, wall_mm, density).map(Weight::Estimated)
        };
        Self {
            family: round.get(field::part::FAMILY).unwrap_or(Family::Unknown),
            era: round.get(field::part::ERA).unwrap_or(Era::Unknown),
            weight: round.get(field::part::MASS).map(Weight::Weighed).or_else(estimated),
            size_mm,
            shape,
            wall_mm,
            station: along.unwrap_or(0.5),
            station_known: along.is_some(),
            both_sides: round.get(field::part::SIDES).map(|sides| sides == Reached::Both),
            fluid_tight: holds
                .map(|holds| !matches!(holds, Contents::Nothing | Contents::Fumes))
                .or_else(|| round.get(field::part::FLUID_TIGHT)),
            holds,
            reading_places: round
                .marks
                .iter()
                .filter(|mark| mark.what == MarkKind::ReadingPlace)
                .map(|mark| round.get(field::mark::NAME.of(mark.id)).unwrap_or(&mark.name).to_owned())
                .collect(),
            life_days: round.get(field::part::LIFE_WANTED).or_else(|| {
                match round.get(field::part::LIFE)? {
                    Lifetime::UntilNew => round.get(field::part::REPLACEMENT_WAIT).map(|days| days.max(1.0)),
                    Lifetime::Season => Some(SEASON_DAYS),
                    Lifetime::Good => Some(FOR_GOOD_DAYS),
                }
            }),
            heat_shy: heat_shy(round),
            ambient_c: shop.ambient_c,
            drawn: None,
            held_in: None,
            units: shop.units,
        }
    }

    pub fn closed(&self) -> bool {
        self.shape.is_some_and(PartShape::closed)
    }

    /// What keeps its seams from expanding and shrinking. A shape that is closed stays so, whatever the drawn face says:
    /// what it was cast with is not in that.
    pub fn restraint(&self) -> Restraint {
        match self.held_in {
            Some(true) if !self.closed() => Restraint::HeldIn,
            _ => Restraint::of(self.closed()),
        }
    }

    /// The lowest temperature anything left on the part must not pass, and what that is.
    pub fn coolest(&self) -> Option<(&HeatShy, f64)> {
        self.heat_shy.iter().filter_map(|shy| Some((shy, shy.limit_c?))).min_by(|a, b| a.1.total_cmp(&b.1))
    }

    /// It holds nothing but gas on its way, under little pressure: an intake, exhaust or turbo manifold.
    pub fn duct(&self) -> bool {
        match self.holds {
            Some(Contents::Duct) => true,
            Some(Contents::Gas) => self.family == Family::HotExhaust,
            _ => false,
        }
    }

    /// Paint that is on it may be from before lead went out of it: old, or of unknown age.
    pub fn may_be_leaded(&self) -> bool {
        self.era != Era::From1970On
    }

    /// The casting for the heat model; nothing while weight, size or shape is not known.
    pub fn body(&self, iron: IronProperties) -> Option<ThermalBody> {
        self.body_weighing(iron, self.weight.as_ref()?.kg())
    }

    /// The same, if it weighed so much.
    pub fn body_weighing(&self, iron: IronProperties, kg: f64) -> Option<ThermalBody> {
        let (l, w, h) = self.size_mm?;
        let mm = |value| Millimetres::new(value).ok();
        let (mass, size) = (Kilograms::new(kg).ok()?, (mm(l)?, mm(w)?, mm(h)?));
        let surface = self.surface(&iron, mass, size)?;
        ThermalBody::new(iron, mass, size, surface.factor, Celsius::new(self.ambient_c).ok()?).ok()
    }

    /// The same, slow to cool: by the drawn face or by shape and wall, whichever gives off less.
    pub fn slow_body_weighing(&self, iron: IronProperties, kg: f64) -> Option<ThermalBody> {
        let by_shape = Self { drawn: None, ..self.clone() }.body_weighing(iron, kg)?;
        let as_drawn = self.body_weighing(iron, kg)?;
        Some(if by_shape.surface_m2() < as_drawn.surface_m2() { by_shape } else { as_drawn })
    }

    /// What gives off heat, if it weighed so much: the drawn face that is the part, else by shape and wall.
    fn surface(
        &self,
        iron: &IronProperties,
        mass: Kilograms,
        size: (Millimetres, Millimetres, Millimetres),
    ) -> Option<Surface> {
        let shape = self.shape?;
        if let Some(drawn) = &self.drawn {
            return Some(Surface::drawn(drawn.surface_m2, size));
        }
        Some(shape.surface(iron, mass, size, self.wall_mm.and_then(|mm| Millimetres::new(mm).ok())))
    }

    /// "0.23 m²: as Front is drawn, both sides and its rims"; empty while it is not known.
    pub fn surface_words(&self, body: &ThermalBody) -> String {
        let counted = self.surface(&body.iron, body.mass, (body.length, body.width, body.height));
        let from = match counted.map(|surface| surface.by) {
            None => return String::new(),
            Some(SurfaceBy::Drawn) => {
                let name = self.drawn.as_ref().map_or("", |drawn| &drawn.name);
                format!("as {name} is drawn, both sides and its rims")
            }
            Some(SurfaceBy::Iron) => "its iron by the usual wall, less than its box has".to_owned(),
            Some(SurfaceBy::Envelope) => "the box it fits in, by its shape".to_owned(),
        };
        format!("{}: {from}", self.units.say(body.surface_m2(), Unit::SquareMetres))
    }

    /// "22 kg", or "about 18 kg" where it is estimated; empty while not known.
    pub fn weight_words(&self) -> String {
        match &self.weight {
            None => String::new(),
            Some(Weight::Weighed(kg)) => self.units.say(*kg, Unit::Kilograms),
            Some(Weight::Estimated(estimate)) => {
                format!("about {}", self.units.say(estimate.kg, Unit::Kilograms))
            }
        }
    }

    /// "22 kg, 420 x 300 x 220 mm".
    pub fn size_words(&self) -> String {
        let units = self.units;
        let number = |mm: f64| match units {
            UnitSystem::Metric => both(mm, Unit::Millimetres).0.number,
            UnitSystem::Imperial => both(mm, Unit::Millimetres).1.number,
        };
        let size = self
            .size_mm
            .map(|(l, w, h)| format!("{} × {} × {}", number(l), number(w), units.say(h, Unit::Millimetres)));
        match (self.weight_words(), size) {
            (weight, Some(size)) if !weight.is_empty() => format!("{weight}, {size}"),
            _ => "not known".to_owned(),
        }
    }
}

fn heat_shy(round: &Round) -> Vec<HeatShy> {
    // Job files from before there could be several have one under the part itself.
    let first = (round.get(field::part::HEAT_SHY), round.get(field::part::HEAT_SHY_LIMIT), None);
    let several = round.neighbours.iter().map(|neighbour| {
        let of = neighbour.id;
        let along = round.get(field::neighbour::ALONG.of(of)).map(|percent| percent / 100.0);
        (round.get(field::neighbour::WHAT.of(of)), round.get(field::neighbour::LIMIT.of(of)), along)
    });
    std::iter::once(first)
        .chain(several)
        .filter(|(what, limit, _)| what.is_some() || limit.is_some())
        .map(|(what, limit_c, along)| HeatShy {
            along,
            what: what.unwrap_or("something beside the joint").to_owned(),
            limit_c,
        })
        .collect()
}
