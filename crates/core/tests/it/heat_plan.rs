//! Preheat, source, packing: what the plan makes of the gear at hand.

use std::collections::BTreeMap;

use crate::common::{Bench, LIT_AT, plan, set};
use rstest::rstest;
use vanadin_core::field::{FieldState, FieldValue};
use vanadin_core::job::{Change, Reading, TorchEntry};
use vanadin_core::method::{MethodId, School};
use vanadin_core::plan::Plan;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::record::{FROZEN_FORMAT, FrozenPlan};
use vanadin_core::shop::Shop;

fn shop(sources: &[&str], packings: &[&str]) -> Shop {
    let held = |value| FieldState {
        typed: String::new(),
        value: Some(value),
        revision: 1,
        not_understood: String::new(),
    };
    let many = |ids: &[&str]| held(FieldValue::Many(ids.iter().map(|&id| id.to_owned()).collect()));
    Shop::of(&BTreeMap::from([
        ("shop.sources".to_owned(), many(sources)),
        ("shop.packings".to_owned(), many(packings)),
        ("shop.rods".to_owned(), many(&["nickel", "nickel_iron", "bronze", "iron_rod"])),
        ("shop.stitch_kit".to_owned(), held(FieldValue::YesNo(true))),
    ]))
}

fn hot_lever(sources: &[&str], packings: &[&str]) -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.shop = shop(sources, packings);
    bench
}

fn value(plan: &Plan, id: &str) -> f64 {
    plan.figure(id).unwrap_or_else(|| panic!("no {id}")).value
}

#[test]
fn an_oven_is_set_for_the_target_and_the_part_comes_up_evenly() {
    let plan = hot_lever(&["kiln"], &["vermiculite"]).plan();
    let heat = plan.heat.as_ref().unwrap();
    assert!(heat.reached && heat.even_share == 1.0);
    // Ours: 50 K over the target of 300 degC; published: the whole part is at one temperature
    assert!((value(&plan, "heat.ceiling") - 350.0).abs() < 0.5);
    // Along the part the model sees no difference: nothing is claimed of thick and thin.
    assert!(plan.figure("heat.unevenness").is_none());
    // Hand-worked: 300 K/h from 20 to 300 degC is 56 min, and the part lags.
    assert!((56.0..75.0).contains(&heat.minutes), "{}", heat.minutes);
    assert!(heat.curve.iter().all(|(_, cold, hot)| (hot - cold).abs() < 0.01 && *hot <= 350.0));
}

#[test]
fn a_flame_is_turned_down_to_what_the_part_stands() {
    let mut bench = hot_lever(&["weed_burner"], &["vermiculite"]);
    let at = |bench: &Bench| bench.plan().heat.unwrap();
    let heavy = at(&bench);
    bench.set("part.mass", "6 kg");
    let light = at(&bench);
    assert!(
        light.throttle <= heavy.throttle && light.throttle < 1.0,
        "{} {}",
        light.throttle,
        heavy.throttle
    );
    assert!(light.sentence.starts_with("Turn it down to about"), "{}", light.sentence);
    assert!(light.source_label.contains("turned down to about"), "{}", light.source_label);
    assert!(light.minutes > 1.0, "never at once: {}", light.minutes);
    // What is chosen is the strongest flame that heats it evenly: of those tried none stronger does.
    let limit = value(&bench.plan(), "heat.limit");
    assert!(value(&bench.plan(), "heat.unevenness") <= limit);
    let stronger = light.tried.iter().filter(|it| !it.taken && it.even);
    assert!(stronger.clone().all(|it| it.label != "Roofing or weed burner"), "{:?}", light.tried);
    // Held it burns at least a fifth, and no more than all.
    assert!((0.2..=1.0).contains(&light.hold_share), "{}", light.hold_share);
}

