//! What a change would replace.

use super::super::Change;
use super::Job;

impl Job {
    /// The revision of what a change would replace; 0 for nothing.
    #[must_use]
    pub fn revision_of(&self, change: &Change) -> u64 {
        match change {
            Change::Set { key, .. } => self.round().values.get(key).map_or(0, |h| h.revision),
            Change::Observe { test, spot, .. } | Change::Measure { test, spot, .. } => self
                .evidence
                .iter()
                .filter(|seen| seen.test == *test && seen.spot == *spot && seen.stands())
                .map(|seen| seen.revision)
                .max()
                .unwrap_or(0),
            Change::Straighten { face, .. } => {
                let face = self.faces.iter().find(|known| known.id == *face);
                face.and_then(|face| face.picture.as_ref()).map_or(0, |picture| picture.revision)
            }
            Change::Draw { drawn } => {
                let stands = |(mark, face)| self.round().placed(mark, face).map(|placed| placed.revision);
                drawn.iter().filter_map(|it| stands((it.mark, it.face))).max().unwrap_or(0)
            }
            Change::SetPoint { mark, face, .. } => {
                self.round().placed(*mark, *face).map_or(0, |placed| placed.revision)
            }
            Change::Use { what, size_mm, .. } => {
                self.round().used_of(what, *size_mm).map_or(0, |used| used.revision)
            }
            Change::AddCrack
            | Change::AddFace
            | Change::AddMark { .. }
            | Change::MeasureSeam { .. }
            | Change::PutFlame { .. }
            | Change::Tick { .. }
            | Change::FinishStep { .. }
            | Change::Look { .. }
            | Change::FollowUp { .. }
            | Change::Estimate { .. }
            | Change::Time { .. }
            | Change::AddHardSpot { .. }
            | Change::AddNeighbour
            | Change::AddPicture { .. }
            | Change::Strike { .. }
            | Change::Undo { .. }
            | Change::Redo { .. }
            | Change::Light { .. }
            | Change::CancelLight
            | Change::PutOut
            | Change::Torch { .. }
            | Change::NewRound { .. }
            | Change::Unreadable { .. }
            | Change::PutAway
            | Change::BringBack
            | Change::Practise { .. }
            | Change::Pass { .. }
            | Change::EndPractice => 0,
        }
    }
}
