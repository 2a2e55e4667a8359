//! The sample shop: made up, at different stages, its times relative to the start.

use std::collections::BTreeMap;

use anyhow::{Context, anyhow};
use uuid::Uuid;
use vanadin_core::field::{
    Held, crack_key, face_key, mark_key, neighbour_key, parse_value, picture_key, shop_field, store_key,
};
use vanadin_core::iron::Confidence;
use vanadin_core::job::{
    Change, Fact, Job, Lighting, Recorded, SeamReadingKind, TorchEntry, Understood, Work, accept,
};
use vanadin_core::map::{At, Drawn, MarkKind, Shape, Vertex};
use vanadin_core::plan::plan;
use vanadin_core::quantity::UnitSystem;
use vanadin_core::shop::{Shop, ShopFact, ShopWord, may_be_said, settings};
use vanadin_core::stores::id_of_a_list;

use crate::desk::{Desk, NewJob};
use crate::job::store;
use crate::picture::shrink::Shrunk;
use vanadin_core::pad::Pad;

/// The sample shop's settings, as if typed.
const SETTINGS: &[(&str, &str)] = &[
    ("shop.name", "Lockside Iron Mending"),
    ("shop.units", "metric"),
    ("shop.theme", "shop"),
    ("shop.time_zone", "Europe/London"),
    ("shop.ambient", "18 C"),
    ("shop.currency", "£"),
    ("shop.sources", "weed_burner,oxy_acetylene_small,kiln"),
    ("shop.packings", "air,blanket,vermiculite,dry_sand"),
    ("shop.rods", "nickel,nickel_iron,bronze,iron_rod,silicon_wire"),
    ("shop.sets", "stick,wire,flame"),
    ("shop.stitch_kit", "yes"),
];

/// What lies on its shelves: kind, which of several of it, and its fields as if typed.
type OnTheShelf = (&'static str, u8, &'static [(&'static str, &'static str)]);

const SHELVES: &[OnTheShelf] = &[
    (
        "nickel",
        0,
        &[("size", "3.2 mm"), ("amount", "9 rods"), ("price", "3.10 a rod"), ("opened", "2026-02-16")],
    ),
    ("nickel_iron", 0, &[("size", "3.2 mm"), ("amount", "14 rods"), ("price", "3.40 a rod")]),
    (
        "nickel_iron",
        1,
        &[("size", "4 mm"), ("amount", "5 rods"), ("price", "4.60 a rod"), ("place", "drawer 2")],
    ),
    ("bronze", 0, &[("size", "3.2 mm"), ("amount", "3 rods"), ("price", "2.80 a rod"), ("lot", "box B7")]),
    ("iron_rod", 0, &[("size", "6 mm"), ("amount", "20 rods")]),
    ("silicon_wire", 0, &[("amount", "2.5 kg"), ("price", "38 a kg")]),
    ("unnamed", 0, &[("name", "yellow tape"), ("amount", "7 rods"), ("look", "pale"), ("magnet", "weak")]),
    ("pins", 0, &[("size", "8 mm"), ("amount", "60 pins"), ("price", "0.90 each")]),
    ("vermiculite", 0, &[("amount", "120 l")]),
    ("dry_sand", 0, &[("amount", "200 l")]),
    ("oxygen", 0, &[("holds", "10 m3"), ("amount", "145 bar"), ("price", "62 a bottle")]),
    ("acetylene", 0, &[("holds", "4 m3"), ("amount", "half a bottle"), ("price", "88 a bottle")]),
    ("propane", 0, &[("holds", "5.9 m3"), ("amount", "6 kg"), ("price", "34 a bottle")]),
    ("argon", 0, &[("holds", "2.3 m3"), ("amount", "95 bar"), ("price", "40 a bottle")]),
    ("stick", 0, &[("melts", "149 C"), ("amount", "1")]),
    ("stick", 1, &[("melts", "204 C"), ("amount", "1")]),
    ("stick", 2, &[("melts", "260 C"), ("amount", "2")]),
    ("stick", 3, &[("melts", "316 C"), ("amount", "1")]),
    ("stick", 4, &[("melts", "427 C"), ("amount", "1")]),
    ("thin_disc", 0, &[("amount", "18")]),
    ("burr", 0, &[("amount", "4 pieces"), ("place", "over the vice")]),
    ("filters", 0, &[("amount", "2 pairs"), ("opened", "2026-01-12")]),
];

