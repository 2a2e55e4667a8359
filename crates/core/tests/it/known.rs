//! What follows from the part: estimates, guesses, locks, wishes, time and money.

use crate::common::{Bench, figure};
use rstest::rstest;
use vanadin_core::field::{crack_key, neighbour_key};
use vanadin_core::figure::Certainty;
use vanadin_core::iron::LookTest;
use vanadin_core::job::Change;
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Amount, Plan, Station, available};

fn lever() -> Bench {
    Bench::lever("machine_frame", "gray")
}

fn between(plan: &Plan, id: &str) -> (f64, f64, f64) {
    let figure = figure(plan, id).unwrap_or_else(|| panic!("no {id}"));
    (figure.low.unwrap_or(f64::NAN), figure.value, figure.high.unwrap_or(f64::NAN))
}

#[test]
fn an_estimated_weight_widens_every_figure_that_uses_it() {
    let mut bench = lever();
    bench.set("heat.source", "weed_burner");
    bench.set("method.choice", "torch_braze");
    let weighed = bench.plan();
    bench.set("part.mass", "");
    let estimated = bench.plan();
    assert_eq!(estimated.amount(Station::Part), Amount::Enough, "estimated is known enough");
    // Hand-worked: 0.4 x 0.15 x 0.06 m x 7150 = 25.74 kg, three quarters of it, half and all of it
    let (low, kg, high) = between(&estimated, "part.weight");
    assert!((low - 12.87).abs() < 0.01 && (kg - 19.305).abs() < 0.01 && (high - 25.74).abs() < 0.01);
    assert_eq!(estimated.figure("part.weight").unwrap().certainty, Certainty::Guess);
    for id in ["heat.energy", "heat.minutes", "cooling.unwrap", "cooling.touch", "method.hours"] {
        let (low, value, high) = between(&estimated, id);
        assert!(low < value && value < high, "{id}: {low} {value} {high}");
    }
    for id in ["heat.unevenness", "heat.ceiling"] {
        let (low, value, high) = between(&estimated, id);
        assert!(low <= value && value <= high, "{id}: {low} {value} {high}");
        assert!(weighed.figure(id).unwrap().low.is_none());
    }
    // The lighter part falls faster, and both ends are told.
    let (slow, _, fast) = between(&estimated, "cooling.fastest");
    assert!(slow < fast);
    // Energy goes with the weight: 12.87 to 25.74 about 19.305.
    let (low, value, high) = between(&estimated, "heat.energy");
    assert!((low / value - 2.0 / 3.0).abs() < 1e-6 && (high / value - 4.0 / 3.0).abs() < 1e-6);
    // Weighed, none of that is left but what the model itself is good to.
    assert!(weighed.figure("cooling.unwrap").unwrap().low.is_none());
    let (low, value, high) = between(&weighed, "heat.minutes");
    assert!((low / value - 0.7).abs() < 1e-9 && (high / value - 1.3).abs() < 1e-9);
    assert!(estimated.part.guesses.iter().any(|guess| guess.starts_with("Not weighed: about 19.3 kg")));
}

#[test]
fn without_a_size_nothing_is_estimated() {
    let mut bench = lever();
    bench.set("part.mass", "");
    bench.set("part.width", "");
    let plan = bench.plan();
    assert!(plan.figure("part.weight").is_none() && plan.part.weight_words.is_empty());
    assert_eq!(plan.amount(Station::Part), Amount::Something);
}

#[test]
fn an_unknown_wall_is_a_guess_and_says_what_for() {
    let mut bench = lever();
    let crack = bench.job().round().cracks[0].id;
    bench.set("part.wall", "");
    bench.set(&crack_key(crack, "wall"), "");
    let plan = bench.plan();
    assert!(
        plan.part
            .guesses
            .contains(&"Wall not known: stop-holes, groove and preheat are for 10 mm, a guess.".to_owned())
    );
    // Half of 10 mm wants a 5 mm drill or the next above.
    let drill = figure(&plan, "cracks.A.right.drill").unwrap();
    assert_eq!((drill.value, drill.certainty), (5.5, Certainty::Guess));
    assert!(drill.facts.iter().any(|fact| fact.text == "10 mm, a guess"));
    assert_eq!(plan.amount(Station::Cracks), Amount::Something, "a guess is not enough");
    bench.set("part.wall", "14");
    let plan = bench.plan();
    assert!(!plan.part.guesses.iter().any(|guess| guess.starts_with("Wall")));
    assert_eq!(figure(&plan, "cracks.A.right.drill").unwrap().certainty, Certainty::Computed);
}

