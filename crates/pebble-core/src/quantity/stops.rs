//! Stops: light on a scale of factors of two.

use super::LuxSeconds;
use std::fmt;
use std::ops::{Add, Neg, Sub};

/// A factor of light as its logarithm to base two. `−∞` is no light at all and is a legal value.
///
/// Stops of one path add (power, distance, filter). Light of two *sources* does not: use [`sum_of_sources`]. That is
/// why there is no `Sum` for stops, and no multiplication of stops by stops.
///
/// ```
/// use pebble_core::quantity::Stops;
/// assert_eq!(Stops::from_ratio(8.0).as_stops(), 3.0);
/// assert_eq!(Stops::DARK.as_ratio(), 0.0);
/// ```
///
/// ```compile_fail
/// use pebble_core::quantity::Stops;
/// let two_lamps: Stops = [Stops::from_stops(0.0), Stops::from_stops(0.0)].into_iter().sum();
/// ```
#[derive(Clone, Copy, PartialEq, PartialOrd)]
pub struct Stops(f64);

impl Stops {
    /// No change.
    pub const ZERO: Self = Self(0.0);
    /// No light.
    pub const DARK: Self = Self(f64::NEG_INFINITY);

    /// From a number of stops.
    pub const fn from_stops(value: f64) -> Self {
        Self(value)
    }

    /// As a number of stops.
    pub const fn as_stops(self) -> f64 {
        self.0
    }

    /// The stops of a ratio of light; 0 gives [`Stops::DARK`].
    pub fn from_ratio(ratio: f64) -> Self {
        Self(ratio.log2())
    }

    /// The ratio these stops stand for.
    pub fn as_ratio(self) -> f64 {
        self.0.exp2()
    }

    /// Where an exposure lies against the one that gives the metered tone: `p = log2(H / H_ref)`.
    pub fn placement(exposure: LuxSeconds, reference: LuxSeconds) -> Self {
        Self::from_ratio(exposure / reference)
    }

    /// The brighter of two.
    pub const fn max(self, other: Self) -> Self {
        Self(self.0.max(other.0))
    }

    /// The number for a wire format that has no infinities: `None` is no light.
    pub fn to_wire(self) -> Option<f64> {
        self.0.is_finite().then_some(self.0)
    }
}

impl Add for Stops {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }
}

impl Sub for Stops {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0)
    }
}

impl Neg for Stops {
    type Output = Self;
    fn neg(self) -> Self {
        Self(-self.0)
    }
}

impl fmt::Debug for Stops {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:+} stops", self.0)
    }
}

/// The placement of several sources together: `log2(Σ 2^p)`. No source, or only dark ones, give [`Stops::DARK`].
pub fn sum_of_sources(placements: impl IntoIterator<Item = Stops>) -> Stops {
    Stops::from_ratio(placements.into_iter().map(Stops::as_ratio).sum())
}
