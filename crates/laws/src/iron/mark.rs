//! A casting mark read as a grade: what is cast or stamped on the part names its iron.

use super::Iron;

/// What a mark names.
#[derive(Debug, Clone, PartialEq)]
pub struct Grade {
    pub iron: Iron,
    /// Where this way of writing comes from.
    pub notation: &'static str,
    /// Least tensile strength in MPa; nothing where the mark does not say.
    pub tensile_mpa: Option<f64>,
    /// What else it says; empty for nothing.
    pub note: &'static str,
}

/// How the number behind a code says the strength.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Strength {
    /// MPa; under 100 it is kgf/mm², as it used to be written.
    Metric,
    /// Thousands of pounds on a square inch.
    Ksi,
    /// Long tons on a square inch up to 40, MPa above.
    Tons,
    /// The number is a number of the list, not a strength.
    Listed,
}

struct Code {
    letters: &'static str,
    iron: Iron,
    strength: Strength,
    notation: &'static str,
    note: &'static str,
}

const fn code(
    letters: &'static str,
    iron: Iron,
    strength: Strength,
    notation: &'static str,
    note: &'static str,
) -> Code {
    Code { letters, iron, strength, notation, note }
}

const BLACKHEART: &str = "Blackheart: dark core.";
const WHITEHEART: &str = "Whiteheart: weldable grades exist, ask for the grade.";
const PEARLITIC: &str = "Pearlitic malleable: harder and stronger than blackheart.";
const COMPACTED: &str = "Compacted graphite, between gray and ductile: treated as ductile.";
const AUSTENITIC: &str = "Nickel-austenitic.";

/// Codes that stand before a number. The longer of two that fit is listed first.
const CODES: &[Code] = &[
    code("GJMB", Iron::Malleable, Strength::Metric, "EN 1562", BLACKHEART),
    code("GJMW", Iron::Malleable, Strength::Metric, "EN 1562", WHITEHEART),
    code("GJLA", Iron::NiResist, Strength::Listed, "EN", AUSTENITIC),
    code("GJSA", Iron::NiResist, Strength::Listed, "EN", AUSTENITIC),
    code("GJL", Iron::Gray, Strength::Metric, "EN 1561", ""),
    code("GJS", Iron::Ductile, Strength::Metric, "EN 1563", ""),
    code("GJM", Iron::Malleable, Strength::Metric, "EN 1562", ""),
    code("GJV", Iron::Ductile, Strength::Metric, "EN", COMPACTED),
    code("GJN", Iron::White, Strength::Listed, "EN", "Cast hard on purpose, against wear."),
    code("JMB", Iron::Malleable, Strength::Metric, "ISO", BLACKHEART),
    code("JMW", Iron::Malleable, Strength::Metric, "ISO", WHITEHEART),
    code("JLA", Iron::NiResist, Strength::Listed, "ISO", AUSTENITIC),
    code("JSA", Iron::NiResist, Strength::Listed, "ISO", AUSTENITIC),
    code("JL", Iron::Gray, Strength::Metric, "ISO", ""),
    code("JS", Iron::Ductile, Strength::Metric, "ISO", ""),
    code("JM", Iron::Malleable, Strength::Metric, "ISO", ""),
    code("JV", Iron::Ductile, Strength::Metric, "ISO", COMPACTED),
    code("FCMB", Iron::Malleable, Strength::Metric, "JIS", BLACKHEART),
    code("FCMW", Iron::Malleable, Strength::Metric, "JIS", WHITEHEART),
    code("FCMP", Iron::Malleable, Strength::Metric, "JIS", PEARLITIC),
    code("FCDA", Iron::NiResist, Strength::Listed, "JIS", AUSTENITIC),
    code("FCAD", Iron::Ductile, Strength::Metric, "JIS", "Austempered: a preheat undoes it."),
    code("FCA", Iron::NiResist, Strength::Listed, "JIS", AUSTENITIC),
    code("FCD", Iron::Ductile, Strength::Metric, "JIS", ""),
    code("FC", Iron::Gray, Strength::Metric, "JIS", ""),
    code("GGG", Iron::Ductile, Strength::Metric, "older German", ""),
    code("GGV", Iron::Ductile, Strength::Metric, "older German", COMPACTED),
    code("GGL", Iron::Gray, Strength::Metric, "older German", ""),
    code("GG", Iron::Gray, Strength::Metric, "older German", ""),
    code("GTS", Iron::Malleable, Strength::Metric, "older German", BLACKHEART),
    code("GTW", Iron::Malleable, Strength::Metric, "older German", WHITEHEART),
    code("FGL", Iron::Gray, Strength::Metric, "older French", ""),
    code("FGS", Iron::Ductile, Strength::Metric, "older French", ""),
    code("FT", Iron::Gray, Strength::Metric, "older French", ""),
    code("MN", Iron::Malleable, Strength::Metric, "older French", BLACKHEART),
    code("MB", Iron::Malleable, Strength::Metric, "older French", WHITEHEART),
    code("SNG", Iron::Ductile, Strength::Metric, "older British", ""),
    code("SCH", Iron::Gray, Strength::Metric, "older Russian", ""),
    code("VCH", Iron::Ductile, Strength::Metric, "older Russian", ""),
    code("KCH", Iron::Malleable, Strength::Metric, "older Russian", ""),
    code("CLASS", Iron::Gray, Strength::Ksi, "ASTM A48", ""),
    code("CL", Iron::Gray, Strength::Ksi, "ASTM A48", ""),
    code("GRADE", Iron::Gray, Strength::Tons, "older British", ""),
];

