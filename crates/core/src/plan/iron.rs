//! Stage 2: what the iron is, and which test is worth doing next.

use serde::{Deserialize, Serialize};

use super::part::{Caution, Lock, PartFacts};
use super::{Amount, Station};
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Belief, Evidence, Iron, LookTest, Notice, WhiteStanding, confirm};
use crate::job::Job;
use crate::quantity::{Shown, Unit, both};

/// An iron and its share of the belief.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Share {
    pub iron: Iron,
    pub label: String,
    pub share: f64,
    pub shown: Shown,
    pub plausible: bool,
    /// The share before any test, then after each observation that counts.
    pub history: Vec<f64>,
}

/// A test worth doing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NextTest {
    pub test: LookTest,
    pub label: String,
    pub verb: String,
    pub gain_bits: f64,
    pub minutes: f64,
    /// The mark it leaves; empty for none.
    pub mark: String,
}

/// One outcome of a test, to be chosen by what it looks like.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OutcomeView {
    pub id: String,
    pub looks: String,
}

/// A test as it lies on the roll.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TestView {
    pub test: LookTest,
    pub label: String,
    pub minutes: f64,
    pub mark: String,
    pub outcomes: Vec<OutcomeView>,
}

/// What is believed of the iron, ready to be shown.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct IronPlan {
    /// Likeliest first.
    pub shares: Vec<Share>,
    pub leading: Iron,
    pub plausible: Vec<Iron>,
    pub meaning: String,
    pub enough: bool,
    pub next_tests: Vec<NextTest>,
    pub notices: Vec<String>,
    /// What was found, in the order it counts: the steps of `history` after the first.
    pub steps: Vec<String>,
    pub roll: Vec<TestView>,
}

/// Ours: a test that tells less than this is not worth walking to the bench for.
const WORTH_BITS: f64 = 0.005;

/// The tests laid out in the slice, in the order of the tool roll.
const ROLL: [LookTest; 4] = [LookTest::Punch, LookTest::Drill, LookTest::File, LookTest::Magnet];

pub(super) fn belief(job: &Job, part: &PartFacts) -> Belief {
    let evidence: Vec<Evidence> = job.evidence.iter().filter_map(crate::job::Observed::evidence).collect();
    // A part comes in because it is cracked: until the map says otherwise, its ring is deadened.
    confirm(part.family, part.era, true, &evidence)
}

pub(super) fn iron_plan(belief: &Belief) -> IronPlan {
    let mut order = Iron::ALL;
    order.sort_by(|a, b| belief.of(*b).total_cmp(&belief.of(*a)));
    let next_tests = belief
        .gain_bits
        .iter()
        .filter(|(test, gain_bits)| ROLL.contains(test) && *gain_bits >= WORTH_BITS)
        .map(|(test, gain_bits)| NextTest {
            test: *test,
            label: test.label().to_owned(),
            verb: test.verb().to_owned(),
            gain_bits: *gain_bits,
            minutes: test.minutes(),
            mark: test.mark().unwrap_or_default().to_owned(),
        })
        .collect();
    IronPlan {
        shares: order
            .into_iter()
            .map(|iron| Share {
                iron,
                label: iron.label().to_owned(),
                share: belief.of(iron),
                shown: both(belief.of(iron) * 100.0, Unit::Percent).0,
                plausible: belief.is_plausible(iron),
                history: std::iter::once(belief.prior[iron.index()])
                    .chain(belief.steps.iter().map(|(_, shares)| shares[iron.index()]))
                    .collect(),
            })
            .collect(),
        leading: belief.leading,
        plausible: belief.plausible.clone(),
        meaning: belief.leading.meaning().to_owned(),
        enough: belief.enough(),
        next_tests,
        notices: belief.notices.iter().map(Notice::sentence).collect(),
        steps: belief.steps.iter().map(|(found, _)| found.clone()).collect(),
        roll: ROLL
            .into_iter()
            .map(|test| TestView {
                test,
                label: test.label().to_owned(),
                minutes: test.minutes(),
                mark: test.mark().unwrap_or_default().to_owned(),
                outcomes: test
                    .outcomes()
                    .iter()
                    .map(|o| OutcomeView { id: o.id.to_owned(), looks: o.looks.to_owned() })
                    .collect(),
            })
            .collect(),
    }
}

pub(super) fn figures(belief: &Belief, family: &str, era: &str) -> Vec<Figure> {
    let leader = belief.leading;
    let mut figure = Figure::new("iron.sure", "Iron", belief.of(leader) * 100.0, Unit::Percent)
        .formula(format!(
            "before any test: {} {:.1} %",
            leader.label().to_lowercase(),
            belief.prior[leader.index()] * 100.0
        ))
        .fact("Sort of part", family)
        .fact("Cast", era)
        .source(Source::Law("Bayes' theorem; likelihoods house".to_owned()), Certainty::Estimate)
        .note(leader.meaning());
    for (found, shares) in &belief.steps {
        figure = figure.formula(format!("{found}: {:.1} %", shares[leader.index()] * 100.0));
    }
    vec![figure]
}

/// Rule M01 on little evidence: white iron has to be tested for, not guessed.
pub(super) fn white_lock(belief: &Belief) -> Option<Lock> {
    let (short, unlock) = match belief.white {
        WhiteStanding::NotInQuestion | WhiteStanding::Believed => return None,
        WhiteStanding::TestFirst => ("Test first", "Try a file and a drill on clean metal."),
        WhiteStanding::TestAgainElsewhere => {
            ("Test again elsewhere", "One more test of another kind, on clean metal a hand's breadth away.")
        }
    };
    Some(Lock {
        rule: "M01".to_owned(),
        station: Station::Iron,
        short: short.to_owned(),
        sentence: format!("{short}: it may be white iron, which welding cracks."),
        unlock: unlock.to_owned(),
    })
}

pub(super) fn cautions(belief: &Belief) -> Vec<Caution> {
    let mut found = Vec::new();
    if !belief.steps.is_empty() && belief.is_plausible(Iron::Steel) && belief.leading != Iron::Steel {
        found.push("Steel is still possible: one more test before any heat.");
    }
    found
        .into_iter()
        .map(|sentence| Caution { station: Station::Iron, sentence: sentence.to_owned() })
        .collect()
}

pub(super) fn amount(belief: &Belief) -> Amount {
    if belief.enough() && !belief.steps.is_empty() {
        Amount::Enough
    } else if belief.steps.is_empty() {
        Amount::Nothing
    } else {
        Amount::Something
    }
}
