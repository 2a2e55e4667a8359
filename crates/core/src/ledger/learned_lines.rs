//! What this shop does against what is usual: torches, packings, ends of cracks, sizes, minutes.

use std::collections::BTreeMap;

use serde::Serialize;
use uuid::Uuid;

use super::practice_lines::practice_lines;
use super::said::{Said, times};
use super::used_up::use_lines;
use crate::crack::stop_hole::FoundBy;
use crate::crack::tip_offset::{OwnTip, beyond};
use crate::effort::durations::{TimedStep, pace};
use crate::heat::{FactorOf, HeatSource, OwnFactor, Packing, against_usual, own_factor};
use crate::method::{OwnMove, moved_factor};
use crate::quantity::{Unit, UnitSystem, number};
use crate::render::{said, upper};

/// A figure that has wandered from the book to this shop.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LearnedLine {
    pub name: String,
    pub book: f64,
    pub here: f64,
    /// Ends of its scale: the book and every case lie within.
    pub scale: (f64, f64),
    pub words: String,
    /// Where its cases lie: of many so many that they are told apart.
    pub values: Vec<f64>,
    #[serde(skip)]
    pub cases: Vec<LearnedCase>,
}

#[derive(Debug, Clone, PartialEq)]
pub struct LearnedCase {
    pub case: Uuid,
    /// Nothing where the job is not known any more.
    pub job: Option<Uuid>,
    pub name: String,
    pub value: f64,
    /// "9 % less than usual"
    pub words: String,
}

pub(super) fn learned_lines(
    all: &Said<'_>,
    counts: &impl Fn(&Uuid) -> bool,
    units: UnitSystem,
) -> Vec<LearnedLine> {
    let mut lines = Vec::new();
    let job_of = |lit: &Uuid| all.repairs.iter().find(|it| it.lit == *lit).map(|it| it.job);
    let own: Vec<OwnFactor> = all.learned.iter().filter(|it| counts(&it.lit)).cloned().collect();
    let mut factor = |name: String, what: &FactorOf, of: &str| {
        let (here, n) = own_factor(&own, what);
        if n == 0 {
            return;
        }
        let cases = own.iter().filter(|it| it.what == *what).map(|it| LearnedCase {
            case: it.lit,
            job: job_of(&it.lit),
            name: it.name.clone(),
            value: it.factor,
            words: against_usual(it.factor),
        });
        let words = format!("{}, from {}", against_usual(here), times(n, of));
        lines.push(line(name, (1.0, here), words, cases.collect()));
    };
    for source in HeatSource::ALL {
        let what = FactorOf::Source { id: source.id.to_owned() };
        factor(format!("{}, power", source.label), &what, "heating");
    }
    for (id, label) in Packing::CHOICES {
        if let Some(packing) = Packing::from_id(id) {
            factor(format!("{label}, lets through"), &FactorOf::Packing { packing }, "cooling");
        }
    }
    let tips: Vec<OwnTip> = all.tips.iter().filter(|it| counts(&it.crack)).cloned().collect();
    for found_by in [FoundBy::Eye, FoundBy::ChalkAndOil] {
        let (here, n) = beyond(&tips, found_by);
        if n == 0 {
            continue;
        }
        let (book, _) = found_by.beyond_mm();
        let cases = tips.iter().filter(|it| it.found_by == found_by).map(|it| LearnedCase {
            case: it.crack,
            job: None,
            name: it.name.clone(),
            value: it.beyond_mm,
            words: said(&format!("{{{:.1} mm}} further on", it.beyond_mm), units),
        });
        let words = format!("{{{:.1} mm}}, usually {{{book} mm}}: from {}", here.mean_mm, times(n, "end"));
        let name = format!("Ends {}, further on", found_by.words());
        lines.push(line(name, (book, here.mean_mm), said(&words, units), cases.collect()));
    }
    lines.extend(shape(all, units));
    lines.extend(foreseen(all, units));
    lines.extend(use_lines(all, units));
    lines.extend(practice_lines(all, counts));
    let timed: Vec<TimedStep> = all.timed.iter().filter(|it| counts(&it.fact)).cloned().collect();
    let mut steps: Vec<&str> = timed.iter().map(|it| it.step.as_str()).collect();
    steps.sort_unstable();
    steps.dedup();
    for step in steps {
        let (here, n) = pace(&timed, step);
        let label = upper(&step.replace('_', " "));
        let cases = timed.iter().filter(|it| it.step == *step).map(|it| LearnedCase {
            case: it.fact,
            job: None,
            name: label.clone(),
            value: it.ratio,
            words: format!("{} of what is reckoned", number(it.ratio, 2)),
        });
        let words = format!("{} of what is reckoned, timed {}", number(here, 2), times(n, "time"));
        lines.push(line(format!("{label}, minutes"), (1.0, here), words, cases.collect()));
    }
    lines
}

