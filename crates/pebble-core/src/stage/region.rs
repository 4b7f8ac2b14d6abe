//! Where the subject may be, and how even it is lit.
//!
//! model.md §12: edges and both heights are counted.

use super::field::CHEST;
use super::outline::Outline;
use super::space::{Spot, spot};

/// How even an area is lit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Evenness {
    /// The highest placement less the lowest, in stops.
    pub spread: f64,
    /// The lowest and the highest against the mark.
    pub ends: (f64, f64),
    /// Share of it within a third of a stop of the value at the mark.
    pub within_third: f64,
    /// Within a half.
    pub within_half: f64,
}

/// Where the subject may be, in metres: a rectangle on the floor or an outline, between two heights.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Region {
    /// From the left end to the right one.
    pub x: (f64, f64),
    /// From the near end to the far one.
    pub y: (f64, f64),
    /// From the lowest height to the highest.
    pub z: (f64, f64),
    /// What of this rectangle it is; all of it where nothing is said.
    outline: Option<Outline>,
}

/// Places along each side of an area that are looked at, edges included.
const ALONG: usize = 25;
/// Heights that are looked at, both ends included.
const HEIGHTS: usize = 3;

impl Region {
    /// A rectangle.
    pub const fn between(x: (f64, f64), y: (f64, f64), z: (f64, f64)) -> Self {
        Self { x, y, z, outline: None }
    }

    /// What lies inside an outline.
    pub fn inside(outline: Outline, z: (f64, f64)) -> Self {
        let (x, y) = outline.ends();
        Self { x, y, z, outline: Some(outline) }
    }

    /// Its corners on the floor, in order around it.
    pub fn corners(&self) -> Vec<(f64, f64)> {
        let (x, y) = (self.x, self.y);
        let rectangle = || vec![(x.0, y.0), (x.1, y.0), (x.1, y.1), (x.0, y.1)];
        self.outline.map_or_else(rectangle, |outline| outline.corners().to_vec())
    }

    /// From where to where it goes away from the camera, at its middle from left to right.
    pub fn front_and_back(&self) -> [(f64, f64); 2] {
        let middle = (self.x.0 + self.x.1) / 2.0;
        let (near, far) = self.outline.map_or(self.y, |outline| outline.away_at(middle));
        [(middle, near), (middle, far)]
    }

    /// From where to where it goes to the right, beside the mark; at its middle from front to back where an outline is.
    pub fn left_and_right(&self) -> [(f64, f64); 2] {
        let Some(outline) = &self.outline else { return [(self.x.0, 0.0), (self.x.1, 0.0)] };
        let middle = (self.y.0 + self.y.1) / 2.0;
        let (left, right) = outline.across_at(middle);
        [(left, middle), (right, middle)]
    }

    fn along((from, to): (f64, f64), steps: usize) -> impl Iterator<Item = f64> {
        (0..steps).map(move |k| if steps == 1 { from } else { from + (to - from) * k as f64 / (steps - 1) as f64 })
    }

    /// Goes through its places, those on its edges among them.
    pub(super) fn each(&self, at: impl FnMut(Spot)) {
        self.each_of(ALONG, at);
    }

    /// Through so many along each side.
    pub(super) fn each_of(&self, count: usize, mut at: impl FnMut(Spot)) {
        self.each_within(count, &mut at);
        self.each_on_outline(count, &mut at);
    }

    fn heights(&self) -> impl Iterator<Item = f64> + use<> {
        Self::along(self.z, if self.z.0 == self.z.1 { 1 } else { HEIGHTS })
    }

    /// Each of as much floor as any other.
    fn each_within(&self, count: usize, mut at: impl FnMut(Spot)) {
        for z in self.heights() {
            for y in Self::along(self.y, count) {
                for x in Self::along(self.x, count) {
                    if self.outline.is_none_or(|outline| outline.holds(x, y)) {
                        at(spot(x, y, z));
                    }
                }
            }
        }
    }

