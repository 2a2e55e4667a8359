//! Stage 5 on the bench: grooving by the gauge, fitting a break, tacks, missing metal, features, the list.

use crate::common::figure;
use crate::common::mapped::{Mapped, line, plain_face, walled};
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::casting::old_filler::OldFiller;
use vanadin_core::field::{crack_key, face_key, mark_key};
use vanadin_core::job::{Change, Refusal, SeamReadingKind, Work, WorkStep};
use vanadin_core::map::{At, Drawn, MarkKind, Shape};
use vanadin_core::plan::{BreakPlan, GroundSays, Plan, SeamPlan, WorkLine};
use vanadin_core::prep::said::PrepDone;
use vanadin_core::quantity::UnitSystem;

fn measure(crack: Uuid, what: SeamReadingKind, number: Option<u32>, typed: &[(&str, &str)]) -> Change {
    let typed = typed.iter().map(|(name, text)| ((*name).to_owned(), (*text).to_owned())).collect();
    Change::MeasureSeam { crack, what, number, typed, shown_in: UnitSystem::Metric }
}

fn outline(corners: &[(f64, f64)]) -> Shape {
    Shape::Outline { points: corners.iter().map(|&(x, y)| At::new(x, y)).collect() }
}

fn seam(plan: &Plan) -> &SeamPlan {
    &plan.prep.as_ref().unwrap().seams[0]
}

fn lines(plan: &Plan, what: Work) -> Vec<&WorkLine> {
    plan.prep.as_ref().unwrap().work.iter().filter(|line| line.step.what == what).collect()
}

/// The crack from edge to edge, its piece there.
fn broken() -> (Mapped, Uuid) {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (300.0, 80.0)]));
    mapped.bench.set(&crack_key(crack, "piece"), "there");
    (mapped, crack)
}

/// It can be reached from one side only.
fn one_sided() -> Mapped {
    let mut mapped = Mapped::new();
    mapped.bench.set("part.sides", "one");
    mapped
}

fn the_break(mapped: &Mapped) -> BreakPlan {
    mapped.plan().bench.breaks[0].clone()
}

#[test]
fn a_section_is_there_for_any_place_of_a_seam_whose_wall_changes() {
    let mut mapped = one_sided();
    let crack = mapped.first();
    mapped.draw(crack, walled(&[(0.0, 80.0, 20.0), (100.0, 80.0, 8.0)]));
    let plan = mapped.plan();
    let cuts = &seam(&plan).cuts;
    let (first, last) = (cuts.first().unwrap(), cuts.last().unwrap());
    assert_eq!((first.at_mm, first.wall_mm, last.at_mm, last.wall_mm), (0.0, 20.0, 100.0, 8.0));
    // Hand-worked: one side, a lip of 1.5 is left.
    assert!((first.depth_mm - 18.5).abs() < 1e-9 && (last.depth_mm - 6.5).abs() < 1e-9, "{first:?} {last:?}");
    assert!(
        cuts.windows(2).all(|pair| pair[1].at_mm - pair[0].at_mm <= 100.0 / 16.0),
        "any place is near one"
    );
    assert!(cuts.windows(2).all(|pair| pair[1].section.top_width_mm < pair[0].section.top_width_mm));
    // Halfway: 14 mm of wall.
    let middle = cuts.iter().find(|cut| (cut.at_mm - 50.0).abs() < 0.01).unwrap();
    assert_eq!((middle.wall_words.as_str(), middle.at_words.as_str()), ("14 mm", "50 mm along"));
    // A layer of 2.5 or 3 mm each, more of them where it is thicker.
    assert!(first.layers_words > last.layers_words, "{} {}", first.layers_words, last.layers_words);
    let why = seam(&plan).why.join(" ");
    assert!(why.contains("The wall changes along it"), "{why}");
    // The working says what was computed: no one section times the length.
    let working = figure(&plan, "prep.volume").unwrap().formula.join(" ");
    assert!(working.contains("changing wall, added up"), "{working}");
}

