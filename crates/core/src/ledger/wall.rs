//! The shop's wall: every repair a mark on the line of its method, what was learned beside what is usual.

use std::collections::{BTreeMap, BTreeSet};

use serde::Serialize;
use statrs::distribution::{Beta, ContinuousCDF};
use uuid::Uuid;

use super::bench::bench_lines;
use super::used_up::use_lines;
use super::{BenchLine, Calibration, WithOutcome, calibration};
use crate::crack::stop_hole::FoundBy;
use crate::crack::tip_offset::{OwnTip, beyond};
use crate::effort::durations::{TimedStep, pace};
use crate::faults::causes::Seen;
use crate::faults::own::OwnFault;
use crate::heat::{FactorOf, HeatSource, OwnFactor, Packing, against_usual, own_factor};
use crate::iron::Iron;
use crate::job::Became;
use crate::method::{
    Became as Came, Coupon, MethodId, Outcome, Outcomes, OwnMove, OwnRepair, Variant, for_days, odds_of,
};
use crate::quantity::{Unit, UnitSystem, number};
use crate::render::{said, upper};
use crate::stores::OwnUse;

/// The wall as it is shown.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Wall {
    /// What all of it says, in one line.
    pub heading: String,
    /// What stands out, in a sentence or two.
    pub said: String,
    /// Those with a repair of their own, the most of them first.
    pub methods: Vec<HeldLine>,
    /// Nothing under ten repairs that were given odds and asked about.
    pub honest: Option<Honest>,
    /// What this shop does against what is usual.
    pub learned: Vec<LearnedLine>,
    /// What went wrong at the torch, the most often first.
    pub faults: Vec<FaultLine>,
    /// Coupons that were broken, each method on each iron against the whole iron, the strongest first.
    pub bench: Vec<BenchLine>,
    pub left_out: Vec<LeftOutCase>,
}

/// How the repairs of a method held.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeldLine {
    pub method: MethodId,
    pub label: &'static str,
    /// Of a hundred, a year: by these repairs and the book, with its 80 % interval.
    pub held: f64,
    pub low: f64,
    pub high: f64,
    /// By the book alone.
    pub book: f64,
    /// Asked about.
    pub asked: u32,
    pub words: String,
    /// All there are.
    pub repairs: u32,
    /// What holds first, then what failed, then what nobody was asked about; one for so many repairs.
    pub marks: Vec<CaseMark>,
    pub repairs_a_mark: u32,
}

/// One repair.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CaseMark {
    pub case: Uuid,
    pub job: Uuid,
    pub name: String,
    pub became: Became,
    pub words: String,
}

/// Odds against what came of them.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Honest {
    pub scores: Calibration,
    /// The tenths of `scores`, with the 80 % interval of each share.
    pub tenths: Vec<TenthHeld>,
    pub words: String,
}

#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct TenthHeld {
    pub mean_p: f64,
    pub share: f64,
    pub low: f64,
    pub high: f64,
    pub n: u32,
}

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
    pub cases: Vec<LearnedCase>,
}

#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LearnedCase {
    pub case: Uuid,
    /// Nothing where the job is not known any more.
    pub job: Option<Uuid>,
    pub name: String,
    pub value: f64,
    /// "9 % less than usual"
    pub words: String,
}

/// Something that went wrong at the torch here, and what it was put down to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaultLine {
    pub seen: Seen,
    pub label: &'static str,
    /// "4 times on 3 parts"
    pub words: String,
    /// The most often first, what nobody found last.
    pub causes: Vec<FaultCause>,
    pub cases: Vec<LearnedCase>,
}

/// What a fault was put down to.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct FaultCause {
    pub words: String,
    pub times: u32,
}

/// A case that does not count.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LeftOutCase {
    pub case: Uuid,
    pub name: String,
    pub reason: String,
}

/// What a ledger is made of: everything that was said, and what does not count.
#[derive(Debug, Clone, Copy)]
pub struct Said<'a> {
    /// Those that nobody was asked about among them.
    pub repairs: &'a [OwnRepair],
    pub timed: &'a [TimedStep],
    pub learned: &'a [OwnFactor],
    pub tips: &'a [OwnTip],
    pub moves: &'a [OwnMove],
    pub faults: &'a [OwnFault],
    pub uses: &'a [OwnUse],
    pub coupons: &'a [Coupon],
    pub left_out: &'a BTreeMap<Uuid, String>,
}

