//! A day of the calendar, as people say it: `Friday`, `27 Nov`, `in 3 weeks`.

use std::fmt;

/// A day in ms, by definition.
pub const DAY_MS: i64 = 86_400_000;

/// A day of the calendar.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Day {
    year: i32,
    /// 1 to 12.
    month: u32,
    /// From 1.
    day: u32,
}

/// Said, and no day.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum NoDay {
    #[error("\"{0}\" is not a day of the calendar")]
    Unknown(String),
    #[error("\"{typed}\" may be {first} or {second}")]
    Either { typed: String, first: String, second: String },
    #[error("\"{0}\" depends on the day it is said, and that is not known here")]
    NoToday(String),
}

impl NoDay {
    #[must_use]
    pub fn would_be_right(&self) -> String {
        match self {
            Self::Either { first, second, .. } => format!("{first} or {second}"),
            Self::Unknown(_) | Self::NoToday(_) => "27 Nov, Friday, in 3 weeks or 2027-03-15".to_owned(),
        }
    }
}

const MONTHS: [&str; 12] = [
    "january",
    "february",
    "march",
    "april",
    "may",
    "june",
    "july",
    "august",
    "september",
    "october",
    "november",
    "december",
];
const WEEKDAYS: [&str; 7] = ["monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday"];
/// Years a day may lie in.
const YEARS: std::ops::RangeInclusive<i32> = 1900..=2200;
/// House: of a name so many letters are enough.
const ENOUGH: usize = 3;

impl Day {
    /// Nothing where the calendar has no such day, or it is not in the years 1900 to 2200.
    #[must_use]
    pub fn new(year: i32, month: u32, day: u32) -> Option<Self> {
        let known = YEARS.contains(&year) && (1..=12).contains(&month);
        (known && (1..=days_in(year, month)).contains(&day)).then_some(Self { year, month, day })
    }

    /// Days since 1 January 1970.
    #[must_use]
    pub fn number(self) -> i64 {
        // Years begin in March, so that a leap day is the last of its year.
        let (year, month) = match self.month {
            1 | 2 => (i64::from(self.year) - 1, i64::from(self.month) + 9),
            month => (i64::from(self.year), i64::from(month) - 3),
        };
        let in_year = (153 * month + 2) / 5 + i64::from(self.day) - 1;
        365 * year + year.div_euclid(4) - year.div_euclid(100) + year.div_euclid(400) + in_year - 719_468
    }

    /// The day of this number; nothing outside the years a day may lie in.
    #[must_use]
    pub fn of_number(number: i64) -> Option<Self> {
        // A first guess, then the year it is in.
        let mut year = i32::try_from(1969 + number.div_euclid(366)).ok()?.max(*YEARS.start());
        while Self::new(year + 1, 1, 1).is_some_and(|next| next.number() <= number) {
            year += 1;
        }
        let mut left = u32::try_from(number - Self::new(year, 1, 1)?.number()).ok()?;
        for month in 1..=12 {
            let days = days_in(year, month);
            if left < days {
                return Self::new(year, month, left + 1);
            }
            left -= days;
        }
        None
    }

    fn later(self, days: i64) -> Option<Self> {
        Self::of_number(self.number() + days)
    }

    /// So many months on; a month that is too short ends with its last day.
    fn months_later(self, months: u32) -> Option<Self> {
        let month = self.month - 1 + months;
        let (year, month) = (self.year + i32::try_from(month / 12).ok()?, month % 12 + 1);
        Self::new(year, month, self.day.min(days_in(year, month)))
    }

    /// From 0, Monday.
    fn weekday(self) -> usize {
        // 1 January 1970 was a Thursday.
        usize::try_from((self.number() + 3).rem_euclid(7)).unwrap_or_default()
    }

    /// "Fri 27 Nov 2026"
    #[must_use]
    pub fn said(self) -> String {
        format!("{} {}", &capital(WEEKDAYS[self.weekday()])[..ENOUGH], self.date())
    }

    /// A stored day, said; as it stands where it is none.
    #[must_use]
    pub fn say(stored: &str) -> String {
        Self::parse(stored, None).map_or_else(|_| stored.to_owned(), Self::said)
    }

    /// "27 Nov 2026"
    #[must_use]
    pub fn date(self) -> String {
        format!("{} {} {}", self.day, month_word(self.month), self.year)
    }

