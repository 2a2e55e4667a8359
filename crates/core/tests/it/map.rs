//! Jobs with a crack map: what follows from where things lie.

use std::collections::BTreeMap;

use crate::common::mapped::{Mapped, circle, line, plain_face, walled};
use crate::common::{Bench, figure, set};
use proptest::prelude::*;
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::crack::said::EndKind;
use vanadin_core::field::{crack_key, face_key, mark_key};
use vanadin_core::job::{Change, Refusal, TorchEntry, Work};
use vanadin_core::map::{At, Drawn, MarkKind, Shape};
use vanadin_core::plan::{CrackPlan, Plan};
use vanadin_core::quantity::UnitSystem;

fn kinds(crack: &CrackPlan) -> [&str; 2] {
    [0, 1].map(|at: usize| crack.ends[at].kind.map_or("", EndKind::id))
}

fn close(got: At, x_mm: f64, y_mm: f64) -> bool {
    got.distance_mm(At::new(x_mm, y_mm)) < 1e-6
}

#[test]
fn a_straight_crack_plans_the_same_wherever_it_lies() {
    let mut mapped = Mapped::new();
    // No other edge is so near that it throws heat back.
    mapped.bench.set(&face_key(mapped.face, "down"), "400");
    let before = mapped.plan();
    let crack = mapped.first();
    // From the left edge 60 mm in, as it was typed.
    mapped.draw(crack, line(&[(0.0, 180.0), (60.0, 180.0)]));
    let after = mapped.plan();
    let numbers = |plan: &Plan| -> Vec<(String, String)> {
        plan.figures.iter().map(|figure| (figure.id.clone(), figure.metric.text())).collect()
    };
    assert_eq!(numbers(&after), numbers(&before));
    assert_eq!(after.methods, before.methods);
    assert_eq!((after.map.unplaced.len(), before.map.unplaced.len()), (0, 1));
}

#[test]
fn an_edge_beside_a_seam_makes_its_beads_wait() {
    let waits = |y: f64| {
        let mut mapped = Mapped::new();
        mapped.bench.set(&face_key(mapped.face, "down"), "400");
        mapped.bench.set("method.school", "cold");
        let crack = mapped.first();
        mapped.draw(crack, line(&[(0.0, y), (60.0, y)]));
        mapped.plan().torch.unwrap().beads.unwrap().waiting_min
    };
    let (open, beside) = (waits(200.0), waits(25.0));
    assert!(beside > 1.2 * open, "{beside} beside an edge, {open} away from it");
    // From either side alike.
    assert!((waits(375.0) - beside).abs() < 1e-9);
}

#[test]
fn ends_are_what_they_lie_on() {
    let mut mapped = Mapped::new();
    let a = mapped.first();
    // What was said of it is overruled by where it lies: nothing is at its left end.
    mapped.draw(a, line(&[(40.0, 100.0), (160.0, 100.0)]));
    let hole = mapped.mark(MarkKind::BoltHole, circle(170.0, 100.0, 20.0));
    let b = mapped.crack();
    mapped.draw(b, line(&[(100.0, 100.0), (100.0, 200.0)]));
    let plan = mapped.plan();
    assert_eq!(kinds(&plan.cracks[0]), ["", "hole"]);
    assert_eq!(plan.cracks[0].ends[1].meets, "bolt hole 1");
    assert_eq!(kinds(&plan.cracks[1]), ["branch", "edge"]);
    assert_eq!(plan.cracks[1].ends[0].meets, "crack A");
    let names: Vec<&str> =
        plan.cracks.iter().flat_map(|crack| &crack.ends).map(|end| end.name.as_str()).collect();
    assert_eq!(names, ["left", "right", "upper", "lower"]);
    assert_eq!((plan.cracks[0].length_mm, plan.cracks[1].length_mm), (Some(120.0), Some(100.0)));
    // A hole that is called by its name is met by its name.
    mapped.bench.set(&mark_key(hole, "name"), "the clamp hole");
    assert_eq!(mapped.plan().cracks[0].ends[1].meets, "the clamp hole");
    // Taken off the map it is met no more, and the end is asked for.
    mapped.bench.say(Change::Strike { target: hole, reason: "none there".into() });
    assert_eq!(kinds(&mapped.plan().cracks[0]), ["", "tip"], "as it was said before");
}

#[rstest]
#[case::on_it(1.0, "edge")]
#[case::just_off_it(1.01, "tip")]
fn an_end_a_millimetre_from_the_edge_lies_on_it(#[case] off_mm: f64, #[case] kind: &str) {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(100.0, 90.0), (100.0, 200.0 - off_mm)]));
    assert_eq!(kinds(&mapped.plan().cracks[0])[1], kind);
}

