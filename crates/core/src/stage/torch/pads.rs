//! What the other pads show, and what it means where they lie.

use serde::{Deserialize, Serialize};

use crate::heat::PadOn;
use crate::job::{CHANNELS, Round, pad_on, pad_words};
use crate::quantity::{Shown, Unit, UnitSystem, exactly};
use crate::stage::part::HeatShy;

/// The last that a pad beside the first one read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PadSeen {
    pub channel: u8,
    /// "pad 2, another corner"
    pub name: String,
    /// Minutes on the job clock at which it read it.
    pub minutes: f64,
    pub metric: Shown,
    pub imperial: Shown,
    /// What it means there; empty where it is only a figure.
    pub words: String,
    /// It is over what that stands.
    pub over: bool,
}

/// House: so near to what a thing stands it is said, in K.
const NEAR_K: f64 = 10.0;

/// Every other channel that read something; what the joint is at stands by itself.
pub(super) fn pads(
    round: &Round,
    window: Option<(f64, f64)>,
    (heat_shy, units): (&[HeatShy], UnitSystem),
) -> Vec<PadSeen> {
    let say = |celsius: f64| units.say_exactly(celsius, Unit::Celsius);
    let least_of_all = heat_shy
        .iter()
        .filter_map(|shy| Some((shy.what.as_str(), shy.limit_c?)))
        .min_by(|a, b| a.1.total_cmp(&b.1));
    let one = |channel: u8| {
        let read = round.last_of(channel)?;
        let on = pad_on(round.pads(), channel);
        if on == Some(PadOn::Joint) {
            return None;
        }
        let celsius = read.celsius;
        let (words, over) = match (on, least_of_all, window) {
            (Some(PadOn::Neighbour), None, _) => ("nobody has said what it stands".to_owned(), false),
            (Some(PadOn::Neighbour), Some((what, limit_c)), _) if celsius > limit_c => {
                (format!("over the {} of {what}: take the heat away from it", say(limit_c)), true)
            }
            (Some(PadOn::Neighbour), Some((what, limit_c)), _) if celsius > limit_c - NEAR_K => {
                (format!("close to the {} of {what}", say(limit_c)), false)
            }
            (Some(PadOn::Corner), _, Some((least_c, _))) if celsius < least_c => {
                (format!("under the {} to begin at", say(least_c)), false)
            }
            (Some(PadOn::Corner | PadOn::Neighbour | PadOn::Joint | PadOn::Air) | None, _, _) => {
                (String::new(), false)
            }
        };
        let (metric, imperial) = exactly(celsius, Unit::Celsius);
        let name = format!("pad {channel}, {}", pad_words(on));
        Some(PadSeen { channel, name, minutes: read.minutes, metric, imperial, words, over })
    };
    CHANNELS.filter_map(one).collect()
}