    /// Reads a day as people say it, on the day it is said. A day without a year is the next of its name.
    ///
    /// # Errors
    /// [`NoDay`] when it is none, or one of two.
    pub fn parse(typed: &str, today: Option<Self>) -> Result<Self, NoDay> {
        let unknown = || NoDay::Unknown(typed.to_owned());
        let said = typed.trim().to_lowercase().replace(',', " ");
        let words: Vec<&str> = said
            .split_whitespace()
            .filter(|word| !matches!(*word, "on" | "the" | "of" | "by" | "this"))
            .collect();
        if let Some(day) = absolute(&words, typed, today)? {
            return Ok(day);
        }
        let Some(found) = relative(&words) else { return Err(unknown()) };
        let today = today.ok_or_else(|| NoDay::NoToday(typed.to_owned()))?;
        found(today).ok_or_else(unknown)
    }
}

/// Written as it is stored: `2026-11-27`.
impl fmt::Display for Day {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:04}-{:02}-{:02}", self.year, self.month, self.day)
    }
}

fn days_in(year: i32, month: u32) -> u32 {
    let leap = year.rem_euclid(4) == 0 && (year.rem_euclid(100) != 0 || year.rem_euclid(400) == 0);
    match month {
        4 | 6 | 9 | 11 => 30,
        2 => 28 + u32::from(leap),
        _ => 31,
    }
}

fn capital(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

fn month_word(month: u32) -> String {
    let at = usize::try_from(month - 1).unwrap_or_default();
    capital(MONTHS[at])[..ENOUGH].to_owned()
}

/// The place of a name in a list, from 0: three letters are enough.
fn named(word: &str, names: &[&str]) -> Option<usize> {
    let word = word.trim_end_matches('.');
    (word.len() >= ENOUGH).then(|| names.iter().position(|name| name.starts_with(word))).flatten()
}

fn month_of(word: &str) -> Option<u32> {
    let word = if word == "sept" || word == "sept." { "sep" } else { word };
    named(word, &MONTHS).and_then(|at| u32::try_from(at + 1).ok())
}

/// `27`, `27.`, `27th`
fn day_number(word: &str) -> Option<u32> {
    let plain = ["st", "nd", "rd", "th", "."].iter().find_map(|end| word.strip_suffix(end)).unwrap_or(word);
    plain.parse().ok().filter(|day| (1..=31).contains(day))
}

fn year_number(word: &str) -> Option<i32> {
    match word.len() {
        2 => word.parse::<i32>().ok().map(|year| 2000 + year),
        4 => word.parse().ok(),
        _ => None,
    }
}

/// A day that says its month.
fn absolute(words: &[&str], typed: &str, today: Option<Day>) -> Result<Option<Day>, NoDay> {
    let unknown = || NoDay::Unknown(typed.to_owned());
    // A weekday before a date adds nothing to it.
    let words = match words {
        [first, rest @ ..] if !rest.is_empty() && named(first, &WEEKDAYS).is_some() => rest,
        words => words,
    };
    let (day, month, year) = match words {
        [one] => match in_numbers(one, typed)? {
            Some(found) => found,
            None => return Ok(None),
        },
        [day, month] | [day, month, _] if day_number(day).is_some() && month_of(month).is_some() => {
            (day_number(day), month_of(month), words.get(2).copied())
        }
        [month, day] | [month, day, _] if month_of(month).is_some() && day_number(day).is_some() => {
            (day_number(day), month_of(month), words.get(2).copied())
        }
        _ => return Ok(None),
    };
    let (Some(day), Some(month)) = (day, month) else { return Err(unknown()) };
    let found = match year {
        Some(year) => year_number(year).and_then(|year| Day::new(year, month, day)),
        None => {
            let today = today.ok_or_else(|| NoDay::NoToday(typed.to_owned()))?;
            // A leap day may be some years away.
            (today.year..=today.year + 8)
                .filter_map(|year| Day::new(year, month, day))
                .find(|found| *found >= today)
        }
    };
    found.map(Some).ok_or_else(unknown)
}

type Parts<'a> = (Option<u32>, Option<u32>, Option<&'a str>);