#[test]
fn a_wall_that_was_measured_twice_and_is_the_same_does_not_change() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, walled(&[(0.0, 80.0, 14.0), (60.0, 80.0, 14.0)]));
    let plan = mapped.plan();
    assert_eq!(seam(&plan).cuts.len(), 1);
    assert!(!seam(&plan).why.join(" ").contains("changes"), "{:?}", seam(&plan).why);
}

#[test]
fn beads_of_a_changing_wall_lie_between_those_of_its_thickest_and_its_thinnest() {
    let beads = |from: f64, to: f64| {
        let mut mapped = Mapped::new();
        let crack = mapped.first();
        mapped.draw(crack, walled(&[(0.0, 80.0, from), (200.0, 80.0, to)]));
        seam(&mapped.plan()).beads
    };
    let (thick, thin, changing) = (beads(24.0, 24.0), beads(10.0, 10.0), beads(24.0, 10.0));
    assert!(thin < changing && changing < thick, "{thin} {changing} {thick}");
}

#[rstest]
#[case::on_the_way("10", GroundSays::GoOn, "2.5 mm more. Metal left: 4 mm.")]
#[case::at_the_lip("12.5", GroundSays::Stop, "Stop: at the lip. Metal left: 1.5 mm.")]
#[case::into_it(
    "13.2",
    GroundSays::IntoTheLip,
    "Stop: into the lip, only 0.8 mm left. Back it before it is filled."
)]
#[case::through("14.5", GroundSays::Through, "Cut through: a backing of copper, carbon or clay")]
fn a_depth_read_while_grooving_says_when_to_stop(
    #[case] depth: &str,
    #[case] says: GroundSays,
    #[case] sentence: &str,
) {
    let mut mapped = one_sided();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let reading =
        mapped.bench.say(measure(crack, SeamReadingKind::Depth, None, &[("at", "20"), ("depth", depth)]));
    let plan = mapped.plan();
    let read = &seam(&plan).read[0];
    assert_eq!((read.id, read.says), (reading, says));
    assert!(read.sentence.starts_with(sentence), "{}", read.sentence);
    // What was cut too deep is backed.
    let backed = !lines(&plan, Work::Backing).is_empty();
    assert_eq!(backed, matches!(says, GroundSays::IntoTheLip | GroundSays::Through));
    // Crossed out it is gone.
    mapped.bench.say(Change::Strike { target: reading, reason: "gauge slipped".to_owned() });
    assert!(seam(&mapped.plan()).read.is_empty());
}

#[test]
fn a_depth_is_judged_by_the_wall_at_its_place() {
    let mut mapped = one_sided();
    let crack = mapped.first();
    mapped.draw(crack, walled(&[(0.0, 80.0, 20.0), (100.0, 80.0, 8.0)]));
    for at in ["0", "100"] {
        mapped.bench.say(measure(crack, SeamReadingKind::Depth, None, &[("at", at), ("depth", "7.5")]));
    }
    let plan = mapped.plan();
    let says: Vec<GroundSays> = seam(&plan).read.iter().map(|read| read.says).collect();
    assert_eq!(says, [GroundSays::GoOn, GroundSays::IntoTheLip]);
}

#[rstest]
#[case::nothing_typed(SeamReadingKind::Depth, None, &[("at", "10")], "depth")]
#[case::no_number(SeamReadingKind::Depth, None, &[("at", "10"), ("depth", "deep")], "depth")]
#[case::under_nothing(SeamReadingKind::FitUp, None, &[("at", "10"), ("gap", "-1")], "gap")]
#[case::neither_gap_nor_step(SeamReadingKind::FitUp, None, &[("at", "10")], "gap")]
#[case::which_tack(SeamReadingKind::Tack, None, &[("moved", "0")], "number")]
#[case::what_is_not_read_there(SeamReadingKind::Pin, None, &[("run_out", "1"), ("depth", "2")], "depth")]
fn a_reading_that_cannot_be_is_refused_at_its_place(
    #[case] what: SeamReadingKind,
    #[case] number: Option<u32>,
    #[case] typed: &[(&str, &str)],
    #[case] field: &str,
) {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let refused = mapped.bench.try_say(measure(crack, what, number, typed), 0, None);
    let Err(Refusal::Problems(problems)) = refused else { panic!("it was taken") };
    assert_eq!(problems[0].field, field);
}

