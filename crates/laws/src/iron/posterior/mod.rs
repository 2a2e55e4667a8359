//! How evidence combines, what it leaves plausible, and which test is worth doing next.

mod gain;
mod notice;

use std::cmp::Reverse;

use serde::Serialize;

use super::{Confidence, Era, Evidence, Family, Finding, Iron, LookTest};

use gain::gains;
use notice::{look_alikes, notices, white_standing};

/// House: the plausible set holds at least this much.
const PLAUSIBLE: f64 = 0.95;
/// House: an outcome the rest of the evidence gave less than this disagrees with it.
const SURPRISE: f64 = 0.05;

/// Something about the evidence that has to be said aloud.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum Notice {
    /// The finding disagrees with all the others together.
    Disagrees { finding: String, spot: String, gave_percent: f64 },
    /// A measured value stands more than three standard deviations from the leading iron.
    FarFromLeader { finding: String, spot: String, deviations: f64 },
    /// Ductile leads although the part is older than ductile iron.
    DuctileBeforeItWasMade,
    /// Sound runs as in compacted-graphite iron, which is not among the six.
    CompactedGraphite,
    /// Old ornamental work that behaves like steel: it may be wrought, not cast.
    WroughtIron,
    /// A wear part that is not magnetic: manganese steel reads as Ni-resist.
    ManganeseSteel,
    /// The ring of a part with an open crack.
    DeadenedRing,
}

impl Notice {
    #[must_use]
    pub fn sentence(&self) -> String {
        match self {
            Self::Disagrees { finding, gave_percent, .. } => format!(
                "{finding}: this disagrees with the rest, which gave it {gave_percent:.1} %. Do it \
                 again, or look for a skin or a hard spot."
            ),
            Self::FarFromLeader { finding, deviations, .. } => format!(
                "{finding}: this disagrees with the leading iron, {deviations:.1} standard \
                 deviations off. Measure again."
            ),
            Self::DuctileBeforeItWasMade => "Ductile leads, yet it was hardly made before 1949: a \
                 replaced casting, or a wrong date."
                .to_owned(),
            Self::CompactedGraphite => "Sound runs as in compacted-graphite iron, between gray and \
                 ductile: treat it as ductile."
                .to_owned(),
            Self::WroughtIron => "Old ornamental work can be wrought, not cast: a break with fibres like \
                 wood. Then none of this applies."
                .to_owned(),
            Self::ManganeseSteel => "A wear part that is hardly magnetic may be manganese steel, not \
                 Ni-resist: no preheat, ask for its maker."
                .to_owned(),
            Self::DeadenedRing => "The open crack deadens the ring: it counts as unsure.".to_owned(),
        }
    }
}

/// How far white iron is believed. A skin, a chill or one hard spot makes a file skate.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WhiteStanding {
    /// Under the share at which it matters.
    NotInQuestion,
    /// In question, and no test speaks for it yet.
    TestFirst,
    /// One test, or several at one spot, speak for it.
    TestAgainElsewhere,
    /// Two different tests at different spots favour it.
    Believed,
}

/// What is believed of the iron.
#[derive(Debug, Clone, PartialEq)]
pub struct Belief {
    /// Probability of each iron, in the order of [`Iron::ALL`]; sums to 1.
    pub posterior: [f64; 6],
    /// Before any test.
    pub prior: [f64; 6],
    pub leading: Iron,
    /// The fewest irons that together hold 95 %, likeliest first.
    pub plausible: Vec<Iron>,
    /// Tests not done yet with their expected fall of entropy in bits, best bits a minute first.
    pub gain_bits: Vec<(LookTest, f64)>,
    pub notices: Vec<Notice>,
    pub white: WhiteStanding,
    /// After each observation in the order given: what was found and the belief then.
    pub steps: Vec<(Step, [f64; 6])>,
    /// Of each observation given, how it counts.
    pub counts: Vec<Counts>,
}

