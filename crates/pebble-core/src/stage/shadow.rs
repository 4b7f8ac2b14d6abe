//! Where the shadow of who stands on the mark falls: on what is behind and on the floor, as far as the lens sees it.
//!
//! model.md §12: the figure is an upright capsule. A shadow is seen where a place of floor or background in the frame does not
//! see the light past the figure, and the figure does not hide it from the lens; how deep it is says the share of light that
//! is left there.

use super::field::Shining;
use super::lens::Lens;
use super::sheet::TO_CAMERA;
use super::space::{Spot, spot};

/// Places across and down the frame that are looked at.
const ACROSS: usize = 60;
const DOWN: usize = 40;

/// Who stands on the mark, as an upright capsule in metres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Capsule {
    /// From the floor to the top.
    pub high: f64,
    /// Its width.
    pub wide: f64,
}

impl Capsule {
    /// Whether it stands between two places.
    pub fn stops(&self, from: Spot, to: Spot) -> bool {
        let radius = self.wide / 2.0;
        let (low, high) = (radius, (self.high - radius).max(radius));
        let way = to - from;
        let flat = way.x * way.x + way.y * way.y;
        // Nearest to its axis as seen from above: between the ends of the axis, or nearest to one of them.
        let share = if flat > 0.0 { (-(from.x * way.x + from.y * way.y) / flat).clamp(0.0, 1.0) } else { 0.0 };
        let passes = from + way * share;
        if passes.x * passes.x + passes.y * passes.y >= radius * radius {
            return false;
        }
        if (low..=high).contains(&passes.z) {
            return true;
        }
        let near = |end: f64| {
            let centre = spot(0.0, 0.0, end);
            let length = way.dot(way);
            let share = if length > 0.0 { ((centre - from).dot(way) / length).clamp(0.0, 1.0) } else { 0.0 };
            (from + way * share - centre).length() < radius
        };
        near(low) || near(high)
    }
}

/// A shadow on floor or background.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Fallen {
    /// How much of the frame it takes, as a share.
    pub of_frame: f64,
    /// The least share of light that is left in it.
    pub left: f64,
}

/// The shadow that a light throws.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Shadow {
    /// On what is behind.
    pub behind: Option<Fallen>,
    /// On the floor.
    pub floor: Option<Fallen>,
}

/// The shadows of all lights, each with the share of it that the frame gets, over a steady light on the background and on
/// the floor, in lx·s.
pub fn shadows(lens: &Lens, figure: Capsule, lamps: &[(Shining, f64)], steady: f64) -> Vec<Shadow> {
    let mut found = vec![Shadow::default(); lamps.len()];
    let eye = lens.view.eye;
    let mut lit = vec![(0.0, false); lamps.len()];
    for j in 0..DOWN {
        for i in 0..ACROSS {
            let share = |k: usize, count: usize| (k as f64 + 0.5) / count as f64 * 2.0 - 1.0;
            let Some((place, on_floor)) = lens.meets(share(i, ACROSS), share(j, DOWN)) else { continue };
            // Looked at from the other side of the figure it is not seen.
            if figure.stops(eye, place) {
                continue;
            }
            // Nearly all of what is seen lies in no shadow, and needs no light to say so.
            let mut any = false;
            for ((lamp, whole), lit) in lamps.iter().zip(&mut lit) {
                lit.1 = *whole > 0.0 && figure.stops(place, lamp.at);
                any |= lit.1;
            }
            if !any {
                continue;
            }
            let facing = if on_floor { Spot::UP } else { TO_CAMERA };
            let mut all = steady;
            for ((lamp, whole), lit) in lamps.iter().zip(&mut lit) {
                lit.0 = whole * lamp.on_flat(place, facing);
                lit.1 &= lit.0 > 0.0;
                all += if lit.1 { 0.0 } else { lit.0 };
            }
            for ((gets, hidden), shadow) in lit.iter().zip(&mut found) {
                if !hidden {
                    continue;
                }
                let of = if on_floor { &mut shadow.floor } else { &mut shadow.behind };
                let left = all / (all + gets);
                let so_far = of.get_or_insert(Fallen { of_frame: 0.0, left: 1.0 });
                so_far.of_frame += 1.0 / (ACROSS * DOWN) as f64;
                so_far.left = so_far.left.min(left);
            }
        }
    }
    found
}