/// Everything that is typed of the sample shop, each as its key and what was typed.
fn typed_of_the_shop() -> Vec<(String, String)> {
    let settings = SETTINGS.iter().map(|(key, typed)| ((*key).to_owned(), (*typed).to_owned()));
    let things = SHELVES.iter().flat_map(|(kind, which, fields)| {
        let mut id = *id_of_a_list(kind).as_bytes();
        id[15] = *which;
        let what = [("what", *kind)];
        let all = what.into_iter().chain(fields.iter().copied());
        all.map(move |(field, typed)| (store_key(Uuid::from_bytes(id), field), typed.to_owned()))
            .collect::<Vec<_>>()
    });
    settings.chain(things).collect()
}

type Tell = fn(&mut Told<'_>);

/// How long ago each job came in, in minutes, and what is told of it: the oldest first, so that
/// the newest lies on top of its like.
const JOBS: &[(i64, Tell)] = &[
    (60 * 24 * 40, points_lever),
    (60 * 24 * 21, winch_hook),
    (60 * 24 * 9, drill_plate),
    (60 * 24 * 6, glasshouse_bracket),
    (60 * 24 * 3, chain_wheel),
    (60 * 9, malt_gear),
    (50, bell_bearing),
    (60 * 7, press_side),
];

/// Fills a data folder in which no job is yet.
///
/// # Errors
/// The database cannot be written.
pub async fn fill_if_empty(desk: &Desk) -> anyhow::Result<()> {
    if store::any(&desk.database.pool).await? {
        return Ok(());
    }
    let now_ms = desk.now_ms();
    let mut words = desk.shop().await?.facts.to_vec();
    let before = words.len();
    for (key, typed) in typed_of_the_shop() {
        let change = ShopWord::Set { key, typed, shown_in: UnitSystem::Metric };
        let understood = may_be_said(&words, &change, "")
            .map_err(|problem| anyhow!("the sample shop says {change:?}: {problem:?}"))?;
        words.push(ShopFact {
            id: Uuid::new_v4(),
            revision: words.last().map_or(1, |last| last.revision + 1),
            at_client_ms: now_ms,
            at_server_ms: now_ms,
            who: String::new(),
            sender: String::new(),
            change,
            understood,
        });
    }
    let shop = Shop::of_log(&settings(&words), &words);
    let mut jobs = Vec::with_capacity(JOBS.len());
    for (age_min, tell) in JOBS {
        let mut told = Told::new(&shop, now_ms, *age_min);
        tell(&mut told);
        jobs.push(told.job()?);
    }
    desk.fill(words.split_off(before), jobs).await.context("the sample cannot be stored")
}

/// The sample shop and its jobs without a database: what the benchmarks work on.
///
/// # Errors
/// The sample shop says something a person could not.
pub fn sample_jobs(now_ms: i64) -> anyhow::Result<(Shop, Vec<Job>)> {
    let values: BTreeMap<String, Held> = typed_of_the_shop()
        .into_iter()
        .filter_map(|(key, typed)| {
            let value = parse_value(&key, shop_field(&key)?, &typed, UnitSystem::Metric).ok()?;
            Some((key, Held { typed, value, revision: 1, not_understood: String::new() }))
        })
        .collect();
    let shop = Shop::of(&values);
    let mut jobs = Vec::with_capacity(JOBS.len());
    for (age_min, tell) in JOBS {
        let mut told = Told::new(&shop, now_ms, *age_min);
        tell(&mut told);
        if let Some(wrong) = told.wrong {
            return Err(wrong);
        }
        jobs.push(told.job);
    }
    Ok((shop, jobs))
}

/// A job as it is told, each word checked as if somebody had typed it.
struct Told<'a> {
    id: Uuid,
    shop: &'a Shop,
    /// When the next thing is said.
    at_ms: i64,
    now_ms: i64,
    facts: Vec<Fact>,
    job: Job,
    wrong: Option<anyhow::Error>,
    pictures: Vec<(Uuid, Shrunk)>,
}

