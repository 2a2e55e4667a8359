//! What this shop's broken coupons say of its joints.

use serde::Serialize;
use uuid::Uuid;

use super::{BreakRatio, break_ratio};
use crate::iron::Iron;
use crate::method::{BrokeAt, Coupon, MethodId, School};
use crate::quantity::{Unit, UnitSystem};
use crate::render::said;

/// One coupon.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CouponMark {
    pub case: Uuid,
    pub name: String,
    /// "123 MPa, in the filler; guessed 35 kg, it took 40"
    pub words: String,
    pub mpa: f64,
    /// It broke away from its joint: that is at least as strong.
    pub at_least: bool,
    /// There is a picture of it: known where pictures are kept.
    pub pictured: bool,
}

/// A method on one iron against whole coupons of it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BenchLine {
    pub name: String,
    /// Repaired against whole; nothing while no whole one of that iron was broken.
    pub ratio: Option<BreakRatio>,
    pub words: String,
    pub coupons: Vec<CouponMark>,
}

/// The coupons that count of a method on an iron, and those of the whole iron, in MPa.
fn groups(coupons: &[&Coupon], method: MethodId, iron: Iron) -> (Vec<f64>, Vec<f64>) {
    let of = |joined: Option<MethodId>| {
        let these = coupons.iter().filter(|it| it.iron == iron && it.joined == joined);
        these.filter_map(|it| it.stood_mpa()).collect()
    };
    (of(Some(method)), of(None))
}

/// House: the book's joint strength counts for so many of the shop's own.
const BOOK: f64 = 3.0;

/// The joint's strength against the iron's: (3 x book + n x measured) / (3 + n), n the smaller of the two groups; and how
/// many it stands on, 0 where nothing was measured.
///
/// # Source
/// House.
#[must_use]
pub fn joint_strength(coupons: &[Coupon], method: MethodId, iron: Iron, book: f64) -> (f64, usize) {
    let all: Vec<&Coupon> = coupons.iter().collect();
    let (joined, whole) = groups(&all, method, iron);
    let n = joined.len().min(whole.len());
    match break_ratio(&joined, &whole) {
        Some(measured) => ((BOOK * book + n as f64 * measured.ratio) / (BOOK + n as f64), n),
        None => (book, 0),
    }
}

/// Each method that was broken here, iron by iron, the strongest first.
pub(super) fn bench_lines(coupons: &[&Coupon], units: UnitSystem) -> Vec<BenchLine> {
    let mut lines = Vec::new();
    for iron in Iron::ALL {
        let whole: Vec<&&Coupon> =
            coupons.iter().filter(|it| it.iron == iron && it.joined.is_none()).collect();
        let whole_mpa: Vec<f64> = whole.iter().filter_map(|it| it.stood_mpa()).collect();
        let mut ways: Vec<(MethodId, Option<School>)> = coupons
            .iter()
            .filter(|it| it.iron == iron)
            .filter_map(|it| Some((it.joined?, it.school)))
            .collect();
        ways.sort_unstable();
        ways.dedup();
        for (method, school) in ways {
            let is_so = |it: &&&Coupon| it.iron == iron && it.joined == Some(method) && it.school == school;
            let these: Vec<&&Coupon> = coupons.iter().filter(is_so).collect();
            let joined_mpa: Vec<f64> = these.iter().filter_map(|it| it.stood_mpa()).collect();
            let school = school.map_or_else(String::new, |school| format!(", {}", school.word()));
            let ratio = break_ratio(&joined_mpa, &whole_mpa);
            let all_away = these.iter().all(|it| it.broke == BrokeAt::Casting);
            lines.push(BenchLine {
                name: format!("{}{school}, {}", method.label(), iron.label().to_lowercase()),
                words: ratio.map_or_else(
                    || "no whole coupon of this iron was broken yet: nothing to hold it against".to_owned(),
                    |ratio| ratio_words(&ratio, (joined_mpa.len(), whole_mpa.len()), all_away),
                ),
                ratio,
                coupons: these.iter().map(|it| mark(it, units)).collect(),
            });
        }
        if !whole.is_empty() {
            lines.push(BenchLine {
                name: format!("Whole, {}", iron.label().to_lowercase()),
                ratio: None,
                words: match whole.len() {
                    1 => "1 whole coupon: what the others are held against".to_owned(),
                    n => format!("{n} whole coupons: what the others are held against"),
                },
                coupons: whole.iter().map(|it| mark(it, units)).collect(),
            });
        }
    }
    lines.sort_by(|a, b| {
        let of = |line: &BenchLine| line.ratio.map_or(f64::NEG_INFINITY, |ratio| ratio.ratio);
        of(b).total_cmp(&of(a))
    });
    not_told_apart(&mut lines);
    lines
}

/// Two whose intervals lie over each other are not told apart.
fn not_told_apart(lines: &mut [BenchLine]) {
    let with: Vec<(String, BreakRatio)> =
        lines.iter().filter_map(|line| Some((line.name.clone(), line.ratio?))).collect();
    for line in lines {
        let Some(own) = line.ratio else { continue };
        let over = |other: &&(String, BreakRatio)| {
            other.0 != line.name && other.1.low <= own.high && own.low <= other.1.high
        };
        let names: Vec<&str> = with.iter().filter(over).map(|(name, _)| name.as_str()).collect();
        if !names.is_empty() {
            line.words = format!("{}; not told apart from {}", line.words, names.join(" and "));
        }
    }
}

