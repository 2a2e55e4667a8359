//! A patch of a donor casting where a piece is missing: its pins all round, one by one; and what builds up in two
//! metals. Published: the trade reference.

use crate::common::mapped::{Mapped, circle, line};
use crate::common::{Bench, figure};
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::field::mark_key;
use vanadin_core::job::{Change, TorchEntry};
use vanadin_core::map::{At, MarkKind, Shape};
use vanadin_core::method::MethodId;
use vanadin_core::plan::{PinsThat, Plan, SeamPlan};
use vanadin_core::stores::StoreItem;

fn outline(points: &[(f64, f64)]) -> Shape {
    Shape::Outline { points: points.iter().map(|(x, y)| At::new(*x, *y)).collect() }
}

/// A hole of 80 x 50 in the face, closed by a patch of like iron, to be pinned.
fn patched() -> (Mapped, Uuid) {
    let mut mapped = Mapped::new();
    let hole = outline(&[(100.0, 100.0), (180.0, 100.0), (180.0, 150.0), (100.0, 150.0)]);
    let mark = mapped.mark(MarkKind::MissingPiece, hole);
    for (field, typed) in [("thickness", "14"), ("closed_by", "like_iron")] {
        mapped.bench.set(&mark_key(mark, field), typed);
    }
    mapped.bench.set("method.choice", "stitch");
    (mapped, mark)
}

fn round_it(plan: &Plan, mark: Uuid) -> &SeamPlan {
    plan.prep.as_ref().unwrap().seams.iter().find(|seam| seam.id == mark).expect("pins round the patch")
}

#[test]
fn pins_stand_all_round_a_patch_and_its_quarters_are_anchored_first() {
    let (mapped, mark) = patched();
    let plan = mapped.plan();
    let seam = round_it(&plan, mark);
    // Published: n = ceil(P / (d (1 - o))). Hand-worked: 260 / (10 x 2/3) = 39 in a wall of 14
    assert_eq!((seam.pin_mm, seam.pins, seam.pins_that), (10.0, 39, Some(PinsThat::Push)));
    assert!((seam.pitch_mm - 260.0 / 39.0).abs() < 1e-9);
    // Hand-worked: the quarters of 39 begin at 0, 9.75, 19.5 and 29.25 pins
    assert_eq!(seam.pin_order[..6], [1, 10, 20, 30, 2, 3]);
    let face = &plan.map.faces[0];
    let pins: Vec<_> = face.pins.iter().filter(|pin| pin.crack == mark).collect();
    assert_eq!(pins.len(), 39);
    assert!(
        pins[0].at.distance_mm(At::new(100.0, 100.0)) < 1e-9 && pins.iter().all(|pin| pin.why_not.is_empty())
    );
    // The crack beside it has its own row, of the other kind.
    let prep = plan.prep.as_ref().unwrap();
    assert_eq!((prep.seams.len(), prep.seams[0].pins_that), (2, Some(PinsThat::Draw)));
    assert_eq!(prep.pins, prep.seams[0].pins + 39);
    let said = |words: &str| prep.work.iter().any(|line| line.sentence.contains(words));
    assert!(said("anchors at the quarters") && said("round a patch plain ones"));
    assert_eq!(figure(&plan, &format!("prep.{mark}.pins")).unwrap().value, 39.0);
}

#[test]
fn what_seals_overlaps_by_half_and_a_few_anchors_stand_at_the_quarters_at_least() {
    let (mut mapped, mark) = patched();
    mapped.bench.set("part.fluid_tight", "yes");
    // Hand-worked: 260 / 5 = 52
    assert_eq!(round_it(&mapped.plan(), mark).pins, 52);
    mapped.bench.set("taught.density", "anchors");
    assert_eq!(round_it(&mapped.plan(), mark).pins, 6, "one each 50 mm");
}

