//! What instruments say: guns, sticks; and how warm a bead leaves what lies beside it.

use super::metal::{IRON, WALL, properties, wall};
use super::{
    Answer, Blank, Calculation, Filled,
    SentencePart::{Answer as Said, Ask, Words},
};
use crate::base::problem::FieldProblem;
use crate::figure::{Certainty, Figure, Source};
use crate::heat::{
    DONT_STEER_UNDER, Infrared, LaidBead, ReadOff, WallEnds, bead_rise_k, sticks as two_sticks,
};
use crate::quantity::{Kind, Unit, number};
use crate::shop::Shop;

const SET: Blank = Blank::amount("set", "Gun set to", Kind::Plain, (0.1, 1.0), ("0.95", "0.95"));
const SURFACE: Blank = Blank::one_of(
    "surface",
    "Surface",
    &[
        ("rusty", "a rusty skin"),
        ("skin", "the casting's skin"),
        ("soot", "soot or heat paint"),
        ("machined", "a machined face"),
        ("ground", "a bright ground face"),
    ],
);
const SHOWN: Blank =
    Blank::amount("shown", "Gun shows", Kind::Temperature, (0.0, 1_200.0), ("240 °C", "460 °F"));
const WANTED: Blank =
    Blank::amount("wanted", "Iron at", Kind::Temperature, (0.0, 1_200.0), ("260 °C", "500 °F"));

fn gun(filled: &Filled, shop: &Shop) -> Result<Infrared, FieldProblem> {
    let own = ReadOff::from_id(filled.choice(&SURFACE)).unwrap_or(ReadOff::Skin).emissivity();
    Infrared::new(filled.amount(&SET), own, shop.ambient_c).map_err(|out| out.at(SET.key))
}

fn seen(gun: &Infrared, id: &'static str, name: &str, celsius: Option<f64>) -> Answer {
    let mut answer = Answer::default();
    match celsius {
        Some(celsius) => answer.figures.push(
            Figure::new(id, name, celsius, Unit::Celsius)
                .because(
                    "A gun takes its own setting for the surface's; what the surface mirrors comes on top.",
                )
                .formula(format!(
                    "{} B(shown) + {} B(mirrored) = {} B(T) + {} B(mirrored)",
                    number(gun.emissivity_set, 2),
                    number(1.0 - gun.emissivity_set, 2),
                    number(gun.emissivity_true, 2),
                    number(1.0 - gun.emissivity_true, 2)
                ))
                .formula("B: radiance of a black body between 8 and 14 µm")
                .source(Source::Law("Planck's law".to_owned()), Certainty::Estimate),
        ),
        None => answer.words.push((id, "nothing it can show".to_owned())),
    }
    if gun.emissivity_true < DONT_STEER_UNDER {
        answer
            .notes
            .push("It shines too little to be steered by: dab it with soot or heat paint.".to_owned());
    }
    answer
}

pub(super) const GUN_SHOWS: Calculation = Calculation {
    id: "gun-shows",
    name: "What the iron is when the gun shows this",
    found_by: "infrared gun pyrometer emissivity laser reads true temperature",
    sentence: &[
        Words("A gun set to"),
        Ask(&SET),
        Words("that shows"),
        Ask(&SHOWN),
        Words("on"),
        Ask(&SURFACE),
        Words("looks at iron of"),
        Said("true"),
        Words("."),
    ],
    work: |filled, shop| {
        let gun = gun(filled, shop)?;
        Ok(seen(&gun, "true", "Iron at", gun.true_c(filled.amount(&SHOWN))))
    },
    fact: None,
};

pub(super) const GUN_AIM: Calculation = Calculation {
    id: "gun-aim",
    name: "What the gun shows when the iron is right",
    found_by: "infrared gun what will the gun show target emissivity",
    sentence: &[
        Words("When the iron is at"),
        Ask(&WANTED),
        Words(", a gun set to"),
        Ask(&SET),
        Words("shows"),
        Said("shown"),
        Words("on"),
        Ask(&SURFACE),
        Words("."),
    ],
    work: |filled, shop| {
        let gun = gun(filled, shop)?;
        Ok(seen(&gun, "shown", "Gun shows", gun.shown_c(filled.amount(&WANTED))))
    },
    fact: None,
};

