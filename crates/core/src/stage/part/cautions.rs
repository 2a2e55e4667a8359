//! The cautions a part earns by what is known of it.

use super::PartFacts;
use crate::casting::old_filler::OldFiller;
use crate::casting::said::Coating;
use crate::casting::said::MendedAt;
use crate::casting::said::{Cavity, Contents, Oil};
use crate::field;
use crate::iron::{Era, Family};
use crate::job::Round;
use crate::quantity::Unit;
use crate::stage::proof::not_over;
use crate::stage::{Caution, Station};

/// House: a manifold that never gets hotter carries no exhaust, in degC.
const INTAKE_MOST_C: f64 = 150.0;

/// The cautions this part earns.
///
/// # Source
/// House, from the trade's usual cautions; local codes and licensed practice come first.
pub fn cautions(round: &Round, facts: &PartFacts) -> Vec<Caution> {
    let mut said = Said { round, facts, cautions: Vec::new() };
    said.of_its_coating();
    said.of_oil();
    said.of_old_filler();
    said.of_a_hollow();
    said.of_what_it_held();
    said.of_its_test();
    said.of_its_use();
    said.of_its_place();
    said.of_what_stays_cool();
    said.of_hands();
    said.cautions
}

/// The cautions so far, and what they go by.
struct Said<'a> {
    round: &'a Round,
    facts: &'a PartFacts,
    cautions: Vec<Caution>,
}