#[test]
fn a_break_that_rocks_holds_stress_and_says_so_aloud() {
    let (mut mapped, crack) = broken();
    let caution =
        |mapped: &Mapped| mapped.plan().cautions.iter().any(|c| c.sentence.contains("locked-in stress"));
    let rock = |mapped: &mut Mapped, rock: &str, over: &str| {
        mapped.bench.say(measure(crack, SeamReadingKind::Rock, None, &[("rock", rock), ("over", over)]))
    };
    // Hand-worked: 0.3 over 200 is 0.45 over 300: under half a millimetre; 0.4 is 0.6
    rock(&mut mapped, "0.3", "200");
    assert!(!the_break(&mapped).locked_in && !caution(&mapped));
    let second = rock(&mut mapped, "0.4", "200");
    let found = the_break(&mapped);
    assert!(found.locked_in && caution(&mapped));
    assert!(found.means[0].contains("0.6 mm over 300 mm") && found.means[0].contains("do not pull it flat"));
    assert_eq!(found.read[1].words, "rocks 0.4 mm over 200 mm");
    mapped.bench.say(Change::Strike { target: second, reason: "dirt under it".to_owned() });
    assert!(!the_break(&mapped).locked_in && !caution(&mapped));
}

#[test]
fn a_gauge_is_read_in_thousandths_in_an_imperial_shop() {
    let (mut mapped, crack) = broken();
    mapped.bench.shop.units = UnitSystem::Imperial;
    // Hand-worked: 0.4 mm is 0.0157 in, which a tape would call 1/64; over 300 mm 0.6 mm, 0.0236 in
    mapped.bench.say(measure(crack, SeamReadingKind::Rock, None, &[("rock", "0.4"), ("over", "200")]));
    let found = the_break(&mapped);
    assert!(found.read[0].words.starts_with("rocks 0.016 in over"), "{}", found.read[0].words);
    assert!(found.means[0].starts_with("It rocks 0.024 in over"), "{}", found.means[0]);
}

#[test]
fn gap_step_and_run_out_are_kept_and_told() {
    let (mut mapped, crack) = broken();
    mapped.bench.say(measure(
        crack,
        SeamReadingKind::FitUp,
        None,
        &[("at", "40"), ("gap", "0.8"), ("step", "0")],
    ));
    mapped.bench.say(measure(crack, SeamReadingKind::Pin, None, &[("run_out", "0.15")]));
    let found = the_break(&mapped);
    assert_eq!(found.read[0].words, "40 mm along, gap 0.8 mm, step 0 mm");
    assert_eq!(found.read[1].words, "pin runs out 0.15 mm");
    assert!(found.means[0].contains("widest gap is 0.8 mm: do not force it closed"), "{:?}", found.means);
    assert_eq!(found.means.len(), 2, "no step, nothing to say of it: {:?}", found.means);
}

#[test]
fn each_tack_has_its_place_and_its_check() {
    let (mut mapped, crack) = broken();
    let tacks = the_break(&mapped).tacks;
    // Hand-worked: 300 mm in four parts, in the middle of each, from the ends inward
    let words: Vec<&str> = tacks.iter().map(|tack| tack.words.as_str()).collect();
    assert_eq!(tacks.len(), 4);
    assert!(words[0].starts_with("37.5 mm along, 37.5 mm from the left edge"), "{words:?}");
    assert!(words[1].starts_with("262.5 mm along"), "{words:?}");
    mapped.bench.say(measure(crack, SeamReadingKind::Tack, Some(1), &[("moved", "0")]));
    mapped.bench.say(measure(crack, SeamReadingKind::Tack, Some(2), &[("moved", "0.4")]));
    let checked = the_break(&mapped);
    let said: Vec<Option<&str>> =
        checked.tacks.iter().map(|tack| tack.checked.as_ref().map(|line| line.words.as_str())).collect();
    assert_eq!(said, [Some("in line"), Some("moved 0.4 mm"), None, None]);
    assert!(checked.means.iter().any(|means| means.contains("It moved at a tack: stop")));
    // Checked again after it was cut out.
    mapped.bench.say(measure(crack, SeamReadingKind::Tack, Some(2), &[("moved", "0")]));
    assert!(the_break(&mapped).tacks.iter().all(|tack| !tack.moved));
    assert_eq!(lines(&mapped.plan(), Work::TackGroove).len(), 1, "small grooves for the tacks first");
    assert_eq!(the_break(&mapped).align_words, "");
    mapped.bench.set(&crack_key(crack, "align_by"), "light,pin");
    assert_eq!(the_break(&mapped).align_words, "a pin through the holes, light through the bolt holes");
}

