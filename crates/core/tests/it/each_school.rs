//! Every choice of every matter, walked on ten jobs.

use rstest::rstest;
use serde_json::Value;
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Plan, TAUGHT, WayOpened};

use crate::common::Bench;

fn jobs() -> Vec<(&'static str, Bench)> {
    [
        "arc_nickel_iron",
        "arc_nickel",
        "torch_braze",
        "gas_iron",
        "stitch",
        "stitch_locks",
        "tig_nickel",
        "tig_braze_si",
        "butter_build",
        "mig_braze_si",
    ]
    .into_iter()
    .map(|method| {
        let mut bench = Bench::lever("machine_frame", "gray");
        bench.set("method.choice", method);
        bench.set("heat.source", "weed_burner");
        bench.ready();
        (method, bench)
    })
    .collect()
}

/// Each number of the plan, with where it stands: words alone are no figure that moved.
fn numbers(of: &Value, at: &str, into: &mut Vec<String>) {
    match of {
        Value::Number(number) => into.push(format!("{at} {number}")),
        Value::Array(each) => each.iter().for_each(|it| numbers(it, at, into)),
        Value::Object(each) => {
            each.iter().for_each(|(name, it)| numbers(it, &format!("{at}.{name}"), into));
        }
        Value::Null | Value::Bool(_) | Value::String(_) => {}
    }
}

fn figures(plan: &Plan) -> Vec<String> {
    let mut found = Vec::new();
    let taken = WayOpened::from(plan.methods.taken().unwrap().clone());
    numbers(&serde_json::to_value(plan).unwrap(), "plan", &mut found);
    numbers(&serde_json::to_value(taken).unwrap(), "taken", &mut found);
    numbers(&serde_json::to_value(&plan.figures).unwrap(), "figures", &mut found);
    found
}

fn reasons(plan: &Plan) -> Vec<String> {
    plan.methods.taken().unwrap().schools.clone()
}

#[test]
fn each_choice_moves_a_figure_or_says_why_nothing_moves() {
    let mut silent = Vec::new();
    for (method, mut bench) in jobs() {
        let of = MethodId::from_id(method).unwrap();
        for matter in TAUGHT.iter().filter(|matter| (matter.applies)(of)) {
            bench.set(matter.of_job, matter.usual);
            let usual = bench.plan();
            for (choice, _) in matter.choices.iter().filter(|(id, _)| *id != matter.usual) {
                bench.set(matter.of_job, choice);
                let chosen = bench.plan();
                if figures(&chosen) == figures(&usual) && reasons(&chosen) == reasons(&usual) {
                    silent.push(format!("{method}: {} {choice}", matter.label));
                }
            }
            bench.set(matter.of_job, matter.usual);
        }
    }
    assert!(silent.is_empty(), "{silent:#?}");
}

#[rstest]
#[case::met_in_the_middle("arc_nickel_iron", "groove", "through", "meet in the middle")]
#[case::free_again("torch_braze", "fixture", "tacks", "free again")]
#[case::as_many_blows("tig_nickel", "peening", "light", "as many blows")]
#[case::as_many_pins("stitch", "density", "bridged", "as many in the end")]
#[case::too_heavy("tig_braze_si", "braze_heat", "arc_only", "warms 1 kg at most")]
fn what_moves_no_figure_is_told(
    #[case] method: &str,
    #[case] matter: &str,
    #[case] choice: &str,
    #[case] why: &str,
) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    let said = |bench: &Bench| {
        let plan = bench.plan();
        plan.methods.taken().unwrap().schools.iter().any(|it| it.contains(why))
    };
    assert!(!said(&bench));
    bench.set(&format!("taught.{matter}"), choice);
    assert!(said(&bench), "{:?}", bench.plan().methods.taken().unwrap().schools);
    // From one side a groove through the wall is another one, and told by its figures.
    if matter == "groove" {
        bench.set("part.sides", "one");
        assert!(!said(&bench));
    }
}
