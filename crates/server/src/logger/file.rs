//! A file that a logger wrote, brought in afterwards: its columns recognised, its times laid on the job clock.

use jiff::civil::{Date, DateTime, Time};
use jiff::tz::TimeZone;
use serde::Serialize;
use utoipa::ToSchema;
use vanadin_core::base::problem::FieldProblem;

/// A column of temperatures.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FileColumn {
    /// Its place in a row, from 0.
    pub at: usize,
    /// As its head calls it, else "column 2".
    pub name: String,
    /// `celsius` or `fahrenheit`, where the head says so.
    pub unit: Option<String>,
    pub least: f64,
    pub most: f64,
    /// How many rows hold a figure in it.
    pub rows: usize,
}

/// A logger's file as it was understood.
#[derive(Debug, Clone, PartialEq)]
pub struct LoggerFile {
    pub columns: Vec<FileColumn>,
    /// Of each row: minutes since the first, and its cells.
    rows: Vec<(f64, Vec<String>)>,
    /// The first row by the clock on the wall; nothing where it only counts.
    pub first: Option<DateTime>,
}

/// House: warmer or colder than this no column of temperatures is.
const CELSIUS: (f64, f64) = (-60.0, 1_400.0);
const ROWS_MOST: usize = 260_000;
const COLUMNS_MOST: usize = 100;
const MINUTES_A_DAY: f64 = 24.0 * 60.0;

/// When a row was read, as far as it says.
#[derive(Debug, Clone, Copy, PartialEq)]
enum When {
    At(DateTime),
    OfDay(Time),
    /// Minutes since some beginning.
    Counted(f64),
}

fn wrong(message: &str, right: &str) -> FieldProblem {
    FieldProblem::new("text", message, right)
}

/// What the cells are parted by: the sign that stands equally often in most lines.
fn parted_by(text: &str) -> u8 {
    let lines: Vec<&str> = text.lines().filter(|line| !line.trim().is_empty()).skip(1).take(40).collect();
    let score = |sign: char| {
        let counts: Vec<usize> = lines.iter().map(|line| line.matches(sign).count()).collect();
        let usual = counts.iter().copied().max_by_key(|of| counts.iter().filter(|it| *it == of).count());
        match usual {
            Some(usual) if usual > 0 => counts.iter().filter(|it| **it == usual).count(),
            _ => 0,
        }
    };
    // Where both stand in every line, a comma is the decimal sign.
    [(';', b';'), ('\t', b'\t'), (',', b',')]
        .into_iter()
        .max_by_key(|(sign, byte)| (score(*sign), *byte != b','))
        .map_or(b',', |(_, byte)| byte)
}

/// A figure, with a point or a comma for its decimals.
fn figure(cell: &str) -> Option<f64> {
    let cell = cell.trim().replace(',', ".");
    cell.parse::<f64>().ok().filter(|figure| figure.is_finite())
}

/// A date and a time as loggers write them.
fn moment(cell: &str) -> Option<DateTime> {
    const FORMS: &[&str] = &[
        "%Y-%m-%d %H:%M:%S",
        "%Y-%m-%dT%H:%M:%S",
        "%Y-%m-%d %H:%M",
        "%Y-%m-%dT%H:%M",
        "%d.%m.%Y %H:%M:%S",
        "%d.%m.%Y %H:%M",
        "%Y/%m/%d %H:%M:%S",
        "%Y/%m/%d %H:%M",
    ];
    let cell = cell.trim().trim_end_matches('Z');
    // Parts of a second say nothing here.
    let cell = cell
        .rsplit_once('.')
        .filter(|(_, after)| after.len() <= 3 && cell.contains(':'))
        .map_or(cell, |it| it.0);
    FORMS.iter().find_map(|form| DateTime::strptime(form, cell).ok())
}

fn date(cell: &str) -> Option<Date> {
    const FORMS: &[&str] = &["%Y-%m-%d", "%d.%m.%Y", "%Y/%m/%d"];
    FORMS.iter().find_map(|form| Date::strptime(form, cell.trim()).ok())
}

