//! What was said of a job, in the words in which it is told again.

mod torch;

use std::collections::HashMap;

use uuid::Uuid;

use super::fold::names;
use super::{Became, Change, CheckPlace, Fact, Observed, Parsed, WentAt};
use crate::base::day::Day;
use crate::faults::acceptance::Found;
use crate::field::{Choice, FieldKind, FieldSpec, FieldValue, id_in, job_field};
use crate::iron::{Confidence, TypedValues};
use crate::map::{Drawn, FlamePlace};
use crate::quantity::{Unit, UnitSystem};
use crate::render::{said, upper};
use crate::shelf::StoreKind;
use crate::stores::named;

use torch::lit;

/// Tells the facts of one job.
pub struct Telling<'a> {
    facts: &'a [Fact],
    names: HashMap<Uuid, String>,
    units: UnitSystem,
}

impl<'a> Telling<'a> {
    /// Of these facts, all that a job has, in these units.
    #[must_use]
    pub fn new(facts: &'a [Fact], units: UnitSystem) -> Self {
        Self { facts, names: names(facts), units }
    }

    /// One of them, in a few words with its value and unit.
    #[must_use]
    pub fn told(&self, fact: &Fact) -> String {
        match &fact.change {
            Change::Set { key, typed, shown_in } => self.set(fact, key, typed, *shown_in),
            Change::Observe { test, outcome, confidence, spot } => {
                self.observed(fact, test, outcome, (*confidence, spot), (&TypedValues::new(), self.units))
            }
            Change::Measure { test, typed, shown_in, confidence, spot } => {
                let outcome = match &fact.understood {
                    Some(Parsed::Outcome(outcome)) => outcome,
                    _ => "",
                };
                self.observed(fact, test, outcome, (*confidence, spot), (typed, *shown_in))
            }
            Change::AddHardSpot { spot, .. } => format!("A hard spot: {spot}"),
            Change::AddNeighbour => "Something must stay cool".to_owned(),
            Change::AddPicture { .. } => "A picture was taken".to_owned(),
            Change::AddFace => format!("A face of the part: {}", self.letter(fact.id)),
            Change::AddMark { .. } => format!("On the map: {}", self.letter(fact.id)),
            Change::Straighten { face, .. } => {
                format!("A picture laid on {}{}", self.letter(*face), self.lengths(fact))
            }
            Change::Draw { drawn } => self.drawn(drawn),
            Change::PutFlame { flame } => self.flame(flame.as_ref()),
            Change::SetPoint { mark, point, .. } => {
                format!("{}, point {}{}", upper(&self.thing(*mark)), point + 1, self.lengths(fact))
            }
            Change::MeasureSeam { crack, what, number, .. } => {
                let number = number.map_or_else(String::new, |number| format!(" {number}"));
                let (letter, lengths) = (self.letter(*crack), self.lengths(fact));
                format!("Crack {letter}, {}{number}{lengths}", what.word())
            }
            Change::Tick { step, done } => {
                let done = if *done { "done" } else { "not done after all" };
                let at = step.at.map_or_else(String::new, |at| format!(", {}", self.thing(at)));
                format!("{}{at}: {done}", step.what.word())
            }
            Change::FinishStep { step, taken } => {
                let taken = if *taken { "to be done" } else { "left out" };
                let at = step.at.map_or_else(String::new, |at| format!(", {}", self.thing(at)));
                format!("{}{at}: {taken}", step.what.word())
            }
            Change::Look { place, found, .. } => self.looked(fact, place, *found),
            Change::Use { what, size_mm, typed, .. } => self.used(what, *size_mm, typed),
            Change::FollowUp { became, went, after, did, note, .. } => {
                followed(*became, *went, [after, did, note])
            }
            Change::Time { step, running } => {
                let step = upper(&step.replace('_', " "));
                format!("{step}: {}", if *running { "timed from here" } else { "timed to here" })
            }
            Change::Estimate { frozen, .. } => frozen.as_ref().map_or("An estimate".to_owned(), |it| {
                format!("An estimate of {}{:.2}, until {}", it.currency, it.total, Day::say(&it.until))
            }),
            Change::AddCrack => format!("Crack {} found", self.letter(fact.id)),
            Change::Strike { target, reason } => {
                let why = if reason.is_empty() { String::new() } else { format!(". Why: {reason}") };
                format!("Crossed out: {}{why}", self.named(*target))
            }
            Change::Undo { target } => format!("Took back: {}", self.named(*target)),
            Change::Redo { target } => format!("Put back: {}", self.named(*target)),
            Change::Light { speed, owned, what, without, .. } => lit(*what, *speed, owned, without),
            Change::CancelLight => "Lighting cancelled".to_owned(),
            Change::PutOut => format!("{} over, flame off", self.lit_for(fact).word()),
            Change::Torch { entry } => self.at_the_torch(fact, entry),
            Change::NewRound { reason } => format!("New round: {reason}"),
            Change::Unreadable { text } => format!("Cannot be read: {text}"),
            Change::PutAway => "Put away".to_owned(),
            Change::BringBack => "Brought back to the rack".to_owned(),
            Change::Practise { of } => format!("Practice, {}: {}", of.level.words(), of.title),
            Change::Pass { minutes } => {
                format!("{} went by", self.units.say(*minutes, Unit::Minutes))
            }
            Change::EndPractice => "Practice over: what became of it".to_owned(),
        }
    }

