//! A hot part is hot, over rounds, stations and places.

use crate::common::{Bench, LIT_AT, covered, plan, reading};
use rstest::rstest;
use vanadin_core::field;
use vanadin_core::field::FieldValue;
use vanadin_core::job::{Change, Job, Lighting, Parsed, Reading, Recorded, TorchEntry};
use vanadin_core::plan::{JobStatus, StatusTimeline, status};
use vanadin_core::quantity::UnitSystem;

/// A lever lit for nickel-iron, hot, at 60 times: a minute of the job clock is a second.
fn lit() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.light();
    bench
}

fn at(bench: &Bench, minutes: i64) -> JobStatus {
    stands(bench, &bench.job(), minutes)
}

fn stands(bench: &Bench, job: &Job, minutes: i64) -> JobStatus {
    status(job, &plan(job, &bench.shop), LIT_AT + minutes * 1000)
}

/// What wants the part cold.
fn wants_it_cold(verb: &str) -> bool {
    ["tip", "dye", "chalk", "oil", "Check:", "Map", "Lay out", "hand-over", "water"]
        .iter()
        .any(|word| verb.contains(word))
}

fn new_round(bench: &mut Bench) {
    bench.say(Change::NewRound { reason: "it ran on".into() });
}

#[test]
fn what_the_arc_alone_warmed_is_hot_until_it_has_cooled_from_the_most_it_may_be() {
    let mut bench = Bench::lever("machine_frame", "gray");
    for (key, typed) in [
        ("part.mass", "0.8 kg"),
        ("part.length", "120"),
        ("part.width", "60"),
        ("part.height", "40"),
        ("method.choice", "tig_braze_si"),
    ] {
        bench.set(key, typed);
    }
    bench.light();
    // Nobody reads it: it is hot all the same.
    assert!(at(&bench, 1).hot.is_some());
    bench.torch(covered(), 20_000);
    let plan = bench.plan();
    let last = plan.last_heat.as_ref().unwrap();
    let (touch, latest) = (last.touch_min.unwrap(), last.touch_at_the_latest_min.unwrap());
    assert!(last.heated && touch > 25.0 && latest > touch, "{last:?}");
    assert!(at(&bench, latest as i64 - 1).hot.is_some());
    assert!(at(&bench, latest as i64 + 1).hot.is_none());
}

#[test]
fn at_350_a_new_round_is_as_hot_as_the_one_before() {
    let mut bench = lit();
    bench.torch(reading("350 C"), 30_000);
    new_round(&mut bench);
    let now = at(&bench, 31);
    let hot = now.hot.expect("still hot");
    assert_eq!((hot.celsius, now.rank), (Some(350.0), 0));
    assert!(!wants_it_cold(&now.next.verb), "{}", now.next.verb);
    assert_eq!(now.next.verb, "Cover it");
    assert!(now.keep_off.contains("350") && now.keep_off.contains("no dye"), "{}", now.keep_off);
    // Covered in the new round it goes on cooling, and is read there.
    bench.torch(covered(), 32_000);
    let now = at(&bench, 40);
    assert_eq!((now.next.verb.as_str(), now.rank), ("Keep it covered until", 1));
    assert!(now.next.at_ms.is_some() && now.next.at_ms > now.job_now_ms);
    bench.torch(reading("64 C"), 300_000);
    assert_eq!(at(&bench, 301).next.verb, "Unwrap and look");
    bench.torch(TorchEntry::Unwrapped, 302_000);
    assert!(at(&bench, 303).hot.is_some(), "under 65 it may be looked at, not touched");
    assert!(!wants_it_cold(&at(&bench, 303).next.verb));
    bench.torch(reading("45 C"), 340_000);
    let cold = at(&bench, 341);
    assert!(cold.hot.is_none() && cold.keep_off.is_empty());
}

#[rstest]
#[case::handed_over(&[("hand_over.owned", "as it is"), ("hand_over.done", "yes")], false)]
#[case::put_away(&[], true)]
fn handing_over_and_putting_away_cool_nothing(#[case] facts: &[(&str, &str)], #[case] away: bool) {
    let mut bench = lit();
    bench.torch(reading("350 C"), 30_000);
    bench.torch(covered(), 31_000);
    for (key, typed) in facts {
        bench.set(key, typed);
    }
    if away {
        bench.say(Change::PutAway);
    }
    let now = at(&bench, 40);
    assert!(now.hot.is_some_and(|hot| hot.celsius == Some(350.0)));
    assert_eq!(now.rank, 1);
    assert!(!wants_it_cold(&now.next.verb), "{}", now.next.verb);
}

