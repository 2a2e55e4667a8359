//! Stage 10: what is open when it goes out, and who says so.

use serde::Serialize;
use uuid::Uuid;

use super::afterwards::{AfterwardsPlan, afterwards};
use super::cracks::CrackPlan;
use super::heat::HeatPlan;
use super::method::Contender;
use super::part::{PartFacts, answered_for_shortly};
use super::pictured::{PictureLine, PicturesInputs};
use super::prep::{PrepPlan, SizePlan};
use super::really::{ReallyInputs, ReallyPlan, really};
use super::rounds_told::{RoundTold, RoundsInputs};
use super::torch::TorchPlan;
use super::{Amount, CheckLine, CheckState, Stage};
use crate::field;
use crate::iron::Iron;
use crate::job::{Became, HeatRef, Job, Lighting, Round, TorchEntry, WentAt};
use crate::method::PieceOfWork;
use crate::method::{AS_THE_CASTING_C, BrokeAt, MethodId, Way};
use crate::quantity::{Unit, UnitSystem};
use crate::shelf::StoreKind;
use crate::shop::Shop;
use crate::stores::{StoreItem, amount_words, named};

/// The job as it leaves the shop.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct HandOverPlan {
    /// What was planned and is not done, in sentences: it can be handed over by somebody who says why.
    pub open: Vec<String>,
    /// Why it goes out as it is; empty while nobody has said.
    pub owned: String,
    /// What it took from the stores, with the box it came from: "Nickel stick, 3.2 mm: 4 rods, box 77-B".
    pub used: Vec<String>,
    /// What it really used, beside what was planned.
    pub really: ReallyPlan,
    /// What stands on the part itself; nothing while it was not mended.
    pub label: Option<LabelPlan>,
    /// What is to be said of its lightings, the first first: what they were for, what was not laid out, what did not go
    /// well, why one was stopped.
    pub lightings: Vec<String>,
    /// How it holds: when that is asked, and what was answered.
    pub afterwards: AfterwardsPlan,
    /// Every picture, in the order taken: what it proves, and which show the part before and after.
    pub pictures: Vec<PictureLine>,
    /// The rounds before the one in hand.
    pub rounds: Vec<RoundTold>,
    /// It came back broken: what of it the break bench can be told; nothing else.
    pub came_back: Option<CameBack>,
}

/// A part that came back broken, as the break bench asks for it: a strip is cut across its seam, and broken there.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CameBack {
    /// "Points lever, A"
    pub name: String,
    pub iron: Iron,
    pub joined: MethodId,
    /// "12 mm"; empty while nobody knows the wall.
    pub thickness: String,
    /// As it was said where it went; nothing where nobody said.
    pub broke: Option<BrokeAt>,
}

/// What of a repair that failed can be put on the break bench.
fn came_back(inputs: &HandOverInputs<'_>) -> Option<CameBack> {
    let (round, way) = (inputs.job.round(), inputs.way?);
    let failed = round.followed.iter().next_back().filter(|it| it.became == Became::Failed)?;
    let seam = inputs.prep?.seams.iter().find(|seam| seam.patch.is_none())?;
    let part = round.get(field::part::NAME).unwrap_or("No name");
    Some(CameBack {
        name: format!("{part}, {}", seam.letter),
        iron: inputs.iron,
        joined: way.method,
        thickness: match seam.wall_guessed {
            true => String::new(),
            false => inputs.shop.units.say_exactly(seam.wall_mm, Unit::Millimetres),
        },
        broke: failed.went.map(|went| match went {
            WentAt::Filler => BrokeAt::Filler,
            WentAt::Toe => BrokeAt::Toe,
            WentAt::Edge => BrokeAt::Edge,
            WentAt::Beside | WentAt::Elsewhere => BrokeAt::Casting,
        }),
    })
}

/// The label on the part: what whoever finds it has to know, and nothing private.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct LabelPlan {
    /// UTC, ms since 1970.
    pub mended_ms: i64,
    /// "Torch braze, RBCuZn-C"
    pub by: String,
    /// "Not over 200 °C"; empty where it stands what the casting stands.
    pub limit: String,
    /// Who answers for a part that was referred out; empty where nobody had to.
    pub answered_for: String,
}

/// What a hand-over is made from.
pub(crate) struct HandOverInputs<'a> {
    pub job: &'a Job,
    pub shop: &'a Shop,
    pub part: &'a PartFacts,
    pub cracks: &'a [CrackPlan],
    pub way: Option<Way>,
    pub prep: Option<&'a PrepPlan>,
    /// What it most likely is.
    pub iron: Iron,
    /// Ductile is filled with another rod.
    pub ductile: bool,
    pub check: &'a [CheckLine],
    pub torch: Option<&'a TorchPlan>,
    pub heat: Option<&'a HeatPlan>,
    pub sizes: &'a [SizePlan],
    pub hot: bool,
    /// The way that is gone.
    pub taken: Option<&'a Contender>,
}

