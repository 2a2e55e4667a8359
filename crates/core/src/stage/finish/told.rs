//! What is said of each step of a finish.

use crate::finish::{Coat, FinishStep};
use crate::job::Work;

/// What is said of a step: sentences and settings are templates.
pub(super) struct StepText {
    pub sentence: &'static str,
    pub settings: &'static [&'static str],
    pub care: &'static str,
}

pub(super) fn told_of_metal(step: FinishStep, hard: bool) -> StepText {
    const GUARD: &str = "Guard, goggles; no blue on it.";
    match step {
        FinishStep::CrownDown(_) if hard => StepText {
            sentence: "Across, then along, never into the toe. A file skates here: it takes twice as long.",
            settings: &["disc 36 or 40"],
            care: GUARD,
        },
        FinishStep::CrownDown(_) => StepText {
            sentence: "Across, then along, never into the toe.",
            settings: &["disc 36 or 40"],
            care: GUARD,
        },
        FinishStep::Even(_) => StepText {
            sentence: "Evened out, one grit after the other.",
            settings: &["flap 60", "flap 120"],
            care: GUARD,
        },
        FinishStep::Flat(_) => StepText {
            sentence: "To what the fit wants, by file or by whoever has the machine: {3 mm} a side is left for that.",
            settings: &["file or mill"],
            care: "",
        },
        FinishStep::Round(_) => StepText {
            sentence: "Reamed, bored or sleeved; a thread is chased or gets an insert. Pin or gauge before and after.",
            settings: &["reamer"],
            care: "",
        },
        FinishStep::Skin(_) => StepText {
            sentence: "Struck to the skin beside it.",
            settings: &["needle tool, or coarse paper"],
            care: "",
        },
        FinishStep::EdgesBroken(_) => {
            StepText { sentence: "Every sharp edge broken.", settings: &["file"], care: "" }
        }
    }
}

pub(super) fn told_of_coat(coat: Coat) -> (Work, StepText) {
    match coat {
        Coat::Putty => (
            Work::Putty,
            StepText {
                sentence: "Only where nothing is carried or sealed, thin coats, one after the other.",
                settings: &["{3 mm} a coat at most"],
                care: "Not where it gets over {90 degC down} at work.",
            },
        ),
        Coat::Primer => (
            Work::Primer,
            StepText {
                sentence: "Dry and clean; the hidden side of the seam stays bare, so that a new crack shows.",
                settings: &[],
                care: "",
            },
        ),
        Coat::Paint => (
            Work::Paint,
            StepText { sentence: "The hidden side of the seam stays bare.", settings: &[], care: "" },
        ),
        Coat::StovePaint => (
            Work::Paint,
            StepText {
                sentence: "Stove paint, without primer; the hidden side of the seam stays bare.",
                settings: &[],
                care: "The first warm-up is slow, and outside.",
            },
        ),
    }
}
