//! What a way costs, and whether mending is worth it.

use crate::casting::said::Machined;
use serde::Serialize;

use super::{Contender, MethodContext};
use crate::effort::durations::{Step, totals};
use crate::effort::repair_or_replace::Choices;
use crate::field;
use crate::job::Round;
use crate::method::{Way, for_days};
use crate::quantity::{CURRENCY_SIGNS, Unit, minutes_shown, money, number, of_100};
use crate::shop::Shop;
use crate::stage::finish::DRIES;
use crate::stores::{Take, TakenWhen};

/// What a way costs, line by line.
#[derive(Debug, Clone, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Price {
    /// In the shop's money; nothing while the shop has no rate.
    pub total: Option<f64>,
    /// The same as it is shown: "£420".
    pub total_words: Option<String>,
    pub lines: Vec<PriceLine>,
    /// What is not in it, since nobody has said what it costs.
    pub without: Vec<String>,
}

/// One line of a price.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PriceLine {
    pub what: String,
    /// "6 h 30 x 45", and the amount is that of the hours as they stand here
    pub working: String,
    pub amount: f64,
    /// The same as it is shown: "£293".
    pub amount_words: String,
}

/// The shop's own, or the sign that was typed with what a new part costs.
pub(crate) fn currency(round: &Round, shop: &Shop) -> String {
    if !shop.currency.is_empty() {
        return shop.currency.clone();
    }
    let typed = round.typed(field::part::REPLACEMENT_PRICE.key()).unwrap_or_default();
    typed.chars().filter(|sign| CURRENCY_SIGNS.contains(sign)).take(1).collect()
}

impl PriceLine {
    /// Money is said in whole units, line by line: what is printed adds up.
    fn new(what: &str, working: String, amount: f64) -> Self {
        Self { what: what.to_owned(), working, amount: amount.round(), amount_words: String::new() }
    }
}

/// It is machined afterwards.
fn round_machines(round: &Round) -> bool {
    matches!(round.get(field::part::MACHINED), Some(Machined::Elsewhere | Machined::Across))
}

impl MethodContext<'_> {
    /// Puts the amounts of the lines into words, and says what else stands below them.
    fn in_money(&self, lines: &mut [PriceLine], below: &[f64]) -> Vec<String> {
        let amounts: Vec<f64> = lines.iter().map(|line| line.amount).chain(below.iter().copied()).collect();
        let mut words = money(&currency(self.round, self.shop), &amounts);
        let rest = words.split_off(lines.len());
        for (line, words) in lines.iter_mut().zip(words) {
            line.amount_words = words;
        }
        rest
    }

    /// What a way costs, as far as the shop has said what things cost.
    pub(super) fn price(&self, way: Way, steps: &[Step], takes: &[Take]) -> Price {
        let Some(rate) = self.shop.rate else { return Price::default() };
        let (hands, clock) = totals(steps);
        // What dries takes neither oven nor bench.
        let dries: f64 = steps.iter().filter(|step| step.id == DRIES).map(|step| step.unattended_min).sum();
        let clock = clock - dries;
        let mut lines = Vec::new();
        let mut line = |what: &str, minutes: f64, rate: f64| {
            if minutes > 0.0 && rate > 0.0 {
                let working = format!("{} × {rate}", self.shop.units.say(minutes, Unit::Minutes));
                let amount = minutes_shown(minutes) / 60.0 * rate;
                lines.push(PriceLine::new(what, working, amount));
            }
        };
        line("Hands", hands, rate);
        line("Oven and waiting", clock, self.shop.low_rate.unwrap_or(0.0));
        let mut without = Vec::new();
        // Packing comes back: it is no cost of the job.
        for take in takes.iter().filter(|take| take.when != TakenWhen::Kept) {
            match take.cost(&self.shop.stores) {
                Some(amount) => lines.push(PriceLine::new(&take.words, take.amount_words.clone(), amount)),
                None => without.push(take.words.clone()),
            }
        }
        // What the torch burns while it fills nobody has reckoned.
        if way.method.entry().joins.by_flame() {
            without.push("gas while the joint is filled".to_owned());
        }
        match (round_machines(self.round), self.round.get(field::part::MACHINING_PRICE)) {
            (_, Some(amount)) => {
                lines.push(PriceLine::new("Machining elsewhere", "as said".to_owned(), amount));
            }
            (true, None) => without.push("machining elsewhere".to_owned()),
            (false, None) => {}
        }
        let so_far: f64 = lines.iter().map(|line| line.amount).sum();
        if self.shop.small_things > 0.0 && so_far > 0.0 {
            let share = number(self.shop.small_things * 100.0, 1);
            let working = format!("{share} % of {}", number(so_far, 0));
            lines.push(PriceLine::new("Small things", working, so_far * self.shop.small_things));
        }
        let total = lines.iter().map(|line| line.amount).sum();
        Price { total: Some(total), total_words: self.in_money(&mut lines, &[total]).pop(), lines, without }
    }

    /// Mending, patching and replacing, in the shop's money; and when mending is worth it.
    pub(super) fn weighed(&self, taken: &Contender) -> (Vec<PriceLine>, String) {
        /// Hours in a day, by definition.
        const DAY_H: f64 = 24.0;
        let round = self.round;
        let (Some(replacement), Some(repair_cost), Some(hours)) =
            (round.get(field::part::REPLACEMENT_PRICE), taken.price.total, taken.hours)
        else {
            return (Vec::new(), String::new());
        };
        let last = |days: f64| for_days(taken.odds.mean, days, &taken.parts_of_odds());
        let wait_days = round.get(field::part::REPLACEMENT_WAIT).unwrap_or(0.0);
        let repair_days = taken.ready.as_ref().map_or(hours / DAY_H, |ready| ready.after_min / 60.0 / DAY_H);
        let choices = Choices {
            repair_cost,
            repair_days,
            odds: last(self.part.life_days.unwrap_or(365.0)),
            replacement,
            wait_days,
            downtime_per_day: round.get(field::part::DOWNTIME).unwrap_or(0.0),
        };
        let costs = choices.costs();
        let patch = Choices { odds: last(wait_days), ..choices }.costs().patch_and_order;
        let mending = format!("{} of 100 hold as long as they have to", of_100(choices.odds));
        let mut lines = vec![
            PriceLine::new("Mend it", mending, costs.repair),
            PriceLine::new("Replace it", format!("in {wait_days:.0} days"), costs.replace),
        ];
        // Where nothing is waited for, a patch until then patches nothing.
        if wait_days > 0.0 {
            let working = format!("for {wait_days:.0} days");
            lines.push(PriceLine::new("Patch it, with a new one on order", working, patch));
        }
        lines.sort_by(|a, b| a.amount.total_cmp(&b.amount));
        self.in_money(&mut lines, &[]);
        let words = match costs.break_even {
            Some(share) if share <= 1.0 => {
                format!("Mending is worth it if more than {:.0} of 100 hold.", share * 100.0)
            }
            Some(_) => "By money mending is never worth it.".to_owned(),
            None => String::new(),
        };
        (lines, words)
    }
}
