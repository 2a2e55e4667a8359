//! The hours at the seam are those of the order that the torch then leads, and the gas is that of all that burns.
//! Published: the trade reference, hours by step; gas.

use crate::common::Bench;
use crate::common::mapped::Mapped;
use rstest::rstest;
use vanadin_core::effort::durations::Step;
use vanadin_core::field::{crack_key, mark_key};
use vanadin_core::heat::{SimCache, gas_need_m3};
use vanadin_core::job::{BeadAt, Change, Lighting, TorchEntry};
use vanadin_core::map::{At, MarkKind, Shape};
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Asks, BeadsPlan, Contender, HeatPlan, Moment, Plan, PrepPlan, plan_at};
use vanadin_core::quantity::{Unit, UnitSystem};
use vanadin_core::stage::HeatStep;

fn lever(method: &str, school: &str) -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    bench.set("method.school", school);
    bench.set("heat.source", "weed_burner");
    bench
}

fn taken(plan: &Plan) -> &Contender {
    plan.methods.contenders.iter().find(|it| Some(it.way) == plan.methods.chosen).unwrap()
}

fn step<'a>(of: &'a Contender, id: &str) -> Option<&'a Step> {
    of.steps.iter().find(|step| step.id == id)
}

fn fill(plan: &Plan) -> &Step {
    step(taken(plan), "fill").unwrap()
}

fn beads(plan: &Plan) -> &BeadsPlan {
    plan.torch.as_ref().unwrap().beads.as_ref().unwrap()
}

fn prep(plan: &Plan) -> &PrepPlan {
    plan.prep.as_ref().unwrap()
}

fn heat(plan: &Plan) -> &HeatPlan {
    plan.heat.as_ref().unwrap()
}

#[rstest]
#[case::cold("arc_nickel_iron", "cold")]
#[case::warm("arc_nickel_iron", "warm")]
#[case::hot("arc_nickel", "hot")]
#[case::tig_nickel("tig_nickel", "warm")]
#[case::tig_bronze("tig_braze_si", "whole_part")]
#[case::wire("mig_braze_si", "whole_part")]
#[case::last_resort("last_resort", "cold")]
#[case::butter("butter_build", "cold")]
fn what_the_method_reckons_is_what_the_torch_then_leads(#[case] method: &str, #[case] school: &str) {
    let plan = lever(method, school).plan();
    let (fill, order) = (fill(&plan), beads(&plan));
    assert!((fill.attended_min - order.elapsed_min).abs() < 1e-9, "{fill:?} against {}", order.elapsed_min);
    let sum =
        order.arc_min + order.waiting_min + order.ahead.iter().map(|it| it.reheat_s).sum::<f64>() / 60.0;
    assert!((order.elapsed_min - sum).abs() < 1e-6, "laid, waited, reheated: {sum}");
    let said = format!("{} beads in their order", order.ahead.len());
    assert!(fill.working.starts_with(&said), "{}", fill.working);
}

#[test]
fn a_cold_seam_is_waited_for_far_longer_than_a_hot_one() {
    let waits = |school: &str| {
        let plan = lever("arc_nickel_iron", school).plan();
        (fill(&plan).attended_min - beads(&plan).arc_min, beads(&plan).arc_min)
    };
    let ((cold, cold_arc), (hot, hot_arc)) = (waits("cold"), waits("hot"));
    assert!(cold > 10.0 * cold_arc, "{cold} beside {cold_arc} of arc");
    // Out to an edge the heat has nowhere to go: a hot one waits too, but not like that.
    assert!(hot < 5.0 * hot_arc, "{hot} beside {hot_arc} of arc");
}

#[test]
fn what_was_laid_does_not_make_the_whole_any_shorter() {
    let mut bench = lever("arc_nickel_iron", "cold");
    let planned = fill(&bench.plan()).attended_min;
    bench.light();
    let crack = bench.crack();
    bench.torch(
        TorchEntry::Bead { at: Some(BeadAt { crack, layer: 1, side: 1, beside: 1, along: 1, hole: None }) },
        5_000,
    );
    let plan = bench.plan();
    assert_eq!(fill(&plan).attended_min, planned);
    assert!(beads(&plan).elapsed_min < planned, "the torch says what is left");
}

