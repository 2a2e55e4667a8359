//! Where practice differs: what is taught, by whom, and what it changes. A job follows its own choice, else the shop's,
//! else the usual.

use crate::field::{Choice, FieldValue, choices, shop_taught, taught};
use crate::job::Round;
use crate::method::{Joins, MethodId};
use crate::shop::Shop;

/// One matter on which practice differs.
#[derive(Debug)]
pub struct Taught {
    /// "Peening".
    pub label: &'static str,
    /// Keys: of a job, and as the shop prefers it.
    pub of_job: &'static str,
    pub of_shop: &'static str,
    pub choices: &'static [Choice],
    /// Who does it so, and why: one for each of the choices; templates.
    pub who: &'static [&'static str],
    /// What is done where nobody has chosen.
    pub usual: &'static str,
    pub applies: fn(MethodId) -> bool,
}

fn stick(method: MethodId) -> bool {
    use MethodId::{ArcNickel, ArcNickelIron, ButterBuild, LastResort};
    matches!(method, ArcNickel | ArcNickelIron | ButterBuild | LastResort)
}

fn heated(method: MethodId) -> bool {
    !method.without_heat()
}

fn grooved(method: MethodId) -> bool {
    method.entry().groove.is_some()
}

/// Which lead goes where.
pub const POLARITY: Taught = Taught {
    label: "Leads",
    of_job: taught::POLARITY.key(),
    of_shop: shop_taught::POLARITY.key(),
    choices: choices::POLARITIES,
    who: &[
        "Most makers' first word: steady, digs well.",
        "On thin walls: it digs less and takes up less of the iron.",
        "Where the box says so, or the arc wanders off.",
    ],
    usual: "plus",
    applies: stick,
};

pub const PEENING: Taught = Taught {
    label: "Peening",
    of_job: taught::PEENING.key(),
    of_shop: shop_taught::PEENING.key(),
    choices: choices::PEENINGS,
    who: &[
        "Arc welders: it stretches the bead while it still gives.",
        "Where the filler is soft or the wall thin.",
        "Those who heat the whole part: the heat takes the pull out, not the hammer.",
    ],
    usual: "each",
    applies: MethodId::arc,
};

pub const FIXTURE: Taught = Taught {
    label: "Held",
    of_job: taught::FIXTURE.key(),
    of_shop: shop_taught::FIXTURE.key(),
    choices: choices::FIXTURES,
    who: &[
        "Most: what can move does not crack.",
        "Where pieces would slip before they are tacked.",
        "Some, done cold only, to keep it flat: it holds the pull in.",
    ],
    usual: "free",
    applies: heated,
};

pub const SIDES: Taught = Taught {
    label: "Sides",
    of_job: taught::SIDES.key(),
    of_shop: shop_taught::SIDES.key(),
    choices: choices::TAUGHT_SIDES,
    who: &["Where both can be reached: stronger.", "Where a face has to stay as it is."],
    usual: "both",
    applies: grooved,
};

pub const DIRT: Taught = Taught {
    label: "Dirt",
    of_job: taught::DIRT.key(),
    of_shop: shop_taught::DIRT.key(),
    choices: choices::DIRTS,
    who: &[
        "Nearly all: what stays in makes pores.",
        "Some with flame and stick, who burn it out as they go.",
    ],
    usual: "clean",
    applies: |method| stick(method) || method.entry().joins == Joins::Flame,
};

pub const BEAD: Taught = Taught {
    label: "Bead",
    of_job: taught::BEAD.key(),
    of_shop: shop_taught::BEAD.key(),
    choices: choices::BEAD_LENGTHS,
    who: &[
        "The careful, done cold: little heat at a time.",
        "By its heat: {25 to 60 mm}.",
        "Those who have the whole part hot: fewer starts and ends.",
    ],
    usual: "usual",
    applies: |method| matches!(method.entry().joins, Joins::Arc | Joins::ArcBronze),
};

pub const AFTER: Taught = Taught {
    label: "After the last bead",
    of_job: taught::AFTER.key(),
    of_shop: shop_taught::AFTER.key(),
    choices: choices::AFTERS,
    who: &[
        "Most: no heat is lost.",
        "Where one end had grown cold: it comes down as one.",
        "Flame in hand: the joint never falls away from the rest.",
        "Shops with an oven: hours of it cost little.",
        "Thin walls that were gas welded.",
    ],
    usual: "wrap",
    applies: heated,
};

pub const PORES: Taught = Taught {
    label: "Pores",
    of_job: taught::PORES.key(),
    of_shop: shop_taught::PORES.key(),
    choices: choices::PORES,
    who: &[
        "By what the place has to do: a pore that neither weeps nor carries stays.",
        "Those who want no doubt left.",
    ],
    usual: "leave",
    applies: heated,
};

pub const OLD_WELD: Taught = Taught {
    label: "Old weld",
    of_job: taught::OLD_WELD.key(),
    of_shop: shop_taught::OLD_WELD.key(),
    choices: choices::OLD_WELDS,
    who: &["Nearly all: what failed once fails again.", "Some, where it holds and is sound all along."],
    usual: "out",
    applies: MethodId::fusion,
};

pub const DRILL: Taught = Taught {
    label: "Stop-hole",
    of_job: taught::DRILL.key(),
    of_shop: shop_taught::DRILL.key(),
    choices: choices::STOP_HOLES,
    who: &[
        "Those who have seen cracks run on: the tip lies further than it shows.",
        "Those who trust the dye.",
        "Those who grind until the line is gone.",
    ],
    usual: "past",
    applies: grooved,
};

