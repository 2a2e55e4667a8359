//! Faults that come of what was done: each with its chance for a bead, all house.

use super::answers::burnt;
use crate::casting::said::Oil;
use crate::faults::causes::Symptom;
use crate::field;
use crate::iron::Iron;
use crate::job::{Deed, Job, TorchEntry};
use crate::method::Joins;
use crate::plan::Plan;
use crate::secret::Practice;

/// How it stands when a bead is laid.
struct Moment {
    /// Beads laid, this one among them.
    bead: usize,
    /// K under the window, and over it.
    under_k: f64,
    over_k: f64,
    not_peened: bool,
    oily: bool,
}

/// What goes wrong with the bead that was laid last. One thing is seen at a time, and once only until it was mended.
pub(super) fn faults(practice: &Practice, job: &Job, plan: &Plan) -> Option<Symptom> {
    let round = job.round();
    let way = round.lit.as_ref()?.frozen.as_ref()?.way?;
    let joins = way.method.entry().joins;
    let window = plan.torch.as_ref()?.window;
    let mut log: Vec<_> = round.said_at_torch().collect();
    log.sort_by(|(a, _), (b, _)| a.total_cmp(b));
    let laid = |entry: &TorchEntry| matches!(entry, TorchEntry::Bead { .. } | TorchEntry::Pin { .. });
    let bead = log.iter().filter(|(_, it)| laid(&it.entry)).count();
    let (minutes, _) = log.iter().rfind(|(_, it)| laid(&it.entry))?;
    let at_c = round.measured_at(*minutes).map(|read| read.celsius);
    let peened = log.iter().filter(|(_, it)| it.entry == TorchEntry::Peened).count();
    let moment = Moment {
        bead,
        under_k: window.zip(at_c).map_or(0.0, |((least, _), at)| (least - at).max(0.0)),
        over_k: window.zip(at_c).map_or(0.0, |((_, most), at)| (at - most).max(0.0)),
        // The bead before this one had its time.
        not_peened: plan.torch.as_ref().is_some_and(|torch| torch.peen) && peened + 1 < bead,
        oily: practice.truth.oil && round.get(field::part::OIL) != Some(Oil::BakedClean),
    };
    let open = |seen: Symptom| {
        let mut standing = false;
        for (_, it) in &log {
            match &it.entry {
                TorchEntry::Trouble { seen: said, .. } if *said == seen => standing = true,
                TorchEntry::Did { what: Deed::Refilled | Deed::GroundOut } => standing = false,
                _ => {}
            }
        }
        standing
    };
    let chances = chances(practice, joins, &moment, burnt(practice, job));
    let seen = chances.into_iter().find(|(seen, chance)| {
        let drawn = practice.draws().even(&format!("fault {seen:?}"), &moment.bead.to_string());
        drawn < *chance && !open(*seen)
    });
    seen.map(|(seen, _)| seen)
}

/// What may be seen, with its chance, what hurts most first.
fn chances(practice: &Practice, joins: Joins, at: &Moment, burnt: bool) -> Vec<(Symptom, f64)> {
    let arc = matches!(joins, Joins::Arc | Joins::ArcBronze);
    let brazes = matches!(joins, Joins::Bronze | Joins::Silver | Joins::ArcBronze);
    let cold = |a_50_k: f64, most: f64| (a_50_k * at.under_k / 50.0).min(most);
    let ductile = matches!(practice.truth.iron, Iron::Ductile | Iron::NiResist | Iron::Steel);
    let mut chances = vec![(
        Symptom::ToeCrack,
        if arc {
            let iron = if ductile { 0.5 } else { 1.0 };
            cold(0.04, 0.25) * iron
                + if at.not_peened { 0.02 } else { 0.0 }
                + if burnt { 0.25 } else { 0.0 }
                + if practice.truth.locked_in { 0.02 } else { 0.0 }
        } else {
            0.0
        },
    )];
    if brazes {
        chances.push((Symptom::NoFlow, cold(0.1, 0.5) + if at.oily { 0.15 } else { 0.0 }));
        chances.push((Symptom::WhiteSmoke, (at.over_k / 50.0 * 0.1).min(0.5)));
    }
    if !brazes && joins != Joins::Pins {
        let pores = if at.oily { 0.3 } else { 0.0 } + if practice.truth.old_bronze { 0.2 } else { 0.0 };
        chances.push((Symptom::Pinholes, pores));
    }
    if burnt {
        chances.push((Symptom::HardSpot, 0.3));
    }
    chances.retain(|(_, chance)| *chance > 0.0);
    chances
}
