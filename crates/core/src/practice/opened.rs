//! Whether a crack of the drawn face ran on while it was heated: with the true iron, the true flame, where it was put.

use crate::heat::SimCache;
use crate::job::{Job, Lighting};
use crate::plan::{FlamePlacement, Opens, face_part, opens, plan_as_if};
use crate::secret::{Practice, bench};
use crate::shop::Shop;

/// House: what the iron stands lies within this share of the book.
const STANDS_WITHIN: f64 = 0.3;

/// Of the book's figure, what this iron stands.
pub(super) fn stands(practice: &Practice) -> f64 {
    1.0 + STANDS_WITHIN * (2.0 * practice.draws().even("stands", "") - 1.0)
}

/// The crack that runs on in this heat, and when; nothing where none does, and for what is no drawn face under a flame.
pub(super) fn opened(job: &Job, shop: &Shop, sims: &SimCache) -> Option<Opens> {
    job.round().lit.as_ref().filter(|lit| lit.what == Lighting::Main)?;
    under(job, shop, sims, FlameAt::Said)
}

/// Where the flame is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum FlameAt {
    /// Where it was said that it begins; beside the break where nobody said.
    Said,
    Break,
    All,
}

/// The same with the flame put elsewhere.
pub(super) fn under(job: &Job, shop: &Shop, sims: &SimCache, at: FlameAt) -> Option<Opens> {
    let truly = job.as_it_is();
    let practice = truly.practice.as_ref()?;
    let plan = plan_as_if(&truly, shop, practice.truth.iron, sims);
    let part = face_part(&truly, &plan, &bench(practice, shop)).ok()?;
    let model = part.model().ok()?;
    let asked = match at {
        FlameAt::Said => FlamePlacement::default().or_as_said(&truly, part.face),
        FlameAt::Break => FlamePlacement { at: Some(part.joint()), ..FlamePlacement::default() },
        FlameAt::All => FlamePlacement { swept: true, ..FlamePlacement::default() },
    };
    opens(&part, &model, &asked, stands(practice))
}