/// How an observation counts beside the others of its test.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Counts {
    InFull,
    /// At a further spot: with half its confidence.
    ByHalf,
    /// Done again at the same spot since: not at all.
    Not,
}

/// An observation as it moved the belief.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Step {
    /// "Punch raises a rim".
    pub found: String,
    /// "Punch".
    pub test: String,
}

impl Belief {
    #[must_use]
    pub fn of(&self, iron: Iron) -> f64 {
        self.posterior[iron.index()]
    }

    /// The leading iron holds 95 %: no further test is needed.
    #[must_use]
    pub fn enough(&self) -> bool {
        self.of(self.leading) >= PLAUSIBLE
    }

    #[must_use]
    pub fn is_plausible(&self, iron: Iron) -> bool {
        self.plausible.contains(&iron)
    }

    /// The plausible irons that a joint is measured against: one that is hardly likely does not set the
    /// strength.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn setting_the_strength(&self) -> Vec<Iron> {
        /// House: an iron less likely than this sets no strength.
        const LEAST: f64 = 0.05;
        self.plausible.iter().copied().filter(|iron| self.of(*iron) >= LEAST).collect()
    }

    /// How likely an observation is, all irons weighed by what is believed of them.
    #[must_use]
    pub fn chance_of(&self, item: &Evidence, open_crack: bool) -> f64 {
        let weight = confidence_of(&item.finding, item.confidence, open_crack);
        let likelihood = softened(&item.finding.likelihood(), weight);
        self.posterior.iter().zip(likelihood).map(|(p, l)| p * l).sum()
    }

    /// The belief as if it were known to be this iron.
    #[must_use]
    pub fn as_if(mut self, iron: Iron) -> Self {
        self.posterior = Iron::ALL.map(|other| if other == iron { 1.0 } else { 0.0 });
        self.leading = iron;
        self.plausible = vec![iron];
        self.notices.clear();
        self.white = if iron == Iron::White { WhiteStanding::Believed } else { WhiteStanding::NotInQuestion };
        self
    }
}

/// What the evidence makes of the prior.
///
/// Posterior = prior x product of likelihoods, renormalised. An observation's likelihoods L become
/// c L + (1 - c) mean(L) with its confidence c. A ring test on a part with an open crack is never
/// better than *unsure*. One test repeated at the same spot replaces its earlier outcome; at
/// another spot it counts with half its confidence.
///
/// # Source
/// Bayes' theorem; likelihoods, confidences and limits are house.
#[must_use]
pub fn confirm(family: Family, era: Era, open_crack: bool, evidence: &[Evidence]) -> Belief {
    let counted = counted(evidence, open_crack);
    let prior = family.prior(era);
    let mut posterior = prior;
    let mut steps = Vec::with_capacity(counted.len());
    for Counted { item, likelihood, .. } in &counted {
        posterior = update(posterior, likelihood);
        let step = Step { found: item.finding.words(), test: item.finding.label().to_owned() };
        steps.push((step, posterior));
    }
    let ranked = ranked(&posterior);
    let leading = ranked[0];
    let mut plausible = Vec::new();
    let mut held = 0.0;
    for iron in ranked {
        plausible.push(iron);
        held += posterior[iron.index()];
        if held >= PLAUSIBLE {
            break;
        }
    }
    let mut notices = notices(prior, &counted, leading);
    notices.extend(look_alikes(family, era, open_crack, &counted, leading));
    let counts = evidence
        .iter()
        .map(|item| match counted.iter().find(|counted| std::ptr::eq(counted.item, item)) {
            None => Counts::Not,
            Some(counted) if counted.full => Counts::InFull,
            Some(_) => Counts::ByHalf,
        })
        .collect();
    Belief {
        white: white_standing(&posterior, &counted),
        gain_bits: gains(&posterior, evidence, open_crack),
        posterior,
        prior,
        leading,
        plausible,
        notices,
        steps,
        counts,
    }
}

