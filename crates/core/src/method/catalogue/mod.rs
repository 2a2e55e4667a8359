//! The methods, one file each: all that is said of a method anywhere stands there. A new method is one
//! file and one line here.

mod arc_bronze;
mod butter_build;
mod cold_fill;
mod gas_iron;
mod last_resort;
mod mig_braze_si;
mod nickel;
mod nickel_iron;
mod silver_braze;
mod stick;
mod stitch;
mod stitch_locks;
mod strap;
mod tig_braze_al;
mod tig_braze_si;
mod tig_nickel;
mod torch_braze;

use super::{MethodId, School};
use crate::casting::old_filler::OldFiller;
use crate::prep::filler::Filler;
use crate::prep::said::SeamForm;
use crate::quantity::UnitSystem;

/// Every method, in the order of [`MethodId`].
pub(super) const METHODS: [&Method; 15] = [
    &nickel::METHOD,
    &nickel_iron::METHOD,
    &torch_braze::METHOD,
    &gas_iron::METHOD,
    &stitch::METHOD,
    &stitch_locks::METHOD,
    &tig_nickel::METHOD,
    &tig_braze_si::METHOD,
    &tig_braze_al::METHOD,
    &mig_braze_si::METHOD,
    &silver_braze::METHOD,
    &butter_build::METHOD,
    &strap::METHOD,
    &cold_fill::METHOD,
    &last_resort::METHOD,
];

/// What joins the two sides.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Joins {
    /// An arc and its filler, which melt the casting's own edge.
    Arc,
    /// An arc and a bronze that flows on iron that is not melted.
    ArcBronze,
    /// A flame and a rod that flows on iron that is not melted.
    Bronze,
    /// A flame and a rod that melts with the casting's own edge.
    Flame,
    /// A flame and silver that is drawn into a narrow lap.
    Silver,
    /// Pins, set cold.
    Pins,
    /// Pins, and locks across the crack.
    PinsAndLocks,
    /// A strap over it, bolted or pinned.
    Strap,
    /// Filled cold.
    Epoxy,
}

impl Joins {
    /// A flame that melts a rod into it, or lets it flow.
    #[must_use]
    pub fn by_flame(self) -> bool {
        matches!(self, Self::Flame | Self::Bronze | Self::Silver)
    }
}

/// A repair method.
#[derive(Debug)]
pub struct Method {
    pub method: MethodId,
    /// As it is stored, and as it is called.
    pub id: &'static str,
    pub label: &'static str,
    /// What to do, as one would say it: "Braze it with the torch".
    pub doing: &'static str,
    /// What of it is seen afterwards.
    pub leaves: &'static str,
    pub joins: Joins,
    /// The schools it is done after, the one tried first in front.
    pub practices: &'static [Practice],
    /// What it leaves in the part, for whoever repairs it again; nothing where that is no filler that is in the way.
    pub leaves_in: OldFiller,
    pub stands: Stands,
    /// Strength of the joint as a share of the filler's, or of the iron's where there is none. House.
    pub efficiency: f64,
    /// It may be a first choice: not what only helps, only seals, or is for want of anything better.
    pub recommended: bool,
    /// The groove it is laid into; nothing for pins and laps.
    pub groove: Option<UsualGroove>,
    /// What it is laid with; nothing where nothing is filled hot.
    pub filling: Option<Filling>,
    /// Its arc; nothing for a flame, and for what is cold.
    pub arc: Option<ArcUse>,
    /// How its source is set. House; the maker's sheet comes first.
    pub setup: Setup,
    /// Steps of the prep that it alone asks for.
    pub prep: &'static [&'static str],
    /// Cautions and protective gear while it is done. House.
    pub at_torch: &'static [&'static str],
    /// What a temperature at the joint means, in degC, against the window of the part.
    pub joint_words: fn(celsius: f64, window: Option<(f64, f64)>, units: UnitSystem) -> String,
}

/// How the source is set for a method, in words; empty where there is nothing to set.
#[derive(Debug, Clone, Copy)]
pub struct Setup {
    /// Which lead goes where: usual, the other way round, alternating; empty where it is not done so.
    pub leads: [&'static str; 3],
    pub gas: &'static str,
    pub flux: &'static str,
    /// It is taken from a tin beside the rod.
    pub fluxed: bool,
    /// Tip or electrode for a wall in mm.
    pub tip: fn(wall_mm: f64) -> &'static str,
    pub note: &'static str,
    /// At what the edge gives way to the arc, in degC: the current falls with the preheat.
    pub melts_c: f64,
}

/// Iron melts about here, and bronze flows, in degC. House.
pub const IRON_MELTS_C: f64 = 1150.0;
pub const BRONZE_FLOWS_C: f64 = 980.0;

/// Nothing is set.
const NOTHING_SET: Setup =
    Setup { leads: [""; 3], gas: "", flux: "", fluxed: false, tip: |_| "", note: "", melts_c: IRON_MELTS_C };

/// A method after one school.
#[derive(Debug)]
pub struct Practice {
    pub school: School,
    /// What the part is heated to before wall, shape and iron are counted, in degC; nothing for a way
    /// without heat.
    pub target_c: Option<f64>,
    /// A bead may begin from here on where that is under the target.
    pub least_c: Option<f64>,
    pub most: Most,
    /// Successes and failures it starts from.
    pub start: Start,
    /// The limit of its fall, as a share of the shape's.
    pub fall: f64,
}

/// The most between beads.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Most {
    /// So many K over the target.
    Over(f64),
    /// This in degC, or the target where that is more.
    AtLeast(f64),
    /// This in degC.
    At(f64),
}

