//! Exposure on the subject: what all lights together make of it, read in three ways.
//!
//! Directions are unit vectors `[right, to the camera, up]` as the camera sees them. Exposures are in any one unit.

use crate::quantity::Angle;

/// A surface is looked at from the front while it is turned at most this far from the camera: 60°.
const TURNED_COS: f64 = 0.5;
const TURNED_SIN: f64 = 0.866_025_403_784_438_6;
/// Light from one direction, on a receiver that is turned to it.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Arriving {
    /// Where it comes from.
    pub from: [f64; 3],
    /// How much.
    pub exposure: f64,
}

/// The direction of a place around the subject: 0 is the camera's side, positive to its right, `height` over the horizon.
pub fn direction(bearing: Angle, height: Angle) -> [f64; 3] {
    let (bearing, height) = (bearing.as_radians(), height.as_radians());
    [height.cos() * bearing.sin(), height.cos() * bearing.cos(), height.sin()]
}

fn dot(a: [f64; 3], b: [f64; 3]) -> f64 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

/// What a surface facing `n` gets: `Σ Hᵢ·max(0, cos ∠(n, lightᵢ))`.
pub fn on_surface(lights: &[Arriving], facing: [f64; 3]) -> f64 {
    lights.iter().map(|light| light.exposure * dot(facing, light.from).max(0.0)).sum()
}

/// What a dome turned to the camera gets: `Σ Hᵢ·(1 + cos β)/2`, `β` between light and camera.
pub fn on_dome(lights: &[Arriving]) -> f64 {
    lights.iter().map(|light| light.exposure * (1.0 + light.from[1]) / 2.0).sum()
}

/// What upright surfaces get that are turned 45° to the camera's left and to its right: the two cheeks.
pub fn on_cheeks(lights: &[Arriving]) -> (f64, f64) {
    let turned = std::f64::consts::FRAC_1_SQRT_2;
    (on_surface(lights, [-turned, turned, 0.0]), on_surface(lights, [turned, turned, 0.0]))
}

/// The most-lit surface turned at most 60° from the camera: what it gets, and where it faces.
///
/// What a surface gets is what the lights before it give as one light, their sum; counting others in could only take away:
/// `Σ Hᵢ·max(0, n·lᵢ) = max_S n·Σ_S Hᵢ·lᵢ`. So the most of any surface is the most over all sets of lights of what the surface
/// turned best to their sum gets of it, and of a few lights every set is gone through, each one light from the last.
pub fn lit_side(lights: &[Arriving]) -> (f64, [f64; 3]) {
    let (mut most, mut best, mut sum) = (0.0, [0.0; 3], [0.0; 3]);
    for step in 1_usize..1 << lights.len() {
        let changes = step.trailing_zeros() as usize;
        let light = &lights[changes];
        let by = if step >> (changes + 1) & 1 == 0 { light.exposure } else { -light.exposure };
        sum = std::array::from_fn(|axis| sum[axis] + by * light.from[axis]);
        // No surface gets more of it than the one that faces it; most sets end here.
        if dot(sum, sum) <= most * most {
            continue;
        }
        let gets = most_of(sum);
        if gets > most {
            (most, best) = (gets, sum);
        }
    }
    let facing = turned_to(best);
    (on_surface(lights, facing), facing)
}

/// What the surface turned best to one light gets of it, of those that the camera looks at.
fn most_of(light: [f64; 3]) -> f64 {
    let whole = dot(light, light).sqrt();
    let aside = (light[0] * light[0] + light[2] * light[2]).sqrt();
    let turned = TURNED_SIN * aside + TURNED_COS * light[1];
    if light[1] >= TURNED_COS * whole { whole } else { turned }
}

/// The direction nearest to `to` that the camera still looks at.
fn turned_to(to: [f64; 3]) -> [f64; 3] {
    let length = dot(to, to).sqrt();
    if length <= 0.0 {
        return [0.0, 1.0, 0.0];
    }
    let unit = to.map(|value| value / length);
    if unit[1] >= TURNED_COS {
        return unit;
    }
    let aside = unit[0].hypot(unit[2]);
    if aside <= 0.0 {
        return [0.0, 1.0, 0.0];
    }
    [TURNED_SIN * unit[0] / aside, TURNED_COS, TURNED_SIN * unit[2] / aside]
}
