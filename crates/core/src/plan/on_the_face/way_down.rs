//! The drawn face on its way down in its packing: what cools ahead of what, and what that pulls on its seams.

use super::course::{As, Course};
use super::logged::warm_by_the_log;
use super::moments::{CourseView, FaceHeat, shown_of};
use super::part::{CoolingFace, FacePart};
use super::words::{Nearness, shares_words};
use crate::body::{BodyHeating, FaceModel, Look, Pace, Stands};
use crate::job::Job;
use crate::map::{At, FlamePlace};
use crate::plan::Plan;
use crate::quantity::{Rounding, Unit};

/// Ours: so often it is looked at, closely at first, and half as often at both ends of what is not known; so often it is
/// stepped between two looks.
const LOOKS: u32 = 16;
const STEPS: f64 = 3.0;
/// House: what the packing's loss is not known by.
const LOSSES: f64 = 0.3;
/// House: so little lag is told of no place.
const EVEN_K: f64 = 25.0;
/// Ours: a pull under so much of what the joint stands is next to nothing.
const NOTHING: f64 = 0.05;

/// The face from when it was covered, by its log, to hand-warm; as it is planned while it is not lit, or where an oven
/// heated it. `heated` is the same face as it was heated. Nothing where no cooling is reckoned.
///
/// # Source
/// House: of the whole part's cooling in its packing what each m² loses, the same all over.
#[must_use]
pub fn face_cooling(
    (job, plan): (&Job, &Plan),
    (cools, model): (&CoolingFace, &FaceModel),
    heated: Option<(&FacePart, &FaceModel)>,
) -> Option<FaceHeat> {
    let cooling = plan.cooling.as_ref()?;
    let by_log =
        heated.and_then(|(part, hot)| Some(model.as_warm_as(hot, &warm_by_the_log(job, plan, part, hot)?)));
    let logged = by_log.is_some();
    let down = Down {
        cools,
        model,
        curve: &cooling.curve,
        start: by_log.unwrap_or_else(|| model.evenly(cooling.start_c)),
    };
    let part = &cools.part;
    let runs = [As::Asked, As::Strong, As::Weak].map(|by| down.course(by));
    let [course, strong, weak] = &runs;
    let first = course.looks.first()?;
    let seen = CourseView { part, model, course, places: part.places(), cools: true };
    let put = FlamePlace { face: part.face, at: part.joint(), swept: false };
    let lag = |of: &Course| of.looks.iter().map(lag_k).fold(0.0, f64::max);
    let lags = runs.each_ref().map(lag);
    let hottest = part.celsius_words(first.most_c);
    let begins = match (logged, job.round().covered_minutes().is_some()) {
        (true, true) => format!("As it was when it was covered, {hottest} at its hottest."),
        (true, false) => format!("Covered as it is by its log, {hottest} at its hottest."),
        (false, _) => format!("From {hottest} all over, as it is planned."),
    };
    let beneath: Vec<String> = std::iter::once(begins)
        .chain(down.pulls(&runs))
        .chain(open_tips(part, model, (course, strong, weak)))
        .collect();
    let shown = shown_of(&seen, &vec![None; course.looks.len()], put);
    // Where the seams are, though they part nothing any more.
    let seams = cools.seams.iter().map(|(_, line)| line.clone());
    Some(FaceHeat {
        cracks: shown.cracks.iter().cloned().chain(seams).collect(),
        sentence: down.lag_words(course, lags),
        beneath: beneath.join(" "),
        logged,
        asks_much: Nearness::of(strong.worst()) >= Nearness::Watch,
        not_in_it: format!(
            "Flat, elastic, the face as drawn, as much lost by each m² of it. Not in it: stress that was cast in, what \
             the beads gave, iron that gives over {}, bending out of the face.",
            part.gives_words()
        ),
        ..shown
    })
}

/// How far the coldest place is behind the hottest, in K.
fn lag_k(look: &Look) -> f64 {
    look.most_c - look.least_c
}

/// A face that goes down from somewhere.
struct Down<'a> {
    cools: &'a CoolingFace,
    model: &'a FaceModel,
    /// Of the whole part: hours, °C.
    curve: &'a [(f64, f64)],
    start: Vec<f64>,
}

