//! Places and directions in the set, in metres: right as the camera sees it, away from it, up.

use std::sync::LazyLock;

/// Sine and cosine of places evenly around an edge.
pub(super) static AROUND: LazyLock<[(f64, f64); 12]> =
    LazyLock::new(|| std::array::from_fn(|k| (std::f64::consts::TAU * k as f64 / 12.0).sin_cos()));

/// A place, a way between two, or a direction.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Spot {
    /// To the right.
    pub x: f64,
    /// Away from the camera.
    pub y: f64,
    /// Up.
    pub z: f64,
}

/// A place by its three metres.
pub const fn spot(x: f64, y: f64, z: f64) -> Spot {
    Spot { x, y, z }
}

impl std::ops::Add for Spot {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        spot(self.x + other.x, self.y + other.y, self.z + other.z)
    }
}

impl std::ops::Sub for Spot {
    type Output = Self;
    fn sub(self, other: Self) -> Self {
        spot(self.x - other.x, self.y - other.y, self.z - other.z)
    }
}

impl std::ops::Mul<f64> for Spot {
    type Output = Self;
    fn mul(self, by: f64) -> Self {
        spot(self.x * by, self.y * by, self.z * by)
    }
}

impl Spot {
    /// Straight up.
    pub const UP: Self = spot(0.0, 0.0, 1.0);

    /// Scalar product.
    pub fn dot(self, other: Self) -> f64 {
        self.x * other.x + self.y * other.y + self.z * other.z
    }

    /// Vector product.
    pub fn cross(self, other: Self) -> Self {
        spot(
            self.y * other.z - self.z * other.y,
            self.z * other.x - self.x * other.z,
            self.x * other.y - self.y * other.x,
        )
    }

    /// Length.
    pub fn length(self) -> f64 {
        self.dot(self).sqrt()
    }

    /// The same direction, one metre long; up where there is none.
    pub fn unit(self) -> Self {
        let length = self.length();
        if length > 1e-12 { self * (1.0 / length) } else { Self::UP }
    }

    /// Part of the way to another place.
    pub fn toward(self, other: Self, share: f64) -> Self {
        self + (other - self) * share
    }
}

/// Three directions at right angles that something is built along.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Axes {
    /// Where it faces.
    pub front: Spot,
    /// Its own left.
    pub left: Spot,
    /// Its own up.
    pub up: Spot,
}

impl Axes {
    /// Of somebody who stands upright, turned from the camera to the camera's right by some degrees.
    pub fn turned(degrees: f64) -> Self {
        let (sin, cos) = degrees.to_radians().sin_cos();
        Self { front: spot(sin, -cos, 0.0), left: spot(cos, sin, 0.0), up: Spot::UP }
    }

    /// From its own coordinates to the set's.
    pub fn out(&self, own: Spot) -> Spot {
        self.front * own.x + self.left * own.y + self.up * own.z
    }

    /// Leaning forward, then to its own left, then turned to its own left, in degrees.
    pub fn leaning(&self, forward: f64, left: f64, turned: f64) -> Self {
        let (sin, cos) = forward.to_radians().sin_cos();
        let pitched =
            Self { front: self.front * cos - self.up * sin, left: self.left, up: self.up * cos + self.front * sin };
        let (sin, cos) = left.to_radians().sin_cos();
        let rolled = Self {
            front: pitched.front,
            left: pitched.left * cos - pitched.up * sin,
            up: pitched.up * cos + pitched.left * sin,
        };
        let (sin, cos) = turned.to_radians().sin_cos();
        Self {
            front: rolled.front * cos + rolled.left * sin,
            left: rolled.left * cos - rolled.front * sin,
            up: rolled.up,
        }
    }

    /// A limb's direction: swung forward from hanging down, and out to a side (+1 its own left).
    pub fn hanging(&self, swung: f64, out: f64, side: f64) -> Spot {
        let ((swing_sin, swing_cos), (out_sin, out_cos)) = (swung.to_radians().sin_cos(), out.to_radians().sin_cos());
        self.front * (swing_sin * out_cos) + self.left * (side * out_sin) - self.up * (swing_cos * out_cos)
    }
}
