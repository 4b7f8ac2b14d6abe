//! Light in space: what one light puts on any place of the set, its lit circle, and how even an area is lit.
//!
//! model.md §12. A light's distance on the Bench is the one to the chest of who stands on the mark: one truth.

use super::CHEST_M;
use super::space::{Spot, spot};
use crate::physics::output::{Beam, Face};
use crate::physics::subject::direction;
use crate::quantity::{Angle, Metres, Stops};

/// The chest of who stands on the mark.
pub const CHEST: Spot = spot(0.0, 0.0, CHEST_M);

/// A light in the set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lamp {
    /// `H1·2^M·P`: lx·s at a metre on its axis.
    pub strength: f64,
    /// Its face.
    pub face: Face,
    /// Its beam.
    pub beam: Beam,
    /// Where its face is.
    pub at: Spot,
    /// What it is aimed at.
    pub aim: Spot,
}

/// A place from how it is set on the Bench: bearing, height over the horizon, distance to the chest.
pub fn placed(bearing: Angle, height: Angle, distance: Metres) -> Spot {
    let [right, near, up] = direction(bearing, height);
    CHEST + spot(right, -near, up) * distance.as_metres()
}

/// The other way round: bearing and height in degrees, and the distance in metres.
pub fn set_so(at: Spot) -> (f64, f64, f64) {
    let way = at - CHEST;
    let distance = way.length();
    let bearing = way.x.atan2(-way.y).to_degrees();
    let height = if distance > 0.0 { (way.z / distance).clamp(-1.0, 1.0).asin().to_degrees() } else { 0.0 };
    (bearing, height, distance)
}

/// The same as a shot file has it: tenths of a degree, whole centimetres.
pub fn noted(at: Spot) -> (f64, f64, f64) {
    let (bearing, height, distance) = set_so(at);
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    (tenth(bearing), tenth(height), (distance * 100.0).round() / 100.0)
}

/// The place that a shot file has for a place.
pub fn as_noted(at: Spot) -> Spot {
    let (bearing, height, distance) = noted(at);
    placed(Angle::from_degrees(bearing), Angle::from_degrees(height), Metres::from_metres(distance))
}

/// A bearing as a clock on the floor, seen from above with the camera at 6: hours from 0 up to 12.
pub fn clock(bearing_deg: f64) -> f64 {
    (6.0 - bearing_deg / 30.0).rem_euclid(12.0)
}

impl Lamp {
    /// What a receiver turned to it gets at a place, in lx·s; nothing behind its face.
    pub fn on(&self, place: Spot) -> f64 {
        let (axis, way) = (self.aim - self.at, place - self.at);
        let distance = way.length();
        let lengths = axis.length() * distance;
        let cosine = if lengths > 0.0 { (axis.dot(way) / lengths).min(1.0) } else { 1.0 };
        self.strength * self.beam.share(cosine) / self.face.spread(Metres::from_metres(distance)).max(1e-6)
    }

    /// What a dome gets there that is turned to the camera.
    pub fn on_dome(&self, place: Spot, camera: Spot) -> f64 {
        let (to_light, to_camera) = (self.at - place, camera - place);
        let lengths = to_light.length() * to_camera.length();
        let cosine = if lengths > 0.0 { to_light.dot(to_camera) / lengths } else { 1.0 };
        self.on(place) * (1.0 + cosine) / 2.0
    }

    /// How far a place is off its axis.
    pub fn off_axis(&self, place: Spot) -> Angle {
        let (axis, way) = (self.aim - self.at, place - self.at);
        let lengths = axis.length() * way.length();
        Angle::from_radians(if lengths > 0.0 { (axis.dot(way) / lengths).clamp(-1.0, 1.0).acos() } else { 0.0 })
    }

    /// Radius of the circle around its aim in which it loses no more than some stops, square to its axis.
    pub fn circle(&self, stops: f64) -> f64 {
        (self.aim - self.at).length() * edge_of(&self.beam, stops).as_radians().tan()
    }

    /// Whether a lens looks into it: it lies inside the beam, to where three stops are lost.
    pub fn shines_at(&self, lens: Spot) -> bool {
        self.beam.at(self.off_axis(lens)) > Stops::from_stops(-3.0)
    }
}

/// The angle off the axis at which a beam has lost some stops.
pub fn edge_of(beam: &Beam, stops: f64) -> Angle {
    let (mut inside, mut outside) = (0.0, std::f64::consts::FRAC_PI_2);
    for _ in 0..50 {
        let middle = 0.5 * (inside + outside);
        if beam.at(Angle::from_radians(middle)) >= Stops::from_stops(-stops) {
            inside = middle
        } else {
            outside = middle
        }
    }
    Angle::from_radians(inside)
}

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

/// Where the subject may be, in metres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Region {
    /// From the left edge to the right one.
    pub x: (f64, f64),
    /// From the near edge to the far one.
    pub y: (f64, f64),
    /// From the lowest height to the highest.
    pub z: (f64, f64),
}

/// Places along each side of an area that are looked at, edges included.
const ALONG: usize = 25;
/// Heights that are looked at, both ends included.
const HEIGHTS: usize = 3;

impl Region {
    fn along((from, to): (f64, f64), steps: usize) -> impl Iterator<Item = f64> {
        (0..steps).map(move |k| if steps == 1 { from } else { from + (to - from) * k as f64 / (steps - 1) as f64 })
    }

    /// Goes through its places.
    pub(super) fn each(&self, at: impl FnMut(Spot)) {
        self.each_of(ALONG, at);
    }

    /// Through so many along each side.
    pub(super) fn each_of(&self, count: usize, mut at: impl FnMut(Spot)) {
        let heights = if self.z.0 == self.z.1 { 1 } else { HEIGHTS };
        for z in Self::along(self.z, heights) {
            for y in Self::along(self.y, count) {
                for x in Self::along(self.x, count) {
                    at(spot(x, y, z));
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
        self.each(|place| {
            let gets = light(place);
            (low, high) = (low.min(gets), high.max(gets));
            third += usize::from(of_third.0 <= gets && gets <= of_third.1);
            half += usize::from(of_half.0 <= gets && gets <= of_half.1);
            all += 1;
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
                        stretches.push([pair[0][0], pair[0][1], pair[1][0], pair[1][1]]);
                    }
                }
            }
            stretches
        };
        levels.iter().map(of).collect()
    }
}