/// An observation that counts.
struct Counted<'a> {
    item: &'a Evidence,
    /// Not at a further spot.
    full: bool,
    likelihood: [f64; 6],
}

/// The observations that count, in the order in which their test was first done, each with its
/// likelihoods after confidence.
fn counted(evidence: &[Evidence], open_crack: bool) -> Vec<Counted<'_>> {
    let mut kept: Vec<&Evidence> = Vec::with_capacity(evidence.len());
    for item in evidence {
        let same =
            |other: &&Evidence| other.finding.test_id() == item.finding.test_id() && other.spot == item.spot;
        match kept.iter().position(same) {
            Some(at) => kept[at] = item,
            None => kept.push(item),
        }
    }
    // Of several spots the first counts in full, the others by half. Where none is called the
    // first spot it is the first by name, so that the order in which they were done and how sure
    // each is change nothing about which it is.
    let full = |item: &Evidence| {
        kept.iter()
            .filter(|other| other.finding.test_id() == item.finding.test_id())
            .max_by_key(|e| (e.spot == Evidence::FIRST_SPOT, Reverse(&e.spot)))
            .is_some_and(|best| std::ptr::eq(*best, item))
    };
    kept.iter()
        .map(|item| {
            let full = full(item);
            let weight =
                confidence_of(&item.finding, item.confidence, open_crack) * if full { 1.0 } else { 0.5 };
            Counted { item, full, likelihood: softened(&item.finding.likelihood(), weight) }
        })
        .collect()
}

fn confidence_of(finding: &Finding, confidence: Confidence, open_crack: bool) -> f64 {
    let deadened = open_crack && finding.test_id() == LookTest::Ring.id();
    if deadened { Confidence::Unsure.weight() } else { confidence.weight() }
}

fn softened(likelihood: &[f64; 6], weight: f64) -> [f64; 6] {
    let mean = likelihood.iter().sum::<f64>() / 6.0;
    likelihood.map(|l| weight * l + (1.0 - weight) * mean)
}

fn update(belief: [f64; 6], likelihood: &[f64; 6]) -> [f64; 6] {
    let mut product = belief;
    for (p, l) in product.iter_mut().zip(likelihood) {
        *p *= l;
    }
    normalised(product)
}

pub(super) fn normalised(weights: [f64; 6]) -> [f64; 6] {
    let sum: f64 = weights.iter().sum();
    weights.map(|w| w / sum)
}

fn ranked(belief: &[f64; 6]) -> [Iron; 6] {
    let mut order = Iron::ALL;
    order.sort_by(|a, b| belief[b.index()].total_cmp(&belief[a.index()]));
    order
}

#[cfg(test)]
mod tests {
    use super::gain::entropy_fall_bits;
    use super::*;
    use crate::quantity::WallMillimetres;
    use proptest::prelude::*;

    fn look(test: LookTest, outcome: &str, confidence: Confidence, spot: &str) -> Evidence {
        let outcome = test.outcome(outcome).unwrap();
        Evidence { finding: Finding::Look { test, outcome }, confidence, spot: spot.into() }
    }

    #[test]
    fn the_same_spot_replaces_and_another_spot_adds() {
        let wrong = look(LookTest::File, "skates", Confidence::Sure, "rim");
        let right = look(LookTest::File, "bites", Confidence::Sure, "rim");
        let other = look(LookTest::File, "bites", Confidence::Sure, "hub");
        let of = |evidence: &[Evidence]| confirm(Family::Unknown, Era::Unknown, true, evidence).posterior;
        assert_eq!(of(&[wrong, right.clone()]), of(std::slice::from_ref(&right)));
        assert_ne!(of(&[right.clone(), other]), of(&[right]));
    }

