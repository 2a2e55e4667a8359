//! A few plans as they are, whole: whoever changes a law sees here what that changes. Looked at, and taken or
//! mended, never tuned.

use std::fmt::Write;

use crate::common::Bench;
use rstest::rstest;
use vanadin_core::plan::{Plan, plan, status};
use vanadin_core::quantity::UnitSystem;

/// All that a plan says, a line each.
fn told(bench: &Bench, plan: &Plan) -> String {
    let mut told = String::new();
    let mut say = |line: String| writeln!(told, "{line}").expect("a string takes everything");
    say(format!("next: {}", status(&bench.job(), plan, 0).next.verb));
    say(format!("method: {}", plan.methods.headline));
    for contender in &plan.methods.contenders {
        say(format!("  {} {:.1} {}", contender.label, contender.score, contender.reasons.join(" ")));
    }
    for figure in &plan.figures {
        // A crack is named by chance.
        let id: Vec<&str> = figure.id.split('.').filter(|part| part.len() < 36).collect();
        say(format!(
            "{}: {} = {} / {} ({:?})",
            id.join("."),
            figure.name,
            figure.metric.text(),
            figure.imperial.text(),
            figure.certainty
        ));
    }
    for line in &plan.gate.refused {
        say(format!("refused: {} {}", line.sentence, line.unlock));
    }
    for missing in &plan.missing {
        say(format!("missing: {}: {}", missing.what, missing.why));
    }
    for caution in &plan.cautions {
        say(format!("caution, {:?}: {}", caution.station, caution.sentence));
    }
    told
}

#[rstest]
#[case::a_valve_brazed("valve_brazed", "pump_valve", "gray", "torch_braze", UnitSystem::Metric)]
#[case::a_frame_welded_in_imperial(
    "frame_welded",
    "machine_frame",
    "gray",
    "arc_nickel_iron",
    UnitSystem::Imperial
)]
#[case::a_frame_stitched("frame_stitched", "machine_frame", "ductile", "stitch", UnitSystem::Metric)]
fn a_plan_is_what_it_was(
    #[case] name: &str,
    #[case] family: &str,
    #[case] iron: &str,
    #[case] method: &str,
    #[case] units: UnitSystem,
) {
    let mut bench = Bench::lever(family, iron);
    bench.set("method.choice", method);
    bench.shop.units = units;
    let alone = plan(&bench.job(), &bench.shop).said();
    assert_eq!(bench.plan(), alone, "by what is kept of other plans");
    insta::assert_snapshot!(name, told(&bench, &alone));
}
