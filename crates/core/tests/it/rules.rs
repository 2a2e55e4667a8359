//! The rules that choose among the methods, each from both sides of its limit.
//! Published: the trade reference, "Rules".

use rstest::rstest;
use vanadin_core::casting::old_filler::OldFiller;
use vanadin_core::casting::said::Load;
use vanadin_core::casting::said::SeenAs;
use vanadin_core::casting::said::{Machined, Oil};
use vanadin_core::casting::shape::Restraint;
use vanadin_core::iron::{Belief, Era, Family, Iron, WhiteStanding, confirm};
use vanadin_core::method::Effect::{self, Caution, Exclude, Favour};
use vanadin_core::method::MethodId::{
    self, ArcNickel, ArcNickelIron, ButterBuild, ColdFill, GasIron, LastResort, MigBrazeSi, SilverBraze,
    Stitch, StitchLocks, TigBrazeAl, TigBrazeSi, TorchBraze,
};
use vanadin_core::method::{Fired, PieceFit, RuleFacts, School, Way, apply_rules, at_hand};
use vanadin_core::quantity::UnitSystem;

/// A belief in which these irons are plausible, the first of them leading.
fn belief(plausible: &[Iron]) -> Belief {
    let mut belief = confirm(Family::MachineFrame, Era::Unknown, true, &[]);
    belief.leading = plausible[0];
    belief.plausible = plausible.to_vec();
    belief.white = WhiteStanding::NotInQuestion;
    belief
}

const RODS: &[&str] = &[
    "nickel",
    "nickel_iron",
    "bronze",
    "iron_rod",
    "tig_nickel",
    "silicon_rod",
    "aluminium_rod",
    "silicon_wire",
    "silver",
    "steel_wire",
    "steel_stick",
    "locks",
    "strap",
    "epoxy",
];
const SETS: &[&str] = &["stick", "tig", "wire", "flame"];

fn rods(ids: &[&str]) -> Vec<String> {
    ids.iter().map(|&id| id.to_owned()).collect()
}

thread_local! {
    static EVERY_SET: &'static [String] = Box::leak(rods(SETS).into_boxed_slice());
}

/// A clean gray break of 7 mm that laps, holds nothing, stays cool and lacks a piece, everything at hand.
fn plain<'a>(
    belief: &'a Belief,
    rods: &'a [String],
    reach: &'a [(Way, Result<(), String>)],
) -> RuleFacts<'a> {
    RuleFacts {
        belief,
        service_c: Some(60.0),
        heat_cycling: Some(false),
        life_days: Some(90.0),
        oil: Some(Oil::Clean),
        fluid_tight: Some(false),
        wall_mm: Some(7.9),
        restraint: Some(Restraint::Free),
        piece: PieceFit::There,
        service_min: None,
        loads: Some(Vec::new()),
        old_filler: Some(OldFiller::None),
        old_filler_out: None,
        seen: Some(SeenAs::Hidden),
        machined: Some(Machined::Nothing),
        edges: &[],
        reach,
        warm_reached: Some(true),
        rods: Some(rods),
        sets: Some(EVERY_SET.with(|sets| *sets)),
        lap: Some(true),
        hard_edges: Some(false),
        burnt_stays: Some(false),
        missing_cm3: 5.0,
        patch: false,
        under_pressure: Some(false),
        locked_in: false,
        late: Some(&[]),
        stitch_kit: Some(true),
        units: UnitSystem::Metric,
    }
}

/// What a rule did for whole methods: "x" rules out, "-" is a caution, "+" a favour.
fn told(facts: &RuleFacts<'_>, rule: &str) -> String {
    let mut told = Vec::new();
    for (sign, effect) in [("x", Exclude), ("-", Caution), ("+", Favour)] {
        let of: Vec<&str> = did(facts, rule)
            .into_iter()
            .filter(|(_, e)| *e == effect)
            .map(|(method, _)| method.id())
            .collect();
        if !of.is_empty() {
            told.push(format!("{sign} {}", of.join(" ")));
        }
    }
    told.join("; ")
}

/// What a rule did, method by method, for the whole method.
fn did(facts: &RuleFacts<'_>, rule: &str) -> Vec<(MethodId, Effect)> {
    let fired = apply_rules(facts).fired;
    let mut did: Vec<(MethodId, Effect)> = fired
        .into_iter()
        .filter(|f| f.rule == rule && f.school.is_none())
        .map(|f| (f.method, f.effect))
        .collect();
    did.sort_by_key(|(method, effect)| (*method, *effect as u8));
    did
}

#[test]
fn a_plain_gray_part_sets_off_nothing() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let warm = Way { method: ArcNickel, school: School::Warm };
    let reach = [(warm, Ok(()))];
    let ruling = apply_rules(&RuleFacts { lap: Some(true), ..plain(&gray, &rods, &reach) });
    // But what speaks of the last ways of all, whatever the part; and a wall with no room for locks.
    let others: Vec<_> =
        ruling.fired.iter().filter(|fired| !matches!(fired.rule.as_str(), "M12" | "M24")).collect();
    assert!(others.is_empty(), "{others:?}");
    assert_eq!(told(&plain(&gray, &rods, &reach), "M24"), "- cold_fill last_resort");
    assert!(ruling.not_considered.is_empty(), "{:?}", ruling.not_considered);
}