impl<'a> Said<'a> {
    /// Nothing was said yet.
    #[must_use]
    pub fn nothing(left_out: &'a BTreeMap<Uuid, String>) -> Self {
        Self {
            repairs: &[],
            timed: &[],
            learned: &[],
            tips: &[],
            moves: &[],
            faults: &[],
            uses: &[],
            coupons: &[],
            left_out,
        }
    }
}

/// The wall of a shop, told in these units.
#[must_use]
pub fn wall(all: &Said<'_>, units: UnitSystem) -> Wall {
    let counts = |case: &Uuid| !all.left_out.contains_key(case);
    let repairs: Vec<&OwnRepair> = all.repairs.iter().filter(|it| counts(&it.lit)).collect();
    let mut methods: Vec<HeldLine> =
        MethodId::ALL.into_iter().filter_map(|method| held_line(method, &repairs)).collect();
    methods.sort_by_key(|line| std::cmp::Reverse(line.repairs));
    let honest = honest(&repairs);
    let coupons: Vec<&Coupon> = all.coupons.iter().filter(|it| counts(&it.coupon)).collect();
    Wall {
        bench: bench_lines(&coupons, units),
        faults: fault_lines(all),
        heading: heading(&repairs, honest.as_ref()),
        said: stands_out(&methods),
        methods,
        honest,
        learned: learned_lines(all, &counts, units),
        left_out: left_out(all),
    }
}

fn became(repair: &OwnRepair) -> Became {
    Became::from_id(&repair.became).unwrap_or(Became::Unknown)
}

/// 1 it holds, 0.5 with a fault, 0 it failed; nothing where nobody knows.
fn outcome(repair: &OwnRepair) -> Option<f64> {
    match became(repair) {
        Became::Holds => Some(1.0),
        Became::Fault => Some(0.5),
        Became::Failed => Some(0.0),
        Became::Unknown => None,
    }
}

fn held_line(method: MethodId, repairs: &[&OwnRepair]) -> Option<HeldLine> {
    let mut own: Vec<&OwnRepair> = repairs.iter().copied().filter(|it| it.method == method).collect();
    if own.is_empty() {
        return None;
    }
    let order = |it: &&OwnRepair| match became(it) {
        Became::Holds => 0,
        Became::Fault => 1,
        Became::Failed => 2,
        Became::Unknown => 3,
    };
    own.sort_by(|a, b| order(a).cmp(&order(b)).then(b.days.total_cmp(&a.days)));
    let outcomes = Outcomes { known: own.iter().filter_map(|it| counted(it)).collect() };
    let odds = odds_of(method, Variant::Usual, &outcomes);
    let (a, b) = odds.prior;
    let asked = own.iter().filter(|it| outcome(it).is_some()).count() as u32;
    let hundred = |p: f64| p * 100.0;
    let (held, low, high, book) =
        (hundred(odds.mean), hundred(odds.low), hundred(odds.high), hundred(a / (a + b)));
    let all = own.len();
    let repairs_a_mark = all.div_ceil(MARKS_MOST).max(1);
    let repairs = |n: u32| if n == 1 { "1 repair".to_owned() } else { format!("{n} repairs") };
    let words = match asked {
        0 => "nobody was asked yet: as the book has it".to_owned(),
        n => format!("{held:.0} of 100 hold a year ({low:.0} to {high:.0}), by {} and the book", repairs(n)),
    };
    Some(HeldLine {
        method,
        label: method.label(),
        held,
        low,
        high,
        book,
        asked,
        words,
        repairs: all as u32,
        // In their order: each kind keeps its share.
        marks: own.into_iter().step_by(repairs_a_mark).map(mark).collect(),
        repairs_a_mark: repairs_a_mark as u32,
    })
}

/// Ours: more marks on one line are not told apart, and a page that carries them all is slow on a phone.
const MARKS_MOST: usize = 60;

/// As the odds count it, whatever its iron.
fn counted(repair: &OwnRepair) -> Option<Outcome> {
    let became = match became(repair) {
        Became::Holds => Came::Held,
        Became::Fault => Came::Faulty,
        Became::Failed => Came::Failed,
        Became::Unknown => return None,
    };
    Some(Outcome { became, days: repair.days, same_iron: true, shift: repair.shift })
}

