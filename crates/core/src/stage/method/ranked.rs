//! The contenders in their order, and which of them is taken.

use super::words::{doing, why};
use super::{Contender, Locked, MethodContext, MethodPlan, Ruled};
use crate::base::at_once::each;
use crate::field;
use crate::method::{MethodId, Ruling, ScorePart, Way, hours_points, money_points, odds_with};
use crate::render::said_exactly;

/// House: a lead of this many points makes a first choice.
const FIRST_CHOICE_LEAD: f64 = 3.0;

impl MethodContext<'_> {
    /// No first choice is called while too little is known of the part; the welder's own stands.
    pub fn contenders(&self, locked: Locked, part_known: bool) -> (MethodPlan, Vec<Ruled>) {
        let locks = |way: Way| match locked {
            Locked::No => false,
            Locked::Hot => !way.method.without_heat(),
            Locked::All => true,
        };
        let edges = self.edges();
        let ruling = self.ruling(&edges);
        // Each has its own beads to put in order and its own cooling to follow: most of what a plan costs.
        let mut contenders: Vec<Contender> = each(&MethodId::ALL, |method| {
            let (school, schools) = self.school_of(*method, &ruling);
            self.contender(Way { method: *method, school }, schools, &ruling, &edges)
        });
        self.score(&mut contenders);
        in_order(&mut contenders, &ruling);
        let here = |contender: &Contender| !ruling.not_here.contains(&contender.way.method);
        let left: Vec<&Contender> = contenders.iter().filter(|c| c.recommended).collect();
        let today: Vec<&Contender> = left.iter().copied().filter(|c| here(c)).collect();
        let left = if today.is_empty() { left } else { today };
        let leads = match left[..] {
            _ if !part_known => None,
            [] => None,
            [only] => Some(only.way),
            [first, second, ..] => (first.score - second.score >= FIRST_CHOICE_LEAD).then_some(first.way),
        };
        let overrule = self
            .round
            .get(field::method::CHOICE)
            .and_then(|method| contenders.iter().find(|c| c.way.method == method));
        let would_be = overrule.map(|c| c.way).or(leads);
        let shut = would_be.map_or(locked == Locked::All, locks);
        let headline = match (shut, overrule) {
            (true, _) if locked == Locked::Hot => "Nothing hot is recommended until it is vented.".to_owned(),
            (true, _) => "Nothing is recommended while the job is locked.".to_owned(),
            (false, Some(own)) => format!("{}: the welder's choice.", own.label),
            (false, None) => headline_of(&left, leads, part_known),
        };
        let ruled = ruling
            .fired
            .iter()
            .filter(|fired| fired.school.is_none())
            .map(|fired| Ruled { method: fired.method, effect: fired.effect, iron: fired.iron })
            .collect();
        // A part that is referred out is taken by nobody.
        let own = overrule.filter(|_| locked != Locked::All).map(|own| own.way);
        let chosen = own.or(leads.filter(|way| !locks(*way)));
        let taken = chosen.and_then(|way| contenders.iter().find(|contender| contender.way == way));
        let (weighed, weighed_words) = taken.map_or_else(Default::default, |taken| self.weighed(taken));
        let plan = MethodPlan {
            chosen,
            sets_pins: chosen.is_some_and(|way| way.method.pins()),
            overruled: overrule.is_some_and(|own| Some(own.way) != leads),
            settings: taken.map_or_else(Vec::new, |taken| taken.settings.clone()),
            headline,
            what: taken.map_or_else(String::new, doing),
            why: taken.map_or_else(String::new, |taken| {
                let schools = self.other_schools(taken.way, &ruling, &edges);
                why(taken, &contenders, (overrule.is_some(), &schools, &ruling.not_here))
            }),
            weighed,
            weighed_words,
            sessions: taken.map_or_else(Vec::new, |taken| self.sessions(taken)),
            between_sessions: taken.map_or_else(String::new, |taken| self.between_sessions(taken)),
            wanted_min: self.moment.and_then(|at| Some((at.wanted_min? - at.now_min) as f64)),
            not_considered: ruling.not_considered.into_iter().map(|it| it.what).collect(),
            not_counted: match self.shop.rate {
                None => vec!["price: needs rates".to_owned()],
                Some(_) => Vec::new(),
            },
            contenders,
        };
        (plan, ruled)
    }

    /// The way that is taken and how often it holds, as [`Self::contenders`] has it: what the welder chose is asked for
    /// by itself, without the others beside it.
    pub fn odds_taken(&self, locked: Locked, part_known: bool) -> Option<(Way, f64)> {
        let own = self.round.get(field::method::CHOICE).filter(|_| locked != Locked::All);
        let Some(method) = own else {
            let (plan, _) = self.contenders(locked, part_known);
            return plan.taken().map(|taken| (taken.way, taken.odds.mean));
        };
        let edges = self.edges();
        let (school, _) = self.school_of(method, &self.ruling(&edges));
        let way = Way { method, school };
        let (start, moves) = self.odds_and_moves(way, self.target_of(way).as_ref(), &edges);
        Some((way, odds_with(start, &moves.parts(method)).mean))
    }

    /// Hours and money are points against the quickest and the cheapest; then all of it is added up.
    fn score(&self, contenders: &mut [Contender]) {
        let least = |of: fn(&Contender) -> Option<f64>| {
            contenders.iter().filter(|c| c.recommended).filter_map(of).fold(f64::INFINITY, f64::min)
        };
        let (cheapest, quickest) = (least(|c| c.price.total), least(|c| c.hours));
        for contender in contenders {
            if let Some(hours) = contender.hours {
                let over = if quickest.is_finite() { quickest } else { hours };
                contender.parts.push(ScorePart::new(
                    "hours",
                    hours_points(hours, over),
                    format!("{hours:.1} h against {over:.1} h for the quickest"),
                ));
            }
            if let Some(total) = contender.price.total.filter(|_| cheapest.is_finite() && cheapest > 0.0) {
                let working = format!("{total:.0} against {cheapest:.0} for the cheapest");
                contender.parts.push(ScorePart::new("money", money_points(total, cheapest), working));
            }
            contender.score = contender.parts.iter().map(|part| part.points).sum();
            for part in &mut contender.parts {
                part.working = said_exactly(&part.working, self.part.units);
            }
        }
    }
}