    #[test]
    fn white_is_believed_only_after_two_tests_apart() {
        let skates = look(LookTest::File, "skates", Confidence::Sure, "rim");
        let dead_drill = |spot| look(LookTest::Drill, "will_not_bite", Confidence::Sure, spot);
        let standing = |evidence: &[Evidence]| confirm(Family::WearPart, Era::Unknown, false, evidence).white;
        assert_eq!(standing(&[]), WhiteStanding::TestFirst);
        assert_eq!(standing(std::slice::from_ref(&skates)), WhiteStanding::TestAgainElsewhere);
        assert_eq!(standing(&[skates.clone(), dead_drill("rim")]), WhiteStanding::TestAgainElsewhere);
        assert_eq!(standing(&[skates, dead_drill("face")]), WhiteStanding::Believed);
    }

    #[test]
    fn an_outcome_the_rest_hardly_allows_is_said_aloud() {
        let belief = confirm(
            Family::MachineFrame,
            Era::Unknown,
            true,
            &[
                look(LookTest::Punch, "crumbles_no_rim", Confidence::Sure, "a"),
                look(LookTest::Drill, "long_curls", Confidence::Sure, "a"),
            ],
        );
        assert!(
            matches!(&belief.notices[0], Notice::Disagrees { finding, .. } if finding.contains("long curls"))
        );
    }

    #[test]
    fn a_sound_speed_far_from_the_leader_is_said_aloud() {
        let wall = WallMillimetres::new(14.0).unwrap();
        let sound = Evidence {
            finding: Finding::Sound(crate::iron::SoundSpeed::new(6200.0, wall).unwrap()),
            confidence: Confidence::Unsure,
            spot: "a".into(),
        };
        let belief = confirm(Family::Cookware, Era::Unknown, true, &[sound]);
        assert!(matches!(belief.notices[..], [Notice::FarFromLeader { .. }]));
    }

    fn any_evidence() -> impl Strategy<Value = Evidence> {
        (0..7usize, 0..5usize, 0..3usize, 0..3usize).prop_map(|(test, outcome, sure, spot)| {
            let test = LookTest::ALL[test];
            let outcome = &test.outcomes()[outcome % test.outcomes().len()];
            let confidence = [Confidence::Unsure, Confidence::Fair, Confidence::Sure][sure];
            Evidence {
                finding: Finding::Look { test, outcome },
                confidence,
                spot: ["rim", "hub", "face"][spot].into(),
            }
        })
    }

    proptest! {
        #[test]
        fn probabilities_sum_to_one_and_gains_are_never_negative(
            evidence in proptest::collection::vec(any_evidence(), 0..12), open: bool,
        ) {
            let belief = confirm(Family::Unknown, Era::From1970On, open, &evidence);
            prop_assert!((belief.posterior.iter().sum::<f64>() - 1.0).abs() < 1e-9);
            for test in LookTest::ALL {
                let bits = entropy_fall_bits(&belief.posterior, test, open);
                prop_assert!(bits > -1e-12, "{}: {bits}", test.label());
            }
        }

        #[test]
        fn the_order_of_tests_changes_neither_probabilities_nor_notices(
            mut evidence in proptest::collection::vec(any_evidence(), 0..12), open: bool,
        ) {
            // One observation a test and spot: a repeat replaces, and then order does matter.
            evidence.sort_by_key(|e| (e.finding.test_id(), e.spot.clone()));
            evidence.dedup_by_key(|e| (e.finding.test_id(), e.spot.clone()));
            let forward = confirm(Family::PumpValve, Era::Unknown, open, &evidence);
            evidence.reverse();
            let backward = confirm(Family::PumpValve, Era::Unknown, open, &evidence);
            for iron in Iron::ALL {
                prop_assert!((forward.of(iron) - backward.of(iron)).abs() < 1e-9);
            }
            let spoken = |belief: &Belief| -> Vec<String> {
                belief.notices.iter().map(Notice::sentence).collect()
            };
            prop_assert_eq!(spoken(&forward), spoken(&backward));
        }
    }
}
