//! Events that pages are told over their stream.

use uuid::Uuid;
use vanadin_core::plan::Live;

#[derive(Debug, Clone)]
pub enum News {
    /// The job's log grew; `fact` is what was said, nothing where a whole job came.
    Said { job: Uuid, revision: u64, fact: Option<Uuid> },
    /// The job was let go for good.
    Gone { job: Uuid },
    /// The shop's settings changed.
    Shop { revision: u64 },
    /// There is something to say of the computer's clock, or no longer.
    Clock,
    /// The thermocouple shows this now, at this minute of the job clock; in the units of the shop.
    Reading { job: Uuid, now_min: f64, live: Box<Live> },
}
