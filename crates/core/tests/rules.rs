//! The rules that choose among the methods, each from both sides of its limit.
//! Published: the trade reference, methods.md, "Rules".

use rstest::rstest;
use vanadin_core::iron::{Belief, Era, Family, Iron, WhiteStanding, confirm};
use vanadin_core::method::Effect::{self, Caution, Exclude, Favour};
use vanadin_core::method::MethodId::{self, ArcNickel, ArcNickelIron, GasIron, Stitch, TorchBraze};
use vanadin_core::method::{Asked, Piece, School, Way, apply_rules};
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
        closed: Some(false),
        piece: Piece::There,
        service_min: None,
        loads: Some(&[]),
        old_filler: Some("none"),
        old_filler_out: None,
        seen: Some("hidden"),
        machined: Some("nothing"),
        edges: &[],
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
    &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Caution), (GasIron, Exclude)]
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
    assert_eq!(apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M06"), oil.is_none());
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
    let asked = Asked { service_c: Some(service_c), service_min: minutes, ..plain(&gray, &rods, &[]) };
    let braze = did(&asked, "M05").into_iter().find(|(method, _)| *method == TorchBraze);
    assert_eq!(braze.map(|(_, effect)| effect), effect);
}

#[rstest]
#[case::hidden(Some("hidden"), &[])]
#[case::painted(Some("painted"), &[])]
#[case::bare(
    Some("bare"),
    &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Exclude), (GasIron, Favour), (Stitch, Favour)]
)]
fn a_face_seen_bare_asks_for_its_own_colour(
    #[case] seen: Option<&str>,
    #[case] expected: &[(MethodId, Effect)],
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(did(&Asked { seen, ..plain(&gray, &rods, &[]) }, "M08"), expected);
}

#[test]
fn a_hard_edge_is_a_caution_where_it_is_machined_across() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let way = |school| Way { method: ArcNickel, school };
    let edges = [(way(School::Cold), 9.9, 245.0), (way(School::Hot), 10.0, 245.0)];
    let across = Asked { machined: Some("across"), edges: &edges, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&across, "M09"), [(TorchBraze, Favour), (GasIron, Favour)]);
    let hard: Vec<_> = apply_rules(&across).fired.into_iter().filter(|f| f.school.is_some()).collect();
    assert_eq!(hard.len(), 1, "{hard:?}");
    assert_eq!((hard[0].school, hard[0].effect), (Some(School::Cold), Caution));
    assert!(hard[0].sentence.contains("From 245 °C on it softens"), "{}", hard[0].sentence);
    let elsewhere = Asked { machined: Some("elsewhere"), ..across };
    assert!(did(&elsewhere, "M09").is_empty());
}

#[rstest]
#[case::just_under(19.9, &[])]
#[case::at_twenty(20.0, &[(ArcNickelIron, Favour), (TorchBraze, Favour)])]
fn a_thick_wall_favours_nickel_iron_and_a_braze_that_can_be_heated(
    #[case] wall_mm: f64,
    #[case] expected: &[(MethodId, Effect)],
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let whole = Way { method: TorchBraze, school: School::WholePart };
    let reach = [(whole, Ok(()))];
    let asked = Asked { wall_mm: Some(wall_mm), ..plain(&gray, &rods, &reach) };
    assert_eq!(did(&asked, "M11"), expected);
    let cold = [(whole, Err("too heavy".to_owned()))];
    let out_of_reach = Asked { reach: &cold, ..asked };
    assert!(!did(&out_of_reach, "M11").contains(&(TorchBraze, Favour)));
}

#[rstest]
#[case::never("M13", Some("none"), None, &[])]
#[case::bronze_that_stays("M13", Some("bronze"), Some(false), &[(ArcNickel, Exclude), (ArcNickelIron, Exclude), (GasIron, Exclude)])]
#[case::bronze_that_comes_out("M13", Some("bronze"), Some(true), &[])]
#[case::nickel(
    "M14",
    Some("nickel"),
    None,
    &[(ArcNickel, Caution), (ArcNickelIron, Caution), (TorchBraze, Caution), (GasIron, Caution), (Stitch, Caution)]
)]
fn an_old_repair_is_in_the_way(
    #[case] rule: &str,
    #[case] old_filler: Option<&str>,
    #[case] old_filler_out: Option<bool>,
    #[case] expected: &[(MethodId, Effect)],
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    assert_eq!(did(&Asked { old_filler, old_filler_out, ..plain(&gray, &rods, &[]) }, rule), expected);
}

#[test]
fn pins_start_six_millimetres_outside_an_old_weld() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let fired = apply_rules(&Asked { old_filler: Some("steel"), ..plain(&gray, &rods, &[]) }).fired;
    let pins = fired.iter().find(|fired| fired.rule == "M14" && fired.method == Stitch).unwrap();
    assert_eq!(pins.sentence, "Old weld in it: start 6 mm outside it.");
}

#[rstest]
#[case::steady(&["static"], RODS, &[])]
#[case::bending(
    &["static", "bending"],
    RODS,
    &[(ArcNickelIron, Favour), (TorchBraze, Favour), (GasIron, Caution), (Stitch, Caution)]
)]
#[case::shock_with_the_tougher_rod(
    &["shock"],
    &["iron_rod_b"],
    &[(ArcNickelIron, Favour), (TorchBraze, Favour), (Stitch, Caution)]
)]
fn bending_and_shock_want_a_joint_that_gives(
    #[case] loads: &[&str],
    #[case] at_hand: &[&str],
    #[case] expected: &[(MethodId, Effect)],
) {
    let (gray, rods, loads) = (belief(&[Iron::Gray]), rods(at_hand), self::rods(loads));
    assert_eq!(did(&Asked { loads: Some(&loads), ..plain(&gray, &rods, &[]) }, "M21"), expected);
}

