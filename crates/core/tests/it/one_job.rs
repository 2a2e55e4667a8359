//! One job from lighting up to its second round: odds, clock and next thing after each word of it.

use std::fmt::Write as _;

use crate::common::{Bench, LIT_AT, reading};
use proptest::prelude::*;
use vanadin_core::faults::causes::Symptom;
use vanadin_core::field::crack_key;
use vanadin_core::job::{BeadAt, Change, Deed, Job, Lighting, TorchEntry};
use vanadin_core::plan::{Plan, status};

const DAY_MS: i64 = 24 * 3_600_000;

/// A job that is worked on, and what was shown after each word.
struct LoggedJob {
    bench: Bench,
    /// When it was lit last, UTC in ms.
    lit_ms: i64,
    before: f64,
    table: String,
}

impl LoggedJob {
    fn at(&self, minutes: f64) -> i64 {
        self.lit_ms + (minutes * 1000.0) as i64
    }

    /// Log-odds against what the way began with.
    fn shift(&self) -> f64 {
        let plan = self.bench.plan();
        let taken = plan.methods.taken().unwrap();
        let logit = |p: f64| (p / (1.0 - p)).ln();
        logit(taken.odds.mean) - logit(taken.odds_start.mean)
    }

    /// What stands there by now: what the odds moved by, the clocks, the next thing.
    fn note(&mut self, what: &str, minutes: f64) {
        let (job, plan): (Job, Plan) = (self.bench.job(), self.bench.plan());
        let now = status(&job, &plan, self.at(minutes));
        let clocks = now.live.iter().flat_map(|live| &live.clocks);
        let clocks: Vec<String> =
            clocks.map(|clock| format!("{} at {:.1}", clock.words, clock.ends_min)).collect();
        let next = now.live.as_ref().map(|live| live.next.clone()).filter(|it| !it.is_empty());
        let next = next.unwrap_or(now.next.verb);
        let shift = self.shift();
        // No minus before nothing.
        let moved = ((shift - self.before) * 100.0).round() / 100.0 + 0.0;
        self.before = shift;
        writeln!(self.table, "{minutes:.1} | {what} | {moved:+.2} | {} | {next}", clocks.join(", ")).unwrap();
    }

    fn say(&mut self, what: &str, entry: TorchEntry, minutes: f64) {
        let at = self.at(minutes);
        self.bench.try_say(Change::Torch { entry }, at, None).unwrap();
        self.note(what, minutes);
    }

    fn next_bead(&self) -> BeadAt {
        self.bench.plan().torch.unwrap().beads.unwrap().ahead[0].at
    }

    fn bead(&mut self, minutes: f64) {
        let at = Some(self.next_bead());
        self.say("a bead", TorchEntry::Bead { at }, minutes);
    }
}

