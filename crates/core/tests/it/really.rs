//! What was really used beside what was planned, and the shelves that follow it; what wants a cold part.

use std::collections::BTreeMap;

use rstest::rstest;
use uuid::Uuid;
use vanadin_core::faults::acceptance::Found;
use vanadin_core::field::{FieldState, store_key};
use vanadin_core::job::{Change, CheckPlace, CheckWhat, Refusal, TorchEntry, Work, WorkStep};
use vanadin_core::ledger::{Said, wall};
use vanadin_core::plan::UsedLine;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{Shop, ShopFact, ShopWord, may_be_said, set_right, settings, taken};
use vanadin_core::stores::{OwnUse, TakenWhen, UsedInRound, UsedUpHere, taking_word, used_amount};

use crate::common::{Bench, LIT_AT, covered, reading, set};

/// A lever that is welded with nickel-iron and lit.
fn lit() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench.light();
    bench
}

fn used(what: &str, size_mm: Option<f64>, typed: &str) -> Change {
    Change::Use { what: what.to_owned(), size_mm, typed: typed.to_owned(), holds_m3: Some(10.0) }
}

fn line(bench: &Bench, what: &str) -> UsedLine {
    let lines = bench.plan().hand_over.really.lines;
    lines.iter().find(|it| it.what == what).cloned().unwrap_or_else(|| panic!("{what} of {lines:?}"))
}

#[test]
fn everything_that_is_planned_or_wears_is_asked_for_once_it_is_lit() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    assert!(bench.plan().hand_over.really.lines.is_empty(), "nothing was done yet");
    bench.light();
    let plan = bench.plan();
    for take in &plan.takes {
        assert!(plan.hand_over.really.lines.iter().any(|it| it.what == take.kind), "{}", take.kind);
    }
    for worn in ["grinding_disc", "thin_disc", "burr", "drill"] {
        let line = line(&bench, worn);
        assert_eq!((line.planned, line.as_planned.as_str()), (None, "none"), "{worn}");
    }
    assert!(plan.hand_over.really.words.starts_with("0 of "), "{}", plan.hand_over.really.words);
}

#[rstest]
#[case::metric(UnitSystem::Metric)]
#[case::imperial(UnitSystem::Imperial)]
fn one_press_says_what_was_planned(#[case] units: UnitSystem) {
    for (method, school) in [("arc_nickel_iron", "hot"), ("torch_braze", ""), ("tig_nickel", "")] {
        let mut bench = Bench::hot_lever();
        bench.set("method.choice", method);
        bench.set("method.school", school);
        bench.light();
        bench.shop.units = units;
        for it in bench.plan().hand_over.really.lines {
            let read = used_amount((&it.what, it.size_mm), it.holds_m3, &it.as_planned).unwrap().unwrap();
            let planned = it.planned.unwrap_or(0.0);
            assert!(
                (read - planned).abs() <= 0.01 * planned + 1e-9,
                "{}: {read} for {planned}",
                it.as_planned
            );
            bench.say(Change::Use {
                what: it.what,
                size_mm: it.size_mm,
                typed: it.as_planned,
                holds_m3: it.holds_m3,
            });
        }
        assert_eq!(bench.plan().hand_over.really.words, "As it was planned");
    }
}

#[test]
fn what_went_over_is_said_and_what_is_emptied_is_asked_again() {
    let mut bench = lit();
    let rods = line(&bench, "nickel_iron");
    let planned = rods.planned.unwrap();
    let more = format!("{}", planned + 2.0);
    bench.say(used("nickel_iron", rods.size_mm, &more));
    assert_eq!(line(&bench, "nickel_iron").against, "2 rods more");
    let said = bench.say(used("nickel_iron", rods.size_mm, "1"));
    let now = line(&bench, "nickel_iron");
    assert_eq!((now.used, now.used_words.as_str()), (Some(1.0), "1 rod"), "the last counts");
    bench.say(Change::Undo { target: said });
    assert_eq!(line(&bench, "nickel_iron").used, Some(planned + 2.0));
    bench.say(used("nickel_iron", rods.size_mm, ""));
    assert_eq!(line(&bench, "nickel_iron").used, None);
    // Something that nobody planned.
    bench.say(used("silver", Some(1.5), "2"));
    assert_eq!(line(&bench, "silver").used, Some(2.0));
    assert_eq!(bench.plan().hand_over.used, ["Silver braze, 1.5 mm: 2 rods"], "the record says it");
}

#[rstest]
#[case::unknown("gold", "6", "what")]
#[case::no_amount("nickel_iron", "a few", "typed")]
fn what_cannot_be_used_is_told_at_its_field(#[case] what: &str, #[case] typed: &str, #[case] field: &str) {
    match lit().try_say(used(what, None, typed), LIT_AT, None) {
        Err(Refusal::Problems(problems)) => assert_eq!(problems[0].field, field),
        other => panic!("{other:?}"),
    }
}