#[test]
fn a_stop_hole_lies_beyond_the_tip_and_is_measured_from_two_edges() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let plan = mapped.plan();
    let hole = &plan.map.faces[0].holes[0];
    // Hand-worked: 14 mm wall, dye: drill 8, offset max(0.3 x 8, 0.7 + 2.054 x 0.8 - 4) = 2.4
    assert!(close(hole.at, 62.4, 80.0), "{:?}", hole.at);
    assert_eq!(hole.measured, ["62.5 mm from the left edge", "80 mm from the top edge"]);
    mapped.bench.set(&face_key(mapped.face, "from_across"), "right");
    let bolt = mapped.mark(MarkKind::BoltHole, circle(62.4, 120.0, 13.0));
    mapped.bench.set(&face_key(mapped.face, "from_down"), &bolt.to_string());
    let measured = mapped.map().faces[0].holes[0].measured.clone();
    assert_eq!(measured, ["237.5 mm from the right edge", "40 mm from the middle of bolt hole 1"]);
}

#[test]
fn the_list_of_the_work_says_where_each_hole_goes() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let lines = |mapped: &Mapped, what: Work| -> Vec<(String, Vec<String>)> {
        let work = mapped.plan().prep.unwrap().work;
        let of = work.into_iter().filter(|line| line.step.what == what);
        of.map(|line| (line.sentence, line.settings)).collect()
    };
    let punched = lines(&mapped, Work::Punch);
    assert_eq!(
        punched[0].0, "A, right end: 2.4 mm past the tip, in the line of the crack.",
        "not on the map"
    );
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let punched = lines(&mapped, Work::Punch);
    assert_eq!(punched.len(), 1);
    assert_eq!(
        punched[0].0,
        "A, right end: 62.5 mm from the left edge, 80 mm from the top edge; 2.4 mm past the tip."
    );
    // Hand-worked: gray, 25 m/min: 1000 x 25 / (pi x 5.5) = 1447, said as 1450, and / (pi x 8) = 994.7, said as 990
    assert_eq!(lines(&mapped, Work::Pilot)[0].1, ["5.5 mm", "1450 rpm"]);
    assert_eq!(lines(&mapped, Work::Drill)[0].1, ["8 mm", "990 rpm"]);
    // The shop's own set: what it does not have is not asked for.
    mapped.bench.shop.drills_mm = vec![5.1054, 9.0];
    assert_eq!(lines(&mapped, Work::Pilot)[0].1[0], "#7 (5.1 mm)");
    assert_eq!(lines(&mapped, Work::Drill)[0].1[0], "9 mm");
    mapped.bench.set(&crack_key(crack, "drilled_b"), "8");
    assert!(lines(&mapped, Work::Drill).is_empty(), "what is drilled is done");
}

#[test]
fn a_hole_too_near_the_edge_is_run_out_instead() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    // The drill is 8: from 2.4 past the tip its rim has to be 16 from the edge, so the tip 22.4.
    for (tip_mm, breaks_out) in [(277.0, false), (278.0, true)] {
        mapped.draw(crack, line(&[(200.0, 80.0), (tip_mm, 80.0)]));
        let end = mapped.plan().cracks[0].ends[1].clone();
        assert_eq!(end.run_out.is_some(), breaks_out, "{tip_mm}");
        assert!(end.stop_hole.is_some(), "it is proposed, not done");
    }
    let before = mapped.plan();
    mapped.bench.set(&crack_key(crack, "run_out_b"), "yes");
    let after = mapped.plan();
    let end = &after.cracks[0].ends[1];
    assert!(end.stop_hole.is_none() && end.run_out.as_ref().is_some_and(|run_out| run_out.taken));
    assert!(close(end.run_out.as_ref().unwrap().to, 300.0, 80.0));
    let seam = |plan: &Plan| plan.prep.as_ref().unwrap().seams[0].length_mm;
    assert!((seam(&after) - seam(&before) - 22.0).abs() < 1e-9, "the groove is longer than the crack");
    assert_eq!(after.cracks[0].length_mm, before.cracks[0].length_mm);
}

#[test]
fn the_tip_that_lies_further_on_counts() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let back = plain_face(&mut mapped.bench, 300.0, 200.0);
    mapped.bench.set(&face_key(back, "back_of"), &mapped.face.to_string());
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let one_side =
        |plan: &Plan| plan.cautions.iter().any(|caution| caution.sentence.contains("one side of the wall"));
    assert!(one_side(&mapped.plan()), "the other face is not looked at yet");
    // Mirrored: what is left from the front is right from behind. 9 mm further in.
    let behind = Drawn { mark: crack, face: back, shape: Some(line(&[(300.0, 80.0), (231.0, 80.0)])) };
    mapped.bench.say(Change::Draw { drawn: vec![behind] });
    let plan = mapped.plan();
    assert!(!one_side(&plan));
    let end = &plan.cracks[0].ends[1];
    assert!((end.further_mm - 9.0).abs() < 1e-9);
    assert!(close(end.at.as_ref().unwrap().hole.unwrap(), 60.0 + 9.0 + 2.4, 80.0));
    assert_eq!(plan.cracks[0].length_mm, Some(60.0), "one crack, not two");
    let seen: Vec<bool> = plan.map.faces[0].lines.iter().map(|line| line.from_behind).collect();
    assert_eq!(seen, [false, true], "and it shines through");
    assert!(close(plan.map.faces[0].lines[1].points[1], 69.0, 80.0));
}

