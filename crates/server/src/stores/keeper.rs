//! Takes off the shelves what the jobs took: once it is lit the gas, once the beads are laid the rods. And keeps for the
//! odds what became of each repair.

use std::collections::{HashMap, HashSet};

use tokio::sync::broadcast::error::RecvError;
use uuid::Uuid;
use vanadin_core::crack::tip_offset::OwnTip;
use vanadin_core::faults::own::OwnFault;
use vanadin_core::heat::OwnFactor;
use vanadin_core::job::Became;
use vanadin_core::method::{OwnMove, OwnRepair, OwnScrap};
use vanadin_core::plan::{Asks, seam_pulls};
use vanadin_core::shop::{
    Shop, ShopWord, faults, learned, moves, repairs, scraps, set_right, timed as timed_here, tips, uses,
};
use vanadin_core::stores::{OwnUse, used_up};

use super::demand;
use crate::api_error::ApiError;
use crate::job_service::{JobService, NewShopFact, News, long_work};

/// Looks once at what was taken before, then after every word at its job.
pub async fn keep(jobs: JobService) {
    let mut news = jobs.subscribe();
    let mut of: Option<Uuid> = None;
    loop {
        if let Err(error) = take_off(&jobs, of).await {
            eprintln!("vanadin: what was used is not taken off the shelves now: {error}");
        }
        of = loop {
            match news.recv().await {
                Ok(News::Said { job, .. }) => break Some(job),
                // Some of it was not heard: every job is looked at.
                Err(RecvError::Lagged(_)) => break None,
                Ok(News::Gone { .. } | News::Shop { .. } | News::Clock | News::Reading { .. }) => {}
                Err(RecvError::Closed) => return,
            }
        };
    }
}

/// A name as it is kept in the shop's log.
fn short(name: &str) -> String {
    name.chars().take(80).collect()
}

async fn said_by_itself(jobs: &JobService, id: Uuid, change: ShopWord) -> Result<(), ApiError> {
    let (who, sender, base) = (String::new(), String::new(), None);
    jobs.apply_to_shop(NewShopFact { id, who, sender, base, change }).await.map(|_| ())
}

/// Looks once at every job: what it took is off the shelves then, and what it taught is known.
///
/// # Errors
/// The database cannot be read.
pub async fn settle(jobs: &JobService) -> Result<(), ApiError> {
    take_off(jobs, None).await
}

/// Takes off what this job took; every job's, where none is named.
async fn take_off(jobs: &JobService, of: Option<Uuid>) -> Result<(), ApiError> {
    let pool = &jobs.database.pool;
    let asking = match of {
        None => demand::all(pool).await?,
        Some(job) => demand::of(pool, job).await?.into_iter().collect(),
    };
    for (job, asks) in asking {
        // What cannot be kept of one job keeps no other from its turn.
        if let Err(error) = take_off_for(jobs, job, asks).await {
            eprintln!("vanadin: what {job} used is not taken off the shelves now: {error}");
        }
    }
    Ok(())
}

async fn take_off_for(jobs: &JobService, job: Uuid, asks: Asks) -> Result<(), ApiError> {
    for repair in asks.repairs {
        let repair = OwnRepair { name: short(&repair.name), ..repair };
        let shop = jobs.shop().await?;
        // Of what nothing is known only a word is told that takes back another.
        let unknown = Became::from_id(&repair.became) == Some(Became::Unknown);
        let told = repairs(&shop.facts);
        let before = told.iter().find(|it| it.lit == repair.lit);
        let known = match before {
            Some(before) if unknown => before.became == repair.became,
            Some(before) => before.tells_as(&repair),
            None => unknown,
        };
        if !known {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::Became(repair)).await?;
        }
    }
    for timed in asks.timed {
        // Reckoned anew it is much the same: only another timing is another word.
        let known = timed_here(&jobs.shop().await?.facts).iter().any(|it| it.fact == timed.fact);
        if !known {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::Timed(timed)).await?;
        }
    }
    for own in asks.learned {
        let own = OwnFactor { name: short(&own.name), ..own };
        let known = learned(&jobs.shop().await?.facts).iter().any(|known| known.as_good_as(&own));
        if !known {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::Learned(own)).await?;
        }
    }
    for own in asks.tips {
        let own = OwnTip { name: short(&own.name), ..own };
        let known = tips(&jobs.shop().await?.facts).iter().any(|known| known.as_good_as(&own));
        if !known {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::FoundAgain(own)).await?;
        }
    }
    tell_moves(jobs, job, asks.moves).await?;
    tell_faults(jobs, job, asks.faults).await?;
    tell_scraps(jobs, job, asks.scraps).await?;
    tell_uses(jobs, asks.uses).await?;
    for gone in asks.gone {
        let shop = jobs.shop().await?;
        let said: HashSet<Uuid> = shop.facts.iter().map(|fact| fact.id).collect();
        let of = (gone.fact, gone.when, gone.at_ms);
        for used in used_up(&shop.shop.stores, of, &gone.takes, &said) {
            let name = short(&asks.name);
            let change = ShopWord::Used { item: used.item, amount: used.amount, job, name, instead: None };
            said_by_itself(jobs, used.id, change).await?;
        }
    }
    let shop = jobs.shop().await?;
    for word in set_right(&shop.facts, &shop.shop.stores, (job, &short(&asks.name)), &asks.used) {
        said_by_itself(jobs, Uuid::new_v4(), word).await?;
    }
    Ok(())
}

