//! What automatic flash makes of a scene: it aims at 18 % and is fooled by dark walls and white clothes.

use crate::exposure::MID_GREY;
use crate::plan::metered_bias;
use crate::quantity::Stops;
use crate::quantity::bounds::Invalid;
use crate::shot::Tone;
use crate::wire::report;

report! {
    /// What to dial in against the automatic.
    pub struct MeteringAnswer {
        /// For these tones; left alone, the picture is off by the opposite.
        pub bias_stops: f64,
        /// For those that come next.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub next_bias_stops: Option<f64>,
        /// By how much to turn when they come.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub change_stops: Option<f64>,
    }
}

/// The bias for the tones of a frame, and how it changes for the next.
///
/// # Errors
/// [`Invalid`] for a tone out of range, or none with a share of the frame.
pub fn biases(tones: &[Tone], next: &[Tone]) -> Result<MeteringAnswer, Invalid> {
    let now = metered_bias(tones)?;
    let next = (!next.is_empty()).then(|| metered_bias(next)).transpose()?;
    Ok(MeteringAnswer {
        bias_stops: now.as_stops(),
        next_bias_stops: next.map(Stops::as_stops),
        change_stops: next.map(|next| (next - now).as_stops()),
    })
}

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