/// `2026-11-27`, `27.11.2026`, `27.11.`, `27/11`: with a stroke either may be the month.
fn in_numbers<'a>(word: &'a str, typed: &str) -> Result<Option<Parts<'a>>, NoDay> {
    if !word.starts_with(|c: char| c.is_ascii_digit()) {
        return Ok(None);
    }
    let unknown = || NoDay::Unknown(typed.to_owned());
    let number = |text: &str| text.parse::<u32>().map_err(|_| unknown()).map(Some);
    if let [year, month, day] = word.split('-').collect::<Vec<_>>()[..] {
        return Ok(Some((number(day)?, number(month)?, Some(year))));
    }
    let dotted: Vec<&str> = word.trim_end_matches('.').split('.').collect();
    if let [day, month] | [day, month, _] = dotted[..] {
        return Ok(Some((number(day)?, number(month)?, dotted.get(2).copied())));
    }
    let parts: Vec<&str> = word.split('/').collect();
    let ([first, second] | [first, second, _]) = parts[..] else { return Ok(None) };
    let (first, second, year) = (number(first)?, number(second)?, parts.get(2).copied());
    match (first, second) {
        (Some(a @ 1..=12), Some(b @ 1..=12)) if a != b => Err(NoDay::Either {
            typed: typed.to_owned(),
            first: format!("{a} {}", month_word(b)),
            second: format!("{b} {}", month_word(a)),
        }),
        (Some(1..=12), Some(13..)) => Ok(Some((second, first, year))),
        _ => Ok(Some((first, second, year))),
    }
}

/// A day that is counted from the one it is said on.
fn relative(words: &[&str]) -> Option<Box<dyn Fn(Day) -> Option<Day>>> {
    match words {
        ["today"] => Some(Box::new(Some)),
        ["tomorrow"] => Some(Box::new(|today| today.later(1))),
        ["yesterday"] => Some(Box::new(|today| today.later(-1))),
        ["next", "week"] => Some(Box::new(|today| today.later(7))),
        ["next", "month"] => Some(Box::new(|today| today.months_later(1))),
        ["next", "year"] => Some(Box::new(|today| today.months_later(12))),
        ["end", "month"] => {
            Some(Box::new(|today| Day::new(today.year, today.month, days_in(today.year, today.month))))
        }
        ["end", month] => {
            let month = month_of(month)?;
            Some(Box::new(move |today| {
                let year = today.year + i32::from(month < today.month);
                Day::new(year, month, days_in(year, month))
            }))
        }
        ["next", weekday] => {
            let wanted = named(weekday, &WEEKDAYS)?;
            // That of the week after this one.
            Some(Box::new(move |today| today.later(7 - count(today.weekday()) + count(wanted))))
        }
        [weekday] if named(weekday, &WEEKDAYS).is_some() => {
            let wanted = named(weekday, &WEEKDAYS)?;
            Some(Box::new(move |today| {
                let days = (count(wanted) - count(today.weekday())).rem_euclid(7);
                // Said on that day it is the next one: else it would be *today*.
                today.later(if days == 0 { 7 } else { days })
            }))
        }
        ["in", rest @ ..] | rest => {
            let rest = rest.strip_suffix(&["time"]).unwrap_or(rest);
            after(rest)
        }
    }
}

fn count(at: usize) -> i64 {
    i64::try_from(at).unwrap_or_default()
}