#[rstest]
#[case::believed(WhiteStanding::Believed, 15)]
#[case::test_first(WhiteStanding::TestFirst, 0)]
#[case::test_again(WhiteStanding::TestAgainElsewhere, 0)]
#[case::not_in_question(WhiteStanding::NotInQuestion, 0)]
fn white_excludes_everything_only_when_it_is_believed(#[case] white: WhiteStanding, #[case] out: usize) {
    let (mut belief, rods) = (belief(&[Iron::White]), rods(RODS));
    belief.white = white;
    let did = did(&plain(&belief, &rods, &[]), "M01");
    assert_eq!(did.len(), out);
    assert!(did.iter().all(|(_, effect)| *effect == Exclude));
}

#[rstest]
#[case::leading(
    &[Iron::Steel], (15, 0)
)]
#[case::plausible(
    &[Iron::Gray, Iron::Steel], (1, 14)
)]
#[case::out_of_the_question(&[Iron::Gray], (0, 0))]
fn steel_is_not_iron(#[case] irons: &[Iron], #[case] expected: (usize, usize)) {
    let (belief, rods) = (belief(irons), rods(RODS));
    let did = did(&plain(&belief, &rods, &[]), "M02");
    let of = |effect| did.iter().filter(|(_, e)| *e == effect).count();
    assert_eq!((of(Exclude), of(Caution)), expected);
    assert!(did.is_empty() || did.contains(&(GasIron, Exclude)));
}

#[rstest]
#[case::malleable(
    "M03",
    &[Iron::Malleable],
    "x gas_iron tig_braze_al; - arc_nickel arc_nickel_iron torch_braze tig_nickel tig_braze_si mig_braze_si \
     butter_build last_resort; + silver_braze"
)]
#[case::ductile("M04", &[Iron::Ductile], "x gas_iron; + arc_nickel_iron torch_braze tig_nickel")]
#[case::ni_resist(
    "M23",
    &[Iron::NiResist],
    "x gas_iron; - torch_braze tig_braze_si tig_braze_al mig_braze_si silver_braze"
)]
fn an_iron_counts_when_it_is_plausible(#[case] rule: &str, #[case] irons: &[Iron], #[case] expected: &str) {
    let rods = rods(RODS);
    let (alone, beside_gray) = (belief(irons), belief(&[Iron::Gray, irons[0]]));
    assert_eq!(told(&plain(&alone, &rods, &[]), rule), expected);
    assert_eq!(told(&plain(&beside_gray, &rods, &[]), rule), expected);
    assert_eq!(told(&plain(&belief(&[Iron::Gray]), &rods, &[]), rule), "");
}

#[test]
fn ductile_may_be_gas_fused_with_its_own_rod() {
    let (ductile, rods) = (belief(&[Iron::Ductile]), rods(&["iron_rod_b"]));
    let did = did(&plain(&ductile, &rods, &[]), "M04");
    assert!(!did.contains(&(GasIron, Exclude)), "{did:?}");
}

#[test]
fn ni_resist_has_no_cold_school() {
    let (belief, rods) = (belief(&[Iron::NiResist]), rods(RODS));
    let fired = apply_rules(&plain(&belief, &rods, &[])).fired;
    for method in [ArcNickel, ArcNickelIron, ButterBuild] {
        assert!(fired.iter().any(|f| f.method == method && f.school == Some(School::Cold)), "{method:?}");
    }
}

#[rstest]
#[case::nickel_at_its_limit(ArcNickel, 600.0, None)]
#[case::nickel_over_it(ArcNickel, 600.1, Some(Caution))]
#[case::nickel_at_its_last(ArcNickelIron, 750.0, Some(Caution))]
#[case::nickel_over_all(ArcNickelIron, 750.1, Some(Exclude))]
#[case::braze_at_its_limit(TorchBraze, 200.0, None)]
#[case::braze_over_it(TorchBraze, 200.1, Some(Exclude))]
#[case::iron_as_the_casting(GasIron, 750.0, None)]
#[case::iron_over_all(GasIron, 750.1, Some(Exclude))]
#[case::pins_as_the_casting(Stitch, 750.0, None)]
#[case::pins_over_all(Stitch, 750.1, Some(Exclude))]
#[case::silicon_bronze_at_its_limit(TigBrazeSi, 250.0, None)]
#[case::silicon_bronze_over_it_is_a_patch(MigBrazeSi, 250.1, Some(Caution))]
#[case::aluminium_bronze_at_its_limit(TigBrazeAl, 370.0, None)]
#[case::silver_over_it_for_a_short_life(SilverBraze, 200.1, Some(Caution))]
#[case::steel_over_its_limit(LastResort, 400.1, Some(Exclude))]
#[case::epoxy_at_its_limit(ColdFill, 120.0, None)]
#[case::epoxy_over_it(ColdFill, 120.1, Some(Exclude))]
fn a_joint_stands_so_much_heat_in_service(
    #[case] method: MethodId,
    #[case] service_c: f64,
    #[case] effect: Option<Effect>,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    // For good, but for the brazes that may be a patch.
    let life_days = if method == TorchBraze { Some(3650.0) } else { Some(90.0) };
    let asked = RuleFacts { service_c: Some(service_c), life_days, ..plain(&gray, &rods, &[]) };
    let did = did(&asked, "M05");
    assert_eq!(did.iter().find(|(m, _)| *m == method).map(|(_, e)| *e), effect);
}