#[rstest]
#[case::typed(None)]
#[case::drawn(Some("10"))]
fn the_broken_face_tells_what_carried(#[case] drawn_on: Option<&str>) {
    let (mut mapped, crack) = broken();
    mapped.bench.set("part.cause", "overload");
    match drawn_on {
        None => {
            mapped.bench.set(&crack_key(crack, "old_share"), "60");
        }
        Some(_) => {
            // Hand-worked: 60 of the 100 mm of a broken face 10 high
            let face = plain_face(&mut mapped.bench, 100.0, 10.0);
            mapped.bench.set(&face_key(face, "broken_of"), &crack.to_string());
            let mark = mapped.bench.say(Change::AddMark { what: MarkKind::OldFracture });
            let shape = Some(outline(&[(0.0, 0.0), (60.0, 0.0), (60.0, 10.0), (0.0, 10.0)]));
            mapped.bench.say(Change::Draw { drawn: vec![Drawn { mark, face, shape }] });
        }
    }
    let plan = mapped.plan();
    let tells = plan.bench.breaks[0].tells.join(" ");
    // Hand-worked: 300 x 14 = 4200 mm2, of it 40 % fresh
    assert!(tells.contains("1680 mm² of 4200 mm² still carried"), "{tells}");
    assert!(tells.contains("expect more cracks"), "{tells}");
    assert!(plan.bench.cause[0].contains("The cause stays. What would mend it: "));
    mapped.bench.set("part.cause", "unknown");
    assert!(mapped.plan().bench.cause.is_empty(), "nobody knows what would mend it");
}

#[test]
fn missing_metal_is_built_up_with_its_allowance() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let volume = |mapped: &Mapped| figure(&mapped.plan(), "prep.volume").unwrap().value;
    let before = volume(&mapped);
    let corner = outline(&[(0.0, 160.0), (40.0, 200.0), (0.0, 200.0)]);
    let mark = mapped.mark(MarkKind::MissingPiece, corner);
    assert_eq!(mapped.plan().bench.missing[0].volume_cm3, None, "nobody knows how thick it was");
    assert_eq!(volume(&mapped), before);
    mapped.bench.set(&mark_key(mark, "thickness"), "12");
    // Hand-worked: 800 mm2 and 3 x 80 along its free edges, 18 thick: 18.72 cm3; butter 56.57 x 12 x 2.5 = 1.7 cm3
    let plan = mapped.plan();
    let missing = &plan.bench.missing[0];
    assert!((missing.volume_cm3.unwrap() - 18.72).abs() < 1e-9, "{missing:?}");
    assert!(
        missing.sentence.contains("19 cm³") && missing.sentence.contains("1.7 cm³"),
        "{}",
        missing.sentence
    );
    assert!((volume(&mapped) - before - 18.72).abs() < 1e-9);
    let working = figure(&plan, "prep.volume").unwrap().formula.join(" ");
    assert!(working.contains("missing metal"), "{working}");
    mapped.bench.set("method.choice", "stitch");
    assert_eq!(mapped.plan().prep.unwrap().missing_cm3, 0.0, "pins build nothing up");
}

