//! Acceptance limits: what may be found at a mended place, how much of it is good enough, and what is done else.

use crate::base::choice::choice;
use serde::{Deserialize, Serialize};

choice! {
    /// What is said of the whole part at a line of the check.
    pub enum Checked {
        Ok = "ok", "Good";
        NotOk = "not_ok", "Not good";
    }
}

/// What was found at a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Found {
    Good,
    Crack,
    Pore,
    NotWetted,
    Notch,
    LowSpot,
    HardEdge,
    OutOfLine,
    Leak,
    PinLoose,
    ResidueLeft,
}

impl Found {
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Good => "Good",
            Self::Crack => "A crack",
            Self::Pore => "Pores, pinholes",
            Self::NotWetted => "Not wetted, not fused",
            Self::Notch => "A notch at the toe",
            Self::LowSpot => "A low spot",
            Self::HardEdge => "A hard edge: the file skates",
            Self::OutOfLine => "Out of line, out of flat",
            Self::Leak => "It leaks or weeps",
            Self::PinLoose => "A pin is loose",
            Self::ResidueLeft => "Flux, slag or fibre left",
        }
    }

    /// What is measured of it; nothing where seeing it is enough.
    #[must_use]
    pub fn measured(self) -> Option<&'static str> {
        match self {
            Self::Crack => Some("How long"),
            Self::Pore => Some("The largest, across"),
            Self::Notch | Self::LowSpot => Some("How deep"),
            Self::OutOfLine => Some("How far off"),
            Self::Good
            | Self::NotWetted
            | Self::HardEdge
            | Self::Leak
            | Self::PinLoose
            | Self::ResidueLeft => None,
        }
    }
}

/// What is done about something that is not good enough.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Then {
    /// Ground out and filled again while the part is made warm; a pin the next size, residue off.
    RefillHot,
    NewRound,
    LeftAndSaid,
    Watch,
}

impl Then {
    /// It is done here and now, not left.
    #[must_use]
    pub fn settles(self) -> bool {
        matches!(self, Self::LeftAndSaid | Self::Watch)
    }
}

/// What a place has to do.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Duty {
    /// A load goes through it.
    pub carries: bool,
    /// It is bent or knocked.
    pub shock: bool,
    pub tight: bool,
    /// A face or bore that is machined.
    pub machined: bool,
}

impl Duty {
    fn cosmetic(self) -> bool {
        !(self.carries || self.shock || self.tight || self.machined)
    }
}

/// How large it is, and how many of it lie close together.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct Extent {
    /// As [`Found::measured`] asks, in mm; nothing while nobody has measured it.
    pub mm: Option<f64>,
    /// In 25 mm; nothing while nobody has counted.
    pub count: Option<u32>,
}

/// Whether something found is good enough.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Verdict {
    Good,
    NotGood,
    /// It depends on a size that nobody has measured.
    Measure,
}

/// Limits of what is found, in mm.
///
/// # Source
/// House.
const PORE_MM: f64 = 1.5;
const PORES_CLOSE: u32 = 3;
const NOTCH_MM: f64 = 0.5;
const LOW_MM: f64 = 0.5;
const LOW_COSMETIC_MM: f64 = 1.0;
const CRACK_WATCHED_MM: f64 = 10.0;
/// Out of line, of each mm.
const OUT_OF_LINE: f64 = 0.5 / 300.0;

/// The largest pore, in mm: a quarter of the wall at most.
fn pore_most_mm(wall_mm: f64) -> f64 {
    PORE_MM.min(wall_mm / 4.0)
}

/// The deepest notch at a toe, in mm: where it carries a tenth of the wall at most.
fn notch_most_mm(duty: Duty, wall_mm: f64) -> f64 {
    if duty.carries { NOTCH_MM.min(wall_mm / 10.0) } else { NOTCH_MM }
}

/// How far out of line a length may be that has no tolerance of its own, in mm.
#[must_use]
pub fn out_of_line_most_mm(length_mm: f64) -> f64 {
    OUT_OF_LINE * length_mm
}

/// A place that was mended.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MendedPlace {
    pub duty: Duty,
    pub wall_mm: f64,
    /// Out of line at most, in mm; nothing while neither tolerance nor length is known.
    pub tolerance_mm: Option<f64>,
}

