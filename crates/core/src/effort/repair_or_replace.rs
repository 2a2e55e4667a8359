//! What mending, patching, replacing and leaving cost, side by side.

/// What has to be known to weigh them, in the shop's money and in days.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choices {
    pub repair_cost: f64,
    pub repair_days: f64,
    /// Chance that the repair lasts as long as it has to.
    pub odds: f64,
    pub replacement: f64,
    pub wait_days: f64,
    pub downtime_per_day: f64,
}

/// What each may be expected to cost.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Costs {
    pub repair: f64,
    /// A repair for now, with the new one on order.
    pub patch_and_order: f64,
    pub replace: f64,
    /// Worth it when more than this share of such repairs holds; nothing where replacing costs nothing.
    pub break_even: Option<f64>,
}

impl Choices {
    /// Repair C + D d + (1 - p)(R + D W); patch C + R + D min(d, W) + (1 - p) D max(W - d, 0), an upper bound:
    /// a patch that fails late still saved days; replace R + D W; break-even (C + D d) / (R + D W).
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn costs(&self) -> Costs {
        let Self { repair_cost, repair_days, odds, replacement, wait_days, downtime_per_day } = *self;
        let fails = 1.0 - odds;
        let replace = replacement + downtime_per_day * wait_days;
        let mended = repair_cost + downtime_per_day * repair_days;
        Costs {
            repair: mended + fails * replace,
            patch_and_order: repair_cost
                + replacement
                + downtime_per_day * repair_days.min(wait_days)
                + fails * downtime_per_day * (wait_days - repair_days).max(0.0),
            replace,
            break_even: (replace > 0.0).then(|| mended / replace),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_sure_repair_costs_itself_and_a_hopeless_one_both() {
        let at = |odds| {
            Choices {
                repair_cost: 300.0,
                repair_days: 1.0,
                odds,
                replacement: 500.0,
                wait_days: 10.0,
                downtime_per_day: 20.0,
            }
            .costs()
        };
        // Hand-worked: 300 + 20 = 320; replacing 500 + 200 = 700; 320 + 700 = 1020; 320 / 700
        assert_eq!((at(1.0).repair, at(0.0).repair, at(0.5).replace), (320.0, 1020.0, 700.0));
        assert!((at(0.5).break_even.unwrap() - 0.457_142_857).abs() < 1e-9);
        // 300 + 500 + 20 x 1 + 0.5 x 20 x 9
        assert_eq!(at(0.5).patch_and_order, 910.0);
    }

    #[test]
    fn nothing_to_replace_has_no_break_even_and_a_patch_longer_than_the_wait_saves_no_day() {
        let none = Choices {
            repair_cost: 100.0,
            repair_days: 5.0,
            odds: 0.5,
            replacement: 0.0,
            wait_days: 3.0,
            downtime_per_day: 0.0,
        };
        assert_eq!(none.costs().break_even, None);
        let slow = Choices { downtime_per_day: 10.0, ..none };
        assert_eq!(slow.costs().patch_and_order, 130.0);
    }
}
