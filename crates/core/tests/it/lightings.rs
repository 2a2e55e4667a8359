//! Lit to bake, to tack, to go on with: each its own gate, and nothing of it lost.

use std::collections::BTreeMap;

use crate::common::{Bench, LIT_AT, covered, reading};
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::faults::causes::Symptom;
use vanadin_core::job::{BeadAt, Change, Deed, Lighting, SeamReadingKind, TorchEntry, Work};
use vanadin_core::plan::{LightingPlan, Plan, Station, status};
use vanadin_core::quantity::UnitSystem;

const HOUR_MS: i64 = 3_600_000;

fn oily() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("part.oil", "soaked");
    bench
}

fn lighting(plan: &Plan, what: Lighting) -> Option<&LightingPlan> {
    plan.lightings.iter().find(|it| it.what == what)
}

fn light(what: Lighting) -> Change {
    Change::Light { speed: 60.0, frozen: None, owned: String::new(), what, without: Vec::new() }
}

/// After so many minutes of the job clock of what was lit at [`LIT_AT`].
fn at(minutes: f64) -> i64 {
    LIT_AT + (minutes * 1000.0) as i64
}

fn verb(bench: &Bench, now_ms: i64) -> String {
    let (job, plan) = (bench.job(), bench.plan());
    status(&job, &plan, now_ms).next.verb
}

#[test]
fn an_oily_part_can_be_baked_and_a_clean_one_has_nothing_to_bake() {
    let plan = oily().plan();
    let bake = lighting(&plan, Lighting::Bake).unwrap();
    assert!(bake.refused.is_empty(), "{:?}", bake.refused);
    // Hand-worked: 30 + 2 x 14 mm = 58 min, 30 more where it still smokes.
    assert!(
        bake.sentence.contains("370 °C") && bake.sentence.contains("58 min to 1 h 28"),
        "{}",
        bake.sentence
    );
    let clean = Bench::lever("machine_frame", "gray").plan();
    assert!(lighting(&clean, Lighting::Bake).is_none(), "nothing to bake out of a clean one");
}

#[rstest]
#[case::nobody_looked_for_a_class("part.safety_class", "", Station::Part)]
#[case::a_boiler("part.safety_class", "boiler_or_pressure_vessel", Station::Part)]
#[case::a_hollow_nobody_looked_for("part.shape", "hollow_box", Station::Part)]
#[case::a_closed_hollow("part.cavity", "closed", Station::Part)]
#[case::held_fuel("part.holds", "fuel", Station::Part)]
#[case::chlorine("part.hazards", "chlorinated", Station::Part)]
#[case::seals("part.hazards", "seals", Station::Part)]
#[case::cadmium("part.hazards", "cadmium,seals", Station::Part)]
fn what_bursts_or_poisons_is_not_baked(#[case] key: &str, #[case] typed: &str, #[case] station: Station) {
    let mut bench = oily();
    bench.set(key, typed);
    let plan = bench.plan();
    let refused = &lighting(&plan, Lighting::Bake).unwrap().refused;
    assert!(refused.iter().any(|line| line.station == station), "{refused:?}");
    assert!(bench.try_say(light(Lighting::Bake), LIT_AT, None).is_err());
}

#[test]
fn none_of_the_poisons_is_no_lock_and_nobody_having_looked_is_a_tick() {
    let mut bench = oily();
    let looked = |bench: &Bench| {
        let plan = bench.plan();
        let bake = lighting(&plan, Lighting::Bake).unwrap();
        bake.lay_out.iter().any(|line| line.words.starts_with("Looked for"))
    };
    assert!(looked(&bench));
    bench.set("part.hazards", "none");
    assert!(!looked(&bench));
    assert!(bench.plan().locks.is_empty());
}

