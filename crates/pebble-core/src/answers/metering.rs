//! What automatic flash makes of a scene: it aims at 18 % and is fooled by dark walls and white clothes.

use crate::file::shot::Tone;
use crate::plan::metered_bias;
use crate::quantity::Stops;
use crate::quantity::bounds::Invalid;
use crate::wire::report;

pub use crate::physics::metering::{Patch, compensation};

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