#[test]
fn a_corner_is_pinned_from_edge_to_edge_with_pins_that_draw_in() {
    let mut mapped = Mapped::new();
    let mark = mapped
        .mark(MarkKind::MissingPiece, outline(&[(0.0, 160.0), (60.0, 160.0), (60.0, 200.0), (0.0, 200.0)]));
    mapped.bench.set(&mark_key(mark, "thickness"), "14");
    mapped.bench.set(&mark_key(mark, "closed_by"), "like_iron");
    mapped.bench.set("method.choice", "stitch");
    let plan = mapped.plan();
    let seam = round_it(&plan, mark);
    // Hand-worked: 60 and 40 mm bonded; (100 - 10) / (20/3) = 13.5: 14 gaps, 15 pins
    assert_eq!((seam.length_mm, seam.pins, seam.pins_that), (100.0, 15, Some(PinsThat::Draw)));
    let pins: Vec<_> = plan.map.faces[0].pins.iter().filter(|pin| pin.crack == mark).collect();
    let said = |words: &str| plan.prep.as_ref().unwrap().work.iter().any(|it| it.sentence.contains(words));
    assert!(said("every second pin first") && !said("quarters") && !said("plain ones"), "no patch is closed");
    assert!(pins[0].at.distance_mm(At::new(5.0, 160.0)) < 1e-9, "half a hole is none: {:?}", pins[0]);
    assert!(pins.iter().all(|pin| pin.why_not.is_empty()), "{pins:?}");
}

#[test]
fn a_pin_of_a_patch_that_meets_a_hard_spot_is_left_out_and_said() {
    let (mut mapped, mark) = patched();
    let hole = mapped.mark(MarkKind::BoltHole, circle(140.0, 100.0, 12.0));
    let plan = mapped.plan();
    let out = plan.map.faces[0].pins.iter().filter(|pin| !pin.why_not.is_empty()).count();
    assert!(out >= 2, "{out}");
    let said: Vec<&str> = plan.map.faces[0].clashes.iter().map(|clash| clash.sentence.as_str()).collect();
    assert!(said.iter().any(|words| words.contains("missing piece")), "{said:?}");
    mapped.bench.say(Change::Strike { target: hole, reason: "a mistake".into() });
    assert!(mapped.plan().map.faces[0].pins.iter().all(|pin| pin.why_not.is_empty()));
    assert!(mapped.plan().bench.missing.iter().any(|it| it.mark == mark));
}

#[test]
fn the_torch_leads_from_pin_to_pin_of_a_patch_by_its_name() {
    let (mut mapped, mark) = patched();
    let crack = mapped.first();
    mapped.bench.set(&format!("crack.{crack}.becomes"), "leave");
    mapped.bench.light();
    let next = |bench: &Bench| bench.plan().torch.unwrap().next_pin.unwrap();
    let first = next(&mapped.bench);
    assert_eq!((first.crack, first.number), (mark, 1));
    assert!(first.place.starts_with("missing piece") && first.place.ends_with("pin 1"), "{}", first.place);
    mapped.bench.torch(TorchEntry::Pin { crack: mark, number: 1 }, 60_000);
    assert_eq!(next(&mapped.bench).number, 10, "the next quarter");
}

#[rstest]
#[case::it_fits("patch_gap", "0.5 mm", None)]
#[case::a_wide_gap("patch_gap", "0.6 mm", Some("0.6 mm"))]
#[case::thinner("patch_thickness", "12 mm", Some("2 mm thinner"))]
#[case::as_thick("patch_thickness", "13 mm", None)]
#[case::steel("closed_by", "steel", Some("Steel grows otherwise"))]
#[case::another_iron("closed_by", "other_iron", Some("settle what it is"))]
fn a_patch_that_does_not_fit_is_told(#[case] field: &str, #[case] typed: &str, #[case] told: Option<&str>) {
    let (mut mapped, mark) = patched();
    mapped.bench.set(&mark_key(mark, field), typed);
    let plan = mapped.plan();
    let patch = plan.bench.missing[0].patch.as_ref().unwrap();
    match told {
        None => assert!(patch.cautions.is_empty(), "{:?}", patch.cautions),
        Some(words) => assert!(patch.cautions.iter().any(|it| it.contains(words)), "{:?}", patch.cautions),
    }
}

