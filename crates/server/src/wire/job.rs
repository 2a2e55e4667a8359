//! A job as a page gets it: everything worked out, nothing left to compute.

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;
use vanadin_core::base::drawn::serialize_thinned;
use vanadin_core::base::log::OwnWord;
use vanadin_core::field::{FieldState, job_field};
use vanadin_core::figure::{Figure, Moved};
use vanadin_core::job::{
    Crack, Damaged, Face, HardSpot, Heat, Job, Lighting, Lit, LogEntry, Mark, Neighbour, Observed, Picture,
    Reading, Round, Timed,
};
use vanadin_core::method::MethodId;
use vanadin_core::plan::{Available, JobStatus, Plan};
use vanadin_core::practice::is_at_hand;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::record::{FrozenFigure, FrozenPlan, FrozenText};
use vanadin_core::secret::{Level, Practice, gear_words};
use vanadin_core::stage::hottest;

use super::field::FieldHeld;

/// Everything about a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobView {
    pub id: Uuid,
    pub name: String,
    pub revision: u64,
    /// The data folder it lies in.
    pub folder: Uuid,
    pub job: JobSeen,
    pub plan: Plan,
    pub standing: JobStatus,
    /// What stands in its fields, by key; nothing for those that nobody has filled in.
    pub fields: BTreeMap<String, FieldHeld>,
    /// The time until it is wanted; nothing while no day is said.
    pub available: Option<Available>,
    /// The picture that stands for it on the rack.
    pub face: Option<Uuid>,
    /// What the last change moved.
    pub moved: Vec<Moved>,
    /// What was said of it last, in words; empty while nothing was.
    pub told: String,
    /// The server's clock, UTC in ms since 1970.
    pub now_ms: i64,
    /// Readings of all its lightings: it grows without the log growing.
    pub readings: usize,
    /// It is no repair but a practice; nothing for a real job. What it hides is never sent.
    pub practice: Option<PracticeSeen>,
}

/// What is shown of a practice while it is in hand.
#[derive(Debug, Serialize, ToSchema)]
pub struct PracticeSeen {
    pub title: String,
    /// What whoever brings it says.
    pub words: String,
    /// Id of its lesson; empty for a free case.
    pub lesson: String,
    pub level: Level,
    pub seed: u32,
    pub made_by: String,
    pub ended: bool,
    /// "Roofing burner, propane; Oxy-acetylene tip, medium"
    pub gear: Vec<String>,
    /// Ids of the methods that can be done with it.
    pub at_hand: Vec<MethodId>,
}

/// Readings of all lightings of a job.
#[must_use]
pub fn readings(job: &Job) -> usize {
    job.heats().map(|heat| heat.readings.len() + heat.others.len()).sum()
}

/// When and where a job is seen, and after what was said.
pub struct At {
    pub now_ms: i64,
    pub folder: Uuid,
    pub told: String,
}

/// Points of a record that are drawn; the record itself keeps them all.
const DRAWN: usize = 400;

impl JobView {
    pub fn new(
        job: Job,
        plan: Plan,
        standing: JobStatus,
        available: Option<Available>,
        moved: Vec<Moved>,
        At { now_ms, folder, told }: At,
    ) -> Self {
        let readings = readings(&job);
        Self {
            id: job.id,
            name: job.name().to_owned(),
            revision: job.revision,
            folder,
            fields: fields_of(&job, plan.units),
            face: job.face(),
            practice: job.practice.as_ref().map(PracticeSeen::of),
            job: JobSeen::of(job),
            plan,
            standing,
            available,
            moved,
            told,
            now_ms,
            readings,
        }
    }
}

impl PracticeSeen {
    fn of(practice: &Practice) -> Self {
        let of = practice.of.clone();
        Self {
            at_hand: MethodId::ALL.into_iter().filter(|method| is_at_hand(practice, *method)).collect(),
            gear: gear_words(&of.gear),
            title: of.title,
            words: of.words,
            lesson: of.lesson,
            level: of.level,
            seed: of.seed,
            made_by: of.made_by,
            ended: practice.ended,
        }
    }
}

/// What was found, done and read of a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct JobSeen {
    pub evidence: Vec<Observed>,
    /// In the order taken.
    pub pictures: Vec<Picture>,
    /// Faces of the part, in the order added.
    pub faces: Vec<Face>,
    /// First round first; never empty.
    pub rounds: Vec<RoundSeen>,
    pub put_away: bool,
    /// What cannot be read, the first first.
    pub damaged: Vec<Damaged>,
    /// Of each sender what can be taken back and put back.
    pub own_words: Vec<OwnWord>,
}

