//! Stage 2: what the iron is, which test is worth doing next, and what the iron asks of the plan.

mod demands;
mod found;
mod meaning;
mod roll;

pub use demands::Demand;
pub use found::{FoundLine, FoundState};
pub use roll::{AskedView, MeasuredView, OutcomeView, TestView, measured_tests, tool_roll};

use crate::casting::said::TestMarks;
use serde::Serialize;

use super::method::Ruled;
use super::part::{PartFacts, PartPlan};
use super::{Amount, Caution, HeatPlan, Lock, MethodPlan, Stage, Station};
use crate::field;
use crate::figure::{Certainty, Figure, Source};
use crate::iron::{Belief, Evidence, Iron, LookTest, Notice, WhiteStanding, confirm};
use crate::job::{Job, Observed};
use crate::method::Target;
use crate::quantity::{Shown, Unit, both};

/// An iron and its share of the belief.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Share {
    pub iron: Iron,
    pub label: String,
    pub share: f64,
    pub shown: Shown,
    pub plausible: bool,
    /// The share before any test, then after each observation that counts.
    pub history: Vec<f64>,
    /// By how much the last observation moved it, ready to be shown: "from 34 %"; empty for nothing.
    pub was: String,
}

/// A test worth doing.
#[derive(Debug, Clone, PartialEq, Serialize)]
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

/// What was found at one step, and what the step is called under the lines.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct StepView {
    pub found: String,
    pub test: String,
}

/// What is believed of the iron, ready to be shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct IronPlan {
    /// Likeliest first.
    pub shares: Vec<Share>,
    pub leading: Iron,
    pub plausible: Vec<Iron>,
    /// What the iron means for this job, in sentences.
    pub meaning: Vec<String>,
    /// What is asked of the plan by which of several irons in question; empty for one alone.
    pub demands: Vec<Demand>,
    pub enough: bool,
    pub next_tests: Vec<NextTest>,
    pub notices: Vec<String>,
    /// What was found, in the order it counts: the steps of `history` after the first.
    pub steps: Vec<StepView>,
    /// Every observation ever made, the first first.
    pub found: Vec<FoundLine>,
    /// A place may be hard and the iron not: the observation that would go on the map.
    pub hard_spot: Option<FoundLine>,
}

/// Ours: a test that tells less than this is not worth walking to the bench for.
const WORTH_BITS: f64 = 0.005;

fn evidence(job: &Job) -> Vec<(&Observed, Evidence)> {
    job.evidence.iter().filter_map(|seen| Some((seen, seen.evidence()?))).collect()
}

/// A part comes in because it is cracked: until it is whole again, its ring is deadened.
pub(crate) const OPEN_CRACK: bool = true;

pub(crate) fn belief(job: &Job, part: &PartFacts) -> Belief {
    let evidence: Vec<Evidence> = evidence(job).into_iter().map(|(_, evidence)| evidence).collect();
    confirm(part.family, part.era, OPEN_CRACK, &evidence)
}

/// What the iron is judged with: what is believed of it, what the job was planned for, and the plan.
pub(crate) struct IronInputs<'a> {
    pub job: &'a Job,
    pub part: &'a PartPlan,
    pub facts: &'a PartFacts,
    /// What is believed.
    pub believed: &'a Belief,
    /// What was planned for: the same, or as if it were known.
    pub planned_for: &'a Belief,
    pub methods: &'a MethodPlan,
    pub ruled: &'a [Ruled],
    pub target: Option<&'a Target>,
    pub heat: Option<&'a HeatPlan>,
}

pub(crate) fn stage(inputs: &IronInputs<'_>) -> Stage<IronPlan> {
    let IronInputs { job, facts, believed, planned_for, methods, .. } = *inputs;
    let round = job.round();
    let mut plan = iron_plan(job, believed, inputs.part, facts);
    plan.meaning = meaning::meaning(round, planned_for, facts, methods);
    plan.demands =
        demands::demands(planned_for, facts, methods.chosen, inputs.target, inputs.heat, inputs.ruled);
    let label = |label: Option<&'static str>| label.unwrap_or("not known");
    let (family, era) = (round.label(&field::part::FAMILY), round.label(&field::part::ERA));
    Stage {
        plan,
        amount: amount(believed),
        missing: Vec::new(),
        cautions: cautions(planned_for),
        figures: figures(believed, label(family), label(era)),
    }
}

