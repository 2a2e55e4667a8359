//! What holds for every hole, groove, row of pins, heating and cooling, whatever the numbers.

use proptest::prelude::*;
use rstest::rstest;
use vanadin_core::crack::stop_hole::{FoundBy, ORDINARY_DRILLS_MM, stop_hole};
use vanadin_core::heat::{
    Bar, BarPower, Packing, ThermalBody, Wrapping, ceiling_c, cool, cool_scaled, energy_joules, heat_for,
};
use vanadin_core::iron::Iron;
use vanadin_core::pins::rows::{StitchOutline, StitchRow, crack_order};
use vanadin_core::prep::drill_speed::{DrillTool, drill_speed_rpm};
use vanadin_core::prep::filler::hole_volume_cm3;
use vanadin_core::prep::groove::{Groove, GrooveForm};
use vanadin_core::quantity::{Celsius, Kilograms, Millimetres, Seconds, WallMillimetres, Watts};

const FOUND: [FoundBy; 4] = [FoundBy::Eye, FoundBy::ChalkAndOil, FoundBy::Dye, FoundBy::Magnetic];

fn wall(mm: f64) -> WallMillimetres {
    WallMillimetres::new(mm).unwrap()
}

fn body(kg: f64, size_mm: [f64; 3], factor: f64) -> ThermalBody {
    let [l, w, h] = size_mm.map(|mm| Millimetres::new(mm).unwrap());
    ThermalBody::new(
        Iron::Gray.properties(),
        Kilograms::new(kg).unwrap(),
        (l, w, h),
        factor,
        Celsius::new(20.0).unwrap(),
    )
    .unwrap()
}

fn flame(even: f64, local: f64, station: f64) -> BarPower {
    let watts = |w| Watts::new(w).unwrap();
    BarPower::Flame { even: watts(even), local: watts(local), station, covered: 0.0 }
}

