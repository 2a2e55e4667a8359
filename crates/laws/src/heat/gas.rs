//! Gas in cylinders: what a flame takes, how fast it may be drawn, what is left of it.

use crate::base::problem::OutOfRange;

use super::{Fuel, HeatSource, SourceKind};

/// A gas that stands in the shop in cylinders.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Gas {
    Oxygen,
    Acetylene,
    Propane,
    Argon,
}

impl Gas {
    /// As the stores call it.
    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Oxygen => "oxygen",
            Self::Acetylene => "acetylene",
            Self::Propane => "propane",
            Self::Argon => "argon",
        }
    }
}

/// Gross heating values in J/m³. House.
const ACETYLENE_J_M3: f64 = 55.6e6;
const PROPANE_J_M3: f64 = 93.0e6;
/// Oxygen for each m³ of the fuel. House.
const OXYGEN_TO_ACETYLENE: f64 = 1.1;
const OXYGEN_TO_PROPANE: f64 = 4.0;
/// House: what is needed, and so much of it in reserve.
const WITH_RESERVE: f64 = 1.15;

/// What a source burns in m³/h, each gas; empty for what burns none from a cylinder, or one whose heating value is not known here.
///
/// # Source
/// House.
fn gases_m3_h(source: &HeatSource) -> Vec<(Gas, f64)> {
    let SourceKind::Flame { gross_w, fuel, .. } = source.kind else { return Vec::new() };
    let acetylene = gross_w * 3600.0 / ACETYLENE_J_M3;
    let propane = gross_w * 3600.0 / PROPANE_J_M3;
    match fuel {
        Fuel::OxyAcetylene => {
            vec![(Gas::Acetylene, acetylene), (Gas::Oxygen, OXYGEN_TO_ACETYLENE * acetylene)]
        }
        Fuel::OxyPropane => vec![(Gas::Propane, propane), (Gas::Oxygen, OXYGEN_TO_PROPANE * propane)],
        Fuel::Propane => vec![(Gas::Propane, propane)],
        Fuel::MapGas | Fuel::Current => Vec::new(),
    }
}

/// What several sources burn together in m³/h, each gas once.
#[must_use]
pub fn burnt_together(sources: &[&HeatSource]) -> Vec<(Gas, f64)> {
    let mut flows: Vec<(Gas, f64)> = Vec::new();
    for (gas, flow) in sources.iter().flat_map(|source| gases_m3_h(source)) {
        match flows.iter_mut().find(|(known, _)| *known == gas) {
            Some((_, sum)) => *sum += flow,
            None => flows.push((gas, flow)),
        }
    }
    flows
}

/// Gas in m³ for so many minutes at a flow in m³/h, with its reserve.
///
/// flow × minutes ÷ 60 × 1.15
///
/// # Source
/// House.
#[must_use]
pub fn gas_need_m3(flow_m3_h: f64, minutes: f64) -> f64 {
    flow_m3_h * minutes / 60.0 * WITH_RESERVE
}

/// Minutes until what is there has run out, nothing kept in reserve; nothing where nothing flows.
#[must_use]
pub fn runs_out_min(flow_m3_h: f64, have_m3: f64) -> Option<f64> {
    (flow_m3_h > 0.0).then(|| have_m3 / flow_m3_h * 60.0)
}

/// How fast acetylene may be drawn from one cylinder, and how many of them a flow asks for.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Withdrawal {
    pub continuous_m3_h: f64,
    pub intermittent_m3_h: f64,
    pub cylinders_continuous: u32,
    pub cylinders_intermittent: u32,
}

/// Most cylinders on one manifold. Ours: what asks for more is not a thing of a bench.
const CYLINDERS_MOST: f64 = 10_000.0;

/// The withdrawal of a flow in m³/h from cylinders that hold so much, in m³.
///
/// Continuous capacity ÷ 15 an hour, intermittent capacity ÷ 10.
///
/// # Errors
/// [`OutOfRange`] when the flow asks for more cylinders than can be counted.
///
/// # Source
/// CGA G-1.
pub fn withdrawal(capacity_m3: f64, flow_m3_h: f64) -> Result<Withdrawal, OutOfRange> {
    let (continuous_m3_h, intermittent_m3_h) = (capacity_m3 / 15.0, capacity_m3 / 10.0);
    let most = OutOfRange::check(
        "cylinders on a manifold",
        "",
        (0.0, CYLINDERS_MOST),
        (flow_m3_h / continuous_m3_h).ceil(),
    );
    most?;
    let cylinders = |limit: f64| (flow_m3_h / limit - 1e-9).ceil().max(0.0) as u32;
    Ok(Withdrawal {
        continuous_m3_h,
        intermittent_m3_h,
        cylinders_continuous: cylinders(continuous_m3_h),
        cylinders_intermittent: cylinders(intermittent_m3_h),
    })
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::*;

    #[rstest]
    // 12 kW × 3600 ÷ 55.6 MJ = 0.777; × 1.1
    #[case::small_tip("oxy_acetylene_small", &[(Gas::Acetylene, 0.777), (Gas::Oxygen, 0.855)])]
    // 45 kW × 3600 ÷ 93 MJ = 1.742; × 4
    #[case::oxy_propane("oxy_propane", &[(Gas::Propane, 1.742), (Gas::Oxygen, 6.968)])]
    #[case::roofing_burner("weed_burner", &[(Gas::Propane, 1.161)])]
    #[case::not_known_here("hand_torch_map", &[])]
    #[case::an_oven("kiln", &[])]
    fn a_flame_takes_its_gases(#[case] source: &str, #[case] takes: &[(Gas, f64)]) {
        let found = gases_m3_h(HeatSource::from_id(source).unwrap());
        assert_eq!(found.len(), takes.len());
        for ((gas, flow), (expected, m3_h)) in found.iter().zip(takes) {
            assert_eq!(gas, expected);
            assert!((flow - m3_h).abs() < 0.001, "{flow}");
        }
    }

    #[test]
    fn two_flames_burn_the_sum_of_each_gas() {
        let of = |id: &str| HeatSource::from_id(id).unwrap();
        let both = burnt_together(&[of("oxy_propane"), of("weed_burner")]);
        // Hand-worked: 1.742 + 1.161 propane, 6.968 oxygen
        assert_eq!(both.len(), 2);
        assert!((both[0].1 - 2.903).abs() < 0.002 && (both[1].1 - 6.968).abs() < 0.002, "{both:?}");
    }

    #[test]
    fn what_is_needed_has_a_reserve_and_what_runs_out_has_none() {
        // 1.5 × 40 ÷ 60 × 1.15
        assert!((gas_need_m3(1.5, 40.0) - 1.15).abs() < 1e-9);
        assert_eq!(runs_out_min(1.5, 1.6), Some(64.0));
        assert_eq!(runs_out_min(0.0, 1.6), None);
    }

    #[test]
    fn a_large_flame_asks_for_a_manifold() {
        // 4 ÷ 15 = 0.267: 1.5 asks for 5.6, so 6; 4 ÷ 10 = 0.4: 3.75, so 4
        let drawn = withdrawal(4.0, 1.5).unwrap();
        assert_eq!((drawn.cylinders_continuous, drawn.cylinders_intermittent), (6, 4));
        assert_eq!(withdrawal(15.0, 2.0).unwrap().cylinders_continuous, 2, "just so much is no more");
        assert!(withdrawal(0.0001, 1e9).is_err());
    }
}