    fn flame(&self, flame: Option<&FlamePlace>) -> String {
        match flame {
            None => "Where the flame begins is open again".to_owned(),
            Some(FlamePlace { swept: true, .. }) => "The flame is swept over all of it".to_owned(),
            Some(flame) => format!("The flame begins on {}", self.letter(flame.face)),
        }
    }

    fn looked(&self, fact: &Fact, place: &CheckPlace, found: Found) -> String {
        let at = place.at.map_or_else(String::new, |at| format!(", {}", self.thing(at)));
        let side = place.side.map_or_else(String::new, |side| format!(", side {side}"));
        format!("Looked at{at}{side}: {}{}", found.words().to_lowercase(), self.lengths(fact))
    }

    fn used(&self, what: &str, size_mm: Option<f64>, typed: &str) -> String {
        let of = StoreKind::from_id(what).map_or_else(String::new, |kind| named(kind, size_mm, self.units));
        let typed = if typed.trim().is_empty() { "not said after all" } else { typed.trim() };
        format!("Used, {of}: {typed}")
    }

    fn named(&self, id: Uuid) -> String {
        let fact = self.facts.iter().find(|fact| fact.id == id);
        fact.map_or_else(|| "something that is not there".to_owned(), |fact| self.told(fact))
    }

    fn letter(&self, crack: Uuid) -> &str {
        self.names.get(&crack).map_or("", String::as_str)
    }

    /// What lies on the map, as it is spoken of.
    fn thing(&self, id: Uuid) -> String {
        let fact = self.facts.iter().find(|fact| fact.id == id);
        match fact.map(|fact| &fact.change) {
            Some(Change::AddCrack) => format!("crack {}", self.letter(id)),
            Some(Change::AddHardSpot { spot, .. }) => format!("hard spot at {spot}"),
            Some(Change::AddNeighbour) => "what must stay cool".to_owned(),
            _ => self.letter(id).to_owned(),
        }
    }

    fn drawn(&self, drawn: &[Drawn]) -> String {
        /// House: more than these are told as a number.
        const NAMED: usize = 4;
        let off = drawn.iter().all(|it| it.shape.is_none());
        let thing = |it: &Drawn| {
            let outline = if it.mark == it.face { "outline of " } else { "" };
            format!("{outline}{}", self.thing(it.mark))
        };
        let things: Vec<String> = drawn.iter().take(NAMED).map(thing).collect();
        let more = match drawn.len().saturating_sub(NAMED) {
            0 => String::new(),
            more => format!(" and {more} more"),
        };
        format!("{} the map: {}{more}", if off { "Off" } else { "On" }, things.join(", "))
    }

    /// Lengths that were typed on the map.
    fn lengths(&self, fact: &Fact) -> String {
        let Some(Parsed::Lengths(lengths)) = &fact.understood else { return String::new() };
        let said = lengths.iter().map(|(name, mm)| {
            let word = match name.as_str() {
                "x" => "from the left",
                "y" => "from the top",
                "from_before" => "from the one before",
                "at" => "along",
                "depth" => "deep",
                "run_out" => "run-out",
                "across" => "measured",
                other => other,
            };
            match mm {
                Some(count) if name == "count" => {
                    format!("{count:.0} within {}", self.units.say_exactly(25.0, Unit::Millimetres))
                }
                Some(mm) => format!("{} {word}", self.units.say_exactly(*mm, Unit::Millimetres)),
                None => format!("{word} not known"),
            }
        });
        let said: Vec<String> = said.collect();
        if said.is_empty() { String::new() } else { format!(": {}", said.join(", ")) }
    }

