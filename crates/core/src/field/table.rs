//! Every field a person can type into. The forms are made from this, and checked by it.

use super::choices::{self, NONE};
use super::holds::{Many, Number, One, OneOf, Several, Text, YesNo};
use super::spec::{date, key_of_one, length, many, one, one_of, quantity, several, text, yes_no};
use super::{Choice, Field, FieldOfEach, FieldSpec};
use crate::body::{Shock, Towards};
use crate::casting::old_filler::OldFiller;
use crate::casting::said::{
    Authority, BrokeBy, Cavity, Coating, Contents, Hazard, Lifetime, Load, Machined, MendedAt, Oil, Reached,
    SafetyClass, SeenAs, Shows, TestMarks,
};
use crate::casting::shape::PartShape;
use crate::crack::said::{Behind, CrackFate, Edges, EndKind, PieceState, SeamReach, TipWay, WitnessSide};
use crate::crack::stop_hole::FoundBy;
use crate::faults::acceptance::Checked;
use crate::finish::{CoatedWith, FinishAs};
use crate::heat::{DyingFire, HeatSource, Packing, PadOn, ReadOff};
use crate::iron::{Era, Family};
use crate::map::FACE_MOST_MM;
use crate::map::OutlineKind;
use crate::method::became::Became;
use crate::method::customs::{
    After, BeadLength, Blend, BrazePreheat, Dirt, Fixture, GasHeat, GrooveDepth, NickelPreheat, NickelUnder,
    OldWeld, Peening, PinDensity, Polarity, Pores, Sides, StopHoleAt,
};
use crate::method::{MethodId, School};
use crate::prep::said::{AlignBy, ClosedBy, PatchSkin, PinKind, PrepDone, SeamForm, SizeKind, TakenOffBy};
use crate::quantity::Kind;
use crate::shelf::{BEADS, FILES, KIND_CHOICES, LOOKS, MAGNETS, SPARKS};

