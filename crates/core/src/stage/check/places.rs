//! Each place that is looked at, and how it stands.

use uuid::Uuid;

use super::super::looked;
use super::super::looked::Stands;
use super::super::prep::SeamPlan;
use super::{
    CheckInputs, FoundChoice, LookLine, PlaceLine, ThenChoice, found_words, may_be_found, then_words,
};
use crate::crack::said::CrackFate;
use crate::faults::acceptance::{Extent, Found};
use crate::job::{CheckPlace, CheckWhat, Looked, TorchEntry};
use crate::method::PieceOfWork;
use crate::render::said;

impl CheckInputs<'_> {
    /// Faults that were seen at the torch, each with the bead it was at.
    pub(super) fn faults(&self) -> impl Iterator<Item = (Uuid, String)> + '_ {
        let mut beads = 0;
        self.round.said_at_torch().filter_map(move |(_, entry)| match &entry.entry {
            TorchEntry::Bead { .. } | TorchEntry::Pin { .. } => {
                beads += 1;
                None
            }
            TorchEntry::Trouble { seen, .. } => {
                let piece = self.torch.map_or(PieceOfWork::Bead, |torch| torch.piece).word();
                let at = if beads == 0 { "before the first".to_owned() } else { format!("{piece} {beads}") };
                Some((entry.fact, format!("{}, {at}", seen.words())))
            }
            _ => None,
        })
    }

    /// Where something is looked for.
    pub(super) fn places(&self, what: CheckWhat) -> Vec<(CheckPlace, String)> {
        let whole = || vec![(CheckPlace { what, at: None, side: None }, "the whole part".to_owned())];
        let seams: Vec<(CheckPlace, String)> = match what {
            CheckWhat::Leak | CheckWhat::Alignment => return whole(),
            CheckWhat::Faults => self
                .faults()
                .map(|(fact, words)| (CheckPlace { what, at: Some(fact), side: None }, words))
                .collect(),
            CheckWhat::CracksAgain | CheckWhat::NextDay => self
                .cracks
                .iter()
                .filter(|crack| crack.worked() || crack.becomes == CrackFate::Leave)
                .map(|crack| {
                    let watched = if crack.worked() { "" } else { ", watched" };
                    let place = CheckPlace { what, at: Some(crack.id), side: None };
                    (place, format!("{}{watched}", crack.letter))
                })
                .collect(),
            CheckWhat::Pins | CheckWhat::Clean | CheckWhat::Toes | CheckWhat::FileEdge => {
                let seams = self.prep.map_or(&[][..], |prep| &prep.seams);
                let sides = |seam: &SeamPlan| match seam.is_double() {
                    true => vec![(Some(1), ", first side"), (Some(2), ", second side")],
                    false => vec![(None, "")],
                };
                let at = |seam: &SeamPlan, side| CheckPlace { what, at: Some(seam.id), side };
                seams
                    .iter()
                    .filter(|seam| seam.patch.is_none())
                    .flat_map(|seam| {
                        sides(seam)
                            .into_iter()
                            .map(|(side, words)| (at(seam, side), format!("{}{words}", seam.letter)))
                            .collect::<Vec<_>>()
                    })
                    .collect()
            }
        };
        if seams.is_empty() { whole() } else { seams }
    }

    pub(super) fn place(&self, at: CheckPlace, words: String) -> PlaceLine {
        let place = looked::place(self.round, self.part, self.cracks, at);
        let stands = looked::stands(self.round, at, &place);
        let said = |template: &str| said(template, self.part.units);
        let found = |it: &Looked| found_words(it, self.part.units);
        let looks = self.round.looked.iter().rev().filter(|it| it.place == at);
        let last = looks.clone().next();
        let limit = |it: &Looked| said(&place.limit(it.found));
        let sentence = match (stands, last) {
            (Stands::Open, _) | (Stands::Good | Stands::NotGood(None), None) => String::new(),
            (Stands::Measure(it), _) => format!("{}: measure it. Good enough is {}.", found(it), limit(it)),
            (Stands::Left(it), _) => format!("{}: more than {}.", found(it), limit(it)),
            (Stands::NotGood(Some(it)), _) => format!("{}. Good enough is {}.", found(it), limit(it)),
            (Stands::Good, Some(it)) if it.found != Found::Good => {
                format!("{}: good enough ({}).", found(it), limit(it))
            }
            (Stands::Good | Stands::NotGood(None), Some(_)) => String::new(),
        };
        let then = match stands {
            Stands::Left(it) | Stands::NotGood(Some(it)) => it.then,
            _ => None,
        };
        PlaceLine {
            number: 0,
            words,
            verdict: stands.state(),
            sentence,
            then,
            then_words: then.map_or_else(String::new, |then| then_words(at.what, then).to_owned()),
            looks: looks
                .map(|it| LookLine {
                    fact: it.fact,
                    at_ms: it.at_ms,
                    who: it.who.clone(),
                    words: match it.note.as_str() {
                        "" => found(it),
                        note => format!("{}. {note}", found(it)),
                    },
                })
                .collect(),
            on_map: self.on_map(at),
            points_words: self.points_words(at),
            points: self.points(at),
            place: at,
        }
    }

    pub(super) fn choices(&self, what: CheckWhat) -> Vec<FoundChoice> {
        let place =
            looked::place(self.round, self.part, self.cracks, CheckPlace { what, at: None, side: None });
        let choice = |found: &Found| FoundChoice {
            found: *found,
            words: found.words().to_owned(),
            limit: said(&place.limit(*found), self.part.units),
            measured: found.measured().unwrap_or_default().to_owned(),
            counted: *found == Found::Pore,
            // The most that can be done: what is too large for it is judged once it is measured.
            then: place
                .ways_on(*found, Extent { mm: Some(0.0), count: None })
                .iter()
                .map(|then| ThenChoice { then: *then, words: then_words(what, *then).to_owned() })
                .collect(),
        };
        may_be_found(what).iter().map(choice).collect()
    }
}