#[rstest]
#[case::a_patch(350.0, Some(90.0), Caution)]
#[case::too_hot_for_a_patch(350.1, Some(90.0), Exclude)]
#[case::too_long_for_a_patch(350.0, Some(90.1), Exclude)]
#[case::life_not_known(350.0, None, Exclude)]
fn a_braze_may_be_a_patch_for_a_short_life(
    #[case] service_c: f64,
    #[case] life_days: Option<f64>,
    #[case] effect: Effect,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { service_c: Some(service_c), life_days, ..plain(&gray, &rods, &[]) };
    assert!(did(&asked, "M05").contains(&(TorchBraze, effect)));
}

#[rstest]
#[case::at_three_hundred(300.0, Some(true), false)]
#[case::above(300.1, Some(true), true)]
#[case::steady(400.0, Some(false), false)]
#[case::not_known(400.0, None, false)]
fn pins_work_loose_where_it_heats_and_cools(
    #[case] service_c: f64,
    #[case] heat_cycling: Option<bool>,
    #[case] warned: bool,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { service_c: Some(service_c), heat_cycling, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M05").contains(&(Stitch, Caution)), warned);
}

#[rstest]
#[case::soaked(
    Some(Oil::Soaked),
    "x tig_nickel tig_braze_si tig_braze_al mig_braze_si; - arc_nickel arc_nickel_iron torch_braze gas_iron \
     silver_braze butter_build last_resort; + stitch"
)]
#[case::baked_clean(Some(Oil::BakedClean), "")]
#[case::clean(Some(Oil::Clean), "")]
#[case::not_known(None, "")]
fn oil_keeps_filler_from_taking(#[case] oil: Option<Oil>, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { oil, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M06"), expected);
    assert_eq!(apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M06"), oil.is_none());
}

#[rstest]
#[case::yes(Some(true), "- arc_nickel arc_nickel_iron; + torch_braze gas_iron stitch")]
#[case::no(Some(false), "")]
#[case::not_known(None, "")]
fn what_must_hold_fluid_wants_a_tight_joint(#[case] fluid_tight: Option<bool>, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(told(&RuleFacts { fluid_tight, ..plain(&gray, &rods, &[]) }, "M10"), expected);
}

#[rstest]
#[case::just_under(
    4.99,
    "x stitch stitch_locks; - arc_nickel arc_nickel_iron; + torch_braze tig_nickel tig_braze_si"
)]
#[case::at_five(5.0, "x stitch_locks")]
#[case::just_under_eight(7.9, "x stitch_locks")]
#[case::at_eight(8.0, "- stitch_locks")]
#[case::just_under_ten(9.9, "- stitch_locks")]
#[case::at_ten(10.0, "")]
fn a_thin_wall_holds_no_thread(#[case] wall: f64, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(told(&RuleFacts { wall_mm: Some(wall), ..plain(&gray, &rods, &[]) }, "M12"), expected);
}

#[test]
fn a_school_that_cannot_be_reached_is_out_and_the_cold_ways_are_favoured() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let warm = Way { method: ArcNickel, school: School::Warm };
    let braze = Way { method: TorchBraze, school: School::WholePart };
    let reach = [(warm, Err("stops at about 90 °C".to_owned())), (braze, Ok(()))];
    let asked = RuleFacts { warm_reached: Some(false), ..plain(&gray, &rods, &reach) };
    let fired = apply_rules(&asked).fired;
    let of = |method, school, effect| {
        fired
            .iter()
            .any(|f| f.rule == "M07" && f.method == method && f.school == school && f.effect == effect)
    };
    assert!(of(ArcNickel, Some(School::Warm), Exclude));
    assert!(!of(TorchBraze, Some(School::WholePart), Exclude));
    assert!(of(Stitch, None, Favour) && of(ArcNickelIron, Some(School::Cold), Favour));
}

#[rstest]
#[case::nickel("nickel", "- arc_nickel butter_build")]
#[case::nickel_iron("nickel_iron", "- arc_nickel_iron")]
#[case::bronze("bronze", "- torch_braze")]
#[case::iron_rod("iron_rod", "- gas_iron")]
#[case::tig("tig_nickel", "- tig_nickel")]
#[case::silicon("silicon_rod", "- tig_braze_si")]
#[case::aluminium("aluminium_rod", "- tig_braze_al")]
#[case::wire("silicon_wire", "- mig_braze_si")]
#[case::silver("silver", "- silver_braze")]
#[case::steel_wire("steel_wire", "- butter_build")]
#[case::steel_stick("steel_stick", "- last_resort")]
#[case::locks("locks", "- stitch_locks")]
#[case::strap("strap", "- strap")]
#[case::epoxy("epoxy", "- cold_fill")]
fn a_rod_that_is_not_at_hand_has_to_be_bought(#[case] missing: &str, #[case] expected: &str) {
    let gray = belief(&[Iron::Gray]);
    let here: Vec<&str> = RODS.iter().copied().filter(|rod| *rod != missing).collect();
    let here = rods(&here);
    assert_eq!(told(&plain(&gray, &here, &[]), "M19"), expected);
}

