//! The shop a practice is done in: the learner's own, with the gear of the case and none of its own record.

use uuid::Uuid;

use super::{Gear, Practice};
use crate::field::{ROD_CHOICES, SETS};
use crate::heat::{FactorOf, HeatSource, OwnFactor, Packing};
use crate::prep::said::PinKind;
use crate::shop::Shop;

/// One reading of its own that makes the shop's factor this, beside the book that counts for four: `(4 + f) / 5`.
fn counts_as(factor: f64) -> f64 {
    5.0 * factor - 4.0
}

/// What is at hand, in words: sources, sets, rods, packings.
#[must_use]
pub fn gear_words(gear: &Gear) -> Vec<String> {
    let among = |ids: &[String], choices: &[(&str, &str)]| {
        let label = |id: &String| choices.iter().find(|(known, _)| known == id).map(|(_, label)| *label);
        let labels: Vec<&str> = ids.iter().filter_map(label).collect();
        labels.join(", ")
    };
    let kit = if gear.stitch_kit { "Pins, taps and drills" } else { "" };
    let lines = [
        among(&gear.sources, HeatSource::CHOICES),
        among(&gear.sets, SETS),
        among(&gear.rods, ROD_CHOICES),
        among(&gear.packings, Packing::CHOICES),
        kit.to_owned(),
    ];
    lines.into_iter().filter(|line| !line.is_empty()).collect()
}

/// The shop as a practice sees it. For the made-up part itself flame and packing do what they really do.
#[must_use]
pub fn bench(practice: &Practice, shop: &Shop) -> Shop {
    let gear = &practice.of.gear;
    let own = |what: FactorOf, factor: f64| OwnFactor {
        lit: Uuid::nil(),
        name: String::new(),
        what,
        factor: counts_as(factor),
    };
    let truth = &practice.truth;
    let learned = if practice.as_it_is {
        let sources = HeatSource::ALL
            .iter()
            .map(|source| own(FactorOf::Source { id: source.id.to_owned() }, truth.power));
        let packings = Packing::CHOICES.iter().filter_map(|(id, _)| Packing::from_id(id));
        let packings = packings.map(|packing| own(FactorOf::Packing { packing }, truth.packing));
        sources.chain(packings).collect()
    } else {
        Vec::new()
    };
    Shop {
        sources: Some(gear.sources.clone()),
        packings: Some(gear.packings.clone()),
        rods: Some(gear.rods.clone()),
        sets: Some(gear.sets.clone()),
        stitch_kit: Some(gear.stitch_kit),
        pins: gear.stitch_kit.then_some(PinKind::DrawIn),
        drills_mm: Vec::new(),
        stores: Vec::new(),
        used: Vec::new(),
        repairs: Vec::new(),
        timed: Vec::new(),
        tips: Vec::new(),
        coupons: Vec::new(),
        done_often: None,
        learned,
        ..shop.clone()
    }
}