/// The first choice first. What is not here is not named first while another can be begun today, even where it
/// scores more.
fn in_order(contenders: &mut [Contender], ruling: &Ruling) {
    contenders.sort_by(|a, b| {
        (a.excluded.cmp(&b.excluded))
            .then(b.recommended.cmp(&a.recommended))
            .then(b.score.total_cmp(&a.score))
            .then(a.target_c.unwrap_or(0.0).total_cmp(&b.target_c.unwrap_or(0.0)))
    });
    let here = |contender: &Contender| !ruling.not_here.contains(&contender.way.method);
    if let Some(at) = contenders.iter().position(|it| it.recommended && here(it))
        && contenders.first().is_some_and(|first| !here(first))
    {
        contenders[..=at].rotate_right(1);
    }
}

/// What is said of the ways that are left, the best first, where nobody has chosen.
fn headline_of(left: &[&Contender], leads: Option<Way>, part_known: bool) -> String {
    match left.first() {
        Some(first) if !part_known => {
            format!("{} leads so far. Too little is known of the part to choose.", first.label)
        }
        None => "Don't repair: nothing is left. See why below.".to_owned(),
        Some(first) if leads.is_some() => format!("{}: first choice.", first.label),
        Some(first) => {
            let near = left.iter().filter(|c| first.score - c.score < FIRST_CHOICE_LEAD);
            let near: Vec<&str> = near.map(|c| c.label.as_str()).collect();
            format!("Side by side: {}. Choose one.", near.join(" or "))
        }
    }
}
