//! Before the torch: unknown is not no.

use crate::common::{Bench, LIT_AT, figure};
use rstest::rstest;
use vanadin_core::field::crack_key;
use vanadin_core::job::{Change, Lighting, Refusal, Work};
use vanadin_core::method::{MethodId, School};

/// A lever ready to be lit with nickel-iron.
fn ready() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.ready();
    assert_eq!(bench.plan().gate.refused, [], "ready");
    bench
}

fn light(bench: &mut Bench, owned: &str) -> Result<(), Vec<String>> {
    let light = Change::Light {
        speed: 1.0,
        frozen: None,
        owned: owned.to_owned(),
        what: Lighting::Main,
        without: Vec::new(),
    };
    match bench.try_say(light, LIT_AT, None) {
        Ok(_) => Ok(()),
        Err(Refusal::Problems(problems)) => Err(problems
            .into_iter()
            .map(|p| format!("{}: {} {}", p.field, p.message, p.would_be_right))
            .collect()),
        Err(other) => panic!("{other:?}"),
    }
}

#[rstest]
// Published: the trade reference, "Lighting-up gate"
#[case::class_not_answered(&[("part.safety_class", "")], "could hurt somebody")]
#[case::hollow_not_answered(&[("part.shape", "hollow_box")], "hollow without a vent")]
#[case::closed_frame_not_answered(&[("part.shape", "closed_frame")], "hollow without a vent")]
#[case::unknown_filler(&[("part.old_filler", "other")], "kind not known")]
#[case::unknown_filler_stays(&[("part.old_filler", "other"), ("part.old_filler_out", "no")], "kind not known")]
#[case::nobody_looked(&[("part.old_filler", "")], "Nobody has looked for an old filler")]
#[case::hollow_closed(&[("part.shape", "hollow_box"), ("part.cavity", "closed")], "closed hollow bursts")]
#[case::held_fuel(&[("part.holds", "fuel")], "held fuel")]
#[case::groove_open(&[("prep.done", "holes,inside,penetrant,paint")], "groove ground")]
#[case::inside_open(&[("prep.done", "holes,groove,penetrant,paint")], "inside cleaned")]
#[case::dye_left_in(&[("prep.done", "holes,groove,inside,paint")], "dye, chalk and oil out again")]
#[case::paint_of_unknown_age(
    &[("part.era", "unknown"), ("part.coating", "paint"), ("prep.done", "holes,groove,inside,penetrant")],
    "paint off"
)]
#[case::no_heat(&[("method.choice", "torch_braze"), ("part.width", "")], "Not known: width")]
fn what_is_not_known_or_not_done_refuses_the_flame(#[case] facts: &[(&str, &str)], #[case] words: &str) {
    let mut bench = ready();
    for (key, typed) in facts {
        bench.set(key, typed);
    }
    let refused = light(&mut bench, "the boss says so").unwrap_err();
    assert!(refused.iter().any(|why| why.contains(words)), "{refused:?}");
    assert!(refused.iter().all(|why| why.starts_with("light: ")), "at the lighting, owned or not");
}

#[rstest]
#[case::hollow_vented(&[("part.shape", "hollow_box"), ("part.cavity", "vented")])]
#[case::no_hollow(&[("part.shape", "closed_frame"), ("part.cavity", "none")])]
#[case::filler_all_out(&[("part.old_filler", "other"), ("part.old_filler_out", "yes")])]
#[case::newer_paint(&[("part.coating", "paint"), ("prep.done", "holes,groove,inside,penetrant")])]
#[case::found_without_anything(&[("crack", "magnetic"), ("prep.done", "holes,groove,inside")])]
fn what_is_answered_opens_it(#[case] facts: &[(&str, &str)]) {
    let mut bench = ready();
    for (key, typed) in facts {
        let key = if *key == "crack" { crack_key(bench.crack(), "found_by") } else { (*key).to_owned() };
        bench.set(&key, typed);
    }
    assert_eq!(bench.plan().gate.refused, []);
}

#[test]
fn what_was_measured_was_done() {
    let mut bench = ready();
    bench.set("prep.done", "inside,penetrant");
    let crack = bench.crack();
    bench.set(&crack_key(crack, "drilled_b"), "8");
    bench.set(&crack_key(crack, "ground_depth"), "7");
    assert!(light(&mut bench, "").is_err(), "how wide is open");
    bench.set(&crack_key(crack, "ground_width"), "10");
    assert_eq!(light(&mut bench, ""), Ok(()));
}