pub const DENSITY: Taught = Taught {
    label: "Pins",
    of_job: taught::DENSITY.key(),
    of_shop: shop_taught::DENSITY.key(),
    choices: choices::DENSITIES,
    who: &[
        "The usual: tight, and each pin holds its neighbour.",
        "The same in the end, with less pull on the thin iron between.",
        "On a patch that seals and carries nothing.",
    ],
    usual: "all",
    applies: MethodId::pins,
};

pub const FINISH: Taught = Taught {
    label: "Finish",
    of_job: taught::FINISH.key(),
    of_shop: shop_taught::FINISH.key(),
    choices: choices::FINISHES,
    who: &[
        "The usual: the seen face is blended, the hidden one left on for strength.",
        "Where nobody should see it.",
        "For whoever mends it next: they see what was done.",
    ],
    usual: "seen",
    applies: grooved,
};

pub const GROOVE: Taught = Taught {
    label: "Groove",
    of_job: taught::GROOVE.key(),
    of_shop: shop_taught::GROOVE.key(),
    choices: choices::GROOVE_DEPTHS,
    who: &[
        "Through where the root is joined, to a lip where the filler has to be held up.",
        "Those who trust no root that they have not seen.",
        "Those who want the pieces held in line, and nothing to run through.",
        "Those who fill what carries little: quick, and the crack stays under it.",
    ],
    usual: "usual",
    applies: grooved,
};

pub const NICKEL: Taught = Taught {
    label: "Nickel under it",
    of_job: taught::NICKEL.key(),
    of_shop: shop_taught::NICKEL.key(),
    choices: choices::NICKELS,
    who: &["The usual.", "Those who want the softest bead on the iron and the strong one over it."],
    usual: "one",
    applies: |method| method == MethodId::ArcNickelIron,
};

/// How warm the nickel arc is done: the ids are those of its schools.
pub const PREHEAT: Taught = Taught {
    label: "Nickel preheat",
    of_job: taught::PREHEAT.key(),
    of_shop: shop_taught::PREHEAT.key(),
    choices: choices::PREHEATS,
    who: &[
        "The usual: hot where it gets even and can be packed, else warm, else cold; never in between.",
        "Those who weld in place, and those who have seen a hot part warp: the least distortion.",
        "Those with a small torch: it takes the worst off the edge.",
        "Those with an oven or a fire: a soft edge that machines, and longer beads.",
    ],
    usual: "at_hand",
    applies: |method| matches!(method, MethodId::ArcNickel | MethodId::ArcNickelIron | MethodId::ButterBuild),
};

pub const BRAZE_HEAT: Taught = Taught {
    label: "Arc bronze preheat",
    of_job: taught::BRAZE_HEAT.key(),
    of_shop: shop_taught::BRAZE_HEAT.key(),
    choices: choices::BRAZE_HEATS,
    who: &[
        "The usual: under {1 kg} the arc warms it, over that it is warmed first.",
        "On small thin parts: the arc warms them soon enough.",
        "Where the bronze will not take: warm iron wets.",
    ],
    usual: "weight",
    applies: |method| method.entry().joins == Joins::ArcBronze,
};

pub const GAS_HEAT: Taught = Taught {
    label: "Gas fusion heat",
    of_job: taught::GAS_HEAT.key(),
    of_shop: shop_taught::GAS_HEAT.key(),
    choices: choices::GAS_HEATS,
    who: &[
        "The usual: what is hot all over shrinks all at once.",
        "On small open parts of thin wall, cooled slowly all the same.",
    ],
    usual: "whole_part",
    applies: |method| method == MethodId::GasIron,
};

/// All of them, in the order of the work.
pub const TAUGHT: [&Taught; 17] = [
    &DIRT,
    &DRILL,
    &GROOVE,
    &OLD_WELD,
    &SIDES,
    &FIXTURE,
    &PREHEAT,
    &BRAZE_HEAT,
    &GAS_HEAT,
    &POLARITY,
    &NICKEL,
    &BEAD,
    &PEENING,
    &AFTER,
    &PORES,
    &DENSITY,
    &FINISH,
];

impl Taught {
    /// What is done on this job.
    #[must_use]
    pub fn on<'a>(&self, round: &'a Round, shop: &'a Shop) -> &'a str {
        let of_job = match round.values.get(self.of_job).and_then(|held| held.value.as_ref()) {
            Some(FieldValue::One(id)) => Some(id.as_str()),
            _ => None,
        };
        of_job.or_else(|| shop.taught.get(self.of_shop).map(String::as_str)).unwrap_or(self.usual)
    }

    /// The same, where it matters for this method at all; the usual where it does not.
    #[must_use]
    pub fn for_method<'a>(&self, method: MethodId, round: &'a Round, shop: &'a Shop) -> &'a str {
        if (self.applies)(method) { self.on(round, shop) } else { self.usual }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_choice_says_who_makes_it_and_the_usual_is_one_of_them() {
        for matter in TAUGHT {
            assert_eq!(matter.choices.len(), matter.who.len(), "{}", matter.label);
            assert!(matter.choices.iter().any(|(id, _)| *id == matter.usual), "{}", matter.label);
            assert!(MethodId::ALL.into_iter().any(matter.applies), "{} matters somewhere", matter.label);
        }
    }
}
