//! What can lie in the stores, shelf by shelf, and what it is counted in.

use serde::Serialize;

/// Where a thing stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Shelf {
    Rods,
    Stitching,
    Bench,
    Reading,
    Packing,
    Gas,
    Wear,
}

impl Shelf {
    pub const ALL: [Self; 7] =
        [Self::Rods, Self::Gas, Self::Packing, Self::Stitching, Self::Bench, Self::Reading, Self::Wear];

    #[must_use]
    pub fn label(self) -> &'static str {
        match self {
            Self::Rods => "Rods, wire, flux",
            Self::Stitching => "Pins, locks, straps",
            Self::Bench => "Discs and burrs",
            Self::Reading => "To read the heat by",
            Self::Packing => "Packing",
            Self::Gas => "Gas",
            Self::Wear => "To wear",
        }
    }
}

/// What a thing is counted in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    Pieces,
    Kilograms,
    CubicMetres,
    Litres,
}

/// A kind of thing.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct StoreKind {
    pub id: &'static str,
    /// One, or a lot, of it: "Nickel stick".
    pub label: &'static str,
    /// "rod": how one of it is called; empty where it is weighed or measured.
    pub one: &'static str,
    pub shelf: Shelf,
    pub measure: Measure,
}

const fn kind(
    id: &'static str,
    label: &'static str,
    one: &'static str,
    shelf: Shelf,
    measure: Measure,
) -> StoreKind {
    StoreKind { id, label, one, shelf, measure }
}

/// A bundle that nobody has named yet.
pub const UNNAMED: &str = "unnamed";

/// Everything there is a place for, in the order of the shelves.
pub const KINDS: [StoreKind; 47] = {
    use Measure::{CubicMetres, Kilograms, Litres, Pieces};
    use Shelf::{Bench, Gas, Packing, Reading, Rods, Stitching, Wear};
    [
        kind("nickel", "Nickel stick", "rod", Rods, Pieces),
        kind("nickel_iron", "Nickel-iron stick", "rod", Rods, Pieces),
        kind("bronze", "Low-fuming bronze", "rod", Rods, Pieces),
        kind("iron_rod", "Cast-iron gas rod", "rod", Rods, Pieces),
        kind("iron_rod_b", "Cast-iron gas rod for ductile (RCI-B)", "rod", Rods, Pieces),
        kind("tig_nickel", "Nickel TIG rod", "rod", Rods, Pieces),
        kind("silicon_rod", "Silicon bronze rod", "rod", Rods, Pieces),
        kind("aluminium_rod", "Aluminium bronze rod", "rod", Rods, Pieces),
        kind("silver", "Silver braze", "rod", Rods, Pieces),
        kind("steel_stick", "Low-hydrogen steel stick", "rod", Rods, Pieces),
        kind("rutile_stick", "Thin rutile steel stick (E6013)", "rod", Rods, Pieces),
        kind("stainless_rod", "Stainless TIG rod", "rod", Rods, Pieces),
        kind("bare_nickel", "Bare nickel rod", "rod", Rods, Pieces),
        kind("own_rod", "Cast-iron rods cast here", "rod", Rods, Pieces),
        kind("nickel_core_wire", "Nickel-iron flux-cored wire", "", Rods, Kilograms),
        kind("soft_screws", "Soft steel screws", "screw", Rods, Pieces),
        kind("silicon_wire", "Silicon bronze wire", "", Rods, Kilograms),
        kind("steel_wire", "Steel wire", "", Rods, Kilograms),
        kind("flux", "Flux", "", Rods, Kilograms),
        kind(UNNAMED, "A bundle without a name", "rod", Rods, Pieces),
        kind("pins", "Stitching pins", "pin", Stitching, Pieces),
        kind("locks", "Locks", "lock", Stitching, Pieces),
        kind("taps", "Taps", "tap", Stitching, Pieces),
        kind("strap", "Strap steel and bolts", "piece", Stitching, Pieces),
        kind("epoxy", "Metal-filled epoxy", "piece", Stitching, Pieces),
        kind("sealant", "Thread sealant", "piece", Stitching, Pieces),
        kind("thin_disc", "Thin discs", "disc", Bench, Pieces),
        kind("grinding_disc", "Grinding discs", "disc", Bench, Pieces),
        kind("burr", "Carbide burrs", "burr", Bench, Pieces),
        kind("drill", "Drills, loose", "drill", Bench, Pieces),
        kind("stick", "Temperature stick", "stick", Reading, Pieces),
        kind("thermocouple", "Thermocouple", "piece", Reading, Pieces),
        kind("infrared", "Infrared gun", "piece", Reading, Pieces),
        kind("dye", "Dye and developer", "set", Reading, Pieces),
        kind("blanket", "Ceramic blanket", "piece", Packing, Pieces),
        kind("vermiculite", "Vermiculite", "", Packing, Litres),
        kind("dry_sand", "Dry sand", "", Packing, Litres),
        kind("wood_ash", "Wood ash", "", Packing, Litres),
        kind("lime", "Hydrated lime, dry", "", Packing, Litres),
        kind("litter", "Mineral litter, oven-dried", "", Packing, Litres),
        kind("oxygen", "Oxygen", "", Gas, CubicMetres),
        kind("acetylene", "Acetylene", "", Gas, CubicMetres),
        kind("propane", "Propane", "", Gas, CubicMetres),
        kind("argon", "Argon", "", Gas, CubicMetres),
        kind("filters", "Mask filters", "pair", Wear, Pieces),
        kind("gloves", "Gloves", "pair", Wear, Pieces),
        kind("lenses", "Lenses and screens", "piece", Wear, Pieces),
    ]
};

/// The same as they are chosen.
pub const KIND_CHOICES: &[(&str, &str)] = &{
    let mut choices = [("", ""); KINDS.len()];
    let mut at = 0;
    while at < choices.len() {
        choices[at] = (KINDS[at].id, KINDS[at].label);
        at += 1;
    }
    choices
};

impl StoreKind {
    #[must_use]
    pub fn from_id(id: &str) -> Option<&'static Self> {
        KINDS.iter().find(|kind| kind.id == id)
    }

    /// "6 rods", "1 rod"; for what is weighed or measured the unit stands with the number.
    #[must_use]
    pub fn count_words(&self, count: f64) -> String {
        // Nobody counts tenths of many.
        let tenths = if count < 10.0 { 10.0 } else { 1.0 };
        let count = (count * tenths).round() / tenths;
        if count > 0.0 && count < 1.0 {
            return format!("{count} of a {}", self.one);
        }
        let plural = if (count - 1.0).abs() < 1e-9 { "" } else { "s" };
        format!("{count} {}{plural}", self.one)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_kind_is_named_once_and_fits_into_the_id_of_what_an_old_list_named() {
        for (at, kind) in KINDS.iter().enumerate() {
            assert!(KINDS[at + 1..].iter().all(|other| other.id != kind.id), "{}", kind.id);
            assert!(kind.id.len() <= 16, "{}", kind.id);
            assert_eq!(kind.one.is_empty(), kind.measure != Measure::Pieces, "{}", kind.id);
            assert!(Shelf::ALL.contains(&kind.shelf));
        }
    }

    #[test]
    fn one_is_not_several() {
        let nickel = StoreKind::from_id("nickel").unwrap();
        assert_eq!((nickel.count_words(1.0), nickel.count_words(6.0)), ("1 rod".into(), "6 rods".into()));
        let tap = StoreKind::from_id("taps").unwrap();
        assert_eq!((tap.count_words(0.3), tap.count_words(1.3)), ("0.3 of a tap".into(), "1.3 taps".into()));
    }
}
