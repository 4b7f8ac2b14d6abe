//! A way with a speed through the light: how it changes along it, and where it is as it is at the mark.
//!
//! model.md §12: stops over metres and seconds, and the stretch in which a light that is set by hand is within a third of the
//! value at the mark.

use super::field::CHEST;
use super::space::Spot;

/// Within so many stops of the value at the mark light is as it was set.
pub const WITHIN: f64 = 1.0 / 3.0;
/// Places along it that are looked at.
const ALONG: usize = 480;

/// A straight way.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Path {
    /// Where it begins.
    pub from: Spot,
    /// Where it ends.
    pub to: Spot,
    /// In m/s.
    pub speed: f64,
    /// Whether the camera keeps its distance to whoever comes along it.
    pub camera_goes_along: bool,
}

/// What a light does along a way.
#[derive(Clone, Debug, PartialEq)]
pub struct Along {
    /// Stops against the mark, evenly from its beginning to its end.
    pub stops: Vec<f64>,
    /// The highest less the lowest.
    pub change: f64,
    /// The steepest, in stops a metre.
    pub steepest: f64,
    /// From where to where it is as at the mark, in metres of the way: the longest such stretch.
    pub press: Option<(f64, f64)>,
}

impl Path {
    /// Its length.
    pub fn length(&self) -> f64 {
        (self.to - self.from).length()
    }

    /// The place so many metres along it.
    pub fn at(&self, metres: f64) -> Spot {
        self.from.toward(self.to, metres / self.length().max(1e-9))
    }

    /// What some light does along it, told at so many places.
    pub fn along(&self, light: impl Fn(Spot) -> f64, told: usize) -> Along {
        let middle = light(CHEST).log2();
        let length = self.length();
        let at = |metres: f64| light(self.at(metres)).log2() - middle;
        let metres = |k: usize| length * k as f64 / ALONG as f64;
        let all: Vec<f64> = (0..=ALONG).map(|k| at(metres(k))).collect();
        let low = all.iter().copied().fold(f64::INFINITY, f64::min);
        let high = all.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let step = length / ALONG as f64;
        let steepest = all.windows(2).map(|pair| (pair[1] - pair[0]).abs() / step).fold(0.0, f64::max);
        let inside = |stops: f64| stops.abs() <= WITHIN;
        // An end of a stretch lies between two places, one inside and one not.
        let edge = |mut is: f64, mut is_not: f64| {
            for _ in 0..40 {
                let middle = 0.5 * (is + is_not);
                if inside(at(middle)) { is = middle } else { is_not = middle }
            }
            is
        };
        let mut press: Option<(f64, f64)> = None;
        let mut k = 0;
        while k <= ALONG {
            if !inside(all[k]) {
                k += 1;
                continue;
            }
            let first = k;
            while k < ALONG && inside(all[k + 1]) {
                k += 1;
            }
            let from = if first == 0 { 0.0 } else { edge(metres(first), metres(first - 1)) };
            let to = if k == ALONG { length } else { edge(metres(k), metres(k + 1)) };
            if press.is_none_or(|(a, b)| to - from > b - a) {
                press = Some((from, to));
            }
            k += 1;
        }
        let stops = (0..told).map(|k| at(length * k as f64 / (told - 1) as f64)).collect();
        Along { stops, change: high - low, steepest, press }
    }
}