/// The label of a part that was mended.
fn label(inputs: &HandOverInputs<'_>) -> Option<LabelPlan> {
    let (round, way) = (inputs.job.round(), inputs.way?);
    let mended_ms = round.lit.as_ref().filter(|_| round.repaired())?.at_ms;
    let entry = way.method.entry();
    let seams = inputs.prep.map_or(&[][..], |prep| &prep.seams);
    let thickest = seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
    let class = way.method.filler(thickest, inputs.ductile).map(|filler| format!(", {}", filler.class));
    let most_c = entry.stands.for_good_c;
    Some(LabelPlan {
        mended_ms,
        by: format!("{}{}", way.method.label(), class.unwrap_or_default()),
        limit: match most_c < AS_THE_CASTING_C {
            true => format!("Not over {}", inputs.shop.units.say_most(most_c, Unit::Celsius)),
            false => String::new(),
        },
        answered_for: answered_for_shortly(round, inputs.part).unwrap_or_default(),
    })
}

/// What the job took from the stores, each thing in the order it was first taken, and so much of it as was really used
/// where that was said; then what it used that lies on no shelf.
fn used(job: &Job, shop: &Shop) -> Vec<String> {
    let really = &job.round().used;
    let mut lines: Vec<UsedOfAKind<'_>> = Vec::new();
    for taken in shop.used.iter().filter(|taken| taken.job == job.id) {
        let Some(item) = shop.stores.iter().find(|item| item.id == taken.item) else { continue };
        let said = really.iter().find(|it| item.serves(&it.what, it.size_mm));
        let same = |line: &&mut UsedOfAKind<'_>| match said {
            Some(said) => line.said == Some(said.fact),
            None => line.first.id == item.id,
        };
        match lines.iter_mut().find(same) {
            Some(line) => {
                line.amount += if said.is_none() { taken.amount } else { 0.0 };
                line.boxes.push(&item.lot);
            }
            None => lines.push(UsedOfAKind {
                first: item,
                said: said.map(|it| it.fact),
                amount: said.map_or(taken.amount, |it| it.amount),
                boxes: vec![&item.lot],
            }),
        }
    }
    let known: Vec<Option<Uuid>> = lines.iter().map(|line| line.said).collect();
    let beside = really.iter().filter(|it| it.amount > 0.0 && !known.contains(&Some(it.fact)));
    let beside = beside.filter_map(|it| {
        let kind = StoreKind::from_id(&it.what)?;
        let amount = amount_words(kind, it.amount, shop.units);
        Some(format!("{}: {amount}", named(kind, it.size_mm, shop.units)))
    });
    let taken = lines.iter().filter(|line| line.amount > 0.0).map(|line| line.words(shop.units));
    taken.chain(beside).collect()
}

/// Something that was used, with the boxes it came from.
struct UsedOfAKind<'a> {
    first: &'a StoreItem,
    /// The word that said how much it really was.
    said: Option<Uuid>,
    amount: f64,
    boxes: Vec<&'a str>,
}

impl UsedOfAKind<'_> {
    fn words(&self, units: UnitSystem) -> String {
        let amount = amount_words(self.first.kind(), self.amount, units);
        let mut boxes: Vec<&str> = self.boxes.iter().copied().filter(|lot| !lot.is_empty()).collect();
        boxes.dedup();
        let boxes: Vec<String> = boxes.into_iter().map(boxed).collect();
        let boxes = if boxes.is_empty() { String::new() } else { format!(", {}", boxes.join(", ")) };
        format!("{}: {amount}{boxes}", self.first.words(units))
    }
}

/// "box 77-B", also where the box says so itself.
fn boxed(lot: &str) -> String {
    if lot.to_lowercase().starts_with("box") { lot.to_owned() } else { format!("box {lot}") }
}

