//! Memo of simulations: the same question is not computed twice.

use std::collections::VecDeque;
use std::sync::{Arc, Mutex, PoisonError};

use super::bead_order::{RiseRows, RowsOf};
use super::{
    BarPower, BeadCourse, BeadSchedule, BeadWork, Cooling, CoolingFit, Heating, ReadAt, ThermalBody,
    Wrapping, cool_scaled, cooling_fit, heat_until, heating_fit, says_enough, thinned,
};
use crate::quantity::{Celsius, Seconds};

/// Memo of simulations for the plans to come; least recently used goes first. It changes nothing but the time
/// a plan takes.
#[derive(Debug, Default)]
pub struct SimCache {
    coolings: Mutex<Recent<CoolingKey, Cooling>>,
    heatings: Mutex<Recent<HeatingKey, Heating>>,
    fits: Mutex<Recent<FitKey, Option<CoolingFit>>>,
    heating_fits: Mutex<Recent<HeatingFitKey, Option<f64>>>,
    rises: Mutex<Recent<RowsOf, RiseRows>>,
    orders: Mutex<Recent<OrderKey, Option<BeadSchedule>>>,
    end_to_end: Mutex<Recent<OrderKey, Option<f64>>>,
    numbers: Mutex<Recent<Vec<f64>, Option<f64>>>,
}

#[derive(Debug, Clone, Copy, PartialEq)]
struct CoolingKey {
    body: ThermalBody,
    start: Celsius,
    wrapping: Wrapping,
    loss_factor: f64,
}

#[derive(Debug, Clone, PartialEq)]
struct FitKey {
    body: ThermalBody,
    start: Celsius,
    wrapping: Wrapping,
    readings: Vec<ReadAt>,
}

#[derive(Debug, Clone, PartialEq)]
struct HeatingFitKey {
    body: ThermalBody,
    power: BarPower,
    readings: Vec<ReadAt>,
}

#[derive(Debug, Clone, Copy, PartialEq)]
struct HeatingKey {
    body: ThermalBody,
    power: BarPower,
    target: Celsius,
    most: Seconds,
}

#[derive(Debug, Clone, PartialEq)]
struct OrderKey {
    work: BeadWork,
    bulk_c: f64,
}

/// Least-recently-used list of answers, the one asked for last first.
#[derive(Debug)]
struct Recent<Q, A> {
    answers: VecDeque<(Q, Arc<A>)>,
    points: usize,
}

impl<Q, A> Default for Recent<Q, A> {
    fn default() -> Self {
        Self { answers: VecDeque::new(), points: 0 }
    }
}

/// House: points of all runs of a kind that are kept together: some 16 MB.
const MOST_POINTS: usize = 2_000_000;
/// Ours: what holds little beside what was asked counts as so much, so that there are never more than some thousands.
const HOLDS_LITTLE: usize = 1_000;

impl<Q: PartialEq, A> Recent<Q, A> {
    fn find(&mut self, asked: &Q) -> Option<Arc<A>> {
        let at = self.answers.iter().position(|(known, _)| known == asked)?;
        let found = self.answers.remove(at)?;
        let answer = found.1.clone();
        self.answers.push_front(found);
        Some(answer)
    }

    fn keep(&mut self, asked: Q, answer: Arc<A>, points_of: impl Fn(&A) -> usize) {
        self.points += points_of(&answer);
        self.answers.push_front((asked, answer));
        while self.points > MOST_POINTS
            && let Some((_, gone)) = self.answers.pop_back()
        {
            self.points -= points_of(&gone);
        }
    }
}

/// Looks an answer up, or computes it; meanwhile others may ask.
fn answered<Q: PartialEq, A>(
    kept: &Mutex<Recent<Q, A>>,
    asked: Q,
    points_of: impl Fn(&A) -> usize,
    work_out: impl FnOnce(&Q) -> A,
) -> Arc<A> {
    let found = kept.lock().unwrap_or_else(PoisonError::into_inner).find(&asked);
    found.unwrap_or_else(|| {
        let answer = Arc::new(work_out(&asked));
        kept.lock().unwrap_or_else(PoisonError::into_inner).keep(asked, answer.clone(), points_of);
        answer
    })
}