#[rstest]
#[case::stick("stick", "- arc_nickel arc_nickel_iron butter_build last_resort")]
#[case::tig("tig", "- tig_nickel tig_braze_si tig_braze_al")]
#[case::wire("wire", "- mig_braze_si butter_build")]
#[case::flame("flame", "- torch_braze gas_iron silver_braze")]
fn a_set_that_is_not_at_hand_has_to_be_borrowed(#[case] missing: &str, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let here: Vec<String> = SETS.iter().filter(|set| **set != missing).map(|set| (*set).to_owned()).collect();
    let without = RuleFacts { sets: Some(&here), ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&without, "M19"), expected);
    let unsaid = RuleFacts { sets: None, ..without };
    assert_eq!(told(&unsaid, "M19"), "", "nobody has said");
    assert!(apply_rules(&unsaid).not_considered.iter().any(|it| it.what.contains("welding sets")));
}

#[rstest]
#[case::bare_nickel("tig_nickel", "bare_nickel", MethodId::TigNickel, "it is what a nickel TIG rod is")]
#[case::wire("nickel_iron", "nickel_core_wire", MethodId::ArcNickelIron, "not known, try it on scrap")]
#[case::own("iron_rod", "own_rod", MethodId::GasIron, "not known, try one on scrap")]
#[case::rutile("steel_stick", "rutile_stick", MethodId::LastResort, "holder in minus")]
#[case::stainless("steel_stick", "stainless_rod", MethodId::LastResort, "its edge is as hard")]
fn a_rod_that_serves_in_its_place_is_here_and_says_what_is_known_of_it(
    #[case] missing: &str,
    #[case] other: &str,
    #[case] method: MethodId,
    #[case] words: &str,
) {
    let gray = belief(&[Iron::Gray]);
    let said = |list: &[&str], sets: &[&str]| {
        let (list, sets) = (rods(list), rods(sets));
        let ruling = apply_rules(&RuleFacts { sets: Some(&sets), ..plain(&gray, &list, &[]) });
        let said = ruling.fired.iter().any(|it| it.method == method && it.sentence.contains(words));
        (ruling.not_here.contains(&method), said)
    };
    let without: Vec<&str> = RODS.iter().copied().filter(|rod| *rod != missing).collect();
    assert_eq!(said(&without, SETS), (true, false));
    let with: Vec<&str> = without.iter().copied().chain([other]).collect();
    assert_eq!(said(&with, SETS), (false, true));
    // Where what is asked for is here too, nothing is said of the other.
    let both: Vec<&str> = RODS.iter().copied().chain([other]).collect();
    assert_eq!(said(&both, SETS), (false, false));
    assert!(said(&with, &[]).0, "its own set is asked for");
}

#[test]
fn soft_screws_are_pins_where_there_is_no_kit_and_no_locks() {
    let gray = belief(&[Iron::Gray]);
    let list = rods(&[RODS, &["soft_screws"]].concat());
    let ruling = apply_rules(&RuleFacts { stitch_kit: Some(false), ..plain(&gray, &list, &[]) });
    let (stitch, locks) = (MethodId::Stitch, MethodId::StitchLocks);
    assert!(!ruling.not_here.contains(&stitch) && ruling.not_here.contains(&locks));
    let said = |it: &&vanadin_core::method::Fired| it.method == stitch && it.sentence.contains("plain pins");
    assert_eq!(ruling.fired.iter().filter(said).count(), 1);
}

#[test]
fn what_cannot_be_begun_today_is_told_apart() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let here: Vec<String> = ["tig".to_owned()].to_vec();
    let asked = RuleFacts { sets: Some(&here), ..plain(&gray, &rods, &[]) };
    let not_here = apply_rules(&asked).not_here;
    assert!(not_here.contains(&MethodId::ArcNickel) && !not_here.contains(&MethodId::TigNickel));
    assert!(!not_here.contains(&MethodId::Stitch) && !not_here.contains(&MethodId::StitchLocks));
    let no_kit = RuleFacts { stitch_kit: Some(false), ..asked };
    assert!(apply_rules(&no_kit).not_here.contains(&MethodId::StitchLocks));
    let no_locks = self::rods(&["tig_nickel"]);
    let not_here = apply_rules(&RuleFacts { rods: Some(&no_locks), ..no_kit }).not_here;
    assert!(not_here.contains(&MethodId::StitchLocks) && !not_here.contains(&MethodId::TigNickel));
}

#[rstest]
// Published: the trade reference, M11
#[case::a_groove(7.9, Some(false), "x silver_braze")]
#[case::a_lap(7.9, Some(true), "")]
#[case::nobody_said(7.9, None, "x silver_braze")]
#[case::at_eight(8.0, Some(true), "- tig_braze_si mig_braze_si")]
#[case::just_under_twenty(19.9, Some(true), "- tig_braze_si mig_braze_si")]
#[case::at_twenty(20.0, Some(true), "- tig_braze_si mig_braze_si; + arc_nickel_iron stitch_locks")]
fn a_gap_and_a_thick_wall_rule_out_what_needs_a_lap_or_little_heat(
    #[case] wall_mm: f64,
    #[case] lap: Option<bool>,
    #[case] expected: &str,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { wall_mm: Some(wall_mm), lap, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M11"), expected);
}