impl MendedPlace {
    /// Whether it is good enough here.
    ///
    /// # Source
    /// House.
    #[must_use]
    pub fn judge(&self, found: Found, extent: Extent) -> Verdict {
        let most = |most_mm: f64| match extent.mm {
            None => Verdict::Measure,
            Some(mm) if mm <= most_mm + 1e-9 => Verdict::Good,
            Some(_) => Verdict::NotGood,
        };
        match found {
            Found::Good => Verdict::Good,
            Found::Crack | Found::NotWetted | Found::Leak | Found::PinLoose | Found::ResidueLeft => {
                Verdict::NotGood
            }
            // Of a place that is tight only a leak test says; one that is machined has none on its face.
            Found::Pore if self.duty.tight || self.duty.machined => Verdict::NotGood,
            Found::Pore => match (extent.count, most(pore_most_mm(self.wall_mm))) {
                (Some(count), _) if count > PORES_CLOSE => Verdict::NotGood,
                (None, Verdict::Good) => Verdict::Measure,
                (_, verdict) => verdict,
            },
            Found::Notch if self.duty.shock => Verdict::NotGood,
            Found::Notch => most(notch_most_mm(self.duty, self.wall_mm)),
            Found::LowSpot => most(if self.duty.cosmetic() { LOW_COSMETIC_MM } else { LOW_MM }),
            Found::HardEdge if self.duty.machined => Verdict::NotGood,
            Found::HardEdge => Verdict::Good,
            Found::OutOfLine => self.tolerance_mm.map_or(Verdict::NotGood, most),
        }
    }

    /// The limit as a sentence, a template in mm.
    #[must_use]
    pub fn limit(&self, found: Found) -> String {
        match found {
            Found::Good => String::new(),
            Found::Crack if self.duty.cosmetic() => {
                format!("none; under {{{CRACK_WATCHED_MM} mm}}, stopped, it may be watched")
            }
            Found::Crack => "none".to_owned(),
            Found::Pore if self.duty.tight => "what a leak test says".to_owned(),
            Found::Pore if self.duty.machined => "none on the face".to_owned(),
            Found::Pore => {
                let most = pore_most_mm(self.wall_mm);
                format!("{{{most} mm}} across, {PORES_CLOSE} within {{25 mm}}")
            }
            Found::NotWetted => "none that can be seen".to_owned(),
            Found::Notch if self.duty.shock => "none: blended smooth".to_owned(),
            Found::Notch => format!("{{{} mm}}, blended", notch_most_mm(self.duty, self.wall_mm)),
            Found::LowSpot if self.duty.cosmetic() => format!("{{{LOW_COSMETIC_MM} mm}}"),
            Found::LowSpot => format!("{{{LOW_MM} mm}}"),
            Found::HardEdge if self.duty.machined => "none where it is machined".to_owned(),
            Found::HardEdge => "nothing is machined there: it may stay".to_owned(),
            Found::OutOfLine => self
                .tolerance_mm
                .map_or("say how far it may be off".to_owned(), |mm| format!("{{{mm:.2} mm}}")),
            Found::Leak | Found::PinLoose | Found::ResidueLeft => "none".to_owned(),
        }
    }

    /// What can be done where it is not good enough, the first first.
    #[must_use]
    pub fn ways_on(&self, found: Found, extent: Extent) -> &'static [Then] {
        use Then::{LeftAndSaid, NewRound, RefillHot, Watch};
        match found {
            Found::Good => &[],
            Found::Crack => match extent.mm {
                Some(mm) if self.duty.cosmetic() && mm < CRACK_WATCHED_MM => &[Watch, NewRound],
                _ => &[NewRound],
            },
            Found::Pore | Found::Notch | Found::LowSpot => &[RefillHot, LeftAndSaid, NewRound],
            Found::NotWetted => &[RefillHot, NewRound],
            Found::HardEdge | Found::OutOfLine => &[LeftAndSaid, NewRound],
            // Sealed only where nothing is carried: that is said by who seals it.
            Found::Leak if self.duty.carries || self.duty.shock => &[RefillHot, NewRound],
            Found::Leak => &[RefillHot, LeftAndSaid, NewRound],
            Found::PinLoose | Found::ResidueLeft => &[RefillHot],
        }
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    const COSMETIC: Duty = Duty { carries: false, shock: false, tight: false, machined: false };
    const CARRIES: Duty = Duty { carries: true, ..COSMETIC };
    const SHOCK: Duty = Duty { carries: true, shock: true, ..COSMETIC };
    const TIGHT: Duty = Duty { tight: true, ..COSMETIC };
    const MACHINED: Duty = Duty { machined: true, ..COSMETIC };

