//! How long each way takes on this job, and what it costs.

use super::MethodContext;
use crate::casting::said::MendedAt;
use crate::casting::said::Oil;
use crate::crack::said::SeamReach;
use crate::crack::stop_hole::FoundBy;
use crate::effort::durations::{RemovalTool, Step, pace};
use crate::effort::sessions::Session;
use crate::faults::acceptance::Then;
use crate::field;
use crate::heat::{HeatSource, UNWRAP_C};
use crate::iron::{Iron, slowest_to_heat};
use crate::map::{At, MarkKind, Shape};
use crate::method::customs::Dirt;
use crate::method::{Joins, School, Way};
use crate::prep::groove::bright_margin_mm;
use crate::prep::said::SizeKind;
use crate::render::said;
use crate::stage::cooling::wrapping;
use crate::stage::cracks::OFF_HARD_SPOT_MM;
use crate::stage::finish::{DRIES, FinishInputs};
use crate::stage::heat::{HeatStep, soak_minutes};
use crate::stage::map::pin_places;
use crate::stage::prep::{PrepPlan, SeamPlan};
use crate::stage::proof::ProofPlan;
use crate::stage::strap::StrapPlan;
use crate::stage::taught::DIRT;

/// What lies between two sessions of what is held warm.
pub(super) const NIGHT: &str = "night";

/// House: a place that was found not good and is filled again, in min.
const REFILL_MIN: f64 = 15.0;

/// House: the worst case takes so much longer by hand; what only takes time is reckoned for the heaviest part and the
/// weakest oven.
pub(super) const WORST_HANDS: f64 = 1.5;

/// For which part a way is reckoned.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Case {
    Likely,
    /// As heavy as it may be, heated by as little as it may be.
    Worst,
}

fn mean_section_mm2(seam: &SeamPlan) -> (f64, f64, f64) {
    let Some(section) = seam.section else { return (0.0, 0.0, 0.0) };
    let sides = if seam.is_double() { 2.0 } else { 1.0 };
    let crown = 2.0 / 3.0 * section.top_width_mm * seam.cap_mm;
    (sides * (section.area_mm2 - crown).max(0.0), sides * crown, sides * section.top_width_mm)
}

