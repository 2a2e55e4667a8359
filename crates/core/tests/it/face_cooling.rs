//! The drawn face of a job on its way down: what cools ahead of what, and what that pulls.

use crate::common::mapped::{circle, line};
use crate::common::reading;
use crate::on_the_face::Frame;
use vanadin_core::field::{crack_key, mark_key};
use vanadin_core::job::{Change, TorchEntry};
use vanadin_core::map::MarkKind;
use vanadin_core::plan::{FaceHeat, cooling_face, face_cooling};

fn cools(frame: &Frame) -> Result<FaceHeat, String> {
    let (job, plan) = (frame.bench.job(), frame.bench.plan());
    let cools = cooling_face(&job, &plan, &frame.bench.shop)?;
    let model = cools.part.model()?;
    let part = frame.part()?;
    let hot = part.model()?;
    Ok(face_cooling((&job, &plan), (&cools, &model), Some((&part, &hot))).unwrap())
}

/// Hottest and coldest that is shown of each moment, beside the iron not counted.
fn spread(heat: &FaceHeat) -> Vec<(i32, i32)> {
    let each = |it: &vanadin_core::plan::FaceMoment| (*it.celsius.iter().max().unwrap(), it.coldest_c);
    heat.moments.iter().map(each).collect()
}

#[test]
fn a_plate_of_one_wall_that_is_warm_all_over_cools_evenly() {
    let mut plate = Frame::of("17.3 kg", "thin_plate");
    plate.bench.set("cooling.packing", "vermiculite");
    let heat = cools(&plate).unwrap();
    assert_eq!(heat.sentence, "It cools evenly: no place is 25 °C ahead of another.");
    assert!(heat.beneath.contains("all over, as it is planned"), "{}", heat.beneath);
    assert!(heat.beneath.contains("pulls next to nothing on seam A"), "{}", heat.beneath);
    assert!(!heat.logged && !heat.asks_much);
    let falls = spread(&heat);
    assert!(falls.windows(2).all(|pair| pair[1].0 <= pair[0].0), "{falls:?}");
    // To the hand, as the curve of the whole part ends.
    let plan = plate.bench.plan();
    let ends = plan.cooling.unwrap().curve.last().unwrap().1;
    let last = falls.last().unwrap();
    assert!((f64::from(last.0) - ends).abs() < 8.0, "{last:?} for {ends}");
    // Its crack is filled: no tip of it is left to be shown.
    assert!(heat.moments.iter().all(|moment| moment.tips.is_empty() && moment.flame.is_none()));
}

#[test]
fn a_boss_in_still_air_stays_behind_the_thin_limbs_and_pulls() {
    let mut frame = Frame::new();
    let boss = frame.mark(MarkKind::ThickPlace, circle(25.0, 275.0, 46.0));
    frame.bench.set(&mark_key(boss, "thickness"), "100");
    frame.bench.set("part.mass", "10.6 kg");
    frame.bench.set("cooling.packing", "air");
    let heat = cools(&frame).unwrap();
    assert!(heat.sentence.contains(" it cools ahead, lower left behind: by "), "{}", heat.sentence);
    assert!(heat.sentence.contains(" to "), "a range: {}", heat.sentence);
    let lags: Vec<i32> = spread(&heat).iter().map(|(hot, cold)| hot - cold).collect();
    let most = lags.iter().max().unwrap();
    assert!(*most >= 25 && lags[0] < *most && lags[lags.len() - 1] < *most, "{lags:?}");
    // In vermiculite it is less.
    frame.bench.set("cooling.packing", "vermiculite");
    let packed = cools(&frame).unwrap();
    let most_packed = spread(&packed).iter().map(|(hot, cold)| hot - cold).max().unwrap();
    assert!(most_packed < *most, "{most_packed} for {most}");
}

#[test]
fn what_was_hot_when_it_was_covered_pulls_as_it_cools_and_what_was_hot_opposite_presses() {
    let covered = |part: Frame, flame: &[(f64, (f64, f64))]| {
        let mut part = part.lit_and_moved(flame);
        part.bench.set("cooling.packing", "vermiculite");
        part.say(reading("120"), 5.0);
        let begins = cools(&part).unwrap().beneath;
        assert!(begins.starts_with("Covered as it is by its log, "), "{begins}");
        part.say(TorchEntry::Covered { why: String::new() }, 6.0);
        cools(&part).unwrap()
    };
    let over_it = covered(Frame::of("17.3 kg", "thin_plate"), &[]);
    assert!(over_it.logged, "{}", over_it.beneath);
    assert!(over_it.sentence.ends_with(", when it is covered."), "{}", over_it.sentence);
    assert!(over_it.beneath.starts_with("As it was when it was covered, "), "{}", over_it.beneath);
    assert!(over_it.beneath.contains("That pulls on seam A with "), "{}", over_it.beneath);
    // A limb that shrinks draws the limb opposite together.
    let opposite = covered(Frame::new(), &[(0.0, (200.0, 275.0))]);
    assert!(opposite.beneath.contains("pulls next to nothing on seam A"), "{}", opposite.beneath);
}

#[test]
fn a_crack_that_stays_open_keeps_its_tips_on_the_way_down() {
    let mut frame = Frame::new();
    let other = frame.bench.say(Change::AddCrack);
    frame.bench.set(&crack_key(other, "becomes"), "leave");
    frame.draw(other, line(&[(350.0, 150.0), (375.0, 150.0)]));
    let heat = cools(&frame).unwrap();
    let letters: Vec<&str> = heat.moments[0].tips.iter().map(|tip| tip.letter.as_str()).collect();
    assert_eq!(letters, ["B"]);
}

#[test]
fn what_is_not_heated_does_not_cool() {
    let mut frame = Frame::new();
    frame.bench.set("method.school", "cold");
    assert_eq!(cools(&frame).unwrap_err(), "");
}

#[test]
fn tips_on_a_face_that_is_the_part_are_the_faces_to_tell_and_no_bar_speaks_of_them() {
    // So long that no flame heats it evenly, however far it is turned down.
    let mut frame = Frame::of("86.4 kg", "thin_plate");
    let face = frame.face;
    for (key, typed) in [("part.length", "2500"), ("part.wall", "16"), ("heat.source", "oxy_acetylene_large")]
    {
        frame.bench.set(key, typed);
    }
    frame.bench.set(&vanadin_core::field::face_key(face, "across"), "2500");
    let crack = frame.bench.crack();
    frame.draw(crack, line(&[(0.0, 150.0), (420.0, 150.0)]));
    let runs_on = |frame: &Frame| frame.bench.plan().heat.unwrap().runs_on.len();
    assert_eq!(runs_on(&frame), 0, "the face is asked");
    assert!(frame.part().is_ok());
    // A face that weighs something else is not the part: the bar is all there is.
    frame.bench.set("part.mass", "160 kg");
    assert!(frame.part().is_err());
    assert_eq!(runs_on(&frame), 1);
}
