//! What the eye tells of a heat: the colours of a bright spot, the glow in a dark shop; and how hard the edge gets.

use crate::heat::{HARD_EDGE_S, t8_5_s};
use crate::iron::{Iron, least};
use crate::method::Way;
use crate::method::pass_of;
use crate::quantity::{Celsius, Unit, UnitSystem, WallMillimetres, number};
use crate::stage::part::PartFacts;

/// Colours of a bright-ground spot: from and to, in °C. House.
const TEMPER: [(f64, f64, &str); 4] =
    [(220.0, 240.0, "straw"), (260.0, 260.0, "bronze"), (280.0, 280.0, "purple"), (300.0, 320.0, "blue")];
/// Glow in a dark shop, in °C. House.
const GLOW: [(f64, &str); 6] = [
    (500.0, "just glows"),
    (600.0, "is dark red"),
    (700.0, "is dull cherry"),
    (800.0, "is cherry"),
    (900.0, "is bright cherry"),
    (1000.0, "is orange"),
];
/// House: under this there is no colour; over the last a spot stays as it is.
const FIRST_COLOUR_C: f64 = 220.0;
/// Ours: a colour so far from the target says nothing of it.
const NEAR_K: f64 = 30.0;

/// What is seen when the part is at its target; empty where nothing is.
pub(super) fn colours(target_c: f64, units: UnitSystem) -> String {
    let say = |celsius: f64| units.say_exactly(celsius, Unit::Celsius);
    if target_c >= GLOW[0].0 {
        let glow = GLOW.iter().rev().find(|(from, _)| *from <= target_c).unwrap_or(&GLOW[0]);
        return format!(
            "In a dark shop it {} at about {}; sunlight hides {} or more of it.",
            glow.1,
            say(glow.0),
            units.say_exactly(100.0, Unit::Kelvins)
        );
    }
    if target_c < FIRST_COLOUR_C {
        return String::new();
    }
    let near = TEMPER.iter().rev().find(|(from, to, _)| *from <= target_c && target_c <= to + NEAR_K);
    match near {
        Some((from, to, colour)) => {
            let at = if from == to { say(*from) } else { format!("{} to {}", say(*from), say(*to)) };
            format!("A spot ground bright goes {colour} at {at}: the hottest it was, not what it is now.")
        }
        None => format!("Over {} a bright spot tells no more.", say(TEMPER[3].1)),
    }
}

fn class(seconds: Option<f64>) -> String {
    /// House: over this ordinary tools cut it.
    const SOFT_S: f64 = 30.0;
    match seconds {
        None => "it does not harden".to_owned(),
        Some(s) if s < HARD_EDGE_S => format!("{} s, hard: expect to grind", number(s, 0)),
        Some(s) if s <= SOFT_S => format!("{} s, machinable with carbide", number(s, 0)),
        Some(s) => format!("{} s, ordinary tools cut it", number(s, 0)),
    }
}

/// How hard the edge of a bead gets, with and without the preheat; empty for what does not melt the iron, and while the
/// wall is not known.
pub(super) fn edge(way: Way, target_c: f64, (part, plausible): (&PartFacts, &[Iron])) -> String {
    let words = || {
        let wall = WallMillimetres::new(part.wall_mm?).ok()?;
        if !way.method.fusion() {
            return None;
        }
        let at = |part_c: f64| {
            let celsius = Celsius::new(part_c).ok()?;
            let pass = pass_of(way, wall, part_c)?;
            // Of several irons in question the one whose edge cools fastest.
            let cools = |iron: Iron| t8_5_s(&iron.properties(), pass, wall, celsius).unwrap_or(f64::INFINITY);
            let seconds = cools(least(plausible, cools).iron);
            Some(class(seconds.is_finite().then_some(seconds)))
        };
        let say = |celsius: f64| part.units.say_exactly(celsius, Unit::Celsius);
        let cold = at(part.ambient_c)?;
        let how = if way.school.preheats() {
            format!("with this preheat {}; without it {cold}", at(target_c)?)
        } else {
            cold
        };
        Some(format!(
            "Edge, from {} to {}: {how}. Whatever the preheat, a thin carbide seam stays where iron was melted; \
             martensite forms where the joint falls fast under about {}.",
            say(800.0),
            say(500.0),
            say(230.0)
        ))
    };
    words().unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Published: the trade reference, "Reading temperature"
    #[case::too_cold(150.0, "")]
    #[case::straw(230.0, "A spot ground bright goes straw at 220 °C to 240 °C")]
    #[case::blue(300.0, "A spot ground bright goes blue at 300 °C to 320 °C")]
    #[case::past_blue(400.0, "Over 320 °C a bright spot tells no more")]
    #[case::dark_red(600.0, "In a dark shop it is dark red at about 600 °C; sunlight hides 100 °C or more")]
    #[case::just(499.0, "Over 320 °C")]
    #[case::glows(500.0, "In a dark shop it just glows at about 500 °C")]
    fn a_target_is_told_by_its_colour(#[case] target_c: f64, #[case] said: &str) {
        let words = colours(target_c, UnitSystem::Metric);
        assert!(words.starts_with(said) && words.is_empty() == said.is_empty(), "{words}");
    }

    #[rstest]
    #[case::hard(Some(9.9), "hard")]
    #[case::carbide(Some(10.0), "carbide")]
    #[case::still_carbide(Some(30.0), "carbide")]
    #[case::ordinary(Some(30.1), "ordinary")]
    #[case::none(None, "does not harden")]
    fn an_edge_is_called_by_what_cuts_it(#[case] seconds: Option<f64>, #[case] said: &str) {
        assert!(class(seconds).contains(said), "{}", class(seconds));
    }
}