impl MethodContext<'_> {
    /// Every step of a way with its minutes, and the sessions of its beads; nothing while its heat is not known.
    pub(super) fn steps(&self, way: Way, prep: &PrepPlan) -> Option<(Vec<Step>, Vec<Session>)> {
        self.steps_in(Case::Likely, way, prep)
    }

    pub(super) fn steps_in(
        &self,
        case: Case,
        way: Way,
        prep: &PrepPlan,
    ) -> Option<(Vec<Step>, Vec<Session>)> {
        let mut steps = Steps { list: Vec::new() };
        self.before(way, prep, &mut steps);
        let parts = self.at_the_heat(case, way, prep, &mut steps)?;
        self.afterwards(prep, &mut steps);
        let straps = self.straps(way, prep);
        let minutes: f64 = straps.iter().filter(|it| it.chosen).map(StrapPlan::minutes).sum();
        steps.hands("strap_over", "Straps over the seams", minutes, "30 each, and 10 a bolt");
        for step in &mut steps.list {
            let (factor, count) = pace(&self.shop.timed, &step.id);
            if count > 0 {
                step.attended_min *= factor;
                step.working += &format!("; × {factor:.2}, timed here {count} times");
            }
            step.working = said(&step.working, self.shop.units);
        }
        Some((steps.list, parts))
    }

    fn before(&self, way: Way, prep: &PrepPlan, steps: &mut Steps) {
        /// House: what is cleaned to bright metal in a minute, in cm².
        const CLEANED_CM2_A_MIN: f64 = 25.0;
        let round = self.round;
        let both = if self.both_sides() { 2.0 } else { 1.0 };
        let cleaned: f64 = prep
            .seams
            .iter()
            .map(|seam| seam.length_mm * 2.0 * bright_margin_mm(seam.wall_mm) * both / 100.0)
            .sum();
        steps.hands(
            "clean",
            "Clean",
            cleaned / CLEANED_CM2_A_MIN * if self.taught(&DIRT, way) == Dirt::Flux { 0.5 } else { 1.0 },
            format!("{{{:.0} mm2}} at {{2500 mm2}} a minute", cleaned * 100.0),
        );
        let thickest = prep.seams.iter().map(|seam| seam.wall_mm).fold(0.0, f64::max);
        if round.get(field::part::OIL) == Some(Oil::Soaked) && !way.method.without_heat() {
            let bake = 45.0 + 2.0 * thickest;
            // In what it was said; else in the oven, where there is one.
            let said = round.get(field::heat::BAKE).map(HeatSource::is_oven);
            let oven = said.unwrap_or_else(|| self.shop.heat_sources().any(HeatSource::is_oven));
            let hands = 15.0 + if oven { 0.0 } else { bake };
            steps.add(
                "bake",
                "Bake the oil out",
                hands,
                if oven { bake } else { 0.0 },
                "15 to degrease, then 45 and 2 for each {1 mm} of wall",
            );
        }
        let mut looked: Vec<FoundBy> = self.cracks.iter().filter_map(|crack| crack.found_by).collect();
        looked.sort_by_key(|found| *found as u8);
        looked.dedup();
        for found in looked {
            let (hands, clock) = finding_min(found);
            steps.add("find", "Find the ends", hands, clock, "once a face");
        }
        let place = round.get(field::part::PLACE) == Some(MendedAt::InPlace);
        if place || !self.part.heat_shy.is_empty() && !way.method.without_heat() {
            steps.hands("strip", "Take off what is in the way", 30.0, "30 min, a guess");
        }
        self.opened(way, prep, both, steps);
        let tacks: usize = self.tacks.iter().sum();
        if !self.tacks.is_empty() && !way.method.without_heat() {
            let minutes = 10.0 * self.tacks.len() as f64 + 8.0 * tacks as f64;
            steps.hands(
                "fit",
                "Fit and tack",
                minutes,
                format!("10 a break + {tacks} tacks of 5 and 3 to check"),
            );
        }
        steps.hands("lay_out", "Lay out", 25.0, "15 + 10 to light");
        let melts = !matches!(
            way.method.entry().joins,
            Joins::Pins | Joins::PinsAndLocks | Joins::Strap | Joins::Epoxy
        );
        if melts && !self.shop.practised(way.method, self.job) {
            steps.hands("scrap", "A piece of scrap first", 10.0, "fewer than five by this way here");
        }
    }

    /// Stop-holes and grooves.
    fn opened(&self, way: Way, prep: &PrepPlan, both: f64, steps: &mut Steps) {
        let round = self.round;
        let holes: Vec<_> = self
            .cracks
            .iter()
            .filter(|crack| crack.worked())
            .flat_map(|crack| &crack.ends)
            .filter(|end| end.stop_hole.is_some())
            .collect();
        if !holes.is_empty() && !way.method.pins() {
            let sunk = if way.method.entry().groove.is_some() { 2.0 * both } else { 0.0 };
            let minutes: f64 = holes.iter().map(|end| 4.0 + 0.25 * end.wall_mm + sunk).sum();
            let count = holes.len();
            steps.hands(
                "drill",
                "Stop-holes",
                minutes,
                format!("{count} holes of 4, a quarter for each {{1 mm}} of wall, 2 a countersink"),
            );
        }
        let volume_mm3: f64 = prep.seams.iter().map(|seam| mean_section_mm2(seam).0 * seam.length_mm).sum();
        if volume_mm3 > 0.0 {
            let disc = self.cracks.iter().all(|crack| {
                let reach = round.get(field::crack::REACH.of(crack.id));
                reach.is_none_or(|reach| reach.contains(&SeamReach::Disc))
            });
            let (thin, burr) = (RemovalTool::ThinDisc.mm3_a_min(), RemovalTool::Burr.mm3_a_min());
            let minutes =
                if disc { volume_mm3 / 2.0 / thin + volume_mm3 / 2.0 / burr } else { volume_mm3 / burr };
            let cm3 = volume_mm3 / 1000.0;
            steps.hands(
                "open",
                "Open the grooves",
                minutes,
                format!("{{{cm3:.1} cm3}}, half by disc, half by burr; burr alone where no disc gets in"),
            );
        }
    }

    fn at_the_heat(&self, case: Case, way: Way, prep: &PrepPlan, steps: &mut Steps) -> Option<Vec<Session>> {
        let joins = way.method.entry().joins;
        let mut parts = None;
        match joins {
            Joins::Pins | Joins::PinsAndLocks => {
                let ductile = self.belief.leading == Iron::Ductile;
                let a_tap = if ductile { 15.0 } else { 40.0 };
                let taps = 2.0 * (f64::from(prep.pins) / a_tap).floor();
                let near = self.pins_near_a_hard_spot(prep);
                let slow = match near {
                    0 => String::new(),
                    near => format!(", {near} beside a hard spot, 6 more each"),
                };
                steps.hands(
                    "stitch",
                    "Pins",
                    self.fill(way, prep).minutes + taps + 6.0 * near as f64,
                    format!(
                        "{} pins of 4, {} locks of 12, a tap for {a_tap:.0} holes{slow}",
                        prep.pins, prep.locks
                    ),
                );
            }
            Joins::Strap => {
                let straps = prep.seams.len() as f64;
                steps.hands("strap", "Straps", straps * (30.0 + 40.0), "30 + 4 bolts of 10 each");
            }
            Joins::Epoxy => {
                steps.hands(
                    "cold_fill",
                    "Fill",
                    20.0 * prep.seams.len() as f64,
                    "20 a seam; its cure is the maker's",
                );
            }
            Joins::Arc | Joins::ArcBronze | Joins::Bronze | Joins::Silver | Joins::Flame => {
                parts = self.hot(case, way, prep, steps)?;
            }
        }
        // Without a heating of its own what is laid is all there is.
        Some(parts.unwrap_or_else(|| self.parted(way, prep, 0.0)))
    }

    /// Heated, filled, turned, packed and unpacked; the sessions where its heating parts it, nothing where that is not known.
    fn hot(&self, case: Case, way: Way, prep: &PrepPlan, steps: &mut Steps) -> Option<Option<Vec<Session>>> {
        let mut parts = None;
        let mut cooling = None;
        let (mut times, mut night, mut nights) = (1.0, None, 0.0);
        if way.school.preheats() {
            let target = self.target_of(way)?;
            let sources = self.sources_of(way)?;
            let reached = sources.reach(&target)?;
            let oven = reached.run.source.is_oven() && !reached.run.source.is_fire();
            // What only takes time takes longest of the heaviest it may be; hands have an allowance of their own.
            let body = match case {
                Case::Likely => sources.body,
                Case::Worst => sources.heaviest(self.part)?,
            };
            let minutes = match case {
                Case::Worst if oven => sources.at_the_worst(&body, reached, &target, self.sims)?,
                Case::Likely | Case::Worst => reached.minutes,
            };
            // An oven is watched by nobody, whether it heats the part or only soaks it.
            let soaks_in = self.steps.of(HeatStep::Soak).and_then(|own| own.runs.first());
            let soaked_by = soaks_in.map_or(oven, |run| run.source.is_oven() && !run.source.is_fire());
            let of = |minutes: f64, oven: bool| if oven { (0.0, minutes) } else { (minutes, 0.0) };
            let (heats, soaks) = (of(minutes, oven), of(soak_minutes(way, self.part.wall_mm), soaked_by));
            let (hands, clock) = (heats.0 + soaks.0, heats.1 + soaks.1);
            let in_sessions = self.parted(way, prep, hands);
            let sessions = in_sessions.len() as f64;
            parts = Some(in_sessions);
            night = self.night(way).filter(|_| sessions > 1.0);
            nights = sessions - 1.0;
            // What is held over night is heated once, and packed once.
            times = if night.is_some() { 1.0 } else { sessions };
            let (hands, clock) = (times * hands, times * clock);
            steps.add("heat", "Heat and soak", hands, clock, "the model's minutes and the soak");
            let wrap = wrapping(self.round, self.shop, way);
            cooling = Some(self.cooling(&body, target.most_c, &wrap)?.hours_to(UNWRAP_C)?);
        }
        let fill = self.fill(way, prep);
        steps.hands("fill", "Fill", fill.minutes, fill.working);
        let words = match fill.turns {
            1 => "3 min, once".to_owned(),
            turns => format!("3 min, {turns} times"),
        };
        steps.hands("turn", "Turn it", 3.0 * fill.turns as f64, words);
        if way.school == School::ArcOnly {
            let body = self.part.body(slowest_to_heat(&self.belief.plausible).iron.properties())?;
            let wrap = wrapping(self.round, self.shop, way);
            let hours = self.cooling(&body, self.target_of(way)?.most_c, &wrap)?.hours_to(UNWRAP_C)?;
            steps.add("cool", "Cool", 0.0, hours * 60.0, "the model, from the most it may be");
        }
        if let Some(night) = night {
            let words = format!("{{{:.0} min}} from closing to opening, {nights} times", night.minutes);
            steps.add(NIGHT, "Held overnight", 0.0, nights * night.minutes, words);
        }
        self.after_the_last(way, times, steps);
        if let Some(hours) = cooling {
            let each = if times > 1.0 { format!(", {times} times") } else { String::new() };
            steps.hands("pack", "Pack", times * 10.0, format!("10 min{each}"));
            let words = format!("the model, until it may be unwrapped{each}");
            steps.add("cool", "Cool", 0.0, times * hours * 60.0, words);
            steps.hands("unpack", "Unpack", times * 15.0, format!("15 min{each}"));
        }
        Some(parts)
    }

    /// Pins that go in so near a hard spot that the drill has to be watched.
    fn pins_near_a_hard_spot(&self, prep: &PrepPlan) -> usize {
        /// Published: the trade reference, hours by step.
        const NEAR_MM: f64 = 10.0;
        let spots: Vec<(usize, At, f64)> = self
            .round
            .drawn
            .iter()
            .filter(|placed| self.round.hard_spots.iter().any(|spot| spot.id == placed.mark))
            .filter_map(|placed| {
                let Shape::Circle { x_mm, y_mm, radius_mm } = placed.shape else { return None };
                let face = self.laid.faces.iter().position(|face| face.face.id == placed.face)?;
                Some((face, At::new(x_mm, y_mm), radius_mm))
            })
            .collect();
        if spots.is_empty() {
            return 0;
        }
        let near = |seam: &SeamPlan| {
            let by_a_spot = |(face, _, middle): &(usize, u32, At)| {
                let off = spots
                    .iter()
                    .filter(|(on, ..)| on == face)
                    .map(|(_, at, radius)| middle.distance_mm(*at) - radius - seam.pin_mm / 2.0)
                    .fold(f64::INFINITY, f64::min);
                (OFF_HARD_SPOT_MM..NEAR_MM).contains(&off)
            };
            pin_places(seam, self.laid).iter().filter(|it| by_a_spot(it)).count()
        };
        prep.seams.iter().filter(|seam| seam.pins > 0).map(near).sum()
    }

    fn afterwards(&self, prep: &PrepPlan, steps: &mut Steps) {
        let round = self.round;
        steps.add("check", "Check", 25.0, 20.0, "10 + dye, 15 and 20 to draw");
        if self.part.fluid_tight == Some(true) && !self.part.duct() {
            let minutes = ProofPlan::of(round, self.shop.units).minutes;
            steps.hands(
                "proof",
                "Proof with water",
                minutes,
                "10 to fill and drain, and as long as it is held",
            );
        }
        // What was found and is filled again counts whether that is done by now or not.
        let refilled = round.looked.iter().filter(|it| it.then == Some(Then::RefillHot)).count();
        let each = "15 a place: ground out, warmed, filled again and looked at";
        steps.hands("put_right", "Put right", REFILL_MIN * refilled as f64, each);
        let finish = FinishInputs { round, shop: self.shop, part: self.part, prep, straps: &[] }.minutes();
        if finish.metal > 0.0 {
            let working = "crown, grits, skin and edges, by what each place has to be";
            steps.hands("blend", "Blend", finish.metal, working);
        }
        let restored: f64 = round
            .marks
            .iter()
            .filter(|mark| mark.what == MarkKind::Feature)
            .map(|mark| round.get(field::mark::KIND.of(mark.id)).unwrap_or(SizeKind::Hole).restored_min())
            .sum();
        steps.hands("restore", "Restore", restored, "20 a hole, 30 a thread, 45 a face, 5 to read a size");
        if round.get(field::part::PLACE) == Some(MendedAt::InPlace) || !self.part.heat_shy.is_empty() {
            steps.hands("refit", "Put it back", 30.0, "30 min, a guess");
        }
        if finish.dries > 0.0 {
            steps.add(
                DRIES,
                "Paint and dry",
                finish.coats,
                finish.dries,
                "coat by coat, each with its time to dry",
            );
        }
    }
}

fn finding_min(found: FoundBy) -> (f64, f64) {
    match found {
        FoundBy::Eye => (5.0, 0.0),
        FoundBy::Dye => (15.0, 20.0),
        _ => (15.0, 0.0),
    }
}

pub(super) struct Steps {
    pub(super) list: Vec<Step>,
}

impl Steps {
    pub(super) fn add(&mut self, id: &str, label: &str, hands: f64, clock: f64, working: impl Into<String>) {
        if hands > 0.0 || clock > 0.0 {
            self.list.push(Step {
                id: id.to_owned(),
                label: label.to_owned(),
                attended_min: hands,
                unattended_min: clock,
                working: working.into(),
            });
        }
    }

    pub(super) fn hands(&mut self, id: &str, label: &str, minutes: f64, working: impl Into<String>) {
        self.add(id, label, minutes, 0.0, working);
    }
}