/// A picture of the sample shop, drawn for it: as it is kept, and small.
macro_rules! drawn {
    ($name:literal) => {
        (
            include_bytes!(concat!("../sample/", $name, ".jpg")).as_slice(),
            include_bytes!(concat!("../sample/", $name, "-small.jpg")).as_slice(),
        )
    };
}

const MINUTE_MS: i64 = 60_000;

impl<'a> Told<'a> {
    fn new(shop: &'a Shop, now_ms: i64, age_min: i64) -> Self {
        let id = Uuid::new_v4();
        Self {
            id,
            shop,
            at_ms: now_ms - age_min * MINUTE_MS,
            now_ms,
            facts: Vec::new(),
            job: Job::fold(id, &[]),
            wrong: None,
            pictures: Vec::new(),
        }
    }

    fn say(&mut self, change: Change) -> Uuid {
        let id = Uuid::new_v4();
        let allowed = || plan(&self.job, self.shop).allows();
        if let Err(refused) = accept(&self.job, allowed, &change, None, "", None) {
            self.wrong.get_or_insert_with(|| anyhow!("the sample shop says {change:?}: {refused:?}"));
            return id;
        }
        let at_ms = self.at_ms.min(self.now_ms);
        self.facts.push(Fact {
            id,
            revision: self.facts.len() as u64 + 1,
            at_client_ms: at_ms,
            at_server_ms: at_ms,
            who: "bench".to_owned(),
            sender: String::new(),
            understood: Understood::of(&change, None),
            change,
        });
        self.refold();
        id
    }

    fn refold(&mut self) {
        let before = std::mem::replace(&mut self.job, Job::fold(self.id, &self.facts));
        self.job.record_of(before);
    }

    fn set(&mut self, key: &str, typed: &str) {
        self.say(Change::Set { key: key.to_owned(), typed: typed.to_owned(), shown_in: UnitSystem::Metric });
    }

    fn measured(&mut self, crack: Uuid, what: SeamReadingKind, number: Option<u32>, typed: &[(&str, &str)]) {
        let typed = typed.iter().map(|(name, mm)| ((*name).to_owned(), (*mm).to_owned())).collect();
        self.say(Change::MeasureSeam { crack, what, number, typed, shown_in: UnitSystem::Metric });
    }

    fn part(&mut self, facts: &[(&str, &str)]) {
        for (key, typed) in facts {
            self.set(&format!("part.{key}"), typed);
        }
        self.wait(4);
    }

    fn tried(&mut self, test: &str, outcome: &str, confidence: Confidence) {
        self.say(Change::Observe {
            test: test.to_owned(),
            outcome: outcome.to_owned(),
            confidence,
            spot: "first spot".to_owned(),
        });
        self.wait(2);
    }

    fn taken(&mut self, (jpeg, small): (&[u8], &[u8]), shows: &str) -> Uuid {
        let id = self.say(Change::AddPicture);
        self.pictures.push((
            id,
            // As they were drawn.
            Shrunk { width: 800, height: 600, jpeg: jpeg.to_vec(), small: small.to_vec() },
        ));
        self.set(&picture_key(id, "shows"), shows);
        id
    }

    /// A plain face, its outline a rectangle.
    fn face(&mut self, name: &str, across: &str, down: &str) -> Uuid {
        let face = self.say(Change::AddFace);
        for (field, typed) in [("name", name), ("outline", "rectangle"), ("across", across), ("down", down)] {
            self.set(&face_key(face, field), typed);
        }
        face
    }

    fn draw(&mut self, mark: Uuid, face: Uuid, shape: Shape) {
        self.say(Change::Draw { drawn: vec![Drawn { mark, face, shape: Some(shape) }] });
        self.wait(1);
    }

    fn stays_cool(&mut self, what: &str, limit: &str) {
        let id = self.say(Change::AddNeighbour);
        self.set(&neighbour_key(id, "what"), what);
        self.set(&neighbour_key(id, "limit"), limit);
    }

    fn marked(&mut self, mark: &str, spot: &str) {
        self.say(Change::Measure {
            test: "mark".to_owned(),
            typed: BTreeMap::from([("mark".to_owned(), mark.to_owned())]),
            shown_in: UnitSystem::Metric,
            confidence: Confidence::Sure,
            spot: spot.to_owned(),
        });
        self.wait(1);
    }