#[rstest]
#[case::air_under_pressure(&[("part.holds", "gas"), ("part.pressure", "6 bar")], Some("pressure vessel"))]
#[case::an_open_vent(&[("part.holds", "gas"), ("part.pressure", "0.5 bar")], None)]
#[case::just_over(&[("part.holds", "gas"), ("part.pressure", "0.51 bar")], Some("pressure vessel"))]
#[case::drinking_water(&[("part.holds", "drinking_water"), ("part.pressure", "3 bar")], Some("pressure piping"))]
#[case::water_under_pressure(&[("part.holds", "water"), ("part.pressure", "3 bar")], None)]
// Hand-worked: the longest side is 0.4 m: pi x 0.4 x 478 / 60 = 10.01 m/s, at 477 it is 9.99
#[case::rim_too_fast(&[("part.rpm", "478")], Some("rim runs at 10 m/s"))]
#[case::rim_slow_enough(&[("part.rpm", "477")], None)]
fn contents_and_speed_make_a_safety_class_of_their_own(
    #[case] facts: &[(&str, &str)],
    #[case] words: Option<&str>,
) {
    let mut bench = lever();
    for (key, typed) in facts {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    match words {
        None => assert!(plan.locks.is_empty(), "{:?}", plan.locks),
        Some(words) => {
            assert!(plan.locks[0].sentence.contains(words), "{}", plan.locks[0].sentence);
            assert!(plan.methods.chosen.is_none() && plan.unlit_reason().is_some());
            bench.referred();
            let opens = words.contains("rim");
            assert_eq!(bench.plan().locks.is_empty(), opens, "pressure is opened by nobody here");
        }
    }
}

#[test]
fn a_closed_hollow_locks_all_heat_but_not_pins() {
    let mut bench = lever();
    bench.set("method.choice", "torch_braze");
    bench.ready();
    assert!(bench.plan().unlit_reason().is_none());
    bench.set("part.cavity", "closed");
    let plan = bench.plan();
    assert!(plan.unlit_reason().unwrap().contains("closed hollow"));
    assert_eq!(plan.lock().map(|lock| lock.key.as_str()), Some("part.cavity"));
    bench.set("method.choice", "stitch");
    let plan = bench.plan();
    assert_eq!((plan.lock(), plan.unlit_reason()), (None, None));
    bench.set("method.choice", "torch_braze");
    bench.set("part.cavity", "vented");
    let plan = bench.plan();
    assert!(plan.locks.is_empty() && plan.unlit_reason().is_none());
    assert!(plan.cautions.iter().any(|caution| caution.sentence.contains("dry at 120 °C")));
}

#[test]
fn nothing_hot_is_recommended_while_only_heat_is_locked() {
    let mut bench = lever();
    bench.set("part.cavity", "closed");
    let plan = bench.plan();
    assert!(
        plan.methods.chosen.is_none_or(|way| way.method == MethodId::Stitch),
        "{:?}",
        plan.methods.chosen
    );
    assert!(plan.methods.contenders.iter().any(|contender| contender.way.method == MethodId::TorchBraze));
}

#[test]
fn what_held_fuel_is_cleared_by_somebody_who_may() {
    let mut bench = lever();
    bench.set("part.holds", "fuel");
    assert_eq!(bench.plan().locks[0].short, "Held fuel");
    bench.set("part.authority", "Gas-free engineer");
    assert_eq!(bench.plan().locks.len(), 1);
    bench.referred();
    assert!(bench.plan().locks.is_empty());
}

#[test]
fn no_marks_forbids_every_test_that_leaves_one() {
    let mut bench = Bench::new();
    bench.set("part.family", "ornamental");
    let offered = |bench: &Bench| -> Vec<LookTest> {
        bench.plan().iron.next_tests.iter().map(|next| next.test).collect()
    };
    assert!(offered(&bench).contains(&LookTest::Punch));
    bench.set("part.marks", "none");
    let plan = bench.plan();
    let forbidden: Vec<LookTest> = plan.part.forbidden.iter().map(|forbidden| forbidden.test).collect();
    assert_eq!(forbidden, [LookTest::Spark, LookTest::Punch, LookTest::Drill, LookTest::File]);
    assert!(offered(&bench).iter().all(|test| test.mark().is_none()));
    bench.set("part.marks", "hidden");
    assert!(bench.plan().part.forbidden.is_empty());
    let punch = bench.plan().iron.next_tests.into_iter().find(|next| next.test == LookTest::Punch).unwrap();
    assert!(punch.mark.contains("where it will not show"));
}

#[test]
fn the_coolest_neighbour_caps_the_heat() {
    let mut bench = lever();
    bench.set("heat.source", "kiln");
    for (what, limit) in [("bearing shell", "230 C"), ("seal", "120 C")] {
        let id = bench.say(Change::AddNeighbour);
        bench.set(&neighbour_key(id, "what"), what);
        bench.set(&neighbour_key(id, "limit"), limit);
    }
    let reason = |bench: &Bench| {
        let plan = bench.plan();
        let braze = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::TorchBraze).unwrap();
        braze.reasons.join(" ")
    };
    assert!(reason(&bench).contains("seal must not pass 120 °C"), "{}", reason(&bench));
    let plan = bench.plan();
    let cool = plan.part.cautions.iter().filter(|caution| caution.sentence.starts_with("Keep cool"));
    assert_eq!(cool.count(), 2);
    assert!(plan.part.cautions.iter().any(|caution| caution.sentence.contains("hydrofluoric acid")));
    let seal = bench.job().round().neighbours[1].id;
    bench.say(Change::Strike { target: seal, reason: "taken off".into() });
    assert!(reason(&bench).contains("bearing shell must not pass 230 °C"), "{}", reason(&bench));
}

