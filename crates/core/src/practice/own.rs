//! One's own repair as a case: what was logged, and a truth drawn anew from what is believed.

use crate::casting::old_filler::OldFiller;
use crate::casting::said::Oil;
use crate::crack::said::EndKind;
use crate::crack::stop_hole::FoundBy;
use crate::field;
use crate::heat::{HeatSource, Packing};
use crate::iron::Iron;
use crate::job::Job;
use crate::plan::Plan;
use crate::secret::{Draws, Gear, Hidden, Level, Practised, TrueCrack, Truth, seal};
use crate::shop::Shop;

/// House: so often a part of which nobody looked so closely hides a second crack, or stress from its casting.
const HIDES: (f64, f64) = (0.2, 0.15);
/// House: of a hundred parts that failed once so many stand a year as they are.
const LEFT_ALONE: f64 = 0.15;

/// What marks the copy of a repair as a practice.
#[must_use]
pub fn own(job: &Job, plan: &Plan, shop: &Shop, seed: u32, level: Level) -> Practised {
    let (round, draws) = (job.round(), Draws::of(u64::from(seed)));
    let believed: Vec<f64> = Iron::ALL
        .iter()
        .map(|iron| {
            plan.iron.shares.iter().find(|share| share.iron == *iron).map_or(0.0, |share| share.share)
        })
        .collect();
    let about = |name: &str| 1.0 + Truth::WITHIN * (2.0 * draws.even(name, "") - 1.0);
    let cracks = round.cracks.iter().enumerate().map(|(at, crack)| {
        let beyond = ["a", "b"].map(|end| draws.normal("tip", &format!("{at}{end}")));
        let found_by = round.get(field::crack::FOUND_BY.of(crack.id)).unwrap_or(FoundBy::Eye);
        let (mean, deviation) = found_by.beyond_mm();
        let ends = [field::crack::END_A, field::crack::END_B];
        let tips = (0..2).filter(|end| round.get(ends[*end].of(crack.id)) == Some(EndKind::Tip));
        let further: f64 = tips.map(|end| (mean + deviation * beyond[end]).max(0.0)).sum();
        let length = round.get(field::crack::LENGTH.of(crack.id)).unwrap_or(50.0);
        TrueCrack { length_mm: length + further, beyond }
    });
    let (hidden, locked) = HIDES;
    let wall_mm = round.get(field::part::WALL).unwrap_or(12.0);
    let truth = Truth {
        iron: draws.one("iron", "", &believed).map_or(plan.iron.leading, |at| Iron::ALL[at]),
        cracks: cracks.collect(),
        oil: matches!(round.get(field::part::OIL), Some(Oil::Soaked | Oil::BakedClean)),
        locked_in: plan.bench.locked_in() || draws.even("locked_in", "") < locked,
        old_bronze: round.old_filler() == Some(OldFiller::Bronze),
        hidden: (draws.even("hidden", "") < hidden).then_some(Hidden { length_mm: 30.0, wall_mm }),
        service_c: None,
        power: about("power"),
        packing: about("packing"),
        sweep: about("sweep"),
        left_alone: LEFT_ALONE,
    };
    let all = |choices: &[(&str, &str)]| choices.iter().map(|(id, _)| (*id).to_owned()).collect::<Vec<_>>();
    let or_all = |said: &Option<Vec<String>>, choices: &[(&str, &str)]| {
        let known = said.clone().unwrap_or_else(|| all(choices));
        known.into_iter().filter(|id| id != field::NONE).collect::<Vec<_>>()
    };
    Practised {
        title: job.name().to_owned(),
        words: "One of your own, as it was logged. What it hides is drawn anew from what is believed of it."
            .to_owned(),
        lesson: String::new(),
        seed,
        level,
        made_by: String::new(),
        sealed: seal(&truth),
        gear: Gear {
            sources: or_all(&shop.sources, HeatSource::CHOICES),
            packings: or_all(&shop.packings, Packing::CHOICES),
            rods: or_all(&shop.rods, field::ROD_CHOICES),
            sets: or_all(&shop.sets, field::SETS),
            stitch_kit: shop.stitch_kit != Some(false),
        },
    }
}
