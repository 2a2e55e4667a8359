//! The sample shop: made up, at different stages, its times relative to the start.

mod before;
mod jobs;
mod shelves;
mod told;

use std::collections::BTreeMap;

use anyhow::{Context, anyhow};
use uuid::Uuid;
use vanadin_core::field::{FieldState, parse_value, shop_field};
use vanadin_core::job::Job;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{Shop, ShopFact, ShopWord, may_be_said, settings};

use crate::job::store;
use crate::job_service::JobService;
use crate::rack::upkeep::catch_up;
use crate::stores::settle;
use before::BEFORE;
use jobs::{
    bell_bearing, chain_wheel, drill_plate, glasshouse_bracket, malt_gear, points_lever, press_side,
    winch_hook,
};
use shelves::typed_of_the_shop;
use told::SampleJob;

type Tell = fn(&mut SampleJob<'_>);

/// How long ago each job came in, in minutes, and what is told of it: the oldest first, so that
/// the newest lies on top of its like.
const JOBS: &[(i64, Tell)] = &[
    (60 * 24 * 40, points_lever),
    (60 * 24 * 21, winch_hook),
    (60 * 24 * 9, drill_plate),
    (60 * 24 * 6, glasshouse_bracket),
    (60 * 24 * 3, chain_wheel),
    (60 * 9, malt_gear),
    (50, bell_bearing),
    (60 * 7, press_side),
];

/// Fills a data folder in which no job is yet.
///
/// # Errors
/// The database cannot be written.
pub async fn fill_if_empty(jobs: &JobService) -> anyhow::Result<()> {
    if store::any(&jobs.database.pool).await? {
        return Ok(());
    }
    let now_ms = jobs.now_ms();
    let mut words = jobs.shop().await?.facts.to_vec();
    let before = words.len();
    for (key, typed) in typed_of_the_shop() {
        let change = ShopWord::Set { key, typed, shown_in: UnitSystem::Metric };
        let understood = may_be_said(&words, &change, "")
            .map_err(|problem| anyhow!("the sample shop says {change:?}: {problem:?}"))?;
        words.push(ShopFact {
            id: Uuid::new_v4(),
            revision: words.last().map_or(1, |last| last.revision + 1),
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: String::new(),
            sender: String::new(),
            change,
            understood,
        });
    }
    let shop = Shop::of_log(&settings(&words), &words);
    let mut sample = Vec::with_capacity(JOBS.len());
    for told in all_told(&shop, now_ms) {
        sample.push(told.job()?);
    }
    jobs.create_all(words.split_off(before), sample).await.context("the sample cannot be stored")?;
    // As after two years: what they took is gone, what they taught is known, before anybody looks.
    settle(jobs).await.context("the sample cannot be looked through")?;
    catch_up(jobs).await;
    Ok(())
}

/// The sample shop and its jobs without a database: what the benchmarks work on.
///
/// # Errors
/// The sample shop says something a person could not.
pub fn sample_jobs(now_ms: i64) -> anyhow::Result<(Shop, Vec<Job>)> {
    let values: BTreeMap<String, FieldState> = typed_of_the_shop()
        .into_iter()
        .filter_map(|(key, typed)| {
            let value = parse_value(&key, shop_field(&key)?, &typed, UnitSystem::Metric).ok()?;
            Some((key, FieldState { typed, value, revision: 1, not_understood: String::new() }))
        })
        .collect();
    let shop = Shop::of(&values);
    let mut sample = Vec::with_capacity(JOBS.len());
    for told in all_told(&shop, now_ms).into_iter().skip(BEFORE.len()) {
        if let Some(wrong) = told.wrong {
            return Err(wrong);
        }
        sample.push(told.job);
    }
    Ok((shop, sample))
}

/// Every job of the sample shop, the oldest first.
fn all_told(shop: &Shop, now_ms: i64) -> Vec<SampleJob<'_>> {
    let before = BEFORE.iter().map(|before| {
        let mut told = SampleJob::new(shop, now_ms, before.days * 24 * 60);
        before.tell(&mut told);
        told
    });
    let on_the_rack = JOBS.iter().map(|(age_min, tell)| {
        let mut told = SampleJob::new(shop, now_ms, *age_min);
        tell(&mut told);
        told
    });
    before.chain(on_the_rack).collect()
}
