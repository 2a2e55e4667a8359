//! What is said of a heating while it goes.

use crate::heat::against_usual;
use crate::job::Reading;
use crate::quantity::{Unit, UnitSystem};

/// A heating as it goes, by what was read of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Warming {
    pub target_c: f64,
    pub least_c: f64,
    /// Minutes on the job clock at which its coldest place is at the target; nothing where it does not get there.
    pub at_target_min: Option<f64>,
    pub ceiling_c: f64,
    /// It gives even less than a fit is believed to.
    pub weaker: bool,
    /// Of what the flame gives by the book, and by how many readings.
    pub factor: f64,
    pub readings: usize,
}

impl Warming {
    /// In a sentence; empty once it is there.
    pub(super) fn words(&self, reading: Reading, now_min: f64, units: UnitSystem) -> String {
        if reading.celsius >= self.target_c {
            return String::new();
        }
        let by = format!("by {} readings the flame gives {}", self.readings, against_usual(self.factor));
        let target = units.say_least(self.target_c, Unit::Celsius);
        if self.weaker {
            return format!(
                "By {} readings it comes up as if the flame gave over {}. Is it the flame that was said, and read where \
                 the part is coldest?",
                self.readings,
                against_usual(self.factor)
            );
        }
        match self.at_target_min {
            Some(at) if at - now_min >= 0.5 => {
                format!("At {target} in about {}: {by}.", units.say(at - now_min, Unit::Minutes))
            }
            Some(_) => format!("About to be at {target}: {by}."),
            None if self.ceiling_c < self.least_c => format!(
                "It stops at about {}, under the {} to begin at: {by}. Cover the rest, a larger tip or a second flame.",
                units.say_most(self.ceiling_c, Unit::Celsius),
                units.say_least(self.least_c, Unit::Celsius),
            ),
            None => format!(
                "It does not get to {target} in time: {by}. Cover the rest, a larger tip or a second flame."
            ),
        }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::on_its_way(
        Some(32.0),
        400.0,
        20.0,
        200.0,
        "At 300 °C in about 12 min: by 3 readings the flame gives 30 % less than usual"
    )]
    #[case::in_a_moment(Some(20.4), 400.0, 20.0, 290.0, "About to be at 300 °C")]
    #[case::later_than_thought(Some(32.0), 400.0, 33.0, 290.0, "About to be at 300 °C")]
    #[case::too_weak(None, 240.0, 20.0, 200.0, "It stops at about 240 °C, under the 260 °C to begin at")]
    #[case::too_slow(None, 290.0, 20.0, 200.0, "It does not get to 300 °C in time")]
    #[case::there(Some(32.0), 400.0, 31.0, 300.0, "")]
    fn a_heating_is_said_by_what_was_read_of_it(
        #[case] at_target_min: Option<f64>,
        #[case] ceiling_c: f64,
        #[case] now_min: f64,
        #[case] celsius: f64,
        #[case] said: &str,
    ) {
        let warming = Warming {
            target_c: 300.0,
            least_c: 260.0,
            at_target_min,
            ceiling_c,
            weaker: false,
            factor: 0.7,
            readings: 3,
        };
        let words = warming.words(Reading { minutes: now_min, celsius }, now_min, UnitSystem::Metric);
        assert!(words.starts_with(said) && words.is_empty() == said.is_empty(), "{words}");
    }
}
