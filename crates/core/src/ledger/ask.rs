//! A question asked of the ledger in words of the trade: answered as far as the cases go.

use serde::Serialize;

use super::fault_lines::FaultLine;
use super::held::{SplitLine, split_line};
use super::learned_lines::LearnedLine;
use super::said::Said;
use super::wall::wall;
use crate::iron::Iron;
use crate::method::{Joins, MethodId, OwnRepair, PlaceKind, RepairHow, School};
use crate::quantity::{Kind, UnitSystem, number, parse};
use crate::render::upper;

/// What the ledger says to a question.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LedgerAnswer {
    /// "Not told apart: 4 of 5 held with it, 1 of 2 without."
    pub said: String,
    /// How the question was understood: "Peening, ductile, walls under 8 mm".
    pub understood: String,
    /// What is held against each other, the best first.
    pub lines: Vec<SplitLine>,
    pub learned: Vec<LearnedLine>,
    pub faults: Vec<FaultLine>,
}

/// House: longest that is read.
pub const QUESTION_MOST: usize = 200;

/// House: what a welder calls thin, and thick, in mm.
const THIN_MM: f64 = 8.0;
const THICK_MM: f64 = 20.0;

/// Something that may have been left undone, by how it is asked about.
struct Doing {
    words: &'static [&'static str],
    label: &'static str,
    /// What the odds call it where it was not done.
    undone: &'static [&'static str],
}

const DOINGS: [Doing; 8] = [
    Doing { words: &["peen", "hammer"], label: "Peening", undone: &["not_peened"] },
    Doing {
        words: &["stop-hole", "stophole", "hole", "drill"],
        label: "A hole at each tip",
        undone: &["no_hole", "tip_missed"],
    },
    Doing {
        words: &["preheat"],
        label: "Coming to the preheat",
        undone: &["preheat_short", "beads_cold", "arc_only_short"],
    },
    Doing { words: &["bak", "oil", "degreas"], label: "Getting the oil out", undone: &["oil"] },
    Doing {
        words: &["pack", "slow", "sand", "vermiculite"],
        label: "Falling slowly enough",
        undone: &["fell_fast"],
    },
    Doing { words: &["side"], label: "From both sides", undone: &["one_side"] },
    Doing { words: &["evenly", "uneven"], label: "Heating evenly", undone: &["uneven", "restraint"] },
    Doing { words: &["test", "spark", "magnet"], label: "Being sure of the iron", undone: &["iron_unsure"] },
];

/// What they are told apart by.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum By {
    Method,
    Rod,
    School,
    Iron,
    Place,
}

impl By {
    fn word(self) -> &'static str {
        match self {
            Self::Method => "by method",
            Self::Rod => "by rod",
            Self::School => "by school",
            Self::Iron => "by iron",
            Self::Place => "by what the place does",
        }
    }

    fn of(self, repair: &OwnRepair) -> Option<String> {
        let how = repair.how.as_deref();
        match self {
            Self::Method => Some(repair.method.label().to_owned()),
            Self::Rod => how.map(|how| how.rod.clone()).filter(|rod| !rod.is_empty()),
            Self::School => how.and_then(|how| how.school).map(|school| upper(school.word())),
            Self::Iron => Some(repair.iron.label().to_owned()),
            Self::Place => how.and_then(|how| how.place).map(|place| place.words().to_owned()),
        }
    }
}

/// Which repairs are meant; what nobody named is any.
#[derive(Debug, Default)]
struct Meant {
    iron: Option<Iron>,
    methods: Vec<MethodId>,
    school: Option<School>,
    place: Option<PlaceKind>,
    /// Over and under, in mm.
    walls: (Option<f64>, Option<f64>),
    /// As it is told.
    words: Vec<String>,
}

