//! How a light shades a surface: where it comes from, how large it looks, what it throws on shiny and through thin things.

use crate::cast::Stuff;
use crate::shadow::Shade;
use crate::space::{V3, add, dot, unit};
use std::sync::Arc;

/// A light as a surface at one place sees it.
#[derive(Clone, Copy)]
pub(crate) struct Beam<'a> {
    /// Unit vector towards it.
    pub towards: V3,
    /// Its apparent size: the sine of half its angle.
    pub size: f32,
    /// From behind: scales its brightest edge to 1.
    pub edge: Option<f32>,
    /// What flat things take of it.
    pub on_flat: f32,
    /// What walls and floor throw back into the shade.
    pub bounce: f32,
    /// Who stands in its way.
    pub shade: Option<&'a Arc<Shade>>,
}

impl Beam<'_> {
    /// What it is known by, beside who stands in its way.
    pub fn key(&self) -> BeamKey {
        let numbers = [self.size, self.edge.unwrap_or(-1.0), self.on_flat, self.bounce];
        BeamKey { towards: self.towards, numbers }
    }
}

/// What a beam is known by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct BeamKey {
    towards: V3,
    numbers: [f32; 4],
}

/// What a surface gets of a light of some apparent size, against one that faces it: the cosine, but for the turn of the
/// shade, where the light sets behind the surface's own horizon bit by bit.
#[inline]
pub(crate) fn soft_cosine(cosine: f32, size: f32) -> f32 {
    if cosine >= size {
        cosine
    } else if cosine <= -size {
        0.0
    } else {
        (cosine + size) * (cosine + size) / (4.0 * size)
    }
}

/// A place on a surface.
#[derive(Clone, Copy)]
pub(crate) struct Surface {
    pub at: V3,
    pub normal: V3,
    /// Unit vector to the lens.
    pub to_lens: V3,
}

impl Beam<'_> {
    /// What a place sends to the lens of this light at level 1: in the stuff's own colour, and mirrored.
    #[inline]
    pub fn on(&self, surface: &Surface, stuff: &Stuff) -> [f32; 2] {
        if stuff.flat {
            // What is turned to the camera gets nothing from behind; a lamp shines by itself.
            let gets = if self.edge.is_some() && stuff.tone <= 1.0 { 0.0 } else { self.on_flat };
            return [stuff.tone * gets, 0.0];
        }
        let facing = dot(surface.normal, self.towards);
        let mut lit = soft_cosine(facing, self.size);
        if let Some(scale) = self.edge {
            lit = (lit * scale).min(1.0);
        }
        let behind = stuff.through * (-facing).max(0.0);
        let mut mirrored = 0.0;
        if stuff.shine > 0.0 && facing > 0.0 {
            let half = unit(add(self.towards, surface.to_lens));
            // A large light is mirrored as a large patch.
            let narrow = stuff.narrow / (1.0 + 6.0 * self.size * self.size * stuff.narrow * 0.1);
            mirrored = 0.25 * stuff.shine * dot(surface.normal, half).max(0.0).powf(narrow);
        }
        let open = match self.shade {
            Some(shade) if lit + behind + mirrored > 1e-3 => shade.open(surface.at, surface.normal, self.size),
            _ => 1.0,
        };
        let thrown = if self.edge.is_some() { 0.0 } else { self.bounce };
        [stuff.tone * (thrown + (1.0 - thrown) * (lit + behind) * open), mirrored * open]
    }
}

/// Steady light on a surface: some from one side, some from all around.
#[derive(Clone, Copy)]
pub(crate) struct Dome<'a> {
    pub towards: V3,
    pub size: f32,
    pub around: f32,
    pub shade: Option<&'a Arc<Shade>>,
}

impl Dome<'_> {
    fn raw(&self, normal: V3, open: f32) -> f32 {
        let around = 0.62 + 0.38 * normal[2];
        self.around * around + (1.0 - self.around) * soft_cosine(dot(normal, self.towards), self.size) * open
    }

    /// Against a surface that gets most of it.
    #[inline]
    pub fn on(&self, surface: &Surface, stuff: &Stuff) -> f32 {
        if stuff.flat {
            return 1.0;
        }
        let open = match self.shade {
            Some(shade) if self.around < 1.0 && dot(surface.normal, self.towards) > -self.size => {
                shade.open(surface.at, surface.normal, self.size)
            }
            _ => 1.0,
        };
        (self.raw(surface.normal, open) / self.raw(self.towards, 1.0)).min(1.0)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_small_light_is_a_cosine_and_a_large_one_fades_where_it_sets() {
        for degrees in [0.0_f32, 30.0, 60.0, 80.0] {
            let cosine = degrees.to_radians().cos();
            assert!((soft_cosine(cosine, 0.02) - cosine).abs() < 1e-6, "{degrees}");
        }
        // Of a large light some is still up when its middle has set; none when all of it has.
        assert!(soft_cosine(-0.1, 0.4) > 0.0 && soft_cosine(-0.1, 0.02) == 0.0 && soft_cosine(-0.5, 0.4) == 0.0);
        let steps: Vec<f32> = (-100..=100).map(|k| soft_cosine(k as f32 / 100.0, 0.4)).collect();
        assert!(steps.windows(2).all(|pair| pair[0] <= pair[1] && pair[1] - pair[0] < 0.011), "no step, no edge");
    }
}
