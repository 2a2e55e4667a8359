//! Facts in, plan out: whole jobs through the log, the fold and the plan.

use crate::common::{Bench, LIT_AT, figure, plan, set};
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::field;
use vanadin_core::field::crack_key;
use vanadin_core::figure::moved;
use vanadin_core::iron::{Confidence, Iron};
use vanadin_core::job::{Change, Lighting, Reading, Refusal, TorchEntry};
use vanadin_core::method::{MethodId, School};
use vanadin_core::plan::{Amount, Plan, Station, status};

#[test]
fn an_empty_job_has_a_plan_that_says_what_is_missing() {
    let bench = Bench::new();
    let plan = bench.plan();
    assert!(plan.missing.iter().any(|m| m.key == "part.wall" && !m.why.is_empty()));
    assert!(plan.missing.iter().any(|m| m.station == Station::Cracks));
    assert_eq!(plan.amount(Station::Heat), Amount::Nothing);
    assert!(plan.unlit_reason().is_some());
}

#[test]
fn a_complete_job_is_planned_to_the_end() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.ready();
    let plan = bench.plan();
    for station in [Station::Part, Station::Iron, Station::Cracks, Station::Method, Station::Heat] {
        assert_eq!(plan.amount(station), Amount::Enough, "{station:?}");
    }
    // What is laid out is not done before its last line is.
    let open =
        |plan: &Plan| plan.prep.as_ref().unwrap().work.iter().find(|line| !line.done).map(|line| line.step);
    let mut ticked = bench.plan();
    while let Some(step) = open(&ticked) {
        assert_eq!(ticked.amount(Station::Prep), Amount::Something);
        bench.say(Change::Tick { step, done: true });
        ticked = bench.plan();
    }
    assert_eq!(ticked.amount(Station::Prep), Amount::Enough);
    assert_eq!(plan.unlit_reason(), None);
    let value = |id: &str| figure(&plan, id).unwrap_or_else(|| panic!("no {id}")).value;
    // Hand-worked: half of 14 is 7, next drill 8; max(0.3 x 8, 0.7 + 2.054 x 0.8 - 4) = 2.4
    assert_eq!(value("cracks.A.right.drill"), 8.0);
    assert!((value("cracks.A.right.offset") - 2.4).abs() < 1e-9);
    assert!(figure(&plan, "cracks.A.left.drill").is_none(), "an end that runs out gets no hole");
    // Hand-worked: V 70 from both sides, 7 deep: 49 tan 35 + 2/3 x 9.803 x 1 = 40.85 mm² a side;
    // x 60 mm x 2 = 4.902 cm³; hole pi/4 x 64 x 14 = 0.704 cm³; two countersinks, each
    // pi/3 x (7 tan 35)² x 7 = 176.1 mm³: 0.352 cm³
    assert!((value("prep.volume") - 5.958).abs() < 0.005, "{}", value("prep.volume"));
    // Hand-worked: 5.958 x 8.3 / 0.9 = 54.9 g; one 4.0 x 300 rod 31.29 g: 1.76, up, and 1
    assert_eq!(value("prep.rods"), 3.0);
}

#[test]
fn every_figure_says_why_and_every_id_is_its_own() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel");
    let figures = bench.plan().figures;
    assert!(figures.len() > 15);
    let mut ids: Vec<&str> = figures.iter().map(|f| f.id.as_str()).collect();
    ids.sort_unstable();
    ids.dedup();
    assert_eq!(ids.len(), figures.len());
    for figure in &figures {
        assert!(figure.because.ends_with('.'), "{} does not say why: {}", figure.id, figure.because);
        assert!(!figure.metric.number.is_empty() && !figure.imperial.number.is_empty());
    }
}

#[test]
fn a_thicker_wall_moves_the_figures_that_hang_on_it() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    let was = bench.plan().figures;
    let crack = bench.job().round().cracks[0].id;
    bench.set(&crack_key(crack, "wall"), "18");
    let found = moved(&was, &bench.plan().figures);
    let ids: Vec<&str> = found.iter().map(|m| m.id.as_str()).collect();
    let drill = format!("cracks.{crack}.right.drill");
    assert!(ids.contains(&"prep.rods") && ids.contains(&drill.as_str()), "{ids:?}");
    assert!(!ids.contains(&"iron.sure"));
}

#[test]
fn ductile_raises_the_preheat_and_rules_out_the_ordinary_gas_rod() {
    let mut bench = Bench::lever("loaded_moving", "ductile");
    for (key, typed) in [("method.choice", "arc_nickel_iron"), ("method.school", "hot")] {
        bench.set(key, typed);
    }
    let plan = bench.plan();
    assert_eq!(plan.iron.leading, Iron::Ductile);
    assert_eq!(plan.heat.unwrap().target_c, 350.0);
    let gas = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::GasIron).unwrap();
    assert!(gas.excluded && gas.reasons[0].contains("RCI-B"), "{:?}", gas.reasons);
}