/// Tells what was really used against its plan; what nobody says any more is told as well.
async fn tell_uses(jobs: &JobService, said: Vec<OwnUse>) -> Result<(), ApiError> {
    let told = uses(&jobs.shop().await?.facts);
    for own in said {
        let own = OwnUse { name: short(&own.name), ..own };
        let known = told.iter().find(|it| it.is_of(&own));
        if known.map_or(own.used.is_some(), |known| !known.as_good_as(&own)) {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::ReallyUsed(own)).await?;
        }
    }
    Ok(())
}

/// What the seams of a job were foreseen to do to each of its distances, in mm, without what was learned here.
async fn foreseen_moves(jobs: &JobService, job: Uuid) -> Result<HashMap<Uuid, f64>, ApiError> {
    let seen = jobs.load(job).await?;
    let drawn = seen.plan.map.faces.iter().any(|face| !face.rims.is_empty() && !face.lines.is_empty());
    if !drawn {
        return Ok(HashMap::new());
    }
    long_work(move || {
        let shop = Shop { moves: Vec::new(), ..seen.shop.shop.clone() };
        let pulls = seam_pulls(&seen.job, &seen.plan, &shop, &[], None);
        // Why nothing is foreseen is said at the job.
        let kept = pulls.map_or_else(|_| Vec::new(), |pulls| pulls.kept);
        kept.into_iter().filter_map(|it| Some((it.mark, it.moves_mm?))).collect()
    })
    .await
}

/// Tells what the torch moved; what is no longer said of the job is told as well.
async fn tell_moves(jobs: &JobService, job: Uuid, said: Vec<OwnMove>) -> Result<(), ApiError> {
    let told = moves(&jobs.shop().await?.facts);
    let gone = told.iter().filter(|it| it.job == job && !said.iter().any(|own| own.size == it.size));
    let gone: Vec<OwnMove> = gone.map(|it| OwnMove { moved_mm: None, ..it.clone() }).collect();
    let mut foreseen = None;
    for own in said.into_iter().chain(gone) {
        let own = OwnMove { name: short(&own.name), what: short(&own.what), ..own };
        let known = told.iter().find(|it| it.size == own.size);
        if known.map_or(own.moved_mm.is_some(), |known| !known.as_good_as(&own)) {
            if foreseen.is_none() {
                foreseen = Some(foreseen_moves(jobs, job).await?);
            }
            let of_it = foreseen.as_ref().and_then(|all| all.get(&own.size));
            let own = OwnMove { foreseen_mm: own.moved_mm.and(of_it.copied()), ..own };
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::Moved(own)).await?;
        }
    }
    Ok(())
}

/// The same of what went wrong.
async fn tell_faults(jobs: &JobService, job: Uuid, said: Vec<OwnFault>) -> Result<(), ApiError> {
    let told = faults(&jobs.shop().await?.facts);
    let gone = told.iter().filter(|it| it.job == job && !said.iter().any(|own| own.entry == it.entry));
    let gone: Vec<OwnFault> = gone.map(|it| OwnFault { taken_back: true, ..it.clone() }).collect();
    for own in said.into_iter().chain(gone) {
        let own = OwnFault { name: short(&own.name), ..own };
        let known = told.iter().find(|it| it.entry == own.entry);
        if known.map_or(!own.taken_back, |known| *known != own) {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::WentWrong(own)).await?;
        }
    }
    Ok(())
}

/// The same of scrap that was done first.
async fn tell_scraps(jobs: &JobService, job: Uuid, said: Vec<OwnScrap>) -> Result<(), ApiError> {
    let told = scraps(&jobs.shop().await?.facts);
    let gone = told.iter().filter(|it| it.job == job && !said.iter().any(|own| own.is_of(it)));
    let gone: Vec<OwnScrap> = gone.map(|it| OwnScrap { taken_back: true, ..it.clone() }).collect();
    for own in said.into_iter().chain(gone) {
        let own = OwnScrap { name: short(&own.name), ..own };
        let known = told.iter().find(|it| it.is_of(&own));
        if known.map_or(!own.taken_back, |known| *known != own) {
            said_by_itself(jobs, Uuid::new_v4(), ShopWord::ScrapDone(own)).await?;
        }
    }
    Ok(())
}
