//! What the made-up part makes of what is done to it.

mod closer;

use uuid::Uuid;

use super::faults::faults;
use super::opened::opened;
use crate::crack::said::EndKind;
use crate::crack::stop_hole::{FoundBy, StopHole, stop_hole};
use crate::faults::acceptance::Found;
use crate::faults::causes::Symptom;
use crate::field;
use crate::field::{crack_key, id_in};
use crate::heat::SimCache;
use crate::iron::{LookTest, MeasuredTest, TypedValues};
use crate::job::{Change, CheckWhat, Crack, Job, Round, TorchEntry, Work};
use crate::method::{MethodId, at_hand};
use crate::plan::Plan;
use crate::prep::said::PrepDone;
use crate::quantity::{UnitSystem, WallMillimetres};
use crate::secret::{Practice, TrueCrack};
use crate::shop::Shop;

use closer::{finds_hidden, looked_closely, second_crack};

/// What was done, with what the part showed; or why it shows nothing.
pub type Answered = Result<Change, (&'static str, &'static str)>;

/// What is said of a practice, with what the part really shows in place of what was said to be seen. Of a real job it
/// stays as it is.
///
/// `plan` is that of the job as it stands; `shows_c` is what a thermometer would show now, in degC.
///
/// # Errors
/// Why nothing can be seen so, and what can.
pub fn answered(job: &Job, plan: &Plan, change: Change, shows_c: Option<f64>) -> Answered {
    let Some(practice) = &job.practice else { return Ok(change) };
    Ok(match change {
        Change::Observe { test, outcome, confidence, spot } => {
            let outcome = look(practice, &test, &spot).unwrap_or(outcome);
            if test == "mark" {
                return Err(("no mark is cast on it", "another test"));
            }
            Change::Observe { test, outcome, confidence, spot }
        }
        Change::Measure { test, confidence, spot, .. } => {
            let typed =
                measured(job, practice, &test, &spot).ok_or(("no mark is cast on it", "another test"))?;
            Change::Measure { test, typed, shown_in: UnitSystem::Metric, confidence, spot }
        }
        Change::Torch { entry: TorchEntry::Reading { typed, shown_in, joint, gun } } => match shows_c {
            Some(celsius) => {
                let (typed, shown_in) = (format!("{celsius:.0} °C"), UnitSystem::Metric);
                Change::Torch { entry: TorchEntry::Reading { typed, shown_in, joint, gun: None } }
            }
            None => Change::Torch { entry: TorchEntry::Reading { typed, shown_in, joint, gun } },
        },
        Change::Look { place, typed, shown_in, then, note, .. } => {
            let found = at_the_check(practice, place.what, (job, plan));
            let typed = if found == Found::Good { TypedValues::new() } else { typed };
            Change::Look { place, found, typed, shown_in, count: None, then, note }
        }
        Change::Set { key, typed, .. }
            if key == field::method::CHOICE.key()
                && MethodId::from_id(typed.trim()).is_some_and(|method| !is_at_hand(practice, method)) =>
        {
            return Err(("nothing to do it with is at hand in this practice", "another method"));
        }
        // Asked how hot it gets, whoever brought it says it.
        Change::Set { key, typed, shown_in }
            if key == field::part::SERVICE_TEMPERATURE.key() && !typed.trim().is_empty() =>
        {
            match practice.truth.service_c {
                Some(service_c) => {
                    Change::Set { key, typed: format!("{service_c:.0} °C"), shown_in: UnitSystem::Metric }
                }
                None => Change::Set { key, typed, shown_in },
            }
        }
        Change::Set { key, typed, shown_in } if key.starts_with("check.") && !typed.trim().is_empty() => {
            let what = [
                (field::check::TOES.key(), CheckWhat::Toes),
                (field::check::CRACKS_AGAIN.key(), CheckWhat::CracksAgain),
                (field::check::NEXT_DAY.key(), CheckWhat::NextDay),
                (field::check::FILE_EDGE.key(), CheckWhat::FileEdge),
            ];
            let good = what.iter().find(|(known, _)| *known == key);
            let good = good.is_none_or(|(_, what)| at_the_check(practice, *what, (job, plan)) == Found::Good);
            let typed = if good { typed } else { "not_ok".to_owned() };
            Change::Set { key, typed, shown_in }
        }
        Change::FollowUp { .. } => return Err(("nobody can ask a made-up part", "see what became of it")),
        other => other,
    })
}

