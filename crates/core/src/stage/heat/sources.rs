//! Every source at hand, tried on this part.

use super::run::{Help, Run, SourceRun, Strengths, oven_c, strength_w};
use super::zone::Zone;
use crate::field;
use crate::heat::{
    BarPower, HeatSource, Heating, OutOfHeat, SMALLEST_FLAME, SimCache, SourceKind, ThermalBody, ceiling_c,
};
use crate::iron::{Governing, Iron, least_forgiving, slowest_to_heat};
use crate::job::Round;
use crate::method::Target;
use crate::quantity::{Celsius, Seconds, Unit, UnitSystem};
use crate::shop::Shop;
use crate::stage::part::PartFacts;

/// House: a preheat with a flame that takes longer than this is not one; an oven with its ramp may take
/// longer.
pub(crate) const MOST_MIN: f64 = 180.0;
const OVEN_MOST_MIN: f64 = 600.0;
/// House: shares of the flame that go evenly over the part.
const ORDINARY_SWEEP: f64 = 0.5;
pub(super) const CAREFUL_SWEEP: f64 = 0.8;

/// House: so much hotter the middle of a zone may be than its edge.
const IN_THE_WINDOW_K: f64 = 100.0;

/// House: a flame is turned down to such shares of itself where the part does not stand it whole.
const TURNED_DOWN: [f64; 4] = [0.7, 0.5, 0.35, 0.25];

/// What a source makes of one target.
#[derive(Debug, Clone, Copy)]
pub(crate) struct SourceOutcome<'a> {
    pub run: &'a SourceRun,
    pub minutes: f64,
    /// Unevenness (open part) or whole difference (closed) on the way, in K.
    pub worst_k: f64,
    pub even_enough: bool,
    /// The target itself is not reached, but the least at which the work may begin is.
    pub least_only: bool,
}

/// Every source at hand on this part, worked out once.
#[derive(Debug, Clone)]
pub(crate) struct Sources {
    pub runs: Vec<SourceRun>,
    /// As the iron that comes up slowest would have it.
    pub body: ThermalBody,
    pub closed: bool,
    /// It is only this of the part.
    pub zone: Option<Zone>,
    station: f64,
    pub limit_k: f64,
    pub(super) strengths: Strengths,
    /// Of several irons in question: the one that comes up slowest, and the one that stands the least
    /// unevenness.
    pub slowest: Governing,
    pub least_forgiving: Governing,
}

fn most_min(source: &HeatSource) -> f64 {
    match source.kind {
        SourceKind::Flame { .. } => MOST_MIN,
        SourceKind::Oven { .. } => OVEN_MOST_MIN,
    }
}

/// The strongest flame and the hottest oven at hand.
fn candidates(shop: &Shop) -> Vec<&'static HeatSource> {
    let ovens = shop.heat_sources().filter_map(|s| Some((s, oven_c(s)?)));
    let hottest = ovens.max_by(|a, b| a.1.total_cmp(&b.1)).map(|(oven, _)| oven);
    strongest(shop.heat_sources()).into_iter().chain(hottest).collect()
}

fn strongest(sources: impl Iterator<Item = &'static HeatSource>) -> Option<&'static HeatSource> {
    let flames = sources.filter_map(|s| Some((s, strength_w(s)?)));
    flames.max_by(|a, b| a.1.total_cmp(&b.1)).map(|(flame, _)| flame)
}

/// A source with its sweep, its help and its throttle, for one target or for all of them: whether it gets there, and
/// evenly to all that it gets to.
type Tries<'a> =
    &'a mut dyn FnMut(&'static HeatSource, (f64, Help, f64), Option<f64>) -> Option<(bool, bool)>;

/// A flame: swept in the ordinary way and carefully, turned down until the part stands it, then covered, then with a
/// second one. Over a zone it is swept in one way and has no help.
fn tried_flame(
    source: &'static HeatSource,
    (in_a_zone, own): (bool, bool),
    shop: &Shop,
    run: Tries<'_>,
) -> Option<()> {
    let (ordinary, mut even) = run(source, (ORDINARY_SWEEP, Help::Alone, 1.0), None)?;
    // A zone is swept in one way.
    let (careful, sweep) = if in_a_zone {
        (true, ORDINARY_SWEEP)
    } else {
        let (careful, evenly) = run(source, (CAREFUL_SWEEP, Help::Alone, 1.0), None)?;
        even = evenly;
        (careful, CAREFUL_SWEEP)
    };
    // Too much at once heats it unevenly: turned down until the part stands it.
    for throttle in TURNED_DOWN {
        if even {
            break;
        }
        (_, even) = run(source, (sweep, Help::Alone, throttle), None)?;
    }
    // What the flame cannot do by itself a cover may, or a second flame.
    let covered = ordinary || careful || run(source, (CAREFUL_SWEEP, Help::Covered, 1.0), None)?.0;
    let second = strongest(shop.heat_sources().filter(|other| other.id != source.id));
    // Whoever chose one flame did not ask for two.
    if let Some(second) = second.filter(|_| !covered && !own) {
        run(source, (CAREFUL_SWEEP, Help::Second(second), 1.0), None)?;
    }
    Some(())
}

