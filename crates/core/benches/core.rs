//! The computations that run while somebody waits. Read them as ratios: machines are noisy.

use divan::{Bencher, black_box};
use uuid::Uuid;
use vanadin_core::body::{
    BodyHeating, Boundary, FaceModel, Flame, FlatBody, Force, Hole, Loading, Pace, carried, pulled,
};
use vanadin_core::heat::{
    BarPower, BeadPass, BeadSeam, BeadWork, Packing, ReadAt, ThermalBody, WallEnds, Wrapping, bead_order,
    ceiling_c, cool, cooling_fit, heat_for,
};
use vanadin_core::iron::{Confidence, Era, Evidence, Family, Finding, Iron, LookTest, MeasuredTest, confirm};
use vanadin_core::ledger::{Said, wall};
use vanadin_core::map::{At, GrayPicture, Line, traced};
use vanadin_core::method::{MethodId, OwnRepair, Variant};
use vanadin_core::quantity::{Celsius, Kilograms, Millimetres, Seconds, UnitSystem, Watts};

fn main() {
    divan::main();
}

fn body(kg: f64, size_mm: [f64; 3]) -> ThermalBody {
    let [length, width, height] = size_mm.map(|mm| Millimetres::new(mm).expect("a size"));
    let ambient = Celsius::new(20.0).expect("a temperature");
    let mass = Kilograms::new(kg).expect("a mass");
    ThermalBody::new(Iron::Gray.properties(), mass, (length, width, height), 1.0, ambient).expect("a body")
}

/// Aim: under 2 ms.
#[divan::bench]
fn an_hour_of_the_bar_model(bencher: Bencher<'_, '_>) {
    let body = body(22.0, [420.0, 300.0, 220.0]);
    let watts = |w| Watts::new(w).expect("a power");
    let power = BarPower::Flame { even: watts(4000.0), local: watts(4050.0), station: 0.25, covered: 0.0 };
    let hour = Seconds::new(3600.0).expect("a time");
    bencher.bench(|| heat_for(black_box(&body), power, hour));
}

#[divan::bench]
fn the_ceiling_of_a_source(bencher: Bencher<'_, '_>) {
    let body = body(22.0, [420.0, 300.0, 220.0]);
    let watts = |w| Watts::new(w).expect("a power");
    let power = BarPower::Flame { even: watts(4000.0), local: watts(4050.0), station: 0.25, covered: 0.0 };
    bencher.bench(|| ceiling_c(black_box(&body), power));
}

/// Aim: under 10 ms for 48 h. This part takes a little longer than that.
#[divan::bench]
fn a_cooling_curve_of_48_hours(bencher: Bencher<'_, '_>) {
    let body = body(100.0, [600.0, 300.0, 200.0]);
    let start = Celsius::new(600.0).expect("a temperature");
    let wrapping = Wrapping::usual(Packing::Vermiculite);
    let hours = cool(&body, start, &wrapping).hours_to(45.0);
    assert!(hours.is_some_and(|hours| (48.0..60.0).contains(&hours)), "{hours:?}");
    bencher.bench(|| cool(black_box(&body), start, &wrapping));
}

/// Aim: under 20 µs.
#[divan::bench]
fn the_belief_with_every_test_done(bencher: Bencher<'_, '_>) {
    let mut evidence: Vec<Evidence> = LookTest::ALL
        .into_iter()
        .map(|test| Evidence {
            finding: Finding::Look { test, outcome: &test.outcomes()[0] },
            confidence: Confidence::Fair,
            spot: Evidence::FIRST_SPOT.to_owned(),
        })
        .collect();
    for (test, typed) in [
        (MeasuredTest::Sound, [("set_speed", "5920"), ("caliper", "14"), ("shown", "14.9")].as_slice()),
        (MeasuredTest::Density, &[("in_air", "3.4"), ("in_water", "2.93"), ("water", "18")]),
        (MeasuredTest::Mark, &[("mark", "EN-GJS-400-15")]),
    ] {
        let typed = typed.iter().map(|(key, text)| ((*key).to_owned(), (*text).to_owned())).collect();
        let measured = test.measure(&typed, UnitSystem::Metric).expect("typed as a person would");
        evidence.push(Evidence {
            finding: measured.finding,
            confidence: Confidence::Fair,
            spot: Evidence::FIRST_SPOT.to_owned(),
        });
    }
    bencher.bench(|| confirm(Family::PumpValve, Era::Unknown, true, black_box(&evidence)));
}