    /// A rectangle has its edges among what is within it.
    fn each_on_outline(&self, count: usize, mut at: impl FnMut(Spot)) {
        let Some(outline) = &self.outline else { return };
        for z in self.heights() {
            for (from, to) in outline.edges() {
                for share in Self::along((0.0, 1.0), count).take(count - 1) {
                    at(spot(from.0 + (to.0 - from.0) * share, from.1 + (to.1 - from.1) * share, z));
                }
            }
        }
    }

    /// The highest of some light over it less the lowest, in stops.
    pub fn spread(&self, light: impl Fn(Spot) -> f64) -> f64 {
        self.spread_of(ALONG, light)
    }

    /// No more than that: of every third of its places.
    pub fn spread_at_least(&self, light: impl Fn(Spot) -> f64) -> f64 {
        self.spread_of(ALONG.div_ceil(3), light)
    }

    fn spread_of(&self, count: usize, light: impl Fn(Spot) -> f64) -> f64 {
        let (mut low, mut high) = (f64::INFINITY, 0.0_f64);
        self.each_of(count, |place| {
            let gets = light(place);
            (low, high) = (low.min(gets), high.max(gets));
        });
        (high / low).log2()
    }

    /// Evenness of some light over it, against its value at the mark's chest.
    pub fn evenness(&self, light: impl Fn(Spot) -> f64) -> Evenness {
        let middle = light(CHEST);
        let within = |stops: f64| (middle * (-stops).exp2(), middle * stops.exp2());
        let (of_third, of_half) = (within(1.0 / 3.0), within(0.5));
        let (mut low, mut high, mut third, mut half, mut all) = (f64::INFINITY, 0.0_f64, 0, 0, 0);
        self.each_within(ALONG, |place| {
            let gets = light(place);
            (low, high) = (low.min(gets), high.max(gets));
            third += usize::from(of_third.0 <= gets && gets <= of_third.1);
            half += usize::from(of_half.0 <= gets && gets <= of_half.1);
            all += 1;
        });
        self.each_on_outline(ALONG, |place| {
            let gets = light(place);
            (low, high) = (low.min(gets), high.max(gets));
        });
        let share = |count: usize| count as f64 / all as f64;
        let stops = |gets: f64| (gets / middle).log2();
        Evenness {
            spread: (high / low).log2(),
            ends: (stops(low), stops(high)),
            within_third: share(third),
            within_half: share(half),
        }
    }

    /// Lines of equal light at a height: for each level in stops against the mark the stretches that it is made of.
    pub fn contours(&self, z: f64, levels: &[f64], light: impl Fn(Spot) -> f64) -> Vec<Vec<[f64; 4]>> {
        const CELLS: usize = 24;
        let middle = light(CHEST).log2();
        let at = |k: usize, (from, to): (f64, f64)| from + (to - from) * k as f64 / CELLS as f64;
        let row = |j: usize| -> Vec<f64> {
            (0..=CELLS).map(|i| light(spot(at(i, self.x), at(j, self.y), z)).log2() - middle).collect()
        };
        let grid: Vec<Vec<f64>> = (0..=CELLS).map(row).collect();
        let of = |level: &f64| {
            let mut stretches = Vec::new();
            for j in 0..CELLS {
                for i in 0..CELLS {
                    let corner =
                        |di: usize, dj: usize| (at(i + di, self.x), at(j + dj, self.y), grid[j + dj][i + di] - level);
                    let corners = [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
                    let mut crossings = Vec::with_capacity(4);
                    for k in 0..4 {
                        let (a, b) = (corners[k], corners[(k + 1) % 4]);
                        if (a.2 > 0.0) != (b.2 > 0.0) && a.2.is_finite() && b.2.is_finite() {
                            let share = a.2 / (a.2 - b.2);
                            crossings.push([a.0 + (b.0 - a.0) * share, a.1 + (b.1 - a.1) * share]);
                        }
                    }
                    for pair in crossings.chunks_exact(2) {
                        let stretch = [pair[0][0], pair[0][1], pair[1][0], pair[1][1]];
                        match &self.outline {
                            Some(outline) => outline.within(stretch, |part| stretches.push(part)),
                            None => stretches.push(stretch),
                        }
                    }
                }
            }
            stretches
        };
        levels.iter().map(of).collect()
    }
}
