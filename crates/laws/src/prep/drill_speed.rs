//! How fast to turn a drill in this iron, dry.

use serde::{Deserialize, Serialize};

use crate::iron::Iron;
use crate::quantity::Millimetres;

#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum DrillTool {
    Hss,
    Carbide,
}

/// Cutting speed in m/min. House. Irons without a figure of their own are drilled as gray.
#[must_use]
pub fn cutting_speed_m_min(iron: Iron, tool: DrillTool) -> f64 {
    match (tool, iron) {
        (DrillTool::Hss, Iron::Ductile) => 20.0,
        (DrillTool::Hss, Iron::Malleable) => 28.0,
        (DrillTool::Hss, Iron::Gray | Iron::White | Iron::NiResist | Iron::Steel) => 25.0,
        (DrillTool::Carbide, Iron::Ductile) => 55.0,
        (DrillTool::Carbide, Iron::Gray | Iron::Malleable | Iron::White | Iron::NiResist | Iron::Steel) => {
            70.0
        }
    }
}

/// Spindle speed in rpm = 1000 v / (pi D), v in m/min, D in mm.
#[must_use]
pub fn drill_speed_rpm(iron: Iron, drill: Millimetres, tool: DrillTool) -> f64 {
    1000.0 * cutting_speed_m_min(iron, tool) / (std::f64::consts::PI * drill.millimetres())
}
