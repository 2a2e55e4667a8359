//! `POST /api/reckon/{odds,decide}`

use rocket::post;
use rocket::serde::json::Json;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use vanadin_core::base::problem::{FieldProblem, Problems};
use vanadin_core::effort::repair_or_replace::Choices;
use vanadin_core::method::{
    Became, MethodId, Moves, NotGood, OddsPart, Outcome, Outcomes, StitchKind, ToeCrack, Variant, for_days,
    odds_of, odds_with, shift_of,
};

use super::chosen;
use crate::api_error::{ApiError, ProblemsBody};
use crate::body::Body;

/// A repair of the shop's own that held when it was last asked.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct HeldRepair {
    pub days: f64,
    #[serde(default = "same")]
    pub same_iron: bool,
    /// What burdened it, in log-odds.
    #[serde(default)]
    pub shift: f64,
}

/// One that failed.
#[derive(Debug, Serialize, Deserialize, ToSchema)]
pub struct FailedRepair {
    #[serde(default = "same")]
    pub same_iron: bool,
    #[serde(default)]
    pub shift: f64,
}

fn same() -> bool {
    true
}

/// What is known of a repair; what is left out does not count.
#[derive(Debug, Default, Deserialize, ToSchema)]
#[serde(default)]
pub struct OddsRequest {
    /// A method's id: `torch_braze`.
    pub method: String,
    /// modest; between, plain or thin_loaded_or_hot; left out for the usual one.
    pub variant: String,
    pub held: Vec<HeldRepair>,
    pub failed: Vec<FailedRepair>,
    /// More that failed, of the same iron and of another, burdened by nothing.
    pub failed_same: u32,
    pub failed_other: u32,
    /// How long it has to last; a year when left out.
    pub days: Option<f64>,
    pub preheat_short_k: f64,
    pub share_beads_cold: f64,
    pub uneven_over_k: f64,
    pub closed_heated_locally: bool,
    pub fall_over_limit: f64,
    /// The chance at each tip that it lies past its hole.
    pub run_past: Vec<f64>,
    pub tips_without_hole: u32,
    pub tips_followed_to_sound: u32,
    pub oil_soaked_unbaked: bool,
    pub old_filler_left: bool,
    pub one_side_of_two: bool,
    /// Chance of the iron that leads.
    pub leading_iron: Option<f64>,
    pub share_not_peened: f64,
    pub share_beads_hot: f64,
    pub t85_s: Option<f64>,
    pub own_count: Option<f64>,
    pub locked_in_stress: bool,
    pub cause_stays: bool,
    pub strapped: bool,
    pub checked_clean: bool,
    /// K under the target of the whole part, for a bronze by the arc alone.
    pub arc_only_short_k: f64,
    pub faults_open: u32,
    pub faults_made_good: u32,
    /// open, ground_out; left out for none.
    pub toe_crack: String,
    pub moved: bool,
    /// toe_crack, not_fused, leak, pore, notch_under_shock.
    pub not_good: Vec<String>,
    pub crack_open: bool,
    pub rounds_failed_here: u32,
}

/// How likely it holds a year, four times in five between `low` and `high`; and as long as it has to.
#[derive(Debug, Serialize, ToSchema)]
pub struct OddsAnswer {
    pub p: f64,
    pub low: f64,
    pub high: f64,
    pub p_days: f64,
    /// In log-odds.
    pub shift: f64,
    /// What moves it, the largest first.
    pub parts: Vec<OddsPart>,
}

/// Ours: lists longer than this are no list of tips or of repairs.
const LIST_MOST: usize = 1_000;
const DAYS: (f64, f64) = (0.0, 36_500.0);
/// Ours: no repair was burdened, or helped, by more, in log-odds.
const BURDEN: (f64, f64) = (-5.0, 5.0);

fn within(problems: &mut Problems, field: &str, value: f64, (low, high): (f64, f64)) {
    if !(low..=high).contains(&value) {
        problems.add(FieldProblem::new(field, format!("{value} cannot be"), format!("{low} to {high}")));
    }
}

