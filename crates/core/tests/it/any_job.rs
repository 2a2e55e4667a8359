//! Whatever is said, and in whatever order: the log folds, the plan stands, nothing is lost.

use std::cell::LazyCell;

use crate::common::{Bench, LIT_AT, covered};
use proptest::prelude::*;
use uuid::Uuid;
use vanadin_core::field::{
    CRACK_FIELDS, FACE_FIELDS, FieldKind, FieldSpec, JOB_FIELDS, MARK_FIELDS, NEIGHBOUR_FIELDS, crack_key,
    face_key, mark_key, neighbour_key,
};
use vanadin_core::heat::SimCache;
use vanadin_core::iron::Confidence;
use vanadin_core::job::{
    Change, Fact, Job, Lighting, Parsed, SeamReadingKind, TorchEntry, Work, WorkStep, accept,
};
use vanadin_core::map::{At, Drawn, MarkKind, Shape, Vertex};
use vanadin_core::plan::{Plan, Station, odds_then, plan, status};
use vanadin_core::quantity::{Kind, UnitSystem};

/// Something a person might do, not knowing whether it fits.
#[derive(Debug, Clone)]
enum Act {
    Field(usize, usize, bool),
    CrackField(usize, usize, usize),
    NeighbourField(usize, usize, usize),
    Observe(usize, usize, usize, usize),
    Measure(usize, usize),
    AddHardSpot(usize),
    AddNeighbour,
    AddPicture,
    AddCrack,
    StrikeSomething(usize),
    Undo,
    Redo,
    Light(f64),
    CancelLight,
    Torch(usize),
    NewRound,
    AddFace,
    FaceField(usize, usize, usize),
    AddMark(usize),
    MarkField(usize, usize, usize),
    Straighten(usize, usize),
    Draw(usize, usize, usize),
    SetPoint(usize, usize, usize),
    MeasureSeam(usize, usize, usize),
    Tick(usize, usize, bool),
}

fn any_act() -> impl Strategy<Value = Act> {
    prop_oneof![
        12 => (0..JOB_FIELDS.len(), 0..8usize, any::<bool>()).prop_map(|(f, t, i)| Act::Field(f, t, i)),
        5 => (0..4usize, 0..CRACK_FIELDS.len(), 0..8usize).prop_map(|(c, f, t)| Act::CrackField(c, f, t)),
        4 => (0..5usize, 0..5usize, 0..3usize, 0..3usize).prop_map(|(t, o, c, s)| Act::Observe(t, o, c, s)),
        2 => (0..3usize, 0..NEIGHBOUR_FIELDS.len(), 0..8usize).prop_map(|(n, f, t)| Act::NeighbourField(n, f, t)),
        2 => (0..4usize, 0..5usize).prop_map(|(t, v)| Act::Measure(t, v)),
        1 => (0..6usize).prop_map(Act::AddHardSpot),
        1 => Just(Act::AddNeighbour),
        1 => Just(Act::AddPicture),
        2 => Just(Act::AddCrack),
        1 => (0..20usize).prop_map(Act::StrikeSomething),
        2 => Just(Act::Undo),
        1 => Just(Act::Redo),
        2 => prop_oneof![Just(0.5), Just(1.0), Just(60.0), Just(61.0), Just(f64::NAN)].prop_map(Act::Light),
        1 => Just(Act::CancelLight),
        4 => (0..7usize).prop_map(Act::Torch),
        1 => Just(Act::NewRound),
        1 => Just(Act::AddFace),
        3 => (0..2usize, 0..FACE_FIELDS.len(), 0..9usize).prop_map(|(a, f, t)| Act::FaceField(a, f, t)),
        1 => (0..MarkKind::CHOICES.len()).prop_map(Act::AddMark),
        1 => (0..3usize, 0..MARK_FIELDS.len(), 0..8usize).prop_map(|(m, f, t)| Act::MarkField(m, f, t)),
        1 => (0..2usize, 0..4usize).prop_map(|(f, p)| Act::Straighten(f, p)),
        5 => (0..2usize, 0..8usize, 0..9usize).prop_map(|(f, m, s)| Act::Draw(f, m, s)),
        2 => (0..8usize, 0..4usize, 0..5usize).prop_map(|(m, p, t)| Act::SetPoint(m, p, t)),
        3 => (0..4usize, 0..SeamReadingKind::ALL.len(), 0..5usize).prop_map(|(c, w, t)| Act::MeasureSeam(c, w, t)),
        2 => (0..Work::ALL.len(), 0..3usize, any::<bool>()).prop_map(|(w, c, d)| Act::Tick(w, c, d)),
    ]
}

