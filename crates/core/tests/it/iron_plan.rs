//! The iron's station: what was found, what it means, what each iron asks, what each answer changes.

use crate::common::{Bench, LIT_AT, figure};
use proptest::prelude::*;
use rstest::rstest;
use vanadin_core::heat::SimCache;
use vanadin_core::iron::{
    Confidence, Era, Evidence, Family, Finding, Iron, LookTest, MeasuredTest, Notice, TypedValues, confirm,
};
use vanadin_core::job::Change;
use vanadin_core::method::MethodId;
use vanadin_core::plan::{FoundState, Plan, answers, plan_as_if};
use vanadin_core::quantity::UnitSystem;

fn observe(test: &str, outcome: &str, confidence: Confidence, spot: &str) -> Change {
    Change::Observe { test: test.into(), outcome: outcome.into(), confidence, spot: spot.into() }
}

fn sure(test: &str, outcome: &str) -> Change {
    observe(test, outcome, Confidence::Sure, "first spot")
}

fn measure(test: &str, typed: &[(&str, &str)]) -> Change {
    Change::Measure {
        test: test.into(),
        typed: typed.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect(),
        shown_in: UnitSystem::Metric,
        confidence: Confidence::Sure,
        spot: "web".into(),
    }
}

/// A lever under load, everything known but the iron.
fn untested() -> Bench {
    let mut bench = Bench::lever("loaded_moving", "ductile");
    for seen in bench.job().evidence {
        bench.say(Change::Strike { target: seen.fact, reason: "wrong part".into() });
    }
    bench.set("heat.source", "kiln");
    bench
}

fn share(plan: &Plan, iron: Iron) -> f64 {
    plan.iron.shares.iter().find(|share| share.iron == iron).unwrap().share
}

#[test]
fn what_was_found_is_never_lost() {
    let mut bench = untested();
    let before = bench.plan().iron.found.len();
    let first = bench.say(observe("punch", "raises_rim", Confidence::Fair, "rim"));
    let again = bench.say(observe("punch", "crumbles_no_rim", Confidence::Sure, "rim"));
    bench.say(observe("punch", "raises_rim", Confidence::Sure, "hub"));
    let found = bench.plan().iron.found;
    assert_eq!(found.len(), before + 3);
    let states: Vec<FoundState> = found[before..].iter().map(|line| line.state).collect();
    // Of two spots the first by name counts in full.
    assert_eq!(states, [FoundState::Replaced, FoundState::CountsByHalf, FoundState::Counts]);
    assert_eq!(found[before].words, "Punch: raises a rim");
    bench.say(Change::Strike { target: again, reason: "dirty spot".into() });
    let plan = bench.plan();
    let line = |fact| plan.iron.found.iter().find(|line| line.fact == fact).unwrap();
    assert_eq!(
        (line(again).state, line(again).note.as_str()),
        (FoundState::Struck, "crossed out: dirty spot")
    );
    assert_eq!(line(first).state, FoundState::CountsByHalf, "what it had replaced speaks again");
}

#[test]
fn measured_tests_weigh_in_and_say_what_they_found() {
    let mut bench = untested();
    let before = share(&bench.plan(), Iron::Ductile);
    bench.say(measure("sound", &[("set_speed", "5920"), ("caliper", "14"), ("shown", "14.9")]));
    bench.say(measure("mark", &[("mark", "GGG-40")]));
    let plan = bench.plan();
    assert!(share(&plan, Iron::Ductile) > 0.95 && before < 0.6);
    let words: Vec<&str> = plan.iron.found.iter().rev().take(2).map(|line| line.words.as_str()).collect();
    assert_eq!(words[1], "Sound speed: 5562 m/s through 14 mm");
    assert_eq!(words[0], "Casting mark: GGG-40: ductile (older German, 392 MPa)");
    let refused = bench.try_say(measure("mark", &[("mark", "No 4")]), LIT_AT, None);
    assert!(refused.is_err());
}

#[test]
fn compacted_graphite_is_told_and_treated_as_ductile() {
    let mut bench = untested();
    // Hand-worked: 5920 x 14 / 15.6 = 5313 m/s
    bench.say(measure("sound", &[("set_speed", "5920"), ("caliper", "14"), ("shown", "15.6")]));
    assert!(bench.plan().iron.notices.iter().any(|notice| notice.contains("compacted-graphite")));
    bench.say(measure("mark", &[("mark", "EN-GJV-350")]));
    let plan = bench.plan();
    assert!(share(&plan, Iron::Ductile) > share(&plan, Iron::Gray));
    assert!(plan.iron.found.last().unwrap().note.contains("treated as ductile"));
}