#[test]
fn the_thinner_of_patch_and_casting_sets_the_pin_and_metal_takes_no_pins() {
    let (mut mapped, mark) = patched();
    mapped.bench.set(&mark_key(mark, "patch_thickness"), "10");
    assert_eq!(round_it(&mapped.plan(), mark).pin_mm, 8.0);
    mapped.bench.set(&mark_key(mark, "closed_by"), "metal");
    let plan = mapped.plan();
    assert!(plan.bench.missing[0].patch.is_none());
    assert_eq!(plan.prep.unwrap().seams.len(), 1);
}

#[test]
fn a_patch_whose_thickness_nobody_has_said_takes_no_pins_yet_and_says_so() {
    let (mut mapped, mark) = patched();
    mapped.bench.set(&mark_key(mark, "thickness"), "");
    let plan = mapped.plan();
    assert_eq!(plan.prep.as_ref().unwrap().seams.len(), 1, "the crack is laid out all the same");
    let words = plan.bench.missing[0].patch.as_ref().unwrap().words.join(" ");
    assert!(words.contains("How thick casting and patch are"), "{words}");
    // What is measured of the patch alone will do.
    mapped.bench.set(&mark_key(mark, "patch_thickness"), "9");
    assert_eq!(round_it(&mapped.plan(), mark).pin_mm, 8.0);
}

#[test]
fn a_patch_favours_pins_and_not_locks() {
    let (mut mapped, _) = patched();
    mapped.bench.set("method.choice", "");
    let plan = mapped.plan();
    let of = |method| plan.methods.contenders.iter().find(|it| it.way.method == method).unwrap();
    let favoured = |method| of(method).favours.iter().any(|why| why.contains("donor patch"));
    assert!(favoured(MethodId::Stitch) && !favoured(MethodId::StitchLocks));
}

#[test]
fn butter_and_build_up_takes_nickel_for_the_bond_face_and_steel_for_the_rest() {
    let mut mapped = Mapped::new();
    let corner = outline(&[(0.0, 110.0), (40.0, 110.0), (40.0, 200.0), (0.0, 200.0)]);
    let mark = mapped.mark(MarkKind::MissingPiece, corner);
    mapped.bench.set(&mark_key(mark, "thickness"), "12");
    mapped.bench.set("method.choice", "butter_build");
    let plan = mapped.plan();
    let prep = plan.prep.as_ref().unwrap();
    // Hand-worked: bonded 40 + 90, 12 thick, 2.5 of nickel: 3.9 cm3
    assert!((plan.bench.missing[0].butter_cm3.unwrap() - 3.9).abs() < 1e-9);
    assert!(prep.first_cm3 > 3.9 && prep.first_cm3 < prep.volume_cm3 / 2.0, "{prep:?}");
    let over = prep.over_it.as_ref().unwrap();
    // 7.85 g/cm3, 95 % of a wire stays
    let expected = (prep.volume_cm3 - prep.first_cm3) * 7.85 / 0.95;
    assert!((over.metal_g - expected).abs() < 1e-6 && over.filler.contains("ER70S-6"));
    let takes =
        &plan.methods.contenders.iter().find(|it| it.way.method == MethodId::ButterBuild).unwrap().takes;
    let kg = |kind: &str| takes.iter().find(|take| take.kind == kind).map(|take| take.amount);
    assert!((kg("steel_wire").unwrap() - over.metal_g / 1000.0).abs() < 1e-3);
    assert_eq!(kg("nickel"), Some(prep.rods));
    assert_eq!(figure(&plan, "prep.over").unwrap().value, over.metal_g);
    // A way of one metal has none laid over it.
    mapped.bench.set("method.choice", "arc_nickel_iron");
    let prep = mapped.plan().prep.unwrap();
    assert!(prep.over_it.is_none() && prep.first_cm3 == prep.volume_cm3);
}