#[test]
fn a_kitchen_oven_stops_short_and_says_so() {
    let mut bench = hot_lever(&["kitchen_oven"], &["vermiculite"]);
    bench.set("method.choice", "torch_braze");
    let heat = bench.plan().heat.unwrap();
    assert!(!heat.reached);
    // Published: the trade reference: env 260 degC at most
    assert!(heat.sentence.contains("stops at about 260 °C"), "{}", heat.sentence);
}

#[test]
fn a_chosen_source_is_taken_even_when_another_would_do_better() {
    let mut bench = hot_lever(&["weed_burner", "kiln"], &["vermiculite"]);
    bench.set("heat.source", "hand_torch_propane");
    let heat = bench.plan().heat.unwrap();
    assert_eq!((heat.source.as_str(), heat.reached), ("hand_torch_propane", false));
}

#[test]
fn the_energy_is_that_of_the_irons_specific_heat() {
    let plan = hot_lever(&["kiln"], &["vermiculite"]).plan();
    // Hand-worked: 12 x [418.75 x 280 + 0.375 (300² - 20²) / 2] J = 1.6086 MJ
    assert!((value(&plan, "heat.energy") - 1.6086).abs() < 0.0005, "{}", value(&plan, "heat.energy"));
}

#[rstest]
#[case::thin_wall("hot", "9", 9.0)]
#[case::thick_wall("hot", "31", 31.0)]
#[case::a_skin("hot", "1.5", 2.0)]
#[case::gas_welded_whole("whole_part", "9", 20.0)]
#[case::gas_welded_whole_and_thick("whole_part", "31", 31.0)]
fn the_soak_is_a_minute_for_each_millimetre_two_at_least_and_twenty_for_the_whole_part_gas_welded(
    #[case] school: &str,
    #[case] wall: &str,
    #[case] minutes: f64,
) {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    bench.set("method.choice", if school == "hot" { "arc_nickel_iron" } else { "gas_iron" });
    bench.set("method.school", school);
    bench.set("part.wall", wall);
    assert_eq!(value(&bench.plan(), "heat.soak"), minutes);
}

#[rstest]
#[case::open("solid_block", "14", 300.0)]
#[case::closed("hollow_box", "14", 325.0)]
#[case::thick("solid_block", "20.1", 325.0)]
#[case::both("closed_frame", "20.1", 350.0)]
// Published: the trade reference, "Target"
fn the_target_rises_for_thick_walls_and_closed_shapes(
    #[case] shape: &str,
    #[case] wall: &str,
    #[case] target: f64,
) {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    bench.set("part.shape", shape);
    bench.set("part.wall", wall);
    let plan = bench.plan();
    let figure = plan.figure("heat.target").unwrap();
    assert_eq!((figure.value, figure.high), (target, Some(target + 100.0)));
    assert_eq!(figure.metric.number, format!("{target:.0} to {:.0}", target + 100.0));
}

#[test]
fn something_heat_shy_lowers_the_most_between_beads() {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    bench.set("part.heat_shy", "seal seat");
    bench.set("part.heat_shy_limit", "340 C");
    let plan = bench.plan();
    assert_eq!(plan.figure("heat.target").unwrap().high, Some(340.0));
    assert!(plan.cautions.iter().any(|caution| caution.sentence == "Keep cool: seal seat, under 340 °C."));
}

#[rstest]
#[case::the_slowest_first(&["air", "dry_sand", "blanket", "wood_ash", "vermiculite"], "Vermiculite, 100 mm")]
#[case::ash_before_a_blanket(&["air", "blanket", "wood_ash"], "Wood ash, 100 mm")]
#[case::a_blanket(&["air", "dry_sand", "blanket"], "Ceramic blanket, 25 mm")]
#[case::nothing_but_air(&["air"], "Still air")]
fn the_packing_is_the_best_at_hand(#[case] packings: &[&str], #[case] packing: &str) {
    assert_eq!(hot_lever(&["kiln"], packings).plan().cooling.unwrap().packing, packing);
}

