//! What is on the rack of the sample shop: made up, each at another stage.

use std::collections::BTreeMap;

use vanadin_core::faults::acceptance::Found;
use vanadin_core::field::{crack_key, face_key, mark_key};
use vanadin_core::iron::Confidence;
use vanadin_core::job::{Change, CheckPlace, CheckWhat, SeamReadingKind, Work};
use vanadin_core::map::{At, MarkKind, Shape, Vertex};
use vanadin_core::quantity::UnitSystem;

use super::told::SampleJob;

/// A picture of the sample shop, drawn for it: as it is kept, and small.
macro_rules! drawn {
    ($name:literal) => {
        (
            include_bytes!(concat!("../../sample/", $name, ".jpg")).as_slice(),
            include_bytes!(concat!("../../sample/", $name, "-small.jpg")).as_slice(),
        )
    };
}

/// Hot and cooling right now.
pub(super) fn press_side(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Letterpress side frame"),
        ("owner", "Tern Lane print room"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "24 kg"),
        ("length", "460 mm"),
        ("width", "280 mm"),
        ("height", "90 mm"),
        ("shape", "ribbed_or_open_frame"),
        ("wall", "14 mm"),
        ("break_station", "35"),
        ("service_temperature", "35 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("cause", "overload"),
        ("oil", "baked_clean"),
        ("coating", "paint"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("machined", "elsewhere"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("frame"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    told.crack(&[
        ("length", "118"),
        ("wall", "14"),
        ("found_by", "dye"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.crack(&[
        ("length", "46"),
        ("wall", "12"),
        ("found_by", "dye"),
        ("end_a", "branch"),
        ("end_b", "tip"),
    ]);
    told.set("heat.source", "kiln");
    told.set("method.choice", "arc_nickel_iron");
    told.set("method.school", "hot");
    told.set("method.reason", "the owner wants it as strong as it was");
    told.estimate(30);
    told.wait(30);
    told.heat(1);
    told.cover(60 * 24);
}

/// Being mapped: one tip was only seen by eye.
pub(super) fn bell_bearing(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Bell frame bearing block"),
        ("owner", "Ringers of Lower Marl"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "9.5 kg"),
        ("length", "230"),
        ("width", "110"),
        ("height", "95"),
        ("shape", "solid_block"),
        ("wall", "22"),
        ("break_station", "50"),
        ("service_temperature", "20 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,shock"),
        ("cause", "overload"),
        ("place", "bench"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("keep_off", "the bored face"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.stays_cool("white-metal shell", "180 C");
    told.taken(drawn!("block"), "overall");
    told.tried("file", "bites", Confidence::Sure);
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Fair);
    told.crack(&[
        ("length", "64"),
        ("wall", "22"),
        ("found_by", "magnetic"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.crack(&[("length", "38"), ("wall", "22"), ("found_by", "eye"), ("end_a", "tip"), ("end_b", "tip")]);
}

/// Ductile leads; the method is between two.
pub(super) fn malt_gear(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Malt conveyor sprocket arm"),
        ("owner", "Quarry Hill brewery"),
        ("family", "loaded_moving"),
        ("era", "1970_on"),
        ("safety_class", "none"),
        ("length", "310"),
        ("width", "85"),
        ("height", "60"),
        ("shape", "solid_block"),
        ("wall", "16"),
        ("break_station", "25"),
        ("service_temperature", "40 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "until_new"),
        ("replacement_price", "640"),
        ("replacement_wait", "9 weeks"),
        ("downtime", "85"),
        ("loads", "bending,shock"),
        ("cause", "impact"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("marks", "hidden"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    let wanted = told.day_in(4);
    // Locks are not on the shelf: they have to be bought, and the welder wants them all the same.
    told.set("method.choice", "stitch_locks");
    told.set("part.wanted", &wanted);
    told.taken(drawn!("arm"), "overall");
    told.tried("punch", "raises_rim", Confidence::Sure);
    told.tried("drill", "short_curls", Confidence::Fair);
    told.crack(&[("length", "52"), ("wall", "16"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]);
}

/// The first round cracked beside the weld; the second is being mapped.
pub(super) fn chain_wheel(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Biscuit oven chain wheel"),
        ("owner", "Harrow Street bakery"),
        ("family", "machine_frame"),
        ("era", "1949_1969"),
        ("safety_class", "none"),
        ("mass", "13 kg"),
        ("length", "380"),
        ("width", "380"),
        ("height", "50"),
        ("shape", "spoked_wheel"),
        ("wall", "11"),
        ("break_station", "80"),
        ("service_temperature", "90 C"),
        ("heat_cycling", "yes"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static"),
        ("cause", "heat_cycling"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("oil", "baked_clean"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("wheel"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    let spoke = told.crack(&[
        ("length", "44"),
        ("wall", "11"),
        ("found_by", "chalk_and_oil"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.set("heat.source", "kiln");
    told.set("method.choice", "torch_braze");
    told.set("method.reason", "a spoked wheel: no melting in it");
    told.wait(20);
    told.heat(3);
    told.cover(60 * 20);
    told.unwrap();
    told.wait(60);
    told.set("check.clean", "ok");
    told.set("check.cracks_again", "not_ok");
    told.say(Change::NewRound { reason: "dye shows it ran on past the hole at the rim".to_owned() });
    told.set(&crack_key(spoke, "length"), "61");
    told.set(&crack_key(spoke, "found_by"), "dye");
    told.crack(&[("length", "23"), ("wall", "11"), ("found_by", "dye"), ("end_a", "branch")]);
}

/// As the dye showed them, in mm.
const LONG_CRACK: &[(f64, f64)] = &[
    (260.0, 97.0),
    (255.5, 94.6),
    (243.6, 94.0),
    (233.6, 90.7),
    (229.8, 92.0),
    (223.8, 89.1),
    (220.4, 90.4),
    (211.5, 85.5),
    (205.0, 86.0),
    (198.9, 84.2),
    (194.4, 85.9),
    (180.2, 81.9),
    (164.4, 81.9),
    (159.9, 80.5),
    (155.9, 81.2),
    (150.0, 80.0),
    (144.8, 80.0),
    (135.8, 75.0),
    (128.7, 75.8),
    (108.0, 70.0),
    (80.4, 59.0),
    (76.3, 54.6),
    (70.6, 53.2),
];
const BRANCH: &[(f64, f64)] = &[
    (150.0, 80.0),
    (146.3, 84.5),
    (140.0, 97.6),
    (139.0, 103.0),
    (135.5, 107.8),
    (133.4, 119.2),
    (129.5, 122.7),
    (128.0, 128.0),
];

fn seed_drill_part(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Seed drill lever plate"),
        ("owner", "Ploughland relics group"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "5.4 kg"),
        ("length", "260"),
        ("width", "170"),
        ("height", "40"),
        ("shape", "ribbed_or_open_frame"),
        ("wall", "13"),
        ("break_station", "60"),
        ("service_temperature", "25 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("cause", "overload"),
        ("old_filler", "none"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
}

/// Mapped on a straightened picture: a branched crack, the same seen from behind, a corner broken off.
pub(super) fn drill_plate(told: &mut SampleJob<'_>) {
    seed_drill_part(told);
    let picture = told.taken(drawn!("plate"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    let front = told.face("front", "260", "170");
    told.say(Change::Straighten {
        face: front,
        picture,
        points_px: vec![[92.0, 96.0], [716.0, 62.0], [742.0, 498.0], [66.0, 548.0]],
        size_px: [800.0, 600.0],
        typed: BTreeMap::from([
            ("across".to_owned(), "260".to_owned()),
            ("down".to_owned(), "170".to_owned()),
        ]),
        shown_in: UnitSystem::Metric,
    });
    for (x_mm, y_mm) in [(60.0, 50.0), (205.0, 140.0)] {
        let hole = told.say(Change::AddMark { what: MarkKind::BoltHole });
        told.draw(hole, front, Shape::Circle { x_mm, y_mm, radius_mm: 11.0 });
    }
    let a = told.crack(&[("found_by", "dye")]);
    told.draw(a, front, line(LONG_CRACK, Some((11.0, 15.0))));
    let b = told.crack(&[("found_by", "dye"), ("end_b", "tip")]);
    told.draw(b, front, line(BRANCH, None));
    let back = told.face("back", "260", "170");
    told.set(&face_key(back, "back_of"), &front.to_string());
    // Seen from behind, and 6 mm further.
    told.draw(b, back, line(&[(110.0, 80.0), (121.2, 104.5), (134.6, 133.6)], None));
    let foot = told.face("foot", "150", "48");
    let c = told.crack(&[("wall", "16"), ("found_by", "eye"), ("piece", "there")]);
    told.draw(c, foot, line(&[(96.0, 0.0), (99.0, 14.0), (94.0, 31.0), (97.0, 48.0)], None));
    let corner = told.say(Change::AddMark { what: MarkKind::MissingPiece });
    let points = [(128.0, 0.0), (150.0, 0.0), (150.0, 17.0), (139.0, 12.0)].map(|(x, y)| At::new(x, y));
    told.draw(corner, foot, Shape::Outline { points: points.to_vec() });
    told.set(&mark_key(corner, "thickness"), "16");
    told.set(&crack_key(c, "old_share"), "20");
    told.set(&crack_key(c, "align_by"), "pin,straight_edge");
    told.set("method.choice", "arc_nickel_iron");
    told.size(&[
        ("kind", "bore"),
        ("datum", "bolt hole 1"),
        ("nominal", "22"),
        ("tolerance", "0.1"),
        ("before", "22.05"),
    ]);
    // On the bench: the break is fitted and half tacked, the long crack half ground.
    told.wait(40);
    told.measured(c, SeamReadingKind::FitUp, None, &[("at", "12"), ("gap", "0.3"), ("step", "0.2")]);
    told.measured(c, SeamReadingKind::Rock, None, &[("rock", "0.2"), ("over", "150")]);
    told.measured(c, SeamReadingKind::Pin, None, &[("run_out", "0.1")]);
    told.measured(c, SeamReadingKind::Tack, Some(1), &[("moved", "0")]);
    told.wait(25);
    told.measured(a, SeamReadingKind::Depth, None, &[("at", "20"), ("depth", "5.5")]);
    told.measured(a, SeamReadingKind::Depth, None, &[("at", "90"), ("depth", "4")]);
    let done =
        [(Work::Clean, None), (Work::FitUp, Some(c)), (Work::TackGroove, Some(c)), (Work::Witness, None)];
    let work = told.plan().prep.map(|prep| prep.work).unwrap_or_default();
    for (what, at) in done {
        let lines = work.iter().filter(|line| line.step.what == what && (at.is_none() || line.step.at == at));
        for line in lines {
            told.say(Change::Tick { step: line.step, done: true });
        }
    }
}

/// A line along these places, its wall even, or changing from its last to its first.
fn line(places: &[(f64, f64)], walls_mm: Option<(f64, f64)>) -> Shape {
    let last = places.len() - 1;
    let vertex = |(at, &(x_mm, y_mm)): (usize, &(f64, f64))| {
        let wall_mm = walls_mm.filter(|_| at == 0 || at == last);
        let wall_mm = wall_mm.map(|(at_last, at_first)| if at == 0 { at_first } else { at_last });
        Vertex { x_mm, y_mm, wall_mm }
    };
    Shape::Line { points: places.iter().enumerate().map(vertex).collect() }
}

/// Malleable: no gas fusion; stitched or brazed.
pub(super) fn glasshouse_bracket(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Glasshouse vent quadrant"),
        ("owner", "Walled garden trust"),
        ("family", "small_hardware"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "1.8 kg"),
        ("length", "240"),
        ("width", "60"),
        ("height", "40"),
        ("shape", "solid_block"),
        ("wall", "9"),
        ("break_station", "60"),
        ("service_temperature", "45 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "bending"),
        ("coating", "paint"),
        ("seen", "painted"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("quadrant"), "mark");
    told.tried("punch", "raises_rim", Confidence::Sure);
    told.tried("drill", "short_curls", Confidence::Sure);
    told.tried("file", "bites", Confidence::Sure);
    told.marked("GTS 35", "on the boss");
}

/// Refused for safety.
pub(super) fn winch_hook(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Lock paddle winch hook"),
        ("owner", "Canal society"),
        ("family", "loaded_moving"),
        ("era", "unknown"),
        ("mass", "3.4 kg"),
        ("wall", "18"),
        ("safety_class", "lifting"),
    ]);
}

/// Finished, with its record.
pub(super) fn points_lever(told: &mut SampleJob<'_>) {
    told.part(&[
        ("name", "Incline railway points lever"),
        ("owner", "Slate tramway museum"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "7.6 kg"),
        ("length", "340"),
        ("width", "95"),
        ("height", "70"),
        ("shape", "solid_block"),
        ("wall", "12"),
        ("break_station", "45"),
        ("service_temperature", "30 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("old_filler", "none"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("lever-before"), "before");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    let crack = told.crack(&[("wall", "12"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]);
    let front = told.face("front", "340", "95");
    told.draw(crack, front, line(&[(150.0, 0.0), (150.0, 72.0)], None));
    told.set("heat.source", "kiln");
    told.set("method.choice", "torch_braze");
    told.set("cooling.packing", "blanket");
    let pivot = told.size(&[
        ("name", "pivot bore"),
        ("kind", "bore"),
        ("nominal", "22"),
        ("tolerance", "0.05"),
        ("before", "22.02"),
    ]);
    let pins = told.size(&[
        ("name", "pivot to pin"),
        ("kind", "distance"),
        ("nominal", "260"),
        ("tolerance", "0.3"),
        ("before", "260.1"),
    ]);
    told.draw(pivot, front, Shape::Place { x_mm: 282.0, y_mm: 47.5 });
    told.draw(pins, front, Shape::Place { x_mm: 22.0, y_mm: 47.5 });
    told.wait(15);
    told.heat(3);
    told.cover(60 * 20);
    told.unwrap();
    told.wait(90);
    told.set(&mark_key(pivot, "cold"), "21.88");
    told.set(&mark_key(pivot, "by"), "shop");
    told.set(&mark_key(pins, "cold"), "259.9");
    for line in ["check.clean", "check.cracks_again"] {
        told.set(line, "ok");
    }
    let toes = |side| CheckPlace { what: CheckWhat::Toes, at: Some(crack), side };
    told.looked(toes(Some(1)), Found::Good, "", None);
    let pores = told.looked(toes(Some(2)), Found::Pore, "1.2", Some(2));
    told.taken_of(Some(pores), drawn!("lever-pores"));
    let straight = CheckPlace { what: CheckWhat::Alignment, at: None, side: None };
    told.looked(straight, Found::OutOfLine, "0.3", None);
    for line in told.plan().finish.lines.into_iter().filter(|line| !line.done) {
        told.say(Change::Tick { step: line.step, done: true });
    }
    told.set(&mark_key(pivot, "after"), "22.01");
    told.taken(drawn!("lever-after"), "after");
    told.set("hand_over.expect", "Paint it when it is dry. Grease the pivot; do not hammer the pin home.");
    told.set("hand_over.follow_up", "2027-04-12");
    told.set("hand_over.done", "yes");
}
