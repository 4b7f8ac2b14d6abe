//! Quantities that carry their unit.
//!
//! Inside the core no bare `f64` stands where a unit exists. Each type has one unit-named constructor, one unit-named
//! getter and only the operators that mean something: a time times an illuminance is an exposure, two times add, two
//! f-numbers do not.

pub mod bounds;
pub mod dial;
pub mod said;
pub mod scale;
mod stops;
pub mod words;

pub use stops::{Stops, sum_of_sources};

use std::fmt;
use std::ops::{Add, Div, Mul, Neg, Sub};

macro_rules! quantity {
    ($(#[$doc:meta])* $name:ident, $unit:literal, $from:ident, $get:ident) => {
        $(#[$doc])*
        #[derive(Clone, Copy, PartialEq, PartialOrd, Default)]
        pub struct $name(f64);

        impl $name {
            /// Nothing of it.
            pub const ZERO: Self = Self(0.0);

            #[doc = concat!("From a number of ", $unit, ".")]
            pub const fn $from(value: f64) -> Self {
                Self(value)
            }

            #[doc = concat!("As a number of ", $unit, ".")]
            pub const fn $get(self) -> f64 {
                self.0
            }

            /// The smaller of two.
            pub fn min(self, other: Self) -> Self {
                Self(self.0.min(other.0))
            }

            /// The larger of two.
            pub fn max(self, other: Self) -> Self {
                Self(self.0.max(other.0))
            }
        }

        impl Add for $name {
            type Output = Self;
            fn add(self, other: Self) -> Self {
                Self(self.0 + other.0)
            }
        }
        impl Sub for $name {
            type Output = Self;
            fn sub(self, other: Self) -> Self {
                Self(self.0 - other.0)
            }
        }
        impl Neg for $name {
            type Output = Self;
            fn neg(self) -> Self {
                Self(-self.0)
            }
        }
        impl Mul<f64> for $name {
            type Output = Self;
            fn mul(self, factor: f64) -> Self {
                Self(self.0 * factor)
            }
        }
        impl Div<f64> for $name {
            type Output = Self;
            fn div(self, divisor: f64) -> Self {
                Self(self.0 / divisor)
            }
        }
        impl Div for $name {
            type Output = f64;
            fn div(self, other: Self) -> f64 {
                self.0 / other.0
            }
        }
        impl fmt::Debug for $name {
            fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                write!(f, "{} {}", self.0, $unit)
            }
        }
    };
}

quantity!(/// A span of time, or a time since the shutter was released.
    Seconds, "s", from_secs, as_secs);
quantity!(/// A length, in the scene or on the sensor.
    Metres, "m", from_metres, as_metres);
quantity!(/// A speed, of a part in the scene or of its image on the sensor.
    MetresPerSecond, "m/s", from_metres_per_second, as_metres_per_second);
quantity!(/// Illuminance `E`.
    Lux, "lx", from_lux, as_lux);
quantity!(/// Luminous exposure `H`, the light that falls on a place during the picture.
    LuxSeconds, "lx·s", from_lux_seconds, as_lux_seconds);
quantity!(/// Output of a flash `H1`: luminous exposure times distance squared, on axis, at full power.
    FlashOutput, "lx·s·m²", from_lux_seconds_square_metres, as_lux_seconds_square_metres);
quantity!(/// Luminance `L` of a surface or a lamp.
    Luminance, "cd/m²", from_candelas_per_square_metre, as_candelas_per_square_metre);
quantity!(/// Energy in a flash's store. Stored energy is not light.
    Joules, "J", from_joules, as_joules);
quantity!(/// An angle.
    Angle, "rad", from_radians, as_radians);

impl Seconds {
    /// From milliseconds.
    pub const fn from_millis(value: f64) -> Self {
        Self(value * 1e-3)
    }

    /// As milliseconds.
    pub const fn as_millis(self) -> f64 {
        self.0 * 1e3
    }
}

impl Metres {
    /// From millimetres, the customary unit of lenses and sensors.
    pub const fn from_millimetres(value: f64) -> Self {
        Self(value * 1e-3)
    }

    /// As millimetres.
    pub const fn as_millimetres(self) -> f64 {
        self.0 * 1e3
    }
}

impl Angle {
    /// From degrees.
    pub const fn from_degrees(value: f64) -> Self {
        Self(value.to_radians())
    }
}

impl Mul<Seconds> for Lux {
    type Output = LuxSeconds;
    fn mul(self, time: Seconds) -> LuxSeconds {
        LuxSeconds::from_lux_seconds(self.0 * time.0)
    }
}

impl Div<Seconds> for LuxSeconds {
    type Output = Lux;
    fn div(self, time: Seconds) -> Lux {
        Lux::from_lux(self.0 / time.0)
    }
}

impl Div<Lux> for LuxSeconds {
    type Output = Seconds;
    fn div(self, illuminance: Lux) -> Seconds {
        Seconds::from_secs(self.0 / illuminance.0)
    }
}

impl Mul<Seconds> for MetresPerSecond {
    type Output = Metres;
    fn mul(self, time: Seconds) -> Metres {
        Metres::from_metres(self.0 * time.0)
    }
}

impl Div<MetresPerSecond> for Metres {
    type Output = Seconds;
    fn div(self, speed: MetresPerSecond) -> Seconds {
        Seconds::from_secs(self.0 / speed.0)
    }
}