#[test]
fn a_hard_edge_takes_no_thread_and_burnt_iron_takes_nothing() {
    // Published: the trade reference, M15 and M16
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let of = |hard, burnt, rule| {
        told(&RuleFacts { hard_edges: hard, burnt_stays: burnt, ..plain(&gray, &rods, &[]) }, rule)
    };
    assert_eq!(of(Some(true), Some(false), "M15"), "x stitch stitch_locks");
    assert_eq!(of(Some(false), Some(false), "M15"), "");
    assert_eq!(of(None, Some(false), "M15"), "");
    assert_eq!(of(Some(false), Some(false), "M16"), "");
    assert!(of(Some(false), Some(true), "M16").ends_with("; - stitch"));
    assert_eq!(of(Some(false), Some(true), "M16").split(' ').count(), 1 + 14 + 2);
    let unsaid = RuleFacts { burnt_stays: None, ..plain(&gray, &rods, &[]) };
    assert!(apply_rules(&unsaid).not_considered.iter().any(|it| it.rule == "M16"));
}

#[rstest]
// Published: the trade reference, M17
#[case::nothing(0.0, Some(false), "x butter_build")]
#[case::nothing_but_an_edge_to_build_up(0.0, Some(true), "")]
#[case::at_five(5.0, Some(false), "")]
#[case::over_five(5.1, Some(false), "+ gas_iron butter_build")]
fn missing_metal_is_built_up(
    #[case] missing_cm3: f64,
    #[case] hard_edges: Option<bool>,
    #[case] expected: &str,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { missing_cm3, hard_edges, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M17"), expected);
}

#[rstest]
// Published: the trade reference, M24
#[case::idle_and_short(Some(&[][..]), Some(90.0), Some(false), "- cold_fill last_resort")]
#[case::longer(Some(&[][..]), Some(90.1), Some(false), "x last_resort; - cold_fill last_resort")]
#[case::pressure(Some(&[][..]), Some(90.0), Some(true), "x last_resort; - cold_fill last_resort")]
#[case::carries(Some(&[Load::Static][..]), Some(90.0), Some(false), "x strap cold_fill last_resort; - cold_fill last_resort")]
#[case::unsaid(None, Some(90.0), None, "- cold_fill last_resort")]
fn what_only_helps_never_carries(
    #[case] loads: Option<&[Load]>,
    #[case] life_days: Option<f64>,
    #[case] under_pressure: Option<bool>,
    #[case] expected: &str,
) {
    let (gray, rods, loads) = (belief(&[Iron::Gray]), rods(RODS), loads.map(<[Load]>::to_vec));
    let asked = RuleFacts { loads, life_days, under_pressure, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M24"), expected);
}

#[test]
fn what_cannot_be_ready_in_time_is_out_by_its_school() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let late =
        [(Way { method: ArcNickel, school: School::Hot }, "Ready Friday, wanted Thursday.".to_owned())];
    let fired = apply_rules(&RuleFacts { late: Some(&late), ..plain(&gray, &rods, &[]) }).fired;
    let out: Vec<_> = fired.iter().filter(|f| f.rule == "M18").collect();
    assert_eq!((out.len(), out[0].school, out[0].effect), (1, Some(School::Hot), Exclude));
    let unsaid = RuleFacts { late: None, ..plain(&gray, &rods, &[]) };
    assert!(apply_rules(&unsaid).not_considered.iter().any(|it| it.rule == "M18"));
}

#[test]
fn stress_that_is_locked_in_favours_short_beads_and_pins() {
    // Published: the trade reference, M25
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { locked_in: true, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M25"), "+ stitch");
    let cold: Vec<MethodId> = apply_rules(&asked)
        .fired
        .iter()
        .filter(|f| f.rule == "M25" && f.school == Some(School::Cold) && f.effect == Favour)
        .map(|f| f.method)
        .collect();
    assert_eq!(cold, [ArcNickel, ArcNickelIron, ButterBuild]);
    assert_eq!(told(&plain(&gray, &rods, &[]), "M25"), "");
}

#[test]
fn a_rule_counts_once_however_many_irons_set_it_off() {
    let rods = rods(RODS);
    let several = belief(&[Iron::Ductile, Iron::Malleable, Iron::Steel, Iron::NiResist]);
    let fired = apply_rules(&plain(&several, &rods, &[])).fired;
    for (at, one) in fired.iter().enumerate() {
        let same = |other: &&vanadin_core::method::Fired| {
            other.rule == one.rule
                && other.method == one.method
                && other.effect == one.effect
                && other.school == one.school
        };
        assert_eq!(fired[at..].iter().filter(same).count(), 1, "{one:?}");
    }
}

#[rstest]
#[case::at_its_limit(200.0, None, None)]
#[case::over_it_for_good(201.0, None, Some(Exclude))]
#[case::over_it_an_hour_at_a_time(201.0, Some(60.0), Some(Caution))]
#[case::over_it_longer(201.0, Some(61.0), Some(Exclude))]
#[case::at_the_short_limit(260.0, Some(30.0), Some(Caution))]
#[case::over_the_short_limit(261.0, Some(30.0), Some(Exclude))]
fn a_braze_stands_more_for_a_short_time(
    #[case] service_c: f64,
    #[case] minutes: Option<f64>,
    #[case] effect: Option<Effect>,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts {
        service_c: Some(service_c),
        service_min: minutes,
        life_days: Some(3650.0),
        ..plain(&gray, &rods, &[])
    };
    let braze = did(&asked, "M05").into_iter().find(|(method, _)| *method == TorchBraze);
    assert_eq!(braze.map(|(_, effect)| effect), effect);
}