/// Something typed into a field: often fitting, sometimes not.
fn typed(spec: &FieldSpec, pick: usize) -> String {
    let among = |texts: &[&str]| texts[pick % texts.len()].to_owned();
    match spec.kind {
        FieldKind::Text { .. } => among(&["Lever", "", "ß…🔥", "  spaces  "]),
        FieldKind::One(choices) => {
            choices.get(pick % (choices.len() + 1)).map_or("nonsense", |(id, _)| id).to_owned()
        }
        FieldKind::Many(_) => among(&["", "kiln", "nothing_like_it"]),
        FieldKind::YesNo => among(&["yes", "no", "", "perhaps"]),
        FieldKind::Date => among(&["2027-02-28", "2027-02-30", "", "soon"]),
        FieldKind::Quantity { kind, .. } => match kind {
            Kind::Length => among(&["1", "14 mm", "3/8", "1 1/2 in", "400", "1e9", "-4", "20 m", "5-7 mm"]),
            Kind::Mass => {
                among(&["12", "0.01", "40 lb", "20000", "0", "heavy", "", "3 t", "about 12 kg", "3 lb 2 oz"])
            }
            Kind::Temperature => among(&["20", "500F", "1400 C", "-40", "500Q", "28o", "", "900"]),
            Kind::Duration | Kind::Days => {
                among(&["90", "10 years", "1", "0", "6 months", "", "soon", "1e99"])
            }
            Kind::Hours | Kind::TimeOfDay => {
                among(&["7:30 am", "0730", "8", "25", "", "5 pm", "4 h 30", "early"])
            }
            Kind::GaugePressure => among(&["6 bar", "90 psi", "0", "-1", "1e9", "", "much"]),
            Kind::GasVolume => among(&["10 m3", "350 cu ft", "", "a lot"]),
            Kind::SoundSpeed => among(&["5920", "0.233", "", "fast"]),
            Kind::Money => among(&["£400", "1,250", "-4", "", "a lot"]),
            Kind::Percent | Kind::Angle | Kind::Turns | Kind::Plain => {
                among(&["0", "50", "100", "101", "", "NaN", "inf", "12.5"])
            }
        },
    }
}

/// Something that may lie on a face: any crack or mark, or the face itself.
fn mark_of(job: &Job, face: Uuid, at: usize) -> Option<Uuid> {
    let round = job.round();
    let cracks = round.cracks.iter().map(|crack| crack.id);
    let marks = round.marks.iter().map(|mark| mark.id);
    let others = round.hard_spots.iter().map(|spot| spot.id).chain(round.neighbours.iter().map(|it| it.id));
    cracks.chain(marks).chain(others).chain([face]).nth(at)
}

