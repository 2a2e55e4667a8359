//! Ten cases that are set up to teach one thing each.

use super::made_up::{Case, CrackTold, usual_gear, with_chance};
use crate::iron::Iron;
use crate::secret::{Draws, Gear, Hidden, Truth};

/// One of the ten.
#[derive(Debug, Clone, Copy)]
pub struct Lesson {
    pub id: &'static str,
    pub title: &'static str,
    /// What whoever brings it says.
    pub words: &'static str,
    /// What it is about: said when it is over.
    pub teaches: &'static str,
    part: &'static [(&'static str, &'static str)],
    cracks: &'static [CrackTold],
    sets_up: fn(&mut Truth, &mut Gear),
}

const fn crack(length_mm: f64, wall_mm: f64, ends: [&'static str; 2]) -> CrackTold {
    CrackTold { length_mm, wall_mm, ends }
}

/// In the order in which they are best taken.
pub const LESSONS: [Lesson; 10] = [
    Lesson {
        id: "test_first",
        title: "Gate latch, it is cast",
        words: "It is cast iron, it says so in the book. It broke when the gate blew shut. Can you weld it by noon?",
        teaches: "What iron it is, before any heat: malleable takes no weld.",
        part: &[
            ("family", "small_hardware"),
            ("era", "1949_1969"),
            ("mass", "1.8 kg"),
            ("length", "210"),
            ("width", "60"),
            ("height", "24"),
            ("shape", "solid_block"),
            ("wall", "10"),
            ("service_temperature", "40"),
            ("holds", "nothing"),
            ("cause", "impact"),
            ("cause_cured", "yes"),
            ("loads", "shock"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(38.0, 10.0, ["edge", "tip"])],
        sets_up: |truth, _| truth.iron = Iron::Malleable,
    },
    Lesson {
        id: "tip_missed",
        title: "Press side, a crack in plain sight",
        words: "You see it end, there, by the paint. It has been like that for a year, now it creeps.",
        teaches: "The eye sees a crack end before it does: dye or magnetic powder first, then the drill.",
        part: &[
            ("family", "machine_frame"),
            ("era", "before_1949"),
            ("mass", "11 kg"),
            ("length", "380"),
            ("width", "160"),
            ("height", "40"),
            ("shape", "solid_block"),
            ("wall", "18"),
            ("service_temperature", "40"),
            ("holds", "nothing"),
            ("cause", "overload"),
            ("cause_cured", "yes"),
            ("loads", "bending"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(74.0, 18.0, ["tip", "tip"])],
        sets_up: |truth, _| truth.iron = Iron::Gray,
    },
    Lesson {
        id: "small_torch",
        title: "Lathe foot, and a hand torch",
        words: "It is only the foot. My hand torch is good enough, it brazes taps all day.",
        teaches: "Forty kilograms drink more than a hand torch gives: the part never comes to its heat.",
        part: &[
            ("family", "machine_frame"),
            ("era", "before_1949"),
            ("mass", "38 kg"),
            ("length", "420"),
            ("width", "260"),
            ("height", "180"),
            ("shape", "ribbed_or_open_frame"),
            ("wall", "16"),
            ("service_temperature", "40"),
            ("holds", "nothing"),
            ("cause", "impact"),
            ("cause_cured", "yes"),
            ("loads", "static"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(96.0, 16.0, ["edge", "tip"])],
        sets_up: |truth, gear| {
            truth.iron = Iron::Gray;
            gear.sources =
                ["hand_torch_propane", "hand_torch_map", "weed_burner"].map(str::to_owned).to_vec();
        },
    },
    Lesson {
        id: "malleable_burnt",
        title: "Union elbow from a steam line that is gone",
        words: "Just run a bit of cast rod into it. The other three were done like that. One of them held.",
        teaches: "Malleable over its heat is white again: braze it, and no hotter than bronze needs.",
        part: &[
            ("family", "pipe_fitting"),
            ("era", "1970_on"),
            ("mass", "2.4 kg"),
            ("length", "160"),
            ("width", "110"),
            ("height", "80"),
            ("shape", "hollow_box"),
            ("wall", "7"),
            ("service_temperature", "60"),
            ("holds", "water"),
            ("cause", "freeze"),
            ("cause_cured", "yes"),
            ("loads", "static"),
            ("cavity", "vented"),
            ("oil", "clean"),
            ("sides", "one"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(46.0, 7.0, ["edge", "tip"])],
        sets_up: |truth, _| truth.iron = Iron::Malleable,
    },
    Lesson {
        id: "old_bronze",
        title: "Pump lug with a fresh coat",
        words: "It was painted when I bought it. The crack is where the paint is thick.",
        teaches: "Paint off first: over old bronze no weld holds, and bronze over bronze wants clean iron too.",
        part: &[
            ("family", "pump_valve"),
            ("era", "before_1949"),
            ("mass", "7.5 kg"),
            ("length", "240"),
            ("width", "190"),
            ("height", "140"),
            ("shape", "hollow_box"),
            ("wall", "11"),
            ("service_temperature", "50"),
            ("holds", "water"),
            ("cause", "overload"),
            ("cause_cured", "yes"),
            ("loads", "static"),
            ("cavity", "vented"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(58.0, 11.0, ["edge", "tip"])],
        sets_up: |truth, _| {
            truth.iron = Iron::Gray;
            truth.old_bronze = true;
        },
    },
    Lesson {
        id: "hot_service",
        title: "Stove top ring",
        words: "It cracked beside the fire hole. Bronze looked fine last time, for a fortnight.",
        teaches: "Where it glows, bronze lets go: what it is used at decides before the iron does.",
        part: &[
            ("family", "hot_exhaust"),
            ("era", "before_1949"),
            ("mass", "7.3 kg"),
            ("length", "340"),
            ("width", "340"),
            ("height", "9"),
            ("shape", "thin_plate"),
            ("wall", "9"),
            ("holds", "nothing"),
            ("cause", "heat_cycling"),
            ("cause_cured", "no"),
            ("heat_cycling", "yes"),
            ("loads", "static"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(64.0, 9.0, ["edge", "tip"])],
        sets_up: |truth, gear| {
            truth.iron = Iron::Gray;
            truth.service_c = Some(560.0);
            gear.rods.push("iron_rod".to_owned());
        },
    },
    Lesson {
        id: "cold_sand",
        title: "Plane table, and a sand heap in the yard",
        words: "Into the sand with it when you are done, we always did. Some came out with a ping.",
        teaches: "Cold sand takes the heat faster than the iron can give it: a dry, light, thick packing.",
        part: &[
            ("family", "machine_frame"),
            ("era", "before_1949"),
            ("mass", "6.2 kg"),
            ("length", "420"),
            ("width", "180"),
            ("height", "11"),
            ("shape", "thin_plate"),
            ("wall", "11"),
            ("service_temperature", "30"),
            ("holds", "nothing"),
            ("cause", "impact"),
            ("cause_cured", "yes"),
            ("loads", "static"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(82.0, 11.0, ["edge", "tip"])],
        sets_up: |truth, gear| {
            truth.iron = Iron::Gray;
            gear.packings = ["dry_sand", "vermiculite"].map(str::to_owned).to_vec();
        },
    },
    Lesson {
        id: "no_stop",
        title: "Hammer bracket",
        words: "Fill it and file it flat, do not make holes in it, the owner wants it pretty.",
        teaches: "A tip without a hole goes on under the filler: shock finds it.",
        part: &[
            ("family", "loaded_moving"),
            ("era", "before_1949"),
            ("mass", "5.4 kg"),
            ("length", "260"),
            ("width", "120"),
            ("height", "50"),
            ("shape", "solid_block"),
            ("wall", "14"),
            ("service_temperature", "30"),
            ("holds", "nothing"),
            ("cause", "impact"),
            ("cause_cured", "yes"),
            ("loads", "shock"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(52.0, 14.0, ["tip", "tip"])],
        sets_up: |truth, _| truth.iron = Iron::Gray,
    },
    Lesson {
        id: "wrong_filler",
        title: "Steering knuckle of a hand cart",
        words: "There is half a bundle of cast rods on the shelf, iron to iron, what could be wrong.",
        teaches: "Ductile wants a rod that stays ductile: a gray rod leaves a gray, brittle seam in it.",
        part: &[
            ("family", "loaded_moving"),
            ("era", "1970_on"),
            ("mass", "3.8 kg"),
            ("length", "230"),
            ("width", "90"),
            ("height", "45"),
            ("shape", "solid_block"),
            ("wall", "15"),
            ("service_temperature", "30"),
            ("holds", "nothing"),
            ("cause", "overload"),
            ("cause_cured", "yes"),
            ("loads", "bending"),
            ("oil", "clean"),
            ("sides", "both"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(44.0, 15.0, ["edge", "tip"])],
        sets_up: |truth, gear| {
            truth.iron = Iron::Ductile;
            gear.rods = ["iron_rod", "iron_rod_b", "bronze", "nickel_iron"].map(str::to_owned).to_vec();
        },
    },
    Lesson {
        id: "leave_it",
        title: "A hair line in an old bed",
        words: "It was there when my father bought the machine. Somebody said it must be welded.",
        teaches: "What has stood still for sixty years may be left to stand: a repair is a risk, too.",
        part: &[
            ("family", "machine_frame"),
            ("era", "before_1949"),
            ("mass", "160 kg"),
            ("length", "1100"),
            ("width", "300"),
            ("height", "240"),
            ("shape", "closed_frame"),
            ("cavity", "none"),
            ("wall", "26"),
            ("service_temperature", "30"),
            ("holds", "nothing"),
            ("cause", "locked_in"),
            ("cause_cured", "no"),
            ("loads", "none"),
            ("oil", "soaked"),
            ("sides", "one"),
            ("safety_class", "none"),
        ],
        cracks: &[crack(60.0, 26.0, ["edge", "tip"])],
        sets_up: |truth, _| {
            truth.iron = Iron::Gray;
            truth.oil = true;
            truth.locked_in = true;
            truth.left_alone = 0.94;
            truth.hidden = Some(Hidden { length_mm: 40.0, wall_mm: 26.0 });
        },
    },
];

impl Lesson {
    /// Its case with this seed: what is not set up is drawn.
    #[must_use]
    pub fn case(&self, seed: u32) -> Case {
        let draws = Draws::of(u64::from(seed));
        let (mut truth, mut gear) = (with_chance(Truth::plain(), self.cracks, draws), usual_gear());
        (self.sets_up)(&mut truth, &mut gear);
        // What a lesson is about lies where it teaches it.
        if self.id == "tip_missed" || self.id == "no_stop" {
            let beyond = truth.cracks.iter().map(|crack| crack.beyond.map(|z| 0.9 + z.abs() / 3.0));
            truth.cracks = self.cracks.iter().zip(beyond).map(|(told, beyond)| told.truly(beyond)).collect();
        }
        let told = self.part.iter().map(|(key, typed)| (*key, (*typed).to_owned()));
        Case {
            title: self.title.to_owned(),
            words: self.words.to_owned(),
            lesson: self.id,
            seed,
            part: std::iter::once(("name", self.title.to_owned())).chain(told).collect(),
            cracks: self.cracks.to_vec(),
            truth,
            gear,
            limb_mm: None,
        }
    }
}

/// The lesson of this id.
#[must_use]
pub fn lesson(id: &str) -> Option<&'static Lesson> {
    LESSONS.iter().find(|lesson| lesson.id == id)
}