impl Meant {
    fn is(&self, repair: &OwnRepair) -> bool {
        let nothing = RepairHow::default();
        let how = repair.how.as_deref().unwrap_or(&nothing);
        let wall =
            |most: bool, mm: f64| how.wall_mm.is_some_and(|wall| if most { wall < mm } else { wall > mm });
        self.iron.is_none_or(|iron| repair.iron == iron)
            && (self.methods.is_empty() || self.methods.contains(&repair.method))
            && self.school.is_none_or(|school| how.school == Some(school))
            && self.place.is_none_or(|place| how.place == Some(place))
            && self.walls.0.is_none_or(|mm| wall(false, mm))
            && self.walls.1.is_none_or(|mm| wall(true, mm))
    }
}

/// A question, word by word.
struct Question<'a> {
    text: &'a str,
    words: Vec<&'a str>,
    units: UnitSystem,
}

impl Question<'_> {
    /// One of its words begins so.
    fn has(&self, stem: &str) -> bool {
        self.words.iter().any(|word| word.starts_with(stem))
    }

    fn any(&self, stems: &[&str]) -> bool {
        stems.iter().any(|stem| self.has(stem))
    }

    fn is(&self, word: &str) -> bool {
        self.words.contains(&word)
    }

    /// The length after one of these words: "under 8 mm".
    fn length_after(&self, heads: &[&str]) -> Option<f64> {
        heads.iter().find_map(|head| {
            let (_, rest) = self.text.split_once(head)?;
            let rest: Vec<&str> = rest.split_whitespace().take(2).collect();
            let both = parse(&rest.join(" "), Kind::Length, self.units).ok();
            both.or_else(|| parse(rest.first()?, Kind::Length, self.units).ok()).map(|read| read.value)
        })
    }

    fn meant(&self) -> Meant {
        let mut meant = Meant::default();
        let irons = Iron::ALL.iter().filter(|iron| {
            let label = iron.label().to_lowercase();
            label.split_whitespace().next().is_some_and(|first| self.has(first))
        });
        meant.iron = irons.copied().next();
        meant.words.extend(meant.iron.map(|iron| iron.label().to_lowercase()));
        meant.methods = self.methods();
        meant.words.extend(meant.methods.iter().map(|method| method.label().to_lowercase()));
        let schools = [
            ("cold", School::Cold),
            ("warm", School::Warm),
            ("hot", School::Hot),
            ("modest", School::Modest),
        ];
        meant.school = schools.into_iter().find(|(word, _)| self.is(word)).map(|(_, school)| school);
        meant.words.extend(meant.school.map(|school| school.word().to_owned()));
        let places = [
            (&["tight", "leak", "water", "pressure"][..], PlaceKind::Tight),
            (&["knock", "shock", "bend", "bent"], PlaceKind::Knocked),
            (&["load", "carr"], PlaceKind::Carries),
        ];
        meant.place = places.into_iter().find(|(stems, _)| self.any(stems)).map(|(_, place)| place);
        meant.words.extend(meant.place.map(|place| place.words().to_lowercase()));
        let over = self.length_after(&["over ", "above ", "thicker than "]);
        let under = self.length_after(&["under ", "below ", "thinner than "]);
        let mm = |mm: f64| self.units.say(mm, crate::quantity::Unit::Millimetres);
        if let Some(over) = over.or_else(|| self.has("thick").then_some(THICK_MM)) {
            meant.walls.0 = Some(over);
            meant.words.push(format!("walls over {}", mm(over)));
        }
        if let Some(under) = under.or_else(|| self.has("thin").then_some(THIN_MM)) {
            meant.walls.1 = Some(under);
            meant.words.push(format!("walls under {}", mm(under)));
        }
        meant
    }

    /// Methods that are named, by their own names or by what the bench calls them.
    fn methods(&self) -> Vec<MethodId> {
        let named = |method: &MethodId| {
            let label = method.label().to_lowercase();
            label.split_whitespace().all(|word| self.is(word))
        };
        let own: Vec<MethodId> = MethodId::ALL.into_iter().filter(named).collect();
        if !own.is_empty() {
            return own;
        }
        let called = |method: &MethodId| {
            let label = method.label().to_lowercase();
            match method.entry().joins {
                Joins::Pins => self.any(&["stitch", "pin", "lock"]),
                Joins::Bronze | Joins::ArcBronze => self.any(&["bronze", "braz"]),
                Joins::Silver => self.has("silver"),
                Joins::Flame => self.has("gas") || self.has("fusion"),
                _ => self.has("nickel") && label.contains("nickel"),
            }
        };
        MethodId::ALL.into_iter().filter(called).collect()
    }

    fn by(&self, meant: &Meant) -> By {
        match () {
            () if self.any(&["rod", "filler", "wire", "electrode"]) => By::Rod,
            () if self.any(&["method", "way", "process"]) => By::Method,
            () if self.any(&["school", "preheat", "heat"]) && !meant.methods.is_empty() => By::School,
            () if self.has("iron") && meant.iron.is_none() => By::Iron,
            () if self.has("place") => By::Place,
            () if meant.methods.len() == 1 => By::School,
            () => By::Method,
        }
    }
}

