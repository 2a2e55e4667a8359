//! One method side by side with the others: its reasons, its odds, its hours, its price.

use crate::casting::shape::Restraint;
use crate::method::customs::PinDensity;
use serde::Serialize;

use super::odds::odds_lines;
use super::words::joint_words;
use super::{MethodContext, Price, Ready, SettingLine};
use crate::effort::durations::{Step, totals};
use crate::field;
use crate::method::{
    Effect, Fired, MethodId, Moves, Odds, OddsPart, Ruling, School, ScorePart, Start, Target, Way,
    heat_points, odds_of, odds_points, odds_with, own_outcomes, rule_points,
};
use crate::quantity::{Unit, UnitSystem, of_100};
use crate::render::said;
use crate::stage::cooling::{fall_words, limit_k_per_h, wrapping};
use crate::stage::prep::prep_plan;
use crate::stage::taught::DENSITY;
use crate::stores::Take;

/// One method done after its best school, with its score or the reasons against it.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Contender {
    pub way: Way,
    pub label: String,
    pub excluded: bool,
    /// It may be a first choice: not what only helps, only seals, or is for want of anything better.
    pub recommended: bool,
    #[serde(skip)]
    pub score: f64,
    #[serde(skip)]
    pub parts: Vec<ScorePart>,
    /// What speaks for it, against it, and rules it out.
    #[serde(skip)]
    pub favours: Vec<String>,
    #[serde(skip)]
    pub cautions: Vec<String>,
    pub reasons: Vec<String>,
    /// With all that is known of this job.
    pub odds: Odds,
    /// Of a hundred so many hold, as it is said.
    pub odds_of_100: u32,
    /// Before anything of this job moved them, and what did, the largest first.
    #[serde(skip)]
    pub odds_start: Odds,
    #[serde(skip)]
    pub odds_parts: Vec<OddsLine>,
    /// What would raise them, each a sentence with what they would be then.
    #[serde(skip)]
    pub raised_by: Vec<String>,
    /// What the odds are those of: the kind of pins, the heat; empty for the method as such.
    #[serde(skip)]
    pub odds_for: String,
    /// Which of its priors counts, by id.
    #[serde(skip)]
    pub variant: String,
    /// Elapsed hours, hands and clock one after the other; nothing while the cracks or the heat are not known.
    pub hours: Option<f64>,
    /// Of these what hands do.
    #[serde(skip)]
    pub hands_hours: Option<f64>,
    #[serde(skip)]
    pub steps: Vec<Step>,
    /// What it takes from the stores.
    #[serde(skip)]
    pub takes: Vec<Take>,
    /// So often it is lit, a session each; 1 where nothing is heated.
    #[serde(skip)]
    pub lightings: u32,
    /// How its source is set.
    #[serde(skip)]
    pub settings: Vec<SettingLine>,
    /// When it can be ready, begun now.
    pub ready: Option<Ready>,
    #[serde(skip)]
    pub price: Price,
    /// In all: "£420"; nothing while that is not known.
    pub price_words: Option<String>,
    pub target_c: Option<f64>,
    /// The same as it is shown: "300 °C", "cold".
    pub heat_words: String,
    /// Strength of the joint against the iron, 1 for as strong; and what of it is seen afterwards.
    #[serde(skip)]
    pub strength: f64,
    /// The joint in words: its strength, and what of it is seen afterwards.
    #[serde(skip)]
    pub joint_words: String,
    /// Schools that were considered and why the others were not taken.
    #[serde(skip)]
    pub schools: Vec<String>,
    /// The schools of this method that can be chosen, by id; empty where there is one.
    #[serde(skip)]
    pub schools_to_choose: Vec<SchoolChoice>,
}

/// A part that moves the odds, in words.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct OddsLine {
    /// As the reckoner calls it: `tip_missed`.
    pub name: String,
    /// In log-odds.
    pub shift: f64,
    /// "the tip may lie past its hole"
    pub words: String,
    /// What it makes of a hundred: "6 fewer of 100".
    pub moves: String,
}

impl Contender {
    /// What moves the odds, as they are added.
    pub(crate) fn parts_of_odds(&self) -> Vec<OddsPart> {
        let part = |line: &OddsLine| OddsPart { name: line.name.clone(), shift: line.shift };
        self.odds_parts.iter().map(part).collect()
    }

    /// The odds as they would be if this part did not count.
    pub(crate) fn odds_without(&self, name: &str) -> Odds {
        let mut parts = self.parts_of_odds();
        parts.retain(|part| part.name != name);
        odds_with(self.odds_start, &parts)
    }
}

/// A school of a method.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SchoolChoice {
    pub id: String,
    pub label: String,
}