#[test]
fn a_limit_that_no_packing_meets_is_a_caution_and_no_lock() {
    let mut bench = hot_lever(&["kiln"], &["air"]);
    bench.set("method.choice", "gas_iron");
    bench.ready();
    let plan = bench.plan();
    let cooling = plan.cooling.as_ref().unwrap();
    assert!(cooling.fastest_k_per_h > cooling.limit_k_per_h.unwrap());
    assert!(cooling.sentence.contains("as slow as this packing gives"), "{}", cooling.sentence);
    assert_eq!(plan.unlit_reason(), None);
}

#[test]
fn cold_sand_chills_first_and_is_to_be_warmed() {
    let sentence = hot_lever(&["kiln"], &["dry_sand"]).plan().cooling.unwrap().sentence;
    assert!(sentence.ends_with("Cold sand chills first: warm it to 100 °C."), "{sentence}");
    let sentence = hot_lever(&["kiln"], &["vermiculite"]).plan().cooling.unwrap().sentence;
    assert!(!sentence.contains("sand"), "{sentence}");
}

#[test]
fn the_default_school_is_hot_when_it_is_even_and_slow_else_warm_else_cold() {
    let school = |bench: &Bench| {
        let plan = bench.plan();
        let nickel = plan.methods.contenders.into_iter().find(|c| c.way.method == MethodId::ArcNickelIron);
        nickel.map(|contender| (contender.way.school, contender.schools.join("; "))).unwrap()
    };
    let mut bench = Bench::lever("machine_frame", "gray");
    // Big enough that a box of vermiculite lets it fall slowly.
    for (key, typed) in
        [("part.mass", "60 kg"), ("part.length", "600"), ("part.width", "300"), ("part.height", "100")]
    {
        bench.set(key, typed);
    }
    bench.shop = shop(&["kiln"], &["vermiculite"]);
    assert_eq!(school(&bench).0, School::Hot);
    bench.shop = shop(&["kiln"], &["air"]);
    assert_eq!(school(&bench).0, School::Hot, "a kiln is an oven to cool it in");
    bench.shop = shop(&["charcoal_bed"], &["air"]);
    let (cold, why) = school(&bench);
    assert_eq!(cold, School::Cold);
    assert!(why.contains("not hot: nothing but still air") && why.contains("not warm: nothing"), "{why}");
    bench.shop = shop(&["hand_torch_propane"], &["vermiculite"]);
    let (cold, why) = school(&bench);
    assert_eq!(cold, School::Cold);
    assert!(why.contains("cannot get this part to"), "{why}");
    // In between it is warm: the hot school's limit is over what stays cool beside it.
    bench.shop = shop(&["kiln"], &["vermiculite"]);
    bench.set("part.heat_shy", "bush");
    bench.set("part.heat_shy_limit", "259 C");
    assert_eq!(school(&bench).0, School::Warm);
    bench.set("part.heat_shy_limit", "260 C");
    assert_eq!(school(&bench).0, School::Hot, "just at its least");
}

#[test]
fn once_covered_the_cooling_starts_at_the_last_reading() {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    bench.light();
    bench
        .try_say(Change::Torch { entry: TorchEntry::Covered { why: String::new() } }, LIT_AT + 60_000, None)
        .unwrap();
    let unwrap = |celsius: f64| {
        let mut job = bench.job();
        job.rounds[0].readings = vec![Reading { minutes: 59.5, celsius }];
        let plan = plan(&job, &bench.shop);
        (plan.cooling.as_ref().unwrap().start_c, value(&plan, "cooling.unwrap"))
    };
    let ((from_310, slow), (from_200, quick)) = (unwrap(310.0), unwrap(200.0));
    assert_eq!((from_310, from_200), (310.0, 200.0));
    assert!(quick < slow);
}

