//! What was set, and how it held: by process, wall and preheat.

use serde::Serialize;

use super::held::{CaseMark, SplitLine, split_line};
use crate::job::Became;
use crate::method::{MethodId, OwnRepair, RepairHow};
use crate::quantity::{Unit, UnitSystem, number};

/// One way of setting it, on walls and at heats that are alike.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SettingWorked {
    /// "Nickel stick"
    pub method: &'static str,
    /// "10 to 15 mm, at 200 to 250 degC"
    pub on: String,
    /// "ENi-CI nickel stick, 3.2 mm, 80 to 100 A"
    pub set: String,
    /// "5 of 6 held"
    pub words: String,
    /// As its marks are drawn.
    pub drawn: Vec<Became>,
    #[serde(skip)]
    pub marks: Vec<CaseMark>,
    pub repairs_a_mark: u32,
}

/// House: walls thinner than each of these are alike, in mm; and preheats within so many K.
const WALLS_MM: [f64; 5] = [5.0, 10.0, 15.0, 25.0, 50.0];
const PREHEATS_K: f64 = 50.0;
/// Ours: so many are shown.
const LINES_MOST: usize = 12;

/// What is alike: method, wall, preheat, rod, current.
type Alike = (MethodId, usize, Option<u32>, String, Option<(u32, u32)>);

fn alike(repair: &OwnRepair) -> Option<Alike> {
    let how = repair.how.as_deref().filter(|how| !how.rod.is_empty())?;
    let wall = WALLS_MM.iter().filter(|most| **most <= how.wall_mm.unwrap_or(0.0)).count();
    let preheat = how.preheat_c.map(|celsius| (celsius / PREHEATS_K).max(0.0) as u32);
    let rod = format!("{}|{}", how.rod, how.rod_mm.map_or(String::new(), |mm| mm.to_string()));
    // As a set is turned: by tens.
    let tens = |amps: f64| (amps / 10.0).round() as u32;
    Some((repair.method, wall, preheat, rod, how.amps.map(|(low, high)| (tens(low), tens(high)))))
}

fn on_words(how: &RepairHow, (wall, preheat): (usize, Option<u32>), units: UnitSystem) -> String {
    let mm = |mm: f64| units.say(mm, Unit::Millimetres);
    let walls = match (wall.checked_sub(1).map(|below| WALLS_MM[below]), WALLS_MM.get(wall)) {
        _ if how.wall_mm.is_none() => "wall not known".to_owned(),
        (None, Some(most)) => format!("under {}", mm(*most)),
        (Some(least), Some(most)) => format!("{} to {}", mm(least), mm(*most)),
        (least, None) => format!("over {}", mm(least.unwrap_or(0.0))),
    };
    let celsius = |celsius: f64| units.say(celsius, Unit::Celsius);
    let heat = match preheat {
        None => "cold".to_owned(),
        Some(step) => {
            let from = f64::from(step) * PREHEATS_K;
            format!("at {} to {}", celsius(from), celsius(from + PREHEATS_K))
        }
    };
    format!("{walls}, {heat}")
}

fn set_words(how: &RepairHow, units: UnitSystem) -> String {
    let size = how.rod_mm.filter(|mm| *mm > 0.0).map(|mm| units.say(mm, Unit::Millimetres));
    let amps = how.amps.map(|(low, high)| {
        let tens = |amps: f64| number((amps / 10.0).round() * 10.0, 0);
        format!("{} to {} A", tens(low), tens(high))
    });
    let rest = [size, amps];
    std::iter::once(how.rod.clone()).chain(rest.into_iter().flatten()).collect::<Vec<_>>().join(", ")
}

/// Those that somebody was asked about, what held most often first.
pub(super) fn settings(repairs: &[&OwnRepair], units: UnitSystem) -> Vec<SettingWorked> {
    let mut groups: Vec<(Alike, Vec<&OwnRepair>)> = Vec::new();
    for repair in repairs {
        let Some(of) = alike(repair) else { continue };
        match groups.iter_mut().find(|(known, _)| *known == of) {
            Some((_, own)) => own.push(repair),
            None => groups.push((of, vec![repair])),
        }
    }
    let mut lines: Vec<(SplitLine, SettingWorked)> = groups
        .into_iter()
        .filter_map(|((method, wall, preheat, ..), own)| {
            let how = own.first()?.how.as_deref()?;
            let line = split_line(String::new(), &own).filter(|line| line.asked > 0)?;
            let worked = SettingWorked {
                method: method.label(),
                on: on_words(how, (wall, preheat), units),
                set: set_words(how, units),
                words: line.words.clone(),
                drawn: line.drawn.clone(),
                marks: line.marks.clone(),
                repairs_a_mark: line.repairs_a_mark,
            };
            Some((line, worked))
        })
        .collect();
    // By what is at least so: one that held once is no surer than five of six.
    lines.sort_by(|(a, _), (b, _)| b.low.total_cmp(&a.low));
    lines.into_iter().map(|(_, worked)| worked).take(LINES_MOST).collect()
}
