//! What must be known and done before it is lit: unknown is not no.

use serde::Serialize;

use super::{BenchPlan, CrackPlan, HeatPlan, Lock, MethodPlan, Missing, PrepPlan, Station};
use crate::casting::old_filler::OldFiller;
use crate::crack::said::EndKind;
use crate::field;
use crate::iron::{Belief, Iron, LookTest};
use crate::job::Round;
use crate::method::{Odds, Way};
use crate::quantity::{Unit, UnitSystem, both};
use crate::stage::part::PartFacts;
use crate::stage::{SizePlan, torch};

/// Why it may not be lit, and what opens the way.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GateLine {
    pub sentence: String,
    pub unlock: String,
    /// What to do about it, as the next thing.
    pub verb: String,
    pub station: Station,
    /// The field that opens the way; `new_round` where only a round of its own does; empty for none.
    pub key: String,
}

/// The gate before the torch.
#[derive(Debug, Clone, PartialEq, Eq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Gate {
    /// It is refused while anything stands here, the most pressing first.
    pub refused: Vec<GateLine>,
    /// The heat may not do: it can be lit by somebody who says so and answers for it. Empty where nobody
    /// has to.
    pub to_own: String,
}

/// No field: what opens the way is a round of its own.
const NEW_ROUND: &str = "new_round";

/// Without these nobody knows how it heats.
const HEATED_BY: [&str; 6] =
    ["part.shape", "part.length", "part.width", "part.height", "part.mass", "heat.source"];

/// Says why it is refused: where, the field that opens the way, what to do, why, what unlocks it.
pub(super) type Refuse<'a> = dyn FnMut(Station, &str, &str, String, &str) + 'a;

/// What the gate looks at.
pub(super) struct GateInputs<'a> {
    pub round: &'a Round,
    pub part: &'a PartFacts,
    pub belief: &'a Belief,
    pub lock: Option<&'a Lock>,
    /// The first that locks any heat, whatever way is chosen.
    pub hot_lock: Option<&'a Lock>,
    pub methods: &'a MethodPlan,
    pub cracks: &'a [CrackPlan],
    pub prep: Option<&'a PrepPlan>,
    pub heat: Option<&'a HeatPlan>,
    pub missing: &'a [Missing],
    pub damaged: usize,
    pub bench: &'a BenchPlan,
}

impl Gate {
    /// Of a practice without the plan: it keeps nobody from anything but from lighting for no way at all.
    pub(super) fn of_hands(chosen: Option<Way>) -> Self {
        let none = || GateLine {
            station: Station::Method,
            key: field::method::CHOICE.key().to_owned(),
            verb: "Choose a method.".to_owned(),
            sentence: "No method is chosen yet.".to_owned(),
            unlock: "Choose one.".to_owned(),
        };
        Self { refused: chosen.is_none().then(none).into_iter().collect(), to_own: String::new() }
    }

    pub(super) fn of(inputs: &GateInputs<'_>) -> Self {
        let mut gate = Self::default();
        let mut refuse = |station, key: &str, verb: &str, sentence: String, unlock: &str| {
            gate.refused.push(GateLine {
                sentence,
                unlock: unlock.to_owned(),
                verb: verb.to_owned(),
                station,
                key: key.to_owned(),
            });
        };
        let GateInputs { round, part, methods, .. } = *inputs;
        lock_and_class(inputs, inputs.lock, &mut refuse);
        let Some(way) = methods.chosen else {
            if inputs.lock.is_none() {
                let sentence = "No method is chosen yet.".to_owned();
                refuse(
                    Station::Method,
                    field::method::CHOICE.key(),
                    "Choose the method",
                    sentence,
                    "Choose one.",
                );
            }
            return gate;
        };
        let flame = !way.method.without_heat();
        if round.stopped().is_some() && torch::in_one_heat(way) {
            refuse(
                Station::Torch,
                NEW_ROUND,
                "Open a new round",
                "What is begun with this way is done in one heat, and not gone on with another day."
                    .to_owned(),
                "A new round: what was laid comes out, or is made good by another way.",
            );
        }
        if flame {
            hot_work(inputs, way, &mut refuse);
        }
        mapped(inputs, flame, &mut refuse);
        prepared(inputs, &mut refuse);
        sizes_read(inputs, &mut refuse);
        if flame {
            readable(inputs, &mut refuse);
        }
        if heated(inputs, &mut refuse) {
            gate.to_own = inputs.heat.map_or_else(String::new, |heat| to_own(heat, way, methods, part.units));
        }
        gate
    }
}

