//! The same repairs by what else they are told apart by.

use serde::Serialize;

use super::held::{SplitLine, split_line};
use crate::iron::Iron;
use crate::method::{OwnRepair, PlaceKind, School};
use crate::render::upper;

/// Repairs told apart by one thing.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Split {
    /// "By iron"
    pub name: &'static str,
    /// At least two; the most repairs first.
    pub lines: Vec<SplitLine>,
}

const SCHOOLS: [School; 7] = [
    School::Cold,
    School::Warm,
    School::Hot,
    School::WholePart,
    School::Modest,
    School::ArcOnly,
    School::NoHeat,
];

/// By iron, school, place, and what burdened them. What does not part them is left out.
pub(super) fn splits(repairs: &[&OwnRepair]) -> Vec<Split> {
    let how = |it: &OwnRepair| it.how.as_deref().cloned().unwrap_or_default();
    let of = |label: String, is: &dyn Fn(&OwnRepair) -> bool| {
        let own: Vec<&OwnRepair> = repairs.iter().copied().filter(|it| is(it)).collect();
        split_line(label, &own)
    };
    let irons =
        Iron::ALL.iter().filter_map(|iron| of(iron.label().to_owned(), &|it| it.iron == *iron)).collect();
    let schools = SCHOOLS
        .iter()
        .filter_map(|school| of(upper(school.word()), &|it| how(it).school == Some(*school)))
        .collect();
    let places = PlaceKind::ALL
        .iter()
        .filter_map(|place| of(place.words().to_owned(), &|it| how(it).place == Some(*place)))
        .collect();
    let mut names: Vec<String> = repairs.iter().flat_map(|it| how(it).burdens.unwrap_or_default()).collect();
    names.sort_unstable();
    names.dedup();
    let burdens = names
        .iter()
        .filter_map(|name| {
            of(upper(crate::method::odds_words(name)), &|it| {
                how(it).burdens.is_some_and(|all| all.contains(name))
            })
        })
        .chain(of("Nothing of it".to_owned(), &|it| how(it).burdens.is_some_and(|all| all.is_empty())))
        .collect();
    let all: [(&'static str, Vec<SplitLine>); 4] = [
        ("By iron", irons),
        ("By school", schools),
        ("By what the place does", places),
        ("By what burdened them", burdens),
    ];
    all.into_iter()
        .filter(|(_, lines)| lines.len() > 1)
        .map(|(name, mut lines)| {
            lines.sort_by_key(|line| std::cmp::Reverse(line.repairs));
            lines.truncate(LINES_MOST);
            Split { name, lines }
        })
        .collect()
}

/// Ours: what comes after these hardly ever was.
const LINES_MOST: usize = 8;
