//! What the part itself says: cautions, locks, what is missing, and what is looked at in the end.

use crate::common::{Bench, figure};
use rstest::rstest;
use vanadin_core::casting::said::SafetyClass;
use vanadin_core::job::{Change, TorchEntry};
use vanadin_core::plan::{Amount, Station};

fn cautions(bench: &Bench, station: Station) -> String {
    let plan = bench.plan();
    let found = plan.cautions.iter().filter(|caution| caution.station == station);
    found.map(|caution| caution.sentence.clone()).collect::<Vec<_>>().join(" ")
}

#[rstest]
#[case::old_paint("part.era", "before_1949", Station::Part, "lead")]
#[case::oil("part.oil", "soaked", Station::Cracks, "phosgene")]
#[case::closed("part.shape", "hollow_box", Station::Heat, "vent, drain, dry at 120 °C first")]
#[case::cookware("part.family", "cookware", Station::HandOver, "No contact with food")]
#[case::fire_part("part.family", "hot_exhaust", Station::Check, "carbon monoxide")]
#[case::fluid("part.fluid_tight", "yes", Station::Check, "Test with water, never with air")]
#[case::heavy("part.mass", "60 kg", Station::Part, "sling it on sound metal")]
fn a_part_earns_its_cautions(
    #[case] key: &str,
    #[case] typed: &str,
    #[case] station: Station,
    #[case] words: &str,
) {
    let mut bench = Bench::lever("machine_frame", "gray");
    assert!(!cautions(&bench, station).contains(words), "not before it is said");
    bench.set(key, typed);
    assert!(cautions(&bench, station).contains(words), "{}", cautions(&bench, station));
}

#[rstest]
#[case::stick("arc_nickel", "Nickel fume")]
#[case::braze("torch_braze", "White smoke is zinc")]
#[case::gas("gas_iron", "cuts the flux glare")]
fn the_torch_has_the_cautions_of_its_method(#[case] method: &str, #[case] words: &str) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    assert!(cautions(&bench, Station::Torch).contains(words), "{}", cautions(&bench, Station::Torch));
}

#[test]
fn a_cold_way_needs_no_fire_watch() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "stitch");
    assert!(cautions(&bench, Station::Cooling).is_empty());
    bench.set("method.choice", "torch_braze");
    assert!(cautions(&bench, Station::Cooling).contains("Fire watch until it is under 65 °C"));
}

#[test]
fn every_safety_class_locks_and_a_named_authority_with_a_reference_unlocks() {
    for (class, label) in SafetyClass::CHOICES.iter().filter(|(class, _)| *class != "none") {
        let mut bench = Bench::lever("machine_frame", "gray");
        bench.set("part.safety_class", class);
        let plan = bench.plan();
        assert_eq!(plan.locks.len(), 1, "{class}");
        assert!(plan.locks[0].sentence.contains(label), "{}", plan.locks[0].sentence);
        assert!(plan.methods.chosen.is_none() && plan.unlit_reason().is_some());
        // Everything is computed and shown all the same.
        assert!(!plan.methods.contenders.is_empty() && figure(&plan, "cracks.A.right.drill").is_some());
        let never = [
            "boiler_or_pressure_vessel",
            "hydraulic_or_cylinder",
            "pressure_piping",
            "lifting",
            "steering_brakes_suspension",
        ]
        .contains(class);
        let said = [
            ("part.authority", "I. Wray"),
            ("part.authority_is", "inspector"),
            ("part.authority_looked", "the drawing, and the seam after penetrant"),
            ("part.authority_reference", "ref 12/26"),
            ("part.authority_day", "2 March 2026"),
        ];
        for (key, typed) in said {
            let lock = bench.plan().locks.into_iter().next();
            let asks = lock.map(|lock| lock.key);
            assert_eq!(
                asks.as_deref(),
                Some(if never { "" } else { key }),
                "{class}: two words unlock nothing"
            );
            bench.set(key, typed);
        }
        let plan = bench.plan();
        assert_eq!(plan.locks.len(), usize::from(never), "{class}");
        if never {
            assert!(plan.locks[0].unlock.contains("Nothing that is said here opens it"));
            assert_eq!(plan.part.answered_for, "");
        } else {
            let first = &plan.cautions[0].sentence;
            assert_eq!(first, &plan.part.answered_for);
            for words in
                ["I. Wray answers for it (inspector)", "seam after penetrant, Mon 2 Mar 2026", "ref 12/26"]
            {
                assert!(first.contains(words), "{first}");
            }
        }
    }
}