fn mark(repair: &OwnRepair) -> CaseMark {
    let days = match repair.days.round() {
        1.0 => "1 day".to_owned(),
        days => format!("{days:.0} days"),
    };
    let came = match became(repair) {
        Became::Holds => format!("held {days}"),
        Became::Fault => format!("held {days}, with a fault"),
        Became::Failed => format!("failed after {days}"),
        Became::Unknown => "not asked yet".to_owned(),
    };
    let given = repair.given.map_or(String::new(), |p| format!(", given {:.0} of 100", p * 100.0));
    CaseMark {
        case: repair.lit,
        job: repair.job,
        name: repair.name.clone(),
        became: became(repair),
        words: format!("{came}, {}{given}", Iron::label(repair.iron).to_lowercase()),
    }
}

/// House: under so many outcomes only the marks are shown.
const JUDGED_FROM: usize = 10;

fn honest(repairs: &[&OwnRepair]) -> Option<Honest> {
    let known = |it: &&OwnRepair| {
        let y = outcome(it)?;
        // For the days it was followed.
        Some(WithOutcome { p: for_days(it.given?, it.days.max(1.0), &[]), y })
    };
    let outcomes: Vec<WithOutcome> = repairs.iter().filter_map(known).collect();
    if outcomes.len() < JUDGED_FROM {
        return None;
    }
    let scores = calibration(&outcomes)?;
    let tenths = scores.bins.iter().map(|tenth| {
        let (n, y) = (f64::from(tenth.n), f64::from(tenth.n) * tenth.share);
        // 80 %, of a flat start.
        let (low, high) = Beta::new(y + 1.0, n - y + 1.0)
            .map_or((0.0, 1.0), |beta| (beta.inverse_cdf(0.1), beta.inverse_cdf(0.9)));
        TenthHeld { mean_p: tenth.mean_p, share: tenth.share, low, high, n: tenth.n }
    });
    let ranked = match scores.ranking {
        Some(share) if share >= 0.6 => {
            format!(
                "Of one that held and one that failed, the first had been given more {:.0} times of 100.",
                share * 100.0
            )
        }
        Some(share) => format!(
            "They do not tell yet which will fail: the one that held had been given more only {:.0} times of 100.",
            share * 100.0
        ),
        None => "All came to the same: nothing can be told apart.".to_owned(),
    };
    let better = match scores.skill {
        Some(skill) if skill > 0.0 => " They say more than always giving the share that held.",
        Some(_) => " Always giving the share that held would have said as much.",
        None => "",
    };
    Some(Honest { tenths: tenths.collect(), words: format!("{ranked}{better}"), scores })
}

fn heading(repairs: &[&OwnRepair], honest: Option<&Honest>) -> String {
    let asked = repairs.iter().filter(|it| outcome(it).is_some()).count();
    let all = repairs.len();
    let repaired = if all == 1 { "1 repair".to_owned() } else { format!("{all} repairs") };
    match honest {
        _ if all == 0 => "No repair has been lit here yet".to_owned(),
        Some(honest) => {
            let n: f64 = honest.tenths.iter().map(|it| f64::from(it.n)).sum();
            let mean = |of: fn(&TenthHeld) -> f64| {
                honest.tenths.iter().map(|it| f64::from(it.n) * of(it)).sum::<f64>() / n * 100.0
            };
            let (given, held) = (mean(|it| it.mean_p), mean(|it| it.share));
            format!("{repaired}; what is given {given:.0}, holds {held:.0} times")
        }
        None => format!("{repaired}, {asked} asked about"),
    }
}

/// House: under so many repairs a method is not told apart from the book.
const TOLD_APART_FROM: u32 = 5;

fn stands_out(methods: &[HeldLine]) -> String {
    let apart = |line: &&HeldLine| line.asked >= TOLD_APART_FROM;
    let worse: Vec<String> = methods.iter().filter(apart).filter(|it| it.high < it.book).map(lower).collect();
    let better: Vec<String> = methods.iter().filter(apart).filter(|it| it.low > it.book).map(lower).collect();
    let mut said = Vec::new();
    if !worse.is_empty() {
        said.push(format!("Holds less here than is usual: {}.", crate::render::all_of(&worse)));
    }
    if !better.is_empty() {
        said.push(format!("Holds more often than is usual: {}.", crate::render::all_of(&better)));
    }
    if methods.is_empty() {
        said.push(
            "Each repair becomes a mark on the line of its method, and is asked about on its days."
                .to_owned(),
        );
    } else if said.is_empty() {
        said.push("No method is told apart yet from what is usual.".to_owned());
    }
    said.join(" ")
}

