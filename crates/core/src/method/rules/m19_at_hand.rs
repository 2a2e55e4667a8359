//! M19: what is not at hand has to be bought or borrowed.

use super::{Asked, PINS, Rule, Saying};
use crate::method::MethodId::{
    self, ArcNickel, ArcNickelIron, ButterBuild, ColdFill, GasIron, LastResort, MigBrazeSi, SilverBraze,
    StitchLocks, Strap, TigBrazeAl, TigBrazeSi, TigNickel, TorchBraze,
};

pub(super) const RULE: Rule = Rule { id: "M19", iron: None, judge };

/// A method, what it is laid with (any of these will do) and what that is called, and the set it is done with.
type Needs = (MethodId, &'static [&'static str], &'static str, &'static str);

const NEEDS: &[Needs] = &[
    (ArcNickel, &["nickel"], "nickel stick", "stick"),
    (ArcNickelIron, &["nickel_iron"], "nickel-iron stick", "stick"),
    (TorchBraze, &["bronze"], "low-fuming bronze and flux", "flame"),
    (GasIron, &["iron_rod", "iron_rod_b"], "cast-iron gas rod and flux", "flame"),
    (TigNickel, &["tig_nickel"], "nickel TIG rod", "tig"),
    (TigBrazeSi, &["silicon_rod"], "silicon bronze rod", "tig"),
    (TigBrazeAl, &["aluminium_rod"], "aluminium bronze rod", "tig"),
    (MigBrazeSi, &["silicon_wire"], "silicon bronze wire", "wire"),
    (SilverBraze, &["silver"], "silver braze without cadmium, and flux", "flame"),
    (ButterBuild, &["nickel"], "nickel stick for the butter", "stick"),
    (ButterBuild, &["steel_wire"], "steel wire", "wire"),
    (StitchLocks, &["locks"], "locks and the jig to drill for them", ""),
    (Strap, &["strap"], "steel for the strap, and bolts", ""),
    (ColdFill, &["epoxy"], "metal-filled epoxy", ""),
    (LastResort, &["steel_stick"], "dried low-hydrogen steel sticks", "stick"),
];

/// What a method is laid with: of each group any will do.
pub(in crate::method) fn laid_with(method: MethodId) -> impl Iterator<Item = &'static [&'static str]> {
    NEEDS.iter().filter(move |(of, ..)| *of == method).map(|(_, rods, ..)| *rods)
}

/// Whether all that a method is laid and done with is among these rods and sets, its pins among a kit.
#[must_use]
pub fn at_hand(method: MethodId, rods: &[String], sets: &[String], kit: bool) -> bool {
    let has = |list: &[String], id: &str| list.iter().any(|known| known == id);
    let mut needs = NEEDS.iter().filter(|(of, ..)| *of == method);
    let there = needs
        .all(|(_, any, _, set)| any.iter().any(|rod| has(rods, rod)) && (set.is_empty() || has(sets, set)));
    there && (kit || !PINS.contains(&method))
}

/// What a set is called.
fn set_words(set: &str) -> &'static str {
    match set {
        "stick" => "a stick welding set",
        "tig" => "a TIG set and argon",
        "wire" => "a wire-fed set and its gas",
        _ => "a gas torch",
    }
}

/// A list without anything in it is an answer: nothing is at hand.
fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    if asked.rods.is_none() {
        rule.unknown("which rods are at hand");
    }
    if asked.sets.is_none() {
        rule.unknown("which welding sets are at hand");
    }
    for &(method, rods, what, set) in NEEDS {
        let no_rod = asked.rods.is_some() && !rods.iter().any(|rod| asked.has_rod(rod));
        let no_set = !set.is_empty() && asked.sets.is_some_and(|sets| !sets.iter().any(|known| known == set));
        let missing: Vec<&str> =
            [no_rod.then_some(what), no_set.then(|| set_words(set))].into_iter().flatten().collect();
        if !missing.is_empty() {
            rule.not_here(method);
            rule.caution(&[method], format!("Not at hand: buy or borrow {}.", missing.join(", and ")));
        }
    }
    match asked.stitch_kit {
        None => rule.unknown("whether pins, taps and drills are at hand"),
        Some(true) => {}
        Some(false) => {
            PINS.iter().for_each(|method| rule.not_here(*method));
            rule.caution(PINS, "Not at hand: buy or borrow pins, taps and drills.");
        }
    }
}
