//! M17: a piece that is lost leaves nothing to join to.

use super::{Asked, Piece, Rule, Saying};
use crate::method::MethodId::{ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};

pub(super) const RULE: Rule = Rule { id: "M17", iron: None, judge };

fn judge(asked: &Asked<'_>, rule: &mut Saying<'_>) {
    let built_up = "The piece is lost: an iron rod builds it up in like iron.";
    match asked.piece {
        Piece::There => {}
        Piece::NotSaid => rule.unknown("whether the broken-off piece is there"),
        Piece::Lost => {
            let why = "The piece is lost: there is nothing to join to.";
            rule.exclude(&[Stitch, ArcNickel, ArcNickelIron, TorchBraze], why);
            rule.favour(&[GasIron], built_up);
        }
        Piece::Donor => {
            let why = "The piece is lost: there is nothing to join to but a donor patch, set in with pins.";
            rule.exclude(&[ArcNickel, ArcNickelIron, TorchBraze], why);
            rule.favour(&[GasIron], built_up);
            rule.favour(&[Stitch], "A donor patch is set in with pins.");
        }
    }
}