/// `3 weeks`, `a month`, `half a year`, `a fortnight`.
fn after(words: &[&str]) -> Option<Box<dyn Fn(Day) -> Option<Day>>> {
    let (many, unit) = match words {
        ["half", "a" | "an", unit] => (0.5, *unit),
        ["a" | "an" | "one", unit] => (1.0, *unit),
        [many, unit] => {
            let in_words = ["two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];
            let said = in_words.iter().position(|word| word == many).map(|at| count(at + 2) as f64);
            (said.or_else(|| many.parse().ok())?, *unit)
        }
        _ => return None,
    };
    if !(0.0..=1e4).contains(&many) {
        return None;
    }
    let days = |each: f64| -> Option<Box<dyn Fn(Day) -> Option<Day>>> {
        let days = (many * each).round() as i64;
        Some(Box::new(move |today| today.later(days)))
    };
    match unit.trim_end_matches("'") {
        "day" | "days" => days(1.0),
        "week" | "weeks" => days(7.0),
        "fortnight" | "fortnights" => days(14.0),
        "month" | "months" | "year" | "years" => {
            let months = many * if unit.starts_with('y') { 12.0 } else { 1.0 };
            if months.fract() != 0.0 {
                return days(if unit.starts_with('y') { 365.0 } else { 30.0 });
            }
            let months = months as u32;
            Some(Box::new(move |today| today.months_later(months)))
        }
        _ => None,
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    /// A Thursday.
    const TODAY: Day = Day { year: 2026, month: 11, day: 26 };

    #[rstest]
    #[case::stored("2027-03-15", "2027-03-15")]
    #[case::not_filled_up("2027-3-5", "2027-03-05")]
    #[case::tomorrow("tomorrow", "2026-11-27")]
    #[case::the_next_friday("Friday", "2026-11-27")]
    #[case::short("fri", "2026-11-27")]
    #[case::on_a_friday("on Friday", "2026-11-27")]
    #[case::said_on_its_day("Thursday", "2026-12-03")]
    #[case::earlier_in_the_week("Monday", "2026-11-30")]
    #[case::of_the_week_after("next Friday", "2026-12-04")]
    #[case::of_the_week_after_earlier("next Monday", "2026-11-30")]
    #[case::day_and_month("27 Nov", "2026-11-27")]
    #[case::month_and_day("Nov 27", "2026-11-27")]
    #[case::ordinal("27th of November", "2026-11-27")]
    #[case::with_weekday("Fri 27 Nov", "2026-11-27")]
    #[case::gone_this_year("3 Feb", "2027-02-03")]
    #[case::today_itself("26 nov", "2026-11-26")]
    #[case::with_year("27 Nov 2027", "2027-11-27")]
    #[case::with_short_year("27 Nov 27", "2027-11-27")]
    #[case::with_comma("November 27, 2027", "2027-11-27")]
    #[case::dotted("27.11.2026", "2026-11-27")]
    #[case::dotted_without_year("3.2.", "2027-02-03")]
    #[case::stroke_one_way("27/11", "2026-11-27")]
    #[case::stroke_the_other("11/27", "2026-11-27")]
    #[case::both_the_same("12/12", "2026-12-12")]
    #[case::in_weeks("in 3 weeks", "2026-12-17")]
    #[case::weeks("3 weeks", "2026-12-17")]
    #[case::in_words("in two weeks' time", "2026-12-10")]
    #[case::a_fortnight("a fortnight", "2026-12-10")]
    #[case::a_month("in a month", "2026-12-26")]
    #[case::half_a_year("in half a year", "2027-05-26")]
    #[case::a_year("in a year", "2027-11-26")]
    #[case::end_of_the_month("end of the month", "2026-11-30")]
    #[case::end_of_a_month("end of Feb", "2027-02-28")]
    #[case::next_week("next week", "2026-12-03")]
    #[case::a_leap_day("29 Feb", "2028-02-29")]
    fn a_day_is_understood_as_it_is_said(#[case] typed: &str, #[case] day: &str) {
        assert_eq!(Day::parse(typed, Some(TODAY)).map(|day| day.to_string()), Ok(day.to_owned()));
    }

    #[rstest]
    #[case::no_word("soon")]
    #[case::no_such_day("2027-02-29")]
    #[case::no_such_month("2027-13-01")]
    #[case::thirty_first("31 Nov 2026")]
    #[case::too_far("in 9999 years")]
    #[case::nothing("")]
    #[case::half_a_word("in")]
    #[case::a_number("27")]
    fn what_is_no_day_is_refused(#[case] typed: &str) {
        assert_eq!(Day::parse(typed, Some(TODAY)), Err(NoDay::Unknown(typed.to_owned())));
    }

    #[test]
    fn one_of_two_is_asked_back() {
        let either = Day::parse("3/4", Some(TODAY)).unwrap_err();
        assert_eq!(either.to_string(), "\"3/4\" may be 3 Apr or 4 Mar");
        assert_eq!(either.would_be_right(), "3 Apr or 4 Mar");
    }

    #[test]
    fn without_today_a_day_has_to_say_all() {
        assert!(matches!(Day::parse("Friday", None), Err(NoDay::NoToday(_))));
        assert!(matches!(Day::parse("27 Nov", None), Err(NoDay::NoToday(_))));
        assert_eq!(Day::parse("27 Nov 2026", None).map(Day::said), Ok("Fri 27 Nov 2026".to_owned()));
    }

    #[rstest]
    #[case::a_month_that_is_shorter("2027-01-31", 1, "2027-02-28")]
    #[case::over_a_year("2026-11-30", 3, "2027-02-28")]
    fn a_month_later_is_at_most_its_last_day(#[case] from: &str, #[case] months: u32, #[case] to: &str) {
        let from = Day::parse(from, None).unwrap();
        assert_eq!(from.months_later(months).unwrap().to_string(), to);
    }

    #[test]
    fn days_are_counted_from_1970_and_back() {
        // Hand-worked: 30 years of 365 days and 7 leap days; the day before the first.
        assert_eq!(Day::new(2000, 1, 1).unwrap().number(), 30 * 365 + 7);
        assert_eq!(Day::new(1969, 12, 31).unwrap().number(), -1);
        for number in (-25_567..84_370).step_by(17) {
            assert_eq!(Day::of_number(number).unwrap().number(), number);
        }
    }
}
