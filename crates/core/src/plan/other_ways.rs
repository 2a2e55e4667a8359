//! Ways that stand beside the chosen one, each planned as if it were taken.

use super::make::plan;
use super::{OtherWay, Plan};
use crate::field::{self, FieldValue};
use crate::job::Job;
use crate::method::{School, Way};
use crate::shop::Shop;

/// Ours: so many are worth a look.
const LOOKED_AT: usize = 4;

/// The best of the other methods that join it hot, each in its best school.
#[must_use]
pub fn other_ways(job: &Job, known: &Plan, shop: &Shop) -> Vec<OtherWay> {
    let Some(chosen) = known.methods.chosen else { return Vec::new() };
    let mut seen = vec![chosen.method];
    let mut found = Vec::new();
    for contender in known.methods.contenders.iter().filter(|it| !it.excluded) {
        let way = contender.way;
        if found.len() == LOOKED_AT || seen.contains(&way.method) || way.school == School::NoHeat {
            continue;
        }
        seen.push(way.method);
        let planned = plan(&taken(job, way), shop);
        found.push(OtherWay { label: contender.label.clone(), plan: planned });
    }
    found
}

/// The job as if this way were chosen.
fn taken(job: &Job, way: Way) -> Job {
    let mut job = job.clone();
    for (key, id) in
        [(field::method::CHOICE.key(), way.method.id()), (field::method::SCHOOL.key(), way.school.id())]
    {
        job.assume(key, FieldValue::One(id.to_owned()));
    }
    job
}
