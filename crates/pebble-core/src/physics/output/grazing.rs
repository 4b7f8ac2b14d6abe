//! Why rims are set below the key: light that grazes a surface is mirrored by it, and looks brighter than a meter says.

use crate::quantity::{Angle, Stops};

/// Mirrored light at a right angle, of skin, cloth and most painted things (refractive index near 1.5).
const STRAIGHT_ON: f64 = 0.04;
/// Reflectance of skin and middling cloth, where no part says otherwise.
pub const USUAL_TONE: f64 = 0.3;

/// How much brighter an edge looks than the same light from the front would make it: a rule of thumb, for a surface of
/// reflectance `ρ` that mirrors the light to the camera, half-way between the two. `log2((ρ + F(θ))/(ρ + F(0)))`, with
/// Schlick's approximation `F(θ) = F0 + (1 − F0)(1 − cos θ)^5` (Schlick 1994) and `θ` half the angle between light and
/// camera. Sweat, satin and hair do more; matt wool less.
pub fn allowance(bearing: Angle, height: Angle, reflectance: f64) -> Stops {
    let between = (bearing.as_radians().cos() * height.as_radians().cos()).clamp(-1.0, 1.0).acos();
    let mirrored = STRAIGHT_ON + (1.0 - STRAIGHT_ON) * (1.0 - (between / 2.0).cos()).powi(5);
    Stops::from_ratio((reflectance + mirrored) / (reflectance + STRAIGHT_ON))
}
