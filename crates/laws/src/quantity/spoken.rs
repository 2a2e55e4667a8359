//! What is said around a number: *about*, *half a*, a currency's sign, a range.

use super::Kind;

/// Words that say that a number is not exact.
const ABOUT: &[&str] = &[
    "about ",
    "approximately ",
    "approx. ",
    "approx ",
    "around ",
    "roughly ",
    "circa ",
    "ca. ",
    "ca ",
    "~",
    "≈",
];
/// Numbers that are said in words, and the longer first.
const IN_WORDS: &[(&str, &str)] = &[
    ("half an ", "0.5 "),
    ("half a ", "0.5 "),
    ("a couple of ", "2 "),
    ("an ", "1 "),
    ("a ", "1 "),
    ("one ", "1 "),
    ("two ", "2 "),
    ("three ", "3 "),
    ("four ", "4 "),
    ("five ", "5 "),
    ("six ", "6 "),
    ("seven ", "7 "),
    ("eight ", "8 "),
    ("nine ", "9 "),
    ("ten ", "10 "),
    ("eleven ", "11 "),
    ("twelve ", "12 "),
];
pub const CURRENCY_SIGNS: &[char] = &['£', '$', '€', '¥'];
/// Stand in the middle of a number, and mean a half more.
const AND_A_HALF: &[&str] = &[" and a half", " and 1/2", "½"];

/// What was said, in small letters, with points for decimals, and without what is no number.
pub(super) fn spoken(text: &str, kind: Kind) -> String {
    let mut said = text.to_lowercase();
    for (sign, plain) in
        [("–", "-"), ("—", "-"), ("−", "-"), ("″", "\""), ("”", "\""), ("′", "'"), ("’", "'")]
    {
        said = said.replace(sign, plain);
    }
    for (sign, plain) in
        [("¼", " 1/4"), ("¾", " 3/4"), ("⅛", " 1/8"), ("⅜", " 3/8"), ("⅝", " 5/8"), ("⅞", " 7/8")]
    {
        said = said.replace(sign, plain);
    }
    for half in AND_A_HALF {
        said = said.replace(half, " 1/2");
    }
    if kind == Kind::Money {
        said.retain(|c| !CURRENCY_SIGNS.contains(&c));
    }
    let mut said = without_thousands(said.trim(), kind).replace(',', ".");
    for about in ABOUT {
        if let Some(rest) = said.strip_prefix(about) {
            said = rest.trim_start().to_owned();
        }
    }
    for (words, number) in IN_WORDS {
        if let Some(rest) = said.strip_prefix(words) {
            return format!("{number}{rest}");
        }
    }
    said
}

/// Takes out what parts thousands: `1,200`, and in money `1.250,50` too.
fn without_thousands(said: &str, kind: Kind) -> String {
    let (points, commas) = (said.matches('.').count(), said.matches(',').count());
    if kind == Kind::Money && points == 1 && commas == 1 && said.find('.') < said.find(',') {
        return said.replace('.', "");
    }
    let mut parts = said.split(',');
    let first = parts.next().unwrap_or_default();
    let whole: String = first.chars().rev().take_while(char::is_ascii_digit).collect();
    let thousands = !whole.is_empty() && whole.len() <= 3 && !whole.ends_with('0');
    let by_threes = parts.clone().all(|part| part.chars().take_while(char::is_ascii_digit).count() == 3);
    if commas > 0 && thousands && by_threes { said.replace(',', "") } else { said.to_owned() }
}

/// One amount, or from one to another.
#[derive(Debug, PartialEq, Eq)]
pub(super) enum Spoken<'a> {
    One(&'a str),
    Range(&'a str, &'a str),
}

impl<'a> Spoken<'a> {
    pub(super) fn of(said: &'a str) -> Self {
        for between in [" to ", ".."] {
            if let Some((from, to)) = said.split_once(between) {
                return Self::Range(from, to);
            }
        }
        let dashes = said.char_indices().filter(|(at, c)| *at > 0 && *c == '-');
        for (at, _) in dashes {
            let (from, to) = (said[..at].trim_end(), &said[at + 1..]);
            // `1-1/2` is one and a half, `1/4-3/8` goes from one to the other.
            let mixed = to.contains('/') && !from.contains('/');
            if !mixed && from.chars().any(|c| c.is_ascii_digit()) {
                return Self::Range(from, to);
            }
        }
        Self::One(said)
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    #[case::mixed("1-1/2 in", Spoken::One("1-1/2 in"))]
    #[case::below_zero("-40 c", Spoken::One("-40 c"))]
    #[case::range("5-7 mm", Spoken::Range("5", "7 mm"))]
    #[case::range_of_fractions("1/4-3/8", Spoken::Range("1/4", "3/8"))]
    #[case::from_below_zero("-10-20 c", Spoken::Range("-10", "20 c"))]
    fn a_dash_is_a_sign_a_fraction_or_a_range(#[case] said: &str, #[case] meant: Spoken<'_>) {
        assert_eq!(Spoken::of(said), meant);
    }

    #[rstest]
    #[case::decimal("6,4", Kind::Length, "6.4")]
    #[case::thousands("1,200", Kind::Mass, "1200")]
    #[case::ten_thousand("10,250", Kind::Mass, "10250")]
    #[case::millions("1,200,000", Kind::Money, "1200000")]
    #[case::no_thousands("0,125", Kind::Length, "0.125")]
    #[case::four_digits("1,2345", Kind::Plain, "1.2345")]
    fn a_comma_is_a_decimal_sign_but_where_it_parts_thousands(
        #[case] typed: &str,
        #[case] kind: Kind,
        #[case] plain: &str,
    ) {
        assert_eq!(spoken(typed, kind), plain);
    }
}