#[test]
fn a_feature_is_measured_against_what_it_should_be() {
    let mut mapped = Mapped::new();
    let mark = mapped.bench.say(Change::AddMark { what: MarkKind::Feature });
    for (field, typed) in [
        ("kind", "bore"),
        ("nominal", "25"),
        ("tolerance", "0.1"),
        ("datum", "the left face"),
        ("before", "25.02"),
    ] {
        mapped.bench.set(&mark_key(mark, field), typed);
    }
    let feature = |mapped: &Mapped| mapped.plan().bench.features[0].clone();
    assert_eq!(feature(&mapped).words, "bore, 25 mm give or take 0.1 mm, from the left face");
    assert_eq!((feature(&mapped).verdict.as_str(), feature(&mapped).within), ("25.02 mm before", None));
    mapped.bench.set(&mark_key(mark, "after"), "25.1");
    assert_eq!(feature(&mapped).within, Some(true), "at its tolerance");
    mapped.bench.set(&mark_key(mark, "after"), "24.8");
    assert_eq!(feature(&mapped).within, Some(false));
    assert!(
        feature(&mapped).verdict.contains("0.2 mm under what it should be"),
        "{}",
        feature(&mapped).verdict
    );
}

#[test]
fn a_line_is_ticked_and_unticked_and_the_gate_believes_the_list() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let holes = |mapped: &Mapped| {
        let plan = mapped.plan();
        plan.prep.unwrap().to_do.iter().any(|item| item.id == PrepDone::Holes && item.done)
    };
    let steps: Vec<WorkStep> = mapped.plan().prep.unwrap().work.iter().map(|line| line.step).collect();
    let drilling = |step: &&WorkStep| matches!(step.what, Work::Punch | Work::Pilot | Work::Drill);
    let drilled: Vec<WorkStep> = steps.iter().filter(drilling).copied().collect();
    assert_eq!(drilled.len(), 3);
    let mut last = None;
    for step in &drilled {
        assert!(!holes(&mapped), "one line alone is not all of it");
        last = Some(mapped.bench.say(Change::Tick { step: *step, done: true }));
    }
    assert!(holes(&mapped));
    // Taken back, and put back.
    let target = last.unwrap();
    mapped.bench.say(Change::Undo { target });
    assert!(!holes(&mapped));
    mapped.bench.say(Change::Redo { target });
    assert!(holes(&mapped));
    mapped.bench.say(Change::Tick { step: drilled[0], done: false });
    assert!(!holes(&mapped));
    // At something that is not there nothing is done.
    let nowhere = WorkStep { at: Some(Uuid::from_u128(7)), ..drilled[0] };
    assert!(mapped.bench.try_say(Change::Tick { step: nowhere, done: true }, 0, None).is_err());
    // Said as a whole each of its lines is done.
    mapped.bench.set("prep.done", "holes");
    assert!(lines(&mapped.plan(), Work::Drill).iter().all(|line| line.done));
    // The next round begins with nothing ticked.
    mapped.bench.ready();
    mapped.bench.light();
    mapped.bench.say(Change::NewRound { reason: "ran on".to_owned() });
    assert!(mapped.bench.job().round().ticked.is_empty() && mapped.bench.job().round().at_seams.is_empty());
}

#[test]
fn one_more_crack_opens_the_lines_that_are_about_all_of_them() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let done = |mapped: &Mapped, what: Work| lines(&mapped.plan(), what).iter().all(|line| line.done);
    let all: Vec<WorkStep> = mapped.plan().prep.unwrap().work.iter().map(|line| line.step).collect();
    for step in all {
        mapped.bench.say(Change::Tick { step, done: true });
    }
    let open = |mapped: &Mapped| mapped.plan().prep.unwrap().to_do.iter().any(|item| !item.done);
    assert!(!open(&mapped) && done(&mapped, Work::Drill) && done(&mapped, Work::Inside));
    // Another one, drilled with the same drill: what was ticked was not ticked for it.
    let second = mapped.crack();
    mapped.draw(second, line(&[(100.0, 30.0), (180.0, 30.0)]));
    for what in [Work::Clean, Work::Witness, Work::Pilot, Work::Drill, Work::Margins, Work::Inside, Work::Dry]
    {
        assert!(!done(&mapped, what), "{what:?}");
    }
    assert!(open(&mapped));
    // Crossed out again, all of it is done again.
    mapped.bench.say(Change::Strike { target: second, reason: "a scratch".to_owned() });
    assert!(!open(&mapped) && done(&mapped, Work::Drill));
}

