//! Lighting, and what is said at the torch.

use std::collections::BTreeSet;

use super::super::bounds::TORCH_MOST;
use super::super::{BeadAt, Deed, HeatRef, Lighting, Round, TorchEntry};
use super::{ChangeContext, Refusal, holds, refused, room_for};
use crate::base::problem::FieldProblem;

impl ChangeContext<'_> {
    pub(super) fn lit(&self, owned: &str, what: Lighting) -> Result<(), Refusal> {
        let burns = self.round.lit.is_some() && self.round.stopped().is_none();
        holds(!burns, "light", "it is lit already", "")?;
        let allowed = (self.allowed)();
        let not_lit = match what {
            Lighting::Main => &allowed.not_lit,
            Lighting::Bake => &allowed.not_baked,
            Lighting::Tack => &allowed.not_tacked,
        };
        let problems: Vec<FieldProblem> = not_lit
            .iter()
            .map(|(why, unlock)| FieldProblem::new("light", why.clone(), unlock.clone()))
            .collect();
        if !problems.is_empty() {
            return Err(Refusal::Problems(problems));
        }
        let answered = !what.is_main() || allowed.to_own.is_empty() || !owned.trim().is_empty();
        holds(answered, "owned", &allowed.to_own, "who lights it all the same, and why")
    }

    pub(super) fn light_cancelled(&self) -> Result<(), Refusal> {
        holds(self.round.lit.is_some(), "light", "it is not lit", "")?;
        let out = "a bake or a tacking is put out";
        holds(self.round.repaired(), "light", out, "say that it is over")?;
        let laid = "the first bead is laid: it can no longer be cancelled";
        holds(self.round.beads() == 0, "light", laid, "")
    }

    pub(super) fn put_out(&self) -> Result<(), Refusal> {
        match self.round.lit_for() {
            Some(Lighting::Bake | Lighting::Tack) => Ok(()),
            Some(Lighting::Main) => refused("light", "it is covered, not put out", "cover it"),
            None => refused("light", "it is not lit", ""),
        }
    }

    pub(super) fn at_torch(&self, entry: &TorchEntry) -> Result<(), Refusal> {
        let Some(heat) = self.job.heat() else {
            return refused("torch", "nothing is lit", "light up first");
        };
        room_for(heat.log.len(), TORCH_MOST, "torch", "the torch log is full", "")?;
        let at_once = matches!(entry, TorchEntry::Beads { .. }) && self.job.practice.is_some();
        let goes_wrong = "in a practice something can go wrong at each bead";
        holds(!at_once, "torch", goes_wrong, "one bead after the other")?;
        torch_entry(entry, &heat, self.round)
    }
}

/// What is said at the torch. A part that was heated is read, covered and unwrapped in whatever round the
/// job is by now; beads belong to a round that is lit.
fn torch_entry(entry: &TorchEntry, heat: &HeatRef<'_>, round: &Round) -> Result<(), Refusal> {
    let lit = round.lit.is_some();
    let repaired = round.repaired();
    let problem = |message: &str, right: &str| Err(Refusal::from(FieldProblem::new("torch", message, right)));
    match entry {
        TorchEntry::Reading { .. } | TorchEntry::Stick { .. } | TorchEntry::Note { .. } => Ok(()),
        TorchEntry::Covered { .. } if heat.covered() && !heat.unwrapped() => {
            problem("it is covered already", "")
        }
        TorchEntry::Unwrapped if heat.unwrapped() => problem("it is unwrapped already", ""),
        TorchEntry::Covered { .. } | TorchEntry::Unwrapped => Ok(()),
        TorchEntry::Bead { .. }
        | TorchEntry::Beads { .. }
        | TorchEntry::Pin { .. }
        | TorchEntry::Peened
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
        | TorchEntry::Aligned { .. }
        | TorchEntry::Oven { .. }
            if !lit =>
        {
            problem("this round is not lit", "light up first")
        }
        TorchEntry::Bead { .. } | TorchEntry::Beads { .. } | TorchEntry::Pin { .. } if !repaired => {
            problem("it is lit to bake or to tack", "that it is over, then light up")
        }
        TorchEntry::Oven { runs: true } if round.oven_runs().is_some() => problem("it runs already", ""),
        TorchEntry::Oven { runs: false } if round.oven_runs().is_none() => problem("it does not run", ""),
        TorchEntry::Bead { .. }
        | TorchEntry::Beads { .. }
        | TorchEntry::Pin { .. }
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
            if heat.covered() =>
        {
            problem("it is covered and cooling", "cross out \"covered\" first")
        }
        TorchEntry::Did { what: Deed::FlowBegun } => {
            let way = round.lit.as_ref().and_then(|lit| lit.frozen.as_ref()).and_then(|frozen| frozen.way);
            match round.flows_since() {
                Some(_) => problem("it is begun already", "that it is filled"),
                None if way.is_some_and(|way| !way.method.in_one_flow()) => {
                    problem("this way is not filled in one flow", "each bead, as it is laid")
                }
                None => Ok(()),
            }
        }
        TorchEntry::Bead { at: Some(at) } => beads_lie(std::slice::from_ref(at), round),
        TorchEntry::Beads { at, .. } => {
            let log = round.log.len() + 2 * at.len();
            room_for(log, TORCH_MOST, "torch", "the torch log has no room for so many", "")?;
            beads_lie(at, round)
        }
        TorchEntry::Trouble { seen, cause } if !cause.is_empty() && seen.cause(cause).is_none() => {
            problem("that is not a cause of what is seen", "one of those that are shown")
        }
        TorchEntry::Pin { number, .. } => {
            let set = round.said_at_torch().any(|(_, it)| it.entry == *entry);
            if set || *number == 0 {
                return problem("that pin is in already", "the next one");
            }
            Ok(())
        }
        TorchEntry::Bead { at: None }
        | TorchEntry::Peened
        | TorchEntry::Reheated
        | TorchEntry::Did { .. }
        | TorchEntry::Aligned { .. }
        | TorchEntry::Oven { .. }
        | TorchEntry::Trouble { .. } => Ok(()),
    }
}

/// Whether beads can lie there: each once, where none lies yet.
fn beads_lie(at: &[BeadAt], round: &Round) -> Result<(), Refusal> {
    let mut taken: BTreeSet<BeadAt> = round
        .said_at_torch()
        .filter_map(|(_, it)| match it.entry {
            TorchEntry::Bead { at } => at,
            _ => None,
        })
        .collect();
    for at in at {
        holds(taken.insert(*at), "torch", "there lies a bead already", "the next one")?;
        let counted = ![at.layer, at.side, at.beside, at.along].contains(&0);
        holds(counted, "torch", "beads are counted from 1", "1 or more")?;
        let has_it = at.hole.is_none_or(|end| (1..=2).contains(&end));
        holds(has_it, "torch", "a crack has no such end", "1 or 2")?;
    }
    Ok(())
}