    #[rstest]
    // Published: the trade's reference, "Check"; hand-worked: a quarter of 5 mm is 1.25, a tenth of 4 mm is 0.4
    #[case::a_crack(CARRIES, 8.0, Found::Crack, Some(2.0), None, Verdict::NotGood)]
    #[case::a_pore(CARRIES, 8.0, Found::Pore, Some(1.5), Some(3), Verdict::Good)]
    #[case::a_larger_one(CARRIES, 8.0, Found::Pore, Some(1.6), Some(1), Verdict::NotGood)]
    #[case::four_of_them(COSMETIC, 8.0, Found::Pore, Some(1.0), Some(4), Verdict::NotGood)]
    #[case::in_a_thin_wall(CARRIES, 5.0, Found::Pore, Some(1.3), Some(1), Verdict::NotGood)]
    #[case::within_a_thin_wall(CARRIES, 5.0, Found::Pore, Some(1.25), Some(1), Verdict::Good)]
    #[case::nobody_measured(CARRIES, 8.0, Found::Pore, None, None, Verdict::Measure)]
    #[case::nobody_counted(CARRIES, 8.0, Found::Pore, Some(1.0), None, Verdict::Measure)]
    #[case::where_it_is_tight(TIGHT, 8.0, Found::Pore, Some(0.2), Some(1), Verdict::NotGood)]
    #[case::on_a_face(MACHINED, 8.0, Found::Pore, Some(0.2), Some(1), Verdict::NotGood)]
    #[case::not_wetted(COSMETIC, 8.0, Found::NotWetted, None, None, Verdict::NotGood)]
    #[case::a_notch(CARRIES, 4.0, Found::Notch, Some(0.4), None, Verdict::Good)]
    #[case::a_deeper_one(CARRIES, 4.0, Found::Notch, Some(0.45), None, Verdict::NotGood)]
    #[case::where_nothing_is_carried(COSMETIC, 4.0, Found::Notch, Some(0.5), None, Verdict::Good)]
    #[case::under_shock(SHOCK, 20.0, Found::Notch, Some(0.1), None, Verdict::NotGood)]
    #[case::low(CARRIES, 8.0, Found::LowSpot, Some(0.6), None, Verdict::NotGood)]
    #[case::low_where_it_only_shows(COSMETIC, 8.0, Found::LowSpot, Some(1.0), None, Verdict::Good)]
    #[case::hard(CARRIES, 8.0, Found::HardEdge, None, None, Verdict::Good)]
    #[case::hard_where_it_is_cut(MACHINED, 8.0, Found::HardEdge, None, None, Verdict::NotGood)]
    #[case::a_leak(TIGHT, 8.0, Found::Leak, None, None, Verdict::NotGood)]
    #[case::off_by_its_tolerance(CARRIES, 8.0, Found::OutOfLine, Some(0.5), None, Verdict::Good)]
    #[case::off_by_more(CARRIES, 8.0, Found::OutOfLine, Some(0.51), None, Verdict::NotGood)]
    fn what_is_good_enough_depends_on_what_the_place_does(
        #[case] duty: Duty,
        #[case] wall_mm: f64,
        #[case] found: Found,
        #[case] mm: Option<f64>,
        #[case] count: Option<u32>,
        #[case] verdict: Verdict,
    ) {
        let place = MendedPlace { duty, wall_mm, tolerance_mm: Some(out_of_line_most_mm(300.0)) };
        assert_eq!(place.judge(found, Extent { mm, count }), verdict);
    }

    #[rstest]
    #[case::short_and_only_seen(COSMETIC, Some(9.0), &[Then::Watch, Then::NewRound])]
    #[case::longer(COSMETIC, Some(10.0), &[Then::NewRound])]
    #[case::not_measured(COSMETIC, None, &[Then::NewRound])]
    #[case::it_carries(CARRIES, Some(2.0), &[Then::NewRound])]
    fn a_crack_is_watched_only_where_it_is_short_and_carries_nothing(
        #[case] duty: Duty,
        #[case] mm: Option<f64>,
        #[case] ways_on: &[Then],
    ) {
        let place = MendedPlace { duty, wall_mm: 8.0, tolerance_mm: None };
        assert_eq!(place.ways_on(Found::Crack, Extent { mm, count: None }), ways_on);
    }
}