/// What the odds start from. House.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Start {
    /// Held, and not held.
    Of(f64, f64),
    /// By the pins and the wall.
    ByPins,
    /// By the wall that locks sit in.
    ByLocks,
}

/// Service temperatures in degC that a joint stands.
///
/// # Source
/// House, after AWS D11.2.
#[derive(Debug, Clone, Copy)]
pub struct Stands {
    pub for_good_c: f64,
    pub with_caution_c: f64,
    /// Where it heats and cools; nothing where that makes no difference.
    pub cycling_c: Option<f64>,
    /// For a short time; nothing where that is no more than it stands for good.
    pub short_c: Option<f64>,
}

/// House: "As the casting", in degC.
pub const AS_THE_CASTING_C: f64 = 750.0;

/// Form and angle in degrees. House.
#[derive(Debug, Clone, Copy)]
pub struct UsualGroove {
    pub one_side: (SeamForm, f64),
    pub both_sides: (SeamForm, f64),
    /// It goes through the whole wall; otherwise a lip stays.
    pub through: bool,
}

/// What a groove is filled with.
#[derive(Debug, Clone, Copy)]
pub struct Filling {
    /// In the rod sizes that suit a wall in mm; `ductile` asks for the rod meant for ductile iron.
    pub filler: fn(wall_mm: f64, ductile: bool) -> Filler,
    /// Layer height and bead width in mm for a wall in mm; no width where a layer fills the groove.
    pub layer: fn(wall_mm: f64) -> (f64, Option<f64>),
    /// Grams laid in a minute with a rod or wire of this diameter in mm. House.
    pub laid_g_a_min: fn(rod_mm: f64) -> f64,
    /// It is laid bead by bead, with the waits of its school; otherwise in one go.
    pub bead_by_bead: bool,
    /// What is laid over the first layer, where that is another metal.
    pub over_it: Option<fn() -> Filler>,
}

/// What a wire lays in g a minute. House.
#[must_use]
pub fn wire_lays(wire_mm: f64) -> f64 {
    if wire_mm <= 0.8 { 25.0 } else { 40.0 }
}

/// What TIG lays in g a minute. House.
fn tig_lays(_rod_mm: f64) -> f64 {
    6.0
}

/// The arc of a process on iron. House.
#[derive(Debug, Clone, Copy)]
pub struct ArcUse {
    pub volts: f64,
    pub travel_mm_s: f64,
    /// Share of its energy that gets into the part.
    pub efficiency: f64,
    /// Shielding gas in l/min; nothing where the coating shields it.
    pub shield_l_min: Option<f64>,
    /// Lowest and highest for a wall in mm.
    pub amps: fn(wall_mm: f64) -> (f64, f64),
}

impl ArcUse {
    /// At the low end for the cold school, in the middle otherwise.
    #[must_use]
    pub fn usual_amps(&self, wall_mm: f64, school: School) -> f64 {
        let (low, high) = (self.amps)(wall_mm);
        if school == School::Cold { low } else { (low + high) / 2.0 }
    }

    /// Heat in J that gets into the part with each mm of bead; as fast as usual where nobody knows how fast.
    #[must_use]
    pub fn joules_a_mm(&self, wall_mm: f64, school: School, travel_mm_s: Option<f64>) -> f64 {
        let travel_mm_s = travel_mm_s.unwrap_or(self.travel_mm_s);
        self.efficiency * self.volts * self.usual_amps(wall_mm, school) / travel_mm_s
    }
}

/// Three sizes of wall. House.
fn by_wall<T>(wall_mm: f64, [thin, usual, thick]: [T; 3]) -> T {
    if wall_mm < 5.0 {
        thin
    } else if wall_mm > 12.0 {
        thick
    } else {
        usual
    }
}

/// The seam and what lies round it warmed to this, in degC, and the odds it starts from: window and figures of the
/// method's own warm school, else of its only heated one. House.
const fn local(target_c: f64, start: Start) -> Practice {
    Practice {
        school: School::Local,
        target_c: Some(target_c),
        least_c: None,
        most: Most::Over(100.0),
        start,
        fall: 1.0,
    }
}

impl Method {
    #[must_use]
    pub fn practice(&self, school: School) -> Option<&Practice> {
        self.practices.iter().find(|practice| practice.school == school)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_method_stands_at_its_place_under_its_own_name() {
        for (at, entry) in METHODS.iter().enumerate() {
            assert_eq!(entry.method as usize, at, "{}", entry.id);
            let stored = serde_json::to_value(entry.method).unwrap();
            assert_eq!(stored, entry.id, "as it is stored");
            assert!(!entry.practices.is_empty(), "{} is done after some school", entry.id);
            let cold = entry.method.without_heat();
            assert_eq!(entry.groove.is_none(), cold || entry.joins == Joins::Silver, "{}", entry.id);
            assert_eq!(entry.filling.is_none(), cold, "{}", entry.id);
            let arc = matches!(entry.joins, Joins::Arc | Joins::ArcBronze);
            assert_eq!(entry.arc.is_some(), arc, "{}", entry.id);
            assert!(!entry.at_torch.is_empty(), "{} says what to beware of", entry.id);
        }
    }
}
