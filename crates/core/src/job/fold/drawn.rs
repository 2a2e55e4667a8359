//! What was drawn, and measured at a seam.

use super::super::{Change, FacePicture, Fact, Parsed, SeamReading};
use super::Job;
use crate::map::Drawn;
use crate::stores::UsedUpHere;

impl Job {
    pub(super) fn straighten(&mut self, fact: &Fact, understood: Option<&Parsed>) {
        let Change::Straighten { face, picture, points_px, size_px, .. } = &fact.change else { return };
        let Some(Parsed::Lengths(typed)) = understood else { return };
        let length = |name: &str| typed.get(name).copied().flatten();
        let Some(across_mm) = length("across") else { return };
        for known in self.faces.iter_mut().filter(|known| known.id == *face) {
            known.picture = Some(FacePicture {
                picture: *picture,
                points_px: points_px.clone(),
                size_px: *size_px,
                across_mm,
                down_mm: length("down"),
                revision: fact.revision,
            });
        }
    }

    pub(super) fn set_point(&mut self, fact: &Fact, understood: Option<&Parsed>) {
        let Change::SetPoint { mark, face, point, .. } = &fact.change else { return };
        let Some(Parsed::Lengths(typed)) = understood else { return };
        let Some(placed) = self.round().placed(*mark, *face) else { return };
        let Some(shape) = placed.shape.with_point(*point, typed) else { return };
        let drawn = Drawn { mark: *mark, face: *face, shape: Some(shape) };
        let rounds = self.rounds.len();
        self.round_mut().draw(&drawn, rounds, fact.revision);
    }

    pub(super) fn use_up(&mut self, fact: &Fact, understood: Option<&Parsed>) {
        let Change::Use { what, size_mm, typed, .. } = &fact.change else { return };
        let Some(Parsed::Amount(amount)) = understood else { return };
        let used = &mut self.round_mut().used;
        used.retain(|known| !known.is_of(what, *size_mm));
        let Some(amount) = *amount else { return };
        let (what, typed) = (what.clone(), typed.trim().to_owned());
        let (fact, at_ms, revision) = (fact.id, fact.at_ms(), fact.revision);
        used.push(UsedUpHere { fact, what, size_mm: *size_mm, amount, typed, at_ms, revision });
    }

    pub(super) fn measure_seam(&mut self, fact: &Fact, understood: Option<&Parsed>) {
        let Change::MeasureSeam { crack, what, number, .. } = &fact.change else { return };
        let Some(Parsed::Lengths(typed)) = understood else { return };
        let mm = typed.iter().filter_map(|(name, mm)| Some((name.clone(), (*mm)?))).collect();
        let (id, at_ms) = (fact.id, fact.at_ms());
        let reading = SeamReading { id, crack: *crack, what: *what, number: *number, mm, at_ms };
        self.round_mut().at_seams.push(reading);
    }
}
