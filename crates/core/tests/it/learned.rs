//! A shop learns how strong its torch is, and how leaky its packing, from what it heats.

use crate::common::{Bench, LIT_AT, covered, plan};
use rstest::rstest;
use vanadin_core::heat::{
    Bar, BarPower, FactorOf, OwnFactor, Packing, ThermalBody, UNWRAP_C, Wrapping, cool_scaled, own_factor,
};
use vanadin_core::job::{Change, Reading, TorchEntry};
use vanadin_core::plan::Asks;
use vanadin_core::quantity::{Celsius, Watts};

/// What the shop's torch and packing really do, against the book.
const TORCH: f64 = 0.75;
const PACKING: f64 = 1.3;

/// One of the parts that come in: heavier and lighter, of several sizes.
fn part(number: usize) -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    let kg = [8.0, 11.0, 14.0, 9.5, 12.5][number % 5] + (number / 5) as f64 * 0.4;
    bench.set("part.mass", &format!("{kg} kg"));
    bench.set("part.length", &format!("{}", 320 + 20 * (number % 4)));
    bench.set("method.choice", "arc_nickel_iron");
    bench.set("method.school", "hot");
    bench.set("heat.source", "weed_burner");
    bench.set("cooling.packing", "blanket");
    bench
}

/// The bar as this shop's torch really heats it.
fn really(power: BarPower) -> BarPower {
    let BarPower::Flame { even, local, station, covered } = power else { panic!("a flame") };
    let weaker = |watts: Watts| Watts::new(watts.watts() * TORCH).unwrap();
    BarPower::Flame { even: weaker(even), local: weaker(local), station, covered }
}

/// Readings each two minutes until the coldest place is at its target; and when.
fn heats(body: &ThermalBody, power: BarPower, target_c: f64) -> (Vec<Reading>, f64) {
    let mut bar = Bar::new(body, really(power), body.ambient);
    let mut readings = Vec::new();
    let mut seconds = 0;
    while bar.coldest_c() < target_c {
        bar.step(2.0);
        seconds += 2;
        if seconds % 120 == 0 {
            readings.push(Reading { minutes: f64::from(seconds) / 60.0, celsius: bar.coldest_c() });
        }
        assert!(seconds < 6 * 3600, "it never gets there");
    }
    let minutes = f64::from(seconds) / 60.0;
    readings.push(Reading { minutes, celsius: bar.coldest_c() });
    (readings, minutes)
}

struct Really {
    heating_min: f64,
    unwrap_h: f64,
    planned_min: f64,
    planned_unwrap_h: f64,
    learned: Vec<OwnFactor>,
}

/// A job from lighting up to unwrapping, in a shop that has learned so much.
fn job(number: usize, learned: &[OwnFactor]) -> Really {
    let mut bench = part(number);
    bench.shop.learned = learned.to_vec();
    let before = bench.plan();
    let heat = before.heat.clone().unwrap();
    assert!(heat.reached, "{}", heat.sentence);
    let body = before.casting(&bench.job(), &bench.shop).unwrap();
    let (_, power) = heat.bar(&body, 0.4, false).unwrap();
    let (mut readings, heating_min) = heats(&body, power, heat.target_c);
    bench.light();
    let at = |minutes: f64| LIT_AT + (minutes * 1000.0) as i64;
    let bead = heating_min + heat.soak_minutes;
    bench.try_say(Change::Torch { entry: TorchEntry::Bead { at: None } }, at(bead), None).unwrap();
    let covered_min = bead + 5.0;
    let start_c = heat.target_c;
    readings.push(Reading { minutes: covered_min, celsius: start_c });
    bench.try_say(Change::Torch { entry: covered() }, at(covered_min), None).unwrap();
    let packed = Wrapping::usual(Packing::Blanket);
    let cooling = cool_scaled(&body, Celsius::new(start_c).unwrap(), &packed, PACKING);
    let unwrap_h = cooling.hours_to(UNWRAP_C).unwrap();
    let mut hours = 0.25;
    while hours < unwrap_h {
        let celsius = cooling.after_hours(hours).unwrap();
        readings.push(Reading { minutes: covered_min + hours * 60.0, celsius });
        hours += 0.25;
    }
    let unwrapped = at(covered_min + unwrap_h * 60.0);
    bench.try_say(Change::Torch { entry: TorchEntry::Unwrapped }, unwrapped, None).unwrap();
    let mut done = bench.job();
    // Named as it was lit: each lighting is one of its own.
    let first = done.rounds[0].lit.as_mut().unwrap();
    first.fact = uuid::Uuid::from_u128(number as u128 + 1_000_000);
    done.rounds[0].readings = readings;
    let after = plan(&done, &bench.shop);
    let asks = Asks::of(&done, &after, &bench.facts, &bench.shop);
    // As it would be planned from where it was really covered.
    let book_start = before.cooling.as_ref().unwrap();
    let planned = cool_scaled(
        &body,
        Celsius::new(start_c).unwrap(),
        &packed,
        own_factor(learned, &FactorOf::Packing { packing: Packing::Blanket }).0,
    );
    assert!(!book_start.cold);
    Really {
        heating_min,
        unwrap_h,
        planned_min: heat.minutes,
        planned_unwrap_h: planned.hours_to(UNWRAP_C).unwrap(),
        learned: asks.learned,
    }
}