#[test]
fn a_crack_goes_on_over_an_edge() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let side = plain_face(&mut mapped.bench, 60.0, 200.0);
    mapped.draw(crack, walled(&[(250.0, 80.0, 14.0), (300.0, 80.0, 14.0)]));
    // Drawn from its tip back to the edge: it is walked on from there all the same.
    let goes_on =
        Drawn { mark: crack, face: side, shape: Some(walled(&[(40.0, 80.0, 20.0), (0.0, 80.0, 14.0)])) };
    mapped.bench.say(Change::Draw { drawn: vec![goes_on] });
    mapped.bench.set(&crack_key(crack, "end_a"), "tip");
    let plan = mapped.plan();
    let planned = &plan.cracks[0];
    assert_eq!((planned.length_mm, kinds(planned)), (Some(90.0), ["tip", "tip"]));
    let walls: Vec<(f64, f64)> = planned.walls.iter().map(|wall| (wall.at_mm, wall.wall_mm)).collect();
    assert_eq!(walls, [(0.0, 14.0), (50.0, 14.0), (50.0, 14.0), (90.0, 20.0)]);
    assert_eq!((planned.ends[0].wall_mm, planned.ends[1].wall_mm), (14.0, 20.0));
    assert_eq!(planned.ends[1].at.as_ref().unwrap().face, side);
    let drawn = &plan.map.faces[1].lines[0];
    assert!(close(drawn.points[0], 40.0, 80.0), "its points are told in the order they were drawn");
    assert_eq!(drawn.walls, [Some(20.0), Some(14.0)]);
}

#[test]
fn a_wall_that_changes_takes_filler_by_its_place() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let volume = |mapped: &Mapped| mapped.plan().prep.unwrap().seams[0].volume_cm3;
    mapped.draw(crack, walled(&[(50.0, 80.0, 8.0), (150.0, 80.0, 8.0)]));
    let thin = volume(&mapped);
    mapped.draw(crack, walled(&[(50.0, 80.0, 20.0), (150.0, 80.0, 20.0)]));
    let thick = volume(&mapped);
    mapped.draw(crack, walled(&[(50.0, 80.0, 8.0), (150.0, 80.0, 20.0)]));
    let changing = volume(&mapped);
    assert!(thin < changing && changing < thick, "{thin} {changing} {thick}");
    let plan = mapped.plan();
    assert_eq!(plan.cracks[0].wall_words, "8 mm to 20 mm");
    assert_eq!(figure(&plan, "cracks.A.right.drill").map(|figure| figure.value), Some(9.5));
    // Halfway it opens halfway: the outline is wider where the wall is thicker.
    let groove = &plan.map.faces[0].lines[0].groove;
    let width = |x: f64| {
        let at: Vec<f64> = groove.iter().filter(|at| (at.x_mm - x).abs() < 1.0).map(|at| at.y_mm).collect();
        at.iter().fold(0.0_f64, |most, y| most.max((y - 80.0).abs()))
    };
    assert!(width(150.0) > 1.5 * width(50.0));
}

#[test]
fn what_is_in_the_way_is_said_at_its_place() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let says = |mapped: &Mapped, words: &str| {
        let map = mapped.map();
        let caution = mapped.plan().cautions.iter().any(|caution| caution.sentence.contains(words));
        let clash = map.faces[0].clashes.iter().any(|clash| clash.sentence.contains(words));
        assert_eq!(caution, clash, "what is drawn is also said");
        clash
    };
    // The hole: middle at 62.4, rim at 66.4; 6 mm off it is 72.4.
    let spot = mapped.bench.say(Change::AddHardSpot { spot: "beside the rib".into(), observed: None });
    mapped.draw(spot, circle(76.5, 80.0, 8.0));
    assert!(!says(&mapped, "closer than 6 mm"));
    mapped.draw(spot, circle(76.3, 80.0, 8.0));
    assert!(says(&mapped, "closer than 6 mm to hard spot, beside the rib"));
    let edge = mapped.mark(MarkKind::MachinedEdge, line(&[(66.5, 0.0), (66.5, 200.0)]));
    assert!(!says(&mapped, "cuts into machined edge 1"));
    mapped.draw(edge, line(&[(66.3, 0.0), (66.3, 200.0)]));
    assert!(says(&mapped, "cuts into machined edge 1"));
    let other = mapped.crack();
    mapped.draw(other, line(&[(66.0, 150.0), (66.0, 88.0)]));
    assert!(says(&mapped, "The stop-holes of cracks A and B meet."));
    let seal = mapped.bench.say(Change::AddNeighbour);
    mapped.bench.set(&format!("neighbour.{seal}.what"), "a seal");
    mapped.draw(seal, Shape::Place { x_mm: 30.0, y_mm: 95.0 });
    assert!(says(&mapped, "margin of crack A runs over a seal"));
    mapped.draw(seal, Shape::Place { x_mm: 30.0, y_mm: 140.0 });
    assert!(!says(&mapped, "runs over a seal"));
    mapped.draw(other, line(&[(20.0, 150.0), (20.0, 230.0)]));
    assert!(says(&mapped, "Crack B: 1 point lies off the face."));
}

