//! The stores: what lies there, what jobs take, what is missing, what is put back.

use std::collections::BTreeMap;

use crate::common::Bench;
use rstest::rstest;
use uuid::Uuid;
use vanadin_core::field::{FieldState, parse_value, shop_field, store_key};
use vanadin_core::method::MethodId;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{Shop, ShopFact, ShopWord, may_be_said, settings};
use vanadin_core::stores::{
    Demand, Stock, StoresPlan, Take, TakenWhen, Used, gas_words, id_of_a_list, shelves,
};

/// A shop as it is told.
#[derive(Default)]
struct ToldShop(Vec<ShopFact>);

impl ToldShop {
    fn say(&mut self, word: ShopWord) -> Result<Uuid, vanadin_core::base::problem::FieldProblem> {
        let understood = may_be_said(&self.0, &word, "bench")?;
        let revision = self.0.len() as u64 + 1;
        let id = Uuid::from_u128(u128::from(revision));
        let (who, sender) = (String::new(), "bench".to_owned());
        let at = revision as i64 * 1000;
        self.0.push(ShopFact {
            id,
            revision,
            at_client_ms: at,
            at_server_ms: at,
            who,
            sender,
            change: word,
            understood,
        });
        Ok(id)
    }

    fn set(&mut self, key: &str, typed: &str) -> Result<Uuid, vanadin_core::base::problem::FieldProblem> {
        let (key, typed) = (key.to_owned(), typed.to_owned());
        self.say(ShopWord::Set { key, typed, shown_in: UnitSystem::Metric })
    }

    fn put(&mut self, number: u128, fields: &[(&str, &str)]) -> Uuid {
        let id = Uuid::from_u128(1000 + number);
        for (field, typed) in fields {
            self.set(&store_key(id, field), typed).unwrap();
        }
        id
    }

    fn shop(&self) -> Shop {
        Shop::of_log(&settings(&self.0), &self.0)
    }

    fn amount(&self, id: Uuid) -> Option<f64> {
        self.shop().stores.iter().find(|item| item.id == id)?.amount
    }
}

fn take(kind: &str, size_mm: Option<f64>, amount: f64) -> Take {
    Take::of((kind, size_mm), amount, TakenWhen::Done, (&[], UnitSystem::Metric)).unwrap()
}

fn wanted(number: u128, name: &str, by: Option<&str>, takes: Vec<Take>) -> Demand {
    Demand { job: Uuid::from_u128(number), name: name.to_owned(), by: by.map(str::to_owned), takes }
}

fn plan(told: &ToldShop, demands: Vec<Demand>) -> StoresPlan {
    let values = settings(&told.0);
    let none: &[Used] = &[];
    shelves(Stock {
        currency: "£",
        items: &told.shop().stores,
        values: &values,
        demands,
        used: none,
        units: UnitSystem::Metric,
    })
}

fn words(plan: &StoresPlan, of: impl Fn(&vanadin_core::stores::Thing) -> Vec<String>) -> Vec<String> {
    plan.shelves.iter().flat_map(|shelf| &shelf.things).flat_map(of).collect()
}

#[test]
fn two_jobs_that_want_the_same_rods_share_them_by_their_day() {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "nickel"), ("size", "3.2 mm"), ("amount", "8 rods")]);
    let later = wanted(1, "pump", Some("2026-03-20"), vec![take("nickel", Some(3.2), 5.0)]);
    let sooner = wanted(2, "frame", Some("2026-03-12"), vec![take("nickel", Some(3.2), 6.0)]);
    let plan = plan(&told, vec![later, sooner]);
    assert_eq!(
        words(&plan, |thing| thing.takers.iter().map(|it| it.words.clone()).collect()),
        ["6 rods for frame", "2 rods for pump"]
    );
    assert_eq!(words(&plan, |thing| thing.short.clone()), ["3 more by Fri 20 Mar: pump"]);
    assert_eq!(plan.headline, "One thing is missing, the first by Fri 20 Mar.");
    assert_eq!((plan.buying.len(), plan.buying[0].amount), (1, 3.0));
}

#[test]
fn a_job_without_a_day_waits_for_those_that_have_one() {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "acetylene"), ("holds", "4 m3"), ("amount", "half a bottle")]);
    let any = wanted(1, "bracket", None, vec![take("acetylene", None, 1.5)]);
    let day = wanted(2, "frame", Some("2026-03-12"), vec![take("acetylene", None, 1.0)]);
    let plan = plan(&told, vec![any, day]);
    assert_eq!(words(&plan, |thing| thing.short.clone()), ["0.5 m³ more: bracket"]);
}

