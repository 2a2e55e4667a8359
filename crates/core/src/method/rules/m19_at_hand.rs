//! M19: what is not at hand has to be bought or borrowed.

use super::{PINS, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{
    self, ArcNickel, ArcNickelIron, ButterBuild, ColdFill, GasIron, LastResort, MigBrazeSi, SilverBraze,
    Stitch, StitchLocks, Strap, TigBrazeAl, TigBrazeSi, TigNickel, TorchBraze,
};
use crate::method::WeldingSet;

pub(super) const RULE: Rule = Rule { id: "M19", iron: None, judge };

/// A method, what it is laid with (any of these will do) and what that is called, and the set it is done with.
type Needs = (MethodId, &'static [&'static str], &'static str, Option<WeldingSet>);

const NEEDS: &[Needs] = &[
    (ArcNickel, &["nickel"], "nickel stick", Some(WeldingSet::Stick)),
    (ArcNickelIron, &["nickel_iron"], "nickel-iron stick", Some(WeldingSet::Stick)),
    (TorchBraze, &["bronze"], "low-fuming bronze and flux", Some(WeldingSet::Flame)),
    (GasIron, &["iron_rod", "iron_rod_b"], "cast-iron gas rod and flux", Some(WeldingSet::Flame)),
    (TigNickel, &["tig_nickel"], "nickel TIG rod", Some(WeldingSet::Tig)),
    (TigBrazeSi, &["silicon_rod"], "silicon bronze rod", Some(WeldingSet::Tig)),
    (TigBrazeAl, &["aluminium_rod"], "aluminium bronze rod", Some(WeldingSet::Tig)),
    (MigBrazeSi, &["silicon_wire"], "silicon bronze wire", Some(WeldingSet::Wire)),
    (SilverBraze, &["silver"], "silver braze without cadmium, and flux", Some(WeldingSet::Flame)),
    (ButterBuild, &["nickel"], "nickel stick for the butter", Some(WeldingSet::Stick)),
    (ButterBuild, &["steel_wire"], "steel wire", Some(WeldingSet::Wire)),
    (StitchLocks, &["locks"], "locks and the jig to drill for them", None),
    (Strap, &["strap"], "steel for the strap, and bolts", None),
    (ColdFill, &["epoxy"], "metal-filled epoxy", None),
    (LastResort, &["steel_stick"], "dried low-hydrogen steel sticks", Some(WeldingSet::Stick)),
];

/// What also serves where none of that is here: a method, a rod, the set it is laid with, and what is known of it. House.
const INSTEAD: &[(MethodId, &str, WeldingSet, &str)] = &[
    (
        TigNickel,
        "bare_nickel",
        WeldingSet::Tig,
        "Laid with the bare nickel rod: it is what a nickel TIG rod is, clean it bright first.",
    ),
    (
        ArcNickelIron,
        "nickel_core_wire",
        WeldingSet::Wire,
        "Laid with the nickel flux-cored wire: what it lays in a minute and what it stands here is not known, try it \
         on scrap first.",
    ),
    (
        GasIron,
        "own_rod",
        WeldingSet::Flame,
        "Laid with rods cast here: what is in them and what they stand is not known, try one on scrap first.",
    ),
    (
        LastResort,
        "rutile_stick",
        WeldingSet::Stick,
        "Laid with thin rutile sticks, holder in minus: what they stand on iron is not known, try one on scrap first.",
    ),
    (
        LastResort,
        "stainless_rod",
        WeldingSet::Tig,
        "Laid with stainless TIG rod: its edge is as hard; what it stands on iron is not known, try it on scrap first.",
    ),
];
/// What is set where there is no kit.
const SCREWS: &str = "soft_screws";

/// The rod that serves in place of what a method asks for, and its set; nothing where that is here, or nothing is.
fn instead<'a>(
    method: MethodId,
    has: impl Fn(&str) -> bool + 'a,
) -> Option<&'static (MethodId, &'static str, WeldingSet, &'static str)> {
    INSTEAD.iter().find(move |(of, rod, ..)| *of == method && has(rod))
}

/// What a method is laid with: of each group any will do.
pub(in crate::method) fn laid_with(method: MethodId) -> impl Iterator<Item = &'static [&'static str]> {
    NEEDS.iter().filter(move |(of, ..)| *of == method).map(|(_, rods, ..)| *rods)
}

/// Whether all that a method is laid and done with is among these rods and sets, its pins among a kit.
#[must_use]
pub fn at_hand(method: MethodId, rods: &[String], sets: &[String], kit: bool) -> bool {
    let has = |list: &[String], id: &str| list.iter().any(|known| known == id);
    let mut needs = NEEDS.iter().filter(|(of, ..)| *of == method);
    let there = needs.all(|(_, any, _, set)| {
        let own = any.iter().any(|rod| has(rods, rod)) && set.is_none_or(|set| has(sets, set.id()));
        own || instead(method, |rod| has(rods, rod)).is_some_and(|(_, _, set, _)| has(sets, set.id()))
    });
    let screws = method == Stitch && has(rods, SCREWS);
    there && (kit || screws || !PINS.contains(&method))
}

/// What a set is called.
fn set_words(set: WeldingSet) -> &'static str {
    match set {
        WeldingSet::Stick => "a stick welding set",
        WeldingSet::Tig => "a TIG set and argon",
        WeldingSet::Wire => "a wire-fed set and its gas",
        WeldingSet::Flame => "a gas torch",
    }
}

/// A list without anything in it is an answer: nothing is at hand.
fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    if facts.rods.is_none() {
        output.unknown("which rods are at hand");
    }
    if facts.sets.is_none() {
        output.unknown("which welding sets are at hand");
    }
    for &(method, rods, what, set) in NEEDS {
        let no_rod = facts.rods.is_some() && !rods.iter().any(|rod| facts.has_rod(rod));
        let other = instead(method, |rod| facts.has_rod(rod)).filter(|_| no_rod);
        if let Some((_, _, _, words)) = other {
            output.caution(&[method], *words);
        }
        let (no_rod, set) = other.map_or((no_rod, set), |(_, _, set, _)| (false, Some(*set)));
        let not_here =
            |set: &WeldingSet| facts.sets.is_some_and(|sets| !sets.iter().any(|known| known == set.id()));
        let no_set = set.filter(not_here);
        let missing: Vec<&str> =
            [no_rod.then_some(what), no_set.map(set_words)].into_iter().flatten().collect();
        if !missing.is_empty() {
            output.not_here(method);
            output.caution(&[method], format!("Not at hand: buy or borrow {}.", missing.join(", and ")));
        }
    }
    match facts.stitch_kit {
        None => output.unknown("whether pins, taps and drills are at hand"),
        Some(true) => {}
        Some(false) if facts.has_rod(SCREWS) => {
            output.not_here(StitchLocks);
            output.caution(
                &[Stitch],
                "Set with soft steel screws as plain pins: they draw nothing together, and what they stand is not \
                 known: try one on scrap, with its own drill and tap.",
            );
            output.caution(&[StitchLocks], "Not at hand: buy or borrow pins, taps and drills.");
        }
        Some(false) => {
            PINS.iter().for_each(|method| output.not_here(*method));
            output.caution(PINS, "Not at hand: buy or borrow pins, taps and drills.");
        }
    }
}
