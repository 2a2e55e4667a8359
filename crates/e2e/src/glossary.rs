//! The words of docs/glossary.md, held against any text.

use std::path::Path;

use anyhow::{Context, bail};

/// What no text says: the words the glossary turns away, and what only a programmer would say.
pub struct Glossary {
    /// In small letters, the word that is said instead behind it.
    turned_away: Vec<(String, String)>,
}

const PROGRAMMERS: [&str; 5] = ["nan", "undefined", "null", "infinity", "[object"];

impl Glossary {
    /// # Errors
    /// The page is not there, or has no table.
    pub fn read() -> anyhow::Result<Self> {
        let page = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/glossary.md");
        let page =
            std::fs::read_to_string(&page).with_context(|| format!("{} is not there", page.display()))?;
        Self::of(&page)
    }

    fn of(page: &str) -> anyhow::Result<Self> {
        let rows = page.lines().filter(|line| line.starts_with('|')).skip(2);
        let mut turned_away = Vec::new();
        for row in rows {
            let cells: Vec<&str> = row.trim_matches('|').split('|').map(str::trim).collect();
            let [word, _, not] = cells[..] else { bail!("three cells in {row}") };
            let not = not.split(',').map(|not| (tokens(not), word.to_owned()));
            turned_away.extend(not);
        }
        if turned_away.is_empty() {
            bail!("the glossary turns nothing away");
        }
        Ok(Self { turned_away })
    }

    /// What is wrong with a text; nothing where nothing is.
    #[must_use]
    pub fn wrong(&self, text: &str) -> Option<String> {
        let said = tokens(text);
        let has = |words: &str| said.contains(words);
        if let Some((not, instead)) = self.turned_away.iter().find(|(not, _)| has(not)) {
            return Some(format!("\"{}\" instead of {instead}: {text}", not.trim()));
        }
        if let Some(word) = PROGRAMMERS.iter().find(|word| has(&format!(" {word} "))) {
            return Some(format!("\"{word}\": {text}"));
        }
        let id = |word: &str| word.contains('_') || word.len() == 36 && word.matches('-').count() == 4;
        if let Some(word) = said.split(' ').find(|word| id(word)) {
            return Some(format!("the id {word}: {text}"));
        }
        if text.contains(['{', '}']) {
            return Some(format!("a template: {text}"));
        }
        if rule_number(text) {
            return Some(format!("the number of a rule: {text}"));
        }
        small_after_full_stop(text).then(|| format!("small after a full stop: {text}"))
    }
}

/// In small letters, one space round each word.
fn tokens(text: &str) -> String {
    let words = text
        .split(|c: char| !(c.is_alphanumeric() || "-_/[".contains(c)))
        .filter(|word| !word.is_empty())
        .map(str::to_lowercase);
    let mut said = " ".to_owned();
    for word in words {
        said.push_str(&word);
        said.push(' ');
    }
    said
}

/// "(M08)".
fn rule_number(text: &str) -> bool {
    text.split('(').skip(1).any(|rest| {
        let mut chars = rest.chars();
        chars.next() == Some('M')
            && chars.next().is_some_and(|c| c.is_ascii_digit())
            && chars.next().is_some_and(|c| c.is_ascii_digit())
    })
}

/// A sentence that goes on small; "no. 4" does not.
fn small_after_full_stop(text: &str) -> bool {
    text.match_indices(". ").any(|(at, _)| {
        let before = text[..at].rsplit(' ').next().unwrap_or_default();
        let ends_a_sentence = before.len() > 2 && before.ends_with(|c: char| c.is_lowercase() || c == ')');
        ends_a_sentence && text[at + 2..].starts_with(|c: char| c.is_lowercase())
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    const PAGE: &str = "| Word | What | Not |\n|---|---|---|\n| cross out | x | strike, data point |\n";

    #[rstest]
    #[case::a_word("Strike the last", true)]
    #[case::part_of_a_word("a striker plate", false)]
    #[case::two_words("one data  point", true)]
    #[case::an_id("the field part_wall", true)]
    #[case::a_uuid("job 8c2dfa73-659b-42ca-95ae-0487868fb833", true)]
    #[case::a_rule("not known (M08)", true)]
    #[case::a_thread("tap M10, and (M) for it", false)]
    #[case::a_template("over {260 degC}", true)]
    #[case::nothing_to_show("NaN mm", true)]
    #[case::small("It is cold. drill now", true)]
    #[case::a_number("entry no. 4 of it. Drill", false)]
    #[case::plain("Cross it out.", false)]
    fn what_nobody_at_the_bench_says_is_found(#[case] text: &str, #[case] wrong: bool) {
        let glossary = Glossary::of(PAGE).unwrap();
        assert_eq!(glossary.wrong(text).is_some(), wrong, "{:?}", glossary.wrong(text));
    }

    #[test]
    fn a_page_without_words_is_none() {
        assert!(Glossary::of("# Words\n").is_err());
    }
}
