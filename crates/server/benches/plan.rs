//! The whole plan of the sample shop's jobs, the largest of them by its cracks.

use divan::{Bencher, black_box};
use vanadin::sample_jobs;
use vanadin_core::plan::{plan, standing};

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
