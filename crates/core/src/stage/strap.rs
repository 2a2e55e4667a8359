//! A strap over a seam that carries and whose joint stands less than whole iron: how much steel, bolted where, what it takes.

use serde::Serialize;
use uuid::Uuid;

use super::looked::duty;
use super::part::PartFacts;
use super::prep::{PrepPlan, SeamPlan};
use crate::casting::said::Load;
use crate::field;
use crate::iron::Iron;
use crate::job::Round;
use crate::method::{Joins, Way};
use crate::prep::strap::{DIAMETERS_OFF, Flat, Stock, Strap, Strapped, strap};
use crate::quantity::{Unit, UnitSystem};
use crate::render::said;

/// A strap over one seam.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StrapPlan {
    pub crack: Uuid,
    pub letter: String,
    /// It was said that one is put on.
    pub chosen: bool,
    /// The strap is what mends it: nothing is chosen.
    pub is_the_repair: bool,
    /// "The joint stands 80 % of whole iron: 220 mm² of steel make up for the rest."
    pub sentence: String,
    /// "Flat 60 × 6 mm, 300 mm long"; empty where no flat that is sold will do.
    pub steel: String,
    /// "2 bolts M20 a side, 60 mm off the seam and each other, holes 21 mm"
    pub bolts: String,
    /// "It takes 29 % of a pull."
    pub takes: String,
    /// The same, 0 to 1; nothing where no flat will do.
    #[serde(skip)]
    pub share: Option<f64>,
    pub care: Vec<String>,
    /// As it is drawn; nothing where no flat will do.
    pub drawn: Option<StrapDrawn>,
}

/// A strap as it is drawn, in mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StrapDrawn {
    pub seam_mm: f64,
    pub wall_mm: f64,
    pub wide_mm: f64,
    pub thick_mm: f64,
    /// From the seam to its end, on each side.
    pub reach_mm: f64,
    pub bolt_mm: f64,
    /// On each side.
    pub bolts: u32,
    /// From the seam to the first hole, and from hole to hole.
    pub pitch_mm: f64,
}

/// **House**: minutes to cut and fit one, and for each bolt.
const FIT_MIN: f64 = 30.0;
const BOLT_MIN: f64 = 10.0;

impl StrapPlan {
    /// Minutes of hands.
    pub(crate) fn minutes(&self) -> f64 {
        FIT_MIN + BOLT_MIN * self.drawn.map_or(0.0, |drawn| 2.0 * f64::from(drawn.bolts))
    }
}

/// What straps are laid out for.
pub(crate) struct StrapsInputs<'a> {
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub way: Way,
    pub prep: &'a PrepPlan,
    /// Strength of the joint against whole iron, and the iron that is measured against.
    pub ratio: f64,
    pub iron: Iron,
}

impl StrapsInputs<'_> {
    /// A strap for each seam that carries and stands less than whole iron.
    pub fn straps(&self) -> Vec<StrapPlan> {
        if !duty(self.round, self.part).carries || self.round.get(field::part::LOADS).is_none() {
            return Vec::new();
        }
        self.prep
            .seams
            .iter()
            .filter(|seam| seam.patch.is_none())
            .filter_map(|seam| self.strap(seam))
            .collect()
    }

    fn strap(&self, seam: &SeamPlan) -> Option<StrapPlan> {
        let (ratio, properties) = (self.ratio, self.iron.properties());
        let is_the_repair = self.way.method.entry().joins == Joins::Strap;
        let units = self.part.units;
        let found = strap(Strapped {
            ratio,
            seam_mm: seam.length_mm,
            wall_mm: seam.wall_mm,
            tensile_mpa: properties.tensile_mpa,
            youngs_gpa: properties.youngs_gpa,
            room_mm: self.part.size_mm.map_or(f64::INFINITY, |(l, w, h)| l.max(w).max(h)),
            stock: match units {
                UnitSystem::Metric => Stock::Metric,
                UnitSystem::Imperial => Stock::Inch,
            },
        })?;
        let bent = self.round.get(field::part::LOADS).is_some_and(|loads| loads.into_iter().any(Load::bends));
        let mut care = vec![
            "On the side that is pulled, across the seam; never over a face that has to fit.".to_owned(),
            "Each hole is a new crack waiting: drilled, not burnt, its edges broken, none in the flange that is pulled."
                .to_owned(),
            "It does not cure the cause.".to_owned(),
        ];
        if bent {
            care.insert(1, "Bent both ways, it wants one on each side.".to_owned());
        }
        Some(StrapPlan {
            crack: seam.id,
            letter: seam.letter.clone(),
            // Where the strap is the repair it is no further one.
            chosen: !is_the_repair && self.round.get(field::crack::STRAP.of(seam.id)) == Some(true),
            is_the_repair,
            sentence: sentence(&found, ratio, units),
            steel: found.flat.as_ref().map_or_else(String::new, |flat| steel(flat, units)),
            bolts: found.flat.as_ref().map_or_else(String::new, |flat| bolts(flat, units)),
            takes: found.flat.as_ref().map_or_else(
                || "No flat that is sold carries it here: have a plate made for it, or choose a stronger joint.".to_owned(),
                |flat| format!("It takes about {:.0} % of a pull.", flat.share * 100.0),
            ),
            share: found.flat.as_ref().map(|flat| flat.share),
            care,
            drawn: found.flat.map(|flat| StrapDrawn {
                seam_mm: seam.length_mm,
                wall_mm: seam.wall_mm,
                wide_mm: flat.wide_mm,
                thick_mm: flat.thick_mm,
                reach_mm: flat.reach_mm,
                bolt_mm: flat.bolt_mm,
                bolts: flat.bolts,
                pitch_mm: DIAMETERS_OFF * flat.bolt_mm,
            }),
        })
    }
}

fn sentence(found: &Strap, ratio: f64, units: UnitSystem) -> String {
    let needed_mm2 = found.by_strength_mm2.max(found.by_stiffness_mm2);
    let why = if found.by_stiffness_mm2 > found.by_strength_mm2 {
        "so that it takes up the load before the joint does"
    } else {
        "by what the joint does not stand"
    };
    format!(
        "The joint stands about {:.0} % of whole iron: {} of steel over it, {why}.",
        ratio * 100.0,
        units.say(needed_mm2, Unit::SquareMillimetres)
    )
}

fn steel(flat: &Flat, units: UnitSystem) -> String {
    said(
        &format!(
            "Flat {{{} mm}} wide, {{{} mm}} thick, {{{:.0} mm}} long",
            flat.wide_mm,
            flat.thick_mm,
            2.0 * flat.reach_mm
        ),
        units,
    )
}

fn bolts(flat: &Flat, units: UnitSystem) -> String {
    said(
        &format!(
            "{} bolts {} a side, {{{:.0} mm}} off the seam and from each other",
            flat.bolts,
            flat.bolt,
            DIAMETERS_OFF * flat.bolt_mm
        ),
        units,
    )
}