fn lower(line: &HeldLine) -> String {
    line.label.to_lowercase()
}

fn learned_lines(all: &Said<'_>, counts: &impl Fn(&Uuid) -> bool, units: UnitSystem) -> Vec<LearnedLine> {
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
    lines.extend(use_lines(all, units));
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

/// What went wrong, by what was seen.
fn fault_lines(all: &Said<'_>) -> Vec<FaultLine> {
    let mut of_seen: Vec<(Seen, Vec<&OwnFault>)> = Vec::new();
    for own in all.faults.iter().filter(|it| !it.taken_back && !all.left_out.contains_key(&it.entry)) {
        match of_seen.iter_mut().find(|(seen, _)| *seen == own.seen) {
            Some((_, faults)) => faults.push(own),
            None => of_seen.push((own.seen, vec![own])),
        }
    }
    of_seen.sort_by_key(|(_, faults)| std::cmp::Reverse(faults.len()));
    let cause = |own: &OwnFault| own.seen.cause(&own.cause).map_or("nobody found why", |cause| cause.words);
    let line = |(seen, faults): (Seen, Vec<&OwnFault>)| {
        let mut causes: Vec<FaultCause> = Vec::new();
        for own in &faults {
            match causes.iter_mut().find(|known| known.words == cause(own)) {
                Some(known) => known.times += 1,
                None => causes.push(FaultCause { words: cause(own).to_owned(), times: 1 }),
            }
        }
        causes.sort_by_key(|it| (it.words == "nobody found why", std::cmp::Reverse(it.times)));
        let parts: BTreeSet<Uuid> = faults.iter().map(|own| own.job).collect();
        FaultLine {
            seen,
            label: seen.words(),
            words: format!("{} on {}", times(faults.len(), "time"), times(parts.len(), "part")),
            causes,
            cases: faults
                .iter()
                .map(|own| LearnedCase {
                    case: own.entry,
                    job: Some(own.job),
                    name: own.name.clone(),
                    value: 1.0,
                    words: format!("{}: {}", own.way.label(), cause(own)),
                })
                .collect(),
        }
    };
    of_seen.into_iter().map(line).collect()
}

/// "1 size", "3 sizes"
pub(super) fn times(n: usize, what: &str) -> String {
    if n == 1 { format!("1 {what}") } else { format!("{n} {what}s") }
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
                cases: cases.collect(),
            }
        })
        .collect();
    lines.sort_by(|a, b| b.here.total_cmp(&a.here));
    lines
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
    LearnedLine { name, book, here, scale: (low, high), words, cases }
}

