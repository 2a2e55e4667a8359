//! M17: missing metal, and a piece that is lost and leaves nothing to join to.

use super::{Asked, BRONZE, Piece, Rule, Saying};
use crate::method::MethodId::{
    ArcNickel, ArcNickelIron, ButterBuild, GasIron, SilverBraze, Stitch, StitchLocks, TigNickel,
};

pub(super) const RULE: Rule = Rule { id: "M17", iron: None, judge };

/// House: from here on missing metal is built up rather than filled, in cm³.
const BUILT_UP_CM3: f64 = 5.0;

const PATCHED: &str = "A donor patch is set in with pins.";

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    let built_up = "The piece is lost: an iron rod builds it up in like iron.";
    let buttered = "The piece is lost: nickel on the bond face, then steel, builds it up.";
    match asked.piece {
        Piece::There => {
            if asked.patch {
                rule.favour(&[Stitch], PATCHED);
            }
            if asked.missing_cm3 > BUILT_UP_CM3 {
                rule.favour(&[GasIron], "Metal is missing: an iron rod builds it up in like iron.");
                rule.favour(&[ButterBuild], "Metal is missing: nickel, then steel, builds it up.");
            } else if asked.missing_cm3 <= 0.0 {
                match asked.hard_edges {
                    Some(true) => {}
                    Some(false) => {
                        rule.exclude(&[ButterBuild], "Nothing is missing and no edge has to be built up.");
                    }
                    None => rule.unknown("what each edge is: clean, flame-cut, melted or burnt"),
                }
            }
        }
        Piece::NotSaid => rule.unknown("whether the broken-off piece is there"),
        Piece::Lost => {
            let why = "The piece is lost: there is nothing to join to.";
            rule.exclude(&[Stitch, StitchLocks, ArcNickel, ArcNickelIron, TigNickel, SilverBraze], why);
            rule.exclude(BRONZE, why);
            rule.favour(&[GasIron], built_up);
            rule.favour(&[ButterBuild], buttered);
        }
        Piece::Donor => {
            let why = "The piece is lost: there is nothing to join to but a donor patch, set in with pins.";
            rule.exclude(&[StitchLocks, ArcNickel, ArcNickelIron, TigNickel, SilverBraze], why);
            rule.exclude(BRONZE, why);
            rule.favour(&[GasIron], built_up);
            rule.favour(&[ButterBuild], buttered);
            rule.favour(&[Stitch], PATCHED);
        }
    }
}