#[test]
fn two_walls_at_one_place_are_asked_again() {
    let mut mapped = Mapped::new();
    let a = mapped.first();
    let b = mapped.crack();
    mapped.draw(a, walled(&[(40.0, 100.0, 12.0), (160.0, 100.0, 12.0)]));
    let contradicts = |mapped: &Mapped| {
        let map = mapped.map();
        map.faces[0].clashes.iter().any(|clash| clash.sentence.starts_with("Where B joins A"))
    };
    mapped.draw(b, walled(&[(100.0, 100.0, 15.0), (100.0, 150.0, 15.0)]));
    assert!(!contradicts(&mapped), "a fifth is what two tools differ by");
    mapped.draw(b, walled(&[(100.0, 100.0, 15.2), (100.0, 150.0, 15.2)]));
    assert!(contradicts(&mapped));
}

#[test]
fn a_full_break_gets_its_tacks() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(100.0, 0.0), (100.0, 200.0)]));
    mapped.bench.set(&crack_key(crack, "piece"), "there");
    let plan = mapped.plan();
    assert!(plan.cracks[0].full_break);
    let tacks: Vec<(u32, f64)> =
        plan.map.faces[0].tacks.iter().map(|tack| (tack.number, tack.at.y_mm)).collect();
    // 200 mm in three lengths of 66.7: the outer ones first.
    assert_eq!(tacks.iter().map(|(number, _)| *number).collect::<Vec<_>>(), [1, 2, 3]);
    assert!(
        (tacks[0].1 - 33.33).abs() < 0.01
            && (tacks[1].1 - 166.67).abs() < 0.01
            && (tacks[2].1 - 100.0).abs() < 0.01
    );
}

#[test]
fn a_crack_that_is_watched_takes_no_filler_and_no_hole() {
    let mut mapped = Mapped::new();
    let (a, b) = (mapped.first(), mapped.crack());
    mapped.draw(a, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.draw(b, line(&[(200.0, 80.0), (260.0, 80.0)]));
    let both = mapped.plan().prep.unwrap();
    mapped.bench.set(&crack_key(b, "becomes"), "stop_only");
    let stopped = mapped.plan();
    assert_eq!(stopped.prep.as_ref().unwrap().seams.len(), 1);
    assert_eq!(stopped.map.faces[0].holes.len(), 3);
    assert!(stopped.prep.unwrap().volume_cm3 < both.volume_cm3);
    mapped.bench.set(&crack_key(b, "becomes"), "leave");
    assert_eq!(mapped.map().faces[0].holes.len(), 1);
    mapped.bench.set(&crack_key(a, "becomes"), "leave");
    assert!(mapped.plan().prep.is_none(), "nothing is filled");
}

#[test]
fn a_later_round_shows_the_earlier_one_under_it() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    mapped.bench.light();
    mapped.bench.say(Change::NewRound { reason: "ran on".into() });
    assert!(mapped.map().faces[0].lines[0].earlier.is_empty(), "it is still as it was");
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0), (90.0, 85.0)]));
    let map = mapped.map();
    let drawn = &map.faces[0].lines[0];
    assert_eq!((drawn.in_round, drawn.earlier.len()), (2, 1));
    assert_eq!(drawn.earlier[0].len(), 2);
    let job = mapped.bench.job();
    assert_eq!(job.rounds[0].drawn[0].shape.points().len(), 2, "the first round is as it was");
}

#[test]
fn one_press_moves_what_is_joined_and_one_takes_it_back() {
    let mut mapped = Mapped::new();
    let (a, b) = (mapped.first(), mapped.crack());
    let face = mapped.face;
    let drawn = |mark, shape| Drawn { mark, face, shape: Some(shape) };
    let first = vec![
        drawn(a, line(&[(40.0, 100.0), (100.0, 100.0), (160.0, 100.0)])),
        drawn(b, line(&[(100.0, 100.0), (100.0, 150.0)])),
    ];
    mapped.bench.say(Change::Draw { drawn: first });
    let moved = vec![
        drawn(a, line(&[(40.0, 100.0), (100.0, 90.0), (160.0, 100.0)])),
        drawn(b, line(&[(100.0, 90.0), (100.0, 150.0)])),
    ];
    let base = mapped.bench.job().revision;
    let word = mapped.bench.try_say(Change::Draw { drawn: moved.clone() }, 0, Some(base)).unwrap();
    assert_eq!(kinds(&mapped.plan().cracks[1])[0], "branch");
    // Another tab that has not seen it yet is told.
    let late = mapped.bench.try_say(Change::Draw { drawn: moved }, 0, Some(base));
    assert!(matches!(late, Err(Refusal::Conflict(_))), "{late:?}");
    mapped.bench.say(Change::Undo { target: word });
    let map = mapped.map();
    assert!(close(map.faces[0].lines[1].points[0], 100.0, 100.0), "both are back");
}