fn next_tests(belief: &Belief, part: &PartPlan, hidden_only: bool) -> Vec<NextTest> {
    let forbidden = |test: LookTest| part.forbidden.iter().any(|forbidden| forbidden.test == test);
    belief
        .gain_bits
        .iter()
        .filter(|(test, gain_bits)| *gain_bits >= WORTH_BITS && !forbidden(*test))
        .map(|(test, gain_bits)| NextTest {
            test: *test,
            label: test.label().to_owned(),
            verb: test.verb().to_owned(),
            gain_bits: *gain_bits,
            minutes: test.minutes(),
            mark: test.mark().map_or(String::new(), |mark| {
                if hidden_only { format!("{mark}: only where it will not show") } else { mark.to_owned() }
            }),
        })
        .collect()
}

fn iron_plan(job: &Job, belief: &Belief, part: &PartPlan, facts: &PartFacts) -> IronPlan {
    let mut order = Iron::ALL;
    order.sort_by(|a, b| belief.of(*b).total_cmp(&belief.of(*a)));
    let history = |iron: Iron| {
        std::iter::once(belief.prior[iron.index()])
            .chain(belief.steps.iter().map(move |(_, shares)| shares[iron.index()]))
    };
    let percent = |share: f64| both(share * 100.0, Unit::Percent).0;
    let found = found::found(job, belief, facts.units);
    IronPlan {
        shares: order
            .into_iter()
            .map(|iron| {
                let history: Vec<f64> = history(iron).collect();
                let now = percent(belief.of(iron));
                let was = history.iter().rev().nth(1).map(|share| percent(*share));
                Share {
                    iron,
                    label: iron.label().to_owned(),
                    share: belief.of(iron),
                    plausible: belief.is_plausible(iron),
                    was: was.filter(|was| *was != now).map_or(String::new(), |was| was.text()),
                    shown: now,
                    history,
                }
            })
            .collect(),
        leading: belief.leading,
        plausible: belief.plausible.clone(),
        meaning: Vec::new(),
        demands: Vec::new(),
        enough: belief.enough(),
        next_tests: next_tests(belief, part, job.round().get(field::part::MARKS) == Some(TestMarks::Hidden)),
        notices: belief.notices.iter().map(Notice::sentence).collect(),
        steps: belief
            .steps
            .iter()
            .map(|(step, _)| StepView { found: step.found.clone(), test: step.test.clone() })
            .collect(),
        hard_spot: found::may_be_a_hard_spot(belief, &found),
        found,
    }
}

fn figures(belief: &Belief, family: &str, era: &str) -> Vec<Figure> {
    let leader = belief.leading;
    let mut figure = Figure::new("iron.sure", "Iron", belief.of(leader) * 100.0, Unit::Percent)
        .formula(format!(
            "before any test: {} {:.1} %",
            leader.label().to_lowercase(),
            belief.prior[leader.index()] * 100.0
        ))
        .because(match belief.steps.len() {
            0 => "What such parts of that time are usually cast in. Nothing was tested yet.".to_owned(),
            1 => "What such parts are usually cast in, and what one test says.".to_owned(),
            tests => format!("What such parts are usually cast in, and what {tests} tests say."),
        })
        .fact("Sort of part", family)
        .fact("Cast", era)
        .source(Source::Law("Bayes' theorem; what each test tells our own".to_owned()), Certainty::Estimate)
        .note(leader.meaning());
    for (step, shares) in &belief.steps {
        figure = figure.formula(format!("{}: {:.1} %", step.found, shares[leader.index()] * 100.0));
    }
    vec![figure]
}

/// Rule M01 on little evidence: white iron has to be tested for, not guessed.
pub(crate) fn white_lock(belief: &Belief) -> Option<Lock> {
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
        key: String::new(),
        hot_only: false,
    })
}

fn cautions(belief: &Belief) -> Vec<Caution> {
    let mut found = Vec::new();
    if !belief.steps.is_empty() && belief.is_plausible(Iron::Steel) && belief.leading != Iron::Steel {
        found.push("Steel is still possible: one more test settles it.");
    }
    found
        .into_iter()
        .map(|sentence| Caution { station: Station::Iron, sentence: sentence.to_owned() })
        .collect()
}

fn amount(belief: &Belief) -> Amount {
    if belief.enough() && !belief.steps.is_empty() {
        Amount::Enough
    } else if belief.steps.is_empty() {
        Amount::Nothing
    } else {
        Amount::Something
    }
}