/// What a method is done with is among the gear of the case.
#[must_use]
pub fn is_at_hand(practice: &Practice, method: MethodId) -> bool {
    let gear = &practice.of.gear;
    at_hand(method, &gear.rods, &gear.sets, gear.stitch_kit)
}

/// What a test by look shows: drawn from what the true iron is likely to show. The same test at the same spot shows the
/// same.
fn look(practice: &Practice, test: &str, spot: &str) -> Option<String> {
    let outcomes = LookTest::from_id(test)?.outcomes();
    let iron = practice.truth.iron.index();
    let weights: Vec<f64> = outcomes.iter().map(|outcome| outcome.given[iron]).collect();
    let at = practice.draws().one(test, spot.trim(), &weights)?;
    Some(outcomes[at].id.to_owned())
}

/// What is read off for a measured test.
fn measured(job: &Job, practice: &Practice, test: &str, spot: &str) -> Option<TypedValues> {
    let (iron, z) = (practice.truth.iron, practice.draws().normal(test, spot.trim()));
    let round = job.round();
    let read: Vec<(&str, String)> = match MeasuredTest::from_id(test)? {
        MeasuredTest::Sound => {
            /// What an ultrasonic gauge is set to for steel, in m/s. House.
            const SET_M_S: f64 = 5_920.0;
            let (mean, deviation) = iron.sound_m_s();
            let wall = round.get(field::part::WALL).unwrap_or(12.0);
            let shown = wall * SET_M_S / (mean + deviation * z);
            vec![
                ("set_speed", format!("{SET_M_S:.0} m/s")),
                ("caliper", format!("{wall:.1} mm")),
                ("shown", format!("{shown:.1} mm")),
            ]
        }
        MeasuredTest::Density => {
            /// Density of water at 18 degC, in kg/m³ (law).
            const WATER_KG_M3: f64 = 998.6;
            let (mean, deviation) = iron.weighs_kg_m3();
            let air = round.get(field::part::MASS).unwrap_or(3.0);
            let water = air * (1.0 - WATER_KG_M3 / (mean + deviation * z));
            vec![
                ("in_air", format!("{air:.3} kg")),
                ("in_water", format!("{water:.3} kg")),
                ("water", "18 °C".to_owned()),
            ]
        }
        MeasuredTest::Mark => return None,
    };
    Some(read.into_iter().map(|(key, typed)| (key.to_owned(), typed)).collect())
}

/// What a look at a mended place finds: a missed tip shows, once it is asked for with dye or powder.
fn at_the_check(practice: &Practice, what: CheckWhat, (job, plan): (&Job, &Plan)) -> Found {
    let cracked =
        matches!(what, CheckWhat::CracksAgain | CheckWhat::NextDay) && tip_runs(practice, job, plan);
    let white = what == CheckWhat::FileEdge && burnt(practice, job);
    match (cracked, white) {
        (true, _) => Found::Crack,
        (_, true) => Found::HardEdge,
        _ => Found::Good,
    }
}

/// Fused, and an iron that takes no weld.
pub(super) fn burnt(practice: &Practice, job: &Job) -> bool {
    use crate::iron::Iron;
    let lit = job.round().lit.as_ref().and_then(|lit| lit.frozen.as_ref());
    let fused = lit.and_then(|frozen| frozen.way).is_some_and(|way| way.method.fusion());
    fused && matches!(practice.truth.iron, Iron::Malleable | Iron::White)
}

/// House: of the tips that were missed so many show as a crack when it is cold and looked for.
const SHOWS: f64 = 0.3;