/// Shapes that fit, and some that do not; nothing takes it off.
fn any_shape(pick: usize) -> Option<Shape> {
    let line = |points: &[(f64, f64, Option<f64>)]| Shape::Line {
        points: points.iter().map(|&(x_mm, y_mm, wall_mm)| Vertex { x_mm, y_mm, wall_mm }).collect(),
    };
    let outline = |points: &[(f64, f64)]| Shape::Outline {
        points: points.iter().map(|&(x, y)| At::new(x, y)).collect(),
    };
    Some(match pick {
        0 => line(&[(0.0, 40.0, Some(9.0)), (60.0, 44.0, None), (120.0, 40.0, Some(22.0))]),
        1 => line(&[(60.0, 44.0, None), (60.0, 90.0, None)]),
        2 => line(&[(1.0, 1.0, Some(300.0)), (1.0, 1.0, None), (2.0, 1.0, Some(1.0)), (1.0, 1.0, None)]),
        3 => line(&[(-500.0, 3.0, None), (9_000.0, 3.0, None)]),
        4 => line(&[(5.0, 5.0, None), (5.0, 5.0, None)]),
        5 => Shape::Circle { x_mm: 66.0, y_mm: 92.0, radius_mm: 6.5 },
        6 => Shape::Place { x_mm: 30.0, y_mm: 50.0 },
        7 => outline(&[(0.0, 0.0), (150.0, 0.0), (150.0, 100.0), (0.0, 100.0)]),
        _ => return None,
    })
}