    fn set(&self, fact: &Fact, key: &str, typed: &str, shown_in: UnitSystem) -> String {
        let Some(spec) = job_field(key) else { return format!("{key}: {typed}") };
        let label = spec.label.trim_end_matches('?');
        let whose = match id_in(key) {
            Some(id) if key.starts_with("crack.") => format!("Crack {}, ", self.letter(id)),
            Some(_) if key.starts_with("neighbour.") => "Beside the joint, ".to_owned(),
            Some(id) if key.starts_with("face.") || key.starts_with("mark.") => {
                format!("{}, ", upper(self.letter(id)))
            }
            Some(_) if key.starts_with("picture.") => "Picture, ".to_owned(),
            _ => String::new(),
        };
        let label = if whose.is_empty() { label.to_owned() } else { label.to_lowercase() };
        let value = match &fact.understood {
            _ if typed.trim().is_empty() => "not known".to_owned(),
            // Another face, or the mark from which is measured.
            Some(_) if typed.trim().parse::<Uuid>().is_ok() => {
                typed.trim().parse().map_or_else(|_| String::new(), |id| self.thing(id))
            }
            Some(Parsed::Field(Some(value))) => self.value(spec, value, typed.trim(), shown_in),
            _ => typed.trim().to_owned(),
        };
        format!("{whose}{label}: {value}")
    }

    /// What stands in a field: as it was typed, with the unit it was meant in, and in the shop's where that is
    /// another.
    fn value(&self, spec: &FieldSpec, value: &FieldValue, typed: &str, shown_in: UnitSystem) -> String {
        let among = |choices: &[Choice], id: &str| {
            let label = choices.iter().find(|(known, _)| *known == id).map_or(id, |(_, label)| label);
            said(label, self.units)
        };
        match (spec.kind, value) {
            (FieldKind::Quantity { kind, unit, .. }, FieldValue::Number(number)) => {
                // What stands before the number is no unit of it.
                let amount = typed.trim_start_matches(|c: char| !c.is_ascii_digit());
                let bare = !amount.chars().any(|c| c.is_alphabetic() || matches!(c, '"' | '\'' | '°' | '%'));
                let (metric, imperial) = kind.asked_in().unwrap_or((unit, unit));
                let unit = if shown_in == UnitSystem::Imperial { imperial } else { metric };
                let text = if bare { format!("{typed} {unit}") } else { typed.to_owned() };
                match kind.held_in() {
                    Some(held) if shown_in != self.units => {
                        format!("{} ({})", text.trim(), self.units.say_exactly(*number, held))
                    }
                    _ => text.trim().to_owned(),
                }
            }
            (FieldKind::One(choices), FieldValue::One(id)) => among(choices, id),
            (FieldKind::Many(choices), FieldValue::Many(ids)) if !ids.is_empty() => {
                let labels: Vec<String> = ids.iter().map(|id| among(choices, id)).collect();
                labels.join(", ")
            }
            (FieldKind::Many(_), _) => "none".to_owned(),
            (FieldKind::Date, FieldValue::Text(day)) => Day::say(day),
            (FieldKind::YesNo, FieldValue::YesNo(yes)) => (if *yes { "yes" } else { "no" }).to_owned(),
            _ => typed.to_owned(),
        }
    }

    fn observed(
        &self,
        fact: &Fact,
        test: &str,
        outcome: &str,
        (confidence, spot): (Confidence, &str),
        (typed, shown_in): (&TypedValues, UnitSystem),
    ) -> String {
        let observed = Observed {
            fact: fact.id,
            revision: fact.revision,
            test: test.to_owned(),
            outcome: outcome.to_owned(),
            confidence,
            spot: spot.to_owned(),
            typed: typed.clone(),
            shown_in,
            hard_spot: None,
            struck: None,
        };
        // "on the boss" says where by itself.
        let place = ["on ", "at ", "in ", "under ", "by "].iter().any(|word| spot.starts_with(word));
        let at = if place { "" } else { "at " };
        format!("{}, {at}{spot}, {}", observed.words(self.units), confidence.word())
    }
}

/// A temperature as it was typed, with its unit.
fn with_its_unit(typed: &str, shown_in: UnitSystem) -> String {
    let bare = typed.trim().parse::<f64>().is_ok();
    let unit = if shown_in == UnitSystem::Imperial { "°F" } else { "°C" };
    if bare { format!("{} {unit}", typed.trim()) } else { typed.trim().to_owned() }
}