#[test]
fn a_cancelled_lighting_leaves_the_part_as_hot_as_it_was_read() {
    let mut bench = lit();
    bench.torch(reading("250 C"), 20_000);
    bench.say(Change::CancelLight);
    let now = at(&bench, 25);
    assert!(now.hot.is_some_and(|hot| hot.celsius == Some(250.0)));
    assert!(!wants_it_cold(&now.next.verb));
    bench.torch(reading("30 C"), 120_000);
    assert!(at(&bench, 121).hot.is_none());
}

#[test]
fn the_slow_end_of_the_curve_ends_it_and_says_that_nobody_measured() {
    let mut bench = lit();
    bench.torch(reading("310 C"), 60_000);
    bench.torch(covered(), 60_000);
    let plan = bench.plan();
    let last = plan.last_heat.clone().unwrap();
    let (usual, latest) = (last.touch_min.unwrap(), last.touch_at_the_latest_min.unwrap());
    assert!(latest > usual * 1.3, "heavier and tighter: {usual} then {latest}");
    assert!(at(&bench, usual as i64 + 1).hot.is_some(), "the usual curve is not enough");
    assert!(at(&bench, latest as i64 - 1).hot.is_some());
    let after = at(&bench, latest as i64 + 1);
    assert!(after.hot.is_none());
    assert_eq!(after.not_measured, "Cold by the curve, not measured: try with a stick first.");
    assert_eq!(after.next.verb, "Try with a stick: not measured");
    bench.torch(reading("20 C"), (latest as i64 + 2) * 1000);
    let measured = at(&bench, latest as i64 + 3);
    assert!(measured.not_measured.is_empty() && measured.next.verb.starts_with("Check: "));
}

#[test]
fn what_the_pad_shows_at_the_start_is_no_cold_part() {
    let bench = lit();
    let mut job = bench.job();
    job.rounds[0].readings = vec![Reading { minutes: 0.2, celsius: 18.0 }];
    assert!(stands(&bench, &job, 1).hot.is_some(), "it is under the flame");
}

#[test]
fn a_round_that_is_lit_cold_does_not_hide_the_heat_of_the_one_before() {
    let mut bench = lit();
    bench.torch(reading("350 C"), 30_000);
    new_round(&mut bench);
    bench.set("method.choice", "stitch");
    bench.say(Change::Light {
        speed: 60.0,
        frozen: None,
        owned: String::new(),
        what: Lighting::Main,
        without: Vec::new(),
    });
    assert!(at(&bench, 31).hot.is_some());
}

#[test]
fn a_joint_is_not_the_part() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "torch_braze");
    bench.light();
    let joint =
        TorchEntry::Reading { typed: "600 C".into(), shown_in: Default::default(), joint: true, gun: None };
    bench.torch(reading("320 C"), 30_000);
    bench.torch(joint, 51_000);
    let job = bench.job();
    assert_eq!(job.round().latest_reading().unwrap().celsius, 320.0);
    let torch = bench.plan().torch.unwrap();
    assert!(torch.joint.unwrap().words.contains("too cold to braze"));
    // Published: the trade reference, torch braze: 300 to 450
    assert_eq!(torch.window, Some((300.0, 450.0)));
    let next = at(&bench, 52).next.verb;
    assert!(!next.contains("Wait until"), "{next}");
}

#[test]
fn what_must_stay_cool_and_did_not_is_said_and_stands() {
    let mut bench = lit();
    bench.set("part.heat_shy", "white-metal shell");
    bench.set("part.heat_shy_limit", "320 C");
    bench.torch(reading("320 C"), 60_000);
    assert!(bench.plan().torch.unwrap().passed.is_empty(), "just not passed");
    bench.torch(reading("322 C"), 65_000);
    bench.torch(reading("290 C"), 70_000);
    let passed = bench.plan().torch.unwrap().passed;
    assert!(passed[0].contains("white-metal shell") && passed[0].contains("322 °C"), "{passed:?}");
    bench.torch(covered(), 80_000);
    let cautions = bench.plan().cautions;
    assert!(cautions.iter().any(|caution| caution.sentence == passed[0]), "and Check knows");
}