#[test]
fn a_point_can_be_typed() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    let face = mapped.face;
    mapped.draw(crack, line(&[(40.0, 100.0), (100.0, 100.0)]));
    let typed = |point, name: &str, text: &str, shown_in| Change::SetPoint {
        mark: crack,
        face,
        point,
        typed: BTreeMap::from([(name.to_owned(), text.to_owned())]),
        shown_in,
    };
    mapped.bench.say(typed(1, "x", "3", UnitSystem::Imperial));
    mapped.bench.say(typed(1, "wall", "9/16 in", UnitSystem::Metric));
    let map = mapped.map();
    assert!(close(map.faces[0].lines[0].points[1], 76.2, 100.0));
    assert_eq!(map.faces[0].lines[0].walls[1], Some(14.2875));
    for (point, name, text, field) in [
        (1, "x", "far", "x"),
        (1, "wall", "900", "wall"),
        (7, "x", "10", "point"),
        (0, "from_before", "10", "point"),
        (1, "z", "1", "typed"),
    ] {
        match mapped.bench.try_say(typed(point, name, text, UnitSystem::Metric), 0, None) {
            Err(Refusal::Problems(problems)) => assert_eq!(problems[0].field, field, "{name} {text}"),
            other => panic!("{name} {text}: {other:?}"),
        }
    }
    let unmoved = mapped.bench.try_say(typed(1, "from_before", "40000", UnitSystem::Metric), 0, None);
    assert!(unmoved.is_err(), "no part is so large");
}

#[rstest]
#[case::a_hole_drawn_as_a_line(MarkKind::BoltHole, line(&[(0.0, 0.0), (9.0, 0.0)]))]
#[case::an_edge_drawn_as_a_circle(MarkKind::MachinedEdge, circle(10.0, 10.0, 8.0))]
#[case::a_piece_inside_out(
    MarkKind::MissingPiece,
    Shape::Outline { points: [(0.0, 0.0), (9.0, 9.0), (9.0, 0.0), (0.0, 9.0)].map(|(x, y)| At::new(x, y)).to_vec() }
)]
fn what_is_drawn_as_something_else_is_refused(#[case] what: MarkKind, #[case] shape: Shape) {
    let mut mapped = Mapped::new();
    let mark = mapped.bench.say(Change::AddMark { what });
    let drawn = vec![Drawn { mark, face: mapped.face, shape: Some(shape) }];
    let refused = mapped.bench.try_say(Change::Draw { drawn }, 0, None);
    match refused {
        Err(Refusal::Problems(problems)) => {
            assert!(problems[0].field.starts_with("drawn[0]."), "{problems:?}")
        }
        other => panic!("{other:?}"),
    }
}

#[test]
fn a_face_is_refused_where_it_cannot_be() {
    let mut mapped = Mapped::new();
    let face = mapped.face;
    let refused = mapped.bench.try_say(set(&face_key(face, "across"), "40 m"), 0, None);
    assert!(matches!(refused, Err(Refusal::Problems(_))), "{refused:?}");
    let picture = mapped.bench.say(Change::AddPicture { of: None });
    let typed = |across: &str| BTreeMap::from([("across".to_owned(), across.to_owned())]);
    let laid = |points_px: Vec<[f64; 2]>, across: &str| Change::Straighten {
        face,
        picture,
        points_px,
        size_px: [2000.0, 1500.0],
        typed: typed(across),
        shown_in: UnitSystem::Metric,
    };
    for (points, across, field) in [
        (vec![[0.0, 0.0], [5.0, 0.0]], "100", "points_px"),
        (vec![[0.0, 0.0], [500.0, 0.0]], "0", "across"),
        (vec![[0.0, 0.0], [500.0, 0.0]], "", "across"),
        (vec![[0.0, 0.0], [500.0, 0.0], [500.0, 400.0], [0.0, 400.0]], "100", "down"),
        (vec![[0.0, 0.0]], "100", "points_px"),
    ] {
        match mapped.bench.try_say(laid(points.clone(), across), 0, None) {
            Err(Refusal::Problems(problems)) => assert_eq!(problems[0].field, field, "{points:?} {across}"),
            other => panic!("{points:?} {across}: {other:?}"),
        }
    }
    mapped.bench.say(laid(vec![[100.0, 100.0], [500.0, 100.0]], "200"));
    let seen = mapped.map().faces[0].seen.clone().unwrap();
    assert_eq!((seen.frame.right_mm, seen.frame.bottom_mm), (1000.0, 750.0));
    assert_eq!(seen.error, "one point of the picture is 0.5 mm in the middle, 0.5 mm at the worst corner");
}