impl Said<'_> {
    fn say(&mut self, station: Station, sentence: impl Into<String>) {
        self.cautions.push(Caution { station, sentence: sentence.into() });
    }

    fn coated(&self, what: Coating) -> bool {
        self.round.get(field::part::COATING).is_some_and(|on_it| on_it.contains(&what))
    }

    fn of_its_coating(&mut self) {
        let facts = self.facts;
        let coating_known = self.round.get(field::part::COATING).is_some();
        let old = matches!(facts.era, Era::Before1949 | Era::From1949To1969);
        let painted = self.coated(Coating::Paint) || self.coated(Coating::Enamel);
        if facts.may_be_leaded() && (painted || (old && !coating_known)) {
            let age = if old { "that age" } else { "an age not known" };
            self.say(
                Station::Part,
                format!("Paint of {age} may hold lead: test it, work wet, P100 or P3 mask, no dry grinding."),
            );
        } else if painted {
            let strip = facts.units.say(50.0, Unit::Millimetres);
            self.say(
                Station::Part,
                format!("Paint and enamel fume when heated: strip back {strip} from the heat, mask on."),
            );
        }
        if old && matches!(facts.family, Family::HotExhaust | Family::EngineBlock | Family::PumpValve) {
            let lagging =
                "Old gaskets and lagging can be asbestos: have them tested, wet them, no dry scraping.";
            self.say(Station::Part, lagging);
        }
        if self.coated(Coating::Galvanised) {
            self.say(Station::Prep, "Zinc: white smoke gives fume fever. Strip it off, extraction, mask.");
        }
        if self.coated(Coating::Plated) {
            let plated = "Plating can be cadmium or chromium: no heat until it is known or off.";
            self.say(Station::Prep, plated);
        }
    }

    fn of_oil(&mut self) {
        let sentence = match self.round.get(field::part::OIL) {
            Some(Oil::Soaked) => "Oil weeps when heated. No chlorinated cleaner near arc or flame: phosgene.",
            Some(Oil::BakedClean) => "Look for oil again after the first heat: it creeps out of the pores.",
            Some(Oil::Clean) | None => return,
        };
        self.say(Station::Cracks, sentence);
    }

    fn of_old_filler(&mut self) {
        let ours = self.round.laid_before().is_some();
        let sentence = match self.round.old_filler() {
            Some(OldFiller::Bronze) if ours => "Our bronze: zinc fume. Out before any weld.",
            Some(OldFiller::Bronze) => {
                "Old bronze can hold zinc or cadmium: fume. All of it out before any weld."
            }
            Some(OldFiller::Other) => {
                "Old filler of a kind not known: file it, look at its colour, before any heat."
            }
            Some(OldFiller::Nickel | OldFiller::Steel) if ours => {
                "Our weld's edges are hard: back to clean casting."
            }
            Some(OldFiller::Nickel | OldFiller::Steel) => {
                "The old weld's edges are hard: cut back to clean casting."
            }
            Some(OldFiller::None) | None => return,
        };
        self.say(Station::Prep, sentence);
    }

    fn of_a_hollow(&mut self) {
        let cavity = self.round.get(field::part::CAVITY);
        if cavity == Some(Cavity::Vented) || (self.facts.closed() && cavity.is_none()) {
            let dry = self.facts.units.say(120.0, Unit::Celsius);
            self.say(
                Station::Heat,
                format!(
                    "Closed hollow? Trapped water or oil bursts when heated: vent, drain, dry at {dry} first."
                ),
            );
        }
    }

    fn of_what_it_held(&mut self) {
        let (station, sentence) = match self.facts.holds {
            Some(Contents::DrinkingWater) => {
                (Station::HandOver, "No contact with drinking water after a repair.")
            }
            Some(Contents::Fuel) => (
                Station::Part,
                "It held fuel or solvent: emptied, cleaned, vented and checked before any hot work.",
            ),
            Some(Contents::Fumes) => {
                (Station::Part, "It carried fumes: degreased, dry and open before any hot work.")
            }
            Some(Contents::Oil) => (Station::Cracks, "It held oil: bake it until it stops weeping."),
            Some(Contents::Nothing | Contents::Water | Contents::Gas | Contents::Duct) | None => return,
        };
        self.say(station, sentence);
    }

    fn of_its_test(&mut self) {
        let (round, facts) = (self.round, self.facts);
        if facts.duct() {
            let most = facts.units.say(0.03, Unit::Bar);
            self.say(
                Station::Check,
                format!("A duct is not filled: soap or smoke under {most}, flange flat on a plate."),
            );
            // What is drawn in is no smoke: it stays cooler than any exhaust.
            let service_c = round.get(field::part::SERVICE_TEMPERATURE);
            if service_c.is_none_or(|celsius| celsius > INTAKE_MOST_C) {
                let leak = "A leak here gives carbon monoxide: alarm, air, a leak test before use.";
                self.say(Station::HandOver, leak);
            }
        } else if facts.fluid_tight == Some(true) {
            self.say(Station::Check, "Test with water, never with air or gas: brittle iron bursts.");
            if let Some(bar) = round.get(field::part::PRESSURE).filter(|bar| *bar > 0.0) {
                let most = facts.units.say(not_over(bar * 1.5), Unit::Bar);
                self.say(
                    Station::Check,
                    format!("Proof with water, vented, slowly, people clear, to {most} at most."),
                );
            }
        }
    }

    fn of_its_use(&mut self) {
        if self.facts.family == Family::Cookware {
            self.say(Station::HandOver, "No contact with food after a repair.");
        }
        if self.facts.family == Family::HotExhaust {
            let leak = "A repaired fire part can leak carbon monoxide: ventilate, alarm, leak test.";
            self.say(Station::Check, leak);
        }
        if self.round.get(field::part::RPM).is_some_and(|rpm| rpm > 0.0) {
            self.say(Station::HandOver, "It turns: nobody in its plane when it first runs again.");
        }
    }

    fn of_its_place(&mut self) {
        if self.round.get(field::part::PLACE) == Some(MendedAt::InPlace) {
            let earth =
                "In place: battery and electronics off, earth clamp beside the joint, not through bearings.";
            self.say(Station::Heat, earth);
            let burns = "In place: look behind it and under it for what burns, before any flame.";
            self.say(Station::Heat, burns);
        }
    }

    fn of_what_stays_cool(&mut self) {
        let facts = self.facts;
        for shy in &facts.heat_shy {
            let limit = shy.limit_c.map_or(String::new(), |limit| {
                format!(", under {}", facts.units.say_most(limit, Unit::Celsius))
            });
            self.say(Station::Heat, format!("Keep cool: {}{limit}.", shy.what));
        }
        let sealed = facts.heat_shy.iter().any(|shy| {
            let what = shy.what.to_lowercase();
            ["seal", "gasket", "o-ring"].iter().any(|word| what.contains(word))
        });
        if sealed {
            let strip = "Strip all seals and gaskets first. Charred ones are not touched: hydrofluoric acid.";
            self.say(Station::Heat, strip);
        }
    }

    fn of_hands(&mut self) {
        if let Some(faces) = self.round.get(field::part::KEEP_OFF) {
            self.say(Station::Prep, format!("Not to be touched: {faces}."));
        }
        if let Some(who) = self.round.get(field::part::HURT) {
            self.say(Station::HandOver, format!("Could be hurt: {who}. Say it at the hand-over."));
        }
        if self.facts.weight.as_ref().is_some_and(|weight| weight.range_kg().1 > 25.0) {
            self.say(Station::Part, "A broken casting shifts: sling it on sound metal.");
        }
    }
}
