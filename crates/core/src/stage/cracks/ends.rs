//! The ends of a crack: what each is, and what is done there.

use crate::crack::said::Behind;
use crate::method::customs::StopHoleAt;
use serde::Serialize;
use uuid::Uuid;

use super::laid::{FaceGeometry, LaidEnd};
use crate::crack::said::EndKind;
use crate::crack::stop_hole::{Beyond, StopHole, stop_hole};
use crate::job::Round;
use crate::map::{At, breaks_out, circle, goes_on_to, nearest_rim};
use crate::prep::groove::usual_lip_mm;
use crate::quantity::{Unit, UnitSystem, WallMillimetres, both};

/// A tip that is watched gets a punch mark so far past it. House.
const PUNCH_PAST_MM: f64 = 10.0;

/// One end of a crack.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndPlan {
    /// "left" for its first end, "right" for its last: what its figures are called by.
    pub side: String,
    /// left, right, upper, lower, first or last, as one looks at it.
    pub name: String,
    /// The wall there.
    pub wall_mm: f64,
    /// What it runs into, where that is on the map: "crack A", "bolt hole 2".
    #[serde(skip)]
    pub meets: String,
    /// Where it is; nothing while it is not on the map.
    pub at: Option<EndAt>,
    /// On the other side of the wall the tip lies so much further on: the hole is measured from there.
    #[serde(skip)]
    pub further_mm: f64,
    /// A hole there would break out: the groove is better run out to the edge.
    pub run_out: Option<RunOut>,
    /// Nothing while not known.
    pub kind: Option<EndKind>,
    /// Only at a tip with known wall and way of finding: as planned, or as it was really drilled.
    pub stop_hole: Option<StopHole>,
    /// It was drilled: the figures are those of the hole that is there.
    pub drilled: bool,
    /// It would come out at a face that must not be touched: not through.
    pub blind: bool,
    /// It is watched: the tip has moved on so far since, and whether that is more than its finding explains.
    pub grown: Option<Grown>,
    /// What to do at this end, in a sentence.
    pub sentence: String,
}

/// How far the tip of a crack that is watched has moved on.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Grown {
    pub mm: f64,
    /// More than how well it was found explains: act.
    pub really: bool,
}

/// Where an end of a crack is on the map.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct EndAt {
    pub face: Uuid,
    /// The tip as it was found on this face.
    pub tip: At,
    /// The middle of its stop-hole; nothing where it gets none.
    pub hole: Option<At>,
    /// The punch mark past a tip that is watched.
    pub punch: Option<At>,
    /// Where that is: "41 mm from the left edge".
    pub measured: Vec<String>,
}

/// The proposal to run the groove out to the edge.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct RunOut {
    /// Where it runs out.
    pub to: At,
    /// From the tip.
    pub mm: f64,
    /// It is done so.
    pub taken: bool,
    pub sentence: String,
}

/// Faces that must not be touched, and whether one lies behind this crack.
#[derive(Clone, Copy)]
pub(super) struct KeptFaces<'a> {
    pub faces: &'a str,
    pub behind: Option<Behind>,
}

/// What an end is laid out from.
pub(super) struct EndInputs<'a> {
    pub kind: Option<EndKind>,
    pub wall_mm: f64,
    /// How far beyond it really ends, as this shop has found.
    pub beyond: Option<Beyond>,
    pub find_better: bool,
    /// What was really drilled, and how far past the found tip.
    pub drilled_mm: Option<f64>,
    pub past_mm: Option<f64>,
    /// The welder runs the groove out to the edge instead.
    pub run_out: bool,
    /// It is neither stopped nor repaired.
    pub watched: bool,
    pub grown_mm: Option<f64>,
    pub kept: Option<KeptFaces<'a>>,
    pub on_map: Option<&'a LaidEnd>,
    pub laid: &'a FaceGeometry<'a>,
    pub round: &'a Round,
    pub drills_mm: &'a [f64],
    /// Where the hole goes, as it is taught.
    pub drill: StopHoleAt,
    pub units: UnitSystem,
}

