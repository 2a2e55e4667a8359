//! The shop's wall: every repair a mark on the line of its method, what was learned beside what is usual.

use serde::Serialize;
use uuid::Uuid;

use super::BenchLine;
use super::bench::bench_lines;
use super::fault_lines::{FaultLine, fault_lines};
use super::held::{CaseMark, HeldLine, SplitLine, held_line, outcome};
use super::honest::{Honest, TenthHeld, honest};
use super::learned_lines::{LearnedCase, LearnedLine, learned_lines};
use super::prices::{Prices, prices};
use super::said::Said;
use super::settings::{SettingWorked, settings};
use super::splits::{Split, splits};
use crate::job::Became;
use crate::method::{Coupon, MethodId, OwnRepair};
use crate::quantity::UnitSystem;

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
    /// The same repairs by what else they are told apart by: iron, school, place, what burdened them.
    pub splits: Vec<Split>,
    /// What was set, and how it held: by process, wall and preheat.
    pub settings: Vec<SettingWorked>,
    /// What was asked for them against the hours of hands; nothing while no price was given.
    pub prices: Option<Prices>,
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

/// A case that does not count.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LeftOutCase {
    pub case: Uuid,
    pub name: String,
    pub reason: String,
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
        splits: splits(&repairs),
        settings: settings(&repairs, units),
        prices: prices(&repairs, units),
        honest,
        learned: learned_lines(all, &counts, units),
        left_out: left_out(all),
    }
}

/// One case of a line: a repair, a heating, an end, a timing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LedgerCase {
    pub case: Uuid,
    /// Nothing where the job is not known any more.
    pub job: Option<Uuid>,
    pub name: String,
    pub words: String,
    /// Of a repair.
    pub became: Option<Became>,
}

/// Ours: nobody goes through more by hand; the tables have them all.
const CASES_MOST: usize = 500;

impl From<&CaseMark> for LedgerCase {
    fn from(it: &CaseMark) -> Self {
        let (name, words) = (it.name.clone(), it.words.clone());
        Self { case: it.case, job: Some(it.job), name, words, became: Some(it.became) }
    }
}

impl From<&LearnedCase> for LedgerCase {
    fn from(it: &LearnedCase) -> Self {
        Self { case: it.case, job: it.job, name: it.name.clone(), words: it.words.clone(), became: None }
    }
}

fn all_of<'a, T: 'a>(cases: impl IntoIterator<Item = &'a T>) -> Vec<LedgerCase>
where
    LedgerCase: From<&'a T>,
{
    cases.into_iter().take(CASES_MOST).map(LedgerCase::from).collect()
}

/// Among lines that are told apart by their own words.
#[must_use]
pub fn cases_among(lines: &[SplitLine], label: &str) -> Option<Vec<LedgerCase>> {
    lines.iter().find(|line| line.label == label).map(|line| all_of(&line.marks))
}

impl Wall {
    /// What a line stands on, case by case; nothing where there is no such line. `of` says which part of the wall it is
    /// on: `held`, `split`, `setting`, `learned`, `fault`; `line` is what it is called there.
    #[must_use]
    pub fn cases_of(&self, of: &str, line: &str) -> Option<Vec<LedgerCase>> {
        match of {
            "held" => self.methods.iter().find(|it| it.method.id() == line).map(|it| all_of(&it.marks)),
            "split" => self.splits.iter().find_map(|split| cases_among(&split.lines, line)),
            "setting" => {
                let set = |it: &&SettingWorked| format!("{}: {}: {}", it.method, it.on, it.set) == line;
                self.settings.iter().find(set).map(|it| all_of(&it.marks))
            }
            "learned" => self.learned.iter().find(|it| it.name == line).map(|it| all_of(&it.cases)),
            "fault" => self.faults.iter().find(|it| it.label == line).map(|it| all_of(&it.cases)),
            _ => None,
        }
    }
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
        let scrap = || {
            all.scraps.iter().find(|it| it.piece == *case).map(|it| format!("a piece of scrap, {}", it.name))
        };
        repair()
            .or_else(scrap)
            .or_else(factor)
            .or_else(tip)
            .or_else(moved)
            .or_else(fault)
            .or_else(timed)
            .unwrap_or_default()
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
    use std::collections::BTreeMap;

    use super::*;
    use crate::faults::causes::Symptom;
    use crate::faults::own::OwnFault;
    use crate::heat::{FactorOf, OwnFactor};
    use crate::iron::Iron;
    use crate::method::{OwnMove, OwnScrap, Variant};
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
            handed: None,
            how: None,
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
    fn what_is_practised_little_stands_there_with_its_scrap_until_it_is_practised() {
        let piece = |at: u128| OwnScrap {
            piece: Uuid::from_u128(at),
            job: Uuid::from_u128(at),
            name: format!("Gate {at}"),
            method: MethodId::TorchBraze,
            taken_back: at == 3,
        };
        let scraps = [piece(1), piece(2), piece(3)];
        let line = |repairs: &[OwnRepair], out: &BTreeMap<Uuid, String>| {
            let all = Said { repairs, scraps: &scraps, ..Said::nothing(out) };
            wall(&all, UnitSystem::Metric).learned.into_iter().next()
        };
        let three = |n: u128| -> Vec<OwnRepair> {
            (10..10 + n)
                .map(|at| repair(at, "holds", 9.0, None))
                .chain([repair(9, "unknown", 0.0, None)])
                .collect()
        };
        let told = line(&three(3), &BTreeMap::new()).unwrap();
        // By hand: 3 + 2 x 0.5; nobody was asked about the fourth, and the third piece is ticked no more.
        assert_eq!(
            told.words,
            "4 of the 5 repairs that make it practised: from 3 repairs and 2 pieces of scrap"
        );
        assert_eq!((told.here, told.cases.len()), (4.0, 5));
        assert_eq!(line(&three(4), &BTreeMap::new()), None, "practised");
        let often = [MethodId::TorchBraze.id().to_owned()];
        let (three_of_them, nothing_out) = (three(3), BTreeMap::new());
        let said = Said {
            done_often: &often,
            scraps: &scraps,
            repairs: &three_of_them,
            ..Said::nothing(&nothing_out)
        };
        assert!(wall(&said, UnitSystem::Metric).learned.is_empty(), "the shop says that it does it often");
        let out = BTreeMap::from([(Uuid::from_u128(2), "it was steel".to_owned())]);
        assert!((line(&three(3), &out).unwrap().here - 3.5).abs() < 1e-9);
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
        let fault = |at: u128, job: u128, seen: Symptom, cause: &str| OwnFault {
            entry: Uuid::from_u128(at),
            job: Uuid::from_u128(job),
            name: format!("Gate {job}"),
            seen,
            cause: cause.to_owned(),
            way: Way { method: MethodId::ArcNickel, school: School::Cold },
            taken_back: false,
        };
        let faults = [
            fault(1, 1, Symptom::Pinholes, ""),
            fault(2, 1, Symptom::NoFlow, "too_cold"),
            fault(3, 1, Symptom::NoFlow, ""),
            fault(4, 2, Symptom::NoFlow, "too_cold"),
            OwnFault { taken_back: true, ..fault(5, 2, Symptom::ToeCrack, "") },
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
            foreseen_mm: None,
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