#[test]
fn a_hand_torch_cannot_warm_a_heavy_casting_and_the_cold_ways_are_favoured() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.shop.sources = Some(vec!["hand_torch_propane".into()]);
    bench.set("part.mass", "90 kg");
    bench.set("part.length", "900");
    bench.set("part.width", "500");
    bench.set("part.height", "300");
    let plan = bench.plan();
    let of = |method| plan.methods.contenders.iter().find(|c| c.way.method == method).unwrap();
    assert!(of(MethodId::TorchBraze).excluded && of(MethodId::GasIron).excluded);
    assert!(of(MethodId::TorchBraze).reasons[0].contains("stops at about"));
    assert_eq!(of(MethodId::ArcNickel).way.school, School::Cold);
    assert!(!of(MethodId::Stitch).favours.is_empty());
}

#[test]
fn something_heat_shy_keeps_the_hot_ways_away() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("part.heat_shy", "white-metal bearing");
    bench.set("part.heat_shy_limit", "120 C");
    let plan = bench.plan();
    let braze = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::TorchBraze).unwrap();
    assert!(braze.reasons.iter().any(|why| why.contains("white-metal bearing")), "{:?}", braze.reasons);
    let arc = plan.methods.contenders.iter().find(|c| c.way.method == MethodId::ArcNickel).unwrap();
    assert_eq!(arc.way.school, School::Cold);
}

#[test]
fn a_part_of_a_safety_class_is_locked_until_somebody_answers_for_it() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("part.safety_class", "press_frame_or_guard");
    let plan = bench.plan();
    assert_eq!(plan.locks[0].rule, "M20");
    assert_eq!(plan.methods.chosen, None);
    assert!(!plan.methods.contenders.is_empty(), "everything is still computed and shown");
    let light = Change::Light {
        speed: 1.0,
        frozen: None,
        owned: String::new(),
        what: Lighting::Main,
        without: Vec::new(),
    };
    assert!(bench.try_say(light.clone(), LIT_AT, None).is_err());
    bench.set("part.authority", "Harbour inspector");
    assert!(!bench.plan().locks.is_empty(), "a name without a reference does not unlock");
    bench.referred();
    assert!(bench.plan().locks.is_empty());
    bench.set("method.choice", "arc_nickel");
    assert!(bench.try_say(light.clone(), LIT_AT, None).is_err(), "nothing is done yet");
    bench.ready();
    bench.try_say(light, LIT_AT, None).unwrap();
}

#[test]
fn stitching_needs_no_heat_and_its_hot_stations_are_full_at_once() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "stitch");
    let plan = bench.plan();
    assert_eq!(plan.amount(Station::Heat), Amount::Enough);
    assert_eq!(plan.amount(Station::Cooling), Amount::Enough);
    // Hand-worked: wall 14: M10; to fill 60 + 10 past the one tip; ceil((70 - 10) / 6.667) + 1 = 10; 60 / 9
    assert_eq!(figure(&plan, "prep.A.pins").unwrap().value, 10.0);
    assert!((figure(&plan, "prep.A.pitch").unwrap().value - 6.6667).abs() < 0.0001);
    assert_eq!(figure(&plan, "prep.A.tap_drill").unwrap().value, 8.5);
}

#[rstest]
#[case::first_change_of_the_field(None, 0, true)]
#[case::based_on_what_stands(Some("13"), 1, true)]
#[case::somebody_was_faster(Some("13"), 0, false)]
fn two_tabs_on_one_field(#[case] theirs: Option<&str>, #[case] base: u64, #[case] taken: bool) {
    let mut bench = Bench::new();
    if let Some(theirs) = theirs {
        bench.set("part.wall", theirs);
    }
    let answer = bench.try_say(set("part.wall", "15"), LIT_AT, Some(base));
    match answer {
        Ok(_) => assert!(taken),
        Err(Refusal::Conflict(conflict)) => {
            assert!(!taken);
            assert_eq!((conflict.yours.as_str(), conflict.theirs.as_str()), ("15", "13"));
        }
        Err(other) => panic!("{other:?}"),
    }
}

#[test]
fn a_change_can_be_taken_back_and_put_back() {
    let mut bench = Bench::new();
    bench.set("part.wall", "13");
    let wrong = bench.set("part.wall", "31");
    bench.say(Change::Undo { target: wrong });
    assert_eq!(bench.job().round().get(field::part::WALL), Some(13.0));
    bench.say(Change::Redo { target: wrong });
    assert_eq!(bench.job().round().get(field::part::WALL), Some(31.0));
    bench.say(Change::Undo { target: wrong });
    bench.set("part.sides", "one");
    let too_late = bench.try_say(Change::Redo { target: wrong }, LIT_AT, None);
    assert!(matches!(too_late, Err(Refusal::Problems(_))));
}