#[rstest]
#[case::manganese_steel("wear_part", "unknown", ("magnet", "weak_or_none"), "manganese steel")]
#[case::wrought("ornamental", "before_1949", ("drill", "long_curls"), "wrought")]
fn look_alikes_are_told_where_the_signs_fit(
    #[case] family: &str,
    #[case] era: &str,
    #[case] (test, outcome): (&str, &str),
    #[case] words: &str,
) {
    let mut bench = Bench::new();
    bench.set("part.family", family);
    bench.set("part.era", era);
    let told = |bench: &Bench| bench.plan().iron.notices.iter().any(|notice| notice.contains(words));
    assert!(!told(&bench));
    bench.say(sure(test, outcome));
    assert!(told(&bench));
    bench.set("part.family", "machine_frame");
    assert!(!told(&bench), "the part does not fit");
}

#[test]
fn a_hard_spot_is_a_place_and_leaves_the_iron() {
    let mut bench = untested();
    bench.say(sure("punch", "raises_rim"));
    bench.say(sure("drill", "short_curls"));
    let before = bench.plan();
    assert!(before.iron.hard_spot.is_none());
    let skated = bench.say(observe("file", "skates", Confidence::Sure, "rim"));
    let plan = bench.plan();
    assert_eq!(plan.iron.hard_spot.as_ref().map(|line| line.fact), Some(skated));
    let spot = bench.say(Change::AddHardSpot { spot: "rim".into(), observed: Some(skated) });
    let plan = bench.plan();
    assert_eq!(plan.iron.found.last().unwrap().state, FoundState::HardSpot);
    for iron in Iron::ALL {
        assert_eq!(share(&plan, iron), share(&before, iron));
    }
    assert!(plan.cautions.iter().any(|caution| caution.sentence.contains("Hard spot at rim")));
    // A later round has it on its map too; struck, the observation speaks again.
    bench.say(Change::Strike { target: spot, reason: "bites after all".into() });
    assert_ne!(share(&bench.plan(), Iron::Ductile), share(&before, Iron::Ductile));
    assert!(bench.job().round().hard_spots.is_empty());
}

#[test]
fn white_itself_is_no_hard_spot() {
    let mut bench = Bench::new();
    bench.set("part.family", "wear_part");
    bench.say(observe("file", "skates", Confidence::Sure, "edge"));
    let plan = bench.plan();
    // One test leads to white, but does not make it believed.
    assert_eq!((plan.iron.leading, plan.iron.hard_spot), (Iron::White, None));
    assert!(plan.locks.iter().any(|lock| lock.short == "Test again elsewhere"));
    bench.say(observe("drill", "will_not_bite", Confidence::Sure, "face"));
    let plan = bench.plan();
    assert_eq!((plan.iron.leading, plan.iron.hard_spot), (Iron::White, None));
    assert!(plan.methods.contenders.iter().all(|contender| contender.excluded), "don't repair");
    assert!(plan.methods.headline.starts_with("Don't repair"));
}

#[test]
fn of_several_irons_each_requirement_names_the_one_that_forced_it() {
    let mut bench = untested();
    bench.say(sure("punch", "raises_rim"));
    let plan = bench.plan();
    assert!(plan.iron.plausible.contains(&Iron::Malleable) && plan.iron.plausible.contains(&Iron::Ductile));
    let forced = |what: &str, asks: &str| {
        let demand = plan.iron.demands.iter().find(|d| d.what == what && d.asks.contains(asks));
        demand.map(|demand| demand.forced_by.clone()).unwrap_or_default()
    };
    assert!(forced("Out", "gas fusion").contains("malleable"), "{:?}", plan.iron.demands);
    assert_eq!(forced("Strength to match", "400 MPa"), "ductile");
    assert_eq!(forced("Drill no faster than", "20 m/min"), "ductile");
    // One iron alone forces nothing.
    let alone = plan_as_if(&bench.job(), &bench.shop, Iron::Ductile, &SimCache::default());
    assert!(alone.iron.demands.is_empty());
}

#[rstest]
#[case::referred_out_nothing_is_chosen("part.safety_class", "lifting", Some("Warm preheat"))]
#[case::beads("method.choice", "arc_nickel_iron", Some("Preheat"))]
#[case::pins("method.choice", "stitch", None)]
fn a_preheat_is_asked_only_where_the_way_is_heated(
    #[case] key: &str,
    #[case] typed: &str,
    #[case] asked: Option<&str>,
) {
    let mut bench = untested();
    bench.set(key, typed);
    let demands = bench.plan().iron.demands;
    let preheat = demands.iter().find(|demand| demand.what.to_lowercase().contains("preheat"));
    assert_eq!(preheat.map(|demand| demand.what.as_str()), asked);
}