fn time(cell: &str) -> Option<Time> {
    const FORMS: &[&str] = &["%H:%M:%S", "%H:%M"];
    let cell = cell.trim();
    let cell = cell.split_once('.').map_or(cell, |it| it.0);
    FORMS.iter().find_map(|form| Time::strptime(form, cell).ok())
}

/// Minutes in one of what a column counts; nothing where its head says no unit of time.
fn counts_in(head: &str) -> Option<f64> {
    let head = head.to_lowercase();
    let words: Vec<&str> =
        head.split(|sign: char| !sign.is_alphanumeric()).filter(|word| !word.is_empty()).collect();
    let any = |of: &[&str]| words.iter().any(|word| of.contains(word));
    if any(&["ms", "milliseconds"]) {
        Some(1.0 / 60_000.0)
    } else if any(&["s", "sec", "secs", "second", "seconds"]) {
        Some(1.0 / 60.0)
    } else if any(&["h", "hr", "hrs", "hour", "hours"]) {
        Some(60.0)
    } else if any(&["min", "mins", "minute", "minutes", "time", "elapsed"]) {
        Some(1.0)
    } else {
        None
    }
}

fn unit_of(head: &str) -> Option<String> {
    let head = head.to_lowercase();
    let word = |wanted: &str| head.split(|sign: char| !sign.is_alphanumeric()).any(|word| word == wanted);
    let is = |sign: &str, letter: &str, name: &str| {
        head.contains(sign) || word(letter) || word(&format!("deg{letter}")) || head.contains(name)
    };
    match (is("°c", "c", "celsius"), is("°f", "f", "fahrenheit")) {
        (true, false) => Some("celsius".to_owned()),
        (false, true) => Some("fahrenheit".to_owned()),
        _ => None,
    }
}

impl LoggerFile {
    /// # Errors
    /// No row with a time and a temperature in it, or more rows than are kept of a heat.
    pub fn read(text: &str) -> Result<Self, FieldProblem> {
        let mut reader = csv::ReaderBuilder::new()
            .delimiter(parted_by(text))
            .has_headers(false)
            .flexible(true)
            .trim(csv::Trim::All)
            .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
        let mut rows: Vec<Vec<String>> = Vec::new();
        for record in reader.records() {
            let record = record.map_err(|error| wrong(&error.to_string(), "a table of CSV"))?;
            if record.len() > COLUMNS_MOST {
                return Err(wrong("no logger has so many columns", "100 columns at most"));
            }
            rows.push(record.iter().map(str::to_owned).collect());
            if rows.len() > ROWS_MOST {
                return Err(wrong("that is more than is kept of a heat", "260,000 rows at most"));
            }
        }
        // The head is what stands last before the first row of figures.
        let is_data = |row: &Vec<String>| {
            row.len() > 1
                && (moment(&row[0]).is_some()
                    || time(&row[0]).is_some()
                    || date(&row[0]).is_some()
                    || figure(&row[0]).is_some())
                && row[1..].iter().any(|cell| figure(cell).is_some())
        };
        let first = rows.iter().position(is_data);
        let first =
            first.ok_or_else(|| wrong("no row has a time and a figure", "a time, then temperatures"))?;
        let head = first.checked_sub(1).map(|at| rows[at].clone()).unwrap_or_default();
        let data: Vec<Vec<String>> = rows.split_off(first).into_iter().filter(is_data).collect();
        let head_of = |at: usize| head.get(at).map_or("", String::as_str);
        let two = data.iter().all(|row| date(&row[0]).is_some() && time(&row[1]).is_some());
        let times = if two { 2 } else { 1 };
        let per = counts_in(head_of(0)).unwrap_or(1.0);
        let when: Option<Vec<When>> = data
            .iter()
            .map(|row| {
                if two {
                    return Some(When::At(date(&row[0])?.to_datetime(time(&row[1])?)));
                }
                let counted = figure(&row[0]).map(|figure| When::Counted(figure * per));
                moment(&row[0]).map(When::At).or_else(|| time(&row[0]).map(When::OfDay)).or(counted)
            })
            .collect();
        let when =
            when.ok_or_else(|| wrong("not every row begins with a time", "one kind of time throughout"))?;
        let (minutes, wall) = minutes_of(&when)
            .ok_or_else(|| wrong("its times are of several kinds", "one kind of time throughout"))?;
        let wide = data.iter().map(Vec::len).max().unwrap_or(0);
        let columns = (times..wide).filter_map(|at| column(at, head_of(at), &data)).collect::<Vec<_>>();
        if columns.is_empty() {
            return Err(wrong("no column holds temperatures", "a time, then temperatures"));
        }
        Ok(Self { columns, rows: minutes.into_iter().zip(data).collect(), first: wall })
    }

