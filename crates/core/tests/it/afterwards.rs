//! How a repair holds, asked again and again once it is out of the house.

use rstest::rstest;
use uuid::Uuid;
use vanadin_core::iron::Iron;
use vanadin_core::job::{Became, Change, TorchEntry, WentAt};
use vanadin_core::method::BrokeAt;
use vanadin_core::plan::{AskLine, status};

use crate::common::{Bench, LIT_AT, covered, reading, set};

const DAY_MS: i64 = 86_400_000;

/// Brazed, cold, and handed over on the day it was lit.
fn handed_over(loads: &str) -> Bench {
    let mut bench = Bench::hot_lever();
    bench.set("method.choice", "torch_braze");
    bench.set("method.school", "");
    bench.set("part.loads", loads);
    bench.light();
    bench.torch(reading("380 C"), 60_000);
    for number in 1..=bench.plan().torch.unwrap().planned {
        bench.torch(TorchEntry::Bead { at: None }, 60_000 + 1000 * i64::from(number));
    }
    bench.torch(covered(), 120_000);
    bench.torch(TorchEntry::Unwrapped, 60_000 * 20);
    bench.torch(reading("20 C"), 60_000 * 21);
    bench.set("hand_over.owned", "as it is");
    bench.try_say(set("hand_over.done", "yes"), LIT_AT + DAY_MS / 4, None).unwrap();
    bench
}

fn answer(became: Became, went: Option<WentAt>, after: &str) -> Change {
    let (did, note) = (String::new(), String::new());
    Change::FollowUp { became, went, after: after.to_owned(), did, note, odds: None }
}

fn answered(bench: &mut Bench, days: i64, became: Became) -> Uuid {
    bench.try_say(answer(became, None, ""), LIT_AT + DAY_MS / 4 + days * DAY_MS, None).unwrap()
}

fn asks(bench: &Bench) -> Vec<AskLine> {
    bench.plan().hand_over.afterwards.asks
}

fn next(bench: &Bench, days: i64) -> (String, u32) {
    let standing = status(&bench.job(), &bench.plan(), LIT_AT + DAY_MS / 4 + days * DAY_MS);
    (standing.next.verb, standing.rank)
}

#[rstest]
#[case::knocked_about("shock", 4)]
#[case::at_rest("static", 3)]
fn it_is_asked_by_what_it_has_to_stand(#[case] loads: &str, #[case] times: usize) {
    let bench = handed_over(loads);
    let asks = asks(&bench);
    assert_eq!(asks.len(), times);
    assert!(asks.windows(2).all(|two| two[0].due_ms < two[1].due_ms), "{asks:?}");
    assert!(next(&bench, 1).0.starts_with("Ask again on"), "{:?}", next(&bench, 1));
    assert_eq!(next(&bench, 31), ("Ask how it holds".to_owned(), 2), "before what is only being planned");
}

#[test]
fn each_answer_counts_for_its_day_and_a_little_ahead_and_none_is_written_over() {
    let mut bench = handed_over("static");
    // House: a month may be asked for a week ahead of its day, not earlier.
    answered(&mut bench, 22, Became::Holds);
    assert_eq!(asks(&bench).iter().filter(|ask| ask.answered).count(), 0, "that was too soon");
    answered(&mut bench, 24, Became::Holds);
    assert_eq!(asks(&bench).iter().filter(|ask| ask.answered).count(), 1);
    assert!(next(&bench, 40).0.starts_with("Ask again on"));
    assert_eq!(next(&bench, 183), ("Ask how it holds".to_owned(), 2));
    answered(&mut bench, 183, Became::Fault);
    assert!(next(&bench, 184).0.starts_with("Ask again on"), "two years are still to come");
    answered(&mut bench, 731, Became::Holds);
    assert_eq!(next(&bench, 732).0, "Holds");
    assert_eq!(bench.plan().hand_over.afterwards.answers.len(), 4);
}

