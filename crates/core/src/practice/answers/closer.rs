//! What a closer look shows of a crack.

use crate::casting::said::Oil;
use uuid::Uuid;

use super::{beyond_by, hidden_found, hidden_shows, set};
use crate::crack::said::EndKind;
use crate::crack::stop_hole::FoundBy;
use crate::field;
use crate::field::crack_key;
use crate::job::{Change, Crack, Job, Round};
use crate::map::{Drawn, Shape, length_mm};
use crate::secret::{Practice, TrueCrack};

/// Cleaned and looked at closely: its ends as this way shows them, and what was under the dirt.
pub(super) fn looked_closely(practice: &Practice, job: &Job, crack: &Crack, by: FoundBy) -> Vec<Change> {
    let (truth, round) = (&practice.truth, job.round());
    let mut shown = Vec::new();
    let at = round.cracks.iter().position(|known| known.id == crack.id);
    if let Some(it) = at.and_then(|at| truth.cracks.get(at)) {
        let ends = [field::crack::END_A, field::crack::END_B];
        let tips = (0..2).filter(|end| round.get(ends[*end].of(crack.id)) == Some(EndKind::Tip));
        let short: f64 = tips.map(|end| beyond_by(it, by, end)).sum();
        let length = (it.length_mm - short).max(1.0);
        let drawn = drawn_anew(round, crack.id, it, by);
        shown.push(drawn.unwrap_or_else(|| set(crack_key(crack.id, "length"), format!("{length:.1}"))));
    }
    // Paint and grease come off first, and show what they hid.
    let oil = if truth.oil { Oil::Soaked } else { Oil::Clean };
    if round.get(field::part::OIL).is_none_or(|said| said == Oil::Clean && truth.oil) {
        shown.push(set(field::part::OIL.key().to_owned(), oil.id().to_owned()));
    }
    if round.typed(field::part::OLD_FILLER.key()).is_none_or(|said| said != "bronze") {
        let old = if truth.old_bronze { "bronze" } else { "none" };
        shown.push(set(field::part::OLD_FILLER.key().to_owned(), old.to_owned()));
    }
    shown
}

/// A crack that lies on the map with its ends where this way of finding shows them; nothing for one that does not.
fn drawn_anew(round: &Round, crack: Uuid, truth: &TrueCrack, by: FoundBy) -> Option<Change> {
    let placed = round.drawn.iter().find(|placed| placed.mark == crack)?;
    let Shape::Line { points } = &placed.shape else { return None };
    let kinds =
        [field::crack::END_A, field::crack::END_B].map(|end| round.get(end.of(crack)) == Some(EndKind::Tip));
    let beyond = |way: FoundBy, end: usize| if kinds[end] { beyond_by(truth, way, end) } else { 0.0 };
    let shows = |way: FoundBy| truth.length_mm - beyond(way, 0) - beyond(way, 1);
    let drawn_mm = length_mm(&placed.shape.points());
    // As it is drawn it was found before: by the way that comes nearest.
    let ways = [FoundBy::Eye, FoundBy::ChalkAndOil, FoundBy::Dye, FoundBy::Magnetic];
    let off = |way: &FoundBy| (shows(*way) - drawn_mm).abs();
    let before = ways.into_iter().min_by(|a, b| off(a).total_cmp(&off(b)))?;
    let mut points = points.clone();
    let last = points.len().checked_sub(1)?;
    for (end, (tip, next)) in [(0, (0, 1.min(last))), (1, (last, last.saturating_sub(1)))] {
        let further = beyond(before, end) - beyond(by, end);
        let (from, at) = (points[next].at(), points[tip].at());
        if let Some(toward) = from.toward(at).filter(|_| kinds[end]) {
            let moved = at.along(toward, further);
            (points[tip].x_mm, points[tip].y_mm) = (moved.x_mm, moved.y_mm);
        }
    }
    let shape = Some(Shape::Line { points });
    Some(Change::Draw { drawn: vec![Drawn { mark: crack, face: placed.face, shape }] })
}

/// House: dye and powder show a second crack so often, chalk and oil half as often.
pub(super) fn finds_hidden(by: FoundBy) -> f64 {
    match by {
        FoundBy::Magnetic => 0.95,
        FoundBy::Dye => 0.9,
        FoundBy::ChalkAndOil => 0.45,
        FoundBy::Eye | FoundBy::Heat | FoundBy::AfterCooling => 0.0,
    }
}

/// The second crack, where it shows and is not known yet.
pub(super) fn second_crack(
    practice: &Practice,
    job: &Job,
    by: FoundBy,
    new_id: &mut impl FnMut() -> Uuid,
    shown: &mut Vec<(Uuid, Change)>,
) {
    let Some(hidden) =
        practice.truth.hidden.filter(|_| hidden_shows(practice, by) && !hidden_found(practice, job))
    else {
        return;
    };
    let id = new_id();
    shown.push((id, Change::AddCrack));
    let fields = [
        ("length", format!("{:.0}", hidden.length_mm)),
        ("wall", format!("{:.0}", hidden.wall_mm)),
        ("found_by", by.id().to_owned()),
        ("end_a", "edge".to_owned()),
        ("end_b", "hole".to_owned()),
        ("becomes", "repair".to_owned()),
    ];
    shown.extend(fields.map(|(field, typed)| (new_id(), set(crack_key(id, field), typed))));
}
