//! What was said at the torch, told.

use std::collections::BTreeSet;

use super::super::{BeadAt, Change, Fact, Lighting, Parsed, TorchEntry};
use super::{Telling, with_its_unit};
use crate::method::PieceOfWork;
use crate::quantity::Unit;
use crate::render::all_of;

impl<'a> Telling<'a> {
    pub(super) fn at_the_torch(&self, fact: &Fact, entry: &TorchEntry) -> String {
        match entry {
            TorchEntry::Reading { typed, shown_in, joint, gun } => {
                let typed = with_its_unit(typed, *shown_in);
                let by = if gun.is_some() { "by gun" } else { "by hand" };
                let iron = match &fact.understood {
                    Some(Parsed::Celsius(celsius)) if gun.is_some() => {
                        format!(", iron {}", self.units.say(*celsius, Unit::Celsius))
                    }
                    _ => String::new(),
                };
                format!("Read {by}{}: {typed}{iron}", if *joint { " at the joint" } else { "" })
            }
            TorchEntry::Stick { typed, shown_in, melted } => {
                let stick = with_its_unit(typed, *shown_in);
                format!("The {stick} stick {}", if *melted { "melted" } else { "did not melt" })
            }
            TorchEntry::Aligned { .. } => match &fact.understood {
                Some(Parsed::Lengths(off)) => {
                    let off = off.get("off").copied().flatten().unwrap_or(0.0);
                    format!("Alignment read: {} off", self.units.say_exactly(off, Unit::Millimetres))
                }
                _ => "Alignment read".to_owned(),
            },
            TorchEntry::Oven { runs } => {
                if *runs {
                    "Oven started".to_owned()
                } else {
                    "Oven stopped".to_owned()
                }
            }
            TorchEntry::Pin { crack, number } => format!("Pin {number} of {} set", self.letter(*crack)),
            TorchEntry::Bead { at } => match (self.piece(fact), at) {
                (PieceOfWork::Pin, _) => "Pin set".to_owned(),
                (PieceOfWork::Strap, _) => "Strap fitted".to_owned(),
                (PieceOfWork::Fill, _) => "Seam filled".to_owned(),
                (PieceOfWork::Bead, None) => "Bead done".to_owned(),
                (PieceOfWork::Bead, Some(at)) if at.hole.is_some() => {
                    format!("Bead done: {}, in its stop-hole", self.letter(at.crack))
                }
                (PieceOfWork::Bead, Some(at)) => format!(
                    "Bead done: {}, layer {}, place {} from the first end",
                    self.letter(at.crack),
                    at.layer,
                    at.along
                ),
            },
            TorchEntry::Beads { at, peened, .. } => self.beads(at, *peened),
            TorchEntry::Did { what } => what.label().to_owned(),
            TorchEntry::Trouble { seen, cause } => match seen.cause(cause) {
                Some(cause) => format!("{}: {}", seen.words(), cause.words),
                None => seen.words().to_owned(),
            },
            TorchEntry::Peened => "Peened".to_owned(),
            TorchEntry::Reheated => "Reheated".to_owned(),
            TorchEntry::Note { text } => format!("Note: {text}"),
            TorchEntry::Covered { why } if why.is_empty() => "Covered".to_owned(),
            TorchEntry::Covered { why } => format!("Covered. Why: {why}"),
            TorchEntry::Unwrapped => "Packing off".to_owned(),
        }
    }

    /// "12 beads done: A, layers 1 and 2, each peened"
    fn beads(&self, at: &[BeadAt], peened: bool) -> String {
        let letters: BTreeSet<&str> = at.iter().map(|it| self.letter(it.crack)).collect();
        let layers: BTreeSet<u32> = at.iter().map(|it| it.layer).collect();
        let layers: Vec<String> = layers.iter().map(u32::to_string).collect();
        let word = if layers.len() == 1 { "layer" } else { "layers" };
        let letters: Vec<String> = letters.into_iter().map(str::to_owned).collect();
        let peened = if peened { ", each peened" } else { "" };
        format!("{} beads done: {}, {word} {}{peened}", at.len(), all_of(&letters), all_of(&layers))
    }

    /// What it was lit for last before this fact.
    pub(super) fn lit_for(&self, fact: &Fact) -> Lighting {
        let before = self.facts.iter().filter(|before| before.revision < fact.revision);
        let mut what = before.filter_map(|before| match &before.change {
            Change::Light { what, .. } => Some(*what),
            _ => None,
        });
        what.next_back().unwrap_or_default()
    }

    /// What is laid or set in the work that was begun last before this fact.
    fn piece(&self, fact: &Fact) -> PieceOfWork {
        let before = self.facts.iter().filter(|before| before.revision < fact.revision);
        let mut way = before.filter_map(|before| match &before.change {
            Change::Light { frozen, .. } => frozen.as_ref().and_then(|plan| plan.way),
            _ => None,
        });
        way.next_back().map_or(PieceOfWork::Bead, |way| way.method.piece())
    }
}

pub(super) fn lit(what: Lighting, speed: f64, owned: &str, without: &[String]) -> String {
    let faster = match speed {
        speed if speed > 1.0 => format!(", the job clock runs {speed} times as fast"),
        _ => String::new(),
    };
    let owned = if owned.is_empty() { String::new() } else { format!(". Owned: {owned}") };
    let what = match what {
        Lighting::Bake => "Lit to bake the oil out",
        Lighting::Tack => "Lit to tack",
        Lighting::Main => "Lit",
    };
    let without = match without {
        [] => String::new(),
        open => format!(". Not ticked: {}", open.join("; ")),
    };
    format!("{what}{faster}{owned}{without}")
}