#[test]
fn what_was_said_as_a_whole_holds_for_what_was_known_then() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let all_of_it = "holes,groove,inside,penetrant,paint";
    let open = |mapped: &Mapped| -> Vec<PrepDone> {
        let to_do = mapped.plan().prep.unwrap().to_do;
        to_do.into_iter().filter(|item| !item.done).map(|item| item.id).collect()
    };
    mapped.bench.set("prep.done", all_of_it);
    assert!(open(&mapped).is_empty());
    // A point drawn better changes nothing of what was done.
    mapped.draw(crack, line(&[(0.0, 80.0), (61.0, 80.0)]));
    assert!(open(&mapped).is_empty());
    // Another one: nobody meant that one. The lines of the first stay done.
    let second = mapped.crack();
    mapped.draw(second, line(&[(100.0, 30.0), (180.0, 30.0)]));
    assert!(open(&mapped).contains(&PrepDone::Groove) && open(&mapped).contains(&PrepDone::Inside));
    let shaped = |mapped: &Mapped, of: Uuid| {
        lines(&mapped.plan(), Work::Shape).iter().find(|line| line.step.at == Some(of)).unwrap().done
    };
    assert!(shaped(&mapped, crack) && !shaped(&mapped, second));
    // Said again it is meant too; one that is only watched needs none of it.
    mapped.bench.set("prep.done", all_of_it);
    assert!(open(&mapped).is_empty());
    let watched = mapped.crack();
    mapped.bench.set(&crack_key(watched, "becomes"), "leave");
    assert!(open(&mapped).is_empty());
    // An end that turns out to be a tip gets a hole that nobody has drilled yet.
    mapped.bench.set(&crack_key(crack, "end_a"), "tip");
    assert_eq!(open(&mapped).first(), Some(&PrepDone::Holes));
}

#[test]
fn what_closes_up_goes_first_and_tools_that_do_not_reach_are_not_named() {
    let mut mapped = Mapped::new();
    let (first, second) = (mapped.first(), mapped.crack());
    mapped.draw(first, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.draw(second, line(&[(100.0, 30.0), (180.0, 30.0)]));
    let opened = |mapped: &Mapped| -> Vec<String> {
        lines(&mapped.plan(), Work::Open).iter().map(|line| line.sentence.clone()).collect()
    };
    assert!(opened(&mapped)[0].starts_with("A, with a thin cut-off disc"));
    mapped.bench.set(&crack_key(second, "closes"), "yes");
    mapped.bench.set(&crack_key(second, "reach"), "eye,burr");
    let now = opened(&mapped);
    assert!(now[0].starts_with("B, with a burr: a disc does not get there"), "{now:?}");
    let plan = mapped.plan();
    assert!(
        lines(&plan, Work::Turn)[0].sentence.starts_with("First, since it closes up once joined: face 1 up")
    );
    assert!(lines(&plan, Work::Shape)[0].sentence.contains("The torch does not get there"));
    assert!(!lines(&plan, Work::Shape)[1].sentence.contains("torch"), "of the other nobody said so");
}

#[rstest]
#[case::bronze_before_fusion("arc_nickel", "bronze", "all of it out before any fusion weld")]
#[case::bronze_before_a_braze("torch_braze", "bronze", "it may stay where it is sound")]
#[case::a_nickel_weld("arc_nickel", "nickel", "out to clean casting")]
#[case::nobody_knows("arc_nickel", "other", "Find out what it is")]
fn an_old_filler_on_the_map_is_dealt_with(#[case] method: &str, #[case] filler: &str, #[case] said: &str) {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.bench.set("method.choice", method);
    mapped.bench.set("part.old_filler", "none");
    assert!(lines(&mapped.plan(), Work::OldFiller).is_empty());
    let mark = mapped.mark(MarkKind::OldFiller, line(&[(10.0, 80.0), (50.0, 80.0)]));
    mapped.bench.set(&mark_key(mark, "filler"), filler);
    let plan = mapped.plan();
    let told = lines(&plan, Work::OldFiller);
    assert!(told[0].sentence.contains(said), "{}", told[0].sentence);
    assert_eq!(
        mapped.bench.job().round().old_filler().map(OldFiller::id),
        Some(filler),
        "the map knows better than \"never\""
    );
}

#[test]
fn burnt_and_cut_edges_are_taken_back() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    for (edge, count) in [("clean", 0), ("flame_cut", 1), ("burnt", 1)] {
        mapped.bench.set(&crack_key(crack, "edge"), edge);
        let plan = mapped.plan();
        let back = lines(&plan, Work::BurntEdge);
        assert_eq!(back.len(), count, "{edge}");
        assert!(back.iter().all(|line| line.settings == ["6 mm at least"]));
    }
}

