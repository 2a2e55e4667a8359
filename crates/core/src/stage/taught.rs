//! Where practice differs: what is taught, by whom, and what it changes. A job follows its own choice, else the shop's,
//! else the usual.

use crate::field::{Choice, Chosen, FieldValue, shop_taught, taught};
use crate::job::Round;
use crate::method::customs::{
    After, BeadLength, Blend, BrazePreheat, Dirt, Fixture, GasHeat, GrooveDepth, NickelPreheat, NickelUnder,
    OldWeld, Peening, PinDensity, Polarity, Pores, Sides, StopHoleAt,
};
use crate::method::{Joins, MethodId};
use crate::shop::Shop;

/// One matter on which practice differs, whatever can be chosen in it.
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

/// One matter with what can be chosen in it.
#[derive(Debug)]
pub struct Matter<T> {
    pub told: Taught,
    usual: T,
}

macro_rules! matter {
    ($label:literal, $field:ident, $chosen:ident :: $usual:ident, $applies:expr, $who:expr) => {
        Matter {
            told: Taught {
                label: $label,
                of_job: taught::$field.key(),
                of_shop: shop_taught::$field.key(),
                choices: $chosen::CHOICES,
                who: $who,
                usual: $chosen::$usual.id(),
                applies: $applies,
            },
            usual: $chosen::$usual,
        }
    };
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
pub const POLARITY: Matter<Polarity> = matter!(
    "Leads",
    POLARITY,
    Polarity::Plus,
    stick,
    &[
        "Most makers' first word: steady, digs well.",
        "On thin walls: it digs less and takes up less of the iron.",
        "Where the box says so, or the arc wanders off.",
    ]
);

pub const PEENING: Matter<Peening> = matter!(
    "Peening",
    PEENING,
    Peening::Each,
    MethodId::arc,
    &[
        "Arc welders: it stretches the bead while it still gives.",
        "Where the filler is soft or the wall thin.",
        "Those who heat the whole part: the heat takes the pull out, not the hammer.",
    ]
);

pub const FIXTURE: Matter<Fixture> = matter!(
    "Held",
    FIXTURE,
    Fixture::Free,
    heated,
    &[
        "Most: what can move does not crack.",
        "Where pieces would slip before they are tacked.",
        "Some, done cold only, to keep it flat: it holds the pull in.",
    ]
);

pub const SIDES: Matter<Sides> = matter!(
    "Sides",
    SIDES,
    Sides::Both,
    grooved,
    &["Where both can be reached: stronger.", "Where a face has to stay as it is."]
);

pub const DIRT: Matter<Dirt> = matter!(
    "Dirt",
    DIRT,
    Dirt::Clean,
    |method| stick(method) || method.entry().joins == Joins::Flame,
    &["Nearly all: what stays in makes pores.", "Some with flame and stick, who burn it out as they go.",]
);

pub const BEAD: Matter<BeadLength> = matter!(
    "Bead",
    BEAD,
    BeadLength::Usual,
    |method| matches!(method.entry().joins, Joins::Arc | Joins::ArcBronze),
    &[
        "The careful, done cold: little heat at a time.",
        "By its heat: {25 to 60 mm}.",
        "Those who have the whole part hot: fewer starts and ends.",
    ]
);

pub const AFTER: Matter<After> = matter!(
    "After the last bead",
    AFTER,
    After::Wrap,
    heated,
    &[
        "Most: no heat is lost.",
        "Where one end had grown cold: it comes down as one.",
        "Flame in hand: the joint never falls away from the rest.",
        "Shops with an oven: hours of it cost little.",
        "Thin walls that were gas welded.",
    ]
);

pub const PORES: Matter<Pores> = matter!(
    "Pores",
    PORES,
    Pores::Leave,
    heated,
    &[
        "By what the place has to do: a pore that neither weeps nor carries stays.",
        "Those who want no doubt left.",
    ]
);

pub const OLD_WELD: Matter<OldWeld> = matter!(
    "Old weld",
    OLD_WELD,
    OldWeld::Out,
    MethodId::fusion,
    &["Nearly all: what failed once fails again.", "Some, where it holds and is sound all along."]
);

pub const DRILL: Matter<StopHoleAt> = matter!(
    "Stop-hole",
    DRILL,
    StopHoleAt::Past,
    grooved,
    &[
        "Those who have seen cracks run on: the tip lies further than it shows.",
        "Those who trust the dye.",
        "Those who grind until the line is gone.",
    ]
);

pub const DENSITY: Matter<PinDensity> = matter!(
    "Pins",
    DENSITY,
    PinDensity::All,
    MethodId::pins,
    &[
        "The usual: tight, and each pin holds its neighbour.",
        "The same in the end, with less pull on the thin iron between.",
        "On a patch that seals and carries nothing.",
    ]
);

pub const FINISH: Matter<Blend> = matter!(
    "Finish",
    FINISH,
    Blend::Seen,
    grooved,
    &[
        "The usual: the seen face is blended, the hidden one left on for strength.",
        "Where nobody should see it.",
        "For whoever mends it next: they see what was done.",
    ]
);

pub const GROOVE: Matter<GrooveDepth> = matter!(
    "Groove",
    GROOVE,
    GrooveDepth::Usual,
    grooved,
    &[
        "Through where the root is joined, to a lip where the filler has to be held up.",
        "Those who trust no root that they have not seen.",
        "Those who want the pieces held in line, and nothing to run through.",
        "Those who fill what carries little: quick, and the crack stays under it.",
    ]
);

pub const NICKEL: Matter<NickelUnder> = matter!(
    "Nickel under it",
    NICKEL,
    NickelUnder::One,
    |method| method == MethodId::ArcNickelIron,
    &["The usual.", "Those who want the softest bead on the iron and the strong one over it."]
);

/// How warm the nickel arc is done.
pub const PREHEAT: Matter<NickelPreheat> = matter!(
    "Nickel preheat",
    PREHEAT,
    NickelPreheat::AtHand,
    |method| matches!(method, MethodId::ArcNickel | MethodId::ArcNickelIron | MethodId::ButterBuild),
    &[
        "The usual: hot where it gets even and can be packed, else warm, else cold; never in between.",
        "Those who weld in place, and those who have seen a hot part warp: the least distortion.",
        "Those with a small torch: it takes the worst off the edge.",
        "Those with an oven or a fire: a soft edge that machines, and longer beads.",
    ]
);

pub const BRAZE_HEAT: Matter<BrazePreheat> = matter!(
    "Arc bronze preheat",
    BRAZE_HEAT,
    BrazePreheat::Weight,
    |method| method.entry().joins == Joins::ArcBronze,
    &[
        "The usual: under {1 kg} the arc warms it, over that it is warmed first.",
        "On small thin parts: the arc warms them soon enough.",
        "Where the bronze will not take: warm iron wets.",
    ]
);

pub const GAS_HEAT: Matter<GasHeat> = matter!(
    "Gas fusion heat",
    GAS_HEAT,
    GasHeat::WholePart,
    |method| method == MethodId::GasIron,
    &[
        "The usual: what is hot all over shrinks all at once.",
        "On small open parts of thin wall, cooled slowly all the same.",
    ]
);

/// All of them, in the order of the work.
pub const TAUGHT: [&Taught; 17] = [
    &DIRT.told,
    &DRILL.told,
    &GROOVE.told,
    &OLD_WELD.told,
    &SIDES.told,
    &FIXTURE.told,
    &PREHEAT.told,
    &BRAZE_HEAT.told,
    &GAS_HEAT.told,
    &POLARITY.told,
    &NICKEL.told,
    &BEAD.told,
    &PEENING.told,
    &AFTER.told,
    &PORES.told,
    &DENSITY.told,
    &FINISH.told,
];

impl<T: Chosen + Copy> Matter<T> {
    /// What is done on this job.
    #[must_use]
    pub fn on(&self, round: &Round, shop: &Shop) -> T {
        let of_job = match round.values.get(self.told.of_job).and_then(|held| held.value.as_ref()) {
            Some(FieldValue::One(id)) => Some(id.as_str()),
            _ => None,
        };
        let said = of_job.or_else(|| shop.taught.get(self.told.of_shop).map(String::as_str));
        said.and_then(T::chosen).unwrap_or(self.usual)
    }

    /// The same, where it matters for this method at all; the usual where it does not.
    #[must_use]
    pub fn for_method(&self, method: MethodId, round: &Round, shop: &Shop) -> T {
        if (self.told.applies)(method) { self.on(round, shop) } else { self.usual }
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
