//! What of the tests is said aloud.

use super::super::{Confidence, Era, Family, Finding, Iron, LookTest};
use super::{Counted, Notice, SURPRISE, WhiteStanding, ranked, update};

pub(super) fn notices(prior: [f64; 6], counted: &[Counted<'_>], leading: Iron) -> Vec<Notice> {
    let mut found: Vec<Notice> = counted
        .iter()
        .enumerate()
        .filter_map(|(at, Counted { item, .. })| {
            let (finding, spot) = (item.finding.words(), item.spot.clone());
            if let Some(deviations) = item.finding.deviations_from(leading) {
                return (deviations > 3.0).then_some(Notice::FarFromLeader { finding, spot, deviations });
            }
            let others = counted.iter().enumerate().filter(|(other, _)| *other != at);
            let rest = others.fold(prior, |belief, (_, other)| update(belief, &other.likelihood));
            let gave: f64 = rest.iter().zip(item.finding.likelihood()).map(|(p, l)| p * l).sum();
            (gave < SURPRISE).then_some(Notice::Disagrees { finding, spot, gave_percent: gave * 100.0 })
        })
        .collect();
    found.sort_by_key(Notice::sentence);
    found
}

/// What is not among the six but would read like one of them.
pub(super) fn look_alikes(
    family: Family,
    era: Era,
    open_crack: bool,
    counted: &[Counted<'_>],
    leading: Iron,
) -> Vec<Notice> {
    /// House: sound in compacted-graphite iron, m/s.
    const COMPACTED_M_S: std::ops::RangeInclusive<f64> = 5100.0..=5450.0;
    let shows = |wanted: LookTest, outcomes: &[&str]| {
        counted.iter().any(|counted| match counted.item.finding {
            Finding::Look { test, outcome } => test == wanted && outcomes.contains(&outcome.id),
            Finding::Sound(_) | Finding::Density(_) | Finding::Mark(_) => false,
        })
    };
    let mut found = Vec::new();
    if era == Era::Before1949 && leading == Iron::Ductile {
        found.push(Notice::DuctileBeforeItWasMade);
    }
    let compacted = counted.iter().any(|counted| match counted.item.finding {
        Finding::Sound(sound) => COMPACTED_M_S.contains(&sound.metres_per_second()),
        Finding::Look { .. } | Finding::Density(_) | Finding::Mark(_) => false,
    });
    if compacted {
        found.push(Notice::CompactedGraphite);
    }
    let like_steel = shows(LookTest::Spark, &["long_bright_forked"])
        || shows(LookTest::Punch, &["curls_a_chip"])
        || shows(LookTest::Drill, &["long_curls"]);
    if family == Family::Ornamental && era != Era::From1970On && like_steel {
        found.push(Notice::WroughtIron);
    }
    if family == Family::WearPart && shows(LookTest::Magnet, &["weak_or_none"]) {
        found.push(Notice::ManganeseSteel);
    }
    let sure_ring = counted.iter().any(|counted| {
        counted.item.finding.test_id() == LookTest::Ring.id() && counted.item.confidence > Confidence::Unsure
    });
    if open_crack && sure_ring {
        found.push(Notice::DeadenedRing);
    }
    found
}

/// House: white counts from this share on.
const WHITE_IN_QUESTION: f64 = 0.10;

pub(super) fn white_standing(posterior: &[f64; 6], counted: &[Counted<'_>]) -> WhiteStanding {
    if posterior[Iron::White.index()] < WHITE_IN_QUESTION {
        return WhiteStanding::NotInQuestion;
    }
    let other = ranked(posterior).into_iter().find(|&iron| iron != Iron::White).unwrap_or(Iron::Gray);
    let favouring: Vec<(&str, &str)> = counted
        .iter()
        .filter(|counted| counted.likelihood[Iron::White.index()] > counted.likelihood[other.index()])
        .map(|counted| (counted.item.finding.test_id(), counted.item.spot.as_str()))
        .collect();
    let apart = favouring.iter().any(|a| favouring.iter().any(|b| a.0 != b.0 && a.1 != b.1));
    if apart {
        WhiteStanding::Believed
    } else if favouring.is_empty() {
        WhiteStanding::TestFirst
    } else {
        WhiteStanding::TestAgainElsewhere
    }
}