#[test]
fn a_copy_for_another_piece_keeps_its_map() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
    let mut next = 1000_u128;
    let copied = vanadin_core::job::duplicate(
        &mapped.bench.facts,
        || {
            next += 1;
            Uuid::from_u128(next)
        },
        0,
    );
    let copy = Bench { facts: copied, shop: mapped.bench.shop.clone() };
    let plan = copy.plan();
    assert_eq!((plan.cracks[0].length_mm, plan.map.unplaced.len()), (Some(60.0), 0));
    assert_ne!(plan.cracks[0].id, crack, "every id is new");
    assert_eq!(plan.map.faces[0].lines[0].crack, plan.cracks[0].id);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    #[test]
    fn moving_a_whole_map_changes_no_figure(dx in -400.0..400.0_f64, dy in -400.0..400.0_f64) {
        let figures = |dx: f64, dy: f64| {
            let mut mapped = Mapped::new();
            let crack = mapped.first();
            let outline = [(0.0, 0.0), (300.0, 0.0), (300.0, 200.0), (0.0, 200.0)];
            let outline = outline.map(|(x, y)| At::new(x + dx, y + dy)).to_vec();
            mapped.bench.set(&face_key(mapped.face, "outline"), "drawn");
            mapped.draw(mapped.face, Shape::Outline { points: outline });
            mapped.draw(crack, walled(&[(dx, 80.0 + dy, 9.0), (40.0 + dx, 90.0 + dy, 12.0), (95.0 + dx, 70.0 + dy, 18.0)]));
            let plan = mapped.plan();
            let all: Vec<(String, f64)> = plan.figures.into_iter().map(|figure| (figure.id, figure.value)).collect();
            (all, plan.map.faces[0].holes[0].measured.clone())
        };
        let (here, measured) = figures(0.0, 0.0);
        let (there, measured_there) = figures(dx, dy);
        prop_assert_eq!(measured, measured_there);
        prop_assert_eq!(here.len(), there.len());
        for ((id, here), (_, there)) in here.iter().zip(&there) {
            prop_assert!((here - there).abs() <= 1e-6 * here.abs().max(1.0), "{}: {} {}", id, here, there);
        }
    }

    #[test]
    fn halving_a_crack_changes_no_filler(share in 0.1..0.9_f64) {
        let volume = |points: &[(f64, f64, f64)]| {
            let mut mapped = Mapped::new();
            let crack = mapped.first();
            mapped.draw(crack, walled(points));
            mapped.plan().prep.unwrap().seams[0].volume_cm3
        };
        let cut = (20.0 + 100.0 * share, 80.0, 9.0 + 9.0 * share);
        let whole = volume(&[(20.0, 80.0, 9.0), (120.0, 80.0, 18.0)]);
        let halved = volume(&[(20.0, 80.0, 9.0), cut, (120.0, 80.0, 18.0)]);
        prop_assert!((whole - halved).abs() < 1e-6 * whole, "{} {}", whole, halved);
    }

    #[test]
    fn turning_a_whole_map_changes_no_figure(degrees in 0.0..360.0_f64) {
        let figures = |degrees: f64| {
            let mut mapped = Mapped::new();
            let crack = mapped.first();
            let (sin, cos) = degrees.to_radians().sin_cos();
            let turned = |(x, y): (f64, f64)| (x * cos - y * sin, x * sin + y * cos);
            let corners = [(0.0, 0.0), (300.0, 0.0), (300.0, 200.0), (0.0, 200.0)].map(turned);
            let points = corners.map(|(x, y)| At::new(x, y)).to_vec();
            mapped.bench.set(&face_key(mapped.face, "outline"), "drawn");
            mapped.draw(mapped.face, Shape::Outline { points });
            let along = [(0.0, 80.0, 9.0), (40.0, 90.0, 12.0), (95.0, 70.0, 18.0)];
            mapped.draw(crack, walled(&along.map(|(x, y, wall)| { let (x, y) = turned((x, y)); (x, y, wall) })));
            let gone = [(300.0, 0.0), (300.0, 30.0), (260.0, 0.0)].map(turned).map(|(x, y)| At::new(x, y)).to_vec();
            let mark = mapped.mark(MarkKind::MissingPiece, Shape::Outline { points: gone });
            mapped.bench.set(&mark_key(mark, "thickness"), "12");
            mapped.plan().figures.into_iter().map(|figure| (figure.id, figure.value)).collect::<Vec<_>>()
        };
        let (here, there) = (figures(0.0), figures(degrees));
        prop_assert_eq!(here.len(), there.len());
        for ((id, here), (_, there)) in here.iter().zip(&there) {
            prop_assert!((here - there).abs() <= 1e-6 * here.abs().max(1.0), "{}: {} {}", id, here, there);
        }
    }

    #[test]
    fn both_sides_of_a_wall_agree(x in 60.0..240.0_f64, y in 40.0..160.0_f64) {
        // The same crack drawn on the front, or as it is seen from behind.
        let drawn = |behind: bool| {
            let mut mapped = Mapped::new();
            let crack = mapped.first();
            let back = plain_face(&mut mapped.bench, 300.0, 200.0);
            mapped.bench.set(&face_key(back, "back_of"), &mapped.face.to_string());
            mapped.bench.set(&crack_key(crack, "end_a"), "tip");
            let seen = |x: f64| if behind { 300.0 - x } else { x };
            let face = if behind { back } else { mapped.face };
            let shape = Some(line(&[(seen(20.0), 100.0), (seen(x), y)]));
            mapped.bench.say(Change::Draw { drawn: vec![Drawn { mark: crack, face, shape }] });
            let plan = mapped.plan();
            let face = plan.map.faces.iter().find(|it| it.id == face).unwrap();
            let holes: Vec<At> = face.holes.iter().map(|hole| At::new(seen(hole.at.x_mm), hole.at.y_mm)).collect();
            let figures: Vec<(String, f64)> = plan.figures.iter().map(|figure| (figure.id.clone(), figure.value)).collect();
            // From behind the seam begins at its other end: its first bead lies there, and the order waits otherwise.
            let figures: Vec<(String, f64)> =
                figures.into_iter().filter(|(id, _)| !matches!(id.as_str(), "method.score" | "method.hours")).collect();
            (holes, figures)
        };
        let ((front, here), (back, there)) = (drawn(false), drawn(true));
        prop_assert_eq!(front.len(), back.len());
        for (a, b) in front.iter().zip(&back) {
            prop_assert!(a.distance_mm(*b) < 1e-6, "{:?} {:?}", a, b);
        }
        for ((id, here), (_, there)) in here.iter().zip(&there) {
            prop_assert!((here - there).abs() <= 1e-6 * here.abs().max(1.0), "{id}: {here} {there}");
        }
    }

    #[test]
    fn a_place_typed_in_either_system_comes_back(x in 0.0..300.0_f64, y in 0.0..200.0_f64) {
        let mut mapped = Mapped::new();
        let crack = mapped.first();
        mapped.draw(crack, line(&[(0.0, 80.0), (60.0, 80.0)]));
        let typed = |x: String, y: String, shown_in| Change::SetPoint {
            mark: crack,
            face: mapped.face,
            point: 1,
            typed: BTreeMap::from([("x".to_owned(), x), ("y".to_owned(), y)]),
            shown_in,
        };
        let inches = typed(format!("{:.6}", x / 25.4), format!("{:.6}", y / 25.4), UnitSystem::Imperial);
        let metric = typed(format!("{x:.4}"), format!("{y:.4}"), UnitSystem::Metric);
        for change in [inches, metric] {
            mapped.bench.say(change);
            let at = mapped.map().faces[0].lines[0].points[1];
            prop_assert!(at.distance_mm(At::new(x, y)) < 1e-3, "{:?}", at);
        }
    }
}

