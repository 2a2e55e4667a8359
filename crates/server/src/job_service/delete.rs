//! Deleting a job for good: its log, its readings and its pictures.

use uuid::Uuid;
use vanadin_core::base::problem::FieldProblem;
use vanadin_core::plan::status;

use super::{JobService, News};
use crate::api_error::ApiError;
use crate::job::store;

impl JobService {
    /// Deletes a job that was put away, whoever says so having typed its name. The data file becomes
    /// smaller by it.
    ///
    /// # Errors
    /// It lies on the rack, is hot, or has another name: it is as it was.
    pub async fn delete(&self, id: Uuid, name: &str) -> Result<(), ApiError> {
        let shop = self.shop().await?;
        let lock = self.lock_job(id).await;
        let seen = self.load_locked(id, shop).await?;
        let refuse = |field: &str, message: &str, right: &str| {
            Err(ApiError::NotAcceptable(vec![FieldProblem::new(field, message, right)]))
        };
        if status(&seen.job, &seen.plan, self.now_ms()).hot.is_some() {
            return refuse("job", "it is hot", "let it cool first");
        }
        if !seen.job.put_away {
            return refuse("job", "it lies on the rack", "put it away first");
        }
        if name.trim() != seen.job.name() {
            return refuse("name", "that is not its name", seen.job.name());
        }
        self.evict(id);
        self.database.write(async |on| store::delete(on, id).await).await?;
        self.in_order(id);
        self.notify(News::Gone { job: id });
        drop(lock);
        // It is gone either way: a file that stays as large takes its room up again.
        if let Err(error) = self.database.shrink().await {
            eprintln!("vanadin: the data file stays as large as it was: {error}");
        }
        Ok(())
    }
}