#[rstest]
// Hand-worked: 20 lb are 9.07 kg; 5 gallons are 18.9 l, of 0.51 kg each 9.65 kg, 21.3 lb
#[case::weighed("20 lb", "9.1 kg", "20 lb")]
#[case::by_the_bottle("5 gallons", "9.7 kg", "21.3 lb")]
fn propane_is_said_by_its_weight(#[case] typed: &str, #[case] metric: &str, #[case] imperial: &str) {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "propane"), ("amount", typed)]);
    let shop = told.shop();
    let m3 = shop.stores[0].amount.unwrap();
    let said = |units| gas_words("propane", m3, units);
    assert_eq!((said(UnitSystem::Metric).as_str(), said(UnitSystem::Imperial).as_str()), (metric, imperial));
    assert!(gas_words("acetylene", 1.5, UnitSystem::Metric).ends_with("m³"));
}

#[rstest]
#[case::another_size("4 mm", 6)]
#[case::the_same_size("3.2 mm", 0)]
#[case::an_eighth_of_an_inch_is_the_same("1/8 in", 0)]
fn a_rod_of_another_size_does_not_do(#[case] size: &str, #[case] missing: u32) {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "nickel"), ("size", size), ("amount", "9")]);
    let plan = plan(&told, vec![wanted(1, "frame", None, vec![take("nickel", Some(3.2), 6.0)])]);
    let amount: f64 = plan.buying.iter().map(|buy| buy.amount).sum();
    assert_eq!(amount, f64::from(missing));
}

#[test]
fn what_nobody_has_counted_is_not_missing() {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "nickel")]);
    let plan = plan(&told, vec![wanted(1, "frame", None, vec![take("nickel", Some(3.2), 6.0)])]);
    assert!(plan.buying.is_empty());
    assert_eq!(plan.headline, "Everything on the rack is covered.");
}

#[test]
fn packing_is_dug_out_again() {
    let mut told = ToldShop::default();
    told.put(1, &[("what", "vermiculite"), ("amount", "60 l")]);
    let kept = |amount| Take { when: TakenWhen::Kept, ..take("vermiculite", None, amount) };
    let both = vec![wanted(1, "a", None, vec![kept(50.0)]), wanted(2, "b", None, vec![kept(60.0)])];
    assert!(plan(&told, both).buying.is_empty());
    let large =
        plan(&told, vec![wanted(1, "a", None, vec![kept(50.0)]), wanted(2, "b", None, vec![kept(75.0)])]);
    assert_eq!(large.buying[0].amount, 15.0);
}

#[rstest]
#[case::counted("nickel", "12 rods", Some(12.0))]
#[case::by_the_gauge("oxygen", "100 bar", Some(5.0))]
#[case::a_share("oxygen", "half a bottle", Some(5.0))]
// 2.5 kg of rods 3.2 x 350: 8.0425 mm² x 350 x 8.3e-6 = 0.02336 kg: 107
#[case::weighed_rods("nickel", "2.5 kg", Some(107.0))]
// 1.88 kg a m³
#[case::weighed_gas("propane", "9.4 kg", Some(5.0))]
#[case::wire("silicon_wire", "2.5 kg", Some(2.5))]
fn an_amount_is_understood_by_what_the_thing_is(
    #[case] kind: &str,
    #[case] typed: &str,
    #[case] amount: Option<f64>,
) {
    let mut told = ToldShop::default();
    let size: &[(&str, &str)] = if kind == "nickel" { &[("size", "3.2 mm")] } else { &[] };
    let holds: &[(&str, &str)] = if kind == "oxygen" { &[("holds", "10 m3")] } else { &[] };
    let fields = [&[("what", kind)], size, holds, &[("amount", typed)]].concat();
    let id = told.put(1, &fields);
    assert_eq!(told.amount(id).map(|it| it.round()), amount.map(f64::round));
}

#[rstest]
#[case::rods_have_no_pressure("nickel", "110 bar", "it is counted")]
#[case::a_gauge_says_nothing_of_a_liquid("propane", "6 bar", "weigh it")]
#[case::how_much_a_full_one_is("oxygen", "110 bar", "first say what a full one holds")]
#[case::wire_is_weighed("silicon_wire", "half a bottle", "it is weighed")]
#[case::not_understood("nickel", "some", "there is no number")]
fn an_amount_that_cannot_be_is_told_at_its_field(#[case] kind: &str, #[case] typed: &str, #[case] why: &str) {
    let mut told = ToldShop::default();
    let id = told.put(1, &[("what", kind)]);
    let key = store_key(id, "amount");
    let problem = told.set(&key, typed).unwrap_err();
    assert_eq!(problem.field, key);
    assert!(problem.message.contains(why), "{}", problem.message);
}

