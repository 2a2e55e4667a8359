//! Ends of a job's cracks that were found once, and then better.

use uuid::Uuid;

use super::CrackPlan;
use crate::crack::said::EndKind;
use crate::crack::stop_hole::FoundBy;
use crate::crack::tip_offset::{APART_MOST_MM, OwnTip};
use crate::field::{FieldValue, Keyed, crack};
use crate::job::{Change, Fact, Job, Parsed, Round};
use crate::map::{At, Shape};

/// The pairs of this job: an end marked by eye or with chalk, then drawn again as dye or magnetic particles showed it,
/// before anything was heated. Nothing is made of a crack whose line was left as it was.
pub(super) fn found_again(job: &Job, cracks: &[CrackPlan], facts: &[Fact]) -> Vec<OwnTip> {
    cracks.iter().flat_map(|plan| of_crack(job, plan, facts)).collect()
}

fn instrument(found_by: Option<FoundBy>) -> Option<FoundBy> {
    found_by.filter(|it| matches!(it, FoundBy::Dye | FoundBy::Magnetic))
}

fn poorer(found_by: FoundBy) -> bool {
    matches!(found_by, FoundBy::Eye | FoundBy::ChalkAndOil)
}

/// The line of a crack, from its first end to its second, and the face it lies on.
fn line(round: &Round, plan: &CrackPlan) -> Option<(Uuid, Vec<At>)> {
    let placed = round.drawn.iter().find(|placed| placed.mark == plan.id)?;
    match &placed.shape {
        Shape::Line { points } if points.len() > 1 => Some((placed.face, placed.shape.points())),
        Shape::Line { .. } | Shape::Circle { .. } | Shape::Outline { .. } | Shape::Place { .. } => None,
    }
}

fn of_crack(job: &Job, plan: &CrackPlan, facts: &[Fact]) -> Vec<OwnTip> {
    of_two_findings(job, plan, facts).unwrap_or_default()
}

fn of_two_findings(job: &Job, plan: &CrackPlan, facts: &[Fact]) -> Option<Vec<OwnTip>> {
    let found_by = || crack::FOUND_BY.of(plan.id);
    let key = found_by().as_key().into_owned();
    let mut standing = None;
    let mut then = None;
    for (at, fact) in facts.iter().enumerate() {
        let (Change::Set { key: of, .. }, Some(Parsed::Field(Some(FieldValue::One(id))))) =
            (&fact.change, &fact.understood)
        else {
            continue;
        };
        let found_by = FoundBy::from_id(id).filter(|_| *of == key);
        if instrument(found_by).is_some() && standing.is_some_and(poorer) {
            then = Some(at);
        }
        standing = found_by.or(standing);
    }
    let then = then?;
    let heated = |fact: &Fact| matches!(fact.change, Change::NewRound { .. } | Change::Light { .. });
    let until = facts[then..].iter().position(heated).map_or(facts.len(), |more| then + more);
    let at = |facts: &[Fact]| Job::fold(job.id, facts);
    let (before, after) = (at(&facts[..then]), at(&facts[..until]));
    let first = before.round().get(found_by()).filter(|it| poorer(*it))?;
    // What the instrument itself leaves beyond.
    let left_mm = instrument(after.round().get(found_by()))?.beyond_mm().0;
    let ((face, old), (on, mut new)) = (line(before.round(), plan)?, line(after.round(), plan)?);
    // Drawn again from its other end it is the same crack.
    let (first_end, last_end) = (|points: &[At]| points[0], |points: &[At]| points[points.len() - 1]);
    let as_drawn = first_end(&old).distance_mm(first_end(&new)) + last_end(&old).distance_mm(last_end(&new));
    let turned = first_end(&old).distance_mm(last_end(&new)) + last_end(&old).distance_mm(first_end(&new));
    let turned_round = turned < as_drawn;
    if turned_round {
        new.reverse();
    }
    if old == new || face != on {
        return None;
    }
    let end = |second: bool| {
        let kind = plan.ends.get(usize::from(second != turned_round))?.kind;
        let (mut old, mut new) = (old.clone(), new.clone());
        if second {
            old.reverse();
            new.reverse();
        }
        let direction = old[1].toward(old[0])?;
        let (dx, dy) = (new[0].x_mm - old[0].x_mm, new[0].y_mm - old[0].y_mm);
        let apart = dx.hypot(dy);
        let beyond_mm = dx * direction.0 + dy * direction.1 + left_mm;
        let name = job.name().to_owned();
        (kind == Some(EndKind::Tip) && apart <= APART_MOST_MM).then_some(OwnTip {
            crack: plan.id,
            second,
            name,
            found_by: first,
            beyond_mm,
        })
    };
    Some([end(false), end(true)].into_iter().flatten().collect())
}
