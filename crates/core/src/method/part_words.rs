//! Parts of the odds in words.

use super::odds::CRACK_OPEN;

/// A part of the odds in words.
pub(crate) fn odds_words(name: &str) -> &'static str {
    match name {
        "preheat_short" => "the preheat stays short",
        "beads_cold" => "beads begun too cold",
        "beads_hot" => "beads begun too hot",
        "uneven" => "heated unevenly",
        "restraint" => "heated at the joint alone, where it cannot expand",
        "fell_fast" => "cools faster than it should",
        "tip_missed" => "a true tip may lie past its hole",
        "no_hole" => "a tip without a hole",
        "oil" => "oil in the pores",
        "old_filler" => "old filler left in it",
        "one_side" => "from one side only",
        "iron_unsure" => "not sure of the iron",
        "not_peened" => "beads not peened",
        "hard_edge" => "a hard edge beside the weld",
        "skill" => "seldom done here",
        "locked_in" => "stress locked in the casting",
        "cause_stays" => "what broke it is still there",
        "arc_only_short" => "too heavy for the arc alone to warm",
        "faults" => "it did not go well at places",
        "toe_crack" => "a crack beside a bead",
        "moved" => "it moved out of line",
        "not_good" => "the check found what is not good",
        "came_back" => "mended before at this place, and failed",
        CRACK_OPEN => "a crack is open: never more than 5 of 100",
        "strapped" => "a strap takes a part of the load",
        "checked_clean" => "looked at again and nothing found",
        _ => "something else",
    }
}