#[test]
fn an_old_list_carries_over_and_nothing_is_asked_twice() {
    let mut told = ToldShop::default();
    told.set("shop.rods", "nickel,bronze").unwrap();
    told.set("shop.stitch_kit", "yes").unwrap();
    let kinds = |told: &ToldShop| told.shop().stores.iter().map(|it| it.kind.clone()).collect::<Vec<_>>();
    assert_eq!(kinds(&told), ["nickel", "bronze", "pins", "taps"]);
    // It is counted, and it is the same bundle.
    let bronze = id_of_a_list("bronze");
    told.set(&store_key(bronze, "amount"), "3 rods").unwrap();
    assert_eq!((kinds(&told).len(), told.amount(bronze)), (4, Some(3.0)));
    // Taken off its shelf it is not at hand, whatever the list says.
    told.set(&store_key(bronze, "what"), "").unwrap();
    assert_eq!(told.shop().rods, Some(vec!["nickel".to_owned()]));
    told.set(&store_key(id_of_a_list("pins"), "what"), "").unwrap();
    assert_eq!(told.shop().stitch_kit, Some(false));
}

#[test]
fn a_shop_that_has_said_nothing_is_not_a_shop_with_nothing() {
    let mut told = ToldShop::default();
    assert_eq!((told.shop().rods, told.shop().packings), (None, None));
    told.set("shop.rods", "none").unwrap();
    assert_eq!(told.shop().rods, Some(Vec::new()));
    told.put(1, &[("what", "nickel")]);
    assert_eq!(told.shop().rods, Some(vec!["nickel".to_owned()]));
    told.put(2, &[("what", "vermiculite")]);
    assert_eq!(told.shop().packings, Some(vec!["vermiculite".to_owned()]));
}

#[test]
fn what_a_job_took_is_gone_until_it_is_put_back_or_counted_anew() {
    let mut told = ToldShop::default();
    let id = told.put(1, &[("what", "nickel"), ("amount", "12 rods")]);
    let used = |amount| ShopWord::Used {
        item: id,
        amount,
        job: Uuid::nil(),
        name: "frame".to_owned(),
        instead: None,
    };
    let first = told.say(used(5.0)).unwrap();
    assert_eq!(told.amount(id), Some(7.0));
    told.say(used(20.0)).unwrap();
    assert_eq!(told.amount(id), Some(0.0), "no less than nothing");
    told.say(ShopWord::PutBack { target: first }).unwrap();
    assert!(told.say(ShopWord::PutBack { target: first }).is_err(), "once");
    told.set(&store_key(id, "amount"), "30 rods").unwrap();
    assert_eq!(told.amount(id), Some(30.0), "what is counted has in it what was used");
    told.say(used(1.0)).unwrap();
    assert_eq!(told.amount(id), Some(29.0));
}

#[test]
fn what_a_job_took_keeps_nobody_from_taking_back_their_own_word() {
    let mut told = ToldShop::default();
    let id = told.put(1, &[("what", "nickel"), ("amount", "12 rods")]);
    let price = told.set(&store_key(id, "price"), "3 a rod").unwrap();
    told.say(ShopWord::Used {
        item: id,
        amount: 5.0,
        job: Uuid::nil(),
        name: "frame".to_owned(),
        instead: None,
    })
    .unwrap();
    told.say(ShopWord::Undo { target: price }).unwrap();
    let shop = told.shop();
    let nickel = shop.stores.iter().find(|item| item.id == id).unwrap();
    assert_eq!((nickel.price, nickel.amount), (None, Some(7.0)));
}

/// A lever of gray iron that is welded with nickel-iron.
fn lever() -> Bench {
    let mut bench = Bench::lever("machine_frame", "gray");
    bench.set("method.choice", "arc_nickel_iron");
    bench
}

/// The shop of the bench with these things in it beside.
fn with(bench: &mut Bench, things: &[&[(&str, &str)]]) {
    let mut values: BTreeMap<String, FieldState> = BTreeMap::new();
    for (at, fields) in things.iter().enumerate() {
        for (field, typed) in *fields {
            let key = store_key(Uuid::from_u128(at as u128 + 1), field);
            let value = parse_value(&key, shop_field(&key).unwrap(), typed, UnitSystem::Metric).unwrap();
            let typed = (*typed).to_owned();
            values.insert(key, FieldState { typed, value, revision: 1, not_understood: String::new() });
        }
    }
    bench.shop.stores = Shop::of(&values).stores;
}