impl EndInputs<'_> {
    fn planned(&self) -> Option<StopHole> {
        let (wall, beyond) = (WallMillimetres::new(self.wall_mm).ok()?, self.beyond?);
        let hole = stop_hole(wall, beyond, self.drills_mm);
        // No hole: it is ground until the line is gone.
        match self.drill {
            StopHoleAt::None => return None,
            StopHoleAt::OnTip => {
                return Some(StopHole {
                    pilot_mm: hole.pilot_mm,
                    ..StopHole::drilled(hole.drill_mm, 0.0, beyond)
                });
            }
            StopHoleAt::Past => {}
        }
        Some(if self.find_better { hole } else { hole.well_past(beyond) })
    }

    fn hole(&self) -> Option<StopHole> {
        let planned = self.planned();
        let Some(drill_mm) = self.drilled_mm else { return planned };
        let offset_mm = self.past_mm.or(planned.map(|planned| planned.offset_mm))?;
        Some(StopHole::drilled(drill_mm, offset_mm, self.beyond?))
    }

    /// What the hole must not come out at.
    fn behind(&self) -> Option<String> {
        let KeptFaces { faces, behind } = self.kept?;
        let lip = self.units.say(usual_lip_mm(self.wall_mm), Unit::Millimetres);
        match behind {
            Some(Behind::Kept) => Some(format!(
                "Not through: {faces} lies behind and is not to be touched. Blind, {lip} short of the far side, or a \
                 smaller hole, or ask whose it is."
            )),
            Some(Behind::Free) => None,
            None => Some(format!(
                "A hole through may come out at what is not to be touched ({faces}): look first. If it does: blind, \
                 {lip} short of the far side, a smaller hole, or ask whose it is."
            )),
        }
    }

    /// How far a tip that is watched has moved on: more than 2 u is growth.
    fn grown(&self) -> Option<Grown> {
        let u = self.beyond?.deviation_mm;
        let mm = self.grown_mm.filter(|_| self.watched)?;
        Some(Grown { mm, really: mm > 2.0 * u })
    }

    /// What is said of a tip that is watched.
    fn watched_sentence(&self) -> String {
        let say = |mm: f64| self.units.say(mm, Unit::Millimetres);
        let Some(Beyond { deviation_mm: u, .. }) = self.beyond else {
            return "how it was found says what growth means".to_owned();
        };
        match self.grown() {
            None => format!(
                "a punch mark {} past it shows whether it grows; more than {} is growth",
                say(PUNCH_PAST_MM),
                say(2.0 * u)
            ),
            Some(Grown { mm, really: false }) => {
                format!("grown {}: no more than how well it was found explains ({})", say(mm), say(2.0 * u))
            }
            Some(Grown { mm, really: true }) => format!(
                "grown {}, more than how well it was found explains ({}): act, stop it or repair it",
                say(mm),
                say(2.0 * u)
            ),
        }
    }

    /// Where the hole goes on the face.
    fn hole_at(&self, hole: &StopHole) -> Option<At> {
        let end = self.on_map?;
        Some(end.at.along(end.direction, end.further_mm + hole.offset_mm))
    }

    /// What a hole that would break out is better left for.
    fn run_out(&self, hole: &StopHole) -> Option<RunOut> {
        let end = self.on_map?;
        let face = &self.laid.faces[end.face];
        let mut rims = face.rims.clone();
        rims.extend(face.holes.iter().map(|hole| circle(hole.middle, hole.radius_mm)));
        let middle = self.hole_at(hole)?;
        let (off_mm, nearest) = nearest_rim(&rims, middle)?;
        if self.drilled_mm.is_some() || !breaks_out(off_mm, hole.drill_mm) {
            return None;
        }
        // Straight on where the crack points at the edge, else the shortest way.
        let to = goes_on_to(&rims, end.at, end.direction, 6.0 * hole.drill_mm).unwrap_or(nearest);
        let mm = end.at.distance_mm(to);
        let say = |mm: f64| self.units.say(mm, Unit::Millimetres);
        let rim = (off_mm - hole.drill_mm / 2.0).max(0.0);
        let sentence = format!(
            "The hole would lie {} from the edge, under twice its size: it will most likely break out when heated. \
             Run the groove out to the edge instead, {} further.",
            say(rim),
            say(mm)
        );
        Some(RunOut { to, mm, taken: self.run_out, sentence })
    }

    fn sentence(&self, hole: Option<&StopHole>) -> String {
        let say = |mm| self.units.say(mm, Unit::Millimetres);
        let Some(hole) = hole else { return "how it was found gives the stop-hole".to_owned() };
        let mut said = if self.drilled_mm.is_some() {
            let chance = both(hole.run_past_chance * 100.0, Unit::Percent).0.text();
            format!(
                "drilled: {}, its middle {} past the tip; {chance} that the crack runs past it",
                say(hole.drill_mm),
                say(hole.offset_mm)
            )
        } else if hole.find_tip_better {
            "find the tip better first, with chalk and oil, dye or magnetic particles".to_owned()
        } else if hole.well_past_mm.is_some() {
            "well past it, since the eye does not see the end: drill through, and carry the groove on into the \
             hole. Or find the tip better: chalk and oil first"
                .to_owned()
        } else {
            "drill through, centre punch first, countersink after".to_owned()
        };
        if self.drilled_mm.is_none()
            && let Some(behind) = self.behind()
        {
            said = match self.kept.and_then(|kept| kept.behind) {
                Some(Behind::Kept) => behind,
                _ => format!("{said}. {behind}"),
            };
        }
        said
    }
}