#[rstest]
#[case::hidden(Some(SeenAs::Hidden), "")]
#[case::painted(Some(SeenAs::Painted), "")]
#[case::bare(
    Some(SeenAs::Bare),
    "x torch_braze tig_braze_si tig_braze_al mig_braze_si; - arc_nickel arc_nickel_iron tig_nickel butter_build; \
     + gas_iron stitch"
)]
fn a_face_seen_bare_asks_for_its_own_colour(#[case] seen: Option<SeenAs>, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(told(&RuleFacts { seen, ..plain(&gray, &rods, &[]) }, "M08"), expected);
}

#[test]
fn a_hard_edge_is_a_caution_where_it_is_machined_across() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let way = |school| Way { method: ArcNickel, school };
    let edges = [(way(School::Cold), 9.9, 245.0), (way(School::Hot), 10.0, 245.0)];
    let across = RuleFacts { machined: Some(Machined::Across), edges: &edges, ..plain(&gray, &rods, &[]) };
    assert_eq!(
        told(&across, "M09"),
        "x last_resort; + torch_braze gas_iron tig_braze_si tig_braze_al mig_braze_si"
    );
    let hard: Vec<_> = apply_rules(&across).fired.into_iter().filter(|f| f.school.is_some()).collect();
    assert_eq!(hard.len(), 1, "{hard:?}");
    assert_eq!((hard[0].school, hard[0].effect), (Some(School::Cold), Caution));
    assert!(hard[0].sentence.contains("From 245 °C on it softens"), "{}", hard[0].sentence);
    let elsewhere = RuleFacts { machined: Some(Machined::Elsewhere), ..across };
    assert!(did(&elsewhere, "M09").is_empty());
}

#[test]
fn a_thick_wall_favours_a_braze_that_can_be_heated() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let whole = Way { method: TorchBraze, school: School::WholePart };
    let reach = [(whole, Ok(()))];
    let asked = RuleFacts { wall_mm: Some(20.0), ..plain(&gray, &rods, &reach) };
    assert!(did(&asked, "M11").contains(&(TorchBraze, Favour)));
    let cold = [(whole, Err("too heavy".to_owned()))];
    let out_of_reach = RuleFacts { reach: &cold, ..asked };
    assert!(!did(&out_of_reach, "M11").contains(&(TorchBraze, Favour)));
}

#[rstest]
#[case::never("M13", Some("none"), None, "")]
#[case::bronze_that_stays(
    "M13",
    Some("bronze"),
    Some(false),
    "x arc_nickel arc_nickel_iron gas_iron tig_nickel butter_build last_resort"
)]
#[case::bronze_that_comes_out("M13", Some("bronze"), Some(true), "")]
#[case::nickel(
    "M14",
    Some("nickel"),
    None,
    "- arc_nickel arc_nickel_iron torch_braze gas_iron stitch stitch_locks tig_nickel tig_braze_si tig_braze_al \
     mig_braze_si silver_braze butter_build last_resort"
)]
fn an_old_repair_is_in_the_way(
    #[case] rule: &str,
    #[case] old_filler: Option<&str>,
    #[case] old_filler_out: Option<bool>,
    #[case] expected: &str,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(
        told(
            &RuleFacts {
                old_filler: old_filler.and_then(OldFiller::from_id),
                old_filler_out,
                ..plain(&gray, &rods, &[])
            },
            rule
        ),
        expected
    );
}

#[test]
fn pins_start_six_millimetres_outside_an_old_weld() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let fired =
        apply_rules(&RuleFacts { old_filler: Some(OldFiller::Steel), ..plain(&gray, &rods, &[]) }).fired;
    let pins = fired.iter().find(|fired| fired.rule == "M14" && fired.method == Stitch).unwrap();
    assert_eq!(pins.sentence, "Old weld in it: start 6 mm outside it.");
}

#[rstest]
#[case::steady(&[Load::Static], RODS, "")]
#[case::bending(
    &[Load::Static, Load::Bending],
    RODS,
    "- gas_iron stitch; + arc_nickel_iron torch_braze stitch_locks tig_braze_si tig_braze_al mig_braze_si"
)]
#[case::shock_with_the_tougher_rod(
    &[Load::Shock],
    &["iron_rod_b"],
    "- stitch; + arc_nickel_iron torch_braze stitch_locks tig_braze_si tig_braze_al mig_braze_si"
)]
fn bending_and_shock_want_a_joint_that_gives(
    #[case] loads: &[Load],
    #[case] at_hand: &[&str],
    #[case] expected: &str,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(at_hand));
    assert_eq!(told(&RuleFacts { loads: Some(loads.to_vec()), ..plain(&gray, &rods, &[]) }, "M21"), expected);
}

