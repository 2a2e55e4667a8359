//! Places on the map, and points that are filed.

use uuid::Uuid;

use super::super::map::LineOnFace;
use super::super::prep::SeamPlan;
use super::{CheckInputs, PlaceOnMap};
use crate::job::{CheckPlace, CheckWhat};
use crate::map::{At, length_mm, place_along};
use crate::render::said;

impl CheckInputs<'_> {
    /// Half way along the seam on its face; of a second side on the face behind where that is drawn, else on the same,
    /// beside the first.
    pub(super) fn on_map(&self, at: CheckPlace) -> Vec<PlaceOnMap> {
        let Some(crack) = at.at else { return Vec::new() };
        let on = |behind: bool| {
            let faces = self.map.faces.iter();
            let mut lines = faces.flat_map(|face| face.lines.iter().map(move |line| (face.id, line)));
            lines.find(|(_, line)| line.crack == crack && line.from_behind == behind)
        };
        let (found, share, behind) = match (at.side, on(true)) {
            (Some(2), Some(back)) => (Some(back), 1.0 / 2.0, false),
            (Some(2), None) => (on(false), 2.0 / 3.0, true),
            (Some(_), None) => (on(false), 1.0 / 3.0, false),
            _ => (on(false), 1.0 / 2.0, false),
        };
        let place = |(face, line): (Uuid, &LineOnFace)| {
            let at = place_along(&line.points, share * length_mm(&line.points))?;
            Some(PlaceOnMap { face, at, behind })
        };
        found.and_then(place).into_iter().collect()
    }

    /// The seam that is filed, and how many points lie along one of its toes.
    fn filed(&self, at: CheckPlace) -> Option<(&SeamPlan, usize)> {
        let seam = self.prep?.seams.iter().find(|seam| Some(seam.id) == at.at)?;
        let count = (seam.length_mm / FILED_EACH_MM).ceil().max(1.0) as usize;
        (at.what == CheckWhat::FileEdge).then_some((seam, count))
    }

    pub(super) fn points_words(&self, at: CheckPlace) -> String {
        let Some((_, count)) = self.filed(at) else { return String::new() };
        let apart = said("{50 mm}", self.part.units);
        match count {
            1 => "2 points, one at each toe".to_owned(),
            _ => format!("{} points, each {apart} along both toes", 2 * count),
        }
    }

    /// Half as far from either end as they are apart, at the edge of the filler on both sides of the seam, on the face of
    /// the place.
    pub(super) fn points(&self, at: CheckPlace) -> Vec<At> {
        let Some((seam, count)) = self.filed(at) else { return Vec::new() };
        let Some(place) = self.on_map(at).into_iter().next() else { return Vec::new() };
        let mut lines =
            self.map.faces.iter().filter(|face| face.id == place.face).flat_map(|face| &face.lines);
        let Some(line) = lines.find(|line| line.crack == seam.id) else { return Vec::new() };
        let long = length_mm(&line.points);
        let off = seam.section.map_or(0.0, |section| section.top_width_mm / 2.0);
        let beside = |along: f64| {
            let (here, near) = (place_along(&line.points, along)?, place_along(&line.points, along - 0.5)?);
            let (x, y) = (here.x_mm - near.x_mm, here.y_mm - near.y_mm);
            let one = x.hypot(y).max(f64::MIN_POSITIVE);
            let at = |side: f64| At::new(here.x_mm - side * off * y / one, here.y_mm + side * off * x / one);
            Some([-1.0, 1.0].map(at))
        };
        let each = (0..count).filter_map(|step| beside((step as f64 + 0.5) / count as f64 * long));
        each.flatten().collect()
    }
}

/// House: so far apart a file is tried along the toes.
const FILED_EACH_MM: f64 = 50.0;
