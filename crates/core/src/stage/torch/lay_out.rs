//! What lies ready before it is lit: ticked line by line, since after that one cannot stop.

use serde::Serialize;
use uuid::Uuid;

use crate::field;
use crate::heat::hot_work_clearance;
use crate::job::{Round, WorkStep};
use crate::method::{Joins, MethodId, Way};
use crate::quantity::{Unit, UnitSystem, number};
use crate::shop::Shop;
use crate::stage::cooling::CoolingPlan;
use crate::stage::heat::HeatPlan;
use crate::stage::heat::Help;
use crate::stage::part::PartFacts;
use crate::stage::prep::PrepPlan;
use crate::stage::scrap::scrap_words;
use crate::stores::Take;

/// One line of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LayLine {
    /// What is ticked.
    pub step: WorkStep,
    pub words: String,
    pub done: bool,
}

/// House: a helper from so much on where it is turned hot, a hoist or cradle from there.
const HELPER_KG: f64 = 10.0;
const HOIST_KG: f64 = 25.0;

/// The lines as they stand: ticked or not.
pub(crate) fn lines(round: &Round, words: Vec<String>) -> Vec<LayLine> {
    let line = |words: String| {
        let step = WorkStep::laid_out(&words);
        LayLine { step, done: round.ticked.contains(&step), words }
    };
    words.into_iter().map(line).collect()
}

/// What of it nobody has ticked.
#[must_use]
pub fn not_laid_out(lines: &[LayLine]) -> Vec<String> {
    lines.iter().filter(|line| !line.done).map(|line| line.words.clone()).collect()
}

/// What any flame or arc wants to hand.
pub(crate) fn hot_work(round: &Round, units: UnitSystem) -> Vec<String> {
    let mut list = Vec::new();
    if round.get(field::part::HAZARDS).is_none() {
        list.push(
            "Looked for: seals of fluoroelastomer or PTFE, cleaner with chlorine, cadmium; none of it on the part".to_owned(),
        );
    }
    list.push(format!("Extinguisher, {} clear, fire watch until 60 min after", hot_work_clearance(units)));
    list
}

/// What the repair is laid out from.
pub(super) struct LayOut<'a> {
    pub round: &'a Round,
    pub shop: &'a Shop,
    pub job: Uuid,
    pub part: &'a PartFacts,
    pub way: Way,
    pub heat: &'a HeatPlan,
    pub prep: Option<&'a PrepPlan>,
    pub cooling: Option<&'a CoolingPlan>,
    pub takes: &'a [Take],
}

impl LayOut<'_> {
    /// Made from this job, in the order in which it is reached for.
    pub fn words(&self) -> Vec<String> {
        let Self { way, heat, part, .. } = *self;
        let mut list = self.filler();
        if !heat.cold {
            list.push(heat.source_label.clone());
            list.extend(self.gas());
            list.push(format!("{} Read at: {}", heat.sticks, heat.read_at));
        }
        if let Some(cooling) = self.cooling.filter(|cooling| !cooling.cold) {
            list.push(format!("{}, dry, beside the part", cooling.packing));
        }
        if !way.method.without_heat() {
            if !heat.cold {
                list.push("On bricks, nothing under it that drains the heat".to_owned());
            }
            let entry = way.method.entry();
            let tools = if way.method.arc() {
                "Chipping hammer, brush, peening hammer, pliers"
            } else if way.method.by_arc() {
                "Brush, pliers"
            } else {
                "Flux, brush, pliers"
            };
            let shade = match entry.joins {
                Joins::Flame => "mask, shade 5 to 6",
                _ if way.method.by_arc() => "helmet, shade 9 to 13",
                _ => "mask, shade 3 to 4",
            };
            list.push(format!("{tools}, gloves, {shade}, extraction without a draught on the part"));
            list.extend(self.hands());
            if !self.shop.practised(self.way.method, self.job) {
                list.push(scrap_words(self.way.method));
            }
            list.push("Where the first bead goes is pointed out on the map".to_owned());
            list.extend(hot_work(self.round, part.units));
        }
        list
    }

    fn filler(&self) -> Vec<String> {
        let Some(prep) = self.prep else { return Vec::new() };
        let (way, units) = (self.way, self.part.units);
        if prep.pins > 0 {
            let mut list = vec![format!("{} pins, drill, taps, sealant", prep.pins)];
            if prep.locks > 0 {
                list.push(format!("{} locks, and the jig they are drilled through", prep.locks));
            }
            return list;
        }
        if way.method.entry().filling.is_none() {
            return Vec::new();
        }
        if prep.rods <= 0.0 {
            return vec![format!("{} of {}", units.say(prep.metal_g, Unit::Grams), prep.filler)];
        }
        let stick =
            matches!(way.method, MethodId::ArcNickel | MethodId::ArcNickelIron | MethodId::ButterBuild);
        let dried = match stick {
            true => format!(", dried 1 h at {} (the maker's figure first)", units.say(120.0, Unit::Celsius)),
            false => String::new(),
        };
        let over = prep
            .over_it
            .as_ref()
            .map(|over| format!("{} of {}", units.say(over.metal_g, Unit::Grams), over.filler));
        let rods = format!("{} rods {}{dried}", number(prep.rods, 0), prep.filler);
        std::iter::once(rods).chain(over).collect()
    }

    fn gas(&self) -> Vec<String> {
        let gas = self.takes.iter().filter(|take| take.is_gas());
        gas.map(|take| match take.here_words.as_str() {
            "" => format!("{}: {} with its reserve; look at the gauge", take.words, take.amount_words),
            here => format!("{}: {} with its reserve, {here}", take.words, take.amount_words),
        })
        .collect()
    }

    fn hands(&self) -> Option<String> {
        let most_kg = self.part.weight.as_ref()?.range_kg().1;
        if most_kg > HOIST_KG {
            return Some(
                "Hoist or cradle, slung on sound metal; who holds what, one spoken signal".to_owned(),
            );
        }
        let two = matches!(Help::from_id(&self.heat.help), Help::Second(_));
        (most_kg >= HELPER_KG || two)
            .then(|| "A helper with helmet or mask; who holds what, one spoken signal".to_owned())
    }
}

/// What a helper holds, does and looks out for, each a sentence; empty for what is done cold.
pub(super) fn helper_words(way: Way, heat: &HeatPlan, part: &PartFacts) -> Vec<String> {
    if way.method.without_heat() {
        return Vec::new();
    }
    let mut words = Vec::new();
    match Help::from_id(&heat.help) {
        Help::Second(flame) => words.push(format!(
            "Hold: {}. Sweep it over the whole part, never stay in one place.",
            flame.label.to_lowercase()
        )),
        Help::Covered => words.push("Hold: the cover, on all of the part but the joint.".to_owned()),
        Help::Alone => {}
    }
    let most_kg = part.weight.as_ref().map_or(0.0, |weight| weight.range_kg().1);
    if most_kg > HOIST_KG {
        words.push("Turn it with the hoist or in the cradle, never with arms.".to_owned());
    } else if most_kg >= HELPER_KG {
        words.push("Turn it with the welder, tongs that fit, the place for it free.".to_owned());
    }
    words.push(if way.method.by_arc() {
        "Signal: one word before each arc. Helmet down then; shade 9 to 13.".to_owned()
    } else {
        "Signal: one word before the flame moves. Shade 5 for glowing iron.".to_owned()
    });
    words.push("Hot iron looks cold: touch nothing before a stick or a gun has read it.".to_owned());
    words
}
