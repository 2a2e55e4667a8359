//! M12: a thin wall.

use super::{Rule, RuleFacts, RuleOutput, STICK};
use crate::method::MethodId::{Stitch, StitchLocks, TigBrazeSi, TigNickel, TorchBraze};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M12", iron: None, judge };

/// House: thin under this, in mm.
const THIN_MM: f64 = 5.0;
/// House: no lock sits in a thinner wall, and from here on it sits well, in mm.
const LOCKS_MM: f64 = 8.0;
const ROOM_FOR_LOCKS_MM: f64 = 10.0;

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    let Some(wall_mm) = facts.wall_mm else {
        output.unknown("the wall");
        return;
    };
    let mm = |mm| facts.units.say(mm, Unit::Millimetres);
    if wall_mm < LOCKS_MM {
        output.exclude(&[StitchLocks], format!("Under {} no lock holds.", mm(LOCKS_MM)));
    } else if wall_mm < ROOM_FOR_LOCKS_MM {
        let room = mm(ROOM_FOR_LOCKS_MM);
        output.caution(&[StitchLocks], format!("A wall under {room}: a lock wants metal round it."));
    }
    if wall_mm < THIN_MM {
        output.exclude(&[Stitch], format!("Under {} no thread holds.", mm(THIN_MM)));
        output.caution(STICK, format!("Thin wall: {} rod at most.", mm(2.5)));
        output.favour(&[TigNickel, TigBrazeSi, TorchBraze], "Suits a thin wall.");
    }
}