#[test]
fn a_neighbour_lowers_the_bake_or_forbids_it() {
    let mut bench = oily();
    let bearing = bench.say(Change::AddNeighbour);
    bench.set(&format!("neighbour.{bearing}.what"), "bush");
    let refused = |bench: &Bench| lighting(&bench.plan(), Lighting::Bake).unwrap().refused.len();
    assert_eq!(refused(&bench), 1, "nobody has said what it stands");
    bench.set(&format!("neighbour.{bearing}.limit"), "300 C");
    let plan = bench.plan();
    let bake = lighting(&plan, Lighting::Bake).unwrap();
    assert!(bake.refused.is_empty(), "{:?}", bake.refused);
    assert!(bake.sentence.contains("At 250 °C") && bake.sentence.contains("does not count as baked clean"));
    bench.set(&format!("neighbour.{bearing}.limit"), "249 C");
    assert_eq!(refused(&bench), 1);
}

#[test]
fn a_bake_is_led_to_its_end_stays_hot_and_asks_for_the_white_rag() {
    let mut bench = oily();
    bench.say(light(Lighting::Bake));
    assert_eq!(verb(&bench, at(0.0)), "Take a reading");
    bench.try_say(Change::Torch { entry: reading("200") }, at(20.0), None).unwrap();
    assert_eq!(verb(&bench, at(20.0)), "Heat to 370 °C");
    bench.try_say(Change::Torch { entry: reading("372") }, at(50.0), None).unwrap();
    assert_eq!(verb(&bench, at(50.0)), "Hold it 58 min more");
    let may_end = |bench: &Bench, now_ms: i64| {
        status(&bench.job(), &bench.plan(), now_ms).live.is_some_and(|live| live.ends)
    };
    assert!(!may_end(&bench, at(107.9)), "not held yet");
    bench.try_say(Change::Torch { entry: reading("371") }, at(108.0), None).unwrap();
    assert_eq!(verb(&bench, at(108.0)), "Flame off once it neither smokes nor weeps");
    assert!(may_end(&bench, at(108.0)));
    let bead = Change::Torch { entry: TorchEntry::Bead { at: None } };
    assert!(bench.try_say(bead, at(108.0), None).is_err(), "no bead is laid on a bake");
    assert!(bench.try_say(Change::CancelLight, at(108.0), None).is_err());
    bench.try_say(Change::PutOut, at(110.0), None).unwrap();
    let (job, plan) = (bench.job(), bench.plan());
    assert!(job.round().lit.is_none(), "the round is not begun with");
    let then = status(&job, &plan, at(111.0));
    assert!(then.hot.is_some(), "hot, although nothing is lit");
    assert_eq!(
        then.next.verb, "Keep hands off until",
        "it lies in the air, and is not wiped while it is hot"
    );
    assert!(then.next.at_ms.is_some());
    assert!(!then.keep_off.is_empty());
    bench.try_say(Change::Torch { entry: reading("30") }, at(400.0), None).unwrap();
    let next = status(&bench.job(), &bench.plan(), at(401.0)).next;
    assert_eq!((next.verb.as_str(), next.key.as_str()), ("Wipe it: does the rag stay white?", "part.oil"));
    bench.set("part.oil", "baked_clean");
    assert_ne!(verb(&bench, at(402.0)), "Wipe it: does the rag stay white?");
    assert!(bench.plan().lightings.is_empty());
}

#[test]
fn what_cannot_be_read_is_not_heated_whatever_it_is_lit_for() {
    let mut bench = oily();
    let mut fact = bench.facts.last().unwrap().clone();
    fact.revision += 1;
    fact.id = Uuid::from_u128(99_999);
    fact.change = Change::Unreadable { text: "torn".into() };
    bench.facts.push(fact);
    let refused = &lighting(&bench.plan(), Lighting::Bake).unwrap().refused.clone();
    assert!(refused.iter().any(|line| line.sentence.contains("cannot be read")), "{refused:?}");
}

/// A lever broken in two, its pieces fitted.
fn broken() -> (Bench, Uuid) {
    let mut bench = Bench::lever("machine_frame", "gray");
    let crack = bench.crack();
    bench.set(&vanadin_core::field::crack_key(crack, "end_b"), "edge");
    bench.set(&vanadin_core::field::crack_key(crack, "through"), "yes");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.set("part.old_filler", "none");
    (bench, crack)
}