#[test]
fn what_is_missing_says_why_it_matters_and_goes_when_it_is_known() {
    let mut bench = Bench::new();
    let missing = bench.plan().missing;
    assert!(missing.iter().all(|missing| !missing.why.is_empty() && !missing.what.is_empty()));
    let before = missing.len();
    bench.set("part.wall", "14");
    let after = bench.plan().missing;
    assert_eq!(after.len(), before - 1);
    assert!(!after.iter().any(|missing| missing.key == "part.wall"));
    bench.set("part.wall", "");
    assert_eq!(bench.plan().missing.len(), before, "made unknown again");
}

#[test]
fn no_first_choice_is_called_while_too_little_is_known() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("part.service_temperature", "");
    let plan = bench.plan();
    assert_eq!(plan.amount(Station::Part), Amount::Something);
    assert!(plan.methods.chosen.is_none());
    assert!(plan.methods.headline.contains("leads so far"), "{}", plan.methods.headline);
    bench.set("method.choice", "torch_braze");
    assert!(bench.plan().methods.chosen.is_some(), "the welder's own choice stands");
}

#[rstest]
#[case::stitch("stitch", &["check.pins", "check.cracks_again", "check.alignment"])]
#[case::braze("torch_braze", &["check.clean", "check.toes", "check.cracks_again", "check.alignment"])]
#[case::stick("arc_nickel", &["check.clean", "check.toes", "check.cracks_again", "check.file_edge", "check.alignment"])]
#[case::gas("gas_iron", &["check.clean", "check.toes", "check.cracks_again", "check.file_edge", "check.alignment"])]
fn the_list_at_the_check_follows_the_risks(#[case] method: &str, #[case] lines: &[&str]) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    let keys = |bench: &Bench| bench.plan().check.iter().map(|line| line.key.clone()).collect::<Vec<_>>();
    assert_eq!(keys(&bench), lines);
    bench.set("part.fluid_tight", "yes");
    assert!(keys(&bench).contains(&"check.leak".to_owned()));
}

#[test]
fn the_check_is_enough_only_when_every_line_holds() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "torch_braze");
    assert_eq!(bench.plan().amount(Station::Check), Amount::Nothing);
    let keys: Vec<String> = bench.plan().check.iter().map(|line| line.key.clone()).collect();
    for (at, key) in keys.iter().enumerate() {
        bench.set(key, "ok");
        let amount = if at + 1 == keys.len() { Amount::Enough } else { Amount::Something };
        assert_eq!(bench.plan().amount(Station::Check), amount, "{key}");
    }
    bench.set(&keys[0], "not_ok");
    assert_eq!(bench.plan().amount(Station::Check), Amount::Something);
}

#[test]
fn a_new_round_needs_a_round_that_was_lit() {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    assert!(bench.try_say(Change::NewRound { reason: "ran on".into() }, 1, None).is_err());
    bench.light();
    bench.say(Change::Torch { entry: TorchEntry::Covered { why: String::new() } });
    bench.say(Change::NewRound { reason: "ran on".into() });
    let plan = bench.plan();
    assert_eq!(plan.amount(Station::Torch), Amount::Nothing, "stages 3 to 9 run again");
    assert_eq!(plan.amount(Station::Part), Amount::Enough, "the part is still the part");
}
