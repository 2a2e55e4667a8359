//! The whole plan of the sample shop's jobs, the largest of them by its cracks.

use divan::{Bencher, black_box};
use uuid::Uuid;
use vanadin::sample_jobs;
use vanadin_core::heat::SimCache;
use vanadin_core::iron::LookTest;
use vanadin_core::job::{Change, Fact, Job, Parsed};
use vanadin_core::map::{Drawn, Shape, Vertex};
use vanadin_core::plan::{answers, plan, plan_with, status};
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::Shop;

fn main() {
    divan::main();
}

const NOW_MS: i64 = 1_800_000_000_000;

/// Aim: under 20 ms.
#[divan::bench]
fn the_full_plan_of_the_largest_sample_job(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let largest =
        jobs.iter().max_by_key(|job| (job.round().cracks.len(), job.round().readings.len())).expect("a job");
    bencher.bench(|| plan(black_box(largest), &shop));
}

/// The job that was not weighed.
fn undecided<'a>(jobs: &'a [Job], shop: &Shop) -> &'a Job {
    jobs.iter().find(|job| !plan(job, shop).part.weight_between.is_empty()).expect("one was not weighed")
}

/// Undecided between three irons, its weight estimated: the most that is worked out.
#[divan::bench]
fn the_full_plan_of_an_undecided_job_that_was_not_weighed(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let undecided = undecided(&jobs, &shop);
    bencher.bench(|| plan(black_box(undecided), &shop));
}

#[divan::bench]
fn what_each_answer_of_a_test_would_change(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let undecided = undecided(&jobs, &shop);
    bencher.bench(|| answers(black_box(undecided), &shop, LookTest::Fracture, &SimCache::default()));
}

/// A number was typed that no model depends on: the runs of the plan before are there.
#[divan::bench]
fn the_full_plan_of_the_largest_sample_job_again(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let largest =
        jobs.iter().max_by_key(|job| (job.round().cracks.len(), job.round().readings.len())).expect("a job");
    let sims = SimCache::default();
    bencher.bench(|| plan_with(black_box(largest), &shop, &sims));
}

#[divan::bench]
fn the_plans_of_the_whole_rack(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    bencher.bench(|| {
        for job in black_box(&jobs) {
            let plan = plan(job, &shop);
            black_box(status(job, &plan, NOW_MS));
        }
    });
}

/// The first sample job with 300 cracks of 17 points each on one face, every second one joined to another.
fn mapped(shop: &Shop, jobs: &[Job]) -> Job {
    let mut log: Vec<Fact> = Vec::new();
    let mut say = |change: Change| {
        let revision = log.len() as u64 + 1;
        let id = Uuid::from_u128(u128::from(revision));
        let understood = Parsed::of(&change, None);
        log.push(Fact {
            id,
            revision,
            at_client_ms: NOW_MS,
            at_server_ms: NOW_MS,
            who: String::new(),
            sender: String::new(),
            understood,
            change,
        });
        id
    };
    let set =
        |key: String, typed: &str| Change::Set { key, typed: typed.to_owned(), shown_in: UnitSystem::Metric };
    let known = jobs.iter().max_by_key(|job| job.round().cracks.len()).expect("a job").round();
    for (key, held) in
        known.values.iter().filter(|(key, _)| key.starts_with("part.") || key.starts_with("method."))
    {
        say(set(key.clone(), &held.typed));
    }
    let face = say(Change::AddFace);
    for (field, typed) in [("outline", "rectangle"), ("across", "3000"), ("down", "2000")] {
        say(set(format!("face.{face}.{field}"), typed));
    }
    for number in 0..300 {
        let crack = say(Change::AddCrack);
        for (field, typed) in [("found_by", "dye"), ("end_a", "tip"), ("end_b", "tip")] {
            say(set(format!("crack.{crack}.{field}"), typed));
        }
        let (column, row) = (f64::from(number % 15), f64::from(number / 15));
        let points = (0..17)
            .map(|step| Vertex {
                x_mm: 100.0 + column * 185.0 + f64::from(step) * 11.5,
                y_mm: 60.0 + row * 95.0 + 6.0 * f64::from(step).sin(),
                wall_mm: (step % 8 == 0).then_some(12.0 + f64::from(step) / 4.0),
            })
            .collect();
        let drawn = Drawn { mark: crack, face, shape: Some(Shape::Line { points }) };
        say(Change::Draw { drawn: vec![drawn] });
    }
    let job = Job::fold(Uuid::nil(), &log);
    let planned = plan(&job, shop);
    assert_eq!(planned.map.faces[0].lines.len(), 300);
    assert!(planned.prep.is_some(), "every seam is laid out");
    job
}

/// Aim: under 50 ms.
#[divan::bench]
fn the_full_plan_of_300_cracks_with_5000_points(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let job = mapped(&shop, &jobs);
    bencher.bench(|| plan(black_box(&job), &shop));
}