proptest! {
    #[test]
    fn a_stop_hole_catches_the_tip_or_says_that_it_does_not(mm in 1.0..300.0f64, found in 0..4usize) {
        let hole = stop_hole(wall(mm), FOUND[found], &[]);
        prop_assert!(ORDINARY_DRILLS_MM.contains(&hole.drill_mm));
        prop_assert!(hole.drill_mm >= (mm / 2.0).clamp(3.2, 9.5) - 1e-9, "at least the wanted diameter");
        // The crack still runs into the hole.
        prop_assert!(hole.offset_mm <= hole.drill_mm / 2.0 + 1e-9 && hole.offset_mm > 0.0);
        prop_assert_eq!(hole.find_tip_better, hole.run_past_chance > 0.020_01, "{:?}", hole);
        prop_assert_eq!(hole.pilot_mm.is_some(), hole.drill_mm >= 5.0);
    }

    #[test]
    fn a_tip_that_was_found_better_runs_past_less(mm in 1.0..300.0f64) {
        let chance = |found| stop_hole(wall(mm), found, &[]).run_past_chance;
        let chances = FOUND.map(chance);
        prop_assert!(chances[0] > chances[1] && chances[3] < 0.01, "{:?}", chances);
    }

    #[test]
    fn a_shops_own_drills_are_used_in_any_order(mut drills in prop::collection::vec(2.0..14.0f64, 1..9), mm in 1.0..40.0f64) {
        let hole = stop_hole(wall(mm), FoundBy::Dye, &drills);
        prop_assert!(drills.contains(&hole.drill_mm));
        drills.reverse();
        prop_assert_eq!(stop_hole(wall(mm), FoundBy::Dye, &drills), hole);
    }

    #[test]
    fn a_groove_grows_with_everything_that_widens_it(
        depth in 1.0..60.0f64, angle in 0.0..160.0f64, gap in 0.0..10.0f64, cap in 0.0..5.0f64, round in any::<bool>(),
    ) {
        let form = if round { GrooveForm::U { root_radius_mm: 3.0 } } else { GrooveForm::V };
        let area = |depth, angle, gap, cap| {
            Groove::new(form, wall(depth), angle, gap, cap).unwrap().section().area_mm2
        };
        let plain = area(depth, angle, gap, cap);
        prop_assert!(plain.is_finite() && plain >= 0.0);
        prop_assert!(area(depth + 1.0, angle, gap, cap) > plain - 1e-9);
        prop_assert!(area(depth, angle, gap + 1.0, cap) > plain);
        prop_assert!(area(depth, angle, gap, cap + 1.0) >= plain);
        // A root gap widens by itself times the depth, and the crown over it.
        let widened = area(depth, angle, gap + 1.0, 0.0) - area(depth, angle, gap, 0.0);
        prop_assert!((widened - depth).abs() < 1e-6, "{} is not {}", widened, depth);
    }

    #[test]
    fn the_width_at_the_face_is_the_width_of_the_section(depth in 3.0..60.0f64, angle in 10.0..120.0f64) {
        let groove = Groove::new(GrooveForm::U { root_radius_mm: 2.0 }, wall(depth), angle, 0.5, 1.0).unwrap();
        prop_assert!((groove.width_at(depth) - groove.section().top_width_mm).abs() < 1e-9);
        prop_assert!(groove.width_at(depth / 2.0) <= groove.width_at(depth) + 1e-9);
    }

    #[test]
    fn pins_fill_their_row_and_overlap_as_asked(length in 20.0..2000.0f64, pin in 4.0..16.0f64, overlap in 0.0..0.8f64) {
        let reach = pin * (1.0 - overlap);
        let straight = StitchRow::new(StitchOutline::Straight, length, pin, overlap).unwrap().pins();
        prop_assert!(straight.pitch_mm <= reach + 1e-6);
        let filled = straight.pitch_mm * f64::from(straight.pins - 1) + pin;
        prop_assert!((filled - length).abs() < 1e-6, "{} filled of {}", filled, length);
        // One pin fewer would not do.
        prop_assert!(straight.pins < 3 || (length - pin) / f64::from(straight.pins - 2) > reach - 1e-6);
        let closed = StitchRow::new(StitchOutline::Closed, length, pin, overlap).unwrap().pins();
        prop_assert!((closed.pitch_mm * f64::from(closed.pins) - length).abs() < 1e-6);
    }

    #[test]
    fn every_pin_goes_in_once_and_never_beside_the_one_before(pins in 5..200u32) {
        let order = crack_order(pins);
        let mut sorted = order.clone();
        sorted.sort_unstable();
        prop_assert_eq!(sorted, (1..=pins).collect::<Vec<_>>());
        prop_assert!(order.windows(2).all(|two| two[0].abs_diff(two[1]) >= 2));
    }

    #[test]
    fn a_larger_drill_turns_slower(mm in 1.0..20.0f64, iron in 0..6usize) {
        let rpm = |mm: f64| drill_speed_rpm(Iron::ALL[iron], Millimetres::new(mm).unwrap(), DrillTool::Hss);
        prop_assert!(rpm(mm) > rpm(mm * 1.1));
        // The edge runs at the same speed: rpm x diameter stays.
        prop_assert!((rpm(mm) * mm - rpm(2.0 * mm) * 2.0 * mm).abs() < 1e-6);
    }

    #[test]
    fn a_hole_of_twice_the_diameter_takes_four_times_the_filler(mm in 1.0..20.0f64, thick in 1.0..100.0f64) {
        prop_assert!((hole_volume_cm3(2.0 * mm, thick) - 4.0 * hole_volume_cm3(mm, thick)).abs() < 1e-9);
    }

    #[test]
    fn energy_is_the_same_by_one_way_or_two(kg in 0.1..500.0f64, low in -40.0..300.0f64, middle in 300.0..500.0f64, high in 500.0..700.0f64) {
        let iron = Iron::Ductile.properties();
        let celsius = |c| Celsius::new(c).unwrap();
        let joules = |from, to| energy_joules(&iron, Kilograms::new(kg).unwrap(), celsius(from), celsius(to));
        let (straight, stopover) = (joules(low, high), joules(low, middle) + joules(middle, high));
        prop_assert!((straight - stopover).abs() <= 1e-9 * straight.abs());
        prop_assert!(joules(high, low) < 0.0, "cooling gives it back");
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    #[test]
    fn the_bar_is_the_same_seen_from_its_other_end(station in 0.0..0.5f64, local in 100.0..4000.0f64) {
        let body = body(14.0, [420.0, 120.0, 90.0], 1.0);
        let time = Seconds::new(600.0).unwrap();
        let heat = |station| heat_for(&body, flame(500.0, local, station), time).bar;
        let (left, right) = (heat(station), heat(1.0 - station));
        prop_assert!((left.coldest_c() - right.coldest_c()).abs() < 1e-6);
        prop_assert!((left.hottest_c() - right.hottest_c()).abs() < 1e-6);
        prop_assert!((left.unevenness_k() - right.unevenness_k()).abs() < 1e-6);
    }

    #[test]
    fn more_power_is_never_colder_and_never_over_its_ceiling(even in 200.0..3000.0f64, more in 1.05..2.0f64) {
        let body = body(9.0, [300.0, 100.0, 80.0], 1.0);
        let time = Seconds::new(900.0).unwrap();
        let (weak, strong) = (flame(even, even, 0.3), flame(even * more, even * more, 0.3));
        let coldest = |power| heat_for(&body, power, time).bar.coldest_c();
        prop_assert!(coldest(strong) > coldest(weak));
        prop_assert!(coldest(weak) <= ceiling_c(&body, weak) + 0.01);
        prop_assert!(ceiling_c(&body, strong) > ceiling_c(&body, weak));
    }

    #[test]
    fn a_part_in_an_oven_is_even_and_never_hotter_than_it(oven in 100.0..1100.0f64, kg in 0.5..80.0f64) {
        let body = body(kg, [420.0, 120.0, 90.0], 1.3);
        let power = BarPower::Surroundings(Celsius::new(oven).unwrap());
        let bar = heat_for(&body, power, Seconds::new(3600.0).unwrap()).bar;
        prop_assert!(bar.hottest_c() <= oven + 1e-6 && bar.coldest_c() >= 20.0);
        prop_assert!(bar.unevenness_k() < 1e-6);
    }

    #[test]
    fn a_bead_puts_its_energy_where_it_is_laid(joules in 1000.0..50_000.0f64, station in 0.0..1.0f64) {
        let body = body(9.0, [300.0, 100.0, 80.0], 1.0);
        let mut bar = Bar::new(&body, flame(0.0, 0.0, 0.5), body.ambient);
        let before = bar.mean_c();
        bar.strike(station, joules);
        // Hand-worked: one cell of forty takes it all: m / 40 x c (20) x rise
        let rise = joules / (9.0 / 40.0 * (418.75 + 0.375 * 20.0));
        prop_assert!((bar.at_c(station) - 20.0 - rise).abs() < 1e-6);
        prop_assert!((bar.mean_c() - before - rise / 40.0).abs() < 1e-6);
    }

    #[test]
    fn a_part_cools_between_its_start_and_the_shop(kg in 0.5..80.0f64, start in 70.0..700.0f64, packing in 0..7usize) {
        let packing = Packing::from_id(Packing::CHOICES[packing].0).unwrap();
        let body = body(kg, [420.0, 200.0, 120.0], 1.0);
        let cooling = cool(&body, Celsius::new(start).unwrap(), &Wrapping::usual(packing));
        let curve = cooling.curve(200, 45.0);
        prop_assert!(curve.windows(2).all(|two| two[1].1 <= two[0].1 + 1e-9 && two[1].0 >= two[0].0));
        prop_assert!(curve[0].1 == start && curve.last().unwrap().1 >= 19.999);
        prop_assert!(cooling.fastest_k_per_h() >= 0.0);
        if let (Some(unwrap), Some(touch)) = (cooling.hours_to(65.0), cooling.hours_to(45.0)) {
            prop_assert!(unwrap < touch);
            let at = cooling.after_hours(unwrap).unwrap();
            prop_assert!((at - 65.0).abs() < 0.01, "{}", at);
        }
    }

    #[test]
    fn a_packing_that_loses_less_cools_slower(kg in 2.0..60.0f64, loss in 0.5..0.95f64) {
        let body = body(kg, [420.0, 200.0, 120.0], 1.0);
        let start = Celsius::new(350.0).unwrap();
        let wrap = Wrapping::usual(Packing::Vermiculite);
        let hours = |loss| cool_scaled(&body, start, &wrap, loss).hours_to(65.0);
        if let (Some(book), Some(slower)) = (hours(1.0), hours(loss)) {
            prop_assert!(slower > book);
        }
    }
}

#[rstest]
// Published: the trade reference, "How well the tip is known"
#[case::eye(FoundBy::Eye, (4.0, 3.0))]
#[case::chalk_and_oil(FoundBy::ChalkAndOil, (1.5, 1.5))]
#[case::dye(FoundBy::Dye, (0.7, 0.8))]
#[case::magnetic(FoundBy::Magnetic, (0.3, 0.6))]
fn a_tip_lies_beyond_what_was_seen(#[case] found: FoundBy, #[case] beyond: (f64, f64)) {
    assert_eq!(found.beyond_mm(), beyond);
}