#[test]
fn the_plan_is_frozen_when_it_is_lit_and_stays_readable() {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    bench.light();
    let frozen = bench.job().round().lit.as_ref().unwrap().frozen.clone().unwrap();
    assert_eq!(frozen.format, FROZEN_FORMAT);
    // Said afterwards, it changes the plan and not what was planned.
    bench.set("part.wall", "25");
    let job = bench.job();
    let after = job.round().lit.as_ref().unwrap().frozen.clone().unwrap();
    assert_eq!(after, frozen);
    assert_ne!(bench.plan().frozen().figures, frozen.figures);
    // As it stands in a job's file of this format.
    let stored = include_str!("published/frozen_plan_1.json");
    let read: FrozenPlan = serde_json::from_str(stored).expect("a plan frozen by format 1 is readable");
    assert_eq!((read.format, read.label.as_str()), (1, "Nickel-iron stick, hot"));
    assert!(read.figures.iter().any(|figure| figure.id == "prep.rods" && !figure.formula.is_empty()));
}

#[test]
fn imperial_sentences_carry_no_metric_temperature() {
    let mut bench = hot_lever(&["kitchen_oven"], &["vermiculite"]);
    bench.set("method.choice", "torch_braze");
    bench.shop.units = UnitSystem::Imperial;
    let plan = bench.plan();
    let heat = plan.heat.unwrap();
    assert!(heat.sentence.contains("500 °F") && !heat.sentence.contains("°C"), "{}", heat.sentence);
    assert_eq!((heat.least_words.as_str(), heat.most_words.as_str()), ("at least 580 °F", "at most 840 °F"));
    assert!(plan.cooling.unwrap().unwrap_words.ends_with("140 °F"));
}

#[test]
fn a_wish_that_cannot_be_read_changes_nothing() {
    let mut bench = hot_lever(&["kiln"], &["vermiculite"]);
    let before = bench.plan();
    assert!(bench.try_say(set("heat.source", "dragon"), LIT_AT, None).is_err());
    assert_eq!(bench.plan(), before);
}

#[rstest]
#[case::by_itself(&["weed_burner"], 60, "", "Sweep it")]
#[case::under_a_cover(&["hand_torch_map"], 12, "covered", "Cover the rest")]
#[case::with_a_second_flame(&["oxy_acetylene_small", "hand_torch_map"], 300, "hand_torch_map", "a helper")]
fn a_flame_that_falls_short_is_helped_by_a_cover_and_then_by_a_second_one(
    #[case] sources: &[&str],
    #[case] kg: u32,
    #[case] help: &str,
    #[case] said: &str,
) {
    let mut bench = hot_lever(sources, &["vermiculite"]);
    bench.set("part.mass", &format!("{kg} kg"));
    bench.set("method.choice", "torch_braze");
    let plan = bench.plan();
    let heat = plan.heat.as_ref().unwrap();
    assert_eq!((heat.reached, heat.help.as_str()), (true, help), "{}", heat.sentence);
    assert!(heat.sentence.contains(said), "{}", heat.sentence);
    let of = |it: &&vanadin_core::plan::Contender| it.way.method == MethodId::TorchBraze;
    let braze = plan.methods.contenders.iter().find(of).unwrap();
    assert!(!braze.excluded, "what can be reached is not ruled out for its heat: {:?}", braze.reasons);
}

#[test]
fn what_no_help_can_do_is_ruled_out_with_how_hot_it_gets() {
    let mut bench = hot_lever(&["hand_torch_map", "hand_torch_propane"], &["vermiculite"]);
    bench.set("part.mass", "200 kg");
    let plan = bench.plan();
    let of = |it: &&vanadin_core::plan::Contender| it.way.method == MethodId::TorchBraze;
    let braze = plan.methods.contenders.iter().find(of).unwrap();
    assert!(braze.reasons.iter().any(|why| why.contains("300 °C is needed")), "{:?}", braze.reasons);
}
