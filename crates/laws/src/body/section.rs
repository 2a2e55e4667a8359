//! What a section carries, whole and mended, where no face is drawn or the load bends it out of it.

use std::f64::consts::PI;

use crate::base::choice::choice;
use crate::iron::Iron;

/// The shape of a section.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Section {
    /// Its depth lies along the bending.
    Rectangle {
        width_mm: f64,
        depth_mm: f64,
    },
    Round {
        across_mm: f64,
    },
    Tube {
        across_mm: f64,
        wall_mm: f64,
    },
    Box {
        width_mm: f64,
        depth_mm: f64,
        wall_mm: f64,
    },
    /// A plate built in all round.
    Panel(Panel),
}

#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Panel {
    pub a_mm: f64,
    pub b_mm: f64,
    pub wall_mm: f64,
}

choice! {
    /// How a load comes.
    pub enum Shock {
        Steady = "steady", "lying still";
        Moved = "moved", "moved about";
        Knocked = "knocked", "with knocks";
    }
}

/// The corner at which a part breaks.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Corner {
    None,
    Generous,
    Small,
    Sharp,
}

/// A load on a section, and how it is joined.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Load {
    pub bend_n: f64,
    pub arm_mm: f64,
    /// A push is negative.
    pub pull_n: f64,
    pub twist_nm: f64,
    pub pressure_bar: f64,
    /// The seam of a tube runs along it; else across.
    pub seam_along: bool,
    pub shock: Shock,
    pub corner: Corner,
    pub corner_at_joint: bool,
    /// Over 10,000 times.
    pub often: bool,
    /// Share of the depth that is filled.
    pub joined_share: f64,
}

/// What iron a section is of.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stands {
    pub tensile_mpa: f64,
    /// Of its strength in steady load, what it stands when it is moved often.
    pub often_share: f64,
    /// Of the joint against whole iron.
    pub ratio: f64,
}

impl Stands {
    #[must_use]
    pub fn of(iron: Iron, ratio: f64) -> Self {
        // House.
        let often_share = match iron {
            Iron::Ductile | Iron::Malleable => 0.45,
            Iron::Gray | Iron::White | Iron::NiResist | Iron::Steel => 0.40,
        };
        Self { tensile_mpa: iron.properties().tensile_mpa, often_share, ratio }
    }

    /// The stress at which whole iron breaks, once or moved often.
    #[must_use]
    pub fn whole_mpa(self, often: bool) -> f64 {
        if often { self.often_share * self.tensile_mpa } else { self.tensile_mpa }
    }

    /// The same of the joint.
    #[must_use]
    pub fn joint_mpa(self, often: bool) -> f64 {
        let moved = if often { JOINT_OFTEN } else { 1.0 };
        moved * self.ratio.min(1.0) * self.whole_mpa(often)
    }
}

/// What became of it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Strength {
    /// Of the whole part, with shock and corner.
    pub stress_mpa: f64,
    /// Of what the whole part stands, and of what the joint stands.
    pub whole_share: f64,
    pub joint_share: f64,
    /// Bending in N, pull in N or twist in Nm, whichever stresses most, at which it breaks while the others stay.
    pub whole_breaks_at: Option<f64>,
    pub mended_breaks_at: Option<f64>,
}

impl Shock {
    #[must_use]
    pub fn factor(self) -> f64 {
        match self {
            Self::Steady => 1.0,
            Self::Moved => 1.5,
            Self::Knocked => 2.0,
        }
    }
}

/// What falls so far on a part that gives by so much under its weight asks for so many times it.
///
/// 1 + √(1 + 2 h / d)
///
/// # Source
/// Energy of a fall taken up by what gives (law).
#[must_use]
pub fn dropped(falls_mm: f64, gives_mm: f64) -> f64 {
    1.0 + (1.0 + 2.0 * falls_mm / gives_mm).sqrt()
}

