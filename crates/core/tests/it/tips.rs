//! Ends that were found again, better, move how far past the next ones a hole goes.
//! Published: the trade reference.

use crate::common::mapped::{Mapped, line};
use crate::common::{Bench, figure};
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::crack::stop_hole::FoundBy;
use vanadin_core::crack::tip_offset::OwnTip;
use vanadin_core::field::crack_key;
use vanadin_core::job::Change;
use vanadin_core::plan::Asks;

/// A crack seen by eye, both ends in the metal, drawn from 100 to 160 mm.
fn seen() -> (Mapped, Uuid) {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    for (field, typed) in [("found_by", "eye"), ("end_a", "tip"), ("end_b", "tip")] {
        mapped.bench.set(&crack_key(crack, field), typed);
    }
    mapped.draw(crack, line(&[(100.0, 80.0), (160.0, 80.0)]));
    (mapped, crack)
}

fn tips(bench: &Bench) -> Vec<OwnTip> {
    Asks::of(&bench.job(), &bench.plan(), &bench.facts, &bench.shop).tips
}

#[test]
fn an_end_found_again_with_dye_is_a_pair_with_what_the_dye_leaves_beyond() {
    let (mut mapped, crack) = seen();
    assert_eq!(tips(&mapped.bench), [], "found once");
    mapped.bench.set(&crack_key(crack, "found_by"), "dye");
    assert_eq!(tips(&mapped.bench), [], "its line was left as it was");
    // Hand-worked: 3 mm further on at the left and 0.7 of the dye; at the right 2 mm shorter, and a little aside
    mapped.draw(crack, line(&[(97.0, 80.0), (130.0, 80.0), (158.0, 80.5)]));
    let found = tips(&mapped.bench);
    let pairs: Vec<(bool, FoundBy)> = found.iter().map(|tip| (tip.second, tip.found_by)).collect();
    assert_eq!(pairs, [(false, FoundBy::Eye), (true, FoundBy::Eye)]);
    assert!((found[0].beyond_mm - 3.7).abs() < 1e-9 && (found[1].beyond_mm + 1.3).abs() < 1e-9, "{found:?}");
}

#[test]
fn a_short_crack_that_is_drawn_again_from_its_other_end_is_not_turned_round() {
    let (mut mapped, crack) = seen();
    mapped.draw(crack, line(&[(100.0, 80.0), (120.0, 80.0)]));
    mapped.bench.set(&crack_key(crack, "found_by"), "magnetic");
    // Hand-worked: 1 mm further on at the right, 2 at the left, and 0.3 that particles leave beyond
    mapped.draw(crack, line(&[(121.0, 80.0), (98.0, 80.0)]));
    let found: Vec<f64> = tips(&mapped.bench).iter().map(|tip| tip.beyond_mm).collect();
    assert!(found.len() == 2 && (found[0] - 2.3).abs() < 1e-9 && (found[1] - 1.3).abs() < 1e-9, "{found:?}");
}

#[test]
fn an_edge_stays_an_edge_when_the_line_is_drawn_from_its_other_end() {
    let (mut mapped, crack) = seen();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.bench.set(&crack_key(crack, "found_by"), "dye");
    mapped.draw(crack, line(&[(64.0, 80.0), (0.0, 80.0)]));
    let found = tips(&mapped.bench);
    assert_eq!(found.len(), 1, "{found:?}");
    assert!(found[0].second && (found[0].beyond_mm - 4.7).abs() < 1e-9, "{found:?}");
}

#[test]
fn what_ran_on_in_the_heat_says_nothing_of_the_eye() {
    let (mut mapped, crack) = seen();
    mapped.bench.set(&crack_key(crack, "found_by"), "dye");
    mapped.draw(crack, line(&[(97.0, 80.0), (160.0, 80.0)]));
    let before = tips(&mapped.bench);
    assert_eq!(before.len(), 2);
    mapped.bench.light();
    mapped.bench.say(Change::NewRound { reason: "it ran on".into() });
    mapped.draw(crack, line(&[(97.0, 80.0), (190.0, 80.0)]));
    assert_eq!(tips(&mapped.bench), before);
}

#[rstest]
#[case::found_worse("dye", "eye", &[(97.0, 80.0), (160.0, 80.0)], 0)]
#[case::chalk_counts_for_itself("chalk_and_oil", "magnetic", &[(99.0, 80.0), (160.0, 80.0)], 2)]
#[case::drawn_elsewhere("eye", "dye", &[(20.0, 20.0), (20.0, 150.0)], 0)]
fn a_pair_is_an_end_that_was_found_better(
    #[case] first: &str,
    #[case] then: &str,
    #[case] drawn: &[(f64, f64)],
    #[case] pairs: usize,
) {
    let (mut mapped, crack) = seen();
    mapped.bench.set(&crack_key(crack, "found_by"), first);
    mapped.bench.set(&crack_key(crack, "found_by"), then);
    mapped.draw(crack, line(drawn));
    let found = tips(&mapped.bench);
    assert_eq!(found.len(), pairs);
    assert!(found.iter().all(|tip| Some(tip.found_by) == FoundBy::from_id(first)));
}

#[test]
fn an_edge_is_no_tip() {
    let (mut mapped, crack) = seen();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.bench.set(&crack_key(crack, "found_by"), "dye");
    mapped.draw(crack, line(&[(0.0, 80.0), (64.0, 80.0)]));
    let found = tips(&mapped.bench);
    assert_eq!((found.len(), found[0].second), (1, true));
}

#[test]
fn a_shop_whose_eye_is_good_drills_nearer_and_says_by_how_many() {
    let (mut mapped, crack) = seen();
    let past =
        |bench: &Bench| figure(&bench.plan(), &format!("cracks.{crack}.right.offset")).unwrap().clone();
    let book = past(&mapped.bench);
    assert!(!book.because.contains("found again"), "{book:?}");
    let good = |number: u128| OwnTip {
        crack: Uuid::from_u128(number),
        second: false,
        name: "an earlier one".into(),
        found_by: FoundBy::Eye,
        beyond_mm: 1.0,
    };
    mapped.bench.shop.tips = (0..30).map(good).collect();
    let own = past(&mapped.bench);
    assert!(own.value < book.value, "{} against {}", own.value, book.value);
    assert!(own.because.contains("30 ends that were found again here"), "{own:?}");
    // Of another way of finding they say nothing.
    mapped.bench.set(&crack_key(crack, "found_by"), "dye");
    let dye = past(&mapped.bench).value;
    mapped.bench.shop.tips.clear();
    assert_eq!(past(&mapped.bench).value, dye);
}