/// The cracks are known, and none of their ends is out of sight where it is heated.
fn mapped(inputs: &GateInputs<'_>, flame: bool, refuse: &mut Refuse<'_>) {
    if let Some(open) = inputs.missing.iter().find(|missing| missing.station == Station::Cracks) {
        let sentence = format!("{}: {}.", open.what, open.why);
        refuse(Station::Cracks, &open.key, &open.verb, sentence, "Say it on the map.");
        return;
    }
    let mut ends = inputs.cracks.iter().filter(|crack| crack.worked()).flat_map(|crack| &crack.ends);
    if flame && ends.any(|end| end.kind == Some(EndKind::Hidden)) {
        let why = "An end goes out of sight: nobody knows where it stops.".to_owned();
        refuse(Station::Cracks, "", "Look at the other face", why, "Find it, and say how it ends.");
    }
}

/// The groove is laid out, and what cannot be done hot is done.
fn prepared(inputs: &GateInputs<'_>, refuse: &mut Refuse<'_>) {
    match inputs.prep {
        None => {
            let why = "The cracks are not laid out: length, wall and ends are needed.".to_owned();
            refuse(
                Station::Prep,
                field::prep::DEPTH.key(),
                "Lay out the groove",
                why,
                "Map them, then the groove.",
            );
        }
        Some(prep) => {
            let open: Vec<String> =
                prep.to_do.iter().filter(|item| !item.done).map(|item| item.label.to_lowercase()).collect();
            if !open.is_empty() {
                let why = format!(
                    "Not to be done once it is hot, and nobody has said that it is done: {}.",
                    open.join("; ")
                );
                refuse(
                    Station::Prep,
                    field::prep::DONE.key(),
                    "Finish the prep",
                    why,
                    "Do it, and say so on Prep.",
                );
            }
        }
    }
}

/// What has to fit is read while it is still as it came: afterwards nobody can say what moved.
fn sizes_read(inputs: &GateInputs<'_>, refuse: &mut Refuse<'_>) {
    if inputs.round.stopped().is_some() {
        return;
    }
    let open: Vec<&SizePlan> = inputs.bench.features.iter().filter(|it| it.due_before()).collect();
    if let Some(first) = open.first() {
        let names: Vec<&str> = open.iter().map(|it| it.name.as_str()).collect();
        let why =
            format!("Not read before the torch: {}. Afterwards nobody can say what moved.", names.join(", "));
        refuse(Station::Prep, &first.due, "Read what has to fit", why, "Read it, or cross it out.");
    }
}

/// The heat at hand is known and gets there. Gives whether it only may do, and somebody has to answer for it.
fn heated(inputs: &GateInputs<'_>, refuse: &mut Refuse<'_>) -> bool {
    match inputs.heat {
        None => {
            let of_it = |missing: &&Missing| HEATED_BY.contains(&missing.key.as_str());
            let open: Vec<String> =
                inputs.missing.iter().filter(of_it).map(|missing| missing.what.to_lowercase()).collect();
            let why = match open.as_slice() {
                [] => "Weight, size, shape or the heat at hand is not known.".to_owned(),
                open => format!("Not known: {}.", open.join(", ")),
            };
            refuse(Station::Heat, field::heat::SOURCE.key(), "Say what can heat it", why, "Say them.");
        }
        Some(heat) if !heat.reached && !heat.within_the_estimate => {
            let more = "More heat, a cover, or a cold way.";
            refuse(Station::Heat, field::heat::SOURCE.key(), "Find more heat", heat.sentence.clone(), more);
        }
        Some(heat) => return !heat.reached,
    }
    false
}