impl Corner {
    pub const ALL: [(Self, &'static str); 4] =
        [(Self::None, "none"), (Self::Generous, "generous"), (Self::Small, "small"), (Self::Sharp, "sharp")];

    #[must_use]
    pub fn from_id(id: &str) -> Option<Self> {
        Self::ALL.into_iter().find(|(_, own)| *own == id).map(|(corner, _)| corner)
    }

    /// House: how much more stress a corner makes.
    #[must_use]
    pub fn factor(self) -> f64 {
        match self {
            Self::None => 1.0,
            Self::Generous => 1.2,
            Self::Small => 1.8,
            Self::Sharp => 2.5,
        }
    }
}

/// House: iron stands three times as much pushed as pulled.
const PUSHED: f64 = 3.0;
/// House: of what whole iron stands when it is moved often, what a joint does.
const JOINT_OFTEN: f64 = 0.6;
/// Ratio of a panel's sides, and beta of the stress at its long edge.
///
/// # Source
/// Rectangular plate under even pressure, built in all round.
const PANEL: [(f64, f64); 6] =
    [(1.0, 0.308), (1.2, 0.383), (1.4, 0.436), (1.6, 0.468), (1.8, 0.487), (2.0, 0.497)];

/// Area, section modulus in bending and in twist.
#[derive(Debug, Clone, Copy)]
struct Moduli {
    area_mm2: f64,
    bending_mm3: f64,
    twist_mm3: f64,
}

impl Section {
    /// As much of it as is filled: the outside of what is hollow stays.
    fn joined(self, share: f64) -> Self {
        match self {
            Self::Rectangle { width_mm, depth_mm } => {
                Self::Rectangle { width_mm, depth_mm: depth_mm * share }
            }
            Self::Round { across_mm } => Self::Round { across_mm: across_mm * share },
            Self::Tube { across_mm, wall_mm } => Self::Tube { across_mm, wall_mm: wall_mm * share },
            Self::Box { width_mm, depth_mm, wall_mm } => {
                Self::Box { width_mm, depth_mm, wall_mm: wall_mm * share }
            }
            Self::Panel(panel) => Self::Panel(Panel { wall_mm: panel.wall_mm * share, ..panel }),
        }
    }

    /// Whether nothing is left hollow within the wall.
    #[must_use]
    pub fn wall_fills_it(self) -> bool {
        match self {
            Self::Tube { across_mm, wall_mm } => 2.0 * wall_mm >= across_mm,
            Self::Box { width_mm, depth_mm, wall_mm } => 2.0 * wall_mm >= width_mm.min(depth_mm),
            Self::Rectangle { .. } | Self::Round { .. } | Self::Panel(_) => false,
        }
    }

    fn moduli(self) -> Option<Moduli> {
        match self {
            Self::Rectangle { width_mm: b, depth_mm: h } => {
                let (short, long) = (b.min(h), b.max(h));
                let alpha = 1.0 / (3.0 + 1.8 * short / long);
                Some(Moduli {
                    area_mm2: b * h,
                    bending_mm3: b * h * h / 6.0,
                    twist_mm3: alpha * short * short * long,
                })
            }
            Self::Round { across_mm: d } => Some(Moduli {
                area_mm2: PI / 4.0 * d * d,
                bending_mm3: PI / 32.0 * d.powi(3),
                twist_mm3: PI / 16.0 * d.powi(3),
            }),
            Self::Tube { across_mm: d, wall_mm } => {
                let within = d - 2.0 * wall_mm;
                let fourth = d.powi(4) - within.powi(4);
                Some(Moduli {
                    area_mm2: PI / 4.0 * (d * d - within * within),
                    bending_mm3: PI / 32.0 * fourth / d,
                    twist_mm3: PI / 16.0 * fourth / d,
                })
            }
            Self::Box { width_mm: b, depth_mm: h, wall_mm: w } => {
                let (bi, hi) = (b - 2.0 * w, h - 2.0 * w);
                Some(Moduli {
                    area_mm2: b * h - bi * hi,
                    bending_mm3: (b * h.powi(3) - bi * hi.powi(3)) / (6.0 * h),
                    twist_mm3: 2.0 * (b - w) * (h - w) * w,
                })
            }
            Self::Panel(_) => None,
        }
    }

    /// Stress in MPa of a pressure in bar.
    fn of_pressure_mpa(self, bar: f64, seam_along: bool) -> f64 {
        let mpa = bar / 10.0;
        match self {
            Self::Tube { across_mm, wall_mm } => {
                let hoop = mpa * (across_mm - 2.0 * wall_mm) / (2.0 * wall_mm);
                if seam_along { hoop } else { hoop / 2.0 }
            }
            Self::Panel(Panel { a_mm, b_mm, wall_mm }) => {
                let (short, long) = (a_mm.min(b_mm), a_mm.max(b_mm));
                panel_beta(long / short) * mpa * (short / wall_mm).powi(2)
            }
            Self::Rectangle { .. } | Self::Round { .. } | Self::Box { .. } => 0.0,
        }
    }

    /// A pull through a rectangle that is joined on one side bends it, too.
    fn pull_also_bends(self, share: f64) -> f64 {
        match self {
            Self::Rectangle { .. } => 1.0 + 3.0 * (1.0 - share) / share,
            Self::Round { .. } | Self::Tube { .. } | Self::Box { .. } | Self::Panel(_) => 1.0,
        }
    }
}

fn panel_beta(ratio: f64) -> f64 {
    let above = PANEL.iter().position(|(at, _)| ratio < *at);
    match above {
        None | Some(0) => PANEL[if above.is_none() { PANEL.len() - 1 } else { 0 }].1,
        Some(above) => {
            let ((from, low), (to, high)) = (PANEL[above - 1], PANEL[above]);
            low + (high - low) * (ratio - from) / (to - from)
        }
    }
}

/// Stresses of a load on a section, before shock and corner.
#[derive(Debug, Clone, Copy)]
struct Stresses {
    pull_mpa: f64,
    push_mpa: f64,
    bending_mpa: f64,
    pressure_mpa: f64,
    twist_mpa: f64,
}

impl Stresses {
    fn of(section: Section, load: &Load, pull_bends: f64) -> Self {
        let pressure_mpa = section.of_pressure_mpa(load.pressure_bar, load.seam_along);
        let Some(moduli) = section.moduli() else {
            return Self { pull_mpa: 0.0, push_mpa: 0.0, bending_mpa: 0.0, pressure_mpa, twist_mpa: 0.0 };
        };
        Self {
            pull_mpa: pull_bends * load.pull_n.max(0.0) / moduli.area_mm2,
            push_mpa: (-load.pull_n).max(0.0) / moduli.area_mm2,
            bending_mpa: load.bend_n.abs() * load.arm_mm / moduli.bending_mm3,
            pressure_mpa,
            twist_mpa: load.twist_nm.abs() * 1000.0 / moduli.twist_mm3,
        }
    }

    /// The stress that counts, as one that pulls: a push counts by what iron stands of it.
    fn governing_mpa(&self) -> f64 {
        let principal =
            |sigma: f64| sigma / 2.0 + (sigma * sigma / 4.0 + self.twist_mpa * self.twist_mpa).sqrt();
        let pulled = principal(self.pull_mpa + self.bending_mpa + self.pressure_mpa);
        let pushed = if self.push_mpa > 0.0 { principal(self.push_mpa + self.bending_mpa) } else { 0.0 };
        pulled.max(pushed / PUSHED)
    }
}

/// One of the loads that can be said alone.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Alone {
    Bending,
    Pull,
    Twist,
}

/// What a section carries, whole and mended.
#[must_use]
pub fn strength(section: Section, load: &Load, stands: Stands) -> Strength {
    let joint = section.joined(load.joined_share);
    let pull_bends = section.pull_also_bends(load.joined_share);
    let shock = load.shock.factor();
    let at_joint = if load.corner_at_joint { load.corner.factor() } else { 1.0 };
    let (whole_limit, joint_limit) = (stands.whole_mpa(load.often), stands.joint_mpa(load.often));
    let whole_mpa =
        |load: &Load| shock * load.corner.factor() * Stresses::of(section, load, 1.0).governing_mpa();
    let joint_mpa = |load: &Load| shock * at_joint * Stresses::of(joint, load, pull_bends).governing_mpa();
    let alone = most_of(section, load);
    let breaks = |stress: &dyn Fn(&Load) -> f64, limit: f64| {
        alone.map(|alone| breaks_at(load, alone, |load| stress(load) / limit))
    };
    let stress_mpa = whole_mpa(load);
    Strength {
        stress_mpa,
        whole_share: stress_mpa / whole_limit,
        joint_share: joint_mpa(load) / joint_limit,
        whole_breaks_at: breaks(&whole_mpa, whole_limit),
        mended_breaks_at: breaks(&joint_mpa, joint_limit),
    }
}

/// Which of the loads stresses the section most by itself.
fn most_of(section: Section, load: &Load) -> Option<Alone> {
    let alone = Stresses::of(section, load, 1.0);
    let each = [
        (Alone::Bending, alone.bending_mpa),
        (Alone::Pull, alone.pull_mpa.max(alone.push_mpa)),
        (Alone::Twist, alone.twist_mpa),
    ];
    let most =
        each.into_iter().fold((Alone::Bending, 0.0), |most, one| if one.1 > most.1 { one } else { most });
    (most.1 > 0.0).then_some(most.0)
}

/// The amount of one load at which the share is 1 while the others stay; 0 where they break it alone.
fn breaks_at(load: &Load, alone: Alone, share: impl Fn(&Load) -> f64) -> f64 {
    let with = |amount: f64| match alone {
        Alone::Bending => Load { bend_n: amount, ..*load },
        Alone::Pull => Load { pull_n: amount.copysign(load.pull_n), ..*load },
        Alone::Twist => Load { twist_nm: amount, ..*load },
    };
    if share(&with(0.0)) >= 1.0 {
        return 0.0;
    }
    let mut high = 1.0;
    while share(&with(high)) < 1.0 && high < 1e15 {
        high *= 2.0;
    }
    let mut low = 0.0;
    for _ in 0..100 {
        let middle = f64::midpoint(low, high);
        if share(&with(middle)) < 1.0 { low = middle } else { high = middle }
    }
    low
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    const STANDS: Stands = Stands { tensile_mpa: 200.0, often_share: 0.4, ratio: 0.8 };

    fn load() -> Load {
        Load {
            bend_n: 0.0,
            arm_mm: 0.0,
            pull_n: 0.0,
            twist_nm: 0.0,
            pressure_bar: 0.0,
            seam_along: false,
            shock: Shock::Steady,
            corner: Corner::None,
            corner_at_joint: false,
            often: false,
            joined_share: 1.0,
        }
    }

    #[rstest]
    #[case::square(1.0, 0.308)]
    // Half way between 1.2 and 1.4: (0.383 + 0.436) / 2
    #[case::between(1.3, 0.4095)]
    #[case::long(5.0, 0.497)]
    fn a_panel_is_read_between_its_rows(#[case] ratio: f64, #[case] beta: f64) {
        assert!((panel_beta(ratio) - beta).abs() < 1e-9, "{}", panel_beta(ratio));
        // Whichever side is called a.
        let panel = |a_mm, b_mm| Section::Panel(Panel { a_mm, b_mm, wall_mm: 8.0 });
        let pressed = Load { pressure_bar: 4.0, ..load() };
        let (one, other) = (panel(100.0 * ratio, 100.0), panel(100.0, 100.0 * ratio));
        assert_eq!(strength(one, &pressed, STANDS), strength(other, &pressed, STANDS));
    }

    #[test]
    fn a_pull_through_what_is_joined_half_bends_it_too() {
        let section = Section::Rectangle { width_mm: 20.0, depth_mm: 40.0 };
        let pulled =
            |joined_share| strength(section, &Load { pull_n: 16_000.0, joined_share, ..load() }, STANDS);
        // 16,000 N over 800 mm²: 20 MPa of 160 the joint stands.
        assert!((pulled(1.0).joint_share - 0.125).abs() < 1e-9, "{:?}", pulled(1.0));
        // Over 400 mm² 40 MPa, x (1 + 3 x 0.5 / 0.5) = 160 MPa
        assert!((pulled(0.5).joint_share - 1.0).abs() < 1e-9, "{:?}", pulled(0.5));
        assert!((pulled(0.5).mended_breaks_at.unwrap() - 16_000.0).abs() < 0.1);
    }

    #[test]
    fn a_push_is_stood_three_times_as_well_and_lowers_no_tension() {
        let section = Section::Round { across_mm: 30.0 };
        let by = |pull_n| strength(section, &Load { pull_n, ..load() }, STANDS);
        assert!((by(9000.0).whole_share - 3.0 * by(-9000.0).whole_share).abs() < 1e-9);
        let bent = Load { bend_n: 500.0, arm_mm: 200.0, ..load() };
        let bent_and_pushed = Load { pull_n: -20_000.0, ..bent };
        let (alone, both) = (strength(section, &bent, STANDS), strength(section, &bent_and_pushed, STANDS));
        assert_eq!(alone.whole_share, both.whole_share);
    }

    #[test]
    fn without_a_load_nothing_breaks_it_and_where_the_others_break_it_nothing_is_left() {
        let section = Section::Tube { across_mm: 60.0, wall_mm: 5.0 };
        let pressed = Load { pressure_bar: 60.0, seam_along: true, ..load() };
        assert_eq!(strength(section, &pressed, STANDS).whole_breaks_at, None);
        let over = Load { pressure_bar: 600.0, pull_n: 100.0, seam_along: true, ..load() };
        assert_eq!(strength(section, &over, STANDS).whole_breaks_at, Some(0.0));
    }

    #[rstest]
    #[case::knocked(Load { shock: Shock::Knocked, ..load() }, 2.0, 2.0)]
    #[case::a_sharp_corner_elsewhere(Load { corner: Corner::Sharp, ..load() }, 2.5, 1.0)]
    #[case::a_sharp_corner_at_the_joint(Load { corner: Corner::Sharp, corner_at_joint: true, ..load() }, 2.5, 2.5)]
    // 1 / 0.4, and 1 / (0.6 x 0.4)
    #[case::often(Load { often: true, ..load() }, 2.5, 1.0 / 0.24)]
    fn shock_corner_and_often_raise_the_share(#[case] with: Load, #[case] whole: f64, #[case] joint: f64) {
        let section = Section::Rectangle { width_mm: 20.0, depth_mm: 40.0 };
        let share = |load: &Load| strength(section, &Load { bend_n: 400.0, arm_mm: 150.0, ..*load }, STANDS);
        let (plain, with) = (share(&load()), share(&with));
        assert!((with.whole_share / plain.whole_share - whole).abs() < 1e-9);
        assert!((with.joint_share / plain.joint_share - joint).abs() < 1e-9);
    }
}