fn schools_to_choose(method: MethodId, units: UnitSystem) -> Vec<SchoolChoice> {
    let of_method =
        |id: &str| School::from_id(id).is_some_and(|school| method.schools().any(|it| it == school));
    School::CHOICES
        .iter()
        .filter(|(id, _)| method.schools().count() > 1 && of_method(id))
        .map(|&(id, label)| SchoolChoice { id: id.to_owned(), label: said(label, units) })
        .collect()
}

impl MethodContext<'_> {
    /// What is warmed at its seam alone, and held in there.
    fn held_while_warmed(&self, way: Way) -> Option<String> {
        let held = match self.part.restraint() {
            Restraint::Free => None,
            Restraint::Closed => Some("a closed shape cannot expand"),
            Restraint::HeldIn => Some("it is held in by the iron round it"),
        };
        let held = held.filter(|_| way.school == School::Local)?;
        Some(format!("Warmed at its seam alone {held}: it pulls as it cools."))
    }

    pub(super) fn contender(
        &self,
        way: Way,
        schools: Vec<String>,
        ruling: &Ruling,
        edges: &[(Way, f64, f64)],
    ) -> Contender {
        let [favours, mut cautions, mut reasons] =
            [Effect::Favour, Effect::Caution, Effect::Exclude].map(|effect| sentences(ruling, way, effect));
        // One reason a school is told once, however many rules lead to it.
        reasons.dedup();
        let target = self.target_of(way);
        let target_c = target.as_ref().filter(|_| way.school.preheats()).map(|t| t.target_c);
        let variant = self.variant(way);
        let (odds_start, moves) = self.odds_and_moves(way, target.as_ref(), edges);
        let moved = moves.parts(way.method);
        let odds = odds_with(odds_start, &moved);
        let (strength, strong) = self.strength(way);
        let parts = points(strong, (favours.len(), cautions.len()), target_c, odds);
        if let Some(target) = &target {
            cautions.extend(target.cautions(self.shop.units));
        }
        cautions.extend(self.taught_cautions(way));
        cautions.extend(self.held_while_warmed(way));
        let carries = self.round.get(field::part::LOADS).is_some_and(|loads| !loads.is_empty());
        if carries && self.taught(&DENSITY, way) == PinDensity::Anchors {
            reasons.push("A few anchors carry nothing, and this part carries.".to_owned());
        }
        if let Some(target) = target.filter(|_| way.school.preheats()) {
            cautions.extend(self.cautions_of_heat(way, &target));
        }
        let out = self.ruled_out(way, ruling);
        let prep = if out { None } else { prep_plan(&self.prep_inputs(way)) };
        let steps = prep.as_ref().and_then(|prep| self.steps(way, prep)).map(|(steps, _)| steps);
        let takes = prep.as_ref().map_or_else(Vec::new, |prep| self.takes(way, prep));
        let sums = steps.as_deref().map(totals);
        let hours = sums.map(|(hands, clock)| (hands + clock) / 60.0);
        let burns = prep.as_ref().and_then(|prep| self.burns(way, prep));
        let lightings = burns.map_or(1, |it| it.lightings as u32);
        let sessions = burns.map_or(1, |it| it.sessions as u32);
        let price = steps.as_deref().map_or_else(Price::default, |steps| self.price(way, steps, &takes));
        Contender {
            way,
            label: way.label(),
            excluded: !reasons.is_empty(),
            recommended: reasons.is_empty() && way.method.entry().recommended,
            score: 0.0,
            parts,
            favours,
            cautions,
            reasons,
            raised_by: self.raised_by(way, odds_start, &moves),
            odds,
            odds_of_100: of_100(odds.mean),
            odds_start,
            odds_parts: odds_lines(odds_start, odds, &moved),
            variant: variant.id().to_owned(),
            odds_for: self.odds_for(way),
            hours,
            hands_hours: sums.map(|(hands, _)| hands / 60.0),
            ready: steps.as_deref().and_then(|steps| self.ready(steps, sessions)),
            price_words: price.total_words.clone(),
            price,
            takes,
            lightings,
            settings: if out { Vec::new() } else { self.settings(way, target_c, prep.as_ref()) },
            steps: steps.unwrap_or_default(),
            target_c,
            heat_words: self.heat_words(way, target_c),
            strength,
            joint_words: joint_words(way, strength),
            schools_to_choose: schools_to_choose(way.method, self.shop.units),
            schools,
        }
    }

    /// What its odds begin with, and what moves them on this job.
    pub(super) fn odds_and_moves(
        &self,
        way: Way,
        target: Option<&Target>,
        edges: &[(Way, f64, f64)],
    ) -> (Odds, Moves) {
        let variant = self.variant(way);
        let own = own_outcomes(&self.shop.repairs, (way.method, variant), self.belief.leading);
        let mut moves = self.moves(way, target, edges);
        moves.own_count = self.practised(way.method);
        (odds_of(way.method, variant, &own), moves)
    }

    /// The other schools of a way that could be done here, each with how often it would hold.
    pub(super) fn other_schools(
        &self,
        taken: Way,
        ruling: &Ruling,
        edges: &[(Way, f64, f64)],
    ) -> Vec<(String, f64)> {
        let could = |school: School| {
            let way = Way { school, ..taken };
            if school == taken.school
                || school == School::ArcOnly
                || !sentences(ruling, way, Effect::Exclude).is_empty()
            {
                return None;
            }
            let target = self.target_of(way);
            if school.preheats() {
                self.sources_of(way)?.reach(target.as_ref()?).filter(|reached| reached.even_enough)?;
            }
            let (start, moves) = self.odds_and_moves(way, target.as_ref(), edges);
            Some((school.word().to_owned(), odds_with(start, &moves.parts(way.method)).mean))
        };
        taken.method.schools().filter_map(could).collect()
    }

    /// What is ruled out whatever the school is not worked through, unless somebody answers for it.
    fn ruled_out(&self, way: Way, ruling: &Ruling) -> bool {
        let own = self.round.get(field::method::CHOICE) == Some(way.method);
        let out = |fired: &Fired| {
            fired.method == way.method && fired.school.is_none() && fired.effect == Effect::Exclude
        };
        !own && ruling.fired.iter().any(out)
    }

    /// What its heat brings with it: unevenness on the way, and too quick a fall in the packing.
    fn cautions_of_heat(&self, way: Way, target: &Target) -> Vec<String> {
        let units = self.part.units;
        let Some(sources) = self.sources_of(way) else { return Vec::new() };
        let uneven = sources.reach(target).filter(|reached| !reached.even_enough && sources.zone.is_none());
        let uneven = uneven.map(|reached| {
            let worst = units.say_least(reached.worst_k, Unit::Kelvins);
            format!("Heats unevenly: {worst} on the way.")
        });
        let wrap = wrapping(self.round, self.shop, way);
        let cooling = self.cooling(&sources.body, target.most_c, &wrap);
        let fastest = cooling.map_or(0.0, |cooling| cooling.fastest_k_per_h());
        let falls = limit_k_per_h(way, self.part).filter(|limit| fastest > *limit).map(|limit| {
            format!(
                "Falls {} in the packing at hand, {} is the limit.",
                fall_words(fastest, units),
                units.say_most(limit, Unit::KelvinsPerHour)
            )
        });
        uneven.into_iter().chain(falls).collect()
    }

    fn odds_for(&self, way: Way) -> String {
        match way.practice().map(|practice| practice.start) {
            Some(Start::ByPins) => self.stitch_kind(way.method).words().to_owned(),
            _ if way.method == MethodId::GasIron => way.school.word().to_owned(),
            _ => "one year of its ordinary use".to_owned(),
        }
    }

    fn heat_words(&self, way: Way, target_c: Option<f64>) -> String {
        match target_c {
            Some(celsius) => self.say(celsius, Unit::Celsius),
            None if way.school == School::ArcOnly => "by the arc".to_owned(),
            None => "cold".to_owned(),
        }
    }
}