impl SimCache {
    /// As [`cool`](super::cool).
    #[must_use]
    pub fn cool(&self, body: &ThermalBody, start: Celsius, wrapping: &Wrapping) -> Arc<Cooling> {
        self.cool_scaled(body, start, wrapping, 1.0)
    }

    /// A number that costs much, by all the numbers that decide it.
    pub fn number(&self, decided_by: Vec<f64>, work_out: impl FnOnce() -> Option<f64>) -> Option<f64> {
        *answered(&self.numbers, decided_by, |_| HOLDS_LITTLE, |_| work_out())
    }

    /// As [`cool_scaled`].
    #[must_use]
    pub fn cool_scaled(
        &self,
        body: &ThermalBody,
        start: Celsius,
        wrapping: &Wrapping,
        loss_factor: f64,
    ) -> Arc<Cooling> {
        let asked = CoolingKey { body: *body, start, wrapping: *wrapping, loss_factor };
        answered(&self.coolings, asked, Cooling::points, |asked| {
            cool_scaled(&asked.body, asked.start, &asked.wrapping, asked.loss_factor)
        })
    }

    /// As [`cooling_fit`], of readings that were thinned; nothing while they say too little.
    #[must_use]
    pub fn fit(
        &self,
        body: &ThermalBody,
        start: Celsius,
        wrapping: &Wrapping,
        readings: &[ReadAt],
    ) -> Arc<Option<CoolingFit>> {
        let readings = thinned(readings);
        if !says_enough(start.celsius(), &readings) {
            return Arc::default();
        }
        let asked = FitKey { body: *body, start, wrapping: *wrapping, readings };
        let points = |fit: &Option<CoolingFit>| fit.as_ref().map_or(1, |fit| fit.cooling.points());
        answered(&self.fits, asked, points, |asked| {
            cooling_fit(&asked.body, asked.start, &asked.wrapping, &asked.readings)
        })
    }

    /// As [`heating_fit`].
    #[must_use]
    pub fn heating_fit(&self, body: &ThermalBody, power: BarPower, readings: &[ReadAt]) -> Option<f64> {
        let asked = HeatingFitKey { body: *body, power, readings: readings.to_vec() };
        let fit = answered(
            &self.heating_fits,
            asked,
            |_| HOLDS_LITTLE,
            |asked| heating_fit(&asked.body, asked.power, &asked.readings),
        );
        *fit
    }

    /// As [`BeadCourse::new`], with what beads as long in a wall as thick leave behind them.
    #[must_use]
    pub fn bead_course(&self, work: BeadWork) -> BeadCourse {
        BeadCourse::with(work, |of| answered(&self.rises, of, RiseRows::points, |of| RiseRows::new(*of)))
    }

    /// As [`BeadCourse::order`] of a work at which nothing is laid yet; what laying it from end to end would wait is not
    /// in it.
    #[must_use]
    pub fn bead_order(&self, course: &BeadCourse, bulk_c: f64) -> Arc<Option<BeadSchedule>> {
        /// Ours: what a bead takes to keep, in numbers.
        const A_BEAD: usize = 14;
        let asked = OrderKey { work: course.work().clone(), bulk_c };
        let beads = |order: &Option<BeadSchedule>| order.as_ref().map_or(0, |it| it.beads.len());
        let points = |order: &Option<BeadSchedule>| HOLDS_LITTLE + beads(order) * A_BEAD;
        answered(&self.orders, asked, points, |asked| course.taken(asked.bulk_c, &[]))
    }