impl Sources {
    pub fn station(&self) -> f64 {
        self.station
    }

    /// Tries the source the welder chose, or else the strongest flame and the hottest oven at
    /// hand. A flame runs once with an ordinary and once with a careful sweep, up to the hottest
    /// target of any way, and answers for the lower ones too; an oven is set for each target.
    pub fn try_all(
        round: &Round,
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Option<Self> {
        let chosen = round.get(field::heat::SOURCE);
        let candidates = chosen.map_or_else(|| candidates(shop), |chosen| vec![chosen]);
        let own = chosen.is_some();
        Self::tried_with((candidates, own), shop, part, plausible, targets_c, sims)
    }

    /// The same of the seam and what lies round it, with a flame; nothing where there is none.
    pub fn of_the_zone(
        zone: Zone,
        (round, shop): (&Round, &Shop),
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Option<Self> {
        let chosen = round.get(field::heat::SOURCE);
        let flame = chosen.or_else(|| strongest(shop.heat_sources()))?;
        strength_w(flame)?;
        Self::tried_on(Some(zone), (vec![flame], true), shop, part, plausible, targets_c, sims)
    }

    /// The same of one source, for a step that has its own.
    pub fn of_one(
        source: &'static HeatSource,
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Option<Self> {
        Self::tried_with((vec![source], true), shop, part, plausible, targets_c, sims)
    }

    fn tried_with(
        with: (Vec<&'static HeatSource>, bool),
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Option<Self> {
        Self::tried_on(None, with, shop, part, plausible, targets_c, sims)
    }

    fn tried_on(
        zone: Option<Zone>,
        (candidates, own): (Vec<&'static HeatSource>, bool),
        shop: &Shop,
        part: &PartFacts,
        plausible: &[Iron],
        targets_c: &[f64],
        sims: &SimCache,
    ) -> Option<Self> {
        let slowest = slowest_to_heat(plausible);
        let iron = slowest.iron.properties();
        let body = zone.map_or_else(|| part.body(iron), |zone| zone.body(iron))?;
        if candidates.is_empty() {
            return None;
        }
        let hottest_c = targets_c.iter().copied().fold(f64::NAN, f64::max);
        // A zone is judged by its own window: no part of it over the most while its edge comes up.
        let closed = zone.is_some() || part.closed();
        let station = zone.map_or(part.station, |_| 0.5);
        let strengths = Strengths(shop.learned.clone());
        let least_forgiving = least_forgiving(plausible);
        let limit_k = match zone {
            Some(_) => IN_THE_WINDOW_K,
            None => least_forgiving.iron.properties().unevenness_limit_k(),
        };
        let mut runs = Vec::new();
        let mut run = |source: &'static HeatSource, (even_share, help, throttle), set_for_c: Option<f64>| {
            let target_c = set_for_c.unwrap_or(hottest_c);
            let strength = strengths.of(source, help);
            let with = Run { source, even_share, help, throttle, station, target_c, closed, strength };
            let power = with.power()?;
            let most_min = most_min(source);
            let most = Seconds::new(most_min * 60.0).ok()?;
            runs.push(SourceRun {
                source,
                even_share,
                help,
                throttle,
                set_for_c,
                most_min,
                heating: sims.heat_until(&body, power, Celsius::new(target_c).ok()?, most),
                ceiling_c: ceiling_c(&body, power),
            });
            // Whether it gets there, and evenly to all that it gets to.
            let heating = &runs.last()?.heating;
            let even = |to_c: &f64| {
                let minutes = heating.minutes_to(*to_c)?;
                let (unevenness_k, difference_k) = heating.worst_until(minutes);
                Some(if closed { difference_k } else { unevenness_k } <= limit_k)
            };
            Some((heating.minutes_to(target_c).is_some(), targets_c.iter().filter_map(even).all(|even| even)))
        };
        for source in candidates.into_iter().filter(|_| !targets_c.is_empty()) {
            match source.kind {
                SourceKind::Flame { .. } => tried_flame(source, (zone.is_some(), own), shop, &mut run)?,
                SourceKind::Oven { .. } => {
                    for &target_c in targets_c {
                        run(source, (1.0, Help::Alone, 1.0), Some(target_c))?;
                    }
                }
            }
        }
        Some(Self { runs, body, closed, zone, station, limit_k, strengths, slowest, least_forgiving })
    }

    pub fn worst_k(&self, heating: &Heating, minutes: f64) -> f64 {
        let (unevenness_k, difference_k) = heating.worst_until(minutes);
        if self.closed { difference_k } else { unevenness_k }
    }

    /// What heats the part in this run.
    pub fn power_for(&self, run: &SourceRun, target_c: f64) -> Option<BarPower> {
        self.with(run, target_c, 1.0).power()
    }

    pub(super) fn with(&self, run: &SourceRun, target_c: f64, share: f64) -> Run {
        let (own, second) = self.strengths.of(run.source, run.help);
        Run {
            source: run.source,
            even_share: run.even_share,
            help: run.help,
            throttle: run.throttle,
            station: self.station,
            target_c,
            closed: self.closed,
            strength: (own * share, second * share),
        }
    }

    /// Of its full flame what holds the part at a temperature: what it loses there, the smallest steady flame at
    /// least. Nothing of an oven, which holds it by itself.
    pub fn hold_share(&self, run: &SourceRun, at_c: f64) -> f64 {
        let full = self.with(&SourceRun { throttle: 1.0, ..run.clone() }, at_c, 1.0).power();
        let Some(power) = full.filter(|_| !run.source.is_oven()) else { return 0.0 };
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: power.bare_share() };
        (still.loss_w(&self.body, at_c) / power.net_w()).clamp(SMALLEST_FLAME, 1.0)
    }

    /// What holds a part at a temperature gives it no less than it loses there: an oven that is hot enough, a flame that
    /// is strong enough.
    pub fn holds(&self, run: &SourceRun, at_c: f64) -> bool {
        let full = self.with(&SourceRun { throttle: 1.0, ..run.clone() }, at_c, 1.0).power();
        let Some(power) = full.filter(|_| !run.source.is_oven()) else { return run.ceiling_c >= at_c };
        let still = OutOfHeat { h_w_m2k: 10.0, bare_share: power.bare_share() };
        still.loss_w(&self.body, at_c) <= power.net_w()
    }

    /// The best way to a target: the first source that gets there evenly, in the order ordinary
    /// sweep, careful sweep, turned down, oven; else the least uneven of those that get there at all; else the same of
    /// those that get to the least at which the work may begin.
    pub fn reach(&self, target: &Target) -> Option<SourceOutcome<'_>> {
        let to = |celsius: f64, least_only: bool| -> Option<SourceOutcome<'_>> {
            let reached: Vec<SourceOutcome<'_>> = self
                .runs_for(target.target_c)
                .filter_map(|run| {
                    let minutes = run.heating.minutes_to(celsius)?;
                    let worst_k = self.worst_k(&run.heating, minutes);
                    let even_enough = worst_k <= self.limit_k;
                    Some(SourceOutcome { run, minutes, worst_k, even_enough, least_only })
                })
                .collect();
            let even = reached.iter().find(|r| r.even_enough);
            // Where none is even, the least uneven.
            even.or_else(|| reached.iter().min_by(|a, b| a.worst_k.total_cmp(&b.worst_k))).copied()
        };
        to(target.target_c, false).or_else(|| to(target.least_c, true))
    }

    /// The runs that answer for a target: all flames, and the ovens set for it.
    pub fn runs_for(&self, target_c: f64) -> impl Iterator<Item = &SourceRun> {
        self.runs.iter().filter(move |run| run.set_for_c.is_none_or(|set_for| set_for == target_c))
    }

    /// The run that gets hottest, whatever it is set for.
    pub fn hottest(&self) -> Option<&SourceRun> {
        self.runs.iter().max_by(|a, b| a.ceiling_c.total_cmp(&b.ceiling_c))
    }

    pub fn hottest_run(&self, target_c: f64) -> Option<&SourceRun> {
        self.runs_for(target_c).max_by(|a, b| a.ceiling_c.total_cmp(&b.ceiling_c))
    }

    /// The model is an estimate: could this part be brought to the least with so much more power than
    /// was reckoned?
    pub fn within_the_estimate(&self, target: &Target) -> bool {
        self.runs_for(target.target_c).any(|run| {
            let stronger =
                self.with(run, target.target_c, 1.0 + self.strengths.not_known(run.source)).power();
            stronger.is_some_and(|power| ceiling_c(&self.body, power) >= target.least_c)
        })
    }

    /// How far the coldest place is short of the target when the time is up, in K.
    pub fn short_k(&self, target: &Target) -> Option<f64> {
        let best = |run: &SourceRun| run.heating.coldest_at_the_end_c();
        let hottest = self.runs_for(target.target_c).map(best).fold(f64::NAN, f64::max);
        (!hottest.is_nan()).then(|| (target.target_c - hottest).max(0.0))
    }

    /// Why the least of a target is not reached, in a sentence: how hot it gets, and in what time.
    pub fn why_not(&self, target: &Target, units: UnitSystem) -> String {
        // Each to its own side: what falls short never reads as enough.
        let needed = units.say_least(target.least_c, Unit::Celsius);
        let say = |celsius| units.say_most(celsius, Unit::Celsius);
        match self.hottest_run(target.target_c) {
            Some(run) if run.ceiling_c < target.least_c => format!(
                "{} cannot get this part to {}: it stops at about {}.",
                run.label(),
                needed,
                say(run.ceiling_c)
            ),
            Some(run) => format!(
                "{} is not there within {}: the cold end is at about {} then, {} is needed.",
                run.label(),
                units.say(run.most_min, Unit::Minutes),
                say(run.heating.coldest_at_the_end_c()),
                needed
            ),
            None => "No heat at hand.".to_owned(),
        }
    }
}
