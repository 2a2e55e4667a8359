//! What a made-up part was, a sentence each.

use super::ended::Did;
use super::opened::stands;

pub(super) fn truth_words(did: &Did<'_>) -> Vec<String> {
    let truth = &did.practice.truth;
    let believed = did.believed.iron.leading;
    let taken = if believed == truth.iron { "as you took it" } else { "you took it for" };
    let iron = if believed == truth.iron {
        format!("{}, {taken}.", truth.iron.label())
    } else {
        format!("{}; {taken} {}.", truth.iron.label(), believed.label().to_lowercase())
    };
    let mut words = vec![iron];
    let mut say = |told: bool, sentence: &str| {
        if told {
            words.push(sentence.to_owned());
        }
    };
    say(truth.oil, "Soaked with oil.");
    say(truth.locked_in, "Stress was locked in it from the casting.");
    say(truth.old_bronze, "Old bronze lay under the paint.");
    say(truth.hidden.is_some() && did.hidden_found(), "It had a second crack, and it was found.");
    say(truth.hidden.is_some() && !did.hidden_found(), "It had a second crack that nobody found.");
    if let Some(service_c) = truth.service_c {
        words.push(format!("In service it gets to {{{service_c:.0} degC}}."));
    }
    if let Some(opens) = &did.opened {
        words.push(format!(
            "Heated so, {} ran on after {{{:.0} min}}: it was asked for {:.1} of what the book has it stand, and this one \
             stands {:.1}.",
            opens.named,
            opens.minutes,
            opens.share,
            stands(did.practice)
        ));
    }
    let against = |factor: f64| crate::heat::against_usual(factor);
    words.push(format!("Its flame brought in {}.", against(truth.power)));
    words.push(format!("Its packing let through {}.", against(truth.packing)));
    words.push(format!("Left alone, {:.0} of 100 such parts stand a year.", truth.left_alone * 100.0));
    words
}