impl Down<'_> {
    fn course(&self, by: As) -> Course {
        let part = &self.cools.part;
        let ambient_c = part.ambient_c;
        let (loss_factor, wall_factor) = match by {
            As::Asked => (1.0, 1.0),
            As::Strong => (1.0 + LOSSES, by.wall()),
            As::Weak => (1.0 - LOSSES, by.wall()),
        };
        let hours = self.curve.last().map_or(0.0, |last| last.0);
        let looks_at = if by == As::Asked { LOOKS } else { LOOKS / 2 };
        let at = |look: u32| hours * (f64::from(look) / f64::from(looks_at)).powi(2);
        let mut celsius = self.start.clone();
        let mut looks = vec![self.model.look_at(&celsius, 0.0, ambient_c)];
        for look in 1..=looks_at {
            let (from, to) = (at(look - 1), at(look));
            let minutes = (to - from) * 60.0;
            let step_s = minutes * 60.0 / STEPS;
            if step_s <= 0.0 {
                continue;
            }
            let heating = BodyHeating {
                pace: Pace { step_s, looks_s: step_s, ..Pace::EVEN },
                covered_w_m2k: Some(self.loses_w_m2k(from, to)),
                loss_factor,
                wall_factor,
                ..BodyHeating::new(ambient_c, minutes, Vec::new())
            };
            self.model.goes_on(&mut celsius, &heating, |_, _| Some(false));
            looks.push(self.model.look_at(&celsius, to * 60.0, ambient_c));
        }
        Course::of(part, self.model, looks, by)
    }

    /// What a m² of it loses while the whole part falls as its curve does, in W/m²K.
    fn loses_w_m2k(&self, from_h: f64, to_h: f64) -> f64 {
        let piece = &self.cools.part.piece;
        let (hot, cold) = (self.curve_at(from_h), self.curve_at(to_h));
        let mean_c = f64::midpoint(hot, cold);
        let over_k = (mean_c - self.cools.part.ambient_c).max(1.0);
        let joules_a_k =
            piece.iron.density_kg_m3 * piece.iron.specific_heat(mean_c) * piece.volume_mm3() / 1e9;
        let m2_s = piece.surface_mm2() / 1e6 * (to_h - from_h) * 3600.0;
        // Held in an oven it loses nothing.
        (joules_a_k * (hot - cold) / (m2_s * over_k)).max(0.0)
    }

    fn curve_at(&self, hours: f64) -> f64 {
        let after = self.curve.partition_point(|point| point.0 < hours);
        let Some(&(to_h, to_c)) = self.curve.get(after) else {
            return self.curve.last().map_or(self.cools.part.ambient_c, |last| last.1);
        };
        match after.checked_sub(1).map(|before| self.curve[before]) {
            Some((from_h, from_c)) if to_h > from_h => {
                from_c + (to_c - from_c) * (hours - from_h) / (to_h - from_h)
            }
            _ => to_c,
        }
    }

    /// "At the bottom it cools ahead, in the middle behind: by 35 to 50 °C after about 25 min."
    fn lag_words(&self, course: &Course, lags: [f64; 3]) -> String {
        let part = &self.cools.part;
        let units = part.units;
        let show = |k: f64, way| units.show(k, Unit::Kelvins, way);
        let most = lags.into_iter().fold(0.0, f64::max);
        if most < EVEN_K {
            return format!(
                "It cools evenly: no place is {} ahead of another.",
                show(EVEN_K, Rounding::Nearest).text()
            );
        }
        let least = lags.into_iter().fold(f64::INFINITY, f64::min);
        let (low, high) = (show(least, Rounding::Nearest), show(most, Rounding::Nearest));
        let by = if low == high { high.text() } else { format!("{} to {}", low.number, high.text()) };
        let worst = course.looks.iter().max_by(|a, b| lag_k(a).total_cmp(&lag_k(b)));
        let Some(worst) = worst else { return String::new() };
        let when = match worst.minutes {
            now if now <= 0.0 => "when it is covered".to_owned(),
            minutes => format!("after about {}", part.minutes_words(minutes)),
        };
        let mut places: Vec<(&str, f64)> = part
            .sectors()
            .into_iter()
            .filter_map(|(name, at)| Some((name, self.model.at(worst, at)?)))
            .collect();
        places.sort_by(|a, b| a.1.total_cmp(&b.1));
        match (places.first(), places.last()) {
            (Some((cold, _)), Some((hot, _))) if cold != hot => {
                format!("{cold} it cools ahead, {} behind: by {by}, {when}.", hot.to_lowercase())
            }
            _ => format!("One place cools {by} ahead of another, {when}."),
        }
    }

    /// What its seams are pulled by on the way: the one that is pulled most.
    fn pulls(&self, runs: &[Course; 3]) -> Option<String> {
        let lines: Vec<Vec<At>> = self.cools.seams.iter().map(|(_, line)| line.clone()).collect();
        let most = |course: &Course| -> Vec<f64> {
            let mut most = vec![0.0_f64; lines.len()];
            for look in &course.looks {
                let pulled = self.model.pulls_across(look, &self.start, &lines);
                for (most, pulled) in most.iter_mut().zip(pulled) {
                    *most = most.max(pulled.map_or(0.0, |it| it.most_mpa));
                }
            }
            most
        };
        let runs = runs.each_ref().map(most);
        let seam = (0..lines.len()).max_by(|a, b| runs[0][*a].total_cmp(&runs[0][*b]))?;
        let of = runs.map(|run| run[seam]);
        let (least, most) =
            (of.into_iter().fold(f64::INFINITY, f64::min), of.into_iter().fold(0.0, f64::max));
        let stands = Stands::of(self.cools.part.iron, self.cools.joint_ratio).joint_mpa(false);
        let letter = &self.cools.seams[seam].0;
        if most < NOTHING * stands {
            return Some(format!("That pulls next to nothing on {}.", of_the_seams(letter, lines.len())));
        }
        let units = self.cools.part.units;
        let show = |mpa: f64| units.show(mpa, Unit::Megapascals, Rounding::Nearest);
        let (low, high) = (show(least), show(most));
        let by = if low == high { high.text() } else { format!("{} to {}", low.number, high.text()) };
        Some(format!(
            "That pulls on seam {letter} with {by}, of {} that it stands, beside what the seam pulls itself.",
            show(stands).text()
        ))
    }
}

fn of_the_seams(letter: &str, count: usize) -> String {
    if count == 1 { format!("seam {letter}") } else { "any seam".to_owned() }
}

/// What is asked of cracks that stay open.
fn open_tips(
    part: &FacePart,
    model: &FaceModel,
    (asked, strong, weak): (&Course, &Course, &Course),
) -> Option<String> {
    let most = strong.worst().max(asked.worst());
    if model.tips.is_empty() || Nearness::of(most) < Nearness::Watch {
        return None;
    }
    let tip = part.named(model, strong.worst_tip());
    let least = weak.worst().min(asked.worst());
    Some(format!(
        "What stays open, {tip}, is asked for {}: look at it once it is unwrapped.",
        shares_words(least, most)
    ))
}