#[test]
fn what_is_not_known_is_listed_and_fires_nothing() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked =
        RuleFacts { loads: None, old_filler: None, seen: None, machined: None, ..plain(&gray, &rods, &[]) };
    let ruling = apply_rules(&asked);
    let known = |fired: &Fired| matches!(fired.rule.as_str(), "M12" | "M24");
    assert!(ruling.fired.iter().all(known), "{:?}", ruling.fired);
    for rule in ["M08", "M09", "M13", "M21"] {
        assert!(ruling.not_considered.iter().any(|it| it.rule == rule), "{rule}");
    }
}

#[rstest]
// Published: the trade reference, M05: pins that heat and cool in service 400, not 750
#[case::just_cool_enough(400.0, Some(true), false)]
#[case::too_hot_for_pins(401.0, Some(true), true)]
#[case::steady(700.0, Some(false), false)]
#[case::too_hot_for_iron(751.0, Some(false), true)]
fn pins_that_heat_and_cool_stand_less(
    #[case] service_c: f64,
    #[case] heat_cycling: Option<bool>,
    #[case] out: bool,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { service_c: Some(service_c), heat_cycling, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M05").contains(&(Stitch, Exclude)), out, "{:?}", did(&asked, "M05"));
}

#[rstest]
#[case::thin_and_loaded(7.9, true, false, true)]
#[case::thin_and_tight(7.9, false, true, true)]
#[case::thin_and_idle(7.9, false, false, false)]
#[case::thick_enough(8.0, true, true, false)]
fn few_threads_hold_in_a_thin_wall_that_carries(
    #[case] wall: f64,
    #[case] loaded: bool,
    #[case] tight: bool,
    #[case] caution: bool,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let loads = if loaded { vec![Load::Static] } else { Vec::new() };
    let asked = RuleFacts {
        wall_mm: Some(wall),
        loads: Some(loads),
        fluid_tight: Some(tight),
        ..plain(&gray, &rods, &[])
    };
    assert_eq!(did(&asked, "M05").contains(&(Stitch, Caution)), caution);
}

#[test]
fn two_reasons_of_one_rule_count_once_and_are_both_said() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let loads = vec![Load::Static];
    let asked = RuleFacts {
        wall_mm: Some(6.0),
        loads: Some(loads),
        service_c: Some(350.0),
        heat_cycling: Some(true),
        ..plain(&gray, &rods, &[])
    };
    let fired = apply_rules(&asked).fired;
    let m05: Vec<_> = fired.iter().filter(|f| f.rule == "M05" && f.method == Stitch).collect();
    assert_eq!(m05.len(), 1);
    assert!(
        m05[0].sentence.contains("work loose") && m05[0].sentence.contains("few threads"),
        "{}",
        m05[0].sentence
    );
}

#[rstest]
// Published: the trade reference, M13: old bronze, or old filler of unknown kind
#[case::bronze_stays("bronze", Some(false), 6)]
#[case::unknown_stays("other", Some(false), 6)]
#[case::unknown_is_out("other", Some(true), 0)]
#[case::never("none", None, 0)]
fn old_filler_that_stays_keeps_fusion_away(
    #[case] filler: &str,
    #[case] out: Option<bool>,
    #[case] excluded: usize,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked =
        RuleFacts { old_filler: OldFiller::from_id(filler), old_filler_out: out, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M13").len(), excluded);
}

#[test]
fn an_old_filler_nobody_knows_is_not_considered_rather_than_taken_for_none() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked =
        RuleFacts { old_filler: Some(OldFiller::Other), old_filler_out: None, ..plain(&gray, &rods, &[]) };
    assert!(apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M13"));
}

#[rstest]
// Published: the trade reference, M17
#[case::fits(PieceFit::There, "")]
#[case::lost(
    PieceFit::Lost,
    "x arc_nickel arc_nickel_iron torch_braze stitch stitch_locks tig_nickel tig_braze_si tig_braze_al mig_braze_si \
     silver_braze; + gas_iron butter_build"
)]
#[case::donor(
    PieceFit::Donor,
    "x arc_nickel arc_nickel_iron torch_braze stitch_locks tig_nickel tig_braze_si tig_braze_al mig_braze_si \
     silver_braze; + gas_iron stitch butter_build"
)]
#[case::nobody_said(PieceFit::NotSaid, "")]
fn a_lost_piece_cannot_be_joined_to_nothing(#[case] piece: PieceFit, #[case] expected: &str) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { piece, ..plain(&gray, &rods, &[]) };
    assert_eq!(told(&asked, "M17"), expected);
    let open = apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M17");
    assert_eq!(open, piece == PieceFit::NotSaid);
}

