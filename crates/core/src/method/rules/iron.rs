//! What the iron allows: M01 to M04, M23.

use super::super::{MethodId, School};
use super::{ALL, Asked, Effect, Fired, Ruling, STICK};
use crate::iron::{Iron, WhiteStanding};
use crate::quantity::Unit;

pub(super) fn iron_rules(asked: &Asked<'_>, ruling: &mut Ruling) {
    use Effect::{Caution, Exclude, Favour};
    use MethodId::{ArcNickelIron, GasIron, Stitch, TorchBraze};
    let belief = asked.belief;
    if belief.white == WhiteStanding::Believed {
        ruling.say("M01", Exclude, ALL, "White iron: welding cracks it and no drill bites. Replace it.");
    }
    if belief.leading == Iron::Steel {
        ruling.say("M02", Exclude, ALL, "It is steel: low-hydrogen steel practice applies, not these plans.");
    } else if belief.is_plausible(Iron::Steel) {
        ruling.say("M02", Exclude, &[GasIron], "Steel is still possible: an iron rod does not suit it.");
        ruling.say(
            "M02",
            Caution,
            &[MethodId::ArcNickel, ArcNickelIron, TorchBraze, Stitch],
            "Steel is still possible: one more test settles it.",
        );
    }
    if belief.is_plausible(Iron::Malleable) {
        ruling.say("M03", Exclude, &[GasIron], "Malleable is possible: melting it undoes the anneal.");
        ruling.say("M03", Caution, STICK, "Malleable is possible: nickel-iron, short and cool.");
        ruling.say(
            "M03",
            Caution,
            &[TorchBraze],
            format!(
                "Malleable is possible: bronze runs at {} and more and leaves a hard seam. Quick, small, and only \
                 where a little hardness does no harm.",
                asked.units.say(880.0, Unit::Celsius)
            ),
        );
    }
    if belief.is_plausible(Iron::Ductile) {
        let rci_b = asked.rods.is_some_and(|rods| rods.iter().any(|rod| rod == "iron_rod_b"));
        if !rci_b {
            ruling.say(
                "M04",
                Exclude,
                &[GasIron],
                "Ductile is possible: only RCI-B rod would do, and it is not at hand.",
            );
        }
        ruling.say("M04", Favour, &[ArcNickelIron, TorchBraze], "Suits ductile iron.");
    }
    if belief.is_plausible(Iron::NiResist) {
        ruling.say("M23", Exclude, &[GasIron], "Ni-resist is possible: an iron rod does not suit it.");
        ruling.say("M23", Caution, &[TorchBraze], "Ni-resist is possible: bronze takes badly on it.");
        for &method in STICK {
            ruling.fired.push(Fired {
                rule: "M23".to_owned(),
                effect: Exclude,
                method,
                school: Some(School::Cold),
                iron: Some(Iron::NiResist),
                sentence: "Ni-resist is possible: no cold beads.".to_owned(),
            });
        }
    }
}