/// Fields by room and name, and the list of them all in the order of the table.
macro_rules! fields {
    ($(#[$doc:meta])* $list:ident $($room:ident {$($(#[$of:meta])* $name:ident: $holds:ty = $field:expr;)*})*) => {
        $(pub mod $room {
            use super::*;
            $($(#[$of])* pub const $name: Field<$holds> = $field;)*
        })*
        $(#[$doc])*
        pub const $list: &[FieldSpec] = &[$($($room::$name.spec),*),*];
    };
}

/// The fields that each of several things has.
macro_rules! fields_of_each {
    ($(#[$doc:meta])* $list:ident $room:ident {$($name:ident: $holds:ty = $field:expr;)*}) => {
        pub mod $room {
            use super::*;
            $(pub const $name: FieldOfEach<$holds> = FieldOfEach::new(stringify!($room), $field);)*
        }
        $(#[$doc])*
        pub const $list: &[FieldSpec] = &[$($room::$name.field.spec),*];
    };
}

/// Sources and packings with an answer for a shop that has none.
const fn or_none<const N: usize, const M: usize>(known: &[Choice; N]) -> [Choice; M] {
    let mut choices = [(NONE, "None"); M];
    let mut at = 0;
    while at < N {
        choices[at] = known[at];
        at += 1;
    }
    choices
}

const METHODS_OR_NONE: &[Choice] = &{
    let mut choices = [(NONE, "None"); MethodId::CHOICES.len() + 1];
    let mut at = 0;
    while at < MethodId::CHOICES.len() {
        choices[at] = MethodId::CHOICES[at];
        at += 1;
    }
    choices
};
const SOURCES_OR_NONE: [Choice; HeatSource::CHOICES.len() + 1] = or_none(HeatSource::CHOICES);

/// House: letters of a note.
const NOTE_MOST: usize = 600;
/// Bounds of a share in %, by definition.
const PERCENT: (f64, f64) = (0.0, 100.0);
/// House: bounds of a temperature in degC, from a cold yard to molten iron.
const TEMPERATURE: (f64, f64) = (-40.0, 1400.0);

fields! {
/// Every field of a job but those of its cracks.
JOB_FIELDS
part {
    NAME: Text = text("part.name", "What is it?", 80);
    OWNER: Text = text("part.owner", "Whose is it?", 80);
    FAMILY: One<Family> = one("part.family", "What sort of part?");
    ERA: One<Era> = one("part.era", "When was it cast?");
    MASS: Number = quantity("part.mass", "Weight", Kind::Mass, (0.01, 20_000.0), "kg").like("{12 kg}");
    LENGTH: Number = length("part.length", "Length", 1.0, 20_000.0);
    WIDTH: Number = length("part.width", "Width", 1.0, 20_000.0);
    HEIGHT: Number = length("part.height", "Height", 1.0, 20_000.0);
    SHAPE: One<PartShape> = one("part.shape", "Shape");
    WALL: Number = length("part.wall", "Wall at the break", 1.0, 300.0).like("{12 mm}");
    BREAK_STATION: Number = quantity("part.break_station", "Break lies at, % of the longest side", Kind::Percent, PERCENT, "%");
    SERVICE_TEMPERATURE: Number = quantity("part.service_temperature", "Hottest in service", Kind::Temperature, TEMPERATURE, "°C").like("{80 degC}");
    HEAT_CYCLING: YesNo = yes_no("part.heat_cycling", "Heats and cools in service");
    SERVICE_TIME: Number = quantity("part.service_time", "Each time for", Kind::Duration, (1.0, 525_600.0), "min");
    /// Asked until `part.holds` was: job files have it.
    FLUID_TIGHT: YesNo = yes_no("part.fluid_tight", "Must hold fluid?");
    HOLDS: One<Contents> = one("part.holds", "What does it hold?");
    PRESSURE: Number = quantity("part.pressure", "Under pressure of", Kind::GaugePressure, (0.0, 1000.0), "bar").like("{6 bar}");
    CAUSE: One<BrokeBy> = one("part.cause", "How did it break?");
    CAUSE_CURED: YesNo = yes_no("part.cause_cured", "Is that put right?");
    LOADS: Several<Load> = several("part.loads", "What it carries");
    LOAD: Number = quantity("part.load", "Hung or pulled there", Kind::Mass, (0.1, 50_000.0), "kg").like("{60 kg}");
    LOAD_AT: Text = text("part.load_at", "At which hole", 60).like("bolt hole 2");
    LOAD_TOWARDS: One<Towards> = one("part.load_towards", "As drawn it pulls");
    LOAD_HELD: Text = text("part.load_held", "Held at which hole", 60).like("bolt hole 1");
    LOAD_HOW: One<Shock> = one("part.load_how", "How it comes");
    LOAD_DROP: Number = length("part.load_drop", "Or falls from", 0.1, 20_000.0).like("{50 mm}");
    LOAD_GIVES: Number = length("part.load_gives", "And the part gives under its weight", 0.001, 1_000.0).like("{2 mm}");
    LOAD_OFTEN: YesNo = yes_no("part.load_often", "More than 10,000 times");
    RPM: Number = quantity("part.rpm", "Turns, a minute", Kind::Turns, (0.0, 60_000.0), "rpm");
    HURT: Text = text("part.hurt", "Who could be hurt, and how?", 120);
    OLD_FILLER: One<OldFiller> = one("part.old_filler", "Repaired before, with");
    OLD_FILLER_OUT: YesNo = yes_no("part.old_filler_out", "Can all of that come out?");
    COATING: Several<Coating> = several("part.coating", "On its faces");
    HAZARDS: Several<Hazard> = several("part.hazards", "Still on it");
    CAVITY: One<Cavity> = one("part.cavity", "A closed hollow?");
    PLACE: One<MendedAt> = one("part.place", "Where it is mended");
    SEEN: One<SeenAs> = one("part.seen", "The repaired face");
    KEEP_OFF: Text = text("part.keep_off", "Faces not to be touched", 120);
    MARKS: One<TestMarks> = one("part.marks", "Test marks");
    MACHINED: One<Machined> = one("part.machined", "Machined afterwards");
    MACHINED_WHAT: Text = text("part.machined_what", "What is machined", 120);
    WANTED: Text = date("part.wanted", "Wanted on");
    MACHINING_PRICE: Number = quantity("part.machining_price", "Machining elsewhere costs", Kind::Money, (0.0, 1e7), "");
    REPLACEMENT_PRICE: Number = quantity("part.replacement_price", "A new one costs", Kind::Money, (0.0, 1e7), "");
    REPLACEMENT_WAIT: Number = quantity("part.replacement_wait", "And comes in", Kind::Days, (0.0, 3_650.0), "days");
    DOWNTIME: Number = quantity("part.downtime", "A day of standing costs", Kind::Money, (0.0, 1e7), "");
    LIFE: One<Lifetime> = one("part.life", "Has to last");
    LIFE_WANTED: Number = quantity("part.life_wanted", "Or exactly", Kind::Days, (1.0, 36_500.0), "days");
    FACE: Text = text("part.face", "Picture on the rack", 36).of_the_piece();
    OIL: One<Oil> = one("part.oil", "Oil");
    SIDES: One<Reached> = one("part.sides", "Can be reached from");
    HEAT_SHY: Text = text("part.heat_shy", "What must stay cool?", 80);
    HEAT_SHY_LIMIT: Number = quantity("part.heat_shy_limit", "It must not pass", Kind::Temperature, TEMPERATURE, "°C");
    SAFETY_CLASS: One<SafetyClass> = one("part.safety_class", "Could it hurt somebody?");
    AUTHORITY: Text = text("part.authority", "Who answers for the repair?", 80);
    AUTHORITY_IS: One<Authority> = one("part.authority_is", "What are they?");
    AUTHORITY_LOOKED: Text = text("part.authority_looked", "What did they look at?", 120);
    AUTHORITY_REFERENCE: Text = text("part.authority_reference", "Their reference", 80);
    AUTHORITY_DAY: Text = date("part.authority_day", "Looked at on");
}
method {
    CHOICE: One<MethodId> = one("method.choice", "Method");
    SCHOOL: One<School> = one("method.school", "School");
    REASON: Text = text("method.reason", "Why", 200);
}
taught {
    POLARITY: One<Polarity> = one("taught.polarity", "Leads");
    PEENING: One<Peening> = one("taught.peening", "Peening");
    FIXTURE: One<Fixture> = one("taught.fixture", "Held");
    SIDES: One<Sides> = one("taught.sides", "Sides");
    DIRT: One<Dirt> = one("taught.dirt", "Dirt");
    BEAD: One<BeadLength> = one("taught.bead", "Bead");
    AFTER: One<After> = one("taught.after", "After the last bead");
    PORES: One<Pores> = one("taught.pores", "Pores");
    OLD_WELD: One<OldWeld> = one("taught.old_weld", "Old weld");
    DRILL: One<StopHoleAt> = one("taught.drill", "Stop-hole");
    DENSITY: One<PinDensity> = one("taught.density", "Pins");
    FINISH: One<Blend> = one("taught.finish", "Finish");
    GROOVE: One<GrooveDepth> = one("taught.groove", "Groove");
    NICKEL: One<NickelUnder> = one("taught.nickel", "Nickel under it");
    PREHEAT: One<NickelPreheat> = one("taught.preheat", "Nickel preheat");
    BRAZE_HEAT: One<BrazePreheat> = one("taught.braze_heat", "Arc bronze preheat");
    GAS_HEAT: One<GasHeat> = one("taught.gas_heat", "Gas fusion heat");
}
prep {
    FORM: One<SeamForm> = one("prep.form", "Groove");
    DEPTH: Number = length("prep.depth", "Depth", 1.0, 300.0);
    ANGLE: Number = quantity("prep.angle", "Angle", Kind::Angle, (1.0, 170.0), "°");
    GAP: Number = length("prep.gap", "Root gap", 0.0, 50.0);
    CAP: Number = length("prep.cap", "Crown", 0.0, 50.0);
    ORDER: Text = text("prep.order", "Seams one after the other", 60).like("B, A").of_the_round();
    DONE: Several<PrepDone> = several("prep.done", "Done, and not to be done hot").of_the_round();
}
heat {
    SOURCE: One<&'static HeatSource> = one("heat.source", "Heat with");
    BAKE: One<&'static HeatSource> = one("heat.bake", "Bake it out with");
    SOAK: One<&'static HeatSource> = one("heat.soak", "Soak it in");
    HOLD: One<&'static HeatSource> = one("heat.hold", "Held while it is filled by");
    REHEAT: One<&'static HeatSource> = one("heat.reheat", "Reheat it with");
    AFTER: One<&'static HeatSource> = one("heat.after", "After the last bead with");
    NIGHT: One<&'static HeatSource> = one("heat.night", "Held overnight in");
    WAY_DOWN: One<&'static HeatSource> = one("heat.way_down", "On its way down in");
    SURFACE: One<ReadOff> = one("heat.surface", "A gun reads off");
    GUN_SET: Number = quantity("heat.gun_set", "Gun set to", Kind::Plain, (0.1, 1.0), "").like("0.95");
    PAD_2: One<PadOn> = one("heat.pad_2", "Pad 2 lies on");
    PAD_3: One<PadOn> = one("heat.pad_3", "Pad 3 lies on");
    PAD_4: One<PadOn> = one("heat.pad_4", "Pad 4 lies on");
}
cooling {
    PACKING: One<Packing> = one("cooling.packing", "Pack in");
    THICKNESS: Number = length("cooling.thickness", "Packed how thick", 1.0, 2_000.0);
    FOIL: YesNo = yes_no("cooling.foil", "Bright foil over it");
    POST_HEAT: Number = quantity("cooling.post_heat", "Heat it all once more, to", Kind::Temperature, (60.0, 700.0), "°C").like("{330 degC}");
    POST_HEAT_FOR: Number = quantity("cooling.post_heat_for", "And hold it for", Kind::Duration, (0.0, 1440.0), "min").like("15 min");
    TAPER: Number = quantity("cooling.taper", "Flame off by degrees, over", Kind::Duration, (0.0, 480.0), "min").like("12 min");
    OVEN: Number = quantity("cooling.oven", "Hold it in the oven at", Kind::Temperature, (40.0, 700.0), "°C").like("{120 degC}");
    OVEN_FOR: Number = quantity("cooling.oven_for", "For", Kind::Duration, (0.0, 4320.0), "min").like("6 h");
    FIRE: One<DyingFire> = one("cooling.fire", "Or leave it in the fire");
}
check {
    TOES: One<Checked> = one("check.toes", "Toes").of_the_round();
    CRACKS_AGAIN: One<Checked> = one("check.cracks_again", "Cracks again").of_the_round();
    FILE_EDGE: One<Checked> = one("check.file_edge", "Edge").of_the_round();
    LEAK: One<Checked> = one("check.leak", "Leak").of_the_round();
    CLEAN: One<Checked> = one("check.clean", "Clean").of_the_round();
    ALIGNMENT: One<Checked> = one("check.alignment", "Alignment").of_the_round();
    PINS: One<Checked> = one("check.pins", "Pins").of_the_round();
    NEXT_DAY: One<Checked> = one("check.next_day", "Again next day").of_the_round();
    FAULTS: One<Checked> = one("check.faults", "Faults").of_the_round();
    OUT_OF_LINE: Number = length("check.out_of_line", "May be out of line by", 0.01, 100.0).like("{0.3 mm}");
}
note {
    JOB: Text = text("note.job", "Note on the job", NOTE_MOST).of_the_piece();
    PART: Text = text("note.part", "Note on the part", NOTE_MOST).of_the_piece();
    IRON: Text = text("note.iron", "Note on the iron", NOTE_MOST).of_the_piece();
    CRACKS: Text = text("note.cracks", "Note on the cracks", NOTE_MOST).of_the_piece();
    METHOD: Text = text("note.method", "Note on the method", NOTE_MOST).of_the_piece();
    PREP: Text = text("note.prep", "Note on the prep", NOTE_MOST).of_the_piece();
    HEAT: Text = text("note.heat", "Note on the heat", NOTE_MOST).of_the_piece();
    TORCH: Text = text("note.torch", "Note on the work", NOTE_MOST).of_the_piece();
    COOLING: Text = text("note.cooling", "Note on the cooling", NOTE_MOST).of_the_piece();
    CHECK: Text = text("note.check", "Note on the check", NOTE_MOST).of_the_piece();
    HAND_OVER: Text = text("note.hand_over", "Note on the hand-over", NOTE_MOST).of_the_piece();
}
finish {
    COAT: One<CoatedWith> = one("finish.coat", "Over it").of_the_round();
    PUTTY: YesNo = yes_no("finish.putty", "Filled with putty").of_the_round();
}
hand_over {
    EXPECT: Text = text("hand_over.expect", "What to expect, what not to do", 600).of_the_piece();
    FOLLOW_UP: Text = date("hand_over.follow_up", "Ask again on").of_the_piece();
    NEW_PART: Text = date("hand_over.new_part", "A new part comes on").of_the_piece();
    BECAME: One<Became> = one("hand_over.became", "What became of it").of_the_round();
    OWNED: Text = text("hand_over.owned", "Why it goes out as it is, and who says so", 200).of_the_round();
    DONE: YesNo = yes_no("hand_over.done", "Handed over").of_the_round();
}
}

fields_of_each! {
/// The fields of one crack, under `crack.<id>.`
CRACK_FIELDS
crack {
    LENGTH: Number = length("length", "Length", 1.0, 20_000.0).like("{60 mm}");
    WALL: Number = length("wall", "Wall along it", 1.0, 300.0).like("{12 mm}");
    FOUND_BY: One<FoundBy> = one("found_by", "Ends found");
    END_A: One<EndKind> = one("end_a", "Left end");
    END_B: One<EndKind> = one("end_b", "Right end");
    PIECE: One<PieceState> = one("piece", "The broken-off piece");
    BEHIND: One<Behind> = one("behind", "Behind it, where a hole comes out");
    TIP_WAY: One<TipWay> = one("tip_way", "A tip no drill catches");
    DRILLED_A: Number = length("drilled_a", "Drilled, left", 1.0, 50.0).of_the_piece();
    PAST_A: Number = length("past_a", "Past the left tip", 0.0, 100.0).of_the_piece();
    DRILLED_B: Number = length("drilled_b", "Drilled, right", 1.0, 50.0).of_the_piece();
    PAST_B: Number = length("past_b", "Past the right tip", 0.0, 100.0).of_the_piece();
    GROUND_DEPTH: Number = length("ground_depth", "Ground deep", 1.0, 300.0).of_the_piece();
    GROUND_WIDTH: Number = length("ground_width", "Ground wide at the face", 0.5, 300.0).of_the_piece();
    THROUGH: YesNo = yes_no("through", "Goes through the wall");
    WITNESS: One<WitnessSide> = one("witness", "Witness line on its");
    RUN_OUT_A: YesNo = yes_no("run_out_a", "Groove run out, first end").of_the_round();
    RUN_OUT_B: YesNo = yes_no("run_out_b", "Groove run out, last end").of_the_round();
    BECOMES: One<CrackFate> = one("becomes", "What becomes of it");
    BECOMES_WHY: Text = text("becomes_why", "Why it is not repaired", 120);
    LOOK_AGAIN: Text = date("look_again", "Look at it again on").of_the_piece();
    REACH: Several<SeamReach> = several("reach", "What gets to it");
    CLOSES: YesNo = yes_no("closes", "Closes up once joined");
    EDGE: One<Edges> = one("edge", "Its edges");
    FINISH: One<FinishAs> = one("finish", "Finished so that it").of_the_round();
    STRAP: YesNo = yes_no("strap", "A strap over it").of_the_round();
    BURNT_OUT: YesNo = yes_no("burnt_out", "Can the burnt iron be cut back?");
    LAP: YesNo = yes_no("lap", "Do its faces lap closely?");
    ALIGN_BY: Several<AlignBy> = several("align_by", "Alignment read by");
    GROWN_A: Number = length("grown_a", "Grown since, first end", 0.0, 2_000.0).of_the_piece();
    GROWN_B: Number = length("grown_b", "Grown since, last end", 0.0, 2_000.0).of_the_piece();
    OLD_SHARE: Number = quantity("old_share", "Old and dark, of the broken face", Kind::Percent, PERCENT, "%").of_the_piece();
}
}

fields_of_each! {
/// The fields of one thing beside the joint, under `neighbour.<id>.`
NEIGHBOUR_FIELDS
neighbour {
    WHAT: Text = text("what", "Must stay cool", 80);
    LIMIT: Number = quantity("limit", "Not over", Kind::Temperature, TEMPERATURE, "°C").like("{120 degC}");
    ALONG: Number = quantity("along", "Lies at, % of the longest side", Kind::Percent, PERCENT, "%");
}
}

fields_of_each! {
/// The fields of one picture, under `picture.<id>.`
PICTURE_FIELDS
picture {
    SHOWS: One<Shows> = one("shows", "Shows").of_the_piece();
    CAPTION: Text = text("caption", "In words", 120).of_the_piece();
}
}

fields_of_each! {
/// The fields of one face, under `face.<id>.`
FACE_FIELDS
face {
    NAME: Text = text("name", "Which face", 60);
    OUTLINE: One<OutlineKind> = one("outline", "Its outline");
    ACROSS: Number = length("across", "Across", 1.0, FACE_MOST_MM).like("{200 mm}");
    DOWN: Number = length("down", "Down", 1.0, FACE_MOST_MM).like("{140 mm}");
    BORE: Number = length("bore", "Opening", 1.0, FACE_MOST_MM);
    LEG: Number = length("leg", "Leg wide", 1.0, FACE_MOST_MM);
    FOOT: Number = length("foot", "Foot high", 1.0, FACE_MOST_MM);
    AROUND: Number = length("around", "Round of, across", 1.0, FACE_MOST_MM);
    BACK_OF: Text = text("back_of", "Back of", 36);
    BROKEN_OF: Text = text("broken_of", "Broken face of", 36).of_the_piece();
    FROM_ACROSS: Text = text("from_across", "Holes measured across from", 36);
    FROM_DOWN: Text = text("from_down", "And down from", 36);
}
}

fields_of_each! {
/// The fields of one mark, under `mark.<id>.`
MARK_FIELDS
mark {
    NAME: Text = text("name", "Called", 60);
    THICKNESS: Number = length("thickness", "Thick", 1.0, 300.0);
    CLOSED_BY: One<ClosedBy> = one("closed_by", "Closed by");
    PATCH_THICKNESS: Number = length("patch_thickness", "The patch is", 1.0, 300.0);
    PATCH_GAP: Number = length("patch_gap", "Widest gap round it", 0.0, 20.0).like("{0.3 mm}");
    PATCH_SKIN: One<PatchSkin> = one("patch_skin", "Its seen face");
    FILLER: One<OldFiller> = one("filler", "Filled with");
    KIND: One<SizeKind> = one("kind", "What has to be restored");
    DATUM: Text = text("datum", "Measured from", 80);
    BETWEEN: Text = text("between", "Between which two holes", 120).like("bolt hole 1 and bolt hole 2");
    NOMINAL: Number = length("nominal", "Should be", 0.1, 20_000.0).like("{25 mm}");
    TOLERANCE: Number = length("tolerance", "Give or take", 0.0, 50.0).like("{0.1 mm}");
    BEFORE: Number = length("before", "Before the torch", 0.0, 20_000.0).of_the_piece();
    TACKED: Number = length("tacked", "After the tacks", 0.0, 20_000.0).of_the_round();
    COLD: Number = length("cold", "Cold, after the torch", 0.0, 20_000.0).of_the_round();
    AFTER: Number = length("after", "Finished", 0.0, 20_000.0).of_the_round();
    BY: One<TakenOffBy> = one("by", "What is left, taken off by").of_the_round();
}
}

fields_of_each! {
/// The fields of one thing in the stores, under `store.<id>.`
STORE_FIELDS
store {
    WHAT: OneOf = one_of("what", "What it is", KIND_CHOICES);
    NAME: Text = text("name", "Written on it", 60);
    SIZE: Number = length("size", "Across", 0.3, 60.0).like("{3.2 mm}");
    AMOUNT: Text = text("amount", "How much", 40).like("12 rods, half a bottle");
    HOLDS: Number = quantity("holds", "A full one holds", Kind::GasVolume, (0.01, 100.0), "m³").like("{10 m3}");
    PRICE: Text = text("price", "Price", 40).like("1.20 a rod");
    LOT: Text = text("lot", "Lot or box mark", 60);
    OPENED: Text = date("opened", "Opened on");
    PLACE: Text = text("place", "Where it lies", 60);
    MELTS: Number = quantity("melts", "Melts at", Kind::Temperature, (30.0, 1200.0), "°C").like("{260 degC}");
    LOOK: OneOf = one_of("look", "Looks", LOOKS);
    MAGNET: OneOf = one_of("magnet", "Magnet", MAGNETS);
    FILED: OneOf = one_of("filed", "Under the file", FILES);
    SPARK: OneOf = one_of("spark", "Sparks at the wheel", SPARKS);
    BEAD: OneOf = one_of("bead", "A bead on scrap", BEADS);
}
}

fields! {
/// The shop's settings.
SHOP_FIELDS
shop {
    NAME: Text = text("shop.name", "Name of the shop", 80);
    UNITS: OneOf = one_of("shop.units", "A new device begins with", &[("metric", "mm, °C, kg"), ("imperial", "in, °F, lb")]);
    THEME: OneOf = one_of("shop.theme", "Theme", &[("shop", "Shop (dark)"), ("daylight", "Daylight")]);
    TIME_ZONE: Text = text("shop.time_zone", "Time zone", 60);
    CLOCK: OneOf = one_of("shop.clock", "The clock says", &[("24", "14:30"), ("12", "2:30 pm")]);
    AMBIENT: Number = quantity("shop.ambient", "Temperature in the shop", Kind::Temperature, (-40.0, 60.0), "°C");
    CURRENCY: Text = text("shop.currency", "Money is in", 8);
    SOURCES: Many = many("shop.sources", "Heat at hand", &SOURCES_OR_NONE);
    PACKINGS: Many = many("shop.packings", "Packings at hand", Packing::CHOICES);
    RODS: Many = many("shop.rods", "Rods at hand", choices::ROD_CHOICES);
    SETS: Many = many("shop.sets", "Welding sets at hand", choices::SETS);
    STITCH_KIT: YesNo = yes_no("shop.stitch_kit", "Stitching pins, taps and drills at hand");
    DAY_FROM: Number = quantity("shop.day_from", "Work begins at", Kind::TimeOfDay, (0.0, 1440.0), "").like("8:00");
    DAY_TO: Number = quantity("shop.day_to", "And ends at", Kind::TimeOfDay, (0.0, 1440.0), "").like("17:00");
    WORK_DAYS: Many = many("shop.work_days", "Days worked", choices::DAYS);
    HOOD: Number = quantity("shop.hood", "Arc time at most, a day", Kind::Hours, (10.0, 1440.0), "h").like("5 h");
    DONE_OFTEN: Many = many("shop.done_often", "Done here five times and more", METHODS_OR_NONE);
    RATE: Number = quantity("shop.rate", "An hour of hands costs", Kind::Money, (0.0, 10_000.0), "");
    LOW_RATE: Number = quantity("shop.low_rate", "An hour of oven or waiting costs", Kind::Money, (0.0, 10_000.0), "");
    SMALL_THINGS: Number = quantity("shop.small_things", "Added for small things", Kind::Plain, (0.0, 50.0), "%").like("3");
    LOGGER: Text = text("shop.logger", "Key of the thermocouple logger", 80);
    DRILLS: Text = text("shop.drills", "Drills in the set", 600).like("#7, F, 1/4, 6.5");
    PINS: One<PinKind> = one("shop.pins", "Which pins");
}
shop_taught {
    POLARITY: One<Polarity> = one("shop_taught.polarity", "Leads");
    PEENING: One<Peening> = one("shop_taught.peening", "Peening");
    FIXTURE: One<Fixture> = one("shop_taught.fixture", "Held");
    SIDES: One<Sides> = one("shop_taught.sides", "Sides");
    DIRT: One<Dirt> = one("shop_taught.dirt", "Dirt");
    BEAD: One<BeadLength> = one("shop_taught.bead", "Bead");
    AFTER: One<After> = one("shop_taught.after", "After the last bead");
    PORES: One<Pores> = one("shop_taught.pores", "Pores");
    OLD_WELD: One<OldWeld> = one("shop_taught.old_weld", "Old weld");
    DRILL: One<StopHoleAt> = one("shop_taught.drill", "Stop-hole");
    DENSITY: One<PinDensity> = one("shop_taught.density", "Pins");
    FINISH: One<Blend> = one("shop_taught.finish", "Finish");
    GROOVE: One<GrooveDepth> = one("shop_taught.groove", "Groove");
    NICKEL: One<NickelUnder> = one("shop_taught.nickel", "Nickel under it");
    PREHEAT: One<NickelPreheat> = one("shop_taught.preheat", "Nickel preheat");
    BRAZE_HEAT: One<BrazePreheat> = one("shop_taught.braze_heat", "Arc bronze preheat");
    GAS_HEAT: One<GasHeat> = one("shop_taught.gas_heat", "Gas fusion heat");
}
}

/// The key of a field of one crack.
#[must_use]
pub fn crack_key(crack: uuid::Uuid, field: &str) -> String {
    key_of_one("crack", crack, field)
}

/// The key of a field of one thing beside the joint.
#[must_use]
pub fn neighbour_key(neighbour: uuid::Uuid, field: &str) -> String {
    key_of_one("neighbour", neighbour, field)
}

/// The key of a field of one picture.
#[must_use]
pub fn picture_key(picture: uuid::Uuid, field: &str) -> String {
    key_of_one("picture", picture, field)
}

/// The key of a field of one face.
#[must_use]
pub fn face_key(face: uuid::Uuid, field: &str) -> String {
    key_of_one("face", face, field)
}

/// The key of a field of one mark.
#[must_use]
pub fn mark_key(mark: uuid::Uuid, field: &str) -> String {
    key_of_one("mark", mark, field)
}

/// The key of a field of one thing in the stores.
#[must_use]
pub fn store_key(item: uuid::Uuid, field: &str) -> String {
    key_of_one("store", item, field)
}

/// What a job has several of, each with fields of its own: prefix of their keys, and the fields.
const SEVERAL: &[(&str, &[FieldSpec])] = &[
    ("crack.", CRACK_FIELDS),
    ("neighbour.", NEIGHBOUR_FIELDS),
    ("picture.", PICTURE_FIELDS),
    ("face.", FACE_FIELDS),
    ("mark.", MARK_FIELDS),
];

/// The id in the key of a field of one crack, neighbour, picture, face or mark; nothing in any other.
#[must_use]
pub fn id_in(key: &str) -> Option<uuid::Uuid> {
    let (prefix, rest) = key.split_once('.')?;
    let several = SEVERAL.iter().any(|(known, _)| known.trim_end_matches('.') == prefix);
    several.then(|| rest.split('.').next()?.parse().ok())?
}

/// The field of a job under this key.
#[must_use]
pub fn job_field(key: &str) -> Option<&'static FieldSpec> {
    for (prefix, fields) in SEVERAL {
        if let Some(rest) = key.strip_prefix(prefix) {
            let (id, field) = rest.split_once('.')?;
            id.parse::<uuid::Uuid>().ok()?;
            return fields.iter().find(|spec| spec.key == field);
        }
    }
    JOB_FIELDS.iter().find(|spec| spec.key == key)
}

/// The field of the shop, or of one thing in its stores, under this key.
#[must_use]
pub fn shop_field(key: &str) -> Option<&'static FieldSpec> {
    if let Some(rest) = key.strip_prefix("store.") {
        let (id, field) = rest.split_once('.')?;
        id.parse::<uuid::Uuid>().ok()?;
        return STORE_FIELDS.iter().find(|spec| spec.key == field);
    }
    SHOP_FIELDS.iter().find(|spec| spec.key == key)
}