#[test]
fn a_watched_crack_gets_punch_marks_and_says_when_to_act() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(40.0, 80.0), (100.0, 80.0)]));
    mapped.bench.set(&crack_key(crack, "end_a"), "tip");
    mapped.bench.set(&crack_key(crack, "becomes"), "leave");
    let plan = mapped.plan();
    assert_eq!(plan.map.faces[0].punches, [At::new(30.0, 80.0), At::new(110.0, 80.0)]);
    // Dye: u 0.8 mm, so that over 1.6 mm is growth.
    let grows = |mapped: &Mapped| mapped.plan().cautions.iter().any(|c| c.sentence.contains("has grown"));
    mapped.bench.set(&crack_key(crack, "grown_b"), "1.6");
    assert!(!grows(&mapped));
    assert!(mapped.plan().cracks[0].ends[1].sentence.contains("no more than how well it was found explains"));
    mapped.bench.set(&crack_key(crack, "grown_b"), "1.7");
    assert!(grows(&mapped));
    assert!(mapped.plan().cracks[0].ends[1].sentence.contains("act, stop it or repair it"));
}

#[test]
fn a_reading_place_on_the_map_is_named_where_the_heat_is_read() {
    let mut mapped = Mapped::new();
    let before = mapped.plan().heat.map(|heat| heat.read_at).unwrap_or_default();
    let mark = mapped.mark(MarkKind::ReadingPlace, Shape::Place { x_mm: 280.0, y_mm: 20.0 });
    mapped.bench.set(&mark_key(mark, "name"), "upper corner");
    let named = mapped.plan().heat.unwrap().read_at;
    assert!(!before.contains("upper corner") && named.contains("upper corner"), "{before} {named}");
}

#[test]
fn a_copy_takes_no_reading_and_no_tick_along() {
    let (mut mapped, crack) = broken();
    mapped.bench.say(measure(crack, SeamReadingKind::Pin, None, &[("run_out", "0.15")]));
    mapped
        .bench
        .say(Change::Tick { step: WorkStep { what: Work::Clean, at: None, number: None }, done: true });
    let mut next = 0u128;
    let copied = vanadin_core::job::duplicate(
        &mapped.bench.facts,
        || {
            next += 1;
            Uuid::from_u128(1 << 100 | next)
        },
        0,
    );
    let copy = vanadin_core::job::Job::fold(Uuid::nil(), &copied);
    assert!(copy.round().at_seams.is_empty() && copy.round().ticked.is_empty());
    assert_eq!(copy.round().cracks.len(), 1);
}

/// A bore of 25 mm give or take 0.1 mm, read at 25.02 before the torch, with the cracks of a mapped part.
fn with_a_bore() -> (Mapped, Uuid) {
    let mut mapped = Mapped::new();
    let mark = mapped.bench.say(Change::AddMark { what: MarkKind::Feature });
    for (field, typed) in [("kind", "bore"), ("nominal", "25"), ("tolerance", "0.1"), ("before", "25.02")] {
        mapped.bench.set(&mark_key(mark, field), typed);
    }
    (mapped, mark)
}