#[rstest]
// Published: the trade reference: butter, TIG and wire brazes and TIG nickel 40 mm, the cold school of butter 25
#[case::butter("butter_build", "whole_part", 40.0)]
#[case::butter_cold("butter_build", "cold", 25.0)]
#[case::tig_nickel("tig_nickel", "", 40.0)]
#[case::silicon("tig_braze_si", "", 40.0)]
#[case::wire("mig_braze_si", "", 40.0)]
#[case::hot("arc_nickel_iron", "hot", 60.0)]
fn beads_are_as_long_as_their_process_has_them(
    #[case] method: &str,
    #[case] school: &str,
    #[case] long: f64,
) {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", method);
    bench.set("method.school", school);
    assert_eq!(bench.plan().prep.unwrap().bead_mm, long);
}

#[test]
fn a_pin_beside_a_hard_spot_takes_longer_and_one_too_near_it_is_none() {
    let mut mapped = Mapped::new();
    let crack = mapped.first();
    for (field, typed) in [("end_a", "tip"), ("end_b", "tip")] {
        mapped.bench.set(&format!("crack.{crack}.{field}"), typed);
    }
    mapped.draw(crack, line(&[(100.0, 80.0), (160.0, 80.0)]));
    mapped.bench.set("method.choice", "stitch");
    let minutes = |mapped: &Mapped| {
        let plan = mapped.plan();
        let stitch = plan.methods.contenders.iter().find(|it| it.way.method == MethodId::Stitch).unwrap();
        let step = stitch.steps.iter().find(|step| step.id == "stitch").unwrap();
        (step.attended_min, step.working.clone())
    };
    let (plain, _) = minutes(&mapped);
    let spot = mapped.bench.say(Change::AddHardSpot { spot: "beside it".into(), observed: None });
    // Hand-worked: pins of 10 mm at y 80, the spot 10 across at y 98: 8 mm from edge to edge where it stands across
    mapped.draw(spot, circle(130.0, 98.0, 10.0));
    let near = mapped.plan().map.faces[0]
        .pins
        .iter()
        .filter(|pin| {
            let off = pin.at.distance_mm(At::new(130.0, 98.0)) - 10.0;
            (6.0..10.0).contains(&off)
        })
        .count();
    let (slow, working) = minutes(&mapped);
    assert!(
        near >= 2 && (slow - plain - 6.0 * near as f64).abs() < 1e-9,
        "{near} pins, {slow} against {plain}"
    );
    assert!(working.contains("beside a hard spot"), "{working}");
}

#[test]
fn a_tap_is_worn_by_its_share_and_a_drill_where_one_is_kept() {
    let (mut mapped, _) = patched();
    let takes = |mapped: &Mapped| {
        let plan = mapped.plan();
        let stitch = plan.methods.contenders.iter().find(|it| it.way.method == MethodId::Stitch).unwrap();
        stitch.takes.iter().map(|it| (it.kind.clone(), it.size_mm, it.amount)).collect::<Vec<_>>()
    };
    let pins = f64::from(mapped.plan().prep.unwrap().pins);
    let of = |mapped: &Mapped, kind: &str| takes(mapped).into_iter().find(|(it, ..)| it == kind);
    // Published: a tap is good for about 40 holes in gray
    assert_eq!(of(&mapped, "taps"), Some(("taps".to_owned(), Some(10.0), pins / 40.0)));
    assert_eq!(of(&mapped, "drill"), None, "nobody keeps one: it is one of the set");
    mapped.bench.shop.stores.push(StoreItem {
        id: Uuid::from_u128(7),
        kind: "drill".to_owned(),
        name: String::new(),
        size_mm: Some(8.5),
        amount: Some(2.0),
        holds_m3: None,
        price: None,
        lot: String::new(),
        opened: None,
        place: String::new(),
        melts_c: None,
        counted_revision: 1,
        counted_ms: 0,
    });
    assert_eq!(of(&mapped, "drill"), Some(("drill".to_owned(), Some(8.5), pins / 120.0)));
}