#[test]
fn the_plan_for_several_is_at_least_as_demanding_as_for_each() {
    let mut bench = untested();
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "warm");
    bench.say(sure("punch", "raises_rim"));
    bench.say(sure("spark", "short_dull_red"));
    let plan = bench.plan();
    let (job, shop) = (bench.job(), &bench.shop);
    assert!(plan.iron.plausible.len() > 1, "{:?}", plan.iron.plausible);
    let value = |plan: &Plan, id: &str| figure(plan, id).map(|figure| figure.value);
    for &iron in plan.iron.plausible.iter().filter(|iron| **iron != Iron::Steel) {
        let one = plan_as_if(&job, shop, iron, &SimCache::default());
        let more = |id: &str| value(&plan, id) >= value(&one, id).map(|value| value - 1e-9);
        assert!(more("heat.target"), "{iron:?} heat.target");
        assert!(value(&plan, "heat.limit") <= value(&one, "heat.limit"), "{iron:?} limit");
        assert!(value(&plan, "cracks.A.right.rpm") <= value(&one, "cracks.A.right.rpm"), "{iron:?} rpm");
        for contender in one.methods.contenders.iter().filter(|contender| contender.excluded) {
            let same = plan.methods.contenders.iter().find(|c| c.way.method == contender.way.method).unwrap();
            assert!(same.excluded, "{iron:?} excludes {:?}", contender.way.method);
        }
    }
    assert_eq!(plan.figure("heat.target").unwrap().forced_by, "ductile");
}

#[test]
fn as_if_leaves_the_belief_and_changes_the_plan() {
    let mut bench = untested();
    bench.say(sure("punch", "raises_rim"));
    let plan = bench.plan();
    let steel = plan_as_if(&bench.job(), &bench.shop, Iron::Steel, &SimCache::default());
    assert_eq!(steel.iron.shares, plan.iron.shares);
    assert_eq!(steel.figure("iron.sure").unwrap().value, plan.figure("iron.sure").unwrap().value);
    assert!(steel.methods.contenders.iter().all(|contender| contender.excluded));
    let gray = plan_as_if(&bench.job(), &bench.shop, Iron::Gray, &SimCache::default());
    let gas = |plan: &Plan| {
        plan.methods.contenders.iter().any(|c| c.way.method == MethodId::GasIron && !c.excluded)
    };
    assert!(gas(&gray) && !gas(&plan));
}

#[test]
fn each_answer_says_what_it_would_change_in_the_plan() {
    let mut bench = untested();
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "warm");
    // A pan is gray for sure: a rim in the dent would change what is asked of the heat.
    bench.set("part.family", "cookware");
    bench.say(sure("file", "bites"));
    let found = answers(&bench.job(), &bench.shop, LookTest::Punch, &SimCache::default());
    assert_eq!(found.len(), 4);
    let chances: f64 = {
        let evidence: Vec<Evidence> =
            bench.job().evidence.iter().filter_map(|seen| seen.evidence()).collect();
        let belief = confirm(Family::Cookware, Era::From1970On, true, &evidence);
        LookTest::Punch
            .outcomes()
            .iter()
            .map(|outcome| {
                let finding = Finding::Look { test: LookTest::Punch, outcome };
                let item = Evidence { finding, confidence: Confidence::Sure, spot: "first spot".into() };
                belief.chance_of(&item, true)
            })
            .sum()
    };
    // Softened outcomes still sum to one for every iron.
    assert!((chances - 1.0).abs() < 1e-9, "{chances}");
    let rim = found.iter().find(|answer| answer.outcome == "raises_rim").unwrap();
    assert!(
        rim.changes.iter().any(|change| change == "preheat goes from 150 to 200 °C"),
        "{:?}",
        rim.changes
    );
    assert!(rim.changes.iter().any(|change| change == "gas fusion is out"), "{:?}", rim.changes);
    assert!(rim.changes.iter().any(|change| change == "it has to suit ductile too"), "{:?}", rim.changes);
    // Fifty kelvins more take longer by more than a tenth.
    assert!(rim.changes.iter().any(|change| change.ends_with(" from start to finish")), "{:?}", rim.changes);
    let crumbles = found.iter().find(|answer| answer.outcome == "crumbles_no_rim").unwrap();
    assert!(crumbles.changes.is_empty(), "the plan stays as it is: {:?}", crumbles.changes);
    // What it says is what then comes about.
    bench.say(sure("punch", "raises_rim"));
    let plan = bench.plan();
    assert_eq!(plan.iron.leading, rim.leading);
    assert_eq!(plan.figure("heat.target").unwrap().value, 200.0);
}

#[test]
fn answers_change_nothing() {
    let bench = untested();
    let before = bench.plan();
    for test in LookTest::ALL {
        assert_eq!(
            answers(&bench.job(), &bench.shop, test, &SimCache::default()).len(),
            test.outcomes().len()
        );
    }
    assert_eq!(bench.plan(), before);
}

