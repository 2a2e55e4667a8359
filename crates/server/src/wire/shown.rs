//! What is shown, as it travels: figures to as many digits as anybody reads.

use std::io::{self, Write};

use rocket::Request;
use rocket::http::Status;
use rocket::response::{self, Responder, content::RawJson};
use serde::Serialize;
use serde_json::ser::{CompactFormatter, Formatter, Serializer};

/// JSON for a page: what was worked out travels to [`DIGITS`] digits. What was typed is text, and moments are whole
/// numbers: neither loses anything.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Shown<T>(pub T);

/// Ours: a metre to the hundredth of a millimetre, a week to the second.
const DIGITS: i32 = 6;

/// Arithmetic: up to here every whole number is a number of its own.
const MOST_WHOLE: f64 = 1e15;

impl<'r, T: Serialize> Responder<'r, 'static> for Shown<T> {
    fn respond_to(self, request: &'r Request<'_>) -> response::Result<'static> {
        let mut json = Vec::new();
        let mut serializer = Serializer::with_formatter(&mut json, InDigits);
        self.0.serialize(&mut serializer).map_err(|_| Status::InternalServerError)?;
        RawJson(json).respond_to(request)
    }
}

struct InDigits;

impl Formatter for InDigits {
    fn write_f64<W: ?Sized + Write>(&mut self, writer: &mut W, value: f64) -> io::Result<()> {
        let value = in_digits(value);
        // A whole number is one: no page tells 118.0 from 118.
        if value.fract() == 0.0 && value.abs() < MOST_WHOLE {
            CompactFormatter.write_i64(writer, value as i64)
        } else {
            CompactFormatter.write_f64(writer, value)
        }
    }
}

/// A number to [`DIGITS`] digits.
fn in_digits(value: f64) -> f64 {
    if value == 0.0 || !value.is_finite() {
        return value;
    }
    let after = DIGITS - 1 - value.abs().log10().floor() as i32;
    // Either way by a power that is exact: 0.1 is none.
    let (by, down) = (10_f64.powi(after.abs()), after < 0);
    if !by.is_finite() {
        return value;
    }
    if down { (value / by).round() * by } else { (value * by).round() / by }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    fn written(value: f64) -> String {
        let mut json = Vec::new();
        value.serialize(&mut Serializer::with_formatter(&mut json, InDigits)).unwrap();
        String::from_utf8(json).unwrap()
    }

    #[rstest]
    #[case(0.0, "0")]
    #[case(-0.0, "0")]
    #[case(118.0, "118")]
    #[case(14.850337495051514, "14.8503")]
    #[case(-7.179361468659633, "-7.17936")]
    #[case(0.059831119347747104, "0.0598311")]
    #[case(27027.27027, "27027.3")]
    // Larger than its digits it is a whole number.
    #[case(123456789.4, "123457000")]
    #[case(0.1 + 0.2, "0.3")]
    #[case(1.5e-9, "1.5e-9")]
    #[case(f64::NAN, "null")]
    #[case(f64::INFINITY, "null")]
    fn a_number_travels_in_six_digits(#[case] value: f64, #[case] json: &str) {
        let written = written(value);
        assert_eq!(written, json);
        if let Ok(read) = serde_json::from_str::<f64>(&written) {
            assert!((read - value).abs() <= value.abs() * 5e-6);
        }
    }

    #[test]
    fn whole_numbers_and_texts_stay_as_they_are() {
        let both = serde_json::json!({ "moment": 1_800_000_000_123_i64, "typed": "14.850337495" });
        let mut json = Vec::new();
        both.serialize(&mut Serializer::with_formatter(&mut json, InDigits)).unwrap();
        assert_eq!(String::from_utf8(json).unwrap(), both.to_string());
    }
}