fn change(job: &Job, act: &Act) -> Option<Change> {
    let set = |key: String, typed: String, imperial: bool| {
        let shown_in = if imperial { UnitSystem::Imperial } else { UnitSystem::Metric };
        Some(Change::Set { key, typed, shown_in })
    };
    let round = job.round();
    match act {
        Act::Field(field, pick, imperial) => {
            let spec = &JOB_FIELDS[*field];
            set(spec.key.to_owned(), typed(spec, *pick), *imperial)
        }
        Act::CrackField(crack, field, pick) => {
            let crack = round.cracks.get(*crack)?;
            let spec = &CRACK_FIELDS[*field];
            set(crack_key(crack.id, spec.key), typed(spec, *pick), false)
        }
        Act::Observe(test, outcome, confidence, spot) => Some(Change::Observe {
            test: ["punch", "drill", "file", "spark", "mark"][*test].into(),
            outcome: ["raises_rim", "powder_and_crumbs", "skates", "strong", "ductile"][*outcome].into(),
            confidence: [Confidence::Sure, Confidence::Fair, Confidence::Unsure][*confidence],
            spot: ["first spot", "hub", " "][*spot].into(),
        }),
        Act::NeighbourField(neighbour, field, pick) => {
            let neighbour = round.neighbours.get(*neighbour)?;
            let spec = &NEIGHBOUR_FIELDS[*field];
            set(neighbour_key(neighbour.id, spec.key), typed(spec, *pick), false)
        }
        Act::Measure(test, value) => {
            let value = ["14", "5920", "", "2.9 kg", "EN-GJS-400-15"][*value].to_owned();
            let keys = ["set_speed", "caliper", "shown", "in_air", "in_water", "water", "mark"];
            Some(Change::Measure {
                test: ["sound", "density", "mark", "taste"][*test].into(),
                typed: keys.iter().map(|key| ((*key).to_owned(), value.clone())).collect(),
                shown_in: UnitSystem::Metric,
                confidence: Confidence::Sure,
                spot: "first spot".into(),
            })
        }
        Act::AddHardSpot(at) => Some(Change::AddHardSpot {
            spot: "rim".into(),
            observed: job.evidence.get(*at).map(|seen| seen.fact),
        }),
        Act::AddNeighbour => Some(Change::AddNeighbour),
        Act::AddPicture => Some(Change::AddPicture { of: None }),
        Act::AddCrack => Some(Change::AddCrack),
        Act::StrikeSomething(at) => {
            let target = job
                .evidence
                .iter()
                .map(|seen| seen.fact)
                .chain(round.cracks.iter().map(|crack| crack.id))
                .chain(round.hard_spots.iter().map(|spot| spot.id))
                .chain(round.neighbours.iter().map(|neighbour| neighbour.id))
                .chain(job.pictures.iter().map(|picture| picture.id))
                .chain(job.faces.iter().map(|face| face.id))
                .chain(round.marks.iter().map(|mark| mark.id))
                .chain(round.log.iter().map(|entry| entry.fact))
                .nth(*at)
                .unwrap_or(Uuid::max());
            Some(Change::Strike { target, reason: "wrong button".into() })
        }
        Act::AddFace => Some(Change::AddFace),
        Act::FaceField(face, field, pick) => {
            let (face, spec) = (job.faces.get(*face)?, &FACE_FIELDS[*field]);
            // Now and then the back of another one, or of itself.
            let other = job.faces.get(*pick % 3).map(|face| face.id.to_string());
            let text = match spec.key {
                "back_of" | "from_across" => other.unwrap_or_default(),
                _ => typed(spec, *pick),
            };
            set(face_key(face.id, spec.key), text, false)
        }
        Act::AddMark(what) => MarkKind::all().nth(*what).map(|what| Change::AddMark { what }),
        Act::MarkField(mark, field, pick) => {
            let (mark, spec) = (round.marks.get(*mark)?, &MARK_FIELDS[*field]);
            set(mark_key(mark.id, spec.key), typed(spec, *pick), false)
        }
        Act::Straighten(face, pick) => Some(Change::Straighten {
            face: job.faces.get(*face)?.id,
            picture: job.pictures.first()?.id,
            points_px: [
                vec![[10.0, 10.0], [700.0, 30.0], [720.0, 500.0], [5.0, 480.0]],
                vec![[10.0, 10.0], [300.0, 10.0]],
                vec![[10.0, 10.0]; 4],
                vec![[f64::NAN, 0.0], [1.0, 1.0]],
            ][*pick]
                .clone(),
            size_px: [800.0, 600.0],
            typed: [("across", "200"), ("down", "140")]
                .map(|(name, mm)| (name.to_owned(), mm.to_owned()))
                .into(),
            shown_in: UnitSystem::Metric,
        }),
        Act::Draw(face, mark, shape) => {
            let face = job.faces.get(*face)?.id;
            let drawn = Drawn { mark: mark_of(job, face, *mark)?, face, shape: any_shape(*shape) };
            Some(Change::Draw { drawn: vec![drawn] })
        }
        Act::SetPoint(mark, point, pick) => {
            let placed = round.drawn.get(*mark)?;
            let (name, text) =
                [("x", "40"), ("y", "-3"), ("wall", "12 mm"), ("from_before", "900"), ("across", "1/2 in")]
                    [*pick];
            Some(Change::SetPoint {
                mark: placed.mark,
                face: placed.face,
                point: *point,
                typed: [(name.to_owned(), text.to_owned())].into(),
                shown_in: UnitSystem::Metric,
            })
        }
        Act::MeasureSeam(crack, what, pick) => {
            let what = SeamReadingKind::ALL[*what];
            let text = ["12 mm", "0", "0.4", "900", "deep"][*pick];
            let typed = what.names().iter().map(|name| ((*name).to_owned(), text.to_owned()));
            Some(Change::MeasureSeam {
                crack: round.cracks.get(*crack)?.id,
                what,
                number: (*pick % 2 == 0).then_some(1 + *pick as u32),
                typed: typed.collect(),
                shown_in: UnitSystem::Metric,
            })
        }
        Act::Tick(what, crack, done) => Some(Change::Tick {
            step: WorkStep {
                what: Work::ALL[*what],
                at: round.cracks.get(*crack).map(|crack| crack.id),
                number: (*crack > 1).then_some(2),
            },
            done: *done,
        }),
        Act::Undo => Some(Change::Undo { target: job.own_word("").0? }),
        Act::Redo => Some(Change::Redo { target: job.own_word("").1? }),
        Act::Light(speed) => Some(Change::Light {
            speed: *speed,
            frozen: None,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new(),
        }),
        Act::CancelLight => Some(Change::CancelLight),
        Act::Torch(kind) => Some(Change::Torch {
            entry: match kind {
                0 | 1 => TorchEntry::Bead { at: None },
                2 => TorchEntry::Peened,
                3 => TorchEntry::Reheated,
                4 => TorchEntry::Reading {
                    typed: "312".into(),
                    shown_in: UnitSystem::Metric,
                    joint: *kind == 4 && job.rounds.len() > 1,
                    gun: None,
                },
                5 => TorchEntry::Note { text: "pinhole".into() },
                6 => covered(),
                _ => TorchEntry::Unwrapped,
            },
        }),
        Act::NewRound => Some(Change::NewRound { reason: "it ran on".into() }),
    }
}