/// ASTM designations, by the number behind the A.
const ASTM: &[(u32, Iron, &str, &str)] = &[
    (48, Iron::Gray, "ASTM A48", ""),
    (126, Iron::Gray, "ASTM", ""),
    (159, Iron::Gray, "ASTM", ""),
    (278, Iron::Gray, "ASTM", ""),
    (319, Iron::Gray, "ASTM", ""),
    (536, Iron::Ductile, "ASTM A536", ""),
    (395, Iron::Ductile, "ASTM", ""),
    (476, Iron::Ductile, "ASTM", ""),
    (897, Iron::Ductile, "ASTM", "Austempered: a preheat undoes it."),
    (842, Iron::Ductile, "ASTM", COMPACTED),
    (47, Iron::Malleable, "ASTM A47", ""),
    (197, Iron::Malleable, "ASTM", ""),
    (220, Iron::Malleable, "ASTM", PEARLITIC),
    (602, Iron::Malleable, "ASTM", ""),
    (436, Iron::NiResist, "ASTM", AUSTENITIC),
    (439, Iron::NiResist, "ASTM", AUSTENITIC),
    (532, Iron::White, "ASTM", "Cast hard on purpose, against wear."),
    (27, Iron::Steel, "ASTM", ""),
    (148, Iron::Steel, "ASTM", ""),
    (216, Iron::Steel, "ASTM", ""),
    (352, Iron::Steel, "ASTM", ""),
];

/// Ductile grades written as strength, yield and stretch, the first two in ksi.
const DUCTILE_KSI: &[[u32; 3]] = &[
    [60, 40, 18],
    [60, 42, 10],
    [65, 45, 12],
    [70, 50, 5],
    [80, 55, 6],
    [80, 60, 3],
    [100, 70, 3],
    [120, 90, 2],
];

/// Malleable grades written as one number: yield in ksi times 100 and ten, then stretch.
const MALLEABLE_NUMBERS: &[u32] =
    &[22010, 32510, 35018, 40010, 45006, 45008, 50005, 60004, 70003, 80002, 90001];

/// Grades of car makers: a letter and a number.
const LETTERED: &[(&str, &[u32], Iron)] = &[
    ("G", &[1800, 2500, 3000, 3500, 4000], Iron::Gray),
    ("D", &[4018, 4512, 5504, 5506, 7003], Iron::Ductile),
    ("M", &[3210, 4504, 5003, 5503, 7002, 8501], Iron::Malleable),
];

/// British standards that name an iron by their number.
const BRITISH: &[(u32, Iron, &str)] = &[
    (1452, Iron::Gray, ""),
    (2789, Iron::Ductile, ""),
    (309, Iron::Malleable, WHITEHEART),
    (310, Iron::Malleable, BLACKHEART),
    (3333, Iron::Malleable, PEARLITIC),
    (3468, Iron::NiResist, AUSTENITIC),
];

/// Cast steels by their letters.
const STEELS: &[&str] = &["WCA", "WCB", "WCC", "LCB", "LCC"];

/// Words that name an iron by themselves.
const WORDS: &[(&str, Iron)] = &[
    ("DUCTILE", Iron::Ductile),
    ("NODULAR", Iron::Ductile),
    ("SPHEROIDAL", Iron::Ductile),
    ("MALLEABLE", Iron::Malleable),
    ("NIRESIST", Iron::NiResist),
    ("STEEL", Iron::Steel),
    ("GRAY", Iron::Gray),
    ("GREY", Iron::Gray),
];

#[derive(Debug, PartialEq)]
enum Token {
    Letters(String),
    Number(f64),
}