/// "4 of 5"
fn of(line: &SplitLine) -> String {
    format!("{} of {}", number(line.held / 100.0 * f64::from(line.asked), 1), line.asked)
}

/// What burdened a repair; nothing where nobody knows.
fn burdens_of(repair: &OwnRepair) -> Option<&[String]> {
    repair.how.as_deref()?.burdens.as_deref()
}

/// Whether a thing that is done helps here.
fn helps(doing: &Doing, meant: &[&OwnRepair]) -> (String, Vec<SplitLine>) {
    let undone = |it: &&&OwnRepair| {
        burdens_of(it).unwrap_or_default().iter().any(|name| doing.undone.contains(&name.as_str()))
    };
    // Of those from before that was kept nobody knows.
    let known: Vec<&OwnRepair> = meant.iter().copied().filter(|it| burdens_of(it).is_some()).collect();
    let group = |label: &str, is_undone: bool| {
        let own: Vec<&OwnRepair> = known.iter().filter(|it| undone(it) == is_undone).copied().collect();
        split_line(label.to_owned(), &own).filter(|line| line.asked > 0)
    };
    let (with, without) = (group("Done", false), group("Not done", true));
    let label = doing.label;
    let said = match (&with, &without) {
        (Some(with), Some(without)) if with.low > without.high => {
            format!("{label} helps here: {} held with it, {} without.", of(with), of(without))
        }
        (Some(with), Some(without)) if without.low > with.high => {
            format!("{label} did not help here: {} held with it, {} without.", of(with), of(without))
        }
        (Some(with), Some(without)) => {
            format!("Not told apart: {} held with it, {} without.", of(with), of(without))
        }
        (Some(with), None) => format!("It was never left undone here: {} held.", of(with)),
        (None, Some(without)) => format!("It was never done here: {} held.", of(without)),
        (None, None) => NOTHING.to_owned(),
    };
    (said, with.into_iter().chain(without).collect())
}

const NOTHING: &str = "No repair here tells of it yet.";

/// Which of them held best.
fn best(by: By, meant: &[&OwnRepair]) -> (String, Vec<SplitLine>) {
    let mut labels: Vec<String> = meant.iter().filter_map(|it| by.of(it)).collect();
    labels.sort_unstable();
    labels.dedup();
    let of_label = |label: String| {
        let own: Vec<&OwnRepair> =
            meant.iter().copied().filter(|it| by.of(it).as_ref() == Some(&label)).collect();
        split_line(label, &own).filter(|line| line.asked > 0)
    };
    let mut lines: Vec<SplitLine> = labels.into_iter().filter_map(of_label).collect();
    lines.sort_by(|a, b| b.held.total_cmp(&a.held).then(b.asked.cmp(&a.asked)));
    let said = match lines.as_slice() {
        [] => NOTHING.to_owned(),
        [one] => format!("Only {}: {} held.", one.label, of(one)),
        [first, rest @ ..] if rest.iter().all(|other| first.low > other.high) => {
            let next = &rest[0];
            format!("{} held best: {}. Next {}: {}.", first.label, of(first), next.label, of(next))
        }
        all => {
            let each: Vec<String> = all.iter().take(3).map(|it| format!("{} {}", it.label, of(it))).collect();
            format!("Not told apart: {}.", each.join(", "))
        }
    };
    (said, lines)
}

