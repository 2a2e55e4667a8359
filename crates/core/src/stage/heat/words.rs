//! How a heat is led, in sentences.

use super::run::{Help, turned_down};
use super::sources::{CAREFUL_SWEEP, SourceOutcome, Sources};
use super::zone::Zone;
use crate::heat::sticks;
use crate::method::Target;
use crate::quantity::{Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::part::PartFacts;

/// Where the first pad lies.
pub(super) fn pad_at(zone: Option<Zone>) -> String {
    if zone.is_some() { "edge of what is warmed" } else { "coldest far corner" }.to_owned()
}

const READ_AT: &str = "far side of the joint, and the coldest far corner";

/// Where it is read, with the places on the map that were marked for it.
pub(super) fn read_at(part: &PartFacts, zone: Option<Zone>) -> String {
    if let Some(zone) = zone {
        let away = part.units.say(zone.reach_mm, Unit::Millimetres);
        return format!("edge of what is warmed, {away} from the seam");
    }
    match part.reading_places.as_slice() {
        [] => READ_AT.to_owned(),
        places => format!("{READ_AT} (on the map: {})", places.join(", ")),
    }
}

/// How the seam and what lies round it is warmed.
fn zone_words(zone: Zone, reached: SourceOutcome<'_>, target: &Target, units: UnitSystem) -> String {
    let away = units.say(zone.reach_mm, Unit::Millimetres);
    let flame = match reached.run.throttle {
        share if share < 1.0 => format!("Turn it down to about {}, and sweep", turned_down(share)),
        _ => "Sweep".to_owned(),
    };
    let short = if reached.least_only {
        format!(" It stays short of {}.", units.say(target.target_c, Unit::Celsius))
    } else {
        String::new()
    };
    format!(
        "{flame} it over the seam and {away} round it, the rest stays cold. Between beads keep it there or bring it \
         back: the cold iron draws the heat off.{short}"
    )
}

/// How to heat it, or why it does not get there.
pub(super) fn heating_words(
    reached: Option<SourceOutcome<'_>>,
    sources: &Sources,
    target: &Target,
    units: UnitSystem,
) -> String {
    let Some(reached) = reached else { return sources.why_not(target, units) };
    if let Some(zone) = sources.zone {
        return zone_words(zone, reached, target, units);
    }
    let source = reached.run.source;
    let helped = match reached.run.help {
        Help::Alone => String::new(),
        Help::Covered => "Cover the rest of the part, the joint bare, and sweep what is bare.".to_owned(),
        Help::Second(second) => format!(
            "Two flames and a helper, both swept carefully over the whole part. The second: {}.",
            second.label
        ),
    };
    let mut said = if !reached.even_enough {
        let better = match reached.run.help {
            Help::Alone => "Slower, an oven, or a blanket over the rest.",
            Help::Covered | Help::Second(_) => "Slower, or an oven.",
        };
        format!(
            "{helped} Uneven: {} on the way, {} is the limit. {better}",
            units.say_least(reached.worst_k, Unit::Kelvins),
            units.say_most(sources.limit_k, Unit::Kelvins),
        )
        .trim_start()
        .to_owned()
    } else if source.is_fire() {
        "Lay it in cold and let it come up with the fire, which cannot be ramped: turn it, and read it at \
         both ends."
            .to_owned()
    } else if let Some(ramp) = source.ramp_k_per_h(sources.closed) {
        format!(
            "Let it come up with the oven, no faster than {}.",
            units.say_most(ramp, Unit::KelvinsPerHour)
        )
    } else if !helped.is_empty() {
        helped
    } else if reached.run.throttle < 1.0 {
        format!(
            "Turn it down to about {}, and sweep it carefully over the whole part: the full flame heats it unevenly.",
            turned_down(reached.run.throttle)
        )
    } else if reached.run.even_share == CAREFUL_SWEEP {
        "Sweep it carefully: four fifths over the whole part, one fifth at the joint.".to_owned()
    } else {
        "Sweep it: half over the whole part, half round the joint.".to_owned()
    };
    if reached.least_only {
        said += &format!(
            " It stays short of {}: the least to begin at is {}.",
            units.say(target.target_c, Unit::Celsius),
            units.say_least(target.least_c, Unit::Celsius)
        );
    }
    said
}

/// Which two sticks of the shop's own set, or which to buy.
pub(super) fn sticks_words(target: &Target, shop: &Shop, units: UnitSystem) -> String {
    let owned: Vec<f64> =
        shop.stores.iter().filter(|item| item.there()).filter_map(|item| item.melts_c).collect();
    let found = sticks(target.target_c, target.most_c, &owned);
    let say = |celsius: f64| units.say_stick(celsius, false);
    let buy = |celsius: f64| units.say_stick(celsius, true);
    let melts = match found.must_melt_c {
        Some(celsius) => format!("the {} stick must melt", say(celsius)),
        None => format!("no stick of yours melts in time: buy one of about {}", buy(target.target_c)),
    };
    let stays = match found.must_not_melt_c {
        Some(celsius) => format!("the {} one must not", say(celsius)),
        None => format!("for the most buy one of about {}", buy(target.most_c)),
    };
    format!("Sticks: {melts}, {stays}.")
}
