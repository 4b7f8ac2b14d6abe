//! What automatic flash makes of a scene: it aims at 18 %.

use super::exposure::MID_GREY;
use crate::quantity::Stops;

/// Below this mean reflectance the automatic's own limits decide, not the scene.
const DARKEST_SCENE: f64 = 0.01;

/// One tone of the scene.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Patch {
    /// Share of the frame.
    pub area: f64,
    /// Reflectance.
    pub reflectance: f64,
    /// Distance from the flash, relative to the subject's.
    pub relative_distance: f64,
}

/// Compensation to dial in: `log2(R̄/0.18)` with `R̄ = Σ aρ/r² ÷ Σ a/r²`. Left alone, the picture is off by the opposite.
pub fn compensation(patches: &[Patch]) -> Stops {
    let weight = |patch: &Patch| patch.area / patch.relative_distance.powi(2);
    let total: f64 = patches.iter().map(weight).sum();
    let mean = patches.iter().map(|patch| weight(patch) * patch.reflectance).sum::<f64>() / total;
    Stops::from_ratio(mean.max(DARKEST_SCENE) / MID_GREY)
}
