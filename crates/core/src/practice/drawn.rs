//! Free cases: a made-up part by chance, and its iron from what such parts are made of.

use super::made_up::{Case, CrackTold, usual_gear, with_chance};
use crate::iron::{Era, Family, Iron};
use crate::secret::{Draws, Hidden, Truth};

/// A made-up part that cases are drawn on.
struct Kind {
    name: &'static str,
    family: &'static str,
    shape: &'static str,
    mass: f64,
    size: [f64; 3],
    wall: f64,
    crack: f64,
    ends: [&'static str; 2],
    loads: &'static str,
    holds: &'static str,
    service_c: f64,
    /// How often such a part is soaked with oil.
    oily: f64,
}

#[rustfmt::skip]
const KINDS: [Kind; 9] = [
    Kind { name: "Bench drill table", family: "machine_frame", shape: "ribbed_or_open_frame", mass: 14.0, size: [360.0, 280.0, 40.0], wall: 13.0, crack: 86.0, ends: ["edge", "tip"], loads: "static", holds: "nothing", service_c: 30.0, oily: 0.4 },
    Kind { name: "Gearbox end cover", family: "engine_block", shape: "hollow_box", mass: 8.0, size: [260.0, 220.0, 70.0], wall: 9.0, crack: 70.0, ends: ["tip", "edge"], loads: "static", holds: "oil", service_c: 90.0, oily: 0.7 },
    Kind { name: "Furnace door frame", family: "hot_exhaust", shape: "closed_frame", mass: 12.0, size: [420.0, 340.0, 24.0], wall: 12.0, crack: 55.0, ends: ["edge", "tip"], loads: "static", holds: "nothing", service_c: 420.0, oily: 0.0 },
    Kind { name: "Hand pump body", family: "pump_valve", shape: "hollow_box", mass: 9.5, size: [300.0, 180.0, 160.0], wall: 10.0, crack: 62.0, ends: ["tip", "tip"], loads: "static", holds: "water", service_c: 20.0, oily: 0.1 },
    Kind { name: "Clutch lever", family: "loaded_moving", shape: "solid_block", mass: 3.2, size: [310.0, 55.0, 40.0], wall: 16.0, crack: 34.0, ends: ["edge", "tip"], loads: "bending", holds: "nothing", service_c: 40.0, oily: 0.4 },
    Kind { name: "Vise jaw carrier", family: "small_hardware", shape: "solid_block", mass: 4.4, size: [180.0, 110.0, 60.0], wall: 20.0, crack: 48.0, ends: ["edge", "tip"], loads: "shock", holds: "nothing", service_c: 20.0, oily: 0.3 },
    Kind { name: "Garden seat end", family: "ornamental", shape: "ribbed_or_open_frame", mass: 11.0, size: [700.0, 620.0, 20.0], wall: 11.0, crack: 30.0, ends: ["edge", "tip"], loads: "static", holds: "nothing", service_c: 30.0, oily: 0.0 },
    Kind { name: "Pipe cross", family: "pipe_fitting", shape: "hollow_box", mass: 3.0, size: [200.0, 200.0, 90.0], wall: 8.0, crack: 44.0, ends: ["edge", "tip"], loads: "static", holds: "water", service_c: 60.0, oily: 0.0 },
    Kind { name: "Belt pulley arm", family: "loaded_moving", shape: "spoked_wheel", mass: 13.0, size: [420.0, 420.0, 70.0], wall: 14.0, crack: 40.0, ends: ["edge", "tip"], loads: "bending", holds: "nothing", service_c: 30.0, oily: 0.2 },
];

/// House: how wide the limbs of a frame are, in mm.
const LIMB_MM: f64 = 90.0;

/// House: so often a part hides a second crack, stress from its casting, bronze under its paint.
const HIDES: (f64, f64, f64) = (0.2, 0.15, 0.1);

/// A case by chance: the same seed, the same case.
#[must_use]
pub fn free(seed: u32) -> Case {
    let draws = Draws::of(u64::from(seed));
    let even = |name: &str| draws.even(name, "");
    let kind = &KINDS[((even("kind") * KINDS.len() as f64) as usize).min(KINDS.len() - 1)];
    let eras = ["before_1949", "1949_1969", "1970_on"];
    let era = eras[((even("era") * 3.0) as usize).min(2)];
    // A part of its kind, a little larger or smaller.
    let scale = 0.85 + 0.3 * even("size");
    let family = Family::from_id(kind.family).unwrap_or(Family::Unknown);
    let prior = family.prior(Era::from_id(era).unwrap_or(Era::Unknown));
    let iron = draws.one("iron", "", &prior).map_or(Iron::Gray, |at| Iron::ALL[at]);
    let mm = |mm: f64| format!("{:.0}", mm * scale);
    let cracks =
        vec![CrackTold { length_mm: (kind.crack * scale).round(), wall_mm: kind.wall, ends: kind.ends }];
    let (oil, (hidden, locked, bronze)) = (even("oil") < kind.oily, HIDES);
    let truth = Truth {
        iron,
        oil,
        locked_in: even("locked_in") < locked,
        old_bronze: even("old_bronze") < bronze,
        hidden: (even("hidden") < hidden)
            .then(|| Hidden { length_mm: (20.0 + 40.0 * even("hidden_length")).round(), wall_mm: kind.wall }),
        left_alone: 0.05 + 0.3 * even("left_alone"),
        ..Truth::plain()
    };
    let cured = if even("cured") < 0.7 { "yes" } else { "no" };
    let mut part = vec![
        ("name", kind.name.to_owned()),
        ("family", kind.family.to_owned()),
        ("era", era.to_owned()),
        ("mass", format!("{:.1} kg", kind.mass * scale * scale * scale)),
        ("length", mm(kind.size[0])),
        ("width", mm(kind.size[1])),
        ("height", mm(kind.size[2])),
        ("shape", kind.shape.to_owned()),
        ("wall", format!("{:.0}", kind.wall)),
        ("service_temperature", format!("{:.0}", kind.service_c)),
        ("holds", kind.holds.to_owned()),
        ("cause", "overload".to_owned()),
        ("cause_cured", cured.to_owned()),
        ("loads", kind.loads.to_owned()),
        ("sides", if even("sides") < 0.6 { "both" } else { "one" }.to_owned()),
        ("safety_class", "none".to_owned()),
    ];
    match kind.shape {
        "hollow_box" => part.push(("cavity", "vented".to_owned())),
        "closed_frame" | "spoked_wheel" => part.push(("cavity", "none".to_owned())),
        _ => {}
    }
    Case {
        title: kind.name.to_owned(),
        words: "It broke at work. More is not known of it: look at it.".to_owned(),
        lesson: "",
        seed,
        part,
        truth: with_chance(truth, &cracks, draws),
        cracks,
        gear: usual_gear(),
        limb_mm: (kind.shape == "closed_frame").then(|| (LIMB_MM * scale).round()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_same_seed_is_the_same_case_and_another_is_another() {
        assert_eq!(free(41), free(41));
        assert_ne!(free(41), free(42));
    }

    #[test]
    fn every_case_can_be_and_the_irons_come_as_such_parts_are_made() {
        let all: Vec<Case> = (0..600).map(free).collect();
        assert!(all.iter().all(|case| case.truth.possible().is_ok()));
        let of = |iron: Iron| all.iter().filter(|case| case.truth.iron == iron).count();
        assert!(of(Iron::Gray) > 300, "{}", of(Iron::Gray));
        assert!(of(Iron::Ductile) > 20 && of(Iron::Malleable) > 20);
        let hidden = all.iter().filter(|case| case.truth.hidden.is_some()).count();
        assert!((90..150).contains(&hidden), "{hidden}");
    }
}
