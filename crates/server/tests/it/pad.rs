//! The simulated pad on the sample's hot job.

use std::sync::LazyLock;

use vanadin::sample_jobs;
use vanadin_core::field::{FieldState, FieldValue};
use vanadin_core::heat::TOUCH_C;
use vanadin_core::job::{Job, Reading, TorchEntry};
use vanadin_core::plan::plan;
use vanadin_core::shop::Shop;
use vanadin_core::simulated_thermocouple::Pad;

const NOW_MS: i64 = 1_800_000_000_000;

/// The sample's hot job as it was when it was lit, with the first `keep` of its torch entries.
fn lit_job(keep: usize) -> (Shop, Job) {
    static SAMPLE: LazyLock<(Shop, Vec<Job>)> = LazyLock::new(|| sample_jobs(NOW_MS).unwrap());
    let (shop, jobs) = &*SAMPLE;
    let mut job = jobs.iter().find(|job| job.name().contains("Letterpress")).unwrap().clone();
    let round = job.rounds.last_mut().unwrap();
    round.log.truncate(keep);
    round.readings.clear();
    (shop.clone(), job)
}

fn pad(shop: &Shop, job: &Job) -> Pad {
    Pad::on(job, &plan(job, shop), shop).expect("a hot part has a pad")
}

#[test]
fn a_reading_is_stored_each_ten_seconds_of_job_time() {
    let (shop, job) = lit_job(0);
    let readings = pad(&shop, &job).advance_to(3.0);
    let minutes: Vec<f64> = readings.iter().map(|reading| (reading.minutes * 60.0).round()).collect();
    assert_eq!(minutes, (1..=18).map(|n| f64::from(n) * 10.0).collect::<Vec<_>>());
}

#[test]
fn it_heats_into_the_window_and_stays_there() {
    let (shop, job) = lit_job(0);
    let mut pad = pad(&shop, &job);
    let readings = pad.advance_to(120.0);
    let (low, high) = plan(&job, &shop).torch.and_then(|torch| torch.window).expect("a hot way has a window");
    let reached = readings.iter().position(|r| r.celsius >= low).expect("it gets there");
    let after = &readings[reached + 30..];
    assert!(after.iter().all(|r| r.celsius > low - 5.0 && r.celsius < high), "{after:?}");
}

#[test]
fn after_a_restart_it_goes_on_from_the_last_stored_reading() {
    let (shop, mut job) = lit_job(0);
    let before = pad(&shop, &job).advance_to(10.0);
    let last = *before.last().unwrap();
    job.rounds.last_mut().unwrap().readings = before;
    let after = pad(&shop, &job).advance_to(11.0);
    assert!(after[0].minutes > last.minutes);
    assert!((after[0].celsius - last.celsius).abs() < 15.0, "{last:?} then {:?}", after[0]);
}

#[test]
fn after_a_restart_the_packing_is_as_warm_as_it_was() {
    let (shop, mut job) = lit_job(usize::MAX);
    let covered = job.round().covered_minutes().expect("the sample is covered");
    let mut before = pad(&shop, &job);
    job.rounds.last_mut().unwrap().readings = before.advance_to(covered + 240.0);
    let mut after = pad(&shop, &job);
    let (before, after) = (before.advance_to(covered + 300.0), after.advance_to(covered + 300.0));
    let (before, after) = (before.last().unwrap(), after.last().unwrap());
    // The noise of the reading it goes on from, and no more: cold packing takes 20 K at once.
    assert!((before.celsius - after.celsius).abs() < 2.5, "{before:?} and {after:?}");
}

#[test]
fn covered_it_cools_until_it_may_be_touched_and_the_pad_comes_off() {
    let (shop, job) = lit_job(usize::MAX);
    let covered = job.round().covered_minutes().expect("the sample is covered");
    let mut pad = pad(&shop, &job);
    let readings = pad.advance_to(covered + 20.0 * 60.0);
    let cooling: Vec<&Reading> = readings.iter().filter(|r| r.minutes > covered + 30.0).collect();
    assert!(cooling.windows(180).all(|half_hour| half_hour[179].celsius < half_hour[0].celsius));
    assert!(pad.finished() && cooling.last().unwrap().celsius < TOUCH_C + 1.0);
    let plan = plan(&job, &shop);
    assert!(Pad::on(&job, &plan, &shop).is_some(), "a fresh pad finds it hot until it has run");
}

#[test]
fn uncovered_after_all_it_goes_on_from_what_it_cooled_to() {
    let (shop, job) = lit_job(usize::MAX);
    let covered = job.round().covered_minutes().expect("the sample is covered");
    let mut cooling = pad(&shop, &job);
    cooling.advance_to(covered + 120.0);
    let cooled = cooling.true_c();
    let mut struck = job.clone();
    for entry in &mut struck.rounds.last_mut().unwrap().log {
        if matches!(entry.entry, TorchEntry::Covered { .. }) {
            entry.struck = Some("not yet".to_owned());
        }
    }
    let mut again = pad(&shop, &struck).going_on_from(cooling);
    assert!((again.true_c() - cooled).abs() < 1.0, "{} after {cooled}", again.true_c());
    again.advance_to(covered + 150.0);
    assert!(again.true_c() > cooled, "the flame is on it again");
}

#[test]
fn nothing_is_made_up_for_a_part_that_was_away_for_days() {
    let (shop, job) = lit_job(usize::MAX);
    let mut pad = pad(&shop, &job);
    assert!(pad.advance_to(5.0 * 24.0 * 60.0).is_empty());
}

#[test]
fn a_stitched_part_has_no_pad() {
    let (shop, mut job) = lit_job(0);
    if let Some(lit) = &mut job.rounds.last_mut().unwrap().lit {
        lit.frozen = None;
    }
    let lit = job.round().lit.clone();
    let held = |text: &str| FieldState {
        typed: text.to_owned(),
        value: Some(FieldValue::One(text.to_owned())),
        revision: 1,
        not_understood: String::new(),
    };
    job.rounds.last_mut().unwrap().values.insert("method.choice".to_owned(), held("stitch"));
    assert!(lit.is_some() && Pad::on(&job, &plan(&job, &shop), &shop).is_none());
}