fn ratio_words(ratio: &BreakRatio, (joined, whole): (usize, usize), all_away: bool) -> String {
    let least = if all_away { "at least " } else { "" };
    let few = if ratio.few { ", of few: the band is wide" } else { "" };
    format!(
        "{least}{:.0} % of the whole iron ({:.0} to {:.0}), {joined} against {whole}{few}",
        ratio.ratio * 100.0,
        ratio.low * 100.0,
        ratio.high * 100.0
    )
}

fn mark(it: &Coupon, units: UnitSystem) -> CouponMark {
    let mpa = it.stood_mpa().unwrap_or(0.0);
    let guess = it.read.and_then(|read| Some((read.guess_kg?, read.load_kg)));
    let guessed = guess.map_or_else(String::new, |(guess, took)| {
        let say = |kg: f64| units.say(kg, Unit::Kilograms);
        format!("; guessed {}, it took {}", say(guess), say(took))
    });
    let step = it.read.and_then(|read| Some((read.stood_kg?, read.load_kg)));
    let stepped = step.map_or_else(String::new, |(stood, broke)| {
        let say = |kg: f64| units.say(kg, Unit::Kilograms);
        format!("; stood {}, broke under {}", say(stood), say(broke))
    });
    CouponMark {
        case: it.coupon,
        name: it.name.clone(),
        words: said(&format!("{{{mpa:.0} MPa}}, {}{stepped}{guessed}", it.broke.words()), units),
        mpa,
        at_least: it.joined.is_some() && it.broke == BrokeAt::Casting,
        pictured: false,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::{Bent, CouponRead};

    fn coupon(at: u128, joined: Option<MethodId>, mpa: f64, broke: BrokeAt) -> Coupon {
        // 6 F L / (b t²) with b 6, t 10, L 100 and F in N: as many MPa as N.
        let read = CouponRead {
            width_mm: 6.0,
            thickness_mm: 10.0,
            lever_mm: 100.0,
            load_kg: mpa / 9.806_65,
            stood_kg: None,
            guess_kg: None,
        };
        Coupon {
            coupon: Uuid::from_u128(at),
            name: format!("Bar {at}"),
            iron: Iron::Gray,
            joined,
            school: None,
            bent: Bent::Lever,
            broke,
            typed: Default::default(),
            shown_in: UnitSystem::Metric,
            read: Some(read),
        }
    }

    fn bars(joined: Option<MethodId>, from: u128, mpa: &[f64]) -> Vec<Coupon> {
        let broke = BrokeAt::Filler;
        mpa.iter().zip(from..).map(|(mpa, at)| coupon(at, joined, *mpa, broke)).collect()
    }

    /// By hand: geometric means 150 and 200, ratio 0.75; book 0.9: (3 x 0.9 + 2 x 0.75) / 5 = 0.84.
    #[test]
    fn the_book_counts_for_three_of_the_shops_own() {
        let method = MethodId::TorchBraze;
        let all = [bars(Some(method), 1, &[150.0, 150.0]), bars(None, 9, &[200.0; 3])].concat();
        let (strength, n) = joint_strength(&all, method, Iron::Gray, 0.9);
        assert!((strength - 0.84).abs() < 1e-9 && n == 2, "{strength}");
        assert_eq!(joint_strength(&all, MethodId::ArcNickel, Iron::Gray, 0.9), (0.9, 0));
        assert_eq!(joint_strength(&all, method, Iron::Ductile, 0.9), (0.9, 0));
        assert_eq!(
            joint_strength(&all[..2], method, Iron::Gray, 0.9),
            (0.9, 0),
            "nothing to hold it against"
        );
    }

    #[test]
    fn the_strongest_stands_first_and_overlapping_ones_are_not_told_apart() {
        let all = [
            bars(Some(MethodId::TorchBraze), 1, &[150.0, 155.0, 152.0]),
            bars(Some(MethodId::ArcNickel), 11, &[90.0, 95.0, 92.0]),
            bars(Some(MethodId::SilverBraze), 21, &[149.0, 157.0, 153.0]),
            bars(None, 31, &[200.0, 204.0, 198.0]),
        ]
        .concat();
        let lines = bench_lines(&all.iter().collect::<Vec<_>>(), UnitSystem::Metric);
        let names: Vec<&str> = lines.iter().map(|line| line.name.as_str()).collect();
        assert_eq!(names[2..], ["Nickel stick, gray", "Whole, gray"]);
        assert!(lines[0].words.contains("not told apart from"), "{}", lines[0].words);
        assert!(!lines[2].words.contains("not told apart"), "{}", lines[2].words);
        assert!(lines[2].words.starts_with("46 % of the whole iron"), "{}", lines[2].words);
    }

    #[test]
    fn what_broke_in_the_casting_is_at_least_as_strong() {
        let away = coupon(1, Some(MethodId::TorchBraze), 180.0, BrokeAt::Casting);
        let whole = coupon(2, None, 200.0, BrokeAt::Casting);
        let lines = bench_lines(&[&away, &whole], UnitSystem::Imperial);
        assert!(lines[0].words.starts_with("at least 90 % of the whole iron"), "{}", lines[0].words);
        assert!(lines[0].coupons[0].at_least && !lines[1].coupons[0].at_least);
        assert!(lines[0].coupons[0].words.contains("psi"), "{}", lines[0].coupons[0].words);
    }
}
