use proptest::prelude::*;
use rstest::rstest;

use super::*;
use crate::base::log::{Fact, own_words};
use crate::base::problem::FieldProblem;
use crate::field::FieldValue;

struct ToldShop(Vec<ShopFact>);

impl ToldShop {
    fn say(&mut self, sender: &str, word: ShopWord) -> Result<Uuid, FieldProblem> {
        let understood = may_be_said(&self.0, &word, sender)?;
        let revision = self.0.len() as u64 + 1;
        let id = Uuid::from_u128(u128::from(revision));
        self.0.push(Fact {
            id,
            revision,
            at_client_ms: 0,
            at_server_ms: 0,
            who: String::new(),
            sender: sender.to_owned(),
            change: word,
            understood,
        });
        Ok(id)
    }

    fn set(&mut self, sender: &str, key: &str, typed: &str) -> Result<Uuid, FieldProblem> {
        let (key, typed) = (key.to_owned(), typed.to_owned());
        self.say(sender, ShopWord::Set { key, typed, shown_in: UnitSystem::Metric })
    }

    fn typed(&self, key: &str) -> String {
        settings(&self.0).get(key).map_or(String::new(), |held| held.typed.clone())
    }
}

#[test]
fn a_setting_is_taken_back_and_put_back() {
    let mut told = ToldShop(Vec::new());
    told.set("laptop", "shop.ambient", "18 C").unwrap();
    let second = told.set("laptop", "shop.ambient", "5 C").unwrap();
    told.say("laptop", ShopWord::Undo { target: second }).unwrap();
    assert_eq!(told.typed("shop.ambient"), "18 C");
    assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 18.0);
    told.say("laptop", ShopWord::Redo { target: second }).unwrap();
    assert_eq!(told.typed("shop.ambient"), "5 C");
}

#[test]
fn everybody_takes_back_their_own_word() {
    let mut told = ToldShop(Vec::new());
    let theirs = told.set("phone", "shop.name", "Lockside").unwrap();
    told.set("laptop", "shop.ambient", "5 C").unwrap();
    assert!(told.say("laptop", ShopWord::Undo { target: theirs }).is_err());
    told.say("phone", ShopWord::Undo { target: theirs }).unwrap();
    assert_eq!((told.typed("shop.name"), told.typed("shop.ambient")), (String::new(), "5 C".to_owned()));
}

#[rstest]
#[case::not_understood("shop.ambient", "warm", "shop.ambient")]
#[case::out_of_bounds("shop.ambient", "90 C", "shop.ambient")]
#[case::no_such_setting("shop.colour", "red", "shop.colour")]
#[case::a_field_of_a_job("part.wall", "12", "part.wall")]
fn what_cannot_be_is_refused_at_its_field(#[case] key: &str, #[case] typed: &str, #[case] field: &str) {
    let problem = ToldShop(Vec::new()).set("laptop", key, typed).unwrap_err();
    assert_eq!(problem.field, field);
}

#[test]
fn what_was_understood_when_it_was_said_stays_so() {
    let mut told = ToldShop(Vec::new());
    told.set("laptop", "shop.ambient", "18 C").unwrap();
    told.0[0].understood = Some(Some(FieldValue::Number(99.0)));
    assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 99.0, "past the bounds of today");
    told.0[0].understood = None;
    assert_eq!(Shop::of(&settings(&told.0)).ambient_c, 18.0, "from before it was kept");
}

#[rstest]
#[case::nobody_said("", UnitSystem::Metric, false)]
#[case::nobody_said_in_inches("", UnitSystem::Imperial, true)]
#[case::twelve_hours("12", UnitSystem::Metric, true)]
#[case::all_of_them("24", UnitSystem::Imperial, false)]
fn the_clock_is_as_it_was_said_else_as_the_units_are(
    #[case] said: &str,
    #[case] units: UnitSystem,
    #[case] twelve_hours: bool,
) {
    let mut told = ToldShop(Vec::new());
    if !said.is_empty() {
        told.set("laptop", "shop.clock", said).unwrap();
    }
    assert_eq!(Shop::of(&settings(&told.0)).told_in(units).twelve_hours, twelve_hours);
}

proptest! {
    #[test]
    fn taking_all_of_ones_words_back_leaves_what_the_others_said(
        said in prop::collection::vec((any::<bool>(), 0..3_usize), 0..12),
    ) {
        let keys = ["shop.name", "shop.time_zone", "shop.units"];
        let typed = ["Lockside", "Europe/London", "imperial"];
        let mut told = ToldShop(Vec::new());
        let mut others = ToldShop(Vec::new());
        for (mine, at) in said {
            let sender = if mine { "laptop" } else { "phone" };
            told.set(sender, keys[at], typed[at]).unwrap();
            if !mine {
                others.set(sender, keys[at], typed[at]).unwrap();
            }
        }
        while let Some(target) =
            own_words(&told.0).into_iter().find(|own| own.sender == "laptop").and_then(|own| own.undo)
        {
            told.say("laptop", ShopWord::Undo { target }).unwrap();
        }
        let words = |told: &ToldShop| {
            let values = settings(&told.0);
            values.into_iter().map(|(key, held)| (key, held.typed)).collect::<Vec<_>>()
        };
        prop_assert_eq!(words(&told), words(&others));
    }
}