/// What is worth a line of the record of each lighting: of a repair that went as it should nothing is.
fn lightings(job: &Job, units: UnitSystem) -> Vec<String> {
    let mut heats: Vec<HeatRef<'_>> = job.heats().collect();
    heats.reverse();
    let one = |heat: &HeatRef<'_>| {
        let standing = || heat.log.iter().filter(|entry| entry.stands());
        let mut said = Vec::new();
        if heat.lit.what != Lighting::Main {
            let read = heat.recorded().iter().map(|read| read.celsius).fold(f64::NEG_INFINITY, f64::max);
            let by_hand = standing().filter_map(|entry| entry.celsius).fold(read, f64::max);
            if by_hand.is_finite() {
                said.push(format!("Read {} at most", units.say_exactly(by_hand, Unit::Celsius)));
            }
        }
        if !heat.lit.without.is_empty() {
            said.push(format!("Not laid out before it: {}", heat.lit.without.join("; ")));
        }
        let faults: Vec<String> = standing()
            .filter_map(|entry| match &entry.entry {
                TorchEntry::Trouble { seen, cause } => Some(match seen.cause(cause) {
                    Some(cause) => format!("{} ({})", seen.words(), cause.words),
                    None => seen.words().to_owned(),
                }),
                _ => None,
            })
            .collect();
        if !faults.is_empty() {
            said.push(format!("It did not go well: {}", faults.join("; ")));
        }
        let why = standing().find_map(|entry| match &entry.entry {
            TorchEntry::Covered { why } if !why.is_empty() => Some(why),
            _ => None,
        });
        said.extend(why.map(|why| format!("Stopped: {why}")));
        let worth = heat.lit.what != Lighting::Main || !said.is_empty();
        let round = if job.rounds.len() > 1 { format!(", round {}", heat.round + 1) } else { String::new() };
        let words = if said.is_empty() { String::new() } else { format!(". {}", said.join(". ")) };
        worth.then(|| format!("{}{round}{words}.", heat.lit.what.word()))
    };
    heats.iter().filter_map(one).collect()
}

impl HandOverPlan {
    fn of(inputs: &HandOverInputs<'_>) -> Self {
        let HandOverInputs { job, shop, check, torch, heat, hot, .. } = *inputs;
        let round = job.round();
        let mut open = Vec::new();
        let hot_work = heat.is_some_and(|heat| !heat.cold);
        match torch {
            None => open.push("No method is chosen and nothing was done.".to_owned()),
            Some(_) if !round.repaired() => {
                open.push(
                    if hot_work { "It was never lit." } else { "The work was never begun." }.to_owned(),
                );
            }
            Some(torch) if torch.done < torch.planned => open.push(format!(
                "{} of {} {}s are not done.",
                torch.planned - torch.done,
                torch.planned,
                torch.piece.word()
            )),
            Some(_) => {}
        }
        if hot_work && round.repaired() && round.covered_minutes().is_none() {
            open.push("It was never covered.".to_owned());
        }
        if hot {
            open.push("No reading says that it is cold.".to_owned());
        }
        let unseen = check.iter().filter(|line| line.open()).count();
        if unseen > 0 || check.is_empty() {
            open.push(if check.is_empty() || unseen == check.len() {
                "Nothing was checked.".to_owned()
            } else {
                format!("{unseen} of {} checks are open.", check.len())
            });
        }
        open.extend(
            check
                .iter()
                .filter(|line| line.verdict == CheckState::NotOk)
                .map(|line| format!("Does not hold: {}.", line.label)),
        );
        if round.repaired() {
            open.extend(sizes_open(inputs.sizes));
        }
        Self {
            open,
            owned: round.get(field::hand_over::OWNED).unwrap_or_default().to_owned(),
            used: used(job, shop),
            really: really(&ReallyInputs { round, shop, taken: inputs.taken, prep: inputs.prep }),
            label: label(inputs),
            lightings: lightings(job, shop.units),
            afterwards: afterwards(round, inputs.part),
            pictures: PicturesInputs {
                job,
                check,
                piece: torch.map_or(PieceOfWork::Bead, |torch| torch.piece).word(),
            }
            .lines(),
            rounds: RoundsInputs { job, part: inputs.part, cracks: inputs.cracks, units: shop.units }.told(),
            came_back: came_back(inputs),
        }
    }
}

/// What had to fit and was not read again, or does not and nobody has said who sees to it.
fn sizes_open(sizes: &[SizePlan]) -> impl Iterator<Item = String> {
    let named = |of: fn(&SizePlan) -> bool| {
        let names: Vec<&str> = sizes.iter().filter(|it| of(it)).map(|it| it.name.as_str()).collect();
        (!names.is_empty()).then(|| names.join(", "))
    };
    let unread =
        named(|it| !it.read_again()).map(|names| format!("Not read again since the torch: {names}."));
    let left = named(|it| it.within == Some(false) && it.by.is_none())
        .map(|names| format!("Does not fit, and nobody has said who sees to it: {names}."));
    unread.into_iter().chain(left)
}

pub(crate) fn stage(inputs: &HandOverInputs<'_>) -> Stage<HandOverPlan> {
    Stage {
        plan: HandOverPlan::of(inputs),
        amount: amount(inputs.job.round()),
        missing: Vec::new(),
        cautions: Vec::new(),
        figures: Vec::new(),
    }
}

fn amount(round: &Round) -> Amount {
    if round.get(field::hand_over::DONE) == Some(true) {
        Amount::Enough
    } else if round.get(field::hand_over::FOLLOW_UP).is_some()
        || round.get(field::hand_over::EXPECT).is_some()
    {
        Amount::Something
    } else {
        Amount::Nothing
    }
}
