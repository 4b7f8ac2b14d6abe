//! A sheet behind the subject: whether it fills the frame, and what would make it.
//!
//! model.md §12: it stands on the floor about the middle. The corner rays of the frame have to meet it; a ray that meets the
//! floor first asks for no sheet.

use super::field::Shining;
use super::lens::Lens;
use super::space::{Spot, spot};

/// How far behind the mark a sheet may be said to stand at the least, in metres: nearer it is in the way.
const NEAREST_M: f64 = 0.5;
/// Places across and up at which its light is looked at, edges included.
const ACROSS: usize = 13;
const UP: usize = 9;

/// A sheet of a size that hangs behind the mark, in metres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sheet {
    /// Behind the mark.
    pub behind: f64,
    /// How wide.
    pub wide: f64,
    /// How high.
    pub high: f64,
}

/// What a sheet lacks to fill the frame, in metres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lacks {
    /// In width, in all.
    pub width: f64,
    /// In height.
    pub height: f64,
    /// Whether the floor shows below it.
    pub floor_shows: bool,
}

impl Lacks {
    /// Whether it fills the frame.
    pub fn nothing(&self) -> bool {
        self.width == 0.0 && self.height == 0.0
    }
}

impl Sheet {
    fn lacks_when(&self, lens: &Lens, narrower: f64) -> Lacks {
        let corners = lens.corners(self.behind, narrower);
        let met = || corners.iter().flatten();
        let wide = met().map(|corner| 2.0 * corner.x.abs()).fold(0.0, f64::max);
        let high = met().map(|corner| corner.z).fold(0.0, f64::max);
        Lacks {
            width: (wide - self.wide).max(0.0),
            height: (high - self.high).max(0.0),
            floor_shows: corners.iter().any(Option::is_none),
        }
    }

    /// What it lacks.
    pub fn lacks(&self, lens: &Lens) -> Lacks {
        self.lacks_when(lens, 1.0)
    }

    /// How much wider it would have to be, in all, for who is followed to some places on the floor; endless where the lens
    /// then looks past any sheet.
    pub fn lacks_followed(&self, lens: &Lens, places: &[(f64, f64)]) -> f64 {
        let beside = |place: &(f64, f64)| {
            let panned = Lens { view: lens.view.panned_to(*place), ..*lens };
            if panned.passes(self.behind) { f64::INFINITY } else { self.lacks(&panned).width }
        };
        places.iter().map(beside).fold(0.0, f64::max)
    }

    /// The farthest behind the mark, nearer than it hangs, from which it fills the frame; in whole tenths of a metre.
    pub fn fills_from(&self, lens: &Lens) -> Option<f64> {
        let tenths = |metres: f64| (10.0 * metres).floor() as u32;
        let mut near = (tenths(NEAREST_M)..=tenths(self.behind)).rev().map(|k| f64::from(k) / 10.0);
        near.find(|behind| Self { behind: *behind, ..*self }.lacks(lens).nothing())
    }

    /// The shortest focal length of the lens, longer than the one that is set, at which it fills the frame; in whole
    /// millimetres.
    pub fn fills_at(&self, lens: &Lens) -> Option<u32> {
        let millimetres = |focal: f64| (1e3 * focal).floor() as u32;
        let mut longer = millimetres(lens.focal.0) + 1..=millimetres(lens.focal.1);
        longer.find(|mm| self.lacks_when(lens, lens.narrower(1e-3 * f64::from(*mm))).nothing())
    }
}

/// What lights put on the background where the lens sees it, the least and the most of it, in lx·s: each by the cosine at
/// which it arrives. Beside a sheet that is too small nothing is told.
pub fn lit(lens: &Lens, behind: f64, size: Option<(f64, f64)>, lamps: &[(Shining, f64)]) -> Option<(f64, f64)> {
    let ([left, right], [top, bottom]) = lens.edges(behind);
    let (half_wide, most_high) = size.map_or((f64::INFINITY, f64::INFINITY), |(wide, high)| (wide / 2.0, high));
    let (x0, x1) = (left[0].max(-half_wide), right[0].min(half_wide));
    let (z0, z1) = (bottom[1].max(0.0), top[1].min(most_high));
    if x0 >= x1 || z0 >= z1 {
        return None;
    }
    let at = |k: usize, count: usize, (from, to): (f64, f64)| from + (to - from) * k as f64 / (count - 1) as f64;
    let mut ends = (f64::INFINITY, 0.0_f64);
    for i in 0..ACROSS {
        for k in 0..UP {
            let place = spot(at(i, ACROSS, (x0, x1)), behind, at(k, UP, (z0, z1)));
            let all = { lamps.iter() }.map(|(lamp, share)| share * lamp.on_flat(place, TO_CAMERA)).sum::<f64>();
            ends = (ends.0.min(all), ends.1.max(all));
        }
    }
    Some(ends)
}

/// A wall faces the camera.
pub const TO_CAMERA: Spot = spot(0.0, -1.0, 0.0);
