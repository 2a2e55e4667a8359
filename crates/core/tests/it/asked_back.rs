//! What is odd against the rest of the part is taken, and asked back.

use crate::common::{Bench, plan};
use rstest::rstest;
use vanadin_core::job::{Change, Reading, TorchEntry};
use vanadin_core::quantity::UnitSystem;

/// 180 x 120 x 60 mm, of a shape that fills its box by three quarters.
fn block() -> Bench {
    let mut bench = Bench::new();
    for (key, typed) in
        [("part.length", "180"), ("part.width", "120"), ("part.height", "60"), ("part.shape", "solid_block")]
    {
        bench.set(key, typed);
    }
    bench
}

fn asked(bench: &Bench) -> Vec<(String, String)> {
    bench.plan().asked_back.into_iter().map(|asked| (asked.about, asked.sentence)).collect()
}

#[rstest]
// Hand-worked: 0.18 x 0.12 x 0.06 m x 7150 kg/m³ = 9.27 kg, and 5 % more is 9.73 kg
#[case::too_heavy("part.mass", "140 kg", Some("140 kg? A solid block of this size weighs 9.3 kg."))]
#[case::just_too_heavy("part.mass", "9.8", Some("9.8 kg? A solid block of this size weighs 9.3 kg."))]
#[case::as_heavy_as_its_box("part.mass", "9.7", None)]
// Hand-worked: three quarters of it, by half to all: 4.6 to 9.3 kg, and half of the least is 2.3 kg
#[case::too_light(
    "part.mass",
    "1.4",
    Some("1.4 kg? A part of this size and shape usually weighs 4.6 kg to 9.3 kg.")
)]
#[case::light("part.mass", "2.4", None)]
#[case::too_thick("part.wall", "6 in", Some("A wall of 152 mm? The part is 60 mm where it is smallest."))]
#[case::solid("part.wall", "60", None)]
fn a_size_or_weight_that_does_not_fit_the_rest_is_asked_back(
    #[case] key: &str,
    #[case] typed: &str,
    #[case] sentence: Option<&str>,
) {
    let mut bench = block();
    assert!(asked(&bench).is_empty());
    bench.set(key, typed);
    let expected: Vec<_> = sentence.map(|said| (key.to_owned(), said.to_owned())).into_iter().collect();
    assert_eq!(asked(&bench), expected);
    bench.set(key, "");
    assert!(asked(&bench).is_empty(), "nothing is odd once it is not known");
}

#[test]
fn nothing_is_asked_back_while_there_is_nothing_to_hold_it_against() {
    let mut bench = Bench::new();
    bench.set("part.mass", "140 kg");
    bench.set("part.wall", "6 in");
    assert!(asked(&bench).is_empty());
}

#[test]
fn it_is_asked_in_the_units_of_the_shop() {
    let mut bench = block();
    bench.shop.units = UnitSystem::Imperial;
    bench.set("part.mass", "140 kg");
    // Hand-worked: 140 / 0.45359 = 308.6 lb, 9.27 / 0.45359 = 20.4 lb
    assert_eq!(asked(&bench)[0].1, "309 lb? A solid block of this size weighs 20.4 lb.");
}

#[rstest]
#[case::longer_than_it_can_wander("length", "300", Some("300 mm? The part is 180 mm at its longest."))]
#[case::wandering("length", "260", None)]
#[case::thicker_than_the_part("wall", "70", Some("A wall of 70 mm? The part is 60 mm where it is smallest."))]
#[case::deeper_than_the_wall("ground_depth", "23", Some("23 mm deep? The wall is 22 mm."))]
#[case::through("ground_depth", "22", None)]
fn a_crack_that_does_not_fit_the_part_is_asked_back(
    #[case] field: &str,
    #[case] typed: &str,
    #[case] sentence: Option<&str>,
) {
    let mut bench = block();
    bench.set("part.wall", "22");
    let crack = bench.say(Change::AddCrack);
    let key = format!("crack.{crack}.{field}");
    bench.set(&key, typed);
    let expected: Vec<_> = sentence.map(|said| (key, said.to_owned())).into_iter().collect();
    assert_eq!(asked(&bench), expected);
}

#[rstest]
// The pad reads 100 °C at 10 min
#[case::far_off("300 C", false, 10.0, Some("300 °C? The pad showed 100 °C then."))]
#[case::just_far_off("161 C", false, 10.0, Some("161 °C? The pad showed 100 °C then."))]
#[case::near("160 C", false, 10.0, None)]
#[case::of_the_joint("900 C", true, 10.0, None)]
#[case::long_after("300 C", false, 14.0, None)]
fn a_reading_by_hand_far_off_the_pad_is_asked_back(
    #[case] typed: &str,
    #[case] joint: bool,
    #[case] at_min: f64,
    #[case] sentence: Option<&str>,
) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "torch_braze");
    bench.light();
    let entry =
        TorchEntry::Reading { typed: typed.to_owned(), shown_in: UnitSystem::Metric, joint, gun: None };
    // The job clock runs at 60 times.
    let fact = bench.torch(entry, (at_min * 1000.0) as i64);
    let mut job = bench.job();
    job.rounds.last_mut().unwrap().readings = vec![Reading { minutes: 10.0, celsius: 100.0 }];
    let asked: Vec<_> = plan(&job, &bench.shop).asked_back;
    let found = asked.iter().find(|asked| asked.about == fact.to_string());
    assert_eq!(found.map(|asked| asked.sentence.as_str()), sentence);
}