/// Which way moved sizes how far, the most first. Nothing usual is known of it: what did not move stands at nought.
fn shape(all: &Said<'_>, units: UnitSystem) -> Vec<LearnedLine> {
    /// House: a scale goes this far at least, in mm.
    const LEAST_MM: f64 = 0.1;
    let mut of_way: BTreeMap<String, Vec<(&OwnMove, f64)>> = BTreeMap::new();
    for own in all.moves.iter().filter(|it| !all.left_out.contains_key(&it.size)) {
        of_way.entry(own.way.label()).or_default().extend(own.moved_mm.map(|mm| (own, mm)));
    }
    let mm = |mm: f64| units.say_exactly((mm * 100.0).round() / 100.0, Unit::Millimetres);
    let mut lines: Vec<LearnedLine> = of_way
        .into_iter()
        .filter(|(_, moves)| !moves.is_empty())
        .map(|(way, moves)| {
            let far = || moves.iter().map(|(_, moved_mm)| moved_mm.abs());
            let here = far().sum::<f64>() / moves.len() as f64;
            let most = far().fold(0.0, f64::max);
            let cases = moves.iter().map(|(it, moved_mm)| LearnedCase {
                case: it.size,
                job: Some(it.job),
                name: format!("{}, {}", it.name, it.what),
                value: moved_mm.abs(),
                words: match mm(moved_mm.abs()) {
                    far if far == mm(0.0) => "did not move".to_owned(),
                    far => format!("{far} {}", if *moved_mm > 0.0 { "more" } else { "less" }),
                },
            });
            let cases: Vec<LearnedCase> = cases.collect();
            LearnedLine {
                name: format!("{way}, sizes moved"),
                book: 0.0,
                here,
                scale: (0.0, most.max(LEAST_MM)),
                words: format!(
                    "{} on average, {} the most: from {}",
                    mm(here),
                    mm(most),
                    times(moves.len(), "size")
                ),
                values: values(&cases),
                cases,
            }
        })
        .collect();
    lines.sort_by(|a, b| b.here.total_cmp(&a.here));
    lines
}

/// How far seams move what lies beside them, against what was foreseen.
fn foreseen(all: &Said<'_>, units: UnitSystem) -> Option<LearnedLine> {
    let counted = || all.moves.iter().filter(|it| !all.left_out.contains_key(&it.size));
    let (here, n) = moved_factor(counted());
    let mm = |mm: f64| units.say_exactly((mm.abs() * 100.0).round() / 100.0, Unit::Millimetres);
    let case = |own: &OwnMove| {
        Some(LearnedCase {
            case: own.size,
            job: Some(own.job),
            name: format!("{}, {}", own.name, own.what),
            value: own.of_the_foreseen()?,
            words: format!("{}, foreseen {}", mm(own.moved_mm?), mm(own.foreseen_mm?)),
        })
    };
    (n > 0).then(|| {
        let words = format!("{} of what is foreseen, from {}", number(here, 2), times(n, "distance"));
        line("Seams, what they move".to_owned(), (1.0, here), words, counted().filter_map(case).collect())
    })
}

pub(super) fn line(
    name: String,
    (book, here): (f64, f64),
    words: String,
    cases: Vec<LearnedCase>,
) -> LearnedLine {
    /// House: a scale is never narrower than a quarter of the book either way.
    const LEAST: f64 = 0.25;
    let all = || cases.iter().map(|it| it.value).chain([book, here]);
    let low = all().fold(book * (1.0 - LEAST), f64::min);
    let high = all().fold(book * (1.0 + LEAST), f64::max);
    LearnedLine { name, book, here, scale: (low, high), words, values: values(&cases), cases }
}

/// Ours: more ticks lie on one another.
const VALUES_MOST: usize = 60;

/// From the least to the most, to the thousandth: nobody sees less.
pub(super) fn values(cases: &[LearnedCase]) -> Vec<f64> {
    let mut all: Vec<f64> = cases.iter().map(|it| (it.value * 1_000.0).round() / 1_000.0).collect();
    all.sort_by(f64::total_cmp);
    all.into_iter().step_by(cases.len().div_ceil(VALUES_MOST).max(1)).collect()
}
