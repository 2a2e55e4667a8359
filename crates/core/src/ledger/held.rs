//! How the repairs held: each a mark, by method, and by what else they are told apart.

use serde::Serialize;
use uuid::Uuid;

use super::honest::interval;
use super::said::times;
use crate::iron::Iron;
use crate::job::Became;
use crate::method::{Became as Came, MethodId, Outcome, Outcomes, OwnRepair, Variant, for_days, odds_of};
use crate::quantity::{number, of_100};

/// How the repairs of a method held.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HeldLine {
    pub method: MethodId,
    pub label: &'static str,
    /// Of a hundred, a year: by these repairs and the book, with its 80 % interval.
    pub held: f64,
    /// The same as it is said, whole.
    pub held_of_100: u32,
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
    /// As its marks are drawn.
    pub drawn: Vec<Became>,
    #[serde(skip)]
    pub marks: Vec<CaseMark>,
    pub repairs_a_mark: u32,
}

/// One repair.
#[derive(Debug, Clone, PartialEq)]
pub struct CaseMark {
    pub case: Uuid,
    pub job: Uuid,
    pub name: String,
    pub became: Became,
    pub words: String,
}

/// How repairs of one kind held, whatever the method.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SplitLine {
    /// "Gray", "Hot", "Tight"
    pub label: String,
    /// Of a hundred that were asked about, with its 80 % interval.
    pub held: f64,
    /// The same as it is said, whole.
    pub held_of_100: u32,
    pub low: f64,
    pub high: f64,
    /// What they had been given, for the days they were followed; nothing where none was given odds.
    pub book: Option<f64>,
    pub asked: u32,
    pub words: String,
    pub repairs: u32,
    /// As its marks are drawn.
    pub drawn: Vec<Became>,
    #[serde(skip)]
    pub marks: Vec<CaseMark>,
    pub repairs_a_mark: u32,
}

fn became(repair: &OwnRepair) -> Became {
    Became::from_id(&repair.became).unwrap_or(Became::Unknown)
}

/// 1 it holds, 0.5 with a fault, 0 it failed; nothing where nobody knows.
pub(super) fn outcome(repair: &OwnRepair) -> Option<f64> {
    match became(repair) {
        Became::Holds => Some(1.0),
        Became::Fault => Some(0.5),
        Became::Failed => Some(0.0),
        Became::Unknown => None,
    }
}

pub(super) fn held_line(method: MethodId, repairs: &[&OwnRepair]) -> Option<HeldLine> {
    let mut own: Vec<&OwnRepair> = repairs.iter().copied().filter(|it| it.method == method).collect();
    if own.is_empty() {
        return None;
    }
    in_order(&mut own);
    let outcomes = Outcomes { known: own.iter().filter_map(|it| counted(it)).collect() };
    let odds = odds_of(method, Variant::Usual, &outcomes);
    let (a, b) = odds.prior;
    let asked = own.iter().filter(|it| outcome(it).is_some()).count() as u32;
    let hundred = |p: f64| p * 100.0;
    let (held, low, high, book) =
        (hundred(odds.mean), hundred(odds.low), hundred(odds.high), hundred(a / (a + b)));
    let all = own.len();
    let (marks, repairs_a_mark) = marks(&own, MARKS_MOST);
    let words = match asked {
        0 => "nobody was asked yet: as the book has it".to_owned(),
        n => format!(
            "{held:.0} of 100 hold a year ({low:.0} to {high:.0}), by {} and the book",
            times(n as usize, "repair")
        ),
    };
    Some(HeldLine {
        method,
        label: method.label(),
        held,
        held_of_100: of_100(odds.mean),
        low,
        high,
        book,
        asked,
        words,
        repairs: all as u32,
        drawn: marks.iter().map(|mark| mark.became).collect(),
        marks,
        repairs_a_mark,
    })
}

/// Ours: more marks on one line are not told apart, and a page that carries them all is slow on a phone.
const MARKS_MOST: usize = 60;
/// And where the same repairs stand on many lines.
const SPLIT_MARKS_MOST: usize = 24;

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

/// What holds first, then what failed, then what nobody was asked about.
fn in_order(own: &mut [&OwnRepair]) {
    let order = |it: &&OwnRepair| match became(it) {
        Became::Holds => 0,
        Became::Fault => 1,
        Became::Failed => 2,
        Became::Unknown => 3,
    };
    own.sort_by(|a, b| order(a).cmp(&order(b)).then(b.days.total_cmp(&a.days)));
}

/// One for so many repairs, in their order: each kind keeps its share.
fn marks(own: &[&OwnRepair], most: usize) -> (Vec<CaseMark>, u32) {
    let each = own.len().div_ceil(most).max(1);
    (own.iter().copied().step_by(each).map(mark).collect(), each as u32)
}

/// How these held, all of one kind; nothing where there is none.
pub(super) fn split_line(label: String, own: &[&OwnRepair]) -> Option<SplitLine> {
    if own.is_empty() {
        return None;
    }
    let mut own = own.to_vec();
    in_order(&mut own);
    let known: Vec<f64> = own.iter().filter_map(|it| outcome(it)).collect();
    let (n, y) = (known.len() as f64, known.iter().sum::<f64>());
    let (low, high) = interval(n, y);
    let given = |it: &&OwnRepair| {
        outcome(it)?;
        Some(for_days(it.handed.or(it.given)?, it.days.max(1.0), &[]))
    };
    let given: Vec<f64> = own.iter().filter_map(given).collect();
    let book = (!given.is_empty()).then(|| given.iter().sum::<f64>() / given.len() as f64 * 100.0);
    let share = if n > 0.0 { y / n } else { f64::midpoint(low, high) };
    let words = if n > 0.0 {
        let of_them = format!("{} of {n:.0} held", number(y, 1));
        match book {
            Some(book) => format!("{of_them}; they had been given {book:.0} of 100"),
            None => of_them,
        }
    } else {
        "nobody was asked yet".to_owned()
    };
    let (marks, repairs_a_mark) = marks(&own, SPLIT_MARKS_MOST);
    Some(SplitLine {
        label,
        held: share * 100.0,
        held_of_100: of_100(share),
        low: low * 100.0,
        high: high * 100.0,
        book,
        asked: known.len() as u32,
        words,
        repairs: own.len() as u32,
        drawn: marks.iter().map(|mark| mark.became).collect(),
        marks,
        repairs_a_mark,
    })
}
