//! The rules that choose among the methods, each from both sides of its limit.
//! Published: the trade reference, methods.md, "Rules".

use rstest::rstest;
use vanadin_core::iron::{Belief, Era, Family, Iron, WhiteStanding, confirm};
use vanadin_core::method::Effect::{self, Caution, Exclude, Favour};
use vanadin_core::method::MethodId::{self, ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};
use vanadin_core::method::{Asked, School, Way, apply_rules};
use vanadin_core::quantity::UnitSystem;

/// A belief in which these irons are plausible, the first of them leading.
fn belief(plausible: &[Iron]) -> Belief {
    let mut belief = confirm(Family::MachineFrame, Era::Unknown, true, &[]);
    belief.leading = plausible[0];
    belief.plausible = plausible.to_vec();
    belief.white = WhiteStanding::NotInQuestion;
    belief
}

const RODS: &[&str] = &["nickel", "nickel_iron", "bronze", "iron_rod"];

fn rods(ids: &[&str]) -> Vec<String> {
    ids.iter().map(|&id| id.to_owned()).collect()
}

/// A clean gray part of 12 mm that holds nothing and stays cool, everything at hand.
fn plain<'a>(belief: &'a Belief, rods: &'a [String], reach: &'a [(Way, Result<(), String>)]) -> Asked<'a> {
    Asked {
        belief,
        service_c: Some(60.0),
        heat_cycling: Some(false),
        life_days: Some(3650.0),
        oil: Some("clean"),
        fluid_tight: Some(false),
        wall_mm: Some(12.0),
        reach,
        warm_reached: Some(true),
        rods: Some(rods),
        stitch_kit: Some(true),
        units: UnitSystem::Metric,
    }
}

/// What a rule did, method by method, for the whole method.
fn did(asked: &Asked<'_>, rule: &str) -> Vec<(MethodId, Effect)> {
    let fired = apply_rules(asked).fired;
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
    let ruling = apply_rules(&plain(&gray, &rods, &reach));
    assert!(ruling.fired.is_empty(), "{:?}", ruling.fired);
    assert!(ruling.not_considered.is_empty(), "{:?}", ruling.not_considered);
}

#[rstest]
#[case::believed(WhiteStanding::Believed, 5)]
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
    &[Iron::Steel],
    &[(ArcNickel, Exclude), (ArcNickelIron, Exclude), (TorchBraze, Exclude), (GasIron, Exclude), (Stitch, Exclude)]
)]
#[case::plausible(
    &[Iron::Gray, Iron::Steel],
    &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Caution), (GasIron, Exclude), (Stitch, Caution)]
)]
#[case::out_of_the_question(&[Iron::Gray], &[])]
fn steel_is_not_iron(#[case] irons: &[Iron], #[case] expected: &[(MethodId, Effect)]) {
    let (belief, rods) = (belief(irons), rods(RODS));
    assert_eq!(did(&plain(&belief, &rods, &[]), "M02"), expected);
}

#[rstest]
#[case::malleable(
    "M03",
    &[Iron::Malleable],
    &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Favour), (GasIron, Exclude)]
)]
#[case::ductile("M04", &[Iron::Ductile], &[(ArcNickelIron, Favour), (TorchBraze, Favour), (GasIron, Exclude)])]
#[case::ni_resist("M23", &[Iron::NiResist], &[(TorchBraze, Caution), (GasIron, Exclude)])]
fn an_iron_counts_when_it_is_plausible(
    #[case] rule: &str,
    #[case] irons: &[Iron],
    #[case] expected: &[(MethodId, Effect)],
) {
    let rods = rods(RODS);
    let (alone, beside_gray) = (belief(irons), belief(&[Iron::Gray, irons[0]]));
    assert_eq!(did(&plain(&alone, &rods, &[]), rule), expected);
    assert_eq!(did(&plain(&beside_gray, &rods, &[]), rule), expected);
    assert_eq!(did(&plain(&belief(&[Iron::Gray]), &rods, &[]), rule), []);
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
    for method in [ArcNickel, ArcNickelIron] {
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
fn a_joint_stands_so_much_heat_in_service(
    #[case] method: MethodId,
    #[case] service_c: f64,
    #[case] effect: Option<Effect>,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let did = did(&Asked { service_c: Some(service_c), ..plain(&gray, &rods, &[]) }, "M05");
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
    let asked = Asked { service_c: Some(service_c), life_days, ..plain(&gray, &rods, &[]) };
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
    let asked = Asked { service_c: Some(service_c), heat_cycling, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M05").contains(&(Stitch, Caution)), warned);
}

#[rstest]
#[case::soaked(Some("soaked"), 5)]
#[case::baked_clean(Some("baked_clean"), 0)]
#[case::clean(Some("clean"), 0)]
#[case::not_known(None, 0)]
fn oil_keeps_filler_from_taking(#[case] oil: Option<&str>, #[case] fired: usize) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = Asked { oil, ..plain(&gray, &rods, &[]) };
    let did = did(&asked, "M06");
    assert_eq!(did.len(), fired);
    assert!(fired == 0 || did.contains(&(Stitch, Favour)));
    assert_eq!(apply_rules(&asked).not_considered.iter().any(|why| why.contains("M06")), oil.is_none());
}

#[rstest]
#[case::yes(Some(true), &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Favour), (GasIron, Favour), (Stitch, Favour)])]
#[case::no(Some(false), &[])]
#[case::not_known(None, &[])]
fn what_must_hold_fluid_wants_a_tight_joint(
    #[case] fluid_tight: Option<bool>,
    #[case] expected: &[(MethodId, Effect)],
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(did(&Asked { fluid_tight, ..plain(&gray, &rods, &[]) }, "M10"), expected);
}

#[rstest]
#[case::just_under(4.99, &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Favour), (Stitch, Exclude)])]
#[case::at_five(5.0, &[])]
fn a_thin_wall_holds_no_thread(#[case] wall: f64, #[case] expected: &[(MethodId, Effect)]) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(did(&Asked { wall_mm: Some(wall), ..plain(&gray, &rods, &[]) }, "M12"), expected);
}

#[test]
fn a_school_that_cannot_be_reached_is_out_and_the_cold_ways_are_favoured() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let warm = Way { method: ArcNickel, school: School::Warm };
    let braze = Way { method: TorchBraze, school: School::WholePart };
    let reach = [(warm, Err("stops at about 90 °C".to_owned())), (braze, Ok(()))];
    let asked = Asked { warm_reached: Some(false), ..plain(&gray, &rods, &reach) };
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
#[case::nickel("nickel", ArcNickel)]
#[case::nickel_iron("nickel_iron", ArcNickelIron)]
#[case::bronze("bronze", TorchBraze)]
#[case::iron_rod("iron_rod", GasIron)]
fn a_rod_that_is_not_at_hand_has_to_be_bought(#[case] missing: &str, #[case] method: MethodId) {
    let gray = belief(&[Iron::Gray]);
    let here: Vec<&str> = RODS.iter().copied().filter(|rod| *rod != missing).collect();
    let here = rods(&here);
    assert_eq!(did(&plain(&gray, &here, &[]), "M19"), [(method, Caution)]);
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