    /// Laid from end to end it would wait so long, in s; nothing where it never comes to its end.
    #[must_use]
    pub fn end_to_end_waiting_s(&self, course: &BeadCourse, bulk_c: f64) -> Option<f64> {
        let asked = OrderKey { work: course.work().clone(), bulk_c };
        let waits_s = |asked: &OrderKey| course.end_to_end_waiting_s(asked.bulk_c, &[]);
        *answered(&self.end_to_end, asked, |_| HOLDS_LITTLE, waits_s)
    }

    /// As [`heat_until`].
    #[must_use]
    pub fn heat_until(
        &self,
        body: &ThermalBody,
        power: BarPower,
        target: Celsius,
        most: Seconds,
    ) -> Arc<Heating> {
        let asked = HeatingKey { body: *body, power, target, most };
        answered(&self.heatings, asked, Heating::points, |asked| {
            heat_until(&asked.body, asked.power, asked.target, asked.most)
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::iron::Iron;
    use crate::quantity::{Kilograms, Millimetres, Watts};

    fn kept(of: &[(u32, usize)]) -> Recent<u32, usize> {
        let mut kept = Recent::default();
        for &(asked, points) in of {
            kept.keep(asked, Arc::new(points), |points| *points);
        }
        kept
    }

    #[test]
    fn what_was_asked_before_is_answered_from_what_is_kept() {
        let mut kept = kept(&[(1, 10), (2, 20)]);
        assert_eq!((kept.find(&1).as_deref(), kept.find(&3).as_deref()), (Some(&10), None));
    }

    #[test]
    fn the_one_not_asked_for_longest_goes_first() {
        let half = MOST_POINTS / 2;
        let mut kept = kept(&[(1, half), (2, half)]);
        assert!(kept.find(&1).is_some(), "both fit just");
        kept.keep(3, Arc::new(1), |points| *points);
        assert!(kept.find(&2).is_none() && kept.find(&1).is_some() && kept.find(&3).is_some());
        assert_eq!(kept.points, half + 1);
    }

    #[test]
    fn one_that_is_larger_than_all_the_room_is_answered_and_not_kept() {
        let mut kept = kept(&[(1, MOST_POINTS + 1)]);
        assert!(kept.find(&1).is_none());
        assert_eq!(kept.points, 0);
    }

    #[test]
    fn a_number_is_worked_out_once_for_what_decides_it() {
        let sims = SimCache::default();
        let worked_out = std::cell::Cell::new(0);
        let number = |decided_by: &[f64], is: Option<f64>| {
            sims.number(decided_by.to_vec(), || {
                worked_out.set(worked_out.get() + 1);
                is
            })
        };
        assert_eq!((number(&[1.0, 2.0], Some(7.5)), number(&[1.0, 2.0], Some(8.5))), (Some(7.5), Some(7.5)));
        assert_eq!((number(&[2.0, 1.0], None), number(&[2.0, 1.0], Some(8.5))), (None, None));
        assert_eq!(worked_out.get(), 2);
    }

    #[test]
    fn a_fit_of_a_heating_that_is_kept_is_the_fit() {
        let mm = |value| Millimetres::new(value).unwrap();
        let (kg, ambient) = (Kilograms::new(9.0).unwrap(), Celsius::new(20.0).unwrap());
        let size = (mm(300.0), mm(120.0), mm(60.0));
        let body = ThermalBody::new(Iron::Gray.properties(), kg, size, 1.0, ambient).unwrap();
        let watts = |watts| Watts::new(watts).unwrap();
        let power = BarPower::Flame { even: watts(1_600.0), local: watts(400.0), station: 0.5, covered: 0.0 };
        let read = [ReadAt { minutes: 5.0, celsius: 90.0 }, ReadAt { minutes: 10.0, celsius: 150.0 }];
        let sims = SimCache::default();
        let fit = heating_fit(&body, power, &read);
        assert!(fit.is_some_and(|factor| factor > 0.3 && factor < 2.0), "{fit:?}");
        assert_eq!(
            (sims.heating_fit(&body, power, &read), sims.heating_fit(&body, power, &read)),
            (fit, fit)
        );
    }
}