#[test]
fn an_end_that_goes_out_of_sight_is_looked_for_first() {
    let mut bench = ready();
    let crack = bench.crack();
    bench.set(&crack_key(crack, "end_b"), "hidden");
    assert!(light(&mut bench, "").unwrap_err()[0].contains("out of sight"));
    bench.set(&crack_key(crack, "end_b"), "");
    assert!(light(&mut bench, "").unwrap_err()[0].contains("right end"), "not decided");
}

#[test]
fn without_any_test_of_the_iron_it_is_test_first() {
    let mut bench = Bench::lever("unknown", "gray");
    bench.set("method.choice", "torch_braze");
    bench.ready();
    assert_eq!(bench.plan().gate.refused, []);
    for seen in bench.job().evidence {
        bench.say(Change::Strike { target: seen.fact, reason: "another part".into() });
    }
    let refused = light(&mut bench, "").unwrap_err();
    assert!(refused.iter().any(|why| why.contains("Test first")), "{refused:?}");
    // Pins need no flame: they go by the locks alone.
    bench.set("method.choice", "stitch");
    assert!(!bench.plan().gate.refused.iter().any(|line| line.sentence.contains("Test first")));
}

#[test]
fn pins_need_a_class_and_no_flame() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "stitch");
    bench.set("part.shape", "hollow_box");
    assert_eq!(bench.plan().gate.refused, [], "no groove, no hollow, no dye");
    bench.set("part.safety_class", "");
    assert!(light(&mut bench, "").unwrap_err()[0].contains("could hurt"));
}

#[test]
fn between_what_the_model_gives_and_what_it_may_give_somebody_answers_for_it() {
    let mut bench = ready();
    bench.set("method.choice", "torch_braze");
    bench.set("heat.source", "hand_torch_propane");
    // Heavy enough that a hand torch will never do: refused, whoever says so.
    let refused = light(&mut bench, "I know this torch").unwrap_err();
    assert!(refused[0].contains("cannot get this part to 300"), "{refused:?}");
    // A light one is in between: also under a cover it stops short by less than the model is good to.
    let light_part =
        [("part.mass", "6"), ("part.length", "300"), ("part.width", "160"), ("part.height", "70")];
    for (key, typed) in light_part {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    let heat = plan.heat.as_ref().unwrap();
    assert!(!heat.reached && heat.within_the_estimate, "{heat:?}");
    assert!(plan.gate.to_own.contains("Holds") && plan.gate.to_own.contains("short"), "{}", plan.gate.to_own);
    let refused = light(&mut bench, " ").unwrap_err();
    assert!(refused[0].starts_with("owned: "), "{refused:?}");
    light(&mut bench, "M. Okafor: small, and the oven is warm").unwrap();
    assert_eq!(bench.job().round().lit.as_ref().unwrap().owned, "M. Okafor: small, and the oven is warm");
}

#[test]
fn a_part_that_is_referred_out_is_taken_by_nobody() {
    let mut bench = ready();
    bench.set("part.safety_class", "lifting");
    let plan = bench.plan();
    assert_eq!(plan.methods.chosen, None, "also not by a choice from before");
    let taken = bench.try_say(crate::common::set("method.choice", "stitch"), LIT_AT, None);
    assert!(
        matches!(taken, Err(Refusal::Problems(problems)) if problems[0].message.contains("Referred out"))
    );
    assert!(
        bench.try_say(crate::common::set("method.choice", ""), LIT_AT, None).is_ok(),
        "a choice can be taken back"
    );
}

#[test]
fn handing_over_says_what_is_open_and_somebody_owns_it() {
    let mut bench = ready();
    let hand_over =
        |bench: &mut Bench| bench.try_say(crate::common::set("hand_over.done", "yes"), LIT_AT, None);
    let Err(Refusal::Problems(problems)) = hand_over(&mut bench) else { panic!("taken") };
    assert_eq!(problems[0].field, "hand_over.done");
    assert!(problems[0].message.contains("never lit") && problems[0].message.contains("Nothing was checked"));
    bench.light();
    for at in 0..4 {
        bench.torch(vanadin_core::job::TorchEntry::Bead { at: None }, 1000 + at);
    }
    bench.torch(vanadin_core::job::TorchEntry::Covered { why: "gas out".into() }, 2000);
    let plan = bench.plan();
    let planned = plan.torch.as_ref().unwrap().planned;
    assert!(plan.hand_over.open.contains(&format!("{} of {planned} beads are not done.", planned - 4)));
    // Check knows, and says why it was covered.
    let known = plan.cautions.iter().find(|caution| caution.sentence.contains("4 of")).unwrap();
    assert!(known.sentence.contains("gas out"), "{}", known.sentence);
    bench.set("hand_over.owned", "Owner takes it to be finished elsewhere");
    hand_over(&mut bench).unwrap();
}

#[test]
fn gas_fusion_of_a_small_open_part_goes_the_modest_way_where_it_cannot_be_made_red() {
    let mut bench = Bench::lever("cookware", "gray");
    for (key, typed) in [
        ("part.mass", "2"),
        ("part.length", "200"),
        ("part.width", "150"),
        ("part.height", "20"),
        ("part.wall", "8"),
        ("part.shape", "thin_plate"),
        ("heat.source", "hand_torch_map"),
    ] {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    let gas = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::GasIron).unwrap();
    assert_eq!(gas.way.school, School::Modest, "{:?}", gas.schools);
    assert!(!gas.excluded, "{:?}", gas.reasons);
    assert!((gas.odds_start.mean - 0.65).abs() < 1e-12);
    bench.set("part.wall", "14");
    bench.set("part.mass", "4");
    let plan = bench.plan();
    let gas = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::GasIron).unwrap();
    assert!(gas.excluded);
}