fn left_out(all: &Said<'_>) -> Vec<LeftOutCase> {
    let name = |case: &Uuid| {
        let repair = || all.repairs.iter().find(|it| it.lit == *case).map(|it| it.name.clone());
        let factor = || all.learned.iter().find(|it| it.lit == *case).map(|it| it.name.clone());
        let tip = || all.tips.iter().find(|it| it.crack == *case).map(|it| it.name.clone());
        let timed =
            || all.timed.iter().find(|it| it.fact == *case).map(|it| format!("a timing of {}", it.step));
        let moved =
            || all.moves.iter().find(|it| it.size == *case).map(|it| format!("{}, {}", it.name, it.what));
        let fault = || {
            all.faults
                .iter()
                .find(|it| it.entry == *case)
                .map(|it| format!("{}, {}", it.name, it.seen.words()))
        };
        repair().or_else(factor).or_else(tip).or_else(moved).or_else(fault).or_else(timed).unwrap_or_default()
    };
    let of = |(case, reason): (&Uuid, &String)| LeftOutCase {
        case: *case,
        name: name(case),
        reason: reason.clone(),
    };
    all.left_out.iter().map(of).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::{School, Way};

    fn repair(at: u128, became: &str, days: f64, given: Option<f64>) -> OwnRepair {
        OwnRepair {
            job: Uuid::from_u128(at),
            lit: Uuid::from_u128(1_000 + at),
            name: format!("Lever {at}"),
            method: MethodId::TorchBraze,
            variant: Variant::Usual.id().to_owned(),
            iron: Iron::Gray,
            days,
            became: became.to_owned(),
            shift: 0.0,
            given,
        }
    }

    fn told(repairs: &[OwnRepair], left_out: &BTreeMap<Uuid, String>) -> Wall {
        let all = Said { repairs, ..Said::nothing(left_out) };
        wall(&all, UnitSystem::Metric)
    }

    #[test]
    fn an_empty_shop_says_what_will_stand_here() {
        let empty = told(&[], &BTreeMap::new());
        assert_eq!(empty.heading, "No repair has been lit here yet");
        assert!(empty.methods.is_empty() && empty.honest.is_none() && empty.said.contains("mark"));
    }

    #[test]
    fn repairs_that_were_asked_move_the_odds_of_their_method() {
        let repairs = [
            repair(1, "holds", 365.0, None),
            repair(2, "failed", 30.0, None),
            repair(3, "unknown", 0.0, None),
        ];
        let found = told(&repairs, &BTreeMap::new());
        // By hand: (8 + 1) / (8 + 1 + 2 + 1) = 0.75, by the book 0.8
        let line = &found.methods[0];
        assert!((line.held - 75.0).abs() < 1e-9 && (line.book - 80.0).abs() < 1e-9);
        assert_eq!((line.asked, line.marks.len()), (2, 3));
        let words: Vec<&str> = line.marks.iter().map(|it| it.words.as_str()).collect();
        assert_eq!(words, ["held 365 days, gray", "failed after 30 days, gray", "not asked yet, gray"]);
        assert_eq!(found.heading, "3 repairs, 2 asked about");
    }

    #[test]
    fn one_that_is_left_out_counts_no_more_and_back_it_is_as_before() {
        let repairs = [repair(1, "holds", 365.0, None), repair(2, "failed", 30.0, None)];
        let before = told(&repairs, &BTreeMap::new());
        let out = BTreeMap::from([(Uuid::from_u128(1_002), "dropped by the carrier".to_owned())]);
        let without = told(&repairs, &out);
        // By hand: 9 / 11
        assert!((without.methods[0].held - 900.0 / 11.0).abs() < 1e-9);
        assert_eq!(without.left_out[0].name, "Lever 2");
        assert_eq!(told(&repairs, &BTreeMap::new()), before);
    }

    #[test]
    fn a_line_of_many_repairs_keeps_the_share_of_each_kind() {
        let many = |n: u128| -> Vec<OwnRepair> {
            (0..n).map(|at| repair(at, if at % 4 == 0 { "failed" } else { "holds" }, 100.0, None)).collect()
        };
        let line = |n: u128| told(&many(n), &BTreeMap::new()).methods.remove(0);
        let (sixty, more) = (line(60), line(240));
        assert_eq!((sixty.marks.len(), sixty.repairs_a_mark), (60, 1));
        assert_eq!((more.marks.len(), more.repairs_a_mark, more.repairs), (60, 4, 240));
        assert_eq!(more.marks.iter().filter(|it| it.became == Became::Failed).count(), 15);
    }

    #[test]
    fn the_odds_are_judged_from_ten_outcomes_on() {
        let given = |n: u128| -> Vec<OwnRepair> {
            (0..n)
                .map(|at| {
                    let held = at % 4 != 0;
                    repair(
                        at,
                        if held { "holds" } else { "failed" },
                        365.0,
                        Some(if held { 0.8 } else { 0.6 }),
                    )
                })
                .collect()
        };
        assert!(told(&given(9), &BTreeMap::new()).honest.is_none());
        let honest = told(&given(12), &BTreeMap::new());
        let judged = honest.honest.unwrap();
        // Every one that failed had been given less.
        assert_eq!(judged.scores.ranking, Some(1.0));
        // By hand: (9 x 80 + 3 x 60) / 12 = 75 given, 9 of 12 held
        assert_eq!(honest.heading, "12 repairs; what is given 75, holds 75 times");
        assert!(judged.tenths.iter().all(|it| it.low < it.share || it.share == 0.0));
    }

    #[test]
    fn a_torch_that_gives_less_has_wandered_from_the_book() {
        let lit = |at: u128, factor: f64| OwnFactor {
            lit: Uuid::from_u128(at),
            name: format!("Gate {at}"),
            what: FactorOf::Source { id: "weed_burner".to_owned() },
            factor,
        };
        let learned = [lit(1, 0.8), lit(2, 0.6)];
        let repairs = [OwnRepair { lit: Uuid::from_u128(1), ..repair(7, "holds", 1.0, None) }];
        let none = BTreeMap::new();
        let all = Said { repairs: &repairs, learned: &learned, ..Said::nothing(&none) };
        let found = wall(&all, UnitSystem::Metric);
        let line = &found.learned[0];
        // By hand: (4 + 1.4) / 6 = 0.9
        assert!((line.here - 0.9).abs() < 1e-9 && line.scale == (0.6, 1.25));
        assert_eq!(line.words, "10 % less than usual, from 2 heatings");
        assert_eq!(line.cases.iter().map(|it| it.job).collect::<Vec<_>>(), [Some(Uuid::from_u128(7)), None]);
    }

    #[test]
    fn what_went_wrong_is_counted_by_what_was_seen_and_what_was_taken_back_is_not() {
        let fault = |at: u128, job: u128, seen: Seen, cause: &str| OwnFault {
            entry: Uuid::from_u128(at),
            job: Uuid::from_u128(job),
            name: format!("Gate {job}"),
            seen,
            cause: cause.to_owned(),
            way: Way { method: MethodId::ArcNickel, school: School::Cold },
            taken_back: false,
        };
        let faults = [
            fault(1, 1, Seen::Pinholes, ""),
            fault(2, 1, Seen::NoFlow, "too_cold"),
            fault(3, 1, Seen::NoFlow, ""),
            fault(4, 2, Seen::NoFlow, "too_cold"),
            OwnFault { taken_back: true, ..fault(5, 2, Seen::ToeCrack, "") },
        ];
        let none = BTreeMap::new();
        let all = Said { faults: &faults, ..Said::nothing(&none) };
        let found = wall(&all, UnitSystem::Metric).faults;
        let words: Vec<&str> = found.iter().map(|line| line.words.as_str()).collect();
        assert_eq!(words, ["3 times on 2 parts", "1 time on 1 part"]);
        let causes: Vec<(&str, u32)> =
            found[0].causes.iter().map(|it| (it.words.as_str(), it.times)).collect();
        assert_eq!(causes, [("The iron is too cold", 2), ("nobody found why", 1)]);
        let out = BTreeMap::from([(Uuid::from_u128(1), "oil from the bench".to_owned())]);
        let without = wall(&Said { left_out: &out, ..all }, UnitSystem::Metric);
        assert_eq!(without.faults.len(), 1);
        assert_eq!(without.left_out[0].name, "Gate 1, Pinholes");
    }

    #[test]
    fn what_a_way_moves_is_the_mean_of_its_sizes_and_one_left_out_counts_no_more() {
        let moved = |at: u128, mm: f64, school: School| OwnMove {
            size: Uuid::from_u128(at),
            job: Uuid::from_u128(50 + at),
            name: format!("Gate {at}"),
            what: "bore 1".to_owned(),
            way: Way { method: MethodId::ArcNickel, school },
            moved_mm: Some(mm),
        };
        let moves = [moved(1, 0.3, School::Hot), moved(2, -0.1, School::Hot), moved(3, 0.0, School::Cold)];
        let told = |left_out: &BTreeMap<Uuid, String>| {
            let all = Said { moves: &moves, ..Said::nothing(left_out) };
            wall(&all, UnitSystem::Metric)
        };
        let found = told(&BTreeMap::new());
        let words: Vec<&str> = found.learned.iter().map(|line| line.words.as_str()).collect();
        // By hand: (0.3 + 0.1) / 2 = 0.2
        assert_eq!(
            words,
            [
                "0.2 mm on average, 0.3 mm the most: from 2 sizes",
                "0 mm on average, 0 mm the most: from 1 size"
            ]
        );
        assert_eq!(found.learned[0].scale, (0.0, 0.3));
        assert_eq!(found.learned[1].scale, (0.0, 0.1), "never a point");
        let cases: Vec<&str> = found.learned[0].cases.iter().map(|it| it.words.as_str()).collect();
        assert_eq!(cases, ["0.3 mm more", "0.1 mm less"]);
        let out = BTreeMap::from([(Uuid::from_u128(1), "measured warm".to_owned())]);
        let without = told(&out);
        assert_eq!(without.learned[0].words, "0.1 mm on average, 0.1 mm the most: from 1 size");
        assert_eq!(without.left_out[0].name, "Gate 1, bore 1");
    }
}