#[test]
fn a_plan_says_how_many_of_its_rods_are_here() {
    let mut bench = lever();
    let rods = bench.plan().takes.iter().find(|take| take.kind == "nickel_iron").unwrap().amount;
    assert!(rods >= 3.0, "{rods}");
    assert!(bench.plan().cautions.iter().all(|caution| !caution.sentence.contains("it takes")));
    with(&mut bench, &[&[("what", "nickel_iron"), ("size", "4 mm"), ("amount", "2 rods")]]);
    let plan = bench.plan();
    let take = plan.takes.iter().find(|take| take.kind == "nickel_iron").unwrap();
    assert_eq!((take.here_words.as_str(), take.short), ("2 rods here", true));
    let said = format!("Nickel-iron stick, 4 mm: 2 rods here, it takes {rods} rods.");
    assert!(plan.cautions.iter().any(|caution| caution.sentence == said), "{:?}", plan.cautions);
    with(&mut bench, &[&[("what", "nickel_iron"), ("size", "4 mm"), ("amount", "40 rods")]]);
    let plan = bench.plan();
    assert_eq!(plan.takes.iter().find(|take| take.kind == "nickel_iron").unwrap().here_words, "all here");
}

#[test]
fn a_bundle_without_a_name_is_no_rod_and_is_warned_of() {
    let mut bench = lever();
    let warned = |bench: &Bench| {
        bench.plan().cautions.iter().any(|caution| caution.sentence.contains("without a name"))
    };
    with(&mut bench, &[&[("what", "unnamed"), ("amount", "9 rods")]]);
    assert!(warned(&bench));
    with(&mut bench, &[&[("what", "unnamed")], &[("what", "nickel_iron"), ("amount", "40 rods")]]);
    assert!(!warned(&bench), "what is asked for is there");
}

#[rstest]
#[case::brazed("torch_braze", true)]
#[case::its_coating_is_its_flux("arc_nickel_iron", false)]
fn flux_runs_out_where_it_stands_on_a_shelf(#[case] method: &str, #[case] fluxed: bool) {
    let mut bench = lever();
    bench.set("method.choice", method);
    let taken = |bench: &Bench| {
        let plan = bench.plan();
        let grams = plan.prep.as_ref().unwrap().metal_g;
        let chosen = plan.methods.contenders.iter().find(|it| it.way.method.id() == method).unwrap();
        (chosen.takes.iter().find(|take| take.kind == "flux").cloned(), grams)
    };
    assert_eq!(taken(&bench).0, None, "nobody keeps it on a shelf");
    with(&mut bench, &[&[("what", "flux"), ("amount", "5 g")]]);
    let (flux, grams) = taken(&bench);
    assert_eq!(flux.is_some(), fluxed);
    if let Some(flux) = flux {
        // A tenth of the metal, in kg; five grams are less.
        assert!((flux.amount - grams / 10_000.0).abs() < 1e-9);
        assert!(flux.short, "{}", flux.here_words);
    }
}

#[test]
fn what_it_takes_is_priced_where_a_price_is_known() {
    let mut bench = lever();
    bench.shop.rate = Some(60.0);
    let price = |bench: &Bench| {
        let plan = bench.plan();
        let of = |it: &&vanadin_core::plan::Contender| it.way.method == MethodId::ArcNickelIron;
        let price = plan.methods.contenders.iter().find(of).unwrap().price.clone();
        (price.total.unwrap(), price.without)
    };
    let (bare, without) = price(&bench);
    assert!(without.iter().any(|what| what.contains("Nickel-iron")), "{without:?}");
    let rods = bench.plan().takes.iter().find(|take| take.kind == "nickel_iron").unwrap().amount;
    with(&mut bench, &[&[("what", "nickel_iron"), ("size", "4 mm"), ("price", "4 a rod")]]);
    let (priced, without) = price(&bench);
    assert!((priced - bare - rods * 4.0).abs() < 1e-9);
    assert!(without.iter().all(|what| !what.contains("Nickel-iron")), "{without:?}");
}

#[test]
fn the_record_says_what_a_job_took_and_from_which_box() {
    let mut told = ToldShop::default();
    let rods = told.put(1, &[("what", "nickel"), ("size", "3.2 mm"), ("amount", "8 rods"), ("lot", "77-B")]);
    let plain = told.put(2, &[("what", "propane"), ("amount", "4 m3")]);
    let mut bench = Bench::lever("machine_frame", "gray");
    let mut took = |item: Uuid, amount: f64, job: Uuid| {
        told.say(ShopWord::Used { item, amount, job, name: "Lever".to_owned(), instead: None }).unwrap()
    };
    let this = bench.job().id;
    took(rods, 4.0, this);
    took(plain, 1.5, this);
    took(rods, 2.0, Uuid::from_u128(9));
    let back = took(plain, 0.5, this);
    told.say(ShopWord::PutBack { target: back }).unwrap();
    bench.shop = told.shop();
    // Hand-worked: 1.5 m³ of 1.88 kg each
    assert_eq!(
        bench.plan().hand_over.used,
        ["Nickel stick, 3.2 mm: 4 rods, box 77-B", "Propane: 2.8 kg"],
        "its own, not what another took nor what was put back"
    );
}