#[test]
fn the_meaning_speaks_of_this_job() {
    let mut bench = untested();
    bench.say(sure("punch", "raises_rim"));
    bench.say(sure("drill", "short_curls"));
    let said = |bench: &Bench| bench.plan().iron.meaning.join(" ");
    assert!(said(&bench).contains("It may still be malleable"), "{}", said(&bench));
    assert!(!said(&bench).contains("it gives before it breaks"));
    bench.set("part.loads", "bending");
    assert!(said(&bench).contains("it gives before it breaks"), "{}", said(&bench));
}

#[test]
fn every_test_has_its_two_lines_and_every_measured_one_its_fields() {
    for test in LookTest::ALL {
        let (how, caution) = test.how();
        assert!(how.len() > 20 && caution.len() > 20, "{test:?}");
    }
    for test in MeasuredTest::ALL {
        assert!(!test.asks().is_empty());
        assert_eq!(MeasuredTest::from_id(test.id()), Some(test));
        // Nothing typed is told field by field, and never found.
        assert!(!test.measure(&TypedValues::new(), UnitSystem::Metric).unwrap_err().is_empty());
    }
}

fn any_look() -> impl Strategy<Value = (LookTest, usize)> {
    (0..LookTest::ALL.len(), 0..8usize)
        .prop_map(|(test, outcome)| (LookTest::ALL[test], outcome % LookTest::ALL[test].outcomes().len()))
}

proptest! {
    #[test]
    fn a_stronger_confidence_never_moves_the_leading_irons_odds_the_other_way(
        before in proptest::collection::vec(any_look(), 0..4),
        (test, outcome) in any_look(),
    ) {
        let evidence = |(test, outcome): (LookTest, usize), confidence, at: usize| Evidence {
            finding: Finding::Look { test, outcome: &test.outcomes()[outcome] },
            confidence,
            spot: format!("spot {at}"),
        };
        let mut all: Vec<Evidence> =
            before.iter().enumerate().map(|(at, look)| evidence(*look, Confidence::Fair, at)).collect();
        // A further spot counts by half, whatever its confidence: one test each.
        all.retain(|item| item.finding.test_id() != test.id());
        let of = |all: &[Evidence]| confirm(Family::LoadedMoving, Era::From1970On, true, all);
        let leading = of(&all).leading;
        let odds = |all: &[Evidence]| {
            let p = of(all).of(leading);
            p / (1.0 - p)
        };
        let mut moved = vec![odds(&all)];
        for confidence in [Confidence::Unsure, Confidence::Fair, Confidence::Sure] {
            let mut with = all.clone();
            with.push(evidence((test, outcome), confidence, 99));
            moved.push(odds(&with));
        }
        let rising = moved.windows(2).all(|pair| pair[1] >= pair[0] * (1.0 - 1e-12));
        let falling = moved.windows(2).all(|pair| pair[1] <= pair[0] * (1.0 + 1e-12));
        prop_assert!(rising || falling, "{:?} {} {:?}", leading, test.id(), moved);
    }

    #[test]
    fn the_order_of_all_tests_changes_neither_shares_nor_notices(
        looks in proptest::collection::vec(any_look(), 0..7),
        sound in proptest::option::of(14.2..16.5f64),
        turn in 0..7usize,
    ) {
        let mut all: Vec<Evidence> = Vec::new();
        for (test, outcome) in looks {
            if all.iter().all(|item| item.finding.test_id() != test.id()) {
                let finding = Finding::Look { test, outcome: &test.outcomes()[outcome] };
                all.push(Evidence { finding, confidence: Confidence::Sure, spot: "first spot".into() });
            }
        }
        if let Some(shown) = sound {
            let typed: TypedValues = [("set_speed", "5920".to_owned()), ("caliper", "14".to_owned()), ("shown", format!("{shown:.2}"))]
                .into_iter().map(|(key, text)| (key.to_owned(), text)).collect();
            let measured = MeasuredTest::Sound.measure(&typed, UnitSystem::Metric).unwrap();
            all.push(Evidence { finding: measured.finding, confidence: Confidence::Fair, spot: "web".into() });
        }
        let forward = confirm(Family::WearPart, Era::Before1949, true, &all);
        if !all.is_empty() {
            let by = turn % all.len();
            all.rotate_left(by);
        }
        let turned = confirm(Family::WearPart, Era::Before1949, true, &all);
        prop_assert!((forward.posterior.iter().sum::<f64>() - 1.0).abs() < 1e-9);
        for iron in Iron::ALL {
            prop_assert!((forward.of(iron) - turned.of(iron)).abs() < 1e-9);
        }
        let said = |belief: &vanadin_core::iron::Belief| -> Vec<String> { belief.notices.iter().map(Notice::sentence).collect() };
        prop_assert_eq!(said(&forward), said(&turned));
        prop_assert_eq!(forward.white, turned.white);
    }
}