    fn crack(&mut self, facts: &[(&str, &str)]) -> Uuid {
        let crack = self.say(Change::AddCrack);
        for (field, typed) in facts {
            self.set(&crack_key(crack, field), typed);
        }
        self.wait(5);
        crack
    }

    /// The day so many days from now.
    fn day_in(&self, days: i64) -> String {
        let then = jiff::Timestamp::from_millisecond(self.now_ms + days * 1440 * MINUTE_MS);
        then.map_or(String::new(), |then| then.to_zoned(jiff::tz::TimeZone::UTC).date().to_string())
    }

    fn wait(&mut self, minutes: i64) {
        self.at_ms += minutes * MINUTE_MS;
    }

    fn torch(&mut self, entry: TorchEntry) {
        self.say(Change::Torch { entry });
    }

    /// Lights up and lets the simulated pad run, laying every bead of the plan so many minutes apart.
    fn heat(&mut self, every_min: i64) {
        self.set("prep.done", "holes,groove,inside,penetrant,paint");
        let frozen = Some(Box::new(plan(&self.job, self.shop).frozen()));
        let from_ms = self.at_ms;
        self.say(Change::Light {
            speed: 1.0,
            frozen,
            owned: String::new(),
            what: Lighting::Main,
            without: Vec::new(),
        });
        let now = plan(&self.job, self.shop);
        let ready = now.lines.first().map_or(0.0, |line| line.beads_from);
        let (beads, peens) = now.torch.map_or((0, false), |torch| (torch.planned, torch.peen));
        self.at_ms = from_ms + (ready * 60_000.0) as i64;
        for _ in 0..beads {
            self.torch(TorchEntry::Bead { at: None });
            if peens {
                self.at_ms += MINUTE_MS / 2;
                self.torch(TorchEntry::Peened);
            }
            self.wait(every_min);
        }
    }

    /// Covers it and records what the pad showed, up to `until_min` after that, at most until now.
    fn cover(&mut self, until_min: i64) {
        self.torch(TorchEntry::Covered { why: String::new() });
        self.wait(until_min);
        self.record();
    }

    /// Cold and unwrapped, as a hand held to it says.
    fn unwrap(&mut self) {
        self.torch(TorchEntry::Reading {
            typed: "24 C".to_owned(),
            shown_in: UnitSystem::Metric,
            joint: false,
            gun: None,
        });
        self.torch(TorchEntry::Unwrapped);
    }

    fn record(&mut self) {
        let until_ms = self.at_ms.min(self.now_ms);
        let now = plan(&self.job, self.shop);
        let Some(mut pad) = Pad::on(&self.job, &now, self.shop) else { return };
        let due = pad.advance_to(pad.minutes_at(until_ms));
        if let Some(round) = self.job.rounds.last_mut() {
            round.readings = due;
        }
    }

    /// The whole job, to be stored.
    fn job(self) -> anyhow::Result<NewJob> {
        if let Some(wrong) = self.wrong {
            return Err(wrong);
        }
        let created_ms = self.facts.first().map_or(self.now_ms, |fact| fact.at_server_ms);
        let rounds = self.job.rounds;
        let readings = rounds
            .into_iter()
            .filter_map(|round| {
                let read = round.readings.into_iter().map(Recorded::from).collect();
                Some((round.lit?.fact, read))
            })
            .collect();
        Ok(NewJob { id: self.id, created_ms, facts: self.facts, readings, pictures: self.pictures })
    }
}