#[test]
fn a_neighbour_of_an_older_file_still_counts() {
    let mut bench = lever();
    bench.set("part.heat_shy", "soft solder");
    bench.set("part.heat_shy_limit", "150 C");
    let plan = bench.plan();
    assert!(plan.part.cautions.iter().any(|c| c.sentence == "Keep cool: soft solder, under 150 °C."));
}

#[rstest]
#[case::in_place("part.place", "in_place", "battery and electronics off")]
#[case::galvanised("part.coating", "galvanised", "Zinc")]
#[case::plated("part.coating", "paint,plated", "cadmium")]
#[case::drinking_water("part.holds", "drinking_water", "No contact with drinking water")]
#[case::pressure("part.pressure", "4 bar", "to 6 bar at most")]
#[case::old_bronze("part.old_filler", "bronze", "Old bronze")]
#[case::turns("part.rpm", "60", "nobody in its plane")]
#[case::kept_off("part.keep_off", "the bored face", "Not to be touched: the bored face.")]
#[case::who("part.hurt", "the bell ringers", "Could be hurt: the bell ringers")]
fn a_fact_earns_its_caution(#[case] key: &str, #[case] typed: &str, #[case] words: &str) {
    let mut bench = lever();
    bench.set("part.holds", "water");
    let said = |bench: &Bench| {
        let cautions = bench.plan().part.cautions;
        cautions.iter().map(|caution| caution.sentence.clone()).collect::<Vec<_>>().join(" ")
    };
    assert!(!said(&bench).contains(words), "not before it is said");
    bench.set(key, typed);
    assert!(said(&bench).contains(words), "{}", said(&bench));
}

#[rstest]
#[case::till_the_new_one(&[("part.life", "until_new"), ("part.replacement_wait", "6 weeks")], Some(42.0))]
#[case::nobody_knows_when(&[("part.life", "until_new")], None)]
#[case::a_season(&[("part.life", "season")], Some(180.0))]
#[case::exactly_wins(&[("part.life", "good"), ("part.life_wanted", "30 days")], Some(30.0))]
fn how_long_it_has_to_last_decides_whether_a_patch_will_do(
    #[case] facts: &[(&str, &str)],
    #[case] days: Option<f64>,
) {
    let mut bench = lever();
    bench.set("part.life_wanted", "");
    bench.set("part.service_temperature", "300 C");
    bench.set("part.heat_cycling", "no");
    for (key, typed) in facts {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    let braze = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::TorchBraze).unwrap();
    // M05: a braze at 300 is a patch for up to 90 days, and out for longer or where nobody knows.
    assert_eq!(braze.reasons.is_empty(), days.is_some_and(|days| days <= 90.0), "{:?}", braze.reasons);
}

#[test]
fn a_new_one_costs_its_price_and_the_days_of_standing_still() {
    let mut bench = lever();
    assert!(bench.plan().figure("part.replace").is_none());
    bench.set("part.replacement_price", "480");
    assert_eq!(bench.plan().figure("part.replace").unwrap().value, 480.0);
    bench.set("part.replacement_wait", "6 weeks");
    bench.set("part.downtime", "120");
    // Hand-worked: 480 + 42 x 120
    assert_eq!(bench.plan().figure("part.replace").unwrap().value, 5520.0);
}

#[test]
fn the_time_until_it_is_wanted_is_held_against_the_plan() {
    const HOUR: i64 = 3_600_000;
    let mut bench = lever();
    bench.set("heat.source", "kiln");
    bench.set("method.choice", "torch_braze");
    // Fetched 29 h after noon of the day before: where the shop's zone is, the server knows.
    let noon = (20_891 * 24 + 11) * HOUR;
    let deadline = noon + 29 * HOUR;
    let said = |bench: &Bench, now_ms| available(&bench.job(), &bench.plan(), now_ms, Some(deadline));
    assert_eq!(said(&bench, noon), None);
    bench.set("part.wanted", "2027-03-15");
    let plenty = said(&bench, noon).unwrap();
    assert_eq!((plenty.left.as_str(), plenty.short), ("1 day 5 h", false));
    let hours = bench.plan().figure("method.hours").unwrap().value / 60.0;
    // Just enough, and just not enough.
    let before = |hours: f64| deadline - (hours * HOUR as f64) as i64;
    assert!(!said(&bench, before(hours + 0.1)).unwrap().short);
    let late = said(&bench, before(hours - 0.1)).unwrap();
    assert!(late.short && late.sentence.contains("Too late by"), "{}", late.sentence);
    assert!(said(&bench, before(-1.0)).unwrap().sentence.contains("that is past"));
    // An estimated weight may make it late.
    bench.set("part.mass", "");
    let high = bench.plan().figure("method.hours").unwrap().high.unwrap() / 60.0;
    let maybe = said(&bench, before(high - 0.1)).unwrap();
    assert!(maybe.short && maybe.sentence.contains("It may be late"), "{}", maybe.sentence);
}
