//! Off the axis: how a beam falls off, and what a honeycomb grid cuts.

use crate::quantity::{Angle, Stops};

/// A beam `I(θ)/I(0) = cosⁿ θ`, through a grid where there is one.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Beam {
    exponent: f64,
    grid_tangent: Option<f64>,
}

impl Beam {
    /// A beam with half power at `half_angle` (a Lambertian face, `n = 1`, where that is not known), through a grid with
    /// the cut-off half-angle `grid`. Both between 0 and 90°.
    pub fn new(half_angle: Option<Angle>, grid: Option<Angle>) -> Self {
        Self {
            exponent: half_angle.map_or(1.0, beam_exponent),
            grid_tangent: grid.map(|angle| angle.as_radians().tan()),
        }
    }

    /// `n`.
    pub const fn exponent(&self) -> f64 {
        self.exponent
    }

    /// Light at an angle off the axis against that on it; no light behind the face or beyond the grid.
    ///
    /// A honeycomb lets through `max(0, 1 − tan θ / tan θg)`.
    pub fn at(&self, angle: Angle) -> Stops {
        Stops::from_ratio(self.share(angle.as_radians().cos()))
    }

    /// The same as a share, by the cosine of the angle.
    pub fn share(&self, cosine: f64) -> f64 {
        if cosine <= 0.0 {
            return 0.0;
        }
        let open = self.grid_tangent.map_or(1.0, |limit| {
            let tangent = (1.0 - cosine * cosine).max(0.0).sqrt() / cosine;
            (1.0 - tangent / limit).max(0.0)
        });
        cosine.powf(self.exponent) * open
    }
}

/// `n` of a beam `cosⁿ θ` with half power at `half_angle`: `ln ½ / ln cos θ½`.
pub fn beam_exponent(half_angle: Angle) -> f64 {
    0.5f64.ln() / half_angle.as_radians().cos().ln()
}