impl OddsRequest {
    /// Every number and list within what can be, each told at its field.
    fn within_bounds(&self, problems: &mut Problems) {
        let share = (0.0, 1.0);
        for (field, value, bounds) in [
            ("days", self.days.unwrap_or(365.0), DAYS),
            ("preheat_short_k", self.preheat_short_k, (0.0, 2_000.0)),
            ("share_beads_cold", self.share_beads_cold, share),
            ("uneven_over_k", self.uneven_over_k, (0.0, 2_000.0)),
            ("fall_over_limit", self.fall_over_limit, (0.0, 1_000.0)),
            ("leading_iron", self.leading_iron.unwrap_or(1.0), share),
            ("share_not_peened", self.share_not_peened, share),
            ("share_beads_hot", self.share_beads_hot, share),
            ("t85_s", self.t85_s.unwrap_or(0.0), (0.0, 1e6)),
            ("arc_only_short_k", self.arc_only_short_k, (0.0, 2_000.0)),
            ("own_count", self.own_count.unwrap_or(0.0), (0.0, 1e6)),
        ] {
            within(problems, field, value, bounds);
        }
        for (field, len) in [
            ("run_past", self.run_past.len()),
            ("held", self.held.len()),
            ("failed", self.failed.len()),
            ("not_good", self.not_good.len()),
        ] {
            if len > LIST_MOST {
                problems.add(FieldProblem::new(field, "the list is too long", format!("up to {LIST_MOST}")));
            }
        }
        for (at, chance) in self.run_past.iter().enumerate().take(LIST_MOST) {
            within(problems, &format!("run_past[{at}]"), *chance, share);
        }
        for (at, held) in self.held.iter().enumerate().take(LIST_MOST) {
            within(problems, &format!("held[{at}].days"), held.days, DAYS);
            within(problems, &format!("held[{at}].shift"), held.shift, BURDEN);
        }
        for (at, failed) in self.failed.iter().enumerate().take(LIST_MOST) {
            within(problems, &format!("failed[{at}].shift"), failed.shift, BURDEN);
        }
        for (field, count) in [
            ("failed_same", self.failed_same),
            ("failed_other", self.failed_other),
            ("tips_without_hole", self.tips_without_hole),
            ("tips_followed_to_sound", self.tips_followed_to_sound),
            ("faults_open", self.faults_open),
            ("faults_made_good", self.faults_made_good),
            ("rounds_failed_here", self.rounds_failed_here),
        ] {
            within(problems, field, f64::from(count), (0.0, LIST_MOST as f64));
        }
    }

    /// The shop's own outcomes, as they are counted.
    fn own(&self) -> Outcomes {
        let held = self.held.iter().map(|it| Outcome {
            became: Became::Held,
            days: it.days,
            same_iron: it.same_iron,
            shift: it.shift,
        });
        let failed =
            |same_iron: bool, shift: f64| Outcome { became: Became::Failed, days: 0.0, same_iron, shift };
        let said = self.failed.iter().map(|it| failed(it.same_iron, it.shift));
        let same = (0..self.failed_same).map(|_| failed(true, 0.0));
        let other = (0..self.failed_other).map(|_| failed(false, 0.0));
        Outcomes { known: held.chain(said).chain(same).chain(other).collect() }
    }

    /// What moves the odds, but what is said by an id.
    fn moves(self) -> Moves {
        Moves {
            preheat_short_k: self.preheat_short_k,
            share_beads_cold: self.share_beads_cold,
            share_beads_hot: self.share_beads_hot,
            uneven_over_k: self.uneven_over_k,
            closed_heated_locally: self.closed_heated_locally,
            fall_over_limit: self.fall_over_limit,
            run_past: self.run_past,
            tips_without_hole: self.tips_without_hole,
            tips_followed_to_sound: self.tips_followed_to_sound,
            oil_soaked_unbaked: self.oil_soaked_unbaked,
            old_filler_left: self.old_filler_left,
            one_side_of_two: self.one_side_of_two,
            leading_iron: self.leading_iron,
            share_not_peened: self.share_not_peened,
            t85_s: self.t85_s,
            own_count: self.own_count,
            locked_in_stress: self.locked_in_stress,
            cause_stays: self.cause_stays,
            strapped: self.strapped,
            checked_clean: self.checked_clean,
            arc_only_short_k: self.arc_only_short_k,
            faults_open: self.faults_open,
            faults_made_good: self.faults_made_good,
            toe_crack: None,
            moved: self.moved,
            not_good: Vec::new(),
            crack_open: self.crack_open,
            rounds_failed_here: self.rounds_failed_here,
        }
    }
}

