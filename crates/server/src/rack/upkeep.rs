//! Keeps the stored lines in step with the shop's settings and with what works them out.

use tokio::sync::broadcast::error::RecvError;

use super::projection;
use crate::api_error::ApiError;
use crate::job::store;
use crate::job_service::{JobService, Matter, News};
use crate::picture::store as pictures;
use crate::shop::logger_key::forget_the_keys;

/// Lines worked out anew before it is looked again which ones come first.
const AT_A_TIME: u32 = 20;

/// Before anybody looks: what was said long ago is understood, every job has a line, and each is placed by the clock as it now goes.
///
/// # Errors
/// The database cannot be read or written.
pub async fn begin(jobs: &JobService) -> Result<(), ApiError> {
    jobs.database
        .write(async |on| {
            store::understand(on).await?;
            forget_the_keys(on).await?;
            pictures::without_a_word(on).await
        })
        .await?;
    let without = projection::without_a_line(&jobs.database.pool).await?;
    jobs.reproject_all(&without).await?;
    let now_ms = jobs.now_ms();
    // On a disk that is full the order is as it was; how each one stands is worked out when it is read.
    if let Err(error) = jobs.database.write(async |on| projection::turn(on, now_ms, true).await).await {
        eprintln!("vanadin: the order of the rack is as it was: {error}");
    }
    Ok(())
}

/// Looks through every log once, in the background: what was damaged while nobody served it is shown.
async fn look_through(jobs: &JobService) -> Result<(), ApiError> {
    // One word where all is well; else what is wrong, a line each.
    let looked: Vec<String> = sqlx::query_scalar("pragma quick_check").fetch_all(&jobs.database.pool).await?;
    let torn = looked.iter().find(|line| *line != "ok");
    let words = torn.map(|line| {
        format!(
            "The data file is damaged ({line}): run vanadin check, and put back a copy with vanadin restore."
        )
    });
    jobs.set_notice(Matter::File, words);
    let damaged = store::damaged(&jobs.database.pool).await?;
    jobs.reproject_all(&damaged).await
}

/// Works out anew, in the background, what another build or other settings of the shop worked out.
pub async fn upkeep(jobs: JobService) {
    let mut news = jobs.subscribe();
    if let Err(error) = look_through(&jobs).await {
        eprintln!("vanadin: the logs cannot be looked through: {error}");
    }
    loop {
        catch_up(&jobs).await;
        loop {
            match news.recv().await {
                Ok(News::Shop { .. }) | Err(RecvError::Lagged(_)) => break,
                Ok(News::Said { .. } | News::Gone { .. } | News::Clock | News::Reading { .. }) => {}
                Err(RecvError::Closed) => return,
            }
        }
    }
}

/// Works out every line that is behind.
pub async fn catch_up(jobs: &JobService) {
    while let Some(some) = behind(jobs).await {
        if let Err(error) = jobs.reproject_all(&some).await {
            eprintln!("vanadin: the rack cannot be brought up to date now: {error}");
            break;
        }
    }
}

/// Some lines that are not as they would be worked out now; nothing where all are.
async fn behind(jobs: &JobService) -> Option<Vec<uuid::Uuid>> {
    let planned_by = match jobs.shop().await {
        Ok(shop) => shop.planned_by,
        Err(error) => {
            eprintln!("vanadin: the shop cannot be read: {error}");
            return None;
        }
    };
    let damaged = jobs.damaged();
    // Those that cannot be read stay behind and keep no other from its turn.
    let most = AT_A_TIME + u32::try_from(damaged.len()).unwrap_or(u32::MAX - AT_A_TIME);
    match projection::out_of_date(&jobs.database.pool, planned_by, most).await {
        Ok(mut ids) => {
            ids.retain(|id| damaged.iter().all(|(known, _)| known != id));
            Some(ids).filter(|ids| !ids.is_empty())
        }
        Err(error) => {
            eprintln!("vanadin: the rack cannot be read: {error}");
            None
        }
    }
}