fn followed(became: Became, went: Option<WentAt>, [after, did, note]: [&String; 3]) -> String {
    let went = went.map_or("", WentAt::words);
    let after = if after.is_empty() { String::new() } else { format!("after {after}") };
    let said = [went.to_lowercase(), after, did.clone(), note.clone()];
    let said: Vec<String> = said.into_iter().filter(|words| !words.is_empty()).collect();
    let said = if said.is_empty() { String::new() } else { format!(": {}", said.join("; ")) };
    format!("Asked how it holds. {}{said}", became.label())
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;
    use crate::job::TorchEntry;

    fn fact(revision: u64, change: Change) -> Fact {
        Fact {
            id: Uuid::from_u128(u128::from(revision)),
            revision,
            at_client_ms: 0,
            at_server_ms: 0,
            who: String::new(),
            sender: String::new(),
            understood: Parsed::of(&change, Day::new(2026, 11, 26)),
            change,
        }
    }

    fn set(key: &str, typed: &str) -> Change {
        Change::Set { key: key.to_owned(), typed: typed.to_owned(), shown_in: UnitSystem::Metric }
    }

    #[rstest]
    #[case::a_bare_number(set("part.mass", "14"), "Weight: 14 kg", "Weight: 14 kg (30.9 lb)")]
    #[case::with_its_unit(
        set("part.mass", "about 31 lb"),
        "Weight: about 31 lb",
        "Weight: about 31 lb (31 lb)"
    )]
    #[case::about(set("part.mass", "about 14"), "Weight: about 14 kg", "Weight: about 14 kg (30.9 lb)")]
    #[case::emptied(set("part.mass", " "), "Weight: not known", "Weight: not known")]
    #[case::a_choice(set("part.oil", "soaked"), "Oil: Oil-soaked", "Oil: Oil-soaked")]
    #[case::a_question(set("part.name", "Lever"), "What is it: Lever", "What is it: Lever")]
    #[case::a_day(set("part.wanted", "Friday"), "Wanted on: Fri 27 Nov 2026", "Wanted on: Fri 27 Nov 2026")]
    #[case::yes(
        set("part.heat_cycling", "yes"),
        "Heats and cools in service: yes",
        "Heats and cools in service: yes"
    )]
    fn a_field_is_told_with_value_and_unit(
        #[case] change: Change,
        #[case] metric: &str,
        #[case] imperial: &str,
    ) {
        let facts = [fact(1, change)];
        let told = |units| Telling::new(&facts, units).told(&facts[0]);
        assert_eq!(
            (told(UnitSystem::Metric).as_str(), told(UnitSystem::Imperial).as_str()),
            (metric, imperial)
        );
    }

    #[test]
    fn what_was_taken_back_and_crossed_out_is_named() {
        let observed = Change::Observe {
            test: "punch".into(),
            outcome: "crumbles_no_rim".into(),
            confidence: Confidence::Fair,
            spot: "the rim".into(),
        };
        let crack = fact(1, Change::AddCrack);
        let wall = format!("crack.{}.wall", crack.id);
        let facts = vec![
            crack.clone(),
            fact(2, set(&wall, "12 mm")),
            fact(3, Change::Undo { target: Uuid::from_u128(2) }),
            fact(4, observed),
            fact(5, Change::Strike { target: Uuid::from_u128(4), reason: "misread".into() }),
            fact(6, Change::Strike { target: crack.id, reason: String::new() }),
        ];
        let telling = Telling::new(&facts, UnitSystem::Metric);
        let told: Vec<String> = facts.iter().map(|fact| telling.told(fact)).collect();
        assert_eq!(told[0], "Crack A found");
        assert_eq!(told[2], "Took back: Crack A, wall along it: 12 mm");
        assert!(
            told[3].starts_with("Punch: ") && told[3].ends_with(", at the rim, fairly sure"),
            "{}",
            told[3]
        );
        assert_eq!(told[4], format!("Crossed out: {}. Why: misread", told[3]));
        assert_eq!(told[5], "Crossed out: Crack A found");
    }

    #[rstest]
    #[case::bare("312", "Read by hand: 312 °C")]
    #[case::with_unit("600 F", "Read by hand: 600 F")]
    fn a_reading_has_its_unit(#[case] typed: &str, #[case] told: &str) {
        let entry = TorchEntry::Reading {
            typed: typed.into(),
            shown_in: UnitSystem::Metric,
            joint: false,
            gun: None,
        };
        let facts = [fact(1, Change::Torch { entry })];
        assert_eq!(Telling::new(&facts, UnitSystem::Imperial).told(&facts[0]), told);
    }
}