#[test]
fn a_school_is_chosen_for_the_method_it_was_chosen_with() {
    let mut bench = ready();
    bench.set("method.school", "cold");
    let school = |bench: &Bench, method| {
        bench.plan().methods.contenders.iter().find(|c| c.way.method == method).unwrap().way.school
    };
    assert_eq!(school(&bench, MethodId::ArcNickelIron), School::Cold);
    assert_ne!(school(&bench, MethodId::ArcNickel), School::Cold, "its own default stands");
}

#[test]
fn no_sentence_says_what_was_not_worked_out() {
    // Found: malleable rules gas fusion out, so its 600 degC was never run, and yet it "took over 3 h".
    let mut bench = Bench::lever("small_hardware", "malleable");
    bench.set("part.mass", "1");
    bench.set("part.length", "120");
    bench.set("part.width", "60");
    bench.set("part.height", "30");
    bench.set("heat.source", "oxy_acetylene_large");
    let plan = bench.plan();
    let gas = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::GasIron).unwrap();
    let said = gas.reasons.join(" ") + &gas.schools.join(" ");
    assert!(!said.contains("3 h"), "{said}");
}

#[rstest]
#[case::closed("hollow_box", "torch_braze", "12", Some(100.0))]
#[case::spoked("spoked_wheel", "torch_braze", "12", Some(100.0))]
#[case::ribbed("ribbed_or_open_frame", "torch_braze", "12", Some(300.0))]
#[case::solid("solid_block", "torch_braze", "12", Some(400.0))]
#[case::solid_gas("solid_block", "gas_iron", "12", Some(200.0))]
#[case::small_open("solid_block", "torch_braze", "4.9", None)]
#[case::just_not_small("solid_block", "torch_braze", "5", Some(400.0))]
#[case::small_closed("hollow_box", "torch_braze", "4.9", Some(100.0))]
#[case::pins("hollow_box", "stitch", "12", None)]
// Published: the trade reference, "Cooling"
fn how_fast_it_may_fall_goes_by_its_shape(
    #[case] shape: &str,
    #[case] method: &str,
    #[case] kg: &str,
    #[case] limit: Option<f64>,
) {
    let mut bench = Bench::lever("machine_frame", "gray");
    for (key, typed) in [("part.shape", shape), ("part.mass", kg), ("method.choice", method)] {
        bench.set(key, typed);
    }
    assert_eq!(bench.plan().cooling.unwrap().limit_k_per_h, limit);
}

#[test]
fn a_cold_seam_of_many_beads_takes_hours() {
    let mut bench = ready();
    bench.set("method.school", "cold");
    bench.set(&crack_key(bench.crack(), "length"), "300");
    let plan = bench.plan();
    let beads = f64::from(plan.prep.as_ref().unwrap().beads);
    let minutes = plan.torch.as_ref().unwrap().beads.as_ref().unwrap().elapsed_min;
    let chosen = plan.methods.chosen.unwrap();
    let contender = plan.methods.contenders.iter().find(|c| c.way == chosen).unwrap();
    let fill = contender.steps.iter().find(|step| step.id == "fill").unwrap();
    assert!((fill.attended_min - minutes).abs() < 0.01, "{fill:?}");
    // Published: "a cold seam of 45 beads is hours, not minutes"
    assert!(beads >= 40.0 && minutes > 120.0, "{beads} beads in {minutes} min");
    assert!(figure(&plan, "method.hours").unwrap().value > minutes);
}

