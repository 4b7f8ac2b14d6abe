//! Light by way of a ceiling or a wall.

use super::Throw;
use crate::quantity::{LuxSeconds, Metres};
use std::f64::consts::PI;

/// Rings of equal flux around the axis, and directions in each.
const RINGS: u32 = 15;
const AROUND: u32 = 20;

/// A plane surface that light is bounced off, taken as Lambertian. Places are counted from the flash: `[to the subject's
/// side, aside, to the surface]`.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bounce {
    /// Its reflectance `ρ`.
    pub reflectance: f64,
    /// The flash straight to it.
    pub away: Metres,
    /// Where the subject is.
    pub subject: [f64; 3],
    /// Where the head points, a unit vector.
    pub axis: [f64; 3],
}

impl Bounce {
    /// Exposure at the subject of a receiver turned to it: the beam `I(θ) = I0·cosⁿ θ` in 300 pieces, each lighting a spot of
    /// the plane that gives back `H = Σ ρ·I(θₖ)·ΔΩₖ·cos αₖ/(π·d₂ₖ²)`. The pieces are of equal flux, `2π·I0/(n+1)` by 300, for
    /// equal solid angles miss the middle of a narrow beam.
    pub fn exposure(&self, throw: &Throw, power: f64, exponent: f64) -> LuxSeconds {
        let [x, y, z] = self.axis;
        // Two directions across the axis.
        let side = if z.abs() < 0.9 { [y, -x, 0.0] } else { [0.0, z, -y] };
        let length = side.iter().map(|part| part * part).sum::<f64>().sqrt();
        let side = side.map(|part| part / length);
        let over = [y * side[2] - z * side[1], z * side[0] - x * side[2], x * side[1] - y * side[0]];
        let away = self.away.as_metres();
        let behind = away - self.subject[2];
        let mut sum = 0.0;
        for ring in 0..RINGS {
            let cos = (1.0 - (f64::from(ring) + 0.5) / f64::from(RINGS)).powf(1.0 / (exponent + 1.0));
            let sin = (1.0 - cos * cos).sqrt();
            for turn in 0..AROUND {
                // Each ring is turned against the last, so that spots do not stand in lines.
                let angle = 2.0 * PI * (f64::from(turn) + 0.5 * f64::from(ring % 2)) / f64::from(AROUND);
                let (s, c) = angle.sin_cos();
                let to = |k: usize| cos * self.axis[k] + sin * (c * side[k] + s * over[k]);
                let rise = to(2);
                // What points away from the surface never meets it.
                if rise <= 1e-6 || behind <= 0.0 {
                    continue;
                }
                let reach = away / rise;
                let off = [reach * to(0) - self.subject[0], reach * to(1) - self.subject[1]];
                let square = off[0] * off[0] + off[1] * off[1] + behind * behind;
                sum += behind / (square * square.sqrt());
            }
        }
        let each = 2.0 * PI / (exponent + 1.0) / f64::from(RINGS * AROUND);
        LuxSeconds::from_lux_seconds(throw.strength(power) * self.reflectance * sum * each / PI)
    }
}