#[test]
fn what_is_not_known_is_listed_and_fires_nothing() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked =
        Asked { loads: None, old_filler: None, seen: None, machined: None, ..plain(&gray, &rods, &[]) };
    let ruling = apply_rules(&asked);
    assert!(ruling.fired.is_empty(), "{:?}", ruling.fired);
    for rule in ["M08", "M09", "M13", "M21"] {
        assert!(ruling.not_considered.iter().any(|it| it.rule == rule), "{rule}");
    }
}

#[rstest]
// Published: methods.md, M05: pins that heat and cool in service 400, not 750
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
    let asked = Asked { service_c: Some(service_c), heat_cycling, ..plain(&gray, &rods, &[]) };
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
    let loads = if loaded { vec!["static".to_owned()] } else { Vec::new() };
    let asked = Asked {
        wall_mm: Some(wall),
        loads: Some(&loads),
        fluid_tight: Some(tight),
        ..plain(&gray, &rods, &[])
    };
    assert_eq!(did(&asked, "M05").contains(&(Stitch, Caution)), caution);
}

#[test]
fn two_reasons_of_one_rule_count_once_and_are_both_said() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let loads = vec!["static".to_owned()];
    let asked = Asked {
        wall_mm: Some(6.0),
        loads: Some(&loads),
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
// Published: methods.md, M13: old bronze, or old filler of unknown kind
#[case::bronze_stays("bronze", Some(false), 3)]
#[case::unknown_stays("other", Some(false), 3)]
#[case::unknown_is_out("other", Some(true), 0)]
#[case::never("none", None, 0)]
fn old_filler_that_stays_keeps_fusion_away(
    #[case] filler: &str,
    #[case] out: Option<bool>,
    #[case] excluded: usize,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = Asked { old_filler: Some(filler), old_filler_out: out, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M13").len(), excluded);
}

#[test]
fn an_old_filler_nobody_knows_is_not_considered_rather_than_taken_for_none() {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = Asked { old_filler: Some("other"), old_filler_out: None, ..plain(&gray, &rods, &[]) };
    assert!(apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M13"));
}

#[rstest]
// Published: methods.md, M17
#[case::fits(Piece::There, &[])]
#[case::lost(
    Piece::Lost,
    &[(ArcNickel, Exclude), (ArcNickelIron, Exclude), (TorchBraze, Exclude), (GasIron, Favour), (Stitch, Exclude)]
)]
#[case::donor(
    Piece::Donor,
    &[(ArcNickel, Exclude), (ArcNickelIron, Exclude), (TorchBraze, Exclude), (GasIron, Favour), (Stitch, Favour)]
)]
#[case::nobody_said(Piece::NotSaid, &[])]
fn a_lost_piece_cannot_be_joined_to_nothing(#[case] piece: Piece, #[case] expected: &[(MethodId, Effect)]) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let asked = Asked { piece, ..plain(&gray, &rods, &[]) };
    assert_eq!(did(&asked, "M17"), expected);
    let open = apply_rules(&asked).not_considered.iter().any(|it| it.rule == "M17");
    assert_eq!(open, piece == Piece::NotSaid);
}

#[rstest]
#[case::open_and_thin(Some(12.0), Some(false), None)]
#[case::just_too_thick(Some(12.1), Some(false), Some("walls up to 12 mm"))]
#[case::closed(Some(9.0), Some(true), Some("cannot expand"))]
#[case::wall_not_known(None, Some(false), Some("nobody has said"))]
#[case::shape_not_known(Some(9.0), None, Some("nobody has said"))]
fn gas_fusion_with_a_modest_heat_is_for_thin_open_parts(
    #[case] wall_mm: Option<f64>,
    #[case] closed: Option<bool>,
    #[case] out: Option<&str>,
) {
    let (gray, rods) = (belief(&[Iron::Gray]), rods(RODS));
    let fired = apply_rules(&Asked { wall_mm, closed, ..plain(&gray, &rods, &[]) }).fired;
    let why = fired.iter().find(|f| f.school == Some(School::Modest)).map(|f| f.sentence.as_str());
    match out {
        None => assert_eq!(why, None),
        Some(words) => assert!(why.is_some_and(|why| why.contains(words)), "{why:?}"),
    }
}

#[test]
fn an_empty_list_of_rods_is_an_answer_and_hides_no_stitch_kit() {
    let (gray, nothing) = (belief(&[Iron::Gray]), Vec::new());
    let asked = Asked { stitch_kit: Some(false), ..plain(&gray, &nothing, &[]) };
    assert_eq!(
        did(&asked, "M19"),
        [
            (ArcNickel, Caution),
            (ArcNickelIron, Caution),
            (TorchBraze, Caution),
            (GasIron, Caution),
            (Stitch, Caution)
        ]
    );
    let unsaid = Asked { rods: None, stitch_kit: Some(false), ..plain(&gray, &nothing, &[]) };
    assert_eq!(did(&unsaid, "M19"), [(Stitch, Caution)], "the kit is looked at all the same");
    let kit_unsaid = Asked { stitch_kit: None, ..plain(&gray, &nothing, &[]) };
    let ruling = apply_rules(&kit_unsaid);
    assert!(ruling.not_considered.iter().any(|it| it.what.contains("pins, taps and drills")));
}