/// How likely a repair is to hold.
#[utoipa::path(post, path = "/api/reckon/odds", request_body = OddsRequest, responses(
    (status = 200, description = "The odds", body = OddsAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/odds", data = "<body>")]
pub fn odds(body: Body<OddsRequest>) -> Result<Json<OddsAnswer>, ApiError> {
    let asked = body.0?;
    let mut problems = Problems::default();
    let method = chosen(
        &mut problems,
        "method",
        &asked.method,
        MethodId::from_id(&asked.method),
        "a method, as arc_nickel or torch_braze",
    );
    let variant = match (method, asked.variant.as_str()) {
        (Some(MethodId::Stitch | MethodId::StitchLocks), variant) => {
            StitchKind::from_variant(variant).map(Variant::Pins)
        }
        (_, "") => Some(Variant::Usual),
        (Some(MethodId::GasIron), "modest") => Some(Variant::Modest),
        _ => None,
    };
    let right = "modest for gas_iron; between, plain or thin_loaded_or_hot for stitch and stitch_locks; or \
                 nothing";
    let variant = chosen(&mut problems, "variant", &asked.variant, variant, right);
    asked.within_bounds(&mut problems);
    let toe_crack = match asked.toe_crack.as_str() {
        "" => None,
        id => chosen(&mut problems, "toe_crack", id, ToeCrack::from_id(id), "open, ground_out or nothing"),
    };
    let mut not_good = Vec::new();
    for (at, id) in asked.not_good.iter().enumerate().take(LIST_MOST) {
        let right = "toe_crack, not_fused, leak, pore or notch_under_shock";
        not_good.extend(chosen(&mut problems, &format!("not_good[{at}]"), id, NotGood::from_id(id), right));
    }
    problems.finish()?;
    let (Some(method), Some(variant)) = (method, variant) else {
        return Err(ApiError::NotAcceptable(Vec::new()));
    };
    let own = asked.own();
    let days = asked.days.unwrap_or(365.0);
    let moves = Moves { toe_crack, not_good, ..asked.moves() };
    let parts = moves.parts(method);
    let shift = shift_of(&parts);
    let found = odds_with(odds_of(method, variant, &own), &parts);
    Ok(Json(OddsAnswer {
        p: found.mean,
        low: found.low,
        high: found.high,
        p_days: for_days(found.mean, days, &parts),
        shift,
        parts,
    }))
}

/// What has to be weighed, in money and days.
#[derive(Debug, Deserialize, ToSchema)]
pub struct DecideRequest {
    pub repair_cost: f64,
    pub repair_days: f64,
    /// Chance that it lasts as long as it has to.
    pub odds: f64,
    pub replacement: f64,
    pub wait_days: f64,
    #[serde(default)]
    pub downtime_per_day: f64,
}

/// What each choice may be expected to cost.
#[derive(Debug, Serialize, ToSchema)]
pub struct DecideAnswer {
    pub repair: f64,
    pub patch_and_order: f64,
    pub replace: f64,
    /// Worth it when more than this share of such repairs holds.
    pub break_even: Option<f64>,
}

/// What mending, patching and replacing cost.
#[utoipa::path(post, path = "/api/reckon/decide", request_body = DecideRequest, responses(
    (status = 200, description = "The costs", body = DecideAnswer),
    (status = 422, description = "Not acceptable", body = ProblemsBody)))]
#[post("/decide", data = "<body>")]
pub fn decide(body: Body<DecideRequest>) -> Result<Json<DecideAnswer>, ApiError> {
    const MONEY: (f64, f64) = (0.0, 1e9);
    let asked = body.0?;
    let mut problems = Problems::default();
    for (field, value, bounds) in [
        ("repair_cost", asked.repair_cost, MONEY),
        ("repair_days", asked.repair_days, DAYS),
        ("odds", asked.odds, (0.0, 1.0)),
        ("replacement", asked.replacement, MONEY),
        ("wait_days", asked.wait_days, DAYS),
        ("downtime_per_day", asked.downtime_per_day, MONEY),
    ] {
        within(&mut problems, field, value, bounds);
    }
    problems.finish()?;
    let costs = Choices {
        repair_cost: asked.repair_cost,
        repair_days: asked.repair_days,
        odds: asked.odds,
        replacement: asked.replacement,
        wait_days: asked.wait_days,
        downtime_per_day: asked.downtime_per_day,
    }
    .costs();
    Ok(Json(DecideAnswer {
        repair: costs.repair,
        patch_and_order: costs.patch_and_order,
        replace: costs.replace,
        break_even: costs.break_even,
    }))
}
