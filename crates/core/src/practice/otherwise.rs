//! The same case with one choice changed: what of a hundred would have held, and whether this one would have.

use serde::Serialize;

use super::answers::{beyond_by, hidden_shows, is_at_hand};
use super::ended::{Did, TrueTip};
use super::opened::{FlameAt, under};
use crate::crack::stop_hole::{FoundBy, stop_hole};
use crate::heat::SimCache;
use crate::method::OddsPart;
use crate::quantity::WallMillimetres;
use crate::shop::Shop;
use crate::stage::Contender;

/// One choice changed, all else as it was.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Otherwise {
    /// `leave`, `found_by.dye`, `method.torch_braze`, `without.oil`.
    pub choice: String,
    /// "A hole at each tip"
    pub words: String,
    /// "of 100 such repairs 81 instead of 74 would have held"
    pub of_100: String,
    pub odds: f64,
    /// With the same luck this one would have held.
    pub holds: bool,
}

/// Choices that would have kept a part of the odds away.
const KEPT_AWAY: [(&str, &str); 16] = [
    ("preheat_short", "The part at its heat before the first bead"),
    ("beads_cold", "No bead begun under the window"),
    ("beads_hot", "No bead begun over the window"),
    ("uneven", "Heated evenly"),
    ("restraint", "The whole part heated, not the joint alone"),
    ("fell_fast", "Packed so that it falls no faster than it may"),
    ("tip_missed", "A hole past each true tip"),
    ("no_hole", "A hole at each tip"),
    ("oil", "The oil baked out first"),
    ("old_filler", "The old bronze out first"),
    ("one_side", "From both sides"),
    ("not_peened", "Each bead peened"),
    ("hard_edge", "A slower edge: more heat in the part"),
    ("cause_stays", "What broke it put right"),
    ("arc_only_short", "The whole part heated for the bronze"),
    ("faults", "Each fault made good"),
];

/// Ours: a change smaller than this is told by nobody.
const WORTH_SAYING: f64 = 0.005;

pub(super) fn otherwise(
    did: &Did<'_>,
    (odds, drawn): (f64, f64),
    (shop, sims): (&Shop, &SimCache),
) -> Vec<Otherwise> {
    let mut all = Vec::new();
    let mut add = |choice: String, words: String, then: f64| {
        if (then - odds).abs() >= WORTH_SAYING {
            let of_100 = format!(
                "of 100 such repairs {:.0} instead of {:.0} would have held",
                then * 100.0,
                odds * 100.0
            );
            all.push(Otherwise { choice, words, of_100, odds: then, holds: drawn < then });
        }
    };
    if let Some(way) = did.way {
        with_this_way(did, way, &mut add);
        // The same flame where no crack runs on.
        let elsewhere = [
            (FlameAt::Break, "flame.break", "The flame held beside the break"),
            (FlameAt::All, "flame.swept", "The flame swept over all of it"),
        ];
        for (at, choice, words) in elsewhere {
            if did.opened.is_some() && under(did.job, shop, sims, at).is_none() {
                let calm = Did { opened: None, ..*did };
                let (parts, on_top) = calm.parts(way, &calm.tips(), calm.baked(), calm.hidden_found());
                let then = calm.odds(way.odds_start.mean, &parts, &on_top, calm.open());
                add(choice.to_owned(), words.to_owned(), then);
            }
        }
        add("leave".to_owned(), "Left alone".to_owned(), did.practice.truth.left_alone);
    }
    for other in did.truly.methods.contenders.iter().filter(|it| !it.excluded && it.recommended) {
        if !is_at_hand(did.practice, other.way.method) {
            continue;
        }
        if did.way.is_some_and(|way| way.way.method == other.way.method) {
            continue;
        }
        // As it would have been planned, its holes drilled as they were.
        let (parts, on_top) = did.parts(other, &did.tips(), did.baked(), did.hidden_found());
        let then = did.odds(other.odds_start.mean, &parts, &on_top, false);
        add(
            format!("method.{}", other.way.method.id()),
            format!("{}, {}", other.label, other.heat_words),
            then,
        );
    }
    all.sort_by(|a, b| b.odds.total_cmp(&a.odds));
    all
}

fn with_this_way(did: &Did<'_>, way: &Contender, add: &mut impl FnMut(String, String, f64)) {
    let (tips, baked, found) = (did.tips(), did.baked(), did.hidden_found());
    let start = way.odds_start.mean;
    let (parts, on_top) = did.parts(way, &tips, baked, found);
    if did.open() {
        add("filled".to_owned(), "Filled to the end".to_owned(), did.odds(start, &parts, &on_top, false));
    }
    for (name, words) in KEPT_AWAY {
        let without: Vec<OddsPart> = parts.iter().filter(|part| part.name != name).cloned().collect();
        if without.len() < parts.len() {
            let then = did.odds(start, &without, &on_top, did.open());
            add(format!("without.{name}"), words.to_owned(), then);
        }
    }
    for by in [FoundBy::ChalkAndOil, FoundBy::Dye, FoundBy::Magnetic] {
        let again = found_by(did, by);
        let found = found || hidden_shows(did.practice, by);
        let (parts, on_top) = did.parts(way, &again, baked, found);
        let then = did.odds(start, &parts, &on_top, did.open());
        add(format!("found_by.{}", by.id()), format!("Ends {}, and drilled by that", by.words()), then);
    }
}

/// The tips as this way of finding shows them, each with the hole that is planned for it.
fn found_by(did: &Did<'_>, by: FoundBy) -> Vec<TrueTip> {
    let tips = did.tips();
    let again = tips.into_iter().map(|tip| {
        let at = did.job.round().cracks.iter().position(|crack| crack.letter == tip.crack);
        let truth = at.and_then(|at| did.practice.truth.cracks.get(at));
        let wall = at.map(|at| did.truly.cracks[at].wall_mm).and_then(|mm| WallMillimetres::new(mm).ok());
        let (Some(truth), Some(wall)) = (truth, wall) else { return tip };
        let end = usize::from(tip.end == "right");
        let hole = stop_hole(wall, by, &[]).well_past(by);
        let beyond_mm = beyond_by(truth, by, end);
        TrueTip { beyond_mm, hole_to_mm: Some(hole.offset_mm + hole.drill_mm / 2.0), ..tip }
    });
    again.collect()
}
