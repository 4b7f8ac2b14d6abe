//! How much light a flash delivers, and how it falls off.
//!
//! Output is `H1`, luminous exposure times distance squared at full power, on axis, with the reference reflector. At a
//! distance `d` through a modifier of `M` stops with a face of radius `R` and a virtual source `o` behind it:
//! `H(d) = H1·2^M·P / ((d+o)² + R²)`, exact on the axis of a uniform disc and the inverse square law far away.

mod beam;
mod bounce;
pub mod colour;
pub mod grazing;

pub use beam::{Beam, beam_exponent};
pub use bounce::Bounce;

use crate::physics::exposure::INCIDENT_C;
use crate::quantity::scale::{Aperture, Iso};
use crate::quantity::{Angle, FlashOutput, Joules, LuxSeconds, Metres, Stops};
use std::f64::consts::PI;

/// Lumen-seconds per stored joule, a middling figure for xenon heads.
const EFFICACY: f64 = 35.0;
/// `H1` per joule when the beam is unknown.
pub(crate) const OUTPUT_PER_JOULE: f64 = 30.0;

/// How far an output taken from joules alone may be off, low and high, in stops.
pub const ESTIMATE_SPAN: (f64, f64) = (-1.4, 2.0);

/// An output as it was entered. `H1` is derived each time, so a change of constant never moves a guide number.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Entry {
    /// Guide number in metres at ISO 100, bare.
    GuideNumber(Metres),
    /// An f-number read with a meter in front of a modifier, which it then includes.
    Reading {
        /// f-number read.
        aperture: Aperture,
        /// ISO of the reading.
        iso: Iso,
        /// Power it was fired at.
        power: f64,
        /// Distance of the meter.
        distance: Metres,
        /// Face and virtual source of the modifier in place.
        face: Face,
        /// Loss of that modifier, taken out again to get `H1`.
        modifier: Stops,
    },
    /// Exposure at a distance, bare, full power.
    Exposure {
        /// The exposure.
        exposure: LuxSeconds,
        /// Where.
        distance: Metres,
    },
    /// Stored energy only: an estimate, see [`ESTIMATE_SPAN`].
    Energy {
        /// The energy.
        energy: Joules,
        /// Half-power half-angle of the beam, where known.
        half_angle: Option<Angle>,
    },
}

/// The lit face seen by the subject.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Face {
    /// Radius `R`; zero is a bare tube.
    pub radius: Metres,
    /// Virtual source offset `o` behind the face.
    pub offset: Metres,
}

impl Face {
    /// `(d+o)² + R²`, in m².
    pub fn spread(self, distance: Metres) -> f64 {
        (distance + self.offset).as_metres().powi(2) + self.radius.as_metres().powi(2)
    }
}

impl Entry {
    /// `H1` at full power with the reference reflector.
    pub fn output(self) -> FlashOutput {
        FlashOutput::from_lux_seconds_square_metres(match self {
            Self::GuideNumber(number) => INCIDENT_C * number.as_metres().powi(2) / 100.0,
            Self::Reading { aperture, iso, power, distance, face, modifier } => {
                INCIDENT_C * aperture.number().powi(2) * face.spread(distance)
                    / (iso.number() * power)
                    / modifier.as_ratio()
            }
            Self::Exposure { exposure, distance } => exposure.as_lux_seconds() * distance.as_metres().powi(2),
            Self::Energy { energy, half_angle: Some(angle) } => {
                EFFICACY * energy.as_joules() * (beam_exponent(angle) + 1.0) / (2.0 * PI)
            }
            Self::Energy { energy, half_angle: None } => OUTPUT_PER_JOULE * energy.as_joules(),
        })
    }

    /// Whether it is said in light, and not by what a meter makes of it.
    pub fn is_photometric(self) -> bool {
        matches!(self, Self::Exposure { .. } | Self::Energy { .. })
    }

    /// Whether every figure that comes from it must be called an estimate.
    pub fn is_estimate(self) -> bool {
        matches!(self, Self::Energy { .. })
    }
}

/// The way from a unit to the subject.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Throw {
    /// `H1` of the unit.
    pub output: FlashOutput,
    /// `M`, the modifier's change in stops; a loss is negative.
    pub modifier: Stops,
    /// The lit face.
    pub face: Face,
}

impl Throw {
    /// `H(d)` at a power fraction. `distance`, offset and radius must not all be zero; [`crate::file::gear`] sees to it.
    pub fn exposure(&self, power: f64, distance: Metres) -> LuxSeconds {
        LuxSeconds::from_lux_seconds(self.strength(power) / self.face.spread(distance))
    }

    /// The distance at which a power gives an exposure, or `None` where no distance does: near a large face the
    /// exposure has a ceiling, and a solution at or behind the face is none.
    ///
    /// From `H·((d+o)² + R²) = H1·2^M·P`: `d = √(H1·2^M·P/H − R²) − o`.
    pub fn distance_for(&self, power: f64, exposure: LuxSeconds) -> Option<Metres> {
        let square = self.strength(power) / exposure.as_lux_seconds() - self.face.radius.as_metres().powi(2);
        let distance = Metres::from_metres(square.sqrt()) - self.face.offset;
        // A negative square gives NaN, which compares false.
        (distance.as_metres() > 0.0).then_some(distance)
    }

    /// The power fraction that gives an exposure at a distance; may be above 1, which no unit has.
    pub fn power_for(&self, distance: Metres, exposure: LuxSeconds) -> f64 {
        exposure.as_lux_seconds() * self.face.spread(distance) / self.strength(1.0)
    }

    /// `I0 = H1·2^M·P`, on the axis.
    pub fn strength(&self, power: f64) -> f64 {
        self.output.as_lux_seconds_square_metres() * self.modifier.as_ratio() * power
    }
}

/// Change of exposure from one distance to another, in stops.
pub fn fall_off(face: Face, from: Metres, to: Metres) -> Stops {
    Stops::from_ratio(face.spread(from) / face.spread(to))
}