/// What an end is: as it lies on the map, and only where it is free as it was said.
pub(super) fn kind_of_end(
    on_map: Option<&LaidEnd>,
    said: Option<EndKind>,
    geometry: &FaceGeometry<'_>,
) -> Option<EndKind> {
    let Some(end) = on_map else { return said };
    match (end.kind, said) {
        (Some(kind), _) => Some(kind),
        // Where the edges are not known, the end may lie on one.
        (None, Some(EndKind::Edge)) if !geometry.faces[end.face].rims.is_empty() => None,
        (None, said) => said,
    }
}

pub(super) fn end(side: &str, inputs: &EndInputs<'_>) -> EndPlan {
    let kind = inputs.kind;
    let planned = (kind == Some(EndKind::Tip) && !inputs.watched).then(|| inputs.hole()).flatten();
    let run_out = planned.as_ref().and_then(|hole| inputs.run_out(hole));
    let taken = run_out.as_ref().is_some_and(|run_out| run_out.taken);
    let hole = planned.filter(|_| !taken);
    let meets = inputs.on_map.map_or_else(String::new, |end| end.meets.clone());
    let into = |what: &str| if meets.is_empty() { what.to_owned() } else { meets.clone() };
    let further_mm = inputs.on_map.map_or(0.0, |end| end.further_mm);
    let mut sentence = match kind {
        None => "say how it ends".to_owned(),
        Some(EndKind::Tip) if inputs.watched => inputs.watched_sentence(),
        Some(EndKind::Tip) if taken => "groove run out to the edge: no stop-hole".to_owned(),
        Some(EndKind::Tip) => inputs.sentence(hole.as_ref()),
        Some(EndKind::Edge) => "runs out: no stop-hole".to_owned(),
        Some(EndKind::Hole) => format!("ends in {}: no stop-hole", into("a bore")),
        Some(EndKind::Branch) => format!("joins {}: no stop-hole", into("another crack")),
        Some(EndKind::Hidden) => "goes out of sight: look at the other face before any heat".to_owned(),
    };
    if hole.is_some() && further_mm > 0.05 {
        let say = inputs.units.say(further_mm, Unit::Millimetres);
        sentence =
            format!("{sentence}. On the other face it runs {say} further: the hole goes past that tip");
    }
    EndPlan {
        side: side.to_owned(),
        name: inputs.on_map.map_or(side, |end| end.name).to_owned(),
        wall_mm: inputs.wall_mm,
        meets,
        at: inputs.on_map.map(|end| {
            let hole = hole.as_ref().and_then(|hole| inputs.hole_at(hole));
            let measured = hole.map(|at| inputs.laid.measured(inputs.round, end.face, at, inputs.units));
            EndAt {
                face: inputs.laid.faces[end.face].face.id,
                tip: end.at,
                hole,
                punch: (kind == Some(EndKind::Tip) && inputs.watched)
                    .then(|| end.at.along(end.direction, PUNCH_PAST_MM)),
                measured: measured.unwrap_or_default(),
            }
        }),
        further_mm,
        run_out,
        grown: inputs.grown(),
        kind,
        drilled: hole.is_some() && inputs.drilled_mm.is_some(),
        blind: hole.is_some() && inputs.kept.is_some_and(|kept| kept.behind == Some(Behind::Kept)),
        stop_hole: hole,
        sentence,
    }
}