#[test]
fn everybody_takes_back_their_own_word() {
    let mut bench = Bench::new();
    let set = crate::common::set;
    let mine = bench.try_say_as("phone", set("part.wall", "13"), LIT_AT, None).unwrap();
    let theirs = bench.try_say_as("laptop", set("part.name", "Lever"), LIT_AT, None).unwrap();
    let job = bench.job();
    assert_eq!((job.own_word("phone").0, job.own_word("laptop").0), (Some(mine), Some(theirs)));
    assert!(bench.try_say_as("phone", Change::Undo { target: theirs }, LIT_AT, None).is_err());
    bench.try_say_as("phone", Change::Undo { target: mine }, LIT_AT, None).unwrap();
    let job = bench.job();
    assert_eq!((job.round().get(field::part::WALL), job.name()), (None, "Lever"));
    assert_eq!(job.own_word("phone"), (None, Some(mine)));
    bench.try_say_as("phone", Change::Redo { target: mine }, LIT_AT, None).unwrap();
    assert_eq!(bench.job().round().get(field::part::WALL), Some(13.0));
}

#[test]
fn a_letter_is_given_once() {
    let mut bench = Bench::new();
    let a = bench.say(Change::AddCrack);
    bench.say(Change::AddCrack);
    bench.say(Change::Strike { target: a, reason: "a scratch".into() });
    bench.say(Change::AddCrack);
    let letters = |bench: &Bench| -> Vec<String> {
        bench.job().round().cracks.iter().map(|crack| crack.letter.clone()).collect()
    };
    assert_eq!(letters(&bench), ["B", "C"]);
    // Also one that was taken back keeps its own for when it is put back.
    let d = bench.say(Change::AddCrack);
    bench.say(Change::Undo { target: d });
    let e = bench.say(Change::AddCrack);
    assert_eq!(letters(&bench), ["B", "C", "E"]);
    assert_ne!(d, e);
}