#[rstest]
#[case::within("bore", "25", "24.93", Some(true), "")]
#[case::too_tight(
    "bore",
    "25",
    "24.6",
    Some(false),
    "Too tight: 0.2 mm a side to bore or ream; nobody has said by whom."
)]
#[case::too_wide("bore", "25", "25.2", Some(false), "Too wide: sleeve it")]
#[case::a_pin_is_turned_down("pin", "25", "25.3", Some(false), "Too thick: 0.15 mm a side to turn off")]
#[case::nothing_comes_off_a_distance("distance", "25", "25.3", Some(false), "slot or bush a hole")]
#[case::flat_should_be_nought("flat", "", "0.3", Some(false), "0.3 mm to file or mill off")]
fn what_is_left_of_a_size_is_said_by_its_kind(
    #[case] kind: &str,
    #[case] nominal: &str,
    #[case] cold: &str,
    #[case] within: Option<bool>,
    #[case] to_do: &str,
) {
    let (mut mapped, mark) = with_a_bore();
    for (field, typed) in [("kind", kind), ("nominal", nominal), ("cold", cold)] {
        mapped.bench.set(&mark_key(mark, field), typed);
    }
    let size = mapped.plan().bench.features[0].clone();
    assert_eq!(size.within, within, "{}", size.verdict);
    assert!(size.to_do.contains(to_do) && size.to_do.is_empty() == to_do.is_empty(), "{}", size.to_do);
    mapped.bench.set(&mark_key(mark, "by"), "owner");
    let left = mapped.plan().bench.features[0].to_do.clone();
    assert!(left.is_empty() || left.ends_with("; left for the owner."), "{left}");
}

#[test]
fn a_size_without_a_tolerance_is_judged_by_a_guess_that_is_called_one() {
    let (mut mapped, mark) = with_a_bore();
    mapped.bench.set(&mark_key(mark, "tolerance"), "");
    mapped.bench.set(&mark_key(mark, "cold"), "25.1");
    let size = mapped.plan().bench.features[0].clone();
    assert_eq!(size.within, Some(false));
    assert!(size.verdict.contains("(0.05 mm, a guess)"), "{}", size.verdict);
}

#[test]
fn readings_stand_in_the_order_of_the_work_beside_what_the_size_may_be() {
    let (mut mapped, mark) = with_a_bore();
    mapped.bench.set(&mark_key(mark, "cold"), "24.8");
    mapped.bench.set(&mark_key(mark, "tacked"), "24.99");
    let size = mapped.plan().bench.features[0].clone();
    let when: Vec<&str> = size.readings.iter().map(|it| it.when.as_str()).collect();
    assert_eq!(when, ["before", "tacked", "cold"]);
    let moved: Vec<&str> = size.readings.iter().map(|it| it.moved.as_str()).collect();
    assert_eq!(moved, ["", "0.03 mm less", "0.22 mm less"]);
    assert!((size.moved_mm.unwrap() + 0.22).abs() < 1e-9);
    assert_eq!(size.moved_words, "0.22 mm less");
    // From 24.8 to 25.1 with 0.35 of that on either side: 24.695 to 25.205, 0.51 long.
    let strip = size.strip.unwrap();
    assert_eq!(strip.good, Some([0.402, 0.7941]), "24.9 to 25.1");
    assert_eq!(strip.at, [0.6373, 0.5784, 0.2059]);
    assert_eq!(strip.should, Some(0.598));
}

#[test]
fn what_has_to_fit_is_read_before_it_is_lit() {
    let mut mapped = Mapped::new();
    let mark = mapped.bench.say(Change::AddMark { what: MarkKind::Feature });
    let key = mark_key(mark, "before");
    let refused = |mapped: &Mapped| mapped.plan().gate.refused.iter().any(|line| line.key == key);
    mapped.bench.set("method.choice", "arc_nickel");
    assert!(refused(&mapped), "{:?}", mapped.plan().gate.refused);
    mapped.bench.set(&key, "25");
    assert!(!refused(&mapped));
    mapped.bench.set(&key, "");
    assert!(refused(&mapped));
    mapped.bench.say(Change::Strike { target: mark, reason: "nothing has to fit there".to_owned() });
    assert!(!refused(&mapped));
}

#[test]
fn in_inches_what_moved_by_less_than_a_thousandth_has_not_moved() {
    let (mut mapped, mark) = with_a_bore();
    mapped.bench.shop.units = UnitSystem::Imperial;
    mapped.bench.set(&mark_key(mark, "cold"), "25.01 mm");
    mapped.bench.set(&mark_key(mark, "after"), "25.05 mm");
    let size = mapped.plan().bench.features[0].clone();
    let moved: Vec<&str> = size.readings.iter().map(|it| it.moved.as_str()).collect();
    // By hand: 0.01 mm is 0.0004 in, 0.03 mm is 0.0012 in.
    assert_eq!(moved, ["", "", "0.001 in more"]);
}