#[test]
fn after_twenty_jobs_a_weak_torch_and_a_leaky_packing_are_planned_within_a_tenth() {
    let mut learned: Vec<OwnFactor> = Vec::new();
    let first = job(0, &learned);
    assert!(
        first.planned_min < 0.85 * first.heating_min,
        "the book is far off: {} {}",
        first.planned_min,
        first.heating_min
    );
    for number in 0..20 {
        let done = job(number, &learned);
        assert_eq!(done.learned.len(), 2, "{:?}", done.learned);
        learned.extend(done.learned);
    }
    let factor = |what: FactorOf| own_factor(&learned, &what);
    // Hand-worked: (4 + 20 x 0.75) / 24, (4 + 20 x 1.3) / 24
    let (torch, count) = factor(FactorOf::Source { id: "weed_burner".to_owned() });
    assert!((torch - 0.7917).abs() < 0.005 && count == 20, "{torch} {count}");
    let (packing, count) = factor(FactorOf::Packing { packing: Packing::Blanket });
    assert!((packing - 1.25).abs() < 0.01 && count == 20, "{packing} {count}");
    for number in 20..25 {
        let next = job(number, &learned);
        let off = |planned: f64, really: f64| (planned / really - 1.0).abs();
        assert!(off(next.planned_min, next.heating_min) < 0.1, "{} {}", next.planned_min, next.heating_min);
        assert!(
            off(next.planned_unwrap_h, next.unwrap_h) < 0.1,
            "{} {}",
            next.planned_unwrap_h,
            next.unwrap_h
        );
    }
}

#[test]
fn what_was_learned_is_said_and_moves_the_plan_and_narrows_it() {
    let mut bench = part(0);
    let book = bench.plan();
    let own = |factor, what: FactorOf| OwnFactor { lit: uuid::Uuid::nil(), name: "Lug".into(), what, factor };
    let source = FactorOf::Source { id: "weed_burner".to_owned() };
    bench.shop.learned = vec![own(0.6, source.clone()); 4];
    bench.shop.learned.extend(vec![own(1.4, FactorOf::Packing { packing: Packing::Blanket }); 4]);
    let here = bench.plan();
    let (heat, as_booked) = (here.heat.as_ref().unwrap(), book.heat.as_ref().unwrap());
    assert!(heat.minutes > as_booked.minutes);
    assert!(heat.learned.contains("20 % less than usual, by 4 heatings here"), "{}", heat.learned);
    assert_eq!(as_booked.learned, "");
    let (cooling, as_packed) = (here.cooling.as_ref().unwrap(), book.cooling.as_ref().unwrap());
    assert!(cooling.unwrap_hours < as_packed.unwrap_hours, "leakier cools sooner");
    assert!(cooling.learned.contains("20 % more than usual, by 4 coolings here"), "{}", cooling.learned);
    // Hand-worked: 0.3 sqrt(4 / (4 + 4))
    assert!(
        (heat.good_to - 0.2121).abs() < 1e-4 && as_booked.good_to == 0.3,
        "what was read is known better"
    );
    let minutes = here.figure("heat.minutes").unwrap();
    assert!((minutes.high.unwrap() / minutes.value - 1.2121).abs() < 1e-4);
}

#[test]
fn a_packing_that_leaked_on_other_jobs_does_not_make_a_part_cold_sooner() {
    let mut bench = part(0);
    bench.light();
    bench.try_say(Change::Torch { entry: covered() }, LIT_AT + 60_000, None).unwrap();
    let latest = |bench: &Bench| bench.plan().last_heat.unwrap().touch_at_the_latest_min.unwrap();
    let book = latest(&bench);
    let own = |factor| OwnFactor {
        lit: uuid::Uuid::nil(),
        name: "Lug".into(),
        what: FactorOf::Packing { packing: Packing::Blanket },
        factor,
    };
    bench.shop.learned = vec![own(1.8); 20];
    assert_eq!(latest(&bench), book, "hot until the slow end of the book");
    bench.shop.learned = vec![own(0.6); 20];
    assert!(latest(&bench) > book, "a tighter one keeps it hot longer");
}

#[rstest]
#[case::nothing_read(&[])]
#[case::it_hardly_rose(&[(5.0, 25.0), (10.0, 40.0)])]
#[case::one_reading(&[(30.0, 320.0)])]
fn what_says_nothing_of_the_flame_is_not_learned(#[case] readings: &[(f64, f64)]) {
    let mut bench = part(0);
    bench.light();
    bench.try_say(Change::Torch { entry: covered() }, LIT_AT + 60_000, None).unwrap();
    let mut job = bench.job();
    job.rounds[0].readings =
        readings.iter().map(|&(minutes, celsius)| Reading { minutes, celsius }).collect();
    let plan = plan(&job, &bench.shop);
    assert!(plan.learned.is_empty(), "{:?}", plan.learned);
}

#[test]
fn while_it_burns_and_while_it_cools_nothing_is_learned_yet() {
    let mut bench = part(0);
    bench.light();
    let rising = [(10.0, 120.0), (20.0, 210.0), (30.0, 280.0)];
    let with = |bench: &Bench| {
        let mut job = bench.job();
        job.rounds[0].readings = rising.map(|(minutes, celsius)| Reading { minutes, celsius }).to_vec();
        plan(&job, &bench.shop).learned
    };
    assert!(with(&bench).is_empty());
    bench.try_say(Change::Torch { entry: covered() }, LIT_AT + 31_000, None).unwrap();
    let learned = with(&bench);
    assert_eq!(learned.len(), 1, "the heating is over, the cooling is not");
    assert!(matches!(learned[0].what, FactorOf::Source { .. }));
}