const TO_ONE: Blank = Blank::amount("to-one", "So many to one", Kind::Plain, (1.0, 300.0), ("12", "12"));
const AWAY: Blank = Blank::amount("away", "Away", Kind::Length, (10.0, 20_000.0), ("400 mm", "16 in"));

pub(super) const GUN_SPOT: Calculation = Calculation {
    id: "gun-spot",
    name: "How large a spot the gun sees",
    found_by: "infrared gun spot distance ratio laser dot how near",
    sentence: &[
        Words("A gun of"),
        Ask(&TO_ONE),
        Words("to 1, held"),
        Ask(&AWAY),
        Words("away, sees a spot"),
        Said("spot"),
        Words("across."),
    ],
    work: |filled, _| {
        let (away, to_one) = (filled.amount(&AWAY), filled.amount(&TO_ONE));
        let spot = Figure::new("spot", "Spot", away / to_one, Unit::Millimetres)
            .because("It reads the mean of all it sees: a spot wider than the limb is half wall behind it.")
            .formula(format!("{{{away} mm}} ÷ {}", number(to_one, 1)))
            .source(Source::Arithmetic, Certainty::Computed);
        Ok(Answer { figures: vec![spot], ..Answer::default() })
    },
    fact: None,
};

const TARGET: Blank =
    Blank::amount("target", "To reach", Kind::Temperature, (40.0, 1_000.0), ("260 °C", "500 °F"));
const MOST: Blank =
    Blank::amount("most", "Not over", Kind::Temperature, (40.0, 1_100.0), ("340 °C", "650 °F"));

/// Ratings that are sold, in degC. House.
const SOLD_C: [f64; 23] = [
    66.0, 79.0, 93.0, 107.0, 121.0, 149.0, 177.0, 204.0, 232.0, 260.0, 288.0, 316.0, 343.0, 371.0, 399.0,
    427.0, 454.0, 482.0, 510.0, 538.0, 593.0, 649.0, 704.0,
];

pub(super) const STICKS: Calculation = Calculation {
    id: "sticks",
    name: "Which two temperature sticks",
    found_by: "temp stick crayon melt preheat interpass read",
    sentence: &[
        Words("To reach"),
        Ask(&TARGET),
        Words("and not go over"),
        Ask(&MOST),
        Words(", a stick of"),
        Said("melts"),
        Words("must melt and one of"),
        Said("stays"),
        Words("must not."),
    ],
    work: sticks,
    fact: None,
};

fn sticks(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let (target, most) = (filled.amount(&TARGET), filled.amount(&MOST));
    if most <= target {
        let from = filled.units.say_exactly(target, Unit::Celsius);
        return Err(FieldProblem::new(MOST.key, "it leaves no room", format!("over {from}")));
    }
    let found = two_sticks(target, most, &SOLD_C);
    let mut answer = Answer::default();
    for (id, name, rating) in
        [("melts", "Must melt", found.must_melt_c), ("stays", "Must not melt", found.must_not_melt_c)]
    {
        match rating {
            Some(rating) => answer.words.push((id, filled.units.say_stick(rating, true))),
            None => answer.words.push((id, "none that is sold".to_owned())),
        }
        answer.notes.push(match rating {
            Some(_) if id == "melts" => {
                format!("{name}: the lowest from 10 degrees under what is to be reached.")
            }
            Some(_) => format!("{name}: the lowest at or over the most, else the highest between."),
            None => format!("{name}: none of those that are sold fits in there."),
        });
    }
    Ok(answer)
}