#[test]
fn a_name_on_the_map_is_given_once() {
    let mut mapped = Mapped::new();
    let mut named = std::collections::BTreeSet::new();
    for _ in 0..3 {
        let crack = mapped.crack();
        let mark = mapped.mark(MarkKind::BoltHole, circle(100.0, 100.0, 13.0));
        let job = mapped.bench.job();
        let (letter, name) = (
            job.round().cracks.last().unwrap().letter.clone(),
            job.round().marks.last().unwrap().name.clone(),
        );
        assert!(named.insert(letter) && named.insert(name), "{named:?}");
        for target in [crack, mark] {
            mapped.bench.say(Change::Strike { target, reason: "no crack after all".to_owned() });
        }
    }
    // One that is taken back keeps its letter too.
    let gone = mapped.bench.say(Change::AddCrack);
    mapped.bench.say(Change::Undo { target: gone });
    let next = mapped.bench.say(Change::AddCrack);
    let job = mapped.bench.job();
    let letter = &job.round().cracks.iter().find(|crack| crack.id == next).unwrap().letter;
    assert!(next != gone && letter == "F", "{letter}");
}

/// A crack from (40, 70) to (140, 70) on the plain face, stitched.
fn stitched(method: &str) -> Mapped {
    let mut mapped = Mapped::new();
    mapped.bench.set("method.choice", method);
    let crack = mapped.first();
    mapped.bench.set(&crack_key(crack, "end_a"), "tip");
    mapped.draw(crack, line(&[(40.0, 70.0), (140.0, 70.0)]));
    mapped
}

