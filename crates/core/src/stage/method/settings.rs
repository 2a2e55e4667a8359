//! How the source is set for a way on this job.

use serde::Serialize;

use super::MethodContext;
use crate::method::customs::Polarity;
use crate::method::{School, Way, amps_at};
use crate::quantity::{Unit, UnitSystem, number};
use crate::render::said;
use crate::stage::part::GUESSED_WALL_MM;
use crate::stage::prep::PrepPlan;
use crate::stage::taught::POLARITY;

/// One thing that is set.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SettingLine {
    pub name: String,
    pub words: String,
}

/// "2.1 to 2.6 mm a second": so fast that the beads of each seam lay what was ground out; the usual while no seam is known.
fn travel_words(prep: Option<&PrepPlan>, usual_mm_s: f64, units: UnitSystem) -> String {
    let travels = prep.into_iter().flat_map(|prep| prep.seams.iter().filter_map(|seam| seam.travel_mm_s));
    let (low, high) =
        travels.fold((f64::INFINITY, 0.0_f64), |(low, high), mm_s| (low.min(mm_s), high.max(mm_s)));
    let say = |mm_s: f64| units.say(mm_s, Unit::Millimetres);
    match (say(low), say(high)) {
        _ if high <= 0.0 => format!("{} a second", say(usual_mm_s)),
        (low, high) if low == high => format!("{high} a second"),
        (low, high) => {
            // One unit is enough for both.
            let unit = high.rsplit(' ').next().unwrap_or_default();
            format!("{} to {high} a second", low.trim_end_matches(unit).trim_end())
        }
    }
}

impl MethodContext<'_> {
    /// Rod, current, leads, gas and flux of this way. The maker's sheet comes first.
    pub(super) fn settings(
        &self,
        way: Way,
        preheat_c: Option<f64>,
        prep: Option<&PrepPlan>,
    ) -> Vec<SettingLine> {
        let units = self.part.units;
        let wall_mm = self.part.wall_mm.unwrap_or(GUESSED_WALL_MM);
        let entry = way.method.entry();
        let mut lines: Vec<SettingLine> = Vec::new();
        let mut line = |name: &str, words: String| {
            if !words.is_empty() {
                lines.push(SettingLine { name: name.to_owned(), words });
            }
        };
        if let Some(filler) = way.method.filler(wall_mm, self.ductile()) {
            let size = units.say(filler.rod_diameter_mm, Unit::Millimetres);
            line(
                if filler.wire() { "Wire" } else { "Rod" },
                format!("{} {}, {size}", filler.class, filler.name),
            );
        }
        line("Tip", said((entry.setup.tip)(wall_mm), units));
        if let Some(arc) = entry.arc {
            let (low, high) = (arc.amps)(wall_mm);
            let at = preheat_c.unwrap_or(20.0);
            let amps = |amps: f64| number((amps_at(amps, entry.setup.melts_c, at) / 5.0).round() * 5.0, 0);
            let words = match (way.school, preheat_c) {
                (School::Cold, _) => format!("{} to {} A, at the low end", amps(low), amps(high)),
                (_, Some(celsius)) => format!(
                    "{} to {} A with the part at {}; {} to {} A were it cold",
                    amps(low),
                    amps(high),
                    units.say(celsius, Unit::Celsius),
                    number(low, 0),
                    number(high, 0)
                ),
                (_, None) => format!("{} to {} A", amps(low), amps(high)),
            };
            line("Current", words);
            line("Volts", format!("{} V", number(arc.volts, 0)));
            line("Travel", travel_words(prep, arc.travel_mm_s, units));
        }
        let [usual, other, alternating] = entry.setup.leads;
        let leads = match self.taught(&POLARITY, way) {
            Polarity::Minus if !other.is_empty() => other,
            Polarity::Ac if !alternating.is_empty() => alternating,
            Polarity::Plus | Polarity::Minus | Polarity::Ac => usual,
        };
        line("Leads", leads.to_owned());
        line(if entry.arc.is_some() { "Gas" } else { "Flame" }, said(entry.setup.gas, units));
        line("Flux", said(entry.setup.flux, units));
        line("Note", said(entry.setup.note, units));
        lines
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // Hand-worked: 90 x (1150 - 250) / 1130 = 71.68; over 250 no further; under 20 no more
    #[case::warm(90.0, 250.0, 71.68)]
    #[case::hot_is_no_less(90.0, 350.0, 71.68)]
    #[case::cold(90.0, 20.0, 90.0)]
    #[case::frost(90.0, -5.0, 90.0)]
    fn the_current_falls_with_the_preheat(#[case] amps: f64, #[case] at: f64, #[case] expected: f64) {
        assert!((amps_at(amps, 1150.0, at) - expected).abs() < 0.01);
    }
}