#[test]
fn nothing_is_used_before_it_is_lit_and_two_who_say_it_are_told() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    assert!(bench.try_say(used("burr", None, "1"), LIT_AT, None).is_err());
    bench.light();
    let base = Some(bench.facts.len() as u64);
    bench.try_say(used("burr", None, "1"), LIT_AT, base).unwrap();
    let late = bench.try_say(used("burr", None, "2"), LIT_AT, base);
    assert!(matches!(&late, Err(Refusal::Conflict(it)) if it.theirs == "1"), "{late:?}");
    bench.try_say(used("burr", None, "1"), LIT_AT, base).unwrap();
}

/// A shop with its shelves, and one job that takes of them.
#[derive(Default)]
struct ToldShop(Vec<ShopFact>);

const JOB: Uuid = Uuid::from_u128(77);
/// The lighting of its first round.
const FIRST: u128 = 900;

impl ToldShop {
    fn say(&mut self, sender: &str, word: ShopWord) -> Uuid {
        let understood = may_be_said(&self.0, &word, sender).unwrap();
        let revision = self.0.len() as u64 + 1;
        let id = Uuid::from_u128(u128::from(revision));
        let (at, sender) = (revision as i64 * 1000, sender.to_owned());
        let (at_client_ms, at_server_ms, who) = (at, at, String::new());
        self.0.push(ShopFact {
            id,
            revision,
            at_client_ms,
            at_server_ms,
            who,
            sender,
            change: word,
            understood,
        });
        id
    }

    /// A box of nickel-iron.
    fn boxed(&mut self, number: u128, amount: &str) -> Uuid {
        let id = Uuid::from_u128(1000 + number);
        for (field, typed) in [("what", "nickel_iron"), ("amount", amount)] {
            let key = store_key(id, field);
            self.say("bench", ShopWord::Set { key, typed: typed.to_owned(), shown_in: UnitSystem::Metric });
        }
        id
    }

    fn shop(&self) -> Shop {
        let values: BTreeMap<String, FieldState> = settings(&self.0);
        Shop::of_log(&values, &self.0)
    }

    /// As planned, by a lighting.
    fn planned(&mut self, lit: u128, item: Uuid, amount: f64) {
        let name = "Lever".to_owned();
        self.say("", ShopWord::Used { item, amount, job: JOB, name, instead: None });
        let last = self.0.last_mut().unwrap();
        last.id = taking_word(Uuid::from_u128(lit), TakenWhen::Done, item);
    }

    /// What the keeper does.
    fn settle(&mut self, used: &[UsedUpHere]) {
        self.settle_rounds(&[(FIRST, used)]);
    }

    fn settle_rounds(&mut self, rounds: &[(u128, &[UsedUpHere])]) {
        let of = |(lit, used): &(u128, &[UsedUpHere])| UsedInRound {
            lit: vec![Uuid::from_u128(*lit)],
            used: used.to_vec(),
        };
        let rounds: Vec<UsedInRound> = rounds.iter().map(of).collect();
        for word in set_right(&self.0, &self.shop().stores, (JOB, "Lever"), &rounds) {
            self.say("", word);
        }
        let again = set_right(&self.0, &self.shop().stores, (JOB, "Lever"), &rounds);
        assert!(again.is_empty(), "it is settled: {again:?}");
    }

    fn amounts(&self) -> Vec<f64> {
        self.shop().stores.iter().map(|item| item.amount.unwrap()).collect()
    }
}

fn really(fact: u128, amount: f64) -> UsedUpHere {
    UsedUpHere {
        fact: Uuid::from_u128(fact),
        what: "nickel_iron".to_owned(),
        size_mm: Some(4.0),
        amount,
        typed: String::new(),
        at_ms: 1_000_000,
        revision: 1,
    }
}

#[test]
fn the_shelves_follow_what_was_really_used() {
    let mut told = ToldShop::default();
    let rods = told.boxed(1, "12 rods");
    told.planned(FIRST, rods, 6.0);
    told.settle(&[]);
    assert_eq!(told.amounts(), [6.0], "as planned");
    told.settle(&[really(500, 8.0)]);
    assert_eq!(told.amounts(), [4.0]);
    told.settle(&[really(501, 3.0)]);
    assert_eq!(told.amounts(), [9.0], "corrected");
    told.settle(&[really(502, 0.0)]);
    assert_eq!(told.amounts(), [12.0], "none at all");
    told.settle(&[]);
    assert_eq!(told.amounts(), [6.0], "taken back, as planned again");
}

#[test]
fn what_is_said_no_more_is_as_it_was_planned_again() {
    let mut told = ToldShop::default();
    let rods = told.boxed(1, "12 rods");
    told.planned(FIRST, rods, 6.0);
    told.settle(&[really(500, 8.0)]);
    told.settle(&[]);
    assert_eq!(told.amounts(), [6.0]);
    told.settle(&[really(501, 7.0)]);
    assert_eq!(told.amounts(), [5.0]);
}

