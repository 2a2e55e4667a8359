//! Blocking work, off the threads that answer.

use std::sync::LazyLock;

use anyhow::Context;
use tokio::sync::Semaphore;
use tokio::task::spawn_blocking;

use crate::api_error::ApiError;

/// As many at a time as there are processors.
static ROOM: LazyLock<Semaphore> = LazyLock::new(|| Semaphore::new(processors()));
/// One processor fewer: what takes seconds never holds up what a person waits for.
static LONG: LazyLock<Semaphore> = LazyLock::new(|| Semaphore::new(processors().saturating_sub(1).max(1)));

fn processors() -> usize {
    std::thread::available_parallelism().map_or(2, std::num::NonZero::get)
}

/// Runs a computation on the blocking pool.
///
/// # Errors
/// It broke on the way.
pub async fn work<T: Send + 'static>(it: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let _room = ROOM.acquire().await.context("nothing is worked out any more")?;
    Ok(spawn_blocking(it).await.context("working it out broke")?)
}

/// Runs a computation of seconds, as a face laid out as a body, in a queue of its own.
///
/// # Errors
/// It broke on the way.
pub async fn long_work<T: Send + 'static>(it: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let _room = LONG.acquire().await.context("nothing is worked out any more")?;
    Ok(spawn_blocking(it).await.context("working it out broke")?)
}