/// Reads a casting mark as a grade; nothing when it names none that is known here.
///
/// Spaces, dashes and dots do not matter, nor does small or capital. A strength under 100 behind a
/// metric code is kgf/mm².
///
/// # Source
/// EN 1561, EN 1562, EN 1563, ASTM A48, A47, A536; further and older notations: house, from use.
#[must_use]
pub fn grade_of(mark: &str) -> Option<Grade> {
    let tokens = tokens(mark);
    by_word(&tokens)
        .or_else(|| by_astm(&tokens))
        .or_else(|| by_british(&tokens))
        .or_else(|| by_code(&tokens))
        .or_else(|| by_number(&tokens))
}

fn tokens(mark: &str) -> Vec<Token> {
    let plain: String = mark
        .to_uppercase()
        .replace("NI-RESIST", "NIRESIST")
        .replace("NI RESIST", "NIRESIST")
        .replace("S.G.", "SG")
        .replace("СЧ", "SCH")
        .replace("ВЧ", "VCH")
        .replace("КЧ", "KCH");
    let mut tokens = Vec::new();
    let mut rest = plain.as_str();
    while let Some(first) = rest.chars().next() {
        let letters = rest.find(|c: char| !c.is_ascii_alphabetic()).unwrap_or(rest.len());
        let digits = rest.find(|c: char| !(c.is_ascii_digit() || c == '.')).unwrap_or(rest.len());
        if letters > 0 {
            tokens.push(Token::Letters(rest[..letters].to_owned()));
            rest = &rest[letters..];
        } else if first.is_ascii_digit() {
            let number = rest[..digits].trim_end_matches('.');
            if let Ok(number) = number.parse() {
                tokens.push(Token::Number(number));
            }
            rest = &rest[digits..];
        } else {
            rest = &rest[first.len_utf8()..];
        }
    }
    tokens
}

fn letters(token: &Token) -> Option<&str> {
    match token {
        Token::Letters(letters) => Some(letters),
        Token::Number(_) => None,
    }
}

fn number(token: Option<&Token>) -> Option<f64> {
    match token? {
        Token::Number(number) => Some(*number),
        Token::Letters(_) => None,
    }
}

fn whole(token: Option<&Token>) -> Option<u32> {
    number(token).filter(|n| n.fract() == 0.0 && (0.0..1e6).contains(n)).map(|n| n as u32)
}

/// MPa in a kgf/mm², by definition.
const KGF: f64 = 9.806_65;
/// MPa in a ksi, by definition.
const KSI: f64 = 6.894_757;
/// MPa in a long ton on a square inch, by definition.
const TON: f64 = 15.444;

fn in_mpa(strength: Strength, said: f64) -> Option<f64> {
    let mpa = match strength {
        Strength::Metric if said < 100.0 => said * KGF,
        Strength::Metric => said,
        Strength::Ksi => said * KSI,
        Strength::Tons if said <= 40.0 => said * TON,
        Strength::Tons => said,
        Strength::Listed => return None,
    };
    // Ours: no casting is weaker or stronger; such a number says something else.
    (80.0..=1600.0).contains(&mpa).then_some(mpa)
}

fn by_word(tokens: &[Token]) -> Option<Grade> {
    let words: Vec<&str> = tokens.iter().filter_map(letters).collect();
    let named = WORDS.iter().find(|(word, _)| words.contains(word)).map(|(_, iron)| *iron);
    let alone = (tokens.len() == 1 || words.contains(&"IRON"))
        && words.iter().any(|word| ["DI", "SG", "SGI"].contains(word));
    let iron = named.or(alone.then_some(Iron::Ductile))?;
    Some(Grade { iron, notation: "in words", tensile_mpa: None, note: "" })
}

fn by_astm(tokens: &[Token]) -> Option<Grade> {
    if tokens.iter().filter_map(letters).any(|word| STEELS.contains(&word)) {
        return Some(Grade { iron: Iron::Steel, notation: "ASTM", tensile_mpa: None, note: "" });
    }
    let at = tokens.windows(2).position(|pair| {
        letters(&pair[0]) == Some("A")
            && whole(pair.get(1)).is_some_and(|n| ASTM.iter().any(|(known, ..)| *known == n))
    })?;
    let (_, iron, notation, note) =
        ASTM.iter().find(|(known, ..)| Some(*known) == whole(tokens.get(at + 1)))?;
    let rest = &tokens[at + 2..];
    let said = rest.iter().find_map(|token| number(Some(token)));
    let tensile_mpa = match iron {
        Iron::Gray | Iron::Ductile => {
            said.filter(|ksi| *ksi < 200.0).and_then(|ksi| in_mpa(Strength::Ksi, ksi))
        }
        Iron::Malleable | Iron::White | Iron::NiResist | Iron::Steel => None,
    };
    Some(Grade { iron: *iron, notation, tensile_mpa, note })
}