    pub fn len(&self) -> usize {
        self.rows.len()
    }

    /// Minutes from the first row to the last.
    pub fn lasts_min(&self) -> f64 {
        self.rows.last().map_or(0.0, |(minutes, _)| *minutes)
    }

    /// Of one column: minutes since the first row, and °C.
    pub fn readings(&self, column: usize, fahrenheit: bool) -> Vec<(f64, f64)> {
        let celsius = |figure: f64| if fahrenheit { (figure - 32.0) / 1.8 } else { figure };
        let of = |(minutes, row): &(f64, Vec<String>)| Some((*minutes, celsius(figure(row.get(column)?)?)));
        let possible = |(_, celsius): &(f64, f64)| (CELSIUS.0..=CELSIUS.1).contains(celsius);
        self.rows.iter().filter_map(of).filter(possible).collect()
    }
}

/// Minutes since the first row; and that row by the clock on the wall, where it says a day.
fn minutes_of(when: &[When]) -> Option<(Vec<f64>, Option<DateTime>)> {
    let minutes_between = |from: DateTime, to: DateTime| {
        let utc = |at: DateTime| at.to_zoned(TimeZone::UTC).map(|at| at.timestamp().as_millisecond()).ok();
        Some((utc(to)? - utc(from)?) as f64 / 60_000.0)
    };
    match when.first()? {
        When::At(first) => {
            let minutes = when.iter().map(|it| match it {
                When::At(at) => minutes_between(*first, *at),
                When::OfDay(_) | When::Counted(_) => None,
            });
            Some((minutes.collect::<Option<Vec<_>>>()?, Some(*first)))
        }
        When::Counted(first) => {
            let minutes = when.iter().map(|it| match it {
                When::Counted(at) => Some(at - first),
                When::At(_) | When::OfDay(_) => None,
            });
            Some((minutes.collect::<Option<Vec<_>>>()?, None))
        }
        When::OfDay(_) => {
            // Past midnight it goes on.
            let (mut days, mut before) = (0.0, None);
            let mut minutes = Vec::new();
            for it in when {
                let When::OfDay(time) = it else { return None };
                let of_day = f64::from(time.hour()) * 60.0
                    + f64::from(time.minute())
                    + f64::from(time.second()) / 60.0;
                if before.is_some_and(|before| of_day < before) {
                    days += MINUTES_A_DAY;
                }
                before = Some(of_day);
                minutes.push(days + of_day);
            }
            let first = *minutes.first()?;
            Some((minutes.into_iter().map(|at| at - first).collect(), None))
        }
    }
}

