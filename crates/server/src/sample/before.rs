//! What the sample shop mended in the two years before: put away by now, asked about since, learned from.

use vanadin_core::iron::Confidence;
use vanadin_core::job::Change;
use vanadin_core::stores::weighs_kg_m3;

use super::told::{Really, SampleJob};

/// A repair of before, as if typed.
pub(super) struct Before {
    /// Days ago that it came in.
    pub days: i64,
    name: &'static str,
    owner: &'static str,
    era: &'static str,
    mass: &'static str,
    /// Length, width, height.
    size: [&'static str; 3],
    shape: &'static str,
    wall: &'static str,
    crack: &'static str,
    source: &'static str,
    method: &'static str,
    /// The method's own where nothing was chosen.
    school: &'static str,
    packing: &'static str,
    /// Minutes from bead to bead.
    every_min: i64,
    /// What it did, and after how many days that was said.
    became: (&'static str, i64),
}

const USUAL: Before = Before {
    days: 0,
    name: "",
    owner: "",
    era: "before_1949",
    mass: "5 kg",
    size: ["260", "90", "60"],
    shape: "solid_block",
    wall: "12",
    crack: "60",
    source: "weed_burner",
    method: "torch_braze",
    school: "",
    packing: "vermiculite",
    every_min: 3,
    became: ("holds", 180),
};

pub(super) const BEFORE: &[Before] = &[
    Before {
        days: 702,
        name: "Cider mill screw foot",
        owner: "Orchard Lane cider house",
        mass: "6.2 kg",
        size: ["280", "110", "70"],
        wall: "14",
        crack: "68",
        became: ("holds", 640),
        ..USUAL
    },
    Before {
        days: 655,
        name: "Turnip cutter side",
        owner: "Hill farm, Upper Marl",
        mass: "4.8 kg",
        size: ["310", "160", "35"],
        shape: "thin_plate",
        wall: "9",
        crack: "84",
        source: "kiln",
        method: "arc_nickel_iron",
        school: "hot",
        every_min: 2,
        became: ("fault", 210),
        ..USUAL
    },
    Before {
        days: 566,
        name: "Stove door hinge side",
        owner: "The old parsonage",
        era: "1949_1969",
        mass: "3.1 kg",
        size: ["240", "180", "14"],
        shape: "thin_plate",
        wall: "7",
        crack: "52",
        packing: "blanket",
        became: ("failed", 96),
        source: "oxy_acetylene_small",
        ..USUAL
    },
    Before {
        days: 488,
        name: "Weighbridge lever fulcrum",
        owner: "Corn exchange keepers",
        mass: "7.4 kg",
        size: ["300", "100", "80"],
        wall: "15",
        crack: "74",
        source: "kiln",
        method: "arc_nickel_iron",
        school: "hot",
        every_min: 2,
        became: ("holds", 420),
        ..USUAL
    },
    Before {
        days: 401,
        name: "Mangle frame foot",
        owner: "Harrow Street laundry museum",
        mass: "5.6 kg",
        size: ["270", "95", "65"],
        crack: "58",
        became: ("holds", 300),
        ..USUAL
    },
    Before {
        days: 322,
        name: "Sluice rack bracket",
        owner: "Basin boat yard",
        mass: "8.8 kg",
        size: ["320", "120", "80"],
        wall: "16",
        crack: "90",
        source: "kiln",
        packing: "blanket",
        became: ("holds", 250),
        ..USUAL
    },
    Before {
        days: 214,
        name: "Bell wheel rim clamp",
        owner: "Tower keepers, Long Marl",
        mass: "3.9 kg",
        size: ["220", "80", "60"],
        wall: "11",
        crack: "48",
        became: ("holds", 190),
        source: "oxy_acetylene_small",
        ..USUAL
    },
    Before {
        days: 128,
        name: "Stone saw slide end",
        owner: "Whetstone yard",
        mass: "6.6 kg",
        size: ["290", "105", "70"],
        wall: "13",
        crack: "66",
        source: "kiln",
        method: "arc_nickel_iron",
        school: "hot",
        every_min: 2,
        became: ("holds", 90),
        ..USUAL
    },
];

/// The torches and packings of this shop, against the book.
const REALLY: &[(&str, f64)] = &[("weed_burner", 0.86), ("oxy_acetylene_small", 1.07), ("blanket", 1.06)];

fn really(id: &str) -> f64 {
    REALLY.iter().find(|(known, _)| *known == id).map_or(1.0, |(_, factor)| *factor)
}

impl Before {
    /// Rods and gas, as much as this shop really uses of them: a flame that gives less burns longer.
    fn used(&self, told: &mut SampleJob<'_>) {
        let rods = [0.0, 1.0, -1.0][self.name.len() % 3];
        for line in told.plan().hand_over.really.lines {
            let Some(planned) = line.planned else { continue };
            let burnt_m3 = planned / really(self.source);
            let typed = match (line.what.as_str(), weighs_kg_m3(&line.what)) {
                (_, Some(kg_m3)) => format!("{:.2} kg", kg_m3 * burnt_m3),
                ("oxygen" | "acetylene", _) => format!("{burnt_m3:.2} m³"),
                _ if planned.fract() == 0.0 => format!("{}", (planned + rods).max(1.0)),
                _ => continue,
            };
            told.say(Change::Use { what: line.what, size_mm: line.size_mm, typed, holds_m3: None });
        }
    }

    pub(super) fn tell(&self, told: &mut SampleJob<'_>) {
        told.really = Really { heats: really(self.source), cools: really(self.packing) };
        let [length, width, height] = self.size;
        told.part(&[
            ("name", self.name),
            ("owner", self.owner),
            ("family", "machine_frame"),
            ("era", self.era),
            ("safety_class", "none"),
            ("mass", self.mass),
            ("length", length),
            ("width", width),
            ("height", height),
            ("shape", self.shape),
            ("wall", self.wall),
            ("break_station", "45"),
            ("service_temperature", "25 C"),
            ("heat_cycling", "no"),
            ("holds", "nothing"),
            ("life", "good"),
            ("loads", "static,bending"),
            ("cause", "overload"),
            ("old_filler", "none"),
            ("cavity", "none"),
            ("oil", "clean"),
            ("sides", "both"),
        ]);
        told.tried("punch", "crumbles_no_rim", Confidence::Sure);
        told.tried("drill", "powder_and_crumbs", Confidence::Sure);
        told.crack(&[
            ("length", self.crack),
            ("wall", self.wall),
            ("found_by", "dye"),
            ("end_a", "edge"),
            ("end_b", "tip"),
        ]);
        told.set("heat.source", self.source);
        told.set("method.choice", self.method);
        if !self.school.is_empty() {
            told.set("method.school", self.school);
        }
        told.set("cooling.packing", self.packing);
        told.wait(30);
        told.heat(self.every_min);
        told.cover(60 * 20);
        told.unwrap();
        told.wait(60);
        for line in told.plan().check {
            told.set(&line.key, "ok");
        }
        told.set(
            "hand_over.expect",
            "Paint it when it is dry. Tell us if it leaks, moves or rings otherwise.",
        );
        let asked = told.day_in(self.became.1 - self.days);
        told.set("hand_over.follow_up", &asked);
        self.used(told);
        told.set("hand_over.done", "yes");
        told.wait(self.became.1 * 24 * 60);
        told.set("hand_over.became", self.became.0);
        told.say(Change::PutAway);
    }
}