#[test]
fn more_than_the_box_held_comes_from_the_next_and_what_was_counted_since_is_left() {
    let mut told = ToldShop::default();
    let rods = told.boxed(1, "6 rods");
    told.boxed(2, "10 rods");
    told.planned(FIRST, rods, 5.0);
    told.settle(&[really(500, 9.0)]);
    assert_eq!(told.amounts(), [0.0, 7.0]);
    // Counted after it was used: what is there is there.
    let mut told = ToldShop::default();
    let rods = told.boxed(1, "6 rods");
    told.planned(FIRST, rods, 5.0);
    told.boxed(1, "4 rods");
    told.settle(&[UsedUpHere { at_ms: 2_500, ..really(500, 6.0) }]);
    assert_eq!(told.amounts(), [4.0]);
    assert_eq!(taken(&told.0).count(), 0, "what was taken as planned is back, before the counting");
}

#[test]
fn what_one_round_used_moves_nothing_that_another_took() {
    const SECOND: u128 = 901;
    let mut told = ToldShop::default();
    let rods = told.boxed(1, "30 rods");
    told.planned(FIRST, rods, 6.0);
    told.settle(&[really(500, 8.0)]);
    told.planned(SECOND, rods, 4.0);
    assert_eq!(told.amounts(), [18.0]);
    let first = [really(500, 8.0)];
    told.settle_rounds(&[(FIRST, &first), (SECOND, &[])]);
    assert_eq!(told.amounts(), [18.0], "the second is as planned");
    told.settle_rounds(&[(FIRST, &first), (SECOND, &[really(501, 5.0)])]);
    assert_eq!(told.amounts(), [17.0]);
    told.settle_rounds(&[(FIRST, &[really(502, 7.0)]), (SECOND, &[really(501, 5.0)])]);
    assert_eq!(told.amounts(), [18.0], "the first corrected");
}

#[test]
fn the_ledger_sets_what_was_used_against_what_was_planned() {
    let use_of = |lit: u128, planned: f64, used: Option<f64>| OwnUse {
        lit: Uuid::from_u128(lit),
        job: Uuid::from_u128(50 + lit),
        name: format!("Gate {lit}"),
        what: "nickel_iron".to_owned(),
        size_mm: Some(4.0),
        planned,
        used,
    };
    let uses = [use_of(1, 6.0, Some(9.0)), use_of(2, 4.0, Some(3.0)), use_of(3, 5.0, None)];
    let told = |left_out: &BTreeMap<Uuid, String>| {
        wall(&Said { uses: &uses, ..Said::nothing(left_out) }, UnitSystem::Metric).learned
    };
    let lines = told(&BTreeMap::new());
    // By hand: 12 of 10 rods
    assert_eq!(lines[0].words, "1.2 of what is planned, from 2 repairs");
    assert_eq!(lines[0].name, "Nickel-iron stick, used");
    let cases: Vec<&str> = lines[0].cases.iter().map(|it| it.words.as_str()).collect();
    assert_eq!(cases, ["9 rods used, 6 rods planned", "3 rods used, 4 rods planned"]);
    let out = BTreeMap::from([(Uuid::from_u128(1), "dropped the box".to_owned())]);
    assert_eq!(told(&out)[0].words, "0.75 of what is planned, from 1 repair");
}

/// Heated, covered, not read since.
fn hot() -> Bench {
    let mut bench = Bench::hot_lever();
    bench.set("method.choice", "torch_braze");
    bench.set("method.school", "");
    bench.light();
    bench.torch(reading("380 C"), 60_000);
    bench.torch(covered(), 120_000);
    bench
}

fn toes(bench: &Bench, found: Found) -> Change {
    Change::Look {
        place: CheckPlace { what: CheckWhat::Toes, at: Some(bench.crack()), side: Some(1) },
        found,
        typed: BTreeMap::new(),
        shown_in: UnitSystem::Metric,
        count: None,
        then: None,
        note: String::new(),
    }
}

#[test]
fn nothing_is_found_good_or_finished_on_a_part_that_is_hot() {
    let mut bench = hot();
    let finish =
        Change::Tick { step: WorkStep { what: Work::CrownDown, at: None, number: None }, done: true };
    let field = |refused: Result<Uuid, Refusal>| match refused {
        Err(Refusal::Problems(problems)) => problems[0].field.clone(),
        other => panic!("{other:?}"),
    };
    let at = LIT_AT + 180_000;
    assert_eq!(field(bench.try_say(toes(&bench, Found::Good), at, None)), "place");
    assert_eq!(field(bench.try_say(set("check.toes", "ok"), at, None)), "check.toes");
    assert_eq!(field(bench.try_say(finish.clone(), at, None)), "step");
    // What is bad is seen on hot iron too, and what was said wrong is taken back.
    bench.try_say(toes(&bench, Found::Crack), at, None).unwrap();
    bench.try_say(set("check.alignment", "not_ok"), at, None).unwrap();
    bench.try_say(set("check.alignment", ""), at, None).unwrap();
    bench.torch(TorchEntry::Unwrapped, 60_000 * 20);
    bench.torch(reading("20 C"), 60_000 * 21);
    let at = LIT_AT + 60_000 * 22;
    bench.try_say(toes(&bench, Found::Good), at, None).unwrap();
    bench.try_say(finish, at, None).unwrap();
}
