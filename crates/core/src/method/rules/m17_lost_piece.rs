//! M17: missing metal, and a piece that is lost and leaves nothing to join to.

use super::{BRONZE, PieceFit, Rule, RuleFacts, RuleOutput};
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, SilverBraze, Stitch, StitchLocks, TigNickel,
};

pub(super) const RULE: Rule = Rule { id: "M17", iron: None, judge };

/// House: from here on missing metal is built up rather than filled, in cm³.
const BUILT_UP_CM3: f64 = 5.0;

const PATCHED: &str = "A donor patch is set in with pins.";

fn judge(facts: &RuleFacts<'_>, output: &mut RuleOutput<'_>) {
    let built_up = "The piece is lost: an iron rod builds it up in like iron.";
    let buttered = "The piece is lost: nickel on the bond face, then steel, builds it up.";
    match facts.piece {
        PieceFit::There => {
            if facts.patch {
                output.favour(&[Stitch], PATCHED);
            }
            if facts.missing_cm3 > BUILT_UP_CM3 {
                output.favour(&[GasIron], "Metal is missing: an iron rod builds it up in like iron.");
                output.favour(&[ButterBuild], "Metal is missing: nickel, then steel, builds it up.");
            } else if facts.missing_cm3 <= 0.0 {
                match facts.hard_edges {
                    Some(true) => {}
                    Some(false) => {
                        output.exclude(&[ButterBuild], "Nothing is missing and no edge has to be built up.");
                    }
                    None => output.unknown("what each edge is: clean, flame-cut, melted or burnt"),
                }
            }
        }
        PieceFit::NotSaid => output.unknown("whether the broken-off piece is there"),
        PieceFit::Lost => {
            let why = "The piece is lost: there is nothing to join to.";
            output.exclude(&[Stitch, StitchLocks, ArcNickel, ArcNickelIron, TigNickel, SilverBraze], why);
            output.exclude(BRONZE, why);
            output.favour(&[GasIron], built_up);
            output.favour(&[ButterBuild], buttered);
        }
        PieceFit::Donor => {
            let why = "The piece is lost: there is nothing to join to but a donor patch, set in with pins.";
            output.exclude(&[StitchLocks, ArcNickel, ArcNickelIron, TigNickel, SilverBraze], why);
            output.exclude(BRONZE, why);
            output.favour(&[GasIron], built_up);
            output.favour(&[ButterBuild], buttered);
            output.favour(&[Stitch], PATCHED);
        }
    }
}
