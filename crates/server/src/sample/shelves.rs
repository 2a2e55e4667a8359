//! What the sample shop is set to, and what lies on its shelves: as if typed.

use uuid::Uuid;
use vanadin_core::field::store_key;
use vanadin_core::stores::id_of_a_list;

/// The sample shop's settings, as if typed.
const SETTINGS: &[(&str, &str)] = &[
    ("shop.name", "Lockside Iron Mending"),
    ("shop.units", "metric"),
    ("shop.theme", "shop"),
    ("shop.time_zone", "Europe/London"),
    ("shop.ambient", "18 C"),
    ("shop.currency", "£"),
    ("shop.rate", "46"),
    ("shop.low_rate", "5"),
    ("shop.small_things", "4"),
    ("shop.day_from", "8:00"),
    ("shop.day_to", "17:30"),
    ("shop.done_often", "torch_braze,arc_nickel_iron"),
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
pub(super) fn typed_of_the_shop() -> Vec<(String, String)> {
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