const JOULES: Blank = Blank::amount("energy", "kJ in it", Kind::Plain, (0.1, 10_000.0), ("16", "16"));
const BEAD: Blank = Blank::amount("bead", "Bead", Kind::Length, (2.0, 1_000.0), ("25 mm", "1 in"));
const BESIDE: Blank = Blank::amount("beside", "Beside it", Kind::Length, (0.0, 2_000.0), ("10 mm", "3/8 in"));
const AFTER: Blank = Blank::amount("after", "After", Kind::Plain, (0.0, 7_200.0), ("60", "60"));

pub(super) const BEAD_RISE: Calculation = Calculation {
    id: "bead-rise",
    name: "How warm a bead leaves what lies beside it",
    found_by: "interpass wait hand warm how long before next bead cold welding rise",
    sentence: &[
        Words("A bead of"),
        Ask(&BEAD),
        Words("with"),
        Ask(&JOULES),
        Words("kJ in a wall of"),
        Ask(&WALL),
        Words("of"),
        Ask(&IRON),
        Words("leaves the place"),
        Ask(&BESIDE),
        Words("beside its middle"),
        Said("rise"),
        Words("warmer after"),
        Ask(&AFTER),
        Words("seconds."),
    ],
    work: bead_rise,
    fact: None,
};

fn bead_rise(filled: &Filled, _: &Shop) -> Result<Answer, FieldProblem> {
    let length_mm = filled.amount(&BEAD);
    let bead =
        LaidBead { joules: filled.amount(&JOULES) * 1000.0, length_mm, wall_mm: wall(filled)?.millimetres() };
    let place = (length_mm / 2.0, filled.amount(&BESIDE));
    let rise = bead_rise_k(&properties(filled), &bead, &WallEnds::default(), place, filled.amount(&AFTER));
    let figure = Figure::new("rise", "Warmer by", rise, Unit::Kelvins)
        .because("In a wall that goes on all round: an edge near by throws the heat back.")
        .formula("a line of heat let go all at once, spreading in a plate")
        .formula(format!("{} kJ over {} mm", number(filled.amount(&JOULES), 1), number(length_mm, 0)))
        .source(Source::Law("conduction in a thin plate".to_owned()), Certainty::Estimate);
    Ok(Answer { figures: vec![figure], ..Answer::default() })
}

#[cfg(test)]
mod tests {
    use super::super::reckoned;
    use super::*;
    use crate::quantity::UnitSystem;

    #[test]
    fn what_a_gun_shows_and_what_the_iron_is_are_one_the_other_s() {
        let aim = reckoned(&GUN_AIM, &[("wanted", "300 C")], UnitSystem::Metric).unwrap().figures[0].value;
        let back = reckoned(&GUN_SHOWS, &[("shown", &format!("{aim} C"))], UnitSystem::Metric).unwrap();
        assert!((back.figures[0].value - 300.0).abs() < 0.2);
        assert!(aim < 300.0, "set higher than the surface it shows less");
        let bright = reckoned(&GUN_SHOWS, &[("surface", "ground")], UnitSystem::Metric).unwrap();
        assert_eq!(bright.notes.len(), 1);
    }

    #[test]
    fn sticks_are_called_as_they_are_sold_and_a_window_without_room_is_told() {
        let found = reckoned(&STICKS, &[], UnitSystem::Metric).unwrap();
        assert!(found.words["melts"].starts_with("260"), "{:?}", found.words);
        let none = reckoned(&STICKS, &[("most", "260 C")], UnitSystem::Metric).unwrap_err();
        assert_eq!(none[0].field, "most");
    }

    #[test]
    fn a_spot_is_its_distance_by_its_ratio() {
        // By hand: 16 in / 12 = 1.333 in = 33.87 mm
        let spot = reckoned(&GUN_SPOT, &[], UnitSystem::Imperial).unwrap();
        assert!((spot.figures[0].value - 33.87).abs() < 0.01);
        assert_eq!(spot.figures[0].imperial.text(), "1 5/16 in");
    }
}