/// Aim: under 100 ms for 2000 x 1500 points.
#[divan::bench]
fn a_crack_traced_across_a_large_picture(bencher: Bencher<'_, '_>) {
    let (width, height) = (2000, 1500);
    let way = |x: f64| 750.0 + 240.0 * (x / 210.0).sin();
    let values: Vec<u8> = (0..width * height)
        .map(|at| {
            let (x, y) = ((at % width) as f64, (at / width) as f64);
            let off = y - way(x);
            let grain = f64::from((at as u32).wrapping_mul(2_654_435_761) >> 27);
            (150.0 + grain + 14.0 * ((0.55 * x + 0.83 * y) * 0.7).sin() - 60.0 * (-off * off / 2.5).exp())
                as u8
        })
        .collect();
    let picture = GrayPicture::new(width, height, &values).expect("a picture");
    let ends = [20.0, 1980.0].map(|x| [x, way(x)]);
    let line = traced(picture, ends[0], ends[1], Line::Dark).expect("both ends lie in it");
    assert!(line.iter().all(|[x, y]| (y - way(*x)).abs() < 8.0), "it follows the line");
    bencher.bench(|| traced(black_box(picture), ends[0], ends[1], Line::Dark));
}

/// A seam between two tips on a body, filled cold.
fn cold_seam((length_mm, wall_mm, layers): (f64, f64, u32), body: ThermalBody) -> BeadWork {
    let seam = BeadSeam {
        length_mm,
        bead_mm: 25.0,
        wall_mm,
        closed: [true, true],
        ends: WallEnds::default(),
        passes: (1..=layers).map(|layer| BeadPass { layer, side: 1, offsets_mm: vec![0.0] }).collect(),
        left_out: std::collections::BTreeSet::new(),
        power_w: 1320.0,
        travel_mm_s: 2.5,
        hole_of: None,
    };
    BeadWork {
        body,
        least_c: 15.0,
        most_c: 65.0,
        reheat_w: None,
        bare_share: 1.0,
        held: false,
        one_after_another: false,
        seams: vec![seam],
    }
}

/// Aim: under 20 ms for 200 beads.
#[divan::bench]
fn the_order_of_200_beads(bencher: Bencher<'_, '_>) {
    let work = cold_seam((1000.0, 14.0, 5), body(40.0, [1100.0, 300.0, 60.0]));
    assert_eq!(work.seams[0].beads(), 200);
    bencher.bench(|| bead_order(black_box(&work), 20.0, &[]));
}

/// A crack of a hand's length: what each way of a plan is put in order for.
#[divan::bench]
fn the_order_of_36_beads(bencher: Bencher<'_, '_>) {
    let work = cold_seam((300.0, 12.0, 3), body(22.0, [420.0, 300.0, 220.0]));
    assert_eq!(work.seams[0].beads(), 36);
    bencher.bench(|| bead_order(black_box(&work), 20.0, &[]));
}

/// Aim: under 60 ms.
#[divan::bench]
fn a_cooling_fitted_to_200_readings(bencher: Bencher<'_, '_>) {
    let body = body(22.0, [420.0, 300.0, 220.0]);
    let start = Celsius::new(330.0).expect("a temperature");
    let wrapping = Wrapping::usual(Packing::Vermiculite);
    let shown = cool(&body, start, &wrapping);
    let readings: Vec<ReadAt> = (1..=200)
        .map(|at| f64::from(at) * 2.0)
        .filter_map(|minutes| Some(ReadAt { minutes, celsius: shown.after_hours(minutes / 60.0)? }))
        .collect();
    assert_eq!(readings.len(), 200);
    bencher.bench(|| cooling_fit(black_box(&body), start, &wrapping, &readings));
}

/// Three thousand repairs asked about, as the ledger draws them.
#[divan::bench]
fn the_wall_of_3000_repairs(bencher: Bencher<'_, '_>) {
    let ways = [MethodId::TorchBraze, MethodId::ArcNickelIron, MethodId::Stitch, MethodId::GasIron];
    let repair = |at: u32| OwnRepair {
        job: Uuid::from_u128(u128::from(at)),
        lit: Uuid::from_u128(u128::from(at)),
        name: format!("Lever {at}"),
        method: ways[at as usize % ways.len()],
        variant: Variant::Usual.id().to_owned(),
        iron: Iron::Gray,
        days: f64::from(30 + at % 700),
        became: if at.is_multiple_of(5) { "failed" } else { "holds" }.to_owned(),
        // What burdened them lies in few heaps.
        shift: -0.05 * f64::from(at % 20),
        given: Some(0.6 + 0.02 * f64::from(at % 17)),
        handed: None,
        how: None,
    };
    let repairs: Vec<OwnRepair> = (0..3_000).map(repair).collect();
    let left_out = std::collections::BTreeMap::new();
    bencher.bench(|| {
        let all = Said { repairs: &repairs, ..Said::nothing(&left_out) };
        wall(&all, UnitSystem::Metric)
    });
}