/// What speaks for a way, against it, or rules it out.
fn sentences(ruling: &Ruling, way: Way, effect: Effect) -> Vec<String> {
    let applies =
        |fired: &&Fired| fired.method == way.method && fired.school.is_none_or(|school| school == way.school);
    let fired = ruling.fired.iter().filter(applies).filter(|fired| fired.effect == effect);
    fired.map(|fired| fired.sentence.clone()).collect()
}

/// What a way scores by itself; its hours and its price are points only beside the others.
fn points(
    strong: ScorePart,
    (fors, againsts): (usize, usize),
    target_c: Option<f64>,
    odds: Odds,
) -> Vec<ScorePart> {
    let (plus, minus) = rule_points(fors, againsts);
    let mut parts = vec![ScorePart::new("start", 50.0, "every method".to_owned()), strong];
    if fors > 0 {
        parts.push(ScorePart::new("for", plus, format!("{fors} × 8, 20 at most")));
    }
    if againsts > 0 {
        parts.push(ScorePart::new("against", minus, format!("{againsts} × −10")));
    }
    if let Some(celsius) = target_c {
        let working = format!("−1 for each {{50 K}} of {{{celsius:.0} degC}} over {{100 degC}}");
        parts.push(ScorePart::new("heat", heat_points(celsius), working));
    }
    parts.push(ScorePart::new("odds", odds_points(odds.mean), format!("40 × ({:.2} − 0.7)", odds.mean)));
    parts
}
