//! M12: a thin wall.

use super::{Asked, PINS, Rule, STICK, Saying};
use crate::method::MethodId::{TigBrazeSi, TigNickel, TorchBraze};
use crate::quantity::Unit;

pub(super) const RULE: Rule = Rule { id: "M12", iron: None, judge };

/// House: thin under this, in mm.
const THIN_MM: f64 = 5.0;

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    let Some(wall_mm) = asked.wall_mm else {
        rule.unknown("the wall");
        return;
    };
    if wall_mm < THIN_MM {
        let mm = |mm| asked.units.say(mm, Unit::Millimetres);
        rule.exclude(PINS, format!("Under {} no thread holds.", mm(THIN_MM)));
        rule.caution(STICK, format!("Thin wall: {} rod at most.", mm(2.5)));
        rule.favour(&[TigNickel, TigBrazeSi, TorchBraze], "Suits a thin wall.");
    }
}