#[test]
fn what_was_drilled_and_ground_takes_the_plans_place() {
    let mut bench = ready();
    let crack = bench.crack();
    let planned = figure(&bench.plan(), "prep.volume").unwrap().value;
    bench.set(&crack_key(crack, "drilled_b"), "6.4");
    bench.set(&crack_key(crack, "past_b"), "1");
    let plan = bench.plan();
    assert_eq!(figure(&plan, "cracks.A.right.drill").unwrap().value, 6.4);
    // Hand-worked: 1 - Phi((1 + 3.2 - 0.7) / 0.8) = 6e-6
    assert!(figure(&plan, "cracks.A.right.run_past").unwrap().value < 0.001);
    assert!(plan.cracks[0].ends[1].sentence.starts_with("drilled: "), "{}", plan.cracks[0].ends[1].sentence);
    bench.set(&crack_key(crack, "ground_depth"), "9");
    bench.set(&crack_key(crack, "ground_width"), "14");
    let plan = bench.plan();
    assert_eq!(figure(&plan, "prep.A.depth").unwrap().value, 9.0);
    assert!((figure(&plan, "prep.A.width").unwrap().value - 14.0).abs() < 1e-6);
    assert!(figure(&plan, "prep.volume").unwrap().value > planned);
}

#[test]
fn a_hole_into_a_face_that_must_not_be_touched_is_said_and_another_way_offered() {
    let mut bench = ready();
    let sentence = |bench: &Bench| bench.plan().cracks[0].ends[1].sentence.clone();
    assert!(sentence(&bench).contains("drill through"));
    bench.set("part.keep_off", "the cylinder bore");
    assert!(sentence(&bench).contains("look first") && sentence(&bench).contains("the cylinder bore"));
    let through = figure(&bench.plan(), "prep.volume").unwrap().value;
    bench.set(&crack_key(bench.crack(), "behind"), "kept");
    let plan = bench.plan();
    assert!(sentence(&bench).starts_with("Not through"), "{}", sentence(&bench));
    assert!(!sentence(&bench).contains("drill through") && plan.cracks[0].ends[1].blind);
    let drilled = plan.prep.as_ref().unwrap().work.iter().find(|line| line.step.what == Work::Drill);
    assert!(drilled.unwrap().sentence.contains("blind"));
    assert!(figure(&plan, "prep.volume").unwrap().value < through);
    bench.set(&crack_key(bench.crack(), "behind"), "free");
    assert!(sentence(&bench).contains("drill through"));
}

#[test]
fn a_full_break_asks_for_its_piece() {
    let mut bench = ready();
    let crack = bench.crack();
    bench.set(&crack_key(crack, "end_b"), "edge");
    let plan = bench.plan();
    assert!(plan.cracks[0].full_break && !plan.cracks[0].complete);
    assert!(plan.missing.iter().any(|missing| missing.key == crack_key(crack, "piece")));
    bench.set(&crack_key(crack, "piece"), "lost");
    let plan = bench.plan();
    let out = |method| plan.methods.contenders.iter().find(|c| c.way.method == method).unwrap().excluded;
    assert!(out(MethodId::Stitch) && out(MethodId::TorchBraze) && out(MethodId::ArcNickel));
}

#[test]
fn an_iron_that_is_hardly_likely_does_not_set_the_strength() {
    let strength = |bench: &Bench| {
        let plan = bench.plan();
        let nickel =
            plan.methods.contenders.into_iter().find(|c| c.way.method == MethodId::ArcNickel).unwrap();
        nickel.parts.into_iter().find(|part| part.name == "strength").unwrap().working
    };
    let mut bench = Bench::new();
    for (key, typed) in [("part.family", "machine_frame"), ("part.era", "unknown"), ("part.wall", "12")] {
        bench.set(key, typed);
    }
    // Prior: gray 93 %, ductile 4 %: both are plausible, ductile does not set the strength.
    assert!(bench.plan().iron.plausible.len() > 1);
    assert!(strength(&bench).contains("÷ 200 MPa"), "{}", strength(&bench));
    bench.set("part.family", "engine_block");
    bench.set("part.era", "1970_on");
    assert!(strength(&bench).contains("÷ 400 MPa"), "6 % counts: {}", strength(&bench));
}

#[test]
fn dye_chalk_and_oil_come_out_again_before_filler() {
    let mut bench = ready();
    let out_again = |bench: &Bench| {
        let work = bench.plan().prep.unwrap().work;
        work.iter().any(|line| line.step.what == Work::PenetrantOut)
    };
    assert!(out_again(&bench));
    bench.set(&crack_key(bench.crack(), "found_by"), "magnetic");
    assert!(!out_again(&bench));
    let work = bench.plan().prep.unwrap().work;
    assert!(
        work.iter().any(|line| line.step.what == Work::Demagnetise),
        "magnetic particles leave it a magnet"
    );
    for found in ["heat", "after_cooling"] {
        bench.set(&crack_key(bench.crack(), "found_by"), found);
        assert!(bench.plan().cracks[0].ends[1].stop_hole.is_some_and(|hole| hole.well_past_mm.is_some()));
    }
}