#[test]
fn struck_evidence_stays_in_sight_and_out_of_the_sum() {
    let mut bench = Bench::new();
    bench.set("part.family", "unknown");
    let before = bench.plan().iron.shares;
    let seen = bench.say(Change::Observe {
        test: "file".into(),
        outcome: "skates".into(),
        confidence: Confidence::Sure,
        spot: "first spot".into(),
    });
    assert_ne!(bench.plan().iron.shares, before);
    bench.say(Change::Strike { target: seen, reason: "scale".into() });
    assert_eq!(bench.plan().iron.shares, before);
    assert_eq!(bench.job().evidence[0].struck.as_deref(), Some("scale"));
    let nothing = bench.try_say(Change::Strike { target: Uuid::max(), reason: "x".into() }, LIT_AT, None);
    assert!(nothing.is_err());
}

#[test]
fn the_torch_runs_on_the_job_clock_and_can_be_cancelled_until_the_first_bead() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.light();
    bench.say(Change::CancelLight);
    assert!(bench.job().round().lit.is_none());
    bench.light();
    // Hand-worked: 10 s at 60 times are 10 min
    bench.try_say(Change::Torch { entry: TorchEntry::Bead { at: None } }, LIT_AT + 10_000, None).unwrap();
    let job = bench.job();
    assert!((job.round().log[0].minutes - 10.0).abs() < 1e-9);
    assert!(bench.try_say(Change::CancelLight, LIT_AT + 11_000, None).is_err());
    assert_eq!(job.round().lit.as_ref().unwrap().frozen.as_ref().unwrap().format, 1);
}

#[test]
fn a_covered_part_is_hot_until_a_reading_says_otherwise() {
    let mut bench = Bench::lever("machine_frame", "gray");
    for (key, typed) in [("method.choice", "arc_nickel_iron"), ("method.school", "hot")] {
        bench.set(key, typed);
    }
    bench.light();
    bench
        .try_say(Change::Torch { entry: TorchEntry::Covered { why: String::new() } }, LIT_AT + 60_000, None)
        .unwrap();
    let at = |celsius: f64| {
        let mut job = bench.job();
        job.rounds[0].readings =
            vec![Reading { minutes: 59.0, celsius: 310.0 }, Reading { minutes: 700.0, celsius }];
        let plan = plan(&job, &bench.shop);
        status(&job, &plan, LIT_AT + 700_000)
    };
    let hot = at(70.0);
    assert_eq!(hot.next.verb, "Keep it covered until", "the book's curve is through, the pad says 70");
    let later = LIT_AT + 700 * 60_000;
    assert!(
        hot.hot.unwrap().unwrap_at_ms.is_some_and(|at| at > later),
        "the curve is fitted to what was read"
    );
    assert_eq!(at(60.0).next.verb, "Unwrap and look");
    assert!(at(44.0).hot.is_none());
}

#[test]
fn a_new_round_copies_the_map_and_keeps_the_old_one() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.light();
    bench.say(Change::Torch { entry: TorchEntry::Covered { why: String::new() } });
    bench.set("check.toes", "not_ok");
    bench.say(Change::NewRound { reason: "ran on at the right".into() });
    let crack = bench.job().round().cracks[0].id;
    bench.set(&crack_key(crack, "length"), "75");
    bench.say(Change::AddCrack);
    let job = bench.job();
    let length = |round: usize| job.rounds[round].get(field::crack::LENGTH.of(crack));
    assert_eq!((length(0), length(1)), (Some(60.0), Some(75.0)));
    assert_eq!((job.rounds[0].cracks.len(), job.rounds[1].cracks.len()), (1, 2));
    assert_eq!(job.rounds[1].cracks[1].letter, "B");
    assert!(job.round().get(field::check::TOES).is_none());
    assert!(job.rounds[0].lit.is_some() && job.round().lit.is_none());
}

#[rstest]
#[case::wall("part.wall", "900")]
#[case::weight("part.mass", "-4")]
#[case::unit("part.service_temperature", "500Q")]
#[case::unknown_field("part.colour", "red")]
fn what_cannot_be_changes_nothing(#[case] key: &str, #[case] typed: &str) {
    let mut bench = Bench::new();
    match bench.try_say(set(key, typed), LIT_AT, None) {
        Err(Refusal::Problems(problems)) => assert_eq!(problems[0].field, key),
        other => panic!("{other:?}"),
    }
    assert!(bench.facts.is_empty());
}
