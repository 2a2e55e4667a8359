//! What is odd against the rest of the part. It was taken; it is asked back once, by the page that shows it.

use serde::Serialize;

use crate::casting::weight::estimated_weight;
use crate::field;
use crate::iron::Iron;
use crate::job::{Job, Reading, Round};
use crate::quantity::Unit;
use crate::stage::part::PartFacts;

/// A question back.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct AskedBack {
    /// The field's key, or the fact that logged a reading.
    pub about: String,
    /// "140 kg? A solid block of this size weighs 9.3 kg."
    pub sentence: String,
}

/// House: by so much more than its box is a part too heavy, and a wall too thick.
const OVER: f64 = 1.05;
/// House: a part of so little of what the lightest of its shape weighs is too light.
const FAR_UNDER: f64 = 0.5;
/// House: a crack may wander, but hardly over so many times the part's length.
const WANDERS: f64 = 1.5;
/// House: a reading by hand and the pad differ by less than this in K where both are of the same part.
const APART_K: f64 = 60.0;
/// House: a pad's reading so many minutes off still tells what the pad read then.
const NEAR_MIN: f64 = 3.0;

/// Every question, those of the sheet first.
#[must_use]
pub fn asked_back(job: &Job, part: &PartFacts) -> Vec<AskedBack> {
    let round = job.round();
    let mut asked = Vec::new();
    asked.extend(weight(round, part));
    asked.extend(wall(round, part));
    asked.extend(round.cracks.iter().flat_map(|crack| of_crack(round, part, crack.id)));
    asked.extend(readings(round, part));
    asked.extend(doubted(job, part));
    asked
}

fn about(key: impl Into<String>, sentence: String) -> AskedBack {
    AskedBack { about: key.into(), sentence }
}

fn weight(round: &Round, part: &PartFacts) -> Option<AskedBack> {
    let kg = round.get(field::part::MASS)?;
    let (l, w, h) = part.size_mm?;
    let say = |kg: f64| part.units.say(kg, Unit::Kilograms);
    let key = field::part::MASS.key();
    let density = Iron::Gray.properties().density_kg_m3;
    let solid = l * w * h * 1e-9 * density;
    if kg > solid * OVER {
        return Some(about(key, format!("{}? A solid block of this size weighs {}.", say(kg), say(solid))));
    }
    let usual = estimated_weight(part.shape?, (l, w, h), part.wall_mm, density)?;
    (kg < usual.low_kg * FAR_UNDER).then(|| {
        about(
            key,
            format!(
                "{}? A part of this size and shape usually weighs {} to {}.",
                say(kg),
                say(usual.low_kg),
                say(usual.high_kg)
            ),
        )
    })
}

/// The part's smallest size, in mm.
fn smallest(part: &PartFacts) -> Option<f64> {
    part.size_mm.map(|(l, w, h)| l.min(w).min(h))
}

fn wall(round: &Round, part: &PartFacts) -> Option<AskedBack> {
    let wall = round.get(field::part::WALL)?;
    let through = smallest(part)?;
    (wall > through * OVER).then(|| about(field::part::WALL.key(), too_thick(part, wall, through)))
}

fn too_thick(part: &PartFacts, wall_mm: f64, through_mm: f64) -> String {
    let say = |mm: f64| part.units.say(mm, Unit::Millimetres);
    format!("A wall of {}? The part is {} where it is smallest.", say(wall_mm), say(through_mm))
}

fn of_crack(round: &Round, part: &PartFacts, crack: uuid::Uuid) -> Vec<AskedBack> {
    let say = |mm: f64| part.units.say(mm, Unit::Millimetres);
    let length = || field::crack::LENGTH.of(crack);
    let wall = || field::crack::WALL.of(crack);
    let deep = || field::crack::GROUND_DEPTH.of(crack);
    let mut asked = Vec::new();
    if let (Some(mm), Some((l, w, h))) = (round.get(length()), part.size_mm) {
        let longest = l.max(w).max(h);
        if mm > longest * WANDERS {
            let sentence = format!("{}? The part is {} at its longest.", say(mm), say(longest));
            asked.push(about(length().key(), sentence));
        }
    }
    let wall_mm = round.get(wall());
    if let (Some(mm), Some(through)) = (wall_mm, smallest(part))
        && mm > through * OVER
    {
        asked.push(about(wall().key(), too_thick(part, mm, through)));
    }
    if let (Some(mm), Some(wall_mm)) = (round.get(deep()), wall_mm.or(part.wall_mm))
        && mm > wall_mm
    {
        asked.push(about(deep().key(), format!("{} deep? The wall is {}.", say(mm), say(wall_mm))));
    }
    asked
}

/// What was typed of the last lighting and cannot be: the part stays as hot as it was known to be.
fn doubted<'a>(job: &'a Job, part: &'a PartFacts) -> impl Iterator<Item = AskedBack> + 'a {
    let log = job.heat().map_or(&[][..], |heat| heat.log);
    // What was typed since and is believed has answered it.
    let answered =
        log.iter().rposition(|it| it.stands() && !it.doubted && it.celsius.is_some() && !it.at_joint);
    let since = log.iter().skip(answered.map_or(0, |at| at + 1));
    since.filter(|it| it.stands() && it.doubted).filter_map(|entry| {
        let say = |celsius: f64| part.units.say_exactly(celsius, Unit::Celsius);
        let read = say(entry.celsius.or(entry.melts_c)?);
        let sentence = format!("{read}? It cannot have cooled so far by then, and stays HOT. Read it again.");
        Some(about(entry.fact.to_string(), sentence))
    })
}

/// Readings of the part by hand that lie far off what the pad showed then.
fn readings<'a>(round: &'a Round, part: &'a PartFacts) -> impl Iterator<Item = AskedBack> + 'a {
    round.standing_log().filter(|entry| !entry.at_joint && !entry.doubted).filter_map(|entry| {
        let by_hand = entry.celsius?;
        let pad = near(&round.readings, entry.minutes)?;
        let say = |celsius: f64| part.units.say_exactly(celsius, Unit::Celsius);
        ((by_hand - pad).abs() > APART_K).then(|| {
            about(entry.fact.to_string(), format!("{}? The pad showed {} then.", say(by_hand), say(pad)))
        })
    })
}

/// What the pad read nearest to a moment, in degC; nothing while it read nothing about then.
fn near(readings: &[Reading], minutes: f64) -> Option<f64> {
    let after = readings.partition_point(|reading| reading.minutes < minutes);
    [after.checked_sub(1), Some(after)]
        .into_iter()
        .flatten()
        .filter_map(|at| readings.get(at))
        .filter(|reading| (reading.minutes - minutes).abs() <= NEAR_MIN)
        .min_by(|a, b| (a.minutes - minutes).abs().total_cmp(&(b.minutes - minutes).abs()))
        .map(|reading| reading.celsius)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case::before_any(0.0, None)]
    #[case::the_nearer_of_two(11.4, Some(110.0))]
    #[case::the_last(13.9, Some(120.0))]
    #[case::too_long_after(15.1, None)]
    fn the_pad_tells_what_it_read_about_then(#[case] minutes: f64, #[case] celsius: Option<f64>) {
        let at = |minutes, celsius| Reading { minutes, celsius };
        assert_eq!(near(&[at(10.0, 100.0), at(11.0, 110.0), at(12.0, 120.0)], minutes), celsius);
        assert_eq!(near(&[], minutes), None);
    }
}