#[test]
fn pins_stand_in_a_row_from_beyond_one_tip_to_beyond_the_other() {
    let mapped = stitched("stitch");
    let plan = mapped.plan();
    let seam = &plan.prep.as_ref().unwrap().seams[0];
    let pins = &plan.map.faces[0].pins;
    assert_eq!(pins.len(), seam.pins as usize);
    // Hand-worked: M10 pins: the first middle half a pin before the tip, the last as far past the other
    let (first, last) = (pins.first().unwrap(), pins.last().unwrap());
    assert!((first.at.x_mm - 35.0).abs() < 1e-6 && (last.at.x_mm - 145.0).abs() < 1e-6, "{first:?} {last:?}");
    assert!(pins.windows(2).all(|two| (two[1].at.x_mm - two[0].at.x_mm - seam.pitch_mm).abs() < 1e-6));
    // Every second one first, then those between.
    assert_eq!((pins[0].turn, pins[2].turn), (1, 2));
    assert!(pins[1].turn > pins[2].turn);
    assert!(pins.iter().all(|pin| pin.why_not.is_empty()));
    // The end pin stops the crack: no hole is drilled for it.
    assert!(plan.map.faces[0].holes.is_empty());
    let drawing = plan.map.faces[0].drawing("lever");
    let strokes = |name: &str| drawing.layers.iter().find(|layer| layer.name == name).unwrap().strokes.len();
    assert_eq!((strokes("PINS"), strokes("LOCKS")), (3 * pins.len(), 0));
}

#[test]
fn locks_lie_across_the_crack() {
    let plan = stitched("stitch_locks").plan();
    let locks = &plan.map.faces[0].locks;
    // Hand-worked: 100 mm asks for two, at a quarter and three quarters; 5 x 10 mm long, half on each side
    assert_eq!(locks.len(), 2);
    for (lock, x_mm) in locks.iter().zip([65.0, 115.0]) {
        assert!((lock.from.x_mm - x_mm).abs() < 1e-6 && (lock.to.x_mm - x_mm).abs() < 1e-6, "{lock:?}");
        assert!(((lock.from.y_mm - lock.to.y_mm).abs() - 50.0).abs() < 1e-6);
    }
}

#[test]
fn a_pin_that_cannot_go_where_it_should_says_why() {
    let mut mapped = stitched("stitch");
    let spot = mapped.bench.say(Change::AddHardSpot { spot: "middle".to_owned(), observed: None });
    mapped.draw(spot, circle(90.0, 70.0, 8.0));
    let plan = mapped.plan();
    let out: Vec<_> = plan.map.faces[0].pins.iter().filter(|pin| !pin.why_not.is_empty()).collect();
    // Hand-worked: nearer than 4 + 6 + 5 mm of its middle
    assert!(!out.is_empty() && out.iter().all(|pin| (pin.at.x_mm - 90.0).abs() < 15.0), "{out:?}");
    assert!(
        plan.map.faces[0]
            .pins
            .iter()
            .all(|pin| pin.why_not.is_empty() == ((pin.at.x_mm - 90.0).abs() >= 15.0))
    );
    assert!(plan.cautions.iter().any(|caution| caution.sentence.contains("cannot go there: hard spot")));
}

#[test]
fn pins_go_in_one_by_one_and_a_drill_that_skates_makes_a_hard_spot() {
    let mut mapped = stitched("stitch");
    mapped.bench.ready();
    mapped.bench.light();
    let torch = |mapped: &Mapped| mapped.bench.plan().torch.unwrap();
    let next = |mapped: &Mapped| torch(mapped).next_pin.unwrap();
    let planned = torch(&mapped).planned;
    // Every second one first.
    assert_eq!(next(&mapped).number, 1);
    let set = |mapped: &mut Mapped, after_ms: i64| {
        let pin = next(mapped);
        mapped.bench.torch(TorchEntry::Pin { crack: pin.crack, number: pin.number }, after_ms);
    };
    set(&mut mapped, 60_000);
    let third = next(&mapped);
    assert_eq!(third.number, 3);
    assert!(
        third.words.starts_with(&format!("Pin 3 of A, the 2nd of {planned} to go in")),
        "{}",
        third.words
    );
    // It skates: a hard spot lies there now, and what cannot go in is left out.
    let spot = mapped.bench.say(Change::AddHardSpot { spot: third.place.clone(), observed: None });
    let at = third.at.unwrap();
    let shape = Shape::Circle { x_mm: at.x_mm, y_mm: at.y_mm, radius_mm: third.across_mm / 2.0 };
    let drawn = vec![Drawn { mark: spot, face: third.face.unwrap(), shape: Some(shape) }];
    mapped.bench.say(Change::Draw { drawn });
    assert!(torch(&mapped).planned < planned);
    assert_ne!(next(&mapped).number, 3);
    assert_eq!(torch(&mapped).done, 1, "what is in stays in");
    // A pin that is in does not go in twice.
    let first = TorchEntry::Pin { crack: third.crack, number: 1 };
    assert!(
        mapped.bench.try_say(Change::Torch { entry: first }, crate::common::LIT_AT + 90_000, None).is_err()
    );
    while let Some(pin) = torch(&mapped).next_pin {
        let done = torch(&mapped).done;
        let entry = TorchEntry::Pin { crack: pin.crack, number: pin.number };
        mapped.bench.torch(entry, 120_000 + i64::from(done) * 1_000);
        assert_eq!(torch(&mapped).done, done + 1);
    }
    assert_eq!(torch(&mapped).done, torch(&mapped).planned);
}
