//! What to do and why, in one sentence each.

use super::Contender;
use crate::method::{MethodId, School, Way};

/// "Braze it with the torch, the whole part at 300 °C."
pub(super) fn doing(taken: &Contender) -> String {
    let doing = taken.way.method.entry().doing;
    match (taken.way.school, taken.target_c) {
        (School::ArcOnly, _) => format!("{doing}, with the arc alone: a short bead, and let it spread."),
        (School::Cold, _) => format!("{doing}, cold: a short bead, then wait."),
        (School::Local, _) => {
            format!("{doing}, the seam and what lies round it at {}, the rest cold.", taken.heat_words)
        }
        (_, Some(_)) => format!("{doing}, the whole part at {}.", taken.heat_words),
        (_, None) => format!("{doing}."),
    }
}

/// Ours: a lead in odds smaller than this is not worth a word; in hours likewise.
const MORE_OFTEN: f64 = 0.02;
const SOONER_H: f64 = 1.0;

/// Why this one and not the others.
pub(super) fn why(
    taken: &Contender,
    all: &[Contender],
    (welders_own, schools, not_here): (bool, &[(String, f64)], &[MethodId]),
) -> String {
    let others: Vec<&Contender> =
        all.iter().filter(|other| other.recommended && other.way != taken.way).collect();
    let mut said = Vec::new();
    let best_odds = others.iter().map(|other| other.odds.mean).reduce(f64::max);
    let quickest = others.iter().filter_map(|other| other.hours).reduce(f64::min);
    if taken.recommended && best_odds.is_some_and(|best| taken.odds.mean - best >= MORE_OFTEN) {
        said.push("holds more often than the others".to_owned());
    }
    if let (Some(hours), Some(quickest)) = (taken.hours, quickest)
        && quickest - hours >= SOONER_H
    {
        said.push("is done soonest".to_owned());
    }
    // Why it is not first all the same; what the welder chose is theirs to know.
    let kit = |other: &Contender| match !welders_own && not_here.contains(&other.way.method) {
        true => ", nothing for it is here",
        false => "",
    };
    let ways = others.iter().map(|other| (format!("{}{}", other.label, kit(other)), other.odds.mean));
    let schools = schools.iter().cloned();
    let better = better_odds(taken.odds.mean, ways.chain(schools));
    // What the welder chose against better odds needs no reason beside them.
    let why_ahead = said.is_empty() && (!welders_own || better.is_empty());
    let second = others.iter().max_by(|a, b| a.score.total_cmp(&b.score));
    if let Some(second) = second.filter(|second| why_ahead && taken.score > second.score) {
        said.extend(most_ahead(taken, second));
    }
    // When it is ready stands beside each way: it is said again where it is too late, or nothing else is.
    let alone = said.is_empty() && better.is_empty();
    if let Some(ready) = taken.ready.as_ref().filter(|ready| !ready.begun && (ready.late || alone)) {
        said.push(format!(
            "can be ready {}{}",
            ready.words,
            if ready.late { ", after it is wanted" } else { "" }
        ));
    }
    let sentence = match said.as_slice() {
        [] => String::new(),
        [only] => format!("It {only}."),
        [first @ .., last] => format!("It {}, and {last}.", first.join(", ")),
    };
    let first = match (welders_own, others.is_empty()) {
        (true, _) => "The welder's choice.",
        (false, true) => "Nothing else is left.",
        (false, false) => "",
    };
    let all = [first.to_owned(), sentence, better].into_iter().filter(|it| !it.is_empty());
    all.collect::<Vec<_>>().join(" ")
}

/// No way is first before one with better odds without a word of it (M27): what hours, money or gear weighed more than.
fn better_odds(taken: f64, others: impl Iterator<Item = (String, f64)>) -> String {
    let of_100 = |odds: f64| (odds * 100.0).round();
    match others.max_by(|a, b| a.1.total_cmp(&b.1)) {
        Some((label, best)) if best - taken >= MORE_OFTEN => {
            format!("Better odds here, {} against {}: {label}.", of_100(best), of_100(taken))
        }
        _ => String::new(),
    }
}

/// In what it is most ahead of another: a sentence of this job, not a sum of points.
fn most_ahead(taken: &Contender, other: &Contender) -> Option<String> {
    let of = |contender: &Contender, name: &str| {
        contender.parts.iter().filter(|part| part.name == name).map(|part| part.points).sum::<f64>()
    };
    let ahead = |name: &str| of(taken, name) - of(other, name);
    const WORDS: [(&str, &str); 6] = [
        ("strength", "is the stronger joint"),
        ("for", "has more that speaks for it on this part"),
        ("against", "has less that speaks against it on this part"),
        ("odds", "holds more often"),
        ("hours", "takes less time"),
        ("money", "costs less"),
    ];
    let most = WORDS.iter().max_by(|a, b| ahead(a.0).total_cmp(&ahead(b.0)))?;
    (ahead(most.0) > 0.0).then(|| format!("{} than {}", most.1, other.label))
}

/// How strong the joint is against the iron, and what of it is seen afterwards.
pub(super) fn joint_words(way: Way, strength: f64) -> String {
    let leaves = way.method.entry().leaves;
    let strong = match strength {
        none if none <= 0.0 => "carries nothing".to_owned(),
        over if over >= 1.05 && way.method.fusion() => {
            format!("filler {over:.1} times the iron: the weak place is the iron at its edge")
        }
        over if over >= 1.05 => format!("{over:.1} times the iron, where the filler has taken"),
        as_strong if as_strong >= 0.95 => "about as strong as the iron".to_owned(),
        less => format!("{:.0} % of the iron's own strength", less * 100.0),
    };
    // What is said of it ranges from one end to the other: nothing is promised.
    let voices = if way.method.filler(10.0, false).is_some() && strength > 0.0 {
        "; some say weaker than new, some stronger: not promised"
    } else {
        ""
    };
    format!("{strong}{voices}; {leaves}")
}