#[rstest]
#[case::never_measured("part.length")]
#[case::shape_not_said("part.shape")]
fn without_an_order_each_bead_has_the_wait_of_its_school(#[case] key: &str) {
    let mut bench = lever("arc_nickel_iron", "cold");
    bench.set(key, "");
    let plan = bench.plan();
    let prep = prep(&plan);
    // Published: 3 min a bead, cold, beside what is laid
    let expected = prep.laying_min + 3.0 * f64::from(prep.beads);
    let fill = fill(&plan);
    assert!((fill.attended_min - expected).abs() < 1e-9, "{fill:?}");
    let said = format!("{} beads with 3 min after each, until weight and size are known", prep.beads);
    assert_eq!(fill.working, said);
}

#[rstest]
#[case::it_falls(64.0, true)]
#[case::it_never_does(66.0, false)]
fn a_shop_too_warm_for_the_cold_school_has_no_order(#[case] ambient_c: f64, #[case] order: bool) {
    let mut bench = lever("arc_nickel_iron", "cold");
    bench.shop.ambient_c = ambient_c;
    let plan = bench.plan();
    let said = &fill(&plan).working;
    assert_eq!(said.contains("in their order"), order, "{said}");
    assert_eq!(said.ends_with("no order of them comes to its end"), !order, "{said}");
    assert_eq!(beads(&plan).never.is_empty(), order);
}

#[test]
fn more_beads_than_anybody_lays_in_a_heat_are_counted() {
    let mut bench = lever("last_resort", "cold");
    bench.set(&crack_key(bench.crack(), "length"), "4000");
    let plan = bench.plan();
    assert!(prep(&plan).beads > 600);
    assert!(fill(&plan).working.ends_with("not put in order"), "{}", fill(&plan).working);
    assert_eq!(plan.torch.as_ref().unwrap().beads, None);
}

#[test]
fn it_is_turned_as_often_as_the_torch_says_so() {
    let plan = lever("arc_nickel_iron", "hot").plan();
    assert!(prep(&plan).seams[0].is_double());
    let told = beads(&plan).ahead.iter().filter(|it| it.before.contains("Turn it")).count();
    assert!(told > 1, "layer by layer, from side to side");
    let turn = step(taken(&plan), "turn").unwrap();
    // Published: 3 each
    assert_eq!(turn.attended_min, 3.0 * told as f64);
    let mut one_side = lever("arc_nickel_iron", "hot");
    one_side.set("part.sides", "one");
    let plan = one_side.plan();
    assert_eq!(step(taken(&plan), "turn"), None);
}

