//! An infrared gun: says what such an instrument shows on this part, with the surface chosen.

use super::StandInConfig;
use super::follow::Follow;

/// House: what such a gun is off by, as a share.
const OFF: f64 = 0.02;

/// What it shows, its own error in it: the same each time it is asked in the same turn.
fn with_its_error(celsius: f64, turn: u32) -> f64 {
    celsius * (1.0 + OFF * (f64::from(turn) * 1.7).sin())
}

/// Looks and prints until it is ended.
pub async fn run(mut part: Follow, config: &StandInConfig) -> anyhow::Result<()> {
    let mut ticks = tokio::time::interval(config.every);
    let mut turn = 0;
    loop {
        ticks.tick().await;
        turn += 1;
        if let Err(error) = part.look().await {
            eprintln!("stand-in: the part is not seen now: {error:#}");
            continue;
        }
        match part.gun_shows_c() {
            Some(celsius) => println!("{:.0} °C", with_its_error(celsius, turn)),
            None => println!("--- (nothing hot)"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_is_never_off_by_more_than_two_in_a_hundred_and_not_always_the_same_way() {
        let shown: Vec<f64> = (0..50).map(|turn| with_its_error(300.0, turn)).collect();
        assert!(shown.iter().all(|it| (it - 300.0).abs() <= 6.0 + 1e-9));
        assert!(shown.iter().any(|it| *it > 304.0) && shown.iter().any(|it| *it < 296.0));
    }
}
