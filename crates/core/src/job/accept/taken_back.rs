//! What is crossed out.

use uuid::Uuid;

use super::{ChangeContext, Refusal, holds};

impl ChangeContext<'_> {
    pub(super) fn struck(&self, target: Uuid, reason: &str) -> Result<(), Refusal> {
        holds(!reason.trim().is_empty(), "reason", "say why it is crossed out", "misread, wrong button")?;
        let Self { job, round, .. } = self;
        let known = job.evidence.iter().any(|seen| seen.fact == target)
            || round.cracks.iter().any(|crack| crack.id == target)
            || round.hard_spots.iter().any(|spot| spot.id == target)
            || round.neighbours.iter().any(|neighbour| neighbour.id == target)
            || job.pictures.iter().any(|picture| picture.id == target)
            || job.faces.iter().any(|face| face.id == target)
            || round.marks.iter().any(|mark| mark.id == target)
            || round.at_seams.iter().any(|reading| reading.id == target)
            || round.looked.iter().any(|looked| looked.fact == target)
            || round.followed.iter().any(|it| it.fact == target)
            || job.heats().any(|heat| heat.log.iter().any(|entry| entry.fact == target));
        holds(known, "target", "there is nothing to cross out", "")
    }
}
