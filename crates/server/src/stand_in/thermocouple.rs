//! A thermocouple logger: posts what a pad at the coldest far corner reads.

use uuid::Uuid;
use vanadin_core::job::Reading;

use super::StandInConfig;
use super::follow::{Follow, Posted};

/// Reads and posts until it is ended. What cannot be posted now is kept and posted with the next.
pub async fn run(mut part: Follow, config: &StandInConfig) -> anyhow::Result<()> {
    let mut unsent: Vec<Reading> = Vec::new();
    let mut of: Option<Uuid> = None;
    let mut ticks = tokio::time::interval(config.every);
    ticks.set_missed_tick_behavior(tokio::time::MissedTickBehavior::Delay);
    loop {
        ticks.tick().await;
        let read = part.look().await;
        // Lit anew: what is left of the lighting before belongs to none any more.
        if part.lit() != of {
            unsent.clear();
            of = part.lit();
        }
        match read {
            Ok(read) => unsent.extend(read),
            Err(error) => eprintln!("stand-in: the part is not seen now: {error:#}"),
        }
        let (Some(last), Some(lit)) = (unsent.last(), of) else { continue };
        let words = format!("{:.1} min, {:.0} °C", last.minutes, last.celsius);
        match part.post(lit, &unsent).await {
            Ok(Posted::Kept) => {
                println!("{words}");
                unsent.clear();
            }
            Ok(Posted::Refused(why)) => {
                eprintln!("stand-in: {} readings are not taken: {why}", unsent.len());
                unsent.clear();
            }
            Err(error) => eprintln!("stand-in: {} readings are kept: {error:#}", unsent.len()),
        }
    }
}
