//! The seam and what lies round it warmed, the rest of the part cold.

use rstest::rstest;
use vanadin_core::job::{Deed, TorchEntry};
use vanadin_core::method::School;
use vanadin_core::plan::{Contender, Plan};

use crate::common::{Bench, LIT_AT, figure};

/// A frame of 300 kg and a wall of 20 mm, with a crack of 100 mm, nickel-iron chosen.
fn frame(school: &str) -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    let sizes = [("mass", "300 kg"), ("length", "1000"), ("width", "600"), ("height", "300"), ("wall", "20")];
    for (field, typed) in [("shape", "ribbed_or_open_frame")].into_iter().chain(sizes) {
        bench.set(&format!("part.{field}"), typed);
    }
    let crack = bench.crack();
    for (field, typed) in [("length", "100"), ("wall", "20")] {
        bench.set(&format!("crack.{crack}.{field}"), typed);
    }
    bench.set("heat.source", "weed_burner");
    if !school.is_empty() {
        bench.set("method.choice", "arc_nickel_iron");
        bench.set("method.school", school);
    }
    bench
}

fn value(plan: &Plan, id: &str) -> f64 {
    figure(plan, id).unwrap_or_else(|| panic!("{id}")).value
}

fn nickel(plan: &Plan) -> &Contender {
    plan.methods.contenders.iter().find(|it| it.way.method.id() == "arc_nickel_iron").unwrap()
}

#[test]
fn four_walls_round_the_seam_are_warmed_and_nothing_is_soaked() {
    let plan = frame("local").plan();
    let heat = plan.heat.as_ref().unwrap();
    assert!(heat.reached && !heat.cold);
    // As warm as the method's warm school: 150, a wall of 20 adds nothing, 100 K over it at most.
    assert_eq!((heat.target_c, heat.least_c, heat.most_c), (150.0, 150.0, 250.0));
    assert_eq!(heat.soak_minutes, 0.0);
    // By hand: 100 + 2 x 80 by 2 x 80 by 20 mm of 7150 kg/m3 are 5.949 kg,
    // x [418.75 x 130 + 0.375 (150^2 - 20^2) / 2] J = 0.3484 MJ
    assert!((value(&plan, "heat.energy") - 0.3484).abs() < 0.0005, "{}", value(&plan, "heat.energy"));
    assert_eq!(heat.read_at, "edge of what is warmed, 80 mm from the seam");
    assert!(heat.sentence.contains("80 mm round it, the rest stays cold"), "{}", heat.sentence);
    assert!(heat.minutes > 1.0 && heat.minutes < 30.0, "{}", heat.minutes);
    let what = &plan.methods.what;
    assert!(what.contains("the seam and what lies round it at") && what.contains("the rest cold"), "{what}");
}

#[test]
fn a_thick_wall_and_a_ductile_iron_add_to_it_as_to_the_warm_school() {
    let mut bench = frame("local");
    bench.set("part.wall", "30");
    let crack = bench.crack();
    bench.set(&format!("crack.{crack}.wall"), "30");
    let plan = bench.plan();
    let heat = plan.heat.as_ref().unwrap();
    assert_eq!((heat.target_c, heat.most_c), (175.0, 275.0));
    assert_eq!(heat.read_at, "edge of what is warmed, 120 mm from the seam");
}

#[test]
fn it_is_nobodys_first_choice_and_offered_where_the_part_is_too_large_for_the_heat() {
    let plan = frame("").plan();
    assert!(plan.methods.contenders.iter().all(|it| it.way.school != School::Local));
    let offered = |plan: &Plan| nickel(plan).schools.iter().any(|said| said.starts_with("or local"));
    assert!(offered(&plan), "{:?}", nickel(&plan).schools);
    assert!(nickel(&plan).schools_to_choose.iter().any(|it| it.id == "local"));
    // A lever of 4 kg is little more than what lies round its seam.
    let mut small = Bench::lever("machine_frame", "gray");
    small.set("part.mass", "4 kg");
    assert!(!offered(&small.plan()));
    small.set("method.choice", "arc_nickel_iron");
    small.set("method.school", "local");
    let plan = small.plan();
    let nickel = nickel(&plan);
    assert!(nickel.excluded && nickel.reasons.iter().any(|why| why.contains("warm all of it")), "{nickel:?}");
}

#[test]
fn the_cold_iron_round_it_takes_part_of_the_flame_and_draws_it_down_soon() {
    let local = frame("local").plan();
    let whole = {
        let mut bench = frame("warm");
        bench.set("heat.source", "kiln");
        bench.plan()
    };
    assert!(value(&local, "heat.energy") < 0.05 * value(&whole, "heat.energy"));
    // Out of the heat it is under its least within minutes, the whole part much later.
    let clock = |mut bench: Bench| {
        bench.light();
        bench.torch(
            TorchEntry::Reading {
                typed: "200 C".into(),
                shown_in: Default::default(),
                joint: false,
                gun: None,
            },
            600_000,
        );
        bench.torch(TorchEntry::Did { what: Deed::OutOfHeat }, 601_000);
        let (job, plan) = (bench.job(), bench.plan());
        let live = vanadin_core::plan::status(&job, &plan, LIT_AT + 602_000).live.unwrap();
        let clock = live.clocks.into_iter().find(|it| it.kind == "out_of_heat").expect("it runs");
        // A second of the clock on the wall is a minute of the job's.
        clock.ends_min - 601.0
    };
    let mut in_the_kiln = frame("warm");
    in_the_kiln.set("heat.source", "kiln");
    let (local, warm) = (clock(frame("local")), clock(in_the_kiln));
    assert!(local > 0.2 && local < warm / 3.0, "{local} {warm}");
}

#[rstest]
#[case::open("ribbed_or_open_frame", false)]
#[case::closed("spoked_wheel", true)]
fn a_closed_shape_is_told_that_it_cannot_expand_and_it_costs(#[case] shape: &str, #[case] told: bool) {
    let mut bench = frame("local");
    bench.set("part.shape", shape);
    let plan = bench.plan();
    let taken = plan.methods.contenders.iter().find(|it| it.way.school == School::Local).unwrap();
    let part = taken.odds_parts.iter().find(|it| it.name == "restraint" || it.name == "uneven");
    assert_eq!(part.map(|it| it.shift), told.then_some(-0.4));
    assert_eq!(taken.cautions.iter().any(|it| it.contains("cannot expand: it pulls")), told);
}

#[rstest]
#[case::tig("tig_nickel", 250.0)]
#[case::silicon_bronze("tig_braze_si", 180.0)]
#[case::aluminium_bronze("tig_braze_al", 220.0)]
#[case::wire("mig_braze_si", 180.0)]
#[case::torch("torch_braze", 300.0)]
#[case::butter("butter_build", 180.0)]
fn each_way_that_may_be_warmed_locally_is_as_warm_as_its_own_school(
    #[case] method: &str,
    #[case] target_c: f64,
) {
    let mut bench = frame("local");
    bench.set("method.choice", method);
    bench.set("method.school", "local");
    let plan = bench.plan();
    let heat = plan.heat.as_ref().unwrap();
    assert_eq!((heat.target_c, heat.most_c), (target_c, target_c + 100.0));
}

#[test]
fn gas_fusion_and_stitching_know_no_local_heat() {
    for method in ["gas_iron", "stitch", "strap", "silver_braze"] {
        let of = vanadin_core::method::MethodId::from_id(method).unwrap();
        assert!(of.schools().all(|school| school != School::Local), "{method}");
    }
}