#[test]
fn pieces_are_tacked_one_by_one_and_the_alignment_is_read_after_each() {
    let (mut bench, crack) = broken();
    let plan = bench.plan();
    let tacks = plan.bench.breaks.first().map_or(0, |it| it.tacks.len());
    assert!(tacks >= 2, "{tacks}");
    let refused = &lighting(&plan, Lighting::Tack).unwrap().refused;
    assert!(refused.iter().any(|line| line.station == Station::Prep), "not fitted yet: {refused:?}");
    let lines: Vec<_> = plan.prep.as_ref().unwrap().work.iter().map(|line| line.step).collect();
    for step in
        lines.into_iter().filter(|it| matches!(it.what, Work::FitUp | Work::TackGroove | Work::Inside))
    {
        bench.say(Change::Tick { step, done: true });
    }
    bench.say(light(Lighting::Tack));
    assert!(verb(&bench, at(0.0)).starts_with("Tack 1 of A"), "{}", verb(&bench, at(0.0)));
    bench.try_say(Change::Torch { entry: TorchEntry::Did { what: Deed::Tacked } }, at(1.0), None).unwrap();
    assert_eq!(verb(&bench, at(1.0)), "Check the alignment after tack 1 of A");
    let moved = |mm: &str, number| Change::MeasureSeam {
        crack,
        what: SeamReadingKind::Tack,
        number: Some(number),
        typed: BTreeMap::from([("moved".to_owned(), mm.to_owned())]),
        shown_in: UnitSystem::Metric,
    };
    let read = bench.try_say(moved("2", 1), at(2.0), None).unwrap();
    assert!(verb(&bench, at(2.0)).starts_with("It moved at tack 1 of A"), "{}", verb(&bench, at(2.0)));
    bench.say(Change::Strike { target: read, reason: "misread".into() });
    bench.try_say(moved("0", 1), at(3.0), None).unwrap();
    assert!(verb(&bench, at(3.0)).starts_with("Tack 2 of A"), "{}", verb(&bench, at(3.0)));
    bench.try_say(Change::Torch { entry: reading("80") }, at(4.0), None).unwrap();
    assert_eq!(verb(&bench, at(4.0)), "Wait until under 65 °C");
    bench.try_say(Change::PutOut, at(5.0), None).unwrap();
    assert!(bench.job().round().lit.is_none());
    assert_eq!(
        bench.job().round().tacks(),
        1,
        "what was tacked is in, and the next lighting goes on from it"
    );
}

fn bead_at(bench: &Bench) -> BeadAt {
    bench.plan().torch.unwrap().beads.unwrap().ahead[0].at
}

/// Lit, warm, two beads laid, then stopped.
fn stopped(method: &str, why: &str) -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    bench.set("method.school", "hot");
    bench.light();
    bench.try_say(Change::Torch { entry: reading("330") }, at(60.0), None).unwrap();
    for minutes in [85.0, 88.0] {
        let at_place = (method == "arc_nickel_iron").then(|| bead_at(&bench));
        let entry = TorchEntry::Bead { at: at_place };
        bench.try_say(Change::Torch { entry }, at(minutes), None).unwrap();
    }
    let entry = TorchEntry::Covered { why: why.into() };
    bench.try_say(Change::Torch { entry }, at(90.0), None).unwrap();
    bench
}