/// One round: its map and its heat. What stands in the fields of the round in hand is told by itself.
#[derive(Debug, Serialize, ToSchema)]
pub struct RoundSeen {
    pub cracks: Vec<Crack>,
    pub hard_spots: Vec<HardSpot>,
    pub neighbours: Vec<Neighbour>,
    pub marks: Vec<Mark>,
    pub lit: Option<LitSeen>,
    pub log: Vec<LogEntry>,
    /// What the thermocouple recorded, in the order of time: as many as are drawn.
    pub readings: Vec<Reading>,
    /// Lightings that were cancelled, the first first.
    pub cancelled: Vec<Heat>,
    /// Steps that were timed on the bench, the first first.
    pub timed: Vec<Timed>,
    /// Why this round was opened; empty for the first.
    pub reason: String,
    /// What the pad showed at most.
    pub hottest: Option<Figure>,
}

/// A lighting, with what was planned as far as it is shown.
#[derive(Debug, Serialize, ToSchema)]
pub struct LitSeen {
    pub fact: Uuid,
    pub at_ms: i64,
    pub speed: f64,
    /// Nothing of what was lit before plans were kept.
    pub frozen: Option<FrozenSeen>,
    /// Who lit it although the heat at hand may not do, and why; empty where nobody had to.
    pub owned: String,
    pub what: Lighting,
    /// What was to be laid out first and was not ticked.
    pub without: Vec<String>,
}

/// What was planned when it was lit: the record and the job file have all of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct FrozenSeen {
    pub label: String,
    pub figures: Vec<FrozenFigureSeen>,
    pub cautions: Vec<String>,
    /// (min from lighting up, degC)
    #[serde(serialize_with = "serialize_thinned")]
    pub curve: Vec<(f64, f64)>,
}

/// A figure as it was planned.
#[derive(Debug, Serialize, ToSchema)]
pub struct FrozenFigureSeen {
    pub id: String,
    pub name: String,
    /// In both systems: whoever reads a record may use either.
    pub metric: FrozenText,
    pub imperial: FrozenText,
}

impl LitSeen {
    fn of(lit: Lit) -> Self {
        let Lit { fact, at_ms, speed, frozen, owned, what, without } = lit;
        Self { fact, at_ms, speed, frozen: frozen.map(FrozenSeen::of), owned, what, without }
    }
}

impl FrozenSeen {
    fn of(plan: FrozenPlan) -> Self {
        let figures = plan.figures.into_iter().map(|figure| {
            let FrozenFigure { id, name, metric, imperial, .. } = figure;
            FrozenFigureSeen { id, name, metric, imperial }
        });
        Self { label: plan.label, figures: figures.collect(), cautions: plan.cautions, curve: plan.curve }
    }
}

impl JobSeen {
    fn of(job: Job) -> Self {
        Self {
            evidence: job.evidence,
            pictures: job.pictures,
            faces: job.faces,
            rounds: job.rounds.into_iter().map(RoundSeen::of).collect(),
            put_away: job.put_away,
            damaged: job.damaged,
            own_words: job.own_words,
        }
    }
}

impl RoundSeen {
    fn of(round: Round) -> Self {
        let hottest = hottest(&round);
        // What was planned for a lighting that was cancelled is in the record.
        let drawn = |heat: Heat| Heat {
            readings: thinned(&heat.readings, DRAWN),
            others: Vec::new(),
            lit: Lit { frozen: None, ..heat.lit },
            ..heat
        };
        Self {
            cracks: round.cracks,
            hard_spots: round.hard_spots,
            neighbours: round.neighbours,
            marks: round.marks,
            lit: round.lit.map(LitSeen::of),
            log: round.log,
            readings: thinned(&round.readings, DRAWN),
            cancelled: round.cancelled.into_iter().map(drawn).collect(),
            timed: round.timed,
            reason: round.reason,
            hottest,
        }
    }
}

fn fields_of(job: &Job, units: UnitSystem) -> BTreeMap<String, FieldHeld> {
    let held = |(key, held): (&String, &FieldState)| {
        Some((key.clone(), FieldHeld::of(job_field(key)?, held, units)))
    };
    job.round().values.iter().filter_map(held).collect()
}

/// At most `most` readings and the last one, evenly picked.
pub fn thinned(readings: &[Reading], most: usize) -> Vec<Reading> {
    let every = readings.len().div_ceil(most).max(1);
    let mut kept: Vec<Reading> = readings.iter().copied().step_by(every).collect();
    if let (Some(last), Some(kept_last)) = (readings.last(), kept.last())
        && last != kept_last
    {
        kept.push(*last);
    }
    kept
}