/// What every lighting asks: no lock, and whether it could hurt.
pub(super) fn lock_and_class(inputs: &GateInputs<'_>, lock: Option<&Lock>, refuse: &mut Refuse<'_>) {
    if let Some(lock) = lock {
        refuse(lock.station, &lock.key, &lock.short, lock.sentence.clone(), &lock.unlock);
    }
    if inputs.round.get(field::part::SAFETY_CLASS).is_none() {
        refuse(
            Station::Part,
            field::part::SAFETY_CLASS.key(),
            "Say whether it could hurt",
            "Nobody has said whether it could hurt somebody: an axle, a hook, a pressure vessel.".to_owned(),
            "Say which class it belongs to, or none of them.",
        );
    }
}

/// What cannot be read may have said anything: nobody heats on that.
pub(super) fn readable(inputs: &GateInputs<'_>, refuse: &mut Refuse<'_>) {
    if inputs.damaged > 0 {
        refuse(
            Station::Part,
            "",
            "Read what cannot be read",
            format!("{} of its entries cannot be read: nobody knows what they said.", inputs.damaged),
            "Say again what they may have said, then light a copy of this job.",
        );
    }
}

/// What is heated at all asks: no hollow that nobody has looked for.
pub(super) fn hollow(inputs: &GateInputs<'_>, refuse: &mut Refuse<'_>) {
    if inputs.part.closed() && inputs.round.get(field::part::CAVITY).is_none() {
        refuse(
            Station::Part,
            field::part::CAVITY.key(),
            "Look for a closed hollow",
            "A closed shape, and nobody has looked for a hollow without a vent: it bursts when heated."
                .to_owned(),
            "Say that there is none, or that it is vented.",
        );
    }
}

/// What any flame or arc asks before it touches the part.
pub(super) fn hot_work(inputs: &GateInputs<'_>, way: Way, refuse: &mut Refuse<'_>) {
    let GateInputs { round, belief, .. } = *inputs;
    if belief.steps.is_empty() && !belief.enough() {
        refuse(
            Station::Iron,
            "",
            "Test the iron",
            "Test first: nothing but the sort of part speaks for the iron.".to_owned(),
            match inputs
                .prep
                .is_some_and(|prep| prep.work.iter().any(|line| line.tells == Some(LookTest::Drill)))
            {
                true => "One test of the iron: the chip of the first stop-hole will do, said on Prep.",
                false => "One test of the iron.",
            },
        );
    } else if belief.leading == Iron::Steel {
        refuse(
            Station::Iron,
            "",
            "Test the iron again",
            "Steel leads: these plans are for cast iron.".to_owned(),
            "Another test, or weld it as steel.",
        );
    }
    hollow(inputs, refuse);
    let out = round.get(field::part::OLD_FILLER_OUT) == Some(true);
    match round.old_filler() {
        _ if !way.method.fusion() || out => {}
        None => refuse(
            Station::Part,
            field::part::OLD_FILLER.key(),
            "Look for an old repair",
            "Nobody has looked for an old filler in the groove that will be melted.".to_owned(),
            "Look at its colour, try a magnet and a file, and say what it is.",
        ),
        Some(OldFiller::Other) => refuse(
            Station::Part,
            field::part::OLD_FILLER_OUT.key(),
            "Get the old filler out",
            "Old filler of a kind not known is in the groove that will be melted.".to_owned(),
            "Find out what it is, or get all of it out and say so.",
        ),
        Some(_) => {}
    }
}

/// The model is an estimate: between what it gives and what it may give, somebody answers for it.
fn to_own(heat: &HeatPlan, way: Way, methods: &MethodPlan, units: UnitSystem) -> String {
    let contender = methods.contenders.iter().find(|c| c.way == way);
    let with = contender.map_or(String::new(), |contender| {
        let percent = |odds: Odds| both(odds.mean * 100.0, Unit::Percent).0.text();
        let warm = contender.odds_without("preheat_short");
        format!(" Holds {} instead of {}.", percent(contender.odds), percent(warm))
    });
    format!(
        "{} The reckoning is good to {:.0} %: it may do. It stays {} short.{with}",
        heat.sentence,
        heat.good_to * 100.0,
        units.say(heat.short_k, Unit::Kelvins)
    )
}