#[test]
fn what_was_stopped_is_gone_on_with_in_the_same_round_with_its_beads_in_place() {
    let mut bench = stopped("arc_nickel_iron", "night");
    let plan = bench.plan();
    let torch = plan.torch.as_ref().unwrap();
    let go_on = torch.go_on.as_ref().unwrap();
    assert_eq!(go_on.because, "night");
    assert!(
        go_on.needs.iter().any(|need| need.starts_with(&format!("{} of", torch.planned - 2))),
        "{go_on:?}"
    );
    assert!(go_on.needs.iter().any(|need| need.starts_with("From cold")), "{go_on:?}");
    let laid: Vec<BeadAt> = bench
        .job()
        .round()
        .said_at_torch()
        .filter_map(|(_, it)| match it.entry {
            TorchEntry::Bead { at } => at,
            _ => None,
        })
        .collect();
    // The next morning, cold, on the same round.
    let morning = LIT_AT + 14 * HOUR_MS;
    bench.try_say(Change::Torch { entry: reading("21") }, morning - HOUR_MS, None).unwrap();
    assert_eq!(verb(&bench, morning), "Go on: light it again");
    bench.try_say(light(Lighting::Main), morning, None).unwrap();
    let (job, plan) = (bench.job(), bench.plan());
    assert_eq!((job.rounds.len(), job.round().beads()), (1, 2));
    let torch = plan.torch.as_ref().unwrap();
    assert_eq!(torch.done, 2);
    assert!(torch.go_on.is_none());
    let order = torch.beads.as_ref().unwrap();
    assert_eq!(order.ahead[0].number, 3);
    assert!(order.ahead.iter().all(|bead| !laid.contains(&bead.at)), "what lies there is not laid again");
    let again = Change::Torch { entry: TorchEntry::Bead { at: Some(laid[0]) } };
    assert!(bench.try_say(again, morning + 1000, None).is_err());
    // It is brought to its target and soaked again, not merely to the least.
    bench.try_say(Change::Torch { entry: reading("270") }, morning + 30_000, None).unwrap();
    assert!(verb(&bench, morning + 30_000).starts_with("Heat to"), "{}", verb(&bench, morning + 30_000));
}

#[test]
fn what_is_done_in_one_heat_is_not_split_over_days() {
    let mut bench = stopped("torch_braze", "gas is out");
    let plan = bench.plan();
    assert!(plan.gate.refused[0].sentence.contains("in one heat"), "{:?}", plan.gate.refused);
    let morning = LIT_AT + 14 * HOUR_MS;
    assert!(bench.try_say(light(Lighting::Main), morning, None).is_err());
}

#[test]
fn what_was_covered_with_all_done_is_not_lit_again() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.light();
    bench.try_say(Change::Torch { entry: covered() }, at(60.0), None).unwrap();
    assert!(bench.try_say(light(Lighting::Main), at(61.0), None).is_err());
}

#[test]
fn what_was_not_ticked_is_named_and_a_tick_is_gone_once_it_was_lit() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.ready();
    let plan = bench.plan();
    let lines = &plan.torch.as_ref().unwrap().lay_out;
    assert!(lines.iter().any(|line| line.words.contains("dried 1 h at 120 °C")), "{lines:?}");
    assert!(lines.iter().any(|line| line.words.starts_with("A helper")), "12 kg are turned hot by two");
    bench.say(Change::Tick { step: lines[0].step, done: true });
    let left = bench.plan().not_laid_out(Lighting::Main);
    assert_eq!(left.len(), lines.len() - 1);
    assert!(!left.contains(&lines[0].words));
    let change = Change::Light {
        speed: 60.0,
        frozen: Some(Box::new(bench.plan().frozen())),
        owned: String::new(),
        what: Lighting::Main,
        without: left.clone(),
    };
    bench.say(change);
    assert_eq!(bench.job().round().lit.as_ref().unwrap().without, left);
}

#[test]
fn each_lighting_takes_its_own_beads_rods_and_all_of_them_together_no_more_than_were_planned() {
    let rods = |bench: &Bench| -> Vec<f64> {
        let (job, plan) = (bench.job(), bench.plan());
        let asks = vanadin_core::plan::Asks::of(&job, &plan, &bench.facts, &bench.shop);
        let of = |gone: &vanadin_core::plan::Gone| {
            gone.takes.iter().filter(|take| take.kind == "nickel_iron").map(|take| take.amount).sum::<f64>()
        };
        asks.gone.iter().map(of).filter(|amount| *amount > 0.0).collect()
    };
    let mut bench = stopped("arc_nickel_iron", "night");
    let first = rods(&bench);
    let planned = bench.plan().torch.unwrap().planned;
    assert_eq!(first.len(), 1);
    let all = bench.plan().takes.iter().find(|take| take.kind == "nickel_iron").unwrap().amount;
    // Hand-worked: two beads of them all, in whole rods.
    assert_eq!(first[0], (all * 2.0 / f64::from(planned)).ceil());
    let morning = LIT_AT + 14 * HOUR_MS;
    bench.try_say(light(Lighting::Main), morning, None).unwrap();
    assert_eq!(rods(&bench), first, "what was taken stays taken, nothing more until it is done");
    bench.try_say(Change::Torch { entry: TorchEntry::Bead { at: None } }, morning + 60_000, None).unwrap();
    let entry = TorchEntry::Covered { why: "night".into() };
    bench.try_say(Change::Torch { entry }, morning + 70_000, None).unwrap();
    let both = rods(&bench);
    assert_eq!(both, [first[0], (all / f64::from(planned)).ceil()]);
}

