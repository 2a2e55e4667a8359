//! The whole plan of the sample shop's jobs, the largest of them by its cracks.

use divan::{Bencher, black_box};
use vanadin::sample_jobs;
use vanadin_core::heat::Runs;
use vanadin_core::iron::LookTest;
use vanadin_core::job::Job;
use vanadin_core::plan::{answers, plan, plan_with, standing};
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
    bencher.bench(|| answers(black_box(undecided), &shop, LookTest::Fracture, &Runs::default()));
}

/// A number was typed that no model depends on: the runs of the plan before are there.
#[divan::bench]
fn the_full_plan_of_the_largest_sample_job_again(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    let largest =
        jobs.iter().max_by_key(|job| (job.round().cracks.len(), job.round().readings.len())).expect("a job");
    let runs = Runs::default();
    bencher.bench(|| plan_with(black_box(largest), &shop, &runs));
}

#[divan::bench]
fn the_plans_of_the_whole_rack(bencher: Bencher<'_, '_>) {
    let (shop, jobs) = sample_jobs(NOW_MS).expect("the sample shop");
    bencher.bench(|| {
        for job in black_box(&jobs) {
            let plan = plan(job, &shop);
            black_box(standing(job, &plan, NOW_MS));
        }
    });
}