#[rstest]
#[case::open_and_thin(Some(12.0), Some(Restraint::Free), None)]
#[case::just_too_thick(Some(12.1), Some(Restraint::Free), Some("walls up to 12 mm"))]
#[case::closed(Some(9.0), Some(Restraint::Closed), Some("cannot expand"))]
#[case::held_in(Some(9.0), Some(Restraint::HeldIn), Some("holds it in"))]
#[case::wall_not_known(None, Some(Restraint::Free), Some("nobody has said"))]
#[case::shape_not_known(Some(9.0), None, Some("nobody has said"))]
fn gas_fusion_with_a_modest_heat_is_for_thin_open_parts(
    #[case] wall_mm: Option<f64>,
    #[case] restraint: Option<Restraint>,
    #[case] out: Option<&str>,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let fired = apply_rules(&RuleFacts { wall_mm, restraint, ..plain(&gray, &rods, &[]) }).fired;
    let why = fired.iter().find(|f| f.school == Some(School::Modest)).map(|f| f.sentence.as_str());
    match out {
        None => assert_eq!(why, None),
        Some(words) => assert!(why.is_some_and(|why| why.contains(words)), "{why:?}"),
    }
}

#[test]
fn an_empty_list_of_rods_is_an_answer_and_hides_no_stitch_kit() {
    let (gray, nothing) = (belief(&[Iron::Gray]), Vec::new());
    let asked = RuleFacts { stitch_kit: Some(false), ..plain(&gray, &nothing, &[]) };
    assert_eq!(told(&asked, "M19").split(' ').count(), 1 + MethodId::ALL.len(), "everything lacks something");
    let unsaid = RuleFacts { rods: None, stitch_kit: Some(false), ..plain(&gray, &nothing, &[]) };
    assert_eq!(told(&unsaid, "M19"), "- stitch stitch_locks", "the kit is looked at all the same");
    let kit_unsaid = RuleFacts { stitch_kit: None, ..plain(&gray, &nothing, &[]) };
    let ruling = apply_rules(&kit_unsaid);
    assert!(ruling.not_considered.iter().any(|it| it.what.contains("pins, taps and drills")));
}

#[rstest]
#[case::all_of_it(ArcNickel, &["nickel"], &["stick"], false, true)]
#[case::no_rod(ArcNickel, &["nickel_iron"], &["stick"], false, false)]
#[case::no_set(ArcNickel, &["nickel"], &["tig"], false, false)]
#[case::of_two_rods_any_will_do(GasIron, &["iron_rod_b"], &["flame"], false, true)]
#[case::one_in_its_place(GasIron, &["own_rod"], &["flame"], false, true)]
#[case::one_in_its_place_and_not_its_set(GasIron, &["own_rod"], &["stick"], false, false)]
#[case::what_serves_another_way(GasIron, &["bare_nickel"], &["flame", "tig"], false, false)]
#[case::one_in_its_place_goes_by_its_own_set(LastResort, &["stainless_rod"], &["tig"], false, true)]
#[case::and_not_by_that_of_the_usual(LastResort, &["stainless_rod"], &["stick"], false, false)]
#[case::of_two_that_are_needed_both(ButterBuild, &["nickel", "steel_wire"], &["stick", "wire"], false, true)]
#[case::of_two_that_are_needed_one(ButterBuild, &["nickel"], &["stick", "wire"], false, false)]
#[case::pins_of_a_kit(Stitch, &[], &[], true, true)]
#[case::no_pins(Stitch, &[], &[], false, false)]
#[case::soft_screws_for_pins(Stitch, &["soft_screws"], &[], false, true)]
#[case::locks_ask_for_the_kit(StitchLocks, &["locks"], &[], true, true)]
#[case::locks_without_it(StitchLocks, &["locks"], &[], false, false)]
#[case::screws_hold_no_locks(StitchLocks, &["locks", "soft_screws"], &[], false, false)]
#[case::no_set_is_needed(ColdFill, &["epoxy"], &[], false, true)]
fn what_a_way_is_laid_with_is_here_or_is_not(
    #[case] method: MethodId,
    #[case] has: &[&str],
    #[case] sets: &[&str],
    #[case] kit: bool,
    #[case] here: bool,
) {
    assert_eq!(at_hand(method, &rods(has), &rods(sets), kit), here);
}

#[rstest]
// Published: 200 degC for good, 260 for a short time, 150 K more as a patch for 90 days
#[case::for_an_hour_at_a_time(250.0, Some(60.0), Some(90.0), "it stands that for a short time only")]
#[case::a_short_life_and_no_more_than_an_hour_stands(
    260.0,
    Some(60.0),
    Some(3650.0),
    "it stands that for a short time only"
)]
#[case::hotter_for_a_short_life(300.0, Some(60.0), Some(90.0), "a patch for a short life")]
#[case::all_day_for_a_short_life(250.0, None, Some(90.0), "a patch for a short life")]
fn why_a_braze_is_over_its_limit_and_not_ruled_out_is_said(
    #[case] service_c: f64,
    #[case] service_min: Option<f64>,
    #[case] life_days: Option<f64>,
    #[case] why: &str,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = RuleFacts { service_c: Some(service_c), service_min, life_days, ..plain(&gray, &rods, &[]) };
    let ruling = apply_rules(&asked);
    let said = ruling.fired.iter().find(|it| it.rule == "M05" && it.method == TorchBraze).unwrap();
    assert!(said.sentence.ends_with(&format!("{why}.")), "{}", said.sentence);
}
