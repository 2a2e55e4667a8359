//! It must stop: what is done at once, and what going on would need.

use serde::Serialize;

use super::TorchPlan;
use super::stop_rule::StopInputs;
use super::trouble::TroubleInputs;
use crate::heat::{Fuel, HeatSource, SourceKind};
use crate::method::{MethodId, Way};
use crate::quantity::Unit;
use crate::stage::cooling::CoolingPlan;
use crate::stage::heat::HeatPlan;

/// What is done when it must stop.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MustStop {
    /// Somebody is hurt: in this order.
    pub hurt: Vec<String>,
    /// Anything else: in this order.
    pub otherwise: Vec<String>,
}

/// It was stopped before all was done: what going on needs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct GoOn {
    /// Why it was stopped.
    pub because: String,
    pub needs: Vec<String>,
}

/// Whether what is begun with this way is done in one heat, and not gone on with another day: a cast-iron fusion by gas
/// and the brazes by torch. What is laid by stick, wire, TIG or as pins may be gone on with.
#[must_use]
pub fn in_one_heat(way: Way) -> bool {
    matches!(way.method, MethodId::GasIron | MethodId::TorchBraze | MethodId::SilverBraze)
}

/// How what heats it is put out; nothing for a source that is not known.
fn flame_off(source: &str) -> Option<&'static str> {
    let source = HeatSource::from_id(source)?;
    Some(match source.kind {
        SourceKind::Flame { fuel: Fuel::OxyAcetylene | Fuel::OxyPropane, .. } => "Oxygen off, then fuel.",
        SourceKind::Flame { fuel: Fuel::Current, .. } => "Current off the pads.",
        SourceKind::Flame { fuel: Fuel::Propane | Fuel::MapGas, .. } => "Burner off, at the cylinder.",
        SourceKind::Oven { .. } if source.is_fire() => "Off the fire.",
        SourceKind::Oven { .. } => "Oven off.",
    })
}

impl MustStop {
    pub(super) fn of(way: Way, heat: &HeatPlan, cooling: Option<&CoolingPlan>) -> Self {
        // What is live or burning, first what hands hold.
        let mut off: Vec<&str> = Vec::new();
        if way.method.by_arc() {
            off.push("Machine off.");
        } else if !way.method.without_heat() {
            off.push("Oxygen off, then fuel.");
        }
        off.extend(flame_off(&heat.source).filter(|_| !heat.cold));
        off.dedup();
        let off = if off.is_empty() { "Hands off the tools.".to_owned() } else { off.join(" ") };
        let covered = cooling.filter(|cooling| !cooling.cold);
        let cover = covered.map(|cooling| format!("Cover it now: {}.", cooling.packing));
        let watch = "Somebody stays with it until it lies covered on a base that does not burn, and looks again for 60 \
                     min.";
        let watch = (!way.method.without_heat()).then(|| watch.to_owned());
        let mut hurt = vec![off.clone(), "Then the person. Call for help.".to_owned()];
        hurt.extend(cover.clone().map(|cover| format!("Then the part. {cover}")));
        let mut otherwise = vec![off];
        otherwise.extend(cover);
        otherwise.extend(watch);
        Self { hurt, otherwise }
    }
}

impl StopInputs<'_> {
    /// What going on would need, of what was stopped before all was done.
    pub(super) fn go_on(&self, inputs: &TroubleInputs<'_>, torch: &TorchPlan) -> Option<GoOn> {
        let because = inputs.round.stopped()?.to_owned();
        let units = inputs.part.units;
        let left = torch.planned.saturating_sub(torch.done);
        if left == 0 {
            return None;
        }
        let mut needs = vec![format!("{left} of {} {}s are left.", torch.planned, torch.piece.word())];
        if !self.heat.cold {
            let target = units.say_least(self.heat.target_c, Unit::Celsius);
            if let Some(reading) = inputs.round.latest_reading()
                && let Some(minutes) = self.reheat_min(reading.celsius)
            {
                let read = units.say_exactly(reading.celsius, Unit::Celsius);
                needs.push(if minutes < 1.0 {
                    format!("It was last read at {read}: warm enough, and it falls.")
                } else {
                    format!(
                        "From the {read} it was last read at: {} to {target}.",
                        units.say(minutes, Unit::Minutes)
                    )
                });
            }
            if self.heat.reached {
                needs.push(format!(
                    "From cold: {}, with {}.",
                    self.heat.timing,
                    self.heat.source_label.to_lowercase()
                ));
            } else {
                needs.push(format!("The heat at hand does not bring it to {target}: find more first."));
            }
            needs.extend(inputs.takes.iter().filter(|take| take.is_gas()).map(|take| {
                let here = if take.here_words.is_empty() { "look at the gauge" } else { &take.here_words };
                format!("{}: {}, {here}.", take.words, take.amount_words)
            }));
        }
        Some(GoOn { because, needs })
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::method::School;

    #[rstest]
    #[case::an_air_torch_has_no_oxygen("weed_burner", "Burner off, at the cylinder.")]
    #[case::fuel_and_oxygen("oxy_propane", "Oxygen off, then fuel.")]
    #[case::an_oven("kiln", "Oven off.")]
    #[case::a_fire("charcoal_bed", "Off the fire.")]
    #[case::pads("ceramic_pads", "Current off the pads.")]
    fn what_burns_is_put_out_as_it_is_put_out(#[case] source: &str, #[case] off: &str) {
        assert_eq!(flame_off(source), Some(off));
        assert_eq!(flame_off(""), None);
    }

    #[rstest]
    #[case::arc(MethodId::ArcNickel, School::Hot, false)]
    #[case::hot_braze(MethodId::TorchBraze, School::Hot, true)]
    #[case::gas_iron(MethodId::GasIron, School::WholePart, true)]
    #[case::silver(MethodId::SilverBraze, School::Hot, true)]
    #[case::the_whole_part_by_stick(MethodId::ArcNickel, School::WholePart, false)]
    #[case::tig(MethodId::TigNickel, School::Hot, false)]
    #[case::wire(MethodId::MigBrazeSi, School::Warm, false)]
    fn what_is_done_in_one_heat(#[case] method: MethodId, #[case] school: School, #[case] one: bool) {
        assert_eq!(in_one_heat(Way { method, school }), one);
    }
}