fn tip_runs(practice: &Practice, job: &Job, plan: &Plan) -> bool {
    let shows = |crack: &Crack, end: usize| {
        let beyond = beyond_mm(practice, job, crack, end);
        let missed = beyond
            .zip(hole_to_mm(practice, job, plan, (crack.id, end)))
            .is_some_and(|(beyond, reach)| beyond > reach);
        missed && practice.draws().even("shows", &format!("{}{end}", crack.letter)) < SHOWS
    };
    job.round().cracks.iter().any(|crack| (0..2).any(|end| shows(crack, end)))
}

/// How far past the found tip the hole of an end reaches, once it was said that it is drilled; nothing where none is.
pub(super) fn hole_to_mm(
    practice: &Practice,
    job: &Job,
    plan: &Plan,
    (crack, end): (Uuid, usize),
) -> Option<f64> {
    let round = job.round();
    let known = plan.cracks.iter().find(|known| known.id == crack)?;
    let side = ["left", "right"][end];
    let end = known.ends.iter().find(|it| it.side == side)?;
    let ticked =
        round.ticked.iter().any(|step| step.what == Work::Drill && step.at.is_none_or(|at| at == crack));
    let said = round.get(field::prep::DONE).is_some_and(|done| done.contains(&PrepDone::Holes));
    let hole = end.stop_hole.filter(|_| end.drilled || ticked || said)?;
    let reach_mm = |hole: StopHole| hole.offset_mm + hole.drill_mm / 2.0;
    // Drilled by what the eye had seen, it lies that much further back from the end as it is known now.
    let shown_later = by_eye_then(practice, job, crack, usize::from(side == "right"));
    let drilled_by_eye =
        shown_later.zip(WallMillimetres::new(known.wall_mm).ok()).map(|(further_mm, wall)| {
            reach_mm(stop_hole(wall, FoundBy::Eye, &[]).well_past(FoundBy::Eye)) - further_mm
        });
    Some(drilled_by_eye.unwrap_or_else(|| reach_mm(hole)))
}

/// Where the holes were drilled before the end was looked for closely: how much further on it was shown later.
fn by_eye_then(practice: &Practice, job: &Job, crack: Uuid, end: usize) -> Option<f64> {
    let round = job.round();
    let found_by = round.get(field::crack::FOUND_BY.of(crack)).filter(|by| by.cleaned_first())?;
    let revision_of = |key: &str| round.values.get(key).map(|held| held.revision);
    let found_at = revision_of(&crack_key(crack, "found_by"))?;
    let ticks = round.ticked_at.iter();
    let drills = ticks.filter(|(step, _)| step.what == Work::Drill && step.at.is_none_or(|at| at == crack));
    let drilled_at =
        drills.map(|(_, revision)| *revision).chain(revision_of(field::prep::DONE.key())).max()?;
    let at = round.cracks.iter().position(|known| known.id == crack)?;
    let truth = practice.truth.cracks.get(at).filter(|_| drilled_at < found_at)?;
    Some(beyond_by(truth, FoundBy::Eye, end) - beyond_by(truth, found_by, end))
}

/// How far the true end of a crack lies beyond where it was found; nothing for what is no tip, or no crack of the case.
pub(super) fn beyond_mm(practice: &Practice, job: &Job, crack: &Crack, end: usize) -> Option<f64> {
    let kind = [field::crack::END_A, field::crack::END_B][end].of(crack.id);
    if job.round().get(kind) != Some(EndKind::Tip) {
        return None;
    }
    let at = job.round().cracks.iter().position(|known| known.id == crack.id)?;
    let truth = practice.truth.cracks.get(at)?;
    let found_by = job.round().get(field::crack::FOUND_BY.of(crack.id)).unwrap_or(FoundBy::Eye);
    Some(beyond_by(truth, found_by, end))
}