/// A frame 400 x 300 with a crack closed in and one from its window.
fn frame() -> FlatBody {
    let at = |(x, y): (f64, f64)| At::new(x, y);
    let window = [(50.0, 50.0), (350.0, 50.0), (350.0, 250.0), (50.0, 250.0)].map(at);
    FlatBody {
        iron: Iron::Gray.properties(),
        outline: [(0.0, 0.0), (400.0, 0.0), (400.0, 300.0), (0.0, 300.0)].map(at).to_vec(),
        holes: vec![Hole::Outlined(window.to_vec())],
        wall_mm: 20.0,
        thick: Vec::new(),
        cracks: vec![
            [(120.0, 25.0), (160.0, 25.0)].map(at).to_vec(),
            [(250.0, 250.0), (250.0, 275.0)].map(at).to_vec(),
        ],
    }
}

/// Aim: 100 ms for mesh, thirty steps and three tips.
#[divan::bench]
fn a_drawn_face_heated_in_thirty_steps(bencher: Bencher<'_, '_>) {
    let flame = Flame { at: At::new(200.0, 25.0), power_w: 2200.0, even_share: 0.2, spot_mm: 75.0 };
    let pace = Pace { looks_s: 90.0, ..Pace::EVEN };
    let heating = BodyHeating { pace, ..BodyHeating::new(20.0, 15.0, vec![flame]) };
    bencher.bench(|| {
        let model = FaceModel::of(black_box(frame())).expect("a face");
        model.heated(&heating).last()
    });
}

/// A frame so much smaller that its mesh has some 2,000 nodes, with a crack of two tips.
fn frame_of_two_thousand_nodes() -> FlatBody {
    let at = |(x, y): (f64, f64)| At::new(x, y);
    let window = [(50.0, 50.0), (290.0, 50.0), (290.0, 210.0), (50.0, 210.0)].map(at);
    FlatBody {
        outline: [(0.0, 0.0), (340.0, 0.0), (340.0, 260.0), (0.0, 260.0)].map(at).to_vec(),
        holes: vec![Hole::Outlined(window.to_vec())],
        cracks: frame().cracks[..1].to_vec(),
        ..frame()
    }
}

/// Aim: 100 ms; 2,000 nodes, two tips.
#[divan::bench]
fn a_drawn_face_of_two_tips_heated_in_thirty_steps(bencher: Bencher<'_, '_>) {
    let flame = Flame { at: At::new(200.0, 25.0), power_w: 2200.0, even_share: 0.2, spot_mm: 75.0 };
    let pace = Pace { looks_s: 90.0, ..Pace::EVEN };
    let heating = BodyHeating { pace, ..BodyHeating::new(20.0, 15.0, vec![flame]) };
    let piece = frame_of_two_thousand_nodes();
    let nodes = FaceModel::of(piece.clone()).expect("a face").evenly(20.0).len();
    assert!((1_950..2_150).contains(&nodes), "{nodes} nodes");
    bencher.bench(|| {
        let model = FaceModel::of(black_box(piece.clone())).expect("a face");
        model.heated(&heating).last()
    });
}

/// The same once it is laid out: another flame on it.
#[divan::bench]
fn another_flame_on_the_same_face(bencher: Bencher<'_, '_>) {
    let flame = Flame { at: At::new(200.0, 275.0), power_w: 2200.0, even_share: 0.2, spot_mm: 75.0 };
    let heating = BodyHeating::new(20.0, 15.0, vec![flame]);
    let model = FaceModel::of(frame()).expect("a face");
    bencher.bench(|| model.heated(black_box(&heating)).last());
}

/// Aim: 30 ms.
#[divan::bench]
fn what_a_seam_of_a_drawn_face_pulls(bencher: Bencher<'_, '_>) {
    let piece = frame();
    let pair = [(At::new(100.0, 10.0), At::new(100.0, 40.0))];
    bencher.bench(|| pulled(black_box(&piece), 0.15, &pair));
}

/// Aim: 30 ms.
#[divan::bench]
fn what_a_drawn_face_carries(bencher: Bencher<'_, '_>) {
    let piece = frame();
    let edge = |x: f64| Boundary::Along((At::new(x, 0.0), At::new(x, 300.0)));
    let loading =
        Loading { held: vec![edge(0.0)], forces: vec![Force { at: edge(400.0), x_n: 0.0, y_n: 2000.0 }] };
    let seam = [vec![At::new(140.0, 0.0), At::new(140.0, 50.0)]];
    bencher.bench(|| carried(black_box(&piece), &loading, &seam));
}
