//! Exposure on the subject: what all lights together make of it, read in three ways.
//!
//! Directions are unit vectors `[right, to the camera, up]` as the camera sees them. Exposures are in any one unit.

use crate::quantity::Angle;

/// A surface is looked at from the front while it is turned at most this far from the camera: 60°.
const TURNED_COS: f64 = 0.5;
const TURNED_SIN: f64 = 0.866_025_403_784_438_6;
/// Directions around the farthest that a surface may be turned, where lights from behind are caught.
const AROUND_THE_EDGE: [(f64, f64); 8] =
    [(1.0, 0.0), (0.7, 0.7), (0.0, 1.0), (-0.7, 0.7), (-1.0, 0.0), (-0.7, -0.7), (0.0, -1.0), (0.7, -0.7)];
/// Surfaces that are improved, of all that are looked at.
const CLIMBED: usize = 4;
/// The most lights that are gone through in all ways of being seen together.
const ALL_WAYS: usize = 6;

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
/// `max_n Σ Hᵢ·max(0, n·lᵢ)` is the largest, over all sets of lights, of what a surface gets from their sum taken as one
/// light; for a set it faces that sum, or the nearest direction that the camera still looks at. A few lights are gone
/// through in all sets; of more, the best of some sets are improved until none gets better, which is within 0.04 stop.
pub fn lit_side(lights: &[Arriving]) -> (f64, [f64; 3]) {
    let sum = |of: &mut dyn Iterator<Item = &Arriving>| {
        of.fold([0.0; 3], |sum: [f64; 3], light| std::array::from_fn(|k| sum[k] + light.exposure * light.from[k]))
    };
    let mut best = (0.0, [0.0, 1.0, 0.0]);
    let mut keep = |facing: [f64; 3]| {
        let gets = on_surface(lights, facing);
        if gets > best.0 {
            best = (gets, facing);
        }
    };
    if lights.len() <= ALL_WAYS {
        for set in 1_usize..1 << lights.len() {
            let of = lights.iter().enumerate().filter(|(index, _)| set >> index & 1 == 1);
            keep(turned_to(sum(&mut of.map(|(_, light)| light))));
        }
        return best;
    }
    // The most lit among surfaces turned to one light, to two of them or to all.
    let mut starts = [(0.0, [0.0, 1.0, 0.0]); CLIMBED];
    let mut consider = |to: [f64; 3]| {
        let facing = turned_to(to);
        let mut one = (on_surface(lights, facing), facing);
        for start in &mut starts {
            if one.0 > start.0 {
                std::mem::swap(start, &mut one);
            }
        }
    };
    consider(sum(&mut lights.iter()));
    AROUND_THE_EDGE.iter().for_each(|(right, up)| consider([*right, 0.0, *up]));
    for (index, first) in lights.iter().enumerate() {
        consider(first.from);
        lights[index + 1..].iter().for_each(|second| consider(sum(&mut [*first, *second].iter())));
    }
    for (_, mut facing) in starts {
        // Each step turns to all that the last one faced, which is never darker.
        for _ in 0..lights.len() {
            let next = turned_to(sum(&mut lights.iter().filter(|light| dot(facing, light.from) > 0.0)));
            if next == facing {
                break;
            }
            facing = next;
        }
        keep(facing);
    }
    best
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