/// What the ledger says to a question in words of the trade.
#[must_use]
pub fn ask(question: &str, all: &Said<'_>, units: UnitSystem) -> LedgerAnswer {
    let text = question.trim().to_lowercase();
    let words: Vec<&str> = text
        .split(|letter: char| !letter.is_alphanumeric() && letter != '-')
        .filter(|it| !it.is_empty())
        .collect();
    let asked = Question { text: &text, words, units };
    if asked.words.is_empty() {
        let said =
            "Ask it as you would ask a welder: does peening help here? Which rod held best on thin wall?";
        return LedgerAnswer { said: said.to_owned(), ..LedgerAnswer::default() };
    }
    let meant = asked.meant();
    let counts = |it: &&OwnRepair| !all.left_out.contains_key(&it.lit) && meant.is(it);
    let repairs: Vec<&OwnRepair> = all.repairs.iter().filter(counts).collect();
    let understood = |head: &str| {
        let all: Vec<String> = std::iter::once(head.to_owned()).chain(meant.words.clone()).collect();
        all.join(", ")
    };
    // Of a torch, a packing, an end, minutes: what was learned of them.
    if asked.any(&[
        "torch", "burner", "tip", "flame", "oven", "long", "minute", "hour", "lets", "further", "move",
    ]) && !asked.any(&["best", "braz"])
    {
        let wanted = |line: &LearnedLine| {
            let name = line.name.to_lowercase();
            name.split(|letter: char| !letter.is_alphanumeric()).any(|word| word.len() > 3 && asked.has(word))
        };
        let learned: Vec<LearnedLine> = wall(all, units).learned.into_iter().filter(wanted).collect();
        if let Some(first) = learned.first() {
            let said = format!("{}: {}.", first.name, first.words);
            return LedgerAnswer {
                said,
                understood: understood("What was learned"),
                learned,
                ..LedgerAnswer::default()
            };
        }
    }
    if asked.any(&["wrong", "fault", "pore", "pinhole", "trouble"]) {
        let faults = wall(all, units).faults;
        let said = faults.first().map_or_else(
            || "Nothing has gone wrong at the torch yet.".to_owned(),
            |first| format!("Most often: {}, {}.", first.label.to_lowercase(), first.words),
        );
        return LedgerAnswer {
            said,
            understood: "What went wrong at the torch".to_owned(),
            faults,
            ..LedgerAnswer::default()
        };
    }
    let helping = asked.any(&["help", "worth", "need", "matter", "without", "why"]);
    let doing = DOINGS.iter().find(|doing| asked.any(doing.words));
    if let Some(doing) = doing.filter(|_| helping || !asked.any(&["best", "which"])) {
        let (said, lines) = helps(doing, &repairs);
        return LedgerAnswer { said, understood: understood(doing.label), lines, ..LedgerAnswer::default() };
    }
    let known = !meant.words.is_empty()
        || asked.any(&[
            "rod", "filler", "wire", "method", "way", "iron", "school", "place", "hold", "held", "best",
            "fail",
        ]);
    if !known {
        let said = "That is nothing this ledger keeps. It knows methods, rods, irons, schools, places, walls, what was \
                    left undone, torches, packings and minutes.";
        return LedgerAnswer { said: said.to_owned(), ..LedgerAnswer::default() };
    }
    let by = asked.by(&meant);
    let (said, lines) = best(by, &repairs);
    LedgerAnswer { said, understood: upper(&understood(by.word())), lines, ..LedgerAnswer::default() }
}