fn by_british(tokens: &[Token]) -> Option<Grade> {
    let at = tokens.windows(2).position(|pair| letters(&pair[0]) == Some("BS"))?;
    let (_, iron, note) = BRITISH.iter().find(|(known, ..)| Some(*known) == whole(tokens.get(at + 1)))?;
    let said = tokens[at + 2..].iter().find_map(|token| number(Some(token)));
    let tensile_mpa = said.and_then(|said| in_mpa(Strength::Tons, said));
    Some(Grade { iron: *iron, notation: "older British", tensile_mpa, note })
}

fn by_code(tokens: &[Token]) -> Option<Grade> {
    let with_nickel = tokens.iter().filter_map(letters).any(|word| word == "NI" || word.starts_with("NICR"));
    tokens.windows(2).enumerate().find_map(|(at, pair)| {
        let word = letters(&pair[0])?;
        // Two numbers behind GS are strength and stretch of a ductile iron; one alone is the
        // strength of an older German cast steel.
        if word == "GS" {
            let said = number(pair.get(1))?;
            let stretch = number(tokens.get(at + 2)).is_some();
            return Some(Grade {
                iron: if stretch { Iron::Ductile } else { Iron::Steel },
                notation: if stretch { "older French" } else { "older German" },
                tensile_mpa: in_mpa(Strength::Metric, said),
                note: if stretch { "" } else { "Cast steel." },
            });
        }
        let known = CODES.iter().find(|known| known.letters == word)?;
        let said = number(pair.get(1));
        let listed = said.is_some_and(|n| n > 999.0);
        let strong = said.and_then(|said| in_mpa(known.strength, said)).is_some();
        // Two letters and any number may be a pattern's number: it has to be a strength.
        if !(strong || listed || with_nickel || word.len() > 2) {
            return None;
        }
        let iron = if with_nickel && matches!(known.iron, Iron::Gray | Iron::Ductile) {
            Iron::NiResist
        } else {
            known.iron
        };
        let numbered_malleable = word == "JM" && listed;
        let note = match (iron, numbered_malleable) {
            (Iron::NiResist, _) => AUSTENITIC,
            (_, true) if said.is_some_and(|n| n < 1100.0) => WHITEHEART,
            (_, true) => BLACKHEART,
            _ => known.note,
        };
        Some(Grade {
            iron,
            notation: if listed { "EN" } else { known.notation },
            tensile_mpa: said
                .filter(|_| !listed && iron == known.iron)
                .and_then(|said| in_mpa(known.strength, said)),
            note,
        })
    })
}

fn by_number(tokens: &[Token]) -> Option<Grade> {
    let grade = |iron, notation, tensile_mpa| Some(Grade { iron, notation, tensile_mpa, note: "" });
    for (at, token) in tokens.iter().enumerate() {
        let numbers = [at, at + 1, at + 2].map(|i| whole(tokens.get(i)));
        if let [Some(a), Some(b), Some(c)] = numbers
            && DUCTILE_KSI.contains(&[a, b, c])
        {
            return grade(Iron::Ductile, "ASTM A536", in_mpa(Strength::Ksi, f64::from(a)));
        }
        if let Some(n) = whole(Some(token)) {
            if MALLEABLE_NUMBERS.contains(&n) {
                return grade(Iron::Malleable, "ASTM A47", None);
            }
            let before = at.checked_sub(1).and_then(|i| letters(&tokens[i]));
            let lettered = LETTERED.iter().find(|(l, known, _)| Some(*l) == before && known.contains(&n));
            if let Some((_, _, iron)) = lettered {
                return grade(*iron, "car makers'", None);
            }
        } else if let Token::Number(n) = token
            && tokens.len() <= 2
        {
            // Material numbers: 5.1... flakes, 5.2... compacted, 5.3... nodules, 5.4... malleable.
            let family = ((n * 10.0).floor() as i64, n * 10_000.0);
            let four_digits = (family.1 - family.1.round()).abs() < 1e-6 && *n > 5.1;
            let iron = match family.0 {
                51 => Iron::Gray,
                52 | 53 => Iron::Ductile,
                54 => Iron::Malleable,
                55 => Iron::White,
                _ => continue,
            };
            if four_digits {
                let note = if family.0 == 52 { COMPACTED } else { "" };
                return Some(Grade { iron, notation: "EN", tensile_mpa: None, note });
            }
        }
    }
    None
}
