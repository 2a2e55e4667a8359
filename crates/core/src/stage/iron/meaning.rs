//! What the iron means for this job, in a few sentences.

use crate::casting::said::Load;
use crate::field;
use crate::iron::{ANNEAL_LOST_C, Belief, Iron};
use crate::job::Round;
use crate::method::MethodId;
use crate::quantity::Unit;
use crate::stage::MethodPlan;
use crate::stage::part::PartFacts;

/// Sentences about the leading iron on this part, then about what else it may be.
pub fn meaning(round: &Round, belief: &Belief, part: &PartFacts, methods: &MethodPlan) -> Vec<String> {
    let units = part.units;
    let c = |celsius: f64| units.say(celsius, Unit::Celsius);
    let mut said = vec![belief.leading.meaning_in(units)];
    let bends = round.get(field::part::LOADS).into_iter().flatten().any(Load::bends);
    let hot = round.get(field::part::SERVICE_TEMPERATURE).filter(|celsius| *celsius > 300.0);
    let chosen = methods.chosen.map(|way| way.method);
    match belief.leading {
        Iron::Gray => {
            if bends {
                said.push(
                    "It carries bending or shock and cannot yield: the joint has to be at least as strong as \
                     the iron, and no corner may stay sharp."
                        .to_owned(),
                );
            }
            if hot.is_some() {
                said.push(
                    "It runs hot: gray iron grows and scales with years of heat. Cut back to sound metal."
                        .to_owned(),
                );
            }
        }
        Iron::Ductile => {
            if bends {
                said.push(
                    "It was chosen for what it carries: it gives before it breaks, and the joint should too. \
                     Bronze or nickel-iron does."
                        .to_owned(),
                );
            }
            if chosen == Some(MethodId::ArcNickel) {
                said.push(
                    "Nickel alone is softer than this iron: nickel-iron keeps more of its strength."
                        .to_owned(),
                );
            }
        }
        Iron::Malleable => {
            said.push(
                "Blackheart shows a dark core, whiteheart a pale rim: whiteheart has weldable grades, so ask \
                 for the grade."
                    .to_owned(),
            );
            if chosen == Some(MethodId::TorchBraze) {
                said.push(format!(
                    "Quick with the torch: the anneal goes from about {} up, with time.",
                    c(ANNEAL_LOST_C)
                ));
            }
        }
        Iron::White => {
            said.push("It wears well because it is hard. Ask for a new one, or line it.".to_owned())
        }
        Iron::NiResist => said.push(format!(
            "It was chosen against heat or corrosion: keep it between {} and {} while welding.",
            c(150.0),
            c(300.0)
        )),
        Iron::Steel => said.push("Weld it as steel elsewhere in the shop, and put this job away.".to_owned()),
    }
    let others: Vec<Iron> = belief.plausible.iter().copied().filter(|iron| *iron != belief.leading).collect();
    for iron in others.into_iter().take(2) {
        said.push(format!("It may still be {}: {}", iron.label().to_lowercase(), if_it_is(iron, &c)));
    }
    said
}

/// What would be different if it were this iron after all.
fn if_it_is(iron: Iron, c: &impl Fn(f64) -> String) -> String {
    match iron {
        Iron::Gray => "then it is weaker and cracks more easily when heated unevenly.".to_owned(),
        Iron::Ductile => {
            "then the arc's edge goes hard unless it is hotter, and only RCI-B rod would fuse.".to_owned()
        }
        Iron::Malleable => {
            format!("then nothing may hold it near {}, and gas fusion is out.", c(ANNEAL_LOST_C))
        }
        Iron::White => "then nothing hot may come near it.".to_owned(),
        Iron::NiResist => "then no cold beads, and bronze takes badly.".to_owned(),
        Iron::Steel => "then none of these plans apply. One more test.".to_owned(),
    }
}
