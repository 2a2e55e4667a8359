//! An append-only log of what was said of something: what was typed and what was understood of it, taking
//! back and putting back, whatever the thing is that has the log.

use std::collections::{BTreeMap, HashSet};

use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// One word of a log as it was stored: `C` is what was said, `U` what was understood of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Fact<C, U> {
    /// Made by the client: sent twice, stored once.
    pub id: Uuid,
    /// Place in the log, from 1.
    pub revision: u64,
    /// When it happened, by the client's clock as far as that was known to be right, and when the server
    /// stored it: UTC, ms since 1970.
    pub at_client_ms: i64,
    pub at_server_ms: i64,
    pub who: String,
    /// The browser it came from: everybody takes back their own word. Empty where nobody said.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub sender: String,
    pub change: C,
    /// What was understood of it when it was said: bounds and words that change later do not rewrite it.
    /// Nothing where there is nothing to understand, or it was said before this was kept.
    #[serde(default = "nothing", skip_serializing_if = "Option::is_none")]
    pub understood: Option<U>,
}

fn nothing<U>() -> Option<U> {
    None
}

impl<C, U> Fact<C, U> {
    /// When it happened: the client's clock, unless that runs ahead of the server's.
    #[must_use]
    pub fn at_ms(&self) -> i64 {
        self.at_client_ms.min(self.at_server_ms)
    }
}

/// What a word does to those before it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Taking {
    /// It takes back an earlier one.
    Back(Uuid),
    /// It puts back one that was taken back.
    Again(Uuid),
    /// It can be taken back itself.
    Open,
    /// It stands, and so does everything before it: what has happened has happened.
    Closed,
    /// It was said by the program itself: nobody's last word, and nothing before it is closed by it.
    Aside,
}

/// Something that can be said of a thing that has a log.
pub trait Word {
    fn taking(&self) -> Taking;
}

/// The last word of one sender that can be taken back, and the last that can be put back.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OwnWord {
    pub sender: String,
    pub undo: Option<Uuid>,
    pub redo: Option<Uuid>,
}

/// What is taken back and not put back again.
#[must_use]
pub fn undone<C: Word, U>(facts: &[Fact<C, U>]) -> HashSet<Uuid> {
    let mut undone = HashSet::new();
    for fact in facts {
        match fact.change.taking() {
            Taking::Back(target) => {
                undone.insert(target);
            }
            Taking::Again(target) => {
                undone.remove(&target);
            }
            Taking::Open | Taking::Closed | Taking::Aside => {}
        }
    }
    undone
}

/// Of each sender the top of their undo stack and of their redo stack. A new word of theirs empties the
/// latter.
#[must_use]
pub fn own_words<C: Word, U>(facts: &[Fact<C, U>]) -> Vec<OwnWord> {
    let mut stacks: BTreeMap<&str, (Vec<Uuid>, Vec<Uuid>)> = BTreeMap::new();
    for fact in facts {
        match fact.change.taking() {
            Taking::Back(target) => {
                for (undo, redo) in stacks.values_mut().filter(|(undo, _)| undo.contains(&target)) {
                    undo.retain(|id| *id != target);
                    redo.push(target);
                }
            }
            Taking::Again(target) => {
                for (undo, redo) in stacks.values_mut().filter(|(_, redo)| redo.contains(&target)) {
                    redo.retain(|id| *id != target);
                    undo.push(target);
                }
            }
            Taking::Open => {
                let (undo, redo) = stacks.entry(&fact.sender).or_default();
                undo.push(fact.id);
                redo.clear();
            }
            Taking::Closed => {
                for (undo, _) in stacks.values_mut() {
                    undo.clear();
                }
            }
            Taking::Aside => {}
        }
    }
    let own = |(sender, (undo, redo)): (&str, (Vec<Uuid>, Vec<Uuid>))| OwnWord {
        sender: sender.to_owned(),
        undo: undo.last().copied(),
        redo: redo.last().copied(),
    };
    stacks.into_iter().map(own).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A thing of which only this can be said.
    impl Word for Taking {
        fn taking(&self) -> Taking {
            *self
        }
    }

    fn said(id: usize, sender: &str, change: Taking) -> Fact<Taking, ()> {
        Fact {
            id: Uuid::from_u128(id as u128),
            revision: id as u64,
            at_client_ms: 0,
            at_server_ms: 0,
            who: String::new(),
            sender: sender.to_owned(),
            change,
            understood: None,
        }
    }

    /// What two people do, each by the words the log offers them.
    #[derive(Debug, Clone, Copy)]
    enum Act {
        Say,
        Undo,
        Redo,
        Happens,
    }

    fn log(acts: &[(bool, Act)]) -> Vec<Fact<Taking, ()>> {
        let mut facts: Vec<Fact<Taking, ()>> = Vec::new();
        for (first, act) in acts {
            let sender = if *first { "phone" } else { "laptop" };
            let own = own_words(&facts).into_iter().find(|own| own.sender == sender);
            let (undo, redo) = own.map_or((None, None), |own| (own.undo, own.redo));
            let change = match act {
                Act::Say => Some(Taking::Open),
                Act::Undo => undo.map(Taking::Back),
                Act::Redo => redo.map(Taking::Again),
                Act::Happens => Some(Taking::Closed),
            };
            let id = facts.len() + 1;
            facts.extend(change.map(|change| said(id, sender, change)));
        }
        facts
    }

    fn acts() -> impl Strategy<Value = Vec<(bool, Act)>> {
        let act = prop_oneof![Just(Act::Say), Just(Act::Undo), Just(Act::Redo), Just(Act::Happens)];
        proptest::collection::vec((any::<bool>(), act), 0..60)
    }

    proptest! {
        #[test]
        fn nobody_is_offered_the_word_of_another_or_one_that_is_gone(acts in acts()) {
            let facts = log(&acts);
            let undone = undone(&facts);
            for own in own_words(&facts) {
                let whose = |id: Uuid| facts.iter().find(|fact| fact.id == id).map(|fact| fact.sender.clone());
                if let Some(undo) = own.undo {
                    prop_assert_eq!(whose(undo), Some(own.sender.clone()));
                    prop_assert!(!undone.contains(&undo));
                }
                if let Some(redo) = own.redo {
                    prop_assert_eq!(whose(redo), Some(own.sender.clone()));
                    prop_assert!(undone.contains(&redo));
                }
            }
        }

        #[test]
        fn taking_back_and_putting_back_leaves_everything_as_it_was(acts in acts()) {
            let mut facts = log(&acts);
            let before = undone(&facts);
            let open: Vec<OwnWord> = own_words(&facts);
            for OwnWord { sender, undo, .. } in open {
                let Some(target) = undo else { continue };
                let at = facts.len() + 1;
                facts.push(said(at, &sender, Taking::Back(target)));
                prop_assert!(undone(&facts).contains(&target));
                facts.push(said(at + 1, &sender, Taking::Again(target)));
            }
            prop_assert_eq!(undone(&facts), before);
        }

        #[test]
        fn what_has_happened_closes_what_was_said_before_it(acts in acts()) {
            let mut facts = log(&acts);
            let at = facts.len() + 1;
            facts.push(said(at, "phone", Taking::Closed));
            prop_assert!(own_words(&facts).iter().all(|own| own.undo.is_none()));
        }
    }
}
