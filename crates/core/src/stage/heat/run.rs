//! One source with what helps it, and what it gives a part.

use std::sync::Arc;

use super::HeatPlan;
use crate::heat::{
    BarPower, FactorOf, HeatSource, Heating, OwnFactor, SourceKind, against_usual, not_known, own_factor,
};
use crate::quantity::{Celsius, Watts};
use crate::shop::Shop;

/// A share of a flame as it is said.
pub(super) fn turned_down(share: f64) -> &'static str {
    match share {
        share if share > 0.6 => "two thirds",
        share if share > 0.4 => "half",
        share if share > 0.3 => "a third",
        _ => "a quarter",
    }
}

/// House: a cover lies on this share of the part, the joint bare.
const COVERED_SHARE: f64 = 0.6;

/// What helps a flame that does not get there by itself.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) enum Help {
    Alone,
    /// The rest of the part is covered, the joint bare.
    Covered,
    /// A second flame, and somebody to hold it.
    Second(&'static HeatSource),
}

impl Help {
    /// As it is kept beside a plan: empty, `covered`, or the id of the second flame.
    pub fn id(self) -> &'static str {
        match self {
            Self::Alone => "",
            Self::Covered => "covered",
            Self::Second(source) => source.id,
        }
    }

    pub fn from_id(id: &str) -> Self {
        match (id, HeatSource::from_id(id)) {
            ("covered", _) => Self::Covered,
            (_, Some(second)) => Self::Second(second),
            (_, None) => Self::Alone,
        }
    }
}

/// One source at hand, tried on this part.
#[derive(Debug, Clone)]
pub(crate) struct SourceRun {
    pub source: &'static HeatSource,
    pub even_share: f64,
    pub help: Help,
    /// Of its full flame.
    pub throttle: f64,
    /// An oven is set for one target; a flame is the same for all.
    pub(super) set_for_c: Option<f64>,
    /// It was worked out up to this time, where it did not get to its target before.
    pub(super) most_min: f64,
    pub heating: Arc<Heating>,
    pub ceiling_c: f64,
}

impl SourceRun {
    /// Every source that burns at it.
    pub fn sources(&self) -> Vec<&'static HeatSource> {
        match self.help {
            Help::Alone | Help::Covered => vec![self.source],
            Help::Second(second) => vec![self.source, second],
        }
    }

    /// What heats it, with what helps it.
    pub fn label(&self) -> String {
        match self.help {
            Help::Alone if self.throttle < 1.0 => {
                format!("{}, turned down to about {}", self.source.label, turned_down(self.throttle))
            }
            Help::Alone => self.source.label.to_owned(),
            Help::Covered => format!("{}, the rest of the part covered", self.source.label),
            Help::Second(second) => {
                format!("{} and, with a helper, {}", self.source.label, second.label)
            }
        }
    }
}

/// Ours: an oven is set this much over the target, so that the core gets there in time.
const OVEN_OVER_K: f64 = 50.0;

/// What a source is run with.
#[derive(Debug, Clone, Copy)]
pub(super) struct Run {
    pub source: &'static HeatSource,
    pub even_share: f64,
    pub help: Help,
    /// Of its full flame.
    pub throttle: f64,
    /// Of a flame: where it stays.
    pub station: f64,
    /// Of an oven: what it is set for.
    pub target_c: f64,
    pub closed: bool,
    /// Share of its power, and of that of a second flame.
    pub strength: (f64, f64),
}

/// Nothing learned: as the book of the house has them.
pub(super) const BOOK: (f64, f64) = (1.0, 1.0);

/// How strong the shop's own sources are against the book, by how they heated.
#[derive(Debug, Clone, Default)]
pub(crate) struct Strengths(pub(super) Vec<OwnFactor>);

impl Strengths {
    pub(super) fn one(&self, source: &HeatSource) -> (f64, usize) {
        own_factor(&self.0, &FactorOf::Source { id: source.id.to_owned() })
    }

    /// Of a source, and of what helps it.
    pub(super) fn of(&self, source: &HeatSource, help: Help) -> (f64, f64) {
        let second = match help {
            Help::Second(second) => self.one(second).0,
            Help::Alone | Help::Covered => 1.0,
        };
        (self.one(source).0, second)
    }

    /// The share of its power that is not known.
    pub(super) fn not_known(&self, source: &HeatSource) -> f64 {
        not_known(self.one(source).1)
    }

    /// What was learned of it; empty for nothing.
    pub(super) fn words(&self, source: &HeatSource) -> String {
        match self.one(source) {
            (_, 0) => String::new(),
            (factor, count) => format!(
                "{} gives {}, by {count} heating{} here",
                source.label,
                against_usual(factor),
                if count == 1 { "" } else { "s" }
            ),
        }
    }
}

impl Run {
    /// Power on a part: a flame's even share swept, an oven brought up with its ramp.
    pub(super) fn power(self) -> Option<BarPower> {
        match self.source.kind {
            SourceKind::Flame { gross_w, net_share, .. } => {
                let second = match self.help {
                    Help::Second(second) => strength_w(second).unwrap_or(0.0) * self.strength.1,
                    Help::Alone | Help::Covered => 0.0,
                };
                let net = self.throttle * (gross_w * net_share * self.strength.0 + second);
                Some(BarPower::Flame {
                    even: Watts::new(net * self.even_share).ok()?,
                    local: Watts::new(net * (1.0 - self.even_share)).ok()?,
                    station: self.station,
                    covered: if self.help == Help::Covered { COVERED_SHARE } else { 0.0 },
                })
            }
            SourceKind::Oven { up_to_c, h_w_m2k, most_w, .. } => {
                let set_c = up_to_c.min(self.target_c + OVEN_OVER_K);
                Some(BarPower::Oven {
                    set: Celsius::new(set_c).ok()?,
                    ramp_k_per_h: self.source.ramp_k_per_h(self.closed)?,
                    h_w_m2k,
                    most: Watts::new(most_w * self.strength.0).ok()?,
                })
            }
        }
    }
}

/// What the flame of a planned heating gives the iron, in W, with what helps it, and the share that is not known; nothing
/// for an oven.
pub(crate) fn net_flame(heat: &HeatPlan, shop: &Shop) -> Option<(f64, f64)> {
    let source = HeatSource::from_id(&heat.source)?;
    let strengths = Strengths(shop.learned.clone());
    let help = Help::from_id(&heat.help);
    let own = strengths.of(source, help);
    let second = match help {
        Help::Second(second) => strength_w(second)? * own.1,
        Help::Alone | Help::Covered => 0.0,
    };
    Some((heat.throttle * (strength_w(source)? * own.0 + second), strengths.not_known(source)))
}

pub(super) fn strength_w(source: &HeatSource) -> Option<f64> {
    match source.kind {
        SourceKind::Flame { gross_w, net_share, .. } => Some(gross_w * net_share),
        SourceKind::Oven { .. } => None,
    }
}

pub(super) fn oven_c(source: &HeatSource) -> Option<f64> {
    match source.kind {
        SourceKind::Flame { .. } => None,
        SourceKind::Oven { up_to_c, .. } => Some(up_to_c),
    }
}
