//! One fact laid on what stands.

use std::collections::HashMap;

use uuid::Uuid;

use super::super::{Change, Crack, Face, Fact, HardSpot, Lit, Mark, Neighbour, Parsed, Picture};
use super::said::{followed, observed};
use super::{Damaged, Job};
use crate::secret::{Broken, Practice, Practised};

impl Job {
    /// The round is lit; what was lit before is put aside.
    fn light(&mut self, fact: &Fact) {
        let Change::Light { speed, frozen, owned, what, without } = &fact.change else { return };
        self.round_mut().put_aside(None);
        self.round_mut().lit = Some(Lit {
            what: *what,
            without: without.clone(),
            owned: owned.clone(),
            fact: fact.id,
            at_ms: fact.at_ms(),
            speed: *speed,
            frozen: frozen.as_deref().cloned(),
        });
    }

    pub(super) fn apply(&mut self, fact: &Fact, names: &HashMap<Uuid, String>) {
        // What was understood when it was said; of what is older than that was kept, what is today.
        let today = fact.understood.is_none().then(|| Parsed::of(&fact.change, None)).flatten();
        let understood = fact.understood.as_ref().or(today.as_ref());
        let (id, at_ms) = (fact.id, fact.at_ms());
        let found_in_round = self.rounds.len();
        let name = || names.get(&id).cloned().unwrap_or_default();
        match &fact.change {
            Change::Set { key, typed, shown_in } => self.set(fact, (key, typed, *shown_in), understood),
            Change::Unreadable { text } => {
                self.damaged.push(Damaged { revision: fact.revision, text: text.clone() });
            }
            Change::Observe { .. } | Change::Measure { .. } => {
                self.evidence.extend(observed(fact, understood))
            }
            Change::AddHardSpot { spot, observed } => {
                self.add_hard_spot(HardSpot { id, spot: spot.clone(), found_in_round }, *observed);
            }
            Change::AddNeighbour => self.round_mut().neighbours.push(Neighbour { id }),
            Change::AddPicture { of } => {
                self.pictures.push(Picture { id, at_ms, taken_in_round: found_in_round, of: *of });
            }
            Change::AddCrack => {
                let crack = Crack { id, letter: name(), found_in_round, revision: fact.revision };
                self.round_mut().cracks.push(crack);
            }
            Change::AddFace => {
                self.faces.push(Face { id, name: name(), added_in_round: found_in_round, picture: None });
            }
            Change::AddMark { what } => {
                self.round_mut().marks.push(Mark { id, what: *what, name: name(), found_in_round });
            }
            Change::Straighten { .. } => self.straighten(fact, understood),
            Change::Draw { drawn } => {
                for it in drawn {
                    self.round_mut().draw(it, found_in_round, fact.revision);
                }
            }
            Change::PutFlame { flame } => {
                self.round_mut().flame = *flame;
                self.round_mut().flames.push((at_ms, *flame));
            }
            Change::SetPoint { .. } => self.set_point(fact, understood),
            Change::MeasureSeam { .. } => self.measure_seam(fact, understood),
            Change::Tick { step, done } => self.round_mut().tick(*step, *done, (at_ms, fact.revision)),
            Change::FinishStep { step, taken } => {
                self.round_mut().finish_steps.insert(*step, *taken);
            }
            Change::Look { .. } => self.look(fact, understood),
            Change::Use { .. } => self.use_up(fact, understood),
            Change::FollowUp { .. } => self.round_mut().followed.extend(followed(fact)),
            Change::Time { step, running } => self.round_mut().time(id, step, *running, at_ms),
            Change::Estimate { frozen, .. } => {
                // One that the server has not filled in offers nothing.
                self.estimate = frozen.as_deref().cloned().or(self.estimate.take());
            }
            Change::Strike { target, reason } => self.strike(*target, reason),
            Change::Light { .. } => self.light(fact),
            Change::CancelLight | Change::PutOut => self.round_mut().put_aside(Some(at_ms)),
            Change::Torch { entry } => self.at_torch(fact, entry, understood),
            Change::NewRound { reason } => {
                let next = self.round().next(reason);
                self.rounds.push(next);
            }
            Change::PutAway => self.put_away = true,
            Change::BringBack => self.put_away = false,
            Change::Practise { of } => self.practise(of, fact.revision),
            Change::Pass { minutes } => self.pass(*minutes),
            Change::EndPractice => self.practice.iter_mut().for_each(|practice| practice.ended = true),
            Change::Undo { .. } | Change::Redo { .. } => {}
        }
    }

    fn add_hard_spot(&mut self, spot: HardSpot, observed: Option<Uuid>) {
        for seen in self.evidence.iter_mut().filter(|seen| Some(seen.fact) == observed) {
            seen.hard_spot = Some(spot.id);
        }
        self.round_mut().hard_spots.push(spot);
    }

    /// A practice whose seal is not whole stays one: it is never taken for a repair.
    fn practise(&mut self, of: &Practised, revision: u64) {
        self.practice = Some(Practice::begun(of).unwrap_or_else(|| {
            self.damaged.push(Damaged { revision, text: Broken.words().to_owned() });
            Practice::without_truth(of)
        }));
    }

    fn strike(&mut self, target: Uuid, reason: &str) {
        for seen in self.evidence.iter_mut().filter(|seen| seen.fact == target) {
            seen.struck = Some(reason.to_owned());
        }
        for seen in self.evidence.iter_mut().filter(|seen| seen.hard_spot == Some(target)) {
            seen.hard_spot = None;
        }
        self.pictures.retain(|picture| picture.id != target);
        self.faces.retain(|face| face.id != target);
        self.round_mut().strike(target);
        for round in &mut self.rounds {
            let cancelled = round.cancelled.iter_mut().flat_map(|heat| &mut heat.log);
            for entry in round.log.iter_mut().chain(cancelled).filter(|entry| entry.fact == target) {
                entry.struck = Some(reason.to_owned());
            }
        }
    }
}