/// Says what may be said; the rest is refused and leaves no trace.
fn said(bench: &Bench, acts: &[Act]) -> Vec<Fact> {
    said_and_seen(bench, acts, |_| Ok(())).unwrap()
}

/// The same; before each act the job is looked at.
fn said_and_seen(
    bench: &Bench,
    acts: &[Act],
    mut seen: impl FnMut(&Job) -> Result<(), TestCaseError>,
) -> Result<Vec<Fact>, TestCaseError> {
    let mut facts: Vec<Fact> = bench.facts.clone();
    for act in acts {
        let job = Job::fold(Uuid::nil(), &facts);
        seen(&job)?;
        let Some(mut change) = change(&job, act) else { continue };
        // Few words ask what the plan allows.
        let now = LazyCell::new(|| plan(&job, &bench.shop).said());
        if accept(&job, || now.allows(&job, 0), &change, None, "", None).is_err() {
            continue;
        }
        if let Change::Light { frozen, .. } = &mut change {
            *frozen = Some(Box::new(now.frozen()));
        }
        let revision = facts.len() as u64 + 1;
        let at_ms = LIT_AT + revision as i64 * 60_000;
        facts.push(Fact {
            id: Uuid::from_u128(u128::from(revision)),
            revision,
            at_client_ms: at_ms,
            at_server_ms: at_ms,
            who: "bench".into(),
            sender: String::new(),
            understood: Parsed::of(&change, None),
            change,
        });
    }
    Ok(facts)
}

