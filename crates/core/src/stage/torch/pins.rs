//! Which pin goes in next: one by one, in their order, those left out that cannot go where they should.

use serde::Serialize;
use uuid::Uuid;

use super::TorchPlan;
use crate::job::{Round, TorchEntry};
use crate::map::At;
use crate::method::PieceOfWork;
use crate::quantity::{Unit, UnitSystem};
use crate::stage::map::MapPlan;
use crate::stage::prep::PrepPlan;

/// The pin to set next.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NextPin {
    pub crack: Uuid,
    /// From the first end of the crack, from 1.
    pub number: u32,
    /// "crack A, pin 5", or "missing piece 1, pin 5" of a patch.
    pub place: String,
    /// "Pin 5 of A, the 3rd of 17 to go in: tap drill 6.8, then M8."
    pub words: String,
    pub across_mm: f64,
    /// Where it lies; nothing while the crack is on no face.
    pub face: Option<Uuid>,
    pub at: Option<At>,
}

/// A pin of a row.
struct PinTurn<'a> {
    seam: &'a crate::stage::SeamPlan,
    number: u32,
    face: Option<Uuid>,
    at: Option<At>,
    /// It cannot go where it should.
    blocked: bool,
}

/// Every pin, in the order in which they go in.
fn turns<'a>(prep: &'a PrepPlan, map: &MapPlan) -> Vec<PinTurn<'a>> {
    let of = |seam: &'a crate::stage::SeamPlan, number: u32| {
        let on_face = map.faces.iter().find_map(|face| {
            let pin = face.pins.iter().find(|pin| pin.crack == seam.id && pin.number == number)?;
            Some((face.id, pin))
        });
        PinTurn {
            seam,
            number,
            face: on_face.map(|(face, _)| face),
            at: on_face.map(|(_, pin)| pin.at),
            blocked: on_face.is_some_and(|(_, pin)| !pin.why_not.is_empty()),
        }
    };
    prep.seams
        .iter()
        .flat_map(|seam| seam.pin_order.iter().map(move |number| (seam, *number)))
        .map(|(seam, number)| of(seam, number))
        .collect()
}

fn nth(count: usize) -> String {
    let ending = match (count % 10, count % 100) {
        (1, 11) | (2, 12) | (3, 13) => "th",
        (1, _) => "st",
        (2, _) => "nd",
        (3, _) => "rd",
        _ => "th",
    };
    format!("{count}{ending}")
}

/// Says which pin is next, and counts only those that are in or can go in.
pub(crate) fn in_turn(
    torch: &mut TorchPlan,
    round: &Round,
    (prep, map): (&PrepPlan, &MapPlan),
    units: UnitSystem,
) {
    if torch.piece != PieceOfWork::Pin {
        return;
    }
    let turns = turns(prep, map);
    let set = |turn: &PinTurn<'_>| {
        let pin = TorchEntry::Pin { crack: turn.seam.id, number: turn.number };
        round.said_at_torch().any(|(_, entry)| entry.entry == pin)
    };
    // What was only counted was set in turn.
    let mut counted =
        round.said_at_torch().filter(|(_, it)| matches!(it.entry, TorchEntry::Bead { .. })).count();
    let mut left: Vec<&PinTurn<'_>> = Vec::new();
    let mut planned = 0;
    for turn in &turns {
        let in_place = set(turn) || (!turn.blocked && counted > 0);
        if !set(turn) && in_place {
            counted -= 1;
        }
        if in_place || !turn.blocked {
            planned += 1;
        }
        if !in_place && !turn.blocked {
            left.push(turn);
        }
    }
    torch.planned = planned;
    torch.next_pin = left.first().map(|turn| NextPin {
        crack: turn.seam.id,
        number: turn.number,
        place: match turn.seam.patch {
            Some(_) => format!("{}, pin {}", turn.seam.letter, turn.number),
            None => format!("crack {}, pin {}", turn.seam.letter, turn.number),
        },
        words: format!(
            "Pin {} of {}, the {} of {planned} to go in: drill {}, tap M{}.",
            turn.number,
            turn.seam.letter,
            nth(planned as usize - left.len() + 1),
            units.say(turn.seam.tap_drill_mm, Unit::TapDrill),
            turn.seam.pin_mm
        ),
        across_mm: turn.seam.pin_mm,
        face: turn.face,
        at: turn.at,
    });
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::nth;

    #[rstest]
    #[case(1, "1st")]
    #[case(2, "2nd")]
    #[case(3, "3rd")]
    #[case(11, "11th")]
    #[case(21, "21st")]
    #[case(112, "112th")]
    fn a_turn_is_said_as_one_counts(#[case] count: usize, #[case] said: &str) {
        assert_eq!(nth(count), said);
    }
}
