//! The way down: as it is going by what was read, step by step, and unwrapped too early.

use crate::common::{Bench, LIT_AT, covered, plan};
use rstest::rstest;
use vanadin_core::heat::{Packing, Wrapping, cool_scaled};
use vanadin_core::job::{Change, Reading, TorchEntry};
use vanadin_core::plan::CoolingPlan;
use vanadin_core::quantity::Celsius;

fn lever() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.set("cooling.packing", "vermiculite");
    bench
}

fn say(bench: &mut Bench, entry: TorchEntry, minutes: f64) {
    // 60 times: a minute of the job clock is a second.
    bench.try_say(Change::Torch { entry }, LIT_AT + (minutes * 1000.0) as i64, None).unwrap();
}

/// Covered at 320 after an hour, in a packing that lets through so much of the book's, read each quarter of an hour.
fn cools(bench: &Bench, scale: f64, hours: f64) -> CoolingPlan {
    let mut job = bench.job();
    let body = bench.plan().casting(&job, &bench.shop).unwrap();
    let shown =
        cool_scaled(&body, Celsius::new(320.0).unwrap(), &Wrapping::usual(Packing::Vermiculite), scale);
    let quarters = (hours * 4.0) as u32;
    job.rounds[0].readings = (0..=quarters)
        .map(|at| f64::from(at) * 15.0)
        .map(|minutes| Reading {
            minutes: 60.0 + minutes,
            celsius: shown.after_hours(minutes / 60.0).unwrap(),
        })
        .collect();
    plan(&job, &bench.shop).said().cooling.unwrap()
}

#[rstest]
#[case::leakier_than_the_book(1.3)]
#[case::tighter(0.75)]
fn the_readings_say_what_the_packing_is_worth_and_the_time_follows(#[case] scale: f64) {
    let mut bench = lever();
    bench.light();
    say(&mut bench, covered(), 60.0);
    let found = cools(&bench, scale, 3.0);
    let going = found.going.clone().expect("it says something");
    assert!((going.scale - scale).abs() < 0.02, "{}", going.scale);
    let planned = going.planned_unwrap_hours.unwrap();
    assert_eq!(found.unwrap_hours.unwrap() < planned, scale > 1.0);
    let (early, late) = going.unwrap_between.unwrap();
    let at = found.unwrap_hours.unwrap();
    assert!(early < at && at < late);
    assert!(!going.early.is_empty() && !going.late.is_empty());
}

#[test]
fn soon_after_it_is_covered_nothing_is_said_of_the_packing() {
    let mut bench = lever();
    bench.light();
    say(&mut bench, covered(), 60.0);
    let found = cools(&bench, 1.0, 0.0);
    assert_eq!(found.going, None);
}

#[test]
fn unwrapped_while_it_is_hot_it_says_what_that_does_and_it_can_be_covered_again() {
    let mut bench = lever();
    bench.light();
    say(&mut bench, covered(), 60.0);
    say(&mut bench, TorchEntry::Unwrapped, 90.0);
    let found = cools(&bench, 1.0, 0.5);
    assert!(found.too_early.starts_with("Unwrapped too early"), "{}", found.too_early);
    assert!(found.too_early.ends_with("cover it again now."));
    let again = Change::Torch { entry: covered() };
    assert!(bench.try_say(again, LIT_AT + 91_000, None).is_ok());
    let job = bench.job();
    assert_eq!(job.round().covered_minutes(), Some(91.0));
    assert!(!job.heat().unwrap().unwrapped());
    assert_eq!(plan(&job, &bench.shop).cooling.unwrap().too_early, "");
    let twice = Change::Torch { entry: covered() };
    assert!(bench.try_say(twice, LIT_AT + 92_000, None).is_err(), "it is covered already");
}

#[test]
fn each_step_before_the_packing_says_where_it_ends_and_what_it_gains() {
    let mut bench = lever();
    let without = bench.plan().cooling.unwrap();
    assert!(without.chain.is_empty());
    bench.set("cooling.oven", "200");
    bench.set("cooling.oven_for", "2 h");
    let with = bench.plan().cooling.unwrap();
    assert_eq!(with.chain.len(), 2);
    let oven = &with.chain[0];
    assert_eq!((oven.words.as_str(), oven.lasts_hours), ("In the oven at 200 °C, 2 h 00", 2.0));
    assert!((oven.ends_c - 200.0).abs() < 15.0, "{}", oven.ends_c);
    let gained = with.unwrap_hours.unwrap() - without.unwrap_hours.unwrap();
    assert!((oven.gains_hours - gained).abs() < 1e-6, "{} {gained}", oven.gains_hours);
    assert!(with.curve.windows(2).all(|pair| pair[0].0 <= pair[1].0), "time goes on");
    // Once it is covered it starts as it was read: the steps are behind it.
    bench.light();
    say(&mut bench, covered(), 60.0);
    assert!(bench.plan().cooling.unwrap().chain.is_empty());
}