fn stands(plan: &Plan) -> Result<(), TestCaseError> {
    prop_assert_eq!(plan.stations.len(), Station::ALL.len());
    let mut ids: Vec<&str> = plan.figures.iter().map(|figure| figure.id.as_str()).collect();
    ids.sort_unstable();
    ids.dedup();
    prop_assert_eq!(ids.len(), plan.figures.len(), "two figures share an id");
    for figure in &plan.figures {
        prop_assert!(figure.value.is_finite(), "{} is {}", figure.id, figure.value);
        prop_assert!(figure.because.ends_with('.'), "{} does not say why", figure.id);
        if let (Some(low), Some(high)) = (figure.low, figure.high) {
            prop_assert!(low <= high, "{}: {} to {}", figure.id, low, high);
        }
    }
    let shares: f64 = plan.iron.shares.iter().map(|share| share.share).sum();
    prop_assert!((shares - 1.0).abs() < 1e-9);
    for contender in &plan.methods.contenders {
        prop_assert!(contender.score.is_finite());
        prop_assert_eq!(contender.excluded, !contender.reasons.is_empty(), "{}", contender.label);
        let parts: f64 = contender.parts.iter().map(|part| part.points).sum();
        prop_assert!((parts - contender.score).abs() < 1e-9, "a score is the sum of its parts");
    }
    if let Some(chosen) = plan.methods.chosen {
        prop_assert!(plan.methods.contenders.iter().any(|contender| contender.way == chosen));
    }
    for missing in &plan.missing {
        prop_assert!(!missing.why.is_empty() && !missing.verb.is_empty());
    }
    let sentences = plan.cautions.iter().map(|caution| caution.sentence.as_str());
    for sentence in sentences.chain([plan.methods.headline.as_str()]) {
        let words: Vec<String> =
            sentence.split(|c: char| !c.is_alphabetic()).map(str::to_lowercase).collect();
        prop_assert!(!words.iter().any(|word| word == "safe"), "never said: {}", sentence);
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 32, ..ProptestConfig::default() })]

    #[test]
    fn the_plan_of_any_job_stands(acts in prop::collection::vec(any_act(), 1..60), known in any::<bool>()) {
        let bench = if known { Bench::lever("pump_valve", "gray") } else { Bench::new() };
        let facts = said_and_seen(&bench, &acts, |job| stands(&plan(job, &bench.shop).said()))?;
        let job = Job::fold(Uuid::nil(), &facts);
        let plan = plan(&job, &bench.shop).said();
        stands(&plan)?;
        // With runs of the models that other jobs left, too.
        prop_assert_eq!(&crate::common::plan(&job, &bench.shop).said(), &plan);
        // Asked for by themselves they are what the plan has.
        prop_assert_eq!(odds_then(&job, &facts, &bench.shop, &SimCache::default()), plan.odds_taken());
        let now = status(&job, &plan, LIT_AT + 10_000_000);
        prop_assert!(!now.next.verb.is_empty());
        // The same facts make the same job and the same plan, also after a way through a file.
        let file = serde_json::to_string(&facts).unwrap();
        let again: Vec<Fact> = serde_json::from_str(&file).unwrap();
        prop_assert_eq!(&job, &Job::fold(Uuid::nil(), &again));
    }

    #[test]
    fn a_log_of_before_makes_the_same_job(acts in prop::collection::vec(any_act(), 1..60)) {
        let facts = said(&Bench::lever("pump_valve", "gray"), &acts);
        let job = Job::fold(Uuid::nil(), &facts);
        // As it was stored before it was kept what was understood, and whose word it was.
        let mut stored = serde_json::to_value(&facts).unwrap();
        for fact in stored.as_array_mut().unwrap() {
            let fact = fact.as_object_mut().unwrap();
            fact.remove("understood");
            fact.remove("sender");
        }
        let old: Vec<Fact> = serde_json::from_value(stored).unwrap();
        prop_assert!(old.iter().all(|fact| fact.understood.is_none()));
        prop_assert_eq!(&Job::fold(Uuid::nil(), &old), &job);
        // Brought up to date, as at the first start with it.
        let understood = |fact: Fact| Fact { understood: Parsed::of(&fact.change, None), ..fact };
        let migrated: Vec<Fact> = old.into_iter().map(understood).collect();
        prop_assert_eq!(&Job::fold(Uuid::nil(), &migrated), &job);
    }

    #[test]
    fn taking_everything_back_and_putting_it_back_changes_nothing(acts in prop::collection::vec(any_act(), 1..40)) {
        let bench = Bench::new();
        let mut facts = said(&bench, &acts);
        let before = Job::fold(Uuid::nil(), &facts);
        let mut undone = 0;
        while Job::fold(Uuid::nil(), &facts).own_word("").0.is_some() {
            facts = said(&with(&bench, facts), &[Act::Undo]);
            undone += 1;
        }
        for _ in 0..undone {
            facts = said(&with(&bench, facts), &[Act::Redo]);
        }
        let after = Job::fold(Uuid::nil(), &facts);
        prop_assert_eq!(before.rounds, after.rounds);
        prop_assert_eq!(before.evidence, after.evidence);
    }

    #[test]
    fn an_earlier_round_is_never_changed_by_what_comes_after(acts in prop::collection::vec(any_act(), 1..30)) {
        let mut bench = Bench::lever("machine_frame", "gray");
        bench.set("method.choice", "arc_nickel_iron");
        bench.light();
        bench.say(Change::Torch { entry: TorchEntry::Bead { at: None } });
        bench.say(Change::NewRound { reason: "it ran on".into() });
        let first = bench.job().rounds[0].clone();
        let facts = said(&bench, &acts);
        let mut after = Job::fold(Uuid::nil(), &facts).rounds.swap_remove(0);
        // A part that is still hot is read and covered in whatever round: that is added, nothing is lost.
        let log = std::mem::take(&mut after.log);
        for entry in &first.log {
            prop_assert!(log.iter().any(|now| now.fact == entry.fact && now.entry == entry.entry));
        }
        prop_assert_eq!(after, vanadin_core::job::Round { log: Vec::new(), ..first });
    }
}

fn with(bench: &Bench, facts: Vec<Fact>) -> Bench {
    Bench { facts, shop: bench.shop.clone() }
}
