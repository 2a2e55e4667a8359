//! A thermocouple logger: posts what a pad at the coldest far corner reads.

use vanadin_core::job::Reading;

use super::StandInConfig;
use super::follow::Follow;

/// Reads and posts until it is ended. What cannot be posted now is kept and posted with the next.
pub async fn run(mut part: Follow, config: &StandInConfig) -> anyhow::Result<()> {
    let mut unsent: Vec<Reading> = Vec::new();
    let mut ticks = tokio::time::interval(config.every);
    loop {
        ticks.tick().await;
        match part.look().await {
            Ok(read) => unsent.extend(read),
            Err(error) => eprintln!("stand-in: the part is not seen now: {error:#}"),
        }
        let Some(last) = unsent.last() else { continue };
        let words = format!("{:.1} min, {:.0} °C", last.minutes, last.celsius);
        match part.post(&config.key, &unsent).await {
            Ok(()) => {
                println!("{words}");
                unsent.clear();
            }
            Err(error) => eprintln!("stand-in: {} readings are kept: {error:#}", unsent.len()),
        }
    }
}