fn column(at: usize, head: &str, data: &[Vec<String>]) -> Option<FileColumn> {
    let figures: Vec<f64> = data.iter().filter_map(|row| figure(row.get(at)?)).collect();
    let (least, most) =
        (figures.iter().copied().reduce(f64::min)?, figures.iter().copied().reduce(f64::max)?);
    let name = if head.trim().is_empty() { format!("column {}", at + 1) } else { head.trim().to_owned() };
    Some(FileColumn { at, name, unit: unit_of(head), least, most, rows: figures.len() })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::minutes_and_a_head("min,part °C\n0,20\n1.5,80.5\n3,140\n", &[(0.0, 20.0), (1.5, 80.5), (3.0, 140.0)])]
    #[case::seconds("Time (s),T1 [C]\n10,20\n70,30\n", &[(0.0, 20.0), (1.0, 30.0)])]
    #[case::decimal_commas("Zeit;Kanal 1\n0,0;20,5\n0,5;21,0\n", &[(0.0, 20.5), (0.5, 21.0)])]
    #[case::a_day_and_a_time("2026-03-09 23:59:30,20\n2026-03-10 00:00:30,30\n", &[(0.0, 20.0), (1.0, 30.0)])]
    #[case::two_columns("date\ttime\ttemp\n09.03.2026\t07:40\t20\n09.03.2026\t07:45\t25\n", &[(0.0, 20.0), (5.0, 25.0)])]
    #[case::past_midnight("time,temp\n23:59:00,20\n00:01:00,22\n", &[(0.0, 20.0), (2.0, 22.0)])]
    #[case::words_before_and_a_gap("Logger 4\nserial,77\n\ntime,temp\n0:00:00,20\n0:01:00,\n0:02:00,24\n", &[(0.0, 20.0), (2.0, 24.0)])]
    #[case::quoted("\"elapsed, min\",\"T, C\"\n\"0\",\"20\"\n\"2\",\"30\"\n", &[(0.0, 20.0), (2.0, 30.0)])]
    fn a_loggers_file_is_understood(#[case] text: &str, #[case] expected: &[(f64, f64)]) {
        let file = LoggerFile::read(text).unwrap();
        let column = file.columns.first().unwrap().at;
        let read = file.readings(column, false);
        assert_eq!(read.len(), expected.len(), "{file:?}");
        for ((minutes, celsius), (at, expected)) in read.iter().zip(expected) {
            assert!((minutes - at).abs() < 1e-6 && (celsius - expected).abs() < 1e-6, "{read:?}");
        }
    }

    #[rstest]
    #[case("T1 [°C]", Some("celsius"))]
    #[case("probe degF", Some("fahrenheit"))]
    #[case("Temp (F)", Some("fahrenheit"))]
    #[case("channel 1", None)]
    #[case("front", None)]
    fn the_unit_is_read_off_the_head_and_never_guessed(#[case] head: &str, #[case] unit: Option<&str>) {
        assert_eq!(unit_of(head).as_deref(), unit);
    }

    #[rstest]
    #[case::a_hundred(100, true)]
    #[case::one_more(101, false)]
    fn no_logger_has_more_than_a_hundred_columns(#[case] columns: usize, #[case] read: bool) {
        let row = |first: &str| format!("{first}{}\n", ",20".repeat(columns - 1));
        let told = LoggerFile::read(&(row("0") + &row("1")));
        assert_eq!(told.is_ok(), read);
    }

    #[test]
    fn fahrenheit_is_turned_over_and_what_no_iron_is_is_left_out() {
        let file = LoggerFile::read("min,T (F)\n0,68\n1,212\n2,9999\n").unwrap();
        assert_eq!(file.columns[0].unit.as_deref(), Some("fahrenheit"));
        let read = file.readings(1, true);
        assert_eq!(read.len(), 2);
        assert!((read[0].1 - 20.0).abs() < 1e-9 && (read[1].1 - 100.0).abs() < 1e-9);
    }

    #[rstest]
    #[case::nothing("")]
    #[case::words("a letter\nto nobody\n")]
    #[case::one_column("1\n2\n3\n")]
    #[case::several_kinds_of_time("0,20\n2026-03-09 07:40,30\n")]
    fn what_is_no_table_of_temperatures_is_told(#[case] text: &str) {
        assert_eq!(LoggerFile::read(text).unwrap_err().field, "text");
    }
}
