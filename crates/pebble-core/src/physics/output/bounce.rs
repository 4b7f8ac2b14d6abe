//! Light by way of a ceiling or a wall.

use super::Throw;
use crate::quantity::{Angle, LuxSeconds, Metres};
use std::f64::consts::PI;

/// A surface that light is bounced off, taken as Lambertian and as lit in one spot. Good to −0.2…+0.3 stop where it is
/// light, near and without colour; elsewhere the honest answer is not to.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Bounce {
    /// Its reflectance `ρ`.
    pub reflectance: f64,
    /// `d₂`: from the lit spot to the subject.
    pub to_subject: Metres,
    /// `α`: at the surface, between its normal and the subject.
    pub at_surface: Angle,
    /// `β`: at the subject, between where it faces and the spot; zero for a dome.
    pub at_subject: Angle,
}

impl Bounce {
    /// Exposure at the subject: all the flux of the beam, `Ψ = I0·2π/(n+1)`, falls on the surface, and
    /// `H = ρ·Ψ·cos α·cos β/(π·d₂²)`.
    pub fn exposure(&self, throw: &Throw, power: f64, exponent: f64) -> LuxSeconds {
        let flux = throw.strength(power) * 2.0 * PI / (exponent + 1.0);
        let towards = |angle: Angle| angle.as_radians().cos().max(0.0);
        let spread = PI * self.to_subject.as_metres().powi(2);
        LuxSeconds::from_lux_seconds(
            self.reflectance * flux * towards(self.at_surface) * towards(self.at_subject) / spread,
        )
    }
}
