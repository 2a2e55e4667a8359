//! Every choice of every matter, walked on ten jobs.

use rstest::rstest;
use vanadin_core::method::MethodId;
use vanadin_core::plan::TAUGHT;

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

#[test]
fn each_choice_moves_something_or_says_why_nothing_moves() {
    for (method, mut bench) in jobs() {
        let of = MethodId::from_id(method).unwrap();
        for matter in TAUGHT.iter().filter(|matter| (matter.applies)(of)) {
            bench.set(matter.of_job, matter.usual);
            let usual = format!("{:?}", bench.plan());
            for (choice, _) in matter.choices.iter().filter(|(id, _)| *id != matter.usual) {
                bench.set(matter.of_job, choice);
                assert_ne!(format!("{:?}", bench.plan()), usual, "{method}: {} {choice}", matter.label);
            }
            bench.set(matter.of_job, matter.usual);
        }
    }
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