#[test]
fn everything_that_is_read_seen_and_found_moves_what_is_said_next() {
    let mut bench = Bench::hot_lever();
    bench.light();
    let mut told = LoggedJob { bench, lit_ms: LIT_AT, before: 0.0, table: String::new() };
    told.before = told.shift();
    let did = |what| TorchEntry::Did { what };
    let fault = |seen| TorchEntry::Trouble { seen, cause: String::new() };
    told.say("250 read", reading("250"), 8.0);
    told.say("305 read", reading("305"), 12.0);
    told.say("out of the heat", did(Deed::OutOfHeat), 20.0);
    told.say("back in", did(Deed::BackIn), 22.0);
    told.say("312 read", reading("312"), 29.0);
    told.bead(33.0);
    told.say("peened", TorchEntry::Peened, 33.5);
    told.say("does not flow", fault(Symptom::NoFlow), 34.0);
    told.say("refilled", did(Deed::Refilled), 35.0);
    told.say("toe crack", fault(Symptom::ToeCrack), 36.0);
    told.say("ground out", did(Deed::GroundOut), 38.0);
    told.say("290 read", reading("290"), 39.0);
    told.bead(43.0);
    told.say("peened", TorchEntry::Peened, 43.5);
    told.say("stopped", TorchEntry::Covered { why: "night".into() }, 44.0);
    told.lit_ms = LIT_AT + DAY_MS;
    told.say("21 read", reading("21"), -10.0);
    let change = Change::Light {
        speed: 60.0,
        frozen: Some(Box::new(told.bench.plan().frozen())),
        owned: String::new(),
        what: Lighting::Main,
        without: Vec::new(),
    };
    told.bench.try_say(change, told.lit_ms, None).unwrap();
    told.note("lit again", 0.0);
    told.say("305 read", reading("305"), 12.0);
    let left = told.bench.plan().torch.unwrap().beads.unwrap().ahead.len();
    let mut minutes = 28.0;
    for _ in 0..left {
        told.bead(minutes);
        told.say("peened", TorchEntry::Peened, minutes + 0.5);
        told.say("300 read", reading("300"), minutes + 5.0);
        minutes += 8.0;
    }
    told.say("covered", TorchEntry::Covered { why: String::new() }, minutes);
    told.say("21 read", reading("21"), 3000.0);
    told.bench.set_cold("check.toes", "not_ok");
    told.note("check: toes not good", minutes + 3000.0);
    told.bench.set_cold("check.toes", "ok");
    told.note("check: looked again", minutes + 3000.0);
    told.bench.set_cold("hand_over.became", "failed");
    told.bench.fold_in("", Change::NewRound { reason: "it cracked beside it".into() }, told.at(9000.0));
    told.note("a second round", 9000.0);
    let first = told.bench.crack();
    told.bench.set_cold(&crack_key(first, "becomes"), "sound");
    told.note("the first seam is sound", 9000.0);
    let second = told.bench.fold_in("", Change::AddCrack, told.at(9000.0));
    for (field, typed) in
        [("length", "40"), ("wall", "14"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]
    {
        told.bench.set_cold(&crack_key(second, field), typed);
    }
    told.note("another beside it", 9000.0);
    let plan = told.bench.plan();
    let seams: Vec<&str> =
        plan.prep.iter().flat_map(|prep| &prep.seams).map(|it| it.letter.as_str()).collect();
    assert_eq!(seams, ["B"], "what is sound is not opened again");
    assert_eq!(
        told.table.lines().collect::<Vec<_>>(),
        BY_HAND.trim().lines().map(str::trim).collect::<Vec<_>>()
    );
}

/// Minutes since it was lit | what was said | log-odds | clocks | next.
///
/// Hand-worked from the trade reference: 14 mm soak 14 min, those out of the heat on top; 12 kg at 305 °C lose some 1.2 kW in
/// still air: 3.9 min to 260; a bead that is not peened 0.15 over all beads laid; a fault 0.3, made good 0.1; a crack
/// beside a bead 0.8, filled again 0.3, at the check 1.5; a round that failed at the same place 0.4, against 0.4 of the log
/// that is behind it. The waits between beads are those of the order of beads, whose examples are published.
const BY_HAND: &str = "
8.0 | 250 read | +0.00 |  | Heat to 300 °C
12.0 | 305 read | +0.00 | soak at 26.0 | Soak 14 min more
20.0 | out of the heat | +0.00 | out of the heat at 23.9 | Back into the heat: 6 min of the soak to come
22.0 | back in | +0.00 | soak at 28.0 | Soak 6 min more
29.0 | 312 read | +0.00 |  | Lay bead 1
33.0 | a bead | -0.15 | until bead 2 at 34.1 | Peen bead 1
33.5 | peened | +0.15 | until bead 2 at 34.1 | Wait 1 min, then bead 2
34.0 | does not flow | -0.30 | until bead 2 at 34.1 | Wait 1 min, then bead 2
35.0 | refilled | +0.20 |  | Lay bead 2
36.0 | toe crack | -0.80 |  | Grind the crack out, hot
38.0 | ground out | +0.00 |  | Lay bead 2
39.0 | 290 read | +0.00 |  | Lay bead 2
43.0 | a bead | +0.42 | until bead 3 at 44.6 | Peen bead 2
43.5 | peened | +0.07 | until bead 3 at 44.6 | Wait 2 min, then bead 3
44.0 | stopped | +0.00 |  | Keep it covered until
-10.0 | 21 read | +0.00 |  | Go on: light it again
0.0 | lit again | +0.00 |  | Take a reading
12.0 | 305 read | +0.00 | soak at 26.0 | Soak 14 min more
28.0 | a bead | -0.05 | until bead 4 at 29.1 | Peen bead 3
28.5 | peened | +0.05 | until bead 4 at 29.0 | Take a reading
33.0 | 300 read | +0.00 |  | Lay bead 4
36.0 | a bead | -0.04 | until bead 5 at 36.5 | Peen bead 4
36.5 | peened | +0.04 | until bead 5 at 36.5 | Wait under a minute, then bead 5
41.0 | 300 read | +0.00 |  | Lay bead 5
44.0 | a bead | -0.03 | until bead 6 at 44.5 | Peen bead 5
44.5 | peened | +0.03 | until bead 6 at 44.5 | Wait under a minute, then bead 6
49.0 | 300 read | +0.00 |  | Lay bead 6
52.0 | a bead | -0.03 | until bead 7 at 52.5 | Peen bead 6
52.5 | peened | +0.03 | until bead 7 at 52.5 | Wait under a minute, then bead 7
57.0 | 300 read | +0.00 |  | Lay bead 7
60.0 | a bead | -0.02 |  | Peen bead 7
60.5 | peened | +0.02 |  | Cover it
65.0 | 300 read | +0.00 |  | Cover it
68.0 | covered | +0.00 |  | Keep it covered until
3000.0 | 21 read | +0.00 |  | Check: slag, flux glass and fibre off
3068.0 | check: toes not good | -1.20 |  | Open round 2
3068.0 | check: looked again | +1.20 |  | Check: slag, flux glass and fibre off
9000.0 | a second round | +0.00 |  | Finish the prep
9000.0 | the first seam is sound | +0.40 |  | Map the new crack
9000.0 | another beside it | +0.00 |  | Finish the prep
";

/// Something that is said at the torch.
fn any_word() -> impl Strategy<Value = TorchEntry> {
    prop_oneof![
        (180..340u32).prop_map(|celsius| reading(&celsius.to_string())),
        Just(TorchEntry::Bead { at: None }),
        Just(TorchEntry::Peened),
        Just(TorchEntry::Reheated),
        prop::sample::select(vec![Deed::OutOfHeat, Deed::BackIn, Deed::HeldAtJoint, Deed::GroundOut])
            .prop_map(|what| TorchEntry::Did { what }),
        prop::sample::select(vec![Symptom::NoFlow, Symptom::ToeCrack])
            .prop_map(|seen| TorchEntry::Trouble { seen, cause: String::new() }),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]

    /// Two phones, a queue that was offline, a server that was started anew: the same words give the same, whenever and
    /// in whatever order they came in; and a replay up to a moment gives what was shown at it.
    #[test]
    fn the_same_words_show_the_same_in_whatever_order_they_came(
        words in prop::collection::vec((any_word(), 1..90u32, any::<u32>()), 3..9),
        cut in 1..9usize,
    ) {
        let mut by_time = words;
        by_time.sort_by_key(|(_, minutes, _)| *minutes);
        by_time.dedup_by_key(|(_, minutes, _)| *minutes);
        by_time.truncate(cut.max(2));
        let mut lit = Bench::hot_lever();
        lit.light();
        let shown = |words: &[(TorchEntry, u32, u32)], now_min: u32| {
            let mut bench = lit.clone();
            for (entry, minutes, _) in words {
                let at = LIT_AT + i64::from(*minutes) * 1000;
                bench.fold_in("", Change::Torch { entry: entry.clone() }, at);
            }
            let (job, plan) = (bench.job(), bench.plan());
            let now = status(&job, &plan, LIT_AT + i64::from(now_min) * 1000);
            let odds = plan.methods.taken().map(|taken| taken.odds);
            (now.live, now.next.verb, odds, plan.torch.and_then(|torch| torch.beads))
        };
        let now_min = by_time.last().map_or(0, |(_, minutes, _)| *minutes) + 3;
        let in_time = shown(&by_time, now_min);
        let mut late = by_time;
        late.sort_by_key(|(_, _, came)| *came);
        prop_assert_eq!(in_time, shown(&late, now_min));
    }
}