#[test]
fn what_cannot_be_read_is_kept_and_shown() {
    let mut bench = lit();
    let facts = bench.facts.len() as u64;
    let unreadable = Change::Unreadable { text: r#"{"kind":"weld_by_laser"}"#.into() };
    assert!(bench.try_say(unreadable.clone(), LIT_AT, None).is_err(), "it cannot be said");
    let mut foreign = bench.facts[0].clone();
    foreign.change = unreadable;
    foreign.revision = facts + 1;
    bench.facts.push(foreign);
    let mut tightened = bench.facts[3].clone();
    tightened.change = crate::common::set("part.wall", "900 mm");
    // Said before it was kept what was understood.
    tightened.understood = None;
    tightened.revision = facts + 2;
    bench.facts.push(tightened);
    let job = bench.job();
    assert_eq!(job.damaged.len(), 1);
    assert_eq!((job.damaged[0].revision, job.damaged[0].text.contains("laser")), (facts + 1, true));
    let wall = &job.round().values["part.wall"];
    assert_eq!((wall.typed.as_str(), wall.value.as_ref()), ("900 mm", None));
    assert!(wall.not_understood.contains("outside"), "{}", wall.not_understood);
    let plan = bench.plan();
    assert!(plan.cautions.iter().any(|caution| caution.sentence.contains("cannot be read")));
    // What was understood when it was said goes on being so.
    let last = bench.facts.len() - 1;
    bench.facts[last].understood = Some(Parsed::Field(Some(FieldValue::Number(900.0))));
    let job = bench.job();
    let wall = &job.round().values["part.wall"];
    assert_eq!((wall.value.as_ref(), wall.not_understood.as_str()), (Some(&FieldValue::Number(900.0)), ""));
}

#[rstest]
#[case::never_lit(0)]
#[case::lit(1)]
#[case::covered(2)]
#[case::unwrapped_in_the_next_round(3)]
fn how_it_stands_at_every_moment_is_known_beforehand(#[case] steps: usize) {
    let happened: [&dyn Fn(&mut Bench); 3] = [
        &|bench| {
            *bench = lit();
            bench.torch(reading("350 C"), 30_000);
        },
        &|bench| {
            bench.torch(covered(), 31_000);
        },
        &|bench| {
            new_round(bench);
            bench.torch(TorchEntry::Unwrapped, 32_000);
        },
    ];
    let mut bench = Bench::lever("machine_frame", "gray");
    happened[..steps].iter().for_each(|step| step(&mut bench));
    let job = bench.job();
    let plan = plan(&job, &bench.shop);
    let known = StatusTimeline::of(&job, &plan);
    // Every seven minutes of the job clock for four days.
    for minutes in (33..4 * 24 * 60).step_by(7) {
        let now_ms = LIT_AT + minutes * 1000 + 500;
        assert_eq!(known.at(now_ms), status(&job, &plan, now_ms), "after {minutes} min");
    }
    // By itself it stands otherwise once it burns: a soak ends, a reading grows old, it cools.
    assert_eq!(known.turns_after(LIT_AT + 33_000).is_some(), steps > 0);
}

#[test]
fn what_was_read_is_added_to_its_own_lighting_by_its_time_however_late_it_comes() {
    let mut bench = lit();
    let mut job = bench.job();
    let lit = job.round().lit.as_ref().unwrap().fact;
    let read = |minutes: f64| Reading { minutes, celsius: 100.0 + minutes };
    let on = |channel, minutes| Recorded { minutes, celsius: 90.0, channel };
    job.read(lit, &[read(1.0), read(2.0)]);
    job.read(lit, &[on(1, 4.0), on(1, 3.0), on(2, 3.0)]);
    // What is known of a moment stays; another pad's of the same moment is another.
    job.read(lit, &[on(1, 2.0), on(2, 1.5), on(3, 1.5), on(2, 1.5)]);
    // Of no lighting that is known.
    job.read(uuid::Uuid::from_u128(9), &[read(5.0)]);
    let [third, fourth] = [3.0, 4.0].map(|minutes| Reading { minutes, celsius: 90.0 });
    assert_eq!(job.round().readings, [read(1.0), read(2.0), third, fourth]);
    assert_eq!(job.round().others, [on(2, 1.5), on(3, 1.5), on(2, 3.0)]);
    // Of a lighting that was cancelled it goes to that one.
    bench.say(Change::CancelLight);
    let mut job = bench.job();
    job.read(lit, &[read(5.0)]);
    assert_eq!(job.round().cancelled[0].readings, [read(5.0)]);
    assert!(job.round().readings.is_empty());
}

/// Covered in a minute, at what it was read then.
fn covered_at(celsius: &str) -> Bench {
    let mut bench = lit();
    bench.torch(reading(celsius), 60_000);
    bench.torch(covered(), 60_000);
    bench
}

fn doubted(bench: &Bench) -> Vec<String> {
    bench.plan().asked_back.into_iter().map(|asked| asked.sentence).collect()
}

#[test]
fn a_mistyped_cold_reading_is_asked_back_and_ends_nothing() {
    let mut bench = covered_at("343 C");
    let before = bench.plan();
    // 70 for 650, in the same minute, in an imperial shop.
    bench.torch(reading("70 F"), 60_500);
    let asked = doubted(&bench);
    assert_eq!(asked, ["21 °C? It cannot have cooled so far by then, and stays HOT. Read it again."]);
    let now = at(&bench, 62);
    let hot = now.hot.expect("it is as hot as it was");
    assert_eq!((hot.celsius, now.next.verb.as_str()), (Some(343.0), "Keep it covered until"));
    assert!(!wants_it_cold(&now.next.verb) && now.keep_off.contains("343"), "{}", now.keep_off);
    let after = bench.plan();
    assert_eq!(after.last_heat, before.last_heat, "nothing is worked out from it");
    assert_eq!(after.learned, before.learned, "the shop learns nothing from it");
}

#[rstest]
// A second of the clock on the wall is a minute of the job's.
#[case::said_again("21 C", 1_000, true)]
#[case::about_the_same("30 C", 5_000, true)]
#[case::another_cold_one("45 C", 5_000, false)]
fn a_cold_reading_that_is_said_again_is_believed(
    #[case] typed: &str,
    #[case] after_ms: i64,
    #[case] believed: bool,
) {
    let mut bench = covered_at("343 C");
    bench.torch(reading("21 C"), 60_500);
    bench.torch(reading(typed), 60_500 + after_ms);
    assert_eq!(at(&bench, 67).hot.is_none(), believed);
    assert_eq!(doubted(&bench).len(), if believed { 0 } else { 2 }, "what is believed is asked no more");
}

#[test]
fn a_stick_that_did_not_melt_is_doubted_as_well() {
    let mut bench = covered_at("343 C");
    let rubbed = |melted| TorchEntry::Stick { typed: "45 C".into(), shown_in: UnitSystem::Metric, melted };
    bench.torch(rubbed(false), 60_500);
    assert!(at(&bench, 62).hot.is_some());
    bench.torch(rubbed(false), 65_000);
    assert!(at(&bench, 66).hot.is_none());
}

#[rstest]
// Hand-worked: 12 kg x 0.46 to 0.5 kJ/kgK over 0.24 m² (envelope 0.186 x 1.3), 40 W/m²K and 5 to 15 that radiate in a
// shop at 0 °C: a time constant of about 8 min, and ln(343 / 45) = 2.0 of them.
#[case::sooner_than_any_draught(10, true)]
#[case::as_soon_as_a_draught_and_cold_iron(20, false)]
fn what_a_draught_could_have_done_is_believed(#[case] minutes: i64, #[case] hot: bool) {
    let mut bench = covered_at("343 C");
    bench.torch(reading("40 C"), 60_000 + minutes * 1_000);
    assert_eq!(at(&bench, 60 + minutes + 1).hot.is_some(), hot);
}

#[test]
fn what_was_covered_unread_is_as_hot_as_it_was_planned() {
    let mut bench = lit();
    bench.torch(covered(), 60_000);
    bench.torch(reading("20 C"), 61_000);
    assert!(at(&bench, 62).hot.is_some());
    assert_eq!(doubted(&bench).len(), 1);
}

#[test]
fn a_part_of_unknown_weight_is_not_cold_by_one_reading() {
    let mut bench = covered_at("343 C");
    bench.set("part.mass", "");
    bench.torch(reading("20 C"), 60_000 + 11 * 60_000);
    assert!(at(&bench, 60 + 11 * 60 + 1).hot.is_some(), "eleven hours");
    bench.torch(reading("20 C"), 60_000 + 12 * 60_000);
    assert!(at(&bench, 60 + 12 * 60 + 1).hot.is_none());
}

#[test]
fn a_doubted_reading_that_is_struck_is_asked_no_more() {
    let mut bench = covered_at("343 C");
    let wrong = bench.torch(reading("21 C"), 60_500);
    bench.say(Change::Strike { target: wrong, reason: "650".into() });
    assert!(doubted(&bench).is_empty());
    assert_eq!(at(&bench, 62).hot.and_then(|hot| hot.celsius), Some(343.0));
}

/// What a pad read since it was covered in minute 60 at 343 °C, by the minute.
fn read_by_pad(bench: &Bench, read: &[(f64, f64)]) -> Job {
    let mut job = bench.job();
    let lit = job.round().lit.as_ref().unwrap().fact;
    let read: Vec<Reading> = read.iter().map(|&(minutes, celsius)| Reading { minutes, celsius }).collect();
    job.read(lit, &read);
    job
}

#[rstest]
#[case::at_once(&[(60.5, 21.0)], 61)]
#[case::by_degrees(&[(60.5, 300.0), (61.0, 120.0), (62.0, 40.0), (63.0, 21.0)], 64)]
#[case::and_stays_so(&[(60.5, 21.0), (66.0, 21.0), (71.0, 21.0)], 72)]
fn a_pad_that_slipped_off_ends_nothing(#[case] read: &[(f64, f64)], #[case] minutes: i64) {
    let bench = covered_at("343 C");
    let job = read_by_pad(&bench, read);
    let now = stands(&bench, &job, minutes);
    assert!(now.hot.as_ref().is_some_and(|hot| hot.celsius >= Some(120.0)), "{:?}", now.hot);
    assert!(
        now.keep_off.contains("The pad reads 21 °C") && now.keep_off.contains("still on it"),
        "{}",
        now.keep_off
    );
    let with = plan(&job, &bench.shop);
    assert_eq!(with.learned, plan(&bench.job(), &bench.shop).learned, "the shop learns nothing from it");
}

#[test]
fn a_pad_is_believed_once_the_part_can_have_come_to_it_or_somebody_says_so() {
    let mut bench = covered_at("343 C");
    let cold = [(60.5, 21.0), (85.0, 21.0)];
    let now = stands(&bench, &read_by_pad(&bench, &cold), 86);
    assert!(
        now.hot.is_none() && now.keep_off.is_empty(),
        "25 min: a draught and cold iron could have: {now:?}"
    );
    bench.torch(reading("21 C"), 61_000);
    bench.torch(reading("21 C"), 62_000);
    assert!(stands(&bench, &read_by_pad(&bench, &[(60.5, 21.0), (63.0, 21.0)]), 64).hot.is_none());
}

#[test]
fn while_it_burns_a_cold_corner_is_the_part() {
    let mut bench = lit();
    bench.torch(reading("343 C"), 60_000);
    let job = read_by_pad(&bench, &[(61.0, 30.0)]);
    assert_eq!(job.heat().unwrap().latest_reading().map(|read| read.celsius), Some(30.0));
}

#[test]
fn what_is_unwrapped_too_soon_is_covered_again() {
    let mut bench = covered_at("343 C");
    assert!(!at(&bench, 61).keep_off.contains("cover it again"));
    bench.torch(TorchEntry::Unwrapped, 61_000);
    assert!(at(&bench, 62).keep_off.contains("Unwrapped too soon"), "{}", at(&bench, 62).keep_off);
    bench.torch(covered(), 62_000);
    assert!(!at(&bench, 63).keep_off.contains("cover it again"));
}

#[test]
fn what_was_unwrapped_in_its_time_is_not_told_to_be_covered_again() {
    let mut bench = covered_at("343 C");
    let minutes = bench.plan().last_heat.unwrap().unwrap_min.unwrap().ceil() as i64 + 1;
    // Nobody has read it since: by the curve it is time.
    bench.torch(TorchEntry::Unwrapped, minutes * 1_000);
    let now = at(&bench, minutes + 1);
    assert!(now.hot.is_some() && !now.keep_off.contains("cover it again"), "{}", now.keep_off);
    // What is read says more than the curve.
    bench.torch(reading("120 C"), (minutes + 1) * 1_000);
    assert!(at(&bench, minutes + 2).keep_off.contains("cover it again"));
}

#[rstest]
// Lit for 300 to 400 °C and a soak of 20 min or more: a second of the clock on the wall is a minute of the job's.
#[case::at_once(&[("330 C", 10)], 11, true)]
#[case::soaked(&[("330 C", 10), ("330 C", 60)], 61, false)]
#[case::it_fell_out_and_came_back(&[("330 C", 10), ("200 C", 58), ("330 C", 60)], 61, true)]
#[case::nobody_read_it(&[], 61, true)]
fn a_bead_before_the_soak_is_over_is_told(
    #[case] read: &[(&str, i64)],
    #[case] minutes: i64,
    #[case] told: bool,
) {
    let mut bench = lit();
    for (typed, at) in read {
        bench.torch(reading(typed), at * 1_000);
    }
    bench.torch(TorchEntry::Bead { at: None }, minutes * 1_000);
    let passed = bench.plan().torch.unwrap().passed;
    assert_eq!(passed.iter().any(|it| it.contains("of the soak to come")), told, "{passed:?}");
}

#[test]
fn a_pad_that_slips_off_after_the_next_round_was_opened_ends_nothing_either() {
    let mut bench = lit();
    bench.torch(reading("343 C"), 60_000);
    let lit = bench.job().round().lit.as_ref().unwrap().fact;
    new_round(&mut bench);
    let mut job = bench.job();
    job.read(lit, &[Reading { minutes: 62.0, celsius: 21.0 }]);
    let now = stands(&bench, &job, 63);
    assert_eq!(now.hot.and_then(|hot| hot.celsius), Some(343.0));
    assert!(now.keep_off.contains("The pad reads 21 °C"), "{}", now.keep_off);
}