/// How far beyond where this way of finding shows it an end lies: its mean, and its deviation as often as was drawn.
pub(super) fn beyond_by(truth: &TrueCrack, found_by: FoundBy, end: usize) -> f64 {
    let (mean, deviation) = found_by.beyond_mm();
    (mean + deviation * truth.beyond[end]).max(0.0)
}

/// What the part shows beside what was done: said after it, in the same breath.
///
/// `plan` is that of the job with the change in it.
#[must_use]
pub fn answers_more(
    job: &Job,
    plan: &Plan,
    change: &Change,
    (shop, sims): (&Shop, &SimCache),
    mut new_id: impl FnMut() -> Uuid,
) -> Vec<(Uuid, Change)> {
    let Some(practice) = &job.practice else { return Vec::new() };
    let trouble = |seen| Change::Torch { entry: TorchEntry::Trouble { seen, cause: String::new() } };
    let mut shown = Vec::new();
    match change {
        Change::Set { key, typed, .. } if key.ends_with(".found_by") => {
            let found_by = FoundBy::from_id(typed.trim());
            let crack = id_in(key).and_then(|id| job.round().cracks.iter().find(|crack| crack.id == id));
            let closely = found_by.filter(|by| by.cleaned_first());
            if let (Some(by), Some(crack)) = (closely, crack) {
                let said = looked_closely(practice, job, crack, by);
                shown.extend(said.into_iter().map(|change| (new_id(), change)));
                second_crack(practice, job, by, &mut new_id, &mut shown);
            }
        }
        // What was gone on with is what was chosen, whatever is believed of the iron later.
        Change::Light { frozen: Some(frozen), .. } => {
            let chosen =
                job.round().typed(field::method::CHOICE.key()).is_some_and(|typed| !typed.is_empty());
            if let Some(way) = frozen.way.filter(|_| !chosen) {
                let key = field::method::CHOICE.key().to_owned();
                shown.push((new_id(), set(key, way.method.id().to_owned())));
            }
        }
        Change::Torch { entry: TorchEntry::Bead { .. } | TorchEntry::Pin { .. } } => {
            // Whoever begins to lay looks at the crack first.
            let ran_on = is_first_laid(job.round())
                && opened(job, shop, sims).is_some_and(|opens| began_min(job.round()) >= opens.minutes);
            let seen = if ran_on { Some(Symptom::RanOn) } else { faults(practice, job, plan) };
            shown.extend(seen.map(|seen| (new_id(), trouble(seen))));
        }
        _ => {}
    }
    shown
}

fn is_laid(entry: &TorchEntry) -> bool {
    matches!(entry, TorchEntry::Bead { .. } | TorchEntry::Pin { .. })
}

/// What was said last is the first that is laid in this heat.
fn is_first_laid(round: &Round) -> bool {
    round.standing_log().filter(|it| is_laid(&it.entry)).count() == 1
}

/// When it began to be laid, in minutes of the job clock.
fn began_min(round: &Round) -> f64 {
    round.standing_log().find(|it| is_laid(&it.entry)).map_or(0.0, |it| it.minutes)
}

/// The second crack is on the map: as it showed itself, not as anybody may have guessed.
pub(super) fn hidden_found(practice: &Practice, job: &Job) -> bool {
    /// House: it is shown to the whole mm.
    const AS_SHOWN_MM: f64 = 0.6;
    let round = job.round();
    let is_it = |crack: &Crack| {
        let long = round.get(field::crack::LENGTH.of(crack.id));
        practice.truth.hidden.zip(long).is_some_and(|(it, long)| (it.length_mm - long).abs() < AS_SHOWN_MM)
    };
    round.cracks.iter().skip(practice.truth.cracks.len()).any(is_it)
}

fn set(key: String, typed: String) -> Change {
    Change::Set { key, typed, shown_in: UnitSystem::Metric }
}

/// Whether the second crack shows when the first is looked at in this way. A better way never shows less.
pub(super) fn hidden_shows(practice: &Practice, by: FoundBy) -> bool {
    practice.truth.hidden.is_some() && practice.draws().even("hidden shows", "") < finds_hidden(by)
}
