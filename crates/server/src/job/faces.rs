//! Faces laid out as bodies, kept while they are asked for.

use std::sync::{Arc, OnceLock};

use quick_cache::sync::Cache;
use vanadin_core::body::FaceModel;
use vanadin_core::plan::{Beginnings, FacePart, where_to_begin};

/// Faces laid out, and what was found of where to begin: kept while they are asked for.
#[derive(Debug)]
pub struct Faces {
    models: Cache<String, Arc<FaceModel>>,
    begun: Cache<String, Arc<Beginnings>>,
}

/// Ours: a face laid out is some 3 MB.
const FACES_KEPT: usize = 12;
const BEGINNINGS_KEPT: usize = 64;

impl Faces {
    #[must_use]
    pub fn kept() -> &'static Self {
        static KEPT: OnceLock<Faces> = OnceLock::new();
        KEPT.get_or_init(|| Self { models: Cache::new(FACES_KEPT), begun: Cache::new(BEGINNINGS_KEPT) })
    }

    /// # Errors
    /// A sentence: it cannot be laid out.
    pub fn model(&self, part: &FacePart) -> Result<Arc<FaceModel>, String> {
        self.models.get_or_insert_with(&format!("{:?}", part.piece), || part.model().map(Arc::new))
    }

    /// # Errors
    /// A sentence: it cannot be laid out.
    pub fn begun(&self, part: &FacePart) -> Result<Arc<Beginnings>, String> {
        let found = || Ok(Arc::new(where_to_begin(part, self.model(part)?.as_ref())));
        self.begun.get_or_insert_with(&format!("{part:?}"), found)
    }
}