#[test]
fn what_failed_is_not_asked_again_and_says_where_it_went() {
    let mut bench = handed_over("static");
    let went = answer(Became::Failed, Some(WentAt::Toe), "400 hours");
    let said = bench.try_say(went, LIT_AT + 60 * DAY_MS, None).unwrap();
    assert_eq!(next(&bench, 61), ("It failed: open round 2".to_owned(), 2));
    let afterwards = bench.plan().hand_over.afterwards;
    assert_eq!(afterwards.answers[0].words, "Failed, along the toe, after 400 hours");
    assert!(afterwards.next().is_none());
    // What came back is broken on the bench: what its job knows is told there.
    let back = bench.plan().hand_over.came_back.unwrap();
    assert_eq!((back.name.as_str(), back.thickness.as_str()), ("Lever, A", "14 mm"));
    assert_eq!((back.iron, back.broke), (Iron::Gray, Some(BrokeAt::Toe)));
    assert_eq!(Some(back.joined), bench.plan().methods.chosen.map(|way| way.method));
    // It was another machine that broke: what was said of it is crossed out, and it is asked again.
    bench.say(Change::Strike { target: said, reason: "another machine".to_owned() });
    assert_eq!(bench.plan().hand_over.afterwards.became, None);
    assert_eq!(bench.plan().hand_over.came_back, None, "what holds is not cut up");
    assert_eq!(next(&bench, 61).0, "Ask how it holds");
}

#[test]
fn a_day_that_was_said_comes_first_and_the_later_ones_after_it() {
    let mut bench = handed_over("static");
    let day = |after: i64| vanadin_core::base::day::Day::of_number(LIT_AT / DAY_MS + after).unwrap().said();
    bench.set("hand_over.follow_up", &day(90));
    let asks = asks(&bench);
    let words: Vec<&str> = asks.iter().map(|ask| ask.words.as_str()).collect();
    assert_eq!(words, ["as was said", "after half a year", "after two years"]);
    assert!(next(&bench, 31).0.starts_with("Ask again on"), "the month was not wanted");
}

#[test]
fn the_day_a_new_part_comes_is_a_day_on_which_it_is_asked() {
    let mut bench = handed_over("static");
    let day = vanadin_core::base::day::Day::of_number(LIT_AT / DAY_MS + 60).unwrap();
    bench.set("hand_over.new_part", &day.said());
    let words: Vec<String> = asks(&bench).into_iter().map(|ask| ask.words).collect();
    let comes = "when the new part comes: is this one out?";
    assert_eq!(words, ["after a month", comes, "after half a year", "after two years"]);
    answered(&mut bench, 31, Became::Holds);
    assert_eq!(next(&bench, 59).0, format!("Ask again on {}", day.said()));
    assert_eq!(next(&bench, 61).0, "Ask how it holds", "what was answered a month before is no answer");
    answered(&mut bench, 61, Became::Holds);
    assert!(asks(&bench).iter().any(|ask| ask.words == comes && ask.answered));
}

#[test]
fn what_was_answered_in_its_field_counts_and_is_one_answer() {
    let mut bench = handed_over("static");
    bench.try_say(set("hand_over.became", "holds"), LIT_AT + 31 * DAY_MS, None).unwrap();
    assert!(next(&bench, 32).0.starts_with("Ask again on"));
    bench.try_say(set("hand_over.became", "failed"), LIT_AT + 32 * DAY_MS, None).unwrap();
    assert_eq!(bench.plan().hand_over.afterwards.answers.len(), 1, "it was corrected");
    bench.set("hand_over.became", "");
    assert!(bench.plan().hand_over.afterwards.answers.is_empty());
}

#[rstest]
#[case::it_is_still_here(false, answer(Became::Holds, None, ""), "became")]
#[case::what_holds_went_nowhere(true, answer(Became::Holds, Some(WentAt::Filler), ""), "went")]
#[case::too_many_words(true, answer(Became::Holds, None, &"x".repeat(2000)), "after")]
fn what_cannot_be_is_told_at_its_field(#[case] out: bool, #[case] said: Change, #[case] field: &str) {
    let mut bench = if out { handed_over("static") } else { Bench::hot_lever() };
    let refused = bench.try_say(said, LIT_AT + 31 * DAY_MS, None).unwrap_err();
    assert!(format!("{refused:?}").contains(&format!("\"{field}\"")), "{refused:?}");
}