/// Hot and cooling right now.
fn press_side(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Letterpress side frame"),
        ("owner", "Tern Lane print room"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "24 kg"),
        ("length", "460 mm"),
        ("width", "280 mm"),
        ("height", "90 mm"),
        ("shape", "ribbed_or_open_frame"),
        ("wall", "14 mm"),
        ("break_station", "35"),
        ("service_temperature", "35 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("cause", "overload"),
        ("oil", "baked_clean"),
        ("coating", "paint"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("machined", "elsewhere"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("frame"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    told.crack(&[
        ("length", "118"),
        ("wall", "14"),
        ("found_by", "dye"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.crack(&[
        ("length", "46"),
        ("wall", "12"),
        ("found_by", "dye"),
        ("end_a", "branch"),
        ("end_b", "tip"),
    ]);
    told.set("heat.source", "kiln");
    told.set("method.choice", "arc_nickel_iron");
    told.set("method.school", "hot");
    told.set("method.reason", "the owner wants it as strong as it was");
    told.wait(30);
    told.heat(1);
    told.cover(60 * 24);
}

/// Being mapped: one tip was only seen by eye.
fn bell_bearing(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Bell frame bearing block"),
        ("owner", "Ringers of Lower Marl"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "9.5 kg"),
        ("length", "230"),
        ("width", "110"),
        ("height", "95"),
        ("shape", "solid_block"),
        ("wall", "22"),
        ("break_station", "50"),
        ("service_temperature", "20 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,shock"),
        ("cause", "overload"),
        ("place", "bench"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("keep_off", "the bored face"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.stays_cool("white-metal shell", "180 C");
    told.taken(drawn!("block"), "overall");
    told.tried("file", "bites", Confidence::Sure);
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Fair);
    told.crack(&[
        ("length", "64"),
        ("wall", "22"),
        ("found_by", "magnetic"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.crack(&[("length", "38"), ("wall", "22"), ("found_by", "eye"), ("end_a", "tip"), ("end_b", "tip")]);
}

/// Ductile leads; the method is between two.
fn malt_gear(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Malt conveyor sprocket arm"),
        ("owner", "Quarry Hill brewery"),
        ("family", "loaded_moving"),
        ("era", "1970_on"),
        ("safety_class", "none"),
        ("length", "310"),
        ("width", "85"),
        ("height", "60"),
        ("shape", "solid_block"),
        ("wall", "16"),
        ("break_station", "25"),
        ("service_temperature", "40 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "until_new"),
        ("replacement_price", "640"),
        ("replacement_wait", "9 weeks"),
        ("downtime", "85"),
        ("loads", "bending,shock"),
        ("cause", "impact"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("marks", "hidden"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    let wanted = told.day_in(4);
    told.set("part.wanted", &wanted);
    told.taken(drawn!("arm"), "overall");
    told.tried("punch", "raises_rim", Confidence::Sure);
    told.tried("drill", "short_curls", Confidence::Fair);
    told.crack(&[("length", "52"), ("wall", "16"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]);
}

/// The first round cracked beside the weld; the second is being mapped.
fn chain_wheel(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Biscuit oven chain wheel"),
        ("owner", "Harrow Street bakery"),
        ("family", "machine_frame"),
        ("era", "1949_1969"),
        ("safety_class", "none"),
        ("mass", "13 kg"),
        ("length", "380"),
        ("width", "380"),
        ("height", "50"),
        ("shape", "spoked_wheel"),
        ("wall", "11"),
        ("break_station", "80"),
        ("service_temperature", "90 C"),
        ("heat_cycling", "yes"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static"),
        ("cause", "heat_cycling"),
        ("old_filler", "none"),
        ("cavity", "none"),
        ("oil", "baked_clean"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("wheel"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    let spoke = told.crack(&[
        ("length", "44"),
        ("wall", "11"),
        ("found_by", "chalk_and_oil"),
        ("end_a", "edge"),
        ("end_b", "tip"),
    ]);
    told.set("heat.source", "kiln");
    told.set("method.choice", "torch_braze");
    told.set("method.reason", "a spoked wheel: no melting in it");
    told.wait(20);
    told.heat(3);
    told.cover(60 * 20);
    told.unwrap();
    told.wait(60);
    told.set("check.clean", "ok");
    told.set("check.cracks_again", "not_ok");
    told.say(Change::NewRound { reason: "dye shows it ran on past the hole at the rim".to_owned() });
    told.set(&crack_key(spoke, "length"), "61");
    told.set(&crack_key(spoke, "found_by"), "dye");
    told.crack(&[("length", "23"), ("wall", "11"), ("found_by", "dye"), ("end_a", "branch")]);
}

/// Mapped on a straightened picture: a branched crack, the same seen from behind, a corner broken off.
fn drill_plate(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Seed drill lever plate"),
        ("owner", "Ploughland relics group"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "5.4 kg"),
        ("length", "260"),
        ("width", "170"),
        ("height", "40"),
        ("shape", "ribbed_or_open_frame"),
        ("wall", "13"),
        ("break_station", "60"),
        ("service_temperature", "25 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("cause", "overload"),
        ("old_filler", "none"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    let picture = told.taken(drawn!("plate"), "overall");
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    let front = told.face("front", "260", "170");
    told.say(Change::Straighten {
        face: front,
        picture,
        points_px: vec![[92.0, 96.0], [716.0, 62.0], [742.0, 498.0], [66.0, 548.0]],
        size_px: [800.0, 600.0],
        typed: BTreeMap::from([
            ("across".to_owned(), "260".to_owned()),
            ("down".to_owned(), "170".to_owned()),
        ]),
        shown_in: UnitSystem::Metric,
    });
    for (x_mm, y_mm) in [(60.0, 50.0), (205.0, 140.0)] {
        let hole = told.say(Change::AddMark { what: MarkKind::BoltHole });
        told.draw(hole, front, Shape::Circle { x_mm, y_mm, radius_mm: 11.0 });
    }
    let a = told.crack(&[("found_by", "dye")]);
    told.draw(
        a,
        front,
        line(
            &[
                (260.0, 97.0),
                (255.5, 94.6),
                (243.6, 94.0),
                (233.6, 90.7),
                (229.8, 92.0),
                (223.8, 89.1),
                (220.4, 90.4),
                (211.5, 85.5),
                (205.0, 86.0),
                (198.9, 84.2),
                (194.4, 85.9),
                (180.2, 81.9),
                (164.4, 81.9),
                (159.9, 80.5),
                (155.9, 81.2),
                (150.0, 80.0),
                (144.8, 80.0),
                (135.8, 75.0),
                (128.7, 75.8),
                (108.0, 70.0),
                (80.4, 59.0),
                (76.3, 54.6),
                (70.6, 53.2),
            ],
            Some((11.0, 15.0)),
        ),
    );
    let b = told.crack(&[("found_by", "dye"), ("end_b", "tip")]);
    told.draw(
        b,
        front,
        line(
            &[
                (150.0, 80.0),
                (146.3, 84.5),
                (140.0, 97.6),
                (139.0, 103.0),
                (135.5, 107.8),
                (133.4, 119.2),
                (129.5, 122.7),
                (128.0, 128.0),
            ],
            None,
        ),
    );
    let back = told.face("back", "260", "170");
    told.set(&face_key(back, "back_of"), &front.to_string());
    // Seen from behind, and 6 mm further.
    told.draw(b, back, line(&[(110.0, 80.0), (121.2, 104.5), (134.6, 133.6)], None));
    let foot = told.face("foot", "150", "48");
    let c = told.crack(&[("wall", "16"), ("found_by", "eye"), ("piece", "there")]);
    told.draw(c, foot, line(&[(96.0, 0.0), (99.0, 14.0), (94.0, 31.0), (97.0, 48.0)], None));
    let corner = told.say(Change::AddMark { what: MarkKind::MissingPiece });
    let points = [(128.0, 0.0), (150.0, 0.0), (150.0, 17.0), (139.0, 12.0)].map(|(x, y)| At::new(x, y));
    told.draw(corner, foot, Shape::Outline { points: points.to_vec() });
    told.set(&mark_key(corner, "thickness"), "16");
    told.set(&crack_key(c, "old_share"), "20");
    told.set(&crack_key(c, "align_by"), "pin,straight_edge");
    told.set("method.choice", "arc_nickel_iron");
    let bore = told.say(Change::AddMark { what: MarkKind::Feature });
    for (field, typed) in [
        ("kind", "bore"),
        ("datum", "bolt hole 1"),
        ("nominal", "22"),
        ("tolerance", "0.1"),
        ("before", "22.05"),
    ] {
        told.set(&mark_key(bore, field), typed);
    }
    // On the bench: the break is fitted and half tacked, the long crack half ground.
    told.wait(40);
    told.measured(c, SeamReadingKind::FitUp, None, &[("at", "12"), ("gap", "0.3"), ("step", "0.2")]);
    told.measured(c, SeamReadingKind::Rock, None, &[("rock", "0.2"), ("over", "150")]);
    told.measured(c, SeamReadingKind::Pin, None, &[("run_out", "0.1")]);
    told.measured(c, SeamReadingKind::Tack, Some(1), &[("moved", "0")]);
    told.wait(25);
    told.measured(a, SeamReadingKind::Depth, None, &[("at", "20"), ("depth", "5.5")]);
    told.measured(a, SeamReadingKind::Depth, None, &[("at", "90"), ("depth", "4")]);
    let done =
        [(Work::Clean, None), (Work::FitUp, Some(c)), (Work::TackGroove, Some(c)), (Work::Witness, None)];
    let work = plan(&told.job, told.shop).prep.map(|prep| prep.work).unwrap_or_default();
    for (what, at) in done {
        let lines = work.iter().filter(|line| line.step.what == what && (at.is_none() || line.step.at == at));
        for line in lines {
            told.say(Change::Tick { step: line.step, done: true });
        }
    }
}

/// A line along these places, its wall even, or changing from its last to its first.
fn line(places: &[(f64, f64)], walls_mm: Option<(f64, f64)>) -> Shape {
    let last = places.len() - 1;
    let vertex = |(at, &(x_mm, y_mm)): (usize, &(f64, f64))| {
        let wall_mm = walls_mm.filter(|_| at == 0 || at == last);
        let wall_mm = wall_mm.map(|(at_last, at_first)| if at == 0 { at_first } else { at_last });
        Vertex { x_mm, y_mm, wall_mm }
    };
    Shape::Line { points: places.iter().enumerate().map(vertex).collect() }
}

/// Malleable: no gas fusion; stitched or brazed.
fn glasshouse_bracket(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Glasshouse vent quadrant"),
        ("owner", "Walled garden trust"),
        ("family", "small_hardware"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "1.8 kg"),
        ("length", "240"),
        ("width", "60"),
        ("height", "40"),
        ("shape", "solid_block"),
        ("wall", "9"),
        ("break_station", "60"),
        ("service_temperature", "45 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "bending"),
        ("coating", "paint"),
        ("seen", "painted"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.taken(drawn!("quadrant"), "mark");
    told.tried("punch", "raises_rim", Confidence::Sure);
    told.tried("drill", "short_curls", Confidence::Sure);
    told.tried("file", "bites", Confidence::Sure);
    told.marked("GTS 35", "on the boss");
}

/// Refused for safety.
fn winch_hook(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Lock paddle winch hook"),
        ("owner", "Canal society"),
        ("family", "loaded_moving"),
        ("era", "unknown"),
        ("mass", "3.4 kg"),
        ("wall", "18"),
        ("safety_class", "lifting"),
    ]);
}

/// Finished, with its record.
fn points_lever(told: &mut Told<'_>) {
    told.part(&[
        ("name", "Incline railway points lever"),
        ("owner", "Slate tramway museum"),
        ("family", "machine_frame"),
        ("era", "before_1949"),
        ("safety_class", "none"),
        ("mass", "7.6 kg"),
        ("length", "340"),
        ("width", "95"),
        ("height", "70"),
        ("shape", "solid_block"),
        ("wall", "12"),
        ("break_station", "45"),
        ("service_temperature", "30 C"),
        ("heat_cycling", "no"),
        ("holds", "nothing"),
        ("life", "good"),
        ("loads", "static,bending"),
        ("old_filler", "none"),
        ("oil", "clean"),
        ("sides", "both"),
    ]);
    told.tried("punch", "crumbles_no_rim", Confidence::Sure);
    told.tried("drill", "powder_and_crumbs", Confidence::Sure);
    told.crack(&[("length", "72"), ("wall", "12"), ("found_by", "dye"), ("end_a", "edge"), ("end_b", "tip")]);
    told.set("heat.source", "kiln");
    told.set("method.choice", "torch_braze");
    told.set("cooling.packing", "blanket");
    told.wait(15);
    told.heat(3);
    told.cover(60 * 20);
    told.unwrap();
    told.wait(90);
    for line in ["check.clean", "check.toes", "check.cracks_again", "check.alignment"] {
        told.set(line, "ok");
    }
    told.set("hand_over.expect", "Paint it when it is dry. Grease the pivot; do not hammer the pin home.");
    told.set("hand_over.follow_up", "2027-04-12");
    told.set("hand_over.done", "yes");
}