#[test]
fn what_was_stopped_before_the_first_bead_took_no_rods() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.light();
    let entry = TorchEntry::Covered { why: "power is out".into() };
    bench.try_say(Change::Torch { entry }, at(10.0), None).unwrap();
    let (job, plan) = (bench.job(), bench.plan());
    let asks = vanadin_core::plan::Asks::of(&job, &plan, &bench.facts, &bench.shop);
    assert!(
        asks.gone.iter().flat_map(|gone| &gone.takes).all(|take| take.kind != "nickel_iron"),
        "{:?}",
        asks.gone
    );
}

#[test]
fn the_record_says_of_each_lighting_what_there_is_to_say() {
    let mut bench = oily();
    bench.say(light(Lighting::Bake));
    bench.try_say(Change::Torch { entry: reading("372") }, at(50.0), None).unwrap();
    bench.try_say(Change::PutOut, at(110.0), None).unwrap();
    let said = |bench: &Bench| bench.plan().hand_over.lightings;
    assert_eq!(said(&bench), ["Bake. Read 372 °C at most."]);
    bench.set("part.oil", "baked_clean");
    bench.set("method.choice", "arc_nickel_iron");
    bench.try_say(Change::Torch { entry: reading("30") }, at(400.0), None).unwrap();
    bench.ready();
    let main = Change::Light {
        speed: 60.0,
        frozen: None,
        owned: String::new(),
        what: Lighting::Main,
        without: vec!["Extinguisher".to_owned()],
    };
    bench.try_say(main, at(410.0), None).unwrap();
    let trouble = TorchEntry::Trouble { seen: Symptom::BlowThrough, cause: String::new() };
    bench.try_say(Change::Torch { entry: trouble }, at(420.0), None).unwrap();
    let stopped = TorchEntry::Covered { why: "gas is out".to_owned() };
    bench.try_say(Change::Torch { entry: stopped }, at(430.0), None).unwrap();
    let lines = said(&bench);
    assert_eq!(lines.len(), 2, "{lines:?}");
    assert_eq!(
        lines[1],
        "Heat. Not laid out before it: Extinguisher. It did not go well: It blew through. Stopped: gas is out."
    );
}

#[rstest]
#[case::stick("arc_nickel_iron", "shade 9 to 13", "Machine off.")]
#[case::tig_nickel("tig_nickel", "shade 9 to 13", "Machine off.")]
// The iron does not melt, and the arc blinds all the same.
#[case::tig_braze("tig_braze_si", "shade 9 to 13", "Machine off.")]
#[case::aluminium_bronze("tig_braze_al", "shade 9 to 13", "Machine off.")]
#[case::wire_braze("mig_braze_si", "shade 9 to 13", "Machine off.")]
#[case::torch_braze("torch_braze", "shade 3 to 4", "Oxygen off")]
#[case::gas_iron("gas_iron", "shade 5 to 6", "Oxygen off")]
fn eyes_and_current_follow_what_burns(#[case] method: &str, #[case] shade: &str, #[case] first_off: &str) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    bench.set("heat.source", "weed_burner");
    let torch = bench.plan().torch.unwrap();
    let list: Vec<&str> = torch.lay_out.iter().map(|line| line.words.as_str()).collect();
    assert!(list.iter().any(|words| words.contains(shade)), "{list:?}");
    let flux = list.iter().any(|words| words.starts_with("Flux"));
    assert_eq!(flux, first_off.starts_with("Oxygen"), "{list:?}");
    let stop = format!("{:?}", torch.must_stop);
    assert!(stop.contains(first_off), "{stop}");
}