#[rstest]
#[case::packed(&[], 0.0, "")]
#[case::heated_once_more(&[("taught.after", "post_heat")], 15.0, "15 min after the last bead")]
#[case::as_said_at_cooling(
    &[("taught.after", "post_heat"), ("cooling.post_heat", "350 C"), ("cooling.post_heat_for", "30 min")],
    30.0,
    "30 min after the last bead"
)]
#[case::flame_off_by_degrees(&[("cooling.taper", "12 min")], 12.0, "12 min after the last bead")]
#[case::an_oven_burns_nothing(&[("cooling.oven", "120 C"), ("cooling.oven_for", "4 h")], 0.0, "")]
fn the_gas_is_that_of_all_that_burns(
    #[case] said: &[(&str, &str)],
    #[case] after_min: f64,
    #[case] words: &str,
) {
    let mut bench = lever("arc_nickel_iron", "hot");
    for (key, typed) in said {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    let reheats_min = beads(&plan).ahead.iter().map(|it| it.reheat_s).sum::<f64>() / 60.0;
    // As minutes of its full flame: turned down while it heats, held while it soaks and after the last bead.
    let HeatPlan { minutes, soak_minutes, throttle, hold_share, .. } = heat(&plan);
    let full_min = (minutes + reheats_min) * throttle + (soak_minutes + after_min) * hold_share;
    let gas = &heat(&plan).gas[0];
    let need_m3 = gas_need_m3(gas.flow_m3_h / throttle, full_min);
    assert!((gas.need_m3 - need_m3).abs() < 1e-9, "{} against {need_m3}", gas.need_m3);
    let take = taken(&plan).takes.iter().find(|take| take.kind == "propane").unwrap();
    assert!((take.amount - need_m3).abs() < 1e-9, "the stores give as much: {take:?}");
    assert!(gas.words.contains(words), "{}", gas.words);
    assert_eq!(gas.words.contains("in it"), after_min + reheats_min > 0.0, "{}", gas.words);
}

#[test]
fn a_frame_in_a_draughty_cold_takes_gas_for_its_reheats() {
    let mut bench = lever("arc_nickel_iron", "hot");
    for (key, typed) in
        [("part.shape", "ribbed_or_open_frame"), ("part.mass", "12 kg"), ("part.height", "100")]
    {
        bench.set(key, typed);
    }
    bench.set(&crack_key(bench.crack(), "length"), "140");
    bench.shop.ambient_c = -15.0;
    let plan = bench.plan();
    let order = beads(&plan);
    assert!(order.reheats > 0, "{order:?}");
    let gas = &heat(&plan).gas[0];
    assert!(gas.words.contains("of reheats"), "{}", gas.words);
    assert!(fill(&plan).working.contains("reheat"), "{}", fill(&plan).working);
}

#[test]
fn what_builds_up_missing_metal_is_laid_beside_the_order() {
    let mut mapped = Mapped::new();
    mapped.bench.set("method.school", "cold");
    let before = fill(&mapped.plan()).attended_min;
    let corner = vec![(0.0, 110.0), (40.0, 110.0), (40.0, 200.0), (0.0, 200.0)];
    let points = corner.into_iter().map(|(x, y)| At::new(x, y)).collect();
    let mark = mapped.mark(MarkKind::MissingPiece, Shape::Outline { points });
    mapped.bench.set(&mark_key(mark, "thickness"), "12");
    let plan = mapped.plan();
    let (fill, order) = (fill(&plan), beads(&plan));
    let others = f64::from(prep(&plan).beads) - order.ahead.len() as f64;
    assert!(others > 0.0, "43 cm3 to build up");
    let laid = prep(&plan).laying_min * prep(&plan).missing_cm3 / prep(&plan).volume_cm3;
    assert!((fill.attended_min - order.elapsed_min - laid - 3.0 * others).abs() < 1e-9, "{fill:?}");
    assert!(fill.attended_min > before && fill.working.ends_with("to build up"), "{}", fill.working);
}

#[test]
fn a_torch_braze_is_laid_in_one_go() {
    let plan = lever("torch_braze", "whole_part").plan();
    assert_eq!(plan.methods.chosen.unwrap().method, MethodId::TorchBraze);
    assert!((fill(&plan).attended_min - prep(&plan).laying_min).abs() < 1e-9);
    assert_eq!(fill(&plan).working, "what is laid in a minute");
}

/// A seam that takes three days of a short hood, heated anew for each.
fn three_days() -> Bench {
    let mut bench = lever("arc_nickel_iron", "warm");
    bench.set(&crack_key(bench.crack(), "length"), "380");
    let one = bench.plan();
    bench.shop.hood_min = heat(&one).minutes + heat(&one).soak_minutes + fill(&one).attended_min / 2.5;
    bench
}

#[test]
fn what_is_held_in_the_kiln_over_night_is_heated_once() {
    let mut bench = three_days();
    let anew = bench.plan();
    bench.set("heat.night", "kiln");
    let held = bench.plan();
    let minutes = |plan: &Plan, id: &str| {
        let step = taken(plan).steps.iter().find(|step| step.id == id);
        step.map_or((0.0, 0.0), |step| (step.attended_min, step.unattended_min))
    };
    // Hand-worked: of a hood of H + F/2.5 the heating H is spared on all days but the first: F is 2.5 such days without
    // H, so with H at least 0.25 F two days do, and three else; never more than before.
    let nights = held.methods.sessions.len() as f64 - 1.0;
    assert!(nights >= 1.0 && held.methods.sessions.len() <= anew.methods.sessions.len());
    assert!((minutes(&held, "heat").0 * 3.0 - minutes(&anew, "heat").0).abs() < 1e-9, "once for three times");
    // The shop closes at five and opens at eight.
    assert_eq!(minutes(&held, "night"), (0.0, nights * 15.0 * 60.0));
    assert_eq!(minutes(&anew, "night"), (0.0, 0.0));
    assert!((minutes(&held, "cool").1 * 3.0 - minutes(&anew, "cool").1).abs() < 1e-6, "it cools once");
    let propane = |of: &Plan| taken(of).takes.iter().find(|take| take.kind == "propane").unwrap().amount;
    let HeatPlan { minutes: heats, soak_minutes, throttle, hold_share, gas, .. } = heat(&anew);
    let warm = gas_need_m3(gas[0].flow_m3_h / throttle, heats * throttle + soak_minutes * hold_share);
    assert!((propane(&anew) - propane(&held) - 2.0 * warm).abs() < 1e-9, "two heatings less");
    let step = heat(&held).steps.iter().find(|it| it.step == HeatStep::Night).unwrap();
    assert_eq!((step.source_label.as_str(), step.minutes), ("Kiln or heat-treat oven", nights * 900.0));
    assert!(!step.words.contains("propane"), "{}", step.words);
    let between = &held.methods.between_sessions;
    assert!(between.contains("15 h 00 a night") && between.contains("does not burn"), "{between}");
    // Only the first takes the gas of a heating.
    let of = |at: usize| held.methods.sessions[at].words.clone();
    assert!(of(0).contains("of propane"), "{}", of(0));
}

#[rstest]
#[case::a_flame("oxy_acetylene_large", "somebody has to be there all night")]
#[case::a_fire("charcoal_bed", "somebody has to be there all night")]
fn what_does_not_keep_it_by_itself_saves_no_heating(#[case] source: &str, #[case] why: &str) {
    let mut bench = three_days();
    let anew = bench.plan();
    bench.set("heat.night", source);
    let plan = bench.plan();
    let between = &plan.methods.between_sessions;
    assert!(between.contains(why), "{between}");
    assert_eq!(taken(&plan).lightings, taken(&anew).lightings);
    assert!(taken(&plan).steps.iter().all(|step| step.id != "night"));
    let but_the_night = |plan: &Plan| {
        heat(plan).steps.iter().filter(|it| it.step != HeatStep::Night).cloned().collect::<Vec<_>>()
    };
    assert_eq!(but_the_night(&plan), but_the_night(&anew));
    let night = heat(&plan).steps.iter().find(|it| it.step == HeatStep::Night).unwrap();
    assert!(night.words.starts_with("nothing: it does not keep it warm by itself"), "{}", night.words);
}

#[test]
fn the_way_down_in_an_oven_is_a_step_with_its_source_and_its_hours() {
    let mut bench = lever("arc_nickel_iron", "warm");
    let step =
        |bench: &Bench| heat(&bench.plan()).steps.iter().find(|it| it.step == HeatStep::WayDown).cloned();
    assert_eq!(step(&bench), None);
    bench.set("cooling.oven", "120 C");
    bench.set("cooling.oven_for", "6 h");
    bench.set("heat.way_down", "kitchen_oven");
    let down = step(&bench).unwrap();
    assert_eq!((down.minutes, down.source_label.contains("itchen")), (360.0, true), "{down:?}");
    assert!(down.words.starts_with("6 h") && !down.words.contains("does not hold"), "{}", down.words);
    bench.set("cooling.oven", "400 C");
    assert!(step(&bench).unwrap().words.contains("it does not hold the part at 400 °C"));
}

#[test]
fn each_session_is_heated_anew_and_burns_its_own_gas() {
    let mut bench = lever("arc_nickel_iron", "warm");
    bench.set(&crack_key(bench.crack(), "length"), "380");
    let one = bench.plan();
    assert_eq!(taken(&one).lightings, 1);
    bench.shop.hood_min = heat(&one).minutes + heat(&one).soak_minutes + fill(&one).attended_min / 2.5;
    let plan = bench.plan();
    let way = taken(&plan);
    assert_eq!((way.lightings, plan.methods.sessions.len()), (3, 3), "{:?}", plan.methods.sessions);
    // One a day, and it is ready after the last of them.
    let now_min = 20_000 * 1440 + 9 * 60;
    let moment = Moment { now_min, wanted_min: None };
    let timed = plan_at(&bench.job(), &bench.shop, &SimCache::default(), moment);
    let days: Vec<i64> = timed.methods.sessions.iter().map(|it| it.begins_min.unwrap() / 1440).collect();
    assert!(days.windows(2).all(|pair| pair[0] < pair[1]), "{days:?}");
    let last = timed.methods.sessions.last().unwrap().ends_min.unwrap();
    let ready = now_min + taken(&timed).ready.as_ref().unwrap().after_min as i64;
    assert!(ready > last, "{ready} {last}");
    let propane = |of: &Contender| of.takes.iter().find(|take| take.kind == "propane").unwrap().amount;
    let gas = &heat(&plan).gas[0];
    let HeatPlan { minutes, soak_minutes, throttle, hold_share, .. } = heat(&plan);
    let warm = gas_need_m3(gas.flow_m3_h / throttle, minutes * throttle + soak_minutes * hold_share);
    assert!((propane(way) - propane(taken(&one)) - 2.0 * warm).abs() < 1e-9, "two heatings more");
    assert!((gas.need_m3 - propane(way) / 3.0).abs() < 1e-9, "at Heat one lighting's");
    for session in &plan.methods.sessions {
        assert!(session.words.contains("of propane"), "{}", session.words);
    }
    let between = &plan.methods.between_sessions;
    assert!(between.contains("held overnight") && between.contains("saves"), "the kiln holds it: {between}");
    assert_eq!(one.methods.between_sessions, "");
    bench.ready();
    let frozen = Some(Box::new(bench.plan().frozen()));
    bench.say(Change::Light {
        speed: 60.0,
        frozen,
        owned: String::new(),
        what: Lighting::Main,
        without: Vec::new(),
    });
    let plan = bench.plan();
    let asks = Asks::of(&bench.job(), &plan, &bench.facts, &bench.shop);
    let gone: f64 = asks.gone.iter().flat_map(|gone| &gone.takes).map(|take| take.amount).sum();
    assert!((gone - propane(way) / 3.0).abs() < 1e-9, "the first lighting takes its own: {gone}");
}

#[rstest]
#[case::hot("arc_nickel_iron", "hot")]
#[case::warm("arc_nickel_iron", "warm")]
#[case::cold("arc_nickel", "cold")]
#[case::tig("tig_nickel", "warm")]
fn what_is_laid_in_its_beads_is_what_was_ground_out(#[case] method: &str, #[case] school: &str) {
    let mut bench = lever(method, school);
    for length in ["40", "90", "140"] {
        bench.set(&crack_key(bench.crack(), "length"), length);
        let plan = bench.plan();
        let (prep, order) = (prep(&plan), beads(&plan));
        // One amount of metal: groove, holes and countersinks, laid as fast as the rod lays it.
        assert!((order.arc_min - prep.laying_min).abs() < 1e-6, "{} {}", order.arc_min, prep.laying_min);
        for seam in &prep.seams {
            let travel = seam.travel_mm_s.unwrap();
            assert!((1.2..=4.0).contains(&travel), "{travel} mm/s in {length} mm: {seam:?}");
            let chosen = plan.methods.chosen.unwrap();
            let settings = &plan.methods.contenders.iter().find(|it| it.way == chosen).unwrap().settings;
            let said = settings.iter().find(|line| line.name == "Travel").unwrap();
            assert!(said.words.starts_with(&UnitSystem::Metric.say(travel, Unit::Millimetres)), "{said:?}");
            assert_eq!(said.words.matches("mm").count(), 1, "one unit: {said:?}");
        }
    }
}

#[test]
fn how_fast_the_arc_goes_is_worked_out_by_hand() {
    let plan = lever("arc_nickel_iron", "warm").plan();
    let prep = prep(&plan);
    let seam = &prep.seams[0];
    // A hole of 8 mm through 14, with a cone of 70 degrees and 7 mm on each side of the double V
    let holes_mm3 =
        std::f64::consts::PI * (64.0 / 4.0 * 14.0 + 2.0 / 3.0 * 343.0 * 35f64.to_radians().tan().powi(2));
    // 8,300 kg/m3 and a rod of 4 mm that lays 21 g a minute: 42.17 mm3 a second
    let seconds = (seam.volume_cm3 * 1000.0 - holes_mm3) / (21.0 / 60.0 / 8.3e-3);
    let each = seam.length_mm / (seam.length_mm / prep.bead_mm).ceil();
    let travel = f64::from(seam.beads) * each / seconds;
    assert!((seam.travel_mm_s.unwrap() - travel).abs() < 1e-9, "{travel}: {seam:?}");
}
